"""The quilting of one panel: its parts, their sets of lines, and every line where it is sewn."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from itertools import pairwise

from msgspec.structs import replace

from tessil.core.bag.model import Panel
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Inches
from tessil.core.numbers.records import Record
from tessil.core.numbers.sizes import Outline, Side
from tessil.core.numbers.workings import Basis, Figure, count, given
from tessil.core.quilting.choice import QuiltWish
from tessil.core.quilting.patterns import PATTERNS, sets_in
from tessil.core.quilting.seams import MOST_PIECES, SeamLine, seam_runs
from tessil.core.quilting.sets import LineSet, Region, by_hand
from tessil.core.quilting.sewn import QuiltLine, sewn_lines
from tessil.core.quilting.shrinkage import FINE, Family
from tessil.core.sandwich.layers import Layer
from tessil.core.trouble import CannotPlan


class Quilt(Record, frozen=True):
    """All lines of one panel.  ``seams`` are its patchwork seams, where lines mind them."""

    sets: tuple[LineSet, ...] = ()
    lines: tuple[QuiltLine, ...] = ()
    seams: tuple[SeamLine, ...] = ()
    beyond: float = 0.0
    parts: tuple[tuple[LineSet, ...], ...] = ()  # the sets of each part, by hand last

    def line(self, key: str) -> QuiltLine | None:
        """The line of that name, if it is there."""
        return next((line for line in self.lines if line.key == key), None)


def needs_seams(wish: QuiltWish) -> bool:
    """Whether gaps follow from the pieces, so that seams must be known before sizes are."""
    return any(PATTERNS[part.pattern].follows_seams(part) for part in wish.all)


def joints(wish: QuiltWish, outlines: Iterable[Outline]) -> tuple[SeamLine, ...]:
    """The patchwork seams of a quilted panel; none where nothing is quilted or too many lie."""
    if all(part.pattern == "none" for part in wish.all):
        return ()
    shapes = tuple(outlines)
    return seam_runs(shapes) if len(shapes) <= MOST_PIECES else ()


def sewn_outline(panel: Panel) -> Outline:
    """The trimmed outline before its corners are notched."""
    if panel.notches:
        width, height = float(panel.width.value), float(panel.height.value)
        return ((0.0, 0.0), (width, 0.0), (width, height), (0.0, height))
    return tuple((float(x), float(y)) for x, y in panel.outline)


def regions(
    panel: Panel, wish: QuiltWish, shown: Mapping[Side, Inches], field: str
) -> tuple[Region, ...]:
    """The parts that are quilted apart, from the top down."""
    left, top = shown["left"], shown["top"]
    right = panel.width.value - shown["right"]
    bottom = panel.height.value - shown["bottom"]
    outline = sewn_outline(panel)
    starts = [top, *(zone.starts for zone in wish.quilt_zones)]
    for at, (above, below) in enumerate(pairwise(starts)):
        if below <= above or below >= bottom:
            raise CannotPlan(
                f"{field}.quilt_zones.{at}.starts",
                "This part must begin below the one above it, and on the panel.",
            )
    ends = [*starts[1:], bottom]
    paths = [f"{field}.quilting"]
    paths += [f"{field}.quilt_zones.{at}.quilting" for at in range(len(starts) - 1)]
    return tuple(
        Region(at, left, right, begin, end, outline, path, at == 0, at == len(starts) - 1)
        for at, (begin, end, path) in enumerate(zip(starts, ends, paths, strict=True))
    )


def panel_sets(
    panel: Panel,
    wish: QuiltWish,
    shown: Mapping[Side, Inches],
    field: str,
    seams: tuple[SeamLine, ...],
) -> tuple[tuple[LineSet, ...], ...]:
    """The sets of each part, and of the lines by hand last."""
    if not wish.quilt_zones and wish.quilting.pattern == "none" and (not wish.quilting.drawn):
        return ()
    parts = regions(panel, wish, shown, field)
    left_out = frozenset(wish.quilting.left_out)
    found = [
        tuple(_without(entry, left_out) for entry in sets_in(region, choice, seams))
        for region, choice in zip(parts, wish.all, strict=True)
    ]
    whole = replace(parts[0], bottom=parts[-1].bottom, last=True)
    return (*found, by_hand(whole, wish.quilting.drawn))


def _without(entry: LineSet, left_out: frozenset[str]) -> LineSet:
    """A set of which some lines are not sewn: they are not counted, and draw nothing in."""
    lines = entry.lines
    out = sum(f"{entry.key}.{at}" in left_out for at in range(lines.whole))
    if not out:
        return entry
    sewn = (lines - count("left out", out)).called(lines.label)
    share = (sewn / lines).called("share of its lines that is sewn")
    return replace(entry, lines=sewn, share=share if entry.share is None else entry.share * share)


def quilt_families(
    sets: tuple[tuple[LineSet, ...], ...],
    wish: QuiltWish,
    panel: Panel,
    shown: Mapping[Side, Inches],
) -> tuple[Family, ...]:
    """The families of all parts; each covers its part's share of the height."""
    if not wish.quilt_zones:
        return tuple(
            entry.family for part in sets for entry in part if entry.lines.value or entry.share
        )
    bottom = panel.height.value - shown["bottom"]
    starts = [shown["top"], *(zone.starts for zone in wish.quilt_zones), bottom]
    whole = bottom - shown["top"]
    families = []
    for at, part in enumerate(sets):
        high = starts[at + 1] - starts[at] if at < len(starts) - 1 else whole
        share = given("share of the height", high / whole, Basis.GEOMETRY, 0)
        for entry in part:
            family = entry.family
            of = share if family.share is None else family.share * share
            families.append(replace(family, share=of))
    return tuple(families)


def quilt_panel(
    panel: Panel,
    wish: QuiltWish,
    shown: Mapping[Side, Inches],
    field: str,
    seams: tuple[SeamLine, ...],
    sets: tuple[tuple[LineSet, ...], ...],
    room: float,
    real: tuple[float, float],
) -> Quilt:
    """Every line of a panel, of the sets that it has.

    ``room`` is how far lines may run past the trim; ``real`` how much more or less than
    expected the panel was drawn in, each way: lines move with it.
    """
    if not sets:
        return Quilt(seams=seams)
    parts = regions(panel, wish, shown, field)
    flat = tuple(entry for part in sets for entry in part)
    left_out = frozenset(wish.quilting.left_out)
    lines: list[QuiltLine] = []
    first, beyond = 0, min(float(wish.quilting.run_off), room)
    for region, part in zip(
        (*parts, replace(parts[0], bottom=parts[-1].bottom, last=True)), sets, strict=True
    ):
        lines += sewn_lines(region, part, first, beyond, left_out)
        first += len(part)
    if real != (1.0, 1.0):
        middle = _middle(panel, shown)
        lines = [_moved(line, middle, real) for line in lines]
        flat = tuple(_moved_set(entry, middle, real) for entry in flat)
    return Quilt(flat, tuple(lines), seams, beyond, sets)


def _middle(panel: Panel, shown: Mapping[Side, Inches]) -> tuple[Inches, Inches]:
    return (
        (shown["left"] + panel.width.value - shown["right"]) / 2,
        (shown["top"] + panel.height.value - shown["bottom"]) / 2,
    )


def _moved(line: QuiltLine, middle: tuple[Inches, Inches], real: tuple[float, float]) -> QuiltLine:
    (mx, my), (sx, sy) = (float(middle[0]), float(middle[1])), real
    return replace(
        line, points=tuple((mx + (x - mx) * sx, my + (y - my) * sy) for x, y in line.points)
    )


def _moved_set(entry: LineSet, middle: tuple[Inches, Inches], real: tuple[float, float]) -> LineSet:
    if not entry.places:
        return entry
    at, scale = (middle[0], real[0]) if entry.angle == 90 else (middle[1], real[1])
    exact = Fraction(round(scale * FINE), FINE)
    places = tuple(at + (place - at) * exact for place in entry.places)
    return replace(entry, places=places, offsets=tuple(float(place) for place in places))


def stroke_room(off: Mapping[Side, Figure], layers: tuple[Layer, ...]) -> float:
    """How far past the trim there is something to sew on: what is cut off, and spare batting."""
    spare = max((float(layer.margin) for layer in layers), default=0.0)
    return max(min(float(figure.value) for figure in off.values()), 0.0) + spare
