"""Placing by pointing: selectors that last, products that are told, what stands in the way, on which pages it is."""

import pytest
from bs4 import Tag

from tests.samples import PRODUCTS
from uptick.core.button.document import Placement
from uptick.core.button.on_pages import PageKind
from uptick.core.pages import (
    Hindrance,
    OnPage,
    PageRead,
    Taken,
    candidates,
    common_path,
    hindrances,
    kind_of,
    look_on_page,
)
from uptick.core.rules.pointed import (
    Pages,
    PointedPlace,
    Telling,
    ToldByAddress,
    ToldByAttribute,
    ToldByLink,
    ToldByPage,
    Where,
)
from uptick.core.shop.catalogue import Product

KNOWN = {product.sku: product for product in PRODUCTS}
FIRST, SECOND, THIRD = (product.sku for product in PRODUCTS[:3])


def pointed(html: str) -> tuple[PageRead, Tag]:
    page = PageRead(html)
    [target] = page.select("[data-here]")
    del target["data-here"]
    return page, target


def chosen(html: str) -> list[str]:
    return [candidate.selector for candidate in candidates(*pointed(html)) if not candidate.each]


def card(sku: str, here: bool = False, more: str = "") -> str:
    at = " data-here" if here else ""
    return (
        f'<li class="card css-1x2y3z"><a href="/p/{sku}"><img></a><h3>…</h3><p class="price mt-4"{at}></p>{more}</li>'
    )


def test_made_up_names_numbers_and_states_are_passed_over() -> None:
    found = chosen(
        '<main><form id="form-48213" class="css-1x2y3z is-open">'
        '<button class="Buy_button__Qm4vT w-full product-form__submit" data-v-1a2b3c4d data-here>Add</button>'
        "<button class=other></button></form></main>"
    )
    assert found[0] == ".product-form__submit"
    assert not [
        finding
        for finding in found
        if "css-" in finding or "48213" in finding or "open" in finding or "w-full" in finding
    ]


def test_an_attribute_that_says_what_it_does_goes_before_a_class() -> None:
    assert chosen('<button class="buy" data-action="add" data-here>Add</button>')[0] == '[data-action="add"]'
    # A code of one product would find no other.
    assert chosen(f'<div><button data-sku="{FIRST}-1234" data-here>Add</button></div>')[0] == "[data-sku]"


def test_positions_are_the_last_way_and_say_so() -> None:
    page, target = pointed("<div><p></p><p data-here></p><p></p></div>")
    [only] = candidates(page, target)
    assert only.selector.endswith("p:nth-of-type(2)")
    assert only.weak == ("it counts elements: one more before it, and it means another",)


def test_of_a_list_one_in_each_card_is_found_and_the_pointed_one_alone() -> None:
    page, target = pointed(
        f'<div class="price">From £1</div><ul class="grid-of-cards">{card(FIRST)}{card(SECOND, True)}{card(THIRD)}</ul>'
    )
    found = candidates(page, target)
    each = [finding for finding in found if finding.each]
    assert [(choice.selector, choice.count) for choice in each] == [
        (".price", 4), (".grid-of-cards .price", 3), (".card .price", 3)
    ]  # fmt: skip
    alone = [finding for finding in found if not finding.each]
    assert all(choice.count == 1 and choice.weak for choice in alone)


@pytest.mark.parametrize(
    ("html", "telling"),
    [
        # The form beside it holds the code.
        ("".join(f'<li class=c><form><input name=sku value={s}><b class=x></b></form></li>' for s in (FIRST, SECOND)),
         ToldByPage()),
        ("".join(f'<li class=c data-code="{s}" id="n{n}"><b class=x></b></li>' for n, s in enumerate((FIRST, SECOND))),
         ToldByAttribute(name="data-code")),
        ("".join(f'<li class=c><a href="/goods/{s}/buy">…</a><b class=x></b></li>' for s in (FIRST, SECOND)),
         ToldByLink(path="/goods/{code}/buy")),
        (f'<script type="application/ld+json">[{{"@type":"Product","sku":"{FIRST}","url":"https://x.example/oak"}},'
         f'{{"@type":"Product","sku":"{SECOND}","url":"/ash"}}]</script>'
         + "".join(f'<li class=c><a href="{path}?from=list">…</a><b class=x></b></li>' for path in ("/oak", "/ash")),
         ToldByAddress()),
    ],
)  # fmt: skip
def test_products_are_told_by_form_attribute_link_or_address(html: str, telling: Telling) -> None:
    taken = Taken.on(PageRead(html), ".x", "sku")
    assert next(taken.tellings(KNOWN)) == telling
    assert taken.codes(telling) == (FIRST, SECOND)


def test_what_is_told_for_a_list_is_told_for_none_of_its_cards() -> None:
    """An attribute around all of them belongs to no one of them."""
    html = f'<ul data-code="{FIRST}"><li><b class=x></b></li><li><b class=x></b></li></ul>'
    taken = Taken.on(PageRead(html), ".x", "sku")
    assert list(taken.tellings(KNOWN)) == []
    assert taken.codes(ToldByAttribute(name="data-code")) == ("", "")


def test_a_page_of_one_product_tells_it_for_its_one_place() -> None:
    ld = f'<script type="application/ld+json">{{"@type":"Product","sku":"{FIRST}"}}</script>'
    page = PageRead(ld + "<b class=x></b>")
    assert kind_of(page) is PageKind.PRODUCT
    assert Taken.on(page, ".x").codes(ToldByPage()) == (FIRST,)
    assert kind_of(PageRead("<p>")) is PageKind.OTHER


def _describes(*codes: str, more: str = "") -> str:
    nodes = ",".join(f'{{"@type":"Product","sku":"{code}","url":"https://x.example/p/{code}"}}' for code in codes)
    return f'{more}<script type="application/ld+json">[{nodes}]</script><b class=x></b>'


def test_a_page_that_tells_of_related_products_too_is_that_of_its_own() -> None:
    """RFC 6596: the canonical address is the one by which a page is called, whatever leads to it."""
    html = _describes(SECOND, FIRST)
    own = PageRead(html, f"/p/{FIRST}")
    assert (own.own_code, kind_of(own)) == (FIRST, PageKind.PRODUCT)
    assert Taken.on(own, ".x").codes(ToldByPage()) == (FIRST,)
    by_list = PageRead(_describes(SECOND, FIRST, more=f'<link rel=canonical href="/p/{FIRST}">'), f"/oak/{FIRST}")
    assert by_list.own_code == FIRST
    for path in ("/c/oak", ""):
        several = PageRead(html, path)
        assert (several.own_code, kind_of(several)) == ("", PageKind.LIST)
        assert Taken.on(several, ".x").codes(ToldByPage()) == ("",)


def test_a_list_that_gives_its_own_address_for_every_product_is_no_products_page() -> None:
    nodes = ",".join(f'{{"@type":"Product","sku":"{code}","url":"/c/oak#{code}"}}' for code in (FIRST, SECOND))
    page = PageRead(f'<script type="application/ld+json">[{nodes}]</script>', "/c/oak")
    assert (page.own_code, kind_of(page)) == ("", PageKind.LIST)


def test_what_the_shops_code_marks_is_left_to_it() -> None:
    taken = Taken.on(PageRead('<div data-up-place="product_page"><b class=x></b></div><b class=x></b>'), ".x")
    assert (len(taken.anchors), taken.marked) == (1, 1)
    with pytest.raises(ValueError, match="cannot be read"):
        Taken.on(PageRead("<p>"), "p[")


@pytest.mark.parametrize(
    ("html", "where", "says"),
    [
        ("<img class=x>", Where.INSIDE, "Nothing can stand inside <img>"),
        ("<ul><li class=x></li></ul>", Where.BEFORE, "<ul> holds only <li>"),
        ("<table><tr><td class=x></td></tr></table>", Where.AFTER, "<tr> holds only <td>"),
        ("<a href=/><b class=x></b></a>", Where.AFTER, "It lies inside a link"),
        ("<button class=x></button>", Where.INSIDE, "It lies inside a button"),
        ("<buy-box class=x></buy-box>", Where.INSIDE, "draws its content in a tree of its own"),
    ],
)
def test_what_stands_in_the_way_is_said_with_what_to_do(html: str, where: Where, says: str) -> None:
    """Reference: HTML, content models of lists, tables, links and buttons."""
    [anchor] = PageRead(html).select(".x")
    found: list[Hindrance] = list(hindrances(anchor, where))
    assert says in found[0].says
    assert found[0].to_do
    assert found[0].is_sure


def test_a_button_beside_or_instead_of_an_ordinary_element_is_in_nobodys_way() -> None:
    [anchor] = PageRead("<form><p><button class=x></button></p></form>").select(".x")
    assert [list(hindrances(anchor, where)) for where in (Where.BEFORE, Where.AFTER, Where.INSTEAD)] == [[], [], []]


def look(html: str, path: str, pages: Pages, telling: Telling | None = None) -> OnPage:
    place = PointedPlace(
        placement=Placement.LISTING_CARD, selector=".price", where=Where.AFTER, pages=pages,
        telling=telling or ToldByLink(path="/p/{code}"),
    )  # fmt: skip
    return look_on_page(PageRead(html), path, place, KNOWN, "sku")


def test_pages_are_matched_by_kind_path_category_and_product() -> None:
    html = card(FIRST) + card(SECOND)
    assert look(html, "/", Pages()).codes == (FIRST, SECOND)
    assert not look(html, "/", Pages(kinds=(PageKind.PRODUCT,))).is_meant
    assert look(html, "/lists/wax", Pages(paths=("/lists/*",))).count == 2
    assert not look(html, "/lists.html", Pages(paths=("/lists/*",))).is_meant
    assert not look(html, "/lists/old", Pages(paths=("/lists/*",), not_paths=("/*/old",))).is_meant
    assert look(html, "/", Pages(products=(SECOND,))).codes == (SECOND,)
    category = KNOWN[FIRST].category
    assert look(html, "/", Pages(not_categories=(category,))).count < 2


def test_a_glob_of_products_pages_is_one_that_nearly_all_have() -> None:
    def at(*urls: str) -> list[Product]:
        return [Product(f"P{n}", "P", "c", 100, "GBP", url, "", 1, "", ()) for n, url in enumerate(urls)]

    assert common_path(at("/p/a", "https://shop.example/p/b"), "/p/a") == "/p/*"
    assert common_path(at("/oak.html", "/ash.html"), "/oak.html") == ""
    assert common_path(at("/a/x", "/b/y", "/c/z"), "/a/x") == ""


def test_a_bar_is_not_pointed_at() -> None:
    with pytest.raises(ValueError, match="what hangs at the window stands by itself"):
        PointedPlace(placement=Placement.STICKY_BAR, selector=".x", where=Where.AFTER)


def test_a_place_on_a_picture_is_not_instead_of_it() -> None:
    PointedPlace(placement=Placement.OVER_PICTURE, selector=".x", where=Where.AFTER)
    with pytest.raises(ValueError, match="it would hide it"):
        PointedPlace(placement=Placement.OVER_PICTURE, selector=".x", where=Where.INSTEAD)


def test_of_thousands_of_siblings_each_is_looked_at_a_bounded_number_of_times(monkeypatch: pytest.MonkeyPatch) -> None:
    """Counted, not timed: looking back over one's siblings from each of them grows with their square."""
    counts = []
    for many in (500, 2000):
        cards = "".join(f"<li class=card><a href=/p/{n}>x</a><button class=buy>Add</button></li>" for n in range(many))
        page = PageRead(f"<main><ul class=cards>{cards}</ul></main>")
        target = page.select(f"li:nth-of-type({many - 3})")[0]
        looked: list[int] = []
        kinds = {name: getattr(Tag, name) for name in ("get", "has_attr", "find_previous_siblings")}
        for name, own in kinds.items():
            monkeypatch.setattr(Tag, name, lambda *told, own=own, looked=looked: looked.append(1) or own(*told))
        assert candidates(page, target)
        monkeypatch.undo()
        counts.append(len(looked))
    assert counts[1] < counts[0] * 5
