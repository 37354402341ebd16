"""What a step of making is called and what is done in it: one table, so that another language would
be another table.  Common practice, no source.

``{panels}`` are the panels under the hand; lengths are told in the maker's units.
"""

from __future__ import annotations

DEED_WORDS: dict[str, tuple[str, str]] = {
    "set.iron": (
        "Set the iron",
        "Something in this bag melts: set the iron low, lay a press cloth on it, try an offcut "
        "first. What its maker says of its heat goes before this.",
    ),
    "cut.all": ("Cut all pieces", "Cut everything by the cutting plan, the longest first."),
    "cut.label": ("Label the pieces", "Put a label on each pile: panel, size, up."),
    "piece.parts": ("Join the parts", "Join the {number:part} of the {panels} in their order."),
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
        "Quilt the {panels}, {lines:line}, from the middle outwards, every other line the other "
        "way; run off onto the batting.",
    ),
    "quilt.sew-one": ("Quilt", "Quilt the {panels} along its one line; run off onto the batting."),
    "quilt.none": ("No quilting", "The {panels} is not quilted: go on."),
    "quilt.measure": (
        "Measure the quilted panel",
        "{Panels}: about {wide} by {high} is expected. Let it lie, measure it, and write on the "
        "ladder what came out; what is trimmed off follows it.",
    ),
    "hoop.set": (
        "Hoop the stabiliser",
        "Hoop the {what} straight and taut, {number:hooping} in all. Clear the way of the arm; "
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
        "Let the machine stitch the {lines:line} of the {panels}, then the outline in another "
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
        "Cut the {panels}",
        "Cut {number} × {panels}, {wide} by {high}: by what the outside came out as, not before.",
    ),
    "mark.corners-cut": (
        "Cut the corners out",
        "Cut {number:corner} out of the {panels}, {wide} by {high}.",
    ),
    "mark.corners-drawn": (
        "Draw the corners",
        "Draw {number:corner} on the {panels}, {wide} by {high}; do not cut them.",
    ),
    "mark.corners-cut-fold": (
        "Cut the corners out at the fold",
        "Cut {number:corner} out of the {panels}, each {wide} in from the side and {high} either "
        "way of the fold.",
    ),
    "mark.corners-drawn-fold": (
        "Draw the corners at the fold",
        "Draw {number:corner} on the {panels}, each {wide} in from the side and {high} either way "
        "of the fold; do not cut them.",
    ),
    "mark.corners-cut-zip": (
        "Cut the corners out at the zipper",
        "Cut {number:corner} out of the {panels}, {wide} in from the side and {high} from the edge "
        "the zipper is sewn to.",
    ),
    "mark.corners-drawn-zip": (
        "Draw the corners at the zipper",
        "Draw {number:corner} on the {panels}, {wide} in from the side and {high} from the edge "
        "the zipper is sewn to; do not cut them.",
    ),
    "trim.round": (
        "Round the corners",
        "Round {number:corner} of the {panels} to a radius of {wide}, drawn along anything so "
        "round; cut on the line.",
    ),
    "trim.clip": (
        "Clip the corners",
        "Cut {number:corner} off the {panels}, {wide} along its end and {high} up the side.",
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
        "divisions in double lines, {lines!} from its left side.",
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
    "prepare.patch": (
        "Sew a patch on",
        "Sew the patch on the {panels}, {down} below its top edge and {across} from the left, all "
        "round.",
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
        "Lay the {panels} right sides together; sew round, and leave open the edge that goes into "
        "the back.",
    ),
    "flap.clip": ("Clip the flap", "Clip its curves up to the stitching, and not into it."),
    "flap.turn": ("Turn the flap", "Turn it right side out, roll the seam to its edge, press."),
    "flap.topstitch": ("Topstitch the flap", "Topstitch it ⅛ to ¼ in (3 to 6 mm) from its edge."),
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
    "strap.face-late": (
        "Sew the {what} on",
        "The top is topstitched: sew both ends of the {what} on the face through outside and "
        "lining, a box and a cross, the patch behind each.",
    ),
    "strap.below": (
        "Sew the {what} below the edge",
        "The top is finished. Right sides together and hanging down, each raw end ¼ in (6 mm) "
        "below the edge or its binding: sew ¼ in (6 mm) from the end, flip it up over its raw "
        "end, sew again just below.",
    ),
    "strap.hang-rings": (
        "Try the {what} on its rings",
        "Both ends are on their rings: hang a load on it and wait.",
    ),
    "strap.baste-rings": (
        "Baste the {what}",
        "A ring through each of the {what}; baste both ends of each to the {panels}, inside the "
        "seam, three times over.",
    ),
    "strap.hang-tied": ("Tie the {what} on", "Through both loops; hang a load on it and wait."),
    "check.middles": (
        "Middles meet?",
        "Middle of the zipper on the middle of the {panels}; closed, its pull is towards the "
        "{towards}, seen from the front.",
    ),
    "check.linings": (
        "Linings face the zipper",
        "Right side of the {panels} to the zipper's wrong side, print upright.",
    ),
    "check.linings-behind": (
        "Linings lie behind",
        "Wrong side of the {panels} to the wrong side of the outside, edges even, print upright.",
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
    "zip.sew-bound": (
        "Zipper, side {number}",
        "Zipper under the bound edge of the {panels}, teeth just clear of it; stitch in the ditch "
        "of the binding, move the slider out of the foot's way.",
    ),
    "zip.sew-lapped": (
        "Zipper, side {number}",
        "The raw edge of the {panels}, all layers as one, against the teeth; lap the tape over "
        "edge and zipper tape, stitch both its sides, move the slider out of the foot's way.",
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
        "{Panels}, right sides together, the band's print upside down so that it stands up once "
        "it is flipped.",
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
    "line.corner": (
        "Lining: {join}",
        "Pull the lining's corner flat, seam on seam, allowances opposite ways; sew straight "
        "across, twice.",
    ),
    "line.pinched": (
        "Lining: {join}",
        "Pinch the lining's corner flat as outside and sew across on the line drawn, twice.",
    ),
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
    "top.sew": ("Sew round the top", "Sew round the top edge, both layers together."),
    "top.sew-hanging": (
        "Sew round the top",
        "Sew round the top edge, both layers together; what goes into it hangs down inside.",
    ),
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
    "ends.sew": (
        "Sew both short ends",
        "Lay the {panels} right sides together and sew both short ends: a sleeve, open at its "
        "sides.",
    ),
    "ends.turn": (
        "Turn and topstitch the ends",
        "Turn the sleeve right side out through a side, press both ends and topstitch them: they "
        "are the finished top edges.",
    ),
    "join.through": (
        "Sew through all",
        "Fold it right sides together, the top edges even, and sew through outside and lining at "
        "once; back-tack at the top.",
    ),
    "line.false-seam": (
        "False seam in the lining",
        "Fold the lining right sides together across its middle and sew ¼ in (6 mm) from the fold, "
        "from both sides; leave the middle open to turn the bag.",
    ),
    "motif.sewn": (
        "Stitch the motif",
        "Draw the {panels} to size, but do not cut it yet. Turn the motif's edges under, {wide} by "
        "{high}, and stitch it on; the cloth draws in, so measure before you cut.",
    ),
    "motif.fused": (
        "Fuse and stitch the motif",
        "Draw the motif mirrored on the web, letters too, {wide} by {high}; fuse it on the "
        "{panels} and stitch round it. Cut the panel to size only then.",
    ),
    "motif.embroidered": (
        "Embroider the motif",
        "Embroider the {panels}, {wide} by {high}, on a stabiliser, while it is still too large; "
        "press it from the back and cut it to size only then.",
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
