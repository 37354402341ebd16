"""How an edge is sewn, step by step, as it is chosen.  Common practice, no source."""

from __future__ import annotations

from collections.abc import Iterator
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from tessil.core.planned import Plan


def edge_steps(plan: Plan, leaf: str) -> tuple[str, ...]:
    """Sentences for one leaf of the edge stage; none where there is nothing to sew."""
    tell = {
        "binding": _binding,
        "bias": _bias,
        "piping": _piping,
        "straps": _straps,
        "closing": _closing,
    }.get(leaf)
    return tuple(tell(plan)) if tell is not None else ()


def _binding(plan: Plan) -> Iterator[str]:
    binding, choice = plan.binding, plan.project.binding
    if binding is None:
        return
    read = plan.marks.notation.read_off
    if binding.joins.whole and choice.grain == "straight":
        yield "Join the strips on the diagonal, trim to ¼, press open."
    if choice.fold == "double":
        yield "Press it in half along its length, wrong sides in."
    else:
        yield "Press one long edge under by the width of the seam."
    first, then = ("front", "back") if choice.first == "front" else ("back", "front")
    yield (
        f"Sew its raw edges to the {first}, {read(choice.seam)} from the edge; begin where the "
        "drawing says, its first inches left loose."
    )
    if plan.bag.loop:
        yield _ending(plan)
    elif choice.corners == "mitred":
        yield (
            f"At each corner stop {read(choice.seam)} before it, fold the strip up and down "
            "again, go on from the edge."
        )
    else:
        yield "Bind two opposite sides, trim, then the other two with their ends turned in."
    hand = choice.sewn == "hand"
    finish = "slip-stitch it by hand" if hand else "clip it and topstitch close to its fold"
    yield f"Turn it over to the {then}, over the stitching, and {finish}."


def _ending(plan: Plan) -> str:
    read = plan.marks.notation.read_off
    if plan.project.binding.ending == "tuck":
        over = read(plan.project.binding.overlap)
        return f"Press the first end under by ½; lay the last one {over} into it."
    assert plan.binding is not None
    cut = read(plan.binding.cut.value)
    return f"Let the ends overlap by the strip's width, {cut}, and join them on the diagonal."


def _bias(plan: Plan) -> Iterator[str]:
    for cut in plan.edging.bias:
        if cut.tube is not None:
            yield "Cut the square on its diagonal; sew two straight edges together, ¼ seam."
            yield "Mark the lines, sew the slanted ends to a tube with 1 on 1, cut along the line."
            return
    if plan.edging.bias:
        yield (
            "Join in the order of the numbers, ends crossing at right angles, ¼ seam; a strip "
            "that is turned goes the other way round."
        )
        yield "Do not pull bias while it is pressed."


def _piping(plan: Plan) -> Iterator[str]:
    piping = plan.edging.piping
    if piping is None:
        return
    read = plan.marks.notation.read_off
    yield "Fold the strip round the cord and baste close to it, not tight against it."
    yield f"Trim its allowance to {read(piping.allowance.value)}, as the seam's."
    if piping.corners:
        yield (
            f"Baste it to the right side; at its {piping.corners} corners clip the allowance "
            "up to the stitching, on curves every ½."
        )
    over = read(plan.project.piping.overlap)
    yield f"Where the ends meet: cord cut butt, the strip lapped by {over} with its end turned in."


def _straps(plan: Plan) -> Iterator[str]:
    if not plan.edging.straps:
        return
    back = plan.marks.notation.read_off(plan.project.strap.turned_back)
    if plan.project.strap.made == "cloth":
        yield (
            "Press the strip in half, both edges to that fold, and in half again; topstitch "
            "both long sides."
        )
    yield f"Turn {back} back at each end and sew a box with a cross, three times over."
    yield "Mind that it is not twisted before the second end is sewn; hang a load on it and wait."
    if plan.project.strap.slider:
        ends = {strap.slider for strap in plan.edging.straps if strap.joins.whole}
        if ends and "" not in ends:
            yield f"The slider goes to the {ends.pop()} strip's end, away from the join."
        yield "Thread it through the slider, a ring, and the slider again before that end is sewn."


def _closing(plan: Plan) -> Iterator[str]:
    zipper = plan.edging.zipper
    if zipper is not None:
        read = plan.marks.notation.read_off
        meet = (
            "the two sliders meet in the middle"
            if zipper.sliders == 2
            else ("it opens away from the end where the pull rests, on the wrist strap's side")
        )
        yield f"Teeth towards the right side; closed, {meet}."
        yield (
            f"Topstitch {read(zipper.topstitch.value)} from the fold; open it half before the "
            "last seam."
        )
        yield "Bring the pull inside before anything is trimmed across the teeth."
    if plan.edging.cord is not None:
        yield "Leave the side seams open between the channel's lines; bar-tack both ends of each."
        yield "Thread each cord once round and out at its own side; knot its ends together."
    if plan.edging.loop is not None:
        yield "Baste the loop to the back's middle, its fold towards the inside; test the button."
