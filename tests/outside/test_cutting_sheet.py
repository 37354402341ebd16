"""The cutting sheet read back by pdfium: every cut with its reading, every piece with its
label, maps that are true to scale, in millimetres from the paper's corner."""

import re

import pypdfium2
import pytest

from tessil.core.cutting.acts.shopping import shopping
from tessil.core.cutting.acts.whole import lots_of, plan_whole, spreads_of
from tessil.core.plan import plan
from tessil.core.words.cuttings import cut_words
from tessil.files.cuttingpages import OnPaper, cutting_sheet
from tessil.files.printing import pdf_of
from tests.conftest import DEMO, load_bag, tote
from tests.outside.printed import printed, sized_words


@pytest.fixture(scope="module")
def sheet(qapp):
    plans = [plan(load_bag(DEMO.with_stem("reed-pouch"))), plan(tote(bags=2))]
    lots = lots_of(plans)
    marks = plans[0].marks
    found = spreads_of(plan_whole(lots, (), marks, 0.0), lots)
    lines = tuple(shopping(found.spreads, plans, marks.notation))
    whence = tuple("new cloth" for _ in found.spreads)
    asked = OnPaper("Two bags", found, whence, lines, marks.notation, "inch")
    return asked, pdf_of(cutting_sheet(asked), "Two bags: cutting sheet")


@pytest.fixture(scope="module")
def texts(sheet):
    """The words of each page, one blank between any two, as they were written."""
    pages = pypdfium2.PdfDocument(sheet[1])
    return [" ".join(page.get_textpage().get_text_range().split()) for page in pages]


@pytest.fixture(scope="module")
def pages(sheet):
    return printed(sheet[1])


def test_every_cut_stands_once_with_its_ruler_s_reading(sheet, texts):
    asked, _ = sheet
    text, read = " ".join(texts), asked.notation.read_off
    for spread in asked.found.spreads:
        for at, cut in enumerate(spread.parting.cuts):
            said = cut_words(cut.deep, cut.way == "along", cut.length, asked.notation)
            row = f"{spread.first + at} {read(cut.reading)} {said}"
            assert len(re.findall(rf"(?<!\d){re.escape(row)}", text)) == 1, row
    assert len(re.findall(r" long(?: |$)", text)) >= asked.found.cuts


def test_every_piece_has_its_label_with_its_bag_and_number(sheet, texts):
    asked, _ = sheet
    text = " ".join(texts)
    for spread in asked.found.spreads:
        for one in spread.pieces:
            assert one.want.words in text
    pieces = sum(len(spread.pieces) for spread in asked.found.spreads)
    labels = re.findall(r"(?:Reed pouch|Test tote), (\d+) of (\d+)", text)
    assert len(labels) == pieces
    wants = {one.want.key: one.want for s in asked.found.spreads for one in s.pieces}
    told = sorted((int(nth), int(of)) for nth, of in labels)
    assert told == sorted((n, w.number) for w in wants.values() for n in range(1, w.number + 1))


def test_what_to_buy_comes_first_whole(sheet, texts):
    asked, _ = sheet
    first = texts[0]
    assert "To buy" in first
    for line in asked.shopping:
        assert line.what in first
    assert "Rotary cutter" in first


def test_every_page_has_its_line_of_a_hundred_millimetres_and_its_number(pages):
    for at, page in enumerate(pages, start=1):
        (ruler,) = [rule for rule in page.rules if rule.wide == pytest.approx(100, abs=0.2)]
        assert ruler.top > page.height - 30
        assert any(line.words.endswith(f"page {at} of {len(pages)}") for line in page.lines)


def test_maps_are_true_to_scale(sheet, pages):
    """Of the first cloth each piece's frame is as wide to the cloth's as in the plan."""
    asked, _ = sheet
    spread = asked.found.spreads[0]
    page = next(
        page
        for page in pages
        if any(spread.lot.name in line.words and "new cloth" in line.words for line in page.lines)
    )
    long, wide = float(spread.sheet.length), float(spread.sheet.width)
    across, down = (long, wide) if long > wide else (wide, long)
    frames = [box for box in page.frames if box.wide > 20]
    cloths = [box for box in frames if box.wide / box.high == pytest.approx(across / down, 0.01)]
    assert cloths
    for one in spread.pieces:
        size = (float(one.box.h), float(one.box.w))
        size = size if long > wide else size[::-1]
        scaled = [
            (box.wide * across / c.wide, box.high * down / c.high)
            for c in cloths
            for box in page.frames
        ]
        assert any(found == pytest.approx(size, abs=0.06) for found in scaled), size


def test_words_have_nine_points_and_readings_fourteen(sheet):
    _, pdf = sheet
    sizes = [size for _, _, size in sized_words(pdf)]
    assert min(sizes) > 8.95
    assert sum(size > 13.9 for size in sizes) > 40
