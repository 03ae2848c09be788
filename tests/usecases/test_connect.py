"""Connecting the shops of the row by what their own pages show, and looking at their pages."""

from collections.abc import Callable
from dataclasses import replace
from types import SimpleNamespace
from typing import Any, cast

import pytest
from fastapi import FastAPI
from starlette.testclient import TestClient

from ops.demo_row import connection_of, row_settings, row_store
from practice.row import ROW, create_row
from practice.row.app import PASSWORD
from tests.samples import NOW
from uptick.core.button.document import Placement, Situation
from uptick.core.errors import NotFound
from uptick.core.formats.catalogue_file import read_catalogue
from uptick.core.shop.catalogue import Product
from uptick.core.shop.connection import TokenSource
from uptick.usecases.collecting import collect
from uptick.usecases.connect import (
    Result,
    Tried,
    example_of,
    open_door,
    page_of,
    propose_connection,
    try_connection,
)
from uptick.usecases.page_checks import PageExample, PagesReport, ReleasedPlaces, check_pages, kinds_of
from uptick.usecases.page_lines import LineWeight as Weight
from uptick.usecases.ports import Shop
from uptick.usecases.visiting import Fetched, ShopRequest, Trouble

EDGE = "http://edge.test"


class RowVisit:
    """A visitor of one shop, without a network between."""

    def __init__(self, app: FastAPI, origin: str, change: Callable[[Fetched], Fetched] = lambda page: page) -> None:
        self._client = TestClient(app, base_url=origin)
        self._change = change

    def fetch(self, path: str, accept: str = "text/html") -> Fetched:
        return self._told(path, self._client.get(path, headers={"Accept": accept}))

    def send(self, request: ShopRequest, accept: str = "application/json") -> Fetched:
        body: dict[str, Any] = {"json": request.json} if request.json is not None else {}
        if request.json is None and request.method != "GET":
            body = {"data": dict(request.fields)}
        headers = {"Accept": accept, **request.headers}
        return self._told(request.path, self._client.request(request.method, request.path, headers=headers, **body))

    def cookie(self, name: str) -> str:
        return self._client.cookies.get(name) or ""

    def _told(self, asked: str, answer: Any) -> Fetched:
        hops = tuple(str(hop.url) for hop in answer.history)
        told = Fetched(asked, str(answer.url), answer.status_code, dict(answer.headers), answer.text, hops)
        return self._change(told)


def visit(key: str, change: Callable[[Fetched], Fetched] = lambda page: page) -> RowVisit:
    apps = create_row(EDGE, lambda key: f"http://{key}.test")
    made = RowVisit(apps[key], f"http://{key}.test", change)
    if key == "gate":
        assert open_door(made, "/", PASSWORD)
    return made


def path_of(key: str) -> str:
    return f"/p/{ROW[key].goods[0].sku}"


@pytest.mark.parametrize("key", ROW)
def test_every_shop_of_the_row_is_connected_by_what_its_page_shows(key: str) -> None:
    """Every shape but one page that is closed to strangers, which is opened by its password."""
    code = ROW[key].goods[0].sku
    proposal, _ = propose_connection(visit(key), path_of(key), [code])
    assert proposal.connection is not None
    assert proposal.said
    tried = try_connection(visit(key), proposal.connection, path_of(key), code)
    assert (tried.result, tried.before, tried.after, tried.at_the_end) == (Result.ADDED, 0, 1, 0), tried
    assert tried.was_taken_out


@pytest.mark.parametrize(("key", "product"), [("tollgate", "sku"), ("footpath", "sku"), ("monogram", "sku")])
def test_a_basket_that_tells_its_lines_as_json_is_found_while_one_lies_in_it(key: str, product: str) -> None:
    proposal, _ = propose_connection(visit(key), path_of(key), [ROW[key].goods[0].sku])
    assert proposal.connection is not None
    assert proposal.connection.read is not None
    assert proposal.connection.read.kind == "page"
    tried = try_connection(visit(key), proposal.connection, path_of(key), ROW[key].goods[0].sku)
    assert tried.better is not None
    assert (tried.better.path, tried.better.product, tried.better.quantity) == ("/basket.json", product, "quantity")
    again = proposal.connection.model_copy(update={"read": tried.better})
    assert try_connection(visit(key), again, path_of(key), ROW[key].goods[0].sku).result is Result.ADDED


@pytest.mark.parametrize("key", ROW)
def test_the_connections_of_the_demo_are_true(key: str) -> None:
    tried = try_connection(visit(key), connection_of(ROW[key]), path_of(key), ROW[key].goods[0].sku)
    assert (tried.result, tried.before, tried.after) == (Result.ADDED, 0, 1), tried


def test_a_closed_page_is_told_as_one() -> None:
    apps = create_row(EDGE, lambda key: f"http://{key}.test")
    proposal, _ = propose_connection(RowVisit(apps["gate"], "http://gate.test"), path_of("gate"), ["X"])
    assert proposal.connection is None
    assert "asks for a password" in proposal.unsure[0]
    assert not open_door(RowVisit(apps["gate"], "http://gate.test"), "/", "wrong")


def tried(key: str, change: Callable[[Fetched], Fetched] = lambda page: page, **wrong: Any) -> Tried:
    connection = connection_of(ROW[key]).model_copy(update=wrong)
    return try_connection(visit(key, change), connection, path_of(key), ROW[key].goods[0].sku)


def test_a_wrong_name_of_a_field_is_named_with_those_that_there_are() -> None:
    found = tried("tollgate", quantity_field="amount", product_field="sku")
    assert found.result is Result.REFUSED
    assert found.why == "No form of the page has a field “sku”."
    found = tried("veilrow", option_fields=("size",), product_field="sku", quantity_field="amount")
    # The shop takes one where nobody says how many: it was added all the same, and that is what is said.
    assert found.result is Result.ADDED


def test_a_word_that_is_too_old_is_named_as_such() -> None:
    def aged(page: Fetched) -> Fetched:
        return replace(page, text=page.text.replace('name="word" value="', 'name="word" value="old'))

    found = tried("tollgate", aged)
    assert found.result is Result.REFUSED
    assert "forged" in found.why
    token = TokenSource(source="meta", source_name="gone", sent_as="header", sent_name="X-Counter-Word")
    found = tried("scullion", token=token)
    assert found.result is Result.REFUSED
    assert "forged" in found.why
    assert "“gone”" in found.to_do


def test_a_way_to_the_sign_in_is_named_as_such() -> None:
    def asks(page: Fetched) -> Fetched:
        if page.asked != "/basket/add":
            return page
        login = '<form action="/login"><input type="password" name="p"></form>'
        return replace(page, url="http://x.test/login", hops=("/basket/add",), text=login, status=200)

    # The basket does not count what was not added.
    found = try_connection(
        visit("loft", lambda page: asks(page) if page.asked == "/basket/add" else _uncounted(page)),
        connection_of(ROW["loft"]), path_of("loft"), ROW["loft"].goods[0].sku,
    )  # fmt: skip
    assert found.result is Result.REFUSED
    assert "where one signs in" in found.why


def _uncounted(page: Fetched) -> Fetched:
    return replace(page, text='{"count": 0, "items": []}') if page.asked == "/basket.json" else page


@pytest.mark.parametrize(
    ("answer", "result", "says"),
    [
        ({"status": 404}, Result.REFUSED, "There is nothing at /basket/add"),
        ({"status": 405}, Result.REFUSED, "does not take this method"),
        ({"status": 422, "text": "no"}, Result.REFUSED, "The shop said no: it answered 422"),
        ({"status": 500}, Result.UNKNOWN, "The shop failed"),
        ({"status": 200, "text": "<h1>Sorry</h1>"}, Result.REFUSED, "the basket still holds 0"),
        ({"status": 0, "trouble": Trouble.SLOW, "says": "It did not answer within 5 s."}, Result.UNKNOWN, "5 s"),
    ],
)
def test_every_other_answer_is_said_by_what_it_means(answer: dict[str, Any], result: Result, says: str) -> None:
    def change(page: Fetched) -> Fetched:
        return replace(page, **answer) if page.asked == "/basket/add" else _uncounted(page)

    found = tried("loft", change)
    assert found.result is result
    assert says in found.why


def test_a_basket_that_nobody_can_read_leaves_it_unknown() -> None:
    found = tried("loft", read=None)
    assert found.result is Result.UNKNOWN
    assert "nobody can tell" in found.why


def test_what_is_shown_of_a_request_hides_the_word_against_forged_ones() -> None:
    (step,) = [step for step in tried("tollgate").steps if step.request.startswith("POST /cart")]
    shown = {part.name: part.value for part in step.sent}
    assert shown["id"] == "4100"
    assert shown["word"].endswith("… (24 characters)")


PRODUCT = Product("A-1", "Thing", "Things", 1250, "GBP", "http://loft.test/p/A-1", "", 3, "", ())


def test_an_example_is_one_in_stock_without_a_choice() -> None:
    choice = replace(PRODUCT, sku="C", option_name="size", option_values=("S",))
    gone = replace(PRODUCT, sku="G", stock=0)
    assert example_of([gone, choice, PRODUCT]).sku == "A-1"
    assert example_of([gone, choice]).sku == "C"
    assert example_of([gone], "G").sku == "G"
    with pytest.raises(Exception, match="There is no product 'X'"):
        example_of([PRODUCT], "X")
    with pytest.raises(Exception, match="no product in stock"):
        example_of([gone])
    store = row_store(ROW["loft"], "http://x.test")
    assert page_of(PRODUCT, store.model_copy(update={"origin": "http://loft.test"})) == "/p/A-1"
    assert page_of(replace(PRODUCT, url="https://other.example/p/1?a=b"), store) == "/p/1?a=b"
    with pytest.raises(Exception, match="the product's address"):
        page_of(replace(PRODUCT, url=""), store)


def shop_of(key: str) -> Shop:
    """A store as the checks of its pages see it."""
    goods = [g for g in ROW[key].goods if not g.is_sold_out][:1]
    products = tuple(
        Product(g.sku, g.name, g.category, int((g.price or 0) * 100), "GBP", f"/p/{g.sku}", "", g.stock,
                g.option_name, g.options)
        for g in goods
    )  # fmt: skip
    store = row_store(ROW[key], "http://x.test").model_copy(update={"origin": f"http://{key}.test"})
    return cast(Shop, SimpleNamespace(store=store, catalogue=SimpleNamespace(all=lambda: products)))


class Edge:
    """The edge as far as a check asks it."""

    def __init__(self, script: Fetched) -> None:
        self._script = script

    def fetch(self, path: str, accept: str = "text/html") -> Fetched:
        return self._script

    def send(self, request: ShopRequest, accept: str = "application/json") -> Fetched:
        raise AssertionError("A look at the pages sends nothing.")

    def cookie(self, name: str) -> str:
        return ""


SCRIPT = Fetched("", "", 200, {}, "UpTick(JSON.parse('{\"release\":4}'))")


def report(key: str, change: Callable[[Fetched], Fetched] = lambda page: page, script: Fetched = SCRIPT) -> PagesReport:
    shop = shop_of(key)
    known = {product.sku: product for product in shop.catalogue.all()}
    released = ReleasedPlaces(4, tuple(row_settings(ROW[key]).pointed.values()), known)
    return check_pages(shop.store, released, kinds_of(shop), visit(key, change), Edge(script), EDGE, NOW)


def test_a_place_that_a_new_theme_has_lost_is_named_with_its_page() -> None:
    def new_theme(page: Fetched) -> Fetched:
        return replace(page, text=page.text.replace("data-action", "data-does"))

    assert "instead of [data-action=" in str(report("hedgerow"))
    found = report("hedgerow", new_theme)
    assert found.sentence.endswith("missing on: product page")
    [lost] = [line for page in found.pages for line in page.lines if line.weight is Weight.BROKEN]
    assert lost.says == 'The place of the product page, instead of [data-action="add"], is no longer found here.'
    assert lost.to_do.startswith("Point at it again.")


@pytest.mark.parametrize("key", [key for key in ROW if key != "evergreen"])
def test_every_shop_of_the_row_is_seen_live(key: str) -> None:
    found = report(key)
    assert found.live == len(found.pages) == 2, found
    assert found.sentence.startswith("seen live on 2 of 2 kinds of page at ")


def test_an_old_copy_is_named_with_its_age_and_its_cache() -> None:
    found = report("evergreen")
    (page,) = [page for page in found.pages if not page.is_live]
    says = " ".join(line.says for line in page.lines)
    assert "This copy is 6 days old (x-cache: HIT from larder)." in says
    assert "Our line is not on the page." in says
    assert f"missing on: {page.kind}" in found.sentence


def broken(found: PagesReport) -> set[str]:
    return {line.about for page in found.pages for line in page.lines if line.weight is Weight.BROKEN}


@pytest.mark.parametrize(
    ("change", "about"),
    [
        (lambda page: replace(page, trouble=Trouble.FOREIGN, says="It leads away."), "page"),
        (lambda page: replace(page, status=503), "page"),
        (lambda page: replace(page, status=401), "page"),
        (lambda page: replace(page, headers={"content-type": "application/pdf"}), "page"),
        (lambda page: replace(page, text=page.text.replace("/s/loft/", "/s/other/")), "line"),
        (
            lambda page: replace(
                page, text=page.text.replace("</head>", f'<script src="{EDGE}/s/other/up.js"></script></head>')
            ),
            "line",
        ),
        (
            lambda page: replace(
                page,
                headers={
                    **page.headers,
                    "content-security-policy": "require-trusted-types-for 'script'; trusted-types theme",
                },
            ),
            "policy",
        ),
        (
            lambda page: replace(page, headers={**page.headers, "content-security-policy": "script-src 'self'"}),
            "policy",
        ),
        (lambda page: replace(page, text=page.text.replace("data-up-place", "data-gone")), "places"),
        (
            lambda page: replace(page, text=page.text.replace("ld+json", "plain").replace("data-up-product", "data-x")),
            "product",
        ),
    ],
)
def test_whatever_is_missing_is_named(change: Callable[[Fetched], Fetched], about: str) -> None:
    assert about in broken(report("loft", change))


@pytest.mark.parametrize(
    "script",
    [
        replace(SCRIPT, text='{"release":3}'),
        replace(SCRIPT, text="// no release yet"),
        replace(SCRIPT, status=502),
        replace(SCRIPT, trouble=Trouble.UNREACHABLE, says="It could not be reached."),
    ],
)
def test_a_script_that_is_old_or_away_is_named(script: Fetched) -> None:
    assert broken(report("loft", script=script)) == {"script"}


def test_a_price_that_differs_from_the_catalogue_is_a_note() -> None:
    def dearer(page: Fetched) -> Fetched:
        return replace(page, text=page.text.replace('"price": "', '"price": "9'))

    found = report("loft", dearer)
    assert found.live == 2
    notes = [line.says for page in found.pages for line in page.lines if line.weight is Weight.NOTE]
    assert any("The catalogue says" in says for says in notes)


def test_kinds_of_page_follow_what_the_catalogue_holds() -> None:
    kinds = kinds_of(shop_of("monogram"))
    assert (kinds[0].name, kinds[0].path) == ("front page", "/")
    assert kinds[0].placement is Placement.LISTING_CARD
    choice = kinds[1]
    assert isinstance(choice, PageExample)
    assert choice.product is not None
    assert choice.product.situation is Situation.CHOICE
    assert choice.name == "product page with a choice"


def test_a_catalogue_is_read_off_the_pages_that_the_sitemap_names() -> None:
    store = row_store(ROW["bayt"], "http://x.test").model_copy(update={"origin": "http://bayt.test"})
    pauses: list[float] = []
    steps = [(found.done, found.of) for found in collect(visit("bayt"), store, pauses.append)]
    pages = len(ROW["bayt"].goods) + 1
    assert steps == [(done, pages) for done in range(pages + 1)]
    assert pauses == [0.2] * (pages - 1)
    *_, found = collect(visit("bayt"), store, pauses.append)
    read = read_catalogue(found.as_jsonld().encode(), {}, store.currency)
    assert [p.sku for p in read.reading.products] == [g.sku for g in ROW["bayt"].goods]
    assert {p.url for p in read.reading.products} == {f"http://bayt.test/p/{g.sku}" for g in ROW["bayt"].goods}


def test_what_robots_may_not_see_and_what_is_not_the_shops_is_left_out() -> None:
    store = row_store(ROW["bayt"], "http://x.test").model_copy(update={"origin": "http://bayt.test"})
    first, second = ROW["bayt"].goods[:2]

    def change(page: Fetched) -> Fetched:
        if page.asked == "/robots.txt":
            says = f"User-agent: *\nDisallow: /p/{second.sku}\nCrawl-delay: 3\nSitemap: http://bayt.test/sitemap.xml"
            return replace(page, text=says)
        if page.asked.endswith("sitemap.xml"):
            places = [f"http://bayt.test/p/{g.sku}" for g in (first, first, second)] + ["http://evil.test/p/1"]
            urls = "".join(f"<url><loc>{place}</loc></url>" for place in places)
            return replace(page, text=f"<urlset xmlns='http://www.sitemaps.org/schemas/sitemap/0.9'>{urls}</urlset>")
        return page

    pauses: list[float] = []
    *_, found = collect(visit("bayt", change), store, pauses.append)
    assert list(found.products) == [first.sku]
    assert (found.of, found.skipped, pauses) == (1, 1, [])


@pytest.mark.parametrize(
    "text", ["", "<html>", "<!DOCTYPE x [<!ENTITY a 'b'>]><urlset><url><loc>&a;</loc></url></urlset>"]
)
def test_a_sitemap_that_is_none_names_no_pages(text: str) -> None:
    store = row_store(ROW["bayt"], "http://x.test").model_copy(update={"origin": "http://bayt.test"})

    def change(page: Fetched) -> Fetched:
        return replace(page, text=text) if page.asked.endswith("sitemap.xml") else page

    (found,) = collect(visit("bayt", change), store)
    assert (found.of, found.products) == (0, {})


def test_a_shop_without_a_sitemap_says_so() -> None:
    store = row_store(ROW["bayt"], "http://x.test").model_copy(update={"origin": "http://bayt.test"})

    def change(page: Fetched) -> Fetched:
        return replace(page, status=404, text="") if "robots" in page.asked or "sitemap" in page.asked else page

    with pytest.raises(NotFound, match=r"The store has no sitemap: .*/sitemap\.xml answered 404"):
        list(collect(visit("bayt", change), store))
