"""The box model of a button: content, padding, border and outer boxes, and what does not fit."""

from dataclasses import dataclass, replace
from typing import NamedTuple

from uptick.core.button.document import ButtonDocument, OwnIcon, QuantityBox, SecondButton, ShippedIcon
from uptick.core.button.lengths import Ground, to_px
from uptick.core.button.look import FixedSize, FullSize, Look, NaturalSize
from uptick.core.drawing.beside import QUANTITY_GAP_PX, quantity_beside, second_beside, second_size, takes_row
from uptick.core.drawing.drawing import (
    Drawing,
    Edges,
    Rectangle,
    TextLine,
    border_edges,
    edges_of,
    mirrored,
    overflow,
    radii_of,
)
from uptick.core.drawing.kit import Kit, icon_of
from uptick.core.type.setting import SetWords, set_words


def lay_out(
    document: ButtonDocument, text: str, kit: Kit, ground: Ground, *, rtl: bool = False, language: str = ""
) -> Drawing:
    """Return the boxes of a button that says `text` in a container of this width.

    From right to left everything is mirrored: what is drawn on the left stands on the right, padding and icon too. What
    stands beside the button takes from the container. The same sums as CSS does for a flex box with `box-sizing:
    border-box`, everything centred; percentages are of the container, wherever in it the button stands.

    Source:
        CSS Box Sizing 3 and CSS Flexbox 1 (main and cross size, centring with overflow on both sides).
    """
    second = document.second if isinstance(document.second, SecondButton) else None
    quantity = document.quantity if isinstance(document.quantity, QuantityBox) else None
    own = second_size(document, language, kit.fonts, ground) if second else None
    under = second is not None and second.side == "under"

    # 1. What stands beside it takes room.
    beside = quantity.whole_width_px + QUANTITY_GAP_PX if quantity else 0.0
    room = ground.container_px - beside
    shares = False
    if second and own and not under:
        shares = second.share and isinstance(document.look.size, FullSize)
        room = (room - second.gap_px) / 2 if shares else room - second.gap_px - own.width
    stretched = 0.0
    if own and under and not quantity:
        stretched = ground.container_px if takes_row(document) else own.width
        if document.look.wrap != "none":
            # What may wrap does not stand out of its container, and what is as wide as it does not either.
            stretched = min(stretched, ground.container_px)
    if under and quantity:
        # There the two rows make a grid, and percentages are of what the quantity box leaves.
        ground = replace(ground, container_px=room)
    drawn = _alone(document, text, kit, ground, room, stretched, language)

    # 2. The quantity box and the second button around it.
    if second and own:
        drawn = replace(drawn, second=second_beside(document, second, own, drawn, ground, quantity, shares))
        assert drawn.second
        row_end = max(drawn.outer.width, drawn.second.outer.x + drawn.second.outer.width)
        if not under:
            over = row_end + beside - ground.container_px
            drawn = replace(drawn, too_wide_px=max(drawn.too_wide_px, overflow(over)))
    if quantity:
        drawn = replace(drawn, quantity=quantity_beside(quantity, drawn, under))
    return mirrored(drawn) if rtl else drawn


class Widths(NamedTuple):
    """How wide a button is, what its content needs, and by how much it is too wide, in pixels."""

    needs: float
    outer: float
    too_wide: float


def is_plain(document: ButtonDocument) -> bool:
    """Tell whether a text changes nothing of a button but its width: its words stay on one line and it stands alone."""
    return document.look.wrap == "none" and not isinstance(document.second, SecondButton)


@dataclass(frozen=True, slots=True)
class Fitting:
    """A plain button on one ground: how wide it gets with words of any width, without laying it out for each.

    `fixed_px` is its outer width where words do not change that; `beside_px` is what words come in addition to, and
    `above_px` the icon over them.
    """

    empty: Drawing
    beside_px: float
    above_px: float
    least_px: float
    most_px: float
    fixed_px: float | None
    counts_words: bool

    def with_words(self, words_px: float) -> Widths:
        """Return how wide it is, as `lay_out` would find."""
        words = words_px if self.counts_words else 0.0
        needs = self.beside_px + max(self.above_px, words)
        outer = max(min(needs, self.most_px), self.least_px) if self.fixed_px is None else self.fixed_px
        return Widths(needs, outer, overflow(max(needs - outer, outer - self.empty.container_px)))


def fitting_of(document: ButtonDocument, kit: Kit, ground: Ground) -> Fitting:
    """Return how wide a button can be and how much of that its words have, in pixels."""
    empty = lay_out(document, "", kit, ground)
    look, icon, type_px = document.look, icon_of(document.icon), document.look.type.size_px
    above = icon.size_px if icon and icon.side == "above" else 0.0
    across = empty.padding.across + empty.border.across
    most, least, fixed = float("inf"), across, None
    if isinstance(look.size, NaturalSize):
        most = to_px(look.size.most, ground, type_px) if look.size.most is not None else most
        least = max(to_px(look.size.least, ground, type_px), across)
    else:
        fixed = empty.outer.width
    words = not document.is_wordless
    return Fitting(empty, empty.needs_width_px - above, above, least, most, fixed, words)


@dataclass(frozen=True, slots=True)
class _Inside:
    """What stands inside a button, on one line, in pixels: what it takes across and along beside its words."""

    icon: ShippedIcon | OwnIcon | None
    border: Edges
    padding: Edges
    # Padding and border together.
    across: float
    along: float
    glyph: float
    gap: float
    # How far the icon and its gap push the words aside.
    inline: float
    is_above: bool
    is_wordless: bool
    words: SetWords
    # The width that everything takes, and the least into which it could be broken.
    run: float
    needs_least: float


def _alone(
    document: ButtonDocument, text: str, kit: Kit, ground: Ground, room: float, stretched: float, language: str
) -> Drawing:
    look = document.look
    inside = _inside(document, text, kit, ground, language)
    width = _width_alone(document, inside, ground, room, stretched)

    # Words on as many lines as they then take.
    inner = width - inside.across
    free = max(0.0, inner - inside.inline)
    words = inside.words
    if not inside.is_wordless and look.wrap != "none":
        words = set_words(text, look.type, kit.fonts, free, look.wrap, language)
    is_broken = look.wrap != "none" and inside.words.width_px > free + 1 / 64
    words_wide = 0.0 if inside.is_wordless else free if is_broken else inside.words.width_px
    words_high = 0.0 if inside.is_wordless else words.height_px
    stacked = inside.glyph + inside.gap + words_high
    needs_high = inside.along + (stacked if inside.is_above else max(inside.glyph, words_high))
    if isinstance(look.size, FixedSize):
        height = max(look.size.height, inside.along)
    else:
        height = max(needs_high, look.size.least_height_px)
    border, pad = inside.border, inside.padding
    content = Rectangle(border.left + pad.left, border.top + pad.top, inner, height - inside.along)
    icon_box, words_box = _standing(inside, content, words_wide, words_high)

    shift = words.line_height_px / 2 - words.ascent_px + words.cap_height_px / 2 if look.centring == "caps" else 0.0
    words_box = replace(words_box, y=words_box.y + shift)
    lines = (
        ()
        if inside.is_wordless
        else tuple(
            TextLine(line.text, words_box.x + (words_wide - line.width_px) / 2, line.width_px) for line in words.lines
        )
    )
    baseline = words_box.y + words.ascent_px
    # What does not fit: words against the button, and the button against its container.
    wanted = inside.needs_least if look.wrap != "none" else inside.across + inside.run
    return Drawing(
        outer=Rectangle(0, 0, width, height),
        content=content,
        words=words_box,
        lines=lines,
        icon=icon_box,
        gap_px=inside.gap,
        padding=pad,
        border=border,
        radius=radii_of(look.radius, width, look.type.size_px, ground),
        baseline_y=baseline,
        cap_top_y=baseline - words.cap_height_px,
        shift_px=shift,
        line_height_px=words.line_height_px,
        needs_width_px=wanted,
        needs_height_px=needs_high,
        container_px=room,
        too_wide_px=overflow(max(wanted - width, width - room)),
        too_high_px=overflow(needs_high - height),
        missing=words.missing,
        left_out=words.left_out,
        text=text,
        quantity=None,
        second=None,
    )


def _inside(document: ButtonDocument, text: str, kit: Kit, ground: Ground, language: str) -> _Inside:
    look, icon, is_wordless = document.look, icon_of(document.icon), document.is_wordless
    is_above = icon is not None and icon.side == "above"
    border = border_edges(look.border, ground.density)
    pad = edges_of(look.padding, ground, look.type.size_px)
    across = pad.across + border.across
    glyph = icon.size_px if icon else 0.0
    gap = icon.gap_px if icon and not is_wordless else 0.0
    inline = 0.0 if is_above else glyph + gap
    words = set_words(text, look.type, kit.fonts, None, look.wrap, language)
    wide = 0.0 if is_wordless else words.width_px
    # An ellipsis can stand for all of them.
    least = 0.0 if is_wordless or look.wrap == "ellipsis" else words.least_px
    return _Inside(
        icon=icon,
        border=border,
        padding=pad,
        across=across,
        along=pad.along + border.along,
        glyph=glyph,
        gap=gap,
        inline=inline,
        is_above=is_above,
        is_wordless=is_wordless,
        words=words,
        run=max(glyph, wide) if is_above else inline + wide,
        needs_least=across + (max(glyph, least) if is_above else inline + least),
    )


def _width_alone(document: ButtonDocument, inside: _Inside, ground: Ground, room: float, stretched: float) -> float:
    """Return the outer width, by the kind of size."""
    look, across, whole = document.look, inside.across, inside.across + inside.run
    width = _outer_width(look, across, whole, ground, room)
    if not isinstance(look.size, NaturalSize):
        return width
    if _in_grid(document) and look.wrap != "none" and look.size.most is not None:
        # In a grid it is made to fit, but not smaller than what cannot be broken (CSS Sizing 3, "fit-content").
        unbroken = inside.needs_least if look.wrap == "lines" else whole
        width = max(width, min(unbroken, _cap(look, ground)))
    if stretched:
        type_px = look.type.size_px
        width = _stretched(look.size, width, stretched, across, ground, type_px, whole_row=takes_row(document))
    return width


def _standing(
    inside: _Inside, content: Rectangle, words_wide: float, words_high: float
) -> tuple[Rectangle | None, Rectangle]:
    """Return the boxes of icon and words, centred in the content box, over its edges where they must."""
    glyph, gap, inline = inside.glyph, inside.gap, inside.inline
    middle_x, middle_y = content.x + content.width / 2, content.y + content.height / 2
    if inside.is_above:
        top = middle_y - (glyph + gap + words_high) / 2
        return (
            Rectangle(middle_x - glyph / 2, top, glyph, glyph),
            Rectangle(middle_x - words_wide / 2, top + glyph + gap, words_wide, words_high),
        )
    start = middle_x - (inline + words_wide) / 2
    is_first = inside.icon is not None and inside.icon.side != "after"
    words_box = Rectangle(start + (inline if is_first else 0), middle_y - words_high / 2, words_wide, words_high)
    if not inside.icon:
        return None, words_box
    icon_x = start if is_first else words_box.x + words_wide + gap
    return Rectangle(icon_x, middle_y - glyph / 2, glyph, glyph), words_box


def _in_grid(document: ButtonDocument) -> bool:
    """Tell whether a quantity box before it and a second button under it make a grid."""
    second = document.second
    return isinstance(document.quantity, QuantityBox) and isinstance(second, SecondButton) and second.side == "under"


def _cap(look: Look, ground: Ground) -> float:
    most = getattr(look.size, "most", None)
    return to_px(most, ground, look.type.size_px) if most is not None else float("inf")


def _outer_width(look: Look, across: float, natural: float, ground: Ground, room: float) -> float:
    size, type_px = look.size, look.type.size_px
    cap = _cap(look, ground)
    if isinstance(size, FixedSize):
        # Padding and border are never squeezed: a box smaller than they are grows to them.
        return max(to_px(size.width, ground, type_px), across)
    if isinstance(size, FullSize):
        return max(min(room, cap), across)
    # What may wrap does not stand out of its container.
    wide = min(natural, cap, room if look.wrap != "none" else cap)
    least = to_px(size.least, ground, type_px) if isinstance(size, NaturalSize) else 0.0
    return max(wide, least, across)


def _stretched(
    size: NaturalSize, natural: float, row: float, across: float, ground: Ground, type_px: float, *, whole_row: bool
) -> float:
    """Return the width of a button that is made as wide as its row, within its own bounds."""
    cap = to_px(size.most, ground, type_px) if size.most is not None else row
    wide = min(row, cap)
    return max(wide, to_px(size.least, ground, type_px), across) if whole_row else max(natural, wide)
