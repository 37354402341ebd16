"""Lists in CSV: how many rows they may have, and which line a row is told by."""

import pytest

from tessil.core.trouble import FileTrouble
from tessil.files.csvtext import rows_of


def _rows(number, most):
    text = "name,width\n" + "".join(f"scrap {at},3 in\n" for at in range(number))
    return list(rows_of(text, "scraps.csv", ("width",), ("name", "width"), most))


def test_as_many_rows_as_may_be_are_read_and_no_more():
    read = _rows(5, 5)
    assert [where for where, _ in read] == [f"scraps.csv, line {line}" for line in range(2, 7)]
    assert read[0][1] == {"name": "scrap 0", "width": "3 in"}
    with pytest.raises(FileTrouble, match="has more than 5 rows"):
        _rows(6, 5)
