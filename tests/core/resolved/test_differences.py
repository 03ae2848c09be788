"""What differs between two drafts, held to looking at every product in every context."""

import random
from itertools import product as crossing

import pytest

from tests.core.resolved.test_golden_shops import LANGUAGES, PRODUCTS, random_rule, shop
from tests.samples import PLACES, changes, exception, settings
from uptick.core.button.document import Device, Placement, ShopperKind
from uptick.core.resolved.classes import context_of
from uptick.core.resolved.differences import touches
from uptick.core.resolved.resolve import VersionLayer, resolve
from uptick.core.rules.reach import Reach
from uptick.core.rules.settings import Settings

SEERS = list(crossing(Device, LANGUAGES, ShopperKind))


def changed(seed: int) -> tuple[Settings, Settings]:
    """Return a random shop before and after an edit: of the baseline, of a text, of a rule's reach, or of its being."""
    rng = random.Random(seed)
    before = shop(seed)
    rules = before.exceptions
    edits = [
        before.with_layer("baseline", {**before.baseline, "wording": {"ready": {"en-GB": "Take it today"}}}),
        before.with_layer("place:strip", {"look": {"radius": 11}}),
        before.model_copy(update={"exceptions": rules[1:]}),
        before.model_copy(update={"exceptions": (*rules, random_rule(rng, 9))}),
        before.with_exception(rules[2].id, reach=random_rule(rng, 9).reach),
        before.with_exception(rules[0].id, on=False),
    ]
    return before, edits[seed % len(edits)]


@pytest.mark.parametrize("seed", range(12))
def test_just_the_products_whose_button_differs_for_somebody_are_told(seed: int) -> None:
    before, after = changed(seed)
    told = {
        (change.placement, product.sku, seer)
        for change in changes(before, after, PRODUCTS)
        for product in change.products
        for seer in change.seen_by
    }
    places = {(placement, sku) for placement, sku, _ in told}
    for placement, product in crossing(PLACES, PRODUCTS):
        differs = {
            seer
            for seer in SEERS
            if resolve(before, context_of(placement, product, None, *seer)).__dict__
            != resolve(after, context_of(placement, product, None, *seer)).__dict__
        }
        assert ((placement, product.sku) in places) == bool(differs)
        # Who sees it is told for a whole group, so it may be more than those who see it on one product.
        assert {(placement, product.sku, seer) for seer in differs} <= told


def test_of_a_placement_of_chosen_products_just_those_are_changed() -> None:
    first, second, *_ = sorted(product.sku for product in PRODUCTS)
    bar = Placement.STICKY_BAR

    def told(before: Settings, after: Settings, placement: Placement = bar) -> set[str]:
        found = changes(before, after, PRODUCTS)
        return {product.sku for change in found if change.placement is placement for product in change.products}

    def fixed(sku: str, radius: int) -> Settings:
        return settings(sticky_bar={"placement": {"product": sku}, "look": {"radius": radius}})

    assert told(fixed(first, 4), fixed(first, 5)) == {first}
    assert told(fixed(first, 4), fixed(second, 4)) == {first, second}
    assert told(fixed("", 4), fixed("", 5)) == {product.sku for product in PRODUCTS}
    everywhere = fixed(first, 4).with_layer("baseline", {**settings().baseline, "wording": {"ready": {"en-GB": "Now"}}})
    assert told(fixed(first, 4), everywhere) == {first}
    assert told(fixed(first, 4), everywhere, Placement.PRODUCT_PAGE) == {product.sku for product in PRODUCTS}


@pytest.mark.parametrize("seed", range(12))
def test_each_product_stands_once_in_a_change_and_each_change_says_what_it_changes(seed: int) -> None:
    for change in changes(*changed(seed), PRODUCTS):
        assert len({product.sku for product in change.products}) == len(change.products)
        assert change.fields
        assert all(field.before != field.after for field in change.fields)
        assert change.before.document != change.after.document


@pytest.mark.parametrize(
    ("reach", "is_touched"),
    [
        ({"devices": ("phone",)}, True),
        ({"devices": ("desktop",)}, False),
        ({"devices": ("phone",), "shoppers": ("returning",)}, True),
        ({"devices": ("phone",), "not_products": ("A1",)}, True),
        ({"devices": ("phone",), "products": ("A1",)}, True),
        ({"categories": ("Nothing",)}, False),
        ({"not_categories": ("Jars", "Tools", "Hives")}, False),
        ({"situations": ("sold_out",)}, True),
    ],
)
def test_a_trial_is_touched_by_what_those_in_it_would_see(reach: dict[str, tuple[str, ...]], is_touched: bool) -> None:
    before, after = settings(), settings(exception(1, {"look": {"radius": 9}}, devices=("phone",)))
    version = VersionLayer("1", "B", Reach(placements=(Placement.PRODUCT_PAGE,), **reach), {})
    assert touches(changes(before, after, PRODUCTS), version) is is_touched
