"""The order in which the letters of one line are drawn, where both directions of writing meet."""

from itertools import groupby
from typing import NamedTuple
from unicodedata import bidirectional

# UAX 9: strong letters and numbers; a number runs from left to right also among letters that do not.
_LEFT_TO_RIGHT, _RIGHT_TO_LEFT = {"L", "EN", "AN"}, {"R", "AL"}


class DirectionalRun(NamedTuple):
    """Letters that are read in one direction, and where they begin in their line."""

    text: str
    rtl: bool
    begins: int


def visual_runs(text: str, *, rtl: bool) -> list[DirectionalRun]:
    """Return a line's runs from left to right.

    One level of embedding, which is what a button's words have: a name or a number in a sentence. Signs of a number
    (a currency, a percent sign) go with the number beside them; what has no direction goes with both neighbours, or
    with the line where they differ.

    Source:
        Unicode Standard Annex 9, rules W4, W5, N1, N2 and L2.
    """
    ways = [_way(character) for character in text]
    kinds = [bidirectional(character) for character in text]
    for step in (1, -1):
        order = range(len(text)) if step == 1 else range(len(text) - 1, -1, -1)
        for n in order:
            before = n - step
            if kinds[n] == "ET" and 0 <= before < len(text) and kinds[before] in {"EN", "ET"} and ways[before] is False:
                ways[n] = False
    filled = _between(ways, rtl)
    runs, begins = [], 0
    for way, group in groupby(filled):
        ends = begins + len(list(group))
        runs.append(DirectionalRun(text[begins:ends], way, begins))
        begins = ends
    return runs[::-1] if rtl else runs


def _way(character: str) -> bool | None:
    kind = bidirectional(character)
    if kind in _RIGHT_TO_LEFT:
        return True
    return False if kind in _LEFT_TO_RIGHT else None


def _between(ways: list[bool | None], rtl: bool) -> list[bool]:
    """Return ways with the open ones closed: as both neighbours are, or as the line is."""
    directions: list[bool] = []
    for n, way in enumerate(ways):
        if way is not None:
            directions.append(way)
            continue
        before = next((known for known in reversed(ways[:n]) if known is not None), rtl)
        after = next((known for known in ways[n:] if known is not None), rtl)
        directions.append(before if before == after else rtl)
    return directions
