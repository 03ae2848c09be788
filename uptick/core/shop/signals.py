"""Signals: what a shop's page reports, and what of it can be believed."""

from dataclasses import dataclass
from datetime import date, datetime, timedelta
from enum import StrEnum
from functools import lru_cache
from typing import Annotated, Literal, NamedTuple
from uuid import UUID

from pydantic import BaseModel, ConfigDict, Field, StringConstraints, ValidationError

from uptick.core.button.plain_text import Fit
from uptick.core.errors import BadSignal

MAX_EVENTS = 50
MAX_BYTES = 60_000
# Beyond a week a kept batch is no longer about today's buttons.
OLDEST = timedelta(days=8)
OLDEST_PRACTICE = timedelta(days=400)
AHEAD = timedelta(minutes=10)

ShortText = Annotated[str, StringConstraints(max_length=120), Fit]
SITUATIONS = Literal["", "plain", "choice", "set", "pre_order", "sold_out"]
MOST = 2**31 - 1
ShopperId = Annotated[str, StringConstraints(pattern=r"^([A-Za-z0-9_\-]{8,64})?$")]


class SignalKind(StrEnum):
    SHOWN = "shown"
    CLICKED = "clicked"
    ADDED = "added"
    ORDERED = "ordered"


class Wire(BaseModel):
    model_config = ConfigDict(extra="ignore", frozen=True)


class EventIn(Wire):
    """One event as sent; its day is the day of its id, a UUID of version 7.

    `seen_as` is the product's situation, or that it is in the basket: the column of the plan that the event is in.
    `situation` is the product's own under that; `shopper_kind` says who looks. `value` is left out where the page tells
    no amount that can be read.
    """

    id: UUID
    kind: SignalKind
    at: datetime
    place: ShortText = ""
    seen_as: Literal["", "plain", "choice", "set", "pre_order", "sold_out", "in_basket"] = ""
    situation: SITUATIONS = ""
    shopper_kind: Literal["", "new", "returning", "signed_in"] = ""
    product: ShortText = ""
    order: ShortText = ""
    line: ShortText = ""
    quantity: Annotated[int, Field(ge=0, le=10_000)] = 1
    value: Annotated[int, Field(ge=0, le=10**12)] | None = None
    currency: Annotated[str, StringConstraints(max_length=3)] = ""
    device: ShortText = ""
    language: ShortText = ""


class BatchIn(Wire):
    """A batch as sent. `value` of its events is in minor units; `sent` is the sender's own clock.

    A shopper who asked not to be followed has no id: such events count in the day's totals and in no trial.
    """

    v: Literal[1]
    sent: datetime
    shopper: ShopperId
    visit: ShortText = ""
    release: Annotated[int, Field(ge=0, le=MOST)] = 0
    events: Annotated[tuple[EventIn, ...], Field(min_length=1, max_length=MAX_EVENTS)]


class Signal(NamedTuple):
    """An event that is believed: its time corrected, bounded, ready to be kept. Its day is the UTC day of its id.

    A tuple, since tens of thousands a second are made, and a frozen dataclass takes six times as long.
    """

    id: UUID
    day: date
    kind: SignalKind
    at: datetime
    shopper: str
    visit: str
    release: int
    place: str
    product: str
    order: str
    line: str
    quantity: int
    value_minor: int | None
    device: str
    language: str
    seen_as: str = ""
    situation: str = ""
    shopper_kind: str = ""


@dataclass(frozen=True, slots=True)
class Refused:
    id: str
    reason: str


def parse_batch(body: bytes) -> BatchIn:
    """Return a batch from the bytes of a request.

    Raises:
        BadSignal: Too large, not JSON, or not a batch; says where.
    """
    if len(body) > MAX_BYTES:
        raise BadSignal(f"A batch has at most {MAX_BYTES:,} bytes; this one has {len(body):,}.", reason="too_large")
    try:
        batch = BatchIn.model_validate_json(body)
    except ValidationError as error:
        first = error.errors(include_url=False, include_input=False)[0]
        where = ".".join(str(step) for step in first["loc"]) or "batch"
        raise BadSignal(f"{where}: {first['msg']}.", reason="malformed", field=where) from error
    if batch.sent.tzinfo is None or any(event.at.tzinfo is None for event in batch.events):
        raise BadSignal("sent: times need their offset from UTC.", reason="malformed", field="sent")
    return batch


def _milliseconds(uuid: UUID) -> int | None:
    """Return the Unix milliseconds in a version 7 UUID, or None for another version.

    Source:
        RFC 9562, section 5.7: 48 bits of milliseconds, 4 of version, and 2 of variant after 12 more.
    """
    number = uuid.int
    return number >> 80 if number >> 76 & 0xF == 7 and number >> 62 & 3 == 2 else None


_DAY_MS = 86_400_000
_EPOCH = date(1970, 1, 1).toordinal()


@lru_cache(maxsize=1024)
def _day(number: int) -> date:
    return date.fromordinal(_EPOCH + number)


@dataclass(frozen=True, slots=True)
class _Bounds:
    oldest: datetime
    newest: datetime
    oldest_ms: float
    newest_ms: float


def accept(
    batch: BatchIn, now: datetime, *, is_practice: bool, currency: str = ""
) -> tuple[list[Signal], list[Refused]]:
    """Return the believed events of a batch, and the others with the reason.

    An amount in another currency than the store's is not kept: it is no amount of this store's.

    A sender's clock that runs wrong is corrected by what `sent` says. A practice store runs on its own clock, which
    may be in the past: there `sent` is believed as it is.
    """
    skew = timedelta(0) if is_practice else now - batch.sent
    # A second's difference is the way through the network, not a wrong clock.
    if abs(skew) < timedelta(seconds=5):
        skew = timedelta(0)
    oldest, newest = now - (OLDEST_PRACTICE if is_practice else OLDEST), now + AHEAD
    bounds = _Bounds(oldest, newest, oldest.timestamp() * 1000, newest.timestamp() * 1000)
    shopper, visit, release = batch.shopper, batch.visit, batch.release
    believed: list[Signal] = []
    refused: list[Refused] = []
    for event in batch.events:
        named = _milliseconds(event.id)
        at = _corrected(event.at, skew)
        reason = _refusal(event, named, at, bounds)
        if reason or named is None or at is None:
            refused.append(Refused(str(event.id), reason))
            continue
        believed.append(
            Signal(
                event.id, _day(named // _DAY_MS), event.kind, at, shopper, visit, release, event.place, event.product,
                event.order, event.line, event.quantity, event.value if event.currency in ("", currency) else None,
                event.device, event.language, event.seen_as,
                event.situation or ("" if event.seen_as == "in_basket" else event.seen_as), event.shopper_kind,
            )
        )  # fmt: skip
    return believed, refused


def _corrected(at: datetime, skew: timedelta) -> datetime | None:
    """Return a time by the store's clock, or None for one at the end of all calendars."""
    if not skew:
        return at
    try:
        return at + skew
    except OverflowError:
        return None


def _refusal(event: EventIn, named: int | None, at: datetime | None, bounds: _Bounds) -> str:
    if named is None:
        return "id_not_v7"
    if not bounds.oldest_ms <= named <= bounds.newest_ms:
        return "id_day_out_of_bounds"
    if at is None or not bounds.oldest <= at <= bounds.newest:
        return "time_out_of_bounds"
    if event.kind is SignalKind.ORDERED and not (event.order and event.line):
        return "order_without_number"
    if event.kind is not SignalKind.ORDERED and not event.place:
        return "no_placement"
    return ""
