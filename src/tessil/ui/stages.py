"""Which decisions each stage asks for: one function a stage, a list of field descriptions.

Words and order only; what an answer means is the core's.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from typing import Any

from tessil.core.choosing import measure
from tessil.core.edits import Edit
from tessil.core.numbers.lengths import Inches, LengthError
from tessil.core.panels.choice import Got
from tessil.core.panels.panel import PanelPlan
from tessil.core.piecing.scraplist import read_lengths, write_lengths
from tessil.core.planned import Plan
from tessil.core.snags import Stage
from tessil.core.trimming.acts.marking import add_mark, remove_mark, set_mark
from tessil.core.trimming.choice import Mark
from tessil.core.trimming.marks import KINDS
from tessil.ui.asking import always, field_of, oversize
from tessil.ui.specs import Kind, Spec, with_empty
from tessil.ui.talk import talk

TITLES = {
    Stage.BRIEF: "Brief",
    Stage.PIECE: "Piecing",
    Stage.LAYER: "Layers",
    Stage.QUILT: "Quilting",
    Stage.TRIM: "Trimming",
    Stage.EDGE: "Edges",
    Stage.CUT: "Cutting",
    Stage.MAKE: "Making",
}
_MARK_FIELDS: tuple[tuple[str, Kind, str, str], ...] = (
    ("x", "length", "From left edge", "Raw trimmed edge to the mark"),
    ("y", "length", "From top edge", "Raw trimmed edge to the mark"),
    (
        "width",
        "length",
        "Its width",
        "Finished; for a window, the opening: zipper less 1 in (25 mm)",
    ),
    ("height", "length", "Its height", "Finished"),
)
_UNASKED: dict[str, tuple[str, ...]] = {"d-ring": ("width", "height"), "ribbon": ("x", "width")}


def _marks(plan: Plan, panel: PanelPlan) -> Iterator[Spec]:
    choices = (("", "choose what to mark…"), *KINDS.items())
    help_ = "Pockets, ring tabs, motif, ribbon, label, patch"
    yield Spec("marks.add", "choice", "Mark here", help_, "", _adding(plan, panel), choices)
    for at, mark in enumerate(plan.project.marks):
        if mark.panel == panel.key:
            yield from _mark_fields(plan, at, mark)
    if plan.bag.flap is not None:
        yield field_of(
            plan,
            "snap.used",
            "toggle",
            "Magnetic snap",
            "Male on the flap, female where it lands",
            "Set a snap",
        )
        if plan.project.snap.used:
            yield field_of(
                plan,
                "snap.offset",
                "length",
                "Male part",
                "Above the flap's edge: 1½ to 2 in (4 to 5 cm)",
            )
            female = field_of(plan, "snap.female", "length?", "Female is set", "Below the top edge")
            yield with_empty(female, "computed from the flap")


def _adding(plan: Plan, panel: PanelPlan) -> Callable[[Any], Edit]:
    return lambda kind: add_mark(plan, panel, kind) if kind else Edit("", ())


def _mark_fields(plan: Plan, at: int, mark: Mark) -> Iterator[Spec]:
    name = KINDS[mark.kind].lower()
    for key, kind, label, help_ in _MARK_FIELDS:
        if key in _UNASKED.get(mark.kind, ()):
            continue
        said = f"{KINDS[mark.kind]}: {label.lower()}" if key == "x" else label
        yield Spec(
            f"marks.{at}.{key}",
            kind,
            said,
            help_,
            getattr(mark, key),
            _setting(plan, at, key, f"Set the {name}"),
        )
    yield from _pocket_fields(plan, at, mark)
    if mark.kind == "divided":
        divide = _setting(plan, at, "divisions", f"Divide the {name}")
        yield Spec(
            f"marks.{at}.divisions",
            "count",
            "Divided into",
            "Double lines ¼ in (6 mm) apart",
            mark.divisions,
            divide,
        )
    yield Spec(
        f"marks.{at}.gone",
        "action",
        f"Take the {name} away",
        "Remove this mark",
        None,
        always(remove_mark(plan, at)),
    )


_CLOTHS = (
    ("doubled", "one, doubled"),
    ("two", "two, the inner one showing"),
    ("leftover", "left strips"),
)
_SIDES = (("sewn", "sewn on"), ("seams", "in the seams"), ("free", "hanging free"))
_EDGES = (
    ("", "across the panel"),
    *((side, f"in the {side} seam") for side in ("top", "right", "bottom", "left")),
)
_MADE = (("sewn", "turned and sewn"), ("fused", "fused on"), ("embroidered", "embroidered"))
_BAGS = (("one", "in one piece"), ("two", "in two"))


def _pocket_fields(plan: Plan, at: int, mark: Mark) -> Iterator[Spec]:
    """What only pockets ask: their cloths, sides, divisions, box."""

    def ask(
        key: str, kind: Kind, label: str, why: str, choices: tuple[tuple[str, str], ...] = ()
    ) -> Spec:
        setting = _setting(plan, at, key, f"Set the {KINDS[mark.kind].lower()}")
        return Spec(f"marks.{at}.{key}", kind, label, why, getattr(mark, key), setting, choices)

    if mark.kind in ("slip", "divided"):
        yield ask("cloths", "choice", "Of cloth", "The inner of two shows above as a lip", _CLOTHS)
        why = "Turned in and sewn on, caught in the side seams, or hanging from the top seam"
        yield ask("sides", "choice", "Its sides", why, _SIDES)
    if mark.kind == "ribbon":
        why = "Across the panel, or caught in the seam along an edge"
        yield ask("edge", "choice", "It lies", why, _EDGES)
    if mark.kind == "motif":
        why = "Stitched before the panel is cut to size; what is fused is drawn mirrored"
        yield ask("made", "choice", "It is", why, _MADE)
    if mark.kind == "window":
        yield ask(
            "box",
            "length",
            "Box, high",
            "The opening that shows the zipper: ⅜ to ½ in (10 to 13 mm)",
        )
        yield ask("bag", "choice", "Its bag", "Folded at the bottom, or two pieces", _BAGS)
    if mark.kind == "divided":
        words = f"Divide the {KINDS[mark.kind].lower()}"
        yield Spec(
            f"marks.{at}.at",
            "note",
            "Divided at",
            "From its left, one after the other; nothing: evenly",
            write_lengths(mark.at, plan.marks.notation),
            lambda text: set_mark(plan, at, words, at=_divisions(plan, text, mark)),
            empty="evenly",
        )


def _divisions(plan: Plan, text: str, mark: Mark) -> tuple[Inches, ...]:
    """Where a pocket is divided; raises LengthError for places outside of it."""
    places = read_lengths(text, plan.project.units) if text.strip() else ()
    if any(not 0 < place < mark.width for place in places) and mark.sides == "sewn":
        wide = plan.marks.notation.read_off(mark.width, unit=True)
        raise LengthError(f"Divide it inside its width of {wide}.")
    return places


def _setting(plan: Plan, at: int, key: str, words: str) -> Callable[[Any], Edit]:
    return lambda new: set_mark(plan, at, words, **{key: new})


def _notch_as_cut(plan: Plan, panel: PanelPlan) -> Iterator[Spec]:
    """What the notch of the leading panel really became."""
    if panel.key != plan.shape.leader or not panel.panel.notches or plan.project.corner != "cut":
        return
    got = panel.measured.notch
    for side, label in (("width", "Notch cut, side"), ("height", "Notch cut, other leg")):
        yield Spec(
            f"notch.{side}",
            "length?",
            label,
            "As it was really cut; empty: as planned",
            getattr(got, side),
            _cutting(plan, panel, side),
            empty="as planned",
        )


def _cutting(plan: Plan, panel: PanelPlan, side: str) -> Callable[[Any], Edit]:
    got = panel.measured.notch
    return lambda new: measure(
        plan.project, panel.key, "notch", Got(**dict(got) | {side: new}), panel.panel.label
    )


def _trim(plan: Plan, panel: PanelPlan) -> Iterator[Spec]:
    yield from _notch_as_cut(plan, panel)
    yield from _marks(plan, panel)
    yield from _base(plan)
    if "lining" in plan.shape.uses and plan.project.lining == "drop-in":
        yield field_of(
            plan,
            "lining_shorter",
            "length",
            "Lining shorter",
            "So that it does not bag out: up to ¼ in (6 mm); with a minus it is longer, and slack",
        )
        if not plan.tucked:
            gap = field_of(plan, "turning_gap", "length?", "Turning gap", "")
            yield with_empty(gap, "the least")
            about = "So much sewn from each corner, all between left open: 2 in (5 cm) is usual"
            rest = field_of(plan, "gap_corners", "length?", "All but, each corner", about)
            yield with_empty(rest, "by the gap")
    if panel.quilts:
        yield from oversize(plan)


_STIFF = (
    ("none", "none"),
    ("fused", "fused over the seam"),
    ("sleeve", "in a sleeve"),
    ("lining", "fused on the lining"),
)


def _base(plan: Plan) -> Iterator[Spec]:
    """What lies on the base of a boxed bag."""
    if plan.bag.floor is None:
        return
    own = plan.project.lining == "drop-in" and "lining" in plan.shape.uses
    ways = _STIFF if own else _STIFF[:3]
    why = "As large as the base; it takes a little of the height inside"
    yield field_of(
        plan, "base.stiffener", "choice", "Base stiffener", why, "Stiffen the base", ways
    )
    if plan.bag.has_bottom_seam:
        why = "Over the open bottom seam, its edges turned under; the corners catch its ends"
        yield field_of(plan, "base.strip", "toggle", "Strip over the bottom seam", why, "Cover it")
        if plan.project.base.strip:
            yield field_of(
                plan, "base.strip_width", "length", "Strip, finished", "1½ in (4 cm) is usual"
            )


_FOR = (
    ("least", "least cloth"),
    ("open", "fewest cloths"),
    ("setups", "fewest ruler settings"),
    ("offcut", "largest offcuts"),
)
_FROM = (("shelf", "what there is first"), ("new", "new cloth alone"))


def _cut(plan: Plan, panel: PanelPlan) -> Iterator[Spec]:
    yield Spec(
        "cutting.search",
        "search",
        "Plan the cutting again" if plan.project.cutting else "Plan the cutting",
        "All bags of the job together, strip by strip; it may be stopped at any time",
        None,
        always(Edit("", ())),
    )
    yield Spec(
        "shelf.page", "page", "The shelf…", "What there is to cut from", None, always(Edit("", ()))
    )
    said = "Cut from other cloth"
    yield field_of(plan, "cut_from", "choice", "Cut from", "What is opened first", said, _FROM)
    about = "What a plan is chosen for; settings of the ruler may take 3 % more new cloth"
    yield field_of(plan, "cut_for", "choice", "Plan for", about, "Plan cuts for another end", _FOR)
    yield field_of(plan, "bags", "count", "Bags to make", "All amounts are for so many")
    yield field_of(
        plan,
        "stock.usable_width",
        "length",
        "Usable width",
        "Between the selvages, once they are off",
    )
    yield field_of(plan, "stock.straightening", "length", "Straighten", "Lost squaring the cut end")


def _schools(plan: Plan) -> Iterator[Spec]:
    """Orders that makers differ in."""
    ways = (("open", "open"), ("side", "to one side"))
    yield field_of(plan, "press_seams", "choice", "Press seams", "Of the bag itself", choices=ways)
    if any(one.kind == "snap" for one in plan.placed):
        why = "Before the lining closes, with all other marks, or as the first of them"
        ways = (("lining", "with the marks"), ("early", "first of all"))
        yield field_of(plan, "making.snap", "choice", "Snap goes in", why, choices=ways)
    if any(one.ends == "face" for one in plan.bag.attachments):
        why = "While the panels lie flat, or through all layers once the top is topstitched"
        ways = (("before", "on flat panels"), ("after", "on the finished bag"))
        yield field_of(plan, "making.handles", "choice", "Handles go on", why, choices=ways)


def _wares(plan: Plan) -> Iterator[Spec]:
    """What else could be bought, for how much less, and what is taken from the shelf."""
    about = "What a coupon takes off all of the list"
    yield field_of(plan, "pricing.coupon", "percent", "Coupon", about, "Use a coupon")
    about = "How many fat quarters each cloth that is bought comes out of"
    nothing = always(Edit("", ()))
    yield Spec("others.search", "search", "Fat quarters instead?", about, None, nothing)
    about = "What lies there of this list: by number and by length, the smallest that does"
    yield Spec("wares.take", "page", "Take these from the shelf", about, None, nothing)


_TABLE: dict[Stage, Callable[[Plan, PanelPlan], Iterator[Spec]]] = {
    Stage.TRIM: _trim,
    Stage.CUT: _cut,
}


LEAVES: dict[Stage, tuple[tuple[str, str], ...]] = {
    Stage.PIECE: (("pieces", "Pieces"), ("prints", "Prints"), ("stock", "Scraps, seam")),
    Stage.LAYER: (
        ("layers", "Layers"),
        ("amounts", "Amounts"),
        ("bulk", "Thickness"),
        ("hoop", "Hoop"),
    ),
    Stage.EDGE: (
        ("binding", "Binding"),
        ("bias", "Bias"),
        ("piping", "Piping"),
        ("straps", "Straps"),
        ("closing", "Closing"),
    ),
    Stage.CUT: (("cloth", "Cloth"), ("wares", "To buy")),
    Stage.MAKE: (
        ("step", "Step"),
        ("bag", "Bag so far"),
        ("time", "Time"),
        ("price", "Price"),
        ("costs", "Costs"),
    ),
    Stage.QUILT: (("lines", "Lines"), ("sewing", "Sewing"), ("draws", "Draws in")),
}


def leaf_of(stage: Stage, open_leaves: Mapping[Stage, str]) -> str:
    """The leaf that is open at a stage, at the brief its question; nothing where it has none."""
    if stage is Stage.BRIEF:
        return open_leaves.get(stage, "size")
    leaves = LEAVES.get(stage)
    return open_leaves.get(stage, leaves[0][0]) if leaves else ""


def specs(
    plan: Plan, stage: Stage, panel_key: str, leaf: str = "", zone: int = 0, ply: int = 0
) -> tuple[Spec, ...]:
    """The fields of a stage for a panel, as things stand now; of one leaf, where it has some.

    A stage's fields are loaded when it is first come to: the window begins at the brief.
    """
    panel = plan.panel(panel_key)
    if panel.panel.made_of and stage in (Stage.PIECE, Stage.LAYER, Stage.QUILT):
        return ()
    if stage is Stage.BRIEF:
        return tuple(talk(plan, leaf))
    if stage is Stage.PIECE:
        from tessil.ui.piecing_specs import piece_specs

        return tuple(piece_specs(plan, panel, leaf or "pieces", zone))
    if stage is Stage.LAYER:
        from tessil.ui.layer_specs import layer_specs

        return tuple(layer_specs(plan, panel, leaf or "layers", ply))
    if stage is Stage.QUILT:
        from tessil.ui.quilt_specs import quilt_specs

        return tuple(quilt_specs(plan, panel, leaf or "lines", zone))
    if stage is Stage.EDGE:
        from tessil.ui.edge_specs import edge_specs

        return tuple(edge_specs(plan, leaf or "binding"))
    if stage is Stage.CUT and leaf == "wares":
        return tuple(_wares(plan))
    if stage is Stage.MAKE and leaf == "bag":
        return tuple(_schools(plan))
    ask = _TABLE.get(stage)
    return tuple(ask(plan, panel)) if ask else ()
