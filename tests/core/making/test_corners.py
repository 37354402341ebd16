"""Corners before anything is joined: how many, how large, and in their place in the order.  By
hand from the shapes' own sizes; common practice, no source."""

import pytest

from tessil.core.brief.choice import ShapeChoice
from tessil.core.making.acts.whole import making_of
from tessil.core.making.choice import Made
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tests.outside.test_every_shape_on_paper import project_of

F = Fraction


def _deeds(key, **options):
    project = project_of(key, shape=ShapeChoice(kind=key, options=options))
    return making_of(plan(project), Made()).deeds


def _corners(deeds):
    return {
        (deed.what, *deed.panels): tuple(
            dict(deed.values)[name] for name in ("number", "wide", "high")
        )
        for deed in deeds
        if deed.what.startswith(("mark.corners", "trim.round", "trim.clip"))
    }


@pytest.mark.parametrize(
    ("key", "options", "told"),
    [
        # the flap's two corners, by the radius that is typed first
        ("clutch", {"flap_shape": "round"}, {"trim.round": ((2, F(3, 2), F(3, 2)),) * 2}),
        # clipped: ⅜ of the panel of 9¾ from either side, and as high as the radius would be
        ("clutch", {"flap_shape": "envelope"}, {"trim.clip": ((2, F(117, 32), F(3, 2)),) * 2}),
        ("clutch", {"flap_shape": "square"}, {}),
        # two at the fold, four where the zipper is sewn on, of other legs
        (
            "boxed-zip",
            {"zip_lies": "edge"},
            {
                "mark.corners-cut-fold": ((2, 2, F(13, 8)),) * 2,
                "mark.corners-cut-zip": ((4, 2, F(3, 2)),) * 2,
            },
        ),
        # a base of 3: half of it, all seams being alike; the lining is cut twice
        ("tote", {}, {"mark.corners-cut": ((2, F(3, 2), F(3, 2)),) * 2 + ((4, F(3, 2), F(3, 2)),)}),
    ],
)
def test_corners_are_told_each_kind_by_its_own_size(key, options, told):
    found = {}
    for (what, *_), values in _corners(_deeds(key, **options)).items():
        found[what] = (*found.get(what, ()), values)
    assert found == told


def test_a_corner_is_round_before_its_edge_is_stitched_and_the_panels_joined():
    whats = [(deed.what, deed.panels) for deed in _deeds("clutch")]
    shaped = whats.index(("trim.round", ("body",)))
    assert whats.index(("trim.cut", ("body",))) < shaped < whats.index(("trim.stay", ("body",)))
    joined = next(at for at, (what, _) in enumerate(whats) if what == "join.round")
    assert whats.index(("trim.round", ("lining",))) < joined
