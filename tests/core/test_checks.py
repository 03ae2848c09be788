from collections.abc import Sequence

import pytest

from tests.samples import PRODUCTS, exception, kit, product, settings, store
from uptick.core.catalogue import Product
from uptick.core.checks import Finding, Mend, Weight, findings_of
from uptick.core.classes import classes_of
from uptick.core.document import Placement
from uptick.core.merge import Json, merge_layer
from uptick.core.settings import Settings

FIXED: Json = {"look": {"size": {"kind": "fixed", "width": 60, "height": 44}}}


def found(of: Settings, products: Sequence[Product] = PRODUCTS) -> tuple[Finding, ...]:
    return findings_of(of, products, store(), kit())


def only(of: Settings, rule: str, products: Sequence[Product] = PRODUCTS) -> Finding:
    (one,) = [f for f in found(of, products) if f.rule == rule]
    return one


def mended(of: Settings, mend: Mend) -> Settings:
    layer = of.layer(mend.layer)
    assert layer is not None
    return of.with_layer(mend.layer, merge_layer(layer, mend.patch))


def test_a_sound_shop_has_no_findings() -> None:
    assert found(settings()) == ()


def test_unreadable_words_are_one_finding_however_many_buttons_share_them() -> None:
    pale: Json = {"look": {"hover": {"fill": {"kind": "solid", "colour": "#dddddd"}}}}
    made = settings(exception(1, {"look": {"radius": 8}}, products=("A1",)))
    made = made.with_layer("baseline", merge_layer(made.baseline, pale))
    one = only(made, "contrast")
    assert one.weight is Weight.MUST_FIX
    assert {spot.placement for spot in one.buttons} == set(Placement)
    assert len(one.buttons) == 2 * len(Placement)
    assert one.title == "Words when hovered 1.35 : 1, 4.5 is needed"
    assert {mend.layer for mend in one.mends} == {"baseline"}


def test_each_mend_of_contrast_removes_the_finding() -> None:
    made = settings(product_page={"look": {"fill": {"kind": "solid", "colour": "#8a8a8a"}}})
    one = only(made, "contrast")
    assert len(one.mends) == 2
    for mend in one.mends:
        assert found(mended(made, mend)) == ()


def test_disabled_words_may_be_pale_as_the_standard_allows() -> None:
    assert found(settings(product_page={"look": {"disabled": {"text_colour": "#eeeeee"}}})) == ()


def test_words_too_wide_for_the_longest_product_are_found_in_pixels_and_mended() -> None:
    made = settings(listing_card={"wording": {"ready": {"en-GB": "{name}"}}})
    one = only(made, "fit")
    assert "A far longer thing than the others" in one.says
    assert "on a phone, where there are 140 px" in one.says
    assert one.figure > one.allowed == 140
    assert one.says.endswith("No type from 12 px fits: say it shorter.")
    short = only(settings(product_page=merge_layer(FIXED, {"wording": {"ready": {"en-GB": "Take it"}}})), "fit")
    assert short.mends
    for mend in short.mends:
        after = mended(settings(product_page=merge_layer(FIXED, {"wording": {"ready": {"en-GB": "Take it"}}})), mend)
        assert not [f for f in found(after) if f.rule == "fit"]


def test_where_no_single_mend_is_enough_some_together_are_offered() -> None:
    icon: Json = {"icon": {"kind": "shipped", "name": "basket"}, "wording": {"ready": {"en-GB": "Back in the spring"}}}
    made = settings(listing_card=icon)
    (mend,) = only(made, "fit").mends
    assert mend.label.startswith("padding ")
    assert " type " in mend.label
    assert found(mended(made, mend)) == ()


def test_words_too_high_are_found_and_mended() -> None:
    low: Json = {"look": {"size": {"kind": "fixed", "width": 200, "height": 30}}}
    made = settings(product_page=low)
    one = only(made, "fit")
    assert one.spot == "height"
    assert one.title.startswith("Too high by ")
    for mend in one.mends:
        assert not [f for f in found(mended(made, mend)) if f.rule == "fit"]


def test_a_button_too_small_for_a_finger_is_found_and_mended() -> None:
    small: Json = {"look": {"padding": {"top": 1, "bottom": 1}, "type": {"size_px": 12}}}
    made = settings(product_page=small)
    one = only(made, "target_size")
    assert one.allowed == 24
    assert one.figure < 24
    (mend,) = one.mends
    assert found(mended(made, mend)) == ()


def test_letters_that_the_typeface_lacks_are_worth_another_look() -> None:
    one = only(settings(product_page={"wording": {"ready": {"en-GB": "蜂"}}}), "glyph")
    assert one.weight is Weight.LOOK_AGAIN
    assert one.title == "Figtree has no 蜂"


def test_a_button_higher_than_the_shops_own_is_worth_another_look() -> None:
    one = only(settings(product_page={"look": {"padding": {"top": 30}}}), "own_size")
    assert one.allowed == 52
    assert one.figure > 52


def test_a_finding_of_an_exception_is_mended_in_the_exception() -> None:
    made = settings(exception(1, merge_layer(FIXED, {"wording": {"ready": {"en-GB": "All of it"}}}), products=("A1",)))
    fits = [f for f in found(made) if f.rule == "fit"]
    assert fits
    assert {mend.layer for f in fits for mend in f.mends} == {"exception:e1"}


def test_an_exception_whose_product_is_gone_is_kept_and_said_to_sleep() -> None:
    made = settings(exception(1, FIXED, products=("A1",)))
    (one,) = found(made, [product("B1", "Jars")])
    assert (one.rule, one.title) == ("reach", "“Exception 1” reaches nothing")
    assert one.says == "A1 is not in the catalogue. It sleeps until then."
    (mend,) = one.mends
    assert mend.of_rule
    assert found(made.with_exception("e1", **mend.patch), [product("B1", "Jars")]) == ()


def test_the_worst_findings_come_first() -> None:
    made = settings(product_page={"look": {"padding": {"top": 30}, "fill": {"kind": "solid", "colour": "#8a8a8a"}}})
    weights = [f.weight for f in found(made)]
    assert weights == [Weight.MUST_FIX, Weight.LOOK_AGAIN]


@pytest.mark.parametrize("place", list(Placement))
def test_findings_know_which_buttons_they_are_about(place: Placement) -> None:
    made = settings(**{place.value: {"look": {"fill": {"kind": "solid", "colour": "#8a8a8a"}}}})
    one = only(made, "contrast")
    about = [c.placement for c in classes_of(made, PRODUCTS) if one.is_about(c)]
    assert about == [place]
