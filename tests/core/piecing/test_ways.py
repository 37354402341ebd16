"""Every way of piecing: what is cut comes out at what was asked."""

from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely.geometry import Polygon, box
from shapely.ops import unary_union

from tessil.core.numbers.exact import Fraction
from tessil.core.piecing.choice import Piecing, Scrap
from tessil.core.piecing.pressing import pressed
from tessil.core.piecing.slanted import middle_out, slant_of
from tessil.core.piecing.straight import square_top
from tessil.core.plan import plan
from tessil.core.trouble import CannotPlan
from tests.conftest import tote, with_front
from tests.core.piecing.helpers import F, top, wish

BOX = (
    Scrap(width=7, height=3, number=9, print="a"),
    Scrap(width=5, height=4, number=9),
    Scrap(width=F(9, 2), height=F(5, 2), number=30, print="b"),
)

WAYS = [
    {"way": "whole"},
    {"way": "strips"},
    {"way": "strips", "run": "upright"},
    {"way": "strips", "fixed": "mixed"},
    {"way": "strips", "run": "diagonal", "angle": 30},
    {"way": "strips", "run": "diagonal", "angle": -55, "fixed": "mixed"},
    {"way": "strips", "surplus": "border"},
    {"way": "squares"},
    {"way": "squares", "square": 5},
    {"way": "squares", "fixed": "count", "count": 4},
    {"way": "squares", "sashing": F(5, 4)},
    {"way": "squares", "surplus": "border", "surplus_across": "recut"},
    {"way": "web"},
    {"way": "flip"},
    {"way": "flip", "run": "diagonal", "angle": 45},
    {"way": "courses", "scraps": BOX},
    {"way": "courses", "scraps": BOX, "heights": (3, F(5, 2))},
    {"way": "squares", "border": 2},
]


@pytest.mark.parametrize("choice", WAYS, ids=lambda c: "-".join(str(v) for v in c.values())[:40])
@pytest.mark.parametrize("size", [(F(25, 2), F(21, 2)), (9, 17), (F(43, 4), F(61, 4))])
def test_the_pieces_cover_the_top_once_and_it_is_large_enough(choice, size):
    made = top(*size, **choice)
    width, height = made.size.values()
    assert width >= size[0]
    assert height >= size[1]
    shapes = [Polygon(patch.outline) for patch in made.patches]
    whole = unary_union(shapes)
    asked = box(0, 0, float(width), float(height))
    assert whole.symmetric_difference(asked).area < 1e-6
    assert sum(shape.area for shape in shapes) == pytest.approx(float(width * height))


@pytest.mark.parametrize(
    "choice",
    [c for c in WAYS if c["way"] in ("squares", "web", "strips") and c.get("run") != "diagonal"],
    ids=lambda c: "-".join(str(v) for v in c.values())[:40],
)
@given(width=st.integers(60, 200), height=st.integers(60, 200))
def test_cut_area_less_seams_is_the_top(choice, width, height):
    """What is cut, less two seams both ways of each piece, is the top less its own seams."""
    made = top(F(width, 8), F(height, 8), **choice)
    s = F(1, 4)
    shown = sum(
        cut.each * (cut.width.value - 2 * s) * (cut.height.value - 2 * s) for cut in made.cuts
    )
    inner = (made.size.width.value - 2 * s) * (made.size.height.value - 2 * s)
    assert shown == inner


@given(width=st.integers(48, 240), cut=st.integers(10, 48), sash=st.integers(0, 24))
def test_the_least_number_of_squares_that_reaches(width, cut, sash):
    sash = sash if sash >= 6 else 0
    made = top(F(width, 8), 6, way="squares", square=F(cut, 8), sashing=F(sash, 8))
    n, w, c, s = made.columns.number.whole, F(cut, 8), F(sash, 8), F(1, 4)

    def sewn(n):
        return n * (w - 2 * s) + (n - 1) * (c - 2 * s if sash else 0) + 2 * s

    assert made.size.width.value == sewn(n) >= F(width, 8)
    assert n == 1 or sewn(n - 1) < F(width, 8)


def test_one_fewer_and_a_border_fills_up_to_the_ruler():
    made = top(12, 12, way="strips", surplus="border")
    assert made.rows.kinds == ("border", "piece", "piece", "piece", "piece", "piece", "border")
    assert 12 <= made.size.height.value < 12 + F(1, 2)
    assert {cut.what for cut in made.cuts} == {"strip", "border strip"}


def test_squares_on_web_butt_before_they_are_sewn():
    loose, web = top(way="squares"), top(way="web")
    figures = {line.key: line.figure.value for line in web.lines}
    assert loose.size.values() == web.size.values()
    assert figures["web.width"] == 6 * F(5, 2)
    assert figures["web.height"] == 5 * F(5, 2)
    assert web.order[2].what == "web.snip"


@pytest.mark.parametrize("angle", [10, 30, 45, 70, -20, -45, -80])
@pytest.mark.parametrize("fixed", ["width", "mixed"])
def test_slanted_strips_are_as_long_as_the_panel_is_there(angle, fixed):
    """Each strip, cut to its length and laid on its place, covers its part: by shapely."""
    asked = wish(13, 9, way="strips", run="diagonal", angle=angle, fixed=fixed)
    made = top(13, 9, way="strips", run="diagonal", angle=angle, fixed=fixed)
    slant = slant_of(asked.choice)
    panel = box(0, 0, 13, 9)
    lengths = sorted(float(cut.width.value) for cut in made.cuts for _ in range(cut.each))
    spans = []
    for patch in made.patches:
        across = [x * slant.across[0] + y * slant.across[1] for x, y in patch.outline]
        along = [x * slant.along[0] + y * slant.along[1] for x, y in patch.outline]
        assert panel.buffer(1e-6).contains(Polygon(patch.outline))
        spans.append(max(along) - min(along))
        assert max(across) - min(across) < 3
    assert len(lengths) == len(spans)
    for length, span in zip(lengths, sorted(spans), strict=True):
        assert length >= span - 1e-6


OUTLINE = ((0.5, 2.0), (3.0, 0.5), (9.0, 0.5), (12.0, 4.0), (11.0, 9.5), (1.5, 9.0))


@pytest.mark.parametrize("run", ["level", "upright", "diagonal"])
@pytest.mark.parametrize("overhang", [F(1, 2), F(3, 4)])
def test_flipped_strips_cover_a_slanted_outline_and_reach_past_it(run, overhang):
    """Cover check: the strips as cut, laid on their lines, hold the outline and more round it."""
    made = top(25 / F(2), 10, way="flip", run=run, outline=OUTLINE, overhang=overhang)
    slant = slant_of(Piecing(way="flip", run=run))
    panel = Polygon(OUTLINE)
    lengths = {}
    for cut in made.cuts:
        lengths.setdefault(cut.print, []).extend([float(cut.width.value)] * cut.each)
    strips = []
    for patch in made.patches:
        part = Polygon(patch.outline).intersection(panel)
        if part.is_empty:
            continue
        across = [x * slant.across[0] + y * slant.across[1] for x, y in patch.outline]
        near = panel.intersection(_band(slant, min(across) - 1, max(across) + 1))
        low, high = _reach(near, slant.along)
        middle = (low + high) / 2
        strips.append(
            _laid(slant, (min(across), max(across)), middle, max(lengths[patch.print]) / 2)
        )
    covered = unary_union(strips)
    assert covered.buffer(1e-6).contains(panel)
    for patch in made.patches:
        chord = _chord(panel, slant, patch.outline)
        if chord:
            assert max(lengths[patch.print]) >= chord + 2 * float(overhang) - 1e-6


def _band(slant, low, high):
    return _laid(slant, (low, high), 0, 100)


def _laid(slant, across, middle, half):
    (ax, ay), (cx, cy) = slant.along, slant.across
    return Polygon(
        [
            (ax * t + cx * u, ay * t + cy * u)
            for t, u in (
                (middle - half, across[0]),
                (middle + half, across[0]),
                (middle + half, across[1]),
                (middle - half, across[1]),
            )
        ]
    )


def _reach(shape, way):
    places = [x * way[0] + y * way[1] for x, y in shape.exterior.coords]
    return min(places), max(places)


def _chord(panel, slant, outline):
    across = [x * slant.across[0] + y * slant.across[1] for x, y in outline]
    part = panel.intersection(_band(slant, min(across), max(across)))
    if part.is_empty:
        return 0
    low, high = _reach(part, slant.along)
    return high - low


def test_flipping_goes_from_the_middle_outwards():
    assert middle_out(5) == {2: "1", 3: "2", 1: "3", 4: "4", 0: "5"}
    assert sorted(int(v) for v in middle_out(8).values()) == list(range(1, 9))


@pytest.mark.parametrize(
    ("choice", "field", "says"),
    [
        ({"way": "squares", "square": F(1, 2)}, "square", "two seams"),
        ({"way": "squares", "square": F(3, 4), "width": 60, "height": 60}, "square", "wider"),
        ({"way": "squares", "sashing": F(1, 2)}, "sashing", "two seams"),
        ({"way": "strips", "fixed": "mixed", "widths": (F(1, 2), 2)}, "widths", "two seams"),
        ({"way": "flip", "overhang": 0}, "overhang", "bare batting"),
        ({"way": "squares", "border": F(1, 2)}, "border", "two seams"),
        ({"way": "squares", "border": 6}, "border", "nothing between"),
        ({"way": "courses"}, "way", "no scraps yet"),
        ({"way": "crumbs"}, "way", "no scraps yet"),
        ({"way": "courses", "scraps": (Scrap(width=F(1, 2), height=9),)}, "way", "into its seams"),
        ({"way": "courses", "scraps": BOX, "heights": (F(1, 2),)}, "heights", "two seams"),
    ],
)
def test_what_cannot_be_pieced_is_refused_beside_its_field(choice, field, says):
    size = (choice.pop("width", F(25, 2)), choice.pop("height", F(21, 2)))
    with pytest.raises(CannotPlan, match=says) as trouble:
        top(*size, **choice)
    assert trouble.value.field == f"panels.front.piecing.{field}"


def test_two_hundred_squares_each_way_are_too_many():
    with pytest.raises(CannotPlan, match="cut them"):
        square_top(wish(100, 100, way="squares", square=1))
    with pytest.raises(CannotPlan, match="pieces for one panel"):
        square_top(wish(90, 90, way="squares", square=F(5, 4)))


@pytest.mark.parametrize(
    ("angle", "says"),
    [
        (0, "choose level"),
        (90, "choose upright"),
        (-90, "choose upright"),
        (91, "between"),
        (3, "ends run out"),
        ("slope", "number of degrees"),
    ],
)
def test_angles_that_are_none(angle, says):
    with pytest.raises(ValueError, match=says):
        Piecing(angle=angle)


def test_pressing_changes_crossings():
    opened, side = pressed("open"), pressed("side")
    assert (opened.seam.value, opened.crossing.value) == (2, 4)
    assert (side.seam.value, side.crossing.value) == (3, 7)
    assert side.at_crossing.value > opened.at_crossing.value


def test_strips_wider_than_the_panel_make_one_strip():
    made = top(3, 2, way="strips", strip_cut=10)
    assert made.rows.number.whole == 1
    assert made.size.height.value == 10


def test_bands_touch_without_gap():
    made = top(way="strips", fixed="mixed", widths=(2, 3, F(3, 2)))
    bands = made.rows.bands(F(1, 4))
    assert all(a[1] == b[0] for a, b in pairwise(bands))
    assert bands[-1][1] == made.size.height.value
    assert isinstance(bands[-1][1], Fraction)


@pytest.mark.parametrize(
    ("changes", "note"),
    [
        ((), "each, cut"),
        ((("piecing.run", "diagonal"),), "at most, cut"),
        ((("piecing.fixed", "mixed"),), "at most, cut"),
        ((("piecing.way", "flip"),), "at most, cut"),
        ((("piecing.way", "squares"),), "each, cut"),
        ((("piecing.way", "whole"),), "one cloth, cut"),
    ],
)
def test_the_first_rung_says_whether_pieces_are_alike(changes, note):
    rung = plan(with_front(tote(), *changes)).ladder("front")[0]
    assert (rung.key, rung.note) == ("pieces", note)
