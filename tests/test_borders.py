"""What a folder must not know, checked by importing it alone."""

import subprocess
import sys

import pytest

CORE = """
import pkgutil, sys, importlib, tessil.core
for module in pkgutil.walk_packages(tessil.core.__path__, "tessil.core."):
    importlib.import_module(module.name)
bad = [m for m in sys.modules if m.split(".")[0] in ("PySide6", "shiboken6")]
bad += [m for m in sys.modules if m.startswith(("tessil.ui", "tessil.files", "tessil.drawing"))]
print(bad)
"""
REPORT = """
import sys
from tessil.cli import main
main(["report", sys.argv[1]])
print([m for m in sys.modules if m.startswith("PySide6")], file=sys.stderr)
"""
PICTURES = """
import sys
import tessil.drawing.pictures, tessil.drawing.picture, tessil.drawing.theme
print([m for m in sys.modules if m.startswith("PySide6")])
"""


def _run(code, *arguments):
    return subprocess.run(
        [sys.executable, "-c", code, *arguments], capture_output=True, text=True, check=True
    )


@pytest.mark.parametrize("code", [CORE, PICTURES])
def test_core_and_pictures_import_no_qt(code):
    assert _run(code).stdout.strip() == "[]"


def test_a_report_needs_no_qt():
    from tests.conftest import DEMO

    assert _run(REPORT, str(DEMO)).stderr.strip() == "[]"


def test_the_window_starts_and_ends_as_a_program():
    """The real command, offscreen, asked to close as soon as it can check what is typed."""
    code = (
        "import sys\n"
        "from PySide6.QtCore import QTimer\n"
        "import tessil.ui.app as app\n"
        "real = app.furnish\n"
        "def furnish(*args):\n"
        "    window = real(*args)\n"
        "    window.wait = QTimer(window, interval=50)\n"
        "    def look():\n"
        "        if 'pydantic' in sys.modules:\n"
        "            print(app.QApplication.windowIcon().isNull())\n"
        "            window.quit()\n"
        "    window.wait.timeout.connect(look)\n"
        "    window.wait.start()\n"
        "    print(window.desk.project.name, 'pydantic' in sys.modules)\n"
        "    return window\n"
        "app.furnish = furnish\n"
        "sys.exit(app.run(None, demo=True))\n"
    )
    done = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, timeout=60)
    # What checks entries is loaded beside the window, and the frame has its icon, once it is there.
    assert done.stdout.split("\n")[:2] == ["Rehearsal satchel False", "False"]
    assert done.returncode == 0, done.stderr
