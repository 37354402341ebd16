"""From cloth to bag: the largest bag of a shape that given pieces of cloth allow.

Every panel must come out of the pieces at the size it is cut: divided first, and only then drawn in
by its quilting.  Tries ways of sharing the pieces out, straight or turned, and keeps the bag that
holds most (a flat one: that is largest).  Sizes go down to the ruler's mark, never up.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping, Sequence
from itertools import product
from math import ceil, floor

from tessil.core.bag.model import Bag, Panel
from tessil.core.brief.choice import Cloth
from tessil.core.catalogue import Material
from tessil.core.logbook.flow import Knowledge
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Inches
from tessil.core.numbers.records import Record
from tessil.core.numbers.rows import ToLay, fill_rows
from tessil.core.numbers.workings import Figure, count, down_to, given, number
from tessil.core.panels.choice import Oversize, PanelChoices
from tessil.core.panels.ruled import ENDS_OF, longer_by
from tessil.core.quilting.patterns import wished_families
from tessil.core.quilting.shrinkage import draw_in
from tessil.core.sandwich.layers import stack
from tessil.core.shapes.base import Brief, Shape, Sizes
from tessil.core.shapes.trial import body_if
from tessil.core.trouble import CannotPlan

MOST_CUTS = 4
ROUNDS = 8
FINE = 5080  # steps of an inch in which pieces are laid: ⅛ in and 1 mm are whole numbers of them
MOST_KINDS = 4  # of panels that are each tried both ways round on the cloth
_FIRST_HEIGHTS = (Fraction(1, 2), Fraction(1, 4), Fraction(1, 8))  # of the panel, to begin with
Needs = tuple[Inches, Inches]
Entry = tuple[str, int, int, int]  # label, width and height in fine steps, how many


class ClothFit(Record, frozen=True):
    """How the cloth is used: turned or not, its largest panels so many across and down, what lies
    in the rows of each piece, and what limits the bag.

    ``gain`` says, for an inch more of width or of height, what the bag gains at most (square or
    cubic inches).  ``linings`` tells whether they come out of it too.
    """

    turned: bool
    across: int
    down: int
    rows: tuple[tuple[str, ...], ...]
    limits: str
    gain: Fraction
    linings: bool


class _Losses(Record, frozen=True):
    """From a piece as it is cut to the panel as it is trimmed, and back, one way."""

    most: Figure  # the share that quilting takes at the bad end of its range; nothing if it is done
    oversize: str
    extra: Figure  # squaring or a fixed margin, in all
    step: Figure  # that a top is pieced up to
    ruler: Figure

    def trimmed(self, share: Figure, way: str) -> Figure:
        """What is left of a piece once it is quilted and squared."""
        if not self.most.value or self.oversize == "none":
            made = share
        elif self.oversize == "fixed":
            made = down_to(share, self.step) - self.extra
        else:
            made = (down_to(share, self.step) - self.extra) * (1 - self.most)
        return down_to(made, self.ruler).settled(f"trimmed {way}")

    def cut(self, trimmed: Inches) -> Inches:
        """What such a panel takes of the cloth."""
        if not self.most.value or self.oversize == "none":
            return trimmed
        if self.oversize == "fixed":
            larger = trimmed + self.extra.value
        else:
            larger = trimmed / (1 - self.most.value) + self.extra.value
        return -(-larger // self.step.value) * self.step.value


class ClothTask(Record, frozen=True):
    """What the search for the largest bag reads.

    ``choices`` are the leading panel's; ``typed`` the keys of the sizes that somebody typed;
    ``zipper`` is how long the one in hand is.
    """

    brief: Brief
    shape: Shape
    cloth: Cloth
    choices: PanelChoices
    oversize: Oversize
    materials: Mapping[str, Material]
    knowledge: Knowledge
    typed: frozenset[str]
    zipper: Inches | None = None


def _losses(task: ClothTask) -> tuple[_Losses, _Losses]:
    """What each way takes of the leading panel, by its wished lines."""
    choices, oversize, rulers = task.choices, task.oversize, task.brief.rulers
    none = number(0)
    most = none, none
    if not task.cloth.quilted and choices.quilting.pattern != "none":
        materials = stack(task.materials, choices.layers, 0)
        draw = draw_in(wished_families(choices.quilting), task.knowledge.constants(materials))
        most = draw.x.most, draw.y.most
    extra = (
        given("fixed margin", oversize.fixed)
        if oversize.way == "fixed"
        else 2 * given("squaring margin", oversize.squaring)
    )
    step, ruler = rulers.piece_step, rulers.ruler
    return tuple(_Losses(share, oversize.way, extra, step, ruler) for share in most)  # type: ignore[return-value]


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


class _Search:
    """One shape, one cloth: which sizes come out of it."""

    def __init__(self, task: ClothTask, needs: dict[str, Needs]) -> None:
        self.brief, self.shape, self.cloth = task.brief, task.shape, task.cloth
        self.across, self.down = _losses(task)
        self.open_keys = [key for key in task.shape.proportions if key not in task.typed]
        self.needs = needs  # what panels were found to take more than by their wished lines
        self.linings = self.cloth.lining and not self.cloth.quilted and task.brief.has_lining
        self.zipper = task.zipper
        self.turns = (False,) if self.cloth.directional else (False, True)
        self.held: dict[int, Figure] = {}  # sides of the leading panel that are to be just so

    def counts(self, panel: Panel) -> bool:
        """Whether a panel comes out of this cloth."""
        if panel.made_of:
            return False
        return panel.kind in ("outer", "plain") or (panel.kind == "lining" and self.linings)

    def takes(self, panel: Panel) -> Needs:
        """The cloth that a panel is cut from, width and height."""
        width, height = panel.width.value, panel.height.value
        if panel.kind == "outer":
            width, height = self.across.cut(width), self.down.cut(height)
        longer = [longer_by(panel, way) for way in ENDS_OF]
        spare = [Fraction(0) if by is None else by.value for by in longer]
        more = self.needs.get(panel.key, (Fraction(0), Fraction(0)))
        return width + spare[0] + more[0], height + spare[1] + more[1]

    def rows(self, bag: Bag, size: Needs) -> tuple[tuple[str, ...], ...] | None:
        """What lies in each row of the pieces, if all panels come out of them."""
        wanted = [self._entry(panel) for panel in bag.panels if self.counts(panel)]
        wide, high = (floor(side * FINE) for side in size)
        area = sum(width * height * many for _, width, height, many in wanted)
        if area > wide * high * self.cloth.pieces:
            return None
        kinds = sorted({entry[1:3] for entry in wanted}, reverse=True)[:MOST_KINDS]
        sheets = ((wide, high), (high, wide))[: len(self.turns)]
        for ways in product(self.turns, repeat=len(kinds)):
            turned = dict(zip(kinds, ways, strict=True))
            pieces = [_laid(entry, turned.get(entry[1:3], False)) for entry in wanted]
            for along, up in sheets:
                found = _fitted(pieces, along, up, self.cloth.pieces)
                if found is not None:
                    return found
        return None

    def _entry(self, panel: Panel) -> Entry:
        width, height = self.takes(panel)
        return panel.label, ceil(width * FINE), ceil(height * FINE), panel.copies

    def bag(self, sizes: Sizes) -> Bag | None:
        """The bag of these sizes, if there is one that its zipper is long enough for."""
        made = body_if(self.shape, self.brief, sizes)
        if made is None or self.zipper is None or made.zipper is None:
            return made
        return made if made.zipper.length.value <= self.zipper else None

    def most(self, sizes: Sizes) -> Fraction | None:
        """What a bag of these sizes holds, whatever its zipper: none that is smaller holds more."""
        made = body_if(self.shape, self.brief, sizes)
        return None if made is None else _size_of(made)

    def hold(self, typed: Sizes) -> None:
        """Keep the finished size that is to be just so, by the side of the panel it takes."""
        if self.cloth.keep != "none":
            way = 0 if self.cloth.keep == "width" else 1
            key = (self.shape.panel_width, self.shape.panel_height)[way]
            self.held = {way: self.shape.to_panel(self.brief, typed)[key]}

    def sides(self, shares: tuple[Figure, Figure]) -> tuple[Figure, Figure] | None:
        """The sides of the leading panel in its share of the cloth, if what is held is no more."""
        if any(self.held[way].value > shares[way].value for way in self.held):
            return None
        return self.held.get(0, shares[0]), self.held.get(1, shares[1])

    def leader(self, typed: Sizes, sides: tuple[Figure, Figure]) -> Sizes:
        """The sizes with the leading panel as large as these trimmed sides; what nobody typed (a
        flap, a band) is in proportion to the bag that comes of it."""
        open_keys = self.open_keys
        made = self._with_piece(typed, sides)
        for share in _FIRST_HEIGHTS if open_keys else ():
            made = self._with_piece(self._in_proportion(typed, sides[1] * share, open_keys), sides)
            if self.bag(made) is not None:
                break
        for _ in range(ROUNDS if open_keys else 0):
            bag = self.bag(made)
            if bag is None:
                break
            finished = dict(zip(self.shape.finished_keys, bag.finished, strict=True))
            grown = self._in_proportion({**made, **finished}, finished["height"], open_keys)
            trial = self._with_piece({**made, **{key: grown[key] for key in open_keys}}, sides)
            if all(trial[key].value == made[key].value for key in open_keys):
                break
            if self.bag(trial) is None:
                break
            made = trial
        return made

    def _with_piece(self, sizes: Sizes, sides: tuple[Figure, Figure]) -> Sizes:
        made = {**sizes, "panel_width": sides[0], "panel_height": sides[1]}
        if self.shape.from_piece is not None:
            made = {**made, **self.shape.from_piece(self.brief, made)}
        return made

    def _in_proportion(self, sizes: Sizes, height: Figure, open_keys: list[str]) -> Sizes:
        """What nobody typed, in proportion to a bag so high, down to the ruler's mark."""
        as_if, ruler = {**sizes, "height": height}, self.brief.rulers.ruler
        proportions = self.shape.proportions
        grown = {key: down_to(proportions[key](as_if), ruler).settled(key) for key in open_keys}
        return {**sizes, **grown}

    def fits(self, sizes: Sizes, size: Needs) -> bool:
        """Whether a bag of these sizes can be made, and comes out of the pieces."""
        bag = self.bag(sizes)
        return bag is not None and self.rows(bag, size) is not None


def _laid(entry: Entry, turned: bool) -> ToLay[str]:
    name, width, height, many = entry
    along, high = (height, width) if turned else (width, height)
    return ToLay(name, along, high, many)  # type: ignore[arg-type]


def _fitted(
    pieces: Sequence[ToLay[str]], wide: int, high: int, sheets: int
) -> tuple[tuple[str, ...], ...] | None:
    """Rows across sheets of one size, the highest first; None where they do not all go in."""
    if any(piece.along > wide or piece.high > high for piece in pieces):
        return None
    room = [high] * sheets
    laid = []
    for row in fill_rows(pieces, wide):  # type: ignore[arg-type]
        for _ in range(row.times):
            at = next((at for at, left in enumerate(room) if left >= row.high), None)
            if at is None:
                return None
            room[at] -= int(row.high)
            names = (f"{name} ×{many}" if many > 1 else name for name, _, _, many in row.pieces)
            laid.append(tuple(names))
    return tuple(laid)


Way = tuple[bool, tuple[int, int]]  # turned, and the leading panels across and down a piece
Found = tuple[Fraction, Sizes, bool, tuple[int, int]]


def _best(search: _Search, typed: Sizes, size: Needs, only: Way | None = None) -> Found | None:
    """The bag that holds most, of all ways to share the pieces out, or of ``only`` one.

    No bag holds more than its leading panel would allow if nothing else were cut: the most
    promising are tried first, and what cannot be better is not tried.
    """
    best: Found | None = None
    for bound, sides, (turned, cuts) in _promising(search, typed, size, only):
        if best is not None and bound <= best[0]:
            break
        for sizes in _shrunk_to_fit(search, typed, sides, size):
            bag = search.bag(sizes)
            if bag is not None and (best is None or _size_of(bag) > best[0]):
                best = (_size_of(bag), sizes, turned, cuts)
    return best


def _promising(
    search: _Search, typed: Sizes, size: Needs, only: Way | None
) -> list[tuple[Fraction, tuple[Figure, Figure], Way]]:
    """Ways to share the pieces out, with the most that each could hold, the best first."""
    cloths = search.shape.cloths
    wanted = {cloths, 2 * cloths} if search.linings else {cloths}
    tried = {cuts for many in wanted for cuts in _layouts(many, search.cloth.pieces)}
    ways = [only] if only else list(product(search.turns, sorted(tried)))
    found = []
    for turned, cuts in ways:
        wide, high = size[::-1] if turned else size
        sides = search.sides(
            (
                search.across.trimmed(_share(wide, cuts[0], "width"), "width"),
                search.down.trimmed(_share(high, cuts[1], "height"), "height"),
            )
        )
        if sides is None:
            continue
        bound = search.most(search.leader(typed, sides))
        if bound is not None:
            found.append((bound, sides, (turned, cuts)))
    return sorted(found, key=lambda entry: (-entry[0], entry[2]))


def _share(side: Inches, cuts: int, way: str) -> Figure:
    whole = given(f"cloth, {way}", side)
    return whole if cuts == 1 else whole / count(f"cut {way}-wise into", cuts)


def _shrunk_to_fit(
    search: _Search, typed: Sizes, sides: tuple[Figure, Figure], size: Needs
) -> Iterator[Sizes]:
    """The leading panel as large as its share; where the others then find no room, the largest
    below it in height, and in width."""
    sizes = search.leader(typed, sides)
    if search.fits(sizes, size):
        yield sizes
        return
    for way in (0, 1):
        if way in search.held:
            continue
        made = _largest(search, typed, sides, size, way)
        if made is not None:
            yield made


def _largest(
    search: _Search, typed: Sizes, sides: tuple[Figure, Figure], size: Needs, way: int
) -> Sizes | None:
    """The largest that fits with one side smaller, by halving, to the ruler's mark."""
    mark = search.brief.rulers.ruler.value
    low, high = 0, int(sides[way].value / mark)
    found = None
    while low < high:
        middle = (low + high + 1) // 2
        smaller = given("share that leaves room for the rest", middle * mark)
        trimmed = down_to(smaller, search.brief.rulers.ruler)
        named = trimmed.settled("trimmed width" if way == 0 else "trimmed height")
        both = (named, sides[1]) if way == 0 else (sides[0], named)
        sizes = search.leader(typed, both)
        if search.fits(sizes, size):
            low, found = middle, sizes
        else:
            high = middle - 1
    return found


def from_cloth(
    task: ClothTask, typed: Sizes, needs: dict[str, Needs] | None = None
) -> tuple[Sizes, ClothFit]:
    """Panel sizes of the largest bag, keeping the typed depth, flap and the like.

    ``needs`` is what panels take more of the cloth, each way, than their wished lines say.
    Raises CannotPlan if no bag of this shape comes out of the cloth.
    """
    search, shape, brief = _Search(task, needs or {}), task.shape, task.brief
    legs = {k: v for k, v in shape.to_panel(brief, typed).items() if k in shape.legs}
    size = (search.cloth.width, search.cloth.height)
    search.hold(typed)
    typed = {**typed, **legs}
    best = _best(search, typed, size)
    if best is None:
        kept = f" with its {search.cloth.keep} kept" if search.held else ""
        raise CannotPlan(
            "shape.cloth.width", f"No bag of this shape{kept} comes out of so little cloth."
        )
    score, sizes, turned, (across, down) = best
    way = (turned, (across, down))
    wider = _best(search, typed, (size[0] + 1, size[1]), way)
    higher = _best(search, typed, (size[0], size[1] + 1), way)
    more_wide = wider[0] - score if wider else Fraction(0)
    more_high = higher[0] - score if higher else Fraction(0)
    limits = "width" if more_wide >= more_high else "height"
    rows = search.rows(shape.body(brief, sizes), size) or ()
    gain = max(more_wide, more_high)
    return sizes, ClothFit(turned, across, down, rows, limits, gain, search.linings)


def cloth_for(task: ClothTask) -> Callable[[Panel], Needs]:
    """How much cloth an outer panel is thought to take, by the leading panel's wished lines."""
    return _Search(task, {}).takes
