"""What of ours hangs at the window, and where along the page it comes and goes."""

from dataclasses import dataclass

from uptick.core.button.bar import AfterDistance, AfterShare, Bar, Hanging
from uptick.core.button.document import Placement
from uptick.core.button.floating import Floating
from uptick.core.scroll.paths import Moving, fixed_path, where_below
from uptick.core.scroll.scene import Scene
from uptick.core.scroll.spans import Span, Spans, common, without
from uptick.core.scroll.survey import Rect, SeenPlace


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
class Hangs:
    """One thing of ours that hangs, as it comes and goes on the way down; `under` is what it stands under."""

    placement: Placement
    name: str
    drawn: Hanging
    moving: Moving
    under: float


def hanging(scene: Scene, hung: Hung) -> list[Hangs]:
    """Return what of ours hangs on this page; what follows the page's own button stands only beside one."""
    main = next((p for p in scene.survey.places if p.stands and p.placement is Placement.PRODUCT_PAGE), None)
    hangs = []

    def may_hang(placement: Placement) -> bool:
        return bool(main) or placement in hung.fixed

    if may_hang(Placement.STICKY_BAR) and hung.bar and scene.survey.bar:
        high, spans = scene.survey.bar.high, hanging_spans(scene, hung.bar, main)
        under = _under(scene, spans) if hung.bar.edge == "top" else 0.0
        y = under if hung.bar.edge == "top" else scene.high - high
        moving = Moving(0.0, scene.wide, high, fixed_path(y, scene.way), spans)
        hangs.append(Hangs(Placement.STICKY_BAR, "bar", hung.bar, moving, under))
    if may_hang(Placement.FLOATING) and hung.floating and scene.survey.floating:
        spans = hanging_spans(scene, hung.floating, main)
        under = _under(scene, spans) if hung.floating.is_top else 0.0
        box = _in_corner(scene, hung.floating, scene.survey.floating, under)
        moving = Moving(box.x, box.wide, box.high, fixed_path(box.y, scene.way), spans)
        hangs.append(Hangs(Placement.FLOATING, "floating", hung.floating, moving, under))
    return hangs


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
        thing.top.at(at) + thing.high
        for thing in scene.stuck
        if thing.x <= middle < thing.x + thing.wide
        and thing.top.at(at) <= 1 < thing.top.at(at) + thing.high
        and thing.high < scene.high / 2
    ]
    return max(0.0, *ends) if ends else 0.0
