"""What the clock, the batch and a made bag leave in the log, and what a season of them says: hand
sums; common practice, no source."""

import pytest

from tessil.core.bag.deeds import OPERATIONS
from tessil.core.costing.acts.cost import Heap
from tessil.core.costing.acts.hours import (
    clock_times,
    guess_of,
    guesses_of,
    hours_of,
    time_readings,
    waiting_words,
    with_clock,
)
from tessil.core.costing.acts.levers import pay_of
from tessil.core.costing.acts.price import price_readings
from tessil.core.costing.acts.record import bag_made, choices_of, compared, scrap_share
from tessil.core.costing.prices import PriceList
from tessil.core.costing.stats import (
    day_of,
    draw_in_dots,
    first_day,
    learning_dots,
    minutes_by_work,
    minutes_dots,
    scrap_dots,
    wage_of,
    wages_by_kind,
)
from tessil.core.edits import applied, edit
from tessil.core.logbook.book import EMPTY, Book, MadeBag, Swatch, Timing
from tessil.core.making.acts.whole import making_of
from tessil.core.making.choice import Made
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Notation
from tessil.core.piecing.choice import Scrap
from tessil.core.plan import plan
from tests.conftest import tote, with_front

F = Fraction
DAY = "2026-03-14"


@pytest.fixture(scope="module")
def made():
    return plan(tote(bags=6))


@pytest.fixture(scope="module")
def making(made):
    return making_of(made, made.project.making)


def timed(making, work):
    """The first two steps of a kind of work."""
    return [deed.id for deed in making.deeds if deed.operation == work][:2]


def test_the_clock_says_a_sitting_for_each_kind_of_work(making):
    one, other = timed(making, "piece")
    (trim, *_) = timed(making, "trim")
    project = tote(bags=6, making=Made(seconds={one: 200, other: 70, trim: 1}))
    before = Timing(kind="tote", work="piece", number=4, minutes=40)
    found = {t.work: t for t in clock_times(plan(project), making, DAY, (before,))}
    assert found.keys() == {"piece", "trim"}
    piece = found["piece"]
    assert piece.minutes == 4.5  # 270 seconds
    assert found["trim"].minutes == 0.1  # the least there is
    assert (piece.number, piece.before, piece.kind, piece.bag) == (6, 4, "tote", "Test tote")
    assert (piece.date, piece.source) == (DAY, f"{project.log_name}/piece")
    assert piece.guess == guess_of(making, "piece")
    assert clock_times(plan(tote(making=Made(seconds={one: 0}))), making, DAY, ()) == ()


def test_what_a_clock_said_before_is_replaced_and_all_else_stays():
    mine = Timing(work="piece", minutes=5, source="x/piece")
    typed = Timing(work="piece", minutes=7)
    other = Timing(work="trim", minutes=9, source="x/trim")
    new = Timing(work="piece", minutes=6, source="x/piece")
    book = with_clock(Book(times=(mine, typed, other)), (new,))
    assert [one.minutes for one in book.times] == [7, 9, 6]


def test_guesses_are_the_sums_of_their_steps(making):
    found = guesses_of(making)
    for work in OPERATIONS:
        parts = [float(d.minutes.value) for d in making.deeds if d.operation == work and d.minutes]
        assert (guess_of(making, work) or 0) == pytest.approx(sum(parts))
        assert (work in found) == bool(parts)
    whole = sum(float(figure.value) for figure in found.values())
    assert guess_of(making, "all") == pytest.approx(whole)


def test_the_batch_in_figures(made, making):
    hours = hours_of(made, making, EMPTY)
    told = {reading.key: reading for reading in time_readings(made, hours)}
    assert told["time.each"].figure.value * 6 == told["time.all"].figure.value
    ready = sum(one.ready.value for one in hours.works)
    assert told["time.saved"].figure.value == ready * 5 / 6
    low, high = hours.range()
    assert low < told["time.each"].figure.value < high
    assert told["time.each"].about == f"{low:.0f} to {high:.0f} min, nine times in ten"
    assert told["time.piece"].about.startswith("not timed yet; ")
    assert "Together in" in told["time.batch"].about
    alone = plan(tote())
    single = hours_of(alone, making_of(alone, Made()), EMPTY)
    assert "time.saved" not in {reading.key for reading in time_readings(alone, single)}
    timed = Book(times=tuple(Timing(kind="tote", work="trim", minutes=9) for _ in range(2)))
    known = {r.key: r.about for r in time_readings(made, hours_of(made, making, timed))}
    assert known["time.trim"].startswith("2 sittings in your log; ")
    one = Book(times=timed.times[:1])
    known = {r.key: r.about for r in time_readings(made, hours_of(made, making, one))}
    assert known["time.trim"].startswith("1 sitting in your log; ")


def test_what_waits_is_counted_from_work_to_work(making):
    """Of six, four are pieced and one is quilted: two wait to be pieced, three to be quilted."""
    through = Made(through={"cut": 6, "piece": 4, "layer": 4, "quilt": 1})
    counted = plan(tote(bags=6, making=through))
    hours = hours_of(counted, making, EMPTY)
    said = list(waiting_words(counted, hours))
    works = [one.work for one in hours.works]
    assert "cut" in works
    assert said[0].startswith("2 wait to be taken through: ")
    assert said[0].endswith("(4 of 6 done).")
    assert any(one.startswith("3 wait") and one.endswith("(1 of 6 done).") for one in said)
    assert list(waiting_words(plan(tote(bags=6)), hours)) == []
    told = {reading.key: reading.about for reading in time_readings(counted, hours)}
    assert told["time.piece"].startswith("4 of 6 are through; ")


def priced(**changes):
    return plan(applied(tote(), edit("", *changes.items())))


PRICES = PriceList({"cloth red": F(12, 36), "cloth blue": F(9, 36), "cloth oat": F(6, 36)}, {})


def test_a_bag_made_is_written_down_as_it_was_planned():
    done = priced(**{"sale.price": "60", "sale.buyer": "Ida", "pricing.currency": "EUR"})
    pay = pay_of(done, EMPTY, PRICES, Heap())
    bag = bag_made(done, pay, DAY)
    assert (bag.name, bag.kind, bag.date, bag.number) == ("Test tote", "tote", DAY, 1)
    assert bag.planned == (11, 12, 3)
    assert bag.minutes == round(float(pay.hours.each.value), 1)
    assert bag.cost == F(round(pay.cost.all.value * 100), 100)
    assert (bag.price, bag.currency, bag.way, bag.buyer) == (60, "EUR", "sold", "Ida")
    assert bag.scraps == 0.0
    assert bag.source == done.project.log_name
    unpriced = bag_made(done, None, DAY)
    assert (unpriced.minutes, unpriced.cost) == (None, None)


@pytest.mark.parametrize(
    ("price", "way", "kept"),
    [
        (None, "sold", "kept"),
        ("60", "sold", "sold"),
        ("60", "lower", "lower"),
        (None, "gift", "gift"),
        (None, "lower", "lower"),
    ],
)
def test_what_nobody_paid_for_was_kept(price, way, kept):
    changes = {"sale.way": way} | ({"sale.price": price} if price else {})
    assert bag_made(priced(**changes), None, DAY).way == kept


def test_the_clock_goes_before_the_guess(making):
    one, other = timed(making, "piece")
    project = tote(bags=6, making=Made(seconds={one: 1000, other: 800}, notes={one: "ran short"}))
    bag = bag_made(plan(project), None, DAY)
    assert bag.minutes == 5  # 1800 seconds are 30 minutes, for six
    assert bag.remarks == f"{one}: ran short"
    short = tote(bags=6, making=Made(seconds={one: 59}))
    assert bag_made(plan(short), None, DAY).minutes is None


def test_the_share_of_scraps_is_by_area():
    """Scraps lie on the front and the back; lining and binding are of cloth."""
    scraps = (Scrap(width=F(9), height=F(3), number=60, print="red"),)
    done = plan(with_front(tote(scraps=scraps), ("piecing.way", "courses")))
    areas = {True: F(0), False: F(0)}
    for item in done.items:
        if not item.material:
            size = item.number.value * item.width.value * item.height.value
            areas["course" in item.what] += size
    assert 0 < scrap_share(done) < 1
    assert scrap_share(done) == pytest.approx(float(areas[True] / (areas[True] + areas[False])))


def test_its_choices_are_kept_without_what_was_done():
    one = plan(tote(bags=3, making=Made(seconds={"x": 5})))
    kept = choices_of(one)
    assert len(kept["bags"]) == 1
    assert kept["bags"][0]["making"]["seconds"] == {}
    assert kept["bags"][0]["bags"] == 3
    assert kept["shared"]["prints"][0]["photo"] is None


BAGS = (
    MadeBag(
        name="A", kind="tote", date="2026-01-10", minutes=90, cost=F(15), price=F(60), scraps=0.25
    ),
    MadeBag(name="B", kind="tote", date="2026-01-20", minutes=60, cost=None, price=F(40), number=2),
    MadeBag(name="C", kind="bound-pouch", date="2026-02-01", minutes=30, cost=F(5), price=F(35)),
    MadeBag(name="D", kind="tote", minutes=50, price=F(99), way="gift"),
    MadeBag(name="E", kind="tote", minutes=30, price=F(50), currency="GBP"),
)


def test_the_wage_of_a_bag_and_of_its_kind():
    """45 for an hour and a half are 30 an hour; 40 for an hour, twice; 30 for half an hour are 60.
    Together the totes: 45 + 2 × 40 for 3½ hours."""
    assert [wage_of(bag) for bag in BAGS] == [30, 40, 60, None, 100]
    found = wages_by_kind(Book(made=BAGS), "EUR")
    assert found == [("bound-pouch", 60.0), ("tote", pytest.approx(125 / 3.5))]
    with_pounds = dict(wages_by_kind(Book(made=BAGS), "GBP"))
    assert with_pounds["tote"] == pytest.approx((125 + 50) / 4)


def test_a_season_in_dots():
    swatch = Swatch(
        date="2026-01-15",
        batting="fleece",
        width_before=F(10),
        height_before=F(10),
        width_after=F(39, 4),
        height_after=F(19, 2),
    )
    unused = swatch.model_copy(update={"used": False})
    book = Book(made=BAGS, swatches=(swatch, unused, Swatch(date="2026-01-16")))
    assert first_day(book) == "2026-01-10"
    assert first_day(Book()) == ""
    assert day_of("2026-02-01", "2026-01-10") == 22
    assert day_of("", "2026-01-10") is None
    assert day_of("2026-02-01", "") is None
    (dot,) = draw_in_dots(book)  # 2½ and 5 of a hundred
    assert (dot.x, dot.y, dot.series) == (5, pytest.approx(3.75), "fleece")
    (scraps,) = scrap_dots(book)
    assert (scraps.x, scraps.y, scraps.series) == (0, 25, "tote")
    assert [(dot.x, dot.y, dot.series) for dot in minutes_dots(book)] == [
        (0, 90, "tote"),
        (10, 60, "tote"),
        (22, 30, "bound-pouch"),
    ]


def test_what_was_timed_by_work_and_as_one_learns():
    """Four bags in 60 minutes after two: 15 each, at the middle of the third to the sixth."""
    times = (
        Timing(kind="tote", work="piece", number=2, minutes=50),
        Timing(kind="tote", work="piece", number=4, before=2, minutes=60),
        Timing(kind="tote", work="trim", number=1, minutes=8),
        Timing(kind="tote", work="piece", number=1, minutes=99, used=False),
        Timing(kind="satchel", work="piece", number=1, minutes=70),
    )
    assert minutes_by_work(times) == [("piece", 180), ("trim", 8)]
    dots = [(dot.x, dot.y, dot.series) for dot in learning_dots(times, "tote", "piece")]
    assert dots == [(1.5, 25, "piece"), (4.5, 15, "piece")]


def test_two_bags_side_by_side_where_they_differ():
    one, other = BAGS[0], BAGS[2]
    said = list(compared(one, other, Notation("inch"), lambda value: f"{float(value):.2f} €"))
    assert said == [
        "Kind: tote against bound pouch",
        "Made: 2026-01-10 against 2026-02-01",
        "Minutes: 90 against 30",
        "Cost: 15.00 € against 5.00 €",
        "Price: 60.00 € against 35.00 €",
        "Wage: 30.00 € against 60.00 €",
    ]
    bare, sized = MadeBag(), MadeBag(planned=(F(11), F(12), F(3)), got=(F(11), F(12), F(11, 4)))
    said = list(compared(bare, sized, Notation("inch"), str))
    assert said == ["Planned: nothing against 11 × 12 × 3", "Got: nothing against 11 × 12 × 2¾"]
    assert list(compared(one, one, Notation("inch"), str)) == []


def told_price(**changes):
    pay = pay_of(priced(**changes), EMPTY, PRICES, Heap())
    return pay, {r.key: r for r in price_readings(pay, lambda value: f"{float(value):.2f}")}


def test_a_price_from_the_wage_down_to_each_thing():
    pay, told = told_price(**{"sale.price": "60", "pricing.wear": "0.8", "pricing.overhead": "1.5"})
    assert list(told)[:4] == ["price.wage", "price.asked", "price.time", "price.cost"]
    low, high = pay.wage_range()
    said = f"{float(low):.2f} to {float(high):.2f}, nine times in ten, by how long it takes"
    assert told["price.wage"].about == said
    assert told["price.time"].about == "Each, 1 together"
    assert told["price.cost"].about.startswith("Without cotton batting")
    assert told["price.by bag"].figure.value == F(3, 2)
    time = pay.time.value
    assert told["price.by hour"].figure.value == time * F(4, 5)
    parts = [r.figure.value for key, r in told.items() if key.startswith("price.cloth")]
    assert sum(parts) + F(3, 2) + time * F(4, 5) == told["price.cost"].figure.value
    _, bare = told_price()
    assert next(iter(bare)) == "price.asked"
    assert "price.by bag" not in bare
    _, told = told_price(**{"sale.price": "60", "pricing.vat": F(1, 5)})
    assert list(told)[:2] == ["price.wage", "price.kept"]
    assert told["price.kept"].figure.value == 50


def test_a_price_is_ones_own_before_the_shelf_s():
    prices = PriceList({"thread": F(1)}, {"thread": F(2), "cloth red": F(3)})
    said = [prices.whence(key) for key in ("thread", "cloth red", "cloth blue")]
    assert said == ["own", "shelf", ""]
