"""Decisions about time and money: what things cost, what an hour shall pay, how bags are sold."""

from __future__ import annotations

from typing import Annotated, Literal

from tessil.core.numbers.decided import Decided, none_yet
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.fields import ExactShare, Limits, Money, Then
from tessil.core.words.money import is_currency

PriceKey = Annotated[str, Limits(pattern=r"^[a-z0-9][a-z0-9 ./-]{0,80}$")]


def _currency(code: str) -> str:
    if code and not is_currency(code):
        raise ValueError("A currency has three letters, such as EUR, GBP or USD.")
    return code


Currency = Annotated[str, Limits(pattern=r"^([A-Z]{3})?$"), Then(_currency)]
Sold = Literal["sold", "gift", "lower"]
Part = Annotated[ExactShare, Limits(ge=0, lt=1)]
MOST_PRICES = 400
MOST_MINUTES = 24 * 60


class Pricing(Decided):
    """What a job's bags are reckoned with; amounts in one currency.

    ``prices`` are for one inch of length of what is sold by length (cloth over its whole width),
    else for one piece.  Shares are of the price that is paid.  ``wage``, ``wear`` and
    ``electricity`` are for an hour; ``overhead`` and ``packaging`` for a bag.
    """

    currency: Currency = ""
    prices: Annotated[dict[PriceKey, Money], Limits(max_length=MOST_PRICES)] = none_yet()
    wage: Money = Fraction(15)
    overhead: Money = Fraction(0)
    packaging: Money = Fraction(0)
    wear: Money = Fraction(0)
    electricity: Money = Fraction(0)
    fees: Part = Fraction(0)
    vat: Part = Fraction(0)  # of the price without it
    profit: Part = Fraction(0)  # on top of all that it takes
    coupon: Part = Fraction(0)  # that new cloth and all else is bought for less by
    scraps_free: bool = True
    count: Literal["used", "opened"] = "used"  # cloth by what goes into the bag, or by what is cut
    sitting: Annotated[int, Limits(ge=10, le=MOST_MINUTES)] = 120  # minutes
    sittings: Annotated[int, Limits(ge=1, le=60)] = 2
    together: bool = False  # all bags of the job are reckoned as one


class Sale(Decided):
    """How a bag is sold: at which price, as a gift, or for less, and why; for whom, until when."""

    price: Money | None = None
    way: Sold = "sold"
    reason: Annotated[str, Limits(max_length=120)] = ""
    buyer: Annotated[str, Limits(max_length=80)] = ""
    due: Annotated[str, Limits(max_length=10)] = ""
