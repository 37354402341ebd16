"""The bar at the top for opening and saving: a path to type, or places to click."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import (
    QCompleter,
    QFileDialog,
    QFileSystemModel,
    QHBoxLayout,
    QLabel,
    QLineEdit,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

Accept = Callable[[Path], str]


class FileBar(QWidget):
    """Asks for one path.  ``accept`` gets it and returns a sentence if it will not do."""

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("card")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.accept_path: Accept = lambda path: ""
        self.saving = False
        self.suffix = ".tessil"
        self.back_to: QWidget | None = None
        self.words = QLabel()
        self.line = QLineEdit()
        self.line.setAccessibleName("File")
        self.go = QPushButton("Save")
        self.go.setObjectName("main")
        self.browse = QPushButton("Browse…")
        self.cancel = QPushButton("Not now")
        self.cancel.setObjectName("quiet")
        row = QHBoxLayout()
        for widget, stretch in (
            (self.words, 0), (self.line, 1), (self.go, 0), (self.browse, 0), (self.cancel, 0),
        ):  # fmt: skip
            row.addWidget(widget, stretch)
        self.error = QLabel()
        self.error.setObjectName("error")
        self.error.setWordWrap(True)
        self.error.hide()
        self.recent = QHBoxLayout()
        self.recent.setSpacing(6)
        column = QVBoxLayout(self)
        column.setContentsMargins(16, 10, 12, 10)
        column.setSpacing(6)
        column.addLayout(row)
        column.addWidget(self.error)
        column.addLayout(self.recent)
        self.go.clicked.connect(self.take)
        self.line.returnPressed.connect(self.take)
        self.browse.clicked.connect(self._browse)
        self.cancel.clicked.connect(self.close_bar)
        self.hide()

    def _complete(self) -> None:
        """Complete paths while they are typed; made when first asked, since it reads disks."""
        if self.line.completer() is not None:
            return
        model = QFileSystemModel(self)
        model.setRootPath("")
        completer = QCompleter(model, self)
        completer.setCompletionMode(QCompleter.CompletionMode.InlineCompletion)
        self.line.setCompleter(completer)

    def ask(
        self, words: str, button: str, path: Path, accept: Accept, saving: bool,
        recent: list[Path] | None = None, suffix: str = ".tessil",
    ) -> None:  # fmt: skip
        """Show the bar for one question."""
        self._complete()
        self.back_to = self.window().focusWidget() if not self.isVisible() else self.back_to
        self.words.setText(words)
        self.go.setText(button)
        self.line.setText(str(path))
        self.accept_path, self.saving, self.suffix = accept, saving, suffix
        self.tell("")
        self._show_recent(recent or [])
        self.show()
        self.line.setFocus()
        self.line.selectAll()

    def _show_recent(self, paths: list[Path]) -> None:
        while (item := self.recent.takeAt(0)) is not None:
            if (widget := item.widget()) is not None:
                widget.hide()
                widget.deleteLater()
        if not paths:
            return
        self.recent.addWidget(QLabel("Lately:"))
        for path in paths[:5]:
            button = QPushButton(path.stem)
            button.setObjectName("quiet")
            button.setToolTip(str(path))
            button.clicked.connect(lambda _=False, chosen=path: self._take(chosen))
            self.recent.addWidget(button)
        self.recent.addStretch(1)

    def take(self) -> None:
        """Take the path that is typed."""
        text = self.line.text().strip()
        if not text:
            self.tell("Type where the file is, or browse for it.")
            return
        path = Path(text).expanduser()
        if self.saving and not path.suffix:
            path = path.with_suffix(self.suffix)
        self._take(path)

    def _take(self, path: Path) -> None:
        if self.saving and not path.parent.is_dir():
            self.tell(f"There is no folder “{path.parent}”.")
            return
        sentence = self.accept_path(path)
        self.tell(sentence)
        if not sentence:
            self.close_bar()

    def tell(self, sentence: str) -> None:
        """Show a sentence under the line, or take it away."""
        self.error.setText(sentence)
        self.error.setVisible(bool(sentence))

    def _browse(self) -> None:
        kind = f"Tessil (*{self.suffix})"
        start = self.line.text()
        chosen, _ = (
            QFileDialog.getSaveFileName(self, self.words.text(), start, kind)
            if self.saving
            else QFileDialog.getOpenFileName(self, self.words.text(), start, kind)
        )
        if chosen:
            self.line.setText(chosen)
            self.take()

    def close_bar(self) -> None:
        """Put the bar away and go back to where the hands were."""
        self.hide()
        if self.back_to is not None:
            self.back_to.setFocus()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Escape:
            self.close_bar()
        else:
            super().keyPressEvent(event)
