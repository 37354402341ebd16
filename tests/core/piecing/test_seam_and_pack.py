"""The seam test, the pack, the parts of a panel, laying prints."""

import pytest

from tessil.core.choosing import choose
from tessil.core.edits import applied, edit
from tessil.core.layout.packs import packed
from tessil.core.numbers.exact import Fraction
from tessil.core.piecing.acts.laying import (
    divide,
    fill_row,
    laid,
    lock,
    paint,
    pieces_of,
    swap,
    turn,
)
from tessil.core.piecing.acts.whole import row_step
from tessil.core.piecing.choice import Pack, SeamTest
from tessil.core.piecing.seamtest import allowance, seam_cost
from tessil.core.plan import plan
from tessil.core.readings import readings
from tessil.core.snags import Stage
from tessil.core.trouble import CannotPlan
from tests.conftest import tote
from tests.outside.test_every_shape_on_paper import project_of

F = Fraction


def with_front(project, *changes):
    """The project with choices of its leading panel changed."""
    made = plan(project)
    lead = made.bag.panel(made.shape.leader)
    return applied(project, choose(project, lead, "", *changes))


def test_the_seam_that_strips_show():
    # 4 strips of 2½ measured 8⅜ across: (10 − 8⅜) ÷ 6.
    test = SeamTest(strips=4, cut=F(5, 2), measured=F(67, 8))
    assert allowance(test).value == F(13, 48)
    made = plan(tote(seam_test=test))
    assert made.brief.seams.piecing.value == F(13, 48)
    assert made.panel("front").strips.shows.value == F(5, 2) - F(13, 24)


def test_a_seam_that_costs_more_than_an_eighth_has_two_remedies():
    made = plan(tote(seam_test=SeamTest(measured=F(67, 8))))
    snag = next(s for s in made.snags if s.key == "piece.seam.front")
    assert "too wide" in snag.title
    assert [fix.words for fix in snag.fixes] == [
        "Move the needle, and forget the test",
        "Recut the pieces to my seam",
    ]
    assert plan(applied(made.project, snag.fixes[0])).project.seam_test is None
    recut = plan(applied(made.project, snag.fixes[1])).panel("front")
    assert 0 <= recut.strips.surplus.value < recut.strips.number.value * F(1, 8)


def test_a_true_seam_is_no_snag():
    test = SeamTest(measured=4 * F(5, 2) - 6 * F(1, 4))
    made = plan(tote(seam_test=test))
    assert seam_cost(F(1, 4), test, made.panel("front").strips).value == 0
    assert not any(s.key.startswith("piece.seam") for s in made.snags)


def test_what_a_seam_costs_is_counted_from_two_strips_on():
    """4 strips of 2½ that measure 8⅜: a seam of 13/48, 1/48 too wide on both sides of one seam."""
    test = SeamTest(strips=4, cut=F(5, 2), measured=F(67, 8))

    def cost(number):
        one = ("piecing.fixed", "count"), ("piecing.count", number)
        return seam_cost(F(1, 4), test, plan(with_front(tote(), *one)).panel("front").strips)

    assert [cost(number).value for number in (2, 3)] == [F(1, 24), F(1, 12)]
    assert cost(1) is None
    assert seam_cost(F(1, 4), None, plan(tote()).panel("front").strips) is None


@pytest.mark.parametrize(("measured", "says"), [(F(10), "nothing or less"), (F(5), "twice")])
def test_a_seam_test_that_cannot_be(measured, says):
    with pytest.raises(CannotPlan, match=says) as trouble:
        plan(tote(seam_test=SeamTest(measured=measured)))
    assert trouble.value.field == "seam_test.measured"


def test_a_pack_of_42_makes_two_fronts_of_20_with_two_left_for_tabs():
    """Common practice, no source."""
    project = with_front(project_of("free-panel"), ("piecing.way", "squares"))
    project = applied(
        project,
        edit(
            "",
            ("shape.way", "panel"),
            ("shape.sizes", {"panel_width": F(10), "panel_height": F(8)}),
            ("oversize.way", "none"),
        ),
    )
    made = plan(project)
    top = made.panel(made.shape.leader).top
    assert (top.columns.number.whole, top.rows.number.whole) == (5, 4)
    found = packed(made.panels, Pack(pieces=42), made.brief.seams.piecing)
    assert (found.bags.whole, found.left.whole) == (2, 2)
    assert "two tabs" in found.use
    many = packed(made.panels, Pack(pieces=47), made.brief.seams.piecing)
    assert many.pocket.value == 7 * 2 + F(1, 2)


def test_no_squares_no_pack():
    made = plan(tote())
    assert packed(made.panels, Pack(), made.brief.seams.piecing) is None


def test_parts_meet_at_the_folds_and_make_the_panel():
    project = project_of("clutch")
    body = plan(project).panel("body")
    parted = applied(project, divide(project, body, tuple(f.start[1] for f in body.panel.folds)))
    made = plan(parted).panel("body")
    assert len(made.parts) == 3
    assert made.planned.values() == made.needed.values()
    heights = [
        part.top.size.height.value - sum(part.trims[side].value for side in ("top", "bottom"))
        for part in made.parts
    ]
    seam = F(1, 4)
    assert sum(heights) - 2 * (len(heights) - 1) * seam == made.planned.height.value
    for fold, part in zip(body.panel.folds, made.parts[1:], strict=True):
        _, y = made.trimmed_at(0, float(part.begins.value))
        assert abs(y - float(fold.start[1])) < 1 / 8


def test_parts_in_the_wrong_order_are_refused():
    project = tote()
    front = plan(project).panel("front")
    with pytest.raises(CannotPlan, match="one below another") as trouble:
        plan(applied(project, divide(project, front, (F(8), F(3)))))
    assert trouble.value.field == "panels.front.zones.0.starts"


def test_each_part_is_pieced_its_own_way():
    project = tote()
    front = plan(project).panel("front")
    project = applied(project, divide(project, front, (F(6),)))
    project = with_front(project, ("zones.0.piecing.way", "squares"))
    made = plan(project).panel("front")
    assert [part.choice.way for part in made.parts] == ["strips", "squares"]
    keys = [reading.key for reading in readings(plan(project), Stage.PIECE, "front")]
    assert "part0.strips.number" in keys
    assert "part1.squares.number" in keys


@pytest.fixture
def squares():
    return with_front(tote(), ("piecing.way", "squares"), ("piecing.prints", ()))


def test_painting_swapping_turning_filling_pinning(squares):
    panel = plan(squares).panel("front")
    painted = applied(squares, paint(squares, panel, [(0, 7)], "oat"))
    panel = plan(painted).panel("front")
    assert panel.piece_of(0, 7).print == "oat"
    before = laid(panel, 0)
    swapped = applied(painted, swap(painted, panel, (0, 7), (0, 0)))
    after = laid(plan(swapped).panel("front"), 0)
    assert (after[0], after[7]) == (before[7], before[0])
    panel = plan(swapped).panel("front")
    turned = applied(swapped, turn(swapped, panel, (0, 3)))
    assert plan(turned).panel("front").piece_of(0, 3).turned
    pinned = applied(turned, lock(turned, plan(turned).panel("front"), (0, 1)))
    kept = plan(pinned).panel("front").piece_of(0, 1)
    assert kept.locked
    filled = applied(pinned, fill_row(pinned, plan(pinned).panel("front"), (0, 0)))
    row = [p for p in plan(filled).panel("front").patches if p.row == 1]
    assert {p.print for p in row if p.piece != 1} == {"oat"}
    assert plan(filled).panel("front").piece_of(0, 1).print == kept.print


def test_a_layout_keeps_its_rows_when_the_panel_grows(squares):
    panel = plan(squares).panel("front")
    painted = applied(squares, paint(squares, panel, [(0, 8)], "oat"))
    first = plan(painted).panel("front")
    row, place = (getattr(first.piece_of(0, 8), key) for key in ("row", "place"))
    wider = applied(painted, edit("", ("shape.sizes.width", F(14))))
    made = plan(wider).panel("front")
    assert made.top.columns.number.value > first.top.columns.number.value
    again = next(p for p in made.patches if (p.row, p.place) == (row, place))
    assert again.print == "oat"


def test_turned_and_pinned_pieces_stay_where_they_are_when_the_panel_grows(squares):
    spot = (0, 17)
    turned = applied(squares, turn(squares, plan(squares).panel("front"), spot))
    pinned = applied(turned, lock(turned, plan(turned).panel("front"), spot))
    first = plan(pinned).panel("front").piece_of(*spot)
    wider = applied(pinned, edit("", ("shape.sizes.width", F(14))))
    panel = plan(wider).panel("front")
    marked = [(p.row, p.place) for p in panel.patches if p.turned or p.locked]
    assert marked == [(first.row, first.place)]
    another = next(p for p in panel.patches if p.row == 2 and p.place == 2)
    again = applied(wider, turn(wider, panel, (0, another.piece)))
    marked = {(p.row, p.place) for p in plan(again).panel("front").patches if p.turned}
    assert marked == {(first.row, first.place), (2, 2)}
    assert sum(p.locked for p in plan(again).panel("front").patches) == 1


def test_strips_and_squares_know_their_pieces(squares):
    assert len(pieces_of(plan(squares).panel("front"))) == 64  # 8 × 8 of 1¾ shown, at least 15⅝
    assert len(pieces_of(plan(tote()).panel("front"))) == 8


def test_squares_in_hand_are_not_bought():
    prints = tuple(p.model_copy(update={"amount": 200}) for p in tote().prints)
    project = with_front(tote(prints=prints), ("piecing.way", "squares"), ("piecing.prints", ()))
    made = plan(project)
    squares = [item for item in made.items if item.what == "square"]
    assert all(item.in_hand for item in squares)
    assert not any(item.what == "square" for bought in made.bought for item in bought.items)
    few = tuple(p.model_copy(update={"amount": 2}) for p in prints)
    short = plan(project.model_copy(update={"prints": few}))
    assert any(item.what == "square" for bought in short.bought for item in bought.items)


def test_whole_rows_of_squares(squares):
    made = plan(squares)
    rows = made.panel("front").top.rows.number.whole
    more = row_step(made, 1)
    assert more.number == rows + 1
    grown = plan(applied(squares, more.edit)).panel("front")
    assert grown.top.rows.number.whole == rows + 1
    assert grown.top.rows.surplus.value < F(1, 2)
    assert more.edit.words == f"Make it {rows + 1} rows"


def test_a_border_is_trimmed_alike_and_says_what_it_will_show(squares):
    bordered = with_front(squares, ("piecing.border", F(3, 2)), ("piecing.surplus", "one"))
    front = plan(bordered).panel("front")
    assert front.cut_off["top"].value == front.cut_off["bottom"].value
    assert {edge.side for edge in front.edges_show} == {"left", "right", "top", "bottom"}
    thin = plan(with_front(squares, ("piecing.border", F(3, 4))))
    snag = next(s for s in thin.snags if s.key.startswith("piece.edge.front"))
    assert "border" in snag.title
    fix, without = snag.fixes
    assert without.words == "Leave the border off"
    wider = plan(applied(thin.project, fix))
    assert wider.panel("front").choices.piecing.border > F(3, 4)


def test_an_overhang_that_is_hardly_one_is_told():
    project = with_front(tote(), ("piecing.way", "flip"), ("piecing.overhang", F(1, 4)))
    snag = next(s for s in plan(project).snags if s.key == "piece.overhang.front.0")
    mended = plan(applied(project, snag.fixes[0]))
    assert mended.panel("front").choices.piecing.overhang == F(3, 4)
    assert not any(s.key.startswith("piece.overhang") for s in mended.snags)


@pytest.mark.parametrize(
    ("changes", "size", "note"),
    [
        ((), (F(5, 2), F(63, 4)), "each, cut"),
        (
            (("piecing.fixed", "mixed"), ("piecing.widths", (F(2), F(3)))),
            (F(3), F(63, 4)),
            "at most, cut",
        ),
        ((("piecing.way", "squares"),), (F(5, 2), F(5, 2)), "each, cut"),
    ],
)
def test_the_ladder_says_whether_pieces_are_alike(changes, size, note):
    made = plan(with_front(tote(), *changes))
    rung = made.ladder("front")[0]
    assert tuple(figure.value for figure in rung.sizes) == size
    assert rung.note == note
