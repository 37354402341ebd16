"""The largest bag of which every part comes out of the cloths there are (areas by hand)."""

import pytest

from tessil.core.cutting.acts.reaching import largest_bag, largest_of_each
from tessil.core.cutting.acts.whole import Source, lots_of
from tessil.core.edits import applied, edit
from tessil.core.numbers.exact import Fraction
from tessil.core.panels.choice import PanelChoices
from tessil.core.piecing.choice import Piecing
from tessil.core.plan import plan
from tessil.core.quilting.choice import Quilting
from tessil.core.sandwich.choice import Layers
from tests.outside.test_every_shape_on_paper import project_of

F = Fraction
PLAIN = PanelChoices(
    piecing=Piecing(way="whole", prints=("oat",)),
    layers=Layers(plies=()),
    quilting=Quilting(pattern="none"),
)


def pouch(**changes):
    """A pouch of one cloth outside, nothing under it, of another inside; 9 × 6."""
    base = project_of("flat-pouch")
    lining = PLAIN.model_copy(update={"piecing": Piecing(way="whole", prints=("river",))})
    sizes = edit("", ("shape.way", "finished"), ("shape.sizes", {"width": F(9), "height": F(6)}))
    made = applied(base, sizes)
    panels = {"front": PLAIN, "lining": lining}
    return made.model_copy(update={"panels": panels, **changes})


def cloth(stock, width, length, at=1):
    return Source(f"{stock}.{at}", stock, F(width), F(length))


def areas(made, stock):
    return sum(
        want.width * want.height * want.number
        for lot in lots_of([made])
        if lot.stock == stock
        for want in lot.wants
    )


def found_of(project, *sources):
    made = plan(project)
    found = largest_bag(made, sources, plan)
    return found, plan(applied(project, found.edit)) if found.sizes else None


def test_every_part_comes_out_and_a_size_more_would_not():
    sources = cloth("oat", 20, 20), cloth("river", 30, 30)
    found, after = found_of(pouch(), *sources)
    assert areas(after, "oat") <= 400
    assert found.limit
    wider = dict(after.project.shape.sizes)
    grown = {key: value * F(5, 4) for key, value in wider.items() if key in ("width", "height")}
    bigger = plan(applied(after.project, edit("", ("shape.sizes", {**wider, **grown}))))
    assert areas(bigger, "oat") > 400 or areas(bigger, "river") > 900 or grown["width"] > 20


def test_the_lining_limits_it_as_well_as_the_outside():
    large, _ = found_of(pouch(), cloth("oat", 40, 40), cloth("river", 40, 40))
    small, after = found_of(pouch(), cloth("oat", 40, 40), cloth("river", 14, 14))
    assert small.sizes[0] < large.sizes[0]
    assert small.limit == plan(pouch()).project.print_of("river").name
    assert areas(after, "river") <= 14 * 14


def test_a_cloth_of_which_nothing_is_there_is_bought_and_limits_nothing():
    found, _ = found_of(pouch(), cloth("oat", 40, 40))
    assert found.sizes[0] > 9


def test_one_size_may_be_held():
    shape = pouch().shape
    held = shape.model_copy(update={"cloth": shape.cloth.model_copy(update={"keep": "width"})})
    found, _ = found_of(pouch(shape=held), cloth("oat", 24, 30), cloth("river", 24, 30))
    assert found.sizes[0] == 9
    assert found.sizes[1] > 6


def test_a_zipper_in_hand_is_minded():
    free, _ = found_of(pouch(), cloth("oat", 40, 40), cloth("river", 40, 40))
    zipper = pouch().zipper.model_copy(update={"length": F(12)})
    found, after = found_of(pouch(zipper=zipper), cloth("oat", 40, 40), cloth("river", 40, 40))
    assert found.sizes[0] < free.sizes[0]
    assert found.limit == "the zipper in hand"
    assert after.bag.zipper.length.value <= 12


def test_a_print_with_an_up_is_not_turned():
    """Two panels of about 10 × 6½ lie side by side on 21 × 7 upright; turned cloth gives less."""
    prints = tuple(
        one.model_copy(update={"directional": one.key == "oat"}) for one in pouch().prints
    )
    level, _ = found_of(pouch(prints=prints), cloth("oat", 30, 9), cloth("river", 40, 40))
    upright, _ = found_of(pouch(prints=prints), cloth("oat", 9, 30), cloth("river", 40, 40))
    assert level.sizes[0] != upright.sizes[0]


def test_from_next_to_nothing_there_is_no_bag():
    found = largest_bag(plan(pouch()), (cloth("oat", 1, 1),), plan)
    assert (found.sizes, found.edit.changes) == ((), ())
    assert found.limit == plan(pouch()).project.print_of("oat").name


def test_it_may_be_stopped_and_keeps_the_largest_so_far():
    heard = []

    def told(share):
        heard.append(share)
        return len(heard) < 2

    made = plan(pouch())
    found = largest_bag(made, (cloth("oat", 40, 40), cloth("river", 40, 40)), plan, told)
    assert len(heard) == 2
    assert found.sizes[0] >= 9


@pytest.mark.parametrize("key", ["tote", "satchel", "sleeve", "boxed-zip"])
def test_other_shapes_with_flaps_straps_and_linings(key):
    base = project_of(key)
    made = plan(base)
    stocks = {lot.stock for lot in lots_of([made]) if not lot.material}
    sources = tuple(cloth(stock, 21, 18, at) for stock in stocks for at in range(3))
    found = largest_bag(made, sources, plan)
    assert found.sizes
    after = plan(applied(base, found.edit))
    for stock in stocks:
        assert areas(after, stock) <= 3 * 21 * 18


def test_several_shapes_from_the_same_cloths_each_as_large_as_it_comes_out():
    """Every one that is told takes no more of a cloth than lies there; the largest front first;
    a stop after the first leaves what was found."""
    sources = cloth("oat", 24, 30), cloth("river", 24, 30)
    every = largest_of_each(plan(pouch()), sources, plan)
    names = [one.name for one in every]
    assert len(names) == len(set(names)) > 5
    found = [one.found for one in every if one.found.sizes]
    assert len(found) > 4
    fronts = [one.sizes[0] * one.sizes[1] for one in found]
    assert fronts == sorted(fronts, reverse=True)
    alone, _ = found_of(pouch(), *sources)
    assert alone.sizes in [one.sizes for one in found]
    stopped = largest_of_each(plan(pouch()), sources, plan, lambda far: far < 0.05)
    assert len(stopped) <= 1
