"""Small faults put into the code one at a time: do the tests notice?

    python tools/mutants.py [MUTANTS] [SEED] [PLACE ...]

PLACE is a folder or file below ``src/tessil`` (``core`` and ``files`` to begin with).  Each mutant
is one change of one line: a comparison turned, a sum made a difference, a number one more, a
condition reversed, a word changed, an answer left out.  First the tests run once to learn which of
them enter which function (see ``reach.py``); a mutant is then held against the tests that enter its
function, its own room's first; one outside all functions against its room's and the wider ones.
What none of them notices is held against the tests at the window that enter it, which are told
apart.  What no test notices is printed with its line.  Works in copies of its own below the
temporary folder; a kill takes a few seconds, a survivor up to two minutes, on each core.
"""

from __future__ import annotations

import ast
import json
import os
import random
import shutil
import subprocess
import sys
import tempfile
import time
from collections import Counter
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from pathlib import Path
from queue import Queue
from threading import Lock

from reach import function_of, marked

ROOT = Path(__file__).resolve().parents[1]
SOURCE = ROOT / "src" / "tessil"
WORKERS = os.cpu_count() or 1
LONGEST = 240  # seconds; a mutant that takes longer hangs, and is noticed
TURNED: dict[type[ast.cmpop], type[ast.cmpop]] = {
    ast.Lt: ast.LtE,
    ast.LtE: ast.Lt,
    ast.Gt: ast.GtE,
    ast.GtE: ast.Gt,
    ast.Eq: ast.NotEq,
    ast.NotEq: ast.Eq,
    ast.In: ast.NotIn,
    ast.NotIn: ast.In,
    ast.Is: ast.IsNot,
    ast.IsNot: ast.Is,
}
OTHER: dict[type[ast.operator], type[ast.operator]] = {
    ast.Add: ast.Sub,
    ast.Sub: ast.Add,
    ast.Mult: ast.Div,
    ast.Div: ast.Mult,
    ast.FloorDiv: ast.Mult,
    ast.Mod: ast.Mult,
}
WIDE = (
    "tests/core/test_figures_by_hand.py",
    "tests/core/test_records.py",
    "tests/core/test_snags_to_the_letter.py",
    "tests/core/words",
    "tests/outside/test_check_values.py",
    "tests/outside/test_every_shape_on_paper.py",
    "tests/outside/test_files_by_others.py",
    "tests/outside/test_spelling.py",
)
SOURCES = (
    "tests/outside/test_spelling.py::test_every_text_and_key_in_the_source_is_of_words",
    "tests/outside/test_spelling.py::test_after_a_stop_comes_a_space_or_nothing",
)
WINDOW = "tests/ui"
REACHING = ("tests/core", "tests/files", "tests/outside", "tests/drawing", WINDOW)
ENOUGH = 60  # seconds of tests that a mutant is held against at most, and as many at the window


@dataclass(frozen=True)
class Mutant:
    """One change: the file, its line as it was and as it is, and the whole new text."""

    path: Path
    line: int
    kind: str
    before: str
    after: str
    text: str


def main() -> int:
    """Runs the mutants and says what survived; exit code 1 if anything did."""
    given = sys.argv[1:]
    number = int(given[0]) if given else 150
    seed = int(given[1]) if len(given) > 1 else 1
    places = [SOURCE / place for place in given[2:]] or [SOURCE / "core", SOURCE / "files"]
    chosen = pick(places, number, random.Random(seed))
    box = Path(tempfile.mkdtemp(prefix="mutants-"))
    benches: Queue[Path] = Queue()
    for at in range(WORKERS):
        benches.put(_bench(box / str(at)))
    if not _green(box / "0"):
        sys.exit("The tests fail as they are: mend them first.")
    reach = _reach(box)
    print(f"{len(reach.seconds)} tests enter {len(reach.tests)} functions.", flush=True)
    begun, killed, seen, late = time.time(), Counter[str](), Counter[str](), Counter[str]()

    counting = Lock()

    def one(mutant: Mutant) -> None:
        bench = benches.get()
        try:
            noticed = _noticed(bench, mutant, reach)
            # Twice: a test at the window that waited in vain on a busy machine has seen no fault.
            shown = not noticed and all(
                _noticed(bench, mutant, reach, window=True) for _ in range(2)
            )
        finally:
            benches.put(bench)
        with counting:
            late[str(mutant.path.relative_to(SOURCE)).split("/")[0]] += shown
            count(mutant, noticed or shown)

    def count(mutant: Mutant, noticed: bool) -> None:
        room = str(mutant.path.relative_to(SOURCE)).split("/")[0]
        seen[room] += 1
        killed[room] += noticed
        if not noticed:
            place = mutant.path.relative_to(ROOT)
            print(f"{place}:{mutant.line} {mutant.kind}\n  - {mutant.before}\n  + {mutant.after}")
        if sum(seen.values()) % 20 == 0:
            print(
                f"  … {sum(killed.values())} of {sum(seen.values())}, "
                f"{late.total()} of them at the window alone, {time.time() - begun:.0f} s"
            )
        sys.stdout.flush()

    with ThreadPoolExecutor(WORKERS) as pool:
        list(pool.map(one, chosen))
    for room in sorted(seen):
        share = 100 * killed[room] / seen[room]
        print(
            f"{room}: {killed[room]} of {seen[room]} noticed, {share:.0f} %; "
            f"{late[room]} of them at the window alone"
        )
    shutil.rmtree(box, ignore_errors=True)
    return int(killed.total() < seen.total())


def pick(places: list[Path], number: int, dice: random.Random) -> list[Mutant]:
    """Mutants drawn evenly over all places where one can be made."""
    files = sorted(
        {f for place in places for f in ([place] if place.is_file() else place.rglob("*.py"))}
    )
    spots = [(path, at, node) for path in files for at, node in enumerate(_nodes(path))]
    dice.shuffle(spots)
    found: list[Mutant] = []
    for path, at, _ in spots:
        made = _mutant(path, at, dice)
        if made is not None:
            found.append(made)
        if len(found) == number:
            break
    return found


def _nodes(path: Path) -> list[ast.AST]:
    """What can be changed in a file: not imports, types, docstrings or messages of type errors."""
    tree = ast.parse(path.read_text())
    skipped: set[int] = set()
    for node in ast.walk(tree):
        if isinstance(node, (ast.Import, ast.ImportFrom, ast.Raise, ast.AnnAssign)):
            kept = node.value if isinstance(node, ast.AnnAssign) else None
            inner = {id(n) for n in ast.walk(kept)} if kept is not None else set()
            skipped |= {id(n) for n in ast.walk(node)} - inner
        if isinstance(node, (ast.FunctionDef, ast.ClassDef, ast.Module)) and node.body:
            first = node.body[0]
            if isinstance(first, ast.Expr) and isinstance(first.value, ast.Constant):
                skipped |= {id(n) for n in ast.walk(first)}
        if isinstance(node, ast.FunctionDef):
            for part in (node.returns, *(arg.annotation for arg in node.args.args)):
                skipped |= {id(n) for n in ast.walk(part)} if part is not None else set()
        if isinstance(node, (ast.FunctionDef, ast.ClassDef)):
            skipped |= {id(n) for d in node.decorator_list for n in ast.walk(d)}
        if isinstance(node, ast.Call) and ast.unparse(node.func) == "cast":
            skipped |= {id(n) for n in ast.walk(node.args[0])}  # a type
        if isinstance(node, ast.keyword) and node.arg == "strict":  # of zip: a guard, not a deed
            skipped |= {id(n) for n in ast.walk(node)}
        if (
            isinstance(node, ast.Subscript)
            and isinstance(node.value, ast.Name)
            and (node.value.id in ("Literal", "Annotated", "tuple", "dict", "list", "Mapping"))
        ):
            skipped |= {id(n) for n in ast.walk(node)}
    return [node for node in ast.walk(tree) if id(node) not in skipped and _kind(node)]


def _kind(node: ast.AST) -> str:
    if isinstance(node, ast.Compare) and type(node.ops[0]) in TURNED:
        return "comparison"
    if isinstance(node, ast.BinOp) and type(node.op) in OTHER:
        return "sum"
    if isinstance(node, ast.BoolOp):
        return "condition"
    if isinstance(node, ast.UnaryOp) and isinstance(node.op, ast.Not):
        return "not"
    if isinstance(node, ast.If):
        return "if"
    if isinstance(node, ast.Constant) and node.value not in (None, "", ...):
        return "word" if isinstance(node.value, str) else "number"
    return "answer" if isinstance(node, ast.Return) and _says_something(node.value) else ""


def _says_something(value: ast.expr | None) -> bool:
    """Whether an answer is left out by being none: one that is none already is not."""
    return value is not None and not (isinstance(value, ast.Constant) and value.value is None)


def _mutant(path: Path, at: int, dice: random.Random) -> Mutant | None:
    """The file with its ``at``-th changeable node changed."""
    source = path.read_text()
    node = _nodes(path)[at]
    line = getattr(node, "lineno", 0)
    if not isinstance(node, (ast.expr, ast.stmt)):
        return None
    new = _changed(node, dice)
    if new is None:
        return None
    whole = node.test if isinstance(node, ast.If) else node
    start, end = _offsets(source, whole)
    text = source[:start] + new + source[end:]
    try:
        ast.parse(text)
    except SyntaxError:
        return None
    before, after = (t.split("\n")[whole.lineno - 1].strip() for t in (source, text))
    return Mutant(path, line, _kind(node), before, after, text)


def _changed(node: ast.expr | ast.stmt, dice: random.Random) -> str | None:
    if isinstance(node, ast.If):
        return f"(not ({ast.unparse(node.test)}))"
    if isinstance(node, ast.Return):
        return "return None"
    if isinstance(node, ast.Compare):
        ops = [TURNED[type(node.ops[0])](), *node.ops[1:]]
        return f"({ast.unparse(ast.Compare(node.left, ops, node.comparators))})"
    if isinstance(node, ast.BinOp):
        return f"({ast.unparse(ast.BinOp(node.left, OTHER[type(node.op)](), node.right))})"
    if isinstance(node, ast.BoolOp):
        other = ast.Or() if isinstance(node.op, ast.And) else ast.And()
        return f"({ast.unparse(ast.BoolOp(other, node.values))})"
    if isinstance(node, ast.UnaryOp):
        return f"({ast.unparse(node.operand)})"
    if isinstance(node, ast.Constant):
        return _other_constant(node.value, dice)
    return None


def _other_constant(value: object, dice: random.Random) -> str | None:
    if isinstance(value, bool):
        return repr(not value)
    if isinstance(value, int | float):
        return repr(value + dice.choice((1, -1)))
    return repr(f"{value}x") if isinstance(value, str) else None


def _offsets(source: str, node: ast.expr | ast.stmt) -> tuple[int, int]:
    """Where a node begins and ends in its text."""
    lines = source.splitlines(keepends=True)

    def at(line: int, column: int) -> int:
        before = sum(len(text) for text in lines[: line - 1])
        return before + len(lines[line - 1].encode()[:column].decode())

    assert node.end_lineno is not None
    assert node.end_col_offset is not None
    return at(node.lineno, node.col_offset), at(node.end_lineno, node.end_col_offset)


def _bench(folder: Path) -> Path:
    """A copy of sources and tests to spoil."""
    for name in ("src", "tests", "docs", "data", "tools", ".ci"):
        if (ROOT / name).exists():
            shutil.copytree(ROOT / name, folder / name)
    for name in ("pyproject.toml", "README.md", "LICENSE", "Makefile", "requirements.lock"):
        shutil.copy(ROOT / name, folder)
    return folder


def tests_for(path: Path) -> list[str]:
    """The tests of a file's own room, then the wider ones."""
    parts = path.relative_to(SOURCE).with_suffix("").parts
    own = ROOT / "tests" / Path(*parts[:-1])
    while own != ROOT / "tests" and not own.is_dir():
        own = own.parent
    chosen = [str(own.relative_to(ROOT))] if own != ROOT / "tests" else []
    if chosen == ["tests/core"]:
        slow = "test_anything_typed.py"
        chosen = sorted(str(f.relative_to(ROOT)) for f in own.glob("test_*.py") if f.name != slow)
    return list(dict.fromkeys([*chosen, *WIDE]))


@dataclass(frozen=True)
class Reach:
    """Which tests enter a function (``module:line``), and how long each takes."""

    tests: dict[str, list[str]]
    seconds: dict[str, float]

    def chosen(self, mutant: Mutant, window: bool) -> list[str] | None:
        """The tests to hold a mutant against; ``None`` where it lies outside all functions."""
        line = function_of(ast.parse(mutant.path.read_text()), mutant.line)
        if line is None:
            return None
        found = self.tests.get(f"{mutant.path.relative_to(SOURCE)}:{line}", [])
        found = [test for test in found if test.startswith(WINDOW) == window]
        own = tests_for(mutant.path)[0]
        ordered = sorted(found, key=lambda t: (not t.startswith(own), self.seconds[t]))
        spent, kept = 0.0, []
        for test in ordered:
            spent += self.seconds[test]
            if spent < ENOUGH:
                kept.append(test)
        return kept


def _reach(box: Path) -> Reach:
    """Runs the tests once over sources that say which function was entered."""
    bench, to = _bench(box / "reach"), box / "entered"
    to.mkdir()
    for path in (bench / "src/tessil").rglob("*.py"):
        module = str(path.relative_to(bench / "src/tessil"))
        path.write_text(marked(path.read_text(), module))
    environment = {
        **_environment(bench),
        "PYTHONPATH": f"{bench / 'src'}:{ROOT / 'tools'}",
        "REACH_TO": str(to),
    }
    asked = ["-p", "reach", "-q", "-p", "no:cacheprovider", "-n", str(WORKERS), *REACHING]
    subprocess.run(
        [sys.executable, "-m", "pytest", *asked],
        cwd=bench,
        env=environment,
        capture_output=True,
        check=False,
    )
    tests: dict[str, list[str]] = {}
    seconds: dict[str, float] = {}
    for file in to.glob("*.json"):
        for test, (took, entered) in json.loads(file.read_text()).items():
            seconds[test] = took
            for function in entered:
                tests.setdefault(function, []).append(test)
    return Reach(tests, seconds)


def _noticed(bench: Path, mutant: Mutant, reach: Reach, window: bool = False) -> bool:
    """Whether a test fails, errs or hangs with it: of those at the window, or all others."""
    tests = reach.chosen(mutant, window)
    if window:
        tests = tests or []
    elif mutant.kind == "word":  # texts are read where they stand, by a test that enters nothing
        tests = [*SOURCES, *(tests_for(mutant.path) if tests is None else tests)]
    if tests == []:
        return False
    target = bench / mutant.path.relative_to(ROOT)
    kept = target.read_text()
    target.write_text(mutant.text)
    try:
        return not _passes(bench, tests or tests_for(mutant.path), LONGEST)
    finally:
        target.write_text(kept)


def _green(bench: Path) -> bool:
    """Whether the tests pass with nothing changed; else every mutant would seem noticed."""
    rooms = sorted(
        str(f.relative_to(bench)) for f in (bench / "tests/core").iterdir() if f.is_dir()
    )
    return _passes(bench, [*rooms, "tests/files", *WIDE], 4 * LONGEST)


def _environment(bench: Path) -> dict[str, str]:
    return {
        **os.environ,
        "PYTHONPATH": str(bench / "src"),
        "QT_QPA_PLATFORM": "offscreen",
        "PYTHONDONTWRITEBYTECODE": "1",
        "TESSIL_TESTS_SHORT": "1",
    }


def _passes(bench: Path, tests: list[str], longest: int) -> bool:
    asked = ["-x", "-q", "-p", "no:cacheprovider", "--no-header"]
    try:
        done = subprocess.run(
            [sys.executable, "-m", "pytest", *asked, *tests],
            cwd=bench,
            env=_environment(bench),
            capture_output=True,
            timeout=longest,
            check=False,
        )
        return done.returncode == 0
    except subprocess.TimeoutExpired:
        return False


if __name__ == "__main__":
    sys.exit(main())
