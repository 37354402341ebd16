"""A cutting job as JSON, and its answer: described in docs/cutting-job.md and its schema."""

from __future__ import annotations

import json
from math import ceil
from pathlib import Path
from typing import Annotated, Any, ClassVar, Literal

from tessil.core.numbers.decided import Decided
from tessil.core.numbers.exact import Fraction, fraction_of
from tessil.core.numbers.fields import Limits
from tessil.core.sheets.job import Aim, Answer, Cut, CutJob, Piece, Stock
from tessil.core.trouble import BrokenFile, FileTrouble
from tessil.core.words.refusals import printable
from tessil.files.disk import reason
from tessil.files.projectfile import validated

LARGEST = 16 * 1024 * 1024
MOST_PIECES = 10_000
LONGEST = 1_000_000.0  # in the job's own unit
Size = Annotated[float, Limits(gt=0, le=LONGEST, allow_inf_nan=False)]
Named = Annotated[str, Limits(min_length=1, max_length=120)]


class _Part(Decided):
    model_config: ClassVar[dict[str, Any]] = {"extra": "ignore"}


class PieceEntry(_Part):
    """Pieces alike: ``w`` across the cloth and ``h`` along it, ``qty`` of them."""

    id: Named
    label: str = ""
    w: Size
    h: Size
    qty: Annotated[int, Limits(ge=1, le=MOST_PIECES)] = 1
    print: str = ""
    turn: bool = True


class StockEntry(_Part):
    """Yardage of width ``w``, or a piece of cloth ``w`` by ``h``."""

    id: Named
    kind: Literal["yardage", "fat_quarter", "scrap"]
    print: str = ""
    w: Size
    h: Size | None = None
    trim: Annotated[float, Limits(ge=0, le=LONGEST)] = 0.0
    step: Size | None = None


class JobEntry(_Part):
    """A job: what there is, what is wanted, and the unit of all lengths."""

    unit: Literal["in", "cm", "mm"] = "in"
    stock: Annotated[tuple[StockEntry, ...], Limits(max_length=2000)]
    pieces: Annotated[tuple[PieceEntry, ...], Limits(max_length=MOST_PIECES)]
    aim: Aim = "least"


def load_job(path: Path) -> CutJob:
    """Read a job; raises FileTrouble with a sentence that says where."""
    name = f"“{printable(path.name)}”"
    try:
        if path.stat().st_size > LARGEST:
            raise FileTrouble(f"{name} is larger than a cutting job can be (16 MB).")
        data = json.loads(path.read_bytes())
    except OSError as error:
        raise FileTrouble(f"{name} cannot be read: {reason(error)}.") from None
    except (ValueError, RecursionError):
        raise BrokenFile(f"{name} is not a cutting job: its contents make no sense.") from None
    if not isinstance(data, dict):
        raise BrokenFile(f"{name} is not a cutting job: it has no pieces.")
    return _job(validated(JobEntry, data, name), name)


def _job(entry: JobEntry, name: str) -> CutJob:
    for one in entry.stock:
        if one.kind != "yardage" and one.h is None:
            raise BrokenFile(f"{name}: “{printable(one.id)}” is a piece of cloth without a height.")
    if sum(one.qty for one in entry.pieces) > MOST_PIECES:
        raise BrokenFile(f"{name} asks for more than {MOST_PIECES:,} pieces.")
    return CutJob(
        entry.unit,
        tuple(
            Stock(
                one.id,
                one.kind,
                one.print,
                _exact(one.w),
                None if one.kind == "yardage" or one.h is None else _exact(one.h),
                _exact(one.trim),
                None if one.step is None else _exact(one.step),
            )
            for one in entry.stock
        ),
        tuple(
            Piece(one.id, one.label, _exact(one.w), _exact(one.h), one.qty, one.print, one.turn)
            for one in entry.pieces
        ),
        entry.aim,
    )


def _exact(value: float) -> Fraction:
    """The number as it was written, not as it is kept: 0.1 is a tenth."""
    return fraction_of(repr(value))


def answer_data(answer: Answer, job: CutJob, seconds: float) -> dict[str, Any]:
    """The answer as plain data."""
    steps = {one.id: one.step for one in job.stock}
    return {
        "placements": [
            {
                "piece": one.piece,
                "stock": one.stock,
                "x": float(one.x),
                "y": float(one.y),
                "w": float(one.w),
                "h": float(one.h),
            }
            for one in answer.placements
        ],
        "bound": float(answer.bound),
        "used": float(answer.used),
        "lengths": {name: float(long) for name, long in answer.lengths},
        "buy": {name: _sold(long, steps[name]) for name, long in answer.lengths},
        "opened": list(answer.opened),
        "left_out": dict(answer.left_out),
        "seconds": round(seconds, 3),
        "cuts": [_cut_data(at, cut) for at, cut in enumerate(answer.cuts, start=1)],
    }


def _sold(long: Fraction, step: Fraction | None) -> float:
    """A length as it is sold: by the step, up."""
    return float(long if step is None else ceil(long / step) * step)


def _cut_data(number: int, cut: Cut) -> dict[str, Any]:
    return {
        "number": number,
        "stock": cut.stock,
        "deep": cut.deep,
        "way": cut.way,
        "at": float(cut.at),
        "from": float(cut.begins),
        "to": float(cut.ends),
    }


def answer_text(answer: Answer, job: CutJob) -> str:
    """The answer as a page: what each cloth takes, every cut, what is left out."""
    lines = []
    for name, long in answer.lengths:
        lines.append(f"{name}: {float(long):g} {job.unit} long")
    if answer.opened:
        lines.append(f"Opened: {', '.join(answer.opened)}")
    if answer.used and answer.bound:
        over = 100 * (float(answer.used) / max(float(answer.bound), 1e-9) - 1)
        lines.append(f"At most {max(over, 0):.1f} % over the least that could do.")
    words = {1: "strip", 2: "crosscut", 3: "trim"}
    for number, cut in enumerate(answer.cuts, start=1):
        lines.append(
            f"{number:>4}. {cut.stock}: {words[cut.deep]}, {cut.way}, ruler at {float(cut.at):g}, "
            f"{float(cut.begins):g} to {float(cut.ends):g}"
        )
    for name, many in answer.left_out:
        lines.append(f"Left out: {many} of {name}")
    return "".join(f"{printable(line)}\n" for line in lines)


def job_schema() -> dict[str, Any]:
    """The JSON Schema of a cutting job."""
    made = JobEntry.model_json_schema("validation")
    made["$schema"] = "https://json-schema.org/draft/2020-12/schema"
    made["title"] = "Tessil cutting job"
    return made
