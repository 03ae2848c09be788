"""The products of a store, sorted so that exceptions can be laid over them without looking at each one."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from itertools import chain, count

from uptick.core.catalogue import Product
from uptick.core.document import Situation
from uptick.core.engine.rules import RuleIndex
from uptick.core.engine.step import Step
from uptick.core.engine.tables import Tables

_numbers = count(1)


@dataclass(frozen=True, slots=True, eq=False)
class Batch:
    """Products of one situation that nothing tells apart; its number stands for it in keys and is never given again."""

    situation: Situation
    products: tuple[Product, ...]
    number: int = field(default_factory=lambda: next(_numbers))

    def __len__(self) -> int:
        return len(self.products)


@dataclass(frozen=True, slots=True, eq=False)
class Goods:
    """The products by code, and by category and situation."""

    products: Sequence[Product]
    by_sku: Mapping[str, Product]
    by_category: Mapping[str, Mapping[Situation, tuple[Product, ...]]]
    number: int = field(default_factory=lambda: next(_numbers))


def goods_of(products: Sequence[Product]) -> Goods:
    sorted_out: dict[str, dict[Situation, list[Product]]] = {}
    for product in products:
        sorted_out.setdefault(product.category, {}).setdefault(product.situation, []).append(product)
    return Goods(
        products,
        {product.sku: product for product in products},
        {
            category: {situation: tuple(those) for situation, those in by_situation.items()}
            for category, by_situation in sorted_out.items()
        },
    )


@dataclass(frozen=True, slots=True, eq=False)
class Group:
    """Products that no exception tells apart; `bits` are the exceptions that may cover them, of each index.

    The first group of a shop stands for products that nobody knows: it has no code and no batch.
    """

    bits: tuple[int, ...]
    sku: str
    category: str
    batches: tuple[Batch, ...]

    def of(self, situation: Situation) -> tuple[Batch, ...]:
        return tuple([batch for batch in self.batches if batch.situation is situation])


def group(tables: Tables, goods: Goods, indexes: Sequence[RuleIndex]) -> tuple[Group, ...]:
    """Return the products grouped by the exceptions of some indexes that may cover them.

    Only products that an exception names are looked at one by one: the others are covered as their category is.
    """
    named = frozenset(sku for index in indexes for sku in index.named_products if sku in goods.by_sku)
    by_category: dict[str, list[str]] = {}
    for sku in named:
        by_category.setdefault(goods.by_sku[sku].category, []).append(sku)

    def bits_of(sku: str, category: str) -> tuple[int, ...]:
        return tuple([index.of_product(sku, category) for index in indexes])

    found: dict[tuple[int, ...], tuple[str, str, list[Batch]]] = {bits_of("", ""): ("", "", [])}
    for category in goods.by_category:
        rest = _rest(tables, goods, category, frozenset(by_category.get(category, ())))
        if rest:
            sku = rest[0].products[0].sku
            found.setdefault(bits_of(sku, category), (sku, category, []))[2].extend(rest)
    # In the order of the catalogue, so that equal shops are grouped alike.
    singles: dict[tuple[tuple[int, ...], Situation], list[Product]] = {}
    for sku in [sku for sku in goods.by_sku if sku in named]:
        product = goods.by_sku[sku]
        singles.setdefault((bits_of(sku, product.category), product.situation), []).append(product)
    for (bits, situation), those in singles.items():
        batch = _named(tables, goods, situation, those)
        found.setdefault(bits, (those[0].sku, those[0].category, []))[2].append(batch)
    return tuple(Group(bits, sku, category, tuple(batches)) for bits, (sku, category, batches) in found.items())


def _rest(tables: Tables, goods: Goods, category: str, named: frozenset[str]) -> tuple[Batch, ...]:
    """Return the products of a category that no exception names."""

    def work() -> tuple[Batch, ...]:
        sorted_out = goods.by_category[category]
        if not named:
            return tuple(Batch(situation, those) for situation, those in sorted_out.items())
        kept = {s: tuple([p for p in those if p.sku not in named]) for s, those in sorted_out.items()}
        return tuple(Batch(situation, those) for situation, those in kept.items() if those)

    return tables.ask(Step.GOODS, ("rest", goods.number, category, named), work)


def _named(tables: Tables, goods: Goods, situation: Situation, those: Sequence[Product]) -> Batch:
    key = ("named", goods.number, tuple([product.sku for product in those]))
    return tables.ask(Step.GOODS, key, lambda: Batch(situation, tuple(those)))


def products_in(batches: Iterable[Batch]) -> tuple[Product, ...]:
    return tuple(chain.from_iterable([batch.products for batch in batches]))
