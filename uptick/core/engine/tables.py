"""Tables of what was worked out, by step and by what it was worked out from."""

from collections import Counter
from collections.abc import Callable, Hashable
from dataclasses import dataclass, field
from threading import local
from typing import Any, TypeVar

from uptick.core.button.document import ButtonDocument
from uptick.core.button.look import Look
from uptick.core.drawing.kit import Kit
from uptick.core.engine.rules import RuleIndex
from uptick.core.engine.sizes import deep_bytes
from uptick.core.engine.step import NEEDS, Step
from uptick.core.rules.settings import ExceptionRule, Settings
from uptick.core.shop.catalogue import Product
from uptick.core.shop.store import Store
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
        self._weights: dict[_Kind, _Weight] = {}
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
            self.worked_out[step] += 1
            fresh = [value, self._age]
            entry = kept.setdefault(key, fresh)
            # What another thread has worked out meanwhile is kept and counted already.
            if entry is fresh:
                self._weigh(step, key, value)
        else:
            entry[1] = self._age
        result: R = entry[0]
        return result

    def same(self, step: Step, key: Hashable, value: R) -> R:
        """Return the first value that was given under a key: equal things become one."""
        return self.ask(step, key, lambda: value)

    def newest(self, name: Hashable, stamp: Hashable, work: Callable[[], R]) -> R:
        """Return what belongs to a stamp; only the newest of a name is kept."""
        newest = self._newest.get(name)
        if newest is None or newest[0] != stamp:
            value = work()
            size = newest[2] if newest and self._age % _THEN_EVERY else deep_bytes(value, _OF_THE_PROCESS)
            newest = self._newest[name] = (stamp, value, size)
        result: R = newest[1]
        return result

    def grow_older(self) -> None:
        """Begin a new age: what is not asked for from now on counts as older."""
        self._age += 1

    def _weigh(self, step: Step, key: Hashable, value: object) -> None:
        weight = self._weights.setdefault(_kind_of(step, key), _Weight())
        weight.kept += 1
        if weight.measured < _MEASURED_FIRST or weight.kept % _THEN_EVERY == 0:
            about = getattr(value, "about_bytes", _FIXED_BYTES.get(step))
            if about is not None:
                weight.add(about)
                return
            away = [kind for kind, owner in _OWNERS if owner is not step]
            # What values share is counted with the first ones.
            seen = weight.shared if weight.measured < _MEASURED_FIRST else set(weight.shared)
            weight.add(deep_bytes(value, (*away, *_OF_THE_PROCESS), seen))

    def sizes(self) -> dict[Step, int]:
        """Return about how many bytes each step keeps: its entries, each at the mean of its kind that was measured."""
        bytes_of = dict.fromkeys(Step, 0.0)
        for (step, _), weight in list(self._weights.items()):
            bytes_of[step] += weight.kept * weight.mean
        bytes_of[Step.READ] += sum(size for _, _, size in list(self._newest.values()))
        return {step: round(size) for step, size in bytes_of.items()}

    @property
    def size(self) -> int:
        """Bytes that all tables hold."""
        return sum(self.sizes().values())

    def forget_oldest(self, until: int) -> None:
        """Drop what was not asked for the longest, until about so many bytes are left. What is used now stays."""
        ages: dict[int, float] = {}
        for step, kept in self._kept.items():
            for key, (_, age) in list(kept.items()):
                ages[age] = ages.get(age, 0) + self._weights[_kind_of(step, key)].mean
        over, oldest = float(self.size - until), -1
        for age in sorted(ages):
            if over <= 0 or age >= self._age:
                break
            over -= ages[age]
            oldest = age
        for step, kept in self._kept.items():
            for key in [key for key, (_, age) in list(kept.items()) if age <= oldest]:
                if kept.pop(key, None) is not None:
                    self._weights[_kind_of(step, key)].kept -= 1


# A table holds things of several kinds, told apart by what their keys begin with.
_Kind = tuple[Step, str]


def _kind_of(step: Step, key: Hashable) -> _Kind:
    return step, key[0] if type(key) is tuple and key and type(key[0]) is str else ""


@dataclass(slots=True)
class _Weight:
    """How many entries of a kind are kept, and how large those were that were measured."""

    kept: int = 0
    measured: int = 0
    total: int = 0
    shared: set[int] = field(default_factory=set)

    def add(self, size: int) -> None:
        self.measured += 1
        self.total += size

    @property
    def mean(self) -> float:
        return _ENTRY_BYTES + self.total / max(1, self.measured)
