"""Which edge of the panel became which edge of the bag: one letter in both places."""

from __future__ import annotations

from collections.abc import Iterator

from tessil.core.panels.panel import PanelPlan
from tessil.core.planned import Plan
from tessil.core.sewn.placing import Piece, Sewn
from tessil.core.sewn.vectors import Pose, Space
from tessil.drawing.handview import place_on
from tessil.drawing.picture import Item, Label, Line
from tessil.drawing.projecting import Stand, poses_for

_BECOMES = {"bound": "bound", "turned": "turned in", "zip": "zipper", "free": "as cut"}
_SEAMS = {"left": "side seam", "right": "side seam", "bottom": "bottom seam", "top": "seam"}


def _edge_letters(panel: PanelPlan) -> dict[str, tuple[str, str]]:
    """Letter and words for each side, fold and corner: the same letters stand on the bag."""
    letters = {}
    top, side, bottom = (panel.panel.side(name) for name in ("top", "left", "bottom"))
    for letter, name, edge in (("A", "top", top), ("B", "side", side), ("C", "bottom", bottom)):
        words = _SEAMS["left" if name == "side" else name]
        letters[name] = (letter, words if edge.finish == "seam" else _BECOMES[edge.finish])
    for fold in panel.panel.folds:
        letter = "D" if fold.name in ("bottom", "upper") else "E"
        letters[f"{fold.name} fold"] = (letter, f"{fold.name} fold")
    if panel.panel.notches:
        letters["corner"] = ("F", "box corner")
    return letters


def edge_words(panel: PanelPlan) -> Iterator[Item]:
    """What each side of the panel becomes in the bag, and its folds, each with its letter."""
    width, height = (float(v) for v in panel.trimmed.values())
    letters = _edge_letters(panel)
    spots = {
        "top": (width * 0.5, 0.0),
        "bottom": (width * 0.5, height),
        "side": (0.0, height * 0.3),
    }
    for name, at in spots.items():
        yield Label(at, " ".join(letters[name]), chip=True)
    yield Label((width, height * 0.3), letters["side"][0], chip=True)
    for fold in panel.panel.folds:
        yield Line(tuple((float(x), float(y)) for x, y in (fold.start, fold.end)), "fold")
        at = (width * 0.7, float(fold.start[1]))
        yield Label(at, " ".join(letters[f"{fold.name} fold"]), chip=True)
    for notch in panel.panel.notches[:1]:
        corner = (float(notch.x + notch.width), float(notch.y))
        yield Label(corner, " ".join(letters["corner"]), align="left", chip=True)


def bag_letters(plan: Plan, stand: Stand, dx: float, dy: float) -> Iterator[Label]:
    """The same letters where those edges lie on the finished bag."""
    panel = plan.panel(plan.shape.leader)
    sewn, letters = plan.sewn, _edge_letters(panel)
    poses = poses_for(sewn, stand)
    for name, (letter, _) in letters.items():
        for at in _spots(panel, sewn, poses, name):
            x, y = stand.drawn(at)
            yield Label((x + dx, y + dy), letter, chip=True)


def _spots(panel: PanelPlan, sewn: Sewn, poses: dict[Piece, Pose], name: str) -> Iterator[Space]:
    """Where an edge, a fold or a corner of the leading panel lies, a fifth of its way along."""
    key, (wide, high) = panel.key, panel.trimmed.values()
    if name in ("top", "bottom", "side"):
        # By place and not by edge: corners sewn on their lines part a side that is cut in one.
        at = {"top": (wide / 5, wide * 0), "bottom": (wide * 4 / 5, high), "side": (wide, high / 3)}
        yield place_on(sewn, poses, key, 0, at[name])
    elif name.endswith("fold"):
        fold = next(fold for fold in panel.panel.folds if f"{fold.name} fold" == name)
        (x1, y1), (x2, _) = fold.start, fold.end
        yield place_on(sewn, poses, key, 0, (x1 + (x2 - x1) / 5, y1))
    else:
        notch = panel.panel.notches[-1]
        yield place_on(sewn, poses, key, 0, (notch.x, notch.y))
