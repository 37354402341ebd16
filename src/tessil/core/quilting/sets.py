"""From a pattern to its lines: parallel sets, seams followed, outlines echoed, lines by hand.

Places are on the trimmed panel, in the sewn state, so that what lies in the bag is even.
``sets_in`` says what a part is quilted with; ``sewn_lines`` where each line runs.
"""

from __future__ import annotations

from collections.abc import Sequence
from itertools import pairwise

from msgspec.structs import replace

from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Inches, write_degrees
from tessil.core.numbers.polygons import area, band, box_of, reach
from tessil.core.numbers.records import Record
from tessil.core.numbers.sizes import Outline
from tessil.core.numbers.workings import Basis, Figure, count, given, total
from tessil.core.quilting.channels import MOST_LINES, Channels, plan_channels
from tessil.core.quilting.choice import DrawnLine, Quilting
from tessil.core.quilting.clip import chords
from tessil.core.quilting.insets import inset
from tessil.core.quilting.seams import SHORT, SeamLine, angle_of, offsets_at, ways
from tessil.core.quilting.shrinkage import FINE, Family
from tessil.core.trouble import CannotPlan

UNEVEN = 0.03  # inches by which lines may differ and still lie evenly
THOUSAND = 1000
CLEARANCE = Fraction(1, 4)  # from a seam, or it looks like a mistake; common practice


class Region(Record, frozen=True):
    """A part of a panel to quilt: what shows of it between the seam lines, as sewn.

    ``outline`` is the trimmed outline, its corner notches not yet cut; ``first`` and ``last``
    tell whether the part reaches the panel's top and bottom edge.
    """

    zone: int
    left: Inches
    right: Inches
    top: Inches
    bottom: Inches
    outline: Outline
    field: str
    first: bool = True
    last: bool = True

    @property
    def middle(self) -> tuple[Inches, Inches]:
        return (self.left + self.right) / 2, (self.top + self.bottom) / 2

    @property
    def shape(self) -> Outline:
        """The outline within this part."""
        if self.first and self.last:
            return self.outline
        low = -1e6 if self.first else float(self.top)
        high = 1e6 if self.last else float(self.bottom)
        return band(self.outline, (0.0, 1.0), low, high)

    @property
    def shows(self) -> Outline:
        """What shows, as an outline."""
        left, right, top, bottom = (
            float(v) for v in (self.left, self.right, self.top, self.bottom)
        )
        return ((left, top), (right, top), (right, bottom), (left, bottom))


class LineSet(Record, frozen=True):
    """Lines that belong together.

    ``places`` are exact offsets from the panel's left or top edge for upright and level lines;
    ``offsets`` the same, or for slanted lines the distance along their normal, in floats.
    ``drawn`` holds lines that are not simply parallel.  ``margin`` is from the outermost line to
    the seam line.
    """

    key: str
    zone: int
    name: str
    angle: float
    gap: Figure
    lines: Figure
    margin: Figure | None = None
    places: tuple[Inches, ...] = ()
    offsets: tuple[float, ...] = ()
    share: Figure | None = None
    drawn: tuple[tuple[tuple[float, float], ...], ...] = ()
    names: tuple[str, ...] = ()  # of the drawn lines, where they have their own
    regular: bool = True
    ends: bool = False  # whether drawn lines of many points have two ends
    wide: Inches = Fraction(0)  # how far its stitch swings: a decorative one

    @property
    def family(self) -> Family:
        """The set as the draw-in model sees it."""
        return Family(self.name, self.angle, self.gap, self.share, self.key)


def check_gaps(region: Region, choice: Quilting) -> None:
    reach_ = max(region.right - region.left, region.bottom - region.top)
    for name, gap in (("gap", choice.gap), ("gap_other", choice.gap_other)):
        if gap is None:
            continue
        if gap < Fraction(1, 16):
            raise CannotPlan(
                f"{region.field}.{name}", "Lines need at least 1/16 in (1.6 mm) between them."
            )
        if reach_ / gap > MOST_LINES:
            raise CannotPlan(
                f"{region.field}.{name}",
                f"That makes more than {MOST_LINES} lines: choose a wider gap.",
            )


def _other(choice: Quilting) -> Quilting:
    return choice.model_copy(update={"gap": choice.gap_other or choice.gap})


def lay_channels(
    region: Region, choice: Quilting, seams: tuple[SeamLine, ...]
) -> tuple[LineSet, ...]:
    return (_straight(region, choice, seams, choice.run == "upright", "a"),)


def lay_grid(region: Region, choice: Quilting, seams: tuple[SeamLine, ...]) -> tuple[LineSet, ...]:
    return (
        _straight(region, choice, seams, True, "a"),
        _straight(region, _other(choice), seams, False, "b"),
    )


def _straight(
    region: Region, choice: Quilting, seams: tuple[SeamLine, ...], upright: bool, letter: str
) -> LineSet:
    low, high = (region.left, region.right) if upright else (region.top, region.bottom)
    shows = given("shows between seam lines", high - low, Basis.GEOMETRY)
    angle = 90.0 if upright else 0.0
    found = _aligned(choice, shows, low, offsets_at(seams, angle), region.field)
    places = found[1]
    return LineSet(
        key=f"{region.zone}.{letter}",
        zone=region.zone,
        name="upright lines" if upright else "level lines",
        angle=angle,
        gap=found[0].gap,
        lines=found[0].lines,
        margin=found[0].margin,
        places=places,
        offsets=tuple(float(place) for place in places),
    )


def _aligned(
    choice: Quilting, shows: Figure, low: Inches, seams: tuple[float, ...], field: str
) -> tuple[Channels, tuple[Inches, ...]]:
    """Gap and places of straight lines, by the way they come out."""
    high = low + shows.value
    inner = [seam for seam in seams if float(low) < seam < float(high)]
    if choice.spacing == "hit" and inner:
        return _on_seams(choice, shows, low, inner)
    clear = choice.spacing == "clear" and bool(inner)
    keeps = "keep" if clear or choice.spacing == "keep" else "divide"
    made = plan_channels(choice.model_copy(update={"spacing": keeps}), shows, field)
    middle = (low + high) / 2
    places = tuple(middle + place for place in made.positions)
    if clear:
        return _between_seams(made, places, low, high, inner)
    return made, places


def _on_seams(
    choice: Quilting, shows: Figure, low: Inches, inner: list[float]
) -> tuple[Channels, tuple[Inches, ...]]:
    """A line on every seam, and so many between as bring the gap nearest to the wish."""
    ticks = [round(seam * FINE) for seam in inner]
    exact = [Fraction(tick, FINE) for tick in ticks]
    high = low + shows.value
    spans = len(exact) - 1
    mean = (exact[-1] - exact[0]) / spans if spans else high - low
    pitch = given("from seam to seam", mean, Basis.GEOMETRY)
    parts = max(round(float(pitch.value / choice.gap)), 1)
    gap = (pitch / count("gaps between seams", parts)).called("gap, as sewn")
    places: list[Inches] = []
    for start, end in pairwise(ticks):
        # In whole ticks: one fraction a line, and no sum of fractions.
        over = FINE * parts
        places += [Fraction(start * parts + (end - start) * i, over) for i in range(parts)]
    places.append(exact[-1])
    before, after = exact[0] - gap.value, exact[-1] + gap.value
    while before > low:
        places.insert(0, before)
        before -= gap.value
    while after < high:
        places.append(after)
        after += gap.value
    lines = _counted(len(exact), len(places) - len(exact), "on seams", "between and beside them")
    return Channels(gap, lines, _margin(places, low, high), ()), tuple(places)


def _counted(one: int, other: int, name: str, other_name: str) -> Figure:
    """Lines of two kinds together."""
    figures = (
        count(f"lines {name}", one, Basis.GEOMETRY),
        count(f"lines {other_name}", other, Basis.GEOMETRY),
    )
    return total(figures).called("lines")


def _margin(places: Sequence[Inches], low: Inches, high: Inches) -> Figure:
    """From the outermost line to the seam line beside it, at the nearer side."""
    if not places:
        pair = ("far seam line", high), ("near seam line", low)
    elif places[0] - low <= high - places[-1]:
        pair = ("first line", places[0]), ("seam line", low)
    else:
        pair = ("seam line", high), ("last line", places[-1])
    far, near = (given(name, value, Basis.GEOMETRY) for name, value in pair)
    return (far - near).called("margin to the seam line")


def _between_seams(
    made: Channels, places: tuple[Inches, ...], low: Inches, high: Inches, inner: list[float]
) -> tuple[Channels, tuple[Inches, ...]]:
    """The same gap shifted sideways so that lines keep as far from seams as they can."""
    gap = made.gap.value
    first = places[0] if places else low
    shifts = [gap * part / 32 for part in range(32)]

    step, begin, end = float(gap), float(low), float(high)

    def nearest(shift: Inches) -> float:
        start = float(first + shift)
        start -= (start - begin) // step * step
        lines = [start + step * n for n in range(int((end - start) / step) + 1)]
        return min((abs(p - s) for p in lines if begin < p < end for s in inner), default=0.0)

    best = max(shifts, key=nearest)
    kept = [p for p in _run(first + best, gap, low, high) if low < p < high]
    after = sum(place >= (low + high) / 2 for place in kept)
    lines = _counted(len(kept) - after, after, "before the middle", "from the middle on")
    return Channels(made.gap, lines, _margin(kept, low, high), ()), tuple(kept)


def _run(start: Inches, gap: Inches, low: Inches, high: Inches) -> list[Inches]:
    """Places a gap apart through ``start`` over all of low..high."""
    first = start - ((start - low) // gap) * gap
    number = int((high - first) / gap) + 1
    return [first + gap * i for i in range(number)]


def lay_diagonal(
    region: Region, choice: Quilting, seams: tuple[SeamLine, ...]
) -> tuple[LineSet, ...]:
    return (_slanted(region, choice, float(choice.angle), "a"),)


def lay_diamonds(
    region: Region, choice: Quilting, seams: tuple[SeamLine, ...]
) -> tuple[LineSet, ...]:
    angle = abs(float(choice.angle))
    return (_slanted(region, choice, angle, "a"), _slanted(region, _other(choice), -angle, "b"))


def _slanted(region: Region, choice: Quilting, angle: float, letter: str) -> LineSet:
    """Slanted lines, spaced along their normal through the middle of what shows."""
    _, across = ways(angle)
    low, high = reach(region.shows, across)
    wide = Fraction(round((high - low) * FINE), FINE)
    shows = given("from corner to corner", wide, Basis.GEOMETRY)
    even = "keep" if choice.spacing == "keep" else "divide"  # slanted lines mind no seams
    made = plan_channels(choice.model_copy(update={"spacing": even}), shows, region.field)
    x, y = region.middle
    middle = float(x) * across[0] + float(y) * across[1]
    return LineSet(
        key=f"{region.zone}.{letter}",
        zone=region.zone,
        name=f"lines at {write_degrees(angle)}",
        angle=angle,
        gap=made.gap,
        lines=made.lines,
        offsets=tuple(middle + float(place) for place in made.positions),
    )


def _seam_lines(region: Region, seams: tuple[SeamLine, ...]) -> dict[float, list[SeamLine]]:
    """The seams that show in a part, by their angle."""
    _, top, _, bottom = box_of(region.shape)
    found: dict[float, list[SeamLine]] = {}
    for run in seams:
        (_, y1), (_, y2) = run.points()
        if max(y1, y2) > top and min(y1, y2) < bottom:
            found.setdefault(run.angle, []).append(run)
    return found


def lay_ditch(region: Region, choice: Quilting, seams: tuple[SeamLine, ...]) -> tuple[LineSet, ...]:
    return _all_following(region, seams, (0.0,), "in the ditch")


def lay_beside(
    region: Region, choice: Quilting, seams: tuple[SeamLine, ...]
) -> tuple[LineSet, ...]:
    away = float(choice.offset)
    return _all_following(region, seams, (-away, away), "beside the seams")


def _all_following(
    region: Region, seams: tuple[SeamLine, ...], sides: tuple[float, ...], name: str
) -> tuple[LineSet, ...]:
    made = (
        _following(region, angle, runs, sides, name, "abcdefgh"[at % 8])
        for at, (angle, runs) in enumerate(sorted(_seam_lines(region, seams).items()))
    )
    return tuple(entry for entry in made if entry.drawn)


def _following(
    region: Region,
    angle: float,
    runs: list[SeamLine],
    sides: tuple[float, ...],
    name: str,
    letter: str,
) -> LineSet:
    """Lines on seams or beside them, those that show between the seam lines of the panel.

    Where they lie evenly, each from edge to edge, the gap is that from one to the next; else it is
    the area that each length of line has to itself.
    """
    moved = (replace(run, offset=run.offset + side) for run in runs for side in sides)
    shown = [run for run in moved if _shown(region, run.points()) > SHORT]
    way = {0.0: "level", 90.0: "upright"}.get(angle, write_degrees(angle))
    key, said = f"{region.zone}.{letter}", f"{name}, {way}"
    made = _by_length(region, key, said, angle, tuple(run.points() for run in shown))
    if len(sides) > 1 and len(shown) % len(sides) == 0:
        seams = count("seams", len(shown) // len(sides), Basis.GEOMETRY)
        both = count("lines along each", len(sides), Basis.GEOMETRY)
        made = replace(made, lines=(seams * both).called("lines"))
    pitch = _pitch(region, angle, shown)
    if pitch is None:
        return made
    each = given("from one line to the next", pitch, Basis.GEOMETRY)
    return replace(made, gap=each.called("gap, as sewn"))


def _shown(region: Region, points: tuple[tuple[float, float], ...]) -> float:
    """How much of a straight line shows between the seam lines."""
    (x1, y1), (x2, y2) = points[0], points[-1]
    angle = angle_of(x2 - x1, y2 - y1)
    (ax, ay), (nx, ny) = ways(angle)
    low, high = sorted((x1 * ax + y1 * ay, x2 * ax + y2 * ay))
    (spans,) = chords(region.shows, angle, [x1 * nx + y1 * ny])
    return sum(max(min(end, high) - max(start, low), 0.0) for start, end in spans)


def _pitch(region: Region, angle: float, runs: list[SeamLine]) -> Inches | None:
    """How far lines lie apart that lie evenly and run right across; None where they do not."""
    offsets = sorted(run.offset for run in runs)
    steps = [after - before for before, after in pairwise(offsets)]
    if not steps or max(steps) - min(steps) > UNEVEN or min(steps) < UNEVEN:
        return None
    for run in runs:
        (spans,) = chords(region.shows, angle, [run.offset])
        across = sum(end - start for start, end in spans)
        if _shown(region, run.points()) < across - UNEVEN:
            return None
    return Fraction(round((offsets[-1] - offsets[0]) / len(steps) * THOUSAND), THOUSAND)


def _by_length(
    region: Region,
    key: str,
    name: str,
    angle: float,
    drawn: tuple[tuple[tuple[float, float], ...], ...],
) -> LineSet:
    """A set of lines anyhow spaced: area ÷ length, both of what shows, is the gap that counts."""
    ground = given(
        "area that shows",
        (region.right - region.left) * (region.bottom - region.top),
        Basis.GEOMETRY,
        2,
    )
    length = max(sum(_shown(region, points) for points in drawn), 0.01)
    long = given(
        "length of its lines", Fraction(round(length * THOUSAND), THOUSAND), Basis.GEOMETRY
    )
    gap = (ground / long).called("gap, on the average")
    lines = count("lines", len(drawn), Basis.GEOMETRY)
    return LineSet(key, region.zone, name, angle, gap, lines, drawn=drawn, regular=False)


def lay_echo(region: Region, choice: Quilting, seams: tuple[SeamLine, ...]) -> tuple[LineSet, ...]:
    """Rings inside the outline, a gap apart from the seam lines inwards."""
    rings: list[Outline] = []
    gap, seam = float(choice.gap), _seam_insets(region)
    for turn in range(1, MOST_LINES + 1):
        parts = inset(region.shape, seam + gap * turn)
        found = [part for part in parts if area(part) >= gap * gap / 16]
        if not found or len(rings) >= MOST_LINES:
            break
        rings += found
    if not rings:
        raise CannotPlan(f"{region.field}.gap", "No echo of that gap fits inside: make it less.")
    half_ = given("half of the panel each", Fraction(1, 2), Basis.PRACTICE, 0)
    wish = given("gap, as sewn", choice.gap)
    number = count("rings", len(rings), Basis.GEOMETRY)
    return (
        LineSet(
            f"{region.zone}.a",
            region.zone,
            "echo, upright",
            90.0,
            wish,
            number,
            share=half_,
            drawn=tuple(rings),
            regular=False,
        ),
        LineSet(
            f"{region.zone}.b",
            region.zone,
            "echo, level",
            0.0,
            wish,
            count("rings", 0, Basis.GEOMETRY),
            share=half_,
            regular=False,
        ),
    )


def _seam_insets(region: Region) -> float:
    x1, y1, x2, y2 = box_of(region.shape)
    return max(
        min(
            float(region.left) - x1,
            x2 - float(region.right),
            float(region.top) - y1,
            y2 - float(region.bottom),
        ),
        0.0,
    )


def by_hand(region: Region, drawn: tuple[DrawnLine, ...]) -> tuple[LineSet, ...]:
    """Lines drawn by hand as sets, by their direction to the nearest five degrees."""
    groups: dict[float, list[tuple[str, tuple[tuple[float, float], ...]]]] = {}
    for number, line in enumerate(drawn):
        x1, y1, x2, y2 = (float(v) for v in (line.x1, line.y1, line.x2, line.y2))
        angle = round(angle_of(x2 - x1, y2 - y1) / 5) * 5.0
        groups.setdefault(90.0 if angle == -90 else angle, []).append(
            (f"drawn.{number}", ((x1, y1), (x2, y2)))
        )
    return tuple(
        replace(
            _by_length(
                region,
                f"hand.{at}",
                f"lines by hand, {write_degrees(angle)}",
                angle,
                tuple(points for _, points in lines),
            ),
            names=tuple(name for name, _ in lines),
        )
        for at, (angle, lines) in enumerate(sorted(groups.items()))
    )
