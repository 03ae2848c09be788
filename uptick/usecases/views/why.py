"""Why a value holds somewhere, with how real products fill it where it is a text."""

from dataclasses import dataclass

from uptick.core.button.document import Device, Moment, Placement, ShopperKind
from uptick.core.button.field_words import value_text
from uptick.core.button.fields import field_title
from uptick.core.drawing.boxes import lay_out
from uptick.core.errors import OutOfRange
from uptick.core.resolved.classes import MOMENTS_OF, ButtonClass, class_for, context_of
from uptick.core.resolved.reach_words import say_reach, vocabulary_of
from uptick.core.resolved.resolve import Candidate, trace
from uptick.core.shop.catalogue import Product
from uptick.core.words.wording import is_rtl
from uptick.usecases.ports import Shop
from uptick.usecases.state import Shown, language_of, product_of, show


@dataclass(frozen=True, slots=True)
class Filled:
    """A text as one product fills it."""

    product: Product
    shown: Shown
    width_px: float
    room_px: float


@dataclass(frozen=True, slots=True)
class WhyLine:
    """A candidate in words: the winner first, then what it beat, then what sleeps."""

    of: Candidate
    value_words: str
    reach_words: str
    exception: str


@dataclass(frozen=True, slots=True)
class TraceView:
    """Why a value holds for a product in a place."""

    field: str
    field_words: str
    product: Product
    device: Device
    language: str
    shopper: ShopperKind
    layer: str
    lines: tuple[WhyLine, ...]
    filled: tuple[Filled, ...]


@dataclass(frozen=True, slots=True)
class TraceQuery:
    """The context of a trace; `exception` picks a product that it covers where none is named."""

    placement: Placement
    field: str
    product: str | None = None
    device: Device | None = None
    language: str | None = None
    shopper: ShopperKind = ShopperKind.NEW
    exception: str = ""


def view_trace(shop: Shop, query: TraceQuery, *, with_products: bool = True) -> TraceView:
    """Return every layer that sets a field here, the winner first, and those that sleep."""
    draft = shop.drafts.read()
    snapshot = shop.at(draft.settings)
    settings = snapshot.settings
    product = product_of(snapshot, query.product)
    language = language_of(settings, query.language)
    surface = shop.store.surfaces.get(query.placement)
    device = query.device or (surface.narrowest()[0] if surface else Device.PHONE)
    rule = settings.exception(query.exception)
    if rule and not query.product:
        reach = rule.reach
        product = next((p for p in snapshot.products if reach.covers_product(p.sku, p.category)), product)
        device = device if not reach.devices or device in reach.devices else reach.devices[0]
    situation = rule.reach.situations[0] if rule and rule.reach.situations else None
    context = context_of(query.placement, product, situation, device, language, query.shopper)
    sleeping = {r.id: why for r in draft.settings.exceptions if (why := r.inactive(shop.today))}
    names = vocabulary_of(snapshot)
    candidates = trace(snapshot, context, query.field, sleeping=sleeping)
    button = class_for(snapshot, context) if with_products else None
    filled: tuple[Filled, ...] = ()
    if button and query.field.startswith("wording."):
        filled = _filled(shop, button, _moment_of(query.field), device, language)
    lines = tuple(
        WhyLine(
            candidate,
            value_text(candidate.value),
            say_reach(candidate.reach, names) if candidate.reach else "",
            candidate.layer.name if candidate.layer.kind == "exception" else "",
        )
        for candidate in candidates
    )
    layer = button.top_layer if button else ""
    return TraceView(
        query.field, field_title(query.field), product, device, language, query.shopper, layer, lines, filled
    )


def _moment_of(field: str) -> Moment:
    """Return the moment of a text's path.

    Raises:
        OutOfRange: There is no such moment.
    """
    moment = field.split(".")[1]
    if moment not in set(Moment):
        raise OutOfRange.of("field", f"wording. and one of {', '.join(Moment)}", field)
    return Moment(moment)


def _filled(shop: Shop, button: ButtonClass, moment: Moment, device: Device, language: str) -> tuple[Filled, ...]:
    """Return how the longest, the shortest and two between them fill a text; of a large class its first products."""
    ground = shop.store.ground(button.placement, device)
    able = [batch for batch in button.batches if moment in MOMENTS_OF[batch.situation]] or list(button.batches)
    filled = []
    for product in (p for batch in able for p in batch.some(40)):
        shown = show(shop, button, moment, product, language)
        drawn = lay_out(button.document, shown.text, shop.kit, ground, rtl=is_rtl(language), language=language)
        filled.append(Filled(product, shown, drawn.needs_width_px, drawn.container_px))
    distinct = list({f.shown.text: f for f in filled}.values())
    distinct.sort(key=lambda f: -f.width_px)
    if len(distinct) <= 4:
        return tuple(distinct)
    last = len(distinct) - 1
    return tuple(distinct[i] for i in sorted({0, last // 3, 2 * last // 3, last}))
