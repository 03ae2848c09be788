"""What the checks know of a drawn button: gradients, pictures, states, edges, rings, names, neighbours, what fits."""

from collections.abc import Sequence

import numpy as np
import pytest

from tests.samples import BASELINE, PRODUCTS, kit, settings, snapshot
from uptick.core.button.merge import Json, merge_layer
from uptick.core.checks import Finding, Fix, Weight, findings_of
from uptick.core.colour.colour import contrast_ratio
from uptick.core.colour.pictures import Picture
from uptick.core.drawing.kit import Kit
from uptick.core.rules.settings import Settings
from uptick.core.shop.catalogue import Product

PICTURE = "00000000000000aa"


def found(of: Settings, products: Sequence[Product] = PRODUCTS, using: Kit | None = None) -> tuple[Finding, ...]:
    return findings_of(snapshot(of, products, using=using))


def only(of: Settings, rule: str, using: Kit | None = None) -> Finding:
    (finding,) = [f for f in found(of, using=using) if f.rule == rule]
    return finding


def fixed(of: Settings, fix: Fix) -> Settings:
    return of.with_layer(fix.layer, merge_layer(of.layer(fix.layer) or {}, fix.patch))


def page(look: Json, **more: Json) -> Settings:
    return settings(product_page={"look": look, **more})


def test_an_icon_added_to_a_small_fixed_button_gets_three_computed_fixes() -> None:
    """Common practice: 110 × 39 px under a theme's 20 px padding does not take an icon; about 130 px does."""
    icon: Json = {"kind": "shipped", "name": "basket", "size_px": 18, "gap_px": 12}
    look: Json = {"size": {"kind": "fixed", "width": 110, "height": 39}, "type": {"size_px": 14},
                  "padding": {"top": 10, "bottom": 10, "left": 20, "right": 20}}  # fmt: skip
    words: Json = {moment: {"en-GB": "Buy now"} for moment in BASELINE["wording"]}
    made = page(look, icon=icon, wording=words)
    finding = only(made, "fit")
    labels = [fix.label for fix in finding.fixes]
    assert labels[0].endswith("px wide")
    assert 120 <= float(labels[0].split()[0]) <= 140
    assert len(labels) == 3
    for fix in finding.fixes:
        assert not [f for f in found(fixed(made, fix)) if f.rule == "fit"]


def test_a_gap_that_is_wide_enough_is_taken_in_first() -> None:
    icon: Json = {"kind": "shipped", "name": "basket", "size_px": 18, "gap_px": 20}
    words: Json = {moment: {"en-GB": "Buy now"} for moment in BASELINE["wording"]}
    fixed: Json = {"size": {"kind": "fixed", "width": 134, "height": 44}}
    finding = only(page(fixed, icon=icon, wording=words), "fit")
    assert [fix.label.split()[0] for fix in finding.fixes][1] == "gap"


def test_icon_and_words_that_touch_are_told_apart() -> None:
    icon: Json = {"kind": "shipped", "name": "basket", "gap_px": 1}
    finding = only(page({}, icon=icon), "touching")
    assert (finding.weight, finding.fixes[0].label) == (Weight.LOOK_AGAIN, "gap 6")


def test_what_an_ellipsis_hides_is_said() -> None:
    look: Json = {"wrap": "ellipsis", "size": {"kind": "natural", "most": 60}}
    finding = only(page(look, wording={"ready": {"en-GB": "Take it home"}}), "ellipsis")
    assert finding.title.startswith("An ellipsis hides “")
    assert not [f for f in found(fixed(page(look), finding.fixes[0])) if f.rule == "ellipsis"]


GRADIENT: Json = {
    "kind": "linear", "space": "srgb", "stops": [{"at": 0, "colour": "#000000"}, {"at": 100, "colour": "#ffffff"}],
}  # fmt: skip


def test_words_on_a_gradient_are_held_against_its_worst_place() -> None:
    """The ends alone would pass with grey words; in the middle they are lost."""
    finding = next(f for f in found(page({"fill": GRADIENT, "text_colour": "#808080"})) if f.rule == "contrast")
    assert finding.spot == "rest"
    assert finding.figure < 1.1


def test_a_gradient_is_mended_by_moving_it_as_a_whole() -> None:
    mild: Json = {**GRADIENT, "stops": [{"at": 0, "colour": "#5a5a5a"}, {"at": 100, "colour": "#8a8a8a"}]}
    made = page({"fill": mild})
    finding = next(f for f in found(made) if f.rule == "contrast" and f.spot == "rest")
    darker = next(fix for fix in finding.fixes if fix.label.startswith("gradient"))
    assert not [f for f in found(fixed(made, darker)) if f.rule == "contrast" and f.spot == "rest"]


def with_picture() -> Kit:
    pixels = np.full((100, 300, 3), 250, dtype=np.uint8)
    return Kit(kit().fonts, kit().icons, {PICTURE: Picture(pixels)})


def test_words_on_a_picture_are_held_against_its_pixels_and_a_scrim_mends_them() -> None:
    using = with_picture()
    fill: Json = {"kind": "picture", "picture": PICTURE, "scrim": {"colour": "#000000", "opacity": 0.1}}
    made = page({"fill": fill})
    finding = next(f for f in found(made, using=using) if f.rule == "contrast" and f.spot == "rest")
    assert "its picture" in finding.says
    (scrim,) = finding.fixes
    assert scrim.label.startswith("overlay ")
    again = [f for f in found(fixed(made, scrim), using=using) if f.rule == "contrast" and f.spot == "rest"]
    assert again == []


@pytest.mark.parametrize("state", ["hover", "pressed", "focus", "working", "added"])
def test_every_state_but_disabled_is_tested(state: str) -> None:
    """Source: WCAG 2.2, 1.4.3; disabled controls are exempt there."""
    pale: Json = {state: {"fill": {"kind": "solid", "colour": "#eeeeee"}, "text_colour": "#ffffff"}}
    finding = only(page(pale), "contrast")
    assert finding.spot == state
    assert {fix.layer for fix in finding.fixes} == {"place:product_page"}


def test_what_shines_through_is_tested_as_it_is_seen() -> None:
    seen = [f for f in found(page({"opacity": 0.3})) if f.rule == "contrast"]
    assert {f.spot for f in seen} >= {"rest", "hover"}
    assert all(f.figure < contrast_ratio("#ffffff", "#3a2a12") for f in seen)


def test_words_that_alone_carry_a_button_are_a_note_and_no_error() -> None:
    """Source: WCAG 2.2, 1.4.11: a button's edge need not be seen where its words say that it is one."""
    finding = only(page({"fill": {"kind": "none"}, "text_colour": "#111111"}), "words_alone")
    assert finding.weight is Weight.NOTE
    edged: Json = {"fill": {"kind": "none"}, "text_colour": "#111111", "border": {"kind": "line", "colour": "#555555"}}
    assert not [f for f in found(page(edged)) if f.rule == "words_alone"]


def test_a_focus_ring_must_be_seen_on_the_page_and_not_be_a_hair() -> None:
    """Source: WCAG 2.2, 1.4.11 (3 : 1) and 2.4.13 (2 px)."""
    pale = page({"focus": {"ring_colour": "#dddddd"}})
    finding = only(pale, "focus_ring")
    assert finding.weight is Weight.MUST_FIX
    assert not [f for f in found(fixed(pale, finding.fixes[0])) if f.rule == "focus_ring"]
    assert only(page({"focus": {"ring_width_px": 1}}), "focus_ring").weight is Weight.LOOK_AGAIN
    touching = page({"focus": {"ring_colour": "#4a3a22", "ring_offset_px": 0}})
    assert "on the fill that it touches" in only(touching, "focus_ring").title


def test_a_button_without_words_is_asked_for_a_name_in_every_language() -> None:
    """Source: WCAG 2.2, 4.1.2."""
    icon: Json = {"kind": "shipped", "name": "plus", "side": "alone", "size_px": 30}
    finding = only(page({}, icon=icon), "name")
    assert "“Buy” is read out until it has a name" in finding.says
    assert not [f for f in found(page({}, icon=icon, spoken={"en-GB": "Add to basket"})) if f.rule == "name"]


def test_an_icon_that_stands_alone_must_be_seen_on_its_fill() -> None:
    """Source: WCAG 2.2, 1.4.11: 3 : 1. #949494 on white has 3.03, #959595 has 2.99 by the definition."""
    icon: Json = {"kind": "shipped", "name": "plus", "side": "alone", "size_px": 30}
    white: Json = {"fill": {"kind": "solid", "colour": "#ffffff"}, "hover": {"fill": None, "text_colour": None}}

    def told(colour: str) -> list[str]:
        shop = page({**white, "text_colour": colour}, icon=icon)
        return [f.title for f in found(shop) if f.rule == "contrast" and "at rest" in f.title]

    assert told("#949494") == []
    assert told("#959595") == ["The icon at rest 2.99 : 1, 3 is needed"]
    pale = next(f for f in found(page({**white, "text_colour": "#959595"}, icon=icon)) if f.rule == "contrast")
    assert any(fix.label.startswith("icon #") for fix in pale.fixes)


def test_a_quantity_box_is_named_in_every_language_or_that_is_told() -> None:
    """Source: WCAG 2.2, 3.1.2 and 4.1.2. Welsh is not among the languages whose names ship."""
    box: Json = {"kind": "box", "layout": "sides"}
    shop = settings(product_page={"quantity": box}, more=("de-DE", "cy-GB"))
    assert "no name in Welsh" in only(shop, "box_name").title
    own: Json = {"quantity": "Nifer", "fewer": "Llai", "more": "Mwy"}
    named = settings(product_page={"quantity": {**box, "names": {"cy-GB": own}}}, more=("de-DE", "cy-GB"))
    assert not [f for f in found(named) if f.rule == "box_name"]


SECOND: Json = {
    "kind": "checkout", "wording": {"en-GB": "Now"}, "radius": 4, "size_px": 16, "weight": 600,
    "padding": {"top": 12, "bottom": 12, "left": 8, "right": 8}, "border": {"kind": "none"},
    "fill": {"kind": "solid", "colour": "#ffffff"},
}  # fmt: skip


def test_a_neighbour_of_another_height_or_type_is_matched_by_a_press() -> None:
    """Common practice: people notice 16 px type beside 14 px at once."""
    made = page({}, second={**SECOND, "size_px": 14, "border": {"kind": "line", "width_px": 3}})
    finding = only(made, "neighbour")
    assert "px" in finding.title
    after = fixed(made, finding.fixes[0])
    assert not [f for f in found(after) if f.rule == "neighbour"]
    # A closer look is meant to be less than what buys.
    closer = page({}, second={**SECOND, "kind": "closer", "size_px": 14})
    assert not [f for f in found(closer) if f.rule == "neighbour"]


def test_two_look_alike_buttons_are_told_also_for_colour_blind_shoppers() -> None:
    alike = page({}, second={**SECOND, "fill": {"kind": "solid", "colour": "#3a2b14"}})
    assert "by nobody" in only(alike, "look_alike").title
    # A red and a green of one lightness: plain to most, alike to some (simulated after Machado and others, 2009).
    red_green = page(
        {"fill": {"kind": "solid", "colour": "#a23b2a"}},
        second={**SECOND, "fill": {"kind": "solid", "colour": "#5a6420"}},
    )
    assert "blind shoppers" in only(red_green, "look_alike").title
    assert not [f for f in found(page({}, second=SECOND)) if f.rule == "look_alike"]


def test_words_on_what_is_see_through_are_held_against_the_real_page() -> None:
    """White words on black at a quarter: 191 of 255 over white (1.83 : 1), and black itself over black (21 : 1)."""
    look: Json = {"fill": {"kind": "solid", "colour": "#00000040"}, "text_colour": "#ffffff"}
    finding = only(page(look), "contrast")
    assert finding.figure == pytest.approx(contrast_ratio("#ffffff", "#bfbfbf"), abs=0.01)
    for fix in finding.fixes:
        assert not [f for f in found(fixed(page(look), fix)) if f.rule == "contrast" and f.spot == "rest"]


def test_see_through_words_are_mended_by_words_that_let_nothing_through() -> None:
    look: Json = {"fill": {"kind": "solid", "colour": "#777777"}, "text_colour": "#ffffff99"}
    finding = next(f for f in found(page(look)) if f.rule == "contrast" and f.spot == "rest")
    assert finding.says.startswith("#ffffff99 on #777777")
    assert [len(fix.patch["look"]["text_colour"]) for fix in finding.fixes] == [7]
