"""What the checks say about exceptions, texts and live values of a shop."""

from collections.abc import Sequence

import pytest

from tests.samples import PRODUCTS, exception, product, settings, snapshot
from uptick.core.button.document import Device, Placement, Situation
from uptick.core.button.merge import Json, merge_layer, merge_patch
from uptick.core.checks import Finding, Fix, Weight, dead_values, findings_of
from uptick.core.rules.reach import Reach
from uptick.core.rules.settings import Settings
from uptick.core.shop.catalogue import Product

PAGE, CARD = Placement.PRODUCT_PAGE, Placement.LISTING_CARD


def says(text: str, moment: str = "ready", language: str = "en-GB") -> Json:
    return {"wording": {moment: {language: text}}}


def found(of: Settings, rule: str, products: Sequence[Product] = PRODUCTS) -> list[Finding]:
    return [finding for finding in findings_of(snapshot(of, list(products))) if finding.rule == rule]


def fixed(of: Settings, fix: Fix) -> Settings:
    if fix.of_rule:
        raw = of.exception(fix.layer.removeprefix("exception:"))
        assert raw is not None
        changed = type(raw).model_validate({**raw.model_dump(), **fix.patch})
        return of.with_exception(raw.id, **{name: getattr(changed, name) for name in fix.patch})
    return of.with_layer(fix.layer, merge_patch(of.layer(fix.layer), fix.patch))


def test_equal_exceptions_that_differ_where_both_hold_are_a_conflict_and_either_mend_ends_it() -> None:
    made = settings(exception(1, says("one"), categories=("Tools",)), exception(2, says("two"), categories=("Tools",)))
    (finding,) = found(made, "conflict")
    assert finding.weight is Weight.MUST_FIX
    assert finding.title == "“Exception 1” and “Exception 2” disagree"
    assert "for 2 products that both reach" in finding.says
    assert "the later wins: “Exception 2”" in finding.says
    assert len(finding.fixes) == 2
    for fix in finding.fixes:
        assert found(fixed(made, fix), "conflict") == []


@pytest.mark.parametrize(
    ("one", "other"),
    [
        ({"categories": ("Tools",)}, {"categories": ("Jars",)}),
        ({"categories": ("Tools",)}, {"products": ("A1",)}),
        ({"placements": (PAGE,)}, {"placements": (CARD,)}),
        ({"devices": (Device.PHONE,)}, {"devices": (Device.TABLET,)}),
        ({"products": ("A1", "B1")}, {"products": ("A2", "C1")}),
    ],
)
def test_exceptions_that_never_meet_or_are_not_alike_are_no_conflict(one: Json, other: Json) -> None:
    assert found(settings(exception(1, says("one"), **one), exception(2, says("two"), **other)), "conflict") == []


def test_equal_exceptions_that_say_the_same_or_other_things_are_no_conflict() -> None:
    same = settings(exception(1, says("x"), products=("A1",)), exception(2, says("x"), products=("A1",)))
    apart = settings(exception(1, says("x"), products=("A1",)), exception(2, says("y", "added"), products=("A1",)))
    assert found(same, "conflict") == found(apart, "conflict") == []


def test_an_exception_that_reaches_nothing_is_said_and_switched_off() -> None:
    nobody = settings(exception(1, says("x"), categories=("Jars",), products=("A1",)))
    (finding,) = found(nobody, "reach")
    assert finding.says == "No product of the catalogue is in its reach."
    assert found(fixed(nobody, finding.fixes[0]), "reach") == []
    for_later = settings(exception(1, says("x"), categories=("Tools",), situations=(Situation.SOLD_OUT,)))
    assert found(for_later, "reach") == []


def test_a_value_that_a_closer_exception_always_beats_is_dead_and_can_be_taken_out() -> None:
    made = settings(
        exception(1, merge_layer(says("wide"), {"look": {"radius": 2}}), categories=("Hives",)),
        exception(2, says("near"), products=("C1", "D1", "D2")),
    )
    assert dead_values(snapshot(made)) == {"e1": ("wording.ready.en-GB",)}
    (finding,) = found(made, "dead")
    assert finding.weight is Weight.NOTE
    after = fixed(made, finding.fixes[0])
    assert after.layer("exception:e1") == {"wording": {"ready": {}}, "look": {"radius": 2}}
    assert found(after, "dead") == []


def test_texts_that_a_language_lacks_are_one_finding_and_an_exceptions_own_another() -> None:
    made = settings(exception(1, says("x"), products=("A1",)), more=("de-DE",))
    one, other = found(made, "language")
    assert (one.weight, one.title) == (Weight.LOOK_AGAIN, "German lacks 7 texts")
    assert (other.weight, other.title) == (Weight.NOTE, "“Exception 1” says nothing in German")
    for moment in ("ready", "working", "added", "in_basket", "choose_first", "pre_order", "sold_out"):
        made = made.with_layer("baseline", merge_layer(made.baseline, says("x", moment, "de-DE")))
    assert [f.weight for f in found(made, "language")] == [Weight.NOTE]


def test_a_live_value_that_some_product_has_not_is_said_with_how_many() -> None:
    made = settings(listing_card=says("Save {saving}"), product_page=says("{price}"))
    bare = [product("A1", was_minor=2000), product("A2", price_minor=None), product("A3")]
    by_title = {finding.title: finding for finding in found(made, "live_value", bare)}
    assert set(by_title) == {"{saving} has no value for 2 products", "{price} has no value for 1 product"}
    assert all(finding.weight is Weight.MUST_FIX for finding in by_title.values())
    hidden = settings(exception(1, {"placement": {"shown": False}}, products=("A2",)), product_page=says("{price}"))
    assert found(hidden, "live_value", bare) == []


def test_a_products_own_text_that_stops_at_one_place_is_told_unless_it_is_meant() -> None:
    made = settings(exception(1, says("Just this"), products=("A1",), placements=(PAGE,)))
    (finding,) = found(made, "differs")
    assert finding.title == "“Just this” and “Buy” for one product"
    for fix in finding.fixes:
        assert found(fixed(made, fix), "differs") == []
    everywhere = fixed(made, finding.fixes[0])
    assert everywhere.exceptions[0].reach == Reach(products=("A1",))


def test_a_text_is_tried_in_every_language_and_on_every_device_where_it_is_met() -> None:
    long_german = settings(listing_card=says("Dies ist viel zu lang", "ready", "de-DE"), more=("de-DE",))
    (finding,) = found(long_german, "fit")
    assert "(ready, German)" in finding.says
    assert "on a phone, where there are 140 px" in finding.says
    only_large = settings(
        exception(1, says("Dies ist viel zu lang"), devices=(Device.DESKTOP,), placements=(CARD,)), more=("de-DE",)
    )
    assert found(only_large, "fit") == []


def test_what_does_not_stand_is_not_checked() -> None:
    hidden: Json = merge_layer(says("Far too long to fit in there"), {"placement": {"shown": False}})
    assert found(settings(listing_card=hidden), "fit") == []
