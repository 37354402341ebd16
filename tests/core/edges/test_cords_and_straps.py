"""One cord or two, at the seams or through eyelets; webbing in a cover of cloth, joins on the slant
or straight (common practice, no source; by hand)."""

from math import ceil

import pytest

from tessil.core.brief.choice import ShapeChoice
from tessil.core.cutting.acts.shopping import wares_of
from tessil.core.edges.choice import Strap
from tessil.core.edges.presets import CARRIED, CORDS
from tessil.core.making.acts.whole import making_of
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tests.outside.test_every_shape_on_paper import project_of

F = Fraction


def sack(**options):
    return plan(project_of("drawstring", shape=ShapeChoice(kind="drawstring", options=options)))


def wares(made, kind):
    return [
        (w.number.value, w.size.value if w.size else None) for w in wares_of(made) if w.kind == kind
    ]


@pytest.mark.parametrize(
    ("cords", "out", "number", "eyelets", "ends"),
    [
        ("two", "seams", 2, 0, 2),
        ("one", "seams", 1, 0, 1),
        ("two", "eyelets", 2, 4, 2),
        ("one", "eyelets", 1, 2, 1),
    ],
)
def test_cords_and_where_they_come_out(cords, out, number, eyelets, ends):
    """Each once round and both its tails: 2 × flat + 2 × tail, however many there are."""
    made = sack(cords=cords, cords_out=out)
    flat = made.bag.figure("opening-flat").value
    tail = made.sizes["tail"].value
    (part,) = [one for one in made.bag.attachments if one.key == "cord"]
    assert (part.length.value, part.number) == (2 * flat + 2 * tail, number)
    assert wares(made, "cord") == [(number, part.length.value)]
    assert [count for count, _ in wares(made, "eyelet")] == ([eyelets] if eyelets else [])
    assert len([hang for hang in made.bag.net.hangs if hang.key == "cord"]) == ends
    steps = making_of(made, made.project.making)
    assert not steps.broken
    whats = [deed.what for deed in steps.deeds]
    assert ("cord.eyelets" in whats) == (out == "eyelets")
    assert ("cord.thread" in whats) == (cords == "two")


def test_one_cord_through_eyelets_comes_out_in_the_middle():
    made = sack(cords="one", cords_out="eyelets")
    (hang,) = [hang for hang in made.bag.net.hangs if hang.key == "cord"]
    band = made.panel("band").panel
    assert hang.ends[0][2][0] == band.width.value / 2


def strapped(length=60, **strap):
    sizes = {"strap_length": F(length), "strap_width": F(3, 2)}
    shape = ShapeChoice(kind="satchel", sizes=sizes)
    made = plan(project_of("satchel", shape=shape, strap=Strap(**strap)))
    return made, next(one for one in made.edging.straps if one.part.key == "strap")


def cut_strips(made):
    return [
        (i.number.value, i.width.value, i.height.value)
        for i in made.items
        if i.owner.kind == "part" and i.owner.keys == ("strap",) and i.what == "strip to fold"
    ]


def test_webbing_in_a_cover_of_cloth():
    """1½ webbing 60 long; its cover twice as wide, ½ short at each end: 3 × 59, of two strips."""
    made, strap = strapped(made="covered")
    assert strap.webbing.value == strap.part.length.value
    assert (strap.strip.width.value, strap.strip.length.value) == (
        2 * strap.finished.value,
        strap.part.length.value - 1,
    )
    ((number, _, high),) = cut_strips(made)
    assert (number, high) == (strap.strips.whole, 2 * strap.finished.value)
    assert wares(made, "webbing")
    assert "strap.cover" in [deed.what for deed in making_of(made, made.project.making).deeds]


@pytest.mark.parametrize(("joins", "takes"), [("diagonal", 6), ("straight", F(1, 2))])
def test_what_a_join_takes(joins, takes):
    """A strip 6 wide takes 6 of each strip on the slant and ½ straight: 110 of 40 wide cloth."""
    _, strap = strapped(length=110, joins=joins)
    assert strap.part.cut.value == 6
    length = strap.part.length.value
    assert strap.strips.whole == ceil((length - takes) / (40 - takes))


def test_a_strap_of_a_top_and_a_stiffened_underside():
    """1½ wide and 30 long: two strips 2 wide, ¼ pressed in at each edge; the underside stiffened as
    wide as the strap ends and ½ short at both ends: 1½ × 29."""
    made, strap = strapped(length=30, made="underside")
    assert [(n, w, h) for n, w, h in cut_strips(made)] == [(2 * made.project.bags, 30, 2)]
    firm = next(i for i in made.items if i.owner.keys == ("strap",) and i.what == "interfacing")
    assert (firm.width.value, firm.height.value) == (29, F(3, 2))
    assert strap.webbing is None
    assert "strap.underside" in [deed.what for deed in making_of(made, made.project.making).deeds]


def test_webbing_is_thinner_where_it_is_sewn_in_than_folded_cloth():
    """A strap in the side seams: one webbing of 1½ mm against four layers of cotton."""

    def layers(way):
        made, _ = strapped(length=30, made=way)
        spots = [s for p in made.panels for s in made.spots_on(p.key) if s.kind == "hung"]
        return {s.layers for s in spots if s.label.startswith("strap")}

    (cloth,), (webbing,) = layers("cloth"), layers("webbing")
    assert cloth - webbing == 3


def test_bare_webbing_has_no_joins_and_no_cloth():
    made, strap = strapped(length=110, made="webbing")
    assert (strap.joins.value, strap.strip) == (0, None)
    assert cut_strips(made) == []


@pytest.mark.parametrize(
    ("made", "length", "cut"),
    [
        # Cloth: a strip of that length, 4 × 1½ wide; stiffened but for ½ in at either end.
        ("cloth", F(3), {("strip to fold", F(3), F(6)), ("interfacing", F(2), F(3))}),
        ("cloth", F(1), {("strip to fold", F(1), F(6))}),
        ("cloth", F(1, 2), {("strip to fold", F(1, 2), F(6))}),
        # A cover runs as far as the stiffening of cloth would; the webbing is bought by its length.
        ("covered", F(3), {("strip to fold", F(2), F(3))}),
        ("covered", F(1), set()),
        ("covered", F(1, 2), set()),
    ],
)
def test_between_ends_that_take_all_of_a_strap_nothing_is_cut(made, length, cut):
    shape = ShapeChoice(kind="satchel", sizes={"strap_length": length, "strap_cut": F(6)})
    bag = plan(project_of("satchel", shape=shape, strap=Strap(made=made)))
    found = {
        (item.what, item.width.value, item.height.value)
        for item in bag.items
        if item.owner.keys == ("strap",)
    }
    assert found == cut
    covers = [
        deed for deed in making_of(bag, bag.project.making).deeds if deed.what == "strap.cover"
    ]
    assert len(covers) == (made == "covered" and bool(cut))


@pytest.mark.parametrize(("length", "longest"), [(F(3), None), (F(25, 8), F(1, 8))])
def test_a_slider_runs_on_what_is_left_between_its_ends(length, longest):
    """Turned back 1½ at both ends."""
    shape = ShapeChoice(kind="satchel", sizes={"strap_length": length})
    made = plan(project_of("satchel", shape=shape, strap=Strap(slider=True)))
    (strap,) = [one for one in made.edging.straps if one.part.key == "strap"]
    assert (strap.longest and strap.longest.value) == longest
    threads = [one for one in making_of(made, made.project.making).deeds if "thread" in one.what]
    assert len(threads) == (longest is not None)
    blocked = [snag.why for snag in made.snags if snag.key == "edge.strap.back"]
    assert len(blocked) == (longest is None)
    if blocked:
        assert blocked[0].startswith("Turned back 1½ in at both ends, nothing is left of 3 in")


@pytest.mark.parametrize(
    ("way", "inches", "centimetres"),
    [
        ("hand", (14, 18, 22), (36, 46, 56)),
        ("shoulder", (24, 28, 34), (60, 70, 86)),
        ("child", (32, 35, 40), (80, 90, 100)),  # across a child's body
        ("adult", (50, 60, 63), (127, 150, 160)),
    ],
)
def test_usual_straps_by_how_they_are_carried(way, inches, centimetres):
    """Least, usual and most; round in either measure, and never further apart than 2 in."""
    assert CARRIED["inch"][way] == inches
    assert CARRIED["metric"][way] == tuple(cm / F("2.54") for cm in centimetres)
    for inch, cm in zip(inches, centimetres, strict=True):
        assert abs(inch - cm / F("2.54")) < 2


def test_cords_for_piping_are_sold_by_the_millimetre():
    sizes = [(text, inches * F("25.4")) for text, inches in CORDS]
    told = [("2 mm", 2), ("2.5 mm", F(5, 2)), *((f"{mm} mm", mm) for mm in (3, 4, 5, 6, 8))]
    assert sizes == told
