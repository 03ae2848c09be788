"""Rows of cards whose buttons stand apart: by pixels, by row, with the rule that levels them."""

from typing import Any

import pytest
from pydantic import ValidationError

from tests.core.scroll.pages import place, rect, survey
from tests.samples import release, settings
from uptick.core.button.document import Device, Standing
from uptick.core.scroll import PageSurvey, ScrollFinding, check_rows


def card(x: float, y: float, button_y: float, high: float = 300, selector: str = "li.card") -> dict[str, Any]:
    spot = place(button_y, placement="listing_card")
    spot["box"] = spot["room"] = rect(x + 10, button_y, 100, 40)
    return {**spot, "card": {"box": rect(x, y, 120, high), "selector": selector}}


def found_in(page: PageSurvey) -> list[ScrollFinding]:
    return list(check_rows(page, Device.PHONE))


def test_a_row_whose_buttons_stand_apart_is_told_with_the_most_of_it() -> None:
    level = [card(0, 100, 340), card(130, 100, 340.6)]
    apart = [card(0, 500, 740), card(130, 500, 722), card(260, 500, 715)]
    (finding,) = found_in(survey(*level, *apart))
    assert finding.title == "Buttons of cards stand up to 25 px apart in a row"
    assert "In 1 of 2 rows on phones" in finding.says
    assert finding.lanes == ("listing_card",)
    # Looked at where the lowest of them is half seen: from 740 + 20 - 740 on.
    assert finding.spans[0].begins == 20
    assert finding.css.startswith("li.card { display: flex; flex-direction: column }")
    assert "margin-block-start: auto" in finding.css


def test_the_fix_is_a_part_of_the_placements_own_layer_and_travels_with_the_release() -> None:
    (finding,) = found_in(survey(card(0, 100, 340), card(130, 100, 320)))
    (fix,) = finding.fixes
    assert fix.layer == "place:listing_card"
    made = release(settings(listing_card=fix.patch))
    assert made["css"] == finding.css.replace("\n", "")
    assert release(settings())["css"] == ""


@pytest.mark.parametrize("card", ["li{}", "a;b", "x}*", 'a["x', "li:is(a", "@media", "li/**/", "</style>"])
def test_what_could_end_the_rule_or_begin_another_is_no_card(card: str) -> None:
    with pytest.raises(ValidationError):
        Standing(level=card)


def test_cards_of_unequal_height_are_stretched_first() -> None:
    (finding,) = found_in(survey(card(0, 100, 340, 300), card(130, 100, 320, 280)))
    assert finding.css.splitlines()[0] == ":has(> li.card) { align-items: stretch }"


def test_level_rows_single_cards_and_cards_that_are_not_known_say_nothing() -> None:
    assert found_in(survey(card(0, 100, 340), card(130, 100, 340.9))) == []
    assert found_in(survey(card(0, 100, 340), card(0, 500, 700))) == []
    assert found_in(survey(place(100, placement="listing_card"), place(130, placement="listing_card"))) == []
    assert found_in(survey(card(0, 100, 340), place(500))) == []
