"""Nothing is cut or bought that no step takes up, and no step takes what is not there."""

from typing import get_args

import pytest

from tessil.core.bag.ids import CutFor
from tessil.core.brief.choice import Base, ShapeChoice
from tessil.core.cutting.acts.shopping import WareKind, wares_of
from tessil.core.edges.choice import Binding, Button, Piping, Strap, Zipper
from tessil.core.making.acts.whole import making_of
from tessil.core.making.choice import Made
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tessil.core.shapes import SHAPES
from tessil.core.trimming.choice import Mark
from tests.conftest import tote
from tests.outside.test_every_shape_on_paper import project_of
from tests.outside.test_spelling import rich

F = Fraction
# What is cut for this is taken up in one of these steps.
CUT: dict[str, tuple[str, ...]] = {
    "panels": ("trim.cut", "line.cut", "trim.plain"),
    "hoop": ("hoop.lay",),
    "part": ("strap.fold", "strap.cover", "strap.underside", "strap.make"),
    "edge": ("bind.sew-front", "bind.sew-back", "bind.own", "bind.flap", "zip.bind-edges"),
    "bias": ("bias.join", "bias.tube"),
    "pocket": ("prepare.slip", "prepare.divided", "prepare.window"),
    "pull": ("zip.pull-tab",),
    "inner seams": ("inside.finish",),
    "tab": ("prepare.tab",),
    "stiffener": ("finish.stiffener", "base.fuse", "base.lining"),
    "base strip": ("base.strip",),
    "snap": ("prepare.snap-male",),
    "zipper end": ("zip.end-tabs",),
    "button loop": ("loop.make",),
}
BOUGHT: dict[str, tuple[str, ...]] = {
    "zipper": ("zip.sew", "zip.sew-lined", "zip.sew-bound", "zip.sew-lapped", "prepare.window"),
    "slider": ("zip.sliders-on", "zip.two-sliders"),
    "edge tape": ("zip.sew-lapped",),
    "cord": ("cord.thread", "cord.thread-one"),
    "piping cord": ("pipe.cover",),
    "webbing": ("strap.cover", "strap.make"),
    "ring": ("strap.baste-rings", "prepare.tab"),
    "strap slider": ("strap.thread",),
    "snap": ("prepare.snap-female",),
    "eyelet": ("cord.eyelets",),
    "button": ("loop.button",),
    "ribbon": ("prepare.ribbon",),
    "label": ("prepare.label",),
    "patch": ("prepare.patch",),
    "thread": ("cut.all",),  # of every seam
}


def _mark(kind, **more):
    return Mark(kind=kind, panel="front", x=F(3), y=F(3), **more)


def _satchel(strap):
    options = {"strap": "one", "strap_ends": "rings"}
    return project_of("satchel", shape=ShapeChoice(kind="satchel", options=options), strap=strap)


PROJECTS = {
    **{f"{key}, rich": lambda key=key: rich(key) for key in SHAPES},
    **{key: lambda key=key: project_of(key) for key in SHAPES},
    "on rings": lambda: _satchel(Strap(slider=True)),
    "webbing": lambda: _satchel(Strap(made="webbing", slider=True)),
    "covered": lambda: _satchel(Strap(made="covered")),
    "underside": lambda: _satchel(Strap(made="underside")),
    "bound zipper": lambda: project_of("flat-pouch", zipper=Zipper(set="bound", sliders="two")),
    "lapped zipper": lambda: project_of("boxed-zip", zipper=Zipper(set="lapped", ends="length")),
    "tabs": lambda: project_of("flat-pouch", zipper=Zipper(ends="tabs", pull=True)),
    "button": lambda: tote(button=Button(used=True), piping=Piping(panels=("front",))),
    "base": lambda: tote(base=Base(strip=True, stiffener="sleeve")),
    "fused base": lambda: tote(base=Base(strip=True, stiffener="fused")),
    "base of the lining": lambda: tote(base=Base(stiffener="lining")),
    "zipper seams inside": lambda: project_of(
        "bound-pouch", lining="quilted-in", binding=Binding(inner=True, inner_zip="both")
    ),
    "bound zipper, inner seams": lambda: project_of(
        "boxed-zip", lining="quilted-in", binding=Binding(inner=True), zipper=Zipper(set="bound")
    ),
    "inner seams": lambda: tote(lining="quilted-in", binding=Binding(inner=True)),
    "trims": lambda: tote(marks=tuple(_mark(kind) for kind in ("ribbon", "label", "patch"))),
}


def _of(name):
    """The kinds of steps, of what is cut and of what is bought."""
    made = plan(PROJECTS[name]())
    whats = {deed.what for deed in making_of(made, Made()).deeds}
    cut = {item.owner.kind for item in made.items}
    return whats, cut, {ware.kind for ware in wares_of(made)}


@pytest.mark.parametrize("name", PROJECTS)
def test_what_is_cut_or_bought_is_taken_up_in_a_step(name):
    whats, cut, bought = _of(name)
    assert cut
    assert {kind for kind in cut if not whats & set(CUT[kind])} == set()
    assert {kind for kind in bought if not whats & set(BOUGHT[kind])} == set()


def test_every_kind_there_is_was_asked_for():
    assert set(CUT) == set(get_args(CutFor))
    assert set(BOUGHT) == set(get_args(WareKind))


# A step that takes one of these up is told only where it was cut or bought.
ONLY = {"pull": "cut", "zipper end": "cut", "button loop": "cut", "base strip": "cut", "tab": "cut"}
ONLY |= dict.fromkeys(("cord", "piping cord", "strap slider", "snap", "button"), "bought")


@pytest.mark.parametrize("name", PROJECTS)
def test_no_step_takes_up_what_is_not_there(name):
    whats, cut, bought = _of(name)
    for kind, how in ONLY.items():
        there = kind in (cut if how == "cut" else bought)
        taken = whats & set((CUT if how == "cut" else BOUGHT)[kind])
        assert bool(taken) == there, (kind, taken)
