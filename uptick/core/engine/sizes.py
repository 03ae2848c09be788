"""How much memory a value takes, looked at as the engine keeps it."""

import sys
from collections.abc import Collection
from enum import Enum
from types import FunctionType, MethodType, ModuleType
from typing import Any

# What lives outside the values, or costs nothing beside them.
_NEVER = (type, Enum, FunctionType, MethodType, ModuleType, bool, type(None))


_SAMPLE = 24


def deep_bytes(value: Any, counted_elsewhere: Collection[type] = (), seen: set[int] | None = None) -> int:
    """Return about how many bytes a value takes with all that hangs on it, each thing once; of long lists by a sample.

    Args:
        seen: Identities of things that were counted before; what is met is added.
        counted_elsewhere: Types of things that are kept by somebody else, so that they are not counted again; things
            of a type with an attribute of that name are none either.
    """
    return round(_bytes(value, (*_NEVER, *counted_elsewhere), set() if seen is None else seen))


def _bytes(value: Any, away: tuple[type, ...], seen: set[int]) -> float:
    open_values = [value]
    size = 0.0
    while open_values:
        item = open_values.pop()
        if id(item) in seen or (item is not value and (isinstance(item, away) or hasattr(item, "counted_elsewhere"))):
            continue
        seen.add(id(item))
        size += sys.getsizeof(item)
        inside = _inside(item)
        if len(inside) > 2 * _SAMPLE and isinstance(inside[0], away):
            continue
        if len(inside) > 2 * _SAMPLE:
            # Long lists hold things of one kind: some stand for all. What they share is met in the first.
            some = inside[:: len(inside) // _SAMPLE]
            first, *others = [_bytes(part, away, seen) for part in some]
            size += first + sum(others) / len(others) * (len(inside) - 1)
        else:
            open_values += inside
    return size


def _inside(item: Any) -> list[Any]:
    if isinstance(item, str | bytes | int | float):
        return []
    if isinstance(item, dict):
        return [*item.keys(), *item.values()]
    if isinstance(item, tuple | list | set | frozenset):
        return list(item)
    held_items = [getattr(item, "__dict__", None)]
    for kind in type(item).__mro__:
        slots = kind.__dict__.get("__slots__", ())
        names = (slots,) if isinstance(slots, str) else slots
        # `__dict__` is looked at above, and a weak reference holds nothing.
        held_items += [getattr(item, name, None) for name in names if name not in {"__dict__", "__weakref__"}]
    return [held for held in held_items if held is not None]
