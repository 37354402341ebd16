"""A panel's layout in letters: reads in black and white, row by row, to sew from.

Knows the plan and pictures; must not know Qt.
"""

from __future__ import annotations

from tessil.core.catalogue.prints import Print
from tessil.core.numbers.polygons import box_of
from tessil.core.numbers.records import Record
from tessil.core.panels.panel import PanelPlan
from tessil.core.piecing.choice import GRIDS
from tessil.core.planned import Plan
from tessil.drawing.bands import patch_cloths
from tessil.drawing.picture import Item, Label, Line, Picture, Shade
from tessil.drawing.pieceview import centre, frame, row_words, trim_line

MOST_LETTERS = 400


class KeyLine(Record, frozen=True):
    """One print of the key: its letter, how many pieces of it, how many laid turned."""

    letter: str
    cloth: Print
    pieces: int
    turned: int


def letter(at: int) -> str:
    """A, B … Z, AA, AB …"""
    return letter(at // 26 - 1) + chr(65 + at % 26) if at >= 26 else chr(65 + at)


def key_of_prints(plan: Plan, panel: PanelPlan) -> tuple[KeyLine, ...]:
    """The prints of a panel in the order of the basket, each with its letter."""
    used: dict[str, list[bool]] = {}
    for patch in panel.patches:
        used.setdefault(patch.print, []).append(patch.turned)
    order = [entry.key for entry in plan.project.prints if entry.key in used]
    order += [key for key in used if key not in order]
    return tuple(
        KeyLine(letter(at), plan.project.print_of(key), len(used[key]), sum(used[key]))
        for at, key in enumerate(order)
    )


def layout_picture(plan: Plan, panel: PanelPlan) -> Picture:
    """The pieced top with a letter on every piece, an arrow on those laid upside-down."""
    letters = {line.cloth.key: line.letter for line in key_of_prints(plan, panel)}
    laid = list(patch_cloths(plan, panel))
    width, height = panel.pieced.floats()
    items: list[Item] = []
    rows: dict[tuple[int, int], float] = {}
    for patch, cloth in laid:
        items.append(Shade(cloth.outline, "paper"))
        items.append(Line(cloth.outline, "piece", closed=True))
        if patch.row and panel.parts[patch.zone].choice.way in GRIDS:
            rows.setdefault((patch.zone, patch.row), centre(cloth.outline)[1])
    if len(laid) <= MOST_LETTERS:
        for patch, cloth in laid:
            mark = letters[patch.print] + (" ↓" if patch.turned else "")
            x1, y1, x2, y2 = box_of(cloth.outline)
            if min(x2 - x1, y2 - y1) < 0.3:
                continue
            number = "" if patch.kind == "piece" and patch.in_grid else patch.name
            words = f"{number}  {mark}" if number and patch.kind in ("piece", "scrap") else mark
            items.append(Label(centre(cloth.outline), words, strong=True))
    items += [
        Label((-0.15, y), row_words(panel, zone, row), align="right")
        for (zone, row), y in rows.items()
    ]
    items.append(trim_line(panel))
    for fold in panel.panel.folds:
        ends = tuple(panel.pieced_at(float(x), float(y)) for x, y in (fold.start, fold.end))
        items.append(Line(ends, "fold"))
        items.append(Label((width + 0.15, ends[1][1]), f"{fold.name} fold", align="left"))
    aside = (2.9 if len(panel.parts) == 1 else 4.8) if rows else 1.2
    items += frame(plan, panel, aside)
    room = (40 + round(aside * 20), 16, 84 if panel.panel.folds else 24, 52)
    return Picture(
        tuple(items),
        (0, 0, width, height),
        room=room,
        ruled=False,
        caption=f"{panel.panel.label}, piece by piece.",
    )
