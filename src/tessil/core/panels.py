"""One panel's way down the size ladder: needed, pieced, quilted, trimmed.

Backwards from the trimmed size to what must be pieced, then forwards again with what was
measured.  Knows piecing, layers and quilting; must not know which shape asks.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from fractions import Fraction

from tessil.core.bag import Panel
from tessil.core.catalogue import Material
from tessil.core.choices import (
    choices_for,
    choices_of_lining,
    first_print,
    has_backing,
    owner_key,
)
from tessil.core.lengths import Inches
from tessil.core.piecing.slanted import slant_of
from tessil.core.piecing.strips import Strips, edge_shows
from tessil.core.piecing.top import Patch, Top, Wish
from tessil.core.piecing.tops import (
    Part,
    across_rule,
    all_patches,
    divided,
    down_rule,
    plan_top,
    shared,
)
from tessil.core.project import Got, Measured, PanelChoices, Piecing, Project, Quilting
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
from tessil.core.sizes import SIDES, Outline, Pair, Side
from tessil.core.workings import Basis, Figure, given, near_to, up_to


@dataclass(frozen=True, slots=True)
class EdgeShow:
    """What the outermost piece of one part still shows along one side of the trimmed panel."""

    side: Side
    zone: int
    shows: Figure
    cut: Figure


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
    parts: tuple[Part, ...]
    patches: tuple[Patch, ...]
    planned: Pair  # pieced, by the plan
    pieced: Pair  # pieced, measured where it was
    expected: Pair  # quilted, by the model
    least: Pair  # quilted, at the bad end of the range
    most: Pair
    quilted: Pair  # quilted, measured where it was
    trimmed: Pair
    cut_off: dict[Side, Figure]
    edges_show: tuple[EdgeShow, ...]
    layers: tuple[Layer, ...]
    pressed: Figure
    at: tuple[float, float, float, float]  # quilted inches a pieced one; cut off left and top
    shown: dict[Side, Inches]  # how far in from each trimmed edge the panel begins to show

    @property
    def key(self) -> str:
        return self.panel.key

    @property
    def upright_lines(self) -> bool:
        return self.choices.quilting.run == "upright"

    @property
    def top(self) -> Top:
        """The top of the first part, which is all of it unless the panel is divided."""
        return self.parts[0].top

    @property
    def strips(self) -> Strips | None:
        """The strips, or the rows of a grid, of an undivided panel."""
        if len(self.parts) > 1:
            return None
        return self.top.rows or self.top.columns

    @property
    def level_strips(self) -> bool:
        return self.top.rows is not None or self.choices.piecing.run == "level"

    @property
    def sewn_down(self) -> bool:
        """Whether the strips are sewn through the batting, so that piecing quilts."""
        piecing = self.choices.piecing
        return len(self.parts) == 1 and piecing.way == "flip" and piecing.foundation == "batting"

    @property
    def quilts(self) -> bool:
        """Whether it lives through a quilted size of its own."""
        return self.channels is not None or self.sewn_down

    @property
    def only_cloth(self) -> bool:
        """Whether it is all one cloth."""
        return len(self.parts) == 1 and self.choices.piecing.way == "whole"

    def piece_of(self, zone: int, piece: int) -> Patch | None:
        """The piece of that place in the part's list of prints, if it is there."""
        for patch in self.patches:
            if patch.zone == zone and patch.piece == piece:
                return patch
        return None

    @property
    def scale(self) -> tuple[float, float]:
        """How many quilted inches a pieced inch becomes, each way."""
        return self.at[:2]

    def pieced_at(self, x: float, y: float) -> tuple[float, float]:
        """Where a point of the trimmed panel lies on the pieced top."""
        across, down, left, top = self.at
        return (x + left) / across, (y + top) / down

    def trimmed_at(self, x: float, y: float) -> tuple[float, float]:
        """Where a point of the pieced top lies on the trimmed panel."""
        across, down, left, top = self.at
        return x * across - left, y * down - top

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


def _both_ways(setting: Setting, panel: Panel, choices: PanelChoices, across: Strain,
               along: Strain) -> tuple[Strain, Strain]:  # fmt: skip
    """What is drawn in across the width and along the height.

    Strips flipped and sewn on the batting are a set of lines too; sets of lines add.
    """
    x, y = (across, along) if choices.quilting.run == "upright" else (along, across)
    piecing = choices.piecing
    if choices.zones or piecing.way != "flip" or piecing.foundation != "batting":
        return x, y
    shows = _flip_gap(setting, panel, piecing)
    if shows.value <= 0:
        return x, y
    known, slant = _known(choices.layers.batting), slant_of(piecing)
    sine = given("sine² of the strips", slant.sine**2, Basis.GEOMETRY, 0)
    cosine = given("cosine² of the strips", slant.cosine**2, Basis.GEOMETRY, 0)
    across, along = across_lines(shows, known), along_lines(known)
    return x.with_more(across, sine, along, cosine), y.with_more(across, cosine, along, sine)


def _flip_gap(setting: Setting, panel: Panel, piecing: Piecing) -> Figure:
    """From seam to seam of strips flipped and sewn: on the average, where they are mixed."""
    seam = setting.piecing_seam
    if piecing.fixed == "count":
        size = panel.width if piecing.run == "upright" else panel.height
        return (size / piecing.count).called("each strip shows")
    widths = piecing.widths if piecing.fixed == "mixed" else (piecing.strip_cut,)
    cut = given("strip, cut", sum(widths, start=Fraction(0)) / len(widths))
    return (cut - 2 * seam).called("each strip shows")


def _needed(setting: Setting, trimmed: Figure, strain: Strain, way: str) -> Figure:
    oversize = setting.project.oversize
    if strain is NO_STRAIN or oversize.way == "none":
        return trimmed.called(f"to piece, {way}")
    if oversize.way == "fixed":
        larger = trimmed + given("fixed margin", oversize.fixed)
    else:
        larger = trimmed / (1 - strain.most) + 2 * setting.squaring
    return up_to(larger, setting.marks.piece_step).settled(f"to piece, {way}")


def _wish(setting: Setting, choice: Piecing, need: Pair, outline: Outline, field: str) -> Wish:
    project = setting.project
    return Wish(
        choice=choice,
        need=need,
        outline=outline,
        seam=setting.piecing_seam,
        marks=setting.marks,
        prints=tuple(entry.key for entry in project.prints) or ("cloth",),
        scraps=project.scraps,
        upright_only=frozenset(entry.key for entry in project.prints if entry.directional),
        field=field,
    )


def _on_top(panel: Panel, needed: Pair, x: Figure, y: Figure) -> Outline:
    """The trimmed outline on the pieced top as it is needed, in the middle of it."""
    wide, down = 1 - float(x.value), 1 - float(y.value)
    width, height = needed.floats()
    left = (width * wide - float(panel.width.value)) / 2
    top = (height * down - float(panel.height.value)) / 2
    return tuple(((float(a) + left) / wide, (float(b) + top) / down) for a, b in panel.outline)


def _parts(
    setting: Setting, panel: Panel, choices: PanelChoices, needed: Pair,
    strains: tuple[Figure, Figure],
) -> tuple[Pair, tuple[Part, ...]]:  # fmt: skip
    """The pieced size and the parts it is made of."""
    owner = owner_key(setting.project, panel)
    outline = _on_top(panel, needed, *strains)
    base = f"panels.{owner}"
    first = _wish(setting, choices.piecing, needed, outline, f"{base}.piecing")
    if not choices.zones:
        top = plan_top(first)
        none = needed.height - needed.height
        trims = dict.fromkeys(SIDES, none)
        return top.size, (Part(first, top, none, top.size.height, trims),)
    wishes, begins = [first], [needed.height - needed.height]
    spare = (needed.height * (1 - strains[1]) - panel.height) / 2
    for at, zone in enumerate(choices.zones):
        field = f"{base}.zones.{at}.piecing"
        wishes.append(replace(first, choice=zone.piecing, field=field))
        starts = given("part begins at", zone.starts)
        begins.append(near_to((spare + starts) / (1 - strains[1]), setting.marks.ruler))
    return needed, divided(wishes, begins, needed, setting.piecing_seam)


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


def _cut_off(
    setting: Setting, choices: PanelChoices, quilted: Pair, trimmed: Pair
) -> dict[Side, Figure]:
    """What the ruler takes off each side of the quilted panel."""
    piecing, off = choices.piecing, {}
    undivided = not choices.zones
    sides: tuple[tuple[Side, Side, Figure, Figure, str], ...] = (
        ("left", "right", quilted.width, trimmed.width, across_rule(piecing)),
        ("top", "bottom", quilted.height, trimmed.height, down_rule(piecing)),
    )
    for first, last, have, want, rule in sides:
        begin, end = shared(have - want, rule if undivided else "both", setting.squaring)
        off[first] = begin.called(f"cut off, {first}")
        off[last] = end.called(f"cut off, {last}")
    return off


def _edges_show(setting: Setting, panel: Panel, parts: tuple[Part, ...],
                strains: tuple[Strain, Strain], off: dict[Side, Figure]
                ) -> tuple[EdgeShow, ...]:  # fmt: skip
    """What the outermost pieces show along the sides of the panel."""
    found = []
    for zone, part in enumerate(parts):
        for first, last, pieces, strain in (
            ("left", "right", part.top.columns, strains[0]),
            ("top", "bottom", part.top.rows, strains[1]),
        ):
            ends = _ends(part.top, pieces)
            if ends is None:
                continue
            sides: tuple[tuple[Side, Figure], ...] = ((first, ends[0]), (last, ends[1]))  # type: ignore[assignment]
            for side, cut in sides:
                if (side == "top" and zone) or (side == "bottom" and zone < len(parts) - 1):
                    continue
                gone = off[side]
                if part.trims[side].value:
                    gone = gone + part.trims[side] * (1 - strain.expected)
                shows = edge_shows(
                    cut, setting.piecing_seam, strain.expected, gone,
                    _allowance(setting, panel, side),
                )  # fmt: skip
                found.append(EdgeShow(side, zone, shows.called(f"{side} piece will show"), cut))
    return tuple(found)


def _ends(top: Top, pieces: Strips | None) -> tuple[Figure, Figure] | None:
    """Cut widths of the outermost pieces, first and last; None where one piece is all."""
    if top.border is not None:
        return top.border, top.border
    if pieces is None or len(pieces.cuts) < 2:
        return None
    return pieces.cuts[0], pieces.cuts[-1]


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


def plan_panel(setting: Setting, panel: Panel) -> PanelPlan:
    """All rungs of one panel; raises CannotPlan for choices that lead nowhere."""
    project, marks = setting.project, setting.marks
    choices = choices_for(project, panel)
    measured = project.measured.get(panel.key, Measured())
    batting = choices.layers.batting
    channels = _channels(setting, panel, choices.quilting)
    across, along = _strains(channels, batting)
    x, y = _both_ways(setting, panel, choices, across, along)
    trimmed = Pair(panel.width, panel.height)
    needed = Pair(
        _needed(setting, panel.width, x, "width"), _needed(setting, panel.height, y, "height")
    )
    planned, parts = _parts(setting, panel, choices, needed, (x.expected, y.expected))
    pieced = _got(measured.pieced, planned, "pieced")
    expected = _shrunk(pieced, x.expected, y.expected, "quilted")
    quilted = _got(measured.quilted, expected, "quilted")
    off = _cut_off(setting, choices, quilted, trimmed)
    at = _scaled(pieced, quilted, off)
    lining_print = first_print(choices_of_lining(project))
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
        parts=parts,
        patches=_on_panel(all_patches(parts), _scaled(planned, quilted, off)),
        planned=planned,
        pieced=pieced,
        expected=expected,
        least=_shrunk(pieced, x.most, y.most, "quilted, at least,"),
        most=_shrunk(pieced, x.least, y.least, "quilted, at most,"),
        quilted=quilted,
        trimmed=trimmed,
        cut_off=off,
        edges_show=_edges_show(setting, panel, parts, (x, y), off),
        layers=_layers(choices, pieced, materials, lining_print),
        pressed=pressed,
        at=at,
        shown={side: _allowance(setting, panel, side).value for side in SIDES},
    )


def _scaled(
    pieced: Pair, quilted: Pair, off: dict[Side, Figure]
) -> tuple[float, float, float, float]:
    return (
        float(quilted.width.value / pieced.width.value),
        float(quilted.height.value / pieced.height.value),
        float(off["left"].value),
        float(off["top"].value),
    )


def _on_panel(
    patches: tuple[Patch, ...], at: tuple[float, float, float, float]
) -> tuple[Patch, ...]:
    across, down, left, top = at
    return tuple(
        patch.laid_at(tuple((x * across - left, y * down - top) for x, y in patch.outline))
        for patch in patches
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
