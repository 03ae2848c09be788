"""The products of a store, sorted so that exceptions can be laid over them without looking at each one."""

from collections.abc import Collection, Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from functools import cached_property
from typing import ClassVar

import numpy as np
from numpy.typing import NDArray

from uptick.core.button.document import Situation, new_number
from uptick.core.engine.rules import RuleIndex
from uptick.core.engine.step import Step
from uptick.core.engine.tables import Tables
from uptick.core.shop.catalogue import Product

# Places of products in the catalogue, in its order.
Rows = NDArray[np.int32]


@dataclass(frozen=True, eq=False)
class Goods:
    """The products in the catalogue's order, by code, and by category and situation; in keys stands its number."""

    # It is as large as the shop, and every batch points at it.
    counted_elsewhere: ClassVar[bool] = True

    products: Sequence[Product]
    row_of: Mapping[str, int]
    by_category: Mapping[str, Mapping[Situation, Rows]]
    number: int = field(default_factory=new_number)

    def product(self, sku: str) -> Product | None:
        """Return the product of a code; None where the catalogue has none."""
        row = self.row_of.get(sku)
        return None if row is None else self.products[row]


def goods_of(products: Sequence[Product]) -> Goods:
    """Return products sorted by category and situation, as rows of one table."""
    sorted_out: dict[str, dict[Situation, list[int]]] = {}
    for row, product in enumerate(products):
        sorted_out.setdefault(product.category, {}).setdefault(product.situation, []).append(row)
    return Goods(
        products,
        {product.sku: row for row, product in enumerate(products)},
        {
            category: {situation: _rows(those) for situation, those in by_situation.items()}
            for category, by_situation in sorted_out.items()
        },
    )


def _rows(rows: Collection[int]) -> Rows:
    return np.fromiter(rows, dtype=np.int32, count=len(rows))


@dataclass(frozen=True, eq=False)
class Batch:
    """Products of one situation that nothing tells apart; its number stands for it in keys and is never given again."""

    situation: Situation
    goods: Goods
    rows: Rows
    number: int = field(default_factory=new_number)

    def __len__(self) -> int:
        return len(self.rows)

    def some(self, most: int) -> list[Product]:
        """Return the first products, at most so many."""
        return [self.goods.products[row] for row in self.rows[:most]]

    @property
    def first(self) -> Product:
        """The first product of it."""
        return self.goods.products[int(self.rows[0])]

    @cached_property
    def products(self) -> tuple[Product, ...]:
        """All of its products."""
        return tuple(self.some(len(self)))


@dataclass(frozen=True, slots=True, eq=False)
class ProductGroup:
    """Products that no exception tells apart; `bits` are the exceptions that may cover them, of each index.

    The first group of a shop stands for products that nobody knows: it has no code and no batch.
    """

    bits: tuple[int, ...]
    sku: str
    category: str
    batches: tuple[Batch, ...]

    def of(self, situation: Situation) -> tuple[Batch, ...]:
        """Return its batches in one situation."""
        return tuple([batch for batch in self.batches if batch.situation is situation])


def group(tables: Tables, goods: Goods, indexes: Sequence[RuleIndex]) -> tuple[ProductGroup, ...]:
    """Return the products grouped by the exceptions of some indexes that may cover them.

    Only products that an exception names are looked at one by one: the others are covered as their category is.
    """
    # In the order of the catalogue, so that equal shops are grouped alike.
    named = sorted(
        {goods.row_of[sku] for rule_index in indexes for sku in rule_index.named_products if sku in goods.row_of}
    )
    by_category: dict[str, list[int]] = {}
    for row in named:
        by_category.setdefault(goods.products[row].category, []).append(row)

    def bits_of(sku: str, category: str) -> tuple[int, ...]:
        return tuple([index.of_product(sku, category) for index in indexes])

    groups_of: dict[tuple[int, ...], tuple[str, str, list[Batch]]] = {bits_of("", ""): ("", "", [])}
    for category in goods.by_category:
        rest = _rest(tables, goods, category, tuple(by_category.get(category, ())))
        if rest:
            sku = rest[0].first.sku
            groups_of.setdefault(bits_of(sku, category), (sku, category, []))[2].extend(rest)
    singles: dict[tuple[tuple[int, ...], Situation], list[int]] = {}
    for row in named:
        product = goods.products[row]
        singles.setdefault((bits_of(product.sku, product.category), product.situation), []).append(row)
    for (bits, situation), rows in singles.items():
        batch = _named(tables, goods, situation, tuple(rows))
        groups_of.setdefault(bits, (batch.first.sku, batch.first.category, []))[2].append(batch)
    return tuple(
        ProductGroup(bits, sku, category, tuple(batches)) for bits, (sku, category, batches) in groups_of.items()
    )


def _rest(tables: Tables, goods: Goods, category: str, named: tuple[int, ...]) -> tuple[Batch, ...]:
    """Return the products of a category that no exception names."""

    def work() -> tuple[Batch, ...]:
        away = _rows(named)
        kept = {s: rows[~np.isin(rows, away)] for s, rows in goods.by_category[category].items()}
        return tuple(Batch(situation, goods, rows) for situation, rows in kept.items() if len(rows))

    return tables.ask(Step.GOODS, ("rest", goods.number, category, named), work)


def _named(tables: Tables, goods: Goods, situation: Situation, rows: tuple[int, ...]) -> Batch:
    return tables.ask(Step.GOODS, ("named", goods.number, rows), lambda: Batch(situation, goods, _rows(rows)))


def products_in(batches: Iterable[Batch]) -> tuple[Product, ...]:
    """Return the products of some batches, in their order."""
    return tuple([batch.goods.products[row] for batch in batches for row in batch.rows])
