"""The bag while it is sewn: a pouch by hand, every shape by its geometry."""

from itertools import pairwise
from math import dist

import pytest

from tessil.core.bag.ids import EdgeKey
from tessil.core.bag.model import Edge, edge_long
from tessil.core.bag.net import named_seams
from tessil.core.edits import applied, edit
from tessil.core.making.acts.whole import making_of
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.workings import Basis, given
from tessil.core.plan import plan
from tessil.core.sewn.sofar import APART, so_far
from tessil.core.shapes import SHAPES
from tests.conftest import tote


def planned(key):
    sizes = {field.key: field.start for field in SHAPES[key].fields}
    change = edit("", ("shape.kind", key), ("shape.way", "finished"), ("shape.sizes", sizes))
    return plan(applied(tote(), change))


def slugs(made):
    return [slug for slug, _ in named_seams(made.bag.net)]


def touching(sewn, seam, poses):
    """How far the starts of a seam's first sides lie from one another."""
    one = sewn.along(seam.one[0], 4, poses)
    other = sewn.along(seam.other[-1], 4, poses)
    return max(dist(a, b) for a, b in zip(one, reversed(other), strict=True))


@pytest.mark.parametrize("key", SHAPES)
def test_sewn_up_it_is_the_bag_and_before_it_is_flat_and_in_parts(key):
    sewn = planned(key).sewn
    every = frozenset(slug for slug, _ in named_seams(sewn.net))
    assert so_far(sewn, every) == sewn.closed
    begun = so_far(sewn, frozenset())
    assert set(begun) == set(sewn.pieces)
    if every:
        ways = {tuple(round(abs(v), 9) for v in pose.out) for pose in begun.values()}
        assert len(ways) == 1, "everything lies in parallel planes"
    for _, seam in named_seams(sewn.net):
        if seam.hinge:
            assert touching(sewn, seam, begun) >= APART - 1e-6


@pytest.mark.parametrize("key", SHAPES)
def test_nothing_is_stretched_on_the_way(key):
    made = planned(key)
    done = set()
    for slug in slugs(made)[:-1]:
        done.add(slug)
        poses = so_far(made.sewn, frozenset(done))
        for piece, pose in poses.items():
            flat = [dist(a, b) for a, b in pairwise(made.sewn.facet(piece).corners)]
            there = [dist(a, b) for a, b in pairwise(made.sewn.outline(piece, pose))]
            assert flat == pytest.approx(there, abs=1e-9)


def test_two_panels_lie_open_like_a_book_and_close_as_their_sides_are_sewn():
    made = planned("flat-pouch")
    assert {"seam.bottom", "seam.left", "seam.right"} <= set(slugs(made))
    outs = {}
    for done in ((), ("seam.bottom",), ("seam.bottom", "seam.left")):
        poses = so_far(made.sewn, frozenset(done))
        outs[done] = [poses[name, 0, 0].out for name in ("front", "back")]
    assert outs[()][0] == pytest.approx(outs[()][1])
    assert outs["seam.bottom",][0] == pytest.approx(outs["seam.bottom",][1])
    front, back = outs["seam.bottom", "seam.left"]
    assert sum(a * b for a, b in zip(front, back, strict=True)) < 1 - 1e-6


def test_a_flap_is_sewn_to_its_lining_and_held_by_the_back_s_top():
    made = planned("satchel")
    steps = {deed.id: deed for deed in making_of(made, made.project.making).deeds}
    sew, baste = steps["flap.sew"], steps["flap.baste"]
    assert sew.panels == ("flap-lining", "flap")
    assert {key for key, _ in sew.edges} == {"flap-lining", "flap"}
    assert not any(slug == "top" for _, slug in sew.edges)
    assert baste.edges == (("back", "top"), ("flap", "top"))
    flap = made.bag.panel("flap")
    # All round it, less the straight side that stays open.
    outline = [tuple(map(float, point)) for point in flap.outline]
    around = sum(dist(a, b) for a, b in pairwise((*outline, outline[0])))
    assert float(sew.length.value) == pytest.approx(around - float(flap.width.value))
    # It is basted on turned: less its two seams of three eighths.
    assert baste.length.value == flap.width.value - 2 * Fraction(3, 8)


def test_a_slanted_seam_is_as_long_as_its_slant():
    # 3, 4, 5: a side that goes in by three over four is five long.
    half = given("seam", Fraction(1, 2), Basis.CHOSEN)
    edge = Edge(
        EdgeKey("right"), (Fraction(0), Fraction(0)), (Fraction(3), Fraction(4)), "seam", half
    )
    assert edge_long(edge).value == 5
