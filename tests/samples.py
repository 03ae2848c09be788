"""Small made-up things that tests share: a document, a shop's settings, products."""

from collections.abc import Sequence
from copy import deepcopy
from datetime import UTC, date, datetime
from functools import lru_cache
from typing import Any

from uptick.core.button.document import ButtonDocument, Device, Placement, parse_document
from uptick.core.button.merge import Json, merge_layer
from uptick.core.drawing.kit import Kit
from uptick.core.engine.shops import CompiledShop
from uptick.core.engine.snapshot import Snapshot
from uptick.core.release import compile_release
from uptick.core.resolved.differences import ButtonChange, changes_between
from uptick.core.rules.reach import Reach
from uptick.core.rules.settings import ExceptionRule, Settings
from uptick.core.shop.catalogue import Product
from uptick.core.shop.connection import BasketJson, FormPost
from uptick.core.shop.store import Store, Surface
from uptick.wiring import load_kit

NOW = datetime(2026, 3, 2, 12, 0, tzinfo=UTC)

BASELINE: Json = {
    "look": {
        "size": {"kind": "natural"},
        "padding": {"top": 12, "right": 20, "bottom": 12, "left": 20},
        "radius": 4,
        "fill": {"kind": "solid", "colour": "#3a2a12"},
        "text_colour": "#ffffff",
        "type": {"family": "figtree", "size_px": 16, "weight": 600},
        "hover": {"fill": {"kind": "solid", "colour": "#000000"}, "text_colour": "#ffffff"},
        "focus": {"fill": {"kind": "solid", "colour": "#3a2a12"}, "text_colour": "#ffffff", "ring_colour": "#2f5d3a"},
        "disabled": {"fill": {"kind": "solid", "colour": "#eeeeee"}, "text_colour": "#999999"},
    },
    "icon": {"kind": "none"},
    "wording": {
        "ready": {"en-GB": "Buy"},
        "working": {"en-GB": "Wait"},
        "added": {"en-GB": "Added"},
        "in_basket": {"en-GB": "{count} in basket"},
        "choose_first": {"en-GB": "Choose"},
        "pre_order": {"en-GB": "Reserve"},
        "sold_out": {"en-GB": "Sold out"},
    },
    "afterwards": {"kind": "stay"},
}


@lru_cache(maxsize=1)
def kit() -> Kit:
    return load_kit()


def document(patch: Json | None = None) -> ButtonDocument:
    """Return the plain sample button, narrowed by a patch."""
    return parse_document(merge_layer(deepcopy(BASELINE), patch or {}))


def settings(*exceptions: ExceptionRule, more: tuple[str, ...] = (), **placements: Json) -> Settings:
    places = {Placement(name): layer for name, layer in placements.items()}
    return Settings(
        language="en-GB",
        currency="GBP",
        baseline=deepcopy(BASELINE),
        placements=places,
        exceptions=exceptions,
        more_languages=more,
    )


def snapshot(of: Settings, products: Sequence[Product] = (), using: Kit | None = None) -> Snapshot:
    """Return a shop worked out from nothing; without products it has the sample ones."""
    made = CompiledShop(lambda _: using or kit())
    return made.at(of, products or PRODUCTS, store())


def changes(before: Settings, after: Settings, products: Sequence[Product] = ()) -> tuple[ButtonChange, ...]:
    earlier = snapshot(before, products)
    return changes_between(earlier, earlier.beside(after))


def release(of: Settings, products: Sequence[Product] = (), today: date = NOW.date()) -> Json:
    return compile_release(snapshot(of, products), today)


def exception(n: int, layer: Json, **reach: Any) -> ExceptionRule:
    return ExceptionRule(
        id=f"e{n}", name=f"Exception {n}", note="a reason", author="Ada", made_at=NOW, reach=Reach(**reach), layer=layer
    )


def product(sku: str, category: str = "Tools", price: int = 1250, stock: int = 3, **more: Any) -> Product:
    values: dict[str, Any] = {
        "sku": sku, "name": f"Thing {sku}", "category": category, "price_minor": price, "currency": "GBP",
        "url": f"/p/{sku}", "picture": "", "stock": stock, "option_name": "", "option_values": (),
    }  # fmt: skip
    return Product(**{**values, **more})


PRODUCTS = [
    product("A1"),
    product("A2", price=129_900, name="A far longer thing than the others"),
    product("B1", "Jars"),
    product("B2", "Jars", option_name="size", option_values=("S", "L")),
    product("C1", "Hives", stock=0),
    product("D1", "Hives", set_of=("A1", "B1")),
    product("D2", "Hives", pre_order=True, available_from=date(2027, 4, 12)),
]


def store(key: str = "sample", origin: str = "http://localhost:8802") -> Store:
    return Store(
        key=key,
        name="Sample",
        language="en-GB",
        currency="GBP",
        origin=origin,
        timezone="Europe/London",
        is_practice=True,
        connection=FormPost(
            add_path="/basket/add", read=BasketJson(path="/basket"), product_field="sku", option_fields=("option",),
            quantity_field="qty",
        ),
        surfaces={
            Placement.PRODUCT_PAGE: Surface(widths_px={Device.PHONE: 320, Device.DESKTOP: 380}, own_height_px=52),
            Placement.LISTING_CARD: Surface(widths_px={Device.PHONE: 140, Device.DESKTOP: 310}, own_height_px=44),
            Placement.STICKY_BAR: Surface(widths_px={Device.PHONE: 240, Device.DESKTOP: 380}, own_height_px=0),
            Placement.STRIP: Surface(widths_px={Device.PHONE: 140, Device.DESKTOP: 310}, own_height_px=44),
        },
    )  # fmt: skip


# The placements that the sample store's pages have.
PLACES = store().places
