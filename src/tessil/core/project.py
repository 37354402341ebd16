"""The document: everything a maker decided and measured, and nothing that follows from it.

Frozen pydantic models.  Lengths are exact inches; a file keeps them as short exact text.
Field checks here are those a field can know alone; what depends on other fields is the
plan's to say.
"""

from __future__ import annotations

from fractions import Fraction
from typing import Annotated, Literal

from pydantic import Field, PlainSerializer, field_validator

from tessil.core.edges.choice import Bias, Binding, Button, Cord, Piping, Strap
from tessil.core.fields import (
    Colour,
    Decided,
    Degrees,
    Key,
    Name,
    Part,
    Room,
    Room60,
    Seam,
    Share,
    Size,
)
from tessil.core.lengths import Units
from tessil.core.quilting.choice import Quilting, QuiltZone
from tessil.core.refusals import printable
from tessil.core.sandwich.choice import Layers, Offcut, OwnMaterial

FORMAT = 4
MOST_BAGS = 999
MOST_STRIPS = 200
MOST_PIECES = 5000
MOST_SCRAPS = 300


Motif = Literal[
    "plain",
    "dots",
    "checks",
    "sprigs",
    "ticking",
    "waves",
    "plaid",
    "notes",
    "stars",
    "leaves",
    "birds",
    "rings",
]
MOST_PHOTO = 700_000  # letters of base64: about half a megabyte


class Photo(Decided):
    """The maker's own picture of a cloth: the part to use, and its scale.

    ``data`` is a PNG or JPEG in base64.  ``crop`` is left, top, width and height and the two
    points are across and down, all as shares of the picture; the points lie ``apart`` on the
    cloth.  ``mean`` is the average colour of the part in use.
    """

    data: Annotated[str, Field(min_length=8, max_length=MOST_PHOTO, pattern=r"^[A-Za-z0-9+/=]+$")]
    wide: Annotated[int, Field(ge=1, le=2048)]
    high: Annotated[int, Field(ge=1, le=2048)]
    crop: tuple[Share, Share, Share, Share] = (0.0, 0.0, 1.0, 1.0)
    one: tuple[Share, Share] = (0.0, 0.5)
    other: tuple[Share, Share] = (1.0, 0.5)
    apart: Size = Fraction(4)
    mean: Colour = "#808080"


class Print(Decided):
    """One cloth in the bag's print basket: drawn by the program at true scale, or a photo.

    ``amount`` is how many pieces of it are in hand; None where it is cut as needed.
    """

    key: Key
    name: Name
    motif: Motif = "plain"
    ground: Colour = "#d8c8a8"
    ink: Colour = "#5a4a3a"
    repeat: Size = Fraction(1)
    directional: bool = False
    favourite: bool = False
    amount: Annotated[int, Field(ge=0, le=MOST_PIECES)] | None = None
    photo: Photo | None = None


class Scrap(Decided):
    """So many scraps of one size and print; the print stands upright along the height."""

    width: Size
    height: Size
    number: Annotated[int, Field(ge=1, le=200)] = 1
    print: str = ""


class Cloth(Decided):
    """Pieces of cloth to make the largest bag from, quilted already or not yet."""

    width: Size = Fraction(18)
    height: Size = Fraction(21)
    pieces: Annotated[int, Field(ge=1, le=50)] = 1
    quilted: bool = False
    lining: bool = True  # whether a dropped-in lining comes out of it too


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
    sliders: Literal["one", "two"] = "one"
    ends: Literal["stops", "tabs"] = "stops"
    pull: bool = False


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


Way = Literal["whole", "strips", "squares", "web", "flip", "courses", "crumbs"]
Surplus = Literal["both", "one", "other", "recut", "border"]
Places = Annotated[tuple[int, ...], Field(max_length=MOST_PIECES)]


class Filled(Decided):
    """One scrap laid in a course: which of the list, and whether it lies on its side."""

    scrap: Annotated[int, Field(ge=0, lt=MOST_SCRAPS)]
    turned: bool = False


class Piecing(Decided):
    """How a top is made, and which print each piece is.

    ``prints`` is in the order of the pieces, row by row; ``laid`` is how many stood in a row
    when they were laid.  ``surplus`` is for what lies one below another, ``surplus_across`` for
    columns.  ``filled`` is which scraps go in which course, once that is decided.
    """

    way: Way = "strips"
    run: Literal["level", "upright", "diagonal"] = "level"
    angle: Degrees = Fraction(45)
    fixed: Literal["width", "count", "mixed"] = "width"
    strip_cut: Size = Fraction(5, 2)
    widths: Annotated[tuple[Size, ...], Field(min_length=1, max_length=24)] = (
        Fraction(5, 2),
        Fraction(3, 2),
    )
    count: int = 6
    square: Size = Fraction(5, 2)
    surplus: Surplus = "both"
    surplus_across: Surplus = "both"
    strip_sets: bool = False
    foundation: Literal["foundation", "batting"] = "batting"
    overhang: Room = Fraction(3, 4)
    heights: Annotated[tuple[Size, ...], Field(min_length=1, max_length=24)] = (Fraction(5, 2),)
    filled: Annotated[tuple[tuple[Filled, ...], ...], Field(max_length=60)] = ()
    allowance: Annotated[Fraction, Field(ge=0, le=1), PlainSerializer(float)] = Fraction(1, 8)
    sashing: Room = Fraction(0)
    border: Room = Fraction(0)
    border_print: str = ""
    press: Literal["open", "side"] = "open"
    turned: Places = ()
    locked: Places = ()
    prints: Annotated[tuple[str, ...], Field(max_length=MOST_PIECES)] = ()
    laid: Annotated[int, Field(ge=0, le=MOST_PIECES)] = 0

    @field_validator("count")
    @classmethod
    def _few_enough(cls, value: int) -> int:
        if not 1 <= value <= MOST_STRIPS:
            raise ValueError(f"Give a number of strips from 1 to {MOST_STRIPS}.")
        return value


class Zone(Decided):
    """A part of a panel pieced for itself, from so far below its trimmed top edge downwards."""

    starts: Size
    piecing: Piecing = Field(default_factory=Piecing)


class Got(Decided):
    """A size as it really came out; either way may be left unmeasured."""

    width: Size | None = None
    height: Size | None = None


class Measured(Decided):
    """What the maker measured at each rung of one panel; ``added`` is a border sewn on after
    quilting, so much wider and higher in all."""

    pieced: Got = Field(default_factory=Got)
    quilted: Got = Field(default_factory=Got)
    added: Got = Field(default_factory=Got)
    trimmed: Got = Field(default_factory=Got)
    notch: Got = Field(default_factory=Got)  # as cut: from the side, and from the other edge


class PanelChoices(Decided):
    """All that is decided and measured for one panel."""

    piecing: Piecing = Field(default_factory=Piecing)
    zones: Annotated[tuple[Zone, ...], Field(max_length=5)] = ()  # below the first part
    layers: Layers = Field(default_factory=Layers)
    quilting: Quilting = Field(default_factory=Quilting)
    quilt_zones: Annotated[tuple[QuiltZone, ...], Field(max_length=5)] = ()  # below the first


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


class SeamTest(Decided):
    """Strips sewn to learn one's own seam: how many, how wide cut, and what they measured."""

    strips: Annotated[int, Field(ge=2, le=40)] = 4
    cut: Size = Fraction(5, 2)
    measured: Size


class Pack(Decided):
    """Squares or strips bought as a pack."""

    pieces: Annotated[int, Field(ge=1, le=999)] = 42


class Rules(Decided):
    """What the arranging of prints must mind, and the number that makes it repeatable."""

    sides: bool = True
    corners: bool = True
    joins: bool = True
    amounts: bool = True
    upright: bool = True
    order: Literal["free", "spread", "graded", "striped"] = "free"
    graded: Literal["down", "up", "right", "left"] = "down"
    favourites: str = ""  # panel:zone on which they shall lie
    seed: Annotated[int, Field(ge=0, le=999_999)] = 1


class Wash(Decided):
    """Whether sizes are asked for after the first wash, and what that takes."""

    used: bool = False
    share: Annotated[Part, Field(ge=0, le=Fraction(1, 5))] = Fraction(3, 100)


class Machine(Decided):
    """The sewing machine: its needle, the room under its lifted foot, its bobbin's thread."""

    needle: Literal[70, 80, 90, 100, 110] | None = None
    lift_mm: Annotated[float, Field(gt=0, le=20, allow_inf_nan=False)] = 6
    bobbin_m: Annotated[float, Field(gt=0, le=300, allow_inf_nan=False)] = 30


class LeftShape(Decided):
    """What was decided and measured for another shape before this one was looked at."""

    shape: ShapeChoice
    panels: dict[str, PanelChoices] = Field(default_factory=dict, max_length=60)
    measured: dict[str, Measured] = Field(default_factory=dict, max_length=60)
    lining: Literal["drop-in", "quilted-in", "none"] = "drop-in"


class Project(Decided):
    """One job: a bag, how many of it, and everything chosen and measured for it."""

    format: Literal[4] = 4
    id: Annotated[str, Field(max_length=40)] = ""  # under which its panels stand in the logbook
    name: Name = "New bag"
    units: Units = "inch"
    rounding: Units | None = None  # marks that sizes keep, if not those that are read
    bags: int = 1
    shape: ShapeChoice = Field(default_factory=ShapeChoice)
    hold: Held = Field(default_factory=Held)
    seams: Seams = Field(default_factory=Seams)
    corner: Literal["cut", "line", "pinch"] = "cut"
    press_seams: Literal["open", "side"] = "open"  # of the bag itself
    zipper: Zipper = Field(default_factory=Zipper)
    oversize: Oversize = Field(default_factory=Oversize)
    lining: Literal["drop-in", "quilted-in", "none"] = "drop-in"
    turning_gap: Size | None = None
    lining_shorter: Room = Fraction(0)
    panels: dict[str, PanelChoices] = Field(default_factory=dict, max_length=60)
    measured: dict[str, Measured] = Field(default_factory=dict, max_length=60)
    binding: Binding = Field(default_factory=Binding)
    bias: Bias = Field(default_factory=Bias)
    piping: Piping = Field(default_factory=Piping)
    strap: Strap = Field(default_factory=Strap)
    cord: Cord = Field(default_factory=Cord)
    button: Button = Field(default_factory=Button)
    prints: Annotated[tuple[Print, ...], Field(max_length=60)] = ()
    scraps: Annotated[tuple[Scrap, ...], Field(max_length=MOST_SCRAPS)] = ()
    seam_test: SeamTest | None = None
    pack: Pack | None = None
    rules: Rules = Field(default_factory=Rules)
    marks: Annotated[tuple[Mark, ...], Field(max_length=40)] = ()
    snap: Snap = Field(default_factory=Snap)
    stock: Stock = Field(default_factory=Stock)
    materials: Annotated[tuple[OwnMaterial, ...], Field(max_length=60)] = ()
    offcuts: Annotated[tuple[Offcut, ...], Field(max_length=60)] = ()
    machine: Machine = Field(default_factory=Machine)
    wash: Wash = Field(default_factory=Wash)
    settled: Annotated[tuple[str, ...], Field(max_length=8)] = ()
    left: dict[str, LeftShape] = Field(default_factory=dict, max_length=20)  # by kind

    @field_validator("bags")
    @classmethod
    def _some_bags(cls, value: int) -> int:
        if not 1 <= value <= MOST_BAGS:
            raise ValueError(f"Give a number of bags from 1 to {MOST_BAGS}.")
        return value

    @property
    def log_name(self) -> str:
        """The name under which its measured panels stand in the logbook."""
        return self.id or self.name[:40]

    def print_of(self, key: str) -> Print:
        """The print of that key, or a plain cloth if the basket has none such."""
        for cloth in self.prints:
            if cloth.key == key:
                return cloth
        # A file may name anything here, also what could not be the key of a print.
        name = printable(key)[:80] or "cloth"
        return Print.model_construct(key=key or "cloth", name=name)
