"""The offset-zip pouch: one quilted panel in a ring, its zipper at the top or on the face.

Ring ``C = L − 2z + v``, flat height ``C/2``, width ``W − 2a``.  The short rule, cut = finished
+ 1 both ways, is near it.  Common practice, no source.
"""

from __future__ import annotations

from msgspec.structs import replace

from tessil.core.bag.ids import ENDS, JoinKey
from tessil.core.bag.model import Bag, BagFigure, Fold, Panel, ZipperNeed
from tessil.core.bag.net import FLAT, OVER, Net, Sheet, Tape
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Inches
from tessil.core.numbers.workings import Figure
from tessil.core.shapes.base import (
    HEIGHT,
    PANEL_HEIGHT,
    PANEL_WIDTH,
    WIDTH,
    Brief,
    Shape,
    SizeField,
    Sizes,
    starting,
)
from tessil.core.shapes.common import join_pairs, positive, ruler, zip_join, zipper_length
from tessil.core.shapes.flat_pouch import flat_for_object, flat_inside, zip_rims
from tessil.core.shapes.nets import ZERO, clockwise, level, seam, side
from tessil.core.shapes.outlines import panel_edges
from tessil.core.trouble import CannotPlan

ZIP_DROP = SizeField(
    "zip_drop",
    "Zipper below top",
    "From the top fold to the zipper's middle",
    Fraction(5, 4),
    "always",
    asks="closes",
)


def to_panel(brief: Brief, finished: Sizes) -> Sizes:
    """The one panel for a finished pouch."""
    seams = brief.seams
    length = 2 * finished["height"] - seams.shown + 2 * seams.zip
    return {
        "panel_width": ruler(brief, finished["width"] + 2 * seams.side, "trimmed width"),
        "panel_height": ruler(brief, length, "trimmed height"),
    }


def _ring(brief: Brief, panel: Sizes, height: Inches) -> tuple[Inches, Inches, Inches]:
    """Lengths of the front below the zipper, of the back, and of the front above it."""
    half, drop = brief.seams.shown.value / 2, panel["zip_drop"].value
    if drop <= half:  # the zipper lies over the top fold itself
        return height - half, height - half, Fraction(0)
    return height - drop - half, height, drop - half


def _net(brief: Brief, body: Panel, ring: tuple[Inches, Inches, Inches]) -> Net:
    """Round the bottom fold up the back, over the top fold where the zipper lies on the face."""
    below, back, above = ring
    w, z, a = body.width.value, brief.seams.zip.value, brief.seams.side.value
    low, high = z + below, z + below + back
    creases = [level(low, ZERO, w, OVER)]
    pairs = [((z, low), (low, low + below))]
    if above:
        creases.append(level(high, ZERO, w, OVER))
        pairs.append(((high - above, high), (high, high + above)))
    sides = [
        seam(JoinKey("seam", way), side("body", way, part=one), side("body", way, part=other))
        for way in ENDS
        for one, other in (clockwise(way, *pair) for pair in pairs)
    ]
    return Net(
        sheets=(Sheet("body", body.edges, tuple(creases)),),
        tapes=(Tape("zipper", w - 2 * a, brief.seams.shown.value, FLAT if above else OVER),),
        seams=(
            seam(JoinKey("zipper"), side("body", "top"), side("zipper", "bottom"), hinge=True),
            seam(JoinKey("zipper", at="behind"), side("body", "bottom"), side("zipper", "top")),
            *sides,
        ),
        still=("body", (w / 2, z + below / 2)),
        # Down the back from the top fold, where the panel runs upwards.
    )


def build(brief: Brief, panel: Sizes) -> Bag:
    """One panel in a ring; raises CannotPlan if seams take all or the zipper hangs too low."""
    seams = brief.seams
    width = (panel["panel_width"] - 2 * seams.side).called("finished width")
    ring = (panel["panel_height"] - 2 * seams.zip + seams.shown).called("ring, zipper and all")
    height = (ring / 2).called("finished height")
    positive(width, "panel_width", "The two side seams take all of it: make it wider.")
    positive(
        panel["panel_height"] - 2 * seams.zip - seams.shown,
        "panel_height",
        "Two zipper seams take all of it: make it longer.",
    )
    below, _, above = _ring(brief, panel, height.value)
    if below <= 0:
        raise CannotPlan("shape.sizes.zip_drop", "The zipper would lie below the bottom: raise it.")
    size: tuple[Figure, Figure] = (panel["panel_width"], panel["panel_height"])
    w, h = size[0].value, size[1].value
    rims = zip_rims(brief) | {"bottom": ("zip", seams.zip)}
    folds = [Fold("bottom", (Fraction(0), seams.zip.value + below), (w, seams.zip.value + below))]
    if above:
        y = h - seams.zip.value - above
        folds.append(Fold("top", (Fraction(0), y), (w, y)))
    body = Panel("body", "Body", "outer", *size, panel_edges((w, h), rims), tuple(folds))
    return Bag(
        shape="offset-pouch",
        panels=(body,),
        joins=(
            zip_join(("body", "top"), ("body", "bottom"), seams.zip),
            replace(
                *join_pairs(
                    (JoinKey("side seams"), ("body", "left"), ("body", "right"), seams.side)
                ),
                kind="folded",
                raw=(height.called("left side seam"), height.called("right side seam")),
            ),
        ),
        matches=(),
        finished=(width, height),
        inside=flat_inside(brief, width, height),
        figures=(BagFigure("ring-zipper-and-all", ring),),
        net=_net(brief, body, (below, height.value, above)),
        zipper=ZipperNeed(size[0], zipper_length(size[0]), width),
    )


OFFSET_POUCH = Shape(
    key="offset-pouch",
    name="Offset-zip pouch",
    short="Pouch",
    sentence="One quilted panel in a ring, the lining quilted in, the zipper on its face.",
    fields=(
        starting(WIDTH, Fraction(9)),
        starting(HEIGHT, Fraction(6)),
        starting(PANEL_WIDTH, Fraction(10)),
        starting(PANEL_HEIGHT, Fraction(12)),
        ZIP_DROP,
    ),
    options=(),
    carries=("strap", "wrist", "end", "tabs"),
    for_object=flat_for_object,
    to_panel=to_panel,
    build=build,
    leader="body",
    flat_sides=True,
    uses=frozenset({"zip"}),
)
