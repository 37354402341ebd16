"""Every snag is found, has a place and a reason, and its fixes mend it."""

import pytest

from tessil.core.brief.choice import Base, Held, ShapeChoice, Thing
from tessil.core.choosing import measure
from tessil.core.edges.choice import Bias, BiasPiece, Piping, Strap, Zipper
from tessil.core.edits import applied, edit
from tessil.core.numbers.exact import Fraction
from tessil.core.panels.choice import Got
from tessil.core.plan import plan
from tessil.core.quilting.choice import Machine
from tessil.core.snags import Weight
from tessil.core.trimming.choice import Mark, Wash
from tessil.core.trouble import CannotPlan
from tests.conftest import plies, tote, with_front

F = Fraction


def _panel_way(**sizes):
    full = {"panel_width": 15, "panel_height": 14, "notch_side": F(3, 2), "notch_bottom": F(3, 2)}
    full |= sizes
    return tote(shape=ShapeChoice(way="panel", sizes={k: F(v) for k, v in full.items()}))


def _measured(rung, width, height, panel="front"):
    project = tote()
    return applied(project, measure(project, panel, rung, Got(width=F(width), height=F(height))))


def _held(**changes):
    sizes = {"width": F(1), "height": F(1), "thickness": F(1)} | changes
    return Held(things=(Thing(name="tuner", **sizes),), minded=True)


def _free(options=None, **sizes):
    """A panel bound all round."""
    full = {key: F(value) for key, value in ({"width": 12, "height": 9} | sizes).items()}
    return tote(
        shape=ShapeChoice(
            kind="free-panel", sizes=full, options={"edge": "bound"} | (options or {})
        )
    )


def _of_cloth(project, usable):
    return project.model_copy(
        update={"stock": project.stock.model_copy(update={"usable_width": usable})}
    )


def _pieces(*sizes):
    pieces = tuple(BiasPiece(width=F(w), height=F(h)) for w, h in sizes)
    return tote(piping=Piping(panels=("front",)), bias=Bias(source="pieces", pieces=pieces))


def _satchel(strap_length=30):
    return tote(
        shape=ShapeChoice(kind="satchel", sizes={"strap_length": F(strap_length)}),
        strap=Strap(carried="adult", ring=F(1)),
    )


def _found(project, key):
    return next(snag for snag in plan(project).snags if snag.key == key)


CASES = {
    "piece.edge.front.bottom": with_front(
        tote(), ("piecing.strip_cut", F(11, 4)), ("piecing.surplus", "one")
    ),
    "trim.small.front.height": _measured("quilted", 15, 13),
    "quilt.limit.front": with_front(tote(), ("quilting.gap", F(14)), ("quilting.centre", "gap")),
    "quilt.seam.front.left.1": with_front(
        tote(), ("quilting.spacing", "keep"), ("quilting.gap", F(69, 50))
    ),
    "quilt.beside.front": with_front(
        tote(), ("quilting.run", "level"), ("quilting.spacing", "keep"), ("quilting.gap", F(15, 8))
    ),
    "quilt.through.front.mark:0": with_front(
        tote(marks=(Mark(kind="window", panel="front", x=F(6), y=F(3), width=F(3)),)),
        ("quilting.gap", F(3)),
    ),
    "quilt.lean.front": with_front(
        tote(),
        ("quilting.pattern", "diagonal"),
        ("quilting.gap", F(1, 2)),
        ("layers.plies", plies("polyester-batting")),
    ),
    "layer.narrow.front.0": with_front(
        tote(
            shape=tote().shape.model_copy(
                update={"sizes": {"width": F(30), "height": F(30), "depth": F(3)}}
            )
        ),
        ("layers.plies", plies("narrow-fleece", rule="margin")),
    ),
    "layer.fused.front.0": with_front(
        tote(), ("layers.plies", plies("stiff-interfacing", bond="fuse"))
    ),
    "layer.bond.front.0": with_front(
        tote(), ("layers.plies", plies("cotton-batting", bond="fuse"))
    ),
    "layer.melts.front": with_front(
        tote(),
        ("layers.top", "clear-vinyl"),
        ("layers.plies", plies("fusible-fleece", bond="fuse")),
    ),
    "layer.thick.front": with_front(tote(), ("layers.plies", plies("sew-in-foam"))),
    "layer.needle": tote(machine=Machine(needle=70)),
    "quilt.limit.back": with_front(
        tote(), ("quilt_zones", ({"starts": F(3), "quilting": {"pattern": "none"}},))
    ),
    "fit.wash.height": tote(hold=_held(height=F(47, 4)), wash=Wash(used=True)),
    "notch.deep.width": _panel_way(panel_width=5, notch_side=F(7, 4), notch_bottom=F(7, 4)),
    "notch.legs.seam": _panel_way(notch_bottom=F(5, 4)),
    "edge.short": applied(tote(), edit("", ("binding.strips_on_hand", 0))),
    "edge.curve": _free({"corners": "round"}, flap_round=F(3, 2)),
    "edge.join": _of_cloth(_free(width=6, height=5), F(12)),
    "edge.piece.0": _pieces((2, 2), (9, 9)),
    "edge.bias": _pieces((5, 5)),
    "edge.piping": tote(piping=Piping(panels=("front",), allowance=F(1, 2))),
    "edge.strap": _satchel(),
    "edge.ring.strap": _satchel(strap_length=60),
    "edge.slider": _of_cloth(
        tote(
            shape=ShapeChoice(kind="satchel", sizes={"strap_length": F(60)}),
            strap=Strap(slider=True),
        ),
        F(24),
    ),
    "edge.strap.back": tote(
        shape=ShapeChoice(kind="satchel", sizes={"strap_length": F(3)}), strap=Strap(slider=True)
    ),
    "edge.metal": tote(
        shape=ShapeChoice(kind="flat-pouch", sizes={"width": F(9), "height": F(6)}),
        zipper=Zipper(teeth="metal"),
    ),
    "edge.channel": tote(shape=ShapeChoice(kind="drawstring", sizes={"channel": F(1, 2)})),
    "edge.narrow": applied(tote(), edit("", ("binding.cut", F(3, 2)))),
    "fit.depth": tote(hold=_held(thickness=F(5))),
    "fit.height": tote(hold=_held(height=F(14))),
    "trim.base": tote(
        shape=ShapeChoice(
            kind="tote", way="finished", sizes={"width": F(11), "height": F(12), "depth": F(1, 4)}
        ),
        base=Base(stiffener="sleeve"),
    ),
    "trim.match.back.width": _measured("trimmed", F(29, 2), F(111, 8), panel="back"),
    "cut.set.front": with_front(
        tote(stock=tote().stock.model_copy(update={"usable_width": F(12)})),
        ("piecing.strip_sets", True),
    ),
}


@pytest.mark.parametrize("key", CASES)
def test_each_fix_mends_it(key):
    fixes = _found(CASES[key], key).fixes
    mended = [plan(applied(CASES[key], fix)) for fix in fixes]
    left = [fix.words for fix, made in zip(fixes, mended, strict=True) if _has(made, key)]
    assert len(mended) >= 1
    assert left == []


def _has(made, key):
    return key in {snag.key for snag in made.snags}


def test_an_object_may_go_in_without_the_ease_wished_for():
    wall = plan(tote()).wall.value
    for height, weight in ((12 - wall, Weight.WARNS), (12, Weight.BLOCKS)):
        snag = _found(tote(hold=_held(height=F(height))), "fit.height")
        assert snag.weight is weight


def test_a_clean_bag_has_no_snags():
    assert plan(tote()).snags == ()


def test_a_measured_quilted_panel_that_is_too_small_blocks():
    made = plan(_measured("quilted", F(59, 4), F(111, 8)))
    assert made.snags == ()
    small = plan(_measured("quilted", F(14), F(111, 8)))
    assert small.snags[0].weight is Weight.BLOCKS


def test_no_oversize_only_warns_since_the_size_is_a_guess():
    project = applied(tote(), edit("", ("oversize.way", "none")))
    snags = plan(project).snags
    assert {snag.weight for snag in snags} == {Weight.BLOCKS}
    fixed = applied(tote(), edit("", ("oversize.way", "fixed"), ("oversize.fixed", F(1, 4))))
    assert {snag.weight for snag in plan(fixed).snags} == {Weight.WARNS}


def test_what_was_measured_wins_and_the_rest_follows():
    made = plan(_measured("trimmed", F(14), F(27, 2)))
    assert made.panel("front").trimmed.values() == (14, F(27, 2))
    for follower in ("back", "lining"):
        assert made.panel(follower).trimmed.values() == (14, F(27, 2))
    assert made.bag.finished[0].value == 11 - F(3, 4)
    assert made.binding.edge.value == 2 * (14 - F(3, 4))


def test_a_measured_top_moves_what_quilting_is_expected_to_leave():
    plan_, real = plan(tote()), plan(_measured("pieced", F(31, 2), F(57, 4)))
    assert real.panel("front").expected.width.value < plan_.panel("front").expected.width.value
    assert real.panel("back").expected == real.panel("back").expected


def test_an_absurd_measurement_is_refused_beside_its_box():
    with pytest.raises(CannotPlan, match="Trimmed so small") as trouble:
        plan(_measured("trimmed", 3, 3))
    assert trouble.value.field == "measured.front.trimmed"


def test_the_gravest_comes_first():
    project = applied(CASES["trim.small.front.height"], edit("", ("binding.cut", F(3, 2))))
    weights = [snag.weight for snag in plan(project).snags]
    assert weights == sorted(weights, key=[Weight.BLOCKS, Weight.WARNS, Weight.NOTES].index)
