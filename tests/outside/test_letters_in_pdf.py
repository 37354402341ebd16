"""What is printed can be found, copied and read aloud: letters come back as they were written."""

import pypdfium2
import pytest
from PySide6.QtCore import QBuffer, QRectF
from PySide6.QtGui import QFont, QPainter, QPdfWriter

from tessil.drawing import theme
from tessil.drawing.fonts import load_fonts, text_font, title_font
from tests.outside.printed import DEMOS, demo_sheet

# Signs beside figures, brackets beside capitals, letters that some faces join.
WRITTEN = (
    "11 × 12 × 3 in",
    "2½ × 14¼",
    "2×2 (A×B) (10) [3]",
    "½ + ⅜ − ¼ ÷ 2",
    "−1 +1 =1 ±1 ≥2 ≤3",
    "10:30 3-5 3–5 A-B A:B",
    "a → b ← c",
    "1.5 1,5 1,234.5",
    "1⁄2 ¹⁄₁₆ 1⁵⁄₁₆",
    "fi fl ff ffi fj tt",
    "Flat flap, fifth of five offcuts",
    "“Front” ‘back’ it’s",
    "45° sin² 3³",
    "3 x 4 in -> no",
    "ÄÖÜ äöüß éèñ",
)


def written(font: QFont, words: str) -> bytes:
    """A page with nothing else on it."""
    buffer = QBuffer()
    buffer.open(QBuffer.OpenModeFlag.WriteOnly)
    writer = QPdfWriter(buffer)
    painter = QPainter(writer)
    larger = QFont(font)
    larger.setPixelSize(300)
    painter.setFont(larger)
    painter.drawText(QRectF(100, 100, 9000, 900), 0, words)
    painter.end()
    return bytes(buffer.data().data())


@pytest.mark.parametrize("words", WRITTEN)
@pytest.mark.parametrize("face", ["text", "strong", "title"])
def test_letters_come_back_as_they_were_written(qapp, face, words):
    load_fonts()
    font = {"text": text_font(), "strong": text_font(strong=True), "title": title_font()}[face]
    assert font.family() in (theme.TEXT_FACE, theme.TITLE_FACE)
    read = pypdfium2.PdfDocument(written(font, words))[0].get_textpage().get_text_range()
    assert " ".join(read.split()) == words


@pytest.mark.parametrize("name", DEMOS)
def test_every_size_to_cut_is_found_in_the_worksheet(qapp, name):
    made, pdf = demo_sheet(name)
    pages = [page.get_textpage().get_text_range() for page in pypdfium2.PdfDocument(pdf)]
    text = " ".join(" ".join(pages).split())
    strange = {letter for letter in text if ord(letter) < 32 or "\ue000" <= letter <= "\uf8ff"}
    assert strange == set()
    size = made.marks.notation.size
    sizes = {size(item.width.value, item.height.value) for item in made.items if item.height}
    assert len(sizes) > 3
    assert [one for one in sizes if one not in text] == []
