"""The shop's own side: how its basket is told, and whether its live pages show what was released."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Annotated, Any, Literal

import orjson
from fastapi import APIRouter, Query
from fastapi.responses import StreamingResponse
from pydantic import Field, StringConstraints

from uptick.core.button.document import Placement
from uptick.core.errors import AppError, OutOfRange
from uptick.core.shop.connection import BasketConnection
from uptick.core.shop.store import Store
from uptick.usecases.collecting import collect
from uptick.usecases.connect import (
    Proposal,
    Tried,
    example_of,
    open_door,
    page_of,
    propose_connection,
    try_connection,
)
from uptick.usecases.page_checks import (
    PageExample,
    PagesReport,
    ReleasedPlaces,
    check_pages,
    released_kinds,
    released_of,
)
from uptick.usecases.stores import ShopAddresses, connect_shop, readdress
from uptick.web.bodies import Body
from uptick.web.parts import Door, DoorDep, Parts, PartsDep, ShopDep
from uptick.web.problems import IN_STORE, OF_VERSION, problems

router = APIRouter(prefix="/api/stores/{store}", tags=["shop side"], responses=IN_STORE)
Text = Annotated[str, StringConstraints(max_length=300)]
MOST_ODD = 100


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


class CollectPages(Body):
    password: Text = ""


class OfAddresses(Body):
    """Further addresses of the shop and the pages of its placements; `instead_of` are those that were seen."""

    more_origins: Annotated[list[Text], Field(max_length=40)]
    page_paths: dict[Placement, Text]


class NewAddresses(Body):
    addresses: OfAddresses
    instead_of: OfAddresses


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
    return connect_shop(shop, body.connection, body.instead_of)


@router.put("/addresses", responses=OF_VERSION)
def keep_addresses(body: NewAddresses, shop: ShopDep) -> Store:
    """Register further addresses of the shop, and say which page shows which placement."""
    return readdress(shop, _addresses(body.addresses), _addresses(body.instead_of))


def _addresses(body: OfAddresses) -> ShopAddresses:
    return ShopAddresses(tuple(body.more_origins), dict(body.page_paths))


@router.post("/catalogue/collect", response_class=StreamingResponse)
def collect_catalogue(body: CollectPages, door: DoorDep, parts: PartsDep) -> StreamingResponse:
    """Read the catalogue off the shop's own pages by its sitemap, telling line by line as JSON.

    Lines are `progress`, `product` (a node of schema.org), and at the end `odd` or `problem`. Nothing is kept; whoever
    goes away has what was told until then.
    """
    with door.opened(parts.open_visit) as opened:
        store = opened.shop.store
    return StreamingResponse(_collecting(store, body.password, parts), media_type="application/x-ndjson")


def _collecting(store: Store, password: str, parts: Parts) -> Iterator[bytes]:
    collected = None
    try:
        with parts.visit_shop(store) as visit:
            if password:
                open_door(visit, "/", password)
            for collected in collect(visit, store):
                yield from (_line({"product": node}) for node in collected.fresh)
                yield _line({"progress": {"done": collected.done, "of": collected.of}})
    except AppError as error:
        yield _line({"problem": {"code": error.code, "detail": str(error)}})
        return
    odd = [{"address": address, "why": why} for address, why in collected.odd[:MOST_ODD]] if collected else []
    yield _line({"end": {"odd": odd, "skipped": collected.skipped if collected else 0}})


def _line(answer: dict[str, Any]) -> bytes:
    return orjson.dumps(answer) + b"\n"


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
    report_json = report.as_json()
    with door.opened(parts.open_visit) as opened:
        opened.shop.side.add_look(report.release, body.moment, report_json, report.made_at)
    return LiveLook(report_json)


def _looked(
    parts: PartsDep, store: Store, released: ReleasedPlaces, kinds: Sequence[PageExample], password: str
) -> PagesReport:
    with parts.visit_shop(store) as visit, parts.visit_edge(store) as edge_visit:
        if password:
            open_door(visit, "/", password)
        return check_pages(store, released, kinds, visit, edge_visit, parts.edge_origin, parts.clock())
