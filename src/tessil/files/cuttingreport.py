"""How a job is cut, as data and as a page of text: each cloth's cuts in order, what to buy."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Any

from tessil.core.cutting.acts.shopping import shopping
from tessil.core.cutting.acts.whole import Spread, Spreads, lots_of, spreads_of
from tessil.core.numbers.lengths import Inches, Notation
from tessil.core.planned import Plan
from tessil.core.project import Job
from tessil.core.sheets.cuts import Stroke
from tessil.core.words.cuttings import cut_words


def cutting_of(job: Job, plans: Sequence[Plan]) -> Spreads | None:
    """The plan of the cuts as it is read today; none if there is none, or not all bags are told."""
    if job.shared.cutting is None or len(plans) != len(job.bags):
        return None
    return spreads_of(job.shared.cutting, lots_of(plans))


def cutting_data(found: Spreads, plans: Sequence[Plan]) -> dict[str, Any]:
    """Cloths with their pieces and numbered cuts, what does not come out, and the shopping list."""
    notation = plans[0].marks.notation
    return {
        "changed": found.changed,
        "cloths": [_cloth_data(one) for one in found.spreads],
        "over": [
            {"piece": want.words, "bag": want.bag_name, "number": n} for want, n in found.over
        ],
        "shopping": [
            {"what": line.what, "amount": line.amount, "for": line.about}
            for line in shopping(found.spreads, plans, notation)
        ],
    }


def _cloth_data(spread: Spread) -> dict[str, Any]:
    sheet = spread.sheet
    return {
        "name": spread.lot.name,
        "source": sheet.source,
        "width": _number(sheet.width),
        "length": _number(sheet.length),
        "trim": _number(sheet.trim),
        "least": _number(sheet.least),
        "done": sheet.done,
        "pieces": [
            {
                "piece": one.want.words,
                "bag": one.want.bag_name,
                "x": _number(one.box.x),
                "y": _number(one.box.y),
                "w": _number(one.box.w),
                "h": _number(one.box.h),
                "turned": one.turned,
            }
            for one in spread.pieces
        ],
        "cuts": [
            {
                "number": number,
                "deep": cut.deep,
                "way": cut.way,
                "ruler": _number(cut.reading),
                "at": _number(cut.at),
                "from": _number(cut.begins),
                "to": _number(cut.ends),
            }
            for number, cut in enumerate(spread.parting.cuts, start=spread.first)
        ],
        "left": [{"w": _number(box.w), "h": _number(box.h)} for box in spread.offcuts],
    }


def _number(value: Inches) -> float:
    return float(value)


def cutting_text(found: Spreads, plans: Sequence[Plan]) -> str:
    """The same as a page to read."""
    return "\n".join(_lines(found, plans, plans[0].marks.notation)) + "\n"


def _lines(found: Spreads, plans: Sequence[Plan], notation: Notation) -> Iterator[str]:
    yield f"How it is cut: {len(found.spreads)} cloths, {found.cuts} cuts"
    if found.changed:
        yield "The bags have changed since the cutting was planned."
    for want, many in found.over:
        yield f"{want.bag_name}, {want.words}: {many} come out of no cloth there is."
    for spread in found.spreads:
        sheet = spread.sheet
        size = notation.size(sheet.width, sheet.length + sheet.trim)
        yield ""
        yield f"{spread.lot.name}, {size}{'' if sheet.source else ', new'}"
        for number, cut in enumerate(spread.parting.cuts, start=spread.first):
            yield f"{number:>5}. {_cut(spread, cut, notation)}"
        left = ", ".join(notation.size(box.w, box.h) for box in spread.offcuts)
        yield f"       left: {left or 'nothing worth keeping'}"
    yield ""
    yield "To buy"
    for line in shopping(found.spreads, plans, notation):
        yield f"  {line.what}: {line.amount} ({line.about})"


def _cut(spread: Spread, cut: Stroke, notation: Notation) -> str:
    said = cut_words(cut.deep, cut.way == "along", cut.length, notation)
    freed = f": {spread.pieces[cut.done].want.words}" if cut.done >= 0 else ""
    return f"{notation.read_off(cut.reading)}  {said}{freed}"
