"""What is drawn, as data: in the right place, at the right size, with the right words."""

import pytest
from shapely import Polygon
from shapely.ops import unary_union

from tessil.core.brief.choice import ShapeChoice
from tessil.core.choosing import measure
from tessil.core.edits import applied, edit
from tessil.core.numbers.exact import Fraction
from tessil.core.panels.choice import Got
from tessil.core.plan import plan
from tessil.core.readings import readings
from tessil.core.snags import Stage
from tessil.drawing import theme
from tessil.drawing.painter import fitted
from tessil.drawing.picture import Badge, Cloth, Dimension, Net, clipped, inside, rectangle
from tessil.drawing.pictures import View, bag_picture, picture_of, thumbnail
from tests.conftest import tote, with_front

STAGES = [stage for stage in Stage if stage is not Stage.MAKE]


@pytest.mark.parametrize("stage", STAGES)
@pytest.mark.parametrize("panel", ["front", "back", "lining"])
def test_every_stage_draws_every_panel(stage, panel):
    picture = picture_of(plan(tote()), View(stage, panel))
    assert picture.items
    x, y, width, height = picture.box
    for cloth in picture.of(Cloth):
        for px, py in cloth.outline:
            assert x - 1 <= px <= x + width + 1
            assert y - 1 <= py <= y + height + 1


def test_the_pieced_top_is_covered_once_by_its_strips():
    made = plan(tote())
    picture = picture_of(made, View(Stage.PIECE, "front"))
    shapes = [Polygon(cloth.outline) for cloth in picture.of(Cloth)]
    front = made.panel("front")
    assert len(shapes) == front.strips.number.whole
    area = float(front.pieced.width.value * front.pieced.height.value)
    assert sum(shape.area for shape in shapes) == pytest.approx(area)
    assert unary_union(shapes).area == pytest.approx(area)


@pytest.mark.parametrize("run", ["level", "upright"])
def test_the_trimmed_prints_cover_the_notched_outline(run):
    made = plan(with_front(tote(), ("piecing.run", run)))
    picture = thumbnail(made, made.panel("front"))
    outline = Polygon([(float(x), float(y)) for x, y in made.panel("front").panel.outline])
    union = unary_union([Polygon(cloth.outline) for cloth in picture.of(Cloth)])
    assert union.area == pytest.approx(outline.area, rel=1e-6)
    assert union.symmetric_difference(outline).area < 1e-6


def test_quilting_lines_are_drawn_where_they_are_sewn():
    made = plan(tote())
    (net,) = [
        item
        for item in picture_of(made, View(Stage.QUILT, "front")).of(Net)
        if item.stroke == "quilt"
    ]
    front = made.panel("front")
    (upright,) = front.quilt.sets
    assert len(net.segments) == upright.lines.whole
    middle = net.segments[len(net.segments) // 2][0]
    assert middle == pytest.approx(float(front.pieced.width.value) / 2)
    gap = net.segments[1][0] - net.segments[0][0]
    sewn = float(upright.gap.value)
    assert gap == pytest.approx(sewn / (1 - float(front.draw.x.expected.value)), rel=1e-6)


def test_the_trim_stage_says_how_large_and_where_to_notch():
    texts = {
        item.text for item in picture_of(plan(tote()), View(Stage.TRIM, "front")).of(Dimension)
    }
    assert {"14¾", "13⅞", "1½"} <= texts


def test_snags_stand_at_their_place_with_their_number():
    project = with_front(tote(), ("quilting.spacing", "keep"), ("quilting.gap", Fraction(69, 50)))
    made = plan(project)
    picture = picture_of(made, View(Stage.QUILT, "front"))
    badges = picture.of(Badge)
    assert [badge.number for badge in badges] == [1, 2]
    assert badges[0].at[0] < 2 < 12 < badges[1].at[0]


def test_a_picked_figure_is_pointed_at():
    made = plan(tote())
    reading = next(r for r in readings(made, Stage.QUILT, "front") if r.key == "quilt.gap")
    picture = picture_of(made, View(Stage.QUILT, "front", reading.place))
    (picked,) = [item for item in picture.of(Dimension) if item.picked]
    length = abs(picked.end[0] - picked.start[0])
    assert length == pytest.approx(float(reading.figure.value), rel=0.03)


@pytest.mark.parametrize("stage", [Stage.BRIEF, Stage.PIECE, Stage.TRIM])
def test_what_a_length_points_at_is_as_long_as_it_says(stage):
    """A figure's place, measured on the trimmed panel, is the figure."""
    made = plan(tote())
    exact = {
        "trimmed.width",
        "trimmed.height",
        "finished.width",
        "finished.height",
        "trim.width",
        "trim.height",
        "trim.off.left",
        "trim.off.bottom",
    }
    checked = 0
    for reading in readings(made, stage, "front"):
        if reading.key not in exact or reading.place is None:
            continue
        size = reading.place.height if reading.place.kind == "upright" else reading.place.width
        if reading.key == "trim.off.bottom":
            size = reading.place.height
        assert size == pytest.approx(float(reading.figure.value)), reading.key
        checked += 1
    assert checked or stage is Stage.PIECE


def test_a_measured_panel_is_drawn_as_measured():
    project = tote()
    got = Got(width=Fraction(15), height=Fraction(14))
    made = plan(applied(project, measure(project, "front", "quilted", got)))
    picture = picture_of(made, View(Stage.TRIM, "front"))
    assert picture.box[2] == pytest.approx(15)
    assert picture.box[3] == pytest.approx(14)


@pytest.mark.parametrize("project", [tote(), tote(shape=ShapeChoice(kind="free-panel"))])
def test_the_finished_bag_has_its_finished_sizes(project):
    made = plan(project)
    texts = {item.text for item in bag_picture(made).of(Dimension)}
    assert {made.marks.notation.read_off(figure.value) for figure in made.bag.finished} == texts


def test_before_anything_is_laid_the_cloth_lies_there_as_wide_as_it_is():
    made = plan(tote())
    picture = picture_of(made, View(Stage.CUT, "front"))
    assert picture.box[2] == made.project.stock.usable_width
    number = sum(item.number.whole for item in made.items if not item.in_hand)
    assert f"{number} pieces" in picture.caption


def test_an_unbound_bag_has_no_binding_to_draw():
    choice = ShapeChoice(options={"top": "turned"})
    made = plan(tote(shape=choice))
    assert made.binding is None
    assert "No edge" in picture_of(made, View(Stage.EDGE, "front")).caption


def test_clipping_agrees_with_shapely():
    outline = ((0, 0), (10, 0), (10, 6), (8, 6), (8, 8), (2, 8), (2, 6), (0, 6))
    for low, high, axis in ((1, 7, 1), (1, 9, 0), (5, 20, 1), (-3, 2, 0)):
        band = (
            rectangle(low, -50, high - low, 100)
            if axis == 0
            else rectangle(-50, low, 100, high - low)
        )
        expected = Polygon(outline).intersection(Polygon(band)).area
        assert Polygon(clipped(outline, low, high, axis)).area == pytest.approx(expected)


def test_a_point_is_inside_or_not():
    shape = ((0, 0), (10, 0), (10, 6), (8, 6), (8, 8), (2, 8), (2, 6), (0, 6))
    assert inside((5, 7), shape)
    assert not inside((1, 7), shape)


def test_fitting_does_not_change_proportion():
    picture = picture_of(plan(tote()), View(Stage.TRIM, "front"))
    small, large = fitted(picture, 400, 300), fitted(picture, 1600, 1200)
    for surface in (small, large):
        start, end = surface.at((0, 0)), surface.at((10, 5))
        assert (end.x() - start.x()) / (end.y() - start.y()) == pytest.approx(2)
    assert large.per_inch > small.per_inch


def _luminance(colour):
    parts = [int(colour[at : at + 2], 16) / 255 for at in (1, 3, 5)]
    linear = [p / 12.92 if p <= 0.04045 else ((p + 0.055) / 1.055) ** 2.4 for p in parts]
    return 0.2126 * linear[0] + 0.7152 * linear[1] + 0.0722 * linear[2]


@pytest.mark.parametrize(
    ("text", "ground"),
    [
        (theme.INK, theme.PAPER),
        (theme.INK, theme.CARD),
        (theme.INK, theme.MAT),
        (theme.SOFT, theme.PAPER),
        (theme.SOFT, theme.CARD),
        (theme.SOFT, theme.SELVAGE),
        (theme.SOFT, theme.MAT),
        (theme.SOFT, theme.WARNING_WASH),
        (theme.FAINT, theme.CARD),
        (theme.THREAD, theme.CARD),
        (theme.THREAD, theme.THREAD_WASH),
        (theme.CARD, theme.THREAD),
        (theme.MEASURED, theme.MEASURED_WASH),
        (theme.WARNING, theme.WARNING_WASH),
        (theme.BLOCKING, theme.CARD),
        (theme.CARD, theme.BLOCKING),
        (theme.CARD, theme.INK),
    ],
)
def test_text_can_be_read_on_its_ground(text, ground):
    """4.5:1, the AA contrast of WCAG 2.1 (success criterion 1.4.3; formula from memory)."""
    light, dark = sorted((_luminance(text), _luminance(ground)), reverse=True)
    assert (light + 0.05) / (dark + 0.05) >= 4.5


def test_edits_reach_the_picture():
    made = plan(applied(tote(), edit("", ("binding.print", "red"))))
    strip = picture_of(made, View(Stage.EDGE, "front")).of(Cloth)[-1]
    assert strip.print.key == "red"
