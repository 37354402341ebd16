"""Other corners in the same panel against the formulas of the trade.

A panel W × L with a corner k from the stitch lines: a tote ends W − 2a − 2k wide, L − t − k high
and 2k deep; a boxed zip bag of the ring C = L − 2z + v ends W − 2a − 2k long and, with the zipper
along the middle of the top, C/2 − 2k across and 2k high; with it at the top edge the other way
round.  Common practice, no source.
"""

import itertools

import pytest

from tessil.core.brief.readings import squares
from tessil.core.numbers.exact import Fraction
from tests.outside.test_every_shape_on_paper import sized

F = Fraction


def told(made):
    return [
        (tuple(f.value for f in one.legs), tuple(f.value for f in one.finished))
        for one in squares(made)
    ]


@pytest.mark.parametrize("lies", ["middle", "edge"])
def test_a_boxed_zip_bag_by_its_squares(lies):
    made = sized("boxed-zip", {"width": 8, "depth": 4, "height": 3}, options={"zip_lies": lies})
    a, z, v = (made.project.seams.side, made.project.zipper.seam, made.project.zipper.shown)
    width, length = (made.sizes[key].value for key in ("panel_width", "panel_height"))
    ring = length - 2 * z + v
    rows = told(made)
    assert len(rows) == 5
    for legs, (long, across, high) in rows:
        k = (width - 2 * a - long) / 2
        boxed, other = (high, across) if lies == "middle" else (across, high)
        assert boxed == 2 * k
        assert other == ring / 2 - 2 * k
        seam = made.project.seams.corner
        assert legs[:2] == (k + a - seam, k - seam)
    boxed = [row[1][2 if lies == "middle" else 1] for row in rows]
    assert [b - a for a, b in itertools.pairwise(boxed)] == [F(1, 2)] * 4
    assert rows[2][1] == (8, 4, 3)


def test_a_tote_by_its_squares_and_what_it_holds():
    made = sized("tote", {"width": 8, "height": 9, "depth": 4})
    rows = squares(made)
    side = made.project.seams.side
    panel = made.sizes["panel_width"].value
    for row in rows:
        wide, high, deep = (f.value for f in row.finished)
        assert wide == panel - 2 * side - deep
        assert high + deep / 2 == 9 + 2  # what the base takes is missing above it
        assert row.legs[0].value == deep / 2 + side - made.project.seams.corner
    inside = [one.figure.value for one in made.bag.inside]
    assert rows[2].holds.value == inside[0] * inside[1] * inside[2]


def test_in_centimetres_the_steps_are_centimetres():
    made = sized("tote", {"width": 8, "height": 9, "depth": 4}, units="metric")
    deep = [float(row.finished[2].value) * 2.54 for row in squares(made)]
    assert [b - a for a, b in itertools.pairwise(deep)] == pytest.approx([1] * 4, abs=0.21)


def test_squares_that_would_leave_nothing_are_not_told():
    made = sized("tote", {"width": 8, "height": 9, "depth": F(3, 4)})
    deep = [row.finished[2].value for row in squares(made)]
    assert deep[0] > 0
    assert len(deep) == 4


@pytest.mark.parametrize("shape", ["flat-pouch", "clutch", "bound-pouch", "free-panel"])
def test_a_bag_without_boxed_corners_has_no_table(shape):
    assert squares(sized(shape, {"width": 8, "height": 6})) == ()
