"""Releases: the draft compiled into what the edge serves."""

import hashlib
import json
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import asdict
from datetime import date, datetime, time, timedelta
from functools import lru_cache
from zoneinfo import ZoneInfo

from uptick.core.button.box_names import as_wire, known_names
from uptick.core.button.document import (
    ButtonDocument,
    Placement,
)
from uptick.core.button.layer_ref import BASELINE, LayerRef
from uptick.core.button.look import Part
from uptick.core.button.merge import Json
from uptick.core.button.on_pages import OnPages, path_pattern
from uptick.core.drawing.bar import compile_bar
from uptick.core.drawing.compile import BASE_CSS, CompiledButton, compile_button, compile_words
from uptick.core.drawing.css import font_family
from uptick.core.drawing.hanging import compile_floating
from uptick.core.drawing.kit import Kit
from uptick.core.drawing.level import levelling_css
from uptick.core.drawing.over import compile_over, over_css
from uptick.core.drawing.row import compile_row
from uptick.core.drawing.sheet import closer_words, show_words
from uptick.core.engine.snapshot import Snapshot
from uptick.core.fitting.reserve import Reserved, may_wrap, reserve
from uptick.core.release.manifest import (
    HANGS_ANYWHERE,
    HANGS_WITH_OWN,
    CompiledRelease,
    WireFixed,
    WireFont,
    WireLanguage,
    WireMoney,
    WirePages,
    WirePointed,
    WireRule,
    WireVersion,
)
from uptick.core.resolved.classes import ButtonClass, classes_of, under_version
from uptick.core.resolved.resolve import VersionLayer, sets_look
from uptick.core.rules.places import FIXES
from uptick.core.rules.pointed import PointedPlace, ToldByAddress, ToldByAttribute, ToldByLink
from uptick.core.rules.settings import ExceptionRule, Settings
from uptick.core.shop.store import Store
from uptick.core.words.close_words import CLOSE_WORDS
from uptick.core.words.notify_words import NOTIFY_WORDS
from uptick.core.words.wording import is_rtl, money_rule, plural_table


def compile_release(snapshot: Snapshot, today: date) -> CompiledRelease:
    """Return the compiled form of a draft, without its number.

    It grows with the exceptions, not with products or classes: texts lie in the layer that sets them, and looks in a
    table by what differs. Exceptions stand in the order in which they apply.

    Args:
        snapshot: The store as the settings are written: those that sleep now are compiled with their days.
    """
    settings, store, kit = snapshot.settings, snapshot.store, snapshot.kit
    # No script stands what is outside.
    places = tuple(place for place in store.places if place is not Placement.OUTSIDE)
    looks = _LookTable(kit, settings.languages, store.timezone)
    standing: dict[str, dict[str, int]] = {placement.value: {} for placement in places}
    families: set[str] = set()
    met = _Met(snapshot, today)
    for look_class in _look_classes(snapshot, today):
        if look_class.placement in places:
            high = reserve(snapshot, look_class.document, met.by(look_class))
            standing[look_class.placement.value][look_class.key] = looks.number(
                look_class.document, high, look_class.placement
            )
            families.add(look_class.document.look.type.family)
    boxed = any(look["quantity"] for look in looks.made)
    languages = {language: _compile_language(language, store) for language in settings.languages}
    for language, names_of in languages.items() if boxed else ():
        if names := known_names(language):
            names_of["box"] = as_wire(names)
    levels = (levelling_css(snapshot.at(place).document(0).placement) for place in places)
    rules = (snapshot.rule(known.id) for known in snapshot.index.rules)
    release: CompiledRelease = {
        "language": settings.language,
        "languages": languages,
        "fonts": compile_fonts(kit, families, settings.languages),
        "base": BASE_CSS,
        "css": "".join(dict.fromkeys(css.replace("\n", "") for css in levels)),
        "looks": looks.made,
        "rules": [_compile_rule(rule, _layer(snapshot, LayerRef.exception(rule.id)), store) for rule in rules],
        "places": {
            place: {"looks": looks_of, "words": compile_words(_layer(snapshot, LayerRef.place(Placement(place))))}
            for place, looks_of in standing.items()
        },
        "words": compile_words(_layer(snapshot, BASELINE)),
    }
    for place in FIXES:
        if place in places and (fixed := compile_fixed(snapshot, place)):
            release["places"][place.value]["fixed"] = fixed
    if {*FIXES} & {*places}:
        anywhere = any("fixed" in place for place in release["places"].values())
        release["bar"] = HANGS_ANYWHERE if anywhere else HANGS_WITH_OWN
    if settings.pointed:
        release["pointed"] = [compile_pointed(place) for place in settings.pointed.values()]
    return release


def compile_fixed(snapshot: Snapshot, place: Placement) -> WireFixed | None:
    """Return the product that a placement stands for instead of the page's own; None where it follows the page."""
    standing = snapshot.at(place).document(0).placement
    if not (sku := standing.product):
        return None
    product = snapshot.goods.product(sku)
    path = snapshot.store.path_of(product.url) if product else ""
    return {"sku": sku, "path": path, **compile_pages(standing.pages)}


def _layer(snapshot: Snapshot, ref: LayerRef) -> Json:
    layer = snapshot.layers.get(ref)
    return layer.content if layer else {}


class _LookTable:
    """Compiled looks, each once, by what differs in the document apart from its words."""

    def __init__(self, kit: Kit, languages: Sequence[str], zone: str) -> None:
        self._kit = kit
        self._languages = languages
        self._zone = zone
        self._numbers: dict[tuple[str, str, str], int] = {}
        self.made: list[CompiledButton] = []

    def number(self, document: ButtonDocument, high: Reserved, placement: Placement) -> int:
        compiled = compile_button(document, self._kit)
        stands_in = _STANDS_IN.get(placement)
        here = f"{placement}{getattr(document, stands_in).derived(_as_json)}" if stands_in else ""
        key = (document.bare.derived(_content, self._kit), json.dumps(high), here)
        if key not in self._numbers:
            if high != compiled["high"]:
                compiled = {**compiled, "high": high}
            self._numbers[key] = len(self.made)
            self.made.append(_standing(compiled, document, placement, self._languages, self._zone))
        return self._numbers[key]


# The part of a document that says how it stands in a placement; elsewhere the page does.
_STANDS_IN = {Placement.STICKY_BAR: "bar", Placement.FLOATING: "floating", Placement.OVER_PICTURE: "over"}


def _as_json(part: Part) -> str:
    return part.model_dump_json()


def _standing(
    compiled: CompiledButton, document: ButtonDocument, placement: Placement, languages: Sequence[str], zone: str
) -> CompiledButton:
    """Return a compiled button with how it stands in its placement, and the clock of its office hours."""
    if "hours" in (message := compiled.get("message", {})):
        compiled = {**compiled, "message": {**message, "zone": zone}}  # type: ignore[typeddict-item]
    if notify := compiled.get("notify"):
        compiled = {**compiled, "notify": {**notify, "words": {language: _asked(language) for language in languages}}}
    if (show := compiled.get("show")) is not None:
        compiled = {**compiled, "show": {**show, "words": show_words(document, languages)}}
    if (closer := compiled.get("closer")) is not None:
        compiled = {**compiled, "closer": {**closer, "words": closer_words(languages)}}
    match placement:
        case Placement.STICKY_BAR:
            return {**compiled, "bar": document.bar.derived(compile_bar, tuple(languages))}
        case Placement.FLOATING:
            return {**compiled, "floating": compile_floating(document.floating)}
        case Placement.OVER_PICTURE:
            # It lies on what is there, and takes no room.
            css = compiled["css"] + over_css(document)
            return {**compiled, "css": css, "high": 0, "over": compile_over(document)}
    return compiled


def _asked(language: str) -> list[str]:
    """Return what is asked and said where a mail address is taken; English stands in."""
    known = base if (base := language.split("-")[0]) in NOTIFY_WORDS else "en"
    return [*NOTIFY_WORDS[known], CLOSE_WORDS[known], known]


def _content(document: ButtonDocument, kit: Kit) -> str:
    return json.dumps({**compile_button(document, kit), "high": None})


class _Met:
    """The classes that shoppers meet, by the look that they have; looked for once somebody asks."""

    def __init__(self, snapshot: Snapshot, today: date) -> None:
        self._snapshot, self._today = snapshot, today
        self._found: dict[tuple[Placement, tuple[str, ...]], dict[ButtonClass, None]] | None = None

    def by(self, button: ButtonClass) -> Sequence[ButtonClass]:
        """Return the classes that differ from a look's own class in words only, that class among them."""
        if not may_wrap(button.document):
            return (button,)
        if self._found is None:
            self._found = self._find()
        return (button, *self._found.get((button.placement, button.rules), ()))

    def _find(self) -> dict[tuple[Placement, tuple[str, ...]], dict[ButtonClass, None]]:
        settings, layers = self._snapshot.settings, self._snapshot.layers
        draws = {rule.id for rule in settings.exceptions if layers[LayerRef.exception(rule.id)].look_key}
        products_of: dict[tuple[Placement, tuple[str, ...]], dict[ButtonClass, None]] = {}
        for day in turning_days(settings, self._today):
            for button in classes_of(self._snapshot.beside(settings.on_day(day))):
                rules = tuple(rule for rule in button.rules if rule in draws)
                products_of.setdefault((button.placement, rules), {})[button] = None
        return products_of


def _look_classes(snapshot: Snapshot, today: date) -> Iterator[ButtonClass]:
    """Yield the classes as far as looks go, on every day on which an exception falls inactive or wakes."""
    settings, layers = snapshot.settings, snapshot.layers
    drawn = tuple(rule for rule in settings.exceptions if layers[LayerRef.exception(rule.id)].look_key)
    only = settings.model_copy(update={"exceptions": drawn})
    seen: set[tuple[Placement, tuple[str, ...]]] = set()
    for day in turning_days(only, today):
        for button in classes_of(snapshot.beside(only.on_day(day))):
            if (button.placement, button.rules) not in seen:
                seen.add((button.placement, button.rules))
                yield button


def turning_days(settings: Settings, today: date) -> list[date]:
    """Return today and the later days from which on other exceptions count."""
    days = {today}
    for rule in settings.exceptions:
        if rule.on and rule.starts_on:
            days.add(rule.starts_on)
        if rule.on and rule.ends_on:
            days.add(rule.ends_on + timedelta(days=1))
    return sorted(day for day in days if day >= today)


def _compile_rule(rule: ExceptionRule, layer: Json, store: Store) -> WireRule:
    wire: WireRule = {"id": rule.id, "reach": rule.reach.narrowed()}
    if sets_look(layer):
        wire["look"] = True
    if words := compile_words(layer):
        wire["words"] = words
    if rule.starts_on:
        wire["from"] = _midnight_ms(rule.starts_on, store)
    if rule.ends_on:
        wire["until"] = _midnight_ms(rule.ends_on + timedelta(days=1), store)
    return wire


def compile_pages(pages: OnPages) -> WirePages:
    """Return the pages that are meant as the script is told them: nothing where all are."""
    wire: WirePages = {}
    if pages.kinds:
        wire["kinds"] = [kind.value for kind in pages.kinds]
    if pages.paths:
        wire["paths"] = path_pattern(pages.paths)
    if pages.not_paths:
        wire["not_paths"] = path_pattern(pages.not_paths)
    return wire


def compile_pointed(place: PointedPlace) -> WirePointed:
    """Return a place as the script is told it."""
    wire: WirePointed = {
        "place": place.placement.value,
        "selector": place.selector,
        "where": place.where.value,
    }
    wire |= compile_pages(place.pages)  # type: ignore[typeddict-item]
    if reach := place.pages.reach.narrowed():
        wire["reach"] = reach
    match place.telling:
        case ToldByAttribute(name=name):
            wire["attribute"] = name
        case ToldByLink(pattern=pattern):
            wire["link"] = pattern
        case ToldByAddress():
            wire["address"] = True
    if place.row:
        wire["row"] = compile_row(place.row)
    return wire


def _midnight_ms(day: date, store: Store) -> int:
    return round(datetime.combine(day, time(), ZoneInfo(store.timezone)).timestamp() * 1000)


def _compile_language(language: str, store: Store) -> WireLanguage:
    money: WireMoney = {**asdict(money_rule(language, store.currency)), "currency": store.currency}  # type: ignore[typeddict-item]
    return {
        "money": money,
        "rtl": is_rtl(language),
        "plurals": plural_table(language),
    }


def compile_fonts(kit: Kit, families: Iterable[str], languages: Iterable[str] = ()) -> list[WireFont]:
    """Return the font files of some families, with those that stand in where a language needs them."""
    used = set(families)
    if any(is_rtl(language) for language in languages):
        used |= set(kit.fonts.stand_ins)
    return [
        {
            "family": font_family(file.family),
            "weight": f"{file.lightest} {file.heaviest}",
            "range": ",".join(f"U+{a:X}-{b:X}" if a != b else f"U+{a:X}" for a, b in file.ranges),
            "file": _font_name(file.content),
        }
        for file in kit.fonts.files
        if file.family in used
    ]


@lru_cache(maxsize=64)
def _font_name(content: bytes) -> str:
    """Return the name under which a font file is served for ever."""
    return f"{hashlib.sha256(content).hexdigest()[:16]}.woff2"


def compile_version(snapshot: Snapshot, version: VersionLayer, today: date) -> WireVersion:
    """Return one version of a trial on the settings of a release: its words, and its looks where it changes them.

    Who is in its reach is decided where it is shown: a class may hold products that are and others that are not.
    """
    looks: dict[str, dict[str, CompiledButton]] = {}
    if sets_look(version.layer):
        met = _Met(snapshot, today)
        for look_class in _look_classes(snapshot, today):
            if look_class.placement is Placement.OUTSIDE:
                continue
            if not version.reach.placements or look_class.placement in version.reach.placements:
                document = under_version(look_class, version).document
                those = [under_version(each, version) for each in met.by(look_class)]
                high = reserve(snapshot, document, those)
                wire: CompiledButton = {**compile_button(document, snapshot.kit), "high": high}
                wire = _standing(
                    wire, document, look_class.placement, snapshot.settings.languages, snapshot.store.timezone
                )
                looks.setdefault(look_class.placement.value, {})[look_class.key] = wire
    return {"words": compile_words(version.layer), "looks": looks}


def content_hash(content: Mapping[str, object]) -> str:
    """Return the name of some content by its own bytes: equal content, equal name."""
    text = json.dumps(content, sort_keys=True, ensure_ascii=False, separators=(",", ":"))
    return hashlib.sha256(text.encode()).hexdigest()[:16]
