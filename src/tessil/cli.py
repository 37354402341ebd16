"""The command line: the window, reports without one, checks, pictures."""

from __future__ import annotations

import argparse
import codecs
import io
import json
import os
import sys
import time
import unicodedata
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from tessil import __version__
from tessil.core.plan import plan
from tessil.core.planned import Plan
from tessil.core.project import Job
from tessil.core.snags import Weight
from tessil.core.trouble import CannotPlan
from tessil.core.words.refusals import printable
from tessil.files.costreport import Ledger
from tessil.files.jobreport import job_cut_csv, job_data, job_strips_csv, job_text
from tessil.files.logfile import load_book
from tessil.files.places import path_in
from tessil.files.projectfile import FileTrouble, load, schema
from tessil.files.report import check_text
from tessil.files.shelffile import load_shelf

COMMANDS = ("report", "check", "cut", "stitch", "shots", "schema")


def _arguments() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(
        prog="tessil",
        description="Plans quilted bags.  With a FILE or nothing, opens the window.",
        epilog=(
            "Other commands: tessil report FILE [--format text|json|csv|strips] [--bag BAG] "
            "[--log LOGBOOK] · tessil check FILE [--bag BAG] [--log LOGBOOK] · "
            "tessil cut JOB.json [--seconds S] [--format json|text] · tessil stitch FILE.svg "
            "[--speed N] [--stitch MM] [--format text|json|csv] · tessil shots DIR · "
            "tessil schema [cut|shelf]"
        ),
    )
    parser.add_argument("file", nargs="?", help="a .tessil project, as a path or a file: address")
    parser.add_argument("--demo", action="store_true", help="open with the demo bag")
    parser.add_argument("--version", action="version", version=f"Tessil {__version__}")
    return parser


def _command() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="tessil")
    commands = parser.add_subparsers(dest="command", required=True)
    report = commands.add_parser("report", help="print the plan without a display")
    report.add_argument("file", type=Path)
    report.add_argument("--log", type=Path, help="a logbook in place of your own")
    report.add_argument("--shelf", type=Path, help="a shelf in place of your own")
    report.add_argument("--bag", help="one bag of several, by name or number")
    report.add_argument("--format", choices=("text", "json", "csv", "strips"), default="text")
    check = commands.add_parser("check", help="print snags; exit 1 if any blocks")
    check.add_argument("file", type=Path)
    check.add_argument("--log", type=Path, help="a logbook in place of your own")
    check.add_argument("--bag", help="one bag of several, by name or number")
    cut = commands.add_parser("cut", help="plan a cutting job without a bag")
    cut.add_argument("file", type=Path)
    cut.add_argument("--seconds", type=_seconds, default=10.0, help="how long it may search")
    cut.add_argument("--seed", type=int, default=1, help="the same seed finds the same again")
    cut.add_argument("--format", choices=("json", "text"), default="json")
    stitch = commands.add_parser("stitch", help="a simulated machine stitches outlines")
    stitch.add_argument("file", type=Path)
    stitch.add_argument("--speed", type=float, default=600.0, help="stitches a minute")
    stitch.add_argument("--stitch", type=float, default=2.5, help="length of one in millimetres")
    stitch.add_argument("--format", choices=("text", "json", "csv"), default="text")
    shots = commands.add_parser("shots", help="write one PNG of each main view")
    shots.add_argument("folder", type=Path)
    schemas = commands.add_parser("schema", help="print the JSON Schema of a project file")
    schemas.add_argument("of", nargs="?", choices=("project", "cut", "shelf"), default="project")
    return parser


def _seconds(text: str) -> float:
    value = float(text)
    if not 0 < value <= 3600:
        raise argparse.ArgumentTypeError("a number of seconds, more than 0 and 3600 at most")
    return value


def _cut(asked: argparse.Namespace) -> int:
    from tessil.core.sheets.apart import plan_by_two
    from tessil.files.cutjob import answer_data, answer_text, load_job

    job = load_job(asked.file)
    begun = time.monotonic()
    try:
        with _kept_apart():
            answer = plan_by_two(job, asked.seconds, asked.seed)
    except CannotPlan as trouble:
        raise FileTrouble(trouble.sentence) from None
    seconds = time.monotonic() - begun
    if asked.format == "json":
        print(_json(answer_data(answer, job, seconds)))
    else:
        sys.stdout.write(answer_text(answer, job))
    return int(bool(answer.left_out))


def _stitch(asked: argparse.Namespace) -> int:
    from tessil.core.hooping.machine import Setting
    from tessil.files.stitchsvg import stitch_file, stitched_csv, stitched_json, stitched_text

    run = stitch_file(asked.file, Setting(asked.speed, asked.stitch))
    told = {"text": stitched_text, "json": stitched_json, "csv": stitched_csv}[asked.format]
    sys.stdout.write(told(run))
    return 0


@contextmanager
def _kept_apart() -> Iterator[None]:
    """What a library prints while it works goes with the messages, not into the answer."""
    sys.stdout.flush()
    try:
        kept = os.dup(1)
    except OSError:  # there is nothing to write to
        yield
        return
    try:
        os.dup2(2, 1)
        yield
    finally:
        os.dup2(kept, 1)
        os.close(kept)


def _planned(asked: argparse.Namespace) -> tuple[Job, list[Plan]]:
    """The job in a file and the plans of its bags, or of the one that is asked for."""
    if asked.log is not None and not asked.log.is_file():
        raise FileTrouble(f"“{asked.log.name}” is not a file that can be opened.")
    job, book = load(asked.file), load_book(asked.log)
    wanted = range(len(job.bags)) if asked.bag is None else [_bag_at(job, asked.bag)]
    plans = []
    for at in wanted:
        try:
            plans.append(plan(job.project(at), book))
        except CannotPlan as trouble:
            which = f"{printable(job.bags[at].name)}: " if len(job.bags) > 1 else ""
            raise FileTrouble(f"{which}{trouble.sentence} ({trouble.field})") from None
    return job, plans


def _bag_at(job: Job, asked: str) -> int:
    """Which bag is meant by a name or a number from 1."""
    for at, bag in enumerate(job.bags):
        if asked in (bag.name, str(at + 1)):
            return at
    raise FileTrouble(f"There is no bag “{asked}” in this file: it has {len(job.bags)}.")


def _report(asked: argparse.Namespace) -> int:
    job, plans = _planned(asked)
    if asked.format == "json":
        print(_json(job_data(job, plans, _ledger(asked))))
    elif asked.format == "text":
        sys.stdout.write(job_text(job, plans, ledger=_ledger(asked)))
    else:
        made = job_cut_csv(plans) if asked.format == "csv" else job_strips_csv(plans)
        sys.stdout.write(made)
    return 0


def _ledger(asked: argparse.Namespace) -> Ledger:
    """What time and money are reckoned from: the logbook, and prices by the shelf."""
    return Ledger(load_book(asked.log), load_shelf(asked.shelf))


def _json(data: object) -> str:
    """JSON for a terminal: letters that steer it or turn the writing stand as their numbers."""
    text = json.dumps(data, ensure_ascii=False, indent=2, sort_keys=True)
    return "".join(
        letter if letter == "\n" or unicodedata.category(letter)[0] != "C" else _numbered(letter)
        for letter in text
    )


def _numbered(letter: str) -> str:
    return json.dumps(letter)[1:-1]


def _plain_letters(error: UnicodeError) -> tuple[str, int]:
    """What a terminal without these letters shows: ``12⅜ × 8`` as ``12 3/8 x 8``."""
    if not isinstance(error, UnicodeEncodeError):
        raise error
    letters = error.object[error.start : error.end]
    if "⁄" in letters and error.object[: error.start][-1:].isdigit():
        letters = f" {letters}"  # 4 5/16, not 45/16
    return "".join(_SPELLED.get(letter) or _spelled(letter) for letter in letters), error.end


_SPELLED = {
    "×": "x",
    "÷": "/",
    "−": "-",
    "·": "*",
    "≈": "about ",
    "–": "-",
    "—": "-",
    "…": "...",
    "“": '"',
    "”": '"',
    "’": "'",
    "°": " degrees",
    "±": "+/-",
    "→": "->",
    "⁄": "/",
}


def _spelled(letter: str) -> str:
    if letter.isascii():
        return letter
    plain = unicodedata.normalize("NFKD", letter).replace("⁄", "/")
    plain = "".join(one for one in plain if ord(one) < 128) or "?"
    return f" {plain}" if "/" in plain else plain


def _settle_streams() -> None:
    """Let whatever the terminal's letters are carry what is printed; sizes are never lost."""
    codecs.register_error("tessil", _plain_letters)
    for stream in (sys.stdout, sys.stderr):
        if isinstance(stream, io.TextIOWrapper):
            stream.reconfigure(errors="tessil")


def _check(asked: argparse.Namespace) -> int:
    job, plans = _planned(asked)
    sys.stdout.write(job_text(job, plans, check_text))
    return int(any(snag.weight is Weight.BLOCKS for made in plans for snag in made.snags))


def main(arguments: list[str] | None = None) -> int:
    """Run one command; returns the exit code."""
    given = sys.argv[1:] if arguments is None else arguments
    _settle_streams()
    try:
        code = _answer(given)
        sys.stdout.flush()
        return code
    except FileTrouble as trouble:
        print(printable(str(trouble)), file=sys.stderr)
        return 2
    except BrokenPipeError:  # ``tessil report … | head``: nobody listens any more
        os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())
        return 141  # as a shell counts it: 128 and SIGPIPE's number


def _answer(given: list[str]) -> int:
    if given and given[0] in COMMANDS:
        return _run(_command().parse_args(given))
    asked = _arguments().parse_args(given)
    from tessil.ui.app import run

    return run(path_in(asked.file) if asked.file else None, asked.demo)


def _run(asked: argparse.Namespace) -> int:
    if asked.command == "report":
        return _report(asked)
    if asked.command == "check":
        return _check(asked)
    if asked.command == "cut":
        return _cut(asked)
    if asked.command == "stitch":
        return _stitch(asked)
    if asked.command == "schema":
        from tessil.files.cutjob import job_schema
        from tessil.files.shelffile import shelf_schema

        made = {"project": schema, "cut": job_schema, "shelf": shelf_schema}[asked.of]()
        print(json.dumps(made, indent=2, sort_keys=True))
        return 0
    from tessil.ui.shots import take_shots

    return take_shots(asked.folder)
