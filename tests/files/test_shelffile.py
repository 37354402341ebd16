"""The shelf on disk: whole or not at all, merged with what another window wrote, never lost."""

import json
from fractions import Fraction
from pathlib import Path

import jsonschema
import pytest

from tessil.core.shelf.rows import NOTHING, Row, Shelf
from tessil.core.trouble import BrokenFile, FileTrouble, NewerFile
from tessil.files.shelffile import (
    COLUMNS,
    begin_shelf,
    from_text,
    keep_shelf,
    load_shelf,
    read_shelf,
    shelf_csv,
    shelf_path,
    shelf_schema,
    to_text,
)
from tests.conftest import DEMO

F = Fraction
ROOT = Path(__file__).parents[2]


def row(id_, **more):
    return Row(id=id_, **{"name": "oat", **more})


BOX = ((F(0), F(0)), (F(8), F(0)), (F(8), F(6)), (F(0), F(6)))
FULL = Shelf(
    rows=(
        row("a", kind="fat quarter", width=F(21), length=F(18), number=3, place="drawer"),
        row("c", width=F(8), length=F(6), corners=BOX),
        row("b", kind="zipper", length=F(12), price=1.25, date="2026-03-04", note="=1+1"),
    )
)


PICTURED = (
    '{"format": 5, "cloths": [{"key": "oat", "name": "oat", "photo": '
    '{"data": "iVBORw0KGgo=", "wide": 20, "high": 20}}]}'
)


def test_a_cloth_s_photo_stands_in_the_file():
    (cloth,) = from_text(PICTURED).cloths
    assert cloth.photo.wide == 20
    assert from_text(to_text(Shelf(cloths=(cloth,)))).cloths == (cloth,)


def test_a_shelf_comes_back_from_its_file_as_it_was():
    assert from_text(to_text(FULL)) == FULL
    data = json.loads(to_text(FULL))
    assert data["format"] == 5
    assert from_text(to_text(FULL).replace('"format": 5', '"format": 1')) == FULL
    assert data["rows"][0]["width"] == "21 in"
    assert load_shelf() == NOTHING


def test_the_demo_s_shelf_has_forty_things_of_all_kinds():
    shelf = load_shelf(DEMO.with_name("shelf.json"))
    assert len(shelf.rows) == 40
    assert len({one.kind for one in shelf.rows}) > 12
    assert len({one.id for one in shelf.rows}) == 40


def test_the_published_schema_takes_the_demo_s_shelf_and_no_other_kind():
    schema = json.loads((ROOT / "docs" / "shelf.schema.json").read_text("utf-8"))
    assert schema == json.loads(json.dumps(shelf_schema()))
    data = json.loads(DEMO.with_name("shelf.json").read_text("utf-8"))
    jsonschema.validate(data, schema)
    data["rows"][0]["kind"] = "carpet"
    with pytest.raises(jsonschema.ValidationError):
        jsonschema.validate(data, schema)


@pytest.mark.parametrize(
    ("text", "kind", "says"),
    [
        ("{", BrokenFile, "make no sense"),
        ("[]", BrokenFile, "no shelf of Tessil's"),
        ('{"format": true}', BrokenFile, "no shelf of Tessil's"),
        ('{"format": 6}', NewerFile, "newer Tessil"),
        (PICTURED.replace("iVBORw0KGgo", "R0lGODlhAQAB"), BrokenFile, "neither PNG nor JPEG"),
        ('{"format": 1, "rows": [{"id": "a", "number": -1}]}', BrokenFile, "number"),
        ('{"format": 1, "rows": [{"id": "a", "width": "far"}]}', BrokenFile, "width"),
        ('{"format": 1, "rows": [{"id": "a", "colour": "red"}]}', NewerFile, "colour"),
        ("[" * 50_000, BrokenFile, "make no sense"),
    ],
)
def test_what_is_no_shelf_is_told_in_a_sentence(text, kind, says):
    with pytest.raises(kind, match=says) as trouble:
        from_text(text)
    assert str(trouble.value).endswith(".")


def test_a_broken_shelf_is_put_aside_and_never_written_over():
    path = shelf_path()
    path.parent.mkdir(parents=True, exist_ok=True)
    path.write_text("{ half a shelf", "utf-8")
    shelf, sentence = begin_shelf()
    assert shelf == NOTHING
    assert "shelf.unreadable-1.json" in sentence
    assert path.with_suffix(".unreadable-1.json").read_text("utf-8") == "{ half a shelf"
    assert keep_shelf(NOTHING, FULL) == (FULL, "")
    path.write_text("again", "utf-8")
    assert "shelf.unreadable-2.json" in begin_shelf()[1]


def test_a_shelf_of_a_newer_tessil_is_left_as_it_is():
    path = shelf_path()
    path.parent.mkdir(parents=True, exist_ok=True)
    path.write_text('{"format": 9}', "utf-8")
    shelf, sentence = begin_shelf()
    assert shelf == NOTHING
    assert sentence.endswith("is not kept.")
    assert keep_shelf(NOTHING, FULL)[0] == NOTHING
    assert path.read_text("utf-8") == '{"format": 9}'


def test_two_windows_write_one_shelf():
    base, _ = keep_shelf(NOTHING, FULL)
    theirs, _ = keep_shelf(base, base.having(row("theirs")))
    ours, sentence = keep_shelf(base, base.without("b").having(row("ours")))
    assert sentence == ""
    assert {one.id for one in ours.rows} == {"a", "c", "theirs", "ours"}
    assert load_shelf() == ours
    assert {one.id for one in theirs.rows} == {"a", "b", "c", "theirs"}


def test_a_list_goes_out_and_comes_back(tmp_path):
    path = tmp_path / "shelf.csv"
    path.write_text(shelf_csv(FULL, "inch"), "utf-8")
    lines = path.read_text("utf-8").splitlines()
    assert lines[0] == ",".join(COLUMNS)
    assert lines[1] == "fat quarter,oat,21 in,18 in,3,drawer,,,,,"
    assert lines[2].startswith("scrap,oat,8 in,6 in,1,,,,,,")
    assert lines[3] == "zipper,oat,,12 in,1,,1.25,2026-03-04,'=1+1,,"
    back = read_shelf(path, NOTHING, "inch")
    assert [one.model_copy(update={"id": ""}) for one in back.rows] == [
        one.model_copy(update={"id": ""}) for one in FULL.rows
    ]
    twice = read_shelf(path, back, "inch")
    assert len({one.id for one in twice.rows}) == 6


@pytest.mark.parametrize("between", [",", ";", "\t"])
@pytest.mark.parametrize("encoding", ["utf-8", "utf-8-sig"])
def test_lists_of_any_spreadsheet(tmp_path, between, encoding):
    path = tmp_path / "list.csv"
    lines = ["Name;Width;Length;Price", 'Blümchen;"12,5 cm";30 cm;"2,40"']
    path.write_text("\n".join(lines).replace(";", between) + "\n", encoding)
    (one,) = read_shelf(path, NOTHING, "metric").rows
    assert (one.name, one.kind, one.price) == ("Blümchen", "scrap", 2.4)
    assert (one.width, one.length) == (F(125, 254) * 10, F(300 * 5, 127))


@pytest.mark.parametrize(
    ("written", "price"),
    [
        ("1.125", 1.125),
        ("12345.67", 12345.67),
        ("1,234", 1234),
        ("1.234,50 €", 1234.5),
        (",5", 0.5),
    ],
)
def test_prices_are_read_as_written_by_us_or_by_people(tmp_path, written, price):
    path = tmp_path / "list.csv"
    path.write_text(f"name;price\noat;{written}\n", "utf-8")
    shelf = read_shelf(path, NOTHING, "inch")
    assert [row.price for row in shelf.rows] == [price]
    path.write_text(shelf_csv(shelf, "inch"), "utf-8")
    assert [row.price for row in read_shelf(path, NOTHING, "inch").rows] == [price]


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("width,length\n1,2\n", "no column “name”"),
        ("name,width\noat,wide\n", "line 2"),
        ("name,kind\noat,carpet\n", "“carpet” is no kind"),
        ("name,number\noat,-3\n", "line 2"),
        ("name,price\noat,dear\n", "line 2"),
    ],
)
def test_a_list_that_cannot_be_read_says_where(tmp_path, text, says):
    path = tmp_path / "list.csv"
    path.write_text(text, "utf-8")
    with pytest.raises(FileTrouble, match=says):
        read_shelf(path, NOTHING, "inch")


def test_five_thousand_rows_are_read_and_ten_times_as_many_refused(tmp_path):
    path = tmp_path / "list.csv"
    path.write_text("name,number\n" + "oat,2\n" * 5000, "utf-8")
    shelf = read_shelf(path, NOTHING, "inch")
    assert len(shelf.rows) == len({one.id for one in shelf.rows}) == 5000
    assert from_text(to_text(shelf)) == shelf
    path.write_text("name,number\n" + "oat,2\n" * 50_000, "utf-8")
    with pytest.raises(FileTrouble, match="more than"):
        read_shelf(path, NOTHING, "inch")


@pytest.mark.parametrize(
    ("corners", "says"),
    [
        ("0;0 8;0", "3 to 24 corners"),
        ("0;0 " * 9999, "3 to 24 corners"),
        ("0;0 8;0 4;0", "go round no piece"),
        ("0;0 8 0;6", "one after the other"),
        ("0;0 x;0 0;6", "x"),
    ],
)
def test_corners_in_a_list_that_go_round_nothing_say_so(tmp_path, corners, says):
    path = tmp_path / "list.csv"
    path.write_text(f'name,corners\noat,"{corners}"\n', "utf-8")
    with pytest.raises(FileTrouble, match=says):
        read_shelf(path, NOTHING, "inch")


def test_corners_alone_give_the_size(tmp_path):
    path = tmp_path / "list.csv"
    path.write_text('name,corners\noat,"0;0 8;0 8;6 0;6"\n', "utf-8")
    (made,) = read_shelf(path, NOTHING, "inch").rows
    assert (made.width, made.length, made.flat) == (8, 6, True)
