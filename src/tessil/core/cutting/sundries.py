"""What is cut for pockets, edges and straps."""

from __future__ import annotations

from msgspec.structs import replace

from tessil.core.bag.ids import CutKind, CutNote, CutOwner
from tessil.core.brief.choice import SLIDES
from tessil.core.cutting.item import CutItem, times
from tessil.core.cutting.task import CutTask
from tessil.core.edges.binding import EdgeStrip, pooled
from tessil.core.edges.edging import Edging
from tessil.core.edges.straps import StrapPlan
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.workings import Basis, Figure, count, given
from tessil.core.sandwich.choice import STIFF
from tessil.core.shapes.carrying import TAB_CUT
from tessil.core.trimming.choice import Mark
from tessil.core.trimming.marks import SNAP_PATCH
from tessil.core.trouble import CannotPlan

WOVEN = "woven-interfacing"  # of the catalogue
TURNED = Fraction(1, 4)  # under, each side of a base strip
LOOP_CUT = given("loop strip, cut", 1, Basis.PRACTICE)  # folds to ¼
_LIP = given("what shows of the inner cloth", Fraction(1, 4), Basis.PRACTICE)
_RING_TAB = given("ring tab, length", 3, Basis.PRACTICE)


def pocket_items(mark: Mark, bags: Figure, task: CutTask, caught: Figure | None) -> list[CutItem]:
    """What a pocket is cut from: doubled, or of two cloths of which the inner shows ¼ above; a
    window's bag in one piece or in two.  ``caught`` is the width of a panel in whose side seams its
    sides are caught: it needs no allowance of its own."""
    if mark.kind == "window":
        return _window_bag(mark, bags, task)
    if mark.kind not in ("slip", "divided"):
        return []
    seam = given("pocket seam", task.side_seam)
    width, height = given("pocket width", mark.width), given("pocket height", mark.height)
    wide = (width + 2 * seam if caught is None else caught).called("pocket, cut width")
    if mark.sides == "free":
        wide = (width + 2 * seam).called("pocket, cut width")
    if mark.cloths == "leftover":
        high = (2 * (height + seam)).called("pocket, cut height")
        size, notes = (wide, high), (CutNote("leftover"), CutNote("fold half"))
        made = _pocket(mark.kind, task.pocket_cloth, size, bags, notes)
        return [replace(made, in_hand=True)]
    if mark.cloths == "doubled":
        high = (2 * (height + seam)).called("pocket, cut height")
        return [_pocket(mark.kind, task.pocket_cloth, (wide, high), bags, (CutNote("fold half"),))]
    outer = (height - _LIP + 2 * seam).called("pocket, cut height")
    inner = (height + _LIP + 2 * seam).called("pocket lining, cut height")
    return [
        _pocket(mark.kind, task.pocket_cloth, (wide, outer), bags),
        _pocket("pocket lining", task.cloth, (wide, inner), bags),
    ]


def _window_bag(mark: Mark, bags: Figure, task: CutTask) -> list[CutItem]:
    more = given("pocket bag beyond the opening", 2, Basis.PRACTICE)
    wide = (given("pocket width", mark.width) + more).called("pocket bag width")
    high, pieces = given("pocket height", mark.height), 1
    long = 2 * high
    if mark.bag == "two":
        long, pieces = high + given("pocket seam", task.side_seam), 2
    size = wide, long.called("pocket bag, length")
    return [_pocket("window", task.pocket_cloth, size, bags, pieces=pieces)]


def _pocket(
    kind: CutKind,
    cloth: str,
    size: tuple[Figure, Figure],
    bags: Figure,
    notes: tuple[CutNote, ...] = (),
    pieces: int = 1,
) -> CutItem:
    return CutItem(CutOwner("pocket"), kind, cloth, times(pieces, 1, bags), *size, notes)


def mark_items(
    mark: Mark, bags: Figure, task: CutTask, caught: Figure | None = None
) -> list[CutItem]:
    """What is cut for a mark: a pocket, a tab for a ring."""
    if mark.kind == "d-ring":
        size = _RING_TAB, TAB_CUT
        return [CutItem(CutOwner("tab"), "strip to fold", task.cloth, times(1, 1, bags), *size)]
    return pocket_items(mark, bags, task, caught)


def base_items(bags: Figure, task: CutTask) -> list[CutItem]:
    """A strip over the open seam of a base, its stiffener, and the sleeve that one lies in."""
    base = task.base
    if task.floor is None:
        return []
    long, deep = task.floor
    items: list[CutItem] = []
    number = times(1, 1, bags)
    if base.strip and task.bottom_seam:
        turned = 2 * given("turned under", TURNED, Basis.PRACTICE)
        high = (given("base strip, finished", base.strip_width) + turned).called("base strip, cut")
        wide = (long + 2 * given("into the corner seams", task.corner_seam)).called("its length")
        owner, notes = CutOwner("base strip"), (CutNote("turned"),)
        items.append(CutItem(owner, "strip to fold", task.cloth, number, wide, high, notes))
    if base.stiffener == "none":
        return items
    size = long.called("base, length"), deep.called("base, depth")
    if base.stiffener == "sleeve":
        less = given("less, so that it slides", SLIDES, Basis.PRACTICE)
        size = (long - less).called("stiffener, length"), (deep - less).called("stiffener, depth")
        seam = 2 * given("sleeve seams", task.side_seam)
        cloth = (long + seam).called("sleeve, length"), (2 * deep + seam).called("sleeve, cut")
        notes = (CutNote("fold half"),)
        owner = CutOwner("stiffener")
        items.append(CutItem(owner, "sleeve", task.pocket_cloth, number, *cloth, notes))
    items.append(CutItem(CutOwner("stiffener"), "stiffener", STIFF, number, *size, material=True))
    return items


def strip_items(
    strips: tuple[EdgeStrip, ...], usable: Figure, bags: Figure, task: CutTask
) -> list[CutItem]:
    """Strips of edges that are bound by themselves, from full widths where one is not enough."""
    items = []
    for strip in strips:
        if strip.cut is None:
            continue
        joined = strip.strips.whole > 1
        number = (strip.edge.number * bags).called("pieces")
        if joined:
            every = strip.edge.number * bags
            number = pooled(strip.edge.length, every, usable, strip.cut).called("pieces")
        long = usable if joined else strip.edge.length
        notes = (CutNote("diagonal"),) if joined else ()
        owner = CutOwner("edge", (strip.edge.key,))
        items.append(CutItem(owner, "binding strip", task.cloth, number, long, strip.cut, notes))
    return items


def snap_items(placed: int, bags: Figure) -> list[CutItem]:
    """A square of interfacing behind each part of a snap that no batting lies behind."""
    if not placed:
        return []
    number = (count("patches", placed, Basis.GEOMETRY) * bags).called("pieces")
    side = given("patch behind the snap", SNAP_PATCH, Basis.PRACTICE)
    return [
        CutItem(CutOwner("snap"), "reinforcing patch", WOVEN, number, side, side, material=True)
    ]


def _zipper_tabs(edging: Edging, bags: Figure, task: CutTask) -> list[CutItem]:
    if edging.zipper is None or edging.zipper.tab is None:
        return []
    number = (count("ends", 2, Basis.GEOMETRY) * bags).called("pieces")
    owner, notes = CutOwner("zipper end"), (CutNote("fold half"),)
    return [CutItem(owner, "end tab", task.cloth, number, *edging.zipper.tab, notes)]


def _button_loop(edging: Edging, bags: Figure, task: CutTask) -> list[CutItem]:
    if edging.loop is None:
        return []
    owner, number = CutOwner("button loop"), times(1, 1, bags)
    folds = (CutNote("folds"),)
    return [CutItem(owner, "strip to fold", task.cloth, number, edging.loop, LOOP_CUT, folds)]


def edge_items(edging: Edging, bags: Figure, task: CutTask) -> list[CutItem]:
    """Straps, bias from new cloth, and the binding of inner seams, from the binding's cloth."""
    items: list[CutItem] = []
    for strap in edging.straps:
        items += _strap_items(strap, bags, task)
    items += [*_zipper_tabs(edging, bags, task), *_button_loop(edging, bags, task)]
    for cut in edging.bias:
        if cut.new is not None:
            items.append(
                CutItem(
                    CutOwner("bias", (cut.what,)),
                    "cloth to cut on the cross",
                    cut.cloth,
                    times(1, 1, bags),
                    *cut.new,
                    (CutNote("cross"),),
                )
            )
    if edging.pull is not None:
        items.append(
            CutItem(
                CutOwner("pull"),
                "strip to fold",
                task.cloth,
                times(1, 1, bags),
                *edging.pull,
                (CutNote("folds"),),
            )
        )
    if edging.inner is not None:
        length, width = edging.inner
        usable = given("usable width", task.stock.usable_width)
        if usable.value < 2 * width.value:
            raise CannotPlan("stock.usable_width", "This cloth is too narrow to bind seams with.")
        strips = pooled(length, bags, usable, width).called("pieces")
        cloth = task.cloth
        items.append(
            CutItem(
                CutOwner("inner seams"),
                "binding strip",
                cloth,
                strips,
                usable,
                width,
                (CutNote("single fold"),),
            )
        )
    return items


def _strap_items(strap: StrapPlan, bags: Figure, task: CutTask) -> list[CutItem]:
    """Strips for straps and handles, joined where they are longer than the cloth; interfacing.
    Webbing is bought by its length: nothing is cut from cloth."""
    part, strip, items = strap.part, strap.strip, _patches(strap, bags)
    owner = CutOwner("part", (part.key,))
    if strip is not None:
        joined = strap.strips.whole > 1
        usable = given("usable width", task.stock.usable_width)
        every = count("each", part.number * strip.plies, Basis.GEOMETRY) * bags
        number = pooled(strip.length, every, usable, strap.takes) if joined else every
        long = usable if joined else strip.length
        note = CutNote("straight" if task.straight_joins else "diagonal")
        notes = (note,) if joined else ()
        pieces = number.called("pieces")
        items.append(CutItem(owner, "strip to fold", task.cloth, pieces, long, strip.width, notes))
    straps = (count("each", part.number, Basis.GEOMETRY) * bags).called("pieces")
    if strap.interfacing is not None:
        width, long = strap.interfacing
        items.append(
            CutItem(
                owner,
                "interfacing",
                WOVEN,
                straps,
                long,
                width,
                (CutNote("butted"),),
                material=True,
            )
        )
    return items


def _patches(strap: StrapPlan, bags: Figure) -> list[CutItem]:
    """A square of interfacing behind both ends of each that is sewn on the face."""
    if strap.patch is None:
        return []
    ends = count("ends", 2 * strap.part.number, Basis.GEOMETRY) * bags
    owner, side = CutOwner("part", (strap.part.key,)), strap.patch
    return [
        CutItem(owner, "reinforcing patch", WOVEN, ends.called("pieces"), side, side, material=True)
    ]
