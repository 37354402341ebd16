"""The pieced top of a whole panel: its parts, each pieced its own way, with their borders.

The one door to the ways of piecing: a new way is one function in the table below.
"""

from __future__ import annotations

from collections.abc import Callable

from msgspec.structs import replace

from tessil.core.bag.steps import Step
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.polygons import band, rectangle
from tessil.core.numbers.records import Record
from tessil.core.numbers.sizes import Outline, Pair, Side
from tessil.core.numbers.workings import Figure, given, smallest
from tessil.core.piecing.choice import Piecing
from tessil.core.piecing.scrap_tops import course_top, crumb_top
from tessil.core.piecing.slanted import diagonal_top, flip_top
from tessil.core.piecing.straight import square_top, strip_top
from tessil.core.piecing.strips import NARROWEST
from tessil.core.piecing.top import (
    CutPiece,
    Patch,
    Top,
    TopLine,
    Wish,
    few_enough,
    placed,
    trimming,
    whole_cloth,
)
from tessil.core.trouble import CannotPlan


def _strips(wish: Wish) -> Top:
    return diagonal_top(wish) if wish.choice.run == "diagonal" else strip_top(wish)


WAYS: dict[str, Callable[[Wish], Top]] = {
    "whole": whole_cloth,
    "strips": _strips,
    "squares": square_top,
    "web": square_top,
    "flip": flip_top,
    "courses": course_top,
    "crumbs": crumb_top,
}


def plan_top(wish: Wish) -> Top:
    """One part's top, inside its border if it has one; raises CannotPlan."""
    choice = wish.choice
    if choice.way == "web" and choice.sashing:
        wish = replace(wish, choice=choice.model_copy(update={"sashing": Fraction(0)}))
    make = WAYS[choice.way]
    if not choice.border or choice.way == "whole":
        return make(wish)
    return _bordered(wish, make)


def _bordered(wish: Wish, make: Callable[[Wish], Top]) -> Top:
    """Sides first, then top and bottom across them; each takes a seam of the inner part."""
    seam, border = wish.seam, given("border, cut", wish.choice.border)
    shows = border - 2 * seam
    if shows.value < NARROWEST:
        raise CannotPlan(
            f"{wish.field}.border",
            "A border this narrow goes into its two seams: cut it at least ¼ in (6 mm) wider "
            "than them.",
        )
    inner_need = Pair(wish.need.width - 2 * shows, wish.need.height - 2 * shows)
    if min(inner_need.values()) <= 2 * seam.value:
        raise CannotPlan(f"{wish.field}.border", "Two such borders leave nothing between them.")
    step = float(shows.value)
    outline = tuple((x - step, y - step) for x, y in wish.outline)
    inner = make(replace(wish, need=inner_need, outline=outline))
    width = (inner.size.width + 2 * shows).called("with its border, width")
    height = (inner.size.height + 2 * shows).called("with its border, height")
    wide, high = float(width.value), float(height.value)
    s = float(seam.value)
    box = (step + s, step + s, wide - step - s, high - step - s)
    patches = placed(inner.patches, 0, step, step, box)
    frame = tuple(trimming(wish, shape, "border") for shape in _frame(wide, high, step + s))
    cloth = frame[0].print
    cuts = (
        CutPiece("border, side", cloth, 2, border, inner.size.height),
        CutPiece("border, level", cloth, 2, width, border),
    )
    return replace(
        inner,
        size=Pair(width, height),
        patches=(*patches, *frame),
        cuts=(*inner.cuts, *cuts),
        lines=(
            *inner.lines,
            TopLine("border.cut", border, "Cut width, all round"),
            TopLine("border.shows", shows.called("border shows"), "Before quilting, inside"),
            TopLine("border.width", width, "What it all makes", "across"),
            TopLine("border.height", height, "What it all makes", "upright"),
        ),
        order=(*inner.order, border_step(inner.order)),
        rows=None,
        columns=None,
        border=border,
    )


def _frame(width: float, height: float, deep: float) -> tuple[Outline, ...]:
    return (
        rectangle(0, deep, deep, height - 2 * deep),
        rectangle(width - deep, deep, deep, height - 2 * deep),
        rectangle(0, 0, width, deep),
        rectangle(0, height - deep, width, deep),
    )


class Part(Record, frozen=True):
    """A part of a panel with its top, where that lies on the pieced panel, and what was
    trimmed off it before the parts were joined (none for an undivided panel)."""

    wish: Wish
    top: Top
    begins: Figure
    ends: Figure
    trims: dict[Side, Figure]

    @property
    def choice(self) -> Piecing:
        return self.wish.choice


def divided(wishes: list[Wish], begins: list[Figure], need: Pair, seam: Figure) -> tuple[Part, ...]:
    """The tops of a panel's parts, one below another, each trimmed to its size and joined.

    ``begins`` are where each part shows from, on the pieced panel, from the top; raises
    CannotPlan for a part with nothing to show.
    """
    parts = []
    ends = [*begins[1:], need.height]
    for at, (wish, low, high) in enumerate(zip(wishes, begins, ends, strict=True)):
        last = at == len(wishes) - 1
        deep = high - low
        if deep.value <= 2 * seam.value:
            raise CannotPlan(
                _starts_field(wishes[min(max(at, 1), len(wishes) - 1)].field),
                "Parts begin one below another, each high enough to show: divide it elsewhere.",
            )
        inner = (0 if at == 0 else 1) + (0 if last else 1)
        own = Pair(need.width, (deep + inner * seam).called("this part, height") if inner else deep)
        up = float(low.value) - (float(seam.value) if at else 0.0)
        outline = band(wish.outline, (0.0, 1.0), up, up + float(own.height.value)) or wish.outline
        moved = tuple((x, y - up) for x, y in outline)
        asked = replace(wish, need=own, outline=moved)
        parts.append(_trimmed(asked, plan_top(asked), own, at, (low, high), up))
    check_pieces(tuple(parts), wishes[0])
    return tuple(parts)


def _starts_field(field: str) -> str:
    return field.removesuffix("piecing") + "starts"


def _trimmed(
    wish: Wish, top: Top, own: Pair, zone: int, shows: tuple[Figure, Figure], up: float
) -> Part:
    trims: dict[Side, Figure] = {}
    sides: tuple[tuple[Side, Side, Figure, Figure, str], ...] = (
        ("left", "right", top.size.width, own.width, across_rule(wish.choice)),
        ("top", "bottom", top.size.height, own.height, down_rule(wish.choice)),
    )
    for first, last, have, want, rule in sides:
        trims[first], trims[last] = shared(have - want, rule, None)
    dx, dy = -float(trims["left"].value), up - float(trims["top"].value)
    box = (0.0, float(shows[0].value), float(own.width.value), float(shows[1].value))
    patches = placed(top.patches, zone, dx, dy, box)
    return Part(wish, replace(top, patches=patches), *shows, trims)


def down_rule(choice: Piecing) -> str:
    """What becomes of the surplus at top and bottom; a border is trimmed alike all round."""
    if choice.border:
        return "both"
    stacked = choice.way in ("squares", "web") or choice.run == "level"
    return choice.surplus if stacked else "both"


def across_rule(choice: Piecing) -> str:
    """What becomes of the surplus at left and right; a border is trimmed alike all round."""
    if choice.border:
        return "both"
    if choice.way in ("squares", "web"):
        return choice.surplus_across
    return choice.surplus if choice.way == "strips" and choice.run == "upright" else "both"


def shared(spare: Figure, rule: str, least: Figure | None) -> tuple[Figure, Figure]:
    """What is cut off the first and the last side: evenly, or all but the least off one."""
    begin = spare / 2
    little = smallest(least, begin) if least is not None else spare - spare
    if rule == "one":
        begin = little
    elif rule == "other":
        begin = spare - little
    return begin, spare - begin


def check_pieces(parts: tuple[Part, ...], wish: Wish) -> None:
    """Raise CannotPlan where all parts together have more pieces than a panel can."""
    few_enough(wish, sum(part.top.pieces.whole for part in parts), "way")


def all_patches(parts: tuple[Part, ...]) -> tuple[Patch, ...]:
    """Every piece of the panel, part by part."""
    return tuple(patch for part in parts for patch in part.top.patches)


def border_step(before: tuple[Step, ...]) -> Step:
    """The border goes on once the rest is sewn."""
    return Step("top.piece.border", "piece.border", needs=(before[-1].id,))
