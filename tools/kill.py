"""Ends the program at random instants while somebody types; what does the next start offer?

    python tools/kill.py [KILLS] [SEED]

Three paces: a key held down, a fast typist, an ordinary one.  Exit code 1 if an edit older than two
seconds was lost, or if a start found a file that it could not read.
"""

from __future__ import annotations

import hashlib
import json
import os
import random
import shutil
import subprocess
import sys
import tempfile
import time
from importlib.resources import files
from pathlib import Path
from typing import Any

from PySide6.QtCore import Qt, QTimer
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication

from tessil.core.project import Job
from tessil.files.projectfile import load, to_text
from tessil.ui import app as tessil_app
from tessil.ui.shell import Shell
from tessil.ui.window import Window

PACES = (33, 100, 220)  # milliseconds between keys
LONGEST = 2.0  # seconds that may be lost
WAIT = 60.0  # seconds for a start


def mark_of(job: Job) -> str:
    """A short name for the state of a job."""
    return hashlib.sha1(to_text(job).encode()).hexdigest()[:16]


# -- the one that types -------------------------------------------------------------------


def typist(file: Path, journal: Path, found: Path, pace: int) -> int:
    """Take up what is offered, say what it was, then type without end."""
    furnish = tessil_app.furnish

    def furnished(app: QApplication, shell: Shell, path: Path | None, demo: bool) -> Window:
        window = furnish(app, shell, path, demo)
        app.processEvents()
        offered = window.bar.isVisible()
        if offered:
            window.bar.take.click()
        app.processEvents()
        said = {"offered": offered, "state": mark_of(window.desk.job)}
        found.write_text(json.dumps(said))
        out = os.open(journal, os.O_WRONLY | os.O_CREAT | os.O_TRUNC)

        def note() -> None:
            os.write(out, f"{time.monotonic()} {mark_of(window.desk.job)}\n".encode())

        window.desk.planned.connect(note)
        timer = QTimer(window)
        timer.timeout.connect(lambda: type_one(window))
        timer.start(pace)
        return window

    tessil_app.furnish = furnished
    return tessil_app.run(file, False)


COUNT = [0]


def type_one(window: Window) -> None:
    """One key: in the name, or stepping how many bags."""
    COUNT[0] += 1
    if COUNT[0] // 25 % 2:
        window.bags.setFocus()
        QTest.keyClick(window.bags, Qt.Key.Key_Up if COUNT[0] % 2 else Qt.Key.Key_Down)
        return
    window.name.setFocus()
    if COUNT[0] % 25 == 1:
        window.name.selectAll()
    QTest.keyClick(window.name, chr(97 + COUNT[0] % 26))


# -- the one that kills -------------------------------------------------------------------


class Trial:
    """Folders of its own, a bag in them, and what was lost so far."""

    def __init__(self, seed: int) -> None:
        self.box = Path(tempfile.mkdtemp(prefix="kill-"))
        self.rng = random.Random(seed)
        self.file = self.box / "bag.tessil"
        shutil.copy(str(files("tessil") / "demo" / "rehearsal-satchel.tessil"), self.file)
        self.env = {**os.environ, "QT_QPA_PLATFORM": "offscreen"}
        for name in ("STATE", "DATA", "CONFIG", "CACHE"):
            self.env[f"XDG_{name}_HOME"] = str(self.box / name.lower())
        self.before: tuple[float, list[tuple[float, str]]] | None = None
        self.ages: list[float] = []
        self.faults = 0

    def once(self, pace: int) -> None:
        """Start, look what is offered, let it type, kill it."""
        journal, found = self.box / "journal", self.box / "found"
        found.unlink(missing_ok=True)
        journal.unlink(missing_ok=True)
        own = [sys.executable, __file__, "--type", str(self.file), str(journal), str(found)]
        child = subprocess.Popen([*own, str(pace)], env=self.env, stderr=subprocess.DEVNULL)
        said = self._wait(child, found)
        if said is None:
            self.faults += 1
            print("  a start failed")
        else:
            self._judge(said, pace)
            time.sleep(self.rng.uniform(0.5, 5))
        child.kill()
        killed = time.monotonic()
        child.wait()
        load(self.file)
        lines = journal.read_text().splitlines() if journal.exists() else []
        entries = [line.split() for line in lines if line.count(" ") == 1]
        self.before = killed, [(float(moment), state) for moment, state in entries]

    def _wait(self, child: subprocess.Popen[bytes], found: Path) -> dict[str, Any] | None:
        began = time.monotonic()
        while child.poll() is None and time.monotonic() - began < WAIT:
            try:
                said: dict[str, Any] = json.loads(found.read_text())
                return said
            except (OSError, ValueError):
                time.sleep(0.02)
        return None

    def _judge(self, said: dict[str, Any], pace: int) -> None:
        if self.before is None:
            return
        killed, entries = self.before
        kept = max(
            (at for at, (_, state) in enumerate(entries) if state == said["state"]), default=-1
        )
        lost = entries[kept + 1 :]
        age = killed - lost[0][0] if lost else 0.0
        self.ages.append(age)
        if age > LONGEST:
            self.faults += 1
            print(f"  pace {pace}: {len(lost)} edits lost, the oldest {age:.2f} s old")


def main() -> int:
    """Kill, start, compare; or type, as the child."""
    if sys.argv[1:2] == ["--type"]:
        file, journal, found, pace = sys.argv[2:]
        return typist(Path(file), Path(journal), Path(found), int(pace))
    kills = int(sys.argv[1]) if len(sys.argv) > 1 else 60
    trial = Trial(int(sys.argv[2]) if len(sys.argv) > 2 else 1)
    for at in range(kills + 1):
        trial.once(PACES[at % len(PACES)])
        if at % 25 == 24:
            print(f"{at + 1} kills, the worst loss {max(trial.ages, default=0):.2f} s")
    ages = sorted(trial.ages)
    print(
        f"{kills} kills: median loss {ages[len(ages) // 2]:.2f} s, the worst {ages[-1]:.2f} s, "
        f"{trial.faults} faults"
    )
    return bool(trial.faults)


if __name__ == "__main__":
    sys.exit(main())
