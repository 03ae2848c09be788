"""The public side: the script with the release in it, fonts by hash, and signals in."""

import asyncio
import re
import time
from collections import Counter
from collections.abc import AsyncIterator, Awaitable, Callable
from contextlib import asynccontextmanager
from dataclasses import dataclass
from datetime import datetime
from functools import lru_cache
from pathlib import Path

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
from uptick.core.shop.signals import MAX_BYTES, accept, parse_batch
from uptick.edge.queue import CommitQueue, Full, Unwritable
from uptick.edge.script import ScriptCode, ScriptFile, build_script, is_current, manifest_of, script_text
from uptick.usecases.serving import Served, Shelf, StoreBatch, TrialScope, Unavailable, Writer

log = structlog.get_logger()
_OPEN = {"Access-Control-Allow-Origin": "*", "Cross-Origin-Resource-Policy": "cross-origin"}
_KEPT_S = 1.0
_TELL_EVERY_S = 10.0
_KEY = re.compile(r"[A-Za-z0-9][A-Za-z0-9._-]{0,62}")
_DIGEST = re.compile(r"[0-9a-f]{16}")


@dataclass(frozen=True, slots=True)
class EdgeParts:
    """Everything that wiring hands to the edge. `draft_of` gives a store's draft for a valid token, or None."""

    shelf: Shelf
    writer: Writer
    clock: Callable[[], datetime]
    draft_of: Callable[[str, str], Json | None]
    script_dir: Path
    font_dir: Path
    font_files: dict[str, str]
    origin: str
    studio_origin: str


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


class Edge:
    """The requests of shops' pages. What it keeps in memory it can always read again."""

    def __init__(self, parts: EdgeParts) -> None:
        self._parts = parts
        self._queue = CommitQueue(parts.writer, parts.clock)
        self._files: dict[str, ScriptFile] = {}
        self._known: dict[str, tuple[float, Served, tuple[TrialScope, ...]]] = {}
        self._away, self._away_told = 0, -_TELL_EVERY_S

    @asynccontextmanager
    async def lifespan(self, _: Starlette) -> AsyncIterator[None]:
        self._queue.start()
        yield
        await self._queue.stop()

    async def script(self, request: Request) -> Response:
        """Serve the file afresh by its name, or for ever by its own hash."""
        served = await self._served(request.path_params["key"])
        name = request.path_params["name"]
        if served is None:
            return Response("// Up Tick: there is no such store.\n", 404, _OPEN, "text/javascript")
        if name == "up.js" and not (served.release_n and is_current(served.release)):
            # The line may stand in a shop before its first release; the shop's console stays clean.
            headers = {**_OPEN, "Cache-Control": "no-cache"}
            return Response("// Up Tick: this store has no release yet.\n", 200, headers, "text/javascript")
        file = self._file(served)
        if name != "up.js" and name != f"{file.etag}.js":
            return Response("// Up Tick: that is not the current file.\n", 404, _OPEN, "text/javascript")
        keeps = "no-cache" if name == "up.js" else "max-age=31536000, immutable"
        headers = {**_OPEN, "ETag": f'"{file.etag}"', "Cache-Control": keeps, "Vary": "Accept-Encoding"}
        if f'"{file.etag}"' in request.headers.get("if-none-match", "").replace("W/", ""):
            return Response(None, 304, headers)
        takes = request.headers.get("accept-encoding", "")
        if "br" in takes:
            return Response(file.brotlied, 200, {**headers, "Content-Encoding": "br"}, "text/javascript")
        if "gzip" in takes:
            return Response(file.gzipped, 200, {**headers, "Content-Encoding": "gzip"}, "text/javascript")
        return Response(file.plain, 200, headers, "text/javascript")

    def _file(self, served: Served) -> ScriptFile:
        name = f"{served.store.key}/{served.stamp}"
        file = self._files.get(name)
        if file is None:
            file = build_script(ScriptCode.read(self._parts.script_dir), served, self._parts.origin)
            self._files = {n: f for n, f in self._files.items() if not n.startswith(f"{served.store.key}/")}
            self._files[name] = file
        return file

    async def manifest(self, request: Request) -> Response:
        """Give the same release and trials as plain JSON."""
        served = await self._served(request.path_params["key"])
        if served is None:
            return Response(b'{"error":"unknown store"}', 404, _OPEN, "application/json")
        body = orjson.dumps(manifest_of(served, self._parts.origin))
        return Response(body, 200, {**_OPEN, "Cache-Control": "no-cache"}, "application/json")

    async def draft(self, request: Request) -> Response:
        """Serve the script with a store's draft in it to whoever holds a signed token that has not run out."""
        key, token = request.path_params["key"], request.query_params.get("token", "")
        draft = await asyncio.to_thread(self._parts.draft_of, key, token) if _KEY.fullmatch(key) else None
        if draft is None:
            return Response("// Up Tick: the link has run out.\n", 403, _OPEN, "text/javascript")
        manifest = {
            "edge": self._parts.origin, "key": key, "release": 0, **draft, "trials": [], "draft": True,
            "studio": self._parts.studio_origin,
        }  # fmt: skip
        text = script_text(ScriptCode.read(self._parts.script_dir), manifest, self._parts.origin)
        return Response(text, 200, {**_OPEN, "Cache-Control": "no-store"}, "text/javascript")

    async def picture(self, request: Request) -> Response:
        """Serve a picture for ever, by its content's hash."""
        digest = request.path_params["digest"]
        found = await asyncio.to_thread(self._parts.shelf.picture, digest) if _DIGEST.fullmatch(digest) else None
        if found is None:
            return Response("There is no such picture.\n", 404, _OPEN, "text/plain")
        headers = {**_OPEN, "Cache-Control": "max-age=31536000, immutable", "X-Content-Type-Options": "nosniff"}
        return Response(found[1], 200, headers, found[0])

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
        known = await self._store(request.path_params["key"])
        if known is None:
            return self._answer(404, {"error": "unknown store"})
        served, trials = known
        if request.headers.get("origin", served.store.origin) != served.store.origin:
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
        told = [{"id": r.id, "reason": r.reason} for r in refused]
        return self._answer(200, {"accepted": len(believed), "refused": told})

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
            log.error("signals not committed", batches=self._away, why=str(error))
            self._away, self._away_told = 0, time.monotonic()

    def _answer(self, status: int, body: Json, headers: dict[str, str] | None = None) -> Response:
        return Response(orjson.dumps(body), status, {**_OPEN, **(headers or {})}, "application/json")

    async def _served(self, key: str) -> Served | None:
        return await asyncio.to_thread(self._parts.shelf.served, key) if _KEY.fullmatch(key) else None

    async def _store(self, key: str) -> tuple[Served, tuple[TrialScope, ...]] | None:
        """Return a store with its trials, at most a second old."""
        kept = self._known.get(key)
        now = time.monotonic()
        if kept and now - kept[0] < _KEPT_S:
            return kept[1], kept[2]
        served = await self._served(key)
        if served is None:
            return None
        scopes = await asyncio.to_thread(
            lambda: self._parts.shelf.scopes(served.store_id, is_practice=served.store.is_practice)
        )
        self._known[key] = (now, served, scopes)
        return served, scopes


class _Plain:
    """An endpoint as an ASGI application, without what Starlette puts around functions: the edge's busiest path."""

    def __init__(self, endpoint: Callable[[Request], Awaitable[Response]]) -> None:
        self._endpoint = endpoint

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        response = await self._endpoint(Request(scope, receive))
        await response(scope, receive, send)


def create_edge(parts: EdgeParts) -> Starlette:
    edge = Edge(parts)
    return Starlette(
        lifespan=edge.lifespan,
        middleware=[Middleware(Faults, headers=_OPEN)],
        routes=[
            Route("/health", edge.health),
            Route("/fonts/{name}", edge.font),
            Route("/s/{key}/signals", _Plain(edge.signals), methods=["POST"]),
            Route("/s/{key}/manifest.json", edge.manifest),
            Route("/s/{key}/draft.js", edge.draft),
            Route("/pictures/{digest}", edge.picture),
            Route("/s/{key}/{name}", edge.script),
        ],
    )
