"""Place: the buttons of one page along its whole scroll, on every device that was measured."""

from collections.abc import Mapping
from dataclasses import dataclass

from uptick.core.button.document import ButtonDocument, Device, Placement, ShopperKind
from uptick.core.button.over import Over
from uptick.core.checks.finding import Weight
from uptick.core.engine.snapshot import Snapshot
from uptick.core.resolved.classes import class_for, context_of, opens_message
from uptick.core.rules.places import FIXES
from uptick.core.rules.settings import Settings
from uptick.core.scroll import Along, Hung, PageSurvey, ScrollFinding, along, check_along, check_pictures, check_rows
from uptick.core.scroll.survey import SeenPlace
from uptick.core.shop.catalogue import Product
from uptick.usecases.ports import Shop
from uptick.usecases.state import language_of, product_of


@dataclass(frozen=True, slots=True)
class AlongDevice:
    """One page in one window: what is seen along it, and what is wrong there."""

    device: Device
    along: Along
    findings: tuple[ScrollFinding, ...]


@dataclass(frozen=True, slots=True)
class AlongView:
    """A page on every device that was measured."""

    devices: tuple[AlongDevice, ...]


def view_along(
    shop: Shop,
    surveys: Mapping[Device, PageSurvey],
    product: str | None,
    language: str | None,
    tried: Settings | None = None,
) -> AlongView:
    """Return what is seen of the buttons of a page along its scroll.

    Args:
        product: The page's product; without one only what stands for a product of its own hangs.
        tried: Settings with an edit that is not kept.

    Raises:
        NotFound: The shop has no such product.
        OutOfRange: The buttons do not speak the language.
    """
    snapshot = shop.at(tried or shop.drafts.read().settings)
    spoken = language_of(snapshot.settings, language)
    about = product_of(snapshot, product) if product else None
    return AlongView(
        tuple(_on_device(snapshot, survey, device, about, spoken) for device, survey in sorted(surveys.items()))
    )


def _on_device(
    snapshot: Snapshot, survey: PageSurvey, device: Device, product: Product | None, language: str
) -> AlongDevice:
    hung = hung_for(snapshot, product, device, language)
    seen = along(survey, hung)

    def on_picture(place: SeenPlace) -> tuple[ButtonDocument, str] | None:
        goods_product = snapshot.goods.product(place.product) if place.product else product
        standing = _standing(snapshot, place.placement, goods_product, device, language) if goods_product else None
        if standing is None or goods_product is None:
            return None
        spot = _on_tile(snapshot.settings, goods_product.sku) if place.placement is not Placement.OVER_PICTURE else None
        return (standing.model_copy(update={"over": spot}) if spot else standing), goods_product.name

    findings = [
        *check_along(survey, hung, device, seen),
        *check_pictures(survey, on_picture, device),
        *check_rows(survey, device),
    ]
    order = list(Weight)
    return AlongDevice(device, seen, tuple(sorted(findings, key=lambda finding: order.index(finding.weight))))


def _on_tile(settings: Settings, sku: str) -> Over | None:
    """Return where the button of a tile lies on its picture, as the first row that shows the product says it."""
    rows = [place.row for place in settings.pointed.values() if place.row and place.row.anchor]
    shown = [row for row in rows if any(tile.sku == sku for tile in row.products)]
    row = next(iter((*shown, *rows)), None)
    return Over(anchor=row.anchor, across=row.inset_px, down=row.inset_px) if row and row.anchor else None


def hung_for(snapshot: Snapshot, product: Product | None, device: Device, language: str) -> Hung:
    """Return what hangs at the window for a new shopper on a product's page, or on one that is of none."""
    standing = {place: _hanging(snapshot, place, product, device, language) for place in FIXES}
    bar, floating = (standing[place] for place in FIXES)
    fixed = frozenset(place for place, document in standing.items() if document and document.placement.product)
    asking = frozenset(place for place, document in standing.items() if document and opens_message(document))
    return Hung(bar.bar if bar else None, floating.floating if floating else None, fixed, asking)


def _hanging(
    snapshot: Snapshot, placement: Placement, product: Product | None, device: Device, language: str
) -> ButtonDocument | None:
    if placement not in snapshot.store.surfaces:
        return None
    # It may stand for one product, whichever page it is on.
    fixed = snapshot.at(placement).document(0).placement.product
    product = (snapshot.goods.product(fixed) if fixed else None) or product
    return _standing(snapshot, placement, product, device, language) if product else None


def _standing(
    snapshot: Snapshot, placement: Placement, product: Product, device: Device, language: str
) -> ButtonDocument | None:
    """Return the button that a new shopper meets; None where none stands."""
    if placement not in snapshot.store.surfaces:
        return None
    context = context_of(placement, product, None, device, language, ShopperKind.NEW)
    document = class_for(snapshot, context).document
    return document if document.placement.shown else None
