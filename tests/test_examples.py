"""Ten bags that makers might begin, in tests/examples: each planned whole, drawn in the hand, cut,
bought and sewn on, and nags only about what its maker has earned.  Names and prints are invented.
"""

from pathlib import Path

import pytest

from tessil.core.bag.ids import CutOwner
from tessil.core.cutting.acts.shopping import wares_of
from tessil.core.making.acts.whole import making_of, standing
from tessil.core.making.choice import Made
from tessil.core.plan import plan
from tessil.core.snags import Weight
from tessil.drawing.pictures import bag_picture
from tests.conftest import load_bag

EXAMPLES = sorted((Path(__file__).parent / "examples").glob("*.tessil"))
# A zipper on the top fold is thick, as its maker chose it; prints of a heap fall as they fall.
EARNED = {
    "forty-squares-sleeve": {"layout.alike.body"},
    "rosin-pouch": {"layer.thick.front", "layout.itself.back"},
    "pick-purse": {"layer.thick.front"},
}


@pytest.fixture(scope="module")
def made():
    return {path.stem: plan(load_bag(path)) for path in EXAMPLES}


def test_there_are_ten_of_seven_shapes_at_least(made):
    assert len(made) == 10
    assert len({one.shape.key for one in made.values()}) >= 7


@pytest.mark.parametrize("name", [path.stem for path in EXAMPLES])
def test_it_nags_only_about_what_was_earned(made, name):
    snags = made[name].snags
    assert {snag.key for snag in snags} == EARNED.get(name, set())
    assert Weight.BLOCKS not in {snag.weight for snag in snags}


@pytest.mark.parametrize("name", [path.stem for path in EXAMPLES])
def test_all_of_it_is_cut_bought_drawn_and_sewn(made, name):
    one = made[name]
    owners = {item.owner for item in one.items}
    panels = {key for owner in owners if owner.kind in ("panels", "hoop") for key in owner.keys}
    kept = {panel.key for panel in one.panels if panel.panel.kind in ("outer", "lining")}
    assert kept <= panels
    webbing = one.project.strap.made == "webbing"
    for part in one.bag.attachments:
        in_cloth = part.cloth and not webbing
        assert (CutOwner("part", (part.key,)) in owners) is in_cloth
    wares = {ware.kind for ware in wares_of(one)}
    ends = {part.ends for part in one.bag.attachments}
    wanted = {
        "zipper": one.bag.zipper is not None,
        "cord": any(not part.cloth for part in one.bag.attachments),
        "webbing": webbing and any(part.cloth for part in one.bag.attachments),
        "ring": "ring" in ends,
        "snap": one.project.snap.used,
    }
    assert {kind for kind, needed in wanted.items() if needed} <= wares
    assert not {kind for kind, needed in wanted.items() if not needed} & wares
    making = making_of(one, Made())
    assert not making.broken
    assert "finished" in standing(making, [deed.id for deed in making.deeds]).facts
    assert bag_picture(one).items


def test_forty_squares_are_used_up(made):
    one = made["forty-squares-sleeve"]
    assert (
        sum(
            part.top.pieces.whole
            for panel in one.panels
            for part in panel.parts
            if part.choice.way == "squares"
        )
        == 40
    )


def test_what_each_shows(made):
    """What it is in the folder for: carried, flat, tucked in, tied, on rings, in a hoop."""
    carried = {name: {(p.key, p.ends) for p in one.bag.attachments} for name, one in made.items()}
    assert ("strap", "ring") in carried["metronome-clutch"]
    assert ("strap", "tied") in carried["valve-oil-pouch"]
    assert ("handles", "face") in carried["marching-tote"]
    assert {("handles", "seam"), ("end", "seam")} <= carried["mallet-case"]
    assert not made["flat-score-bag"].bag.boxed
    assert made["flat-score-bag"].tucked
    assert made["flat-cymbal-sack"].project.cord.kind == "flat"
    assert made["pick-purse"].hooped.number == 1
    assert made["rosin-pouch"].edging.zipper.tab is not None
    assert made["conductor-s-satchel"].project.marks[0].sides == "seams"
