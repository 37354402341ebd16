"""The brief as a talk: questions and answers, figures in sight, sizes typed on the drawing."""

import pytest
from PySide6.QtCore import QPoint, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication

from tessil.core.choosing import measure
from tessil.core.numbers.exact import Fraction
from tessil.core.panels.choice import Got
from tessil.core.plan import plan
from tessil.core.shapes import SHAPES
from tessil.core.snags import Stage
from tessil.drawing.picture import Line
from tessil.ui.stages import specs
from tests.outside.test_every_shape_on_paper import project_of

F = Fraction
ASKED = ("talk.holds", "talk.size", "talk.closes", "talk.carried", "talk.sewn")


def answers(window):
    column = window.column
    return {key: column.field(key).answer for key in column.fields if key.startswith("talk.")}


def in_sight(area, widget):
    top = widget.mapTo(area.viewport(), QPoint(0, 0)).y()
    return top >= 0 and top + min(widget.height(), 20) <= area.viewport().height()


def size_on_bench(bench, key):
    """The middle of a figure on the drawing."""
    (one,) = (words for words in bench.written if words.size == key)
    return QPoint(round(one.box.left + one.box.width / 2), round(one.box.top + one.box.height / 2))


def click_size(window, key):
    QTest.mouseClick(window.bench, Qt.MouseButton.LeftButton, pos=size_on_bench(window.bench, key))
    QApplication.processEvents()


def test_each_question_is_a_line_that_says_what_stands_in_it(at_work):
    told = answers(at_work.window)
    assert tuple(told) == ASKED
    assert told["talk.holds"].startswith("music folder ")
    assert told["talk.holds"].endswith("; ease ½")
    assert told["talk.size"] == "10⅜ wide × 13¼ high × 2¼ deep, from what it holds"
    closes = "flap round, corner 1½, edges turned, passes over half the depth, length 8⅞"
    assert told["talk.closes"].startswith(closes)
    assert told["talk.closes"].endswith("magnetic snap")
    assert told["talk.carried"] == "strap 60 × 1½ on rings"
    assert told["talk.sewn"].startswith("top edge bound, lining dropped in, corners cut first")
    assert told["talk.sewn"].endswith("seams ⅜")


def test_a_question_is_opened_by_a_click_and_by_keys(at_work):
    window = at_work.window
    assert "shape.way" in window.column.fields
    at_work.click(window.column.field("talk.carried"))
    fields = list(window.column.fields)
    at = fields.index("talk.carried")
    assert fields[at + 1 : at + 4] == [
        "shape.options.strap",
        "shape.options.strap_ends",
        "shape.sizes.strap_length",
    ]
    assert "shape.way" not in fields
    at_work.tab_to(window.column.field("talk.sewn"))
    at_work.press(Qt.Key.Key_Space)
    assert "lining" in window.column.fields
    assert "shape.sizes.strap_length" not in window.column.fields
    QTest.qWait(20)
    assert in_sight(window.column.scrolled, window.column.fields["talk.sewn"])


def test_an_answer_changes_with_its_fields(at_work):
    field = at_work.field("seams.side")
    at_work.click(field)
    at_work.type("1/4")
    at_work.press(Qt.Key.Key_Return)
    at_work.click(at_work.window.column.field("talk.size"))
    assert answers(at_work.window)["talk.sewn"].endswith("seams ¼ and ⅜")


@pytest.mark.parametrize("shape", list(SHAPES))
def test_every_choice_of_a_shape_is_asked_by_one_question(shape):
    made = plan(project_of(shape))
    asked = {}
    for topic in ("holds", "size", "closes", "carried", "sewn"):
        found = specs(made, Stage.BRIEF, made.shape.leader, topic)
        if f"talk.{topic}" not in [spec.key for spec in found]:
            continue  # nobody asks that of this shape
        for spec in found:
            if not spec.key.startswith("talk.") and spec.key != "shape.kind":
                asked.setdefault(spec.key, set()).add(topic)
    assert all(len(topics) == 1 for topics in asked.values())
    options = [one for one in made.shape.options if made.shape.asked(one, made.brief.options)]
    for option in options:
        assert asked[f"shape.options.{option.key}"] == {option.asks}
    assert asked["shape.way"] == {"size"}


@pytest.mark.parametrize("shape", ["boxed-zip", "tote"])
def test_the_questions_of_a_shape_are_opened_one_after_the_other(at_work, shape):
    window = at_work.window
    at_work.choose("shape.kind", shape)
    asked = {}
    for key in [name for name in window.column.fields if name.startswith("talk.")]:
        at_work.click(window.column.field(key))
        for field in window.column.fields:
            if not field.startswith("talk.") and field != "shape.kind":
                assert asked.setdefault(field, key) == key
    plan = window.desk.plan
    options = [one for one in plan.shape.options if plan.shape.asked(one, plan.brief.options)]
    for option in options:
        assert asked[f"shape.options.{option.key}"] == f"talk.{option.asks}"
    assert asked["shape.way"] == "talk.size"
    carried = any(one.asks == "carried" for one in (*options, *plan.shape.fields))
    assert ("talk.carried" in window.column.fields) == carried


def test_a_snag_of_the_brief_opens_its_question(at_work):
    window = at_work.window
    click_size(window, "width")
    at_work.type("5")
    at_work.press(Qt.Key.Key_Return)
    at_work.click(window.column.field("talk.sewn"))
    assert "hold.things.0.width" not in window.column.fields
    window.desk.look(stage=Stage.QUILT)
    QApplication.processEvents()
    row = next(row for row in window.snags.rows if row.snag.key == "fit.width")
    at_work.click(row.head)
    assert window.desk.seen.stage is Stage.BRIEF
    assert "hold.things.0.width" in window.column.fields


@pytest.mark.parametrize("demo", ["rehearsal-satchel", "reed-pouch", "march-card-clutch"])
def test_figures_are_in_sight_beside_the_choices_at_every_stage(hands, demo):
    window = hands.window
    window.resize(1280, 800)
    window.open_demo(demo)
    for stage in Stage:
        window.desk.look(stage=stage)
        QApplication.processEvents()
        column = window.column
        if not column.receipt.rows:
            continue
        seen = [row for row in column.receipt.rows if in_sight(column.told_area, row)]
        assert len(seen) >= min(4, len(column.receipt.rows)), stage
        if column.fields:
            assert in_sight(column.scrolled, next(iter(column.fields.values()))), stage


# -- sizes typed on the drawing ---------------------------------------------------------------


def test_a_figure_on_the_bag_is_clicked_and_another_typed(at_work):
    window = at_work.window
    click_size(window, "width")
    box = window.size_box
    assert box.isVisible()
    assert box.field.hasFocus()
    assert box.field.text() == "10⅜"
    at_work.type("12")
    at_work.press(Qt.Key.Key_Return)
    assert not box.isVisible()
    assert window.bench.hasFocus()
    plan = window.desk.plan
    assert plan.project.shape.way == "finished"
    assert plan.bag.finished[0].value == 12
    assert plan.bag.finished[1].value == F(53, 4)
    window.desk.stack.undo()
    assert window.desk.project.shape.way == "object"
    assert window.desk.plan.bag.finished[0].value == F(83, 8)


def test_a_figure_on_the_panel_begins_from_the_panel(at_work):
    window = at_work.window
    click_size(window, "panel_height")
    at_work.type("15 1/2")
    at_work.press(Qt.Key.Key_Return)
    plan = window.desk.plan
    assert plan.project.shape.way == "panel"
    assert plan.panel("front").trimmed.height.value == F(31, 2)
    assert plan.panel("front").trimmed.width.value == F(107, 8)


def test_escape_leaves_a_size_as_it_was_and_nonsense_is_said_below_it(at_work):
    window = at_work.window
    before = window.desk.project
    click_size(window, "depth")
    at_work.type("4")
    at_work.press(Qt.Key.Key_Escape)
    assert not window.size_box.isVisible()
    assert window.desk.project == before
    assert window.desk.plan.bag.finished[2].value == F(9, 4)
    click_size(window, "depth")
    at_work.type("nought")
    at_work.press(Qt.Key.Key_Return)
    assert window.size_box.isVisible()
    assert window.size_box.row.error.text().endswith(".")
    at_work.press(Qt.Key.Key_Escape)
    assert not window.size_box.isVisible()
    assert window.desk.project == before


def test_a_size_that_makes_no_sense_changes_nothing(at_work):
    window = at_work.window
    before = window.desk.project
    for typed, says in (
        ("0", "more than zero"),
        ("-3", "more than zero"),
        ("10000", "longer than 10 m"),
        ("1 ell", "is no unit"),
    ):
        click_size(window, "width")
        at_work.type(typed)
        at_work.press(Qt.Key.Key_Return)
        assert says in window.size_box.row.error.text()
        assert window.desk.project == before
        at_work.press(Qt.Key.Key_Escape)
        assert window.desk.project == before
        assert not window.desk.stack.canUndo()


def test_a_panel_that_was_measured_is_not_wished_otherwise(at_work):
    window = at_work.window
    change = measure(window.desk.project, "front", "trimmed", Got(width=F(13), height=F(15)))
    window.desk.attempt(change)
    QApplication.processEvents()
    before = window.desk.project
    for key in ("panel_width", "width"):
        click_size(window, key)
        at_work.type("16")
        at_work.press(Qt.Key.Key_Return)
        assert "The front was measured" in window.size_box.row.error.text()
        assert window.desk.project == before
        at_work.press(Qt.Key.Key_Escape)


def test_sizes_are_reached_without_a_mouse(at_work):
    window = at_work.window
    window.bench.setFocus()
    asked = []
    for _ in range(5):
        at_work.press(Qt.Key.Key_Return)
        assert window.size_box.isVisible()
        asked.append(window.size_box.key)
        at_work.press(Qt.Key.Key_Escape)
    assert sorted(asked) == ["depth", "height", "panel_height", "panel_width", "width"]


def test_sizes_stay_put_while_the_bag_is_turned_and_are_there_again(at_work):
    window = at_work.window
    spot = size_on_bench(window.bench, "height")
    window.desk.turn_by(20, 0)
    QTest.mouseClick(window.bench, Qt.MouseButton.LeftButton, pos=spot)
    assert not window.size_box.isVisible()
    window.desk.turn_bag("front")
    QTest.qWait(400)
    click_size(window, "height")
    assert window.size_box.isVisible()


# -- pieces on the panel and on the bag -----------------------------------------------------------


def middle_of(bench, key):
    outline = bench.picture.pieces[key]
    x = sum(x for x, _ in outline) / len(outline)
    y = sum(y for _, y in outline) / len(outline)
    return bench.surface().at((x, y)).toPoint()


def lit(window):
    """The outlines that are lit on the bench, those of the panel left of those of the bag."""
    return sorted(
        (line.points for line in window.bench.picture.of(Line) if line.stroke == "picked"),
        key=lambda points: points[0][0],
    )


def test_a_piece_of_the_bag_is_lit_on_its_panel_and_the_other_way_round(at_work):
    window = at_work.window
    key = next(key for key in window.bench.picture.pieces if key.startswith("piece:flap"))
    assert key.endswith(":bag")
    QTest.mouseClick(window.bench, Qt.MouseButton.LeftButton, pos=middle_of(window.bench, key))
    QApplication.processEvents()
    seen = window.desk.seen
    assert (seen.panel, seen.piece) == ("flap", key.removesuffix(":bag"))
    on_panel, on_bag = lit(window)
    assert on_panel == window.bench.picture.pieces[seen.piece]
    assert on_bag == window.bench.picture.pieces[seen.piece + ":bag"]
    other = next(
        key for key in window.bench.picture.pieces if not key.endswith(":bag") and key != seen.piece
    )
    QTest.mouseClick(window.bench, Qt.MouseButton.LeftButton, pos=middle_of(window.bench, other))
    QApplication.processEvents()
    assert window.desk.seen.piece == other
    assert lit(window)[0] == window.bench.picture.pieces[other]
