"""Steps of making as acts on the state of the work: what each needs to be so, what it makes so.

The state is a set of facts, small words such as ``sewn:seam.left`` or ``zip open``.  A gate is a
fact that must hold, or must not, before a step, since a bag is spoiled where it does not.
"""

from __future__ import annotations

from collections.abc import Iterable
from typing import Literal, get_args

from tessil.core.bag.steps import Value
from tessil.core.numbers.records import Record
from tessil.core.numbers.workings import Figure

Operation = Literal[
    "cut",
    "piece",
    "layer",
    "quilt",
    "trim",
    "mark",
    "prepare",
    "zipper",
    "assemble",
    "line",
    "turn",
    "finish",
]
OPERATIONS: tuple[Operation, ...] = get_args(Operation)
Tool = Literal["", "iron", "¼ in foot", "walking foot", "zipper foot", "hand needle", "ruler"]
SEWN = "sewn:"  # the fact that a seam is sewn, before its slug


class Gate(Record, frozen=True):
    """What must be so before a step, and what it costs where it is not; ``holds`` False where the
    fact must not be so."""

    id: str
    fact: str
    holds: bool = True


class Deed(Record, frozen=True):
    """One step: its kind (whose words stand in one table), what it is done to, what it needs, makes
    so and ends.

    ``panels`` are the ids of what lies under the hand, the uppermost first, ``edges`` the slugs of
    the edges along which is sewn, panel by panel; ``join`` the seam that it sews.  ``seam`` and
    ``length`` are its allowance and how long it is; ``minutes`` a first guess.
    """

    id: str
    what: str
    operation: Operation
    panels: tuple[str, ...] = ()
    edges: tuple[tuple[str, str], ...] = ()
    join: str = ""
    tool: Tool = ""
    needs: tuple[str, ...] = ()
    gates: tuple[Gate, ...] = ()
    gives: tuple[str, ...] = ()
    ends: tuple[str, ...] = ()
    values: tuple[tuple[str, Value], ...] = ()
    seam: Figure | None = None
    length: Figure | None = None
    gap: Figure | None = None
    check: bool = False
    minutes: Figure | None = None


def seams_in(facts: Iterable[str]) -> frozenset[str]:
    """The seams that facts tell to be sewn, by their slugs."""
    return frozenset(fact.removeprefix(SEWN) for fact in facts if fact.startswith(SEWN))


class Broken(Record, frozen=True):
    """A step whose turn has not come: a gate that does not hold, or a fact that is missing."""

    deed: str
    gate: str  # empty where it is no gate but a piece that is not made yet
    fact: str


class Making(Record, frozen=True):
    """All steps of a bag in the order in which they are made, with what is broken in that order."""

    deeds: tuple[Deed, ...]
    broken: tuple[Broken, ...] = ()

    def deed(self, id_: str) -> Deed | None:
        """The step of that id, if there is one."""
        return next((deed for deed in self.deeds if deed.id == id_), None)
