"""Layers, quilting and the logbook, worked as a maker does: by keys and clicks at the window."""

import pytest
from PySide6.QtCore import QPoint, QPointF, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication

from tessil.core.edits import edit
from tessil.core.logbook.book import Swatch
from tessil.core.numbers.exact import Fraction
from tessil.core.piecing.choice import SeamTest
from tessil.core.snags import Stage
from tessil.files.logfile import book_path, load_book
from tessil.files.places import state_folder
from tests.conftest import job_tote, load_bag, tote

F = Fraction


@pytest.fixture
def plain(tote_at_work):
    """A tote of one's own, with one's own empty logbook."""
    return tote_at_work


def _at(bench, x, y):
    """Where on the bench a point of the picture is, in inches of the picture."""
    return bench.surface().at((x, y)).toPoint()


def _drag(bench, start, end):
    left, none = Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier
    QTest.mousePress(bench, left, none, start)
    for share in (0.3, 0.6, 1.0):
        step = QPoint(
            round(start.x() + (end.x() - start.x()) * share),
            round(start.y() + (end.y() - start.y()) * share),
        )
        QTest.mouseMove(bench, step)
        QApplication.processEvents()
    QTest.mouseRelease(bench, left, none, end)
    QApplication.processEvents()


def _middle_of_line(hands, key):
    bench = hands.window.bench
    (x1, y1), *_, (x2, y2) = bench.picture.strokes[f"line:{key}"]
    return _at(bench, x1 + (x2 - x1) * 0.37, y1 + (y2 - y1) * 0.37)


def _kept(window):
    """What stands in the logbook's file once the hand rests."""
    window.flush_book()
    return load_book()


def _plies(window, panel="front"):
    return [ply.material for ply in window.desk.plan.panel(panel).choices.layers.plies]


# -- layers ------------------------------------------------------------------------------


def test_layers_are_put_in_moved_on_the_bench_and_taken_out(plain):
    window = plain.window
    plain.ctrl(Qt.Key.Key_3)
    plain.choose("layers.add", "cotton")
    assert _plies(window) == ["cotton-batting", "cotton"]
    plain.click(window.bench, plain.piece("ply:1"))
    assert window.desk.seen.ply == 1
    assert window.column.fields["ply.material"].field.currentData() == "cotton"
    plain.press(Qt.Key.Key_Up, Qt.KeyboardModifier.ShiftModifier)
    assert _plies(window) == ["cotton", "cotton-batting"]
    plain.press(Qt.Key.Key_Delete)
    assert _plies(window) == ["cotton-batting"]
    plain.ctrl(Qt.Key.Key_Z)
    plain.ctrl(Qt.Key.Key_Z)
    assert _plies(window) == ["cotton-batting", "cotton"]


def test_a_layer_is_cut_and_held_as_it_is_told(plain):
    plain.ctrl(Qt.Key.Key_3)
    plain.choose("ply.rule", "inside")
    layer = plain.window.desk.plan.panel("front").layers[1]
    assert layer.rule == "inside"
    assert "ply.margin" not in plain.window.column.fields
    plain.choose("ply.rule", "margin")
    plain.click(plain.field("ply.margin"))
    plain.type("40")
    plain.press(Qt.Key.Key_Return)
    assert "At most 12 in" in plain.window.column.fields["ply.margin"].error.text()
    plain.type("1")
    assert plain.window.desk.plan.panel("front").layers[1].margin == 1


def test_a_school_is_a_ready_start_and_one_step_to_undo(plain):
    plain.ctrl(Qt.Key.Key_3)
    plain.choose("layers.school", "interlined")
    assert _plies(plain.window) == ["cotton-batting", "cotton"]
    plain.choose("layers.school", "quilted-in")
    assert plain.window.desk.project.lining == "quilted-in"
    plain.ctrl(Qt.Key.Key_Z)
    assert plain.window.desk.project.lining == "drop-in"
    assert _plies(plain.window) == ["cotton-batting", "cotton"]


def test_offcuts_are_typed_and_less_is_bought(plain):
    window = plain.window
    plain.ctrl(Qt.Key.Key_3)
    plain.leaf("amounts")
    before = window.column.receipt.row("layer.buy.cotton-batting").reading.figure.value
    plain.click(plain.field("offcuts.add"))
    plain.type("velvet 3 × 4")
    plain.press(Qt.Key.Key_Return)
    assert "not in the catalogue" in window.column.fields["offcuts.add"].error.text()
    plain.type("cotton batting 20 × 20 ×2")
    plain.press(Qt.Key.Key_Return)
    row = window.column.receipt.row("layer.buy.cotton-batting")
    assert row.reading.figure.value == 0 < before
    assert "from the offcut" in row.sum
    plain.click(plain.field("offcuts.0.gone"))
    assert window.column.receipt.row("layer.buy.cotton-batting").reading.figure.value == before


def test_a_seam_too_thick_is_made_thinner_by_its_fix(plain):
    window = plain.window
    plain.ctrl(Qt.Key.Key_3)
    plain.choose("ply.material", "sew-in-foam")
    plain.leaf("bulk")
    thick = [s for s in window.desk.plan.snags if s.key == "layer.thick.front"]
    assert len(thick) == 1
    row = next(row for row in window.snags.rows if "mm to sew through" in row.snag.title)
    plain.click(row.buttons[0])
    assert not any(s.key.startswith("layer.thick") for s in window.desk.plan.snags)
    assert window.desk.plan.panel("front").layers[1].rule == "inside"


def test_the_needle_in_the_machine_is_minded(plain):
    plain.ctrl(Qt.Key.Key_3)
    plain.leaf("bulk")
    plain.choose("machine.needle", "70")
    assert any(s.key == "layer.needle" for s in plain.window.desk.plan.snags)
    plain.click(plain.field("machine.lift_mm"))
    plain.type("4,2 mm")
    plain.press(Qt.Key.Key_Return)
    assert plain.window.desk.project.machine.lift_mm == 4.2
    plain.type("much")
    plain.press(Qt.Key.Key_Return)
    assert plain.window.column.fields["machine.lift_mm"].error.text()
    assert plain.window.desk.project.machine.lift_mm == 4.2


# -- lines -----------------------------------------------------------------------------------


def test_every_pattern_is_chosen_and_seen(plain):
    plain.ctrl(Qt.Key.Key_4)
    for pattern in ("grid", "diagonal", "diamonds", "ditch", "offset", "echo"):
        plain.choose("panel.quilting.pattern", pattern)
        panel = plain.window.desk.plan.panel("front")
        assert panel.choices.quilting.pattern == pattern
        assert len(plain.window.bench.picture.strokes) == len(panel.quilt.lines) > 0
        assert any(row.reading.key == "quilt.gap" for row in plain.window.column.receipt.rows)


def test_the_gap_from_1_to_a_half_shows_all_that_follows(plain):
    window = plain.window
    plain.ctrl(Qt.Key.Key_4)

    def seen():
        rows = {row.reading.key: row for row in window.column.receipt.rows}
        return (
            len(window.bench.picture.strokes),
            rows["quilt.thread"].value,
            rows["quilt.piece.width"].value,
            rows["quilt.piece.width"].sum,
        )

    plain.click(plain.field("panel.quilting.gap"))
    plain.type("1")
    wide = seen()
    plain.type("1/2")
    close = seen()
    assert all(a != b for a, b in zip(wide, close, strict=True))
    assert "÷ (1 −" in close[3]
    plain.leaf("draws")
    assert "drawn" in window.bench.picture.caption


def test_an_angle_that_is_none_is_refused_beside_its_field(plain):
    plain.ctrl(Qt.Key.Key_4)
    plain.choose("panel.quilting.pattern", "diagonal")
    plain.click(plain.field("panel.quilting.angle"))
    for angle in ("720", "0", "steep"):
        plain.type(angle)
        plain.press(Qt.Key.Key_Return)
        row = plain.window.column.fields["panel.quilting.angle"]
        assert row.error.text().endswith(".")
        assert row.field.text() == angle
        assert plain.window.desk.plan.panel("front").choices.quilting.angle == 45
    plain.type("30")
    assert plain.window.desk.plan.panel("front").choices.quilting.angle == 30


@pytest.mark.parametrize("gap", ["0", "0.01"])
def test_a_gap_that_is_none_is_refused_beside_its_field(plain, gap):
    plain.ctrl(Qt.Key.Key_4)
    plain.click(plain.field("panel.quilting.gap"))
    plain.type(gap)
    plain.press(Qt.Key.Key_Return)
    assert plain.window.column.fields["panel.quilting.gap"].error.text().endswith(".")
    assert plain.window.desk.plan.panel("front").choices.quilting.gap == F(5, 4)


def test_the_slider_tries_out_while_it_is_dragged_and_takes_it_when_let_go(plain):
    window = plain.window
    plain.ctrl(Qt.Key.Key_4)
    slide = plain.field("panel.quilting.gap.slide")
    before = len(window.bench.picture.strokes)
    steps = window.desk.stack.count()
    left, none = Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier
    start = QPoint(slide.width() // 2, slide.height() - 14)
    QTest.mousePress(slide, left, none, start)
    QTest.mouseMove(slide, QPoint(30, start.y()))
    QApplication.processEvents()
    assert window.desk.sketch is not None
    assert len(window.bench.picture.strokes) > before
    assert window.desk.project.panels["front"].quilting.gap == F(5, 4)  # not taken yet
    plain.qtbot.waitUntil(
        lambda: (
            len(window.desk.sketch.panel("front").quilt.lines)
            == window.column.receipt.row("quilt.lines").reading.figure.whole
        )
    )
    QTest.mouseRelease(slide, left, none, QPoint(30, start.y()))
    QApplication.processEvents()
    assert window.desk.sketch is None
    assert window.desk.stack.count() == steps + 1
    gap = window.desk.project.panels["front"].quilting.gap
    assert gap == slide.length() < F(5, 4)
    assert window.column.fields["panel.quilting.gap"].field.value == gap


def test_the_slider_goes_by_arrows_too(plain):
    plain.ctrl(Qt.Key.Key_4)
    slide = plain.field("panel.quilting.gap.slide")
    slide.setFocus()
    plain.press(Qt.Key.Key_Right)
    assert plain.window.desk.project.panels["front"].quilting.gap == F(11, 8)


def test_a_tile_is_how_the_lines_then_come_out(plain):
    window = plain.window
    plain.ctrl(Qt.Key.Key_4)
    bar = window.quilt_bar
    assert [tile.isChecked() for tile in bar.tiles].count(True) == 1
    number = next(at for at, offer in enumerate(bar.offers) if offer.key == "keep.gap")
    plain.click(bar.tiles[number])
    quilting = window.desk.project.panels["front"].quilting
    assert (quilting.spacing, quilting.centre) == ("keep", "gap")
    assert bar.tiles[number].isChecked()
    assert "gap" in bar.tiles[number].accessibleName()


def test_a_line_is_drawn_moved_and_taken_away_on_the_bench(plain):
    window, bench = plain.window, plain.window.bench
    plain.ctrl(Qt.Key.Key_4)
    before = len(window.desk.plan.panel("front").quilt.lines)
    plain.click(window.quilt_bar.tools["draw"])
    _drag(bench, _at(bench, 3, 6.02), _at(bench, 11, 6.1))
    (drawn,) = window.desk.project.panels["front"].quilting.drawn
    assert drawn.y1 == drawn.y2
    assert len(bench.picture.strokes) == before + 1
    plain.click(window.quilt_bar.tools["take"])
    plain.click(bench, _middle_of_line(plain, "drawn.0"))
    assert window.desk.seen.line == "drawn.0"
    plain.press(Qt.Key.Key_Down)
    (nudged,) = window.desk.project.panels["front"].quilting.drawn
    assert nudged.y1 == drawn.y1 + F(1, 8)
    plain.press(Qt.Key.Key_Delete)
    assert window.desk.project.panels["front"].quilting.drawn == ()
    plain.ctrl(Qt.Key.Key_Z)
    assert len(window.desk.project.panels["front"].quilting.drawn) == 1


def test_a_pattern_line_is_dragged_in_one_step_and_put_back(plain):
    window, bench = plain.window, plain.window.bench
    plain.ctrl(Qt.Key.Key_4)
    key = window.desk.plan.panel("front").quilt.lines[3].key
    start = _middle_of_line(plain, key)
    steps = window.desk.stack.count()
    _drag(bench, start, start + QPoint(20, 3))
    quilting = window.desk.project.panels["front"].quilting
    assert quilting.left_out == (key,)
    assert len(quilting.drawn) == 1
    assert window.desk.stack.count() == steps + 1
    plain.click(plain.field("quilting.back"))
    quilting = window.desk.project.panels["front"].quilting
    assert (quilting.left_out, quilting.drawn) == ((), ())


def test_a_line_dragged_where_none_can_be_stays_and_says_so(plain, monkeypatch):
    """Far off the panel to the left, the hand is told; the last good place stays."""
    caught = []
    monkeypatch.setattr("sys.excepthook", lambda *fault: caught.append(fault))
    window, bench = plain.window, plain.window.bench
    plain.ctrl(Qt.Key.Key_4)
    key = window.desk.plan.panel("front").quilt.lines[3].key
    start = _middle_of_line(plain, key)
    _drag(bench, start, start - QPoint(1200, 0))
    assert not caught
    assert "far off the panel" in window.told.text()
    steps = window.desk.stack.count()
    for _ in range(200):
        plain.press(Qt.Key.Key_Left)
    assert not caught
    assert window.desk.stack.count() <= steps + 1


def test_a_line_is_left_out_by_keys_alone(plain):
    window = plain.window
    plain.ctrl(Qt.Key.Key_4)
    window.acts["bench"].trigger()
    plain.press(Qt.Key.Key_L)
    plain.press(Qt.Key.Key_L)
    key = window.desk.seen.line
    assert key == window.desk.plan.panel("front").quilt.lines[1].key
    plain.press(Qt.Key.Key_Delete)
    assert window.desk.project.panels["front"].quilting.left_out == (key,)
    assert window.desk.seen.line == ""


def test_a_part_below_is_quilted_its_own_way(plain):
    window = plain.window
    plain.ctrl(Qt.Key.Key_4)
    plain.click(plain.field("quilt.zone.add"))
    assert len(window.desk.plan.panel("front").choices.quilt_zones) == 1
    plain.click(window.quilt_bar.buttons[1])
    plain.choose("panel.quilting.pattern", "diagonal")
    sets = window.desk.plan.panel("front").quilt.sets
    assert [entry.zone for entry in sets] == [0, 1]
    assert sets[1].angle == 45
    plain.click(plain.field("quilt.zone.starts"))
    plain.type("9")
    assert window.desk.plan.panel("front").choices.quilt_zones[0].starts == 9
    plain.type("90")
    plain.press(Qt.Key.Key_Return)
    assert "on the panel" in window.column.fields["quilt.zone.starts"].error.text()
    plain.click(plain.field("quilt.zone.gone"))
    assert window.desk.plan.panel("front").choices.quilt_zones == ()


def test_sewing_says_order_thread_time_and_a_swatch_to_try(plain):
    plain.ctrl(Qt.Key.Key_4)
    plain.leaf("sewing")
    keys = {row.reading.key for row in plain.window.column.receipt.rows}
    assert {"quilt.top", "quilt.bobbin", "quilt.bobbins", "quilt.minutes"} <= keys
    words = plain.window.column.caution.text()
    assert "Begin in the middle" in words
    assert "A swatch for this panel" in words
    assert "begin each line at its number" in plain.window.bench.picture.caption
    plain.choose("panel.quilting.stitch_mm", "4")
    assert plain.window.desk.plan.panel("front").choices.quilting.stitch_mm == 4


def test_a_flap_that_leans_is_set_straight_by_the_fix(at_work):
    window = at_work.window
    window.desk.look(stage=Stage.QUILT, panel="flap")
    at_work.leaf("draws")
    row = window.column.receipt.row("quilt.leans")
    assert row.reading.figure.value > F(1, 16)
    snag = next(r for r in window.snags.rows if "will lean" in r.snag.title)
    at_work.click(snag.buttons[0])
    assert window.desk.project.panels["flap"].quilting.pattern == "diamonds"
    assert not any("lean" in s.key for s in window.desk.plan.snags)


def test_the_wash_is_counted_if_it_is_asked_for(plain):
    window = plain.window
    plain.ctrl(Qt.Key.Key_4)
    plain.leaf("draws")
    plain.click(plain.field("wash.used"), QPoint(8, 12))
    plain.click(plain.field("wash.share"))
    plain.type("4 %")
    plain.press(Qt.Key.Key_Return)
    assert window.desk.project.wash.share == F(4, 100)
    plain.type("lots")
    plain.press(Qt.Key.Key_Return)
    assert "share goes here" in window.column.fields["wash.share"].error.text()
    plain.ctrl(Qt.Key.Key_1)
    assert window.column.receipt.row("washed.width").reading.figure.value == F(11) * F(96, 100)


# -- the logbook -----------------------------------------------------------------------------


def _fill(hands, page, **texts):
    for key, text in texts.items():
        hands.click(page.rows[key].field)
        hands.type(text)
        hands.press(Qt.Key.Key_Return)


def test_three_swatches_typed_in_narrow_the_range_and_are_kept(plain):
    window = plain.window
    plain.ctrl(Qt.Key.Key_4)
    plain.leaf("draws")
    words = window.column.caution.text()
    assert "No swatch yet" in words
    before = window.desk.plan.panel("front").draw.x
    plain.click(plain.field("logbook.page"))
    page = window.log_page
    for gap, after in (("1", "9 7/8"), ("1/2", "9 3/4"), ("1 1/2", "9 15/16")):
        plain.click(page.add)
        _fill(plain, page, gap=gap, width_after=after, height_after="9 15/16")
    assert page.trust.text().startswith("Cotton batting: 3 swatches, ± ")
    assert len(page.gap_plot.picture.items) > 0
    after = window.desk.plan.panel("front").draw.x
    assert after.miss.value < before.miss.value
    assert len(_kept(window).swatches) == 3
    plain.click(page.back)
    assert "3 swatches" in window.column.caution.text()
    plain.ctrl(Qt.Key.Key_Z)
    assert len(window.desk.book.swatches) == 3  # the last step was its height
    assert _kept(window).swatches[2].height_after is None


def test_what_is_wrong_with_a_swatch_stands_beside_its_field(plain):
    plain.ctrl(Qt.Key.Key_L)
    page = plain.window.log_page
    plain.click(page.add)
    _fill(plain, page, width_after="11")
    assert "does not make cloth grow" in page.rows["width_after"].error.text()
    assert page.rows["width_after"].field.text() == "11"
    assert plain.window.desk.book.swatches[0].width_after is None
    _fill(plain, page, gap="5")
    assert "3 at least" in page.rows["gap"].error.text()
    _fill(plain, page, date="soon")
    assert "year-month-day" in page.rows["date"].error.text()


def test_a_swatch_is_left_out_taken_out_and_brought_back(at_work):
    at_work.ctrl(Qt.Key.Key_L)
    window, page = at_work.window, at_work.window.log_page
    assert len(page.entries) == 12
    words = page.trust.text()
    at_work.click(page.rows["used"].field, QPoint(8, 12))
    assert "left out" in page.entries[0].text()
    assert page.trust.text() != words
    at_work.click(page.entries[1])
    assert page.rows["name"].field.text() == window.desk.book.swatches[1].name
    at_work.click(page.gone)
    assert len(page.entries) == 11
    at_work.ctrl(Qt.Key.Key_Z)
    at_work.ctrl(Qt.Key.Key_Z)
    assert len(window.desk.book.swatches) == 12
    assert all(swatch.used for swatch in window.desk.book.swatches)
    assert not book_path().exists()  # a demo's logbook is not the maker's


def test_slanted_swatches_ask_for_their_diagonals(plain):
    plain.ctrl(Qt.Key.Key_L)
    page = plain.window.log_page
    plain.click(page.add)
    assert not page.rows["rising_after"].isVisible()
    field = page.rows["pattern"].field
    field.setCurrentIndex(field.findData("diagonal"))
    field.activated.emit(field.currentIndex())
    assert page.rows["rising_after"].isVisible()
    assert page.rows["angle"].isVisible()
    assert not page.rows["run"].isVisible()
    _fill(plain, page, angle="720")
    assert "between" in page.rows["angle"].error.text()


def test_swatches_go_to_a_csv_and_come_back(at_work, tmp_path):
    window = at_work.window
    at_work.ctrl(Qt.Key.Key_L)
    for button in window.log_page.findChildren(type(window.log_page.add)):
        if button.text() == "Save as CSV…":
            at_work.click(button)
    path = tmp_path / "log.csv"
    at_work.click(window.file_bar.line)
    at_work.type(str(path))
    at_work.press(Qt.Key.Key_Return)
    assert path.read_text("utf-8").count("\n") == 13
    window.open_job(job_tote(id="mine"), None)
    at_work.ctrl(Qt.Key.Key_L)
    assert window.desk.book.swatches == ()
    window.log_page.csv_in.emit()
    at_work.click(window.file_bar.line)
    at_work.type(str(path))
    at_work.press(Qt.Key.Key_Return)
    assert len(window.desk.book.swatches) == 12
    assert len(_kept(window).swatches) == 12
    path.write_text("what,is,this\n1,2,3\n")
    window.log_page.csv_in.emit()
    at_work.click(window.file_bar.line)
    at_work.type(str(path))
    at_work.press(Qt.Key.Key_Return)
    assert "no column" in window.file_bar.error.text()
    assert len(window.desk.book.swatches) == 12


def test_panels_measured_flow_into_the_logbook_when_the_bag_is_saved(plain, tmp_path):
    window = plain.window
    for rung, text in (("pieced", "16 x 15 1/2"), ("quilted", "15 3/4 x 15 3/8")):
        plain.click(window.ladder.cells[rung].box)
        plain.type(text)
        plain.press(Qt.Key.Key_Return)
    back = window.desk.plan.panel("back")
    assert back.draw.x.expected.basis.words == "your swatches"
    assert window.save_to(tmp_path / "bag.tessil") == ""
    (entry,) = _kept(window).swatches
    assert entry.source == "mine/front"
    assert load_bag(tmp_path / "bag.tessil").id == "mine"
    plain.ctrl(Qt.Key.Key_L)
    assert "front" in window.log_page.entries[0].text()
    assert not window.log_page.rows["gap"].isVisible()  # it is as it was sewn


def test_the_seam_test_is_kept_and_new_bags_begin_with_it(plain, tmp_path):
    window = plain.window
    test = SeamTest(strips=5, cut=F(5, 2), measured=F(41, 4))
    assert window.desk.attempt(edit("Test the seam", ("seam_test", test))) == ""
    window.save_to(tmp_path / "bag.tessil")
    assert _kept(window).seam_tests == (test,)
    window.begin_project(tote())
    assert window.desk.project.seam_test == test
    plain.ctrl(Qt.Key.Key_L)
    assert "5 strips of 2½ measured 10¼" in window.log_page.says.text()


def test_layers_are_held_out_of_the_seams_and_let_in_again(plain):
    plain.ctrl(Qt.Key.Key_3)
    plain.leaf("bulk")
    before = plain.window.column.receipt.row("bulk.front.edge.left").reading.figure.value
    plain.click(plain.field("bulk.fix.0"))
    after = plain.window.column.receipt.row("bulk.front.edge.left").reading.figure.value
    assert after < before
    plain.click(plain.field("bulk.back"))
    row = plain.window.column.receipt.row("bulk.front.edge.left")
    assert row.reading.figure.value == before


def test_a_new_bag_has_a_name_of_its_own_for_the_logbook(hands):
    window = hands.window
    window.begin_project(tote())
    first = window.desk.project.id
    window.begin_project(tote())
    assert first
    assert window.desk.project.id not in ("", first)


def test_a_photo_is_kept_with_a_swatch(plain, tmp_path):
    from PySide6.QtGui import QImage

    picture = tmp_path / "swatch.png"
    image = QImage(40, 30, QImage.Format.Format_RGB32)
    image.fill(0x4F8A8B)
    image.save(str(picture))
    plain.ctrl(Qt.Key.Key_L)
    page = plain.window.log_page
    plain.click(page.add)
    plain.click(page.rows["photo"].field)
    plain.click(plain.window.file_bar.line)
    plain.type(str(picture))
    plain.press(Qt.Key.Key_Return)
    plain.qtbot.waitUntil(lambda: plain.window.desk.book.swatches[0].photo is not None)
    assert "Another" in page.rows["photo"].field.text()


# -- materials ----------------------------------------------------------------------------------


def test_a_material_is_changed_and_taken_back(plain):
    window = plain.window
    plain.ctrl(Qt.Key.Key_M)
    page = window.materials_page
    number = next(at for at, e in enumerate(page.known) if e.key == "cotton-batting")
    plain.click(page.entries[number])
    before = window.desk.plan.panel("front").pressed.value
    _fill(plain, page, pressed_mm="2,5 mm")
    assert window.desk.plan.panel("front").pressed.value > before
    assert "changed" in page.entries[number].text()
    _fill(plain, page, relaxed_mm="0")
    assert "some thickness" in page.rows["relaxed_mm"].error.text()
    _fill(plain, page, along="soft")
    assert "A number goes here" in page.rows["along"].error.text()
    plain.click(page.gone)
    assert window.desk.plan.panel("front").pressed.value == before
    plain.press(Qt.Key.Key_Escape)
    assert window.work.isVisible()


def test_a_material_of_ones_own_is_added_and_used(plain):
    window = plain.window
    plain.ctrl(Qt.Key.Key_M)
    page = window.materials_page
    plain.click(page.add)
    _fill(plain, page, name="Wool wadding")
    plain.click(page.back)
    plain.ctrl(Qt.Key.Key_3)
    plain.choose("ply.material", "own-1")
    assert window.desk.plan.panel("front").layers[1].label == "Wool wadding"
    plain.ctrl(Qt.Key.Key_M)
    page.at = next(at for at, e in enumerate(page.known) if e.key == "own-1")
    page.refresh()
    plain.click(page.gone)
    assert "not in the catalogue" in page.rows["name"].error.text()


def test_the_worksheet_has_the_layers_the_map_and_the_swatch_sheet(at_work):
    window = at_work.window
    at_work.ctrl(Qt.Key.Key_P)
    # bag, cutting over two, two layouts, two sandwiches, two maps, edges over three, swatches
    assert len(window.preview.pages) == 13


def test_strokes_are_found_near_and_not_far(plain):
    plain.ctrl(Qt.Key.Key_4)
    bench = plain.window.bench
    key = plain.window.desk.plan.panel("front").quilt.lines[2].key
    at = QPointF(_middle_of_line(plain, key))
    assert bench._stroke_at(at) == f"line:{key}"
    assert bench._stroke_at(at + QPointF(12, 0)) == ""


def test_nothing_is_offered_again_that_is_safe_in_its_file(plain, tmp_path):
    window = plain.window
    window.desk.attempt(edit("Make two", ("bags", 2)))
    window.keep_safe()
    assert len(list(state_folder().glob("recovery-*"))) == 1
    window.save_to(tmp_path / "bag.tessil")
    window.keep_safe()  # as the timer does after the logbook has grown
    assert not list(state_folder().glob("recovery-*"))
    window.desk.attempt(edit("Make three", ("bags", 3)))
    window.keep_safe()
    assert len(list(state_folder().glob("recovery-*"))) == 1


def test_two_windows_write_into_one_logbook(plain, qtbot):
    from tessil.ui.window import Window

    other = Window()
    qtbot.addWidget(other)
    other.open_job(job_tote(id="other"), None)
    for window, name in ((plain.window, "mine"), (other, "hers")):
        swatch = Swatch(name=name)
        assert window.desk.attempt_book(edit("", ("swatches", (swatch,)))) == ""
    plain.window.flush_book()
    other.flush_book()
    assert [swatch.name for swatch in load_book().swatches] == ["mine", "hers"]
    assert [swatch.name for swatch in other.desk.book.swatches] == ["mine", "hers"]
    assert other.desk.attempt_book(edit("", ("swatches", other.desk.book.swatches[1:]))) == ""
    other.flush_book()
    assert [swatch.name for swatch in load_book().swatches] == ["hers"]


def test_a_logbook_that_cannot_be_written_is_said_and_kept_in_hand(plain, monkeypatch):
    window = plain.window
    monkeypatch.setattr("tessil.files.logfile.save_book", lambda *_: "The disk is full.")
    assert window.desk.attempt_book(edit("", ("swatches", (Swatch(),)))) == ""
    window.flush_book()
    assert window.told.text() == "The disk is full."
    monkeypatch.undo()
    window.flush_book()
    assert len(load_book().swatches) == 1
