"""The bar above the bench at the piecing stage: flat or as worn, the part, the tool."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial

from PySide6.QtWidgets import QHBoxLayout, QPushButton, QWidget

from tessil.core.layout.board import areas
from tessil.core.panels.panel import PanelPlan
from tessil.core.planned import Plan
from tessil.core.snags import Stage
from tessil.ui.desk import Desk
from tessil.ui.hand import Hand
from tessil.ui.widgets.words import Words, plain_tip

TOOLS = (
    ("take", "Take", "Click takes a piece in hand; arrows go from piece to piece"),
    ("lay", "Lay", "Click or draw lays the print in hand"),
    ("swap", "Swap", "Click two pieces and they change places; Shift and an arrow does too"),
)


def part_names(plan: Plan, panel: PanelPlan) -> list[str]:
    """The parts of a panel by what they become, or by number."""
    names = []
    for at, part in enumerate(panel.parts):
        middle = float((part.begins.value + part.ends.value) / 2)
        _, y = panel.trimmed_at(0.0, middle)
        x = float(panel.trimmed.width.value) / 2
        found = [
            area.name
            for area in areas(plan.bag, plan.looks)
            if area.panel == panel.key and _covers(area.source, x, y)
        ]
        names.append(found[0] if len(set(found)) == 1 else f"part {at + 1}")
    return (
        names if len(set(names)) == len(names) else [f"part {at + 1}" for at in range(len(names))]
    )


def _covers(box: tuple[float, ...], x: float, y: float) -> bool:
    bx, by, bw, bh = box
    return bx <= x <= bx + bw and by <= y <= by + bh


class LayoutBar(QWidget):
    """Segments for the view, the part and the tool; buttons for the piece in hand."""

    def __init__(self, desk: Desk, hand: Hand) -> None:
        super().__init__()
        self.desk, self.hand = desk, hand
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(12)
        self.views, self.parts, self.tools = QHBoxLayout(), QHBoxLayout(), QHBoxLayout()
        for group in (self.views, self.parts, self.tools):
            group.setSpacing(0)
        row.addLayout(self.views)
        row.addLayout(self.parts)
        row.addStretch(1)
        row.addLayout(self.tools)
        self.buttons: dict[str, QPushButton] = {}
        self.tool_buttons = {
            key: self._segment(
                self.tools, words, f"{words} pieces", help_, partial(desk.take_tool, key)
            )
            for key, words, help_ in TOOLS
        }
        deeds = QHBoxLayout()
        deeds.setSpacing(2)
        row.addLayout(deeds)
        self.deeds = [
            self._deed(deeds, words, help_, work)
            for words, help_, work in (
                ("Turn", "The piece in hand upside-down, or back (T)", hand.turn),
                ("Fill row", "Its print on the whole row (R)", hand.fill_row),
                ("Pin", "Arranging leaves pinned pieces where they are (P)", hand.pin),
            )
        ]
        self._shown: tuple[object, ...] = ()

    def _segment(
        self, group: QHBoxLayout, words: str, name: str, help_: str, work: Callable[[], None]
    ) -> QPushButton:
        button = QPushButton(words)
        button.setObjectName("segment")
        button.setCheckable(True)
        button.setAccessibleName(name)
        button.setToolTip(plain_tip(help_))
        button.clicked.connect(lambda _=False: work())
        group.addWidget(button)
        return button

    def _deed(
        self, group: QHBoxLayout, words: str, help_: str, work: Callable[[], None]
    ) -> QPushButton:
        button = QPushButton(words)
        button.setObjectName("quiet")
        button.setToolTip(plain_tip(help_))
        button.clicked.connect(work)
        group.addWidget(button)
        return button

    def refresh(self) -> None:
        """Show the desk as it is."""
        desk = self.desk
        panel = desk.plan.panel(desk.seen.panel)
        pieced = desk.seen.stage is Stage.PIECE and not panel.only_cloth
        self.setVisible(pieced)
        if not pieced:
            return
        looks: list[str] = [look.side for look in desk.plan.looks]
        names = part_names(desk.plan, panel) if len(panel.parts) > 1 else []
        if (looks, names) != self._shown:
            self._rebuild(looks, names)
            self._shown = (looks, names)
        worn = desk.seen.worn if desk.seen.worn in looks else ""
        for key, button in self.buttons.items():
            kind, _, what = key.partition(":")
            button.setChecked(what == (worn if kind == "view" else str(desk.seen.zone)))
        can_lay = any(patch.piece >= 0 for patch in panel.patches)  # scraps come as they are
        for key, button in self.tool_buttons.items():
            button.setChecked(key == desk.seen.tool)
            button.setVisible(can_lay)
        for button in self.deeds:
            button.setEnabled(bool(desk.seen.piece))
            button.setVisible(can_lay)

    def _rebuild(self, looks: list[str], names: list[str]) -> None:
        for group in (self.views, self.parts):
            while (item := group.takeAt(0)) is not None:
                if (widget := item.widget()) is not None:
                    widget.hide()
                    widget.deleteLater()
        self.buttons = {}
        desk = self.desk
        for look in ("", *looks):
            words = {"": "Flat"}.get(look, look.capitalize())
            help_ = "The panel laid flat" if not look else f"The finished bag: {look}"
            self.buttons[f"view:{look}"] = self._segment(
                self.views,
                words,
                f"See the pieces {look or 'flat'}",
                help_,
                partial(desk.see_worn, look),
            )
        if names:
            title = Words("Part ")
            title.setObjectName("soft")
            self.parts.addWidget(title)
        for at, name in enumerate(names):
            self.buttons[f"part:{at}"] = self._segment(
                self.parts,
                name,
                f"Part {at + 1}: {name}",
                f"Ask about the {name}",
                partial(desk.turn_part, at),
            )
