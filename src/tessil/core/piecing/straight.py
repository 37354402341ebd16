"""Tops of level or upright strips, and of squares: on their own or on gridded fusible web.

Knows how pieces are joined side by side; must not know zones, borders or panels.
"""

from __future__ import annotations

from tessil.core.bag.ids import CutKind
from tessil.core.bag.steps import Do, Step
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.polygons import rectangle
from tessil.core.numbers.sizes import Pair
from tessil.core.numbers.workings import Basis, Figure, count
from tessil.core.piecing.strips import Joining, Need, joining_of, plan_joined
from tessil.core.piecing.top import (
    CutPiece,
    Patch,
    Strips,
    Top,
    TopLine,
    Wish,
    cut_of,
    few_enough,
    laid_patch,
    sewing_order,
    trimming,
)


def strip_lines(strips: Strips, noun: str = "strip") -> tuple[TopLine, ...]:
    """The figures of strips, in reading order."""
    along = strips.along.called(f"{noun} length")
    return (
        TopLine("strips.number", strips.number, "Strips sewn side by side", "whole"),
        TopLine("strips.cut", strips.cut, "Cut width of each strip", "first"),
        TopLine("strips.length", along, "Cut length of each strip", "across"),
        TopLine("strips.shows", strips.shows, "Between its two piecing seams", "second"),
        TopLine("strips.across", strips.across, "What they make", "upright"),
        TopLine("strips.surplus", strips.surplus, "More than is needed; trimmed away", "upright"),
    )


def strip_top(wish: Wish) -> Top:
    """Strips lying level or standing upright."""
    choice, level = wish.choice, wish.choice.run != "upright"
    across, along = (
        (wish.need.height, wish.need.width) if level else (wish.need.width, wish.need.height)
    )
    strips = plan_joined(joining_of(choice), Need(across, along, wish.seam, wish.field), wish.marks)
    size = Pair(along, strips.across) if level else Pair(strips.across, along)
    patches = tuple(_strip_patches(wish, strips, float(along.value), level))
    proper = [patch for patch in patches if patch.kind == "piece"]
    return Top(
        size=size,
        patches=patches,
        cuts=_strip_cuts(strips, patches),
        lines=strip_lines(strips),
        order=_strip_order(strips, choice.press),
        pieces=count("pieces", len(proper), Basis.GEOMETRY),
        piece_size=(strips.widest, along),
        rows=strips if level else None,
        columns=None if level else strips,
    )


def _strip_patches(wish: Wish, strips: Strips, along: float, level: bool) -> list[Patch]:
    found, piece = [], 0
    for (start, end), kind in zip(strips.bands(wish.seam.value), strips.kinds, strict=True):
        low, deep = float(start), float(end - start)
        shape = rectangle(0, low, along, deep) if level else rectangle(low, 0, deep, along)
        if kind == "piece":
            row, place = (piece, 0) if level else (0, piece)
            found.append(laid_patch(wish, shape, piece, row, place, str(piece + 1)))
            piece += 1
        else:
            found.append(trimming(wish, shape, kind))
    return found


def _strip_cuts(strips: Strips, patches: tuple[Patch, ...]) -> tuple[CutPiece, ...]:
    """Strips of one width and print together, in order of appearance."""
    groups: dict[tuple[CutKind, Fraction], tuple[Figure, list[Patch]]] = {}
    for patch, cut, kind in zip(patches, strips.cuts, strips.kinds, strict=True):
        what: CutKind = "strip" if kind == "piece" else "border strip"
        groups.setdefault((what, cut.value), (cut, []))[1].append(patch)
    return tuple(
        made
        for (what, _), (cut, members) in groups.items()
        for made in cut_of(what, members, strips.along, cut)
    )


def _strip_order(strips: Strips, press: str) -> tuple[Step, ...]:
    number = len(strips.cuts)
    if number == 1:
        return sewing_order(Do("piece.one-strip"))
    joined = Do("piece.join-strips", {"number": number})
    return sewing_order(joined, Do("piece.press", {"press": press}))


def _grid(wish: Wish) -> tuple[Strips, Strips]:
    """Columns and rows of squares; a chosen number of columns gives the size."""
    choice, need = wish.choice, wish.need
    fixed = "width" if choice.fixed == "mixed" else choice.fixed
    field = "square"
    across = Joining(
        fixed,
        choice.square,
        choice.count,
        (),
        choice.surplus_across,
        choice.sashing,
        "square",
        field,
    )
    columns = plan_joined(across, Need(need.width, need.height, wish.seam, wish.field), wish.marks)
    side = columns.cut.value if fixed == "count" else choice.square
    down = Joining("width", side, 0, (), choice.surplus, choice.sashing, "square", field)
    rows = plan_joined(down, Need(need.height, need.width, wish.seam, wish.field), wish.marks)
    few_enough(wish, columns.number.whole * rows.number.whole, field)
    return columns, rows


def square_top(wish: Wish) -> Top:
    """Squares in a grid, with or without sashing between them."""
    columns, rows = _grid(wish)
    patches = tuple(_grid_patches(wish, columns, rows))
    proper = [patch for patch in patches if patch.kind == "piece"]
    number = (columns.number * rows.number).called("squares")
    web = wish.choice.way == "web"
    lines = (
        TopLine("squares.number", number, "Squares on this part", "whole"),
        TopLine(
            "squares.columns", columns.number.called("squares in a row"), "Side by side", "across"
        ),
        TopLine("squares.rows", rows.number.called("rows"), "One below another", "upright"),
        TopLine("squares.cut", columns.cut, "Cut width of each square", "first"),
        TopLine("squares.shows", columns.shows, "Between its piecing seams", "first"),
        TopLine(
            "squares.width",
            columns.across.called("squares sewn, width"),
            "What they make",
            "across",
        ),
        TopLine(
            "squares.height",
            rows.across.called("squares sewn, height"),
            "What they make",
            "upright",
        ),
        TopLine(
            "squares.over.width", columns.surplus, "More than is needed; trimmed away", "across"
        ),
        TopLine(
            "squares.over.height", rows.surplus, "More than is needed; trimmed away", "upright"
        ),
        *(_web_lines(columns, rows) if web else ()),
    )
    order = _web_order(columns, rows) if web else _square_order(wish, columns, rows)
    return Top(
        size=Pair(columns.across, rows.across),
        patches=patches,
        cuts=_grid_cuts(wish, columns, rows, patches, proper),
        lines=lines,
        order=order,
        pieces=number,
        piece_size=(columns.cut, rows.cut),
        rows=rows,
        columns=columns,
    )


def _grid_patches(wish: Wish, columns: Strips, rows: Strips) -> list[Patch]:
    seam = wish.seam.value
    xs, ys = (
        [(float(start), float(end - start)) for start, end in pieces.bands(seam)]
        for pieces in (columns, rows)
    )
    wide = float(columns.across.value)
    found: list[Patch] = []
    across = columns.number.whole
    row = piece = 0
    for (y, high), kind in zip(ys, rows.kinds, strict=True):
        if kind != "piece":
            found.append(trimming(wish, rectangle(0, y, wide, high), kind))
            continue
        place = 0
        for (left, across_by), across_kind in zip(xs, columns.kinds, strict=True):
            shape = rectangle(left, y, across_by, high)
            if across_kind == "piece":
                name = f"{row + 1}.{place + 1}"
                found.append(laid_patch(wish, shape, piece, row, place, name, across))
                piece, place = piece + 1, place + 1
            else:
                found.append(trimming(wish, shape, across_kind))
        row += 1
    return found


def _grid_cuts(
    wish: Wish, columns: Strips, rows: Strips, patches: tuple[Patch, ...], proper: list[Patch]
) -> tuple[CutPiece, ...]:
    alike = columns.cut.value == rows.cut.value
    found = list(cut_of("square" if alike else "piece", proper, columns.cut, rows.cut))
    cloth = wish.choice.border_print or wish.prints[-1]
    many = rows.number.whole
    for cut, kind in zip(columns.cuts, columns.kinds, strict=True):
        if kind != "piece":
            short: CutKind = "short sashing" if kind == "sash" else "border strip"
            found.append(CutPiece(short, cloth, many, cut, rows.cut))
    for cut, kind in zip(rows.cuts, rows.kinds, strict=True):
        if kind != "piece":
            long: CutKind = "long sashing" if kind == "sash" else "border strip"
            found.append(CutPiece(long, cloth, 1, columns.across, cut))
    return tuple(_merged(found))


def _merged(cuts: list[CutPiece]) -> list[CutPiece]:
    """Like pieces counted together."""
    by_size: dict[tuple[object, ...], CutPiece] = {}
    for cut in cuts:
        key = (cut.what, cut.print, cut.width.value, cut.height.value)
        old = by_size.get(key)
        each = cut.each + (old.each if old else 0)
        by_size[key] = CutPiece(cut.what, cut.print, each, cut.width, cut.height)
    return list(by_size.values())


def _square_order(wish: Wish, columns: Strips, rows: Strips) -> tuple[Step, ...]:
    many, down = columns.number.whole, rows.number.whole
    sashed = "-sashed" if wish.choice.sashing else ""
    nested = "nested" if wish.choice.press == "side" else "open"
    return sewing_order(
        Do("piece.lay-out", {"number": many * down}),
        Do(f"piece.join-row{sashed}", {"number": many, "press": wish.choice.press}),
        Do(f"piece.join-rows{sashed}-{nested}", {"number": down}),
        Do("piece.press-long"),
    )


def _web_lines(columns: Strips, rows: Strips) -> tuple[TopLine, ...]:
    width = (columns.number * columns.cut).called("web, width")
    height = (rows.number * rows.cut).called("web, height")
    about = "Squares butt on its grid before they are folded and sewn"
    return (
        TopLine("web.width", width, about, "across"),
        TopLine("web.height", height, about, "upright"),
    )


def _web_order(columns: Strips, rows: Strips) -> tuple[Step, ...]:
    across, down = columns.number.whole, rows.number.whole
    return sewing_order(
        Do("web.lay", {"across": across, "down": down}),
        Do("web.upright", {"number": across - 1}),
        Do("web.snip"),
        Do("web.level", {"number": down - 1}),
        Do("web.press"),
    )
