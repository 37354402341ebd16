"""Boxed corners in three schools: cut first, sewn on a drawn line, pinched.

Let the stitch lines of a corner be ``x0`` from the raw side edge and ``y0`` from a raw edge,
a fold, or a zipper's raw edge.  A base is ``D = 2(x0 − a)`` deep, and ``2(y0 − a')`` by its
other leg, where a and a' are what the seam, the fold (nothing) or the zipper takes there.  The
schools only differ in what is marked: a notch cut b inside those lines, a square drawn on
them, or a distance ``d = D/2`` from the corner point where the stitch lines meet.  Geometry.
"""

from __future__ import annotations

from typing import Literal

from tessil.core.bag.ids import FigureId
from tessil.core.bag.model import BagFigure, Notch
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Inches
from tessil.core.numbers.records import Record
from tessil.core.numbers.workings import Basis, Figure, given, up_to
from tessil.core.shapes.base import NOTHING, Brief
from tessil.core.shapes.outlines import Cut
from tessil.core.trouble import CannotPlan

Meets = Literal["seam", "fold", "zip"]
TRIMMED = given("trimmed outside the seam", Fraction(1, 4), Basis.PRACTICE)
_WHAT = {"cut": "notch", "line": "drawn square", "pinch": "pinched"}
_FROM = {"seam": "from the bottom", "fold": "from the fold", "zip": "from the zipper edge"}


class Corner(Record, frozen=True):
    """One kind of corner of a panel: what is marked, and where it is stitched."""

    side_leg: Figure
    other_leg: Figure
    in_side: Figure  # x0
    in_other: Figure  # y0
    side_takes: Figure
    other_takes: Figure
    meets: Meets
    school: str

    def told(self, of: FigureId, label: str) -> BagFigure:
        """The depth by the other leg, as the bag tells it."""
        return BagFigure(of, self.depth_by_other.called(label))

    @property
    def none(self) -> bool:
        """Whether there is no base at all: front and back meet where the bag ends."""
        return self.school == "none"

    @property
    def cut(self) -> Cut | None:
        """What is cut out of the outline, if it is cut before sewing."""
        if self.school != "cut":
            return None
        return self.side_leg.value, self.other_leg.value

    @property
    def depth(self) -> Figure:
        return 2 * (self.in_side - self.side_takes)

    @property
    def depth_by_other(self) -> Figure:
        return 2 * (self.in_other - self.other_takes)

    def notch(self, name: str, x: Inches, y: Inches) -> Notch:
        """The mark on a panel with the top left corner of its square at x, y."""
        half = self.meets == "fold"
        return Notch(
            name,
            self.side_leg,
            self.other_leg,
            self._raw_side,
            self._raw_other,
            self.meets,
            x,
            y,
            self.side_leg.value,
            self.other_leg.value * (2 if half else 1),
            self.school == "cut",
        )

    @property
    def _raw_side(self) -> Inches:
        return self.side_takes.value if self.school != "pinch" else NOTHING.value

    @property
    def _raw_other(self) -> Inches:
        return self.other_takes.value if self.school != "pinch" else NOTHING.value


def no_corner(side: Figure, other: Figure) -> Corner:
    """A bag without a base ends where its seams are, or at its fold."""
    return Corner(NOTHING, NOTHING, side, other, side, other, "seam", "none")


def _marked(brief: Brief, line: Figure, takes: Figure) -> Figure:
    """From a stitch line to what its school marks."""
    school = brief.corner
    if school == "cut":
        return line - brief.seams.corner
    return line if school == "line" else line - takes


def _line(brief: Brief, marked: Figure, takes: Figure) -> Figure:
    school = brief.corner
    if school == "cut":
        return marked + brief.seams.corner
    return marked if school == "line" else marked + takes


def corner_for(
    brief: Brief, depth: Figure, side: Figure, other: Figure, meets: Meets
) -> tuple[Figure, Figure]:
    """Both legs to mark for a base ``depth`` deep: the side's up to the ruler, the other's so that
    it meets the side's.  Rounded each by itself they would differ wherever what their seams take
    is not a whole number of marks, as ¼ in seams under a ruler in millimetres.

    Raises CannotPlan if the corner seam leaves nothing to cut.
    """
    what = _WHAT[brief.corner]
    half = depth / 2
    by_side = _marked(brief, half if side is NOTHING else half + side, side)
    from_side = up_to(by_side, brief.rulers.ruler).settled(f"{what}, from the side")
    to_meet = _to_meet(brief, from_side, side, other).settled(f"{what}, {_FROM[meets]}")
    legs = (from_side, to_meet)
    if min(leg.value for leg in legs) <= 0:
        raise CannotPlan(
            "shape.sizes.depth",
            "A base this shallow leaves no notch to cut: make it deeper or the corner seam less.",
        )
    return legs


def _to_meet(brief: Brief, from_side: Figure, side: Figure, other: Figure) -> Figure:
    """The other leg: as deep as the side's, less or more by what its own seam takes."""
    if brief.corner == "pinch" or side.value == other.value:
        return from_side
    deep = from_side if side is NOTHING else from_side - side
    return deep if other is NOTHING else deep + other


def corner_of(
    brief: Brief, legs: tuple[Figure, Figure], side: Figure, other: Figure, meets: Meets
) -> Corner:
    """The corner that marked legs make; raises CannotPlan if it makes no base."""
    in_side = _line(brief, legs[0], side)
    in_other = _line(brief, legs[1], other)
    corner = Corner(*legs, in_side, in_other, side, other, meets, brief.corner)
    if corner.depth.value <= 0:
        raise CannotPlan(
            "shape.sizes.notch_side", "A notch inside the side seam makes no base: cut it larger."
        )
    return corner
