"""What opens after a press, compiled: how it is drawn, and what it says."""

from collections.abc import Mapping, Sequence
from typing import NotRequired

from typing_extensions import TypedDict

from uptick.core.button.box_names import known_names
from uptick.core.button.document import ButtonDocument, SecondButton, ShowBasket, TellWhenBack
from uptick.core.drawing.css import font_family
from uptick.core.words.basket_words import BASKET_WORDS
from uptick.core.words.close_words import CLOSE_WORDS
from uptick.core.words.closer_words import CLOSER_WORDS


class CompiledSheet(TypedDict):
    """How sheets are drawn. With `plain` their main button has no words of its own look, and is drawn by them."""

    css: str
    plain: NotRequired[bool]


class CompiledShow(TypedDict):
    """A basket that is shown; `words` are those of `BASKET_WORDS`, what a quantity is called, what closes it, and the
    language that they are in, by the store's languages.
    """

    side: NotRequired[bool]
    free: NotRequired[str]
    words: NotRequired[dict[str, list[str]]]


class CompiledCloser(TypedDict):
    """A sheet for a product: `choose` is where it opens for a choice, and `words` are those of `CLOSER_WORDS`, what
    closes it, and their language, by the store's languages.
    """

    choose: NotRequired[str]
    words: NotRequired[dict[str, list[str]]]


def compile_sheet(document: ButtonDocument) -> CompiledSheet | None:
    """Return how sheets are drawn; None where a press opens none."""
    asks = isinstance(document.afterwards, ShowBasket | TellWhenBack)
    if not asks and document.choosing == "page" and not has_closer(document):
        return None
    wire: CompiledSheet = {"css": sheet_css(document)}
    if document.is_wordless:
        wire["plain"] = True
    return wire


def has_closer(document: ButtonDocument) -> bool:
    """Tell whether its second button opens a closer look."""
    return isinstance(document.second, SecondButton) and document.second.kind == "closer"


def compile_closer(document: ButtonDocument) -> CompiledCloser | None:
    """Return what opens for a product; None where nothing does. Its words come with a store's languages."""
    if document.choosing == "page" and not has_closer(document):
        return None
    return {"choose": document.choosing} if document.choosing != "page" else {}


def compile_show(document: ButtonDocument) -> CompiledShow | None:
    """Return a basket that is shown; None where none is. Its words come with a store's languages."""
    shows = document.afterwards
    if not isinstance(shows, ShowBasket):
        return None
    wire: CompiledShow = {}
    if shows.where == "side":
        wire["side"] = True
    if shows.free_from:
        wire["free"] = f"{shows.free_from:.2f}"
    return wire


def sheet_css(document: ButtonDocument) -> str:
    """Return the part of a sheet's style sheet that can be drawn."""
    sheet = document.sheet
    edge = f"border:{sheet.edge_px:g}px solid {sheet.edge_colour};" if sheet.edge_px else ""
    return (
        f"dialog{{font:{sheet.size_px:g}px/1.4 {font_family(document.look.type.family)},system-ui,sans-serif;"
        f"width:{sheet.width_px:g}px;{edge}border-radius:{sheet.radius_px:g}px;"
        f"background:{sheet.ground};color:{sheet.ink};animation-duration:{sheet.motion_ms}ms}}"
        f".f{{padding:{sheet.padding_px:g}px}}"
        f"dialog::backdrop{{background:{sheet.shade}}}"
    )


# Where a store's own words stand among those of a basket.
_OWN = (0, 6, 7, 8)


def show_words(document: ButtonDocument, languages: Sequence[str]) -> dict[str, list[str]]:
    """Return what a basket says in a store's languages; English stands in."""
    shows = document.afterwards
    own = shows.says if isinstance(shows, ShowBasket) else {}
    words_of = {}
    for language in languages:
        known = _known(language, BASKET_WORDS)
        words = list(BASKET_WORDS[known])
        if says := own.get(language):
            for place, text in zip(_OWN, (says.heading, says.to_basket, says.to_checkout, says.go_on), strict=True):
                words[place] = text or words[place]
        names = known_names(known)
        assert names
        words_of[language] = [*words, names.quantity, CLOSE_WORDS[known], known]
    return words_of


def closer_words(languages: Sequence[str]) -> dict[str, list[str]]:
    """Return what sheets of products say in a store's languages; English stands in."""
    known = {language: _known(language, CLOSER_WORDS) for language in languages}
    return {language: [*CLOSER_WORDS[spoken], CLOSE_WORDS[spoken], spoken] for language, spoken in known.items()}


def _known(language: str, among: Mapping[str, object]) -> str:
    return base if (base := language.split("-")[0]) in among else "en"
