"""What was handed out: how often it was pressed, and whether it still looks as the shop's buttons do."""

from dataclasses import dataclass
from datetime import datetime

from uptick.core.engine.snapshot import Snapshot
from uptick.core.errors import OutOfRange
from uptick.core.outside.handed import Order, OutsideKind, link_of
from uptick.core.outside.html import Page
from uptick.core.shop.catalogue import Product
from uptick.core.words.wording import is_rtl
from uptick.usecases.outside.make import make_button
from uptick.usecases.ports import HandedOut, Shop

_TOLD_AT_MOST = 40


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
    seen = [_view(shop, snapshot, handed, edge) for handed in all_]
    totals: dict[tuple[OutsideKind, str], list[int]] = {}
    for handed in all_:
        counts = totals.setdefault((handed.of.kind, handed.of.campaign), [0, 0])
        counts[0] += 1
        counts[1] += handed.presses
    by = [PressesBy(kind, campaign, *counts) for (kind, campaign), counts in totals.items()]
    return OutsideView(
        # Those that differ are what a release is about, so they come first.
        tuple(sorted(seen, key=lambda view: not view.differs)[:_TOLD_AT_MOST]),
        len(seen),
        sum(bool(view.differs) for view in seen),
        tuple(sorted(by, key=lambda group: -group.presses)),
    )


def _view(shop: Shop, snapshot: Snapshot, handed: HandedOut, edge: str) -> HandedOutView:
    product = snapshot.goods.product(handed.of.sku)
    of = handed.of
    return HandedOutView(
        of.id, of.sku, product.name if product else "", of.kind, of.drawn, of.campaign, of.language, of.leads,
        handed.words, link_of(edge, shop.store.key, of.id), handed.author, handed.copied_at, handed.presses,
        _difference(shop, snapshot, handed, product) if handed.copied_at else "",
    )  # fmt: skip


def _difference(shop: Shop, snapshot: Snapshot, handed: HandedOut, product: Product | None) -> str:
    """Return in words how a button that was handed out differs from today's; empty where it does not."""
    if product is None:
        return "The product is gone: its link says so."
    if handed.of.kind is OutsideKind.LINK:
        return ""
    if handed.of.language not in snapshot.settings.languages:
        return "The buttons no longer speak its language."
    order = Order(products=(handed.of.sku,), kind=handed.of.kind, drawn=handed.of.drawn, across=handed.across)
    page = Page(shop.kit, "", handed.of.language, is_rtl(handed.of.language))
    try:
        now = make_button(shop, snapshot, order, handed.of.sku, page)
    except OutOfRange as error:
        return str(error)
    if now.looks == handed.looks:
        return ""
    if now.piece.text != handed.words:
        return f"It says “{handed.words}”, the shop says “{now.piece.text}”."
    return "It is drawn otherwise than the shop’s."
