"""A PDF that says what its parts are: headings, paragraphs, tables, pictures with their words.

The toolkit's writer draws and no more.  While pages are painted, marks too small to be seen are
left where each part begins and ends; in the file they become marked content (ISO 32000-1, 14.6 to
14.8), and the tree that names the parts in their order is added.  What lies in no part, such as
rules and page heads, is an artifact.
"""

from __future__ import annotations

import io
import re
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field
from functools import partial
from typing import TYPE_CHECKING, Literal

from PySide6.QtCore import QRectF, Qt
from PySide6.QtGui import QColor, QPainter

if TYPE_CHECKING:
    from pypdf import PdfWriter
    from pypdf.generic import DictionaryObject, IndirectObject, PdfObject

Tag = Literal["Document", "H1", "H2", "P", "Table", "TR", "TH", "TD", "Figure", "Caption"]
LANGUAGE = "en"
_MARK = re.compile(rb"q\n/CSp cs\n0\.0039\d* ([\d.]+) ([\d.]+) scn\n/GSa gs\n0 0 1 1 re\nf\nQ\n")


@dataclass
class Element:
    """A part: what it is, the words that stand for it where it is drawn, what it consists of."""

    tag: Tag
    words: str = ""
    key: str = ""
    kids: list[Element | tuple[int, int]] = field(default_factory=list)  # or (page, mark) pairs


class Tags:
    """The parts of a document, told while its pages are painted one after the other."""

    def __init__(self) -> None:
        self.root = Element("Document")
        self.pages: list[list[Element]] = []  # of each page the part that each number is of
        self._open = [self.root]
        self._marks: list[list[bytes]] = []

    def page(self, painter: QPainter) -> None:
        """A page begins; so far it is an artifact."""
        self.pages.append([])
        self._marks.append([])
        self._mark(painter, b"/Artifact BMC\n")

    def page_ends(self, painter: QPainter) -> None:
        """Nothing more is painted on this page."""
        self._mark(painter, b"EMC\n")

    @contextmanager
    def grouped(self, tag: Tag, key: str) -> Iterator[None]:
        """What is told inside belongs to one part: that of last time, where the key is the same."""
        kids = self._open[-1].kids
        last = kids[-1] if kids else None
        group = (
            last if isinstance(last, Element) and key and last.key == key else Element(tag, "", key)
        )
        if group is not last:
            kids.append(group)
        self._open.append(group)
        yield
        self._open.pop()

    @contextmanager
    def tagged(self, painter: QPainter, tag: Tag, words: str) -> Iterator[None]:
        """What is painted inside is a part of the one that is open."""
        part = Element(tag, words)
        page = len(self.pages) - 1
        part.kids.append((page, len(self.pages[page])))
        self.pages[page].append(part)
        self._open[-1].kids.append(part)
        number = len(self.pages[page]) - 1
        self._mark(painter, b"EMC\n/%s <</MCID %d>> BDC\n" % (tag.encode(), number))
        yield
        self._mark(painter, b"EMC\n/Artifact BMC\n")

    def _mark(self, painter: QPainter, operators: bytes) -> None:
        """A point in the corner, whose colour is the number of what it stands for."""
        marks = self._marks[-1]
        painter.save()
        painter.resetTransform()
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(QColor(1, len(marks) >> 8, len(marks) & 255))
        painter.drawRect(QRectF(0, 0, 1, 1))
        painter.restore()
        marks.append(operators)

    # -- into the file ------------------------------------------------------------------------

    def put_into(self, pdf: bytes) -> bytes:
        """The document with its parts named.  One in which the marks are not found again as they
        were left stays as it is: it reads as well, without its tree."""
        from pypdf import PdfReader, PdfWriter
        from pypdf.generic import NameObject, NumberObject

        writer = PdfWriter(clone_from=PdfReader(io.BytesIO(pdf)))
        streams = [page.get_contents() for page in writer.pages]
        told = [b"" if one is None else one.get_data() for one in streams]
        if [_numbers(one) for one in told] != [list(range(len(m))) for m in self._marks]:
            return pdf
        for page, data, marks in zip(writer.pages, told, self._marks, strict=True):
            _set_contents(writer, page, _MARK.sub(partial(_operators, marks), data))
        for at, page in enumerate(writer.pages):
            page[NameObject("/StructParents")] = NumberObject(at)
            page[NameObject("/Tabs")] = NameObject("/S")
        self._add_tree(writer)
        out = io.BytesIO()
        writer.write(out)
        return out.getvalue()

    def _add_tree(self, writer: PdfWriter) -> None:
        from pypdf.generic import (
            ArrayObject,
            BooleanObject,
            DictionaryObject,
            NameObject,
            NumberObject,
            TextStringObject,
        )

        tree = DictionaryObject({NameObject("/Type"): NameObject("/StructTreeRoot")})
        root = writer._add_object(tree)
        made: dict[int, IndirectObject] = {}
        pages = [one for page in writer.pages if (one := page.indirect_reference) is not None]
        tree[NameObject("/K")] = ArrayObject([_element(writer, self.root, root, pages, made)])
        numbers = ArrayObject()
        for at, parts in enumerate(self.pages):
            numbers.append(NumberObject(at))
            numbers.append(writer._add_object(ArrayObject([made[id(part)] for part in parts])))
        parents = DictionaryObject({NameObject("/Nums"): numbers})
        tree[NameObject("/ParentTree")] = writer._add_object(parents)
        tree[NameObject("/ParentTreeNextKey")] = NumberObject(len(self.pages))
        catalog = writer.root_object
        catalog[NameObject("/StructTreeRoot")] = root
        catalog[NameObject("/Lang")] = TextStringObject(LANGUAGE)
        yes = BooleanObject(True)
        catalog[NameObject("/MarkInfo")] = DictionaryObject({NameObject("/Marked"): yes})
        shown = DictionaryObject({NameObject("/DisplayDocTitle"): yes})
        catalog[NameObject("/ViewerPreferences")] = shown
        for part in _walk(self.root):
            if part.tag == "H2" and part.kids:
                page, _ = part.kids[0]  # type: ignore[misc]
                writer.add_outline_item(title=part.words, page_number=page)


def _element(
    writer: PdfWriter,
    part: Element,
    parent: IndirectObject,
    pages: list[IndirectObject],
    made: dict[int, IndirectObject],
) -> IndirectObject:
    """A part and all that it consists of, as objects of the file."""
    from pypdf.generic import (
        ArrayObject,
        DictionaryObject,
        NameObject,
        NumberObject,
        TextStringObject,
    )

    one = DictionaryObject(
        {
            NameObject("/Type"): NameObject("/StructElem"),
            NameObject("/S"): NameObject(f"/{part.tag}"),
            NameObject("/P"): parent,
        }
    )
    own: IndirectObject = writer._add_object(one)
    made[id(part)] = own
    if part.words:
        name = "/Alt" if part.tag == "Figure" else "/T"
        one[NameObject(name)] = TextStringObject(part.words)
    kids: list[PdfObject] = []
    for kid in part.kids:
        if isinstance(kid, Element):
            kids.append(_element(writer, kid, own, pages, made))
        else:
            page, number = kid
            one[NameObject("/Pg")] = pages[page]
            kids.append(NumberObject(number))
    one[NameObject("/K")] = kids[0] if len(kids) == 1 else ArrayObject(kids)
    return own


def _walk(part: Element) -> Iterator[Element]:
    yield part
    for kid in part.kids:
        if isinstance(kid, Element):
            yield from _walk(kid)


def _number(mark: re.Match[bytes]) -> int:
    high, low = (round(float(share) * 255) for share in mark.groups())
    return high << 8 | low


def _operators(marks: list[bytes], found: re.Match[bytes]) -> bytes:
    """What stands in the file where a mark was left."""
    return marks[_number(found)]


def _numbers(data: bytes) -> list[int]:
    return [_number(mark) for mark in _MARK.finditer(data)]


def _set_contents(writer: PdfWriter, page: DictionaryObject, data: bytes) -> None:
    from pypdf.generic import NameObject, StreamObject

    stream = StreamObject()
    stream.set_data(data)
    page[NameObject("/Contents")] = writer._add_object(stream.flate_encode())
