"""The logbook's two drawings: loss against gap, and what was measured against what was expected.

Pictures like all others, so that they can be tested as data; a plot's box is 10 by 6.
"""

from __future__ import annotations

from collections.abc import Iterator
from math import ceil

from tessil.core.catalogue import Material
from tessil.core.logbook.views import GAPS, StackView
from tessil.core.numbers.lengths import MM_PER_INCH
from tessil.drawing.picture import Item, Label, Line, Picture, Point, Shade, Stroke, rectangle

WIDE, HIGH = 10.0, 6.0
ROOM = (62, 26, 24, 52)
DOT = 0.1


def axes(
    most_x: float,
    most_y: float,
    marks_x: list[tuple[float, str]],
    words: tuple[str, str],
    step: float,
    high: float = HIGH,
) -> Iterator[Item]:
    """Axes with their marks and words; the plot is ``WIDE`` by ``high``."""
    yield Line(((0.0, 0.0), (0.0, high), (WIDE, high)), "raw")
    for value, text in marks_x:
        x = value / most_x * WIDE
        yield Line(((x, high), (x, high + 0.12)), "raw")
        yield Label((x, high + 0.42), text)
    at = 0.0
    while at <= most_y + 1e-9:
        y = high - at / most_y * high
        yield Line(((0.0, y), (WIDE, y)), "thin")
        yield Label((-0.15, y), f"{at:g}", align="right")
        at += step
    yield Label((WIDE, high + 0.9), words[0], align="right")
    yield Label((-0.6, -0.35), words[1], align="left")


def diamond(at: Point, size: float = DOT) -> tuple[Point, ...]:
    """A point of a plot."""
    x, y = at
    return ((x, y - size), (x + size, y), (x, y + size), (x - size, y))


def _dot(at: Point, name: str, outlies: bool) -> Iterator[Item]:
    yield Shade(diamond(at), "shade")
    yield Line(diamond(at), "warn" if outlies else "notch", closed=True)
    if outlies:
        yield Label((at[0] + 0.2, at[1] - 0.2), name, align="left", chip=True)


def _steps(most: float) -> float:
    return next(step for step in (0.5, 1, 2, 5, 10) if most / step <= 7)


def gap_picture(view: StackView, metric: bool) -> Picture:
    """Loss across the lines against their gap: expected, its range, and the maker's own."""
    most_gap = 3.0
    gaps = [gap for gap in GAPS if gap <= most_gap]
    highest = max(
        [view.across(gap)[2] for gap in gaps if gap >= 0.5] + [point.loss for point in view.points]
    )
    most = float(max(ceil(highest * 100), 2))

    def place(gap: float, loss: float) -> Point:
        return gap / most_gap * WIDE, HIGH - min(loss * 100 / most, 1.06) * HIGH

    gaps = [gap for gap in gaps if view.across(gap)[2] * 100 <= most]  # what goes off the paper
    low = [place(gap, view.across(gap)[0]) for gap in gaps]
    high = [place(gap, view.across(gap)[2]) for gap in gaps]
    items: list[Item] = [Shade((*low, *reversed(high)), "glow")]
    if metric:
        marks = [(mm / float(MM_PER_INCH), f"{mm / 10:g}") for mm in range(10, 76, 10)]
        words = "gap between lines, cm"
    else:
        marks = [(n / 2, ("½", "1", "1½", "2", "2½", "3")[n - 1]) for n in range(1, 7)]
        words = "gap between lines, in"
    items += axes(most_gap, most, marks, (words, "% lost across the lines"), _steps(most))
    items.append(Line(tuple(place(gap, view.across(gap)[1]) for gap in gaps), "drawn"))
    for point in view.points:
        if point.gap <= most_gap:
            items += _dot(place(point.gap, point.loss), str(point.swatch + 1), point.outlies)
    return Picture(tuple(items), (0.0, 0.0, WIDE, HIGH), ROOM, ruled=False, caption="")


def agreement_picture(view: StackView) -> Picture:
    """What was measured against what the fit expects, each with its range upright."""
    found = view.residuals
    values = [entry.expected for entry in found] + [entry.observation.value for entry in found]
    most = float(max(ceil(max((abs(value) for value in values), default=0.02) * 100), 2))

    def place(expected: float, measured: float) -> Point:
        return (
            min(max(expected * 100 / most, 0.0), 1.0) * WIDE,
            HIGH - min(max(measured * 100 / most, 0.0), 1.05) * HIGH,
        )

    step = _steps(most)
    marks = [(n * step, f"{n * step:g}") for n in range(int(most / step) + 1)]
    items: list[Item] = [*axes(most, most, marks, ("% expected", "% measured"), step)]
    items.append(Line(((0.0, HIGH), (WIDE, 0.0)), "fold"))
    for entry in found:
        miss = view.fitted.miss(entry.observation.row)
        low, high = (
            place(entry.expected, entry.expected - miss),
            place(entry.expected, entry.expected + miss),
        )
        items.append(Line((low, high), "drawn"))
    for entry in found:
        at = place(entry.expected, entry.observation.value)
        items += _dot(at, str(entry.observation.swatch + 1), entry.outlies)
    return Picture(tuple(items), (0.0, 0.0, WIDE, HIGH), ROOM, ruled=False, caption="")


BAR, STEP = 0.18, 0.5


def materials_picture(known: list[Material], picked: int) -> Picture:
    """How thick every material is, as it lies (open) and under the foot (dark), ten times."""
    items: list[Item] = []
    scale = 10 / float(MM_PER_INCH)
    for at, entry in enumerate(known):
        y = at * STEP
        relaxed, pressed = float(entry.relaxed_mm) * scale, float(entry.pressed_mm) * scale
        items.append(Shade(rectangle(0.0, y, relaxed, 2 * BAR), "batting"))
        items.append(Shade(rectangle(0.0, y, pressed, 2 * BAR), "shade"))
        stroke: Stroke = "picked" if at == picked else "raw"
        items.append(Line(rectangle(0.0, y, relaxed, 2 * BAR), stroke, closed=True))
        items.append(Label((-0.1, y + BAR), entry.name, align="right", strong=at == picked))
        words = f"{float(entry.relaxed_mm):g}, {float(entry.pressed_mm):g} mm"
        items.append(Label((relaxed + 0.1, y + BAR), words, align="left"))
    high = len(known) * STEP
    items.append(Label((0.0, high + 0.3), "10 times as thick; dark: under the foot", align="left"))
    return Picture(tuple(items), (0.0, 0.0, 2.6, high + 0.4), (190, 20, 96, 30), ruled=False)
