"""What the stations show of the draft, computed; nothing here changes anything."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, datetime
from typing import Any

from uptick.core.boxes import Drawing, lay_out
from uptick.core.catalogue import Product
from uptick.core.checks import Finding, Spot, findings_of
from uptick.core.classes import ButtonClass, class_for, classes_of, context_of
from uptick.core.compile import CompiledButton, compile_button
from uptick.core.document import Device, Moment, Placement, Situation
from uptick.core.errors import NotFound
from uptick.core.fill import template_of, text_for, worst_of_class
from uptick.core.merge import Json, at_path, leaves, without_gaps
from uptick.core.reach import Reach
from uptick.core.release import differing_classes
from uptick.core.resolve import Candidate, trace
from uptick.core.settings import Settings
from uptick.core.trial.record import TrialState
from uptick.usecases.edit import layer_title
from uptick.usecases.ports import Draft, Shop


@dataclass(frozen=True, slots=True)
class DraftState:
    """What stands in the corner of every station."""

    version: int
    undo_label: str
    redo_label: str
    changed_buttons: int
    release: int


@dataclass(frozen=True, slots=True)
class Shown:
    """A button as it stands somewhere: compiled, in one moment, with its words filled in."""

    button: CompiledButton
    moment: Moment
    text: str


def draft_state(shop: Shop, draft: Draft, products: Sequence[Product]) -> DraftState:
    newest = shop.releases.newest()
    changes = differing_classes(newest.settings, draft.settings, products) if newest else list(Placement)
    return DraftState(draft.version, draft.undo_label, draft.redo_label, len(changes), newest.n if newest else 0)


def show(shop: Shop, one: ButtonClass, moment: Moment, product: Product | None, count: int = 2) -> Shown:
    language = shop.store.language
    compiled = compile_button(one.document, shop.kit, (language,))
    return Shown(compiled, moment, text_for(one.document, moment, language, product, count))


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
class DrawView:
    """One button, drawn. `layer` takes the edits; `own` are the fields that it sets itself."""

    draft: DraftState
    placement: Placement
    device: Device
    product: Product
    layer: str
    layer_title: str
    own: tuple[str, ...]
    document: Json
    button: CompiledButton
    drawing: Drawing
    text: str
    moments: tuple[MomentShown, ...]
    findings: tuple[Finding, ...]
    hanging: tuple[Hanging, ...]


_LEADING = {Situation.PLAIN: Moment.READY, Situation.CHOICE: Moment.CHOOSE_FIRST, Situation.SOLD_OUT: Moment.SOLD_OUT}


def product_of(products: Sequence[Product], sku: str | None) -> Product:
    """Return a product by its code, or the first plain one."""
    if not products:
        raise NotFound("The catalogue is empty. Import the shop's products first.")
    if sku:
        found = next((p for p in products if p.sku == sku), None)
        if found is None:
            raise NotFound(f"No product has the code {sku!r}.", product=sku)
        return found
    return next((p for p in products if p.situation is Situation.PLAIN), products[0])


def view_drawing(shop: Shop, placement: Placement, sku: str | None = None, device: Device | None = None) -> DrawView:
    """Return a button as a dimensioned drawing: ready, for one product, in the container of one device."""
    draft = shop.drafts.read()
    products = shop.catalogue.all()
    product = product_of(products, sku)
    classes = classes_of(draft.settings, products)
    one = class_for(classes, draft.settings, context_of(placement, product))
    findings = findings_of(draft.settings, classes, shop.store, shop.kit.fonts)
    surface = shop.store.surfaces[placement]
    device = device or surface.narrowest()[0]
    room = surface.widths_px[device]
    language = shop.store.language

    def drawn(moment: Moment) -> MomentShown:
        text = text_for(one.document, moment, language, product)
        return MomentShown(moment, text, lay_out(one.document, text, shop.kit.fonts, room))

    moments = tuple(drawn(moment) for moment in Moment)
    layer = draft.settings.layer(one.top_layer) or {}
    return DrawView(
        draft=draft_state(shop, draft, products),
        placement=placement,
        device=device,
        product=product,
        layer=one.top_layer,
        layer_title=layer_title(draft.settings, one.top_layer),
        own=tuple(path for path, _ in leaves(without_gaps(layer))),
        document=one.document.model_dump(mode="json"),
        button=compile_button(one.document, shop.kit, (language,)),
        drawing=moments[0].drawing,
        text=moments[0].text,
        moments=moments,
        findings=tuple(f for f in findings if f.is_about(one)),
        hanging=tuple(_hanging(shop, draft.settings, classes, place, product, findings) for place in Placement),
    )


def _hanging(
    shop: Shop,
    settings: Settings,
    classes: Sequence[ButtonClass],
    place: Placement,
    product: Product,
    findings: Sequence[Finding],
) -> Hanging:
    one = class_for(classes, settings, context_of(place, product))
    here = [f.weight.value for f in findings if any(spot.placement is place for spot in f.buttons)]
    return Hanging(place, show(shop, one, Moment.READY, product), here.count("must_fix"), here.count("look_again"))


@dataclass(frozen=True, slots=True)
class Cell:
    """One crossing of the plan. `exceptions` are the names of those that narrow it; `trials` run there."""

    column: str
    shown: Shown | None
    product: Product | None
    products: int
    exceptions: tuple[str, ...]
    trials: tuple[int, ...]
    must_fix: int
    look_again: int


@dataclass(frozen=True, slots=True)
class FloorRow:
    placement: Placement
    pages: int
    cells: tuple[Cell, ...]
    shown: int
    clicked: int
    ordered_lines: int


@dataclass(frozen=True, slots=True)
class RunningTrial:
    number: int
    question: str
    day: int
    days: int


@dataclass(frozen=True, slots=True)
class FloorView:
    draft: DraftState
    days: int
    rows: tuple[FloorRow, ...]
    findings: tuple[Finding, ...]
    running: tuple[RunningTrial, ...]
    refused: dict[str, int]


def view_floor(shop: Shop, since: date, days: int, now: datetime) -> FloorView:
    """Return the plan of the whole shop: placements down, situations across, findings beside."""
    draft = shop.drafts.read()
    products = shop.catalogue.all()
    classes = classes_of(draft.settings, products)
    findings = findings_of(draft.settings, classes, shop.store, shop.kit.fonts)
    tallies = shop.signals.tallies(since)
    running = [t for t in shop.trials.all() if t.state is TrialState.RUNNING]
    rows = []
    for placement in Placement:
        counts = tallies.get(placement, {})
        cells = tuple(
            _cell(shop, draft.settings, classes, placement, situation, products, findings, in_basket=False)
            for situation in Situation
        )
        basket = _cell(shop, draft.settings, classes, placement, Situation.PLAIN, products, findings, in_basket=True)
        rows.append(
            FloorRow(
                placement,
                len(products) if placement is Placement.PRODUCT_PAGE else len({p.category for p in products}) + 1,
                (*cells, basket),
                counts.get("shown", 0),
                counts.get("clicked", 0),
                tallies.get("", {}).get("ordered", 0),
            )
        )
    marks = tuple(
        RunningTrial(t.number, t.question, (now - t.started_at).days + 1, t.plan.days)
        for t in running
        if t.started_at and t.plan
    )
    return FloorView(
        draft_state(shop, draft, products), days, tuple(rows), findings, marks, shop.signals.refusals(since)
    )


def _cell(
    shop: Shop,
    settings: Settings,
    classes: Sequence[ButtonClass],
    placement: Placement,
    situation: Situation,
    products: Sequence[Product],
    findings: Sequence[Finding],
    *,
    in_basket: bool,
) -> Cell:
    able = [p for p in products if p.situation is situation]
    column = "in_basket" if in_basket else situation.value
    if not able:
        return Cell(column, None, None, 0, (), (), 0, 0)
    by_product = {p.sku: class_for(classes, settings, context_of(placement, p)) for p in able}
    plain = [p for p in able if not by_product[p.sku].rules]
    example = (plain or able)[0]
    one = by_product[example.sku]
    narrowing = {rule for p in able for rule in by_product[p.sku].rules}
    here = {Spot(placement, c.key) for c in by_product.values()}
    weights = [f.weight.value for f in findings if here & set(f.buttons)]
    trials = [
        t.number
        for t in shop.trials.all()
        if t.state is TrialState.RUNNING and any(t.reach.covers(context_of(placement, p)) for p in able)
    ]
    moment = Moment.IN_BASKET if in_basket else _LEADING[situation]
    return Cell(
        column,
        show(shop, one, moment, example),
        example,
        len(able),
        tuple(e.name for e in settings.exceptions if e.id in narrowing),
        tuple(trials),
        weights.count("must_fix"),
        weights.count("look_again"),
    )


@dataclass(frozen=True, slots=True)
class WordCell:
    """A text in one place: as written, and as the worst product fills it. `layer` is where it is set."""

    placement: Placement
    template: str
    text: str
    width_px: float
    room_px: float
    product: str
    layer: str
    is_own: bool


@dataclass(frozen=True, slots=True)
class WordRow:
    """A moment, or an exception under the moment that it narrows."""

    moment: Moment
    exception: str
    exception_name: str
    note: str
    cells: tuple[WordCell, ...]


@dataclass(frozen=True, slots=True)
class WordsView:
    draft: DraftState
    language: str
    rooms: dict[Placement, float]
    rows: tuple[WordRow, ...]


def view_words(shop: Shop) -> WordsView:
    """Return the sheet of texts: moments down, placements across, exceptions under what they narrow."""
    draft = shop.drafts.read()
    products = shop.catalogue.all()
    classes = classes_of(draft.settings, products)
    rooms = {place: shop.store.surfaces[place].narrowest()[1] for place in Placement}
    rows: list[WordRow] = []
    for moment in Moment:
        plain = [one for one in classes if not one.rules]
        rows.append(WordRow(moment, "", "", "", tuple(_word_cell(shop, draft.settings, one, moment) for one in plain)))
        for rule in draft.settings.exceptions:
            says = at_path(without_gaps(dict(rule.layer)), f"wording.{moment}.{shop.store.language}")
            served = [one for one in classes if rule.id in one.rules and one.products]
            if says and served:
                cells = tuple(_word_cell(shop, draft.settings, one, moment) for one in _one_each(served))
                rows.append(WordRow(moment, rule.id, rule.name, rule.note, cells))
    return WordsView(draft_state(shop, draft, products), shop.store.language, rooms, tuple(rows))


def _one_each(classes: Sequence[ButtonClass]) -> list[ButtonClass]:
    found: dict[Placement, ButtonClass] = {}
    for one in classes:
        found.setdefault(one.placement, one)
    return [found[place] for place in Placement if place in found]


def _word_cell(shop: Shop, settings: Settings, one: ButtonClass, moment: Moment) -> WordCell:
    language = shop.store.language
    field = f"wording.{moment}.{language}"
    worst = worst_of_class(one, moment, language, shop.kit.fonts)
    room = shop.store.surfaces[one.placement].narrowest()[1]
    drawn = lay_out(one.document, worst.text, shop.kit.fonts, room)
    told = trace(settings, one.example, field)
    return WordCell(
        placement=one.placement,
        template=template_of(one.document, moment, language),
        text=worst.text,
        width_px=drawn.needs_width_px,
        room_px=min(room, drawn.outer.width) if one.document.look.size.kind == "fixed" else room,
        product=worst.product.name if worst.product else "",
        layer=told[0].layer if told else "",
        is_own=bool(told) and told[0].layer == one.top_layer,
    )


@dataclass(frozen=True, slots=True)
class Filled:
    """A text as one product fills it."""

    product: Product
    shown: Shown
    width_px: float
    room_px: float


@dataclass(frozen=True, slots=True)
class TraceView:
    """Why a value holds for a product in a place; with how real products fill it where it is a text."""

    field: str
    product: Product
    layer: str
    candidates: tuple[Candidate, ...]
    filled: tuple[Filled, ...]


def view_trace(shop: Shop, placement: Placement, sku: str | None, field: str, exception: str = "") -> TraceView:
    """Return every layer that sets a field here, the winner first."""
    settings = shop.drafts.read().settings
    products = shop.catalogue.all()
    product = product_of(products, sku)
    if exception and not sku:
        rule = next((e for e in settings.exceptions if e.id == exception), None)
        product = next((p for p in products if rule and rule.reach.covers(context_of(placement, p))), product)
    context = context_of(placement, product)
    classes = classes_of(settings, products)
    one = class_for(classes, settings, context)
    filled: tuple[Filled, ...] = ()
    if field.startswith("wording."):
        filled = _filled(shop, one, Moment(field.split(".")[1]))
    return TraceView(field, product, one.top_layer, trace(settings, context, field), filled)


def _filled(shop: Shop, one: ButtonClass, moment: Moment) -> tuple[Filled, ...]:
    """Return how the longest, the shortest and two between them fill a text."""
    room = shop.store.surfaces[one.placement].narrowest()[1]
    found = []
    for product in one.products:
        shown = show(shop, one, moment, product)
        found.append(
            Filled(product, shown, lay_out(one.document, shown.text, shop.kit.fonts, room).needs_width_px, room)
        )
    distinct = list({f.shown.text: f for f in found}.values())
    distinct.sort(key=lambda f: -f.width_px)
    if len(distinct) <= 4:
        return tuple(distinct)
    last = len(distinct) - 1
    return tuple(distinct[i] for i in sorted({0, last // 3, 2 * last // 3, last}))


@dataclass(frozen=True, slots=True)
class ExceptionView:
    id: str
    name: str
    note: str
    author: str
    made_at: datetime
    reach: Reach
    reach_words: str
    fields: tuple[tuple[str, Any], ...]
    products: int


def view_exceptions(shop: Shop) -> tuple[ExceptionView, ...]:
    """Return the exceptions of the draft with what they set and how many products they reach."""
    products = shop.catalogue.all()
    names = {p.sku: p.name for p in products}
    return tuple(
        ExceptionView(
            rule.id,
            rule.name,
            rule.note,
            rule.author,
            rule.made_at,
            rule.reach,
            rule.reach.in_words(names),
            tuple(leaves(without_gaps(dict(rule.layer)))),
            sum(any(rule.reach.covers(context_of(place, p)) for place in Placement) for p in products),
        )
        for rule in shop.drafts.read().settings.exceptions
    )
