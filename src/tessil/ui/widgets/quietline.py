"""One quiet line at the foot of the window: what was saved, what changed out of sight."""

from __future__ import annotations

from PySide6.QtCore import QSize, Qt
from PySide6.QtGui import QResizeEvent
from PySide6.QtWidgets import QSizePolicy

from tessil.ui.widgets.words import Words, plain_tip


class QuietLine(Words):
    """Always as high, so that nothing jumps; what does not fit is in its tooltip."""

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("quiet-line")
        self.setAccessibleName("What changed")
        self.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Fixed)
        self.setTextInteractionFlags(Qt.TextInteractionFlag.TextSelectableByMouse)
        self.whole = ""

    def say(self, sentence: str) -> None:
        """Show a sentence, or none."""
        self.whole = sentence
        self.setToolTip(plain_tip(sentence))
        self.setAccessibleDescription(sentence)
        self._fit()

    def _fit(self) -> None:
        room = max(self.width() - 4, 40)
        self.setText(self.fontMetrics().elidedText(self.whole, Qt.TextElideMode.ElideRight, room))

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self._fit()

    def sizeHint(self) -> QSize:
        return QSize(200, self.fontMetrics().height())

    def minimumSizeHint(self) -> QSize:
        return QSize(40, self.fontMetrics().height())
