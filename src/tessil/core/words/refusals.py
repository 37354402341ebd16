"""What a refused entry is told as: one sentence in the maker's words, and where it stands.

Knows how the validating library reports; nobody else need.  Must not know any document.
"""

from __future__ import annotations

import unicodedata
from collections.abc import Mapping, Sequence
from typing import Any

from tessil.core.numbers.decided import Refused

LONGEST_WORD = 40

# By the library's kind of error.  ``{n}`` is the bound it names.
_SENTENCES = {
    "missing": "Something is missing here.",
    "extra_forbidden": "Tessil knows no entry of that name.",
    "literal_error": "That is not among the choices there are.",
    "enum": "That is not among the choices there are.",
    "string_type": "Text goes here.",
    "string_unicode": "Text that can be written goes here.",
    "string_too_long": "At most {n} letters go here.",
    "string_too_short": "A name is missing here.",
    "bool_type": "Yes or no (true or false) goes here.",
    "bool_parsing": "Yes or no (true or false) goes here.",
    "int_type": "A whole number goes here.",
    "int_parsing": "A whole number goes here.",
    "int_parsing_size": "That number is too large.",
    "int_from_float": "A whole number goes here.",
    "float_type": "A number goes here.",
    "float_parsing": "A number goes here.",
    "finite_number": "A number with an end goes here.",
    "too_long": "At most {n} entries go here.",
    "too_short": "At least {n} entries go here.",
    "greater_than": "More than {n} goes here.",
    "greater_than_equal": "At least {n} goes here.",
    "less_than": "A number below {n} goes here.",
    "less_than_equal": "At most {n} goes here.",
    "tuple_type": "A list goes here.",
    "list_type": "A list goes here.",
    "dict_type": "A group of entries goes here.",
    "model_type": "A group of entries goes here.",
    "model_attributes_type": "A group of entries goes here.",
}
_BOUNDS = ("max_length", "min_length", "gt", "ge", "lt", "le")

# The document's short names, in the words of the window; what is not here speaks for itself.
_WORDS = {
    "hold": "what it holds",
    "shape": "the shape",
    "bags": "bags to make",
    "plies": "layers in order",
    "pattern": "kind of lines",
    "locked": "pinned pieces",
    "laid": "pieces in a row",
    "filled": "scraps in courses",
    "zones": "parts below the first",
    "quilt_zones": "parts quilted apart",
    "strip_cut": "strip width",
    "lift_mm": "room under the foot",
    "bobbin_m": "thread on a bobbin",
    "got": "measured",
    "x": "from the left edge",
    "y": "from the top edge",
    "x2": "the other end",
    "mean": "average colour",
    "apart": "length between the points",
    "one": "first point",
    "other": "second point",
    "data": "the picture",
    "id": "the project's mark",
    "run": "direction",
}


def printable(text: str) -> str:
    """A text on one line, without letters that steer a terminal or turn the writing round."""
    plain = "".join(" " if letter in "\t\r\n" else letter for letter in text)
    return "".join(letter for letter in plain if not unicodedata.category(letter).startswith("C"))


def refusal(error: Mapping[str, Any]) -> str:
    """The sentence for one of the library's errors."""
    kind, context = error["type"], error.get("ctx") or {}
    if kind == "string_pattern_mismatch":
        return _of_pattern(str(context.get("pattern", "")))
    if kind == "value_error":
        said = str(context.get("error", error["msg"])).removeprefix("Value error, ")
        return _ended(printable(said))
    bound = next((context[name] for name in _BOUNDS if name in context), "")
    return _SENTENCES.get(kind, "That does not fit here.").format(n=bound)


def first_refusal(error: Refused) -> str:
    """The sentence for the first of what was refused."""
    return refusal(error.errors()[0])


def _of_pattern(pattern: str) -> str:
    if "#" in pattern:
        return "A colour is # and six digits or letters a to f, such as #4f8a8b."
    if pattern.startswith("^[a-z0-9]"):
        return "A short name of small letters, figures and hyphens goes here."
    return "That is not written as it is wanted here."


def _ended(text: str) -> str:
    return text if text.endswith((".", "!")) else text + "."


_NO_ENTRY = ("[key]", "literal[")  # what a checker adds of its own: a key, one of several kinds


def where_words(loc: Sequence[str | int]) -> str:
    """Where in a file an entry stands: ``panels → front → layers in order → no. 1``."""
    words = [_word(part) for part in loc if not str(part).startswith(_NO_ENTRY)]
    return " → ".join(words) or "the top"


def _word(part: str | int) -> str:
    if isinstance(part, int):
        return f"no. {part + 1}"
    plain = printable(part).replace("_", " ").strip()
    return shortened(_WORDS.get(part) or plain or "an entry without a name")


def shortened(text: str) -> str:
    """A word of somebody else's as it may stand in a sentence: printable, and not too long."""
    shown = printable(text).strip()
    return shown if len(shown) <= LONGEST_WORD else shown[: LONGEST_WORD - 1] + "…"
