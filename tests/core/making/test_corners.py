"""Corners before anything is joined: how many, how large, and in their place in the order.  By
hand from the shapes' own sizes; common practice, no source."""

import pytest

from tessil.core.brief.choice import Seams, ShapeChoice
from tessil.core.edges.choice import Zipper
from tessil.core.making.acts.whole import making_of
from tessil.core.making.choice import Made
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tessil.core.trimming.choice import Mark
from tessil.files.makingreport import making_text
from tests.conftest import tote
from tests.outside.test_every_shape_on_paper import project_of

F = Fraction


def _deeds(key, **options):
    project = project_of(key, shape=ShapeChoice(kind=key, options=options))
    return making_of(plan(project), Made()).deeds


def _corners(deeds):
    return {
        (deed.what, *deed.panels): tuple(
            dict(deed.values)[name] for name in ("number", "wide", "high")
        )
        for deed in deeds
        if deed.what.startswith(("mark.corners", "trim.round", "trim.clip"))
    }


@pytest.mark.parametrize(
    ("key", "options", "told"),
    [
        # the flap's two corners, by the radius that is typed first
        ("clutch", {"flap_shape": "round"}, {"trim.round": ((2, F(3, 2), F(3, 2)),) * 2}),
        # clipped: ⅜ of the panel of 9¾ from either side, and as high as the radius would be
        ("clutch", {"flap_shape": "envelope"}, {"trim.clip": ((2, F(117, 32), F(3, 2)),) * 2}),
        ("clutch", {"flap_shape": "square"}, {}),
        # where the flap hangs from the back, and its corners are below
        (
            "satchel",
            {"flap_shape": "round", "base": "none"},
            {"trim.round": ((2, F(3, 2), F(3, 2)),) * 2},
        ),
        # two at the fold, four where the zipper is sewn on, of other legs
        (
            "boxed-zip",
            {"zip_lies": "edge"},
            {
                "mark.corners-cut-fold": ((2, 2, F(13, 8)),) * 2,
                "mark.corners-cut-zip": ((4, 2, F(3, 2)),) * 2,
            },
        ),
        # a base of 3: half of it, all seams being alike; the lining is cut twice
        ("tote", {}, {"mark.corners-cut": ((2, F(3, 2), F(3, 2)),) * 2 + ((4, F(3, 2), F(3, 2)),)}),
    ],
)
def test_corners_are_told_each_kind_by_its_own_size(key, options, told):
    found = {}
    for (what, *_), values in _corners(_deeds(key, **options)).items():
        found[what] = (*found.get(what, ()), values)
    assert found == told


def test_a_corner_is_round_before_its_edge_is_stitched_and_the_panels_joined():
    whats = [(deed.what, deed.panels) for deed in _deeds("clutch")]
    shaped = whats.index(("trim.round", ("body",)))
    assert whats.index(("trim.cut", ("body",))) < shaped < whats.index(("trim.stay", ("body",)))
    joined = next(at for at, (what, _) in enumerate(whats) if what == "join.round")
    assert whats.index(("trim.round", ("lining",))) < joined


@pytest.mark.parametrize("school", ["cut", "line", "pinch"])
@pytest.mark.parametrize(
    ("key", "options", "deep"),
    [
        ("tote", {}, 2),
        ("one-piece", {}, 2),
        ("satchel", {}, 2),
        ("drawstring", {}, 2),
        ("boxed-zip", {"zip_lies": "edge"}, 1),  # across the zipper
        ("boxed-zip", {"zip_lies": "middle"}, 2),  # as high
    ],
)
def test_a_boxed_corner_is_sewn_as_long_as_the_bag_is_deep(key, options, deep, school):
    """Trade: the base end is as long as the bag is deep, whatever the seams; from edges here."""
    seams = Seams(side=F(3, 8), bottom=F(1, 2), corner=F(1, 4))
    shape = ShapeChoice(kind=key, options=options)
    made = plan(project_of(key, shape=shape, seams=seams, corner=school))
    corners = [deed for deed in making_of(made, Made()).deeds if "box-corner" in deed.join]
    assert len(corners) >= 4  # outside and lining
    assert {deed.length.value for deed in corners} == {made.bag.finished[deep].value}


def test_a_side_is_sewn_as_long_as_it_is_once_its_band_is_on():
    """What is above the notch of a main and of its band, less the band's seam of each."""
    made = plan(project_of("drawstring"))
    main, band = made.panel("front").trimmed.height.value, made.panel("band").trimmed.height.value
    notch = made.panel("front").panel.notches[0].other_leg.value
    lining = made.panel("lining").trimmed.height.value
    sides = [deed for deed in making_of(made, Made()).deeds if deed.join == "seam.left"]
    assert [(deed.what, deed.length.value) for deed in sides if deed.length] == [
        ("join.seam", main - notch + band - 2 * F(3, 8)),
        ("line.seam", lining - notch),
    ]


@pytest.mark.parametrize(
    ("key", "what"), [("drawstring", "top.sew"), ("satchel", "top.sew-hanging")]
)
def test_the_top_is_sewn_by_its_seam_over_what_hangs_in_it(key, what):
    shape = ShapeChoice(kind=key, options={"top": "turned"})
    deeds = making_of(plan(project_of(key, shape=shape)), Made()).deeds
    deed = next(deed for deed in deeds if deed.id == "top.sew")
    assert (deed.what, deed.seam.value) == (what, F(3, 8))


@pytest.mark.parametrize("set_", ["seam", "bound", "lapped"])
def test_tabs_are_on_the_zipper_before_it_is_sewn(set_):
    """Tabs of ½ at both ends of a zipper between two seams: that much less of it between them."""
    made = plan(project_of("flat-pouch", zipper=Zipper(ends="tabs", set=set_)))
    deeds = making_of(made, Made()).deeds
    tabbed = next(deed for deed in deeds if deed.what == "zip.end-tabs")
    whats = [deed.what for deed in deeds]
    assert whats.index("zip.end-tabs") < whats.index("check.middles")
    assert dict(tabbed.values)["tape"] == made.bag.zipper.between.value - 1
    plain = making_of(plan(project_of("flat-pouch")), Made()).deeds
    assert "zip.end-tabs" not in [deed.what for deed in plain]


@pytest.mark.parametrize(
    ("width", "pocket", "said"),
    [
        (7, {"divisions": 4}, "1¾, 3½ and 5¼ in from its left side"),  # by hand: 7 in four
        (5, {"divisions": 2}, "2½ in from its left side"),
        (7, {"at": (F(2), F(9, 2))}, "2 and 4½ in from its left side"),
    ],
)
def test_a_pocket_is_divided_where_it_was_said(width, pocket, said):
    mark = Mark(
        kind="divided", panel="front", x=F(4), y=F(3), width=F(width), height=F(5), **pocket
    )
    assert f"divisions in double lines, {said}." in making_text(plan(tote(marks=(mark,))))


def test_a_pocket_whose_divisions_lie_beyond_it_is_sewn_as_one():
    place = {"x": F(4), "y": F(3), "width": F(5), "height": F(5)}
    mark = Mark(kind="divided", panel="front", at=(F(6),), **place)
    assert "divisions" not in making_text(plan(tote(marks=(mark,))))
