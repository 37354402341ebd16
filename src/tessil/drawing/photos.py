"""Photos of cloth: read without trusting them, kept small inside the project.

The header is looked at before anything is decoded; what is kept is never larger than
``KEPT`` points a side.
"""

from __future__ import annotations

import base64
import binascii
from functools import lru_cache
from pathlib import Path

from PySide6.QtCore import QBuffer, QByteArray, QIODevice, QSize, Qt
from PySide6.QtGui import QColor, QImage, QImageReader

from tessil.core.project import MOST_PHOTO, Photo
from tessil.core.trouble import FileTrouble

MOST_POINTS = 48_000_000
MOST_BYTES = 64 * 1024 * 1024
LEAST_SIDE, KEPT = 16, 900
FORMATS = (b"png", b"jpeg", b"webp", b"bmp", b"gif")
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
    """A photo from the bytes of a picture file; raises FileTrouble."""
    reader, buffer = _reader(data)
    size = reader.size()
    if bytes(reader.format().data()) not in FORMATS or not size.isValid():
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
    if max(size.width(), size.height()) > KEPT:
        reader.setScaledSize(size.scaled(QSize(KEPT, KEPT), Qt.AspectRatioMode.KeepAspectRatio))
    image = reader.read()
    buffer.close()
    if image.isNull():
        raise FileTrouble(f"{name} breaks off or is damaged: it cannot be shown.")
    image = image.convertToFormat(QImage.Format.Format_RGB32)
    return Photo(data=_packed(image, name), wide=image.width(), high=image.height(),
                 mean=mean_colour(image))  # fmt: skip


def _reader(data: bytes) -> tuple[QImageReader, QBuffer]:
    buffer = QBuffer()
    buffer.setData(QByteArray(data))
    buffer.open(QIODevice.OpenModeFlag.ReadOnly)
    reader = QImageReader(buffer)
    reader.setDecideFormatFromContent(True)
    return reader, buffer


def _packed(image: QImage, name: str) -> str:
    for quality in QUALITIES:
        buffer = QBuffer()
        buffer.open(QIODevice.OpenModeFlag.WriteOnly)
        image.save(buffer, "JPEG", quality)  # type: ignore[call-overload]
        text = base64.b64encode(bytes(buffer.data().data())).decode("ascii")
        if len(text) <= MOST_PHOTO:
            return text
    raise FileTrouble(f"{name} is too rich to be kept inside the project: save it smaller first.")


def mean_colour(image: QImage) -> str:
    """The average colour of a picture."""
    small = image.scaled(16, 16, Qt.AspectRatioMode.IgnoreAspectRatio,
                         Qt.TransformationMode.SmoothTransformation)  # fmt: skip
    points = [QColor(small.pixel(x, y)) for x in range(16) for y in range(16)]
    red, green, blue = (
        round(sum(part) / len(points))
        for part in zip(*((c.red(), c.green(), c.blue()) for c in points), strict=True)
    )
    return QColor(red, green, blue).name()


@lru_cache(maxsize=64)
def whole_image(data: str, wide: int, high: int) -> QImage | None:
    """The kept picture; None if it is not what it says it is."""
    try:
        raw = base64.b64decode(data, validate=True)
    except (binascii.Error, ValueError):
        return None
    reader, buffer = _reader(raw)
    if (reader.size().width(), reader.size().height()) != (wide, high):
        return None
    image = reader.read()
    buffer.close()
    return None if image.isNull() else image.convertToFormat(QImage.Format.Format_RGB32)


def part_in_use(photo: Photo) -> QImage | None:
    """The cropped part of a photo."""
    image = whole_image(photo.data, photo.wide, photo.high)
    if image is None:
        return None
    left, top, width, height = photo.crop
    x, y = int(left * photo.wide), int(top * photo.high)
    w, h = max(int(width * photo.wide), 1), max(int(height * photo.high), 1)
    return image.copy(x, y, min(w, photo.wide - x), min(h, photo.high - y))


def with_part(photo: Photo, crop: tuple[float, float, float, float]) -> Photo:
    """The photo with another part in use, and that part's colour."""
    changed = photo.model_copy(update={"crop": crop})
    image = part_in_use(changed)
    mean = photo.mean if image is None else mean_colour(image)
    return changed.model_copy(update={"mean": mean})
