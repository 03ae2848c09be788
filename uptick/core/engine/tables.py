"""Tables of what was worked out, by step and by what it was worked out from."""

from collections import Counter
from collections.abc import Callable, Hashable
from threading import local
from typing import Any, TypeVar

from uptick.core.catalogue import Product
from uptick.core.document import ButtonDocument
from uptick.core.engine.rules import RuleIndex
from uptick.core.engine.sizes import deep_bytes
from uptick.core.engine.step import NEEDS, Step
from uptick.core.kit import Kit
from uptick.core.look import Look
from uptick.core.settings import ExceptionRule, Settings
from uptick.core.store import Store
from uptick.core.type.fontbook import FontBook

R = TypeVar("R")

# Measuring costs about as much as working out, so most of a step's values are taken to be as large as those measured.
_MEASURED_FIRST, _THEN_EVERY = 4, 48
# These are counted where they are made, not wherever they are pointed at.
_OWNERS: tuple[tuple[type, Step], ...] = (
    (Product, Step.READ),
    (Settings, Step.READ),
    (ExceptionRule, Step.READ),
    (RuleIndex, Step.RULES),
    (Look, Step.LOOKS),
    (ButtonDocument, Step.LOOKS),
)
# A document points at a look and at texts that are counted where they are made; the rest of it is this large.
_FIXED_BYTES = {Step.DOCUMENTS: 1_500}
_OF_THE_PROCESS = (Kit, FontBook, Store)
# An entry of a table: the dictionary's slot, the list around value and age, and the key.
_ENTRY_BYTES = 280

_running = local()


class Tables:
    """What is kept of one store. Keys are content, or numbers that stand for it, so nothing kept can be out of date.

    Several requests may ask at once. Then something may be worked out twice, to equal values, of which one is kept.
    """

    def __init__(self) -> None:
        self._kept: dict[Step, dict[Hashable, list[Any]]] = {step: {} for step in Step}
        self._measured: dict[Step, list[int]] = {step: [0, 0] for step in Step}
        self._newest: dict[Hashable, tuple[Hashable, Any, int]] = {}
        self._age = 0
        self.worked_out: Counter[Step] = Counter()

    def ask(self, step: Step, key: Hashable, work: Callable[[], R]) -> R:
        """Return what was kept under a key, or else work it out. The key must name all that the work depends on."""
        asker: Step | None = getattr(_running, "step", None)
        assert asker is None or step is asker or step in NEEDS[asker], f"{asker} asks for {step}, which is not declared"
        kept = self._kept[step]
        entry = kept.get(key)
        if entry is None:
            _running.step = step
            try:
                value = work()
            finally:
                _running.step = asker
            entry = kept.setdefault(key, [value, self._age])
            self._count(step, value)
        else:
            entry[1] = self._age
        result: R = entry[0]
        return result

    def same(self, step: Step, key: Hashable, value: R) -> R:
        """Return the first value that was given under a key: equal things become one."""
        return self.ask(step, key, lambda: value)

    def newest(self, name: Hashable, stamp: Hashable, work: Callable[[], R]) -> R:
        """Return what belongs to a stamp; only the newest of a name is kept."""
        found = self._newest.get(name)
        if found is None or found[0] != stamp:
            value = work()
            size = found[2] if found and self._age % _THEN_EVERY else deep_bytes(value, _OF_THE_PROCESS)
            found = self._newest[name] = (stamp, value, size)
        result: R = found[1]
        return result

    def grow_older(self) -> None:
        """Begin a new age: what is not asked for from now on counts as older."""
        self._age += 1

    def _count(self, step: Step, value: object) -> None:
        self.worked_out[step] += 1
        measured = self._measured[step]
        if step in _FIXED_BYTES:
            self._measured[step] = [1, _FIXED_BYTES[step]]
        elif measured[0] < _MEASURED_FIRST or self.worked_out[step] % _THEN_EVERY == 0:
            away = [kind for kind, owner in _OWNERS if owner is not step]
            measured[0] += 1
            measured[1] += deep_bytes(value, (*away, *_OF_THE_PROCESS))

    def sizes(self) -> dict[Step, int]:
        """Return about how many bytes each step keeps: its entries, at the mean of those that were measured."""
        found = {
            step: round(len(self._kept[step]) * (_ENTRY_BYTES + total / count)) if count else 0
            for step, (count, total) in self._measured.items()
        }
        found[Step.READ] += sum(size for _, _, size in list(self._newest.values()))
        return found

    @property
    def size(self) -> int:
        return sum(self.sizes().values())

    def forget_oldest(self, until: int) -> None:
        """Drop what was not asked for the longest, until about so many bytes are left."""
        means = {step: _ENTRY_BYTES + total / count for step, (count, total) in self._measured.items() if count}
        ages: Counter[int] = Counter()
        for step, kept in self._kept.items():
            for _, age in list(kept.values()):
                ages[age] += round(means.get(step, 0))
        over, oldest = self.size - until, -1
        for age in sorted(ages):
            # What is being used now stays.
            if over <= 0 or age >= self._age:
                break
            over -= ages[age]
            oldest = age
        for kept in self._kept.values():
            for key in [key for key, (_, age) in list(kept.items()) if age <= oldest]:
                kept.pop(key, None)
