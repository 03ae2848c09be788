"""The row's shops as stores of the demo's account: each with its own connection, a few words and one release."""

import csv
import io
from collections.abc import Callable
from datetime import timedelta

from practice.goods import CATALOGUE
from practice.row import ROW, RowShop
from uptick.core.button.document import Device, Placement
from uptick.core.button.merge import Json
from uptick.core.button.on_pages import PageKind
from uptick.core.button.row import Row, RowLine, Tile
from uptick.core.rules.pointed import Pages, PointedPlace, Where
from uptick.core.rules.settings import Settings
from uptick.core.shop.connection import (
    BasketChange,
    BasketConnection,
    BasketJson,
    BasketLink,
    BasketPage,
    FormPost,
    JsonCall,
    TokenSource,
)
from uptick.core.shop.store import Store, Surface
from uptick.usecases import importing, publish
from uptick.usecases.ports import Person
from uptick.wiring import Wiring, clock

_TALLY = BasketPage(path="/basket", selector=".tally")
_USUAL = FormPost(
    add_path="/basket/add", product_field="sku", quantity_field="qty", read=BasketJson(path="/basket.json")
)
_OF_SHAPE: dict[str, BasketConnection] = {
    "form-token": FormPost(add_path="/cart/put", product_field="id", quantity_field="pieces", read=_TALLY),
    "two-options": FormPost(
        add_path="/bag/add",
        product_field="goods",
        option_fields=("size", "finish"),
        quantity_field="pieces",
        read=BasketJson(
            path="/bag.json",
            count="bag.pieces",
            items="bag.lines",
            product="goods.id",
            option="with",
            quantity="pieces",
            line="number",
            name="goods.name",
            picture="goods.picture",
            page="goods.page",
            amount="cost",
            sum="bag.cost",
        ),
        change=BasketChange(path="/bag/keep", body={"line": "{line}", "pieces": "{quantity}"}),
    ),
    "swatches": _USUAL.model_copy(update={"option_fields": ("colour",)}),
    "json-header": JsonCall(
        add_path="/api/counter/lines",
        body={"lines": [{"code": "{product}", "qty": "{quantity}"}]},
        token=TokenSource(source="meta", source_name="counter-word", sent_as="header", sent_name="X-Counter-Word"),
        read=BasketJson(
            path="/api/counter",
            count="counter.pieces",
            items="counter.lines",
            product="code",
            option="",
            quantity="qty",
            line="id",
            name="label.title",
            picture="label.image",
            page="label.href",
            amount="pence",
            sum="counter.pence",
            smallest=True,
        ),
        change=BasketChange(method="PUT", path="/api/counter/lines/{line}", sent_as="json", body={"qty": "{quantity}"}),
    ),
    "plain-link": BasketLink(add_path="/take/{product}?n={quantity}", read=_TALLY),
}


def connection_of(shop: RowShop) -> BasketConnection:
    return _OF_SHAPE.get(shop.shape, _USUAL)


def row_store(shop: RowShop, practice_origin: str) -> Store:
    """Return a shop of the row as a store; the widths are those of its pages."""
    paper = shop.colours[0]
    return Store(
        key=shop.key,
        name=shop.name,
        language=shop.language,
        currency="GBP",
        origin=practice_origin.replace("://", f"://{shop.key}."),
        timezone="Europe/London",
        is_practice=True,
        connection=connection_of(shop),
        surfaces={
            Placement.PRODUCT_PAGE: Surface(
                widths_px={Device.PHONE: 343, Device.TABLET: 360, Device.DESKTOP: 360},
                own_height_px=48,
                page_colour=paper,
            ),
            **({} if shop.shape == "unmarked" else {Placement.LISTING_CARD: _cards(shop)}),
            **({Placement.OVER_PICTURE: _CASE} if shop.shape == "wrapped" else {}),
            Placement.STICKY_BAR: Surface(
                widths_px={Device.PHONE: 240, Device.TABLET: 320, Device.DESKTOP: 380}, own_height_px=0
            ),
        },
    )


_CASE = Surface(widths_px={Device.PHONE: 319, Device.TABLET: 712, Device.DESKTOP: 935}, own_height_px=0, page_path="/")


def _cards(shop: RowShop) -> Surface:
    inset = 22 if shop.shape == "fixed-cards" else 0
    return Surface(
        widths_px={Device.PHONE: 161.5 - inset, Device.TABLET: 226.6 - inset, Device.DESKTOP: 306.6 - inset},
        own_height_px=38 if shop.shape == "fixed-cards" else 42,
        page_colour=shop.colours[0],
        page_path="/",
    )


# Hedgerow's theme has no marks: this place was pointed at.
_POINTED = PointedPlace(
    placement=Placement.PRODUCT_PAGE,
    selector='[data-action="add"]',
    where=Where.INSTEAD,
    pages=Pages(kinds=(PageKind.PRODUCT,)),
    widths_px={Device.PHONE: 238, Device.TABLET: 255, Device.DESKTOP: 255},
    own_height_px=48,
    page_path="/p/HV-NUC6",
)

_ROW_PX = {Device.PHONE: 343, Device.TABLET: 720, Device.DESKTOP: 960}


def _rows(shop: RowShop) -> dict[str, PointedPlace]:
    """Return what a shop's own pages have not: a shelf of pictures at the front, and what was looked at before."""
    first, *others = shop.goods[1:5]
    shelf = Row(
        products=tuple(Tile(sku=goods.sku, path=f"/p/{goods.sku}") for goods in (first, *others[:2])),
        phone=RowLine(across=1, ratio=1.5),
        tablet=RowLine(across=3, ratio=1.25),
        desktop=RowLine(across=3, ratio=1.25),
        heading={"en-GB": "Out of the hedge this week"},
        anchor="bottom_end",
        radius_px=3,
    )
    before = Row(
        seen=True,
        heading={"en-GB": "Looked at before"},
        phone=RowLine(across=2, ratio=1.25),
        tablet=RowLine(across=4, ratio=1.25),
        desktop=RowLine(across=4, ratio=1.25),
    )
    return {
        "p2": PointedPlace(
            placement=Placement.TILE,
            selector="main > h1",
            where=Where.AFTER,
            pages=Pages(paths=("/",)),
            widths_px=_ROW_PX,
            page_path="/",
            row=shelf,
        ),
        "p3": PointedPlace(
            placement=Placement.STRIP,
            selector="main",
            where=Where.INSIDE,
            pages=Pages(kinds=(PageKind.PRODUCT,)),
            widths_px=_ROW_PX,
            page_path="/p/HV-NUC6",
            row=before,
        ),
    }


_WORDS = {
    "en-GB": {
        "ready": "Put it by, {price}",
        "working": "One moment",
        "added": "It is put by",
        "in_basket": "{count} put by, one more",
        "choose_first": "Choose first",
        "sold_out": "All gone",
        "pre_order": "Reserve it",
    },
    "ar": {
        "ready": "ضعه في السلة",
        "working": "لحظة",
        "added": "صار في السلة",
        "in_basket": "{count} في السلة",
        "choose_first": "اختر أولا",
        "sold_out": "نفد",
        "pre_order": "احجز",
    },
}
_CARD = {"ready": {"en-GB": "Put it by"}, "in_basket": {"en-GB": "{count} put by"}}


# Where what needs a choice is chosen in these shops.
_CHOOSING = {"veilrow": "card", "monogram": "middle"}


def row_settings(shop: RowShop) -> Settings:
    paper, ink, press = shop.colours
    texts = _WORDS[shop.language]
    baseline: Json = {
        "look": {
            "size": {"kind": "natural"},
            "padding": {"top": 13, "right": 22, "bottom": 13, "left": 22},
            "radius": 2,
            "fill": {"kind": "solid", "colour": press},
            "text_colour": "#ffffff",
            "type": {"family": "figtree", "size_px": 16, "weight": 650},
            "hover": {"fill": {"kind": "solid", "colour": ink}, "text_colour": "#ffffff"},
        },
        "icon": {"kind": "none"},
        "wording": {moment: {shop.language: text} for moment, text in texts.items()},
        "afterwards": {"kind": "stay"},
    }
    # Boxwell's cards have room for 50 px; what is drawn here is higher, so its own buttons stay where it is cut off.
    high = 24 if shop.shape == "fixed-cards" else 11
    card: Json = {"look": {"padding": {"top": high, "right": 14, "bottom": high, "left": 14}, "type": {"size_px": 15}}}
    if shop.language == "en-GB":
        card["wording"] = _CARD
    page: Json = {"look": {"size": {"kind": "full"}}}
    placements = {Placement.PRODUCT_PAGE: page, Placement.LISTING_CARD: card}
    if shop.language == "ar":
        # One bar of the row is drawn otherwise: at the upper edge, after a distance, with a key to close it.
        placements[Placement.STICKY_BAR] = {
            "bar": {
                "edge": "top",
                "comes": {"kind": "distance", "px": 120},
                "parts": ["button", "price", "name"],
                "phone_without": ["name"],
                "close_hours": 24,
                "ground": ink,
                "ink": "#ffffff",
            }
        }
    if shop.shape == "wrapped":
        placements[Placement.OVER_PICTURE] = {
            "over": {"anchor": "bottom_start", "across": 14, "down": 14, "reveal": "button"}
        }
    if shop.shape == "unmarked":
        placements[Placement.TILE] = {
            "look": {"padding": {"top": 9, "right": 16, "bottom": 9, "left": 16}, "type": {"size_px": 15}},
            "wording": _CARD,
        }
        placements[Placement.STRIP] = card
    if shop.key in _CHOOSING:
        card["choosing"] = _CHOOSING[shop.key]
        card["wording"] = {**_CARD, "choose_first": {"en-GB": "Choose a kind"}}
    if shop.key == "veilrow":
        card["second"] = {
            "side": "under",
            "kind": "closer",
            "wording": {"en-GB": "Look closer"},
            "text_colour": ink,
            "border": {"kind": "none"},
            "padding": {"top": 8, "right": 10, "bottom": 8, "left": 10},
            "radius": 2,
            "size_px": 14,
        }
    if shop.key == "monogram":
        baseline["afterwards"] = {"kind": "show", "free_from": 120}
        baseline["sheet"] = {"ground": paper, "ink": ink, "shade": f"{ink}99"}
    if shop.key == "scullion":
        # One shop has a button in the corner instead of a bar.
        placements[Placement.STICKY_BAR] = {"placement": {"shown": False}}
        placements[Placement.FLOATING] = {
            "look": {"radius": 26, "padding": {"top": 14, "right": 24, "bottom": 14, "left": 24}},
            "floating": {"comes": {"kind": "distance", "px": 200}, "phone": {"side_px": 12, "edge_px": 20}},
        }
    return Settings(
        language=shop.language,
        currency="GBP",
        baseline=baseline,
        placements=placements,
        pointed={"p1": _POINTED, **_rows(shop)} if shop.shape == "unmarked" else {},
    )


def fill(wiring: Wiring, owner: Person, say: Callable[[str], None]) -> None:
    """Make every store of the row that is not there yet, released as it is."""
    with wiring.open_accounts() as accounts:
        known = set(accounts.store_keys())
    missing = [shop for shop in ROW.values() if shop.key not in known]
    if missing:
        say("a row of small shops")
    then = clock() - timedelta(days=3)
    for shop in missing:
        store = row_store(shop, wiring.environment.practice_origin)
        with wiring.open_accounts() as accounts:
            accounts.add_store(store, row_settings(shop), owner.id, then)
        with wiring.open_shop(shop.key) as opened:
            importing.import_catalogue(opened, _goods_of(shop), owner, then)
        with wiring.open_shop(shop.key) as opened:
            publish.publish(opened, "First buttons", owner, then, ("findings",))


def _goods_of(shop: RowShop) -> bytes:
    """Return the lines of the one catalogue that a shop sells."""
    sold = {goods.sku for goods in shop.goods}
    with CATALOGUE.open(encoding="utf-8", newline="") as file:
        reader = csv.DictReader(file)
        rows = [row for row in reader if row["sku"] in sold]
        names = list(reader.fieldnames or ())
    out = io.StringIO()
    writer = csv.DictWriter(out, names)
    writer.writeheader()
    writer.writerows(rows)
    return out.getvalue().encode()
