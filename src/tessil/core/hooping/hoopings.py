"""Which outlines lie in which hooping, and how much of each layer is cut for all of them.

Panels with their seams lie in the field, ½ in apart, so that each keeps ¼ when it is cut out; what
is hooped is cut 1 in larger than the field on each side (6 × 10 → 8 × 12).  Batting is trimmed
2 mm outside its placing line.  Common practice, no source.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence
from math import lcm

from msgspec.structs import replace

from tessil.core.catalogue import hoop, hoops
from tessil.core.hooping.choice import Hooping
from tessil.core.hooping.packing import Heap, Outline, Packed, pack
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Inches
from tessil.core.numbers.records import Record
from tessil.core.numbers.sizes import Pair
from tessil.core.numbers.workings import Basis, Figure, count, from_mm, given, total
from tessil.core.panels.panel import PanelPlan
from tessil.core.trouble import CannotPlan

OWN = "own"
EACH_SIDE = given("over the hoop, each side", 1, Basis.PRACTICE)
BETWEEN = given("between outlines", Fraction(1, 2), Basis.PRACTICE)
TRIM = from_mm("batting beyond its line", Fraction(2), Basis.PRACTICE)
LEAST_FIELD = Fraction(1)


def field_of(choice: Hooping) -> Pair:
    """The field the machine can stitch; raises CannotPlan for a hoop that nobody knows."""
    width, height = choice.width, choice.height
    if choice.hoop != OWN:
        try:
            width, height = hoop(choice.hoop).width, hoop(choice.hoop).height
        except KeyError:
            raise CannotPlan("hooping.hoop", f"“{choice.hoop}” is no hoop of the list.") from None
    elif min(width, height) < LEAST_FIELD:
        raise CannotPlan("hooping.width", "A hoop needs a field of at least 1 in (25.4 mm).")
    return Pair(given("hoop field, width", width), given("hoop field, height", height))


def cut_for(field: Pair) -> Pair:
    """What to cut for a hoop: its field and 1 in more on each side."""
    return Pair(
        (field.width + 2 * EACH_SIDE).called("cut for the hoop, width"),
        (field.height + 2 * EACH_SIDE).called("cut for the hoop, height"),
    )


class Hooped(Record, frozen=True):
    """One panel that is made in the hoop: how many, and whether its cloth has an up."""

    panel: PanelPlan
    many: int
    turns: bool


class Laid(Record, frozen=True):
    """One outline in a hooping: its corner nearest to the field's top left one, in inches."""

    panel: str
    x: Inches
    y: Inches
    width: Inches
    height: Inches
    turned: bool


class OneHooping(Record, frozen=True):
    """A hooping: what lies in it, how often it is made, how far the cloth is drawn on after it."""

    laid: tuple[Laid, ...]
    times: int
    reach: Inches  # of its outlines along the hoop


class HoopGroup(Record, frozen=True):
    """Panels of the same layers, hooped together.

    ``number`` hoopings, of which no layout can do with fewer than ``least``; ``length`` what is cut
    of every layer, ``width`` wide, ``pieces`` of it.
    """

    panels: tuple[PanelPlan, ...]
    hoopings: tuple[OneHooping, ...]
    number: Figure
    least: int
    width: Figure
    length: Figure
    pieces: Figure

    @property
    def stabiliser(self) -> str:
        return self.panels[0].choices.layers.stabiliser


class HoopPlan(Record, frozen=True):
    """The hoop, its groups, and the panels that do not go into it."""

    field: Pair
    cut: Pair
    groups: tuple[HoopGroup, ...]
    too_large: tuple[str, ...] = ()  # panels

    @property
    def number(self) -> int:
        """How many hoopings in all."""
        return sum(group.number.whole for group in self.groups)

    @property
    def panels(self) -> frozenset[str]:
        """The panels that are made in it."""
        return frozenset(panel.key for group in self.groups for panel in group.panels)


def fits(size: tuple[Inches, Inches], field: tuple[Inches, Inches], turned: bool) -> bool:
    """Whether an outline lies in a field, across too if it may be turned."""
    (wide, high), (there, up) = size, field
    return (wide <= there and high <= up) or (turned and high <= there and wide <= up)


def hoops_for(size: tuple[Inches, Inches], turned: bool) -> tuple[str, ...]:
    """The hoops of the list that take an outline, the smallest first."""
    return tuple(one.key for one in hoops() if fits(size, (one.width, one.height), turned))


def plan_hoopings(choice: Hooping, wanted: tuple[Hooped, ...]) -> HoopPlan | None:
    """How all that is wanted is hooped, None where nothing is; raises CannotPlan for a hoop
    without a field."""
    if not wanted:
        return None
    field = field_of(choice)
    values = field.values()
    large = tuple(
        one.panel.key
        for one in wanted
        if not fits(one.panel.trimmed.values(), values, choice.turned and one.turns)
    )
    groups: dict[tuple[object, ...], list[Hooped]] = {}
    for one in wanted:
        if one.panel.key not in large:
            groups.setdefault(_stack_of(one.panel), []).append(one)
    return HoopPlan(
        field=field,
        cut=cut_for(field),
        groups=tuple(_group(choice, field, group) for group in groups.values()),
        too_large=large,
    )


def _stack_of(panel: PanelPlan) -> tuple[object, ...]:
    """What must be alike in panels that are hooped together: all layers, and a top of one cloth."""
    top = panel.patches[0].print if panel.only_cloth and panel.patches else ""
    layers = tuple((layer.material.key, layer.cloth, layer.rule) for layer in panel.layers)
    return panel.choices.layers.stabiliser, top, layers


def _group(choice: Hooping, field: Pair, wanted: Sequence[Hooped]) -> HoopGroup:
    alike = _alike(wanted)
    packed, over = _packed(choice, field, [group[0] for group in alike], alike)
    hoopings = _hoopings(packed, field, alike, over)
    cut = cut_for(field)
    number = total([count("hoopings", one.times, Basis.GEOMETRY) for one in hoopings])
    number = number.called("hoopings")
    pieces, length = number, cut.height
    if choice.cloth == "drawn-on":
        pieces = count("length of cloth", 1, Basis.GEOMETRY)
        length = drawn_on(hoopings, field)
    return HoopGroup(
        panels=tuple(one.panel for one in wanted),
        hoopings=hoopings,
        number=number,
        least=packed.least,
        width=cut.width,
        length=length,
        pieces=pieces,
    )


def _alike(wanted: Sequence[Hooped]) -> list[list[Hooped]]:
    """Outlines of one size together: for the hoop they are the same."""
    found: dict[tuple[object, ...], list[Hooped]] = {}
    for one in wanted:
        found.setdefault((one.panel.trimmed.values(), one.turns), []).append(one)
    return list(found.values())


def _packed(
    choice: Hooping, field: Pair, first: Sequence[Hooped], alike: list[list[Hooped]]
) -> tuple[Packed, int]:
    """The outlines packed, in parts of an inch small enough to be whole for all of them."""
    sizes = [one.panel.trimmed.values() for one in first]
    room = BETWEEN.value
    exact = [*field.values(), room, *(value for size in sizes for value in size)]
    over = lcm(*(value.denominator for value in exact))

    def whole(value: Inches) -> int:
        return int(value * over)

    outlines = [
        Outline(
            whole(width + room),
            whole(height + room),
            sum(each.many for each in group),
            choice.turned and one.turns,
        )
        for one, group, (width, height) in zip(first, alike, sizes, strict=True)
    ]
    width, height = field.values()
    return pack(outlines, whole(width + room), whole(height + room)), over


def _hoopings(
    packed: Packed, field: Pair, alike: list[list[Hooped]], over: int
) -> tuple[OneHooping, ...]:
    """Every hooping with the panels that lie in it, one of each in turn, those alike once."""
    left = [{one.panel.key: one.many for one in group} for group in alike]
    panels = {one.panel.key: one.panel for group in alike for one in group}
    found: Counter[tuple[Laid, ...]] = Counter()
    for heap in packed.heaps:
        for _ in range(heap.times):
            keys = [_most_left(left[spot.outline]) for spot in heap.spots]
            found[_laid(heap, [panels[key] for key in keys], field, over)] += 1
    return tuple(
        OneHooping(laid, times, max(one.y + one.height for one in laid))
        for laid, times in found.items()
    )


def _most_left(left: dict[str, int]) -> str:
    key = max(left, key=left.__getitem__)
    left[key] -= 1
    return key


def _laid(heap: Heap, panels: Sequence[PanelPlan], field: Pair, over: int) -> tuple[Laid, ...]:
    """Outlines in the middle of the field across, from its top downwards."""
    laid = []
    for spot, panel in zip(heap.spots, panels, strict=True):
        width, height = panel.trimmed.values()
        if spot.turned:
            width, height = height, width
        x, y = Fraction(spot.x, over), Fraction(spot.y, over)
        laid.append(Laid(panel.key, x, y, width, height, spot.turned))
    spare = (field.width.value - max(one.x + one.width for one in laid)) / 2
    return tuple(replace(one, x=one.x + spare) for one in laid)


def drawn_on(hoopings: tuple[OneHooping, ...], field: Pair) -> Figure:
    """One length for all hoopings: cloth is drawn on by what was stitched and ½ in more; the last
    hooping takes the whole field, and 1 in is left at either end."""
    last = max(hoopings, key=lambda one: one.reach)
    parts = [field.height, 2 * EACH_SIDE]
    for one in hoopings:
        times = one.times - (one is last)
        if times:
            step = given("stitched along the hoop", one.reach, Basis.GEOMETRY) + BETWEEN
            advance = step.called("drawn on by")
            parts.append(count("times", times, Basis.GEOMETRY) * advance if times > 1 else advance)
    return total(parts).called("length for all hoopings")


def batting_trimmed(finished: Pair) -> Pair:
    """Batting of an outline once it is trimmed: 2 mm outside its placing line all round."""
    return Pair(
        (finished.width + 2 * TRIM).called("batting trimmed to, width"),
        (finished.height + 2 * TRIM).called("batting trimmed to, height"),
    )
