"""One product out of named texts, whatever file they stand in; every reason for refusal is a sentence."""

import re
from collections.abc import Mapping
from datetime import date
from decimal import Decimal
from urllib.parse import urlsplit

from uptick.core.button.plain_text import unfit_in
from uptick.core.shop.catalogue import Product
from uptick.core.words.wording import currency_digits

COLUMNS = (
    "sku", "name", "category", "price", "currency", "url", "picture", "stock", "option_name", "option_values", "tax",
    "was", "availability", "available_from", "set_of",
)  # fmt: skip
REQUIRED = ("name", "category", "url")
MAX_PRICE = Decimal(10_000_000)
_AVAILABILITY = ("in_stock", "pre_order", "sold_out")
# Other usual names of the columns, from memory of what shops' files are headed with (common practice).
_OTHER_NAMES = {
    "sku": ("code", "product_code", "item_code", "item_number", "article", "article_number"),
    "name": ("title", "product", "product_name"),
    "category": ("categories", "group", "product_group"),
    "price": ("unit_price", "gross_price", "price_with_tax"),
    "currency": ("currency_code",),
    "url": ("link", "address", "page", "product_url"),
    "picture": ("image", "photo", "picture_url", "image_url"),
    "stock": ("quantity", "stock_level", "inventory"),
    "option_name": ("option",),
    "option_values": ("options", "choices"),
    "tax": ("tax_percent", "tax_rate", "vat", "vat_percent"),
    "was": ("old_price", "former_price", "list_price"),
    "available_from": ("available_on",),
    "set_of": ("contains", "set_contents"),
}
_COLUMN_OF = {other: name for name, others in _OTHER_NAMES.items() for other in others} | {c: c for c in COLUMNS}


def column_of(heading: str) -> str | None:
    """Return the column that a heading means, whatever its case and however its words are joined; None for others."""
    return _COLUMN_OF.get("_".join(re.findall(r"[^\W_]+", heading.casefold())))


def product_from(given_fields: Mapping[str, str], currency: str, before: Product | None = None) -> Product:
    """Return the product that a row of texts describes. What the row does not tell stays as it was `before`.

    Raises:
        ValueError: Says which field cannot be taken and what would be.
    """
    for name, value in given_fields.items():
        _require_fit(name, value)
    if not given_fields.get("sku"):
        raise ValueError("sku is empty")
    row = {"currency": currency, **(row_of(before) if before else {}), **given_fields}
    for name in REQUIRED:
        if not row.get(name):
            raise ValueError(
                f"{name} is empty" if name in given_fields else f"{name} is not told, and the product is new"
            )
    if row["currency"] != currency:
        raise ValueError(f"currency is {row['currency']!r}; this store sells in {currency}")
    availability = row.get("availability") or "in_stock"
    if availability not in _AVAILABILITY:
        raise ValueError(f"availability is {availability!r}; there are: {', '.join(_AVAILABILITY)}")
    if (
        given_fields.get("availability") in ("in_stock", "pre_order")
        and "stock" not in given_fields
        and row.get("stock") == "0"
    ):
        # It is back, and nobody says how many.
        row["stock"] = ""
    stock = 0 if availability == "sold_out" else _stock(row.get("stock", ""))
    return Product(
        sku=row["sku"],
        name=row["name"],
        category=row["category"],
        price_minor=_minor("price", row["price"], currency) if row.get("price") else None,
        currency=row["currency"],
        url=_url(row["url"]),
        picture=_url(row["picture"]) if row.get("picture") else "",
        stock=stock,
        option_name=row.get("option_name", ""),
        option_values=_list(row.get("option_values", "")),
        tax_percent=_percent(row.get("tax", "")),
        was_minor=_minor("was", row["was"], currency) if row.get("was") else None,
        pre_order=availability == "pre_order",
        available_from=_day(row.get("available_from", "")),
        set_of=_list(row.get("set_of", "")),
    )


def _require_fit(name: str, value: str) -> None:
    if len(value) > 500:
        raise ValueError(f"{name} has {len(value)} characters; at most 500 are taken")
    # A cell that a spreadsheet would run as a formula has no business in a shop's text.
    if value and value[0] in "=@\t":
        raise ValueError(f"{name} begins with {value[0]!r}, which a spreadsheet would run as a formula")
    if unfit := unfit_in(value):
        raise ValueError(f"{name} holds {unfit}; such characters cannot be stored")


def row_of(product: Product) -> dict[str, str]:
    """Return a product as named texts; `product_from` reads them back to the same product."""
    return {
        "sku": product.sku,
        "name": product.name,
        "category": product.category,
        "price": _plain(product.price_minor, product.currency),
        "currency": product.currency,
        "url": product.url,
        "picture": product.picture,
        "stock": str(product.stock),
        "option_name": product.option_name,
        "option_values": "|".join(product.option_values),
        "tax": f"{product.tax_percent.normalize():f}" if product.tax_percent else "",
        "was": _plain(product.was_minor, product.currency),
        "availability": "pre_order" if product.pre_order else "",
        "available_from": product.available_from.isoformat() if product.available_from else "",
        "set_of": "|".join(product.set_of),
    }


def _plain(minor: int | None, currency: str) -> str:
    return "" if minor is None else f"{Decimal(minor).scaleb(-currency_digits(currency)):f}"


def _number(text: str) -> Decimal | None:
    """Return a plain number with a point; what Python would read beyond that (`1_000`, `1e3`) stands in no file."""
    return Decimal(text) if re.fullmatch(r"-?[0-9]{1,20}(\.[0-9]{1,20})?", text) else None


def _minor(name: str, text: str, currency: str) -> int:
    price, digits = _number(text), currency_digits(currency)
    if price is None:
        raise ValueError(f"{name} is {text!r}; write it as {Decimal('12.5'):.{digits}f}")
    if not 0 <= price <= MAX_PRICE:
        raise ValueError(f"{name} is {text}; it must be from 0 to {MAX_PRICE:,}")
    minor = price.scaleb(digits)
    if minor != minor.to_integral_value():
        many = {0: "no", 2: "at most two", 3: "at most three"}.get(digits, f"at most {digits}")
        raise ValueError(f"{name} is {text}; {many} decimals are taken in {currency}")
    return int(minor)


def _percent(text: str) -> Decimal:
    if not text:
        return Decimal(0)
    percent = _number(text)
    if percent is None:
        raise ValueError(f"tax is {text!r}; write it in percent, as 20")
    if not 0 <= percent <= 100 or percent != round(percent, 3):
        raise ValueError(f"tax is {text}; it must be from 0 to 100 percent, with at most three decimals")
    return percent


def _stock(text: str) -> int:
    if not text:
        return 1
    if not re.fullmatch(r"-?[0-9]{1,20}", text):
        raise ValueError(f"stock is {text!r}; it must be a whole number")
    if int(text) >= 2**31:
        raise ValueError(f"stock is {text}; it must be below {2**31:,}")
    return max(0, int(text))


def _day(text: str) -> date | None:
    try:
        return date.fromisoformat(text) if text else None
    except ValueError:
        raise ValueError(f"available_from is {text!r}; write the day as 2027-04-01") from None


def _list(text: str) -> tuple[str, ...]:
    return tuple(part.strip() for part in text.split("|") if part.strip())


def _url(text: str) -> str:
    try:
        scheme = urlsplit(text).scheme
    except ValueError:
        scheme = "unreadable"
    if scheme not in {"", "http", "https"} or text.startswith("//"):
        raise ValueError(f"{text!r} is not a web address; http, https or a path on the shop is taken")
    return text
