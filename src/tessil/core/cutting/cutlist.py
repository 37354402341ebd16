"""The cut list of a whole job: every piece for N bags, grouped by what it is cut from.

Knows planned panels and the binding; must not know how sizes came about.
"""

from __future__ import annotations

from collections.abc import Iterator

from msgspec.structs import replace

from tessil.core.bag.ids import CutKind, CutNote, CutOwner, NoteKind
from tessil.core.catalogue import Material
from tessil.core.cutting.cloth import ClothPlan, plan_cloth
from tessil.core.cutting.hooped import hoop_items
from tessil.core.cutting.item import SCRAP, SQUARES, CutItem, times
from tessil.core.cutting.offcuts import OffcutUse, Wanted, from_offcuts
from tessil.core.cutting.placing import placed_items
from tessil.core.cutting.sundries import base_items, edge_items, mark_items, snap_items, strip_items
from tessil.core.cutting.task import CutTask
from tessil.core.edges.binding import BindingPlan, EdgeStrip, pooled
from tessil.core.edges.edging import Edging
from tessil.core.hooping.hoopings import HoopPlan
from tessil.core.numbers.lengths import Inches
from tessil.core.numbers.records import Record
from tessil.core.numbers.rulers import Rulers
from tessil.core.numbers.sizes import Pair
from tessil.core.numbers.workings import Basis, Figure, ceiling, count, given
from tessil.core.panels.panel import PanelPlan, foundation_of
from tessil.core.piecing.strips import cut_across
from tessil.core.piecing.top import CutPiece
from tessil.core.sandwich.choice import Offcut
from tessil.core.sandwich.layers import Layer


class Purchase(Record, frozen=True):
    """One stock to buy: its pieces laid in rows, and the length."""

    stock: str
    name: str
    batting: bool
    cloth: ClothPlan
    items: tuple[CutItem, ...]
    from_offcuts: tuple[OffcutUse, ...] = ()  # what comes out of left-over pieces instead


WEB = "gridded-web"  # of the catalogue
_WHOLE: dict[str, CutKind] = {"outer": "top", "lining": "lining", "plain": "one piece"}


def _from_scrap(cut: CutPiece) -> tuple[CutNote, ...]:
    return () if cut.scrap is None else (CutNote("scrap", cut.scrap + 1),)


def _top_items(panel: PanelPlan, bags: Figure) -> list[CutItem]:
    owner, copies = CutOwner("panels", (panel.key,)), panel.panel.copies
    if panel.only_cloth:
        what = _WHOLE[panel.panel.kind]
        own, size = panel.panel.made_of, panel.planned
        stock = own or panel.patches[0].print
        notes = () if panel.panel.spare is None else (CutNote("spare"),)
        number = times(1, copies, bags)
        return [
            CutItem(owner, what, stock, number, size.width, size.height, notes, material=bool(own))
        ]
    in_sets = _in_sets(panel)
    items: dict[tuple[object, ...], CutItem] = {}
    for part in panel.parts:
        for cut in part.top.cuts:
            if in_sets and cut.what == "strip":
                continue
            key = (cut.what, cut.print, cut.width.value, cut.height.value, cut.scrap)
            each = cut.each + (items[key].each if key in items else 0)
            scrap = cut.what == SCRAP  # those there are, not so many a bag
            number = count("pieces", each, Basis.GEOMETRY) if scrap else times(each, copies, bags)
            items[key] = CutItem(
                owner, cut.what, cut.print, number, cut.width, cut.height, _from_scrap(cut), each
            )
        if part.choice.way == "whole":
            width, height = part.top.size.width, part.top.size.height
            items[("whole", id(part))] = CutItem(
                owner, "one piece", part.top.patches[0].print, times(1, copies, bags), width, height
            )
    return list(items.values())


def _in_sets(panel: PanelPlan) -> bool:
    """Whether the panel is cut across from strips sewn full length."""
    piecing, top = panel.choices.piecing, panel.top
    straight = piecing.way == "strips" and piecing.run != "diagonal" and not piecing.border
    return (
        straight
        and piecing.strip_sets
        and (top.rows or top.columns) is not None
        and (len(panel.parts) == 1)
    )


def _layer_items(panel: PanelPlan, bags: Figure, in_hoop: bool) -> list[CutItem]:
    return [
        _joined(layer, panel, bags)
        if layer.joined
        else CutItem(
            CutOwner("panels", (panel.key,)),
            layer.role,
            layer.cloth or layer.material.key,
            times(1, panel.panel.copies, bags),
            layer.width,
            layer.height,
            _layer_notes(layer),
            material=not layer.cloth,
        )
        for layer in panel.layers
        if layer.role != "top" and not (in_hoop and layer.rule == "hoop")
    ]


def _border_items(panel: PanelPlan, bags: Figure, task: CutTask) -> list[CutItem]:
    """Strips sewn on a quilted panel that came out too small."""
    added, items = panel.measured.added, []
    seam = panel.piecing_seam
    # Courses whose scraps are gone have no piece whose print could be gone on with.
    cloth = panel.patches[-1].print if panel.patches else task.cloth
    strips: tuple[tuple[Inches | None, Figure, CutKind], ...] = (
        (added.width, panel.quilted.height, "border strip, upright"),
        (added.height, panel.quilted.width, "border strip, level"),
    )
    for grown, along, what in strips:
        if grown:
            each = (given("border, both sides", grown) / 2 + 2 * seam).called("border, cut")
            items.append(
                CutItem(
                    CutOwner("panels", (panel.key,)),
                    what,
                    cloth,
                    times(2, panel.panel.copies, bags),
                    each,
                    along,
                    (CutNote("after quilting"),),
                )
            )
    return items


def _layer_notes(layer: Layer) -> tuple[CutNote, ...]:
    rules: dict[str, NoteKind] = {"inside": "inside", "short": "short"}
    grains: dict[str, NoteKind] = {"upright": "upright", "level": "level"}
    found = (rules.get(layer.rule), grains.get(layer.grain))
    return tuple(CutNote(kind) for kind in found if kind is not None)


def _parted(width: Figure, height: Figure, roll: Figure) -> tuple[int, Figure, Figure]:
    """In how many pieces side by side something is cut from a roll too narrow for it, and one of
    them."""
    upright = width.value <= height.value
    short = width if upright else height
    if short.value <= roll.value:
        return 1, width, height
    number = ceiling(short / roll).called("pieces side by side")
    each = (short / number).called("cut width" if upright else "cut height")
    return (number.whole, each, height) if upright else (number.whole, width, each)


def _joined(layer: Layer, panel: PanelPlan, bags: Figure) -> CutItem:
    """A layer from a roll too narrow for it: pieces side by side, their edges butted."""
    roll = given("roll width", layer.material.width, Basis.PRACTICE)
    parts, width, height = _parted(layer.width, layer.height, roll)
    notes = _layer_notes(layer)
    if parts > 1:
        notes = (CutNote("side by side", parts), *notes)
    return CutItem(
        CutOwner("panels", (panel.key,)),
        layer.role,
        layer.cloth or layer.material.key,
        times(parts, panel.panel.copies, bags),
        width,
        height,
        notes,
        parts,
        not layer.cloth,
        joins=True,
    )


class SetGroup(Record, frozen=True):
    """Panels cut across from the same strip sets."""

    panels: tuple[PanelPlan, ...]
    sets: Figure
    per_set: Figure
    left: Figure  # of the last cut of a full set
    too_long: bool
    narrower: tuple[str, ...] = ()  # panels for which outer strips are taken off


_SetKey = tuple[tuple[str, Inches], ...]  # strip by strip: print and cut width


def _set_key(panel: PanelPlan) -> _SetKey:
    assert panel.strips is not None
    prints = (patch.print for patch in panel.patches)
    return tuple(zip(prints, (cut.value for cut in panel.strips.cuts), strict=False))


def strip_sets(panels: tuple[PanelPlan, ...], task: CutTask) -> tuple[SetGroup, ...]:
    """Panels grouped by like strips, each group with the sets it takes for N bags.

    A panel whose strips are some of another's comes out of the remainder of those sets, where that
    reaches: its outer strips are taken off.
    """
    groups: dict[_SetKey, list[PanelPlan]] = {}
    for panel in panels:
        if _in_sets(panel):
            groups.setdefault(_set_key(panel), []).append(panel)
    made = {key: _grouped(tuple(group), task) for key, group in groups.items()}
    for key in sorted(groups, key=len):
        hosts = [host for host in made if host != key and _within(key, host)]
        for host in sorted(hosts, key=len, reverse=True):
            both = _with_remainder(made[host], made[key], task)
            if both is not None:
                made[host] = both
                del made[key]
                break
    return tuple(made.values())


def _with_remainder(host: SetGroup, guest: SetGroup, task: CutTask) -> SetGroup | None:
    """A group with the panels of another cut out of what its sets leave, if that is enough."""
    both = _grouped((*host.panels, *guest.panels), task)
    if host.too_long or both.too_long or both.sets.value > host.sets.value:
        return None
    keys = tuple(panel.key for panel in guest.panels)
    return replace(both, narrower=(*host.narrower, *keys))


def _within(key: _SetKey, host: _SetKey) -> bool:
    """Whether strips are a run of another set's, as they lie there."""
    return any(host[at : at + len(key)] == key for at in range(len(host) - len(key) + 1))


def _grouped(panels: tuple[PanelPlan, ...], task: CutTask) -> SetGroup:
    usable = task.stock.usable_width
    lengths = [
        (p.key, p.strips.along.value, p.panel.copies * task.bags)
        for p in panels
        if p.strips is not None
    ]
    longest = max(length for _, length, _ in lengths)
    strips = panels[0].strips
    assert strips is not None
    if longest > usable:
        none = count("strip sets", 0, Basis.GEOMETRY)
        return SetGroup(panels, none, none, given("left", 0, Basis.GEOMETRY), too_long=True)
    rows = cut_across(usable, lengths)
    width = given("usable width", usable)
    first = rows[0]
    per_set = count(
        "panels from one set", sum(many for _, _, _, many in first.pieces), Basis.GEOMETRY
    )
    left = width
    for key, along, _, many in first.pieces:
        panel = next(panel for panel in panels if panel.key == key)
        each = given(f"{panel.panel.label.lower()}, from a set", along, Basis.GEOMETRY)
        left = left - (count("panels", many, Basis.GEOMETRY) * each if many > 1 else each)
    left = left.called("left of a set")
    number = count("strip sets", sum(row.times for row in rows), Basis.GEOMETRY)
    return SetGroup(panels, number, per_set, left, too_long=False)


def _set_items(group: SetGroup, usable: Figure) -> list[CutItem]:
    owner = CutOwner("panels", tuple(panel.key for panel in group.panels))
    return [
        CutItem(
            owner,
            "strip for a set",
            cut.print,
            count("pieces", 0)
            if group.too_long
            else (count("in a set", cut.each, Basis.GEOMETRY) * group.sets).called("pieces"),
            usable,
            cut.height,
            notes=(CutNote("set"), *((CutNote("outer strips"),) if group.narrower else ())),
        )
        for cut in group.panels[0].top.cuts
    ]


def _under_top(panel: PanelPlan, bags: Figure, task: CutTask) -> Iterator[CutItem]:
    """Gridded web under squares, as large as they lie on it; a foundation that is torn away."""
    for part in panel.parts:
        columns, rows = part.top.columns, part.top.rows
        if part.choice.way == "web" and columns is not None and rows is not None:
            width = (columns.number * columns.cut).called("web, width")
            height = (rows.number * rows.cut).called("web, height")
            yield _sheet("web", task.materials[WEB], Pair(width, height), panel, bags)
    under = foundation_of(panel.choices)
    if under and not task.materials[under].stays:
        yield _sheet("foundation", task.materials[under], panel.planned, panel, bags)


def _sheet(
    what: CutKind, material: Material, size: Pair, panel: PanelPlan, bags: Figure
) -> CutItem:
    """A sheet under a top, joined of several where its roll is too narrow."""
    roll = given("roll width", material.width, Basis.PRACTICE)
    parts, width, height = _parted(size.width, size.height, roll)
    return CutItem(
        CutOwner("panels", (panel.key,)),
        what,
        material.key,
        times(parts, panel.panel.copies, bags),
        width,
        height,
        (CutNote("side by side", parts),) if parts > 1 else (),
        parts,
        material=True,
        joins=True,
    )


class Lain(Record, frozen=True):
    """What was planned and is to be cut: panels, strip sets, edges, what is made in a hoop."""

    panels: tuple[PanelPlan, ...]
    groups: tuple[SetGroup, ...]
    binding: BindingPlan | None
    edging: Edging
    hooped: HoopPlan | None = None
    by_edge: tuple[EdgeStrip, ...] = ()


def cut_list(lain: Lain, task: CutTask) -> tuple[CutItem, ...]:
    """Every piece to cut for the job, panel by panel.  What its allowances leave nothing of, such
    as a stiffener for a base as deep as its sleeve's seams, is not cut."""
    panels, groups, binding, edging = lain.panels, lain.groups, lain.binding, lain.edging
    bags = count("bags", task.bags)
    usable = given("usable width", task.stock.usable_width)
    in_hoop = lain.hooped.panels if lain.hooped is not None else frozenset()
    items: list[CutItem] = []
    for panel in panels:
        if not (panel.key in in_hoop and panel.only_cloth):
            items += _top_items(panel, bags)
        items += _under_top(panel, bags, task)
        items += _border_items(panel, bags, task)
    for group in groups:
        items += _set_items(group, usable)
    for panel in panels:
        items += _layer_items(panel, bags, panel.key in in_hoop)
    if lain.hooped is not None:
        items += hoop_items(lain.hooped)
    if binding is not None and task.straight:
        number = (binding.strips * bags).called("pieces")
        if task.bags > 1 and not task.strips_in_hand:
            number = pooled(binding.length, bags, usable, binding.cut).called("pieces")
        cloth = task.cloth
        items.append(
            CutItem(
                CutOwner("edge"),
                "binding strip",
                cloth,
                number,
                usable,
                binding.cut,
                notes=(CutNote("diagonal"),),
            )
        )
    if not any(cut.own for cut in lain.edging.bias):
        items += strip_items(lain.by_edge, usable, bags, task)
    wide = {panel.key: panel.trimmed.width for panel in panels}
    for mark in task.marks:
        caught = wide.get(mark.panel) if mark.sides == "seams" else None
        items += mark_items(mark, bags, task, caught)
    items += base_items(bags, task)
    items += snap_items(_unbacked(panels, task.snaps), bags)
    items += edge_items(edging, bags, task)
    items = [item for item in items if min(item.width.value, item.height.value) > 0]
    items = placed_items(_from_hand(items, task), task)
    return tuple(item for item in items if item.number.value)


def _unbacked(panels: tuple[PanelPlan, ...], snaps: tuple[str, ...]) -> int:
    """How many parts of a snap lie on a panel without batting."""
    by_key = {panel.key: panel for panel in panels}
    on = [by_key[key] for key in snaps if key in by_key]
    return sum(all(layer.role != "batting" for layer in panel.layers) for panel in on)


def _from_hand(items: list[CutItem], task: CutTask) -> list[CutItem]:
    """Squares of prints that are counted in hand and reach: nothing is cut or bought for them."""
    there = {entry.key: entry.amount for entry in task.prints if entry.amount is not None}
    used: dict[str, int] = {}
    for item in items:
        if item.what in SQUARES:
            used[item.stock] = used.get(item.stock, 0) + item.number.whole
    enough = {key for key, number in used.items() if number <= there.get(key, -1)}
    return [
        replace(item, in_hand=True, notes=())
        if item.what in SQUARES and item.stock in enough
        else item
        for item in items
    ]


def by_stock(items: tuple[CutItem, ...]) -> dict[tuple[str, bool], tuple[CutItem, ...]]:
    """What is to be cut from stock, by stock and by whether it is a layer's material."""
    found: dict[tuple[str, bool], list[CutItem]] = {}
    for item in items:
        if item.what != SCRAP and not item.in_hand:
            found.setdefault((item.stock, item.material), []).append(item)
    return {key: tuple(group) for key, group in found.items()}


class Stocked(Record, frozen=True):
    """Pieces to cut from one stock: what that is called, how wide it is, what is left of it."""

    stock: str
    name: str
    batting: bool
    usable: Inches
    straightening: Inches
    offcuts: tuple[Offcut, ...]
    rulers: Rulers
    directional: bool = False  # its print has an up, or its picture is placed


def stocked(stock: str, batting: bool, task: CutTask) -> Stocked:
    """One stock of a job."""
    return Stocked(
        stock=stock,
        name=task.materials[stock].name if batting else task.name_of(stock),
        batting=batting,
        usable=task.materials[stock].width if batting else task.stock.usable_width,
        straightening=task.stock.straightening,
        offcuts=task.offcuts if batting else (),
        rulers=task.rulers,
        directional=not batting
        and any(e.key == stock and (e.directional or e.placed) for e in task.prints),
    )


def purchase(of: Stocked, group: tuple[CutItem, ...]) -> Purchase:
    """What to buy of a stock, its pieces laid in rows across the usable width."""
    pieces = [
        Wanted(item.id, item.width.value, item.height.value, item.number.whole) for item in group
    ]
    used: tuple[OffcutUse, ...] = ()
    if of.batting:
        joins = frozenset(item.id for item in group if item.joins)
        pieces, used = from_offcuts(pieces, of.offcuts, of.stock, joins)
    to_cut = [(piece.id, piece.width, piece.height, piece.number) for piece in pieces]
    # Whole panels of a print with an up; strips and squares are turned as they are sewn in.
    upright = frozenset(
        item.id for item in group if of.directional and item.what in _WHOLE.values()
    )
    cloth = plan_cloth(to_cut, of.usable, of.straightening, of.rulers, upright)
    return Purchase(of.stock, of.name, of.batting, cloth, group, used)
