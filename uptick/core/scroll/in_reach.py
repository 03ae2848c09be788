"""Where along a page a button is in reach: where at least half of it can be seen.

All is exact: everything moves in straight lines between a few scroll positions, so that what is seen of a button
changes in straight lines too.
"""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property
from itertools import combinations, pairwise

from uptick.core.scroll.paths import Flat, Moving, Path, covered_area, crossings, fixed_path
from uptick.core.scroll.scene import Scene
from uptick.core.scroll.spans import Span, Spans, union
from uptick.core.scroll.survey import SeenPlace

# A button is in reach while at least so much of it can be seen.
REACH_SHARE = 0.5


@dataclass(frozen=True)
class _Opening:
    """What a button is seen through: below all of its upper edges and above all of its lower ones."""

    left: float
    right: float
    upper: tuple[Path, ...]
    lower: tuple[Path, ...]

    @classmethod
    def of(cls, scene: Scene, place: SeenPlace) -> "_Opening":
        """Return the window, as far as what cuts the place off leaves it."""
        left, right = max(place.box.x, 0.0), min(place.box.right, scene.wide)
        upper: tuple[Path, ...] = (fixed_path(0.0, scene.way),)
        lower: tuple[Path, ...] = (fixed_path(scene.high, scene.way),)
        if clip := place.clip:
            left, right = max(left, clip.x), min(right, clip.right)
            upper = (*upper, scene.top_of(place, clip.y))
            lower = (*lower, scene.top_of(place, clip.bottom))
        return cls(left, right, upper, lower)


@dataclass(frozen=True)
class _Button:
    """A button on its way through its opening, under what lies over it."""

    top: Path
    bottom: Path
    opening: _Opening
    covers: tuple[Moving, ...]

    @cached_property
    def edges(self) -> tuple[Path, ...]:
        """Everything by which its visible part can end."""
        covers = (edge for cover in self.covers for edge in cover.edges())
        return (*self.opening.upper, *self.opening.lower, *covers)

    def seen_at(self, scroll: float) -> float:
        """Return how much of it is seen at a scroll position, in square pixels."""
        left, right = self.opening.left, self.opening.right
        top = max(self.top.at(scroll), *(edge.at(scroll) for edge in self.opening.upper))
        bottom = min(self.bottom.at(scroll), *(edge.at(scroll) for edge in self.opening.lower))
        if bottom <= top:
            return 0.0
        flat: list[Flat] = [cover.flat_at(scroll) for cover in self.covers if cover.is_there(scroll)]
        return (right - left) * (bottom - top) - covered_area((left, top, right, bottom), flat)

    def turns(self) -> Iterator[float]:
        """Yield every scroll position at which what is seen can begin to change at another rate."""
        for edge in self.edges:
            yield from crossings(self.top, edge)
            yield from crossings(self.bottom, edge)
            yield from (scroll for scroll, _ in edge.knots)
        # The edges of the window never meet each other; what covers or cuts off may meet them or one another.
        if len(self.edges) > 2:
            for edge, other in combinations(self.edges, 2):
                yield from crossings(edge, other)
        yield from (scroll for scroll, _ in self.top.knots)
        yield from (end for cover in self.covers for span in cover.spans for end in span)


def in_reach(scene: Scene, place: SeenPlace, covers: Sequence[Moving] = ()) -> Spans:
    """Return the scroll positions, in CSS pixels, at which at least half of a button is seen.

    Args:
        covers: What may lie over it.
    """
    opening = _Opening.of(scene, place)
    needed = REACH_SHARE * place.box.wide * place.box.high
    wide = opening.right - opening.left
    if wide <= 0 or wide * place.box.high < needed:
        return ()
    over = tuple(
        cover
        for n, cover in enumerate(covers)
        # What holds the button does not cover it.
        if n != place.holder and cover.x < opening.right and cover.x + cover.wide > opening.left
    )
    top = scene.top_of(place, place.box.y)
    button = _Button(top, top.moved(place.box.high), opening, over)
    if not scene.way:
        return (Span(0.0, 0.0),) if button.seen_at(0.0) >= needed else ()
    turns = {0.0, scene.way, *(scroll for scroll in button.turns() if 0 <= scroll <= scene.way)}
    return _where_enough(sorted(turns), button.seen_at, needed)


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
