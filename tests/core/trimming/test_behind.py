"""What is sewn on a lining behind what goes through the wall from outside; by hand."""

from tessil.core.brief.choice import ShapeChoice
from tessil.core.edits import applied
from tessil.core.making.choice import Made
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tessil.core.trimming.choice import Mark, Snap
from tests.conftest import tote

F = Fraction


def satchel(x, panel="lining", **changes):
    """A satchel whose lining has two unlike halves, a pocket on one of them; its snap's female half
    is in the middle of the front."""
    pocket = Mark(kind="slip", panel=panel, x=x, y=F(3), width=F(4), height=F(5))
    shape = ShapeChoice(kind="satchel", options={"strap": "none"})
    return plan(
        tote(shape=shape, snap=Snap(used=True), lining_apart=True, marks=(pocket,), **changes)
    )


def behind(made):
    return [snag for snag in made.snags if snag.key.startswith("mark.behind")]


def test_a_pocket_behind_the_snap_is_told_and_moved_below_it():
    made = satchel(F(5))
    female = next(mark for mark in made.marks_on("front") if mark.kind == "snap")
    assert 3 <= female.box[1] <= 8, "the pocket reaches over it"
    (snag,) = behind(made)
    assert snag.panel == "lining"
    assert "snap" in snag.title
    assert not behind(plan(applied(made.project, snag.fixes[0])))


def test_in_the_back_half_or_with_halves_alike_it_is_in_nobody_s_way():
    assert not behind(satchel(F(5), "lining-back"))
    alike = satchel(F(5)).project.model_copy(update={"lining_apart": False})
    assert not behind(plan(alike))


def test_handles_sewn_last_lie_behind_a_pocket_under_either_end():
    """A tote's handles, 2 from the middle: a narrow pocket on the lining lies behind an end on
    either side, and between both behind none."""
    options = {"handles": "pair", "handle_ends": "face", "handle_set": "centre"}
    shape = ShapeChoice(
        kind="tote", options=options, sizes={"handle_at": F(2), "handle_down": F(3)}
    )

    def at(x, handles="after"):
        pocket = Mark(kind="slip", panel="lining", x=x, y=F(2), width=F(2), height=F(4))
        made = plan(
            tote(shape=shape, lining_apart=True, making=Made(handles=handles), marks=(pocket,))
        )
        wide = made.panel("lining").trimmed.width.value
        return wide, behind(made)

    wide, _ = at(F(1))
    assert at(wide / 2 - 3)[1]  # over the end that is at the right from outside
    assert at(wide / 2 + 1)[1]
    assert not at(wide / 2 - 1)[1]  # between both
    assert not at(wide / 2 - 3, "before")[1]  # the lining covers them
