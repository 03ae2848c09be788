"""The practice store: a small shop of its own, which knows Up Tick only by one line of script and public addresses."""

import json
import os
import secrets
from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import UTC, datetime
from pathlib import Path
from typing import Annotated, Any, Literal

from fastapi import FastAPI, Form, HTTPException, Request, Response
from fastapi.responses import FileResponse, JSONResponse, RedirectResponse
from fastapi.staticfiles import StaticFiles
from jinja2 import Environment, FileSystemLoader, select_autoescape
from pydantic import AwareDatetime, BaseModel, Field
from starlette.types import ASGIApp, Receive, Scope, Send

from practice.baskets import Baskets, Line
from practice.goods import CATALOGUE, Goods, all_goods, categories, goes_with
from practice.pictures import HERO, picture
from practice.row import create_row
from practice.runs import Runs
from practice.shoppers import Rates, Wish
from practice.tongues import LANGUAGES, words

_HERE = Path(__file__).parent
_COOKIE = "skep"
# What the front page shows large.
SHELF = ("HV-NUC6", "TL-SMOKER", "JL-HEX48")
_pages = Environment(loader=FileSystemLoader(_HERE / "templates"), autoescape=select_autoescape())


class RatesIn(BaseModel):
    clicked: float = Field(ge=0, le=1)
    added: float = Field(ge=0, le=1)
    ordered: float = Field(ge=0, le=1)


class WishIn(BaseModel):
    start: AwareDatetime
    end: AwareDatetime
    shoppers_per_day: int = Field(ge=1, le=5000)
    seed: int = 1
    rates: dict[str, RatesIn]


@dataclass(frozen=True, slots=True)
class Shop:
    """How this process was told to run."""

    edge: str
    key: str
    origin: str
    baskets: Baskets
    runs: Runs
    # What came by the chat, the newest last: the number and the text.
    messages: list[tuple[str, str]] = field(default_factory=list)


def create_app(edge: str, key: str, origin: str, database: Path | str) -> FastAPI:
    app = FastAPI(title="Thornmere Apiary Supply", docs_url=None, redoc_url=None, openapi_url=None)
    shop = Shop(edge, key, origin, Baskets(database), Runs(edge, key, origin))
    _add_guard(app, shop)
    app.mount("/static", StaticFiles(directory=_HERE / "static"), name="static")
    _add_pages(app, shop)
    _add_basket(app, shop)
    _add_shoppers(app, shop)
    return app


def from_environment() -> ASGIApp:
    """The factory for uvicorn: the practice store, and the row of small shops under names of their own."""
    edge = os.environ.get("PRACTICE_EDGE", "http://127.0.0.1:8801")
    origin = os.environ.get("PRACTICE_ORIGIN", "http://localhost:8802")
    key = os.environ.get("PRACTICE_KEY", "thornmere")
    store = create_app(edge, key, origin, os.environ.get("PRACTICE_DATABASE", ":memory:"))
    return by_host(store, create_row(edge, lambda key: origin.replace("://", f"://{key}.")))


def by_host(store: ASGIApp, row: Mapping[str, ASGIApp]) -> ASGIApp:
    """Return what answers for every shop by the name that was asked: `tollgate.localhost` is the one called so."""

    async def answer(scope: Scope, receive: Receive, send: Send) -> None:
        host = dict(scope.get("headers") or ()).get(b"host", b"").decode("latin-1")
        await row.get(host.partition(".")[0], store)(scope, receive, send)

    return answer


def _add_guard(app: FastAPI, shop: Shop) -> None:
    policy = (
        f"default-src 'none'; script-src 'self' {shop.edge}; style-src 'self'; "
        f"img-src 'self' {shop.edge}; "
        f"font-src 'self' {shop.edge}; connect-src 'self' {shop.edge}; form-action 'self'; base-uri 'none'; "
        "frame-ancestors 'self' http://127.0.0.1:*"
    )

    @app.middleware("http")
    async def guard(request: Request, go_on: Any) -> Response:
        # Whoever comes without a basket gets one with this very request, also where that already fills it.
        request.state.basket = request.cookies.get(_COOKIE) or secrets.token_hex(16)
        answer: Response = await go_on(request)
        answer.headers["Content-Security-Policy"] = policy
        answer.headers["X-Content-Type-Options"] = "nosniff"
        if _COOKIE not in request.cookies:
            answer.set_cookie(_COOKIE, request.state.basket, httponly=True, samesite="lax")
        return answer


def _basket_of(request: Request) -> str:
    return str(request.state.basket)


def _add_pages(app: FastAPI, shop: Shop) -> None:
    def page(template: str, request: Request, status: int = 200, **values: Any) -> Response:
        # Told to misbehave: without the snippet the shop is as it was before Up Tick.
        snippet = "" if "without-snippet" in request.query_params else f"{shop.edge}/s/{shop.key}/up.js"
        count = sum(line.quantity for line in shop.baskets.lines(_basket_of(request)))
        language = request.query_params.get("lang") or request.cookies.get("tongue") or "en-GB"
        language = language if language in LANGUAGES else "en-GB"
        html = _pages.get_template(template).render(
            snippet=snippet, categories=categories(), count=count, language=language, languages=LANGUAGES,
            say=words(language), is_keeper="keeper" in request.cookies, consent=request.cookies.get("consent", "yes"),
            path=request.url.path, **values,
        )  # fmt: skip
        answer = Response(html, status, media_type="text/html")
        if "lang" in request.query_params:
            answer.set_cookie("tongue", language, samesite="lax")
        return answer

    def listing(goods: list[Goods]) -> str:
        items = [{"@type": "ListItem", "position": n, "item": g.as_schema(shop.origin)} for n, g in enumerate(goods, 1)]
        return _json_ld({"@context": "https://schema.org", "@type": "ItemList", "itemListElement": items})

    @app.get("/")
    def home(request: Request) -> Response:
        chosen = [g for g in all_goods().values() if not g.is_sold_out][3:6]
        shelf = [all_goods()[sku] for sku in SHELF]
        return page("home.html", request, goods=chosen, shelf=shelf, hero=HERO, schema=listing([*shelf, *chosen]))

    @app.get("/c/{slug}")
    def category(slug: str, request: Request) -> Response:
        if slug != "everything" and slug not in categories():
            return page("lost.html", request, 404)
        name = categories().get(slug, "Everything")
        goods = [g for g in all_goods().values() if slug == "everything" or g.category == name]
        many = int(request.query_params.get("many", "0") or 0)
        if many:
            goods = (goods * (many // len(goods) + 1))[:many]
        return page("listing.html", request, name=name, slug=slug, goods=goods, schema=listing(goods))

    @app.get("/p/{sku}")
    def product(sku: str, request: Request) -> Response:
        goods = all_goods().get(sku)
        if goods is None:
            return page("lost.html", request, 404)
        others = goes_with(goods)
        graph = [g.as_schema(shop.origin) for g in (goods, *others)]
        schema = _json_ld({"@context": "https://schema.org", "@graph": graph})
        return page("product.html", request, goods=goods, others=others, schema=schema)

    @app.post("/keeper")
    def keeper(request: Request) -> Response:
        """Stand in for an account: whoever presses is signed in, and out again."""
        answer = RedirectResponse("/", 303)
        if "keeper" in request.cookies:
            answer.delete_cookie("keeper")
        else:
            answer.set_cookie("keeper", "yes", httponly=True, samesite="lax")
        return answer

    @app.get("/basket")
    def basket(request: Request) -> Response:
        lines = shop.baskets.lines(_basket_of(request))
        if "application/json" in request.headers.get("accept", ""):
            return JSONResponse(_told(lines))
        return page("basket.html", request, lines=lines, total=sum(line.total for line in lines))

    @app.get("/basket.json")
    def basket_as_json(request: Request) -> Response:
        return JSONResponse(_told(shop.baskets.lines(_basket_of(request))))

    @app.get("/checkout")
    def checkout(request: Request) -> Response:
        lines = shop.baskets.lines(_basket_of(request))
        return page("checkout.html", request, lines=lines, total=sum(line.total for line in lines))

    @app.get("/chat/{number}")
    def chat(request: Request, number: str, text: str = "") -> Response:
        """Take a message as a chat would: its sender sees it as it arrived."""
        shop.messages.append((number[:20], text[:2000]))
        del shop.messages[:-50]
        return page("chat.html", request, number=number[:20], text=text[:2000])

    @app.get("/messages")
    def messages(request: Request) -> Response:
        return page("messages.html", request, messages=list(reversed(shop.messages)))

    @app.get("/thanks/{number}")
    def thanks(number: int, request: Request) -> Response:
        lines = shop.baskets.ordered(number, _basket_of(request))
        if not lines:
            return page("lost.html", request, 404)
        return page("thanks.html", request, number=number, lines=lines, schema=_order_schema(number, lines))

    @app.get("/pictures/{name}.svg")
    def drawn(name: str) -> Response:
        svg = picture(name)
        if svg is None:
            raise HTTPException(404)
        return Response(svg, media_type="image/svg+xml", headers={"Cache-Control": "max-age=3600"})

    @app.get("/hero.svg")
    def hero() -> Response:
        return Response(HERO, media_type="image/svg+xml", headers={"Cache-Control": "max-age=3600"})

    @app.get("/catalogue.csv")
    def catalogue() -> Response:
        return FileResponse(CATALOGUE, media_type="text/csv")

    @app.get("/health")
    def health() -> dict[str, str]:
        return {"is": "well"}


def _json_ld(value: dict[str, Any]) -> str:
    return json.dumps(value, ensure_ascii=False).replace("<", "\\u003c")


def _order_schema(number: int, lines: list[Line]) -> str:
    offers = [
        {
            "@type": "Offer",
            "price": f"{all_goods()[line.sku].price or 0:.2f}",
            "priceCurrency": "GBP",
            "eligibleQuantity": {"@type": "QuantitativeValue", "value": line.quantity},
            "itemOffered": {"@type": "Product", "sku": line.sku, "name": line.name},
        }
        for line in lines
    ]
    order = {
        "@context": "https://schema.org",
        "@type": "Order",
        "orderNumber": f"T{number:05d}",
        "acceptedOffer": offers,
    }
    return _json_ld(order)


def _told(lines: list[Line]) -> dict[str, Any]:
    items = [
        {
            "sku": line.sku,
            "option": line.option,
            "quantity": line.quantity,
            "name": line.name,
            "picture": f"/pictures/{line.sku}.svg",
            "page": f"/p/{line.sku}",
            "total": f"{line.total:.2f}",
        }
        for line in lines
    ]
    return {
        "count": sum(line.quantity for line in lines),
        "items": items,
        "total": f"{sum(line.total for line in lines):.2f}",
    }


def _add_basket(app: FastAPI, shop: Shop) -> None:
    @app.post("/basket/add")
    def add(
        request: Request,
        sku: Annotated[str, Form()],
        option: Annotated[str, Form()] = "",
        qty: Annotated[int, Form()] = 1,
    ) -> Response:
        wants_json = "application/json" in request.headers.get("accept", "")
        try:
            shop.baskets.add(_basket_of(request), sku, option, qty)
        except ValueError as error:
            if wants_json:
                return JSONResponse({"error": str(error)}, 409)
            return RedirectResponse(f"/p/{sku}" if sku in all_goods() else "/", 303)
        if wants_json:
            return JSONResponse(_told(shop.baskets.lines(_basket_of(request))))
        return RedirectResponse("/basket", 303)

    @app.post("/basket/set")
    def keep(
        request: Request,
        sku: Annotated[str, Form()],
        qty: Annotated[int, Form()],
        option: Annotated[str, Form()] = "",
    ) -> Response:
        try:
            shop.baskets.keep(_basket_of(request), sku, option, qty)
        except ValueError as error:
            return JSONResponse({"error": str(error)}, 409)
        return JSONResponse(_told(shop.baskets.lines(_basket_of(request))))

    @app.post("/shelf/{sku}/{state}")
    def run_out(sku: str, state: Literal["empty", "full"]) -> Response:
        """Let some goods run out, for whoever wants to see what pages of before do then; or put them back."""
        if state == "empty":
            shop.baskets.gone.add(sku)
        else:
            shop.baskets.gone.discard(sku)
        return JSONResponse({"gone": sorted(shop.baskets.gone)})

    @app.post("/restock")
    def restock(email: Annotated[str, Form(max_length=200)], product: Annotated[str, Form(max_length=40)]) -> Response:
        """Keep who wants to be told when a product is back, as any shop would: an address without an @ is none."""
        if "@" not in email or product not in all_goods():
            return JSONResponse({"error": "no address or no product"}, 422)
        shop.messages.append((email, f"Tell me when {product} is back"))
        return JSONResponse({"kept": True})

    @app.post("/basket/empty")
    def empty(request: Request) -> Response:
        shop.baskets.empty(_basket_of(request))
        return RedirectResponse("/basket", 303)

    @app.post("/checkout")
    def order(request: Request, buyer: Annotated[str, Form(max_length=80)]) -> Response:
        try:
            number = shop.baskets.order(_basket_of(request), buyer)
        except ValueError:
            return RedirectResponse("/basket", 303)
        return RedirectResponse(f"/thanks/{number}", 303)


def _add_shoppers(app: FastAPI, shop: Shop) -> None:
    @app.get("/shoppers")
    def console() -> Response:
        today = datetime.now(UTC).date().isoformat()
        html = _pages.get_template("shoppers.html").render(today=today, edge=shop.edge)
        return Response(html, media_type="text/html")

    @app.get("/shoppers/runs")
    async def all_runs() -> list[dict[str, object]]:
        return [run.told() for run in reversed(shop.runs.all.values())]

    @app.post("/shoppers/runs", status_code=201)
    async def start(wish: WishIn) -> dict[str, object]:
        if wish.end <= wish.start:
            raise HTTPException(422, "The end must come after the start.")
        if set(wish.rates) != {"A", "B"}:
            raise HTTPException(422, "Give the rates of A and of B.")
        try:
            rates = {letter: Rates(r.clicked, r.added, r.ordered) for letter, r in wish.rates.items()}
            run = shop.runs.start(Wish(wish.start, wish.end, wish.shoppers_per_day, wish.seed, rates))
        except ValueError as error:
            raise HTTPException(422, str(error)) from error
        return run.told()

    @app.get("/shoppers/runs/{number}")
    async def one(number: int) -> dict[str, object]:
        if number not in shop.runs.all:
            raise HTTPException(404, "There is no such run.")
        return shop.runs.all[number].told()

    @app.delete("/shoppers/runs/{number}")
    async def stop(number: int) -> dict[str, object]:
        if number not in shop.runs.all:
            raise HTTPException(404, "There is no such run.")
        return shop.runs.stop(number).told()
