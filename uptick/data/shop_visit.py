"""Visits a shop's own pages over HTTP, and can be led nowhere else: not by a redirect, not by a name, not for ever."""

import ipaddress
import socket
import ssl
import time
from collections.abc import Iterable
from contextlib import suppress
from types import TracebackType
from typing import Any
from urllib.parse import urljoin, urlsplit

import httpcore2
import httpx2

from uptick.core.shop.local_shops import LocalShops
from uptick.core.shop.store import Store
from uptick.usecases.visiting import Fetched, ShopRequest, Trouble

MOST_BYTES = 3_000_000
MOST_HOPS = 5
_STEP_S = 5.0
_WHOLE_S = 12.0
AGENT = "UpTick-PageCheck/1"


class _Refused(Exception):
    def __init__(self, trouble: Trouble, says: str) -> None:
        super().__init__(says)
        self.trouble, self.says = trouble, says


class _Clock:
    """Until when a whole request may take."""

    def __init__(self) -> None:
        self.ends = 0.0

    def left(self, timeout: float | None) -> float:
        """Return what a step may still take.

        Raises:
            _Refused: The time is over.
        """
        left = self.ends - time.monotonic()
        if left <= 0:
            raise _Refused(Trouble.SLOW, f"It was not done after {_WHOLE_S:g} s.")
        return min(left, timeout if timeout is not None else left)


class _Timed(httpcore2.NetworkStream):
    """A connection on which nobody can drip for ever: every step counts against the whole."""

    def __init__(self, inner: httpcore2.NetworkStream, clock: _Clock) -> None:
        self._inner, self._clock = inner, clock

    def read(self, max_bytes: int, timeout: float | None = None) -> bytes:
        return self._inner.read(max_bytes, self._clock.left(timeout))

    def write(self, buffer: bytes, timeout: float | None = None) -> None:
        self._inner.write(buffer, self._clock.left(timeout))

    def close(self) -> None:
        self._inner.close()

    def start_tls(
        self, ssl_context: ssl.SSLContext, server_hostname: str | None = None, timeout: float | None = None
    ) -> httpcore2.NetworkStream:
        return _Timed(self._inner.start_tls(ssl_context, server_hostname, self._clock.left(timeout)), self._clock)

    def get_extra_info(self, info: str) -> Any:
        return self._inner.get_extra_info(info)


# RFC 6052, 2.1 and RFC 8215: addresses that a translator turns into ones of version 4; RFC 4291, 2.5.5.1: an old form.
_TRANSLATED = tuple(ipaddress.IPv6Network(net) for net in ("64:ff9b::/96", "64:ff9b:1::/48", "::/96"))


def _carried(address: ipaddress.IPv6Address) -> ipaddress.IPv4Address | None:
    """Return the address of version 4 that one of version 6 leads to: mapped, translated, by 6to4 or by Teredo."""
    if address.ipv4_mapped:
        return address.ipv4_mapped
    # RFC 3056 and RFC 4380.
    if address.sixtofour:
        return address.sixtofour
    if address.teredo:
        return address.teredo[1]
    if any(address in net for net in _TRANSLATED):
        return ipaddress.IPv4Address(int(address) & 0xFFFFFFFF)
    return None


class _PublicOnly(httpcore2.NetworkBackend):
    """Connects only to public addresses, and to the very one that was looked at: a name cannot change in between."""

    def __init__(self, clock: _Clock, local: LocalShops) -> None:
        self._inner = httpcore2.SyncBackend()
        self._clock = clock
        self._local = local

    def connect_tcp(
        self,
        host: str,
        port: int,
        timeout: float | None = None,
        local_address: str | None = None,
        socket_options: Iterable[Any] | None = None,
    ) -> httpcore2.NetworkStream:
        address = self._address(host, port)
        left = self._clock.left(timeout)
        return _Timed(self._inner.connect_tcp(address, port, left, local_address, socket_options), self._clock)

    def _address(self, host: str, port: int) -> str:
        # RFC 6761, 6.3: names under localhost are this machine, whatever a resolver says.
        if host == "localhost" or host.endswith(".localhost"):
            addresses = ["127.0.0.1"]
        else:
            try:
                addresses = [str(info[4][0]) for info in socket.getaddrinfo(host, port, type=socket.SOCK_STREAM)]
            except OSError as error:
                raise _Refused(Trouble.UNREACHABLE, f"The name {host} leads to no address.") from error
        for address in addresses:
            if not self._is_allowed(address, is_local=self._local.allow(host, port)):
                raise _Refused(Trouble.PRIVATE, f"{host} leads to {address}, which is not a public address.")
        return addresses[0]

    def _is_allowed(self, address: str, *, is_local: bool) -> bool:
        ip = ipaddress.ip_address(address.partition("%")[0])
        # What leads on to an address of version 4 is as public as that one.
        inner = _carried(ip) if isinstance(ip, ipaddress.IPv6Address) and not ip.is_loopback else None
        reached = inner or ip
        return (is_local and reached.is_loopback) or (reached.is_global and not reached.is_multicast)

    def connect_unix_socket(self, *args: Any, **kwargs: Any) -> httpcore2.NetworkStream:
        raise _Refused(Trouble.PRIVATE, "A socket of this machine is not a shop.")

    def sleep(self, seconds: float) -> None:
        time.sleep(seconds)


class HttpShopVisit:
    """One visitor with cookies of their own. On this very machine only what is named as a local shop is visited."""

    def __init__(self, store: Store, local: LocalShops) -> None:
        self._store = store
        self._clock = _Clock()
        transport = httpx2.HTTPTransport(trust_env=False)
        # The pool is made anew with our own way to connect, which the transport does not hand on.
        transport._pool = httpcore2.ConnectionPool(
            ssl_context=httpx2.create_ssl_context(),
            network_backend=_PublicOnly(self._clock, local),
            max_connections=4,
        )
        self._client = httpx2.Client(
            transport=transport,
            timeout=_STEP_S,
            follow_redirects=False,
            trust_env=False,
            headers={"User-Agent": AGENT, "Accept-Language": store.language},
        )

    def __enter__(self) -> "HttpShopVisit":
        return self

    def __exit__(self, kind: type[BaseException] | None, error: BaseException | None, at: TracebackType | None) -> None:
        self._client.close()

    def cookie(self, name: str) -> str:
        return next((cookie.value or "" for cookie in self._client.cookies.jar if cookie.name == name), "")

    def fetch(self, path: str, accept: str = "text/html") -> Fetched:
        return self._go(self._client.build_request("GET", self._address(path), headers={"Accept": accept}))

    def send(self, request: ShopRequest, accept: str = "application/json") -> Fetched:
        headers = {"Accept": accept, "Origin": self._store.origin, **request.headers}
        body: dict[str, Any] = {}
        if request.json is not None:
            body = {"json": request.json}
        elif request.method != "GET":
            body = {"data": _by_name(request.fields)}
        address = self._address(request.path)
        return self._go(self._client.build_request(request.method, address, headers=headers, **body))

    def _address(self, path: str) -> str:
        return urljoin(f"{self._store.origin}/", path)

    def _go(self, request: httpx2.Request) -> Fetched:
        asked, began = str(request.url), time.monotonic()
        self._clock.ends = began + _WHOLE_S
        hops: list[str] = []
        try:
            while True:
                self._require_own(str(request.url))
                answer = self._one(request)
                where = answer.headers.get("location", "")
                if not (300 <= answer.status < 400 and where):
                    return Fetched(
                        asked, str(request.url), answer.status, answer.headers, answer.text,
                        tuple(hops), round((time.monotonic() - began) * 1000),
                    )  # fmt: skip
                hops.append(str(request.url))
                target = urljoin(str(request.url), where)
                if len(hops) > MOST_HOPS or target in hops:
                    raise _Refused(Trouble.LOOP, f"It leads on and on, the last time to {target}.")
                # 307 and 308 would send the form again; nothing is sent twice here.
                request = self._client.build_request("GET", target, headers={"Accept": request.headers["accept"]})
        except _Refused as refused:
            trouble, says = refused.trouble, refused.says
        except (httpx2.TimeoutException, httpcore2.TimeoutException):
            trouble, says = Trouble.SLOW, f"It did not answer within {_STEP_S:g} s."
        except (httpx2.HTTPError, httpcore2.NetworkError, httpcore2.ProtocolError, ValueError) as error:
            is_tls = "ssl" in str(error).lower() or "certificate" in str(error).lower()
            trouble = Trouble.TLS if is_tls else Trouble.UNREACHABLE
            says = (
                "Its certificate is not valid." if is_tls else f"It could not be reached: {error or 'no connection'}."
            )
        took = round((time.monotonic() - began) * 1000)
        return Fetched(asked, str(request.url), hops=tuple(hops), took_ms=took, trouble=trouble, says=says)

    def _require_own(self, url: str) -> None:
        parts = urlsplit(url)
        with suppress(ValueError):
            default = {"http": 80, "https": 443}.get(parts.scheme)
            port = "" if parts.port in (None, default) else f":{parts.port}"
            if f"{parts.scheme}://{parts.hostname}{port}" in self._store.origins and not parts.username:
                return
        own = " and ".join(self._store.origins)
        raise _Refused(Trouble.FOREIGN, f"It leads to {parts.scheme}://{parts.netloc}, and this store is {own}.")

    def _one(self, request: httpx2.Request) -> "_Answer":
        response = self._client.send(request, stream=True)
        try:
            parts: list[bytes] = []
            size = 0
            for part in response.iter_bytes():
                size += len(part)
                if size > MOST_BYTES:
                    raise _Refused(Trouble.ENDLESS, f"It sends more than {MOST_BYTES // 1_000_000} MB.")
                parts.append(part)
        finally:
            response.close()
        encoding = response.charset_encoding or "utf-8"
        try:
            text = b"".join(parts).decode(encoding, "replace")
        except LookupError:
            text = b"".join(parts).decode("utf-8", "replace")
        return _Answer(response.status_code, {k.lower(): v for k, v in response.headers.items()}, text)


class _Answer:
    __slots__ = ("headers", "status", "text")

    def __init__(self, status: int, headers: dict[str, str], text: str) -> None:
        self.status, self.headers, self.text = status, headers, text


def _by_name(fields: tuple[tuple[str, str], ...]) -> dict[str, list[str]]:
    by: dict[str, list[str]] = {}
    for name, value in fields:
        by.setdefault(name, []).append(value)
    return by
