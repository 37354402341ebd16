"""What is searched for at the cutting: the plan of the cuts, other ways to buy, the largest bag.

Makes work for a thread of the desk and the cutter; the core does the searching.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from typing import TYPE_CHECKING, TypeVar

from tessil.core.cutting.acts.whole import Source, lots_of, plan_whole
from tessil.core.edits import Edit, edit
from tessil.core.plan import plan
from tessil.core.planned import Plan
from tessil.core.shelf.acts import sources_of
from tessil.ui.cutter import Cutter
from tessil.ui.searches import Watch, Work

if TYPE_CHECKING:
    from tessil.core.cutting.acts.reaching import Among, Planned, Reached
    from tessil.core.cutting.acts.whole import Solve
    from tessil.core.sheets.apart import Apart
    from tessil.core.sheets.search import Told

SECONDS = 8.0
Found = TypeVar("Found")


class CutSearches:
    """The searches of one cutter, by the key of their buttons."""

    def __init__(self, cutter: Cutter) -> None:
        self.cutter, self.desk = cutter, cutter.desk

    def searches(self) -> dict[str, Callable[[], Work]]:
        """What is searched for here, by the key of its button."""
        return {
            "cutting.search": self.plan_work,
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
        sources = tuple(
            sources_of(self.cutter.shelving.need(), lots_of([made]), self.cutter.keeper)
        )

        def search(watch: Watch) -> tuple[Edit, str]:
            if not sources:
                return edit(""), "No cloth of this bag lies on the shelf."
            with _apart() as apart:
                far = lambda share: watch(share, 0)  # noqa: E731
                return tell(find(made, sources, lambda one: plan(one, book), far, apart))

        return search

    def others_work(self) -> Work:
        """What else could be bought, found beside the window; it says so in words."""
        from tessil.core.costing.acts.bill import other_words, others_of

        found, notation = self.cutter.whole(), self.desk.plan.marks.notation
        spreads, prices, say = (
            (found.spreads if found else ()),
            self.cutter.prices(),
            self.cutter.say,
        )

        def search(watch: Watch) -> tuple[Edit, str]:
            told = lambda far: watch(far, 0)  # noqa: E731
            with _apart() as apart:
                others = list(others_of(spreads, prices, notation, told, apart))
            words = [other_words(one, notation, say) for one in others]
            if not spreads:
                return edit(""), "Plan the cutting first: then it is known what cloth is bought."
            return edit(""), "\n".join(words) or "Nothing of this list comes out of fat quarters."

        return search

    def plan_work(self) -> Work:
        """The search for a plan of the cuts, to be run beside the window."""
        lots, sources, marks = self.cutter.lots(), self.cutter.sources(), self.desk.plan.marks
        before, aim = self.desk.project.cutting, self.desk.project.cut_for

        def search(watch: Watch) -> tuple[Edit, str]:
            told = lambda far: watch(far, 0)  # noqa: E731
            with _apart() as apart:  # a search that shares the window's process would hold it up
                made = plan_whole(
                    lots, sources, marks, SECONDS, told=told, before=before, solve=apart, aim=aim
                )
            return edit("Plan the cutting", ("cutting", made)), ""

        return search


def _apart() -> Apart:
    """A process of its own for a search; what it needs is loaded when one is first begun."""
    from tessil.core.sheets.apart import Apart

    return Apart()


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
