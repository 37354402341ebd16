"""What is said of any bag is a sentence: no plural of one, no doubled word, no sign of a machine.

The rules are of plain English, written by hand; bags are come by through edits drawn at random.
"""

import random
import re
from pathlib import Path

import pytest

import tessil
from tessil.core.edits import applied
from tessil.core.memory.recall import Memory
from tessil.core.numbers.decided import Refused
from tessil.core.plan import plan
from tessil.core.readings import readings
from tessil.core.snags import Stage
from tessil.core.trouble import CannotPlan
from tessil.files.makingreport import making_text
from tests.conftest import HUNT
from tests.core.memory.test_remembering import BAGS, SHAPES, _project, _typed
from tests.core.test_anything_typed import edit_of
from tests.outside.test_spelling import constants

COUNTED = "strip|piece|panel|bag|line|layer|square|corner|join|step|row|course|scrap|hooping|cut"
BROKEN = {
    "one of many": rf"(?<![\d.,/⁄½¼¾⅛⅜⅝⅞×-])(?<!\d )1 (?:{COUNTED})s\b",
    "many of one": rf"(?<![\w.,/⁄])(?:[2-9]|[1-9]\d+) (?:wider )?(?:{COUNTED})\b(?! (?:of|seam))",
    "nothing of a length": r"(?<![\w.,/⁄½¼¾⅛⅜⅝⅞])0 (?:in|cm)\b(?! of bias)",
    "a before a vowel": r"\b[Aa] [aeio]\w",
    "an before none": r"\b[Aa]n [^aeiouhAEIO\d(]",
    "a word twice": r"\b([A-Za-z]{2,}) \1\b",
    "a name twice": r"(?i)(?:^|, )([a-z]+), (?:[a-z]+, )?\1(?:,|:|$)",
    "a stop too many": r"[?!]\.|\.\.|,,|;;|;\.|,\.|:\.| [,.;:](?!\d)",
    "small after a stop": r"[a-z][.!?] [a-z]",
    "of a machine": r"\bnan\b|Fraction|None\b(?! of)|\bFalse\b(?! seam)|\bTrue\b|[{}_]|-\d|\d{3}°",
    "a hair of an angle": r"\d\.\d\d+°",
}


def _said(made):
    """What a maker reads of a plan, each with where it is read."""
    for snag in made.snags:
        yield "title", snag.title
        yield "why", snag.why
        yield from (("way out", fix.words) for fix in snag.fixes)
    for panel in made.panels:
        for stage in Stage:
            for reading in readings(made, stage, panel.key):
                yield "name", reading.figure.label
                yield "about", reading.about


def _faults(where, text):
    if not text.strip():
        yield f"{where}: nothing is said"
    if where not in ("name", "step") and re.match("[a-z]", text):
        yield f"{where}: begins small: {text}"
    if where != "step" and (where == "why") != text.endswith((".", "!")):
        yield f"{where}: ends otherwise: {text}"
    for name, rule in BROKEN.items():
        if re.search(rule, text):
            yield f"{where}: {name}: {text}"


@pytest.mark.parametrize("name", [*BAGS, *SHAPES])
def test_all_that_is_said_of_bags_drawn_at_random(name):
    dice, memory = random.Random(f"said of {name}"), Memory()
    made = plan(_project(name), memory=memory)
    found, asked = set(), 0
    for _ in range(12 * HUNT):
        try:
            made = plan(applied(made.project, edit_of(made, *_typed(dice))), memory=memory)
        except (Refused, CannotPlan):
            continue
        for where, text in _said(made):
            asked += 1
            found.update(_faults(where, text))
    assert asked > 100
    assert found == set()
    steps = making_text(made).splitlines()[1:]
    assert len(steps) > 10
    assert [fault for line in steps for fault in _faults("step", line)] == []


IN_INCHES = re.compile(
    r"[\d½¼¾⅛⅜⅝⅞] in\b|[½¼¾⅛⅜⅝⅞](?= (?:below|wide|apart|from|showing|seam|is|short))"
)
BY_INCHES = {
    "¼ in foot",  # its name
    "⅛ in",  # there is one for either unit
    "A length is written as text, such as 12 1/2 in.",  # in a file
}


@pytest.mark.parametrize("house", ["core", "ui"])
def test_a_length_in_a_text_is_told_in_both_units(house):
    """Whoever measures in centimetres is not told a quarter of something."""
    texts = {
        text
        for path in (Path(tessil.__file__).parent / house).rglob("*.py")
        for text in constants(path)
        if IN_INCHES.search(text) and "\\" not in text and "“" not in text
    }
    assert len(texts) > 10
    assert {text for text in texts if not re.search(r"\d (?:mm|cm|m)\b", text)} - BY_INCHES == set()


def test_a_broken_rule_is_seen():
    for text, name in (
        ("1 strips", "one of many"),
        ("3 wider strip", "many of one"),
        ("will lean 0 in to", "nothing of a length"),
        ("Lining, back, lining", "a name twice"),
        ("lines at -20°", "of a machine"),
        ("at 70.05°", "a hair of an angle"),
    ):
        assert re.search(BROKEN[name], text), text
