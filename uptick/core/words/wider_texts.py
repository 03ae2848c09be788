"""Texts of wider rules, which are said for products that lack a value which the narrower text needs."""

from collections.abc import Iterable, Mapping, Sequence
from functools import lru_cache

from uptick.core.button.document import ButtonDocument, Moment, Wider, parse_document, wording_of
from uptick.core.button.merge import Json
from uptick.core.errors import BadWording
from uptick.core.words.wording import live_names, parse_text

Wording = Mapping[Moment, Mapping[str, str]]
# A product always has a code and a name, and a basket a count.
MAY_LACK = frozenset({"price", "price without tax", "saving", "left", "page"})


@lru_cache(maxsize=16_384)
def needed_by(text: str) -> frozenset[str]:
    """Return the live values of a text that some products have not."""
    try:
        return live_names(parse_text(text)) & MAY_LACK
    except BadWording:
        return frozenset()


def wider_texts(stack: Sequence[Wording]) -> Wider:
    """Return, for each text of merged layers that some products cannot say, those that it overrides, nearest first.

    Args:
        stack: Texts by layer, the widest first.
    """
    winners = {
        (moment, language): text for texts in stack for moment, by in texts.items() for language, text in by.items()
    }
    wider: Wider = {}
    for (moment, language), winner in winners.items():
        if needed_by(winner):
            layer_texts = [by[language] for texts in reversed(stack) if language in (by := texts.get(moment, {}))]
            if others := overridden(winner, layer_texts):
                wider[moment, language] = others
    return wider


def overridden(winner: str, texts: Iterable[str]) -> tuple[str, ...]:
    """Return the texts that may be said instead of one, nearest first, up to the first that every product can say."""
    others: dict[str, None] = {}
    for text in texts:
        if text != winner:
            others[text] = None
            if not needed_by(text):
                break
    return tuple(others)


def document_of(raw: Json, layers: Iterable[Json]) -> ButtonDocument:
    """Return the document of merged layers, which knows the texts that were overridden.

    Raises:
        BadDocument: The layers together do not make a button; names the field.
    """
    document = parse_document(raw)
    stack = [wording_of(layer) for layer in layers if layer.get("wording")]
    return document.with_texts(document.wording, wider_texts(stack))
