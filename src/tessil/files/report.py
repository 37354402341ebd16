"""A plan as text, JSON or CSV; the JSON is stable and described in docs/report.md."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

from tessil.core.layout.rules import laid_amounts
from tessil.core.layout.touches import Ref
from tessil.core.numbers.lengths import write_exact
from tessil.core.numbers.workings import Figure
from tessil.core.panels.panel import PanelPlan
from tessil.core.planned import Plan
from tessil.core.reading import Reading
from tessil.core.readings import readings
from tessil.core.snags import Snag, Stage
from tessil.core.words.cuts import IN_HAND, kind_name, note_words, owner_name
from tessil.core.words.names import join_name
from tessil.core.words.refusals import printable
from tessil.core.words.steps import told
from tessil.core.words.written import value_text, working, working_words
from tessil.files.csvtext import write_list

REPORT = 3


def figure_data(figure: Figure, plan: Plan) -> dict[str, Any]:
    """One figure with value, unit, working and basis."""
    notation = plan.marks.notation
    exact = write_exact(figure.value) if figure.power == 1 else str(figure.value)
    unit = {1: "inches", 2: "square inches", 3: "cubic inches"}.get(figure.power, "")
    return {
        "label": figure.label,
        "value": exact,
        "number": float(figure.value),
        "unit": unit,
        "reads": value_text(figure, notation),
        "working": working(figure, notation),
        "words": working_words(figure, notation),
        "basis": figure.basis.words,
    }


def snag_data(snag: Snag) -> dict[str, Any]:
    """One snag with its place and the words of its fixes."""
    place = snag.place
    return {
        "key": snag.key,
        "stage": str(snag.stage),
        "weight": str(snag.weight),
        "title": snag.title,
        "why": snag.why,
        "panel": snag.panel,
        "place": None
        if place is None
        else {
            "x": place.x,
            "y": place.y,
            "width": place.width,
            "height": place.height,
            "kind": place.kind,
        },
        "fixes": [fix.words for fix in snag.fixes],
    }


def _part_data(plan: Plan, panel: PanelPlan, zone: int) -> dict[str, Any]:
    """One part's pieces, row by row, with the order of sewing and what is left."""
    part = panel.parts[zone]
    return {
        "way": part.choice.way,
        "order": list(told(part.top.order, plan.marks.notation)),
        "left": list(part.top.left),
        "pieces": [
            {
                "name": patch.name,
                "row": patch.row,
                "place": patch.place,
                "kind": patch.kind,
                "print": patch.print,
                "turned": patch.turned,
                "pinned": patch.locked,
                "outline": [[round(x, 6), round(y, 6)] for x, y in patch.outline],
            }
            for patch in part.top.patches
        ],
    }


def _lines_data(panel: PanelPlan) -> list[dict[str, Any]]:
    """Every line of quilting: its set, and its points on the trimmed panel."""
    return [
        {
            "key": line.key,
            "set": panel.quilt.sets[line.group].name,
            "points": [[round(x, 5), round(y, 5)] for x, y in line.points],
            "closed": line.closed,
        }
        for line in panel.quilt.lines
    ]


def _sets_data(plan: Plan, panel: PanelPlan) -> list[dict[str, Any]]:
    """Every set of lines, with its gap."""
    return [
        {
            "key": entry.key,
            "name": entry.name,
            "angle": entry.angle,
            "lines": entry.lines.whole,
            "gap": figure_data(entry.gap, plan),
        }
        for entry in panel.quilt.sets
    ]


def _layers_data(panel: PanelPlan) -> list[dict[str, Any]]:
    """The layers from outside in, with their cut sizes."""
    return [
        {
            "role": layer.role,
            "material": layer.material.key,
            "label": layer.label,
            "cut": layer.rule if layer.role != "top" else "",
            "held": layer.bond if layer.role != "top" else "",
            "grain": layer.grain,
            "width": write_exact(layer.width.value),
            "height": write_exact(layer.height.value),
        }
        for layer in panel.layers
    ]


def _thickness_data(plan: Plan, panel: PanelPlan) -> list[dict[str, Any]]:
    """How thick it is where it is sewn, with what to sew it with."""
    return [
        {
            "key": spot.key,
            "label": spot.label,
            "x": spot.at[0],
            "y": spot.at[1],
            "mm": round(float(spot.mm), 3),
            "layers": spot.layers,
            "advice": spot.advice.words,
        }
        for spot in plan.spots_on(panel.key)
    ]


def _figures_of(plan: Plan, stage: Stage, key: str) -> Iterable[Reading]:
    """A stage's figures for one panel; what is bought stands by itself."""
    return (r for r in readings(plan, stage, key) if r.leaf != "amounts")


def _panel_data(plan: Plan, key: str) -> dict[str, Any]:
    panel = plan.panel(key)
    stages = (Stage.PIECE, Stage.LAYER, Stage.QUILT, Stage.TRIM)
    return {
        "key": key,
        "label": panel.panel.label,
        "copies": panel.panel.copies,
        "outline": [[write_exact(x), write_exact(y)] for x, y in panel.panel.outline],
        "ladder": [
            {
                "rung": rung.key,
                "note": rung.note,
                "number": rung.number.whole if rung.number else 1,
                "sizes": [figure_data(figure, plan) for figure in rung.sizes],
            }
            for rung in plan.ladder(key)
        ],
        "layers": _layers_data(panel),
        "thickness": _thickness_data(plan, panel),
        "sets": _sets_data(plan, panel),
        "lines": _lines_data(panel),
        "order": []
        if panel.sewing is None
        else [
            {"line": panel.quilt.lines[turn.line].key, "back": turn.back}
            for turn in panel.sewing.order
        ],
        "parts": [_part_data(plan, panel, zone) for zone in range(len(panel.parts))],
        "figures": {
            reading.key: figure_data(reading.figure, plan)
            for stage in stages
            for reading in _figures_of(plan, stage, key)
        },
    }


def report_data(plan: Plan) -> dict[str, Any]:
    """The whole plan as plain data."""
    lead = plan.shape.leader
    return {
        "report": REPORT,
        "name": plan.project.name,
        "shape": plan.shape.key,
        "bags": plan.project.made,
        "units": plan.project.units,
        "bag": {
            reading.key: figure_data(reading.figure, plan)
            for reading in readings(plan, Stage.BRIEF, lead)
        },
        "panels": [_panel_data(plan, panel.key) for panel in plan.panels],
        "edges": {
            reading.key: figure_data(reading.figure, plan)
            for reading in readings(plan, Stage.EDGE, lead)
        },
        "runs": _runs_data(plan),
        "strips": _strips_data(plan),
        "hoopings": _hoopings_data(plan),
        "bias": _bias_data(plan),
        "joins": [
            {
                "name": join_name(join.key),
                "one": [[ref.panel, ref.edge.slug] for ref in join.one],
                "other": [[ref.panel, ref.edge.slug] for ref in join.other],
            }
            for join in plan.bag.joins
        ],
        "cut_list": cut_rows(plan),
        "buy": {
            bought.stock: {"name": bought.name, **figure_data(bought.cloth.buy, plan)}
            for bought in plan.bought
        },
        "layout": {
            "laid": laid_amounts(plan.table),
            "broken": [
                {"rule": broken.rule, "pieces": [_ref(ref) for ref in broken.pieces]}
                for broken in plan.broken
            ],
        },
        "snags": [snag_data(snag) for snag in plan.snags],
    }


def _runs_data(plan: Plan) -> list[dict[str, Any]]:
    """Every edge of every panel: what becomes of it, its length cut and sewn, its radius."""
    return [
        {
            "panel": run.panel,
            "edge": run.edge.slug,
            "becomes": run.becomes,
            "cut_edge": figure_data(run.cut, plan),
            "seam_line": figure_data(run.sewn, plan),
            "radius": figure_data(run.radius, plan) if run.radius is not None else None,
        }
        for run in plan.edging.runs
    ]


def _strips_data(plan: Plan) -> list[dict[str, Any]]:
    """Edges with a binding of their own, or with a tape lapped over them."""
    return [
        {
            "edge": strip.edge.key,
            "label": strip.edge.label,
            "number": strip.edge.number.whole,
            "length": figure_data(strip.edge.length, plan),
            "cut": None if strip.cut is None else figure_data(strip.cut, plan),
            "joined_of": strip.strips.whole,
            "edges": [[ref.panel, ref.edge.slug] for ref in strip.edge.edges],
        }
        for strip in plan.edge_strips
    ]


def _hoopings_data(plan: Plan) -> dict[str, Any] | None:
    """What lies in which hooping, in inches from the field's top left corner."""
    made = plan.hooped
    if made is None:
        return None
    return {
        "field": [float(side) for side in made.field.values()],
        "cut": [float(side) for side in made.cut.values()],
        "too_large": list(made.too_large),
        "groups": [
            {
                "panels": [panel.key for panel in group.panels],
                "stabiliser": group.stabiliser,
                "number": group.number.whole,
                "least": group.least,
                "pieces": group.pieces.whole,
                "length": figure_data(group.length, plan),
                "hoopings": [
                    {
                        "times": one.times,
                        "laid": [
                            {
                                "panel": laid.panel,
                                "x": float(laid.x),
                                "y": float(laid.y),
                                "width": float(laid.width),
                                "height": float(laid.height),
                                "turned": laid.turned,
                            }
                            for laid in one.laid
                        ],
                    }
                    for one in group.hoopings
                ],
            }
            for group in made.groups
        ],
    }


def _bias_data(plan: Plan) -> list[dict[str, Any]]:
    """Bias strips in the order in which they are joined; corners on their piece, in inches."""
    return [
        {
            "for": cut.what,
            "need": figure_data(cut.need, plan),
            "tube": figure_data(cut.tube.side, plan) if cut.tube is not None else None,
            "reaches": figure_data(cut.reaches, plan),
            "joins": cut.joins.whole,
            "joins_at_least": cut.plan.least,
            "strips": [
                {
                    "piece": used.strip.scrap + 1,
                    "angle": used.strip.angle,
                    "turned": used.turned,
                    "length": round(used.length, 4),
                    "corners": [[round(x, 4), round(y, 4)] for x, y in used.strip.outline],
                }
                for used in cut.plan.joined.used
            ],
        }
        for cut in plan.edging.bias
    ]


def _ref(ref: Ref) -> dict[str, Any]:
    return {"panel": ref.panel, "part": ref.zone, "piece": ref.piece}


def stock_name(plan: Plan, stock: str, batting: bool) -> str:
    """The name of a print or a batting, as a maker says it."""
    if not batting:
        return plan.project.print_of(stock).name
    for bought in plan.bought:
        if bought.stock == stock and bought.batting:
            return bought.name
    return stock


def cut_rows(plan: Plan) -> list[dict[str, Any]]:
    """The cut list, one row a size."""
    read = plan.marks.notation.read_off
    return [
        {
            "panel": owner_name(item.owner, plan.bag),
            "what": kind_name(item.what),
            "from": stock_name(plan, item.stock, item.material),
            "number": item.number.whole,
            "width": read(item.width.value),
            "height": read(item.height.value),
            "note": IN_HAND if item.in_hand else note_words(item.owner, item.notes),
        }
        for item in plan.items
    ]


def merged_rows(plan: Plan) -> list[dict[str, Any]]:
    """The cut list with alike pieces of several panels in one row, as one cuts them."""
    merged: dict[tuple[str, ...], dict[str, Any]] = {}
    for row in cut_rows(plan):
        key = tuple(row[name] for name in ("what", "from", "width", "height", "note"))
        kept = merged.get(key)
        if kept is None:
            merged[key] = dict(row)
        else:
            kept["number"] += row["number"]
            kept["panel"] += f", {row['panel'].lower()}"
    return list(merged.values())


CUT_COLUMNS = ("panel", "what", "from", "number", "width", "height", "note")


def cut_csv(plan: Plan) -> str:
    """The cut list as CSV with a head row."""
    return write_list(CUT_COLUMNS, ([row[name] for name in CUT_COLUMNS] for row in cut_rows(plan)))


def finished_text(plan: Plan) -> str:
    """``11 wide × 9¼ high × 3 deep``, in the words of the shape; in centimetres the unit stands
    once, with the last."""
    read = plan.marks.notation.read_off
    sizes = list(zip(plan.bag.finished, plan.shape.finished_words, strict=True))
    told = [f"{read(figure.value)} {word}" for figure, word in sizes]
    return " × ".join([*(text.replace(" cm ", " ") for text in told[:-1]), told[-1]])


def finished_short(plan: Plan) -> str:
    """The finished size without words, for where there is little room."""
    return plan.marks.notation.size(*(figure.value for figure in plan.bag.finished))


def report_text(plan: Plan) -> str:
    """The plan as a page of text, every figure with its working."""
    lines = [
        plan.project.name,
        f"{plan.shape.name}, finished {finished_text(plan)}, make {plan.project.made}",
        "",
        *_figure_lines(plan, Stage.BRIEF, plan.shape.leader, "The bag"),
    ]
    for panel in plan.panels:
        lines += _ladder_lines(plan, panel.key)
        for stage in (Stage.PIECE, Stage.LAYER, Stage.QUILT, Stage.TRIM):
            title = f"{panel.panel.label}: {stage}"
            lines += _figure_lines(plan, stage, panel.key, title)
    lines += _figure_lines(plan, Stage.EDGE, plan.shape.leader, "Top edge")
    lines += ["Cut", *_cut_lines(cut_rows(plan)), ""]
    lines += _figure_lines(plan, Stage.CUT, plan.shape.leader, "Buy")
    lines += ["Snags", *(_snag_lines(plan.snags) or ["  none"])]
    return as_lines(lines)


def as_lines(lines: Iterable[str]) -> str:
    """Lines for a terminal: a name among them steers nothing, and stays on its line."""
    return "".join(f"{printable(line)}\n" for line in lines)


def _figure_lines(plan: Plan, stage: Stage, panel: str, title: str) -> list[str]:
    notation = plan.marks.notation
    rows = [
        (
            r.figure.label,
            value_text(r.figure, notation),
            working(r.figure, notation),
            r.figure.basis.words,
        )
        for r in _figures_of(plan, stage, panel)
    ]
    if not rows:
        return []
    wide = max(len(row[0]) for row in rows)
    body = [
        f"  {label:<{wide}}  {value:>10}  {('= ' + sums) if sums else '':<44} {basis}".rstrip()
        for label, value, sums, basis in rows
    ]
    return [title, *body, ""]


def _ladder_lines(plan: Plan, key: str) -> list[str]:
    notation = plan.marks.notation
    parts = []
    for rung in plan.ladder(key):
        size = notation.size(*(figure.value for figure in rung.sizes))
        number = f"{rung.number.whole} of " if rung.number else ""
        parts.append(f"{rung.label.lower()} {number}{size} ({rung.note})")
    return [f"{plan.panel(key).panel.label}: " + " → ".join(parts), ""]


def _cut_lines(rows: list[dict[str, Any]]) -> list[str]:
    return [
        f"  {row['number']:>4} × {row['width']:>8} × {row['height']:<8} {row['panel']}, "
        f"{row['what']}, {row['from']}" + (f" ({row['note']})" if row["note"] else "")
        for row in rows
    ]


def _snag_lines(snags: Iterable[Snag]) -> list[str]:
    lines = []
    for snag in snags:
        lines.append(f"  {snag.weight}: {snag.title}. {snag.why}")
        lines += [f"      → {fix.words}" for fix in snag.fixes]
    return lines


def check_text(plan: Plan) -> str:
    """The snags alone, or a word that there are none."""
    return as_lines(_snag_lines(plan.snags) or ["No snags."])
