"""How the brief shows the finished bag: from where, and how far it is folded up from flat."""

from __future__ import annotations

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QHBoxLayout, QPushButton, QSlider, QWidget

from tessil.core.snags import Stage
from tessil.drawing.handview import stands_of
from tessil.ui.desk import Desk
from tessil.ui.widgets.words import Words

SEWN = 100  # of the slider
_WORDS = {"above": "from above", "open": "open", "end": "the end", "inside": "inside"}


class SideBar(QWidget):
    """One button a stand, and the slider from flat to sewn; shown at the brief only."""

    def __init__(self, desk: Desk) -> None:
        super().__init__()
        self.desk = desk
        self.fold = QSlider(Qt.Orientation.Horizontal)
        self.fold.setObjectName("fold")
        self.fold.setRange(0, SEWN)
        self.fold.setPageStep(10)
        self.fold.setFixedWidth(150)
        self.fold.setAccessibleName("Folded up, from flat to sewn")
        self.fold.setToolTip("Fold the bag up before your eyes: which edge meets which")
        self.fold.valueChanged.connect(self._folded)
        self.row = QHBoxLayout(self)
        self.row.setContentsMargins(0, 0, 0, 0)
        self.row.setSpacing(0)
        self.stands = QHBoxLayout()
        self.stands.setSpacing(0)
        self.row.addStretch(1)
        for part in (self._soft("flat "), self.fold, self._soft(" sewn")):
            self.row.addWidget(part)
        self.row.addSpacing(16)
        self.row.addLayout(self.stands)
        self.buttons: dict[str, QPushButton] = {}

    def _soft(self, text: str) -> Words:
        words = Words(text)
        words.setObjectName("soft")
        return words

    def refresh(self) -> None:
        """Show the stands of the bag on the desk."""
        desk = self.desk
        self.setVisible(desk.seen.stage is Stage.BRIEF)
        if desk.seen.stage is not Stage.BRIEF:
            return
        names = list(stands_of(desk.plan))
        if names != list(self.buttons):
            self._rebuild(names)
        side = desk.seen.side if desk.seen.side in self.buttons else "front"
        for name, button in self.buttons.items():
            button.setChecked(name == side and desk.seen.stand is None)
        self.fold.blockSignals(True)
        self.fold.setValue(round(desk.stand.fold * SEWN))
        self.fold.blockSignals(False)

    def _folded(self, value: int) -> None:
        self.desk.fold_to(value / SEWN)

    def _rebuild(self, names: list[str]) -> None:
        while (item := self.stands.takeAt(0)) is not None:
            if (widget := item.widget()) is not None:
                widget.hide()
                widget.deleteLater()
        self.buttons = {}
        for name in names:
            button = QPushButton(_WORDS.get(name, f"the {name}"))
            button.setObjectName("segment")
            button.setCheckable(True)
            button.setAccessibleName(f"See the bag: {name}")
            button.clicked.connect(lambda _=False, side=name: self.desk.turn_bag(side))
            self.buttons[name] = button
            self.stands.addWidget(button)
