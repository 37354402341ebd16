"""What every choice begins with, and the last values that it takes: common practice, no source,
where it is a figure of the trade; thicknesses and draw-in from memory."""

import pytest

from tessil.core.brief.choice import Cloth, Held, Seams, ShapeChoice, Thing
from tessil.core.catalogue import material
from tessil.core.catalogue.own import OwnMaterial
from tessil.core.catalogue.prints import Photo, Print
from tessil.core.cutting.choice import Stock
from tessil.core.edges.choice import Bias, BiasPiece, Binding, Button, Cord, Piping, Strap, Zipper
from tessil.core.layout.choice import Rules
from tessil.core.logbook.book import Sewn, Swatch
from tessil.core.numbers.decided import Refused
from tessil.core.numbers.exact import Fraction
from tessil.core.panels.choice import Oversize
from tessil.core.piecing.choice import Pack, Piecing, Scrap, SeamTest
from tessil.core.project import OneBag
from tessil.core.quilting.choice import Machine, Quilting
from tessil.core.sandwich.choice import Offcut, Ply
from tessil.core.trimming.choice import Mark, Snap, Wash

F = Fraction
MM = F(10, 254)

STARTS = {
    Seams: {
        "piecing": F(1, 4),
        "side": F(3, 8),
        "bottom": F(3, 8),
        "top": F(3, 8),
        "corner": F(3, 8),
    },
    Oversize: {"way": "model", "fixed": F(3, 4), "squaring": F(1, 4)},
    Held: {"packed": "stacked", "ease": F(1, 2), "minded": False},
    Thing: {"name": "folder", "width": 9, "height": 12, "thickness": 1, "count": 1},
    ShapeChoice: {"kind": "tote", "way": "finished"},
    Cloth: {"width": 18, "height": 21, "pieces": 1},  # a fat quarter, its selvage off
    Piecing: {
        "way": "strips",
        "run": "level",
        "angle": 45,
        "fixed": "width",
        "strip_cut": F(5, 2),
        "widths": (F(5, 2), F(3, 2)),
        "count": 6,
        "square": F(5, 2),
        "surplus": "both",
        "surplus_across": "both",
        "foundation": "batting",
        "overhang": F(3, 4),  # each strip ½ to 1 past the outline
        "heights": (F(5, 2),),
        "allowance": F(1, 8),  # of crumbs: 10 to 15 %
        "sashing": 0,
        "border": 0,
        "press": "open",
    },
    Quilting: {
        "pattern": "channels",
        "run": "upright",
        "angle": 45,
        "gap": F(5, 4),
        "centre": "line",
        "spacing": "divide",
        "offset": F(1, 4),  # either side of a seam
        "run_off": F(1, 2),
        "stitch_mm": 3,
    },
    Ply: {"material": "cotton-batting", "rule": "margin", "margin": F(1, 2), "bond": "pins"},
    Stock: {"usable_width": 40, "straightening": F(1, 2)},
    Machine: {"needle": None, "lift_mm": 6, "bobbin_m": 30},
    Wash: {"used": False, "share": F(3, 100)},  # cotton shrinks 2 to 4 % more
    Snap: {"used": False, "offset": F(7, 4)},  # 1½ to 2 above the flap's edge
    Mark: {"width": 6, "height": 5, "divisions": 2},
    Offcut: {"material": "cotton-batting", "number": 1},
    Binding: {
        "grain": "straight",
        "fold": "double",
        "seam": F(1, 4),
        "cover": F(1, 8),
        "overlap": F(5, 2),  # 2 to 3
        "corners": "mitred",
        "ending": "tuck",
        "first": "front",
        "sewn": "machine",
        "inner": False,
        "inner_zip": "one",
    },
    Bias: {"source": "yardage", "prefer": "joins", "least": 4},
    BiasPiece: {"width": 18, "height": 21},
    Piping: {"cord": F(25, 10) * MM, "overlap": F(3, 2)},  # a cord of 2.5 mm; 1 to 2 over
    Strap: {"carried": "typed", "made": "cloth", "interfaced": True, "turned_back": F(3, 2)},
    Cord: {"thick": F(1, 4)},
    Button: {"used": False, "across": F(3, 4), "thick": F(1, 8)},
    Zipper: {
        "seam": F(1, 4),
        "shown": F(3, 4),
        "teeth": "nylon",
        "sliders": "one",
        "ends": "stops",
    },
    Rules: {"sides": True, "corners": True, "joins": True, "order": "free", "graded": "down"},
    Pack: {"pieces": 42},
    SeamTest: {"strips": 4, "cut": F(5, 2)},
    OwnMaterial: {
        "relaxed_mm": 2.5,
        "pressed_mm": 0.9,
        "grams": 120,
        "rise_mm": 0.6,
        "draw_mm": 0.35,
    },
    OneBag: {"bags": 1, "corner": "cut", "press_seams": "open", "lining": "drop-in"},
}


@pytest.mark.parametrize("kind", STARTS, ids=lambda kind: kind.__name__)
def test_it_begins_so(kind):
    begins = kind.model_construct()
    assert {name: getattr(begins, name) for name in STARTS[kind]} == STARTS[kind]


BOUNDS = [
    (OneBag, "bags", 1, 999, 0, 1000),
    (Thing, "count", 1, 500, 0, 501),
    (Cloth, "pieces", 1, 50, 0, 51),
    (Piecing, "count", 1, 200, 0, 201),
    (Piecing, "allowance", 0, 1, F(-1, 10), F(11, 10)),
    (Piecing, "laid", 0, 5000, -1, 5001),
    (Scrap, "number", 1, 200, 0, 201),
    (SeamTest, "strips", 2, 40, 1, 41),
    (Pack, "pieces", 1, 999, 0, 1000),
    (Quilting, "stitch_mm", F(1, 100), 8, 0, F(801, 100)),
    (Machine, "lift_mm", 0.1, 20, 0, 20.1),
    (Machine, "bobbin_m", 0.1, 300, 0, 300.1),
    (Offcut, "number", 1, 99, 0, 100),
    (Mark, "divisions", 2, 12, 1, 13),
    (Wash, "share", 0, F(1, 5), F(-1, 100), F(21, 100)),
    (Binding, "strips_on_hand", 0, 999, -1, 1000),
    (Rules, "seed", 0, 999_999, -1, 1_000_000),
    (Print, "amount", 0, 5000, -1, 5001),
    (Photo, "wide", 1, 2048, 0, 2049),
    (Photo, "high", 1, 2048, 0, 2049),
    (OwnMaterial, "relaxed_mm", 0.1, 40, 0, 41),
    (OwnMaterial, "grams", 0, 2000, -1, 2001),
    (OwnMaterial, "rise_mm", 0, 10, -1, 11),
    (OwnMaterial, "draw_mm", 0, 3, -1, 4),
    (OwnMaterial, "along", 0, 0.1, -0.1, 0.2),
    (Sewn, "angle", -90, 90, -91, 91),
    (Sewn, "share", 0.01, 1, 0, 1.01),
    (Swatch, "minutes", 0.1, 600, 0, 601),
    # lengths: a seam from 1⁄16 to 2, a room up to 12, a size to 400 ft or so, never nothing
    (Seams, "side", F(1, 16), 2, F(1, 17), F(33, 16)),
    (Oversize, "squaring", 0, 12, F(-1, 16), F(193, 16)),
    (Piecing, "strip_cut", F(1, 1000), 100, 0, 10**6),
    (Quilting, "angle", 5, 85, 4, 86),
    (Quilting, "angle", -85, -5, -86, -4),
]


@pytest.mark.parametrize(
    ("kind", "name", "low", "high", "below", "above"),
    BOUNDS,
    ids=[f"{kind.__name__} {name} {low}" for kind, name, low, *_ in BOUNDS],
)
def test_it_takes_its_bounds_and_nothing_beyond(kind, name, low, high, below, above):
    for value in (low, high):
        assert _refused(kind, name, value) == []
    for value in (below, above):
        assert _refused(kind, name, value)


def _refused(kind, name, value):
    """What is said against a value, whatever else may be missing."""
    try:
        kind(**{name: value})
    except Refused as error:
        return [one for one in error.errors() if one["loc"][:1] == (name,)]
    return []


# Thickness relaxed and pressed in mm, and weight in g/m²: from memory, to be confirmed by a swatch.
STUFFS = {
    "cotton": (F(3, 10), F(1, 4), 140),
    "canvas": (F(7, 10), F(6, 10), 300),
    "faux-leather": (1, F(9, 10), None),
    "clear-vinyl": (F(4, 10), F(4, 10), 400),
    "cotton-batting": (F(5, 2), F(9, 10), 120),
    "polyester-batting": (6, 1, 100),
    "fusible-fleece": (3, 1, 110),
    "sew-in-foam": (F(9, 2), 2, 200),
    "stiff-interfacing": (F(18, 10), F(17, 10), 250),
    "woven-interfacing": (F(2, 10), F(2, 10), None),
    "webbing": (F(3, 2), F(14, 10), None),
    "zipper-tape": (F(6, 10), F(5, 10), None),
}


@pytest.mark.parametrize("key", STUFFS)
def test_what_is_known_of_a_material(key):
    found, (relaxed, pressed, grams) = material(key), STUFFS[key]
    assert (found.relaxed_mm, found.pressed_mm) == (relaxed, pressed)
    assert grams is None or found.grams_per_square_metre == grams


# The arc's rise and what a line takes, in mm; along the lines ½ %.
DRAWS = {
    "cotton-batting": (0.6, 0.35),
    "fusible-fleece": (0.9, 0.35),
    "polyester-batting": (1.2, 0.4),
    "sew-in-foam": (1.5, 0.5),
}


@pytest.mark.parametrize("key", DRAWS)
def test_how_a_batting_draws_in(key):
    found = material(key)
    assert (float(found.rise_mm), float(found.draw_mm), float(found.along)) == (*DRAWS[key], 0.005)
