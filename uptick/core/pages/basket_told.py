"""How a basket that answers as JSON is written: found out from one answer in which one known thing lies."""

import re
from collections.abc import Collection, Iterable, Iterator
from typing import Any

from uptick.core.shop.connection import BasketJson

# What addresses of baskets are usually called; common practice.
_ADDRESS = re.compile(
    r"""['"`](?P<path>/[\w\-./]*(?:basket|cart|bag|counter|trolley|korb|panier|cesta|carrello|lines)[\w\-./]*)['"`]""",
    re.IGNORECASE,
)
_COUNT = re.compile(r"count|total|pieces|quantity|qty|items?$|number|amount", re.IGNORECASE)
_MONEY = re.compile(r"price|sum|cost|value|tax", re.IGNORECASE)
_DEEPEST = 6


def basket_addresses(scripts: Iterable[str]) -> tuple[str, ...]:
    """Return the paths in scripts that are called as baskets are, each once, in their order."""
    found = (match["path"] for text in scripts for match in _ADDRESS.finditer(text))
    return tuple(dict.fromkeys(path for path in found if "//" not in path))


def json_read_of(path: str, told: Any, codes: Collection[str], quantity: int) -> BasketJson | None:
    """Return how an answer tells its lines, where one of them is that of a product that lies in it.

    Args:
        path: Where the answer came from.
        codes: What the product may be called there: its code, the shop's own number.
        quantity: How many of it are in the basket.
    """
    for items, lines in _lists(told, ""):
        for line in lines:
            product = next((name for name, value in _leaves(line, "") if str(value) in codes), None)
            if product is None:
                continue
            numbers = [name for name, value in _leaves(line, "") if _is_number(value, quantity) and name != product]
            named = [name for name in numbers if _COUNT.search(name)] or [n for n in numbers if not _MONEY.search(n)]
            if not named:
                continue
            total = sum(_quantity(one, named[0]) for one in lines)
            counts = [
                name for name, value in _leaves(told, "")
                if _is_number(value, total) and _COUNT.search(name) and not _MONEY.search(name)
            ]  # fmt: skip
            return BasketJson(
                path=path, items=items, product=product, quantity=named[0], option="", count=counts[0] if counts else ""
            )
    return None


def _lists(told: Any, name: str, depth: int = 0) -> Iterator[tuple[str, list[dict[str, Any]]]]:
    """Yield the lists of things that an answer holds, with their dotted names."""
    if depth > _DEEPEST or not isinstance(told, dict):
        return
    for key, value in told.items():
        here = f"{name}.{key}" if name else str(key)
        if isinstance(value, list) and value and all(isinstance(one, dict) for one in value):
            yield here, value
        elif isinstance(value, dict):
            yield from _lists(value, here, depth + 1)


def _leaves(told: Any, name: str, depth: int = 0) -> Iterator[tuple[str, Any]]:
    if depth > _DEEPEST or not isinstance(told, dict):
        return
    for key, value in told.items():
        here = f"{name}.{key}" if name else str(key)
        if isinstance(value, dict):
            yield from _leaves(value, here, depth + 1)
        elif not isinstance(value, list):
            yield here, value


def _is_number(value: Any, wanted: int) -> bool:
    return not isinstance(value, bool) and (value == wanted or str(value) == str(wanted))


def _quantity(line: dict[str, Any], name: str) -> int:
    found = dict(_leaves(line, "")).get(name, 0)
    return int(found) if str(found).isdigit() else 0
