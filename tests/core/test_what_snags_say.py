"""What a snag says and where, to the letter, and that each of its fixes mends it: reckoned by hand
from a tote of 11 × 12 × 3 (front 14¾ × 13⅞); common practice, no source."""

import pytest

from tessil.core.brief.choice import Held, ShapeChoice, Thing
from tessil.core.catalogue.prints import Print
from tessil.core.edges.choice import Zipper
from tessil.core.edits import applied, edit
from tessil.core.numbers.exact import Fraction
from tessil.core.panels.choice import PanelChoices
from tessil.core.piecing.choice import Piecing, Scrap, SeamTest
from tessil.core.plan import plan
from tessil.core.trimming.choice import Mark, Snap
from tests.conftest import tote, with_front

F = Fraction
W, H = F(59, 4), F(111, 8)


def _cloth(key, **more):
    return Print(key=key, name=key.title(), motif="plain", ground="#aabbcc", **more)


def _marked(*marks):
    return tote(marks=tuple(Mark(panel="front", **mark) for mark in marks))


def _scraps(way, number):
    scraps = (Scrap(width=F(5), height=F(3), number=number),)
    return with_front(tote(scraps=scraps), ("piecing.way", way))


TUNER = Thing(name="tuner", width=F(12), height=F(1), thickness=F(1))
HUGE = ShapeChoice(kind="flat-pouch", sizes={"width": F(9), "height": F(9)})
POUCH = ShapeChoice(kind="flat-pouch", sizes={"width": F(9), "height": F(6)})
CLUTCH = PanelChoices(piecing=Piecing(way="whole", prints=("notes",)))

# key: the project; how grave, what it says, where (x, y, width, height), and what its fixes are
SAID = {
    "layout.unknown.front": (
        tote(prints=(_cloth("oat"), _cloth("red"))),
        ("warns", "Front: 4 pieces are of a print no longer in the basket"),
        None,
        ("Use Oat there",),
    ),
    # the tab is 1¼ wide and 1 high from where it begins, all of it on the pocket of 6 × 5
    "mark.over.front.mark:0.mark:1": (
        _marked({"kind": "slip", "x": F(3), "y": F(4)}, {"kind": "d-ring", "x": F(5), "y": F(6)}),
        ("warns", "The ring tab lies on the slip pocket"),
        (5, 6, F(5, 4), 1),
        ("Move the ring tab off it", "Take the ring tab away"),
    ),
    "mark.seam.front.mark:0": (
        _marked({"kind": "slip", "x": F(0), "y": F(4)}),
        ("warns", "The slip pocket runs into a seam or the base"),
        (0, 4, 6, 5),
        ("Move the slip pocket clear",),
    ),
    # 4 to 6 with batting
    "trim.gap": (
        tote(turning_gap=F(1)),
        ("warns", "A turning gap of 1 in is too small"),
        (0, H, W, 0),
        ("Leave 4 in",),
    ),
    # 9 and two seams of ⅜ less a field of 5; its height is 9⅜, in the middle of which it is told
    "hoop.front": (
        with_front(tote(shape=HUGE), ("layers.stabiliser", "cut-away")),
        ("blocks", "The front is 4¾ in too wide for the hoop"),
        (0, F(37, 8), F(39, 4), 0),
        ("Take the 10 × 16 hoop", "Make the front without a hoop"),
    ),
    # 9¾ and 2 more are 11¾
    "fit.zipper": (
        tote(shape=POUCH, zipper=Zipper(length=F(7))),
        ("blocks", "The zipper is 4¾ in too short"),
        (0, 0, F(39, 4), 0),
        ("Take one of 11¾ in", "Take one as long as it needs"),
    ),
    "quilt.through.front.snap:female": (
        tote(shape=ShapeChoice(kind="satchel", sizes={}), snap=Snap(used=True)),
        ("warns", "A line runs through the snap, female part"),
        (7, 5, F(3, 4), F(3, 4)),
        ("Space the lines: even, gap on the centre", "Leave this line out"),
    ),
    # folded in three, the front third lies upside-down
    "piece.upside-down.body.front.turned": (
        tote(
            shape=ShapeChoice(kind="clutch", sizes={}),
            panels={"body": CLUTCH},
            prints=(_cloth("notes", directional=True), _cloth("oat")),
        ),
        ("warns", "Notes ends upside-down on the front"),
        (F(3, 8), F(83, 8), 9, 6),
        ("Use Oat there",),
    ),
    # four on the front, four on the back
    "layout.amount.red": (
        tote(prints=(_cloth("red", amount=1), _cloth("blue"), _cloth("oat"))),
        ("warns", "Red: 8 pieces laid, 1 in hand"),
        None,
        ("Cut Red as needed",),
    ),
    # two of 5 make 2 × 4½ + ½ = 9½ of 14¾
    "piece.courses.short.front.0": (
        _scraps("courses", 2),
        ("blocks", "Front: course 1 is 5¼ in too short"),
        (0, 0, W, H),
        ("Use strips instead",),
    ),
    "piece.scraps.twice": (
        _scraps("crumbs", 30),
        ("warns", "The scraps are laid for one panel, and 2 are to be made"),
        (0, 0, W, H),
        ("Piece the back of strips",),
    ),
    # four of 2½ measure 9½: seams of ¹⁄₁₂ where ¼ was meant, six of them on seven strips
    "piece.seam.front": (
        tote(seam_test=SeamTest(measured=F(19, 2))),
        ("warns", "Front: your seam is too narrow: 2 in over this panel"),
        (0, 0, W, H),
        ("Move the needle, and forget the test", "Recut the pieces to my seam"),
    ),
    # 12, ease of ½ on both sides, and two walls of 3.1 mm: 13¼ up to the mark
    "fit.width": (
        tote(hold=Held(things=(TUNER,), minded=True)),
        ("blocks", "The tuner does not fit: 2¼ in too little width"),
        (0, H / 2, W, 0),
        ("Make the width 13¼ in", "Size the bag by the tuner", "Do not mind the object"),
    ),
}
AFTER = {
    "Leave 4 in": ("turning_gap", None),  # as much as it needs
    "Make the width 13¼ in": ("shape.sizes.width", F(53, 4)),
    "Size the bag by the tuner": ("shape.way", "object"),
    "Do not mind the object": ("hold.minded", False),
    "Take one of 11¾ in": ("zipper.length", F(47, 4)),
    "Take one as long as it needs": ("zipper.length", None),
    "Move the needle, and forget the test": ("seam_test", None),
    "Cut Red as needed": ("prints.0.amount", None),
    "Use strips instead": ("panels.front.piecing.way", "strips"),
}
FIXES = [(key, at) for key, said in SAID.items() for at in range(len(said[3]))]


def _snag(key):
    return next(snag for snag in plan(SAID[key][0]).snags if snag.key == key)


@pytest.mark.parametrize("key", SAID)
def test_it_says_so_there(key):
    _, (weight, title), place, words = SAID[key]
    snag = _snag(key)
    assert (str(snag.weight), snag.title) == (weight, title)
    assert tuple(fix.words for fix in snag.fixes) == words
    if place is not None:
        there = snag.place
        box = (there.x, there.y, there.width, there.height)
        assert box == pytest.approx(tuple(map(float, place)), abs=0.02)


@pytest.mark.parametrize(("key", "at"), FIXES)
def test_each_fix_changes_what_it_says_and_mends_it(key, at):
    fix = _snag(key).fixes[at]
    mended = applied(SAID[key][0], fix)
    assert mended != SAID[key][0]
    if fix.words == "Recut the pieces to my seam":  # then the seam is right, and still another
        return
    assert key not in {snag.key for snag in plan(mended).snags}
    if fix.words in AFTER:
        path, value = AFTER[fix.words]
        assert applied(mended, edit("", (path, value))) == mended


def test_no_fix_offered_changes_nothing():
    """A bag that is sized by what it holds is not offered to be."""
    held = Held(things=(TUNER,), minded=True)
    project = tote(hold=held, shape=ShapeChoice(kind="tote", way="object", sizes={"height": F(1)}))
    for one in (project, *(said[0] for said in SAID.values())):
        for snag in plan(one).snags:
            assert all(applied(one, fix) != one for fix in snag.fixes), snag.key
