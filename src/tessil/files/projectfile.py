"""The ``.tessil`` file: reading it without trusting it, writing it without risk.

Knows the file format and disks; must not know windows.  A file is UTF-8 JSON, sorted and
indented, with a ``format`` number.
"""

from __future__ import annotations

import json
import os
import re
from collections import Counter
from collections.abc import Callable, Iterator, Mapping, Sequence
from pathlib import Path
from typing import Any, TypeVar

from tessil.core.numbers.decided import Decided, Refused
from tessil.core.project import FORMAT, Job
from tessil.core.shapes import SHAPES
from tessil.core.trouble import BrokenFile, NewerFile
from tessil.core.trouble import FileTrouble as FileTrouble
from tessil.core.words.refusals import printable, refusal, where_words
from tessil.files.disk import PRIVATE, is_there, reachable, reason, write_whole
from tessil.files.jsontext import written
from tessil.files.pictures import check_pictures

SUFFIX = ".tessil"
LARGEST = 16 * 1024 * 1024
DEEPEST = 40

Document = TypeVar("Document", bound=Decided)
Migration = Callable[[dict[str, Any]], dict[str, Any]]


def _layers_in_order(document: dict[str, Any]) -> dict[str, Any]:
    """Format 3 keeps layers as a list from outside in, not as one batting and one backing."""
    panels = document.get("panels")
    if not isinstance(panels, dict):
        return {**document, "format": 3}
    moved = {}
    for key, choices in panels.items():
        old = choices.get("layers") if isinstance(choices, dict) else None
        if isinstance(old, dict) and old.keys() <= {"batting", "backing", "margin"}:
            margin = {"margin": old["margin"]} if "margin" in old else {}
            names = (old.get("batting", "cotton-batting"), old.get("backing", "none"))
            plies = [{"material": name, **margin} for name in names if name != "none"]
            choices = {**choices, "layers": {"plies": plies}}
        moved[key] = choices
    return {**document, "panels": moved, "format": 3}


# What format 4 said once for its one bag, and format 5 says once for all of them.
_SHARED = (
    "units",
    "rounding",
    "prints",
    "scraps",
    "seam_test",
    "stock",
    "materials",
    "offcuts",
    "machine",
)


def _job_of_one_bag(document: dict[str, Any]) -> dict[str, Any]:
    """Format 5 is a job of bags with what they share."""
    shared = {key: document[key] for key in _SHARED if key in document}
    bag = {key: value for key, value in document.items() if key not in (*_SHARED, "format")}
    return {"format": 5, "shared": shared, "bags": [bag]}


def _flaps_that_passed_over_all(document: dict[str, Any]) -> dict[str, Any]:
    """Format 6 asks what a satchel's flap passes over: it was the whole depth until then.  It also
    has what single ones of the bags made alike measured."""
    bags = document.get("bags")
    if not isinstance(bags, list):
        return {**document, "format": 6}
    return {**document, "format": 6, "bags": [_passing_over(bag) for bag in bags]}


def _passing_over(bag: Any) -> Any:
    shape = bag.get("shape") if isinstance(bag, dict) else None
    if not isinstance(shape, dict) or shape.get("kind") != "satchel":
        return bag
    options = shape.get("options")
    if not isinstance(options, dict):
        options = {}
    return {**bag, "shape": {**shape, "options": {"flap_passes": "whole", **options}}}


# What the hoop, when it was a shape, began with where nothing was typed.
_HOOP_SIZES = {
    "width": "5 in",
    "height": "4 in",
    "panel_width": "23/4 in",
    "panel_height": "9/2 in",
    "handle_at": "1 in",
}


def _hoop_is_a_way(document: dict[str, Any]) -> dict[str, Any]:
    """Format 12 knows the hoop as a way of making panels: the bag in a hoop was a flat pouch."""
    bags = document.get("bags")
    if not isinstance(bags, list):
        return {**document, "format": 12}
    return {**document, "format": 12, "bags": [_on_base(_out_of_the_hoop(bag)) for bag in bags]}


def _on_base(bag: Any) -> Any:
    """A stiffener that was marked on a panel lies on the base now, as large as that is."""
    marks = bag.get("marks") if isinstance(bag, dict) else None
    if not isinstance(marks, list):
        return bag
    kinds = [one.get("kind") if isinstance(one, dict) else None for one in marks]
    gone = ["stiffener", "handle", *(["d-ring"] if _hangs_on_rings(bag) else [])]
    kept = [one for one, kind in zip(marks, kinds, strict=True) if kind not in gone]
    base = {"base": {"stiffener": "fused"}} if "stiffener" in kinds else {}
    plain = [
        {key: value for key, value in one.items() if key != "x2"} if isinstance(one, dict) else one
        for one in kept
    ]
    return {**bag, "marks": plain, **base}


def _hangs_on_rings(bag: dict[str, Any]) -> bool:
    """Whether its strap hangs on rings, whose tabs are the strap's own."""
    shape = bag.get("shape")
    options = shape.get("options") if isinstance(shape, dict) else None
    return isinstance(options, dict) and options.get("strap_ends") == "rings"


def _out_of_the_hoop(bag: Any) -> Any:
    if not isinstance(bag, dict):
        return bag
    left = bag.get("left")
    if isinstance(left, dict) and "hoop" in left:
        old, _ = _as_pouch(left["hoop"])
        others = {key: value for key, value in left.items() if key != "hoop"}
        bag = {**bag, "left": {"flat-pouch": old, **others}}
    made, hooping = _as_pouch(bag)
    return {**made, "hooping": hooping} if hooping else made


def _as_pouch(bag: Any) -> tuple[Any, dict[str, Any]]:
    """A bag in a hoop as the flat pouch it was, its panels on a stabiliser that stays; its hoop."""
    shape = bag.get("shape") if isinstance(bag, dict) else None
    if not isinstance(shape, dict) or shape.get("kind") != "hoop":
        return bag, {}
    options, sizes = (dict(shape.get(key) or {}) for key in ("options", "sizes"))
    hooping = {"hoop": options.pop("hoop", "h-4-4")}
    for key in ("width", "height"):
        if f"hoop_{key}" in sizes:
            hooping[key] = sizes.pop(f"hoop_{key}")
    panels = dict(bag.get("panels") or {})
    for key in {"front", *(key for key in panels if key != "lining")}:
        layers = {**panels.get(key, {}).get("layers", {}), "stabiliser": "cut-away"}
        panels[key] = {**panels.get(key, {}), "layers": layers}
    changed = {**shape, "kind": "flat-pouch", "options": options, "sizes": {**_HOOP_SIZES, **sizes}}
    return {**bag, "shape": changed, "panels": panels}, hooping


def _false_seams_by_choice(document: dict[str, Any]) -> dict[str, Any]:
    """Format 13 leaves the lining of a boxed zip bag to the maker: it was always cut ½ in longer,
    for a false seam."""
    bags = document.get("bags")
    if not isinstance(bags, list):
        return {**document, "format": 13}
    return {**document, "format": 13, "bags": [_with_false_seam(bag) for bag in bags]}


def _with_false_seam(bag: Any) -> Any:
    shape = bag.get("shape") if isinstance(bag, dict) else None
    if not isinstance(shape, dict) or shape.get("kind") != "boxed-zip":
        return bag
    return {**bag, "lining_in": "false-seam", "lining_shorter": "0 in"}


def _begun_in_inches(document: dict[str, Any]) -> dict[str, Any]:
    """Format 14 begins a size that nobody typed at a round length of the maker's own marks: who
    measures in centimetres had inch sizes until then, and keeps them."""
    shared, bags = document.get("shared"), document.get("bags")
    if not isinstance(shared, dict) or not isinstance(bags, list):
        return {**document, "format": 14}
    metric = (shared.get("rounding") or shared.get("units")) == "metric"
    made = [_with_starts(bag) for bag in bags] if metric else bags
    return {**document, "format": 14, "bags": [_steps_by_kind(bag) for bag in made]}


def _with_starts(bag: Any) -> Any:
    shape = bag.get("shape", {}) if isinstance(bag, dict) else None
    if not isinstance(shape, dict):
        return bag
    kind, sizes = shape.get("kind", "tote"), shape.get("sizes") or {}
    if not isinstance(kind, str) or kind not in SHAPES or not isinstance(sizes, dict):
        return bag
    starts = {field.key: f"{field.start} in" for field in SHAPES[kind].fields}
    return {**bag, "shape": {**shape, "sizes": {**starts, **sizes}}}


_NUMBERED = re.compile(r"(?P<prefix>.+)\.(?P<at>\d+)\.(?P<what>[a-z]+\.[a-z-]+)")


def _steps_by_kind(bag: Any) -> Any:
    """A step told by the stages before is known by its kind, no longer by its place in a list: what
    is ticked, noted and timed stays with it."""
    making = bag.get("making") if isinstance(bag, dict) else None
    if not isinstance(making, dict):
        return bag
    ids = {one for value in making.values() for one in _ids_in(value)}
    old = [match for one in ids if (match := _NUMBERED.fullmatch(one))]
    seen: Counter[str] = Counter()
    now: dict[str, str] = {}
    for match in sorted(old, key=lambda match: int(match["at"])):
        name = f"{match['prefix']}.{match['what']}"
        seen[name] += 1
        now[match[0]] = name + (f".{seen[name]}" if seen[name] > 1 else "")
    return {**bag, "making": {key: _by_new_ids(value, now) for key, value in making.items()}}


def _ids_in(value: Any) -> Iterator[str]:
    """The ids of steps: those in lists, and what notes, minutes and photos are kept under."""
    for one in value if isinstance(value, list | dict) else ():
        if isinstance(one, str):
            yield one
        else:
            yield from _ids_in(one)


def _by_new_ids(value: Any, now: Mapping[str, str]) -> Any:
    if isinstance(value, dict):
        return {now.get(key, key): kept for key, kept in value.items()}
    if isinstance(value, list):
        return [
            now.get(one, one) if isinstance(one, str) else _by_new_ids(one, now) for one in value
        ]
    return value


# From a format number to the next: MIGRATIONS[1] makes a format 2 document of a format 1 one.
MIGRATIONS: dict[int, Migration] = {
    # Format 2 only has more to say of piecing, prints and scraps: what was is still right.
    1: lambda document: {**document, "format": 2},
    2: _layers_in_order,
    # Format 4 only has more to say: shapes that were left, and marks that sizes keep.
    3: lambda document: {**document, "format": 4},
    4: _job_of_one_bag,
    5: _flaps_that_passed_over_all,
    # Format 7 only has more to say of the cloth that a bag is to come out of.
    6: lambda document: {**document, "format": 7},
    # Format 8 only has more to say: how the job is cut.
    7: lambda document: {**document, "format": 8},
    # Format 9 only has more to say: what cuts are planned for, what was cut wrong.
    8: lambda document: {**document, "format": 9},
    # Format 10 only has more to say: time and money.
    9: lambda document: {**document, "format": 10},
    # Format 11 knows more ways of carrying a bag; those there were are called as before.
    10: lambda document: {**document, "format": 11},
    11: _hoop_is_a_way,
    12: _false_seams_by_choice,
    13: _begun_in_inches,
}


def to_text(job: Job) -> str:
    """The job as it stands in a file."""
    return written(job.model_dump(mode="json"))


def from_text(text: str, name: str = "This file") -> Job:
    """The job in a file's text; raises FileTrouble with one sentence that says where."""
    if _depth(text) > DEEPEST:
        raise BrokenFile(f"{name} is nested too deeply to be a Tessil project.")
    try:
        data = json.loads(text)
    except json.JSONDecodeError as error:
        raise BrokenFile(
            f"{name} is not a whole Tessil project: it breaks off or goes wrong in line "
            f"{error.lineno}, column {error.colno}."
        ) from None
    except (RecursionError, ValueError):
        raise BrokenFile(f"{name} is not a Tessil project: its contents make no sense.") from None
    return _validated(migrated(data, name), name)


def _depth(text: str) -> int:
    """How deeply brackets nest, counted without parsing; brackets in strings only add."""
    deep = most = 0
    for letter in text:
        if letter in "[{":
            deep += 1
            most = max(most, deep)
        elif letter in "]}":
            deep -= 1
    return most


def migrated(data: Any, name: str) -> dict[str, Any]:
    """A document of any format as one of today's; raises FileTrouble where it has none."""
    if not isinstance(data, dict) or not _is_number(data.get("format")):
        raise BrokenFile(f"{name} is not a Tessil project: it has no format number.")
    if data["format"] > FORMAT:
        raise NewerFile(
            f"{name} was written by a newer Tessil (format {_short(data['format'])}; this one "
            f"reads up to {FORMAT})."
        )
    document: dict[str, Any] = data
    while document["format"] < FORMAT:
        step = MIGRATIONS.get(document["format"])
        if step is None:
            raise BrokenFile(
                f"{name} has a format number that never was: {_short(document['format'])}."
            )
        document = step(document)
    return document


def _short(number: int) -> str:
    return str(number) if abs(number) < 10**6 else "far beyond"


def _is_number(value: Any) -> bool:
    return isinstance(value, int) and not isinstance(value, bool)


def validated(
    model: type[Document], data: dict[str, Any], name: str, hidden: Sequence[str | int] = ()
) -> Document:
    """A document of its kind; raises BrokenFile with the place of the first wrong entry, or
    NewerFile where that is one that this Tessil does not know.  ``hidden`` are steps of the place
    that nobody needs to be told."""
    try:
        return model.model_validate(data)
    except Refused as error:
        first = error.errors()[0]
        where = where_words(_without(first["loc"], hidden))
        if first["type"] == "extra_forbidden":
            raise NewerFile(
                f"{name} was written by a newer Tessil, or changed by hand: this one knows no "
                f"entry “{where}”."
            ) from None
        raise BrokenFile(f"{name} has a wrong entry at {where}: {refusal(first)}") from None


def _without(loc: Sequence[str | int], hidden: Sequence[str | int]) -> Sequence[str | int]:
    rest = list(loc)
    for step in hidden:
        if rest[:1] == [step] and len(rest) > 1:
            rest.pop(0)
    return rest


def _validated(data: dict[str, Any], name: str) -> Job:
    bags = data.get("bags")
    if isinstance(bags, list) and not bags:
        raise BrokenFile(f"{name} is a job without a bag: there is nothing to open.")
    one = isinstance(bags, list) and len(bags) == 1
    job = validated(Job, data, name, ("shared", "bags", 0) if one else ("shared",))
    photos = [(cloth.name, cloth.photo) for cloth in job.shared.prints]
    photos += [(bag.name, photo) for bag in job.bags for photo in bag.making.photos.values()]
    check_pictures(photos, name)
    return _named_apart(job)


def _named_apart(job: Job) -> Job:
    """Bags under names of their own in the logbook, where two would stand under one."""
    seen: set[str] = set()
    bags = []
    for at, bag in enumerate(job.bags, start=1):
        if bag.log_name in seen:
            bag = bag.model_copy(update={"id": f"{bag.log_name[:34]}-{at}"})
        seen.add(bag.log_name)
        bags.append(bag)
    return job if tuple(bags) == job.bags else job.model_copy(update={"bags": tuple(bags)})


def load(path: Path) -> Job:
    """Read a job; raises FileTrouble and changes nothing else."""
    name = f"“{printable(path.name)}”"
    path = reachable(path)
    try:
        if not path.is_file():
            raise FileTrouble(f"{name} is not a file that can be opened.")
        if path.stat().st_size > LARGEST:
            raise FileTrouble(f"{name} is larger than a Tessil project can be (16 MB).")
        raw = path.read_bytes()
    except OSError as error:
        raise FileTrouble(f"{name} cannot be read: {reason(error)}.") from None
    except ValueError:
        raise FileTrouble(f"{name} is not a name that a file can have.") from None
    try:
        text = raw.decode("utf-8")
    except UnicodeDecodeError:
        raise BrokenFile(f"{name} is not a Tessil project: it is not text.") from None
    return from_text(text, name)


def save(job: Job, path: Path) -> None:
    """Write a job so that either the old or the new file is whole; keep one backup.

    Raises FileTrouble, with the old file untouched, if the disk refuses.
    """
    name = f"“{printable(path.name)}”"
    try:
        if is_there(path) and not reachable(path).is_file():
            raise FileTrouble(f"{name} is not a file that can be written to.")
        if is_there(path) and not os.access(reachable(path), os.W_OK):
            raise FileTrouble(f"{name} is read-only: save it under another name.")
        write_whole(path, to_text(job).encode("utf-8"), backup=True)
    except OSError as error:
        raise FileTrouble(f"{name} could not be saved: {reason(error)}.") from None


def state_on_disk(path: Path) -> str:
    """What stands in a file, as a fingerprint; nothing where there is no file to read."""
    import hashlib  # with all its kinds it takes longer to load than to use

    try:
        return hashlib.sha256(reachable(path).read_bytes()).hexdigest()
    except (OSError, ValueError):
        return ""


# By which a document of any format is known: of one bag, of a job.
_MARKS = ({"format", "shape", "hold"}, {"format", "shared", "bags"})


def is_project(path: Path) -> bool:
    """Whether a project stands there, by its name or by what is in it."""
    if path.suffix.lower() == SUFFIX:
        return is_there(path)
    try:
        if not path.is_file() or path.stat().st_size > LARGEST:
            return False
        data = json.loads(path.read_bytes())
    except (OSError, ValueError, RecursionError):
        return False
    return isinstance(data, dict) and any(keys <= data.keys() for keys in _MARKS)


def write_export(path: Path, data: bytes) -> None:
    """Write something made from a project, whole or not at all; raises FileTrouble.

    A project is never written over so, not even one of another name.
    """
    name = f"“{printable(path.name)}”"
    if is_project(path):
        raise FileTrouble(f"{name} is a Tessil project: give this another name.")
    try:
        if is_there(path) and not reachable(path).is_file():
            raise FileTrouble(f"{name} is not a file that can be written to.")
        write_whole(path, data)
    except OSError as error:
        raise FileTrouble(f"{name} could not be written: {reason(error)}.") from None


def write_quickly(path: Path, text: str, wait: bool = True) -> None:
    """A whole write for Tessil's own files, which only their owner reads; raises OSError.

    What is written at every moment's rest does not ``wait`` for the disk."""
    path.parent.mkdir(parents=True, exist_ok=True)
    write_whole(path, text.encode("utf-8"), PRIVATE, wait=wait)


def schema() -> dict[str, Any]:
    """The JSON Schema of the file format."""
    made = Job.model_json_schema(mode="serialization")
    made["$schema"] = "https://json-schema.org/draft/2020-12/schema"
    made["title"] = "Tessil project"
    return made
