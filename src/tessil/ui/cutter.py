"""The cutting of a job at the window: all bags' pieces, the plan of the cuts, the cut in hand.

Binds the desk to what the core makes of a job; computes nothing itself.
"""

from __future__ import annotations

import datetime
from collections.abc import Callable, Iterator, Sequence
from contextlib import suppress
from typing import TYPE_CHECKING, TypeVar
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
    plan_whole,
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
from tessil.core.plan import plan
from tessil.core.planned import Plan
from tessil.core.reading import Reading
from tessil.core.sheets.apart import Apart
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
from tessil.ui.searches import Watch, Work
from tessil.ui.shelving import Shelving

if TYPE_CHECKING:
    from tessil.core.costing.acts.bill import Bill
    from tessil.core.costing.prices import PriceList
    from tessil.core.cutting.acts.reaching import Among, Planned, Reached
    from tessil.core.cutting.acts.whole import Solve
    from tessil.core.sheets.search import Told
    from tessil.files.printing import Pages

SECONDS = 8.0
Found = TypeVar("Found")


def _among(every: Sequence[Among], size: Callable[..., str]) -> Iterator[str]:
    """The largest bags side by side, what runs out, and the shapes of which none comes out."""
    found = [(one.name, one.found) for one in every if one.found.sizes]
    limits = {bag.limit for _, bag in found if bag.limit}
    for name, bag in found:
        out = f" ({bag.limit} runs out)" if len(limits) > 1 and bag.limit else ""
        yield f"{name}: {size(*bag.sizes)}{out}"
    if len(limits) == 1:
        yield f"{limits.pop()} runs out first."
    none = [one.name.lower() for one in every if not one.found.sizes]
    if none:
        yield f"Not even a small one: {', '.join(none)}."


class Cutter:
    """What is cut for the job on the desk."""

    def __init__(self, desk: Desk, shelving: Shelving) -> None:
        self.desk, self.shelving = desk, shelving
        self._asked = (0, 0)
        self._held: tuple[object, ...] = ()  # so that their ids stay theirs
        self._lots: tuple[Lot, ...] = ()
        self._read: tuple[Cutting | None, tuple[Lot, ...], Spreads | None] = (None, (), None)

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

    def spreads(self) -> Spreads | None:
        """The plan of the cuts as it is read today, if one was made."""
        cutting, lots = self.desk.project.cutting, self.lots()
        if self._read[0] is not cutting or self._read[1] is not lots:
            found = None if cutting is None else spreads_of(cutting, lots)
            self._read = (cutting, lots, found)
        return self._read[2]

    def spread(self) -> Spread | None:
        """The cloth on the bench."""
        found = self.spreads()
        if found is None or not found.spreads:
            return None
        return found.spreads[min(self.desk.seen.sheet, len(found.spreads) - 1)]

    def work(self) -> Work:
        """The search for a plan of the cuts, to be run beside the window."""
        lots, sources, marks = self.lots(), self.sources(), self.desk.plan.marks
        before, aim = self.desk.project.cutting, self.desk.project.cut_for

        def search(watch: Watch) -> tuple[Edit, str]:
            told = lambda far: watch(far, 0)  # noqa: E731
            with Apart() as apart:  # a search that shares the window's process would hold it up
                made = plan_whole(
                    lots, sources, marks, SECONDS, told=told, before=before, solve=apart, aim=aim
                )
            return edit("Plan the cutting", ("cutting", made)), ""

        return search

    def sources(self) -> tuple[Source, ...]:
        """What is there to be cut from first."""
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
        if found.changed:
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
        if found is None:
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
        found = self.spreads()
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

    def searches(self) -> dict[str, Callable[[], Work]]:
        """What is searched for here, by the key of its button."""
        return {
            "cutting.search": self.work,
            "others.search": self.others_work,
            "reach.search": self.reach_work,
            "reach.compare": self.compare_work,
        }

    def reach_work(self) -> Work:
        """The largest bag of which every part comes out of the shelf's cloths."""
        from tessil.core.cutting.acts.reaching import largest_bag

        size = self.desk.plan.marks.notation.size

        def told(found: Reached) -> tuple[Edit, str]:
            if not found.sizes:
                nothing = "Not even a small bag comes out of what lies on the shelf"
                return edit(""), f"{nothing}: it fails at {found.limit}."
            why = f"; more does not come out of {found.limit}" if found.limit else ""
            return found.edit, f"The largest found: {size(*found.sizes)}{why}."

        return self._from_the_shelf(largest_bag, told)

    def compare_work(self) -> Work:
        """The largest bag of each shape from the shelf's cloths, told side by side."""
        from tessil.core.cutting.acts.reaching import largest_of_each

        size = self.desk.plan.marks.notation.size
        return self._from_the_shelf(
            largest_of_each, lambda every: (edit(""), "\n".join(_among(every, size)))
        )

    def _from_the_shelf(
        self,
        find: Callable[[Plan, tuple[Source, ...], Planned, Told, Solve], Found],
        tell: Callable[[Found], tuple[Edit, str]],
    ) -> Work:
        """A search over bags made of the cloths of this one that lie on the shelf."""
        made, book = self.desk.plan, self.desk.book
        sources = tuple(sources_of(self.shelving.need(), lots_of([made]), self.keeper))

        def search(watch: Watch) -> tuple[Edit, str]:
            if not sources:
                return edit(""), "No cloth of this bag lies on the shelf."
            with Apart() as apart:
                far = lambda share: watch(share, 0)  # noqa: E731
                return tell(find(made, sources, lambda one: plan(one, book), far, apart))

        return search

    def others_work(self) -> Work:
        """What else could be bought, found beside the window; it says so in words."""
        from tessil.core.costing.acts.bill import other_words, others_of

        found, notation = self.spreads(), self.desk.plan.marks.notation
        spreads, prices, say = (found.spreads if found else ()), self.prices(), self.say

        def search(watch: Watch) -> tuple[Edit, str]:
            told = lambda far: watch(far, 0)  # noqa: E731
            with Apart() as apart:
                others = list(others_of(spreads, prices, notation, told, apart))
            words = [other_words(one, notation, say) for one in others]
            if not spreads:
                return edit(""), "Plan the cutting first: then it is known what cloth is bought."
            return edit(""), "\n".join(words) or "Nothing of this list comes out of fat quarters."

        return search

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
        found, desk = self.spreads(), self.desk
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
        spread, cutting = self.spread(), self.desk.project.cutting
        if spread is not None and cutting is not None:
            self.desk.attempt(pinned(cutting, spread.at, on))

    def tick(self, step: int) -> str:
        """The next cut is made, or the last one is not; after a cloth's last comes the next that
        is not all cut."""
        spread, cutting = self.spread(), self.desk.project.cutting
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
        spread, cutting = self.spread(), self.desk.project.cutting
        if spread is None or cutting is None or spread.sheet.stored:
            return ""
        if spread.sheet.done < len(spread.parting.cuts):
            return "Not all of its cuts are made."
        shelf = self.shelving.need()
        today = datetime.date.today().isoformat()
        after = put_away(shelf, spread, f"left-{uuid4().hex[:8]}", today)
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
        cutting, found, spread = self.desk.project.cutting, self.spreads(), self.spread()
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
