"""Words: the sheet of texts, moments down, placements across, in one language."""

from collections.abc import Sequence
from dataclasses import dataclass

from uptick.core.boxes import lay_out
from uptick.core.catalogue import Product
from uptick.core.classes import ButtonClass, kinds_of
from uptick.core.document import Device, Moment, Placement
from uptick.core.fill import WorstText, template_of, worst_of_class
from uptick.core.formats.po import places_of
from uptick.core.merge import at_path
from uptick.core.reach_words import Vocabulary, say_reach
from uptick.core.resolve import clean_layers
from uptick.core.settings import ExceptionRule, Settings
from uptick.core.wording import is_rtl, language_name
from uptick.usecases.ports import Shop
from uptick.usecases.state import DraftState, draft_state, in_force, language_of, names_of


@dataclass(frozen=True, slots=True)
class WordCell:
    """A text in one place: as written, and as the worst product of its reach fills it in the narrowest container.

    `layer` is where an edit goes; `from_layer` where the text comes from now. `stands_in` says that another language's
    text is shown; `stands` is false where no button stands.
    """

    placement: Placement
    template: str
    text: str
    width_px: float
    room_px: float
    device: Device
    product: str
    sku: str
    layer: str
    from_layer: str
    stands_in: bool
    stands: bool


@dataclass(frozen=True, slots=True)
class WordRow:
    """A moment, or an exception under the moment that it narrows."""

    moment: Moment
    exception: str
    exception_name: str
    reach_words: str
    note: str
    cells: tuple[WordCell, ...]


@dataclass(frozen=True, slots=True)
class Spoken:
    """A language of the buttons, and how many of the store's texts it has."""

    language: str
    name: str
    rtl: bool
    texts: int
    of: int


@dataclass(frozen=True, slots=True)
class WordsView:
    draft: DraftState
    language: str
    rtl: bool
    spoken: tuple[Spoken, ...]
    rooms: dict[Placement, float]
    rows: tuple[WordRow, ...]


def view_words(shop: Shop, language: str | None = None) -> WordsView:
    """Return the sheet of texts in one language.

    Raises:
        OutOfRange: The buttons do not speak it.
    """
    draft = shop.drafts.read()
    settings = in_force(shop, draft)
    products = shop.catalogue.all()
    chosen = language_of(settings, language)
    sheet = _Sheet(shop, settings, products, chosen)
    return WordsView(
        draft_state(shop, draft),
        chosen,
        is_rtl(chosen),
        spoken_of(draft.settings),
        {place: shop.store.surfaces[place].narrowest()[1] for place in shop.store.places},
        tuple(row for moment in Moment for row in sheet.rows(moment)),
    )


def spoken_of(settings: Settings) -> tuple[Spoken, ...]:
    """Return the languages with how complete each is, counted over the texts that the first language has."""
    layers = clean_layers(settings)
    places = [place for place, _ in places_of(settings)]
    return tuple(
        Spoken(
            language,
            language_name(language),
            is_rtl(language),
            sum(bool(at_path(layers[p.layer], f"wording.{p.moment}.{language}")) for p in places),
            len(places),
        )
        for language in settings.languages
    )


class _Sheet:
    def __init__(self, shop: Shop, settings: Settings, products: Sequence[Product], language: str) -> None:
        self.shop = shop
        self.settings = settings
        self.language = language
        self.layers = clean_layers(settings)
        self.names: Vocabulary = names_of(shop, settings)
        self.met = [one for one in kinds_of(settings, products) if one.placement in shop.store.surfaces]
        self.plain = {one.placement: one for one in self.met if not one.rules}

    def rows(self, moment: Moment) -> list[WordRow]:
        plain = tuple(self._plain_cell(place, moment) for place in self.shop.store.places)
        found = [WordRow(moment, "", "", "", "", plain)]
        for rule in self.settings.exceptions:
            says = at_path(self.layers[f"exception:{rule.id}"], f"wording.{moment}.{self.language}")
            if rule.on and says:
                cells = [self._exception_cell(rule, place, moment) for place in self.shop.store.places]
                kept = tuple(cell for cell in cells if cell)
                said = say_reach(rule.reach, self.names)
                found.append(WordRow(moment, rule.id, rule.name, said, rule.note, kept))
        return found

    def _source(self, one: ButtonClass, moment: Moment) -> tuple[str, bool]:
        """Return the layer that a text comes from, and whether another language stands in there."""
        order = ["baseline", f"place:{one.placement}", *(f"exception:{rule}" for rule in one.rules)]
        for language, stands_in in ((self.language, False), (self.settings.language, True)):
            for layer in reversed(order):
                if at_path(self.layers.get(layer, {}), f"wording.{moment}.{language}"):
                    return layer, stands_in
        return "", False

    def _plain_cell(self, place: Placement, moment: Moment) -> WordCell:
        one = self.plain[place]
        # The plain row speaks for every product that no exception gives words of its own.
        others = [
            o for o in self.met if o.placement is place and self._source(o, moment)[0] == self._source(one, moment)[0]
        ]
        return self._cell(place, moment, [one, *others], f"place:{place}")

    def _exception_cell(self, rule: ExceptionRule, place: Placement, moment: Moment) -> WordCell | None:
        layer = f"exception:{rule.id}"
        served = [o for o in self.met if o.placement is place and self._source(o, moment)[0] == layer]
        return self._cell(place, moment, served, layer) if served else None

    def _cell(self, place: Placement, moment: Moment, classes: Sequence[ButtonClass], layer: str) -> WordCell:
        worst = max((self._measured(one, moment) for one in classes), key=lambda found: found[1] - found[2])
        one, width, room, device, text = worst
        source, stands_in = self._source(one, moment)
        return WordCell(
            placement=place,
            template=template_of(one.document, moment, self.language, self.settings.language),
            text=text.text,
            width_px=width,
            room_px=room,
            device=device,
            product=text.product.name if text.product else "",
            sku=text.product.sku if text.product else "",
            layer=layer,
            from_layer=source,
            stands_in=stands_in,
            stands=one.document.placement.shown,
        )

    def _measured(self, one: ButtonClass, moment: Moment) -> tuple[ButtonClass, float, float, Device, WorstText]:
        surface = self.shop.store.surfaces[one.placement]
        devices = [d for d in one.devices(self.language) if d in surface.widths_px] or [surface.narrowest()[0]]
        device = min(devices, key=surface.width_px)
        worst = worst_of_class(one, moment, self.language, self.shop.kit.fonts, self.settings.language)
        ground = self.shop.store.ground(one.placement, device)
        drawn = lay_out(one.document, worst.text, self.shop.kit, ground, language=self.language)
        fixed = one.document.look.size.kind == "fixed"
        room = min(drawn.container_px, drawn.outer.width) if fixed else drawn.container_px
        return one, drawn.needs_width_px, room, device, worst
