"""Pockets of leftovers or hanging free, trims in a seam, patches, ring tabs (by hand)."""

import pytest

from tessil.core.cutting.acts.shopping import wares_of
from tessil.core.making.acts.whole import making_of
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tessil.core.trimming.choice import Mark
from tests.conftest import tote
from tests.outside.test_every_shape_on_paper import project_of

F = Fraction


def marked(**mark):
    return plan(tote(marks=(Mark(panel="front", **mark),)))


def pocket(made):
    (item,) = [item for item in made.items if item.owner.kind == "pocket"]
    return item


def test_a_pocket_of_leftover_strips_takes_no_cloth():
    """6 × 5: cut 6¾ wide and twice 5⅜ high, of what is there: neither cut anew nor bought."""
    made = marked(kind="slip", x=F(3), y=F(3), cloths="leftover")
    item = pocket(made)
    assert (item.width.value, item.height.value) == (F(27, 4), F(43, 4))
    assert item.in_hand
    kinds = {entry.owner.kind for bought in made.bought for entry in bought.items}
    assert "pocket" not in kinds


def test_a_pocket_that_hangs_free_begins_at_the_top_seam():
    made = marked(kind="slip", x=F(3), y=F(3), sides="free")
    (mark,) = made.marks_on("front")
    assert mark.box == (3, 0, 6, 5)
    assert pocket(made).width.value == F(27, 4)


@pytest.mark.parametrize("side", ["top", "right", "bottom", "left"])
def test_a_trim_in_a_seam_is_as_long_as_that_edge_and_an_inch(side):
    made = marked(kind="ribbon", x=F(0), y=F(4), height=F(1, 2), edge=side)
    (mark,) = made.marks_on("front")
    width, height = made.panel("front").trimmed.values()
    long = width if side in ("top", "bottom") else height
    (ware,) = [ware for ware in wares_of(made) if ware.kind == "ribbon"]
    assert ware.size.value == long + 1
    x, y, wide, high = mark.box
    assert {
        "top": y == 0,
        "left": x == 0,
        "right": x + wide == width,
        "bottom": y + high == height,
    }[side]
    assert min(wide, high) == F(1, 2)
    assert not [snag for snag in made.snags if snag.key.startswith("mark.seam")]


def test_a_patch_is_bought_and_sewn_on():
    made = marked(kind="patch", x=F(4), y=F(4), width=F(3), height=F(3))
    assert [ware.number.value for ware in wares_of(made) if ware.kind == "patch"] == [1]
    steps = making_of(made, made.project.making)
    assert not steps.broken
    assert "prepare.patch" in [deed.what for deed in steps.deeds]


def test_rings_of_tabs_are_bought_beside_those_of_the_strap():
    """A strap on rings brings two; a tab for keys one more."""
    base = project_of("satchel")
    options = {**base.shape.options, "strap_ends": "rings"}
    shape = base.shape.model_copy(update={"options": options})
    tab = Mark(kind="d-ring", panel="back", x=F(4), y=F(1))

    def rings(*marks):
        made = plan(base.model_copy(update={"shape": shape, "marks": marks}))
        return sum(int(ware.number.value) for ware in wares_of(made) if ware.kind == "ring")

    assert (rings(), rings(tab)) == (2, 3)


@pytest.mark.parametrize(
    ("mark", "cut"),
    [
        # 6 × 5 between seams of ⅜: doubled it is folded at its top
        ({"kind": "slip"}, [("slip", 1, F(27, 4), F(43, 4))]),
        ({"kind": "divided"}, [("divided", 1, F(27, 4), F(43, 4))]),
        # of two cloths the inner shows ¼ above: 5 ∓ ¼ and two seams
        (
            {"kind": "slip", "cloths": "two"},
            [("slip", 1, F(27, 4), F(11, 2)), ("pocket lining", 1, F(27, 4), 6)],
        ),
        # 2 wider than its opening; in one piece twice as long, in two each a seam longer
        ({"kind": "window"}, [("window", 1, 8, 10)]),
        ({"kind": "window", "bag": "two"}, [("window", 2, 8, F(43, 8))]),
    ],
)
def test_what_a_pocket_is_cut_from(mark, cut):
    made = marked(x=F(4), y=F(4), **mark)
    items = [
        (item.what, item.number.value, item.width.value, item.height.value)
        for item in made.items
        if item.owner.kind == "pocket"
    ]
    assert items == cut
