"""The command line: the window, reports without one, checks, pictures."""

from __future__ import annotations

import argparse
import json
import sys
from pathlib import Path

from tessil import __version__
from tessil.core.plan import Plan, plan
from tessil.core.snags import Weight
from tessil.core.trouble import CannotPlan
from tessil.files.logfile import load_book
from tessil.files.projectfile import FileTrouble, load, schema
from tessil.files.report import check_text, cut_csv, report_data, report_text
from tessil.files.striplist import strips_csv

COMMANDS = ("report", "check", "shots", "schema")


def _arguments() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(
        prog="tessil",
        description="Plans quilted bags.  With a FILE or nothing, opens the window.",
        epilog=(
            "Other commands: tessil report FILE [--format text|json|csv|strips] [--log LOGBOOK] · "
            "tessil check FILE [--log LOGBOOK] · "
            "tessil shots DIR · tessil schema"
        ),
    )
    parser.add_argument("file", nargs="?", type=Path, help="a .tessil project")
    parser.add_argument("--demo", action="store_true", help="open with the demo bag")
    parser.add_argument("--version", action="version", version=f"Tessil {__version__}")
    return parser


def _command() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="tessil")
    commands = parser.add_subparsers(dest="command", required=True)
    report = commands.add_parser("report", help="print the plan without a display")
    report.add_argument("file", type=Path)
    report.add_argument("--log", type=Path, help="a logbook in place of your own")
    report.add_argument("--format", choices=("text", "json", "csv", "strips"), default="text")
    check = commands.add_parser("check", help="print snags; exit 1 if any blocks")
    check.add_argument("file", type=Path)
    check.add_argument("--log", type=Path, help="a logbook in place of your own")
    shots = commands.add_parser("shots", help="write one PNG of each main view")
    shots.add_argument("folder", type=Path)
    commands.add_parser("schema", help="print the JSON Schema of a project file")
    return parser


def _planned(path: Path, log: Path | None) -> Plan:
    if log is not None and not log.is_file():
        raise FileTrouble(f"“{log.name}” is not a file that can be opened.")
    try:
        return plan(load(path), load_book(log))
    except CannotPlan as trouble:
        raise FileTrouble(f"{trouble.sentence} ({trouble.field})") from None


def _report(path: Path, log: Path | None, form: str) -> int:
    made = _planned(path, log)
    if form == "json":
        print(json.dumps(report_data(made), ensure_ascii=False, indent=2, sort_keys=True))
    else:
        made_text = {"csv": cut_csv, "strips": strips_csv}.get(form, report_text)
        sys.stdout.write(made_text(made))
    return 0


def _check(path: Path, log: Path | None) -> int:
    made = _planned(path, log)
    sys.stdout.write(check_text(made))
    return int(any(snag.weight is Weight.BLOCKS for snag in made.snags))


def main(arguments: list[str] | None = None) -> int:
    """Run one command; returns the exit code."""
    given = sys.argv[1:] if arguments is None else arguments
    try:
        if given and given[0] in COMMANDS:
            return _run(_command().parse_args(given))
        asked = _arguments().parse_args(given)
        from tessil.ui.app import run

        return run(asked.file, asked.demo)
    except FileTrouble as trouble:
        print(trouble, file=sys.stderr)
        return 2


def _run(asked: argparse.Namespace) -> int:
    if asked.command == "report":
        return _report(asked.file, asked.log, asked.format)
    if asked.command == "check":
        return _check(asked.file, asked.log)
    if asked.command == "schema":
        print(json.dumps(schema(), indent=2, sort_keys=True))
        return 0
    from tessil.ui.shots import take_shots

    return take_shots(asked.folder)
