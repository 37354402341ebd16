"""Hoopings as SVG of real size, and any SVG of outlines as lines for the simulated machine.

Sizes are millimetres.  A file is read as outlines alone: no pictures, no fetching, no entities.
"""

from __future__ import annotations

import io
import json
from collections.abc import Iterator
from math import ceil
from pathlib import Path
from xml.etree import ElementTree
from xml.sax.saxutils import escape, quoteattr

from tessil.core.hooping.machine import Line, Setting, Stitched, stitched
from tessil.core.hooping.runs import ORDER, Run, runs_of
from tessil.core.numbers.lengths import MM_PER_INCH
from tessil.core.planned import Plan
from tessil.core.trouble import CannotPlan, FileTrouble
from tessil.core.words.refusals import printable
from tessil.files.projectfile import write_export

LARGEST = 4 * 1024 * 1024
PER_INCH = 96.0  # a unit of SVG
MOST_SHAPES = 20_000
DEEPEST = 60
_REFUSED = (("<!doctype", "a document type"), ("<!entity", "entities"), ("<use", "copies"))
CURVE_STEP = 0.02  # inches between points of a curve
_MM = float(MM_PER_INCH)
_WORDS = {
    "placing": "placing lines, on the stabiliser alone",
    "batting": "lay the batting, stitch it down, trim it",
    "top": "lay the top",
    "lines": "quilting",
    "outline": "outline, where it is cut out",
}


def hooping_svg(plan: Plan, group: int, hooping: int) -> str:
    """One hooping: a group of paths for each thing that is stitched, in their order."""
    assert plan.hooped is not None
    runs = runs_of(
        plan.hooped.groups[group].hoopings[hooping], {panel.key: panel for panel in plan.panels}
    )
    wide, high = (_told(value * _MM) for value in plan.hooped.field.floats())
    rows = [
        '<?xml version="1.0" encoding="UTF-8"?>',
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{wide}mm" height="{high}mm"'
        f' viewBox="0 0 {wide} {high}">',
        f"<title>{escape(printable(plan.project.name))}: hooping {hooping + 1}</title>",
    ]
    for kind in ORDER:
        paths = [run for run in runs if run.kind == kind]
        if paths:
            rows.append(f'<g id="{kind}" fill="none" stroke="black" stroke-width="0.3">')
            rows.append(f"<title>{_WORDS[kind]}</title>")
            rows += [_path(run) for run in paths]
            rows.append("</g>")
    return "\n".join([*rows, "</svg>", ""])


def _path(run: Run) -> str:
    points = " L ".join(f"{_told(x * _MM)} {_told(y * _MM)}" for x, y in run.points)
    return f"<path id={quoteattr(run.kind + '-' + run.panel)} d={quoteattr('M ' + points)}/>"


def _told(value: float) -> str:
    return f"{value:.4f}".rstrip("0").rstrip(".")


def save_hoopings(plan: Plan, path: Path) -> None:
    """Every kind of hooping in a file of its own: the first as it is named, others numbered."""
    if plan.hooped is None or not plan.hooped.groups:
        raise FileTrouble("Nothing of this bag is made in a hoop: choose it at Layer, Hoop.")
    written: list[Path] = []
    for group, one in enumerate(plan.hooped.groups):
        for at in range(len(one.hoopings)):
            more = f" {len(written) + 1}" if written else ""
            to = path.with_name(f"{path.stem}{more}{path.suffix}")
            write_export(to, hooping_svg(plan, group, at).encode())
            written.append(to)


# -- any SVG of outlines ----------------------------------------------------------------------


def read_lines(text: str, name: str) -> tuple[Line, ...]:
    """The outlines of an SVG in inches, each under the group it stands in; raises FileTrouble."""
    if len(text) > LARGEST:
        raise FileTrouble(f"{name} is larger than 4 MB: no hooping is.")
    for sign, what in _REFUSED:
        if sign in text.lower():
            raise FileTrouble(f"{name} has {what}: plain outlines alone are read.")
    try:
        root = ElementTree.fromstring(text)
    except (ElementTree.ParseError, ValueError, RecursionError) as error:
        raise FileTrouble(f"{name} is no SVG: {error}.") from None
    if _deep(root) > DEEPEST:
        raise FileTrouble(f"{name} is nested too deeply: plain outlines alone are read.")
    try:
        lines = tuple(_lines(text))
    except (ValueError, TypeError, ArithmeticError, RecursionError, LookupError, AttributeError):
        raise FileTrouble(f"{name} has an outline that cannot be read.") from None
    if not lines:
        raise FileTrouble(f"{name} has no outline to stitch.")
    return lines


def _deep(root: ElementTree.Element) -> int:
    """How deeply elements stand in one another."""
    deep, level = 0, [root]
    while level:
        deep, level = deep + 1, [child for element in level for child in element]
    return deep


def _lines(text: str) -> Iterator[Line]:
    from svgelements import SVG, Path, Shape  # type: ignore[import-untyped]

    seen = 0
    for element in SVG.parse(io.StringIO(text), reify=True, ppi=PER_INCH).elements():
        if not isinstance(element, Shape):
            continue
        seen += 1
        if seen > MOST_SHAPES:
            raise ValueError("too many outlines")
        for part in Path(element).as_subpaths():
            points = tuple(_points(Path(part)))
            if len(points) > 1:
                yield Line(str(element.values.get("id") or "outline").split("-")[0], points)


def _points(path: object) -> Iterator[tuple[float, float]]:
    """The points of a path: its corners, and enough of a curve."""
    from svgelements import Close, Move
    from svgelements import Line as Straight

    for segment in path:  # type: ignore[attr-defined]
        if isinstance(segment, Move):
            ends = [segment.end]
        elif isinstance(segment, Straight | Close):
            ends = [segment.end] if segment.end is not None else []
        else:
            parts = min(max(ceil(segment.length(error=1e-3) / PER_INCH / CURVE_STEP), 2), 2000)
            ends = [segment.point(at / parts) for at in range(1, parts + 1)]
        for end in ends:
            x, y = float(end.x) / PER_INCH, float(end.y) / PER_INCH
            if not (abs(x) < 1e4 and abs(y) < 1e4):
                raise ValueError("no size")
            yield x, y


def stitch_file(path: Path, setting: Setting) -> Stitched:
    """What the machine makes of an SVG; raises FileTrouble."""
    name = printable(path.name)
    try:
        if path.stat().st_size > LARGEST:
            raise FileTrouble(f"{name} is larger than 4 MB: no hooping is.")
        text = path.read_text("utf-8")
    except UnicodeDecodeError:
        raise FileTrouble(f"{name} is no SVG: it is not text.") from None
    except OSError as error:
        raise FileTrouble(f"{name} cannot be read: {error.strerror or error}.") from None
    try:
        return stitched(read_lines(text, name), setting)
    except CannotPlan as trouble:
        raise FileTrouble(f"{name}: {trouble.sentence}") from None


def stitched_text(run: Stitched) -> str:
    """The run in a few lines."""
    minutes, seconds = divmod(round(run.seconds), 60)
    left, top, right, bottom = (value * _MM for value in run.box)
    return (
        f"{run.stitches:,} stitches in {len(run.lines)} lines, {run.jumps} jumps, "
        f"{run.stops} stops: {minutes} min {seconds:02} s\n"
        f"{right - left:.1f} × {bottom - top:.1f} mm, {run.thread_mm / 1000:.1f} m of thread\n"
    )


def stitched_json(run: Stitched) -> str:
    """The run whole: every stitch in millimetres."""
    lines = [
        {"line": name, "stitches": [[round(x * _MM, 3), round(y * _MM, 3)] for x, y in points]}
        for name, points in run.lines
    ]
    data = {
        "stitches": run.stitches,
        "jumps": run.jumps,
        "stops": run.stops,
        "seconds": round(run.seconds, 1),
        "thread_mm": round(run.thread_mm, 1),
        "lines": lines,
    }
    return json.dumps(data, ensure_ascii=False, indent=1) + "\n"


def stitched_csv(run: Stitched) -> str:
    """A row for every stitch: line, x and y in millimetres."""
    rows = ["line,x_mm,y_mm"]
    for number, (_, points) in enumerate(run.lines, start=1):
        rows += [f"{number},{x * _MM:.3f},{y * _MM:.3f}" for x, y in points]
    return "\r\n".join([*rows, ""])
