"""Texts with live values in braces, and how a language writes an amount of money."""

import re
from collections.abc import Mapping
from dataclasses import dataclass
from decimal import ROUND_HALF_UP, Decimal
from functools import lru_cache

from babel import Locale
from babel.core import UnknownLocaleError
from babel.numbers import get_currency_precision, get_currency_symbol
from babel.numbers import is_currency as is_known_currency

from uptick.core.errors import BadWording, OutOfRange

LIVE_VALUES = ("price", "price without tax", "name", "count", "left", "code", "page", "saving")
COUNTED = ("count", "left")
CATEGORIES = ("zero", "one", "two", "few", "many", "other")


@dataclass(frozen=True, slots=True)
class Live:
    """A place in a text that is filled when it is shown."""

    name: str


@dataclass(frozen=True, slots=True)
class Plural:
    """A place whose words depend on a count: exact numbers first, then the language's plural category."""

    name: str
    exact: tuple[tuple[int, "Pattern"], ...]
    forms: tuple[tuple[str, "Pattern"], ...]

    def form(self, number: int, category: str) -> "Pattern":
        """Return the words for a number: of exactly that number, else of its CLDR category, else of `other`."""
        exact = dict(self.exact).get(number)
        forms = dict(self.forms)
        return exact if exact is not None else forms.get(category, forms["other"])


Pattern = tuple[str | Live | Plural, ...]


@lru_cache(maxsize=16384)
def parse_text(text: str) -> Pattern:
    """Return a text as runs of plain words, live values and plurals.

    A plural is written as in ICU messages: `{count, plural, one {one in your skep} other {# in your skep}}`.

    Raises:
        BadWording: It names a live value that does not exist, or has a brace without its partner.

    Source:
        The plural argument of ICU MessageFormat, without offset and nested selects.
    """
    reader = _Reader(text)
    pattern = reader.read(inside="")
    if reader.at < len(text):
        raise reader.unpaired()
    return pattern


# A plural of two counts needs two.
_DEEPEST = 4


class _Reader:
    def __init__(self, text: str) -> None:
        self.text = text
        self.at = 0
        self.depth = 0

    def unpaired(self) -> BadWording:
        return BadWording(f"A brace in “{self.text}” has no partner. Write live values as {{price}}.", value=self.text)

    def read(self, inside: str) -> Pattern:
        """Read up to the closing brace or the end; `inside` names the count that `#` stands for."""
        parts: list[str | Live | Plural] = []
        while self.at < len(self.text) and self.text[self.at] != "}":
            character = self.text[self.at]
            self.at += 1
            if character == "{":
                parts.append(self._braces())
            elif character == "#" and inside:
                parts.append(Live(inside))
            elif parts and isinstance(parts[-1], str):
                parts[-1] += character
            else:
                parts.append(character)
        return tuple(parts)

    def _braces(self) -> Live | Plural:
        stop = re.compile(r"[{},]").search(self.text, self.at)
        if stop is None or stop[0] == "{":
            raise self.unpaired()
        inside = self.text[self.at : stop.start()]
        name = inside.strip()
        self.at = stop.end()
        if name not in LIVE_VALUES:
            allowed = ", ".join(f"{{{live}}}" for live in LIVE_VALUES)
            raise BadWording(f"There is no live value {{{inside}}}. There are {allowed}.", value=inside)
        return Live(name) if stop[0] == "}" else self._plural(name)

    def _plural(self, name: str) -> Plural:
        kind = re.compile(r"\s*plural\s*,").match(self.text, self.at)
        if kind is None or name not in COUNTED:
            raise BadWording(
                f"After {{{name}, comes nothing that is known. Counts can have plurals: "
                "{count, plural, one {one here} other {# here}}.",
                value=self.text,
            )
        self.at = kind.end()
        exact: list[tuple[int, Pattern]] = []
        forms: list[tuple[str, Pattern]] = []
        while form := re.compile(r"\s*(=\d{1,4}|[a-z]+)\s*\{").match(self.text, self.at):
            self.at = form.end()
            self.depth += 1
            if self.depth > _DEEPEST:
                raise BadWording(
                    f"Plurals are nested more than {_DEEPEST} deep in “{self.text[:60]}…”.", value=self.text
                )
            inner = self.read(inside=name)
            self.depth -= 1
            self._close()
            if form[1].startswith("="):
                exact.append((int(form[1][1:]), inner))
            elif form[1] in CATEGORIES:
                forms.append((form[1], inner))
            else:
                raise BadWording(
                    f"There is no plural form {form[1]!r}. There are {', '.join(CATEGORIES)} and numbers as =0.",
                    value=form[1],
                )
        self._close()
        if "other" not in dict(forms):
            raise BadWording(f"The plural of {name} lacks the form “other”, which holds for the rest.", value=self.text)
        return Plural(name, tuple(exact), tuple(forms))

    def _close(self) -> None:
        closing = re.compile(r"\s*\}").match(self.text, self.at)
        if closing is None:
            raise self.unpaired()
        self.at = closing.end()


def live_names(pattern: Pattern) -> frozenset[str]:
    """Return the live values that a text asks for."""
    names = {part.name for part in pattern if isinstance(part, Live | Plural)}
    for part in pattern:
        if isinstance(part, Plural):
            for _, inner in (*part.exact, *part.forms):
                names |= live_names(inner)
    return frozenset(names)


# Stands in a filled text where a product has no value; no text of a designer can hold it.
HOLE = "\0"
_HOLES = re.compile(r"[\s·•,:;–—|/(-]*\0[\s·•,:;–—|/)\0-]*")


def without_holes(text: str) -> str:
    """Return a text without its holes and what joined them to the rest: `Add · ` is `Add`; the script does the same."""
    return _HOLES.sub(" ", text).strip()


def fill_text(pattern: Pattern, values: Mapping[str, str], language: str) -> str:
    """Return the text as a shopper reads it, with a `HOLE` for each value that is not there.

    Counts are whole numbers in figures.
    """
    parts = []
    for part in pattern:
        if isinstance(part, Plural):
            if not values.get(part.name):
                parts.append(HOLE)
                continue
            number = int(values[part.name])
            parts.append(fill_text(part.form(number, plural_category(language, number)), values, language))
        elif isinstance(part, Live):
            parts.append(isolated(values.get(part.name, ""), language) or HOLE)
        else:
            parts.append(part)
    return "".join(parts)


_RTL = re.compile("[\u0590-\u08ff\ufb1d-\ufdff\ufe70-\ufefc]")


def isolated(value: str, language: str) -> str:
    """Return a live value that cannot change the order of the words around it.

    Source:
        Unicode Bidirectional Algorithm (UAX 9), FIRST STRONG ISOLATE; common practice for values of unknown direction.
    """
    mixed = bool(value) and (is_rtl(language) or _RTL.search(value))
    return f"\u2068{value}\u2069" if mixed else value


@lru_cache(maxsize=256)
def is_rtl(language: str) -> bool:
    """Tell whether a language is written from right to left (CLDR, through Babel)."""
    return bool(_locale(language).text_direction == "rtl")


@lru_cache(maxsize=4096)
def plural_category(language: str, number: int) -> str:
    """Return the cardinal plural category of a whole number.

    Source:
        Unicode CLDR, plural rules (UTS 35 part 3), as shipped with Babel.
    """
    return str(_locale(language).plural_form(number))


PLURAL_TABLE = 200


@lru_cache(maxsize=64)
def plural_table(language: str) -> str:
    """Return the categories of 0 to 199 as figures that index `CATEGORIES`, for the script.

    Above, every hundred repeats in CLDR's cardinal rules of whole numbers below a million: 100 + n mod 100 stands in.
    """
    return "".join(str(CATEGORIES.index(plural_category(language, n))) for n in range(PLURAL_TABLE))


@lru_cache(maxsize=256)
def language_name(language: str) -> str:
    """Return what English calls a language, without its country: `German` for de-DE."""
    return str(Locale.parse("en").languages.get(language.split("-")[0], language))


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
def currency_digits(currency: str) -> int:
    """Return how many digits a currency has after the point: 2 for pounds, none for yen, 3 for Kuwaiti dinars.

    Source:
        Unicode CLDR, currency data (UTS 35 part 3), as shipped with Babel.
    """
    return int(get_currency_precision(currency))


def is_currency(code: str) -> bool:
    """Tell whether a code is that of a currency (ISO 4217, by CLDR through Babel)."""
    return bool(is_known_currency(code))


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
        digits=currency_digits(currency),
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
