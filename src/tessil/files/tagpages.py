"""Price tags and the text of a sewn-in label for the bags in hand, to print and cut out."""

from __future__ import annotations

from collections.abc import Iterator

from tessil.core.planned import Plan
from tessil.core.words.mending import care_words, made_of_words
from tessil.core.words.money import money_text
from tessil.drawing import theme
from tessil.drawing.fonts import load_fonts
from tessil.files.flow import Block, gap, heading, paged, paragraph
from tessil.files.printing import Pages, paper_for, room_on
from tessil.files.sheet import LEAST, MARGIN, Sheet, text, title

MOST = 24  # tags; more are printed again
TAG_WIDE, TAG_HIGH = 82.0, 42.0  # mm
LAW = (
    "Goods that are sold fall under local rules for labels, fire, toys and tax: they come before "
    "anything here; ask the authority concerned."
)


def tag_pages(plan: Plan) -> Pages:
    """A tag for each bag, and what a label may say."""
    load_fonts()
    paper = paper_for(plan.project.units)
    with theme.usual_size():
        wide, room = room_on(paper)
        pages = paged(list(_blocks(plan, wide)), room)
    return Pages(plan.project.name, "Price tags and label", paper, tuple(pages))


def price_words(plan: Plan) -> str:
    """What a tag says that it costs."""
    sale, pricing = plan.project.sale, plan.project.pricing
    if sale.way == "gift":
        return "a gift"
    return "" if sale.price is None else money_text(sale.price, pricing.currency)


def _blocks(plan: Plan, wide: float) -> Iterator[Block]:
    notation = plan.marks.notation
    size = notation.size(*(figure.value for figure in plan.bag.finished[:3]))
    unit = "" if notation.units == "metric" else " in"
    yield heading("Tags, to cut out")
    number = min(plan.project.made, MOST)
    for at in range(0, number, 2):
        yield _tags(plan.project.name, f"{size}{unit}", price_words(plan), min(number - at, 2))
    yield gap(6)
    yield heading("Label")
    yield paragraph(plan.project.name, wide, 12)
    yield paragraph(made_of_words(plan.materials, _stocks(plan)), wide, 10)
    yield paragraph(care_words(_materials(plan)), wide, 10)
    yield gap(4)
    yield paragraph(LAW, wide, LEAST, theme.SOFT)


def _tags(name: str, size: str, price: str, number: int) -> Block:
    """One or two tags side by side: a hole for the string, the name, the size, the price."""

    def paint(sheet: Sheet) -> None:
        top = sheet.y
        for at in range(number):
            x = MARGIN + at * (TAG_WIDE + 6)
            sheet.frame(x, top, TAG_WIDE, TAG_HIGH, dashed=True)
            sheet.painter.drawEllipse(sheet.box(x + 4, top + TAG_HIGH / 2 - 2.5, 5, 5))
            for down, words, font in (
                (6, name, title(15)),
                (16, size, text(10)),
                (25, price, title(24)),
            ):
                sheet.y = top + down
                sheet.words(words, font, x + 14, TAG_WIDE - 18, 14)
        sheet.y = top

    return Block(TAG_HIGH + 5, paint, tag="P")


def _materials(plan: Plan) -> frozenset[str]:
    keys = {material.key for panel in plan.panels for material in panel.materials}
    return frozenset({*keys, *(item.stock for item in plan.items if item.material)})


def _stocks(plan: Plan) -> tuple[str, ...]:
    return tuple(key for key in plan.materials if key in _materials(plan))
