"""Templates read back by pdfium: every panel at its own size to 0.2 mm, on every tile where it
belongs; the test square; paper by ISO 216 (A4) and ANSI/ASME Y14.1 (Letter), from memory.
"""

from itertools import pairwise

import pypdf
import pypdfium2
import pypdfium2.raw as raw
import pytest

from tessil.core.plan import plan
from tessil.files.printing import pdf_of, room_on
from tessil.files.templates import EDGE, OVERLAP, templates, tiles_for
from tests.conftest import DEMO, load_bag, tote
from tests.outside.printed import MM, Printed, _points

A4, LETTER = (210.0, 297.0), (215.9, 279.4)
MARGIN, TOP = 14.0, 14.0 + 21.0  # mm
NEAR = 0.2  # mm


def paths(page):
    """Every path of a page, in millimetres from its top left."""
    high = page.get_size()[1]
    for one in page.get_objects(filter=[raw.FPDF_PAGEOBJ_PATH]):
        yield [(x * MM, (high - y) * MM) for x, y in _points(one)]


def outlines_of(made):
    return {
        panel.key: [(float(x) * 25.4, float(y) * 25.4) for x, y in panel.panel.outline]
        for panel in made.panels
    }


@pytest.mark.parametrize("key", ["reed-pouch", "rehearsal-satchel"])
@pytest.mark.parametrize("large", [False, True])
def test_every_panel_has_its_own_size_on_every_tile(qapp, key, large):
    made = plan(load_bag(DEMO.with_name(f"{key}.tessil")))
    sheets = templates(made, large)
    room = room_on(sheets.size)
    document = pypdfium2.PdfDocument(pdf_of(sheets, "Templates"))
    wanted = [
        (panel.key, tile)
        for panel in made.panels
        for tile in tiles_for(*(float(v) * 25.4 for v in panel.trimmed.values()), room)
    ]
    assert len(document) == len(wanted)
    assert large == (len(wanted) == len(made.panels))
    outlines = outlines_of(made)
    for page, (panel, tile) in zip(document, wanted, strict=True):
        there = [(x - tile.x + MARGIN, y - tile.y + TOP) for x, y in outlines[panel]]
        longs = [path for path in paths(page) if len(path) == len(there) + 1]
        assert any(
            all(
                abs(x - px) <= NEAR and abs(y - py) <= NEAR
                for (x, y), (px, py) in zip(path[:-1], there, strict=True)
            )
            for path in longs
        ), (panel, tile.name)
        if not tile.row and not tile.column:
            squares = [box for box in Printed(page).frames if abs(box.wide - 50) <= NEAR]
            assert any(abs(box.high - 50) <= NEAR for box in squares)


@pytest.mark.parametrize(("units", "size"), [("metric", A4), ("inch", LETTER)])
def test_the_paper_is_a4_or_letter(qapp, tmp_path, units, size):
    path = tmp_path / "templates.pdf"
    path.write_bytes(pdf_of(templates(plan(tote(units=units))), "Templates"))
    for page in pypdf.PdfReader(path).pages:
        box = page.mediabox
        assert (float(box.width) * MM, float(box.height) * MM) == pytest.approx(size, abs=0.4)


@pytest.mark.parametrize("wide", [20.0, 180.0, 183.9, 190.0, 400.0, 1000.0])
def test_tiles_cover_the_panel_and_share_an_edge(wide):
    room = (187.9, 222.4)
    tiles = list(tiles_for(wide, wide, room))
    lefts = sorted({tile.x for tile in tiles})
    assert lefts[0] == -EDGE
    assert lefts[-1] + room[0] >= wide + EDGE - 1e-9
    assert all(b - a == pytest.approx(room[0] - OVERLAP) for a, b in pairwise(lefts))
    assert len({tile.name for tile in tiles}) == len(tiles)
    # no page more than are needed
    assert lefts[-1] < wide + EDGE - OVERLAP or len(lefts) == 1


def test_each_tile_says_which_it_is_and_of_how_many(qapp):
    """Columns have letters, rows numbers; the last is told with each."""
    made = plan(tote(units="metric"))
    sheets = templates(made)
    room = room_on(sheets.size)
    document = pypdfium2.PdfDocument(pdf_of(sheets, "Templates"))
    front = list(tiles_for(*(float(v) * 25.4 for v in made.panels[0].trimmed.values()), room))
    columns, rows = front[0].columns, front[0].rows
    assert columns > 1
    last = f"{'ABC'[columns - 1]}{rows}"
    names = [f"{'ABC'[tile.column]}{tile.row + 1}" for tile in front]
    assert [tile.name for tile in front] == names
    for page, name in zip(document, names, strict=False):
        assert f"{name} of {last}" in page.get_textpage().get_text_range()


def test_on_large_paper_there_is_one_page_a_panel_with_an_edge_all_round(qapp):
    """As wide as the widest and as high as the highest, with the margin and 6 mm at either side."""
    made = plan(tote(units="metric"))
    document = pypdfium2.PdfDocument(pdf_of(templates(made, True), "Templates"))
    widest = max(float(panel.trimmed.width.value) for panel in made.panels) * 25.4
    for page in document:
        assert page.get_size()[0] * MM == pytest.approx(widest + 2 * (MARGIN + EDGE), abs=0.5)
