"""What lies over each other along a page, and how much of the window is covered at worst."""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

from uptick.core.scroll.hanging import Hangs
from uptick.core.scroll.paths import Moving, covered_area, crossings, fixed_path
from uptick.core.scroll.scene import Scene
from uptick.core.scroll.spans import Span, Spans, common


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


def meetings_of(scene: Scene, hangs: Sequence[Hangs]) -> tuple[Meeting, ...]:
    """Return where what hangs and what the shop has stuck, or two of ours, lie over each other."""
    meetings = []
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
                meetings.append(Meeting(ours.name, name, spans, wide, high, up, down))
    return tuple(meetings)


def _clearing(box: Moving, other: Moving, spans: Spans) -> tuple[float, float]:
    """Return how far up, and how far down, a thing has to move to be clear of another, wherever they meet."""
    knots = {s for path in (box.top, other.top) for s, _ in path.knots}
    ends = [s for span in spans for s in (*span, *(k for k in knots if span.begins < k < span.ends))]
    up = max(box.top.at(s) + box.high - other.top.at(s) for s in ends)
    down = max(other.top.at(s) + other.high - box.top.at(s) for s in ends)
    return up, down


def _overlap(box: Moving, other: Moving, way: float) -> tuple[Spans, float]:
    """Return where two boxes have heights of the window in common, and how many pixels of them at worst."""

    def at(scroll: float) -> float:
        a, b = box.top.at(scroll), other.top.at(scroll)
        return min(a + box.high, b + other.high) - max(a, b)

    cuts = sorted(
        {0.0, way}
        | {s for mine in box.edges() for theirs in other.edges() for s in crossings(mine, theirs) if 0 < s < way}
        | {s for path in (box.top, other.top) for s, _ in path.knots if 0 < s < way}
    )
    pieces = [Span(a, b) for a, b in pairwise(cuts) if at((a + b) / 2) > 0]
    if not way:
        pieces = [Span(0.0, 0.0)] if at(0) > 0 else []
    spans = common(common(pieces, box.spans), other.spans)
    spans = tuple(span for span in spans if span.length > 0 or not way)
    return spans, max((max(at(span.begins), at(span.ends)) for span in spans), default=0.0)


def worst_cover(scene: Scene, covers: Sequence[Moving]) -> tuple[float, float]:
    """Return the largest share of the window that is covered at once, and where."""
    area = scene.wide * scene.high
    cuts = {0.0, scene.way}
    for n, corner in enumerate(covers):
        cuts.update(s for s, _ in corner.top.knots)
        for limit in (0.0, scene.high):
            for edge in corner.edges():
                cuts.update(crossings(edge, fixed_path(limit, scene.way)))
        cuts.update(end for span in corner.spans for end in span)
        for other in covers[n + 1 :]:
            cuts.update(s for mine in corner.edges() for theirs in other.edges() for s in crossings(mine, theirs))
    worst = (0.0, 0.0)
    window = (0.0, 0.0, scene.wide, scene.high)
    for scroll in sorted(s for s in cuts if 0 <= s <= scene.way):
        flat = [cover.flat_at(scroll) for cover in covers if cover.is_there(scroll)]
        share = covered_area(window, flat) / area
        if share > worst[0] + 1e-9:
            worst = (share, scroll)
    return worst
