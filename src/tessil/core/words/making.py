"""The words of making: what a step is called, what is done, why a gate holds a hand back.

One table, so that another language would be another table.  Common practice, no source.
``{panels}`` are the panels under the hand; lengths are told in the maker's units.
"""

from __future__ import annotations

from collections.abc import Mapping

from tessil.core.bag.deeds import Deed, Operation
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.lengths import Notation
from tessil.core.words.steps import STEP_WORDS, filled

OPERATION_WORDS: Mapping[Operation, str] = {
    "cut": "Cut",
    "piece": "Piece",
    "layer": "Layer",
    "quilt": "Quilt",
    "trim": "Trim",
    "mark": "Mark",
    "prepare": "Parts",
    "zipper": "Zipper",
    "assemble": "Join",
    "line": "Line",
    "turn": "Turn",
    "finish": "Finish",
}

_MAKING: dict[str, tuple[str, str]] = {
    "set.iron": (
        "Set the iron",
        "Something in this bag melts: set the iron low, lay a press cloth on it, try an offcut "
        "first. What its maker says of its heat goes before this.",
    ),
    "cut.all": ("Cut all pieces", "Cut everything by the cutting plan, the longest first."),
    "cut.label": ("Label the pieces", "Put a label on each pile: panel, size, up."),
    "piece.parts": ("Join the parts", "Join the {number} parts of the {panels} in their order."),
    "piece.section": (
        "Go on with the next section",
        "Section {number} of {of} on the same foundation: lay its first strip over the raw ends of "
        "the section above, right sides together, sew, and flip it down.",
    ),
    "piece.measure": (
        "Measure the pieced top",
        "{Panels}: {wide} by {high} is wanted. Measure at the middle and at both edges, and write "
        "on the ladder what came out.",
    ),
    "layer.press": ("Press the top", "Press the {panels} flat from the back, then the front."),
    "layer.fuse": ("Fuse", "Fuse the {what} to the {panels} as its maker says; let it cool flat."),
    "layer.spray": (
        "Spray and smooth",
        "Spray the {what} lightly, in fresh air, and smooth the {panels} on from the middle.",
    ),
    "layer.glue": ("Glue", "Dot glue on the {what} and smooth the {panels} on from the middle."),
    "layer.pin": (
        "Pin",
        "Lay the {panels} on the {what} and pin them together from the middle outwards, a hand "
        "apart.",
    ),
    "layer.smooth": ("Lay together", "Lay the {panels} on the {what}: they hold by themselves."),
    "quilt.test": (
        "Try the stitch",
        "Sew a few lines on an offcut of the same layers: tension, stitch, thread.",
    ),
    "quilt.sew": (
        "Quilt",
        "Quilt the {panels}, {lines} lines, from the middle outwards, every other line the other "
        "way; run off onto the batting.",
    ),
    "quilt.none": ("No quilting", "The {panels} is not quilted: go on."),
    "quilt.measure": (
        "Measure the quilted panel",
        "{Panels}: about {wide} by {high} is expected. Let it lie, measure it, and write on the "
        "ladder what came out; what is trimmed off follows it.",
    ),
    "hoop.set": (
        "Hoop the stabiliser",
        "Hoop the {what} straight and taut, {number} hoopings in all. Clear the way of the arm; "
        "keep fingers out of the hoop while it runs.",
    ),
    "hoop.place": (
        "Stitch the placing lines",
        "Stitch where the {panels} will lie, on the stabiliser alone.",
    ),
    "hoop.lay": (
        "Lay and trim a layer",
        "Lay the {what} over the line of the {panels} and stitch it down. Take the hoop off the "
        "machine, but nothing out of the hoop, and trim {by} outside the line: one layer at a "
        "time.",
    ),
    "hoop.top": (
        "Lay the top",
        "Lay the {panels} over it, right side up, and stitch it down all round.",
    ),
    "hoop.quilt": (
        "Quilt in the hoop",
        "Let the machine stitch the {lines} lines of the {panels}, then the outline in another "
        "thread.",
    ),
    "hoop.out-drawn": (
        "Draw the cloth on",
        "Take the work out of the hoop, draw it on by {by}, and hoop it again until all is "
        "stitched; then cut the outlines apart, ¼ in (6 mm) outside.",
    ),
    "hoop.out-apiece": (
        "Out of the hoop",
        "Take the work out of the hoop and begin the next one on a new piece; cut the outlines "
        "out ¼ in (6 mm) outside.",
    ),
    "hoop.stays": (
        "Trim the stabiliser",
        "The stabiliser stays: cut it back to the outlines of the {panels}.",
    ),
    "hoop.torn": (
        "Tear the stabiliser off",
        "Hold the stitches of the {panels} with a finger and tear the stabiliser away from them.",
    ),
    "hoop.washed": (
        "Wash the stabiliser out",
        "Wash the stabiliser out of the {panels} and let it dry flat before any iron comes near: "
        "it melts.",
    ),
    "trim.cut": (
        "Trim to size",
        "Trim the {panels} to {wide} by {high}. If it came out otherwise, write it on the ladder: "
        "lining and binding follow it.",
    ),
    "trim.stay": (
        "Stay-stitch",
        "Sew once round the {panels}, ⅛ in (3 mm) inside its edge, so that no seam opens.",
    ),
    "trim.plain": ("Cut", "Cut {number} × {panels}, {wide} by {high}."),
    "line.cut": (
        "Cut the lining",
        "Cut {number} × {panels}, {wide} by {high}: by what the outside came out as, not before.",
    ),
    "mark.corners-cut": (
        "Cut the corners out",
        "Cut {number} corners out of the {panels}, {wide} by {high}.",
    ),
    "mark.corners-drawn": (
        "Draw the corners",
        "Draw {number} corners on the {panels}, {wide} by {high}; do not cut them.",
    ),
    "mark.middles": ("Mark the middles", "Fold the {panels} and crease or snip each middle."),
    "check.upright": (
        "Look: upright?",
        "Lay the {panels} as they will stand: every print with an up has it up, on both sides of "
        "a fold.",
    ),
    "prepare.slip": (
        "Pocket",
        "Make the {what} and sew it to the {panels}, its top {down} below the raw edge; back-tack "
        "both upper corners.",
    ),
    "prepare.divided": (
        "Divided pocket",
        "Make the {what}, sew it to the {panels}, its top {down} below the raw edge, then its "
        "divisions in double lines.",
    ),
    "prepare.window": (
        "Zip pocket",
        "Sew the box of the {what} on the {panels}, {down} below the raw edge, with a short "
        "stitch; cut it open with a Y at both ends, turn the bag through, sew the zipper in.",
    ),
    "prepare.ribbon": (
        "Ribbon or lace",
        "Pin the {what} across the {panels}, its top {down} below the raw edge, both ends past the "
        "sides; sew along both its edges the same way.",
    ),
    "prepare.label": (
        "Label",
        "Turn its ends under and sew the {what} to the {panels}, {down} below the raw edge.",
    ),
    "prepare.tab": ("Tab", "Fold the {what}, and baste it to the {panels}, {down} below the top."),
    "check.pockets": (
        "Look: pockets",
        "All pockets are on: once the lining is closed none can be.",
    ),
    "prepare.snap-male": (
        "Snap, male half",
        "Set it into the {panels}, with a square of interfacing behind: its washer must not show.",
    ),
    "prepare.snap-female": (
        "Snap, female half",
        "Set it into the {panels} where the flap really lands, {down} below the raw edge.",
    ),
    "check.snap": ("Look: snap", "Lay the flap over: do both halves meet?"),
    "flap.sew": (
        "Sew the flap",
        "Lay the {panels} right sides together; sew the sides and the round edge, leave the "
        "straight one open.",
    ),
    "flap.clip": ("Clip the flap", "Clip its curves up to the stitching, and not into it."),
    "flap.turn": ("Turn the flap", "Turn it right side out, roll the seam to its edge, press."),
    "flap.topstitch": ("Topstitch the flap", "Topstitch it ⅛ to ¼ in from its edge."),
    "flap.baste": (
        "Flap onto the back",
        "Middle on middle, right sides together, baste the flap to the top of the back.",
    ),
    "strap.make": ("Make the {what}", "Make {number} × {what} as the edge stage says."),
    "check.untwisted": (
        "Untwist it through the hand",
        "Let the {what} run through your hand from end to end: not twisted, its fold towards the "
        "inside of the bag.",
    ),
    "strap.baste": (
        "Baste the {what}",
        "Baste both ends of the {what} to the {panels}, inside the seam, three times over.",
    ),
    "strap.face": (
        "Sew on the {what}",
        "Each end of the {what} on the {panels}, turned in: a box as wide as it is, a cross "
        "through it, back-tacks at every corner.",
    ),
    "strap.hang-rings": ("Hang the {what} on its rings", "Through both rings; hang a load on it."),
    "strap.hang-tied": ("Tie the {what} on", "Through both loops; hang a load on it and wait."),
    "check.middles": ("Middles meet?", "Middle of the zipper on the middle of the {panels}."),
    "check.linings": (
        "Linings face the zipper",
        "Right side of the {panels} to the zipper's wrong side, print upright.",
    ),
    "zip.sew": (
        "Zipper, side {number}",
        "Zipper on the {panels}, right sides together, edges even; sew, move the slider out of "
        "the foot's way.",
    ),
    "zip.sew-lined": (
        "Zipper, side {number}",
        "Outer {panels}, zipper, lining: the zipper between two right sides, edges even; sew, "
        "move the slider out of the foot's way.",
    ),
    "check.zip-runs": ("Run the zipper", "Open and close it from end to end."),
    "zip.pull": (
        "Pull inside",
        "Bring the pull between the side seams; the teeth closed where they will be cut.",
    ),
    "zip.trim-ends": (
        "Trim the zipper",
        "Stay-stitch over the ends and cut off what is over. Never through metal.",
    ),
    "zip.open-half": (
        "Open the zipper half",
        "Open it half: once the last seam is sewn this is the way out.",
    ),
    "join.seam": (
        "Sew the {join}",
        "{Panels}, right sides together; sew, with a back-tack at both ends.",
    ),
    "join.folded": (
        "Sew the {join}",
        "Fold the {panels} right sides together and sew it, with a back-tack at both ends.",
    ),
    "join.band": (
        "Sew the band on",
        "Band on the {panels}, right sides together, print upside "
        "down so that it stands up once it is flipped.",
    ),
    "join.corner": (
        "Box a corner: {join}",
        "Pull the corner flat, seam on seam, allowances opposite ways; sew straight across, twice.",
    ),
    "join.pinched": (
        "Pinch a corner: {join}",
        "Pinch the corner flat, seam on seam; draw the line square across and sew it.",
    ),
    "join.edge": (
        "Join at the {join}",
        "Wrong sides together, edges even; sew inside the binding's seam.",
    ),
    "join.round": (
        "Sew all round",
        "Body and lining right sides together; sew all round and leave {gap} at the straight edge.",
    ),
    "shell.press": ("Press the seams", "Press the seams as chosen; corners towards the base."),
    "shell.clip": (
        "Clip",
        "Clip curves and cut corners across, up to the stitching and not into it.",
    ),
    "check.caught": (
        "Every layer caught?",
        "Look along every seam from both sides: batting that stands out hides a missed layer.",
    ),
    "check.shell": (
        "The outside is sewn",
        "Every seam of the outside is sewn, looked at, clipped.",
    ),
    "check.teeth": (
        "Lay it for the last seams",
        "Linings on linings, outer on outer, right sides together; the zipper's teeth bent "
        "towards the lining.",
    ),
    "line.seam": ("Lining: {join}", "Sew the lining's {join}, right sides together."),
    "line.seam-gap": (
        "Lining: {join}, with the gap",
        "Sew the lining's {join} and leave {gap} open in its middle, a back-tack on either side.",
    ),
    "check.lining": (
        "Look: lining",
        "Its seams are sewn; where the bag is turned through it, the gap is there.",
    ),
    "line.put-in": (
        "Lining in",
        "Slip the lining into the bag, wrong sides together, side seam on side seam.",
    ),
    "line.put-round": (
        "Lining round it",
        "Slip the outside, right side out, into the lining, wrong side out: right sides together, "
        "side seam on side seam.",
    ),
    "top.sew": ("Sew round the top", "Sew round the top edge; strap and flap hang down inside."),
    "top.baste": ("Baste the top", "Baste round the top, ⅛ in (3 mm) from the edge."),
    "top.press-under": ("Press the top under", "Press the top of the {what} under by {seam}."),
    "top.edge-stitch": (
        "Edge-stitch the top",
        "Fold on fold, clip it, and stitch round the top ⅛ in (3 mm) from the fold, through all.",
    ),
    "top.turn-in": ("Turn the top in", "Turn the top edge in twice and topstitch it."),
    "edges.turn-in": (
        "Turn the edges in",
        "Turn the edges of the {panels} in twice all round, mitre the corners, topstitch.",
    ),
    "top.stitch": ("Topstitch the top", "Roll the seam to the edge, press, topstitch round it."),
    "turn.gap": ("Turn through the gap", "Turn the bag right side out through the gap."),
    "turn.zip": ("Turn through the zipper", "Turn the bag right side out through the zipper."),
    "turn.mouth": ("Turn right side out", "Turn the outside right side out through its top."),
    "turn.corners": ("Push the corners out", "Push corners and seams out with something blunt."),
    "gap.close": (
        "Close the gap",
        "Fold the {gap} of the gap in and slip-stitch it, or topstitch it close to the fold.",
    ),
    "inside.finish": ("Inside: {join}", "Bind or overcast the raw seam inside."),
    "sides.stitch": (
        "Sew the sides",
        "Fold the body up and topstitch both sides, over the edges turned in; back-tack above.",
    ),
    "lay.faces": ("Lay the faces", "The {panels}, wrong sides together, edges even."),
    "lay.one": ("Lay it flat", "The {panels}, edges even, right side up."),
    "edge.baste": ("Baste all round", "Baste round the edge, inside the binding's seam."),
    "front.measure": (
        "Trim the front as one",
        "Trim the assembled front square, all its parts together: {wide} by {high} is planned. "
        "Measure it and write on the ladder what came out: back and binding follow it.",
    ),
    "edge.overcast": ("Overcast", "Zigzag or overcast every edge that stays as it was cut."),
    "base.strip": (
        "Strip on the base",
        "Press both long edges of the base strip under so that it is {wide} wide, lay it over the "
        "open bottom seam, inside, and topstitch both sides: the corners catch its ends.",
    ),
    "base.fuse": (
        "Fuse the stiffener",
        "Fuse the stiffener over the bottom seam, from corner seam to corner seam.",
    ),
    "base.lining": (
        "Fuse the stiffener",
        "Fuse the stiffener on the base of the lining, on its wrong side.",
    ),
    "base.sleeve": (
        "Sleeve on the base",
        "Fold the sleeve along, hem one short end, sew the others; sew it on the base by its long "
        "edge: the open end stays where a hand reaches it.",
    ),
    "finish.stiffener": ("Base in", "Push the stiffener into its sleeve on the base."),
    "finish.channel": ("Sew the channel", "Sew both lines of the cord's channel round the band."),
    "finish.press": ("Last press", "Press folds and edges from outside; low where it melts."),
    "check.finished": (
        "Look it over",
        "Run the closure, pull at straps and tabs, look for threads. Then the log.",
    ),
}

_HEADS = (
    ("bind.", "Binding"),
    ("pipe.", "Piping"),
    ("strap.", "Strap"),
    ("bias.", "Bias strips"),
    ("square.", "Square the {panels}"),
    ("zip.", "Zipper"),
    ("cord.", "Cord"),
    ("loop.", "Loop"),
    ("", "Piece the {panels}"),
)

GATE_WORDS: dict[str, tuple[str, str]] = {
    "zip-open": (
        "The zipper is closed: once this seam is sewn the bag cannot be turned.",
        "The seam has to be unpicked again.",
    ),
    "pull-inside": (
        "The pull is not inside: it is cut off with the end of the zipper.",
        "A new zipper, or a new slider over the cut end.",
    ),
    "snap-first": (
        "The snap is not in: once this is closed its washer cannot be bent.",
        "The seam has to be opened, or the washer shows.",
    ),
    "pockets-first": (
        "A pocket is not on: the lining is closed with this step.",
        "No pocket, or the lining is unpicked.",
    ),
    "fold-inside": (
        "Nobody has looked which way the fold lies: it goes towards the inside.",
        "The raw edge shows; the end is unpicked from the seam.",
    ),
    "untwisted": (
        "Nobody has let it run through the hand: it may be twisted.",
        "One end is unpicked and sewn again.",
    ),
    "lining-right": (
        "The linings are not laid right: teeth to the lining, right sides together.",
        "The zipper bulges, or a wrong side shows: both seams unpicked.",
    ),
    "gap-left": (
        "There is no gap left to turn it through.",
        "The bag is sewn shut: open some 4 in (10 cm) of the lining's seam.",
    ),
    "upright": (
        "Nobody has looked whether the prints stand upright.",
        "An upside-down panel shows once all is sewn.",
    ),
    "caught": (
        "The seams have not been looked along: batting hides a missed layer.",
        "It is found after turning, and turned back.",
    ),
    "clipped": ("Curves and corners are not clipped.", "They pucker; the bag is turned back."),
    "middles-meet": (
        "Middles have not been laid on one another.",
        "The sides do not meet at the zipper's end.",
    ),
    "not-closed": (
        "The lining is closed already: nothing can be set into it.",
        "The lining's seam is unpicked.",
    ),
    "flap-in-seam": (
        "The flap is not on: this seam would close without it.",
        "The top is unpicked along the back.",
    ),
    "piping-first": (
        "The piping is not on: this seam would close without it.",
        "The seam is unpicked.",
    ),
    "strap-in-seam": (
        "What goes into this seam is not basted on.",
        "The seam is unpicked where it goes.",
    ),
    "cool-iron": (
        "The iron has not been set: something here melts.",
        "A spoilt panel, and a spoilt iron.",
    ),
}


def deed_words(deed: Deed, panels: str, join: str, notation: Notation) -> tuple[str, str]:
    """What a step is called, and what is done in it.  ``panels`` and ``join`` are their names."""
    title, sentence = _MAKING.get(deed.what, ("", STEP_WORDS.get(deed.what, "")))
    values = dict(deed.values)
    said = filled(sentence, values, notation)
    words = {
        "panels": panels,
        "Panels": panels[:1].upper() + panels[1:],
        "join": join,
        "gap": "" if deed.gap is None else notation.read_off(deed.gap.value, unit=True),
    }
    for name, value in words.items():
        said = said.replace(f"{{{name}}}", value)
    heading = filled(title, values, notation).replace("{join}", join)
    if not heading:
        heading = next((name for start, name in _HEADS if deed.what.startswith(start)), "")
        heading = heading.replace("{panels}", panels) or OPERATION_WORDS[deed.operation]
        if deed.what.startswith("strap."):  # several kinds of strips are made alike: which one
            of = str(values.get("of", heading))
            heading = of[:1].upper() + of[1:]
    return heading, said


def seam_words(deed: Deed, notation: Notation) -> str:
    """How a seam is sewn: how far from the edge, how long it is, where it stays open."""
    said = []
    if deed.seam is not None:
        said.append(f"seam {notation.read_off(deed.seam.value, unit=True)}")
    if deed.length is not None:
        said.append(f"{notation.read_off(Fraction(deed.length.value), unit=True)} long")
    if deed.gap is not None:
        said.append(f"{notation.read_off(deed.gap.value, unit=True)} left open")
    if deed.tool:
        said.append(deed.tool)
    return ", ".join(said)


GLOSSARY: dict[str, str] = {
    "right sides together": "The sides that will show lie on each other; the wrong sides are seen.",
    "back-tack": "A few stitches back and forth at the end of a seam, so that it does not open.",
    "stay-stitch": "A line of stitches just inside the edge that keeps it from stretching.",
    "topstitch": "Sewn from outside, close to an edge, to be seen.",
    "baste": "Sewn with long stitches to hold until the real seam; it may stay inside.",
    "slip-stitch": "By hand, from fold to fold, so that no stitch is seen.",
    "clip": "Snip the allowance up to the stitching, and not into it.",
    "teeth": "What closes a zipper, between its two tapes.",
    "allowance": "What lies between the seam and the raw edge.",
    "raw edge": "An edge as it was cut, not sewn or turned yet.",
    "ladder": "The row of sizes of a panel: pieced, quilted, trimmed.",
    "nest": "Seams pressed opposite ways lock into each other.",
    "bias": "Cloth cut on the slant: it stretches.",
}

STATE_WORDS: dict[str, str] = {
    "seams": "{sewn} of {number} seams of the outside are sewn.",
    "lining open": "The lining is not closed: pockets and snap can still be set.",
    "lining closed": "The lining is closed: nothing can be set into it any more.",
    "open": "All of it can still be reached.",
    "gap": "The way out is the gap in the lining, {wide}.",
    "zip": "The way out is the open zipper, {wide}.",
    "shut": "The zipper is shut: there is no way out.",
    "mouth": "The way in is its top, {wide} round.",
    "enough": "Its stiffest part turns through {least}: the gap of {gap} will do.",
    "narrow": "Its stiffest part asks for {least}: a gap of {gap} is too narrow.",
    "turned": "It is right side out.",
    "inside out": "It is wrong side out.",
}

# What to do where a step went wrong, by the beginning of its kind; the first that fits.
