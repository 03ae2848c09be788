"""What is seen along a page, worked out by hand beside it, and by asking at many single positions."""

from itertools import pairwise
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from pydantic import ValidationError

from tests.core.scroll.pages import PHONE, header, notice, place, rect, survey
from uptick.core.button.bar import Bar
from uptick.core.button.document import Placement
from uptick.core.scroll import along
from uptick.core.scroll.hanging import Hung
from uptick.core.scroll.in_reach import in_reach
from uptick.core.scroll.paths import covered_area, stuck_path, where_below
from uptick.core.scroll.scene import scene_of
from uptick.core.scroll.spans import Span, common, union, without
from uptick.core.scroll.survey import Stuck

OWN = Bar()


def spans_of(found: Any, key: str) -> list[tuple[float, float]]:
    return [tuple(span) for lane in found.lanes if lane.key == key for span in lane.spans]


def bar_spans(*places: dict[str, Any], bar: dict[str, Any], **more: Any) -> list[tuple[float, float]]:
    return spans_of(along(survey(*places, **more), Hung(Bar.model_validate(bar))), "sticky_bar")


def test_a_button_is_in_reach_while_half_of_it_is_in_the_window() -> None:
    # 48 px high at 1,000: its middle enters at 1024 − 740 and leaves at 1024.
    found = along(survey(place(1000)), Hung())
    assert spans_of(found, "product_page") == [(284, 1024)]
    assert found.first_px == 284
    assert found.gaps == ((0, 284), (1024, 2260))
    assert found.reach_share == pytest.approx(740 / 2260)


def test_the_bar_hands_over_when_the_last_pixel_of_the_own_button_has_left() -> None:
    # In between lies half the button's height.
    found = along(survey(place(500)), Hung(OWN))
    assert spans_of(found, "product_page") == [(0, 524)]
    assert spans_of(found, "sticky_bar") == [(548, 2260)]
    assert found.gaps == ((524, 548),)
    assert found.hung_share == pytest.approx(64 / 740)


def test_a_bar_covers_what_it_lies_over() -> None:
    low = place(700, 64)
    # Without a bar the button is half seen from the start, at 732 of 740; a bar of 64 takes that until 56 px on.
    always = Bar.model_validate({"comes": {"kind": "distance", "px": 0}, "returns": False})
    assert spans_of(along(survey(low), Hung()), "product_page") == [(0, 732)]
    assert spans_of(along(survey(low), Hung(always)), "product_page") == [(56, 732)]
    assert spans_of(along(survey(low), Hung(always), with_covers=False), "product_page") == [(0, 732)]


@pytest.mark.parametrize(
    ("bar", "spans"),
    [
        ({"comes": {"kind": "share", "share": 0.1}, "returns": False}, [(226, 2260)]),
        ({"comes": {"kind": "distance", "px": 200}, "returns": False}, [(200, 2260)]),
        # The own button, at 500 to 548, is in the window until 548.
        ({"comes": {"kind": "distance", "px": 200}}, [(548, 2260)]),
        ({"comes": {"kind": "distance", "px": 700}}, [(700, 2260)]),
        ({"foot_px": 260}, [(548, 2000)]),
        ({"comes": {"kind": "distance", "px": 5000}}, []),
        ({"returns": False}, [(548, 2260)]),
    ],
)
def test_a_bar_comes_and_goes_as_it_is_told(bar: dict[str, Any], spans: list[tuple[float, float]]) -> None:
    assert bar_spans(place(500), bar=bar) == spans


def test_a_bar_waits_for_a_button_that_comes_late() -> None:
    # The own button lies at 1,500 to 1,548: in the window from 760 to 1,548.
    late = bar_spans(place(1500), bar={"comes": {"kind": "distance", "px": 200}})
    assert late == [(200, 760), (1548, 2260)]


def test_a_bar_that_comes_on_the_way_up_is_told_and_not_counted() -> None:
    found = along(survey(place(500)), Hung(Bar(only_up=True)))
    lane = next(lane for lane in found.lanes if lane.key == "sticky_bar")
    assert lane.only_up
    assert found.reach_share == pytest.approx(524 / 2260)


def test_no_bar_stands_without_a_button_of_ours_on_the_page() -> None:
    assert spans_of(along(survey(place(500, stands=False)), Hung(OWN)), "sticky_bar") == []
    assert spans_of(along(survey(place(500, placement="listing_card")), Hung(OWN)), "sticky_bar") == []


def test_what_stands_for_a_product_of_its_own_needs_no_button_of_the_page() -> None:
    def spans(bar: Bar, *places: dict[str, Any]) -> list[tuple[float, float]]:
        found = along(survey(*places), Hung(bar, fixed=frozenset({Placement.STICKY_BAR})))
        return spans_of(found, "sticky_bar")

    card = place(500, placement="listing_card")
    # The way is 2,260 px; an own button that is not there counts as scrolled past.
    assert spans(OWN, card) == [(0, 2260)]
    assert spans(Bar(foot_px=260), card) == [(0, 2000)]
    assert spans(Bar.model_validate({"comes": {"kind": "distance", "px": 200}}), card) == [(200, 2260)]
    assert spans(OWN, place(500)) == [(548, 2260)]


def test_a_sticky_column_holds_its_button_until_what_contains_it_ends() -> None:
    # A column of 300 px that sticks 20 px from the top, in a box that ends at 1,200; its button 100 px down.
    column = {
        "name": "<aside>",
        "kind": "sticky",
        "box": rect(0, 200, 375, 300),
        "inset": 20,
        "least": 200,
        "most": 1200,
    }
    found = along(survey(place(300, holder=0), stuck=[column]), Hung())
    # It is carried until 1,200 − 300 − 20 = 880, and is then half gone after 120 + 24 px more.
    assert spans_of(found, "product_page") == [(0, 880 + 120 + 24)]


def test_what_sticks_to_the_lower_edge_comes_up_from_there() -> None:
    foot = Stuck.model_validate(
        {"name": "x", "kind": "sticky", "box": rect(0, 2000, 375, 80), "edge": "bottom", "inset": 10, "least": 900,
         "most": 2100}
    )  # fmt: skip
    path = stuck_path(foot, 740, 2260)
    # Held at 740 − 10 − 80 = 650 between 900 − 650 and 2000 − 650.
    assert [path.at(s) for s in (0, 250, 800, 1350, 1500)] == [900, 650, 650, 650, 500]


def test_a_card_that_clips_shows_only_what_is_left() -> None:
    half = {"clip": rect(0, 400, 375, 520 - 400)}
    # The button at 500 to 548 is cut at 520: less than half is left.
    assert spans_of(along(survey(place(500, **half)), Hung()), "product_page") == []
    more = {"clip": rect(0, 400, 375, 530 - 400)}
    # 30 of 48 px are left: 24 must be in the window, so it is reached until 506.
    assert spans_of(along(survey(place(500, **more)), Hung()), "product_page") == [(0, 506)]


def test_a_strip_shows_the_cards_that_are_within_it() -> None:
    clip = rect(16, 0, 343, 3000)
    inside = place(500, placement="strip", clip=clip)
    outside = {**inside, "box": rect(500, 500, 200, 48), "room": rect(500, 500, 200, 48)}
    found = along(survey(inside, outside), Hung())
    assert [lane.count for lane in found.lanes if lane.key == "strip"] == [2]
    assert spans_of(along(survey(outside), Hung()), "strip") == []


def test_two_things_at_the_lower_edge_meet_for_as_long_as_both_are_there() -> None:
    found = along(survey(place(500), stuck=[notice()]), Hung(OWN))
    (meeting,) = found.meetings
    assert meeting.spans == ((548, 2260),)
    assert (meeting.wide, meeting.high) == (343, 50)
    assert not along(survey(place(500), stuck=[notice()]), Hung(Bar(edge="top"))).meetings


def test_a_bar_at_the_upper_edge_stands_under_the_shops_own_header() -> None:
    found = along(survey(place(500), stuck=[header()]), Hung(Bar(edge="top")))
    assert found.bar_under == 60
    assert not found.meetings
    assert found.stuck_share == pytest.approx((60 + 64) / 740)
    assert found.worst_at == 548


def test_a_page_that_does_not_scroll() -> None:
    found = along(survey(place(500), page_high=700), Hung(OWN))
    assert (found.way_px, found.reach_share, found.first_px, found.gaps) == (0, 1, 0, ())
    assert along(survey(page_high=700), Hung(OWN)).reach_share == 0
    # The bar never comes there, so that it meets nothing.
    assert along(survey(place(500), page_high=700, stuck=[notice()]), Hung(OWN)).meetings == ()


def test_nothing_is_in_reach_where_there_is_nothing() -> None:
    found = along(survey(), Hung(OWN))
    assert (found.first_px, found.reach_share, found.gaps) == (None, 0, ((0, 2260),))


def test_spans() -> None:
    assert union([Span(3, 5), Span(0, 2), Span(2, 3), Span(7, 8)]) == ((0, 5), (7, 8))
    assert without([Span(0, 10)], [Span(2, 3), Span(9, 12)]) == ((0, 2), (3, 9))
    assert without([Span(0, 10)], [Span(0, 10)]) == ()
    assert common([Span(0, 5), Span(8, 9)], [Span(4, 8.5)]) == ((4, 5), (8, 8.5))


def test_an_area_under_several_things_counts_once() -> None:
    assert covered_area((0, 0, 10, 10), [(0, 0, 10, 4), (0, 2, 10, 6), (5, 0, 20, 10)]) == 60 + 20
    assert covered_area((0, 0, 10, 10), [(20, 0, 30, 10)]) == 0


@pytest.mark.parametrize(
    "wrong",
    [
        {"places": [place(1, holder=3)]},
        {"page_high": float("nan")},
        {"page_high": -1},
        {"window": {"wide": 0, "high": 700}},
    ],
)
def test_a_measuring_that_cannot_be_is_refused(wrong: dict[str, Any]) -> None:
    with pytest.raises(ValidationError):
        survey().model_validate({**survey().model_dump(), **wrong})


BOXES = st.builds(rect, st.integers(-200, 500), st.integers(0, 3000), st.integers(20, 400), st.integers(10, 300))
STICKY = st.builds(
    lambda box, inset, room, edge: {
        "name": "x", "kind": "sticky", "box": box, "edge": edge, "inset": inset, "least": max(0, box["y"] - room),
        "most": box["y"] + box["high"] + room,
    },
    BOXES, st.integers(0, 200), st.integers(0, 1500), st.sampled_from(["top", "bottom"]),
)  # fmt: skip
FIXED = st.builds(
    lambda box, y: {"name": "y", "kind": "fixed", "box": {**box, "y": y}}, BOXES, st.integers(-50, PHONE[1])
)
THINGS = st.lists(STICKY | FIXED, max_size=4)
CLIPS = st.none() | BOXES


@given(BOXES, CLIPS, THINGS, st.booleans(), st.lists(st.floats(0, 2260), min_size=20, max_size=20))
@settings(max_examples=150)
def test_the_stretches_hold_at_any_single_position(
    box: dict[str, float],
    clip: dict[str, float] | None,
    things: list[dict[str, Any]],
    held: bool,
    positions: list[float],
) -> None:
    """The area that is seen, counted pixel by pixel of a fine grid, says the same, away from the very edges."""
    holder = 0 if held and things else -1
    strip_place = {"placement": "strip", "stands": True, "box": box, "room": box, "clip": clip, "holder": holder}
    page = survey(strip_place, stuck=things)
    scene = scene_of(page)
    covers = scene.stuck
    spans = in_reach(scene, page.places[0], covers)
    for scroll in positions:
        if any(abs(scroll - end) < 1 for span in spans for end in span):
            continue
        seen = _seen_by_rows(page, scroll, holder)
        assert any(a <= scroll <= b for a, b in spans) == seen, (scroll, spans)
    assert all(b.begins > a.ends for a, b in pairwise(spans))


def _seen_by_rows(page: Any, scroll: float, holder: int) -> bool:
    """Tell whether half of the page's one place is seen, by cutting everything into its smallest rectangles."""
    scene, place = scene_of(page), page.places[0]
    move = scroll
    if holder >= 0:
        thing = page.stuck[holder]
        move = thing.box.y - stuck_path(thing, scene.high, scene.way).at(scroll)
    rects = [(0.0, 0.0, scene.wide, scene.high)]
    if place.clip:
        c = place.clip
        rects.append((c.x, c.y - move, c.right, c.bottom - move))
    hides = []
    for n, (thing, lies) in enumerate(zip(page.stuck, scene.stuck, strict=True)):
        if n != holder:
            y = lies.top.at(scroll)
            hides.append((thing.box.x, y, thing.box.right, y + thing.box.high))
    b = place.box
    own = (b.x, b.y - move, b.right, b.bottom - move)
    xs = sorted({x for r in [own, *rects, *hides] for x in (r[0], r[2])})
    ys = sorted({y for r in [own, *rects, *hides] for y in (r[1], r[3])})
    area = 0.0
    for x0, x1 in pairwise(xs):
        for y0, y1 in pairwise(ys):
            x, y = (x0 + x1) / 2, (y0 + y1) / 2

            def within(r: tuple[float, float, float, float], x: float = x, y: float = y) -> bool:
                return r[0] < x < r[2] and r[1] < y < r[3]

            if all(map(within, [own, *rects])) and not any(map(within, hides)):
                area += (x1 - x0) * (y1 - y0)
    return area >= b.wide * b.high / 2


def test_where_a_path_is_below_a_height() -> None:
    column = Stuck.model_validate(
        {"name": "x", "kind": "sticky", "box": rect(0, 200, 375, 300), "inset": 20, "least": 200, "most": 1200}
    )
    path = stuck_path(column, 740, 2260)
    assert where_below(path, 100, 2260) == ((100, 2260),)
    assert where_below(path, 20, 2260) == ((880, 2260),)
    assert where_below(path, -5000, 2260) == ()
