"""Code of buttons to copy, and how it looks."""

import base64
import hashlib
from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import datetime

from uptick.core.outside.handed import Order, OutsideKind
from uptick.core.outside.html import (
    Page,
    Piece,
    alone_on_page,
    form_button,
    mail_button,
    mail_sheet,
    picture_button,
    web_button,
    web_sheet,
)
from uptick.core.outside.picture import ButtonPicture
from uptick.core.outside.printed import PrintedCode, printed_code, printed_sheet
from uptick.core.outside.variants import contrast_on
from uptick.core.shop.catalogue import Product
from uptick.core.words.wording import is_rtl
from uptick.usecases.outside.make import MadeButton, make_button
from uptick.usecases.outside.notes import DARK, LIGHT, notes_of
from uptick.usecases.ports import HandedOut, Person, Shop
from uptick.usecases.state import language_of

_SCALES = (1, 2, 3)


@dataclass(frozen=True, slots=True)
class PictureView:
    """A button as a picture: as SVG, and as PNG in Base64 with one, two and three dots to a pixel."""

    svg: str
    png: tuple[str, ...]
    width: float
    height: float


@dataclass(frozen=True, slots=True)
class OutsideButton:
    """One button of a code. `readable` is the contrast of its words on a light and on a dark page."""

    product: Product
    id: str
    link: str
    words: str
    readable: tuple[float, ...]
    picture: PictureView | None


@dataclass(frozen=True, slots=True)
class OutsideCode:
    """Code to copy, and the HTML in which it is looked at. `notes` say what differs from the shop's own button."""

    kind: OutsideKind
    code: str
    shown: str
    buttons: tuple[OutsideButton, ...]
    notes: tuple[str, ...]
    language: str


def make_outside(
    shop: Shop, order: Order, edge: str, person: Person, now: datetime, *, copied: bool = False
) -> OutsideCode:
    """Return the code of buttons, drawn as the draft draws them; their links lead from now on.

    Args:
        edge: The address at which the edge is reached.
        copied: Somebody takes it with him now.

    Raises:
        NotFound: There is no such product.
        OutOfRange: A product has no page of the store's, or cannot be put into the basket this way.
    """
    snapshot = shop.now()
    language = language_of(snapshot.settings, order.language)
    page = Page(shop.kit, edge, language, is_rtl(language))
    handed = [make_button(shop, snapshot, order, sku, page) for sku in dict.fromkeys(order.products)]
    if order.kind is OutsideKind.PICTURE:
        handed = [_with_pictures(shop, button, edge) for button in handed]
    shop.outside.put([_handed_out(button, order.across, person, now, copied=copied) for button in handed])
    code, shown = _code(shop, order, handed, page)
    return OutsideCode(
        order.kind,
        code,
        shown,
        tuple(_shown(button, order.kind) for button in handed),
        tuple(notes_of(shop, order, handed)),
        language,
    )


def _with_pictures(shop: Shop, button: MadeButton, edge: str) -> MadeButton:
    """Keep a button's pictures where the edge serves them, each for ever under the hash of its content."""
    drawing = button.piece.drawing
    assert drawing
    addresses = []
    for scale in _SCALES:
        content = drawing.png(scale)
        digest = hashlib.sha256(content).hexdigest()[:16]
        shop.outside.put_picture(digest, "image/png", content)
        addresses.append((scale, f"{edge}/pictures/{digest}"))
    return replace(button, piece=replace(button.piece, picture_at=tuple(addresses)))


def _handed_out(button: MadeButton, across: int, person: Person, now: datetime, *, copied: bool) -> HandedOut:
    return HandedOut(button.handed, across, button.piece.text, button.looks, person.name, now, now if copied else None)


def _code(shop: Shop, order: Order, buttons: Sequence[MadeButton], page: Page) -> tuple[str, str]:
    """Return code to copy, and the HTML in which it is seen: the studio loads no pictures of shops."""
    pieces = [button.piece for button in buttons]
    if order.kind is OutsideKind.LINK:
        rows = "".join(f'<p><a href="{piece.link}">{piece.link}</a></p>' for piece in pieces)
        return "\n".join(piece.link for piece in pieces), rows
    if order.kind is OutsideKind.PRINT:
        codes = [_printed(shop, piece, page) for piece in pieces]
        sheet = codes[0] if len(codes) == 1 else printed_sheet(codes, order.across)
        return sheet.svg, sheet.svg
    return _html(shop, order, pieces, page), _html(shop, order, [_without_pictures(piece) for piece in pieces], page)


# A hatched square where the shop's own picture will be.
_HATCHED = (
    "data:image/svg+xml,%3Csvg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 40 40'%3E%3Cpath d='M0 0h40v40H0z' "
    "fill='%23e4e9e7'/%3E%3Cpath d='M-2 42 42-2M-2 22 22-2M18 42 42 18' stroke='%23c8d1cd'/%3E%3C/svg%3E"
)


def _without_pictures(piece: Piece) -> Piece:
    picture = _HATCHED if piece.product_picture else ""
    if piece.drawing is None:
        return replace(piece, product_picture=picture)
    drawn = base64.b64encode(piece.drawing.svg.encode()).decode()
    return replace(piece, product_picture=picture, picture_at=((1, f"data:image/svg+xml;base64,{drawn}"),))


def _html(shop: Shop, order: Order, pieces: Sequence[Piece], page: Page) -> str:
    match order.kind:
        case OutsideKind.FORM:
            buttons = [form_button(piece, page, shop.store.connection) for piece in pieces]
        case OutsideKind.PICTURE:
            buttons = [picture_button(piece) for piece in pieces]
        case OutsideKind.MAIL:
            buttons = [mail_button(piece, page) for piece in pieces]
        case _:
            buttons = [web_button(piece, page) for piece in pieces]
    if len(pieces) == 1 and order.across == 1:
        return buttons[0] if order.kind is OutsideKind.PICTURE else alone_on_page(buttons[0], page)
    sheet_of = mail_sheet if order.kind is OutsideKind.MAIL else web_sheet
    return sheet_of(pieces, buttons, page, order.across)


def _printed(shop: Shop, piece: Piece, page: Page) -> PrintedCode:
    kind = piece.document.look.type
    words = piece.spoken if piece.document.is_wordless else piece.text
    return printed_code(piece.link, words, shop.kit, kind.family, kind.weight, rtl=page.rtl)


def _shown(button: MadeButton, kind: OutsideKind) -> OutsideButton:
    piece = button.piece
    readable = (contrast_on(piece.document, LIGHT), contrast_on(piece.document, DARK))
    picture = _picture(piece.drawing) if kind is OutsideKind.PICTURE and piece.drawing else None
    return OutsideButton(piece.product, button.handed.id, piece.link, piece.text, readable, picture)


def _picture(drawing: ButtonPicture) -> PictureView:
    png = tuple(base64.b64encode(drawing.png(scale)).decode() for scale in _SCALES)
    return PictureView(drawing.svg, png, drawing.width, drawing.height)
