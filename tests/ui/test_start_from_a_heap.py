"""Beginning with what there is: said, answered with three bags, planned by a click."""

import pytest
from PySide6.QtCore import Qt

from tessil.core.proposals import offers as offers_module
from tessil.ui import offering as offering_module

FEW = ("tote", "clutch", "boxed-zip")

pytestmark = pytest.mark.usefixtures("beginning")


@pytest.fixture
def box(hands, monkeypatch):
    """The first page at what there is; three shapes are enough to see how it goes."""
    every = offers_module.ways
    monkeypatch.setattr(
        offering_module, "ways", lambda heap: [one for one in every(heap) if one.shape in FEW]
    )
    start = hands.window.start
    hands.click(start.begins.buttons["heap"])
    yield start.heap
    start.heap.offering.wait()


def say(hands, qtbot, box, key, text):
    field = box.rows[key].field
    hands.click(field)
    hands.type(text)
    qtbot.waitUntil(lambda: not box.offering.looking and bool(box.offers), timeout=20_000)


def test_forty_squares_are_three_bags_and_one_is_planned(hands, qtbot, box):
    assert box.rows["there"].field.hasFocus()
    say(hands, qtbot, box, "there", "forty 2 1/2 squares")
    cards = [card for card in box.cards if card.isVisible()]
    assert len(cards) == 3
    assert {card.told["left"].text() for card in cards} == {"Nothing is left over"}
    assert all(" 40 in all" in card.told["made"].text() for card in cards)
    assert all(card.picture.picture.items for card in cards)
    chosen = box.offers[0]
    hands.click(cards[0].take)
    plan = hands.window.desk.plan
    assert hands.window.pages.currentWidget() is hands.window.work
    assert plan.shape.key == chosen.made.shape.key
    squares = sum(
        part.top.pieces.whole * p.panel.copies
        for p in plan.panels
        for part in p.parts
        if part.choice.way == "squares"
    )
    assert squares == 40


def test_a_row_less_is_planned_by_its_line(hands, qtbot, box):
    say(hands, qtbot, box, "there", "forty 2 1/2 squares")
    card, one = box.cards[0], box.offers[0]
    row = one.beside[1]
    button = card.others[1]
    assert button.text().startswith("A row less: ")
    hands.click(button)
    sizes = [figure.value for figure in hands.window.desk.plan.bag.finished]
    assert sizes == [figure.value for figure in row.made.bag.finished]


def test_what_cannot_be_read_is_said_beside_it_and_stays(hands, box):
    field = box.rows["there"].field
    hands.click(field)
    hands.type("forty buttons")
    hands.press(Qt.Key.Key_Tab)
    assert box.rows["there"].error.text().startswith("Squares, strips, quarters")
    assert field.text() == "forty buttons"
    hold = box.rows["holds"].field
    hands.click(hold)
    hands.type("9 x 12")
    hands.press(Qt.Key.Key_Tab)
    assert "thickness" in box.rows["holds"].error.text()


def test_a_limit_leaves_out_what_is_larger_and_nothing_is_said_so(hands, qtbot, box):
    say(hands, qtbot, box, "there", "forty 2 1/2 squares")
    wide = max(one.made.bag.finished[0].value for one in box.offers)
    most = box.rows["most"].field
    hands.click(most)
    hands.type("8 wide")
    qtbot.waitUntil(
        lambda: (
            not box.offering.looking
            and max((one.made.bag.finished[0].value for one in box.offers), default=0) <= 8
        ),
        timeout=20_000,
    )
    assert wide > 8
    hands.type("1 wide")
    qtbot.waitUntil(lambda: not box.offering.looking and not box.offers, timeout=20_000)
    qtbot.waitUntil(lambda: box.words.text().startswith("No bag comes of it"), timeout=5_000)
    assert not any(card.isVisible() for card in box.cards)


def test_a_bag_from_a_heap_joins_the_job(at_work, qtbot, monkeypatch):
    every = offers_module.ways
    monkeypatch.setattr(
        offering_module, "ways", lambda heap: [one for one in every(heap) if one.shape == "clutch"]
    )
    window = at_work.window
    number = len(window.desk.job.bags)
    window.acts["add-bag"].trigger()
    at_work.click(window.start.begins.buttons["heap"])
    say(at_work, qtbot, window.start.heap, "there", "a pack of 42 squares")
    at_work.click(window.start.heap.cards[0].take)
    assert len(window.desk.job.bags) == number + 1
    assert window.desk.plan.shape.key == "clutch"
    window.start.heap.offering.wait()
