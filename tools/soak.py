"""Clicks and types at random in the real window for a while, and says whether it lived.

    python tools/soak.py [MINUTES] [SEED]

Runs offscreen in folders of its own.  Prints memory every half minute, faults of Python and of Qt
as they come, and at the end what was done; exit code 1 if anything failed or memory kept growing.
"""

from __future__ import annotations

import faulthandler
import gc
import os
import random
import sys
import tempfile
import time
import traceback
from pathlib import Path

BOX = tempfile.mkdtemp(prefix="soak-")
os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
for name in ("STATE", "DATA", "CONFIG", "CACHE"):
    os.environ[f"XDG_{name}_HOME"] = f"{BOX}/{name.lower()}"
os.environ["XDG_DOCUMENTS_DIR"] = BOX
os.chdir(BOX)

from PySide6.QtCore import QPoint, Qt, QTimer, qInstallMessageHandler  # noqa: E402
from PySide6.QtTest import QTest  # noqa: E402
from PySide6.QtWidgets import QAbstractButton, QApplication, QLineEdit, QMenu, QWidget  # noqa: E402

from tessil.ui import app as tessil_app  # noqa: E402
from tessil.ui.shell import Shell  # noqa: E402

NEVER = ("Browse…", "Print…", "Quit")  # they wait for somebody, or end it
KEYS = (
    Qt.Key.Key_Tab,
    Qt.Key.Key_Return,
    Qt.Key.Key_Escape,
    Qt.Key.Key_Up,
    Qt.Key.Key_Down,
    Qt.Key.Key_Left,
    Qt.Key.Key_Right,
    Qt.Key.Key_Delete,
    Qt.Key.Key_F7,
    Qt.Key.Key_F8,
    Qt.Key.Key_PageDown,
    Qt.Key.Key_Space,
)
CHORDS = (
    Qt.Key.Key_Z,
    Qt.Key.Key_Y,
    Qt.Key.Key_U,
    Qt.Key.Key_1,
    Qt.Key.Key_2,
    Qt.Key.Key_4,
    Qt.Key.Key_6,
    Qt.Key.Key_C,
    Qt.Key.Key_N,
    Qt.Key.Key_L,
    Qt.Key.Key_S,
)
BAGS = ("rehearsal-satchel", "reed-pouch", "march-card-clutch", "mute-sack")
MOST_GROWN = 40  # megabytes
TEXTS = ("12 1/2", "3*2.5", "-1", "½", "31.8 cm", "0", "1e9", "abc", "7", "4½ × 6 ×3 dots", "<b>x")


def memory_mb() -> float:
    """What this process holds just now, in megabytes."""
    pages = int(Path("/proc/self/statm").read_text().split()[1])
    return pages * os.sysconf("SC_PAGE_SIZE") / 1e6


def clickable(top: QWidget) -> list[QWidget]:
    """What a hand might click."""
    found = [w for w in top.findChildren(QWidget) if w.isVisible() and w.isEnabled()] or [top]
    return [w for w in found if not (isinstance(w, QAbstractButton) and w.text() in NEVER)]


def deed(rng: random.Random, shell: Shell) -> str:
    """One random thing to do; returns what it was."""
    popup = QApplication.activePopupWidget()
    if isinstance(popup, QMenu):
        popup.close()
        return "menu closed"
    kind = rng.random()
    focus = QApplication.focusWidget() or shell
    lines = [one for one in shell.findChildren(QLineEdit) if one.isVisible() and one.isEnabled()]
    if kind < 0.12 and lines:
        line = rng.choice(lines)
        QTest.mouseClick(line, Qt.MouseButton.LeftButton)
        if rng.random() < 0.5:
            line.selectAll()
        QTest.keyClicks(line, rng.choice(TEXTS))
        QTest.keyClick(line, rng.choice(KEYS))
        return "typed"
    if kind < 0.55:
        widget = rng.choice(clickable(shell))
        at = QPoint(rng.randrange(max(widget.width(), 1)), rng.randrange(max(widget.height(), 1)))
        button = Qt.MouseButton.RightButton if rng.random() < 0.05 else Qt.MouseButton.LeftButton
        QTest.mouseClick(widget, button, Qt.KeyboardModifier.NoModifier, at)
        return "click"
    if kind < 0.75 and isinstance(focus, QLineEdit):
        QTest.keyClicks(focus, rng.choice(TEXTS))
        return "text"
    if kind < 0.9:
        QTest.keyClick(focus, rng.choice(KEYS))
        return "key"
    QTest.keyClick(focus, rng.choice(CHORDS), Qt.KeyboardModifier.ControlModifier)
    return "chord"


class Soak:
    """Does one deed after another inside the program's own event loop, where widgets that are done
    with are really destroyed."""

    def __init__(self, minutes: float, seed: int) -> None:
        self.rng = random.Random(seed)
        self.faults: list[str] = []
        self.said: list[str] = []
        self.done: dict[str, int] = {}
        self.held: list[float] = []
        self.app = tessil_app.make_app()
        self.shell = Shell()
        self.shell.show()
        self.window = tessil_app.furnish(self.app, self.shell, None, True)
        sys.excepthook = self._fault
        qInstallMessageHandler(lambda kind, context, text: self.said.append(text))
        self.began = self.told = time.monotonic()
        self.ends = self.began + minutes * 60
        self.timer = QTimer()
        self.timer.timeout.connect(self._one)

    def _fault(self, kind: type[BaseException], fault: BaseException, trace: object) -> None:
        text = "".join(traceback.format_exception(kind, fault, trace))  # type: ignore[arg-type]
        self.faults.append(text)
        print(text, flush=True)

    def run(self) -> int:
        """Soak, and say how it went."""
        self.timer.start(0)
        self.app.exec()
        print("Qt said:", {text: self.said.count(text) for text in set(self.said)})
        third = max(len(self.held) // 3, 1)
        late, middle = self.held[-third:], self.held[third : 2 * third] or self.held
        growth = sum(late) / len(late) - sum(middle) / len(middle)
        print(
            f"deeds {self.done}, faults {len(self.faults)}, "
            f"grown by {growth:.0f} MB from the second third to the last"
        )
        return int(bool(self.faults) or growth > MOST_GROWN)

    def _one(self) -> None:
        moment = time.monotonic()
        if moment > self.ends:
            self.app.quit()
            return
        what = deed(self.rng, self.shell)
        self.done[what] = self.done.get(what, 0) + 1
        if self.rng.random() < 0.002:
            self.window.open_demo(self.rng.choice(BAGS))
        if moment - self.told > 30:
            self.told = moment
            self.held.append(memory_mb())
            print(
                f"{(moment - self.began) / 60:5.1f} min  {sum(self.done.values())} deeds  "
                f"{self.held[-1]:.0f} MB  {len(gc.get_objects())} objects  "
                f"{len(QApplication.allWidgets())} widgets  {len(self.faults)} faults",
                flush=True,
            )


def main() -> int:
    """Soak for so many minutes."""
    faulthandler.enable()
    minutes = float(sys.argv[1]) if len(sys.argv) > 1 else 20
    return Soak(minutes, int(sys.argv[2]) if len(sys.argv) > 2 else 1).run()


if __name__ == "__main__":
    code = main()
    sys.stdout.flush()
    os._exit(code)
