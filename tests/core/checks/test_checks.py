import random
from collections.abc import Sequence

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.samples import PLACES, PRODUCTS, exception, product, settings, snapshot
from uptick.core.button.document import Placement, require_layer
from uptick.core.button.merge import Json, merge_layer
from uptick.core.checks import Finding, Fix, Weight, findings_of
from uptick.core.resolved.classes import classes_of
from uptick.core.rules.settings import Settings
from uptick.core.shop.catalogue import Product

FIXED: Json = {"look": {"size": {"kind": "fixed", "width": 60, "height": 44}}}


def found(of: Settings, products: Sequence[Product] = PRODUCTS) -> tuple[Finding, ...]:
    return findings_of(snapshot(of, products))


def only(of: Settings, rule: str, products: Sequence[Product] = PRODUCTS) -> Finding:
    (finding,) = [f for f in found(of, products) if f.rule == rule]
    return finding


def fixed(of: Settings, fix: Fix) -> Settings:
    layer = of.layer(fix.layer)
    assert layer is not None
    return of.with_layer(fix.layer, merge_layer(layer, fix.patch))


def test_a_sound_shop_has_no_findings() -> None:
    assert found(settings()) == ()


def test_unreadable_words_are_one_finding_however_many_buttons_share_them() -> None:
    pale: Json = {"look": {"hover": {"fill": {"kind": "solid", "colour": "#dddddd"}}}}
    made = settings(exception(1, {"look": {"radius": 8}}, products=("A1",)))
    made = made.with_layer("baseline", merge_layer(made.baseline, pale))
    finding = only(made, "contrast")
    assert finding.weight is Weight.MUST_FIX
    assert {spot.placement for spot in finding.buttons} == set(PLACES)
    assert len(finding.buttons) == 2 * len(PLACES)
    assert finding.title == "Words when hovered 1.35 : 1, 4.5 is needed"
    assert {fix.layer for fix in finding.fixes} == {"baseline"}


def test_each_mend_of_contrast_removes_the_finding() -> None:
    made = settings(product_page={"look": {"fill": {"kind": "solid", "colour": "#8a8a8a"}}})
    finding = only(made, "contrast")
    assert len(finding.fixes) == 2
    for fix in finding.fixes:
        assert found(fixed(made, fix)) == ()


def test_disabled_words_may_be_pale_as_the_standard_allows() -> None:
    assert found(settings(product_page={"look": {"disabled": {"text_colour": "#eeeeee"}}})) == ()


def test_words_too_wide_for_the_longest_product_are_found_in_pixels_and_mended() -> None:
    made = settings(listing_card={"wording": {"ready": {"en-GB": "{name}"}}})
    finding = only(made, "fit")
    assert "A far longer thing than the others" in finding.says
    assert "on a phone, where there are 140 px" in finding.says
    assert finding.figure > finding.allowed == 140
    assert finding.says.endswith("No type from 12 px fits: say it shorter.")
    short = only(settings(product_page=merge_layer(FIXED, {"wording": {"ready": {"en-GB": "Take it"}}})), "fit")
    assert short.fixes
    for fix in short.fixes:
        after = fixed(settings(product_page=merge_layer(FIXED, {"wording": {"ready": {"en-GB": "Take it"}}})), fix)
        assert not [f for f in found(after) if f.rule == "fit"]


def test_where_no_single_mend_is_enough_some_together_are_offered() -> None:
    icon: Json = {"icon": {"kind": "shipped", "name": "basket"}, "wording": {"ready": {"en-GB": "Back in the spring"}}}
    made = settings(listing_card=icon)
    (fix,) = only(made, "fit").fixes
    assert fix.label.startswith("padding ")
    assert " type " in fix.label
    assert found(fixed(made, fix)) == ()


def test_words_too_high_are_found_and_mended() -> None:
    low: Json = {"look": {"size": {"kind": "fixed", "width": 200, "height": 30}}}
    made = settings(product_page=low)
    finding = only(made, "fit")
    assert finding.spot == "height"
    assert finding.title.startswith("Too high by ")
    for fix in finding.fixes:
        assert not [f for f in found(fixed(made, fix)) if f.rule == "fit"]


def test_a_button_too_small_for_a_finger_is_found_and_mended() -> None:
    small: Json = {"look": {"padding": {"top": 1, "bottom": 1}, "type": {"size_px": 12}}}
    made = settings(product_page=small)
    finding = only(made, "target_size")
    assert finding.allowed == 24
    assert finding.figure < 24
    (fix,) = finding.fixes
    assert found(fixed(made, fix)) == ()


def test_letters_that_the_typeface_lacks_are_worth_another_look() -> None:
    finding = only(settings(product_page={"wording": {"ready": {"en-GB": "蜂"}}}), "glyph")
    assert finding.weight is Weight.LOOK_AGAIN
    assert finding.title == "Figtree has no 蜂"


def test_a_button_higher_than_the_shops_own_is_worth_another_look() -> None:
    finding = only(settings(product_page={"look": {"padding": {"top": 30}}}), "own_size")
    assert finding.allowed == 52
    assert finding.figure > 52


def test_a_finding_of_an_exception_is_mended_in_the_exception() -> None:
    made = settings(exception(1, merge_layer(FIXED, {"wording": {"ready": {"en-GB": "All of it"}}}), products=("A1",)))
    fits = [f for f in found(made) if f.rule == "fit"]
    assert fits
    assert {fix.layer for f in fits for fix in f.fixes} == {"exception:e1"}


def test_an_exception_whose_product_is_gone_is_kept_and_said_to_sleep() -> None:
    made = settings(exception(1, FIXED, products=("A1",)))
    (finding,) = found(made, [product("B1", "Jars")])
    assert (finding.rule, finding.title) == ("reach", "“Exception 1” reaches nothing")
    assert finding.says == "A1 is not in the catalogue. It is inactive until then."
    (fix,) = finding.fixes
    assert fix.of_rule
    assert found(made.with_exception("e1", **fix.patch), [product("B1", "Jars")]) == ()


def test_the_worst_findings_come_first() -> None:
    made = settings(product_page={"look": {"padding": {"top": 30}, "fill": {"kind": "solid", "colour": "#8a8a8a"}}})
    weights = [f.weight for f in found(made)]
    assert weights == [Weight.MUST_FIX, Weight.LOOK_AGAIN]


@pytest.mark.parametrize("place", list(PLACES))
def test_findings_know_which_buttons_they_are_about(place: Placement) -> None:
    made = settings(**{place.value: {"look": {"fill": {"kind": "solid", "colour": "#8a8a8a"}}}})
    finding = only(made, "contrast")
    about = [c.placement for c in classes_of(snapshot(made)) if finding.is_about(c)]
    assert about == [place]


def test_a_valid_long_text_is_told_and_no_fix_is_offered_that_could_not_be_kept() -> None:
    """Two hundred wide letters need over a thousand pixels, more than a button can be set to."""
    of = settings(product_page={
        "look": {"size": {"kind": "fixed", "width": 140, "height": 40}, "type": {"size_px": 40}},
        "wording": {"ready": {"en-GB": "W" * 200}},
    })  # fmt: skip
    fits = [finding for finding in found(of) if finding.rule == "fit"]
    assert fits
    for finding in found(of):
        for fix in finding.fixes:
            if not fix.of_rule:
                require_layer(merge_layer(of.layer(fix.layer) or {}, fix.patch))


@given(st.integers(0, 10_000))
def test_every_fix_that_is_offered_can_be_kept(seed: int) -> None:
    rng = random.Random(seed)
    size = rng.choice([{"kind": "natural"}, {"kind": "fixed", "width": rng.choice([30, 130, 600, 990]),
                                            "height": rng.choice([16, 40, 399])}])  # fmt: skip
    icon = {"kind": "shipped", "name": "bag", "size_px": rng.choice([8, 96]), "gap_px": rng.choice([0, 64])}
    of = settings(product_page={
        "look": {"size": size, "type": {"size_px": rng.choice([8, 16, 72])}, "padding": {"top": rng.choice([0, 200])}},
        "icon": rng.choice([{"kind": "none"}, icon]),
        "wording": {"ready": {"en-GB": rng.choice(["Buy", "W" * 120, "A rather long text for a button"])}},
    })  # fmt: skip
    for finding in found(of):
        for fix in finding.fixes:
            if not fix.of_rule:
                require_layer(merge_layer(of.layer(fix.layer) or {}, fix.patch))


def test_what_a_product_without_a_price_would_say_is_told() -> None:
    of = settings(product_page={"wording": {"ready": {"en-GB": "Take it · {price}"}}})
    goods = [product("A1"), product("A2", price_minor=None)]
    told = only(of, "live_value", goods)
    assert told.says == "“Take it · {price}” on the product page. Thing A2 would say “Buy” instead."
    everywhere = settings().with_layer(
        "baseline", {**settings().baseline, "wording": {"ready": {"en-GB": "Add · {price}"}}}
    )
    assert "would say “Add” instead" in next(f for f in found(everywhere, goods) if f.rule == "live_value").says
