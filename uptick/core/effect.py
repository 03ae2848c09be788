"""The trace the other way round: which buttons an exception changes, and how."""

from collections.abc import Sequence
from dataclasses import dataclass

from uptick.core.catalogue import Product
from uptick.core.classes import ButtonClass
from uptick.core.document import Moment, Placement
from uptick.core.release import FieldChange, differing_classes, field_changes
from uptick.core.settings import Settings


@dataclass(frozen=True, slots=True)
class Effect:
    """One kind of button that an exception changes: without it, with it, and for how many products."""

    placement: Placement
    without: ButtonClass
    with_it: ButtonClass
    products: tuple[Product, ...]
    fields: tuple[FieldChange, ...]
    moments: tuple[Moment, ...]


def effects_of(settings: Settings, rule_id: str, products: Sequence[Product]) -> tuple[Effect, ...]:
    """Return what an exception changes where it is on: exactly the buttons that would differ if it were off."""
    on, off = settings.with_exception(rule_id, on=True), settings.with_exception(rule_id, on=False)
    found = []
    for was, now, members in differing_classes(off, on, products):
        fields = field_changes(was, now)
        moments = dict.fromkeys(Moment(f.path.split(".")[1]) for f in fields if f.path.startswith("wording."))
        found.append(Effect(was.placement, was, now, members, fields, tuple(moments)))
    return tuple(found)


def count_reached(settings: Settings, rule_id: str, products: Sequence[Product]) -> int:
    """Return how many products an exception's reach holds, whatever else covers them."""
    rule = settings.exception(rule_id)
    return sum(rule.reach.covers_product(p.sku, p.category) for p in products) if rule else 0
