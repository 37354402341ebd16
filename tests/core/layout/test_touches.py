"""What touches what, in the flat panel and in the finished bag."""

from collections import Counter

import pytest

from tessil.core.bag.ids import EdgeKey
from tessil.core.catalogue.prints import Print
from tessil.core.choosing import choose, choose_apart
from tessil.core.edits import applied, edit
from tessil.core.layout.board import areas, ways_up
from tessil.core.layout.touches import EdgeLine, _inner, _outer, meeting
from tessil.core.layout.values import COVERS, classes_of, lightness, luminance, ranks_of, value_of
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tests.conftest import tote
from tests.outside.test_every_shape_on_paper import project_of

F = Fraction


def squared(project, panel, **more):
    """The project with one panel made of squares."""
    made = plan(project).bag.panel(panel)
    changes = (("piecing.way", "squares"), ("piecing.prints", ()))
    extra = tuple((f"piecing.{key}", value) for key, value in more.items())
    return applied(project, choose(project, made, "", *changes, *extra))


@pytest.mark.parametrize(
    ("one", "other", "met"),
    [
        (((0, 0), (2, 0), (2, 2), (0, 2)), ((2, 0), (4, 0), (4, 2), (2, 2)), 2),
        (((0, 0), (2, 0), (2, 2), (0, 2)), ((2, 1), (4, 1), (4, 3), (2, 3)), 1),
        (((0, 0), (2, 0), (2, 2), (0, 2)), ((2, 2), (4, 2), (4, 4), (2, 4)), 0),
        (((0, 0), (2, 0), (2, 2), (0, 2)), ((3, 0), (4, 0), (4, 2), (3, 2)), None),
        (((0, 0), (2, 2), (0, 4)), ((0, 0), (2, 0), (2, 2)), 8**0.5),
    ],
)
def test_how_two_pieces_meet(one, other, met):
    found = meeting(one, other)
    assert found == (pytest.approx(met) if met is not None else None)
    assert meeting(other, one) == found


def test_a_grid_touches_as_a_king_moves():
    """5 × 8 squares: 4·8 + 5·7 sides and 2·4·7 corners (counted by hand)."""
    board = plan(squared(project_of("clutch"), "body")).table.board
    body = plan(squared(project_of("clutch"), "body")).panel("body")
    n, m = body.top.columns.number.whole, body.top.rows.number.whole
    kinds = Counter(t.kind for t in board.touches if t.kind in ("side", "corner"))
    assert kinds["side"] == (n - 1) * m + n * (m - 1)
    assert kinds["corner"] == 2 * (n - 1) * (m - 1)


def test_the_sides_of_a_folded_panel_meet_themselves_across_the_fold():
    made = plan(squared(project_of("clutch"), "body"))
    body, board = made.panel("body"), made.table.board
    fold = next(float(f.start[1]) for f in body.panel.folds if f.name == "bottom")
    joins = [t for t in board.touches if t.kind == "join"]
    assert joins
    n = body.top.columns.number.whole
    for touch in joins:
        ys = []
        for ref in (touch.one, touch.other):
            patch = board.patches[ref]
            assert patch.place in (1, n)
            edge = patch.on_panel
            ys.append((min(y for _, y in edge), max(y for _, y in edge)))
        above, below = sorted(ys)
        mirrored = (2 * fold - above[1], 2 * fold - above[0])
        assert min(mirrored[1], below[1]) - max(mirrored[0], below[0]) > 0


def test_front_and_back_meet_left_to_right_at_their_sides():
    project = squared(tote(), "front")
    made = plan(project)
    sides = [t for t in made.table.board.touches if t.kind == "join"]
    n = made.panel("front").top.columns.number.whole
    rows = made.panel("front").top.rows.number.whole
    places = Counter(
        tuple(made.table.board.patches[ref].place for ref in (t.one, t.other))
        for t in sides
        if made.table.board.patches[t.one].row != rows
        or made.table.board.patches[t.other].row != rows
    )
    for one, other in places:
        assert {one, other} <= {1, n, 2, n - 1}
    assert any({one, other} == {1, n} for one, other in places)


def test_the_bottom_seam_joins_mirrored_places():
    made = plan(squared(tote(), "front"))
    rows, n = made.panel("front").top.rows.number.whole, made.panel("front").top.columns.number
    bottoms = [
        (made.table.board.patches[t.one].place, made.table.board.patches[t.other].place)
        for t in made.table.board.touches
        if t.kind == "join"
        and t.one.panel != t.other.panel
        and made.table.board.patches[t.one].row == made.table.board.patches[t.other].row == rows
    ]
    middle = [(a, b) for a, b in bottoms if 2 < a < n.whole - 1]
    assert middle
    assert all(abs(a + b - (n.whole + 1)) <= 1 for a, b in middle)


def test_the_flap_lies_on_the_front():
    made = plan(squared(project_of("clutch"), "body"))
    worn = [t for t in made.table.board.touches if t.kind == "worn"]
    assert worn
    names = {a.key: a.name for a in areas(made.bag, made.looks)}
    assert list(names.values()) == ["front", "flap", "back"]
    for touch in worn:
        rows = sorted(made.table.board.patches[ref].row for ref in (touch.one, touch.other))
        assert rows[0] == 1  # the free end of the flap
        assert rows[1] > 4


def test_pieces_alike_on_front_and_back_are_one_decision():
    project = squared(tote(), "front")
    made = plan(project)
    assert set(made.table.board.copies.values()) == {2}
    apart = applied(project, choose_apart(project, made.panel("back").panel))
    assert set(plan(apart).table.board.copies.values()) == {1}


def test_zippers_do_not_join():
    """The top rows of front and back meet at the side seams, but not across the zipper."""
    made = plan(squared(project_of("flat-pouch"), "front"))
    ends = (1, made.panel("front").top.columns.number.whole)
    joins = [
        tuple(made.table.board.patches[ref] for ref in (t.one, t.other))
        for t in made.table.board.touches
        if t.kind == "join"
    ]
    top = [pair for pair in joins if {patch.row for patch in pair} == {1}]
    assert top
    assert all(patch.place in ends for pair in top for patch in pair)


def _panels_met(project):
    board = plan(project).table.board
    met = {frozenset({t.one.panel, t.other.panel}) for t in board.touches if t.kind == "join"}
    return {tuple(sorted(pair)) for pair in met if len(pair) == 2}


def _satchel(top):
    base = project_of("satchel")
    project = applied(base, edit("", ("shape.options", {"top": top, "flap_shape": "square"})))
    return squared(squared(project, "front"), "flap")


def test_a_flap_sewn_into_the_back_s_top_seam_meets_it_there():
    """Its top row lies on the back's; under a binding a strip of that lies between."""
    assert _panels_met(_satchel("turned")) == {("back", "flap"), ("back", "front")}
    assert _panels_met(_satchel("bound")) == {("back", "front")}


def test_walls_bound_together_do_not_meet():
    """A bound pouch: round its rim lies the binding, across the front its zipper."""
    assert _panels_met(squared(project_of("bound-pouch"), "lower")) == set()


def test_which_way_up_a_piece_must_lie():
    made = plan(squared(project_of("clutch"), "body"))
    body = made.panel("body")
    found = {}
    for patch in body.patches:
        found.setdefault(patch.row, set()).add(
            frozenset(ways_up(areas(made.bag, made.looks), body, patch))
        )
    assert found[1] == {frozenset({True})}  # the flap
    assert frozenset({True}) in found[max(found)]  # the front
    assert any(frozenset({False}) in ways for ways in found.values())  # the back
    assert any(frozenset({True, False}) in ways for ways in found.values())  # round a fold


def test_lightness_against_the_standard():
    """CIE 1976 L*: white 100, black 0, mid grey #777777 about 50 (sRGB, from memory)."""
    white, black, grey = (lightness(luminance(c)) for c in ("#ffffff", "#000000", "#777777"))
    assert white == pytest.approx(100, abs=0.01)
    assert black == 0
    assert grey == pytest.approx(50, abs=0.6)
    # below 0.008856 of the light it is 903.3 times as much (CIE 15, from memory)
    for share in (0.001, 0.008):
        assert lightness(share) == pytest.approx(903.3 * share, rel=1e-4)
    assert lightness(0.00886) == pytest.approx(903.3 * 0.00886, rel=1e-3)  # where the two meet


def test_prints_in_order_of_light():
    prints = [
        Print(key=k, name=k, ground=g, ink=g)
        for k, g in (("a", "#ffffff"), ("b", "#000000"), ("c", "#888888"), ("d", "#444444"))
    ]
    assert ranks_of(prints) == [3, 0, 2, 1]
    assert classes_of(prints) == [2, 0, 1, 0]
    assert classes_of(prints[:2]) == [1, 0]


def test_every_motif_says_how_much_it_covers():
    from tessil.core.catalogue.prints import Motif

    assert set(COVERS) == set(Motif.__args__)
    assert value_of(Print(key="p", name="p", motif="ticking", ground="#ffffff", ink="#000000")) < (
        value_of(Print(key="p", name="p", motif="dots", ground="#ffffff", ink="#000000"))
    )


def test_a_border_or_sashing_parts_what_would_touch():
    project = squared(tote(), "front", sashing=F(5, 4))
    kinds = Counter(t.kind for t in plan(project).table.board.touches)
    assert not {"side", "corner"} & set(kinds)


def test_a_panel_of_one_cloth_has_no_layout():
    project = tote()
    front = plan(project).bag.panel("front")
    project = applied(project, choose(project, front, "", ("piecing.way", "whole")))
    assert not plan(project).table.board.patches
    assert not plan(applied(project, edit("", ("bags", 2)))).table.board.touches


@pytest.mark.parametrize(
    ("start", "end", "inside", "outside"),
    [
        # a seam of ⅜; ¾ along it, 0.06 to either side of the sewn line, clockwise as drawn
        ((0, 0), (10, 0), (0.75, 0.435), (0.75, 0.315)),
        ((10, 0), (10, 8), (9.565, 0.75), (9.685, 0.75)),
        ((10, 8), (0, 8), (9.25, 7.565), (9.25, 7.685)),
        ((0, 8), (0, 0), (0.435, 7.25), (0.315, 7.25)),
        # on the slant, 3 to 4: ¾ along is 0.45 and 0.6, square to it −0.8 and 0.6
        ((0, 0), (3, 4), (0.45 - 0.348, 0.6 + 0.261), (0.45 - 0.252, 0.6 + 0.189)),
    ],
)
def test_points_to_either_side_of_a_sewn_edge(start, end, inside, outside):
    edge = EdgeLine(EdgeKey("top"), start, end, 0.375)
    assert _inner(edge, 0.75) == pytest.approx(inside)
    assert _outer(edge, 0.75) == pytest.approx(outside)


def test_no_motif_covers_less_than_nothing_or_half_of_its_cloth():
    assert len(COVERS) == 12
    assert all(0 < share < 0.5 for share in COVERS.values())
