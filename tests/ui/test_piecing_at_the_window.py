"""Piecing driven as a maker does: by keys, clicks and strokes at a real window."""

import pytest
from PySide6.QtCore import QPoint, QPointF, Qt
from PySide6.QtGui import QColor, QImage
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication

from tessil.core.edits import edit
from tessil.core.numbers.exact import Fraction
from tessil.core.piecing.acts.laying import laid
from tessil.core.shelf.rows import Row, Shelf
from tessil.core.snags import Stage

F = Fraction


@pytest.fixture
def clutch(clutch_at_work):
    """The demo clutch at its prints."""
    hands = clutch_at_work
    hands.ctrl(Qt.Key.Key_2)
    hands.leaf("prints")
    return hands


def prints_of(hands, panel="body"):
    return laid(hands.window.desk.plan.panel(panel), 0)


def wait_for_search(hands):
    hands.qtbot.waitUntil(lambda: not hands.window.searches.running, timeout=20_000)
    QApplication.processEvents()


def choose_way(hands, way):
    hands.choose("panel.piecing.way", way)


def test_every_way_of_piecing_is_chosen_and_drawn(at_work):
    window = at_work.window
    at_work.ctrl(Qt.Key.Key_2)
    at_work.leaf("stock")
    at_work.tab_to(at_work.field("scraps.add"))
    for text in ("9 x 3 x8", "7 x 3 x9 stars", "5 x 4 x9"):
        QTest.keyClicks(at_work.focus, text)
        at_work.press(Qt.Key.Key_Return)
    assert len(window.desk.project.scraps) == 3
    at_work.leaf("pieces")
    seen = set()
    for way in ("squares", "web", "flip", "courses", "crumbs", "whole", "strips"):
        choose_way(at_work, way)
        assert window.desk.plan.panel("front").choices.piecing.way == way
        assert window.bench.picture.pieces or way in ("courses", "crumbs")
        seen.add(len(window.bench.picture.items))
    assert len(seen) > 4


def test_slanted_strips_by_their_angle(at_work):
    window = at_work.window
    at_work.ctrl(Qt.Key.Key_2)
    at_work.choose("panel.piecing.run", "diagonal")
    field = at_work.field("panel.piecing.angle")
    at_work.click(field)
    at_work.type("60")
    at_work.press(Qt.Key.Key_Return)
    assert window.desk.plan.panel("front").choices.piecing.angle == 60
    before = window.desk.plan
    for text, says in (("0", "choose level"), ("90", "choose upright"), ("steep", "degrees")):
        at_work.type(text)
        at_work.press(Qt.Key.Key_Return)
        assert says in window.column.fields["panel.piecing.angle"].error.text()
        assert at_work.field("panel.piecing.angle").text() == text
    assert window.desk.project == before.project


def test_widths_in_turn_are_typed_in_one_line(at_work):
    at_work.ctrl(Qt.Key.Key_2)
    at_work.choose("panel.piecing.fixed", "mixed")
    at_work.click(at_work.field("panel.piecing.widths"))
    at_work.type("3, 1 1/2")
    at_work.press(Qt.Key.Key_Return)
    panel = at_work.window.desk.plan.panel("front")
    assert panel.choices.piecing.widths == (F(3), F(3, 2))
    assert panel.strips.mixed
    at_work.type("3, , wide")
    at_work.press(Qt.Key.Key_Return)
    assert at_work.window.column.fields["panel.piecing.widths"].error.text()
    assert at_work.window.desk.plan.panel("front").choices.piecing.widths == (F(3), F(3, 2))


def test_bad_sizes_of_squares_stay_typed_with_a_sentence(clutch):
    clutch.leaf("pieces")
    before = clutch.window.desk.project
    for key, text, says in (
        ("panel.piecing.square", "1/2", "two seams"),
        ("panel.piecing.square", "0", "more than zero"),
        ("panel.piecing.border", "1/4", "two seams"),
        ("panel.piecing.border", "8", "nothing between"),
        ("panel.piecing.sashing", "3/8", "two seams"),
    ):
        clutch.click(clutch.field(key))
        clutch.type(text)
        clutch.press(Qt.Key.Key_Return)
        assert says in clutch.window.column.fields[key].error.text()
        assert clutch.field(key).text() == text
        assert clutch.window.desk.project == before
        clutch.press(Qt.Key.Key_Escape)


def test_prints_are_laid_by_clicks_and_by_a_stroke(clutch):
    window = clutch.window
    basket = clutch.field("panel.piecing.prints")
    clutch.click(window.layout_bar.tool_buttons["lay"])
    clutch.click(basket.swatches[8])
    assert window.desk.seen.brush == "plum"
    clutch.click(window.bench, clutch.piece("piece:body:0:12"))
    assert prints_of(clutch)[12] == "plum"
    steps = window.desk.stack.count()
    start, end = clutch.piece("piece:body:0:15"), clutch.piece("piece:body:0:19")
    QTest.mousePress(window.bench, Qt.MouseButton.LeftButton, pos=start)
    for share in range(1, 21):
        QTest.mouseMove(window.bench, start + (end - start) * share / 20)
        QApplication.processEvents()
    QTest.mouseRelease(window.bench, Qt.MouseButton.LeftButton, pos=end)
    assert prints_of(clutch)[15:20] == ["plum"] * 5
    assert window.desk.stack.count() == steps + 1
    clutch.ctrl(Qt.Key.Key_Z)
    assert prints_of(clutch)[15:20] != ["plum"] * 5
    assert prints_of(clutch)[12] == "plum"


def test_two_pieces_change_places(clutch):
    window = clutch.window
    before = prints_of(clutch)
    clutch.click(window.layout_bar.tool_buttons["swap"])
    clutch.click(window.bench, clutch.piece("piece:body:0:1"))
    clutch.click(window.bench, clutch.piece("piece:body:0:13"))
    after = prints_of(clutch)
    assert (after[1], after[13]) == (before[13], before[1])
    assert window.desk.stack.undoText() == "Swap two pieces"


def test_arrows_walk_the_grid_and_letters_turn_fill_and_pin(clutch):
    window = clutch.window
    window.bench.setFocus()
    clutch.press(Qt.Key.Key_Right)
    clutch.press(Qt.Key.Key_Right)
    clutch.press(Qt.Key.Key_Down)
    assert window.desk.seen.piece == "piece:body:0:6"
    body = window.desk.plan.panel("body")
    turned = body.piece_of(0, 6).turned
    clutch.press(Qt.Key.Key_T)
    assert window.desk.plan.panel("body").piece_of(0, 6).turned != turned
    clutch.press(Qt.Key.Key_P)
    assert window.desk.plan.panel("body").piece_of(0, 6).locked
    clutch.press(Qt.Key.Key_3)
    assert prints_of(clutch)[6] == "stars"
    clutch.press(Qt.Key.Key_R)
    assert prints_of(clutch)[5:10] == ["stars"] * 5
    assert window.layout_bar.deeds[0].isEnabled()
    clutch.press(Qt.Key.Key_Escape)
    assert window.desk.seen.piece == ""
    assert not window.layout_bar.deeds[0].isEnabled()


def test_the_pieces_as_worn_are_the_same_pieces(clutch):
    window = clutch.window
    clutch.click(window.layout_bar.buttons["view:front"])
    assert "front" in window.bench.picture.caption
    clutch.click(window.bench, clutch.piece("piece:body:0:5"))
    assert window.desk.seen.piece == "piece:body:0:5"
    clutch.click(clutch.field("panel.piecing.prints").swatches[1])
    assert prints_of(clutch)[5] == "graph"
    clutch.click(window.layout_bar.buttons["view:"])
    assert "flat" not in window.desk.seen.worn


def test_arranging_runs_beside_the_window_and_keeps_the_rules(clutch):
    window = clutch.window
    basket = clutch.field("panel.piecing.prints")
    clutch.click(window.layout_bar.tool_buttons["lay"])
    clutch.click(basket.swatches[1])
    for piece in (0, 1, 5, 6):
        clutch.click(window.bench, clutch.piece(f"piece:body:0:{piece}"))
    assert window.desk.plan.broken
    assert any(s.key == "layout.alike.body" for s in window.desk.plan.snags)
    row = clutch.field("rules.arrange")
    clutch.click(row.button)
    wait_for_search(clutch)
    assert window.desk.plan.broken == ()
    assert row.words.text() == "Every rule is kept."
    assert window.desk.stack.undoText() == "Arrange the prints"
    first = prints_of(clutch)
    clutch.ctrl(Qt.Key.Key_Z)
    clutch.click(clutch.field("rules.arrange").button)
    wait_for_search(clutch)
    assert prints_of(clutch) == first  # by its number it is the same again


def test_a_search_is_watched_and_stopped(clutch):
    window = clutch.window
    window.show_prints()
    page = window.basket_page
    for _ in range(6):
        page._remove()
    QApplication.processEvents()
    clutch.click(page.back)
    row = clutch.field("rules.arrange")
    clutch.click(row.button)
    assert window.searches.running
    clutch.qtbot.waitUntil(lambda: window.searches.share > 0, timeout=10_000)
    assert not row.bar.isHidden()
    clutch.click(row.button)
    wait_for_search(clutch)
    assert "still broken" in row.words.text()
    assert "Four squares meet" in row.words.text()


def test_changing_the_plan_stops_a_search(clutch):
    window = clutch.window
    clutch.click(clutch.field("rules.arrange").button)
    assert window.searches.running
    clutch.click(clutch.field("rules.corners"), QPoint(8, 8))
    assert not window.searches.running
    assert "since the plan changed" in clutch.field("rules.arrange").words.text()
    assert window.desk.stack.undoText() == "Change the rules"


def test_a_panel_is_divided_at_its_folds_and_each_part_asked_about(clutch):
    window = clutch.window
    clutch.leaf("pieces")
    clutch.click(clutch.field("parts.divide"))
    assert len(window.desk.plan.panel("body").parts) == 3
    names = [b.text() for k, b in window.layout_bar.buttons.items() if k.startswith("part:")]
    assert names == ["flap", "back", "front"]
    clutch.click(window.layout_bar.buttons["part:1"])
    clutch.choose("panel.zones.0.piecing.way", "strips")
    ways = [part.choice.way for part in window.desk.plan.panel("body").parts]
    assert ways == ["squares", "strips", "squares"]
    clutch.click(window.bench, clutch.piece("piece:body:2:1"))
    assert window.desk.seen.zone == 2
    clutch.click(clutch.field("parts.undo"))
    assert len(window.desk.plan.panel("body").parts) == 1


def test_scraps_are_listed_filled_and_what_is_left_is_told(hands):
    window = hands.window
    window.open_demo("reed-pouch")
    QApplication.processEvents()
    hands.ctrl(Qt.Key.Key_2)
    hands.leaf("stock")
    assert "Left of the scraps: scrap 1" in window.column.caution.text()
    number = len(window.desk.project.scraps)
    hands.click(hands.field("scraps.add"))
    QTest.keyClicks(hands.focus, "4 x 5 wool")
    hands.press(Qt.Key.Key_Return)
    assert "no print “wool”" in window.column.fields["scraps.add"].error.text()
    assert hands.field("scraps.add").text() == "4 x 5 wool"
    hands.type("11 x 3 x2 plum")
    hands.press(Qt.Key.Key_Return)
    assert len(window.desk.project.scraps) == number + 1
    assert hands.field("scraps.add").text() == ""
    hands.click(hands.field(f"scraps.{number}"))
    hands.type("-")
    assert len(window.desk.project.scraps) == number
    hands.leaf("pieces")
    hands.click(hands.field("courses.search").button)
    wait_for_search(hands)
    assert window.desk.project.panels["body"].piecing.filled
    assert not any(s.key.startswith("piece.courses") for s in window.desk.plan.snags)


def test_my_own_seam_is_tested_and_used(at_work):
    window = at_work.window
    at_work.ctrl(Qt.Key.Key_2)
    at_work.leaf("stock")
    at_work.click(at_work.field("seam_test.on"))
    at_work.click(at_work.field("seam_test.measured"))
    at_work.type("8 3/8")
    assert window.desk.plan.brief.seams.piecing.value == F(13, 48)
    keys = [row.reading.key for row in window.column.receipt.rows]
    assert "seam.real" in keys
    assert any(s.key == "piece.seam.front" for s in window.desk.plan.snags)
    at_work.type("12")
    at_work.press(Qt.Key.Key_Return)
    assert "nothing or less" in window.column.fields["seam_test.measured"].error.text()


def test_the_basket_page_changes_prints(clutch):
    window = clutch.window
    clutch.click(clutch.field("prints.edit"))
    page = window.basket_page
    assert page.isVisible()
    clutch.click(page.swatches[2])
    clutch.click(page.rows["name"].field)
    clutch.type("Red stars")
    assert window.desk.project.prints[2].name == "Red stars"
    clutch.click(page.ground.field)
    clutch.type("#1b1b1b")
    clutch.press(Qt.Key.Key_Return)
    assert window.desk.project.prints[2].ground == "#1b1b1b"
    assert "dark" in page.view.value.text()
    clutch.type("#xyz")
    clutch.press(Qt.Key.Key_Return)
    assert "six digits" in page.rows["ground"].error.text()
    assert window.desk.project.prints[2].ground == "#1b1b1b"
    clutch.click(page.rows["amount"].field)
    clutch.type("2")
    assert window.desk.project.prints[2].amount == 2
    clutch.click(page.add)
    assert window.desk.project.prints[-1].name == "Print 10"
    clutch.click(page.gone)
    assert len(window.desk.project.prints) == 9


def test_a_cloth_of_the_shelf_joins_the_basket(clutch):
    window, desk = clutch.window, clutch.window.desk
    rows = (
        Row(id="a", kind="fat quarter", name="Harbour fog", width=F(21), length=F(18)),
        Row(id="b", kind="scrap", name="harbour fog", width=F(5), length=F(4)),
        Row(id="c", kind="zipper", name="Navy", length=F(12)),
        Row(id="d", kind="scrap", name=desk.project.prints[0].name, width=F(5), length=F(4)),
    )
    window.shelving.need()
    desk.attempt_shelf(Shelf(rows=rows), "Lay cloth on the shelf")
    clutch.click(clutch.field("prints.edit"))
    page = window.basket_page
    said = [page.lying.itemText(at) for at in range(page.lying.count())]
    assert said == ["Add one from the shelf…", "Harbour fog"]
    page.lying.setFocus()
    clutch.press(Qt.Key.Key_Down)
    assert desk.project.prints[-1].name == "Harbour fog"
    assert page.swatches[-1].isVisible()
    assert not page.lying.isVisible()  # no more of them
    clutch.ctrl(Qt.Key.Key_Z)
    assert "Harbour fog" not in [one.name for one in desk.project.prints]
    clutch.press(Qt.Key.Key_Escape)
    assert window.work.isVisible()


def picture_file(path, wide=640, high=480, kind="PNG"):
    image = QImage(wide, high, QImage.Format.Format_RGB32)
    image.fill(QColor("#336699"))
    for at in range(0, wide, 40):
        for y in range(high):
            image.setPixelColor(at, y, QColor("#ffffff"))
    assert image.save(str(path), kind)
    return path


def use_photo(hands, path):
    hands.window.basket_page.look._motif("photo", "")
    QApplication.processEvents()
    bar = hands.window.file_bar
    hands.click(bar.line)
    hands.type(str(path))
    hands.press(Qt.Key.Key_Return)
    wait_for_search(hands)


def test_a_photo_is_cropped_and_scaled_by_two_points(clutch, tmp_path):
    window = clutch.window
    window.show_prints()
    page = window.basket_page
    use_photo(clutch, picture_file(tmp_path / "cloth.png"))
    photo = window.desk.project.prints[page.at].photo
    assert (photo.wide, photo.high) == (640, 480)
    assert page.photo.isVisible()
    assert not page.rows["motif"].error.text()
    clutch.click(page.rows["apart"].field)
    clutch.type("8")
    assert window.desk.project.prints[page.at].photo.apart == 8
    last = page.photo.places()[1]
    QTest.mousePress(page.photo, Qt.MouseButton.LeftButton, pos=last.toPoint())
    aim = last - QPointF(page.photo._box().width() / 2, 0)
    QTest.mouseMove(page.photo, aim.toPoint())
    QTest.mouseRelease(page.photo, Qt.MouseButton.LeftButton, pos=aim.toPoint())
    crop = window.desk.project.prints[page.at].photo.crop
    assert crop[2] == pytest.approx(0.5, abs=0.02)
    page.photo.setFocus()
    clutch.press(Qt.Key.Key_Space)
    before = window.desk.project.prints[page.at].photo.one
    clutch.press(Qt.Key.Key_Right)
    assert window.desk.project.prints[page.at].photo.one[0] == pytest.approx(before[0] + 0.01)


def test_what_is_no_picture_is_told_beside_its_button(clutch, tmp_path):
    window = clutch.window
    window.show_prints()
    path = tmp_path / "cloth.png"
    before = window.desk.project
    for content, says in (
        (b"not a picture at all", "no picture that can be read"),
        (b"\x89PNG\r\n\x1a\n" + b"\0" * 40, "no picture|damaged"),
        (b"", "no picture"),
    ):
        path.write_bytes(content)
        use_photo(clutch, path)
        words = window.basket_page.rows["motif"].error.text()
        assert any(part in words for part in says.split("|")), words
        assert window.desk.project is before


def test_fifty_million_points_are_refused_at_once(clutch, tmp_path):
    image = QImage(8000, 6250, QImage.Format.Format_Mono)
    image.fill(0)
    path = tmp_path / "huge.png"
    assert image.save(str(path), "PNG")
    window = clutch.window
    window.show_prints()
    use_photo(clutch, path)
    assert "50 million points" in window.basket_page.rows["motif"].error.text()


def test_the_layout_page_is_in_the_worksheet(clutch):
    window = clutch.window
    clutch.ctrl(Qt.Key.Key_P)
    assert len(window.preview.pages) == 7
    assert "7 pages" in window.preview.words.text()


def test_the_leaf_of_prints_counts_what_is_laid(clutch):
    keys = [row.reading.key for row in clutch.window.column.receipt.rows]
    assert "laid.stars" in keys
    assert "rules.broken" in keys
    assert not any(key.startswith("squares") for key in keys)
    clutch.leaf("pieces")
    keys = [row.reading.key for row in clutch.window.column.receipt.rows]
    assert "squares.number" in keys
    assert "press.crossing" in keys
    assert clutch.window.desk.seen.stage is Stage.PIECE


def test_with_no_print_at_all_arranging_says_what_is_missing(clutch):
    window = clutch.window
    window.show_prints()
    while window.desk.project.prints:
        clutch.click(window.basket_page.gone)
    clutch.click(window.basket_page.back)
    row = clutch.field("rules.arrange")
    clutch.click(row.button)
    wait_for_search(clutch)
    assert "basket is empty" in row.words.text()
    assert len(window.bench.picture.pieces) == 40


def test_scraps_go_out_as_a_list_and_come_in_again(hands, tmp_path):
    window = hands.window
    window.open_demo("reed-pouch")
    QApplication.processEvents()
    scraps = window.desk.project.scraps
    path = tmp_path / "box.csv"
    for key in ("scraps-out", "scraps-in"):
        hands.menu(key)
        hands.type(str(path))
        hands.press(Qt.Key.Key_Return)
        assert not window.file_bar.isVisible()
        window.desk.attempt(edit("", ("scraps", ())))
        window.desk.attempt(edit("", ("panels.body.piecing.way", "strips"), ("scraps", ())))
    hands.ctrl(Qt.Key.Key_Z)
    assert window.desk.project.scraps == scraps
    path.write_text("a,b\n1,2\n")
    hands.menu("scraps-in")
    hands.type(str(path))
    hands.press(Qt.Key.Key_Return)
    assert "no column" in window.file_bar.error.text()
    assert window.desk.project.scraps == scraps


@pytest.mark.parametrize("size", [(1280, 800), (1100, 700)])
def test_no_working_of_the_courses_is_cut_off(hands, size):
    window = hands.window
    window.open_demo("reed-pouch")
    hands.ctrl(Qt.Key.Key_2)
    window.resize(*size)
    for _ in range(4):
        QApplication.processEvents()
    cases = list(window.column.receipt.rows)
    assert cases
    for row in cases:
        assert row.height() >= row.heightForWidth(row.width()), row.name


def test_tools_for_laying_are_there_where_something_can_be_laid(hands):
    window = hands.window
    for demo, there in (("reed-pouch", False), ("march-card-clutch", True)):
        window.open_demo(demo)
        hands.ctrl(Qt.Key.Key_2)
        bar = window.layout_bar
        assert bar.isVisible()
        for button in (*bar.tool_buttons.values(), *bar.deeds):
            assert button.isVisible() == there
