"""What is wrong along a page, with pixels, and fixes that were tried before they are offered."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from math import floor
from typing import Any

from uptick.core.button.bar import Bar
from uptick.core.button.document import Device
from uptick.core.checks.finding import Fix, Weight
from uptick.core.scroll.along import Along, along
from uptick.core.scroll.spans import Span, Spans, common, length_of
from uptick.core.scroll.survey import PageSurvey, Rect

# Less of a gap than this is what any handing over from one button to the next takes.
SMALL_GAP_PX = 100.0
# A bar and a button at once are no fault while one hands over to the other.
HANDING_OVER_PX = 100.0
# Our own measure: above it a phone's page is read through a slot.
MOST_COVERED = 0.3
BAR_LAYER = "place:sticky_bar"
_DEVICE_NAMES = {Device.PHONE: "phones", Device.TABLET: "tablets", Device.DESKTOP: "desktops"}


@dataclass(frozen=True, slots=True)
class ScrollFinding:
    """What was found along a page on one device; `lanes` are what it is about, `spans` where, in scroll positions."""

    rule: str
    weight: Weight
    device: Device
    title: str
    says: str
    lanes: tuple[str, ...]
    spans: Spans
    fixes: tuple[Fix, ...] = ()


def check_along(survey: PageSurvey, bar: Bar | None, device: Device, found: Along | None = None) -> list[ScrollFinding]:
    """Return what is wrong on a page, the worst first."""
    seen = found or along(survey, bar)
    scene = _Seen(survey, bar, device, seen)
    findings = [finding for check in _CHECKS for finding in check(scene)]
    order = list(Weight)
    return sorted(findings, key=lambda one: order.index(one.weight))


@dataclass(frozen=True, slots=True)
class _Seen:
    survey: PageSurvey
    bar: Bar | None
    device: Device
    along: Along

    @property
    def on(self) -> str:
        return f"on {_DEVICE_NAMES[self.device]}"

    def fixed(self, label: str, holds: Callable[[Along], bool], **changes: Any) -> tuple[Fix, ...]:
        """Return a change of the bar as a fix, where it does what it is for."""
        if self.bar is None:
            return ()
        changed = Bar.model_validate({**self.bar.model_dump(), **changes})
        if not holds(along(self.survey, changed)):
            return ()
        return (Fix(label, BAR_LAYER, {"bar": changes}),)

    def spans_of(self, key: str) -> Spans:
        return next((lane.spans for lane in self.along.lanes if lane.key == key), ())


def _px(value: float) -> str:
    return f"{round(value):,}"


def _where(spans: Spans) -> str:
    first = spans[0]
    more = f" and {len(spans) - 1} more times" if len(spans) > 1 else ""
    return f"from {_px(first.begins)} to {_px(first.ends)} px{more}"


def _meets(seen: _Seen) -> Iterator[ScrollFinding]:
    for meeting in seen.along.meetings:
        other = "top" if seen.bar and seen.bar.edge == "bottom" else "bottom"
        fixes = seen.fixed(f"put the bar at the {other}", lambda now: not now.meetings, edge=other)
        yield ScrollFinding(
            "meets",
            Weight.MUST_FIX,
            seen.device,
            f"The bar and {meeting.other} lie over each other {_where(meeting.spans)}",
            f"They share {_px(meeting.wide)} × {_px(meeting.high)} px {seen.on}. One of them cannot be pressed there.",
            ("sticky_bar",),
            meeting.spans,
            fixes,
        )


def _never(seen: _Seen) -> Iterator[ScrollFinding]:
    if seen.along.first_px is None and seen.survey.places:
        yield ScrollFinding(
            "never",
            Weight.MUST_FIX,
            seen.device,
            "No button is ever in reach",
            f"Of {len(seen.survey.places)} on the page none is half seen at any scroll position {seen.on}.",
            (),
            (Span(0.0, seen.along.way_px),),
        )


def _far(seen: _Seen) -> Iterator[ScrollFinding]:
    first, high = seen.along.first_px, seen.along.window[1]
    if first and first > high:
        yield ScrollFinding(
            "far",
            Weight.LOOK_AGAIN,
            seen.device,
            f"The first button comes after {_px(first)} px",
            f"That is {first / high:.1f} windows of scrolling {seen.on}.",
            (),
            (Span(0.0, first),),
            seen.fixed("let the bar come at once", lambda now: now.first_px == 0, comes={"kind": "distance", "px": 0}),
        )


def _hidden(seen: _Seen) -> Iterator[ScrollFinding]:
    first, open_first = seen.along.first_px, along(seen.survey, seen.bar, with_covers=False).first_px
    if not first or open_first is None or first - open_first < HANDING_OVER_PX / 4:
        return
    survey = seen.survey
    nowhere = Rect(x=0, y=0, wide=0, high=0)

    def hides(n: int) -> bool:
        things = tuple(
            thing.model_copy(update={"box": nowhere}) if n == m else thing for m, thing in enumerate(survey.stuck)
        )
        return along(survey.model_copy(update={"stuck": things}), seen.bar).first_px != first

    names = [thing.name for n, thing in enumerate(survey.stuck) if hides(n)]
    there = " and ".join(names[:3]) or "the bar"
    yield ScrollFinding(
        "hidden",
        Weight.LOOK_AGAIN,
        seen.device,
        f"The first button lies hidden until {_px(first)} px",
        f"It is in the window from {_px(open_first)} px on, but under {there} {seen.on}.",
        (),
        (Span(open_first, first),),
    )


def _gaps(seen: _Seen) -> Iterator[ScrollFinding]:
    # Before the first button another finding speaks.
    gaps = tuple(gap for gap in seen.along.gaps if gap.begins > 0 and gap.length >= 1)
    if not gaps or seen.along.first_px is None:
        return
    longest = max(gaps, key=lambda gap: gap.length)
    small = longest.length < SMALL_GAP_PX
    why = ""
    if any(abs(longest.ends - span.begins) < 1 for span in seen.spans_of("sticky_bar")):
        why = "The page’s own button has left, and the bar is still to come. "
    fixes: tuple[Fix, ...] = ()
    if why:
        before = length_of(gaps)
        px = floor(longest.begins)
        fixes = seen.fixed(
            f"let it come at {_px(px)} px",
            lambda now: length_of(now.gaps) < before - longest.length + 1.5,
            comes={"kind": "distance", "px": px},
            returns=False,
        )
    yield ScrollFinding(
        "gap",
        Weight.NOTE if small else Weight.LOOK_AGAIN,
        seen.device,
        f"No button {_where((longest,))}",
        f"{why}{_px(longest.length)} px {seen.on}"
        + (f", the longest of {len(gaps)} such stretches." if len(gaps) > 1 else "."),
        (),
        gaps,
        fixes,
    )


def _twice(seen: _Seen) -> Iterator[ScrollFinding]:
    both = tuple(s for s in common(seen.spans_of("sticky_bar"), seen.spans_of("product_page")) if s.length)
    if length_of(both) < HANDING_OVER_PX:
        return
    yield ScrollFinding(
        "twice",
        Weight.LOOK_AGAIN,
        seen.device,
        f"The bar repeats the page’s own button {_where(both)}",
        f"Both are in reach for {_px(length_of(both))} px of scrolling {seen.on}.",
        ("sticky_bar", "product_page"),
        both,
        seen.fixed(
            "let it go while that is seen",
            lambda now: length_of(common(_lane(now, "sticky_bar"), _lane(now, "product_page"))) < HANDING_OVER_PX,
            returns=True,
        ),
    )


def _lane(found: Along, key: str) -> Spans:
    return next((lane.spans for lane in found.lanes if lane.key == key), ())


def _cut(seen: _Seen) -> Iterator[ScrollFinding]:
    if seen.bar is None or seen.survey.bar is None:
        return
    for cut in seen.survey.bar.cut:
        without = [*seen.bar.without(seen.device.value)]
        fixes = tuple(
            Fix(
                f"leave out the {part} {seen.on}",
                BAR_LAYER,
                {"bar": {f"{seen.device}_without": [*without, part]}},
            )
            for part in dict.fromkeys((cut.part, "picture"))
            if part in seen.bar.holds(seen.device.value)
        )
        yield ScrollFinding(
            "cut",
            Weight.LOOK_AGAIN,
            seen.device,
            f"The {cut.part} in the bar is cut",
            f"It needs {_px(cut.needs)} px and has {_px(cut.wide)} {seen.on}.",
            ("sticky_bar",),
            seen.spans_of("sticky_bar"),
            fixes,
        )


def _covered(seen: _Seen) -> Iterator[ScrollFinding]:
    found = seen.along
    if found.stuck_share <= MOST_COVERED or not found.bar_share:
        return
    yield ScrollFinding(
        "covered",
        Weight.LOOK_AGAIN,
        seen.device,
        f"{found.stuck_share:.0%} of the window is covered at {_px(found.worst_at)} px".replace("%", " %"),
        f"The bar and what the shop has stuck leave {_px(found.window[1] * (1 - found.stuck_share))} px of height "
        f"to read in {seen.on}; above {MOST_COVERED:.0%} is our own measure.".replace("%", " %"),
        ("sticky_bar",),
        (Span(found.worst_at, found.worst_at),),
    )


_CHECKS = (_meets, _never, _hidden, _far, _gaps, _twice, _cut, _covered)
