"""How a basket that answers as JSON is written: found out from one answer in which one known thing lies."""

import re
from collections.abc import Collection, Iterable, Iterator
from decimal import Decimal, InvalidOperation
from typing import Any

from uptick.core.shop.connection import BasketJson

# What addresses of baskets are usually called; common practice.
_ADDRESS = re.compile(
    r"""['"`](?P<path>/[\w\-./]*(?:basket|cart|bag|counter|trolley|korb|panier|cesta|carrello|lines)[\w\-./]*)['"`]""",
    re.IGNORECASE,
)
_COUNT = re.compile(r"count|total|pieces|quantity|qty|items?$|number|amount", re.IGNORECASE)
_MONEY = re.compile(r"price|sum|cost|value|tax", re.IGNORECASE)
_PICTURE = re.compile(r"\.(svg|png|jpe?g|webp|avif|gif)$", re.IGNORECASE)
_PAGE = re.compile(r"(https?://|/)[^\s{}]+$")
_WHOLE = re.compile(r"total|sum|line|row", re.IGNORECASE)
_DEEPEST = 6


def basket_addresses(scripts: Iterable[str]) -> tuple[str, ...]:
    """Return the paths in scripts that are called as baskets are, each once, in their order."""
    addresses = (match["path"] for text in scripts for match in _ADDRESS.finditer(text))
    return tuple(dict.fromkeys(path for path in addresses if "//" not in path))


def json_read_of(
    path: str, answer: Any, codes: Collection[str], quantity: int, product_name: str = "", price: Decimal | None = None
) -> BasketJson | None:
    """Return how an answer tells its lines, where one of them is that of a product that lies in it.

    Args:
        path: Where the answer came from.
        codes: What the product may be called there: its code, the shop's own number.
        quantity: How many of it are in the basket.
        product_name: What it is called, and `price`: what one of it costs. What a basket that is shown says of a line
            is found by them, and left out where they are not there.
    """
    for items, lines in _lists(answer, ""):
        for line in lines:
            product = next((name for name, value in _leaves(line, "") if str(value) in codes), None)
            if product is None:
                continue
            numbers = [name for name, value in _leaves(line, "") if _is_number(value, quantity) and name != product]
            named = [name for name in numbers if _COUNT.search(name)] or [n for n in numbers if not _MONEY.search(n)]
            if not named:
                continue
            total = sum(_quantity(entry, named[0]) for entry in lines)
            counts = [
                name for name, value in _leaves(answer, "")
                if _is_number(value, total) and _COUNT.search(name) and not _MONEY.search(name)
            ]  # fmt: skip
            return BasketJson(
                path=path, items=items, product=product, quantity=named[0], option="",
                count=counts[0] if counts else "",
                **_line_told(line, product_name), **_amounts_told(line, answer, price and price * quantity),
            )  # fmt: skip
    return None


def _line_told(line: dict[str, Any], product_name: str) -> dict[str, str]:
    """Return where a line tells its name, its picture and its page."""
    texts = [(name, value) for name, value in _leaves(line, "") if isinstance(value, str) and value]
    fields = {}
    if name := next((name for name, value in texts if product_name and product_name in value), None):
        fields["name"] = name
    if picture := next((name for name, value in texts if _PICTURE.search(value.partition("?")[0])), None):
        fields["picture"] = picture
    if page := next((name for name, value in texts if name != picture and _PAGE.match(value)), None):
        fields["page"] = page
    return fields


def _amounts_told(line: dict[str, Any], answer: Any, amount: Decimal | None) -> dict[str, Any]:
    """Return where a line tells what it costs, and the basket what all do, where one of them is that amount."""
    for scale in (Decimal(1), Decimal(100)):
        asked = amount * scale if amount else None
        in_line = [name for name, value in _leaves(line, "") if asked and plain_amount(value) == asked]
        if not in_line:
            continue
        sums = [name for name, value in _leaves(answer, "") if plain_amount(value) == asked]
        # The sum of the line goes before the price of one.
        fields: dict[str, Any] = {"amount": sorted(in_line, key=lambda name: not _WHOLE.search(name))[0]}
        if sums:
            fields["sum"] = sums[0]
        return fields | ({"smallest": True} if scale > 1 else {})
    return {}


def plain_amount(value: Any) -> Decimal | None:
    """Return a number as it is told, or nothing where it is none."""
    try:
        return None if isinstance(value, bool) else Decimal(str(value))
    except InvalidOperation:
        return None


def _lists(node: Any, name: str, depth: int = 0) -> Iterator[tuple[str, list[dict[str, Any]]]]:
    """Yield the lists of things that an answer holds, with their dotted names."""
    if depth > _DEEPEST or not isinstance(node, dict):
        return
    for key, value in node.items():
        here = f"{name}.{key}" if name else str(key)
        if isinstance(value, list) and value and all(isinstance(entry, dict) for entry in value):
            yield here, value
        elif isinstance(value, dict):
            yield from _lists(value, here, depth + 1)


def _leaves(node: Any, name: str, depth: int = 0) -> Iterator[tuple[str, Any]]:
    if depth > _DEEPEST or not isinstance(node, dict):
        return
    for key, value in node.items():
        here = f"{name}.{key}" if name else str(key)
        if isinstance(value, dict):
            yield from _leaves(value, here, depth + 1)
        elif not isinstance(value, list):
            yield here, value


def _is_number(value: Any, wanted: int) -> bool:
    return not isinstance(value, bool) and (value == wanted or str(value) == str(wanted))


def _quantity(line: dict[str, Any], name: str) -> int:
    amount = dict(_leaves(line, "")).get(name, 0)
    return int(amount) if str(amount).isdigit() else 0
