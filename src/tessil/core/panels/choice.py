"""What a maker decides and measures panel by panel."""

from __future__ import annotations

from typing import Annotated, Literal

from tessil.core.numbers.decided import Decided, usual
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.fields import Limits, Room, Size
from tessil.core.piecing.choice import Piecing, Zone
from tessil.core.quilting.choice import Quilting, QuiltWish, QuiltZone
from tessil.core.sandwich.choice import Layers


class Got(Decided):
    """A size as it really came out; either way may be left unmeasured."""

    width: Size | None = None
    height: Size | None = None

    @property
    def some(self) -> bool:
        """Whether either way was measured."""
        return self.width is not None or self.height is not None

    def over(self, other: Got) -> Got:
        """This one, and the other where nothing was measured."""
        width = other.width if self.width is None else self.width
        height = other.height if self.height is None else self.height
        return Got.model_construct(width=width, height=height)


class Measured(Decided):
    """What the maker measured at each rung of one panel; ``added`` is a border sewn on after
    quilting, so much wider and higher in all."""

    pieced: Got = usual(Got)
    quilted: Got = usual(Got)
    added: Got = usual(Got)
    trimmed: Got = usual(Got)
    assembled: Got = usual(Got)  # with the other parts of a front
    notch: Got = usual(Got)  # as cut: from the side, and from the other edge

    @property
    def some(self) -> bool:
        """Whether anything was."""
        return any(got.some for _, got in self)

    @property
    def settles(self) -> bool:
        """Whether it says how large the bag is, whatever was planned: of a leading panel."""
        return self.trimmed.some or self.assembled.some or self.notch.some

    @property
    def made(self) -> bool:
        """Whether its top is there already."""
        return self.pieced.some or self.quilted.some

    def over(self, other: Measured) -> Measured:
        """This one, and the other where nothing was measured."""
        return Measured.model_construct(
            **{rung: got.over(getattr(other, rung)) for rung, got in self}
        )


class PanelChoices(Decided):
    """All that is decided and measured for one panel."""

    piecing: Piecing = usual(Piecing)
    zones: Annotated[tuple[Zone, ...], Limits(max_length=5)] = ()  # below the first part
    layers: Layers = usual(Layers)
    quilting: Quilting = usual(Quilting)
    quilt_zones: Annotated[tuple[QuiltZone, ...], Limits(max_length=5)] = ()  # below the first

    @property
    def quilt_wish(self) -> QuiltWish:
        """All that is chosen for its lines."""
        return QuiltWish(self.quilting, self.quilt_zones)


class Oversize(Decided):
    """How much larger a panel is pieced than it is trimmed."""

    way: Literal["model", "fixed", "none"] = "model"
    fixed: Room = Fraction(3, 4)
    squaring: Room = Fraction(1, 4)
