"""Place: the buttons of one page along its whole scroll, on every device that was measured."""

from collections.abc import Mapping
from dataclasses import dataclass

from uptick.core.button.bar import Bar
from uptick.core.button.document import Device, Placement, ShopperKind
from uptick.core.engine.snapshot import Snapshot
from uptick.core.resolved.classes import class_for, context_of
from uptick.core.rules.settings import Settings
from uptick.core.scroll import Along, PageSurvey, ScrollFinding, along, check_along
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
        product: The page's product; without one no bar stands.
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
    bar = bar_for(snapshot, product, device, language) if product else None
    seen = along(survey, bar)
    return AlongDevice(device, seen, tuple(check_along(survey, bar, device, seen)))


def bar_for(snapshot: Snapshot, product: Product, device: Device, language: str) -> Bar | None:
    """Return the bar that a new shopper meets on a product's page; None where none stands."""
    if Placement.STICKY_BAR not in snapshot.store.surfaces:
        return None
    context = context_of(Placement.STICKY_BAR, product, None, device, language, ShopperKind.NEW)
    document = class_for(snapshot, context).document
    return document.bar if document.placement.shown else None
