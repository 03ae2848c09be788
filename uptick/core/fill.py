"""Texts filled for real products, and the worst of them: the one that takes the most room."""

from collections.abc import Iterable
from dataclasses import dataclass

from uptick.core.catalogue import Product
from uptick.core.classes import MOMENTS_OF, ButtonClass
from uptick.core.document import ButtonDocument, Moment
from uptick.core.type.fontbook import FontBook
from uptick.core.wording import Live, fill_text, money_rule, money_text, parse_text

# Two digits in the basket is the widest count that is common practice to plan for.
COUNT_TO_FIT = 12


@dataclass(frozen=True, slots=True)
class WorstText:
    """The widest text of a moment, and the product that makes it so (none when no live value is in it)."""

    text: str
    width_px: float
    product: Product | None


def template_of(document: ButtonDocument, moment: Moment, language: str) -> str:
    """Return a moment's text as written; the ready text stands in where a moment has none."""
    by_language = document.wording.get(moment) or document.wording.get(Moment.READY) or {}
    return by_language.get(language) or next(iter(by_language.values()), "")


def text_for(document: ButtonDocument, moment: Moment, language: str, product: Product | None, count: int = 2) -> str:
    """Return what a shopper reads on the button of a product."""
    pattern = parse_text(template_of(document, moment, language))
    values = {"count": str(count)}
    if product:
        values["price"] = money_text(product.price, money_rule(language, product.currency))
        values["name"] = product.name
    return fill_text(pattern, values)


def worst_text(
    document: ButtonDocument, moment: Moment, language: str, products: Iterable[Product], fonts: FontBook
) -> WorstText:
    """Return the widest text of a moment over the products that can come into it."""
    kind = document.look.type
    pattern = parse_text(template_of(document, moment, language))
    live = {part.name for part in pattern if isinstance(part, Live)} & {"price", "name"}

    def measured(product: Product | None) -> WorstText:
        text = text_for(document, moment, language, product, COUNT_TO_FIT)
        return WorstText(text, fonts.measure(text, kind.family, kind.size_px, kind.weight).width_px, product)

    if not live:
        return measured(None)
    able = [p for p in products if moment in MOMENTS_OF[p.situation]]
    return max((measured(p) for p in able), key=lambda w: w.width_px, default=measured(None))


def worst_of_class(one: ButtonClass, moment: Moment, language: str, fonts: FontBook) -> WorstText:
    return worst_text(one.document, moment, language, one.products, fonts)
