"""The scrap list as CSV, out and in again."""

import csv
import io

import pytest

from tessil.core.numbers.exact import Fraction
from tessil.core.piecing.choice import Scrap
from tessil.core.trouble import FileTrouble
from tessil.files.scrapfile import read_scraps, scraps_csv
from tests.conftest import tote

F = Fraction
SCRAPS = (Scrap(width=F(9, 2), height=F(6), number=3, print="red"), Scrap(width=F(7), height=F(2)))


@pytest.fixture
def listed(tmp_path):
    def write(text):
        path = tmp_path / "scraps.csv"
        path.write_bytes(text if isinstance(text, bytes) else text.encode("utf-8"))
        return path

    return write


@pytest.mark.parametrize("units", ["inch", "metric"])
def test_what_is_written_is_read_again(listed, units):
    project = tote(scraps=SCRAPS, units=units)
    text = scraps_csv(project)
    rows = list(csv.DictReader(io.StringIO(text)))
    assert [row["number"] for row in rows] == ["3", "1"]
    assert rows[0]["print"] == "Red dots"
    again = read_scraps(listed(text), project)
    for old, new in zip(SCRAPS, again, strict=True):
        assert abs(old.width - new.width) < F(1, 200)
        assert (old.number, old.print) == (new.number, new.print)


def test_other_separators_and_decimal_commas(listed):
    text = "\ufeffWidth;Height;Number;Print\n6,5 cm;10 cm;2;Red dots\n4,5 cm;8 cm;;\n"
    one, other = read_scraps(listed(text), tote())
    assert (one.width, one.number, one.print) == (F(65, 10) / F(254, 100), 2, "red")
    assert (other.height, other.number, other.print) == (8 / F(254, 100), 1, "")


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("a,b,c\n1,2,3\n", "no column “width”"),
        ("", "no column “width”"),
        ("width,height\n4 in,wide\n", "line 2"),
        ("width,height,print\n4,5,tartan\n", "line 2: There is no print “tartan”"),
        ("width,height,number\n4,5,900\n", "line 2"),
        ("width,height\n" + "4,5\n" * 301, "more than 300 rows"),
        (b"\xff\xfe\x00width", "not text"),
        ("width,height\n" + "4,5\n" * 300_000, "larger than"),
    ],
)
def test_what_is_no_list_of_scraps_says_where(listed, text, says):
    with pytest.raises(FileTrouble, match=says):
        read_scraps(listed(text), tote())


def test_a_folder_is_no_list(tmp_path):
    with pytest.raises(FileTrouble, match="not a file"):
        read_scraps(tmp_path, tote())
