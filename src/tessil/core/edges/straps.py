"""Straps, handles and tabs: what is cut, joined, stiffened, and how far down they let a bag hang.

A strip is cut four times as wide as it ends and folded to the middle twice (common practice).
"""

from __future__ import annotations

from tessil.core.bag.model import Attachment
from tessil.core.brief.choice import ShapeChoice
from tessil.core.edges.choice import Strap
from tessil.core.edges.task import EdgeTask
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Inches, exact_root, round_up
from tessil.core.numbers.records import Record
from tessil.core.numbers.workings import (
    Basis,
    Figure,
    ceiling,
    count,
    given,
    no_less,
    root,
    squared,
)
from tessil.core.trouble import CannotPlan


class Strip(Record, frozen=True):
    """The cloth of one strap: how wide and long it is cut, and how many of it lie on each other."""

    width: Figure
    length: Figure
    plies: int = 1


class StrapPlan(Record, frozen=True):
    """One kind of strap: what to cut, how it is joined, stiffened and hung."""

    part: Attachment
    finished: Figure
    strips: Figure
    joins: Figure
    interfacing: tuple[Figure, Figure] | None
    webbing: Figure | None
    ring: Figure
    shortest: Figure | None
    longest: Figure | None
    joins_at: tuple[float, ...]  # where they fall if each strip is used to its end, inches
    slider: str  # the end at which a slider never meets a join: first, last, or none
    hangs: Figure | None  # how far below the shoulder the bag's top hangs
    patch: Figure | None  # a square of interfacing behind each end that is sewn on the face
    takes: Figure  # what each join takes
    strip: Strip | None  # of bare webbing nothing is cut

    @property
    def turns(self) -> bool:
        """Whether its ends are turned back, through rings or a slider."""
        return self.part.ends == "ring" or self.longest is not None


STIFFENED = ("cloth", "underside")
OF_WEBBING = ("webbing", "covered")
NONE = count("joins of the strap", 0, Basis.GEOMETRY)
_ROUND_IT = given("patch beyond the box of stitches", 1, Basis.PRACTICE)
_SEAMS = given("a straight join", Fraction(1, 2), Basis.PRACTICE)  # two seams of ¼
_SHORT = given("short at each end", Fraction(1, 2), Basis.PRACTICE)
_PRESSED = given("pressed in at each edge", Fraction(1, 4), Basis.PRACTICE)


def _strip(part: Attachment, choice: Strap, finished: Figure) -> Strip | None:
    """Cloth alone is cut four times as wide as it ends, round webbing twice, where there is any
    between its ends; a top and an underside as wide as it ends and both edges pressed in."""
    if choice.made == "webbing":
        return None
    if choice.made == "covered":
        length = (part.length - 2 * _SHORT).called("cover, length")
        return Strip((2 * finished).called("cover, width"), length) if length.value > 0 else None
    if choice.made == "underside":
        return Strip((finished + 2 * _PRESSED).called("strip, cut width"), part.length, 2)
    return Strip(part.cut, part.length)


def _strips(part: Attachment, usable: Figure, takes: Figure, strip: Strip | None) -> Figure:
    """How many strips make its length, each join ``takes`` so much; of bare webbing there is
    nothing to join."""
    one = count("strip", 1, Basis.GEOMETRY)
    if strip is None:
        return one
    wide, joined = strip.width.value, strip.length.value > usable.value
    if wide >= usable.value or (joined and wide * 2 > usable.value):
        sentence = f"This cloth is too narrow to cut strips for the {part.label.lower()} from it."
        raise CannotPlan("stock.usable_width", sentence)
    return no_less(ceiling((strip.length - takes) / (usable - takes)), one)


def _interfacing(part: Attachment, choice: Strap, finished: Figure) -> tuple[Figure, Figure] | None:
    """Width and length: in a folded strip twice as wide as that ends, on an underside as wide; none
    in one so short that nothing is left between its ends."""
    if choice.made not in STIFFENED or not choice.interfaced:
        return None
    width = finished if choice.made == "underside" else 2 * finished
    length = (part.length - 2 * _SHORT).called("interfacing, length")
    return (width.called("interfacing, width"), length) if length.value > 0 else None


def slides(choice: Strap, part: Attachment) -> bool:
    """Whether a slider makes it shorter and longer."""
    return choice.slider and part.key == "strap" and part.ends != "tied"


def on_rings(shape: ShapeChoice) -> tuple[str, object]:
    """What hangs a strap on rings, as a change of the shape's choices."""
    return "shape.options", {**shape.options, "strap_ends": "rings"}


def plan_strap(task: EdgeTask, part: Attachment) -> StrapPlan:
    """What its cloth is cut as, joined as the cloth asks.

    Raises CannotPlan if joins on the slant would take more of each strip than they give.
    """
    choice = task.strap
    usable = given("usable width", task.usable_width)
    finished = (part.cut / 4).called(f"{part.label.lower()}, finished width")
    strip = _strip(part, choice, finished)
    # A join on the slant takes the strip's width, a straight one two seams.
    takes = _SEAMS if strip is None or choice.joins == "straight" else strip.width
    strips = _strips(part, usable, takes, strip).called("strips for each")
    webbing = part.length.called("webbing, length") if choice.made in OF_WEBBING else None
    back = given("turned back", choice.turned_back)
    between = (part.length - 2 * back).called("strap at its longest")
    longest = between if slides(choice, part) and between.value > 0 else None
    # The strap runs from the slider through the ring and back to the slider: drawn up to the other
    # ring, it lies double all the way (geometry).
    shortest = (longest / 2).called("strap at its shortest") if longest is not None else None
    joins = NONE if strip is None else (strips - 1).called("joins of the strap")
    joins_at = _joins_at(usable, takes, joins)
    return StrapPlan(
        part=part,
        finished=finished,
        strips=strips,
        joins=joins,
        interfacing=_interfacing(part, choice, finished),
        webbing=webbing,
        ring=given("ring in hand", choice.ring) if choice.ring else finished.called("ring, inside"),
        shortest=shortest,
        longest=longest,
        joins_at=joins_at,
        slider=_slider_end(joins_at, float(part.length.value)),
        hangs=_hangs(task, part),
        takes=takes,
        strip=strip,
        patch=(finished + _ROUND_IT).called("reinforcing patch") if part.ends == "face" else None,
    )


def _joins_at(usable: Figure, cut: Figure, joins: Figure) -> tuple[float, ...]:
    """A join takes the strip's width, or two seams."""
    step, half = float(usable.value - cut.value), float(cut.value) / 2
    return tuple(step * at + half for at in range(1, joins.whole + 1))


def _slider_end(joins: tuple[float, ...], long: float) -> str:
    """A slider travels over half of the strap."""
    if all(join > long / 2 for join in joins):
        return "first"
    return "last" if all(join < long / 2 for join in joins) else ""


def _hangs(task: EdgeTask, part: Attachment) -> Figure | None:
    """The strap is two sides of a triangle whose base is the bag's width (geometry).  None if it
    is shorter than that."""
    half = (part.length - 2 * given("turned back", task.strap.turned_back)) / 2
    base = task.bag.finished[0] / 2
    if half.value <= base.value:
        return None
    return root(squared(half) - squared(base)).called("hangs below the shoulder")


def strap_for(task: EdgeTask, hang: Inches) -> Inches:
    """The cut length of a strap that lets the bag hang so far below the shoulder, up to a mark of
    the maker's ruler."""
    side = exact_root(hang**2 + (task.bag.finished[0].value / 2) ** 2)
    return round_up(2 * side + 2 * task.strap.turned_back, task.marks.ruler.value)
