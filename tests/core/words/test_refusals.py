"""What is refused is told in the maker's words, and nothing hostile gets further."""

import base64
import json
import re

import pytest

from tessil.core.catalogue.prints import Photo
from tessil.core.logbook.book import Swatch
from tessil.core.numbers.decided import Decided, Refused
from tessil.core.numbers.workings import given, total
from tessil.core.plan import plan
from tessil.core.project import Project
from tessil.core.trouble import BrokenFile, CannotPlan, NewerFile
from tessil.core.words.refusals import first_refusal, printable, where_words
from tessil.core.words.written import working
from tessil.files.csvtext import harmless, rows_of, write_list
from tessil.files.report import cut_csv, report_data, report_text
from tests.conftest import DEMO, bag_from, flat_text, load_bag, tote

RAW = re.compile(r"Input should|valid (integer|dictionary|tuple)|Extra inputs|_type|None\b")


def _broken(**changes):
    tree = json.loads(flat_text(tote()))
    for path, value in changes.items():
        node = tree
        *steps, last = path.split("__")
        for step in steps:
            node = node[int(step) if step.isdigit() else step]
        node[last] = value
    return json.dumps(tree)


@pytest.mark.parametrize(
    ("changes", "says"),
    [
        ({"seams__side": "\x00\x1b[31m"}, "at seams → side: “[31m” cannot be read as a length."),
        ({"panels": "x"}, "at panels: A group of entries goes here."),
        ({"panels__front": 3}, "at panels → front: A group of entries goes here."),
        ({"hold__packed": "flat"}, "at what it holds → packed: That is not among the choices"),
        ({"prints__0__ground": "red"}, "at prints → no. 1 → ground: A colour is #"),
        ({"panels__front__piecing__heights": ["1 in"] * 25}, "At most 24 entries go here."),
        (
            {"panels__front__extra_thing": 1},
            "this one knows no entry “panels → front → extra thing”.",
        ),
        ({"machine__lift_mm": 90}, "machine → room under the foot: At most 20"),
        ({"rules__sides": "perhaps"}, "Yes or no (true or false) goes here."),
        ({"bags": 0}, "at bags to make: Give a number of bags from 1 to 999."),
        ({"name": 5}, "at name: Text goes here."),
        ({"prints": [{"key": "a"}]}, "at prints → no. 1 → name: Something is missing here."),
    ],
)
def test_each_refusal_names_the_place_and_says_what_goes_there(changes, says):
    with pytest.raises((BrokenFile, NewerFile)) as error:
        bag_from(_broken(**changes), "“bag.tessil”")
    assert says in str(error.value)
    assert not RAW.search(str(error.value))


def test_names_of_entries_cannot_steer_a_terminal():
    assert where_words(("panels", "a\x1b[31m\u202eb", 0)) == "panels → a[31mb → no. 1"
    assert printable("a\nb\tc\x00d\u202e") == "a b cd"
    assert len(where_words(("x" * 1000,))) <= 40
    assert where_words(("times", 2, "work", "literal['cut','piece']")) == "times → no. 3 → work"


def test_a_sentence_of_our_own_is_passed_on():
    class Picky(Decided):
        count: int

    with pytest.raises(Refused) as error:
        Picky(count="many")
    assert first_refusal(error.value) == "A whole number goes here."


# -- formulas ------------------------------------------------------------------------------


@pytest.mark.parametrize("name", ["=1+1", "+1+1", "-1+1", "@SUM(1)", "\t=1+1", "\r=1+1"])
def test_no_cell_of_a_list_is_a_formula(name):
    cell = harmless(name)
    assert cell.startswith("'")
    text = write_list(("print",), [(name,)])
    ((_, cells),) = rows_of(text, "list", ("print",), ("print",), 5)
    assert cells["print"] == printable(name).strip()  # read again, it is what it was


@pytest.mark.parametrize("number", ["-3", "+2.5", "12", "-0,5"])
def test_numbers_stay_numbers(number):
    assert harmless(number) == number


def test_a_print_named_as_a_formula_is_harmless_in_the_cut_list():
    project = tote()
    prints = tuple(p.model_copy(update={"name": "=HYPERLINK(1)"}) for p in project.prints)
    text = cut_csv(plan(project.model_copy(update={"prints": prints, "name": "=A1"})))
    assert ",=" not in text
    assert "'=HYPERLINK(1)" in text


# -- pictures -------------------------------------------------------------------------------

SVG = b'<svg xmlns="http://www.w3.org/2000/svg"><image href="file:///etc/passwd"/></svg>'


OTHERS = (SVG, b"GIF89a" + b"\x00" * 30, b"%PDF-1.4      ", b"PK\x03\x04" * 9)


@pytest.mark.parametrize("data", OTHERS)
def test_only_png_and_jpeg_are_pictures_by_their_content(data):
    from tessil.drawing.photos import photo_from, whole_image
    from tessil.files.projectfile import FileTrouble

    encoded = base64.b64encode(data).decode()
    with pytest.raises(FileTrouble, match="PNG or JPEG"):
        photo_from(data)
    assert whole_image(encoded, 100, 100) is None
    photo = {"data": encoded, "wide": 100, "high": 100}
    tree = json.loads(flat_text(tote()))
    tree["prints"][0]["photo"] = photo
    with pytest.raises(BrokenFile, match="neither PNG nor JPEG"):
        bag_from(json.dumps(tree))


def test_what_a_camera_writes_beside_the_points_is_not_kept(tmp_path):
    from PySide6.QtGui import QImage

    from tessil.drawing.photos import read_photo

    image = QImage(64, 64, QImage.Format.Format_RGB32)
    image.fill(0x336699)
    image.setText("Comment", "GPS 52.5N SECRETPLACE")
    path = tmp_path / "cloth.png"
    image.save(str(path))
    assert b"SECRETPLACE" in path.read_bytes()
    assert b"SECRETPLACE" not in base64.b64decode(read_photo(path).data)


def test_decoded_pictures_are_kept_only_up_to_a_bound():
    from PySide6.QtCore import QBuffer, QIODevice
    from PySide6.QtGui import QImage

    from tessil.drawing import photos

    for shade in range(16):
        image = QImage(1200, 1200, QImage.Format.Format_RGB32)
        image.fill(shade * 1000)
        buffer = QBuffer()
        buffer.open(QIODevice.OpenModeFlag.WriteOnly)
        image.save(buffer, "PNG", 100)
        data = base64.b64encode(bytes(buffer.data().data())).decode()
        shown = photos.whole_image(data, 1200, 1200)
        assert max(shown.width(), shown.height()) <= photos.KEPT
    held = sum(image.sizeInBytes() for image in photos._images.values() if image is not None)
    assert held <= photos.CACHED


# -- projects that once raised -------------------------------------------------------------------


def test_two_prints_of_one_name_one_of_them_counted():
    project = load_bag(DEMO)
    twin = project.prints[0].model_copy(update={"key": "twin", "amount": 1})
    panels = {
        key: choices.model_copy(
            update={"piecing": choices.piecing.model_copy(update={"prints": ("twin",) * 9})}
        )
        for key, choices in project.panels.items()
    }
    made = plan(project.model_copy(update={"prints": (*project.prints, twin), "panels": panels}))
    snag = next(snag for snag in made.snags if snag.key == "layout.amount.twin")
    assert snag.title.endswith("1 in hand")


@pytest.mark.parametrize("name", ["Red dots", "Ä", "x" * 300, "\x00"])
def test_a_print_that_is_named_but_not_there_is_a_plain_cloth(name):
    project = tote()
    binding = project.binding.model_copy(update={"print": name})
    assert report_data(plan(project.model_copy(update={"binding": binding})))
    assert project.print_of(name).motif == "plain"


def test_a_wide_piecing_seam_still_offers_its_seam_test():
    from tessil.core.snags import Stage
    from tessil.ui.stages import specs

    seams = tote().seams.model_copy(update={"piecing": 2})
    panels = {
        key: choices.model_copy(
            update={"piecing": choices.piecing.model_copy(update={"way": "whole"})}
        )
        for key, choices in tote().panels.items()
    }
    made = plan(tote(seams=Project(seams=dict(seams) | {"piecing": "2 in"}).seams, panels=panels))
    offered = {spec.key: spec for spec in specs(made, Stage.PIECE, "front", "stock")}
    (change,) = offered["seam_test.on"].edit(None).changes
    assert change[1].measured > 0


def test_five_thousand_entries_in_one_course_are_no_recursion():
    figures = [given(f"piece {at}", 1) for at in range(5000)]
    added = total(figures)
    assert added.value == 5000
    assert "5000 figures added" in working(added.called("all"), plan(tote()).marks.notation)


def test_lines_closer_than_a_sixteenth_are_no_swatch():
    with pytest.raises(Refused) as error:
        Swatch(gap="1/1000000007 in")
    assert first_refusal(error.value) == "Lines of stitching lie at least 1/16 in (1.6 mm) apart."


def test_a_report_keeps_a_name_on_its_line():
    text = report_text(plan(tote(name="a\x1b[31mred\nsecond")))
    assert "\x1b" not in text
    assert text.splitlines()[0] == "a[31mred second"


def test_a_photo_model_knows_its_bounds():
    with pytest.raises(Refused):
        Photo(data="AAAAAAAA", wide=5000, high=10)
    with pytest.raises(CannotPlan, match="not one this Tessil knows"):
        plan(tote(shape=tote().shape.model_copy(update={"kind": "no-such-shape"})))
