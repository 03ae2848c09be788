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
    made: list[Span] = []
    for span in sorted(spans):
        if made and span.begins <= made[-1].ends:
            made[-1] = Span(made[-1].begins, max(made[-1].ends, span.ends))
        else:
            made.append(span)
    return tuple(made)


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
    found = (
        Span(max(a.begins, b.begins), min(a.ends, b.ends))
        for a in one
        for b in other
        if max(a.begins, b.begins) <= min(a.ends, b.ends)
    )
    return union(found)


def length_of(spans: Iterable[Span]) -> float:
    """Return the pixels of all spans together."""
    return sum(span.length for span in spans)
