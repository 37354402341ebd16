"""Arranging prints: the rules hold, and what cannot hold is said."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tessil.core.catalogue.prints import Print
from tessil.core.choosing import choose, choose_apart
from tessil.core.edits import applied, edit
from tessil.core.layout.acts.arranging import arranged, broken_words, outcome, reasons
from tessil.core.layout.arrange import Problem, arrange, cost_of
from tessil.core.layout.rules import Broken, ask, in_play, laid_amounts, over_amounts
from tessil.core.layout.values import value_of
from tessil.core.numbers.exact import Fraction
from tessil.core.piecing.acts.laying import lock, paint
from tessil.core.plan import plan
from tests.conftest import tote
from tests.core.layout.test_touches import squared
from tests.outside.test_every_shape_on_paper import project_of

F = Fraction
GROUNDS = ("#1c1c1c", "#3a3a3a", "#555555", "#707070", "#8c8c8c", "#a8a8a8", "#c4c4c4", "#f0f0f0")
EIGHT = tuple(
    Print(key=f"p{at}", name=f"Print {at}", ground=g, ink=g) for at, g in enumerate(GROUNDS)
)


def problem(n, prints, pairs, limits=None, fixed=None, alone=None):
    """A problem in plain numbers: ``pairs`` are (one, other, cost)."""
    return Problem(
        pairs=np.array([(a, b) for a, b, _ in pairs], dtype=np.int64).reshape(-1, 2),
        same=np.array([c for *_, c in pairs], dtype=np.int64),
        alike=np.zeros(len(pairs), dtype=np.int64),
        classes=np.arange(prints),
        alone=np.array(alone) if alone is not None else np.zeros((n, prints), dtype=np.int64),
        weights=np.ones(n, dtype=np.int64),
        limits=np.array(limits if limits is not None else [-1] * prints, dtype=np.int64),
        fixed=np.array(fixed if fixed is not None else [-1] * n, dtype=np.int64),
    )


@settings(max_examples=15)
@given(st.integers(2, 4), st.integers(1, 3), st.data())
def test_small_problems_reach_the_best_of_all_layouts(n, prints, data):
    """Against trying every layout."""
    pairs = [
        (a, b, data.draw(st.integers(1, 5)))
        for a in range(n)
        for b in range(a)
        if data.draw(st.booleans())
    ]
    alone = [[data.draw(st.integers(0, 3)) for _ in range(prints)] for _ in range(n)]
    asked = problem(n, prints, pairs, alone=alone)
    every = np.stack(np.meshgrid(*[np.arange(prints)] * n, indexing="ij"), -1).reshape(-1, n)
    best = min(cost_of(asked, layout) for layout in every)
    answer = arrange(asked, seed=1, steps=1000)
    assert answer.cost == cost_of(asked, answer.prints)
    assert answer.cost == best


def test_amounts_come_first():
    ring = [(at, (at + 1) % 6, 5) for at in range(6)]
    answer = arrange(problem(6, 2, ring, limits=[1, 5]), seed=1)
    assert answer.over == 0
    assert answer.cost == 4 * 5
    none = arrange(problem(6, 2, ring, limits=[0, 0]), seed=1, steps=200)
    assert none.over == 6


def test_pinned_pieces_stay_and_a_seed_repeats():
    chain = [(at, at + 1, 3) for at in range(9)]
    asked = problem(10, 3, chain, fixed=[2, *[-1] * 8, 2])
    one, again = arrange(asked, seed=7), arrange(asked, seed=7)
    assert (one.prints[0], one.prints[-1]) == (2, 2)
    assert (one.prints == again.prints).all()
    assert one.cost == 0


def test_a_search_tells_how_far_it_is_and_stops_when_asked():
    pairs = [(a, b, 1) for a in range(8) for b in range(a)]
    seen = []

    def watch(share, cost):
        seen.append((share, cost))
        return len(seen) < 4

    answer = arrange(problem(8, 2, pairs), seed=1, watch=watch)
    assert len(seen) <= 5
    assert answer.cost == cost_of(problem(8, 2, pairs), answer.prints)


def done(project, **rules):
    """The project arranged by its rules."""
    project = applied(project, edit("", *((f"rules.{key}", v) for key, v in rules.items())))
    made = plan(project)
    asked = ask(made.table)
    return plan(applied(project, arranged(made, asked, arrange(asked.problem, 1))))


def test_a_clutch_of_nine_prints_with_nothing_alike_touching_after_folding():
    prints = tuple(p.model_copy(update={"amount": 6}) for p in EIGHT)
    birds = Print(key="birds", name="Birds", motif="birds", directional=True, amount=5)
    project = squared(project_of("clutch"), "body").model_copy(update={"prints": (*prints, birds)})
    made = done(project)
    assert made.broken == ()
    assert not [s for s in made.snags if s.key.startswith(("layout", "piece.upside-down"))]
    assert over_amounts(made.table) == []
    laid = laid_amounts(made.table)
    assert sum(laid.values()) == made.panel("body").top.pieces.whole
    assert max(laid.values()) <= 6
    assert outcome(made) == "Every rule is kept."


def test_directional_prints_stand_upright_wherever_they_come_to_lie():
    prints = tuple(p.model_copy(update={"directional": True}) for p in EIGHT[:2]) + EIGHT[2:]
    project = squared(project_of("clutch"), "body").model_copy(update={"prints": prints})
    made = done(project)
    turned = [p for p in made.panel("body").patches if p.turned]
    assert turned
    assert {p.print for p in turned} <= {"p0", "p1"}
    assert not any(s.key.startswith("piece.upside-down") for s in made.snags)


def test_favourites_lie_on_the_flap():
    prints = tuple(
        p.model_copy(update={"favourite": at in (1, 5), "amount": 3 if at in (1, 5) else 7})
        for at, p in enumerate(EIGHT)
    )
    project = squared(project_of("clutch"), "body").model_copy(update={"prints": prints})
    made = done(project, favourites="body:front:1")
    assert made.broken == ()
    rows = {p.row for p in made.panel("body").patches if p.print in ("p1", "p5")}
    assert rows <= {1, 2, 3}
    assert sum(p.print in ("p1", "p5") for p in made.panel("body").patches) >= 5


def test_graded_goes_from_dark_to_light():
    project = squared(project_of("clutch"), "body").model_copy(update={"prints": EIGHT})
    made = done(project, order="graded", graded="down", corners=False)
    prints = {p.key: p for p in EIGHT}
    by_row = {}
    for patch in made.panel("body").patches:
        by_row.setdefault(patch.row, []).append(value_of(prints[patch.print]))
    means = [sum(v) / len(v) for _, v in sorted(by_row.items())]
    assert all(a > b for a, b in zip(means, means[2:], strict=False))


def test_rows_of_light_and_dark():
    project = squared(project_of("clutch"), "body").model_copy(update={"prints": EIGHT})
    made = done(project, order="striped")
    dark = {"p0", "p1", "p2", "p3"}
    cases = list(made.panel("body").patches)
    assert cases
    for patch in cases:
        assert (patch.print in dark) == (patch.row % 2 == 1)


def test_spread_keeps_dark_from_dark():
    project = squared(project_of("clutch"), "body").model_copy(update={"prints": EIGHT})
    made = done(project, order="spread")
    assert not [b for b in made.broken if b.rule == "order"]


def test_too_few_prints_are_told_without_searching():
    project = squared(project_of("clutch"), "body").model_copy(update={"prints": EIGHT[:3]})
    (why,) = reasons(plan(project))
    assert "Four squares meet" in why
    assert "3 prints" in why
    made = done(project)
    assert made.broken
    assert "still broken" in outcome(plan(applied(project, edit("", ("rules.seed", 2)))))


@pytest.mark.parametrize(
    ("prints", "says"),
    [
        ((), "basket is empty"),
        (EIGHT[:1], "one print cannot keep them apart"),
        (tuple(p.model_copy(update={"amount": 1}) for p in EIGHT), "8 pieces in hand and"),
    ],
)
def test_what_cannot_be_is_said(prints, says):
    project = squared(project_of("clutch"), "body").model_copy(update={"prints": prints})
    assert any(says in why for why in reasons(plan(project)))
    made = plan(project)
    asked = ask(made.table)
    again = plan(applied(project, arranged(made, asked, arrange(asked.problem, 1, 300))))
    assert again.panel("body").patches


def test_none_in_hand_is_over_at_once_and_a_fix_mends_it():
    prints = tuple(p.model_copy(update={"amount": 0}) for p in EIGHT)
    project = squared(tote(prints=prints), "front")
    made = plan(project)
    assert over_amounts(made.table)
    snag = next(s for s in made.snags if s.key == "layout.amount.p0")
    assert "0 in hand" in snag.title
    mended = plan(applied(project, snag.fixes[0]))
    assert not any(s.key == "layout.amount.p0" for s in mended.snags)


def test_pieces_that_meet_themselves_need_the_back_apart():
    project = squared(tote(prints=EIGHT), "front", square=F(3))
    made = done(project)
    itself = [b for b in made.broken if b.itself]
    assert itself
    snag = next(s for s in made.snags if s.key == "layout.itself.back")
    apart = applied(made.project, snag.fixes[0])
    assert done(apart).broken == ()
    assert apart == applied(made.project, choose_apart(made.project, made.panel("back").panel))


def test_a_pinned_piece_keeps_its_print():
    project = squared(project_of("clutch"), "body").model_copy(update={"prints": EIGHT})
    body = plan(project).panel("body")
    project = applied(project, paint(project, body, [(0, 7)], "p3"))
    project = applied(project, lock(project, plan(project).panel("body"), (0, 7)))
    made = done(project)
    assert made.panel("body").piece_of(0, 7).print == "p3"


def test_like_prints_that_touch_offer_a_swap_that_mends():
    project = squared(project_of("clutch"), "body").model_copy(update={"prints": EIGHT})
    made = done(project)
    body = made.panel("body")
    other = body.piece_of(0, 1).print
    spoiled = plan(applied(made.project, paint(made.project, body, [(0, 0)], other)))
    snag = next(s for s in spoiled.snags if s.key == "layout.alike.body")
    assert snag.place is not None
    mended = plan(applied(spoiled.project, snag.fixes[0]))
    assert len(mended.broken) < len(spoiled.broken)


def test_a_print_taken_out_of_the_basket_is_told():
    project = squared(project_of("clutch"), "body").model_copy(update={"prints": EIGHT})
    made = done(project)
    fewer = plan(made.project.model_copy(update={"prints": EIGHT[:7]}))
    snag = next(s for s in fewer.snags if s.key == "layout.unknown.body")
    assert "no longer in the basket" in snag.title
    mended = plan(applied(fewer.project, snag.fixes[0]))
    assert not any(s.key == "layout.unknown.body" for s in mended.snags)


def test_strips_only_mind_their_neighbours():
    made = plan(tote())
    assert made.broken == ()
    front = made.bag.panel("front")
    same = applied(made.project, choose(made.project, front, "", ("piecing.prints", ("red",))))
    assert {b.rule for b in plan(same).broken} == {"side"}


def test_prints_in_play():
    project = squared(project_of("clutch"), "body").model_copy(update={"prints": EIGHT})
    assert in_play(plan(project).table) == EIGHT
    counted = (EIGHT[0].model_copy(update={"amount": 3}), *EIGHT[1:])
    assert in_play(plan(project.model_copy(update={"prints": counted})).table) == counted[:1]


def test_broken_rules_are_counted_in_words():
    found = [Broken(rule, ()) for rule in ("side", "corner", "side", "order", "side")]
    assert broken_words(found) == (
        "3 alike side by side, 1 alike corner to corner, 1 out of the order of light and dark"
    )
    assert broken_words([]) == ""


def test_the_outcome_counts_what_is_broken_and_says_why():
    """Of two prints four squares meet at every corner."""
    made = plan(squared(tote(prints=EIGHT[:2]), "front", square=F(3)))
    assert made.broken
    said = outcome(made)
    number = len(made.broken)
    assert said.startswith(f"{number} rules are still broken: {broken_words(made.broken)}. ")
    assert "Four squares meet at every corner: 2 prints cannot keep them apart, 4 could." in said
