"""The worksheet read back by pdfium: no word too small, nothing left out, figures that line up.

The least sizes are the project's own rule: 9 points for any word, 14 for a size to cut (1 point is
1/72 inch, ISO 32000-1 §8.3.2.3, from memory).
"""

from __future__ import annotations

import json
import re

import pypdfium2
import pytest
from PySide6.QtGui import QFontMetricsF, QRawFont

from tessil.core.plan import plan
from tessil.drawing import theme
from tessil.drawing.fonts import load_fonts, text_font, title_font
from tessil.files.edgepages import LEAVES, SHARES
from tessil.files.flow import Block, paged
from tessil.files.report import merged_rows
from tessil.files.striplist import HEAD, strip_rows
from tessil.files.worksheet import pdf_bytes
from tests.conftest import DEMO, bag_from
from tests.outside.printed import DEMOS, demo_sheet, sized_words

LEAST, TO_CUT = 9, 14


@pytest.fixture(scope="module", params=DEMOS)
def paper(request, qapp):
    made, pdf = demo_sheet(request.param)
    return made, pdf, sized_words(pdf)


def test_no_word_is_smaller_than_nine_points(paper):
    _, _, found = paper
    small = {(page, words, round(size, 2)) for page, words, size in found if size < LEAST - 0.05}
    assert len(found) > 60
    assert not small


def test_every_size_to_cut_is_there_in_fourteen_points(paper):
    made, _, found = paper
    large = [words for _, words, size in found if size > TO_CUT - 0.1]
    sizes = [f"{row['width']} × {row['height']}" for row in merged_rows(made)]
    for size in sizes:
        assert size in large
    assert len([words for words in large if "×" in words]) >= len(sizes)
    lengths = [str(row["length"]) for row in strip_rows(made)]
    for length in lengths:
        assert length in large


def _lying_on(rects):
    """Words that lie on others by more than half a letter; strokes of a fraction are one word."""
    ordered = sorted(rects, key=lambda rect: rect[0])
    for at, (_, low, right, high, words) in enumerate(ordered):
        for other in ordered[at + 1 :]:
            if other[0] > right - 1.5:
                break
            over = min(high, other[3]) - max(low, other[1])
            if over > 2 and min(right, other[2]) - other[0] > 1.5 and "⁄" not in words + other[4]:
                yield words, other[4]


def test_no_words_lie_on_others_or_off_their_page(paper):
    """In points: at least 7 mm from the sides of the sheet, clear of each other."""
    _, pdf, _ = paper
    document = pypdfium2.PdfDocument(pdf)
    assert len(document) > 4
    for page in document:
        text = page.get_textpage()
        width, height = page.get_size()
        assert text.count_rects() > 100
        rects = [
            (*box, text.get_text_bounded(*box))
            for box in (text.get_rect(at) for at in range(text.count_rects()))
        ]
        for left, low, right, high, words in rects:
            assert left > 20, words
            assert right < width - 20, words
            assert low > 14, words
            assert high < height - 14, words
        assert list(_lying_on(rects)) == []


def test_nothing_is_said_to_stand_elsewhere(paper):
    _, _, found = paper
    assert not [words for _, words, _ in found if re.search(r"\bmore\b.*(CSV|:)|as CSV", words)]


def many_prints():
    """The clutch with a print of its own for each of its forty squares."""
    data = json.loads(DEMO.with_stem("march-card-clutch").read_text())
    model = next(one for one in data["prints"] if one["key"] == "stars")
    data["prints"] = [
        {**model, "key": f"p{at}", "name": f"Cutting {at}", "amount": None} for at in range(40)
    ]
    data["panels"]["body"]["piecing"]["prints"] = [f"p{at}" for at in range(40)]
    return bag_from(json.dumps(data))


def test_a_cut_list_longer_than_its_page_goes_on_with_its_head(qapp):
    project = many_prints()
    rows = merged_rows(plan(project))
    assert len(rows) > 40
    found = sized_words(pdf_bytes(plan(project)))
    large = [(page, words) for page, words, size in found if size > TO_CUT - 0.1]
    sizes = [f"{row['width']} × {row['height']}" for row in rows]
    heads = [page for page, words, _ in found if words == "width × height"]
    held = [page for page, words in large if words in sizes and page in heads]
    assert len(held) == len(rows)
    assert heads == sorted(set(held))
    assert len(heads) > 1
    for at in range(40):  # in the cut list, and in the key of the layout
        assert len([words for _, words, _ in found if words.startswith(f"Cutting {at}")]) >= 2


def test_a_heading_is_never_the_last_of_its_page():
    head, body = Block(10, print, leads=True), Block(30, print)
    pages = paged([body, body, head, body], 75)
    assert [len(page) for page in pages] == [2, 2]
    assert pages[1][0] is head


@pytest.mark.parametrize("font", [text_font, title_font])
@pytest.mark.parametrize("strong", [False, True])
def test_figures_of_every_face_have_one_width_and_stand_on_the_line(qapp, font, strong):
    """Tabular: one advance for all ten.  Lining: all as high as a capital, none below the line."""
    load_fonts()
    face = font(100.0, strong)
    metrics = QFontMetricsF(face)
    raw = QRawFont.fromFont(face)
    assert raw.familyName() in (theme.TEXT_FACE, theme.TITLE_FACE)
    capital = metrics.tightBoundingRect("H")
    for digit in "0123456789":
        wide = metrics.horizontalAdvance("0")
        assert metrics.horizontalAdvance(digit) == pytest.approx(wide, rel=0.002)
        box = metrics.tightBoundingRect(digit)
        assert box.bottom() <= capital.bottom() + 3  # the round ones overshoot
        assert box.height() >= capital.height() * 0.93


def test_the_edge_pages_hold_every_strip_and_every_step(paper):
    made, _, found = paper
    words = " ".join(text for _, text, _ in found)
    for leaf in LEAVES:
        steps = made.edge_steps.get(leaf, ())
        assert (f"{leaf.capitalize()}: 1. " in words) == bool(steps), leaf
    assert ("Strips, in the order in which they are joined" in words) == bool(strip_rows(made))
    assert "Figures of the edges" in words


def test_the_columns_of_the_strips_share_the_page():
    assert sum(SHARES.values()) == pytest.approx(1)
    assert all(0.05 < share < 0.2 for share in SHARES.values())
    assert list(SHARES) == list(HEAD)
