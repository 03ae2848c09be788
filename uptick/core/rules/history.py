"""Undo and redo for each person, in a history that only grows."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from uptick.core.button.merge import Json, is_tagged
from uptick.core.errors import NothingToUndo, Overtaken
from uptick.core.rules.settings import Settings


@dataclass(frozen=True, slots=True)
class Mark:
    """One step of a history: whose it is, and which step it takes back (a step taken back twice holds again)."""

    n: int
    person_id: int
    reverts: int | None
    label: str


def cancelled(marks: Iterable[Mark]) -> frozenset[int]:
    """Return the steps that count no more, since a later one that does has taken them back."""
    gone: set[int] = set()
    for mark in sorted(marks, key=lambda other_mark: other_mark.n, reverse=True):
        if mark.n not in gone and mark.reverts is not None:
            gone.add(mark.reverts)
    return frozenset(gone)


def undoable(marks: Sequence[Mark], person_id: int) -> Mark | None:
    """Return the step that undo takes back: a person's newest own one that still counts."""
    gone = cancelled(marks)
    own = [m for m in marks if m.person_id == person_id and m.reverts is None and m.n > 0 and m.n not in gone]
    return max(own, key=lambda m: m.n, default=None)


def redoable(marks: Sequence[Mark], person_id: int) -> Mark | None:
    """Return the undo that redo takes back: a person's newest that counts, unless they have changed something since."""
    gone = cancelled(marks)
    by_n = {mark.n: mark for mark in marks}
    own = [m for m in marks if m.person_id == person_id and m.n > 0]
    changed = max((m.n for m in own if m.reverts is None), default=0)
    undos = [m for m in own if m.reverts is not None and m.n not in gone and m.n > changed]
    # An undo takes back a change; what takes back an undo is a redo.
    undos = [m for m in undos if m.reverts in by_n and by_n[m.reverts].reverts is None]
    return max(undos, key=lambda m: m.n, default=None)


def require_mark(mark: Mark | None, what: str) -> Mark:
    """Return a mark of the history.

    Raises:
        NothingToUndo: There is none.
    """
    if mark is None:
        raise NothingToUndo(f"There is nothing of yours to {what}.")
    return mark


_MISSING: Any = object()


def revert(now: Settings, before: Settings, after: Settings) -> Settings:
    """Return the settings of now without one earlier step, whatever others have changed since.

    Raises:
        Overtaken: A field of that step has been changed again; nothing is taken back.
    """
    overtaken: list[str] = []
    turned = _inverted(_keyed(now), _keyed(before), _keyed(after), "", overtaken)
    if overtaken:
        named = ", ".join(overtaken[:3]) + (" and more" if len(overtaken) > 3 else "")
        raise Overtaken(f"This was changed again since: {named}. Take that back first.", fields=overtaken)
    order = [rule.id for rule in now.exceptions]
    for position, rule in enumerate(before.exceptions):
        if rule.id in turned["exceptions"] and rule.id not in order:
            # It comes back to where it stood, since of equally particular ones the later wins.
            earlier = [r.id for r in before.exceptions[:position] if r.id in order]
            order.insert(order.index(earlier[-1]) + 1 if earlier else 0, rule.id)
    turned["exceptions"] = [turned["exceptions"][rule] for rule in order if rule in turned["exceptions"]]
    return Settings.model_validate(turned)


def _keyed(settings: Settings) -> Json:
    raw = settings.model_dump(mode="json")
    return {**raw, "exceptions": {rule["id"]: rule for rule in raw["exceptions"]}}


def _inverted(now: Json, before: Json, after: Json, path: str, overtaken: list[str]) -> Json:
    turned = dict(now)
    for key in {**before, **after}:
        old, new, here = (side.get(key, _MISSING) for side in (before, after, now))
        if old == new or here == old:
            continue
        if all(_is_branch(side) for side in (old, new, here)):
            turned[key] = _inverted(here, old, new, f"{path}{key}.", overtaken)
        elif here != new:
            overtaken.append(f"{path}{key}")
        elif old is _MISSING:
            del turned[key]
        else:
            turned[key] = old
    return turned


def _is_branch(value: Any) -> bool:
    return isinstance(value, Mapping) and not is_tagged(value)
