"""Tags and the sewing sheet in millimetres, as pdfium reads them; see docs/paper.md."""

import pypdfium2
import pypdfium2.raw as raw
import pytest

from tessil.core.edits import applied, edit
from tessil.core.making.acts.whole import making_of
from tessil.core.making.choice import Made
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tessil.files.makingpages import sewing_sheet
from tessil.files.printing import pdf_of
from tessil.files.tagpages import price_words, tag_pages
from tests.conftest import tote
from tests.outside.printed import MM, printed, sized_words

F = Fraction
MARGIN = 14


def sold(number, **changes):
    project = applied(tote(bags=number), edit("", ("sale.price", F(60)), *changes.items()))
    return plan(project)


def tags(number, **changes):
    return pdf_of(tag_pages(sold(number, **changes)), "Tags")


def framed(page):
    return [box for box in page.frames if box.wide > 70 and box.high > 30]


@pytest.fixture
def three(qapp):
    return tags(3)


def test_tags_stand_two_abreast_at_their_size(three):
    (page,) = printed(three)
    first, second, third = framed(page)
    for box in (first, second, third):
        assert (box.wide, box.high) == (pytest.approx(82, abs=0.3), pytest.approx(42, abs=0.3))
    assert first.left == third.left == pytest.approx(MARGIN, abs=0.3)
    assert second.left - first.left == pytest.approx(82 + 6, abs=0.1)
    assert second.top == first.top
    assert third.top - first.top == pytest.approx(42 + 5, abs=0.1)


def test_each_tag_has_its_hole_its_name_its_size_and_its_price(three):
    page = pypdfium2.PdfDocument(three)[0]
    height = page.get_size()[1]
    rings = []
    for one in page.get_objects(filter=[raw.FPDF_PAGEOBJ_PATH]):
        left, low, right, high = one.get_bounds()
        if raw.FPDFPath_CountSegments(one) > 8 and right - left < 8 / MM:
            rings.append((left * MM, (height - high) * MM, (right - left) * MM, (high - low) * MM))
    frames = framed(printed(three)[0])
    assert len(rings) == len(frames) == 3
    for (x, y, wide, high), frame in zip(rings, frames, strict=True):
        assert wide == pytest.approx(high, abs=0.05)
        assert wide == pytest.approx(5.5, abs=0.2)  # with its line
        assert x - frame.left == pytest.approx(4, abs=0.4)
        assert y + high / 2 == pytest.approx(frame.middle, abs=0.2)
    said = [(words, size) for _, words, size in sized_words(three)]
    for words, points in (("Test tote", 15), ("11 × 12 × 3 in", 10), ("60.00", 24)):
        assert said.count((words, pytest.approx(points, abs=0.1))) == 3
    lines = printed(three)[0].lines
    for frame in frames:
        inside = [line for line in lines if frame.holds_level(line) and line.left > frame.left]
        tops = [line.top - frame.top for line in inside if line.right < frame.right]
        assert all(line.left - frame.left > 13.5 for line in inside if line.right < frame.right)
        assert tops == sorted(tops)
        assert tops[0] > 6


def test_at_most_twenty_four_tags_are_printed(qapp):
    assert sum(len(framed(page)) for page in printed(tags(25))) == 24
    assert sum(len(framed(page)) for page in printed(tags(1))) == 1


@pytest.mark.parametrize(
    ("way", "price", "says"), [("sold", F(60), "60.00"), ("gift", F(60), "a gift")]
)
def test_what_a_tag_says_that_it_costs(way, price, says):
    assert price_words(sold(1, **{"sale.way": way, "sale.price": price})) == says
    assert price_words(plan(tote())) == ""


def test_the_label_names_what_it_is_made_of_and_defers_to_the_law(three):
    said = " ".join(line.words for line in printed(three)[0].lines)
    for words in ("Tags, to cut out", "Label", "otton", "local rules", "ask the authority"):
        assert words in said


def test_steps_are_numbered_in_their_column_with_what_is_sewn_beside(qapp):
    made = plan(tote())
    making = making_of(made, Made())
    pages = printed(pdf_of(sewing_sheet(made, making), "Sewing"))
    wide = pages[0].width - 2 * MARGIN
    numbers = [
        line
        for page in pages
        for line in page.lines
        if line.words.strip().isdigit() and line.left < MARGIN + 20
    ]
    assert [int(line.words) for line in numbers] == list(range(1, len(making.deeds) + 1))
    rights = {round(line.right - MARGIN, 1) for line in numbers}
    assert max(rights) - min(rights) < 0.8  # set to the right of the first 18
    assert max(rights) <= 18
    beside = [
        line
        for page in pages
        for line in page.lines
        if line.left > MARGIN + wide - 56 - 1 and "seam" in line.words
    ]
    assert beside
    assert min(line.left for line in beside) >= MARGIN + wide - 56
