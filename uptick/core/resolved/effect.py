"""The trace the other way round: which buttons an exception changes, and how."""

from dataclasses import dataclass

from uptick.core.button.document import Moment, Placement
from uptick.core.engine.snapshot import Snapshot
from uptick.core.resolved.classes import ButtonClass
from uptick.core.resolved.differences import FieldChange, changes_between
from uptick.core.shop.catalogue import Product


@dataclass(frozen=True, slots=True)
class Effect:
    """One kind of button that an exception changes: without it, with it, and for how many products."""

    placement: Placement
    without: ButtonClass
    with_it: ButtonClass
    products: tuple[Product, ...]
    fields: tuple[FieldChange, ...]
    moments: tuple[Moment, ...]


def effects_of(snapshot: Snapshot, rule_id: str) -> tuple[Effect, ...]:
    """Return what an exception changes where it is on: exactly the buttons that would differ if it were off."""
    settings = snapshot.settings
    on = snapshot.beside(settings.with_exception(rule_id, on=True))
    off = snapshot.beside(settings.with_exception(rule_id, on=False))
    effects = []
    for change in changes_between(off, on):
        texts = [field.path.split(".")[1] for field in change.fields if field.path.startswith("wording.")]
        moments = tuple(Moment(moment) for moment in dict.fromkeys(texts))
        effects.append(Effect(change.placement, change.before, change.after, change.products, change.fields, moments))
    return tuple(effects)
