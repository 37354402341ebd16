"""The logbook as a document: swatches, seam tests and materials, outside any project.

Frozen parts, like the project.  A swatch that contradicts itself is refused with a
sentence; what is learned from swatches is ``fit``'s to say.
"""

from __future__ import annotations

import datetime
import json
from typing import Annotated, Any, Literal

from tessil.core.bag.deeds import Operation
from tessil.core.catalogue.own import OwnMaterial
from tessil.core.catalogue.prints import Photo
from tessil.core.numbers.decided import Decided, checks, none_yet
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.fields import Degrees, Limits, Money, Size, Then
from tessil.core.piecing.choice import SeamTest

MOST_SWATCHES = 5000
MOST_TESTS = 200
MOST_PHOTOS = 40
MOST_TIMES = 10_000
MOST_MADE = 2000
MOST_LOSS = Fraction(1, 4)
LEAST_LINES = 3
Stack = Annotated[str, Limits(pattern=r"^[a-z0-9][a-z0-9+-]{0,200}$")]
SwatchPattern = Literal["channels", "grid", "diagonal", "diamonds"]


def _sewable(gap: Fraction) -> Fraction:
    if gap < LEAST_GAP:
        raise ValueError("Lines of stitching lie at least 1/16 in (1.6 mm) apart.")
    return gap


LEAST_GAP = Fraction(1, 16)
Gap = Annotated[Size, Then(_sewable)]


class Sewn(Decided):
    """One set of lines as it was sewn: degrees to the width, and the gap from line to line."""

    angle: Annotated[float, Limits(ge=-90, le=90, allow_inf_nan=False)]
    gap: Gap
    share: Annotated[float, Limits(gt=0, le=1, allow_inf_nan=False)] = 1.0


def _day(value: str) -> str:
    if value:
        try:
            datetime.date.fromisoformat(value)
        except ValueError:
            raise ValueError("A date is written year-month-day, such as 2026-03-14.") from None
    return value


class Swatch(Decided):
    """A piece measured before and after quilting.

    ``rising`` is the diagonal from the lower left corner, ``falling`` the one from the upper
    left; both are needed, before and after, to learn of leaning.  ``sets`` stand in place of
    pattern, angle and gaps where a panel of a real project was measured; ``source`` is then
    that project's id and panel.
    """

    name: Annotated[str, Limits(min_length=1, max_length=60)] = "swatch"
    date: Annotated[str, Limits(max_length=10)] = ""
    batting: Stack = "cotton-batting"
    pattern: SwatchPattern = "channels"
    run: Literal["upright", "level"] = "upright"
    angle: Degrees = Fraction(45)
    gap: Gap = Fraction(1)
    gap_other: Gap | None = None
    sets: Annotated[tuple[Sewn, ...], Limits(max_length=12)] = ()
    width_before: Size = Fraction(10)
    height_before: Size = Fraction(10)
    width_after: Size | None = None
    height_after: Size | None = None
    rising_before: Size | None = None
    falling_before: Size | None = None
    rising_after: Size | None = None
    falling_after: Size | None = None
    minutes: Annotated[float, Limits(gt=0, le=600, allow_inf_nan=False)] | None = None
    used: bool = True
    source: Annotated[str, Limits(max_length=100)] = ""
    photo: Photo | None = None

    _a_day = checks("date")(_day)

    @checks()
    def _possible(self) -> Swatch:
        for way in ("width", "height", "rising", "falling"):
            before, after = getattr(self, f"{way}_before"), getattr(self, f"{way}_after")
            if before is None or after is None:
                continue
            if after > before:
                raise ValueError(
                    f"Before is smaller than after in {way}: quilting does not make cloth grow. "
                    "Were the two swapped?"
                )
            if before - after > before * MOST_LOSS:
                raise ValueError(
                    f"More than a quarter lost in {way} is no quilting: measure it again."
                )
        if not self.sets and self._lines() < LEAST_LINES:
            raise ValueError(
                f"So wide a gap puts {max(self._lines(), 0)} or fewer lines on this swatch: it "
                f"takes {LEAST_LINES} at least to learn from."
            )
        return self

    def _lines(self) -> int:
        return int(min(self.width_before, self.height_before) / self.gap)

    @property
    def sewn(self) -> tuple[Sewn, ...]:
        """Its sets of lines."""
        if self.sets:
            return self.sets
        angle, other = float(self.angle), self.gap_other or self.gap
        if self.pattern == "channels":
            return (_sewn(90.0 if self.run == "upright" else 0.0, self.gap),)
        if self.pattern == "grid":
            return (_sewn(90.0, self.gap), _sewn(0.0, other))
        if self.pattern == "diagonal":
            return (_sewn(angle, self.gap),)
        return (_sewn(abs(angle), self.gap), _sewn(-abs(angle), other))

    @property
    def stitched(self) -> Fraction:
        """Inches of line on it: its area over each gap."""
        area = self.width_before * self.height_before
        return sum(
            (area / line.gap * Fraction(line.share) for line in self.sewn), start=Fraction(0)
        )


def _sewn(angle: float, gap: Fraction) -> Sewn:
    """A set of lines as a swatch says it, whose own fields are bounded as a set's are."""
    return Sewn.model_construct(angle=angle, gap=gap, share=1.0)


Work = Operation | Literal["all"]
Minutes = Annotated[float, Limits(gt=0, le=6000, allow_inf_nan=False)]
Kind = Annotated[str, Limits(pattern=r"^[a-z0-9][a-z0-9-]{0,39}$")]


def _moment(value: str) -> str:
    if value:
        try:
            datetime.time.fromisoformat(value)
        except ValueError:
            raise ValueError("A time of day is written 14:05.") from None
    return value


class Timing(Decided):
    """A sitting: minutes of one kind of work for so many bags at once, after so many before.

    ``kind`` is the bag's shape; ``work`` may be all of a bag.  ``goes_on`` belongs to the sitting
    before it of that bag and work, which was broken off: their minutes count together.  ``guess``
    is what one such bag was guessed to take by its steps, so that a plainer one is not expected to
    take as long.
    """

    date: Annotated[str, Limits(max_length=10)] = ""
    begun: Annotated[str, Limits(max_length=8)] = ""
    kind: Kind = "tote"
    bag: Annotated[str, Limits(max_length=80)] = ""
    work: Work = "all"
    number: Annotated[int, Limits(ge=1, le=999)] = 1
    before: Annotated[int, Limits(ge=0, le=100_000)] = 0
    minutes: Minutes = 60.0
    guess: Minutes | None = None
    goes_on: bool = False
    used: bool = True
    note: Annotated[str, Limits(max_length=200)] = ""
    source: Annotated[str, Limits(max_length=120)] = ""

    _a_day = checks("date")(_day)
    _a_moment = checks("begun")(_moment)


def _writable(choices: dict[str, Any]) -> dict[str, Any]:
    """What was decided is of whatever shape: but it must go into the logbook's file again."""
    try:
        json.dumps(choices, ensure_ascii=False, allow_nan=False).encode()
    except (ValueError, TypeError, RecursionError):
        raise ValueError("A bag's choices are those of a job file.") from None
    return choices


Choices = Annotated[dict[str, Any], Then(_writable)]


class MadeBag(Decided):
    """Bags that were made: what they were to be and became, what they took, where they went.

    ``planned`` and ``got`` are finished sizes; ``minutes``, ``cost`` and ``price`` are for one bag;
    ``choices`` is all that was decided for it, as in a job file, to make it again.
    """

    name: Annotated[str, Limits(min_length=1, max_length=80)] = "bag"
    kind: Kind = "tote"
    date: Annotated[str, Limits(max_length=10)] = ""
    number: Annotated[int, Limits(ge=1, le=999)] = 1
    planned: Annotated[tuple[Size, ...], Limits(max_length=3)] = ()
    got: Annotated[tuple[Size, ...], Limits(max_length=3)] = ()
    minutes: Minutes | None = None
    currency: Annotated[str, Limits(pattern=r"^([A-Z]{3})?$")] = ""
    cost: Money | None = None
    price: Money | None = None
    way: Literal["sold", "gift", "lower", "kept"] = "sold"
    buyer: Annotated[str, Limits(max_length=80)] = ""
    remarks: Annotated[str, Limits(max_length=1000)] = ""
    mistakes: Annotated[str, Limits(max_length=1000)] = ""
    scraps: Annotated[float, Limits(ge=0, le=1, allow_inf_nan=False)] | None = None
    source: Annotated[str, Limits(max_length=100)] = ""  # its swatches' in this book
    choices: Choices = none_yet()
    photo: Photo | None = None

    _a_day = checks("date")(_day)


class Book(Decided):
    """All that the maker has written down, by kind.  Format 2."""

    format: Literal[2] = 2
    swatches: Annotated[tuple[Swatch, ...], Limits(max_length=MOST_SWATCHES)] = ()
    seam_tests: Annotated[tuple[SeamTest, ...], Limits(max_length=MOST_TESTS)] = ()
    materials: Annotated[tuple[OwnMaterial, ...], Limits(max_length=60)] = ()
    times: Annotated[tuple[Timing, ...], Limits(max_length=MOST_TIMES)] = ()
    made: Annotated[tuple[MadeBag, ...], Limits(max_length=MOST_MADE)] = ()

    @checks("swatches")
    @staticmethod
    def _few_photos(value: tuple[Swatch, ...]) -> tuple[Swatch, ...]:
        if sum(swatch.photo is not None for swatch in value) > MOST_PHOTOS:
            raise ValueError(f"The logbook keeps {MOST_PHOTOS} photos at most: take one out first.")
        return value

    @checks("made")
    @staticmethod
    def _few_bags_seen(value: tuple[MadeBag, ...]) -> tuple[MadeBag, ...]:
        if sum(bag.photo is not None for bag in value) > MOST_PHOTOS:
            raise ValueError(f"The log keeps photos of {MOST_PHOTOS} bags: take one out first.")
        return value


EMPTY = Book.model_construct()
