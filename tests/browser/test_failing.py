"""More than twenty ways in which a shop, its basket or our own files fail: the shop sells all the same, and once."""

import json
from collections.abc import Callable
from dataclasses import dataclass, field

import pytest
from playwright.sync_api import Route, expect

from tests.browser.conftest import Stack, Tab
from tests.browser.test_strange_pages import Strange, form, goods, place, told
from uptick.core.trial.record import TrialState

pytestmark = pytest.mark.browser
# So that nobody waits fifteen seconds here for what never comes.
# Nobody waits a quarter of a minute for what never comes; what does come has all the time that it has on a shop's page.
HASTE = "const of = AbortSignal.timeout.bind(AbortSignal); AbortSignal.timeout = () => of(2000);"
LOGIN = "<!doctype html><h1>Sign in</h1><form action=/login><input type=password></form>"
PAGE = form(place("X1")) + told(goods("X1"))
UNSAID = form("<div data-up-place=product_page><button>Add</button></div>").replace("name=sku", "name=which")


def answers(status: int, body: str = "", kind: str = "text/html") -> Callable[[Strange], None]:
    def arrange(at: Strange) -> None:
        at.answer = lambda route: route.fulfill(status=status, body=body, content_type=kind)

    return arrange


def leads_to_sign_in(at: Strange) -> None:
    at.page.route("**/login", lambda route: route.fulfill(body=LOGIN, content_type="text/html"))
    at.answer = lambda route: route.fulfill(status=302, headers={"Location": f"{at.at}/login"})


def leads_round(at: Strange) -> None:
    at.answer = lambda route: route.fulfill(status=302, headers={"Location": f"{at.at}/basket/add"})


def never_answers(at: Strange) -> None:
    held: list[Route] = []
    at.answer = held.append


def breaks_off(at: Strange) -> None:
    at.answer = lambda route: route.abort()


def cannot_be_read(at: Strange) -> None:
    at.basket = {}
    at.answer = lambda route: route.fulfill(body="<h1>Thank you</h1>", content_type="text/html")


@dataclass
class Failing:
    """One way of failing: what is arranged before the page, and what the page holds."""

    why: str
    arrange: Callable[[Strange], None] = lambda at: None
    page: str = PAGE
    script: str = ""
    #: Whether ours stands at first; where it does, it is pressed.
    stands: bool = True
    note: str = "refused"
    extra: list[str] = field(default_factory=list)


def file(pattern: str, **answer: object) -> Callable[[Strange], None]:
    def arrange(at: Strange) -> None:
        at.page.route(pattern, lambda route: route.fulfill(**answer))  # type: ignore[arg-type]

    return arrange


WAYS = [
    Failing("200 with an error page", answers(200, "<h1>Sorry, something went wrong</h1>")),
    Failing("a way to the sign-in", leads_to_sign_in),
    Failing("a way that leads round", leads_round),
    *(Failing(f"answers {status}", answers(status, "{}", "application/json")) for status in (400, 401, 403, 404, 409)),
    *(Failing(f"answers {status}", answers(status, "no")) for status in (410, 422, 429, 500, 502, 503)),
    Failing("never answers", never_answers, script=HASTE),
    Failing("breaks off", breaks_off),
    Failing("answers with nothing", answers(200)),
    Failing("answers with null", answers(200, "null", "application/json")),
    Failing("answers with JSON of another kind", answers(200, '{"ok":true}', "application/json")),
    Failing("answers with half a basket", answers(200, '{"count":1,"items":', "application/json")),
    Failing("cannot be read at all", cannot_be_read, note="unknown"),
    Failing("no product", page=form("<div data-up-place=product_page><button>Add</button></div>", ""), stands=False),
    Failing("two products and no word which", page=UNSAID + told(goods("X1"), goods("X2")), stands=False),
    Failing("our file is away", file("**/up.js", status=503, body=""), stands=False),
    Failing(
        "our file is cut off",
        file("**/up.js", body="(function(){var a=[", content_type="text/javascript"),
        stands=False,
    ),
    # It is asked for before anybody presses, and the shop's own button comes back.
    Failing("our second file is away", file("**/later/*", status=404, body=""), stands=False),
    Failing("our second file was changed", file("**/later/*", body="document.currentScript.up=()=>({})"), stands=False),
    Failing("a browser without what we need", script="delete window.IntersectionObserver;", stands=False),
    Failing("a browser without sheets to adopt", script="window.CSSStyleSheet = undefined;", stands=False),
]


@pytest.fixture
def strange(demo_shop: Stack, tab: Tab) -> Strange:
    with demo_shop.wiring.open_shop("thornmere") as shop:
        running = next(trial for trial in shop.trials.all() if trial.state is TrialState.RUNNING)
    return Strange(tab.page, demo_shop.at.practice, "thornmere", demo_shop.at.edge, f"?up-show={running.number}.B")


@pytest.mark.parametrize("way", WAYS, ids=[way.why for way in WAYS])
def test_the_shop_sells_all_the_same_and_once(strange: Strange, way: Failing) -> None:
    page = strange.page
    page.add_init_script(way.script)
    way.arrange(strange)
    ours = strange.opens(way.page)
    if way.stands:
        ours.click()
    own = page.get_by_role("button", name="Add", exact=True)
    expect(own).to_be_visible()
    expect(own).to_be_enabled()
    if way.stands and way.note:
        expect(page.locator(f"[data-up-note={way.note}]")).to_be_visible()
    assert len(strange.posts) <= (1 if way.stands else 0)
    before = len(strange.posts)
    # The shop's own way, as if we were not there.
    strange.answer = None
    page.unroute("**/up.js")
    own.click()
    page.wait_for_url("**/basket/add")
    assert len(strange.posts) == before + 1


@pytest.mark.parametrize(
    ("why", "script", "page"),
    [
        ("JSON-LD that is none", "", form(place("X1")) + '<script type="application/ld+json">{"@type": oops</script>'),
        ("a product that no catalogue knows", "", form(place("NEW-9"), "NEW-9") + told(goods("NEW-9"))),
        ("a price of nothing", "", form(place("X1")) + told(goods("X1", "0.00"))),
        ("a price beyond all prices", "", form(place("X1")) + told(goods("X1", "9" * 40))),
        ("a price below nothing", "", form(place("X1")) + told(goods("X1", "-5"))),
        ("a form without an address", "", PAGE.replace(' action="/basket/add"', "")),
        ("a storage that is closed", "Object.defineProperty(window, 'localStorage', {get() { throw Error() }});", PAGE),
        ("a storage that is full", "Storage.prototype.setItem = () => { throw Error('full') };", PAGE),
        ("no random ids without TLS", "delete Crypto.prototype.randomUUID;", PAGE),
        ("a page in another language than any of ours", "document.documentElement.lang = 'xx';", PAGE),
    ],
)
def test_ours_sells_where_only_something_about_it_is_odd(strange: Strange, why: str, script: str, page: str) -> None:
    strange.page.add_init_script(script)
    ours = strange.opens(page)
    expect(ours).to_be_visible()
    assert "£0" not in ours.inner_text()
    assert "999" not in ours.inner_text()
    ours.click()
    expect(ours).to_have_attribute("data-moment", "added")
    strange.page.wait_for_timeout(200)
    assert len(strange.posts) == 1, json.dumps(strange.posts)
