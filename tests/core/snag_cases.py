"""A project for each kind of snag, most of them a tote of 11 × 12 × 3 whose front is cut 14¾ × 13⅞
with seams of ⅜."""

from tessil.core.brief.choice import Base, Held, ShapeChoice, Thing
from tessil.core.catalogue.prints import Print
from tessil.core.choosing import measure
from tessil.core.edges.choice import Bias, BiasPiece, Piping, Strap, Zipper
from tessil.core.edits import applied, edit
from tessil.core.numbers.exact import Fraction
from tessil.core.panels.choice import Got, PanelChoices
from tessil.core.piecing.choice import Piecing, Scrap, SeamTest
from tessil.core.plan import plan
from tessil.core.quilting.choice import Machine
from tessil.core.trimming.choice import Mark, Snap, Wash
from tests.conftest import plies, tote, with_front
from tests.core.edges.test_zipper_ends import pouch
from tests.core.piecing.test_foundations import flipped
from tests.core.shapes.test_carrying import BELOW, made
from tests.core.shapes.test_edge_by_edge import made_of
from tests.core.trimming.test_behind import satchel
from tests.outside.test_every_shape_on_paper import project_of

F = Fraction


def panel_way(**sizes):
    full = {"panel_width": 15, "panel_height": 14, "notch_side": F(3, 2), "notch_bottom": F(3, 2)}
    full |= sizes
    return tote(shape=ShapeChoice(way="panel", sizes={k: F(v) for k, v in full.items()}))


def measured(rung, width, height, panel="front"):
    project = tote()
    return applied(project, measure(project, panel, rung, Got(width=F(width), height=F(height))))


def held(**changes):
    sizes = {"width": F(1), "height": F(1), "thickness": F(1)} | changes
    return Held(things=(Thing(name="tuner", **sizes),), minded=True)


def free(options=None, **sizes):
    """A panel bound all round."""
    full = {key: F(value) for key, value in ({"width": 12, "height": 9} | sizes).items()}
    return tote(
        shape=ShapeChoice(
            kind="free-panel", sizes=full, options={"edge": "bound"} | (options or {})
        )
    )


def _of_cloth(project, usable):
    return project.model_copy(
        update={"stock": project.stock.model_copy(update={"usable_width": usable})}
    )


def _pieces(*sizes):
    pieces = tuple(BiasPiece(width=F(w), height=F(h)) for w, h in sizes)
    return tote(piping=Piping(panels=("front",)), bias=Bias(source="pieces", pieces=pieces))


def strapped(strap_length=30):
    return tote(
        shape=ShapeChoice(kind="satchel", sizes={"strap_length": F(strap_length)}),
        strap=Strap(carried="adult", ring=F(1)),
    )


def found(key, project=None):
    """The snag of a case, or of another project."""
    snags = plan(CASES[key] if project is None else project).snags
    return next(snag for snag in snags if snag.key == key)


def _cloth(key, **more):
    return Print(key=key, name=key.title(), motif="plain", ground="#aabbcc", **more)


def _marked(*marks):
    return tote(marks=tuple(Mark(panel="front", **mark) for mark in marks))


def _scraps(way, number):
    scraps = (Scrap(width=F(5), height=F(3), number=number),)
    return with_front(tote(scraps=scraps), ("piecing.way", way))


TUNER = Thing(name="tuner", width=F(12), height=F(1), thickness=F(1))
HUGE = ShapeChoice(kind="flat-pouch", sizes={"width": F(9), "height": F(9)})
POUCH = ShapeChoice(kind="flat-pouch", sizes={"width": F(9), "height": F(6)})
CLUTCH = PanelChoices(piecing=Piecing(way="whole", prints=("notes",)))

LEGS = {"notch_side": F(13, 4), "notch_fold": F(3), "notch_zip": F(23, 8)}
FEW = Scrap(width=F(9), height=F(3), number=40, print="red"), Scrap(width=F(1, 2), height=F(3))
CASES = {
    "piece.edge.front.bottom": with_front(
        tote(), ("piecing.strip_cut", F(11, 4)), ("piecing.surplus", "one")
    ),
    "trim.small.front.height": measured("quilted", 15, 13),
    "quilt.limit.front": with_front(tote(), ("quilting.gap", F(14)), ("quilting.centre", "gap")),
    "quilt.seam.front.left.1": with_front(
        tote(), ("quilting.spacing", "keep"), ("quilting.gap", F(69, 50))
    ),
    "quilt.beside.front": with_front(
        tote(), ("quilting.run", "level"), ("quilting.spacing", "keep"), ("quilting.gap", F(15, 8))
    ),
    "quilt.through.front.mark:0": with_front(
        tote(marks=(Mark(kind="window", panel="front", x=F(6), y=F(3), width=F(3)),)),
        ("quilting.gap", F(3)),
    ),
    "quilt.lean.front": with_front(
        tote(),
        ("quilting.pattern", "diagonal"),
        ("quilting.gap", F(1, 2)),
        ("layers.plies", plies("polyester-batting")),
    ),
    "layer.narrow.front.0": with_front(
        tote(
            shape=tote().shape.model_copy(
                update={"sizes": {"width": F(30), "height": F(30), "depth": F(3)}}
            )
        ),
        ("layers.plies", plies("narrow-fleece", rule="margin")),
    ),
    "layer.fused.front.0": with_front(
        tote(), ("layers.plies", plies("stiff-interfacing", bond="fuse"))
    ),
    "layer.bond.front.0": with_front(
        tote(), ("layers.plies", plies("cotton-batting", bond="fuse"))
    ),
    "layer.melts.front": with_front(
        tote(),
        ("layers.top", "clear-vinyl"),
        ("layers.plies", plies("fusible-fleece", bond="fuse")),
    ),
    "layer.thick.front": with_front(tote(), ("layers.plies", plies("sew-in-foam"))),
    "layer.needle": tote(machine=Machine(needle=70)),
    "quilt.limit.back": with_front(
        tote(), ("quilt_zones", ({"starts": F(3), "quilting": {"pattern": "none"}},))
    ),
    "fit.wash.height": tote(hold=held(height=F(47, 4)), wash=Wash(used=True)),
    "notch.deep.width": panel_way(panel_width=5, notch_side=F(7, 4), notch_bottom=F(7, 4)),
    "notch.legs.seam": panel_way(notch_bottom=F(5, 4)),
    "edge.short": applied(tote(), edit("", ("binding.strips_on_hand", 0))),
    "edge.curve": free({"corners": "round"}, flap_round=F(3, 2)),
    "edge.join": _of_cloth(free(width=6, height=5), F(12)),
    "edge.piece.0": _pieces((2, 2), (9, 9)),
    "edge.bias": _pieces((5, 5)),
    "edge.piping": tote(piping=Piping(panels=("front",), allowance=F(1, 2))),
    "edge.strap": strapped(),
    "edge.ring.strap": strapped(strap_length=60),
    "edge.slider": _of_cloth(
        tote(
            shape=ShapeChoice(kind="satchel", sizes={"strap_length": F(60)}),
            strap=Strap(slider=True),
        ),
        F(24),
    ),
    "edge.slider.rings": tote(
        shape=ShapeChoice(kind="satchel", sizes={"strap_length": F(60)}), strap=Strap(slider=True)
    ),
    "edge.strap.back": tote(
        shape=ShapeChoice(kind="satchel", sizes={"strap_length": F(3)}), strap=Strap(slider=True)
    ),
    "edge.metal": tote(
        shape=ShapeChoice(kind="flat-pouch", sizes={"width": F(9), "height": F(6)}),
        zipper=Zipper(teeth="metal"),
    ),
    "edge.channel": tote(shape=ShapeChoice(kind="drawstring", sizes={"channel": F(1, 2)})),
    "edge.narrow": applied(tote(), edit("", ("binding.cut", F(3, 2)))),
    "fit.depth": tote(hold=held(thickness=F(5))),
    "fit.height": tote(hold=held(height=F(14))),
    "trim.base": tote(
        shape=ShapeChoice(
            kind="tote", way="finished", sizes={"width": F(11), "height": F(12), "depth": F(1, 4)}
        ),
        base=Base(stiffener="sleeve"),
    ),
    "trim.match.back.width": measured("trimmed", F(29, 2), F(111, 8), panel="back"),
    "cut.set.front": with_front(
        tote(stock=tote().stock.model_copy(update={"usable_width": F(12)})),
        ("piecing.strip_sets", True),
    ),
    "fit.flap": applied(project_of("satchel"), edit("", ("shape.sizes", {"flap_less": F(1, 4)}))),
    "fit.zipper-side": project_of(
        "boxed-zip",
        shape=ShapeChoice(
            kind="boxed-zip",
            way="panel",
            sizes={"panel_width": F(23), "panel_height": F(21), **LEGS},
        ),
    ),
    "cut.placed.front": with_front(
        tote(prints=tuple(one.model_copy(update={"placed": True}) for one in tote().prints)),
        ("piecing.strip_sets", True),
    ),
    "cut.wide.oat": tote(
        prints=tuple(
            one.model_copy(update={"directional": one.key == "oat"}) for one in tote().prints
        ),
        stock=tote().stock.model_copy(update={"usable_width": F(57, 4)}),
    ),
    "edge.below": made("tote", BELOW, lining="quilted-in", handle_down="1/4", handle_at=2).project,
    "edge.dear": pouch(length=F(16)).project,
    "edge.pull": made("flat-pouch", {"wrist": "loop", "wrist_side": "left"}).project,
    "edge.tape": pouch(tape=F(9, 8)).project,
    "edge.top-fold": applied(
        made_of("offset-pouch").project, edit("", ("shape.sizes.zip_drop", F(3, 8)))
    ),
    "piece.overhang.front.0": with_front(
        tote(), ("piecing.way", "flip"), ("piecing.overhang", F(1, 4))
    ),
    "piece.scraps.small.front.0": with_front(tote(scraps=FEW), ("piecing.way", "courses")),
    "piece.melts.front": with_front(
        flipped("melting"), ("layers.plies", plies("fusible-fleece", rule="panel", bond="fuse"))
    ),
    "mark.behind.lining.mark:0": satchel(F(5)).project,
    "mark.snap": project_of("satchel", snap=Snap(used=True, female=F(1, 2))),
    "layout.unknown.front": tote(prints=(_cloth("oat"), _cloth("red"))),
    "mark.over.front.mark:0.mark:1": _marked(
        {"kind": "slip", "x": F(3), "y": F(4)}, {"kind": "d-ring", "x": F(5), "y": F(6)}
    ),
    "mark.seam.front.mark:0": _marked({"kind": "slip", "x": F(0), "y": F(4)}),
    "trim.gap": tote(turning_gap=F(1)),
    "hoop.front": with_front(tote(shape=HUGE), ("layers.stabiliser", "cut-away")),
    "fit.zipper": tote(shape=POUCH, zipper=Zipper(length=F(7))),
    "quilt.through.front.snap:female": tote(
        shape=ShapeChoice(kind="satchel", sizes={}), snap=Snap(used=True)
    ),
    "piece.upside-down.body.front.turned": tote(
        shape=ShapeChoice(kind="clutch", sizes={}),
        panels={"body": CLUTCH},
        prints=(_cloth("notes", directional=True), _cloth("oat")),
    ),
    "layout.amount.red": tote(prints=(_cloth("red", amount=1), _cloth("blue"), _cloth("oat"))),
    "piece.courses.short.front.0": _scraps("courses", 2),
    "piece.scraps.twice": _scraps("crumbs", 30),
    "piece.seam.front": tote(seam_test=SeamTest(measured=F(19, 2))),
    "fit.width": tote(hold=Held(things=(TUNER,), minded=True)),
}
BY_TUNER = tote(
    hold=Held(things=(TUNER,), minded=True),
    shape=ShapeChoice(kind="tote", way="object", sizes={"height": F(1)}),
)
AFTER = {  # what is so once the way out is taken
    "Sew a border on, ½ in each side": ("measured.front.added.height", F(1)),
    "Piece it again, 1 in larger": ("oversize.squaring", F(3, 4)),  # ¼ and a half of 1
    "Leave ¾ in each side to square it": ("oversize.squaring", F(3, 4)),
    "Cut it 60 in": ("shape.sizes.strap_length", F(60)),
    "Make it 12¼ in": ("shape.sizes.height", F(49, 4)),
    "Make the depth 5¾ in": ("shape.sizes.depth", F(23, 4)),
    "Make the height 14⅝ in": ("shape.sizes.height", F(117, 8)),
    "Make the channel ¾ in": ("shape.sizes.channel", F(3, 4)),
    "Cut it 2 in": ("binding.cut", None),  # as the formula says
    "Make it ¾ in narrower": ("shape.sizes.flap_less", F(3, 4)),
    "Take a needle 100": ("machine.needle", 100),
    "Cut it on the bias": ("binding.grain", "bias"),
    "Make it of webbing": ("strap.made", "webbing"),
    "Take a nylon one": ("zipper.teeth", "nylon"),
    "Leave 4 in": ("turning_gap", None),  # as much as it needs
    "Make the width 13¼ in": ("shape.sizes.width", F(53, 4)),
    "Size the bag by the tuner": ("shape.way", "object"),
    "Do not mind the object": ("hold.minded", False),
    "Take one of 11¾ in": ("zipper.length", F(47, 4)),
    "Take one as long as it needs": ("zipper.length", None),
    "Move the needle, and forget the test": ("seam_test", None),
    "Cut Red as needed": ("prints.0.amount", None),
    "Use strips instead": ("panels.front.piecing.way", "strips"),
}
