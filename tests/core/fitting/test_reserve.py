"""The height that is kept free must hold whatever stands there, on every device."""

import random
from typing import Any

import pytest

from tests.random_buttons import random_button
from tests.samples import PRODUCTS, document, exception, kit, release, settings, snapshot, store
from uptick.core.button.document import Device, Moment, Placement
from uptick.core.button.merge import Json
from uptick.core.drawing.boxes import lay_out
from uptick.core.drawing.compile import reserved_height
from uptick.core.fitting.fill import text_for
from uptick.core.fitting.reserve import reserve, row_height
from uptick.core.resolved.classes import classes_of

PLACE = Placement.PRODUCT_PAGE
WRAPS: Json = {"look": {"wrap": "lines", "size": {"kind": "natural", "most": 90}}}


def reserved(made: Any) -> Any:
    return release(made)


def high_of(made: Json, key: str = "", place: str = "product_page") -> Any:
    return made["looks"][made["places"][place]["looks"][key]]["high"]


def test_one_line_of_words_has_one_height_everywhere() -> None:
    assert high_of(reserved(settings())) == reserved_height(document(), kit())


def test_words_that_wrap_reserve_the_lines_of_the_longest_text_that_some_exception_says() -> None:
    short = settings(product_page=WRAPS)
    one_line = high_of(reserved(settings(product_page={**WRAPS, "look": {**WRAPS["look"], "wrap": "none"}})))
    said = {"wording": {"ready": {"en-GB": "Put this one on the list for the whole of the coming spring"}}}
    long = settings(exception(1, said, products=("A1",)), product_page=WRAPS)
    assert high_of(reserved(short)) > one_line
    assert high_of(reserved(long)) > high_of(reserved(short)) + 2 * 16


def test_heights_that_go_by_the_window_are_told_for_each_device() -> None:
    high = high_of(reserved(settings(product_page={"look": {"padding": {"top": "2vw", "bottom": "2vw"}}})))
    assert high["desktop"] - high["phone"] == pytest.approx(4 * (1280 - 375) / 100)


def test_a_second_button_under_the_first_is_part_of_what_is_reserved() -> None:
    second: Json = {
        "kind": "checkout", "side": "under", "wording": {"en-GB": "Now"}, "radius": 4, "gap_px": 8,
        "padding": {"top": 12, "bottom": 12, "left": 8, "right": 8},
    }  # fmt: skip
    alone = high_of(reserved(settings()))
    assert high_of(reserved(settings(product_page={"second": second}))) >= 2 * alone


def test_whatever_stands_there_fits_in_what_is_reserved() -> None:
    """Over random buttons in every moment, for every product and on every device."""
    rng = random.Random(11)
    for _ in range(60):
        made = settings(product_page=random_button(rng))
        button = next(c for c in classes_of(snapshot(made)) if c.placement is PLACE and not c.rules)
        high = reserve(snapshot(made), button.document, (button,))
        for device in store().surfaces[PLACE].widths_px:
            free = high[Device(device).value] if isinstance(high, dict) else high
            for product in PRODUCTS:
                for moment in Moment:
                    text = text_for(button.document, moment, "en-GB", product, 2, "en-GB")
                    drawn = lay_out(button.document, text, kit(), store().ground(PLACE, device), language="en-GB")
                    assert row_height(drawn) <= free + 0.01, (device, text, button.document.look)
