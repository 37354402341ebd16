"""What is done to layers: put in, take out, move, hold out of the seams, start from a school.

Every deed is an edit.  The schools are common practice, no source.
"""

from __future__ import annotations

from typing import Any

from tessil.core.choices import choices_for, materials_of, owner_key
from tessil.core.choosing import choose
from tessil.core.edits import Edit, applied, path_of
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import MM_PER_INCH
from tessil.core.numbers.records import Record
from tessil.core.panels.panel import PanelPlan
from tessil.core.planned import Plan
from tessil.core.project import Project
from tessil.core.sandwich.choice import Ply


def usual_ply(plan: Plan, key: str) -> Ply:
    """A layer of a material as it is usually cut and held."""
    material = materials_of(plan.project)[key]
    metric = plan.project.units == "metric"
    margin = Fraction(10) / MM_PER_INCH if metric else Fraction(1, 2)
    if material.kind == "firm" and material.pressed_mm > 1:
        return Ply(material=key, rule="short", margin=margin, bond="fuse")
    if material.key == "sew-in-foam":
        narrow = Fraction(6) / MM_PER_INCH if metric else Fraction(1, 4)
        return Ply(material=key, margin=narrow, bond="itself")
    if material.fusible:
        return Ply(material=key, rule="panel", margin=margin, bond="fuse")
    return Ply(material=key, margin=margin)


def _set(plan: Plan, panel: PanelPlan, words: str, plies: tuple[Ply, ...]) -> Edit:
    return choose(plan.project, panel.panel, words, ("layers.plies", plies))


def add_ply(plan: Plan, panel: PanelPlan, key: str) -> Edit:
    """One more layer: loft before cloth, cloth last."""
    plies = list(panel.choices.layers.plies)
    known = materials_of(plan.project)
    made = usual_ply(plan, key)
    at = len(plies)
    if known[key].kind != "cloth":
        while at and known[plies[at - 1].material].kind == "cloth":
            at -= 1
    plies.insert(at, made)
    name = known[key].name.lower()
    return _set(plan, panel, f"Put {name} under the {panel.panel.label.lower()}", tuple(plies))


def remove_ply(plan: Plan, panel: PanelPlan, at: int) -> Edit:
    """Take a layer out."""
    plies = panel.choices.layers.plies
    name = materials_of(plan.project)[plies[at].material].name.lower()
    return _set(plan, panel, f"Take the {name} out", (*plies[:at], *plies[at + 1 :]))


def move_ply(plan: Plan, panel: PanelPlan, at: int, step: int) -> Edit:
    """Move a layer outwards (−1) or inwards (+1); nothing at the end."""
    plies = list(panel.choices.layers.plies)
    to = at + step
    if not 0 <= to < len(plies):
        return Edit("", ())
    plies[at], plies[to] = plies[to], plies[at]
    return _set(plan, panel, "Change the order of layers", tuple(plies))


def set_ply(plan: Plan, panel: PanelPlan, at: int, words: str, **changes: Any) -> Edit:
    """Change a layer; raises ``Refused``."""
    plies = panel.choices.layers.plies
    changed = applied(plies[at], Edit("", tuple(((key,), value) for key, value in changes.items())))
    return _set(plan, panel, words, (*plies[:at], changed, *plies[at + 1 :]))


def hold_out(project: Project, panels: tuple[PanelPlan, ...], words: str) -> Edit:
    """Keep all loft and firm layers of these panels out of the seams."""
    known, changes = materials_of(project), []
    for key in dict.fromkeys(owner_key(project, panel.panel) for panel in panels):
        panel = next(p for p in panels if owner_key(project, p.panel) == key)
        choices = choices_for(project, panel.panel)
        plies = tuple(
            ply
            if known[ply.material].kind == "cloth"
            else ply.model_copy(update={"rule": "inside"})
            for ply in choices.layers.plies
        )
        changed = applied(choices, Edit("", ((path_of("layers.plies"), plies),)))
        changes.append((("panels", key), changed))
    return Edit(words, tuple(changes))


def let_in(plan: Plan, panel: PanelPlan) -> Edit:
    """Cut what was held out of the seams as usual again."""
    plies = tuple(
        usual_ply(plan, ply.material).model_copy(update={"bond": ply.bond, "print": ply.print})
        if ply.rule == "inside"
        else ply
        for ply in panel.choices.layers.plies
    )
    return _set(plan, panel, "Let the layers into the seams", plies)


class School(Record, frozen=True):
    """A usual way of layering a panel."""

    key: str
    name: str
    about: str
    materials: tuple[str, ...]
    lining: str = ""  # of the project, if the school says
    way: str = ""  # of piecing
    quilted: bool | None = None
    top: str = "cotton"
    hooped: bool = False  # layered in the hoop of an embroidery machine


SCHOOLS = (
    School(
        "drop-in",
        "batting, lining dropped in",
        "Quilt the outside, the lining comes later",
        ("cotton-batting",),
        "drop-in",
        quilted=True,
    ),
    School(
        "interlined",
        "backing quilted in, lining dropped in",
        "A plain cloth behind the batting, a lining over it",
        ("cotton-batting", "cotton"),
        "drop-in",
        quilted=True,
    ),
    School(
        "quilted-in",
        "lining quilted in",
        "One sandwich; inner seams get bound or overcast",
        ("cotton-batting",),
        "quilted-in",
        quilted=True,
    ),
    School(
        "fleece",
        "fusible fleece, lining dropped in",
        "Fused, then quilted or not",
        ("fusible-fleece",),
        "drop-in",
    ),
    School(
        "foam",
        "sew-in foam, lining dropped in",
        "Stands by itself; bulky in seams",
        ("sew-in-foam",),
        "drop-in",
        quilted=True,
    ),
    School(
        "double",
        "two battings",
        "For relief: the lines sink in deep",
        ("polyester-batting", "cotton-batting"),
        quilted=True,
    ),
    School(
        "flip",
        "strips sewn straight on the batting",
        "Piecing and quilting in one seam",
        ("cotton-batting", "cotton"),
        way="flip",
        quilted=False,
    ),
    School(
        "bought",
        "quilted yardage, bought",
        "Nothing to quilt: cut and sew",
        (),
        "quilted-in",
        "whole",
        False,
        "quilted-yardage",
    ),
    School(
        "hoop",
        "two layers in the hoop",
        "Cut an inch over the hoop; trimmed to 2 mm outside the placing line, one layer at a time",
        ("cotton-batting", "cotton-batting"),
        hooped=True,
    ),
)


def schools_for(plan: Plan) -> tuple[School, ...]:
    """The schools that suit the shape."""
    lined = "lining" in plan.shape.uses
    return tuple(school for school in SCHOOLS if lined or school.lining != "drop-in")


def begin_with(plan: Plan, panel: PanelPlan, key: str) -> Edit:
    """Layer a panel after a school."""
    school = next(entry for entry in SCHOOLS if entry.key == key)
    plies = tuple(usual_ply(plan, name) for name in school.materials)
    pairs: list[tuple[str, Any]] = [("layers.plies", plies), ("layers.top", school.top)]
    if school.hooped and not panel.choices.layers.stabiliser:
        pairs.append(("layers.stabiliser", "cut-away"))
    if school.way:
        pairs.append(("piecing.way", school.way))
    if school.quilted is not None:
        now = panel.choices.quilting.pattern
        wanted = "none" if not school.quilted else ("channels" if now == "none" else now)
        pairs.append(("quilting.pattern", wanted))
    made = choose(plan.project, panel.panel, f"Layer it: {school.name}", *pairs)
    if school.lining and "lining" in plan.shape.uses:
        return Edit(made.words, (*made.changes, (("lining",), school.lining)))
    return made
