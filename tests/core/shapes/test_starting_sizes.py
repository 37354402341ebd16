"""What each shape begins with before anyone types a size, in inches: common practice, no source."""

import pytest

from tessil.core.edits import applied, edit
from tessil.core.numbers.decided import Decided
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tessil.core.shapes import SHAPES
from tessil.core.shapes.base import SizeField
from tessil.core.starting import Answers, first_project

F = Fraction
H = F(1, 2)
FINISHED = {
    "tote": {"width": 11, "height": 12, "depth": 3},
    "one-piece": {"width": 11, "height": 12, "depth": 3},
    "satchel": {"width": 11, "height": 12, "depth": 3},
    "flat-pouch": {"width": 9, "height": 6},
    "offset-pouch": {"width": 9, "height": 6},
    "boxed-zip": {"width": 8, "depth": 4, "height": 3},
    "clutch": {"width": 9, "height": 6},
    "bound-pouch": {"width": 10, "height": 8},
    "drawstring": {"width": 8, "height": 12, "depth": 3},
    "sleeve": {"width": 10, "height": 13},
    "free-panel": {"width": 12, "height": 9},
}
PANEL = {
    "tote": {"panel_width": 15, "panel_height": 14, "notch_side": 3 * H, "notch_bottom": 3 * H},
    "one-piece": {
        "panel_width": 15,
        "panel_height": 28,
        "notch_side": 3 * H,
        "notch_fold": F(9, 8),  # without the seam of ⅜ that a fold has not
    },
    "satchel": {"panel_width": 15, "panel_height": 14, "notch_side": 3 * H, "notch_bottom": 3 * H},
    "flat-pouch": {"panel_width": 10, "panel_height": 13 * H},
    "offset-pouch": {"panel_width": 10, "panel_height": 12},
    "boxed-zip": {
        "panel_width": 12,
        "panel_height": 14,
        "notch_side": 3 * H,
        "notch_fold": F(9, 8),
        "notch_zip": 1,
    },
    "clutch": {"panel_width": 10, "panel_height": 17},
    "bound-pouch": {"panel_width": 10, "panel_height": 6},
    "drawstring": {
        "panel_width": 12,
        "panel_height": 11,
        "notch_side": 3 * H,
        "notch_bottom": 3 * H,
    },
    "sleeve": {"panel_width": 11, "panel_height": 26},
    "free-panel": {"panel_width": 12, "panel_height": 9},
}
OWN = {
    "satchel": {"flap": 9, "flap_less": F(3, 4), "flap_round": 3 * H, "flap_over": 1},
    "offset-pouch": {"zip_drop": F(5, 4)},
    "clutch": {"flap": 4, "flap_round": 3 * H},
    "bound-pouch": {"upper": 3 * H},
    "drawstring": {"band": 4, "below": F(3, 4), "channel": F(3, 4), "tail": 5},
    "free-panel": {"flap_round": 3 * H},
}
CARRIED = {
    "strap_length": 40,
    "strap_width": 1,
    "strap_below": H,
    "handle_length": 24,
    "handle_width": 1,
    "handle_at": 3,
    "handle_down": 3 * H,
    "wrist_length": 13,
    "wrist_width": H,
    "wrist_below": 3 * H,
    "end_length": 8,
    "end_width": 1,
    "end_apart": 4,
    "tab_length": 3,
    "tab_width": F(3, 4),
}
# A satchel is carried across the body; a sack's seams begin below its channel.
OTHER = {
    "satchel": {"strap_length": 60, "strap_width": 3 * H},
    "drawstring": {"strap_below": 2, "wrist_below": 2},
}


@pytest.mark.parametrize("key", SHAPES)
def test_a_shape_begins_with_its_usual_sizes(key):
    found = {"finished": {}, "panel": {}, "always": {}}
    for field in SHAPES[key].fields:
        found[field.way][field.key] = field.start
    assert found["finished"] == FINISHED[key]
    assert found["panel"] == PANEL[key]
    usual = CARRIED | OTHER.get(key, {}) | OWN.get(key, {})
    assert found["always"] == {name: usual[name] for name in found["always"]}
    assert OWN.get(key, {}).keys() <= found["always"].keys()


@pytest.mark.parametrize(
    ("inches", "millimetres"),
    # the nearest half centimetre, and from half a metre on the nearest five; nothing stays nothing
    [
        (11, 280),
        (9, 230),
        (F(3, 4), 20),
        (F(9, 8), 30),
        (F(1, 8), 5),
        (60, 1500),
        (20, 500),
        (0, 0),
    ],
)
def test_a_start_is_round_for_whoever_measures_in_centimetres(inches, millimetres):
    field = SizeField("width", "Width", "", F(inches))
    assert field.begins("metric") * F(254, 10) == millimetres
    assert field.begins("inch") == inches


@pytest.mark.parametrize("key", SHAPES)
def test_a_bag_begun_in_centimetres_has_whole_sizes_and_corners_that_meet(key):
    for way in ("finished", "panel"):
        begun = first_project(Answers(shape=key).changed("units", "metric"))
        made = plan(applied(begun, edit("", ("shape.way", way))))
        for field in SHAPES[key].fields:
            if field.way == way:
                assert made.sizes[field.key].value * F(254, 10) % (5 if way == "panel" else 1) == 0
        assert not [snag for snag in made.snags if snag.key.startswith("notch.")]


def _lengths(value, path=""):
    """Every length of a document, with where it stands."""
    if isinstance(value, Fraction):
        yield path, value
    elif isinstance(value, Decided):
        for name in type(value).model_fields:
            yield from _lengths(getattr(value, name), f"{path}.{name}")
    elif isinstance(value, dict | tuple):
        for key, one in value.items() if isinstance(value, dict) else enumerate(value):
            yield from _lengths(one, f"{path}.{key}")


def test_a_first_bag_in_centimetres_begins_with_no_inches():
    """But for what is sold so, or is no length: a fat quarter, a hoop, a cord, shares, prints."""
    begun = first_project(Answers(shape="satchel").changed("units", "metric"))
    odd = {path.split(".")[-1] for path, size in _lengths(begun) if size * F(254, 10) % 1}
    assert odd <= {"width", "height", "stitch_mm", "cord", "share", "repeat", "strip_cut"}
    assert begun.strap.turned_back == F(400, 254)
    assert begun.panels["front"].piecing.square == F(650, 254)
