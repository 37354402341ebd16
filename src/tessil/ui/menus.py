"""Small menus at the pointer: what can be done with the thing under it."""

from __future__ import annotations

from collections.abc import Callable, Sequence

from PySide6.QtCore import QPoint, Qt
from PySide6.QtWidgets import QMenu, QWidget

MenuRow = tuple[str, Callable[[], object]]
RULE: MenuRow = ("", lambda: None)


def pop_menu(parent: QWidget, at: QPoint, rows: Sequence[MenuRow]) -> QMenu:
    """Show a menu at a place on the screen; it takes itself away when it is done with."""
    menu = QMenu(parent)
    menu.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
    for words, do in rows:
        if not words:
            menu.addSeparator()
            continue
        action = menu.addAction(words.replace("&", "&&"))
        action.triggered.connect(lambda _=False, deed=do: deed())
    menu.popup(at)
    return menu
