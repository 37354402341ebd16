"""Who is who in a bag: small frozen keys for edges and joins.

Nothing is looked up by its words; ``words.names`` tells these keys.  ``slug`` is how a key stands
in reports and in the keys of figures, and stays when words change.
"""

from __future__ import annotations

from typing import Literal

from msgspec.structs import replace

from tessil.core.numbers.records import Record
from tessil.core.numbers.sizes import Side

CutOut = Literal["", "corner", "top corner", "fold", "upper fold", "lower fold", "curve"]
Half = Literal["", "upper", "middle", "lower"]
Lies = Literal["", "level", "upright"]
LIES: tuple[Lies, Lies] = ("level", "upright")
ENDS: tuple[Side, Side] = ("left", "right")
_NOTCHES: dict[CutOut, str] = {
    "corner": "notch",
    "top corner": "top notch",
    "fold": "fold notch",
    "upper fold": "upper fold notch",
    "lower fold": "lower fold notch",
}


class EdgeKey(Record, frozen=True):
    """One edge of a panel: the side it belongs to, and which part of that side it is.

    ``cut`` is what was cut out of the side there: a notch at a corner or at a fold, or a curve;
    ``lies`` how an edge of a notch lies, ``half`` which half of a side that a fold parts, ``step``
    which of the short straight pieces of a curve (0 for all of it).
    """

    side: Side
    cut: CutOut = ""
    lies: Lies = ""
    half: Half = ""
    step: int = 0

    @property
    def notch(self) -> bool:
        """Whether it bounds a notch, and so is sewn into a box corner."""
        return self.cut in _NOTCHES

    @property
    def plain(self) -> bool:
        """Whether it is a side, or a half of one, and no notch or curve."""
        return not self.cut

    @property
    def run(self) -> EdgeKey:
        """The side or curve it is a piece of."""
        return replace(self, step=0) if self.step else self

    @property
    def slug(self) -> str:
        if self.cut == "curve":
            if self.step:
                return f"{self.side} top {self.step}"
            return f"rounded corner, {self.side}"
        if self.notch:
            half = f" {self.half}" if self.half else ""
            return f"{self.side} {_NOTCHES[self.cut]}, {self.lies}{half}"
        return f"{self.side}, {self.half}" if self.half else self.side


SeamPlace = Literal["seam", "edge", "end", "box corner", "zipper", "side seams", "band", "flap"]


class JoinKey(Record, frozen=True):
    """One seam of the bag: what it is, on which side, and where there are two of them."""

    what: SeamPlace
    side: Side | Literal[""] = ""
    at: Literal["", "fold", "upper fold", "lower fold", "behind"] = ""

    @property
    def slug(self) -> str:
        parts = (self.what, self.side, self.at)
        return ".".join(part.replace(" ", "-") for part in parts if part)


FigureId = Literal[
    "inside-width",
    "inside-height",
    "inside-depth",
    "inside-length",
    "finished-width",
    "finished-height",
    "opening-flat",
    "height-lying-flat",
    "finished-width-of-the-flap",
    "flap-comes-down-the-front",
    "depth-by-the-bottom-leg",
    "depth-by-the-fold-leg",
    "height-by-the-zipper-leg",
    "holds-filled-as-a-box",
    "ring-zipper-and-all",
    "volume-finished",
    "volume-with-the-zipper-on-the-other-side",
    "each-cord",
]

CutKind = Literal[
    "top",
    "lining",
    "one piece",
    "strip",
    "strip for a set",
    "border strip",
    "border, side",
    "border, level",
    "border strip, upright",
    "border strip, level",
    "square",
    "piece",
    "course piece",
    "short sashing",
    "long sashing",
    "binding strip",
    "strip to fold",
    "cloth to cut on the cross",
    "interfacing",
    "reinforcing patch",
    "end tab",
    "stiffener",
    "sleeve",
    "stabiliser",
    "foundation",
    "web",
    "batting",
    "backing",
    "firm",
    "slip",
    "divided",
    "window",
    "pocket lining",
]
CutFor = Literal[
    "panels",
    "hoop",
    "edge",
    "pocket",
    "bias",
    "pull",
    "inner seams",
    "part",
    "tab",
    "stiffener",
    "base strip",
    "snap",
    "zipper end",
    "button loop",
]


class CutOwner(Record, frozen=True):
    """What pieces are cut for: some panels, a part, a mark, or something at the edges."""

    kind: CutFor
    keys: tuple[str, ...] = ()


NoteKind = Literal[
    "scrap",
    "side by side",
    "inside",
    "short",
    "upright",
    "level",
    "set",
    "diagonal",
    "straight",
    "fold half",
    "cross",
    "folds",
    "single fold",
    "butted",
    "after quilting",
    "spare",
    "hoop",
    "outer strips",
    "turned",
    "leftover",
    "window",
]


class CutNote(Record, frozen=True):
    """Something to know of a piece before it is cut; ``number`` where it counts something."""

    kind: NoteKind
    number: int = 0


CutId = tuple[CutOwner, CutKind]  # pieces with one id are laid, bought and told together
