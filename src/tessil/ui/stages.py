"""Which decisions each stage asks for: one function a stage, a list of field descriptions.

Words and order only; what an answer means is the core's.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from typing import Any

from tessil.core.brief.choice import Thing
from tessil.core.choosing import measure
from tessil.core.edits import Edit, edit
from tessil.core.panels.choice import Got
from tessil.core.panels.panel import PanelPlan
from tessil.core.planned import Plan
from tessil.core.shapes import SHAPES
from tessil.core.shapes.acts.shaping import reshape, start_from
from tessil.core.snags import Stage
from tessil.core.trimming.acts.marking import add_mark, remove_mark, set_mark
from tessil.core.trimming.choice import Mark
from tessil.core.trimming.marks import KINDS
from tessil.ui.asking import always, field_of, oversize, setter
from tessil.ui.edge_specs import edge_specs
from tessil.ui.layer_specs import layer_specs
from tessil.ui.piecing_specs import piece_specs
from tessil.ui.quilt_specs import quilt_specs
from tessil.ui.specs import Kind, Spec, with_empty

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
TO_COME = {
    Stage.MAKE: (
        "The order of assembly, with the steps that must not be missed, will stand here. "
        "The worksheet (Ctrl+P) has all sizes to cut and sew by today."
    )
}


def _brief(plan: Plan, panel: PanelPlan) -> Iterator[Spec]:
    project, uses = plan.project, plan.shape.uses
    yield Spec(
        "shape.kind",
        "choice",
        "Shape",
        plan.shape.sentence,
        plan.shape.key,
        lambda key: reshape(project, SHAPES[key]),
        tuple((key, shape.name) for key, shape in SHAPES.items()),
    )
    yield Spec(
        "shape.way",
        "choice",
        "Start from",
        "What the sizes are worked out from",
        project.shape.way,
        lambda way: start_from(plan, way),
        (
            ("finished", "the finished size"),
            ("object", "what it holds"),
            ("cloth", "the cloth there is"),
            ("panel", "the panel size"),
        ),
    )
    if project.rounding is not None:
        yield Spec(
            "rounding",
            "choice",
            "Sizes keep",
            "The marks that sizes are rounded to, since something was measured or settled",
            project.rounding,
            lambda new: edit("Choose the marks", ("rounding", new)),
            (("inch", "inch marks"), ("metric", "metric marks")),
        )
    if project.shape.way == "cloth":
        yield from _cloth(plan)
    yield from _sizes(plan)
    for option in plan.shape.options:
        if not plan.shape.asked(option, plan.brief.options):
            continue
        yield Spec(
            f"shape.options.{option.key}",
            "choice",
            option.label,
            option.why,
            plan.brief.options[option.key],
            setter(f"shape.options.{option.key}", option.label),
            option.choices,
        )
    yield from _held(plan)
    if "lining" in uses:
        yield field_of(
            plan,
            "lining",
            "choice",
            "Lining",
            "Where the lining comes in",
            choices=(("drop-in", "dropped in"), ("quilted-in", "quilted in"), ("none", "none")),
        )
    if "corner" in uses:
        yield field_of(
            plan,
            "corner",
            "choice",
            "Corners",
            "The bag is the same; what is marked and cut differs",
            choices=(
                ("cut", "cut first, then sewn"),
                ("line", "drawn, sewn on the line"),
                ("pinch", "pinched, sewn across"),
            ),
        )
    yield from _seams(plan)


def _cloth(plan: Plan) -> Iterator[Spec]:
    yield field_of(plan, "shape.cloth.width", "length", "Cloth width", "Of each piece")
    yield field_of(plan, "shape.cloth.height", "length", "Cloth height", "Of each piece")
    yield field_of(plan, "shape.cloth.pieces", "count", "Pieces", "Of that size")
    yield field_of(
        plan,
        "shape.cloth.quilted",
        "toggle",
        "It is quilted already",
        "Else quilting and squaring take their part",
        "Say if it is quilted",
    )
    if plan.brief.has_lining and not plan.project.shape.cloth.quilted:
        yield field_of(
            plan,
            "shape.cloth.lining",
            "toggle",
            "The lining comes out of it too",
            "Else it is of another cloth",
            "Choose the lining's cloth",
        )


def _seams(plan: Plan) -> Iterator[Spec]:
    uses, options = plan.shape.uses, plan.brief.options
    if plan.shape.has_side_seam(options):
        yield field_of(plan, "seams.side", "length", "Side seam", "Allowance at the sides")
    if "bottom" in uses:
        yield field_of(plan, "seams.bottom", "length", "Bottom seam", "Allowance at the bottom")
    if "corner" in uses and plan.project.corner == "cut":
        yield field_of(plan, "seams.corner", "length", "Corner seam", "Across the boxed corners")
    if "top" in uses and options.get("top") != "bound":
        yield field_of(plan, "seams.top", "length", "Top seam", "Where the lining joins")
    if "zip" in uses:
        yield field_of(plan, "zipper.seam", "length", "Zipper seam", "Where cloth meets tape")
        yield field_of(
            plan, "zipper.shown", "length", "Zipper shows", "Between the two cloth edges"
        )
        yield with_empty(
            field_of(plan, "zipper.length", "length?", "Zipper in hand", ""), "as long as it takes"
        )
        yield field_of(
            plan,
            "zipper.teeth",
            "choice",
            "Teeth",
            "Nylon may be sewn over and cut",
            choices=(("nylon", "nylon"), ("metal", "metal")),
        )


def _sizes(plan: Plan) -> Iterator[Spec]:
    """The shape's own sizes; from an object or cloth only those that do not follow from it."""
    sizes, way = plan.project.shape.sizes, plan.project.shape.way
    wanted = {"panel": ("panel", "always"), "object": ("always",)}.get(way, ("finished", "always"))
    for field in plan.shape.fields:
        if field.way not in wanted:
            continue
        if way == "cloth" and field.from_cloth:
            continue
        if not plan.shape.asked(field, plan.brief.options):
            continue
        path = f"shape.sizes.{field.key}"
        value = sizes.get(field.key, field.start)
        if field.key not in sizes and field.key in plan.sizes:
            value = plan.sizes[field.key].value
        yield Spec(path, "length", field.label, field.why, value, setter(path, field.label))


def _held(plan: Plan) -> Iterator[Spec]:
    project = plan.project
    if project.shape.way != "object":
        yield field_of(
            plan,
            "hold.minded",
            "toggle",
            "Check that things fit",
            "Warn when it does not",
            "Check the fit",
        )
        if not project.hold.minded:
            return
    things = project.hold.things
    for at in range(len(things)):
        yield from _thing(plan, at, len(things))
    more = (
        *things,
        Thing(
            name="another thing",
            width=things[-1].width,
            height=things[-1].height,
            thickness=things[-1].thickness,
        ),
    )
    if len(things) < 12:
        yield Spec(
            "hold.more",
            "action",
            "Add another thing",
            "Add another thing",
            None,
            lambda _: edit("Add a thing to hold", ("hold.things", more)),
        )
    if len(things) > 1:
        yield field_of(
            plan,
            "hold.packed",
            "choice",
            "Packed",
            "How the things lie together",
            choices=(("stacked", "behind"), ("beside", "beside")),
        )
    yield field_of(plan, "hold.ease", "length", "Ease each side", "Room to slide: ½ in is usual")


def _thing(plan: Plan, at: int, of: int) -> Iterator[Spec]:
    base = f"hold.things.{at}"
    yield field_of(plan, f"{base}.name", "word", "It holds" if not at else "and", "What it is")
    yield field_of(plan, f"{base}.width", "length", "Its width", "As it lies in the bag")
    yield field_of(plan, f"{base}.height", "length", "Its height", "As it lies in the bag")
    yield field_of(plan, f"{base}.thickness", "length", "Its thickness", "Of one")
    yield field_of(plan, f"{base}.count", "count", "How many", "One behind the other")
    if of > 1:
        things = plan.project.hold.things
        rest = (*things[:at], *things[at + 1 :])
        yield Spec(
            f"{base}.gone",
            "action",
            f"Leave the {things[at].name} out",
            "Take it away",
            None,
            lambda _: edit("Leave a thing out", ("hold.things", rest)),
        )


_MARK_FIELDS: tuple[tuple[str, Kind, str, str], ...] = (
    ("x", "length", "From left edge", "Raw trimmed edge to the mark"),
    ("y", "length", "From top edge", "Raw trimmed edge to the mark"),
    ("width", "length", "Its width", "Finished; for a window, the opening: zipper less 1 in"),
    ("height", "length", "Its height", "Finished"),
)
_NO_SIZE = ("handle", "d-ring")


def _marks(plan: Plan, panel: PanelPlan) -> Iterator[Spec]:
    choices = (("", "choose what to mark…"), *KINDS.items())
    help_ = "Pockets, tabs, handles, stiffener, motif"
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
                plan, "snap.offset", "length", "Male part", "Above the flap's edge: 1½ to 2"
            )
            female = field_of(plan, "snap.female", "length?", "Female is set", "Below the top edge")
            yield with_empty(female, "computed from the flap")


def _adding(plan: Plan, panel: PanelPlan) -> Callable[[Any], Edit]:
    return lambda kind: add_mark(plan, panel, kind) if kind else Edit("", ())


def _mark_fields(plan: Plan, at: int, mark: Mark) -> Iterator[Spec]:
    name = KINDS[mark.kind].lower()
    for key, kind, label, help_ in _MARK_FIELDS:
        if key in ("width", "height") and mark.kind in _NO_SIZE:
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
    if mark.kind == "handle":
        yield Spec(
            f"marks.{at}.x2",
            "length?",
            "Other end",
            "From left edge; empty: mirrored",
            mark.x2,
            _setting(plan, at, "x2", f"Set the {name}"),
            empty="mirrored",
        )
    if mark.kind == "divided":
        divide = _setting(plan, at, "divisions", f"Divide the {name}")
        yield Spec(
            f"marks.{at}.divisions",
            "count",
            "Divided into",
            "Double lines ¼ apart",
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
    return lambda new: measure(plan.project, panel.key, "notch", Got(**dict(got) | {side: new}))


def _trim(plan: Plan, panel: PanelPlan) -> Iterator[Spec]:
    yield from _notch_as_cut(plan, panel)
    yield from _marks(plan, panel)
    if "lining" in plan.shape.uses and plan.project.lining == "drop-in":
        yield field_of(
            plan,
            "lining_shorter",
            "length",
            "Lining shorter",
            "So that it does not bag out: nothing to ¼ in",
        )
        yield with_empty(field_of(plan, "turning_gap", "length?", "Turning gap", ""), "the least")
    if panel.quilts:
        yield from oversize(plan)


def _cut(plan: Plan, panel: PanelPlan) -> Iterator[Spec]:
    yield field_of(plan, "bags", "count", "Bags to make", "All amounts are for so many")
    yield field_of(
        plan,
        "stock.usable_width",
        "length",
        "Usable width",
        "Between the selvages, once they are off",
    )
    yield field_of(plan, "stock.straightening", "length", "Straighten", "Lost squaring the cut end")


_TABLE: dict[Stage, Callable[[Plan, PanelPlan], Iterator[Spec]]] = {
    Stage.BRIEF: _brief,
    Stage.TRIM: _trim,
    Stage.CUT: _cut,
}


LEAVES: dict[Stage, tuple[tuple[str, str], ...]] = {
    Stage.PIECE: (("pieces", "Pieces"), ("prints", "Prints"), ("stock", "Scraps, seam")),
    Stage.LAYER: (("layers", "Layers"), ("amounts", "Amounts"), ("bulk", "Thickness")),
    Stage.EDGE: (
        ("binding", "Binding"),
        ("bias", "Bias"),
        ("piping", "Piping"),
        ("straps", "Straps"),
        ("closing", "Closing"),
    ),
    Stage.QUILT: (("lines", "Lines"), ("sewing", "Sewing"), ("draws", "Draws in")),
}


def leaf_of(stage: Stage, open_leaves: Mapping[Stage, str]) -> str:
    """The leaf that is open at a stage; nothing where it has none."""
    leaves = LEAVES.get(stage)
    return open_leaves.get(stage, leaves[0][0]) if leaves else ""


def specs(
    plan: Plan, stage: Stage, panel_key: str, leaf: str = "", zone: int = 0, ply: int = 0
) -> tuple[Spec, ...]:
    """The fields of a stage for a panel, as things stand now; of one leaf, where it has some."""
    panel = plan.panel(panel_key)
    if stage is Stage.PIECE:
        return tuple(piece_specs(plan, panel, leaf or "pieces", zone))
    if stage is Stage.LAYER:
        return tuple(layer_specs(plan, panel, leaf or "layers", ply))
    if stage is Stage.QUILT:
        return tuple(quilt_specs(plan, panel, leaf or "lines", zone))
    if stage is Stage.EDGE:
        return tuple(edge_specs(plan, leaf or "binding"))
    ask = _TABLE.get(stage)
    return tuple(ask(plan, panel)) if ask else ()
