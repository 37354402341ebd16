"""The order in which Tab goes through a window, laid anew only where it is another."""

from __future__ import annotations

from collections.abc import Iterable
from itertools import pairwise

from PySide6.QtWidgets import QWidget


class TabOrder:
    """Remembers the order that was laid last."""

    def __init__(self) -> None:
        self._laid: list[QWidget] = []

    def lay(self, order: Iterable[QWidget]) -> None:
        """Tab goes through these, one after the other."""
        wanted = list(order)
        if wanted == self._laid:
            return
        self._laid = wanted
        for one, other in pairwise(wanted):
            QWidget.setTabOrder(one, other)
