"""What differs between two drafts: buttons, grouped by how they were changed, and how many things were."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from itertools import product as crossing

from uptick.core.button.document import ButtonDocument, Device, Placement, ShopperKind, Situation
from uptick.core.button.field_words import value_text
from uptick.core.button.fields import field_title
from uptick.core.button.merge import Json, at_path, leaves
from uptick.core.engine.cover import holding
from uptick.core.engine.goods import Batch, ProductGroup, group, products_in
from uptick.core.engine.layers import Layer
from uptick.core.engine.rules import RuleIndex
from uptick.core.engine.snapshot import PlaceStack, Snapshot
from uptick.core.engine.step import Step
from uptick.core.resolved.classes import ButtonClass, bare_class
from uptick.core.resolved.resolve import VersionLayer
from uptick.core.rules.places import held_products
from uptick.core.rules.reach import Context, Reach
from uptick.core.rules.settings import ExceptionRule
from uptick.core.shop.catalogue import Product

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
    batches: dict[int, Batch] = field(default_factory=dict)
    seen_by: set[Seer] = field(default_factory=set)


def changes_between(before: Snapshot, after: Snapshot) -> tuple[ButtonChange, ...]:
    """Return the buttons that differ, grouped so that those of a placement changed in the same way stand together.

    The group is shown by its least narrowed button. The cost grows with the kinds of products that exceptions tell
    apart, not with the products. Both are over the same catalogue: that of `after`.
    """
    key = (before.number, after.number)
    return after.tables.ask(Step.DIFFERENCE, key, lambda: _changes(before, after))


def _changes(before: Snapshot, after: Snapshot) -> tuple[ButtonChange, ...]:
    if before.number == after.number:
        return ()
    groups: dict[tuple[Placement, tuple[FieldChange, ...]], list[_Pair]] = {}
    known: dict[tuple[int, int], tuple[FieldChange, ...]] = {}
    for placement, pair in _pairs(before, after):
        changed = (*_drawn_changes(pair.was, pair.now, known), *_said_changes(pair.was, pair.now))
        groups.setdefault((placement, changed), []).append(pair)
    return tuple(
        _change(before, after, placement, fields, pairs) for (placement, fields), pairs in groups.items() if fields
    )


def _change(
    before: Snapshot, after: Snapshot, placement: Placement, fields: tuple[FieldChange, ...], pairs: list[_Pair]
) -> ButtonChange:
    plainest = min(pairs, key=lambda pair: pair.bits[1].bit_count())
    # Kinds of products are told apart wholly, so the same product never stands in two of them.
    batches = {number: batch for pair in pairs for number, batch in pair.batches.items()}
    return ButtonChange(
        placement,
        products_in(batches.values()),
        bare_class(before, placement, plainest.bits[0]),
        bare_class(after, placement, plainest.bits[1]),
        fields,
        frozenset().union(*(pair.seen_by for pair in pairs)),
    )


def _pairs(before: Snapshot, after: Snapshot) -> Iterator[tuple[Placement, _Pair]]:
    """Yield pairs of classes whose buttons differ; which contexts meet them is worked out with bits alone."""
    groups = [
        products for products in group(after.tables, after.goods, (before.index, after.index)) if products.batches
    ]
    languages = dict.fromkeys((*before.settings.languages, *after.settings.languages))
    seers = list(crossing(Device, languages, ShopperKind))
    # One that only one side has does not stand on the other.
    for placement in dict.fromkeys((*before.store.places, *after.store.places)):
        old, new = before.at(placement), after.at(placement)
        pair_of: dict[tuple[int, int], _Pair | None] = {}
        met = {situation: _met(before.index, after.index, placement, situation, seers) for situation in Situation}
        for products in _shown_groups(before, after, placement, groups):
            for batch in products.batches:
                for (here, there), who in met[batch.situation].items():
                    bits = (products.bits[0] & here, products.bits[1] & there)
                    if bits not in pair_of:
                        pair_of[bits] = _pair(old, new, bits)
                    if pair := pair_of[bits]:
                        pair.batches[batch.number] = batch
                        pair.seen_by.update(who)
        yield from ((placement, pair) for pair in pair_of.values() if pair)


def _shown_groups(
    before: Snapshot, after: Snapshot, placement: Placement, groups: Sequence[ProductGroup]
) -> Sequence[ProductGroup]:
    """Return groups with the products that a placement shows on either side."""
    was, now = (held_products(state.settings).get(placement) for state in (before, after))
    return groups if was is None or now is None else holding(groups, after.goods, was | now)


def _pair(old: PlaceStack, new: PlaceStack, bits: tuple[int, int]) -> _Pair | None:
    """Return two classes, or None where they look and say the same; wider texts show for single products only."""
    was, now = old.document(bits[0]), new.document(bits[1])
    return None if was is now or (was.bare == now.bare and was.wording == now.wording) else _Pair(was, now, bits)


def _met(
    before: RuleIndex, after: RuleIndex, placement: Placement, situation: Situation, seers: Sequence[Seer]
) -> dict[tuple[int, int], list[Seer]]:
    """Return those who see a placement by the rules of either side that may hold for them."""
    seers_of: dict[tuple[int, int], list[Seer]] = {}
    for seer in seers:
        bits = before.of_place(placement, situation, *seer), after.of_place(placement, situation, *seer)
        seers_of.setdefault(bits, []).append(seer)
    return seers_of


def _drawn_changes(
    was: ButtonDocument, now: ButtonDocument, known: dict[tuple[int, int], tuple[FieldChange, ...]]
) -> tuple[FieldChange, ...]:
    """Return in what two buttons are drawn differently; far fewer looks differ than buttons do."""
    old, new = was.bare, now.bare
    key = (id(old), id(new))
    if key not in known:
        known[key] = () if old is new else field_changes_of(_drawn(old), _drawn(new))
    return known[key]


def field_changes(was: ButtonDocument, now: ButtonDocument) -> tuple[FieldChange, ...]:
    """Return the fields in which two documents differ, the look's first."""
    return (*_drawn_changes(was, now, {}), *_said_changes(was, now))


def _drawn(document: ButtonDocument) -> Json:
    return document.model_dump(mode="json", exclude={"wording"})


def _said_changes(was: ButtonDocument, now: ButtonDocument) -> tuple[FieldChange, ...]:
    old, new = was.wording, now.wording
    if old is new:
        return ()
    paths = dict.fromkeys((moment, language) for texts in (old, new) for moment in texts for language in texts[moment])
    changed_texts = [(moment, language, old.get(moment, {}).get(language), new.get(moment, {}).get(language))
             for moment, language in paths]  # fmt: skip
    return tuple(
        FieldChange(path := f"wording.{moment}.{language}", field_title(path), value_text(mine), value_text(theirs))
        for moment, language, mine, theirs in changed_texts
        if mine != theirs
    )


def field_changes_of(old: Json, new: Json) -> tuple[FieldChange, ...]:
    """Return the fields in which two documents differ."""
    paths = dict.fromkeys([path for path, _ in leaves(old)] + [path for path, _ in leaves(new)])
    return tuple(
        FieldChange(path, field_title(path), value_text(at_path(old, path)), value_text(at_path(new, path)))
        for path in paths
        if at_path(old, path) != at_path(new, path)
    )


def touches(changes: Sequence[ButtonChange], version: VersionLayer) -> bool:
    """Tell whether any change is to a button that a trial compares, for somebody who is in it."""
    return any(_is_in(change, version.reach) for change in changes)


def _is_in(change: ButtonChange, reach: Reach) -> bool:
    seen = (Context(change.placement, "", "", None, *seer) for seer in change.seen_by)
    anywhere = reach.any_situation()
    return any(anywhere.covers_where(seen_reach) for seen_reach in seen) and any(
        map(reach.covers_goods, change.products)
    )


def count_changes(before: Snapshot, after: Snapshot) -> int:
    """Return how many things were changed: fields of layers, and exceptions made, removed or changed themselves."""
    old, new = before.layers, after.layers
    count = len(set(before.settings.languages) ^ set(after.settings.languages))
    for ref in {**old, **new}:
        mine, theirs = old.get(ref), new.get(ref)
        if mine is None or theirs is None:
            count += 1 if ref.kind == "exception" else _count_fields(mine, theirs)
        elif mine is not theirs and mine.content != theirs.content:
            count += _count_fields(mine, theirs)
    was, now = before.settings.pointed, after.settings.pointed
    count += sum(was.get(name) != now.get(name) for name in {**was, **now})
    earlier = {rule.id: rule for rule in before.settings.exceptions}
    return count + sum(rule.id in earlier and _differs(earlier[rule.id], rule) for rule in after.settings.exceptions)


def _count_fields(before: Layer | None, after: Layer | None) -> int:
    mine = dict(leaves(before.content)) if before else {}
    theirs = dict(leaves(after.content)) if after else {}
    return sum(mine.get(path) != theirs.get(path) for path in {**mine, **theirs})


def _differs(before: ExceptionRule, after: ExceptionRule) -> bool:
    """Tell whether an exception was changed in anything but its layer."""
    if before is after:
        return False
    return any(getattr(before, name) != getattr(after, name) for name in ExceptionRule.model_fields if name != "layer")
