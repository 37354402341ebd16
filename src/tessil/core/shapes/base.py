"""What a bag shape is: the sizes it asks for, and how they become panels and back.

A shape module makes one ``Shape`` value; the registry beside it lists them.  Shapes know
the bag model and workings; they must not know piecing, quilting or cutting.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Literal

from msgspec import field
from msgspec.structs import replace

from tessil.core.bag.model import Bag
from tessil.core.brief.choice import CornerSchool, Lining, ZipSet
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import IN_PER, Inches, Units, round_near
from tessil.core.numbers.records import Record
from tessil.core.numbers.rulers import Rulers
from tessil.core.numbers.workings import Basis, Figure, given

Sizes = Mapping[str, Figure]
Way = Literal["finished", "panel", "always"]
Carried = Literal["strap", "handles", "wrist", "end", "tabs"]
CARRIED: tuple[Carried, ...] = ("strap", "handles", "wrist", "end")
ZIPPED: tuple[Carried, ...] = (*CARRIED, "tabs")  # where a zipper ends in the sides
Asks = Literal["size", "closes", "carried", "sewn"]  # the question of the brief it belongs to
NOTHING = given("nothing", 0, Basis.GEOMETRY)


class SizeField(Record, frozen=True):
    """One size the shape asks for, in one of its ways in or in all of them."""

    key: str
    label: str
    why: str
    start: Inches
    way: Way = "finished"
    said: str = ""  # how the finished bag is told by it: ``12 wide``
    leg: Literal["", "side", "other", "zip"] = ""  # of a boxed corner
    only: tuple[str, ...] | None = None  # asked for with one of these choices of an option
    from_cloth: bool = False  # found by the search for the largest bag
    asks: Asks = "size"

    def begins(self, units: Units) -> Inches:
        """Where it begins on the marks of a unit system: what is round in inches is not in
        centimetres, so the nearest ½ cm there, or 5 cm from half a metre on."""
        if units == "inch" or not self.start:
            return self.start
        mark = IN_PER["mm"] * (50 if self.start >= 50 * IN_PER["cm"] else 5)
        return max(round_near(self.start, mark), mark)


class Option(Record, frozen=True):
    """A choice the shape offers; the first choice is where it starts."""

    key: str
    label: str
    why: str
    choices: tuple[tuple[str, str], ...]
    only: tuple[str, ...] | None = None  # asked with one of these choices of another option
    asks: Asks = "size"

    @property
    def start(self) -> str:
        return self.choices[0][0]


class HeldFigures(Record, frozen=True):
    """What the bag holds, put together: outer width, height and thickness, and the ease."""

    width: Figure
    height: Figure
    thickness: Figure
    ease: Figure


class SeamFigures(Record, frozen=True):
    """The seam allowances as figures."""

    piecing: Figure
    side: Figure
    bottom: Figure
    top: Figure
    corner: Figure
    zip: Figure
    shown: Figure  # visible zipper between the two fabric edges
    binding: Figure


class Brief(Record, frozen=True):
    """Everything a shape may ask about when it computes."""

    held: HeldFigures
    seams: SeamFigures
    wall: Figure  # thickness of one wall of the bag, layers relaxed
    lining_shorter: Figure
    rulers: Rulers
    options: Mapping[str, str]
    lining: Lining
    corner: CornerSchool
    zip_set: ZipSet = "seam"
    zip_inside: tuple[Figure, Figure] | None = None  # the seams at its ends, left and right
    lining_apart: bool = False  # two halves of a lining are unlike
    base_thick: Figure | None = None  # of what lies on a base, inside

    @property
    def has_lining(self) -> bool:
        return self.lining == "drop-in"


class Shape(Record, frozen=True):
    """A bag shape as three functions and the fields it declares.

    ``for_object`` gives the finished sizes that hold the objects; ``to_panel`` the trimmed
    panel sizes for finished sizes; ``build`` the bag in pieces for trimmed panel sizes,
    with finished sizes computed back from them.  ``to_panel`` and ``build`` raise
    CannotPlan.  The keys of ``Sizes`` are the declared field keys.  ``leader`` is the panel
    that all others follow; ``cloths`` how many pieces of its size one bag takes.
    ``short`` is what a bag of it is called by its maker.
    ``proportions`` give sizes nobody has typed from the finished ones.  ``from_piece`` turns
    the largest piece of cloth a panel can be into the leader's size, where another panel is
    larger than the leader.  ``assembled`` gives the sizes of a front of several parts whose width
    and height, sewn together, were measured.
    """

    key: str
    name: str
    short: str
    sentence: str
    fields: tuple[SizeField, ...]
    options: tuple[Option, ...]
    for_object: Callable[[Brief], Sizes]
    to_panel: Callable[[Brief, Sizes], Sizes]
    build: Callable[[Brief, Sizes], Bag]
    leader: str
    cloths: int = 1
    proportions: Mapping[str, Callable[[Sizes], Figure]] = field(default_factory=dict)
    from_piece: Callable[[Brief, Sizes], Sizes] | None = None
    uses: frozenset[str] = frozenset()  # of: lining, corner, top, bottom, zip, binding
    side_seam: tuple[str, ...] | None = None  # options so called, and their choices that have one
    lining: Lining | None = None  # what it begins with, if it is not what it uses
    panel_width: str = "panel_width"
    panel_height: str = "panel_height"
    flat: Callable[[Brief], Sizes] | None = None  # sizes round an object without a base, if it may
    assembled: Callable[[Brief, Sizes, Sizes], Sizes] | None = None  # its front, as measured
    flat_sides: bool = False  # whether its sides may be bound outside instead of sewn
    bare: Callable[[Brief, Sizes], Bag] | None = None  # ``build`` without what it is carried by
    carries: tuple[Carried, ...] = CARRIED  # ways in which it may be carried
    begins: Mapping[str, str] = field(default_factory=dict)  # with these choices of carrying
    starts: Mapping[str, Inches] = field(default_factory=dict)  # and with these sizes of it

    def as_chosen(self, options: Mapping[str, str]) -> Shape:
        """The shape as these options leave it: without a base it has no depth and no corners."""
        if self.flat is None or options.get(BASE.key) != FLAT:
            return self
        fields = tuple(f for f in self.fields if f.key != DEPTH.key and not f.leg)
        uses = self.uses - {"corner"}
        return replace(self, fields=fields, uses=uses, for_object=self.flat, flat=None)

    def fields_for(self, way: str) -> tuple[SizeField, ...]:
        """The fields of the panel way, or of the finished way for everything else."""
        wanted = "panel" if way == "panel" else "finished"
        return tuple(f for f in self.fields if f.way in (wanted, "always"))

    def asked(self, field: SizeField | Option, options: Mapping[str, str]) -> bool:
        """Whether a size or another choice is asked for with these options."""
        if field.only is None:
            return True
        key, *choices = field.only
        if options.get(key) not in choices:
            return False
        return all(self.asked(one, options) for one in self.options if one.key == key)

    def body(self, brief: Brief, sizes: Sizes) -> Bag:
        """The bag without what it is carried by, which searches for a size need not hang on it."""
        return (self.bare or self.build)(brief, sizes)

    def place_of(self, row: SizeField | Option) -> int:
        """Where a choice is asked for, and all that hangs on it with it; other sizes come last."""
        for at, option in enumerate(self.options):
            if row is option or (row.only is not None and row.only[0] == option.key):
                return self.place_of(option) if row is not option and option.only else at
        return len(self.options)

    def has_side_seam(self, options: Mapping[str, str]) -> bool:
        """Whether its sides go into a seam."""
        if self.side_seam is None:
            return True
        key, *choices = self.side_seam
        return any(name.startswith(key) and made in choices for name, made in options.items())

    @property
    def begins_lining(self) -> Lining:
        """How it is lined to begin with."""
        return self.lining or ("drop-in" if "lining" in self.uses else "quilted-in")

    @property
    def legs(self) -> frozenset[str]:
        """Keys of the sizes that are legs of a boxed corner."""
        return frozenset(field.key for field in self.fields if field.leg)

    @property
    def finished_words(self) -> tuple[str, ...]:
        """How each of the finished sizes is told: wide, high, deep, or as the shape has it."""
        finished = (field for field in self.fields if field.way == "finished")
        return tuple(field.said or field.label.lower() for field in finished)

    @property
    def finished_keys(self) -> tuple[str, ...]:
        """Keys of the finished sizes, in the order of ``Bag.finished``."""
        return tuple(f.key for f in self.fields if f.way == "finished")


WIDTH = SizeField(
    "width", "Width", "As the bag stands or lies", Fraction(11), said="wide", from_cloth=True
)
HEIGHT = SizeField(
    "height",
    "Height",
    "From the bottom to the top edge",
    Fraction(12),
    said="high",
    from_cloth=True,
)
DEPTH = SizeField(
    "depth", "Depth", "From the front to the back of the base", Fraction(3), said="deep"
)
PANEL_WIDTH = SizeField("panel_width", "Panel width", "Cut edge to cut edge", Fraction(15), "panel")
PANEL_HEIGHT = SizeField(
    "panel_height", "Panel height", "Cut edge to cut edge", Fraction(14), "panel"
)


FLAT = "none"
BASE = Option(
    "base",
    "Base",
    "Boxed corners make a base; without one front and back meet at the bottom",
    (("boxed", "boxed"), (FLAT, "none, it is flat")),
)


SIDES_BOUND = "bound"
SIDES = Option(
    "sides",
    "Sides",
    "Sewn and turned, or laid wrong sides together and bound outside, a bottom seam with them",
    (("seam", "sewn and turned"), (SIDES_BOUND, "bound outside")),
    asks="sewn",
)


def starting(field: SizeField, inches: Inches) -> SizeField:
    """A shared field with a start of its own."""
    return replace(field, start=inches)
