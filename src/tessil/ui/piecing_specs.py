"""What the piecing stage asks, leaf by leaf: the pieces, their prints, the stock."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial
from typing import Any

from tessil.core.choosing import choose
from tessil.core.edits import Edit
from tessil.core.layout.board import areas
from tessil.core.numbers.exact import Fraction, fraction_of
from tessil.core.numbers.lengths import write_degrees
from tessil.core.panels.panel import PanelPlan
from tessil.core.piecing.acts.laying import divide, part_path
from tessil.core.piecing.acts.whole import may_be_whole, whole_sizes
from tessil.core.piecing.choice import GRIDS, Piecing
from tessil.core.piecing.scraplist import read_lengths, write_lengths
from tessil.core.planned import Plan
from tessil.ui.asking import alike, always, choice_of, field_of, oversize
from tessil.ui.specs import Kind, Spec
from tessil.ui.stock_specs import stock_specs

_WAYS = (
    ("whole", "one cloth"),
    ("strips", "strips"),
    ("squares", "squares"),
    ("web", "squares on gridded web"),
    ("flip", "strips, flipped and sewn"),
    ("courses", "scraps in courses"),
    ("crumbs", "scraps as they come"),
)
_RUNS = (("level", "level"), ("upright", "upright"), ("diagonal", "slanted"))
_FIXED = (("width", "their width"), ("count", "how many"), ("mixed", "widths in turn"))
_OVER = (
    ("both", "trim both sides"),
    ("one", "trim the last"),
    ("other", "trim the first"),
    ("recut", "recut to fit"),
    ("border", "one fewer and a border"),
)
_PRESS = (("open", "open"), ("side", "to one side"))


class PartFields:
    """One part's choices, and fields for them."""

    def __init__(self, plan: Plan, panel: PanelPlan, zone: int) -> None:
        self.plan, self.panel = plan, panel
        self.zone = min(zone, len(panel.parts) - 1)
        self.path = part_path(self.zone)
        self.choice: Piecing = panel.parts[self.zone].choice

    def ask(
        self,
        key: str,
        kind: Kind,
        label: str,
        help_: str,
        choices: tuple[tuple[str, str], ...] = (),
    ) -> Spec:
        """A field of this part's piecing."""
        return choice_of(self.plan, self.panel, f"{self.path}.{key}", kind, label, help_, choices)

    def set(self, words: str, **changes: Any) -> Edit:
        """An edit of this part's piecing."""
        pairs = ((f"{self.path}.{key}", value) for key, value in changes.items())
        return choose(self.plan.project, self.panel.panel, words, *pairs)


def piece_specs(plan: Plan, panel: PanelPlan, leaf: str, zone: int) -> Iterator[Spec]:
    """The fields of one leaf."""
    part = PartFields(plan, panel, zone)
    if leaf == "prints":
        yield from _prints(plan, part)
    elif leaf == "stock":
        yield from stock_specs(plan)
    else:
        yield from _pieces(plan, part)


# -- pieces -----------------------------------------------------------------------


def _pieces(plan: Plan, part: PartFields) -> Iterator[Spec]:
    panel, choice = part.panel, part.choice
    yield from alike(plan, panel)
    if panel.choices.zones:
        yield from _parts(plan, part)
    yield part.ask("way", "choice", "Made of", "How this part's top is made", _WAYS)
    if choice.way in ("strips", "flip"):
        yield from _strips(plan, part)
    elif choice.way in GRIDS:
        yield from _squares(part)
    elif choice.way == "courses":
        yield _lengths_spec(plan, part, "heights", "Course heights", "Cut heights in turn: 2½, 3")
        yield Spec(
            "courses.search",
            "search",
            "Look for the least waste",
            "Tries many fillings; the best is kept",
            part.choice.filled,
            always(part.set("Fill the courses anew", filled=())),
        )
        if choice.filled:
            yield Spec(
                "courses.anew",
                "action",
                "Fill by themselves again",
                "Quickly, as listed",
                None,
                always(part.set("Fill the courses anew", filled=())),
            )
    elif choice.way == "crumbs":
        yield Spec(
            f"panel.{part.path}.allowance",
            "word",
            "Allowance",
            "10 to 15 % is usual",
            f"{float(choice.allowance) * 100:g} %",
            lambda text: part.set("Set the allowance", allowance=_share(text)),
        )
    if choice.way != "whole":
        yield part.ask("border", "length", "Border, cut", "All round; 0 for none")
        if choice.way in ("strips", *GRIDS, "courses"):
            yield part.ask(
                "press",
                "choice",
                "Press seams",
                "Open lies flatter; to one side locks crossings",
                _PRESS,
            )
        yield field_of(
            plan, "seams.piecing", "length", "Piecing seam", "Between pieces: ¼ in (6 mm) is usual"
        )
    if panel.key == plan.shape.leader:
        yield from _whole(plan)
    if not panel.choices.zones:
        yield from _parts(plan, part)
    if panel.quilts:
        yield from oversize(plan)


def _share(text: str) -> Fraction:
    try:
        return fraction_of(text.strip().removesuffix("%").strip().replace(",", ".")) / 100
    except (ValueError, ZeroDivisionError):
        raise ValueError("A share is a number of per cent, such as 12.") from None


def _parts(plan: Plan, part: PartFields) -> Iterator[Spec]:
    """Dividing a panel, and where its parts begin."""
    panel = part.panel
    if panel.panel.kind != "outer":
        return
    if not panel.choices.zones:
        folds = tuple(fold.start[1] for fold in panel.panel.folds)
        starts = folds or (plan.marks.notation.nearest(panel.trimmed.height.value / 2),)
        words = "Piece it in parts, at its folds" if folds else "Piece it in two parts"
        yield Spec(
            "parts.divide",
            "action",
            words,
            "Each part is then pieced its own way",
            None,
            lambda _: divide(plan.project, panel, starts),
        )
        return
    if part.zone:
        yield choice_of(
            plan,
            panel,
            f"zones.{part.zone - 1}.starts",
            "length",
            "This part begins",
            "Below the trimmed top edge",
        )
        if part.choice.way == "flip":
            yield choice_of(
                plan,
                panel,
                f"zones.{part.zone - 1}.covers",
                "toggle",
                "Covers the ends above",
                "Sewn on the same foundation: its first strip hides the raw ends of the part above",
            )
    yield Spec(
        "parts.undo",
        "action",
        "Piece the panel in one",
        "All as its first part",
        None,
        lambda _: divide(plan.project, panel, ()),
    )


_BASES = (
    ("batting", "the batting"),
    ("foundation", "foundation cloth, it stays"),
    ("paper", "foundation paper, torn out"),
    ("melting", "a printed foundation, no iron"),
)


def _strips(plan: Plan, part: PartFields) -> Iterator[Spec]:
    choice = part.choice
    yield part.ask("run", "choice", "Strips lie", "As the bag is worn", _RUNS)
    if choice.run == "diagonal":
        yield Spec(
            f"panel.{part.path}.angle",
            "word",
            "Angle",
            "Degrees to the width; below zero they fall to the right",
            write_degrees(float(choice.angle)),
            lambda text: part.set("Set the angle", angle=text),
        )
    yield part.ask("fixed", "choice", "What is fixed", "The other one follows", _FIXED)
    if choice.fixed == "width":
        yield part.ask("strip_cut", "length", "Strip, cut", "Cut width")
    elif choice.fixed == "count":
        yield part.ask("count", "count", "Strips", "On this part")
    else:
        yield _lengths_spec(plan, part, "widths", "Widths, cut", "In turn, such as 2½, 1½")
    if choice.way == "flip":
        yield part.ask(
            "foundation",
            "choice",
            "Sewn on",
            "Straight on the batting it is the quilting too",
            _BASES,
        )
        why = "Every seam then goes through the lining too, and quilts it"
        yield part.ask("lined", "toggle", "Lining glued under", why)
        yield part.ask(
            "overhang", "length", "Overhang", "Past the outline: ½ to 1 in (13 to 25 mm)"
        )
    elif choice.run != "diagonal":
        yield part.ask("surplus", "choice", "What is over", "Strips rarely come out even", _OVER)
        yield part.ask(
            "strip_sets",
            "toggle",
            "Sew strip sets, cut across",
            "Full-length strips sewn first, panels cut from them",
        )


def _squares(part: PartFields) -> Iterator[Spec]:
    choice = part.choice
    fixed = (("width", "their size"), ("count", "how many"))
    yield part.ask("fixed", "choice", "What is fixed", "The other one follows", fixed)
    if choice.fixed == "count":
        yield part.ask("count", "count", "In a row", "Squares side by side")
    else:
        yield part.ask(
            "square",
            "length",
            "Square, cut",
            "Cut size; packs have 2½, 5 and 10 in (6.4, 12.7, 25.4 cm)",
        )
        handy = tuple((size, f"{size.replace(' 1/2', '½')} in") for size in ("2 1/2", "5", "10"))
        now = next((size for size, _ in handy if Fraction(*_over(size)) == choice.square), "")
        yield Spec(
            "squares.handy",
            "choice",
            "At hand",
            "Sizes that packs come in",
            now,
            lambda size: part.set("Set square, cut", square=f"{size} in"),
            handy,
        )
    yield part.ask("surplus_across", "choice", "Over, sideways", "Left and right", _OVER)
    yield part.ask("surplus", "choice", "Over, upright", "Top and bottom", _OVER)
    if choice.way == "squares":
        yield part.ask("sashing", "length", "Sashing, cut", "Between the squares; 0 for none")


def _over(size: str) -> tuple[int, int]:
    return (5, 2) if size == "2 1/2" else (int(size), 1)


def _lengths_spec(plan: Plan, part: PartFields, key: str, label: str, help_: str) -> Spec:
    units = plan.project.units
    value = write_lengths(getattr(part.choice, key), plan.marks.notation)
    return Spec(
        f"panel.{part.path}.{key}",
        "word",
        label,
        help_,
        value,
        lambda text: part.set(f"Set {label.lower()}", **{key: read_lengths(text, units)}),
    )


def _whole(plan: Plan) -> Iterator[Spec]:
    """Bags near this one at which the pieces come out whole, behind one button; planned when the
    list is opened."""
    if not may_be_whole(plan):
        return

    def chosen(key: str) -> Edit:
        edits = {str(size.number): size.edit for size in whole_sizes(plan)}
        return edits.get(key, Edit("", ()))

    yield Spec(
        "whole",
        "choice",
        "Whole pieces only",
        "Bags that leave nothing over",
        "",
        chosen,
        (("", "make the bag…"),),
        more=partial(_whole_bags, plan),
    )


def _whole_bags(plan: Plan) -> tuple[tuple[str, str], ...]:
    strips = plan.lead.choices.piecing.way == "strips"
    return tuple(
        (
            str(size.number),
            f"{size.number} {'strips' if strips else 'rows'}: "
            + plan.marks.notation.size(*(figure.value for figure in size.finished)),
        )
        for size in whole_sizes(plan)
    )


# -- prints -----------------------------------------------------------------------


def _prints(plan: Plan, part: PartFields) -> Iterator[Spec]:
    yield choice_of(
        plan,
        part.panel,
        f"{part.path}.prints",
        "basket",
        "Prints",
        "Click a piece on the bench, then a print",
    )
    yield Spec(
        "prints.edit",
        "page",
        "Change the basket…",
        "Names, motifs, photos, amounts",
        None,
        always(Edit("", ())),
    )
    if not plan.table.board.patches:
        return
    yield Spec(
        "rules.arrange",
        "search",
        "Arrange the prints",
        "Finds a layout by these rules; pinned pieces stay",
        None,
        always(Edit("", ())),
    )
    rule = (
        ("sides", "None alike side by side", "The same print may not touch itself"),
        ("corners", "None alike corner to corner", "Squares only"),
        ("joins", "None alike across folds and seams", "Of the finished bag; squares only"),
        ("amounts", "No more than there are", "By the pieces in hand, in the basket"),
        ("upright", "What has an up stands upright", "Turned where the panel is folded over"),
    )
    for key, label, help_ in rule:
        yield field_of(plan, f"rules.{key}", "toggle", label, help_, "Change the rules")
    yield field_of(
        plan,
        "rules.order",
        "choice",
        "Light and dark",
        "How they are shared out",
        "Change the rules",
        (
            ("free", "as it comes"),
            ("spread", "spread out"),
            ("graded", "graded"),
            ("striped", "row by row"),
        ),
    )
    if plan.project.rules.order == "graded":
        yield field_of(
            plan,
            "rules.graded",
            "choice",
            "Darkest at the",
            "Where grading begins",
            "Change the rules",
            (("down", "bottom"), ("up", "top"), ("right", "right"), ("left", "left")),
        )
    if any(entry.favourite for entry in plan.project.prints):
        where = tuple((area.key, f"the {area.name}") for area in areas(plan.bag, plan.looks))
        yield field_of(
            plan,
            "rules.favourites",
            "choice",
            "Favourites on",
            "And nowhere else",
            "Change the rules",
            (("", "anywhere"), *where),
        )
    yield field_of(
        plan,
        "rules.seed",
        "count",
        "Try number",
        "The same number gives the same layout again",
        "Change the rules",
    )


# -- scraps, packs, the seam ------------------------------------------------------
