import json
from datetime import UTC, date, datetime, timedelta
from typing import Any
from uuid import UUID

import pytest

from tests.samples import NOW
from uptick.core.errors import BadSignal
from uptick.core.shop.signals import MAX_BYTES, Refused, Signal, accept, parse_batch


def uuid7(at: datetime, tail: int = 1) -> str:
    return str(UUID(int=int(at.timestamp() * 1000) << 80 | 7 << 76 | 2 << 62 | tail))


def event(at: datetime = NOW, **more: Any) -> dict[str, Any]:
    base = {"id": uuid7(at), "kind": "shown", "at": at.isoformat(), "place": "product_page", "product": "A1"}
    return {**base, **more}


def body(*events: dict[str, Any], sent: datetime = NOW, **more: Any) -> bytes:
    batch = {"v": 1, "sent": sent.isoformat(), "shopper": "shopper-0001", "events": list(events), **more}
    return json.dumps(batch).encode()


def taken(*events: dict[str, Any], sent: datetime = NOW, practice: bool = False) -> tuple[list[Signal], list[Refused]]:
    return accept(parse_batch(body(*events, sent=sent)), NOW, is_practice=practice)


def test_the_day_of_an_event_is_the_day_in_its_id() -> None:
    """Reference: RFC 9562, appendix A.6: 017F22E2-79B0-7CC3-98C4-DC0C0C07398F is 2022-02-22 19:22:22 UTC."""
    at = datetime(2022, 2, 22, 19, 22, 22, tzinfo=UTC)
    example = event(at, id="017F22E2-79B0-7CC3-98C4-DC0C0C07398F")
    (signal,), refused = accept(parse_batch(body(example, sent=at)), at, is_practice=False)
    assert signal.day == date(2022, 2, 22)
    assert refused == []


def test_a_clock_that_runs_wrong_is_corrected_by_what_sent_says() -> None:
    wrong = NOW - timedelta(hours=3)
    (signal,), _ = taken(event(wrong), sent=wrong + timedelta(seconds=2))
    assert abs(signal.at - (NOW - timedelta(seconds=2))) < timedelta(milliseconds=1)


def test_a_practice_store_runs_on_its_own_clock() -> None:
    then = NOW - timedelta(days=40)
    (signal,), _ = taken(event(then), sent=then, practice=True)
    assert signal.at == then
    _, (refused,) = taken(event(then), sent=then)
    assert refused.reason == "id_day_out_of_bounds"


REFUSED: list[tuple[dict[str, Any], str]] = [
    (event(id="5b8f5c1e-55a3-4d0f-9c0c-0f0f0f0f0f0f"), "id_not_v7"),
    (event(id=uuid7(NOW - timedelta(days=9))), "id_day_out_of_bounds"),
    (event(id=uuid7(NOW + timedelta(hours=1))), "id_day_out_of_bounds"),
    ({**event(), "at": (NOW - timedelta(days=30)).isoformat()}, "time_out_of_bounds"),
    (event(kind="ordered", place="", order="T1"), "order_without_number"),
    (event(kind="ordered", place="", line="1"), "order_without_number"),
    (event(place=""), "no_placement"),
]


@pytest.mark.parametrize(("sent", "reason"), REFUSED)
def test_an_event_that_cannot_be_believed_is_refused_by_name(sent: dict[str, Any], reason: str) -> None:
    believed, refused = taken(event(id=uuid7(NOW, 7)), sent)
    assert len(believed) == 1
    assert [(r.id, r.reason) for r in refused] == [(sent["id"].lower(), reason)]


UNREADABLE: list[tuple[bytes, str]] = [
    (b"{", "batch"),
    (b"[]", "batch"),
    (body(event(), v=2), "v"),
    (body(), "events"),
    (body(*[event()] * 51), "events"),
    (body(event(), shopper="<script>"), "shopper"),
    (body(event(kind="stolen")), r"events\.0\.kind"),
    (body(event(quantity=-1)), r"events\.0\.quantity"),
    (body(event(value=10**13)), r"events\.0\.value"),
    (body(event(product="x" * 121)), r"events\.0\.product"),
    (body({**event(), "at": "2026-03-02T12:00:00"}), "offset"),
    (b" " * (MAX_BYTES + 1), "at most 60,000 bytes"),
]


@pytest.mark.parametrize(("content", "says"), UNREADABLE)
def test_a_batch_that_is_none_is_refused_whole_and_says_where(content: bytes, says: str) -> None:
    with pytest.raises(BadSignal, match=says):
        parse_batch(content)


def test_unknown_fields_of_a_newer_script_are_passed_over() -> None:
    assert len(taken(event(versions={"1": "B"}, mood="good"))[0]) == 1
