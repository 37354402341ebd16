"""Does every piece come out of the cloth's usable width?"""

from __future__ import annotations

from collections.abc import Iterator

from tessil.core.choosing import choose
from tessil.core.edits import Edit
from tessil.core.planned import Plan
from tessil.core.snags import Snag, Stage, Weight
from tessil.core.words.cuts import id_words


def cut_snags(plan: Plan) -> Iterator[Snag]:
    """Pieces longer than the cloth is wide, and strip sets shorter than a panel."""
    read = plan.marks.notation.read_off
    for bought in plan.bought:
        if bought.cloth.too_long:
            what = id_words(bought.cloth.too_long[0], plan.bag)
            yield Snag(
                key=f"cut.wide.{bought.stock}",
                stage=Stage.CUT,
                weight=Weight.BLOCKS,
                title=f"{what}: larger than {bought.name} both ways",
                why=f"Its usable width is {read(bought.cloth.usable, unit=True)}.",
                panel=plan.shape.leader,
            )
    for group in plan.sets:
        if group.too_long:
            first = group.panels[0]
            apart: Edit = choose(
                plan.project, first.panel, "Cut each strip by itself", ("piecing.strip_sets", False)
            )
            yield Snag(
                key=f"cut.set.{first.key}",
                stage=Stage.PIECE,
                weight=Weight.BLOCKS,
                title="A strip set is shorter than the panel",
                why=(
                    f"Its length is the usable width, "
                    f"{read(plan.project.stock.usable_width, unit=True)}."
                ),
                panel=first.key,
                fixes=(apart,),
            )
