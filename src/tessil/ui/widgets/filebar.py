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
    QLineEdit,
    QPushButton,
    QVBoxLayout,
    QWidget,
)
from shiboken6 import isValid

from tessil.files.disk import Standing
from tessil.files.places import path_in
from tessil.files.projectfile import SUFFIX
from tessil.ui.widgets.words import Words, plain_tip

Accept = Callable[[Path], str]


class FileBar(QWidget):
    """Asks for one path.  ``accept`` gets it and returns a sentence if it will not do."""

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("card")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.accept_path: Accept = lambda path: ""
        self.standing: Callable[[Path], Standing] = lambda path: Standing()
        self.replaced: Path | None = None  # what the button beside the sentence would replace
        self.saving = False
        self.suffix = ".tessil"
        self.back_to: QWidget | None = None
        self.folder = Path()  # where a bare name belongs
        self.words = Words()
        self.line = QLineEdit()
        self.line.setAccessibleName("File")
        self.go = QPushButton("Save")
        self.go.setObjectName("main")
        self.replace = QPushButton("Replace it")
        self.browse = QPushButton("Browse…")
        self.cancel = QPushButton("Not now")
        self.cancel.setObjectName("quiet")
        row = QHBoxLayout()
        for widget, stretch in (
            (self.words, 0),
            (self.line, 1),
            (self.go, 0),
            (self.replace, 0),
            (self.browse, 0),
            (self.cancel, 0),
        ):
            row.addWidget(widget, stretch)
        self.error = Words()
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
        self.replace.clicked.connect(self._replace)
        self.line.textEdited.connect(lambda: self.tell(""))
        self.browse.clicked.connect(self._browse)
        self.cancel.clicked.connect(self.close_bar)
        self.replace.hide()
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
        self,
        words: str,
        button: str,
        path: Path,
        accept: Accept,
        saving: bool,
        recent: list[Path] | None = None,
        suffix: str = ".tessil",
        standing: Callable[[Path], Standing] | None = None,
    ) -> None:
        """Show the bar for one question.  ``standing`` tells what a name would replace."""
        self._complete()
        self.back_to = self.window().focusWidget() if not self.isVisible() else self.back_to
        self.words.setText(words)
        self.go.setText(button)
        self.line.setText(str(path))
        self.folder = path.parent if path.suffix else path
        self.accept_path, self.saving, self.suffix = accept, saving, suffix
        self.standing = standing or (lambda path: Standing())
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
        self.recent.addWidget(Words("Lately:"))
        for path in paths[:5]:
            button = QPushButton(path.stem)
            button.setObjectName("quiet")
            button.setToolTip(plain_tip(str(path)))
            button.clicked.connect(lambda _=False, chosen=path: self._take(chosen))
            self.recent.addWidget(button)
        self.recent.addStretch(1)

    def take(self) -> None:
        """Take the path that is typed."""
        text = self.line.text().strip()
        if not text:
            self.tell("Type where the file is, or browse for it.")
            return
        path = self.folder / path_in(text)
        if self.saving and not path.suffix:
            path = path.with_suffix(self.suffix)
        self._take(path)

    def _take(self, path: Path) -> None:
        if self.saving and not path.parent.is_dir():
            self.tell(f"There is no folder “{path.parent}”.")
            return
        standing = self.standing(path)
        if standing.sentence:
            self.tell(standing.sentence)
            if standing.may_replace:
                self.offer_replace(path)
            return
        self._accept(path)

    def _accept(self, path: Path) -> None:
        sentence = self.accept_path(path)
        self.tell(sentence)
        if not sentence:
            self.close_bar()

    def offer_replace(self, path: Path) -> None:
        """Offer to put what is saved in the place of what stands there."""
        self.replaced = path
        kept = "; what stands there now stays beside it, its name ending in ~"
        self.replace.setToolTip(f"Replace the file{kept if self.suffix == SUFFIX else ''}")
        self.replace.setAccessibleName(f"Replace {path.name}")
        self.replace.show()

    def _replace(self) -> None:
        if self.replaced is not None:
            self._accept(self.replaced)

    def tell(self, sentence: str) -> None:
        """Show a sentence under the line, or take it away."""
        self.error.setText(sentence)
        self.error.setVisible(bool(sentence))
        if not sentence:
            self.replace.hide()
            self.replaced = None

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
        if self.back_to is not None and isValid(self.back_to):
            self.back_to.setFocus()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Escape:
            self.close_bar()
        else:
            super().keyPressEvent(event)
