"""Minutes of the making, kind of work by kind of work; sums by hand."""

from contextlib import suppress

import pytest

from tessil.core.bag.deeds import OPERATIONS
from tessil.core.brief.choice import ShapeChoice
from tessil.core.edges.choice import Zipper
from tessil.core.making.acts.whole import making_of
from tessil.core.making.choice import Made
from tessil.core.making.readings import making_readings
from tessil.core.plan import plan
from tessil.core.shapes import SHAPES
from tessil.core.trouble import CannotPlan
from tests.conftest import tote
from tests.outside.test_every_shape_on_paper import project_of
from tests.outside.test_spelling import rich


@pytest.fixture(scope="module")
def making():
    return making_of(plan(tote()), Made())


def told(making, made):
    return {reading.key: reading for reading in making_readings(making, made)}


def test_each_kind_of_work_has_the_minutes_of_its_steps(making):
    found = told(making, Made())
    for work in OPERATIONS:
        deeds = [deed for deed in making.deeds if deed.operation == work]
        assert (f"making.{work}" in found) == bool(deeds)
        if deeds:
            minutes = sum(deed.minutes.value for deed in deeds if deed.minutes)
            assert found[f"making.{work}"].figure.value == minutes
    every = sum(reading.figure.value for key, reading in found.items() if key != "making.all")
    assert found["making.all"].figure.value == every > 0
    assert found["making.all"].about == f"0 of {len(making.deeds)} steps done"


def test_what_is_done_is_counted_and_the_clock_told(making):
    pieced = [deed.id for deed in making.deeds if deed.operation == "piece"]
    made = Made(done=tuple(pieced[:2]), seconds={pieced[0]: 100, pieced[1]: 50})
    found = told(making, made)
    said = f"2 of {len(pieced)} steps done, 2 min of them by the clock; a first guess of how long "
    assert found["making.piece"].about == said + "it takes"
    assert found["making.trim"].about.startswith("0 of ")
    assert "clock" not in found["making.trim"].about
    assert found["making.all"].about == f"2 of {len(making.deeds)} steps done"


# Minutes that each kind of step is guessed to take before any is timed: from memory, no source.
GUESSED = {
    20: "cut.all motif.sewn",
    10: "prepare.divided prepare.slip prepare.tab prepare.window",
    8: "edges.turn-in join.round top.sew top.sew-hanging top.turn-in",
    6: "flap.sew sides.stitch zip.sew zip.sew-bound zip.sew-lapped zip.sew-lined",
    5: "finish.channel finish.press strap.baste top.stitch turn.gap",
    4: "edge.baste flap.topstitch flap.turn front.measure join.band join.folded "
    "join.seam prepare.snap-female prepare.snap-male shell.press top.baste",
    3: "bind.join bind.turn-back check.finished flap.baste flap.clip inside.finish "
    "join.corner layer.pin line.put-in line.put-round line.seam line.seam-gap loop.baste "
    "piece.join-strips piece.press square.level-first strap.fold trim.cut trim.stay turn.mouth "
    "turn.zip zip.topstitch",
    2: "layer.press lay.faces lay.one line.corner line.cut mark.corners-cut quilt.test trim.plain "
    "turn.corners",
    1: "check.lining check.linings check.middles check.shell check.snap check.teeth "
    "check.untwisted check.zip-runs mark.middles piece.measure quilt.measure zip.open-half "
    "zip.pull zip.trim-ends",
}


def test_each_kind_of_step_is_guessed_by_the_minute():
    found = {}
    for key, shape in SHAPES.items():
        plans = [rich(key), project_of(key)]
        plans += [project_of(key, zipper=Zipper(set=how)) for how in ("bound", "lapped")]
        plans.append(project_of(key, shape=ShapeChoice(kind=key, options={"top": "turned"})))
        for option in shape.options if key in ("tote", "bound-pouch") else ():
            for value, _ in option.choices:
                choice = ShapeChoice(kind=key, options={option.key: value})
                plans.append(project_of(key, shape=choice))
        for project in plans:
            made = None
            with suppress(CannotPlan):  # some ask for a size that is not typed yet
                made = plan(project)
            if made is None:
                continue
            for deed in making_of(made, Made()).deeds:
                if deed.minutes is not None:
                    found.setdefault(deed.what, set()).add(deed.minutes.value)
    told = {what: minutes for minutes, steps in GUESSED.items() for what in steps.split()}
    assert {what: found[what] for what in told} == {
        what: {minutes} for what, minutes in told.items()
    }
