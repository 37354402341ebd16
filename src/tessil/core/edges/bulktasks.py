"""What the counting of layers reads of a bag, panel by panel; counts nothing itself."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Mapping
from typing import Literal

from tessil.core.bag.model import Join
from tessil.core.bag.net import Hang, Net
from tessil.core.brief.choice import ZipSet
from tessil.core.catalogue import Material
from tessil.core.edges.bulk import HUNG, BulkTask, Caught, Hung
from tessil.core.edges.choice import Piping
from tessil.core.numbers.sizes import Side
from tessil.core.panels.panel import PanelPlan
from tessil.core.sewn.stacks import Meeting
from tessil.core.trimming.choice import Mark


def bulk_tasks(
    joins: tuple[Join, ...],
    met: Meeting,
    panels: Mapping[str, PanelPlan],
    materials: Mapping[str, Material],
    press: Literal["open", "side"],
    dropped_in: bool,
    marks: tuple[Mark, ...],
    net: Net,
    piping: Piping,
    on_base: tuple[Material, ...] = (),
    zip_set: ZipSet = "seam",
    webbing: bool = False,
    zip_free: tuple[Side, ...] = (),
) -> Iterator[BulkTask]:
    """What the counting reads, for each outer panel."""
    for key, panel in panels.items():
        if panel.panel.kind != "outer":
            continue
        own = tuple(
            join for join in joins if any(ref.panel == key for ref in (*join.one, *join.other))
        )
        near = {ref.panel for join in own for ref in (*join.one, *join.other)} | {key}
        lying = {edge: others for (sheet, edge), others in met.items() if sheet == key}
        near |= {other for others in lying.values() for other in others}
        yield BulkTask(
            panel=panel.panel,
            layers=panel.materials,
            pieced=not panel.only_cloth and len(panel.patches) > 1,
            patch_press=panel.choices.piecing.press,
            shown=panel.shown,
            joins=own,
            caught={
                other: Caught(
                    plan.panel.label,
                    tuple(layer.material for layer in plan.layers if layer.in_seam),
                )
                for other, plan in panels.items()
                if other in near
            },
            materials=materials,
            press=press,
            lined=f"{key}-lining" in panels or ("lining" in panels and dropped_in),
            met=lying,
            marks=tuple((at, mark) for at, mark in enumerate(marks) if mark.panel == key),
            hung=tuple(_hung_on(key, net.hangs)),
            piped=piping.along(key),
            zip_on_fold=any(tape.turn for tape in net.tapes),
            zip_set=zip_set,
            zip_free=zip_free,
            webbing=webbing,
            on_base=on_base if panel.panel.notches else (),
        )


def _hung_on(key: str, hangs: tuple[Hang, ...]) -> Iterator[Hung]:
    """Ends of straps and loops on a panel; both ends of a loop lie in one place."""
    found = Counter(
        (hang.key, end[2], hang.on_face)
        for hang in hangs
        for end in hang.ends
        if hang.sewn and end[0] == key
    )
    for (what, at, on_face), ends in found.items():
        if what in HUNG:
            yield Hung(what, at, ends, on_face)
