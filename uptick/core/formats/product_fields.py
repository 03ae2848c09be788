"""One product out of named texts, whatever file they stand in; every reason for refusal is a sentence."""

from collections.abc import Mapping
from datetime import date
from decimal import Decimal, InvalidOperation
from urllib.parse import urlsplit

from uptick.core.catalogue import Product

COLUMNS = (
    "sku", "name", "category", "price", "currency", "url", "picture", "stock", "option_name", "option_values", "tax",
    "was", "availability", "available_from", "set_of",
)  # fmt: skip
REQUIRED = ("sku", "name", "category", "currency", "url")
MAX_PRICE = Decimal(10_000_000)
_AVAILABILITY = ("in_stock", "pre_order", "sold_out")


def product_from(row: Mapping[str, str], currency: str) -> Product:
    """Return the product that a row of texts describes.

    Raises:
        ValueError: Says which field cannot be taken and what would be.
    """
    for name in REQUIRED:
        if not row.get(name):
            raise ValueError(f"{name} is empty")
    for name, value in row.items():
        if len(value) > 500:
            raise ValueError(f"{name} has {len(value)} characters; at most 500 are taken")
        # A cell that a spreadsheet would run as a formula has no business in a shop's text.
        if value and value[0] in "=@\t":
            raise ValueError(f"{name} begins with {value[0]!r}, which a spreadsheet would run as a formula")
    if row["currency"] != currency:
        raise ValueError(f"currency is {row['currency']!r}; this store sells in {currency}")
    availability = row.get("availability") or "in_stock"
    if availability not in _AVAILABILITY:
        raise ValueError(f"availability is {availability!r}; there are: {', '.join(_AVAILABILITY)}")
    stock = 0 if availability == "sold_out" else _stock(row.get("stock", ""))
    return Product(
        sku=row["sku"],
        name=row["name"],
        category=row["category"],
        price_minor=_minor("price", row["price"]) if row.get("price") else None,
        currency=row["currency"],
        url=_url(row["url"]),
        picture=_url(row["picture"]) if row.get("picture") else "",
        stock=stock,
        option_name=row.get("option_name", ""),
        option_values=_list(row.get("option_values", "")),
        tax_percent=_percent(row.get("tax", "")),
        was_minor=_minor("was", row["was"]) if row.get("was") else None,
        pre_order=availability == "pre_order",
        available_from=_day(row.get("available_from", "")),
        set_of=_list(row.get("set_of", "")),
    )


def row_of(product: Product) -> dict[str, str]:
    """Return a product as named texts; `product_from` reads them back to the same product."""
    return {
        "sku": product.sku,
        "name": product.name,
        "category": product.category,
        "price": _plain(product.price_minor),
        "currency": product.currency,
        "url": product.url,
        "picture": product.picture,
        "stock": str(product.stock),
        "option_name": product.option_name,
        "option_values": "|".join(product.option_values),
        "tax": f"{product.tax_percent.normalize():f}" if product.tax_percent else "",
        "was": _plain(product.was_minor),
        "availability": "pre_order" if product.pre_order else "",
        "available_from": product.available_from.isoformat() if product.available_from else "",
        "set_of": "|".join(product.set_of),
    }


def _plain(minor: int | None) -> str:
    return "" if minor is None else f"{minor // 100}.{minor % 100:02d}"


def _minor(name: str, text: str) -> int:
    try:
        price = Decimal(text)
    except InvalidOperation:
        raise ValueError(f"{name} is {text!r}; write it as 12.50") from None
    if not price.is_finite() or price < 0 or price > MAX_PRICE:
        raise ValueError(f"{name} is {text}; it must be from 0 to {MAX_PRICE:,}")
    minor = price * 100
    if minor != minor.to_integral_value():
        raise ValueError(f"{name} is {text}; at most two decimals are taken")
    return int(minor)


def _percent(text: str) -> Decimal:
    if not text:
        return Decimal(0)
    try:
        percent = Decimal(text)
    except InvalidOperation:
        raise ValueError(f"tax is {text!r}; write it in percent, as 20") from None
    if not percent.is_finite() or not 0 <= percent <= 100 or percent != round(percent, 3):
        raise ValueError(f"tax is {text}; it must be from 0 to 100 percent, with at most three decimals")
    return percent


def _stock(text: str) -> int:
    if not text:
        return 1
    try:
        return min(max(0, int(text)), 2**31 - 1)
    except ValueError:
        raise ValueError(f"stock is {text!r}; it must be a whole number") from None


def _day(text: str) -> date | None:
    try:
        return date.fromisoformat(text) if text else None
    except ValueError:
        raise ValueError(f"available_from is {text!r}; write the day as 2027-04-01") from None


def _list(text: str) -> tuple[str, ...]:
    return tuple(part.strip() for part in text.split("|") if part.strip())


def _url(text: str) -> str:
    if urlsplit(text).scheme not in {"", "http", "https"} or text.startswith("//"):
        raise ValueError(f"{text!r} is not a web address; http, https or a path on the shop is taken")
    return text
