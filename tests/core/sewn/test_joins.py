"""Every join that edges and thick spots are told by is a seam of the sewn bag."""

from itertools import product

import pytest

from tessil.core.edits import applied, edit
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tessil.core.shapes import SHAPES
from tests.conftest import tote
from tests.core.sewn.test_proof import CASES

F = Fraction


def bag_of(key, options):
    changes = (("shape.kind", key), ("shape.way", "finished"), ("shape.options", options))
    sizes = {f.key: f.start for f in SHAPES[key].fields if f.way in ("finished", "always")}
    return plan(applied(tote(), edit("", *changes, ("shape.sizes", sizes), ("corner", "cut")))).bag


def pairs_of(net):
    """Edges that lie on one another, straight or with a tape between them."""
    tapes = {tape.key for tape in net.tapes}
    met, on_tape = set(), {}
    for seam in net.seams:
        for one, other in product(seam.one, seam.other):
            met.add(frozenset({(one.sheet, one.edge.run), (other.sheet, other.edge.run)}))
            for tape, cloth in ((one, other), (other, one)):
                if tape.sheet in tapes and cloth.sheet not in tapes:
                    on_tape.setdefault(tape.sheet, set()).add((cloth.sheet, cloth.edge.run))
    for edges in on_tape.values():
        met |= {frozenset(pair) for pair in product(edges, repeat=2)}
    return met


@pytest.mark.parametrize(("key", "options"), CASES)
def test_every_join_is_a_seam_of_the_sewn_bag(key, options):
    bag = bag_of(key, options)
    met = pairs_of(bag.net)
    sheets = {sheet.panel for sheet in bag.net.sheets}
    for join in bag.joins:
        if join.kind == "folded":  # each side is sewn to itself
            assert all(
                frozenset({(ref.panel, ref.edge.run)}) in met for ref in (*join.one, *join.other)
            )
            continue
        for one, other in product(join.one, join.other):
            if {one.panel, other.panel} <= sheets:
                pair = frozenset({(one.panel, one.edge.run), (other.panel, other.edge.run)})
                assert pair in met, (join.key, one, other)
