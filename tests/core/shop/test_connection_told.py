"""How a line of the basket is changed and where a product's kinds are told: what could not work is refused."""

from typing import Any

import pytest
from pydantic import ValidationError

from uptick.core.release.manifest import wire_basket
from uptick.core.shop.connection import BasketChange, BasketJson, FormPost, VariantsJson


@pytest.mark.parametrize(
    ("change", "says"),
    [
        ({"path": "/set", "body": {"sku": "{product}"}}, "put {quantity}"),
        ({"path": "/set", "body": {"n": "{quantity}"}}, "put {line} or {product}"),
        ({"path": "/set", "body": {"n": "{quantity}", "sku": "{product}", "x": "{price}"}}, "{price} is not known"),
        ({"path": "//evil.example/set", "body": {"n": "{quantity}", "l": "{line}"}}, "String should match pattern"),
        ({"path": "/set", "body": {"lines": [{"l": "{line}", "n": "{quantity}"}]}}, "what is nested goes as JSON"),
    ],
)
def test_a_change_says_which_line_and_how_many(change: dict[str, Any], says: str) -> None:
    with pytest.raises(ValidationError, match=says.replace("{", r"\{").replace("}", r"\}")):
        BasketChange.model_validate(change)


def test_a_change_may_say_its_line_in_the_address() -> None:
    change = BasketChange(path="/lines/{line}", method="PUT", sent_as="json", body={"deep": [{"n": "{quantity}"}]})
    assert change.path == "/lines/{line}"


def test_kinds_are_told_by_product_and_apart() -> None:
    assert VariantsJson(path="/kinds/{product}", options=("as.kind",)).product == "sku"
    with pytest.raises(ValidationError, match="put \\{product\\}"):
        VariantsJson(path="/kinds", options=("kind",))
    with pytest.raises(ValidationError, match="at least 1 item"):
        VariantsJson(path="/kinds/{product}", options=())


def test_what_is_not_said_does_not_travel() -> None:
    plain = wire_basket(FormPost(add_path="/add", product_field="sku", read=BasketJson(path="/b")))
    assert "change" not in plain
    assert "variants" not in plain
    assert set(plain["read"]) == {"kind", "path", "count", "items", "product", "option", "quantity"}
