"""Which elements of a page a pointed place takes, for which products, and what stands in its way there."""

import re
from collections import Counter
from collections.abc import Callable, Collection, Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import TypeVar
from urllib.parse import unquote

from bs4 import Tag

from uptick.core.button.on_pages import PageKind
from uptick.core.pages.page_read import PageRead, path_of, text_of
from uptick.core.rules.pointed import (
    PointedPlace,
    Telling,
    ToldByAddress,
    ToldByAttribute,
    ToldByLink,
    ToldByPage,
    Where,
)
from uptick.core.rules.reach import Reach
from uptick.core.shop.catalogue import Product

R = TypeVar("R")
_PAGE = ("[document]", "html")
_MAIN = (*_PAGE, "main", "body")
_CODED = re.compile(r"^[a-z][a-z0-9_:.\-]*$")


def kind_of(page: PageRead) -> PageKind:
    """Return what a page is about, by the products that its JSON-LD describes."""
    if page.own_code:
        return PageKind.PRODUCT
    return PageKind.LIST if any(product.sku for product in page.products) else PageKind.OTHER


@dataclass(frozen=True)
class Taken:
    """The elements that a selector finds on a page, but for those in a place that the shop's code marks.

    What belongs to one of them lies in the smallest element around it that holds it, and holds none of the others; what
    lies anywhere in the page's main part belongs to no one of them. `storefront/src/places/find.ts` does the same.
    """

    page: PageRead
    anchors: tuple[Tag, ...]
    marked: int
    product_field: str = ""

    @classmethod
    def on(cls, page: PageRead, selector: str, product_field: str = "") -> "Taken":
        """Look for a selector.

        Raises:
            ValueError: It cannot be read.
        """
        elements = page.select(selector)
        free = tuple(tag for tag in elements if not _is_marked(tag))
        return cls(page, free, len(elements) - len(free), product_field)

    @cached_property
    def _holds(self) -> Counter[int]:
        """How many of the elements lie in each element around them."""
        return Counter(id(up) for tag in self.anchors for up in (tag, *tag.parents))

    def _near(self, anchor: Tag, look: Callable[[Tag], R | None], until: Collection[str] = _MAIN) -> R | None:
        at: Tag | None = anchor
        while at is not None and self._holds[id(at)] == 1 and at.name not in until:
            if (value := look(at)) is not None:
                return value
            at = at.parent
        return None

    def codes(self, telling: Telling) -> tuple[str, ...]:
        """Return the product's code at every element; empty where it is not told."""
        return tuple(self._code(anchor, telling) for anchor in self.anchors)

    def _code(self, anchor: Tag, telling: Telling) -> str:
        match telling:
            case ToldByAttribute(name=name):
                return self._near(anchor, lambda at: _first_value(at, name)) or ""
            case ToldByLink(pattern=pattern):
                return self._near(anchor, lambda at: _by_link(at, lambda path: _group(pattern, path))) or ""
            case ToldByAddress():
                return self._near(anchor, lambda at: _by_link(at, self._by_address.get)) or ""
        if (by_form := self._near(anchor, self._in_form, _PAGE)) is not None:
            return by_form
        return self.page.own_code if len(self.anchors) == 1 else ""

    @cached_property
    def _by_address(self) -> dict[str, str]:
        nodes = self.page.product_nodes
        by_page = ((text_of(node.get("url")), text_of(node.get("sku") or node.get("productGroupID"))) for node in nodes)
        return {path: sku for url, sku in by_page if sku and (path := path_of(url))}

    def _in_form(self, at: Tag) -> str | None:
        forms = [at] if at.name == "form" else at.find_all("form")
        for form in forms:
            for field in form.find_all(["input", "select", "button"], attrs={"name": self.product_field}):
                if value := text_of(field.get("value")):
                    return value
        return None

    def tellings(self, known: Mapping[str, Product]) -> Iterator[Telling]:
        """Yield how the products of all these elements are told, the surest first; nothing where they are not."""
        if not self.anchors:
            return
        ways: tuple[Telling, ...] = (ToldByPage(), *self._by_attributes(known), ToldByAddress(), *self._by_links(known))
        for telling in ways:
            codes = self.codes(telling)
            if all(code in known for code in codes) and len(set(codes)) == len(codes):
                yield telling

    def _by_attributes(self, known: Collection[str]) -> Iterator[ToldByAttribute]:
        anchor = self.anchors[0]
        seen: dict[str, None] = {}

        def collect(at: Tag) -> None:
            for tag in (at, *at.find_all()):
                seen.update({n: None for n, value in tag.attrs.items() if text_of(value) in known and _CODED.match(n)})

        self._near(anchor, collect)
        # What is written for programs goes before what is written for looks.
        for name in sorted(seen, key=lambda n: (not n.startswith("data-"), n in {"id", "class", "value"})):
            yield ToldByAttribute(name=name)

    def _by_links(self, known: Collection[str]) -> Iterator[ToldByLink]:
        def pattern(path: str) -> str | None:
            parts = path.split("/")
            at = [n for n, part in enumerate(parts) if part in known]
            return "/".join("{code}" if n == at[0] else part for n, part in enumerate(parts)) if at else None

        if told_path := self._near(self.anchors[0], lambda at: _by_link(at, pattern)):
            yield ToldByLink(path=told_path)


def _is_marked(tag: Tag) -> bool:
    return any(up.has_attr("data-up-place") for up in (tag, *tag.parents))


def _first_value(at: Tag, name: str) -> str | None:
    if at.has_attr(name):
        return text_of(at.get(name))
    inside = at.find(lambda tag: tag.has_attr(name))
    return text_of(inside.get(name)) if inside else None


def _by_link(at: Tag, look: Callable[[str], str | None]) -> str | None:
    links = [at] if at.name == "a" else at.find_all("a", href=True)
    for link in links:
        if path := look(path_of(text_of(link.get("href")))):
            return path
    return None


def _group(pattern: str, path: str) -> str | None:
    matched = re.search(pattern, path)
    try:
        return unquote(matched[1], errors="strict") if matched else None
    except UnicodeDecodeError:
        return None


@dataclass(frozen=True, slots=True)
class Hindrance:
    """Why a button cannot work at a place, or not well, and what would make it work."""

    says: str
    to_do: str
    is_sure: bool = True


_EMPTY = {
    "img",
    "input",
    "br",
    "hr",
    "source",
    "embed",
    "iframe",
    "video",
    "audio",
    "canvas",
    "svg",
    "select",
    "textarea",
}
_ONLY = {
    "ul": "li",
    "ol": "li",
    "dl": "dt",
    "table": "tr",
    "thead": "tr",
    "tbody": "tr",
    "tr": "td",
    "select": "option",
}


def hindrances(anchor: Tag, where: Where) -> Iterator[Hindrance]:
    """Yield what of HTML's own rules stands in the way of a button at an element."""
    around = [anchor, *anchor.parents] if where is Where.INSIDE else [*anchor.parents]
    if where is Where.INSIDE and anchor.name in _EMPTY:
        yield Hindrance(f"Nothing can stand inside <{anchor.name}>.", "Choose before or after it.")
    host = anchor if where is Where.INSIDE else anchor.parent
    if host is not None and host.name in _ONLY:
        kind = _ONLY[host.name]
        says = f"<{host.name}> holds only <{kind}>: a button right in it is moved or read out wrongly."
        yield Hindrance(says, f"Point at something inside the <{kind}>.")
    for name, says in (("a", "a link"), ("button", "a button")):
        if any(tag.name == name for tag in around):
            yield Hindrance(
                f"It lies inside {says}: a press would do both, and keyboards reach only one (HTML, content model).",
                f"Point at something outside that {says.removeprefix('a ')}, or choose instead of it.",
            )
    if "-" in anchor.name and not anchor.find():
        says = f"<{anchor.name}> draws its content in a tree of its own, into which no selector reaches."
        yield Hindrance(says, "Choose before, after or instead of all of it.", is_sure=where is Where.INSIDE)


def common_path(products: Sequence[Product], path: str) -> str:
    """Return a glob for the pages of products like the one at a path; empty where their paths differ."""
    folder = path.rpartition("/")[0]
    alike = sum(path_of(product.url).rpartition("/")[0] == folder for product in products if product.url)
    with_address = sum(bool(product.url) for product in products)
    return f"{folder}/*" if folder and with_address and alike >= 0.9 * with_address else ""


@dataclass(frozen=True, slots=True)
class OnPage:
    """What a pointed place comes to on one page.

    `is_meant` tells whether it is looked for there at all; `codes` are those of the products at the elements that it
    takes, empty where the page does not tell.
    """

    path: str
    kind: PageKind
    is_meant: bool
    count: int
    marked: int
    codes: tuple[str, ...]
    troubles: tuple[Hindrance, ...]


def look_on_page(
    page: PageRead, path: str, place: PointedPlace, known: Mapping[str, Product], product_field: str
) -> OnPage:
    """Return what a place comes to on a page.

    Raises:
        ValueError: Its selector cannot be read.
    """
    kind = kind_of(page)
    taken = Taken.on(page, place.selector, product_field)
    meant = place.pages.holds_page(kind, path)
    if place.row:
        return _row_on_page(taken, path, kind, place, is_meant=meant)
    codes = taken.codes(place.telling) if meant else ()
    reach = place.pages.reach
    covered = [code for code in codes if _covers(reach, code, known)]
    if codes and not covered and reach.narrows_products and any(code in known for code in codes):
        meant = False
    troubles = tuple(dict.fromkeys(h for anchor in taken.anchors[:40] for h in hindrances(anchor, place.where)))
    count = len(covered) if reach.narrows_products else len(taken.anchors)
    return OnPage(path, kind, meant, count if meant else 0, taken.marked, tuple(covered), troubles)


def _row_on_page(taken: Taken, path: str, kind: PageKind, place: PointedPlace, *, is_meant: bool) -> OnPage:
    """Return what a place that brings its products comes to: it stands at the first element that is found."""
    tiles = place.row.products if place.row else ()
    anchors = taken.anchors if is_meant else ()
    troubles = tuple(dict.fromkeys(h for anchor in anchors[:1] for h in hindrances(anchor, place.where)))
    codes = tuple(tile.sku for tile in tiles) if anchors else ()
    return OnPage(path, kind, is_meant, len(anchors), taken.marked, codes, troubles)


def _covers(reach: Reach, code: str, known: Mapping[str, Product]) -> bool:
    product = known.get(code)
    return reach.covers_product(code, product.category if product else "")
