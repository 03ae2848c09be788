"""Visits to a shop that means no good: nobody is led to another address, and nobody waits for ever."""

import http.server
import socket
import threading
import time
from collections.abc import Iterator

import pytest

from tests.samples import store
from uptick.core.shop.local_shops import LocalShops
from uptick.data import shop_visit
from uptick.data.shop_visit import HttpShopVisit
from uptick.usecases.visiting import ShopRequest, Trouble


class Hostile(http.server.BaseHTTPRequestHandler):
    protocol_version = "HTTP/1.1"
    seen: list[tuple[str, str, str]] = []

    def log_message(self, *_: object) -> None:
        return

    def _answer(self, status: int, body: bytes = b"<h1>ok</h1>", **headers: str) -> None:
        self.send_response(status)
        for name, value in headers.items():
            self.send_header(name.replace("_", "-"), value)
        self.send_header("Content-Length", str(len(body)))
        self.end_headers()
        self.wfile.write(body)

    def do_POST(self) -> None:
        body = self.rfile.read(int(self.headers["content-length"])).decode()
        self.seen.append(("POST", self.path, body))
        if self.path == "/again":
            self._answer(307, Location="/landed")
        else:
            self._answer(200, Set_Cookie="seen=1; Path=/")

    def do_GET(self) -> None:
        self.seen.append(("GET", self.path, self.headers.get("cookie", "")))
        match self.path:
            case "/away":
                self._answer(302, Location="http://elsewhere.example/")
            case "/inside":
                self._answer(302, Location="http://169.254.169.254/latest/meta-data/")
            case "/file":
                self._answer(302, Location="file:///etc/passwd")
            case "/loop":
                self._answer(302, Location="/loop")
            case "/hop":
                self._answer(301, Location="/landed")
            case "/endless":
                self.send_response(200)
                self.send_header("Content-Type", "text/html")
                self.end_headers()
                try:
                    while True:
                        self.wfile.write(b"x" * 65_536)
                except OSError:
                    self.close_connection = True
            case "/drip":
                try:
                    while True:
                        self.wfile.write(b"H")
                        self.wfile.flush()
                        time.sleep(0.05)
                except OSError:
                    self.close_connection = True
            case "/odd":
                self._answer(200, "Käse".encode("latin-1"), Content_Type="text/html; charset=no-such")
            case _:
                self._answer(200, Content_Type="text/html", Set_Cookie="word=abc; Path=/")


@pytest.fixture
def origin() -> Iterator[str]:
    server = http.server.ThreadingHTTPServer(("127.0.0.1", 0), Hostile)
    threading.Thread(target=server.serve_forever, daemon=True).start()
    Hostile.seen = []
    yield f"http://shop.localhost:{server.server_address[1]}"
    server.shutdown()
    server.server_close()


def visit(origin: str, *, practice: bool = True) -> HttpShopVisit:
    local = LocalShops.at(origin) if practice else LocalShops.parse("localhost:1,*.localhost:1-79")
    return HttpShopVisit(store().model_copy(update={"origin": origin}), local)


def test_a_page_comes_with_its_way_and_cookies_stay_with_the_visitor(origin: str) -> None:
    with visit(origin) as at:
        page = at.fetch("/hop")
        assert (page.status, page.url, page.hops) == (200, f"{origin}/landed", (f"{origin}/hop",))
        assert at.cookie("word") == "abc"
        at.fetch("/more")
        assert Hostile.seen[-1] == ("GET", "/more", "word=abc")
        assert at.fetch("/odd").is_ok


@pytest.mark.parametrize(
    ("path", "trouble"),
    [
        ("/away", Trouble.FOREIGN),
        ("/inside", Trouble.FOREIGN),
        ("/file", Trouble.FOREIGN),
        ("http://elsewhere.example/", Trouble.FOREIGN),
        ("//elsewhere.example/", Trouble.FOREIGN),
        ("/loop", Trouble.LOOP),
        ("/endless", Trouble.ENDLESS),
    ],
)
def test_nobody_is_led_away_round_or_on_for_ever(origin: str, path: str, trouble: Trouble) -> None:
    with visit(origin) as at:
        page = at.fetch(path)
    assert page.trouble is trouble
    assert page.says
    assert page.text == ""


def test_a_shop_that_drips_is_left_when_its_time_is_over(origin: str, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(shop_visit, "_WHOLE_S", 0.4)
    with visit(origin) as at:
        assert at.fetch("/drip").trouble is Trouble.SLOW


def test_what_is_sent_is_sent_once_even_where_the_shop_asks_for_it_again(origin: str) -> None:
    with visit(origin) as at:
        answer = at.send(ShopRequest("/again", "POST", (("a", "1"), ("a", "2"), ("b", "ä"))))
    assert answer.status == 200
    assert [request[:2] for request in Hostile.seen] == [("POST", "/again"), ("GET", "/landed")]
    assert Hostile.seen[0][2] == "a=1&a=2&b=%C3%A4"


@pytest.mark.parametrize(
    "address",
    [
        "127.0.0.1",
        "10.0.0.8",
        "192.168.1.1",
        "169.254.169.254",
        "::1",
        "fd00::1",
        "::ffff:127.0.0.1",
        "0.0.0.0",
        # Translated (RFC 6052), by 6to4 (RFC 3056), by Teredo (RFC 4380), and as RFC 4291 had it once.
        "64:ff9b::7f00:1",
        "64:ff9b::c0a8:101",
        "64:ff9b:1::a00:8",
        "2002:7f00:1::",
        "2002:c0a8:101::1",
        "2001:0:4136:e378:8000:63bf:80ff:fffe",
        "::127.0.0.1",
    ],
)
def test_a_name_that_leads_inside_is_not_followed(monkeypatch: pytest.MonkeyPatch, address: str) -> None:
    """Reference: the addresses that RFC 6890 keeps for special use, as Python's ipaddress knows them."""

    def resolve(*_: object, **__: object) -> list[tuple[object, ...]]:
        return [(socket.AF_INET, socket.SOCK_STREAM, 6, "", (address, 80))]

    monkeypatch.setattr(socket, "getaddrinfo", resolve)
    with visit("http://shop.example", practice=False) as at:
        page = at.fetch("/")
    assert page.trouble is Trouble.PRIVATE
    assert address in page.says


def test_only_practice_stores_stand_on_this_machine(origin: str) -> None:
    with visit(origin, practice=False) as at:
        assert at.fetch("/").trouble is Trouble.PRIVATE


def test_a_name_without_an_address_and_a_closed_door_are_told() -> None:
    with visit("http://no-such-shop.invalid", practice=False) as at:
        assert at.fetch("/").trouble is Trouble.UNREACHABLE
    with visit("http://shop.localhost:9") as at:
        assert at.fetch("/").trouble is Trouble.UNREACHABLE
