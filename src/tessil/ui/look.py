"""The style sheet, made from the theme's tokens."""

from __future__ import annotations

from tessil.drawing import theme as t


def style_sheet() -> str:
    """Qt style sheet of the whole application."""
    return f"""
* {{ font-family: "{t.TEXT_FACE}"; font-size: {t.TEXT}px; color: {t.INK}; }}
QMainWindow, QWidget#paper {{ background: {t.PAPER}; }}
QWidget#card {{ background: {t.CARD}; border: 1px solid {t.RULE}; border-radius: {t.RADIUS}px; }}
QScrollArea, QScrollArea > QWidget > QWidget {{ background: transparent; border: none; }}
QScrollArea#pages:focus {{ border: 2px solid {t.THREAD}; border-radius: 4px; }}
QLabel#title {{ font-family: "{t.TITLE_FACE}"; font-size: {t.TITLE}px; font-weight: 500; }}
QLabel#large {{ font-family: "{t.TITLE_FACE}"; font-size: {t.LARGE}px; font-weight: 500; }}
QLabel#figure {{ font-size: {t.px(17)}px; font-weight: 600; }}
QLabel#figure[narrow="true"] {{ font-size: {t.px(14)}px; }}
QLabel#reading {{ font-family: "{t.TITLE_FACE}"; font-size: {t.px(44)}px; font-weight: 600; }}
QLabel#steptitle {{ font-family: "{t.TITLE_FACE}"; font-size: {t.px(26)}px; font-weight: 600; }}
QLabel#step {{ font-size: {t.px(17)}px; }}
QLabel#soft {{ color: {t.SOFT}; font-size: {t.px(12)}px; }}
QLabel#error {{ color: {t.BLOCKING}; font-size: {t.px(12)}px; font-weight: 600; }}
QLabel#quiet-line {{ color: {t.SOFT}; font-size: {t.px(12)}px; }}
QLabel#strong {{ font-weight: 600; }}
QLabel#caution {{ color: {t.SOFT}; font-size: {t.px(12)}px; }}
QLineEdit {{
  background: {t.CARD}; border: 1px solid {t.RULE}; border-radius: 4px; padding: 3px 8px;
  min-height: {t.px(22)}px; selection-background-color: {t.THREAD}; selection-color: {t.CARD};
}}
QLineEdit:hover {{ border-color: {t.FAINT}; }}
QLineEdit:focus {{ border: 2px solid {t.THREAD}; padding: 2px 7px; }}
QLineEdit[wrong="true"] {{ border: 2px solid {t.BLOCKING}; padding: 2px 7px; }}
QLineEdit#name {{
  font-family: "{t.TITLE_FACE}"; font-size: {t.TITLE}px; font-weight: 500;
  background: transparent; border-color: transparent; padding: 0 2px;
}}
QLineEdit#name:hover {{ border-color: {t.RULE}; }}
QLineEdit#name:focus {{ border: 2px solid {t.THREAD}; padding: 0 1px; background: {t.CARD}; }}
QLineEdit#measured {{ border: 1px solid {t.RULE}; background: transparent; }}
QLineEdit#measured:focus {{ border: 2px solid {t.MEASURED}; background: {t.CARD}; }}
QLineEdit#measured[got="true"] {{
  border: 1px solid {t.MEASURED}; background: {t.MEASURED_WASH}; color: {t.MEASURED};
  font-weight: 600;
}}
QPushButton {{
  background: {t.CARD}; border: 1px solid {t.RULE}; border-radius: 4px; padding: 4px 12px;
  min-height: {t.px(22)}px;
}}
QPushButton:hover {{ border-color: {t.INK}; }}
QPushButton:focus {{ border: 2px solid {t.THREAD}; padding: 3px 11px; }}
QPushButton:pressed {{ background: {t.MAT}; }}
QPushButton:disabled {{ color: {t.FAINT}; background: transparent; border-color: {t.RULE}; }}
QPushButton#main {{ background: {t.THREAD}; color: {t.CARD}; border-color: {t.THREAD};
  font-weight: 600; }}
QPushButton#main:hover {{ background: #8e2231; }}
QPushButton#main:focus {{ border: 2px solid {t.INK}; }}
QPushButton#main:disabled {{ background: {t.RULE}; border-color: {t.RULE}; color: {t.SOFT}; }}
QPushButton#fix {{
  background: transparent; border: 1px solid {t.WARNING}; color: {t.WARNING};
  padding: 1px 8px; min-height: {t.px(18)}px; font-size: {t.px(12)}px; font-weight: 600;
}}
QPushButton#fix:hover {{ background: {t.CARD}; }}
QPushButton#fix:focus {{ border: 2px solid {t.THREAD}; padding: 0 7px; }}
QSlider#fold::groove:horizontal {{ height: 2px; background: {t.RULE}; border-radius: 1px; }}
QSlider#fold::sub-page:horizontal {{ height: 2px; background: {t.THREAD}; border-radius: 1px; }}
QSlider#fold::handle:horizontal {{ width: {t.px(12)}px; height: {t.px(12)}px;
  margin: -{t.px(6)}px 0;
  background: {t.THREAD}; border: 2px solid {t.CARD}; border-radius: {t.px(7)}px; }}
QSlider#fold:focus {{ border: 2px solid {t.THREAD}; border-radius: 6px; }}
QPushButton#quiet {{ background: transparent; border-color: transparent; padding: 4px 8px; }}
QPushButton#quiet:hover {{ border-color: {t.RULE}; background: {t.CARD}; }}
QPushButton#quiet:focus {{ border: 2px solid {t.THREAD}; padding: 3px 7px; }}
QPushButton#link {{ background: transparent; border: 1px solid transparent; padding: 1px 2px;
  text-align: left; font-weight: 600; min-height: {t.px(18)}px; }}
QPushButton#link:hover {{ color: {t.THREAD}; }}
QPushButton#link:focus {{ border: 2px solid {t.THREAD}; padding: 0 1px; }}
QPushButton#record {{ background: transparent; border: 1px solid transparent; border-radius: 4px;
  text-align: left; padding: 4px 8px; }}
QPushButton#record:hover {{ border-color: {t.RULE}; }}
QPushButton#record:checked {{ background: {t.THREAD_WASH}; border-color: {t.THREAD}; }}
QPushButton#record:focus {{ border: 2px solid {t.THREAD}; padding: 3px 7px; }}
QPushButton#segment {{ padding: 3px 6px; border-radius: 0; margin-left: -1px; }}
QPushButton#segment:checked {{ background: {t.INK}; color: {t.CARD}; border-color: {t.INK}; }}
QPushButton#segment:focus {{ border: 2px solid {t.THREAD}; padding: 2px 5px; }}
QPushButton#segment:checked:focus {{ border: 2px solid {t.THREAD}; background: {t.SOFT}; }}
QCheckBox {{ spacing: 8px; min-height: {t.px(24)}px; }}
QCheckBox::indicator {{ width: {t.px(16)}px; height: {t.px(16)}px; border: 1px solid {t.FAINT};
  border-radius: 3px; background: {t.CARD}; }}
QCheckBox::indicator:checked {{ background: {t.THREAD}; border-color: {t.THREAD}; }}
QCheckBox:focus {{ color: {t.THREAD}; }}
QMenu {{ background: {t.CARD}; border: 1px solid {t.RULE}; padding: 6px; }}
QMenu::item {{ padding: 6px 28px 6px 16px; border-radius: 4px; }}
QMenu::item:selected {{ background: {t.THREAD_WASH}; }}
QMenu::item:disabled {{ color: {t.FAINT}; }}
QMenu::separator {{ height: 1px; background: {t.RULE}; margin: 6px 8px; }}
QToolTip {{ background: {t.INK}; color: {t.CARD}; border: none; padding: 4px 6px; }}
QAbstractItemView {{ background: {t.CARD}; border: 1px solid {t.RULE}; outline: none;
  selection-background-color: {t.THREAD_WASH}; selection-color: {t.INK}; padding: 4px; }}
QTableView {{ background: {t.CARD}; border: 1px solid {t.RULE}; padding: 0; }}
QTableView::item {{ padding: 0 6px; }}
QTableView::item:selected {{ background: {t.THREAD_WASH}; color: {t.INK}; }}
QHeaderView {{ background: {t.CARD}; border: none; padding: 0; }}
QHeaderView::section {{ background: {t.CARD}; color: {t.SOFT}; border: none;
  border-bottom: 1px solid {t.RULE}; padding: 6px; font-weight: 600; }}
QScrollBar:vertical {{ background: transparent; width: 10px; margin: 2px; }}
QScrollBar::handle:vertical {{ background: {t.RULE}; border-radius: 3px; min-height: 30px; }}
QScrollBar::add-line, QScrollBar::sub-line, QScrollBar::add-page, QScrollBar::sub-page {{
  background: transparent; height: 0; width: 0; }}
QScrollBar:horizontal {{ background: transparent; height: 10px; margin: 2px; }}
QScrollBar::handle:horizontal {{ background: {t.RULE}; border-radius: 3px; min-width: 30px; }}
"""
