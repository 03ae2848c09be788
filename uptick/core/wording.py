"""Texts with live values in braces, and how a language writes an amount of money."""

import re
from collections.abc import Mapping
from dataclasses import dataclass
from decimal import ROUND_HALF_UP, Decimal
from functools import lru_cache

from babel import Locale
from babel.core import UnknownLocaleError
from babel.numbers import get_currency_precision, get_currency_symbol

from uptick.core.errors import BadWording, OutOfRange

LIVE_VALUES = ("price", "name", "count")
_BRACES = re.compile(r"\{([^{}]*)\}")


@dataclass(frozen=True, slots=True)
class Live:
    """A place in a text that is filled when it is shown."""

    name: str


Pattern = tuple[str | Live, ...]


@lru_cache(maxsize=4096)
def parse_text(text: str) -> Pattern:
    """Return a text as runs of plain words and live values.

    Raises:
        BadWording: It names a live value that does not exist, or has a brace without its partner.
    """
    parts: list[str | Live] = []
    end = 0
    for found in _BRACES.finditer(text):
        name = found[1].strip()
        if name not in LIVE_VALUES:
            allowed = ", ".join(f"{{{live}}}" for live in LIVE_VALUES)
            raise BadWording(f"There is no live value {{{found[1]}}}. There are {allowed}.", value=found[1])
        if found.start() > end:
            parts.append(text[end : found.start()])
        parts.append(Live(name))
        end = found.end()
    if end < len(text):
        parts.append(text[end:])
    if any("{" in part or "}" in part for part in parts if isinstance(part, str)):
        raise BadWording(f"A brace in “{text}” has no partner. Write live values as {{price}}.", value=text)
    return tuple(parts)


def fill_text(pattern: Pattern, values: Mapping[str, str]) -> str:
    """Return the text as a shopper reads it."""
    return "".join(values.get(part.name, "") if isinstance(part, Live) else part for part in pattern)


@dataclass(frozen=True, slots=True)
class MoneyRule:
    """How a language writes an amount in one currency; the script follows it to the letter."""

    prefix: str
    suffix: str
    minus: str
    decimal: str
    group: str
    primary: int
    secondary: int
    digits: int


def _locale(language: str) -> Locale:
    try:
        return Locale.parse(language, sep="-")
    except (UnknownLocaleError, ValueError) as error:
        raise OutOfRange.of("language", "a language of CLDR such as en-GB", language) from error


@lru_cache(maxsize=256)
def money_rule(language: str, currency: str) -> MoneyRule:
    """Return the CLDR rule of a language for a currency, through Babel.

    Source:
        Unicode CLDR, number patterns (UTS 35 part 3), as shipped with Babel.
    """
    locale = _locale(language)
    pattern = locale.currency_formats["standard"]
    symbol = get_currency_symbol(currency, locale)
    symbols = locale.number_symbols["latn"]
    return MoneyRule(
        prefix=pattern.prefix[0].replace("¤", symbol),
        suffix=pattern.suffix[0].replace("¤", symbol),
        minus=symbols["minusSign"],
        decimal=symbols["decimal"],
        group=symbols["group"],
        primary=pattern.grouping[0],
        secondary=pattern.grouping[1],
        digits=get_currency_precision(currency),
    )


def money_text(amount: Decimal, rule: MoneyRule) -> str:
    """Return an amount as the rule writes it, halves rounded away from zero (common practice in shops)."""
    rounded = abs(amount).quantize(Decimal(1).scaleb(-rule.digits), rounding=ROUND_HALF_UP)
    whole, _, fraction = f"{rounded:f}".partition(".")
    groups = [whole[-rule.primary :]]
    rest = whole[: -rule.primary]
    while rest:
        groups.append(rest[-rule.secondary :])
        rest = rest[: -rule.secondary]
    figures = rule.group.join(reversed(groups)) + (rule.decimal + fraction if fraction else "")
    sign = rule.minus if amount < 0 and rounded else ""
    return f"{sign}{rule.prefix}{figures}{rule.suffix}"
