"""Buttons of the bars above the bench, made in one line."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtWidgets import QPushButton


def push(words: str, tip: str, work: Callable[[], object], look: str = "") -> QPushButton:
    """A button that does something when it is pressed; one of a sign alone is named by its tip."""
    button = QPushButton(words)
    button.setToolTip(tip)
    if look:
        button.setObjectName(look)
    if len(words) == 1:
        button.setAccessibleName(tip)
    button.clicked.connect(lambda: work())
    return button
