"""What a job takes beside cloth, by hand from the choices; lengths as they are sold."""

import pytest

from tessil.core.cutting.acts.shopping import grouped, shopping, sold, ware_readings, wares_of
from tessil.core.cutting.acts.whole import lots_of, plan_whole, spreads_of
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.rulers import rulers
from tessil.core.plan import plan
from tessil.files.projectfile import load
from tests.conftest import DEMO

F = Fraction
INCH, METRIC = rulers("inch").notation, rulers("metric").notation


@pytest.fixture(scope="module")
def kit():
    job = load(DEMO.with_name("kit-of-four.tessil"))
    return [plan(job.project(at)) for at in range(len(job.bags))]


def test_the_satchel_s_hardware_by_hand(kit):
    """Two satchels, each with a strap that adjusts (slider, two rings), a snap and piping."""
    satchel = kit[0]
    found = {ware.kind: ware for ware in wares_of(satchel)}
    assert satchel.project.bags == 2
    assert found["ring"].number.value == 2 * 2
    assert found["strap slider"].number.value == 2
    assert found["ring"].size.value == F(3, 2)  # a strap cut 6 finishes 1½
    assert found["snap"].number.value == 2
    assert found["piping cord"].amount.value == 2 * satchel.edging.piping.cord.value
    assert "zipper" not in found
    threads = sum(p.panel.copies * p.sewing.thread.value for p in satchel.panels if p.sewing)
    assert found["thread"].amount.value == 2 * threads


def test_a_sack_s_two_cords_and_a_pouch_s_zipper(kit):
    (cord,) = [ware for ware in wares_of(kit[3]) if ware.kind == "cord"]
    bags, each = kit[3].project.bags, kit[3].edging.cord.each.value
    assert cord.amount.value == bags * 2 * each
    (zipper,) = [ware for ware in wares_of(kit[1]) if ware.kind == "zipper"]
    assert (zipper.size.value, zipper.number.value) == (12, kit[1].project.bags)


def test_what_is_alike_stands_in_one_line_with_the_bags_it_is_for(kit):
    rows = {key: wares for key, _, wares in grouped([*kit, kit[1]])}
    zippers = rows["zipper.0"]
    assert len(zippers) == 2
    lines = {reading.key: reading for reading in ware_readings([*kit, kit[1]], INCH)}
    assert lines["ware.zipper.0"].figure.value == 2 * kit[1].project.bags
    assert lines["ware.zipper.0"].figure.label == "Zippers, 12 in"
    assert lines["ware.zipper.0"].about == "For reed pouch"
    thread = lines["ware.thread.6"].figure
    assert thread.value == sum(ware.amount.value for ware in rows["thread.6"])
    assert list(ware_readings([None, None], INCH)) == []


@pytest.mark.parametrize(
    ("length", "words"),
    [
        (F(45, 2), "⅝ yd (22½ in)"),
        (F(18), "½ yd (18 in)"),
        (F(136), "3⅞ yd (136 in)"),  # 139½ in, the next eighth of a yard
        (F(9, 2), "⅛ yd (4½ in)"),
    ],
)
def test_lengths_are_asked_for_in_eighths_of_a_yard_with_their_inches(length, words):
    assert sold(length, INCH) == words


def test_metric_lengths_are_in_centimetres():
    assert sold(F(6000, 254), METRIC) == "60 cm"


def test_the_whole_list_has_each_cloth_to_buy_once_and_all_else(kit):
    lots = lots_of(kit)
    cutting = plan_whole(lots, (), kit[0].marks, 0.0)
    lines = list(shopping(spreads_of(cutting, lots).spreads, kit, INCH))
    names = [line.what for line in lines]
    assert len(names) == len(set(names))
    assert set(names) >= {lot.name for lot in lots} | {"Cord", "Piping cord", "Magnetic snaps"}
    oat = next(line for line in lines if line.what == "Oat plain")
    assert oat.amount.endswith("of 40 in wide")
    assert "reed pouch" in oat.about
    thread = next(line for line in lines if line.what == "Thread for quilting")
    assert thread.amount.startswith("about ")
