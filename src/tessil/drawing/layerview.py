"""The layer stage: the sandwich cut open, and how thick it gets round the panel.

Knows the plan and pictures; must not know Qt.
"""

from __future__ import annotations

from collections.abc import Iterator
from math import cos, pi, sin

from tessil.core.edges.bulk import Spot
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Inches
from tessil.core.numbers.polygons import cut_by
from tessil.core.panels.panel import PanelPlan
from tessil.core.planned import Plan
from tessil.core.sandwich.layers import Layer, short_of_seam
from tessil.drawing.bands import bands, trimmed_bands
from tessil.drawing.hoopview import hoop_picture
from tessil.drawing.picture import (
    Cloth,
    Item,
    Label,
    Line,
    Net,
    Picture,
    Point,
    Shade,
    Tone,
    rectangle,
)
from tessil.drawing.pieceview import seam_lines

CUT_BACK = 0.5  # the top is cut back to so much less of its width, layer by layer
FACTORS = (1, 2, 3, 5, 8, 10, 15, 20, 30)
SECTION_HIGH = 0.3  # of the panel's height, at most
NOTHING = Fraction(0)
LEAST_BAND = 0.34  # inches on the bench, so that a thin layer can be clicked
_TONES: dict[str, Tone] = {
    "top": "shade",
    "batting": "batting",
    "backing": "backing",
    "firm": "off",
}


def layer_picture(plan: Plan, panel: PanelPlan, leaf: str, ply: int) -> Picture:
    """The layers, or how thick they are at the seams."""
    if leaf == "bulk":
        return bulk_picture(plan, panel)
    if leaf == "hoop":
        return hoop_picture(plan, panel)
    return open_picture(plan, panel, ply)


def open_picture(plan: Plan, panel: PanelPlan, ply: int) -> Picture:
    """Every layer cut back a little further than the one below, and all of them from the side."""
    width, height = panel.pieced.floats()
    margin = max((float(layer.margin) for layer in panel.layers), default=0.0)
    items: list[Item] = list(_cut_back(plan, panel))
    top = height + margin + height * 0.1
    section, pieces, bottom = _section(plan, panel, top, ply)
    items += section
    box = (-margin, -margin, width + 2 * margin, bottom + margin)
    caption = f"{panel.panel.label}, its layers cut back and from the side. Click a layer; "
    caption += "Shift with an arrow moves it, Delete takes it out."
    return Picture(
        tuple(items), box, caption=caption, room=(150, 28, 150, 40), ruled=False, pieces=pieces
    )


def _cut_back(plan: Plan, panel: PanelPlan) -> Iterator[Item]:
    width, height = panel.pieced.floats()
    under = [layer for layer in reversed(panel.layers) if layer.role != "top"]
    step = CUT_BACK / max(len(panel.layers) - 1, 1)
    for at, layer in enumerate(under):
        x, y, right, bottom = _reach(panel, layer)
        share = 1 - step * at
        shape = _slanted(x, y, x + (right - x) * share, bottom, at > 0)
        yield Shade(shape, _TONES[layer.role])
        yield Line(shape, "raw", closed=True)
    slant = _slanted(0, 0, width * (1 - step * len(under)), height, bool(under))
    for cloth in bands(plan, panel):
        shape = cut_by(slant, cloth.outline)
        if len(shape) > 2:
            yield Cloth(shape, cloth.print, cloth.key, cloth.turned)
    yield Line(slant, "raw", closed=True)


def _reach(panel: PanelPlan, layer: Layer) -> tuple[float, float, float, float]:
    """Where a layer lies on the pieced top: in its middle."""
    width, height = panel.pieced.floats()
    wide, high = float(layer.width.value), float(layer.height.value)
    x, y = (width - wide) / 2, (height - high) / 2
    return x, y, x + wide, y + high


def _slanted(x: float, y: float, right: float, bottom: float, slanted: bool) -> tuple[Point, ...]:
    lean = (bottom - y) * 0.05 if slanted else 0.0
    return ((x, y), (right + lean, y), (right - lean, bottom), (x, bottom))


def factor_of(panel: PanelPlan) -> int:
    """How many times the thickness is drawn, a round number."""
    thick = sum(float(layer.material.relaxed_mm) for layer in panel.layers) / 25.4
    room = float(panel.pieced.height.value) * SECTION_HIGH
    return max((factor for factor in FACTORS if factor * thick <= room), default=1)


def _section(
    plan: Plan, panel: PanelPlan, top: float, ply: int
) -> tuple[list[Item], dict[str, tuple[Point, ...]], float]:
    """The layers from the side, each as thick as it is times a stated factor."""
    factor, y = factor_of(panel), top
    width, height = panel.pieced.floats()
    items: list[Item] = []
    pieces: dict[str, tuple[Point, ...]] = {}
    rows: list[tuple[Layer, float, float]] = []
    for layer in panel.layers:
        thick = float(layer.material.relaxed_mm) / 25.4 * factor
        x, _, right, _ = _reach(panel, layer)
        shape = rectangle(x, y, right - x, thick)
        items += _band(shape, layer)
        if layer.ply >= 0:
            reach = max(thick, LEAST_BAND)
            middle = y + thick / 2
            pieces[f"ply:{layer.ply}"] = rectangle(x, middle - reach / 2, right - x, reach)
            if layer.ply == ply:
                items.append(Line(shape, "picked", closed=True))
        rows.append((layer, y, y + thick))
        y += thick
    items += _section_words(plan, panel, rows)
    inset = [float(panel.shown[side]) for side in ("left", "right")]
    trimmed = panel.trimmed.floats()[0]
    for at in (inset[0], trimmed - inset[1]):
        x, _ = panel.pieced_at(at, 0)
        items.append(Line(((x, top - 0.25), (x, y + 0.25)), "seam"))
    words = f"From the side: thickness drawn {factor} times; broken, the bag's seam lines"
    low = max(y, _lowest(rows, height)) + height * 0.055
    items.append(Label((width / 2, low), words))
    return items, pieces, low + height * 0.03


def _word_lines(rows: list[tuple[Layer, float, float]], height: float) -> list[float]:
    """The heights of the layers' names: spread about the layers, far enough apart to read."""
    step = height * 0.062
    centre = (rows[0][1] + rows[-1][2]) / 2
    return [centre + (at - (len(rows) - 1) / 2) * step for at in range(len(rows))]


def _lowest(rows: list[tuple[Layer, float, float]], height: float) -> float:
    return _word_lines(rows, height)[-1]


def _band(shape: tuple[Point, ...], layer: Layer) -> Iterator[Item]:
    yield Shade(shape, _TONES[layer.role])
    yield Line(shape, "raw", closed=True)
    (x, y), _, (right, bottom), _ = shape
    if layer.role == "batting":  # loft: a wave of short strokes
        step = max((right - x) / 60, 0.05)
        strokes, at, up = [], x, True
        while at + step < right:
            low, high = y + (bottom - y) * 0.25, y + (bottom - y) * 0.75
            strokes.append((at, high if up else low, at + step, low if up else high))
            at, up = at + step, not up
        yield Net(tuple(strokes), "thin")


def rule_words(rule: str, plan: Plan, margin: Inches = NOTHING) -> str:
    """How a layer is cut, in a few words."""
    read = plan.marks.notation.read_off
    if rule == "short":
        return f"{read(short_of_seam(plan.marks).value, unit=True)} short of the seams"
    over = f"{read(margin, unit=True)} over" if margin else "larger all round"
    return {
        "hoop": "cut to the hoop",
        "margin": over,
        "panel": "as the top",
        "inside": "inside the seams",
    }[rule]


_BONDS = {"fuse": "fused", "spray": "sprayed", "glue": "glued", "pins": "pinned", "itself": "grips"}


def _section_words(
    plan: Plan, panel: PanelPlan, rows: list[tuple[Layer, float, float]]
) -> Iterator[Item]:
    """Names on the left, how it is cut and held on the right, spread so that they do not touch."""
    margin = max((float(layer.margin) for layer, _, _ in rows), default=0.0)
    width, height = panel.pieced.floats()
    middles = [(low + high) / 2 for _, low, high in rows]
    ys = _word_lines(rows, height)
    for (layer, _, _), middle, y in zip(rows, middles, ys, strict=True):
        thick = f"{float(layer.material.relaxed_mm):g} mm"
        yield Line(((-margin, middle), (-margin - 0.25, y)), "thin")
        yield Label((-margin - 0.3, y), f"{layer.label}, {thick}", align="right")
        if layer.role == "top":
            continue
        words = f"{rule_words(layer.rule, plan, layer.margin)}, {_BONDS[layer.bond]}"
        yield Line(((width + margin, middle), (width + margin + 0.25, y)), "thin")
        yield Label((width + margin + 0.3, y), words, align="left")


# -- thickness at the seams ----------------------------------------------------------------


STEPS = (2.0, 4.0, 6.0)  # mm: where needle and stitch change


def bulk_picture(plan: Plan, panel: PanelPlan, radius: float = 0.5) -> Picture:
    """The trimmed panel with a disc at every place to sew: its millimetres, and more strokes in
    it the thicker it is."""
    width, height = panel.trimmed.floats()
    outline = tuple((float(x), float(y)) for x, y in panel.panel.outline)
    items: list[Item] = [
        *trimmed_bands(plan, panel),
        *seam_lines(panel),
        Line(outline, "notch", closed=True),
    ]
    spots = _apart(plan.spots_on(panel.key), 2.6 * radius)
    for spot in spots:
        items += disc(spot.at, float(spot.mm), radius)
    if radius <= 0.5:  # on paper a list says it
        items += _legend(width, height)
    box = (-1.3, -0.9, width + 2.6, height + 0.9 + max(height, width) * 0.16)
    caption = f"{panel.panel.label}: millimetres under the foot where it is sewn together."
    return Picture(tuple(items), box, caption=caption, room=(70, 40, 70, 44), ruled=False)


def _apart(spots: tuple[Spot, ...], apart: float) -> list[Spot]:
    """The thickest first, without those that would lie on one shown already."""
    shown: list[Spot] = []
    for spot in sorted(spots, key=lambda one: -one.mm):
        if all(abs(spot.at[0] - o.at[0]) + abs(spot.at[1] - o.at[1]) > apart for o in shown):
            shown.append(spot)
    return shown


def level(mm: float) -> int:
    """0 to 3: how many of the steps it goes beyond."""
    return sum(mm > step for step in STEPS)


def _ring(at: Point, radius: float) -> tuple[Point, ...]:
    x, y = at
    return tuple((x + radius * cos(k * pi / 16), y + radius * sin(k * pi / 16)) for k in range(32))


def disc(at: Point, mm: float, radius: float = 0.5) -> Iterator[Item]:
    """A paper disc with its millimetres, in a hatched rim that is the broader the thicker."""
    rim = radius * (1 + 0.26 * level(mm))
    if rim > radius:
        yield Shade(_ring(at, rim), "paper")
        yield Net(tuple(_spokes(at, radius, rim)), "hatch")
        yield Line(_ring(at, rim), "notch", closed=True)
    yield Shade(_ring(at, radius), "paper")
    yield Line(_ring(at, radius), "notch", closed=True)
    yield Label(at, f"{mm:.1f}", strong=True)


def _spokes(at: Point, inner: float, outer: float) -> Iterator[tuple[float, float, float, float]]:
    x, y = at
    for k in range(36):
        c, s = cos(k * pi / 18), sin(k * pi / 18)
        yield x + inner * c, y + inner * s, x + outer * c, y + outer * s


def _legend(width: float, height: float) -> Iterator[Item]:
    """What the rims say."""
    words = ("to 2 mm", "2 to 4", "4 to 6", "over 6")
    y = height + max(height, width) * 0.12
    step = (width + 3.0) / 4
    for at, (mm, text) in enumerate(zip((1.0, 3.0, 5.0, 7.0), words, strict=True)):
        x = step * at - 1.0
        for item in disc((x, y), mm, 0.24):
            if not isinstance(item, Label):
                yield item
        yield Label((x + 0.6, y), text, align="left")
