"""Project files and logbooks with a few things wrong: what becomes of them?

    python tools/fuzz.py [FILES] [SEED]

Every file is read and planned as the window would.  Prints what was read, what was refused, errors
that are not the program's own, sentences that no maker would understand, and what was slow; exit
code 1 if there was any of the last three.
"""

from __future__ import annotations

import copy
import json
import os
import random
import re
import sys
import tempfile
import time
import traceback
from collections import Counter
from collections.abc import Callable, Iterator
from importlib.resources import files
from pathlib import Path
from typing import Any

from tessil.core.project import Job
from tessil.files.jobreport import job_data

BOX = Path(tempfile.mkdtemp(prefix="fuzz-"))
os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
for name in ("STATE", "DATA", "CONFIG", "CACHE"):
    os.environ[f"XDG_{name}_HOME"] = f"{BOX}/{name.lower()}"

from PySide6.QtGui import QGuiApplication  # noqa: E402

from tessil.core.plan import plan  # noqa: E402
from tessil.core.trouble import CannotPlan, FileTrouble  # noqa: E402
from tessil.files.logfile import load_book  # noqa: E402
from tessil.files.projectfile import load  # noqa: E402

SLOW = 1.0  # seconds of the processor
JUNK: tuple[Any, ...] = (
    None,
    True,
    0,
    -1,
    2**63,
    10**30,
    1e308,
    float("nan"),
    float("inf"),
    "",
    " ",
    "0 in",
    "-3 in",
    "1/0 in",
    "½",
    "1/64 in",
    "1/1000000007 in",
    "999999 in",
    "0.0001 mm",
    "x" * 100_000,
    "9" * 5000,
    "\u202eabc",
    "\x00\x1b[31m",
    "a\nb",
    "<b>x</b>",
    "../../etc/passwd",
    [],
    [[]],
    {},
    {"a": 1},
    [None] * 10,
    ["1 in"] * 30,
    "none",
    "tote",
    "#ffffff",
    3,
    5000,
    -45,
)
LENGTHS = ("1/64 in", "1/16 in", "1/4 in", "1 in", "7 in", "25 in", "200 in", "1/7 in", "3.3333 mm")
NUMBERS = (0, 1, 2, 3, 12, 50, 500, 5000, -1)
UNCLEAR = re.compile(
    r"(?i:Input should|valid (integer|string|number|boolean|dictionary|tuple|list)|Extra inputs|"
    r"Field required|literal|_type|Traceback|object has|__|instance of|codec|surrog)|\bNone\b"
)
Place = tuple[str | int, ...]


def walk(node: Any, at: Place = ()) -> Iterator[tuple[Place, Any]]:
    """Every value of a document with its place."""
    pairs = node.items() if isinstance(node, dict) else enumerate(node)
    for key, value in pairs:
        yield (*at, key), value
        if isinstance(value, (dict, list)):
            yield from walk(value, (*at, key))


def put(tree: Any, place: Place, value: Any) -> None:
    """Put a value at a place."""
    for key in place[:-1]:
        tree = tree[key]
    tree[place[-1]] = value


def odd(rng: random.Random, old: Any) -> Any:
    """A value of the same kind, but odd."""
    if isinstance(old, bool):
        return not old
    if isinstance(old, (int, float)):
        return rng.choice(NUMBERS)
    if isinstance(old, str) and old.endswith((" in", " mm")):
        return rng.choice(LENGTHS)
    return copy.deepcopy(rng.choice(JUNK))


def spoilt(rng: random.Random, seeds: list[Any]) -> bytes:
    """One document with a few things wrong with it."""
    tree = copy.deepcopy(rng.choice(seeds))
    for _ in range(rng.choice((1, 1, 1, 2, 3, 6))):
        spots = list(walk(tree))
        place, old = rng.choice(spots)
        kind = rng.random()
        if kind < 0.3:
            put(tree, place, copy.deepcopy(rng.choice(JUNK)))
        elif kind < 0.75:
            put(tree, place, odd(rng, old))
        elif kind < 0.85:
            put(tree, place, copy.deepcopy(rng.choice(spots)[1]))
        elif isinstance(old, list) and old:
            put(tree, place, (old * 5001)[: rng.choice((13, 301, 5001))])
        elif isinstance(old, dict):
            old[rng.choice(("new", "", "__class__", "x" * 1000))] = rng.choice(JUNK)
    raw = bytearray(json.dumps(tree).encode("utf-8", "surrogatepass"))
    if rng.random() < 0.15:
        for _ in range(rng.choice((1, 5, 20))):
            raw[rng.randrange(len(raw))] = rng.randrange(256)
    return bytes(raw)


def judge(work: Callable[[], object], seen: Counter[str]) -> str:
    """Do it; returns what is wrong with how it went, if anything is."""
    began = time.process_time()
    wrong = ""
    try:
        work()
        seen["read"] += 1
    except (FileTrouble, CannotPlan) as error:
        seen["refused"] += 1
        said = str(error)
        if UNCLEAR.search(said) or len(said) > 400 or any(ord(letter) < 32 for letter in said):
            wrong = f"unclear: {said[:200]!r}"
    except Exception as error:
        last = traceback.extract_tb(error.__traceback__)[-1]
        wrong = f"uncaught: {type(error).__name__} {str(error)[:90]} at {last.name}"
    took = time.process_time() - began
    return wrong or (f"slow: {took:.1f} s" if took > SLOW else "")


def job_reports(job: Job) -> object:
    """The reports of all bags of a job."""
    return job_data(job, [plan(job.project(at)).complete() for at in range(len(job.bags))])


def main() -> int:
    """Spoil, read, tell."""
    number = int(sys.argv[1]) if len(sys.argv) > 1 else 5000
    rng = random.Random(int(sys.argv[2]) if len(sys.argv) > 2 else 1)
    app = QGuiApplication([])
    demo = Path(str(files("tessil") / "demo"))
    bags = [json.loads(path.read_text()) for path in sorted(demo.glob("*.tessil"))]
    books = [json.loads((demo / "logbook.json").read_text())]
    base = load(demo / "rehearsal-satchel.tessil").project()
    works: tuple[tuple[list[Any], Callable[[Path], object]], ...] = (
        (bags, lambda path: job_reports(load(path))),
        (books, lambda path: plan(base, load_book(path)).complete()),
    )
    seen: Counter[str] = Counter()
    faults: Counter[str] = Counter()
    for at in range(number):
        seeds, work = works[at % 6 == 5]
        path = BOX / "spoilt.json"
        path.write_bytes(spoilt(rng, seeds))
        wrong = judge(lambda work=work, path=path: work(path), seen)  # type: ignore[misc]
        if wrong:
            faults[wrong.split(":")[0]] += 1
            path.rename(BOX / f"{at}.json")
            print(f"{wrong}  kept as {BOX / f'{at}.json'}")
    print(f"{number} files: {dict(seen)}; faults: {dict(faults) or 'none'}")
    del app
    return bool(faults)


if __name__ == "__main__":
    sys.exit(main())
