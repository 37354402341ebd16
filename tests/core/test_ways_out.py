"""Which ways out of a snag there are, and what stands in the project once one is taken; by hand."""

import pytest

from tessil.core.brief.choice import Held
from tessil.core.choices import choices_for
from tessil.core.edits import applied, edit
from tessil.core.numbers.exact import Fraction
from tessil.core.panels.choice import Got, Measured
from tessil.core.plan import plan
from tests.conftest import tote, with_front
from tests.core.cutting.test_placed_prints import bag
from tests.core.snag_cases import CASES, TUNER, found

F = Fraction


def offered(key, project):
    return [way.words for way in found(key, project).fixes]


def quilted(height, added=None, **front):
    """A tote whose front is quilted already, 15 wide."""
    got = Measured(quilted=Got(width=F(15), height=F(height)), added=Got(height=added))
    changes = [(f"piecing.{key}", value) for key, value in front.items()]
    return with_front(tote(), *changes).model_copy(update={"measured": {"front": got}})


def test_an_edge_that_does_not_show_is_offered_what_makes_it_show():
    top = "piece.edge.front.top"
    strips = {"piecing.fixed": "count", "piecing.count": 30}
    assert offered(top, with_front(tote(), *strips.items())) == ["10 wider strips instead"]
    small = with_front(tote(), ("piecing.way", "squares"), ("piecing.square", F(3, 4)))
    assert offered(top, small) == ["Cut the squares 2 in"]
    border = with_front(tote(), ("piecing.border", F(7, 8)))
    assert offered(top, border) == ["Cut the border wider", "Leave the border off"]


def test_of_a_panel_that_is_quilted_only_a_new_top_has_other_strips():
    project = quilted(15, strip_cut=F(3, 2))
    assert offered("piece.edge.front.top", project) == ["Piece it again: 13 wider strips instead"]
    way = found("piece.edge.front.top", project).fixes[0]
    after = applied(project, way)
    assert after.measured == {}
    piecing = choices_for(after, plan(after).panel("front").panel).piecing
    assert (piecing.fixed, piecing.count, piecing.surplus) == ("count", 13, "both")


def test_what_is_too_much_is_trimmed_off_the_side_that_has_more_to_show():
    """7 strips of 2¾ make 16¼, about 2 too much; all off the bottom but ¼, little is left there."""
    project = quilted(16, strip_cut=F(11, 4), surplus="one")
    assert offered("piece.edge.front.bottom", project) == ["Trim both sides alike"]


@pytest.mark.parametrize(
    ("height", "added", "each", "words"),
    [
        (13, None, F(1, 2), "Sew a border on, ½ in each side"),  # ⅞ is missing: ½ shows at least
        (12, None, F(1), "Sew a border on, 1 in each side"),  # 1⅞
        (12, F(1), F(1), "Sew a wider border on, 1 in each side"),  # ⅞ still, over the ½ there is
    ],
)
def test_a_border_makes_up_for_what_is_missing_with_the_one_there_is(height, added, each, words):
    project = quilted(height, added)
    way = next(
        one for one in found("trim.small.front.height", project).fixes if "border" in one.words
    )
    assert way.words == words
    assert applied(project, way).measured["front"].added.height == 2 * each


def test_trimming_all_smaller_is_no_way_out_where_nothing_is_quilted_yet():
    assert "Trim all to 14¾ × 13, the lining too" in offered("trim.small.front.height", quilted(13))
    none = applied(tote(), edit("", ("oversize.way", "none")))
    assert offered("trim.small.front.width", none) == [
        "Sew a border on, ½ in each side",
        "Piece it as large as the model says",
    ]
    assert plan(applied(none, found("trim.small.front.width", none).fixes[1])).snags == ()


def test_a_bag_that_would_not_be_one_is_not_offered():
    """A front ½ high has no room for its corners."""
    assert offered("trim.small.front.height", quilted(F(1, 2))) == [
        "Sew a border on, 6¾ in each side",
        "Piece it again, 13½ in larger",
    ]


def test_a_bag_that_is_cut_is_not_made_larger_by_what_is_planned():
    """Its front is trimmed: no wished size moves it any more."""
    asked = {"hold": Held(things=(TUNER,), minded=True)}
    words = offered("fit.width", tote(**asked))
    assert words == ["Make the width 13¼ in", "Size the bag by the tuner", "Do not mind the object"]
    front = Measured(trimmed=Got(width=F(12), height=F(12)))
    cut = tote(**asked, measured={"front": front})
    assert offered("fit.width", cut) == ["Do not mind the object"]


def test_squares_with_room_for_their_picture_are_no_smaller_in_a_smaller_bag():
    assert offered("cut.wide.red", bag(40).project) == ["Cut Red dots as its picture falls"]


def test_a_measured_seam_is_no_snag_once_the_pieces_are_cut_to_it():
    project = CASES["piece.seam.front"]
    recut = applied(project, found("piece.seam.front").fixes[1])
    assert not [one for one in plan(recut).snags if one.key == "piece.seam.front"]
    counted = with_front(project, ("piecing.fixed", "count"))
    assert not [one for one in plan(counted).snags if one.key == "piece.seam.front"]
