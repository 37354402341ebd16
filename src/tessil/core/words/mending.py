"""What to do where a step went wrong, and how a bag is cared for."""

from __future__ import annotations

from collections.abc import Mapping

from tessil.core.catalogue import Material

_MENDING: tuple[tuple[str, str], ...] = (
    (
        "trim.",
        "Measure what there is and write it on the ladder: all that follows is planned from it. "
        "Too small by more than that allows, the panel is cut anew.",
    ),
    (
        "piece.measure",
        "Write what came out on the ladder. Narrow by a little, unpick one seam and sew it with "
        "less; wide, trim it.",
    ),
    ("piece.", "Unpick the seam, press, sew it again; a piece that stretched is cut anew."),
    (
        "quilt.",
        "Unpick the lines that pucker from the back, press, sew them again. A hole is covered by "
        "an ornament or a patch.",
    ),
    (
        "prepare.snap",
        "Its prongs leave holes: set it again over a square of interfacing, and cover the holes "
        "with a patch.",
    ),
    ("strap.", "Unpick one end, let it run through the hand, sew it again."),
    ("check.untwisted", "Unpick one end, let it run through the hand, sew it again."),
    (
        "zip.trim",
        "A pull that is cut off: put the slider on again from the cut end, teeth even, bar-tack "
        "both ends; else a new zipper.",
    ),
    ("zip.", "Unpick that side from end to end; sew it again, as far off the teeth as the foot."),
    (
        "check.caught",
        "Unpick 1 in (25 mm) past the miss on either side, lay all layers even, sew over both ends "
        "again; cut back at most ⅛ in (3 mm).",
    ),
    (
        "turn.gap",
        "Sewn shut or too narrow: open some 4 in (10 cm) in the middle of the lining's longest "
        "seam, a back-tack on either side.",
    ),
    ("join.corner", "Unpick it whole and pull the corner flat again, seam on seam."),
    ("join.", "Unpick from here to here, a stitch in three, press both edges, sew it again."),
    ("line.", "Unpick the lining's seam, lay it again, right sides together, sew it again."),
    ("bind.", "Unpick it to the last corner that is good; stretched bias is eased in or cut anew."),
)


def mending_words(what: str) -> str:
    """What to do where a step of that kind went wrong."""
    said = next((words for start, words in _MENDING if what.startswith(start)), "")
    return said or "Take it apart as far as it went wrong, press, and do it again."


# What does not bear water or an iron; common practice, no source.
_WIPED = frozenset({"clear-vinyl", "faux-leather", "stiff-interfacing", "sew-in-foam"})


def made_of_words(materials: Mapping[str, Material], keys: tuple[str, ...]) -> str:
    """What a label says a bag is made of."""
    names = ", ".join(materials[key].name.lower() for key in keys)
    return f"Made of {names}." if names else "Made of cotton."


def care_words(keys: frozenset[str]) -> str:
    """How a bag is to be cared for, by the tenderest of what it is made of."""
    if keys & _WIPED:
        return "Wipe clean with a damp cloth. Do not wash, do not iron, keep from heat."
    return "Wash by hand, cool, in mild soap; dry flat. Iron from the lining side, not hot."
