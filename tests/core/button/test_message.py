"""Message buttons: numbers, patterns and addresses as their standards have them, bad ones told in a sentence."""

from typing import Any
from urllib.parse import parse_qs, unquote, urlsplit

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError

from tests.samples import product
from uptick.core.button.message import ToMessage, address_parts, e164, open_spans
from uptick.core.fitting.message_text import message_address

CHAT = "https://chat.example/{number}?text={message}"


def message(**more: Any) -> ToMessage:
    return ToMessage.model_validate({"way": "chat", "to": "+44 20 7946 0018", "pattern": CHAT, **more})


@pytest.mark.parametrize(
    ("told", "expect"),
    [
        # Reference: Ofcom's numbers for drama use, and ITU-T E.164 (12/2010), 6: at most 15 digits, country first.
        ("+44 20 7946 0018", "+442079460018"),
        ("+44 (0)20 7946 0018", "+442079460018"),
        ("+1-202-555-0143", "+12025550143"),
        ("+49 30 23125 000", "+493023125000"),
        ("+39 06 698 12345", "+390669812345"),
        ("tel:+1-201-555-0123", "+12015550123"),
    ],
)
def test_numbers_are_kept_in_e164(told: str, expect: str) -> None:
    assert e164(told) == expect
    assert message(to=told).to == expect


@pytest.mark.parametrize(
    "told", ["020 7946 0018", "call me", "+44", "+44 20", "+999 1234567", "+44 20 7946 0018 0018 0018 9"]
)
def test_what_is_no_number_is_refused_with_what_is_allowed(told: str) -> None:
    with pytest.raises(ValidationError, match="must be a telephone number"):
        message(to=told)


# Reference: RFC 6570, 3.2.2 to 3.2.9, the operators with one variable each; {message} stands for its `var`.
TEMPLATES = [
    ("https://a.example/{number}?text={message}", "https://a.example/442079460018?text=value"),
    ("https://a.example/{number}{?message}", "https://a.example/442079460018?message=value"),
    ("https://a.example/send?to={number}{&message}", "https://a.example/send?to=442079460018&message=value"),
    ("https://a.example{/number,message}", "https://a.example/442079460018/value"),
    ("https://a.example/{;message}", "https://a.example/;message=value"),
    ("https://a.example/{#message}", "https://a.example/#value"),
    ("https://a.example/x{.message}", "https://a.example/x.value"),
    ("https://a.example/{+message}", "https://a.example/value"),
    ("https://a.example/{message}?again={message}", "https://a.example/value?again=value"),
]


@pytest.mark.parametrize(("pattern", "expect"), TEMPLATES)
def test_patterns_are_expanded_as_the_standard_has_it(pattern: str, expect: str) -> None:
    made = message(pattern=pattern, text={"en-GB": "value"})
    assert message_address(made, product("A1"), "en-GB", "en-GB", "") == expect


BAD = [
    ("https://a.example/{number}", "must have {message}"),
    ("https://a.example/{message}{who}", "it has {who}"),
    ("https://a.example/{message:3}", "taken whole"),
    ("http://a.example/{message}", "begin with https://"),
    ("javascript:alert({message})", "begin with https://"),
    ("https://{message}.example/", "the chat's own address"),
    ("{message}", "begin with https://"),
]


@pytest.mark.parametrize(("pattern", "says"), BAD)
def test_a_pattern_that_leads_nowhere_is_refused(pattern: str, says: str) -> None:
    with pytest.raises(ValidationError, match=says):
        message(pattern=pattern)


def test_a_pattern_with_a_number_needs_one_and_one_without_does_not() -> None:
    with pytest.raises(ValidationError, match="a telephone number is needed"):
        message(to="")
    assert message(to="", pattern="https://a.example/{?message}").to == ""


@pytest.mark.parametrize("told", ["ask", "ask@", "ask@shop", "a b@shop.example", "ask@shop.example?cc=x@y.example", ""])
def test_what_is_no_mail_address_is_refused(told: str) -> None:
    with pytest.raises(ValidationError, match="must be a mail address"):
        ToMessage.model_validate({"way": "mail", "to": told})


def test_addresses_are_those_of_their_standards() -> None:
    """Reference: RFC 6068, 6.1 and 6.2 (encoding of line breaks and of %, & and ?); RFC 5724, 2.2; RFC 3966, 3."""
    mail = ToMessage.model_validate({
        "way": "mail", "to": "gorby%kremvax@example.com", "subject": {"en-GB": "Caffè & co?"},
        "text": {"en-GB": "one\ntwo 100%"},
    })  # fmt: skip
    address = message_address(mail, product("A1"), "en-GB", "en-GB", "")
    assert address == "mailto:gorby%25kremvax@example.com?subject=Caff%C3%A8%20%26%20co%3F&body=one%0D%0Atwo%20100%25"
    sms = ToMessage.model_validate({"way": "text", "to": "+15105550101", "text": {"en-GB": "hello there"}})
    assert message_address(sms, product("A1"), "en-GB", "en-GB", "") == "sms:+15105550101?body=hello%20there"
    assert address_parts(ToMessage.model_validate({"way": "phone", "to": "+12015550123"})) == ["tel:+12015550123"]


@given(
    st.text(max_size=60).filter(lambda text: not set(text) & set("{}\n\r")),
    st.sampled_from(["A1&b=c#d", "größe 1/2", "a+b %41"]),
)
def test_a_message_is_encoded_exactly_once(text: str, name: str) -> None:
    """What a chat reads out of its address is the message, letter by letter."""
    made = message(text={"en-GB": f"x{text}x {{name}}"})
    address = message_address(made, product("A1", name=name), "en-GB", "en-GB", "")
    assert set(urlsplit(address).query.removeprefix("text=")) <= set(
        "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789-._~%"
    )
    query = urlsplit(address).query
    plain = unquote(query.removeprefix("text="))
    assert parse_qs(query)["text"] == [plain]
    assert plain.endswith(name)
    assert urlsplit(address).path == "/442079460018"


def test_values_the_choice_and_the_hours_fill_a_message() -> None:
    text = {"en-GB": "About {name} ({code}, {choice}), {price}\n{page}", "de-DE": "Zu {name}"}
    made = message(text=text, hours="Mon-Fri 9:00-17:30", closed={"en-GB": "Tomorrow: {code}"})
    at = {"language": "en-GB", "first": "en-GB", "page": "https://shop.example/p/A1"}
    said = unquote(message_address(made, product("A1"), **at, choice="L").partition("text=")[2])
    assert said == "About Thing A1 (A1, L), £12.50\r\nhttps://shop.example/p/A1"
    unchosen = unquote(message_address(made, product("A1"), **at).partition("text=")[2])
    assert unchosen.startswith("About Thing A1 (A1")
    assert "\0" not in unchosen
    assert unquote(message_address(made, product("A1"), **at, closed=True)).endswith("text=Tomorrow: A1")
    # A language without a text of its own takes the store's first.
    assert "About" in message_address(made, product("A1"), "fr-FR", "en-GB", "")


def test_office_hours_are_read_and_bad_ones_told() -> None:
    assert open_spans("Mon-Wed 09:00-17:30, sat 10:00 – 13:00") == (
        (0, 540, 1050), (1, 540, 1050), (2, 540, 1050), (5, 600, 780),
    )  # fmt: skip
    assert [day for day, _, _ in open_spans("Sat-Mon 00:00-24:00")] == [5, 6, 0]
    assert open_spans("") == ()
    for bad in ("9-5", "Mon 17:00-09:00", "Mon 09:00-24:30", "Mon 09:75-10:00", "Day 09:00-10:00"):
        with pytest.raises(ValidationError, match="office hours"):
            message(hours=bad)
