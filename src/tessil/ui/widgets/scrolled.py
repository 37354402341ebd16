"""A place whose content scrolls up and down, and knows how high it would be whole."""

from __future__ import annotations

from PySide6.QtCore import QEvent, QObject, Qt, Signal
from PySide6.QtWidgets import QFrame, QScrollArea, QVBoxLayout, QWidget


def width_of(area: QScrollArea) -> int:
    """The width there is beside the bar, if that shows.

    The toolkit's own widget in there has that width; but the first widget it made itself that one
    asks for makes it get all kinds of widgets ready, a fiftieth of the time to start.
    """
    bar = area.verticalScrollBar()
    return area.maximumViewportSize().width() - (bar.width() if bar.isVisible() else 0)


class Inside(QWidget):
    """What scrolls; it knows where, without asking for what lies between (see ``width_of``)."""

    def __init__(self, area: QScrollArea) -> None:
        super().__init__()
        self.area = area


class Scrolled(QScrollArea):
    """Widgets below one another in ``body``; ``asks`` when they may want another height."""

    asks = Signal()

    def __init__(self) -> None:
        super().__init__()
        self.setWidgetResizable(True)
        self.setFrameShape(QFrame.Shape.NoFrame)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.inside = Inside(self)
        self.body = QVBoxLayout(self.inside)
        self.body.setContentsMargins(10, 0, 8, 0)
        self.body.setSpacing(6)
        self.setWidget(self.inside)
        self.inside.installEventFilter(self)

    @property
    def needed(self) -> int:
        """How high all of it would be, in pixels."""
        if self.body.hasHeightForWidth():
            return self.body.totalHeightForWidth(width_of(self))
        return self.body.sizeHint().height()

    def lay_out(self) -> None:
        """Put everything in its place now, not at the next event."""
        self.inside.resize(self.inside.width(), self.needed)
        self.body.activate()

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        if event.type() is QEvent.Type.LayoutRequest:
            self.asks.emit()
        return super().eventFilter(watched, event)
