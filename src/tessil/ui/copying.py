"""What Ctrl+C takes: a figure as a line, figures and lists as text and as CSV, a drawing as a
picture."""

from __future__ import annotations

from collections.abc import Sequence

from PySide6.QtCore import QMimeData
from PySide6.QtGui import QGuiApplication
from PySide6.QtWidgets import QWidget

from tessil.core.numbers.lengths import Notation
from tessil.core.reading import Reading
from tessil.core.words.refusals import printable
from tessil.core.words.written import value_text, working
from tessil.files.csvtext import write_list

FIGURES = ("figure", "value", "working", "rests on")


def figure_cells(reading: Reading, notation: Notation) -> tuple[str, str, str, str]:
    """Name, value, working and basis of one figure, as they stand on the receipt."""
    figure = reading.figure
    name = figure.label[:1].upper() + figure.label[1:]
    return name, value_text(figure, notation), working(figure, notation), figure.basis.words


def copy_text(text: str) -> None:
    """Put a text on the clipboard."""
    QGuiApplication.clipboard().setText(text)


def copy_figure(reading: Reading, notation: Notation) -> None:
    """One figure: ``Trimmed width: 13⅜ = 15 − 2 × ⅜ (geometry)``."""
    name, value, sum_, basis = figure_cells(reading, notation)
    copy_text(f"{name}: {value}" + (f" = {sum_}" if sum_ else "") + f" ({basis})")


def copy_list(columns: Sequence[str], rows: Sequence[Sequence[object]]) -> None:
    """A list, as text with tabs and as CSV: whoever takes it chooses."""
    lines = [columns, *rows]
    mime = QMimeData()
    mime.setText("\n".join("\t".join(printable(str(cell)) for cell in line) for line in lines))
    mime.setData("text/csv", write_list(columns, rows).encode("utf-8"))
    QGuiApplication.clipboard().setMimeData(mime)


def copy_picture(widget: QWidget) -> None:
    """A drawing as it is on screen."""
    QGuiApplication.clipboard().setPixmap(widget.grab())
