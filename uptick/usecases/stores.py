"""A store of one's own: made from a few facts about the shop, and its addresses later."""

import re
import unicodedata
from dataclasses import dataclass
from datetime import datetime
from urllib.parse import urlsplit
from zoneinfo import available_timezones

from pydantic import ValidationError

from uptick.core.button.document import Device, Placement, require_layer
from uptick.core.button.merge import Json, merge_layer
from uptick.core.colour.ramp import Brand
from uptick.core.errors import OutOfRange, Stale
from uptick.core.looks.starts import starts
from uptick.core.rules.settings import Settings
from uptick.core.shop.connection import BasketConnection, FormPost
from uptick.core.shop.store import Store, Surface
from uptick.core.words.wording import is_currency, is_rtl
from uptick.usecases.ports import Accounts, Person, Shop

# What a product's page leaves to a button on most shops; the real widths come with the first place (common practice).
_PAGE_PX = {Device.PHONE: 320.0, Device.TABLET: 320.0, Device.DESKTOP: 360.0}
_BAR_PX = {Device.PHONE: 240.0, Device.TABLET: 320.0, Device.DESKTOP: 380.0}
_ORIGIN = re.compile(r"^https?://[a-z0-9.\-]+(:\d+)?$")
MOST_ORIGINS = 10


@dataclass(frozen=True, slots=True)
class NewStore:
    """What has to be known of a shop; `says` is what its buttons say until somebody words them."""

    name: str
    origin: str
    language: str
    currency: str
    timezone: str
    says: str


def make_store(accounts: Accounts, person: Person, wish: NewStore, now: datetime) -> Store:
    """Make a store for a person, with a plain button and nothing released.

    Wherever its pages are, its clock is everybody's: only the demo's own stores have a past to practise on.

    Raises:
        OutOfRange: With what is allowed there.
    """
    origin = origin_of(wish.origin)
    is_rtl(wish.language)
    if not is_currency(wish.currency):
        raise OutOfRange.of("currency", "a currency of ISO 4217, as EUR", wish.currency)
    if wish.timezone not in available_timezones():
        raise OutOfRange.of("timezone", "a time zone, as Europe/Berlin", wish.timezone)
    name, says = wish.name.strip(), wish.says.strip()
    if not name:
        raise OutOfRange.of("name", "the shop's name", "empty")
    if not says:
        raise OutOfRange.of("says", "what the buttons say, as Add to basket", "empty")
    store = Store(
        key=_free_key(name, accounts.store_keys()),
        name=name,
        language=wish.language,
        currency=wish.currency,
        origin=origin,
        timezone=wish.timezone,
        is_practice=False,
        connection=FormPost(add_path="/basket/add", product_field="sku", quantity_field="qty"),
        surfaces={
            Placement.PRODUCT_PAGE: Surface(widths_px=_PAGE_PX, own_height_px=0),
            Placement.STICKY_BAR: Surface(widths_px=_BAR_PX, own_height_px=0),
        },
    )
    settings = Settings(
        language=wish.language, currency=wish.currency, baseline=_plain_button(wish.language, says), placements={}
    )
    accounts.add_store(store, settings, person.id, now)
    return store


def origin_of(address: str) -> str:
    """Return the origin of an address as somebody types it.

    Raises:
        OutOfRange: It is no address of a web page.
    """
    typed = address.strip().lower()
    refusal = OutOfRange.of("origin", "the shop's address, as https://shop.example", address or "empty")
    try:
        parts = urlsplit(typed if "://" in typed else f"https://{typed}")
        host, port = parts.hostname or "", parts.port
    except ValueError as error:
        raise refusal from error
    origin = f"{parts.scheme}://{host}{f':{port}' if port else ''}"
    if not _ORIGIN.match(origin) or ("." not in host and host != "localhost"):
        raise refusal
    return origin


def _free_key(name: str, taken: list[str]) -> str:
    plain = unicodedata.normalize("NFKD", name).encode("ascii", "ignore").decode().lower()
    key = re.sub(r"[^a-z0-9]+", "-", plain).strip("-")[:40] or "store"
    chosen, n = key, 2
    while chosen in taken:
        chosen, n = f"{key}-{n}", n + 1
    return chosen


def _plain_button(language: str, says: str) -> Json:
    plain: Json = {
        "look": {"type": {"family": "figtree"}},
        "wording": {"ready": {language: says}},
        "afterwards": {"kind": "stay"},
    }
    layer: Json = merge_layer(plain, {**starts(Brand())[0].layer, "icon": {"kind": "none"}})
    require_layer(layer)
    return layer


@dataclass(frozen=True, slots=True)
class ShopAddresses:
    """The addresses at which a shop has pages besides its first one, and pages that show a kind of placement."""

    more_origins: tuple[str, ...]
    page_paths: dict[Placement, str]


def connect_shop(shop: Shop, connection: BasketConnection, instead_of: BasketConnection) -> Store:
    """Keep how a shop's basket is told; shops' pages get it at once, with the release that they have.

    Args:
        instead_of: The connection that was there when this one was drawn up.

    Raises:
        Stale: Somebody changed it meanwhile.
    """
    shop.hold()
    if shop.side.profile().connection != instead_of:
        raise Stale(
            "The connection was changed meanwhile. Look at what is there now, then say again what should be otherwise.",
            version=0,
            base=0,
        )
    shop.side.connect(connection)
    return shop.store.model_copy(update={"connection": connection})


def addresses_of(store: Store) -> ShopAddresses:
    """Return a store's further origins and its pages by placement."""
    return ShopAddresses(store.more_origins, {place: store.surfaces[place].page_path for place in store.places})


def readdress(shop: Shop, wish: ShopAddresses, instead_of: ShopAddresses) -> Store:
    """Change where a shop's pages are.

    Raises:
        Stale: Somebody changed it meanwhile.
        OutOfRange: An address is none, or there are too many.
    """
    shop.hold()
    store = shop.side.profile()
    known = addresses_of(store)
    # What the draft adds has no page that is registered.
    seen = {place: path for place, path in instead_of.page_paths.items() if place in store.surfaces}
    if (known.more_origins, known.page_paths) != (tuple(instead_of.more_origins), seen):
        raise Stale("The addresses were changed meanwhile. Look at them again.", version=0, base=0)
    origins = dict.fromkeys(map(origin_of, wish.more_origins))
    more = tuple(origin for origin in origins if origin != store.origin)
    if len(more) > MOST_ORIGINS:
        raise OutOfRange.of("more_origins", f"at most {MOST_ORIGINS} addresses", len(more))
    surfaces = {
        place: surface.model_copy(update={"page_path": wish.page_paths.get(place, surface.page_path)})
        for place, surface in store.surfaces.items()
    }
    try:
        changed = Store.model_validate({**store.model_dump(), "more_origins": more, "surfaces": {
            place: surface.model_dump() for place, surface in surfaces.items()
        }})  # fmt: skip
    except ValidationError as error:
        bad = error.errors(include_url=False)[0]
        raise OutOfRange.of("page_paths", "a path of the shop, as /lists/wax", bad.get("input")) from error
    shop.side.readdress(changed)
    return changed
