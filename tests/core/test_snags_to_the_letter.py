"""What each kind of snag says of its case, how grave it is, where it lies, why, and that each of
its ways out mends it: by hand from the cases in ``snag_cases.py``; common practice, no source."""

import pytest

from tessil.core.edits import applied, edit
from tessil.core.numbers.exact import Fraction
from tessil.core.plan import plan
from tests.core.snag_cases import AFTER, BY_TUNER, CASES, found

F = Fraction
W, H = F(59, 4), F(111, 8)
ALL = (0, 0, W, H)
TOP = (0, 0, W, 0)
BUNCHES = (
    "Cotton batting shifts and bunches when more than 8 in lie between lines (typical, from "
    "memory)."
)
MISFIT = (
    "With ease and the thickness of the walls it needs a finished {0} of {1} in; the bag has {2} "
    "in. The front must grow with it."
)

# key: how grave, what it says, where (x, y, width, height), why, and what its fixes are
TOLD = {
    # trimmed at one end, what is left of the last strip is all in its seam of ⅜ but a line
    "piece.edge.front.bottom": (
        ("warns", "Front: the bottom strip will show only ¹⁄₁₆ in"),
        (0, H - F(7, 16), W, F(7, 16)),
        "After quilting, trimming and the bag's own seam; under ½ in (13 mm) looks a mistake.",
        ("Trim both sides alike", "Recut all 7 strips to come out even", "6 wider strips instead"),
    ),
    # 13⅞ less 13; half of ⅞ on each side, up to the ruler's ⅛, is ½
    "trim.small.front.height": (
        ("blocks", "The quilted front is ⅞ in too small in height"),
        (W / 2, 0, 0, H),
        "It must be trimmed to 14¾ × 13⅞.",
        (
            "Trim all to 14¾ × 13, the lining too",
            "Sew a border on, ½ in each side",
            "Piece it again, 1 in larger",
        ),
    ),
    "quilt.limit.front": (
        ("warns", "Front: 14 in without a line is too far for this batting"),
        ALL,
        BUNCHES,
        ("Set the gap to 7 in", "Use fusible fleece, which needs no lines"),
    ),
    # from the middle, 7⅜, five times 1.38 are 6.9: at 0.475, a tenth inside the seam
    "quilt.seam.front.left.1": (
        ("warns", "Front: line 1 runs 0.1 in from the left seam line"),
        (F(475, 1000), 0, 0, H),
        "A line in the allowance adds bulk, one within ⅛ in (3 mm) of the seam looks crooked.",
        ("Divide the width evenly", "Put a gap on the centre", "Leave this line out"),
    ),
    "quilt.beside.front": (
        ("notes", "Front: a line runs ⅛ in beside a patchwork seam, and 2 more like it"),
        None,
        "Lines that nearly meet a seam look like mistakes: hit it, or clear it by ¼ in (6 mm).",
        ("Space the lines: even, line on the centre", "Space the lines: even, gap on the centre"),
    ),
    # as large as the window is drawn: 3 wide, ½ high
    "quilt.through.front.mark:0": (
        ("warns", "A line runs through the window zip pocket"),
        (6, 3, 3, F(1, 2)),
        "The needle would meet it, or the stitches lie where the hole is cut.",
        ("Leave this line out",),
    ),
    # two of ¼ are there; 1⁵⁄₁₆ less ½ is left, half of which, up to ⅛, is ½ more on each side
    "quilt.lean.front": (
        ("warns", "The front will lean ¹³⁄₁₆ in to the right"),
        ALL,
        "Lines one way on the slant draw it out of square, up to 1⁵⁄₁₆ in over its height; there "
        "is ½ in to square it with.",
        ("Sew as many lines the other way", "Leave ¾ in each side to square it"),
    ),
    "layer.narrow.front.0": (
        ("blocks", "Fusible fleece, narrow roll is too narrow for the front"),
        (0, 0, 30 + 3 + F(3, 4), 30 + F(3, 2) + F(3, 8)),
        "It takes 36¼ × 35½; the roll is 22 in wide.",
        ("Join pieces edge to edge",),
    ),
    "layer.fused.front.0": (
        ("warns", "Heavy stiff interfacing is caught in the seams of the front"),
        ALL,
        "It is fused, 1.7 mm thick under the foot, and cannot be trimmed out of a seam later.",
        ("Cut it inside the seams", "Cut it short of the seams"),
    ),
    "layer.bond.front.0": (
        ("warns", "Cotton batting has nothing to fuse with"),
        ALL,
        "It has no adhesive of its own: pin or spray it, or put fusible web between.",
        ("Pin it",),
    ),
    "layer.melts.front": (
        ("warns", "Clear vinyl melts under the iron for the fusible fleece"),
        ALL,
        "Fuse before they come together, or bond it cold. Try an offcut, with a press cloth.",
        ("Spray the fusible fleece instead",),
    ),
    # two panels of 2.25 meet, and their allowances lie open on them: four times 2.25 are 9
    "layer.thick.front": (
        ("warns", "9.0 mm to sew through: boxed corner, over the seam"),
        None,
        "(4 × 2.25) mm. The foot does not lift so high. If it must be: needle 110/18, by the hand "
        "wheel; hammer it, or make it thinner.",
        ("Hold the batting out of the seams",),
    ),
    "layer.needle": (
        ("warns", "A needle 70 is thin for 4.6 mm"),
        None,
        "Boxed corner, over the seam: needle 100/16, stitch 3.0 to 3.5, walking foot (common "
        "practice). A thin one bends and breaks: cover your eyes.",
        ("Take a needle 100",),
    ),
    "quilt.limit.back": (
        ("warns", "Back: 14 in without a line is too far for this batting"),
        ALL,
        BUNCHES,
        ("Set the gap to 7 in", "Use fusible fleece, which needs no lines"),
    ),
    # 3 of a hundred are 0.36 of 12: 11.64 are left; 11⅞ of 97 in a hundred are 12.24
    "fit.wash.height": (
        ("warns", "After the first wash it no longer goes in: height"),
        (W / 2, 0, 0, H),
        "11⅝ in left, 11⅞ in needed.",
        ("Make it 12¼ in", "Wash cloth and batting first"),
    ),
    # 5 less two of 1¾ and two seams of ⅜
    "notch.deep.width": (
        ("warns", "The notches leave a width of only ¾ in"),
        (0, 14 - F(7, 4), F(7, 4), F(7, 4)),
        "They are deeper than the panel allows: under 1 in (25 mm) nothing will stand.",
        ("Cut the notches ⅞ in",),
    ),
    # ¼ on each of two panels
    "notch.legs.seam": (
        ("blocks", "The corner's edges at the bottom differ by ½ in"),
        (0, 14 - F(5, 4), F(3, 2), F(5, 4)),
        "Less what its seams take, 1½ in from the side and 1¼ in from the bottom do not meet: it "
        "will not lie flat.",
        ("Mark 1½ in from the bottom", "Mark 1¼ in from the side"),
    ),
    # round 11 + 3 twice are 28, and 3 to end it
    "edge.short": (
        ("blocks", "The binding in hand is 29 in too short"),
        TOP,
        "It joins to 2 in; the edge takes 31 in with its ending.",
        ("Cut 1 strip", "Cut what it takes"),
    ),
    "edge.curve": (
        ("warns", "A straight binding puckers round a radius of 1½ in"),
        (0, 0, F(3, 2), F(3, 2)),
        "Curves tighter than 3 in (7.5 cm) want bias (common practice).",
        ("Cut it on the bias",),
    ),
    "edge.join": (
        ("notes", "A join comes within 1⅞ in of a corner, wherever this binding begins"),
        (0, 0, 6, 0),
        "A join in a fold is too thick: keep 2 in (5 cm) between them (common practice).",
        ("Butt the corners",),
    ),
    "edge.piece.0": (
        ("notes", "Piece 1 is too small for a strip 1⅛ in wide"),
        TOP,
        "None of its strips is 4 in long.",
        ("Leave that piece out",),
    ),
    "edge.bias": (
        ("blocks", "The pieces give 11¹⁄₁₆ in of bias, 36½ in are needed"),
        TOP,
        "All strips joined, with what the joins take.",
        ("Cut it from new cloth",),
    ),
    "edge.piping": (
        ("warns", "The piping's allowance is ½ in, its seam takes ⅜ in"),
        ALL,
        "Sewn edge to edge the cord would stand off the seam.",
        ("Give it the seam's allowance",),
    ),
    "edge.strap": (
        ("warns", "A strap of 30 in is short for carrying it so"),
        TOP,
        "From 50 in to 63 in are usual (common practice).",
        ("Cut it 60 in",),
    ),
    "edge.ring.strap": (
        ("warns", "A ring of 1 in is narrower than the strap"),
        TOP,
        "It ends 1½ in wide and would bunch in the ring.",
        ("Take a ring as wide as it",),
    ),
    "edge.slider": (
        ("warns", "The slider would run over a join of the strap"),
        TOP,
        "It travels over half of the strap, and at either end there is a join in its way.",
        ("Make it of webbing", "Leave the slider out"),
    ),
    "edge.slider.rings": (
        ("warns", "The strap is to slide, and its ends are sewn into the seams"),
        TOP,
        "One that slides runs through a ring at either end, its ends turned back; rings hang on "
        "tabs in the side seams.",
        ("Hang it on rings", "Leave the slider out"),
    ),
    # 1½ at both ends of 3
    "edge.strap.back": (
        ("blocks", "The strap is turned back over all of its length"),
        TOP,
        "Turned back 1½ in at both ends, nothing is left of 3 in for the slider to run on.",
        ("Leave the slider out",),
    ),
    # a zipper of 12 on an edge of 9¾
    "edge.metal": (
        ("blocks", "Metal teeth run 2¼ in into the seams"),
        (0, 0, F(39, 4), 0),
        "A needle that meets metal breaks and flies: cover your eyes. Metal zippers are bought to "
        "length, or end between cloth tabs.",
        ("Put tabs on its ends", "Take a nylon one"),
    ),
    "edge.channel": (
        ("warns", "The cord will not run in a channel of ½ in"),
        None,
        "Half of its round and a little ask for ¾ in.",
        ("Make the channel ¾ in",),
    ),
    "edge.narrow": (
        ("warns", "A binding cut 1½ in will not reach round this edge"),
        TOP,
        "Seam, thickness and cover ask for 2 in: a narrower strip leaves the stitching behind "
        "uncovered.",
        ("Cut it 2 in",),
    ),
    # 5, two of ¼ and two walls of 3.1 mm: 5.74, up to the mark; 3 are there
    "fit.depth": (
        ("blocks", "The tuner does not fit: 2¾ in too little depth"),
        (0, H / 2, W, 0),
        MISFIT.format("depth", "5¾", 3),
        ("Make the depth 5¾ in", "Size the bag by the tuner", "Do not mind the object"),
    ),
    # 14, ½ and one wall of 3.1 mm: 14.62, up to the mark; 12 are there
    "fit.height": (
        ("blocks", "The tuner does not fit: 2⅝ in too little height"),
        (W / 2, 0, 0, H),
        MISFIT.format("height", "14⅝", 12),
        ("Make the height 14⅝ in", "Size the bag by the tuner", "Do not mind the object"),
    ),
    # 11 and ¼ and two seams are 12 wide, 12 and ⅛ and a seam high
    "trim.base": (
        ("blocks", "The base is too shallow for a stiffener in a sleeve"),
        (0, F(25, 2), 12, 0),
        "It is cut ¼ in smaller each way, so as to slide: nothing is left of it.",
        ("Leave the stiffener out",),
    ),
    "trim.match.back.width": (
        ("blocks", "The back is ¼ in smaller in width than the front"),
        (0, H / 2, W, 0),
        "The two are sewn to each other edge to edge.",
        ("Trim the front to 14½ in too", "Forget this measurement"),
    ),
    "cut.set.front": (
        ("blocks", "A strip set is shorter than the panel"),
        None,
        "Its length is the usable width, 12 in.",
        ("Cut each strip by itself",),
    ),
    "fit.flap": (
        ("warns", "The flap is only ¼ in narrower than the opening"),
        None,
        "A flap ends ½ to 1 in (13 to 25 mm) narrower, or it buckles at the sides.",
        ("Make it ¾ in narrower",),
    ),
    # 15¾ × 4⅛ × 6½ are 422.3; turned 13¾ × 5⅛ × 6½ are 458.0
    "fit.zipper-side": (
        ("notes", "With the zipper on its shorter side this cloth holds 8 % more"),
        (0, 0, 23, 0),
        "The zipper is on the longer side of the panel; turned, the bag is wider and shorter.",
        ("Put the zipper on the shorter side",),
    ),
    "cut.placed.front": (
        ("notes", "Blue checks is not placed in strips that come from a set"),
        None,
        "A set is sewn of whole strips and cut across: its pictures lie as they fall.",
        ("Cut each strip by itself",),
    ),
    # 14¾ of a cloth of 14¼
    "cut.wide.oat": (
        ("blocks", "Lining: comes out of Oat plain only turned, and its print has an up"),
        None,
        "Upright it is 14¾ in wide, ½ in more than the cloth.",
        ("Let Oat plain be turned",),
    ),
    "edge.below": (
        ("warns", "¼ in below the edge the handles are sewn into its own stitching"),
        None,
        "Their raw ends lie ¼ in above the seam that holds them: they need ½ in.",
        ("Sew them ½ in below",),
    ),
    # 9¾, the panel, and 2 more are 11¾; of 16 6¼ are over the panel
    "edge.dear": (
        ("notes", "6¼ in of the zipper in hand are cut off"),
        (0, 0, F(39, 4), 0),
        "Of 16 in this bag takes 11¾ in: one so long is dear, and another bag may want it.",
        ("Take the next standard one",),
    ),
    # its end in the side seam; an inch wide, folded, it is ½
    "edge.pull": (
        ("notes", "The wrist loop is at the left, the closed pull rests at the right"),
        None,
        "One holds the bag by its loop and pulls away from it to open it (common practice).",
        ("Put the loop at the right", "Let the zipper close to the left"),
    ),
    # ¾ and twice ¼ are 1¼; of 1⅛ ⅝ shows, or ³⁄₁₆ at each side are sewn in
    "edge.tape": (
        ("warns", "The zipper's tape is ⅛ in too narrow"),
        (0, 0, F(39, 4), 0),
        "¾ in that shows and a seam of ¼ in at each side ask for 1¼ in: sewn edge on edge, less of "
        "it shows.",
        ("Let ⅝ in of it show", "Sew it in with a seam of ³⁄₁₆ in"),
    ),
    "edge.top-fold": (
        ("notes", "The zipper on the top fold is thick, and its corners end at a slant"),
        (0, 0, F(39, 4), 0),
        "Both turned edges and both tapes lie there, up to 12 layers; 1½ in (4 cm) down the "
        "face it lies flat and the corners are square (common practice).",
        ("Set it on the face",),
    ),
    "piece.overhang.front.0": (
        ("warns", "Front: the flipped strips hardly reach past the outline"),
        ALL,
        "A strip that shifts a little in sewing leaves bare batting: ½ to 1 in (12 to 25 mm) "
        "beyond is usual.",
        ("Reach ¾ in past it",),
    ),
    "piece.scraps.small.front.0": (
        ("notes", "Front: 1 scrap goes into the seams"),
        ALL,
        "Narrower than two seams and ¼ in (6 mm) that show.",
        ("Take them out of the list",),
    ),
    "piece.melts.front": (
        ("warns", "The foundation of the front melts where fusible fleece is fused"),
        ALL,
        "This foundation melts: no iron on it; finger-press or roll every seam. Fusing takes a hot "
        "iron.",
        ("Sew it on foundation cloth", "Pin what was to be fused"),
    ),
    "mark.behind.lining.mark:0": (
        ("warns", "The slip pocket lies behind the snap's female part"),
        (5, 3, 4, 5),
        "Both go through the wall of the front, one from each face: what is sewn last catches the "
        "other.",
        ("Move the slip pocket below", "Take the slip pocket away"),
    ),
    # set at ½, it belongs at 2⅛: the flap of 3⅞ less the 1¾ at which its own half stands
    "mark.snap": (
        ("blocks", "The snap's halves miss each other by 1⅝ in"),
        None,
        "The flap comes down 3⅞ in; the female part belongs 2⅛ in below the top edge.",
        ("Set it where the flap lands",),
    ),
    "layout.unknown.front": (
        ("warns", "Front: 4 pieces are of a print no longer in the basket"),
        None,
        "It is drawn plain until it is given another.",
        ("Use Oat there",),
    ),
    # the tab is 1¼ wide and 1 high from where it begins, all of it on the pocket of 6 × 5
    "mark.over.front.mark:0.mark:1": (
        ("warns", "The ring tab lies on the slip pocket"),
        (5, 6, F(5, 4), 1),
        "One would be sewn over the other: what comes second has no room there.",
        ("Move the ring tab off it", "Take the ring tab away"),
    ),
    "mark.seam.front.mark:0": (
        ("warns", "The slip pocket runs into a seam or the base"),
        (0, 4, 6, 5),
        "It is caught in the stitching or cut off there.",
        ("Move the slip pocket clear",),
    ),
    # 4 to 6 with batting
    "trim.gap": (
        ("warns", "A turning gap of 1 in is too small"),
        (0, H, W, 0),
        "This bag turns through 4 in at least.",
        ("Leave 4 in",),
    ),
    # 9 and two seams of ⅜ less a field of 5; its height is 9⅜, in the middle of which it is told
    "hoop.front": (
        ("blocks", "The front is 4¾ in too wide for the hoop"),
        (0, F(37, 8), F(39, 4), 0),
        "With its seams it is 9¾ × 9¼; the hoop's field is 5 × 7.",
        ("Take the 10 × 16 hoop", "Make the front without a hoop"),
    ),
    # 9¾ and 2 more are 11¾
    "fit.zipper": (
        ("blocks", "The zipper is 4¾ in too short"),
        (0, 0, F(39, 4), 0),
        "It takes the width it is sewn to and 2 in (5 cm), so that no needle meets a stop.",
        ("Take one of 11¾ in", "Take one as long as it needs"),
    ),
    "quilt.through.front.snap:female": (
        ("warns", "A line runs through the snap's female part"),
        (7, 5, F(3, 4), F(3, 4)),
        "The needle would meet it, or the stitches lie where the hole is cut.",
        ("Space the lines: even, gap on the centre", "Leave this line out"),
    ),
    # folded in three, the front third lies upside-down
    "piece.upside-down.body.front.turned": (
        ("warns", "Notes ends upside-down on the front"),
        (F(3, 8), F(83, 8), 9, 6),
        "The panel is folded there: what points up on it points down in the bag.",
        ("Use Oat there",),
    ),
    # four on the front, four on the back
    "layout.amount.red": (
        ("warns", "Red: 8 pieces laid, 1 in hand"),
        None,
        "Counted over all panels and bags to make. Arranging keeps to what there is.",
        ("Cut Red as needed",),
    ),
    # two of 5 make 2 × 4½ + ½ = 9½ of 14¾
    "piece.courses.short.front.0": (
        ("blocks", "Front: course 1 is 5¼ in too short"),
        ALL,
        "All scraps that are wide enough are counted; add more, or make less of them.",
        ("Use strips instead",),
    ),
    "piece.scraps.twice": (
        ("warns", "The scraps are laid for one panel, and 2 are to be made"),
        ALL,
        "Each scrap is there once: what is laid here cannot be laid again.",
        ("Piece the back of strips",),
    ),
    # four of 2½ measure 9½: seams of ¹⁄₁₂ where ¼ was meant, six of them on seven strips
    "piece.seam.front": (
        ("warns", "Front: your seam is too narrow: 2 in over this panel"),
        ALL,
        "Each seam is 4.2 mm narrower than planned. Move the needle by that, or keep to the seam "
        "you have and recut.",
        ("Move the needle, and forget the test", "Recut the pieces to my seam"),
    ),
    # 12, ease of ½ on both sides, and two walls of 3.1 mm: 13¼ up to the mark
    "fit.width": (
        ("blocks", "The tuner does not fit: 2¼ in too little width"),
        (0, H / 2, W, 0),
        MISFIT.format("width", "13¼", 11),
        ("Make the width 13¼ in", "Size the bag by the tuner", "Do not mind the object"),
    ),
}

WAYS_OUT = [(key, at) for key, told in TOLD.items() for at in range(len(told[3]))]


def test_every_case_is_told():
    assert TOLD.keys() == CASES.keys()


@pytest.mark.parametrize("key", TOLD)
def test_it_says_so_there_and_why(key):
    said, place, why, fixes = TOLD[key]
    snag = found(key)
    assert (str(snag.weight), snag.title) == said
    assert snag.why == why
    assert tuple(fix.words for fix in snag.fixes) == fixes
    if place is not None:
        there = snag.place
        box = (there.x, there.y, there.width, there.height)
        assert box == pytest.approx(tuple(map(float, place)), abs=0.02)


@pytest.mark.parametrize(("key", "at"), WAYS_OUT)
def test_each_way_out_changes_what_it_says_and_mends_it(key, at):
    fix = found(key).fixes[at]
    mended = applied(CASES[key], fix)
    assert mended != CASES[key]
    if fix.words in AFTER:
        path, value = AFTER[fix.words]
        assert applied(mended, edit("", (path, value))) == mended
    assert key not in {snag.key for snag in plan(mended).snags}


def test_no_way_out_offered_changes_nothing():
    """A bag that is sized by what it holds is not offered to be."""
    for one in (BY_TUNER, *CASES.values()):
        for snag in plan(one).snags:
            assert all(applied(one, fix) != one for fix in snag.fixes), snag.key
