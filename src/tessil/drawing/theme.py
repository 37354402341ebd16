"""Every colour and size of Tessil's look: cut paper, chalk and thread.  Knows no Qt.

Pairs meant as text on ground keep a contrast of 4.5:1 or more; a test checks them.
"""

from __future__ import annotations

PAPER = "#f3ecdf"
SELVAGE = "#e8deca"
CARD = "#fdfaf3"
MAT = "#ece3d2"
RULE = "#d9cdb6"
INK = "#262a33"
SOFT = "#645d52"
FAINT = "#716a5d"
THREAD = "#a92b3c"
THREAD_WASH = "#f5e2e0"
MEASURED = "#1d6656"
MEASURED_WASH = "#e0eee7"
WARNING = "#8a5a00"
WARNING_WASH = "#fbf0dc"
BLOCKING = "#8c2f14"
BATTING = "#fbfaf6"
LINING = "#e3d8c4"
CHALK = "#ffffff"
SHADE = "#262a33"

GRID = 4
SMALL = 11
TEXT = 13
FIGURE = 18
TITLE = 22
LARGE = 28
RADIUS = 6

TEXT_FACE = "Inter"
TITLE_FACE = "Vollkorn"
