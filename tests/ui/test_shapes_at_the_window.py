"""Shapes, objects, cloth and marks through the real window."""

import pytest
from PySide6.QtCore import QPoint, QPointF, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication

from tessil.core.numbers.exact import Fraction
from tessil.core.shapes import SHAPES
from tessil.core.snags import Stage, Weight
from tessil.drawing.picture import Shade

F = Fraction
OF_A_PANEL = (Stage.PIECE,)  # where every panel has a drawing of its own


def choose(hands, key, value):
    """Pick a line of a chooser, as by mouse or arrow keys."""
    field = hands.field(key)
    field.setFocus()
    at = field.findData(value)
    assert at >= 0, value
    field.setCurrentIndex(at)
    field.activated.emit(at)
    QApplication.processEvents()


@pytest.mark.parametrize("key", SHAPES)
def test_any_shape_can_be_chosen_and_every_stage_shows_it(at_work, key):
    window = at_work.window
    choose(at_work, "shape.kind", key)
    assert window.desk.project.shape.kind == key
    panels = [panel.key for panel in window.desk.plan.panels]
    for stage in Stage:
        for panel in panels if stage in OF_A_PANEL else panels[-1:]:
            window.desk.look(stage=stage, panel=panel)
            QApplication.processEvents()
            assert window.bench.picture.items
    window.acts["undo"].trigger()
    assert window.desk.project.shape.kind == "satchel"


@pytest.mark.parametrize("key", ["tote", "boxed-zip", "clutch", "bound-pouch", "drawstring"])
def test_every_way_in_leads_to_a_plan(at_work, key):
    choose(at_work, "shape.kind", key)
    for way in ("finished", "object", "cloth", "panel"):
        choose(at_work, "shape.way", way)
        assert at_work.window.desk.project.shape.way == way
        assert at_work.window.desk.plan.bag.finished[0].value > 1


def test_from_cloth_says_what_limits_the_bag(at_work):
    choose(at_work, "shape.kind", "tote")
    choose(at_work, "shape.way", "cloth")
    at_work.click(at_work.field("shape.cloth.width"))
    at_work.type("30")
    window = at_work.window
    assert window.desk.project.shape.cloth.width == 30
    assert window.desk.plan.cloth.limits in ("width", "height")
    assert f"the {window.desk.plan.cloth.limits} of the cloth" in window.column.caution.text()


def test_too_little_cloth_is_said_beside_its_field(at_work):
    choose(at_work, "shape.kind", "tote")
    choose(at_work, "shape.way", "cloth")
    before = at_work.window.desk.plan.project
    at_work.click(at_work.field("shape.cloth.width"))
    at_work.type("2")
    at_work.press(Qt.Key.Key_Return)
    error = at_work.window.column.fields["shape.cloth.width"].error
    assert "No bag of this shape" in error.text()
    assert at_work.window.desk.plan.project == before


def test_another_thing_to_hold_and_how_they_lie(at_work):
    window = at_work.window
    assert len(window.desk.project.hold.things) == 2
    at_work.click(at_work.field("hold.more"))
    assert len(window.desk.project.hold.things) == 3
    narrow = window.desk.plan.bag.finished[0].value
    at_work.click(at_work.field("hold.packed").buttons["beside"])
    assert window.desk.plan.bag.finished[0].value > narrow + 8
    at_work.click(at_work.field("hold.things.2.gone"))
    assert len(window.desk.project.hold.things) == 2


def test_the_bag_is_seen_from_other_sides(at_work):
    window = at_work.window
    front = window.bench.picture
    assert list(window.sides.buttons) == ["front", "back", "end", "above", "open", "inside"]
    for side in ("back", "end", "above", "open", "inside"):
        at_work.click(window.sides.buttons[side])
        assert window.bench.picture != front
        assert [name for name, one in window.sides.buttons.items() if one.isChecked()] == [side]
    window.desk.look(stage=Stage.QUILT)
    assert not window.sides.isVisible()


def test_a_corner_school_changes_what_is_marked_not_the_bag(at_work):
    window = at_work.window
    before = window.desk.plan
    choose(at_work, "corner", "line")
    after = window.desk.plan
    assert [f.value for f in after.bag.finished] == [f.value for f in before.bag.finished]
    assert len(after.bag.panel("front").outline) == 4


def _mark(at_work, kind="slip"):
    window = at_work.window
    window.desk.look(stage=Stage.TRIM, panel="back")
    QApplication.processEvents()
    choose(at_work, "marks.add", kind)
    return len(window.desk.project.marks) - 1


def test_a_mark_is_added_typed_and_taken_away(at_work):
    window = at_work.window
    index = _mark(at_work)
    at_work.click(at_work.field(f"marks.{index}.x"))
    at_work.type("4 1/4")
    at_work.press(Qt.Key.Key_Return)
    assert window.desk.project.marks[index].x == F(17, 4)
    row = window.column.receipt.row(f"mark:{index}.1")
    assert row.value == "3⅞"  # from the seam line, ⅜ in
    at_work.click(at_work.field(f"marks.{index}.gone"))
    assert len(window.desk.project.marks) == index


def test_a_mark_is_dragged_and_snaps_and_one_undo_takes_it_back(at_work):
    window = at_work.window
    index = _mark(at_work)
    bench = window.bench
    before = window.desk.project.marks[index]
    outline = bench.picture.handles[f"mark:{index}"]
    surface = bench.surface()
    start = surface.at((outline[0][0] + 1, outline[0][1] + 1)).toPoint()
    end = start + QPoint(round(1.07 * surface.per_inch), round(0.53 * surface.per_inch))
    QTest.mousePress(bench, Qt.MouseButton.LeftButton, pos=start)
    for step in (0.3, 0.6, 1.0):
        at = start + QPoint(
            round((end.x() - start.x()) * step), round((end.y() - start.y()) * step)
        )
        QTest.mouseMove(bench, at)
        QApplication.processEvents()
    QTest.mouseRelease(bench, Qt.MouseButton.LeftButton, pos=end)
    after = window.desk.project.marks[index]
    assert after.x - before.x in (F(1), F(9, 8))
    assert after.y - before.y in (F(1, 2), F(5, 8))
    assert window.desk.seen.mark == index
    window.acts["undo"].trigger()
    assert window.desk.project.marks[index] == before


def test_a_mark_is_moved_by_arrows(at_work):
    window = at_work.window
    index = _mark(at_work)
    before = window.desk.project.marks[index]
    window.bench.setFocus()
    window.desk.take_mark(None)
    for _ in range(5):
        at_work.press(Qt.Key.Key_M)
        if window.desk.seen.mark == index:
            break
    at_work.press(Qt.Key.Key_Right)
    at_work.press(Qt.Key.Key_Right)
    at_work.press(Qt.Key.Key_Down)
    after = window.desk.project.marks[index]
    assert (after.x - before.x, after.y - before.y) == (F(1, 4), F(1, 8))


def test_whole_strips_by_a_button(at_work):
    window = at_work.window
    at_work.ctrl(Qt.Key.Key_2)
    strips = window.desk.plan.panel("front").strips.number.whole
    at_work.choose("whole", str(strips + 1))
    assert window.desk.plan.panel("front").strips.number.whole == strips + 1
    assert window.desk.plan.panel("front").strips.surplus.value < F(1, 2)


def _grave(plan):
    return [snag.key for snag in plan.snags if snag.weight is not Weight.NOTES]


def test_the_four_demo_bags_open_with_nothing_to_worry_about(at_work):
    window = at_work.window
    for key in ("rehearsal-satchel", "reed-pouch", "march-card-clutch", "mute-sack"):
        window.open_demo(key)
        QApplication.processEvents()
        assert _grave(window.desk.plan) == [], key


def test_one_row_more_and_fewer_by_keys(at_work):
    window = at_work.window
    before = window.desk.plan.panel("front").strips.number.whole
    height = window.desk.plan.bag.finished[1].value
    at_work.ctrl(Qt.Key.Key_BracketRight)
    assert window.desk.plan.panel("front").strips.number.whole == before + 1
    assert window.desk.plan.bag.finished[1].value > height
    assert window.desk.stack.undoText() == f"Make it {before + 1} strips"
    at_work.ctrl(Qt.Key.Key_BracketLeft)
    assert window.desk.plan.panel("front").strips.number.whole == before


def test_whole_rows_without_strips_of_a_width_say_so(at_work):
    at_work.ctrl(Qt.Key.Key_2)
    at_work.choose("panel.piecing.fixed", "count")
    at_work.ctrl(Qt.Key.Key_BracketRight)
    assert "strips of a chosen width" in at_work.window.told.text()


def test_after_a_fix_the_keyboard_keeps_its_place(at_work):
    window = at_work.window
    at_work.ctrl(Qt.Key.Key_6)
    at_work.click(at_work.field("binding.strips_on_hand"))
    at_work.type("0")
    at_work.press(Qt.Key.Key_F8)
    at_work.press(Qt.Key.Key_Space)
    assert _grave(window.desk.plan) == []
    assert at_work.focus is not window.bench


def test_a_corner_larger_than_its_flap_is_refused_beside_its_field(at_work):
    field = at_work.field("shape.sizes.flap_round")
    at_work.click(field)
    at_work.type("9")
    at_work.press(Qt.Key.Key_Return)
    assert "meet each other" in at_work.window.column.fields["shape.sizes.flap_round"].error.text()
    assert field.text() == "9"


def test_the_snaps_female_half_follows_the_flap(at_work):
    window = at_work.window
    window.desk.look(stage=Stage.TRIM, panel="front")
    QApplication.processEvents()
    before = window.column.receipt.row("snap:female.3").reading.figure.value
    window.desk.look(stage=Stage.BRIEF)
    QApplication.processEvents()
    drop = window.desk.plan.sizes["flap"].value
    at_work.click(at_work.field("shape.sizes.flap"))
    at_work.type("8")
    window.desk.look(stage=Stage.TRIM)
    QApplication.processEvents()
    after = window.column.receipt.row("snap:female.3").reading.figure.value
    assert before - after == drop - 8 > 0
    at_work.click(at_work.field("snap.female"))
    at_work.type("2")
    assert _grave(window.desk.plan)[-1] == "mark.snap"


def test_trimming_says_how_to_square(at_work):
    window = at_work.window
    at_work.ctrl(Qt.Key.Key_5)
    words = window.column.caution.text()
    assert "parallel to the ruler" in words
    assert "off the top" in words
    assert "Rotary cutter" in words


def _drag(bench, start, end):
    left, none = Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier
    QTest.mousePress(bench, left, none, start)
    for step in (start + (end - start) / 2, end):
        QTest.mouseMove(bench, step)
        QApplication.processEvents()
    QTest.mouseRelease(bench, left, none, end)
    QApplication.processEvents()


def _turned(at_work):
    return at_work.window.desk.stand


def test_the_bag_is_turned_by_hand_and_put_back(at_work):
    """Dragging beside it moves the picture; on it, it turns; arrows turn it, Home puts it back."""
    window, bench = at_work.window, at_work.window.bench
    begun = _turned(at_work)
    left, top, wide, high = bench.picture.turns
    on_bag = bench.surface().at((left + wide / 2, top + high / 2)).toPoint()
    aside = bench.surface().at((1.0, top + high / 2)).toPoint()
    _drag(bench, on_bag, on_bag + QPoint(60, 20))
    assert _turned(at_work).turn == pytest.approx(begun.turn + 30)
    assert _turned(at_work).above == pytest.approx(begun.above + 10)
    assert not any(button.isChecked() for button in window.sides.buttons.values())
    shift = QPointF(bench.shift)
    _drag(bench, aside, aside + QPoint(60, 20))
    assert bench.shift != shift
    assert _turned(at_work).turn == pytest.approx(begun.turn + 30)
    bench.setFocus()
    at_work.press(Qt.Key.Key_Left)
    assert _turned(at_work).turn == pytest.approx(begun.turn + 15)
    at_work.press(Qt.Key.Key_Up)
    assert _turned(at_work).above == pytest.approx(begun.above - 5)
    at_work.press(Qt.Key.Key_Home)
    assert _turned(at_work) == begun
    assert window.sides.buttons["front"].isChecked()
    assert window.desk.stack.count() == 0  # looking changes nothing


def test_the_bag_folds_up_from_flat_by_its_slider(at_work):
    window = at_work.window
    sewn = window.bench.picture
    slider = window.sides.fold
    assert slider.value() == 100
    slider.setFocus()
    at_work.press(Qt.Key.Key_Home)
    assert _turned(at_work).fold == 0.0
    flat = window.bench.picture
    assert flat.turns[3] > sewn.turns[3]  # the net lies in a row
    for _ in range(5):
        at_work.press(Qt.Key.Key_PageUp)
    assert _turned(at_work).fold == pytest.approx(0.5)
    assert window.bench.picture not in (flat, sewn)
    at_work.press(Qt.Key.Key_End)
    assert window.bench.picture.items == sewn.items


def test_what_is_picked_on_the_panel_is_lit_on_the_bag(at_work):
    window = at_work.window
    before = len([s for s in window.bench.picture.of(Shade) if s.tone == "glow"])
    window.desk.look(panel="front")
    at_work.click(window.column.receipt.row("finished.width"))
    glows = [shade for shade in window.bench.picture.of(Shade) if shade.tone == "glow"]
    left = window.bench.picture.turns[0]
    on_bag = [shade for shade in glows if min(x for x, _ in shade.outline) > left]
    assert len(on_bag) > before
