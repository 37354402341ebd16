"""Steps in order, by hand: what waits for what, what breaks, what a maker may move."""

import pytest

from tessil.core.bag.deeds import Broken, Deed, Gate
from tessil.core.edits import applied
from tessil.core.making.acts.doing import (
    done,
    giver,
    left_out,
    noted,
    put_back,
    put_before,
    undone,
    undone_with,
    waits_for,
    went_wrong,
)
from tessil.core.making.acts.state import sewn_share, state_words, way_out
from tessil.core.making.acts.whole import making_of, standing
from tessil.core.making.choice import Made
from tessil.core.making.order import broken_in, moved, ordered, state_after
from tessil.core.plan import plan
from tessil.core.trouble import CannotPlan
from tessil.core.words.mending import mending_words
from tessil.files.projectfile import load
from tests.conftest import DEMO, tote

OPEN = Gate("zip-open", "zip open")
SHUT_LATER = Gate("not-closed", "closed", holds=False)
ZIP = Deed("zip", "zip.open-half", "zipper", gives=("zip open",))
POCKET = Deed("pocket", "prepare.slip", "prepare", gates=(SHUT_LATER,), gives=("pocket",))
SEW = Deed("sew", "join.seam", "assemble", needs=("cut",), gates=(OPEN,), gives=("closed",))
CUT = Deed("cut", "cut.all", "cut", gives=("cut",))


def names(deeds):
    return [deed.id for deed in deeds]


def test_each_step_comes_after_what_it_needs_and_before_what_shuts_it_out():
    assert names(ordered((SEW, POCKET, ZIP, CUT))) == ["cut", "pocket", "zip", "sew"]


def test_a_step_that_ends_a_fact_comes_after_all_that_need_it():
    close = Deed("close", "gap.close", "cut", ends=("gap",), gives=("shut",))
    turn = Deed("turn", "turn.gap", "turn", needs=("gap",))
    leave = Deed("leave", "line.seam-gap", "line", gives=("gap",))
    assert names(ordered((close, turn, leave))) == ["leave", "turn", "close"]
    assert state_after((leave, turn, close)) == {"shut"}


def test_steps_that_wait_for_one_another_are_told_by_name():
    one = Deed("one", "cut.all", "cut", needs=("b",), gives=("a",))
    two = Deed("two", "cut.all", "cut", needs=("a",), gives=("b",))
    with pytest.raises(CannotPlan, match=r"wait for one another: .*(one|two)"):
        ordered((one, two))


def test_what_is_done_too_early_breaks_at_its_gate_and_by_what_is_missing():
    assert broken_in((CUT, ZIP, SEW)) == ()
    assert broken_in((CUT, SEW, ZIP)) == (Broken("sew", "zip-open", "zip open"),)
    assert broken_in((ZIP, SEW, CUT)) == (Broken("sew", "", "cut"),)
    late = broken_in((CUT, ZIP, SEW, POCKET))
    assert late == (Broken("pocket", "not-closed", "closed"),)


def test_a_step_is_moved_before_another_and_nowhere_else():
    order = (CUT, POCKET, ZIP, SEW)
    assert names(moved(order, [("sew", "pocket")])) == ["cut", "sew", "pocket", "zip"]
    assert names(moved(order, [("cut", "sew")])) == ["pocket", "zip", "cut", "sew"]
    assert names(moved(order, [("gone", "sew"), ("cut", "gone"), ("zip", "zip")])) == names(order)


@pytest.fixture(scope="module")
def made():
    return plan(tote())


def after(made, change):
    return applied(made.project, change).making


def test_steps_are_done_taken_back_left_out_and_noted(made):
    nothing = Made()
    making = making_of(made, nothing)
    first, second = making.deeds[:2]
    assert standing(making, nothing.done).next is first
    once = after(made, done(nothing, first.id))
    assert standing(making, once.done).next is second
    assert standing(making, once.done).done == 1
    assert after(made, done(once, first.id)) == once  # done twice is done once
    assert after(made, undone(once, first.id)) == nothing
    without = after(made, left_out(nothing, second.id))
    assert second.id not in names(making_of(made, without).deeds)
    assert after(made, left_out(without, second.id, False)) == nothing
    timed = after(made, done(nothing, first.id, 61.6))
    assert timed.seconds == {first.id: 62}
    assert after(made, done(timed, first.id, 10)).seconds == {first.id: 72}
    assert after(made, done(nothing, first.id, 0.4)).seconds == {}
    kept = after(made, noted(nothing, first.id, "low heat"))
    assert kept.notes == {first.id: "low heat"}
    assert after(made, noted(kept, first.id, "")) == nothing


def test_a_step_put_first_is_broken_until_it_is_put_back(made):
    making = making_of(made, Made())
    last = making.deeds[-1]
    early = after(made, put_before(Made(), last.id, making.deeds[0].id))
    other = making_of(made, early)
    assert other.deeds[0].id == last.id
    assert last.id in {one.deed for one in other.broken}
    back = making_of(made, after(made, put_back(early, last.id)))
    assert names(back.deeds) == names(making.deeds)
    assert back.broken == ()


def test_what_is_left_out_keeps_those_back_that_need_it(made):
    making = making_of(made, Made())
    caught = next(deed for deed in making.deeds if deed.what == "check.caught")
    without = making_of(made, after(made, left_out(Made(), caught.id)))
    assert ("turn", "caught") in {(one.deed, one.gate) for one in without.broken}


def test_a_step_waits_until_what_it_needs_is_done(made):
    making = making_of(made, Made())
    turn = making.deed("turn")
    waits = waits_for(making, Made(), turn)
    assert {one.gate for one in waits} >= {"caught", "clipped"}
    assert giver(making, "clipped").what == "shell.clip"
    before = making.deeds[: making.deeds.index(turn)]
    ready = Made(done=tuple(deed.id for deed in before))
    assert waits_for(making, ready, turn) == []
    assert waits_for(making, Made(done=("turn",)), turn) == []


def test_steps_of_another_plan_count_for_nothing(made):
    making = making_of(made, Made(done=("no such step",), skipped=("nor this",)))
    assert standing(making, ("no such step",)).done == 0
    assert making.broken == ()


def test_a_changed_order_that_breaks_a_gate_is_a_snag_with_a_way_back(made):
    making = making_of(made, Made())
    caught = next(deed for deed in making.deeds if deed.what == "check.caught")
    project = applied(made.project, left_out(made.project.making, caught.id))
    snags = [snag for snag in plan(project).snags if snag.stage == "make"]
    assert [snag.key for snag in snags] == ["make.caught.turn"]
    (fix,) = snags[0].fixes
    assert applied(project, fix).making == Made()
    turn = applied(made.project, put_before(Made(), "turn", "shell.clip"))
    keys = {snag.key for snag in plan(turn).snags if snag.stage == "make"}
    assert keys == {"make.clipped.turn"}
    (back,) = next(s for s in plan(turn).snags if s.key == "make.clipped.turn").fixes
    assert applied(turn, back).making == Made()


def test_the_bag_as_it_is_now_is_told_by_what_is_sewn():
    """The pouch by hand: eight seams (two of the zipper, two ends, four corners); a gap of 2½."""
    pouch = plan(load(DEMO.with_name("reed-pouch.tessil")).project())
    deeds = making_of(pouch, Made()).deeds
    facts = frozenset()
    assert sewn_share(pouch, facts) == 0
    assert next(state_words(pouch, facts)).startswith("0 of 8 seams")
    assert way_out(pouch, facts)[0] == "open"
    at = [deed.id for deed in deeds].index("turn")
    before = state_after(deeds[:at])
    assert sewn_share(pouch, before) == 1
    assert way_out(pouch, before) == ("gap", pouch.gap)
    assert "It is wrong side out." in tuple(state_words(pouch, before))
    after_ = state_after(deeds)
    said = tuple(state_words(pouch, after_))
    assert "8 of 8 seams of the outside are sewn." in said
    assert "It is right side out." in said
    assert any(one.startswith("The way out is the open zipper") for one in said)
    shut = after_ - {"zip open"}
    assert way_out(pouch, shut)[0] == "shut"


def test_a_tote_is_reached_through_its_top(made):
    facts = state_after(making_of(made, Made()).deeds)
    assert way_out(made, facts) == ("mouth", made.bag.opening)
    assert "The lining is closed: nothing can be set into it any more." in state_words(made, facts)


def test_a_seam_left_out_is_a_snag_that_says_how_many_wait(made):
    seam = next(deed for deed in making_of(made, Made()).deeds if deed.what == "join.seam")
    project = applied(made.project, left_out(Made(), seam.id))
    snags = [snag for snag in plan(project).snags if snag.key == f"make.waits.{seam.id}"]
    assert len(snags) == 1
    assert snags[0].title.endswith("seam: left out")
    assert applied(project, snags[0].fixes[0]).making == Made()


def test_what_went_wrong_takes_back_all_that_rests_on_it_and_nothing_else():
    """The pouch turned and closed, and a missed layer is found: turning and gap go with it, and the
    zipper, sewn before, stays."""
    pouch = plan(load(DEMO.with_name("reed-pouch.tessil")).project())
    making = making_of(pouch, Made())
    every = Made(done=tuple(deed.id for deed in making.deeds))
    caught = next(deed for deed in making.deeds if deed.what == "check.caught")
    lost = {deed.what for deed in undone_with(making, every, caught.id)}
    assert {"check.caught", "turn.gap", "gap.close", "finish.press", "check.finished"} <= lost
    assert not lost & {"zip.sew-lined", "join.folded", "join.corner", "quilt.sew", "trim.cut"}
    change, _ = went_wrong(making, every, caught.id)
    again = after(pouch, change)
    assert standing(making, again.done).next is caught
    assert broken_in(deed for deed in making.deeds if deed.id in again.done) == ()
    trimmed = next(deed for deed in making.deeds if deed.what == "trim.cut")
    lost = {deed.what for deed in undone_with(making, every, trimmed.id)}
    assert {"trim.cut", "zip.sew-lined", "join.corner", "turn.gap"} <= lost
    assert not lost & {"quilt.sew", "cut.all"}
    assert undone_with(making, Made(), caught.id) == ()


def test_there_is_a_way_to_mend_every_step(made):
    for deed in making_of(made, Made()).deeds:
        assert mending_words(deed.what).endswith(".")
    assert "ladder" in mending_words("trim.cut")
    assert "4 in (10 cm)" in mending_words("turn.gap")
