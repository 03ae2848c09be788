"""Draw: one button, dimensioned."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from decimal import Decimal
from typing import Literal

from uptick.core.button.box_names import known_names, names_of
from uptick.core.button.document import (
    BoxNames,
    ButtonDocument,
    Device,
    Moment,
    Placement,
    QuantityBox,
    ShopperKind,
    ShowBasket,
    TellWhenBack,
)
from uptick.core.button.look import PictureFill
from uptick.core.button.merge import Json, leaves, without_gaps
from uptick.core.button.message import ToMessage
from uptick.core.checks import Finding, Found, seen_about
from uptick.core.checks.origin import order_of
from uptick.core.colour.colour import needed_ratio, worst_seen
from uptick.core.colour.dress import base_colour, dresses, ring_colour
from uptick.core.colour.fills import colours_in
from uptick.core.drawing.compile import CompiledButton, compile_button
from uptick.core.drawing.drawing import Drawing
from uptick.core.drawing.sheet import closer_words, has_closer, show_words
from uptick.core.engine.layers import USES
from uptick.core.engine.snapshot import Snapshot
from uptick.core.errors import NotFound
from uptick.core.fitting.fill import text_for
from uptick.core.fitting.laid import laid
from uptick.core.fitting.message_text import message_address
from uptick.core.outside.handed import page_address
from uptick.core.resolved.classes import LEADING, ButtonClass, class_for, context_of, opens_message
from uptick.core.rules.settings import Settings
from uptick.core.shop.catalogue import Product
from uptick.core.words.notify_words import NOTIFY_WORDS
from uptick.core.words.wording import is_rtl, money_rule, money_text
from uptick.usecases.edit import changed_settings, layer_title
from uptick.usecases.ports import Shop
from uptick.usecases.state import DraftState, Shown, draft_state, language_of, product_at, product_of, products_of, show


@dataclass(frozen=True, slots=True)
class MomentShown:
    moment: Moment
    text: str
    drawing: Drawing


@dataclass(frozen=True, slots=True)
class HangingPlacement:
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
class StateShown:
    """What a state shows: the words' worst contrast there, and which of its values are derived by rule.

    `fill` is None where the page or a picture is behind the words; a picture has no contrast here.
    """

    state: str
    fill: str | None
    words: str
    contrast: float | None
    derived: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Seen:
    """Where and for whom a button is drawn; `of` are the products that it is shown for where those are chosen."""

    placement: Placement
    device: Device
    language: str
    rtl: bool
    product: Product
    of: tuple[Product, ...]


@dataclass(frozen=True, slots=True)
class Editing:
    """The layer that takes the edits, the fields that it sets itself, the named look that it uses, and other layers."""

    layer: str
    title: str
    own: tuple[str, ...]
    uses: str
    layers: tuple[LayerHere, ...]


@dataclass(frozen=True, slots=True)
class Around:
    """What a button stands in and on, and what is asked of it there.

    `ring` is the colour of its focus ring; `box_names` is what screen readers call a quantity box here, None where
    nobody has said it in this language. Lengths are in CSS pixels.
    """

    page_colour: str
    ring: str
    needed_contrast: float
    window_px: float
    container_px: float
    box_names: BoxNames | None


@dataclass(frozen=True, slots=True)
class Drawn:
    """A button with its boxes, in the moment that the product is in."""

    button: CompiledButton
    drawing: Drawing
    moment: Moment
    text: str


@dataclass(frozen=True, slots=True)
class GoodsShown:
    """A line of a sheet: what it is called, and what it costs."""

    name: str
    price: str


@dataclass(frozen=True, slots=True)
class SheetShown:
    """What a press opens, as it is drawn: a basket, a choice, a closer look or a question, with its words.

    `words` are the first line, what its main button says, and the ways below; `choices` are what can be chosen.
    """

    kind: Literal["basket", "choice", "closer", "question"]
    way: Literal["side", "middle", "card"]
    heading: str
    lines: tuple[GoodsShown, ...]
    free: str
    total_name: str
    total: str
    choice: str
    choices: tuple[str, ...]
    button: str
    ways: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class DrawView:
    """One button, drawn, with all that can be edited of it; `hanging` is the same product's in every placement
    that shows it. `opens` is the address that a press opens for this product, empty where it opens no message.
    `sheets` are what it opens on the page."""

    draft: DraftState
    seen: Seen
    editing: Editing
    document: ButtonDocument
    states: tuple[StateShown, ...]
    around: Around
    shown: Drawn
    moments: tuple[MomentShown, ...]
    findings: tuple[Finding, ...]
    hanging: tuple[HangingPlacement, ...]
    opens: str
    sheets: tuple[SheetShown, ...]


@dataclass(frozen=True, slots=True)
class DrawQuery:
    """Which button is drawn: for which product, on which device, in which language, edited in which layer."""

    placement: Placement
    product: str | None = None
    device: Device | None = None
    language: str | None = None
    layer: str | None = None


def view_drawing(shop: Shop, query: DrawQuery, tried: Settings | None = None) -> DrawView:
    """Return a button as a dimensioned drawing, for one product, in the container of one device.

    With settings that are `tried`, it is drawn as it would be with them; nothing is kept.

    Raises:
        NotFound: The shop has no such placement, product or layer there.
        OutOfRange: The buttons do not speak the language.
    """
    draft = shop.drafts.read()
    snapshot = shop.at(tried or draft.settings)
    # What was tried is asked for again when it is kept.
    view = snapshot.seen(("drawing", query), lambda: _view(shop, query, snapshot))
    return replace(view, draft=draft_state(shop, draft))


_NO_STATE = DraftState(0, "", "", 0, 0)


def _view(shop: Shop, query: DrawQuery, snapshot: Snapshot) -> DrawView:
    seen_button, product, device, language = _class_at(snapshot, query)
    settings = snapshot.settings
    surface = shop.store.surfaces[query.placement]
    wished = product_of(snapshot, query.product)
    hung = {
        place: (class_for(snapshot, context_of(place, its, None, device, language, ShopperKind.NEW)), its)
        for place in shop.store.places
        for its in (product_at(snapshot, place, wished),)
    }
    seen = seen_about(snapshot, tuple(button for button, _ in hung.values()))
    ground = shop.store.ground(query.placement, device)
    box = seen_button.document.quantity
    first = shop.store.language
    rtl = is_rtl(language)

    def drawn(moment: Moment) -> MomentShown:
        text = text_for(seen_button.document, moment, language, product, 2, first)
        drawing = laid(snapshot, seen_button.document, text, ground, language, rtl=rtl)
        return MomentShown(moment, text, drawing)

    asks = opens_message(seen_button.document)
    moments = tuple(drawn(moment) for moment in ((Moment.READY,) if asks else Moment))
    leading = moments[0] if asks else next(m for m in moments if m.moment is LEADING[product.situation])
    layers = _layers(settings, seen_button)
    editing = _editing(layers, query.layer or seen_button.top_layer)
    own = settings.layer(editing.layer) or {}
    kind = seen_button.document.look.type
    return DrawView(
        draft=_NO_STATE,
        seen=Seen(query.placement, device, language, rtl, product, products_of(snapshot, query.placement)),
        editing=Editing(editing.layer, editing.title, editing.own, str(own.get(USES, "")), layers),
        document=seen_button.document,
        states=seen_button.document.bare.derived(_states, surface.page_colour),
        around=Around(
            page_colour=surface.page_colour,
            ring=ring_colour(seen_button.document.look),
            needed_contrast=needed_ratio(kind.size_px, kind.weight),
            window_px=ground.window_px,
            container_px=ground.container_px,
            box_names=names_of(box, language) if isinstance(box, QuantityBox) else known_names(language),
        ),
        shown=Drawn(
            compile_button(seen_button.document, shop.kit, ground), leading.drawing, leading.moment, leading.text
        ),
        moments=moments,
        findings=tuple(finding.told() for finding in seen if finding.is_about(seen_button)),
        hanging=tuple(_hanging(shop, button, its, device, language, seen) for button, its in hung.values()),
        opens=_opens(shop, seen_button.document, product, language),
        sheets=tuple(_sheets(snapshot, seen_button.document, product, language)),
    )


def _opens(shop: Shop, document: ButtonDocument, product: Product, language: str) -> str:
    message = document.afterwards
    if not isinstance(message, ToMessage):
        return ""
    choice = product.option_values[0] if product.option_values else ""
    page = page_address(shop.store, product)
    return message_address(message, product, language, shop.store.language, page, choice=choice)


def _sheets(snapshot: Snapshot, document: ButtonDocument, product: Product, language: str) -> Iterator[SheetShown]:
    """Yield what a press opens, with goods of the store on it."""
    rule = money_rule(language, snapshot.store.currency)

    def price(of: Product) -> str:
        return money_text(of.price, rule) if of.price is not None else ""

    says = text_for(document, Moment.READY, language, product, 1, snapshot.store.language)
    shows = document.afterwards
    if isinstance(shows, ShowBasket):
        words = show_words(document, [language])[language]
        heading, _, _, _, _, total, basket, checkout, on, is_free, missing, *_ = words
        other = next(
            (
                candidate
                for candidate in snapshot.products
                if candidate.sku != product.sku and candidate.price is not None
            ),
            None,
        )
        lines = [product, *([other] if other else [])]
        whole = sum((line.price for line in lines if line.price is not None), Decimal(0))
        rest = Decimal(str(shows.free_from)) - whole if shows.free_from else None
        amount = money_text(rest, rule) if rest is not None else ""
        yield SheetShown(
            kind="basket",
            way=shows.where,
            heading=f"{heading} ({len(lines)})",
            lines=tuple(GoodsShown(line.name, price(line)) for line in lines),
            free="" if rest is None else missing.replace("{amount}", amount) if rest > 0 else is_free,
            total_name=total,
            total=money_text(whole, rule),
            choice="",
            choices=(),
            button=checkout,
            ways=(basket, on),
        )
    _, to_page, before, after, *_ = closer_words([language])[language]
    for kind, way in _closers(document):
        yield SheetShown(
            kind=kind,
            way=way,
            heading=product.name,
            lines=(GoodsShown("", price(product)),),
            free="",
            total_name="",
            total="",
            choice=product.option_name,
            choices=product.option_values,
            button=says,
            ways=(to_page,) if kind == "choice" else (to_page, before, after),
        )
    if isinstance(shows, TellWhenBack):
        ask, field, send, *_ = NOTIFY_WORDS.get(language.split("-")[0], NOTIFY_WORDS["en"])
        yield SheetShown("question", "middle", f"{ask}: {product.name}", (), field, "", "", "", (), send, ())


def _closers(document: ButtonDocument) -> Iterator[tuple[Literal["choice", "closer"], Literal["card", "middle"]]]:
    if document.choosing != "page":
        yield "choice", document.choosing
    if has_closer(document):
        yield "closer", "middle"


def _states(document: ButtonDocument, page: str) -> tuple[StateShown, ...]:
    return tuple(
        StateShown(
            state=name,
            fill=base_colour(worn.fill),
            words=worn.text_colour,
            contrast=None
            if isinstance(worn.fill, PictureFill)
            else worst_seen(worn.text_colour, colours_in(worn.fill, page) or (page,))[0],
            derived=tuple(sorted(worn.derived)),
        )
        for name, worn in dresses(document.look).items()
    )


def try_edit(shop: Shop, query: DrawQuery, layer: str, patch: Json) -> DrawView:
    """Return the drawing that an edit would give; the draft stays as it is.

    Raises:
        NotFound, BadDocument, BadWording, OutOfRange: As for `change_layer`.
    """
    return view_drawing(shop, query, changed_settings(shop, shop.drafts.read().settings, layer, patch))


def document_at(shop: Shop, query: DrawQuery) -> ButtonDocument:
    """Return the document of the button that is drawn."""
    return _class_at(shop.now(), query)[0].document


def _class_at(snapshot: Snapshot, query: DrawQuery) -> tuple[ButtonClass, Product, Device, str]:
    surfaces = snapshot.store.surfaces
    if query.placement not in surfaces:
        raise NotFound(f"The shop's pages have no {query.placement.replace('_', ' ')}.", placement=query.placement)
    product = product_at(snapshot, query.placement, product_of(snapshot, query.product))
    device = query.device or surfaces[query.placement].narrowest()[0]
    language = language_of(snapshot.settings, query.language)
    context = context_of(query.placement, product, None, device, language, ShopperKind.NEW)
    return class_for(snapshot, context), product, device, language


def _layers(settings: Settings, button: ButtonClass) -> tuple[LayerHere, ...]:
    return tuple(
        LayerHere(
            layer,
            layer_title(settings, layer),
            tuple(path for path, _ in leaves(without_gaps(settings.layer(layer) or {}))),
        )
        for layer in order_of(button)
    )


def _editing(layers: Sequence[LayerHere], layer: str) -> LayerHere:
    layer_view = next((each for each in layers if each.layer == layer), None)
    if layer_view is None:
        raise NotFound(f"The layer {layer!r} does not hold for this button.", layer=layer)
    return layer_view


def _hanging(
    shop: Shop, button: ButtonClass, product: Product, device: Device, language: str, seen: Sequence[Found]
) -> HangingPlacement:
    """Return the same product's button in another placement, with how much is found in just that one."""
    here = [finding.weight.value for finding in seen if finding.is_about(button)]
    shown = show(shop, button, LEADING[product.situation], product, language, device=device)
    return HangingPlacement(button.placement, shown, here.count("must_fix"), here.count("look_again"))
