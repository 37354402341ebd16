"""Paper and reports stay as they were looked at, word by word, on paper each in its place.

What is drawn is noted as it is drawn, in tenths of a millimetre.  Where something is changed on
purpose, look at the new pages first, then renew the records: ``TESSIL_RENEW=1 pytest`` this file.
"""

import json
import os
from pathlib import Path

import pytest

from tessil.core.edges.choice import Bias, BiasPiece, Binding
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tessil.files.report import report_data, report_text
from tessil.files.sheet import Sheet
from tessil.files.worksheet import pdf_bytes
from tests.conftest import DEMO, load_bag, tote

F = Fraction
RECORDS = Path(__file__).with_name("records")
BAGS = ("rehearsal-satchel", "mute-sack")


def _number(value):
    return f"{value:.1f}" if isinstance(value, float) else str(value)


@pytest.fixture
def drawn(monkeypatch):
    """A line for everything drawn on a sheet by its own means."""
    lines = []

    def noted(name, real):
        def draw(sheet, *given, **named):
            told = [
                f"{given_.pixelSize()}{'b' if given_.bold() else ''}"
                if hasattr(given_, "pixelSize")
                else _number(given_)
                for given_ in (*given, *named.values())
            ]
            if len(lines) < 5000:
                lines.append(" | ".join((name, f"{sheet.y:.1f}", *told)).replace("\n", "¶"))
            return real(sheet, *given, **named)

        return draw

    for name in ("words", "box", "rule", "frame"):
        monkeypatch.setattr(Sheet, name, noted(name, getattr(Sheet, name)))
    return lines


@pytest.mark.parametrize("bag", BAGS)
def test_a_worksheet_is_drawn_as_it_was(qapp, drawn, bag):
    pdf_bytes(plan(load_bag(DEMO.with_name(f"{bag}.tessil"))))
    _agrees(f"{bag}.paper.txt", drawn)


def _agrees(name, lines):
    record = RECORDS / name
    if os.environ.get("TESSIL_RENEW"):
        record.write_text("\n".join(lines) + "\n", "utf-8")
    before = record.read_text("utf-8").splitlines()
    assert len(before) > 100
    changed = [pair for pair in zip(before, lines, strict=False) if pair[0] != pair[1]]
    assert not changed[:3]
    assert len(lines) == len(before)


@pytest.mark.parametrize("bag", ["rehearsal-satchel", "reed-pouch", "march-card-clutch"])
def test_a_report_says_what_it_said(bag):
    text = report_text(plan(load_bag(DEMO.with_name(f"{bag}.tessil"))))
    _agrees(f"{bag}.report.txt", text.rstrip("\n").split("\n"))


def test_a_report_for_programs_says_what_it_said():
    pieces = (BiasPiece(width=F(15), height=F(12)), BiasPiece(width=F(18), height=F(14)))
    bias = Bias(source="pieces", pieces=pieces)
    made = plan(tote(binding=Binding(grain="bias"), bias=bias))
    text = json.dumps(report_data(made), indent=1, ensure_ascii=False)
    _agrees("tote.report.json", text.split("\n"))
