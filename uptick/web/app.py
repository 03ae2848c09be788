"""The studio's application: API, problems, security headers and the built screens."""

from fastapi import FastAPI, Response
from fastapi.responses import FileResponse
from fastapi.staticfiles import StaticFiles
from starlette.datastructures import Headers, MutableHeaders
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from uptick.web import account, exceptions, exchange, looks, outcome, workshop
from uptick.web.parts import Parts
from uptick.web.problems import install, problem

_SAFE = {"GET", "HEAD", "OPTIONS"}


_HEADERS = {
    "content-security-policy": "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; "
    "object-src 'none'; base-uri 'none'; frame-ancestors 'none'; form-action 'self'",
    "x-content-type-options": "nosniff",
    "referrer-policy": "same-origin",
}


class _Guard:
    """Refuses a change that another site's page sends, and says what a page of ours may load."""

    def __init__(self, app: ASGIApp, shops: str = "") -> None:
        self._app = app
        # Shops' pages stand in frames; in use they are served by https, the practice store is not.
        policy = f"{_HEADERS['content-security-policy']}; frame-src 'self' https: {shops}"
        self._headers = {**_HEADERS, "content-security-policy": policy}

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self._app(scope, receive, send)
            return
        headers = Headers(scope=scope)
        own = f"{scope['scheme']}://{headers.get('host')}"
        if scope["method"] not in _SAFE and headers.get("origin") != own:
            refusal = problem(403, "wrong_origin", "Changes are taken only from the studio's own pages.")
            await refusal(scope, receive, send)
            return

        async def with_headers(message: Message) -> None:
            if message["type"] == "http.response.start":
                MutableHeaders(scope=message).update(self._headers)
            await send(message)

        await self._app(scope, receive, with_headers)


def create_app(parts: Parts) -> FastAPI:
    app = FastAPI(title="Up Tick", version="1", docs_url=None, redoc_url=None, openapi_url="/api/openapi.json")
    app.state.parts = parts
    install(app)

    app.add_middleware(_Guard, shops=parts.practice_origin)

    app.include_router(account.router)
    app.include_router(workshop.router)
    app.include_router(looks.router)
    app.include_router(exceptions.router)
    app.include_router(exchange.router)
    app.include_router(outcome.router)

    @app.get("/health", include_in_schema=False)
    def health() -> dict[str, str]:
        return {"is": "well"}

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
            file = (parts.studio_dir / path).resolve()
            if path and file.is_file() and file.is_relative_to(parts.studio_dir.resolve()):
                return FileResponse(file)
            return FileResponse(parts.studio_dir / "index.html", headers={"Cache-Control": "no-cache"})

    return app
