"""What the quilting stage asks, leaf by leaf: the lines, how they come out, sewing, drawing in."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from msgspec.structs import replace

from tessil.core.choosing import choose
from tessil.core.edits import Edit, edit
from tessil.core.numbers.exact import fraction_of
from tessil.core.numbers.lengths import write_degrees
from tessil.core.panels.panel import PanelPlan
from tessil.core.planned import Plan
from tessil.core.quilting.acts.byhand import put_back
from tessil.core.quilting.acts.byprint import by_print
from tessil.core.quilting.acts.minding import part_path
from tessil.core.quilting.choice import Quilting, QuiltZone
from tessil.core.quilting.patterns import PATTERNS
from tessil.ui.asking import alike, always, choice_of, field_of, oversize
from tessil.ui.specs import Kind, Spec, with_empty

_NAMES = tuple((entry.key, entry.name) for entry in PATTERNS.values())
_WAYS = (
    ("divide", "dividing evenly"),
    ("keep", "keeping the gap"),
    ("hit", "hitting the seams"),
    ("clear", "clearing the seams"),
)
_STITCHES = (("2.5", "2.5 mm"), ("3", "3 mm"), ("3.5", "3.5 mm"), ("4", "4 mm"))


class _Part:
    """One part's quilting, and fields for it."""

    def __init__(self, plan: Plan, panel: PanelPlan, part: int) -> None:
        parts = panel.choices.quilt_wish.all
        self.plan, self.panel = plan, panel
        self.at = min(part, len(parts) - 1)
        self.choice: Quilting = parts[self.at]
        self.pattern = PATTERNS[self.choice.pattern]
        self.path = part_path(self.at)

    def ask(
        self,
        key: str,
        kind: Kind,
        label: str,
        help_: str,
        choices: tuple[tuple[Any, str], ...] = (),
    ) -> Spec:
        path = f"{self.path}.{key}"
        spec = choice_of(self.plan, self.panel, path, kind, label, help_, choices)
        return Spec(f"panel.quilting.{key}", kind, label, help_, spec.value, spec.edit, choices)


def quilt_specs(plan: Plan, panel: PanelPlan, leaf: str, part: int) -> Iterator[Spec]:
    """The fields of one leaf."""
    if panel.panel.kind != "outer":
        return
    asked = _Part(plan, panel, part)
    if leaf == "draws":
        yield from _draws(plan)
    elif leaf == "sewing":
        yield from _sewing(asked)
    else:
        yield from _lines(asked)


def _lines(part: _Part) -> Iterator[Spec]:
    plan, panel, choice = part.plan, part.panel, part.choice
    yield from alike(plan, panel)
    yield part.ask("pattern", "choice", "Pattern", "Lines of quilting", _NAMES)
    yield from _gaps(part)
    if "spacing" in part.pattern.asks:
        ways = _WAYS if part.pattern.by_seams == "to hit" else _WAYS[:2]
        yield part.ask(
            "spacing",
            "choice",
            "Come out by",
            "Even gaps from seam to seam, or the gap just as wished",
            ways,
        )
        if choice.spacing in ("divide", "keep"):
            yield part.ask(
                "centre",
                "choice",
                "On the centre",
                "What falls there",
                (("line", "a line"), ("gap", "a gap")),
            )
    if choice.pattern != "none" and part.at == 0:
        yield part.ask("run_off", "length", "Past the trim", "On to the spare batting")
    yield from _zones(part)
    chosen = panel.choices.quilting
    free = any(one.kept_free for one in panel.choices.quilt_wish.all)
    if chosen.left_out or chosen.drawn or free:
        yield Spec(
            "quilting.back",
            "action",
            "Put all lines back",
            "The pattern as it was",
            None,
            always(put_back(plan, panel)),
        )


def _gaps(part: _Part) -> Iterator[Spec]:
    choice, asks = part.choice, part.pattern.asks
    if "run" in asks:
        yield part.ask(
            "run",
            "choice",
            "Lines run",
            "As the bag is worn",
            (("upright", "upright"), ("level", "level")),
        )
    if "angle" in asks:
        yield Spec(
            "panel.quilting.angle",
            "word",
            "Angle",
            "Degrees to the width; more than 0 rises to the right",
            write_degrees(float(choice.angle)),
            part.ask("angle", "word", "Angle", "").edit,
        )
    if "offset" in asks:
        yield part.ask("offset", "length", "From the seam", "Either side of it")
    if "gap" in asks:
        yield part.ask("gap", "length", "Wished gap", "From line to line, sewn")
        about = "Drag along the ruler, and see all that follows"
        gap = part.ask("gap", "slide", "Wished gap", about)
        yield replace(gap, key="panel.quilting.gap.slide", label="")
    if "wide" in asks:
        about = "How far a decorative stitch swings; nothing: a straight one"
        yield part.ask("stitch_wide", "length", "Stitch, wide", about)
    ruled = by_print(part.plan, part.panel, part.path) if "spacing" in asks else None
    if ruled is not None:
        about = "The print is the ruler"
        yield Spec("quilt.print", "action", ruled.words, about, None, always(ruled))
    if "gap_other" in asks:
        other = part.ask("gap_other", "length?", part.pattern.other, "Their gap")
        yield with_empty(other, "the same")


def _zones(part: _Part) -> Iterator[Spec]:
    plan, panel, zones = part.plan, part.panel, part.panel.choices.quilt_zones
    if part.at:
        at = part.at - 1
        spec = choice_of(
            plan,
            panel,
            f"quilt_zones.{at}.starts",
            "length",
            "Begins",
            "Below the trimmed top edge",
        )
        yield Spec("quilt.zone.starts", "length", "Begins", spec.help, spec.value, spec.edit)
        rest = (*zones[:at], *zones[at + 1 :])
        yield Spec(
            "quilt.zone.gone",
            "action",
            "Quilt it as the part above",
            "One part fewer",
            None,
            always(choose(plan.project, panel.panel, "Join two parts", ("quilt_zones", rest))),
        )
    if len(zones) < 5:
        yield Spec(
            "quilt.zone.add",
            "action",
            "Quilt the lower half its own way",
            "A part below with its own pattern",
            None,
            always(_divide(part)),
        )


def _divide(part: _Part) -> Edit:
    plan, panel, zones = part.plan, part.panel, part.panel.choices.quilt_zones
    bottom = panel.trimmed.height.value - panel.shown["bottom"]
    above = zones[part.at - 1].starts if part.at else panel.shown["top"]
    below = zones[part.at].starts if part.at < len(zones) else bottom
    mark = plan.marks.ruler.value
    starts = round((above + below) / 2 / mark) * mark
    fresh = part.choice.model_copy(update={"drawn": (), "left_out": (), "kept_free": ()})
    made = (*zones[: part.at], QuiltZone(starts=starts, quilting=fresh), *zones[part.at :])
    return choose(plan.project, panel.panel, "Quilt a part its own way", ("quilt_zones", made))


def _sewing(part: _Part) -> Iterator[Spec]:
    stitch = part.ask("stitch_mm", "choice", "Stitch", "3 mm is usual for quilting", _STITCHES)
    yield replace(stitch, value=f"{float(part.choice.stitch_mm):g}")
    plan = part.plan
    yield Spec(
        "machine.bobbin_m",
        "word",
        "A bobbin holds",
        "Metres of your thread",
        f"{plan.project.machine.bobbin_m:g} m",
        lambda text: edit(
            "Set what a bobbin holds",
            ("machine.bobbin_m", text.replace(",", ".").removesuffix("m").strip()),
        ),
    )


def _draws(plan: Plan) -> Iterator[Spec]:
    yield from oversize(plan)
    yield field_of(
        plan,
        "wash.used",
        "toggle",
        "Count with the first wash",
        "Cotton shrinks once more: show the size after it",
        "Count with the wash",
    )
    if plan.project.wash.used:
        yield Spec(
            "wash.share",
            "word",
            "It takes",
            "2 to 4 % is usual for cotton",
            f"{float(plan.project.wash.share) * 100:g} %",
            _share,
        )
    yield Spec(
        "logbook.page",
        "page",
        "Open the logbook of swatches",
        "What your own swatches say",
        None,
        always(Edit("", ())),
    )


def _share(text: str) -> Edit:
    try:
        share = fraction_of(text.replace(",", ".").removesuffix("%").strip()) / 100
    except (ValueError, ZeroDivisionError):
        raise ValueError("A share goes here, such as 3 %.") from None
    return edit("Set what the first wash takes", ("wash.share", share))
