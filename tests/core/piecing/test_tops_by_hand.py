"""Tops worked by hand for a front that is to be pieced 15¾ × 14¾ with seams of ¼; common practice,
no source.  A piece of 2½ shows 2 between its seams."""

import pytest

from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tests.conftest import tote, with_front
from tests.core.piecing.helpers import top

F = Fraction
W, H, S = F(63, 4), F(59, 4), F(1, 4)
TWO = F(5, 2)

# what is chosen; size; rows: number, cuts, surplus; columns likewise; pieces; cut list
TOPS = {
    # (14¾ − ½) ÷ 2 is 7⅛: eight rows, 8 × 2 + ½ = 16½, 1¾ over
    "strips": ((), (W, F(33, 2)), ([TWO] * 8, F(7, 4)), None, 8),
    # (15¾ − ½) ÷ 2 is 7⅝: eight columns, ¾ over
    "upright": ((("piecing.run", "upright"),), (F(33, 2), H), None, ([TWO] * 8, F(3, 4)), 8),
    # 14¼ ÷ 5 + ½ is 3.35, up to 3⅜: 5 × 2⅞ + ½ = 14⅞
    "five": (
        (("piecing.fixed", "count"), ("piecing.count", 5)),
        (W, F(119, 8)),
        ([F(27, 8)] * 5, F(1, 8)),
        None,
        5,
    ),
    # 3 and 2 by turns show 2½ and 1½: four and three of them make 14½, and ½
    "mixed": (
        (("piecing.fixed", "mixed"), ("piecing.widths", (F(3), F(2)))),
        (W, F(15)),
        ([F(3), F(2)] * 3 + [F(3)], F(1, 4)),
        None,
        7,
    ),
    # 14¼ ÷ 8 + ½ is 2.28, up to 2⅜: 8 × 1⅞ + ½ = 15½
    "recut": ((("piecing.surplus", "recut"),), (W, F(31, 2)), ([F(19, 8)] * 8, F(3, 4)), None, 8),
    # seven of 2 and ½ are 14½: ¼ is wanting, ⅛ on both sides, with two seams ⅝
    "border to fill": (
        (("piecing.surplus", "border"),),
        (W, H),
        ([F(5, 8), *[TWO] * 7, F(5, 8)], F(0)),
        None,
        7,
    ),
    # eight by eight
    "squares": (
        (("piecing.way", "squares"),),
        (F(33, 2), F(33, 2)),
        ([TWO] * 8, F(7, 4)),
        ([TWO] * 8, F(3, 4)),
        64,
    ),
    "web": (
        (("piecing.way", "web"),),
        (F(33, 2), F(33, 2)),
        ([TWO] * 8, F(7, 4)),
        ([TWO] * 8, F(3, 4)),
        64,
    ),
    # sashing of 1½ shows 1: six squares and five between them, 12 + 5 + ½ = 17½
    "sashing": (
        (("piecing.way", "squares"), ("piecing.sashing", F(3, 2))),
        (F(35, 2), F(35, 2)),
        ([TWO, F(3, 2)] * 5 + [TWO], F(11, 4)),
        ([TWO, F(3, 2)] * 5 + [TWO], F(7, 4)),
        36,
    ),
}
CUTS = {
    "strips": [("red", 4, W, TWO), ("blue", 4, W, TWO)],
    "upright": [("red", 4, H, TWO), ("blue", 4, H, TWO)],
    "five": [("red", 3, W, F(27, 8)), ("blue", 2, W, F(27, 8))],
    "mixed": [("red", 4, W, F(3)), ("blue", 3, W, F(2))],
    "border to fill": [("oat", 2, W, F(5, 8)), ("red", 4, W, TWO), ("blue", 3, W, TWO)],
    "squares": [("red", 32, TWO, TWO), ("blue", 32, TWO, TWO)],
    # thirty short ones in the rows, five long ones between them
    "sashing": [
        ("red", 18, TWO, TWO),
        ("blue", 18, TWO, TWO),
        ("oat", 30, F(3, 2), TWO),
        ("oat", 5, F(35, 2), F(3, 2)),
    ],
}
ORDERS = {
    "strips": ["piece.join-strips", "piece.press"],
    "squares": ["piece.lay-out", "piece.join-row", "piece.join-rows-open", "piece.press-long"],
    "web": ["web.lay", "web.upright", "web.snip", "web.level", "web.press"],
    "sashing": [
        "piece.lay-out",
        "piece.join-row-sashed",
        "piece.join-rows-sashed-open",
        "piece.press-long",
    ],
}


def front_of(key):
    return plan(with_front(tote(), *TOPS[key][0])).panel("front")


@pytest.mark.parametrize("key", TOPS)
def test_its_size_rows_and_columns(key):
    _, size, rows, columns, number = TOPS[key]
    top = front_of(key).top
    assert top.size.values() == size
    assert top.pieces.value == number
    for found, told in ((top.rows, rows), (top.columns, columns)):
        if told is None:
            assert found is None
            continue
        cuts, surplus = told
        assert [cut.value for cut in found.cuts] == cuts
        assert found.surplus.value == surplus
        assert found.across.value == sum(cuts) - 2 * S * (len(cuts) - 1)


@pytest.mark.parametrize("key", CUTS)
def test_its_pieces_to_cut(key):
    top = front_of(key).top
    found = [(cut.print, cut.each, cut.width.value, cut.height.value) for cut in top.cuts]
    assert found == CUTS[key]


@pytest.mark.parametrize("key", ORDERS)
def test_its_order_of_sewing(key):
    assert [step.what for step in front_of(key).top.order] == ORDERS[key]


@pytest.mark.parametrize("key", TOPS)
def test_its_pieces_lie_side_by_side_and_fill_it(key):
    """From seam to seam; the outermost with their raw edges; none over another."""
    front = front_of(key)
    width, height = (float(value) for value in front.top.size.values())
    boxes = []
    for patch in front.patches:
        xs, ys = zip(*patch.outline, strict=True)
        boxes.append((min(xs), min(ys), max(xs), max(ys)))
    assert sum((x2 - x1) * (y2 - y1) for x1, y1, x2, y2 in boxes) == pytest.approx(width * height)
    assert (min(box[0] for box in boxes), min(box[1] for box in boxes)) == (0, 0)
    assert max(box[2] for box in boxes) == pytest.approx(width)
    assert max(box[3] for box in boxes) == pytest.approx(height)


def test_a_border_goes_round_the_rest():
    """Of 2, it shows 1½ less a raw edge: 12¾ × 11¾ are left, six rows make 12½ of it."""
    front = plan(with_front(tote(), ("piecing.border", F(2)))).panel("front")
    top = front.top
    assert top.size.values() == (W, F(31, 2))
    assert top.border.value == 2
    assert [(cut.print, cut.each, cut.width.value, cut.height.value) for cut in top.cuts] == [
        ("red", 3, F(51, 4), TWO),
        ("blue", 3, F(51, 4), TWO),
        ("oat", 2, 2, F(25, 2)),
        ("oat", 2, W, 2),
    ]
    first = front.patches[0].outline
    assert (min(x for x, _ in first), min(y for _, y in first)) == (F(7, 4), F(7, 4))
    assert (max(x for x, _ in first), max(y for _, y in first)) == (14, F(15, 4))
    assert [step.what for step in top.order][-1] == "piece.border"


@pytest.mark.parametrize(
    ("rule", "top", "bottom"), [("both", 1, 1), ("one", 0, 2), ("other", 2, 0)]
)
def test_what_is_over_is_trimmed_where_it_is_chosen(rule, top, bottom):
    """16.4175 once quilted, 13.875 kept: both halves alike, or all but the squaring of ¼ at one."""
    front = plan(with_front(tote(), ("piecing.surplus", rule))).panel("front")
    over = F(33, 2) * F(199, 200) - F(111, 8)
    shares = {0: F(1, 4), 1: over / 2, 2: over - F(1, 4)}
    assert front.cut_off["top"].value == shares[top]
    assert front.cut_off["bottom"].value == shares[bottom]
    assert front.cut_off["left"].value == front.cut_off["right"].value


@pytest.mark.parametrize(
    ("kind", "more"), [("border", {"border": F(1)}), ("sash", {"sashing": F(1)})]
)
def test_what_goes_round_and_between_is_no_piece_of_the_layout(kind, more):
    made = top(way="squares", square=F(3), **more)
    trims = [patch for patch in made.patches if patch.kind == kind]
    assert trims
    assert {(patch.piece, patch.row, patch.place, patch.name) for patch in trims} == {
        (-1, 0, 0, "")
    }
