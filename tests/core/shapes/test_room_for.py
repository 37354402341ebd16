"""How large a bag is made for what it holds; common practice, no source.

Between two walls it has ease at both ends; in height it stands on one wall and is open above.  A
flat bag bends round what is thick, a panel lies open under it.
"""

import pytest
from msgspec.structs import replace

from tessil.core.numbers.workings import given
from tessil.core.plan import plan
from tessil.core.shapes import SHAPES
from tests.outside.test_every_shape_on_paper import project_of

W, H, T, EASE, WALL = 8, 6, 1.5, 0.5, 0.25
BOXED = {"width": W + 2 * EASE + 2 * WALL, "height": H + EASE + WALL, "depth": T + EASE + 2 * WALL}
FLAT = {"width": W + T + 2 * EASE + 2 * WALL, "height": H + T + EASE + WALL}
ROOM = {
    **dict.fromkeys(("tote", "one-piece", "satchel", "drawstring"), BOXED),
    **dict.fromkeys(("flat-pouch", "offset-pouch", "clutch", "sleeve"), FLAT),
    "bound-pouch": {way: size + 2 * 0.25 for way, size in FLAT.items()},  # bound, not sewn in
    "boxed-zip": {  # it lies in it, walls all round
        "width": W + 2 * EASE + 2 * WALL,
        "depth": H + 2 * EASE + 2 * WALL,
        "height": T + EASE + 2 * WALL,
    },
    "free-panel": {"width": W + 2 * EASE, "height": H + 2 * EASE},
}


@pytest.mark.parametrize("key", SHAPES)
def test_there_is_room_for_what_it_holds_by_hand(key):
    brief, shape = plan(project_of(key)).brief, SHAPES[key]
    sizes = {"width": W, "height": H, "thickness": T, "ease": EASE}
    held = replace(brief.held, **{name: given(name, value) for name, value in sizes.items()})
    needs = shape.for_object(replace(brief, held=held, wall=given("wall", WALL)))
    assert {way: float(figure.value) for way, figure in needs.items()} == ROOM[key]


@pytest.mark.parametrize("key", SHAPES)
def test_only_a_lining_of_two_like_halves_is_parted(key):
    alike, apart = (plan(project_of(key, lining_apart=by)).bag.panels for by in (False, True))
    halves = any(panel.key == "lining" and panel.copies == 2 for panel in alike)
    added = ["lining-back"] if halves else []
    assert sorted(p.key for p in apart) == sorted([*(p.key for p in alike), *added])
    assert sum(p.copies for p in apart) == sum(p.copies for p in alike)
