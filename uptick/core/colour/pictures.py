"""Pictures as buttons carry them: their pixels as they lie under the words, and how readable those are."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from uptick.core.button.look import PictureFill

Pixels = NDArray[np.float64]
Bytes = NDArray[np.uint8]
# A few lone pixels, such as a spark of light, do not make a word unreadable.
_WORST_SHARE = 0.01


# Told apart by identity: it is part of keys.
@dataclass(frozen=True, eq=False)
class Picture:
    """A picture's pixels: `(height, width, 3)`, sRGB from 0 to 255, row by row from the top."""

    pixels: Bytes

    @property
    def size(self) -> tuple[int, int]:
        """Return width and height in pixels."""
        high, wide = self.pixels.shape[:2]
        return wide, high


def under(
    picture: Picture, fill: PictureFill, box: tuple[float, float], part: tuple[float, float, float, float]
) -> Pixels:
    """Return the pixels that lie under a part of a button, veiled by the scrim: `(n, 3)`, sRGB in [0, 1].

    Args:
        picture: The picture.
        fill: Its focal point and its scrim.
        box: Width and height of the button in CSS pixels.
        part: x, y, width and height of the part, from the button's upper left corner.

    Source:
        CSS Backgrounds 3, sections 3.6 (percentages of background-position) and 3.9 (`cover`); Compositing 1, section
        5.1 (simple alpha compositing, in sRGB as browsers do).
    """
    wide, high = picture.size
    scale = max(box[0] / wide, box[1] / high)
    # 1. How far the picture sticks out, and how much of that lies on the left and above.
    left, top = (wide * scale - box[0]) * fill.x / 100, (high * scale - box[1]) * fill.y / 100
    # 2. The part in the picture's own pixels, at least one each way.
    first_x, last_x = _span((part[0] + left) / scale, (part[0] + part[2] + left) / scale, wide)
    first_y, last_y = _span((part[1] + top) / scale, (part[1] + part[3] + top) / scale, high)
    seen = picture.pixels[first_y:last_y, first_x:last_x].reshape(-1, 3) / 255
    # 3. The veil over it.
    veil = np.array([int(fill.scrim.colour[n : n + 2], 16) / 255 for n in (1, 3, 5)])
    return seen * (1 - fill.scrim.opacity) + veil * fill.scrim.opacity


def _span(first: float, last: float, size: int) -> tuple[int, int]:
    low = min(max(int(first), 0), size - 1)
    return low, min(max(int(np.ceil(last)), low + 1), size)


def luminance(pixels: Pixels) -> NDArray[np.float64]:
    """Return relative luminance in [0, 1] of sRGB pixels `(n, 3)`.

    Source:
        WCAG 2.2, definition of relative luminance.
    """
    linear = np.where(pixels <= 0.04045, pixels / 12.92, ((pixels + 0.055) / 1.055) ** 2.4)
    relative: NDArray[np.float64] = linear @ np.array([0.2126, 0.7152, 0.0722])
    return relative


# From linear sRGB to cone responses, and from their cube roots to OKLab.
_TO_CONES = np.array(
    [[0.4122214708, 0.5363325363, 0.0514459929], [0.2119034982, 0.6806995451, 0.1073969566],
     [0.0883024619, 0.2817188376, 0.6299787005]]
)  # fmt: skip
_TO_LAB = np.array(
    [[0.2104542553, 0.7936177850, -0.0040720468], [1.9779984951, -2.4285922050, 0.4505937099],
     [0.0259040371, 0.7827717662, -0.8086757660]]
)  # fmt: skip


def oklab(pixels: Pixels) -> Pixels:
    """Return sRGB pixels `(n, 3)` in OKLab, in which equal distances look about equally far.

    Source:
        B. Ottosson, "A perceptual color space for image processing" (2020).
    """
    linear = np.where(pixels <= 0.04045, pixels / 12.92, ((pixels + 0.055) / 1.055) ** 2.4)
    lab: Pixels = np.cbrt(linear @ _TO_CONES.T) @ _TO_LAB.T
    return lab


def worst_contrast(words: str, pixels: Pixels) -> float:
    """Return the contrast of words with the pixels under them that only one in a hundred falls short of."""
    rgb = np.array([[int(words[n : n + 2], 16) / 255 for n in (1, 3, 5)]])
    own, those = luminance(rgb)[0], luminance(pixels)
    ratios = (np.maximum(own, those) + 0.05) / (np.minimum(own, those) + 0.05)
    return float(np.quantile(ratios, _WORST_SHARE, method="lower"))
