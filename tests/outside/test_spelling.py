"""Every word that Tessil says of a bag is English, or one of the few words of the trade below.

The list of words is that of the library pyspellchecker; British spelling and the trade's own words
are added here by hand.
"""

import ast
import re
from collections.abc import Mapping
from fractions import Fraction
from pathlib import Path

import pytest
from spellchecker import SpellChecker

import tessil
from tessil.core.edges.choice import Bias, BiasPiece, Binding, Button, Piping, Strap, Zipper
from tessil.core.logbook.flow import Lessons
from tessil.core.memory.same import names_of
from tessil.core.numbers.workings import Figure
from tessil.core.panels.choice import Got, Measured
from tessil.core.piecing.choice import Pack, Piecing, Scrap, SeamTest
from tessil.core.plan import plan
from tessil.core.quilting.choice import Quilting
from tessil.core.quilting.patterns import PATTERNS
from tessil.core.readings import readings
from tessil.core.sandwich.choice import Layers, Ply
from tessil.core.shapes import SHAPES
from tessil.core.snags import Stage
from tessil.core.trimming.choice import Mark, Snap, Wash
from tessil.core.trimming.squaring import squaring
from tessil.core.words.cuts import id_words, note_words
from tessil.core.words.names import edge_name, join_name
from tessil.core.words.steps import STEP_WORDS, told
from tessil.core.words.written import working_words
from tests.conftest import tote
from tests.core.snag_cases import CASES
from tests.outside.test_every_shape_on_paper import project_of

F = Fraction
OURS = {
    "centre",
    "metre",
    "metres",
    "mitre",
    "mitred",
    "neighbouring",
    "mm",
    "cm",
    "yd",
    "offcut",
    "offcuts",
    "sashed",
    "sashing",
    "topstitch",
    "topstitched",
    "overcast",
    "presser",
    "webbing",
    "batting",
    "stabiliser",
}
LETTERS = {"a", "b", "d", "h", "s"}  # sets of lines, D-rings, hoops, what is a panel's
WAYS = ("whole", "strips", "squares", "web", "flip", "courses", "crumbs")


@pytest.fixture(scope="module")
def speller() -> SpellChecker:
    return SpellChecker(distance=1)


def misspelt(speller: SpellChecker, texts) -> set[str]:
    words = {
        word for text in texts for word in re.findall(r"[a-z]+", text.lower().replace("’", ""))
    }
    alone = {word for word in words if len(word) == 1} - LETTERS
    return ({word for word in speller.unknown(words) if len(word) > 1} - OURS) | alone


def texts_in(record) -> set[str]:
    """Every text in a record and in what it holds: labels of sums within sums, keys, kinds, notes.
    What the maker typed is left out."""
    found: set[str] = set()
    todo, seen = [record], {}
    while todo:
        one = todo.pop()
        if isinstance(one, str):
            found.add(str(one))
        elif id(one) not in seen:
            seen[id(one)] = one
            todo += _held(one)
    return found


def _held(one) -> list:
    if isinstance(one, Lessons):  # of a book that all plans share, those of other tests too
        return []
    if isinstance(one, Figure):
        return [one.label, one.show, *one.args]
    if isinstance(one, Mapping):
        return [*one, *one.values()]
    if isinstance(one, tuple | list | set | frozenset):
        return list(one)
    return [getattr(one, name) for name in names_of(type(one))]


def said(made) -> set[str]:
    """All that is told of a plan: labels, sums in words, help, snags, cuts, edges, seams."""
    found = texts_in(made)
    for panel in made.panels:
        for stage in Stage:
            for reading in readings(made, stage, panel.key):
                found |= {reading.key, reading.figure.label, reading.about}
                found.add(working_words(reading.figure, made.marks.notation))
        steps = [*squaring(panel), *(step for part in panel.parts for step in part.top.order)]
        found |= set(told(steps, made.marks.notation))
    for steps in made.edge_steps.values():
        found |= set(told(steps, made.marks.notation))
    for snag in made.snags:
        found |= {snag.title, snag.why, *(fix.words for fix in snag.fixes)}
    for item in made.items:
        found |= {id_words(item.id, made.bag), note_words(item.owner, item.notes)}
    found |= {edge_name(edge.key) for panel in made.bag.panels for edge in panel.edges}
    found |= {join_name(join.key) for join in made.bag.joins}
    names = [entry.name for entry in made.project.prints]
    return {_without(text, names) for text in found}


def _without(text: str, names) -> str:
    for name in names:
        text = text.replace(name, "")
    return text


def rich(key: str):
    """A project of a shape with all that can be had of edges and marks."""
    leader = SHAPES[key].leader
    return project_of(
        key,
        binding=Binding(grain="bias", inner=True, print="oat"),
        bias=Bias(source="pieces", pieces=(BiasPiece(), BiasPiece())),
        piping=Piping(panels=(leader,), print="plum"),
        strap=Strap(slider=True),
        zipper=Zipper(pull=True, ends="tabs", length=F(4), teeth="metal"),
        button=Button(used=True),
        snap=Snap(used=True),
        wash=Wash(used=True),
        lining="quilted-in",
        seam_test=SeamTest(measured=F(8)),
        pack=Pack(),
        marks=tuple(
            Mark(kind=kind, panel=leader, x=F(1), y=F(1))
            for kind in ("slip", "divided", "window", "d-ring", "motif")
        ),
    )


@pytest.mark.parametrize("key", SHAPES)
def test_every_shape_with_every_edge(speller, key):
    assert misspelt(speller, said(plan(rich(key)))) == set()
    assert misspelt(speller, said(plan(project_of(key)))) == set()


@pytest.mark.parametrize("key", SHAPES)
def test_every_figure_on_show_has_a_name_and_a_word_about_it(key):
    made = plan(rich(key))
    shown = [
        reading
        for panel in made.panels
        for stage in Stage
        for reading in readings(made, stage, panel.key)
    ]
    assert len(shown) > 50
    assert [one.key for one in shown if not one.figure.label.strip() or not one.about] == []


@pytest.mark.parametrize("way", WAYS)
def test_every_way_of_piecing(speller, way):
    scraps = (Scrap(width=F(6), height=F(3), number=40, print="red"),)
    piecing = Piecing(way=way, border=F(1), sashing=F(1), prints=("red", "blue"))
    front = tote().panels["front"].model_copy(update={"piecing": piecing})
    made = plan(tote(panels={**tote().panels, "front": front}, scraps=scraps))
    assert misspelt(speller, said(made)) == set()


@pytest.mark.parametrize("key", CASES)
def test_every_kind_of_snag(speller, key):
    assert misspelt(speller, said(plan(CASES[key]))) == set()


@pytest.mark.parametrize("pattern", PATTERNS)
def test_every_pattern_layer_and_measured_size(speller, pattern):
    choices = (
        tote()
        .panels["front"]
        .model_copy(
            update={
                "quilting": Quilting(pattern=pattern, spacing="keep"),
                "layers": Layers(
                    plies=(Ply(material="fusible-fleece", rule="inside"), Ply(joined=True))
                ),
            }
        )
    )
    small = Measured(pieced=Got(width=F(16), height=F(16)), quilted=Got(width=F(14)))
    made = plan(tote(panels={**tote().panels, "front": choices}, measured={"front": small}))
    assert misspelt(speller, said(made)) == set()


def test_the_words_of_the_steps_and_shapes(speller):
    steps = {re.sub(r"\{[^}]*\}", "", words) for words in STEP_WORDS.values()}
    assert misspelt(speller, steps) == set()
    shapes = {
        text
        for shape in SHAPES.values()
        for text in (
            shape.name,
            shape.sentence,
            *(part for field in shape.fields for part in (field.label, field.why, field.said)),
            *(option.label + " " + option.why for option in shape.options),
            *(words for option in shape.options for _, words in option.choices),
        )
    }
    assert misspelt(speller, shapes) == set()


OF_THE_CRAFT = {
    "fq",  # a fat quarter, as it is typed
    "battings",
    "centimetres",
    "colour",
    "favourite",
    "favourites",
    "fusibles",
    "ft",
    "neighbours",
    "hoopings",
    "tessil",
    "yds",
}
OF_MACHINES = {
    *("acadver", "ascii", "dxf", "endsec", "endtab", "eof", "insunits", "polyline", "seqend"),
    *("alt", "elem", "mcid", "nums", "struct", "td", "tr"),  # of a PDF's tree
    *("eur", "gbp", "lc", "posix", "usd"),
    *("doctype", "geoms", "http", "svg", "www", "xml", "xmlns", "viewbox"),
    *(
        "args",
        "bool",
        "pydantic",
        "str",
        "weakref",
        "config",
        "csv",
        "ctrl",
        "ctx",
        "dict",
        "enum",
        "gt",
        "int",
        "jpeg",
        "json",
    ),
    *(
        "loc",
        "mip",
        "msg",
        "op",
        "org",
        "rel",
        "https",
        "png",
        "surrogateescape",
        "toml",
        "tuple",
        "utf",
        "xdg",
    ),
}
SINGLE = set("acefgijklmprtwxyz")  # coordinates, grams, dimensions, type variables
NO_WORDS = re.compile(
    r"\\|\[\^|\[a-z0-9\]|\(\?|^#[0-9a-f]{6}$|^iVBOR|^/9j/|^abcdefgh$|A-Za-z|\d x \d|^\[×"
)


def constants(path: Path):
    """Every text in a source file that is no description of it."""
    tree = ast.parse(path.read_text("utf-8"))
    told = {
        id(node.body[0].value)
        for node in ast.walk(tree)
        if isinstance(node, ast.Module | ast.ClassDef | ast.FunctionDef)
        and node.body
        and isinstance(node.body[0], ast.Expr)
    }
    for node in ast.walk(tree):
        if isinstance(node, ast.Constant) and isinstance(node.value, str) and id(node) not in told:
            yield node.value


@pytest.mark.parametrize("house", ["core", "files"])
def test_every_text_and_key_in_the_source_is_of_words(speller, house):
    """What is rarely said is spelt as well as what is said always; a key that is misspelt in one
    of its places is found by nothing."""
    texts = {
        re.sub(r"([a-z])([A-Z])", r"\1 \2", re.sub(r"\{[^}]*\}", " ", text))
        for path in (Path(tessil.__file__).parent / house).rglob("*.py")
        for text in constants(path)
        if text.strip() not in ("x", "x2") and not NO_WORDS.search(text)
    }
    assert len(texts) > 300
    assert misspelt(speller, texts) - OF_THE_CRAFT - OF_MACHINES - SINGLE == set()
    assert [text for text in texts if re.search(r"\bx\b", text)] == []  # a size is said with ×


RUN_ON = re.compile(r"[a-z)][.,;:!?][A-Za-z]")


@pytest.mark.parametrize("house", ["core", "files"])
def test_after_a_stop_comes_a_space_or_nothing(house):
    """A stop in the middle of a word is a slip; keys of one word have dots, and no spaces."""
    texts = {
        re.sub(r"\{[^}]*\}", " ", text)
        for path in (Path(tessil.__file__).parent / house).rglob("*.py")
        for text in constants(path)
        if " " in text.strip() and not text.startswith(("<", "on:")) and not NO_WORDS.search(text)
    }
    assert len(texts) > 200
    assert [text for text in texts if RUN_ON.search(text)] == []
    assert RUN_ON.search("choices there are.x")


def test_a_slip_of_the_pen_is_seen(speller):
    assert misspelt(speller, ["usable widthx", "the sashing"]) == {"widthx"}
    assert misspelt(speller, ["oat and x plum"]) == {"x"}
    nested = plan(tote()).bought[0].items[0].number.called("piecesx").called("all")
    assert "piecesx" in texts_in((nested,))
