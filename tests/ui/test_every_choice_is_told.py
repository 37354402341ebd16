"""Every choice of every shape, and every way of making a strap, told wherever the window tells it:
the answers of the brief, the figures and pictures of the edges, the words of the steps."""

from typing import get_args

import pytest

from tessil.core.brief.choice import LiningIn
from tessil.core.edges.choice import Strap
from tessil.core.making.acts.telling import told
from tessil.core.making.acts.whole import making_of
from tessil.core.making.choice import Made
from tessil.core.plan import plan
from tessil.core.readings import readings
from tessil.core.shapes import SHAPES
from tessil.core.snags import Stage
from tessil.drawing.pictures import View, picture_of
from tessil.ui.edge_specs import edge_specs
from tessil.ui.talk import TOPICS
from tests.core.shapes.test_carrying import FIRST, made

LEAVES = ("binding", "bias", "piping", "straps", "closing")
WAYS = [
    (key, option.key, value)
    for key, shape in SHAPES.items()
    for option in shape.options
    for value, _ in option.choices
]


def all_told(one):
    """All that is said of a bag for choices of its shape and its edges; every text of it."""
    texts = []
    for topic in TOPICS:
        fields = list(topic.fields(one))
        texts.append(topic.answer(one, fields))
    lead = one.shape.leader
    for leaf in LEAVES:
        texts += [spec.label for spec in edge_specs(one, leaf)]
        picture = picture_of(one, View(Stage.EDGE, lead, leaf=leaf))
        texts.append(picture.caption)
    texts += [reading.figure.label for reading in readings(one, Stage.EDGE, lead)]
    for deed in making_of(one, Made()).deeds:
        texts += told(one, deed)
    return texts


@pytest.mark.parametrize(("key", "option", "value"), WAYS)
def test_a_choice_of_a_shape_is_told_everywhere(key, option, value):
    asked = next(one for one in SHAPES[key].options if one.key == option)
    begun = {asked.only[0]: asked.only[1]} if asked.only else {}
    kind = next((kind for kind in FIRST if kind in begun), "")
    one = made(key, {**begun, **({kind: FIRST[kind]} if kind else {}), option: value})
    assert not [text for text in all_told(one) if "{" in text]


@pytest.mark.parametrize("way", get_args(LiningIn))
@pytest.mark.parametrize("key", SHAPES)
def test_a_way_of_putting_a_lining_in_is_told_whatever_shape_it_was_chosen_for(key, way):
    more = {"lining_in": way, "lining": "drop-in"}
    one = plan(made(key, {}).project.model_copy(update=more))
    assert not [text for text in all_told(one) if "{" in text]
    fields = [spec for topic in TOPICS for spec in topic.fields(one) if spec.key == "lining_in"]
    assert all(spec.value in dict(spec.choices) for spec in fields)


@pytest.mark.parametrize("way", ["cloth", "webbing", "covered", "underside"])
@pytest.mark.parametrize("key", [key for key, shape in SHAPES.items() if shape.carries])
def test_a_way_of_making_straps_is_told_everywhere(key, way):
    base = made(key, {"strap": "one"}).project.model_copy(update={"strap": Strap(made=way)})
    assert not [text for text in all_told(plan(base)) if "{" in text]
