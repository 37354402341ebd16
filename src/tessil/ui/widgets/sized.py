"""Widgets of a fixed size that moves with the size of texts."""

from __future__ import annotations

from weakref import WeakKeyDictionary

from PySide6.QtWidgets import QWidget
from shiboken6 import isValid

from tessil.drawing import theme

WIDEST = 16777215  # Qt's own word for no limit
_sizes: WeakKeyDictionary[QWidget, tuple[int, int]] = WeakKeyDictionary()


def fixed(widget: QWidget, width: int = 0, height: int = 0) -> None:
    """Fix a widget's width, its height or both, in pixels at the usual size of texts."""
    _sizes[widget] = (width, height)
    _apply(widget, width, height)


def rescale() -> None:
    """Fix them all anew, after the size of texts has changed."""
    for widget, size in list(_sizes.items()):
        if isValid(widget):  # a name for it may outlive the widget
            _apply(widget, *size)


def unfixed(widget: QWidget) -> None:
    """Let a widget be as wide as its place."""
    _sizes.pop(widget, None)
    widget.setMinimumWidth(0)
    widget.setMaximumWidth(WIDEST)


def _apply(widget: QWidget, width: int, height: int) -> None:
    if width:
        widget.setFixedWidth(theme.px(width))
    if height:
        widget.setFixedHeight(theme.px(height))
