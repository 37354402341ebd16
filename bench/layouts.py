"""Layouts, scrap courses and five thousand pieces on the bench: times, and ratios to a solver.

The solver is CP-SAT of OR-tools, a dependency of this bench alone (``requirements-bench.lock``);
without it the times are still measured, and it says that the ratios are not.
"""

from __future__ import annotations

import random
import time
from typing import Any

import numpy as np
from timing import percentiles, timed

from tessil.core.layout.arrange import Problem, arrange
from tessil.core.numbers.exact import Fraction
from tessil.core.piecing.fill import fill_quickly, fill_well
from tessil.core.project import job_of

try:
    from ortools.sat.python import cp_model
except ImportError:  # pragma: no cover - the ratios are then left out
    cp_model = None

SOLVER_SECONDS = 60.0


def grid(side: int, prints: int, each: int | None) -> Problem:
    """Squares side × side, none alike at sides or corners; so many of each print in hand."""
    pairs, same = [], []
    for row in range(side):
        for place in range(side):
            for down, across, price in ((0, 1, 12), (1, 0, 12), (1, 1, 6), (1, -1, 6)):
                other = (row + down, place + across)
                if other[0] < side and 0 <= other[1] < side:
                    pairs.append((row * side + place, other[0] * side + other[1]))
                    same.append(price)
    count = side * side
    return Problem(
        pairs=np.array(pairs),
        same=np.array(same),
        alike=np.zeros(len(pairs), dtype=np.int64),
        classes=np.arange(prints),
        alone=np.zeros((count, prints), dtype=np.int64),
        weights=np.ones(count, dtype=np.int64),
        limits=np.full(prints, -1 if each is None else each),
        fixed=np.full(count, -1),
    )


def _solver(problem: Problem) -> tuple[Any, Any, Any]:
    """The same objective for the solver: amounts hard, broken rules at their prices."""
    model = cp_model.CpModel()
    laid = [
        [model.new_bool_var(f"{at}:{key}") for key in range(problem.prints)]
        for at in range(problem.pieces)
    ]
    for row in laid:
        model.add_exactly_one(row)
    for key, limit in enumerate(problem.limits):
        if limit >= 0:
            model.add(sum(row[key] for row in laid) <= int(limit))
    costs = []
    for (one, other), price in zip(problem.pairs, problem.same, strict=True):
        broken = model.new_bool_var("")
        for key in range(problem.prints):
            model.add_bool_or(laid[one][key].negated(), laid[other][key].negated(), broken)
        costs.append(int(price) * broken)
    model.minimize(sum(costs))
    return model, laid, costs


def exact_cost(problem: Problem) -> tuple[float, float, str]:
    """The solver's cost, its lower bound, and whether that is proved."""
    model, _, _ = _solver(problem)
    solver = cp_model.CpSolver()
    solver.parameters.max_time_in_seconds = SOLVER_SECONDS
    solver.parameters.num_workers = 2
    status = solver.solve(model)
    return solver.objective_value, solver.best_objective_bound, solver.status_name(status)


def layouts() -> None:
    """Arranging against the solver."""
    for side, prints, each in ((8, 8, None), (8, 8, 8), (8, 4, 16), (8, 3, 22), (40, 20, 80)):
        problem = grid(side, prints, each)
        times, costs = [], []
        for seed in range(1, 6):
            begun = time.perf_counter()
            answer = arrange(problem, seed)
            times.append(time.perf_counter() - begun)
            costs.append(answer.cost)
        stock = "as many as wanted" if each is None else f"{each} of each"
        said = (
            f"arrange {side} × {side}, {prints} prints, {stock}: cost {min(costs)} to "
            f"{max(costs)}, slowest of 5 {max(times):.2f} s"
        )
        if cp_model is not None:
            begun = time.perf_counter()
            cost, bound, status = exact_cost(problem)
            took = time.perf_counter() - begun
            ratio = "equal" if max(costs) == bound else f"{max(costs) / max(bound, 1):.2f}"
            said += (
                f"; CP-SAT {cost:.0f} (bound {bound:.0f}, {status.lower()}, {took:.1f} s): "
                f"worst to bound {ratio}"
            )
        print(said)


def exact_over(lengths: list[int], targets: list[int]) -> tuple[int, int, str]:
    """The least that the rows can be over, and the bound proved for it."""
    model = cp_model.CpModel()
    laid = [[model.new_bool_var("") for _ in targets] for _ in lengths]
    for row in laid:
        model.add_at_most_one(row)
    for at, target in enumerate(targets):
        reach = sum(length * row[at] for length, row in zip(lengths, laid, strict=True))
        model.add(reach >= target)
    model.minimize(sum(length * sum(row) for length, row in zip(lengths, laid, strict=True)))
    solver = cp_model.CpSolver()
    solver.parameters.max_time_in_seconds = SOLVER_SECONDS
    solver.parameters.num_workers = 2
    status = solver.solve(model)
    need = sum(targets)
    return (
        round(solver.objective_value) - need,
        round(solver.best_objective_bound) - need,
        solver.status_name(status),
    )


def courses() -> None:
    """Thirty scraps in eighths of an inch filled into courses, against the solver."""
    worst = 0.0
    for seed in range(6):
        draw = random.Random(seed)
        lengths = [draw.randint(20, 76) for _ in range(30)]
        rows = 5 + seed % 3
        target = int(sum(lengths) * (0.85, 0.97)[seed % 2] / rows)
        targets = [target] * rows
        begun = time.perf_counter()
        found = fill_well(lengths, targets, seed=1)
        took = time.perf_counter() - begun
        quick = fill_quickly(lengths, targets)
        used = sum(lengths[at] for row in found.rows for at in row)
        said = (
            f"30 scraps, {rows} courses of {target / 8:.1f} in: {found.over} eighths over of "
            f"{used} used, {took:.2f} s (quickly: {quick.over})"
        )
        if cp_model is not None:
            over, bound, status = exact_over(lengths, targets)
            share = (found.over - over) / max(sum(targets) + over, 1) * 100
            worst = max(worst, found.over - over)
            said += f"; CP-SAT {over} (bound {bound}, {status.lower()}): {share:.2f} % more cloth"
        print(said)
    if cp_model is not None:
        print(f"scrap courses: at worst {worst:.0f} eighths more than the exact solution")


def pieces_on_the_bench() -> None:
    """Frame times of panning and zooming some five thousand pieces."""
    from importlib.resources import files

    from PySide6.QtCore import QPointF
    from PySide6.QtWidgets import QApplication

    from tessil.core.choosing import choose
    from tessil.core.edits import applied, edit
    from tessil.core.plan import plan
    from tessil.core.snags import Stage
    from tessil.files.projectfile import from_text
    from tessil.ui.window import Window

    text = (files("tessil") / "demo" / "march-card-clutch.tessil").read_text("utf-8")
    project = from_text(text).project()
    body = plan(project).panel("body").panel
    sizes = {"panel_width": Fraction(50), "panel_height": Fraction(100), "flap": Fraction(20)}
    project = applied(project, edit("", ("shape.way", "panel"), ("shape.sizes", sizes)))
    project = applied(
        project,
        choose(
            project,
            body,
            "",
            ("piecing.square", Fraction(49, 32)),
            ("piecing.prints", ()),
            ("piecing.laid", 0),
        ),
    )
    begun = time.perf_counter()
    made = plan(project)
    print(f"plan of {len(made.panel('body').patches)} pieces: {time.perf_counter() - begun:.2f} s")
    window = Window()
    window.resize(1280, 800)
    window.open_job(job_of(project), None)
    window.desk.look(stage=Stage.PIECE)
    window.show()
    QApplication.processEvents()
    bench = window.bench

    def zoom(at: int) -> None:
        bench.zoom_by(1.03 if at % 60 < 30 else 1 / 1.03)
        bench.repaint()

    def pan(at: int) -> None:
        bench.shift += QPointF(4 if at % 80 < 40 else -4, 2 if at % 40 < 20 else -2)
        bench.repaint()

    for name, work in (("zooming", zoom), ("panning", pan)):
        print(
            f"frame while {name} {len(made.panel('body').patches)} pieces: "
            f"{percentiles(timed(work, 240))}"
        )
    print(
        f"drawn crisp once the hand rests: {percentiles(timed(lambda _: bench._draw_crisp(), 8))}"
    )
    window.close()
