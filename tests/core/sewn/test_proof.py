"""Every bag proves itself: sewn up, its seams lie on one another and its size is the one stated.

Every shape with every choice it offers, over random sizes, corners in every school.
"""

from itertools import pairwise, product
from math import dist
from random import Random

import pytest
import shapely

from tessil.core.bag.net import Seam
from tessil.core.brief.choice import Seams
from tessil.core.edits import applied, edit
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.sizes import SIDES
from tessil.core.plan import plan
from tessil.core.sewn.facets import stitched
from tessil.core.sewn.placing import Sewn, spans
from tessil.core.shapes import SHAPES
from tessil.core.shapes.carry_choices import OPTIONS
from tessil.core.trouble import CannotPlan
from tests.conftest import tote

F = Fraction
HAIR = 1e-6
STEPS = 6
APART = frozenset({"flap"})  # lies over the bag and is no part of its size
# What only hangs on the bag changes nothing of how it folds.
HANGING = tuple(option.key for kinds in OPTIONS.values() for option in kinds)
OF_ONE_SIDE = tuple(f"edge_{side}" for side in SIDES)  # of a panel that is not folded
CASES = [
    (key, dict(zip((option.key for option in options), chosen, strict=True)))
    for key, options in (
        (key, [option for option in shape.options if option.key not in (*HANGING, *OF_ONE_SIDE)])
        for key, shape in SHAPES.items()
    )
    for chosen in product(*([name for name, _ in option.choices[:3]] for option in options))
]


def bags_of(key, options, number=2):
    """Bags of a shape with these options: as it starts, and of random sizes."""
    chance = Random(f"{key} {sorted(options.items())}")
    found = []
    shape = SHAPES[key]
    for at in range(40 * number):
        sizes = {
            field.key: field.start * (1 if not at else F(chance.randint(9, 24), 16))
            for field in shape.fields
            if field.way in ("finished", "always")
        }
        seams = Seams(side=F(chance.randint(2, 10), 16), corner=F(chance.randint(2, 8), 16))
        change = edit(
            "",
            ("shape.kind", key),
            ("shape.way", "finished"),
            ("shape.sizes", sizes),
            ("shape.options", options),
            ("corner", ("cut", "line", "pinch")[at % 3]),
            ("seams", seams if at else Seams()),
        )
        try:
            found.append(plan(applied(tote(), change)).bag)
        except CannotPlan:
            continue
        if len(found) == number:
            break
    return found


def _near(point, line):
    """How far a point lies from a row of points joined by straight lines."""
    best = min(dist(point, other) for other in line)
    for a, b in pairwise(line):
        square = dist(a, b) ** 2
        if square > HAIR:
            t = sum((p - x) * (y - x) for p, x, y in zip(point, a, b, strict=True)) / square
            if 0 <= t <= 1:
                foot = tuple(x + t * (y - x) for x, y in zip(a, b, strict=True))
                best = min(best, dist(point, foot))
    return best


def _lines(sewn, sides):
    return [point for side in sides for point in sewn.along(side, STEPS, sewn.shut)]


def off(sewn: Seam, seam):
    """How far apart the two lines of a seam lie at most."""
    one, other = _lines(sewn, seam.one), _lines(sewn, seam.other)
    if len(seam.one) == len(seam.other) == 1:
        return max(dist(p, q) for p, q in zip(one, reversed(other), strict=True))
    return max(*(_near(p, other) for p in one), *(_near(p, one) for p in other))


@pytest.mark.parametrize(("key", "options"), CASES, ids=str)
def test_seams_lie_on_one_another_and_sizes_are_as_stated(key, options):
    bags = bags_of(key, options)
    assert len(bags) == 2
    for bag in bags:
        sewn = Sewn(bag.net)
        poses = sewn.shut
        assert set(poses) == set(sewn.pieces)  # everything hangs on something
        for seam in bag.net.seams:
            assert off(sewn, seam) <= float(seam.ease or 0) + HAIR, seam.key
            lengths = [sum(sewn.long(side) for side in sides) for sides in (seam.one, seam.other)]
            assert abs(lengths[0] - lengths[1]) <= float(seam.ease or 0) + HAIR, seam.key
        wide, high, deep = spans(sewn, poses, APART)
        stated = [float(figure.value) for figure in bag.finished]
        if bag.words[0] == "long":  # a zip bag tells across before its height
            assert (wide, deep, high) == pytest.approx(tuple(stated), abs=1e-6)
        elif len(stated) == 3:
            assert (wide, high, deep) == pytest.approx(tuple(stated), abs=1e-6)
        else:
            assert (wide, high) == pytest.approx(tuple(stated), abs=1e-6)
            assert deep == pytest.approx(0, abs=1e-6)


@pytest.mark.parametrize("key", list(SHAPES))
def test_every_part_of_a_panel_is_in_a_facet_or_in_a_seam(key):
    """Facets do not overlap and fill what the stitch lines enclose; by shapely."""
    options = {option.key: option.start for option in SHAPES[key].options}
    for bag in bags_of(key, options):
        sewn = Sewn(bag.net)
        for sheet in bag.net.sheets:
            inside = shapely.Polygon(stitched(sheet.edges)[0])
            parts = [shapely.Polygon(facet.corners) for facet in sewn.facets[sheet.panel]]
            assert all(part.is_valid and part.area > 1e-4 for part in parts)
            assert sum(part.area for part in parts) == pytest.approx(inside.area, abs=1e-6)
            assert shapely.union_all(parts).area == pytest.approx(inside.area, abs=1e-6)
            outline = shapely.Polygon(
                [(float(x), float(y)) for x, y in bag.panel(sheet.panel).outline]
            )
            assert outline.buffer(1e-6).contains(inside)


@pytest.mark.parametrize("key", list(SHAPES))
def test_facets_keep_their_size_and_meet_at_their_creases(key):
    options = {option.key: option.start for option in SHAPES[key].options}
    for bag in bags_of(key, options, 2):
        sewn = Sewn(bag.net)
        for fold in (0.0, 0.3, 1.0):
            poses = sewn.placed(fold)
            for piece, pose in poses.items():
                corners, placed = sewn.facet(piece).corners, sewn.outline(piece, pose)
                flat = [dist(a, b) for a, b in pairwise(corners)]
                there = [dist(a, b) for a, b in pairwise(placed)]
                assert flat == pytest.approx(there, abs=1e-9)
            for holder, piece, hold in sewn.tree:
                for point in (hold.start, hold.end):
                    if hold.own is None:
                        there = poses[piece].at(point)
                        assert dist(poses[holder].at(point), there) < HAIR


@pytest.mark.parametrize("lies", ["middle", "edge"])
def test_a_zip_bag_is_a_closed_box_of_the_volume_stated(lies):
    """Its facets as a mesh, by trimesh: watertight, and as large inside as the figure says."""
    import trimesh  # heavy: only where it is used

    for bag in bags_of("boxed-zip", {"zip_lies": lies, "zip_ends": "wide", "wrist": "none"}):
        sewn = Sewn(bag.net)
        triangles = []
        for piece, pose in sewn.shut.items():
            corners = sewn.facet(piece).corners
            for triangle in shapely.constrained_delaunay_triangles(shapely.Polygon(corners)).geoms:
                flat = list(triangle.exterior.coords)[:3]
                triangles.append([pose.at(point) for point in flat])
        solid = trimesh.convex.convex_hull([p for triangle in triangles for p in triangle])
        assert solid.is_watertight
        volume = float(bag.figure("volume-finished").value)
        assert solid.volume == pytest.approx(volume, rel=1e-6)
        skin = sum(trimesh.triangles.area([triangle]).sum() for triangle in triangles)
        assert skin == pytest.approx(solid.area, rel=1e-6)  # every wall once, with none inside


def test_the_two_zip_bags_of_one_panel_have_unlike_proportions():
    """TRADE 4.6: across 2k and C/2 − 2k high, or the other way; one volume."""
    bags = {}
    for lies in ("middle", "edge"):
        change = edit(
            "",
            ("shape.kind", "boxed-zip"),
            ("shape.way", "panel"),
            (
                "shape.sizes",
                {
                    "panel_width": F(12),
                    "panel_height": F(14),
                    "notch_side": F(3, 2),
                    "notch_fold": F(9, 8),
                    "notch_zip": F(1),
                },
            ),
            ("shape.options", {"zip_lies": lies}),
        )
        bags[lies] = plan(applied(tote(), change)).bag
    low, tall = (tuple(f.value for f in bags[lies].finished) for lies in ("middle", "edge"))
    assert low[0] == tall[0]
    assert (low[1], low[2]) == (tall[2], tall[1])
    volumes = {bag.figure("volume-finished").value for bag in bags.values()}
    assert len(volumes) == 1
