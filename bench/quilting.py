"""Quilting under the clock: many lines clipped and drawn, a long log fitted, a slider dragged."""

from __future__ import annotations

from math import cos, pi, sin

from timing import now, percentiles, since, timed

from tessil.core.numbers.exact import Fraction


def lines() -> None:
    """500 lines clipped to an outline of 20 corners, and that drawn on a bench-sized picture."""
    from PySide6.QtGui import QImage, QPainter

    from tessil.core.quilting.clip import segments
    from tessil.drawing.painter import fitted, paint_picture
    from tessil.drawing.picture import Line, Net, Picture

    radii = [7 if k % 2 else 9 for k in range(20)]
    outline = tuple(
        (10 + r * cos(k * pi / 10), 10 + r * sin(k * pi / 10)) for k, r in enumerate(radii)
    )
    offsets = [14.14 + (n - 250) * 0.036 for n in range(500)]
    image = QImage(800, 480, QImage.Format.Format_ARGB32_Premultiplied)

    def clipped(_: int) -> object:
        return segments(outline, 45.0, offsets, 0.25)

    def drawn(at: int) -> None:
        found = segments(outline, 45.0, offsets, 0.25)
        net = Net(tuple((*one, *other) for _, (one, other) in found), "quilt")
        picture = Picture((net, Line(outline, "trim", closed=True)), (0, 0, 20, 20))
        image.fill(0xFFFFFFFF)
        painter = QPainter(image)
        paint_picture(painter, picture, fitted(picture, 800, 480))
        painter.end()

    print(f"500 lines clipped to 20 corners: {percentiles(timed(clipped, 200))}")
    print(f"the same clipped and drawn: {percentiles(timed(drawn, 200))}")


def fitting() -> None:
    """The fit of a log of 1,000 swatches, with and without reading their losses anew."""
    from tessil.core.catalogue import material
    from tessil.core.logbook.book import Book, Swatch
    from tessil.core.logbook.flow import Lessons
    from tessil.core.quilting.fitting import fit
    from tessil.core.quilting.shrinkage import prior_of

    swatches = tuple(
        Swatch(
            gap=Fraction(8 + at % 16, 8),
            width_after=Fraction(98 + at % 2, 10),
            height_after=Fraction(197 + at % 3, 20),
            pattern="grid" if at % 3 else "channels",
        )
        for at in range(1000)
    )
    prior = prior_of((material("cotton-batting"),))
    seen = Lessons(Book(swatches=swatches)).observations("cotton-batting")
    print(f"fit of 1,000 swatches: {percentiles(timed(lambda _: fit(prior, seen), 50))}")

    def anew(_: int) -> None:
        lessons = Lessons(Book(swatches=swatches))
        fit(prior, lessons.observations("cotton-batting"))

    print(f"the same with its losses read anew: {percentiles(timed(anew, 10))}")


def sliding() -> None:
    """The gap's slider dragged on the demo: every move to the bench repainted, offscreen."""
    from PySide6.QtCore import QPoint, Qt
    from PySide6.QtTest import QTest
    from PySide6.QtWidgets import QApplication

    from tessil.core.snags import Stage
    from tessil.ui.window import Window

    window = Window()
    window.open_demo("rehearsal-satchel")
    window.show()
    for panel in ("front", "flap"):
        window.desk.look(stage=Stage.QUILT, panel=panel)
        QApplication.processEvents()
        slide = window.column.field("panel.quilting.gap.slide")
        y = slide.height() - 14
        QTest.mousePress(slide, Qt.MouseButton.LeftButton, pos=QPoint(60, y))
        found = []
        for at in range(200):
            x = 60 + 10 * (at % 14 if at % 28 < 14 else 14 - at % 14)  # every move is a step
            begun = now()
            QTest.mouseMove(slide, QPoint(x, y))
            QApplication.processEvents()
            found.append(since(begun))
            while since(begun).clock < 1 / 60:  # the hand moves once a frame
                QApplication.processEvents()
        QTest.mouseRelease(slide, Qt.MouseButton.LeftButton, pos=QPoint(60, y))
        print(f"gap slid on the {panel}, move to repainted bench: {percentiles(found[5:])}")
    window.close()
