"""One bag worked through with a pencil, figure by figure, and where each figure lies.

A tote of 11 × 12 × 3 of 2½ strips, all seams ⅜, its top bound at ¼, lined: common practice, no
source; thicknesses and draw-in are the starting values, from memory.
"""

import pytest

from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tessil.core.readings import readings
from tessil.core.snags import Stage
from tests.conftest import tote

F = Fraction
MM = F(10, 254)  # one millimetre in inches

# 11 + 2 (1½ + ⅜) and, with the top bound, 12 + 1½ + ⅜.
W, H = F(59, 4), F(111, 8)
# Channels 1¼ apart wished for over 14 between the seam lines: an even number of gaps, 12.
GAP = F(14, 12)
# Each line takes 0.35 mm, and the arc over 0.6 mm of loft 8/3 (a/p)²; along the lines ½ %.
ACROSS = F(8, 3) * (F(6, 10) * MM / GAP) ** 2 + F(35, 100) * MM / GAP
ALONG = F(1, 200)
# Pieced 15¾ × 8 strips of 2 that show, and ¼ at both ends.
PIECED = F(63, 4), 8 * 2 + F(1, 2)
QUILTED = PIECED[0] * (1 - ACROSS), PIECED[1] * (1 - ALONG)
OFF = (QUILTED[0] - W) / 2, (QUILTED[1] - H) / 2
COTTON, BATTING = F(25, 100) * MM, F(9, 10) * MM
PANEL = COTTON + BATTING  # in a seam, pressed
RUN = H + 1  # a line, with the run off of ½ at both ends

FIGURES = {
    "brief": {
        "finished.width": 11,
        "finished.height": 12,
        "finished.depth": 3,
        "trimmed.width": W,
        "trimmed.height": H,
        "notch.side": F(3, 2),
        "notch.bottom": F(3, 2),
        # walls of 0.3 cotton, 2.5 batting, 0.3 lining: two across, two deep, one below
        "bag.inside-width": 11 - 2 * F(31, 10) * MM,
        "bag.inside-height": 12 - F(31, 10) * MM,
        "bag.inside-depth": 3 - 2 * F(31, 10) * MM,
        "bag.opening-flat": W - F(3, 4),
        "bag.depth-by-the-bottom-leg": 3,
        "bag.wall": F(31, 10) * MM,
    },
    "piece": {
        "needed.width": F(63, 4),
        "needed.height": F(59, 4),
        "strips.number": 8,  # (14¾ − ½) ÷ 2, rounded up
        "strips.cut": F(5, 2),
        "strips.length": F(63, 4),
        "strips.shows": 2,
        "strips.across": F(33, 2),
        "strips.surplus": F(33, 2) - F(59, 4),
        "press.seam": 2 * COTTON,  # pressed open: a layer of allowance on each side
        # 2½ less the seam below, drawn in, less what is cut off and the binding or the seam
        "edge.top": (F(5, 2) - F(1, 4)) * (1 - ALONG) - OFF[1] - F(1, 4),
        "edge.bottom": (F(5, 2) - F(1, 4)) * (1 - ALONG) - OFF[1] - F(3, 8),
        "laid.red": 8,  # four of each on two panels
        "laid.blue": 8,
    },
    "layer": {
        "layer.top.width": F(63, 4),
        "layer.top.height": F(33, 2),
        "layer.batting.width": F(63, 4) + 1,  # ½ larger all round
        "layer.batting.height": F(33, 2) + 1,
        "layer.pressed": PANEL,
        "layer.wall": F(31, 10) * MM,
        "layer.buy.cotton-batting": 18,
        "bulk.front.edge.top": PANEL + COTTON + 4 * COTTON,  # lining, and four of the binding
        "bulk.front.patch.top": PANEL + COTTON + 4 * COTTON + COTTON,
        "bulk.front.edge.right": 2 * PANEL,
        "bulk.front.patch.right": 2 * PANEL + COTTON,
        "bulk.front.edge.bottom": 2 * PANEL,
        "bulk.front.top.left": PANEL + 5 * COTTON + PANEL,  # over the open side seam
        "bulk.front.box.1": 4 * PANEL,
    },
    "quilt": {
        "quilt.gap": GAP,
        "quilt.guide": F(19, 16),  # the nearest sixteenth
        "quilt.lines": 11,
        "quilt.margin": GAP,
        "quilt.piece.width": F(63, 4),
        "quilt.piece.height": F(59, 4),
        "quilt.across": ACROSS,
        "quilt.along": ALONG,
        "quilt.expected.width": QUILTED[0],
        "quilt.expected.height": QUILTED[1],
        "quilt.sewn": 11,
        "quilt.length": 11 * RUN,
        # stitches of 3 mm through 1.15 mm: half of 2 (1 + t ÷ p) on each spool
        "quilt.top": 11 * RUN * (1 + F(115, 300)),
        "quilt.bobbin": 11 * RUN * (1 + F(115, 300)),
        "quilt.thread": 2 * 11 * RUN * (1 + F(115, 300)),
        "quilt.bobbins": 1,
        "quilt.minutes": 11 * RUN / 59,  # 1.5 m a minute is 59 in
    },
    "trim": {
        "trim.width": W,
        "trim.height": H,
        "trim.notch.side": F(3, 2),
        "trim.notch.bottom": F(3, 2),
        "trim.quilted.width": QUILTED[0],
        "trim.quilted.height": QUILTED[1],
        "trim.off.left": OFF[0],
        "trim.off.right": OFF[0],
        "trim.off.top": OFF[1],
        "trim.off.bottom": OFF[1],
    },
    "edge": {
        "edge.round": 2 * (W - F(3, 4)),
        "edge.length": 28 + F(5, 2) + F(1, 2),  # overlap, and an end turned under
        "edge.cut": 2,  # 2 (3 × ¼ + 0.122 + ⅛) is 1.994
        "edge.strips": 1,
        "edge.joins": 0,
        "edge.reaches": 40,
        "edge.run.top": W,  # on its own line: the top is bound at ¼ of its own
        "edge.run.right": 12,
        "edge.run.bottom": 11,
        "edge.run.left": 12,
    },
    "cut": {
        # 8 strips of 15¾, two in 40: 4 rows of 2½ and ½ to straighten, up to ⅛ yard
        "buy.red": F(27, 2),
        "buy.blue": F(27, 2),
        # two linings of 14¾ × 13⅞ in a row, a binding strip of 2, and ½
        "buy.oat": 18,
        # two of 17½ × 16¾ in a row of 45, and ½
        "buy.cotton-batting": 18,
    },
}
WHOLE = (0, 0, W, H)
PLACES = {
    "brief": {
        # the front of the bag is what lies between the gussets, above the base
        "finished.width": (F(15, 8), F(9, 10) * 12, 11, 0),
        "finished.height": (F(15, 8) + F(11, 2), 0, 0, 12),
        "finished.depth": (0, H - F(3, 2), F(3, 2), F(3, 2)),
        "trimmed.width": (0, 0, W, 0),
        "trimmed.height": (0, 0, 0, H),
        "notch.side": (0, H - F(3, 2), F(3, 2), F(3, 2)),
    },
    "piece": {
        "needed.width": (0, H / 2, W, 0),
        "needed.height": (W / 2, 0, 0, H),
        "strips.number": WHOLE,
        "strips.length": (0, H / 10, W, 0),
        "strips.across": (W * F(6, 100), 0, 0, H),
        # the first strip shows 2¼ of its 2½ on the pieced top, the next 2
        "strips.cut": (-OFF[0], -OFF[1], QUILTED[0], F(9, 4) * (1 - ALONG)),
        "strips.shows": (-OFF[0], F(9, 4) * (1 - ALONG) - OFF[1], QUILTED[0], 2 * (1 - ALONG)),
        "edge.top": (0, 0, W, F(9, 4) * (1 - ALONG) - OFF[1]),
        "edge.bottom": (0, H - F(9, 4) * (1 - ALONG) + OFF[1], W, F(9, 4) * (1 - ALONG) - OFF[1]),
    },
    "layer": {
        "layer.top.width": (0, H / 2, W, 0),
        "layer.top.height": (W / 2, 0, 0, H),
        "layer.pressed": WHOLE,
        # a spot of 0.8 round the middle of a seam, a quarter along it, a corner, a notch
        "bulk.front.edge.top": (W / 2 - F(2, 5), -F(2, 5), F(4, 5), F(4, 5)),
        "bulk.front.patch.top": (W / 4 - F(2, 5), -F(2, 5), F(4, 5), F(4, 5)),
        "bulk.front.top.right": (W - F(2, 5), -F(2, 5), F(4, 5), F(4, 5)),
        "bulk.front.box.1": (F(3, 4) - F(2, 5), H - F(3, 4) - F(2, 5), F(4, 5), F(4, 5)),
    },
    "quilt": {
        "quilt.gap": (W / 2, 0, GAP, 0),
        "quilt.guide": (W / 2, 0, GAP, 0),
        "quilt.lines": WHOLE,
        "quilt.margin": (F(3, 8), 0, GAP, 0),
        "quilt.width": (0, H / 2, W, 0),
        "quilt.height": (W / 2, 0, 0, H),
        "quilt.sewn": WHOLE,
    },
    "trim": {
        "trim.width": (0, H / 2, W, 0),
        "trim.height": (W / 2, 0, 0, H),
        "trim.off.left": (-OFF[0], 0, OFF[0], H),
        "trim.off.right": (W, 0, OFF[0], H),
        "trim.off.top": (0, -OFF[1], W, OFF[1]),
        "trim.off.bottom": (0, H, W, OFF[1]),
    },
    "edge": {
        "edge.round": (0, 0, W, 0),
        "edge.run.top": (0, 0, W, 0),
        "edge.run.right": (W, 0, 0, H - F(3, 2)),
        "edge.run.bottom": (F(3, 2), H, W - 3, 0),
        "edge.run.left": (0, 0, 0, H - F(3, 2)),
    },
}


@pytest.fixture(scope="module")
def made():
    return plan(tote())


@pytest.mark.parametrize("stage", FIGURES)
def test_its_figures(made, stage):
    found = {r.key: r.figure.value for r in readings(made, Stage(stage), "front")}
    told = {key: found[key] for key in FIGURES[stage]}
    assert told == FIGURES[stage]


@pytest.mark.parametrize("stage", PLACES)
def test_where_they_lie(made, stage):
    found = {r.key: r.place for r in readings(made, Stage(stage), "front")}
    for key, place in PLACES[stage].items():
        there = found[key]
        box = (there.x, there.y, there.width, there.height)
        assert box == pytest.approx(tuple(map(float, place)), abs=1e-9), key
    assert PLACES[stage]


def test_its_cut_list(made):
    rows = [
        (item.what, item.stock, item.number.whole, item.width.value, item.height.value)
        for item in made.items
    ]
    assert rows == [
        ("strip", "red", 4, F(63, 4), F(5, 2)),
        ("strip", "blue", 4, F(63, 4), F(5, 2)),
        ("strip", "red", 4, F(63, 4), F(5, 2)),
        ("strip", "blue", 4, F(63, 4), F(5, 2)),
        ("lining", "oat", 2, W, H),
        ("batting", "cotton-batting", 1, F(67, 4), F(35, 2)),
        ("batting", "cotton-batting", 1, F(67, 4), F(35, 2)),
        ("binding strip", "oat", 1, 40, 2),
    ]


def test_its_rows_on_the_cloth(made):
    """Two strips of 15¾ leave 8½ of 40; two linings 10½; the binding strip nothing."""
    red, _, oat, batting = made.bought
    assert [(row.times, row.high, row.left) for row in red.cloth.rows] == [
        (2, F(5, 2), F(17, 2))
    ] * 2
    assert [(row.times, row.high, row.left) for row in oat.cloth.rows] == [
        (1, H, F(21, 2)),
        (1, 2, 0),
    ]
    # 17½ across twice on a roll of 45 leaves 10
    assert [(row.times, row.high, row.left) for row in batting.cloth.rows] == [(1, F(67, 4), 10)]


def test_every_strip_lies_where_the_one_before_it_ends(made):
    """On the pieced top: raw edge to seam, seams 2 apart, red and blue in turn from the top."""
    patches = made.panel("front").patches
    tops = [min(y for _, y in patch.outline) for patch in patches]
    ends = [max(y for _, y in patch.outline) for patch in patches]
    assert tops == [0, *(F(9, 4) + 2 * at for at in range(7))]
    assert ends == [*(F(9, 4) + 2 * at for at in range(7)), F(33, 2)]
    assert [patch.print for patch in patches] == ["red", "blue"] * 4
    assert [(patch.row, patch.place) for patch in patches] == [(at, 1) for at in range(1, 9)]


def test_every_line_of_quilting(made):
    """Eleven upright lines, 7⁄6 apart, the sixth on the centre, ½ beyond both trims."""
    lines = made.panel("front").quilt.lines
    xs = sorted(line.points[0][0] for line in lines)
    assert xs == pytest.approx([float(W / 2 + GAP * (at - 5)) for at in range(11)])
    for line in lines:
        ys = sorted(y for _, y in line.points)
        assert ys == pytest.approx([-0.5, float(H) + 0.5])
    assert len(lines) == 11
