"""One panel's way down the size ladder: needed, pieced, quilted, trimmed.

Backwards from the trimmed size to what must be pieced, then forwards again with what was
measured.  Knows piecing, layers and quilting; must not know which shape asks.
"""

from __future__ import annotations

from collections.abc import Mapping

from msgspec.structs import replace

from tessil.core.bag.model import Panel
from tessil.core.catalogue import Material
from tessil.core.logbook.flow import Knowledge
from tessil.core.memory.same import same
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Inches
from tessil.core.numbers.records import Record
from tessil.core.numbers.rulers import Rulers
from tessil.core.numbers.sizes import SIDES, Outline, Pair, Side
from tessil.core.numbers.workings import Basis, Figure, given, near_to, number, up_to
from tessil.core.panels.choice import Got, Measured, Oversize, PanelChoices
from tessil.core.panels.panel import EdgeShow, PanelPlan, flipped_through, foundation_of
from tessil.core.panels.ruled import Way, cut_off, longer_by, spare_off
from tessil.core.piecing.choice import GRIDS, Piecing, Scrap
from tessil.core.piecing.slanted import slant_of
from tessil.core.piecing.strips import edge_shows
from tessil.core.piecing.top import Patch, Strips, Top, Wish
from tessil.core.piecing.tops import Part, all_patches, divided, plan_top
from tessil.core.quilting.quilt import (
    joints,
    needs_seams,
    panel_sets,
    quilt_families,
    quilt_panel,
    stroke_room,
)
from tessil.core.quilting.seams import SeamLine
from tessil.core.quilting.sets import LineSet
from tessil.core.quilting.sewing import stitching
from tessil.core.quilting.shrinkage import NO_DRAW, NO_STRAIN, Draw, Family, Strain, draw_in
from tessil.core.sandwich.layers import Sizes, plan_layers, stack, thickness
from tessil.core.trouble import CannotPlan

MOST_DRAWN_IN = Fraction(1, 2)
MOST_ROUNDS = 6  # until lines on seams and what they draw in agree to a thousandth of an inch


class Setting(Record, frozen=True):
    """What all panels of a bag share when they are planned."""

    marks: Rulers
    piecing_seam: Figure
    squaring: Figure
    binding_seam: Figure
    oversize: Oversize
    prints: tuple[str, ...]
    upright_only: frozenset[str]  # prints that must not be turned
    scraps: tuple[Scrap, ...]
    materials: Mapping[str, Material]
    bobbin_m: float
    knowledge: Knowledge
    hoop: Pair | None = None  # what is cut for the hoop of panels that are made in one


class Task(Record, frozen=True):
    """One panel with all that was decided and measured for it.

    ``owner`` is the key under which its choices stand; ``linings`` how many are quilted in with
    it, of ``lining_print``.
    """

    panel: Panel
    choices: PanelChoices
    measured: Measured
    owner: str
    linings: int
    lining_print: str
    motif: bool = False  # something is stitched on it before it is cut to size

    @property
    def field(self) -> str:
        """Where its choices stand in the document."""
        return f"panels.{self.owner}"


def alike(one: Task, other: Task) -> bool:
    """Whether two panels differ in nothing but their names."""
    named = replace(other.panel, key=one.panel.key, label=one.panel.label, like=one.panel.like)
    return same(one, replace(other, panel=named))


def _allowance(setting: Setting, panel: Panel, side: str) -> Figure:
    edge = panel.side(side)
    if edge.finish == "bound":
        return setting.binding_seam
    return given(f"{side} seam", edge.allowance.value)


def _strip_families(setting: Setting, task: Task) -> tuple[Family, ...]:
    """Strips flipped and sewn through what lies under them are sets of lines too, each section's
    for its share of the height."""
    choices = task.choices
    if not flipped_through(choices):
        return ()
    if not choices.zones:
        return _strip_family(setting, task.panel, choices.piecing, None)
    high = task.panel.height.value
    starts = [Fraction(0), *(zone.starts for zone in choices.zones), high]
    found: list[Family] = []
    for at, piecing in enumerate((choices.piecing, *(zone.piecing for zone in choices.zones))):
        part = max(starts[at + 1] - starts[at], Fraction(0)) / high
        share = given("share of the height", part, Basis.GEOMETRY, 0)
        found += _strip_family(setting, task.panel, piecing, share)
    return tuple(found)


def _strip_family(
    setting: Setting, panel: Panel, piecing: Piecing, share: Figure | None
) -> tuple[Family, ...]:
    shows = _flip_gap(setting, panel, piecing)
    if shows.value <= 0:
        return ()
    angle = {"level": 0.0, "upright": 90.0}.get(piecing.run, float(piecing.angle))
    return (Family("the strips", angle, shows, share, key="strips"),)


def _flip_gap(setting: Setting, panel: Panel, piecing: Piecing) -> Figure:
    """From seam to seam of strips flipped and sewn: on the average, where they are mixed."""
    seam = setting.piecing_seam
    if piecing.fixed == "count":
        slant = slant_of(piecing)
        size = panel.width if piecing.run == "upright" else panel.height
        if piecing.run == "diagonal":
            sine = given("sine of the strips", slant.sine, Basis.GEOMETRY, 0)
            cosine = given("cosine of the strips", slant.cosine, Basis.GEOMETRY, 0)
            size = panel.width * sine + panel.height * cosine
        return (size / piecing.count).called("each strip shows")
    widths = piecing.widths if piecing.fixed == "mixed" else (piecing.strip_cut,)
    cut = given("strip, cut", sum(widths, start=Fraction(0)) / len(widths))
    return (cut - 2 * seam).called("each strip shows")


def _needed(setting: Setting, task: Task, strain: Strain, way: Way) -> Figure:
    panel = task.panel
    oversize, trimmed = setting.oversize, panel.width if way == "width" else panel.height
    longer = longer_by(panel, way)
    if longer is not None:
        return (trimmed + longer).settled(f"to cut, {way}")
    if strain is NO_STRAIN and task.motif:  # stitched first, cut after: cloth draws in
        larger = trimmed + 2 * setting.squaring
        return up_to(larger, setting.marks.piece_step).settled(f"to piece, {way}")
    if strain is NO_STRAIN or oversize.way == "none":
        return trimmed.called(f"to piece, {way}")
    if oversize.way == "fixed":
        larger = trimmed + given("fixed margin", oversize.fixed)
    else:
        larger = trimmed / (1 - strain.most) + 2 * setting.squaring
    return up_to(larger, setting.marks.piece_step).settled(f"to piece, {way}")


def _wish(setting: Setting, choice: Piecing, need: Pair, outline: Outline, field: str) -> Wish:
    return Wish(
        choice=choice,
        need=need,
        outline=outline,
        seam=setting.piecing_seam,
        marks=setting.marks,
        prints=setting.prints or ("cloth",),
        scraps=setting.scraps,
        upright_only=setting.upright_only,
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
    setting: Setting, task: Task, needed: Pair, strains: tuple[Figure, Figure]
) -> tuple[Pair, tuple[Part, ...]]:
    """The pieced size and the parts it is made of."""
    panel, choices, base = task.panel, task.choices, task.field
    outline = _on_top(panel, needed, *strains)
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


def _with_border(quilted: Pair, added: Got) -> Pair:
    """The quilted size with a border sewn on afterwards."""
    width, height = quilted.width, quilted.height
    if added.width is not None:
        width = (width + given("border sewn on", added.width)).called("quilted width, bordered")
    if added.height is not None:
        height = (height + given("border sewn on", added.height)).called("quilted height, bordered")
    return Pair(width, height)


def _shrunk(pieced: Pair, x: Figure, y: Figure, label: str) -> Pair:
    return Pair(
        (pieced.width * (1 - x)).called(f"{label} width"),
        (pieced.height * (1 - y)).called(f"{label} height"),
    )


def _edges_show(
    setting: Setting,
    panel: Panel,
    parts: tuple[Part, ...],
    strains: tuple[Strain, Strain],
    off: dict[Side, Figure],
) -> tuple[EdgeShow, ...]:
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
                    cut,
                    setting.piecing_seam,
                    strain.expected,
                    gone,
                    _allowance(setting, panel, side),
                )
                found.append(EdgeShow(side, zone, shows.called(f"{side} piece will show"), cut))
    return tuple(found)


def _ends(top: Top, pieces: Strips | None) -> tuple[Figure, Figure] | None:
    """Cut widths of the outermost pieces, first and last; None where one piece is all."""
    if top.border is not None:
        return top.border, top.border
    if pieces is None or len(pieces.cuts) < 2:
        return None
    return pieces.cuts[0], pieces.cuts[-1]


def plan_panel(setting: Setting, task: Task) -> PanelPlan:
    """All rungs of one panel; raises CannotPlan for choices that lead nowhere.

    Lines that follow seams lie where the pieces lie once they are drawn in, and what is drawn in
    hangs on how far the lines lie apart: the two are brought together in a few rounds.
    """
    families = families_of(setting, task)
    laid = _lay(setting, task, families)
    if needs_seams(task.choices.quilt_wish):
        for _ in range(MOST_ROUNDS):
            again = _families_as_sewn(setting, task, laid)
            if _gaps(again) == _gaps(families):
                break
            families = again
            laid = _lay(setting, task, families, laid)
    return _planned(setting, task, families, laid)


def _families_as_sewn(setting: Setting, task: Task, laid: _Laid) -> tuple[Family, ...]:
    families = quilt_families(laid.sets, task.choices.quilt_wish, task.panel, laid.shown)
    return (*_strip_families(setting, task), *families)


def _gaps(families: tuple[Family, ...]) -> list[tuple[str, Inches]]:
    return [(family.key, family.gap.value) for family in families]


class _Laid(Record, frozen=True):
    """A panel from the lines it is taken to have to the sets of lines it has."""

    draw: Draw
    needed: Pair
    planned: Pair
    parts: tuple[Part, ...]
    pieced: Pair
    expected: Pair
    quilted: Pair
    off: dict[Side, Figure]
    patches: tuple[Patch, ...]
    allowances: dict[Side, Figure]
    shown: dict[Side, Inches]
    seams: tuple[SeamLine, ...]
    sets: tuple[tuple[LineSet, ...], ...]


def _lay(
    setting: Setting, task: Task, families: tuple[Family, ...], before: _Laid | None = None
) -> _Laid:
    """One panel for the lines it is taken to have; its top is that of the round before, where it
    is as large and made of straight pieces."""
    panel, choices, measured = task.panel, task.choices, task.measured
    materials = stack(setting.materials, choices.layers, task.linings, foundation_of(choices))
    shown = {side: _allowance(setting, panel, side) for side in SIDES}
    draw = draw_in(families, setting.knowledge.constants(materials)) if families else NO_DRAW
    if max(draw.x.most.value, draw.y.most.value) > MOST_DRAWN_IN:
        raise CannotPlan(
            f"{task.field}.quilting.gap",
            "Lines so close would draw in more than half of the panel: choose a wider gap.",
        )
    needed = Pair(_needed(setting, task, draw.x, "width"), _needed(setting, task, draw.y, "height"))
    trimmed = Pair(panel.width, panel.height)
    if before is not None and _same_top(choices, before.needed, needed):
        planned, parts = before.planned, before.parts
    else:
        planned, parts = _parts(setting, task, needed, (draw.x.expected, draw.y.expected))
    pieced = _got(measured.pieced, planned, "pieced")
    expected = _shrunk(pieced, draw.x.expected, draw.y.expected, "quilted")
    quilted = _with_border(_got(measured.quilted, expected, "quilted"), measured.added)
    off = cut_off(setting.squaring, choices, quilted, trimmed)
    if panel.spare is not None:
        off = spare_off(panel, off)
    patches = _on_panel(all_patches(parts), _scaled(planned, quilted, off))
    insets = {side: figure.value for side, figure in shown.items()}
    seams = joints(choices.quilt_wish, (patch.on_panel for patch in patches))
    return _Laid(
        draw=draw,
        needed=needed,
        planned=planned,
        parts=parts,
        pieced=pieced,
        expected=expected,
        quilted=quilted,
        off=off,
        patches=patches,
        allowances=shown,
        shown=insets,
        seams=seams,
        sets=panel_sets(panel, choices.quilt_wish, insets, task.field, seams),
    )


def _same_top(choices: PanelChoices, before: Pair, needed: Pair) -> bool:
    """Whether a top comes out the same: as large, and not cut by where the panel lies on it."""
    piecing = choices.piecing
    straight = piecing.way in ("whole", "strips", *GRIDS) and piecing.run != "diagonal"
    return straight and not choices.zones and before.values() == needed.values()


def _planned(setting: Setting, task: Task, families: tuple[Family, ...], laid: _Laid) -> PanelPlan:
    """All that follows from a panel as it is quilted."""
    panel, choices, draw = task.panel, task.choices, laid.draw
    materials = stack(setting.materials, choices.layers, task.linings, foundation_of(choices))
    pressed = thickness(materials, "pressed")
    trimmed = Pair(panel.width, panel.height)
    left = Pair(number(1) - draw.x.expected, number(1) - draw.y.expected)
    hoop = setting.hoop if choices.layers.stabiliser else None
    under = foundation_of(choices)
    sizes = Sizes(laid.pieced, trimmed, laid.allowances, left, setting.marks, hoop, under)
    layers = plan_layers(setting.materials, choices.layers, sizes, task.linings, task.lining_print)
    real = (
        float(laid.quilted.width.value / laid.expected.width.value),
        float(laid.quilted.height.value / laid.expected.height.value),
    )
    quilt = quilt_panel(
        panel,
        choices.quilt_wish,
        laid.shown,
        task.field,
        laid.seams,
        laid.sets,
        stroke_room(laid.off, layers),
        real,
    )
    return PanelPlan(
        panel=panel,
        owner=task.owner,
        choices=choices,
        measured=task.measured,
        draw=draw,
        families=families,
        quilt=quilt,
        sewing=stitching(
            quilt.sets,
            quilt.lines,
            pressed,
            choices.quilting.stitch_mm,
            setting.knowledge.pace,
            setting.bobbin_m,
        ),
        needed=laid.needed,
        parts=laid.parts,
        patches=laid.patches,
        planned=laid.planned,
        pieced=laid.pieced,
        expected=laid.expected,
        least=_shrunk(laid.pieced, draw.x.most, draw.y.most, "quilted, at least,"),
        most=_shrunk(laid.pieced, draw.x.least, draw.y.least, "quilted, at most,"),
        quilted=laid.quilted,
        trimmed=trimmed,
        cut_off=laid.off,
        edges_show=_edges_show(setting, panel, laid.parts, (draw.x, draw.y), laid.off),
        layers=layers,
        pressed=pressed,
        at=_scaled(laid.pieced, laid.quilted, laid.off),
        piecing_seam=setting.piecing_seam,
        shown=laid.shown,
    )


def families_of(setting: Setting, task: Task) -> tuple[Family, ...]:
    """Every set of lines that goes through the batting, as the draw-in model sees it.

    Where lines follow seams, the seams are those of a top as large as the trimmed panel: a first
    guess, that :func:`plan_panel` makes good.
    """
    panel, choices = task.panel, task.choices
    shown = {side: _allowance(setting, panel, side).value for side in SIDES}
    seams: tuple[SeamLine, ...] = ()
    if needs_seams(choices.quilt_wish):
        same = Pair(panel.width, panel.height)
        none = number(0)
        _, parts = _parts(setting, task, same, (none, none))
        seams = joints(choices.quilt_wish, (patch.outline for patch in all_patches(parts)))
    sets = panel_sets(panel, choices.quilt_wish, shown, task.field, seams)
    return (
        *_strip_families(setting, task),
        *quilt_families(sets, choices.quilt_wish, panel, shown),
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
