"""Which placements a store has: its own code's, those that were pointed at, and those that its draft adds."""

from dataclasses import replace

import pytest

from tests.samples import PRODUCTS, exception, release, settings, snapshot, store
from uptick.core.button.document import Device, Placement
from uptick.core.button.layer_ref import LayerRef
from uptick.core.button.row import Row, Tile
from uptick.core.checks.reaches import check_reaches
from uptick.core.resolved.classes import classes_at, classes_of
from uptick.core.rules.places import has_places, held_products, with_places
from uptick.core.rules.pointed import PointedPlace, Where
from uptick.core.rules.settings import Settings

FLOATING = {"floating": {"corner": "bottom_start"}}


def with_pointed(place: PointedPlace) -> Settings:
    return settings().model_copy(update={"pointed": {"p1": place}})


def test_a_stores_containers_are_the_narrower_of_its_own_and_the_pointed_ones() -> None:
    of = store()
    wide = PointedPlace(
        placement=Placement.PRODUCT_PAGE, selector=".x", where=Where.INSTEAD, widths_px={Device.PHONE: 120},
        own_height_px=52,
    )  # fmt: skip
    made = with_places(of, with_pointed(wide))
    surface = made.surfaces[Placement.PRODUCT_PAGE]
    assert surface.widths_px[Device.PHONE] == 120
    assert surface.widths_px[Device.DESKTOP] == of.surfaces[Placement.PRODUCT_PAGE].widths_px[Device.DESKTOP]
    assert surface.own_height_px >= 52
    assert with_places(of, with_pointed(wide.model_copy(update={"widths_px": {}}))) is of


def test_a_floating_button_is_there_once_its_layer_says_something_and_gone_with_that() -> None:
    of = store()
    assert not has_places(settings())
    assert not has_places(settings(floating={}))
    assert with_places(of, settings(floating={})) is of
    added = with_places(of, settings(floating=FLOATING))
    assert added.places == (*of.places, Placement.FLOATING)
    made = snapshot(settings(floating=FLOATING))
    assert Placement.FLOATING in {button.placement for button in classes_of(made)}
    assert made.layers[LayerRef.place(Placement.FLOATING)].content == FLOATING
    assert Placement.FLOATING not in {button.placement for button in classes_of(snapshot(settings()))}


def shelf(*skus: str, seen: bool = False) -> PointedPlace:
    row = Row(seen=seen, products=tuple(Tile(sku=sku, path=f"/p/{sku}") for sku in skus))
    return PointedPlace(
        placement=Placement.TILE, selector="main", where=Where.INSIDE, widths_px={Device.PHONE: 343}, row=row
    )


def test_tiles_are_classes_of_the_products_of_their_rows_alone() -> None:
    draws = exception(1, {"look": {"radius": 2}}, categories=["Jars"])
    rows = {"p1": shelf("A1", "B2"), "p2": shelf("A2", "GONE")}
    of = settings(draws).model_copy(update={"pointed": rows})
    assert held_products(of) == {Placement.TILE: frozenset({"A1", "B2", "A2", "GONE"})}
    made = snapshot(of, PRODUCTS)
    placed = made.beside(of)
    tiles = classes_at(replace(placed, store=with_places(placed.store, of)), Placement.TILE)
    assert {product.sku for tile in tiles for product in tile.products} == {"A1", "A2", "B2"}
    assert [sorted(p.sku for p in tile.products) for tile in tiles if tile.rules] == [["B2"]]
    # Elsewhere all are there, and so they are where a row shows what a browser saw.
    assert sum(button.count for button in classes_at(made, Placement.PRODUCT_PAGE)) == len(PRODUCTS)
    assert held_products(of.model_copy(update={"pointed": {**rows, "p3": shelf(seen=True)}})) == {}


def test_what_hangs_may_hold_one_product_and_is_told_where_that_has_no_page() -> None:
    of = settings(sticky_bar={"placement": {"product": "A2"}})
    assert held_products(of) == {Placement.STICKY_BAR: frozenset({"A2"})}
    made = snapshot(of, PRODUCTS)
    assert [p.sku for button in classes_at(made, Placement.STICKY_BAR) for p in button.products] == ["A2"]
    assert release(of, PRODUCTS)["places"]["sticky_bar"]["fixed"] == {"sku": "A2", "path": "/p/A2"}
    assert [finding for finding in check_reaches(made) if finding.weight == "must_fix"] == []
    gone = snapshot(settings(sticky_bar={"placement": {"product": "GONE"}}), PRODUCTS)
    (finding,) = [finding for finding in check_reaches(gone) if finding.weight == "must_fix"]
    assert finding.title == "The sticky bar stands for GONE, and nowhere"
    assert finding.fixes[0].patch == {"placement": {"product": ""}}
    assert release(gone.settings, PRODUCTS)["places"]["sticky_bar"]["fixed"] == {"sku": "GONE", "path": ""}


@pytest.mark.parametrize(
    ("url", "path"),
    [
        ("/p/A", "/p/A"),
        ("http://localhost:8802/p/A?x=1", "/p/A?x=1"),
        ("https://elsewhere.test/p/A", ""),
        ("//e/p", ""),
    ],
)
def test_a_page_is_the_shops_own_or_none(url: str, path: str) -> None:
    assert store().path_of(url) == path
