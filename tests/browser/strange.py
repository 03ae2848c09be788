"""Pages of shops that are not ours, on the practice store's own address, and what their baskets were told."""

import json
from dataclasses import dataclass, field
from typing import Any
from urllib.parse import parse_qs

from playwright.sync_api import Locator, Page, Route

EMPTY = {"count": 0, "items": []}


def place(sku: str, inner: str = "<button>Add</button>", name: str = "product_page", more: str = "") -> str:
    return f'<div data-up-place="{name}" data-up-product="{sku}" {more}>{inner}</div>'


def told(*products: dict[str, Any]) -> str:
    return f'<script type="application/ld+json">{json.dumps({"@graph": products})}</script>'


def goods(sku: str, price: str = "12.50", **more: Any) -> dict[str, Any]:
    offer = {"price": price, "priceCurrency": "GBP", "availability": "https://schema.org/InStock"}
    return {"@type": "Product", "sku": sku, "name": f"Thing {sku}", "category": "Things", "offers": offer, **more}


@dataclass
class Strange:
    """A shop's page of our own making on the practice store's address, and what its basket was told."""

    page: Page
    at: str
    key: str
    edge: str
    query: str
    posts: list[dict[str, list[str]]] = field(default_factory=list)
    reads: int = 0
    basket: dict[str, Any] = field(default_factory=lambda: dict(EMPTY))
    answer: Any = None
    # What the page's own server says besides, and its language.
    headers: dict[str, str] = field(default_factory=dict)
    language: str = "en-GB"
    # Words of what the page's own policy says in the console.
    forgives: tuple[str, ...] = ()

    @property
    def line(self) -> str:
        return f'<script async src="{self.edge}/s/{self.key}/up.js"></script>'

    def opens(self, body: str, head: str = "") -> Locator:
        script = self.line
        html = f"<!doctype html><html lang={self.language}><head>{script}{head}</head><body>{body}</body></html>"
        headers = {"Content-Type": "text/html", **self.headers}
        self.page.route("**/strange?*", lambda route: route.fulfill(body=html, headers=headers))
        self.page.route("**/basket/add", self._add)
        self.page.route("**/basket.json", self._read)
        # A page that the test answers counts as one from outside, which may not load from this machine unasked.
        self.page.context.grant_permissions(["local-network-access"])
        self.page.goto(f"{self.at}/strange{self.query}")
        return self.page.locator("[data-up-place=product_page] [data-up-button] button.b")

    def put(self, sku: str, option: str = "", quantity: int = 1) -> None:
        items = [*self.basket.get("items", ()), {"sku": sku, "option": option, "quantity": quantity}]
        self.basket = {"count": sum(item["quantity"] for item in items), "items": items}

    def _add(self, route: Route) -> None:
        sent = parse_qs(route.request.post_data or "", keep_blank_values=True)
        self.posts.append(sent)
        if self.answer:
            self.answer(route)
            return
        self.put(sent.get("sku", ["X"])[0], sent.get("option", [""])[0], int(sent["qty"][0]))
        route.fulfill(json=self.basket)

    def _read(self, route: Route) -> None:
        self.reads += 1
        route.fulfill(json=self.basket) if self.basket else route.fulfill(status=503, body="down")


def form(inner: str, sku: str = "X1") -> str:
    hidden = f'<input type=hidden name=sku value="{sku}"><input type=hidden name=qty value=1>'
    return f'<form method=post action="/basket/add">{hidden}{inner}</form>'
