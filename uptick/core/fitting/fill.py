"""Texts filled for real products, and the worst of them: the one that takes the most room."""

from collections.abc import Hashable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from uptick.core.button.document import ButtonDocument, Moment
from uptick.core.button.look import Type
from uptick.core.engine.goods import Batch, Goods
from uptick.core.engine.step import Step
from uptick.core.engine.tables import Tables
from uptick.core.errors import BadWording
from uptick.core.fitting.rough_widths import AMOUNTS, Face, Widths, amount_widths, amounts_of, text_widths
from uptick.core.resolved.classes import MOMENTS_OF, ButtonClass
from uptick.core.shop.catalogue import Product
from uptick.core.type.fontbook import FontBook
from uptick.core.type.setting import width_of
from uptick.core.words.wider_texts import needed_by
from uptick.core.words.wording import (
    HOLE,
    Live,
    Pattern,
    Plural,
    fill_text,
    live_names,
    money_rule,
    money_text,
    parse_text,
    without_holes,
)

# Two digits in the basket is the widest count that is common practice to plan for.
COUNT_TO_FIT = 12
_OF_PRODUCT = {"price", "price without tax", "name", "left", "code", "page", "saving"}


@dataclass(frozen=True, slots=True)
class WorstText:
    """The widest text of a moment, and the product that makes it so (none when no live value is in it)."""

    text: str
    width_px: float
    product: Product | None


def _stacks(document: ButtonDocument, moment: Moment, language: str, first: str) -> Iterator[tuple[str, ...]]:
    """Yield the texts that can be said in a moment, stack by stack, the narrowest rule's text of each first.

    Where the language has none, that of the store's `first` language stands in; where the moment has none, the ready
    text does.
    """
    for at in dict.fromkeys((moment, Moment.READY)):
        by_language = document.wording.get(at, {})
        for spoken in dict.fromkeys((language, first, next(iter(by_language), ""))):
            if texts := document.texts(at, spoken):
                yield texts
                # Whoever can say this needs no other.
                if not _shows_product(texts[-1]):
                    return


@lru_cache(maxsize=16_384)
def _shows_product(text: str) -> bool:
    try:
        return bool(live_names(parse_text(text)) & _OF_PRODUCT)
    except BadWording:
        return True


def texts_key(document: ButtonDocument, moment: Moment, language: str, first: str = "") -> Hashable:
    """Return what stands for all texts that a moment can show: equal ones are filled alike."""
    return tuple(_stacks(document, moment, language, first))


def template_of(document: ButtonDocument, moment: Moment, language: str, first: str = "") -> str:
    """Return a moment's text as written, in the language that `_stacks` finds first."""
    return next((texts[0] for texts in _stacks(document, moment, language, first)), "")


def live_values(product: Product | None, language: str, count: int) -> dict[str, str]:
    """Return every live value of a product as its language writes it; what it has none of is left out."""
    values = {"count": str(count)}
    if product is None:
        return values
    money = money_rule(language, product.currency)
    values |= {"name": product.name, "left": str(product.stock), "code": product.sku, "page": product.url}
    amounts = {"price": product.price, "price without tax": product.price_without_tax, "saving": product.saving}
    return values | {name: money_text(amount, money) for name, amount in amounts.items() if amount is not None}


def text_for(
    document: ButtonDocument, moment: Moment, language: str, product: Product | None, count: int = 2, first: str = ""
) -> str:
    """Return what a shopper reads on the button of a product.

    Where the product lacks a value that a text needs, the next wider rule's text that it can say is said.
    """
    stacks = tuple(_stacks(document, moment, language, first))
    return _say(stacks, live_values(product, language, count), language)


def _say(stacks: Sequence[tuple[str, ...]], values: Mapping[str, str], language: str) -> str:
    for texts in stacks:
        filled = [fill_text(parse_text(text), values, language) for text in texts]
        plain_text = next((text for text in filled if HOLE not in text), "") or without_holes(filled[0])
        if plain_text:
            return plain_text
    return values.get("name", "")


def _counts(pattern: Pattern, product: Product | None) -> tuple[int, ...]:
    """Return the counts whose texts are compared: a plural's short forms can be the longer ones."""
    plurals = [part for part in pattern if isinstance(part, Plural) and part.name == "count"]
    if not plurals:
        return (COUNT_TO_FIT,)
    return (1, 2, 3, COUNT_TO_FIT, *(number for part in plurals for number, _ in part.exact if number))


def worst_text(
    tables: Tables,
    document: ButtonDocument,
    moment: Moment,
    language: str,
    batches: Sequence[Batch],
    fonts: FontBook,
    first: str = "",
) -> WorstText:
    """Return the widest text of a moment over the products that can come into it."""
    stacks = tuple(_stacks(document, moment, language, first))
    kind = document.look.type
    texts = stacks[0] if stacks else ("",)
    pattern = parse_text(texts[0])

    def measured(product: Product | None) -> WorstText:
        phrases = {_say(stacks, live_values(product, language, count), language) for count in _counts(pattern, product)}
        widths_of = ((t, width_of(t, kind, fonts, language)) for t in phrases)
        text, width = max(widths_of, key=lambda measured: (measured[1], measured[0]))
        return WorstText(text, width, product)

    def work() -> WorstText:
        if not live_names(pattern) & _OF_PRODUCT:
            return measured(None)
        able = [batch for batch in batches if moment in MOMENTS_OF[batch.situation]]
        likely = _likely(tables, texts, able, language, fonts, (kind.family, kind.weight))
        if not likely:
            return measured(None)

        def widest() -> WorstText:
            return max(map(measured, likely), key=lambda worst: worst.width_px)

        # A product more or less changes the batches, but seldom those that may be the widest.
        rows = tuple([able[0].goods.row_of[product.sku] for product in likely])
        key = ("widest", stacks, language, kind.derived(_type_key), able[0].goods.number, rows)
        return tables.ask(Step.WIDTHS, key, widest)

    # An edit of one text leaves the other moments as they are.
    key = ("worst", stacks, moment, language, kind.derived(_type_key), tuple([batch.number for batch in batches]))
    return tables.ask(Step.WIDTHS, key, work)


def _type_key(kind: Type) -> str:
    return kind.model_dump_json()


def _lacking(tables: Tables, goods: Goods, name: str) -> NDArray[np.bool_]:
    key = ("lacking", goods.number, name)
    return tables.ask(Step.WIDTHS, key, lambda: np.array([lacks(product, name) for product in goods.products]))


def some_lack(tables: Tables, goods: Goods, name: str) -> bool:
    """Tell whether any product has no such live value."""
    key = ("some lack", goods.number, name)
    return tables.ask(Step.WIDTHS, key, lambda: bool(_lacking(tables, goods, name).any()))


def products_without(tables: Tables, batch: Batch, needed: frozenset[str]) -> Batch:
    """Return the products of a batch that lack one of some live values."""
    goods = batch.goods

    def work() -> Batch:
        lacking = np.zeros(len(batch), dtype=np.bool_)
        for name in needed:
            lacking |= _lacking(tables, goods, name)[batch.rows]
        return Batch(batch.situation, goods, batch.rows[lacking])

    return tables.ask(Step.WIDTHS, ("without", batch.number, needed), work)


def lacks(product: Product, name: str) -> bool:
    """Tell whether a product has no such live value."""
    if name == "saving":
        return product.saving is None
    if name == "page":
        return not product.url
    return name in {"price", "price without tax"} and product.price_minor is None


# Kerning and joined letters can change the order of near equals, so several are set in full.
_SHORTLIST = 12


def _likely(
    tables: Tables, texts: Sequence[str], batches: Sequence[Batch], language: str, fonts: FontBook, face: Face
) -> list[Product]:
    """Return the products of some batches whose text is likely to be the widest."""
    widest = dict.fromkeys(_shortlist(tables, texts[0], batches, language, fonts, face))
    if needed := needed_by(texts[0]):
        # Who cannot say it says a wider text, which may be the longer one.
        unable = [those for batch in batches if (those := products_without(tables, batch, needed))]
        for text in texts if unable else ():
            widest |= dict.fromkeys(_shortlist(tables, text, unable, language, fonts, face))
    return list(widest)


def _shortlist(
    tables: Tables, text: str, batches: Sequence[Batch], language: str, fonts: FontBook, face: Face
) -> tuple[Product, ...]:
    """Return the products with the widest live values: which these are does not depend on the words around them."""
    if not batches:
        return ()
    goods = batches[0].goods
    names = tuple(sorted(_flat(parse_text(text))))

    def column(name: str) -> Widths:
        if name not in AMOUNTS:
            key: Hashable = ("column", name, goods.number, face)
            return tables.ask(Step.WIDTHS, key, lambda: text_widths(name, goods.products, fonts, face))
        amounts = tables.ask(Step.WIDTHS, ("amounts", name, goods.number), lambda: amounts_of(name, goods.products))
        key = ("column", name, goods.number, language, face)
        return tables.ask(Step.WIDTHS, key, lambda: amount_widths(amounts, language, fonts, face))

    def work() -> tuple[Product, ...]:
        rows = np.concatenate([batch.rows for batch in batches])
        taken = np.zeros(len(rows))
        for name in names:
            taken += column(name)[rows]
        if len(rows) > _SHORTLIST:
            among = taken >= np.partition(taken, -_SHORTLIST)[-_SHORTLIST]
            rows, taken = rows[among], taken[among]
        # Of equals the earlier ones, so that equal shops are told alike.
        return tuple([goods.products[rows[n]] for n in np.lexsort((rows, -taken))[:_SHORTLIST]])

    key = ("shortlist", names, tuple([batch.number for batch in batches]), language, face)
    return tables.ask(Step.WIDTHS, key, work)


def _flat(pattern: Pattern) -> list[str]:
    """Return the live values of a product that a text shows, as often as it does; of a plural those of its rest."""
    names: list[str] = []
    for part in pattern:
        if isinstance(part, Plural):
            names += _flat(dict(part.forms)["other"])
        elif isinstance(part, Live) and part.name in _OF_PRODUCT:
            names.append(part.name)
    return names


def worst_of_class(
    tables: Tables, button: ButtonClass, moment: Moment, language: str, fonts: FontBook, first: str = ""
) -> WorstText:
    """Return the longest text that a class of buttons can come to in a moment and language.

    Args:
        first: The store's first language, which stands in for a text that is missing.
    """
    return worst_text(tables, button.document, moment, language, button.batches, fonts, first)
