"""What stands beside a button: a quantity box before it, and a second button before, after or under it."""

from dataclasses import dataclass

from uptick.core.button.document import ButtonDocument, QuantityBox, SecondButton
from uptick.core.button.lengths import Ground
from uptick.core.button.look import FullSize, Look, NaturalSize, Type
from uptick.core.drawing.drawing import Drawing, Rectangle, SecondDrawn, border_edges, edges_of, overflow
from uptick.core.type.fontbook import FontBook
from uptick.core.type.setting import SetWords, set_words

QUANTITY_GAP_PX = 8.0


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
    return any(
        isinstance(length, str) and length.endswith("%")
        for length in (pad.top, pad.right, pad.bottom, pad.left, *sizes)
    )


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
    """Return the words of a second button in a language, else in the first that it has."""
    return second.wording.get(language) or next(iter(second.wording.values()), "")


def second_size(document: ButtonDocument, language: str, fonts: FontBook, ground: Ground) -> SecondSize:
    """Return how large the second button is by itself; its document must have one."""
    assert isinstance(document.second, SecondButton)
    look = second_look(document)
    text = second_text(document.second, language)
    words = set_words(text, look.type, fonts, language=language)
    border = border_edges(look.border, ground.density)
    pad = edges_of(look.padding, ground, look.type.size_px)
    width = words.width_px + pad.across + border.across
    return SecondSize(width, words.line_height_px + pad.along + border.along, words, text)


def second_beside(
    document: ButtonDocument,
    second: SecondButton,
    own: SecondSize,
    drawn: Drawing,
    ground: Ground,
    quantity: QuantityBox | None,
    shares: bool,
) -> SecondDrawn:
    """Return a second button drawn beside or under the first, in pixels, and what both take together.

    Args:
        own: The size that the second button has by itself.
        drawn: The first button.
        ground: The width in which both stand.
        quantity: The box that stands with them, if any.
        shares: Whether the box stands in the same row.
    """
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
        outer = Rectangle(left, main.height + second.gap_px, wide, own.height)
        over = overflow(max(own.width, wide) - max(wide if takes else ground.container_px, 0.0))
    else:
        wide = max(drawn.container_px, own.width - own.words.width_px) if shares else own.width
        x = -second.gap_px - wide if second.first else main.width + second.gap_px
        outer = Rectangle(x, (main.height - own.height) / 2, wide, own.height)
        over = overflow(own.width - wide)
    line = own.words.line_height_px
    words = Rectangle(
        outer.x + (wide - own.words.width_px) / 2, outer.y + (own.height - line) / 2, own.words.width_px, line
    )
    return SecondDrawn(outer, words, own.text, over)


def quantity_beside(quantity: QuantityBox, drawn: Drawing, under: bool) -> Rectangle:
    """Return the box of the number, as high as the row that it begins."""
    wide = quantity.whole_width_px
    left, top, high = -wide - QUANTITY_GAP_PX, 0.0, drawn.outer.height
    if drawn.second and not under:
        outer = drawn.second.outer
        top, high = min(0.0, outer.y), max(high, outer.height)
        left += min(0.0, outer.x)
    return Rectangle(left, top, wide, high)
