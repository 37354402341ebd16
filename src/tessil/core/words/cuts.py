"""What is cut, for what, and what to know of it, in words."""

from __future__ import annotations

from collections.abc import Iterable

from tessil.core.bag.ids import CutId, CutKind, CutNote, CutOwner, NoteKind
from tessil.core.bag.model import Bag

_KINDS: dict[CutKind, str] = {}  # those that are not called by their kind
_OWNERS = {
    "edge": "Top edge",
    "pocket": "Pocket",
    "pull": "Zipper pull",
    "inner seams": "Inner seams",
    "tab": "Ring tab",
    "stiffener": "Base",
    "base strip": "Base strip",
    "snap": "Snap",
    "zipper end": "Zipper end",
    "button loop": "Button loop",
}
_NOTES: dict[NoteKind, str] = {
    "scrap": "from scrap {number}",
    "side by side": "{number} side by side, edges butted",
    "inside": "inside the seams",
    "short": "short of the seams",
    "upright": "grain upright",
    "level": "grain level",
    "set": "full width; sew, then cut across",
    "straight": "join straight, seams of ¼ in (6 mm)",
    "fold half": "fold in half",
    "cross": "strips at 45°",
    "folds": "folds to ¼ in (6 mm)",
    "single fold": "single fold",
    "butted": "may be butted",
    "after quilting": "sewn on after quilting",
    "spare": "cut longer; trim when sewn",
    "hoop": "for {number} hooping{s}",
    "leftover": "of joined leftover strips",
    "window": "rough, a repeat more; cut {number} from it by a window",
    "turned": "both long edges turned under",
    "outer strips": "for the narrower panel take outer strips off",
}
_DIAGONAL = {"edge": "full width; join on the diagonal", "part": "join on the diagonal"}
IN_HAND = "in hand"


def kind_name(kind: CutKind) -> str:
    """``strip``, ``border strip, upright``."""
    return _KINDS.get(kind, kind)


def owner_name(owner: CutOwner, bag: Bag) -> str:
    """``Front``, ``Front + Back``, ``Bias for the binding``, ``Handles``."""
    if owner.kind == "panels":
        return " + ".join(bag.panel(key).label for key in owner.keys)
    if owner.kind == "edge" and owner.keys:
        return next(edge.label for edge in bag.bound if edge.key in owner.keys).capitalize()
    if owner.kind == "hoop":
        known = {panel.key: panel.label for panel in bag.panels}
        return "In the hoop: " + " + ".join(known[key] for key in owner.keys if key in known)
    if owner.kind == "part":
        return next(part.label for part in bag.attachments if part.key in owner.keys)
    if owner.kind == "bias":
        return f"Bias for the {owner.keys[0]}"
    return _OWNERS[owner.kind]


def note_words(owner: CutOwner, notes: Iterable[CutNote]) -> str:
    """What to know of a piece, in one line."""
    return ", ".join(
        _DIAGONAL[owner.kind]
        if note.kind == "diagonal"
        else _NOTES[note.kind].format(number=note.number, s="" if note.number == 1 else "s")
        for note in notes
    )


def id_words(cut: CutId, bag: Bag) -> str:
    """``Front, batting``."""
    owner, kind = cut
    name, what = owner_name(owner, bag), kind_name(kind)
    return name if what in name.lower().split(", ") else f"{name}, {what}"


def taken_words(cut: CutId, number: int, parts: int, bag: Bag) -> str:
    """``Front, batting in 2, edges butted ×4``."""
    split = f" in {parts}, edges butted" if parts > 1 else ""
    return f"{id_words(cut, bag)}{split}" + (f" ×{number}" if number > 1 else "")
