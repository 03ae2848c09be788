"""The checks: what is wrong with a shop's buttons, by how much, and what would mend it."""

from collections.abc import Collection, Sequence

from uptick.core.catalogue import Product
from uptick.core.checks.contrast import check_contrast
from uptick.core.checks.edges import check_edges
from uptick.core.checks.finding import Finding, Mend, Spot, Weight
from uptick.core.checks.names import check_names
from uptick.core.checks.pairs import check_pairs
from uptick.core.checks.reaches import check_reaches, dead_values, fields_of
from uptick.core.checks.room import check_room
from uptick.core.checks.texts import check_texts
from uptick.core.classes import ButtonClass, ButtonKind, kinds_of
from uptick.core.kit import Kit
from uptick.core.memo import remembered
from uptick.core.settings import Settings
from uptick.core.store import Store

__all__ = ["Finding", "Mend", "Spot", "Weight", "dead_values", "fields_of", "findings_about", "findings_of"]

_ORDER = {Weight.MUST_FIX: 0, Weight.LOOK_AGAIN: 1, Weight.NOTE: 2}


@remembered(16)
def findings_of(settings: Settings, products: Sequence[Product], store: Store, kit: Kit) -> tuple[Finding, ...]:
    """Return everything the checks find in a shop as its settings count today, the worst first."""
    seen = _seen(settings, products, store)
    found = [*_of_buttons(settings, seen, seen, store, kit), *check_reaches(settings, products, store)]
    return _sorted(found)


def findings_about(
    settings: Settings, buttons: Collection[ButtonClass], products: Sequence[Product], store: Store, kit: Kit
) -> tuple[Finding, ...]:
    """Return what the checks find in some buttons, the worst first; what it costs does not grow with the others."""
    seen = _seen(settings, products, store)
    wanted = {(one.placement, one.key) for one in buttons}
    those = [kind for kind in seen if any((kind.placement, key) in wanted for key in kind.keys)]
    return _sorted(_of_buttons(settings, those, seen, store, kit))


def _seen(settings: Settings, products: Sequence[Product], store: Store) -> list[ButtonKind]:
    return [one for one in kinds_of(settings, products) if one.placement in store.surfaces]


def _of_buttons(
    settings: Settings, seen: Sequence[ButtonKind], every: Sequence[ButtonKind], store: Store, kit: Kit
) -> list[Finding]:
    return [
        *check_contrast(settings, seen, store, kit, every),
        *check_edges(settings, seen, store),
        *check_names(settings, seen),
        *check_pairs(seen, store, kit),
        *check_room(seen, store, settings.languages, kit),
        *check_texts(settings, seen),
    ]


def _sorted(found: Sequence[Finding]) -> tuple[Finding, ...]:
    return tuple(sorted(found, key=lambda f: (_ORDER[f.weight], f.rule, f.title)))
