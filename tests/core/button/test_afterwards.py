"""What a press leads to besides the basket: values that are refused, and what travels in a release."""

from typing import Any

import pytest

from tests.samples import document, exception, release, settings
from uptick.core.button.field_words import value_text
from uptick.core.errors import BadDocument
from uptick.core.words.close_words import CLOSE_WORDS
from uptick.core.words.notify_words import NOTIFY_WORDS


@pytest.mark.parametrize("path", ["https://evil.example/take", "//evil.example", "restock", "", "/a b"])
def test_a_mail_address_goes_to_the_shops_own_path_only(path: str) -> None:
    with pytest.raises(BadDocument, match="afterwards"):
        document({"afterwards": {"kind": "notify", "path": path}})


def test_what_is_asked_travels_in_the_languages_that_the_buttons_speak() -> None:
    asks = exception(1, {"afterwards": {"kind": "notify", "path": "/restock", "mail_field": "mail"}}, products=("C1",))
    made = release(settings(asks, more=("de-DE", "is-IS")))
    (notify,) = {str(look["notify"]): look["notify"] for look in made["looks"] if "notify" in look}.values()
    assert (notify["path"], notify["mail"], notify["product"]) == ("/restock", "mail", "product")
    assert list(notify["words"]) == ["en-GB", "de-DE", "is-IS"]
    assert notify["words"]["de-DE"] == [*NOTIFY_WORDS["de"], "Schließen", "de"]
    # A language that we have no words in is told in English, and said to be so.
    assert notify["words"]["is-IS"][-1] == "en"


def test_every_language_has_all_words() -> None:
    assert set(NOTIFY_WORDS) == set(CLOSE_WORDS)
    assert all(len(words) == 5 and all(words) for words in NOTIFY_WORDS.values())


SAID: list[tuple[dict[str, Any], str]] = [
    ({"kind": "stay"}, "stay on the page"),
    ({"kind": "count"}, "stay on the page, only the count rises"),
    ({"kind": "notify", "path": "/restock"}, "stay; what is sold out asks for a mail address and sends it to /restock"),
    ({"kind": "message", "way": "phone", "to": "+442079460018"}, "open a telephone call to +442079460018"),
    ({"kind": "checkout"}, "go to the checkout"),
]


@pytest.mark.parametrize(("value", "says"), SAID)
def test_what_happens_next_is_said_as_a_designer_would(value: dict[str, Any], says: str) -> None:
    assert value_text(value) == says


def test_who_asks_is_not_drawn_as_what_cannot_be_pressed() -> None:
    plain = release(settings())["looks"][0]["css"]
    message = {"kind": "message", "way": "phone", "to": "+442079460018"}
    asking = [look for look in release(settings(exception(1, {"afterwards": message})))["looks"] if "message" in look]
    assert "[data-moment=sold_out]" in plain
    assert asking
    assert all("[data-moment=sold_out]" not in look["css"] for look in asking)
