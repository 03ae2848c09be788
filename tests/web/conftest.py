"""A store with something of everything, and what every answer has to be."""

from collections.abc import Iterator
from contextlib import nullcontext
from dataclasses import replace
from functools import cache
from typing import Any

import pytest
from starlette.testclient import TestClient

from ops.cluster import Cluster
from scripts import openapi
from tests.conftest import EMAIL, PASSWORD, fresh_database, wired
from tests.samples import PRODUCTS
from tests.usecases.fakes import ADA
from uptick.core.rules.reach import Reach
from uptick.usecases.edit import Wish, add_exception
from uptick.usecases.publish import publish
from uptick.usecases.visiting import Fetched, ShopRequest, Trouble
from uptick.web import account
from uptick.web.app import create_app
from uptick.wiring import Wiring, clock

HERE = "http://studio.test"
STORE = "/api/stores/sample"
# Where the store is that is not Ada's: no answer to her may say it.
OTHER_ORIGIN = "http://other.test"


class NobodyHome:
    """A shop that does not answer: what is sent to it goes nowhere."""

    def fetch(self, path: str, accept: str = "text/html") -> Fetched:
        return Fetched(path, path, trouble=Trouble.UNREACHABLE, says="It could not be reached.")

    def send(self, request: ShopRequest, accept: str = "application/json") -> Fetched:
        return self.fetch(request.path)

    def cookie(self, name: str) -> str:
        return ""


@cache
def described() -> dict[str, Any]:
    return openapi.described()


@pytest.fixture(scope="module")
def wiring_of(server: Cluster, template: str) -> Iterator[Wiring]:
    with fresh_database(server, template) as url, wired(url) as wiring:
        yield wiring


@pytest.fixture(scope="module")
def full_store(wiring_of: Wiring) -> Iterator[TestClient]:
    """Ada in a store with products, an exception, a release and a trial; faults are answered, not raised."""
    yield from _full_store(wiring_of)


def _full_store(wiring: Wiring) -> Iterator[TestClient]:
    account._limiter.storage.reset()
    with wiring.open_shop("sample") as shop:
        shop.catalogue.put(PRODUCTS)
        wish = Wish("Only A1", "asked for", Reach(products=("A1",)))
        layer = {"wording": {"ready": {"en-GB": "Just this"}}, "look": {"radius": 9}}
        add_exception(shop, wish, layer, shop.drafts.read().version, ADA, clock())
        publish(shop, "first", ADA, clock(), ["findings"])
    app = create_app(
        replace(
            wiring.studio_parts(),
            visit_shop=lambda store: nullcontext(NobodyHome()),
            visit_edge=lambda store: nullcontext(NobodyHome()),
        )
    )
    with TestClient(app, base_url=HERE, headers={"Origin": HERE}, raise_server_exceptions=False) as client:
        assert client.post("/api/session", json={"email": EMAIL, "password": PASSWORD}).status_code == 200
        wish = {"question": "Rounder?", "reach": {"placements": ["product_page"]}, "layer": {"look": {"radius": 20}}}
        assert client.post(f"{STORE}/trials", json=wish, headers={"If-Match": '"1"'}).status_code == 201
        yield client


def version_of(client: TestClient, path: str) -> str:
    if "/trials/" in path:
        told = client.get(f"{STORE}/trials/1").json()
        return f'"{told["trial"]["version"]}"'
    draft = client.get(f"{STORE}/draft").json()
    return f'"{draft["release"] if path.endswith("/trials") else draft["version"]}"'


def require_told(answer: Any, path: str, method: str, sent: object) -> None:
    """Require an answer that the description foresees, and a problem's own form where it is one."""
    assert answer.status_code < 500, (method, path, sent, answer.text[:300])
    told = described()["paths"][path][method.lower()]["responses"]
    assert str(answer.status_code) in told, (method, path, answer.status_code, answer.text[:200], sent)
    if answer.status_code >= 400:
        assert answer.headers["content-type"] == "application/problem+json"
        assert answer.json()["detail"]
