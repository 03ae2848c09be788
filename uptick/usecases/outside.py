"""Buttons for pages and mails that are not the shop's: their code, their pictures, and what became of them."""

import base64
import hashlib
from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import datetime

from uptick.core.button.document import ButtonDocument, Device, Moment, Placement, SecondButton, Situation
from uptick.core.button.lengths import Ground
from uptick.core.drawing.boxes import lay_out
from uptick.core.engine.snapshot import Snapshot
from uptick.core.errors import NotFound, OutOfRange
from uptick.core.fitting.fill import live_values, template_of, text_for
from uptick.core.outside.handed import Handed, Order, OutsideKind, link_of, require_basket, require_page
from uptick.core.outside.html import (
    GAP_PX,
    MAIL_PX,
    Page,
    Piece,
    alone_on_page,
    form_button,
    left_out_of_mail,
    mail_button,
    mail_sheet,
    picture_button,
    web_button,
    web_sheet,
)
from uptick.core.outside.picture import ButtonPicture, alone, draw_picture
from uptick.core.outside.printed import PrintedCode, printed_code, printed_sheet
from uptick.core.outside.variants import contrast_on, drawn_as
from uptick.core.resolved.classes import LEADING, class_for, context_of
from uptick.core.resolved.reach_words import listed
from uptick.core.rules.places import OUTSIDE_PX
from uptick.core.shop.catalogue import Product
from uptick.core.shop.connection import FormPost
from uptick.core.words.wording import is_rtl, live_names, parse_text
from uptick.usecases.ports import HandedOut, Person, Shop
from uptick.usecases.state import language_of

# The two grounds on which code is shown: a white page, and one that is nearly black.
LIGHT, DARK = "#ffffff", "#14181c"
_SCALES = (1, 2, 3)
# WCAG 2.2, 1.4.3.
_READABLE = 4.5
_TOLD_AT_MOST = 40


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


@dataclass(frozen=True, slots=True)
class _Made:
    """`too_wide_px` is by how much it stands out of its column, and `drawn_px` how wide it is."""

    piece: Piece
    handed: Handed
    looks: str
    too_wide_px: float
    drawn_px: float


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
    made = [_make(shop, snapshot, order, sku, page) for sku in dict.fromkeys(order.products)]
    if order.kind is OutsideKind.PICTURE:
        made = [_with_pictures(shop, one, edge) for one in made]
    shop.outside.put([_handed_out(one, order.across, person, now, copied=copied) for one in made])
    code, shown = _code(shop, order, made, page)
    return OutsideCode(
        order.kind,
        code,
        shown,
        tuple(_button(one, order.kind) for one in made),
        tuple(_notes(shop, order, made)),
        language,
    )


def _make(shop: Shop, snapshot: Snapshot, order: Order, sku: str, page: Page) -> _Made:
    product = snapshot.goods.product(sku)
    if product is None:
        raise NotFound(f"No product has the code {sku!r}.", product=sku)
    require_page(shop.store, product)
    if order.kind is OutsideKind.FORM or order.leads == "basket":
        require_basket(shop.store.connection, product, order.kind)
    handed = Handed(sku, order.kind, order.drawn, order.campaign, page.language, order.leads)
    document = outside_document(snapshot, product, order, page.language)
    text = text_for(document, _moment(product, order.kind), page.language, product, 1, shop.store.language)
    spoken = document.spoken.get(page.language, "") or text
    ground = _ground(order)
    words = spoken if document.is_wordless else text
    drawing = None
    if order.kind is OutsideKind.PICTURE:
        drawing = draw_picture(document, words, shop.kit, ground, rtl=page.rtl, language=page.language)
    values = live_values(product, page.language, 1)
    picture = product.picture and (product.picture if "://" in product.picture else shop.store.origin + product.picture)
    # A picture of another origin is the shop's own affair; an address without a scheme is none at all.
    picture = picture if picture.startswith(("https://", "http://")) else ""
    link = link_of(page.edge, shop.store.key, handed.id)
    piece = Piece(product, document, text, spoken, link, values.get("price", ""), picture, ground, drawing)
    # What it looks like as HTML, without where it leads.
    looks = hashlib.sha256(web_button(replace(piece, link=""), page).encode()).hexdigest()[:16]
    drawn = lay_out(alone(document), words, shop.kit, ground, rtl=page.rtl, language=page.language)
    return _Made(piece, handed, looks, drawn.too_wide_px, drawn.outer.width)


def _moment(product: Product, kind: OutsideKind) -> Moment:
    """Return the moment whose words a button says: a form asks for the choice itself."""
    return (
        Moment.READY
        if kind is OutsideKind.FORM and product.situation is Situation.CHOICE
        else LEADING[product.situation]
    )


def outside_document(snapshot: Snapshot, product: Product, order: Order, language: str) -> ButtonDocument:
    """Return a product's button as its layer for outside and the exceptions make it."""
    device = Device.PHONE if order.across > 1 else Device.DESKTOP
    context = context_of(Placement.OUTSIDE, product, device=device, language=language)
    return drawn_as(class_for(snapshot, context).document, order.drawn)


def _ground(order: Order) -> Ground:
    """Return the room of one column."""
    wide = OUTSIDE_PX[Device.DESKTOP] if order.across == 1 else (MAIL_PX - GAP_PX * (order.across - 1)) / order.across
    return Ground(min(wide, MAIL_PX), 600)


def _with_pictures(shop: Shop, one: _Made, edge: str) -> _Made:
    """Keep a button's pictures where the edge serves them, each for ever under the hash of its content."""
    drawing = one.piece.drawing
    assert drawing
    addresses = []
    for scale in _SCALES:
        content = drawing.png(scale)
        digest = hashlib.sha256(content).hexdigest()[:16]
        shop.outside.put_picture(digest, "image/png", content)
        addresses.append((scale, f"{edge}/pictures/{digest}"))
    return replace(one, piece=replace(one.piece, picture_at=tuple(addresses)))


def _handed_out(one: _Made, across: int, person: Person, now: datetime, *, copied: bool) -> HandedOut:
    return HandedOut(one.handed, across, one.piece.text, one.looks, person.name, now, now if copied else None)


def _code(shop: Shop, order: Order, made: Sequence[_Made], page: Page) -> tuple[str, str]:
    """Return code to copy, and the HTML in which it is seen: the studio loads no pictures of shops."""
    pieces = [one.piece for one in made]
    if order.kind is OutsideKind.LINK:
        rows = "".join(f'<p><a href="{piece.link}">{piece.link}</a></p>' for piece in pieces)
        return "\n".join(piece.link for piece in pieces), rows
    if order.kind is OutsideKind.PRINT:
        codes = [_printed(shop, piece, page) for piece in pieces]
        sheet = codes[0] if len(codes) == 1 else printed_sheet(codes, order.across)
        return sheet.svg, sheet.svg
    return _html(shop, order, pieces, page), _html(shop, order, [_without_pictures(one) for one in pieces], page)


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


def _button(one: _Made, kind: OutsideKind) -> OutsideButton:
    piece = one.piece
    readable = (contrast_on(piece.document, LIGHT), contrast_on(piece.document, DARK))
    picture = _picture(piece.drawing) if kind is OutsideKind.PICTURE and piece.drawing else None
    return OutsideButton(piece.product, one.handed.id, piece.link, piece.text, readable, picture)


def _picture(drawing: ButtonPicture) -> PictureView:
    png = tuple(base64.b64encode(drawing.png(scale)).decode() for scale in _SCALES)
    return PictureView(drawing.svg, png, drawing.width, drawing.height)


def _notes(shop: Shop, order: Order, made: Sequence[_Made]) -> list[str]:
    """Return what a designer should know of this code, in sentences."""
    found = []
    documents = [one.piece.document for one in made]
    if order.kind not in {OutsideKind.LINK, OutsideKind.PRINT}:
        dark = min(contrast_on(document, DARK) for document in documents)
        light = min(contrast_on(document, LIGHT) for document in documents)
        for worst, ground in ((light, "a light"), (dark, "a dark")):
            if worst < _READABLE:
                found.append(f"On {ground} page its words have {worst:.1f}:1; to be read they need {_READABLE}:1.")
        found += _too_wide(order, made)
    left = list(dict.fromkeys(part for document in documents for part in left_out_of_mail(document)))
    if left and order.kind is OutsideKind.MAIL:
        found.append(f"Many mail programs do not draw {listed(left, 'or')}; what they draw reads as well without.")
    if order.kind in {OutsideKind.MAIL, OutsideKind.WEB, OutsideKind.FORM}:
        found.append("Where the typeface is not there, the next one of the list is taken, and the width is another.")
    if order.kind in {OutsideKind.WEB, OutsideKind.FORM}:
        found.append("What comes on hovering and pressing needs a style sheet, so it is not in this code.")
    if order.kind is OutsideKind.FORM and isinstance(shop.store.connection, FormPost):
        # RFC 6265bis, SameSite: what another site posts comes without the shop's cookie.
        found.append("Most browsers keep the shop’s cookie from a form elsewhere: a shopper’s basket may begin anew.")
    if any(isinstance(document.second, SecondButton) for document in documents):
        found.append(
            "The button straight to the checkout stays away: a link does one thing, and fills no basket first."
        )
    if order.kind is not OutsideKind.PRINT and (dated := _dated(shop, made)):
        found.append(f"{dated} as it is today, and does not follow.")
    if sold := [one.piece.product.name for one in made if one.piece.product.situation is Situation.SOLD_OUT]:
        found.append(f"{listed(sold[:3])} {'is' if len(sold) == 1 else 'are'} sold out: the button says so.")
    return found


def _too_wide(order: Order, made: Sequence[_Made]) -> list[str]:
    """Return which buttons do not fit their columns, by how much, and with how many in a row they would."""
    over = [one for one in made if one.too_wide_px]
    if not over:
        return []
    worst = max(over, key=lambda one: one.too_wide_px)
    room = worst.piece.ground.container_px
    fits = next((n for n in range(order.across, 0, -1) if (MAIL_PX - GAP_PX * (n - 1)) / n >= worst.drawn_px), 0)
    mend = f"With {fits} in a row it fits." if fits and fits < order.across else "Say it shorter."
    others = f" So are {len(over) - 1} more." if len(over) > 1 else ""
    said = f"“{worst.piece.text}” is too wide by {worst.too_wide_px:.0f} px for a column of {room:.0f}. {mend}"
    return [said + others]


def _dated(shop: Shop, made: Sequence[_Made]) -> str:
    """Return what of a code grows old: values that its words or its sheet hold."""
    first = shop.store.language
    names: dict[str, None] = {}
    for one in made:
        piece = one.piece
        text = template_of(piece.document, _moment(piece.product, one.handed.kind), one.handed.language, first)
        names |= dict.fromkeys(sorted(live_names(parse_text(text)) - {"name", "code", "page"}))
    if (
        len(made) > 1
        and any(one.piece.price for one in made)
        and one.handed.kind in {OutsideKind.WEB, OutsideKind.MAIL}
    ):
        names["price"] = None
    return f"The code holds the {listed(names)}" if names else ""


@dataclass(frozen=True, slots=True)
class HandedOutView:
    """A button that was handed out, as it stands today. `differs` says how it looks otherwise than the draft's now."""

    id: str
    sku: str
    product: str
    kind: OutsideKind
    drawn: str
    campaign: str
    language: str
    leads: str
    words: str
    link: str
    author: str
    copied_at: datetime | None
    presses: int
    differs: str


@dataclass(frozen=True, slots=True)
class PressesBy:
    """Presses by kind of code and campaign."""

    kind: OutsideKind
    campaign: str
    buttons: int
    presses: int


@dataclass(frozen=True, slots=True)
class OutsideView:
    """All that was handed out, the newest first; `count` is how many there are, of which the first are told."""

    handed_out: tuple[HandedOutView, ...]
    count: int
    differing: int
    by: tuple[PressesBy, ...]


def view_outside(shop: Shop, edge: str) -> OutsideView:
    """Return what was handed out, how often it was pressed, and what looks otherwise than the shop's buttons now."""
    snapshot = shop.now()
    all_ = shop.outside.all()
    seen = [_view(shop, snapshot, one, edge) for one in all_]
    totals: dict[tuple[OutsideKind, str], list[int]] = {}
    for one in all_:
        counts = totals.setdefault((one.of.kind, one.of.campaign), [0, 0])
        counts[0] += 1
        counts[1] += one.presses
    by = [PressesBy(kind, campaign, *counts) for (kind, campaign), counts in totals.items()]
    return OutsideView(
        # Those that differ are what a release is about, so they come first.
        tuple(sorted(seen, key=lambda one: not one.differs)[:_TOLD_AT_MOST]),
        len(seen),
        sum(bool(one.differs) for one in seen),
        tuple(sorted(by, key=lambda one: -one.presses)),
    )


def _view(shop: Shop, snapshot: Snapshot, one: HandedOut, edge: str) -> HandedOutView:
    product = snapshot.goods.product(one.of.sku)
    return HandedOutView(
        one.of.id, one.of.sku, product.name if product else "", one.of.kind, one.of.drawn, one.of.campaign,
        one.of.language, one.of.leads, one.words, link_of(edge, shop.store.key, one.of.id), one.author,
        one.copied_at, one.presses, _difference(shop, snapshot, one, product) if one.copied_at else "",
    )  # fmt: skip


def _difference(shop: Shop, snapshot: Snapshot, one: HandedOut, product: Product | None) -> str:
    """Return in words how a button that was handed out differs from today's; empty where it does not."""
    if product is None:
        return "The product is gone: its link says so."
    if one.of.kind is OutsideKind.LINK:
        return ""
    if one.of.language not in snapshot.settings.languages:
        return "The buttons no longer speak its language."
    order = Order(products=(one.of.sku,), kind=one.of.kind, drawn=one.of.drawn, across=one.across)
    page = Page(shop.kit, "", one.of.language, is_rtl(one.of.language))
    try:
        now = _make(shop, snapshot, order, one.of.sku, page)
    except OutOfRange as error:
        return str(error)
    if now.looks == one.looks:
        return ""
    if now.piece.text != one.words:
        return f"It says “{one.words}”, the shop says “{now.piece.text}”."
    return "It is drawn otherwise than the shop’s."
