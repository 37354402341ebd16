"""A wish for a top, in round numbers."""

from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.polygons import rectangle
from tessil.core.numbers.rulers import rulers
from tessil.core.numbers.sizes import Pair
from tessil.core.numbers.workings import given
from tessil.core.piecing.choice import Piecing
from tessil.core.piecing.top import Wish
from tessil.core.piecing.tops import plan_top

F = Fraction
QUARTER = given("seam", F(1, 4))


WIDE, HIGH = F(25, 2), F(21, 2)


def wish(
    width=WIDE,
    height=HIGH,
    *,
    prints=("a", "b", "c"),
    scraps=(),
    seam=QUARTER,
    outline=None,
    upright=(),
    **choice,
):
    """A wish for a pieced size, with the choices named."""
    need = Pair(given("width", F(width)), given("height", F(height)))
    whole = rectangle(0.0, 0.0, float(width), float(height))
    return Wish(
        Piecing(**choice),
        need,
        outline or whole,
        seam,
        rulers("inch"),
        tuple(prints),
        tuple(scraps),
        frozenset(upright),
        "panels.front.piecing",
    )


def top(width=WIDE, height=HIGH, **given_):
    """The top that a wish gives."""
    return plan_top(wish(width, height, **given_))
