"""What lies on what at the edges of the sewn bag."""

from __future__ import annotations

from collections.abc import Mapping

from tessil.core.bag.ids import EdgeKey
from tessil.core.bag.net import Net

Meeting = Mapping[tuple[str, EdgeKey], tuple[str, ...]]


def meeting(net: Net) -> Meeting:
    """The other sheets and tapes that lie on each edge of each sheet once the bag is sewn."""
    found: dict[tuple[str, EdgeKey], dict[str, None]] = {}
    for seam in net.seams:
        for these, those in ((seam.one, seam.other), (seam.other, seam.one)):
            for side in these:
                others = found.setdefault((side.sheet, side.edge), {})
                others.update((other.sheet, None) for other in those)
    return {edge: tuple(others) for edge, others in found.items()}


def walls_bound(net: Net) -> int:
    """How many walls lie under a binding at most: two where bound edges lie on one another."""
    bound = {
        (sheet.panel, edge.key.run)
        for sheet in net.sheets
        for edge in sheet.edges
        if edge.finish == "bound"
    }
    met = meeting(net)
    return 2 if any(_on_bound(met.get(edge, ()), bound) for edge in bound) else 1


def _on_bound(others: tuple[str, ...], bound: set[tuple[str, EdgeKey]]) -> bool:
    return any(sheet in others for sheet, _ in bound)
