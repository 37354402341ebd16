"""What is said of a proposal, number by number."""

from types import SimpleNamespace

import pytest

from tessil.core.proposals.words import left_words


@pytest.mark.parametrize(
    ("kind", "left", "says"),
    [
        ("squares", 3, "3 squares are left over"),
        ("squares", 1, "1 square is left over"),
        ("strips", 2, "2 strips are left over"),
        ("strips", 1, "1 strip is left over"),
        ("squares", 0, "Nothing is left over"),
    ],
)
def test_what_is_left_over(kind, left, says):
    assert left_words(SimpleNamespace(kind=kind), SimpleNamespace(left=left)) == says
