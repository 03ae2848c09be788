"""Messages that lack a language or say nothing are found, once for all buttons that share that."""

from typing import Any

from tests.samples import exception, settings, snapshot
from uptick.core.checks import findings_of


def told(message: dict[str, Any], more: tuple[str, ...] = ()) -> list[tuple[str, str]]:
    asks = exception(1, {"afterwards": {"kind": "message", "way": "mail", "to": "ask@shop.example", **message}})
    found = findings_of(snapshot(settings(asks, more=more)))
    return [(one.title, one.says) for one in found if one.rule == "message"]


def test_a_message_that_names_no_product_is_told() -> None:
    (said,) = told({})
    assert said[0] == "The message says nothing"
    assert "{name}" in said[1]


def test_a_language_that_a_message_lacks_is_told_with_what_stands_in() -> None:
    text = {"text": {"en-GB": "About {name}", "de-DE": "Zu {name}"}}
    (said,) = told(text, ("de-DE", "fr-FR"))
    assert said[0] == "The message is not told in French"
    assert "is in English there" in said[1]
    assert told(text, ("de-DE",)) == []


def test_a_call_says_nothing_and_needs_nothing() -> None:
    assert told({"way": "phone", "to": "+442079460018"}) == []
