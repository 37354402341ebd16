"""Time and money through the real window: what a price pays, the sittings to come, both logs."""

import csv

import pypdf
import pytest
from PySide6.QtCore import Qt
from PySide6.QtGui import QImage
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication

from tessil.core.logbook.book import Timing
from tessil.core.numbers.exact import Fraction
from tessil.core.snags import Stage
from tessil.drawing.picture import Label, Shade

F = Fraction


@pytest.fixture
def pouch(kit_at_work):
    """The reed pouch of the demo's kit at its making, six together."""
    hands, window = kit_at_work, kit_at_work.window
    window.desk.turn_to(1)
    hands.click(window.selvage.dots[Stage.MAKE])
    hands.leaf("time")
    hands.click(hands.field("bags"))
    hands.type("6")
    hands.press(Qt.Key.Key_Tab)
    return hands


def figures(hands):
    rows = hands.window.column.receipt.rows
    return {row.reading.key: row for row in rows}


def said(hands):
    return hands.window.column.caution.text()


def test_the_time_of_a_batch_and_its_sittings(pouch):
    window = pouch.window
    rows = figures(pouch)
    assert rows["time.each"].value.endswith(" min")
    assert "÷ 6" in rows["time.each"].sum
    assert rows["time.cut"].basis == "your own times"
    assert "6 sittings in your log" in rows["time.cut"].reading.about
    assert not window.make_bar.isVisible()
    assert not window.ladder.isVisible()
    words = {label.text for label in window.bench.picture.of(Label)}
    assert {"sitting 1", "minutes for one", "bags made together"} <= words
    assert "Sitting 1, " in said(pouch)
    one = float(rows["time.each"].reading.figure.value)
    pouch.click(pouch.field("bags"))
    pouch.type("12")
    assert float(figures(pouch)["time.each"].reading.figure.value) < one


def test_what_is_through_is_counted_and_waits(pouch):
    window = pouch.window
    pouch.click(pouch.field("through.cut"))
    pouch.type("4")
    assert window.desk.project.making.through == {"cut": 4}
    assert "2 wait to be taken through: cut (4 of 6 done)" in said(pouch)
    pouch.type("6")
    assert "through.piece" in window.column.fields
    assert "6 wait to be taken through: piece" in said(pouch)
    window.acts["undo"].trigger()
    assert window.desk.project.making.through.get("cut") != 6


def test_the_wage_that_forty_eight_pay_for_six_and_for_twelve(pouch, qtbot):
    """By hand from what stands in the receipt: price less cost, by hours."""
    window = pouch.window
    pouch.leaf("price")
    pouch.click(pouch.field("sale.price"))
    pouch.type("48,00 EUR")
    rows = figures(pouch)
    cost, hours = (rows[f"price.{key}"].reading.figure.value for key in ("cost", "time"))
    assert rows["price.wage"].reading.figure.value == (48 - cost) / hours
    assert rows["price.wage"].value.startswith("€")
    assert "nine times in ten" in rows["price.wage"].reading.about
    six = rows["price.wage"].reading.figure.value
    names = [label.text for label in window.bench.picture.of(Label)]
    assert "The price, €48.00, goes to" in names
    assert len(list(window.bench.picture.of(Shade))) >= 4
    window.pricer.reckoner._late.now()
    qtbot.waitUntil(lambda: "lever.0" in window.column.fields, timeout=10_000)
    pouch.click(pouch.field("lever.0"))
    assert window.desk.project.bags == 12
    assert figures(pouch)["price.wage"].reading.figure.value > six
    assert "ask the authority concerned" in said(pouch)


def test_bad_amounts_are_refused_beside_their_field(pouch):
    pouch.leaf("price")
    before = pouch.window.desk.project.sale.price
    for text, says in (
        ("-3", "below zero"),
        ("much", "such as 12.50"),
        ("9999999", "1,000,000 at most"),
    ):
        pouch.click(pouch.field("sale.price"))
        pouch.type(text)
        pouch.press(Qt.Key.Key_Return)
        assert says in pouch.window.column.fields["sale.price"].error.text()
        assert pouch.window.desk.project.sale.price == before
        assert pouch.field("sale.price").text() == text
    pouch.press(Qt.Key.Key_Escape)
    pouch.click(pouch.field("pricing.vat"))
    pouch.type("119")
    pouch.press(Qt.Key.Key_Return)
    assert "less than 100 %" in pouch.window.column.fields["pricing.vat"].error.text()
    pouch.type("19 %")
    assert pouch.window.desk.project.pricing.vat == F(19, 100)
    assert "price.kept" in figures(pouch)


def test_a_price_of_cloth_is_typed_by_the_yard_and_kept_by_the_inch(pouch):
    window = pouch.window
    pouch.leaf("costs")
    before = figures(pouch)["price.cost"].reading.figure.value
    field = pouch.field("price.cloth linen")
    assert "by the shelf" in field.placeholderText()
    pouch.click(field)
    pouch.type("20")
    assert window.desk.project.pricing.prices == {"cloth linen": F(20, 36)}
    assert figures(pouch)["price.cost"].reading.figure.value > before
    pouch.click(field)
    pouch.press(Qt.Key.Key_A, Qt.KeyboardModifier.ControlModifier)
    pouch.press(Qt.Key.Key_Delete)
    assert window.desk.project.pricing.prices == {}
    pouch.click(pouch.field("pricing.currency"))
    pouch.type("XYZ")
    pouch.press(Qt.Key.Key_Return)
    assert "three letters" in window.column.fields["pricing.currency"].error.text()


def test_the_job_as_one_has_one_plan_and_each_bags_share(pouch):
    window = pouch.window
    pouch.click(pouch.field("pricing.together"))
    assert "rehearsal satchel" in said(pouch)
    pouch.leaf("price")
    rows = figures(pouch)
    assert [key for key in rows if key[-1].isdigit()] == [f"whole.{at}" for at in range(4)]
    costs = [rows[f"whole.{at}"].reading.figure.value for at in range(4)]
    assert rows["whole.cost"].reading.figure.value == sum(costs)
    assert window.pricer.reckoner.whole().wage.value > 0
    pouch.click(pouch.field("sale.price"))
    pouch.press(Qt.Key.Key_A, Qt.KeyboardModifier.ControlModifier)
    pouch.press(Qt.Key.Key_Delete)
    assert "No price is set for the reed pouch." in said(pouch)
    assert window.pricer.reckoner.whole().wage is None


def test_the_clock_of_the_steps_goes_into_the_log_once(hands):
    window = hands.window
    window.open_demo("reed-pouch")
    window.desk.look(stage=Stage.MAKE)
    window.maker.toggle_clock()
    window.maker._before = 720.0
    window.maker.do()
    hands.leaf("time")
    before = len(window.desk.book.times)
    hands.click(hands.field("times.clock"))
    (made,) = window.desk.book.times[before:]
    assert (made.work, made.minutes, made.kind) == ("cut", 12.0, "boxed-zip")
    assert made.before == 22  # of the season before
    hands.click(hands.field("times.clock"))
    assert len(window.desk.book.times) == before + 1


def test_a_sitting_is_typed_counted_left_out_and_taken_back(pouch):
    window = pouch.window
    pouch.click(pouch.field("times.page"))
    page = window.times_page
    assert page.isVisible()
    assert page.focusWidget() is page.line
    number = len(window.desk.book.times)
    QTest.keyClicks(page.line, "quilt 6 bags 1:25 new needle")
    QTest.keyClick(page.line, Qt.Key.Key_Return)
    made = window.desk.book.times[-1]
    assert (made.work, made.number, made.minutes, made.note) == ("quilt", 6, 85.0, "new needle")
    assert made.before == 22
    QTest.keyClicks(page.line, "quilted all day")
    QTest.keyClick(page.line, Qt.Key.Key_Return)
    assert "how long it took" in page.error.text()
    assert page.line.text() == "quilted all day"
    page.view.selectRow(number)
    pouch.click(next(b for b in page.findChildren(type(page.back)) if b.text() == "Leave out"))
    assert not window.desk.book.times[-1].used
    cell = page.table.index(number, 4)
    assert page.table.setData(cell, "90,5")
    assert window.desk.book.times[-1].minutes == 90.5
    assert not page.table.setData(cell, "-5")
    assert page.error.isVisible()
    window.acts["undo"].trigger()
    window.acts["undo"].trigger()
    window.acts["undo"].trigger()
    assert len(window.desk.book.times) == number
    pouch.press(Qt.Key.Key_Escape)
    assert window.pages.currentWidget() is window.work


def test_ten_thousand_sittings_are_searched_and_no_more_taken(pouch):
    window = pouch.window
    many = tuple(
        Timing(date="2026-05-02", kind="boxed-zip", bag=f"Bag {at}", work="cut", before=1)
        for at in range(10_000)
    )
    window.desk.learn(window.desk.book.model_copy(update={"times": many}))
    window.show_times()
    page = window.times_page
    page.sought.setText("77")
    QApplication.processEvents()
    assert page.table.rowCount() == 280  # of 10,000 numbers 9,720 have no two sevens side by side
    page.line.setText("cut 20 min")
    page._put()
    assert "10,000 sittings at most" in page.error.text()


def test_a_bag_is_written_down_compared_changed_and_made_again(pouch):
    window = pouch.window
    pouch.leaf("price")
    number = len(window.desk.book.made)
    pouch.click(pouch.field("made.log"))
    made = window.desk.book.made[-1]
    assert (made.name, made.number, made.price, made.currency) == ("Reed pouch", 6, 48, "EUR")
    assert made.planned == tuple(F(one.value) for one in window.desk.plan.bag.finished)
    pouch.click(pouch.field("made.page"))
    page = window.made_page
    page.view.selectRow(number)
    assert page.table.setData(page.table.index(number, 9), "6 1/4 x 4 1/4 x 3")
    assert window.desk.book.made[-1].got == (F(25, 4), F(17, 4), 3)
    assert not page.table.setData(page.table.index(number, 9), "wide")
    assert page.error.isVisible()
    page.view.clearSelection()
    page.view.setSelectionMode(page.view.SelectionMode.MultiSelection)
    page.view.selectRow(0)
    page.view.selectRow(number)
    first = window.desk.book.made[0]
    assert f"Minutes: {first.minutes:.0f} against" in page.said.text()
    page.view.clearSelection()
    page.view.selectRow(number)
    bags = len(window.desk.job.bags)
    pouch.click(next(b for b in page.findChildren(type(page.back)) if b.text() == "Make it again"))
    assert len(window.desk.job.bags) == bags + 1
    assert window.desk.project.shape.kind == "boxed-zip"
    assert window.desk.project.making.done == ()
    assert window.pages.currentWidget() is window.work


def test_what_a_season_says_is_drawn(pouch):
    window = pouch.window
    window.show_made()
    page = window.made_page
    for key, says in (
        ("wage", "an hour"),
        ("time", "minutes for one"),
        ("draws", "% drawn in"),
        ("scraps", "% of cloth from scraps"),
    ):
        pouch.click(page.which.buttons[key])
        assert any(says in label.text for label in page.plot.picture.of(Label)), key
    page.sought.setText("clutch")
    assert page.table.rowCount() == 3
    page.view.selectRow(0)
    page._again()
    assert "not kept" in page.error.text()


def test_lists_go_out_and_come_in(pouch, tmp_path):
    window = pouch.window
    window.show_times()
    page = window.times_page
    number = len(window.desk.book.times)
    pouch.click(next(b for b in page.findChildren(type(page.back)) if b.text() == "Save as CSV…"))
    window.file_bar.line.setText(str(tmp_path / "times.csv"))
    pouch.click(window.file_bar.go)
    with (tmp_path / "times.csv").open(encoding="utf-8") as file:
        rows = list(csv.DictReader(file))
    assert len(rows) == number
    assert rows[0]["work"] == "cut"
    assert window.take_times(tmp_path / "times.csv") == ""
    assert window.desk.book.times[number:] == tuple(
        one.model_copy(update={"source": ""}) for one in window.desk.book.times[:number]
    )
    (tmp_path / "bad.csv").write_text("work;minutes\ncut;-5\n")
    assert "line 2, minutes" in window.take_times(tmp_path / "bad.csv")
    window.show_made()
    window.made_page.csv_out.emit()
    window.file_bar.line.setText(str(tmp_path / "made.csv"))
    pouch.click(window.file_bar.go)
    with (tmp_path / "made.csv").open(encoding="utf-8") as file:
        assert len(list(csv.DictReader(file))) == len(window.desk.book.made)


def test_tags_are_printed_with_their_price(pouch, tmp_path):
    window = pouch.window
    pouch.leaf("price")
    pouch.click(pouch.field("tag.page"))
    pouch.click(window.preview.save)
    window.file_bar.line.setText(str(tmp_path / "tag.pdf"))
    pouch.click(window.file_bar.go)
    text = "\n".join(page.extract_text() for page in pypdf.PdfReader(tmp_path / "tag.pdf").pages)
    assert text.count("€48.00") == 6
    assert "ask the authority" in " ".join(text.split())


def test_the_shopping_list_comes_to_a_sum_and_its_wares_come_off_the_shelf(
    hands, qtbot, monkeypatch
):
    window = hands.window
    window.open_demo("reed-pouch")
    hands.click(window.selvage.dots[Stage.CUT])
    hands.leaf("wares")
    row = next(r for r in window.desk.shelf.rows if r.kind == "zipper" and r.name == "navy")
    hands.click(hands.field("wares.take"))
    assert window.desk.shelf.row(row.id).number == row.number - 1
    assert "taken from the shelf" in window.quiet.text()
    window.acts["undo"].trigger()
    assert window.desk.shelf.row(row.id).number == row.number
    assert figures(hands)["bill.total"].reading.figure.value > 1
    window.copy_shopping()
    assert "comes to" in QApplication.clipboard().text()
    row = hands.field("others.search")
    hands.click(row.button)
    qtbot.waitUntil(lambda: not window.searches.running, timeout=20_000)
    assert window.searches.words["others.search"]
    assert "Without cloth" not in figures(hands)["bill.total"].reading.about


def test_a_bag_made_keeps_a_photo(pouch, qtbot, tmp_path):
    window = pouch.window
    picture = QImage(60, 40, QImage.Format.Format_RGB32)
    picture.fill(0x336699)
    picture.save(str(tmp_path / "pouch.png"))
    window.show_made()
    page = window.made_page
    page.view.selectRow(2)
    pouch.click(next(b for b in page.findChildren(type(page.back)) if "photo" in b.text()))
    window.file_bar.line.setText(str(tmp_path / "pouch.png"))
    pouch.click(window.file_bar.go)
    qtbot.waitUntil(lambda: window.desk.book.made[2].photo is not None, timeout=10_000)
    page.view.selectRow(2)
    assert page.photo.isVisible()
    assert window.take_photo(tmp_path / "none.png").startswith("“none.png” is not a file")
