"""The one exception for a project that cannot be planned, with the field to blame."""

from __future__ import annotations


class CannotPlan(Exception):
    """No plan follows from these decisions.

    ``field`` is the dotted path of the decision to change, ``sentence`` what to tell the
    maker beside it.
    """

    def __init__(self, field: str, sentence: str) -> None:
        super().__init__(sentence)
        self.field = field
        self.sentence = sentence


class FileTrouble(Exception):
    """A file that cannot be read or written; the message is a sentence for the maker."""


class BrokenFile(FileTrouble):
    """What stands in the file makes no sense: reading it again will not help."""


class NewerFile(FileTrouble):
    """A newer Tessil wrote it: it is whole, and not for this one."""
