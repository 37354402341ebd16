"""Which tests reach which function: a plugin for pytest, and the marks it reads.

``marked`` puts a line at the head of every function of a module that says that it was entered; run
with ``-p reach`` and ``REACH_TO=folder``, each test leaves what it entered and the seconds it took
in a file of its process.  What a fixture of several tests did counts for each of them; what our
functions keep from one call to the next is forgotten before each test, or only the first that asks
would seem to enter what they call.
"""

from __future__ import annotations

import ast
import builtins
import json
import os
import sys
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest

ENTERED: set[str] = set()
SECONDS: dict[str, float] = {}
FOUND: dict[str, tuple[float, list[str]]] = {}
SET_UP: dict[int, set[str]] = {}  # what the fixtures of several tests entered
builtins.__dict__["_entered"] = ENTERED.add


def marked(text: str, module: str) -> str:
    """A module's text with a mark at the head of each function, ``module:line``."""
    tree = ast.parse(text)
    for node in ast.walk(tree):
        if isinstance(node, ast.FunctionDef):
            first = node.body[0]
            has_words = isinstance(first, ast.Expr) and isinstance(first.value, ast.Constant)
            mark = ast.parse(f"_entered({f'{module}:{node.lineno}'!r})").body[0]
            node.body.insert(int(has_words), mark)
    return ast.unparse(ast.fix_missing_locations(tree))


def function_of(tree: ast.Module, line: int) -> int | None:
    """The line of the innermost function around a line; ``None`` outside all of them."""
    around = [
        node.lineno
        for node in ast.walk(tree)
        if isinstance(node, ast.FunctionDef)
        and node.body[0].lineno <= line <= (node.end_lineno or node.lineno)
    ]
    return max(around, default=None)


def forget() -> None:
    """Empty what functions of ours keep: the standard library's caches, and our own."""
    once = sys.modules.get("tessil.core.memory.once")
    for name, module in list(sys.modules.items()):
        if not name.startswith("tessil."):
            continue
        for value in list(vars(module).values()):
            if hasattr(value, "cache_clear"):
                value.cache_clear()
            cells = getattr(value, "__closure__", None) or ()
            for kept in (value, *(cell.cell_contents for cell in cells)):
                if once is not None and isinstance(kept, once.Once):
                    kept._kept = ()


@pytest.hookimpl(wrapper=True)
def pytest_runtest_protocol(item: pytest.Item) -> Iterator[None]:
    forget()
    ENTERED.clear()
    yield
    fixtures = getattr(item, "_fixtureinfo", None)
    for made in fixtures.name2fixturedefs.values() if fixtures is not None else ():
        for one in made:
            ENTERED.update(SET_UP.get(id(one), ()))
    FOUND[item.nodeid] = (SECONDS.get(item.nodeid, 0.0), sorted(ENTERED))


@pytest.hookimpl(wrapper=True)
def pytest_fixture_setup(fixturedef: Any) -> Iterator[Any]:
    before = set(ENTERED)
    ENTERED.clear()
    made = yield
    if fixturedef.scope != "function":
        SET_UP[id(fixturedef)] = set(ENTERED)
    ENTERED.update(before)
    return made


def pytest_runtest_logreport(report: Any) -> None:
    if report.when == "call":
        SECONDS[report.nodeid] = report.duration


def pytest_sessionfinish() -> None:
    if FOUND and "REACH_TO" in os.environ:
        Path(os.environ["REACH_TO"], f"{os.getpid()}.json").write_text(json.dumps(FOUND))
