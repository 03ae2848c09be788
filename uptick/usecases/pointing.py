"""Placing by pointing: selectors for what was pointed at, what a place comes to on the shop's pages, keeping it."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import datetime
from urllib.parse import urlsplit

from uptick.core.button.document import Device, Placement
from uptick.core.button.on_pages import PageKind
from uptick.core.button.row import Row, Tile
from uptick.core.errors import BadDocument, BadSelector, NotFound
from uptick.core.pages import PageRead, PlaceSelector, Taken, candidates, common_path, kind_of
from uptick.core.pages import look_on_page as look_at
from uptick.core.release import CompiledRelease
from uptick.core.resolved.reach_words import placement_words
from uptick.core.rules.fresh_ids import fresh_id
from uptick.core.rules.pointed import Pages, PointedPlace, Telling, ToldByPage, Where
from uptick.core.shop.catalogue import Product
from uptick.usecases.connect import page_of
from uptick.usecases.edit import require_reach, require_sound
from uptick.usecases.page_checks import has_page, kinds_of
from uptick.usecases.page_lines import LineWeight, PageLine, line_of
from uptick.usecases.ports import Draft, Person, Shop
from uptick.usecases.publish import draft_manifest

_UNMEASURED_PX = {Device.PHONE: 160.0, Device.TABLET: 220.0, Device.DESKTOP: 300.0}
TILES_AT_FIRST = 4
# From how many categories a product's page is looked at.
SPREAD = 8


@dataclass(frozen=True, slots=True)
class Survey:
    """What a place comes to on the pages that were looked at, the worst first."""

    says: str
    weight: LineWeight
    pages: tuple[PageLine, ...]
    products: int


@dataclass(frozen=True, slots=True)
class SelectorChoice:
    """A selector that can be chosen, how its products are told, and what it comes to on the pages that were sent.

    `telling` is None where the page does not tell its products.
    """

    found: PlaceSelector
    telling: Telling | None
    survey: Survey


@dataclass(frozen=True, slots=True)
class Pointing:
    """What can be made of an element that was pointed at: selectors, the most lasting first, and its pages.

    `row` is one to begin with, where tiles are wished for; None where no product has a page and a picture.
    """

    element: str
    kind: PageKind
    choices: tuple[SelectorChoice, ...]
    pages: Pages
    row: Row | None
    says: str = ""


def point(shop: Shop, html: str, path: str, placement: Placement, others: Sequence[tuple[str, str]] = ()) -> Pointing:
    """Return selectors for the element of a page that carries `data-up-pointed`.

    Args:
        others: Other pages of the shop, each a path and its outline: what holds on them goes first.

    Raises:
        NotFound: No element carries it.
    """
    page = PageRead(html, urlsplit(path).path)
    target = next(iter(page.select("[data-up-pointed]")), None)
    if target is None:
        raise NotFound("The page that was sent marks no element. Point at one again.")
    del target["data-up-pointed"]
    if placement is Placement.OVER_PICTURE and (link := target.find_parent("a")):
        # No button stands within a link: it lies beside that one, on the picture.
        target = link
    known = _known(shop)
    wants_each = placement is not Placement.PRODUCT_PAGE
    ranked = sorted(candidates(page, target), key=lambda candidate: candidate.each is not wants_each)
    kind = kind_of(page)
    pages = _pages(shop, kind, path, placement)
    row = first_row(shop)
    brings = row if placement is Placement.TILE else None
    if placement is Placement.TILE and row is None:
        says = "No product of the catalogue has a page of the shop's and a picture: a tile would have nothing to show."
        return Pointing(_named(target.name, target.get("class")), kind, (), pages, None, says)
    read = [
        (path, page),
        *((other, PageRead(outline, urlsplit(other).path)) for other, outline in others if other != path),
    ]

    def choice(selector: PlaceSelector) -> SelectorChoice:
        taken = Taken.on(page, selector.selector, shop.store.connection.product_field)
        telling = next(taken.tellings(known), None)
        # On a picture's link it lies beside the link, which stays.
        is_button = target.name in _BUTTONS and placement not in {Placement.OVER_PICTURE, Placement.TILE}
        where = Where.INSTEAD if is_button else Where.AFTER
        place = PointedPlace(
            placement=placement, selector=selector.selector, where=where, pages=pages, telling=telling or ToldByPage(),
            row=brings,
        )  # fmt: skip
        return SelectorChoice(selector, telling, _survey(shop, place, read))

    # What breaks nowhere goes first; of those the most lasting.
    choices = sorted(map(choice, ranked), key=lambda option: option.survey.weight is LineWeight.BROKEN)
    says = "" if choices else _nothing_lasting(target.name)
    return Pointing(_named(target.name, target.get("class")), kind, tuple(choices), pages, row, says)


def first_row(shop: Shop) -> Row | None:
    """Return a row to begin with: of every category the first product that can be bought and shown."""
    shown = [p for p in shop.catalogue.all() if p.url and p.picture and p.stock > 0 and has_page(p, shop.store)]
    firsts = {product.category: product for product in reversed(shown)}
    chosen = [*list(firsts.values())[::-1], *shown]
    tiles = {product.sku: Tile(sku=product.sku, path=page_of(product, shop.store)) for product in chosen}
    return Row(products=tuple(tiles.values())[:TILES_AT_FIRST]) if tiles else None


def with_pages(shop: Shop, place: PointedPlace) -> PointedPlace:
    """Return a place whose tiles lead to the pages that the catalogue has for their products.

    Raises:
        BadDocument: A tile's product is not in the catalogue, or has no page of the shop's.
    """
    row, known = place.row, _known(shop)
    if row is None:
        return place
    for tile in row.products:
        product = known.get(tile.sku)
        if product is None:
            raise BadDocument(f"The catalogue has no product {tile.sku}.", field="row.products")
        if not product.url or not has_page(product, shop.store):
            raise BadDocument(
                f"{product.name} has no page of the shop's, from which a tile could be read.", field="row.products"
            )
    tiles = tuple(t.model_copy(update={"path": page_of(known[t.sku], shop.store)}) for t in row.products)
    return place.model_copy(update={"row": row.model_copy(update={"products": tiles})})


_BUTTONS = {"button", "a", "input"}


def _nothing_lasting(name: str) -> str:
    return (
        f"Nothing that will last leads to this <{name}>: its names were made by a program, and so are those around it. "
        f"Mark the place in the theme instead: data-up-place."
    )


def _named(name: str, classes: object) -> str:
    first = classes[0] if isinstance(classes, list) and classes else ""
    return f"<{name}>" if not first else f"<{name} class={first}>"


def _known(shop: Shop) -> dict[str, Product]:
    return {product.sku: product for product in shop.catalogue.all()}


def _pages(shop: Shop, kind: PageKind, path: str, placement: Placement) -> Pages:
    """Return the pages that are meant, as far as that can be told: a product page's button is for products' pages."""
    if placement is not Placement.PRODUCT_PAGE:
        return Pages()
    if kind is PageKind.PRODUCT:
        return Pages(kinds=(PageKind.PRODUCT,))
    glob = common_path(shop.catalogue.all(), path)
    return Pages(paths=(glob,)) if glob else Pages()


@dataclass(frozen=True, slots=True)
class PageToLookAt:
    """A page of the shop; `product` is the code of the one whose page it is, empty for others."""

    name: str
    path: str
    product: str = ""


def pages_to_look_at(shop: Shop, also: str = "") -> tuple[PageToLookAt, ...]:
    """Return pages of the shop on which a place is tried: one of each kind, and a spread of products.

    Args:
        also: The code of a product whose page is among them, wherever it has one.
    """
    store = shop.store
    pages = {kind.path: kind.name for kind in kinds_of(shop)}
    products = [p for p in shop.catalogue.all() if p.url and has_page(p, store)]
    for product in (*_spread(products), *(p for p in products if p.sku == also)):
        pages.setdefault(page_of(product, store), product.name)
    own = {page_of(product, store): product.sku for product in products}
    return tuple(PageToLookAt(name, path, own.get(path, "")) for path, name in pages.items())


def _spread(products: Sequence[Product]) -> Iterator[Product]:
    """Yield products that differ: the longest and the shortest name, and some of every category."""
    if not products:
        return
    yield max(products, key=lambda p: len(p.name))
    yield min(products, key=lambda p: len(p.name))
    firsts = {product.category: product for product in reversed(products)}
    yield from list(firsts.values())[:SPREAD]


def survey(shop: Shop, place: PointedPlace, pages: Sequence[tuple[str, str]]) -> Survey:
    """Return what a place comes to on pages, each a path and its outline.

    Raises:
        BadSelector: Its selector cannot be read.
    """
    return _survey(shop, place, [(path, PageRead(html, urlsplit(path).path)) for path, html in pages])


def _survey(shop: Shop, place: PointedPlace, pages: Sequence[tuple[str, PageRead]]) -> Survey:
    known, field = _known(shop), shop.store.connection.product_field
    try:
        looks = [look_at(page, urlsplit(path).path, place, known, field) for path, page in pages]
    except ValueError as error:
        raise BadSelector(f"{error}.", field="selector") from error
    lines = sorted(
        (line_of(look, place, known) for look in looks), key=lambda line_seen: -list(LineWeight).index(line_seen.weight)
    )
    meant = [look for look in looks if look.is_meant]
    holds = sum(look.count > 0 for look in meant)
    products = len({code for look in meant for code in look.codes if code in known})
    broken = any(line.weight is LineWeight.BROKEN for line in lines)
    if not meant:
        says = "None of the pages that were looked at is meant."
    else:
        many = "one place" if sum(look.count for look in meant) == 1 else f"{sum(look.count for look in meant)} places"
        says = f"It holds on {holds} of {len(meant)} pages that are meant: {many}, {_products(products)}."
    weight = LineWeight.BROKEN if broken or not meant else max(
        (line.weight for line in lines), key=list(LineWeight).index, default=LineWeight.WELL
    )  # fmt: skip
    return Survey(says, weight, tuple(lines), products)


def _products(count: int) -> str:
    return "no product told" if not count else "one product" if count == 1 else f"{count} products"


def keep_place(
    shop: Shop, place_id: str, place: PointedPlace, base_version: int, person: Person, now: datetime
) -> Draft:
    """Add a place to the draft, or change the one of that id; an empty id adds.

    Raises:
        NotFound: There is no place of that id.
        BadSelector: Its selector cannot be read.
        BadReach: It names what the shop has not.
    """
    draft = shop.drafts.read()
    before = draft.settings.pointed.get(place_id)
    if place_id and before is None:
        raise NotFound(f"There is no place {place_id!r}.", place=place_id)
    try:
        PageRead("").count(place.selector)
    except ValueError as error:
        raise BadSelector(f"{error}.", field="selector") from error
    require_reach(shop, place.pages.reach)
    place = with_pages(shop, place)
    chosen = place_id or next_place_id(draft)
    after = draft.settings.model_copy(update={"pointed": {**draft.settings.pointed, chosen: place}})
    require_sound(shop, after)
    what = placement_words(place.placement)
    label = f"Place of {what}: {before.says} → {place.says}" if before else f"Place of {what} added: {place.says}"
    return shop.drafts.append(base_version, after, label, person, now)


def tried_place(shop: Shop, place_id: str, place: PointedPlace) -> CompiledRelease:
    """Return the draft compiled with a place as it would be; nothing is kept."""
    settings = shop.drafts.read().settings
    place = with_pages(shop, place)
    if not place.widths_px:
        # Until it is measured it is drawn as if on a narrow card.
        place = place.model_copy(update={"widths_px": _UNMEASURED_PX})
    # One that is tried goes before the others, which its own marks then keep out.
    pointed = {place_id or "tried": place, **{n: p for n, p in settings.pointed.items() if n != place_id}}
    return draft_manifest(shop, settings.model_copy(update={"pointed": pointed}))


def next_place_id(draft: Draft) -> str:
    """Return an id that no place of the draft has had."""
    return fresh_id("p", draft.settings.pointed, draft.version)


def remove_place(shop: Shop, place_id: str, base_version: int, person: Person, now: datetime) -> Draft:
    """Take a place out of the draft; the shop's own button is there again with the next release.

    Raises:
        NotFound: There is no place of that id.
    """
    draft = shop.drafts.read()
    gone = draft.settings.pointed.get(place_id)
    if gone is None:
        raise NotFound(f"There is no place {place_id!r}.", place=place_id)
    kept = {name: place for name, place in draft.settings.pointed.items() if name != place_id}
    after = draft.settings.model_copy(update={"pointed": kept})
    label = f"Place of {placement_words(gone.placement)} removed: {gone.says}"
    return shop.drafts.append(base_version, after, label, person, now)
