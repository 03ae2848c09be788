"""A page along its whole scroll: when each button is in reach, when a bar stands, what lies over what.

All values between are exact: everything moves in straight lines between a few scroll positions, so that areas do too.
"""

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from itertools import pairwise

from uptick.core.button.bar import AfterDistance, AfterShare, Bar, Hanging
from uptick.core.button.document import DEVICE_FROM_PX, Device, Placement
from uptick.core.button.floating import Floating
from uptick.core.scroll.paths import (
    Flat,
    Moving,
    Path,
    covered_area,
    crossings,
    fixed_path,
    page_path,
    stuck_path,
    where_below,
)
from uptick.core.scroll.spans import Span, Spans, common, length_of, union, without
from uptick.core.scroll.survey import PageSurvey, Rect, SeenPlace

# A button is in reach while at least so much of it can be seen.
REACH_SHARE = 0.5
_NAMES = {
    Placement.PRODUCT_PAGE: "own",
    Placement.LISTING_CARD: "cards",
    Placement.STRIP: "strip",
    Placement.OVER_PICTURE: "pictures",
    Placement.TILE: "tiles",
}


@dataclass(frozen=True, slots=True)
class Lane:
    """One thing along the page: `spans` are where it is in reach, or, of the shop's own things, where it is seen.

    With `only_up` the bar stands there on scrolling up only.
    """

    key: str
    name: str
    kind: str
    spans: Spans
    count: int = 1
    only_up: bool = False


@dataclass(frozen=True, slots=True)
class Meeting:
    """Two things that lie over each other, from where to where, and by how much at worst, in CSS pixels.

    `up` and `down` are how far the first would have to move that way to be clear of the other.
    """

    one: str
    other: str
    spans: Spans
    wide: float
    high: float
    up: float
    down: float


@dataclass(frozen=True, slots=True)
class Along:
    """What comes of a page in one window.

    `reach_share` is the share of all scroll positions with a button in reach; `first_px` how far the first one is, None
    where there is none; `hung_share` and `stuck_share` how much of the window is covered at worst, by ours that hangs
    and by all that does not move with the page, and at which position. `bar_under` is how far down a thing of the
    shop's reaches under which a bar at the top stands.
    """

    window: tuple[float, float]
    page_high: float
    way_px: float
    lanes: tuple[Lane, ...]
    gaps: Spans
    meetings: tuple[Meeting, ...]
    reach_share: float
    first_px: float | None
    hung_share: float
    stuck_share: float
    worst_at: float
    shift: float
    bar_under: float = 0.0


@dataclass(frozen=True, slots=True)
class Scene:
    """A survey with what is stuck on its way."""

    survey: PageSurvey
    way: float
    stuck: tuple[Moving, ...]

    @property
    def wide(self) -> float:
        return self.survey.window.wide

    @property
    def high(self) -> float:
        return self.survey.window.high

    @property
    def device(self) -> Device:
        return max((px, device) for device, px in DEVICE_FROM_PX.items() if px <= self.wide)[1]

    def top_of(self, place: SeenPlace, y: float) -> Path:
        """Return how a height of a place moves: with the page, or with what holds it."""
        if place.holder < 0:
            return page_path(y, self.way)
        holder = self.survey.stuck[place.holder]
        return stuck_path(holder, self.high, self.way).moved(y - holder.box.y)


@dataclass(frozen=True, slots=True)
class Hung:
    """What of ours hangs at the window, as it is drawn for its product; None where none stands.

    `fixed` are those that stand for one product of their own, with or without a button of the page's; `asking` open a
    message and buy nothing.
    """

    bar: Bar | None = None
    floating: Floating | None = None
    fixed: frozenset[Placement] = frozenset()
    asking: frozenset[Placement] = frozenset()


@dataclass(frozen=True, slots=True)
class _Hangs:
    """One thing of ours that hangs, as it comes and goes on the way down; `under` is what it stands under."""

    placement: Placement
    name: str
    drawn: Hanging
    moving: Moving
    under: float

    @property
    def lane(self) -> Lane:
        return Lane(self.placement.value, self.name, self.name, self.moving.spans, only_up=self.drawn.only_up)


def along(survey: PageSurvey, hung: Hung, *, with_covers: bool = True) -> Along:
    """Return what is seen of the buttons of a page along its scroll.

    Args:
        with_covers: Count what lies under something stuck as out of reach; else only the window's edges count, as an
            IntersectionObserver does.
    """
    scene = scene_of(survey)
    way, stuck = scene.way, scene.stuck
    hangs = _hanging(scene, hung)
    covering = [one.moving for one in hangs if not one.drawn.only_up]
    covers = [*stuck, *covering] if with_covers else []
    lanes = [*_lanes(scene, covers), *(one.lane for one in hangs), *_shop_lanes(scene)]
    reach = union(span for lane in lanes if lane.kind != "shop" and not lane.only_up for span in lane.spans)
    ours = [one.moving for one in hangs]
    stuck_share, worst_at = _worst_cover(scene, [*stuck, *ours])
    return Along(
        window=(scene.wide, scene.high),
        page_high=survey.page_high,
        way_px=way,
        lanes=tuple(lanes),
        gaps=_gaps(reach, way),
        meetings=_meetings(scene, hangs),
        reach_share=length_of(reach) / way if way else float(bool(reach)),
        first_px=reach[0].begins if reach else None,
        hung_share=_worst_cover(scene, ours)[0],
        stuck_share=stuck_share,
        worst_at=worst_at,
        shift=survey.shift,
        bar_under=next((one.under for one in hangs if one.placement is Placement.STICKY_BAR), 0.0),
    )


def _gaps(reach: Spans, way: float) -> Spans:
    return tuple(gap for gap in without([Span(0.0, way)], reach) if gap.length > 0) if way else ()


def _lanes(scene: Scene, covers: Sequence[Moving]) -> list[Lane]:
    lanes = []
    for placement, name in _NAMES.items():
        places = [place for place in scene.survey.places if place.placement is placement]
        if places:
            spans = union(span for place in places for span in in_reach(scene, place, covers))
            kind = "own" if placement is Placement.PRODUCT_PAGE else "cards"
            lanes.append(Lane(placement.value, name, kind, spans, len(places)))
    return lanes


def in_reach(scene: Scene, place: SeenPlace, covers: Sequence[Moving] = ()) -> Spans:
    """Return where at least half of a button is seen."""
    box, way, high = place.box, scene.way, scene.high
    top = scene.top_of(place, box.y)
    left, right = max(box.x, 0.0), min(box.right, scene.wide)
    over: list[Path] = [fixed_path(0.0, way)]
    below: list[Path] = [fixed_path(high, way)]
    if place.clip:
        left, right = max(left, place.clip.x), min(right, place.clip.right)
        over.append(scene.top_of(place, place.clip.y))
        below.append(scene.top_of(place, place.clip.bottom))
    needed = REACH_SHARE * box.wide * box.high
    if right <= left or (right - left) * box.high < needed:
        return ()
    lies_on = [
        one
        for n, one in enumerate(covers)
        # What holds the button does not cover it.
        if n != place.holder and one.x < right and one.x + one.wide > left
    ]
    bottom = top.moved(box.high)
    edges = [*over, *below, *(edge for one in lies_on for edge in one.edges())]

    def seen(scroll: float) -> float:
        y0 = max(top.at(scroll), *(path.at(scroll) for path in over))
        y1 = min(bottom.at(scroll), *(path.at(scroll) for path in below))
        if y1 <= y0:
            return 0.0
        flat: list[Flat] = []
        for one in lies_on:
            if one.is_there(scroll):
                y = one.top.at(scroll)
                flat.append((one.x, y, one.x + one.wide, y + one.high))
        return (right - left) * (y1 - y0) - covered_area((left, y0, right, y1), flat)

    if not way:
        return (Span(0.0, 0.0),) if seen(0.0) >= needed else ()
    cuts = {0.0, way}
    for edge in edges:
        cuts.update(s for mine in (top, bottom) for s in crossings(mine, edge))
        cuts.update(s for s, _ in edge.knots)
    # What covers it may meet the window's edge or another such thing.
    for n, edge in enumerate(edges):
        for other in edges[n + 1 :] if lies_on or place.clip else ():
            cuts.update(crossings(edge, other))
    cuts.update(s for s, _ in top.knots)
    cuts.update(end for one in lies_on for span in one.spans for end in span)
    return _where_enough(sorted(s for s in cuts if 0 <= s <= way), seen, needed)


def _where_enough(cuts: Sequence[float], seen: Callable[[float], float], needed: float) -> Spans:
    """Return where a function that is straight between cuts is at least so much."""
    spans = []
    for a, b in pairwise(cuts):
        if b - a < 1e-9:
            continue
        # Asked within, since at a cut something may come or go at once.
        third = (b - a) / 3
        v0, v1 = seen(a + third), seen(b - third)
        slope = (v1 - v0) / third
        at_a, at_b = v0 - slope * third, v1 + slope * third
        slack = 1e-7 * max(1.0, needed)
        if min(at_a, at_b) >= needed - slack:
            spans.append(Span(a, b))
        elif max(at_a, at_b) >= needed - slack and slope:
            turn = a + (needed - at_a) / slope
            spans.append(Span(a, turn) if slope < 0 else Span(turn, b))
    return union(spans)


def _hanging(scene: Scene, hung: Hung) -> list[_Hangs]:
    """Return what of ours hangs on this page; what follows the page's own button stands only beside one."""
    main = next((p for p in scene.survey.places if p.stands and p.placement is Placement.PRODUCT_PAGE), None)
    found = []

    def may_hang(placement: Placement) -> bool:
        return bool(main) or placement in hung.fixed

    if may_hang(Placement.STICKY_BAR) and hung.bar and scene.survey.bar:
        high, spans = scene.survey.bar.high, hanging_spans(scene, hung.bar, main)
        under = _under(scene, spans) if hung.bar.edge == "top" else 0.0
        y = under if hung.bar.edge == "top" else scene.high - high
        moving = Moving(0.0, scene.wide, high, fixed_path(y, scene.way), spans)
        found.append(_Hangs(Placement.STICKY_BAR, "bar", hung.bar, moving, under))
    if may_hang(Placement.FLOATING) and hung.floating and scene.survey.floating:
        spans = hanging_spans(scene, hung.floating, main)
        under = _under(scene, spans) if hung.floating.is_top else 0.0
        box = _in_corner(scene, hung.floating, scene.survey.floating, under)
        moving = Moving(box.x, box.wide, box.high, fixed_path(box.y, scene.way), spans)
        found.append(_Hangs(Placement.FLOATING, "floating", hung.floating, moving, under))
    return found


def _in_corner(scene: Scene, floating: Floating, measured: Rect, under: float) -> Rect:
    """Return where a floating button lies in its corner, as large as it was measured."""
    inset = floating.inset(scene.device)
    is_right = floating.corner.endswith("end") != scene.survey.rtl
    x = scene.wide - inset.side_px - measured.wide if is_right else inset.side_px
    y = under + inset.edge_px if floating.is_top else scene.high - inset.edge_px - measured.high
    return Rect(x=x, y=y, wide=measured.wide, high=measured.high)


def hanging_spans(scene: Scene, drawn: Hanging, main: SeenPlace | None) -> Spans:
    """Return where something stands on the way down; with `only_up`, where it stands on the way up.

    Where the page has no button of its own, that one counts as scrolled past from the start.
    """
    way = scene.way
    whole = [Span(0.0, way)]
    past: Spans = tuple(whole) if main is None else where_below(scene.top_of(main, main.room.bottom), 0.0, way)
    match drawn.comes:
        case AfterShare(share=share):
            due: Spans = _after(share * way, way)
        case AfterDistance(px=px):
            due = _after(px, way)
        case _:
            due = past
    if not isinstance(drawn.comes, AfterShare | AfterDistance):
        stands = due if drawn.returns or not due else (Span(due[0].begins, way),)
    elif main and drawn.returns:
        top = scene.top_of(main, main.room.y)
        seen = without(where_below(top, scene.high, way), past)
        stands = without(due, seen)
    else:
        stands = due
    if drawn.foot_px:
        stands = common(stands, [Span(0.0, max(0.0, way - drawn.foot_px))])
    return common(stands, whole)


def _after(px: float, way: float) -> Spans:
    return (Span(px, way),) if px < way else ()


def _under(scene: Scene, spans: Spans) -> float:
    """Return where what is stuck to the upper edge ends when the bar comes."""
    if not spans:
        return 0.0
    middle, at = scene.wide / 2, spans[0].begins
    ends = [
        one.top.at(at) + one.high
        for one in scene.stuck
        if one.x <= middle < one.x + one.wide
        and one.top.at(at) <= 1 < one.top.at(at) + one.high
        and one.high < scene.high / 2
    ]
    return max(0.0, *ends) if ends else 0.0


def _shop_lanes(scene: Scene) -> Iterable[Lane]:
    for n, (thing, moving) in enumerate(zip(scene.survey.stuck, scene.stuck, strict=True)):
        if any(place.holder == n for place in scene.survey.places):
            continue
        yield Lane(f"shop:{n}", thing.name, "shop", _where_seen(moving, scene))


def _where_seen(one: Moving, scene: Scene) -> Spans:
    up = where_below(one.top, scene.high, scene.way)
    gone = where_below(one.top.moved(one.high), 0.0, scene.way)
    return without(up, gone)


def _meetings(scene: Scene, hangs: Sequence[_Hangs]) -> tuple[Meeting, ...]:
    """Return where what hangs and what the shop has stuck, or two of ours, lie over each other."""
    found = []
    for n, ours in enumerate(hangs):
        shops = zip((thing.name for thing in scene.survey.stuck), scene.stuck, strict=True)
        for name, other in (*shops, *((other.name, other.moving) for other in hangs[n + 1 :])):
            mine = ours.moving
            wide = min(mine.x + mine.wide, other.x + other.wide) - max(mine.x, other.x)
            if wide <= 0:
                continue
            spans, high = _overlap(mine, other, scene.way)
            if high >= 1:
                up, down = _clearing(mine, other, spans)
                found.append(Meeting(ours.name, name, spans, wide, high, up, down))
    return tuple(found)


def _clearing(one: Moving, other: Moving, spans: Spans) -> tuple[float, float]:
    """Return how far up, and how far down, a thing has to move to be clear of another, wherever they meet."""
    knots = {s for path in (one.top, other.top) for s, _ in path.knots}
    ends = [s for span in spans for s in (*span, *(k for k in knots if span.begins < k < span.ends))]
    up = max(one.top.at(s) + one.high - other.top.at(s) for s in ends)
    down = max(other.top.at(s) + other.high - one.top.at(s) for s in ends)
    return up, down


def _overlap(one: Moving, other: Moving, way: float) -> tuple[Spans, float]:
    """Return where two boxes have heights of the window in common, and how many pixels of them at worst."""

    def at(scroll: float) -> float:
        a, b = one.top.at(scroll), other.top.at(scroll)
        return min(a + one.high, b + other.high) - max(a, b)

    cuts = sorted(
        {0.0, way}
        | {s for mine in one.edges() for theirs in other.edges() for s in crossings(mine, theirs) if 0 < s < way}
        | {s for path in (one.top, other.top) for s, _ in path.knots if 0 < s < way}
    )
    pieces = [Span(a, b) for a, b in pairwise(cuts) if at((a + b) / 2) > 0]
    if not way:
        pieces = [Span(0.0, 0.0)] if at(0) > 0 else []
    spans = common(common(pieces, one.spans), other.spans)
    spans = tuple(span for span in spans if span.length > 0 or not way)
    return spans, max((max(at(span.begins), at(span.ends)) for span in spans), default=0.0)


def _worst_cover(scene: Scene, covers: Sequence[Moving]) -> tuple[float, float]:
    """Return the largest share of the window that is covered at once, and where."""
    area = scene.wide * scene.high
    cuts = {0.0, scene.way}
    for n, one in enumerate(covers):
        cuts.update(s for s, _ in one.top.knots)
        for limit in (0.0, scene.high):
            for edge in one.edges():
                cuts.update(crossings(edge, fixed_path(limit, scene.way)))
        cuts.update(end for span in one.spans for end in span)
        for other in covers[n + 1 :]:
            cuts.update(s for mine in one.edges() for theirs in other.edges() for s in crossings(mine, theirs))
    worst = (0.0, 0.0)
    window = (0.0, 0.0, scene.wide, scene.high)
    for scroll in sorted(s for s in cuts if 0 <= s <= scene.way):
        flat = [
            (one.x, one.top.at(scroll), one.x + one.wide, one.top.at(scroll) + one.high)
            for one in covers
            if one.is_there(scroll)
        ]
        share = covered_area(window, flat) / area
        if share > worst[0] + 1e-9:
            worst = (share, scroll)
    return worst


def scene_of(survey: PageSurvey) -> Scene:
    """Return a survey with what is stuck on its way, for a single place."""
    way = survey.way_px
    stuck = tuple(Moving.of(one.box, stuck_path(one, survey.window.high, way), way) for one in survey.stuck)
    return Scene(survey, way, stuck)
