"""An independent look at a layout: knows rectangles and a ruler, nothing of how it was found."""

from fractions import Fraction

F = Fraction


def faults(job, answer, deep=3):
    """Everything that is wrong with an answer, in words; nothing if it can be cut."""
    found = []
    stock = {one.id: one for one in job.stock}
    pieces = {one.id: one for one in job.pieces}
    laid = {}
    for one in answer.placements:
        piece, cloth = pieces[one.piece], stock[one.stock]
        laid[one.piece] = laid.get(one.piece, 0) + 1
        straight, turned = (
            (one.w, one.h) == (piece.w, piece.h),
            (one.w, one.h) == (piece.h, piece.w),
        )
        if not straight and not (turned and piece.turn):
            found.append(f"{one.piece} is laid {one.w} by {one.h}")
        if piece.print != cloth.print:
            found.append(f"{one.piece} is cut from another print")
        if min(one.x, one.y) < 0 or one.x + one.w > cloth.w:
            found.append(f"{one.piece} lies over the side of {cloth.id}")
        if cloth.h is not None and one.y + one.h > cloth.h:
            found.append(f"{one.piece} lies over the end of {cloth.id}")
    out = dict(answer.left_out)
    for piece in job.pieces:
        if laid.get(piece.id, 0) + out.get(piece.id, 0) != piece.qty:
            found.append(f"{laid.get(piece.id, 0)} of {piece.id} are laid")
    for cloth in job.stock:
        boxes = [(p.x, p.y, p.x + p.w, p.y + p.h) for p in answer.placements if p.stock == cloth.id]
        found += [f"overlap on {cloth.id}"] * _overlap(boxes)
        if boxes and not any(separable(boxes, way, deep) for way in ways(cloth)):
            found.append(f"{cloth.id} is not cut in {deep} stages")
    return found


def ways(cloth):
    """Yardage is cut across its width first; a piece of cloth either way."""
    return ("y",) if cloth.h is None else ("y", "x")


def _overlap(boxes):
    return any(
        a[0] < b[2] and b[0] < a[2] and a[1] < b[3] and b[1] < a[3]
        for at, a in enumerate(boxes)
        for b in boxes[at + 1 :]
    )


def separable(boxes, way, deep):
    """Whether cuts from edge to edge, all one way, then all the other, so many times, leave each
    piece by itself; waste beside a piece is taken off by a cut of the stage in which it lies.

    After the last stage a piece must be free on the sides that stage cuts; the other two were cut
    before, where its group is no larger than it.
    """
    if len(boxes) == 1 and deep >= 1:
        return True
    if deep == 0:
        return False
    low, high = (1, 3) if way == "y" else (0, 2)
    groups = _parted(boxes, low, high)
    other = "x" if way == "y" else "y"
    if deep == 1:  # the last cuts: pieces one after another, each as wide as all
        side, far = (0, 2) if way == "y" else (1, 3)
        return (
            all(len(group) == 1 for group in groups)
            and len({(b[side], b[far]) for b in boxes}) == 1
        )
    return all(separable(group, other, deep - 1) for group in groups)


def _parted(boxes, low, high):
    """Boxes in groups between which a straight cut goes through."""
    groups, end = [], None
    for box in sorted(boxes, key=lambda one: one[low]):
        if end is None or box[low] >= end:
            groups.append([box])
            end = box[high]
        else:
            groups[-1].append(box)
            end = max(end, box[high])
    return groups


def careful_hand(job):
    """The length of each print's yardage as a careful hand lays shelves: the highest first, each
    where it fits, a new shelf where it does not.  Pieces that may turn lie flat."""
    total = F(0)
    for name in {piece.print for piece in job.pieces}:
        (cloth,) = (one for one in job.stock if one.print == name and one.kind == "yardage")
        sizes = []
        for piece in job.pieces:
            if piece.print == name:
                w, h = piece.w, piece.h
                if piece.turn and h > w and h <= cloth.w:
                    w, h = h, w
                sizes += [(h, w)] * piece.qty
        shelves = []
        for h, w in sorted(sizes, reverse=True):
            shelf = next((one for one in shelves if one[1] + w <= cloth.w), None)
            if shelf is None:
                shelves.append([h, w])
            else:
                shelf[1] += w
        total += cloth.trim + sum(shelf[0] for shelf in shelves)
    return total
