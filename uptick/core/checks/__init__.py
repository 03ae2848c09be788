"""The checks: what is wrong with a shop's buttons, by how much, and what would fix it."""

from collections.abc import Callable, Iterable, Iterator, Sequence

from uptick.core.checks.contrast import check_contrast
from uptick.core.checks.edges import check_edges
from uptick.core.checks.finding import Finding, Fix, Found, Spot, Weight
from uptick.core.checks.messages import check_messages
from uptick.core.checks.names import check_names
from uptick.core.checks.pairs import check_pairs
from uptick.core.checks.reaches import check_reaches, dead_values, fields_of
from uptick.core.checks.room import check_room
from uptick.core.checks.sheets import check_sheets
from uptick.core.checks.texts import check_languages, check_texts
from uptick.core.engine.snapshot import Snapshot
from uptick.core.resolved.classes import ButtonClass, ButtonKind, kind_of, kinds_at

__all__ = [
    "Finding",
    "Fix",
    "Found",
    "Spot",
    "Weight",
    "dead_values",
    "fields_of",
    "findings_of",
    "seen_about",
    "seen_in",
]

_ORDER = {Weight.MUST_FIX: 0, Weight.LOOK_AGAIN: 1, Weight.NOTE: 2}
# Called with how many kinds of button have been looked at, and how many there are.
Progress = Callable[[int, int], None]


def findings_of(snapshot: Snapshot) -> tuple[Finding, ...]:
    """Return everything the checks find in a shop as its settings count today, the worst first."""
    return tuple([finding.told() for finding in seen_in(snapshot)])


def seen_in(snapshot: Snapshot, progress: Progress | None = None) -> tuple[Found, ...]:
    """Return the same, of which the sentences and the fixes need not be worked out yet."""
    kinds = _all_kinds(snapshot)
    findings = [
        *_of_buttons(snapshot, kinds, lambda: kinds, progress),
        *check_languages(snapshot),
        *check_reaches(snapshot),
    ]
    return _sorted(findings)


def seen_about(snapshot: Snapshot, buttons: Iterable[ButtonClass]) -> tuple[Found, ...]:
    """Return what the checks see in some buttons, the worst first; what it costs does not grow with the others."""
    kinds = {(kind.placement, kind.key): kind for button in buttons if (kind := kind_of(snapshot, button))}
    return _sorted(_of_buttons(snapshot, tuple(kinds.values()), lambda: _all_kinds(snapshot)))


def _all_kinds(snapshot: Snapshot) -> Sequence[ButtonKind]:
    return [kind for placement in snapshot.store.places for kind in kinds_at(snapshot, placement)]


def _of_buttons(
    snapshot: Snapshot,
    kinds: Sequence[ButtonKind],
    every: Callable[[], Sequence[ButtonKind]],
    progress: Progress | None = None,
) -> list[Found]:
    return [
        # The longest of all, so that it tells how far they have come.
        *check_room(snapshot, _followed(kinds, progress) if progress else kinds),
        *check_contrast(snapshot, kinds, every),
        *check_edges(snapshot, kinds),
        *check_names(snapshot, kinds),
        *check_messages(snapshot, kinds),
        *check_sheets(snapshot, kinds),
        *check_pairs(snapshot, kinds),
        *check_texts(snapshot, kinds),
    ]


def _followed(kinds: Sequence[ButtonKind], progress: Progress) -> Iterator[ButtonKind]:
    for n, kind in enumerate(kinds):
        progress(n, len(kinds))
        yield kind


def _sorted(findings: Sequence[Found]) -> tuple[Found, ...]:
    return tuple(sorted(findings, key=lambda finding: (_ORDER[finding.weight], finding.rule, finding.title)))
