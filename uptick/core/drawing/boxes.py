"""The box model of a button: content, padding, border and outer boxes, and what does not fit."""

from dataclasses import dataclass, replace
from typing import NamedTuple

from uptick.core.button.document import ButtonDocument, QuantityBox, SecondButton
from uptick.core.button.lengths import Ground, to_px
from uptick.core.button.look import (
    Corners,
    FixedSize,
    FullSize,
    LineBorder,
    Look,
    NaturalSize,
    NoBorder,
    Padding,
    Type,
    corners_of,
)
from uptick.core.drawing.kit import Kit, icon_of
from uptick.core.type.fontbook import FontBook
from uptick.core.type.setting import SetWords, set_words


@dataclass(frozen=True, slots=True)
class Box:
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
        return self.left + self.right

    @property
    def along(self) -> float:
        return self.top + self.bottom


@dataclass(frozen=True, slots=True)
class Radii:
    top_left: float
    top_right: float
    bottom_right: float
    bottom_left: float


@dataclass(frozen=True, slots=True)
class Line:
    """One line of words as it stands."""

    text: str
    x: float
    width: float


@dataclass(frozen=True, slots=True)
class SecondDrawn:
    """The second button beside or under the first, in the first one's coordinates."""

    outer: Box
    words: Box
    text: str
    too_wide_px: float


@dataclass(frozen=True, slots=True)
class Drawing:
    """A button laid out. `too_wide_px` and `too_high_px` are 0 where it fits.

    `needs_*` is the size that words, icon, gap, padding and border take together; `container_px` is the room there is.
    `shift_px` is how far optical centring has moved the words down; `left_out` are the words behind an ellipsis.
    Padding and corners are those of the direction of reading, in pixels.
    """

    outer: Box
    content: Box
    words: Box
    lines: tuple[Line, ...]
    icon: Box | None
    gap_px: float
    padding: Edges
    border_px: float
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
    quantity: Box | None
    second: SecondDrawn | None


QUANTITY_GAP_PX = 8.0


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
    if under and quantity:
        # There the two rows make a grid, and percentages are of what the quantity box leaves.
        ground = Ground(room, ground.window_px)
    drawn = _alone(document, text, kit, ground, room, stretched, language)

    # 2. The quantity box and the second button around it.
    if second and own:
        drawn = replace(drawn, second=_second(document, second, own, drawn, ground, quantity, shares))
        assert drawn.second
        row_end = max(drawn.outer.width, drawn.second.outer.x + drawn.second.outer.width)
        if not under:
            over = row_end + beside - ground.container_px
            drawn = replace(drawn, too_wide_px=max(drawn.too_wide_px, _over(over)))
    if quantity:
        drawn = replace(drawn, quantity=_quantity(quantity, drawn, under))
    return _mirrored(drawn) if rtl else drawn


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
        return Widths(needs, outer, _over(max(needs - outer, outer - self.empty.container_px)))


def fitting_of(document: ButtonDocument, kit: Kit, ground: Ground) -> Fitting:
    empty = lay_out(document, "", kit, ground)
    look, icon, type_px = document.look, icon_of(document.icon), document.look.type.size_px
    above = icon.size_px if icon and icon.side == "above" else 0.0
    across = empty.padding.across + 2 * empty.border_px
    most, least, fixed = float("inf"), across, None
    if isinstance(look.size, NaturalSize):
        most = to_px(look.size.most, ground, type_px) if look.size.most is not None else most
        least = max(to_px(look.size.least, ground, type_px), across)
    else:
        fixed = empty.outer.width
    words = not document.is_wordless
    return Fitting(empty, empty.needs_width_px - above, above, least, most, fixed, words)


def _alone(
    document: ButtonDocument, text: str, kit: Kit, ground: Ground, room: float, stretched: float, language: str
) -> Drawing:
    look = document.look
    type_px = look.type.size_px
    icon = icon_of(document.icon)
    wordless = document.is_wordless
    above = icon is not None and icon.side == "above"
    border = look.border.width_px if isinstance(look.border, LineBorder) else 0.0
    pad = edges_of(look.padding, ground, type_px)
    across, along = pad.across + 2 * border, pad.along + 2 * border

    # 1. What stands inside, on one line.
    glyph = icon.size_px if icon else 0.0
    gap = icon.gap_px if icon and not wordless else 0.0
    inline = 0.0 if above else glyph + gap
    full = set_words(text, look.type, kit.fonts, None, look.wrap, language)
    wide = 0.0 if wordless else full.width_px
    least = 0.0 if wordless else full.least_px
    if look.wrap == "ellipsis":
        least = 0.0
    run = max(glyph, wide) if above else inline + wide
    needs_least = across + (max(glyph, least) if above else inline + least)

    # 2. The outer width, by the kind of size.
    width = _outer_width(look, across, across + run, ground, room)
    if isinstance(look.size, NaturalSize) and stretched:
        width = _stretched(look.size, width, stretched, across, ground, type_px, whole_row=takes_row(document))

    # 3. Words on as many lines as they then take.
    inner = width - across
    free = max(0.0, inner - inline)
    words = full
    if not wordless and look.wrap != "none":
        words = set_words(text, look.type, kit.fonts, free, look.wrap, language)
    broken = look.wrap != "none" and full.width_px > free + 1 / 64
    words_wide = 0.0 if wordless else free if broken else full.width_px
    words_high = 0.0 if wordless else words.height_px
    needs_high = along + (glyph + gap + words_high if above else max(glyph, words_high))
    height = max(look.size.height, along) if isinstance(look.size, FixedSize) else needs_high
    content = Box(border + pad.left, border + pad.top, inner, height - along)
    middle_x, middle_y = content.x + content.width / 2, content.y + content.height / 2

    # 4. Icon and words stand centred in the content box, over its edges where they must.
    shift = words.line_height_px / 2 - words.ascent_px + words.cap_height_px / 2 if look.centring == "caps" else 0.0
    icon_box = None
    if above:
        top = middle_y - (glyph + gap + words_high) / 2
        icon_box = Box(middle_x - glyph / 2, top, glyph, glyph)
        words_box = Box(middle_x - words_wide / 2, top + glyph + gap, words_wide, words_high)
    else:
        start = middle_x - (inline + words_wide) / 2
        first = icon is not None and icon.side != "after"
        words_box = Box(start + (inline if first else 0), middle_y - words_high / 2, words_wide, words_high)
        if icon:
            icon_x = start if first else words_box.x + words_wide + gap
            icon_box = Box(icon_x, middle_y - glyph / 2, glyph, glyph)
    words_box = replace(words_box, y=words_box.y + shift)
    lines = (
        ()
        if wordless
        else tuple(Line(one.text, words_box.x + (words_wide - one.width_px) / 2, one.width_px) for one in words.lines)
    )
    baseline = words_box.y + words.ascent_px

    # 5. What does not fit: words against the button, and the button against its container.
    wanted = needs_least if look.wrap != "none" else across + run
    return Drawing(
        outer=Box(0, 0, width, height),
        content=content,
        words=words_box,
        lines=lines,
        icon=icon_box,
        gap_px=gap,
        padding=pad,
        border_px=border,
        radius=_radius(look.radius, width, type_px, ground),
        baseline_y=baseline,
        cap_top_y=baseline - words.cap_height_px,
        shift_px=shift,
        line_height_px=words.line_height_px,
        needs_width_px=wanted,
        needs_height_px=needs_high,
        container_px=room,
        too_wide_px=_over(max(wanted - width, width - room)),
        too_high_px=_over(needs_high - height),
        missing=words.missing,
        left_out=words.left_out,
        text=text,
        quantity=None,
        second=None,
    )


def _outer_width(look: Look, across: float, natural: float, ground: Ground, room: float) -> float:
    size, type_px = look.size, look.type.size_px
    most = getattr(size, "most", None)
    cap = to_px(most, ground, type_px) if most is not None else float("inf")
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


def edges_of(padding: Padding, ground: Ground, type_px: float) -> Edges:
    """Return padding in pixels."""
    sides = (padding.top, padding.right, padding.bottom, padding.left)
    return Edges(*(to_px(side, ground, type_px) for side in sides))


def _radius(radius: Corners | float | str, width: float, type_px: float, ground: Ground) -> Radii:
    corners, own = corners_of(radius), Ground(width, ground.window_px)
    those = (corners.top_left, corners.top_right, corners.bottom_right, corners.bottom_left)
    return Radii(*(to_px(corner, own, type_px) for corner in those))


def takes_row(document: ButtonDocument) -> bool:
    """Tell whether the button's box takes the whole row: what is of full width, or a share of the container's."""
    return document.bare.derived(_takes_row)


def _takes_row(document: ButtonDocument) -> bool:
    look, second = document.look, document.second
    if isinstance(look.size, FullSize):
        return True
    if isinstance(second, SecondButton) and second.side == "under" and isinstance(document.quantity, QuantityBox):
        return True
    pad = look.padding
    sizes = [getattr(look.size, name, None) for name in ("least", "most", "width")]
    return any(isinstance(one, str) and one.endswith("%") for one in (pad.top, pad.right, pad.bottom, pad.left, *sizes))


@dataclass(frozen=True, slots=True)
class SecondSize:
    """The second button by itself: its outer size and its words."""

    width: float
    height: float
    words: SetWords
    text: str


def second_look(document: ButtonDocument) -> Look:
    """Return the look of the second button as a look of its own; its type family is the first one's.

    Its document must have one.
    """
    return document.bare.derived(_second_look)


def _second_look(document: ButtonDocument) -> Look:
    second = document.second
    assert isinstance(second, SecondButton)
    return Look.model_construct(
        size=NaturalSize(),
        padding=second.padding,
        radius=second.radius,
        fill=second.fill,
        text_colour=second.text_colour,
        border=second.border,
        type=Type(family=document.look.type.family, size_px=second.size_px, weight=second.weight),
        motion=document.look.motion,
        focus=document.look.focus,
        centring=document.look.centring,
    )


def second_text(second: SecondButton, language: str) -> str:
    return second.wording.get(language) or next(iter(second.wording.values()), "")


def second_size(document: ButtonDocument, language: str, fonts: FontBook, ground: Ground) -> SecondSize:
    """Return how large the second button is by itself; its document must have one."""
    assert isinstance(document.second, SecondButton)
    look = second_look(document)
    text = second_text(document.second, language)
    words = set_words(text, look.type, fonts, language=language)
    border = 0.0 if isinstance(look.border, NoBorder) else look.border.width_px
    pad = edges_of(look.padding, ground, look.type.size_px)
    width = words.width_px + pad.across + 2 * border
    return SecondSize(width, words.line_height_px + pad.along + 2 * border, words, text)


def _second(
    document: ButtonDocument,
    second: SecondButton,
    own: SecondSize,
    drawn: Drawing,
    ground: Ground,
    quantity: QuantityBox | None,
    shares: bool,
) -> SecondDrawn:
    main = drawn.outer
    takes = takes_row(document)
    if second.side == "under":
        wide = ground.container_px if takes else max(own.width, main.width)
        left = 0.0
        if quantity:
            beside = quantity.whole_width_px + QUANTITY_GAP_PX
            wide, left = ground.container_px + beside, -beside
        if document.look.wrap != "none" and not takes:
            wide = min(wide, ground.container_px)
        outer = Box(left, main.height + second.gap_px, wide, own.height)
        over = _over(max(own.width, wide) - max(wide if takes else ground.container_px, 0.0))
    else:
        wide = max(drawn.container_px, own.width - own.words.width_px) if shares else own.width
        x = -second.gap_px - wide if second.first else main.width + second.gap_px
        outer = Box(x, (main.height - own.height) / 2, wide, own.height)
        over = _over(own.width - wide)
    line = own.words.line_height_px
    words = Box(outer.x + (wide - own.words.width_px) / 2, outer.y + (own.height - line) / 2, own.words.width_px, line)
    return SecondDrawn(outer, words, own.text, over)


def _quantity(quantity: QuantityBox, drawn: Drawing, under: bool) -> Box:
    """Return the box of the number, as high as the row that it begins."""
    wide = quantity.whole_width_px
    left, top, high = -wide - QUANTITY_GAP_PX, 0.0, drawn.outer.height
    if drawn.second and not under:
        outer = drawn.second.outer
        top, high = min(0.0, outer.y), max(high, outer.height)
        left += min(0.0, outer.x)
    return Box(left, top, wide, high)


def _mirrored(drawn: Drawing) -> Drawing:
    def turned(box: Box) -> Box:
        return replace(box, x=drawn.outer.width - box.x - box.width)

    second = drawn.second
    if second:
        second = replace(second, outer=turned(second.outer), words=turned(second.words))
    return replace(
        drawn,
        content=turned(drawn.content),
        words=turned(drawn.words),
        lines=tuple(replace(one, x=drawn.outer.width - one.x - one.width) for one in drawn.lines),
        icon=turned(drawn.icon) if drawn.icon else None,
        quantity=turned(drawn.quantity) if drawn.quantity else None,
        second=second,
    )


def _over(pixels: float) -> float:
    # Chromium lays out in 64ths of a pixel; less than that is no overflow.
    return pixels if pixels > 1 / 64 else 0.0
