"""A button whose words take as many lines as they need: it never makes its column wider."""

from __future__ import annotations

from PySide6.QtCore import QSize
from PySide6.QtGui import QResizeEvent
from PySide6.QtWidgets import QPushButton, QSizePolicy

PAD = 30  # pixels beside the words


class WordyButton(QPushButton):
    """Words wrapped between words to the width there is."""

    def __init__(self, words: str = "") -> None:
        super().__init__()
        self.words = words
        self.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Fixed)
        self.say(words)

    def say(self, words: str) -> None:
        """Show these words."""
        self.words = words
        self.setAccessibleName(words)
        self._wrap()

    def _wrap(self) -> None:
        metrics, room = self.fontMetrics(), max(self.width() - PAD, 60)
        lines: list[str] = []
        for word in self.words.split():
            longer = f"{lines[-1]} {word}" if lines else word
            if lines and metrics.horizontalAdvance(longer) <= room:
                lines[-1] = longer
            elif lines:
                lines.append(word)
            else:
                lines = [word]
        text = "\n".join(lines).replace("&", "&&")
        if text != self.text():
            self.setText(text)
            self.updateGeometry()

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self._wrap()

    def minimumSizeHint(self) -> QSize:
        return QSize(60, super().sizeHint().height())
