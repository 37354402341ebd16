"""Cutting plans: how near the least that could do, and how soon.

Twenty-four jobs of 5 to 60 pieces from yardage, from fat quarters and from scraps.  Each against
the bound of its own proof, against a careful hand's shelves and against a general library's
guillotine cuts (of any number of stages, all pieces turned or none: where it needs less its
layout takes a ruler more stages); so many seconds a job (10).
"""

from __future__ import annotations

import random
import statistics
import sys
import time
from pathlib import Path

sys.path.insert(0, str(Path(__file__).resolve().parents[1]))

import rectpack
from tests.core.sheets.checking import careful_hand, faults

from tessil.core.numbers.exact import Fraction
from tessil.core.sheets.apart import plan_by_two
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


GUILLOTINES = (
    rectpack.GuillotineBssfSas,
    rectpack.GuillotineBlsfMaxas,
    rectpack.GuillotineBafLlas,
    rectpack.GuillotineBafMinas,
)


def by_library(job: CutJob) -> float:
    """The least length into which the library lays all pieces, of several ways it has."""
    (stock,) = job.stock
    wide, trim = int(stock.w * 8), float(stock.trim)
    sizes = [(int(p.w * 8), int(p.h * 8), p.turn) for p in job.pieces for _ in range(p.qty)]
    turned = all(turn for *_, turn in sizes)
    area = sum(w * h for w, h, _ in sizes)
    low, high = area // wide, sum(h for _, h, _ in sizes)
    while low < high:
        middle = (low + high) // 2
        if any(_all_in(sizes, wide, middle, algo, turned) for algo in GUILLOTINES):
            high = middle
        else:
            low = middle + 1
    return high / 8 + trim


def _all_in(
    sizes: list[tuple[int, int, bool]], wide: int, high: int, algo: object, turned: bool
) -> bool:
    """It turns all pieces or none."""
    packer = rectpack.newPacker(
        mode=rectpack.PackingMode.Offline,
        pack_algo=algo,
        sort_algo=rectpack.SORT_AREA,
        rotation=turned,
    )
    packer.add_bin(wide, high)
    for w, h, _ in sizes:
        packer.add_rect(w, h)
    packer.pack()
    return len(packer.rect_list()) == len(sizes)


def main() -> None:
    seconds = float(sys.argv[1]) if len(sys.argv) > 1 else 10.0
    ratios, hands, others = [], [], []
    for name, job in jobs():
        begun = time.monotonic()
        first = plan_cutting(job, 0.5)
        one = time.monotonic() - begun
        answer = plan_by_two(job, seconds - 0.5, 1)
        spent = time.monotonic() - begun - one
        wrong = faults(job, answer)
        over = float(answer.used) / max(float(answer.bound), 1e-9)
        out = sum(many for _, many in answer.left_out)
        hand = ""
        if answer.lengths:
            ratios.append(over)
            hands.append(float(answer.used) / float(careful_hand(job)))
            other = float(answer.used) / by_library(job)
            others.append(other)
            hand = f", {hands[-1]:.3f} of a careful hand's, {other:.3f} of the library's"
        print(
            f"{name}: {float(answer.used):g} ({over:.3f} of the bound{hand}), {out} left out, "
            f"{spent:.1f} s; first plan {float(first.used) / float(answer.used):.3f} of it "
            f"in {one:.2f} s{'; WRONG: ' + wrong[0] if wrong else ''}",
            flush=True,
        )
    print(f"yardage: mean {statistics.mean(ratios):.4f} of the bound, worst {max(ratios):.4f}; ")
    print(f"mean {statistics.mean(hands):.4f} of a careful hand's")
    print(f"mean {statistics.mean(others):.4f} of the library's, at most {max(others):.4f}")


if __name__ == "__main__":
    main()
