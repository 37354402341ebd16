"""What pixels must tell: prints at true scale, motifs that differ, pictures that paint."""

from math import hypot

import pytest
from PySide6.QtCore import QPointF, QRectF
from PySide6.QtGui import QColor, QImage, QPainter, QTransform

from tessil.core.catalogue.prints import Print
from tessil.core.cutting.acts.whole import asked, first_laid, lots_of, spreads_of
from tessil.core.cutting.choice import Cutting
from tessil.core.plan import plan
from tessil.core.shapes import SHAPES
from tessil.core.snags import Stage
from tessil.drawing.fonts import load_fonts, text_font, title_font
from tessil.drawing.painter import LANE, PicturePainter, Surface, fitted, paint_picture
from tessil.drawing.picture import Cloth, Dimension, Label, Picture, Placed, rectangle
from tessil.drawing.pictures import View, bag_picture, picture_of
from tessil.drawing.prints import print_brush
from tests.outside.test_every_shape_on_paper import project_of

MOTIFS = ["dots", "checks", "sprigs", "ticking", "waves", "plaid", "notes", "stars", "leaves"]


def _painted(picture, surface, width=240, height=240):
    image = QImage(width, height, QImage.Format.Format_RGB32)
    image.fill(QColor("#ffffff"))
    painter = QPainter(image)
    paint_picture(painter, picture, surface)
    painter.end()
    return image


def _swatch(motif, per_inch=40, turned=False):
    cloth = Print(key="x", name="X", motif=motif, ground="#ffffff", ink="#000000")
    item = Cloth(rectangle(0, 0, 5, 5), cloth, turned=turned)
    return _painted(Picture((item,), (0, 0, 5, 5)), Surface(0, 0, per_inch))


def _row(image, y):
    return [QColor(image.pixel(x, y)).lightness() for x in range(image.width())]


@pytest.mark.parametrize("per_inch", [20, 40, 60])
def test_a_print_repeats_at_its_true_scale(qapp, per_inch):
    """Ticking repeats every inch: a row of pixels is the same one inch on."""
    image = _swatch("ticking", per_inch)
    row = _row(image, 50)
    seen = min(per_inch * 4, 200)
    shifted = [abs(a - b) for a, b in zip(row[: seen - per_inch], row[per_inch:seen], strict=True)]
    unshifted = max(row[:seen]) - min(row[:seen])
    assert unshifted > 100
    assert sum(shifted) / len(shifted) < 0.12 * unshifted


def test_motifs_do_not_look_alike(qapp):
    images = {motif: _swatch(motif) for motif in MOTIFS}
    for one in MOTIFS:
        for other in MOTIFS:
            if one < other:
                assert images[one] != images[other]


def test_a_turned_directional_print_is_upside_down(qapp):
    """Rotated by half a turn, whole repeats of the turned print are the straight ones."""
    straight, turned = (_swatch("notes", turned=way).copy(0, 0, 200, 200) for way in (False, True))
    back = turned.transformed(QTransform().rotate(180))
    assert straight != turned
    assert _difference(straight, back) < 0.25 * _difference(straight, turned)


def _difference(one, other):
    """Mean difference of lightness over a grid of pixels, clear of the edges."""
    points = [(x, y) for x in range(10, 190, 3) for y in range(10, 190, 3)]
    return sum(
        abs(QColor(one.pixel(x, y)).lightness() - QColor(other.pixel(x, y)).lightness())
        for x, y in points
    ) / len(points)


def test_a_print_too_small_to_see_is_one_colour(qapp):
    cloth = Print(key="x", name="X", motif="checks", ground="#ffffff", ink="#000000")
    assert print_brush(cloth, 2).texture().isNull()
    assert not print_brush(cloth, 40).texture().isNull()


def _first(made):
    lots = lots_of([made])
    laid = [first_laid(lot, (), made.marks, "least") for lot in lots]
    sheets = tuple(sheet for one in laid for sheet in one.sheets)
    return spreads_of(Cutting(asked=asked(lots), sheets=sheets), lots)


@pytest.mark.parametrize("key", SHAPES)
def test_every_picture_of_every_shape_paints_something_in_its_box(qapp, key):
    load_fonts()
    made = plan(project_of(key))
    for stage in (
        Stage.BRIEF,
        Stage.PIECE,
        Stage.LAYER,
        Stage.QUILT,
        Stage.TRIM,
        Stage.EDGE,
        Stage.CUT,
    ):
        found = _first(made) if stage is Stage.CUT else None
        picture = picture_of(made, View(stage, made.shape.leader, spreads=found))
        image = _painted(picture, fitted(picture, 240, 240))
        colours = {image.pixel(x, y) for x in range(0, 240, 6) for y in range(0, 240, 6)}
        assert len(colours) > 3, stage


@pytest.mark.parametrize("key", SHAPES)
def test_each_side_of_each_finished_bag_can_be_drawn(qapp, key):
    made = plan(project_of(key))
    cases = list(made.looks)
    assert cases
    for look in cases:
        picture = bag_picture(made, look.side)
        assert picture.of(Placed)
        _painted(picture, fitted(picture, 240, 240))


@pytest.mark.parametrize("key", SHAPES)
@pytest.mark.parametrize("size", [180, 420])
def test_no_size_stands_on_a_line_that_measures_one(qapp, key, size):
    """From every side, small and large; the line is held against the words point by point."""
    load_fonts()
    made = plan(project_of(key))
    for look in made.looks:
        picture = bag_picture(made, look.side)
        surface = fitted(picture, size, size)
        image = QImage(size, size, QImage.Format.Format_RGB32)
        painter = QPainter(image)
        pen = PicturePainter(painter, surface)
        pen.paint(picture)
        painter.end()
        sizes = [one for one in pen.written if one.beside]
        assert len(sizes) == sum(bool(item.text) for item in picture.of(Dimension))
        for item in picture.of(Dimension):
            start, end = surface.at(item.start), surface.at(item.end)
            run = hypot(end.x() - start.x(), end.y() - start.y())
            lane = item.lane * LANE * surface.unit
            level = abs(end.x() - start.x()) >= abs(end.y() - start.y())
            shift = QPointF(0, lane) if level else QPointF(lane, 0)
            for step in range(int(run) + 1):
                at = start + (end - start) * (step / max(run, 1)) + shift
                for one in sizes:
                    box = one.box
                    inside = QRectF(box.left, box.top, box.width, box.height)
                    assert not inside.adjusted(2, 2, -2, -2).contains(at), (look.side, one.text)


@pytest.mark.parametrize("font", [text_font(14), title_font(20)])
def test_the_shipped_faces_are_used_and_have_real_fractions(qapp, font):
    from PySide6.QtGui import QFontInfo, QRawFont

    load_fonts()
    assert QFontInfo(font).family() in ("Tessil Text", "Tessil Title")
    raw = QRawFont.fromFont(font)
    for letter in "½¼¾⅛⅜⅝⅞⅓⁄¹₁₆×÷−":
        assert raw.supportsCharacter(ord(letter)), letter


def test_fitting_leaves_room_for_words(qapp):
    made = plan(project_of("tote"))
    picture = picture_of(made, View(Stage.TRIM, "front"))
    surface = fitted(picture, 800, 600)
    x, y, w, h = picture.box
    box = QRectF(surface.at((x, y)), surface.at((x + w, y + h)))
    left, top, right, bottom = picture.room
    assert box.left() >= left - 1
    assert box.top() >= top - 1
    assert box.right() <= 800 - right + 1
    assert box.bottom() <= 600 - bottom + 1


@pytest.mark.parametrize("corner", ["cut", "line", "pinch"])
@pytest.mark.parametrize("key", SHAPES)
def test_letters_stand_on_the_bag_whatever_its_corners(key, corner):
    """Each letter of the panel's edges stands on the bag too, near it and not beside it."""
    made = plan(project_of(key).model_copy(update={"corner": corner}))
    picture = picture_of(made, View(Stage.BRIEF, made.shape.leader))
    left, top, wide, high = picture.turns
    letters = [label for label in picture.of(Label) if len(label.text) == 1]
    on_bag = [label for label in letters if label.at[0] >= left]
    assert on_bag
    for label in on_bag:
        assert left - 1 <= label.at[0] <= left + wide + 1
        assert top - 1 <= label.at[1] <= top + high + 1
