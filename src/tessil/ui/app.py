"""Starting the application: fonts, style, crash handler, the window."""

from __future__ import annotations

import sys
import traceback
from pathlib import Path
from types import TracebackType

from PySide6.QtWidgets import QApplication

from tessil.drawing.fonts import load_fonts, text_font
from tessil.ui.display import ensure_display
from tessil.ui.look import style_sheet
from tessil.ui.window import Window


def make_app() -> QApplication:
    """The one application, with Tessil's fonts and style."""
    existing = QApplication.instance()
    if isinstance(existing, QApplication):
        return existing
    app = QApplication(sys.argv[:1])
    app.setApplicationName("Tessil")
    app.setDesktopFileName("tessil")
    dress(app)
    return app


def dress(app: QApplication) -> None:
    """Put Tessil's fonts and style on an application."""
    load_fonts()
    app.setStyle("Fusion")
    app.setFont(text_font())
    app.setStyleSheet(style_sheet())


def _guard(window: Window) -> None:
    """Anything unexpected: the work is kept first, then the fault is reported."""

    def handle(
        kind: type[BaseException], fault: BaseException, trace: TracebackType | None
    ) -> None:
        window.keep_safe()
        traceback.print_exception(kind, fault, trace)
        window.told.setText("Something went wrong inside Tessil; your work is kept.")

    sys.excepthook = handle


def run(path: Path | None, demo: bool) -> int:
    """Open the window and stay until it is closed."""
    said = ensure_display()
    if said:
        print(said, file=sys.stderr)
    app = make_app()
    window = Window()
    _guard(window)
    if demo:
        window.open_demo()
    elif path is not None:
        sentence = window.open_path(path)
        if sentence:
            print(sentence, file=sys.stderr)
            window.ask_open()
            window.file_bar.error.setText(sentence)
            window.file_bar.error.show()
    window.show()
    return app.exec()
