"""A plan with a memory is the plan without one, workings and all; what is the same stays the same
object.  ``TESSIL_EDITS=1000`` makes a long walk of it over all demo bags and shapes."""

import gc
import os
import random
import weakref

import pytest

from tessil.core.bag.model import BagFigure
from tessil.core.choosing import choose
from tessil.core.edits import applied, edit
from tessil.core.memory.recall import Memory
from tessil.core.memory.same import names_of, same
from tessil.core.memory.watched import Watched, still
from tessil.core.numbers.decided import Refused
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.workings import Basis, given
from tessil.core.panels.planning import plan_panel
from tessil.core.plan import plan
from tessil.core.planned import Amounts, Outside, Plan
from tessil.core.shapes import SHAPES
from tessil.core.trouble import CannotPlan
from tests.conftest import DEMO, load_bag
from tests.core.test_anything_typed import (
    CHOICES,
    LENGTH_FIELDS,
    PANEL_CHOICES,
    PANEL_LENGTHS,
    edit_of,
)
from tests.outside.test_every_shape_on_paper import project_of

F = Fraction
BAGS = sorted(path.stem for path in DEMO.parent.glob("*.tessil"))
EDITS = int(os.environ.get("TESSIL_EDITS", "100"))


def _project(name):
    return project_of(name) if name in SHAPES else load_bag(DEMO.parent / f"{name}.tessil")


def _typed(dice):
    """A field and what is typed or picked there."""
    kind = dice.choice(("length", "choice", "size", "panel", "panel", "measure", "name"))
    length = F(dice.randint(1, 320), 16)
    if kind == "name":
        return "name", f"Bag {dice.randint(1, 9)}"
    if kind == "length":
        return dice.choice(LENGTH_FIELDS), length
    if kind == "size":
        return "size", (dice.randint(0, 9), length)
    if kind == "measure":
        rung = dice.choice(("pieced", "quilted", "trimmed", "notch", "added"))
        return "measure", (rung, length, F(dice.randint(1, 320), 16))
    if kind == "choice":
        field = dice.choice(sorted(CHOICES))
        return field, dice.choice(CHOICES[field])
    field = dice.choice((*PANEL_LENGTHS, *sorted(PANEL_CHOICES)))
    value = length if field in PANEL_LENGTHS else dice.choice(PANEL_CHOICES[field])
    return f"panel.{field}", value


def _names():
    """All that a plan has, with what is made when it is asked for."""
    later = {"outside": Outside, "amounts": Amounts}
    own = [name for name in names_of(Plan) if name not in {*later, "found"}]
    return [*own, *(name for kind in later.values() for name in names_of(kind)), "snags"]


def _differing(one, other, path="plan"):
    """Where two values differ: the paths to what is not the same."""
    if same(one, other):
        return []
    names = _names() if isinstance(one, Plan) else names_of(type(one))
    if type(one) is type(other) and names:
        pairs = [(name, getattr(one, name), getattr(other, name)) for name in names]
    elif isinstance(one, tuple) and len(one) == len(other):
        pairs = [(str(at), *pair) for at, pair in enumerate(zip(one, other, strict=True))]
    else:
        return [f"{path}: {one!r} for {other!r}"[:300]]
    return [line for name, a, b in pairs for line in _differing(a, b, f"{path}.{name}")]


def _tried(project, memory=None):
    try:
        return plan(project, memory=memory)
    except CannotPlan as trouble:
        return trouble.field, trouble.sentence


@pytest.mark.parametrize("name", [*BAGS, *SHAPES])
def test_a_remembered_plan_is_a_fresh_plan(name):
    """Edit after edit, taken back now and then; what cannot be planned leaves the memory good."""
    dice, memory = random.Random(name), Memory()
    made = plan(_project(name), memory=memory)
    before, planned = [made.project], 0
    for _ in range(max(EDITS // (len(BAGS) + len(SHAPES)), 1)):
        try:
            project = (
                dice.choice(before[-4:])
                if dice.random() < 0.2
                else applied(made.project, edit_of(made, *_typed(dice)))
            )
        except Refused:
            continue
        fresh, remembered = _tried(project), _tried(project, memory)
        assert _differing(remembered, fresh) == []
        if not isinstance(remembered, Plan):
            continue
        made = remembered
        before.append(project)
        planned += 1
    assert planned


def _new(before, after):
    """Parts of a plan, those made later too, that are other objects than they were."""
    return {n for n in _names() if getattr(before, n) is not getattr(after, n)}


def test_what_did_not_change_is_the_same_object(demo):
    memory = Memory()
    one = plan(demo, memory=memory)
    named = plan(applied(demo, edit("", ("name", "Another"))), memory=memory)
    assert _new(one, named) == {"project"}
    more = plan(applied(demo, edit("", ("bags", 7))), memory=memory)
    assert _new(named, more) == {"project", "items", "bought", "table"}
    closer = choose(more.project, more.bag.panel("flap"), "", ("quilting.gap", F(5, 4)))
    quilted = plan(applied(more.project, closer), memory=memory)
    changed = [p.key for p, q in zip(more.panels, quilted.panels, strict=True) if p is not q]
    assert changed == ["flap"]
    assert not _new(more, quilted) & {"bag", "brief", "binding", "edging", "edge_steps"}


def test_panels_alike_are_planned_once(monkeypatch):
    """Front and back of a flat pouch, pieced and quilted alike, differ in their names alone."""
    from tessil.core import plan as planning

    asked = []

    def counted(setting, task):
        asked.append(task.panel.key)
        return plan_panel(setting, task)

    monkeypatch.setattr(planning, "plan_panel", counted)
    made = plan(project_of("flat-pouch"))
    assert len(asked) < len(made.panels)
    assert {panel.key for panel in made.panels} > set(asked)
    assert all(made.panel(key).panel.key == key for key in ("front", "back"))


def test_figures_are_the_same_by_their_working():
    one = given("seam", F(1, 4)) * 2
    assert same(one, given("seam", F(1, 4)) * 2)
    assert not same(one, given("seam", F(1, 2)))
    assert not same(one, given("hem", F(1, 4)) * 2)
    assert not same(given("seam", F(1, 4)), given("seam", F(1, 4), Basis.MEASURED))
    assert not same(one.called("both"), one.called("both", "mm"))
    seam = BagFigure("seam", one)
    assert same(seam, BagFigure("seam", given("seam", F(1, 4)) * 2))
    assert not same(seam, BagFigure("seam", given("seam", F(1, 4)) * 3))
    assert not same((1, 2), (1, 2, 3))
    assert not same({"a": 1, "b": 2}, {"b": 2, "a": 1})
    assert not same(1, 1.0)


def test_a_watched_plan_notes_what_is_read_of_it(demo):
    read = {}
    seen = Watched(plan(demo), read, frozenset({"project"}))
    assert seen.project.bags == demo.bags
    assert seen.panel("front").key == "front"
    assert set(read) == {("project", "bags"), (("panel", ("front",)),)}
    assert still(plan(applied(demo, edit("", ("name", "Another")))), {("project", "bags"): 1}) == (
        demo.bags == 1
    )
    assert not still(plan(applied(demo, edit("", ("bags", demo.bags + 1)))), read)


def test_an_equal_project_has_the_plan_it_had(demo):
    memory = Memory()
    made = plan(demo, memory=memory)
    assert plan(demo.model_copy(), memory=memory) is made
    assert plan(applied(demo, edit("", ("bags", 7))), memory=memory) is not made


def test_what_no_plan_asks_for_is_let_go(demo):
    memory = Memory()
    memory.of("once", len, "abc")
    assert memory.of("once", lambda _: 0, "abc") == 3
    for at in range(4):
        asked = plan(applied(demo, edit("", ("bags", 2 + at))), memory=memory)
        assert asked.snags
    assert memory.of("once", lambda _: 0, "abc") == 0


@pytest.mark.parametrize("asked", [False, True])
def test_a_plan_and_its_memory_go_as_soon_as_nothing_holds_them(demo, asked):
    """Without circles: nothing of them is left for the collector to find."""
    plan(demo)
    gc.collect()
    memory = Memory()
    made = plan(demo, memory=memory)
    if asked:
        assert made.snags
    gone = weakref.ref(memory)
    gc.disable()
    try:
        del made, memory
        assert gone() is None
    finally:
        gc.enable()
