"""Figures of a panel that several stages show: the legs of its boxed corners."""

from __future__ import annotations

from collections.abc import Iterator

from tessil.core.panels.panel import PanelPlan
from tessil.core.panels.places import notch_place
from tessil.core.reading import Reading


def leg_readings(panel: PanelPlan, prefix: str) -> Iterator[Reading]:
    """The legs of each kind of corner once."""
    seen: set[str] = set()
    for notch in panel.panel.notches:
        if notch.meets in seen:
            continue
        place = notch_place(notch)
        if not seen:
            yield Reading(f"{prefix}.side", notch.side_leg, "From the raw side edge", place)
        seen.add(notch.meets)
        key = {"seam": "bottom", "fold": "fold", "zip": "zip"}[notch.meets]
        yield Reading(f"{prefix}.{key}", notch.other_leg, "Measured on the trimmed panel", place)
