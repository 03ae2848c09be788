"""Products, and what a file that brings them in would change."""

from collections import Counter
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, fields
from datetime import date
from decimal import ROUND_HALF_UP, Decimal

from uptick.core.button.document import Situation
from uptick.core.words.wording import currency_digits


@dataclass(frozen=True, slots=True)
class Product:
    """One product. Prices are in the currency's minor units, tax included; `price_minor` is None where none is told.

    `was_minor` is the price before a reduction; `tax_percent` is part of the price. `set_of` names the codes that a set
    holds. A pre-order is over once the day `available_from` has come.
    """

    sku: str
    name: str
    category: str
    price_minor: int | None
    currency: str
    url: str
    picture: str
    stock: int
    option_name: str
    option_values: tuple[str, ...]
    tax_percent: Decimal = Decimal(0)
    was_minor: int | None = None
    pre_order: bool = False
    available_from: date | None = None
    set_of: tuple[str, ...] = ()

    @property
    def situation(self) -> Situation:
        """What a shopper can do with it now: sold out goes before all else."""
        if self.stock <= 0:
            return Situation.SOLD_OUT
        if self.pre_order:
            return Situation.PRE_ORDER
        if self.option_values:
            return Situation.CHOICE
        return Situation.SET if self.set_of else Situation.PLAIN

    @property
    def price(self) -> Decimal | None:
        """Its price in the currency's major unit; None where it has none."""
        return None if self.price_minor is None else self._amount(self.price_minor)

    def _amount(self, minor: int | Decimal) -> Decimal:
        return Decimal(minor).scaleb(-currency_digits(self.currency))

    @property
    def price_without_tax(self) -> Decimal | None:
        """Return the price of one piece without its tax, to a whole minor unit, halves upward (common practice)."""
        if self.price_minor is None:
            return None
        net = Decimal(self.price_minor) / (1 + self.tax_percent / 100)
        return self._amount(net.quantize(Decimal(1), rounding=ROUND_HALF_UP))

    @property
    def saving(self) -> Decimal | None:
        """Return by how much the price has been reduced, or None where it has not."""
        if self.price_minor is None or self.was_minor is None or self.was_minor <= self.price_minor:
            return None
        return self._amount(self.was_minor - self.price_minor)


@dataclass(frozen=True, slots=True)
class Refusal:
    """A line of the file that was not taken, counted as an editor counts lines (in JSON-LD: products)."""

    line: int
    reason: str


@dataclass(frozen=True, slots=True)
class Change:
    """A product that is new, or whose named fields differ from what was known."""

    line: int
    sku: str
    fields: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class CatalogueLine:
    """One product of a file: where it stands, its code as far as it is read, and what it is or why it is refused."""

    number: int
    sku: str
    read: Product | str
    # What was chosen or taken for something else, in sentences.
    notes: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class ImportPreview:
    """What a file would do to the catalogue, before it is done.

    `missing` are the codes that it does not name; a known product whose line is refused is not missing. `emptied` says
    which fields would lose the values that they have, and for how many products. `notes` say what was chosen where a
    line said several things.
    """

    products: tuple[Product, ...]
    new: tuple[Change, ...]
    changed: tuple[Change, ...]
    unchanged: int
    missing: tuple[str, ...]
    refused: tuple[Refusal, ...]
    emptied: tuple[tuple[str, int], ...] = ()
    notes: tuple[Refusal, ...] = ()


def compare_catalogue(lines: Iterable[CatalogueLine], known: Mapping[str, Product]) -> ImportPreview:
    """Return what the lines of a file would change in a known catalogue."""
    products: dict[str, Product] = {}
    new, changed, refused, notes = [], [], [], []
    unchanged = 0
    named: set[str] = set()
    for line in lines:
        named.add(line.sku)
        row = line.read
        if isinstance(row, str):
            refused.append(Refusal(line.number, row))
            continue
        if row.sku in products:
            refused.append(Refusal(line.number, f"the code {row.sku!r} stands on an earlier line too"))
            continue
        products[row.sku] = row
        notes += [Refusal(line.number, f"{row.sku}: {note}") for note in line.notes]
        before = known.get(row.sku)
        if before is None:
            new.append(Change(line.number, row.sku, ()))
        elif before != row:
            changed.append(Change(line.number, row.sku, _differing(before, row)))
        else:
            unchanged += 1
    missing = tuple(sorted(set(known) - named))
    emptied = tuple(_emptied(changed, products, known))
    return ImportPreview(
        tuple(products.values()), tuple(new), tuple(changed), unchanged, missing, tuple(refused), emptied, tuple(notes)
    )


def _emptied(
    changed: Iterable[Change], products: Mapping[str, Product], known: Mapping[str, Product]
) -> Iterator[tuple[str, int]]:
    """Yield the fields of which a file leaves no value standing, with how many products had one."""
    lost = Counter(
        field
        for change in changed
        for field in change.fields
        if getattr(known[change.sku], field) and not getattr(products[change.sku], field)
    )
    for field, count in lost.items():
        if not any(getattr(product, field) for product in products.values()):
            yield field, count


def _differing(before: Product, after: Product) -> tuple[str, ...]:
    return tuple(f.name for f in fields(Product) if getattr(before, f.name) != getattr(after, f.name))


def categories_of(products: Sequence[Product]) -> tuple[str, ...]:
    """Return the categories of products, each once, in order of their letters."""
    return tuple(sorted({product.category for product in products}))
