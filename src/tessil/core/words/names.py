"""What the parts of a bag are called: edges, seams, folds.

One table, so that another language would be another table.  Keys come in, words go out.
"""

from __future__ import annotations

from tessil.core.bag.ids import EdgeKey, JoinKey

_CUT = {
    "corner": "notch",
    "top corner": "top notch",
    "fold": "fold notch",
    "upper fold": "upper fold notch",
    "lower fold": "lower fold notch",
}
_SEAMS = {
    "seam": "{side} seam",
    "edge": "{side}",
    "end": "{side} end",
    "box corner": "{side} box corner",
    "zipper": "zipper",
    "side seams": "side seams",
    "band": "band",
    "flap": "flap's free side",
}
_AT = {
    "fold": " at the fold",
    "upper fold": " at the upper fold",
    "lower fold": " at the lower fold",
    "behind": " behind",
}


def edge_name(key: EdgeKey) -> str:
    """``left, upper``, ``right notch, level``, ``rounded corner, left``."""
    if key.cut == "curve":
        return f"rounded corner, {key.side}" + (f", part {key.step}" if key.step else "")
    if key.notch:
        half = f" {key.half}" if key.half else ""
        return f"{key.side} {_CUT[key.cut]}, {key.lies}{half}"
    return f"{key.side}, {key.half}" if key.half else key.side


def side_name(key: EdgeKey) -> str:
    """Which side, however it is divided: ``left``, ``right notch``."""
    if key.notch:
        return f"{key.side} {_CUT[key.cut]}"
    return f"{key.side} rounded corner" if key.cut == "curve" else key.side


def join_name(key: JoinKey) -> str:
    """``left seam``, ``right box corner at the fold``, ``zipper``."""
    return _SEAMS[key.what].format(side=key.side) + _AT.get(key.at, "")
