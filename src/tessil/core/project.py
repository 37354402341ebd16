"""The document: everything a maker decided and measured, and nothing that follows from it.

Frozen pydantic models.  Lengths are exact inches; a file keeps them as short exact text.
Field checks here are those a field can know alone; what depends on other fields is the
plan's to say.
"""

from __future__ import annotations

from fractions import Fraction
from typing import Annotated, Any, Literal

from pydantic import (
    AfterValidator,
    BaseModel,
    BeforeValidator,
    ConfigDict,
    Field,
    PlainSerializer,
    WithJsonSchema,
    field_validator,
)

from tessil.core.lengths import LONGEST, Inches, LengthError, Units, read_length, write_exact

FORMAT = 1
MOST_BAGS = 999
MOST_STRIPS = 200


def _length(value: Any) -> Inches:
    if isinstance(value, Fraction):
        return value
    if isinstance(value, str):
        try:
            return read_length(value)
        except LengthError as error:
            raise ValueError(str(error)) from None
    if isinstance(value, int) and not isinstance(value, bool):
        return Fraction(value)
    raise ValueError("A length is written as text, such as 12 1/2 in.")


def _bounded(low: Inches, high: Inches, strict: bool, sentence: str) -> AfterValidator:
    def check(value: Inches) -> Inches:
        if value > high:
            raise ValueError(f"At most {write_exact(high)} goes here.")
        if value < low or (strict and value == low):
            raise ValueError(sentence)
        return value

    return AfterValidator(check)


_AS_TEXT = (
    BeforeValidator(_length),
    PlainSerializer(write_exact, return_type=str),
    WithJsonSchema({"type": "string", "pattern": r"^-?[0-9 ./]+ (in|mm)$", "maxLength": 80}),
)
_MORE = "This must be more than zero."
_NOT_LESS = "This cannot be less than zero."
Size = Annotated[Fraction, *_AS_TEXT, _bounded(Fraction(0), LONGEST, True, _MORE)]
Room = Annotated[Fraction, *_AS_TEXT, _bounded(Fraction(0), Fraction(12), False, _NOT_LESS)]
Room60 = Annotated[Fraction, *_AS_TEXT, _bounded(Fraction(0), LONGEST, False, _NOT_LESS)]
Seam = Annotated[
    Fraction,
    *_AS_TEXT,
    _bounded(Fraction(1, 16), Fraction(2), False, "A seam needs at least 1/16 in (1.6 mm)."),
]
Name = Annotated[str, Field(min_length=1, max_length=80)]
Key = Annotated[str, Field(pattern=r"^[a-z0-9][a-z0-9-]{0,39}$")]
Colour = Annotated[str, Field(pattern=r"^#[0-9a-f]{6}$")]


class Decided(BaseModel):
    """Base of all parts of the document: frozen, and strict about unknown fields."""

    model_config = ConfigDict(frozen=True, extra="forbid", defer_build=True)


Motif = Literal[
    "plain", "dots", "checks", "sprigs", "ticking", "waves", "plaid", "notes", "stars", "leaves"
]


class Print(Decided):
    """One cloth in the bag's print basket, drawn by the program at true scale."""

    key: Key
    name: Name
    motif: Motif = "plain"
    ground: Colour = "#d8c8a8"
    ink: Colour = "#5a4a3a"
    repeat: Size = Fraction(1)
    directional: bool = False


class Cloth(Decided):
    """Pieces of cloth to make the largest bag from, quilted already or not yet."""

    width: Size = Fraction(18)
    height: Size = Fraction(21)
    pieces: Annotated[int, Field(ge=1, le=50)] = 1
    quilted: bool = False


class ShapeChoice(Decided):
    """Which shape, which way in, and the sizes and options that the shape declares."""

    kind: Key = "tote"
    way: Literal["finished", "object", "panel", "cloth"] = "finished"
    sizes: dict[str, Size] = Field(default_factory=dict, max_length=40)
    options: dict[str, str] = Field(default_factory=dict, max_length=40)
    cloth: Cloth = Field(default_factory=Cloth)


class Thing(Decided):
    """Something the bag must hold, and how many of it, one behind the other."""

    name: Name = "folder"
    width: Size = Fraction(9)
    height: Size = Fraction(12)
    thickness: Size = Fraction(1)
    count: Annotated[int, Field(ge=1, le=500)] = 1


class Held(Decided):
    """All that the bag must hold, how it lies together, and the ease round it."""

    things: Annotated[tuple[Thing, ...], Field(min_length=1, max_length=12)] = (Thing(),)
    packed: Literal["stacked", "beside"] = "stacked"
    ease: Room = Fraction(1, 2)
    minded: bool = False


class Zipper(Decided):
    """The zipper: its seam, how much of it shows, and what is in hand."""

    seam: Seam = Fraction(1, 4)
    shown: Room = Fraction(3, 4)
    length: Size | None = None
    teeth: Literal["nylon", "metal"] = "nylon"


class Seams(Decided):
    """Seam allowances: piecing and assembly apart."""

    piecing: Seam = Fraction(1, 4)
    side: Seam = Fraction(3, 8)
    bottom: Seam = Fraction(3, 8)
    top: Seam = Fraction(3, 8)
    corner: Seam = Fraction(3, 8)


class Oversize(Decided):
    """How much larger a panel is pieced than it is trimmed."""

    way: Literal["model", "fixed", "none"] = "model"
    fixed: Room = Fraction(3, 4)
    squaring: Room = Fraction(1, 4)


class Piecing(Decided):
    """How a panel's top is made: one cloth, or strips lying level or standing upright."""

    way: Literal["whole", "strips"] = "strips"
    run: Literal["level", "upright"] = "level"
    fixed: Literal["width", "count"] = "width"
    strip_cut: Size = Fraction(5, 2)
    count: int = 6
    surplus: Literal["both", "one", "recut"] = "both"
    strip_sets: bool = False
    turned: Annotated[tuple[int, ...], Field(max_length=MOST_STRIPS)] = ()
    prints: Annotated[tuple[str, ...], Field(max_length=MOST_STRIPS)] = ()

    @field_validator("count")
    @classmethod
    def _few_enough(cls, value: int) -> int:
        if not 1 <= value <= MOST_STRIPS:
            raise ValueError(f"Give a number of strips from 1 to {MOST_STRIPS}.")
        return value


class Layers(Decided):
    """What lies under the top, by catalogue key; ``none`` for nothing."""

    batting: str = "cotton-batting"
    backing: str = "none"
    margin: Room = Fraction(1, 2)


class Quilting(Decided):
    """Lines of quilting: one set of channels, or none."""

    pattern: Literal["channels", "none"] = "channels"
    run: Literal["upright", "level"] = "upright"
    gap: Size = Fraction(5, 4)
    centre: Literal["line", "gap"] = "line"
    spacing: Literal["divide", "keep"] = "divide"
    stitch_mm: Annotated[Fraction, Field(gt=0, le=8), PlainSerializer(float)] = Fraction(3)


class Got(Decided):
    """A size as it really came out; either way may be left unmeasured."""

    width: Size | None = None
    height: Size | None = None


class Measured(Decided):
    """What the maker measured at each rung of one panel."""

    pieced: Got = Field(default_factory=Got)
    quilted: Got = Field(default_factory=Got)
    trimmed: Got = Field(default_factory=Got)
    notch: Got = Field(default_factory=Got)  # as cut: from the side, and from the other edge


class PanelChoices(Decided):
    """All that is decided and measured for one panel."""

    piecing: Piecing = Field(default_factory=Piecing)
    layers: Layers = Field(default_factory=Layers)
    quilting: Quilting = Field(default_factory=Quilting)


class Binding(Decided):
    """A bound edge: its cloth, grain, fold and, if not computed, its cut width."""

    print: str = ""
    grain: Literal["straight", "bias"] = "straight"
    fold: Literal["double", "single"] = "double"
    seam: Seam = Fraction(1, 4)
    cover: Room = Fraction(1, 8)
    cut: Seam | Size | None = None
    overlap: Room = Fraction(5, 2)
    strips_on_hand: Annotated[int, Field(ge=0, le=999)] | None = None


class Mark(Decided):
    """Something marked on a trimmed panel, from its raw left and top edges.

    ``x`` and ``y`` are the top left corner of an area, the middle of a point; ``x2`` is the
    other end of a pair of handle ends.
    """

    kind: Literal["slip", "divided", "window", "d-ring", "handle", "stiffener", "motif"]
    panel: Key
    x: Room60
    y: Room60
    width: Size = Fraction(6)
    height: Size = Fraction(5)
    x2: Room60 | None = None
    divisions: Annotated[int, Field(ge=2, le=12)] = 2


class Snap(Decided):
    """A magnetic snap: its male half on the flap, its female half where the flap lands."""

    used: bool = False
    offset: Size = Fraction(7, 4)
    female: Size | None = None


class Stock(Decided):
    """What the cloth on the table is like."""

    usable_width: Size = Fraction(40)
    straightening: Room = Fraction(1, 2)


class Project(Decided):
    """One job: a bag, how many of it, and everything chosen and measured for it."""

    format: Literal[1] = 1
    name: Name = "New bag"
    units: Units = "inch"
    bags: int = 1
    shape: ShapeChoice = Field(default_factory=ShapeChoice)
    hold: Held = Field(default_factory=Held)
    seams: Seams = Field(default_factory=Seams)
    corner: Literal["cut", "line", "pinch"] = "cut"
    zipper: Zipper = Field(default_factory=Zipper)
    oversize: Oversize = Field(default_factory=Oversize)
    lining: Literal["drop-in", "quilted-in", "none"] = "drop-in"
    turning_gap: Size | None = None
    lining_shorter: Room = Fraction(0)
    panels: dict[str, PanelChoices] = Field(default_factory=dict, max_length=60)
    measured: dict[str, Measured] = Field(default_factory=dict, max_length=60)
    binding: Binding = Field(default_factory=Binding)
    prints: Annotated[tuple[Print, ...], Field(max_length=60)] = ()
    marks: Annotated[tuple[Mark, ...], Field(max_length=40)] = ()
    snap: Snap = Field(default_factory=Snap)
    stock: Stock = Field(default_factory=Stock)
    settled: Annotated[tuple[str, ...], Field(max_length=8)] = ()

    @field_validator("bags")
    @classmethod
    def _some_bags(cls, value: int) -> int:
        if not 1 <= value <= MOST_BAGS:
            raise ValueError(f"Give a number of bags from 1 to {MOST_BAGS}.")
        return value

    def print_of(self, key: str) -> Print:
        """The print of that key, or a plain cloth if the basket has none such."""
        for cloth in self.prints:
            if cloth.key == key:
                return cloth
        return Print(key=key or "cloth", name=key or "cloth")
