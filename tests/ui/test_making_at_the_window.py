"""Making through the real window: the step in hand, done and taken back, what keeps a hand back."""

from itertools import takewhile

import pypdf
import pytest
from PySide6.QtCore import Qt
from PySide6.QtGui import QImage
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication

from tessil.core.edits import edit
from tessil.core.making.choice import Made
from tessil.core.numbers.exact import Fraction
from tessil.core.snags import Stage
from tessil.core.words.making import GATE_WORDS
from tessil.drawing.picture import Dimension, Label, Line
from tessil.drawing.pictures import making_picture
from tessil.ui import maker as maker_module

F = Fraction


@pytest.fixture
def pouch(pouch_at_work):
    """The reed pouch at its making, reached by the stage's dot."""
    hands = pouch_at_work
    hands.click(hands.window.selvage.dots[Stage.MAKE])
    return hands


def until(pouch, what):
    """The work up to a step of that kind is done, and this one in hand."""
    desk, maker = pouch.window.desk, pouch.window.maker
    before = takewhile(lambda deed: deed.what != what, maker.making().deeds)
    done = dict.fromkeys((*desk.project.making.done, *(deed.id for deed in before)))
    desk.attempt(edit("Do steps", ("making.done", tuple(done))))
    maker.to_next()
    QApplication.processEvents()
    pouch.window.bench.setFocus()
    assert maker.deed().what == what
    return maker.deed()


def by_the_space_bar(pouch, what):
    """Do steps by the space bar until one of that kind is in hand."""
    window = pouch.window
    window.bench.setFocus()
    for _ in window.maker.making().deeds:
        deed = window.maker.deed()
        if deed.what == what:
            return deed
        pouch.press(Qt.Key.Key_Space)
    raise AssertionError(what)


def test_the_step_in_hand_is_told_drawn_and_done_from_the_keyboard(pouch):
    window = pouch.window
    bar = window.make_bar
    assert bar.isVisible()
    assert bar.count.text().startswith("1 of ")
    deed = by_the_space_bar(pouch, "zip.sew-lined")
    assert window.desk.project.making.done
    assert bar.title.whole == "Zipper, side 1"
    assert "between two right sides" in bar.words.text()
    assert bar.with_it.text().startswith("seam ¼ in, ")
    assert not bar.trouble.isVisible()
    strokes = {line.stroke for line in window.bench.picture.of(Line)}
    assert {"picked", "teeth"} <= strokes
    pouch.press(Qt.Key.Key_Space)
    assert deed.id in window.desk.project.making.done
    assert bar.title.whole == "Zipper, side 2"
    pouch.press(Qt.Key.Key_Backspace)
    assert bar.title.whole == "Zipper, side 1"
    assert deed.id not in window.desk.project.making.done
    pouch.ctrl(Qt.Key.Key_Z)
    assert deed.id in window.desk.project.making.done


def test_a_gate_is_told_before_the_seam_is_sewn(pouch):
    """The last seam with the zipper closed: why not, what it costs; once it is open, go."""
    window = pouch.window
    bar = window.make_bar
    until(pouch, "zip.open-half")
    gated = (d for d in window.maker.making().deeds if any(g.id == "zip-open" for g in d.gates))
    last = next(gated)
    while window.maker.deed().id != last.id:
        pouch.press(Qt.Key.Key_Right)
    assert bar.trouble.isVisible()
    assert "The zipper is closed" in bar.trouble.text()
    assert "unpicked" in bar.trouble.text()
    assert bar.do.text() == "Do it all the same"
    pouch.press(Qt.Key.Key_Return)
    assert window.maker.deed().what == "zip.open-half"
    pouch.press(Qt.Key.Key_Space)
    while window.maker.deed().id != last.id:
        pouch.press(Qt.Key.Key_Space)
    assert not bar.trouble.isVisible()
    assert bar.do.text() == "Done"


def test_a_step_left_out_is_a_snag_and_comes_in_again(pouch):
    window = pouch.window
    until(pouch, "check.caught")
    pouch.click(window.make_bar.out)
    assert "check.caught" not in {deed.what for deed in window.maker.making().deeds}
    snag = next(snag for snag in window.desk.plan.snags if snag.stage is Stage.MAKE)
    assert "batting hides a missed layer" in snag.title
    pouch.click(window.make_bar.in_)
    assert not [snag for snag in window.desk.plan.snags if snag.stage is Stage.MAKE]
    assert not window.make_bar.in_.isVisible()


def test_a_step_is_done_sooner_and_a_note_is_kept(pouch):
    window, bar = pouch.window, pouch.window.make_bar
    until(pouch, "mark.middles")
    wanted = window.maker.making().deeds[window.maker.place() + 1]
    pouch.press(Qt.Key.Key_Right)
    pouch.click(bar.sooner)
    assert window.maker.deed().id == wanted.id
    pouch.click(bar.note)
    QTest.keyClicks(bar.note, "chalk, not pen")
    QTest.keyClick(bar.note, Qt.Key.Key_Return)
    assert window.desk.project.making.notes == {wanted.id: "chalk, not pen"}


def test_what_is_measured_at_a_step_goes_to_its_panel_and_changes_what_follows(pouch):
    """10¼ × 16¾ came out: ¼ and more is trimmed off otherwise; then 9¾ × 14 after trimming, and the
    lining is cut so."""
    window = pouch.window

    def words(what):
        return window.maker.words(next(d for d in steps() if d.what == what))[1]

    def steps():
        return window.maker.making().deeds

    def measured(rung, size):
        pouch.click(window.ladder.cells[rung].box)
        pouch.type(size)
        pouch.press(Qt.Key.Key_Return)

    deed = until(pouch, "quilt.measure")
    assert window.desk.seen.panel == deed.panels[0] == "body"
    before = words("square.level-first")
    measured("quilted", "10 1/4 x 16 3/4")
    assert window.desk.project.measured["body"].quilted.width == F(41, 4)
    assert words("square.level-first") != before
    assert window.maker.deed().id == deed.id
    until(pouch, "trim.cut")
    measured("trimmed", "9 3/4 x 14")
    assert "9¾ by 14½" in words("line.cut")  # twice its zipper's further seam more: 14 + ½


def test_the_gap_is_drawn_where_it_is_left(pouch):
    window = pouch.window
    window.desk.attempt(edit("Through a gap", ("lining_in", "gap")))
    deed = until(pouch, "line.seam-gap")
    told = [one.text for one in window.bench.picture.of(Dimension)]
    read = window.desk.plan.marks.notation.read_off(deed.gap.value, unit=True)
    assert told == [f"{read} open"]


def test_every_step_of_the_kit_is_drawn_and_told(hands):
    window = hands.window
    window.open_demo()
    for _ in window.desk.job.bags:
        window.desk.look(stage=Stage.MAKE)
        steps = window.maker.making().deeds
        assert len(steps) > 20
        for deed in steps:
            title, sentence = window.maker.words(deed)
            assert title
            assert "{" not in sentence
            assert making_picture(window.desk.plan, deed).items, deed.id
        window.desk.turn_to(window.desk.at + 1)


def test_all_done_says_so(hands):
    window = hands.window
    window.open_demo("march-card-clutch")
    window.desk.look(stage=Stage.MAKE)
    for _ in range(window.maker.standing().number - window.maker.standing().done):
        window.maker.do()
    QApplication.processEvents()
    assert window.make_bar.title.whole == "The bag is made"


def test_the_receipt_tells_minutes_by_kind_of_work(pouch):
    window = pouch.window
    labels = [row.reading.figure.label for row in window.column.receipt.rows]
    assert labels[0] == "Cut"
    assert labels[-1] == "All of it"
    total = window.column.receipt.rows[-1].reading.figure.value
    parts = [row.reading.figure.value for row in window.column.receipt.rows[:-1]]
    assert total == sum(parts)


def test_the_sewing_sheet_has_every_step_with_its_number(pouch, tmp_path):
    window = pouch.window
    window.acts["sewing-sheet"].trigger()
    QApplication.processEvents()
    assert window.preview.isVisible()
    assert window.preview.title.text() == "Sewing sheet"
    pouch.click(window.preview.save)
    window.file_bar.line.setText(str(tmp_path / "sheet.pdf"))
    pouch.click(window.file_bar.go)
    said = "\n".join(page.extract_text() for page in pypdf.PdfReader(tmp_path / "sheet.pdf").pages)
    words = " ".join(said.split())
    steps = window.maker.making().deeds
    assert f"Sewing sheet: {len(steps)} steps" in words
    for at, deed in enumerate(steps, start=1):
        title = window.maker.words(deed)[0]
        stop = "" if title.endswith("?") else "."
        assert f"{at} {title}{stop} " in words, title
    assert "What the words mean" in words
    assert "back-tack" in words


@pytest.mark.parametrize("act", ["templates", "templates-large"])
def test_templates_are_seen_before_they_are_printed(pouch, act):
    window = pouch.window
    window.acts[act].trigger()
    QApplication.processEvents()
    assert window.preview.isVisible()
    assert window.preview.title.text() == "Templates"
    assert (len(window.preview.pages) == 2) == (act == "templates-large")


def test_the_bag_as_it_is_folds_up_as_it_is_sewn(pouch):
    window = pouch.window
    pouch.leaf("bag")
    flat = window.bench.picture.box
    assert "0 of 8 seams" in window.column.caution.text()
    until(pouch, "turn.gap")
    assert "8 of 8 seams" in window.column.caution.text()
    assert "The way out is the gap in the lining" in window.column.caution.text()
    assert window.bench.picture.box != flat
    pouch.leaf("step")
    assert window.bench.picture.items


def test_cautions_are_told_at_the_first_step_of_a_sitting_that_they_concern(pouch):
    """Beside the step until one of that kind is done, with the figures ever after; told again in
    another sitting."""
    window, bar = pouch.window, pouch.window.make_bar
    window.bench.setFocus()
    assert "Rotary cutter" in bar.caution.text()
    assert bar.caution.isVisible()
    kind = window.maker.concerned()
    pouch.press(Qt.Key.Key_Space)
    while window.maker.concerned() is kind:
        assert not bar.caution.isVisible()
        pouch.press(Qt.Key.Key_Space)
    assert bar.caution.isVisible()
    until(pouch, "join.folded")
    assert "clips and pins" in bar.caution.text() + window.column.caution.text()
    assert "clips and pins" in window.column.caution.text()


def test_a_seam_is_shown_with_the_bag_after_it(pouch):
    window = pouch.window
    until(pouch, "join.folded")
    said = [one.text for one in window.bench.picture.of(Label)]
    assert "after this step" in said
    assert "At the right: the bag after this step" in window.bench.picture.caption
    before = window.bench.picture
    QTest.keyClick(window.bench, Qt.Key.Key_Space)
    assert window.bench.picture != before
    until(pouch, "turn.gap")
    assert "after this step" not in [one.text for one in window.bench.picture.of(Label)]


def test_a_step_that_went_wrong_says_what_to_do_and_what_comes_with_it(pouch):
    window, bar = pouch.window, pouch.window.make_bar
    until(pouch, "finish.press")
    while window.maker.deed().what != "check.caught":
        pouch.press(Qt.Key.Key_Left)
    before = window.desk.project.making.done
    pouch.click(bar.wrong)
    assert "Unpick 1 in (25 mm) past the miss" in bar.trouble.text()
    assert "turn through the gap" in bar.trouble.text()
    assert "minutes" in bar.trouble.text()
    assert window.maker.deed().what == "check.caught"
    assert len(window.desk.project.making.done) < len(before)
    pouch.ctrl(Qt.Key.Key_Z)
    assert window.desk.project.making.done == before


def test_the_clock_counts_a_step_rests_and_goes_on(pouch, monkeypatch):
    """Ninety seconds, a rest of an hour, thirty more: two minutes stand with the step."""
    now = [1000.0]
    monkeypatch.setattr(maker_module, "monotonic", lambda: now[0])
    window, bar = pouch.window, pouch.window.make_bar
    first = window.maker.deed()
    assert bar.clock.text() == "Start the clock"
    pouch.click(bar.clock)
    now[0] += 90
    bar._show_clock()
    assert bar.clock.text() == "1:30"
    pouch.click(bar.clock)
    now[0] += 3600
    pouch.click(bar.clock)
    now[0] += 30
    pouch.click(bar.do)
    assert window.desk.project.making.seconds == {first.id: 120}
    assert bar.clock.text() == "0:00"
    window.open_demo()
    assert not window.maker.ticks
    window.maker.toggle_clock()
    window.desk.turn_to(1)
    now[0] += 60
    assert (window.maker.ticks, window.maker.elapsed()) == (False, 0.0)
    window.desk.turn_to(0)
    assert window.maker.elapsed() == 60.0


def test_a_digit_on_the_bench_begins_what_is_measured(pouch):
    window = pouch.window
    deed = until(pouch, "quilt.measure")
    pouch.press(Qt.Key.Key_1)
    assert pouch.focus is window.ladder.cells["quilted"].box
    QTest.keyClicks(pouch.focus, "0 1/2 x 16 1/4")
    pouch.press(Qt.Key.Key_Return)
    got = window.desk.project.measured[deed.panels[0]].quilted
    assert (got.width, got.height) == (F(21, 2), F(65, 4))


def test_space_does_no_step_while_time_is_looked_at(pouch):
    window = pouch.window
    pouch.leaf("time")
    done = window.desk.project.making.done
    window.bench.setFocus()
    pouch.press(Qt.Key.Key_Space)
    assert window.desk.project.making.done == done


def test_a_photo_is_kept_with_a_step(pouch, qtbot, tmp_path):
    window = pouch.window
    picture = QImage(80, 60, QImage.Format.Format_RGB32)
    picture.fill(0x885522)
    picture.save(str(tmp_path / "step.png"))
    number = len(window.bench.picture.items)
    pouch.click(window.make_bar.photo)
    window.file_bar.line.setText(str(tmp_path / "step.png"))
    pouch.click(window.file_bar.go)
    qtbot.waitUntil(lambda: bool(window.desk.project.making.photos), timeout=10_000)
    assert list(window.desk.project.making.photos) == [window.maker.deed().id]
    QApplication.processEvents()
    assert len(window.bench.picture.items) == number + 1
    window.acts["undo"].trigger()
    assert window.desk.project.making.photos == {}


def test_each_gate_holds_a_hand_back_until_what_it_waits_for_is_so(hands):
    """Every gate of the kit, at the window: the step is turned to too early, the reason stands
    there, Space does nothing; in its turn nothing is in the way."""
    window = hands.window
    window.open_demo()
    seen = set()
    for at in range(len(window.desk.job.bags)):
        window.desk.turn_to(at)
        window.desk.attempt(edit("", ("making", Made())))
        window.desk.look(stage=Stage.MAKE)
        seen |= _gates_of(hands, window.maker.making().deeds, seen)
    assert seen == set(GATE_WORDS)


def _gates_of(hands, deeds, before):
    """The gates of one bag that were seen to hold, each at its first step."""
    window, seen = hands.window, set()
    for deed in deeds:
        new = {gate.id for gate in deed.gates if gate.holds} - before - seen
        if not new:
            continue
        _early(hands, deed)
        made = window.desk.project.making.done
        hands.press(Qt.Key.Key_Space)
        assert window.desk.project.making.done == made
        said = window.make_bar.trouble.text()
        assert said.startswith("Not yet.")
        assert window.make_bar.do.text() == "Do it all the same"
        held = {one.gate for one in window.maker.waits() if one.gate}
        assert GATE_WORDS[next(iter(g.id for g in deed.gates if g.id in held))][0] in said
        seen |= new & held
        _in_turn(window, deeds, deed)
        assert window.maker.trouble() == ""
        _anew(window)
    return seen | _kept_out(hands, deeds, before | seen)


def _early(hands, deed):
    hands.window.maker._look(deed, deed.id)
    hands.window.bench.setFocus()
    QApplication.processEvents()


def _in_turn(window, deeds, deed):
    """All before it is done, in the order there is."""
    done = tuple(one.id for one in deeds[: deeds.index(deed)])
    window.desk.attempt(edit("", ("making.done", done)))
    window.maker._look(deed, deed.id)


def _anew(window):
    window.desk.attempt(edit("", ("making.done", ())))


def _kept_out(hands, deeds, before):
    """Gates that a fact must not hold for: seen once that fact was made so too early."""
    window, seen = hands.window, set()
    for deed in deeds:
        for gate in deed.gates:
            giver = next((one for one in deeds if gate.fact in one.gives), None)
            if gate.holds or gate.id in before | seen or giver is None:
                continue
            early = [one.id for one in deeds[: deeds.index(deed)]]
            window.desk.attempt(edit("", ("making.done", (*early, giver.id))))
            _early(hands, deed)
            hands.press(Qt.Key.Key_Space)
            assert deed.id not in window.desk.project.making.done
            assert GATE_WORDS[gate.id][0] in window.make_bar.trouble.text()
            seen.add(gate.id)
            _anew(window)
    return seen
