"""A moment's rest after a change, with a longest wait: work is put off while the hand is busy, but
never for long, however fast it goes on."""

from __future__ import annotations

from time import monotonic

from PySide6.QtCore import QObject, QTimer, Signal


class Rest(QObject):
    """``due`` comes ``rest_ms`` after the last change, and at most ``most_ms`` after the first.

    The longest wait does not rest on a timer alone: a change that comes too late says so itself,
    so that a busy loop cannot put it off.
    """

    due = Signal()

    def __init__(self, rest_ms: int, most_ms: int, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self._rest, self._most = rest_ms, most_ms
        self._since: float | None = None
        self._timer = QTimer(self)
        self._timer.setSingleShot(True)
        self._timer.timeout.connect(self.now)

    def touch(self) -> None:
        """Something changed."""
        moment = monotonic()
        if self._since is None:
            self._since = moment
        waited = (moment - self._since) * 1000
        if waited >= self._most:
            self.now()
        else:
            self._timer.start(int(min(self._rest, self._most - waited)))

    def now(self) -> None:
        """Do it at once."""
        self.stop()
        self.due.emit()

    def stop(self) -> None:
        """Nothing is left to do."""
        self._timer.stop()
        self._since = None

    @property
    def waits(self) -> bool:
        """Whether something is still to be done."""
        return self._since is not None
