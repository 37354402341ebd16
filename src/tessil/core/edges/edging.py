"""Everything at the edges of a bag: runs, bias, piping, straps, zipper, cord.

Knows the bag model and the choices; what is bound stands in ``binding``.
"""

from __future__ import annotations

from msgspec.structs import replace

from tessil.core.bag.model import Join
from tessil.core.edges.bias import join_cost
from tessil.core.edges.binding import Begin, BindingPlan, EdgeStrip, begin_clear
from tessil.core.edges.choice import Binding
from tessil.core.edges.crosscut import SEAM, BiasCut, Wanted, bias_cuts
from tessil.core.edges.runs import Run, bound_edge, runs_of
from tessil.core.edges.straps import StrapPlan, plan_strap
from tessil.core.edges.task import EdgeTask
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import IN_PER
from tessil.core.numbers.records import Record
from tessil.core.numbers.workings import Basis, Figure, count, given, no_less, total, up_to
from tessil.core.words.names import join_name

PI = given("π", Fraction(355, 113), Basis.GEOMETRY, 0)
EIGHTH = {"inch": Fraction(1, 8), "metric": IN_PER["mm"] * 2}
_STANDARD = {
    "inch": tuple(Fraction(n) for n in (4, 5, 6, 7, 8, 9, 10, 12, 14, 16, 18, 20, 22, 24, 30, 36)),
    "metric": tuple(
        IN_PER["cm"] * n
        for n in (10, 12, 15, 18, 20, 22, 25, 30, 35, 40, 45, 50, 55, 60, 70, 80, 100)
    ),
}
TOPSTITCH = {"inch": Fraction(1, 8), "metric": IN_PER["mm"] * 3}


class PipingPlan(Record, frozen=True):
    """Covered cord for some panels: strip width, its length and the cord's."""

    panels: tuple[str, ...]
    cloth: str
    allowance: Figure
    seam: Figure  # of the seam it goes into
    strip: Figure
    length: Figure
    cord: Figure
    corners: int
    runs: tuple[Run, ...]  # along which it goes
    over: Figure  # more of it on each panel: lapped, or into the seams across

    def on(self, panel: str) -> Figure:
        """How long it is on one panel."""
        return total([run.sewn for run in self.runs if run.panel == panel]) + self.over


class ZipperPlan(Record, frozen=True):
    """The zipper to buy and what is done to it."""

    length: Figure
    buy: Figure
    cut_off: Figure
    tape: Figure | None  # left between the tabs, where there are some
    wide: Figure  # of a tape whose edges lie on the raw edges of the cloth
    teeth: Figure  # that come to lie in seams
    tab: tuple[Figure, Figure] | None  # to cut for each of them: width and length
    sliders: int
    rolled: bool  # bought by the length, without stops and sliders
    topstitch: Figure  # so far from the fold beside it


class CordPlan(Record, frozen=True):
    """The channel a cord takes, and what is chosen for it."""

    thick: Figure
    least: Figure
    channel: Figure
    each: Figure


class Edging(Record, frozen=True):
    """All edges of a bag."""

    runs: tuple[Run, ...]
    bias: tuple[BiasCut, ...]
    piping: PipingPlan | None
    straps: tuple[StrapPlan, ...]
    zipper: ZipperPlan | None
    pull: tuple[Figure, Figure] | None  # strip for a pull tab: length and cut width
    cord: CordPlan | None
    loop: Figure | None  # for a button: cut length of its cord or strip
    begin: Begin | None  # where the binding begins and its joins fall
    inner: tuple[Figure, Figure] | None  # length and cut width of the binding of inner seams

    def runs_on(self, panel: str) -> tuple[Run, ...]:
        """The runs of one panel."""
        return tuple(run for run in self.runs if run.panel == panel)


PULL = (given("pull tab, length", 12, Basis.PRACTICE), given("pull tab, cut", 1, Basis.PRACTICE))


def plan_edging(
    task: EdgeTask, binding: BindingPlan | None, own: tuple[EdgeStrip, ...] = ()
) -> Edging:
    """All of it; raises CannotPlan for sizes that lead nowhere."""
    bag = task.bag
    runs = tuple(_seen_inside(task, run) for panel in bag.panels for run in runs_of(panel))
    piping = _piping(task, runs)
    piped: tuple[Wanted, ...] = ()
    if piping is not None:
        piped = (Wanted("piping", piping.cloth, piping.strip, piping.length),)
    bias = bias_cuts(task, binding, own, piped)
    return Edging(
        runs=runs,
        bias=bias,
        begin=_begin(task, binding, bias),
        piping=piping,
        straps=tuple(plan_strap(task, part) for part in bag.attachments if part.cloth),
        zipper=_zipper(task),
        pull=PULL if task.zipper.pull and bag.zipper is not None else None,
        cord=_cord(task),
        loop=_loop(task),
        inner=_inner(task, runs),
    )


def _seen_inside(task: EdgeTask, run: Run) -> Run:
    """A seam that no dropped-in lining hides is overcast, or bound."""
    if run.finish != "seam" or task.lining == "drop-in":
        return run
    bound = task.binding.inner and task.lining == "quilted-in"
    return replace(run, inside="bound inside" if bound else "overcast")


def _begin(task: EdgeTask, binding: BindingPlan | None, bias: tuple[BiasCut, ...]) -> Begin | None:
    """Joins along the bound edge: of strips on the straight grain, or of those on the bias."""
    if binding is None:
        return None
    if task.binding.grain == "straight":
        return binding.begin
    joins = () if bias[0].tube is not None else bias[0].plan.joined.places(join_cost(float(SEAM)))
    edge, corners = bound_edge(task.bag)
    within = tuple(join for join in joins if join < edge.value)
    return begin_clear(within, corners, float(edge.value))


# -- piping -----------------------------------------------------------------------------


def around_cord(task: EdgeTask) -> Figure:
    """The circumference: measured, or π times the diameter."""
    choice = task.piping
    if choice.around is not None:
        return given("round the cord", choice.around, Basis.MEASURED)
    return (PI * given("cord, thick", choice.cord)).called("round the cord")


def piping_strip(around: Figure, allowance: Figure, units: str) -> Figure:
    """Circumference and two allowances, up to ⅛ in or 2 mm (common practice)."""
    mark = given("⅛ in" if units == "inch" else "2 mm", EIGHTH[units], Basis.PRACTICE)
    return up_to(around + 2 * allowance, mark).called("piping strip, cut")


def _piping(task: EdgeTask, runs: tuple[Run, ...]) -> PipingPlan | None:
    choice = task.piping
    keys = tuple(panel.key for panel in task.bag.panels if panel.key in choice.panels)
    mine = [
        run
        for run in runs
        if run.edge.side in choice.along(run.panel) and run.finish == "seam" and not run.edge.notch
    ]
    keys = tuple(key for key in keys if any(run.panel == key for run in mine))
    if not mine:
        return None
    seam = given("the seam it goes into", mine[0].allowance)
    allowance = seam
    if choice.allowance is not None:
        allowance = given("piping allowance", choice.allowance)
    # Along some sides only, its ends run square into the seams across: half an inch in each.
    each = given("overlap", choice.overlap, Basis.CHOSEN)
    if choice.sides:
        each = given("into the seams across", 1, Basis.PRACTICE)
    pieces = len(keys) * choice.stretches
    over = count("stretches of piping", pieces, Basis.GEOMETRY) * each
    length = (total([run.sewn for run in mine]) + over).called("piping, length")
    return PipingPlan(
        panels=keys,
        cloth=choice.print or task.cloth,
        allowance=allowance.called("piping allowance"),
        seam=seam,
        strip=piping_strip(around_cord(task), allowance, task.marks.units),
        length=length,
        cord=(length + given("to hold on to", 2, Basis.PRACTICE)).called("cord, length"),
        corners=max(len(mine) - pieces, 0),
        runs=tuple(mine),
        over=(count("stretches of it", choice.stretches, Basis.GEOMETRY) * each).called("over"),
    )


# -- zipper and cord --------------------------------------------------------------------------


def _zipper(task: EdgeTask) -> ZipperPlan | None:
    need, choice = task.bag.zipper, task.zipper
    if need is None:
        return None
    length = need.length
    standard = [size for size in _STANDARD[task.units] if size >= length.value]
    rolled = choice.ends == "length" and choice.length is None
    if choice.length is not None:
        buy = given("zipper in hand", choice.length)
    elif rolled:
        over = given("½ in (13 mm) beyond each end", 1, Basis.PRACTICE)
        buy = (need.spans + over).called("zipper, cut off the roll")
    elif standard:
        buy = given("next standard length", standard[0], Basis.PRACTICE).called("zipper to buy")
    else:
        buy = length.called("zipper, off the roll")
    cut = (buy - need.spans).called(f"cut off, past the {'teeth' if need.free else 'seams'}")
    teeth = cut
    if len(need.free) == 2:  # what is over lies inside the seams too, as far as it goes
        none = given("none", 0, Basis.GEOMETRY)
        teeth = no_less(buy - need.between, none).called("beyond the seams")
    wide = given("shows", choice.shown) + 2 * given("zipper seam", choice.seam)
    wide = wide.called("tape, edge to edge")
    tape = tab = None
    if choice.ends == "tabs":
        covers = given("each tab covers", Fraction(1, 2), Basis.PRACTICE)
        tape = (need.between - 2 * covers).called("tape between the tabs")
        tab = _end_tab(task, covers)
    topstitch = given("topstitch from the fold", TOPSTITCH[task.units], Basis.PRACTICE)
    sliders = 2 if choice.sliders == "two" else 1
    return ZipperPlan(length, buy, cut, tape, wide, teeth, tab, sliders, rolled, topstitch)


def _end_tab(task: EdgeTask, covers: Figure) -> tuple[Figure, Figure]:
    """A tab folded over an end of the tape: as wide as the tape and what shows beside it, its two
    halves with a seam each (common practice)."""
    seam = given("zipper seam", task.zipper.seam)
    tape = given("zipper tape, wide", 1, Basis.PRACTICE)
    if task.zipper.tape is not None:
        tape = given("zipper tape, wide", task.zipper.tape)
    wide = tape + 2 * seam
    return wide.called("end tab, width"), (2 * (covers + 2 * seam)).called("end tab, length")


def channel_least(thick: Figure, flat: bool = False) -> Figure:
    """Half the cord's round and ¼ in; for a flat tape half as wide again as it is (common
    practice)."""
    if flat:
        return (Fraction(3, 2) * thick).called("channel, at least")
    room = given("to run in", Fraction(1, 4), Basis.PRACTICE)
    return (PI * thick / 2 + room).called("channel, at least")


def _cord(task: EdgeTask) -> CordPlan | None:
    part = next((part for part in task.bag.attachments if part.key == "cord"), None)
    if part is None:
        return None
    flat = task.cord.kind == "flat"
    thick = given("tape, wide" if flat else "cord, thick", task.cord.thick)
    least = channel_least(thick, flat)
    channel = given("channel", task.channel if task.channel is not None else Fraction(3, 4))
    return CordPlan(thick, least, channel, part.length.called("each cord, length"))


def _loop(task: EdgeTask) -> Figure | None:
    """A loop goes over its button edge first: inside it is as long as the button's girth."""
    choice = task.button
    if not choice.used:
        return None
    girth = 2 * (given("button across", choice.across) + given("its thickness", choice.thick))
    seams = 2 * given("seam", task.top_seam, Basis.CHOSEN)
    return (girth + seams).called("loop, cut length")


def _inner(task: EdgeTask, runs: tuple[Run, ...]) -> tuple[Figure, Figure] | None:
    """Binding of the raw seams inside a bag whose lining is quilted in: each seam and 1 in."""
    if not task.binding.inner or task.lining != "quilted-in":
        return None
    bag, one = task.bag, given("over at its ends", 1, Basis.PRACTICE)
    seams = [
        *(seam for join in bag.joins for seam in _raw_seams(task, join, runs)),
        *bag.raw,
        *(
            (bag.corner or bag.finished[-1]).called(f"box corner {at + 1}")
            for at in range(bag.corners)
        ),
    ]
    if not seams:
        return None
    lengths = [(seam + one).called(seam.label) for seam in seams]
    usual = given("inner binding, usual", Fraction(3, 2), Basis.PRACTICE)
    width = up_to(usual, task.marks.ruler).called("inner binding, cut")
    return total(lengths).called("binding of inner seams"), width


def zip_seams_bound(binding: Binding) -> int:
    """How many of a zipper's two seams are bound where inner seams are: the maker's to say."""
    return {"none": 0, "one": 1, "both": 2}[binding.inner_zip]


def _raw_seams(task: EdgeTask, join: Join, runs: tuple[Run, ...]) -> list[Figure]:
    """The seams that a join leaves raw inside.  Box corners are counted by the bag, since those
    at a zipper have no edges of their own; zipper seams are the maker's to bind or not."""
    if join.kind == "corner":
        return []
    if join.raw is not None:
        return list(join.raw)
    sides = [
        total([run.cut for run in mine]).called(join_name(join.key))
        for refs in (join.one, join.other)
        if (
            mine := [
                run
                for ref in refs
                for run in runs
                if run.panel == ref.panel and run.edge == ref.edge
            ]
        )
    ]
    if join.kind == "zip":
        return sides[: zip_seams_bound(task.binding)] if task.zipper.set == "seam" else []
    return sides[:1]
