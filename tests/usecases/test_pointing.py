"""Placing by pointing: what can be made of an element, what a place comes to on the shop's pages, and keeping it."""

from dataclasses import replace

import pytest

from tests.samples import NOW, PRODUCTS
from tests.usecases.fakes import ADA, FakeShop, fake_shop
from uptick.core.button.document import Device, Placement
from uptick.core.button.on_pages import PageKind
from uptick.core.errors import BadDocument, BadReach, BadSelector, NotFound, Stale
from uptick.core.release import compile_release
from uptick.core.rules.pointed import Pages, PointedPlace, ToldByAttribute, ToldByLink, Where
from uptick.usecases import edit, pointing, publish
from uptick.usecases.page_lines import LineWeight
from uptick.usecases.ports import Shop

FIRST, SECOND = (product.sku for product in PRODUCTS[:2])
LD = f'<script type="application/ld+json">{{"@type":"Product","sku":"{FIRST}"}}</script>'
PAGE = LD + '<main><form class=Buy_root__x9J2b><button data-action="add"HERE>Add</button></form></main>'


def cards(*skus: str, here: int = -1, around: str = "") -> str:
    def card(n: int, sku: str) -> str:
        at = " data-up-pointed" if n == here else ""
        return f'<li class=card><a href="/p/{sku}">…</a><p class=price{at}></p></li>'

    return f"{around}<ul class=cards>{''.join(card(n, sku) for n, sku in enumerate(skus))}</ul>"


def place(selector: str = '[data-action="add"]', **more: object) -> PointedPlace:
    told = {"placement": "product_page", "selector": selector, "where": "instead", **more}
    return PointedPlace.model_validate(told)


def keep(shop: Shop, place_id: str, at: PointedPlace) -> None:
    pointing.keep_place(shop, place_id, at, shop.drafts.read().version, ADA, NOW)


@pytest.fixture
def fake() -> FakeShop:
    return fake_shop()


def test_a_products_own_button_is_pointed_at_and_meant_on_products_pages(fake: FakeShop) -> None:
    found = pointing.point(fake.shop, PAGE.replace("HERE", " data-up-pointed"), f"/p/{FIRST}", Placement.PRODUCT_PAGE)
    assert found.kind is PageKind.PRODUCT
    assert found.pages == Pages(kinds=(PageKind.PRODUCT,))
    assert found.choices[0].found.selector == '[data-action="add"]'
    assert found.choices[0].survey.says == "It holds on 1 of 1 pages that are meant: one place, one product."


def test_of_selectors_the_one_goes_first_that_breaks_on_no_other_page(fake: FakeShop) -> None:
    html = cards(FIRST, SECOND, here=1)
    # The page of a product has a price of its own, which is no card's.
    other = cards(FIRST, SECOND, around="<p class=price></p>")
    [plain, *_] = pointing.point(fake.shop, html, "/", Placement.LISTING_CARD).choices
    assert plain.found.selector == ".price"
    [better, *_, last] = pointing.point(fake.shop, html, "/", Placement.LISTING_CARD, [("/p/x", other)]).choices
    assert better.found.selector in {".card .price", ".cards .price"}
    assert better.telling == ToldByLink(path="/p/{code}")
    assert better.survey.weight is LineWeight.WELL
    assert last.survey.weight is LineWeight.BROKEN


def test_what_was_not_pointed_at_or_leads_nowhere_is_said(fake: FakeShop) -> None:
    with pytest.raises(NotFound, match="marks no element"):
        pointing.point(fake.shop, PAGE.replace("HERE", ""), "/", Placement.PRODUCT_PAGE)


def test_a_survey_says_the_worst_first_with_what_to_do(fake: FakeShop) -> None:
    two = PAGE.replace("HERE", "") + '<button data-action="add">Add</button>'
    gone = LD + "<main></main>"
    ours = LD + '<div data-up-place="product_page"><button data-action="add">Add</button></div>'
    linked = LD + '<a href="/x"><button data-action="add">Add</button></a>'
    pages = [("/a", PAGE.replace("HERE", "")), ("/b", two), ("/c", gone), ("/d", ours), ("/e", linked), ("/f", "<p>")]
    found = pointing.survey(fake.shop, place(pages={"kinds": ["product"]}), pages)
    said = {line.path: (line.weight.value, line.says) for line in found.pages}
    assert said["/a"] == ("well", f"One place, for {PRODUCTS[0].name}.")
    assert said["/b"] == ("broken", "It finds 2 here, where one product has one button.")
    assert said["/c"] == ("broken", '“[data-action="add"]” finds nothing here.')
    assert said["/d"] == ("well", "The shop's code marks the place already; that counts.")
    assert said["/e"][0] == "broken"
    assert "inside a link" in said["/e"][1]
    assert said["/f"] == ("well", "Not meant.")
    assert [line.weight.value for line in found.pages] == sorted(line.weight.value for line in found.pages)
    assert found.says == "It holds on 3 of 5 pages that are meant: 4 places, one product."
    assert all(line.to_do for line in found.pages if line.weight is LineWeight.BROKEN)


def test_cards_that_do_not_tell_their_product_or_tell_an_unknown_one_are_named(fake: FakeShop) -> None:
    at = place(".price", placement="listing_card", where="after", telling={"kind": "link", "path": "/p/{code}"})
    [strange] = pointing.survey(fake.shop, at, [("/", cards(FIRST, "NOBODY-1"))]).pages
    assert strange.weight is LineWeight.NOTE
    assert "NOBODY-1" in strange.says
    at = place(".price", placement="listing_card", where="after", telling={"kind": "attribute", "name": "data-code"})
    [mute] = pointing.survey(fake.shop, at, [("/", cards(FIRST, SECOND))]).pages
    assert mute.says == "2 of 2 do not tell which product they are of."
    assert "data-up-product" in mute.to_do


def test_a_place_is_a_step_of_the_draft_that_is_undone_and_released(fake: FakeShop) -> None:
    shop = fake.shop
    keep(shop, "", place())
    assert set(shop.drafts.read().settings.pointed) == {"p1"}
    assert shop.drafts.read().undo_label.endswith('added: instead of [data-action="add"]')
    keep(shop, "p1", place(".buy"))
    edit.undo(shop, ADA, NOW)
    assert shop.drafts.read().settings.pointed["p1"].selector == '[data-action="add"]'
    edit.undo(shop, ADA, NOW)
    assert shop.drafts.read().settings.pointed == {}
    edit.redo(shop, ADA, NOW)
    publish.publish(shop, "", ADA, NOW, ("findings",))
    assert publish.view_release(shop).is_other is False
    version = shop.drafts.read().version
    pointing.remove_place(shop, "p1", version, ADA, NOW)
    view = publish.view_release(shop)
    assert (view.is_other, view.changes, view.draft.changes) == (True, (), 1)
    assert [(change.before is None, change.after is None) for change in view.places] == [(False, True)]


def test_what_cannot_be_kept_is_refused_and_the_draft_stays(fake: FakeShop) -> None:
    shop = fake.shop
    with pytest.raises(BadSelector, match="cannot be read"):
        keep(shop, "", place("p["))
    with pytest.raises(BadSelector):
        pointing.survey(shop, place("p:nonsense("), [("/", "<p>")])
    with pytest.raises(BadReach, match="No product has the code"):
        keep(shop, "", place(pages={"products": ["NOBODY-1"]}))
    with pytest.raises(NotFound, match="no place 'p7'"):
        keep(shop, "p7", place())
    with pytest.raises(NotFound, match="no place 'p7'"):
        pointing.remove_place(shop, "p7", shop.drafts.read().version, ADA, NOW)
    before = shop.drafts.read().version
    keep(shop, "", place())
    with pytest.raises(Stale):
        pointing.keep_place(shop, "", place(), before, ADA, NOW)


def test_the_script_is_told_what_a_place_is_and_patterns_that_both_languages_read(fake: FakeShop) -> None:
    shop = fake.shop
    at = place(
        ".price", placement="listing_card", where="after", telling={"kind": "link", "path": "/p.x/{code}"},
        pages={"kinds": ["list"], "paths": ["/lists/*", "/a+b"], "not_paths": ["/old*"], "not_products": [FIRST]},
    )  # fmt: skip
    keep(shop, "", at)
    assert compile_release(shop.now(), shop.today)["pointed"] == [
        {
            "place": "listing_card",
            "selector": ".price",
            "where": "after",
            "kinds": ["list"],
            "paths": r"^/lists/.*$|^/a\+b$",
            "not_paths": r"^/old.*$",
            "reach": {"not_products": [FIRST]},
            "link": r"^/p\.x/([^/]+)/?$",
        }
    ]
    told = pointing.tried_place(shop, "p1", at.model_copy(update={"telling": ToldByAttribute(name="data-code")}))
    assert told["pointed"][0]["attribute"] == "data-code"


def test_a_place_of_a_new_placement_gives_it_room_of_its_own(fake: FakeShop) -> None:
    surfaces = {p: s for p, s in fake.store.surfaces.items() if p is not Placement.STRIP}
    fake.store = fake.store.model_copy(update={"surfaces": surfaces})
    shop = fake.shop
    assert Placement.STRIP not in shop.store.places
    tried = pointing.tried_place(shop, "", place(".price", placement="strip", where="after"))
    assert tried["places"]["strip"]["looks"]
    measured = place(".price", placement="strip", where=Where.AFTER, widths_px={Device.PHONE: 140})
    keep(shop, "", measured)
    assert fake.shop.store.surfaces[Placement.STRIP].widths_px == {Device.PHONE: 140}


def test_pages_to_look_at_are_of_every_kind_and_spread_over_the_catalogue(fake: FakeShop) -> None:
    pages = pointing.pages_to_look_at(fake.shop)
    assert pages[0].path == "/"
    assert len({page.path for page in pages}) == len(pages)


def tiles(*skus: str, **more: object) -> PointedPlace:
    row = {"products": [{"sku": sku, "path": "/"} for sku in skus], **more}
    return place("main", where="after", placement="tile", row=row)


def test_tiles_begin_with_what_can_be_bought_and_shown_and_stand_beside_a_button(fake: FakeShop) -> None:
    html = PAGE.replace("HERE", " data-up-pointed")
    none = pointing.point(fake.shop, html, f"/p/{FIRST}", Placement.TILE)
    assert (none.row, none.choices) == (None, ())
    assert "has a page of the shop's and a picture" in none.says
    shown = fake_shop(products=[replace(product, picture=f"/i/{product.sku}.svg") for product in PRODUCTS])
    found = pointing.point(shown.shop, html, f"/p/{FIRST}", Placement.TILE)
    assert found.row is not None
    # The first of every category, then the others; what is sold out is not shown.
    assert [tile.sku for tile in found.row.products] == ["A1", "B1", "D1", "A2"]
    assert [tile.path for tile in found.row.products] == ["/p/A1", "/p/B1", "/p/D1", "/p/A2"]
    assert found.choices[0].survey.says.startswith("It holds on 1 of 1 pages")


def test_a_tile_leads_where_the_catalogue_says_and_what_is_not_in_it_is_refused(fake: FakeShop) -> None:
    keep(fake.shop, "", tiles(FIRST))
    (kept,) = fake.shop.drafts.read().settings.pointed.values()
    assert kept.row is not None
    assert kept.row.products[0].path == PRODUCTS[0].url
    with pytest.raises(BadDocument, match="no product GONE-1"):
        keep(fake.shop, "", tiles(FIRST, "GONE-1"))


def test_a_row_is_said_with_its_tiles_and_those_that_are_gone(fake: FakeShop) -> None:
    def says(of: PointedPlace, html: str) -> tuple[str, str]:
        (line,) = pointing.survey(fake.shop, of, [("/a", html)]).pages
        return line.weight.value, line.says

    assert says(tiles(FIRST, SECOND), "<main></main>") == ("well", "A row of 2 tiles.")
    assert says(tiles(FIRST, seen=True, most=6), "<main></main>")[1].endswith("saw last, 6 at most.")
    assert says(tiles(FIRST), "<main></main><main></main>") == (
        "note", "A row of one tile, at the first of 2 elements that are found.",
    )  # fmt: skip
    assert says(tiles("GONE-1"), "<main></main>")[1].startswith("The catalogue no longer has GONE-1")
    assert says(tiles(FIRST), "<p>") == ("well", "“main” finds nothing here.")


def test_a_row_makes_its_placement_and_its_button_is_as_wide_as_a_tile(fake: FakeShop) -> None:
    keep(fake.shop, "", tiles(FIRST).model_copy(update={"widths_px": {Device.PHONE: 343.0, Device.DESKTOP: 960.0}}))
    surface = fake.shop.store.surfaces[Placement.TILE]
    assert surface.widths_px == {Device.PHONE: 163.5, Device.DESKTOP: 228}
    made = compile_release(fake.shop.now(), NOW.date())
    assert "row" in made["pointed"][0]
    assert "tile" in made["places"]
