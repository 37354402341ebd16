"""Shapes both ways: finished size to panel and back; what cannot be is said in a sentence."""

import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely.geometry import LineString, Point, Polygon

from tessil.core.brief.choice import Held, Seams, ShapeChoice, Thing
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tessil.core.shapes import SHAPES
from tessil.core.trouble import CannotPlan
from tests.conftest import tote
from tests.outside.test_every_shape_on_paper import project_of
from tests.outside.test_spelling import rich

F = Fraction
eighths = st.integers(8, 200).map(lambda n: F(n, 8))
seams = st.sampled_from([F(1, 4), F(3, 8), F(1, 2)])


def _sized(**sizes) -> dict:
    return {key: F(value) for key, value in sizes.items()}


@given(
    eighths,
    eighths,
    st.integers(16, 80).map(lambda n: F(n, 8)),
    seams,
    seams,
    seams,
    seams,
    st.sampled_from(["bound", "turned"]),
)
def test_finished_to_panel_to_finished_returns_the_size(w, h, d, side, bottom, corner, top, edge):
    choice = ShapeChoice(
        way="finished", sizes=_sized(width=w, height=h, depth=d), options={"top": edge}
    )
    made = plan(tote(shape=choice, seams=Seams(side=side, bottom=bottom, corner=corner, top=top)))
    got = [figure.value for figure in made.bag.finished]
    mark = F(1, 8)
    # Half of an odd number of eighths is cut up to the next mark; never less, never a mark more.
    cases = list(zip((w, h, d), got, strict=True))
    assert cases
    for wish, real in cases:
        assert wish <= real < wish + 2 * mark
    if d.denominator <= 4:
        assert got == [w, h, d]


@given(eighths, eighths, seams)
def test_panel_to_finished_to_panel_returns_the_panel(w, h, seam):
    w, h = w + 6, h + 4
    sizes = _sized(panel_width=w, panel_height=h, notch_side=F(3, 2), notch_bottom=F(3, 2))
    all_seams = Seams(side=seam, bottom=seam, corner=seam, top=seam)
    first = plan(tote(shape=ShapeChoice(way="panel", sizes=sizes), seams=all_seams))
    width, height, depth = (figure.value for figure in first.bag.finished)
    again = plan(
        tote(
            shape=ShapeChoice(
                way="finished", sizes=_sized(width=width, height=height, depth=depth)
            ),
            seams=all_seams,
        )
    )
    assert again.panel("front").trimmed.values() == (w, h)


@given(eighths, eighths, st.sampled_from(["bound", "seam", "raw"]))
def test_free_panel_returns_its_size(w, h, edge):
    choice = ShapeChoice(kind="free-panel", sizes=_sized(width=w, height=h), options={"edge": edge})
    made = plan(tote(shape=choice))
    assert [figure.value for figure in made.bag.finished] == [w, h]
    more = 2 * F(3, 8) if edge == "seam" else 0
    assert made.panel("panel").trimmed.values() == (w + more, h + more)


def test_object_way_holds_the_object_with_ease_and_walls():
    folders = Thing(name="folder", width=F(9), height=F(12), thickness=F(1), count=3)
    held = Held(things=(folders,), minded=True)
    made = plan(tote(shape=ShapeChoice(way="object"), hold=held))
    width, height, depth = (figure.value for figure in made.bag.finished)
    wall = made.wall.value
    assert width - 2 * wall >= 9 + 2 * F(1, 2)
    assert height - wall >= 12 + F(1, 2)
    assert depth - 2 * wall >= 3 * 1 + F(1, 2)
    assert all(fit.fits for fit in made.fits)
    assert not [snag for snag in made.snags if snag.key.startswith("fit")]


@pytest.mark.parametrize(
    ("sizes", "field", "says"),
    [
        (_sized(panel_width=11, notch_side=6), "notch_side", "no base"),
        (_sized(panel_height=4, notch_bottom=5), "notch_bottom", "no side"),
    ],
)
def test_a_notch_larger_than_the_panel_is_refused_in_words(sizes, field, says):
    with pytest.raises(CannotPlan, match=says) as trouble:
        plan(tote(shape=ShapeChoice(way="panel", sizes=sizes)))
    assert trouble.value.field == f"shape.sizes.{field}"


def test_a_base_too_shallow_for_its_corner_seam_is_refused():
    shallow = _sized(width=11, height=12, depth=F(1, 4))
    with pytest.raises(CannotPlan, match="no notch"):
        plan(tote(shape=ShapeChoice(way="finished", sizes=shallow), seams=Seams(corner=F(1, 2))))


def test_an_unknown_shape_or_option_is_refused():
    with pytest.raises(CannotPlan, match="not one this Tessil knows"):
        plan(tote(shape=ShapeChoice(kind="balloon")))
    with pytest.raises(CannotPlan, match="not a choice"):
        plan(tote(shape=ShapeChoice(options={"top": "feathered"})))


def test_the_lining_follows_the_front_and_may_be_shorter(project):
    made = plan(tote(lining_shorter=F(1, 4)))
    front, lining = made.panel("front").trimmed, made.panel("lining").trimmed
    assert lining.width.value == front.width.value
    assert lining.height.value == front.height.value - F(1, 4)
    assert [match.follower for match in made.bag.matches] == ["back", "lining"]


@pytest.mark.parametrize("shorter", [F(12), F(25, 2)])
def test_a_lining_cannot_be_shorter_than_nothing(shorter):
    with pytest.raises(CannotPlan, match="no lining left") as trouble:
        plan(tote(lining_shorter=shorter + F(1)))
    assert trouble.value.field == "lining_shorter"


def test_without_a_drop_in_lining_there_is_no_lining_panel():
    made = plan(tote(lining="quilted-in"))
    assert [panel.key for panel in made.panels] == ["front", "back"]
    assert [layer.role for layer in made.panel("front").layers] == ["top", "batting", "backing"]


@pytest.mark.parametrize("key", SHAPES)
def test_every_join_names_edges_that_are_there(key):
    bag = plan(project_of(key)).bag
    refs = [ref for join in bag.joins for ref in (*join.one, *join.other)]
    assert len(refs) >= 2 * len(bag.joins)
    for ref in refs:
        edge = bag.panel(ref.panel).edge(ref.edge)
        assert edge.start != edge.end


@pytest.mark.parametrize("key", SHAPES)
def test_what_keeps_still_lies_well_on_its_panel(key):
    """shapely: the bag is folded up round a point of a panel, not of one of its edges or folds."""
    for project in (project_of(key), rich(key)):
        bag = plan(project).bag
        name, point = bag.net.still
        sheet = next(sheet for sheet in bag.net.sheets if sheet.panel == name)
        outline = Polygon([tuple(map(float, edge.start)) for edge in sheet.edges])
        spot = Point(*map(float, point))
        assert outline.buffer(-0.25).contains(spot)
        for crease in sheet.creases:
            line = LineString([tuple(map(float, crease.start)), tuple(map(float, crease.end))])
            assert line.distance(spot) > 0.25
