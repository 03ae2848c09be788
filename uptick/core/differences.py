"""What differs between two drafts: buttons, grouped by how they were changed, and how many things were."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from itertools import chain
from itertools import product as crossing

from uptick.core.catalogue import Product
from uptick.core.classes import ButtonClass, bare_class, groups_of
from uptick.core.document import (
    ButtonDocument,
    Device,
    Placement,
    ShopperKind,
    Situation,
    field_name,
    value_text,
)
from uptick.core.documents import documents_of
from uptick.core.memo import Kept, remembered
from uptick.core.merge import Json, at_path, leaves
from uptick.core.reach import Context
from uptick.core.resolve import RuleIndex, VersionLayer, clean_layers, index_of
from uptick.core.settings import ExceptionRule, Settings

# Who sees it: the dimensions of a reach that neither the product nor the placement tells.
Seer = tuple[Device, str, ShopperKind]


@dataclass(frozen=True, slots=True)
class FieldChange:
    """One field of the document that differs: its path, what a designer calls it, and both values in words."""

    path: str
    field: str
    before: str
    after: str


@dataclass(frozen=True, slots=True)
class ButtonChange:
    """One kind of button that a release would change, before and after; `seen_by` says on which devices, by whom."""

    placement: Placement
    products: tuple[Product, ...]
    before: ButtonClass
    after: ButtonClass
    fields: tuple[FieldChange, ...]
    seen_by: frozenset[Seer]


@dataclass(slots=True)
class _Pair:
    """Two classes that differ, as they were and are, with the products and those who meet the difference."""

    was: ButtonDocument
    now: ButtonDocument
    bits: tuple[int, int]
    members: dict[int, tuple[Product, ...]] = field(default_factory=dict)
    seen_by: set[Seer] = field(default_factory=set)


@remembered(16)
def changes_between(before: Settings, after: Settings, products: Sequence[Product]) -> tuple[ButtonChange, ...]:
    """Return the buttons that differ, grouped so that those of a placement changed in the same way stand together.

    The group is shown by its least narrowed button. The cost grows with the kinds of products that exceptions tell
    apart, and with the products themselves by one look at each.
    """
    if before is after:
        return ()
    groups: dict[tuple[Placement, tuple[FieldChange, ...]], list[_Pair]] = {}
    for placement, pair in _pairs(before, after, products):
        groups.setdefault((placement, field_changes(pair.was, pair.now)), []).append(pair)
    return tuple(
        _change(before, after, placement, fields, pairs) for (placement, fields), pairs in groups.items() if fields
    )


def _change(
    before: Settings, after: Settings, placement: Placement, fields: tuple[FieldChange, ...], pairs: list[_Pair]
) -> ButtonChange:
    plainest = min(pairs, key=lambda pair: pair.bits[1].bit_count())
    # Kinds of products are told apart wholly, so the same product never stands in two of them.
    members = {name: those for pair in pairs for name, those in pair.members.items()}
    return ButtonChange(
        placement,
        tuple(chain.from_iterable(members.values())),
        bare_class(before, placement, plainest.bits[0]),
        bare_class(after, placement, plainest.bits[1]),
        fields,
        frozenset().union(*(pair.seen_by for pair in pairs)),
    )


def _pairs(before: Settings, after: Settings, products: Sequence[Product]) -> Iterator[tuple[Placement, _Pair]]:
    """Yield pairs of classes whose buttons differ; which contexts meet them is worked out with bits alone."""
    one, other = index_of(before), index_of(after)
    kinds = _kinds(one, other, products)
    seers = list(crossing(Device, dict.fromkeys((*before.languages, *after.languages)), ShopperKind))
    old, new = documents_of(before).at, documents_of(after).at
    for placement in Placement:
        found: dict[tuple[int, int], _Pair | None] = {}
        met = {situation: _met(one, other, placement, situation, seers) for situation in Situation}
        for (bits, other_bits, situation), members in kinds.items():
            for (here, there), who in met[situation].items():
                key = (bits & here, other_bits & there)
                if key not in found:
                    was, now = old[placement].of(key[0]), new[placement].of(key[1])
                    found[key] = _Pair(was, now, key) if _differ(was, now) else None
                if pair := found[key]:
                    pair.members[id(members)] = members
                    pair.seen_by.update(who)
        yield from ((placement, pair) for pair in found.values() if pair)


def _differ(was: ButtonDocument, now: ButtonDocument) -> bool:
    """Tell whether two documents differ in what they set; wider texts show for single products only."""
    return was is not now and was.__dict__ != now.__dict__


def _met(
    one: RuleIndex, other: RuleIndex, placement: Placement, situation: Situation, seers: Sequence[Seer]
) -> dict[tuple[int, int], list[Seer]]:
    """Return those who see a placement by the rules of either side that may hold for them."""
    found: dict[tuple[int, int], list[Seer]] = {}
    for seer in seers:
        bits = one.of_place(placement, situation, *seer), other.of_place(placement, situation, *seer)
        found.setdefault(bits, []).append(seer)
    return found


def _kinds(
    one: RuleIndex, other: RuleIndex, products: Sequence[Product]
) -> dict[tuple[int, int, Situation], tuple[Product, ...]]:
    """Return the products that neither side's exceptions tell apart, by situation."""
    if one is other:
        return {
            (group.bits, group.bits, situation): members
            for group in groups_of(one, products)
            for situation, members in group.by_situation.items()
        }
    found: dict[tuple[int, int, Situation], list[Product]] = {}
    for product in products:
        sku, category = product.sku, product.category
        key = (one.of_product(sku, category), other.of_product(sku, category), product.situation)
        found.setdefault(key, []).append(product)
    return {key: tuple(members) for key, members in found.items()}


def field_changes(was: ButtonDocument, now: ButtonDocument) -> tuple[FieldChange, ...]:
    """Return the fields in which two documents differ, the look's first."""
    parts = [(getattr(was, name), getattr(now, name)) for name in _FIXED]
    key = tuple((id(mine), id(theirs)) for mine, theirs in parts)
    return (*_drawn.get(key, (was, now), lambda: _drawn_changes(was, now)), *_said_changes(was, now))


_FIXED = tuple(name for name in ButtonDocument.model_fields if name != "wording")
# Far fewer looks differ than buttons do.
_drawn: Kept[tuple[FieldChange, ...]] = Kept(4096)


def _drawn_changes(was: ButtonDocument, now: ButtonDocument) -> tuple[FieldChange, ...]:
    def dumped(document: ButtonDocument) -> Json:
        return document.model_dump(mode="json", exclude={"wording"})

    return field_changes_of(dumped(was), dumped(now))


def _said_changes(was: ButtonDocument, now: ButtonDocument) -> tuple[FieldChange, ...]:
    old, new = was.wording, now.wording
    if old is new:
        return ()
    paths = dict.fromkeys((moment, language) for texts in (old, new) for moment in texts for language in texts[moment])
    found = [(moment, language, old.get(moment, {}).get(language), new.get(moment, {}).get(language))
             for moment, language in paths]  # fmt: skip
    return tuple(
        FieldChange(path := f"wording.{moment}.{language}", field_name(path), value_text(mine), value_text(theirs))
        for moment, language, mine, theirs in found
        if mine != theirs
    )


def field_changes_of(old: Json, new: Json) -> tuple[FieldChange, ...]:
    """Return the fields in which two documents differ."""
    paths = dict.fromkeys([path for path, _ in leaves(old)] + [path for path, _ in leaves(new)])
    return tuple(
        FieldChange(path, field_name(path), value_text(at_path(old, path)), value_text(at_path(new, path)))
        for path in paths
        if at_path(old, path) != at_path(new, path)
    )


def touches(changes: Sequence[ButtonChange], version: VersionLayer) -> bool:
    """Tell whether any change is to a button that a trial compares, for somebody who is in it."""
    return any(_touches(change, version) for change in changes)


def _touches(change: ButtonChange, version: VersionLayer) -> bool:
    reach = version.reach
    anywhere = reach.model_copy(update={"situations": ()})
    if not any(anywhere.covers_where(Context(change.placement, "", "", None, *seer)) for seer in change.seen_by):
        return False
    return any(
        reach.covers_product(product.sku, product.category)
        and (not reach.situations or product.situation in reach.situations)
        for product in change.products
    )


@remembered(16)
def count_changes(before: Settings, after: Settings) -> int:
    """Return how many things were changed: fields of layers, and exceptions made, removed or changed themselves."""
    if before is after:
        return 0
    old, new = clean_layers(before), clean_layers(after)
    count = len(set(before.languages) ^ set(after.languages))
    for layer in {**old, **new}:
        if layer.startswith("exception:") and (layer not in old or layer not in new):
            count += 1
            continue
        count += _count_fields(old.get(layer, _NOTHING), new.get(layer, _NOTHING))
    earlier = {rule.id: rule for rule in before.exceptions}
    return count + sum(rule.id in earlier and _differs(earlier[rule.id], rule) for rule in after.exceptions)


_NOTHING: Json = {}


# Nearly every layer and exception is the same after an edit as before it.
@remembered(4096)
def _count_fields(before: Json, after: Json) -> int:
    mine, theirs = dict(leaves(before)), dict(leaves(after))
    return sum(mine.get(path) != theirs.get(path) for path in {**mine, **theirs})


@remembered(4096)
def _differs(before: ExceptionRule, after: ExceptionRule) -> bool:
    """Tell whether an exception was changed in anything but its layer."""
    return before.model_copy(update={"layer": after.layer}) != after
