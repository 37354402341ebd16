"""From three answers to a first project, with everything else at its usual start; and more bags of
a job: asked for, copied, or brought from another one.

Metric makers start with metric seams and gaps, not with converted inches.  Starting
values are common practice, no source.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Sequence
from itertools import count
from typing import Any, Literal

from msgspec.structs import replace

from tessil.core.brief.choice import Held, Seams, ShapeChoice, Thing
from tessil.core.catalogue.prints import Print, known_as
from tessil.core.edges.choice import Binding, Zipper
from tessil.core.edits import applied, edit
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import IN_PER, Inches, Units
from tessil.core.numbers.records import Record
from tessil.core.panels.choice import Oversize, PanelChoices
from tessil.core.piecing.choice import Piecing
from tessil.core.project import Job, OneBag, Project, Shared, job_of
from tessil.core.quilting.choice import Quilting
from tessil.core.sandwich.choice import Layers, Ply
from tessil.core.shapes import SHAPES
from tessil.core.trouble import CannotPlan

CM = IN_PER["cm"]
_FIRST = (  # key, name, motif, ground, ink
    ("river", "River waves", "waves", "#4f8a8b", "#e9f1ec"),
    ("straw", "Straw check", "checks", "#f1cfa2", "#c79a5b"),
    ("brick", "Brick sprigs", "sprigs", "#c9543b", "#f6c4b0"),
    ("moss", "Moss dots", "dots", "#7aa07c", "#dfe9cf"),
    ("night", "Night leaves", "leaves", "#2e4f75", "#b7cbe0"),
    ("plum", "Plum plain", "plain", "#6b3f57", "#9a6b85"),
    ("oat", "Oat plain", "plain", "#d9cdb8", "#b8a98c"),
)
FIRST_PRINTS = tuple(
    Print.model_construct(key=key, name=name, motif=motif, ground=ground, ink=ink)
    for key, name, motif, ground, ink in _FIRST
)


class Answers(Record, frozen=True):
    """What the first page asks."""

    shape: str = "tote"
    units: Units = "inch"
    name: str = "folder"
    width: Inches = Fraction(9)
    height: Inches = Fraction(12)
    thickness: Inches = Fraction(1)
    count: int = 1
    way: Literal["strips", "whole"] = "strips"
    strips: int = 6
    run: Literal["level", "upright"] = "level"

    def changed(self, key: str, value: Any) -> Answers:
        """One answer changed; turning to metric takes round metric sizes with it."""
        changed = replace(self, **{key: value})
        if key == "units" and value != self.units and _is_start(self):
            metric = value == "metric"
            return replace(
                changed,
                width=23 * CM if metric else Fraction(9),
                height=32 * CM if metric else Fraction(12),
                thickness=3 * CM if metric else Fraction(1),
            )
        return changed


def _is_start(answers: Answers) -> bool:
    sizes = (answers.width, answers.height, answers.thickness)
    return sizes in ((Fraction(9), Fraction(12), Fraction(1)), (23 * CM, 32 * CM, 3 * CM))


def _seams(units: Units) -> Seams:
    if units == "inch":
        return Seams()
    wide = 1 * CM
    return Seams(piecing=CM * 6 / 10, side=wide, bottom=wide, top=wide, corner=wide)


def _prints() -> tuple[str, ...]:
    return tuple(cloth.key for cloth in FIRST_PRINTS[:5])


def _thing(answers: Answers) -> Thing:
    return Thing(
        name=answers.name,
        width=answers.width,
        height=answers.height,
        thickness=answers.thickness,
        count=answers.count,
    )


def _bag_name(answers: Answers) -> str:
    """What the bag is, and what for: ``Tote for folder``."""
    thing = answers.name.strip()
    short = SHAPES[answers.shape].short
    return f"{short} for {thing}"[:76] if thing else short


def first_project(answers: Answers) -> Project:
    """The project that three answers make; raises Refused for an impossible one."""
    metric = answers.units == "metric"
    lead = SHAPES[answers.shape].leader
    outer = PanelChoices(
        piecing=Piecing(
            way=answers.way,
            run=answers.run,
            fixed="count",
            count=answers.strips,
            strip_cut=CM * 6 if metric else Fraction(5, 2),
            prints=_prints(),
        ),
        layers=Layers(plies=(Ply(margin=CM if metric else Fraction(1, 2)),)),
        quilting=Quilting(gap=3 * CM if metric else Fraction(5, 4)),
    )
    lining = PanelChoices(
        piecing=Piecing(way="whole", prints=("oat",)),
        layers=Layers(plies=()),
        quilting=Quilting(pattern="none"),
    )
    panels = {lead: outer}
    if "lining" in SHAPES[answers.shape].uses:
        panels["lining"] = lining
    half = CM if metric else Fraction(1, 2)
    begun = Project(
        name=_bag_name(answers),
        units=answers.units,
        shape=ShapeChoice(kind=answers.shape, way="object"),
        hold=Held(things=(_thing(answers),), ease=half, minded=True),
        seams=_seams(answers.units),
        oversize=Oversize(squaring=CM * 6 / 10 if metric else Fraction(1, 4)),
        zipper=Zipper(seam=CM * 6 / 10, shown=2 * CM) if metric else Zipper(),
        panels=panels,
        prints=FIRST_PRINTS,
        binding=Binding(
            print="plum",
            seam=CM * 6 / 10 if metric else Fraction(1, 4),
            cover=CM * 3 / 10 if metric else Fraction(1, 8),
            overlap=6 * CM if metric else Fraction(5, 2),
        ),
    )
    return applied(begun, edit("", *_in_centimetres(panels))) if metric else begun


# What begins in whole millimetres for whoever measures so, where an inch maker's start is none.
_MILLIMETRES = {
    "base.strip_width": 40,
    "bias.least": 100,
    "button.across": 20,
    "button.thick": 3,
    "cord.thick": 6,
    "oversize.fixed": 20,
    "piping.overlap": 40,
    "snap.offset": 45,
    "stock.straightening": 10,
    "strap.turned_back": 40,
}
_OF_PANELS: Mapping[str, int | tuple[int, ...]] = {
    "piecing.allowance": 3,
    "piecing.heights": (65,),
    "piecing.overhang": 20,
    "piecing.square": 65,
    "piecing.widths": (65, 40),
    "quilting.gap": 30,
    "quilting.offset": 6,
    "quilting.run_off": 10,
}


def _in_centimetres(panels: Iterable[str]) -> Iterator[tuple[str, object]]:
    """The changes that give a first project's other starts round sizes."""
    for path, millimetres in _MILLIMETRES.items():
        yield path, CM * millimetres / 10
    for key in panels:
        for path, many in _OF_PANELS.items():
            sizes = tuple(CM * one / 10 for one in (many if isinstance(many, tuple) else (many,)))
            yield f"panels.{key}.{path}", sizes if isinstance(many, tuple) else sizes[0]


def joining(job: Job, project: Project, mark: str) -> OneBag:
    """A first project's bag as one more of a job: it is sewn of the job's prints, with the seams
    that the job begins with.  ``mark`` is its own, for the logbook."""
    keys = tuple(cloth.key for cloth in job.shared.prints)
    seams = job.shared.first_seams or project.seams
    bag = job_of(project).bags[0]
    panels = {key: _of_prints(choices, keys) for key, choices in bag.panels.items()}
    binding = bag.binding
    if binding.print not in keys:
        binding = binding.model_copy(update={"print": ""})
    return bag.model_copy(
        update={
            "id": mark,
            "name": _free_name(job, bag.name),
            "seams": seams,
            "panels": panels,
            "binding": binding,
        }
    )


def _of_prints(choices: PanelChoices, keys: tuple[str, ...]) -> PanelChoices:
    """Choices whose pieces are laid of the prints there are."""
    asked = choices.piecing.prints
    if all(key in keys for key in asked):
        return choices
    laid = keys[: len(asked)]
    piecing = choices.piecing.model_copy(update={"prints": laid})
    return choices.model_copy(update={"piecing": piecing})


# Fields of a bag in which the key of a print stands.
OF_PRINTS = ("print", "prints", "border_print")


def brought(job: Job, other: Job, marks: Iterator[str]) -> Job:
    """The job with the bags of another, what they are sewn of, and what lies by for them.

    Cloths of one name are one cloth; a cloth whose key another has is given a free one.  ``marks``
    are for bags whose own the job has.  Raises CannotPlan if both have a material of their own
    that is called alike and is not alike, and a validator's error if it is too much.
    """
    shared, more = job.shared, other.shared
    for one in more.materials:
        mine = next((own for own in shared.materials if own.key == one.key), one)
        if mine != one:
            words = f"Both have a material “{one.name}” of their own, and they are not alike"
            raise CannotPlan("materials", f"{words}: call one of them otherwise first.")
    prints, names = list(shared.prints), dict[str, str]()
    for cloth in more.prints:
        same = next((one for one in prints if known_as(one.name) == known_as(cloth.name)), None)
        if same is None:
            same = cloth.model_copy(update={"key": _free_key(prints, cloth.key)})
            prints.append(same)
        names[cloth.key] = same.key
    scraps = [
        one.model_copy(update={"print": names.get(one.print, one.print)}) for one in more.scraps
    ]
    own = [one for one in more.materials if one not in shared.materials]
    made = Shared.model_validate(
        dict(shared)
        | {
            "prints": tuple(prints),
            "scraps": (*shared.scraps, *scraps),
            "offcuts": (*shared.offcuts, *more.offcuts),
            "materials": (*shared.materials, *own),
        }
    )
    after = job.model_copy(update={"shared": made})
    for bag in other.bags:
        taken = {one.id for one in after.bags}
        told = _sewn_of(bag, names).model_copy(
            update={
                "id": next(marks) if bag.id in taken else bag.id,
                "name": _free_name(after, bag.name),
            }
        )
        after = after.model_copy(update={"bags": (*after.bags, told)})
    return Job.model_validate(dict(after))


def _sewn_of(bag: OneBag, names: Mapping[str, str]) -> OneBag:
    """A bag whose prints are called by other keys."""
    if all(old == new for old, new in names.items()):
        return bag

    def said(value: object, field: str = "") -> object:
        if isinstance(value, dict):
            return {key: said(one, str(key)) for key, one in value.items()}
        if isinstance(value, list | tuple):
            return type(value)(said(one, field) for one in value)
        if field in OF_PRINTS and isinstance(value, str):
            return names.get(value, value)
        return value

    return OneBag.model_validate(said(bag.model_dump()))


def _free_key(prints: Sequence[Print], key: str) -> str:
    """A key that no print has: with a number behind it where it is taken."""
    taken = {one.key for one in prints}
    more = (f"{key[:36]}-{number}" for number in count(2))
    return key if key not in taken else next(one for one in more if one not in taken)


def copied(job: Job, at: int, mark: str) -> OneBag:
    """A bag like another of the job, under a name of its own, not yet measured or settled."""
    bag = job.bags[at]
    fresh = {"measured": {}, "copies": {}, "settled": (), "left": {}, "id": mark}
    return bag.model_copy(update={**fresh, "name": _free_name(job, bag.name)})


def _free_name(job: Job, name: str) -> str:
    """A name that no bag of the job has: with a number behind it where it is taken."""
    taken, base = {bag.name for bag in job.bags}, name[:74].rstrip("0123456789").rstrip() or name
    if name not in taken:
        return name
    return next(
        free for number in range(2, len(taken) + 3) if (free := f"{base} {number}") not in taken
    )
