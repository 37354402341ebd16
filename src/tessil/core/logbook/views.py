"""What the logbook shows of one stack of layers: its fit, and every loss against it."""

from __future__ import annotations

from tessil.core.catalogue import Material
from tessil.core.logbook.book import Book, Swatch
from tessil.core.logbook.flow import Knowledge, Trust, lessons_of, said_by, trust
from tessil.core.numbers.records import Record
from tessil.core.quilting.fitting import Fitted, Prior, Residual, Triple, residuals
from tessil.core.quilting.shrinkage import prior_of

GAPS = tuple(n / 16 for n in range(6, 65))  # inches, ⅜ to 4


class AcrossLoss(Record, frozen=True):
    """A loss across one set of lines: at which gap, how much, of which swatch."""

    gap: float
    loss: float
    swatch: int
    outlies: bool


class StackView(Record, frozen=True):
    """One stack: the fit with its prior, what stands behind it, and its points."""

    key: str
    fitted: Fitted
    prior: Prior
    trust: Trust
    residuals: tuple[Residual, ...]
    points: tuple[AcrossLoss, ...]

    def across(self, gap: float) -> tuple[float, float, float]:
        """Loss across lines so far apart: least, expected and most."""
        row: Triple = (1 / gap**2, 1 / gap, 0.0)
        expected, miss = self.fitted.expects(row), self.fitted.miss(row)
        return max(expected - miss, 0.0), expected, expected + miss

    def errors(self) -> tuple[float, float, float]:
        """Standard errors of the rise (mm), the draw of a line (mm) and the loss along (share)."""
        fitted = self.fitted
        q, d, g = (max(fitted.cov[i][i], 0.0) ** 0.5 for i in range(3))
        rise = self.rise_mm()
        # The rise is the root of 3/8 q: its error follows by the derivative.
        return (3 / 16 * q * 25.4**2 / rise if rise else 0.0), d * 25.4, g

    def rise_mm(self) -> float:
        """The rise over the loft in millimetres."""
        return float((3 / 8 * self.fitted.mean[0]) ** 0.5 * 25.4)

    def outliers(self) -> tuple[int, ...]:
        """The numbers of swatches that lie far off."""
        return tuple(
            dict.fromkeys(entry.observation.swatch for entry in self.residuals if entry.outlies)
        )


def stacks_of(book: Book) -> tuple[str, ...]:
    """The stacks of layers that swatches were sewn on, in the order they first appear."""
    return tuple(dict.fromkeys(swatch.batting for swatch in book.swatches))


def materials_named(key: str, known: dict[str, Material]) -> tuple[Material, ...]:
    """The materials of a stack by its key; those the catalogue does not know are left out."""
    return tuple(known[name] for name in key.split("+") if name in known)


def stack_name(key: str, known: dict[str, Material]) -> str:
    """A stack as a maker says it."""
    names = [entry.name for entry in materials_named(key, known)]
    return " and ".join(names) if names else "No batting"


def stack_view(book: Book, key: str, materials: tuple[Material, ...]) -> StackView:
    """All that the logbook says of one stack."""
    lessons = lessons_of(book)
    seen = lessons.observations(key)
    fitted = Knowledge(lessons).fitted(materials)
    prior = prior_of(materials)
    found = residuals(fitted, seen)
    far = {entry.observation.swatch for entry in found if entry.outlies}
    points = [
        point
        for number, swatch in enumerate(book.swatches)
        if swatch.batting == key and swatch.used
        for point in _across(swatch, number, fitted, number in far)
    ]
    return StackView(key, fitted, prior, trust(fitted, prior), found, tuple(points))


def _across(swatch: Swatch, number: int, fitted: Fitted, outlies: bool) -> list[AcrossLoss]:
    """Losses square to one straight set, less what the others take along themselves there."""
    if any(line.angle not in (0.0, 90.0) or line.share != 1 for line in swatch.sewn):
        return []
    found = []
    for entry in said_by(swatch, number)[:2]:
        inverse_square, inverse, along = entry.row
        if inverse and abs(inverse_square - inverse**2) < 1e-9:
            loss = entry.value - along * fitted.mean[2]
            found.append(AcrossLoss(1 / inverse, loss, number, outlies))
    return found
