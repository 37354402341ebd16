"""What panels measured in a project teach: losses for its own plan, entries for the logbook.

A panel teaches only where it was measured both pieced and quilted.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from tessil.core.catalogue import Material
from tessil.core.logbook.book import Book, Sewn, Swatch
from tessil.core.numbers.records import Record
from tessil.core.panels.panel import foundation_of
from tessil.core.panels.planning import Setting, Task, families_of, plan_panel
from tessil.core.quilting.fitting import Observation
from tessil.core.quilting.quilt import needs_seams
from tessil.core.quilting.shrinkage import Family, rows_of, stack_key
from tessil.core.sandwich.layers import stack


def measured_losses(setting: Setting, tasks: Sequence[Task]) -> tuple[tuple[str, Observation], ...]:
    """What the panels measured in this project teach: each way in which a panel was measured
    both pieced and quilted."""
    found: list[tuple[str, Observation]] = []
    for at, (task, families, materials) in enumerate(_measured(setting, tasks)):
        got = task.measured
        rows = rows_of(families)
        for row, before, after in (
            (rows[0], got.pieced.width, got.quilted.width),
            (rows[1], got.pieced.height, got.quilted.height),
        ):
            if before and after and before * 3 / 4 <= after <= before:
                loss = Observation(row, float(1 - after / before), float(before), -1 - at)
                found.append((stack_key(materials), loss))
    return tuple(found)


def _measured(
    setting: Setting, tasks: Sequence[Task]
) -> Iterator[tuple[Task, tuple[Family, ...], tuple[Material, ...]]]:
    for task in tasks:
        got = task.measured
        if task.panel.kind != "outer":
            continue
        both = (got.pieced.width and got.quilted.width) or (
            got.pieced.height and got.quilted.height
        )
        if both and (families := _families(setting, task)):
            yield (
                task,
                families,
                stack(
                    setting.materials,
                    task.choices.layers,
                    task.linings,
                    foundation_of(task.choices),
                ),
            )


def _families(setting: Setting, task: Task) -> tuple[Family, ...]:
    """The sets of lines as the plan has them."""
    if needs_seams(task.choices.quilt_wish):
        return plan_panel(setting, task).families
    return families_of(setting, task)


class Learning(Record, frozen=True):
    """A project's panels with the names under which they stand in the logbook."""

    setting: Setting
    tasks: tuple[Task, ...]
    name: str  # of the bag
    source: str  # of its entries


def panel_swatches(learning: Learning, today: str) -> tuple[Swatch, ...]:
    """The measured panels as entries of the logbook."""
    made = []
    for task, families, materials in _measured(learning.setting, learning.tasks):
        panel, got = task.panel, task.measured
        sets = tuple(
            Sewn(
                angle=family.angle,
                gap=family.gap.value,
                share=1.0 if family.share is None else float(family.share.value),
            )
            for family in families
        )
        wide = bool(got.pieced.width and got.quilted.width)
        high = bool(got.pieced.height and got.quilted.height)
        try:
            made.append(
                Swatch(
                    name=f"{learning.name}, {panel.label.lower()}"[:60],
                    date=today,
                    batting=stack_key(materials),
                    sets=sets,
                    source=f"{learning.source}/{panel.key}",
                    width_before=(
                        got.pieced.width if wide and got.pieced.width else panel.width.value
                    ),
                    height_before=(
                        got.pieced.height if high and got.pieced.height else panel.height.value
                    ),
                    width_after=got.quilted.width if wide else None,
                    height_after=got.quilted.height if high else None,
                )
            )
        except ValueError:
            continue  # measured larger than pieced: a snag says so, the log does not learn it
    return tuple(made)


def with_panels(book: Book, learning: Learning, today: str) -> Book:
    """The book with this project's measured panels in it, in place of what stood there of them."""
    fresh = panel_swatches(learning, today)
    mine = f"{learning.source}/"
    kept = {entry.source: entry for entry in book.swatches if entry.source.startswith(mine)}
    if not fresh and not kept:
        return book
    dated = tuple(
        entry.model_copy(
            update={"date": kept[entry.source].date or today, "used": kept[entry.source].used}
        )
        if entry.source in kept
        else entry
        for entry in fresh
    )
    others = tuple(entry for entry in book.swatches if not entry.source.startswith(mine))
    made = book.model_copy(update={"swatches": (*others, *dated)})
    return book if made == book else made
