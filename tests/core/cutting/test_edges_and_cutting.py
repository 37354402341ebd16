"""Binding, cut list and cloth to buy."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tessil.core.bag.ids import CutOwner
from tessil.core.brief.choice import ShapeChoice
from tessil.core.cutting.cloth import plan_cloth
from tessil.core.edges.binding import plan_binding
from tessil.core.edges.choice import Binding
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.rows import lay_out
from tessil.core.numbers.rulers import rulers
from tessil.core.numbers.workings import given as chosen
from tessil.core.plan import plan
from tessil.core.trouble import CannotPlan
from tests.conftest import tote, with_front

F = Fraction
MARK = chosen("mark", F(1, 8))


def _binding(edge, usable=40, **choice):
    return plan_binding(
        Binding(**choice),
        chosen("edge", F(edge)),
        True,
        chosen("thick", F(1, 8)),
        chosen("usable", F(usable)),
        MARK,
    )


@given(st.integers(4, 300), st.integers(12, 60), st.sampled_from([F(2), F(9, 4), F(5, 2)]))
def test_strips_are_the_least_that_reach(edge, usable, cut):
    made = _binding(edge, usable, cut=cut)
    count = made.strips.whole

    def reach(n):
        return n * usable - (n - 1) * cut

    assert reach(count) >= made.length.value
    assert count == 1 or reach(count - 1) < made.length.value
    assert made.joins.value == count - 1


def test_binding_widens_with_thickness_and_by_its_fold():
    thin = _binding(20, seam=F(1, 4))
    thick = plan_binding(
        Binding(), chosen("e", 20), True, chosen("t", F(1, 4)), chosen("u", 40), MARK
    )
    assert thick.cut.value > thin.cut.value
    assert _binding(20, fold="single").cut.value < thin.cut.value


def test_a_binding_wider_than_the_cloth_is_refused():
    with pytest.raises(CannotPlan, match="wider than half the cloth"):
        _binding(20, usable=10, cut=F(9))


def test_binding_goes_round_the_opening_less_the_side_seams():
    made = plan(tote())
    width = made.panel("front").trimmed.width.value
    assert made.binding.edge.value == 2 * (width - 2 * F(3, 8))


def test_a_bound_panel_goes_round_all_four_sides():
    choice = ShapeChoice(kind="free-panel", sizes={"width": F(12), "height": F(9)})
    made = plan(tote(shape=choice))
    assert made.binding.length.value == 2 * (12 + 9) + 10


pieces = st.lists(
    st.tuples(
        st.sampled_from(["strip", "top", "lining"]),
        st.integers(1, 60).map(F),
        st.integers(1, 40).map(F),
        st.integers(1, 30),
    ),
    min_size=1,
    max_size=6,
)


@given(pieces)
def test_rows_hold_every_piece_once_and_none_past_the_edge(wanted):
    usable = F(40)
    rows, too_long = lay_out(wanted, usable)
    laid: dict[str, int] = {}
    for row in rows:
        used = sum((along * number for _, along, _, number in row.pieces), F(0))
        assert used + row.left == usable
        assert row.left >= 0
        for name, _, high, number in row.pieces:
            assert high <= row.high
            laid[name] = laid.get(name, 0) + number * row.times
    for name in {piece[0] for piece in wanted}:
        fits = [p for p in wanted if p[0] == name and min(p[1], p[2]) <= usable]
        assert laid.get(name, 0) == sum(piece[3] for piece in fits)
    refused = {p[0] for p in wanted if min(p[1], p[2]) > usable}
    assert set(too_long) == refused


@given(pieces)
def test_cloth_is_never_less_than_its_bare_area(wanted):
    made = plan_cloth(wanted, F(40), F(1, 2), rulers("inch"))
    if not made.too_long:
        assert made.buy.value >= made.bare
    assert (made.buy.value / F(9, 2)).denominator == 1


@pytest.mark.parametrize(("units", "step"), [("inch", F(9, 2)), ("metric", F(500, 127))])
def test_yardage_goes_up_to_an_eighth_or_ten_centimetres(units, step):
    made = plan(tote(units=units))
    cases = list(made.bought)
    assert cases
    for bought in cases:
        assert (bought.cloth.buy.value / step).denominator == 1


def test_the_cut_list_is_for_all_bags():
    one, nine = plan(tote(bags=1)), plan(tote(bags=9))
    for single, many in zip(one.items, nine.items, strict=True):
        if single.what == "binding strip":  # joined across bags
            assert 0 < many.number.value <= 9 * single.number.value
        else:
            assert many.number.value == 9 * single.number.value
    names = {item.id for item in one.items}
    assert {
        (CutOwner("panels", ("front",)), "strip"),
        (CutOwner("panels", ("back",)), "batting"),
        (CutOwner("panels", ("lining",)), "lining"),
        (CutOwner("edge"), "binding strip"),
    } <= names


@pytest.mark.parametrize("bags", [0, -1, 1000, 10_000])
def test_bags_out_of_reason_are_refused(bags):
    with pytest.raises(ValueError, match="1 to 999"):
        type(tote())(bags=bags)


def test_nine_hundred_bags_are_planned_at_once():
    made = plan(tote(bags=999))
    assert sum(row.times for row in made.bought[0].cloth.rows) > 100


@pytest.mark.parametrize(
    ("changes", "in_sets"),
    [
        ((), True),
        ((("piecing.run", "diagonal"),), False),
        ((("piecing.border", F(1)),), False),
        ((("piecing.way", "squares"),), False),
        ((("piecing.strip_sets", False),), False),
    ],
)
def test_only_straight_strips_without_a_border_are_cut_across_from_a_set(changes, in_sets):
    made = plan(with_front(tote(), ("piecing.strip_sets", True), *changes))
    noted = {note.kind for item in made.items for note in item.notes}
    assert ("set" in noted) == in_sets
