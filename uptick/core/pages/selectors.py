"""Selectors for an element that somebody pointed at: by names that last, by positions only where nothing else is."""

from collections import Counter
from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from itertools import islice, pairwise

import soupsieve
from bs4 import Tag

from uptick.core.pages.names import is_lasting, is_of_tools
from uptick.core.pages.page_read import PageRead, text_of

# Elements whose kind alone says what they are; there are few of them on a page.
_TELLING_TAGS = {"main", "form", "h1", "article", "header", "footer", "aside", "figure", "button"}
_MOST = 6
_COUNTS = "it counts elements: one more before it, and it means another"
# Other pages may hold what this one does not: what is narrower may be right there.
_MOST_ALIKE = 3
# So many of those that a selector finds, and of the others, are asked about.
_MOST_ASKED = 200


@dataclass(frozen=True, slots=True)
class PlaceSelector:
    """A selector, with how many elements it finds on the page.

    With `each` it finds one in every repeated thing of which the pointed one is a part; `weak` says what may break it.
    """

    selector: str
    count: int
    each: bool
    weak: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class _Mark:
    """One thing that can be said of an element; `cost` grows with how easily it changes."""

    css: str
    cost: float
    is_on: Callable[[Tag], bool]
    weak: str = ""


def candidates(page: PageRead, target: Tag) -> tuple[PlaceSelector, ...]:
    """Return selectors for an element, the most lasting first, and for those like it where it is one of many."""
    search = _Search(page, target)
    choices = [*search.of({id(target)}, each=False)]
    alike = alike_of(target)
    if len(alike) > 1:
        choices = [*search.of({id(tag) for tag in alike}, each=True), *choices]
    return tuple(choices)


class _Search:
    def __init__(self, page: PageRead, target: Tag) -> None:
        self._page = page
        self._all = page.elements
        self._target = target
        self._sets: dict[str, set[int]] = {}
        self._inside: dict[str, set[int]] = {}
        self._places = _places_of(page.elements)
        self._kinds = Counter(tag.name for tag in self._all)

    def of(self, wanted: set[int], *, each: bool) -> Iterator[PlaceSelector]:
        """Yield selectors that find the wanted elements; others too only where they are one of many."""
        by_selector: dict[str, tuple[float, PlaceSelector]] = {}
        finds: dict[str, set[int]] = {}
        for cost, marks, tags in self._tries():
            if not wanted <= tags or (not each and tags != wanted):
                continue
            # What else is found of the same kind is a card in another list; far more is another thing.
            if each and len(tags) > 3 * len(wanted) + 12:
                continue
            css = " ".join(mark.css for mark in marks)
            weak = tuple(dict.fromkeys(mark.weak for mark in marks if mark.weak))
            strays = (len(tags) - len(wanted)) * 0.05
            if css not in by_selector or by_selector[css][0] > cost + strays:
                by_selector[css] = (cost + strays, PlaceSelector(css, len(tags), each, weak))
                finds[css] = tags
        best = sorted(by_selector.values(), key=lambda pair: (pair[0], len(pair[1].selector)))
        # What was worked out from sets of elements is asked once more as it is written.
        sound = (
            ranked_choice
            for _, ranked_choice in best
            if self._is_so(ranked_choice.selector, finds[ranked_choice.selector])
        )
        given = [*self._varied(sound)]
        yield from given or ([] if each else [self._path()])

    def _is_so(self, selector: str, tags: set[int]) -> bool:
        """Tell whether a selector as it is written finds those elements: the first ones of each kind stand for all."""
        written = soupsieve.compile(selector)
        asked = [*islice((tag for tag in self._all if id(tag) in tags), _MOST_ASKED)]
        asked += islice((tag for tag in self._all if id(tag) not in tags), _MOST_ASKED)
        return all(written.match(tag) == (id(tag) in tags) for tag in (*asked, self._target))

    def _path(self) -> PlaceSelector:
        """Return the way down to the element from the nearest one with a name of its own, by positions alone."""
        steps: list[str] = []
        for tag in (self._target, *self._target.parents):
            named = [mark for mark in self._marks(tag, with_position=False) if len(self._having(mark)) == 1]
            if named or tag.name in {"body", "[document]"}:
                steps.insert(0, named[0].css if named else "body")
                break
            steps.insert(0, f"{tag.name}:nth-of-type({len(tag.find_previous_siblings(tag.name)) + 1})")
        return PlaceSelector(" > ".join(steps), 1, each=False, weak=(_COUNTS,))

    def _varied(self, best: Iterable[PlaceSelector]) -> Iterator[PlaceSelector]:
        """Yield the best: of those that end alike the two shortest, a position only where nothing else is."""
        given: list[PlaceSelector] = []
        ends: Counter[str] = Counter()
        for choice in best:
            end = choice.selector.rpartition(" ")[2]
            if ends[end] == _MOST_ALIKE or (given and choice.weak):
                continue
            ends[end] += 1
            given.append(choice)
            yield choice
            if len(given) == _MOST:
                return

    def _tries(self) -> Iterator[tuple[float, tuple[_Mark, ...], set[int]]]:
        above = [tag for tag in self._target.parents if tag.name not in {"[document]", "html", "body"}]
        own = list(self._marks(self._target))
        for mark in own:
            yield mark.cost, (mark,), self._having(mark)
        around = [(far, mark) for far, tag in enumerate(above) for mark in self._marks(tag, with_position=False)]
        around.sort(key=lambda mark_at: mark_at[1].cost + mark_at[0] * 0.25)
        for mark in own:
            for far, outer in around[:24]:
                tags = self._having(mark) & self._within(outer)
                yield mark.cost + outer.cost + 0.5 + far * 0.25, (outer, mark), tags
        for mark in own:
            for (far, outer), (farther, outmost) in pairwise(around[:12]):
                if far == farther:
                    continue
                first, second = (outmost, outer) if farther > far else (outer, outmost)
                # As both are above the element the one lies within the other.
                tags = self._having(mark) & self._within(second) & self._within(first)
                cost = mark.cost + outer.cost + outmost.cost + 1.5 + (far + farther) * 0.25
                yield cost, (first, second, mark), tags

    def _having(self, mark: _Mark) -> set[int]:
        if mark.css not in self._sets:
            self._sets[mark.css] = {id(tag) for tag in self._all if mark.is_on(tag)}
        return self._sets[mark.css]

    def _within(self, outer: _Mark) -> set[int]:
        """Return the elements below those that have a mark, each looked at once: what is above stands before."""
        if outer.css not in self._inside:
            having, inside = self._having(outer), set[int]()
            for tag in self._all:
                if id(tag.parent) in having or id(tag.parent) in inside:
                    inside.add(id(tag))
            self._inside[outer.css] = inside
        return self._inside[outer.css]

    def _marks(self, tag: Tag, *, with_position: bool = True) -> Iterator[_Mark]:
        yield from _attribute_marks(tag)
        yield from _class_marks(tag)
        name = tag.name
        if name in _TELLING_TAGS:
            cost = 2.5 if self._kinds[name] == 1 else 3.5
            yield _Mark(name, cost, lambda node: node.name == name)
        elif "-" in name:
            yield _Mark(name, 1.5, lambda node: node.name == name)
        if with_position and tag.parent:
            yield from _positions(tag, self._places)


def _places_of(tags: Sequence[Tag]) -> dict[int, int]:
    """Return how many siblings of its name stand before each element, counted once for all."""
    counted: Counter[tuple[int, str]] = Counter()
    places: dict[int, int] = {}
    for tag in tags:
        key = (id(tag.parent), tag.name)
        places[id(tag)] = counted[key]
        counted[key] += 1
    return places


def _positions(tag: Tag, places: Mapping[int, int]) -> Iterator[_Mark]:
    """Yield where an element stands among those of its kind: what breaks as soon as the page has one more."""
    place, name = places.get(id(tag), 0), tag.name
    css = f"{name}:nth-of-type({place + 1})"

    def is_there(node: Tag) -> bool:
        return node.name == name and places.get(id(node)) == place

    yield _Mark(css, 12, is_there, _COUNTS)
    parent = tag.parent
    for outer in (*_attribute_marks(parent), *_class_marks(parent)) if parent else ():
        yield _Mark(
            f"{outer.css} > {css}",
            9 + outer.cost,
            lambda node, outer=outer: bool(is_there(node) and node.parent and outer.is_on(node.parent)),  # type: ignore[misc]
            _COUNTS,
        )


def _attribute_marks(tag: Tag) -> Iterator[_Mark]:
    for name, raw in tag.attrs.items():
        value = text_of(raw)
        if name == "id" and is_lasting(value):
            yield _Mark(f"#{soupsieve.escape(value)}", 1.6, lambda node, v=value: node.get("id") == v)  # type: ignore[misc]
        elif name.startswith("data-") and not is_of_tools(name):
            if value and len(value) < 40 and not value[0].isdigit() and " " not in value and is_lasting(value):
                yield _with_value(name, value, 1.0)
            yield _Mark(f"[{name}]", 1.3, lambda node, n=name: node.has_attr(n))  # type: ignore[misc]
        elif name in {"itemprop", "itemtype", "name", "role"} and value and is_lasting(value):
            yield _with_value(name, value, {"role": 2.6, "name": 1.2}.get(name, 1.1))
        elif name == "action" and value.startswith("/") and is_lasting(value.strip("/").replace("/", "-")):
            yield _with_value(name, value, 1.4)
        elif name == "type" and value == "submit":
            yield _with_value(name, value, 3.0)


def _with_value(name: str, value: str, cost: float) -> _Mark:
    quoted = value.replace("\\", "\\\\").replace('"', '\\"')
    return _Mark(f'[{name}="{quoted}"]', cost, lambda tag: text_of(tag.get(name)) == value)


def _class_marks(tag: Tag) -> Iterator[_Mark]:
    for name in _classes(tag):
        if is_lasting(name):
            # A name of several words says more of what it is.
            cost = 2.0 - 0.2 * min(name.count("-") + name.count("_"), 3)
            yield _Mark(f".{soupsieve.escape(name)}", cost, lambda node, n=name: n in _classes(node))  # type: ignore[misc]


def _classes(tag: Tag) -> list[str]:
    return text_of(tag.get("class")).split()


def alike_of(target: Tag) -> list[Tag]:
    """Return an element with those that stand in the same place of other things like its own, as cards of one list."""
    best: list[Tag] = [target]
    path: list[tuple[str, int]] = []
    at = target
    while at.parent and at.parent.name not in {"[document]", "html"}:
        siblings = at.parent.find_all(at.name, recursive=False)
        twins = [twin for sibling in siblings if (twin := _follow(sibling, path))]
        if len(twins) > len(best) and len(twins) * 2 > len(siblings):
            best = twins
        place = len(at.find_previous_siblings(at.name))
        path.insert(0, (at.name, place))
        at = at.parent
    return best


def _follow(start: Tag, path: Sequence[tuple[str, int]]) -> Tag | None:
    at = start
    for name, place in path:
        inside = at.find_all(name, recursive=False)
        if len(inside) <= place:
            return None
        at = inside[place]
    return at
