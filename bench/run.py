"""Measures speed and memory and prints ratios and percentiles; asserts nothing.

Run by ``make bench``.  Figures depend on the machine; compare runs on one machine only.
"""

from __future__ import annotations

import gc
import os
import resource
import statistics
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable
from importlib.resources import files
from pathlib import Path
from typing import TYPE_CHECKING

from msgspec.structs import replace

from tessil.core.numbers.exact import Fraction

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")

from edges import biasing
from layouts import courses, layouts, pieces_on_the_bench
from quilting import fitting, lines, sliding
from timing import Spent, now, percentiles, since, timed

if TYPE_CHECKING:
    from tessil.core.bag.net import Net
    from tessil.core.planned import Plan
    from tessil.core.project import Project
    from tessil.ui.window import Window

EMPTY = """
import time; begun, worked = time.perf_counter(), time.process_time()
from PySide6.QtWidgets import QApplication, QMainWindow
app = QApplication([]); window = QMainWindow(); window.resize(1280, 800); window.show()
while not window.windowHandle().isExposed(): app.processEvents()
app.processEvents(); print(time.perf_counter() - begun, time.process_time() - worked, PEAK)
"""
TESSIL = """
import time; begun, worked = time.perf_counter(), time.process_time()
from tessil.ui.app import furnish, make_app
from tessil.ui.shell import Shell
app = make_app(); shell = Shell(); shell.show()
while not shell.windowHandle().isExposed(): app.processEvents()
app.processEvents(); print(time.perf_counter() - begun, time.process_time() - worked, PEAK)
furnish(app, shell, None, True)
app.processEvents(); print(time.perf_counter() - begun, time.process_time() - worked, PEAK)
from tessil.core.numbers.decided import ready
from tessil.core.project import Job, Project
ready(Project, Job)
print(time.perf_counter() - begun, time.process_time() - worked, PEAK)
"""
# Of the program alone: what the toolkit of measuring tells of a child begins with its parent's.
PEAK = (
    "int(next(line for line in open('/proc/self/status') if line.startswith('VmHWM')).split()[1])"
    " / 1024"
)


def afresh(net: Net) -> Net:
    """The same net in rows of its own, of which nothing is remembered."""
    return replace(net, sheets=(*net.sheets,), seams=(*net.seams,), tapes=(*net.tapes,))


def start_up() -> None:
    """Time to a visible window, Tessil with its demo against an empty one, by turns: on the clock,
    of the processor, and how much memory at most; and with what checks an entry, which the program
    builds beside the window once that is there."""
    after = ("visible", "furnished", "ready to check entries")
    runs: dict[str, list[list[float]]] = {name: [] for name in ("empty", *after)}
    home = tempfile.mkdtemp()  # of a maker who starts for the first time, with nothing kept
    clean = os.environ | {f"XDG_{name}_HOME": home for name in ("STATE", "DATA", "CONFIG")}
    for _ in range(7):
        for names, code in ((("empty",), EMPTY), (after, TESSIL)):
            done = subprocess.run(
                [sys.executable, "-c", code.replace("PEAK", PEAK)],
                capture_output=True,
                text=True,
                check=True,
                env=clean,
            )
            for name, line in zip(names, done.stdout.splitlines(), strict=True):
                runs[name].append([float(word) for word in line.split()])
    medians = {
        name: [statistics.median(column) for column in zip(*found, strict=True)]
        for name, found in runs.items()
    }
    for name, (clock, processor, peak) in medians.items():
        base = medians["empty"]
        print(
            f"start, {name}: {clock:.3f} s on the clock (ratio {clock / base[0]:.2f}), "
            f"{processor:.3f} s of the processor (ratio {processor / base[1]:.2f}), "
            f"peak {peak:.0f} MB (ratio {peak / base[2]:.2f})"
        )


def planning() -> None:
    """plan() fresh and with a memory: after a gap, a name, a number; of sixty panels.  All
    that a plan has is asked for; what is there at once, for a bench that follows each letter, is
    told beside it."""
    from tessil.core.choosing import choose
    from tessil.core.edits import applied, edit
    from tessil.core.memory.recall import Memory
    from tessil.core.plan import plan

    def of(jobs: list[Project], memory: Memory | None) -> Callable[[int], object]:
        return lambda at: plan(jobs[at % len(jobs)], memory=memory).complete()

    def at_once(jobs: list[Project], memory: Memory | None) -> list[Spent]:
        """What it takes until the bench can be drawn; the rest follows untimed."""
        times = []
        for at in range(200):
            begun = now()
            made = plan(jobs[at % len(jobs)], memory=memory)
            times.append(since(begun))
            made.complete()
        return times

    for name, demo in demo_bags().items():
        made = plan(demo)
        gaps = [
            applied(demo, choose(demo, made.lead.panel, "", ("quilting.gap", 1 + Fraction(at, 16))))
            for at in range(16)
        ]
        names = [applied(demo, edit("", ("name", f"Bag {at}"))) for at in range(16)]
        numbers = [applied(demo, edit("", ("bags", 1 + at))) for at in range(16)]
        for words, jobs, memory in (
            ("fresh", gaps, None),
            ("another gap", gaps, Memory()),
            ("another name", names, Memory()),
            ("another number", numbers, Memory()),
        ):
            all_of_it = percentiles(timed(of(jobs, memory), 200))
            first_of_it = percentiles(at_once(jobs, memory))
            print(f"plan({name}), {words}: {all_of_it}; at once {first_of_it}")
    demo = demo_bags()["rehearsal-satchel"]
    gaps = [
        applied(demo, edit("", ("panels.front.quilting.gap", 1 + Fraction(at, 16))))
        for at in range(16)
    ]
    many = 60 // len(plan(demo).panels)
    memories = [Memory() for _ in range(many)]

    def first(at: int) -> list[Plan]:
        return [plan(gaps[(at + bag) % 16]) for bag in range(many)]

    def first_whole(at: int) -> list[Plan]:
        return [made.complete() for made in first(at)]

    def again(at: int) -> None:
        for bag, memory in enumerate(memories):
            plan(gaps[at % 16] if not bag else demo, memory=memory).complete()

    print(f"plan of 60 panels, fresh: {percentiles(timed(first_whole, 20))}")
    print(f"plan of 60 panels, fresh, at once: {percentiles(timed(first, 20))}")
    print(f"plan of 60 panels, one edit in them: {percentiles(timed(again, 60))}")


def demo_bags() -> dict[str, Project]:
    """The demo bags by name."""
    from tessil.files.projectfile import from_text

    names = ("rehearsal-satchel", "reed-pouch", "march-card-clutch", "mute-sack")
    folder = files("tessil") / "demo"
    return {
        name: from_text((folder / f"{name}.tessil").read_text("utf-8")).project() for name in names
    }


def furnished() -> Window:
    """The window with its demo, furnished as the program does it."""
    from PySide6.QtWidgets import QApplication

    from tessil.core.memory.collecting import uncollected
    from tessil.core.numbers.decided import ready
    from tessil.core.project import Job, Project
    from tessil.ui.app import dress, make_app
    from tessil.ui.window import Window

    app = make_app()
    ready(Project, Job)  # as the program does, beside the window
    dress(app)
    with uncollected():
        window = Window()
        window.open_demo()
        window.resize(1280, 800)
        window.show()
        QApplication.processEvents()
        gc.freeze()
    return window


def typing() -> None:
    """A key typed in a field of the real window to the bench repainted, offscreen, and all else
    that follows it once the hand rests: the fields of sizes and gaps where a stage has one, else
    the bag's name; and a turn to another stage."""
    from PySide6.QtTest import QTest
    from PySide6.QtWidgets import QApplication

    from tessil.core.snags import Stage

    window = furnished()
    fields = {
        Stage.QUILT: ("panel.quilting.gap", "1234"),
        Stage.BRIEF: ("hold.things.0.width", "789"),
        Stage.PIECE: ("panel.piecing.strip_cut", "234"),
        Stage.TRIM: ("snap.offset", "12"),
        Stage.EDGE: ("binding.cut", "23"),
        Stage.LAYER: ("oversize.squaring", "12"),
    }

    def pressed(field: object, digits: str) -> tuple[list[Spent], list[Spent]]:
        """Of forty keys: until the bench shows it, and what all else takes after that."""
        bench, rest = [], []
        for at in range(40):
            begun = now()
            field.selectAll()  # type: ignore[attr-defined]
            QTest.keyClicks(QApplication.focusWidget(), digits[at % len(digits)])
            QApplication.processEvents()
            bench.append(since(begun))
            begun = now()
            if window.late.waits:
                window.late.now()
            QApplication.processEvents()
            rest.append(since(begun))
        return bench, rest

    for at, bag in enumerate(window.desk.job.bags):
        window.desk.turn_to(at)
        for stage in Stage:
            window.desk.look(stage=stage)
            if stage is Stage.BRIEF:
                window.desk.turn_leaf("holds")  # its fields are asked, not the sizes
            QApplication.processEvents()
            key, digits = fields.get(stage, ("", "ab"))
            row = window.column.fields.get(key)
            field = row.field if row is not None else window.name
            field.setFocus()
            where = key if row is not None else "name"
            times, rest = pressed(field, digits if row is not None else "ab")
            print(f"key in {bag.name}, {stage}, {where}: {percentiles(times)}")
            print(f"  and all else after it: {percentiles(rest)}")
    window.desk.turn_to(0)
    stages = list(Stage)

    def turn(at: int) -> None:
        window.desk.look(stage=stages[at % len(stages)])
        QApplication.processEvents()

    print(f"turn to another stage: {percentiles(timed(turn, 80))}")


def logbook() -> None:
    """A logbook of five hundred swatches: its page opened, and a key in it."""
    from PySide6.QtTest import QTest
    from PySide6.QtWidgets import QApplication

    window = furnished()
    swatches = window.desk.book.swatches
    many = tuple(swatches[at % len(swatches)].model_copy() for at in range(500))
    book = window.desk.book.model_copy(update={"swatches": many})
    window.desk.learn(book)

    def opened(at: int) -> None:
        window.pages.setCurrentWidget(window.work)
        window.show_log()
        QApplication.processEvents()

    print(f"logbook of 500 swatches, opened: {percentiles(timed(opened, 20))}")
    field = window.log_page.rows["name"].field
    field.setFocus()

    def key(at: int) -> None:
        field.selectAll()
        QTest.keyClicks(QApplication.focusWidget(), "ab"[at % 2])
        QApplication.processEvents()

    print(f"logbook of 500 swatches, a key: {percentiles(timed(key, 20))}")


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


def turning() -> None:
    """The sewn model by itself; the bag turned and folded under the hand to the bench repainted:
    the demo, and a tote of some 2,700 pieces."""
    from PySide6.QtWidgets import QApplication

    from tessil.core.choosing import choose
    from tessil.core.edits import applied, edit
    from tessil.core.plan import plan
    from tessil.core.project import job_of
    from tessil.core.sewn.faces import looks_of
    from tessil.core.sewn.placing import Sewn
    from tessil.core.snags import Stage

    demos = demo_bags()
    for name, demo in demos.items():
        net = plan(demo).bag.net
        times = timed(lambda _, net=net: looks_of(Sewn(afresh(net))), 60)
        print(f"sewn model of {name}: {percentiles(times)}")
    window = furnished()
    plain = applied(demos["rehearsal-satchel"], edit("", ("shape.kind", "tote")))
    lead = plan(plain).lead.panel
    many = applied(
        plain,
        choose(
            plain,
            lead,
            "",
            ("piecing.way", "squares"),
            ("piecing.square", Fraction(7, 8)),
            ("quilting.pattern", "none"),
        ),
    )
    for name, project in (("the demo", demos["rehearsal-satchel"]), ("many pieces", many)):
        window.desk.open(job_of(project), None)
        window.desk.look(stage=Stage.BRIEF)
        QApplication.processEvents()
        number = sum(len(panel.patches) for panel in window.desk.plan.panels)

        def turn(_: int) -> None:
            window.desk.turn_by(3, 0)
            window.bench.repaint()

        def fold(at: int) -> None:
            window.desk.fold_to(abs(at % 40 - 20) / 20)
            window.bench.repaint()

        timed(turn, 3)
        print(f"turn {name}, {number} pieces, repainted: {percentiles(timed(turn, 120))}")
        print(f"fold {name} up, repainted: {percentiles(timed(fold, 120))}")


def proposing() -> None:
    """Three bags of a heap, and the dearest single bag that is tried."""
    from tessil.core.proposals.offers import Asked, best, offer, ways
    from tessil.core.proposals.said import read_heap

    for text in ("forty 2½ squares", "ten strips 2½ wide", "six fat quarters"):
        heap, took, found = read_heap(text), [], []
        for laid in ways(heap):
            begun = time.perf_counter()
            one = offer(heap, Asked(), laid)
            took.append(time.perf_counter() - begun)
            found += [one] if one is not None else []
        used = [one.used for one in best(found)]
        print(f"bags of {text}, using {used}: {sum(took):.2f} s, the dearest {max(took):.2f} s")


def main() -> None:
    """All measurements."""
    with tempfile.TemporaryDirectory() as state:
        os.environ["XDG_STATE_HOME"] = os.environ["XDG_DATA_HOME"] = state
        Path(state).mkdir(exist_ok=True)
        start_up()
        planning()
        proposing()
        typing()
        logbook()
        painting()
        turning()
        lines()
        fitting()
        sliding()
        biasing()
        layouts()
        courses()
        pieces_on_the_bench()
    peak = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024
    print(f"peak memory of this run: {peak:.0f} MB")


if __name__ == "__main__":
    main()
