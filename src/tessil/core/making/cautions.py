"""The usual cautions, shown with the stage they concern.  Common practice, no source.

They defer to the maker of each tool and to local rules.
"""

from __future__ import annotations

from tessil.core.catalogue import Material
from tessil.core.snags import Stage

_BY_STAGE = {
    Stage.PIECE: (
        "Rotary cutter: close the blade after every cut, cut away from you, keep the hand flat "
        "on the ruler; a cut-proof glove helps."
    ),
    Stage.LAYER: (
        "Iron: batting, foam and fusibles can melt; use a press cloth, and no heat on the cutting "
        "mat. Spray adhesive: fresh air, no flame, and follow its label."
    ),
    Stage.QUILT: "Needle: keep fingers clear, stop before pins, turn the hand wheel over lumps.",
    Stage.TRIM: "Rotary cutter: blade closed between cuts, hand flat on the ruler, away from you.",
    Stage.EDGE: "Needle: take clips and pins out before they reach the foot.",
    Stage.CUT: (
        "Rotary cutter: close the blade after every cut, cut away from you, keep the hand flat "
        "on the ruler."
    ),
    Stage.MAKE: (
        "If you sell the bag, local rules on labels, fire and children come before anything here: "
        "ask the authority concerned."
    ),
}


def caution_for(stage: Stage, materials: tuple[Material, ...] = ()) -> str:
    """One or two sentences for a stage, or none.  What is only fused is minded where it is fused;
    what melts or is marked by pins wherever there is an iron or a needle."""
    words = _BY_STAGE.get(stage, "")
    told = [one for one in materials if stage is Stage.LAYER or not one.fusible]
    own = dict.fromkeys(entry.caution for entry in told if entry.caution)
    if stage in (Stage.LAYER, Stage.EDGE, Stage.CUT) and own:
        return " ".join((*own, words))
    return words
