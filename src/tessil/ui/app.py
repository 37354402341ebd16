"""Starting the application: a frame at once, then fonts, style, crash handler, the window."""

from __future__ import annotations

import builtins
import gc
import sys
import traceback
from pathlib import Path
from threading import Thread
from types import TracebackType
from typing import TYPE_CHECKING

from PySide6.QtCore import QTimer
from PySide6.QtWidgets import QApplication

from tessil.ui.display import ensure_display
from tessil.ui.shell import Shell

if TYPE_CHECKING:
    from tessil.ui.window import Window

AFTER_MS = 300  # the window is painted by then


def make_app() -> QApplication:
    """The one application."""
    existing = QApplication.instance()
    if isinstance(existing, QApplication):
        return existing
    _import_plainly()
    # Named here, since a style set later is handed back, and all of its names with it.
    app = QApplication([*sys.argv[:1], "-style", "fusion"])
    app.setApplicationName("Tessil")
    app.setDesktopFileName("tessil")
    return app


def _import_plainly() -> None:
    """The toolkit reads the source of every module that is imported after it, for a switch of its
    own that Tessil does not use; that was a fifth of the time to start."""
    builtins.__import__ = getattr(builtins, "__orig_import__", builtins.__import__)


def dress(app: QApplication) -> None:
    """Put Tessil's fonts and style on an application, texts as large as the maker has them."""
    from tessil.drawing import theme
    from tessil.drawing.fonts import load_fonts, text_font
    from tessil.ui.look import style_sheet
    from tessil.ui.settings import text_size
    from tessil.ui.widgets.sized import rescale

    load_fonts()
    theme.set_scale(text_size())
    app.setFont(text_font())
    app.setStyleSheet(style_sheet())
    rescale()


def _resize_texts(app: QApplication, window: Window, steps: int) -> None:
    from tessil.ui.settings import STEP, keep_text_size, text_size

    share = keep_text_size(text_size() + steps * STEP)
    dress(app)
    window.resized_texts()
    window.say(f"Texts at {share:.0%} of their usual size.")


def _guard(window: Window) -> None:
    """Anything unexpected: the work is kept first, then the fault is reported."""

    def handle(
        kind: type[BaseException], fault: BaseException, trace: TracebackType | None
    ) -> None:
        window.keep_safe()
        traceback.print_exception(kind, fault, trace)
        window.told.setText("Something went wrong inside Tessil; your work is kept.")

    sys.excepthook = handle


def furnish(app: QApplication, shell: Shell, path: Path | None, demo: bool) -> Window:
    """Build the window inside its frame and open what was asked for."""
    from tessil.core.memory.collecting import uncollected

    dress(app)
    with uncollected():
        window, sentence = _furnished(app, shell, path, demo)
        # What was made while starting stays: later collections need not look at it.
        gc.freeze()
    QTimer.singleShot(AFTER_MS, lambda: _afterwards(app))
    if sentence:
        print(sentence, file=sys.stderr)
        window.ask_open()
        window.file_bar.tell(sentence)
    return window


def _afterwards(app: QApplication) -> None:
    """What nobody waits for at the start: the icon on the frame, and, beside the window, what
    checks an entry, before the first is typed."""
    from PySide6.QtGui import QIcon

    from tessil.core.numbers.decided import ready
    from tessil.core.project import Job, Project

    app.setWindowIcon(QIcon(str(Path(__file__).parents[1] / "icons" / "tessil.svg")))
    Thread(target=lambda: ready(Project, Job), name="checks").start()


def _furnished(
    app: QApplication, shell: Shell, path: Path | None, demo: bool
) -> tuple[Window, str]:
    """The window with what was asked for on its bench; what is to be said if that cannot be."""
    from tessil.ui.window import Window

    window = Window(shell)  # it is dressed once, where it will stay
    window.text_size_wanted.connect(lambda steps: _resize_texts(app, window, steps))
    _guard(window)
    sentence = ""
    if demo:
        window.open_demo()
    elif path is not None:
        sentence = window.open_path(path)
    shell.take_in(window)
    return window, sentence


def run(path: Path | None, demo: bool) -> int:
    """Open the window and stay until it is closed."""
    said = ensure_display()
    if said:
        print(said, file=sys.stderr)
    app = make_app()
    shell = Shell()
    shell.show()
    app.processEvents()
    QTimer.singleShot(0, lambda: furnish(app, shell, path, demo))
    return app.exec()
