"""The piecing stage as recorded items: pieces, marks, what is wrong, flat and as worn."""

import pytest

from tessil.core.catalogue.prints import Photo, Print
from tessil.core.choosing import choose
from tessil.core.edits import applied
from tessil.core.layout.values import COVERS
from tessil.core.numbers.exact import Fraction
from tessil.core.piecing.acts.laying import lock, paint, turn
from tessil.core.plan import plan
from tessil.core.snags import Stage
from tessil.drawing.bands import spot_in
from tessil.drawing.layoutview import key_of_prints, layout_picture, letter
from tessil.drawing.picture import Cloth, Dimension, Label, Line, Net, Placed, neighbour
from tessil.drawing.pictures import View, picture_of
from tests.conftest import DEMO, load_bag, tote

F = Fraction


@pytest.fixture
def clutch():
    return plan(load_bag(DEMO.with_name("march-card-clutch.tessil")))


def piecing(made, panel, **more):
    return picture_of(made, View(Stage.PIECE, panel, **more))


def strokes(picture, stroke):
    return [line for line in picture.of(Line) if line.stroke == stroke]


def test_every_piece_can_be_taken_and_rows_are_numbered(clutch):
    picture = piecing(clutch, "body")
    assert len(picture.pieces) == 40
    assert {spot_in(key)[0] for key in picture.pieces} == {"body"}
    rows = [label.text for label in picture.of(Label) if label.text.startswith("row ")]
    assert rows == [f"row {n}" for n in range(1, 9)]
    (net,) = picture.of(Net)
    assert len(net.segments) == 5 * 9 + 6 * 8  # every side of a 5 × 8 grid once


def test_turned_and_pinned_pieces_carry_their_marks(clutch):
    project, body = clutch.project, clutch.panel("body")
    before = len(strokes(piecing(clutch, "body"), "mark"))
    turned = sum(patch.turned for patch in body.patches)
    assert before == 2 * turned
    changed = applied(project, turn(project, body, (0, 12)))
    pinned = plan(applied(changed, lock(changed, plan(changed).panel("body"), (0, 13))))
    picture = piecing(pinned, "body")
    assert len(strokes(picture, "mark")) == before + 2
    assert len(strokes(picture, "pin")) == 1


def test_like_prints_that_touch_are_struck_through(clutch):
    assert not strokes(piecing(clutch, "body"), "clash")
    body = clutch.panel("body")
    spoiled = plan(
        applied(clutch.project, paint(clutch.project, body, [(0, 16)], body.piece_of(0, 17).print))
    )
    picture = piecing(spoiled, "body")
    assert strokes(picture, "clash")
    assert any(line.stroke == "warn" for line in picture.of(Line))


def test_edge_pieces_say_what_they_will_show(clutch):
    body = clutch.panel("body")
    picture = piecing(clutch, "body")
    told = {d.text for d in picture.of(Dimension) if d.over_cloth}
    read = clutch.marks.notation.read_off
    assert told == {read(edge.shows.value) for edge in body.edges_show}
    assert {edge.side for edge in body.edges_show} == {"left", "right", "top", "bottom"}
    for edge in body.edges_show:
        assert 0 < edge.shows.value < edge.cut.value


def _high(cloth):
    """A sliver of a piece that reaches round a fold is not looked at twice."""
    return max(y for _, y in cloth.outline) - min(y for _, y in cloth.outline)


@pytest.mark.parametrize("side", ["front", "back", "open"])
def test_worn_the_same_pieces_lie_where_the_bag_shows_them(clutch, side):
    picture = piecing(clutch, "body", worn=side)
    body = clutch.panel("body")
    seen = [
        (cloth, cloth.turned != (placed.affine[3] < 0))
        for placed in picture.of(Placed)
        for cloth in placed.items
        if isinstance(cloth, Cloth) and cloth.key
    ]
    assert seen
    for item, _ in seen:
        _, zone, piece = spot_in(item.key)
        assert item.print.key == body.piece_of(zone, piece).print
    directional = [hangs for item, hangs in seen if item.print.directional and _high(item) > 0.3]
    assert not any(directional if side != "open" else ())


def test_parts_and_scraps_are_drawn():
    pouch = plan(load_bag(DEMO.with_name("reed-pouch.tessil")))
    picture = piecing(pouch, "body")
    assert not picture.pieces
    names = {label.text for label in picture.of(Label)}
    assert {"6", "3", "11"} <= names
    assert len(picture.of(Cloth)) == 21


def test_crumbs_say_that_it_is_one_way_they_may_fall():
    project = load_bag(DEMO.with_name("reed-pouch.tessil"))
    body = plan(project).bag.panel("body")
    made = plan(applied(project, choose(project, body, "", ("piecing.way", "crumbs"))))
    assert "may fall" in piecing(made, "body").caption


def test_the_layout_in_letters(clutch):
    body = clutch.panel("body")
    picture = layout_picture(clutch, body)
    assert not picture.of(Cloth)  # nothing that needs colour
    words = [label.text for label in picture.of(Label)]
    for line in key_of_prints(clutch, body):
        mine = [w for w in words if w.split()[0] == line.letter]
        assert len(mine) == line.pieces
        assert sum("↓" in w for w in mine) == line.turned
    assert "flap fold" in words
    assert [letter(at) for at in (0, 25, 26, 27, 52)] == ["A", "Z", "AA", "AB", "BA"]


def test_arrows_go_to_the_piece_that_way():
    grid = {
        f"{x}{y}": ((x, y), (x + 1, y), (x + 1, y + 1), (x, y + 1))
        for x in range(3)
        for y in range(3)
    }
    assert neighbour(grid, "11", (1, 0)) == "21"
    assert neighbour(grid, "11", (0, -1)) == "10"
    assert neighbour(grid, "21", (1, 0)) == ""
    row = {key: shape for key, shape in grid.items() if key[1] == "0"}
    assert neighbour(row, "00", (0, 1)) == "10"


def test_what_a_motif_covers_is_what_is_drawn(qapp):
    from tessil.drawing.prints import _MOTIFS, _tile

    for motif in _MOTIFS:
        tile = _tile(motif, "#000000", "#ffffff", 128)
        points = [tile.pixelColor(x, y).lightnessF() for x in range(128) for y in range(128)]
        assert sum(points) / len(points) == pytest.approx(COVERS[motif], abs=0.02), motif


def test_a_photo_lies_at_the_scale_of_its_two_points(qapp):
    from tessil.drawing.prints import points_per_inch, print_brush

    photo = Photo(
        data="AAAAAAAA",
        wide=400,
        high=300,
        one=(0.25, 0.5),
        other=(0.75, 0.5),
        apart=F(4),
        mean="#336699",
    )
    assert points_per_inch(photo) == 50
    brush = print_brush(Print(key="p", name="p", photo=photo), 40)
    assert brush.color().name() == "#336699"  # not what it says it is: its colour instead


def test_strips_measured_pieced_fill_what_there_is():
    from tessil.core.choosing import measure
    from tessil.core.panels.choice import Got

    project = tote()
    got = Got(width=F(15), height=F(16))
    made = plan(applied(project, measure(project, "front", "pieced", got)))
    ys = [y for cloth in piecing(made, "front").of(Cloth) for _, y in cloth.outline]
    assert max(ys) == pytest.approx(16)


def test_rows_of_several_parts_say_which(clutch):
    from tessil.core.piecing.acts.laying import divide

    body = clutch.panel("body")
    folds = tuple(fold.start[1] for fold in body.panel.folds)
    made = plan(applied(clutch.project, divide(clutch.project, body, folds)))
    for picture in (piecing(made, "body"), layout_picture(made, made.panel("body"))):
        rows = [label.text for label in picture.of(Label) if "row" in label.text]
        assert len(set(rows)) == len(rows) > 6
        assert "part 2, row 1" in rows
