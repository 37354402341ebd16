"""A satchel's flap bound instead of turned: nothing lost in seams, its strip, its steps
(by hand)."""

import pytest

from tessil.core.making.acts.whole import making_of, standing
from tessil.core.making.choice import Made
from tessil.core.numbers.exact import Fraction
from tests.core.sewn.test_proof import off
from tests.core.shapes.test_carrying import made

F = Fraction


def satchel(flap="square", edges="bound", **options):
    chosen = {"flap_edges": edges, "flap_shape": flap, "top": "bound", **options}
    return made("satchel", chosen, flap=6, flap_less=F(3, 4))


def told(one, name):
    return one.bag.figure(name).value


def test_it_ends_as_large_as_a_turned_one_and_is_cut_without_its_seams():
    """Both come down as far and are as wide; the turned one has a seam more at each free side."""
    turned, bound = satchel(edges="seam"), satchel()
    for name in ("finished-width-of-the-flap", "flap-comes-down-the-front"):
        assert told(turned, name) == told(bound, name)
    seam = turned.project.seams.side
    width, height = bound.panel("flap").trimmed.values()
    assert turned.panel("flap").trimmed.values() == (width + 2 * seam, height + seam)
    assert bound.panel("flap-lining").trimmed.values() == (width, height)


def test_its_strip_goes_down_along_and_up_with_a_mitre_at_each_corner():
    """10¾ wide and 6 long: 6 + 10¾ + 6, an inch for each of two mitres, one to trim off: 25¾."""
    (strip,) = satchel().edge_strips
    assert strip.edge.key == "flap"
    assert strip.edge.length.value == F(103, 4)
    assert strip.edge.number.whole == 1
    cut = [item for item in satchel().items if item.owner.kind == "edge" and item.owner.keys]
    assert len(cut) == 1
    assert satchel(edges="seam").edge_strips == ()


def test_a_round_one_has_no_mitres_and_wants_bias():
    """Corners of 1½: a quarter of a circle, 2.356, for 3 at either side."""
    one = satchel("round")
    (strip,) = one.edge_strips
    assert float(strip.edge.length.value) == pytest.approx(22.75 - 2 * (3 - 2.356) + 1, abs=0.02)
    assert [snag.fixes[0].words for snag in one.snags if snag.key == "edge.curve"]


@pytest.mark.parametrize("flap", ["round", "square", "envelope"])
@pytest.mark.parametrize("top", ["bound", "turned"])
@pytest.mark.parametrize("base", ["boxed", "none"])
def test_it_is_bound_before_it_is_sewn_on_and_everything_is_sewn(flap, top, base):
    one = satchel(flap, top=top, base=base)
    making = making_of(one, Made())
    whats = [deed.what for deed in making.deeds]
    assert making.broken == ()
    assert standing(making, [deed.id for deed in making.deeds]).facts >= {"finished", "flap made"}
    assert whats.count("bind.flap") == 1
    assert whats.index("bind.flap") < whats.index("flap.baste")
    assert not {"flap.sew", "flap.turn"} & set(whats)
    assert ("bind.sew-front" in whats) == (top == "bound")
    nets = one.bag.net.seams
    assert max(off(one.sewn, seam) - float(seam.ease or 0) for seam in nets) < 1e-6


def test_the_snap_comes_first():
    one = satchel()
    snapped = one.project.model_copy(
        update={"snap": one.project.snap.model_copy(update={"used": True})}
    )
    from tessil.core.plan import plan

    deeds = making_of(plan(snapped), Made()).deeds
    bound = next(deed for deed in deeds if deed.what == "bind.flap")
    assert [gate.fact for gate in bound.gates] == ["snap:male"]
