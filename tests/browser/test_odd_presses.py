"""What a second line, a second press, a slow or closed network and a strict page do to the buttons of a shop."""

import re

import pytest
from playwright.sync_api import Page, Route, expect

from ops import demo
from tests.browser.conftest import Drafted, Stack, Tab, sign_in
from tests.browser.strange import Strange, form, goods, place, told

pytestmark = pytest.mark.browser


def changes_heard(page: Page) -> int:
    """Return how many attributes of a page are written within 400 ms in which nothing happens."""
    heard: int = page.evaluate(
        """() => new Promise(done => {
            let heard = 0;
            new MutationObserver(all => { heard += all.length }).observe(document.documentElement,
                { attributes: true, subtree: true });
            setTimeout(() => done(heard), 400);
        })"""
    )
    return heard


def test_our_line_twice_stands_each_button_once_and_the_page_rests(strange: Strange) -> None:
    ours = strange.opens(form(place("X1")), told(goods("X1")) + strange.line + strange.line.replace(" async", " defer"))
    expect(ours).to_have_count(1)
    assert changes_heard(strange.page) == 0
    ours.click()
    expect(ours).to_have_attribute("data-moment", "added")
    assert len(strange.posts) == 1


def test_the_line_of_another_store_beside_ours_does_nothing_and_is_told(strange: Strange) -> None:
    heard: list[str] = []
    strange.page.on("console", lambda message: heard.append(message.text))
    other = f'<script defer src="{strange.edge}/s/tollgate/up.js"></script>'
    ours = strange.opens(form(place("X1")), told(goods("X1")) + other)
    expect(ours).to_have_count(1)
    strange.page.wait_for_timeout(300)
    assert [text for text in heard if "came first" in text], heard
    assert changes_heard(strange.page) == 0


def test_attributes_are_written_only_where_they_change(strange: Strange) -> None:
    ours = strange.opens(form(place("X1")) + place("unknown", name="listing_card", more="data-up-choice=no"))
    expect(ours).to_be_visible()
    strange.page.evaluate(
        """() => { window.written = [];
            new MutationObserver(all => written.push(...all.map(({ attributeName }) => attributeName)))
                .observe(document.body, { attributes: true, subtree: true });
            document.querySelector('form').append('more');
            document.body.append('and more') }"""
    )
    strange.page.wait_for_timeout(300)
    assert strange.page.evaluate("written") == []


def test_a_slow_basket_keeps_no_button_away_and_its_count_follows(strange: Strange) -> None:
    strange.put("X1")
    waiting: list[Route] = []
    read = strange._read
    strange._read = lambda route: waiting.append(route)  # type: ignore[method-assign]
    ours = strange.opens(form(place("X1")), told(goods("X1")))
    expect(ours).to_be_visible(timeout=3000)
    expect(ours).to_have_attribute("data-moment", "ready")
    read(waiting[0])
    expect(ours).to_have_attribute("data-moment", "in_basket")


LEADS = [
    "<a href='/away' style='display:block'>{}</a>",
    "<div onclick=\"location = '/away'\" onkeydown=\"if (event.key == 'Enter') location = '/away'\">{}</div>",
]


@pytest.mark.parametrize("around", LEADS)
def test_a_press_within_what_leads_on_is_ours_alone(strange: Strange, around: str) -> None:
    ours = strange.opens(around.format(place("X1")), told(goods("X1")))
    ours.click()
    expect(ours).to_have_attribute("data-moment", "added")
    strange.page.wait_for_timeout(800)
    ours.press("Enter")
    expect(ours).to_have_attribute("data-moment", "added")
    strange.page.wait_for_timeout(300)
    assert "/strange" in strange.page.url
    assert len(strange.posts) == 2


def test_a_second_file_that_cannot_be_had_gives_the_shops_button_back_and_is_asked_for_again(strange: Strange) -> None:
    asked: list[str] = []

    def fail_once(route: Route) -> None:
        asked.append(route.request.url)
        route.abort() if len(asked) == 1 else route.continue_()

    strange.page.route(re.compile(r"/later/"), fail_once)
    ours = strange.opens(form(place("X1")), told(goods("X1")))
    own = strange.page.get_by_role("button", name="Add", exact=True)
    expect(own).to_be_visible()
    expect(strange.page.locator("[data-up-place]")).to_have_attribute("data-up-kept", "not loaded")
    # Nobody has pressed anything: it comes back by itself.
    expect(ours).to_be_visible()
    ours.click()
    expect(ours).to_have_attribute("data-moment", "added")
    assert len(strange.posts) == 1


@pytest.mark.parametrize("url", ["javascript:document.title='pressed'", "data:text/html,<p>x", "vbscript:x"])
def test_an_address_of_a_page_that_is_no_page_is_not_gone_to(strange: Strange, url: str) -> None:
    # Something to choose that is not here: a press leads to the product's page.
    ours = strange.opens(place("X1", more="data-up-choice=yes"), told(goods("X1", url=url)))
    ours.click()
    strange.page.wait_for_timeout(300)
    assert strange.page.title() == ""
    assert "/strange" in strange.page.url


@pytest.mark.parametrize(
    ("language", "words"),
    [("DE", "lang=de-DE"), ("de_DE", "lang=de-DE"), ("EN_gb", "lang=en-GB"), ("xx", "lang=en-GB")],
)
def test_a_language_is_known_however_the_page_writes_it(strange: Strange, language: str, words: str) -> None:
    strange.language = language
    ours = strange.opens(form(place("X1")), told(goods("X1")))
    expect(ours).to_be_visible()
    expect(strange.page.locator(f"[data-up-place=product_page] [data-up-button][{words}]")).to_have_count(1)


def test_a_browser_that_translates_the_page_gets_the_buttons_of_that_language(strange: Strange) -> None:
    ours = strange.opens(form(place("X1")), told(goods("X1")))
    expect(ours).to_be_visible()
    # As Chromium's own translator does it: the root's language and class, and texts in elements of its own.
    strange.page.evaluate(
        """() => { const root = document.documentElement; root.lang = 'de'; root.classList.add('translated-ltr');
            for (const own of document.querySelectorAll('[data-up-place] > button')) {
                const font = document.createElement('font'); font.append(...own.childNodes); own.append(font) } }"""
    )
    expect(strange.page.locator("[data-up-place=product_page] [data-up-button][lang=de-DE]")).to_have_count(1)
    ours.click()
    expect(ours).to_have_attribute("data-moment", "added")


def test_a_page_that_asks_for_trusted_types_gets_its_buttons(strange: Strange) -> None:
    strange.headers = {"Content-Security-Policy": "require-trusted-types-for 'script'; trusted-types up-tick"}
    ours = strange.opens(form(place("X1")), told(goods("X1")))
    ours.click()
    expect(ours).to_have_attribute("data-moment", "added")


def test_a_page_that_forbids_our_type_keeps_its_own_button(strange: Strange) -> None:
    strange.headers = {"Content-Security-Policy": "require-trusted-types-for 'script'; trusted-types 'none'"}
    strange.opens(form(place("X1")), told(goods("X1")))
    expect(strange.page.locator("[data-up-place]")).to_have_attribute("data-up-kept", "not loaded")
    expect(strange.page.get_by_role("button", name="Add", exact=True)).to_be_visible()
    strange.forgives = ("Trusted", "trusted")


def test_a_draft_stands_on_a_page_that_names_its_scripts_by_a_nonce(demo_shop: Stack, tab: Tab) -> None:
    tab.page.context.grant_permissions(["local-network-access"])
    with demo_shop.wiring.open_shop("thornmere") as shop:
        store = shop.store
    sign_in(tab, demo_shop)
    preview = tab.page.request.get(f"{demo_shop.at.studio}/api/stores/thornmere").json()["preview"]
    line = f'<script nonce=n0nce async src="{demo_shop.at.edge}/s/{store.key}/up.js"></script>'
    html = f"<!doctype html><html lang=en-GB><head>{line}{told(goods('X1'))}</head><body>{place('X1')}</body></html>"
    policy = {"Content-Type": "text/html", "Content-Security-Policy": "script-src 'nonce-n0nce'"}
    tab.page.route("**/strange?*", lambda route: route.fulfill(body=html, headers=policy))
    tab.page.goto(f"{demo_shop.at.practice}/strange?up-draft={preview}")
    expect(tab.page.locator("[data-up-place=product_page] [data-up-button] button.b")).to_be_visible()


def test_a_phone_that_is_turned_after_an_unknown_press_does_not_ask_for_another(strange: Strange) -> None:
    strange.page.set_viewport_size({"width": 390, "height": 844})
    ours = strange.opens(form(place("X1")), told(goods("X1")))
    expect(ours).to_be_visible()
    strange.basket = {}
    strange.answer = lambda route: route.abort()
    ours.click()
    note = strange.page.locator("[data-up-note=unknown]")
    expect(note).to_be_visible()
    strange.page.set_viewport_size({"width": 844, "height": 390})
    strange.page.wait_for_timeout(300)
    expect(note).to_be_visible()
    expect(ours).to_have_count(0)
    # Nor does a page that draws the place anew.
    strange.page.evaluate("document.querySelector('[data-up-note]').remove()")
    expect(note).to_be_visible()
    expect(ours).to_have_count(0)


def test_pinching_is_no_keyboard(drafted: Drafted) -> None:
    page = drafted(demo.KEY, lambda settings: settings, "/p/HV-NUC6", viewport={"width": 390, "height": 844},
                   has_touch=True, is_mobile=True)  # fmt: skip
    page.locator("[data-up-place=product_page] [data-up-button]").wait_for()
    page.evaluate("scrollTo(0, document.body.scrollHeight / 2)")
    bar = page.locator("[data-up-bar]")
    expect(bar).to_have_attribute("data-in", "")
    page.context.new_cdp_session(page).send("Emulation.setPageScaleFactor", {"pageScaleFactor": 1.3})
    page.wait_for_function("visualViewport.scale > 1.2")
    page.wait_for_timeout(200)
    expect(bar).to_have_attribute("data-in", "")
