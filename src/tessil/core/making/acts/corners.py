"""Corners marked before anything is joined: cut out, drawn, rounded or clipped.

Common practice, no source."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import groupby

from tessil.core.bag.deeds import Deed
from tessil.core.bag.model import Notch
from tessil.core.making.acts.common import minutes
from tessil.core.panels.panel import PanelPlan

_AT = {"seam": "", "fold": "-fold", "zip": "-zip"}


def boxed(panel: PanelPlan) -> Iterator[Deed]:
    """Corners that are boxed, each kind by its own legs: those at a fold reach as far either way
    of it, those at a zipper are measured from its raw edge."""
    key, before = panel.key, f"trimmed:{panel.key}"
    kinds = [list(alike) for _, alike in groupby(panel.panel.notches, key=_kind)]
    for at, alike in enumerate(kinds):
        one = alike[0]
        id_ = f"mark.corners.{key}" + (f".{at}" if at else "")
        yield Deed(
            id_,
            f"mark.corners-{'cut' if one.cut else 'drawn'}{_AT[one.meets]}",
            "mark",
            (key,),
            tool="ruler",
            needs=(before,),
            gives=(f"corners ready:{key}",) if at == len(kinds) - 1 else (f"done:{id_}",),
            values=(
                ("number", len(alike) * panel.panel.copies),
                ("wide", one.side_leg.value),
                ("high", one.other_leg.value),
            ),
            minutes=minutes(2),
        )
        before = f"done:{id_}"


def _kind(notch: Notch) -> tuple[object, ...]:
    return notch.meets, notch.cut, notch.side_leg.value, notch.other_leg.value


def is_shaped(panel: PanelPlan) -> bool:
    """Whether its outline has corners that are rounded or clipped."""
    return any(edge.key.cut == "curve" for edge in panel.panel.edges)


def shaped(panel: PanelPlan, needs: str, gives: str) -> Iterator[Deed]:
    """Its corners rounded or clipped, where they are, as soon as it is cut to size."""
    bent = [edge for edge in panel.panel.edges if edge.key.cut == "curve"]
    left = [edge for edge in bent if edge.key.side == "left"]
    if not left:
        return
    points = [point for edge in left for point in (edge.start, edge.end)]
    xs, ys = [x for x, _ in points], [y for _, y in points]
    round_ = len(left) > 1
    yield Deed(
        f"trim.shape.{panel.key}",
        "trim.round" if round_ else "trim.clip",
        "trim",
        (panel.key,),
        tool="ruler",
        needs=(needs,),
        gives=(gives,),
        values=(
            ("number", len({edge.key.side for edge in bent}) * panel.panel.copies),
            ("wide", max(xs) - min(xs)),
            ("high", max(ys) - min(ys)),
        ),
        minutes=minutes(2),
    )
