"""Exceptions: what each sets and reaches, and exactly which buttons it changes."""

from dataclasses import dataclass
from datetime import date, datetime
from typing import Any

from uptick.core.button.document import Moment, Placement
from uptick.core.button.field_words import value_text
from uptick.core.button.fields import field_title
from uptick.core.button.merge import leaves, without_gaps
from uptick.core.checks import dead_values
from uptick.core.errors import NotFound
from uptick.core.resolved.classes import LEADING
from uptick.core.resolved.differences import FieldChange
from uptick.core.resolved.effect import Effect, effects_of
from uptick.core.resolved.reach_words import read_reach, say_reach, vocabulary_of
from uptick.core.rules.reach import Reach
from uptick.usecases.ports import Shop
from uptick.usecases.state import Shown, show, telling_language


@dataclass(frozen=True, slots=True)
class FieldSet:
    """A value that an exception sets. A dead one never wins anywhere."""

    path: str
    field: str
    value: Any
    value_words: str
    dead: bool


@dataclass(frozen=True, slots=True)
class ExceptionView:
    """An exception; `inactive` says why it does not count today, `gone` are codes that the catalogue has not."""

    id: str
    name: str
    note: str
    author: str
    made_at: datetime
    reach: Reach
    reach_words: str
    on: bool
    starts_on: date | None
    ends_on: date | None
    meant: bool
    inactive: str
    fields: tuple[FieldSet, ...]
    products: int
    gone: tuple[str, ...]


def view_exceptions(shop: Shop) -> tuple[ExceptionView, ...]:
    """Return the exceptions of the draft with what they set and how many products they reach."""
    draft = shop.drafts.read()
    snapshot = shop.at(draft.settings)
    names = vocabulary_of(snapshot)
    dead = dead_values(snapshot)
    counts = _reached(shop)
    known = names.products
    views = []
    for rule in draft.settings.exceptions:
        gone = tuple(sku for sku in rule.reach.products if sku not in known)
        inactive = rule.inactive(shop.today)
        if not inactive and gone and len(gone) == len(rule.reach.products):
            inactive = "inactive: not in the catalogue"
        fields = tuple(
            FieldSet(path, field_title(path), value, value_text(value), path in dead.get(rule.id, ()))
            for path, value in leaves(without_gaps(dict(rule.layer)))
        )
        views.append(
            ExceptionView(
                rule.id, rule.name, rule.note, rule.author, rule.made_at, rule.reach, say_reach(rule.reach, names),
                rule.on, rule.starts_on, rule.ends_on, rule.meant, inactive, fields, counts.get(rule.id, 0), gone,
            )
        )  # fmt: skip
    return tuple(views)


def _reached(shop: Shop) -> dict[str, int]:
    """Return how many products, as they are now, each exception's reach holds, inactive or not."""
    settings = shop.drafts.read().settings
    awake = settings.model_copy(
        update={"exceptions": tuple(rule.model_copy(update={"on": True}) for rule in settings.exceptions)}
    )
    snapshot = shop.as_written(awake)
    counts: dict[str, int] = {}
    for group in snapshot.cover.groups:
        for batch in group.batches:
            for rule in snapshot.index.named(group.bits[0] & snapshot.index.of_situation(batch.situation)):
                counts[rule.id] = counts.get(rule.id, 0) + len(batch)
    return counts


@dataclass(frozen=True, slots=True)
class EffectView:
    """One kind of button that an exception changes, both ways rendered. Names are told of at most 200 products."""

    placement: Placement
    products: int
    names: tuple[str, ...]
    moments: tuple[Moment, ...]
    before: Shown
    after: Shown
    fields: tuple[FieldChange, ...]


@dataclass(frozen=True, slots=True)
class ExceptionEffects:
    id: str
    products: int
    changes: tuple[EffectView, ...]


def view_effects(shop: Shop, rule_id: str) -> ExceptionEffects:
    """Return exactly which buttons an exception changes, and how: where it is on, and where it would be.

    Raises:
        NotFound: There is no such exception.
    """
    snapshot = shop.now()
    if snapshot.settings.exception(rule_id) is None:
        raise NotFound(f"There is no exception {rule_id!r}.", exception=rule_id)
    effects = effects_of(snapshot, rule_id)
    touched = {product.sku for effect in effects for product in effect.products}
    return ExceptionEffects(rule_id, len(touched), tuple(_effect(shop, effect) for effect in effects))


def _effect(shop: Shop, effect: Effect) -> EffectView:
    example = effect.products[0]
    language = telling_language([f.path for f in effect.fields], shop.store.language)
    moment = effect.moments[0] if effect.moments else LEADING[example.situation]
    return EffectView(
        effect.placement,
        len(effect.products),
        tuple(product.name for product in effect.products[:200]),
        effect.moments,
        show(shop, effect.without, moment, example, language),
        show(shop, effect.with_it, moment, example, language),
        effect.fields,
    )


@dataclass(frozen=True, slots=True)
class ReachRead:
    """A reach that was said in words: understood, said back, and how many products it holds."""

    reach: Reach
    words: str
    products: int
    examples: tuple[str, ...]


def view_reach(shop: Shop, text: str) -> ReachRead:
    """Return what some words reach.

    Raises:
        BadReach: A word means nothing here; says which, and what may have been meant.
    """
    names = vocabulary_of(shop.now())
    reach = read_reach(text, names)
    reached = [product for product in shop.catalogue.all() if reach.covers_goods(product)]
    return ReachRead(reach, say_reach(reach, names), len(reached), tuple(p.name for p in reached[:6]))
