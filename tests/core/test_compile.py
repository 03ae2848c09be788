import re
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.samples import PRODUCTS, document, exception, kit, settings, store
from uptick.core.compile import compile_button
from uptick.core.document import Placement
from uptick.core.errors import OutOfRange
from uptick.core.reach import Reach
from uptick.core.release import changes_between, compile_release, compile_version, content_hash, touches
from uptick.core.resolve import VersionLayer

LANGUAGES = ("en-GB",)


def test_the_style_sheet_says_what_the_document_says() -> None:
    made = compile_button(document({"look": {"size": {"kind": "full"}, "radius_px": 6}}), kit(), LANGUAGES)
    assert "width:100%" in made["css"]
    assert "padding:12px 20px 12px 20px" in made["css"]
    assert "border-radius:6px" in made["css"]
    assert "font:600 16px/normal up-figtree,sans-serif" in made["css"]
    assert made["wide"] is True
    assert made["words"]["en-GB"]["in_basket"] == [{"v": "count"}, " in basket"]


def test_an_icon_is_drawn_from_the_shipped_set_or_refused() -> None:
    icon: dict[str, Any] = {"kind": "shipped", "name": "basket", "side": "after"}
    made = compile_button(document({"icon": icon}), kit(), LANGUAGES)
    assert made["icon"] is not None
    assert made["icon"]["side"] == "after"
    assert re.fullmatch(r"[MmLlHhVvCcSsQqTtAaZz0-9eE.,\- ]+", made["icon"]["path"])
    with pytest.raises(OutOfRange, match=r"icon\.name"):
        compile_button(document({"icon": {**icon, "name": "trolley-of-doom"}}), kit(), LANGUAGES)


@given(st.text(max_size=40).filter(lambda text: "{" not in text and "}" not in text))
def test_no_text_of_a_designer_reaches_the_style_sheet(text: str) -> None:
    plain = compile_button(document(), kit(), LANGUAGES)
    worded = compile_button(document({"wording": {"ready": {"en-GB": text or "x"}}}), kit(), LANGUAGES)
    assert worded["css"] == plain["css"]


def test_a_release_carries_one_button_for_each_class_and_place() -> None:
    made = settings(exception(1, {"look": {"radius_px": 8}}, categories=("Jars",), placements=("listing_card",)))
    compiled = compile_release(made, store(), PRODUCTS, kit())
    assert set(compiled["places"]["listing_card"]) == {"", "e1"}
    assert set(compiled["places"]["product_page"]) == {""}
    assert compiled["rules"][0]["rank"] == (False, True, False, True)
    assert [font["family"] for font in compiled["fonts"]] == ["up-figtree", "up-figtree"]
    assert compiled["basket"]["product_field"] == "sku"


def test_an_exception_that_is_off_is_not_released() -> None:
    off = exception(1, {"look": {"radius_px": 8}}, products=("A1",)).model_copy(update={"on": False})
    compiled = compile_release(settings(off), store(), PRODUCTS, kit())
    assert compiled["rules"] == []
    assert set(compiled["places"]["product_page"]) == {""}


def test_equal_content_has_an_equal_name() -> None:
    assert content_hash({"a": 1, "b": [2]}) == content_hash({"b": [2], "a": 1})
    assert content_hash({"a": 1}) != content_hash({"a": 2})


def test_changes_are_told_once_for_products_that_change_alike() -> None:
    before, after = settings(), settings(exception(1, {"look": {"radius_px": 8}}, categories=("Jars",)))
    changes = changes_between(before, after, PRODUCTS)
    assert [(c.placement, [p.sku for p in c.products]) for c in changes] == [
        (Placement.PRODUCT_PAGE, ["B1", "B2"]),
        (Placement.LISTING_CARD, ["B1", "B2"]),
    ]
    (field,) = changes[0].fields
    assert (field.path, field.field, field.before, field.after) == ("look.radius_px", "corner radius", "4", "8")
    assert changes_between(after, after, PRODUCTS) == ()


def test_a_version_is_compiled_for_the_places_of_its_trial_only() -> None:
    version = VersionLayer("1", "B", Reach(placements=(Placement.PRODUCT_PAGE,)), {"look": {"radius_px": 20}})
    compiled = compile_version(settings(), store(), PRODUCTS, kit(), version)
    assert set(compiled) == {"product_page"}
    assert "border-radius:20px" in compiled["product_page"][""]["css"]
    narrow = VersionLayer("2", "B", Reach(categories=("Jars",)), {"look": {"radius_px": 20}})
    everywhere = compile_version(settings(), store(), PRODUCTS, kit(), narrow)
    assert "border-radius:20px" in everywhere["listing_card"][""]["css"]
    changed = settings(listing_card={"look": {"radius_px": 1}})
    assert not touches(changes_between(settings(), changed, PRODUCTS), version)
    changed = settings(product_page={"look": {"radius_px": 1}})
    assert touches(changes_between(settings(), changed, PRODUCTS), version)
