"""What comes out of left-over pieces of batting, in rows side by side: by hand."""

from tessil.core.cutting.offcuts import Taken, Wanted, from_offcuts
from tessil.core.numbers.exact import Fraction
from tessil.core.sandwich.choice import Offcut

F = Fraction


def wanted(id_, wide, high, number):
    return Wanted(id_, F(wide), F(high), number)


def offcut(wide, high, number=1, material="fleece"):
    return Offcut(material=material, width=F(wide), height=F(high), number=number)


def taken(uses):
    return [(use.offcut.width, list(use.pieces)) for use in uses]


def test_no_more_is_taken_than_is_wanted():
    """Eight of 5 × 5 lie on 10 × 20; three are wanted."""
    left, uses = from_offcuts([wanted("a", 5, 5, 3)], [offcut(10, 20)], "fleece")
    assert left == []
    assert taken(uses) == [(10, [Taken("a", 3, 1)])]


def test_what_does_not_go_in_is_left():
    left, uses = from_offcuts([wanted("a", 5, 5, 20)], [offcut(10, 20)], "fleece")
    assert left == [wanted("a", 5, 5, 12)]
    assert taken(uses) == [(10, [Taken("a", 8, 1)])]
    exactly, _ = from_offcuts([wanted("a", 10, 20, 1)], [offcut(10, 20)], "fleece")
    assert exactly == []
    none, uses = from_offcuts([wanted("a", 11, 21, 1)], [offcut(10, 20)], "fleece")
    assert (none, uses) == ([wanted("a", 11, 21, 1)], ())


def test_the_largest_goes_first_and_the_smallest_offcut_is_opened_first():
    """8 × 8 leaves 8 × 2 below it on 8 × 10: one of 4 × 2 and one more."""
    pieces = [wanted("small", 4, 2, 3), wanted("large", 8, 8, 1)]
    left, uses = from_offcuts(pieces, [offcut(30, 30), offcut(8, 10)], "fleece")
    assert left == []
    assert taken(uses) == [
        (8, [Taken("large", 1, 1), Taken("small", 2, 1)]),
        (30, [Taken("small", 1, 1)]),
    ]


def test_each_of_several_alike_is_opened_by_itself_and_other_stuff_never():
    left, uses = from_offcuts(
        [wanted("a", 9, 9, 3)],
        [offcut(10, 10, number=2), offcut(20, 20, material="wool")],
        "fleece",
    )
    assert left == [wanted("a", 9, 9, 1)]
    assert taken(uses) == [(10, [Taken("a", 1, 1)])] * 2


def test_a_piece_that_may_be_joined_comes_in_two_halves_from_two_offcuts():
    """12 × 20 goes into neither; 6 × 20, its half, into each: parted across its shorter side."""
    pieces = [wanted("a", 12, 20, 1)]
    offcuts = [offcut(7, 20), offcut(6, 20)]
    assert from_offcuts(pieces, offcuts, "fleece")[0] == pieces
    left, uses = from_offcuts(pieces, offcuts, "fleece", frozenset({"a"}))
    assert left == []
    assert taken(uses) == [(6, [Taken("a", 1, 2)]), (7, [Taken("a", 1, 2)])]
    high, uses = from_offcuts(
        [wanted("a", 20, 12, 1)], [offcut(20, 6, number=2)], "fleece", frozenset({"a"})
    )
    assert high == []
    assert taken(uses) == [(20, [Taken("a", 1, 2)])] * 2


def test_a_piece_that_comes_out_whole_is_not_joined():
    left, uses = from_offcuts(
        [wanted("a", 12, 20, 1)], [offcut(12, 20)], "fleece", frozenset({"a"})
    )
    assert left == []
    assert taken(uses) == [(12, [Taken("a", 1, 1)])]
