"""Steps of work as data: in order, each with words, each told in the maker's units."""

import pytest

from tessil.core.bag.steps import Do, Step, one_by_one
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.rulers import rulers
from tessil.core.piecing.choice import Piecing
from tessil.core.plan import plan
from tessil.core.shapes import SHAPES
from tessil.core.trimming.squaring import squaring
from tessil.core.words.steps import STEP_WORDS, told
from tests.conftest import tote
from tests.outside.test_every_shape_on_paper import project_of

F = Fraction
INCH, METRIC = rulers("inch").notation, rulers("metric").notation


def test_steps_follow_one_another():
    steps = one_by_one("top", ("front",), (Do("web.lay"), Do("web.snip"), Do("web.press")))
    assert [step.needs for step in steps] == [(), ("top.web.lay",), ("top.web.snip",)]
    assert {step.on for step in steps} == {("front",)}


def test_lengths_are_told_in_the_makers_units():
    step = Step("a", "bind.mitre", values=(("seam", F(1, 4)),))
    assert told((step,), INCH) == (
        "At each corner stop ¼ before it, fold the strip up and down again, go on from the edge.",
    )
    assert "stop 0.6 cm before it" in told((step,), METRIC)[0]


def test_pressing_is_told_where_the_sentence_wants_it():
    joined = Step("a", "piece.join-row", values=(("number", 5), ("press", "open")))
    alone = Step("b", "piece.press", values=(("press", "side"),))
    assert told((joined, alone), INCH) == (
        "Join the 5 squares of each row; press the short seams open.",
        "Press the seams to one side, the other way in every other row.",
    )


WAYS = ("whole", "strips", "squares", "web", "flip")


@pytest.mark.parametrize("way", WAYS)
def test_the_order_of_a_top_is_a_chain_with_words(way):
    base = tote()
    front = base.panels["front"].model_copy(update={"piecing": Piecing(way=way, border=F(1))})
    order = plan(base.model_copy(update={"panels": {"front": front}})).panel("front").top.order
    ids = [step.id for step in order]
    assert len(set(ids)) == len(ids) > 0
    assert [step.needs for step in order] == [(), *((one,) for one in ids[:-1])]
    assert all("{" not in words for words in told(order, INCH))


@pytest.mark.parametrize("key", list(SHAPES))
def test_every_step_of_every_shape_is_told_whole(key):
    made = plan(project_of(key))
    steps = [step for leaf in made.edge_steps.values() for step in leaf]
    steps += [step for panel in made.panels for step in squaring(panel)]
    steps += [step for panel in made.panels for part in panel.parts for step in part.top.order]
    assert steps
    assert [words for words in told(steps, INCH) if "{" in words or not words.endswith(".")] == []


def test_a_panel_is_squared_by_a_seam_in_its_middle():
    made = plan(tote())
    keep, cut = squaring(made.panel("front"))
    strips = made.panel("front").strips.number.whole
    assert dict(keep.values) == {"one": strips // 2, "two": strips // 2 + 1}
    off = made.panel("front").cut_off
    assert dict(cut.values) == {side: figure.value for side, figure in off.items()}


def test_no_two_kinds_of_step_say_the_same():
    assert len(set(STEP_WORDS.values())) == len(STEP_WORDS)
