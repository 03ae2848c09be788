"""The shop's own side: how its basket is told, and whether its live pages show what was released."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Annotated, Any, Literal

from fastapi import APIRouter, Query
from pydantic import StringConstraints

from uptick.core.errors import OutOfRange, Stale
from uptick.core.shop.connection import BasketConnection
from uptick.core.shop.store import Store
from uptick.usecases.connect import (
    Proposal,
    Tried,
    example_of,
    open_door,
    page_of,
    propose_connection,
    try_connection,
)
from uptick.usecases.page_checks import Kind, PagesReport, Released, check_pages, released_kinds, released_of
from uptick.web.bodies import Body
from uptick.web.parts import Door, DoorDep, PartsDep, ShopDep
from uptick.web.problems import IN_STORE, OF_VERSION, problems

router = APIRouter(prefix="/api/stores/{store}", tags=["shop side"], responses=IN_STORE)
Text = Annotated[str, StringConstraints(max_length=300)]


class WhichPage(Body):
    """A product's page: by the product's code, by its path, or one that the catalogue has in stock."""

    product: Text = ""
    page: Text = ""
    password: Text = ""


class TryConnection(WhichPage):
    connection: BasketConnection


class KeepConnection(Body):
    """A connection to keep, and the one that was there when it was drawn up."""

    connection: BasketConnection
    instead_of: BasketConnection


class LookAtPages(Body):
    moment: Literal["before", "after", "asked"] = "asked"
    password: Text = ""


@dataclass(frozen=True, slots=True)
class ReadConnection:
    """What a page shows of how its basket is told; `page` and `code` are what to try it with."""

    proposal: Proposal
    page: str
    code: str


@dataclass(frozen=True, slots=True)
class LiveLook:
    """The newest look at the live pages, or none."""

    report: dict[str, Any] | None


def _where(door: Door, wish: WhichPage) -> tuple[Store, str, str]:
    """Return the store, the path of the page and the product's code."""
    with door.opened(door.parts.open_visit) as visit:
        store, products = visit.shop.store, visit.shop.catalogue.all()
    if wish.page and not wish.page.startswith("/"):
        raise OutOfRange.of("the page", "a path of the shop, as /p/HV-CEDAR", wish.page)
    if wish.page and wish.product:
        return store, wish.page, wish.product
    example = example_of(products, wish.product)
    return store, wish.page or page_of(example, store), example.sku


@router.post("/connection/read", responses=problems(409))
def read_connection(body: WhichPage, door: DoorDep, parts: PartsDep) -> ReadConnection:
    """Read a product's page and propose how its basket is told; nothing is sent to the basket."""
    store, page, code = _where(door, body)
    with parts.visit_shop(store) as visit:
        if body.password:
            open_door(visit, page, body.password)
        proposal, _ = propose_connection(visit, page, [code])
    return ReadConnection(proposal, page, code)


@router.post("/connection/try", responses=problems(409))
def try_it(body: TryConnection, door: DoorDep, parts: PartsDep) -> Tried:
    """Put one product into a basket of the shop, look whether the count rises, and take it out again."""
    store, page, code = _where(door, body)
    with parts.visit_shop(store) as visit:
        if body.password:
            open_door(visit, page, body.password)
        return try_connection(visit, body.connection, page, code)


@router.put("/connection", responses=OF_VERSION)
def keep_connection(body: KeepConnection, shop: ShopDep) -> Store:
    """Keep a connection; shops' pages get it at once, with the release that they have."""
    if shop.store.connection != body.instead_of:
        raise Stale("The connection was changed meanwhile. Look at it again.", version=0, base=0)
    shop.side.connect(body.connection)
    return shop.store.model_copy(update={"connection": body.connection})


@router.get("/pages")
def newest_look(shop: ShopDep, release: Annotated[int, Query(ge=0, le=2**31 - 1)] = 0) -> LiveLook:
    """Return the newest look at the live pages for a release; for 0 for the newest that was looked at."""
    looks = shop.side.looks()
    return LiveLook(looks.get(release or max(looks, default=0)))


@router.post("/pages", responses=problems(409))
def look_at_pages(body: LookAtPages, door: DoorDep, parts: PartsDep) -> LiveLook:
    """Look at one live page of every kind, and keep what was seen."""
    with door.opened(parts.open_visit) as opened:
        shop = opened.shop
        kinds, store = released_kinds(shop), shop.store
        released = released_of(shop)
    report = _looked(parts, store, released, kinds, body.password)
    told = report.as_json()
    with door.opened(parts.open_visit) as opened:
        opened.shop.side.add_look(report.release, body.moment, told, report.made_at)
    return LiveLook(told)


def _looked(parts: PartsDep, store: Store, released: Released, kinds: Sequence[Kind], password: str) -> PagesReport:
    at_edge = store.model_copy(update={"origin": parts.edge_origin, "more_origins": ()})
    with parts.visit_shop(store) as visit, parts.visit_shop(at_edge) as edge_visit:
        if password:
            open_door(visit, "/", password)
        return check_pages(store, released, kinds, visit, edge_visit, parts.edge_origin, parts.clock())
