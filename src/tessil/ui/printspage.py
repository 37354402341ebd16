"""The page of the print basket: every print with its name, motif or photo, scale and amount."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from pydantic import ValidationError
from PySide6.QtCore import QRectF, Qt, Signal
from PySide6.QtGui import QColor, QKeyEvent, QPainter, QPaintEvent, QPen, QTransform
from PySide6.QtWidgets import (
    QFrame,
    QGridLayout,
    QHBoxLayout,
    QPushButton,
    QScrollArea,
    QVBoxLayout,
    QWidget,
)

from tessil.core.catalogue.prints import Photo, Print
from tessil.core.edits import Edit, edit
from tessil.core.layout.values import value_of, value_word
from tessil.core.shelf.inhand import cloth_names
from tessil.core.words.refusals import first_refusal
from tessil.drawing import theme
from tessil.drawing.fonts import text_font
from tessil.drawing.photos import with_part
from tessil.drawing.prints import print_brush
from tessil.ui.desk import Desk
from tessil.ui.widgets.basket import Swatch
from tessil.ui.widgets.choosers import Chooser, Tick
from tessil.ui.widgets.fieldrow import FieldRow
from tessil.ui.widgets.fields import CountField, LengthField, TypedField, WordField
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
                words = f"{at} {'cm' if self.in_metric else 'in'}" if at == 0 else str(at)
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


class PrintsPage(QWidget):
    """The basket.  ``file_wanted`` asks the window for a photo's file."""

    left = Signal()
    file_wanted = Signal()

    def __init__(self, desk: Desk) -> None:
        super().__init__()
        self.setObjectName("paper")
        self.desk = desk
        self.at = 0
        self.rows: dict[str, FieldRow] = {}
        outer = QVBoxLayout(self)
        outer.setContentsMargins(20, 14, 20, 16)
        outer.setSpacing(12)
        outer.addLayout(self._head())
        body = QHBoxLayout()
        body.setSpacing(20)
        outer.addLayout(body, 1)
        body.addWidget(self._list(), 0)
        body.addWidget(self._form(), 0)
        right = QVBoxLayout()
        self.large = LargeSwatch()
        self.photo = PhotoView()
        self.photo.moved.connect(self._photo_moved)
        self.photo.grabbed.connect(self._new_run)
        self.value = Words()
        self.value.setObjectName("soft")
        self.value.setWordWrap(True)
        right.addWidget(self.large, 1)
        right.addWidget(self.photo, 1)
        right.addWidget(self.value)
        body.addLayout(right, 1)
        self._run = ""
        desk.planned.connect(self._planned)

    def _head(self) -> QHBoxLayout:
        title = Words("The print basket")
        title.setObjectName("title")
        self.words = Words(
            "Every cloth of this bag. Scale is true: what is drawn here lies so on the bench."
        )
        self.words.setObjectName("soft")
        self.back = QPushButton("Back to the bench")
        self.back.clicked.connect(self.left)
        row = QHBoxLayout()
        row.addWidget(title)
        row.addWidget(self.words, 1)
        row.addWidget(self.back)
        return row

    def _list(self) -> QWidget:
        card = QWidget()
        card.setObjectName("card")
        card.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        fixed(card, 250)
        column = QVBoxLayout(card)
        area = QScrollArea()
        area.setWidgetResizable(True)
        area.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        area.setFrameShape(QFrame.Shape.NoFrame)
        inner = QWidget()
        self.list = QVBoxLayout(inner)
        self.list.setContentsMargins(0, 0, 0, 0)
        self.list.addStretch(1)
        area.setWidget(inner)
        column.addWidget(area, 1)
        self.add = QPushButton("Add a print")
        self.add.clicked.connect(lambda: self._add())
        self.gone = QPushButton("Take this one out")
        self.gone.clicked.connect(self._remove)
        self.lying = Chooser((), self._add_lying)
        self.lying.setAccessibleName("Add a print from the shelf")
        self.lying.setToolTip("A cloth that lies on the shelf, by its name there")
        column.addWidget(self.add)
        column.addWidget(self.lying)
        column.addWidget(self.gone)
        self.swatches: list[Swatch] = []
        return card

    def _form(self) -> QWidget:
        card = QWidget()
        card.setObjectName("card")
        card.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        fixed(card, 356)
        self.form = QVBoxLayout(card)
        self.form.setSpacing(8)
        self._row("name", "Name", WordField(self._set("name")), "What you call it")
        motif = Chooser((*MOTIFS, ("photo", "a photo of it")), self._motif)
        self._row("motif", "Drawn as", motif, "Drawn at scale, or your own photo")
        self.ground, self.ink = ColourRow(self._set("ground")), ColourRow(self._set("ink"))
        self._row("ground", "Ground", self.ground, "The colour of the cloth")
        self._row("ink", "Figure", self.ink, "The colour of its motif")
        notation = lambda: self.desk.plan.marks.notation  # noqa: E731
        self._row(
            "repeat",
            "Repeat",
            LengthField(notation, self._set("repeat"), False),
            "From one motif to the same one again",
        )
        self._row(
            "apart",
            "Points apart",
            LengthField(notation, self._apart, False),
            "On the real cloth, from one round handle to the other",
        )
        self.file = QPushButton("Choose the photo…")
        self.file.clicked.connect(self.file_wanted)
        self._row("file", "Photo", self.file, "PNG or JPEG")
        self._row(
            "amount",
            "In hand",
            CountField(self._set("amount"), True),
            "Pieces of it; empty: cut as needed",
        )
        self.directional = Tick("It has an up and a down")
        self.directional.clicked.connect(lambda on: self._set("directional")(on, ""))
        self._row("directional", "", self.directional, "It must stand upright in the bag")
        self.placed = Tick("Its picture is placed")
        self.placed.clicked.connect(lambda on: self._set("placed")(on, ""))
        about = "Each piece is cut by a window with it in the middle: a repeat more each way"
        self._row("placed", "", self.placed, about)
        self.favourite = Tick("A favourite")
        self.favourite.clicked.connect(lambda on: self._set("favourite")(on, ""))
        self._row("favourite", "", self.favourite, "Arranging can keep favourites on one part")
        self.form.addStretch(1)
        return card

    def _row(self, key: str, label: str, field: QWidget, help_: str) -> None:
        row = FieldRow(label, field, help_, 88)
        typed = field.field if isinstance(field, ColourRow) else field
        if isinstance(typed, TypedField):
            typed.new_run = self.desk.new_run
            typed.told.connect(row.tell)
        typed.setObjectName(typed.objectName() or f"print.{key}")
        self.rows[key] = row
        self.form.addWidget(row)

    # -- showing ------------------------------------------------------------------

    @property
    def cloth(self) -> Print | None:
        prints = self.desk.project.prints
        return prints[min(self.at, len(prints) - 1)] if prints else None

    def begin(self) -> None:
        """Come to the page, at the print in hand."""
        keys = [entry.key for entry in self.desk.project.prints]
        if self.desk.seen.brush in keys:
            self.at = keys.index(self.desk.seen.brush)
        self.refresh()
        self._offer_lying()
        self.back.setFocus()

    def _planned(self) -> None:
        if self.isVisible():
            self.refresh()

    def refresh(self) -> None:
        """Show the basket as it is."""
        prints = self.desk.project.prints
        self.at = min(self.at, max(len(prints) - 1, 0))
        self._show_list(prints)
        cloth = self.cloth
        for key, row in self.rows.items():
            photo = cloth is not None and cloth.photo is not None
            row.setVisible(
                cloth is not None
                and (
                    photo
                    if key in ("apart", "file")
                    else not photo
                    if key in ("ground", "ink", "repeat")
                    else True
                )
            )
        self.gone.setEnabled(cloth is not None)
        if cloth is not None:
            self._show_cloth(cloth)

    def _show_list(self, prints: tuple[Print, ...]) -> None:
        if [swatch.cloth for swatch in self.swatches] != list(prints):
            focus = any(swatch.hasFocus() for swatch in self.swatches)
            while (item := self.list.takeAt(0)) is not None:
                if (widget := item.widget()) is not None:
                    widget.hide()
                    widget.deleteLater()
            self.swatches = []
            for at, cloth in enumerate(prints):
                self.list.addWidget(self._entry(at, cloth))
            self.list.addStretch(1)
            if focus and self.swatches:
                self.swatches[self.at].setFocus()
        for at, swatch in enumerate(self.swatches):
            swatch.in_hand = at == self.at
            swatch.update()

    def _entry(self, at: int, cloth: Print) -> QWidget:
        holder = QWidget()
        row = QHBoxLayout(holder)
        row.setContentsMargins(0, 0, 0, 0)
        swatch = Swatch(cloth)
        fixed(swatch, 64, 44)
        swatch.clicked.connect(lambda: self._choose(at))
        self.swatches.append(swatch)
        many = "" if cloth.amount is None else f", {cloth.amount} in hand"
        words = Words(f"{cloth.name}\n{value_word(cloth)}{many}")
        words.setObjectName("soft")
        words.setWordWrap(True)
        row.addWidget(swatch)
        row.addWidget(words, 1)
        return holder

    def _show_cloth(self, cloth: Print) -> None:
        for key in ("name", "repeat", "amount"):
            field = self.rows[key].field
            assert isinstance(field, TypedField)
            field.show_value(getattr(cloth, key))
        self.ground.field.show_value(cloth.ground)
        self.ink.field.show_value(cloth.ink)
        motif = self.rows["motif"].field
        assert isinstance(motif, Chooser)
        motif.show_value("photo" if cloth.photo else cloth.motif)
        self.directional.setChecked(cloth.directional)
        self.placed.setChecked(cloth.placed)
        self.favourite.setChecked(cloth.favourite)
        self.large.show_print(cloth, self.desk.project.units == "metric")
        self.photo.setVisible(cloth.photo is not None)
        if cloth.photo is not None:
            self.photo.show_photo(cloth.photo)
            apart = self.rows["apart"].field
            assert isinstance(apart, TypedField)
            apart.show_value(cloth.photo.apart)
        drag = " Drag the square handles to the part to use, the round ones to two places whose "
        drag += "distance you know."
        self.value.setText(
            f"A {value_word(cloth)} print: lightness {value_of(cloth):.0f} of 100."
            + (drag if cloth.photo else "")
        )

    # -- answering ----------------------------------------------------------------

    def _choose(self, at: int) -> None:
        for row in self.rows.values():
            if isinstance(row.field, TypedField):
                row.field.settle()
        self.at = at
        self.refresh()

    def _new_run(self) -> None:
        self._run = self.desk.new_run()

    def _set(self, key: str) -> Callable[[Any, str], str]:
        def attempt(value: Any, run: str) -> str:
            return self._try(
                key, edit(f"Change a print's {key}", (f"prints.{self.at}.{key}", value)), run
            )

        return attempt

    def _try(self, key: str, change: Edit, run: str = "") -> str:
        try:
            sentence = self.desk.attempt(change, f"print {self.at} {key} {run}" if run else "")
        except ValidationError as error:
            sentence = first_refusal(error)
        if "pattern" in sentence:
            sentence = "A colour is # and six digits or letters a to f, such as #c9543b."
        if not run:  # a typed field tells its own sentence, in its own time
            self.rows[key].tell(sentence)
        return sentence

    def _motif(self, motif: Any, _run: str) -> str:
        if motif == "photo":
            self.file_wanted.emit()
            self.refresh()
            return ""
        base = f"prints.{self.at}"
        return self._try(
            "motif",
            edit("Change a print's motif", (f"{base}.motif", motif), (f"{base}.photo", None)),
        )

    def _apart(self, value: Any, run: str) -> str:
        return self._try(
            "apart", edit("Set the photo's scale", (f"prints.{self.at}.photo.apart", value)), run
        )

    def _photo_moved(self, crop: Any, one: Any, other: Any) -> None:
        cloth = self.cloth
        if cloth is None or cloth.photo is None:
            return
        photo = cloth.photo if crop == cloth.photo.crop else with_part(cloth.photo, crop)
        photo = photo.model_copy(update={"one": one, "other": other})
        self._try(
            "file",
            edit("Crop and scale the photo", (f"prints.{self.at}.photo", photo)),
            f"handle {self.photo.handle} {self._run}",
        )

    def take_photo(self, photo: Photo) -> Edit:
        """The edit that gives the print in hand this photo."""
        return edit("Use a photo", (f"prints.{self.at}.photo", photo))

    def say_photo(self, words: str) -> None:
        """A word beside the photo's button: that it is being read, or what is wrong with it."""
        beside = "file" if self.rows["file"].isVisible() else "motif"
        for key in ("file", "motif"):
            self.rows[key].tell(words if key == beside else "")

    def _offer_lying(self) -> None:
        """Cloths of the shelf that are not in the basket yet."""
        names = cloth_names(self.desk.shelf, self.desk.project.prints)
        self.lying.clear()
        self.lying.addItem("Add one from the shelf…", None)
        for name in names:
            self.lying.addItem(name, name)
        self.lying.setVisible(bool(names))

    def _add_lying(self, name: object, _words: str) -> str:
        if isinstance(name, str):
            self._add(name)
            self._offer_lying()
        return ""

    def _add(self, name: str = "") -> None:
        prints = self.desk.project.prints
        keys = {entry.key for entry in prints}
        key = next(f"print-{n}" for n in range(1, 200) if f"print-{n}" not in keys)
        ground = COLOURS[(3 * len(prints) + 4) % len(COLOURS)]
        new = Print(
            key=key,
            name=name or f"Print {len(prints) + 1}",
            motif="plain" if name else "dots",
            ground=ground,
            ink="#f6efe0",
        )
        sentence = self.desk.attempt(edit("Add a print", ("prints", (*prints, new))))
        self.rows["name"].tell(sentence)
        self.at = len(self.desk.project.prints) - 1
        self.refresh()

    def _remove(self) -> None:
        prints = self.desk.project.prints
        kept = (*prints[: self.at], *prints[self.at + 1 :])
        self.rows["name"].tell(self.desk.attempt(edit("Take a print out", ("prints", kept))))
        self.refresh()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Escape:
            self.left.emit()
        else:
            super().keyPressEvent(event)
