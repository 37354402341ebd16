"""Cutting plans: how near the least that could do, and how soon.

Twenty-four jobs of 5 to 60 pieces from yardage, from fat quarters and from scraps.  Each against
the bound of its own proof and against a careful hand's shelves; so many seconds a job (10).
"""

from __future__ import annotations

import random
import statistics
import sys
import time
from pathlib import Path

sys.path.insert(0, str(Path(__file__).resolve().parents[1]))

from tests.core.sheets.checking import careful_hand, faults

from tessil.core.numbers.exact import Fraction
from tessil.core.sheets.job import CutJob, Piece, Stock
from tessil.core.sheets.plan import plan_cutting


def pieces_of(dice: random.Random, number: int) -> tuple[Piece, ...]:
    """So many pieces of a bag's sizes: strips, panels, pockets, tabs."""
    found: list[Piece] = []
    left = number
    while left:
        many = min(dice.choice((1, 1, 2, 2, 4, 6, 8)), left)
        wide, high = (Fraction(dice.randint(16, 8 * dice.choice((5, 9, 15))), 8) for _ in range(2))
        name = f"p{len(found)}"
        found.append(Piece(name, name, wide, high, many, "oat", dice.random() < 0.7))
        left -= many
    return tuple(found)


def jobs() -> list[tuple[str, CutJob]]:
    """Twelve of yardage, six of fat quarters, six of scraps."""
    dice, made = random.Random(20261127), []
    for number in (5, 8, 10, 12, 15, 20, 25, 30, 40, 45, 50, 60):
        stock = (Stock("y", "yardage", "oat", Fraction(40), None, Fraction(1, 2), Fraction(9, 2)),)
        made.append((f"yardage, {number} pieces", CutJob("in", stock, pieces_of(dice, number))))
    for kind, sizes in (
        ("fat quarters", [(21, 18)] * 12),
        ("scraps", [(dice.randint(6, 18), dice.randint(6, 18)) for _ in range(25)]),
    ):
        for number in (5, 10, 15, 20, 30, 40):
            cloths = tuple(
                Stock(f"c{at}", "scrap", "oat", Fraction(w), Fraction(h))
                for at, (w, h) in enumerate(sizes)
            )
            made.append((f"{kind}, {number} pieces", CutJob("in", cloths, pieces_of(dice, number))))
    return made


def main() -> None:
    seconds = float(sys.argv[1]) if len(sys.argv) > 1 else 10.0
    ratios, hands = [], []
    for name, job in jobs():
        begun = time.monotonic()
        first = plan_cutting(job, 0.5)
        one = time.monotonic() - begun
        answer = plan_cutting(job, seconds)
        spent = time.monotonic() - begun - one
        wrong = faults(job, answer)
        over = float(answer.used) / max(float(answer.bound), 1e-9)
        out = sum(many for _, many in answer.left_out)
        hand = ""
        if answer.lengths:
            ratios.append(over)
            hands.append(float(answer.used) / float(careful_hand(job)))
            hand = f", {hands[-1]:.3f} of a careful hand's"
        print(
            f"{name}: {float(answer.used):g} ({over:.3f} of the bound{hand}), {out} left out, "
            f"{spent:.1f} s; first plan {float(first.used) / float(answer.used):.3f} of it "
            f"in {one:.2f} s{'; WRONG: ' + wrong[0] if wrong else ''}",
            flush=True,
        )
    print(f"yardage: mean {statistics.mean(ratios):.4f} of the bound, worst {max(ratios):.4f}; ")
    print(f"mean {statistics.mean(hands):.4f} of a careful hand's")


if __name__ == "__main__":
    main()
