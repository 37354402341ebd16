"""What the printed pages say of themselves to a program that reads them aloud, told by pdfium and
pypdf.  They are held against ISO 32000-1, 14.6 to 14.8 (marked content, structure, its types)."""

import ctypes
import io
from dataclasses import dataclass, field

import pypdf
import pypdfium2
import pypdfium2.raw as raw
import pytest
from pypdf.generic import ContentStream

from tessil.core.making.acts.whole import making_of
from tessil.core.making.choice import Made
from tessil.core.plan import plan
from tessil.core.words.making import OPERATION_WORDS
from tessil.drawing.fonts import load_fonts
from tessil.files import tagging
from tessil.files.makingpages import sewing_sheet
from tessil.files.printing import pdf_of
from tessil.files.tagpages import tag_pages
from tessil.files.templates import templates
from tessil.files.worksheet import worksheet
from tests.conftest import DEMO, load_bag

# ISO 32000-1, tables 333 to 340: of the standard types those that are used here.
STANDARD = {"Document", "H1", "H2", "P", "Table", "TR", "TH", "TD", "Figure", "Caption"}


@dataclass
class Part:
    kind: str
    alt: str
    number: int
    kids: list = field(default_factory=list)


def _text(ask, element):
    size = ask(element, None, 0)
    buffer = ctypes.create_string_buffer(max(size, 2))
    ask(element, buffer, size)
    return buffer.raw[:size].decode("utf-16le").rstrip("\0")


def _part(element):
    kids = [
        raw.FPDF_StructElement_GetChildAtIndex(element, at)
        for at in range(raw.FPDF_StructElement_CountChildren(element))
    ]
    return Part(
        _text(raw.FPDF_StructElement_GetType, element),
        _text(raw.FPDF_StructElement_GetAltText, element),
        raw.FPDF_StructElement_GetMarkedContentID(element),
        [_part(kid) for kid in kids if kid],
    )


def every(part):
    yield part
    for kid in part.kids:
        yield from every(kid)


class Read:
    """A document as pdfium tells it: of each page its part of the tree, and its words by number."""

    def __init__(self, pdf):
        self.document = pypdfium2.PdfDocument(pdf)
        self.tagged = bool(raw.FPDFCatalog_IsTagged(self.document))
        self.pages = [self._page(page) for page in self.document]

    def _page(self, page):
        tree = raw.FPDF_StructTree_GetForPage(page)
        number = raw.FPDF_StructTree_CountChildren(tree)
        assert number == 1
        root = _part(raw.FPDF_StructTree_GetChildAtIndex(tree, 0))
        raw.FPDF_StructTree_Close(tree)
        return root, self._words(page)

    def _words(self, page):
        """The words of each marked part, in the order in which they are drawn."""
        text, said = page.get_textpage(), {}
        for at in range(raw.FPDFPage_CountObjects(page)):
            one = raw.FPDFPage_GetObject(page, at)
            if raw.FPDFPageObj_GetType(one) != raw.FPDF_PAGEOBJ_TEXT:
                continue
            size = raw.FPDFTextObj_GetText(one, text, None, 0)
            buffer = ctypes.create_string_buffer(size)
            raw.FPDFTextObj_GetText(
                one, text, ctypes.cast(buffer, ctypes.POINTER(ctypes.c_ushort)), size
            )
            number = raw.FPDFPageObj_GetMarkedContentID(one)
            words = buffer.raw[:size].decode("utf-16le").rstrip("\0")
            said[number] = said.get(number, "") + words
        return said

    def told(self, *kinds):
        """The words of every part of these kinds, from the first page to the last."""
        return [
            said.get(part.number, "").strip()
            for root, said in self.pages
            for part in every(root)
            if part.kind in kinds
        ]


@pytest.fixture(scope="module")
def pouch(qapp):
    load_fonts()
    return plan(load_bag(DEMO.with_name("reed-pouch.tessil")))


@pytest.fixture(scope="module")
def sheets(pouch):
    """Every kind of printed page there is of the pouch."""
    made = [
        sewing_sheet(pouch, making_of(pouch, Made())),
        worksheet(pouch),
        tag_pages(pouch),
        templates(pouch),
    ]
    return [(sheet, pdf_of(sheet, f"Reed pouch {at}")) for at, sheet in enumerate(made)]


def test_every_document_says_what_its_parts_are(sheets):
    for sheet, pdf in sheets:
        read = Read(pdf)
        assert read.tagged
        assert len(read.pages) == len(sheet.pages)
        root = pypdf.PdfReader(io.BytesIO(pdf)).trailer["/Root"]
        assert root["/Lang"] == "en"
        assert root["/MarkInfo"]["/Marked"]
        kinds = {part.kind for tree, _ in read.pages for part in every(tree)}
        assert kinds <= STANDARD
        assert read.told("H1") == [sheet.name]


def test_all_that_is_drawn_is_a_part_or_an_artifact(sheets):
    """Marked content is opened and closed in turn, never one inside another, and no word is shown
    outside of it; the numbers of a page are all in the tree, each once."""
    for _, pdf in sheets:
        reader, read = pypdf.PdfReader(io.BytesIO(pdf)), Read(pdf)
        for page, (tree, _) in zip(reader.pages, read.pages, strict=True):
            deep, numbers = 0, []
            for operands, operator in ContentStream(page.get_contents(), reader).operations:
                if operator in (b"BDC", b"BMC"):
                    deep += 1
                    if operator == b"BDC":
                        numbers.append(operands[1]["/MCID"])
                deep -= operator == b"EMC"
                assert deep in (0, 1)
                assert deep or operator not in (b"Tj", b"TJ", b"f", b"S", b"B", b"Do")
            assert deep == 0
            assert numbers == list(range(len(numbers)))
            found = [part.number for part in every(tree) if part.number >= 0]
            assert sorted(found) == numbers
            assert found == sorted(found)  # read in the order in which it is drawn


def test_the_sewing_sheet_is_headed_by_its_kinds_of_work_and_its_steps_are_rows(pouch, sheets):
    making = making_of(pouch, Made())
    read = Read(sheets[0][1])
    heads = [OPERATION_WORDS[name] for name in dict.fromkeys(d.operation for d in making.deeds)]
    assert read.told("H2") == [*heads, "What the words mean", "Care"]
    rows = [part for tree, _ in read.pages for part in every(tree) if part.kind == "TR"]
    assert all({kid.kind for kid in row.kids} <= {"TH", "TD"} for row in rows)
    numbers = [int(word) for word in read.told("TD") if word.isdigit()]
    assert numbers == list(range(1, len(making.deeds) + 1))
    outline = [item.title for item in pypdf.PdfReader(io.BytesIO(sheets[0][1])).outline]
    assert outline == read.told("H2")


def test_a_table_that_goes_on_is_one_and_its_head_is_read_once(sheets):
    """At the top of the next page the head stands again, for the eye alone."""
    _, pdf = sheets[0]
    root = pypdf.PdfReader(io.BytesIO(pdf)).trailer["/Root"]["/StructTreeRoot"]["/K"]
    (document,) = (one.get_object() for one in root)
    tables = [k.get_object() for k in document["/K"] if k.get_object()["/S"] == "/Table"]
    heads = [
        sum(cell.get_object()["/S"] == "/TH" for cell in row.get_object()["/K"])
        for table in tables
        for row in table["/K"]
    ]
    assert sum(head > 0 for head in heads) == sum(any(t) for t in _headed(tables))
    assert max(sum(t) for t in _headed(tables)) == 1  # no table is headed twice
    pages = {len({row_page(row.get_object()) for row in table["/K"]}) for table in tables}
    assert max(pages) > 1


def _headed(tables):
    """Of each table, for each row whether it is a head."""
    return [
        [row.get_object()["/K"][0].get_object()["/S"] == "/TH" for row in table["/K"]]
        for table in tables
    ]


def row_page(row):
    """The page on which a row's first cell stands."""
    cells = row["/K"] if isinstance(row["/K"], list) else [row["/K"]]
    return cells[0].get_object()["/Pg"].get_object().indirect_reference.idnum


def test_every_picture_has_words_for_it(sheets):
    for _, pdf in sheets:
        figures = [p for tree, _ in Read(pdf).pages for p in every(tree) if p.kind == "Figure"]
        assert all(len(figure.alt) > 8 for figure in figures)
    assert len([p for tree, _ in Read(sheets[3][1]).pages for p in every(tree) if p.alt]) >= 2


def test_a_document_whose_marks_are_not_found_stays_as_it_was(sheets, monkeypatch):
    monkeypatch.setattr(tagging, "_MARK", tagging.re.compile(rb"never (there) (at all)"))
    sheet, _ = sheets[2]
    pdf = pdf_of(sheet, "Plain")
    assert not raw.FPDFCatalog_IsTagged(pypdfium2.PdfDocument(pdf))
    assert len(pypdf.PdfReader(io.BytesIO(pdf)).pages) == len(sheet.pages)
