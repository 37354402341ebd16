"""What is sewn at an edge in which order, choice by choice; common practice, no source."""

import pytest

from tessil.core.brief.choice import ShapeChoice
from tessil.core.edges.choice import Bias, BiasPiece, Binding, Button, Piping, Strap, Zipper
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tests.conftest import tote

F = Fraction


def deeds(leaf, kind="tote", sizes=None, **choices):
    shape = ShapeChoice(kind=kind, sizes={k: F(v) for k, v in (sizes or {}).items()})
    if kind == "tote":
        shape = tote().shape
    options = choices.pop("options", {})
    shape = shape.model_copy(update={"options": options})
    made = plan(tote(shape=shape, **choices))
    return [step.what for step in made.edge_steps[leaf]], made.edge_steps[leaf]


BINDINGS = [
    # an opening of 28 needs 31: one strip of 40, and no join
    (Binding(), ["bind.fold", "bind.sew-front", "bind.tuck", "bind.turn-back"]),
    (Binding(sewn="hand"), ["bind.fold", "bind.sew-front", "bind.tuck", "bind.turn-back-hand"]),
    (Binding(first="back"), ["bind.fold", "bind.sew-back", "bind.tuck", "bind.turn-front"]),
    (
        Binding(first="back", sewn="hand"),
        ["bind.fold", "bind.sew-back", "bind.tuck", "bind.turn-front-hand"],
    ),
    (Binding(fold="single"), ["bind.press-under", "bind.sew-front", "bind.tuck", "bind.turn-back"]),
    (
        Binding(ending="diagonal"),
        ["bind.fold", "bind.sew-front", "bind.join-ends", "bind.turn-back"],
    ),
]


@pytest.mark.parametrize(("binding", "order"), BINDINGS)
def test_the_opening_of_a_tote_is_bound(binding, order):
    assert deeds("binding", binding=binding)[0] == order


def test_short_strips_are_joined_first_unless_they_are_cut_on_the_bias():
    short = tote().stock.model_copy(update={"usable_width": F(20)})
    assert deeds("binding", stock=short)[0][0] == "bind.join"
    assert deeds("binding", stock=short, binding=Binding(grain="bias"))[0][0] == "bind.fold"


@pytest.mark.parametrize(
    ("fold", "first"), [("double", "bind.fold"), ("single", "bind.press-under")]
)
@pytest.mark.parametrize("key", ["flat-pouch", "offset-pouch", "clutch"])
def test_strips_of_sides_are_folded_before_they_are_sewn_on(key, fold, first):
    bound = {"clutch": {"around": "bound"}}.get(key, {"sides": "bound"})
    done, _ = deeds("binding", key, {}, options=bound, binding=Binding(fold=fold))
    assert done[:2] == [first, "bind.own"]


@pytest.mark.parametrize(("corners", "deed"), [("mitred", "bind.mitre"), ("butted", "bind.butt")])
def test_a_panel_bound_all_round_has_corners_and_no_ending(corners, deed):
    done, steps = deeds(
        "binding",
        "free-panel",
        {"width": 12, "height": 9},
        options={"edge": "bound"},
        binding=Binding(corners=corners),
    )
    assert deed in done
    assert "bind.tuck" not in done
    if corners == "mitred":
        assert dict(steps[done.index(deed)].values) == {"seam": F(1, 4)}


def test_nothing_is_bound_where_the_top_is_turned():
    assert deeds("binding", options={"top": "turned"})[0] == []


PIECES = (BiasPiece(width=F(18), height=F(21)),) * 2


@pytest.mark.parametrize(
    ("bias", "order"),
    [
        (Bias(), ["bias.join", "bias.press"]),
        (Bias(source="pieces", pieces=PIECES), ["bias.join", "bias.press"]),
        (Bias(source="tube"), ["bias.tube", "bias.tube-cut"]),
    ],
)
def test_bias_is_joined_or_cut_from_a_tube(bias, order):
    assert deeds("bias", binding=Binding(grain="bias"), bias=bias)[0] == order


def test_without_bias_there_is_nothing_to_do_for_it():
    assert deeds("bias")[0] == []


def test_piping_is_covered_trimmed_clipped_and_its_ends_met():
    done, steps = deeds("piping", piping=Piping(panels=("front",)))
    assert done[:2] == ["pipe.cover", "pipe.trim"]
    assert done[-1] == "pipe.ends"
    assert dict(steps[1].values) == {"seam": F(3, 8)}  # that of the seam it goes into
    assert dict(steps[-1].values) == {"over": F(3, 2)}
    assert deeds("piping")[0] == []


JOINED = "strap.join-diagonal"  # 60 of cloth 40 wide
CLOTH = [JOINED, "strap.fuse", "strap.fold"]
STRAPS = [
    (Strap(), "sides", [*CLOTH, "strap.check"]),  # caught in the seams as they are
    (Strap(made="webbing"), "sides", ["strap.check"]),
    (Strap(), "rings", [*CLOTH, "strap.check", "strap.ends"]),
    (Strap(made="webbing"), "rings", ["strap.check", "strap.ends"]),
    (Strap(), "tied", [*CLOTH, "strap.hem", "strap.check"]),
    (Strap(interfaced=False), "sides", [JOINED, "strap.fold", "strap.check"]),
    (Strap(joins="straight"), "sides", ["strap.join-straight", *CLOTH[1:], "strap.check"]),
    (Strap(made="webbing", slider=True), "rings", ["strap.check", "strap.thread", "strap.ends"]),
    (Strap(turned_back=F(2)), "rings", [*CLOTH, "strap.check", "strap.ends"]),
]


@pytest.mark.parametrize(("strap", "how", "order"), STRAPS)
def test_a_strap(strap, how, order):
    done, steps = deeds(
        "straps", "satchel", {"strap_length": 60}, strap=strap, options={"strap_ends": how}
    )
    assert done == order
    ends = [dict(step.values) for step in steps if step.what == "strap.ends"]
    assert ends == [{"back": strap.turned_back}] * ("strap.ends" in order)


def test_a_slider_keeps_clear_of_a_join():
    """60 of cloth 40 wide has one join: the slider is said to run at the end away from it."""
    done, _ = deeds("straps", "satchel", {"strap_length": 60}, strap=Strap(slider=True))
    assert done[-2:] == ["strap.thread", "strap.ends"]
    assert done[-3] in ("strap.slider-first", "strap.slider-last")
    assert deeds("straps")[0] == []


@pytest.mark.parametrize(
    ("sliders", "deed"), [("one", "zip.one-slider"), ("two", "zip.two-sliders")]
)
def test_a_zipper(sliders, deed):
    done, steps = deeds(
        "closing", "flat-pouch", {"width": 9, "height": 6}, zipper=Zipper(sliders=sliders)
    )
    assert done[0] in ("zip.one-slider", "zip.two-sliders")
    assert done[1:3] == ["zip.topstitch", "zip.pull"]
    assert dict(steps[1].values) == {"off": F(1, 8)}
    assert (done[0] == deed) or sliders == "two"


def test_cords_and_a_button_loop():
    assert deeds("closing", "drawstring")[0] == ["cord.open", "cord.thread"]
    loop = ["loop.make", "loop.baste", "loop.button"]
    assert deeds("closing", button=Button(used=True))[0] == loop
    assert deeds("closing")[0] == []


@pytest.mark.parametrize(
    ("sides", "pieces", "corners"),
    [
        ((), 1, 2),  # three seams of a panel whose top is bound: two corners, its ends lapped by 1½
        (("bottom",), 1, 0),
        (("left", "right"), 2, 0),
        (("left", "right", "bottom"), 1, 2),
    ],
)
def test_piping_along_some_sides_ends_in_the_seams_across(sides, pieces, corners):
    """Half an inch goes into the seam across at each end of each piece."""
    _, steps = deeds("piping", piping=Piping(panels=("front",), sides=sides))
    made = plan(tote(piping=Piping(panels=("front",), sides=sides)))
    piping = made.edging.piping
    along = [run.sewn.value for run in piping.runs]
    assert {run.edge.side for run in piping.runs} == set(sides or ("left", "right", "bottom"))
    assert piping.length.value == sum(along) + (pieces if sides else F(3, 2))
    assert piping.on("front").value == piping.length.value
    assert piping.corners == corners
    assert (steps[-1].what == "pipe.into-seams") is bool(sides)
    piped, plain = ({s.label: s.mm for s in one.spots_on("front")} for one in (made, plan(tote())))
    cover = F(1, 2)  # two layers of cotton, 0.25 mm each under the foot
    for side in ("left", "right", "bottom"):
        more = cover if not sides or side in sides else 0
        assert piped[f"{side} seam"] == plain[f"{side} seam"] + more
