"""What a drawn button consists of: its boxes, in CSS pixels from its own upper left corner."""

from dataclasses import dataclass, replace
from math import floor

from uptick.core.button.lengths import Ground, to_px
from uptick.core.button.look import AnyBorder, Corners, Padding, border_widths, corners_of


@dataclass(frozen=True, slots=True)
class Rectangle:
    """A rectangle in CSS pixels from the button's upper left corner."""

    x: float
    y: float
    width: float
    height: float


@dataclass(frozen=True, slots=True)
class Edges:
    top: float
    right: float
    bottom: float
    left: float

    @property
    def across(self) -> float:
        """Left and right together, in pixels."""
        return self.left + self.right

    @property
    def along(self) -> float:
        """Top and bottom together, in pixels."""
        return self.top + self.bottom


@dataclass(frozen=True, slots=True)
class Radii:
    top_left: float
    top_right: float
    bottom_right: float
    bottom_left: float


@dataclass(frozen=True, slots=True)
class TextLine:
    """One line of words as it stands."""

    text: str
    x: float
    width: float


@dataclass(frozen=True, slots=True)
class SecondDrawn:
    """The second button beside or under the first, in the first one's coordinates."""

    outer: Rectangle
    words: Rectangle
    text: str
    too_wide_px: float


@dataclass(frozen=True, slots=True)
class Drawing:
    """A button laid out. `too_wide_px` and `too_high_px` are 0 where it fits.

    `needs_*` is the size that words, icon, gap, padding and border take together; `container_px` is the room there is.
    `shift_px` is how far optical centring has moved the words down; `left_out` are the words behind an ellipsis.
    Padding, border and corners are those of the direction of reading, in pixels.
    """

    outer: Rectangle
    content: Rectangle
    words: Rectangle
    lines: tuple[TextLine, ...]
    icon: Rectangle | None
    gap_px: float
    padding: Edges
    border: Edges
    radius: Radii
    baseline_y: float
    cap_top_y: float
    shift_px: float
    line_height_px: float
    needs_width_px: float
    needs_height_px: float
    container_px: float
    too_wide_px: float
    too_high_px: float
    missing: str
    left_out: str
    text: str
    quantity: Rectangle | None
    second: SecondDrawn | None


def edges_of(padding: Padding, ground: Ground, type_px: float) -> Edges:
    """Return padding in pixels."""
    sides = (padding.top, padding.right, padding.bottom, padding.left)
    return Edges(*(to_px(side, ground, type_px) for side in sides))


def border_edges(border: AnyBorder, density: float = 1) -> Edges:
    """Return how wide a border is drawn, in pixels.

    Args:
        density: Dots of the screen in a CSS pixel.

    Source:
        CSS Backgrounds 3, section 3.3, and CSS Values 4, "snapped as a border width": rounded down to whole dots, but
        to one where there is any.
    """
    return Edges(*(_snapped(width, density) for width in border_widths(border)))


def _snapped(width: float, density: float) -> float:
    return max(1, floor(width * density + 1e-6)) / density if width else 0.0


def radii_of(radius: Corners | float | str, width: float, type_px: float, ground: Ground) -> Radii:
    """Return the radii of the corners in pixels, of a box so many pixels wide; an em is `type_px`."""
    corners, own = corners_of(radius), Ground(width, ground.window_px)
    those = (corners.top_left, corners.top_right, corners.bottom_right, corners.bottom_left)
    return Radii(*(to_px(corner, own, type_px) for corner in those))


def mirrored(drawn: Drawing) -> Drawing:
    """Return a drawing as it stands where one reads from right to left."""

    def turned(box: Rectangle) -> Rectangle:
        return replace(box, x=drawn.outer.width - box.x - box.width)

    second = drawn.second
    if second:
        second = replace(second, outer=turned(second.outer), words=turned(second.words))
    return replace(
        drawn,
        content=turned(drawn.content),
        words=turned(drawn.words),
        lines=tuple(replace(line, x=drawn.outer.width - line.x - line.width) for line in drawn.lines),
        icon=turned(drawn.icon) if drawn.icon else None,
        quantity=turned(drawn.quantity) if drawn.quantity else None,
        second=second,
    )


def overflow(pixels: float) -> float:
    """Return by how many pixels something is too large, where a browser would see it."""
    # Chromium lays out in 64ths of a pixel; less than that is no overflow.
    return pixels if pixels > 1 / 64 else 0.0
