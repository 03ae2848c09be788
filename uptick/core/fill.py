"""Texts filled for real products, and the worst of them: the one that takes the most room."""

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from heapq import nlargest

from uptick.core.catalogue import Product
from uptick.core.classes import MOMENTS_OF, ButtonClass
from uptick.core.document import ButtonDocument, Moment
from uptick.core.look import Type
from uptick.core.memo import Kept
from uptick.core.type.fontbook import FontBook
from uptick.core.type.setting import width_of
from uptick.core.wider_texts import needed_by
from uptick.core.wording import (
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
        for one in dict.fromkeys((language, first, next(iter(by_language), ""))):
            if texts := document.texts(at, one):
                yield texts


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
        said = next((text for text in filled if HOLE not in text), "") or without_holes(filled[0])
        if said:
            return said
    return values.get("name", "")


def _counts(pattern: Pattern, product: Product | None) -> tuple[int, ...]:
    """Return the counts whose texts are compared: a plural's short forms can be the longer ones."""
    plurals = [part for part in pattern if isinstance(part, Plural) and part.name == "count"]
    if not plurals:
        return (COUNT_TO_FIT,)
    return (1, 2, 3, COUNT_TO_FIT, *(number for part in plurals for number, _ in part.exact if number))


def worst_text(
    document: ButtonDocument,
    moment: Moment,
    language: str,
    batches: Iterable[Sequence[Product]],
    fonts: FontBook,
    first: str = "",
) -> WorstText:
    """Return the widest text of a moment over the products that can come into it; each batch is of one situation."""
    stacks = tuple(_stacks(document, moment, language, first))
    kind, those = document.look.type, tuple(batches)
    key = (stacks, moment, language, kind, id(fonts), tuple(map(id, those)))
    return _worst.get(key, (fonts, those), lambda: _worst_text(stacks, kind, moment, language, those, fonts))


_worst: Kept[WorstText] = Kept(32_768)


def _worst_text(
    stacks: tuple[tuple[str, ...], ...],
    kind: Type,
    moment: Moment,
    language: str,
    batches: Sequence[Sequence[Product]],
    fonts: FontBook,
) -> WorstText:
    texts = stacks[0] if stacks else ("",)
    pattern = parse_text(texts[0])
    face = (kind.family, kind.weight, language)

    def measured(product: Product | None) -> WorstText:
        said = {_say(stacks, live_values(product, language, count), language) for count in _counts(pattern, product)}
        found = ((t, width_of(t, kind, fonts, language)) for t in said)
        text, width = max(found, key=lambda one: (one[1], one[0]))
        return WorstText(text, width, product)

    if not live_names(pattern) & _OF_PRODUCT:
        return measured(None)
    able = [batch for batch in batches if batch and moment in MOMENTS_OF[batch[0].situation]]
    widest = [product for batch in able for product in _likely(pattern, batch, fonts, face)]
    needed = needed_by(texts[0])
    for batch in able if needed else ():
        # Who cannot say it says a wider text, which may be the longer one.
        unable = products_without(batch, needed)
        widest += [product for text in texts for product in _likely(parse_text(text), unable, fonts, face)]
    return max((measured(p) for p in widest), key=lambda w: w.width_px, default=measured(None))


def products_without(batch: Sequence[Product], needed: frozenset[str]) -> tuple[Product, ...]:
    """Return the products of a batch that lack one of some live values; always the same object for the same batch."""
    return _unable.get(
        (id(batch), needed), (batch,), lambda: tuple(p for p in batch if any(lacks(p, name) for name in needed))
    )


_unable: Kept[tuple[Product, ...]] = Kept(4096)


def lacks(product: Product, name: str) -> bool:
    """Tell whether a product has no such live value."""
    if name == "saving":
        return product.saving is None
    if name == "page":
        return not product.url
    return name in {"price", "price without tax"} and product.price_minor is None


_shortlists: Kept[list[Product]] = Kept(4096)
# Kerning and joined letters can change the order of near equals, so several are set in full.
_SHORTLIST = 8


def _likely(
    pattern: Pattern, batch: Sequence[Product], fonts: FontBook, face: tuple[str, int, str]
) -> Sequence[Product]:
    """Return the products of a batch whose text is likely to be the widest; remembered by batch and text."""
    if len(batch) <= _SHORTLIST:
        return batch
    key = (id(batch), id(fonts), pattern, face)
    return _shortlists.get(key, (batch, fonts), lambda: _shortlist(pattern, batch, fonts, face))


def _shortlist(
    pattern: Pattern, batch: Sequence[Product], fonts: FontBook, face: tuple[str, int, str]
) -> list[Product]:
    family, weight, language = face
    names = sorted(_flat(pattern))
    widths: dict[str, float] = {}

    def width(text: str) -> float:
        known = widths.get(text)
        if known is None:
            known = widths[text] = fonts.rough_em(text, family, weight)
        return known

    def taken(product: Product) -> float:
        values = live_values(product, language, COUNT_TO_FIT)
        return sum(width(values.get(name, "")) for name in names)

    return nlargest(_SHORTLIST, batch, key=taken)


def _flat(pattern: Pattern) -> list[str]:
    """Return the live values of a product that a text shows, as often as it does; of a plural those of its rest."""
    found: list[str] = []
    for part in pattern:
        if isinstance(part, Plural):
            found += _flat(dict(part.forms)["other"])
        elif isinstance(part, Live) and part.name in _OF_PRODUCT:
            found.append(part.name)
    return found


def worst_of_class(one: ButtonClass, moment: Moment, language: str, fonts: FontBook, first: str = "") -> WorstText:
    return worst_text(one.document, moment, language, one.batches, fonts, first)
