"""Where a placement stands: for how many products, what hides it for the others, and pages to step through."""

from collections.abc import Sequence
from dataclasses import dataclass

from uptick.core.button.document import Device, Placement, ShopperKind, Situation
from uptick.core.button.layer_ref import LayerRef
from uptick.core.button.merge import at_path
from uptick.core.button.on_pages import OnPages, PageKind
from uptick.core.engine.goods import Batch
from uptick.core.engine.snapshot import Snapshot
from uptick.core.errors import NotFound
from uptick.core.resolved.classes import ButtonClass, bare_class
from uptick.core.resolved.reach_words import placement_words
from uptick.core.shop.catalogue import Product
from uptick.usecases.connect import page_of
from uptick.usecases.page_checks import has_page
from uptick.usecases.pointing import PageToLookAt, pages_to_look_at
from uptick.usecases.ports import Shop
from uptick.usecases.state import language_of

# More than this nobody steps through.
MOST_PAGES = 60


@dataclass(frozen=True, slots=True)
class HiddenBy:
    """An exception that takes a placement away, and for how many products; the placement's own layer has no id."""

    id: str
    name: str
    products: int


@dataclass(frozen=True, slots=True)
class StandingView:
    """For a new shopper on one device: the products for which a placement stands, and those that have a page."""

    stands: int
    of: int
    hidden: tuple[HiddenBy, ...]
    pages: tuple[PageToLookAt, ...]


def view_standing(shop: Shop, placement: Placement, device: Device, language: str | None) -> StandingView:
    """Return where a placement stands in the draft.

    The cost grows with the kinds of products that exceptions tell apart, not with the products.

    Raises:
        NotFound: The shop has no such placement.
        OutOfRange: The buttons do not speak the language.
    """
    if placement not in shop.store.places:
        raise NotFound(f"The shop has no place on {placement_words(placement)}.", placement=placement)
    snapshot = shop.now()
    spoken = language_of(snapshot.settings, language)
    shown: list[Batch] = []
    hidden: dict[str, int] = {}
    for situation in Situation:
        where = snapshot.index.of_place(placement, situation, device, spoken, ShopperKind.NEW)
        for group in snapshot.cover.groups_at(placement):
            batches = group.of(situation)
            if not batches:
                continue
            button = bare_class(snapshot, placement, group.bits[0] & where)
            if button.document.placement.shown:
                shown += batches
            else:
                rule = _hiding(snapshot, button)
                hidden[rule] = hidden.get(rule, 0) + sum(map(len, batches))
    names = {rule.id: rule.name for rule in snapshot.settings.exceptions}
    hidings = (HiddenBy(rule, names.get(rule, ""), count) for rule, count in hidden.items())
    stands = sum(map(len, shown))
    own = snapshot.at(placement).document(0).placement
    return StandingView(
        stands,
        stands + sum(hidden.values()),
        tuple(sorted(hidings, key=lambda effect: -effect.products)),
        tuple(_meant(shop, own.pages) if own.product else _pages(shop, shown)),
    )


def _hiding(snapshot: Snapshot, button: ButtonClass) -> str:
    """Return the exception that takes a button away; nothing where the placement itself does."""
    for rule in reversed(button.rules):
        shown = at_path(snapshot.layers[LayerRef.exception(rule)].content, "placement.shown")
        if shown is not None:
            return rule
    return ""


def _meant(shop: Shop, pages: OnPages) -> list[PageToLookAt]:
    """Return pages on which something hangs whose product is always the same; what a list tells only its page knows."""

    def may_hang(page: PageToLookAt) -> bool:
        kinds = (PageKind.PRODUCT,) if page.product else (PageKind.LIST, PageKind.OTHER)
        return any(pages.holds_page(kind, page.path) for kind in kinds)

    return [page for page in pages_to_look_at(shop) if may_hang(page)][:MOST_PAGES]


def _pages(shop: Shop, shown: Sequence[Batch]) -> list[PageToLookAt]:
    """Return pages of products, some of each kind before more of any."""
    products: list[Product] = []
    each = max(1, MOST_PAGES // max(1, len(shown)))
    for batch in shown:
        products += batch.some(each)
    able = [product for product in products if product.url and has_page(product, shop.store)]
    return [PageToLookAt(p.name, page_of(p, shop.store), p.sku) for p in able[:MOST_PAGES]]
