"""Is the binding long enough for its edge and wide enough for its thickness?"""

from __future__ import annotations

from collections.abc import Iterator
from typing import TYPE_CHECKING

from tessil.core.edits import edit
from tessil.core.snags import Place, Snag, Stage, Weight

if TYPE_CHECKING:
    from tessil.core.plan import Plan


def edge_snags(plan: Plan) -> Iterator[Snag]:
    """Snags of the bound edge."""
    yield from _too_short(plan)
    yield from _too_narrow(plan)


def _place(plan: Plan) -> Place:
    width = float(plan.panel(plan.shape.leader).trimmed.width.value)
    return Place(0, 0, width, 0, "line")


def _too_short(plan: Plan) -> Iterator[Snag]:
    binding = plan.binding
    if binding is None or binding.reaches.value >= binding.length.value:
        return
    read = plan.marks.notation.read_off
    short = binding.length.value - binding.reaches.value
    needed = binding.strips.whole
    yield Snag(
        key="edge.short",
        stage=Stage.EDGE,
        weight=Weight.BLOCKS,
        title=f"The binding in hand is {read(short, unit=True)} too short",
        why=(
            f"It joins to {read(max(binding.reaches.value, short * 0), unit=True)}; the edge takes "
            f"{read(binding.length.value, unit=True)} with its ending."
        ),
        panel=plan.shape.leader,
        place=_place(plan),
        fixes=(
            edit(f"Cut {needed} strip{'s' if needed > 1 else ''}",
                 ("binding.strips_on_hand", needed)),
            edit("Cut what it takes", ("binding.strips_on_hand", None)),
        ),
    )  # fmt: skip


def _too_narrow(plan: Plan) -> Iterator[Snag]:
    binding = plan.binding
    if binding is None or binding.cut.value >= binding.formula.value:
        return
    read = plan.marks.notation.read_off
    yield Snag(
        key="edge.narrow",
        stage=Stage.EDGE,
        weight=Weight.WARNS,
        title=f"A binding cut {read(binding.cut.value, unit=True)} will not reach round this edge",
        why=(
            f"Seam, thickness and cover ask for {read(binding.formula.value, unit=True)}: a "
            "narrower strip leaves the stitching behind uncovered."
        ),
        panel=plan.shape.leader,
        place=_place(plan),
        fixes=(edit(f"Cut it {read(binding.formula.value, unit=True)}", ("binding.cut", None)),),
    )
