"""The selvage: the eight stages as the colour dots on a fabric's printed edge."""

from __future__ import annotations

from PySide6.QtCore import QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QColor, QKeyEvent, QPainter, QPaintEvent, QPen, QTransform
from PySide6.QtWidgets import QAbstractButton, QVBoxLayout, QWidget

from tessil.core.snags import Stage
from tessil.drawing import theme
from tessil.drawing.fonts import medium_font, text_font, title_font
from tessil.drawing.painter import paint_flag
from tessil.ui.widgets.sized import fixed

WIDTH = 96


class StageDot(QAbstractButton):
    """One stage: a dot with its number, filled once settled, and its snags as a flag."""

    def __init__(self, stage: Stage, number: int) -> None:
        super().__init__()
        self.stage, self.number = stage, number
        self.settled = False
        self.snags = 0
        self.blocks = False
        self._shown: tuple[bool, int, bool] | None = None
        self.setCheckable(True)
        self.setAutoExclusive(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setToolTip(f"{stage.capitalize()} (Ctrl+{number})")

    def sizeHint(self) -> QSize:
        return QSize(theme.px(WIDTH - 18), theme.px(72))

    def minimumSizeHint(self) -> QSize:
        return QSize(theme.px(WIDTH - 18), theme.px(54))

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Up and down belong to the selvage, which turns the stage as well as the focus."""
        if event.key() in (Qt.Key.Key_Up, Qt.Key.Key_Down):
            event.ignore()
        else:
            super().keyPressEvent(event)

    def show_state(self, settled: bool, snags: int, blocks: bool) -> None:
        if (settled, snags, blocks) == self._shown:
            return
        self._shown = self.settled, self.snags, self.blocks = settled, snags, blocks
        words = [self.stage.capitalize(), "settled" if settled else "open"]
        if snags:
            words.append(f"{snags} snag{'s' if snags > 1 else ''}")
        self.setAccessibleName(", ".join(words))
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        width = self.width()
        if self.isChecked():
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(QColor(theme.PAPER))
            painter.drawRoundedRect(QRectF(4, 2, width + 10, self.height() - 4), 8, 8)
        centre = QPointF(width / 2, self.height() * 0.38)
        colour = QColor(theme.THREAD if self.isChecked() else theme.INK)
        painter.setPen(QPen(colour, 2))
        painter.setBrush(colour if self.settled else QColor(theme.CARD))
        painter.drawEllipse(centre, theme.px(14), theme.px(14))
        if self.hasFocus():
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.setPen(QPen(QColor(theme.THREAD), 1.5, Qt.PenStyle.DashLine))
            painter.drawEllipse(centre, theme.px(18), theme.px(18))
        painter.setPen(QColor(theme.CARD) if self.settled else colour)
        painter.setFont(title_font(theme.px(15), strong=True))
        painter.drawText(
            QRectF(centre.x() - 14, centre.y() - 14, 28, 28),
            int(Qt.AlignmentFlag.AlignCenter),
            str(self.number),
        )
        painter.setPen(colour)
        painter.setFont(medium_font() if self.isChecked() else text_font())
        words = QRectF(0, self.height() - theme.px(24), width, theme.px(20))
        painter.drawText(words, int(Qt.AlignmentFlag.AlignCenter), self.stage.capitalize())
        if self.snags:
            paint_flag(painter, centre + QPointF(19, -9), self.snags, self.blocks, 0.8)


class Selvage(QWidget):
    """The left edge of the window."""

    turned = Signal(object)

    def __init__(self) -> None:
        super().__init__()
        fixed(self, WIDTH)
        self.name = ""
        column = QVBoxLayout(self)
        column.setContentsMargins(18, 12, 0, 12)
        column.setSpacing(0)
        self.dots: dict[Stage, StageDot] = {}
        column.addStretch(1)
        for number, stage in enumerate(Stage, start=1):
            dot = StageDot(stage, number)
            dot.clicked.connect(lambda _=False, chosen=stage: self.turned.emit(chosen))
            self.dots[stage] = dot
            column.addWidget(dot, 3)
        column.addStretch(1)

    def show_state(
        self, current: Stage, settled: tuple[str, ...], snags: dict[Stage, tuple[int, bool]]
    ) -> None:
        """Which stage is open, which are settled, and each one's snags (count, any blocks)."""
        for stage, dot in self.dots.items():
            if dot.isChecked() is not (stage is current):
                dot.setChecked(stage is current)
            dot.show_state(stage in settled, *snags.get(stage, (0, False)))

    def keyPressEvent(self, event: QKeyEvent) -> None:
        step = {Qt.Key.Key_Down: 1, Qt.Key.Key_Up: -1}.get(Qt.Key(event.key()))
        if step is None:
            super().keyPressEvent(event)
            return
        stages = list(Stage)
        focused = [stage for stage, dot in self.dots.items() if dot.hasFocus()]
        at = stages.index(focused[0]) if focused else 0
        chosen = stages[min(max(at + step, 0), len(stages) - 1)]
        self.dots[chosen].setFocus()
        self.turned.emit(chosen)

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.fillRect(self.rect(), QColor(theme.SELVAGE))
        painter.setPen(QPen(QColor(theme.RULE), 1))
        painter.drawLine(self.width() - 1, 0, self.width() - 1, self.height())
        self._fringe(painter)
        painter.setPen(QColor(theme.SOFT))
        painter.setFont(text_font(theme.px(10)))
        painter.setTransform(QTransform().translate(17, self.height() - 16).rotate(-90))
        painter.drawText(0, 0, f"TESSIL    {self.name}    eight steps, one bag")

    def _fringe(self, painter: QPainter) -> None:
        """Loose weft threads at the very edge."""
        painter.setPen(QPen(QColor("#b9a98a"), 1))
        for at in range(4, self.height(), 5):
            reach = 4 + (at * 7 % 5)
            painter.drawLine(0, at, reach, at)
