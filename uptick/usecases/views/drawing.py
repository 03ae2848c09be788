"""Draw: one button, dimensioned."""

from collections.abc import Sequence
from dataclasses import dataclass

from uptick.core.boxes import Drawing, lay_out
from uptick.core.catalogue import Product
from uptick.core.checks import Finding, findings_of
from uptick.core.classes import LEADING, ButtonClass, class_for, classes_of, context_of
from uptick.core.compile import CompiledButton, compile_button
from uptick.core.document import Device, Moment, Placement, ShopperKind
from uptick.core.errors import NotFound
from uptick.core.fill import text_for
from uptick.core.merge import Json, leaves, without_gaps
from uptick.core.settings import Settings
from uptick.core.wording import is_rtl
from uptick.usecases.edit import layer_title
from uptick.usecases.ports import Shop
from uptick.usecases.state import DraftState, Shown, draft_state, in_force, language_of, product_of, show


@dataclass(frozen=True, slots=True)
class MomentShown:
    moment: Moment
    text: str
    drawing: Drawing


@dataclass(frozen=True, slots=True)
class Hanging:
    """A placement as it hangs under the rule in Draw."""

    placement: Placement
    shown: Shown
    must_fix: int
    look_again: int


@dataclass(frozen=True, slots=True)
class LayerHere:
    """A layer that holds here and can take the edits, with its own values."""

    layer: str
    title: str
    own: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class DrawView:
    """One button, drawn. `layer` takes the edits; `own` are the fields that it sets itself; `layers` could, too."""

    draft: DraftState
    placement: Placement
    device: Device
    language: str
    rtl: bool
    product: Product
    layer: str
    layer_title: str
    own: tuple[str, ...]
    layers: tuple[LayerHere, ...]
    document: Json
    button: CompiledButton
    drawing: Drawing
    moment: Moment
    text: str
    moments: tuple[MomentShown, ...]
    findings: tuple[Finding, ...]
    hanging: tuple[Hanging, ...]


@dataclass(frozen=True, slots=True)
class DrawQuery:
    """Which button is drawn: for which product, on which device, in which language, edited in which layer."""

    placement: Placement
    product: str | None = None
    device: Device | None = None
    language: str | None = None
    layer: str | None = None


def view_drawing(shop: Shop, query: DrawQuery) -> DrawView:
    """Return a button as a dimensioned drawing, for one product, in the container of one device.

    Raises:
        NotFound: The shop has no such placement, product or layer there.
        OutOfRange: The buttons do not speak the language.
    """
    if query.placement not in shop.store.surfaces:
        raise NotFound(f"The shop's pages have no {query.placement.replace('_', ' ')}.", placement=query.placement)
    draft = shop.drafts.read()
    settings = in_force(shop, draft)
    products = shop.catalogue.all()
    product = product_of(products, query.product)
    surface = shop.store.surfaces[query.placement]
    device = query.device or surface.narrowest()[0]
    language = language_of(settings, query.language)
    classes = classes_of(settings, products)
    one = class_for(classes, settings, context_of(query.placement, product, None, device, language, ShopperKind.NEW))
    findings = findings_of(settings, products, shop.store, shop.kit)
    ground = shop.store.ground(query.placement, device)
    first = shop.store.language
    rtl = is_rtl(language)

    def drawn(moment: Moment) -> MomentShown:
        text = text_for(one.document, moment, language, product, 2, first)
        drawing = lay_out(one.document, text, shop.kit, ground, rtl=rtl, language=language)
        return MomentShown(moment, text, drawing)

    moments = tuple(drawn(moment) for moment in Moment)
    leading = next(m for m in moments if m.moment is LEADING[product.situation])
    layers = _layers(settings, one)
    editing = _editing(layers, query.layer or one.top_layer)
    return DrawView(
        draft=draft_state(shop, draft),
        placement=query.placement,
        device=device,
        language=language,
        rtl=rtl,
        product=product,
        layer=editing.layer,
        layer_title=editing.title,
        own=editing.own,
        layers=layers,
        document=one.document.model_dump(mode="json"),
        button=compile_button(one.document, shop.kit, ground),
        drawing=leading.drawing,
        moment=leading.moment,
        text=leading.text,
        moments=moments,
        findings=tuple(f for f in findings if f.is_about(one)),
        hanging=tuple(
            _hanging(shop, settings, classes, context_place, product, device, language, findings)
            for context_place in shop.store.places
        ),
    )


def _layers(settings: Settings, one: ButtonClass) -> tuple[LayerHere, ...]:
    ids = ("baseline", f"place:{one.placement}", *(f"exception:{rule}" for rule in one.rules))
    return tuple(
        LayerHere(
            layer,
            layer_title(settings, layer),
            tuple(path for path, _ in leaves(without_gaps(settings.layer(layer) or {}))),
        )
        for layer in ids
    )


def _editing(layers: Sequence[LayerHere], layer: str) -> LayerHere:
    found = next((one for one in layers if one.layer == layer), None)
    if found is None:
        raise NotFound(f"The layer {layer!r} does not hold for this button.", layer=layer)
    return found


def _hanging(
    shop: Shop,
    settings: Settings,
    classes: Sequence[ButtonClass],
    place: Placement,
    product: Product,
    device: Device,
    language: str,
    findings: Sequence[Finding],
) -> Hanging:
    one = class_for(classes, settings, context_of(place, product, None, device, language, ShopperKind.NEW))
    here = [f.weight.value for f in findings if any(spot.placement is place for spot in f.buttons)]
    shown = show(shop, one, LEADING[product.situation], product, language, device=device)
    return Hanging(place, shown, here.count("must_fix"), here.count("look_again"))
