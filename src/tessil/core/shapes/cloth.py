"""From cloth to bag: the largest bag of a shape that given pieces of cloth allow.

Tries every way of laying the panels on the pieces, straight or turned, and keeps the bag that
holds most (a flat one: that is largest).  Exact: sizes go down to the ruler's mark, never up.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from fractions import Fraction

from tessil.core.bag import Bag
from tessil.core.choices import materials_of
from tessil.core.project import PanelChoices
from tessil.core.quilting.shrinkage import draw_in
from tessil.core.quilting.wished import wished_families
from tessil.core.sandwich.layers import stack
from tessil.core.shapes.base import Brief, Shape, Sizes
from tessil.core.trouble import CannotPlan
from tessil.core.workings import Figure, count, down_to, given

MOST_CUTS = 4
ROUNDS = 8
_HEIGHTS = (Fraction(4), Fraction(8), Fraction(2))


@dataclass(frozen=True, slots=True)
class ClothFit:
    """How the cloth is used: turned or not, cut into so many, and what limits the bag.

    ``more`` says, for an inch more of width and of height, what the bag gains (square or
    cubic inches); the larger one limits.
    """

    turned: bool
    across: int
    down: int
    limits: str
    gain: Fraction


def _usable(brief: Brief, choices: PanelChoices, size: Fraction, way: str) -> Figure:
    """What is left of one side of a piece once it is quilted and squared."""
    cloth = given(f"cloth, {way}", size)
    if brief.project.shape.cloth.quilted or choices.quilting.pattern == "none":
        return cloth
    materials = stack(materials_of(brief.project), choices.layers, 0)
    draw = draw_in(wished_families(choices.quilting), brief.knowledge.constants(materials))
    strain = draw.x if way == "width" else draw.y
    squaring = given("squaring margin", brief.project.oversize.squaring)
    return ((cloth - 2 * squaring) * (1 - strain.most)).called(f"quilted cloth, {way}")


def _layouts(needed: int, pieces: int) -> Iterator[tuple[int, int]]:
    """(across, down) for one piece so that all pieces together give enough panels."""
    for across in range(1, MOST_CUTS + 1):
        for down in range(1, MOST_CUTS + 1):
            enough = pieces * across * down >= needed
            fewer = pieces * (across - 1) * down >= needed or pieces * across * (down - 1) >= needed
            if enough and not fewer:
                yield across, down


def _size_of(bag: Bag) -> Fraction:
    size = Fraction(1)
    for figure in bag.finished:
        size *= figure.value
    return size


def _panel(brief: Brief, sides: tuple[Figure, Figure], cuts: tuple[int, int]) -> Sizes:
    named = []
    for side, cut, way in zip(sides, cuts, ("width", "height"), strict=True):
        share = side if cut == 1 else side / count(f"cut {way}-wise into", cut)
        named.append(down_to(share, brief.rulers.ruler).settled(f"trimmed {way}"))
    return {"panel_width": named[0], "panel_height": named[1]}


def _best(
    brief: Brief, shape: Shape, typed: Sizes, legs: Sizes, size: tuple[Fraction, Fraction]
) -> tuple[Fraction, Sizes, bool, tuple[int, int]] | None:
    choices = brief.project.panels.get(shape.leader, PanelChoices())
    best = None
    for turned in (False, True):
        w, h = (size[1], size[0]) if turned else size
        sides = (_usable(brief, choices, w, "width"), _usable(brief, choices, h, "height"))
        for cuts in _layouts(shape.cloths, brief.project.shape.cloth.pieces):
            sizes = {**typed, **legs, **_panel(brief, sides, cuts)}
            if shape.from_piece is not None:
                sizes = {**sizes, **shape.from_piece(brief, sizes)}
            try:
                score = _size_of(shape.build(brief, sizes))
            except CannotPlan:
                continue
            if best is None or score > best[0]:
                best = (score, sizes, turned, cuts)
    return best


def _beginnings(brief: Brief, shape: Shape, typed: Sizes) -> list[Sizes]:
    """Sizes to begin from: a flap or band that nobody typed as for bags of several heights."""
    open_keys = [key for key in shape.proportions if key not in brief.project.shape.sizes]
    if not open_keys:
        return [typed]
    found: list[Sizes] = []
    for height in _HEIGHTS:
        as_if = {**typed, "height": given("height", height)}
        begun = {key: shape.proportions[key](as_if) for key in open_keys}
        found.append({**typed, **begun})
    return found


def _proportioned(brief: Brief, shape: Shape, sizes: Sizes) -> Sizes:
    """Grow what nobody typed into its proportion to the bag, as far as the cloth allows.

    The bag changes with it, so this is repeated until it settles; each round shrinks the
    difference to a share of itself.
    """
    open_keys = [key for key in shape.proportions if key not in brief.project.shape.sizes]
    for _ in range(ROUNDS if open_keys else 0):
        bag = shape.build(brief, sizes)
        finished = dict(zip(shape.finished_keys, bag.finished, strict=True))
        grown = {
            key: down_to(shape.proportions[key](finished), brief.rulers.ruler).settled(key)
            for key in open_keys
        }
        trial = {**sizes, **grown}
        if shape.from_piece is not None:
            trial |= shape.from_piece(brief, {**trial, "panel_height": bag.finished[1]})
        try:
            shape.build(brief, trial)
        except CannotPlan:
            break
        sizes = trial
    return sizes


def from_cloth(brief: Brief, shape: Shape, typed: Sizes) -> tuple[Sizes, ClothFit]:
    """Panel sizes of the largest bag, keeping the typed depth, flap and the like.

    Raises CannotPlan if no bag of this shape comes out of the cloth.
    """
    cloth = brief.project.shape.cloth
    legs = {k: v for k, v in shape.to_panel(brief, typed).items() if k.startswith("notch")}
    size = (cloth.width, cloth.height)
    best = None
    for begin in _beginnings(brief, shape, typed):
        typed, best = begin, _best(brief, shape, begin, legs, size)
        if best is not None:
            break
    if best is None:
        raise CannotPlan("shape.cloth.width", "No bag of this shape comes out of so little cloth.")
    score, sizes, turned, (across, down) = best
    wider = _best(brief, shape, typed, legs, (size[0] + 1, size[1]))
    higher = _best(brief, shape, typed, legs, (size[0], size[1] + 1))
    more_wide = wider[0] - score if wider else Fraction(0)
    more_high = higher[0] - score if higher else Fraction(0)
    limits = "width" if more_wide >= more_high else "height"
    sizes = _proportioned(brief, shape, sizes)
    return sizes, ClothFit(turned, across, down, limits, max(more_wide, more_high))
