"""How a cloth looks, as rows of a form: drawn in its colours, or the maker's own photo."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from PySide6.QtCore import QRectF, Signal
from PySide6.QtGui import QColor, QPainter, QPaintEvent, QPen, QTransform
from PySide6.QtWidgets import QGridLayout, QPushButton, QVBoxLayout, QWidget

from tessil.core.catalogue.prints import Print
from tessil.core.layout.values import value_of, value_word
from tessil.core.numbers.lengths import Notation
from tessil.drawing import theme
from tessil.drawing.fonts import text_font
from tessil.drawing.photos import with_part
from tessil.drawing.prints import print_brush
from tessil.ui.widgets.choosers import Chooser, Tick
from tessil.ui.widgets.fieldrow import FieldRow
from tessil.ui.widgets.fields import LengthField, TypedField, WordField
from tessil.ui.widgets.photoview import PhotoView
from tessil.ui.widgets.sized import fixed
from tessil.ui.widgets.words import Words

MOTIFS = (
    ("plain", "plain weave"),
    ("dots", "dots"),
    ("checks", "checks"),
    ("sprigs", "sprigs"),
    ("ticking", "ticking"),
    ("waves", "waves"),
    ("plaid", "plaid"),
    ("notes", "notes"),
    ("stars", "stars"),
    ("leaves", "leaves"),
    ("birds", "birds"),
    ("rings", "rings"),
)
COLOURS = (
    "#f6efe0",
    "#d8c8a8",
    "#e6b655",
    "#d98a3d",
    "#c9543b",
    "#8e2f45",
    "#6d4a7c",
    "#3d4c80",
    "#2e5f87",
    "#4f8a8b",
    "#7aa07c",
    "#4c6b45",
    "#8c6a48",
    "#4a3b32",
    "#8b8f94",
    "#262a33",
)
UNIT = 34  # points between two marks that a figure with its unit has room in
SHOWN = 6  # inches of the print that the large swatch shows


class LargeSwatch(QWidget):
    """So many inches of a print, with a ruler's edge to see its scale."""

    def __init__(self) -> None:
        super().__init__()
        self.cloth: Print | None = None
        self.in_metric = False
        self.setMinimumSize(260, 200)
        self.setAccessibleName("The print at scale")

    def show_print(self, cloth: Print, in_metric: bool) -> None:
        self.cloth, self.in_metric = cloth, in_metric
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        if self.cloth is None:
            return
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        side = min(self.width() - 4, self.height() - 30)
        box = QRectF(2, 2, side, side)
        per_inch = side / SHOWN
        brush = print_brush(self.cloth, per_inch)
        brush.setTransform(brush.transform() * QTransform.fromTranslate(2, 2))
        painter.setPen(QPen(QColor(theme.INK), 1))
        painter.setBrush(brush)
        painter.drawRect(box)
        step = per_inch / 2.54 if self.in_metric else per_inch
        painter.setFont(text_font(theme.SMALL))
        for at in range(int(side / step + 0.01) + 1):
            x = 2 + at * step
            painter.drawLine(
                QRectF(x, side + 4, 0, 6).topLeft(), QRectF(x, side + 4, 0, 6).bottomLeft()
            )
            if at % (5 if self.in_metric else 1) == 0:
                unit = f" {'cm' if self.in_metric else 'in'}" if at == 0 and step > UNIT else ""
                words = f"{at}{unit}"
                painter.drawText(QRectF(x + 2, side + 8, 60, 16), words)


class ColourRow(QWidget):
    """A colour by its chip, or typed as #rrggbb."""

    def __init__(self, attempt: Callable[[Any, str], str]) -> None:
        super().__init__()
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(3)
        self.field = WordField(attempt)
        self.field.setAccessibleName("Colour, #rrggbb")
        grid = QGridLayout()
        grid.setSpacing(2)
        for at, colour in enumerate(COLOURS):
            chip = QPushButton()
            fixed(chip, 26, 20)
            chip.setStyleSheet(
                f"QPushButton {{ background: {colour}; padding: 0; min-height: 0; }}"
                f"QPushButton:focus {{ border: 2px solid {theme.THREAD}; padding: 0; }}"
            )
            chip.setAccessibleName(f"Colour {colour}")
            chip.setToolTip(colour)
            chip.clicked.connect(lambda _=False, hexed=colour: attempt(hexed, ""))
            grid.addWidget(chip, at // 8, at % 8)
        column.addLayout(grid)
        column.addWidget(self.field)
        self.setFocusProxy(self.field)


DRAWN = ("ground", "ink", "repeat")  # of a cloth that is no photo
PICTURED = ("apart", "file")
DRAG = (
    " Drag the square handles to the part to use, the round ones to two places whose distance you"
    " know."
)
Attempt = Callable[[str, Any, str], str]


class LookForm:
    """Rows that a page lays; ``attempt`` gets a field's key, its value and the run of typing, and
    returns a sentence where that cannot be.  A photo's file is asked for by ``ask``."""

    def __init__(
        self,
        notation: Callable[[], Notation],
        new_run: Callable[[], str],
        attempt: Attempt,
        ask: Callable[[], object],
    ) -> None:
        self._new_run, self._attempt, self._ask = new_run, attempt, ask
        self.ground, self.ink = ColourRow(self._set("ground")), ColourRow(self._set("ink"))
        self.file = QPushButton("Choose the photo…")
        self.file.clicked.connect(lambda: ask())
        self.directional = Tick("It has an up and a down")
        self.directional.clicked.connect(lambda on: attempt("directional", on, ""))
        motif = Chooser((*MOTIFS, ("photo", "a photo of it")), self._motif)
        repeat = LengthField(notation, self._set("repeat"), False)
        apart = LengthField(notation, self._set("apart"), False)
        two = "On the real cloth, from one round handle to the other"
        upright = "It must stand upright in the bag"
        self.rows: dict[str, FieldRow] = {
            "motif": self.row("motif", "Drawn as", motif, "Drawn at scale, or your own photo"),
            "ground": self.row("ground", "Ground", self.ground, "The colour of the cloth"),
            "ink": self.row("ink", "Figure", self.ink, "The colour of its motif"),
            "repeat": self.row("repeat", "Repeat", repeat, "From one motif to the same one again"),
            "apart": self.row("apart", "Points apart", apart, two),
            "file": self.row("file", "Photo", self.file, "PNG or JPEG"),
            "directional": self.row("directional", "", self.directional, upright),
        }

    def row(self, key: str, label: str, field: QWidget, help_: str) -> FieldRow:
        """A row of such a form."""
        row = FieldRow(label, field, help_, 88)
        typed = field.field if isinstance(field, ColourRow) else field
        if isinstance(typed, TypedField):
            typed.new_run = self._new_run
            typed.told.connect(row.tell)
        typed.setObjectName(typed.objectName() or f"print.{key}")
        return row

    def _set(self, key: str) -> Callable[[Any, str], str]:
        return lambda value, run: self._attempt(key, value, run)

    def _motif(self, motif: Any, _run: str) -> str:
        if motif == "photo":
            self._ask()
            return ""
        return self._attempt("motif", motif, "")

    def show_cloth(self, cloth: Print | None) -> None:
        """Show how a cloth looks; nothing of none."""
        for key, row in self.rows.items():
            hidden = DRAWN if cloth is not None and cloth.photo is not None else PICTURED
            row.setVisible(cloth is not None and key not in hidden)
        if cloth is None:
            return
        motif = self.rows["motif"].field
        assert isinstance(motif, Chooser)
        motif.show_value("photo" if cloth.photo else cloth.motif)
        self._typed("repeat").show_value(cloth.repeat)
        self.ground.field.show_value(cloth.ground)
        self.ink.field.show_value(cloth.ink)
        self.directional.setChecked(cloth.directional)
        if cloth.photo is not None:
            self._typed("apart").show_value(cloth.photo.apart)

    def say_photo(self, words: str) -> None:
        """A word beside the photo's button: that it is being read, or what is wrong with it."""
        beside = "file" if self.rows["file"].isVisible() else "motif"
        for key in ("file", "motif"):
            self.rows[key].tell(words if key == beside else "")

    def _typed(self, key: str) -> TypedField:
        field = self.rows[key].field
        assert isinstance(field, TypedField)
        return field


class LookView(QWidget):
    """A cloth at scale; of a photo the whole of it too, to take the part in use and two places
    whose distance is known.  ``moved`` carries the photo as it is then."""

    moved = Signal(object)

    def __init__(self) -> None:
        super().__init__()
        self.cloth: Print | None = None
        self.large = LargeSwatch()
        self.photo = PhotoView()
        self.photo.moved.connect(self._moved)
        self.value = Words()
        self.value.setObjectName("soft")
        self.value.setWordWrap(True)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.addWidget(self.large, 1)
        column.addWidget(self.photo, 1)
        column.addWidget(self.value)

    def show_cloth(self, cloth: Print, in_metric: bool) -> None:
        """Show a cloth, and how light it is."""
        self.cloth = cloth
        self.large.show_print(cloth, in_metric)
        self.photo.setVisible(cloth.photo is not None)
        if cloth.photo is not None:
            self.photo.show_photo(cloth.photo)
        said = f"A {value_word(cloth)} print: lightness {value_of(cloth):.0f} of 100."
        self.value.setText(said + (DRAG if cloth.photo else ""))

    def _moved(self, crop: Any, one: Any, other: Any) -> None:
        photo = self.cloth.photo if self.cloth is not None else None
        if photo is not None:
            part = photo if crop == photo.crop else with_part(photo, crop)
            self.moved.emit(part.model_copy(update={"one": one, "other": other}))


def plainly_said(sentence: str) -> str:
    """A refusal as it is told here: what a colour must be is not said in signs."""
    if "pattern" in sentence:
        return "A colour is # and six digits or letters a to f, such as #c9543b."
    return sentence
