"""One button for pages that are not the shop's, as the draft draws it."""

import hashlib
from dataclasses import dataclass, replace

from uptick.core.button.document import ButtonDocument, Device, Moment, Placement, Situation
from uptick.core.button.lengths import Ground
from uptick.core.drawing.boxes import lay_out
from uptick.core.engine.snapshot import Snapshot
from uptick.core.errors import NotFound
from uptick.core.fitting.fill import live_values, text_for
from uptick.core.outside.handed import Handed, Order, OutsideKind, link_of, require_basket, require_page
from uptick.core.outside.html import GAP_PX, MAIL_PX, Page, Piece, web_button
from uptick.core.outside.picture import alone, draw_picture
from uptick.core.outside.variants import drawn_as
from uptick.core.resolved.classes import LEADING, class_for, context_of
from uptick.core.rules.places import OUTSIDE_PX
from uptick.core.shop.catalogue import Product
from uptick.usecases.ports import Shop


@dataclass(frozen=True, slots=True)
class MadeButton:
    """One button.

    Attributes:
        looks: A hash of how it is drawn, without where it leads.
        too_wide_px: By how much it stands out of its column.
        drawn_px: How wide it is.
    """

    piece: Piece
    handed: Handed
    looks: str
    too_wide_px: float
    drawn_px: float


def make_button(shop: Shop, snapshot: Snapshot, order: Order, sku: str, page: Page) -> MadeButton:
    """Return a product's button for a page or a mail, with its code and what it leads to.

    Raises:
        NotFound: No product has the code.
    """
    product = snapshot.goods.product(sku)
    if product is None:
        raise NotFound(f"No product has the code {sku!r}.", product=sku)
    require_page(shop.store, product)
    if order.kind is OutsideKind.FORM or order.leads == "basket":
        require_basket(shop.store.connection, product, order.kind)
    handed = Handed(sku, order.kind, order.drawn, order.campaign, page.language, order.leads)
    document = outside_document(snapshot, product, order, page.language)
    text = text_for(document, moment_of(product, order.kind), page.language, product, 1, shop.store.language)
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
    return MadeButton(piece, handed, looks, drawn.too_wide_px, drawn.outer.width)


def moment_of(product: Product, kind: OutsideKind) -> Moment:
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
