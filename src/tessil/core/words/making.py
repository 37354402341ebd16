"""The words of making: what a step is called, what is done, why a gate holds a hand back.

One table, so that another language would be another table.  Common practice, no source.
``{panels}`` are the panels under the hand; lengths are told in the maker's units.
"""

from __future__ import annotations

from collections.abc import Mapping

from tessil.core.bag.deeds import Deed, Operation
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Notation
from tessil.core.words.deeds import DEED_WORDS
from tessil.core.words.steps import STEP_WORDS, filled

OPERATION_WORDS: Mapping[Operation, str] = {
    "cut": "Cut",
    "piece": "Piece",
    "layer": "Layer",
    "quilt": "Quilt",
    "trim": "Trim",
    "mark": "Mark",
    "prepare": "Parts",
    "zipper": "Zipper",
    "assemble": "Join",
    "line": "Line",
    "turn": "Turn",
    "finish": "Finish",
}

_HEADS = (
    ("bind.flap", "Bind the flap"),
    ("bind.", "Binding"),
    ("pipe.", "Piping"),
    ("strap.", "Strap"),
    ("bias.", "Bias strips"),
    ("square.", "Square the {panels}"),
    ("zip.end-tabs", "Tabs on the zipper's ends"),
    ("zip.bind-edges", "Bind the zipper's edges"),
    ("zip.pull-tab", "Pull tab"),
    ("zip.", "Zipper"),
    ("cord.", "Cord"),
    ("loop.button", "Button"),
    ("loop.", "Loop"),
    ("", "Piece the {panels}"),
)

GATE_WORDS: dict[str, tuple[str, str]] = {
    "zip-open": (
        "The zipper is closed: once this seam is sewn the bag cannot be turned.",
        "The seam has to be unpicked again.",
    ),
    "pull-inside": (
        "The pull is not inside: it is cut off with the end of the zipper.",
        "A new zipper, or a new slider over the cut end.",
    ),
    "snap-first": (
        "The snap is not in: once this is closed its washer cannot be bent.",
        "The seam has to be opened, or the washer shows.",
    ),
    "pockets-first": (
        "A pocket is not on: the lining is closed with this step.",
        "No pocket, or the lining is unpicked.",
    ),
    "fold-inside": (
        "Nobody has looked which way the fold lies: it goes towards the inside.",
        "The raw edge shows; the end is unpicked from the seam.",
    ),
    "untwisted": (
        "Nobody has let it run through the hand: it may be twisted.",
        "One end is unpicked and sewn again.",
    ),
    "lining-right": (
        "The linings are not laid right: teeth to the lining, right sides together.",
        "The zipper bulges, or a wrong side shows: both seams unpicked.",
    ),
    "gap-left": (
        "There is no gap left to turn it through.",
        "The bag is sewn shut: open some 4 in (10 cm) of the lining's seam.",
    ),
    "upright": (
        "Nobody has looked whether the prints stand upright.",
        "An upside-down panel shows once all is sewn.",
    ),
    "caught": (
        "The seams have not been looked along: batting hides a missed layer.",
        "It is found after turning, and turned back.",
    ),
    "clipped": ("Curves and corners are not clipped.", "They pucker; the bag is turned back."),
    "middles-meet": (
        "Middles have not been laid on one another.",
        "The sides do not meet at the zipper's end.",
    ),
    "not-closed": (
        "The lining is closed already: nothing can be set into it.",
        "The lining's seam is unpicked.",
    ),
    "flap-in-seam": (
        "The flap is not on: this seam would close without it.",
        "The top is unpicked along the back.",
    ),
    "piping-first": (
        "The piping is not on: this seam would close without it.",
        "The seam is unpicked.",
    ),
    "strap-in-seam": (
        "What goes into this seam is not basted on.",
        "The seam is unpicked where it goes.",
    ),
    "cool-iron": (
        "The iron has not been set: something here melts.",
        "A spoilt panel, and a spoilt iron.",
    ),
}


def deed_words(deed: Deed, panels: str, join: str, notation: Notation) -> tuple[str, str]:
    """What a step is called, and what is done in it.  ``panels`` and ``join`` are their names."""
    title, sentence = DEED_WORDS.get(deed.what, ("", STEP_WORDS.get(deed.what, "")))
    values = dict(deed.values)
    said = filled(sentence, values, notation)
    words = {
        "panels": panels,
        "Panels": panels[:1].upper() + panels[1:],
        "join": join,
        "gap": "" if deed.gap is None else notation.read_off(deed.gap.value, unit=True),
    }
    for name, value in words.items():
        said = said.replace(f"{{{name}}}", value)
    heading = filled(title, values, notation).replace("{join}", join)
    heading = heading.replace("{panels}", panels)
    if not heading:
        heading = next((name for start, name in _HEADS if deed.what.startswith(start)), "")
        heading = heading.replace("{panels}", panels) or OPERATION_WORDS[deed.operation]
        if deed.what.startswith("strap."):  # several kinds of strips are made alike: which one
            of = str(values.get("of", heading))
            heading = of[:1].upper() + of[1:]
    return heading, said


def seam_words(deed: Deed, notation: Notation) -> str:
    """How a seam is sewn: how far from the edge, how long it is, where it stays open."""
    said = []
    if deed.seam is not None and deed.seam.value:  # on a line it takes none
        said.append(f"seam {notation.read_off(deed.seam.value, unit=True)}")
    if deed.length is not None:
        said.append(f"{notation.read_off(Fraction(deed.length.value), unit=True)} long")
    if deed.gap is not None:
        said.append(f"{notation.read_off(deed.gap.value, unit=True)} left open")
    if deed.tool:
        said.append(deed.tool)
    return ", ".join(said)


GLOSSARY: dict[str, str] = {
    "right sides together": "The sides that will show lie on each other; the wrong sides are seen.",
    "back-tack": "A few stitches back and forth at the end of a seam, so that it does not open.",
    "stay-stitch": "A line of stitches just inside the edge that keeps it from stretching.",
    "topstitch": "Sewn from outside, close to an edge, to be seen.",
    "baste": "Sewn with long stitches to hold until the real seam; it may stay inside.",
    "slip-stitch": "By hand, from fold to fold, so that no stitch is seen.",
    "clip": "Snip the allowance up to the stitching, and not into it.",
    "teeth": "What closes a zipper, between its two tapes.",
    "allowance": "What lies between the seam and the raw edge.",
    "raw edge": "An edge as it was cut, not sewn or turned yet.",
    "ladder": "The row of sizes of a panel: pieced, quilted, trimmed.",
    "nest": "Seams pressed opposite ways lock into each other.",
    "bias": "Cloth cut on the slant: it stretches.",
}

STATE_WORDS: dict[str, str] = {
    "seams": "{sewn} of {number} seams of the outside are sewn.",
    "lining open": "The lining is not closed: pockets and snap can still be set.",
    "lining closed": "The lining is closed: nothing can be set into it any more.",
    "open": "All of it can still be reached.",
    "gap": "The way out is the gap in the lining, {wide}.",
    "zip": "The way out is the open zipper, {wide}.",
    "shut": "The zipper is shut: there is no way out.",
    "mouth": "The way in is its top, {wide} round.",
    "enough": "Its stiffest part turns through {least}: the gap of {gap} will do.",
    "narrow": "Its stiffest part asks for {least}: a gap of {gap} is too narrow.",
    "turned": "It is right side out.",
    "inside out": "It is wrong side out.",
}

# What to do where a step went wrong, by the beginning of its kind; the first that fits.
