"""Remembering what was computed from values that never change."""

from collections import OrderedDict
from collections.abc import Callable
from functools import wraps
from threading import Lock
from typing import Any, ParamSpec, TypeVar, cast

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
