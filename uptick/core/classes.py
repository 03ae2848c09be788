"""Classes: what the same exceptions cover shares one button document, and that is what is resolved."""

from collections import OrderedDict
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cached_property, lru_cache
from itertools import chain
from itertools import product as crossing
from typing import Any

from uptick.core.catalogue import Product
from uptick.core.document import (
    ButtonDocument,
    Device,
    Moment,
    Placement,
    ShopperKind,
    Situation,
    parse_document,
    wording_of,
)
from uptick.core.errors import BadDocument
from uptick.core.memo import Kept, remembered
from uptick.core.merge import Json, merge_layer, without_gaps
from uptick.core.reach import Context
from uptick.core.resolve import (
    RuleIndex,
    VersionLayer,
    clean_layers,
    covering,
    index_of,
    resolve_layers,
    sets_look,
    sets_texts,
)
from uptick.core.settings import Settings

_BOUGHT = (Moment.WORKING, Moment.ADDED, Moment.IN_BASKET)
MOMENTS_OF = {
    Situation.PLAIN: (Moment.READY, *_BOUGHT),
    Situation.CHOICE: (Moment.CHOOSE_FIRST, Moment.READY, *_BOUGHT),
    Situation.SET: (Moment.READY, *_BOUGHT),
    Situation.PRE_ORDER: (Moment.PRE_ORDER, *_BOUGHT),
    Situation.SOLD_OUT: (Moment.SOLD_OUT,),
}
LEADING = {situation: moments[0] for situation, moments in MOMENTS_OF.items()}

Where = tuple[Device, str]


# Told apart by identity: comparing documents would cost more than anything that is done with them.
@dataclass(frozen=True, eq=False)
class ButtonClass:
    """One document and what it serves now. `rules` are the ids of the covering exceptions, the least particular first.

    `batches` hold the products by situation; `where` the devices and languages in which the class is met. Documents
    that are equal are one object.
    """

    placement: Placement
    rules: tuple[str, ...]
    document: ButtonDocument
    batches: tuple[tuple[Product, ...], ...]
    where: frozenset[Where]
    example_of: "tuple[Group | None, _Bucket | None]"

    @property
    def example(self) -> Context:
        """Return one context in which just these rules hold."""
        group, bucket = self.example_of
        if group is None or bucket is None:
            return Context(self.placement, "", "", None)
        return Context(self.placement, group.sku, group.category, *bucket.example)

    @cached_property
    def key(self) -> str:
        return ",".join(self.rules)

    @property
    def keys(self) -> tuple[str, ...]:
        return (self.key,)

    @cached_property
    def products(self) -> tuple[Product, ...]:
        return tuple(chain.from_iterable(self.batches))

    @property
    def count(self) -> int:
        return sum(map(len, self.batches))

    @property
    def situations(self) -> tuple[Situation, ...]:
        return tuple(dict.fromkeys(batch[0].situation for batch in self.batches))

    @property
    def top_layer(self) -> str:
        """Return the id of the layer that an edit of just this class belongs to."""
        return f"exception:{self.rules[-1]}" if self.rules else f"place:{self.placement}"

    @cached_property
    def languages(self) -> tuple[str, ...]:
        return tuple(sorted({language for _, language in self.where}))

    def devices(self, language: str) -> tuple[Device, ...]:
        return tuple(device for device in Device if (device, language) in self.where)


@dataclass(frozen=True, eq=False)
class ButtonKind(ButtonClass):
    """Classes that have one document, seen as one: with the rules of the least narrowed, and the keys of all."""

    all_keys: tuple[str, ...] = ()

    @property
    def keys(self) -> tuple[str, ...]:
        return self.all_keys


def context_of(
    placement: Placement,
    product: Product,
    situation: Situation | None = None,
    device: Device | None = None,
    language: str | None = None,
    shopper: ShopperKind | None = None,
) -> Context:
    return Context(placement, product.sku, product.category, situation or product.situation, device, language, shopper)


@dataclass(frozen=True, slots=True)
class Group:
    """Products of one kind for every rule, by situation. The first of a shop stands for products that nobody knows."""

    bits: int
    sku: str
    category: str
    by_situation: Mapping[Situation, tuple[Product, ...]]


_kept_groups: OrderedDict[tuple[object, ...], tuple[Sequence[Product], tuple[Group, ...]]] = OrderedDict()


def groups_of(index: RuleIndex, products: Sequence[Product]) -> tuple[Group, ...]:
    """Return the products grouped by the rules that may cover them; remembered while no rule's products change."""
    reaches = tuple(
        (r.reach.products, r.reach.categories, r.reach.not_products, r.reach.not_categories) for r in index.rules
    )
    key = (id(products), reaches)
    kept = _kept_groups.get(key)
    if kept is None:
        kept = _kept_groups[key] = (products, _group(index, products))
        while len(_kept_groups) > 24:
            _kept_groups.popitem(last=False)
    return kept[1]


def _group(index: RuleIndex, products: Sequence[Product]) -> tuple[Group, ...]:
    found: dict[int, tuple[str, str, dict[Situation, list[Product]]]] = {index.of_product("", ""): ("", "", {})}
    for one in products:
        _, _, members = found.setdefault(index.of_product(one.sku, one.category), (one.sku, one.category, {}))
        members.setdefault(one.situation, []).append(one)
    return tuple(
        Group(bits, sku, category, {situation: tuple(of) for situation, of in members.items()})
        for bits, (sku, category, members) in found.items()
    )


@dataclass(slots=True)
class _Bucket:
    """Contexts in which the same rules hold, as far as product and category are left out. `where` are bits."""

    bits: int
    example: tuple[Situation, Device, str, ShopperKind]
    where: dict[Situation, int]


@remembered(32)
def _buckets(index: RuleIndex, languages: tuple[str, ...]) -> dict[Placement, list[_Bucket]]:
    found: dict[Placement, dict[int, _Bucket]] = {placement: {} for placement in Placement}
    places = {place: 1 << n for n, place in enumerate(crossing(Device, languages))}
    for placement in Placement:
        for situation, device, language, shopper in crossing(Situation, Device, languages, ShopperKind):
            bits = index.of_place(placement, situation, device, language, shopper)
            bucket = found[placement].get(bits)
            if bucket is None:
                bucket = found[placement][bits] = _Bucket(bits, (situation, device, language, shopper), {})
            bucket.where[situation] = bucket.where.get(situation, 0) | places[device, language]
    return {placement: list(buckets.values()) for placement, buckets in found.items()}


@lru_cache(maxsize=4096)
def _where(bits: int, languages: tuple[str, ...]) -> frozenset[Where]:
    return frozenset(place for n, place in enumerate(crossing(Device, languages)) if bits >> n & 1)


@dataclass(slots=True)
class _Gathered:
    example: tuple[Group | None, _Bucket | None]
    batches: dict[int, tuple[Product, ...]]
    where: int


@remembered(32)
def _gather(
    index: RuleIndex, languages: tuple[str, ...], products: Sequence[Product]
) -> dict[Placement, dict[int, _Gathered]]:
    buckets = _buckets(index, languages)
    found: dict[Placement, dict[int, _Gathered]] = {placement: {} for placement in Placement}
    groups = groups_of(index, products)
    for placement, kept in found.items():
        # The plain class comes first, whatever covers the products there are.
        kept[0] = _Gathered((None, None), {}, 0)
        for group in groups:
            for bucket in buckets[placement]:
                bits = group.bits & bucket.bits
                one = kept.get(bits)
                if one is None:
                    one = kept[bits] = _Gathered((group, bucket), {}, 0)
                for situation, where in bucket.where.items():
                    one.where |= where
                    members = group.by_situation.get(situation)
                    if members:
                        one.batches[id(members)] = members
    return found


Wording = dict[Moment, dict[str, str]]


@remembered(32)
def documents_of(settings: Settings) -> "Documents":
    return Documents(settings, index_of(settings))


_NO_LAYER: Json = {}
_Look = tuple[str, ButtonDocument]
# Across edits: what an edit leaves alone is not resolved again, and stays the same object.
_looks: Kept[_Look] = Kept(8192)
_wordings: Kept[tuple[object, Wording]] = Kept(32_768)
_same_words: Kept[Wording] = Kept(32_768)
_documents: Kept[ButtonDocument] = Kept(32_768)
_same: Kept[Any] = Kept(32_768)
_stacks: Kept[tuple[Json, ...]] = Kept(64)


@remembered(8192)
def _texts_of(texts: Json) -> Wording:
    return wording_of({"wording": texts})


class Documents:
    """The documents of a shop by placement; those of a placement stay the same object while an edit is elsewhere."""

    def __init__(self, settings: Settings, index: RuleIndex) -> None:
        layers = clean_layers(settings)
        narrow = tuple([layers[f"exception:{rule.id}"] for rule in index.rules])
        narrow = _stacks.get(tuple(map(id, narrow)), narrow, lambda: narrow)
        self.look_bits = _bits_of(narrow, sets_look)
        self.word_bits = _bits_of(narrow, sets_texts)
        self.at = {
            place: _documents_at(place, layers["baseline"], layers.get(f"place:{place}", _NO_LAYER), narrow, index)
            for place in Placement
        }

    def of(self, placement: Placement, bits: int) -> ButtonDocument:
        return self.at[placement].of(bits)

    def button(self, placement: Placement, bits: int) -> ButtonClass:
        """Return a class without its products."""
        here = self.at[placement]
        return ButtonClass(placement, here.rules(bits), here.of(bits), (), frozenset(), (None, None))


@remembered(256)
def _bits_of(layers: tuple[Json, ...], sets: Callable[[Json], bool]) -> int:
    return sum(1 << n for n, layer in enumerate(layers) if sets(layer))


class DocumentsAt:
    """Documents of one placement, from a look and a wording that are each resolved once; equal ones are one object."""

    def __init__(self, place: Placement, wide: tuple[Json, Json], narrow: tuple[Json, ...], index: RuleIndex) -> None:
        self._place = place
        self._wide = wide
        self._narrow = narrow
        self._index = index
        self._look_bits = _bits_of(narrow, sets_look)
        self._word_bits = _bits_of(narrow, sets_texts)
        self._by_look: dict[int, ButtonDocument] = {}
        self._by_words: dict[int, Wording] = {}

    def of(self, bits: int) -> ButtonDocument:
        look = self._look(bits & self._look_bits)
        wording = self._wording(bits & self._word_bits)
        return _documents.get(
            (id(look), id(wording)), (look, wording), lambda: look.model_copy(update={"wording": wording})
        )

    def rules(self, bits: int) -> tuple[str, ...]:
        return tuple([rule.id for rule in self._index.named(bits)])

    def _stack(self, bits: int) -> list[Json]:
        return [*self._wide, *(layer for n, layer in enumerate(self._narrow) if bits >> n & 1)]

    def _look(self, bits: int) -> ButtonDocument:
        kept = self._by_look.get(bits)
        if kept is None:
            stack = [_without_texts(layer) for layer in self._stack(bits)]
            key, look = _looks.get(tuple(map(id, stack)), tuple(stack), lambda: _resolved(stack))
            # The placement is part of it: two buttons that look alike do not stand alike.
            kept = self._by_look[bits] = _same.get((self._place, key), (), lambda: look)
        return kept

    def _wording(self, bits: int) -> Wording:
        kept = self._by_words.get(bits)
        if kept is None:
            # An edit of a look leaves the texts of its layer the same objects.
            stack = [layer["wording"] for layer in self._stack(bits) if layer.get("wording")]
            key, merged = _wordings.get(tuple(map(id, stack)), tuple(stack), lambda: _merged(stack))
            kept = self._by_words[bits] = _same_words.get(key, (), lambda: merged)
        return kept


@remembered(256)
def _documents_at(
    place: Placement, baseline: Json, layer: Json, narrow: tuple[Json, ...], index: RuleIndex
) -> DocumentsAt:
    return DocumentsAt(place, (baseline, layer), narrow, index)


@remembered(4096)
def _without_texts(layer: Json) -> Json:
    """Return what a layer sets besides texts, which are the most of it and which no look depends on."""
    return {key: value for key, value in layer.items() if key != "wording"}


@remembered(4096)
def _on(wider: Json, layer: Json) -> Json:
    merged: Json = merge_layer(wider, layer)
    return merged


def _resolved(stack: Sequence[Json]) -> _Look:
    # Baseline and placement are the same for all that narrow them.
    merged = _on(stack[0], stack[1])
    for layer in stack[2:]:
        merged = merge_layer(merged, layer)
    look = parse_document({**merged, "wording": {}})
    return look.model_dump_json(), look


def _merged(stack: Sequence[Json]) -> tuple[object, Wording]:
    """Return the texts of some layers together, and a key that is equal for equal texts."""
    wording: Wording = {}
    for texts in stack:
        for moment, by_language in _texts_of(texts).items():
            wording[moment] = {**wording.get(moment, {}), **by_language}
    if not wording:
        raise BadDocument("wording: a button needs words, at least for the ready moment.", field="wording")
    return tuple((moment, tuple(sorted(texts.items()))) for moment, texts in sorted(wording.items())), wording


@remembered(32)
def classes_of(settings: Settings, products: Sequence[Product]) -> tuple[ButtonClass, ...]:
    """Return the distinct classes of a shop, every placement's plain class first.

    A product's other situations are looked at too, since stock changes between releases. The cost grows with the number
    of distinct classes, and with that of products only by a look-up each.
    """
    return tuple(chain.from_iterable(_by_placement(settings, products)))


@remembered(32)
def kinds_of(settings: Settings, products: Sequence[Product]) -> tuple[ButtonKind, ...]:
    """Return the classes that some product is in now, and the plain ones, those with one document together."""
    return tuple(chain.from_iterable(map(_kinds_at, _by_placement(settings, products))))


def _by_placement(settings: Settings, products: Sequence[Product]) -> list[tuple[ButtonClass, ...]]:
    documents = documents_of(settings)
    frames = _frames(index_of(settings), settings.languages, products)
    return [_classes_at(documents.at[placement], those) for placement, those in frames.items()]


_Example = tuple[Group | None, "_Bucket | None"]
_Frame = tuple[Placement, int, tuple[str, ...], tuple[tuple[Product, ...], ...], frozenset[Where], _Example]


@remembered(32)
def _frames(index: RuleIndex, languages: tuple[str, ...], products: Sequence[Product]) -> dict[Placement, list[_Frame]]:
    """Return the classes by placement, without their documents: they stay the same while no reach changes."""
    return {
        placement: [
            (
                placement,
                bits,
                tuple([rule.id for rule in index.named(bits)]),
                tuple(one.batches.values()),
                _where(one.where, languages),
                one.example,
            )
            for bits, one in gathered.items()
        ]
        for placement, gathered in _gather(index, languages, products).items()
    }


@remembered(256)
def _classes_at(documents: DocumentsAt, frames: list[_Frame]) -> tuple[ButtonClass, ...]:
    """Return the classes of one placement; the same objects while an edit is elsewhere."""
    return tuple(
        [
            ButtonClass(placement, rules, documents.of(bits), batches, where, example)
            for placement, bits, rules, batches, where, example in frames
        ]
    )


@remembered(256)
def _kinds_at(classes: tuple[ButtonClass, ...]) -> tuple[ButtonKind, ...]:
    found: dict[int, list[ButtonClass]] = {}
    for one in classes:
        if one.batches or not one.rules:
            found.setdefault(id(one.document), []).append(one)
    return tuple([_kind(those) for those in found.values()])


def _kind(those: list[ButtonClass]) -> ButtonKind:
    first = min(those, key=lambda one: len(one.rules))
    batches = {id(batch): batch for one in those for batch in one.batches}
    where = first.where if len(those) == 1 else frozenset().union(*(one.where for one in those))
    keys = tuple(one.key for one in those)
    return ButtonKind(
        first.placement, first.rules, first.document, tuple(batches.values()), where, first.example_of, keys
    )


def under_version(one: ButtonClass, version: VersionLayer) -> ButtonClass:
    """Return a class as a version of a trial makes it, wherever the trial's reach covers its products."""
    raw = merge_layer(one.document.model_dump(mode="json"), without_gaps(version.layer))
    return replace(one, document=parse_document(raw))


@remembered(32)
def _by_rules(classes: Sequence[ButtonClass]) -> dict[tuple[Placement, tuple[str, ...]], ButtonClass]:
    return {(one.placement, one.rules): one for one in classes}


def class_for(classes: Sequence[ButtonClass], settings: Settings, context: Context) -> ButtonClass:
    """Return the class that serves a context; where nobody meets it, one without products."""
    rules = tuple(rule.id for rule in covering(settings, context))
    found = _by_rules(classes).get((context.placement, rules))
    return found or ButtonClass(
        context.placement, rules, resolve_layers(settings, context.placement, rules), (), frozenset(), (None, None)
    )
