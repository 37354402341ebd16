"""What a log says, drawn: bars, how times fall with practice, a season's dots, a bag's photo."""

from __future__ import annotations

from collections.abc import Sequence
from math import ceil

from tessil.core.catalogue.prints import Photo, Print
from tessil.core.costing.learning import Curve
from tessil.core.costing.stats import Dot
from tessil.drawing.costview import step_of
from tessil.drawing.picture import Cloth, Item, Label, Line, Picture, Point, Shade, rectangle
from tessil.drawing.plotview import HIGH, ROOM, WIDE, axes, diamond

BARS = 5.0  # how long the longest bar is, where a line of words is 0.7 high
MARKS = ("diamond", "square", "drop", "cross")


def bars_picture(rows: Sequence[tuple[str, float]], unit: str) -> Picture:
    """Bars beside their names, the longest over the whole width."""
    most = max([abs(value) for _, value in rows] or [1.0]) or 1.0
    items: list[Item] = []
    for at, (name, value) in enumerate(rows):
        y, wide = at * 0.7, max(value, 0.0) / most * BARS
        items.append(Shade(rectangle(0.0, y, wide, 0.5), "glow"))
        items.append(Line(rectangle(0.0, y, wide, 0.5), "raw", closed=True))
        items.append(Label((-0.15, y + 0.25), name.replace("-", " "), align="right"))
        items.append(Label((wide + 0.15, y + 0.25), f"{value:.0f} {unit}", align="left"))
    if not rows:
        items.append(Label((BARS / 2, 0.5), "nothing to draw yet"))
    box = (0.0, 0.0, BARS, max(len(rows) * 0.7, 1.0))
    return Picture(tuple(items), box, (110, 20, 90, 20), ruled=False, caption="")


def learning_picture(dots: Sequence[Dot], curve: Curve | None) -> Picture:
    """Minutes for one bag by how many were made, each sitting a point, with what is expected."""
    most_x = max([dot.x for dot in dots] or [6.0]) * 1.25
    high = max([dot.y for dot in dots] or [60.0]) * 1.3
    step = step_of(high)
    most = ceil(high / step) * step
    across = step_of(most_x)
    marks = [(n * across, f"{n * across:g}") for n in range(1, int(most_x / across) + 1)]

    def place(x: float, y: float) -> Point:
        return x / most_x * WIDE, HIGH - min(y / most, 1.04) * HIGH

    items: list[Item] = []
    if curve is not None:
        xs = [1 + (most_x - 1) * n / 40 for n in range(41)]
        at = [(x, *curve.at(x)) for x in xs]
        band = [place(x, y / off) for x, y, off in at]
        band += [place(x, y * off) for x, y, off in reversed(at)]
        items.append(Shade(tuple(band), "glow"))
    items += axes(most_x, most, marks, ("bags made", "minutes for one"), step)
    if curve is not None:
        items.append(Line(tuple(place(x, y) for x, y, _ in at), "drawn"))
    for dot in dots:
        items.append(Shade(diamond(place(dot.x, dot.y)), "shade"))
        items.append(Line(diamond(place(dot.x, dot.y)), "notch", closed=True))
    return Picture(tuple(items), (0.0, 0.0, WIDE, HIGH), ROOM, ruled=False, caption="")


def season_picture(dots: Sequence[Dot], unit: str) -> Picture:
    """Points over the days of a season, every series with a mark of its own."""
    most_x = max([dot.x for dot in dots] or [30.0]) or 30.0
    high = max([dot.y for dot in dots] or [4.0]) * 1.25 or 4.0
    step = step_of(high) if high > 8 else next(s for s in (0.5, 1.0, 2.0) if high / s <= 8)
    most = ceil(high / step) * step
    across = max(step_of(most_x / 7), 1.0) * 7
    marks = [(n * across, f"{n * across:g}") for n in range(1, int(most_x / across) + 1)]
    items: list[Item] = [*axes(most_x, most, marks, ("days", unit), step)]
    names = list(dict.fromkeys(dot.series for dot in dots))
    for dot in dots:
        at = dot.x / most_x * WIDE, HIGH - min(dot.y / most, 1.04) * HIGH
        items += _mark(at, names.index(dot.series))
    for at_, name in enumerate(names[:6]):
        x, y = WIDE * 0.62, 0.3 + at_ * 0.5
        items += _mark((x, y), at_)
        items.append(Label((x + 0.25, y), name.replace("-", " "), align="left", chip=True))
    if not dots:
        items.append(Label((WIDE / 2, HIGH / 2), "nothing to draw yet"))
    return Picture(tuple(items), (0.0, 0.0, WIDE, HIGH), ROOM, ruled=False, caption="")


def _mark(at: Point, series: int) -> list[Item]:
    """A point of a series by its form: colour alone tells nothing."""
    x, y, s = at[0], at[1], 0.11
    kind = MARKS[series % len(MARKS)]
    if kind == "diamond":
        outline: tuple[Point, ...] = diamond(at, s * 1.2)
    elif kind == "square":
        outline = rectangle(x - s, y - s, 2 * s, 2 * s)
    elif kind == "drop":
        outline = ((x - s, y + s), (x + s, y + s), (x, y - s))
    else:
        outline = ((x - s, y - s), (x + s, y - s), (x, y + s))
    return [Shade(outline, "shade"), Line(outline, "notch", closed=True)]


def photo_picture(photo: Photo) -> Picture:
    """A bag's photo, whole."""
    wide = float(photo.apart)
    high = wide * photo.high / photo.wide
    cloth = Print.model_construct(key="photo", name="photo", photo=photo)
    outline = rectangle(0.0, 0.0, wide, high)
    return Picture((Cloth(outline, cloth),), (0.0, 0.0, wide, high), (8, 8, 8, 8), ruled=False)
