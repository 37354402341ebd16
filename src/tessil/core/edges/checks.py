"""Do edges get what they need: binding, bias, piping, straps, zipper, cord?"""

from __future__ import annotations

from collections.abc import Iterator

from tessil.core.edges.binding import CORNER_CLEAR, BindingPlan, begin_strips, joined_length
from tessil.core.edges.presets import CARRIED
from tessil.core.edges.runs import bound_edge
from tessil.core.edges.straps import StrapPlan, on_rings, slides
from tessil.core.edits import Edit, edit
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Inches, round_up
from tessil.core.numbers.workings import count, given
from tessil.core.panels.places import whole
from tessil.core.planned import Plan
from tessil.core.snags import Place, Snag, Stage, Weight


def edge_snags(plan: Plan) -> Iterator[Snag]:
    """Snags of all edges."""
    yield from _too_short(plan)
    yield from _too_narrow(plan)
    yield from _tight_curve(plan)
    yield from _join_at_corner(plan)
    yield from _pieces(plan)
    yield from _piping(plan)
    for strap in plan.edging.straps:
        yield from _strap(plan, strap)
    yield from _metal(plan)
    yield from _tape(plan)
    yield from _dear(plan)
    yield from _on_fold(plan)
    yield from _pull(plan)
    yield from _channel(plan)


FLIPPED = Fraction(1, 4)  # inches of a handle's end below the seam that holds it


def _snag(
    plan: Plan,
    key: str,
    weight: Weight,
    title: str,
    why: str,
    *fixes: Edit,
    place: Place | None = None,
    panel: str = "",
) -> Snag:
    """One snag of this stage, on the leading panel unless it says another."""
    on = panel or plan.shape.leader
    return Snag(key, Stage.EDGE, weight, title, why, on, place or _place(plan), fixes)


def _read(plan: Plan, value: Inches) -> str:
    return plan.marks.notation.read_off(value, unit=True)


def _place(plan: Plan) -> Place:
    width = float(plan.panel(plan.shape.leader).trimmed.width.value)
    return Place(0, 0, width, 0, "line")


def _too_short(plan: Plan) -> Iterator[Snag]:
    binding = plan.binding
    if binding is None or plan.project.binding.grain == "bias":
        return
    if binding.reaches.value >= binding.length.value:
        return
    short = binding.length.value - binding.reaches.value
    needed = binding.strips.whole
    yield _snag(
        plan,
        "edge.short",
        Weight.BLOCKS,
        f"The binding in hand is {_read(plan, short)} too short",
        f"It joins to {_read(plan, max(binding.reaches.value, short * 0))}; the edge takes "
        f"{_read(plan, binding.length.value)} with its ending.",
        edit(f"Cut {needed} strip{'s' if needed > 1 else ''}", ("binding.strips_on_hand", needed)),
        edit("Cut what it takes", ("binding.strips_on_hand", None)),
    )


def _too_narrow(plan: Plan) -> Iterator[Snag]:
    binding = plan.binding
    if binding is None or binding.cut.value >= binding.formula.value:
        return
    asked = _read(plan, binding.formula.value)
    yield _snag(
        plan,
        "edge.narrow",
        Weight.WARNS,
        f"A binding cut {_read(plan, binding.cut.value)} will not reach round this edge",
        f"Seam, thickness and cover ask for {asked}: a narrower strip leaves the stitching behind "
        "uncovered.",
        edit(f"Cut it {asked}", ("binding.cut", None)),
    )


def _tight_curve(plan: Plan) -> Iterator[Snag]:
    """Straight grain does not lie round a tight curve."""
    none = plan.binding is None and not plan.edge_strips
    if none or plan.project.binding.grain == "bias":
        return
    for run in plan.edging.runs:
        if run.finish == "bound" and run.tight and run.radius is not None:
            xs, ys = [x for x, _ in run.points], [y for _, y in run.points]
            place = Place(min(xs), min(ys), max(xs) - min(xs), max(ys) - min(ys))
            yield _snag(
                plan,
                "edge.curve",
                Weight.WARNS,
                f"A straight binding puckers round a radius of {_read(plan, run.radius.value)}",
                "Curves tighter than 3 in (7.5 cm) want bias (common practice).",
                edit("Cut it on the bias", ("binding.grain", "bias")),
                place=place,
                panel=run.panel,
            )
            return


def _join_at_corner(plan: Plan) -> Iterator[Snag]:
    """A join in a mitre, or on a side seam, is too thick to fold; butted corners have no fold."""
    begin, binding, choice = plan.edging.begin, plan.binding, plan.project.binding
    if begin is None or binding is None or not begin.joins or begin.clear >= CORNER_CLEAR:
        return
    if choice.corners == "butted" and not plan.bag.loop:
        return
    near = _read(plan, Fraction(round(begin.clear * 16), 16))
    yield _snag(
        plan,
        "edge.join",
        Weight.NOTES,
        f"A join comes within {near} of a corner, wherever this binding begins",
        "A join in a fold is too thick: keep 2 in (5 cm) between them (common practice).",
        *_ways_clear(plan, binding),
    )


def _ways_clear(plan: Plan, binding: BindingPlan) -> Iterator[Edit]:
    """What keeps joins off the corners: a strip more, so that the first can be shorter; or, round
    a panel, corners that are not folded."""
    corners = bound_edge(plan.bag)[1]
    usable = given("usable width", plan.project.stock.usable_width)
    straight = plan.project.binding.grain == "straight"
    for more in range(1, 4 if straight else 1):
        strips = count("strips", binding.strips.whole + more)
        spare = joined_length(strips, usable, binding.cut).value - binding.length.value
        step = float(usable.value - binding.cut.value)
        made = begin_strips(step, strips.whole, float(spare), corners, float(binding.edge.value))
        if made.clear >= CORNER_CLEAR:
            yield edit(f"Cut {strips.whole} strips", ("binding.strips_on_hand", strips.whole))
            break
    if not straight:
        yield edit("Cut it in one, from a tube", ("bias.source", "tube"))
    if not plan.bag.loop:
        yield edit("Butt the corners", ("binding.corners", "butted"))


def _pieces(plan: Plan) -> Iterator[Snag]:
    """Pieces for bias: one that gives no strip, or all together too little."""
    choice = plan.project.bias
    for cut in plan.edging.bias:
        if cut.new is not None:
            continue
        for at in range(len(cut.outlines)):
            if not any(strip.scrap == at for strip in cut.plan.strips):
                kept = (*choice.pieces[:at], *choice.pieces[at + 1 :])
                yield _snag(
                    plan,
                    f"edge.piece.{at}",
                    Weight.NOTES,
                    f"Piece {at + 1} is too small for a strip {_read(plan, cut.width.value)} wide",
                    f"None of its strips is {_read(plan, choice.least)} long.",
                    edit("Leave that piece out", ("bias.pieces", kept)),
                )
        if not cut.plan.enough:
            yield _snag(
                plan,
                "edge.bias",
                Weight.BLOCKS,
                f"The pieces give {_read(plan, cut.reaches.value)} of bias, "
                f"{_read(plan, cut.need.value)} are needed",
                "All strips joined, with what the joins take.",
                edit("Cut it from new cloth", ("bias.source", "yardage")),
            )


def _piping(plan: Plan) -> Iterator[Snag]:
    piping = plan.edging.piping
    if piping is None or piping.allowance.value == piping.seam.value:
        return
    wide = piping.allowance.value > piping.seam.value
    yield _snag(
        plan,
        "edge.piping",
        Weight.WARNS,
        f"The piping's allowance is {_read(plan, piping.allowance.value)}, its seam takes "
        f"{_read(plan, piping.seam.value)}",
        f"Sewn edge to edge the cord would {'stand off the seam' if wide else 'hide in it'}.",
        edit("Give it the seam's allowance", ("piping.allowance", None)),
        place=whole(plan.panel(piping.panels[0])),
        panel=piping.panels[0],
    )


def _strap(plan: Plan, strap: StrapPlan) -> Iterator[Snag]:
    choice, part = plan.project.strap, strap.part
    least = CARRIED[plan.project.units].get(choice.carried)
    if part.key == "strap" and least is not None and part.length.value < least[0]:
        yield _snag(
            plan,
            "edge.strap",
            Weight.WARNS,
            f"A strap of {_read(plan, part.length.value)} is short for carrying it so",
            f"From {_read(plan, least[0])} to {_read(plan, least[2])} are usual (common practice).",
            edit(f"Cut it {_read(plan, least[1])}", ("shape.sizes.strap_length", least[1])),
        )
    if slides(choice, part) and strap.longest is None:
        yield _snag(
            plan,
            "edge.strap.back",
            Weight.BLOCKS,
            "The strap is turned back over all of its length",
            f"Turned back {_read(plan, choice.turned_back)} at both ends, nothing is left of "
            f"{_read(plan, part.length.value)} for the slider to run on.",
            edit("Leave the slider out", ("strap.slider", False)),
        )
    if slides(choice, part) and part.ends == "seam":
        yield _snag(
            plan,
            "edge.slider.rings",
            Weight.WARNS,
            "The strap is to slide, and its ends are sewn into the seams",
            "One that slides runs through a ring at either end, its ends turned back; rings hang "
            "on tabs in the side seams.",
            edit("Hang it on rings", on_rings(plan.project.shape)),
            edit("Leave the slider out", ("strap.slider", False)),
        )
    if strap.longest is not None and not strap.slider:
        yield _snag(
            plan,
            "edge.slider",
            Weight.WARNS,
            "The slider would run over a join of the strap",
            "It travels over half of the strap, and at either end there is a join in its way.",
            edit("Make it of webbing", ("strap.made", "webbing")),
            edit("Leave the slider out", ("strap.slider", False)),
        )
    if part.key == "strap" and choice.ring is not None and choice.ring < strap.finished.value:
        yield _snag(
            plan,
            f"edge.ring.{part.key}",
            Weight.WARNS,
            f"A ring of {_read(plan, choice.ring)} is narrower than the {part.label.lower()}",
            f"It ends {_read(plan, strap.finished.value)} wide and would bunch in the ring.",
            edit("Take a ring as wide as it", ("strap.ring", None)),
        )
    if part.ends == "below":
        yield from _below(plan)


def _below(plan: Plan) -> Iterator[Snag]:
    """Handles below the edge: their first seam must clear the binding or the hem."""
    down = plan.sizes["handle_down"].value
    hang = next(one for one in plan.bag.net.hangs if one.key == "handles")
    panel, _, (x, y) = hang.ends[0]
    bound = any(
        edge.finish == "bound" and edge.key.side in ("top", "bottom")
        for edge in plan.bag.panel(panel).edges
    )
    least = FLIPPED + (plan.project.binding.seam if bound else 0)
    if down >= least:
        return
    yield _snag(
        plan,
        "edge.below",
        Weight.WARNS,
        f"{_read(plan, down)} below the edge the handles are sewn into its own stitching",
        f"Their raw ends lie {_read(plan, FLIPPED)} above the seam that holds them: they need "
        f"{_read(plan, least)}.",
        edit(f"Sew them {_read(plan, least)} below", ("shape.sizes.handle_down", least)),
        panel=panel,
        place=Place(float(x), float(y), 0.5, 0.5, "area"),
    )


def _pull(plan: Plan) -> Iterator[Snag]:
    """A loop to hold the bag by belongs where the pull ends up: else the hand pulls it open."""
    choice = plan.project.zipper
    loops = [one for one in plan.bag.net.hangs if one.key == "wrist"]
    if plan.edging.zipper is None or choice.sliders == "two" or not loops:
        return
    side = plan.brief.options["wrist_side"]
    if side == choice.rests:
        return
    panel, _, (x, y) = loops[0].ends[0]
    yield _snag(
        plan,
        "edge.pull",
        Weight.NOTES,
        f"The wrist loop is at the {side}, the closed pull rests at the {choice.rests}",
        "One holds the bag by its loop and pulls away from it to open it (common practice).",
        edit(f"Put the loop at the {choice.rests}", ("shape.options.wrist_side", choice.rests)),
        edit(f"Let the zipper close to the {side}", ("zipper.rests", side)),
        panel=panel,
        place=Place(float(x), float(y), 0.5, 0.5, "area"),
    )


def _metal(plan: Plan) -> Iterator[Snag]:
    """Metal teeth end in a seam: neither needle nor scissors may meet them."""
    zipper = plan.edging.zipper
    if zipper is None or plan.project.zipper.teeth != "metal":
        return
    if zipper.teeth.value <= 0 or plan.project.zipper.ends == "tabs":
        return
    yield _snag(
        plan,
        "edge.metal",
        Weight.BLOCKS,
        f"Metal teeth run {_read(plan, zipper.teeth.value)} into the seams",
        "A needle that meets metal breaks and flies: cover your eyes. Metal zippers are bought to "
        "length, or end between cloth tabs.",
        edit("Put tabs on its ends", ("zipper.ends", "tabs")),
        edit("Take a nylon one", ("zipper.teeth", "nylon")),
    )


def _dear(plan: Plan) -> Iterator[Snag]:
    """A zipper in hand of which a third and more is cut off."""
    zipper, choice = plan.edging.zipper, plan.project.zipper
    if zipper is None or choice.length is None or 3 * zipper.cut_off.value < choice.length:
        return
    over, need = zipper.cut_off.value, zipper.length.value
    yield _snag(
        plan,
        "edge.dear",
        Weight.NOTES,
        f"{_read(plan, over)} of the zipper in hand are cut off",
        f"Of {_read(plan, choice.length)} this bag takes {_read(plan, need)}: one so long is dear, "
        "and another bag may want it.",
        edit("Take the next standard one", ("zipper.length", None)),
    )


CATCH = Fraction(1, 8)  # inches of tape that a seam has to catch at least: common practice


def _tape(plan: Plan) -> Iterator[Snag]:
    """A tape that does not reach from what shows into both seams."""
    zipper, choice = plan.edging.zipper, plan.project.zipper
    if zipper is None or choice.set != "seam" or choice.tape is None:
        return
    if choice.tape >= zipper.wide.value:
        return
    room = choice.tape - choice.shown
    shows = choice.tape - 2 * choice.seam
    fixes = []
    if shows > 0:
        fixes.append(edit(f"Let {_read(plan, shows)} of it show", ("zipper.shown", shows)))
    if room / 2 >= CATCH:
        words = f"Sew it in with a seam of {_read(plan, room / 2)}"
        fixes.append(edit(words, ("zipper.seam", room / 2)))
    missed = room / 2 < CATCH
    yield _snag(
        plan,
        "edge.tape",
        Weight.BLOCKS if missed else Weight.WARNS,
        f"The zipper's tape is {_read(plan, zipper.wide.value - choice.tape)} too narrow",
        f"{_read(plan, choice.shown)} that shows and a seam of {_read(plan, choice.seam)} at each "
        f"side ask for {_read(plan, zipper.wide.value)}: sewn edge on edge, less of it shows.",
        *fixes,
    )


def _on_fold(plan: Plan) -> Iterator[Snag]:
    """A zipper over the top fold, where it could lie on the face: thick, its corners slant."""
    sizes = plan.project.shape.sizes
    on_fold = any(tape.turn for tape in plan.bag.net.tapes)
    if not on_fold or not any(field.key == "zip_drop" for field in plan.shape.fields):
        return
    layers = max(spot.layers for spot in plan.spots_on(plan.shape.leader))
    yield _snag(
        plan,
        "edge.top-fold",
        Weight.NOTES,
        "The zipper on the top fold is thick, and its corners end at a slant",
        f"Both turned edges and both tapes lie there, up to {layers} layers; 1½ in (4 cm) "
        "down the face it lies flat and the corners are square (common practice).",
        edit("Set it on the face", ("shape.sizes", {**sizes, "zip_drop": Fraction(3, 2)})),
    )


_CHANNEL = {
    "round": "Half of its round and a little ask for",
    "flat": "A tape gathers in a channel of its own width: half as wide again is",
}


def _channel(plan: Plan) -> Iterator[Snag]:
    cord = plan.edging.cord
    if cord is None or cord.channel.value >= cord.least.value:
        return
    wide = round_up(cord.least.value, plan.marks.ruler.value)
    yield _snag(
        plan,
        "edge.channel",
        Weight.WARNS,
        f"The cord will not run in a channel of {_read(plan, cord.channel.value)}",
        f"{_CHANNEL[plan.project.cord.kind]} {_read(plan, wide)}.",
        edit(f"Make the channel {_read(plan, wide)}", ("shape.sizes.channel", wide)),
    )
