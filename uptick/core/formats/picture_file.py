"""A picture as a file: read, made no larger than a button needs, and written anew without what cameras put in."""

import hashlib
import io
import struct
from dataclasses import dataclass

import numpy as np
from PIL import Image, UnidentifiedImageError

from uptick.core.colour.pictures import Picture
from uptick.core.errors import BadPicture

MOST_BYTES = 8_000_000
# Twice what a button is wide on the widest screen.
_MOST_SIDE = 1600
_MOST_PIXELS = 60_000_000
_TYPES = {"PNG": "image/png", "JPEG": "image/jpeg", "WEBP": "image/webp"}


@dataclass(frozen=True, slots=True)
class PictureFile:
    hash: str
    media_type: str
    width: int
    height: int
    content: bytes


def read_picture(content: bytes) -> PictureFile:
    """Return a picture fit to be served.

    Raises:
        BadPicture: It is no PNG, JPEG or WebP, is broken, or is too large.
    """
    if len(content) > MOST_BYTES:
        raise BadPicture(f"The picture has {len(content) / 1e6:.1f} MB; {MOST_BYTES / 1e6:.0f} MB are the most.")
    try:
        with Image.open(io.BytesIO(content), formats=tuple(_TYPES)) as opened:
            kind = str(opened.format)
            if opened.width * opened.height > _MOST_PIXELS:
                raise BadPicture(f"The picture has {opened.width} × {opened.height} pixels; 60 million are the most.")
            opened.thumbnail((_MOST_SIDE, _MOST_SIDE))
            plain = opened.convert("RGB")
    except BadPicture:
        raise
    except (
        UnidentifiedImageError, OSError, SyntaxError, ValueError, EOFError, TypeError, IndexError, struct.error,
        Image.DecompressionBombError, Image.DecompressionBombWarning,
    ) as error:  # fmt: skip
        raise BadPicture("That is no picture that can be read. PNG, JPEG and WebP can.") from error
    written = io.BytesIO()
    plain.save(written, kind, quality=88, optimize=True)
    encoded = written.getvalue()
    return PictureFile(hashlib.sha256(encoded).hexdigest()[:16], _TYPES[kind], plain.width, plain.height, encoded)


def pixels_of(content: bytes) -> Picture:
    """Return the pixels of a picture that `read_picture` has made."""
    with Image.open(io.BytesIO(content)) as opened:
        return Picture(np.asarray(opened.convert("RGB"), dtype=np.uint8))
