"""Texts filled for real products, and the worst of them: the one that takes the most room."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from heapq import nlargest

from uptick.core.catalogue import Product
from uptick.core.classes import MOMENTS_OF, ButtonClass
from uptick.core.document import ButtonDocument, Moment
from uptick.core.look import Type
from uptick.core.memo import Kept
from uptick.core.type.fontbook import FontBook
from uptick.core.type.setting import width_of
from uptick.core.wording import Live, Pattern, Plural, fill_text, live_names, money_rule, money_text, parse_text

# Two digits in the basket is the widest count that is common practice to plan for.
COUNT_TO_FIT = 12
_OF_PRODUCT = {"price", "price without tax", "name", "left", "code", "page", "saving"}


@dataclass(frozen=True, slots=True)
class WorstText:
    """The widest text of a moment, and the product that makes it so (none when no live value is in it)."""

    text: str
    width_px: float
    product: Product | None


def template_of(document: ButtonDocument, moment: Moment, language: str, first: str = "") -> str:
    """Return a moment's text as written.

    Where the language has none, that of the store's `first` language stands in; where the moment has none, the ready
    text of the same language does.
    """
    for by_language in (document.wording.get(moment), document.wording.get(Moment.READY)):
        if by_language:
            return by_language.get(language) or by_language.get(first) or next(iter(by_language.values()), "")
    return ""


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
    """Return what a shopper reads on the button of a product."""
    pattern = parse_text(template_of(document, moment, language, first))
    return fill_text(pattern, live_values(product, language, count), language)


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
    template = template_of(document, moment, language, first)
    kind, those = document.look.type, tuple(batches)
    key = (template, moment, language, kind, id(fonts), tuple(map(id, those)))
    return _worst.get(key, (fonts, those), lambda: _worst_text(template, kind, moment, language, those, fonts))


_worst: Kept[WorstText] = Kept(32_768)


def _worst_text(
    template: str, kind: Type, moment: Moment, language: str, batches: Sequence[Sequence[Product]], fonts: FontBook
) -> WorstText:
    pattern = parse_text(template)
    face = (kind.family, kind.weight, language)

    def measured(product: Product | None) -> WorstText:
        texts = {
            fill_text(pattern, live_values(product, language, count), language) for count in _counts(pattern, product)
        }
        found = ((t, width_of(t, kind, fonts, language)) for t in texts)
        text, width = max(found, key=lambda one: (one[1], one[0]))
        return WorstText(text, width, product)

    if not live_names(pattern) & _OF_PRODUCT:
        return measured(None)
    able = [batch for batch in batches if batch and moment in MOMENTS_OF[batch[0].situation]]
    widest = [product for batch in able for product in _likely(pattern, batch, fonts, face)]
    return max((measured(p) for p in widest), key=lambda w: w.width_px, default=measured(None))


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
