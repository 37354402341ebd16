"""The size ladder of one panel: pieces → pieced → quilted → trimmed → (assembled →) finished.

Reads a planned panel; computes nothing new.
"""

from __future__ import annotations

from typing import Literal

from tessil.core.bag.model import Assembled, Bag
from tessil.core.numbers.records import Record
from tessil.core.numbers.sizes import Pair
from tessil.core.numbers.workings import Figure, total
from tessil.core.panels.choice import Got
from tessil.core.panels.panel import PanelPlan

RungKey = Literal["pieces", "pieced", "quilted", "trimmed", "assembled", "finished"]


NOT_MEASURED = Got.model_construct()


class Rung(Record, frozen=True):
    """One rung: the sizes that hold now, how sure they are, and what was measured.

    ``sizes`` are two or three figures (finished bags have a depth).  ``least`` and ``most``
    bound a prediction.  ``measurable`` rungs take what the maker got.
    """

    key: RungKey
    label: str
    sizes: tuple[Figure, ...]
    note: str
    number: Figure | None = None
    least: Pair | None = None
    most: Pair | None = None
    planned: Pair | None = None
    got: Got = NOT_MEASURED
    measurable: bool = False


def _is_got(got: Got) -> bool:
    return got.width is not None or got.height is not None


def _quilted(panel: PanelPlan) -> Rung:
    measured = _is_got(panel.measured.quilted)
    return Rung(
        key="quilted",
        label="Quilted",
        sizes=(panel.quilted.width, panel.quilted.height),
        note="measured" if measured else "expected",
        least=None if measured else panel.least,
        most=None if measured else panel.most,
        planned=panel.expected,
        got=panel.measured.quilted,
        measurable=True,
    )


def _pieces(panel: PanelPlan) -> Rung:
    if panel.only_cloth:
        size = (panel.planned.width, panel.planned.height)
        return Rung("pieces", "Pieces", size, "one cloth, cut")
    if len(panel.parts) > 1:
        number = total([part.top.pieces for part in panel.parts]).called("pieces")
        return Rung("pieces", "Pieces", (), f"in {len(panel.parts)} parts", number)
    top, piecing = panel.top, panel.choices.piecing
    if piecing.way == "courses":
        return Rung("pieces", "Pieces", top.piece_size, "high, cut from scraps", top.pieces)
    slanted = piecing.way == "flip" or piecing.run == "diagonal"
    unlike = piecing.way in ("strips", "flip") and (slanted or piecing.fixed == "mixed")
    note = "at most, cut" if unlike else "each, cut"
    return Rung("pieces", "Pieces", top.piece_size, note, top.pieces)


def _pieced(panel: PanelPlan) -> Rung:
    return Rung(
        key="pieced",
        label="Pieced",
        sizes=(panel.pieced.width, panel.pieced.height),
        note="measured" if _is_got(panel.measured.pieced) else "exact",
        planned=panel.planned,
        got=panel.measured.pieced,
        measurable=True,
    )


def _follows(panel: PanelPlan, bag: Bag) -> str:
    """Whom a panel follows, or that it is simply cut to its size."""
    for match in bag.matches:
        if match.follower == panel.key:
            return f"follows the {bag.panel(match.leader).label.lower()}"
    return "cut to this"


def _assembled(panel: PanelPlan, front: Assembled) -> Rung:
    """The parts of a front sewn together and trimmed as one: what the others follow."""
    return Rung(
        key="assembled",
        label="Assembled",
        sizes=(front.width, front.height),
        note="measured" if _is_got(panel.measured.assembled) else "trimmed together",
        planned=Pair(front.width, front.height),
        got=panel.measured.assembled,
        measurable=True,
    )


def ladder(panel: PanelPlan, bag: Bag) -> tuple[Rung, ...]:
    """The rungs that this panel really lives through, in working order."""
    rungs = [_pieces(panel)]
    if not panel.only_cloth:
        rungs.append(_pieced(panel))
    if panel.quilts:
        rungs.append(_quilted(panel))
    rungs.append(
        Rung(
            key="trimmed",
            label="Trimmed",
            sizes=(panel.trimmed.width, panel.trimmed.height),
            note="measured" if _is_got(panel.measured.trimmed) else _follows(panel, bag),
            planned=panel.trimmed,
            got=panel.measured.trimmed,
            measurable=True,
        )
    )
    if bag.assembled is not None and panel.key == bag.assembled.leader:
        rungs.append(_assembled(panel, bag.assembled))
    whole = "the bag" if bag.boxed else "in use"
    rungs.append(Rung("finished", "Finished", bag.finished, whole))
    return tuple(rungs)
