"""What the planning of edges reads of a bag and its maker's choices."""

from __future__ import annotations

from tessil.core.bag.model import Bag
from tessil.core.brief.choice import Lining
from tessil.core.edges.choice import Bias, Binding, Button, Cord, Piping, Strap, Zipper
from tessil.core.numbers.lengths import Inches, Units
from tessil.core.numbers.records import Record
from tessil.core.numbers.rulers import Rulers


class EdgeTask(Record, frozen=True):
    """A bag with all that is chosen for its edges.

    ``cloth`` is the binding's; ``usable_width`` of the cloth that strips are cut from; ``channel``
    the width typed for a cord's channel, if one was.
    """

    bag: Bag
    binding: Binding
    bias: Bias
    piping: Piping
    strap: Strap
    cord: Cord
    button: Button
    zipper: Zipper
    lining: Lining
    cloth: str
    usable_width: Inches
    top_seam: Inches
    channel: Inches | None
    units: Units
    marks: Rulers
