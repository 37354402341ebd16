"""Somewhere to draw when there is no screen: a virtual display, else Qt's offscreen mode."""

from __future__ import annotations

import atexit
import os
from contextlib import suppress
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    import subprocess


def ensure_display() -> str:
    """Choose a platform where none is set; returns a sentence if there is no real screen."""
    if os.environ.get("QT_QPA_PLATFORM"):
        return ""
    if os.environ.get("DISPLAY") or os.environ.get("WAYLAND_DISPLAY"):
        return ""
    if number := _virtual_display():
        os.environ["DISPLAY"] = f":{number}"
        return f"No screen here: Tessil runs on a virtual one (Xvfb, display :{number})."
    os.environ["QT_QPA_PLATFORM"] = "offscreen"
    return "No screen here and no Xvfb: Tessil runs in Qt's offscreen mode, unseen."


def _virtual_display() -> str:
    """Start Xvfb and return its display number; empty if it or Qt's library for it is missing."""
    import ctypes.util  # late: where there is a screen none of these is needed
    import shutil
    import subprocess

    server = shutil.which("Xvfb")
    if server is None or ctypes.util.find_library("xcb-cursor") is None:
        return ""
    process = subprocess.Popen(
        [server, "-displayfd", "1", "-screen", "0", "1280x800x24", "-nolisten", "tcp"],
        stdout=subprocess.PIPE,
        stderr=subprocess.DEVNULL,
        text=True,
    )
    atexit.register(_stop, process)
    assert process.stdout is not None
    return process.stdout.readline().strip()


def _stop(process: subprocess.Popen[str]) -> None:
    import subprocess

    process.terminate()
    with suppress(subprocess.TimeoutExpired):
        process.wait(timeout=3)
