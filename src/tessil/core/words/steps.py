"""The words of the steps of work, by kind; lengths are told in the maker's units.

One table, so that another language would be another table.  Common practice, no source.
"""

from __future__ import annotations

import re
from collections.abc import Iterable, Mapping
from functools import partial

from tessil.core.bag.steps import Step, Value
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Notation

_PRESS = {
    "open": "press the {what} open",
    "side": "press the {what} to one side, the other way in every other row",
}
_PIECING = {
    "piece.whole": "Cut one piece of cloth to size.",
    "piece.one-strip": "Cut the one strip to size.",
    "piece.join-strips": (
        "Sew strips 1 and 2 right sides together, then the others in their order, {number} in "
        "all; every other seam from its other end, so that the top does not bow."
    ),
    "piece.press": "{Press:seams}.",
    "piece.lay-out": "Lay all {number:square} out by the layout page, and look.",
    "piece.join-row": "Join the {number:square} of each row; {press:short seams}.",
    "piece.join-row-sashed": (
        "Join the {number:square} of each row with a short sashing strip between each two; "
        "{press:short seams}."
    ),
    "piece.join-rows-nested": (
        "Join the {number:row} in their order. Nest the crossings: the seams of neighbouring "
        "rows lie opposite ways and lock."
    ),
    "piece.join-rows-open": (
        "Join the {number:row} in their order. Match the open seams at every crossing with a "
        "pin through both."
    ),
    "piece.join-rows-sashed-nested": (
        "Join the {number:row} in their order with a long sashing strip between each two. Nest "
        "the crossings: the seams of neighbouring rows lie opposite ways and lock."
    ),
    "piece.join-rows-sashed-open": (
        "Join the {number:row} in their order with a long sashing strip between each two. Match "
        "the open seams at every crossing with a pin through both."
    ),
    "piece.press-long": (
        "Press the long seams the same way and give the top a last press from the front."
    ),
    "web.lay": (
        "Cut the gridded web and lay the squares edge to edge on its lines, {across} across and "
        "{down} down, right sides up; look, then fuse as the web asks."
    ),
    "web.upright": (
        "Fold on the first upright line, right sides together, and sew a seam from the fold; so "
        "all {number} upright lines."
    ),
    "web.snip": (
        "Snip every crossing just to the stitching, and press the seams up and down by turns."
    ),
    "web.level": "Fold and sew the {number} level lines; the seams lock where they cross.",
    "web.press": "Press from the front.",
    "slant.join": (
        "Sew the strips in their order, each shifted so that its ends reach past the panel."
    ),
    "slant.press": ("{Press:seams}; lift the iron rather than push it: the edges are on the bias."),
    "slant.cut": "Cut the size out of the sewn strips, and stay-stitch its edges at ⅛ in (3 mm).",
    "strap.cover": (
        "Fold the cover round the webbing so that its long edges meet in the middle of one side, "
        "and topstitch both edges; the webbing reaches past it at both ends."
    ),
    "strap.underside": (
        "Fuse the interfacing to the underside, press ¼ in (6 mm) in along both edges of top and "
        "underside, lay them wrong sides together and topstitch both edges."
    ),
    "bind.own": (
        "Lay the layers wrong sides together and bind {what}: sew on at {seam}, turn over "
        "the edge, press the ends under, stitch behind."
    ),
    "bind.flap": (
        "Lay the flap on its lining, wrong sides together, baste ⅛ in (3 mm) from the edge and "
        "bind {what}: sew on at {seam}, mitre what corners it has, turn over the edge, stitch "
        "behind; the ends stay raw, the top takes them in."
    ),
    "zip.end-tabs": (
        "Shorten the zipper until {tape} of it lie between the tabs, metal teeth pulled out of the "
        "way first; fold a tab over each end, its raw edges turned in, and topstitch it."
    ),
    "zip.bind-edges": (
        "Bind the edges that the zipper meets, all layers as one: sew on at {seam}, turn over the "
        "edge, stitch behind."
    ),
    "zip.under-bound": (
        "Lay the zipper under a bound edge, teeth just clear of it, and stitch in the ditch of the "
        "binding; then the other edge."
    ),
    "zip.lap-tape": (
        "Butt a raw edge, all layers as one, against the teeth, lap the decorative tape over edge "
        "and zipper tape, and stitch both its sides; then the other edge."
    ),
    "flip.line": (
        "Glue the lining under the {base}, its right side away from it: every seam then quilts it."
    ),
    "flip.draw": (
        "Draw every seam line on the {base} and stitch the panel's outline in a contrasting "
        "thread: it is the cutting line, cut ⅛ in (3 mm) outside it."
    ),
    "flip.first": (
        "Lay strip 1 right side up in the middle of the {base}, past the outline at both ends."
    ),
    "flip.next": (
        "Lay the next strip on it, right sides together, edges even. Fold it over before sewing: "
        "does it cover to the next line and past the outline?"
    ),
    "flip.sew": "Sew, flip, press, and go on by the numbers to both sides, {number:strip} in all.",
    "flip.sew-finger": (
        "Sew, flip, and press with a finger or a roller, never an iron: what it is sewn on melts. "
        "Go on by the numbers to both sides, {number:strip} in all."
    ),
    "flip.torn": "Leave the {base} in until the panel is in its seams; then tear it out.",
    "flip.quilts": "Every seam goes through the {base}: it is the quilting too.",
    "flip.stays": "The foundation stays in; quilt afterwards as planned.",
    "course.cut": "Cut every scrap of a course to the height of the course.",
    "course.join": "Join them end to end; {press:short seams}.",
    "course.trim": "Cut each course to the width needed; keep what falls off.",
    "course.rows": "Join the courses, the longest seams last; no short seam above another.",
    "crumbs.join": "Sew two scraps together, press, trim the joined side straight; add the next.",
    "crumbs.cut": "Join made pieces to larger ones until the size is reached, and cut it out.",
    "piece.border": "Sew the two side borders on, press outwards; then top and bottom.",
}
_SQUARING = {
    "square.by-lines": "Lay the ruler square to the quilting lines.",
    "square.by-strips": ("Keep the seam between strips {one} and {two} parallel to the ruler."),
    "square.by-rows": "Keep the seam between rows {one} and {two} parallel to the ruler.",
    "square.level-first": (
        "Take {top} off the top and {bottom} off the bottom; square the left to it and take "
        "{left}, then {right} off the right."
    ),
    "square.upright-first": (
        "Take {left} off the left and {right} off the right; square the top to it and take "
        "{top}, then {bottom} off the bottom."
    ),
}
_EDGES = {
    "bind.join": "Join the strips on the diagonal, trim to ¼ in (6 mm), press open.",
    "bind.fold": "Press the strips in half along their length, wrong sides in.",
    "bind.press-under": "Press one long edge of the strips under by the width of the seam.",
    "bind.sew-front": (
        "Sew its raw edges to the front, {seam} from the edge; begin where the drawing says, its "
        "beginning left loose."
    ),
    "bind.sew-back": (
        "Sew its raw edges to the back, {seam} from the edge; begin where the drawing says, its "
        "beginning left loose."
    ),
    "bind.tuck": "Press the first end under by ½ in (13 mm); lay the last one {over} into it.",
    "bind.join-ends": (
        "Let the ends overlap by the strip's width, {cut}, and join them on the diagonal."
    ),
    "bind.mitre": (
        "At each corner stop {seam} before it, fold the strip up and down again, go on from the "
        "edge."
    ),
    "bind.butt": "Bind two opposite sides, trim, then the other two with their ends turned in.",
    "bind.turn-back-hand": (
        "Turn it over to the back, over the stitching, and slip-stitch it by hand."
    ),
    "bind.turn-front-hand": (
        "Turn it over to the front, over the stitching, and slip-stitch it by hand."
    ),
    "bind.turn-back": (
        "Turn it over to the back, over the stitching, and clip it and topstitch close to its fold."
    ),
    "bind.turn-front": (
        "Turn it over to the front, over the stitching, and clip it and topstitch close to its "
        "fold."
    ),
    "bias.tube": (
        "Cut the square on its diagonal; sew two straight edges together, a seam of ¼ in (6 mm)."
    ),
    "bias.tube-cut": (
        "Mark the lines, sew the slanted ends to a tube with 1 on 1, cut along the line."
    ),
    "bias.join": (
        "Join in the order of the numbers, ends crossing at right angles, seams of ¼ in (6 mm); a "
        "strip that is turned goes the other way round."
    ),
    "bias.press": "Do not pull bias while it is pressed.",
    "pipe.cover": "Fold the strip round the cord and baste close to it, not tight against it.",
    "pipe.trim": "Trim its allowance to {seam}, as the seam's.",
    "pipe.corners": (
        "Baste it to the right side; at its {number:corner} clip the allowance up to the "
        "stitching, on curves every ½ in (13 mm)."
    ),
    "pipe.ends": (
        "Where the ends meet: cord cut butt, the strip lapped by {over} with its end turned in."
    ),
    "pipe.into-seams": (
        "Its ends run square into the seams across: pull the cord out ½ in (13 mm) and cut it, so "
        "that it is not sewn over."
    ),
    "strap.join-diagonal": (
        "Join its strips on the diagonal, trim to ¼ in (6 mm), press the seams open."
    ),
    "strap.join-straight": "Join its strips end to end, seams of ¼ in (6 mm), pressed open.",
    "strap.fuse": (
        "Fuse the interfacing along the middle of the strip, on its wrong side, ½ in (13 mm) short "
        "of both ends."
    ),
    "strap.fold": (
        "Press the strip in half, both edges to that fold, and in half again; topstitch both long "
        "sides."
    ),
    "strap.ends": (
        "Turn {back} back at each end, round its ring or the slider's bar, and sew a box with a "
        "cross, three times over."
    ),
    "strap.hem": "Turn each end in and topstitch it: the strap is tied, its ends show.",
    "strap.patch": "Fuse a square of interfacing behind each place where an end is sewn on.",
    "strap.check": (
        "Mind that it is not twisted before the second end is sewn; hang a load on it and wait."
    ),
    "strap.slider-first": "The slider goes to the first strip's end, away from the join.",
    "strap.slider-last": "The slider goes to the last strip's end, away from the join.",
    "strap.thread": (
        "One end goes round the slider's bar; draw the other through a ring, back through the "
        "slider, and to the other ring."
    ),
    "zip.sliders-on": (
        "Put the sliders on: part the teeth at an end, feed both sides in evenly, draw it over; a "
        "few stitches across the teeth at each end keep it."
    ),
    "zip.stops-left": (
        "Its teeth begin {left} from the left seam: sew across them there, and fold the ends of "
        "the tape away into the zipper's own seam."
    ),
    "zip.stops-right": (
        "Its teeth end {right} from the right seam: sew across them there, and fold the ends of "
        "the tape away into the zipper's own seam."
    ),
    "zip.stops-both": (
        "Its teeth begin {left} from the left seam and end {right} from the right one: sew across "
        "them there, and fold the ends of the tape away into the zipper's own seam."
    ),
    "zip.two-sliders": (
        "Teeth towards the right side; closed, the two sliders meet in the middle."
    ),
    "zip.one-slider": (
        "Teeth towards the right side; closed, it opens away from the end where the pull rests."
    ),
    "zip.by-the-loop": "Closed, the pull rests on the wrist strap's side.",
    "zip.topstitch": "Topstitch {off} from the fold; open it half before the last seam.",
    "zip.pull": "Bring the pull inside before anything is trimmed across the teeth.",
    "cord.open": (
        "Leave the side seams open between the channel's lines; bar-tack both ends of each."
    ),
    "cord.eyelets": (
        "Set the eyelets in the front of the band, half way up the channel, a scrap of interfacing "
        "behind each, before the channel is sewn."
    ),
    "cord.thread-one": (
        "Thread the cord once round and out where it went in; knot its ends together."
    ),
    "cord.thread": ("Thread each cord once round and out at its own side; knot its ends together."),
    "zip.pull-tab": (
        "Press the pull tab's strip in half, both edges to that fold, and in half again; topstitch "
        "it, draw it through the slider and knot or stitch it."
    ),
    "loop.make": (
        "Press the loop's strip in half, both edges to that fold, and in half again; topstitch it."
    ),
    "loop.button": (
        "Close the bag, lay the loop down, and sew the button on where it reaches, on a shank as "
        "high as the loop is thick."
    ),
    "loop.baste": (
        "Baste the loop to the back's middle, its fold towards the inside; test the button."
    ),
}
_SWATCH = {
    "swatch.cut": "Cut top and layers ({layers}) {side!} square; press the top as the panel's.",
    "swatch.draw": (
        "Draw a square of {inner!} on it and measure it both ways and by both diagonals: that is "
        "before."
    ),
    "swatch.quilt": (
        "Quilt it as the panel: {pattern}, {gap!} apart, your machine, thread and foot; note the "
        "minutes."
    ),
    "swatch.measure": (
        "Let it lie for an hour, measure the same square again: that is after. Write all in the "
        "logbook."
    ),
}
STEP_WORDS: dict[str, str] = {**_PIECING, **_SQUARING, **_EDGES, **_SWATCH}


def told(steps: Iterable[Step], notation: Notation) -> tuple[str, ...]:
    """Sentences, one a step."""
    return tuple(_told(step, notation) for step in steps)


def _told(step: Step, notation: Notation) -> str:
    return filled(STEP_WORDS[step.what], dict(step.values), notation)


def filled(words: str, values: Mapping[str, Value], notation: Notation) -> str:
    """Words with the lengths, counts and names of a step in their places."""
    for name, value in values.items():
        words = words.replace(f"{{{name}}}", _read(value, notation))
        words = words.replace(f"{{{name}!}}", _read(value, notation, unit=True))
        if isinstance(value, int):
            words = re.sub(rf"\{{{name}:([a-z ]+)\}}", partial(_counted, value), words)
    press = _PRESS.get(str(values.get("press", "")))
    if press is not None:
        for what in ("seams", "short seams"):
            said = press.format(what=what)
            words = words.replace(f"{{press:{what}}}", said)
            words = words.replace(f"{{Press:{what}}}", said[:1].upper() + said[1:])
    return words


def _counted(number: int, noun: re.Match[str]) -> str:
    """``1 line``, ``9 lines``."""
    return f"{number} {noun[1]}{'' if number == 1 else 's'}"


def _read(value: Value, notation: Notation, unit: bool = False) -> str:
    """A length as the maker reads it, with its unit if asked; counts and names as they are."""
    if isinstance(value, tuple):
        *first, last = value
        said = ", ".join(notation.read_off(one) for one in first)
        return f"{said} and {_read(last, notation, unit)}" if first else _read(last, notation, unit)
    if isinstance(value, Fraction):
        return notation.read_off(value, unit=unit)
    return str(value)
