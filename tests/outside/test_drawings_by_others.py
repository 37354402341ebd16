"""The cutting plan as DXF, read back by a library of that format; as SVG, by its own numbers."""

import io
import re

import ezdxf
import pytest

from tessil.core.cutting.acts.whole import lots_of, plan_whole, spreads_of
from tessil.core.plan import plan
from tessil.files.dxf import APART, LAYERS, cutting_dxf
from tessil.files.svg import PER_INCH, cloth_svg
from tests.conftest import tote


@pytest.fixture(scope="module")
def found():
    made = plan(tote(bags=2))
    lots = lots_of([made])
    return spreads_of(plan_whole(lots, (), made.marks, 0.0), lots)


@pytest.mark.parametrize(("units", "code", "per_inch"), [("inch", 1, 1), ("metric", 4, 25.4)])
def test_every_cloth_piece_and_cut_comes_back_at_its_size(found, units, code, per_inch):
    drawing = ezdxf.read(io.StringIO(cutting_dxf(found.spreads, units)))
    assert drawing.audit().errors == []
    assert drawing.header["$INSUNITS"] == code
    space = drawing.modelspace()
    assert {one.dxf.layer for one in space} <= set(LAYERS)
    frames = {layer: [] for layer in LAYERS}
    for one in space.query("POLYLINE"):
        assert one.is_closed
        xs, ys = zip(*[(p.x, p.y) for p in one.points()], strict=True)
        frames[one.dxf.layer].append((min(xs), min(ys), max(xs) - min(xs), max(ys) - min(ys)))
    left, pieces, cloths = 0.0, [], []
    for spread in found.spreads:
        wide = float(spread.sheet.width)
        cloths.append((left, 0, wide, float(spread.sheet.length)))
        for one in spread.pieces:
            box = one.box
            pieces.append((left + float(box.x), float(box.y), float(box.w), float(box.h)))
        left += wide + APART
    for layer, wanted in (("CLOTH", cloths), ("PIECES", pieces)):
        scaled = sorted(tuple(v * per_inch for v in box) for box in wanted)
        assert len(frames[layer]) == len(scaled)
        for got, want in zip(sorted(frames[layer]), scaled, strict=True):
            assert got == pytest.approx(want, abs=1e-5)
    lines = space.query("LINE")
    assert len(lines) == found.cuts
    long = sum((line.dxf.end - line.dxf.start).magnitude for line in lines)
    cuts = sum(float(cut.length) for spread in found.spreads for cut in spread.parting.cuts)
    assert long == pytest.approx(cuts * per_inch)
    texts = space.query("TEXT")
    assert len(texts) == len(pieces) + len(cloths)
    for one in texts:  # six tenths of an inch high, a tenth into its piece, half way up
        assert one.dxf.height == pytest.approx(0.6 * per_inch, abs=1e-5)
    said = sorted((t.dxf.insert.x, t.dxf.insert.y) for t in texts)
    wanted = [(x + w / 10, y + h / 2) for x, y, w, h in pieces]
    wanted += [(x, -1) for x, *_ in cloths]
    for got, want in zip(said, sorted(wanted), strict=True):
        assert got == pytest.approx([v * per_inch for v in want], abs=1e-4)


def test_a_cloth_as_svg_prints_at_its_size(found, qapp):
    text = cloth_svg(found, 0, plan(tote()).marks.notation).decode()
    sheet = found.spreads[0].sheet
    width, height = (int(v) for v in re.search(r'viewBox="0 0 (\d+) (\d+)"', text).groups())
    long, wide = max(sheet.width, sheet.length), min(sheet.width, sheet.length)
    size = (long, wide) if sheet.length > sheet.width else (sheet.width, sheet.length)
    assert width == pytest.approx(float(size[0]) * PER_INCH + 120, abs=1)
    assert height == pytest.approx(float(size[1]) * PER_INCH + 76, abs=1)
    assert f"{found.spreads[0].lot.name}: to cut" in text
