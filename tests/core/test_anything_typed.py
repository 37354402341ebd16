"""Whatever is typed into whichever fields, there is a plan or a sentence, never a fault."""

import json
from collections.abc import Iterator
from typing import Annotated, Literal, get_args, get_origin

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tessil.core.choosing import choose, measure
from tessil.core.edits import Edit, applied, edit
from tessil.core.numbers.decided import Decided, Refused, hints_of
from tessil.core.numbers.exact import Fraction
from tessil.core.panels.choice import Got, PanelChoices
from tessil.core.plan import plan
from tessil.core.planned import Plan
from tessil.core.project import Project, job_of
from tessil.core.quilting.patterns import PATTERNS
from tessil.core.readings import readings
from tessil.core.shapes import SHAPES
from tessil.core.shapes.acts.shaping import reshape
from tessil.core.snags import Stage
from tessil.core.trouble import CannotPlan
from tessil.core.words.written import exact_text, value_text, working, working_words
from tessil.drawing.layoutview import layout_picture
from tessil.drawing.pictures import View, picture_of
from tessil.files.projectfile import to_text
from tessil.files.report import report_data, report_text
from tests.conftest import HUNT, SINCE_FLAT, bag_from, flat_text, plies
from tests.outside.test_every_shape_on_paper import project_of

F = Fraction
lengths = st.one_of(
    st.integers(1, 320).map(lambda n: F(n, 16)),
    st.sampled_from([F(1, 1000), F(1, 16), F(5, 127), F(100), F(390)]),
)


def _plain(of: type, before: str = "") -> Iterator[tuple[str, tuple | None]]:
    """Each field of the document that takes yes or no or one of a few words, with what it takes,
    and each that takes a length or a share, with None."""
    for name, hint in hints_of(of).items():
        bare, empty = _bare(hint)
        if isinstance(bare, type) and issubclass(bare, Decided):
            if empty:
                continue  # made as a whole or not at all: see below
            yield from _plain(bare, f"{before}{name}.")
        elif bare is bool:
            yield before + name, (True, False)
        elif get_origin(bare) is Literal:
            yield before + name, (*get_args(bare), *empty)
        elif bare is Fraction:
            yield before + name, None


def _bare(hint) -> tuple[object, tuple[None, ...]]:
    """A hint without its limits, and whether it may also be nothing."""
    while get_origin(hint) is Annotated:
        hint = get_args(hint)[0]
    if type(None) in get_args(hint):
        (only,) = [one for one in get_args(hint) if one is not type(None)]
        return _bare(only)[0], (None,)
    return hint, ()


PLAIN, PANEL_PLAIN = dict(_plain(Project)), dict(_plain(PanelChoices))
LENGTH_FIELDS = (
    *(field for field, taken in PLAIN.items() if taken is None),
    *(f"hold.things.0.{side}" for side in ("width", "height", "thickness")),
)
SCRAPS = (
    {"width": F(5), "height": F(3), "number": 9},
    {"width": F(1, 2), "height": F(8)},
    {"width": F(9, 2), "height": F(4), "number": 30, "print": "red"},
)
CHOICES = {field: taken for field, taken in PLAIN.items() if taken} | {
    "shape.way": ("finished", "object", "panel", "cloth"),
    "lining": ("drop-in", "quilted-in", "none"),
    "corner": ("cut", "line", "pinch"),
    "oversize.way": ("model", "fixed", "none"),
    "units": ("inch", "metric"),
    "binding.fold": ("double", "single"),
    "snap.used": (True, False),
    "bags": (1, 7, 999),
    "scraps": ((), SCRAPS[:1], SCRAPS),
    "seam_test": (None, {"measured": F(17, 2)}, {"measured": F(9), "strips": 5}),
    "pack": (None, {"pieces": 42}),
    "rules.order": ("free", "spread", "graded", "striped"),
    "rules.favourites": ("", "body:front:0", "nowhere"),
    "hold.things.0.count": (1, 40),
    "shape.cloth.quilted": (True, False),
    "shape.cloth.pieces": (1, 5),
    "press_seams": ("open", "side"),
    "wash": ({"used": True}, {"used": True, "share": 0.2}),
    "machine": ({"needle": 70}, {"lift_mm": 2.5, "bobbin_m": 1}),
    "offcuts": ((), ({"width": F(20), "height": F(9), "number": 3},)),
    "materials": (
        (),
        ({"key": "cotton-batting", "name": "Thick", "pressed_mm": 9, "width": F(5)},),
    ),
    "binding.grain": ("straight", "bias"),
    "binding.ending": ("tuck", "diagonal"),
    "binding.corners": ("mitred", "butted"),
    "binding.inner": (True, False),
    "binding.strips_on_hand": (None, 0, 1, 9),
    "bias.source": ("yardage", "pieces", "tube"),
    "bias.prefer": ("joins", "waste"),
    "bias.pieces": (
        (),
        ({"width": F(15), "height": F(12)}, {"corners": ((0, 0), (16, 0), (14, 11), (2, 9))}),
        ({"width": F(1, 2), "height": F(1, 2)},),
    ),
    "piping.panels": ((), ("front",), ("front", "back", "flap", "nowhere")),
    "strap.carried": ("typed", "adult"),
    "strap.made": ("cloth", "webbing"),
    "strap.slider": (True, False),
    "strap.interfaced": (True, False),
    "zipper.teeth": ("nylon", "metal"),
    "zipper.ends": ("stops", "tabs"),
    "zipper.sliders": ("one", "two"),
    "marks": ((), ({"kind": "window", "panel": "front", "x": F(3), "y": F(3)},)),
}
PANEL_LENGTHS = tuple(field for field, taken in PANEL_PLAIN.items() if taken is None)
PANEL_CHOICES = {field: taken for field, taken in PANEL_PLAIN.items() if taken} | {
    "piecing.way": ("strips", "whole", "squares", "web", "flip", "courses", "crumbs"),
    "piecing.run": ("level", "upright", "diagonal"),
    "piecing.angle": (5, 33, 45, 85, -60),
    "piecing.fixed": ("width", "count", "mixed"),
    "piecing.widths": ((F(1),), (F(5, 2), F(3, 2)), (F(3), F(1, 2))),
    "piecing.heights": ((F(5, 2),), (F(2), F(4))),
    "piecing.foundation": ("batting", "foundation"),
    "piecing.press": ("open", "side"),
    "piecing.count": (1, 2, 9, 200),
    "piecing.surplus": ("both", "one", "other", "recut", "border"),
    "piecing.surplus_across": ("both", "one", "other", "recut", "border"),
    "piecing.prints": ((), ("gone", "lost"), ("red",) * 30),
    "piecing.turned": ((), (0, 3, 99)),
    "piecing.locked": ((), (1,)),
    "zones": (
        (),
        ({"starts": F(4)},),
        (
            {"starts": F(3), "piecing": {"way": "squares"}},
            {"starts": F(6), "piecing": {"way": "flip"}},
        ),
    ),
    "piecing.strip_sets": (True, False),
    "quilting.pattern": tuple(PATTERNS),
    "quilting.run": ("upright", "level"),
    "quilting.centre": ("line", "gap"),
    "quilting.spacing": ("divide", "keep", "hit", "clear"),
    "quilting.angle": (5, 30, -45, 85),
    "quilting.gap_other": (None, F(1, 2), F(9)),
    "quilting.stitch_mm": (F(1, 2), F(4)),
    "quilting.left_out": ((), ("0.a.0", "0.a.1", "nothing")),
    "quilting.drawn": (
        (),
        (
            {"x1": F(1), "y1": F(1), "x2": F(9), "y2": F(4)},
            {"x1": F(-2), "y1": F(3), "x2": F(90), "y2": F(3)},
        ),
    ),
    "quilt_zones": (
        (),
        ({"starts": F(3)},),
        ({"starts": F(2)}, {"starts": F(5), "quilting": {"pattern": "diamonds"}}),
    ),
    "layers.top": ("cotton", "clear-vinyl", "quilted-yardage"),
    "layers.plies": ((), plies("cotton-batting"), plies("sew-in-foam", "cotton", rule="inside")),
}


@st.composite
def answers(draw) -> list[tuple[str, object]]:
    """A handful of things somebody types or picks, one after another."""
    steps = []
    for _ in range(draw(st.integers(1, 6))):
        kind = draw(st.sampled_from(("length", "choice", "size", "option", "panel", "measure")))
        if kind == "length":
            steps.append((draw(st.sampled_from(LENGTH_FIELDS)), draw(lengths)))
        elif kind == "choice":
            field = draw(st.sampled_from(sorted(CHOICES)))
            steps.append((field, draw(st.sampled_from(CHOICES[field]))))
        elif kind == "size":
            steps.append(("size", (draw(st.integers(0, 9)), draw(lengths))))
        elif kind == "option":
            steps.append(("option", (draw(st.integers(0, 19)), draw(st.integers(0, 5)))))
        elif kind == "measure":
            rung = draw(st.sampled_from(("pieced", "quilted", "trimmed", "notch", "added")))
            steps.append(("measure", (rung, draw(lengths), draw(lengths))))
        elif draw(st.booleans()):
            steps.append((f"panel.{draw(st.sampled_from(PANEL_LENGTHS))}", draw(lengths)))
        else:
            field = draw(st.sampled_from(sorted(PANEL_CHOICES)))
            steps.append((f"panel.{field}", draw(st.sampled_from(PANEL_CHOICES[field]))))
    return steps


LEAVES = {
    Stage.LAYER: ("layers", "bulk"),
    Stage.QUILT: ("lines", "sewing", "draws"),
    Stage.EDGE: ("binding", "bias", "piping", "straps", "closing"),
}


def edit_of(made: Plan, field: str, value) -> Edit:
    """What typing a value into a field asks for."""
    project = made.project
    if field == "size":
        fields = made.shape.fields
        return edit("", (f"shape.sizes.{fields[value[0] % len(fields)].key}", value[1]))
    if field == "option" and made.shape.options:
        option = made.shape.options[value[0] % len(made.shape.options)]
        picked, _ = option.choices[value[1] % len(option.choices)]
        return edit("", (f"shape.options.{option.key}", picked))
    if field == "measure":
        rung, width, height = value
        return measure(project, made.shape.leader, rung, Got(width=width, height=height))
    if field.startswith("panel."):
        panel = made.bag.panel(made.shape.leader)
        return choose(project, panel, "", (field.removeprefix("panel."), value))
    return edit("", (field, value))


def _typed_in(made: Plan, steps) -> Plan:
    """As the desk does it: what is refused changes nothing, and says why."""
    for field, value in steps:
        try:
            project = applied(made.project, edit_of(made, field, value))
        except Refused:
            continue  # the field refuses it; its words are tested with the document
        try:
            planned = plan(project)
        except CannotPlan as trouble:
            _is_a_sentence(trouble)
            continue
        made = planned.complete()  # what is made later neither refuses nor raises
    return made


def _is_a_sentence(trouble: CannotPlan) -> None:
    assert trouble.field
    assert trouble.sentence.endswith(".")
    assert "\n" not in trouble.sentence


@pytest.mark.parametrize("key", SHAPES)
@settings(max_examples=6 * HUNT)
@given(steps=answers())
def test_there_is_a_plan_or_a_sentence(key, steps):
    made = _typed_in(plan(project_of(key)), steps)
    cases = list(made.bag.finished)
    assert cases
    for figure in cases:
        assert figure.value > 0
    assert [item for item in made.items if min(item.width.value, item.height.value) <= 0] == []
    cases = list(made.panels)
    assert cases
    for panel in cases:
        assert panel.pieced.width.value > 0
        assert panel.needed.width.value >= panel.trimmed.width.value
        for stage in Stage:
            for reading in readings(made, stage, panel.key):
                figure, notation = reading.figure, made.marks.notation
                assert figure.label
                assert value_text(figure, notation)
                assert exact_text(figure, notation)
                assert working(figure, notation) or not working_words(figure, notation)


@pytest.mark.parametrize("key", SHAPES)
@settings(max_examples=5 * HUNT)
@given(steps=answers())
def test_whatever_was_typed_can_be_drawn_and_reported(key, steps):
    made = _typed_in(plan(project_of(key)), steps)
    assert made.project.name in report_text(made)
    json.dumps(report_data(made))
    for panel in made.panels:
        assert layout_picture(made, panel).items
        for look in made.looks:
            assert picture_of(made, View(Stage.PIECE, panel.key, worn=look.side)).items
    for stage in Stage:
        for panel in made.panels:
            for leaf in LEAVES.get(stage, ("",)):
                picture = picture_of(made, View(stage, panel.key, leaf=leaf))
                assert picture.box[2] > 0
                assert picture.box[3] > 0


@settings(max_examples=10 * HUNT)
@given(st.sampled_from(list(SHAPES)), answers())
def test_every_fix_offered_leads_somewhere(key, steps):
    """A fix gives a plan, or is refused in a sentence; it never breaks the program."""
    made = _typed_in(plan(project_of(key)), steps)
    for snag in made.snags:
        assert snag.title
        assert snag.why.endswith(".")
        for fix in snag.fixes:
            try:
                mended = plan(applied(made.project, fix))
            except (CannotPlan, Refused):
                continue
            mended.complete()


@settings(max_examples=10 * HUNT)
@given(st.lists(st.sampled_from(list(SHAPES)), min_size=1, max_size=5), answers())
def test_any_shape_can_follow_any_other(keys, steps):
    made = _typed_in(plan(project_of("tote")), steps)
    cases = list(keys)
    assert cases
    for key in cases:
        try:
            made = plan(applied(made.project, reshape(made.project, SHAPES[key])))
        except CannotPlan as trouble:
            _is_a_sentence(trouble)
        else:
            assert made.complete().shape.key == key


@settings(max_examples=10 * HUNT)
@given(answers())
def test_a_project_typed_in_survives_its_file(steps):

    made = _typed_in(plan(project_of("satchel")), steps).project
    assert bag_from(to_text(job_of(made))) == made
    again = bag_from(flat_text(made))
    # A flap passed over the whole depth until it was asked.
    assert again.shape.options == {"flap_passes": "whole"} | made.shape.options
    since = {name: getattr(made, name) for name in ("shape", *SINCE_FLAT)}
    again = again.model_copy(update=since)
    assert again == made
