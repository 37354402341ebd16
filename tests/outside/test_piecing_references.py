"""Piecing against general libraries: networkx, shapely and the HiGHS solver in SciPy."""

from fractions import Fraction
from importlib.resources import files
from itertools import combinations

import networkx as nx
import numpy as np
import pytest
from scipy.optimize import Bounds, LinearConstraint, milp
from shapely.geometry import LineString, Polygon

from tessil.core.catalogue.prints import Print
from tessil.core.edits import applied
from tessil.core.layout.acts.arranging import arranged
from tessil.core.layout.arrange import arrange
from tessil.core.layout.rules import ask
from tessil.core.piecing.fill import fill_well
from tessil.core.plan import plan
from tests.conftest import bag_from
from tests.core.layout.test_touches import squared
from tests.core.piecing.helpers import top
from tests.outside.test_every_shape_on_paper import project_of

F = Fraction


def conflict_graph(plan_, key):
    """Pieces of one panel as nodes; an edge where two touch, flat or once the panel is folded.

    Built from outlines alone, by shapely: touching on the panel, and touching after the lower
    part is reflected in the bottom fold, along either side seam.
    """
    panel = plan_.panel(key)
    shapes = {(p.zone, p.piece): Polygon(p.on_panel) for p in panel.patches}
    graph = nx.Graph()
    for patch in panel.patches:
        graph.add_node((patch.zone, patch.piece), print=patch.print)
    for (a, one), (b, other) in combinations(shapes.items(), 2):
        if one.buffer(1e-7).intersects(other):
            graph.add_edge(a, b, how="flat")
    width, height = panel.trimmed.floats()
    for fold in panel.panel.folds:
        if fold.name != "bottom":
            continue
        y = float(fold.start[1])
        for x in (float(panel.shown["left"]) + 0.05, width - float(panel.shown["right"]) - 0.05):
            upper, lower = LineString([(x, 0), (x, y)]), LineString([(x, y), (x, height)])
            above = {k: s.intersection(upper) for k, s in shapes.items()}
            below = {k: s.intersection(lower) for k, s in shapes.items()}
            for a, one in above.items():
                for b, other in below.items():
                    if a == b or one.is_empty or other.is_empty:
                        continue
                    if one.length < 1e-6 or other.length < 1e-6:
                        continue
                    (_, a1, _, a2), (_, b1, _, b2) = one.bounds, other.bounds
                    if min(a2, 2 * y - b1) - max(a1, 2 * y - b2) > 0.1:
                        graph.add_edge(a, b, how="folded")
    return graph


def clashes(graph):
    """Edges inside one print."""
    prints = nx.get_node_attributes(graph, "print")
    return [(a, b) for a, b in graph.edges if prints[a] == prints[b]]


def test_the_demo_clutch_has_no_edge_inside_a_colour():
    text = (files("tessil") / "demo" / "march-card-clutch.tessil").read_text("utf-8")
    made = plan(bag_from(text))
    graph = conflict_graph(made, "body")
    assert len(graph) == 40
    assert {how for *_, how in graph.edges.data("how")} == {"flat", "folded"}
    assert clashes(graph) == []
    assert made.broken == ()


@pytest.mark.parametrize(
    ("size", "prints", "seed"), [(F(5, 2), 6, 1), (F(5, 2), 9, 4), (F(2), 7, 2), (F(7, 2), 6, 3)]
)
def test_arranged_layouts_are_proper_colourings(size, prints, seed):
    basket = tuple(Print(key=f"p{at}", name=f"Print {at}") for at in range(prints))
    project = squared(project_of("clutch"), "body", square=size)
    project = project.model_copy(update={"prints": basket})
    made = plan(project)
    before = conflict_graph(made, "body")
    asked = ask(made.table)
    after = plan(applied(project, arranged(made, asked, arrange(asked.problem, seed))))
    graph = conflict_graph(after, "body")
    assert set(map(frozenset, graph.edges)) == set(map(frozenset, before.edges))
    assert clashes(graph) == []


def test_what_tessil_takes_for_touching_is_what_the_outlines_say():
    made = plan(squared(project_of("clutch"), "body"))
    graph = conflict_graph(made, "body")
    mine = {
        frozenset(((t.one.zone, t.one.piece), (t.other.zone, t.other.piece)))
        for t in made.table.board.touches
        if t.kind != "worn"
    }
    assert mine == set(map(frozenset, graph.edges))


@pytest.mark.parametrize(
    ("size", "columns", "rows", "expected"),
    [
        ((F(21, 2), F(17, 2)), 5, 4, (F(21, 2), F(17, 2))),
        ((F(33, 2), F(21, 2)), 8, 5, (F(33, 2), F(21, 2))),
        ((F(17, 2), F(37, 2)), 4, 9, (F(17, 2), F(37, 2))),
    ],
)
def test_small_squares_come_out_as_makers_know_them(size, columns, rows, expected):
    """5 × 4 makes 10½ × 8½, 8 × 5 16½ × 10½, 9 rows of 4 18½ × 8½ (common practice, no
    source)."""
    made = top(*size, way="squares")
    assert (made.columns.number.whole, made.rows.number.whole) == (columns, rows)
    assert made.size.values() == expected


def least_over(lengths, targets):
    """The least that so many rows can be over, by the HiGHS solver that SciPy brings."""
    n, rows = len(lengths), len(targets)
    cost = np.tile(np.array(lengths, dtype=float), rows)
    reach = np.zeros((rows, n * rows))
    once = np.zeros((n, n * rows))
    for row in range(rows):
        reach[row, row * n : (row + 1) * n] = lengths
        once[:, row * n : (row + 1) * n] = np.eye(n)
    found = milp(
        cost,
        integrality=np.ones(n * rows),
        bounds=Bounds(0, 1),
        constraints=[LinearConstraint(reach, lb=np.array(targets)), LinearConstraint(once, ub=1)],
        options={"time_limit": 20},
    )
    assert found.status == 0, found.message
    return round(found.fun) - sum(targets)


@pytest.mark.parametrize("seed", range(6))
def test_courses_against_an_exact_solver(seed):
    """Fourteen scraps in eighths of an inch, three courses of ten to eleven inches."""
    draw = np.random.default_rng(seed)
    lengths = [int(v) for v in draw.integers(18, 60, 14)]
    targets = [80, 84, 88]
    exact = least_over(lengths, targets)
    found = fill_well(lengths, targets, seed=1)
    assert found.short == 0
    used = sum(lengths[at] for row in found.rows for at in row)
    assert found.over == used - sum(targets)
    assert found.over <= exact + 0.03 * max(exact, 1)


@pytest.mark.parametrize("angle", [15, 45, 62, -38])
def test_slanted_chords_by_shapely(angle):
    """The longest strip is the longest chord of its band, up to the ruler."""
    made = top(F(27, 2), 10, way="strips", run="diagonal", angle=angle)
    whole = Polygon([(0, 0), (13.5, 0), (13.5, 10), (0, 10)])
    theta = np.radians(angle)
    way = np.array([np.cos(theta), -np.sin(theta)])
    across = np.array([np.sin(theta), np.cos(theta)])
    longest = 0.0
    for patch in made.patches:
        places = np.array(patch.outline) @ across
        low, high = places.min() - 0.25, places.max() + 0.25
        corners = [
            way * t + across * u for t, u in ((-99, low), (99, low), (99, high), (-99, high))
        ]
        band = whole.intersection(Polygon(corners))
        reach = np.array(band.exterior.coords) @ way
        longest = max(longest, reach.max() - reach.min())
    figure = next(line.figure for line in made.lines if line.key == "strips.longest")
    assert longest - 1e-4 <= float(figure.value) < longest + 1 / 8 + 1e-4
