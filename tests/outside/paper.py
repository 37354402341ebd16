"""Stitch lines of a panel drawn on paper: inset, and cut against each other."""

from fractions import Fraction

from tessil.core.bag.model import Panel


def stitched(panel: Panel) -> dict[str, Fraction]:
    """Stitch-line length of each edge: level and upright lines cut against each other.

    A corner where two edges run on in one line keeps its point.
    """
    lines = []
    for edge in panel.edges:
        (x1, y1), (x2, y2) = edge.start, edge.end
        dx, dy = x2 - x1, y2 - y1
        length = abs(dx) + abs(dy)
        seam = edge.allowance.value
        inset = (x1 - dy / length * seam, y1 + dx / length * seam)
        lines.append((inset, (dx / length, dy / length)))
    found = {}
    for at, edge in enumerate(panel.edges):
        start = _meet(lines[at - 1], lines[at])
        end = _meet(lines[at], lines[(at + 1) % len(lines)])
        found[edge.key] = abs(end[0] - start[0]) + abs(end[1] - start[1])
    return found


def _meet(one, other):
    (x1, y1), (dx1, dy1) = one
    (x2, y2), (dx2, dy2) = other
    cross = dx1 * dy2 - dy1 * dx2
    share = ((x2 - x1) * dy2 - (y2 - y1) * dx2) / cross
    return x1 + share * dx1, y1 + share * dy1
