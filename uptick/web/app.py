"""The studio's application: API, problems, security headers and the built screens."""

import re
from typing import Any
from urllib.parse import unquote_to_bytes

from fastapi import FastAPI, Response
from fastapi.responses import FileResponse
from fastapi.staticfiles import StaticFiles
from starlette.datastructures import Headers, MutableHeaders
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from uptick.asgi import Bounded, Faults, problem
from uptick.core.button.plain_text import unfit_in
from uptick.core.formats.catalogue_file import MAX_BYTES as MOST_CATALOGUE
from uptick.core.formats.css_in import MOST_CHARACTERS as MOST_CSS
from uptick.core.formats.picture_file import MOST_BYTES as MOST_PICTURE
from uptick.core.formats.po import MAX_BYTES as MOST_TEXTS
from uptick.web import account, exceptions, exchange, looks, outcome, outside, places, shop_side, workshop
from uptick.web.parts import Parts
from uptick.web.pauses import Pauses
from uptick.web.problems import install

_SAFE = {"GET", "HEAD", "OPTIONS"}


_HEADERS = {
    "content-security-policy": "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; "
    "object-src 'none'; base-uri 'none'; frame-ancestors 'none'; form-action 'self'",
    "x-content-type-options": "nosniff",
    "referrer-policy": "same-origin",
}


# A catalogue of half a million products, a picture; everything else is text that somebody typed or pasted.
_MOST = 1_000_000
# Text that is quoted as JSON can be six times as long.
_MOST_QUOTED = 6 * MOST_CSS
_MOST_AT = (
    (re.compile(r"/catalogue(/preview)?$"), MOST_CATALOGUE),
    (re.compile(r"/texts/[^/]+$"), MOST_TEXTS),
    (re.compile(r"/pictures$"), MOST_PICTURE),
    (re.compile(r"/(bring|carry)$"), _MOST_QUOTED),
)


def _most(path: str) -> int:
    return next((most for at, most in _MOST_AT if at.search(path)), _MOST)


class _Guard:
    """Refuses a change that another site's page sends, and says what a page of ours may load.

    A page of ours comes from the studio's address as it was set, or from the host that was asked. Behind a proxy that
    ends TLS the scheme is not known here, so it is not compared.
    """

    def __init__(self, app: ASGIApp, shops: str = "", studio: str = "") -> None:
        self._app = app
        self._studio = studio
        # Shops' pages stand in frames; in use they are served by https, the practice store is not.
        row = re.sub("//", "//*.", shops)
        policy = f"{_HEADERS['content-security-policy']}; frame-src 'self' https: {shops} {row}"
        self._headers = {**_HEADERS, "content-security-policy": policy}

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self._app(scope, receive, send)
            return
        refusal = self._refusal(scope)
        if refusal:
            await refusal(scope, receive, send)
            return

        async def with_headers(message: Message) -> None:
            if message["type"] == "http.response.start":
                MutableHeaders(scope=message).update(self._headers)
            await send(message)

        await self._app(scope, receive, with_headers)

    def _refusal(self, scope: Scope) -> Response | None:
        headers = Headers(scope=scope)
        if scope["method"] not in _SAFE and not self._is_own(headers.get("origin", ""), headers.get("host", "")):
            says = "Changes are taken only from the studio's own pages."
            return problem(403, "wrong_origin", f"{says} Its address is {self._studio}.")
        if unfit_in(scope["path"]):
            return problem(404, "not_found", "There is no such address.")
        query = unquote_to_bytes(scope["query_string"].replace(b"+", b" ")).decode("utf-8", "surrogateescape")
        if unfit := unfit_in(query):
            return problem(422, "bad_request", f"The question holds {unfit}.")
        return None

    def _is_own(self, origin: str, host: str) -> bool:
        scheme, _, asked = origin.partition("://")
        return origin == self._studio or (scheme in {"http", "https"} and bool(asked) and asked == host)


def create_app(parts: Parts) -> FastAPI:
    """Return the studio: its API, and the built pages where there are any."""
    app = FastAPI(title="Up Tick", version="1", docs_url=None, redoc_url=None, openapi_url="/api/openapi.json")
    app.state.parts = parts
    install(app)

    # The last one added is the outermost.
    app.add_middleware(Bounded, most=_most)
    app.add_middleware(_Guard, shops=parts.practice_origin, studio=parts.studio_origin)
    app.add_middleware(Faults)
    app.add_middleware(Pauses, work=parts.tidy)

    app.include_router(account.router)
    app.include_router(workshop.router)
    app.include_router(looks.router)
    app.include_router(exceptions.router)
    app.include_router(exchange.router)
    app.include_router(outcome.router)
    app.include_router(shop_side.router)
    app.include_router(places.router)
    app.include_router(outside.router)

    @app.get("/health", include_in_schema=False)
    def health() -> dict[str, Any]:
        return {"is": "well", "engine": parts.engine()}

    @app.get("/shop-fonts/{name}", include_in_schema=False)
    def shop_font(name: str) -> Response:
        file = parts.font_files.get(name)
        if file is None:
            return problem(404, "not_found", "There is no such font.")
        return FileResponse(
            parts.font_dir / file, media_type="font/woff2", headers={"Cache-Control": "max-age=31536000, immutable"}
        )

    if parts.studio_dir.is_dir():
        app.mount("/assets", StaticFiles(directory=parts.studio_dir / "assets"), name="assets")

        @app.get("/{path:path}", include_in_schema=False)
        def screens(path: str) -> Response:
            if path.startswith("api/"):
                return problem(404, "not_found", "There is no such address.")
            try:
                file = (parts.studio_dir / path).resolve()
                is_there = bool(path) and file.is_file() and file.is_relative_to(parts.studio_dir.resolve())
            except (OSError, ValueError):
                # A name that no file can have, as one of twenty thousand letters.
                is_there = False
            if is_there:
                return FileResponse(file)
            return FileResponse(parts.studio_dir / "index.html", headers={"Cache-Control": "no-cache"})

    return app
