"""What keys are called, value by value: edges, seams, pieces to cut and their notes."""

import pytest

from tessil.core.bag.deeds import Deed
from tessil.core.bag.ids import CutNote, CutOwner, EdgeKey, JoinKey
from tessil.core.catalogue import materials
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.rulers import rulers
from tessil.core.numbers.workings import given
from tessil.core.plan import plan
from tessil.core.words import mending
from tessil.core.words.cuts import id_words, note_words, owner_name, taken_words
from tessil.core.words.making import seam_words
from tessil.core.words.names import edge_name, join_name, side_name
from tests.conftest import tote

F = Fraction


@pytest.mark.parametrize(
    ("key", "name", "side"),
    [
        (EdgeKey("top"), "top", "top"),
        (EdgeKey("left", half="upper"), "left, upper", "left"),
        (EdgeKey("right", "corner", "level"), "right notch, level", "right notch"),
        (EdgeKey("left", "top corner", "upright"), "left top notch, upright", "left top notch"),
        (
            EdgeKey("left", "fold", "level", "lower"),
            "left fold notch, level lower",
            "left fold notch",
        ),
        (EdgeKey("right", "fold", "upright"), "right fold notch, upright", "right fold notch"),
        (EdgeKey("left", "curve", step=3), "rounded corner, left, part 3", "left rounded corner"),
        (EdgeKey("left", "curve"), "rounded corner, left", "left rounded corner"),
    ],
)
def test_edges_are_called_by_side_and_part(key, name, side):
    assert edge_name(key) == name
    assert side_name(key) == side
    # as reports have had it since their third form
    assert key.slug == ("left top 3" if key.step else name)


def test_the_pieces_of_a_curve_are_one_run_and_notches_are_known():
    assert EdgeKey("left", "curve", step=3).run == EdgeKey("left", "curve")
    assert EdgeKey("left", half="upper").run == EdgeKey("left", half="upper")
    notch, curve, side = EdgeKey("left", "fold"), EdgeKey("left", "curve"), EdgeKey("left")
    assert [key.notch for key in (notch, curve, side)] == [True, False, False]
    assert [key.plain for key in (notch, curve, side)] == [False, False, True]


@pytest.mark.parametrize(
    ("key", "name", "slug"),
    [
        (JoinKey("seam", "left"), "left seam", "seam.left"),
        (JoinKey("edge", "bottom"), "bottom", "edge.bottom"),
        (JoinKey("end", "right"), "right end", "end.right"),
        (JoinKey("box corner", "left"), "left box corner", "box-corner.left"),
        (
            JoinKey("box corner", "left", "fold"),
            "left box corner at the fold",
            "box-corner.left.fold",
        ),
        (JoinKey("zipper"), "zipper", "zipper"),
        (JoinKey("side seams"), "side seams", "side-seams"),
        (JoinKey("band"), "band", "band"),
        (JoinKey("band", at="behind"), "band behind", "band.behind"),
        (JoinKey("flap"), "flap's free side", "flap"),
    ],
)
def test_seams_are_called_by_place(key, name, slug):
    assert join_name(key) == name
    assert key.slug == slug


@pytest.fixture(scope="module")
def bag():
    return plan(tote(shape=tote().shape.model_copy(update={"options": {"handles": "pair"}}))).bag


@pytest.mark.parametrize(
    ("owner", "name"),
    [
        (CutOwner("panels", ("front",)), "Front"),
        (CutOwner("panels", ("front", "back")), "Front + Back"),
        (CutOwner("part", ("handles",)), "Handles"),
        (CutOwner("bias", ("piping",)), "Bias for the piping"),
        (CutOwner("edge"), "Top edge"),
        (CutOwner("pocket"), "Pocket"),
        (CutOwner("pull"), "Zipper pull"),
        (CutOwner("inner seams"), "Inner seams"),
    ],
)
def test_pieces_are_told_by_what_they_are_for(bag, owner, name):
    assert owner_name(owner, bag) == name
    assert id_words((owner, "strip"), bag) == f"{name}, strip"


def test_what_an_offcut_gives(bag):
    front = (CutOwner("panels", ("front",)), "batting")
    assert taken_words(front, 1, 1, bag) == "Front, batting"
    assert taken_words(front, 4, 2, bag) == "Front, batting in 2, edges butted ×4"


@pytest.mark.parametrize(
    ("kind", "notes", "words"),
    [
        ("panels", (), ""),
        ("panels", (CutNote("scrap", 3),), "from scrap 3"),
        ("panels", (CutNote("inside"), CutNote("upright")), "inside the seams, grain upright"),
        ("panels", (CutNote("short"), CutNote("level")), "short of the seams, grain level"),
        ("panels", (CutNote("side by side", 2),), "2 side by side, edges butted"),
        ("panels", (CutNote("set"),), "full width; sew, then cut across"),
        ("panels", (CutNote("after quilting"),), "sewn on after quilting"),
        ("edge", (CutNote("diagonal"),), "full width; join on the diagonal"),
        ("part", (CutNote("diagonal"),), "join on the diagonal"),
        ("part", (CutNote("butted"),), "may be butted"),
        ("pocket", (CutNote("fold half"),), "fold in half"),
        ("bias", (CutNote("cross"),), "strips at 45°"),
        ("pull", (CutNote("folds"),), "folds to ¼ in (6 mm)"),
        ("inner seams", (CutNote("single fold"),), "single fold"),
    ],
)
def test_notes_on_pieces(kind, notes, words):
    assert note_words(CutOwner(kind), notes) == words


def test_a_bag_is_cared_for_by_the_tenderest_of_its_materials():
    """Every key that is asked for is one of the catalogue's."""
    assert set(mending._WIPED) <= set(materials())
    wiped = mending.care_words(frozenset({"cotton", "stiff-interfacing"}))
    assert wiped.startswith("Wipe clean")
    assert mending.care_words(frozenset({"cotton", "cotton-batting"})).startswith("Wash by hand")


def test_how_a_seam_is_sewn_in_words():
    inch, metric = rulers("inch").notation, rulers("metric").notation
    whole = Deed(
        "a",
        "line.seam-gap",
        "line",
        tool="walking foot",
        seam=given("seam", F(3, 8)),
        length=given("long", F(39, 4)),
        gap=given("gap", 4),
    )
    said = "seam ⅜ in, 9¾ in long, 4 in left open, walking foot"
    assert seam_words(whole, inch) == said
    assert seam_words(whole, metric) == "seam 1 cm, 24.8 cm long, 10.2 cm left open, walking foot"
    assert seam_words(Deed("a", "zip.pull", "zipper"), inch) == ""
    on_a_line = Deed("a", "join.corner", "assemble", seam=given("seam", 0), length=given("long", 3))
    assert seam_words(on_a_line, inch) == "3 in long"
