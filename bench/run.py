"""Measures speed and memory and prints ratios and percentiles; asserts nothing.

Run by ``make bench``.  Figures depend on the machine; compare runs on one machine only.
"""

from __future__ import annotations

import os
import resource
import statistics
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable
from fractions import Fraction
from importlib.resources import files
from pathlib import Path

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")

from edges import biasing
from layouts import courses, layouts, pieces_on_the_bench
from quilting import fitting, lines, sliding

EMPTY = """
import time; begun = time.perf_counter()
from PySide6.QtWidgets import QApplication, QMainWindow
app = QApplication([]); window = QMainWindow(); window.resize(1280, 800); window.show()
while not window.windowHandle().isExposed(): app.processEvents()
app.processEvents(); print(time.perf_counter() - begun)
"""
TESSIL = """
import time; begun = time.perf_counter()
from tessil.ui.app import furnish, make_app
from tessil.ui.shell import Shell
app = make_app(); shell = Shell(); shell.show()
while not shell.windowHandle().isExposed(): app.processEvents()
app.processEvents(); print(time.perf_counter() - begun)
furnish(app, shell, None, True)
app.processEvents(); print(time.perf_counter() - begun)
"""


def percentiles(seconds: list[float]) -> str:
    """Median, 95th percentile and worst, in milliseconds."""
    ordered = sorted(seconds)
    p95 = ordered[min(int(len(ordered) * 0.95), len(ordered) - 1)]
    return (
        f"median {statistics.median(ordered) * 1000:.2f} ms, p95 {p95 * 1000:.2f} ms, "
        f"worst {ordered[-1] * 1000:.2f} ms (n={len(ordered)})"
    )


def timed(work: Callable[[int], object], times: int) -> list[float]:
    """Seconds of each of many runs, after three to warm up."""
    for at in range(3):
        work(at)
    found = []
    for at in range(times):
        begun = time.perf_counter()
        work(at)
        found.append(time.perf_counter() - begun)
    return found


def start_up() -> None:
    """Time to a visible window, Tessil with its demo against an empty one, by turns."""
    runs: dict[str, list[float]] = {"empty": [], "visible": [], "ready": []}
    for _ in range(7):
        for names, code in ((("empty",), EMPTY), (("visible", "ready"), TESSIL)):
            done = subprocess.run(
                [sys.executable, "-c", code], capture_output=True, text=True, check=True
            )
            for name, seconds in zip(names, done.stdout.split(), strict=True):
                runs[name].append(float(seconds))
    empty, visible, ready = (statistics.median(found) for found in runs.values())
    print(
        f"empty window {empty:.3f} s; Tessil's window visible {visible:.3f} s (ratio "
        f"{visible / empty:.2f}), furnished with the demo {ready:.3f} s (ratio "
        f"{ready / empty:.2f})"
    )


def planning() -> None:
    """plan() of the demo with another gap each time, and of sixty demo panels."""
    from tessil.core.edits import applied, edit
    from tessil.core.plan import plan
    from tessil.files.projectfile import from_text

    text = (files("tessil") / "demo" / "rehearsal-satchel.tessil").read_text("utf-8")
    demo = from_text(text).project()
    jobs = [
        applied(demo, edit("", ("panels.front.quilting.gap", Fraction(1) + Fraction(at, 16))))
        for at in range(16)
    ]
    print(f"plan(demo): {percentiles(timed(lambda at: plan(jobs[at % 16]), 400))}")
    panels = len(plan(demo).panels)

    def many(at: int) -> None:
        for job in range(60 // panels):
            plan(jobs[(at + job) % 16])

    print(f"plan of 60 panels: {percentiles(timed(many, 30))}")


def typing() -> None:
    """A key typed in a field of the real window to the bench repainted, offscreen."""
    from PySide6.QtTest import QTest
    from PySide6.QtWidgets import QApplication

    from tessil.core.snags import Stage
    from tessil.ui.app import dress, make_app
    from tessil.ui.window import Window

    app = make_app()
    dress(app)
    window = Window()
    window.open_demo("rehearsal-satchel")
    window.show()
    app.processEvents()
    cases = (
        (Stage.QUILT, "panel.quilting.gap", "1234"),
        (Stage.BRIEF, "hold.things.0.width", "789"),
        (Stage.PIECE, "panel.piecing.strip_cut", "234"),
    )
    for stage, key, digits in cases:
        window.desk.look(stage=stage)
        app.processEvents()
        field = window.column.field(key)
        field.setFocus()

        def once(at: int, field: object = field, digits: str = digits) -> None:
            field.selectAll()  # type: ignore[attr-defined]
            QTest.keyClicks(QApplication.focusWidget(), digits[at % len(digits)])
            window.bench.repaint()
            app.processEvents()

        print(f"key in {stage} field to repainted window: {percentiles(timed(once, 150))}")


def painting() -> None:
    """The bench repainted while it is panned and zoomed."""
    from PySide6.QtWidgets import QApplication

    from tessil.core.snags import Stage
    from tessil.ui.window import Window

    window = Window()
    window.open_demo("rehearsal-satchel")
    window.desk.look(stage=Stage.QUILT)
    window.show()
    QApplication.processEvents()

    def once(at: int) -> None:
        window.bench.zoom_by(1.02 if at % 40 < 20 else 1 / 1.02)
        window.bench.repaint()

    print(f"bench repaint while zooming: {percentiles(timed(once, 200))}")


def main() -> None:
    """All measurements."""
    with tempfile.TemporaryDirectory() as state:
        os.environ["XDG_STATE_HOME"] = os.environ["XDG_DATA_HOME"] = state
        Path(state).mkdir(exist_ok=True)
        start_up()
        planning()
        typing()
        painting()
        lines(percentiles, timed)
        fitting(percentiles, timed)
        sliding(percentiles)
        biasing(percentiles, timed)
        layouts()
        courses()
        pieces_on_the_bench(percentiles, timed)
    peak = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024
    print(f"peak memory of this run: {peak:.0f} MB")


if __name__ == "__main__":
    main()
