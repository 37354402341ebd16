"""Which side of the finished bag the brief shows: front, back, open."""

from __future__ import annotations

from PySide6.QtWidgets import QHBoxLayout, QPushButton, QWidget

from tessil.core.snags import Stage
from tessil.ui.desk import Desk
from tessil.ui.widgets.words import Words


class SideBar(QWidget):
    """One button a side; shown at the brief only, where the bag has more than one."""

    def __init__(self, desk: Desk) -> None:
        super().__init__()
        self.desk = desk
        self.row = QHBoxLayout(self)
        self.row.setContentsMargins(0, 0, 0, 0)
        self.row.setSpacing(0)
        self.buttons: dict[str, QPushButton] = {}

    def refresh(self) -> None:
        """Show the sides of the bag on the desk."""
        desk = self.desk
        names: list[str] = [look.side for look in desk.plan.bag.looks]
        if names != list(self.buttons):
            self._rebuild(names)
        side = desk.seen.side if desk.seen.side in self.buttons else "front"
        for name, button in self.buttons.items():
            button.setChecked(name == side)
        self.setVisible(desk.seen.stage is Stage.BRIEF and len(names) > 1)

    def _rebuild(self, names: list[str]) -> None:
        while (item := self.row.takeAt(0)) is not None:
            if (widget := item.widget()) is not None:
                widget.hide()
                widget.deleteLater()
        self.buttons = {}
        words = Words("The finished bag seen from ")
        words.setObjectName("soft")
        self.row.addStretch(1)
        self.row.addWidget(words)
        for name in names:
            button = QPushButton({"open": "open"}.get(name, f"the {name}"))
            button.setObjectName("segment")
            button.setCheckable(True)
            button.setAccessibleName(f"See the bag: {name}")
            button.clicked.connect(lambda _=False, side=name: self.desk.turn_bag(side))
            self.buttons[name] = button
            self.row.addWidget(button)
