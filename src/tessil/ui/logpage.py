"""The logbook's page: swatches, what was measured on them, and what they teach."""

from __future__ import annotations

import datetime
from collections.abc import Callable
from typing import Any

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QHBoxLayout, QPushButton, QVBoxLayout

from tessil.core.choices import materials_of
from tessil.core.edits import Edit, applied, edit
from tessil.core.logbook.book import Swatch
from tessil.core.logbook.views import StackView, materials_named, stack_name, stack_view, stacks_of
from tessil.core.numbers.decided import Refused
from tessil.core.numbers.exact import Fraction
from tessil.core.quilting.shrinkage import stack_key
from tessil.core.words.refusals import first_refusal
from tessil.drawing.plotview import agreement_picture, gap_picture
from tessil.ui.desk import Desk
from tessil.ui.recordpage import RecordPage
from tessil.ui.widgets.choosers import Chooser, Segments, Tick
from tessil.ui.widgets.fields import CountField, LengthField, NoteField, WordField
from tessil.ui.widgets.pictureview import PictureView
from tessil.ui.widgets.words import Words

_PATTERNS = (
    ("channels", "channels"),
    ("grid", "grid"),
    ("diagonal", "slanted, one way"),
    ("diamonds", "diamonds"),
)
_LENGTHS = (
    ("gap", "Gap", "From line to line, as sewn", False),
    ("gap_other", "Gap, other way", "Of the second set; empty: the same", True),
    ("width_before", "Width before", "Of the drawn square, before quilting", False),
    ("height_before", "Height before", "Of the drawn square, before quilting", False),
    ("width_after", "Width after", "The same square, quilted", True),
    ("height_after", "Height after", "The same square, quilted", True),
    ("rising_before", "Diagonal ╱ before", "From the lower left corner", True),
    ("falling_before", "Diagonal ╲ before", "From the upper left corner", True),
    ("rising_after", "Diagonal ╱ after", "From the lower left corner", True),
    ("falling_after", "Diagonal ╲ after", "From the upper left corner", True),
)
_SLANTED = ("angle", "rising_before", "falling_before", "rising_after", "falling_after")


class LogPage(RecordPage):
    """Lists the swatches; ``csv_out`` and ``csv_in`` ask the window for a file."""

    csv_out = Signal()
    csv_in = Signal()
    photo_wanted = Signal()

    def __init__(self, desk: Desk) -> None:
        super().__init__(
            desk,
            "The logbook",
            "Your own swatches, kept beside all projects. Panels you measure pieced "
            "and quilted come in by themselves.",
        )
        self._fields()
        self._make_buttons()
        right = QVBoxLayout()
        right.setSpacing(6)
        self.body.addLayout(right, 1)
        self.stack_row = QHBoxLayout()
        self.trust = Words()
        self.trust.setWordWrap(True)
        self.trust.setObjectName("figure")
        self.says = Words()
        self.says.setWordWrap(True)
        self.says.setObjectName("soft")
        self.gap_plot, self.agreement = PictureView(), PictureView()
        self.gap_plot.setAccessibleName("Loss against gap")
        self.agreement.setAccessibleName("Measured against expected")
        for widget, stretch in (
            (self.trust, 0),
            (self.says, 0),
            (self.gap_plot, 3),
            (self.agreement, 3),
        ):
            right.addWidget(widget, stretch)
        self.view: StackView | None = None

    def _fields(self) -> None:
        notation = lambda: self.desk.plan.marks.notation  # noqa: E731
        self.add_row("name", "Name", WordField(self._set("name")), "What you call it")
        self.add_row("date", "Date", NoteField(self._set("date")), "Year-month-day")
        self.add_row("batting", "Layers", Chooser((), self._set("batting")), "What lay under it")
        self.add_row("pattern", "Pattern", Chooser(_PATTERNS, self._set("pattern")), "As sewn")
        self.add_row(
            "run",
            "Lines run",
            Segments((("upright", "upright"), ("level", "level")), self._set("run")),
            "On the swatch",
        )
        self.add_row("angle", "Angle", WordField(self._set("angle")), "Degrees to the width")
        for key, label, help_, optional in _LENGTHS:
            self.add_row(key, label, LengthField(notation, self._set(key), optional), help_)
        self.add_row(
            "minutes",
            "Minutes",
            CountField(self._set("minutes"), True),
            "Sewing its lines, for your pace",
        )
        used = Tick("Learn from it")
        used.clicked.connect(lambda on: self._set("used")(on, ""))
        self.add_row("used", "", used, "Leave a swatch out without losing it")
        photo = QPushButton("A photo of it…")
        photo.clicked.connect(self.photo_wanted)
        self.add_row("photo", "", photo, "PNG or JPEG, kept small in the logbook")

    def _make_buttons(self) -> None:
        self.add = self.add_button("Write down a swatch", self._add)
        self.gone = self.add_button("Take this one out", self._remove)
        row = QHBoxLayout()
        for words, signal in (("Save as CSV…", self.csv_out), ("Take from CSV…", self.csv_in)):
            button = QPushButton(words)
            button.clicked.connect(signal)
            row.addWidget(button)
        self.buttons.addLayout(row)

    # -- showing ------------------------------------------------------------------

    @property
    def swatch(self) -> Swatch | None:
        swatches = self.desk.book.swatches
        return swatches[min(self.at, len(swatches) - 1)] if swatches else None

    def begin(self) -> None:
        """Come to the page, at a swatch of the layers of the panel in hand."""
        key = stack_key(self.desk.plan.panel(self.desk.seen.panel).materials)
        swatches = self.desk.book.swatches
        now = self.swatch
        if now is None or now.batting != key:
            self.at = next((at for at, entry in enumerate(swatches) if entry.batting == key), 0)
        super().begin()

    def refresh(self) -> None:
        """Show the logbook as it is."""
        book = self.desk.book
        known = dict(materials_of(self.desk.project))
        self.at = min(self.at, max(len(book.swatches) - 1, 0))
        swatch = self.swatch
        key = (
            swatch.batting
            if swatch
            else stack_key(self.desk.plan.panel(self.desk.seen.panel).materials)
        )
        view = self.view = stack_view(book, key, materials_named(key, known))
        far = set(view.outliers())
        self.show_entries(
            [
                _entry(at, entry, stack_name(entry.batting, known), at in far)
                for at, entry in enumerate(book.swatches)
            ]
        )
        self.gone.setEnabled(swatch is not None)
        self.form_card.setVisible(swatch is not None)
        if swatch is not None:
            self._show_swatch(swatch)
        self.trust.setText(f"{stack_name(key, known)}: {view.trust.words}")
        self.says.setText(f"{self._said(view)}{self._seam()}")
        self.gap_plot.show_picture(gap_picture(view, self.desk.project.units == "metric"))
        self.agreement.show_picture(agreement_picture(view))

    def _said(self, view: StackView) -> str:
        if not view.fitted.swatches:
            return (
                "Red: the starting guess, from memory, with the range that nine panels of ten "
                "should fall in. Sew three swatches at different gaps and it becomes your own."
            )
        rise, draw, along = view.errors()
        _, d, g = view.fitted.mean
        words = (
            f"By your swatches the cloth rises about {view.rise_mm():.1f} mm between lines, every "
            f"line draws in about {d * 25.4:.1f} mm, and along the lines {g * 100:.1f} % is lost. "
            "Red: what to expect, with the range for nine panels of ten. Diamonds: your swatches."
            f"\nHow sure that is: {view.rise_mm():.2f} mm give or take {rise:.2f}, "
            f"{d * 25.4:.2f} mm give or take {draw:.2f}, {g * 100:.1f} % give or take "
            f"{along * 100:.1f}."
        )
        far = [str(at + 1) for at in view.outliers()]
        if far:
            words += f" Far off: {', '.join(far)}. Measure again, or leave it out."
        pulls = max(view.residuals, key=lambda entry: entry.leverage)
        if pulls.leverage > 0.5:
            words += (
                f" Swatch {pulls.observation.swatch + 1} decides {pulls.leverage:.0%} of its own "
                "figure: one more like it would steady it."
            )
        return words

    def _seam(self) -> str:
        """The last seam test, which new bags begin with."""
        tests = self.desk.book.seam_tests
        if not tests:
            return ""
        read = self.desk.plan.marks.notation.exact
        last = tests[-1]
        return (
            f"\nSeam tests: {len(tests)}; the last, {last.strips} strips of {read(last.cut)} "
            f"measured {read(last.measured)}. New bags begin with it."
        )

    def _show_swatch(self, swatch: Swatch) -> None:
        self._show_stacks(swatch)
        values = {key: getattr(swatch, key) for key in self.rows if key not in ("angle", "photo")}
        values["minutes"] = None if swatch.minutes is None else round(swatch.minutes)
        values["angle"] = f"{float(swatch.angle):g}"
        self.show_values(values)
        slanted = swatch.pattern in ("diagonal", "diamonds")
        measured = bool(swatch.sets)
        for key, row in self.rows.items():
            hidden = (
                (key in _SLANTED and not slanted)
                or (key == "run" and swatch.pattern != "channels")
                or (key == "gap_other" and swatch.pattern not in ("grid", "diamonds"))
                or (measured and key in ("pattern", "run", "angle", "gap", "gap_other", "minutes"))
            )
            row.setVisible(not hidden)
        photo = self.rows["photo"].field
        assert isinstance(photo, QPushButton)
        photo.setText("Another photo of it…" if swatch.photo else "A photo of it…")

    def _show_stacks(self, swatch: Swatch) -> None:
        """Every lofty material, no batting, and the stacks there are swatches of."""
        known = dict(materials_of(self.desk.project))
        keys = [entry.key for entry in known.values() if entry.kind == "batting"]
        here = stack_key(self.desk.plan.panel(self.desk.seen.panel).materials)
        keys = list(dict.fromkeys([*keys, *stacks_of(self.desk.book), here, "bare"]))
        field = self.rows["batting"].field
        assert isinstance(field, Chooser)
        if [field.itemData(at) for at in range(field.count())] != keys:
            field.clear()
            for key in keys:
                field.addItem(stack_name(key, known), key)
        field.show_value(swatch.batting)

    # -- answering ----------------------------------------------------------------

    def _set(self, key: str) -> Callable[[Any, str], str]:
        def attempt(value: Any, run: str) -> str:
            given = value
            if key == "angle":
                given = str(value).replace(",", ".")
            sentence = self._change(key, given, run)
            if not run and key in self.rows:
                self.rows[key].tell(sentence)
            return sentence

        return attempt

    def _change(self, key: str, value: Any, run: str) -> str:
        swatch = self.swatch
        if swatch is None:
            return ""
        try:
            changed = applied(swatch, edit("", (key, value)))
        except Refused as error:
            return first_refusal(error)
        swatches = self.desk.book.swatches
        kept = (*swatches[: self.at], changed, *swatches[self.at + 1 :])
        words = f"Change a swatch's {key.replace('_', ' ')}"
        return self.desk.attempt_book(
            edit(words, ("swatches", kept)), f"swatch {self.at} {key} {run}" if run else ""
        )

    def _add(self) -> None:
        """A new swatch like the one in hand, or like the panel on the bench."""
        book, now = self.desk.book, self.swatch
        today = datetime.date.today().isoformat()
        number = len(book.swatches) + 1
        if now is not None and not now.sets:
            cleared = dict.fromkeys(
                (key for key, *_ in _LENGTHS if key.endswith("after") or "ing_" in key), None
            )
            made = now.model_copy(
                update={
                    "name": f"swatch {number}",
                    "date": today,
                    "used": True,
                    "minutes": None,
                    "photo": None,
                    **cleared,
                }
            )
        else:
            panel = self.desk.plan.panel(self.desk.seen.panel)
            side = Fraction(10) if self.desk.project.units == "inch" else Fraction(2500, 254)
            made = Swatch(
                name=f"swatch {number}",
                date=today,
                batting=stack_key(panel.materials),
                width_before=side,
                height_before=side,
            )
        sentence = self.desk.attempt_book(
            edit("Write down a swatch", ("swatches", (*book.swatches, made)))
        )
        self.rows["name"].tell(sentence)
        self.at = len(self.desk.book.swatches) - 1
        self.refresh()
        self.rows["width_after"].field.setFocus()

    def _remove(self) -> None:
        swatches = self.desk.book.swatches
        kept = (*swatches[: self.at], *swatches[self.at + 1 :])
        self.rows["name"].tell(
            self.desk.attempt_book(edit("Take a swatch out", ("swatches", kept)))
        )
        self.refresh()

    def photo_edit(self, photo: Any) -> Edit:
        """The edit that gives the swatch in hand a photo."""
        swatches = self.desk.book.swatches
        changed = swatches[self.at].model_copy(update={"photo": photo})
        kept = (*swatches[: self.at], changed, *swatches[self.at + 1 :])
        return edit("Keep a photo of a swatch", ("swatches", kept))


def _entry(at: int, swatch: Swatch, stack: str, far: bool) -> str:
    state = "" if swatch.used else ", left out"
    state += ", far off" if far else ""
    state += "" if swatch.width_after or swatch.height_after else ", to be measured"
    return f"{at + 1}  {swatch.name}\n{stack}, {swatch.date or 'no date'}{state}"
