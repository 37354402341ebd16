"""The worksheet against docs/paper.md: what was decided there is measured in the PDF by pdfium.

Millimetres; letters keep up to half a millimetre of their own free at their sides.
"""

import itertools
import json
import re

import pytest

from tessil.core.plan import plan
from tessil.drawing.handview import stands_of
from tessil.drawing.layoutview import key_of_prints
from tessil.files.flow import Block, heading, paged, paragraph
from tessil.files.layoutpage import BESIDE, laid_out
from tessil.files.report import merged_rows
from tessil.files.sheet import text as face
from tessil.files.sheet import wrapped_high
from tessil.files.striplist import HEAD, strip_rows
from tessil.files.worksheet import pdf_bytes
from tests.conftest import DEMO, bag_from
from tests.outside.printed import DEMOS, MM, demo_sheet, printed

MARGIN, FREE, SIDE = 14, 3.5, 0.7


@pytest.fixture(scope="module", params=DEMOS)
def sheet(request, qapp):
    made, pdf = demo_sheet(request.param)
    return made, printed(pdf)


def near(value, by=SIDE):
    return pytest.approx(value, abs=by)


def inner(page):
    return page.width - 2 * MARGIN


def pages_with(pages, begins):
    """Letters that pdfium reads twice may stand doubled in a title."""
    found = [page for page in pages if _at(page, begins)]
    assert found, begins
    return found


def _at(page, begins):
    """The line of a page that begins so; titles may have their first letters twice."""
    found = [line for line in page.lines if line.words.startswith(begins)]
    large = [line for line in page.lines if line.high > 3.9 and begins in line.words]
    return next(iter(found + large), None)


def test_every_page_has_its_head_and_its_line(sheet):
    made, pages = sheet
    for number, page in enumerate(pages, start=1):
        name, count, said = page.lines[:3]
        assert made.project.name.startswith(name.words.strip()[:12])
        assert count.words.strip() == f"page {number} of {len(pages)}"
        assert name.left == near(MARGIN)
        assert count.right == near(page.width - MARGIN)
        assert (name.top - 0.3) < count.middle < name.bottom
        assert said.words.startswith(made.shape.name)
        assert said.left == near(MARGIN)
        rule = page.rules[0]
        assert rule.middle == near(MARGIN + 18, 0.1)
        assert (rule.left, rule.right) == (near(MARGIN, 0.3), near(page.width - MARGIN, 0.3))
        assert name.bottom < said.top
        assert 2 < rule.top - said.bottom < 5
        first = min(box.top for box in (*page.lines[3:], *page.frames))
        assert first >= MARGIN + 21
        line = page.rules[-1]
        assert line.middle == near(page.height - MARGIN - 5, 0.1)
        assert (line.left, line.wide) == (near(MARGIN, 0.3), near(100, 0.5))
        said = page.line("This line is 100 mm")
        assert said.left == near(MARGIN)
        assert 1 < said.top - line.bottom < 4


def test_a_ladder_has_four_rungs_abreast_and_room_to_write(sheet):
    made, pages = sheet
    panels = {panel.panel.label: made.ladder(panel.key)[:-1] for panel in made.panels}
    quarter, found = inner(pages[0]) / 4, 0
    for page in pages:
        for line in page.lines:
            label = re.sub(r" ?×?\s*\d*$", "", line.words.strip())
            rules = [rule.middle for rule in page.rules if 0 < line.top - rule.middle < 3]
            if label not in panels or not rules or line.left > 20:
                continue
            found += 1
            top, rungs = rules[-1], panels[label]
            starts = [MARGIN + at * quarter for at in range(len(rungs))]
            row = [one for one in page.lines if top + 6 < one.top and one.bottom < top + 17]
            says = [one for one in row if re.search("[a-z]{4}", one.words)]
            assert [one.left for one in says] == [near(start) for start in starts]
            for rung, one in zip(rungs, says, strict=True):
                assert one.words.strip() == f"{rung.label}, {rung.note}"
            sizes = [one for one in row if one not in says]
            columns = {int((one.left - MARGIN + 1) // quarter) for one in sizes}
            assert columns == set(range(len(rungs)))
            assert all(top + 10 < one.middle < top + 16 for one in sizes)
            boxes = [box for box in page.frames if top < box.top < top + 23.5 and box.high < 8]
            boxed = [start for start, rung in zip(starts, rungs, strict=True) if rung.measurable]
            assert [box.left for box in boxes] == [near(start, 0.3) for start in boxed]
            for box in boxes:
                assert box.wide == near(quarter - 5, 0.3)
                assert box.high == near(5.6, 0.3)
                assert box.top == near(top + 16.6, 0.2)
                inside = [one for one in page.lines if box.holds(one)]
                assert [one.words.strip() for one in inside] == ["I got"]
                assert inside[0].left - box.left == near(1.2, 0.4)
                assert inside[0].middle - box.top == near(2.4, 0.4)
            below = [rule.middle for rule in page.rules if rule.middle > top + 1]
            high = 23.5 if boxed else 18
            assert min(below) == near(top + high, 0.2) or min(below) > top + high + 3
    assert found == len(panels)


TABLES = {
    "To cut": ("width × height", None, "rr"),
    "To buy": ("To buy", (34, 20, 46), "lrl"),
    "Layers: ": ("cut, width × height", (24, 30, 28, 18), "llll"),
    "Figures of the edges": ("Figures of the edges", (36, 14, 50), "lrl"),
}


def starts_of(page, title):
    """Where the columns of a table begin, and the sheet's right margin."""
    shares = TABLES[title][1]
    if shares is None:
        rest = inner(page) - 66
        wide = [20, 46, 0.54 * rest, 0.46 * rest]
    else:
        wide = [share / 100 * inner(page) for share in shares]
    return [MARGIN + sum(wide[:at]) for at in range(len(wide) + 1)]


@pytest.mark.parametrize("title", list(TABLES))
def test_columns_stand_where_they_were_decided(sheet, title):
    """Words begin with their column, numbers end before the next; nothing runs into it."""
    _, pages = sheet
    under, _, sides = TABLES[title]
    sides = sides.ljust(4, "l")
    if not any(_at(page, under) for page in pages):
        pytest.skip("nothing of that in this bag")
    met = set()
    for page in pages_with(pages, under):
        starts = starts_of(page, title)
        ends = ("This line", "Mind", "Under the", "Keep ", "Rotary", "Cut ", "To buy")
        for line in page.between(_at(page, under).words, ends):
            if "⁄" in line.words:
                continue  # the strokes of a fraction are read by themselves
            at = max(at for at in range(len(starts) - 1) if line.left > starts[at] - 1)
            assert line.right <= starts[at + 1] - FREE + 0.6, line.words
            if sides[at] == "r" and not line.words.strip().isalpha():
                met.add((at, abs(line.right - starts[at + 1] + FREE) < 1))
            elif sides[at] == "l":
                met.add((at, abs(line.left - starts[at]) < SIDE))
    assert met == {(at, True) for at in range(len(starts) - 1)}


def test_every_cut_has_its_box_to_tick(sheet):
    made, pages = sheet
    boxes = []
    for page in pages_with(pages, "width × height"):
        rules = [rule.middle for rule in page.rules]
        for box in page.frames:
            if (box.wide, box.high) == (near(3.4, 0.05), near(3.4, 0.05)) and box.left < MARGIN + 1:
                boxes.append(box)
                assert box.left == near(MARGIN, 0.1)
                above = max(rule for rule in rules if rule < box.top)
                number = [
                    one
                    for one in page.lines
                    if MARGIN + 5 < one.left < MARGIN + 18 and above < one.top < box.bottom + 4
                ]
                assert number[0].middle == near(box.middle, 0.8)
    assert len(boxes) == len(merged_rows(made))


def test_a_row_is_as_high_as_its_longest_words_and_some_air(qapp):
    """One line of 9½ points stands 1.2 mm from the next rule; two lines take two."""
    words = "A word that is said again and again until it goes on. " * 3
    one, many = (wrapped_high(text, face(9.5), 60) for text in ("A word", words))
    assert one == near(9.5 * MM * 1.3, 0.5)
    assert many / one == near(round(many / one), 0.05)
    assert paragraph("A word", 60).high == near(wrapped_high("A word", face(10), 60) + 1.5, 0.01)
    assert heading("A title", 13).high == near(13 * 0.55 + 2, 0.01)
    assert heading("A title").leads
    assert heading("A title", fresh=True).fresh


def test_blocks_fill_a_page_to_its_last_millimetre():
    whole, half = Block(100, print), Block(50, print)
    assert [len(page) for page in paged([half, half, whole], 100)] == [2, 1]
    assert [len(page) for page in paged([half, half, whole], 99)] == [1, 1, 1]
    again = Block(10, print)
    rows = [Block(30, print, again=again) for _ in range(6)]
    pages = paged(rows, 100)
    assert [len(page) for page in pages] == [3, 4]  # the second begins with the head once more
    assert pages[1][0] is again
    pages = paged(rows, 99)
    assert [len(page) for page in pages] == [3, 3, 2]
    assert paged([half, Block(10, print, fresh=True)], 100)[1][0].fresh


def _keyed(number, name="Cutting {}"):
    """The clutch with so many prints of its own, and how their key is printed."""
    data = json.loads(DEMO.with_stem("march-card-clutch").read_text())
    model = next(one for one in data["prints"] if one["key"] == "dots")
    names = [name.format(at) for at in range(number)]
    data["prints"] = [
        {**model, "key": f"p{at}", "name": words, "amount": None} for at, words in enumerate(names)
    ]
    data["panels"]["body"]["piecing"]["prints"] = [f"p{at}" for at in range(number)]
    data["panels"]["body"]["piecing"]["turned"] = []
    made = plan(bag_from(json.dumps(data)))
    (page,) = pages_with(printed(pdf_bytes(made)), "Layout: ")
    keyed = [line.cloth.name for line in key_of_prints(made, made.panel("body"))]
    firsts = [words[:10] for words in keyed]
    return page, [next(one for one in page.lines if one.words.startswith(w)) for w in firsts]


def _swatches(page, names):
    """Each name's piece of the print, and its letter."""
    for name in names:
        before = [box for box in page.frames if 0 < name.left - box.right < 4]
        (box,) = (one for one in before if one.holds_level(name))
        letters = [one for one in page.lines if 0 < box.left - one.left < 9]
        (letter,) = (one for one in letters if box.holds_level(one))
        yield box, letter, name


def test_the_key_of_prints_stands_beside_the_picture_where_it_fits(qapp):
    page, names = _keyed(4)
    left = page.width - MARGIN - 58
    assert [one.left for one in names] == [near(left + 18)] * 4
    assert [b.top - a.top for a, b in itertools.pairwise(names)] == [near(7, 0.5)] * 3
    assert names[0].top == near(page.line("row 1").top, 20)
    for box, letter, name in _swatches(page, names):
        assert (box.wide, box.high) == (near(8, 0.3), near(5, 0.3))
        assert box.left == near(left + 8, 0.3)
        assert name.middle == near(box.middle, 1)
        assert letter.left == near(left)
        assert letter.middle == near(box.middle, 1)


def test_eighteen_lines_fit_beside_a_picture_and_one_stays_free():
    """128 mm of picture, 7 mm a line: 18 and a third."""
    assert BESIDE == 128 // 7 - 1 == 17


@pytest.mark.parametrize(
    ("number", "name"), [(30, "Cutting {}"), (4, "Cutting {} of a long and winding ribbon in plum")]
)
def test_a_key_that_is_too_long_stands_three_abreast_below_the_picture(qapp, number, name):
    page, names = _keyed(number, name)
    third = inner(page) / 3
    starts = [MARGIN + at * third + 18 for at in range(3)]
    assert [one.left for one in names[:4]] == [near(one) for one in (*starts, starts[0])]
    assert names[0].top == near(names[2].top, 0.8)
    assert names[0].top - (MARGIN + 21) > 128
    if number > 4:
        assert len(names) > BESIDE
        assert names[3].top - names[0].top == near(7, 0.3)
    else:  # two lines of words are higher than one
        assert names[3].top - names[0].top > 7.5
    for box, letter, name in _swatches(page, names):
        assert letter.left == near(box.left - 8)
        assert name.left == near(box.left + 10)


def test_a_layout_says_how_many_of_each_print(sheet):
    made, pages = sheet
    found = [page for page in pages if _at(page, "Layout: ")]
    for panel, page in zip(laid_out(made), found, strict=True):
        said = " ".join(one.words.strip() for one in page.lines)
        for line in key_of_prints(made, panel):
            turned = f", {line.turned} turned ↓" if line.turned else ""
            assert f"{line.cloth.name}: {line.pieces}{turned}" in said


def test_the_strips_have_every_column_on_the_page(sheet):
    """Nine columns between the margins; a head never runs into the next."""
    made, pages = sheet
    rows = strip_rows(made)
    if not rows:
        pytest.skip("a bag without strips")
    page = pages_with(pages, "Strips, in the order")[0]
    shares = (13, 15, 6, 7.5, 7.5, 12, 16, 8, 15)
    starts = [MARGIN + sum(shares[:at]) / 100 * inner(page) for at in range(9)]
    title = _at(page, "Strips, in the order")
    heads = [one for one in page.lines if title.bottom < one.top < title.bottom + 6]
    assert [one.words.strip() for one in heads] == list(HEAD)
    assert [one.left for one in heads] == [near(start) for start in starts]
    assert heads[-1].right < page.width - MARGIN


def test_the_swatch_form_has_four_columns_of_boxes(sheet):
    made, pages = sheet
    if not made.panel(made.shape.leader).quilt.lines:
        pytest.skip("nothing is quilted")
    (page,) = pages_with(pages, "Swatches")
    wide = (inner(page) - 40) / 4
    boxes = [box for box in page.frames if box.top > page.line("swatch 1").bottom]
    assert len(boxes) == 4 * 13
    for row in range(13):
        four = boxes[4 * row : 4 * row + 4]
        assert [box.left for box in four] == [near(MARGIN + 40 + at * wide, 0.3) for at in range(4)]
        assert all(box.high == near(9.4, 0.3) for box in four)
        assert all(box.wide == near(wide - 3, 0.3) for box in four)
        assert four[0].top - boxes[0].top == near(11 * row, 0.2)
        blank = [one for one in page.lines if one.left < MARGIN + 3 and four[0].holds_level(one)]
        assert len(blank) == 1
        assert blank[0].middle == near(four[0].middle, 1)
    heads = [page.line(f"swatch {at}") for at in range(1, 5)]
    assert [one.left for one in heads] == [near(MARGIN + 40 + at * wide) for at in range(4)]
    assert 1 < boxes[0].top - heads[0].bottom < 5


def test_pictures_keep_to_their_columns_and_their_words_stand_below(sheet):
    made, pages = sheet
    sides = [side for side in ("front", "back", "end") if side in stands_of(made)]
    page = pages[0]
    said = [page.line(f"The finished bag, from the {side}") for side in sides]
    wide = inner(page) / len(sides)
    assert [one.left for one in said] == [near(MARGIN + at * wide) for at in range(len(sides))]
    assert len({round(one.top) for one in said}) == 1
    trim = page.line("Trim, and cut the corners")
    assert trim.left == near(MARGIN + inner(page) / 2)
    assert page.line("Quilt; trim on the broken line").left == near(MARGIN)
    # 76 mm of picture below the head, then the words; 60 mm, then the next.
    assert trim.top == near(MARGIN + 21 + 76 + 0.8, 0.4)
    assert said[0].top - trim.top == near(60 + wrapped_high("A word", face(9), 60) + 3, 0.4)
    held = made.project.hold.things
    words = [one for one in page.lines if held and held[0].name in one.words]
    assert len(words) == bool(held)  # what it holds is drawn once: in the view from the front
    for one in words:
        assert one.left < MARGIN + wide


def test_no_page_says_what_only_the_code_knows(sheet):
    """Words of the house, not of the program that wrote them."""
    _, pages = sheet
    for page in pages:
        for line in page.lines:
            assert not re.search(r"\w\(\w+=|Fraction|None|<\w+|\{\w*\}|\bTrue\b", line.words)
