"""Formats, limits and kept work by value: what a file may be, where it lies, what becomes of it."""

import csv
import io
import json
import os
import subprocess
import sys
import time
from datetime import datetime
from pathlib import Path

import pytest

from tessil.core.logbook.book import Book, Swatch
from tessil.core.plan import plan
from tessil.core.trouble import BrokenFile, FileTrouble
from tessil.files import recovery
from tessil.files.jobreport import job_cut_csv, job_data, job_text
from tessil.files.logfile import COLUMNS, keep_together, load_book, read_swatches, swatches_csv
from tessil.files.makingreport import making_data, making_text
from tessil.files.places import data_folder, path_in, state_folder
from tessil.files.projectfile import (
    MIGRATIONS,
    from_text,
    is_project,
    load,
    state_on_disk,
    to_text,
    write_export,
    write_quickly,
)
from tessil.files.report import report_data, report_text
from tests.conftest import DEMO, job_tote, tote

MB = 1024 * 1024


# -- projects ------------------------------------------------------------------------------


def test_a_project_has_sixteen_megabytes_at_most(tmp_path):
    """Spaces after the last bracket are allowed by RFC 8259, section 2."""
    text, path = to_text(job_tote()), tmp_path / "large.tessil"
    path.write_text(text + " " * (16 * MB - len(text.encode())))
    assert load(path).title == "Test tote"
    path.write_text(text + " " * (16 * MB + 1 - len(text.encode())))
    with pytest.raises(FileTrouble, match=r"is larger than a Tessil project can be \(16 MB\)\."):
        load(path)
    path.rename(tmp_path / "large.txt")
    assert not is_project(tmp_path / "large.txt")
    (tmp_path / "large.txt").write_text(text + " " * (16 * MB - len(text.encode())))
    assert is_project(tmp_path / "large.txt")


def test_brackets_nest_forty_deep_at_most():
    with pytest.raises(BrokenFile, match="nested too deeply"):
        from_text("[" * 41 + "]" * 41)
    with pytest.raises(BrokenFile, match="no format number"):
        from_text("[" * 40 + "]" * 40)


def test_every_migration_makes_the_next_format():
    assert list(MIGRATIONS) == [1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 13]
    for number, step in MIGRATIONS.items():
        assert step({"format": number})["format"] == number + 1


def test_what_format_2_called_layers_is_a_list_from_outside_in():
    step = MIGRATIONS[2]
    panels = {
        "front": {"layers": {"batting": "wool-batting", "backing": "oat", "margin": "1 in"}},
        "back": {"layers": {}},
        "lining": {"layers": {"batting": "none"}},
        "odd": {"layers": {"plies": []}},
        "other": {"piecing": {}},
    }
    moved = step({"panels": panels, "name": "Bag"})
    assert moved["name"] == "Bag"
    layers = {key: value.get("layers") for key, value in moved["panels"].items()}
    assert layers == {
        "front": {
            "plies": [
                {"material": "wool-batting", "margin": "1 in"},
                {"material": "oat", "margin": "1 in"},
            ]
        },
        "back": {"plies": [{"material": "cotton-batting"}]},
        "lining": {"plies": []},
        "odd": {"plies": []},
        "other": None,
    }
    assert step({"panels": 3}) == {"panels": 3, "format": 3}


def test_what_format_4_said_once_for_its_bag_is_shared_in_format_5():
    shared = ["units", "rounding", "prints", "scraps", "seam_test"]
    shared += ["stock", "materials", "offcuts", "machine"]
    old = {**dict.fromkeys(shared, 1), "format": 4, "name": "Bag", "bags": 2, "shape": {}}
    new = MIGRATIONS[4](old)
    assert new == {
        "format": 5,
        "shared": dict.fromkeys(shared, 1),
        "bags": [{"name": "Bag", "bags": 2, "shape": {}}],
    }


def test_only_a_satchel_says_in_format_6_what_its_flap_passed_over():
    bags = [
        {"shape": {"kind": "satchel"}},
        {"shape": {"kind": "satchel", "options": {"flap_passes": "half", "lid": "x"}}},
        {"shape": {"kind": "tote"}},
        {"shape": 4},
        7,
    ]
    new = MIGRATIONS[5]({"format": 5, "bags": bags})
    assert new["bags"] == [
        {"shape": {"kind": "satchel", "options": {"flap_passes": "whole"}}},
        {"shape": {"kind": "satchel", "options": {"flap_passes": "half", "lid": "x"}}},
        *bags[2:],
    ]


def test_what_format_11_called_a_bag_in_a_hoop_is_a_pouch_made_in_one():
    shape = {"kind": "hoop", "options": {"hoop": "own"}, "sizes": {"hoop_width": "6 in"}}
    left = {"hoop": {"shape": {"kind": "hoop", "sizes": {"width": "3 in"}}}}
    bags = [
        {"name": "Purse", "shape": shape, "panels": {"lining": {}}},
        {"left": left},
        {"bags": 2},
    ]
    made = MIGRATIONS[11]({"format": 11, "bags": bags})
    assert made["format"] == 12
    first, second, third = made["bags"]
    assert first["hooping"] == {"hoop": "own", "width": "6 in"}
    assert first["shape"]["kind"] == "flat-pouch"
    assert first["shape"]["options"] == {}
    assert (first["shape"]["sizes"]["width"], first["shape"]["sizes"]["height"]) == ("5 in", "4 in")
    assert "hoop_width" not in first["shape"]["sizes"]
    assert first["panels"]["front"]["layers"] == {"stabiliser": "cut-away"}
    assert first["panels"]["lining"] == {}
    assert list(second["left"]) == ["flat-pouch"]
    assert second["left"]["flat-pouch"]["shape"]["sizes"]["width"] == "3 in"
    assert third == {"bags": 2}
    assert MIGRATIONS[11]({"format": 11, "bags": 7}) == {"format": 12, "bags": 7}
    assert MIGRATIONS[12]({"format": 12, "bags": 7}) == {"format": 13, "bags": 7}


@pytest.mark.parametrize(
    ("number", "says"),
    [
        (0, "has a format number that never was: 0."),
        (-3, "has a format number that never was: -3."),
        (999_999, r"newer Tessil \(format 999999; this one reads up to 14\)"),
        (10**6, r"newer Tessil \(format far beyond; this one"),
        (-(10**6), "never was: far beyond."),
        (True, "it has no format number."),
        (1.0, "it has no format number."),
    ],
)
def test_numbers_of_formats_that_are_none(number, says):
    with pytest.raises(FileTrouble, match=says):
        from_text(json.dumps({"format": number}))


def test_bags_of_one_name_stand_apart_in_the_logbook():
    one = job_tote().bags[0].model_copy(update={"id": "abc"})
    job = job_tote().model_copy(update={"bags": (one, one, one)})
    assert [bag.log_name for bag in from_text(to_text(job)).bags] == ["abc", "abc-2", "abc-3"]


def test_a_project_is_known_by_what_is_in_it(tmp_path):
    path = tmp_path / "notes.txt"
    for keys, known in (
        ({"format": 6, "shared": {}, "bags": []}, True),
        ({"format": 1, "shape": {}, "hold": {}}, True),
        ({"format": 6, "shared": {}}, False),
        ({"bags": [], "shape": {}}, False),
    ):
        path.write_text(json.dumps(keys))
        assert is_project(path) is known
    assert not is_project(tmp_path / "none.tessil")
    (tmp_path / "SOME.TESSIL").write_text("")
    assert is_project(tmp_path / "SOME.TESSIL")


def test_a_fingerprint_is_that_of_the_bytes_and_nothing_of_nothing(tmp_path):
    path = tmp_path / "a"
    path.write_bytes(b"abc")
    # FIPS 180-2, appendix B.1, from memory: SHA-256 of "abc"
    assert state_on_disk(path).startswith("ba7816bf8f01cfea")
    assert state_on_disk(path).endswith("f20015ad")
    assert state_on_disk(tmp_path / "b") == ""
    assert state_on_disk(Path("a\0b")) == ""


def test_an_export_never_takes_a_project_s_place(tmp_path):
    path = tmp_path / "list.csv"
    write_export(path, b"one")
    write_export(path, b"two")
    assert path.read_bytes() == b"two"
    path.write_text(to_text(job_tote()))
    with pytest.raises(FileTrouble, match=r"“list.csv” is a Tessil project: give this another"):
        write_export(path, b"three")
    with pytest.raises(FileTrouble, match=r"is not a file that can be written to\."):
        write_export(tmp_path, b"four")


def test_tessil_s_own_files_are_only_their_owner_s(tmp_path):
    path = tmp_path / "deep" / "er" / "own.json"
    write_quickly(path, "ü")
    assert path.read_bytes() == "ü".encode()
    assert path.stat().st_mode & 0o777 == 0o600


# -- kept work -------------------------------------------------------------------------------


def test_what_format_12_cut_longer_for_a_false_seam_has_one_by_choice():
    zipped = {"shape": {"kind": "boxed-zip"}, "lining_in": "gap", "lining_shorter": "1/4 in"}
    others = [{"shape": {"kind": "tote"}, "lining_in": "gap"}, {"name": "bare"}, 7]
    made = MIGRATIONS[12]({"format": 12, "bags": [zipped, *others]})
    assert made["bags"][0] == {**zipped, "lining_in": "false-seam", "lining_shorter": "0 in"}
    assert made["bags"][1:] == others


def test_kept_work_says_what_it_is(tmp_path):
    job = job_tote(name="Kept")
    assert recovery.put_aside(job, tmp_path / "kept.tessil", 7, "as it stood") == ""
    (lost,) = recovery.find_lost()
    assert (lost.name, lost.shape, lost.changes, lost.stood) == ("Kept", "tote", 7, "as it stood")
    assert lost.origin == tmp_path / "kept.tessil"
    assert lost.job == job
    assert abs((datetime.now() - lost.when).total_seconds()) < 60
    assert lost.path.name.startswith("aside-")
    recovery.put_aside(job_tote(name="Later"), None)
    os.utime(lost.path, (lost.when.timestamp() - 60,) * 2)
    later, earlier = recovery.find_lost()
    assert (later.name, later.origin, later.changes) == ("Later", None, 0)
    assert earlier.name == "Kept"


def test_this_tessil_s_own_work_is_in_use_and_another_s_only_while_it_runs(tmp_path):
    assert recovery.keep(job_tote(name="Mine"), None, 2) == ""
    assert recovery.find_lost() == []
    body = (
        "import time\n"
        "from tessil.files import recovery\n"
        "from tests.conftest import job_tote\n"
        "assert recovery.keep(job_tote(name='Theirs'), None) == ''\n"
        "print('kept', flush=True)\n"
        "time.sleep(60)\n"
    )
    environment = {**os.environ, "PYTHONPATH": os.pathsep.join(["src", "."])}
    root = Path(__file__).parents[2]
    other = subprocess.Popen(
        [sys.executable, "-c", body], stdout=subprocess.PIPE, text=True, cwd=root, env=environment
    )
    try:
        assert other.stdout.readline().strip() == "kept"
        kept = [
            one for one in state_folder().glob("recovery-*.json") if "Theirs" in one.read_text()
        ]
        assert len(kept) == 1
        assert recovery.find_lost() == []
    finally:
        other.kill()
        other.wait()
        other.stdout.close()
    assert [lost.name for lost in recovery.find_lost()] == ["Theirs"]
    assert kept[0].exists()


def test_what_is_thrown_away_can_be_had_until_the_next_start():
    recovery.put_aside(job_tote(name="Away"), None)
    (lost,) = recovery.find_lost()
    dropped = recovery.discard(lost)
    assert dropped is not None
    assert dropped.exists()
    assert recovery.find_lost() == []
    assert recovery.discard(lost) is None
    recovery.bring_back(lost)
    assert [one.name for one in recovery.find_lost()] == ["Away"]
    recovery.discard(lost)
    recovery.prune()
    assert not dropped.exists()
    recovery.bring_back(lost)
    assert recovery.find_lost() == []
    recovery.put_aside(job_tote(name="Done"), None)
    recovery.done_with(recovery.find_lost()[0])
    assert recovery.find_lost() == []


def test_kept_work_stays_its_days_and_the_newest_stay():
    now = time.time()
    for at in range(recovery.MOST_KEPT + 3):
        recovery.put_aside(job_tote(name=f"no. {at}"), None)
        newest = max(state_folder().glob("aside-*.json"))  # named by the time
        os.utime(newest, (now - at * 60,) * 2)
    pruned = recovery.prune()
    assert pruned == recovery.find_lost()
    kept = [lost.name for lost in pruned]
    assert kept == [f"no. {at}" for at in range(recovery.MOST_KEPT)]
    last = recovery.find_lost()[-1]
    os.utime(last.path, (now - recovery.KEPT_DAYS * 86400 + 60,) * 2)
    recovery.prune()
    assert len(recovery.find_lost()) == recovery.MOST_KEPT
    os.utime(last.path, (now - recovery.KEPT_DAYS * 86400 - 60,) * 2)
    recovery.prune()
    assert len(recovery.find_lost()) == recovery.MOST_KEPT - 1


def test_a_head_that_makes_no_sense_is_left_alone():
    path = state_folder() / "aside-1.json"
    good = {"name": "N", "shape": "tote", "origin": None, "changes": "many", "stood": 3}
    path.write_text(json.dumps(good) + "\n{}")
    (lost,) = recovery.find_lost()
    assert (lost.changes, lost.stood, lost.origin) == (0, "3", None)
    path.write_text(json.dumps({**good, "name": "N" * 200, "shape": "s" * 200}) + "\n{}")
    (lost,) = recovery.find_lost()
    assert (len(lost.name), len(lost.shape)) == (80, 40)
    for text in ("", "{", "[]", json.dumps({"name": "N"}), "\ud800".encode("utf-8", "replace")):
        path.write_bytes(text if isinstance(text, bytes) else text.encode())
        assert recovery.find_lost() == []
    assert path.exists()


# -- places ------------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("text", "path"),
    [
        ("  /a/b.tessil ", "/a/b.tessil"),
        ("file:///a/one%20bag.tessil", "/a/one bag.tessil"),
        ("FILE:/a/b", "/a/b"),
        ("/a/file:b", "/a/file:b"),
        ("/a/one%20bag", "/a/one%20bag"),
        ("https:x", "https:x"),
    ],
)
def test_paths_as_they_are_typed_or_dropped(text, path):
    assert path_in(text) == Path(path)


def test_home_is_where_home_is(monkeypatch, tmp_path):
    monkeypatch.setenv("HOME", str(tmp_path))
    assert path_in("~/bag.tessil") == tmp_path / "bag.tessil"


def test_folders_are_made_for_their_owner_alone(monkeypatch, tmp_path):
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path / "new" / "deep"))
    assert data_folder() == tmp_path / "new" / "deep" / "tessil"
    assert data_folder().stat().st_mode & 0o777 == 0o700


# -- the logbook ---------------------------------------------------------------------------------

SWATCH = Swatch(
    name="One",
    date="2026-03-04",
    batting="cotton-batting",
    pattern="diamonds",
    angle="45",
    gap="1",
    gap_other="1 1/2",
    width_before="9",
    height_before="9",
    width_after="8 3/4",
    height_after="8 5/8",
    minutes="12.5",
)


def test_a_swatch_goes_out_with_every_size_and_its_unit():
    (row,) = csv.DictReader(io.StringIO(swatches_csv(Book(swatches=(SWATCH,)), "inch")))
    assert tuple(row) == COLUMNS
    assert {key: value for key, value in row.items() if value} == {
        "name": "One",
        "date": "2026-03-04",
        "batting": "cotton-batting",
        "pattern": "diamonds",
        "run": SWATCH.run,
        "angle": "45",
        "gap": "1 in",
        "gap other": "1½ in",
        "width before": "9 in",
        "height before": "9 in",
        "width after": "8¾ in",
        "height after": "8⅝ in",
        "minutes": "12.5",
        "used": "yes",
    }


@pytest.mark.parametrize(
    ("said", "used"), [("yes", True), ("No", False), ("0", False), ("false", False), ("OFF", False)]
)
def test_a_swatch_comes_in_used_or_not(tmp_path, said, used):
    path = tmp_path / "log.csv"
    head = "batting;gap;width before;height before;width after;height after;minutes;angle;used\n"
    path.write_text(head + f"cotton-batting;2,5;25 cm;25 cm;24;24,5;7,5;22,5;{said}\n")
    (swatch,) = read_swatches(path, "metric")
    assert swatch.used is used
    assert float(swatch.gap) == pytest.approx(2.5 / 2.54)  # exact by definition: 1 in = 25.4 mm
    assert float(swatch.height_after) == pytest.approx(24.5 / 2.54)
    assert (float(swatch.minutes), float(swatch.angle)) == (7.5, 22.5)


def test_a_swatch_that_makes_no_sense_says_its_row_and_column(tmp_path):
    path = tmp_path / "log.csv"
    path.write_text("batting,gap,width before,height before\ncotton-batting,-1,9,9\n")
    with pytest.raises(FileTrouble, match=r"“log.csv”, line 2, gap: This must be more than zero"):
        read_swatches(path, "inch")


def test_two_tessils_learn_into_one_book(tmp_path):
    base = Book()
    other = replace_name(SWATCH, "Two")
    kept, said = keep_together(base, Book(swatches=(SWATCH,)))
    assert said == ""
    assert [swatch.name for swatch in load_book().swatches] == ["One"]
    kept, said = keep_together(base, Book(swatches=(other,)))
    assert said == ""
    assert {swatch.name for swatch in kept.swatches} == {"One", "Two"}
    assert load_book() == kept


def replace_name(swatch, name):
    return swatch.model_copy(update={"name": name})


def test_a_book_whose_folder_is_a_file_stays_in_hand(monkeypatch, tmp_path):
    (tmp_path / "file").write_text("")
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path / "file"))
    ours = Book(swatches=(SWATCH,))
    kept, said = keep_together(Book(), ours)
    assert kept == ours
    assert said.startswith("The logbook could not be written: ")
    assert said.endswith(".")


def test_a_logbook_has_sixty_four_megabytes_at_most(tmp_path):
    path = tmp_path / "logbook.json"
    text = '{"format": 1, "swatches": []}'
    path.write_bytes(text.encode() + b" " * (64 * MB - len(text)))
    assert load_book(path) == Book()
    path.write_bytes(text.encode() + b" " * (64 * MB + 1 - len(text)))
    with pytest.raises(BrokenFile, match=r"larger than it can be \(64 MB\)"):
        load_book(path)


# -- reports of a job ------------------------------------------------------------------------


def test_a_job_s_report_is_its_bags_under_its_name():
    job = load(DEMO.with_name("kit-of-four.tessil"))
    plans = [plan(job.project(at)) for at in range(len(job.bags))]
    text = job_text(job, plans)
    assert text.startswith(f"{job.title}: 4 bags\n\n{plans[0].project.name}\n")
    parts = text.split("\n" + "─" * 60 + "\n\n")
    assert len(parts) == 4
    assert parts[1:] == [f"{report_text(made)}\n{making_text(made)}" for made in plans[1:]]
    data = job_data(job, plans)
    whole = [{**report_data(made), "making": making_data(made)} for made in plans]
    assert data == {"job": job.title, "bags": whole}
    rows = list(csv.reader(io.StringIO(job_cut_csv(plans))))
    assert rows[0][:2] == ["bag", "panel"]
    assert {row[0] for row in rows[1:]} == {made.project.name for made in plans}
    one = [plan(tote())]
    assert job_text(job_tote(), one) == f"{report_text(one[0])}\n{making_text(one[0])}"
    assert job_data(job_tote(), one) == {**report_data(one[0]), "making": making_data(one[0])}


def test_marks_of_format_11_that_became_the_bags_own():
    """A stiffener lies on the base; handle ends and the tabs of a strap's rings belong to what it
    is carried by; the other end of a pair has gone."""
    marks = [
        {"kind": "stiffener", "panel": "front"},
        {"kind": "handle", "panel": "front", "x2": None},
        {"kind": "d-ring", "panel": "front", "x2": None},
        {"kind": "slip", "panel": "front", "x2": "3 in"},
    ]
    hung = {"kind": "satchel", "options": {"strap_ends": "rings"}}
    bags = [{"marks": marks, "shape": hung}, {"marks": marks}, {"marks": 3}]
    first, second, third = MIGRATIONS[11]({"format": 11, "bags": bags})["bags"]
    assert first["marks"] == [{"kind": "slip", "panel": "front"}]
    assert first["base"] == {"stiffener": "fused"}
    assert [mark["kind"] for mark in second["marks"]] == ["d-ring", "slip"]
    assert third == {"marks": 3}
