"""Linear programs and programs over whole numbers (HiGHS), as layouts ask for them.

Loaded when a search first chooses: a first layout needs none of it.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from typing import TYPE_CHECKING

import numpy as np
from scipy.optimize import Bounds, LinearConstraint, linprog, milp
from scipy.sparse import csr_array, vstack

from tessil.core.numbers.records import Record

if TYPE_CHECKING:
    Limits = tuple[csr_array, Sequence[int]]


def sparse(entries: Iterable[tuple[int, int, int]], shape: tuple[int, int]) -> csr_array:
    """A matrix of row, column and number."""
    rows, columns, values = (list(part) for part in zip(*entries, strict=True))
    return csr_array((values, (rows, columns)), shape=shape, dtype=float)


class Program(Record, frozen=True):
    """What each column costs; what is wanted of it at least, and what it may take at most."""

    cost: Sequence[int]
    wanted: Limits
    there: Limits | None = None

    def chosen(
        self, seconds: float, gap: float, most: float = np.inf
    ) -> tuple[list[int] | None, bool]:
        """How often each column is taken for the least cost, and whether that is proved."""
        limits = [LinearConstraint(self.wanted[0], lb=np.array(self.wanted[1], float))]
        if self.there is not None:
            limits.append(LinearConstraint(self.there[0], ub=np.array(self.there[1], float)))
        solved = milp(
            np.array(self.cost, float),
            constraints=limits,
            integrality=np.ones(len(self.cost)),
            bounds=Bounds(0, most),
            options={"time_limit": seconds, "mip_rel_gap": gap},
        )
        if solved.x is None:
            return None, False
        return [round(float(x)) for x in solved.x], solved.status == 0

    def prices(self) -> list[float]:
        """What each row that is wanted is worth, by what the columns cost; nothing if that cannot
        be told."""
        matrix, limits = -self.wanted[0], [-many for many in self.wanted[1]]
        if self.there is not None:
            matrix, limits = vstack([matrix, self.there[0]]), [*limits, *self.there[1]]
        cost = np.array(self.cost, float)
        solved = linprog(cost, A_ub=matrix, b_ub=np.array(limits, float), method="highs")
        if solved.status:
            return []
        return [-float(one) for one in solved.ineqlin.marginals[: len(self.wanted[1])]]
