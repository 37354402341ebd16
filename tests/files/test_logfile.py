"""The logbook on disk and as CSV: whole or not at all, refused with a sentence that says where."""

import json

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tessil.core.logbook.book import EMPTY, MOST_SWATCHES, Book, Sewn, Swatch
from tessil.core.numbers.exact import Fraction
from tessil.core.trouble import FileTrouble
from tessil.files.logfile import (
    begin_book,
    book_path,
    from_text,
    load_book,
    read_swatches,
    save_book,
    swatches_csv,
    to_text,
)
from tests.conftest import DEMO

F = Fraction
HEAD = "name,date,batting,pattern,gap,width before,height before,width after,height after"


def _read(tmp_path, text, units="inch"):
    path = tmp_path / "swatches.csv"
    path.write_text(text, "utf-8")
    return read_swatches(path, units)


def _swatch(**more):
    return Swatch(width_after=F(39, 4), height_after=F(79, 8), **more)


sizes = st.integers(120, 200).map(lambda n: F(n, 16))


@given(sizes, sizes, st.sampled_from(["channels", "grid", "diagonal", "diamonds"]))
def test_a_book_comes_back_from_its_file_exactly(width, height, pattern):
    book = Book(
        swatches=(
            Swatch(
                width_before=width,
                height_before=height,
                pattern=pattern,
                minutes=7.5,
                width_after=width * F(99, 100),
            ),
        )
    )
    assert from_text(to_text(book)) == book


def test_the_book_lies_in_the_data_folder_and_nowhere_else(tmp_path, monkeypatch):
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path / "data"))
    assert load_book() == EMPTY
    book = Book(swatches=(_swatch(),))
    assert save_book(book) == ""
    assert book_path() == tmp_path / "data" / "tessil" / "logbook.json"
    assert load_book() == book
    assert begin_book() == (book, "")


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("{", "its contents make no sense"),
        ("[]", "no logbook"),
        (
            '{"format": 1, "swatches": [{"gap": "0 in"}]}',
            "swatches → no. 1 → gap: This must be more than zero.",
        ),
        ("[" * 3000, "make no sense"),
    ],
)
def test_a_broken_book_is_put_aside_and_said(text, says):
    book_path().write_text(text, "utf-8")
    book, sentence = begin_book()
    assert book == EMPTY
    assert says in sentence
    assert "put aside" in sentence
    assert book_path().with_suffix(".unreadable-1.json").read_text("utf-8") == text
    assert not book_path().exists()


def test_a_book_with_an_entry_of_a_newer_tessil_is_left_as_it_is():
    text = '{"format": 1, "extra": 1}'
    book_path().write_text(text, "utf-8")
    book, sentence = begin_book()
    assert book == EMPTY
    assert "written by a newer Tessil, or changed by hand: this one knows no entry" in sentence
    assert "“extra”. It is left as it is" in sentence
    assert book_path().read_text("utf-8") == text


def test_a_disk_that_refuses_is_a_sentence(tmp_path):
    (tmp_path / "file").write_text("where a folder should be")
    said = save_book(EMPTY, tmp_path / "file" / "logbook.json")
    assert said.startswith("The logbook could not be written: ")


def test_the_demo_has_a_dozen_swatches_of_three_kinds():
    book = load_book(DEMO.parent / "logbook.json")
    assert len(book.swatches) == 12
    assert {swatch.batting for swatch in book.swatches} == {
        "cotton-batting",
        "fusible-fleece",
        "sew-in-foam",
    }


# -- CSV --------------------------------------------------------------------------------------


def test_swatches_go_out_and_come_back(tmp_path):
    book = load_book(DEMO.parent / "logbook.json")
    for units in ("inch", "metric"):
        again = _read(tmp_path, swatches_csv(book, units), units)
        assert len(again) == len(book.swatches)
        for one, other in zip(again, book.swatches, strict=True):
            assert (one.name, one.date, one.batting, one.pattern) == (
                other.name,
                other.date,
                other.batting,
                other.pattern,
            )
            assert float(one.gap) == pytest.approx(float(other.gap), abs=0.003)
            assert float(one.width_after) == pytest.approx(float(other.width_after), abs=0.003)


def test_a_measured_panel_goes_out_as_the_pattern_it_is_like(tmp_path):
    panel = _swatch(sets=(Sewn(angle=90, gap=F(1)), Sewn(angle=0, gap=F(3, 2))), source="x/front")
    (again,) = _read(tmp_path, swatches_csv(Book(swatches=(panel,)), "inch"))
    assert (again.pattern, again.gap, again.gap_other) == ("grid", 1, F(3, 2))


@pytest.mark.parametrize("between", [";", "\t"])
def test_decimal_commas_are_read_between_semicolons_or_tabs(tmp_path, between):
    head = HEAD.replace(",", between)
    row = between.join(
        ["a", "2026-05-01", "cotton-batting", "grid", "2,5", "25,4", "25,4", "25,0", "24,9"]
    )
    (swatch,) = _read(tmp_path, f"{head}\n{row}\n", "metric")
    assert (swatch.gap, swatch.width_after) == (F(25, 10) / F(254, 100), F(250, 254) * 10)


def test_bare_numbers_are_in_the_makers_unit_and_units_win(tmp_path):
    (swatch,) = _read(tmp_path, f"{HEAD}\na,,cotton-batting,channels,1,10,10,9 7/8,250 mm\n")
    assert (swatch.width_after, swatch.height_after) == (F(79, 8), F(250) / F(254, 10))


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("name,gap\nx,1\n", "no column “batting”"),
        ("", "no column “batting”"),
        (f"{HEAD}\na,,cotton-batting,channels,none,10,10,9,9\n", "line 2, gap:"),
        (f"{HEAD}\na,,cotton-batting,zigzag,1,10,10,9.8,9.8\n", "line 2, kind of lines: That"),
        (f"{HEAD}\na,,cotton-batting,grid,1,10,10,11,9.8\n", "line 2, Before is smaller"),
        (
            f"{HEAD}\na,,cotton-batting,grid,1,10,10,9.8,9.8\nb,,?,grid,1,10,10,9,9\n",
            "line 3, batting:",
        ),
        (f"{HEAD}\na,,cotton-batting,grid,4,10,10,9.8,9.8\n", "takes 3 at least"),
    ],
)
def test_rows_that_make_no_sense_say_where(tmp_path, text, says):
    with pytest.raises(FileTrouble) as trouble:
        _read(tmp_path, text)
    assert says in str(trouble.value)


def test_a_million_rows_are_refused_without_reading_them_all(tmp_path):
    path = tmp_path / "many.csv"
    path.write_text(HEAD + "\n" + "a,,cotton-batting,grid,1,10,10,9.8,9.8\n" * 1_000_000)
    with pytest.raises(FileTrouble, match=f"{MOST_SWATCHES:,} rows at most"):
        read_swatches(path, "inch")
    fewer = HEAD + "\n" + "a,,cotton-batting,grid,1,10,10,9.8,9.8\n" * (MOST_SWATCHES + 1)
    with pytest.raises(FileTrouble, match="leave some out"):
        _read(tmp_path, fewer)


@pytest.mark.parametrize("data", [b"\xff\xfe\x00", b"\x00\x01name"])
def test_what_is_no_text_is_said(tmp_path, data):
    path = tmp_path / "odd.csv"
    path.write_bytes(data)
    with pytest.raises(FileTrouble, match=r"not text|no column|no CSV"):
        read_swatches(path, "inch")
    with pytest.raises(FileTrouble, match="not a file"):
        read_swatches(tmp_path, "inch")


def test_defaults_are_not_written_so_that_the_file_reads_well():
    data = json.loads(to_text(Book(swatches=(_swatch(),))))
    assert set(data["swatches"][0]) == {"width_after", "height_after"}


@pytest.mark.parametrize("wrong", ['"\\ud800"', "Infinity", "NaN"])
def test_choices_that_could_not_be_written_again_are_refused(wrong):
    text = '{"format": 2, "made": [{"name": "bag", "choices": {"x": %s}}]}'
    with pytest.raises(FileTrouble, match="those of a job file"):
        from_text(text % wrong)
    assert json.loads(to_text(from_text(text % (10**30))))["made"][0]["choices"] == {"x": 10**30}
