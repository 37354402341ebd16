"""Fields for money and for shares of it."""

from __future__ import annotations

from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.money import read_money
from tessil.core.words.money import money_text
from tessil.ui.widgets.fields import Try, TypedField


class MoneyField(TypedField):
    """An amount, with any sign and separators; empty where none has to be."""

    def __init__(self, attempt: Try, optional: bool = False) -> None:
        self.optional = optional
        super().__init__(self._read, self._write, attempt)

    def _read(self, text: str) -> Fraction | None:
        if self.optional and not text.strip():
            return None
        return read_money(text)

    @staticmethod
    def _write(value: Fraction | None) -> str:
        return "" if value is None else money_text(value, "")

    def step(self, by: int) -> None:
        if self.value is not None:
            self.dirty = False
            self._tell(self.attempt(max(self.value + by, Fraction(0)), self.run))


class PercentField(TypedField):
    """A share, typed and shown in hundredths: ``19`` or ``19 %``."""

    def __init__(self, attempt: Try) -> None:
        super().__init__(self._read, self._write, attempt)

    @staticmethod
    def _read(text: str) -> Fraction:
        share = read_money(text.replace("%", "")) / 100
        if share >= 1:
            raise ValueError("A share of less than 100 % goes here, such as 19.")
        return share

    @staticmethod
    def _write(value: Fraction | None) -> str:
        if value is None:
            return ""
        text = f"{float(value * 100):.2f}".rstrip("0").rstrip(".")
        return f"{text} %"
