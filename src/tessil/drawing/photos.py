"""Photos of cloth: read without trusting them, kept small inside the project.

The header is looked at before anything is decoded; what is kept is never larger than
``KEPT`` points a side.
"""

from __future__ import annotations

import base64
import binascii
from collections import OrderedDict
from pathlib import Path

from PySide6.QtCore import QBuffer, QByteArray, QIODevice, QSize, Qt
from PySide6.QtGui import QColor, QImage, QImageReader, QPainter

from tessil.core.catalogue.prints import MOST_PHOTO, Photo
from tessil.core.trouble import FileTrouble

MOST_POINTS = 48_000_000
MOST_BYTES = 64 * 1024 * 1024
LEAST_SIDE, KEPT = 16, 900
CACHED = 64_000_000  # bytes of decoded pictures that are kept at once
KINDS = ((b"\x89PNG\r\n\x1a\n", b"png"), (b"\xff\xd8\xff", b"jpeg"))
QUALITIES = (88, 75, 60, 40)


def read_photo(path: Path) -> Photo:
    """A picture file as a photo of cloth; raises FileTrouble with one sentence."""
    name = f"“{path.name}”"
    if not path.is_file():
        raise FileTrouble(f"{name} is not a file that can be opened.")
    try:
        if path.stat().st_size > MOST_BYTES:
            raise FileTrouble(f"{name} is larger than a picture may be (64 MB).")
        data = path.read_bytes()
    except OSError as error:
        reason = (error.strerror or "the disk refused").lower()
        raise FileTrouble(f"{name} cannot be read: {reason}.") from None
    return photo_from(data, name)


def photo_from(data: bytes, name: str = "This file") -> Photo:
    """A photo from the bytes of a picture file; raises FileTrouble.

    Only the points are kept: what a camera writes beside them (place, owner, time) goes.
    """
    reader, buffer = _reader(data)
    size = reader.size() if reader is not None else QSize()
    if reader is None or not size.isValid():
        raise FileTrouble(f"{name} is no picture that can be read here: use PNG or JPEG.")
    points = size.width() * size.height()
    if points > MOST_POINTS:
        raise FileTrouble(
            f"{name} has {points / 1e6:.0f} million points; {MOST_POINTS / 1e6:.0f} million at "
            "most: save it smaller first."
        )
    if min(size.width(), size.height()) < LEAST_SIDE:
        raise FileTrouble(f"{name} is too small to show a cloth.")
    reader.setAutoTransform(True)
    image = _read_small(reader, size)
    buffer.close()
    if image.isNull():
        raise FileTrouble(f"{name} breaks off or is damaged: it cannot be shown.")
    image = _points_only(image)
    return Photo(
        data=_packed(image, name), wide=image.width(), high=image.height(), mean=mean_colour(image)
    )


def _reader(data: bytes) -> tuple[QImageReader | None, QBuffer]:
    """A reader of PNG or of JPEG, by how the data begins; None for anything else.

    The kind is named to Qt: left to guess, it would take other kinds too, among them drawings that
    read further files.
    """
    buffer = QBuffer()
    buffer.setData(QByteArray(data))
    buffer.open(QIODevice.OpenModeFlag.ReadOnly)
    kind = next((kind for begins, kind in KINDS if data.startswith(begins)), None)
    if kind is None:
        return None, buffer
    reader = QImageReader(buffer, QByteArray(kind))
    reader.setAutoDetectImageFormat(False)
    return reader, buffer


def _read_small(reader: QImageReader, size: QSize) -> QImage:
    if max(size.width(), size.height()) > KEPT:
        reader.setScaledSize(size.scaled(QSize(KEPT, KEPT), Qt.AspectRatioMode.KeepAspectRatio))
    return reader.read()


def _points_only(image: QImage) -> QImage:
    """The same points without the texts that a picture carries along."""
    bare = QImage(image.size(), QImage.Format.Format_RGB32)
    bare.fill(QColor("#ffffff"))
    painter = QPainter(bare)
    painter.drawImage(0, 0, image)
    painter.end()
    return bare


def _packed(image: QImage, name: str, most: int = MOST_PHOTO) -> str:
    for quality in QUALITIES:
        buffer = QBuffer()
        buffer.open(QIODevice.OpenModeFlag.WriteOnly)
        image.save(buffer, "JPEG", quality)  # type: ignore[call-overload]
        text = base64.b64encode(bytes(buffer.data().data())).decode("ascii")
        if len(text) <= most:
            return text
    raise FileTrouble(f"{name} is too rich to be kept inside the project: save it smaller first.")


def mean_colour(image: QImage) -> str:
    """The average colour of a picture."""
    small = image.scaled(
        16, 16, Qt.AspectRatioMode.IgnoreAspectRatio, Qt.TransformationMode.SmoothTransformation
    )
    points = [QColor(small.pixel(x, y)) for x in range(16) for y in range(16)]
    red, green, blue = (
        round(sum(part) / len(points))
        for part in zip(*((c.red(), c.green(), c.blue()) for c in points), strict=True)
    )
    return QColor(red, green, blue).name()


def smaller(photo: Photo, side: int, most: int) -> Photo | None:
    """The same photo with fewer points, in at most so many letters; None if it cannot be shown."""
    image = _decoded(photo.data, photo.wide, photo.high)
    if image is None:
        return None
    size = QSize(side, side)
    if max(image.width(), image.height()) > side:
        image = image.scaled(
            size, Qt.AspectRatioMode.KeepAspectRatio, Qt.TransformationMode.SmoothTransformation
        )
    text = _packed(image, "This picture", most)
    return photo.model_copy(update={"data": text, "wide": image.width(), "high": image.height()})


_images: OrderedDict[tuple[str, int, int], QImage | None] = OrderedDict()


def whole_image(data: str, wide: int, high: int) -> QImage | None:
    """The kept picture, at most ``KEPT`` points a side; None if it is not what it says it is.

    Those shown last are kept decoded, up to ``CACHED`` bytes in all.
    """
    key = (data, wide, high)
    if key in _images:
        _images.move_to_end(key)
        return _images[key]
    _images[key] = image = _decoded(data, wide, high)
    while len(_images) > 1 and sum(_bytes_of(kept) for kept in _images.values()) > CACHED:
        _images.popitem(last=False)
    return image


def _bytes_of(image: QImage | None) -> int:
    return image.sizeInBytes() if image is not None else 0


def _decoded(data: str, wide: int, high: int) -> QImage | None:
    try:
        raw = base64.b64decode(data, validate=True)
    except (binascii.Error, ValueError):
        return None
    reader, buffer = _reader(raw)
    if reader is None or (reader.size().width(), reader.size().height()) != (wide, high):
        return None
    image = _read_small(reader, reader.size())
    buffer.close()
    return None if image.isNull() else image.convertToFormat(QImage.Format.Format_RGB32)


def part_in_use(photo: Photo) -> QImage | None:
    """The cropped part of a photo."""
    image = whole_image(photo.data, photo.wide, photo.high)
    if image is None:
        return None
    left, top, width, height = photo.crop
    x, y = int(left * image.width()), int(top * image.height())
    w, h = max(int(width * image.width()), 1), max(int(height * image.height()), 1)
    return image.copy(x, y, min(w, image.width() - x), min(h, image.height() - y))


def with_part(photo: Photo, crop: tuple[float, float, float, float]) -> Photo:
    """The photo with another part in use, and that part's colour."""
    changed = photo.model_copy(update={"crop": crop})
    image = part_in_use(changed)
    mean = photo.mean if image is None else mean_colour(image)
    return changed.model_copy(update={"mean": mean})
