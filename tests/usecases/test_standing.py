"""Where a placement stands: counted by kinds of products, held to asking product by product."""

import pytest

from tests.samples import PRODUCTS, exception, product, settings
from tests.usecases.fakes import fake_shop
from uptick.core.button.document import Device, Placement, ShopperKind
from uptick.core.errors import NotFound
from uptick.core.resolved.classes import class_for, context_of
from uptick.usecases.views.drawing import DrawQuery, view_drawing
from uptick.usecases.views.standing import MOST_PAGES, view_standing

AWAY = {"placement": {"shown": False}}
BAR = Placement.STICKY_BAR


def test_it_is_counted_what_hides_it_is_named_and_pages_are_those_where_it_stands() -> None:
    made = settings(
        exception(1, AWAY, situations=("sold_out",), placements=(BAR,)),
        exception(2, AWAY, categories=("Jars",), devices=(Device.PHONE,)),
    )
    shop = fake_shop(made).shop
    phone = view_standing(shop, BAR, Device.PHONE, None)
    assert (phone.stands, phone.of) == (4, len(PRODUCTS))
    assert [(hidden.id, hidden.name, hidden.products) for hidden in phone.hidden] == [
        ("e2", "Exception 2", 2), ("e1", "Exception 1", 1),
    ]  # fmt: skip
    assert {page.product for page in phone.pages} == {"A1", "A2", "D1", "D2"}
    desktop = view_standing(shop, BAR, Device.DESKTOP, "en-GB")
    assert (desktop.stands, [hidden.id for hidden in desktop.hidden]) == (6, ["e1"])


@pytest.mark.parametrize("device", list(Device))
def test_the_count_is_that_of_asking_every_product(device: Device) -> None:
    made = settings(
        exception(1, AWAY, categories=("Hives", "Tools"), not_products=("A1",)),
        exception(2, {"placement": {"shown": True}}, products=("D2",)),
        exception(3, AWAY, devices=(Device.TABLET,), products=("B1", "A1")),
        exception(4, AWAY, shoppers=(ShopperKind.SIGNED_IN,)),
    )
    shop = fake_shop(made).shop
    snapshot = shop.now()
    stands = [
        each.sku
        for each in PRODUCTS
        if class_for(snapshot, context_of(BAR, each, None, device, "en-GB", ShopperKind.NEW)).document.placement.shown
    ]
    assert view_standing(shop, BAR, device, None).stands == len(stands)


def test_a_placement_that_is_away_everywhere_says_that_it_is_so_itself() -> None:
    found = view_standing(fake_shop(settings(sticky_bar=AWAY)).shop, BAR, Device.PHONE, None)
    assert (found.stands, found.pages) == (0, ())
    assert [(hidden.id, hidden.products) for hidden in found.hidden] == [("", len(PRODUCTS))]


def test_a_large_shop_gives_no_more_pages_than_somebody_steps_through() -> None:
    many = [product(f"P{n}", f"Kind {n % 7}") for n in range(900)]
    shop = fake_shop(settings(exception(1, {"look": {"radius": 3}}, categories=("Kind 3",))), many).shop
    found = view_standing(shop, Placement.PRODUCT_PAGE, Device.PHONE, None)
    assert found.stands == 900
    assert len(found.pages) <= MOST_PAGES
    # Of both kinds that the exception tells apart.
    assert {page.product in {f"P{n}" for n in range(900) if n % 7 == 3} for page in found.pages} == {True, False}


def test_a_placement_that_the_shop_has_not_is_told() -> None:
    with pytest.raises(NotFound, match="no place on the floating button"):
        view_standing(fake_shop().shop, Placement.FLOATING, Device.PHONE, None)


def test_pages_of_what_stands_for_one_product_are_those_that_are_meant() -> None:
    def paths(**pages: list[str]) -> set[str]:
        made = settings(sticky_bar={"placement": {"product": "A1", "pages": pages}})
        found = view_standing(fake_shop(made).shop, BAR, Device.PHONE, None)
        assert (found.stands, found.of) == (1, 1)
        return {page.path for page in found.pages}

    everywhere = paths()
    of_products = paths(kinds=["product"])
    assert {"/", *of_products} <= everywhere
    assert of_products
    assert "/" not in of_products
    assert paths(kinds=["list"]) == everywhere - of_products
    some = sorted(of_products)[0]
    assert paths(not_paths=[some]) == everywhere - {some}
    assert paths(paths=["/"]) == {"/"}


def test_what_stands_for_one_product_is_drawn_with_that_one_whichever_is_asked_for() -> None:
    shop = fake_shop(settings(sticky_bar={"placement": {"product": "A1"}})).shop
    bar = view_drawing(shop, DrawQuery(BAR, product="D2")).seen
    assert (bar.product.sku, [shown.sku for shown in bar.of]) == ("A1", ["A1"])
    page = view_drawing(shop, DrawQuery(Placement.PRODUCT_PAGE, product="D2"))
    assert (page.seen.product.sku, page.seen.of) == ("D2", ())
    # Beside the page's own button the bar says what it stands for, too.
    alone = next(hanging for hanging in view_drawing(shop, DrawQuery(BAR)).hanging if hanging.placement is BAR)
    assert next(hanging for hanging in page.hanging if hanging.placement is BAR).shown == alone.shown
