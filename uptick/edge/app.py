"""The public side: the script with the release in it, fonts by hash, and signals in."""

import asyncio
import re
import time
from collections import Counter
from collections.abc import AsyncIterator, Awaitable, Callable
from contextlib import asynccontextmanager, suppress
from dataclasses import dataclass, replace
from datetime import date, datetime
from functools import lru_cache
from pathlib import Path
from zoneinfo import ZoneInfo

import orjson
import structlog
from crawlerdetect import CrawlerDetect
from starlette.applications import Starlette
from starlette.middleware import Middleware
from starlette.requests import Request
from starlette.responses import FileResponse, Response
from starlette.routing import Route
from starlette.types import Receive, Scope, Send

from uptick.asgi import Faults
from uptick.core.button.merge import Json
from uptick.core.errors import BadSignal
from uptick.core.outside.gone import GONE_POLICY, gone_page
from uptick.core.outside.handed import ID, way_of
from uptick.core.release.manifest import HANGS_ANYWHERE
from uptick.core.shop.signals import MAX_BYTES, accept, parse_batch
from uptick.edge.queue import CommitQueue, Full, Unwritable
from uptick.edge.script import Later, ScriptCode, ScriptFile, build_script, is_current, manifest_of, script_text
from uptick.usecases.serving import (
    BatchWriter,
    Changes,
    OutsideDoor,
    Served,
    Shelf,
    StoreBatch,
    TrialScope,
    Unavailable,
)

log = structlog.get_logger()
_OPEN = {"Access-Control-Allow-Origin": "*", "Cross-Origin-Resource-Policy": "cross-origin"}
# So long what is kept is believed while changes are heard, and while they are not; the first is a slow look behind.
_KEPT_S, _UNHEARD_S = 60.0, 1.0
_MOST_KEPT = 10_000
# Keys that no store has are anybody's to make up: they have room of their own.
_MOST_UNKNOWN = 2_000
_TELL_EVERY_S = 10.0
_KEY = re.compile(r"[A-Za-z0-9][A-Za-z0-9._-]{0,62}")
_DIGEST = re.compile(r"[0-9a-f]{16}")


@dataclass(frozen=True, slots=True)
class EdgeParts:
    """Everything that wiring hands to the edge. `draft_of` gives a store's draft for a valid token, or None."""

    shelf: Shelf
    outside: OutsideDoor
    writer: BatchWriter
    changes: Changes
    clock: Callable[[], datetime]
    draft_of: Callable[[str, str], Json | None]
    script_dir: Path
    font_dir: Path
    font_files: dict[str, str]
    origin: str
    studio_origin: str


# What leads elsewhere tomorrow is kept by nobody, and the shop need not know which page it was.
_NEVER_KEPT = {
    "Cache-Control": "no-store",
    "Referrer-Policy": "no-referrer",
    "X-Content-Type-Options": "nosniff",
    "X-Robots-Tag": "noindex",
}


def _is_press(request: Request) -> bool:
    """Tell whether somebody pressed: not a program that looks at links, nor a browser that fetches ahead."""
    ahead = request.headers.get("sec-purpose", "") + request.headers.get("purpose", "")
    return request.method != "HEAD" and "prefetch" not in ahead and not _is_robot(request.headers.get("user-agent", ""))


@lru_cache(maxsize=4096)
def _is_robot(agent: str) -> bool:
    return bool(CrawlerDetect(user_agent=agent).isCrawler())


async def _body(request: Request) -> bytes | None:
    """Return the body, or None as soon as it is longer than a batch can be, whatever length it claims."""
    parts: list[bytes] = []
    size = 0
    async for part in request.stream():
        size += len(part)
        if size > MAX_BYTES:
            return None
        parts.append(part)
    return b"".join(parts)


@dataclass(frozen=True, slots=True)
class Kept:
    """What a store serves, until when that is believed; `served` is None where there is no such store."""

    served: Served | None
    scopes: tuple[TrialScope, ...]
    file: ScriptFile | None
    until: float


class Edge:
    """The requests of shops' pages. What it keeps in memory it can always read again."""

    def __init__(self, parts: EdgeParts) -> None:
        self._parts = parts
        self._queue = CommitQueue(parts.writer, parts.clock)
        self._code = ScriptCode.read(parts.script_dir)
        self._kept: dict[str, Kept] = {}
        self._unknown: dict[str, Kept] = {}
        self._reading: dict[str, asyncio.Task[Kept]] = {}
        # Counted up with every change that is heard, so that what was read before it is not kept after it.
        self._heard = 0
        self._away, self._away_told = 0, -_TELL_EVERY_S

    @asynccontextmanager
    async def lifespan(self, _: Starlette) -> AsyncIterator[None]:
        loop = asyncio.get_running_loop()
        self._queue.start()
        self._parts.changes.start(lambda key: self._hear(loop, key))
        yield
        # The listener may be calling into this very loop.
        await asyncio.to_thread(self._parts.changes.stop)
        await self._queue.stop()

    def _hear(self, loop: asyncio.AbstractEventLoop, key: str | None) -> None:
        # While the edge stops, its loop may be gone before the listener is.
        with suppress(RuntimeError):
            loop.call_soon_threadsafe(self._forget, key)

    def _forget(self, key: str | None) -> None:
        """Read a store again at the next request; without a key every store."""
        self._heard += 1
        # A reading that has begun may still give what was before the change: only who asked before it gets that.
        if key:
            self._reading.pop(key, None)
        else:
            self._reading.clear()
        for known in (self._kept, self._unknown):
            # What was served last is still there for as long as the database is not.
            known.update({name: replace(known[name], until=0.0) for name in ([key] if key else known) if name in known})

    async def script(self, request: Request) -> Response:
        """Serve the file afresh by its name, or for ever by its own hash."""
        kept = await self._known(request.path_params["key"])
        name = request.path_params["name"]
        if kept is None or kept.served is None:
            return Response("// Up Tick: there is no such store.\n", 404, _OPEN, "text/javascript")
        file = kept.file
        if file is None:
            # The line may stand in a shop before its first release; the shop's console stays clean.
            headers = {**_OPEN, "Cache-Control": "no-cache"}
            says = "// Up Tick: this store has no release yet.\n" if name == "up.js" else "// Up Tick: no such file.\n"
            return Response(says, 200 if name == "up.js" else 404, headers, "text/javascript")
        if name != "up.js" and name != f"{file.etag}.js":
            return Response("// Up Tick: that is not the current file.\n", 404, _OPEN, "text/javascript")
        keeps = "no-cache" if name == "up.js" else "max-age=31536000, immutable"
        headers = {**_OPEN, "ETag": f'"{file.etag}"', "Cache-Control": keeps, "Vary": "Accept-Encoding"}
        if f'"{file.etag}"' in request.headers.get("if-none-match", "").replace("W/", ""):
            return Response(None, 304, headers)
        return _packed(file, request, headers)

    async def later(self, request: Request) -> Response:
        """Serve what a store's script loads once its buttons stand, for ever by its own hash."""
        file = self._code.file(request.path_params["name"])
        if file is None:
            return Response("// Up Tick: that is not the current file.\n", 404, _OPEN, "text/javascript")
        headers = {**_OPEN, "Cache-Control": "max-age=31536000, immutable", "Vary": "Accept-Encoding"}
        return _packed(file, request, headers)

    async def manifest(self, request: Request) -> Response:
        """Give the same release and trials as plain JSON."""
        kept = await self._known(request.path_params["key"])
        if kept is None or kept.served is None:
            return Response(b'{"error":"unknown store"}', 404, _OPEN, "application/json")
        if kept.file is None:
            return Response(b'{"error":"no release yet"}', 404, _OPEN, "application/json")
        body = orjson.dumps(manifest_of(kept.served, self._parts.origin, self._code))
        return Response(body, 200, {**_OPEN, "Cache-Control": "no-cache"}, "application/json")

    async def draft(self, request: Request) -> Response:
        """Serve the script with a store's draft in it to whoever holds a signed token that has not run out."""
        key, token = request.path_params["key"], request.query_params.get("token", "")
        draft = await asyncio.to_thread(self._parts.draft_of, key, token) if _KEY.fullmatch(key) else None
        if draft is None:
            return Response("// Up Tick: the link has run out.\n", 403, _OPEN, "text/javascript")
        # What is being drawn may come to need anything anywhere.
        draft = {**draft, "draft": True, "bar": HANGS_ANYWHERE}
        manifest = {
            "edge": self._parts.origin, "key": key, "release": 0, "trials": [], "studio": self._parts.studio_origin,
            **draft, **self._code.files_for(draft),
        }  # fmt: skip
        text = script_text(self._code, manifest, self._parts.origin)
        return Response(text, 200, {**_OPEN, "Cache-Control": "no-store"}, "text/javascript")

    async def picture(self, request: Request) -> Response:
        """Serve a picture for ever, by its content's hash."""
        digest = request.path_params["digest"]
        picture = await asyncio.to_thread(self._parts.shelf.picture, digest) if _DIGEST.fullmatch(digest) else None
        if picture is None:
            return Response("There is no such picture.\n", 404, _OPEN, "text/plain")
        headers = {**_OPEN, "Cache-Control": "max-age=31536000, immutable", "X-Content-Type-Options": "nosniff"}
        return Response(picture[1], 200, headers, picture[0])

    async def go(self, request: Request) -> Response:
        """Lead from a button outside to the store's own page, or into its basket, and count the press by its day.

        Nothing in the address says where: an id does, and that leads to the store's own origins only.
        """
        known = await self._known(request.path_params["key"])
        handed = request.path_params["handed"]
        if known is None or known.served is None:
            return Response("There is no such store.\n", 404, _NEVER_KEPT, "text/plain")
        store = known.served.store
        today = self._parts.clock().astimezone(ZoneInfo(store.timezone)).date()
        handed_out = None
        try:
            if ID.fullmatch(handed):
                handed_out = await asyncio.to_thread(self._parts.outside.handed, known.served.store_id, handed, today)
        except Unavailable as error:
            log.error("link not followed", store=store.key, why=str(error))
            headers = {**_NEVER_KEPT, "Retry-After": "5"}
            return Response(f"{store.name}: please try again in a moment.\n", 503, headers, "text/plain")
        way = None
        if handed_out and handed_out[1]:
            asked = request.query_params
            quantity, option = asked.get("quantity", ""), asked.get("option", "")
            posted = request.method == "POST"
            way = way_of(store, handed_out[1], handed_out[0], posted=posted, quantity=quantity, option=option)
        if way is None:
            language = handed_out[0].language if handed_out else store.language
            headers = {**_NEVER_KEPT, "Content-Security-Policy": GONE_POLICY}
            return Response(gone_page(store, language), 410 if handed_out else 404, headers, "text/html")
        if _is_press(request):
            await self._count_press(known.served, handed, today)
        # 307 keeps the form that is sent, 303 makes a page of any other press.
        return Response(None, 307 if way.keeps_form else 303, {**_NEVER_KEPT, "Location": way.address})

    async def _count_press(self, served: Served, handed: str, today: date) -> None:
        try:
            await asyncio.to_thread(self._parts.outside.count, served.store_id, handed, today)
        except Unavailable as error:
            # Whoever pressed is led on all the same.
            log.error("press not counted", store=served.store.key, why=str(error))

    async def font(self, request: Request) -> Response:
        file = self._parts.font_files.get(request.path_params["name"])
        if file is None:
            return Response(None, 404, _OPEN)
        headers = {**_OPEN, "Cache-Control": "max-age=31536000, immutable"}
        return FileResponse(self._parts.font_dir / file, headers=headers, media_type="font/woff2")

    async def health(self, _: Request) -> Response:
        return Response(b'{"is":"well"}', media_type="application/json")

    async def signals(self, request: Request) -> Response:
        """Take a batch. The answer follows the commit; what was refused is named, and counted by reason."""
        known = await self._known(request.path_params["key"])
        if known is None or known.served is None:
            return self._answer(404, {"error": "unknown store"})
        served, trials = known.served, known.scopes
        if request.headers.get("origin", served.store.origin) not in served.store.origins:
            return await self._refuse_all(served, 403, "wrong_origin")
        body = await _body(request)
        if body is None:
            return await self._refuse_all(served, 413, "too_large")
        if _is_robot(request.headers.get("user-agent", "")):
            return await self._refuse_all(served, 200, "robot")
        try:
            batch = parse_batch(body)
        except BadSignal as error:
            return await self._refuse_all(served, 400, error.facts.get("reason", "malformed"), error.says)
        if request.headers.get("sec-gpc") == "1":
            batch = batch.model_copy(update={"shopper": "", "visit": ""})
        store = served.store
        now = self._parts.clock()
        believed, refused = accept(batch, now, is_practice=store.is_practice, currency=store.currency)
        reasons = Counter(r.reason for r in refused)
        try:
            failed = await self._commit(StoreBatch(served.store_id, believed, trials, reasons))
        except Unwritable as error:
            log.warning("batch refused", store=served.store.key, **error.why)
            return await self._refuse_all(served, 400, "unwritable")
        if failed:
            return failed
        refusals = [{"id": r.id, "reason": r.reason} for r in refused]
        return self._answer(200, {"accepted": len(believed), "refused": refusals})

    async def _refuse_all(self, served: Served, status: int, reason: str, says: str = "") -> Response:
        try:
            failed = await self._commit(StoreBatch(served.store_id, (), (), {reason: 1}))
        except Unwritable as error:
            # Not even a count can be written: it is not the batch that is wrong, and it may come again.
            log.error("refusals not counted", store=served.store.key, **error.why)
            failed = self._answer(503, {"error": "not committed"}, {"Retry-After": "5"})
        return failed or self._answer(status, {"accepted": 0, "refused": [{"id": "", "reason": reason}], "says": says})

    async def _commit(self, batch: StoreBatch) -> Response | None:
        try:
            await self._queue.commit(batch)
        except Full:
            return self._answer(503, {"error": "busy"}, {"Retry-After": "2"})
        except Unavailable as error:
            self._tell_away(error)
            return self._answer(503, {"error": "not committed"}, {"Retry-After": "5"})
        return None

    def _tell_away(self, error: Unavailable) -> None:
        """Log that the database is away, once in a while and not once a batch."""
        self._away += 1
        if time.monotonic() - self._away_told >= _TELL_EVERY_S:
            log.error("database away", times=self._away, why=str(error))
            self._away, self._away_told = 0, time.monotonic()

    def _answer(self, status: int, body: Json, headers: dict[str, str] | None = None) -> Response:
        return Response(orjson.dumps(body), status, {**_OPEN, **(headers or {})}, "application/json")

    async def _known(self, key: str) -> Kept | None:
        """Return what a store serves, from memory as long as nothing else has been heard; many askers read it once."""
        kept = self._kept.get(key) or self._unknown.get(key)
        if kept and time.monotonic() < kept.until:
            return kept
        if not _KEY.fullmatch(key):
            return None
        reading = self._reading.get(key)
        if reading is None:
            reading = self._reading[key] = asyncio.create_task(self._read(key, kept))
            reading.add_done_callback(lambda done: self._end_reading(key, done))
        return await asyncio.shield(reading)

    def _end_reading(self, key: str, done: asyncio.Task[Kept]) -> None:
        if self._reading.get(key) is done:
            del self._reading[key]

    async def _read(self, key: str, before: Kept | None) -> Kept:
        heard = self._heard
        try:
            kept = await asyncio.to_thread(self._look_up, key, before)
        except Unavailable as error:
            if before is None or before.served is None:
                raise
            # Shoppers get the last release until it can be asked which is the newest.
            self._tell_away(error)
            kept = replace(before, until=time.monotonic() + _UNHEARD_S)
        if heard == self._heard:
            known, most = (self._kept, _MOST_KEPT) if kept.served else (self._unknown, _MOST_UNKNOWN)
            known.pop(key, None)
            while len(known) >= most:
                del known[next(iter(known))]
            known[key] = kept
        return kept

    def _look_up(self, key: str, before: Kept | None) -> Kept:
        """Read what a store serves and pack it. This takes longer than other requests may wait: never on the loop."""
        shelf = self._parts.shelf
        until = time.monotonic() + (_KEPT_S if self._parts.changes.hears else _UNHEARD_S)
        served = shelf.served(key)
        if served is None:
            return Kept(None, (), None, until)
        scopes = shelf.scopes(served.store_id, is_practice=served.store.is_practice)
        file = before.file if before and before.served and before.served.stamp == served.stamp else None
        if file is None and served.release_n and is_current(served.release):
            file = build_script(self._code, served, self._parts.origin)
        return Kept(served, scopes, file, until)


def _packed(file: ScriptFile | Later, request: Request, headers: dict[str, str]) -> Response:
    """Return a file as small as the browser takes it."""
    takes = request.headers.get("accept-encoding", "")
    if "br" in takes:
        return Response(file.brotlied, 200, {**headers, "Content-Encoding": "br"}, "text/javascript")
    if "gzip" in takes:
        return Response(file.gzipped, 200, {**headers, "Content-Encoding": "gzip"}, "text/javascript")
    return Response(file.plain, 200, headers, "text/javascript")


class _Plain:
    """An endpoint as an ASGI application, without what Starlette puts around functions: the edge's busiest path."""

    def __init__(self, endpoint: Callable[[Request], Awaitable[Response]]) -> None:
        self._endpoint = endpoint

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        response = await self._endpoint(Request(scope, receive))
        await response(scope, receive, send)


async def _away(_: Request, error: Exception) -> Response:
    """Answer for a store of which nothing is known while the database is away."""
    log.error("store not read", why=str(error))
    return Response(
        "// Up Tick: please try again in a moment.\n", 503, {**_OPEN, "Retry-After": "5"}, "text/javascript"
    )


def create_edge(parts: EdgeParts) -> Starlette:
    """Return the edge: scripts, pieces, fonts and pictures out, signals in."""
    edge = Edge(parts)
    return Starlette(
        lifespan=edge.lifespan,
        exception_handlers={Unavailable: _away},
        middleware=[Middleware(Faults, headers=_OPEN)],
        routes=[
            Route("/health", edge.health),
            Route("/fonts/{name}", edge.font),
            Route("/later/{name}", edge.later),
            Route("/s/{key}/signals", _Plain(edge.signals), methods=["POST"]),
            Route("/s/{key}/manifest.json", edge.manifest),
            Route("/s/{key}/draft.js", edge.draft),
            Route("/s/{key}/go/{handed}", edge.go, methods=["GET", "POST"]),
            Route("/pictures/{digest}", edge.picture),
            Route("/s/{key}/{name}", edge.script),
        ],
    )
