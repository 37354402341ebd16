"""Making at the window: the steps of the bag in hand, the one that is looked at, what is done.

Binds the desk to what the core makes of a plan; computes nothing itself.
"""

from __future__ import annotations

from collections.abc import Mapping
from time import monotonic

from msgspec.structs import replace

from tessil.core.bag.deeds import Broken, Deed, Making, Operation, seams_in
from tessil.core.catalogue.prints import Photo
from tessil.core.edits import Edit
from tessil.core.making.acts.batching import batch_words, every, stretches
from tessil.core.making.acts.doing import (
    done,
    giver,
    left_out,
    noted,
    pictured,
    put_before,
    undone,
    waits_for,
    went_wrong,
)
from tessil.core.making.acts.panels import materials_of
from tessil.core.making.acts.state import state_words
from tessil.core.making.acts.telling import told
from tessil.core.making.acts.whole import Standing, making_of, standing
from tessil.core.making.cautions import caution_for
from tessil.core.making.readings import making_readings
from tessil.core.planned import Plan
from tessil.core.reading import Reading
from tessil.core.snags import Stage
from tessil.core.trouble import CannotPlan
from tessil.core.words.making import GATE_WORDS, OPERATION_WORDS, seam_words
from tessil.core.words.mending import mending_words
from tessil.ui.desk import Desk

NONE = Making(())
CAUTIONED: Mapping[Operation, Stage] = {
    "cut": Stage.CUT,
    "piece": Stage.PIECE,
    "layer": Stage.LAYER,
    "quilt": Stage.QUILT,
    "trim": Stage.TRIM,
    "mark": Stage.TRIM,
    "prepare": Stage.EDGE,
    "zipper": Stage.EDGE,
    "assemble": Stage.EDGE,
    "line": Stage.EDGE,
}


_RUNGS: Mapping[Operation, str] = {
    "piece": "pieced",
    "quilt": "quilted",
    "trim": "trimmed",
    "zipper": "assembled",
}


class Maker:
    """How far the bag on the desk is made."""

    def __init__(self, desk: Desk) -> None:
        self.desk = desk
        self._read: tuple[Plan | None, Making] = (None, NONE)
        self._since: float | None = None  # when the clock was started, while it runs
        self._before = 0.0  # seconds of this step before that
        self._timed = 0  # the bag of the job that is timed
        self._warned: set[Stage] = set()  # whose cautions were told in this sitting
        desk.opened.connect(self.stop_clock)

    @property
    def here(self) -> bool:
        """Whether making is what the bench is about."""
        return self.desk.seen.stage is Stage.MAKE

    @property
    def sews(self) -> bool:
        """Whether a step is looked at, and not what time and money say."""
        return self.here and self.desk.seen.leaf.get(Stage.MAKE, "step") in ("step", "bag")

    def making(self) -> Making:
        """The steps of the bag in hand, in their order."""
        plan = self.desk.plan
        if self._read[0] is not plan:
            try:
                made = making_of(plan, plan.project.making)
            except CannotPlan:
                made = NONE
            self._read = (plan, made)
        return self._read[1]

    def standing(self) -> Standing:
        """How it stands by the steps that are done."""
        return standing(self.making(), self.desk.project.making.done)

    def deed(self) -> Deed | None:
        """The step that is looked at: one that was turned to, else the next."""
        return self.making().deed(self.desk.seen.step) or self.standing().next

    def shown(self) -> tuple[Deed | None, frozenset[str] | None]:
        """The step on the bench, and the bag's seams that are sewn."""
        if not self.here:
            return None, None
        return self.deed(), seams_in(self.standing().facts)

    def batch(self) -> str:
        """What of the batch is done together with the step in hand."""
        deed, bags = self.deed(), self.desk.project.made
        if deed is None or bags < 2:
            return ""
        for one in stretches(self.making().deeds):
            if one.holds(deed):
                return batch_words(one, bags)
        return ""

    def state(self) -> tuple[str, ...]:
        """The bag as it is now, in sentences."""
        return tuple(state_words(self.desk.plan, self.standing().facts))

    def measures(self) -> bool:
        """Whether the step asks for a measure."""
        deed = self.deed()
        return deed is not None and (deed.what.endswith(".measure") or deed.what == "trim.cut")

    def rung(self) -> str:
        """The rung of the ladder that the step in hand measures; none where it does not."""
        deed = self.deed()
        return _RUNGS.get(deed.operation, "") if deed is not None and self.measures() else ""

    def place(self) -> int:
        """Which step that is, from 0; behind the last where all are done."""
        deed, deeds = self.deed(), self.making().deeds
        return deeds.index(deed) if deed is not None else len(deeds)

    def is_done(self) -> bool:
        """Whether the step that is looked at is done."""
        deed = self.deed()
        return deed is not None and deed.id in self.desk.project.making.done

    def waits(self) -> list[Broken]:
        """What keeps the step back as the bag stands now."""
        deed = self.deed()
        return [] if deed is None else waits_for(self.making(), self.desk.project.making, deed)

    # -- words --------------------------------------------------------------------------------

    def words(self, deed: Deed) -> tuple[str, str]:
        """What a step is called and what is done in it."""
        return told(self.desk.plan, deed)

    def kind(self, deed: Deed) -> str:
        """Which kind of work a step is, and how far that work is."""
        deeds = [one for one in self.making().deeds if one.operation == deed.operation]
        at, bags = deeds.index(deed) + 1, self.desk.project.made
        each = f", for {every(bags)} before the next" if bags > 1 else ""
        return f"{OPERATION_WORDS[deed.operation]} {at} of {len(deeds)}{each}"

    def with_it(self, deed: Deed) -> str:
        """Seam, length, gap and tool of a step."""
        return seam_words(deed, self.desk.plan.marks.notation)

    def trouble(self) -> str:
        """Why the step is not to be done yet, and what it would cost; nothing where it may be."""
        waits = self.waits()
        gates = [one for one in waits if one.gate in GATE_WORDS]
        if gates:
            more = f" ({len(gates) - 1} more after that.)" if gates[1:] else ""
            return f"Not yet. {' '.join(GATE_WORDS[gates[0].gate])}{more}"
        for one in waits:
            before = giver(self.making(), one.fact)
            if before is not None:
                return f"Not yet. First comes: {self.words(before)[0].lower()}."
        return "Not yet: something before it is left out." if waits else ""

    def concerned(self) -> Stage:
        """The stage whose cautions go with the step; making's own once all are done."""
        deed = self.deed()
        return Stage.MAKE if deed is None else CAUTIONED.get(deed.operation, Stage.MAKE)

    def warning(self) -> str:
        """The cautions of a kind of work that is begun for the first time in this sitting: told
        beside the step itself, and with the figures ever after."""
        stage = self.concerned()
        if self.deed() is None or self.is_done() or stage in self._warned:
            return ""
        return caution_for(stage, materials_of(self.desk.plan))

    def readings(self) -> tuple[Reading, ...]:
        """What it takes, kind of work by kind of work."""
        found = tuple(making_readings(self.making(), self.desk.project.making))
        return found[-1:] if self.desk.seen.leaf.get(Stage.MAKE) == "bag" else found

    # -- deeds --------------------------------------------------------------------------------

    def turn(self, step: int) -> None:
        """Look at another step; nothing is done."""
        deeds = self.making().deeds
        if deeds:
            at = min(max(self.place() + step, 0), len(deeds) - 1)
            self._look(deeds[at], deeds[at].id)

    def to_next(self) -> None:
        """Look at the step whose turn it is."""
        self._look(self.standing().next, "")

    def _look(self, deed: Deed | None, id_: str) -> None:
        """A step on the bench; the ladder is that of its panel, so that a measure goes there."""
        seen = self.desk.seen
        panel = deed.panels[0] if deed is not None and len(deed.panels) == 1 else seen.panel
        self.desk.see(replace(seen, step=id_, panel=panel))

    def do(self) -> str:
        """The step that is looked at is done; the next one is looked at."""
        deed = self.deed()
        if deed is None or self.is_done():
            self.turn(1)
            return ""
        self._warned.add(self.concerned())
        change = done(self.desk.project.making, deed.id, self.elapsed())
        clock = self._before, self._since
        self._before, self._since = 0.0, monotonic() if self.ticks else None
        sentence = self._go(change)
        if sentence:
            self._before, self._since = clock
        return sentence

    def do_next(self) -> str:
        """The step is done by a key in the rhythm of the work: one that a gate keeps back is not,
        that takes a click."""
        if not self.is_done() and (held := self.trouble()):
            return held
        return self.do()

    # -- the clock ------------------------------------------------------------------------------

    @property
    def ticks(self) -> bool:
        """Whether the clock runs for the bag in hand."""
        return self._since is not None and self._timed == self.desk.at

    def elapsed(self) -> float:
        """Seconds of the step in hand; a clock that is set back changes nothing."""
        if self._timed != self.desk.at:
            return 0.0
        return self._before + (0.0 if self._since is None else monotonic() - self._since)

    def toggle_clock(self) -> None:
        """Start the clock, or let it rest."""
        before, runs = self.elapsed(), self.ticks
        self._before, self._since = before, None if runs else monotonic()
        self._timed = self.desk.at

    def stop_clock(self) -> None:
        """No step is being timed."""
        self._before, self._since = 0.0, None

    def take_back(self) -> str:
        """The step that is looked at, or the last that was done, is not done."""
        made = self.desk.project.making
        deed = self.deed()
        here = deed.id if deed is not None and self.is_done() else ""
        there = {one.id for one in self.making().deeds}
        last = here or next((one for one in reversed(made.done) if one in there), "")
        return self._go(undone(made, last)) if last else ""

    def leave_out(self) -> str:
        """The step is not made."""
        deed = self.deed()
        return "" if deed is None else self._go(left_out(self.desk.project.making, deed.id))

    def take_in(self) -> str:
        """All that was left out is to be made again."""
        made = self.desk.project.making
        return self._go(left_out(made, made.skipped[-1], False)) if made.skipped else ""

    def now(self) -> str:
        """The step that is looked at comes next."""
        deed, following = self.deed(), self.standing().next
        if deed is None or following is None or deed.id == following.id or self.is_done():
            return ""
        return self._go(put_before(self.desk.project.making, deed.id, following.id))

    def spoil(self) -> str:
        """The step that is looked at went wrong: it and all that rests on it is to be done again;
        what to do, and what comes with it."""
        deed = self.deed()
        if deed is None or not self.is_done():
            return ""
        change, lost = went_wrong(self.making(), self.desk.project.making, deed.id)
        others = [one for one in lost if one.id != deed.id]
        minutes = sum(float(one.minutes.value) for one in lost if one.minutes is not None)
        said = mending_words(deed.what)
        if others:
            names = ", ".join(dict.fromkeys(self.words(one)[0].lower() for one in others))
            said += f" To be done again with it: {names}. "
        said = f"{said.strip()} About {minutes:.0f} minutes."
        return self._go(change) or said

    def note(self, words: str) -> str:
        """What is to be remembered of the step."""
        deed = self.deed()
        if deed is None:
            return ""
        return self.desk.attempt(noted(self.desk.project.making, deed.id, words.strip()[:400]))

    def pictured(self, photo: Photo) -> Edit:
        """The edit that keeps a photo of the step that is looked at."""
        deed = self.deed()
        return Edit("", ()) if deed is None else pictured(self.desk.project.making, deed.id, photo)

    def _go(self, change: Edit) -> str:
        sentence = self.desk.attempt(change)
        if not sentence:
            self.to_next()
        return sentence
