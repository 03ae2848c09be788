"""The shops of the row as web applications."""

import json
import secrets
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path
from typing import Annotated, Any

from fastapi import FastAPI, Form, Request, Response
from fastapi.responses import JSONResponse, RedirectResponse
from fastapi.staticfiles import StaticFiles
from jinja2 import Environment, FileSystemLoader, select_autoescape
from pydantic import BaseModel, Field

from practice.goods import Goods
from practice.pictures import picture
from practice.row.baskets import Session, Sessions
from practice.row.shops import ROW, RowShop

_PRACTICE = Path(__file__).resolve().parents[1]
_COOKIE = "row"
PASSWORD = "smoke"
FINISHES = ("Plain", "Oiled", "Painted")
_pages = Environment(loader=FileSystemLoader(_PRACTICE / "templates" / "row"), autoescape=select_autoescape())


def create_row(edge: str, origin_of: Callable[[str], str]) -> dict[str, FastAPI]:
    """Return an application for every shop, by its key."""
    return {key: _OneShop(shop, edge, origin_of(key)).app for key, shop in ROW.items()}


@dataclass(frozen=True, slots=True)
class _Asked:
    """A request with its visitor."""

    request: Request
    session: Session
    name: str


class LineIn(BaseModel):
    code: str = Field(max_length=40)
    qty: int


class KeepIn(BaseModel):
    qty: int


class LinesIn(BaseModel):
    lines: list[LineIn] = Field(min_length=1, max_length=20)


class _OneShop:
    def __init__(self, shop: RowShop, edge: str, origin: str) -> None:
        self.shop, self._edge, self._origin = shop, edge, origin
        self._sessions = Sessions()
        # A number of the shop's own, which its basket wants instead of the code that the page tells.
        self._numbers = {g.sku: str(4100 + n) for n, g in enumerate(shop.goods)}
        self.app = FastAPI(title=shop.name, docs_url=None, redoc_url=None, openapi_url=None)
        self._guard()
        self.app.mount("/static", StaticFiles(directory=_PRACTICE / "static"), name="static")
        if (_PRACTICE / "dist").is_dir():
            self.app.mount("/built", StaticFiles(directory=_PRACTICE / "dist"), name="built")
        self._add_pages()
        self._add_basket()

    def _guard(self) -> None:
        edge = self._edge
        policy = (
            f"default-src 'none'; script-src 'self' {edge}; style-src 'self'; img-src 'self' {edge}; "
            f"font-src 'self' {edge}; connect-src 'self' {edge}; form-action 'self'; base-uri 'none'; "
            "frame-ancestors 'self' http://127.0.0.1:*"
        )

        @self.app.middleware("http")
        async def guard(request: Request, go_on: Any) -> Response:
            name = request.cookies.get(_COOKIE) or secrets.token_hex(16)
            request.state.asked = _Asked(request, self._sessions.of(name), name)
            answer: Response = await go_on(request)
            answer.headers["Content-Security-Policy"] = policy
            answer.headers["X-Content-Type-Options"] = "nosniff"
            if _COOKIE not in request.cookies:
                answer.set_cookie(_COOKIE, name, httponly=True, samesite="lax")
            return answer

    def _page(self, template: str, request: Request, status: int = 200, **values: Any) -> Response:
        session = _session(request)
        html = _pages.get_template(template).render(
            shop=self.shop, row=ROW, session=session, numbers=self._numbers, finishes=FINISHES,
            snippet=f"{self._edge}/s/{self.shop.key}/up.js", path=request.url.path, **values,
        )  # fmt: skip
        answer = Response(html, status, media_type="text/html")
        answer.headers["Cache-Control"] = "no-store"
        return answer

    def _schema(self, *goods: Goods) -> str:
        graph = [g.as_schema(self._origin) for g in goods]
        return json.dumps({"@context": "https://schema.org", "@graph": graph}, ensure_ascii=False).replace(
            "<", "\\u003c"
        )

    def _add_pages(self) -> None:
        app, shop = self.app, self.shop

        @app.get("/")
        def wall(request: Request) -> Response:
            if closed := self._closed(request):
                return closed
            return self._page("wall.html", request, goods=shop.goods, schema=self._schema(*shop.goods))

        @app.get("/p/{sku}")
        def product(sku: str, request: Request) -> Response:
            if closed := self._closed(request):
                return closed
            goods = next((g for g in shop.goods if g.sku == sku), None)
            if goods is None:
                return self._page("lost.html", request, 404)
            others = [g for g in shop.goods if g.sku != sku][:6]
            old = _page_is_old(shop)
            answer = self._page(
                "product.html", request, goods=goods, others=others, schema=self._schema(goods), old=old
            )
            if old:
                # A cache between shop and shopper that has kept a page from before the line was put into it.
                answer.headers.update({"Cache-Control": "max-age=86400", "Age": "518400", "X-Cache": "HIT from larder"})
            return answer

        @app.get("/more")
        def more(request: Request, page: int = 1) -> Response:
            start = page % 4 * 3
            goods = shop.goods[start : start + 3]
            return self._page("cards.html", request, goods=goods, schema=self._schema(*goods))

        @app.get("/goods.json")
        def goods_json(sku: str = "") -> Response:
            chosen = [g for g in shop.goods if not sku or g.sku == sku]
            rows = [{"sku": g.sku, "name": g.name, "price": g.price_text, "told": g.told,
                     "amount": str(g.price), "soldOut": g.is_sold_out, "stock": g.stock,
                     "schema": g.as_schema(self._origin)} for g in chosen]  # fmt: skip
            return JSONResponse(rows)

        @app.get("/kinds/{sku}")
        def kinds(sku: str) -> Response:
            """Tell the kinds of some goods, as shops do whose pages tell nothing of them."""
            goods = next((g for g in shop.goods if g.sku == sku), None)
            kinds_json = [
                {"code": f"{sku}-{n}", "as": {"kind": o}, "pence": int((goods.price_of(o) or 0) * 100),
                 "left": 0 if goods.is_gone(o) else goods.stock}
                for n, o in enumerate(goods.options, 1)
            ] if goods else []  # fmt: skip
            return JSONResponse({"kinds": kinds_json})

        @app.post("/enter")
        def enter(request: Request, password: Annotated[str, Form(max_length=80)] = "") -> Response:
            _session(request).is_let_in = password == PASSWORD
            return RedirectResponse("/", 303)

        @app.get("/sitemap.xml")
        def sitemap() -> Response:
            places = [f"{self._origin}/", *(f"{self._origin}/p/{g.sku}" for g in shop.goods)]
            urls = "".join(f"<url><loc>{place}</loc></url>" for place in places)
            xml = f'<?xml version="1.0"?><urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">{urls}</urlset>'
            return Response(xml, media_type="application/xml")

        @app.get("/robots.txt")
        def robots() -> Response:
            return Response(f"User-agent: *\nAllow: /\nSitemap: {self._origin}/sitemap.xml\n", media_type="text/plain")

        @app.get("/pictures/{name}.svg")
        def drawn(name: str) -> Response:
            svg = picture(name)
            return Response(svg or "", 200 if svg else 404, media_type="image/svg+xml")

    def _closed(self, request: Request) -> Response | None:
        if self.shop.shape != "password" or _session(request).is_let_in:
            return None
        return self._page("gate.html", request, 401)

    def _add_basket(self) -> None:
        app, shop = self.app, self.shop

        @app.get("/basket")
        def basket(request: Request) -> Response:
            return self._page("basket.html", request)

        @app.get("/basket.json")
        def told(request: Request) -> Response:
            return JSONResponse(_usual(_session(request)))

        @app.post("/basket/empty")
        def empty(request: Request) -> Response:
            _session(request).lines.clear()
            return RedirectResponse("/basket", 303)

        {
            "form-token": self._add_form_token,
            "two-options": self._add_two_options,
            "json-header": self._add_json_header,
            "plain-link": self._add_plain_link,
        }.get(shop.shape, self._add_usual)()

    def _add_usual(self) -> None:
        @self.app.post("/basket/add")
        def add(
            request: Request,
            sku: Annotated[str, Form()],
            qty: Annotated[int, Form()] = 1,
            colour: Annotated[str, Form()] = "",
        ) -> Response:
            session = _session(request)
            try:
                session.add(self.shop, sku, qty, (colour,) if colour else ())
            except ValueError as error:
                return JSONResponse({"error": str(error)}, 409)
            if "application/json" in request.headers.get("accept", ""):
                return JSONResponse(_usual(session))
            return RedirectResponse("/basket", 303)

    def _add_form_token(self) -> None:
        @self.app.post("/cart/put")
        def put(
            request: Request,
            id: Annotated[str, Form()] = "",
            pieces: Annotated[int, Form()] = 1,
            word: Annotated[str, Form()] = "",
        ) -> Response:
            session = _session(request)
            if not secrets.compare_digest(word, session.word):
                return self._page("lost.html", request, 403, says="That page is too old. Open it again.")
            sku = next((sku for sku, number in self._numbers.items() if number == id), "")
            try:
                session.add(self.shop, sku, pieces)
            except ValueError as error:
                return self._page("lost.html", request, 422, says=str(error))
            return RedirectResponse("/basket", 303)

    def _add_two_options(self) -> None:
        @self.app.post("/bag/add")
        def add(
            request: Request,
            goods: Annotated[str, Form()] = "",
            size: Annotated[str, Form()] = "",
            finish: Annotated[str, Form()] = "",
            engraving: Annotated[str, Form(max_length=24)] = "",
            pieces: Annotated[int, Form()] = 1,
        ) -> Response:
            session = _session(request)
            try:
                session.add(self.shop, goods, pieces, (size, finish), engraving)
            except ValueError as error:
                return JSONResponse({"problem": str(error)}, 422)
            if "application/json" in request.headers.get("accept", ""):
                return JSONResponse(_bag(session))
            return RedirectResponse("/basket", 303)

        @self.app.post("/bag/keep")
        def keep(
            request: Request,
            line: Annotated[str, Form(max_length=200)],
            pieces: Annotated[int, Form()],
        ) -> Response:
            session = _session(request)
            try:
                session.keep(line, pieces)
            except ValueError as error:
                return JSONResponse({"problem": str(error)}, 422)
            return JSONResponse(_bag(session))

        @self.app.get("/bag.json")
        def bag(request: Request) -> Response:
            return JSONResponse(_bag(_session(request)))

    def _add_json_header(self) -> None:
        @self.app.post("/api/counter/lines")
        def add(request: Request, body: LinesIn) -> Response:
            session = _session(request)
            if not secrets.compare_digest(request.headers.get("x-counter-word", ""), session.word):
                return JSONResponse({"problem": "the counter does not know you"}, 403)
            try:
                for line in body.lines:
                    session.add(self.shop, line.code, line.qty)
            except ValueError as error:
                return JSONResponse({"problem": str(error)}, 422)
            return JSONResponse(_counter(session), 201)

        @self.app.put("/api/counter/lines/{number}")
        def keep(request: Request, number: str, body: KeepIn) -> Response:
            session = _session(request)
            if not secrets.compare_digest(request.headers.get("x-counter-word", ""), session.word):
                return JSONResponse({"problem": "the counter does not know you"}, 403)
            try:
                session.keep(number, body.qty)
            except ValueError as error:
                return JSONResponse({"problem": str(error)}, 422)
            # This shop answers a change with nothing: what is in the basket is asked for.
            return Response(status_code=204)

        @self.app.get("/api/counter")
        def counter(request: Request) -> Response:
            return JSONResponse(_counter(_session(request)))

    def _add_plain_link(self) -> None:
        @self.app.get("/take/{sku}")
        def take(sku: str, request: Request, n: int = 1) -> Response:
            try:
                _session(request).add(self.shop, sku, n)
            except ValueError as error:
                return self._page("lost.html", request, 404, says=str(error))
            return RedirectResponse("/basket", 303)


def _session(request: Request) -> Session:
    asked: _Asked = request.state.asked
    return asked.session


def _page_is_old(shop: RowShop) -> bool:
    return shop.shape == "old-copy"


def _usual(session: Session) -> dict[str, Any]:
    items = [{"sku": x.sku, "option": " / ".join(x.options), "quantity": x.quantity} for x in session.lines]
    return {"count": session.count, "items": items}


def _bag(session: Session) -> dict[str, Any]:
    lines = [
        {
            "number": x.number,
            "goods": {
                "id": x.sku,
                "name": x.name,
                "picture": f"/pictures/{x.sku}.svg",
                "page": f"/p/{x.sku}",
            },
            "with": dict(zip(("size", "finish"), x.options, strict=False)),
            "pieces": x.quantity,
            "cost": float(x.total),
        }
        for x in session.lines
    ]
    cost = float(sum(x.total for x in session.lines))
    return {"bag": {"pieces": session.count, "lines": lines, "cost": cost}}


def _counter(session: Session) -> dict[str, Any]:
    lines = [
        {
            "code": x.sku,
            "qty": x.quantity,
            "id": x.number,
            "label": {"title": x.name, "href": f"/p/{x.sku}", "image": f"/pictures/{x.sku}.svg"},
            "pence": int(x.total * 100),
        }
        for x in session.lines
    ]
    pence = sum(int(line.total * 100) for line in session.lines)
    return {"counter": {"pieces": session.count, "lines": lines, "pence": pence}}
