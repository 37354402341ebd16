"""Every shape sewn on paper: outlines, sewn lengths and volumes, without Tessil's formulas.

Polygons by shapely, volumes by trimesh; geometry rows are common practice, no source.
"""

from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely import Polygon

from tessil.core.bag.model import Bag
from tessil.core.brief.choice import Seams, ShapeChoice, Thing
from tessil.core.edges.choice import Zipper
from tessil.core.panels.choice import Oversize
from tessil.core.plan import plan
from tessil.core.planned import Plan
from tessil.core.project import Project
from tessil.core.shapes import SHAPES
from tessil.core.starting import Answers, first_project
from tests.outside.paper import stitched

F = Fraction
KEYS = list(SHAPES)
BOXED = [key for key, shape in SHAPES.items() if "corner" in shape.uses]


def project_of(key: str, **changes) -> Project:
    """A first project of a shape, sized for something small."""
    answers = Answers(shape=key, width=F(8), height=F(6), thickness=F(3, 2), strips=5)
    return first_project(answers).model_copy(update=changes)


def sized(key: str, sizes: dict, way="finished", **changes) -> Plan:
    options = changes.pop("options", {})
    choice = ShapeChoice(
        kind=key, way=way, options=options, sizes={k: F(v) for k, v in sizes.items()}
    )
    return plan(project_of(key, shape=choice, **changes))


@pytest.mark.parametrize("key", KEYS)
def test_every_outline_is_a_simple_polygon_inside_its_panel(key):
    cases = list(plan(project_of(key)).bag.panels)
    assert cases
    for panel in cases:
        shape = Polygon([(float(x), float(y)) for x, y in panel.outline])
        assert shape.is_valid
        assert shape.exterior.is_simple
        left, top, right, bottom = shape.bounds
        assert (left, top) == (0, 0)
        assert right == pytest.approx(float(panel.width.value))
        assert bottom == pytest.approx(float(panel.height.value))
        assert float(panel.area) == pytest.approx(shape.area)


def _differences(bag: Bag) -> dict[str, Fraction]:
    sewn = {panel.key: stitched(panel) for panel in bag.panels if panel.key != "flap"}
    found = {}
    for join in bag.joins:
        refs = (*join.one, *join.other)
        if any(ref.panel not in sewn or ref.edge not in sewn[ref.panel] for ref in refs):
            continue
        one = sum(sewn[ref.panel][ref.edge] for ref in join.one)
        other = sum(sewn[ref.panel][ref.edge] for ref in join.other)
        found[join.key] = one - other
    return found


@pytest.mark.parametrize("key", [key for key in KEYS if key != "drawstring"])  # it has a band
@pytest.mark.parametrize("by", [F(1, 2), F(-1, 4)])
def test_a_lining_of_another_height_loses_a_straight_strip_and_no_corner(key, by):
    made = plan(project_of(key, lining_shorter=by))
    lead = made.panel(made.shape.leader).panel
    for lining in (panel for panel in made.bag.panels if panel.key == "lining"):
        assert lead.area - lining.area == by * lead.width.value
        for notch, own in zip(lead.notches, lining.notches, strict=True):
            middle = notch.y + notch.height / 2 - lead.height.value / 2
            toward = by / 2 if middle > 0 else -by / 2 if middle else 0
            assert own.y + own.height / 2 - lining.height.value / 2 == middle - toward


SEAMS = st.sampled_from([F(1, 4), F(3, 8), F(1, 2)])


JOINED = [key for key in KEYS if plan(project_of(key)).bag.joins]


@pytest.mark.parametrize("key", JOINED)
@given(side=SEAMS, bottom=SEAMS, corner=SEAMS)
def test_edges_that_are_sewn_together_are_equally_long(key, side, bottom, corner):
    seams = Seams(side=side, bottom=bottom, corner=corner)
    # On paper only straight edges are measured.
    square = [option.key for option in SHAPES[key].options if option.key == "flap_shape"]
    options = dict.fromkeys(square, "square")
    base = project_of(key, seams=seams)
    shape = base.shape.model_copy(update={"options": options})
    differences = _differences(plan(base.model_copy(update={"shape": shape})).bag)
    assert differences
    across = {key: by for key, by in differences.items() if key.what == "end" and by}
    if across:  # ends that go over the zipper: what is short there is the zipper that shows
        assert {abs(by) for by in across.values()} == {base.zipper.shown}
        differences = {key: by for key, by in differences.items() if key not in across}
    assert set(differences.values()) == {0}, differences


def test_bags_without_joins_are_one_panel_that_is_folded_or_left_flat():
    for key in sorted(set(KEYS) - set(JOINED)):
        outer = [p for p in plan(project_of(key)).bag.panels if p.kind == "outer"]
        assert len(outer) == 1, key


def test_equal_legs_at_a_fold_are_a_mistake_of_twice_the_seam():
    """A fold leg as long as the side leg: the two edges of the box seam differ by 2a."""
    sizes = {"panel_width": 15, "panel_height": 28, "notch_side": F(3, 2), "notch_fold": F(3, 2)}
    quarter = Seams(side=F(1, 4), bottom=F(1, 4), corner=F(1, 4), top=F(1, 4))
    made = sized("one-piece", sizes, "panel", seams=quarter)
    wrong = {abs(v) for k, v in _differences(made.bag).items() if k.what == "box corner"}
    assert wrong == {2 * F(1, 4)}
    assert [snag.key for snag in made.snags if "legs" in snag.key] == ["notch.legs.fold"]


def test_one_piece_notch_of_1_1_4_from_the_side_is_1_from_the_fold():
    quarter = Seams(side=F(1, 4), bottom=F(1, 4), corner=F(1, 4), top=F(1, 4))
    made = sized("one-piece", {"width": 10, "height": 10, "depth": F(5, 2)}, seams=quarter)
    notch = made.panel("body").panel.notches[0]
    assert (notch.side_leg.value, notch.other_leg.value) == (F(5, 4), 1)


def test_a_square_of_4_sewn_on_the_line_gives_a_base_of_7_1_2():
    quarter = Seams(side=F(1, 4), bottom=F(1, 4), corner=F(1, 4), top=F(1, 4))
    sizes = {"panel_width": 22, "panel_height": 20, "notch_side": 4, "notch_bottom": 4}
    made = sized("tote", sizes, "panel", seams=quarter, corner="line")
    assert made.bag.finished[2].value == F(15, 2)
    assert made.panel("front").panel.notches[0].cut is False
    assert len(made.panel("front").panel.outline) == 4


@pytest.mark.parametrize("key", ["tote", "one-piece", "satchel", "drawstring", "boxed-zip"])
def test_the_three_corner_schools_make_the_same_bag_from_the_same_panel(key):
    sizes = {"width": 10, "height": 9 if key != "boxed-zip" else 3, "depth": 4}
    made = [sized(key, sizes, corner=school) for school in ("cut", "line", "pinch")]
    assert len({tuple(f.value for f in m.bag.finished) for m in made}) == 1
    leaders = [m.panel(m.shape.leader) for m in made]
    assert len({leader.trimmed.values() for leader in leaders}) == 1
    legs = [leader.panel.notches[0].side_leg.value for leader in leaders]
    depth = made[0].bag.finished[2].value
    seam, corner = F(3, 8), F(3, 8)
    assert legs[1] == legs[0] + corner
    assert legs[2] == legs[1] - seam == depth / 2


def test_the_zipper_on_the_shorter_side_holds_more():
    """A 21 × 23 one-piece boxed bag: more volume with the zipper on 21 than on 23."""
    import trimesh  # heavy: only where it is used

    legs = {"notch_side": F(13, 4), "notch_fold": 3, "notch_zip": F(23, 8)}
    short = sized("boxed-zip", {"panel_width": 21, "panel_height": 23, **legs}, "panel")
    long = sized("boxed-zip", {"panel_width": 23, "panel_height": 21, **legs}, "panel")

    def mesh_volume(made):
        return trimesh.creation.box([float(f.value) for f in made.bag.finished]).volume

    assert mesh_volume(short) > mesh_volume(long)
    (note,) = [snag for snag in long.snags if snag.key == "fit.zipper-side"]
    assert note.fixes
    assert not [snag for snag in short.snags if snag.key == "fit.zipper-side"]


@pytest.mark.parametrize("key", ["tote", "one-piece", "satchel", "boxed-zip", "drawstring"])
def test_what_it_holds_is_the_volume_of_a_box_of_the_inside_sizes(key):
    import trimesh  # heavy: only where it is used

    made = plan(project_of(key))
    box = trimesh.creation.box([float(one.figure.value) for one in made.bag.inside])
    holds = made.bag.figure("holds-filled-as-a-box")
    assert float(holds.value) == pytest.approx(box.volume)
    assert box.is_watertight


@pytest.mark.parametrize("key", KEYS)
def test_finished_sizes_come_back_from_the_panel(key):
    made = plan(project_of(key))
    sizes = {k: f.value for k, f in made.sizes.items()}
    fields = {f.key for f in made.shape.fields_for("panel")}
    again = sized(key, {k: v for k, v in sizes.items() if k in fields}, "panel")
    assert [f.value for f in again.bag.finished] == [f.value for f in made.bag.finished]
    assert again.bag.panels[0].outline == made.bag.panels[0].outline


@given(st.sampled_from(KEYS), st.integers(24, 80), st.integers(24, 80), st.integers(12, 24))
def test_a_finished_size_is_reached_and_not_passed_by_much(key, w, h, d):
    """Wishes on the ruler come out at or just over: legs and panels go up to the mark."""
    sizes = {"width": F(w, 4), "height": F(h, 4), "depth": F(d, 4)}
    if key == "boxed-zip":
        sizes = {"width": F(w, 4), "depth": F(h, 4), "height": F(d, 4)}
    made = sized(key, sizes, zipper=Zipper(shown=F(1, 2)))
    cases = list(zip(made.bag.finished, made.shape.finished_keys, strict=True))
    assert cases
    for figure, name in cases:
        assert 0 <= figure.value - sizes[name] <= F(1, 4)


@pytest.mark.parametrize("key", KEYS)
def test_the_object_goes_in(key):
    made = plan(project_of(key))
    assert made.fits
    assert all(fit.fits for fit in made.fits)


@pytest.mark.parametrize("key", KEYS)
def test_the_largest_bag_uses_the_cloth_and_no_more(key):
    for pieces, quilted in ((1, True), (2, True), (2, False)):
        base = project_of(key)
        cloth = base.shape.cloth.model_copy(
            update={
                "width": F(24),
                "height": F(20),
                "pieces": pieces,
                "quilted": quilted,
                "lining": False,
            }
        )
        shape = base.shape.model_copy(update={"way": "cloth", "cloth": cloth})
        made = plan(base.model_copy(update={"shape": shape}))
        lead = made.panel("back" if key == "bound-pouch" else made.shape.leader)
        across, down = made.cloth.across, made.cloth.down
        assert pieces * across * down >= made.shape.cloths
        wide, high = (F(20), F(24)) if made.cloth.turned else (F(24), F(20))
        # A flap, a band, a strip above the zipper are cut from it too: less is left.
        if key in ("satchel", "drawstring", "bound-pouch"):
            assert lead.trimmed.width.value * across <= wide
            assert lead.trimmed.height.value * down <= high
        elif quilted:
            assert wide - F(1, 8) * across < lead.trimmed.width.value * across <= wide
            assert high - F(1, 8) * down < lead.trimmed.height.value * down <= high
        else:
            assert lead.needed.width.value * across <= wide
            assert lead.needed.height.value * down <= high


@pytest.mark.parametrize(("key", "share"), [("clutch", F(2, 3)), ("satchel", F(3, 5))])
@pytest.mark.parametrize("size", [(12, 12), (24, 24), (40, 14), (11, 36)])
def test_a_flap_that_nobody_typed_keeps_its_proportion_whatever_the_cloth(key, share, size):
    base = project_of(key)
    sides = {"width": F(size[0]), "height": F(size[1])}
    cloth = base.shape.cloth.model_copy(
        update={**sides, "pieces": 2, "quilted": True, "lining": False}
    )
    shape = base.shape.model_copy(update={"way": "cloth", "cloth": cloth})
    made = plan(base.model_copy(update={"shape": shape}))
    height = made.bag.finished[1].value
    over = made.bag.finished[2].value / 2 if key == "satchel" else 0
    assert abs(made.sizes["flap"].value - over - share * height) < F(1, 2)


@pytest.mark.parametrize("way", ["model", "fixed", "none"])
@pytest.mark.parametrize("key", KEYS)
def test_every_panel_comes_out_of_the_cloth_with_its_lining(key, way):
    """Laid out again by hand, from the rows alone: each row's pieces side by side, rows on rows."""
    base = project_of(key)
    cloth = base.shape.cloth.model_copy(update={"width": F(21), "height": F(18), "pieces": 2})
    project = base.model_copy(
        update={
            "shape": base.shape.model_copy(update={"way": "cloth", "cloth": cloth}),
            "oversize": Oversize(way=way),
        }
    )
    made = plan(project)
    sizes = {
        p.panel.label: sorted((p.needed.width.value, p.needed.height.value)) for p in made.panels
    }
    laid = [
        (name.split(" ×")[0], int(name.split(" ×")[1]) if " ×" in name else 1)
        for row in made.cloth.rows
        for name in row
    ]
    for panel in made.bag.panels:
        if panel.kind == "outer" or (panel.kind == "lining" and project.lining == "drop-in"):
            assert sum(many for name, many in laid if name == panel.label) == panel.copies
    area = sum(sizes[name][0] * sizes[name][1] * many for name, many in laid)
    assert area <= 2 * 21 * 18
    for row in made.cloth.rows:
        shorter = sum(sizes[n.split(" ×")[0]][0] for n in row)
        assert shorter <= 21
    trimmed = [(p.trimmed, p.needed) for p in made.panels if p.panel.kind == "outer"]
    if way == "fixed" and project.panels[made.shape.leader].quilting.pattern != "none":
        assert all(n.width.value >= t.width.value + F(3, 4) for t, n in trimmed)


def test_two_tops_do_not_come_out_of_what_one_of_them_takes():
    """Two tops 21 × 9¼ out of one 18 × 21 would leave nothing to square: 2 × 9¼ is 18½."""
    base = project_of("flat-pouch")
    cloth = base.shape.cloth.model_copy(
        update={"width": F(18), "height": F(21), "pieces": 1, "lining": False}
    )
    shape = base.shape.model_copy(update={"way": "cloth", "cloth": cloth})
    made = plan(base.model_copy(update={"shape": shape}))
    front = made.panel("front").needed
    low, high = sorted((front.width.value, front.height.value))
    ways = [(2 * low, high), (low, 2 * high)]
    assert any(sorted(way)[0] <= 18 and sorted(way)[1] <= 21 for way in ways)


def test_no_other_way_to_lay_two_panels_holds_more():
    """Brute force over every split and turn, by the formula of the tote's volume."""
    base = project_of("tote")
    cloth = base.shape.cloth.model_copy(
        update={"width": F(31), "height": F(18), "pieces": 1, "quilted": True, "lining": False}
    )
    sizes = {"depth": F(3)}
    shape = base.shape.model_copy(update={"way": "cloth", "cloth": cloth, "sizes": sizes})
    made = plan(base.model_copy(update={"shape": shape}))
    best = F(0)
    for w, h in ((F(31), F(18)), (F(18), F(31))):
        for across, down in ((1, 2), (2, 1)):
            width, height = (w / across) // F(1, 8) / 8, (h / down) // F(1, 8) / 8
            best = max(best, (width - 3 - F(3, 4)) * (height - F(3, 2) - F(3, 8)) * 3)
    size = F(1)
    for figure in made.bag.finished:
        size *= figure.value
    assert size == best


def test_a_clutch_turns_its_front_and_flap_but_not_its_back():
    """The rule of the fold: up on flap and front ends down, on the back it stays up."""
    made = plan(project_of("clutch"))
    turned = {
        (look.side, at): face.turned for look in made.looks for at, face in enumerate(look.faces)
    }
    assert turned[("front", 0)] is True
    assert turned[("front", 1)] is True
    assert turned[("back", 0)] is False


@pytest.mark.parametrize("key", KEYS)
def test_faces_lie_on_their_panels_and_fill_their_look(key):
    made = plan(project_of(key))
    cases = [look for look in made.looks if look.side != "open"]
    assert cases
    for look in cases:
        covered = Polygon()
        for face in look.faces:
            panel = made.bag.panel(face.panel)
            x, y, w, h = face.source
            assert min(x, y) >= -1e-9
            assert x + w <= float(panel.width.value) + 1e-9
            assert y + h <= float(panel.height.value) + 1e-9
            tx, ty, tw, th = (float(v) for v in face.target)
            # The walls of a soft bag lean: seen from the front they are a little lower.
            near = 0.02 if made.bag.net.mouth is not None else 1e-6
            assert (tw, th) == (pytest.approx(float(w)), pytest.approx(float(h), rel=near))
            covered = covered.union(
                Polygon([(tx, ty), (tx + tw, ty), (tx + tw, ty + th), (tx, ty + th)])
            )
        whole = float(look.width * look.height)
        # What is not cloth is the zipper that shows, or what a flap lies beyond.
        zipped = sum(float(tape.width) * look.width for tape in made.bag.net.tapes)
        beyond = look.width - float(made.bag.finished[0].value)
        assert whole - zipped - beyond * look.height - 1e-6 <= covered.area <= whole + 1e-6


@pytest.mark.parametrize("packed", ["stacked", "beside"])
def test_things_packed_behind_or_beside_each_other(packed):
    things = (
        Thing(name="book", width=F(6), height=F(8), thickness=F(1), count=2),
        Thing(name="case", width=F(3), height=F(4), thickness=F(3, 2)),
    )
    base = project_of("tote")
    hold = base.hold.model_copy(update={"things": things, "packed": packed})
    inside = [one.figure.value for one in plan(base.model_copy(update={"hold": hold})).bag.inside]
    need = (6, 8, 2 + F(3, 2)) if packed == "stacked" else (9, 8, 2)
    assert all(have >= want for have, want in zip(inside, need, strict=True))
    assert inside[0] < need[0] + 2


ISO = {
    "ID-1 card": (F("85.60"), F("53.98"), F("0.76")),
    "A5": (F(148), F(210), F(10)),
    "A4": (F(210), F(297), F(10)),
}


@pytest.mark.parametrize("name", ISO)
@pytest.mark.parametrize("key", ["tote", "flat-pouch", "clutch", "bound-pouch"])
def test_cards_and_papers_of_published_sizes_go_in(key, name):
    """ISO/IEC 7810 ID-1 is 85.60 × 53.98 × 0.76 mm; ISO 216 A4, A5 (both from memory)."""
    w, h, t = (side * F(5, 127) for side in ISO[name])
    base = project_of(key)
    hold = base.hold.model_copy(
        update={"things": (Thing(name=name, width=w, height=h, thickness=t),)}
    )
    inside = [one.figure.value for one in plan(base.model_copy(update={"hold": hold})).bag.inside]
    assert inside[0] >= w
    assert inside[1] >= h


@pytest.mark.parametrize("corner", ["cut", "line", "pinch"])
@pytest.mark.parametrize("seam", ["1/4 in", "3/8 in", "7 mm"])
@pytest.mark.parametrize("units", ["inch", "metric"])
@pytest.mark.parametrize("key", BOXED)
def test_computed_legs_of_a_corner_meet_under_any_ruler(key, units, seam, corner):
    """Each leg less what its seam takes is alike (geometry: the two edges are sewn together)."""
    seams = project_of(key).seams.model_validate(
        {**project_of(key).seams.model_dump(), "side": seam, "bottom": seam}
    )
    project = project_of(key).model_copy(update={"seams": seams, "units": units, "corner": corner})
    panel = plan(project).panel(SHAPES[key].leader).panel
    cases = list(panel.notches)
    assert cases
    for notch in cases:
        assert notch.side_leg.value - notch.side_takes == notch.other_leg.value - notch.other_takes
