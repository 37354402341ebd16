"""Where a mark is put at first and how it is moved: by hand on a front of 14¾ × 13⅞ with seams of
⅜, a bound top of ¼, notches of 1½; common practice, no source."""

import pytest

from tessil.core.brief.choice import Base, ShapeChoice
from tessil.core.edits import applied
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tessil.core.trimming.acts.marking import (
    add_mark,
    face_room,
    free_room,
    move_mark,
    remove_mark,
    set_mark,
)
from tessil.core.trimming.choice import Mark, Snap
from tests.conftest import tote
from tests.outside.test_every_shape_on_paper import project_of

F = Fraction
W, H = F(59, 4), F(111, 8)


@pytest.fixture(scope="module")
def made():
    return plan(tote())


def test_the_room_lies_inside_the_seams_and_above_the_base(made):
    """Down to the notch at 12⅜ less the corner seam of ⅜."""
    front = made.panel("front")
    assert free_room(made, front, F(0)) == (F(3, 8), F(1, 4), 14, F(12) - F(1, 4))
    half = free_room(made, front, F(1, 2))
    assert half == (F(7, 8), F(3, 4), 13, F(12) - F(1, 2) - F(3, 4))


def test_the_room_on_a_face_is_that_of_the_face_where_its_middle_lies():
    """A wide low label just above a fold of a clutch, in one panel from flap to front."""
    one = plan(tote(shape=ShapeChoice(kind="clutch", sizes={})))
    body = one.panel("body")
    faces = sorted((facet.box for facet in one.sewn.facets["body"]), key=lambda box: box[1])
    upper, lower = faces[0], faces[1]
    fold = F(round(lower[1] * 1000), 1000)
    for y, (left, top, wide, high) in ((fold - F(3, 2), upper), (fold + F(1, 2), lower)):
        room = face_room(one, body, (F(2), y, F(6), F(1)), F(1, 4))
        inside = (left + 0.25, top + 0.25, wide - 0.5, high - 0.5)
        assert tuple(map(float, room)) == pytest.approx(inside, abs=1e-4)
    beyond = face_room(one, body, (F(90), F(90), F(1), F(1)), F(1, 4))
    assert beyond == free_room(one, body, F(1, 4))


# Two thirds of 14 is more than 6, half of 11¾ more than 5: six by five, 4⅜ in from the left.
MIDDLE = F(3, 8) + 4
PLACES = {
    "slip": (MIDDLE, F(11, 4), 6, 5),  # 2½ below the top's line
    "divided": (MIDDLE, F(11, 4), 6, 5),
    "window": (MIDDLE, F(2), 6, 5),  # 1¾ below it
    "motif": (MIDDLE, F(29, 8), 6, 5),  # ¼ + (11¾ − 5) ÷ 2 is 3⅝
    "d-ring": (0, F(3, 4), 6, 5),  # in the side seam, ½ below the top's line
    "ribbon": (0, F(33, 8), 6, F(1, 2)),  # a third of the way down, ¼ + 3¹¹⁄₁₂: to ⅛, 4⅛
    "label": (F(91, 8), 10, 2, 1),  # 3 from the right seam, 2 above the base's line
    "patch": (MIDDLE, F(13, 4), 3, 3),  # a quarter down, ¼ + 2¹⁵⁄₁₆ is 3³⁄₁₆: to ⅛, 3¼
}


@pytest.mark.parametrize("kind", PLACES)
def test_a_mark_begins_at_its_usual_place(made, kind):
    change = add_mark(made, made.panel("front"), kind)
    (mark,) = applied(made.project, change).marks
    assert (mark.kind, mark.panel) == (kind, "front")
    assert (mark.x, mark.y, mark.width, mark.height) == PLACES[kind]


def test_on_a_small_panel_it_is_two_thirds_wide_and_half_as_high():
    small = tote().shape.model_copy(
        update={"sizes": {"width": F(4), "height": F(6), "depth": F(1)}}
    )
    made = plan(tote(shape=small))
    front = made.panel("front")
    (mark,) = applied(made.project, add_mark(made, front, "slip")).marks
    _, _, wide, high = free_room(made, front, F(0))
    assert abs(mark.width - wide * 2 / 3) <= F(1, 16)
    assert abs(mark.height - high / 2) <= F(1, 16)
    assert mark.width < 6
    assert mark.height < 5


@pytest.mark.parametrize(
    ("x", "y", "at"),
    [
        (3.06, 2.95, (F(3), F(3))),  # to the nearest eighth
        (3.07, 2.93, (F(25, 8), F(23, 8))),
        (-1.0, -4.0, (F(0), F(0))),
        (99.0, 99.0, (W, H)),
    ],
)
def test_a_mark_is_dragged_to_the_rulers_marks_and_stays_on_its_panel(made, x, y, at):
    marked = plan(applied(made.project, add_mark(made, made.panel("front"), "slip")))
    change = move_mark(marked, 0, x, y)
    assert change.words == "Move the slip pocket"
    (mark,) = applied(marked.project, change).marks
    assert (mark.x, mark.y) == at


def test_marks_are_changed_and_taken_away_one_by_one(made):
    project = made.project
    for kind in ("slip", "window", "motif"):
        project = applied(project, add_mark(plan(project), plan(project).panel("front"), kind))
    marked = plan(project)
    changed = applied(project, set_mark(marked, 1, "Widen", width=F(4))).marks
    assert [mark.width for mark in changed] == [6, 4, 6]
    assert [mark.kind for mark in changed] == ["slip", "window", "motif"]
    gone = remove_mark(marked, 1)
    assert gone.words == "Take the window zip pocket away"
    assert [mark.kind for mark in applied(project, gone).marks] == ["slip", "motif"]


# A pocket of 6 × 5 at 4, 4 unless told otherwise; where it runs into something.
RUNS = [
    ({"x": F(3, 8)}, False),  # at the left seam
    ({"x": F(5, 16)}, True),
    ({"x": F(67, 8)}, False),  # 14¾ less ⅜ and 6
    ({"x": F(135, 16)}, True),
    ({"y": F(1, 4)}, False),  # below the bound top
    ({"y": F(3, 16)}, True),
    ({"y": F(7)}, False),  # 12 less 5
    ({"y": F(113, 16)}, True),
    ({"sides": "seams", "x": F(0), "width": W}, False),
    ({"sides": "seams", "x": F(0), "width": W, "y": F(113, 16)}, True),
    ({"sides": "free", "y": F(0), "height": F(12)}, False),  # from the top seam down
    ({"sides": "free", "y": F(0), "height": F(193, 16)}, True),
    ({"sides": "free", "y": F(0), "x": F(5, 16)}, True),
    ({"kind": "d-ring", "x": F(0)}, False),
]


@pytest.mark.parametrize(("more", "runs"), RUNS)
def test_a_pocket_lies_between_the_seams_or_is_caught_in_them(more, runs):
    place = {"kind": "slip", "panel": "front", "x": F(4), "y": F(4), "width": F(6), "height": F(5)}
    made = plan(tote(marks=(Mark(**place | more),)))
    assert any(snag.key == "mark.seam.front.mark:0" for snag in made.snags) == runs


BOXES = {  # a mark at 3, 4 of 6 × 5 on the front of 14¾ × 13⅞
    "slip": ({}, (3, 4, 6, 5), "Slip pocket"),
    "divided": ({}, (3, 4, 6, 5), "Divided pocket"),
    "window": ({"box": F(5, 8)}, (3, 4, 6, F(5, 8)), "Window zip pocket"),
    "d-ring": ({}, (3, 4, F(5, 4), 1), "Ring tab"),
    "motif": ({}, (3, 4, 6, 5), "Motif"),
    "label": ({}, (3, 4, 6, 5), "Label"),
    "patch": ({}, (3, 4, 6, 5), "Patch"),
    "ribbon": ({}, (0, 4, W, 5), "Ribbon or lace"),  # all across the panel
}


@pytest.mark.parametrize("kind", BOXES)
def test_where_each_kind_of_mark_lies_and_what_it_is_called(kind):
    more, box, label = BOXES[kind]
    made = plan(tote(marks=(Mark(kind=kind, panel="front", x=F(3), y=F(4), **more),)))
    (placed,) = made.marks_on("front")
    assert placed.box == box
    assert (placed.label, placed.kind, placed.key, placed.index) == (label, kind, "mark:0", 0)
    name, (x, y) = label.lower(), box[:2]
    assert [(figure.label, figure.value) for figure in placed.figures] == [
        (f"{name}, from left edge", x),
        (f"{name}, from left seam line", x - F(3, 8)),
        (f"{name}, from top edge", y),
        (f"{name}, from top seam line", y - F(1, 4)),
    ]


@pytest.mark.parametrize(
    ("edge", "box"),
    [
        ("left", (0, 0, 1, H)),
        ("right", (W - 1, 0, 1, H)),
        ("top", (0, 0, W, 1)),
        ("bottom", (0, H - 1, W, 1)),
    ],
)
def test_a_trim_along_an_edge_lies_in_its_seam(edge, box):
    mark = Mark(kind="ribbon", panel="front", x=F(3), y=F(4), height=F(1), edge=edge)
    (placed,) = plan(tote(marks=(mark,))).marks_on("front")
    assert placed.box == box


@pytest.mark.parametrize(
    ("more", "lines"),
    [
        ({"divisions": 3}, (5, 7)),  # 6 in three, from 3
        ({"divisions": 4}, (F(9, 2), 6, F(15, 2))),
        ({"at": (F(2), F(11, 2))}, (5, F(17, 2))),
        ({"at": (F(2), F(6))}, (5,)),  # none at its very side
    ],
)
def test_a_divided_pocket_is_stitched_evenly_or_where_it_is_told(more, lines):
    mark = Mark(kind="divided", panel="front", x=F(3), y=F(4), **more)
    (placed,) = plan(tote(marks=(mark,))).marks_on("front")
    assert placed.lines == lines


def test_the_halves_of_a_snap_are_centred_one_from_the_flap_s_edge_one_where_it_lands():
    """A flap of 9 over half of 3 lands 7½ down, but for what the walls take; its half 1¾ up."""
    made = plan(project_of("satchel", snap=Snap(used=True)))
    found = {mark.key: mark for panel in made.panels for mark in made.marks_on(panel.key)}
    male, female = found["snap:male"], found["snap:female"]
    for mark in (male, female):
        panel = made.panel(mark.panel)
        x, y, wide, high = mark.box
        assert (wide, high) == (F(3, 2), F(3, 2))
        assert x + wide / 2 == panel.trimmed.width.value / 2
        assert mark.figures[0].value == x + wide / 2
        assert mark.figures[1].value == y + high / 2
        assert mark.figures[2].value == y + high / 2 - panel.shown["top"]
    below = female.figures[3].value
    assert female.figures[1].value == made.bag.flap.female_from.value + below
    assert below == made.bag.flap.lands.value - F(7, 4)
    typed = plan(project_of("satchel", snap=Snap(used=True, female=F(2))))
    (set_,) = [m for p in typed.panels for m in typed.marks_on(p.key) if m.key == "snap:female"]
    assert set_.figures[1].value == typed.bag.flap.female_from.value + 2


@pytest.mark.parametrize(
    ("shape", "panel", "box"),
    [
        # half of the base on each of two panels, above the seam of ⅜
        ("tote", "front", ((W - 11) / 2, H - F(3, 8) - F(3, 2), 11, F(3, 2))),
        # all of it in the middle of one that goes round
        ("one-piece", "body", None),
    ],
)
def test_where_the_stiffener_of_a_base_lies(shape, panel, box):
    sizes = {"width": F(11), "height": F(12), "depth": F(3)}
    choice = ShapeChoice(kind=shape, way="finished", sizes=sizes)
    made = plan(tote(shape=choice, base=Base(stiffener="sleeve")))
    (placed,) = [mark for mark in made.marks_on(panel) if mark.key == "base:stiffener"]
    if box is None:
        width, height = made.panel(panel).trimmed.values()
        box = ((width - 11) / 2, (height - 3) / 2, 11, 3)
    assert placed.box == box
    assert placed.label == "Base stiffener"
