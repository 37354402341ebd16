"""What one bag takes in money: cloth by what goes into it or by what is cut open for it, batting,
hardware, thread, and what is reckoned by the hour and by the bag."""

from __future__ import annotations

from collections.abc import Iterator

from tessil.core.bag.deeds import Making
from tessil.core.costing.prices import Priced, PriceList, cloth_key, ware_key
from tessil.core.cutting.acts.shopping import Ware, wares_of
from tessil.core.cutting.acts.whole import Spread, Spreads
from tessil.core.cutting.item import SCRAP, CutItem
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.records import Record
from tessil.core.numbers.workings import Basis, Figure, Show, count, given, total
from tessil.core.planned import Plan

Stock = tuple[str, bool]  # key, and whether it is a material of the catalogue
NOTHING = given("nothing", 0, Basis.GEOMETRY, 0, "money")


class CostLine(Record, frozen=True):
    """What one thing costs for one bag; no figure where its price is not known."""

    thing: Priced
    amount: Figure
    cost: Figure | None


class Materials(Record, frozen=True):
    """Everything that goes into one bag, thing by thing."""

    lines: tuple[CostLine, ...]

    @property
    def cost(self) -> Figure:
        """All that has a price, together."""
        known = [line.cost for line in self.lines if line.cost is not None]
        return total(known or [NOTHING]).called("materials", "money")

    @property
    def missing(self) -> tuple[str, ...]:
        """What has no price yet."""
        return tuple(line.thing.name for line in self.lines if line.cost is None)


class Heap(Record, frozen=True):
    """Where the cloth of a bag comes from: which bag of the job it is, and the plan of the cuts if
    one holds; the sources of cloths that are scraps."""

    at: int = 0
    spreads: Spreads | None = None
    scraps: frozenset[str] = frozenset()


# Thread for an inch of a lockstitched seam, both threads together, in inches: thread handbooks
# say 2.5 to 3 (stitch type 301; from memory).
SEAM_THREAD = Fraction(13, 5)


def seam_thread(making: Making) -> Figure | None:
    """The thread of all seams that put a bag together, by how long they are."""
    lengths = [deed.length for deed in making.deeds if deed.seam is not None and deed.length]
    if not lengths:
        return None
    per = given("thread for an inch of seam", SEAM_THREAD, Basis.GUESS, 0)
    return (total(lengths) * per).called("thread for seams", "metres")


def materials_of(
    plan: Plan, prices: PriceList, heap: Heap, making: Making | None = None
) -> Materials:
    """What one bag takes: cloth as the maker wants it counted, and all else; thread of its seams
    too where its steps are known."""
    opened = plan.project.pricing.count == "opened"
    cloth = [
        _line(
            _cloth(plan, stock),
            _opened(plan, stock, items, heap) if opened else _length(plan, stock, items),
            prices,
        )
        for stock, items in _used(plan).items()
    ]
    wares = [_line(_ware(ware), _each(plan, ware), prices) for ware in wares_of(plan)]
    sewn = None if making is None else seam_thread(making)
    if sewn is not None:
        wares.append(_line(Priced("thread", "Thread for seams", True), sewn, prices))
    return Materials(tuple(line for line in (*cloth, *wares) if line.amount.value > 0))


def _line(thing: Priced, amount: Figure, prices: PriceList) -> CostLine:
    price = prices.of(thing)
    cost = None if price is None else (amount * price).called(thing.name, "money")
    return CostLine(thing, amount, cost)


def _cloth(plan: Plan, stock: Stock) -> Priced:
    key, material = stock
    name = plan.materials[key].name if material else plan.project.print_of(key).name
    return Priced(cloth_key(key, material), name, True)


def _width(plan: Plan, stock: Stock) -> Figure:
    key, material = stock
    made = plan.materials[key].width if material else plan.project.stock.usable_width
    return given("usable width", made)


def _used(plan: Plan) -> dict[Stock, list[CutItem]]:
    """The pieces of each stock that are paid for."""
    found: dict[Stock, list[CutItem]] = {}
    for item in plan.items:
        free = item.what == SCRAP and plan.project.pricing.scraps_free
        if item.number.value and not item.in_hand and not free:
            found.setdefault((item.stock, item.material), []).append(item)
    return found


def _length(plan: Plan, stock: Stock, items: list[CutItem]) -> Figure:
    """How long a piece of cloth they are over its whole width, for one bag."""
    bags = count("bags", plan.project.made)
    area = total([item.number * item.width * item.height for item in items]).called("pieces")
    return (area / bags / _width(plan, stock)).called("cloth used")


def _opened(plan: Plan, stock: Stock, items: list[CutItem], heap: Heap) -> Figure:
    """How long a piece of cloth is opened for one bag: its share of each cloth that is cut."""
    bags = count("bags", plan.project.made)
    if heap.spreads is not None and not heap.spreads.changed:
        parts = list(_shares(plan, stock, heap))
        return (total(parts or [given("none", 0, Basis.GEOMETRY)]) / bags).called("cloth opened")
    bought = [one for one in plan.bought if (one.stock, one.batting) == stock]
    if not bought:
        return _length(plan, stock, items)
    return (total([one.cloth.buy for one in bought]) / bags).called("cloth to buy")


def _shares(plan: Plan, stock: Stock, heap: Heap) -> Iterator[Figure]:
    assert heap.spreads is not None
    for one in heap.spreads.spreads:
        if (one.lot.stock, one.lot.material) != stock:
            continue
        if one.sheet.source in heap.scraps and plan.project.pricing.scraps_free:
            continue
        mine, every = _area(one, heap.at), _area(one, None)
        if mine:
            long = given("this cloth", one.sheet.length + one.sheet.trim, Basis.GEOMETRY)
            wide = given("its width", one.sheet.width, Basis.GEOMETRY)
            share = given("share of it", mine / every, Basis.GEOMETRY, 0, "percent")
            yield long * (wide / _width(plan, stock)) * share


def _area(spread: Spread, bag: int | None) -> Fraction:
    return sum(
        (one.box.w * one.box.h for one in spread.pieces if bag is None or one.want.bag == bag),
        Fraction(0),
    )


def _ware(ware: Ware) -> Priced:
    size = None if ware.long or ware.size is None else Fraction(ware.size.value)
    return Priced(ware_key(ware.kind, size), ware.kind.capitalize(), ware.long)


def _each(plan: Plan, ware: Ware) -> Figure:
    show: Show = "metres" if ware.kind == "thread" else "plain"
    return (ware.amount / count("bags", plan.project.made)).called(f"{ware.kind} for one", show)


class Cost(Record, frozen=True):
    """What one bag costs without its maker's time."""

    materials: Materials
    by_hour: Figure  # wear and electricity
    by_bag: Figure  # overhead and packaging

    @property
    def all(self) -> Figure:
        """All of it."""
        parts = [self.materials.cost, self.by_hour, self.by_bag]
        return total([part for part in parts if part.value] or [NOTHING]).called("cost", "money")


def cost_of(plan: Plan, materials: Materials, hours: Figure) -> Cost:
    """The cost of one bag that takes so many hours."""
    pricing = plan.project.pricing
    hourly = [("wear", pricing.wear), ("electricity", pricing.electricity)]
    bag = [("overhead", pricing.overhead), ("packaging", pricing.packaging)]
    rates, sums = ([_amount(*one) for one in rows if one[1]] for rows in (hourly, bag))
    by_hour = hours * total(rates) if rates else NOTHING
    by_bag = total(sums) if sums else NOTHING
    return Cost(
        materials,
        by_hour.called("wear and electricity", "money"),
        by_bag.called("overhead and packaging", "money"),
    )


def _amount(label: str, value: Fraction) -> Figure:
    return given(label, value, Basis.CHOSEN, 0, "money")


def things_of(plan: Plan) -> tuple[Priced, ...]:
    """All that a bag takes and that has a price, or wants one."""
    cloth = [_cloth(plan, stock) for stock in _used(plan)]
    return tuple({one.key: one for one in (*cloth, *map(_ware, wares_of(plan)))}.values())
