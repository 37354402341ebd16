"""Steps of a planned bag in words: its panels and seams by their names."""

from __future__ import annotations

from tessil.core.bag.deeds import Deed
from tessil.core.planned import Plan
from tessil.core.words.making import deed_words
from tessil.core.words.names import join_name


def told(plan: Plan, deed: Deed) -> tuple[str, str]:
    """What a step is called and what is done in it."""
    labels = [plan.panel(key).panel.label.lower() for key in deed.panels]
    panels = " and ".join([", ".join(labels[:-1]), labels[-1]] if labels[1:] else labels)
    return deed_words(deed, panels, seam_name(plan, deed), plan.marks.notation)


def seam_name(plan: Plan, deed: Deed) -> str:
    """What the seam of a step is called; nothing if it sews none."""
    slug = deed.join.partition(":")[0]
    keys = (seam.key for seam in plan.bag.net.seams if seam.key.slug == slug)
    return next((join_name(key).lower() for key in keys), "")
