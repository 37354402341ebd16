"""What counts as a project, where files go, and which limits lists have."""

import json
import os

import pytest

from tessil.files.places import config_folder, data_folder, state_folder
from tessil.files.projectfile import is_project, to_text
from tessil.files.scrapfile import LARGEST
from tests.conftest import job_tote


@pytest.mark.parametrize(
    ("name", "text", "is_one"),
    [
        ("bag.tessil", "anything", True),  # by its name
        ("BAG.TESSIL", "anything", True),
        ("bag.txt", to_text(job_tote()), True),  # by what is in it
        ("bag.txt", json.dumps({"format": 4, "shape": {}, "hold": {}}), True),
        ("bag.txt", json.dumps({"format": 4, "shape": {}}), False),
        ("bag.txt", json.dumps(["format", "shape", "hold"]), False),
        ("bag.txt", "{", False),
        ("list.csv", "a,b\n", False),
    ],
)
def test_a_project_is_known_by_its_name_or_by_what_is_in_it(tmp_path, name, text, is_one):
    path = tmp_path / name
    path.write_text(text, "utf-8")
    assert is_project(path) == is_one
    assert not is_project(tmp_path / "not-there.tessil")
    assert not is_project(tmp_path)


@pytest.mark.parametrize(
    ("folder", "variable", "home"),
    [
        (state_folder, "XDG_STATE_HOME", ".local/state"),
        (data_folder, "XDG_DATA_HOME", ".local/share"),
        (config_folder, "XDG_CONFIG_HOME", ".config"),
    ],
)
def test_folders_are_where_the_desktop_says_or_at_home(
    tmp_path, monkeypatch, folder, variable, home
):
    """A relative path is to be ignored (XDG Base Directory Specification 0.8)."""
    monkeypatch.setenv("HOME", str(tmp_path / "home"))
    monkeypatch.setenv(variable, str(tmp_path / "there"))
    assert folder() == tmp_path / "there" / "tessil"
    monkeypatch.setenv(variable, "not/absolute")
    assert folder() == tmp_path / "home" / home / "tessil"
    monkeypatch.delenv(variable)
    assert folder() == tmp_path / "home" / home / "tessil"
    assert os.path.isdir(folder())


def test_a_list_of_scraps_has_a_megabyte_at_most():
    assert LARGEST == 1024**2
