"""Where a snag begins: at its bound there is none, a mark past it there is one.  Bounds are common
practice, no source, or follow from the sizes by hand."""

import pytest

from tessil.core.brief.choice import ShapeChoice
from tessil.core.edges.choice import Piping, Strap
from tessil.core.edits import applied, edit
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tessil.core.quilting.choice import Machine
from tessil.core.snags import Snag, Stage, Weight, by_stage
from tests.conftest import tote, with_front
from tests.core.edges.test_zipper_ends import pouch
from tests.core.snag_cases import free, held, measured, panel_way, strapped
from tests.outside.test_every_shape_on_paper import project_of

F = Fraction
MARK = F(1, 16)


def _flap(less):
    return applied(project_of("satchel"), edit("", ("shape.sizes", {"flap_less": less})))


def _ring(wide):
    shape = ShapeChoice(kind="satchel", sizes={"strap_length": F(60)})
    return tote(shape=shape, strap=Strap(carried="adult", ring=wide))


def _notched(left):
    """A panel of which so much is left between notches of 1¾ and seams of ⅜."""
    return panel_way(panel_width=F(17, 4) + left, notch_side=F(7, 4), notch_bottom=F(7, 4))


def _reaching(past):
    return with_front(tote(), ("piecing.way", "flip"), ("piecing.overhang", past))


# the key: what makes the case of a value, the value that will do, and by how much it will not
BOUNDS = {
    "edge.curve": (lambda v: free({"corners": "round"}, flap_round=v), F(3), -MARK),
    "notch.deep.width": (_notched, F(1), -MARK),
    "fit.flap": (_flap, F(1, 2), -MARK),
    "trim.gap": (lambda v: tote(turning_gap=v), F(4), -MARK),
    "edge.strap": (strapped, F(50), -MARK),
    "piece.overhang": (_reaching, F(1, 2), -MARK),
    "edge.ring": (_ring, F(3, 2), -MARK),  # the strap is cut 6, it ends 1½ wide
    "edge.narrow": (lambda v: applied(tote(), edit("", ("binding.cut", v))), F(2), -MARK),
    # 12 less ½ and one wall of 3.1 mm: 11.37
    "fit.height": (lambda v: tote(hold=held(height=v)), F(181, 16), MARK * 2),
    # 3 less two of ¼ and two walls: 2.25
    "fit.depth": (lambda v: tote(hold=held(thickness=v)), F(9, 4), MARK),
    "trim.match": (lambda v: measured("trimmed", v, F(111, 8), panel="back"), F(59, 4), F(-1, 32)),
    "trim.small": (lambda v: measured("quilted", 15, v), F(111, 8), F(-1, 32)),
    "layer.needle": (lambda v: tote(machine=Machine(needle=v)), 100, -10),
    "edge.tape": (lambda v: pouch(tape=v).project, F(5, 4), F(-1, 32)),
}


@pytest.mark.parametrize(("by", "found"), [(F(1, 40), False), (F(1, 30), True)])
def test_two_panels_match_that_no_ruler_tells_apart(by, found):
    keys = _said(measured("trimmed", F(59, 4) - by, F(111, 8), panel="back"))
    assert ("trim.match.back.width" in keys) == found


def _said(project):
    return {snag.key for snag in plan(project).snags}


@pytest.mark.parametrize("key", BOUNDS)
def test_at_the_bound_none_and_past_it_one(key):
    case, bound, past = BOUNDS[key]
    assert not [one for one in _said(case(bound)) if one.startswith(key)]
    assert [one for one in _said(case(bound + past)) if one.startswith(key)]


@pytest.mark.parametrize("off", [-MARK, MARK])
def test_an_allowance_of_piping_is_its_seam_s_neither_more_nor_less(off):
    def piped(allowance):
        return _said(tote(piping=Piping(panels=("front",), allowance=allowance)))

    assert "edge.piping" not in piped(F(3, 8))
    assert "edge.piping" in piped(F(3, 8) + off)


def test_a_channel_takes_half_of_the_cord_s_round_and_a_quarter():
    """A cord of ¼: π ÷ 8 and ¼ are 0.643."""
    for wide, found in ((F(643, 1000), False), (F(5, 8), True)):
        shape = ShapeChoice(kind="drawstring", sizes={"channel": wide})
        assert ("edge.channel" in _said(tote(shape=shape))) == found


@pytest.mark.parametrize(
    ("widths", "says"),
    [
        ((F(5, 2), F(17, 2)), None),  # 8 shows between two seams of ¼
        ((F(5, 2), F(9)), "Front: 8½ in without a line is too far for this batting"),
        ((F(9), F(5, 2)), "Front: 8½ in without a line is too far for this batting"),
    ],
)
def test_strips_sewn_through_the_batting_hold_it_by_the_widest(widths, says):
    flipped = with_front(
        tote(),
        ("piecing.way", "flip"),
        ("quilting.pattern", "none"),
        ("piecing.fixed", "mixed"),
        ("piecing.widths", widths),
    )
    found = [one.title for one in plan(flipped).snags if one.key == "quilt.limit.front"]
    assert found == ([] if says is None else [says])


def test_snags_are_counted_by_their_stage_and_one_that_blocks_is_told():
    def snag(stage, weight):
        return Snag("a", stage, weight, "", "")

    found = [
        snag(Stage.EDGE, Weight.WARNS),
        snag(Stage.EDGE, Weight.BLOCKS),
        snag(Stage.EDGE, Weight.NOTES),
        snag(Stage.CUT, Weight.NOTES),
    ]
    assert by_stage(found) == {Stage.EDGE: (3, True), Stage.CUT: (1, False)}
    assert by_stage([]) == {}


@pytest.mark.parametrize(
    ("width", "says"),
    [
        # 11 between walls of 3.1 mm are 10.756; with ½ of ease at either side 9.756
        (F(39, 4), None),
        (F(977, 100), None),  # what no ruler shows is not missed
        (F(979, 100), ("warns", "The tuner is a tight fit: ¹⁄₁₆ in less width than wished")),
        (F(21, 2), ("warns", "The tuner is a tight fit: ¾ in less width than wished")),
        (F(43, 4), ("warns", "The tuner is a tight fit: 1 in less width than wished")),
        (F(173, 16), ("blocks", "The tuner does not fit: 1¹⁄₁₆ in too little width")),
    ],
)
def test_what_goes_in_without_ease_is_a_tight_fit(width, says):
    found = [
        (str(one.weight), one.title)
        for one in plan(tote(hold=held(width=width))).snags
        if one.key == "fit.width"
    ]
    assert found == ([] if says is None else [says])
