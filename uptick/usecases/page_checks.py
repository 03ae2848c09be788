"""Checking a store's live pages: whether what was released is really there, one kind of page at a time."""

import re
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import asdict, dataclass
from datetime import datetime
from typing import Any
from zoneinfo import ZoneInfo

from uptick.core.button.document import Placement, Situation
from uptick.core.pages import TRUSTED_TYPE, PageRead, ProductTold, look_on_page, missing_in, refuses_our_type
from uptick.core.rules.places import with_places
from uptick.core.rules.pointed import PointedPlace
from uptick.core.shop.catalogue import Product
from uptick.core.shop.store import Store
from uptick.usecases.connect import page_of, trouble_of
from uptick.usecases.page_lines import LineWeight, line_of
from uptick.usecases.ports import Shop
from uptick.usecases.visiting import Fetched, ShopVisit

_RELEASE = re.compile(r'"release":(\d+)')


_STOCK = {"InStock": "in stock", "OutOfStock": "out of stock", "SoldOut": "sold out", "PreOrder": "to pre-order"}


@dataclass(frozen=True, slots=True)
class CheckLine:
    """One thing that was looked at: what it is about, what is so, and what to do where it is not as it should be."""

    about: str
    weight: LineWeight
    says: str
    to_do: str = ""


@dataclass(frozen=True, slots=True)
class PageExample:
    """A kind of page with an example of it."""

    name: str
    path: str
    placement: Placement | None = None
    product: Product | None = None


@dataclass(frozen=True, slots=True)
class PageCheck:
    kind: str
    path: str
    lines: tuple[CheckLine, ...]

    @property
    def is_live(self) -> bool:
        return all(line.weight is not LineWeight.BROKEN for line in self.lines)


@dataclass(frozen=True, slots=True)
class PagesReport:
    """A look at one page of every kind, at a moment, for a release; `at` is the time of day in the store's own time."""

    release: int
    made_at: datetime
    at: str
    pages: tuple[PageCheck, ...]

    @property
    def live(self) -> int:
        return sum(page.is_live for page in self.pages)

    @property
    def sentence(self) -> str:
        """Say it as the ledger does."""
        at = self.at
        if self.live == len(self.pages):
            return f"seen live on {self.live} of {len(self.pages)} kinds of page at {at}"
        missing = ", ".join(page.kind for page in self.pages if not page.is_live)
        return f"seen live on {self.live} of {len(self.pages)} kinds of page at {at}; missing on: {missing}"

    def as_json(self) -> dict[str, Any]:
        fields = asdict(self)
        return {**fields, "made_at": self.made_at.isoformat(), "live": self.live, "sentence": self.sentence}


_SITUATIONS = {
    Situation.PLAIN: "product page",
    Situation.CHOICE: "product page with a choice",
    Situation.SET: "product page of a set",
    Situation.PRE_ORDER: "product page of a pre-order",
    Situation.SOLD_OUT: "product page of what is sold out",
}


@dataclass(frozen=True, slots=True)
class ReleasedPlaces:
    """What of the newest release a look needs: its number, 0 where there is none, and the places it was pointed at."""

    number: int
    pointed: tuple[PointedPlace, ...]
    known: Mapping[str, Product]


def released_of(shop: Shop) -> ReleasedPlaces:
    """Return the places of the newest release with the catalogue as it is now."""
    newest = shop.releases.newest()
    known = {product.sku: product for product in shop.catalogue.all()}
    return ReleasedPlaces(newest.n if newest else 0, tuple(newest.settings.pointed.values()) if newest else (), known)


def released_kinds(shop: Shop) -> tuple[PageExample, ...]:
    """Return the kinds of page as the newest release has them."""
    newest = shop.releases.newest()
    return kinds_of(shop, with_places(shop.registered, newest.settings) if newest else shop.registered)


def kinds_of(shop: Shop, of: Store | None = None) -> tuple[PageExample, ...]:
    """Return the kinds of page that a store has, as its draft has them, each with an example from its catalogue."""
    store, products = of or shop.store, shop.catalogue.all()
    at = {place: store.surfaces[place].page_path for place in store.places if place is not Placement.PRODUCT_PAGE}
    kinds = [PageExample("front page", "/", next((place for place, path in at.items() if path == "/"), None))]
    named = {place: f"{place.value.replace('_', ' ')}s" for place in at}
    kinds += [PageExample(named[place], path, place) for place, path in at.items() if path not in {"", "/"}]
    if Placement.PRODUCT_PAGE in store.places:
        for situation, name in _SITUATIONS.items():
            product = next((p for p in products if p.situation is situation and p.url and has_page(p, store)), None)
            if product:
                kinds.append(PageExample(name, page_of(product, store), Placement.PRODUCT_PAGE, product))
    return tuple(kinds)


def has_page(product: Product, store: Store) -> bool:
    """Tell whether a product's page is the shop's own."""
    return product.url.startswith(("/", *(f"{origin}/" for origin in store.origins)))


def check_pages(
    store: Store,
    released: ReleasedPlaces,
    kinds: Sequence[PageExample],
    visit: ShopVisit,
    edge_visit: ShopVisit,
    edge: str,
    now: datetime,
) -> PagesReport:
    """Look at one page of every kind, as a shopper's browser would get it.

    Args:
        visit: Goes to the shop's addresses.
        edge_visit: Goes to the edge.
        edge: Where the script is served from.
    """
    script = _script(edge_visit, store, released.number)
    pages = tuple(
        PageCheck(kind.name, kind.path, tuple(_lines(kind, visit.fetch(kind.path), store, edge, script, released)))
        for kind in kinds
    )
    return PagesReport(released.number, now, f"{now.astimezone(ZoneInfo(store.timezone)):%H:%M}", pages)


def _script(visit: ShopVisit, store: Store, release: int) -> CheckLine:
    answer = visit.fetch(f"/s/{store.key}/up.js", "text/javascript")
    if not answer.is_ok:
        return CheckLine(
            "script", LineWeight.BROKEN, f"The script cannot be had: {trouble_of(answer)}", "Look at the edge."
        )
    match = _RELEASE.search(answer.text)
    if match is None:
        return CheckLine("script", LineWeight.BROKEN, "The script holds no release yet.", "Release the draft.")
    if int(match[1]) != release:
        says = f"The script serves release {match[1]}; the newest is {release}."
        return CheckLine(
            "script", LineWeight.BROKEN, says, "Wait a minute and look again; a cache before the edge may keep it."
        )
    return CheckLine("script", LineWeight.WELL, f"The script serves release {release}.")


def _lines(
    kind: PageExample, page: Fetched, store: Store, edge: str, script: CheckLine, released: ReleasedPlaces
) -> Iterator[CheckLine]:
    read = PageRead(page.text, kind.path)
    reached = _reached(page, read)
    yield reached
    if reached.weight is LineWeight.BROKEN:
        return
    snippet = _snippet(read, store, edge)
    yield from _copy(page, is_missing=snippet.weight is LineWeight.BROKEN)
    yield snippet
    if snippet.weight is LineWeight.WELL:
        yield script
    yield from _policy(page, read, edge)
    pointed = [*_pointed(kind, read, store, released)]
    yield from (line for _, line in pointed)
    if kind.placement is None:
        return
    here = [place for place, _ in pointed if place.placement is kind.placement]
    if not here:
        yield _places(kind, read)
    if kind.product:
        yield from _product(kind.product, read, is_marked=bool(here))
        # Beside a button that stands before or after something the shop's own is not looked for.
        if not here:
            yield _own(kind.placement, read)


def _reached(page: Fetched, read: PageRead) -> CheckLine:
    if page.trouble:
        return CheckLine("page", LineWeight.BROKEN, page.says, "Register the address, or mend the redirect.")
    if read.has_password_form or page.status in {401, 403}:
        says = f"The page is behind a password ({page.status})."
        return CheckLine("page", LineWeight.BROKEN, says, "Open the shop, or look with the password.")
    if not page.is_ok:
        return CheckLine("page", LineWeight.BROKEN, f"The page answered {page.status}.", "Give a page that is there.")
    if not page.is_html:
        kind = page.headers.get("content-type", "nothing")
        return CheckLine("page", LineWeight.BROKEN, f"It is no page but {kind}.", "Give a page that shoppers see.")
    via = f", by way of {len(page.hops)} redirects" if page.hops else ""
    return CheckLine("page", LineWeight.WELL, f"Reached in {page.took_ms} ms{via}.")


def _copy(page: Fetched, *, is_missing: bool) -> Iterator[CheckLine]:
    age = page.headers.get("age", "")
    # Age is RFC 9111, 5.1; that caches say hit or miss in a header with their name in it is common practice.
    names = [name for name in page.headers if "cache" in name and name != "cache-control"]
    headers = [f"{name}: {page.headers[name]}" for name in names]
    hit = any(re.search(r"\bhit\b", header, re.IGNORECASE) for header in headers)
    if not hit and not (age.isdigit() and int(age) > 0):
        return
    old = f"This copy is {_span(int(age))} old" if age.isdigit() else "This is a cache's copy"
    says = f"{old} ({', '.join(headers) or f'age: {age}'})."
    if is_missing:
        yield CheckLine(
            "copy", LineWeight.BROKEN, says, "Empty that cache: it keeps a page from before our line was in it."
        )
    else:
        yield CheckLine("copy", LineWeight.NOTE, says)


def _span(seconds: int) -> str:
    for size, name in ((86_400, "day"), (3_600, "hour"), (60, "minute")):
        if seconds >= size:
            count = seconds // size
            return f"{count} {name}{'s' if count > 1 else ''}"
    return f"{seconds} seconds"


def _snippet(read: PageRead, store: Store, edge: str) -> CheckLine:
    ours = [src for src in read.scripts if src.startswith(f"{edge}/s/")]
    own = [src for src in ours if src.startswith(f"{edge}/s/{store.key}/")]
    line = f'<script async src="{edge}/s/{store.key}/up.js"></script>'
    if own and len(ours) > len(own):
        other = next(src for src in ours if src not in own)
        says = f"Beside our line the page has another store's: {other}. Only the one that comes first works."
        return CheckLine("line", LineWeight.BROKEN, says, "Take the other one out.")
    if len(own) > 1:
        return CheckLine(
            "line", LineWeight.NOTE, f"Our line is on the page {len(own)} times; it works once.", "Leave one of them."
        )
    if own:
        return CheckLine("line", LineWeight.WELL, "Our line is on the page.")
    if ours:
        return CheckLine("line", LineWeight.BROKEN, f"The line is another store's: {ours[0]}.", f"Put in {line}")
    return CheckLine("line", LineWeight.BROKEN, "Our line is not on the page.", f"Put in {line}")


def _policy(page: Fetched, read: PageRead, edge: str) -> Iterator[CheckLine]:
    policies = [header for header in (page.headers.get("content-security-policy", ""), read.policy) if header]
    nonced = bool(read.attribute(f'script[src^="{edge}/"]', "nonce"))
    for missing in missing_in(policies, edge, nonced=nonced):
        weight = LineWeight.BROKEN if missing.directive == "script-src" else LineWeight.NOTE
        says = f"The page's policy does not allow it: {missing.effect}."
        yield CheckLine("policy", weight, says, f"Add to the policy: {missing.line}")
    if refuses_our_type(policies):
        says = "The page asks for Trusted Types and names none of ours: a press cannot load what it needs."
        yield CheckLine("policy", LineWeight.BROKEN, says, f"Add to the policy: trusted-types {TRUSTED_TYPE}")


def _places(kind: PageExample, read: PageRead) -> CheckLine:
    name = kind.placement.value if kind.placement else ""
    products = [product for place, product in read.places if place == name]
    if not products:
        return CheckLine(
            "places", LineWeight.BROKEN, "No place for a button is marked on it.", f'Mark one: data-up-place="{name}"'
        )
    if kind.placement is Placement.PRODUCT_PAGE and len(products) > 1:
        says = f"{len(products)} places for the page's own button are marked."
        return CheckLine("places", LineWeight.NOTE, says, "One is enough; the sticky bar follows the first.")
    plural = "s" if len(products) > 1 else ""
    return CheckLine("places", LineWeight.WELL, f"{len(products)} place{plural} for a button.")


def _pointed(
    kind: PageExample, read: PageRead, store: Store, released: ReleasedPlaces
) -> Iterator[tuple[PointedPlace, CheckLine]]:
    for place in released.pointed:
        look = look_on_page(read, kind.path, place, released.known, store.connection.product_field)
        expected = look.is_meant and (place.placement is kind.placement or look.count > 0)
        if not expected or look.marked:
            continue
        line = line_of(look, place, released.known)
        what = place.placement.value.replace("_", " ")
        if not look.count:
            says = f"The place of the {what}, {place.says}, is no longer found here."
            to_do = "Point at it again. Where a script draws the page, look at it in the studio."
            yield place, CheckLine("places", LineWeight.BROKEN, says, to_do)
        else:
            yield place, CheckLine("places", line.weight, f"{what.capitalize()}, {place.says}: {line.says}", line.to_do)


def _product(product: Product, read: PageRead, *, is_marked: bool = False) -> Iterator[CheckLine]:
    if read.broken_schema:
        says = f"{read.broken_schema} of its scripts of JSON-LD cannot be read: they are no JSON."
        yield CheckLine("product", LineWeight.NOTE, says, "Mend the template that writes them.")
    page_product = next((p for p in read.products if p.sku == product.sku), None)
    page_product = page_product or (read.products[0] if len(read.products) == 1 else None)
    marked = is_marked or any(code == product.sku for _, code in read.places)
    if page_product is None and not marked:
        says = "The page does not tell which product it is about."
        yield CheckLine(
            "product", LineWeight.BROKEN, says, "Let it tell by JSON-LD, or by data-up-product at the place."
        )
        return
    if page_product is None:
        yield CheckLine(
            "product", LineWeight.NOTE, f"Its product is {product.sku}, by the mark at the place. It tells no price."
        )
        return
    if page_product.sku and page_product.sku != product.sku:
        says = f"The page is about {page_product.sku}; the catalogue has {product.sku} at this address."
        yield CheckLine("product", LineWeight.BROKEN, says, "Import the catalogue again.")
        return
    yield _price(product, page_product)


def _price(product: Product, page_product: ProductTold) -> CheckLine:
    price = f"{page_product.price or 'no price'} {page_product.currency}"
    what = f"{page_product.name or page_product.sku}, {price}, {page_product.availability or 'no stock told'}"
    wished = f"{product.price:.2f}" if product.price is not None else ""
    if page_product.price and wished and _amount(page_product.price) != _amount(wished):
        return CheckLine(
            "product", LineWeight.NOTE, f"{what}. The catalogue says {wished}.", "Import the catalogue again."
        )
    gone = page_product.availability in {"OutOfStock", "SoldOut", "Discontinued"}
    if page_product.availability and gone != (product.situation is Situation.SOLD_OUT):
        says = f"{what}. The catalogue says {'sold out' if not gone else 'in stock'}."
        return CheckLine("product", LineWeight.NOTE, says, "Import the catalogue again.")
    return CheckLine("product", LineWeight.WELL, f"{what}.")


def _amount(text: str) -> float | None:
    try:
        return float(text)
    except ValueError:
        return None


def _own(placement: Placement, read: PageRead) -> CheckLine:
    own = read.own_buttons(placement.value)
    if own:
        return CheckLine("own button", LineWeight.WELL, f"The shop's own button is there: “{own[0]}”.")
    says = "The shop's own button is not in the place."
    return CheckLine(
        "own button", LineWeight.NOTE, says, "Where ours cannot stand, nothing would sell: put it into the place."
    )
