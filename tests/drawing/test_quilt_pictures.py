"""What the layer and quilting stages draw, and the logbook's plots, as data."""

import pytest

from tessil.core.catalogue import material, materials
from tessil.core.logbook.views import stack_view
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tessil.core.quilting.acts.minding import offers
from tessil.core.snags import Stage
from tessil.drawing.layerview import disc, factor_of, level
from tessil.drawing.picture import Badge, Cloth, Dimension, Label, Line, Net, Shade, distance
from tessil.drawing.pictures import View, picture_of
from tessil.drawing.plotview import HIGH, WIDE, agreement_picture, gap_picture, materials_picture
from tessil.drawing.quiltview import deformed, exaggeration, offer_picture
from tessil.files.logfile import load_book
from tests.conftest import DEMO, plies, tote, with_front

F = Fraction


def _quilt(project, leaf="lines", line=""):
    made = plan(project)
    return made, picture_of(made, View(Stage.QUILT, "front", leaf=leaf, line=line))


def _texts(picture, kind=Dimension):
    return [item.text for item in picture.of(kind) if item.text]


# -- layers ----------------------------------------------------------------------------------


def test_layers_are_drawn_in_order_as_thick_as_they_are_times_the_factor():
    project = with_front(tote(), ("layers.plies", plies("polyester-batting", "cotton")))
    made = plan(project)
    front = made.panel("front")
    picture = picture_of(made, View(Stage.LAYER, "front", leaf="layers", ply=0))
    factor = factor_of(front)
    words = " ".join(_texts(picture, Label))
    assert f"drawn {factor} times" in words
    sides = [sheet for sheet in picture.of(Shade) if len(sheet.outline) == 4][-3:]
    high = [sheet.outline[2][1] - sheet.outline[0][1] for sheet in sides]
    thick = [float(layer.material.relaxed_mm) / 25.4 * factor for layer in front.layers]
    assert high == pytest.approx(thick)
    tops = [sheet.outline[0][1] for sheet in sides]
    assert tops == sorted(tops)
    assert list(picture.pieces) == ["ply:0", "ply:1"]
    assert any(item.stroke == "picked" for item in picture.of(Line))


def test_what_is_held_out_of_the_seams_ends_before_them_in_the_drawing():
    project = with_front(tote(), ("layers.plies", plies("fusible-fleece", rule="inside")))
    picture = picture_of(plan(project), View(Stage.LAYER, "front", leaf="layers"))
    seams = [item.points[0][0] for item in picture.of(Line) if item.stroke == "seam"][-2:]
    left, right = picture.pieces["ply:0"][0][0], picture.pieces["ply:0"][1][0]
    assert min(seams) <= left < right <= max(seams)


def test_thickness_is_shown_in_numbers_and_rims():
    project = with_front(tote(), ("layers.plies", plies("sew-in-foam")))
    made = plan(project)
    picture = picture_of(made, View(Stage.LAYER, "front", leaf="bulk"))
    assert "9.0" in _texts(picture, Label)  # the boxed corner: 4 × 2.25
    assert [level(mm) for mm in (1, 2, 2.1, 5, 6.1)] == [0, 0, 1, 2, 3]
    rims = [
        max(x for x, _ in next(i for i in disc((0, 0), mm) if isinstance(i, Shade)).outline)
        for mm in (1, 3, 5, 7)
    ]
    assert rims == sorted(set(rims))
    (badge,) = picture.of(Badge)
    assert made.snags[badge.number - 1].key == "layer.thick.front"


# -- lines -----------------------------------------------------------------------------------


def test_gaps_are_dimensioned_once_a_set_and_margins_too():
    grid = with_front(
        tote(),
        ("quilting.pattern", "grid"),
        ("quilting.gap", F(1)),
        ("quilting.gap_other", F(2)),
        ("quilting.spacing", "keep"),
    )
    _, picture = _quilt(grid)
    texts = _texts(picture)
    assert "1" in texts
    assert "2" in texts
    assert len(texts) >= 6  # two gaps, two margins, and the size of the top


def test_a_slanted_gap_is_measured_square_to_the_lines():
    slanted = with_front(
        tote(),
        ("quilting.pattern", "diagonal"),
        ("quilting.spacing", "keep"),
        ("quilting.gap", F(3, 2)),
    )
    made, picture = _quilt(slanted)
    dimension = next(item for item in picture.of(Dimension) if item.over_cloth)
    (x1, y1), (x2, y2) = (
        made.panel("front").trimmed_at(*p) for p in (dimension.start, dimension.end)
    )
    assert ((x2 - x1) ** 2 + (y2 - y1) ** 2) ** 0.5 == pytest.approx(1.5, abs=0.03)
    assert dimension.text == "1½"


def test_a_line_in_hand_is_picked_and_every_line_can_be_taken():
    made, picture = _quilt(tote(), line="line:0.a.2")
    assert len(picture.strokes) == len(made.panel("front").quilt.lines)
    picked = next(item for item in picture.of(Line) if item.stroke == "picked")
    assert picked.points == picture.strokes["line:0.a.2"]
    x = picked.points[0][0]
    assert distance((x + 0.3, 5.0), picked.points) == pytest.approx(0.3)


def test_the_order_numbers_every_line_and_points_where_to_sew():
    made, picture = _quilt(tote(), "sewing")
    turns = made.panel("front").sewing.order
    numbers = [item.text for item in picture.of(Label) if item.strong]
    assert numbers == [str(n) for n in range(1, len(turns) + 1)]
    assert sum(item.stroke == "mark" for item in picture.of(Line)) == len(turns)


def test_rings_are_drawn_as_rings():
    _, picture = _quilt(with_front(tote(), ("quilting.pattern", "echo")))
    rings = [item for item in picture.of(Line) if item.stroke == "quilt"]
    assert rings
    assert all(item.closed for item in rings)


def test_what_it_is_drawn_in_to_is_exaggerated_by_what_the_caption_says():
    made, picture = _quilt(tote(), "draws")
    front = made.panel("front")
    factor = exaggeration(front)
    assert f"drawn {factor} times" in picture.caption
    outline = next(item for item in picture.of(Line) if item.stroke == "drawn" and item.closed)
    wide = outline.points[1][0] - outline.points[0][0]
    width = float(front.pieced.width.value)
    assert 1 - wide / width == pytest.approx(factor * float(front.draw.x.expected.value))
    assert not picture.of(Cloth)  # prints would hide it


def test_a_lean_shows_and_is_gone_with_lines_both_ways():
    project = with_front(tote(), ("quilting.pattern", "diagonal"), ("quilting.gap", F(1, 2)))
    leaning = plan(project).panel("front")
    (lt, rt, rb, lb) = deformed(leaning, 1.0)
    shift = (lt[0] + rt[0] - lb[0] - rb[0]) / 2
    high = lb[1] - lt[1]
    assert shift / high == pytest.approx(float(leaning.draw.lean.expected.value), rel=0.06)
    assert shift > 0  # lines that rise to the right lean it to the right
    both = plan(with_front(project, ("quilting.pattern", "diamonds"))).panel("front")
    (lt, rt, rb, lb) = deformed(both, 1.0)
    assert lt[0] == pytest.approx(lb[0])
    other = plan(with_front(project, ("quilting.angle", -45))).panel("front")
    (lt, _, _, lb) = deformed(other, 1.0)
    assert lt[0] < lb[0]


def test_offers_are_drawn_with_their_own_lines():
    made = plan(with_front(tote(), ("quilting.pattern", "grid")))
    front = made.panel("front")
    cases = list(offers(made, front, 0))
    assert cases
    for offer in cases:
        picture = offer_picture(front, offer.sets)
        drawn = sum(len(net.segments) for net in picture.of(Net))
        assert drawn == sum(len(entry.offsets) for entry in offer.sets)


@pytest.mark.parametrize("leaf", ["lines", "sewing", "draws"])
@pytest.mark.parametrize("units", ["inch", "metric"])
def test_every_leaf_draws_with_and_without_lines(leaf, units):
    for pattern in ("grid", "none"):
        project = with_front(tote(units=units), ("quilting.pattern", pattern))
        _made, picture = _quilt(project, leaf)
        assert picture.caption
        assert picture.items
        assert (pattern == "none") == ("is not quilted" in picture.caption)


# -- plots -----------------------------------------------------------------------------------


def _view(key="cotton-batting"):
    return stack_view(load_book(DEMO.parent / "logbook.json"), key, (material(key),))


def test_the_plot_of_gaps_has_the_makers_points_on_the_paper():
    view = _view()
    picture = gap_picture(view, metric=False)
    dots = [sheet for sheet in picture.of(Shade) if sheet.tone == "shade"]
    assert len(dots) == len(view.points) > 4
    for dot in dots:
        assert all(-0.2 <= x <= WIDE + 0.2 and -0.2 <= y <= HIGH + 0.2 for x, y in dot.outline)
    point = view.points[0]
    middle = sum(x for x, _ in dots[0].outline) / 4
    assert middle == pytest.approx(point.gap / 3 * WIDE)
    curve = next(item for item in picture.of(Line) if item.stroke == "drawn")
    heights = [y for _, y in curve.points]
    assert heights == sorted(heights)  # the closer the lines, the more is lost
    assert any("cm" in text for text in _texts(gap_picture(view, metric=True), Label))


def test_the_plot_of_agreement_has_a_range_for_every_loss():
    view = _view("fusible-fleece")
    picture = agreement_picture(view)
    ranges = [item for item in picture.of(Line) if item.stroke == "drawn"]
    assert len(ranges) == len(view.residuals)
    assert all(one[0] == pytest.approx(other[0]) for one, other in (r.points for r in ranges))


def test_a_stack_without_swatches_is_drawn_as_the_starting_guess():
    view = _view("polyester-batting")
    assert not view.points
    assert gap_picture(view, metric=False).items
    assert agreement_picture(view).items


def test_all_materials_are_drawn_to_one_scale():
    known = [entry for entry in materials().values() if entry.kind != "tape"]
    picture = materials_picture(known, 2)
    wide = [sheet.outline[1][0] for sheet in picture.of(Shade) if sheet.tone == "batting"]
    assert wide == pytest.approx([float(entry.relaxed_mm) / 2.54 for entry in known])
