"""About how wide the live values of many products are: quick, for finding the widest of thousands."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from decimal import Decimal

import numpy as np
from numpy.typing import NDArray

from uptick.core.shop.catalogue import Product
from uptick.core.type.fontbook import FontBook
from uptick.core.words.wording import MoneyRule, money_rule

Widths = NDArray[np.float64]
Face = tuple[str, int]


def text_widths(name: str, products: Sequence[Product], fonts: FontBook, face: Face) -> Widths:
    """Return about how wide a live value is that every language writes alike, for each product.

    Returns:
        (n,), in em, letter by letter without kerning.
    """
    text = _TEXTS[name]
    texts = [text(product) for product in products]
    by_letter = {letter: fonts.rough_em(letter, *face) for letter in set().union(*texts)}
    return np.array([sum(map(by_letter.__getitem__, letters)) for letters in texts])


@dataclass(frozen=True, slots=True, eq=False)
class Amounts:
    """A live value that is money, for each product: minor units, which products have it, and the currencies."""

    minor: NDArray[np.int64]
    has: NDArray[np.bool_]
    currencies: tuple[str, ...]


def amounts_of(name: str, products: Sequence[Product]) -> Amounts:
    """Return a live value that is money for each of some products."""
    amount = AMOUNTS[name]
    minor = [amount(product) for product in products]
    return Amounts(
        np.array([value or 0 for value in minor], dtype=np.int64),
        np.array([value is not None for value in minor], dtype=np.bool_),
        tuple([product.currency for product in products]),
    )


def amount_widths(amounts: Amounts, language: str, fonts: FontBook, face: Face) -> Widths:
    """Return about how wide amounts are in a language; 0 where a product has none.

    Returns:
        (n,), in em.
    """
    widths = np.zeros(len(amounts.minor))
    for currency in dict.fromkeys(amounts.currencies):
        those = amounts.has & np.array([code == currency for code in amounts.currencies])
        widths[those] = money_widths(amounts.minor[those], money_rule(language, currency), fonts, face)
    return widths


def _net(product: Product) -> int | None:
    if product.price_minor is None:
        return None
    # Rounded as a float: a figure off by one in the last place is as wide.
    return round(product.price_minor / float(1 + product.tax_percent / Decimal(100)))


def _saved(product: Product) -> int | None:
    if product.price_minor is None or product.was_minor is None or product.was_minor <= product.price_minor:
        return None
    return product.was_minor - product.price_minor


AMOUNTS: dict[str, Callable[[Product], int | None]] = {
    "price": lambda product: product.price_minor,
    "price without tax": _net,
    "saving": _saved,
}
_TEXTS: dict[str, Callable[[Product], str]] = {
    "name": lambda product: product.name,
    "left": lambda product: str(product.stock),
    "code": lambda product: product.sku,
    "page": lambda product: product.url,
}


def money_widths(minor: NDArray[np.int64], rule: MoneyRule, fonts: FontBook, face: Face) -> Widths:
    """Return about how wide amounts in minor units are as a rule writes them.

    Returns:
        (n,), in em: the sum of the letters that `money_text` would write.
    """
    by_digit = np.array([fonts.rough_em(digit, *face) for digit in "0123456789"])
    widths = np.full(
        len(minor), fonts.rough_em(rule.prefix + rule.suffix + (rule.decimal if rule.digits else ""), *face)
    )
    figures = np.ones(len(minor), dtype=np.int64)
    for place in range(19):
        power = 10**place
        stands = (minor >= power) | (place <= rule.digits)
        if not stands.any():
            break
        widths += np.where(stands, by_digit[(minor // power) % 10], 0)
        figures = np.where(stands, place + 1, figures)
    whole = figures - rule.digits
    groups = np.where(whole > rule.primary, 1 + (whole - rule.primary - 1) // rule.secondary, 0)
    return np.asarray(widths + groups * fonts.rough_em(rule.group, *face))
