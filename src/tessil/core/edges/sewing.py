"""How an edge is sewn, step by step, as it is chosen.  Common practice, no source."""

from __future__ import annotations

from collections.abc import Iterator

from tessil.core.bag.steps import Do, Step, one_by_one
from tessil.core.edges.binding import BindingPlan, EdgeStrip
from tessil.core.edges.edging import Edging
from tessil.core.edges.task import EdgeTask

FLAP_BOUND = "bind.flap"  # before it is sewn on; all other binding comes at the end


def edge_steps(
    task: EdgeTask, binding: BindingPlan | None, edging: Edging, strips: tuple[EdgeStrip, ...] = ()
) -> dict[str, tuple[Step, ...]]:
    """The steps of each leaf of the edge stage; none where there is nothing to sew."""
    leaves = {
        "binding": (*_folded(task, binding, strips), *_own(task, strips), *_binding(task, binding)),
        "bias": _bias(edging),
        "piping": _piping(task, edging),
        "straps": _straps(task, edging),
        "closing": _closing(task, edging),
    }
    return {leaf: one_by_one(leaf, (), tuple(deeds)) for leaf, deeds in leaves.items()}


def _folded(
    task: EdgeTask, binding: BindingPlan | None, strips: tuple[EdgeStrip, ...]
) -> Iterator[Do]:
    """What is done to every strip before one is sewn on; a flap's and a zipper's have their own
    place in the order."""
    own = [s for s in strips if s.cut is not None and s.edge.key not in ("flap", "zipper")]
    if binding is None and not own:
        return
    if binding is not None and binding.joins.whole and task.binding.grain == "straight":
        yield Do("bind.join")
    yield Do("bind.fold" if task.binding.fold == "double" else "bind.press-under")


def _binding(task: EdgeTask, binding: BindingPlan | None) -> Iterator[Do]:
    choice = task.binding
    if binding is None:
        return
    yield Do(f"bind.sew-{choice.first}", {"seam": choice.seam})
    if task.bag.loop:
        yield _ending(task, binding)
    elif choice.corners == "mitred":
        yield Do("bind.mitre", {"seam": choice.seam})
    else:
        yield Do("bind.butt")
    then = "back" if choice.first == "front" else "front"
    yield Do(f"bind.turn-{then}{'-hand' if choice.sewn == 'hand' else ''}")


def _own(task: EdgeTask, strips: tuple[EdgeStrip, ...]) -> Iterator[Do]:
    """Sides that are bound by themselves, before the edge that goes over their ends."""
    for strip in strips:
        if strip.edge.key == "zipper":
            continue
        if strip.edge.key == "flap":
            yield Do(FLAP_BOUND, {"what": strip.edge.label, "seam": task.binding.seam})
            continue
        yield Do("bind.own", {"what": strip.edge.label, "seam": task.binding.seam})
        if strip.edge.corners:
            yield Do("bind.mitre", {"seam": task.binding.seam})


def _ending(task: EdgeTask, binding: BindingPlan) -> Do:
    if task.binding.ending == "tuck":
        return Do("bind.tuck", {"over": task.binding.overlap})
    return Do("bind.join-ends", {"cut": binding.cut.value})


def _bias(edging: Edging) -> Iterator[Do]:
    if any(cut.tube is not None for cut in edging.bias):
        yield Do("bias.tube")
        yield Do("bias.tube-cut")
    elif edging.bias:
        yield Do("bias.join")
        yield Do("bias.press")


def _piping(task: EdgeTask, edging: Edging) -> Iterator[Do]:
    piping = edging.piping
    if piping is None:
        return
    yield Do("pipe.cover")
    yield Do("pipe.trim", {"seam": piping.allowance.value})
    if piping.corners:
        yield Do("pipe.corners", {"number": piping.corners})
    if task.piping.sides:
        yield Do("pipe.into-seams")
    else:
        yield Do("pipe.ends", {"over": task.piping.overlap})


def _straps(task: EdgeTask, edging: Edging) -> Iterator[Do]:
    if not edging.straps:
        return
    if any(strap.joins.whole for strap in edging.straps):
        yield Do(f"strap.join-{task.strap.joins}")
    if task.strap.made == "cloth":
        if any(strap.interfacing is not None for strap in edging.straps):
            yield Do("strap.fuse")
        yield Do("strap.fold")
    elif task.strap.made == "covered" and any(strap.strip is not None for strap in edging.straps):
        yield Do("strap.cover")
    elif task.strap.made == "underside":
        yield Do("strap.underside")
    how = {strap.part.ends for strap in edging.straps}
    if "tied" in how:
        yield Do("strap.hem")
    yield Do("strap.check")
    if any(strap.patch is not None for strap in edging.straps):
        yield Do("strap.patch")
    slides = any(strap.longest is not None for strap in edging.straps)
    if slides:
        ends = {strap.slider for strap in edging.straps if strap.joins.whole}
        if ends and "" not in ends:
            yield Do(f"strap.slider-{ends.pop()}")
        yield Do("strap.thread")
    if slides or "ring" in how:
        yield Do("strap.ends", {"back": task.strap.turned_back})


def _set(task: EdgeTask) -> Iterator[Do]:
    """A zipper that no seam takes: under edges that are bound, or lapped over."""
    if task.zipper.set == "bound":
        yield Do("zip.bind-edges", {"seam": task.binding.seam})
        yield Do("zip.under-bound")
    elif task.zipper.set == "lapped":
        yield Do("zip.lap-tape")


def _stops(task: EdgeTask) -> Iterator[Do]:
    """Teeth that begin or end inside the seams at their ends."""
    need = task.bag.zipper
    if need is not None and need.inside is not None and need.free:
        where = "both" if len(need.free) > 1 else need.free[0]
        left, right = (room.value for room in need.inside)
        yield Do(f"zip.stops-{where}", {"left": left, "right": right})


def _closing(task: EdgeTask, edging: Edging) -> Iterator[Do]:
    zipper = edging.zipper
    if zipper is not None:
        if zipper.tape is not None:
            yield Do("zip.end-tabs", {"tape": zipper.tape.value})
        yield from _set(task)
        if zipper.rolled:
            yield Do("zip.sliders-on")
        yield from _stops(task)
        yield Do("zip.two-sliders" if zipper.sliders == 2 else "zip.one-slider")
        if any(part.key == "wrist" for part in task.bag.attachments):
            yield Do("zip.by-the-loop")
        if task.zipper.set == "seam":  # else there is no fold beside it
            yield Do("zip.topstitch", {"off": zipper.topstitch.value})
        yield Do("zip.pull")
        if edging.pull is not None:
            yield Do("zip.pull-tab")
    if edging.cord is not None:
        yield Do("cord.eyelets" if task.bag.eyelets else "cord.open")
        two = sum(part.number for part in task.bag.attachments if part.key == "cord") > 1
        yield Do("cord.thread" if two else "cord.thread-one")
    if edging.loop is not None:
        yield Do("loop.make")
        yield Do("loop.baste")
        yield Do("loop.button")
