"""The report, the cut list and the strip list by value, against sums done by hand.

A tote 11 × 12 × 3 with seams of ⅜ all round and a bound top: panels 11 + 2 × (1½ + ⅜) = 14¾ by
12 + 1½ + ⅜ = 13⅞.  Strips of 2½ with ¼ seams show 2: eight make 8 × 2 + ½ = 16½, since
seven (14½) are short of the 14¾ to piece.  Batting has ½ more on each side.  Geometry and
common practice.
"""

import pytest

from tessil.core.edges.choice import Bias, BiasPiece, Binding
from tessil.core.numbers.exact import Fraction
from tessil.core.panels.choice import Got, Measured
from tessil.core.piecing.choice import Piecing
from tessil.core.plan import plan
from tessil.files.report import (
    check_text,
    cut_csv,
    figure_data,
    finished_short,
    finished_text,
    merged_rows,
    report_data,
    report_text,
)
from tessil.files.striplist import strip_rows, strips_csv
from tests.conftest import tote
from tests.core.hooping.test_hoopings import hooped

F = Fraction


@pytest.fixture(scope="module")
def made():
    return plan(tote())


def test_the_cut_list_as_csv(made):
    assert cut_csv(made).splitlines() == [
        "panel,what,from,number,width,height,note",
        "Front,strip,Red dots,4,15¾,2½,",
        "Front,strip,Blue checks,4,15¾,2½,",
        "Back,strip,Red dots,4,15¾,2½,",
        "Back,strip,Blue checks,4,15¾,2½,",
        "Lining,lining,Oat plain,2,14¾,13⅞,",
        "Front,batting,Cotton batting,1,16¾,17½,",
        "Back,batting,Cotton batting,1,16¾,17½,",
        "Top edge,binding strip,Oat plain,1,40,2,full width; join on the diagonal",
    ]


def test_the_cut_list_in_centimetres_says_the_unit():
    lines = cut_csv(plan(tote(units="metric"))).splitlines()
    # 11 in are 27.94 cm; with two notches of 1½ in and two seams of ⅜ up to the millimetre 37.5
    assert lines[5].startswith("Lining,lining,Oat plain,2,37.7 cm,35.4 cm")
    assert all(cell.endswith(" cm") for line in lines[1:] for cell in line.split(",")[4:6])


def test_for_several_bags_the_numbers_grow_and_the_sizes_do_not():
    rows = [line.split(",") for line in cut_csv(plan(tote(bags=3))).splitlines()[1:]]
    assert [row[3] for row in rows[:5]] == ["12", "12", "12", "12", "6"]
    assert rows[0][4:6] == ["15¾", "2½"]


def test_alike_pieces_are_one_row_to_cut(made):
    first, second, lining = merged_rows(made)[:3]
    assert (first["panel"], first["number"]) == ("Front, back", 8)
    assert (second["from"], second["number"]) == ("Blue checks", 8)
    assert (lining["panel"], lining["number"]) == ("Lining", 2)


def test_the_strip_list(made):
    # Round the opening 2 × 14 = 28, and 2½ over: one strip of the usable 40, cut 2 wide.
    assert strips_csv(made).splitlines() == [
        "for,cloth,strip,piece,angle,width,length,turned,join at",
        "binding,Oat plain,1,,0,2,40,,",
    ]


def test_the_finished_size_in_words(made):
    assert finished_text(made) == "11 wide × 12 high × 3 deep"
    assert finished_short(made) == "11 × 12 × 3"
    # 11, 12 and 3 in are 27.94, 30.48 and 7.62 cm; the metric ruler makes the notch 3.9 cm
    assert finished_text(plan(tote(units="metric"))) == "28 wide × 30.5 high × 7.8 cm deep"


def test_a_bag_without_snags_says_so(made):
    assert check_text(made).strip() == "No snags."


def test_a_snag_is_told_with_its_place_and_ways_out():
    short = Measured(quilted=Got(width=F(14)))
    spoiled = plan(tote(measured={"front": short}))
    snag = report_data(spoiled)["snags"][0]
    assert (snag["key"], snag["stage"], snag["weight"], snag["panel"]) == (
        "trim.small.front.width",
        "trim",
        "blocks",
        "front",
    )
    # 14 quilted against 14¾ to trim to
    assert snag["title"] == "The quilted front is ¾ in too small in width"
    assert snag["why"] == "It must be trimmed to 14¾ × 13⅞."
    assert snag["place"] == {"x": 0, "y": 13.875 / 2, "width": 14.75, "height": 0, "kind": "across"}
    first, *_ = check_text(spoiled).splitlines()
    assert first.strip() == f"blocks: {snag['title']}. {snag['why']}"
    assert "Trim all to 14 × 13⅞, the lining too" in check_text(spoiled)


def test_less_than_a_mark_of_the_ruler_is_nothing_to_trim_to():
    """Measured a sixteenth each way, under a ruler of eighths: told, with the other ways out."""
    got = Got(width=F(1, 16), height=F(1, 16))
    told = check_text(plan(tote(measured={"front": Measured(quilted=got)})))
    assert "too small in width" in told
    assert "Trim all to" not in told


def test_a_length_is_exact_read_and_explained(made):
    told = figure_data(made.panel("front").pieced.width, made)
    assert told == {
        "label": "to piece, width",
        "value": "15 3/4 in",
        "number": 15.75,
        "unit": "inches",
        "reads": "15¾",
        "working": "14¾ ÷ (1 − 2.55 %) + 2 × ¼, up to ¼",
        "words": "trimmed width ÷ (1 − width drawn in, at most) + 2 × squaring margin, "
        "up to piecing step",
        "basis": "starting guess",
    }


def test_a_share_and_a_volume_have_their_own_units(made):
    share = figure_data(made.panel("front").draw.x.expected, made)
    assert (share["unit"], share["reads"]) == ("", "1.3 %")
    volume = figure_data(made.bag.figure("holds-filled-as-a-box"), made)
    # (11 − 2w)(12 − w)(3 − 2w) of a wall w = 0.3 + 2.5 + 0.3 = 3.1 mm
    wall = 3.1 / 25.4
    assert volume["unit"] == "cubic inches"
    assert volume["number"] == pytest.approx((11 - 2 * wall) * (12 - wall) * (3 - 2 * wall))
    assert volume["reads"] == "352 cu in"


@pytest.mark.parametrize(
    ("label", "reads", "working"),
    [
        ("finished width of the base", "11", "14¾ − 2 × (1½ + ⅜)"),
        ("standing height", "12", "13⅞ − (1½ + ⅜)"),
        ("finished depth", "3", "2 × (1½ + ⅜ − ⅜)"),
        ("trimmed width", "14¾", "11 + 2 × (1½ + ⅜), up to ⅛"),
        ("opening, flat", "14", "14¾ − 2 × ⅜"),
    ],
)
def test_the_text_report_gives_each_figure_with_its_sum(made, label, reads, working):
    (line,) = [one for one in report_text(made).splitlines() if one.strip().startswith(label + " ")]
    assert line.split() == [*label.split(), *reads.split(), "=", *working.split(), "geometry"]


def test_rows_of_squares_are_told_in_order_with_their_prints():
    squares = Piecing(way="squares", square=F(5), prints=("red", "blue"))
    front = tote().panels["front"].model_copy(update={"piecing": squares})
    project = tote(panels={**tote().panels, "front": front})
    told = report_data(plan(project))["panels"][0]
    # 15¾ and 14¾ to piece, 4½ shown by each: four across (18½) and four down
    pieces = told["parts"][0]["pieces"]
    assert len(pieces) == 16
    assert [piece["name"] for piece in pieces[:5]] == ["1.1", "1.2", "1.3", "1.4", "2.1"]
    assert {piece["print"] for piece in pieces} == {"red", "blue"}
    assert told["parts"][0]["order"][0].startswith("Lay all 16 squares out")


def test_strips_of_bias_are_numbered_with_the_piece_they_are_of():
    """From one, in the order in which they are joined; a tube is one strip and no piece."""
    pieces = (BiasPiece(width=F(15), height=F(12)), BiasPiece(width=F(18), height=F(14)))
    bias = Bias(source="pieces", pieces=pieces)
    made = plan(tote(binding=Binding(grain="bias"), bias=bias))
    rows = [row for row in strip_rows(made) if row["for"] == "binding"]
    used = made.edging.bias[0].plan.joined.used
    assert [row["strip"] for row in rows] == list(range(1, len(used) + 1))
    assert [row["piece"] for row in rows] == [one.strip.scrap + 1 for one in used]
    assert {row["angle"] for row in rows} <= {45, -45, 135}
    assert rows[-1]["join at"] == ""
    assert all(row["join at"] for row in rows[:-1])
    tube = plan(tote(binding=Binding(grain="bias"), bias=Bias(source="tube")))
    (row,) = strip_rows(tube)
    assert (row["strip"], row["piece"], row["angle"]) == (1, "tube", 45)


def test_straight_strips_are_numbered_with_their_joins():
    """31 from cloth 20 wide: two strips of 2, joined once."""
    stock = tote().stock.model_copy(update={"usable_width": F(20)})
    first, second = strip_rows(plan(tote(stock=stock)))
    assert (first["strip"], second["strip"]) == (1, 2)
    assert (first["width"], first["length"], first["angle"], first["piece"]) == ("2", "20", 0, "")
    assert first["join at"] != ""
    assert second["join at"] == ""


def test_hoopings_and_strips_are_told_in_inches():
    """A pouch of two panels 4 × 3 in a hoop of 5 × 7, its sides bound: one hooping, one strip."""
    hooped_bag = hooped()
    shape = hooped_bag.shape.model_copy(update={"options": {"sides": "bound"}})
    data = report_data(plan(hooped_bag.model_copy(update={"shape": shape})))
    told = data["hoopings"]
    assert (told["field"], told["cut"], told["too_large"]) == ([5, 7], [7, 9], [])
    (group,) = told["groups"]
    assert (group["number"], group["pieces"], group["stabiliser"]) == (1, 1, "cut-away")
    laid = group["hoopings"][0]["laid"]
    assert [(one["x"], one["y"], one["width"]) for one in laid] == [(0.5, 0, 4), (0.5, 3.5, 4)]
    (strip,) = data["strips"]
    assert (strip["edge"], strip["number"], strip["joined_of"]) == ("sides", 1, 1)
    assert report_data(plan(tote()))["hoopings"] is None
