"""Makes the faces that Tessil ships from the two open ones they derive from.

    python tools/make_fonts.py FOLDER_OF_THE_ORIGINALS src/tessil/fonts

In both, figures are lining and tabular from the start, and the signs between them stand at their
height, in every program: their letters point at those glyphs, instead of a feature that has to be
asked for.  What a program would put in place of letters unasked, joined letters or a sign that is
raised beside a figure, is taken out: a PDF cannot tell which letters such a glyph stands for, so
that sizes in it could not be found, copied or read aloud.
Under the SIL Open Font License 1.1 a changed face has a name of its own.  Run by hand, with
fonttools; its output is in the repository.
"""

from __future__ import annotations

import sys
from pathlib import Path
from typing import Any

from fontTools.ttLib import TTFont

FACES = {"Inter": "Tessil Text", "Vollkorn": "Tessil Title"}
FIGURES = "0123456789"
SIGNS = "×÷+−±=≥≤"
UNASKED = ("calt", "clig", "liga")  # features that programs use without being told to


def main(originals: Path, out: Path) -> None:
    """Make every weight of both faces."""
    for path in sorted(originals.iterdir()):
        face = next((name for name in FACES if path.name.startswith(f"{name}-")), None)
        if face is None or path.suffix not in (".otf", ".ttf"):
            continue
        font = TTFont(path)
        point(font, FIGURES, ("lnum", "tnum"))
        point(font, SIGNS, ("case",))
        take_out(font, UNASKED)
        _rename(font, face, FACES[face])
        made = out / path.name.replace(face, FACES[face].replace(" ", ""))
        font.save(made)
        print(made)


def point(font: Any, letters: str, features: tuple[str, ...]) -> None:
    """Point letters at the glyphs that features would give them, and nothing else at those."""
    table = font["GSUB"].table
    wanted = {
        at
        for record in table.FeatureList.FeatureRecord
        if record.FeatureTag in features
        for at in record.Feature.LookupListIndex
    }
    swaps = [_swaps(table.LookupList.Lookup[at]) for at in sorted(wanted)]
    best = font.getBestCmap()
    glyphs = {}
    for code in map(ord, letters):
        glyph = best[code]
        for swap in swaps:
            glyph = swap.get(glyph, glyph)
        glyphs[code] = glyph
    for part in font["cmap"].tables:
        if part.isUnicode():
            for code in [c for c, glyph in part.cmap.items() if glyph in glyphs.values()]:
                del part.cmap[code]
            part.cmap.update(glyphs)


def take_out(font: Any, features: tuple[str, ...]) -> None:
    """Features that no program is to find."""
    for record in font["GSUB"].table.FeatureList.FeatureRecord:
        if record.FeatureTag in features:
            record.Feature.LookupListIndex, record.Feature.LookupCount = [], 0


def _swaps(lookup: Any) -> dict[str, str]:
    found: dict[str, str] = {}
    for sub in lookup.SubTable:
        sub = getattr(sub, "ExtSubTable", sub)
        found.update(getattr(sub, "mapping", {}))
    return found


def _rename(font: Any, old: str, new: str) -> None:
    for record in font["name"].names:
        text = str(record)
        if record.nameID in (1, 3, 4, 16, 18, 21):
            record.string = text.replace(old, new)
        elif record.nameID == 6:
            record.string = text.replace(old, new.replace(" ", ""))
    if "CFF " in font:
        cff = font["CFF "].cff
        cff.fontNames = [name.replace(old, new.replace(" ", "")) for name in cff.fontNames]
        top = cff.topDictIndex[0]
        for key in ("FullName", "FamilyName"):
            if hasattr(top, key):
                setattr(top, key, getattr(top, key).replace(old, new))
    if "DSIG" in font:
        del font["DSIG"]


if __name__ == "__main__":
    main(Path(sys.argv[1]), Path(sys.argv[2]))
