"""What is found along a page, and that each fix does what it says."""

from typing import Any

import pytest

from tests.core.scroll.pages import header, notice, place, survey
from uptick.core.button.bar import Bar
from uptick.core.button.document import Device
from uptick.core.button.merge import merge_layer
from uptick.core.scroll import Hung, PageSurvey, ScrollFinding, along, check_along


def found_in(page: PageSurvey, bar: dict[str, Any] | None) -> dict[str, ScrollFinding]:
    drawn = None if bar is None else Bar.model_validate(bar)
    return {finding.rule: finding for finding in check_along(page, Hung(drawn), Device.PHONE)}


def fixed(page: PageSurvey, bar: dict[str, Any], finding: ScrollFinding, n: int = 0) -> dict[str, ScrollFinding]:
    drawn = Bar.model_validate(bar).model_dump(mode="json")
    return found_in(page, merge_layer({"bar": drawn}, finding.fixes[n].patch)["bar"])


def test_a_message_under_the_bar_must_be_parted_from_it() -> None:
    page = survey(place(500), stuck=[notice()])
    finding = found_in(page, {})["meets"]
    assert finding.weight == "must_fix"
    assert finding.title == "The bar and <aside.notice> lie over each other from 548 to 2,260 px"
    assert "343 × 50 px on phones" in finding.says
    assert "meets" not in fixed(page, {}, finding)


def test_no_fix_is_offered_that_would_not_help() -> None:
    above = {**notice(), "name": "<b>", "box": {"x": 0, "y": 0, "wide": 375, "high": 400}}
    # A thing at both edges: the other edge is no way out.
    finding = found_in(survey(place(500), stuck=[notice(), above]), {})["meets"]
    assert finding.fixes == ()


def test_a_small_gap_is_a_note_and_a_large_one_is_looked_at_again() -> None:
    small = found_in(survey(place(500)), {})["gap"]
    assert (small.weight, small.title) == ("note", "No button from 524 to 548 px")
    page = survey(place(500))
    late = {"comes": {"kind": "share", "share": 0.5}}
    large = found_in(page, late)["gap"]
    assert large.weight == "look_again"
    assert "The page’s own button has left, and the bar is still to come" in large.says
    assert [fix.label for fix in large.fixes] == ["let it come at 524 px"]
    assert "gap" not in fixed(page, late, large)


def test_a_gap_that_no_bar_ends_has_no_fix() -> None:
    finding = found_in(survey(place(500)), None)["gap"]
    assert finding.fixes == ()
    assert "still to come" not in finding.says


def test_a_bar_that_repeats_the_own_button_is_told() -> None:
    page = survey(place(700))
    bar = {"comes": {"kind": "distance", "px": 0}, "returns": False}
    finding = found_in(page, bar)["twice"]
    assert "twice" not in fixed(page, bar, finding)


def test_a_page_without_a_button_in_reach_must_be_fixed() -> None:
    hidden = place(500, clip={"x": 0, "y": 0, "wide": 375, "high": 100})
    assert found_in(survey(hidden), None)["never"].weight == "must_fix"


def test_the_first_button_far_down() -> None:
    assert "1.1 windows" in found_in(survey(place(1500)), None)["far"].says


def test_a_first_button_under_a_notice_is_told_with_what_hides_it() -> None:
    # Its middle, at 724, comes out above the notice of 50 px after 34 px; the header hides nothing of it.
    page = survey(place(700), stuck=[notice(), header()])
    finding = found_in(page, None)["hidden"]
    assert finding.title == "The first button lies hidden until 34 px"
    assert finding.says == "It is in the window from 0 px on, but under <aside.notice> on phones."
    assert "hidden" not in found_in(survey(place(500), stuck=[notice()]), None)


def test_a_text_that_is_cut_can_be_left_out() -> None:
    page = survey(place(500), bar={"high": 64, "cut": [{"part": "name", "wide": 80, "needs": 212}]})
    bar = {"parts": ["picture", "name", "button"], "phone_without": []}
    finding = found_in(page, bar)["cut"]
    assert [fix.label for fix in finding.fixes] == ["leave out the name on phones", "leave out the picture on phones"]
    for fix in finding.fixes:
        assert Bar.model_validate({**bar, **fix.patch["bar"]}).holds("phone") != ("picture", "name", "button")


def test_a_window_that_is_mostly_covered() -> None:
    tall = {**notice(200), "box": {"x": 0, "y": 0, "wide": 375, "high": 200}}
    finding = found_in(survey(place(500), stuck=[tall]), {})["covered"]
    assert finding.title.startswith("36 % of the window is covered")


@pytest.mark.parametrize("bar", [{}, {"edge": "top"}, {"comes": {"kind": "share", "share": 0.2}}])
def test_every_fix_that_is_offered_takes_its_finding_away(bar: dict[str, Any]) -> None:
    page = survey(place(300), place(2000, placement="strip"), stuck=[notice()])
    for rule, finding in found_in(page, bar).items():
        for n in range(len(finding.fixes)):
            after = fixed(page, bar, finding, n)
            assert rule not in after or after[rule].spans != finding.spans


def test_the_bars_own_rules() -> None:
    for wrong in ({"parts": ["name"]}, {"parts": ["button", "button"]}, {"phone_without": ["button"]}, {"foot_px": -1}):
        with pytest.raises(ValueError, match=r"must|greater"):
            Bar.model_validate(wrong)
    assert along(survey(place(500)), Hung(Bar())).lanes
