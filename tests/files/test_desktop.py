"""The desktop entry and the file type, by the validators that desktops themselves use.

desktop-file-validate and update-mime-database follow the freedesktop Desktop Entry Specification
and the Shared MIME-info Database Specification; ``make`` fetches both.
"""

import shutil
import subprocess
import xml.etree.ElementTree as ET
from pathlib import Path

import pytest

ROOT = Path(__file__).parents[2]
ENTRY, TYPE = ROOT / "data" / "tessil.desktop", ROOT / "data" / "tessil-mime.xml"


def needs(tool):
    return pytest.mark.skipif(shutil.which(tool) is None, reason=f"{tool} is not here")


@needs("desktop-file-validate")
def test_the_entry_is_valid():
    done = subprocess.run(
        ["desktop-file-validate", str(ENTRY)], capture_output=True, text=True, check=False
    )
    assert (done.returncode, done.stdout) == (0, "")


@needs("update-mime-database")
def test_a_project_is_known_by_its_name(tmp_path):
    packages = tmp_path / "packages"
    packages.mkdir()
    shutil.copy(TYPE, packages / "tessil.xml")
    done = subprocess.run(
        ["update-mime-database", str(tmp_path)], capture_output=True, text=True, check=False
    )
    assert done.returncode == 0
    assert "error" not in done.stderr.lower()
    lines = (tmp_path / "globs").read_text().splitlines()
    assert "application/x-tessil:*.tessil" in lines


def test_the_entry_opens_what_the_type_names():
    kind = ET.parse(TYPE).getroot()[0].attrib["type"]
    lines = dict(line.split("=", 1) for line in ENTRY.read_text().splitlines() if "=" in line)
    assert kind in lines["MimeType"].split(";")
    assert lines["Exec"].split()[0] == "tessil"
    assert lines["Exec"].split()[1] in ("%f", "%u", "%F", "%U")
    assert (ROOT / "src" / "tessil" / "icons" / f"{lines['Icon']}.svg").is_file()


def test_make_install_puts_everything_under_its_prefix(tmp_path):
    """What it would do, since it takes a minute to do it."""
    if shutil.which("make") is None:
        pytest.skip("make is not here")
    done = subprocess.run(
        ["make", "-n", "install", f"PREFIX={tmp_path}"],
        cwd=ROOT,
        capture_output=True,
        text=True,
        check=False,
    )
    assert done.returncode == 0
    for part in (
        "bin/tessil",
        "share/applications/tessil.desktop",
        "share/mime/packages/tessil.xml",
        "share/icons/hicolor/scalable/apps/tessil.svg",
    ):
        assert f"{tmp_path}/{part}" in done.stdout
    assert "/usr/" not in done.stdout
