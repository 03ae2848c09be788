"""How heights change while a page is scrolled: piecewise linear, so that every crossing is found exactly."""

from bisect import bisect_right
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

from uptick.core.scroll.spans import Span, Spans, union
from uptick.core.scroll.survey import Rect, Stuck

# Nearer than this two positions are one: far below a pixel, far above what floats lose.
NEAR_PX = 1e-6


@dataclass(frozen=True, slots=True)
class Path:
    """A height in the window over the scroll position: knots with straight lines between them."""

    knots: tuple[tuple[float, float], ...]

    def at(self, scroll: float) -> float:
        """Return the height at a scroll position, in pixels of the window."""
        knots = self.knots
        n = min(max(bisect_right(knots, (scroll, float("inf"))), 1), len(knots) - 1)
        (s0, y0), (s1, y1) = knots[n - 1], knots[n]
        return y0 if s1 == s0 else y0 + (y1 - y0) * (scroll - s0) / (s1 - s0)

    def moved(self, by: float) -> "Path":
        """Return the path so many pixels further down."""
        return Path(tuple((s, y + by) for s, y in self.knots))


def fixed_path(y: float, way: float) -> Path:
    """Return the path of what stays at a height in the window over a whole way of scrolling."""
    return Path(((0.0, y), (max(way, 1.0), y)))


def page_path(y: float, way: float) -> Path:
    """Return the path of what moves with the page."""
    return Path(((0.0, y), (max(way, 1.0), y - max(way, 1.0))))


def stuck_path(thing: Stuck, window_high: float, way: float) -> Path:
    """Return where the upper edge of a thing stands in the window.

    Source:
        CSS Positioned Layout 3, sticky positioning: it moves with the page, is held at its inset from the edge, and
        never leaves what contains it.
    """
    if thing.kind == "fixed":
        return fixed_path(thing.box.y, way)
    high, natural = thing.box.high, thing.box.y
    if thing.edge == "top":
        held, last = thing.inset, max(thing.most - high, natural)
        turns = (natural - held, last - held)

        def at(scroll: float) -> float:
            return min(max(natural - scroll, held), last - scroll)
    else:
        held, first = window_high - thing.inset - high, min(thing.least, natural)
        turns = (first - held, natural - held)

        def at(scroll: float) -> float:
            return max(min(natural - scroll, held), first - scroll)

    end = max(way, 1.0)
    knots = sorted({0.0, end, *(turn for turn in turns if 0 < turn < end)})
    return Path(tuple((scroll, at(scroll)) for scroll in knots))


def crossings(path: Path, other: Path) -> list[float]:
    """Return where two paths meet, without stretches on which they are the same."""
    knots = sorted({s for s, _ in path.knots} | {s for s, _ in other.knots})
    zeros = []
    for s0, s1 in pairwise(knots):
        d0, d1 = path.at(s0) - other.at(s0), path.at(s1) - other.at(s1)
        if d0 != d1 and ((d0 < 0) != (d1 < 0) or not d0 or not d1):
            zeros.append(s0 + (s1 - s0) * d0 / (d0 - d1))
    return zeros


def where_below(path: Path, limit: float, way: float) -> Spans:
    """Return where a path is less than a height."""
    level = fixed_path(limit, way)
    cuts = sorted({0.0, way, *(s for s in crossings(path, level) if 0 < s < way), *_inner(path, way)})
    spans = [Span(a, b) for a, b in pairwise(cuts) if path.at((a + b) / 2) < limit - NEAR_PX]
    if not spans and way == 0 and path.at(0) < limit:
        return (Span(0.0, 0.0),)
    return union(spans)


def _inner(path: Path, way: float) -> list[float]:
    return [s for s, _ in path.knots if 0 < s < way]


# A box in the window at one scroll position: left, top, right, bottom.
Flat = tuple[float, float, float, float]


@dataclass(frozen=True, slots=True)
class Moving:
    """A box whose height in the window changes with the scroll, and the stretches in which it is there at all."""

    x: float
    wide: float
    high: float
    top: Path
    spans: Spans

    @classmethod
    def of(cls, rect: Rect, top: Path, way: float) -> "Moving":
        """Return a box that is there over the whole way."""
        return cls(rect.x, rect.wide, rect.high, top, (Span(0.0, way),))

    def is_there(self, scroll: float) -> bool:
        """Tell whether it is there at a scroll position."""
        return any(span.begins - NEAR_PX <= scroll <= span.ends + NEAR_PX for span in self.spans)

    def flat_at(self, scroll: float) -> Flat:
        """Return its box in the window at a scroll position."""
        top = self.top.at(scroll)
        return self.x, top, self.x + self.wide, top + self.high

    def edges(self) -> tuple[Path, Path]:
        """Return the paths of its upper and lower edge."""
        return self.top, self.top.moved(self.high)


def covered_area(of: Flat, covers: Sequence[Flat]) -> float:
    """Return how much of a box (left, top, right, bottom) lies under others, each spot once."""
    left, top, right, bottom = of
    inside = [
        (max(left, x0), max(top, y0), min(right, x1), min(bottom, y1))
        for x0, y0, x1, y1 in covers
        if x0 < right and x1 > left and y0 < bottom and y1 > top
    ]
    if len(inside) < 2:
        return sum((x1 - x0) * (y1 - y0) for x0, y0, x1, y1 in inside)
    heights = sorted({y for _, y0, _, y1 in inside for y in (y0, y1)})
    area = 0.0
    for y0, y1 in pairwise(heights):
        rows = union(Span(a, c) for a, b, c, d in inside if b <= y0 and d >= y1)
        area += sum(row.length for row in rows) * (y1 - y0)
    return area
