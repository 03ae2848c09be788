"""The public side over the real database."""

import base64
import gzip
import hashlib
import io
import json
import re
import threading
from collections.abc import Callable, Iterator
from concurrent.futures import ThreadPoolExecutor
from dataclasses import replace
from datetime import timedelta
from pathlib import Path
from typing import Any
from uuid import UUID

import brotli
import pytest
from itsdangerous import URLSafeTimedSerializer
from PIL import Image
from sqlalchemy import create_engine, text
from starlette.testclient import TestClient

from tests.samples import NOW, PRODUCTS
from tests.usecases.fakes import ADA
from tests.waits import until
from uptick.core.outside.handed import Order, OutsideKind
from uptick.core.shop.connection import FormPost
from uptick.core.shop.signals import BatchIn, EventIn
from uptick.data.public import PublicShelf
from uptick.edge import app as edge_app
from uptick.edge.app import create_edge
from uptick.edge.needs import INLINE, LOADED
from uptick.edge.script import _as_now
from uptick.usecases.edit import change_layer
from uptick.usecases.looks import bring_picture
from uptick.usecases.outside import make_outside, view_outside
from uptick.usecases.publish import publish, take_back
from uptick.usecases.serving import Served, TrialScope, Unavailable
from uptick.wiring import Wiring

SHOP = "http://shop.test"
AGENT = "Mozilla/5.0 (X11; Linux x86_64) Firefox/140.0"


@pytest.fixture
def edge(wiring: Wiring, tmp_path: Path) -> Iterator[TestClient]:
    for name in ("up", "later", *(piece.file for piece in (*INLINE, *LOADED))):
        (tmp_path / f"{name}.js").write_text(
            f"/* {name} */"
            "var UpTick=function(m){return m},UpLive={},UpDeal={},UpQuantity={},UpKind={},UpSecond={};"
            "var UpFrame={},UpReads={}"
        )
    with wiring.open_shop("sample") as shop:
        shop.catalogue.put(PRODUCTS)
        publish(shop, "first", ADA, NOW)
    parts = replace(wiring.edge_parts(), script_dir=tmp_path, clock=lambda: NOW)
    with TestClient(create_edge(parts), headers={"User-Agent": AGENT, "Origin": SHOP}) as client:
        yield client


def event(n: int = 1, **more: Any) -> dict[str, Any]:
    identity = UUID(int=int(NOW.timestamp() * 1000) << 80 | 7 << 76 | 2 << 62 | n)
    return {
        "id": str(identity),
        "kind": "shown",
        "at": NOW.isoformat(),
        "place": "product_page",
        "product": "A1",
        **more,
    }


def batch(*events: dict[str, Any], shopper: str = "shopper-0001") -> str:
    return json.dumps({"v": 1, "sent": NOW.isoformat(), "shopper": shopper, "events": list(events or [event()])})


def kept(wiring: Wiring) -> list[tuple[str, str]]:
    with wiring.engine.connect() as db:
        return [(r.kind, r.shopper) for r in db.execute(text("SELECT kind, shopper FROM events ORDER BY id"))]


def refused(wiring: Wiring) -> dict[str, int]:
    with wiring.open_shop("sample") as shop:
        return shop.signals.refusals(NOW.date())


def test_the_script_carries_the_release_and_is_cheap_to_ask_for_again(edge: TestClient) -> None:
    answer = edge.get("/s/sample/up.js")
    assert answer.status_code == 200
    assert answer.headers["cache-control"] == "no-cache"
    assert answer.headers["access-control-allow-origin"] == "*"
    assert '"release":1' in answer.text
    etag = answer.headers["etag"]
    again = edge.get("/s/sample/up.js", headers={"If-None-Match": etag})
    assert (again.status_code, again.content) == (304, b"")
    for_ever = edge.get(f"/s/sample/{etag.strip(chr(34))}.js")
    assert "immutable" in for_ever.headers["cache-control"]
    assert edge.get("/s/sample/0123456789.js").status_code == 404
    assert edge.get("/s/other/up.js").text == "// Up Tick: this store has no release yet.\n"
    assert edge.get("/s/no-such/up.js").status_code == 404


def test_the_script_is_sent_compressed_to_those_who_take_it(edge: TestClient) -> None:
    with edge.stream("GET", "/s/sample/up.js", headers={"Accept-Encoding": "gzip"}) as answer:
        packed = b"".join(answer.iter_raw())
    plain = edge.get("/s/sample/up.js", headers={"Accept-Encoding": "identity"}).content
    assert gzip.decompress(packed) == plain
    with edge.stream("GET", "/s/sample/up.js", headers={"Accept-Encoding": "br, gzip"}) as answer:
        assert answer.headers["content-encoding"] == "br"
        assert brotli.decompress(b"".join(answer.iter_raw())) == plain


def test_a_release_and_taking_it_back_show_as_soon_as_they_are_heard(edge: TestClient, wiring: Wiring) -> None:
    first = edge.get("/s/sample/up.js")
    with wiring.open_shop("sample") as shop:
        version = shop.drafts.read().version
        change_layer(shop, "baseline", {"look": {"radius": 9}}, version, ADA, NOW)
        publish(shop, "rounder", ADA, NOW)
    known = {"If-None-Match": first.headers["etag"]}
    until(lambda: edge.get("/s/sample/up.js", headers=known).status_code == 200)
    assert "border-radius:9px" in edge.get("/s/sample/up.js").text
    with wiring.open_shop("sample") as shop:
        take_back(shop, 1, ADA, NOW)
    until(lambda: "border-radius:4px" in edge.get("/s/sample/manifest.json").text)


def test_signals_are_committed_when_they_are_answered(edge: TestClient, wiring: Wiring) -> None:
    answer = edge.post("/s/sample/signals", content=batch(event(1), event(2, kind="clicked")))
    assert answer.json() == {"accepted": 2, "refused": []}
    assert kept(wiring) == [("shown", "shopper-0001"), ("clicked", "shopper-0001")]
    assert edge.post("/s/sample/signals", content=batch(event(1), event(2, kind="clicked"))).status_code == 200
    assert len(kept(wiring)) == 2


def test_what_is_refused_is_named_and_counted(edge: TestClient, wiring: Wiring) -> None:
    late = event(3, id="5b8f5c1e-55a3-4d0f-9c0c-0f0f0f0f0f0f")
    answer = edge.post("/s/sample/signals", content=batch(event(1), late)).json()
    assert answer == {"accepted": 1, "refused": [{"id": late["id"], "reason": "id_not_v7"}]}
    assert edge.post("/s/sample/signals", content="{").status_code == 400
    assert edge.post("/s/sample/signals", content=" " * 60_001).status_code == 413
    foreign = edge.post("/s/sample/signals", content=batch(event(4)), headers={"Origin": "http://evil.test"})
    assert foreign.status_code == 403
    assert foreign.headers["access-control-allow-origin"] == "*"
    robot = edge.post("/s/sample/signals", content=batch(event(5)), headers={"User-Agent": "Googlebot/2.1"})
    assert (robot.status_code, robot.json()["accepted"]) == (200, 0)
    assert edge.post("/s/no-such/signals", content=batch()).status_code == 404
    assert refused(wiring) == {"id_not_v7": 1, "malformed": 1, "too_large": 1, "wrong_origin": 1, "robot": 1}
    assert len(kept(wiring)) == 1


def test_whoever_asks_not_to_be_followed_has_no_id_here(edge: TestClient, wiring: Wiring) -> None:
    """Reference: Global Privacy Control, the request header Sec-GPC: 1."""
    edge.post("/s/sample/signals", content=batch(), headers={"Sec-GPC": "1"})
    assert kept(wiring) == [("shown", "")]


def test_a_failing_database_is_said_so_that_the_sender_tries_again(wiring: Wiring, tmp_path: Path) -> None:
    class Broken:
        def write(self, batches: object, today: object) -> int:
            raise ConnectionError("gone")

    parts = replace(wiring.edge_parts(), clock=lambda: NOW, writer=Broken())
    with TestClient(create_edge(parts), headers={"User-Agent": AGENT, "Origin": SHOP}) as client:
        answer = client.post("/s/sample/signals", content=batch())
    assert answer.status_code == 503
    assert answer.headers["retry-after"] == "5"
    assert answer.headers["access-control-allow-origin"] == "*"
    assert kept(wiring) == []


def test_a_draft_is_shown_to_whoever_holds_a_signed_link_that_has_not_run_out(
    edge: TestClient, wiring: Wiring, monkeypatch: pytest.MonkeyPatch
) -> None:
    token = wiring.studio_parts().preview_token("sample")
    with wiring.open_shop("sample") as shop:
        change_layer(shop, "baseline", {"look": {"radius": 9}}, shop.drafts.read().version, ADA, NOW)
    told = edge.get("/s/sample/draft.js", params={"token": token})
    assert "border-radius:9px" in told.text
    assert told.headers["cache-control"] == "no-store"
    assert "border-radius:9px" not in edge.get("/s/sample/manifest.json").text
    assert edge.get("/s/other/draft.js", params={"token": token}).status_code == 403
    assert edge.get("/s/sample/draft.js", params={"token": token + "x"}).status_code == 403
    forged = str(URLSafeTimedSerializer("another secret", salt="draft").dumps("sample"))
    assert edge.get("/s/sample/draft.js", params={"token": forged}).status_code == 403
    later = (NOW + timedelta(days=36_500)).timestamp()
    monkeypatch.setattr("itsdangerous.timed.time.time", lambda: later)
    assert edge.get("/s/sample/draft.js", params={"token": token}).status_code == 403


def test_a_draft_says_which_studio_may_talk_to_it_and_sends_every_piece(edge: TestClient, wiring: Wiring) -> None:
    token = wiring.studio_parts().preview_token("sample")
    told = edge.get("/s/sample/draft.js", params={"token": token}).text
    assert f'"studio":"{wiring.environment.studio_origin}"' in told
    assert '"draft":true' in told
    assert "frame:UpFrame.frame" in told
    assert '"draft"' not in edge.get("/s/sample/up.js").text


def test_pictures_are_served_by_hash_for_ever(edge: TestClient, wiring: Wiring) -> None:
    out = io.BytesIO()
    Image.new("RGB", (40, 20), "#222222").save(out, "PNG")
    with wiring.open_shop("sample") as shop:
        digest = bring_picture(shop, out.getvalue(), "night", ADA, NOW).hash
        patch = {"look": {"fill": {"kind": "picture", "picture": digest}}}
        change_layer(shop, "baseline", patch, shop.drafts.read().version, ADA, NOW)
        publish(shop, "with a picture", ADA, NOW, despite=["findings"])
    answer = edge.get(f"/pictures/{digest}")
    assert (answer.status_code, answer.headers["content-type"]) == (200, "image/png")
    assert "immutable" in answer.headers["cache-control"]
    assert answer.headers["x-content-type-options"] == "nosniff"
    assert f"/pictures/{digest}" in edge.get("/s/sample/up.js").text
    assert "up:pictures" not in edge.get("/s/sample/up.js").text
    assert edge.get("/pictures/0000000000000000").status_code == 404


def test_a_release_of_an_older_form_still_stands_its_icons(edge: TestClient) -> None:
    old = {"css": "", "icon": {"path": "M0 0h9z", "box": 256, "side": "before"}}
    assert _as_now(old)["icon"] == {"paths": [{"d": "M0 0h9z"}], "box": "0 0 256 256", "side": "before"}
    assert _as_now({"css": "", "icon": None})["icon"] is None


def test_a_release_of_an_older_form_keeps_what_stood_in_its_bar() -> None:
    old = {"css": "", "icon": None, "name": True, "price": False}
    bar = _as_now(old)["bar"]
    assert bar["parts"] == ["name", "button"]
    assert "bar" not in _as_now({"css": "", "icon": None})


def test_fonts_are_served_by_hash_for_ever(edge: TestClient) -> None:
    name = edge.get("/s/sample/manifest.json").json()["fonts"][0]["file"]
    answer = edge.get(f"/fonts/{name}")
    assert answer.content[:4] == b"wOF2"
    assert answer.headers["access-control-allow-origin"] == "*"
    assert "immutable" in answer.headers["cache-control"]
    assert edge.get("/fonts/../app.py").status_code == 404


BAD_BYTES = [
    ("visit", {"visit": "a\0b"}, {}),
    ("release", {"release": 10**30}, {}),
    ("release", {"release": 2**40}, {}),
    ("release", {"release": -1}, {}),
    ("product", {}, {"product": "A\0"}),
    ("order", {}, {"kind": "ordered", "order": "T\0", "line": "1"}),
    ("Invalid JSON", {}, {"language": "\ud800"}),
    ("device", {}, {"device": "\x1b[2J"}),
]


@pytest.mark.parametrize(("field", "head", "inside"), BAD_BYTES)
def test_text_that_cannot_be_kept_is_refused_by_name_and_no_other_batch_fails(
    edge: TestClient, wiring: Wiring, field: str, head: dict[str, Any], inside: dict[str, Any]
) -> None:
    bad = {"v": 1, "sent": NOW.isoformat(), "shopper": "shopper-0001", "events": [event(99, **inside)], **head}
    with ThreadPoolExecutor(8) as pool:
        bads = [pool.submit(edge.post, "/s/sample/signals", content=json.dumps(bad)) for _ in range(20)]
        goods = [pool.submit(edge.post, "/s/sample/signals", content=batch(event(n))) for n in range(1, 21)]
        refused_answers = [answer.result() for answer in bads]
        assert [item.result().status_code for item in goods] == [200] * 20
    assert {answer.status_code for answer in refused_answers} == {400}
    assert field in refused_answers[0].json()["says"]
    assert len(kept(wiring)) == 20


def test_a_batch_that_only_the_database_can_refuse_fails_alone_and_is_counted(
    wiring: Wiring, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    """Text is checked before; what slips through that net must still not take others with it."""
    monkeypatch.setattr("uptick.edge.app.parse_batch", lambda body: BatchIn.model_construct(**unchecked(body)))
    parts = replace(wiring.edge_parts(), clock=lambda: NOW)
    bad = json.loads(batch(event(99)))
    bad["visit"] = "a\0b"
    headers = {"User-Agent": AGENT, "Origin": SHOP}
    with TestClient(create_edge(parts), headers=headers) as client, ThreadPoolExecutor(8) as pool:
        bads = [pool.submit(client.post, "/s/sample/signals", content=json.dumps(bad)) for _ in range(10)]
        goods = [pool.submit(client.post, "/s/sample/signals", content=batch(event(n))) for n in range(1, 31)]
        assert [item.result().status_code for item in goods] == [200] * 30
        assert {answer.result().status_code for answer in bads} == {400}
    assert len(kept(wiring)) == 30
    assert refused(wiring) == {"unwritable": 10}


def unchecked(body: bytes) -> dict[str, Any]:
    raw = json.loads(body)
    events = tuple(EventIn.model_validate(raw_event) for raw_event in raw["events"])
    return {**raw, "sent": NOW, "events": events, "release": 0, "visit": raw.get("visit", "")}


@pytest.mark.parametrize("sent", ["0001-01-01T00:00:00Z", "9999-12-31T23:59:59Z"])
def test_a_clock_at_the_end_of_all_calendars_is_no_fault_of_ours(edge: TestClient, sent: str) -> None:
    body = {**json.loads(batch(event(1, at=sent))), "sent": sent}
    answer = edge.post("/s/sample/signals", content=json.dumps(body))
    assert answer.status_code == 200
    assert answer.json()["refused"][0]["reason"] == "time_out_of_bounds"


@pytest.mark.parametrize(
    "path",
    ["/s/%00/up.js", "/s/%00/manifest.json", "/pictures/%00", "/s/%C3%BC/up.js", "/s/sample/%00", "/fonts/%00"],
)
def test_an_address_that_cannot_be_is_not_found(edge: TestClient, path: str) -> None:
    assert edge.get(path).status_code == 404


def test_a_store_that_cannot_be_is_not_found_for_signals_either(edge: TestClient) -> None:
    assert edge.post("/s/%00/signals", content=batch()).status_code == 404
    assert edge.get("/s/%00/draft.js?token=x").status_code == 403


def test_a_fault_is_a_plain_problem_whose_id_is_in_the_log(wiring: Wiring, capsys: pytest.CaptureFixture[str]) -> None:
    class Broken:
        def served(self, key: str) -> None:
            raise RuntimeError("the shelf fell down " * 50)

    parts = replace(wiring.edge_parts(), shelf=Broken())
    with TestClient(create_edge(parts), headers={"Origin": SHOP}) as client:
        answer = client.get("/s/sample/up.js")
    assert answer.status_code == 500
    assert answer.headers["content-type"] == "application/problem+json"
    assert answer.headers["access-control-allow-origin"] == "*"
    told = capsys.readouterr().out
    assert answer.json()["id"] in told
    assert "RuntimeError" in told
    assert "Traceback" not in told
    assert len(told) < 1000


def test_an_amount_in_another_currency_is_no_amount_of_this_store(edge: TestClient, wiring: Wiring) -> None:
    order = {"kind": "ordered", "order": "T1", "value": 900, "place": ""}
    told = [event(n, **order, line=str(n), currency=currency) for n, currency in enumerate(("GBP", "USD", ""), 1)]
    assert edge.post("/s/sample/signals", content=batch(*told)).json()["accepted"] == 3
    with wiring.engine.connect() as db:
        rows = db.execute(text("SELECT value_minor FROM events ORDER BY line")).scalars().all()
    assert rows == [900, None, 900]


class Counted:
    """A shelf that counts how often it is asked."""

    def __init__(self, inner: PublicShelf) -> None:
        self._inner, self.asked = inner, 0

    def served(self, key: str) -> Served | None:
        self.asked += 1
        return self._inner.served(key)

    def picture(self, digest: str) -> tuple[str, bytes] | None:
        return self._inner.picture(digest)

    def scopes(self, store_id: int, *, is_practice: bool) -> tuple[TrialScope, ...]:
        return self._inner.scopes(store_id, is_practice=is_practice)


def test_what_is_served_comes_from_memory_until_a_change_is_heard(wiring: Wiring, edge: TestClient) -> None:
    shelf = Counted(PublicShelf(wiring.engine))
    parts = replace(wiring.edge_parts(), clock=lambda: NOW, shelf=shelf)
    with TestClient(create_edge(parts), headers={"User-Agent": AGENT, "Origin": SHOP}) as client:
        until(lambda: parts.changes.hears)
        client.get("/s/sample/up.js")
        asked = shelf.asked
        for _ in range(20):
            assert client.get("/s/sample/up.js").status_code == 200
            assert client.get("/s/no-such/up.js").status_code == 404
        assert shelf.asked == asked + 1
        with wiring.open_shop("sample") as shop:
            shop.side.connect(shop.store.connection)
        until(lambda: client.get("/s/sample/up.js").is_success and shelf.asked == asked + 2)


def test_keys_that_nobody_has_put_no_real_store_out_of_memory(
    wiring: Wiring, edge: TestClient, monkeypatch: pytest.MonkeyPatch
) -> None:
    for name in ("_MOST_KEPT", "_MOST_UNKNOWN"):
        monkeypatch.setattr(edge_app, name, 5)
    shelf = Counted(PublicShelf(wiring.engine))
    parts = replace(wiring.edge_parts(), clock=lambda: NOW, shelf=shelf)
    with TestClient(create_edge(parts), headers={"User-Agent": AGENT, "Origin": SHOP}) as client:
        until(lambda: parts.changes.hears)
        assert client.get("/s/sample/up.js").status_code == 200
        for n in range(12):
            assert client.get(f"/s/made-up-{n}/up.js").status_code == 404
        asked = shelf.asked
        assert client.get("/s/sample/up.js").status_code == 200
        assert shelf.asked == asked
        # The newest that was made up is known as such, the oldest is asked about again.
        client.get("/s/made-up-11/up.js")
        assert shelf.asked == asked
        client.get("/s/made-up-0/up.js")
        assert shelf.asked == asked + 1


class Slow(Counted):
    """A shelf whose first reading lasts as long as the test wants."""

    def __init__(self, inner: PublicShelf) -> None:
        super().__init__(inner)
        self.has_read, self.may_answer = threading.Event(), threading.Event()

    def served(self, key: str) -> Served | None:
        served = super().served(key)
        if not self.has_read.is_set():
            self.has_read.set()
            assert self.may_answer.wait(20)
        return served


def test_who_asks_after_a_release_gets_it_while_an_older_reading_goes_on(wiring: Wiring, edge: TestClient) -> None:
    shelf, changes = Slow(PublicShelf(wiring.engine)), Unheard()
    parts = replace(wiring.edge_parts(), clock=lambda: NOW, shelf=shelf, changes=changes)
    with (
        TestClient(create_edge(parts), headers={"User-Agent": AGENT, "Origin": SHOP}) as client,
        ThreadPoolExecutor(2) as pool,
    ):
        try:
            asked_before = pool.submit(client.get, "/s/sample/manifest.json")
            assert shelf.has_read.wait(20)
            with wiring.open_shop("sample") as shop:
                change_layer(shop, "baseline", {"look": {"radius": 9}}, shop.drafts.read().version, ADA, NOW)
                publish(shop, "rounder", ADA, NOW)
            changes.changed("sample")
            asked_after = pool.submit(client.get, "/s/sample/manifest.json").result(20)
            assert "border-radius:9px" in asked_after.text
        finally:
            shelf.may_answer.set()
        assert "border-radius:4px" in asked_before.result(20).text
        # What was read before the change is not kept over what was read after it.
        assert "border-radius:9px" in client.get("/s/sample/manifest.json").text


class Away(Counted):
    """A shelf whose database can go away."""

    is_away = False

    def served(self, key: str) -> Served | None:
        if self.is_away:
            raise Unavailable("the database does not answer")
        return super().served(key)


def test_without_the_database_pages_get_the_last_release(wiring: Wiring, edge: TestClient) -> None:
    shelf = Away(PublicShelf(wiring.engine))
    changes = Unheard()
    parts = replace(wiring.edge_parts(), clock=lambda: NOW, shelf=shelf, changes=changes)
    with TestClient(create_edge(parts), headers={"User-Agent": AGENT, "Origin": SHOP}) as client:
        before = client.get("/s/sample/up.js")
        shelf.is_away = True
        # The listener tells that it has lost its line: anything may have changed.
        changes.changed(None)
        for _ in range(3):
            after = client.get("/s/sample/up.js")
            assert (after.status_code, after.headers["etag"]) == (200, before.headers["etag"])
        assert client.get("/s/sample/manifest.json").status_code == 200
        unread = client.get("/s/other/up.js")
        assert (unread.status_code, unread.headers["retry-after"]) == (503, "5")
        assert unread.headers["access-control-allow-origin"] == "*"
        shelf.is_away = False
        with wiring.open_shop("sample") as shop:
            shop.side.connect(FormPost(add_path="/elsewhere", product_field="sku", quantity_field="qty"))
        changes.changed(None)
        until(lambda: client.get("/s/sample/up.js").headers["etag"] != before.headers["etag"])


def test_a_shelf_tells_that_its_database_is_away() -> None:
    engine = create_engine("postgresql+psycopg://nobody@127.0.0.1:9/none", connect_args={"connect_timeout": 1})
    with pytest.raises(Unavailable):
        PublicShelf(engine).served("sample")


class Unheard:
    """Changes that are told by the test."""

    hears = True

    def start(self, changed: Callable[[str | None], None]) -> None:
        self.changed = changed

    def stop(self) -> None:
        pass


@pytest.mark.parametrize("name", ["later", "bar"])
def test_what_is_loaded_later_is_kept_for_ever_by_its_hash(edge: TestClient, name: str) -> None:
    manifest = edge.get("/s/sample/manifest.json").json()
    told = manifest["later"] if name == "later" else manifest["more"][name]
    answer = edge.get(f"/later/{told['file']}")
    assert "immutable" in answer.headers["cache-control"]
    assert answer.headers["access-control-allow-origin"] == "*"
    digest = base64.b64encode(hashlib.sha256(answer.content).digest()).decode()
    assert told["integrity"] == f"sha256-{digest}"
    assert edge.get("/later/0123456789abcdef.js").status_code == 404


def hand_out(wiring: Wiring, *skus: str, **more: Any) -> list[str]:
    with wiring.open_shop("sample") as shop:
        made = make_outside(shop, Order(products=skus, **more), "http://edge.test", ADA, NOW, copied=True)
    return [button.id for button in made.buttons]


def presses(wiring: Wiring) -> list[tuple[str, str, int]]:
    with wiring.open_shop("sample") as shop:
        view = view_outside(shop, "http://edge.test")
    return [(by.kind, by.campaign, by.presses) for by in view.by]


def test_a_link_from_outside_leads_to_the_page_and_counts_by_place_and_campaign(
    edge: TestClient, wiring: Wiring
) -> None:
    (mail,) = hand_out(wiring, "A1", kind="mail", campaign="May")
    (web,) = hand_out(wiring, "A1", kind="web")
    for handed, times in ((mail, 2), (web, 1)):
        for _ in range(times):
            answer = edge.get(f"/s/sample/go/{handed}", follow_redirects=False)
            assert (answer.status_code, answer.headers["location"]) == (303, f"{SHOP}/p/A1")
            assert answer.headers["cache-control"] == "no-store"
    assert presses(wiring) == [("mail", "May", 2), ("web", "", 1)]


def test_what_looks_at_links_is_led_but_not_counted(edge: TestClient, wiring: Wiring) -> None:
    (button,) = hand_out(wiring, "A1")
    for how in ({"User-Agent": "Googlebot/2.1"}, {"Sec-Purpose": "prefetch;prerender"}, {"Purpose": "prefetch"}):
        assert edge.get(f"/s/sample/go/{button}", headers=how, follow_redirects=False).status_code == 303
    assert edge.head(f"/s/sample/go/{button}", follow_redirects=False).status_code == 303
    assert presses(wiring) == [("web", "", 0)]


def test_a_link_outlives_releases_and_says_kindly_that_a_product_is_gone(edge: TestClient, wiring: Wiring) -> None:
    (button,) = hand_out(wiring, "A1")
    with wiring.open_shop("sample") as shop:
        change_layer(shop, "baseline", {"look": {"radius": 9}}, shop.drafts.read().version, ADA, NOW)
        publish(shop, "second", ADA, NOW)
    assert edge.get(f"/s/sample/go/{button}", follow_redirects=False).status_code == 303
    with wiring.open_shop("sample") as shop:
        shop.catalogue.remove(["A1"])
    answer = edge.get(f"/s/sample/go/{button}", follow_redirects=False)
    assert answer.status_code == 410
    assert "This product is no longer here." in answer.text
    assert f'href="{SHOP}/"' in answer.text
    assert "default-src 'none'" in answer.headers["content-security-policy"]
    assert presses(wiring) == [("web", "", 1)]


@pytest.mark.parametrize(
    "name",
    ["https:%2F%2Fevil.example", "%2F%2Fevil.example", "..%2F..%2F", "aaaaaaaaaa", "AAAAAAAAAA", "a" * 500, "%00"],
)
def test_nothing_in_an_address_says_where_it_leads(edge: TestClient, name: str) -> None:
    """Reference: CWE-601, URL redirection to an untrusted site."""
    answer = edge.get(f"/s/sample/go/{name}?to=https://evil.example&url=//evil.example", follow_redirects=False)
    assert answer.status_code == 404
    assert "location" not in answer.headers
    assert "evil" not in answer.text


def test_a_product_whose_page_moved_to_another_origin_is_not_followed(edge: TestClient, wiring: Wiring) -> None:
    (button,) = hand_out(wiring, "A1")
    with wiring.open_shop("sample") as shop:
        shop.catalogue.put([replace(PRODUCTS[0], url="https://evil.example/p")])
    answer = edge.get(f"/s/sample/go/{button}", follow_redirects=False)
    assert (answer.status_code, "location" in answer.headers) == (410, False)


def test_a_form_from_outside_is_sent_on_and_one_of_a_sold_out_product_is_not(edge: TestClient, wiring: Wiring) -> None:
    """Reference: RFC 9110, 15.4.8: 307 keeps method and body."""
    (button,) = hand_out(wiring, "B2", kind="form")
    form = {"sku": "B2", "qty": "1", "option": "L"}
    answer = edge.post(f"/s/sample/go/{button}", data=form, follow_redirects=False)
    assert (answer.status_code, answer.headers["location"]) == (307, f"{SHOP}/basket/add")
    with wiring.open_shop("sample") as shop:
        shop.catalogue.put([replace(PRODUCTS[3], stock=0)])
    answer = edge.post(f"/s/sample/go/{button}", data=form, follow_redirects=False)
    assert (answer.status_code, answer.headers["location"]) == (303, f"{SHOP}/p/B2")


def test_a_press_is_led_on_while_it_cannot_be_counted(edge: TestClient, wiring: Wiring) -> None:
    (button,) = hand_out(wiring, "A1")
    with wiring.engine.begin() as db:
        db.execute(text("ALTER TABLE outside_presses RENAME TO away"))
    assert edge.get(f"/s/sample/go/{button}", follow_redirects=False).status_code == 303
    with wiring.engine.begin() as db:
        db.execute(text("ALTER TABLE outside_buttons RENAME TO away_too"))
    answer = edge.get(f"/s/sample/go/{button}", follow_redirects=False)
    assert (answer.status_code, answer.headers["retry-after"]) == (503, "5")


def test_one_store_cannot_lead_by_another_ones_button(edge: TestClient, wiring: Wiring) -> None:
    (button,) = hand_out(wiring, "A1")
    assert edge.get(f"/s/other/go/{button}", follow_redirects=False).status_code == 404


def test_many_presses_at_once_are_all_counted(edge: TestClient, wiring: Wiring) -> None:
    (button,) = hand_out(wiring, "A1")
    with ThreadPoolExecutor(8) as pool:
        codes = list(
            pool.map(lambda _: edge.get(f"/s/sample/go/{button}", follow_redirects=False).status_code, range(60))
        )
    assert set(codes) == {303}
    assert presses(wiring) == [("web", "", 60)]


def test_a_buttons_picture_is_served_by_its_content(edge: TestClient, wiring: Wiring) -> None:
    with wiring.open_shop("sample") as shop:
        made = make_outside(shop, Order(products=("A1",), kind=OutsideKind.PICTURE), "http://edge.test", ADA, NOW)
    addresses = re.findall(r"http://edge\.test(/pictures/[0-9a-f]{16})", made.code)
    assert len(set(addresses)) == 3
    for scale, address in enumerate(addresses, 1):
        answer = edge.get(address)
        assert answer.headers["content-type"] == "image/png"
        assert "immutable" in answer.headers["cache-control"]
        assert Image.open(io.BytesIO(answer.content)).width == round(made.buttons[0].picture.width) * scale  # type: ignore[union-attr]
