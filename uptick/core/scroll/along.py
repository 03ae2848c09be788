"""A page along its whole scroll: when each button is in reach, when a bar stands, what lies over what."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from uptick.core.button.document import Placement
from uptick.core.scroll.hanging import Hangs, Hung, hanging
from uptick.core.scroll.in_reach import in_reach
from uptick.core.scroll.meetings import Meeting, meetings_of, worst_cover
from uptick.core.scroll.paths import Moving, where_below
from uptick.core.scroll.scene import Scene, scene_of
from uptick.core.scroll.spans import Span, Spans, length_of, union, without
from uptick.core.scroll.survey import PageSurvey

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


def along(survey: PageSurvey, hung: Hung, *, with_covers: bool = True) -> Along:
    """Return what is seen of the buttons of a page along its scroll.

    Args:
        with_covers: Count what lies under something stuck as out of reach; else only the window's edges count, as an
            IntersectionObserver does.
    """
    scene = scene_of(survey)
    way, stuck = scene.way, scene.stuck
    hangs = hanging(scene, hung)
    covering = [hang.moving for hang in hangs if not hang.drawn.only_up]
    covers = [*stuck, *covering] if with_covers else []
    lanes = [*_lanes(scene, covers), *(_lane_of(hang) for hang in hangs), *_shop_lanes(scene)]
    reach = union(span for lane in lanes if lane.kind != "shop" and not lane.only_up for span in lane.spans)
    ours = [hang.moving for hang in hangs]
    stuck_share, worst_at = worst_cover(scene, [*stuck, *ours])
    return Along(
        window=(scene.wide, scene.high),
        page_high=survey.page_high,
        way_px=way,
        lanes=tuple(lanes),
        gaps=_gaps(reach, way),
        meetings=meetings_of(scene, hangs),
        reach_share=length_of(reach) / way if way else float(bool(reach)),
        first_px=reach[0].begins if reach else None,
        hung_share=worst_cover(scene, ours)[0],
        stuck_share=stuck_share,
        worst_at=worst_at,
        shift=survey.shift,
        bar_under=next((hang.under for hang in hangs if hang.placement is Placement.STICKY_BAR), 0.0),
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


def _lane_of(hangs: Hangs) -> Lane:
    return Lane(hangs.placement.value, hangs.name, hangs.name, hangs.moving.spans, only_up=hangs.drawn.only_up)


def _shop_lanes(scene: Scene) -> Iterable[Lane]:
    for n, (thing, moving) in enumerate(zip(scene.survey.stuck, scene.stuck, strict=True)):
        if any(place.holder == n for place in scene.survey.places):
            continue
        yield Lane(f"shop:{n}", thing.name, "shop", _where_seen(moving, scene))


def _where_seen(box: Moving, scene: Scene) -> Spans:
    up = where_below(box.top, scene.high, scene.way)
    gone = where_below(box.top.moved(box.high), 0.0, scene.way)
    return without(up, gone)
