"""What a press opens: how it is drawn, what it says in every language, and what travels in a release."""

import re
from typing import Any

import pytest

from tests.samples import document, exception, release, settings
from uptick.core.button.box_names import known_names
from uptick.core.button.field_words import value_text
from uptick.core.drawing.sheet import compile_sheet, sheet_css
from uptick.core.errors import BadDocument
from uptick.core.words.basket_words import BASKET_WORDS
from uptick.core.words.close_words import CLOSE_WORDS
from uptick.core.words.closer_words import CLOSER_WORDS

SHOW = {
    "afterwards": {
        "kind": "show",
        "free_from": 60.5,
        "says": {"de-DE": {"heading": "Ihr Korb", "to_checkout": "Bezahlen"}},
    }
}
CLOSER: dict[str, Any] = {
    "second": {
        "kind": "closer", "wording": {"en-GB": "Look"}, "radius": 0,
        "padding": {"top": 4, "right": 4, "bottom": 4, "left": 4},
    }
}  # fmt: skip


def looks(layer: dict[str, Any], more: tuple[str, ...] = ()) -> list[Any]:
    made = release(settings(exception(1, layer, products=("A1",)), more=more))
    return [look for look in made["looks"] if "sheet" in look]


def test_a_sheet_travels_only_where_a_press_opens_one() -> None:
    assert not any("sheet" in look for look in release(settings())["looks"])
    assert compile_sheet(document()) is None
    for layer in (SHOW, CLOSER, {"choosing": "card"}, {"afterwards": {"kind": "notify", "path": "/restock"}}):
        assert looks(layer)


def test_a_basket_travels_in_the_languages_that_the_buttons_speak() -> None:
    (show,) = {str(look["show"]): look["show"] for look in looks(SHOW, ("de-DE", "is-IS"))}.values()
    assert (show["side"], show["free"]) == (True, "60.50")
    usual = BASKET_WORDS["de"]
    own = ["Ihr Korb", *usual[1:7], "Bezahlen", *usual[8:]]
    assert show["words"]["de-DE"] == [*own, "Menge", "Schließen", "de"]
    assert show["words"]["en-GB"][0] == "Your basket"
    # A language that we have no words in is told in English, and said to be so.
    assert show["words"]["is-IS"][-1] == "en"


def test_a_choice_and_a_closer_look_say_what_they_need() -> None:
    (look,) = {str(look["closer"]): look for look in looks({**CLOSER, "choosing": "middle"})}.values()
    assert look["closer"]["choose"] == "middle"
    assert look["closer"]["words"]["en-GB"] == [*CLOSER_WORDS["en"], "Close", "en"]
    assert look["looks"] is True
    # On the sheet itself what leads there is not shown.
    assert ".s{display:var(--up-looks,inline-flex)}" in look["css"]
    (chosen,) = {str(look["closer"]): look for look in looks({"choosing": "card"})}.values()
    assert "looks" not in chosen


@pytest.mark.parametrize("words", [BASKET_WORDS, CLOSER_WORDS])
def test_every_language_has_all_words(words: dict[str, tuple[str, ...]]) -> None:
    assert set(words) == set(CLOSE_WORDS)
    english = [sorted(re.findall(r"\{\w+\}", text)) for text in words["en"]]
    for language, said in words.items():
        assert all(said), language
        # What is filled in is filled in everywhere.
        assert [sorted(re.findall(r"\{\w+\}", text)) for text in said] == english, language
        assert known_names(language)


def test_it_is_drawn_in_the_family_of_its_button() -> None:
    drawn = document({"sheet": {"width_px": 500, "edge_px": 2, "edge_colour": "#ff0000", "ground": "#101010"}})
    css = sheet_css(drawn)
    assert "width:500px;border:2px solid #ff0000;" in css
    assert "background:#101010" in css
    assert "up-figtree" in css
    assert "plain" not in (compile_sheet(document(SHOW)) or {})
    # A button without words has none to lend.
    alone = {**SHOW, "icon": {"kind": "shipped", "name": "basket", "side": "alone"}}
    assert (compile_sheet(document(alone)) or {})["plain"] is True


@pytest.mark.parametrize(
    ("layer", "field"),
    [
        ({"sheet": {"width_px": 5000}}, "sheet.width_px"),
        ({"sheet": {"ground": "red;}body{display:none"}}, "sheet.ground"),
        ({"choosing": "anywhere"}, "choosing"),
        ({"afterwards": {"kind": "show", "free_from": -1}}, "afterwards.show.free_from"),
        ({"afterwards": {"kind": "show", "says": {"en-GB": {"go_on": "x" * 61}}}}, "afterwards.show.says.en-GB.go_on"),
    ],
)
def test_what_cannot_be_drawn_is_refused_by_name(layer: dict[str, Any], field: str) -> None:
    with pytest.raises(BadDocument, match=f"^{re.escape(field)}: "):
        document(layer)


def test_it_is_said_as_a_designer_would() -> None:
    assert value_text({"kind": "show", "where": "side", "free_from": 60}) == (
        "show the basket at the side, delivery is free from 60"
    )
    assert value_text({"kind": "show", "where": "middle"}) == "show the basket in the middle"
