"""Remembering what was computed from values that never change."""

from collections import OrderedDict
from collections.abc import Callable, Hashable
from functools import wraps
from threading import Lock
from typing import Any, Generic, ParamSpec, TypeVar, cast

P = ParamSpec("P")
R = TypeVar("R")


def remembered(most: int) -> Callable[[Callable[P, R]], Callable[P, R]]:
    """Remember a function's last results by the identity of its arguments.

    For arguments that cannot be hashed, or only at a cost that grows with the shop, and that nobody changes in place.
    The arguments are held as long as the result, so that no other object can get their identity.
    """

    def decorate(compute: Callable[P, R]) -> Callable[P, R]:
        kept: OrderedDict[tuple[int, ...], tuple[tuple[Any, ...], R]] = OrderedDict()
        lock = Lock()

        @wraps(compute)
        def remember(*args: P.args, **kwargs: P.kwargs) -> R:
            assert not kwargs, "remembered by position only"
            key = tuple(id(argument) for argument in args)
            with lock:
                found = kept.get(key)
                if found:
                    kept.move_to_end(key)
                    return found[1]
            result = compute(*args, **kwargs)
            with lock:
                kept[key] = (args, result)
                while len(kept) > most:
                    kept.popitem(last=False)
            return result

        return cast(Callable[P, R], remember)

    return decorate


class Kept(Generic[R]):
    """The last results by keys in which large things stand by their identity; what `holds` names lives as long."""

    def __init__(self, most: int) -> None:
        self._most = most
        self._kept: OrderedDict[Hashable, tuple[tuple[object, ...], R]] = OrderedDict()
        self._lock = Lock()

    def get(self, key: Hashable, holds: tuple[object, ...], compute: Callable[[], R]) -> R:
        """Return the result for a key, computing it where it is not kept. The key must name all that it depends on."""
        with self._lock:
            found = self._kept.get(key)
            if found:
                self._kept.move_to_end(key)
                return found[1]
        result = compute()
        with self._lock:
            self._kept[key] = (holds, result)
            while len(self._kept) > self._most:
                self._kept.popitem(last=False)
        return result
