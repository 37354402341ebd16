"""The shelf: rows of cloth, batting, zippers and all else that lies there.

Frozen records of a document of its own.  Must not know files, nor what is cut from it.
"""

from __future__ import annotations

from typing import Annotated, Literal, TypeVar

from tessil.core.catalogue.prints import Print, known_as
from tessil.core.numbers.decided import Decided
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.fields import Bolt, Limits, Name, Room60, Size
from tessil.core.numbers.lengths import Inches
from tessil.core.numbers.records import Record

MOST_ROWS = 20_000
MOST_OF_A_ROW = 9999
MOST_CORNERS = 24  # of an odd scrap
MOST_CLOTHS = 400  # whose looks are known
MOST_LOOK = 160_000  # letters of base64 of a photo here: a shelf has many
Part = TypeVar("Part")
Kind = Literal[
    "yardage",
    "fat quarter",
    "fat eighth",
    "squares",
    "strips",
    "scrap",
    "batting",
    "foam",
    "interfacing",
    "vinyl",
    "web",
    "stabiliser",
    "webbing",
    "cord",
    "zipper",
    "ring",
    "slider",
    "snap",
    "thread",
    "eyelet",
    "button",
    "ribbon",
    "label",
    "patch",
]
# Cloth and what lies flat like it: pieces can be cut from these.
FLAT: tuple[Kind, ...] = (
    "yardage",
    "fat quarter",
    "fat eighth",
    "squares",
    "strips",
    "scrap",
    "batting",
    "foam",
    "interfacing",
    "vinyl",
    "web",
    "stabiliser",
)
LONG: tuple[Kind, ...] = (
    "webbing",
    "cord",
    "zipper",
    "thread",
    "ribbon",
)  # told by their length alone
# Width across and length along as they are sold: common practice, no source; a fat quarter is
# planned an inch short of its 22, and a strip between the selvages.
USUAL: dict[Kind, tuple[Inches, Inches]] = {
    "fat quarter": (Fraction(21), Fraction(18)),
    "fat eighth": (Fraction(21), Fraction(9)),
    "squares": (Fraction(5), Fraction(5)),
    "strips": (Fraction(40), Fraction(5, 2)),
}


class Keeper(Record, frozen=True):
    """A job that may keep rows for itself: its mark, and what it is called."""

    mark: str = ""
    title: str = ""


NOBODY = Keeper()


class Row(Decided):
    """So many alike of one thing: what it is called, how large, where it lies.

    ``width`` runs from selvage to selvage, ``length`` along the cloth; what is sold by its length
    has no width, and what is counted neither.  Of a scrap told by its ``corners`` they are those
    of the largest piece with square corners inside.
    """

    id: Annotated[str, Limits(pattern=r"^[a-z0-9-]{1,40}$")]
    kind: Kind = "scrap"
    name: Name = "cloth"
    width: Size | None = None
    length: Bolt | None = None
    corners: Annotated[tuple[tuple[Room60, Room60], ...], Limits(max_length=MOST_CORNERS)] = ()
    number: Annotated[int, Limits(ge=0, le=MOST_OF_A_ROW)] = 1
    place: Annotated[str, Limits(max_length=80)] = ""
    price: Annotated[float, Limits(ge=0, le=100_000, allow_inf_nan=False)] | None = None
    date: Annotated[str, Limits(max_length=10)] = ""
    note: Annotated[str, Limits(max_length=200)] = ""
    kept_for: Annotated[str, Limits(max_length=80)] = ""  # what its job is called
    kept_by: Annotated[str, Limits(max_length=40)] = ""  # that job's own mark, whatever its name

    def free_for(self, job: Keeper) -> bool:
        """Whether a job may be cut from it: it is kept for none, or for that one."""
        if self.kept_by:
            return self.kept_by == job.mark
        return self.kept_for in ("", job.title)

    @property
    def flat(self) -> bool:
        """Whether pieces can be cut from it."""
        return self.kind in FLAT and self.width is not None and self.length is not None


class Shelf(Decided):
    """All rows, in the order in which they came, and how their cloths look.

    A cloth is known by its name, in large or small letters: all rows of that name are of it.
    """

    rows: Annotated[tuple[Row, ...], Limits(max_length=MOST_ROWS)] = ()
    cloths: Annotated[tuple[Print, ...], Limits(max_length=MOST_CLOTHS)] = ()

    def row(self, id_: str) -> Row | None:
        """The row of that id."""
        return next((row for row in self.rows if row.id == id_), None)

    def having(self, *rows: Row) -> Shelf:
        """The shelf with these rows changed, or put behind the others."""
        new = {row.id: row for row in rows}
        kept = tuple(new.pop(row.id, row) for row in self.rows)
        return self.model_copy(update={"rows": (*kept, *new.values())})

    def without(self, *ids: str) -> Shelf:
        """The shelf without these rows."""
        kept = tuple(row for row in self.rows if row.id not in ids)
        return self.model_copy(update={"rows": kept})

    def cloth(self, name: str) -> Print | None:
        """How the cloth of that name looks, if that is known."""
        wanted = known_as(name)
        return next((one for one in self.cloths if known_as(one.name) == wanted), None)

    def looking(self, cloth: Print) -> Shelf:
        """The shelf with another look of a cloth; where it knows as many as it can, those go of
        which nothing lies there."""
        name = known_as(cloth.name)
        others = tuple(one for one in self.cloths if known_as(one.name) != name)
        if len(others) >= MOST_CLOTHS:
            there = {known_as(row.name) for row in self.rows}
            others = tuple(one for one in others if known_as(one.name) in there)
        return self.model_copy(update={"cloths": (*others, cloth)[-MOST_CLOTHS:]})


NOTHING = Shelf.model_construct()


def merged_shelves(base: Shelf, ours: Shelf, theirs: Shelf) -> Shelf:
    """Their shelf with what we changed since ``base``, row by row and look by look; what both
    changed is ours."""
    if theirs == base:
        return ours
    rows = _merged(*({row.id: row for row in one.rows} for one in (base, ours, theirs)))
    looks = _merged(
        *({known_as(one.name): one for one in of.cloths} for of in (base, ours, theirs))
    )
    return Shelf(rows=tuple(rows)[:MOST_ROWS], cloths=tuple(looks)[-MOST_CLOTHS:])


def _merged(old: dict[str, Part], mine: dict[str, Part], theirs: dict[str, Part]) -> list[Part]:
    """Theirs, one by one, with what is new or otherwise among mine."""
    kept: dict[str, Part] = {}
    for key, one in theirs.items():
        before, now = old.get(key), mine.get(key)
        if before is not None and now is None and one == before:
            continue  # we took it out, and nobody touched it
        kept[key] = one if now is None or now == before else now
    for key, one in mine.items():
        if key not in kept and one != old.get(key):
            kept[key] = one
    return list(kept.values())


def fresh_id(taken: Shelf, mark: str) -> str:
    """An id that no row has: a mark, and a number behind it if it is taken."""
    ids = {row.id for row in taken.rows}
    if mark not in ids:
        return mark
    return next(f"{mark}-{n}" for n in range(2, MOST_ROWS + 3) if f"{mark}-{n}" not in ids)
