"""Writing that is whole at every instant: links, modes, backups, kills, locks."""

import fcntl
import os
import signal
import stat
import subprocess
import sys
import threading
import time

import pytest

from tessil.core.trouble import FileTrouble, NewerFile
from tessil.files import disk, recovery
from tessil.files.logfile import begin_book, book_path, save_book
from tessil.files.projectfile import is_project, state_on_disk, write_export
from tests.conftest import flat_text, job_tote, load_bag, save_bag, tote


def test_a_link_is_followed_and_stays_one(tmp_path):
    real, link = tmp_path / "shelf" / "bag.tessil", tmp_path / "link.tessil"
    real.parent.mkdir()
    save_bag(tote(bags=1), real)
    link.symlink_to(real)
    save_bag(tote(bags=2), link)
    assert link.is_symlink()
    assert load_bag(real).bags == 2


@pytest.mark.parametrize("mode", [0o664, 0o600, 0o644])
def test_a_file_keeps_its_mode(tmp_path, mode):
    path = tmp_path / "bag.tessil"
    save_bag(tote(), path)
    path.chmod(mode)
    save_bag(tote(bags=3), path)
    assert stat.S_IMODE(path.stat().st_mode) == mode


def test_new_files_get_the_usual_mode_and_kept_work_is_private(tmp_path):
    old = os.umask(0o022)
    try:
        save_bag(tote(), tmp_path / "bag.tessil")
        write_export(tmp_path / "list.csv", b"x")
        recovery.keep(job_tote(), None)
    finally:
        os.umask(old)
    modes = [
        stat.S_IMODE(path.stat().st_mode)
        for path in (tmp_path / "bag.tessil", tmp_path / "list.csv", recovery._own_path())
    ]
    assert modes == [0o644, 0o644, 0o600]


@pytest.mark.parametrize("links", [True, False])
def test_the_backup_is_the_state_before(tmp_path, monkeypatch, links):
    path = tmp_path / "bag.tessil"
    if not links:
        monkeypatch.setattr(disk.os, "link", lambda *a: (_ for _ in ()).throw(OSError(1, "none")))
    for bags in (1, 2, 3):
        save_bag(tote(bags=bags), path)
    assert load_bag(path).bags == 3
    assert load_bag(path.with_name("bag.tessil~")).bags == 2
    assert not list(tmp_path.glob(".*"))


def test_a_disk_that_fills_up_while_the_backup_is_copied_harms_neither(tmp_path, monkeypatch):
    path = tmp_path / "bag.tessil"
    save_bag(tote(bags=1), path)
    save_bag(tote(bags=2), path)
    real = disk._write_beside

    def full(target, *rest):
        if target.name.endswith("~"):
            raise OSError(28, "No space left on device")
        real(target, *rest)

    monkeypatch.setattr(disk.os, "link", lambda *a: (_ for _ in ()).throw(OSError(1, "none")))
    monkeypatch.setattr(disk, "_write_beside", full)
    with pytest.raises(FileTrouble, match="no space left"):
        save_bag(tote(bags=3), path)
    assert load_bag(path).bags == 2
    assert load_bag(path.with_name("bag.tessil~")).bags == 1


def test_what_a_kill_left_is_swept_and_what_is_being_written_is_not(tmp_path):
    left, busy = tmp_path / ".tessil-0123456789ab.part", tmp_path / ".tessil-ba9876543210.part"
    mine = tmp_path / ".tessil-notes.part"
    for path in (left, busy, mine):
        path.write_text("half")
    with busy.open() as file:
        fcntl.flock(file, fcntl.LOCK_EX)
        disk.sweep(tmp_path)
        assert not left.exists()
        assert busy.exists()
    disk.sweep(tmp_path)
    assert not busy.exists()
    assert mine.exists()  # only names that are our own


def test_a_project_is_never_written_over_by_a_list(tmp_path):
    path = tmp_path / "bag.json"
    save_bag(tote(bags=7), path)
    assert is_project(path)
    with pytest.raises(FileTrouble, match="is a Tessil project"):
        write_export(path, b"a,b")
    assert load_bag(path).bags == 7


def test_another_program_s_change_shows_in_the_fingerprint(tmp_path):
    path = tmp_path / "bag.tessil"
    assert state_on_disk(path) == ""
    save_bag(tote(bags=1), path)
    first = state_on_disk(path)
    save_bag(tote(bags=2), path)
    assert state_on_disk(path) != first


HOLDER = """
import sys, time
from pathlib import Path
from tessil.files import recovery
from tests.conftest import job_tote
recovery.keep(job_tote(name="Precious"), None, 4)
print(recovery._own_path().name, flush=True)
time.sleep(60)
"""


def test_a_lock_dies_with_its_program_whatever_its_number(tmp_path):
    """The kept file of a running Tessil is left alone; killed, it is offered; nothing asks for the
    number of a process."""
    command = [sys.executable, "-c", HOLDER]
    with subprocess.Popen(
        command, stdout=subprocess.PIPE, text=True, env=dict(os.environ)
    ) as child:
        name = child.stdout.readline().strip()
        assert str(child.pid) not in name
        assert recovery.find_lost() == []
        child.send_signal(signal.SIGKILL)
        child.wait()
    (lost,) = recovery.find_lost()
    assert (lost.name, lost.shape, lost.changes) == ("Precious", "tote", 4)
    assert lost.job.project() == tote(name="Precious")


@pytest.mark.parametrize(
    ("name", "body"),
    [
        ("recovery-99999999999999999999.json", "{}"),
        ("recovery-1.json", "[" * 200_000),
        ("aside-1.json", "null"),
        ("aside-2.json", '{"project": 3, "origin": 4}'),
        ("aside-3.json", "\udcff".encode("utf-8", "surrogateescape").decode("latin-1")),
    ],
)
def test_strange_files_among_kept_work_do_not_stop_the_start(name, body):
    (recovery.state_folder() / name).write_text(body, "utf-8")
    recovery.prune()
    assert recovery.find_lost() == []


def test_what_an_earlier_tessil_kept_is_still_found():
    import json

    record = {"origin": None, "project": json.loads(flat_text(tote(bags=5)))}
    (recovery.state_folder() / "recovery-4711.json").write_text(json.dumps(record))
    (lost,) = recovery.find_lost()
    assert (lost.name, lost.job.bags[0].bags) == ("Test tote", 5)


def test_kept_work_is_pruned_by_age():
    recovery.put_aside(job_tote(name="Old"), None)
    recovery.put_aside(job_tote(name="New"), None)
    old = next(lost for lost in recovery.find_lost() if lost.name == "Old")
    long_ago = time.time() - (recovery.KEPT_DAYS + 1) * 86400
    os.utime(old.path, (long_ago, long_ago))
    recovery.prune()
    assert [lost.name for lost in recovery.find_lost()] == ["New"]


def test_a_folder_that_cannot_be_written_is_a_sentence(tmp_path, monkeypatch):
    (tmp_path / "blocked").write_text("a file where a folder should be")
    monkeypatch.setenv("XDG_STATE_HOME", str(tmp_path / "blocked"))
    assert "cannot be kept" in recovery.keep(job_tote(), None)
    assert recovery.find_lost() == []


def test_a_newer_logbook_stays_where_it_is():
    book_path().write_text('{"format": 3, "swatches": []}')
    book, said = begin_book()
    assert book.swatches == ()
    assert "newer" in said
    assert "not kept" in said
    assert book_path().read_text() == '{"format": 3, "swatches": []}'
    with pytest.raises(NewerFile):
        load_newer()


def load_newer():
    from tessil.files.logfile import load_book

    return load_book()


def test_a_second_broken_logbook_does_not_take_the_first_one_s_place():
    for text in ("{broken one", "{broken two"):
        book_path().write_text(text)
        begin_book()
    aside = sorted(book_path().parent.glob("*unreadable*"))
    assert [path.read_text() for path in aside] == ["{broken one", "{broken two"]


def test_a_logbook_is_written_under_a_lock():
    from tessil.core.logbook.book import EMPTY
    from tessil.files.logfile import keep_together

    save_book(EMPTY)
    lock = disk.lock_for(book_path())
    assert lock.tryLock(0)
    assert not disk.lock_for(book_path()).tryLock(0)
    lock.unlock()
    assert keep_together(EMPTY, EMPTY)[1] == ""


def test_keeping_work_does_not_wait_for_a_busy_disk(tmp_path, monkeypatch):
    """The file is in its place at once; the disk is asked to hold it afterwards."""
    asked = threading.Event()
    free = threading.Event()

    def slow(handle):
        asked.set()
        free.wait(20)

    monkeypatch.setattr(disk.os, "fsync", slow)
    path = tmp_path / "shelf" / "kept.json"
    path.parent.mkdir()
    began = time.monotonic()
    disk.write_whole(path, b"one", disk.PRIVATE, wait=False)
    disk.write_whole(path, b"two", disk.PRIVATE, wait=False)
    took = time.monotonic() - began
    held = path.read_bytes()
    assert asked.wait(5)
    free.set()
    assert took < 5
    assert held == b"two"
    assert [one.name for one in path.parent.iterdir()] == ["kept.json"]


def test_a_file_swept_away_by_another_program_is_written_once_more(tmp_path, monkeypatch):
    """Only once, and not where the folder itself is gone."""
    tries, real = [], disk._write_beside

    def swept(path, *given):
        tries.append(path.name)
        if len(tries) < swept.until:
            raise FileNotFoundError
        real(path, *given)

    monkeypatch.setattr(disk, "_write_beside", swept)
    swept.until = 2
    disk.write_whole(tmp_path / "bag.tessil", b"whole")
    assert (tmp_path / "bag.tessil").read_bytes() == b"whole"
    assert tries == ["bag.tessil"] * 2
    swept.until = 9
    with pytest.raises(FileNotFoundError):
        disk.write_whole(tmp_path / "bag.tessil", b"other")
    assert tries == ["bag.tessil"] * 4
    monkeypatch.setattr(disk, "sweep", lambda folder: None)
    with pytest.raises(FileNotFoundError):
        disk.write_whole(tmp_path / "gone" / "bag.tessil", b"other")
    assert len(tries) == 5
