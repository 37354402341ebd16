"""What strips are flipped and sewn on, sections that cover each other's ends, web under squares, a
panel out of the remainder of a strip set (common practice, no source)."""

import pypdfium2
import pytest

from tessil.core.choosing import choose
from tessil.core.edits import applied, edit
from tessil.core.making.acts.whole import making_of
from tessil.core.numbers.exact import Fraction
from tessil.core.piecing.choice import Piecing, Zone
from tessil.core.plan import plan
from tessil.core.sandwich.choice import Ply
from tessil.files.printing import pdf_of
from tessil.files.templates import templates
from tests.conftest import plies, tote, with_front
from tests.outside.test_every_shape_on_paper import project_of

F = Fraction


def flipped(foundation="foundation", **more):
    return with_front(
        tote(), ("piecing.way", "flip"), ("piecing.foundation", foundation), *more.items()
    )


def sections(foundation="batting", lined=False, covers=True):
    first = Piecing(way="flip", foundation=foundation, lined=lined)
    second = first.model_copy(update={"run": "upright", "strip_cut": F(2)})
    zone = Zone(starts=F(7), piecing=second, covers=covers)
    return with_front(tote(), ("piecing", first), ("zones", (zone,)))


def under(made, what, panel="front"):
    return [
        (item.stock, item.number.value, item.width.value, item.height.value)
        for item in made.items
        if item.what == what and item.owner.keys == (panel,)
    ]


def test_squares_on_web_take_web_of_squares_times_their_size():
    """6 × 6 squares of 2½ and no more lie on 15 × 15 of web."""
    made = plan(with_front(tote(), ("piecing.way", "web"), ("piecing.square", F(5, 2))))
    top = made.panel("front").top
    wide, high = (part.number.whole * F(5, 2) for part in (top.columns, top.rows))
    assert under(made, "web") == [("gridded-web", 1, wide, high)]
    assert [one for one in made.bought if one.stock == "gridded-web"]


def test_web_is_joined_of_two_where_its_roll_is_too_narrow():
    """Web of 48: so two lie side by side, each half as wide."""
    base = project_of("free-panel")
    large = edit(
        "", ("shape.way", "panel"), ("shape.sizes", {"panel_width": F(46), "panel_height": F(46)})
    )
    made = plan(applied(base, large))
    panel = made.lead.panel
    web = plan(applied(made.project, choose(made.project, panel, "", ("piecing.way", "web"))))
    top = web.lead.top
    wide, high = (part.number.whole * part.cut.value for part in (top.columns, top.rows))
    assert min(wide, high) > 48
    ((stock, number, width, height),) = under(web, "web", "panel")
    assert (stock, number) == ("gridded-web", 2)
    assert sorted((width, height)) == sorted((min(wide, high) / 2, max(wide, high)))


@pytest.mark.parametrize(
    ("foundation", "material", "stays"),
    [
        ("foundation", "foundation-cloth", True),
        ("melting", "foundation-melting", True),
        ("paper", "foundation-paper", False),
    ],
)
def test_a_foundation_is_cut_bought_and_thick_only_where_it_stays(foundation, material, stays):
    bare, made = plan(flipped("batting")), plan(flipped(foundation))
    found = [item for item in made.items if item.stock == material]
    assert found
    size = made.panel("front").planned.values()
    assert all(item.width.value * (item.each or 1) >= min(size) for item in found)
    assert [one for one in made.bought if one.stock == material]
    front, before = made.panel("front"), bare.panel("front")
    assert (front.pressed.value > before.pressed.value) == stays


def test_strips_on_the_batting_quilt_and_on_a_foundation_only_with_the_lining_under_it():
    plain = ("quilting.pattern", "none")
    on_batting = plan(applied(flipped("batting"), edit("")))
    assert plan(with_front(flipped("batting"), plain)).panel("front").quilts
    assert not plan(with_front(flipped("foundation"), plain)).panel("front").quilts
    lined = with_front(flipped("foundation"), plain, ("piecing.lined", True))
    assert plan(lined).panel("front").quilts
    assert on_batting.panel("front").sewn_down


def test_nothing_that_melts_is_ironed():
    made = plan(flipped("melting"))
    words = [deed.what for deed in making_of(made, made.project.making).deeds]
    assert "flip.sew-finger" in words
    assert "flip.sew" not in words
    assert "set.iron" in words
    cloth = plan(flipped("foundation"))
    assert "flip.sew" in [deed.what for deed in making_of(cloth, cloth.project.making).deeds]


def test_what_is_fused_to_a_foundation_that_melts_is_a_snag_with_ways_out():
    fused = (Ply(material="fusible-fleece", rule="panel", bond="fuse"),)
    project = with_front(flipped("melting"), ("layers.plies", fused))
    made = plan(project)
    snag = next(one for one in made.snags if one.key == "piece.melts.front")
    assert "melts where fusible fleece is fused" in snag.title
    assert len(snag.fixes) == 2
    for fix in snag.fixes:
        assert not [s for s in plan(applied(project, fix)).snags if s.key == "piece.melts.front"]


def test_sections_are_sewn_one_after_the_other_on_one_foundation():
    made = plan(sections())
    assert made.panel("front").sewn_down
    steps = making_of(made, made.project.making)
    assert not steps.broken
    ids = [deed.id for deed in steps.deeds]
    second = [at for at, id_ in enumerate(ids) if id_.startswith("piece.front.1.")]
    first = [at for at, id_ in enumerate(ids) if id_.startswith("piece.front.0.")]
    assert max(first) < ids.index("piece.front.section.1") < min(second)
    assert "piece.front.parts" not in ids


def test_parts_that_do_not_cover_are_joined_as_before():
    made = plan(sections(covers=False))
    assert not made.panel("front").sewn_down
    ids = [deed.id for deed in making_of(made, made.project.making).deeds]
    assert "piece.front.parts" in ids
    assert "piece.front.section.1" not in ids


def test_each_section_draws_in_for_its_share_of_the_height():
    """Level strips draw the height in, upright ones the width: here both do."""
    level = plan(with_front(tote(), ("piecing.way", "flip"), ("quilting.pattern", "none")))
    both = plan(with_front(sections(), ("quilting.pattern", "none")))
    one, two = level.panel("front").draw, both.panel("front").draw
    assert two.x.expected.value > one.x.expected.value
    assert two.y.expected.value < one.y.expected.value
    shares = [part.family.share.value for part in two.parts]
    assert sum(shares) == 1


def test_strips_are_numbered_on_a_sheet_of_their_own(qapp):
    """A full-size sheet of the pieced top; sections are told apart by letters."""
    made = plan(sections())
    document = pypdfium2.PdfDocument(pdf_of(templates(made, large=True), "Templates"))
    assert len(document) == len(made.panels) + sum(
        any(part.choice.way == "flip" for part in panel.parts) for panel in made.panels
    )
    words = [page.get_textpage().get_text_bounded() for page in document]
    sheet = next(text for text in words if "flip and sew by the numbers" in text)
    names = {f"{'AB'[p.zone]}{p.name}" for p in made.panel("front").patches if p.piece >= 0}
    assert len(names) > 4
    assert names <= set(sheet.split())


# -- strip sets -----------------------------------------------------------------------------


def satchel_in_sets(bags=1):
    """A satchel whose flap has fewer of the same strips than its front."""
    base = project_of("satchel", bags=bags)
    made = plan(base)
    strips = Piecing(way="strips", strip_sets=True, strip_cut=F(2), prints=("oat",))
    for panel in made.panels:
        if panel.panel.kind == "outer":
            base = applied(
                base,
                choose(base, panel.panel, "", ("piecing", strips), ("quilting.pattern", "none")),
            )
    return plan(base)


@pytest.mark.parametrize(("bags", "sets"), [(1, [1]), (2, [2]), (3, [2, 1])])
def test_a_flap_comes_out_of_what_the_sets_leave_with_its_outer_strips_off(bags, sets):
    """Of 40: front and back of 12¼ and a flap of 11½ go in one set. A set holds three of 12¼,
    or two with a flap: enough for two bags. For three, the flaps need a set of their own, of four
    strips instead of six."""
    made = satchel_in_sets(bags)
    lengths = {p.key: (p.strips.along.value, len(p.strips.cuts)) for p in made.panels if p.strips}
    assert lengths == {"front": (F(49, 4), 6), "back": (F(49, 4), 6), "flap": (F(23, 2), 4)}
    assert [group.sets.whole for group in made.sets] == sets
    assert [group.narrower for group in made.sets] == [("flap",)] if len(sets) == 1 else [(), ()]
    strips = [item for item in made.items if item.what == "strip for a set"]
    each = (6,) if len(sets) == 1 else (6, 4)
    assert [item.number.whole for item in strips] == [
        n * s for n, s in zip(each, sets, strict=True)
    ]


def test_every_part_comes_onto_the_cloth_that_bears_an_iron():
    fused = with_front(
        sections("melting"), ("layers.plies", plies("fusible-fleece", rule="panel", bond="fuse"))
    )
    snag = next(one for one in plan(fused).snags if one.key == "piece.melts.front")
    fix = next(one for one in snag.fixes if one.words == "Sew it on foundation cloth")
    front = applied(fused, fix).panels["front"]
    assert front.piecing.foundation == "foundation"
    assert [zone.piecing.foundation for zone in front.zones] == ["foundation"]
