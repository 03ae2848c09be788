"""Classes: what the same exceptions cover shares one button document, and that is what is resolved."""

from collections import OrderedDict
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cached_property, lru_cache
from itertools import chain
from itertools import product as crossing

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
from uptick.core.documents import DocumentsAt, documents_of
from uptick.core.memo import remembered
from uptick.core.merge import merge_layer, without_gaps
from uptick.core.reach import Context
from uptick.core.resolve import (
    RuleIndex,
    VersionLayer,
    covering,
    index_of,
    resolve_layers,
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


def bare_class(settings: Settings, placement: Placement, bits: int) -> ButtonClass:
    """Return the class in which some rules hold, without its products."""
    here = documents_of(settings).at[placement]
    return ButtonClass(placement, here.rules(bits), here.of(bits), (), frozenset(), (None, None))


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
    layer = without_gaps(version.layer)
    document = parse_document(merge_layer(one.document.model_dump(mode="json"), layer))
    narrowed = {
        (moment, language): one.document.texts(moment, language)
        for moment, by_language in wording_of(layer).items()
        for language in by_language
    }
    return replace(one, document=document.with_texts(document.wording, {**one.document.wider, **narrowed}))


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
