"""Words on screen: always plain, whatever a name or a sentence holds."""

from __future__ import annotations

from PySide6.QtCore import QSize, Qt
from PySide6.QtGui import QResizeEvent
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


class Elided(Words):
    """Words that give way where there is little room, to shorter ones if there are such; all of
    them stand in their tooltip."""

    def __init__(self, text: str = "") -> None:
        super().__init__()
        self.whole = self.short = ""
        self.say(text)

    def say(self, text: str, short: str = "") -> None:
        """Show these words, or the short ones."""
        if (text, short) != (self.whole, self.short):
            self.whole, self.short = text, short
            self.setToolTip(plain_tip(text))
            self.updateGeometry()
        self._fit()

    def _wide(self, text: str) -> int:
        return self.fontMetrics().horizontalAdvance(text) + 2

    def _least(self) -> int:
        return max(self._wide(self.short), 24)

    def _fit(self) -> None:
        room = max(self.width(), self._least())
        text = self.short if self.short and self._wide(self.whole) > room else self.whole
        text = self.fontMetrics().elidedText(text, Qt.TextElideMode.ElideRight, room)
        if text != self.text():
            self.setText(text)

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self._fit()

    def sizeHint(self) -> QSize:
        return QSize(self._wide(self.whole), super().sizeHint().height())

    def minimumSizeHint(self) -> QSize:
        return QSize(self._least(), super().minimumSizeHint().height())


def plain_tip(text: str) -> str:
    """A text for a tooltip, which has no plain format of its own: nothing in it is a tag."""
    return text.replace("<", "‹").replace(">", "›").replace("&", "＆")
