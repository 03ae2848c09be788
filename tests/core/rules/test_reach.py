"""What a reach covers, and what two of them cover together, over all of its dimensions."""

from itertools import product as crossing
from typing import Any

from hypothesis import given
from hypothesis import strategies as st

from tests.samples import PRODUCTS
from uptick.core.button.document import Device, Placement, ShopperKind, Situation
from uptick.core.rules.reach import Context, Reach

# Of each dimension two values that a reach may name, one that it never names, and none that is known.
CODES = ("A", "B", "never", "")
CATEGORIES = ("cheese", "honey", "never", "")
SITUATIONS = (Situation.PLAIN, Situation.SOLD_OUT, Situation.SET, None)
PLACES = (Placement.PRODUCT_PAGE, Placement.LISTING_CARD, Placement.STRIP)
DEVICES = (Device.PHONE, Device.TABLET, Device.DESKTOP, None)
LANGUAGES = ("en", "de", "never", None)
SHOPPERS = (ShopperKind.NEW, ShopperKind.RETURNING, ShopperKind.SIGNED_IN, None)
BUTTONS = [
    Context(place, code, category, situation, device, language, shopper)
    for code, category in crossing(CODES, CATEGORIES)
    for place, situation, device, language, shopper in crossing(PLACES, SITUATIONS, DEVICES, LANGUAGES, SHOPPERS)
]


def some(values: tuple[Any, ...]) -> st.SearchStrategy[tuple[Any, ...]]:
    """Return none, one or both of the first two values; most reaches narrow few dimensions."""
    return st.sampled_from([(), (), values[:1], values[1:2], values[:2]])


reaches = st.builds(
    Reach,
    products=some(CODES),
    categories=some(CATEGORIES),
    situations=some(SITUATIONS),
    placements=some(PLACES),
    devices=some(DEVICES),
    languages=some(LANGUAGES),
    shoppers=some(SHOPPERS),
    not_products=some(CODES),
    not_categories=some(CATEGORIES),
)


def covered(reach: Reach) -> set[int]:
    return {n for n, button in enumerate(BUTTONS) if reach.covers(button)}


@given(reaches, reaches)
def test_an_intersection_covers_what_both_cover_and_nothing_else(reach: Reach, other: Reach) -> None:
    both = reach.intersection(other)
    assert (covered(both) if both else set()) == covered(reach) & covered(other)
    assert (both is None) == (not covered(reach) & covered(other))


@given(reaches, reaches)
def test_a_reach_is_within_another_where_that_covers_all_of_it(reach: Reach, other: Reach) -> None:
    assert reach.is_within(other) == (covered(reach) <= covered(other))


@given(reaches, reaches)
def test_two_overlap_in_a_catalogue_where_one_of_its_products_or_an_unknown_one_is_in_both(
    reach: Reach, other: Reach
) -> None:
    codes = {(p.sku, p.category) for p in PRODUCTS} | {("", "")}
    named = Reach(**{**reach.model_dump(), "products": tuple(p.sku for p in PRODUCTS[:2])})
    for first in (reach, named):
        in_both = any(
            first.covers(button) and other.covers(button)
            for code, category in codes
            for button in (
                Context(place, code, category, situation, device, language, shopper)
                for place, situation, device, language, shopper in crossing(
                    PLACES, SITUATIONS, DEVICES, LANGUAGES, SHOPPERS
                )
            )
        )
        assert first.overlaps(other, PRODUCTS) == in_both
        assert first.overlaps(other, PRODUCTS) == other.overlaps(first, PRODUCTS)
        nobody_knows = first.covers_product("", "") and other.covers_product("", "")
        assert first.overlaps(other, ()) == (nobody_knows and first.intersection(other) is not None)


@given(reaches, reaches)
def test_of_two_that_overlap_one_stands_above_or_they_narrow_the_same(reach: Reach, other: Reach) -> None:
    stands = reach.is_more_particular(other) + other.is_more_particular(reach)
    assert stands == (reach.narrowed().keys() - {"not_products", "not_categories"} !=
                      other.narrowed().keys() - {"not_products", "not_categories"})  # fmt: skip


@given(reaches)
def test_products_in_their_situation_are_covered_as_their_buttons_are(reach: Reach) -> None:
    without = reach.model_copy(update=dict.fromkeys(("placements", "devices", "languages", "shoppers"), ()))
    for goods in PRODUCTS:
        button = Context(Placement.PRODUCT_PAGE, goods.sku, goods.category, goods.situation)
        assert reach.covers_goods(goods) == without.covers(button)
        assert reach.any_situation().covers_goods(goods) == reach.covers_product(goods.sku, goods.category)
