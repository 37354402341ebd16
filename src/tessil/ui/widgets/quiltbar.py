"""The bar above the bench at the quilting stage: the part, the tool, and ways to come out."""

from __future__ import annotations

from functools import partial

from PySide6.QtCore import QPointF, QRectF, QSize, Qt, QTimer
from PySide6.QtGui import QColor, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import (
    QAbstractButton,
    QBoxLayout,
    QHBoxLayout,
    QPushButton,
    QSizePolicy,
    QWidget,
)

from tessil.core.panels.panel import PanelPlan
from tessil.core.planned import Plan
from tessil.core.quilting.acts.minding import Offer, offers
from tessil.core.snags import Stage
from tessil.drawing import theme
from tessil.drawing.fonts import text_font
from tessil.drawing.painter import Surface, paint_picture
from tessil.drawing.picture import Picture
from tessil.drawing.quiltview import offer_picture
from tessil.ui.desk import Desk
from tessil.ui.hand import Hand
from tessil.ui.widgets.words import plain_tip

HIGH, WIDE = 40.0, 74.0
TALL, DRAWN = 84, 44
LATE_MS = 50


class OfferTile(QAbstractButton):
    """One way for the lines to come out: its drawing, its gap, and what it runs into."""

    def __init__(self) -> None:
        super().__init__()
        self.setCheckable(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.picture: Picture | None = None
        self.lines = ("", "")
        self.clear = True
        self.compact = False
        self.setSizePolicy(QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Fixed)

    def show_offer(self, offer: Offer, plan: Plan, panel: PanelPlan) -> None:
        """Show another way in this tile."""
        read = plan.marks.notation.read_off
        self.picture = offer_picture(panel, offer.sets)
        trouble = []
        if offer.through:
            trouble.append(f"{offer.through} in hardware")
        if offer.misses:
            trouble.append(f"{offer.misses} near seams")
        margin = "" if offer.margin is None else f", edge {read(offer.margin.value)}"
        gap = read(offer.gap.value)
        self.lines = (
            gap if self.compact else f"{gap}{margin}",
            trouble[0] if trouble else "all clear",
        )
        self.clear = not trouble
        self.setChecked(offer.now)
        words = f"{offer.words}: gap {gap}{margin}; {', '.join(trouble) or 'all clear'}"
        self.setAccessibleName(f"Lines {words}")
        self.setToolTip(plain_tip(words[:1].upper() + words[1:]))
        self.updateGeometry()
        self.update()

    def sizeHint(self) -> QSize:
        return QSize(104, TALL - DRAWN if self.compact else TALL)

    def minimumSizeHint(self) -> QSize:
        return QSize(86, self.sizeHint().height())

    def paintEvent(self, event: QPaintEvent) -> None:
        if self.picture is None:
            return
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        if not self.compact:
            _, _, w, h = self.picture.box
            per_inch = min(WIDE / w, HIGH / h)
            left, top = (self.width() - w * per_inch) / 2, 5.0
            paint_picture(painter, self.picture, Surface(left, top, per_inch))
        chosen = self.isChecked()
        if chosen or self.hasFocus() or self.underMouse():
            painter.setPen(QPen(QColor(theme.THREAD), 2 if chosen or self.hasFocus() else 1))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRoundedRect(QRectF(self.rect()).adjusted(1, 1, -1, -1), 4, 4)
        if self.hasFocus():
            painter.setPen(QPen(QColor(theme.INK), 2, Qt.PenStyle.DashLine))
            painter.drawRoundedRect(QRectF(self.rect()).adjusted(4, 4, -4, -4), 3, 3)
        painter.setPen(QColor(theme.THREAD if chosen else theme.INK))
        painter.setFont(text_font(theme.SMALL + 1, strong=chosen))
        centre = int(Qt.AlignmentFlag.AlignCenter)
        painter.drawText(QRectF(0, self.height() - 36, self.width(), 17), centre, self.lines[0])
        painter.setPen(QColor(theme.SOFT if self.clear else theme.WARNING))
        painter.setFont(text_font(theme.SMALL, strong=not self.clear))
        painter.drawText(QRectF(0, self.height() - 20, self.width(), 16), centre, self.lines[1])
        if not self.clear:
            painter.setPen(QPen(QColor(theme.WARNING), 2))
            low = self.height() - 18.0
            painter.drawLine(QPointF(6, low), QPointF(6, low + 12))


class QuiltBar(QWidget):
    """Segments for the part and the tool, and one tile for each way to come out."""

    def __init__(self, desk: Desk, hand: Hand) -> None:
        super().__init__()
        self.desk, self.hand = desk, hand
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(12)
        self.tiles_row = QHBoxLayout()
        self.tiles_row.setSpacing(4)
        row.addLayout(self.tiles_row)
        self.parts = QHBoxLayout()
        self.parts.setSpacing(0)
        row.addLayout(self.parts)
        row.addStretch(1)
        self.hands = column = QBoxLayout(QBoxLayout.Direction.TopToBottom)
        column.setSpacing(4)
        row.addLayout(column)
        tools = QHBoxLayout()
        tools.setSpacing(0)
        column.addLayout(tools)
        self.tools: dict[str, QPushButton] = {}
        for key, words, help_ in (
            ("take", "Take", "Click takes a line in hand; drag or arrows move it (Delete: away)"),
            ("draw", "Draw", "Draw a line on the bench from one place to another"),
        ):
            button = self._segment(words, f"{words} lines", help_)
            button.clicked.connect(partial(self._tool, key))
            tools.addWidget(button)
            self.tools[key] = button
        self.out = QPushButton("Leave out")
        self.out.setObjectName("quiet")
        self.out.setToolTip("Leave the line in hand out (Delete)")
        self.out.clicked.connect(hand.leave_line_out)
        column.addWidget(self.out)
        self.compact = False
        self._asked: tuple[str, int] | None = None
        self._late = QTimer(self)
        self._late.setSingleShot(True)
        self._late.setInterval(LATE_MS)
        self._late.timeout.connect(self.show_ways)
        self.tiles: list[OfferTile] = []
        self.offers: tuple[Offer, ...] = ()
        self.buttons: list[QPushButton] = []

    def _segment(self, words: str, name: str, help_: str) -> QPushButton:
        button = QPushButton(words)
        button.setObjectName("segment")
        button.setCheckable(True)
        button.setAccessibleName(name)
        button.setToolTip(help_)
        return button

    def _tool(self, key: str, _checked: bool = False) -> None:
        self.desk.draw_lines(key == "draw")

    def refresh(self) -> None:
        """Show the desk as it is."""
        desk = self.desk
        panel = desk.plan.panel(desk.seen.panel)
        lines = desk.seen.leaf.get(Stage.QUILT, "lines") == "lines"
        here = desk.seen.stage is Stage.QUILT and panel.panel.kind == "outer" and lines
        self.setVisible(here)
        if not here:
            return
        self._show_parts(1 + len(panel.choices.quilt_zones))
        self.tools["take"].setChecked(not desk.seen.draws)
        self.tools["draw"].setChecked(desk.seen.draws)
        self.out.setEnabled(bool(desk.seen.line))
        asked = (desk.seen.panel, desk.seen.part)
        if self._asked == asked and self.tiles:
            self._late.start()  # while she types, the bench comes first
        else:
            self.show_ways()

    def show_ways(self) -> None:
        """One tile for every way to come out, as things are now."""
        desk = self.desk
        self._late.stop()
        self._asked = (desk.seen.panel, desk.seen.part)
        panel = desk.plan.panel(desk.seen.panel)
        self._show_offers(offers(desk.plan, panel, desk.seen.part), panel)

    def _show_parts(self, number: int) -> None:
        if number != len(self.buttons):
            while (item := self.parts.takeAt(0)) is not None:
                if (widget := item.widget()) is not None:
                    widget.hide()
                    widget.deleteLater()
            self.buttons = []
            for at in range(number if number > 1 else 0):
                words = (
                    "upper part"
                    if at == 0 and number == 2
                    else ("lower part" if number == 2 else f"part {at + 1}")
                )
                button = self._segment(words, f"Quilted part {at + 1}", f"Ask about the {words}")
                button.clicked.connect(partial(self._turn, at))
                self.buttons.append(button)
                self.parts.addWidget(button)
        for at, button in enumerate(self.buttons):
            button.setChecked(at == self.desk.seen.part)

    def _turn(self, at: int, _checked: bool = False) -> None:
        self.desk.turn_part(at)

    def _show_offers(self, found: tuple[Offer, ...], panel: PanelPlan) -> None:
        self.offers = found
        while len(self.tiles) > len(found):
            tile = self.tiles.pop()
            self.tiles_row.removeWidget(tile)
            tile.hide()
            tile.deleteLater()
        while len(self.tiles) < len(found):
            self._add(OfferTile())
        for tile, offer in zip(self.tiles, found, strict=True):
            tile.compact = self.compact
            tile.show_offer(offer, self.desk.plan, panel)
        ways = QBoxLayout.Direction
        high = bool(found) and not self.compact
        self.hands.setDirection(ways.TopToBottom if high else ways.LeftToRight)

    def set_compact(self, compact: bool) -> None:
        """In a low window the tiles go without their drawings."""
        if compact != self.compact:
            self.compact = compact
            self._asked = None  # tiles of the other height never come to be seen
            if self.isVisible():
                self.show_ways()

    def _add(self, tile: OfferTile) -> None:
        at = len(self.tiles)
        tile.clicked.connect(lambda: self._pick(at))
        self.tiles.append(tile)
        self.tiles_row.addWidget(tile)

    def _pick(self, at: int) -> None:
        self.hand.told.emit(self.desk.attempt(self.offers[at].edit))
        self.show_ways()  # a tile clicked again stays chosen
