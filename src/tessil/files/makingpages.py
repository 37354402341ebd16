"""The sewing sheet: every step of a bag in its order with a box to tick, its seams drawn, what the
words mean.  Reads in black and white.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from tessil.core.bag.deeds import Deed, Making, seams_in
from tessil.core.making.acts.batching import batch_words, every, stretches
from tessil.core.making.acts.panels import materials_of
from tessil.core.making.acts.telling import told
from tessil.core.making.cautions import caution_for
from tessil.core.planned import Plan
from tessil.core.snags import Stage
from tessil.core.words.making import GATE_WORDS, GLOSSARY, OPERATION_WORDS, seam_words
from tessil.core.words.mending import care_words
from tessil.drawing import theme
from tessil.drawing.fonts import load_fonts
from tessil.drawing.makingview import seam_picture, then
from tessil.drawing.picture import Picture
from tessil.files.flow import Block, Column, gap, heading, paged, paragraph, pictures, table
from tessil.files.printing import Pages, paper_for, room_on
from tessil.files.sheet import LEAST, RIGHT, text

DRAWN_HIGH, ABREAST = 46.0, 2  # mm; drawings side by side
DRAWN = (
    "Each seam as it lies under the hand, red where it is sewn; beside it the bag after it, right "
    "side out."
)
# Where the cautions of a stage belong among the steps.
_CAUTIONS = {"cut": Stage.CUT, "layer": Stage.LAYER, "quilt": Stage.QUILT, "assemble": Stage.EDGE}


def sewing_sheet(plan: Plan, making: Making) -> Pages:
    """All steps in their order, kind of work by kind of work."""
    load_fonts()
    paper = paper_for(plan.project.units)
    minutes = sum(float(deed.minutes.value) for deed in making.deeds if deed.minutes is not None)
    bags = plan.project.made
    each = f", each step for {every(bags)} before the next" if bags > 1 else ""
    said = (
        f"Sewing sheet: {len(making.deeds)} steps, about {minutes:.0f} minutes a bag at first{each}"
    )
    with theme.usual_size():
        wide, room = room_on(paper)
        pages = paged(list(_blocks(plan, making, wide)), room)
    return Pages(plan.project.name, said, paper, tuple(pages))


def _blocks(plan: Plan, making: Making, width: float) -> Iterator[Block]:
    numbers = {deed.id: at for at, deed in enumerate(making.deeds, start=1)}
    after = dict(_seams_after(making))
    said = []
    cautioned = set()
    for stretch in stretches(making.deeds):
        operation, deeds = stretch.operation, stretch.deeds
        yield heading(OPERATION_WORDS[operation])
        batch = batch_words(stretch, plan.project.made)
        if batch:
            yield paragraph(batch, width, 10)
        if operation in _CAUTIONS and operation not in cautioned:  # once for each kind of work
            cautioned.add(operation)
            words = caution_for(_CAUTIONS[operation], materials_of(plan))
            yield paragraph(words, width, LEAST, theme.SOFT)
        rows = [_row(plan, deed, numbers[deed.id]) for deed in deeds]
        said += [sentence for _, sentence, _ in rows]
        columns = (
            Column("step", 18, RIGHT, text(10, True)),
            Column("", width - 74, font=text(10)),
            Column("", 56, font=text(LEAST), colour=theme.SOFT),
        )
        yield from table(columns, rows, tick=True)
        drawn = [deed for deed in deeds if deed.edges and deed.panels]
        yield from _drawn(plan, drawn, numbers, after, width)
        yield gap(3)
    yield from _glossary(" ".join(said), width)
    yield heading("Care")
    yield paragraph(care_words(frozenset(m.key for m in materials_of(plan))), width, 10)


def _row(plan: Plan, deed: Deed, number: int) -> tuple[str, str, str]:
    title, sentence = told(plan, deed)
    beside = seam_words(deed, plan.marks.notation)
    costs = [GATE_WORDS[gate.id][1] for gate in deed.gates if gate.id in GATE_WORDS]
    before = f" Only once all before it is done, else: {costs[0].lower()}" if costs else ""
    stop = "" if title.endswith("?") else "."
    return str(number), f"{title}{stop} {sentence}{before}", beside


def _drawn(
    plan: Plan,
    deeds: Sequence[Deed],
    numbers: dict[str, int],
    after: dict[str, frozenset[str]],
    width: float,
) -> Iterator[Block]:
    """The seams of one kind of work, side by side, each with the bag after it."""
    if deeds:
        yield paragraph(DRAWN, width, LEAST, theme.SOFT)
    for at in range(0, len(deeds), ABREAST):
        row = [
            (
                _seam(plan, deed, after.get(deed.id, frozenset())),
                f"Step {numbers[deed.id]}: {told(plan, deed)[0]}",
                1 / ABREAST,
            )
            for deed in deeds[at : at + ABREAST]
        ]
        yield pictures(row, DRAWN_HIGH, width)


def _seam(plan: Plan, deed: Deed, after: frozenset[str]) -> Picture:
    picture = seam_picture(plan, deed, "", small=True)
    return then(picture, plan, after, small=True) if after else picture


def _seams_after(making: Making) -> Iterator[tuple[str, frozenset[str]]]:
    """What is sewn after each step that sews a seam of the outside."""
    sewn: frozenset[str] = frozenset()
    for deed in making.deeds:
        seams = seams_in(deed.gives)
        sewn |= seams
        if seams:
            yield deed.id, sewn


def _glossary(said: str, width: float) -> Iterator[Block]:
    """The terms that these steps use."""
    used = [(term, words) for term, words in GLOSSARY.items() if term in said.lower()]
    if not used:
        return
    yield heading("What the words mean")
    columns = (Column("", 44, font=text(10, True)), Column("", width - 44, font=text(10)))
    yield from table(columns, used)
    yield gap(2)
    yield paragraph(caution_for(Stage.MAKE), width, LEAST, theme.SOFT)
