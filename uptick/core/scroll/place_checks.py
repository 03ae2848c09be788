"""What is wrong along a page, with pixels, and fixes that were tried before they are offered."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace
from math import ceil, floor
from typing import Literal

from uptick.core.button.bar import Bar
from uptick.core.button.document import Device
from uptick.core.button.floating import Floating
from uptick.core.button.merge import Json, merge_layer
from uptick.core.checks.finding import Fix, Weight
from uptick.core.scroll.along import Along, along
from uptick.core.scroll.hanging import Hung
from uptick.core.scroll.meetings import Meeting
from uptick.core.scroll.pictures import spot_words
from uptick.core.scroll.spans import Span, Spans, common, length_of
from uptick.core.scroll.survey import PageSurvey, Rect

# Less of a gap than this is what any handing over from one button to the next takes.
SMALL_GAP_PX = 100.0
# Something that hangs and a button at once are no fault while one hands over to the other.
HANDING_OVER_PX = 100.0
# Our own measure: above it a phone's page is read through a slot.
MOST_COVERED = 0.3
# Room that is left between two things that are parted (our own measure).
APART_PX = 8.0
DEVICE_NAMES = {Device.PHONE: "phones", Device.TABLET: "tablets", Device.DESKTOP: "desktops"}
Kind = Literal["bar", "floating"]
_LAYERS: dict[Kind, str] = {"bar": "place:sticky_bar", "floating": "place:floating"}
_LANES: dict[Kind, str] = {"bar": "sticky_bar", "floating": "floating"}
_NAMES: dict[str, str] = {"bar": "the bar", "floating": "the floating button"}


@dataclass(frozen=True, slots=True)
class ScrollFinding:
    """What was found along a page on one device; `lanes` are what it is about, `spans` where, in scroll positions.

    `css` is a rule for the shop's own style sheet, where one mends it.
    """

    rule: str
    weight: Weight
    device: Device
    title: str
    says: str
    lanes: tuple[str, ...]
    spans: Spans
    fixes: tuple[Fix, ...] = ()
    css: str = ""


def check_along(survey: PageSurvey, hung: Hung, device: Device, known: Along | None = None) -> list[ScrollFinding]:
    """Return what is wrong on a page, the worst first."""
    seen = known or along(survey, hung)
    scene = _Seen(survey, hung, device, seen)
    findings = [finding for check in _CHECKS for finding in check(scene)]
    order = list(Weight)
    return sorted(findings, key=lambda scroll_finding: order.index(scroll_finding.weight))


@dataclass(frozen=True, slots=True)
class _Seen:
    survey: PageSurvey
    hung: Hung
    device: Device
    along: Along

    @property
    def on(self) -> str:
        return f"on {DEVICE_NAMES[self.device]}"

    def drawn(self, kind: Kind) -> Bar | Floating | None:
        return self.hung.bar if kind == "bar" else self.hung.floating

    @property
    def hanging(self) -> dict[Kind, Bar | Floating]:
        """Return what hangs here."""
        kinds: tuple[Kind, ...] = ("bar", "floating")
        return {kind: drawn for kind in kinds if (drawn := self.drawn(kind))}

    def fixed(self, kind: Kind, label: str, holds: Callable[[Along], bool], changes: Json) -> tuple[Fix, ...]:
        """Return a change of what hangs as a fix, where it does what it is for."""
        drawn = self.drawn(kind)
        if drawn is None:
            return ()
        changed = type(drawn).model_validate(merge_layer(drawn.model_dump(mode="json"), changes))
        hung = replace(self.hung, bar=changed) if isinstance(changed, Bar) else replace(self.hung, floating=changed)
        if not holds(along(self.survey, hung)):
            return ()
        return (Fix(label, _LAYERS[kind], {kind: changes}),)

    def spans_of(self, key: str) -> Spans:
        return _lane(self.along, key)


def _lane(seen: Along, key: str) -> Spans:
    return next((lane.spans for lane in seen.lanes if lane.key == key), ())


def _px(value: float) -> str:
    return f"{round(value):,}"


def _where(spans: Spans) -> str:
    first = spans[0]
    more = f" and {len(spans) - 1} more times" if len(spans) > 1 else ""
    return f"from {_px(first.begins)} to {_px(first.ends)} px{more}"


def _called(name: str) -> str:
    """Return what a sentence calls a thing that hangs or sticks."""
    return _NAMES.get(name, name)


def _meets(seen: _Seen) -> Iterator[ScrollFinding]:
    for meeting in seen.along.meetings:
        one, other = _called(meeting.one), _called(meeting.other)
        yield ScrollFinding(
            "meets",
            Weight.MUST_FIX,
            seen.device,
            f"{one.capitalize()} and {other} lie over each other {_where(meeting.spans)}",
            f"They share {_px(meeting.wide)} × {_px(meeting.high)} px {seen.on}. One of them cannot be pressed there.",
            tuple(_LANES[kind] for kind in seen.hanging if kind in (meeting.one, meeting.other)),
            meeting.spans,
            tuple(_parting(seen, meeting))[:3],
        )


def _parting(seen: _Seen, meeting: Meeting) -> Iterator[Fix]:
    """Yield changes that part two things and bring no other two together."""

    def is_parted(now: Along) -> bool:
        pairs = {(each.one, each.other) for each in now.meetings}
        before = {(each.one, each.other) for each in seen.along.meetings}
        return (meeting.one, meeting.other) not in pairs and pairs < before

    floating = seen.hung.floating
    if floating and "floating" in (meeting.one, meeting.other):
        inset = floating.inset(seen.device)
        # `up` and `down` are how far the first thing has to move; the second has to move as far the other way.
        is_first, goes_up = meeting.one == "floating", not floating.is_top
        lifted = ceil(inset.edge_px + (meeting.up if is_first == goes_up else meeting.down) + APART_PX)
        if lifted <= seen.survey.window.high / 2:
            away = "down" if floating.is_top else "up"
            label = f"move the floating button {away} by {_px(lifted - inset.edge_px)} px {seen.on}"
            yield from seen.fixed("floating", label, is_parted, {seen.device.value: {"edge_px": lifted}})
        for corner in ("bottom_end", "bottom_start", "top_end", "top_start"):
            if corner != floating.corner:
                label = f"put it {spot_words(corner, rtl=seen.survey.rtl)}"
                yield from seen.fixed("floating", label, is_parted, {"corner": corner})
    if meeting.one == "bar":
        edge = "top" if seen.hung.bar and seen.hung.bar.edge == "bottom" else "bottom"
        yield from seen.fixed("bar", f"put the bar at the {edge}", is_parted, {"edge": edge})


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
    if not first or first <= high:
        return
    fixes = (
        seen.fixed(
            kind,
            f"let {_NAMES[kind]} come at once",
            lambda now: now.first_px == 0,
            {"comes": {"kind": "distance", "px": 0}},
        )
        for kind in seen.hanging
    )
    yield ScrollFinding(
        "far",
        Weight.LOOK_AGAIN,
        seen.device,
        f"The first button comes after {_px(first)} px",
        f"That is {first / high:.1f} windows of scrolling {seen.on}.",
        (),
        (Span(0.0, first),),
        tuple(fix for some in fixes for fix in some),
    )


def _hidden(seen: _Seen) -> Iterator[ScrollFinding]:
    first, open_first = seen.along.first_px, along(seen.survey, seen.hung, with_covers=False).first_px
    if not first or open_first is None or first - open_first < HANDING_OVER_PX / 4:
        return
    survey = seen.survey
    nowhere = Rect(x=0, y=0, wide=0, high=0)

    def hides(n: int) -> bool:
        things = tuple(
            thing.model_copy(update={"box": nowhere}) if n == m else thing for m, thing in enumerate(survey.stuck)
        )
        return along(survey.model_copy(update={"stuck": things}), seen.hung).first_px != first

    names = [thing.name for n, thing in enumerate(survey.stuck) if hides(n)]
    there = " and ".join(names[:3]) or "what hangs"
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
    why, fixes = "", tuple[Fix, ...]()
    for kind in seen.hanging:
        if any(abs(longest.ends - span.begins) < 1 for span in seen.spans_of(_LANES[kind])):
            why = f"The page’s own button has left, and {_NAMES[kind]} is still to come. "
            before, px = length_of(gaps), floor(longest.begins)
            fixes = seen.fixed(
                kind,
                f"let it come at {_px(px)} px",
                lambda now, before=before: length_of(now.gaps) < before - longest.length + 1.5,  # type: ignore[misc]
                {"comes": {"kind": "distance", "px": px}, "returns": False},
            )
            break
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
    for kind in seen.hanging:
        lane, name = _LANES[kind], _NAMES[kind]

        def repeats(now: Along, lane: str = lane) -> Spans:
            return tuple(s for s in common(_lane(now, lane), _lane(now, "product_page")) if s.length)

        both = repeats(seen.along)
        if length_of(both) >= HANDING_OVER_PX:
            yield ScrollFinding(
                "twice",
                Weight.LOOK_AGAIN,
                seen.device,
                f"{name.capitalize()} repeats the page’s own button {_where(both)}",
                f"Both are in reach for {_px(length_of(both))} px of scrolling {seen.on}.",
                (lane, "product_page"),
                both,
                seen.fixed(
                    kind,
                    "let it go while that is seen",
                    lambda now, repeats=repeats: length_of(repeats(now)) < HANDING_OVER_PX,  # type: ignore[misc]
                    {"returns": True},
                ),
            )
    both = tuple(s for s in common(seen.spans_of("sticky_bar"), seen.spans_of("floating")) if s.length)
    if length_of(both) >= HANDING_OVER_PX:
        bought = "Each buys a product of its own" if seen.hung.fixed else "They buy the same product"
        if seen.hung.asking:
            bought = "Both open a message" if len(seen.hung.asking) == 2 else "One buys, the other opens a message"
        yield ScrollFinding(
            "both",
            Weight.LOOK_AGAIN,
            seen.device,
            f"The bar and the floating button both stand {_where(both)}",
            f"{bought}, for {_px(length_of(both))} px of scrolling {seen.on}. An exception for "
            f"{DEVICE_NAMES[seen.device]} can take one of them away.",
            ("sticky_bar", "floating"),
            both,
        )


def _cut(seen: _Seen) -> Iterator[ScrollFinding]:
    bar = seen.hung.bar
    if bar is None or seen.survey.bar is None:
        return
    for cut in seen.survey.bar.cut:
        without = [*bar.without(seen.device.value)]
        fixes = tuple(
            Fix(
                f"leave out the {part} {seen.on}",
                _LAYERS["bar"],
                {"bar": {f"{seen.device}_without": [*without, part]}},
            )
            for part in dict.fromkeys((cut.part, "picture"))
            if part in bar.holds(seen.device.value)
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
    lane_view = seen.along
    if lane_view.stuck_share <= MOST_COVERED or not lane_view.hung_share:
        return
    names = " and ".join(_NAMES[kind] for kind in seen.hanging)
    yield ScrollFinding(
        "covered",
        Weight.LOOK_AGAIN,
        seen.device,
        f"{lane_view.stuck_share:.0%} of the window is covered at {_px(lane_view.worst_at)} px".replace("%", " %"),
        f"{names.capitalize()} and what the shop has stuck leave "
        f"{_px(lane_view.window[1] * (1 - lane_view.stuck_share))} px of height "
        f"to read in {seen.on}; above {MOST_COVERED:.0%} is our own measure.".replace("%", " %"),
        tuple(_LANES[kind] for kind in seen.hanging),
        (Span(lane_view.worst_at, lane_view.worst_at),),
    )


def _outside(seen: _Seen) -> Iterator[ScrollFinding]:
    """Find a floating button that is too large for its corner."""
    box, floating = seen.survey.floating, seen.hung.floating
    if box is None or floating is None or not seen.spans_of("floating"):
        return
    over = box.wide + 2 * floating.inset(seen.device).side_px - seen.survey.window.wide
    if over > 0:
        yield ScrollFinding(
            "outside",
            Weight.MUST_FIX,
            seen.device,
            f"The floating button is {_px(over)} px too wide for the window",
            f"It is {_px(box.wide)} px wide; with its distances the window leaves {_px(box.wide - over)} {seen.on}.",
            ("floating",),
            seen.spans_of("floating"),
        )


_CHECKS = (_meets, _never, _outside, _hidden, _far, _gaps, _twice, _cut, _covered)
