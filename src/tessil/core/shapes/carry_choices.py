"""What is asked of how a bag is carried: the choices and sizes of every way, for every shape."""

from __future__ import annotations

from collections.abc import Mapping

from msgspec.structs import replace

from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Inches
from tessil.core.shapes.base import Carried, Option, SizeField, starting

ROOM = Fraction(1, 2)  # inches that a side seam goes on below what is caught in it


def _size(key: str, label: str, why: str, start: Inches, only: tuple[str, ...]) -> SizeField:
    return SizeField(key, label, why, start, "always", only=only, asks="carried")


def _option(
    key: str,
    label: str,
    why: str,
    choices: tuple[tuple[str, str], ...],
    only: tuple[str, ...] | None = None,
) -> Option:
    return Option(key, label, why, choices, only, "carried")


_NONE = ("none", "none")
OPTIONS: Mapping[Carried, tuple[Option, ...]] = {
    "strap": (
        _option("strap", "Strap", "Over the shoulder or across the body", (_NONE, ("one", "one"))),
        _option(
            "strap_ends",
            "Its ends",
            "Sewn in for good, or taken off: rings and loops hang on tabs in the side seams",
            (("sides", "in the side seams"), ("rings", "on rings"), ("tied", "tied to loops")),
            ("strap", "one"),
        ),
    ),
    "handles": (
        _option(
            "handles",
            "Handles",
            "Strips folded to the middle twice; cut four times as wide as they end",
            (_NONE, ("pair", "a pair")),
        ),
        _option(
            "handle_ends",
            "Their ends",
            "Caught in the top edge, under its binding or by the zipper; on the face with a box "
            "and a cross; or below the finished edge, flipped up and sewn again",
            (("top", "in the top edge"), ("below", "below the edge"), ("face", "on the face")),
            ("handles", "pair"),
        ),
        _option(
            "handle_set",
            "Set",
            "From where their ends are measured",
            (
                ("quarter", "a quarter in"),
                ("centre", "from the centre"),
                ("sides", "from the corners"),
                ("seams", "from the side seams"),
            ),
            ("handles", "pair"),
        ),
    ),
    "wrist": (
        _option(
            "wrist",
            "Wrist strap",
            "In the side seam, its fold to the inside",
            (_NONE, ("loop", "a loop")),
        ),
        _option(
            "wrist_side",
            "On which side",
            "Seen from the front: where the zipper's pull rests when it is closed",
            (("right", "right"), ("left", "left")),
            ("wrist", "loop"),
        ),
    ),
    "tabs": (
        _option(
            "tabs",
            "Tabs to hold",
            "Where the zipper ends, in the side seam: to hold it by while it is opened",
            (_NONE, ("right", "at the right"), ("both", "at both ends")),
        ),
    ),
    "end": (
        _option(
            "end",
            "End handle",
            "A handle across an end, both its ends in the side seam",
            (_NONE, ("one", "one"), ("both", "one at each end")),
        ),
    ),
}
FIELDS: Mapping[Carried, tuple[SizeField, ...]] = {
    "strap": (
        _size(
            "strap_length",
            "Strap length",
            "Cut length of the strap",
            Fraction(40),
            ("strap", "one"),
        ),
        _size("strap_width", "Strap width", "As it ends", Fraction(1), ("strap", "one")),
        _size("strap_below", "Strap, below the top", "Along the side", ROOM, ("strap", "one")),
    ),
    "handles": (
        _size(
            "handle_length",
            "Handle length",
            "Cut length of each",
            Fraction(24),
            ("handles", "pair"),
        ),
        _size("handle_width", "Handle width", "As it ends", Fraction(1), ("handles", "pair")),
        _size(
            "handle_at",
            "So far",
            "To the middle of the handle",
            Fraction(3),
            ("handle_set", "centre", "sides", "seams"),
        ),
        _size(
            "handle_down",
            "Below the top",
            "Where they are sewn on",
            Fraction(3, 2),
            ("handle_ends", "face", "below"),
        ),
    ),
    "wrist": (
        _size(
            "wrist_length",
            "Loop, cut length",
            "Both ends lie in the seam",
            Fraction(13),
            ("wrist", "loop"),
        ),
        _size("wrist_width", "Loop width", "As it ends", Fraction(1, 2), ("wrist", "loop")),
        _size(
            "wrist_below",
            "Loop, below the top",
            "Along the side",
            Fraction(3, 2),
            ("wrist", "loop"),
        ),
    ),
    "tabs": (
        _size(
            "tab_length",
            "Tab, cut length",
            "Folded in two, both ends in the seam",
            Fraction(3),
            ("tabs", "right", "both"),
        ),
        _size("tab_width", "Tab width", "As it ends", Fraction(3, 4), ("tabs", "right", "both")),
    ),
    "end": (
        _size(
            "end_length",
            "End handle, length",
            "Cut length of each",
            Fraction(8),
            ("end", "one", "both"),
        ),
        _size("end_width", "End handle, width", "As it ends", Fraction(1), ("end", "one", "both")),
        _size("end_apart", "Its ends apart", "Along the seam", Fraction(4), ("end", "one", "both")),
    ),
}


def options_of(kinds: tuple[Carried, ...], begins: Mapping[str, str]) -> tuple[Option, ...]:
    """The choices of those kinds, each beginning where the shape has it begin."""
    return tuple(_begun(one, begins) for kind in kinds for one in OPTIONS[kind])


def _begun(option: Option, begins: Mapping[str, str]) -> Option:
    first = begins.get(option.key)
    choices = sorted(option.choices, key=lambda choice: choice[0] != first)
    return replace(option, choices=tuple(choices)) if first else option


def fields_of(kinds: tuple[Carried, ...], starts: Mapping[str, Inches]) -> tuple[SizeField, ...]:
    """The sizes of those kinds, each beginning where the shape has it begin."""
    return tuple(
        starting(one, starts.get(one.key, one.start)) for kind in kinds for one in FIELDS[kind]
    )
