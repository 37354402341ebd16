"""The largest bag out of a cloth: its print upright, its zipper long enough, one size kept.

Sums by hand; geometry.  Quilted cloth, so that nothing is drawn in: a panel is what is cut.
"""

from math import prod

import pytest

from tessil.core.brief.choice import Cloth
from tessil.core.edges.choice import Zipper
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tessil.core.shapes import SHAPES
from tessil.core.trouble import CannotPlan
from tests.outside.test_every_shape_on_paper import project_of

F = Fraction


def out_of(shape, width, height, sizes=None, options=None, zipper=None, pieces=1, **cloth):
    base = project_of(shape)
    choice = base.shape.model_copy(
        update={
            "way": "cloth",
            "cloth": Cloth(width=F(width), height=F(height), pieces=pieces, quilted=True, **cloth),
            "sizes": {key: F(value) for key, value in (sizes or {}).items()},
            "options": options or {},
        }
    )
    changes = {"shape": choice}
    if zipper:
        changes["zipper"] = Zipper(length=F(zipper))
    return plan(base.model_copy(update=changes))


def area(made):
    width, height = (figure.value for figure in made.bag.finished[:2])
    return width * height


def test_two_panels_of_a_pouch_take_the_whole_cloth():
    """12 × 20 for two panels: 12 × 10 above one another, or 6 × 20 beside one another."""
    made = out_of("flat-pouch", 12, 20)
    width, height = made.panel("front").trimmed.values()
    assert width * height == 120


def test_a_print_with_an_up_is_never_turned():
    """12 × 41 for two panels: 12 × 20½ each.  Turned they would be 20½ × 12, and the pouch larger:
    its seams take ¾ of both sides, the zipper's ¼ less shows, so that wide and low gains."""
    free = out_of("flat-pouch", 12, 41)
    upright = out_of("flat-pouch", 12, 41, directional=True)
    assert upright.panel("front").trimmed.values() == (12, F(41, 2))
    assert not upright.cloth.turned
    assert free.cloth.turned
    assert free.panel("front").trimmed.values() == (F(41, 2), 12)
    assert area(free) > area(upright)


@pytest.mark.parametrize("shape", ["tote", "satchel", "drawstring", "bound-pouch", "clutch"])
@pytest.mark.parametrize(("width", "height"), [(44, 30), (20, 44)])
def test_every_part_comes_out_of_the_cloth_upright(shape, width, height):
    """Laid in rows as high as their highest, each piece the way it is worn."""
    made = out_of(shape, width, height, directional=True)
    assert not made.cloth.turned
    parts = [p for p in made.panels if p.panel.kind in ("outer", "plain")]
    names = " ".join(name for row in made.cloth.rows for name in row)
    for part in parts:
        assert part.panel.label in names
        assert part.trimmed.width.value <= width
        assert part.trimmed.height.value <= height
    taken = sum(p.trimmed.width.value * p.trimmed.height.value * p.panel.copies for p in parts)
    assert width * height / 4 < taken <= width * height


def test_the_strip_above_a_zipper_comes_out_of_the_cloth_and_a_window_does_not():
    strip = out_of("bound-pouch", 24, 24, sizes={"upper": 3})
    window = out_of("bound-pouch", 24, 24, sizes={"upper": 3}, options={"window": "vinyl"})
    assert "Upper strip" in " ".join(name for row in strip.cloth.rows for name in row)
    assert "Window" not in " ".join(name for row in window.cloth.rows for name in row)
    assert area(strip) < area(window)


@pytest.mark.parametrize("shape", ["flat-pouch", "boxed-zip", "bound-pouch", "offset-pouch"])
def test_the_zipper_in_hand_is_long_enough(shape):
    free = out_of(shape, 30, 20)
    need = free.bag.zipper.length.value
    short = out_of(shape, 30, 20, zipper=need - 3)
    assert short.bag.zipper.length.value <= need - 3
    narrower = out_of(shape, 27, 20)  # a way to need less of a zipper, for most
    if narrower.bag.zipper.length.value <= need - 3:
        assert area(short) >= area(narrower)
    enough = out_of(shape, 30, 20, zipper=need).bag.finished
    assert [f.value for f in enough] == [f.value for f in free.bag.finished]


@pytest.mark.parametrize(("keep", "at", "size"), [("width", 0, 9), ("height", 1, 7)])
def test_one_size_is_kept_and_the_other_as_large_as_it_gets(keep, at, size):
    free = out_of("tote", 30, 30, sizes={"depth": 3})
    kept = out_of("tote", 30, 30, sizes={"depth": 3, keep: size}, keep=keep)
    assert 0 <= kept.bag.finished[at].value - size <= F(1, 8)
    other = 1 - at
    assert kept.bag.finished[other].value >= free.bag.finished[other].value
    assert kept.bag.finished[2].value == free.bag.finished[2].value


@pytest.mark.parametrize("shape", SHAPES)
@pytest.mark.parametrize(("width", "height"), [(24, 20), (14, 30), (40, 12)])
def test_the_way_that_limits_is_the_one_of_which_an_inch_more_holds_more(shape, width, height):
    """Each cloth planned anew, an inch wider and an inch higher."""
    cases = ((width, height), (width + 1, height), (width, height + 1))
    made, *larger = (out_of(shape, *size, pieces=2) for size in cases)
    holds, wider, higher = (prod(f.value for f in m.bag.finished) for m in (made, *larger))
    assert made.cloth.limits == ("width" if wider >= higher else "height")
    assert made.cloth.gain == max(wider, higher) - holds > 0


def test_a_size_that_the_cloth_has_not_is_said():
    with pytest.raises(CannotPlan, match="with its width kept comes out of so little cloth"):
        out_of("tote", 20, 20, sizes={"width": 30}, keep="width")


def test_what_can_be_kept_is_what_the_cloth_decides():
    for shape in SHAPES.values():
        keys = {field.key for field in shape.fields if field.from_cloth}
        assert keys <= {"width", "height", "depth"}
