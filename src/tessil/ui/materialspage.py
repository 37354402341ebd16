"""The catalogue's page: every material with its values, the maker's own among them."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from PySide6.QtWidgets import QVBoxLayout

from tessil.core.catalogue import NO_PLIES, Material, materials, to_own
from tessil.core.catalogue.own import OwnMaterial
from tessil.core.choices import materials_of
from tessil.core.edits import applied, edit
from tessil.core.numbers.decided import Refused
from tessil.core.words.refusals import first_refusal
from tessil.drawing.plotview import materials_picture
from tessil.ui.desk import Desk
from tessil.ui.recordpage import RecordPage
from tessil.ui.widgets.choosers import Chooser, Tick
from tessil.ui.widgets.fields import LengthField, WordField
from tessil.ui.widgets.pictureview import PictureView
from tessil.ui.widgets.words import Words

_KINDS = (
    ("batting", "batting or fleece"),
    ("cloth", "cloth"),
    ("firm", "interfacing"),
    ("web", "fusible web"),
)
_NUMBERS = (
    ("relaxed_mm", "Thick, relaxed", "As it lies", "mm"),
    ("pressed_mm", "Thick, pressed", "Under the presser foot", "mm"),
    ("grams", "Weight", "Of a square metre", "g/m²"),
    ("rise_mm", "Rise", "How far cloth rides up between lines: starting guess", "mm"),
    ("draw_mm", "Drawn in, a line", "What each line takes: starting guess", "mm"),
    ("along", "Lost along lines", "Starting guess", "%"),
)


class MaterialsPage(RecordPage):
    """Changing a shipped material makes it the project's own; it can be taken back."""

    def __init__(self, desk: Desk) -> None:
        super().__init__(
            desk,
            "Materials",
            "Typical values, from memory: change them to what you have. They stay "
            "with this bag and are offered for new ones.",
        )
        notation = lambda: self.desk.plan.marks.notation  # noqa: E731
        self.add_row("name", "Name", WordField(self._set("name")), "What you call it")
        self.add_row("kind", "Kind", Chooser(_KINDS, self._set("kind")), "What it does")
        for key, label, help_, _ in _NUMBERS:
            self.add_row(key, label, WordField(self._set(key)), help_)
        self.add_row(
            "width", "Roll width", LengthField(notation, self._set("width"), False), "As it is sold"
        )
        self.add_row(
            "widest_gap",
            "Widest gap",
            LengthField(notation, self._set("widest_gap"), True),
            "Between lines, so that it does not shift; empty: none needed",
        )
        for key, words, help_ in (
            ("fusible", "It is fusible", "Adhesive on it"),
            ("melts", "A hot iron melts it", "Press cloth, low heat"),
        ):
            tick = Tick(words)
            tick.clicked.connect(lambda on, name=key: self._set(name)(on, ""))
            self.add_row(key, "", tick, help_)
        self.add = self.add_button("Add a material", self._add)
        self.gone = self.add_button("Take this one out", self._remove)
        right = QVBoxLayout()
        self.says = Words()
        self.says.setObjectName("soft")
        self.says.setWordWrap(True)
        self.bars = PictureView()
        self.bars.setAccessibleName("Thickness of all materials")
        right.addWidget(self.says)
        right.addWidget(self.bars, 1)
        self.body.addLayout(right, 1)

    @property
    def known(self) -> list[Material]:
        return [
            entry
            for entry in materials_of(self.desk.project).values()
            if entry.kind not in NO_PLIES
        ]

    @property
    def entry(self) -> Material:
        return self.known[min(self.at, len(self.known) - 1)]

    def refresh(self) -> None:
        """Show the catalogue as it is."""
        self.at = min(self.at, len(self.known) - 1)
        kinds = dict(_KINDS)
        self.show_entries(
            [
                f"{entry.name}\n{kinds[entry.kind]}{', changed' if entry.own else ''}"
                for entry in self.known
            ]
        )
        own = to_own(self.entry)
        values: dict[str, Any] = {key: getattr(own, key) for key in self.rows}
        for key, _, _, unit in _NUMBERS:
            value = getattr(own, key) * (100 if unit == "%" else 1)
            values[key] = f"{value:g} {unit}"
        self.show_values(values)
        lofty = self.entry.kind == "batting"
        for key in ("rise_mm", "draw_mm", "along", "widest_gap"):
            self.rows[key].setVisible(lofty)
        self.gone.setEnabled(self.entry.own)
        shipped = self.entry.key in materials()
        self.gone.setText("Back to the shipped values" if shipped else "Take this one out")
        self.bars.show_picture(materials_picture(self.known, self.at))
        self.says.setText(
            "Rise, draw and loss along the lines are what drawing in begins with; your own "
            "swatches in the logbook take their place."
            if lofty
            else self.entry.caution
        )

    def _set(self, key: str) -> Callable[[Any, str], str]:
        def attempt(value: Any, run: str) -> str:
            sentence = self._change(key, value, run)
            if not run and key in self.rows:
                self.rows[key].tell(sentence)
            return sentence

        return attempt

    def _change(self, key: str, value: Any, run: str) -> str:
        unit = {name: unit for name, _, _, unit in _NUMBERS}.get(key)
        if unit is not None:
            try:
                value = float(str(value).replace(",", ".").removesuffix(unit).strip())
            except ValueError:
                return f"A number goes here, such as 2.5 {unit}."
            value = value / 100 if unit == "%" else value
        own, now = self.desk.project.materials, self.entry
        try:
            changed = applied(to_own(now), edit("", (key, value)))
        except Refused as error:
            return first_refusal(error)
        kept = tuple(entry for entry in own if entry.key != now.key)
        at = next((at for at, entry in enumerate(own) if entry.key == now.key), len(kept))
        made = (*kept[:at], changed, *kept[at:])
        return self.desk.attempt(
            edit(f"Change {now.name.lower()}", ("materials", made)),
            f"material {now.key} {key} {run}" if run else "",
        )

    def _add(self) -> None:
        own = self.desk.project.materials
        keys = {entry.key for entry in self.known}
        key = next(f"own-{n}" for n in range(1, 200) if f"own-{n}" not in keys)
        new = OwnMaterial(key=key, name=f"My batting {key[4:]}")
        sentence = self.desk.attempt(edit("Add a material", ("materials", (*own, new))))
        self.rows["name"].tell(sentence)
        self.at = next((at for at, entry in enumerate(self.known) if entry.key == key), self.at)
        self.refresh()

    def _remove(self) -> None:
        own = tuple(e for e in self.desk.project.materials if e.key != self.entry.key)
        words = f"Take back {self.entry.name.lower()}"
        self.rows["name"].tell(self.desk.attempt(edit(words, ("materials", own))))
        self.refresh()
