"""One panel's way down the size ladder: needed, pieced, quilted, trimmed.

Backwards from the trimmed size to what must be pieced, then forwards again with what was
measured.  Knows piecing, layers and quilting; must not know which shape asks.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from tessil.core.bag import Panel
from tessil.core.catalogue import Material
from tessil.core.lengths import Inches
from tessil.core.piecing.strips import Need, Strips, edge_strip_shows, plan_strips
from tessil.core.project import Got, Layers, Measured, PanelChoices, Piecing, Project, Quilting
from tessil.core.quilting.channels import Channels, Stitching, plan_channels, stitching
from tessil.core.quilting.shrinkage import (
    NO_STRAIN,
    Constants,
    Strain,
    across_lines,
    along_lines,
    bare_constants,
    constants,
)
from tessil.core.rulers import Rulers
from tessil.core.sandwich.layers import Layer, layer_sizes, margin_figure, stack, thickness
from tessil.core.workings import Basis, Figure, given, near_to, smallest, up_to

Side = Literal["left", "right", "top", "bottom"]
SIDES: tuple[Side, ...] = ("left", "right", "top", "bottom")


@dataclass(frozen=True, slots=True)
class Pair:
    """A width and a height at one rung."""

    width: Figure
    height: Figure

    def values(self) -> tuple[Inches, Inches]:
        return self.width.value, self.height.value


@dataclass(frozen=True, slots=True)
class Band:
    """One piece of a top: where it shows on the pieced top, and its print."""

    start: Inches
    end: Inches
    print: str
    turned: bool = False  # laid upside-down, to stand upright once folded


@dataclass(frozen=True, slots=True)
class Setting:
    """What all panels of a job share when they are planned."""

    project: Project
    marks: Rulers
    piecing_seam: Figure
    squaring: Figure
    binding_seam: Figure


@dataclass(frozen=True, slots=True)
class PanelPlan:
    """Everything computed for one panel; sizes say which rung they are."""

    panel: Panel
    choices: PanelChoices
    measured: Measured
    across: Strain
    along: Strain
    channels: Channels | None
    guide: Figure | None
    sewing: Stitching | None
    needed: Pair  # pieced, at least
    strips: Strips | None
    bands: tuple[Band, ...]
    planned: Pair  # pieced, by the plan
    pieced: Pair  # pieced, measured where it was
    expected: Pair  # quilted, by the model
    least: Pair  # quilted, at the bad end of the range
    most: Pair
    quilted: Pair  # quilted, measured where it was
    trimmed: Pair
    cut_off: dict[Side, Figure]
    edge_strips: tuple[Figure, ...]
    layers: tuple[Layer, ...]
    pressed: Figure
    shown: dict[Side, Inches]  # how far in from each trimmed edge the panel begins to show

    @property
    def key(self) -> str:
        return self.panel.key

    @property
    def upright_lines(self) -> bool:
        return self.choices.quilting.run == "upright"

    @property
    def level_strips(self) -> bool:
        return self.choices.piecing.run == "level"

    @property
    def scale(self) -> tuple[float, float]:
        """How many quilted inches a pieced inch becomes, each way."""
        return (
            float(self.quilted.width.value / self.pieced.width.value),
            float(self.quilted.height.value / self.pieced.height.value),
        )

    def pieced_at(self, x: float, y: float) -> tuple[float, float]:
        """Where a point of the trimmed panel lies on the pieced top."""
        across, down = self.scale
        left, top = float(self.cut_off["left"].value), float(self.cut_off["top"].value)
        return (x + left) / across, (y + top) / down

    def line_places(self) -> list[Inches]:
        """Quilting lines on the trimmed panel, from its left or top edge."""
        if self.channels is None:
            return []
        if self.upright_lines:
            start, end = self.shown["left"], self.trimmed.width.value - self.shown["right"]
        else:
            start, end = self.shown["top"], self.trimmed.height.value - self.shown["bottom"]
        middle = (start + end) / 2
        return [middle + place * self.line_scale() for place in self.channels.positions]

    def line_scale(self) -> Inches:
        """How far real draw-in moved the lines from where the plan has them: 1 if as planned."""
        real, plan = (
            (self.quilted.width.value, self.expected.width.value)
            if self.upright_lines
            else (self.quilted.height.value, self.expected.height.value)
        )
        return real / plan


def choices_for(project: Project, panel: Panel) -> PanelChoices:
    """A panel's own choices, those of the panel it is like, or the start for its kind."""
    for key in (panel.key, panel.like):
        if key in project.panels:
            return project.panels[key]
    if panel.kind == "outer":
        return PanelChoices()
    first = choices_of_lining(project)
    if first is not None:
        return first
    return PanelChoices(
        piecing=Piecing(way="whole"),
        layers=Layers(batting="none"),
        quilting=Quilting(pattern="none"),
    )


def _known(batting: str) -> Constants:
    return bare_constants() if batting == "none" else constants(batting)


def _channels(setting: Setting, panel: Panel, quilting: Quilting) -> Channels | None:
    if quilting.pattern == "none":
        return None
    upright = quilting.run == "upright"
    sides = ("left", "right") if upright else ("top", "bottom")
    size = panel.width if upright else panel.height
    shows = (size - _allowances(setting, panel, sides)).called("shows between seam lines")
    return plan_channels(quilting, shows, f"panels.{panel.key}.quilting")


def _allowances(setting: Setting, panel: Panel, sides: tuple[str, str]) -> Figure:
    one, other = (_allowance(setting, panel, side) for side in sides)
    return 2 * one if one.value == other.value else one + other


def _allowance(setting: Setting, panel: Panel, side: str) -> Figure:
    edge = panel.side(side)
    if edge.finish == "bound":
        return setting.binding_seam
    return given(f"{side} seam", edge.allowance)


def _strains(channels: Channels | None, batting: str) -> tuple[Strain, Strain]:
    if channels is None or channels.lines.value == 0:
        return NO_STRAIN, NO_STRAIN
    known = _known(batting)
    return across_lines(channels.gap, known), along_lines(known)


def _needed(setting: Setting, trimmed: Figure, strain: Strain, way: str) -> Figure:
    oversize = setting.project.oversize
    if strain is NO_STRAIN or oversize.way == "none":
        return trimmed.called(f"to piece, {way}")
    if oversize.way == "fixed":
        larger = trimmed + given("fixed margin", oversize.fixed)
    else:
        larger = trimmed / (1 - strain.most) + 2 * setting.squaring
    return up_to(larger, setting.marks.piece_step).settled(f"to piece, {way}")


def _top(
    setting: Setting, choice: Piecing, needed: Pair, key: str
) -> tuple[Pair, Strips | None, tuple[Band, ...]]:
    prints = choice.prints or tuple(entry.key for entry in setting.project.prints) or ("cloth",)
    level = choice.run == "level"
    if choice.way == "whole":
        end = needed.height.value if level else needed.width.value
        return needed, None, (Band(end * 0, end, prints[0], 0 in choice.turned),)
    across, along = (needed.height, needed.width) if level else (needed.width, needed.height)
    need = Need(across, along, setting.piecing_seam, f"panels.{key}.piecing")
    strips = plan_strips(choice, need, setting.marks)
    bands = tuple(
        Band(start, end, prints[i % len(prints)], i in choice.turned)
        for i, (start, end) in enumerate(strips.bands(setting.piecing_seam.value))
    )
    made = Pair(along, strips.across) if level else Pair(strips.across, along)
    return made, strips, bands


def _got(got: Got, plan: Pair, label: str) -> Pair:
    def one(value: Inches | None, planned: Figure, way: str) -> Figure:
        if value is None:
            return planned
        return given(f"{label} {way}, measured", value, Basis.MEASURED)

    return Pair(one(got.width, plan.width, "width"), one(got.height, plan.height, "height"))


def _shrunk(pieced: Pair, x: Figure, y: Figure, label: str) -> Pair:
    return Pair(
        (pieced.width * (1 - x)).called(f"{label} width"),
        (pieced.height * (1 - y)).called(f"{label} height"),
    )


def _cut_off(setting: Setting, choice: Piecing, quilted: Pair, trimmed: Pair) -> dict[Side, Figure]:
    one_way = choice.surplus == "one" and choice.way == "strips"
    level = choice.run == "level"
    off: dict[Side, Figure] = {}
    for first, last, have, want, strips_lie in (
        ("left", "right", quilted.width, trimmed.width, not level),
        ("top", "bottom", quilted.height, trimmed.height, level),
    ):
        spare = have - want
        begin = spare / 2
        if one_way and strips_lie:
            begin = smallest(setting.squaring, begin)
        named = begin.called(f"cut off, {first}")
        off[first] = named  # type: ignore[index]
        off[last] = (spare - named).called(f"cut off, {last}")  # type: ignore[index]
    return off


def _edge_strips(
    setting: Setting, panel: Panel, strips: Strips, strain: Strain, off: dict[Side, Figure],
    level: bool,
) -> tuple[Figure, ...]:  # fmt: skip
    sides: tuple[Side, Side] = ("top", "bottom") if level else ("left", "right")
    if strips.number.value < 2:
        return ()
    shown = []
    for side in sides:
        allowance = _allowance(setting, panel, side)
        shows = edge_strip_shows(
            strips, setting.piecing_seam, strain.expected, off[side], allowance
        )
        shown.append(shows.called(f"{side} strip will show"))
    return tuple(shown)


def _layers(
    choice: PanelChoices, pieced: Pair, materials: tuple[Material, ...], lining_print: str
) -> tuple[Layer, ...]:
    cloth = materials[0]
    top = Layer("top", "Top", cloth, "", pieced.width, pieced.height, pieced.width.value * 0)
    layers = [top]
    margin = margin_figure(choice.layers.margin)
    size = layer_sizes(pieced.width, pieced.height, margin)
    for entry in materials[1:]:
        if entry.kind == "batting":
            layers.append(Layer("batting", entry.name, entry, "", *size, margin.value))
        else:
            layers.append(Layer("backing", "Backing", entry, lining_print, *size, margin.value))
    return tuple(layers)


def has_backing(project: Project, choices: PanelChoices, kind: str) -> bool:
    """Whether a cloth is quilted in behind the batting: an interlining or the lining."""
    return kind == "outer" and (project.lining == "quilted-in" or choices.layers.backing != "none")


def plan_panel(setting: Setting, panel: Panel) -> PanelPlan:
    """All rungs of one panel; raises CannotPlan for choices that lead nowhere."""
    project, marks = setting.project, setting.marks
    choices = choices_for(project, panel)
    measured = project.measured.get(panel.key, Measured())
    batting = choices.layers.batting
    channels = _channels(setting, panel, choices.quilting)
    across, along = _strains(channels, batting)
    upright = choices.quilting.run == "upright"
    x, y = (across, along) if upright else (along, across)
    trimmed = Pair(panel.width, panel.height)
    needed = Pair(
        _needed(setting, panel.width, x, "width"), _needed(setting, panel.height, y, "height")
    )
    planned, strips, bands = _top(setting, choices.piecing, needed, panel.key)
    pieced = _got(measured.pieced, planned, "pieced")
    expected = _shrunk(pieced, x.expected, y.expected, "quilted")
    quilted = _got(measured.quilted, expected, "quilted")
    off = _cut_off(setting, choices.piecing, quilted, trimmed)
    level = choices.piecing.run == "level"
    lining_print = _first_print(choices_of_lining(project))
    materials = stack(batting, has_backing(project, choices, panel.kind), lining=False)
    pressed = thickness(materials, "pressed")
    return PanelPlan(
        panel=panel,
        choices=choices,
        measured=measured,
        across=across,
        along=along,
        channels=channels,
        guide=_guide(channels, across, marks),
        sewing=_sewing(channels, pieced, choices.quilting, pressed),
        needed=needed,
        strips=strips,
        bands=bands,
        planned=planned,
        pieced=pieced,
        expected=expected,
        least=_shrunk(pieced, x.most, y.most, "quilted, at least,"),
        most=_shrunk(pieced, x.least, y.least, "quilted, at most,"),
        quilted=quilted,
        trimmed=trimmed,
        cut_off=off,
        edge_strips=_edge_strips(setting, panel, strips, y if level else x, off, level)
        if strips
        else (),
        layers=_layers(choices, pieced, materials, lining_print),
        pressed=pressed,
        shown={side: _allowance(setting, panel, side).value for side in SIDES},
    )


def _guide(channels: Channels | None, across: Strain, marks: Rulers) -> Figure | None:
    if channels is None or channels.lines.value == 0:
        return None
    return near_to(channels.gap / (1 - across.expected), marks.gauge).called("guide bar at")


def _sewing(
    channels: Channels | None, pieced: Pair, quilting: Quilting, pressed: Figure
) -> Stitching | None:
    if channels is None:
        return None
    run = pieced.height if quilting.run == "upright" else pieced.width
    return stitching(channels.lines, run, pressed, quilting.stitch_mm)


def choices_of_lining(project: Project) -> PanelChoices | None:
    """The lining's own choices, if it has been given any."""
    return project.panels.get("lining")


def _first_print(choices: PanelChoices | None) -> str:
    if choices and choices.piecing.prints:
        return choices.piecing.prints[0]
    return "cloth"
