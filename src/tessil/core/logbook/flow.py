"""What flows between projects and the logbook: swatches into plans, measured panels into swatches.

A ``Memory`` keeps what one book says, sorted by stack of layers, and each fit once it is made.
"""

from __future__ import annotations

from dataclasses import dataclass, field

from tessil.core.catalogue import Material
from tessil.core.logbook.book import MOST_SWATCHES, Book, Swatch
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import MM_PER_INCH
from tessil.core.numbers.records import Record
from tessil.core.numbers.workings import Basis, Figure, given
from tessil.core.quilting.fitting import Fitted, Observation, Prior, fit, unlearned
from tessil.core.quilting.shrinkage import (
    Constants,
    Family,
    learned_constants,
    prior_of,
    rows_of,
    stack_key,
    starting_constants,
)

METRES_A_MINUTE = 1.5  # sewing speed on straight lines with stops and turns; from memory


def families_of(swatch: Swatch) -> tuple[Family, ...]:
    """A swatch's sets of lines as families."""
    return tuple(
        Family(
            "",
            line.angle,
            given("gap", line.gap),
            None if line.share == 1 else given("share", Fraction(line.share), Basis.MEASURED, 0),
        )
        for line in swatch.sewn
    )


def losses(swatch: Swatch, number: int) -> list[Observation]:
    """What a swatch says of its width, its height and its lean, as far as it was measured."""
    rows = rows_of(families_of(swatch))
    found = []
    for way, row in zip(("width", "height"), rows, strict=False):
        before, after = getattr(swatch, f"{way}_before"), getattr(swatch, f"{way}_after")
        if after is not None:
            found.append(Observation(row, float(1 - after / before), float(before), number))
    lean = lean_of(swatch)
    if lean is not None and any(rows[2]):
        length = float(min(swatch.width_before, swatch.height_before))
        found.append(Observation(rows[2], lean, length, number))
    return found


def lean_of(swatch: Swatch) -> float | None:
    """The lean by the diagonals: (rising² − falling²) ÷ (4 × width × height), after less before.

    In a parallelogram the squares of the diagonals differ by four times the area over the
    tangent of its angle (the law of cosines); for a small lean that tangent's inverse is the lean.
    """
    four = (swatch.rising_before, swatch.falling_before, swatch.rising_after, swatch.falling_after)
    if any(value is None for value in four):
        return None
    rising, falling, then_rising, then_falling = (float(v) for v in four if v is not None)
    before = float(swatch.width_before * swatch.height_before)
    width = swatch.width_after or swatch.width_before
    height = swatch.height_after or swatch.height_before
    after = float(width * height)
    return (then_rising**2 - then_falling**2) / (4 * after) - (rising**2 - falling**2) / (
        4 * before
    )


@dataclass
class Lessons:
    """What one book says, by stack of layers.  Two that say the same are the same, whatever else
    stands in their books."""

    book: Book = field(compare=False)
    seen: dict[str, list[tuple[str, Observation]]] = field(default_factory=dict)
    fits: dict[tuple[object, ...], Fitted] = field(default_factory=dict, compare=False)
    pace: Figure = field(init=False)  # inches of line a minute

    def __post_init__(self) -> None:
        for number, swatch in enumerate(self.book.swatches):
            if swatch.used:
                entries = self.seen.setdefault(swatch.batting, [])
                entries += [(swatch.source, loss) for loss in said_by(swatch, number)]
        self.pace = self._pace()

    def _pace(self) -> Figure:
        """Of the maker's own timed swatches, or a usual pace."""
        timed = [swatch for swatch in self.book.swatches if swatch.minutes]
        if not timed:
            usual = METRES_A_MINUTE * 1000 / float(MM_PER_INCH)
            return given("sewn in a minute", round(usual), Basis.GUESS)
        sewn = sum(float(swatch.stitched) for swatch in timed)
        minutes = sum(swatch.minutes or 0 for swatch in timed)
        return given("sewn in a minute", max(round(sewn / minutes), 1), Basis.SWATCHES)

    def observations(self, key: str, apart_from: str = "") -> tuple[Observation, ...]:
        """All losses of a stack, but for those of one project."""
        mine = f"{apart_from}/"
        return tuple(
            loss
            for source, loss in self.seen.get(key, ())
            if not apart_from or not source.startswith(mine)
        )


# What swatches said when they were last asked, by the swatch: a book that changes in one entry is
# another book of the same swatches.
_SAID: dict[tuple[int, int], tuple[Swatch, list[Observation]]] = {}


def said_by(swatch: Swatch, number: int) -> list[Observation]:
    """The losses of a swatch, reckoned once as long as it is the same one."""
    kept = _SAID.get((id(swatch), number))
    if kept is not None and kept[0] is swatch:
        return kept[1]
    if len(_SAID) > 2 * MOST_SWATCHES:
        _SAID.clear()
    said = losses(swatch, number)
    _SAID[id(swatch), number] = swatch, said
    return said


_KEPT: list[Lessons] = []
_MOST_KEPT = 4
MOST_FITS = 200


def lessons_of(book: Book) -> Lessons:
    """The lessons of a book; made once as long as it is the same book."""
    for kept in _KEPT:
        if kept.book is book:
            return kept
    made = Lessons(book)
    _KEPT.insert(0, made)
    del _KEPT[_MOST_KEPT:]
    return made


class Knowledge(Record, frozen=True, dict=True):
    """What one plan may know: a book, and the panels measured in the project itself."""

    lessons: Lessons
    project: str = ""
    own: tuple[tuple[str, Observation], ...] = ()

    def fitted(self, materials: tuple[Material, ...]) -> Fitted:
        """The fit for a stack of layers."""
        key, prior = stack_key(materials), prior_of(materials)
        own = tuple(loss for stack, loss in self.own if stack == key)
        asked = (key, prior, self.project, own)
        made = self.lessons.fits.get(asked)
        if made is None:
            seen = (*self.lessons.observations(key, self.project), *own)
            made = fit(prior, seen) if seen else unlearned(prior)
            if len(self.lessons.fits) > MOST_FITS:
                self.lessons.fits.clear()
            self.lessons.fits[asked] = made
        return made

    def constants(self, materials: tuple[Material, ...]) -> Constants:
        """The model's constants for a stack of layers."""
        made = self.fitted(materials)
        return learned_constants(made) if made.swatches else starting_constants(materials)

    @property
    def pace(self) -> Figure:
        """Inches of line a minute: of the maker's own timed swatches, or a usual pace."""
        return self.lessons.pace


def knowledge_of(book: Book, project: str = "") -> Knowledge:
    """What a book alone lets a plan know."""
    return Knowledge(lessons_of(book), project)


class Trust(Record, frozen=True):
    """How far predictions for one stack may be trusted, in words."""

    swatches: int
    miss: float
    words: str


def trust(fitted: Fitted, prior: Prior) -> Trust:
    """``4 swatches, ± 0.4 %``, at a gap of an inch, and what the swatches leave open."""
    row = (1.0, 1.0, 0.0)
    miss = fitted.miss(row)
    if not fitted.swatches:
        return Trust(0, miss, f"No swatch yet: starting guess, ± {miss * 100:.1f} %.")
    many = "swatch" if fitted.swatches == 1 else "swatches"
    words = f"{fitted.swatches} {many}, ± {miss * 100:.1f} %."
    if fitted.rank < 3:
        words += (
            " They are too alike to tell loft, draw and loss along the lines apart: for other "
            "gaps the starting guess still counts. Sew one at another gap."
        )
    return Trust(fitted.swatches, miss, words)
