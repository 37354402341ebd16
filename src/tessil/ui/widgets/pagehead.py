"""The head of a page of the window: its title, what it is for, the way back."""

from __future__ import annotations

from PySide6.QtWidgets import QHBoxLayout, QPushButton

from tessil.ui.widgets.words import Words


class PageHead(QHBoxLayout):
    """Title, soft words, and ``back`` to the bench."""

    def __init__(self, title: str, words: str) -> None:
        super().__init__()
        name = Words(title)
        name.setObjectName("title")
        self.words = Words(words)
        self.words.setObjectName("soft")
        self.words.setWordWrap(True)
        self.back = QPushButton("Back to the bench")
        self.setSpacing(12)
        self.addWidget(name)
        self.addWidget(self.words, 1)
        self.addWidget(self.back)
