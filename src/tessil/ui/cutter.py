"""The cutting of a job at the window: all bags' pieces, the plan of the cuts, the cut in hand.

Binds the desk to what the core makes of a job; computes nothing itself.
"""

from __future__ import annotations

import datetime
from collections.abc import Callable
from contextlib import suppress
from typing import TYPE_CHECKING, Any
from uuid import uuid4

from msgspec.structs import replace

from tessil.core.cutting.acts.byhand import (
    Place,
    partners,
    places_for,
    sent,
    spoiled,
    spoiled_words,
    swapped,
    turned,
)
from tessil.core.cutting.acts.shopping import Line, shopping, ware_readings
from tessil.core.cutting.acts.whole import (
    REST,
    Lot,
    Lying,
    Source,
    Spread,
    Spreads,
    lots_of,
    pinned,
    spread_readings,
    spreads_of,
    stored,
    ticked,
)
from tessil.core.cutting.choice import Cutting
from tessil.core.edits import Edit, edit
from tessil.core.memory.same import same
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.rulers import Rulers
from tessil.core.planned import Plan
from tessil.core.reading import Reading
from tessil.core.shelf.acts import (
    kept_for,
    prices_of,
    put_away,
    row_of,
    serving,
    sources_of,
    taken_by_others,
    used_up,
)
from tessil.core.shelf.rows import Keeper
from tessil.core.snags import Stage
from tessil.core.trouble import CannotPlan
from tessil.core.words.money import money_text
from tessil.ui.desk import Desk
from tessil.ui.firstlaid import Asked, FirstLayout
from tessil.ui.shelving import Shelving

if TYPE_CHECKING:
    from tessil.core.costing.acts.bill import Bill
    from tessil.core.costing.prices import PriceList
    from tessil.files.printing import Pages

FIRST = (
    "A first layout. “Plan the cutting” looks for a better one and says how near it is to the best;"
    " the first cut or piece that you change keeps this one."
)


class Cutter:
    """What is cut for the job on the desk."""

    def __init__(self, desk: Desk, shelving: Shelving) -> None:
        self.desk, self.shelving = desk, shelving
        self._asked = (0, 0)
        self._held: tuple[object, ...] = ()  # so that their ids stay theirs
        self._lots: tuple[Lot, ...] = ()
        self._lying: tuple[tuple[Any, ...], tuple[Source, ...]] = ((), ())
        self._read: tuple[Cutting | None, tuple[Lot, ...], Spreads | None] = (None, (), None)
        self.first = FirstLayout(desk)
        self.first.moved.connect(desk.looked)

    @property
    def here(self) -> bool:
        """Whether the cutting is what the bench is about."""
        return self.desk.seen.stage is Stage.CUT

    def lots(self) -> tuple[Lot, ...]:
        """All pieces of the job, cloth by cloth; the same object as long as they are the same."""
        plan, job = self.desk.plan, self.desk.job
        if self._asked != (id(plan), id(job)):
            lots = lots_of(self._plans())
            self._lots = self._lots if same(lots, self._lots) else lots
            self._asked, self._held = (id(plan), id(job)), (plan, job)
        return self._lots

    def _plans(self) -> list[Plan | None]:
        """The plan of every bag of the job; none of one that cannot be planned."""
        made: list[Plan | None] = []
        for at in range(len(self.desk.job.bags)):
            made.append(None)
            with suppress(CannotPlan):
                made[at] = self.desk.plan_of(at)
        return made

    @property
    def planned(self) -> bool:
        """Whether the cutting was planned: before that there is only a first layout."""
        return self.desk.project.cutting is not None

    def spreads(self) -> Spreads | None:
        """The plan of the cuts as it is read today; before one was made, the first layout."""
        cutting, lots = self.desk.project.cutting, self.lots()
        if cutting is None:
            asked = Asked(lots, self.sources(), self.desk.plan.marks, self.desk.project.cut_for)
            cutting, lots = self.first.of(asked) or (None, lots)
        if self._read[0] is not cutting or self._read[1] is not lots:
            found = None if cutting is None else spreads_of(cutting, lots)
            if found is not None and not self.planned:
                found = replace(found, first=True)
            self._read = (cutting, lots, found)
        return self._read[2]

    def on_bench(self, looked: bool) -> Spreads | None:
        """What the bench shows of them; a first layout goes on when the hand that types rests."""
        if not self.here:
            return None
        found = self.spreads()
        if not looked:
            self.first.wait()
        return found

    def whole(self) -> Spreads | None:
        """The same for paper and lists, which do not wait for a first layout."""
        self.spreads()
        self.first.hurry()
        return self.spreads()

    def _kept(self) -> Cutting | None:
        """What is changed by hand: the plan of the cuts, or the first layout, which is that plan
        from then on."""
        self.spreads()
        return self._read[0]

    def spread(self) -> Spread | None:
        """The cloth on the bench."""
        found = self.spreads()
        if found is None or not found.spreads:
            return None
        return found.spreads[min(self.desk.seen.sheet, len(found.spreads) - 1)]

    def sources(self) -> tuple[Source, ...]:
        """What is there to be cut from first; the same object as long as it is the same."""
        project, lots = self.desk.project, self.lots()
        asked = (self.shelving.need(), lots, project.offcuts, project.cut_from, self.keeper)
        if not self._lying[0] or not all(map(same, asked, self._lying[0])):
            self._lying = (asked, self._sources())
        return self._lying[1]

    def _sources(self) -> tuple[Source, ...]:
        project = self.desk.project
        if project.cut_from == "new":
            return ()
        offcuts = tuple(
            Source(f"offcut {at + 1}.{number + 1}", one.material, one.width, one.height)
            for at, one in enumerate(project.offcuts)
            for number in range(one.number)
        )
        return (*offcuts, *sources_of(self.shelving.need(), self.lots(), self.keeper))

    def advice(self) -> list[str]:
        """What is to be known of the plan of the cuts: out of date, or not all of it cut."""
        found = self.spreads() if self.here else None
        if found is None:
            return []
        said = []
        if not self.planned:
            said.append(FIRST)
        elif found.changed:
            said.append("The bags have changed since the cutting was planned: plan it again.")
        for row in taken_by_others(self.shelving.need(), self._used(found), self.keeper):
            said.append(f"{row.name} is kept for {row.kept_for}: plan the cutting again.")
        for want, many in found.over:
            of = f"{many} of {want.number}" if want.number > 1 else "it"
            said.append(f"{want.words}: {of} comes out of no cloth there is.")
        return said

    def _used(self, found: Spreads) -> list[str]:
        """Where the cloths of the plan come from, those that are not counted off yet."""
        return [one.sheet.source for one in found.spreads if not one.sheet.stored]

    @property
    def keeper(self) -> Keeper:
        """The job on the desk, as one for which rows of the shelf are kept."""
        return Keeper(self.desk.project.mark, self.desk.job.title)

    def keep_cloths(self) -> str:
        """What the plan is cut from is kept for this job on the shelf, by a mark of its own: it may
        be renamed."""
        found, shelf = self.spreads(), self.shelving.need()
        if found is None or not self.planned:
            return "Plan the cutting first, at the Cut stage."
        keeper = replace(self.keeper, mark=self.keeper.mark or uuid4().hex[:12])
        after = kept_for(shelf, self._used(found), keeper)
        if after is shelf:
            return "Nothing of the shelf is cut by this plan, or all of it is kept already."
        words = "Keep cloths for this job"
        self.desk.stack.beginMacro(words)
        try:
            sentence = self.desk.attempt(edit(words, ("mark", keeper.mark)))
            if not sentence:
                self.desk.attempt_shelf(after, words)
        finally:
            self.desk.stack.endMacro()
        return sentence or "What this plan is cut from is kept for this job on the shelf."

    def readings(self) -> tuple[Reading, ...]:
        """What to buy for all bags together: cloth where the cutting is planned, all else."""
        if self.desk.seen.leaf.get(Stage.CUT) == "wares":
            from tessil.core.costing.acts.bill import bill_readings

            wares = ware_readings(self._plans(), self.desk.plan.marks.notation)
            return (*wares, *bill_readings(self.bill(), self.spreads() is not None))
        found = self.spreads()
        if found is None or not found.spreads:
            return ()
        return tuple(spread_readings(found, self.desk.plan.marks))

    def whence(self, spread: Spread) -> str:
        """Where a cloth comes from, in words."""
        return self.place_words(spread.sheet.source) if spread.sheet.source else "new cloth"

    def place_words(self, source: str) -> str:
        """Where a piece of cloth comes from, in words."""
        if source.startswith(REST):
            return "what is left of a cloth"
        row = row_of(self.shelving.need(), source)
        if row is None:
            return "left over"
        return f"{row.kind}, {row.place}" if row.place else f"{row.kind} from the shelf"

    def shopping(self) -> tuple[Line, ...]:
        """The whole list of what to buy; cloth only once the cutting is planned."""
        from tessil.core.costing.acts.bill import told_bill

        lines = told_bill(self.bill(), self.say)
        return tuple(replace(line, about=line.about + self._there(line)) for line in lines)

    def _lines(self) -> tuple[Line, ...]:
        found = self.whole()
        spreads = found.spreads if found is not None else ()
        return tuple(shopping(spreads, self._plans(), self.desk.plan.marks.notation))

    def prices(self) -> PriceList:
        """The job's own prices, and the shelf's, for all that its bags take."""
        from tessil.core.costing.acts.bill import QUARTER
        from tessil.core.costing.acts.cost import things_of
        from tessil.core.costing.prices import PriceList

        shelf, known = self.shelving.need(), dict[str, Fraction]()
        for made in self._plans():
            if made is not None:
                known |= prices_of(shelf, (*things_of(made), QUARTER), made)
        return PriceList(self.desk.project.pricing.prices, known)

    def bill(self) -> Bill:
        """What the shopping list comes to."""
        from tessil.core.costing.acts.bill import bill_of

        return bill_of(self._lines(), self.prices(), self.desk.project.pricing.coupon)

    def say(self, value: Fraction) -> str:
        """An amount in the job's currency."""
        return money_text(value, self.desk.project.pricing.currency)

    def take_wares(self) -> str:
        """Zippers, rings, cord and the like that the job takes go from the shelf; a sentence."""
        shelf = self.shelving.need()
        after = used_up(shelf, self._lines())
        if after is shelf:
            return "Nothing of this list lies on the shelf."
        self.desk.attempt_shelf(after, "Take zippers, cord and the like from the shelf")
        return "What lay there of this list is taken from the shelf."

    def _there(self, line: Line) -> str:
        """What of it lies on the shelf."""
        rows = serving(self.shelving.need(), line)
        said = ", ".join(f"{row.number} × {row.name}" for row in rows)
        return f"; on the shelf: {said}" if said else ""

    def on_paper(self) -> Pages | None:
        """The cutting sheet; none before the cutting is planned."""
        found, desk = self.whole(), self.desk
        if found is None or not found.spreads:
            return None
        from tessil.files.cuttingpages import OnPaper, cutting_sheet

        whence = tuple(self.whence(one) for one in found.spreads)
        notation = desk.plan.marks.notation
        lines = self.shopping()
        asked = OnPaper(desk.job.title, found, whence, lines, notation, desk.project.units)
        return cutting_sheet(asked)

    # -- at the bench ---------------------------------------------------------------------

    def turn(self, step: int) -> None:
        """Another cloth on the bench."""
        found = self.spreads()
        if found is not None and found.spreads:
            at = (self.desk.seen.sheet + step) % len(found.spreads)
            self.desk.see(replace(self.desk.seen, sheet=at, laid=-1))

    def take(self, in_hand: bool) -> None:
        """The next cut in hand, or the whole cloth."""
        self.desk.see(replace(self.desk.seen, cut=in_hand))

    def pin(self, on: bool) -> None:
        """The cloth on the bench stays as it is when the rest is planned again."""
        spread, cutting = self.spread(), self._kept()
        if spread is not None and cutting is not None:
            self.desk.attempt(pinned(cutting, spread.at, on))

    def tick(self, step: int) -> str:
        """The next cut is made, or the last one is not; after a cloth's last comes the next that
        is not all cut."""
        spread, cutting = self.spread(), self._kept()
        if spread is None or cutting is None or spread.sheet.stored:
            return ""
        most = len(spread.parting.cuts)
        done = min(max(min(spread.sheet.done, most) + step, 0), most)
        words = "Make a cut" if step > 0 else "Take a cut back"
        sentence = self.desk.attempt(ticked(cutting, spread.at, done, words))
        if not sentence and step > 0 and done == most:
            self._next_open()
        return sentence

    def put_away(self) -> str:
        """What is left of a cloth that is all cut goes on the shelf, and what was used goes from
        it: one step that can be taken back."""
        spread, cutting = self.spread(), self._kept()
        if spread is None or cutting is None or spread.sheet.stored:
            return ""
        if spread.sheet.done < len(spread.parting.cuts):
            return "Not all of its cuts are made."
        shelf = self.shelving.need()
        today = datetime.date.today().isoformat()
        after = self.shelving.with_looks(put_away(shelf, spread, f"left-{uuid4().hex[:8]}", today))
        words = f"Put what is left of {spread.lot.name} on the shelf"
        self.desk.stack.beginMacro(words)
        try:
            sentence = self.desk.attempt(stored(cutting, spread.at, words))
            if not sentence:
                self.desk.attempt_shelf(after, words)
        finally:
            self.desk.stack.endMacro()
        return sentence

    # -- a piece in hand ---------------------------------------------------------------------

    def piece(self) -> Lying | None:
        """The piece in hand on the cloth on the bench."""
        spread, at = self.spread(), self.desk.seen.laid
        return spread.pieces[at] if spread is not None and 0 <= at < len(spread.pieces) else None

    def places(self) -> tuple[Place, ...]:
        """The other cloths that the piece in hand could be cut from."""
        found, spread = self.spreads(), self.spread()
        if found is None or spread is None or self.piece() is None:
            return ()
        return places_for(found, spread, self.sources())

    def turn_piece(self) -> str:
        """The piece in hand lies the other way; a sentence if it cannot."""
        return self._by_hand(
            lambda cutting, _, spread, at, marks: turned(cutting, spread, at, marks)
        )

    def send_piece(self, place: Place) -> str:
        """The piece in hand is cut from another cloth; a sentence if it cannot be."""
        return self._by_hand(
            lambda cutting, found, spread, at, marks: sent(cutting, found, spread, at, place, marks)
        )

    def partners(self) -> tuple[tuple[Spread, int], ...]:
        """The pieces that the one in hand could change places with."""
        found, spread = self.spreads(), self.spread()
        if found is None or spread is None or self.piece() is None:
            return ()
        return partners(found, spread, self.desk.seen.laid)

    def swap_piece(self, other: Spread, number: int) -> str:
        """The piece in hand changes places with another; a sentence if it cannot."""
        return self._by_hand(
            lambda cutting, _, spread, at, marks: swapped(cutting, spread, at, other, number, marks)
        )

    def spoil_piece(self) -> str:
        """The piece in hand was cut wrong: it is cut once more; a sentence that says from where."""
        said = ""

        def work(cutting: Cutting, found: Spreads, spread: Spread, at: int, marks: Rulers) -> Edit:
            nonlocal said
            change, place = spoiled(cutting, found, spread, at, self.sources(), marks)
            said = spoiled_words(spread.pieces[at].want.words, place, marks.notation)
            return change

        return self._by_hand(work) or said

    def _by_hand(self, work: Callable[[Cutting, Spreads, Spread, int, Rulers], Edit]) -> str:
        cutting, found, spread = self._kept(), self.spreads(), self.spread()
        if cutting is None or found is None or spread is None or self.piece() is None:
            return ""
        try:
            change = work(cutting, found, spread, self.desk.seen.laid, self.desk.plan.marks)
        except CannotPlan as trouble:
            return trouble.sentence
        self.desk.see(replace(self.desk.seen, laid=-1))
        return self.desk.attempt(change)

    def _next_open(self) -> None:
        found = self.spreads()
        assert found is not None
        number = len(found.spreads)
        begun = self.desk.seen.sheet
        for more in range(1, number):
            spread = found.spreads[(begun + more) % number]
            if spread.sheet.done < len(spread.parting.cuts):
                self.turn(more)
                return
