"""Widgets that look otherwise while something is so: what the style sheet asks of them."""

from __future__ import annotations

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QWidget


def dress_anew(widget: QWidget) -> None:
    """Have the style sheet read again for a widget that changed its name or a state; one that was
    never seen will read it then."""
    if not widget.testAttribute(Qt.WidgetAttribute.WA_WState_Polished):
        return
    widget.style().unpolish(widget)
    widget.style().polish(widget)


def show_state(widget: QWidget, state: str, holds: bool) -> None:
    """Look as the sheet has it for ``[state="true"]``, or as without.  A state that was never told
    does not hold: most fields never leave that, and none of those has to be dressed anew."""
    if bool(widget.property(state)) != holds:
        widget.setProperty(state, holds)
        dress_anew(widget)
