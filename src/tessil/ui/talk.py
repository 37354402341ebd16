"""The brief as a talk about the bag: its questions with their answers, one of them open.

Words and order only; what an answer means is the core's.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Mapping

from msgspec.structs import replace

from tessil.core.bag.model import StripEnds
from tessil.core.edits import Edit, edit
from tessil.core.numbers.lengths import Notation
from tessil.core.numbers.records import Record
from tessil.core.planned import Plan
from tessil.core.shapes import SHAPES
from tessil.core.shapes.acts.shaping import reshape, start_from
from tessil.core.shapes.base import SIDES, SIDES_BOUND, Asks, Option, SizeField
from tessil.files.report import finished_text
from tessil.ui.asking import always, field_of, setter
from tessil.ui.specs import Spec, with_empty

WAYS = (
    ("finished", "the finished size"),
    ("object", "what it holds"),
    ("cloth", "the cloth there is"),
    ("panel", "the panel size"),
)
NOTHING = Edit("", ())


def talk(plan: Plan, asked: str) -> Iterator[Spec]:
    """The shape, then every question in a line with its answer; below the one asked its fields."""
    yield Spec(
        "shape.kind",
        "choice",
        "Shape",
        plan.shape.sentence,
        plan.shape.key,
        lambda key: reshape(plan.project, SHAPES[key]),
        tuple((key, shape.name) for key, shape in SHAPES.items()),
    )
    topics = [(topic, tuple(topic.fields(plan))) for topic in TOPICS]
    there = [(topic, fields) for topic, fields in topics if fields]
    open_ = asked if asked in [topic.key for topic, _ in there] else "size"
    for topic, fields in there:
        answer = topic.answer(plan, fields)
        key = f"talk.{topic.key}"
        value = (answer, topic.key == open_)
        yield Spec(key, "question", topic.title, topic.help, value, lambda _: NOTHING)
        if topic.key == open_:
            yield from fields


# -- questions ------------------------------------------------------------------------------


def _holds(plan: Plan) -> Iterator[Spec]:
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
    another = things[-1].model_copy(update={"name": "another thing", "count": 1})
    more = (*things, another)
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
    yield field_of(
        plan, "hold.ease", "length", "Ease each side", "Room to slide: ½ in (13 mm) is usual"
    )


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


def _held(plan: Plan, _fields: Iterable[Spec]) -> str:
    hold, notation = plan.project.hold, plan.marks.notation
    if plan.project.shape.way != "object" and not hold.minded:
        return "not checked"
    told = []
    for thing in hold.things:
        number = f"{thing.count} × " if thing.count > 1 else ""
        told.append(
            f"{number}{thing.name} {notation.size(thing.width, thing.height, thing.thickness)}"
        )
    return f"{'; '.join(told)}; ease {notation.size(hold.ease)}"


def _how_large(plan: Plan) -> Iterator[Spec]:
    project = plan.project
    yield Spec(
        "shape.way",
        "choice",
        "Start from",
        "What the sizes are worked out from",
        project.shape.way,
        lambda way: start_from(plan, way),
        WAYS,
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
    yield from _of_shape(plan, "size")


def _cloth(plan: Plan) -> Iterator[Spec]:
    yield Spec(
        "reach.search",
        "search",
        "Largest from the shelf",
        "Every part out of the cloths that lie there, in this proportion or with one size held",
        None,
        always(edit("")),
    )
    yield Spec(
        "reach.compare",
        "search",
        "Largest of each shape",
        "From the same cloths, side by side",
        None,
        always(edit("")),
    )
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
    yield field_of(
        plan,
        "shape.cloth.directional",
        "toggle",
        "Its print has an up",
        "Along its height: no piece of the bag is turned",
        "Say which way the print runs",
    )
    held = [("width", "the width"), ("height", "the height")]
    there = [field.key for field in plan.shape.fields if field.from_cloth]
    yield field_of(
        plan,
        "shape.cloth.keep",
        "choice",
        "Keep",
        "One finished size as it is written here; the other as large as the cloth allows",
        choices=(("none", "nothing"), *(one for one in held if one[0] in there)),
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


def _finished(plan: Plan, _fields: Iterable[Spec]) -> str:
    return f"{finished_text(plan)}, from {dict(WAYS)[plan.project.shape.way]}"


def _of_shape(plan: Plan, asks: Asks) -> Iterator[Spec]:
    """What the shape itself asks: its choices, each with what hangs on it, then its other sizes;
    from an object or cloth only those that do not follow from it."""
    every: list[Option | SizeField] = [*plan.shape.options, *plan.shape.fields]
    rows = [one for one in every if one.asks == asks]
    for one in sorted(rows, key=plan.shape.place_of):
        if not plan.shape.asked(one, plan.brief.options):
            continue
        if isinstance(one, Option):
            yield _choice(plan, one)
        elif _wanted(plan, one):
            yield _sized(plan, one)


def _choice(plan: Plan, option: Option) -> Spec:
    path = f"shape.options.{option.key}"
    chosen = plan.brief.options[option.key]
    setting = setter(path, option.label)
    return Spec(path, "choice", option.label, option.why, chosen, setting, option.choices)


def _wanted(plan: Plan, field: SizeField) -> bool:
    """Whether a size is asked for in this way in."""
    way, keep = plan.project.shape.way, plan.project.shape.cloth.keep
    wanted = {"panel": ("panel", "always"), "object": ("always",)}.get(way, ("finished", "always"))
    found = way == "cloth" and field.from_cloth and field.key != keep
    return field.way in wanted and not found


def _sized(plan: Plan, field: SizeField) -> Spec:
    path, sizes = f"shape.sizes.{field.key}", plan.project.shape.sizes
    value = sizes.get(field.key, field.begins(plan.brief.rulers.units))
    if field.key not in sizes and field.key in plan.sizes:
        value = plan.sizes[field.key].value
    return Spec(path, "length", field.label, field.why, value, setter(path, field.label))


def _closes(plan: Plan) -> Iterator[Spec]:
    yield from _of_shape(plan, "closes")
    if plan.bag.flap is not None:
        yield field_of(
            plan,
            "snap.used",
            "toggle",
            "Magnetic snap",
            "Male in the flap's lining, female where it lands; its place is a matter of trimming",
            "Set a snap",
        )
    if "zip" in plan.shape.uses:
        yield field_of(
            plan,
            "zipper.set",
            "choice",
            "Zipper",
            "In a seam it takes of both edges; bound or lapped over, nothing is lost",
            "Set the zipper otherwise",
            ZIP_SETS,
        )
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


ZIP_SETS = (
    ("seam", "in a seam"),
    ("bound", "under bound edges"),
    ("lapped", "lapped over with a tape"),
)


def _carried(plan: Plan) -> Iterator[Spec]:
    yield from _of_shape(plan, "carried")


def _lining_in(plan: Plan) -> Iterator[Spec]:
    """How a lining that is dropped in comes into the bag, and whether its halves are alike."""
    if plan.project.lining != "drop-in" or not plan.bag.panel_kinds & {"lining"}:
        return
    ways = _ways_in(plan)
    if len(ways) > 1:
        why = "What is left open, or sewn first, to get it in"
        asked = field_of(plan, "lining_in", "choice", "It goes in", why, choices=ways)
        # What was chosen for another shape may not be offered here: how it really comes in.
        offered = dict(ways)
        way = plan.lining_way if plan.lining_way in offered else ways[0][0]
        yield replace(asked, value=way)
    twice = any(panel.key == "lining" and panel.copies == 2 for panel in plan.bag.panels)
    if twice or plan.project.lining_apart:
        why = "Two halves may be of unlike cloth, with unlike pockets"
        yield field_of(plan, "lining_apart", "toggle", "Its halves unlike", why, "Part the lining")


def _ways_in(plan: Plan) -> tuple[tuple[str, str], ...]:
    """The ways that this bag's lining can come in."""
    ways = [("gap", "through a gap")]
    turned = "top" in plan.shape.uses and plan.brief.options.get("top") != "bound"
    if turned and plan.bag.zipper is None:
        ways.append(("tucked", "tucked in"))
        if plan.shape.cloths == 1:
            ways.append(("sleeve", "as a sleeve"))
    if any(panel.kind == "lining" and panel.folds for panel in plan.bag.panels):
        ways.append(("false-seam", "by a false seam"))
    return tuple(ways)


def _sewn(plan: Plan) -> Iterator[Spec]:
    yield from _of_shape(plan, "sewn")
    if "lining" in plan.shape.uses:
        yield field_of(
            plan,
            "lining",
            "choice",
            "Lining",
            "Where the lining comes in",
            choices=(("drop-in", "dropped in"), ("quilted-in", "quilted in"), ("none", "none")),
        )
        yield from _lining_in(plan)
    if "corner" in plan.shape.uses:
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


def _seams(plan: Plan) -> Iterator[Spec]:
    uses, options = plan.shape.uses, plan.brief.options
    outside = options.get(SIDES.key) == SIDES_BOUND
    if plan.shape.has_side_seam(options) and not outside:
        yield field_of(plan, "seams.side", "length", "Side seam", "Allowance at the sides")
    if "bottom" in uses and not outside:
        yield field_of(plan, "seams.bottom", "length", "Bottom seam", "Allowance at the bottom")
    if "corner" in uses and plan.project.corner == "cut":
        yield field_of(plan, "seams.corner", "length", "Corner seam", "Across the boxed corners")
    if "top" in uses and options.get("top") != "bound":
        yield field_of(plan, "seams.top", "length", "Top seam", "Where the lining joins")
    if "zip" in uses and plan.project.zipper.set == "seam":
        yield field_of(plan, "zipper.seam", "length", "Zipper seam", "Where cloth meets tape")


# -- answers ---------------------------------------------------------------------------------


def _said(plan: Plan, fields: Iterable[Spec]) -> str:
    """What stands in the fields of a question, one after the other; like seams together."""
    told, seams, before = list[str](), list[str](), ""
    for spec in fields:
        if spec.key.startswith("seams."):
            seams.append(plan.marks.notation.size(spec.value))
            continue
        label = spec.label.lower().removeprefix("the ")
        first, _, rest = label.partition(" ")
        words = _word(spec, rest if rest and first == before else label, plan.marks.notation)
        if words:
            told.append(words)
            before = first
    if seams:
        told.append(f"seams {' and '.join(dict.fromkeys(seams))}")
    return ", ".join(told)


def _word(spec: Spec, label: str, notation: Notation) -> str:
    """One field as words; nothing where nothing stands in it."""
    if spec.kind == "toggle":
        return label if spec.value else ""
    if spec.kind == "choice":
        word = dict(spec.choices).get(spec.value)
        if word is None:  # a decision that only another shape has
            return ""
        return f"no {label}" if word == "none" else f"{label} {word}"
    return "" if spec.value is None else f"{label} {notation.size(spec.value)}"


def _carried_by(plan: Plan, _fields: Iterable[Spec]) -> str:
    """All that it is carried by, each with its length and width."""
    size = plan.marks.notation.size
    told = [
        f"{'2 ' if strap.part.number > 1 else ''}{strap.part.label.lower()} "
        f"{size(strap.part.length.value)} × {size(strap.finished.value)}{_END[strap.part.ends]}"
        for strap in plan.edging.straps
        if strap.part.key != "tabs"
    ]
    return ", ".join(told) or "in the hand"


_END: Mapping[StripEnds, str] = {
    "seam": "",
    "face": " on the face",
    "below": " below the edge",
    "ring": " on rings",
    "tied": " tied to loops",
}


class Topic(Record, frozen=True, dict=True):
    """One question about a bag: its fields, and how its answer is told."""

    key: str
    title: str
    help: str
    fields: Callable[[Plan], Iterator[Spec]]
    answer: Callable[[Plan, Iterable[Spec]], str] = _said


TOPICS = (
    Topic("holds", "Holds", "What it is to hold, and the room round it", _holds, _held),
    Topic("size", "How large", "What its sizes begin with, and the sizes", _how_large, _finished),
    Topic("closes", "Closes", "By a flap, a zipper, a cord", _closes),
    Topic("carried", "Carried", "By handles, a strap, a loop", _carried, _carried_by),
    Topic("sewn", "Sewn", "Lining, corners, edges and seams", _sewn),
)
