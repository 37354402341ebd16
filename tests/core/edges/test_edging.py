"""Edges, binding, piping, straps, zippers and cords of whole bags."""

from math import hypot, pi, sqrt

import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.integrate import quad
from shapely import unary_union
from shapely.geometry import LineString, Point, Polygon, box

from tessil.core.brief.choice import Seams, ShapeChoice
from tessil.core.edges.bias import plan_bias
from tessil.core.edges.binding import begin_clear, begin_strips
from tessil.core.edges.choice import Bias, BiasPiece, Binding, Button, Cord, Piping, Strap, Zipper
from tessil.core.edges.edging import channel_least, piping_strip
from tessil.core.edges.pieces import read_pieces, write_piece
from tessil.core.edges.runs import bound_edge
from tessil.core.edges.straps import strap_for
from tessil.core.edges.tube import plan_tube, side_by_area
from tessil.core.edits import applied, edit
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import MM_PER_INCH, LengthError
from tessil.core.numbers.workings import Basis
from tessil.core.numbers.workings import given as chosen
from tessil.core.plan import plan
from tessil.core.quilting.choice import Quilting
from tessil.core.sandwich.choice import Layers
from tessil.core.shapes import SHAPES
from tessil.core.snags import Stage
from tessil.core.words.steps import told
from tessil.core.words.written import exact_text
from tessil.drawing.pictures import View, picture_of
from tests.conftest import plies, tote

F = Fraction


def edge_words(made, leaf):
    return told(made.edge_steps.get(leaf, ()), made.marks.notation)


def _bag(kind, options=None, **sizes):
    sizes = {key: F(value) for key, value in sizes.items()}
    return ShapeChoice(kind=kind, sizes=sizes, options=options or {})


# -- runs -------------------------------------------------------------------------------------


def test_runs_are_the_panel_s_sides_and_each_arc_is_one():
    made = plan(tote(shape=_bag("satchel", flap_round=F(3, 2))))
    runs = made.edging.runs_on("flap")
    names = [run.name for run in runs]
    assert names.count("rounded corner, left") == names.count("rounded corner, right") == 1
    assert sum(len(run.points) - 1 for run in runs) == len(made.bag.panel("flap").edges)


@pytest.mark.parametrize("radius", [F(1), F(3, 2), F(3)])
def test_a_rounded_corner_is_as_long_as_its_arc(radius):
    """SciPy integrates the arc's length, cut edge and seam line apart."""
    made = plan(tote(shape=_bag("satchel", flap_round=radius)))
    (run,) = [r for r in made.edging.runs_on("flap") if r.name == "rounded corner, left"]
    r = float(radius)
    arc, _ = quad(lambda t: sqrt((r * 1.0) ** 2), 0, pi / 2)
    assert float(run.cut.value) == pytest.approx(arc, abs=2e-3)
    assert float(run.radius.value) == pytest.approx(r, abs=1e-3)
    inner, _ = quad(lambda t: r - float(run.allowance), 0, pi / 2)
    assert float(run.sewn.value) == pytest.approx(inner, abs=2e-3)
    assert run.tight == (radius < 3)


def test_the_seam_line_is_what_shapely_gives_inside_by_one_allowance():
    made = plan(
        tote(
            shape=_bag(
                "free-panel",
                {"edge": "seam", "corners": "round"},
                flap_round=F(2),
                width=F(12),
                height=F(9),
            )
        )
    )
    panel = made.bag.panels[0]
    allowance = float(panel.edges[0].allowance.value)
    inner = Polygon([(float(x), float(y)) for x, y in panel.outline]).buffer(-allowance)
    sewn = sum(float(run.sewn.value) for run in made.edging.runs)
    assert sewn == pytest.approx(inner.exterior.length, rel=3e-3)


def test_the_binding_of_a_rounded_panel_goes_round_its_curves():
    made = plan(
        tote(
            shape=_bag(
                "free-panel",
                {"edge": "bound", "corners": "round"},
                flap_round=F(2),
                width=F(12),
                height=F(9),
            )
        )
    )
    square = 12 + (12 - 2 * 2) + 2 * (9 - 2)  # bottom, top and sides between two round corners
    rounds = Point(0, 0).buffer(2, quad_segs=4000).exterior.length / 2
    assert float(made.binding.edge.value) == pytest.approx(square + rounds, abs=2e-3)
    assert made.binding.edge.value < 2 * (12 + 9)


def test_a_zipper_s_ends_are_places_to_keep_clear_of():
    made = plan(tote(shape=_bag("bound-pouch")))
    edge, places = bound_edge(made.bag)
    w, h = (float(figure.value) for figure in made.bag.finished)
    assert float(edge.value) == 2 * (w + h)
    assert len(places) == 6
    right, left = (at for at in places if at not in (0, w, w + h, 2 * w + h))
    assert right - w == pytest.approx(float(edge.value) - left)


# -- binding ----------------------------------------------------------------------------------


def test_foam_in_place_of_fleece_widens_the_binding_and_the_working_says_why():
    thin = plan(
        tote(
            panels={
                **tote().panels,
                "front": tote()
                .panels["front"]
                .model_copy(update={"layers": Layers(plies=plies("fusible-fleece"))}),
            }
        )
    )
    thick = plan(
        tote(
            panels={
                **tote().panels,
                "front": tote()
                .panels["front"]
                .model_copy(update={"layers": Layers(plies=plies("sew-in-foam"))}),
            }
        )
    )
    assert thick.binding.cut.value > thin.binding.cut.value
    said = [exact_text(m.binding.formula, m.marks.notation) for m in (thin, thick)]
    assert said[0] != said[1]
    assert thick.wall.value > thin.wall.value


@given(st.integers(20, 80), st.integers(2, 5), st.floats(0, 12))
def test_a_binding_begins_where_its_joins_are_farthest_from_corners(edge, strips, spare):
    """No place on a fine grid of beginnings is better by more than the grid of the search."""
    corners = (0.0, edge / 2)
    step = edge / strips + 1.7
    made = begin_strips(step, strips, spare, corners, float(edge))
    joins = tuple(step * (at + 1) for at in range(strips - 1))

    def clear(start):
        places = (start, *(start + join for join in joins))
        return min(
            min(abs(p % edge - c), edge - abs(p % edge - c)) for p in places for c in corners
        )

    best = max(clear(edge * at / 600) for at in range(600))
    assert made.clear >= best - edge / 48
    assert len(made.joins) == strips - 1
    assert begin_clear(joins, (), float(edge)).clear == edge


def test_a_loop_ends_tucked_or_joined_and_a_panel_mitred_or_butted():
    tucked = plan(tote()).binding
    joined = plan(tote(binding=Binding(print="oat", ending="diagonal"))).binding
    assert tucked.length.value - tucked.edge.value == F(5, 2) + F(1, 2)
    assert joined.length.value - joined.edge.value == joined.cut.value
    free = tote(shape=_bag("free-panel", {"edge": "bound"}))
    mitred, butted = (
        plan(applied(free, edit("", ("binding.corners", way)))).binding
        for way in ("mitred", "butted")
    )
    assert mitred.length.value - mitred.edge.value == 10  # common practice, no source
    assert butted.length.value < mitred.length.value


def test_inner_seams_are_bound_where_the_lining_is_quilted_in():
    """Single fold, 1½ wide, as long as the seam and 1 in; common practice, no source."""
    made = plan(tote(lining="quilted-in", binding=Binding(print="oat", inner=True)))
    length, width = made.edging.inner
    assert width.value == F(3, 2)
    sides = [
        run.cut.value
        for run in made.edging.runs_on("front")
        if run.name in ("left", "right", "bottom")
    ]
    assert length.value >= sum(sides)
    assert any(item.owner.kind == "inner seams" for item in made.items)
    assert plan(tote(binding=Binding(print="oat", inner=True))).edging.inner is None


@pytest.mark.parametrize(
    ("lining", "inner", "words"),
    [
        ("drop-in", False, "in a seam"),
        ("none", False, "in a seam, overcast"),
        ("quilted-in", False, "in a seam, overcast"),
        ("quilted-in", True, "in a seam, bound inside"),
    ],
)
def test_a_seam_no_lining_hides_is_overcast_or_bound(lining, inner, words):
    made = plan(tote(lining=lining, binding=Binding(print="oat", inner=inner)))
    said = {run.becomes for run in made.edging.runs_on("front") if run.finish == "seam"}
    assert said == {words}


# -- bias of whole bags --------------------------------------------------------------------


def test_bias_from_new_cloth_reaches_and_is_on_the_cut_list():
    made = plan(tote(binding=Binding(print="oat", grain="bias"), bags=3))
    (cut,) = made.edging.bias
    assert cut.reaches.value >= cut.need.value == made.binding.length.value
    (item,) = [item for item in made.items if item.owner.kind == "bias"]
    assert (item.stock, item.number.whole) == ("oat", 3)
    assert item.height.value == cut.new[1].value
    assert cut.quarters.whole >= 1
    assert not any(item.what == "binding strip" for item in made.items)
    for joint in made.edging.begin.joins:
        assert 0 <= joint <= float(made.binding.edge.value)


@pytest.mark.parametrize("units", ["inch", "metric"])
def test_higher_cloth_saves_joins_and_lower_cloth_saves_cloth(units):
    project = tote(units=units, binding=Binding(print="oat", grain="bias"))
    few, thrifty = (
        plan(applied(project, edit("", ("bias.prefer", way)))).edging.bias[0]
        for way in ("joins", "waste")
    )
    assert few.joins.whole <= thrifty.joins.whole
    assert few.new[1].value >= thrifty.new[1].value
    assert few.other.joined.joins == thrifty.joins.whole
    assert thrifty.plan.enough
    lower = thrifty.new[1].value - (1 if units == "inch" else 2 / F(254, 100))
    outline = ((0, 0), (40, 0), (40, float(lower)), (0, float(lower)))
    asked = (float(few.width.value), float(few.need.value), 0.25, 4.0, True)
    assert lower < 4 or not plan_bias((outline,), *asked).enough


def test_a_slider_is_set_where_it_meets_no_join():
    """60 from 42: the one join falls at 39, so that the first half is free for a slider."""
    project = tote(
        shape=_bag("satchel", strap_length=60, strap_width=F(3, 2)), strap=Strap(slider=True)
    )
    stock = project.stock.model_copy(update={"usable_width": F(42)})
    made = plan(project.model_copy(update={"stock": stock}))
    (strap,) = made.edging.straps
    assert strap.joins_at == (39.0,)
    assert strap.slider == "first"
    assert any("first strip" in step for step in edge_words(made, "straps"))


def test_from_three_pieces_comes_the_piping_with_the_fewest_joins(demo):
    """The demo's scraps; what is drawn is what is joined.  Front 2 × 13¼ + 10⅜, the flap's sides
    and lower edge 28.6 (its top goes into the binding), 1½ over for each."""
    made = plan(demo)
    (cut,) = made.edging.bias
    assert len(cut.outlines) == 3
    assert cut.need.value == pytest.approx(36.875 + 28.6 + 3, abs=0.1)
    assert cut.plan.enough
    assert cut.joins.whole == cut.plan.least == 4
    assert cut.other.joined.joins >= cut.joins.whole
    drawn = picture_of(made, View(Stage.EDGE, "front", leaf="bias"))
    words = {item.text for item in drawn.items if hasattr(item, "text")}
    assert {"1", "2", "3", "4", "5"} <= words


def test_a_tube_s_square_by_area_and_by_whole_lines():
    """80 of 2¼ by area: 13½ (common practice, no source); whole lines and its seams ask 14¾."""
    need, width, mark = chosen("n", 80), chosen("w", F(9, 4)), chosen("m", F(1, 8))
    assert side_by_area(need, width, mark).value == F(27, 2)
    made = plan_tube(need, width, chosen("s", F(1, 4)), mark)
    assert made.side.value == F(59, 4)
    assert made.reaches.value >= 80
    assert float(made.reaches.value) == pytest.approx(_sewn_tube(14.75, 0.25, 2.25), abs=1e-6)
    assert _sewn_tube(14.625, 0.25, 2.25) < 80


def test_a_square_by_area_with_a_whole_root_is_that_root():
    """36 of 2¼ is 81 square inches: a square of 9, not of the next mark."""
    mark = chosen("m", F(1, 8))
    assert side_by_area(chosen("n", 36), chosen("w", F(9, 4)), mark).value == 9
    metric = chosen("m", F(10, 254))
    side = side_by_area(chosen("n", F(503, 254) * 10), chosen("w", F(503, 254) * 10), metric)
    assert side.value == F(5030, 254)  # 50.3 cm, not 50.4


def _sewn_tube(side, seam, width):
    """Two triangles laid together with shapely, both seams' allowances gone; the whole lines in it,
    each measured on the cloth from one closing seam line to the other."""
    upper = Polygon([(0, 0), (side, 0), (side, side)])
    lower = Polygon([(0, -side + 2 * seam), (side, 2 * seam), (0, 2 * seam)])
    sewn = unary_union(
        [
            upper.intersection(box(0, seam, side, side)),
            lower.intersection(box(0, -side, side, seam)),
        ]
    )
    sewn = sewn.buffer(1e-9).intersection(box(seam, -side, side - seam, side))
    high = sewn.area / (sqrt(2) * (side - 2 * seam))
    middle = LineString([(-side, -side - side / 2 + seam), (2 * side, 2 * side - side / 2 + seam)])
    once = middle.intersection(sewn).length
    return int(high / width + 1e-9) * once


def test_a_strap_drawn_up_lies_double():
    """60 long, 1½ turned back at both ends: 57 let out, and half of it drawn up."""
    made = plan(
        tote(
            shape=_bag("satchel", strap_length=F(60)), strap=Strap(slider=True, turned_back=F(3, 2))
        )
    )
    (strap,) = [s for s in made.edging.straps if s.part.key == "strap"]
    assert (strap.longest.value, strap.shortest.value) == (57, F(57, 2))


@pytest.mark.parametrize(
    ("kind", "sizes", "length"),
    [
        # Zipper 11½, two ends of 4½, four corners of 3, an inch more for each.
        ("boxed-zip", {"width": 8, "depth": 4, "height": 3}, F(79, 2)),
        ("bound-pouch", {"width": 10}, 11),  # its bottom is bound outside
    ],
)
def test_inner_seams_are_bound_as_they_are(kind, sizes, length):
    quarter = F(1, 4)
    project = tote(
        shape=_bag(kind, **{key: F(value) for key, value in sizes.items()}),
        lining="quilted-in",
        binding=Binding(inner=True),
        seams=Seams(side=quarter, bottom=quarter, top=quarter, corner=quarter),
    )
    assert plan(project).edging.inner[0].value == length
    none = project.model_copy(update={"binding": Binding(inner=True, inner_zip="none")})
    both = project.model_copy(update={"binding": Binding(inner=True, inner_zip="both")})
    one = {"boxed-zip": F(25, 2), "bound-pouch": 11}[kind]
    left = plan(none).edging.inner
    assert (left[0].value if left else 0) == length - one
    assert plan(both).edging.inner[0].value == length + one
    for set_ in ("bound", "lapped"):  # then no seam takes the zipper
        free = plan(both.model_copy(update={"zipper": Zipper(set=set_)})).edging.inner
        assert (free[0].value if free else 0) == length - one


def test_a_sleeve_has_two_side_seams_and_a_satchel_no_raw_flap_edge():
    bound = {"lining": "quilted-in", "binding": Binding(inner=True, inner_zip="none")}
    sleeve = plan(tote(shape=_bag("offset-pouch", width=F(9), height=F(6)), **bound))
    assert sleeve.edging.inner[0].value == 2 * (6 + 1)
    satchel = plan(tote(shape=_bag("satchel"), **bound))
    plain = plan(tote(shape=_bag("tote"), **bound))
    assert satchel.edging.inner[0].value == plain.edging.inner[0].value


@given(st.integers(20, 300), st.integers(8, 24))
def test_a_tube_uses_no_less_cloth_than_its_strip_has(need, eighths):
    """The area identity: length times width can be no more than the square."""
    made = plan_tube(
        chosen("n", need), chosen("w", F(eighths, 8)), chosen("s", F(1, 4)), chosen("m", F(1, 8))
    )
    assert made.side.value**2 >= need * F(eighths, 8)
    assert made.side.value >= made.by_area.value
    assert made.reaches.value >= need


# -- piping, straps, zipper, cord -----------------------------------------------------------


@pytest.mark.parametrize(
    ("around", "seam", "width"),
    [
        (pi * 2.5 / 25.4, F(1, 4), F(7, 8)),
        (pi * 2.5 / 25.4, F(3, 8), F(9, 8)),
        (1.5, F(1, 4), F(2)),
        (1.5, F(3, 8), F(9, 4)),
    ],
)
def test_piping_strips_are_as_wide_as_makers_cut_them(around, seam, width):
    """2.5 mm cord at ¼ and ⅜, and a cord 1½ round; common practice, no source."""
    round_it = chosen("round", F(round(around * 1e6), 10**6))
    assert piping_strip(round_it, chosen("s", seam), "inch").value == width


def test_piping_takes_its_seam_s_allowance_and_goes_round_what_is_sewn():
    made = plan(tote(piping=Piping(panels=("front",), cord=F(5, 2) / MM_PER_INCH)))
    piping = made.edging.piping
    assert piping.allowance.value == piping.seam.value == F(3, 8)
    assert piping.strip.value == F(9, 8)
    sewn = [
        run.sewn.value
        for run in made.edging.runs_on("front")
        if run.finish == "seam" and not run.edge.notch
    ]
    assert piping.length.value == sum(sewn) + F(3, 2)
    assert piping.cord.value > piping.length.value


def test_piping_in_metric_is_rounded_to_two_millimetres():
    made = plan(tote(units="metric", piping=Piping(panels=("front",))))
    assert (made.edging.piping.strip.value * MM_PER_INCH) % 2 == 0


def test_a_strap_of_60_from_42_is_two_strips_with_one_join():
    """Common practice, no source; interfacing is twice as wide as it ends, ½ short at each end."""
    project = tote(
        shape=_bag("satchel", strap_length=60, strap_width=F(3, 2)), strap=Strap(slider=True)
    )
    stock = project.stock.model_copy(update={"usable_width": F(42)})
    (strap,) = plan(project.model_copy(update={"stock": stock})).edging.straps
    assert (strap.strips.whole, strap.joins.whole) == (2, 1)
    assert strap.part.cut.value == 6
    assert strap.finished.value == F(3, 2)
    assert [figure.value for figure in strap.interfacing] == [3, 59]
    assert strap.longest.value == 57
    assert strap.shortest.value < strap.longest.value


def test_webbing_is_bought_and_nothing_is_cut_for_it():
    made = plan(tote(shape=_bag("satchel"), strap=Strap(made="webbing")))
    (strap,) = made.edging.straps
    assert strap.webbing.value == strap.part.length.value
    assert strap.interfacing is None
    assert not any(strap.part.key in item.owner.keys for item in made.items)


def test_a_zipper_is_bought_two_longer_and_nothing_metal_is_sewn_over():
    made = plan(tote(shape=_bag("flat-pouch", width=F(9), height=F(6))))
    zipper = made.edging.zipper
    assert zipper.length.value == made.bag.zipper.spans.value + 2  # common practice, no source
    assert zipper.buy.value >= zipper.length.value
    assert zipper.topstitch.value == F(1, 8)
    tabs = plan(
        tote(
            shape=_bag("flat-pouch", width=F(9), height=F(6)),
            zipper=Zipper(teeth="metal", ends="tabs", sliders="two"),
        )
    )
    assert tabs.edging.zipper.tape.value < tabs.bag.zipper.between.value
    assert tabs.edging.zipper.sliders == 2
    assert not any(snag.key == "edge.metal" for snag in tabs.snags)


def test_a_channel_takes_half_the_cord_s_round_and_a_quarter():
    least = channel_least(chosen("cord", F(1, 4)))
    assert float(least.value) == pytest.approx(pi / 8 + 0.25, abs=1e-5)
    made = plan(tote(shape=_bag("drawstring"), cord=Cord(thick=F(1, 4))))
    cord = made.edging.cord
    assert cord.channel.value == F(3, 4) >= cord.least.value
    assert cord.each.basis is Basis.GEOMETRY


def test_a_strap_is_set_by_where_the_bag_hangs():
    """Pythagoras: half the strap, half the bag and the height make a right triangle."""
    project = tote(shape=_bag("satchel", strap_length=50))
    made = plan(project)
    length = strap_for(made.edge_task, F(22))
    longer = plan(applied(project, edit("", ("shape.sizes.strap_length", length))))
    (strap,) = longer.edging.straps
    hang = float(strap.hangs.value)
    assert hang == pytest.approx(22, abs=0.1)
    half, base = (float(length) - 3) / 2, float(made.bag.finished[0].value) / 2
    assert hypot(hang, base) == pytest.approx(half, abs=1e-3)
    short = applied(project, edit("", ("shape.sizes.strap_length", F(8))))
    assert plan(short).edging.straps[0].hangs is None


def test_a_loop_goes_over_its_button_and_a_pull_is_on_the_cut_list():
    made = plan(tote(button=Button(used=True, across=F(1), thick=F(1, 4))))
    assert made.edging.loop.value == 2 * (1 + F(1, 4)) + 2 * made.project.seams.top
    assert plan(tote()).edging.loop is None
    zipped = plan(
        tote(shape=_bag("flat-pouch", width=F(9), height=F(6)), bags=4, zipper=Zipper(pull=True))
    )
    (item,) = [item for item in zipped.items if item.owner.kind == "pull"]
    assert (item.width.value, item.height.value, item.number.whole) == (12, 1, 4)


@pytest.mark.parametrize("kind", SHAPES)
def test_what_is_said_of_an_edge_follows_the_choices(kind):
    made = plan(tote(shape=_bag(kind), button=Button(used=True)))
    for leaf in ("binding", "bias", "piping", "straps", "closing", "nothing"):
        for step in edge_words(made, leaf):
            assert step.endswith(".")
    if made.binding is not None:
        hand = plan(
            applied(made.project, edit("", ("binding.sewn", "hand"), ("binding.first", "back")))
        )
        assert "topstitch" in edge_words(made, "binding")[-1]
        assert "to the front" in edge_words(hand, "binding")[-1]
        assert "by hand" in edge_words(hand, "binding")[-1]


# -- pieces typed --------------------------------------------------------------------------


def test_pieces_are_typed_as_sizes_or_by_their_corners():
    assert read_pieces("8 × 15", "inch") == (BiasPiece(width=F(8), height=F(15)),)
    assert len(read_pieces("8 x 15 x3", "inch")) == 3
    (odd,) = read_pieces("0 0, 12 0, 9 7", "inch")
    assert odd.corners == ((0, 0), (12, 0), (9, 7))
    marks = plan(tote()).marks
    assert read_pieces(write_piece(odd, marks.notation), "inch") == (odd,)


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("0 0, 4 0, 8 0", "lie in a line"),
        ("0 0, 8 8, 8 0, 0 6", "crosses itself"),
        ("0 0, 4", "two numbers"),
        ("8 × 15 × 0", "From 1 to"),
        ("some cloth", "."),
    ],
)
def test_what_is_no_piece_is_said_in_a_sentence(text, words):
    with pytest.raises((LengthError, ValueError), match=words.replace(".", r"\.")):
        read_pieces(text, "inch")


@pytest.mark.parametrize(
    ("model", "wrong"),
    [
        (Piping, {"cord": F(0)}),
        (Piping, {"overlap": F(-1)}),
        (Cord, {"thick": F(0)}),
        (Bias, {"least": F(0)}),
        (Bias, {"pieces": ({"corners": ((0, 0), (4, 0), (8, 0))},)}),
    ],
)
def test_sizes_no_edge_has_are_refused(model, wrong):
    with pytest.raises(ValueError, match=r"\."):
        model(**wrong)


def test_a_quilted_panel_without_lines_is_bound_too():
    panels = dict(tote().panels)
    panels["front"] = panels["front"].model_copy(update={"quilting": Quilting(pattern="none")})
    assert plan(tote(panels=panels)).binding is not None


@pytest.mark.parametrize(("lies", "corner"), [("edge", 4), ("middle", 3)])
def test_a_boxed_corner_is_bound_as_long_as_it_is_sewn(lies, corner):
    """8 long, 4 across, 3 high: corners at the zipper are as long as the bag is wide, those on the
    halfway folds as it is high; the binding of all is both ends, the zipper and four of them."""
    shape = ShapeChoice(
        kind="boxed-zip",
        sizes={"width": F(8), "depth": F(4), "height": F(3)},
        options={"zip_lies": lies},
    )
    made = plan(tote(shape=shape, lining="quilted-in", binding=Binding(inner=True)))
    todo, named = [made.edging.inner[0]], {}
    while todo:
        one = todo.pop()
        named[one.label] = one.value
        todo += one.args if not one.label.startswith("box corner") else ()
    assert {one: named[one] for one in named if one.startswith("box corner")} == {
        f"box corner {at}": corner + 1 for at in (1, 2, 3, 4)
    }


@pytest.mark.parametrize(("units", "mark"), [("inch", F(1, 8)), ("metric", F(10, 254))])
def test_a_strap_for_so_far_down_is_cut_up_to_a_mark_of_the_ruler(units, mark):
    """Two sides over half the bag and 20 down, and 1½ turned back at both ends; 11 wide and in
    inches 44.485."""
    made = plan(tote(shape=_bag("satchel", width=F(11), height=F(12)), units=units))
    wanted = 2 * hypot(20, float(made.bag.finished[0].value) / 2) + 3
    length = strap_for(made.edge_task, F(20))
    assert length % mark == 0
    assert 0 <= length - F(wanted) < mark
    if units == "inch":
        assert length == F(89, 2)


def test_without_corners_a_binding_begins_a_quarter_round():
    begin = begin_clear((10.0, 30.0), (), 28.0)
    assert (begin.at, begin.joins, begin.clear) == (7.0, (17.0, 9.0), 28.0)
