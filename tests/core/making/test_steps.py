"""Every bag can be made: an order exists, no gate breaks in it, nothing is left off or sewn twice.

The order is held against ``networkx``, a general library of graphs.
"""

import itertools
from collections import Counter

import networkx
import pytest

from tessil.core.brief.choice import ShapeChoice
from tessil.core.edges.choice import Piping
from tessil.core.making.acts.whole import deeds_of, making_of, standing
from tessil.core.making.choice import Made
from tessil.core.making.order import before_each, broken_in, ordered
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tessil.core.shapes import SHAPES
from tessil.core.trimming.choice import Mark, Snap
from tessil.core.words.making import GATE_WORDS, deed_words
from tessil.files.projectfile import load
from tests.conftest import DEMO, tote, with_front
from tests.core.piecing.test_foundations import flipped
from tests.outside.test_every_shape_on_paper import project_of

F = Fraction
KIT = DEMO.with_name("kit-of-four.tessil")
LININGS = ("drop-in", "quilted-in", "none")
AT_STRAPS = ("fold-inside", "untwisted")
CORNERS = ("cut", "line", "pinch")


def choices_of(shape, lining):
    """Every choice of a shape, one after the other; how it is carried with one lining only."""
    yield {}
    for option in shape.options:
        asked = {option.only[0]: option.only[1]} if option.only else {}
        for value, _ in (
            option.choices[1:] if option.asks != "carried" or lining == "drop-in" else ()
        ):
            yield {**asked, option.key: value}


def plans():
    """All shapes with each choice of their own, by linings and corners."""
    ways = tuple(itertools.product(LININGS, CORNERS))
    for key, shape in SHAPES.items():
        every = [(own, how, corner) for how, corner in ways for own in choices_of(shape, how)]
        for options, lining, corner in every:
            if corner != "cut" and (options or lining != "drop-in"):
                continue
            lead = shape.leader
            yield plan(
                tote(
                    shape=ShapeChoice(kind=key, options=options),
                    lining=lining,
                    corner=corner,
                    snap=Snap(used=shape.key == "satchel"),
                    piping=Piping(panels=(lead,)),
                    marks=(Mark(kind="slip", panel=lead, x=2, y=3, width=3, height=2),),
                )
            )


@pytest.fixture(scope="module")
def every():
    made = list(plans())
    assert len(made) > 60
    return made


def test_every_bag_has_an_order_in_which_no_gate_breaks(every):
    for made in every:
        making = making_of(made, Made())
        assert making.broken == (), (made.shape.key, made.project.lining)
        assert len({deed.id for deed in making.deeds}) == len(making.deeds)
        Made(done=tuple(deed.id for deed in making.deeds))  # each can stand in a file
        assert standing(making, [deed.id for deed in making.deeds]).facts >= {"finished"}


def test_every_join_is_sewn_once_and_every_part_is_on(every):
    for made in every:
        making = making_of(made, Made())
        given = [fact for deed in making.deeds for fact in deed.gives]
        counted = Counter(seam.key for seam in made.bag.net.seams)
        for key, number in counted.items():
            slugs = [fact for fact in given if fact.partition(":")[2].split(":")[0] == key.slug]
            sewn = [fact for fact in slugs if fact.startswith("sewn:")]
            assert len(set(sewn)) == len(sewn) >= 1, (made.shape.key, key.slug)
            assert len(sewn) == (number if key.what == "box corner" else 1)
        facts = standing(making, [deed.id for deed in making.deeds]).facts
        for one in made.bag.attachments:
            assert f"on:{one.key}" in facts, (made.shape.key, one.key)
        assert "pocket:0" in facts
        if any(one.kind == "snap" for one in made.placed):
            assert {"snap:male", "snap:female"} <= facts
        assert not {"gap left"} & facts  # no bag is finished with its gap open
        for panel in made.panels:
            assert f"trimmed:{panel.key}" in facts


def test_the_order_is_one_that_a_general_library_finds_right(every):
    for made in every[::5]:
        deeds = deeds_of(made)
        before = before_each(deeds)
        graph = networkx.DiGraph(
            [(first, then) for then, firsts in before.items() for first in firsts]
        )
        assert networkx.is_directed_acyclic_graph(graph)
        place = {deed.id: at for at, deed in enumerate(ordered(deeds))}
        assert set(place) == {deed.id for deed in deeds}
        assert all(place[first] < place[then] for first, then in graph.edges)


def test_each_gate_holds_a_hand_back_and_lets_it_go(every):
    """Without the step that makes it so, the gate breaks at its step; with it, it does not."""
    seen = set()
    for made in every:
        deeds = making_of(made, Made()).deeds
        for deed in deeds:
            for gate in deed.gates:
                if gate.holds:
                    without = [one for one in deeds if gate.fact not in one.gives]
                else:  # what must not be so yet: the step comes after it
                    rest = [one for one in deeds if one is not deed]
                    at = next(n for n, one in enumerate(rest) if gate.fact in one.gives)
                    without = [*rest[: at + 1], deed, *rest[at + 1 :]]
                broken = {(one.deed, one.gate) for one in broken_in(without)}
                assert (deed.id, gate.id) in broken
                seen.add(gate.id)
                if len(seen) == len(GATE_WORDS):
                    break
    # The iron and straps are those of the demo's bags.
    assert seen >= set(GATE_WORDS) - {"cool-iron", "upright", *AT_STRAPS}


def test_the_gates_of_the_demo_bags_hold():
    job = load(KIT)
    seen = set()
    for at in range(len(job.bags)):
        deeds = making_of(plan(job.project(at)), Made()).deeds
        assert broken_in(deeds) == ()
        for deed in deeds:
            for gate in deed.gates:
                without = [one for one in deeds if gate.fact not in one.gives]
                if gate.holds:
                    assert (deed.id, gate.id) in {(b.deed, b.gate) for b in broken_in(without)}
                seen.add(gate.id)
    assert seen >= {"cool-iron", "upright", "zip-open", "pull-inside", "gap-left", *AT_STRAPS}


def test_there_are_sixty_kinds_of_step_and_each_has_words(every):
    kinds = set()
    for made in every:
        for deed in making_of(made, Made()).deeds:
            title, sentence = deed_words(deed, "front", "left seam", made.marks.notation)
            assert title
            assert sentence
            assert "{" not in title + sentence, deed.what
            kinds.add(deed.what)
    assert len(kinds) >= 60


def test_a_pouch_is_turned_through_its_open_zipper_and_its_gap_by_hand():
    """By hand: zipper, half open, seams, corners, the lining and its false seam, turned, closed."""
    made = plan(load(DEMO.with_name("reed-pouch.tessil")).project())
    order = [deed.what for deed in making_of(made, Made()).deeds]
    wanted = [
        "cut.all",
        "quilt.sew",
        "trim.cut",
        "zip.sew-lined",
        "zip.pull",
        "zip.trim-ends",
        "zip.open-half",
        "join.folded",
        "join.corner",
        "line.false-seam",
        "turn.gap",
        "gap.close",
        "finish.press",
    ]
    places = [order.index(what) for what in wanted]
    assert places == sorted(places)
    assert order.count("join.corner") == order.count("line.corner") == 4


def test_feet_are_changed_seldom(every):
    """Never more often than in the order in which the rooms tell their steps."""
    for made in every[::7]:
        told = [deed.tool for deed in ordered_as_told(made) if deed.tool]
        kept = [deed.tool for deed in making_of(made, Made()).deeds if deed.tool]
        assert changes(kept) <= changes(told)


def ordered_as_told(made):
    """Panel by panel, as one would who makes one after the other."""
    deeds = deeds_of(made)
    before = before_each(deeds)
    done, left = [], list(deeds)
    while left:
        ready = next(d for d in left if before[d.id] <= {one.id for one in done})
        left.remove(ready)
        done.append(ready)
    return done


def changes(tools):
    return sum(one != other for one, other in itertools.pairwise(tools))


def test_no_step_of_the_edge_stage_is_forgotten(every):
    """Only the look at a strap is told in other words; each is made of what is planned there."""
    seen = set()
    for made in [*every, *(plan(load(KIT).project(at)) for at in range(4))]:
        told = {step.what for steps in made.edge_steps.values() for step in steps}
        has = {deed.what for deed in making_of(made, Made()).deeds}
        assert told - has <= {"strap.check"}, made.shape.key
        assert "strap.check" not in told or "check.untwisted" in has
        seen |= told
    assert seen >= {"bias.join", "strap.ends", "strap.thread", "pipe.cover", "bind.fold"}


def test_a_clutch_without_a_lining_of_its_own_is_not_turned_through_any_gap():
    bag = plan(tote(shape=ShapeChoice(kind="clutch"), lining="quilted-in"))
    kinds = {deed.what for deed in making_of(bag, Made()).deeds}
    assert "edges.turn-in" in kinds
    assert not kinds & {"join.round", "turn.gap", "gap.close"}


def test_a_wrist_loop_and_a_tab_are_on_before_the_seams_that_catch_them():
    """A flat pouch with its loop, and a tote with a ring's tab on its back: neither side first."""
    pouch = plan(tote(shape=ShapeChoice(kind="flat-pouch", options={"wrist": "loop"})))
    order = [deed.id for deed in making_of(pouch, Made()).deeds]
    assert order.index("baste.wrist") < min(order.index(f"sew.seam.{s}") for s in ("left", "right"))
    ring = Mark(kind="d-ring", panel="back", x=5, y=1)
    bag = plan(tote(marks=(ring,)))
    order = [deed.id for deed in making_of(bag, Made()).deeds]
    assert order.index("prepare.tab.0") < order.index("sew.seam.left")


@pytest.mark.parametrize("foundation", ["foundation", "melting", "batting"])
def test_what_is_sewn_on_its_foundation_is_not_laid_on_it_again(foundation):
    made = plan(flipped(foundation))
    under = [
        dict(deed.values)["what"]
        for deed in making_of(made, Made()).deeds
        if deed.what.startswith("layer.") and deed.panels == ("front",) and deed.values
    ]
    laid = [layer.label.lower() for layer in made.panel("front").layers if layer.role == "batting"]
    assert under == ([] if foundation == "batting" else laid)


def test_one_line_is_not_told_as_many():
    for pattern, what in (("meander", "quilt.sew-one"), ("channels", "quilt.sew")):
        made = plan(with_front(tote(), ("quilting.pattern", pattern)))
        steps = {deed.what for deed in making_of(made, Made()).deeds if deed.panels == ("front",)}
        assert steps & {"quilt.sew", "quilt.sew-one"} == {what}


LOOKED_AT = {"piece.measure", "quilt.test", "quilt.measure", "front.measure"}


@pytest.mark.parametrize("key", SHAPES)
def test_what_is_looked_at_and_what_is_made(key):
    """A step that only looks makes nothing, and is told by its own kind."""
    made = plan(project_of(key))
    for deed in making_of(made, Made()).deeds:
        assert deed.check == (deed.what.startswith("check.") or deed.what in LOOKED_AT), deed.what


def test_a_pocket_is_set_so_far_down_and_so_far_from_the_left():
    made = plan(tote(marks=(Mark(kind="slip", panel="front", x=F(7, 2), y=F(5)),)))
    deed = next(one for one in making_of(made, Made()).deeds if one.what == "prepare.slip")
    assert dict(deed.values) == {"what": "slip pocket", "down": 5, "across": F(7, 2)}
