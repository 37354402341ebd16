"""Stitched fillings and decorative rows: how they lie, how dense they are, what they draw in, what
thread they take, lines by a print, motifs stitched before a panel is cut (by hand, `shapely`)."""

from math import hypot, pi

import pytest
import shapely

from tessil.core.catalogue.prints import Print
from tessil.core.edits import applied
from tessil.core.making.acts.whole import making_of
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tessil.core.quilting.acts.byhand import put_back
from tessil.core.quilting.acts.byprint import by_print
from tessil.core.quilting.choice import Spared
from tessil.core.shapes import SHAPES
from tessil.core.trimming.choice import Mark
from tessil.core.trouble import CannotPlan
from tests.conftest import tote, with_front
from tests.outside.test_every_shape_on_paper import project_of

F = Fraction


def quilted(pattern, gap=1, **more):
    wishes = [("quilting.pattern", pattern), ("quilting.gap", F(gap))]
    wishes += [(f"quilting.{key}", value) for key, value in more.items()]
    return with_front(tote(), *wishes)


def front(project):
    return plan(project).panel("front")


@pytest.mark.parametrize("gap", [F(1, 2), F(3, 4), F(1), F(3, 2)])
def test_a_wandering_line_is_as_long_as_lines_a_gap_apart_would_be(gap):
    """Area over length is how far lines lie apart on average."""
    made = front(quilted("meander", gap))
    shown = made.trimmed.floats()
    insets = [float(made.shown[side]) for side in ("left", "right", "top", "bottom")]
    area = (shown[0] - insets[0] - insets[1]) * (shown[1] - insets[2] - insets[3])
    long = sum(
        hypot(b[0] - a[0], b[1] - a[1])
        for line in made.quilt.lines
        for a, b in zip(line.points, line.points[1:], strict=False)
    )
    assert area / long == pytest.approx(float(gap), rel=0.06)


def test_it_lies_inside_the_outline_and_never_crosses_itself():
    made = front(quilted("meander", F(3, 4)))
    outline = shapely.box(0, 0, *made.trimmed.floats())  # its corners are cut out later
    lines = [shapely.LineString(line.points) for line in made.quilt.lines]
    assert lines
    assert all(outline.buffer(1e-6).covers(line) for line in lines)
    assert all(line.is_simple for line in lines)
    assert not any(a.crosses(b) for at, a in enumerate(lines) for b in lines[at + 1 :])


def crossed(project):
    made = plan(project)
    (snag,) = [one for one in made.snags if one.key.startswith("quilt.through.front")]
    return made, snag


@pytest.mark.parametrize("pattern", ["meander", "repeat"])
@pytest.mark.parametrize("place", [(F(6), F(6)), (F(2), F(3)), (F(7, 2), F(17, 2))])
def test_a_filling_goes_round_what_is_set_in(pattern, place):
    """One needle's width of nothing round a window; the line stays one, is hardly longer, and keeps
    off whatever it went round before no more."""
    x, y = place
    window = Mark(kind="window", panel="front", x=x, y=y, width=F(4), height=F(6), box=F(1, 2))
    project = quilted(pattern).model_copy(update={"marks": (window,)})
    made, snag = crossed(project)
    (fix,) = [fix for fix in snag.fixes if fix.words == "Quilt round it"]
    after = plan(applied(project, fix))
    assert not [one for one in after.snags if one.key.startswith("quilt.through")]
    hole = shapely.box(float(x), float(y), float(x) + 4, float(y) + 0.5)
    lines = [shapely.LineString(line.points) for line in after.panel("front").quilt.lines]
    assert not any(line.intersects(hole) for line in lines)
    if pattern == "meander":
        before = made.panel("front").quilt
        assert len(lines) == len(before.lines)
        long, was = (
            sum(one.length for one in every) for every in (lines, map(_path, before.lines))
        )
        assert abs(long / was - 1) < 0.12
    moved = after.project.model_copy(update={"marks": (window.model_copy(update={"y": y + 2}),)})
    _, snag = crossed(moved)
    (fix,) = [fix for fix in snag.fixes if fix.words == "Quilt round it"]
    assert len(plan(applied(moved, fix)).panel("front").choices.quilting.kept_free) == 1


def _path(line):
    return shapely.LineString(line.points)


def test_all_lines_come_back():
    spared = (Spared(x=F(4), y=F(4), width=F(1), height=F(1)),)
    made = plan(quilted("meander", kept_free=spared))
    after = plan(applied(made.project, put_back(made, made.panel("front"))))
    plain = plan(quilted("meander"))
    assert made.panel("front").quilt.lines != plain.panel("front").quilt.lines
    assert after.panel("front").quilt.lines == plain.panel("front").quilt.lines


def test_it_draws_in_both_ways_as_lines_half_of_which_run_each_way():
    """Half of it upright, half level: on a square of strain the same both ways, and between what
    channels take across them and along them."""
    made = front(quilted("meander"))
    channels = front(quilted("channels", spacing="keep"))
    x, y = made.draw.x.expected.value, made.draw.y.expected.value
    assert abs(float(x - y)) < 1e-6
    across, along = channels.draw.x.expected.value, channels.draw.y.expected.value
    assert float(x) == pytest.approx(float(across + along) / 2, rel=0.02)


def test_rings_lie_whole_inside_and_as_dense_as_is_said():
    """Rings of ⅘ g, g apart: lines as far apart as g²/(π·⅘g)."""
    made = front(quilted("repeat", F(3, 2)))
    rings = [shapely.Polygon(line.points) for line in made.quilt.lines]
    assert len(rings) > 10
    outline = shapely.box(0, 0, *made.trimmed.floats())
    assert all(outline.covers(ring) for ring in rings)
    assert not any(a.intersects(b) for at, a in enumerate(rings) for b in rings[at + 1 :])
    assert made.families[0].gap.value == pytest.approx(1.5 / (pi * 0.8), rel=1e-4)


def test_rows_lie_between_lines_in_the_ditch():
    made = front(quilted("ditch-rows", F(2)))
    names = [entry.name for entry in made.quilt.sets]
    assert any("ditch" in name for name in names)
    assert "rows between" in names


@pytest.mark.parametrize(("wide", "factor"), [(F(0), 1.0), (F(4) / F(254, 10), 5 / 3)])
def test_a_stitch_that_swings_sews_the_slanted_side_of_a_triangle(wide, factor):
    """3 mm on and 4 mm over are 5 mm: 5/3 of the thread and of the time in these rows."""
    made = front(quilted("ditch-rows", F(2), stitch_wide=wide, stitch_mm=F(3)))
    straight = front(quilted("ditch-rows", F(2), stitch_mm=F(3)))
    rows = next(at for at, entry in enumerate(made.quilt.sets) if entry.name == "rows between")
    own = sum(line.length for line in made.quilt.lines if line.group == rows)
    more = float(made.sewing.length.value - straight.sewing.length.value)
    assert more == pytest.approx(own * (factor - 1), abs=1e-2)
    assert made.sewing.minutes.value >= straight.sewing.minutes.value


@pytest.mark.parametrize("pattern", ["meander", "repeat", "ditch-rows"])
@pytest.mark.parametrize("key", SHAPES)
def test_every_shape_takes_every_filling(key, pattern):
    base = project_of(key)
    lead = plan(base).lead
    choices = lead.choices.model_copy(
        update={"quilting": lead.choices.quilting.model_copy(update={"pattern": pattern})}
    )
    made = plan(base.model_copy(update={"panels": {**base.panels, lead.owner: choices}}))
    assert made.lead.quilt.lines
    assert made.lead.sewing.length.value > 0


def test_a_filling_without_an_end_is_refused_beside_its_gap():
    with pytest.raises(CannotPlan) as trouble:
        plan(quilted("meander", F(1, 16)))
    assert trouble.value.field == "panels.front.quilting.gap"


# -- by the print ---------------------------------------------------------------------------


def of_print(motif):
    cloth = Print(key="check", name="Check", motif=motif, repeat=F(3, 4))
    base = tote(prints=(cloth,))
    whole = ("piecing.way", "whole"), ("piecing.prints", ("check",)), ("quilting.gap", F(2))
    return with_front(base, *whole)


def test_lines_follow_a_printed_check():
    """Checks of ¾ and a wish of 2: the nearest are 3 of them, 2¼, kept as they are."""
    made = plan(of_print("checks"))
    change = by_print(made, made.panel("front"), "quilting")
    assert change.words == "Quilt by every 3. line of check"
    after = plan(applied(made.project, change))
    choice = after.panel("front").choices.quilting
    assert (choice.gap, choice.spacing) == (F(9, 4), "keep")
    assert by_print(after, after.panel("front"), "quilting") is None


def test_a_print_without_lines_sets_none():
    made = plan(of_print("dots"))
    assert by_print(made, made.panel("front"), "quilting") is None


# -- stitched first, cut after --------------------------------------------------------------


@pytest.mark.parametrize("made_how", ["sewn", "fused", "embroidered"])
def test_a_motif_gives_its_panel_room_and_comes_before_it_is_cut(made_how):
    """Not quilted, the panel would be cut to size at once; with a motif it has ¼ more each side."""
    mark = Mark(kind="motif", panel="front", x=F(4), y=F(4), width=F(3), height=F(2), made=made_how)
    plain = with_front(tote(), ("quilting.pattern", "none"))
    bare = plan(plain).panel("front")
    made = plan(plain.model_copy(update={"marks": (mark,)}))
    needed = made.panel("front").needed
    assert needed.width.value >= bare.needed.width.value + F(1, 2)
    assert needed.height.value >= bare.needed.height.value + F(1, 2)
    steps = making_of(made, made.project.making)
    assert not steps.broken
    order = [deed.id for deed in steps.deeds]
    assert order.index("motif.0") < order.index("trim.cut.front")
    assert next(d for d in steps.deeds if d.id == "motif.0").what == f"motif.{made_how}"


def test_rings_stand_in_the_middle_every_other_row_half_a_gap_off():
    """Between the seams 14 × 13¼: seven of 2 across, six down; 1¼ left over is shared."""
    rings = front(quilted("repeat", 2)).quilt.lines
    middles = [
        tuple(sum(point[way] for point in line.points) / len(line.points) for way in (0, 1))
        for line in rings
        if line.closed
    ]
    rows = sorted({round(y, 3) for _, y in middles})
    assert rows[:3] == [1.875, 3.875, 5.875]  # ¼ + ⅝ + 1 from the top
    across = [sorted(round(x, 3) for x, y in middles if round(y, 3) == row) for row in rows[:2]]
    assert across[0] == [1.375 + 2 * at for at in range(7)]  # ⅜ + 1
    assert across[1] == [2.375 + 2 * at for at in range(6)]
