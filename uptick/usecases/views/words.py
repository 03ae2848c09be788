"""Words: the sheet of texts, moments down, placements across, in one language."""

from collections.abc import Hashable, Sequence
from dataclasses import dataclass

from uptick.core.button.document import Device, Moment, Placement
from uptick.core.button.layer_ref import LayerRef
from uptick.core.button.lengths import Ground
from uptick.core.button.merge import at_path
from uptick.core.checks.origin import order_of
from uptick.core.engine.layers import clean_layers
from uptick.core.engine.snapshot import Snapshot
from uptick.core.engine.step import Step
from uptick.core.fitting.fill import WorstText, template_of, texts_key, worst_of_class
from uptick.core.fitting.laid import laid
from uptick.core.formats.po import places_of
from uptick.core.resolved.classes import ButtonClass, ButtonKind, kinds_at
from uptick.core.resolved.reach_words import say_reach, vocabulary_of
from uptick.core.rules.settings import ExceptionRule, Settings
from uptick.core.words.wording import is_rtl, language_name
from uptick.usecases.ports import Shop
from uptick.usecases.state import DraftState, draft_state, language_of


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
    snapshot = shop.at(draft.settings)
    chosen = language_of(snapshot.settings, language)
    sheet = _Sheet(shop, snapshot, chosen)
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
            sum(bool(at_path(layers[LayerRef(p.layer)], f"wording.{p.moment}.{language}")) for p in places),
            len(places),
        )
        for language in settings.languages
    )


# Where a text comes from, and whether another language stands in there.
_Source = tuple[LayerRef | None, bool]


class _Sheet:
    def __init__(self, shop: Shop, snapshot: Snapshot, language: str) -> None:
        self.shop = shop
        self.snapshot = snapshot
        self.settings = snapshot.settings
        self.language = language
        self.names = vocabulary_of(snapshot)
        self.kinds = {place: kinds_at(snapshot, place) for place in shop.store.places}
        self.plain = {place: next(kind for kind in kinds if not kind.rules) for place, kinds in self.kinds.items()}
        self._sorted: dict[tuple[Placement, Moment], dict[LayerRef | None, list[ButtonKind]]] = {}
        self._grounds: dict[tuple[Placement, int], tuple[Device, Ground]] = {}
        self._said: dict[tuple[int, Moment], Hashable] = {}

    def rows(self, moment: Moment) -> list[WordRow]:
        places = self.shop.store.places
        lines = [WordRow(moment, "", "", "", "", tuple(self._plain_cell(place, moment) for place in places))]
        for rule in self.settings.exceptions:
            texts = self.snapshot.layers[LayerRef.exception(rule.id)].texts
            if rule.on and (moment, self.language) in texts:
                cells = [self._exception_cell(rule, place, moment) for place in places]
                kept = tuple(cell for cell in cells if cell)
                reach_words = say_reach(rule.reach, self.names)
                lines.append(WordRow(moment, rule.id, rule.name, reach_words, rule.note, kept))
        return lines

    def _source(self, button: ButtonClass, moment: Moment) -> _Source:
        layers = self.snapshot.layers
        for language, stands_in in ((self.language, False), (self.settings.language, True)):
            for ref in reversed(order_of(button)):
                if ref in layers and (moment, language) in layers[ref].texts:
                    return ref, stands_in
        return None, False

    def _by_source(self, place: Placement, moment: Moment) -> dict[LayerRef | None, list[ButtonKind]]:
        """Return the kinds of a placement by the layer that a moment's text comes from."""
        by_text = self._sorted.get((place, moment))
        if by_text is None:
            by_text = self._sorted[place, moment] = {}
            for kind in self.kinds[place]:
                by_text.setdefault(self._source(kind, moment)[0], []).append(kind)
        return by_text

    def _plain_cell(self, place: Placement, moment: Moment) -> WordCell:
        button = self.plain[place]
        # The plain row speaks for every product that no exception gives words of its own.
        alike = self._by_source(place, moment)[self._source(button, moment)[0]]
        return self._cell(place, moment, [button, *alike], LayerRef.place(place))

    def _exception_cell(self, rule: ExceptionRule, place: Placement, moment: Moment) -> WordCell | None:
        layer = LayerRef.exception(rule.id)
        served = self._by_source(place, moment).get(layer)
        return self._cell(place, moment, served, layer) if served else None

    def _cell(self, place: Placement, moment: Moment, classes: Sequence[ButtonKind], layer: LayerRef) -> WordCell:
        measured = max((self._measured(button, moment) for button in classes), key=lambda cell: cell.over_px)
        kind, text = measured.kind, measured.worst
        source, stands_in = self._source(kind, moment)
        return WordCell(
            placement=place,
            template=template_of(kind.document, moment, self.language, self.settings.language),
            text=text.text,
            width_px=measured.width_px,
            room_px=measured.room_px,
            device=measured.device,
            product=text.product.name if text.product else "",
            sku=text.product.sku if text.product else "",
            layer=layer,
            from_layer=source or "",
            stands_in=stands_in,
            stands=kind.document.placement.shown,
        )

    def _measured(self, kind: ButtonKind, moment: Moment) -> "_Measured":
        """Measure a kind's text where it is tightest; an edit of one text leaves the other moments as they are."""
        device, ground = self._ground(kind)
        key = ("word", kind.number, kind.look.number, moment, self.language, self._texts(kind, moment), ground)
        width, room, worst = self.snapshot.tables.ask(
            Step.FINDINGS, key, lambda: _measure(self.snapshot, kind, moment, self.language, ground)
        )
        return _Measured(kind, width, room, device, worst)

    def _ground(self, kind: ButtonKind) -> tuple[Device, Ground]:
        """Return the device on which a kind has the least room, and what it stands on there."""
        ground = self._grounds.get((kind.placement, kind.places))
        if ground is None:
            surface = self.shop.store.surfaces[kind.placement]
            devices = [d for d in kind.devices(self.language) if d in surface.widths_px] or [surface.narrowest()[0]]
            device = min(devices, key=surface.width_px)
            ground = self._grounds[kind.placement, kind.places] = (
                device,
                self.shop.store.ground(kind.placement, device),
            )
        return ground

    def _texts(self, kind: ButtonKind, moment: Moment) -> Hashable:
        """Return what stands for all that can be said in a moment."""
        known = (kind.texts.number, moment)
        if known not in self._said:
            self._said[known] = texts_key(kind.document, moment, self.language, self.settings.language)
        return self._said[known]


@dataclass(frozen=True, slots=True)
class _Measured:
    """The worst text of a kind in one moment; `over_px` is by how much it is wider than its room, or less than 0."""

    kind: ButtonKind
    width_px: float
    room_px: float
    device: Device
    worst: WorstText

    @property
    def over_px(self) -> float:
        return self.width_px - self.room_px


def _measure(
    snapshot: Snapshot, kind: ButtonKind, moment: Moment, language: str, ground: Ground
) -> tuple[float, float, WorstText]:
    """Return the width and the room of a kind's worst text, in pixels, with that text."""
    worst = worst_of_class(snapshot.tables, kind, moment, language, snapshot.kit.fonts, snapshot.settings.language)
    drawn = laid(snapshot, kind.document, worst.text, ground, language)
    fixed = kind.document.look.size.kind == "fixed"
    room = min(drawn.container_px, drawn.outer.width) if fixed else drawn.container_px
    return drawn.needs_width_px, room, worst
