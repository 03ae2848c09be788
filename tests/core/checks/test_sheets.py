"""What opens after a press is read, and the shop must tell what it is to show."""

from typing import Any

import pytest

from tests.samples import PRODUCTS, kit, settings, store
from uptick.core.checks import findings_of
from uptick.core.engine.shops import CompiledShop
from uptick.core.shop.connection import BasketChange, BasketConnection, BasketJson, BasketPage

SHOW: dict[str, Any] = {"afterwards": {"kind": "show"}}
WHOLE = BasketJson(path="/b", name="name", amount="total", sum="sum")
CHANGE = BasketChange(path="/set", body={"sku": "{product}", "n": "{quantity}"})


def told(layer: dict[str, Any], **connection: Any) -> list[tuple[str, str]]:
    made: BasketConnection = store().connection.model_copy(update=connection)
    of = settings(**{place.value: layer for place in store().places})
    found = findings_of(CompiledShop(lambda _: kit()).at(of, PRODUCTS, store().model_copy(update={"connection": made})))
    return [(finding.rule, finding.title) for finding in found if finding.rule in ("sheet", "basket")]


def test_nothing_is_said_of_a_basket_that_is_told_whole() -> None:
    assert told({**SHOW, "afterwards": {"kind": "show", "free_from": 50}}, read=WHOLE, change=CHANGE) == []


@pytest.mark.parametrize(
    ("connection", "says"),
    [
        ({"read": BasketPage(path="/b", selector=".n"), "change": None}, "The basket that is shown has no lines"),
        ({"read": None, "change": None}, "The basket that is shown has no lines"),
        (
            {"read": WHOLE.model_copy(update={"name": None, "amount": None}), "change": CHANGE},
            "The lines of the basket that is shown have no name and no amount",
        ),
        ({"read": WHOLE, "change": None}, "The basket that is shown can only be looked at"),
        (
            {"read": WHOLE.model_copy(update={"sum": None}), "change": CHANGE},
            "Nobody is told from when delivery is free",
        ),
    ],
)
def test_what_the_shop_does_not_tell_is_found(connection: dict[str, Any], says: str) -> None:
    assert told({"afterwards": {"kind": "show", "free_from": 50}}, **connection) == [("basket", says)]


def test_words_that_are_hard_to_read_on_a_sheet_are_found() -> None:
    # WCAG 2.2, 1.4.3: #777777 on white is 4.48 : 1, a common worked example of what just fails (from memory).
    faint = {**SHOW, "sheet": {"ink": "#777777"}}
    assert told(faint, read=WHOLE, change=CHANGE) == [("sheet", "Words on the sheet 4.4 : 1, 4.5 is needed")]
    assert told({"sheet": {"ink": "#777777"}}) == []
