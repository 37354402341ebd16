"""The bag in a hoop: a small zip pouch stitched whole in an embroidery hoop.

The panel with its seams must fit the hoop's field; cloth and batting are cut 1 in larger
than the field on each side (6 × 10 → 8 × 12).  Several along one length: ½ between outlines, so
that each keeps ¼.  Batting is trimmed 2 mm outside its placement line.  Common practice.
"""

from __future__ import annotations

from tessil.core.bag.model import Bag, BagFigure
from tessil.core.catalogue import hoop, hoops
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.workings import (
    Basis,
    Figure,
    floored,
    from_mm,
    given,
    largest,
    no_less,
    number,
)
from tessil.core.shapes.base import (
    HEIGHT,
    NOTHING,
    PANEL_HEIGHT,
    PANEL_WIDTH,
    WIDTH,
    Brief,
    Option,
    Shape,
    SizeField,
    Sizes,
    starting,
)
from tessil.core.shapes.flat_pouch import build as pouch_build
from tessil.core.shapes.flat_pouch import flat_for_object, to_panel
from tessil.core.trouble import CannotPlan

HOOP = Option(
    "hoop",
    "Hoop",
    "The field the machine can stitch",
    (*((entry.key, entry.name) for entry in hoops()), ("own", "my own")),
)
OWN_WIDTH = SizeField(
    "hoop_width",
    "Hoop width",
    "Field of your own hoop",
    Fraction(5),
    "always",
    only=("hoop", "own"),
)
OWN_HEIGHT = SizeField(
    "hoop_height",
    "Hoop height",
    "Field of your own hoop",
    Fraction(7),
    "always",
    only=("hoop", "own"),
)
_EACH_SIDE = given("over the hoop, each side", 1, Basis.PRACTICE)
_KEEPS = given("kept round an outline", Fraction(1, 4), Basis.PRACTICE)
_BETWEEN = given("between outlines", Fraction(1, 2), Basis.PRACTICE)
_TRIM = from_mm("batting beyond its line", Fraction(2), Basis.PRACTICE)


def hooped(field: tuple[Figure, Figure]) -> tuple[Figure, Figure]:
    """What to cut for a hoop: its field and 1 in more on each side."""
    return (field[0] + 2 * _EACH_SIDE).called("cut for the hoop, width"), (
        field[1] + 2 * _EACH_SIDE
    ).called("cut for the hoop, height")


def along_one_length(field: Figure, outline: Figure) -> tuple[Figure, Figure]:
    """How many outlines one hooping takes along its length, and the advance between them."""
    advance = (outline + _BETWEEN).called("advance from one to the next")
    room = field - 2 * _KEEPS - outline
    none = number(0)
    return largest(floored(room / advance) + 1, none).called("in one hooping"), advance


def field_of(brief: Brief, panel: Sizes) -> tuple[Figure, Figure]:
    """The hoop's field; raises CannotPlan for one that its seams alone fill."""
    key = brief.options["hoop"]
    sides = (panel["hoop_width"].value, panel["hoop_height"].value)
    if key != "own":
        sides = (hoop(key).width, hoop(key).height)
    if min(sides) <= 2 * brief.seams.side.value:
        raise CannotPlan("shape.sizes.hoop_width", "A hoop no larger than two seams holds no bag.")
    return given("hoop field, width", sides[0]), given("hoop field, height", sides[1])


def build(brief: Brief, panel: Sizes) -> Bag:
    """The pouch, with what the hoop adds; raises CannotPlan as the flat pouch does."""
    made = pouch_build(brief, panel)
    field = field_of(brief, panel)
    number, advance = along_one_length(field[1], made.finished[1])
    wide, high = (
        no_less(there - need, NOTHING).called(f"to spare in the hoop, {way}")
        for there, need, way in zip(
            field, (panel["panel_width"], panel["panel_height"]), ("width", "height"), strict=True
        )
    )
    cut = hooped(field)
    placed = made.finished[0] + 2 * _TRIM
    return Bag(
        shape="hoop",
        panels=made.panels,
        joins=made.joins,
        matches=made.matches,
        finished=made.finished,
        inside=made.inside,
        figures=(
            BagFigure("hoop-field-width", field[0]),
            BagFigure("hoop-field-height", field[1]),
            BagFigure("cut-for-the-hoop-width", cut[0]),
            BagFigure("cut-for-the-hoop-height", cut[1]),
            BagFigure("to-spare-in-the-hoop-width", wide),
            BagFigure("to-spare-in-the-hoop-height", high),
            BagFigure("in-one-hooping", number),
            BagFigure("advance-from-one-to-the-next", advance),
            BagFigure("batting-trimmed-to-width", placed.called("batting trimmed to, width")),
        ),
        net=made.net,
        attachments=made.attachments,
        zipper=made.zipper,
    )


HOOP_BAG = Shape(
    key="hoop",
    hooped=True,
    name="Bag in a hoop",
    short="Hoop bag",
    sentence="A small zip pouch stitched whole in an embroidery hoop.",
    fields=(
        starting(WIDTH, Fraction(5)),
        starting(HEIGHT, Fraction(4)),
        starting(PANEL_WIDTH, Fraction(23, 4)),
        starting(PANEL_HEIGHT, Fraction(9, 2)),
        OWN_WIDTH,
        OWN_HEIGHT,
    ),
    options=(HOOP,),
    for_object=flat_for_object,
    to_panel=to_panel,
    build=build,
    carries=("strap", "handles", "wrist"),
    starts={"handle_at": Fraction(1)},  # such bags are small
    leader="front",
    cloths=2,
    uses=frozenset({"lining", "bottom", "zip"}),
)
