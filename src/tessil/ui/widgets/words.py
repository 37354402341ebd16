"""Words on screen: always plain, whatever a name or a sentence holds."""

from __future__ import annotations

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QLabel, QWidget


class Words(QLabel):
    """A label that shows its text as it is: a name is never taken for formatting."""

    def __init__(self, text: str = "", parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setTextFormat(Qt.TextFormat.PlainText)
        self.setText(text)


class Told(Words):
    """A sentence that somebody may want to copy."""

    def __init__(self, text: str = "", parent: QWidget | None = None) -> None:
        super().__init__(text, parent)
        self.setTextInteractionFlags(Qt.TextInteractionFlag.TextSelectableByMouse)
        self.setWordWrap(True)


def plain_tip(text: str) -> str:
    """A text for a tooltip, which has no plain format of its own: nothing in it is a tag."""
    return text.replace("<", "‹").replace(">", "›").replace("&", "＆")
