"""The box model of a button: content, padding and outer boxes, and what does not fit."""

from dataclasses import dataclass, replace

from uptick.core.document import ButtonDocument, FixedSize, FullSize, QuantityBox, ShippedIcon
from uptick.core.type.fontbook import FontBook


@dataclass(frozen=True, slots=True)
class Box:
    """A rectangle in CSS pixels from the button's upper left corner."""

    x: float
    y: float
    width: float
    height: float


@dataclass(frozen=True, slots=True)
class Drawing:
    """A button laid out. `too_wide_px` and `too_high_px` are 0 where it fits.

    `needs_*` is the size that words, icon, gap and padding take together; `container_px` is the room there is.
    """

    outer: Box
    content: Box
    words: Box
    icon: Box | None
    gap_px: float
    baseline_y: float
    cap_top_y: float
    line_height_px: float
    needs_width_px: float
    needs_height_px: float
    container_px: float
    too_wide_px: float
    too_high_px: float
    missing: str
    text: str


QUANTITY_GAP_PX = 8.0


def room_beside_quantity(document: ButtonDocument, container_px: float) -> float:
    """Return the room that a quantity box leaves to the button."""
    box = document.quantity
    return container_px - box.width_px - QUANTITY_GAP_PX if isinstance(box, QuantityBox) else container_px


def lay_out(document: ButtonDocument, text: str, fonts: FontBook, container_px: float, *, rtl: bool = False) -> Drawing:
    """Return the boxes of a button that says `text` in a container of this width.

    From right to left everything is mirrored: what is drawn on the left stands on the right, padding and icon too.
    A quantity box stands outside the button and takes from the container. The same sums as CSS does for an inline flex
    box with `box-sizing: border-box`, one line of words that does not wrap, an icon and a gap, everything centred. No
    border yet.

    Source:
        CSS Box Sizing 3 and CSS Flexbox 1 (main and cross size, centring with overflow on both sides).
    """
    container_px = room_beside_quantity(document, container_px)
    look, pad = document.look, document.look.padding
    icon = document.icon if isinstance(document.icon, ShippedIcon) else None
    words = fonts.measure(text, look.type.family, look.type.size_px, look.type.weight)
    icon_width = icon.size_px + icon.gap_px if icon else 0.0
    needs_width = pad.left_px + icon_width + words.width_px + pad.right_px
    needs_height = pad.top_px + max(words.line_height_px, icon.size_px if icon else 0.0) + pad.bottom_px

    # 1. The outer box, by the kind of size.
    match look.size:
        case FixedSize(width_px=width, height_px=height):
            # Padding is never squeezed: a box smaller than its padding grows to it.
            width, height = max(width, pad.left_px + pad.right_px), max(height, pad.top_px + pad.bottom_px)
        case FullSize():
            width, height = max(container_px, pad.left_px + pad.right_px), needs_height
        case _:
            width, height = needs_width, needs_height
    content = Box(pad.left_px, pad.top_px, width - pad.left_px - pad.right_px, height - pad.top_px - pad.bottom_px)

    # 2. Icon and words stand centred in the content box, over its edges where they must.
    run = icon_width + words.width_px
    start = content.x + (content.width - run) / 2
    middle = content.y + content.height / 2
    words_x = start + (icon_width if icon and icon.side == "before" else 0.0)
    words_box = Box(words_x, middle - words.line_height_px / 2, words.width_px, words.line_height_px)
    icon_box = None
    if icon:
        icon_x = start if icon.side == "before" else words_x + words.width_px + icon.gap_px
        icon_box = Box(icon_x, middle - icon.size_px / 2, icon.size_px, icon.size_px)

    # 3. What does not fit: words against the button, and the button against its container.
    baseline = words_box.y + words.ascent_px
    drawn = Drawing(
        outer=Box(0, 0, width, height),
        content=content,
        words=words_box,
        icon=icon_box,
        gap_px=icon.gap_px if icon else 0.0,
        baseline_y=baseline,
        cap_top_y=baseline - words.cap_height_px,
        line_height_px=words.line_height_px,
        needs_width_px=needs_width,
        needs_height_px=needs_height,
        container_px=container_px,
        too_wide_px=_over(max(needs_width - width, width - container_px)),
        too_high_px=_over(needs_height - height),
        missing=words.missing,
        text=text,
    )
    return _mirrored(drawn) if rtl else drawn


def _mirrored(drawn: Drawing) -> Drawing:
    def turned(box: Box) -> Box:
        return replace(box, x=drawn.outer.width - box.x - box.width)

    icon = turned(drawn.icon) if drawn.icon else None
    return replace(drawn, content=turned(drawn.content), words=turned(drawn.words), icon=icon)


def _over(pixels: float) -> float:
    # Chromium lays out in 64ths of a pixel; less than that is no overflow.
    return pixels if pixels > 1 / 64 else 0.0
