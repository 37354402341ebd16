"""What the window remembers of itself: its place, its size, how large its text is."""

from __future__ import annotations

from PySide6.QtCore import QByteArray, QSettings
from PySide6.QtWidgets import QMainWindow

from tessil.files.places import config_folder

SMALLEST_TEXT, LARGEST_TEXT = 0.9, 1.5
STEP = 0.1


def _settings() -> QSettings:
    return QSettings(str(config_folder() / "window.ini"), QSettings.Format.IniFormat)


def restore_place(window: QMainWindow) -> None:
    """Put a window where it was last time, if there is such a place on a screen now."""
    kept = _settings().value("geometry")
    if isinstance(kept, QByteArray) and not kept.isEmpty():
        window.restoreGeometry(kept)


def keep_place(window: QMainWindow) -> None:
    """Remember where a window is."""
    settings = _settings()
    settings.setValue("geometry", window.saveGeometry())
    settings.sync()


def text_size() -> float:
    """How large texts are, as a share of the usual size."""
    try:
        share = float(str(_settings().value("text", 1.0)))
    except ValueError:
        return 1.0
    return share if SMALLEST_TEXT <= share <= LARGEST_TEXT else 1.0


def keep_text_size(share: float) -> float:
    """Remember how large texts shall be, within bounds; returns what is remembered."""
    bounded = round(min(max(share, SMALLEST_TEXT), LARGEST_TEXT), 1)
    settings = _settings()
    settings.setValue("text", bounded)
    settings.sync()
    return bounded
