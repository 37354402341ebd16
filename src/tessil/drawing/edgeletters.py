"""Which edge of the panel became which edge of the bag: one letter in both places."""

from __future__ import annotations

from collections.abc import Iterator

from tessil.core.panels.panel import PanelPlan
from tessil.core.planned import Plan
from tessil.drawing.bagview import look_of
from tessil.drawing.picture import Item, Label, Line

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
        letters[f"{fold.name} fold"] = ("D" if fold.name == "bottom" else "E", f"{fold.name} fold")
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


def bag_letters(plan: Plan, x: float, floor: float, side: str) -> Iterator[Label]:
    """The same letters where those edges lie on the finished bag."""
    panel = plan.panel(plan.shape.leader)
    look, letters = look_of(plan, side), _edge_letters(panel)
    width, height, depth = float(look.width), float(look.height), float(look.depth)
    top = floor - height
    own = [face for face in look.faces if face.panel == panel.key]
    begins = float(own[0].target[1]) if own else 0.0
    across = depth * 0.23
    folded = letters.get("flap fold", letters.get("top fold"))
    if folded is not None:
        yield Label((x + width * 0.2, top), folded[0], chip=True)
    elif look.closed:
        yield Label((x + width * 0.2 + across, top - depth * 0.17), letters["top"][0], chip=True)
    else:
        yield Label((x + width * 0.2, top + begins), letters["top"][0], chip=True)
    # The bottom of a boxed bag lies hidden in the middle of its base.
    below = letters.get("bottom fold", letters["bottom"])[0]
    yield Label((x + width * 0.2, floor), f"{below} beneath" if depth else below, chip=True)
    yield Label((x + width + across, floor - height * 0.75), letters["side"][0], chip=True)
    if "corner" in letters:
        foot = (x + width + across, floor - depth * 0.17)
        yield Label(foot, letters["corner"][0], chip=True)
