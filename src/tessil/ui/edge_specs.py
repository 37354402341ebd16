"""What the edge stage asks, leaf by leaf: binding, bias, piping, straps, zipper and cord."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial
from typing import Any

from tessil.core.edges.choice import MOST_PIECES
from tessil.core.edges.pieces import read_pieces, write_piece
from tessil.core.edges.presets import CARRIED, CORDS
from tessil.core.edges.straps import STIFFENED, on_rings, strap_for
from tessil.core.edits import Edit, edit
from tessil.core.numbers.lengths import read_length
from tessil.core.planned import Plan
from tessil.ui.asking import always, field_of
from tessil.ui.specs import Spec, with_empty


def edge_specs(plan: Plan, leaf: str) -> Iterator[Spec]:
    """The fields of one leaf."""
    ask = {
        "bias": _bias,
        "piping": _piping,
        "straps": _straps,
        "closing": _closing,
        "binding": _binding,
    }.get(leaf)
    if ask is not None:
        yield from ask(plan)


def _prints(plan: Plan) -> tuple[tuple[str, str], ...]:
    return tuple((entry.key, entry.name) for entry in plan.project.prints) or (("", "cloth"),)


def _binding(plan: Plan) -> Iterator[Spec]:
    if plan.project.lining == "quilted-in":
        yield field_of(
            plan,
            "binding.inner",
            "toggle",
            "Bind the seams inside",
            "Raw seams of a lining quilted in",
            "Bind inner seams",
        )
        if plan.project.binding.inner and any(join.kind == "zip" for join in plan.bag.joins):
            yield field_of(
                plan,
                "binding.inner_zip",
                "choice",
                "Along the zipper",
                "How many of its two seams are bound; the others are turned under",
                "Choose the zipper seams to bind",
                (("none", "none"), ("one", "one"), ("both", "both")),
            )
    if plan.binding is None and not plan.edge_strips:
        return
    yield field_of(
        plan,
        "binding.print",
        "choice",
        "Cloth",
        "What the binding is cut from",
        "Choose the binding's cloth",
        _prints(plan),
    )
    yield field_of(
        plan,
        "binding.grain",
        "choice",
        "Grain",
        "Curves need bias",
        "Choose the binding's grain",
        (("straight", "straight"), ("bias", "bias")),
    )
    yield field_of(
        plan,
        "binding.fold",
        "choice",
        "Fold",
        "Double wears longer",
        "Choose the binding's fold",
        (("double", "double"), ("single", "single")),
    )
    yield field_of(plan, "binding.seam", "length", "Binding seam", "So much of it shows in front")
    yield field_of(plan, "binding.cover", "length", "Cover", "A little beyond the seam behind")
    yield with_empty(
        field_of(plan, "binding.cut", "length?", "Cut width", ""), "as the formula says"
    )
    if plan.bag.loop:
        yield field_of(
            plan,
            "binding.ending",
            "choice",
            "Ending",
            "Where the loop closes",
            choices=(("tuck", "tucked in"), ("diagonal", "joined")),
        )
        if plan.project.binding.ending == "tuck":
            yield field_of(plan, "binding.overlap", "length", "Overlap", "Where the loop closes")
    else:
        yield field_of(
            plan,
            "binding.corners",
            "choice",
            "Corners",
            "How they are turned",
            choices=(("mitred", "mitred"), ("butted", "butted")),
        )
    yield field_of(
        plan,
        "binding.first",
        "choice",
        "Sewn first to",
        "Then turned over the edge",
        choices=(("front", "the front"), ("back", "the back")),
    )
    yield field_of(
        plan,
        "binding.sewn",
        "choice",
        "Then sewn",
        "On the other side",
        choices=(("machine", "by machine"), ("hand", "by hand")),
    )
    if plan.project.binding.grain == "straight":
        yield field_of(
            plan,
            "binding.strips_on_hand",
            "count?",
            "Strips in hand",
            "Already cut, for one bag; empty: as many as it takes",
        )


def _bias(plan: Plan) -> Iterator[Spec]:
    bias = plan.project.bias
    yield field_of(
        plan,
        "bias.source",
        "choice",
        "Cut from",
        "Where bias strips come from",
        choices=(
            ("yardage", "new cloth"),
            ("pieces", "pieces there are"),
            ("tube", "a tube, in one"),
        ),
    )
    if bias.source == "tube":
        return
    yield field_of(plan, "bias.least", "length", "Shortest strip", "Shorter ones are left over")
    yield field_of(
        plan,
        "bias.prefer",
        "choice",
        "Prefer",
        "Both are worked out, one is used",
        choices=(("joins", "few joins"), ("waste", "little waste")),
    )
    if bias.source != "pieces":
        return
    if len(bias.pieces) < MOST_PIECES:
        yield Spec(
            "bias.add",
            "entry",
            "A piece",
            "8 × 15, 8 × 15 ×3, or by its corners: 0 0, 12 0, 9 7",
            "",
            partial(_add, plan),
        )
        about = "Scraps and quarters of the binding's cloth that lie there, small ones first"
        yield Spec("bias.take", "page", "Take pieces from the shelf", about, None, _asked)
    for at, piece in enumerate(bias.pieces):
        rest = (*bias.pieces[:at], *bias.pieces[at + 1 :])
        words = write_piece(piece, plan.marks.notation)
        yield Spec(
            f"bias.{at}.gone",
            "action",
            f"Leave out {at + 1}: {words}",
            "One piece fewer",
            None,
            always(edit("Leave a piece out", ("bias.pieces", rest))),
        )


_asked = always(Edit("", ()))  # the window does it


def _add(plan: Plan, text: str) -> Edit:
    pieces = (*plan.project.bias.pieces, *read_pieces(text, plan.project.units))
    if len(pieces) > MOST_PIECES:
        raise ValueError(f"At most {MOST_PIECES} pieces can be looked through.")
    return edit("Note a piece for bias", ("bias.pieces", pieces))


def _piping(plan: Plan) -> Iterator[Spec]:
    chosen = plan.project.piping.panels
    for panel in plan.panels:
        key = panel.key
        if not any(run.finish == "seam" and not run.edge.notch for run in plan.edging.runs_on(key)):
            continue
        yield Spec(
            f"piping.on.{key}",
            "toggle",
            f"Round the {panel.panel.label.lower()}",
            "Piping in its seams",
            key in chosen,
            partial(_pipe, chosen, key),
        )
    if not chosen:
        return
    yield Spec(
        "piping.sides",
        "choice",
        "Along",
        "Round all its seams, its ends lapped; or some sides, its ends in the seams across",
        " ".join(plan.project.piping.sides),
        lambda said: edit("Choose where piping runs", ("piping.sides", tuple(said.split()))),
        _ALONG,
    )
    yield field_of(
        plan,
        "piping.print",
        "choice",
        "Cloth",
        "What covers the cord",
        choices=(("", "as the binding"), *_prints(plan)),
    )
    usual = next((name for name, thick in CORDS if thick == plan.project.piping.cord), "")
    yield Spec(
        "piping.usual",
        "choice",
        "Cord",
        "Sets its thickness",
        usual,
        _cord,
        (("", "as typed"), *((name, name) for name, _ in CORDS)),
    )
    yield field_of(plan, "piping.cord", "length", "Cord, thick", "Its diameter")
    yield with_empty(
        field_of(plan, "piping.around", "length?", "Round it", "Measured"), "from its thickness"
    )
    yield with_empty(field_of(plan, "piping.allowance", "length?", "Allowance", ""), "as the seam")
    if not plan.project.piping.sides:
        yield field_of(
            plan,
            "piping.overlap",
            "length",
            "Overlap",
            "Where its ends meet: 1 to 2 in (2.5 to 5 cm)",
        )


_ALONG = (  # the sides of a panel, one after the other
    ("", "all its seams"),
    ("top", "the top"),
    ("bottom", "the bottom"),
    ("left right", "the sides"),
    ("left right bottom", "sides and bottom"),
)


def _cord(name: Any) -> Edit:
    thick = dict(CORDS).get(name)
    if thick is None:
        return edit("Choose a cord")
    return edit("Choose a cord", ("piping.cord", thick), ("piping.around", None))


def _pipe(chosen: tuple[str, ...], key: str, on: bool) -> Edit:
    panels = (*chosen, key) if on else tuple(other for other in chosen if other != key)
    return edit("Put piping in" if on else "Leave piping out", ("piping.panels", panels))


def _straps(plan: Plan) -> Iterator[Spec]:
    if not plan.edging.straps:
        return
    has_strap = any(strap.part.key == "strap" for strap in plan.edging.straps)
    if has_strap:
        yield Spec(
            "strap.carried",
            "choice",
            "Carried",
            "Sets a usual length",
            plan.project.strap.carried,
            partial(_carry, plan),
            (
                ("typed", "as typed"),
                ("hand", "in the hand"),
                ("shoulder", "on the shoulder"),
                ("child", "across, a child"),
                ("adult", "across, an adult"),
            ),
        )
        yield Spec(
            "strap.hang",
            "entry",
            "Hangs",
            "Below the shoulder: sets the length",
            "",
            partial(_hang, plan),
        )
        yield Spec(
            "strap.slider",
            "toggle",
            "Adjustable, with a slider",
            "A slider and two rings, on tabs in the side seams",
            plan.project.strap.slider,
            partial(_slide, plan),
        )
    yield field_of(
        plan,
        "strap.made",
        "choice",
        "Made of",
        "What carries",
        choices=(
            ("cloth", "cloth"),
            ("webbing", "webbing"),
            ("covered", "covered webbing"),
            ("underside", "a top and an underside"),
        ),
    )
    if any(strap.joins.whole for strap in plan.edging.straps):
        yield field_of(
            plan,
            "strap.joins",
            "choice",
            "Joined",
            "On the slant it is flatter; straight it takes less",
            choices=(("diagonal", "on the slant"), ("straight", "straight")),
        )
    if plan.project.strap.made in STIFFENED:
        yield field_of(
            plan,
            "strap.interfaced",
            "toggle",
            "With interfacing",
            "½ in (13 mm) short at both ends; in a folded strip it lies double",
            "Put interfacing in",
        )
    if any(strap.turns for strap in plan.edging.straps):
        yield field_of(
            plan, "strap.turned_back", "length", "Turned back", "At both ends, box-stitched"
        )
        yield with_empty(
            field_of(plan, "strap.ring", "length?", "Ring, inside", "In hand"), "as wide as it"
        )


def _carry(plan: Plan, key: Any) -> Edit:
    usual = CARRIED[plan.project.units].get(key)
    changes: list[tuple[str, Any]] = [("strap.carried", key)]
    if usual is not None:
        changes.append(("shape.sizes.strap_length", usual[1]))
    return edit("Choose how it is carried", *changes)


def _slide(plan: Plan, slides: bool) -> Edit:
    """A strap that slides hangs on rings; one that does no longer keeps them."""
    rings = (on_rings(plan.project.shape),) if slides else ()
    return edit("Make the strap adjustable", ("strap.slider", slides), *rings)


def _hang(plan: Plan, text: str) -> Edit:
    """A length by the height where the bag shall hang."""
    hang = read_length(text, plan.project.units)
    if hang <= 0:
        raise ValueError("Say how far below the shoulder the bag's top shall hang, such as 20.")
    return edit(
        "Set the strap by where the bag hangs",
        ("strap.carried", "typed"),
        ("shape.sizes.strap_length", strap_for(plan.edge_task, hang)),
    )


def _closing(plan: Plan) -> Iterator[Spec]:
    if plan.bag.zipper is not None:
        yield with_empty(
            field_of(plan, "zipper.length", "length?", "Zipper in hand", ""),
            "the next standard one",
        )
        yield with_empty(
            field_of(plan, "zipper.tape", "length?", "Tape, wide", "Edge to edge, of both halves"),
            "as it comes out",
        )
        yield field_of(
            plan,
            "zipper.teeth",
            "choice",
            "Teeth",
            "Nylon may be sewn over and cut",
            choices=(("nylon", "nylon"), ("metal", "metal")),
        )
        yield field_of(
            plan,
            "zipper.ends",
            "choice",
            "Its ends",
            "In the seams, between tabs, or cut off the roll and its sliders put on",
            choices=(("stops", "in the seams"), ("tabs", "with tabs"), ("length", "off the roll")),
        )
        for side, word in (("left", "Teeth begin"), ("right", "Teeth end")):
            why = f"From the seam at the {side}; at 0 they run on into it"
            yield field_of(plan, f"zipper.{side}", "length", word, why)
        yield field_of(
            plan,
            "zipper.sliders",
            "choice",
            "Sliders",
            "Two open from the middle",
            choices=(("one", "one"), ("two", "two, facing")),
        )
        if plan.project.zipper.sliders == "one":
            yield field_of(
                plan,
                "zipper.rests",
                "choice",
                "Closed pull rests",
                "Seen from the front: it closes towards there",
                choices=(("right", "at the right"), ("left", "at the left")),
            )
        yield field_of(
            plan,
            "zipper.pull",
            "toggle",
            "Pull tab of cloth",
            "A strip of 1 × 12 in (2.5 × 30 cm)",
            "Give the zipper a pull tab",
        )
    yield field_of(
        plan,
        "button.used",
        "toggle",
        "Button and loop",
        "A loop at the back's middle",
        "Close it with a button",
    )
    if plan.project.button.used:
        yield field_of(plan, "button.across", "length", "Button, across", "Its diameter")
        yield field_of(plan, "button.thick", "length", "Button, thick", "With its shank")
    if plan.edging.cord is not None:
        kinds = (("round", "round"), ("flat", "flat tape"))
        why = "A flat tape wants a channel half as wide again as it is"
        yield field_of(plan, "cord.kind", "choice", "Cord", why, choices=kinds)
        flat = plan.project.cord.kind == "flat"
        label, about = ("Tape, wide", "Its width") if flat else ("Cord, thick", "Its diameter")
        yield field_of(plan, "cord.thick", "length", label, about)
