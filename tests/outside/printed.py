"""A printed sheet read back by pdfium: what stands where, in millimetres from its top left."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from functools import cache

import pypdfium2
import pypdfium2.raw as raw

from tessil.core.plan import plan
from tessil.core.planned import Plan
from tessil.files.worksheet import pdf_bytes
from tests.conftest import DEMO, load_bag

# The kit's first bag is a demo of its own.
DEMOS = sorted(path.stem for path in DEMO.parent.glob("*.tessil") if path.stem != "kit-of-four")

MM = 25.4 / 72
WORD = 2.6  # mm between letters of one line of words at most


@dataclass
class Box:
    """Words, or a drawn outline."""

    left: float
    top: float
    right: float
    bottom: float
    words: str = ""

    @property
    def middle(self) -> float:
        return (self.top + self.bottom) / 2

    @property
    def wide(self) -> float:
        return self.right - self.left

    @property
    def high(self) -> float:
        return self.bottom - self.top

    def holds(self, other: Box) -> bool:
        return (
            self.left <= other.left
            and other.right <= self.right
            and self.top <= other.top
            and other.bottom <= self.bottom
        )

    def holds_level(self, other: Box) -> bool:
        return self.top <= other.middle <= self.bottom


class Printed:
    """One page: its lines of words, its outlines of four corners and its level rules."""

    def __init__(self, page: pypdfium2.PdfPage) -> None:
        width, height = page.get_size()
        self.width, self.height = width * MM, height * MM
        text = page.get_textpage()
        letters = []
        for at in range(text.count_rects()):
            left, low, right, high = text.get_rect(at)
            words = text.get_text_bounded(left, low, right, high)
            letters.append(self._box(left, low, right, high, words))
        self.lines = _lines(letters)
        shapes = []
        for one in page.get_objects(filter=[raw.FPDF_PAGEOBJ_PATH]):
            points = _points(one)
            across, up = [x for x, _ in points], [y for _, y in points]
            box = self._box(min(across), min(up), max(across), max(up))
            shapes.append((len(points), box))
        self.frames = [box for count, box in shapes if count == 5]
        self.rules = [box for count, box in shapes if count == 2 and box.high < 0.05]

    def _box(self, left: float, low: float, right: float, high: float, words: str = "") -> Box:
        return Box(left * MM, self.height - high * MM, right * MM, self.height - low * MM, words)

    def line(self, begins: str) -> Box:
        return next(line for line in self.lines if line.words.startswith(begins))

    def between(self, begins: str, ends: tuple[str, ...] = ()) -> list[Box]:
        """The lines below one and above the first of those that end it."""
        top = self.line(begins).bottom
        last = min(
            (one.top for one in self.lines if one.top > top and one.words.startswith(ends or "¶")),
            default=self.height - 22,
        )
        return [one for one in self.lines if top < one.top and one.bottom < last]


def _points(one: pypdfium2.PdfObject) -> list[tuple[float, float]]:
    """The corners of an outline, in points from the page's lower left."""
    found, x, y = [], raw.c_float(), raw.c_float()
    for at in range(raw.FPDFPath_CountSegments(one)):
        raw.FPDFPathSegment_GetPoint(raw.FPDFPath_GetPathSegment(one, at), x, y)
        found.append(one.get_matrix().on_point(x.value, y.value))
    return found


def _lines(letters: list[Box]) -> list[Box]:
    """Letters one after the other at one height, as the file has them."""
    found: list[Box] = []
    for one in letters:
        last = found[-1] if found else None
        level = last is not None and one.top < last.bottom and one.bottom > last.top
        if last is not None and level and -0.6 < one.left - last.right < WORD:
            last.words += one.words
            last.right = one.right
            last.top, last.bottom = min(last.top, one.top), max(last.bottom, one.bottom)
        else:
            found.append(Box(one.left, one.top, one.right, one.bottom, one.words))
    return found


@cache
def demo_sheet(name: str) -> tuple[Plan, bytes]:
    """A bag of the demo and its worksheet."""
    made = plan(load_bag(DEMO.with_stem(name)))
    return made, pdf_bytes(made)


def printed(pdf: bytes) -> list[Printed]:
    return [Printed(page) for page in pypdfium2.PdfDocument(pdf)]


def sized_words(pdf: bytes) -> list[tuple[int, str, float]]:
    """Every run of words in one size: the number of its page, the words, the size in points."""
    return [
        (number, words, size)
        for number, page in enumerate(pypdfium2.PdfDocument(pdf))
        for words, size in _runs(page.get_textpage())
    ]


def _runs(text: pypdfium2.PdfTextPage) -> Iterator[tuple[str, float]]:
    """Letters one after the other that are of one size and no further apart than words are."""
    run, size, ended = "", 0.0, 0.0
    for at in range(text.count_chars()):
        letter = chr(raw.FPDFText_GetUnicode(text, at))
        if raw.FPDFText_IsGenerated(text, at):  # a blank or a new line that nobody wrote
            run += letter
            continue
        left, _, right, _ = text.get_charbox(at)
        now = _size(text, at)
        apart = run.endswith(("\r", "\n")) or left - ended > now * 0.8 or ended - left > now
        if run and (apart or abs(now - size) > 0.05):
            yield " ".join(run.split()), size
            run = ""
        run, size, ended = run + letter, now, right
    if run.strip():
        yield " ".join(run.split()), size


def _size(text: pypdfium2.PdfTextPage, at: int) -> float:
    """Of a letter as it is printed: its font's, by how much that is drawn larger or turned."""
    matrix = raw.FS_MATRIX()
    raw.FPDFText_GetMatrix(text, at, matrix)
    return raw.FPDFText_GetFontSize(text, at) * (abs(matrix.d) or abs(matrix.b))
