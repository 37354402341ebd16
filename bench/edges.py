"""Bias from many pieces: time, and joins and waste against exact solutions of small cases."""

from __future__ import annotations

import random
from itertools import product
from math import cos, pi, sin

import numpy as np
from scipy.optimize import Bounds, LinearConstraint, milp
from timing import percentiles, timed

from tessil.core.edges.bias import BiasPlan, best_strips, join_cost, joined, plan_bias, tried
from tessil.core.numbers.polygons import area
from tessil.core.numbers.sizes import Outline

SEAM, LEAST = 0.25, 4.0
TEN_METRES = 10_000 / 25.4


def pieces(chance: random.Random, rectangles: int, odd: int) -> tuple[Outline, ...]:
    """Rectangles of 5 to 20 in, and odd pieces of 4 to 8 corners as large."""
    made: list[Outline] = []
    for _ in range(rectangles):
        w, h = chance.uniform(5, 20), chance.uniform(5, 20)
        made.append(((0.0, 0.0), (w, 0.0), (w, h), (0.0, h)))
    for _ in range(odd):
        n = chance.randint(4, 8)
        made.append(
            tuple(
                (
                    10 + chance.uniform(5, 9) * cos(2 * pi * at / n),
                    10 + chance.uniform(5, 9) * sin(2 * pi * at / n),
                )
                for at in range(n)
            )
        )
    return tuple(made)


def _forget() -> None:
    best_strips.cache_clear()
    tried.cache_clear()


def biasing() -> None:
    """Sixty rectangles and twenty odd pieces for ten metres, nothing remembered."""
    outlines = pieces(random.Random(3), 60, 20)

    def once(_: int) -> None:
        _forget()
        for fewest in (True, False):
            plan_bias(outlines, 1.5, TEN_METRES, SEAM, LEAST, fewest)

    print(f"bias of 80 pieces for 10 m, both ways: {percentiles(timed(once, 20))}")
    _against_solver()
    _against_all_sets()


def _fewest(plan: BiasPlan) -> int:
    """HiGHS: the fewest joins, were no end ever cut anew: a bound."""
    cost = join_cost(SEAM)
    lengths = np.array([strip.longest for strip in plan.strips]) - cost
    ones = np.ones(len(lengths))
    made = milp(
        ones,
        integrality=ones,
        bounds=Bounds(0, 1),
        constraints=LinearConstraint(lengths[None, :], lb=plan.need - cost),
    )
    return round(made.fun) - 1


def _against_solver() -> None:
    found = bound = 0
    for seed in range(40):
        chance = random.Random(seed)
        outlines = pieces(chance, 5, 2)
        made = plan_bias(outlines, 1.5, chance.uniform(60, 160), SEAM, LEAST, True)
        if made.enough:
            found, bound = found + made.joined.joins, bound + _fewest(made)
    print(
        f"joins of 40 cases of 7 pieces: {found}, HiGHS's bound {bound}, ratio {found / bound:.3f}"
    )


def _against_all_sets() -> None:
    """Cloth cut into, against every set of pieces that reaches."""
    cost, ours, best = join_cost(SEAM), 0.0, 0.0
    for seed in range(20):
        chance = random.Random(100 + seed)
        outlines = pieces(chance, 6, 2)
        need = chance.uniform(50, 140)
        made = plan_bias(outlines, 1.5, need, SEAM, LEAST, False)
        sizes = [area(outline) for outline in outlines]
        sets = []
        for chosen in product((0, 1), repeat=len(outlines)):
            mine = tuple(strip for strip in made.strips if chosen[strip.scrap])
            if mine and joined(mine, cost).reaches >= need:
                sets.append(sum(size for size, in_it in zip(sizes, chosen, strict=True) if in_it))
        if sets:
            ours += sum(sizes[at] for at in {used.strip.scrap for used in made.joined.used})
            best += min(sets)
    print(f"cloth cut into for little waste, 20 cases of 8 pieces: ratio {ours / best:.3f}")
