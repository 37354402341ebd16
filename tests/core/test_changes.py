"""What moved where nobody looked: by hand on a tote of 11 × 12 × 3 that is made 12 wide."""

from tessil.core.changes import moved
from tessil.core.edits import applied, edit
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tessil.core.snags import Stage
from tests.conftest import tote

F = Fraction


def pair(change, units="inch"):
    before = tote(units=units)
    return plan(before), plan(applied(before, edit("", change)))


WIDER = ("shape.sizes.width", F(12))
BINDING = ("binding.cut", F(5, 2))


def test_three_are_told_with_their_panel_rung_and_side_and_the_rest_counted():
    """An inch more everywhere; a strip that lies level is longer by it."""
    said = moved(*pair(WIDER), Stage.PIECE, "front")
    assert said.startswith("back piece, height 15¾ → 16¾, back pieced, width 15¾ → 16¾, back ")
    assert said.endswith(" and 7 more")
    other = moved(*pair(WIDER), Stage.PIECE, "back")
    assert other == said.replace("back", "front")


def test_what_is_in_sight_is_not_told():
    """At the edges the binding; at the cutting what is bought, here of cloth half so wide."""
    before, after = pair(BINDING)
    assert moved(before, after, Stage.PIECE, "front").startswith("binding, cut 2 → 2½, binding, ")
    assert moved(before, after, Stage.EDGE, "front") == ""
    narrow = pair(("stock.usable_width", F(20)))  # of 40: two strips, a join that takes 2
    joined = "binding strips 1 → 2, joins 0 → 1, joined, they reach 40 → 38"
    assert moved(*narrow, Stage.PIECE, "front") == f"{joined} and 3 more"
    assert moved(*narrow, Stage.CUT, "front") == joined


def test_nothing_is_said_where_nothing_moved():
    one, _ = pair(WIDER)
    assert moved(one, one, Stage.PIECE, "front") == ""


def test_centimetres_are_said_once():
    said = moved(*pair(WIDER, units="metric"), Stage.PIECE, "front")
    assert said.startswith("back piece, height 40 → 42.5 cm, ")


def test_three_or_fewer_are_told_without_a_count():
    said = moved(*pair(BINDING), Stage.PIECE, "front")
    assert 1 <= said.count("→") <= 3
    assert "more" not in said
