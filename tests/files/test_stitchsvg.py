"""Hoopings as SVG at their real size, and the simulated machine that stitches any outlines.

Sizes are read back by the toolkit's own SVG reader; stitches are counted by hand.
"""

import json
from itertools import pairwise
from math import dist
from xml.etree import ElementTree

import pytest
from PySide6.QtCore import QByteArray
from PySide6.QtSvg import QSvgRenderer

from tessil.cli import main
from tessil.core.hooping.machine import Line, Setting, stitched
from tessil.core.plan import plan
from tessil.core.trouble import CannotPlan, FileTrouble
from tessil.files.stitchsvg import hooping_svg, read_lines, save_hoopings, stitch_file
from tests.core.hooping.test_hoopings import hooped

SQUARE = "M 0 0 L 100 0 L 100 100 L 0 100 Z"


def svg(*paths: str, size='width="200mm" height="200mm" viewBox="0 0 200 200"') -> str:
    rows = "".join(f'<path id="line-{at}" d="{path}"/>' for at, path in enumerate(paths))
    return f'<svg xmlns="http://www.w3.org/2000/svg" {size}>{rows}</svg>'


def test_a_hooping_has_the_size_of_its_field():
    made = plan(hooped())
    text = hooping_svg(made, 0, 0)
    root = ElementTree.fromstring(text)
    assert (root.get("width"), root.get("height")) == ("127mm", "177.8mm")
    box = QSvgRenderer(QByteArray(text.encode())).boundsOnElement("outline-front")
    assert box.width() == pytest.approx(4 * 25.4, abs=0.35)  # and the width of a pen
    assert box.height() == pytest.approx(3 * 25.4, abs=0.35)
    kinds = [group.get("id") for group in root if group.tag.endswith("g")]
    assert kinds == ["placing", "batting", "top", "lines", "outline"]


def test_outlines_come_back_at_their_real_size():
    lines = read_lines(hooping_svg(plan(hooped()), 0, 0), "It")
    outlines = [line.points for line in lines if line.name == "outline"]
    assert len(outlines) == 2
    for points in outlines:
        xs, ys = zip(*points, strict=True)
        assert max(xs) - min(xs) == pytest.approx(4, abs=1e-4)
        assert max(ys) - min(ys) == pytest.approx(3, abs=1e-4)


def test_a_square_of_100_mm_by_hand(tmp_path):
    """400 mm at 2½ are 160 stitches, and 3 to tie at either end; 600 a minute: 16.6 s."""
    path = tmp_path / "square.svg"
    path.write_text(svg(SQUARE))
    run = stitch_file(path, Setting())
    assert (run.stitches, run.jumps, run.stops) == (166, 0, 0)
    assert run.seconds == pytest.approx(16.6)
    assert run.thread_mm == pytest.approx(800, abs=0.1)
    (_, points), *_ = run.lines
    gaps = [dist(a, b) * 25.4 for a, b in pairwise(points)]
    assert max(gaps) == pytest.approx(2.5, abs=1e-3)


def test_jumps_and_stops_take_their_time():
    one, other = Line("a", ((0, 0), (1, 0))), Line("b", ((3, 0), (4, 0)))
    apart, alike = (
        stitched((one, other), Setting()),
        stitched((one, Line("a", other.points)), Setting()),
    )
    assert (apart.jumps, apart.stops, alike.stops) == (1, 1, 0)
    assert apart.seconds - alike.seconds == pytest.approx(20)
    assert apart.box == (0, 0, 4, 0)


def test_curves_and_turned_things_are_read():
    """A circle of 20 mm radius is 2π × 20 long; a group moved and turned by a right angle."""
    circle = '<circle id="ring" cx="50" cy="50" r="20"/>'
    turned = '<g transform="translate(150 10) rotate(90)"><path id="up" d="M 0 0 L 40 0"/></g>'
    ring, up = read_lines(svg().replace("</svg>", f"{circle}{turned}</svg>"), "It")
    long = sum(dist(a, b) for a, b in pairwise(ring.points)) * 25.4
    assert long == pytest.approx(125.66, abs=0.1)
    (ax, ay), (bx, by) = ((x * 25.4, y * 25.4) for x, y in up.points)
    assert (ax, ay, bx, by) == pytest.approx((150, 10, 150, 50), abs=1e-3)


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("", "is no SVG"),
        ("<svg", "is no SVG"),
        ('<!DOCTYPE svg [<!ENTITY a "b">]><svg/>', "has a document type"),
        ('<svg xmlns="http://www.w3.org/2000/svg"><use href="#a"/></svg>', "has copies"),
        ('<svg xmlns="http://www.w3.org/2000/svg"/>', "has no outline"),
        (svg("M 0 0 L 1e30 0"), "cannot be read"),
        (svg("M 0 0"), "has no outline"),
        ("<g>" * 80 + "</g>" * 80, "nested too deeply"),
    ],
)
def test_files_that_are_no_outlines_say_so(text, says):
    with pytest.raises(FileTrouble, match=says):
        read_lines(text, "It")


def test_a_run_without_an_end_is_refused():
    with pytest.raises(CannotPlan, match="500,000"):
        stitched((Line("a", ((0, 0), (99_999, 0))),), Setting())
    with pytest.raises(CannotPlan, match="50 to 2000"):
        stitched((Line("a", ((0, 0), (1, 0))),), Setting(a_minute=float("nan")))


def test_every_kind_of_hooping_has_a_file(tmp_path):
    """Three outlines of 4 × 3 in 5 × 7: two in the first hooping, one in the second."""
    made = hooped()
    front = made.panels["front"]
    apart = made.model_copy(
        update={
            "bags": 3,
            "panels": {
                **made.panels,
                "back": front.model_copy(
                    update={"layers": front.layers.model_copy(update={"stabiliser": ""})}
                ),
            },
        }
    )
    save_hoopings(plan(apart), tmp_path / "purse.svg")
    names = sorted(path.name for path in tmp_path.iterdir())
    assert names == ["purse 2.svg", "purse.svg"]
    with pytest.raises(FileTrouble, match="Nothing of this bag"):
        save_hoopings(plan(hooped(stabiliser="")), tmp_path / "none.svg")


@pytest.mark.parametrize("form", ["text", "json", "csv"])
def test_the_machine_answers_on_the_command_line(tmp_path, capsys, form):
    path = tmp_path / "square.svg"
    path.write_text(svg(SQUARE))
    assert main(["stitch", str(path), "--format", form, "--speed", "300"]) == 0
    out = capsys.readouterr().out
    if form == "text":
        assert out.startswith("166 stitches in 1 lines, 0 jumps, 0 stops: 0 min 33 s")
    elif form == "json":
        assert json.loads(out)["lines"][0]["stitches"][:2] == [[0.0, 0.0], [2.5, 0.0]]
    else:
        assert out.splitlines()[1:3] == ["1,0.000,0.000", "1,2.500,0.000"]


def test_a_file_that_is_not_there_is_said_on_the_command_line(tmp_path, capsys):
    assert main(["stitch", str(tmp_path / "none.svg")]) == 2
    assert "none.svg cannot be read" in capsys.readouterr().err
