"""Baskets that answer as JSON: their names are found out from one answer in which one product lies."""

from decimal import Decimal
from typing import Any

import pytest

from uptick.core.pages import basket_addresses, json_read_of
from uptick.core.shop.connection import BasketJson


@pytest.mark.parametrize(
    ("told", "found"),
    [
        ({"count": 1, "items": [{"sku": "A-1", "option": "", "quantity": 1}]},
         BasketJson(path="/b", items="items", product="sku", quantity="quantity", option="", count="count")),
        # Names of its own, deep within, with a price that is as high as the count.
        ({"bag": {"lines": [{"goods": {"id": "A-1"}, "price": 1, "pieces": 1}], "total_price": 1, "items": 1}},
         BasketJson(path="/b", items="bag.lines", product="goods.id", quantity="pieces", option="", count="bag.items")),
        # The shop's own number; the count is not told; another product lies there as well.
        ({"entries": [{"ref": "9", "n": 3}, {"ref": 4711, "n": 1}]},
         BasketJson(path="/b", items="entries", product="ref", quantity="n", option="", count="")),
    ],
)  # fmt: skip
def test_lines_product_quantity_and_count_are_found_by_what_lies_in_them(told: Any, found: BasketJson) -> None:
    assert json_read_of("/b", told, {"A-1", "4711"}, 1) == found


def test_what_a_shown_basket_says_is_found_by_the_product_that_lies_in_it() -> None:
    line = {
        "sku": "A-1", "quantity": 2, "label": {"title": "Copper smoker, Large"},
        "price": "42.00", "line_total": "84.00", "img": "/pictures/a.svg?w=64", "href": "/p/A-1",
    }  # fmt: skip
    found = json_read_of("/b", {"items": [line], "grand": "84.00"}, {"A-1"}, 2, "Copper smoker", Decimal("42.00"))
    assert found is not None
    assert (found.name, found.picture, found.page) == ("label.title", "img", "href")
    assert (found.amount, found.sum, found.smallest) == ("line_total", "grand", None)
    # In pence; what is not there is not guessed.
    pence = {"items": [{"sku": "A-1", "quantity": 1, "cost": 4200, "weight": 42.0001}]}
    found = json_read_of("/b", pence, {"A-1"}, 1, "Copper smoker", Decimal("42.00"))
    assert found is not None
    assert (found.amount, found.smallest, found.sum, found.name) == ("cost", True, None, None)


@pytest.mark.parametrize(
    "told",
    [
        None, [], "text", {"items": []}, {"items": [{"sku": "B-2", "quantity": 1}]}, {"items": [{"sku": "A-1"}]},
        {"items": [{"sku": "A-1", "price": 1}]}, {"items": [1, 2]}, {"items": [{"sku": "A-1", "is_new": True}]},
    ],
)  # fmt: skip
def test_an_answer_that_does_not_tell_is_no_basket(told: Any) -> None:
    assert json_read_of("/b", told, {"A-1"}, 1) is None


def test_addresses_are_those_that_scripts_call_baskets() -> None:
    script = "fetch('/api/cart/lines', {}); fetch(`/basket.json`); const a = \"/about\"; '/basket.json'"
    scripts = [script, "//cart.example/x"]
    assert basket_addresses(scripts) == ("/api/cart/lines", "/basket.json")
