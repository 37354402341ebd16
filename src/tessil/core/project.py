"""The document: everything a maker decided and measured, and nothing that follows from it.

Frozen parts.  Lengths are exact inches; a file keeps them as short exact text.
Field checks here are those a field can know alone; what depends on other fields is the
plan's to say.
"""

from __future__ import annotations

from typing import Annotated, Literal, TypeVar

from tessil.core.brief.choice import Base, CornerSchool, Held, Lining, LiningIn, Seams, ShapeChoice
from tessil.core.catalogue.own import OwnMaterial
from tessil.core.catalogue.prints import Print
from tessil.core.costing.choice import Pricing, Sale
from tessil.core.cutting.choice import CutFor, CutFrom, Cutting, Stock
from tessil.core.edges.choice import Bias, Binding, Button, Cord, Piping, Strap, Zipper
from tessil.core.hooping.choice import Hooping
from tessil.core.layout.choice import Rules
from tessil.core.making.choice import Made
from tessil.core.numbers.decided import Decided, checks, none_yet, usual
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.fields import Limits, Longer, Name, Size
from tessil.core.numbers.lengths import Units
from tessil.core.panels.choice import Measured, Oversize, PanelChoices
from tessil.core.piecing.choice import MOST_SCRAPS, Pack, Scrap, SeamTest
from tessil.core.quilting.choice import Machine
from tessil.core.sandwich.choice import Offcut
from tessil.core.trimming.choice import Mark, Snap, Wash
from tessil.core.words.refusals import printable

FORMAT = 14
MOST_BAGS = 999
MOST_IN_A_JOB = 60
Part = TypeVar("Part", bound=Decided)


OfPanels = Annotated[dict[str, Measured], Limits(max_length=60)]
Number = Annotated[str, Limits(pattern="^[1-9][0-9]{0,2}$")]
Copies = Annotated[dict[Number, OfPanels], Limits(max_length=MOST_BAGS)]


class LeftShape(Decided):
    """What was decided and measured for another shape before this one was looked at."""

    shape: ShapeChoice
    panels: Annotated[dict[str, PanelChoices], Limits(max_length=60)] = none_yet()
    measured: OfPanels = none_yet()
    lining: Lining = "drop-in"
    copies: Copies = none_yet()


class Shared(Decided):
    """What all bags of a job have in common: how it is measured, what there is to sew with."""

    mark: Annotated[str, Limits(max_length=40)] = ""  # the job's own, by which its cloths are kept
    units: Units = "inch"
    rounding: Units | None = None  # marks that sizes keep, if not those that are read
    prints: Annotated[tuple[Print, ...], Limits(max_length=60)] = ()
    scraps: Annotated[tuple[Scrap, ...], Limits(max_length=MOST_SCRAPS)] = ()
    seam_test: SeamTest | None = None
    stock: Stock = usual(Stock)
    materials: Annotated[tuple[OwnMaterial, ...], Limits(max_length=60)] = ()
    offcuts: Annotated[tuple[Offcut, ...], Limits(max_length=60)] = ()
    cut_from: CutFrom = "shelf"  # what there is first, or new cloth alone
    cut_for: CutFor = "least"  # what a plan of the cuts is chosen for
    cutting: Cutting | None = None  # of all bags together
    machine: Machine = usual(Machine)
    pricing: Pricing = usual(Pricing)
    first_seams: Seams | None = None  # that a new bag of the job begins with


class OneBag(Decided):
    """One bag of a job: how many of it, and everything chosen and measured for it."""

    id: Annotated[str, Limits(max_length=40)] = ""  # under which its panels stand in the logbook
    name: Name = "New bag"
    bags: int = 1
    shape: ShapeChoice = usual(ShapeChoice)
    hold: Held = usual(Held)
    seams: Seams = usual(Seams)
    corner: CornerSchool = "cut"
    base: Base = usual(Base)
    press_seams: Literal["open", "side"] = "open"  # of the bag itself
    zipper: Zipper = usual(Zipper)
    oversize: Oversize = usual(Oversize)
    hooping: Hooping = usual(Hooping)
    lining: Lining = "drop-in"
    lining_in: LiningIn = "gap"  # how one that is dropped in comes in
    lining_apart: bool = False  # two halves of a lining may be unlike
    turning_gap: Size | None = None
    gap_corners: Size | None = None  # all of the seam but so much from each corner, instead
    lining_shorter: Longer = Fraction(0)
    panels: Annotated[dict[str, PanelChoices], Limits(max_length=60)] = none_yet()
    measured: OfPanels = none_yet()  # of all alike
    copies: Copies = none_yet()  # of single ones, by number
    binding: Binding = usual(Binding)
    bias: Bias = usual(Bias)
    piping: Piping = usual(Piping)
    strap: Strap = usual(Strap)
    cord: Cord = usual(Cord)
    button: Button = usual(Button)
    pack: Pack | None = None
    rules: Rules = usual(Rules)
    marks: Annotated[tuple[Mark, ...], Limits(max_length=40)] = ()
    snap: Snap = usual(Snap)
    wash: Wash = usual(Wash)
    making: Made = usual(Made)
    sale: Sale = usual(Sale)
    settled: Annotated[tuple[str, ...], Limits(max_length=8)] = ()
    left: Annotated[dict[str, LeftShape], Limits(max_length=20)] = none_yet()  # by kind

    @checks("bags")
    @staticmethod
    def _some_bags(value: int) -> int:
        if not 1 <= value <= MOST_BAGS:
            raise ValueError(f"Give a number of bags from 1 to {MOST_BAGS}.")
        return value

    @property
    def log_name(self) -> str:
        """The name under which its measured panels stand in the logbook."""
        return self.id or self.name[:40]


class Project(Shared, OneBag):
    """One bag with what it shares with the others of its job: all that a plan is made of.

    ``nth`` is the single one of the bags made alike that is in hand, 0 for all of them; a file
    does not keep it.
    """

    nth: Annotated[int, Limits(ge=0, le=MOST_BAGS)] = 0

    def got(self, key: str) -> Measured:
        """What was measured of a panel: of the bag in hand, and else of all that are made alike."""
        shared = self.measured.get(key) or usual(Measured)
        own = self.copies.get(str(self.nth), {}).get(key) if self.nth else None
        return shared if own is None else own.over(shared)

    @property
    def made(self) -> int:
        """How many bags are planned: all, or the single one in hand."""
        return 1 if self.nth else self.bags

    def print_of(self, key: str) -> Print:
        """The print of that key, or a plain cloth if the basket has none such."""
        for cloth in self.prints:
            if cloth.key == key:
                return cloth
        # A file may name anything here, also what could not be the key of a print.
        name = printable(key)[:80] or "cloth"
        return Print.model_construct(key=key or "cloth", name=name)


class Job(Decided):
    """The document: bags that are made from one heap of cloth, and that heap."""

    format: Literal[14] = 14
    name: Annotated[str, Limits(max_length=80)] = ""  # of several bags together
    shared: Shared = usual(Shared)
    bags: Annotated[tuple[OneBag, ...], Limits(min_length=1, max_length=MOST_IN_A_JOB)] = (
        usual(OneBag),
    )

    @property
    def title(self) -> str:
        """What the job is called: by its own name, else by its bags."""
        more = len(self.bags) - 1
        return self.name or self.bags[0].name + (f" and {more} more" if more else "")

    def project(self, at: int = 0) -> Project:
        """One of its bags, with what it shares."""
        return Project.model_construct(**dict(self.shared), **dict(self.bags[at]))

    def holding(self, project: Project, at: int = 0) -> Job:
        """The job with one bag as it stands in a project, and what is shared as it stands there."""
        shared, bag = _part(Shared, self.shared, project), _part(OneBag, self.bags[at], project)
        bags = (*self.bags[:at], bag, *self.bags[at + 1 :])
        return self.model_copy(update={"shared": shared, "bags": bags})


def _part(kind: type[Part], before: Part, project: Project) -> Part:
    """A project's part of a kind; the same object as before where nothing of it has changed."""
    values = {name: getattr(project, name) for name in kind.model_fields}
    if all(getattr(before, name) == value for name, value in values.items()):
        return before
    return kind(**values)


def job_of(project: Project, name: str = "") -> Job:
    """A job of one bag."""
    return Job(name=name).holding(project)
