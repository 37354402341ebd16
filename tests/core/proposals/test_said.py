"""What there is, in a maker's words.  Sizes of packs and quarters: common practice, no source."""

import pytest

from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import LengthError
from tessil.core.proposals.said import read_heap, read_sides

F = Fraction
SMALL, FIVE = F(5, 2), F(5)


@pytest.mark.parametrize(
    ("text", "kind", "number", "size", "quilted"),
    [
        ("forty 2½ squares", "squares", 40, (SMALL, SMALL), False),
        ("forty little squares", "squares", 40, (SMALL, SMALL), False),
        ('40 2 1/2" squares', "squares", 40, (SMALL, SMALL), False),
        ("2.5 inch squares, 40 of them", "squares", 40, (SMALL, SMALL), False),
        ("20 5 squares", "squares", 20, (FIVE, FIVE), False),
        ("twenty 5 squares", "squares", 20, (FIVE, FIVE), False),
        ("eighteen charm squares", "squares", 18, (FIVE, FIVE), False),
        ("two dozen small squares", "squares", 24, (SMALL, SMALL), False),
        ("12 ten-inch squares", "squares", 12, (F(10), F(10)), False),
        ("a pack of 42 small charm squares", "squares", 42, (SMALL, SMALL), False),
        ("a pack of squares", "squares", 42, (SMALL, SMALL), False),
        ("2 packs of 42 squares", "squares", 84, (SMALL, SMALL), False),
        ("two packs of charm squares", "squares", 84, (FIVE, FIVE), False),
        ("40 × 2½ squares", "squares", 40, (SMALL, SMALL), False),
        ("40 squares 2½ × 2½", "squares", 40, (SMALL, SMALL), False),
        ("hundred and twenty squares", "squares", 120, (SMALL, SMALL), False),
        ("forty-two squares", "squares", 42, (SMALL, SMALL), False),
        ("24 squares 6 cm", "squares", 24, (F(600, 254), F(600, 254)), False),
        ("ten strips 2½ wide", "strips", 10, (F(40), SMALL), False),
        ("8 strips 1½", "strips", 8, (F(40), F(3, 2)), False),
        ("a strip roll", "strips", 42, (F(40), SMALL), False),
        ("a piece 21 × 23 quilted already", "cloth", 1, (F(21), F(23)), True),
        ("Piece 21 x 23", "cloth", 1, (F(21), F(23)), False),
        ("six fat quarters", "cloth", 6, (F(21), F(18)), False),
        ("3 fat eighths", "cloth", 3, (F(21), F(9)), False),
        ("three odd scraps 8 by 15", "cloth", 3, (F(8), F(15)), False),
        ("2 offcuts 9½ × 11¼", "cloth", 2, (F(19, 2), F(45, 4)), False),
    ],
)
def test_it_is_read_as_it_is_said(text, kind, number, size, quilted):
    heap = read_heap(text)
    assert (heap.kind, heap.number, (heap.width, heap.height)) == (kind, number, size)
    assert heap.quilted is quilted


def test_a_bare_size_is_in_the_maker_s_own_unit():
    assert read_heap("ten strips 6,5 wide", "metric").height == F(650, 254)


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("", "Say what there is"),
        ("forty buttons", "Squares, strips, quarters, scraps or a piece?"),
        ("squares", "How many are there?"),
        ("2½ squares", "How many are there?"),
        ("three odd scraps", "How large?"),
        ("a piece 21", "How large?"),
        ("1000 squares", "At most 999"),
        ("4 scraps 0 × 5", "larger than nothing"),
        ("0 squares", "How many are there?"),
        ("-5 squares", "larger than nothing"),
        ("forty 2½ squares × 3", "A square has one size"),
        ("3 scraps 5 × 5 × 5", "not understood"),
        ("40 squares 2½ x", "not understood"),
        ("a piece 1e9 x 3", "not understood"),
        ("30 packs of 42 squares", "At most 999"),
    ],
)
def test_what_cannot_be_read_is_said(text, says):
    with pytest.raises(LengthError, match=says.replace("?", r"\?")):
        read_heap(text)


def test_sides_are_said_with_crosses_or_by_name():
    assert read_sides("9 × 12 × 1", "inch", 3) == (9, 12, 1)
    assert read_sides("8", "inch", 3) == (8,)
    assert read_sides("8 wide", "inch", 3) == (8,)
    assert read_sides("6½ high", "inch", 3) == (None, F(13, 2))
    assert read_sides("8 wide, 3 deep", "inch", 3) == (8, None, 3)
    for text in ("", "1 × 2 × 3 × 4", "0 × 2"):
        with pytest.raises(LengthError):
            read_sides(text, "inch", 3)
