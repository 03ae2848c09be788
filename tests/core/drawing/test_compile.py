import re
from datetime import UTC, date, datetime
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.samples import NOW, PLACES, changes, document, exception, kit, release, settings, snapshot
from uptick.core.button.document import Placement
from uptick.core.button.merge import Json
from uptick.core.drawing.compile import BASE_CSS, compile_button, compile_words
from uptick.core.errors import OutOfRange
from uptick.core.release import compile_version, content_hash
from uptick.core.resolved.differences import touches
from uptick.core.resolved.resolve import VersionLayer
from uptick.core.rules.reach import Reach


def test_the_style_sheet_says_what_the_document_says() -> None:
    made = compile_button(document({"look": {"size": {"kind": "full"}, "radius": 6}}), kit())
    assert "width:100%" in made["css"]
    assert "padding-block:12px 12px;padding-inline:20px 20px" in made["css"]
    assert "border-radius:6px" in made["css"]
    assert "font:600 16px/19px up-figtree,up-vazirmatn,sans-serif" in made["css"]
    assert made["wide"] is True
    assert ".b" in BASE_CSS


def test_texts_are_laid_out_by_moment_and_language_as_the_script_fills_them() -> None:
    text = "{count, plural, =2 {a pair} one {# here} other {# of {name}}}!"
    assert compile_words({"wording": {"added": {"en-GB": text}}}) == {
        "added": {
            "en-GB": [
                {"p": "count", "=2": ["a pair"], "one": [{"v": "count"}, " here"],
                 "other": [{"v": "count"}, " of ", {"v": "name"}]}, "!",
            ]
        }
    }  # fmt: skip


def test_an_icon_is_drawn_from_the_shipped_set_or_refused() -> None:
    icon: dict[str, Any] = {"kind": "shipped", "name": "basket", "side": "after"}
    made = compile_button(document({"icon": icon}), kit())
    assert made["icon"] is not None
    assert made["icon"]["side"] == "after"
    assert re.fullmatch(r"[MmLlHhVvCcSsQqTtAaZz0-9eE.,\- ]+", made["icon"]["paths"][0]["d"])
    with pytest.raises(OutOfRange, match=r"icon\.name"):
        compile_button(document({"icon": {**icon, "name": "trolley-of-doom"}}), kit())


@given(st.text(max_size=40).filter(lambda text: "{" not in text and "}" not in text))
def test_no_text_of_a_designer_reaches_the_style_sheet(text: str) -> None:
    plain = compile_button(document(), kit())
    worded = compile_button(document({"wording": {"ready": {"en-GB": text or "x"}}}), kit())
    assert worded["css"] == plain["css"]


def test_a_release_carries_each_look_once_and_says_which_class_has_it() -> None:
    made = settings(exception(1, {"look": {"radius": 8}}, categories=("Jars",), placements=("listing_card",)))
    compiled = release(made)
    assert compiled["places"]["listing_card"]["looks"] == {"": 0, "e1": 1}
    assert compiled["places"]["product_page"]["looks"] == {"": 0}
    assert len(compiled["looks"]) == 3  # the bar says itself what it holds
    assert compiled["rules"][0]["reach"] == {"categories": ["Jars"], "placements": ["listing_card"]}
    assert [font["family"] for font in compiled["fonts"]] == ["up-figtree", "up-figtree"]


def test_a_release_names_quantity_boxes_where_there_are_any() -> None:
    own = {"quantity": "Gläser", "fewer": "Weniger", "more": "Mehr"}
    box: Json = {"kind": "box", "names": {"de-DE": own}}
    made = release(settings(product_page={"quantity": box}, more=("de-DE",)))
    assert made["languages"]["de-DE"]["box"] == ("Menge", "Weniger", "Mehr")
    assert made["languages"]["en-GB"]["box"] == ("Quantity", "Fewer", "More")
    boxed = [look["quantity"] for look in made["looks"] if look["quantity"]]
    assert boxed[0]["names"] == {"de-DE": ["Gläser", "Weniger", "Mehr"]}
    assert "box" not in release(settings())["languages"]["en-GB"]


def test_an_exception_that_is_off_is_not_released() -> None:
    off = exception(1, {"look": {"radius": 8}}, products=("A1",)).model_copy(update={"on": False})
    compiled = release(settings(off))
    assert compiled["rules"] == []
    assert set(compiled["places"]["product_page"]["looks"]) == {""}


def test_exceptions_are_released_in_the_order_in_which_they_apply_with_their_days() -> None:
    text: Json = {"wording": {"ready": {"en-GB": "x"}}}
    narrow = exception(1, text, products=("A1",))
    dated = exception(2, text, categories=("Tools",)).model_copy(
        update={"starts_on": date(2026, 3, 10), "ends_on": date(2026, 3, 20)}
    )
    first, second = release(settings(narrow, dated))["rules"]
    assert (first["id"], second["id"]) == ("e2", "e1")
    assert first["from"] == datetime(2026, 3, 10, tzinfo=UTC).timestamp() * 1000
    assert first["until"] == datetime(2026, 3, 21, tzinfo=UTC).timestamp() * 1000
    assert "from" not in second


def test_a_look_that_sleeps_today_is_compiled_for_the_day_on_which_it_wakes() -> None:
    round_, green = (
        exception(1, {"look": {"radius": 9}}, products=("A1",)),
        exception(2, {"icon": {"kind": "none"}, "look": {"radius": 3}}, categories=("Tools",)),
    )
    later = green.model_copy(update={"starts_on": date(2026, 5, 1)})
    looks = release(settings(round_, later))["places"]["strip"]["looks"]
    assert {"", "e1", "e2", "e2,e1"} <= set(looks)


def test_equal_content_has_an_equal_name() -> None:
    assert content_hash({"a": 1, "b": [2]}) == content_hash({"b": [2], "a": 1})
    assert content_hash({"a": 1}) != content_hash({"a": 2})


def test_changes_are_told_once_for_products_that_change_alike() -> None:
    before, after = settings(), settings(exception(1, {"look": {"radius": 8}}, categories=("Jars",)))
    told = changes(before, after)
    assert [(c.placement, [p.sku for p in c.products]) for c in told] == [
        (placement, ["B1", "B2"]) for placement in PLACES
    ]
    (field,) = told[0].fields
    assert (field.path, field.field, field.before, field.after) == ("look.radius", "corner radius", "4", "8")
    assert changes(after, after) == ()


def test_a_version_is_compiled_for_the_places_of_its_trial_only() -> None:
    version = VersionLayer("1", "B", Reach(placements=(Placement.PRODUCT_PAGE,)), {"look": {"radius": 20}})
    compiled = compile_version(snapshot(settings()), version, NOW.date())
    assert set(compiled["looks"]) == {"product_page"}
    assert "border-radius:20px" in compiled["looks"]["product_page"][""]["css"]
    says = VersionLayer("3", "B", Reach(), {"wording": {"ready": {"en-GB": "Now"}}})
    worded = compile_version(snapshot(settings()), says, NOW.date())
    assert worded == {"words": {"ready": {"en-GB": ["Now"]}}, "looks": {}}
    narrow = VersionLayer("2", "B", Reach(categories=("Jars",)), {"look": {"radius": 20}})
    everywhere = compile_version(snapshot(settings()), narrow, NOW.date())
    assert "border-radius:20px" in everywhere["looks"]["listing_card"][""]["css"]
    changed = settings(listing_card={"look": {"radius": 1}})
    assert not touches(changes(settings(), changed), version)
    changed = settings(product_page={"look": {"radius": 1}})
    assert touches(changes(settings(), changed), version)
