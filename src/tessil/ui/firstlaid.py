"""The first layout of a job whose cutting nobody has planned: laid cloth by cloth between two looks
at the window, and kept by nobody.

Only the cloths whose pieces have changed are laid again; until all are, the last whole layout
stays.
"""

from __future__ import annotations

from contextlib import suppress
from time import monotonic

from PySide6.QtCore import QObject, QTimer, Signal

from tessil.core.cutting.acts.whole import FirstLaid, Lot, Source, asked, first_laid, kept_as
from tessil.core.cutting.choice import Cutting
from tessil.core.numbers.records import Record
from tessil.core.numbers.rulers import Rulers
from tessil.core.sheets.job import Aim
from tessil.core.trouble import CannotPlan

REST_MS = 60  # of the hand before the cloths are laid again
TYPED_MS = 250  # after a letter, before the next cloth is laid
TYPED_MOST = 1.0  # seconds that letters put it off
MOST = 1500  # pieces: more are laid when it is asked for, and not unasked


class Asked(Record, frozen=True):
    """What is to be laid, on what."""

    lots: tuple[Lot, ...]
    sources: tuple[Source, ...]
    marks: Rulers
    aim: Aim

    @property
    def too_many(self) -> bool:
        """Whether these are more pieces than are laid unasked."""
        return sum(want.number for lot in self.lots for want in lot.wants) > MOST

    def of(self, lot: Lot) -> tuple[object, ...]:
        """All that one lot's layout follows from."""
        there = tuple(one for one in self.sources if one.stock == lot.stock)
        return lot.stock, asked((lot,)), lot.straightening, there, self.aim, self.marks


class FirstLayout(QObject):
    """Lays what it is asked for; ``moved`` tells that there is a whole layout."""

    moved = Signal()

    def __init__(self, parent: QObject) -> None:
        super().__init__(parent)
        self._asked: Asked | None = None
        self._keys: list[object] = []  # of its lots
        self._made: dict[object, FirstLaid | None] = {}  # by all that it follows from
        self._found: tuple[Cutting, tuple[Lot, ...]] | None = None
        self._next = QTimer(self)
        self._next.setSingleShot(True)
        self._next.timeout.connect(self._go_on)
        self._since: float | None = None  # when a hand that types was first waited for

    def of(self, wanted: Asked) -> tuple[Cutting, tuple[Lot, ...]] | None:
        """The newest whole layout and the lots it is of; a newer one is begun if these are others.
        None while there has been none yet, and of very many pieces."""
        if wanted != self._asked:
            self._asked, self._keys = wanted, []
            if wanted.too_many:
                self._found = None
                self._next.stop()
            else:
                self._next.start(REST_MS if self._found is not None else 0)
        return self._found

    @property
    def laying(self) -> bool:
        """Whether a layout is on its way."""
        return self._next.isActive()

    def wait(self) -> None:
        """A letter was typed: the next cloth is laid when the hand rests, or after a second."""
        if not self.laying:
            return
        moment = monotonic()
        self._since = self._since or moment
        if moment - self._since < TYPED_MOST:
            self._next.start(TYPED_MS)

    def hurry(self) -> None:
        """What is asked for is laid at once."""
        self._since = None
        while self._next.isActive():
            if self._lay_on():
                self._next.stop()

    def _go_on(self) -> None:
        self._since = None
        if self._lay_on():
            self.moved.emit()
        else:
            self._next.start(0)

    def _lay_on(self) -> bool:
        """One more lot is laid; whether all are."""
        wanted = self._asked
        assert wanted is not None
        keys = self._keys = self._keys or [wanted.of(lot) for lot in wanted.lots]
        for lot, key in zip(wanted.lots, keys, strict=True):
            if key not in self._made:
                self._made[key] = None
                with suppress(CannotPlan):  # too large: laid when it is asked for, if it can be
                    self._made[key] = first_laid(lot, wanted.sources, wanted.marks, wanted.aim)
                return False
        made = [self._made[key] for key in keys]
        self._made = dict(zip(keys, made, strict=True))
        laid = [one for one in made if one is not None]
        sheets = (sheet for one in laid for sheet in one.sheets)
        over = (left for one in laid for left in one.over)
        self._found = None
        with suppress(CannotPlan):
            if len(laid) == len(made):
                self._found = kept_as(wanted.lots, sheets, over), wanted.lots
        return True
