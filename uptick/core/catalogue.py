"""Products, and the CSV file that they come in from."""

import csv
import io
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, fields
from decimal import Decimal, InvalidOperation
from urllib.parse import urlsplit

from uptick.core.document import Situation
from uptick.core.errors import BadCatalogue


@dataclass(frozen=True, slots=True)
class Product:
    """One product. `price_minor` is in the currency's minor units, tax included."""

    sku: str
    name: str
    category: str
    price_minor: int
    currency: str
    url: str
    picture: str
    stock: int
    option_name: str
    option_values: tuple[str, ...]

    @property
    def situation(self) -> Situation:
        if self.stock <= 0:
            return Situation.SOLD_OUT
        return Situation.CHOICE if self.option_values else Situation.PLAIN

    @property
    def price(self) -> Decimal:
        return Decimal(self.price_minor) / 100


@dataclass(frozen=True, slots=True)
class Refusal:
    """A line of the file that was not taken, counted as a text editor counts lines."""

    line: int
    reason: str


@dataclass(frozen=True, slots=True)
class Change:
    """A product that is new, or whose named fields differ from what was known."""

    line: int
    sku: str
    fields: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Reading:
    """What a file would do to the catalogue, before it is done."""

    products: tuple[Product, ...]
    new: tuple[Change, ...]
    changed: tuple[Change, ...]
    unchanged: int
    missing: tuple[str, ...]
    refused: tuple[Refusal, ...]


COLUMNS = ("sku", "name", "category", "price", "currency", "url", "picture", "stock", "option_name", "option_values")
REQUIRED = ("sku", "name", "category", "price", "currency", "url")
MAX_BYTES = 20_000_000
MAX_PRICE = Decimal(10_000_000)


def read_catalogue(content: bytes, known: Mapping[str, Product], currency: str) -> Reading:
    """Return what a CSV file holds, line by line, against the products that are `known` by code.

    The file is UTF-8 with a header; several `option_values` are divided by `|`.

    Raises:
        BadCatalogue: The file as a whole cannot be read: its size, encoding or columns.
    """
    rows = _rows(content)
    products: dict[str, Product] = {}
    new, changed, refused = [], [], []
    unchanged = 0
    for line, row in rows:
        try:
            product = _product(row, currency)
            if product.sku in products:
                raise ValueError(f"the code {product.sku!r} stands on an earlier line too")
        except ValueError as error:
            refused.append(Refusal(line, str(error)))
            continue
        products[product.sku] = product
        before = known.get(product.sku)
        if before is None:
            new.append(Change(line, product.sku, ()))
        elif before != product:
            changed.append(Change(line, product.sku, _differing(before, product)))
        else:
            unchanged += 1
    missing = tuple(sorted(set(known) - set(products)))
    return Reading(tuple(products.values()), tuple(new), tuple(changed), unchanged, missing, tuple(refused))


def _rows(content: bytes) -> list[tuple[int, dict[str, str]]]:
    if len(content) > MAX_BYTES:
        raise BadCatalogue(f"The file has {len(content):,} bytes; at most {MAX_BYTES:,} are taken.")
    try:
        text = content.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        line = content[: error.start].count(b"\n") + 1
        raise BadCatalogue(f"The file is not UTF-8: line {line} holds a byte that is not. Save it as UTF-8.") from error
    reader = csv.DictReader(io.StringIO(text, newline=""), strict=True)
    lacking = [name for name in REQUIRED if name not in (reader.fieldnames or ())]
    if lacking:
        raise BadCatalogue(f"The first line lacks {', '.join(lacking)}. The columns are: {', '.join(COLUMNS)}.")
    rows = []
    try:
        for row in reader:
            if None in row:
                row = {"sku": "\0too many"}
            rows.append((reader.line_num, {k: (v or "").strip() for k, v in row.items()}))
    except csv.Error as error:
        raise BadCatalogue(f"Line {reader.line_num + 1} is not CSV: {error}.") from error
    return rows


def _product(row: Mapping[str, str], currency: str) -> Product:
    if row["sku"] == "\0too many":
        raise ValueError("more fields than columns; put texts with commas in double quotes")
    for name in REQUIRED:
        if not row.get(name):
            raise ValueError(f"{name} is empty")
    for name, value in row.items():
        if len(value) > 500:
            raise ValueError(f"{name} has {len(value)} characters; at most 500 are taken")
        # A cell that a spreadsheet would run as a formula has no business in a shop's text.
        if value[:1] in "=@\t" and value:
            raise ValueError(f"{name} begins with {value[0]!r}, which a spreadsheet would run as a formula")
    if row["currency"] != currency:
        raise ValueError(f"currency is {row['currency']!r}; this store sells in {currency}")
    return Product(
        sku=row["sku"],
        name=row["name"],
        category=row["category"],
        price_minor=_price_minor(row["price"]),
        currency=row["currency"],
        url=_url(row["url"]),
        picture=_url(row["picture"]) if row.get("picture") else "",
        stock=_stock(row.get("stock", "")),
        option_name=row.get("option_name", ""),
        option_values=tuple(v.strip() for v in row.get("option_values", "").split("|") if v.strip()),
    )


def _price_minor(text: str) -> int:
    try:
        price = Decimal(text)
    except InvalidOperation:
        raise ValueError(f"price is {text!r}; write it as 12.50") from None
    if not price.is_finite() or price < 0 or price > MAX_PRICE:
        raise ValueError(f"price is {text}; it must be from 0 to {MAX_PRICE:,}")
    minor = price * 100
    if minor != minor.to_integral_value():
        raise ValueError(f"price is {text}; at most two decimals are taken")
    return int(minor)


def _stock(text: str) -> int:
    if not text:
        return 1
    try:
        return max(0, int(text))
    except ValueError:
        raise ValueError(f"stock is {text!r}; it must be a whole number") from None


def _url(text: str) -> str:
    if urlsplit(text).scheme not in {"", "http", "https"} or text.startswith("//"):
        raise ValueError(f"{text!r} is not a web address; http, https or a path on the shop is taken")
    return text


def _differing(before: Product, after: Product) -> tuple[str, ...]:
    return tuple(f.name for f in fields(Product) if getattr(before, f.name) != getattr(after, f.name))


def categories_of(products: Sequence[Product]) -> tuple[str, ...]:
    return tuple(sorted({product.category for product in products}))
