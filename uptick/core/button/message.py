"""A press that opens a message: a mail, a call, a text message, or a chat by a pattern that the store gives."""

import re
from typing import Annotated, Literal
from urllib.parse import quote, urlsplit

import phonenumbers
from pydantic import Field, StringConstraints, ValidationInfo, field_validator, model_validator
from uritemplate import URITemplate

from uptick.core.button.look import Part

Language = Annotated[str, StringConstraints(pattern=r"^[a-z]{2}(-[A-Z]{2})?$")]
Subject = Annotated[str, StringConstraints(max_length=200)]
MessageText = Annotated[str, StringConstraints(max_length=1000)]
DAYS = ("Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun")
# HTML Living Standard, "valid email address", with a domain that has a point.
_MAIL = re.compile(
    r"^[a-zA-Z0-9.!#$%&'*+/=?^_`{|}~-]+@[a-zA-Z0-9](?:[a-zA-Z0-9-]{0,61}[a-zA-Z0-9])?"
    r"(?:\.[a-zA-Z0-9](?:[a-zA-Z0-9-]{0,61}[a-zA-Z0-9])?)+$"
)
_SPAN = re.compile(
    r"^(?P<first>[A-Za-z]{3})(?:\s*[-–]\s*(?P<last>[A-Za-z]{3}))?\s+"
    r"(?P<opens>\d{1,2}:\d{2})\s*[-–]\s*(?P<closes>\d{1,2}:\d{2})$"
)
# Letters that no encoding touches stand for the message until a shopper presses.
_MARK = "UPxMESSAGExUP"
_MOST_SPANS = 14
# RFC 6068, 2: what may stand in an address as it is.
_PLAIN_IN_MAIL = "!$'*+-._~"


class ToMessage(Part):
    """A press opens a message about the product, and nothing goes to the basket.

    `to` is a mail address, or a telephone number, which is kept in E.164. `pattern` is a chat's address as a URI
    template with {message} and, where the chat has numbers, {number}. `text` is what the message says by language,
    with live values and {choice}; `hours` are the store's office hours, outside of which `closed` is said instead, or
    nothing.

    Source:
        ITU-T E.164 by the library phonenumbers; RFC 6570, level 4, by the library uritemplate.
    """

    kind: Literal["message"] = "message"
    way: Literal["mail", "phone", "text", "chat"] = "mail"
    to: Annotated[str, StringConstraints(max_length=120, strip_whitespace=True)] = ""
    pattern: Annotated[str, StringConstraints(max_length=400, strip_whitespace=True)] = ""
    subject: dict[Language, Subject] = Field(default_factory=dict)
    text: dict[Language, MessageText] = Field(default_factory=dict)
    hours: Annotated[str, StringConstraints(max_length=300, strip_whitespace=True)] = ""
    closed: dict[Language, MessageText] = Field(default_factory=dict)

    @field_validator("to")
    @classmethod
    def _whom(cls, to: str, info: ValidationInfo) -> str:
        way = info.data.get("way")
        if way == "mail":
            if not _MAIL.fullmatch(to):
                raise ValueError("must be a mail address, as ask@shop.example")
            return to
        return e164(to) if to or way != "chat" else ""

    @field_validator("hours")
    @classmethod
    def _in_hours(cls, hours: str) -> str:
        open_spans(hours)
        return hours

    @model_validator(mode="after")
    def _leads(self) -> "ToMessage":
        if self.way == "chat":
            require_chat(self.pattern, self.to)
        return self


def e164(number_text: str) -> str:
    """Return a telephone number in E.164, as +442079460018.

    Raises:
        ValueError: It is none, or lacks its country.
    """
    try:
        number = phonenumbers.parse(number_text, None)
    except phonenumbers.NumberParseException as error:
        raise ValueError("must be a telephone number with its country, as +44 20 7946 0018") from error
    if not phonenumbers.is_possible_number(number):
        raise ValueError("must be a telephone number of that country; it is too long or too short")
    return str(phonenumbers.format_number(number, phonenumbers.PhoneNumberFormat.E164))


def require_chat(pattern: str, number: str) -> None:
    """Refuse a chat's pattern that could not be led to.

    Raises:
        ValueError: With what is allowed.
    """
    template = URITemplate(pattern)
    names = set(template.variable_names)
    if "message" not in names:
        raise ValueError(
            "the chat's pattern must have {message} where the text belongs, as https://chat.example/{number}{?message}"
        )
    if unknown := names - {"message", "number"}:
        raise ValueError(f"the chat's pattern knows {{number}} and {{message}}; it has {{{sorted(unknown)[0]}}}")
    if "number" in names and not number:
        raise ValueError("the chat's pattern has {number}, so a telephone number is needed")
    if re.search(r"message[:*]", pattern):
        raise ValueError("{message} is taken whole: without : and * behind it")
    parts = urlsplit(template.expand(message=_MARK, number="1"))
    # What runs on one's own machine may do without encryption (W3C Secure Contexts, 3.1).
    is_near = parts.scheme == "http" and re.fullmatch(r"(.+\.)?localhost|127\.0\.0\.1", parts.hostname or "")
    if (parts.scheme != "https" and not is_near) or not parts.netloc or _MARK.lower() in parts.netloc.lower():
        raise ValueError("the chat's pattern must begin with https:// and the chat's own address")


def address_parts(message: ToMessage) -> list[str]:
    """Return a message's address in pieces: every second one names what is filled in, `text` or `subject`.

    What is filled in is percent-encoded once, all but unreserved letters.

    Source:
        RFC 6068 (mailto), RFC 3966 (tel), RFC 5724 (sms), RFC 6570 (URI templates), RFC 3986, 2.3.
    """
    if message.way == "mail":
        # The at sign between both parts stays; whatever else could end the address does not.
        name, _, host = message.to.rpartition("@")
        address = f"mailto:{quote(name, safe=_PLAIN_IN_MAIL)}@{host}"
        if message.subject:
            return [f"{address}?subject=", "subject", "&body=", "text", ""]
        return [f"{address}?body=", "text", ""]
    if message.way == "phone":
        return [f"tel:{message.to}"]
    if message.way == "text":
        return [f"sms:{message.to}?body=", "text", ""]
    pieces = URITemplate(message.pattern).expand(message=_MARK, number=message.to.removeprefix("+")).split(_MARK)
    parts = [pieces[0]]
    for piece in pieces[1:]:
        parts += ["text", piece]
    return parts


Span = tuple[int, int, int]


def open_spans(hours: str) -> tuple[Span, ...]:
    """Return office hours as days (0 is Monday) with the minutes at which they begin and end; none where none are said.

    They are written as `Mon-Fri 09:00-17:30, Sat 10:00-13:00`.

    Raises:
        ValueError: They are written otherwise, or end before they begin.
    """
    spans: list[Span] = []
    for hours_part in filter(None, (part.strip() for part in re.split(r"[,;]", hours))):
        span = _SPAN.match(hours_part)
        days = [day.capitalize() for day in (span["first"], span["last"] or span["first"])] if span else []
        if span is None or not set(days) <= set(DAYS):
            raise ValueError(f"office hours are written as Mon-Fri 09:00-17:30, Sat 10:00-13:00; “{hours_part}” is not")
        opens, closes = (_minutes(span[name]) for name in ("opens", "closes"))
        if opens is None or closes is None or opens >= closes:
            raise ValueError(f"office hours end after they begin, up to 24:00; “{hours_part}” does not")
        first, last = (DAYS.index(day) for day in days)
        around = range(first, last + 1) if first <= last else [*range(first, 7), *range(last + 1)]
        spans += [(day, opens, closes) for day in around]
    if len(spans) > _MOST_SPANS * 7:
        raise ValueError(f"at most {_MOST_SPANS} spans of office hours are kept")
    return tuple(spans)


def _minutes(clock: str) -> int | None:
    hour, minute = (int(part) for part in clock.split(":"))
    whole = hour * 60 + minute
    return whole if minute < 60 and whole <= 24 * 60 else None
