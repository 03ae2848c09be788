"""Stretches of a scroll: sorted spans that do not touch, and what can be done with them."""

from collections.abc import Iterable, Sequence
from typing import NamedTuple


class Span(NamedTuple):
    """From and to which scroll position, both included, in CSS pixels."""

    begins: float
    ends: float

    @property
    def length(self) -> float:
        """Pixels from its beginning to its end."""
        return self.ends - self.begins


Spans = tuple[Span, ...]


def union(spans: Iterable[Span]) -> Spans:
    """Return the same stretches, each position once."""
    joined: list[Span] = []
    for span in sorted(spans):
        if joined and span.begins <= joined[-1].ends:
            joined[-1] = Span(joined[-1].begins, max(joined[-1].ends, span.ends))
        else:
            joined.append(span)
    return tuple(joined)


def without(spans: Iterable[Span], taken: Iterable[Span]) -> Spans:
    """Return what is left of some stretches; ends that touch what is taken stay."""
    left = list(union(spans))
    for cut in union(taken):
        kept: list[Span] = []
        for span in left:
            if cut.ends <= span.begins or cut.begins >= span.ends:
                kept.append(span)
                continue
            if cut.begins > span.begins:
                kept.append(Span(span.begins, cut.begins))
            if cut.ends < span.ends:
                kept.append(Span(cut.ends, span.ends))
        left = kept
    return tuple(left)


def common(one: Iterable[Span], other: Sequence[Span]) -> Spans:
    """Return the stretches that lie in both."""
    stretches = (
        Span(max(a.begins, b.begins), min(a.ends, b.ends))
        for a in one
        for b in other
        if max(a.begins, b.begins) <= min(a.ends, b.ends)
    )
    return union(stretches)


def length_of(spans: Iterable[Span]) -> float:
    """Return the pixels of all spans together."""
    return sum(span.length for span in spans)
