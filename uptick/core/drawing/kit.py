"""What buttons are made from: fonts and icons as they ship, and the pictures of a store."""

import re
from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import lru_cache

from fontTools.pens.basePen import OpenContourError
from fontTools.pens.boundsPen import BoundsPen
from fontTools.pens.statisticsPen import StatisticsPen
from fontTools.svgLib.path import parse_path

from uptick.core.button.document import NoIcon, OwnIcon, Shape, ShippedIcon
from uptick.core.colour.pictures import Picture
from uptick.core.errors import OutOfRange
from uptick.core.type.fontbook import FontBook


@dataclass(frozen=True, slots=True)
class IconShape:
    """A shipped icon: one filled path in a square of `box` units, and what shoppers would call it."""

    path: str
    box: int
    words: tuple[str, ...] = ()
    points: bool = False


@dataclass(frozen=True, slots=True)
class Glyph:
    """An icon ready to draw. `off_x` and `off_y` lead from its box's middle to its mass's, as shares of its sides."""

    width: float
    height: float
    shapes: tuple[Shape, ...]
    off_x: float
    off_y: float


# Told apart by identity: it is part of keys.
@dataclass(frozen=True, eq=False)
class Kit:
    fonts: FontBook
    icons: Mapping[str, IconShape]
    pictures: Mapping[str, Picture] = field(default_factory=dict)

    def glyph(self, icon: ShippedIcon | OwnIcon) -> Glyph:
        """Return an icon's shapes.

        Raises:
            OutOfRange: The icon is not shipped.
        """
        if isinstance(icon, OwnIcon):
            return icon.derived(_own)
        shape = self.icons.get(icon.name)
        if shape is None:
            raise OutOfRange.of("icon.name", f"one of {', '.join(sorted(self.icons))}", icon.name)
        return _shipped(shape)


def icon_of(icon: NoIcon | ShippedIcon | OwnIcon) -> ShippedIcon | OwnIcon | None:
    """Return the icon; None where there is none."""
    return None if isinstance(icon, NoIcon) else icon


@lru_cache(maxsize=1024)
def _shipped(shape: IconShape) -> Glyph:
    return _glyph(shape.box, shape.box, (Shape(d=shape.path),))


def _own(icon: OwnIcon) -> Glyph:
    return _glyph(icon.width, icon.height, icon.shapes)


def _glyph(width: float, height: float, shapes: tuple[Shape, ...]) -> Glyph:
    x, y = centre_of_mass(shapes) or (width / 2, height / 2)
    return Glyph(width, height, shapes, (x - width / 2) / width, (y - height / 2) / height)


def _mass(d: str) -> tuple[float, float, float] | None:
    """Return the area of a filled path and the middle of its mass; None where it has none."""
    pen = StatisticsPen()
    try:
        # A path is filled as if it were closed, whether it is or not (SVG 1.1, 11.3).
        parse_path(re.sub(r"(?<=[^zZ\sMm])\s*(?=[Mm])|(?<=[^zZ\s])\s*$", "Z", d), pen)
    except OpenContourError:
        return None
    area = float(pen.area)
    return (abs(area), float(pen.meanX), float(pen.meanY)) if abs(area) > 1e-6 else None


def centre_of_mass(shapes: tuple[Shape, ...]) -> tuple[float, float] | None:
    """Return the middle of the drawn area of some shapes, each by its area; of lines, that of what they span."""
    weighed = []
    for shape in shapes:
        filled = None if shape.stroke else _mass(shape.d)
        if filled:
            weighed.append(filled)
            continue
        bounds = BoundsPen(None)
        parse_path(shape.d, bounds)
        if bounds.bounds:
            left, top, right, bottom = bounds.bounds
            span = max((right - left) * (bottom - top), 1e-6)
            weighed.append((span, (left + right) / 2, (top + bottom) / 2))
    whole = sum(weight for weight, _, _ in weighed)
    if not whole:
        return None
    return sum(w * x for w, x, _ in weighed) / whole, sum(w * y for w, _, y in weighed) / whole
