"""Project files: whole or refused in one sentence, and never a lost old one."""

import errno
import json
import os
import subprocess
import sys
import time

import pytest

from tessil.core.numbers.exact import Fraction
from tessil.core.project import FORMAT, Project
from tessil.files import places, projectfile, recent, recovery
from tessil.files.projectfile import FileTrouble
from tests.conftest import bag_from, flat_text, load_bag, save_bag, tote


def test_what_is_saved_comes_back_exactly(tmp_path, demo):
    for project in (demo, tote(bags=7), tote(units="metric")):
        path = tmp_path / "bag.tessil"
        save_bag(project, path)
        assert load_bag(path) == project


def test_files_are_sorted_and_diff_by_line(tmp_path):
    one, other = flat_text(tote()).splitlines(), flat_text(tote(bags=3)).splitlines()
    assert sum(a != b for a, b in zip(one, other, strict=True)) == 1
    assert list(json.loads(flat_text(tote()))) == sorted(json.loads(flat_text(tote())))


def test_saving_keeps_one_backup(tmp_path):
    path = tmp_path / "bag.tessil"
    for bags in (1, 2, 3):
        save_bag(tote(bags=bags), path)
    assert load_bag(path).bags == 3
    assert bag_from(path.with_name("bag.tessil~").read_text()).bags == 2
    assert sorted(p.name for p in tmp_path.iterdir() if p.is_file()) == [
        "bag.tessil",
        "bag.tessil~",
    ]


def test_a_full_disk_leaves_the_old_file_whole(tmp_path, monkeypatch):
    path = tmp_path / "bag.tessil"
    save_bag(tote(bags=1), path)

    def full(_):
        raise OSError(errno.ENOSPC, "No space left on device")

    monkeypatch.setattr(projectfile.os, "fsync", full)
    with pytest.raises(FileTrouble, match=r"could not be saved: no space left on device\."):
        save_bag(tote(bags=2), path)
    monkeypatch.undo()
    assert load_bag(path).bags == 1
    assert [p.name for p in tmp_path.iterdir() if p.is_file()] == ["bag.tessil"]


@pytest.mark.skipif(not os.path.exists("/dev/full"), reason="needs /dev/full")
def test_a_folder_that_cannot_be_written_says_so(tmp_path):
    with pytest.raises(FileTrouble, match="could not be saved"):
        save_bag(tote(), tmp_path / "nowhere" / "bag.tessil")


def test_a_read_only_file_is_not_replaced(tmp_path, monkeypatch):
    path = tmp_path / "bag.tessil"
    save_bag(tote(), path)
    monkeypatch.setattr(projectfile.os, "access", lambda *_: False)  # root may write anything
    with pytest.raises(FileTrouble, match="read-only"):
        save_bag(tote(bags=2), path)
    assert load_bag(path).bags == 1


def _spoiled(**changes):
    data = json.loads(flat_text(tote())) | changes
    return json.dumps(data)


@pytest.mark.parametrize(
    ("content", "says"),
    [
        (b"", "breaks off or goes wrong in line 1"),
        (flat_text(tote()).encode()[:400], "breaks off or goes wrong in line"),
        (b"\x89PNG\r\n\x1a\n\x00\xff", "not text"),
        (b"[1, 2]", "no format number"),
        (b'{"name": "x"}', "no format number"),
        (b'{"format": true}', "no format number"),
        (b"[" * 100_000, "nested too deeply"),
        (_spoiled(format=FORMAT + 1).encode(), "newer Tessil"),
        (_spoiled(format=0).encode(), "never was"),
        (_spoiled(bags="two").encode(), "wrong entry at bags"),
        (_spoiled(bags=10_000).encode(), "1 to 999"),
        (
            _spoiled(colour="red").encode(),
            "newer Tessil, or changed by hand: this one knows no entry “colour”",
        ),
        (
            _spoiled(hold={"things": [{"width": "1/0"}]}).encode(),
            "what it holds → things → no. 1 → width: Nothing can be divided",
        ),
        (_spoiled(seams={"side": "-1 in"}).encode(), "seams → side"),
        (b'{"format": 1' + b"0" * 5000 + b"}", "format|sense"),
    ],
)
def test_broken_and_hostile_files_get_one_sentence(tmp_path, content, says):
    path = tmp_path / "odd.tessil"
    path.write_bytes(content)
    with pytest.raises(FileTrouble, match=says) as trouble:
        load_bag(path)
    assert "\n" not in str(trouble.value)
    assert "odd.tessil" in str(trouble.value)


def test_a_hundred_megabytes_are_refused_at_once(tmp_path):
    path = tmp_path / "huge.tessil"
    with path.open("wb") as file:
        file.truncate(100 * 1024 * 1024)
    begun = time.perf_counter()
    with pytest.raises(FileTrouble, match="larger than a Tessil project"):
        load_bag(path)
    assert time.perf_counter() - begun < 1


def test_a_folder_or_nothing_is_no_project(tmp_path):
    for path in (tmp_path, tmp_path / "missing.tessil"):
        with pytest.raises(FileTrouble, match="not a file"):
            load_bag(path)


def test_an_older_format_is_migrated(monkeypatch):
    newer = FORMAT + 1
    monkeypatch.setattr(projectfile, "FORMAT", newer)
    monkeypatch.setitem(
        projectfile.MIGRATIONS, FORMAT, lambda data: {**data, "format": newer, "name": "moved on"}
    )
    data = projectfile.migrated(json.loads(flat_text(tote())), "It")
    assert data["name"] == "moved on"


def test_a_file_of_the_first_format_still_opens():
    data = json.loads(flat_text(tote()))
    data["format"] = 1
    for key in ("scraps", "seam_test", "pack", "rules"):
        del data[key]
    for choices in data["panels"].values():
        del choices["zones"]
        for key in (
            "angle",
            "widths",
            "square",
            "surplus_across",
            "foundation",
            "overhang",
            "heights",
            "filled",
            "allowance",
            "sashing",
            "border",
            "border_print",
            "press",
            "locked",
            "laid",
        ):
            del choices["piecing"][key]
    for cloth in data["prints"]:
        for key in ("favourite", "amount", "photo"):
            del cloth[key]
    assert bag_from(json.dumps(data)) == tote()


def test_lengths_of_any_kind_survive_a_file():
    odd = tote(lining_shorter=Fraction(1, 7))
    assert bag_from(flat_text(odd)).lining_shorter == Fraction(1, 7)


def test_recovery_finds_what_a_killed_tessil_left(tmp_path):
    """A process keeps its work and is killed outright; the next one finds it."""
    code = (
        "import sys, time; from pathlib import Path;"
        "from tessil.core.project import Project, job_of; from tessil.files import recovery;"
        "recovery.keep(job_of(Project(name='Half done', bags=5)), Path('/somewhere/bag.tessil'));"
        "print('kept', flush=True); time.sleep(60)"
    )
    process = subprocess.Popen([sys.executable, "-c", code], stdout=subprocess.PIPE, text=True)
    assert process.stdout is not None
    assert process.stdout.readline() == "kept\n"
    assert recovery.find_lost() == []  # it still runs: not lost
    process.kill()
    process.wait()
    process.stdout.close()
    (lost,) = recovery.find_lost()
    assert (lost.job.bags[0].name, lost.job.bags[0].bags) == ("Half done", 5)
    assert str(lost.origin) == "/somewhere/bag.tessil"
    recovery.discard(lost)
    assert recovery.find_lost() == []


def test_a_broken_recovery_file_is_left_alone():
    (places.state_folder() / "recovery-999999.json").write_text("{")
    assert recovery.find_lost() == []


def test_recent_files_are_newest_first_and_exist(tmp_path):
    paths = [tmp_path / f"{n}.tessil" for n in range(10)]
    for path in paths:
        path.touch()
        recent.remember(path)
    paths[9].unlink()
    assert recent.recent_files()[0] == paths[8]
    assert len(recent.recent_files()) <= recent.MOST


def test_an_empty_project_is_a_project():
    assert bag_from(flat_text(Project())) == Project()
