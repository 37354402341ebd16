"""What Tessil writes, read by general libraries: jsonschema, pypdf, pypdfium2, an XML parser."""

import csv
import io
import json
import struct
import xml.etree.ElementTree as ET
from collections import Counter
from pathlib import Path

import jsonschema
import pypdf
import pypdfium2
import pytest
from pypdf.generic import ContentStream
from PySide6.QtGui import QImage

from tessil.core.edits import applied, edit
from tessil.core.plan import plan
from tessil.core.project import job_of
from tessil.core.shapes import SHAPES
from tessil.core.snags import Stage
from tessil.drawing.fonts import text_font
from tessil.drawing.handview import in_hand, stand_of
from tessil.drawing.layoutview import key_of_prints
from tessil.drawing.pictures import View, hand_picture, picture_of
from tessil.files.projectfile import schema, to_text
from tessil.files.report import cut_csv, report_data, report_text
from tessil.files.svg import PER_INCH, save_bag, svg_bytes
from tessil.files.worksheet import pdf_bytes, worksheet
from tests.conftest import DEMO, load_bag, tote
from tests.outside.test_every_shape_on_paper import project_of

ROOT = Path(__file__).parents[2]
POINTS_PER_MM = 72 / 25.4


@pytest.fixture(scope="module")
def others():
    """A general validator of project files; that the schema is one is asked once."""
    kind = jsonschema.Draft202012Validator
    told = schema()
    kind.check_schema(told)
    return kind(told)


def test_the_published_schema_is_the_one_that_is_kept(others):
    """What others check a file by, docs/project.schema.json, bound for bound."""
    kept = json.loads((ROOT / "docs" / "project.schema.json").read_text("utf-8"))
    assert others.schema == kept


def test_a_project_file_keeps_its_own_schema(demo, others):
    for project in (demo, tote(), tote(units="metric")):
        others.validate(json.loads(to_text(job_of(project))))


@pytest.mark.parametrize(
    "spoil",
    [
        lambda data: data["bags"][0].update(bags="two"),
        lambda data: data.update(colour="red"),
        lambda data: data.update(bags=[]),
        lambda data: data["bags"][0]["hold"].update(width=9),
        lambda data: data["shared"]["prints"][0].update(ground="reddish"),
    ],
)
def test_the_schema_refuses_what_the_program_refuses(demo, others, spoil):
    data = json.loads(to_text(job_of(demo)))
    spoil(data)
    with pytest.raises(jsonschema.ValidationError):
        others.validate(data)


@pytest.fixture(scope="module")
def pages(qapp):
    made = {}
    for units in ("inch", "metric"):
        made[units] = pypdf.PdfReader(io.BytesIO(pdf_bytes(plan(tote(units=units, bags=2)))))
    return made


@pytest.mark.parametrize(
    ("units", "width", "height"), [("inch", 215.9, 279.4), ("metric", 210, 297)]
)
def test_the_page_is_letter_or_a4(pages, units, width, height):
    """ANSI/ASME Y14.1 letter is 8½ × 11 in; ISO 216 A4 is 210 × 297 mm (from memory)."""
    # bag, cutting, layout, layers, quilting, edges, swatches
    assert len(pages[units].pages) == 7
    for page in pages[units].pages:
        assert float(page.mediabox.width) / POINTS_PER_MM == pytest.approx(width, abs=0.3)
        assert float(page.mediabox.height) / POINTS_PER_MM == pytest.approx(height, abs=0.3)


def test_the_pages_say_what_to_cut_and_sew(pages):
    texts = [" ".join(p.extract_text().split()) for p in pages["inch"].pages]
    first, second, third, layers, lines, edges, swatches = texts
    for text, words in (
        (layers, ("Layers: front and back", "Cotton batting", "boxed corner", "100/16")),
        (lines, ("Quilting: front and back", "Order and direction", "stitched length")),
        (swatches, ("width before", "diagonal", "swatch 4", "logbook")),
        (edges, ("Edges", "unrolled", "begin", "Strip 1")),
        (edges, ("Strips, in the order", "binding length", "join at")),
    ):
        assert all(word in text for word in words)
    for words in ("Test tote", "from the end", "Pieced", "Quilted", "Trimmed", "I got"):
        assert words in first
    for words in (
        "guide bar at",
        "To cut",
        "To buy",
        "Red dots",
        "Cotton batting",
        "binding strip",
        "100 mm",
    ):
        assert words in second
    for words in (
        "Layout: front and back",
        "Red dots: 4",
        "Blue checks: 4",
        "Sew strips 1 and 2",
        "page 3 of 7",
    ):
        assert words in third


def test_figures_of_a_page_can_be_searched_whatever_the_window_uses(qapp):
    """The window's font has tabular figures, which a PDF would keep as private code points."""
    before = qapp.font()
    qapp.setFont(text_font())
    try:
        page = pypdf.PdfReader(io.BytesIO(pdf_bytes(plan(tote())))).pages[1]
    finally:
        qapp.setFont(before)
    text = page.extract_text()
    assert "page 2 of 7" in " ".join(text.split())
    assert not any("\ue000" <= letter <= "\uf8ff" for letter in text)


def test_the_layout_page_can_be_sewn_from_in_black_and_white():
    """Letters, row numbers, turned marks and the order of sewing, read back by pypdf."""
    clutch = load_bag(DEMO.with_name("march-card-clutch.tessil"))
    made = plan(clutch)
    page = pypdf.PdfReader(io.BytesIO(pdf_bytes(made))).pages[2]
    text = " ".join(page.extract_text().split())
    for words in (
        "Layout: body",
        "row 1",
        "row 8",
        "flap fold",
        "bottom fold",
        "turned ↓",
        "Join the 5 squares of each row",
        "Nest the crossings",
    ):
        assert words in text
    letters = Counter(word for word in text.split() if len(word) == 1 and word.isupper())
    laid = Counter(patch.print for patch in made.panel("body").patches)
    cases = list(key_of_prints(made, made.panel("body")))
    assert cases
    for line in cases:
        assert laid[line.cloth.key] == line.pieces
        assert letters[line.letter] >= line.pieces  # on the pieces, and once in the key


def _level_lines(page):
    """Lengths in millimetres of level straight lines, following the page's transformations."""
    matrix, stack, at, found = (1, 0, 0, 1, 0, 0), [], None, []

    def through(x, y):
        a, b, c, d, e, f = matrix
        return a * x + c * y + e, b * x + d * y + f

    for operands, operator in ContentStream(page.get_contents(), page.pdf).operations:
        numbers = [float(n) for n in operands if isinstance(n, (int, float))]
        if operator == b"q":
            stack.append(matrix)
        elif operator == b"Q":
            matrix = stack.pop()
        elif operator == b"cm":
            a, b, c, d, e, f = numbers
            A, B, C, D, E, G = matrix  # noqa: N806
            matrix = (
                a * A + b * C,
                a * B + b * D,
                c * A + d * C,
                c * B + d * D,
                e * A + f * C + E,
                e * B + f * D + G,
            )
        elif operator == b"m":
            at = through(*numbers)
        elif operator == b"l" and at is not None:
            to = through(*numbers)
            if abs(to[1] - at[1]) < 0.01:
                found.append(abs(to[0] - at[0]) / POINTS_PER_MM)
            at = to
    return found


@pytest.mark.parametrize("units", ["inch", "metric"])
def test_the_test_line_is_100_mm_long(pages, units):
    lengths = _level_lines(pages[units].pages[1])
    assert min(abs(length - 100) for length in lengths) < 0.05


def test_the_test_line_is_100_mm_long_when_rendered(qapp):
    """Rendered by another library at 10 pixels a millimetre, the line's ink is measured."""
    document = pypdfium2.PdfDocument(pdf_bytes(plan(tote(units="metric"))))
    bitmap = document[1].render(scale=10 / POINTS_PER_MM, grayscale=True).to_numpy()
    rows = bitmap[-220:-150]
    longest = max(_longest_dark_run(row) for row in rows)
    assert longest / 10 == pytest.approx(100, abs=0.5)


def _longest_dark_run(row):
    best = run = 0
    for value in row:
        run = run + 1 if value < 128 else 0
        best = max(best, run)
    return best


def test_the_svg_is_true_to_size(qapp):
    made = plan(tote())
    root = ET.fromstring(svg_bytes(made, "front"))
    view = [float(n) for n in root.attrib["viewBox"].split()]
    assert float(root.attrib["width"].removesuffix("mm")) / 25.4 * PER_INCH == pytest.approx(
        view[2], rel=0.01
    )
    picture = picture_of(made, View(Stage.TRIM, "front"))
    (left, top, right, bottom), (_, _, width, height) = picture.room, picture.box
    assert min(picture.room) > 0
    assert view[2] == pytest.approx(width * PER_INCH + left + right, abs=0.5)
    assert view[3] == pytest.approx(height * PER_INCH + top + bottom, abs=0.5)
    text = svg_bytes(made, "front").decode()
    assert "14¾" in text
    assert "<title>" in text


def test_the_cut_list_is_plain_csv():
    rows = list(csv.DictReader(io.StringIO(cut_csv(plan(tote())))))
    assert rows[0]["panel"] == "Front"
    assert {row["from"] for row in rows} == {
        "Red dots",
        "Blue checks",
        "Oat plain",
        "Cotton batting",
    }


def test_the_report_is_plain_json_with_every_figure_explained(demo):
    data = json.loads(json.dumps(report_data(plan(demo))))
    assert data["report"] == 3
    assert set(data) >= {"panels", "edges", "cut_list", "buy", "snags", "joins", "bag"}
    figures = [f for panel in data["panels"] for f in panel["figures"].values()]
    assert len(figures) > 40
    for figure in figures:
        assert set(figure) == {
            "label",
            "value",
            "number",
            "unit",
            "reads",
            "working",
            "words",
            "basis",
        }


@pytest.mark.parametrize("key", SHAPES)
def test_every_shape_is_reported_saved_printed_and_drawn(key, others, qapp):
    project = project_of(key)
    others.validate(json.loads(to_text(job_of(project))))
    made = plan(project)
    data = json.loads(json.dumps(report_data(made)))
    assert data["shape"] == key
    assert [panel["key"] for panel in data["panels"]] == [panel.key for panel in made.panels]
    assert data["cut_list"]
    assert made.shape.name in report_text(made)
    document = pypdf.PdfReader(io.BytesIO(pdf_bytes(made)))
    assert len(document.pages) == len(worksheet(made).pages)
    for panel in made.panels:
        ET.fromstring(svg_bytes(made, panel.key))


def test_the_report_lists_snags_with_place_and_fixes():
    data = report_data(plan(applied(tote(), edit("", ("binding.strips_on_hand", 0)))))
    (snag,) = data["snags"]
    assert snag["weight"] == "blocks"
    assert snag["fixes"] == ["Cut 1 strip", "Cut what it takes"]
    assert snag["place"]["kind"] == "line"


@pytest.mark.parametrize("side", ["front", "end", "above", "inside"])
def test_the_bag_as_it_stands_goes_into_a_drawing_and_a_picture(qapp, tmp_path, side):
    made = plan(tote())
    stand = stand_of(made, side)
    drawing, picture = tmp_path / "bag.svg", tmp_path / "bag.PNG"
    save_bag(made, stand, drawing)
    save_bag(made, stand, picture)
    root = ET.fromstring(drawing.read_bytes())
    box = in_hand(made, stand).box
    hand = hand_picture(in_hand(made, stand))
    wide = box[2] * PER_INCH + hand.room[0] + hand.room[2]
    assert float(root.attrib["viewBox"].split()[2]) == pytest.approx(wide, abs=0.6)
    assert "the bag" in drawing.read_text("utf-8")
    data = picture.read_bytes()
    assert data[:8] == b"\x89PNG\r\n\x1a\n"  # PNG specification, 3rd edition, section 5.2
    width, height = struct.unpack(">II", data[16:24])  # of its first chunk, section 11.2.1
    left, top, right, bottom = hand.room
    fine = min(192, 2400 / max(box[2:]))  # points to the inch, of no more than 2400 a side
    assert width == pytest.approx(box[2] * fine + (left + right) * fine / PER_INCH, abs=1)
    assert height == pytest.approx(box[3] * fine + (top + bottom) * fine / PER_INCH, abs=1)
    image = QImage(str(picture))
    seen = {image.pixel(x, y) for x in range(0, width, 9) for y in range(0, height, 9)}
    assert len(seen) > 50
