"""Resolution: baseline, placement, exceptions from the least to the most particular, then versions."""

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any, NamedTuple

from uptick.core.document import ButtonDocument, Device, Placement, ShopperKind, Situation
from uptick.core.memo import remembered
from uptick.core.merge import Json, at_path, merge_layer, without_gaps
from uptick.core.reach import Context, Reach
from uptick.core.settings import ExceptionRule, Settings
from uptick.core.wider_texts import document_of


@dataclass(frozen=True, slots=True)
class VersionLayer:
    """One version of a running trial as a layer."""

    trial: str
    letter: str
    reach: Reach
    layer: Json


@dataclass(frozen=True, slots=True)
class Candidate:
    """One layer that has something to say about a field, in a trace. `asleep` says why it does not count now."""

    layer: str
    title: str
    reach: Reach | None
    note: str
    author: str
    made_at: datetime | None
    value: Any
    wins: bool
    asleep: str = ""


class _Dimension(NamedTuple):
    """Which rules cover a value of one dimension: bits, the least particular rule lowest."""

    unnarrowed: int
    by_value: Mapping[str, int]

    def covering(self, value: str | None) -> int:
        return self.unnarrowed if value is None else self.by_value.get(value, self.unnarrowed)


class RuleIndex:
    """The exceptions that are on, in the order in which they apply, as bits: covering costs a few looks-up."""

    def __init__(self, rules: Iterable[ExceptionRule]) -> None:
        # Sorting keeps equal ones in the order in which they were made: the later wins.
        self.rules = tuple(sorted((rule for rule in rules if rule.on), key=lambda rule: rule.reach.particularity()))
        reaches = [rule.reach for rule in self.rules]
        self._products = _dimension(reach.products for reach in reaches)
        self._categories = _dimension(reach.categories for reach in reaches)
        self._not_products = _named(reach.not_products for reach in reaches)
        self._not_categories = _named(reach.not_categories for reach in reaches)
        self._situations = _dimension(reach.situations for reach in reaches)
        self._placements = _dimension(reach.placements for reach in reaches)
        self._devices = _dimension(reach.devices for reach in reaches)
        self._languages = _dimension(reach.languages for reach in reaches)
        self._shoppers = _dimension(reach.shoppers for reach in reaches)

    def of_product(self, product: str, category: str) -> int:
        covered = self._products.covering(product) & self._categories.covering(category)
        return covered & ~(self._not_products.get(product, 0) | self._not_categories.get(category, 0))

    def of_place(
        self,
        placement: Placement,
        situation: Situation | None,
        device: Device | None,
        language: str | None,
        shopper: ShopperKind | None,
    ) -> int:
        return (
            self._situations.covering(situation)
            & self._placements.covering(placement)
            & self._devices.covering(device)
            & self._languages.covering(language)
            & self._shoppers.covering(shopper)
        )

    def of(self, context: Context) -> int:
        where = self.of_place(context.placement, context.situation, context.device, context.language, context.shopper)
        return where & self.of_product(context.product, context.category)

    def of_situation(self, situation: Situation) -> int:
        return self._situations.covering(situation)

    def of_device(self, device: Device) -> int:
        return self._devices.covering(device)

    def of_language(self, language: str) -> int:
        return self._languages.covering(language)

    def of_shopper(self, shopper: ShopperKind) -> int:
        return self._shoppers.covering(shopper)

    def named(self, bits: int) -> Iterator[ExceptionRule]:
        """Yield the rules of some bits, the least particular first."""
        while bits:
            lowest = bits & -bits
            yield self.rules[lowest.bit_length() - 1]
            bits ^= lowest


def _named(lists: Iterable[Sequence[str]]) -> dict[str, int]:
    found: dict[str, int] = {}
    for n, values in enumerate(lists):
        for value in values:
            found[value] = found.get(value, 0) | 1 << n
    return found


def _dimension(lists: Iterable[Sequence[str]]) -> _Dimension:
    listed = list(lists)
    free = sum(1 << n for n, values in enumerate(listed) if not values)
    return _Dimension(free, {value: bits | free for value, bits in _named(listed).items()})


@remembered(64)
def _index(rules: tuple[ExceptionRule, ...]) -> RuleIndex:
    return RuleIndex(rules)


def index_of(settings: Settings) -> RuleIndex:
    """Return the index of the exceptions that are on; the same object while no exception changes."""
    return _index(settings.exceptions)


def covering(settings: Settings, context: Context) -> tuple[ExceptionRule, ...]:
    """Return the exceptions that cover a context, the least particular first; of equals the later is later."""
    index = index_of(settings)
    return tuple(index.named(index.of(context)))


@dataclass(frozen=True, slots=True)
class _Step:
    layer_id: str
    title: str
    content: Json
    rule: ExceptionRule | None = None
    asleep: str = ""


@remembered(4096)
def _cleaned(layer: Json) -> Json:
    return without_gaps(layer)


@remembered(4096)
def _used(layer: Json, look: Json) -> Json:
    """Return a layer on the named look that it uses; its own values win."""
    own = {key: value for key, value in layer.items() if key != USES}
    merged: Json = merge_layer(look, own)
    return merged


USES = "uses"


@remembered(32)
def clean_layers(settings: Settings) -> dict[str, Json]:
    """Return every layer by its id, without gaps, on the named look that it uses.

    A layer that an edit leaves alone is the same object afterwards.
    """
    looks = {look_id: _cleaned(look.layer) for look_id, look in settings.looks.items()}

    def whole(layer: Json) -> Json:
        cleaned = _cleaned(layer)
        return _used(cleaned, looks.get(cleaned[USES], _NOTHING)) if USES in cleaned else cleaned

    layers = {"baseline": whole(settings.baseline)}
    layers |= {f"place:{place}": whole(layer) for place, layer in settings.placements.items()}
    return layers | {f"exception:{rule.id}": whole(rule.layer) for rule in settings.exceptions}


_NOTHING: Json = {}


def sets_look(layer: Json) -> bool:
    """Tell whether a layer sets anything but texts."""
    return any(key != "wording" for key in layer)


def sets_texts(layer: Json) -> bool:
    return bool(layer.get("wording"))


def _with_look(settings: Settings, layer: Json, title: str) -> str:
    look = settings.looks.get(layer.get(USES, ""))
    return f"{title}, with the look {look.name}" if look else title


def place_title(placement: str) -> str:
    return placement.replace("_", " ").capitalize()


def _steps(settings: Settings, context: Context, versions: Sequence[VersionLayer]) -> list[_Step]:
    place = context.placement
    layers = clean_layers(settings)
    steps = [
        _Step("baseline", _with_look(settings, settings.baseline, "Store baseline"), layers["baseline"]),
        _Step(
            f"place:{place}",
            _with_look(settings, settings.placements.get(place, {}), place_title(place)),
            layers.get(f"place:{place}", {}),
        ),
    ]
    for rule in covering(settings, context):
        title = _with_look(settings, rule.layer, rule.name)
        steps.append(_Step(f"exception:{rule.id}", title, layers[f"exception:{rule.id}"], rule))
    steps += [
        _Step(f"trial:{v.trial}:{v.letter}", f"Trial {v.trial}, version {v.letter}", without_gaps(v.layer))
        for v in versions
        if v.reach.covers(context)
    ]
    return steps


def resolve_raw(settings: Settings, context: Context, versions: Sequence[VersionLayer] = ()) -> Json:
    """Return the merged document as plain JSON, not yet checked."""
    return _merged(step.content for step in _steps(settings, context, versions))


def _merged(layers: Iterable[Json]) -> Json:
    merged: Json = {}
    for layer in layers:
        merged = merge_layer(merged, layer)
    return merged


def resolve(settings: Settings, context: Context, versions: Sequence[VersionLayer] = ()) -> ButtonDocument:
    """Return the button document that holds in a context.

    Raises:
        BadDocument: The layers together do not make a button; names the field.
    """
    steps = [step.content for step in _steps(settings, context, versions)]
    return document_of(_merged(steps), steps)


def resolve_layers(settings: Settings, placement: Placement, rule_ids: Iterable[str]) -> ButtonDocument:
    """Return the document of a placement narrowed by given exceptions in their order.

    Raises:
        BadDocument: As for `resolve`.
    """
    layers = clean_layers(settings)
    stack = [
        layers["baseline"],
        layers.get(f"place:{placement}", {}),
        *(layers[f"exception:{rule}"] for rule in rule_ids),
    ]
    return document_of(_merged(stack), stack)


def trace(
    settings: Settings,
    context: Context,
    field: str,
    versions: Sequence[VersionLayer] = (),
    sleeping: Mapping[str, str] | None = None,
) -> tuple[Candidate, ...]:
    """Return every layer that sets `field` in this context, the winner first.

    Args:
        sleeping: Exceptions by id that do not count now, with the reason; they are listed where they would stand.
    """
    said = [
        (step, value)
        for step in _steps(settings, context, versions)
        if (value := at_path(step.content, field)) is not None
    ]
    found = [_candidate(step, value, wins=n == 0) for n, (step, value) in enumerate(reversed(said))]
    for rule in settings.exceptions:
        why = (sleeping or {}).get(rule.id)
        value = at_path(clean_layers(settings)[f"exception:{rule.id}"], field)
        if why and value is not None and rule.reach.covers(context):
            step = _Step(f"exception:{rule.id}", rule.name, {}, rule, why)
            found.append(_candidate(step, value, wins=False))
    return tuple(found)


def _candidate(step: _Step, value: Any, *, wins: bool) -> Candidate:
    rule = step.rule
    return Candidate(
        layer=step.layer_id,
        title=step.title,
        reach=rule.reach if rule else None,
        note=rule.note if rule else "",
        author=rule.author if rule else "",
        made_at=rule.made_at if rule else None,
        value=value,
        wins=wins,
        asleep=step.asleep,
    )
