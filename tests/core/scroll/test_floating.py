"""A floating button along a page: where it lies, what it meets, and that each fix parts what it says."""

from typing import Any

import pytest

from tests.core.scroll.pages import header, notice, place, rect, survey
from uptick.core.button.bar import Bar
from uptick.core.button.document import Device
from uptick.core.button.floating import Floating
from uptick.core.button.merge import merge_layer
from uptick.core.checks.finding import Fix
from uptick.core.scroll import Hung, PageSurvey, ScrollFinding, along, check_along

AT_ONCE = {"comes": {"kind": "distance", "px": 0}, "returns": False}
# 150 px wide and 48 high, wherever it was when it was measured.
SIZE = rect(209, 676, 150, 48)


def floating(**values: Any) -> Floating:
    return Floating.model_validate({**AT_ONCE, **values})


def page(*stuck: dict[str, Any], **more: Any) -> PageSurvey:
    return survey(place(500), stuck=list(stuck), floating=SIZE, **more)


def findings(of: PageSurvey, drawn: Floating, bar: Bar | None = None) -> dict[str, ScrollFinding]:
    return {finding.rule: finding for finding in check_along(of, Hung(bar, drawn), Device.PHONE)}


def fixed(of: PageSurvey, drawn: Floating, fix: Fix) -> dict[str, ScrollFinding]:
    assert fix.layer == "place:floating"
    changed = merge_layer({"floating": drawn.model_dump(mode="json")}, fix.patch)["floating"]
    return findings(of, Floating.model_validate(changed))


def sides_of(of: PageSurvey, drawn: Floating) -> tuple[float, float]:
    """Return from where to where it lies across, by what it meets: a thing one pixel wide at each place."""

    def meets(x: int) -> bool:
        thing = {**notice(), "box": rect(x, 0, 1, 740)}
        tried = PageSurvey.model_validate({**of.model_dump(), "stuck": [thing]})
        return bool(along(tried, Hung(None, drawn)).meetings)

    met = [x for x in range(375) if meets(x)]
    return met[0], met[-1] + 1


@pytest.mark.parametrize(
    ("corner", "rtl", "x"),
    [
        ("bottom_end", False, (209, 359)),
        ("bottom_start", False, (16, 166)),
        ("bottom_end", True, (16, 166)),
        ("top_start", True, (209, 359)),
    ],
)
def test_it_lies_in_its_corner_which_is_the_other_one_from_right_to_left(
    corner: str, rtl: bool, x: tuple[float, float]
) -> None:
    assert sides_of(page(rtl=rtl), floating(corner=corner)) == x


def test_it_comes_and_goes_like_a_bar_and_counts_as_a_button_in_reach() -> None:
    found = along(page(), Hung(None, Floating()))
    lane = next(lane for lane in found.lanes if lane.key == "floating")
    assert (lane.name, lane.kind) == ("floating", "floating")
    assert [(span.begins, span.ends) for span in lane.spans] == [(548, 2260)]
    assert found.hung_share == pytest.approx(150 * 48 / (375 * 740))
    # From where half of the own button is out of the window until all of it is.
    assert [(gap.begins, gap.ends) for gap in found.gaps] == [(524, 548)]


def test_without_an_own_button_or_a_measured_one_none_floats() -> None:
    assert not [lane for lane in along(survey(place(500)), Hung(None, floating())).lanes if lane.key == "floating"]
    card = survey(place(500, placement="listing_card"), floating=SIZE)
    assert not [lane for lane in along(card, Hung(None, floating())).lanes if lane.key == "floating"]


def test_at_the_top_it_lies_under_what_the_shop_has_stuck_there() -> None:
    assert not along(page(header(60)), Hung(None, floating(corner="top_end"))).meetings


def test_what_lies_in_its_corner_is_parted_from_it_by_so_many_pixels_or_by_another_corner() -> None:
    chat = {**notice(), "name": "Ask us", "box": rect(300, 660, 60, 60)}
    drawn = floating()
    finding = findings(page(chat), drawn)["meets"]
    assert finding.weight == "must_fix"
    assert finding.title == "The floating button and Ask us lie over each other from 0 to 2,260 px"
    # 676 to 720 of the window, and 300 to 359.
    assert "They share 59 × 44 px on phones" in finding.says
    assert finding.lanes == ("floating",)
    labels = [fix.label for fix in finding.fixes]
    # Its lower edge is at 724, 64 px below the upper edge of the other; 8 are left between.
    assert labels == [
        "move the floating button up by 72 px on phones",
        "put it in the lower left corner",
        "put it in the upper right corner",
    ]
    for fix in finding.fixes:
        assert "meets" not in fixed(page(chat), drawn, fix), fix.label


def test_a_bar_and_a_floating_button_that_lie_over_each_other_are_told_and_parted() -> None:
    bar = Bar.model_validate(AT_ONCE)
    of, drawn = page(), floating()
    found = findings(of, drawn, bar)
    assert found["meets"].title.startswith("The bar and the floating button lie over each other")
    assert {fix.label for fix in found["meets"].fixes} >= {"put it in the upper left corner"}
    assert found["both"].lanes == ("sticky_bar", "floating")
    lifted = next(fix for fix in found["meets"].fixes if fix.label.startswith("move"))
    changed = merge_layer({"floating": drawn.model_dump(mode="json")}, lifted.patch)["floating"]
    assert not along(of, Hung(bar, Floating.model_validate(changed))).meetings


def test_one_that_is_too_wide_for_the_window_must_be_mended() -> None:
    wide = survey(place(500), floating=rect(0, 676, 360, 48))
    finding = findings(wide, floating())["outside"]
    assert finding.title == "The floating button is 17 px too wide for the window"
    assert "outside" not in findings(survey(place(500), floating=rect(0, 676, 343, 48)), floating())


def test_it_is_told_where_it_repeats_the_own_button() -> None:
    finding = findings(page(), floating())["twice"]
    assert finding.title.startswith("The floating button repeats the page’s own button")
    assert [fix.label for fix in finding.fixes] == ["let it go while that is seen"]
    assert "twice" not in fixed(page(), floating(), finding.fixes[0])
