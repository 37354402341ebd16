"""What a bag shape is: the sizes it asks for, and how they become panels and back.

A shape module makes one ``Shape`` value; the registry beside it lists them.  Shapes know
the bag model and workings; they must not know piecing, quilting or cutting.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from fractions import Fraction
from typing import Literal

from tessil.core.bag import Bag
from tessil.core.lengths import Inches
from tessil.core.project import Project
from tessil.core.rulers import Rulers
from tessil.core.workings import Figure

Sizes = Mapping[str, Figure]


@dataclass(frozen=True, slots=True)
class SizeField:
    """One size the shape asks for, in one of its ways in."""

    key: str
    label: str
    why: str
    start: Inches
    way: Literal["finished", "panel"] = "finished"


@dataclass(frozen=True, slots=True)
class Option:
    """A choice the shape offers; the first choice is where it starts."""

    key: str
    label: str
    why: str
    choices: tuple[tuple[str, str], ...]

    @property
    def start(self) -> str:
        return self.choices[0][0]


@dataclass(frozen=True, slots=True)
class HeldFigures:
    """The object to hold as figures: one object, how many, and the ease each side."""

    width: Figure
    height: Figure
    thickness: Figure
    count: Figure
    ease: Figure


@dataclass(frozen=True, slots=True)
class SeamFigures:
    """The seam allowances as figures."""

    piecing: Figure
    side: Figure
    bottom: Figure
    top: Figure
    corner: Figure


@dataclass(frozen=True, slots=True)
class Brief:
    """Everything a shape may ask about when it computes."""

    project: Project
    held: HeldFigures
    seams: SeamFigures
    wall: Figure  # thickness of one wall of the bag, layers relaxed
    lining_shorter: Figure
    rulers: Rulers
    options: Mapping[str, str]

    @property
    def inside_measure(self) -> Fraction:
        return 2 * self.wall.value


@dataclass(frozen=True, slots=True)
class Shape:
    """A bag shape as four functions and the fields it declares.

    ``for_object`` gives the finished sizes that hold the object; ``to_panel`` the trimmed
    panel sizes for finished sizes; ``build`` the bag in pieces for trimmed panel sizes,
    with finished sizes computed back from them.  ``to_panel`` and ``build`` raise
    CannotPlan.  The keys of ``Sizes`` are the declared field keys of that way.
    """

    key: str
    name: str
    sentence: str
    fields: tuple[SizeField, ...]
    options: tuple[Option, ...]
    for_object: Callable[[Brief], Sizes]
    to_panel: Callable[[Brief, Sizes], Sizes]
    build: Callable[[Brief, Sizes], Bag]
    leader: str
    panel_width: str = "panel_width"
    panel_height: str = "panel_height"

    def fields_for(self, way: str) -> tuple[SizeField, ...]:
        """The fields of the panel way, or of the finished way for everything else."""
        wanted = "panel" if way == "panel" else "finished"
        return tuple(field for field in self.fields if field.way == wanted)
