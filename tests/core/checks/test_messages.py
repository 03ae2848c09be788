"""Messages that lack a language or say nothing are found, once for all buttons that share that."""

from typing import Any

from tests.samples import exception, settings, snapshot
from uptick.core.checks import findings_of


def told(message: dict[str, Any], more: tuple[str, ...] = ()) -> list[tuple[str, str]]:
    asks = exception(1, {"afterwards": {"kind": "message", "way": "mail", "to": "ask@shop.example", **message}})
    found = findings_of(snapshot(settings(asks, more=more)))
    return [(finding.title, finding.says) for finding in found if finding.rule == "message"]


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


def test_a_button_that_opens_a_message_with_the_words_of_one_that_buys_is_told() -> None:
    message = {"kind": "message", "way": "phone", "to": "+442079460018"}

    def said(*layers: Any, **places: Any) -> list[str]:
        found = findings_of(snapshot(settings(*layers, **places)))
        return [finding.title for finding in found if finding.rule == "message_words"]

    bare = {"afterwards": message}
    own = {"afterwards": message, "wording": {"ready": {"en-GB": "Ask"}}}
    assert said(exception(1, bare)) == ["It opens a message and says “Buy”, as a button that buys does"]
    assert said(product_page=bare) == said(exception(1, bare))
    assert said(exception(1, own)) == said(product_page=own) == []
    # What is more particular may say it.
    assert said(exception(1, {"wording": {"ready": {"en-GB": "Ask"}}}), product_page=bare) == []


def test_a_message_button_is_ready_whatever_is_in_stock() -> None:
    own = {
        "afterwards": {"kind": "message", "way": "phone", "to": "+442079460018"},
        "wording": {"ready": {"en-GB": "Ask"}, "sold_out": {"en-GB": "X" * 80}},
    }
    found = findings_of(snapshot(settings(product_page=own, listing_card=own, strip=own, sticky_bar=own)))
    # Words that it never says are not measured.
    assert [finding.title for finding in found if "XXX" in finding.says] == []


def test_a_message_under_a_basket_is_told_with_what_takes_it_away() -> None:
    message = {"kind": "message", "way": "phone", "to": "+442079460018"}
    layer = {
        "afterwards": message,
        "wording": {"ready": {"en-GB": "Ask"}},
        "icon": {"kind": "shipped", "name": "basket"},
    }
    found = findings_of(snapshot(settings(exception(1, layer))))
    (said,) = [finding for finding in found if finding.rule == "message_icon"]
    assert [(fix.layer, fix.patch) for fix in said.fixes] == [("exception:e1", {"icon": {"kind": "none"}})]
    bare = findings_of(snapshot(settings(exception(1, {**layer, "icon": {"kind": "shipped", "name": "envelope"}}))))
    assert not [finding for finding in bare if finding.rule == "message_icon"]
