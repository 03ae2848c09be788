"""A reach as a designer says it, and the reach that a designer has said."""

import re
from collections import Counter
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from difflib import get_close_matches
from functools import cached_property

from uptick.core.button.document import Device, Placement, ShopperKind, Situation
from uptick.core.engine.snapshot import Snapshot
from uptick.core.engine.step import Step
from uptick.core.errors import BadReach
from uptick.core.rules.reach import Reach
from uptick.core.words.wording import language_name

_DEVICES = {Device.PHONE: "phones", Device.TABLET: "tablets", Device.DESKTOP: "desktops"}
_PLACEMENTS = {
    Placement.PRODUCT_PAGE: "the product page",
    Placement.LISTING_CARD: "listing cards",
    Placement.STICKY_BAR: "the sticky bar",
    Placement.STRIP: "strips",
    Placement.OVER_PICTURE: "pictures",
    Placement.FLOATING: "the floating button",
    Placement.TILE: "tiles",
    Placement.OUTSIDE: "outside buttons",
}
_SITUATIONS = {
    Situation.PLAIN: "plain",
    Situation.CHOICE: "a choice is needed",
    Situation.SET: "it is a set",
    Situation.PRE_ORDER: "on pre-order",
    Situation.SOLD_OUT: "sold out",
}
_SHOPPERS = {
    ShopperKind.NEW: "new shoppers",
    ShopperKind.RETURNING: "returning shoppers",
    ShopperKind.SIGNED_IN: "signed-in shoppers",
}


def placement_words(placement: Placement) -> str:
    """Return a placement as words within a sentence."""
    return _PLACEMENTS[placement]


def listed(words: Iterable[str], last: str = "and") -> str:
    """Return `a, b and c`."""
    *before, final = list(words) or [""]
    return f"{', '.join(before)} {last} {final}" if before else final


@dataclass(frozen=True)
class Vocabulary:
    """The names of a shop: products by code, categories, and the languages that it speaks."""

    products: Mapping[str, str]
    categories: Sequence[str]
    languages: Sequence[str]

    @cached_property
    def _often(self) -> Counter[str]:
        return Counter(name.casefold() for name in (*self.products.values(), *self.categories))

    def product(self, sku: str) -> str:
        """Return what a product is called; with its code where another thing is called the same."""
        name = self.products.get(sku)
        if name is None:
            return f"{sku} (gone)"
        return name if self._often[name.casefold()] == 1 else f"{name} ({sku})"

    def language(self, code: str) -> str:
        """Return a language's name, or its code where another of the store's has the same name."""
        name = language_name(code)
        alike = [language for language in self.languages if language_name(language) == name]
        return name if len(alike) < 2 else code

    @cached_property
    def _terms(self) -> dict[str, tuple[str, str]]:
        """Return every term by its lower-case form, as a field of `Reach` and a value."""
        terms: dict[str, tuple[str, str]] = {}
        for sku, name in self.products.items():
            terms.setdefault(name.casefold(), ("products", sku))
            terms[f"{name} ({sku})".casefold()] = ("products", sku)
        terms |= {sku.casefold(): ("products", sku) for sku in self.products}
        terms |= {category.casefold(): ("categories", category) for category in self.categories}
        for code in self.languages:
            for word in (language_name(code), code):
                terms[word.casefold()] = terms[f"in {word}".casefold()] = ("languages", code)
        for field, kinds, leads in (
            ("devices", _DEVICES, ("on", "")),
            ("placements", _PLACEMENTS, ("on", "in", "")),
            ("situations", _SITUATIONS, ("when", "")),
            ("shoppers", _SHOPPERS, ("for", "")),
        ):
            for kind, word in kinds.items():
                for lead in leads:
                    bare = word.removeprefix("the ").removeprefix("on ").removeprefix("it is ")
                    for form in {word, bare, word.removesuffix("s"), bare.removesuffix("s"), kind.replace("_", " ")}:
                        terms[f"{lead} {form}".strip().casefold()] = (field, kind.value)
        return terms

    @cached_property
    def _by_first_word(self) -> dict[str, list[str]]:
        """Return the terms by their first word, the longest first, so that a long shop costs no more to read."""
        by_first_word: dict[str, list[str]] = {}
        for term in self._terms:
            by_first_word.setdefault(_first_word(term), []).append(term)
        return {word: sorted(terms, key=len, reverse=True) for word, terms in by_first_word.items()}

    def match(self, text: str) -> tuple[int, str, str] | None:
        """Return how far a term reaches at the beginning of a text, with its field and value."""
        low = text.casefold()
        for term in self._by_first_word.get(_first_word(low), ()):
            rest = low[len(term) :]
            if low.startswith(term) and (not rest or not rest[0].isalnum()):
                field, value = self._terms[term]
                return len(term), field, value
        return None

    def near(self, text: str, most: int = 5) -> list[str]:
        """Return terms that a text may have meant, as they are written."""
        low = text.casefold().strip()
        names = [*self.categories, *(self.product(sku) for sku in self.products)]
        names += [f"on {word}" for word in (*_DEVICES.values(), *_PLACEMENTS.values())]
        names += [f"when {word}" for word in _SITUATIONS.values()] + [f"for {word}" for word in _SHOPPERS.values()]
        names += [f"in {self.language(code)}" for code in self.languages]
        begin = [name for name in names if name.casefold().startswith(low)]
        inside = [name for name in names if low and low in name.casefold() and name not in begin]
        names_near = (begin + inside)[:most]
        if len(names_near) < most and len(names) < 2_000:
            by_low = {name.casefold(): name for name in names}
            names_near += [
                by_low[near] for near in get_close_matches(low, by_low, most) if by_low[near] not in names_near
            ]
        return names_near[:most]


def _first_word(text: str) -> str:
    match = re.match(r"\w+|\W", text)
    return match[0] if match else ""


def vocabulary_of(snapshot: Snapshot) -> Vocabulary:
    """Return the names of a catalogue, and the languages that its buttons speak."""
    goods, languages = snapshot.goods, snapshot.settings.languages

    def work() -> Vocabulary:
        return Vocabulary(
            {product.sku: product.name for product in goods.products}, tuple(goods.by_category), languages
        )

    return snapshot.tables.ask(Step.GOODS, ("names", goods.number, languages), work)


def say_reach(reach: Reach, names: Vocabulary) -> str:
    """Return a reach as a designer would say it; `read_reach` reads it back."""
    parts = [listed((*(names.product(sku) for sku in reach.products), *reach.categories)) or "every product"]
    if reach.products and reach.categories:
        parts = [f"{listed(names.product(sku) for sku in reach.products)}, if in {listed(reach.categories, 'or')}"]
    if reach.situations:
        parts.append("when " + listed((_SITUATIONS[s] for s in reach.situations), "or"))
    if reach.placements:
        parts.append("on " + listed(_PLACEMENTS[p] for p in reach.placements))
    if reach.devices:
        parts.append("on " + listed(_DEVICES[d] for d in reach.devices))
    if reach.languages:
        parts.append("in " + listed(names.language(code) for code in reach.languages))
    if reach.shoppers:
        parts.append("for " + listed(_SHOPPERS[s] for s in reach.shoppers))
    away = (*(names.product(sku) for sku in reach.not_products), *reach.not_categories)
    if away:
        parts.append("except " + listed(away))
    return ", ".join(parts)


_BETWEEN = re.compile(
    r"(?:[\s,;]+|(?:and|or|the|on|in|when|for|if|if in|every product|all products)\b)+", re.IGNORECASE
)
_EXCEPT = re.compile(r"[\s,]*(?:except|but not|without)\b\s*", re.IGNORECASE)


def read_reach(text: str, names: Vocabulary) -> Reach:
    """Return the reach that some words mean, as *Frames & wax, on phones, except brood frames*.

    Raises:
        BadReach: A word means nothing here; says which, and what may have been meant.
    """
    fields: dict[str, list[str]] = {}
    rest, away = text.strip(), False
    while rest:
        if gap := _EXCEPT.match(rest):
            rest, away = rest[gap.end() :], True
            continue
        matched = names.match(rest)
        if matched is None and (gap := _BETWEEN.match(rest)):
            rest = rest[gap.end() :]
            continue
        if matched is None:
            raise _not_known(rest, names)
        length, field, value = matched
        if away and field not in {"products", "categories"}:
            raise BadReach(f"Only products and categories can be excepted; “{rest[:length]}” is neither.", at=rest)
        values = fields.setdefault(f"not_{field}" if away else field, [])
        if value not in values:
            values.append(value)
        rest = rest[length:]
    if away and not {"not_products", "not_categories"} & set(fields):
        raise BadReach("Say what is excepted: a product or a category.", at="")
    return Reach.model_validate(fields)


def _not_known(rest: str, names: Vocabulary) -> BadReach:
    phrase = re.split(r",|\band\b|\bexcept\b", rest)[0].strip() or rest
    near = names.near(phrase)
    hint = f" Perhaps: {listed(near, 'or')}." if near else ""
    return BadReach(f"“{phrase}” is no product, category, place or kind of shopper here.{hint}", at=phrase, near=near)
