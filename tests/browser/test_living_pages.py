"""Pages that change while a shopper is on them: consent, language, orders, translators, boxes of their own."""

import json
from typing import Any

import pytest
from playwright.sync_api import Page, Request, expect

from ops import demo
from tests.browser.conftest import Stack, Tab

pytestmark = pytest.mark.browser
OURS = "[data-up-place=product_page] [data-up-button] button.b"
PRODUCT = "/p/TL-BRUSH"


def listen(page: Page) -> list[dict[str, Any]]:
    """Return a list that fills with the batches of signals that the page sends."""
    batches: list[dict[str, Any]] = []

    def hear(request: Request) -> None:
        if request.url.endswith("/signals"):
            batches.append(json.loads(request.post_data or "{}"))

    page.on("request", hear)
    return batches


def kinds(batches: list[dict[str, Any]], who: bool) -> list[str]:
    return [e["kind"] for batch in batches if bool(batch["shopper"]) == who for e in batch["events"]]


def consents(page: Page, told: str) -> None:
    page.evaluate(f"document.documentElement.setAttribute('data-up-consent', '{told}')")


def test_a_shopper_is_nobody_until_the_page_says_yes_and_again_after_a_no(demo_shop: Stack, tab: Tab) -> None:
    page = tab.page
    batches = listen(page)
    tab.context.add_cookies([{"name": "consent", "value": "unknown", "url": demo_shop.at.practice}])
    page.goto(demo_shop.at.practice + PRODUCT)
    expect(page.locator(OURS)).to_be_visible()
    page.wait_for_timeout(2800)
    assert kinds(batches, who=False) == ["shown"]
    assert page.evaluate("localStorage.getItem('up.shopper')") is None
    assert batches[0]["events"][0]["versions"] == {}
    consents(page, "yes")
    page.wait_for_timeout(200)
    assert page.evaluate("localStorage.getItem('up.shopper').length") == 32
    page.locator(OURS).click()
    expect(page.locator(OURS)).to_have_attribute("data-moment", "added")
    page.wait_for_timeout(1800)
    assert kinds(batches, who=True)[:1] == ["clicked"]
    # From then on the shopper is dealt to the running trial.
    assert batches[-1]["events"][0]["versions"] != {}
    consents(page, "no")
    page.wait_for_timeout(200)
    assert page.evaluate("localStorage.getItem('up.shopper')") is None


def test_buttons_follow_the_pages_language(demo_shop: Stack, tab: Tab) -> None:
    page = tab.page
    page.goto(demo_shop.at.practice + PRODUCT)
    ours = page.locator(OURS)
    before = ours.inner_text()
    page.evaluate("document.documentElement.lang = 'de-DE'")
    expect(ours).not_to_have_text(before)
    assert ours.evaluate("b => b.getRootNode().host.lang") == "de-DE"
    page.evaluate("document.documentElement.lang = 'en'")
    expect(ours).to_contain_text(before.split("\n")[0])


def test_a_translator_of_the_page_leaves_one_button_that_sells(demo_shop: Stack, tab: Tab) -> None:
    """What translators of browsers do to pages, as common practice has it: words wrapped, the language changed."""
    page = tab.page
    page.goto(demo_shop.at.practice + PRODUCT)
    expect(page.locator(OURS)).to_be_visible()
    page.evaluate(
        """() => {
          document.documentElement.className = 'translated-ltr';
          document.documentElement.lang = 'pl';
          const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
          const texts = [];
          while (walker.nextNode()) texts.push(walker.currentNode);
          for (const text of texts.filter(t => t.data.trim() && !t.parentElement.closest('script'))) {
            const font = document.createElement('font');
            text.replaceWith(font);
            font.append(text);
          }
        }"""
    )
    page.wait_for_timeout(300)
    expect(page.locator("[data-up-place=product_page] [data-up-button]")).to_have_count(1)
    expect(page.locator("[data-up-place=product_page] .own")).to_be_hidden()
    page.locator(OURS).click()
    expect(page.locator(OURS)).to_have_attribute("data-moment", "added")
    expect(page.locator("[data-basket-count]")).to_have_text("1")


def test_an_order_that_comes_without_a_load_is_told_once(demo_shop: Stack, tab: Tab) -> None:
    page = tab.page
    batches = listen(page)
    page.goto(demo_shop.at.practice + PRODUCT)
    expect(page.locator(OURS)).to_be_visible()
    offer = {"price": "6.80", "priceCurrency": "GBP", "itemOffered": {"@type": "Product", "sku": "TL-BRUSH"}}
    order = json.dumps({"@type": "Order", "orderNumber": "SPA-1", "acceptedOffer": [offer]})
    thanks = f"<script type='application/ld+json' id='order'>{order}</script>"
    page.evaluate(f"document.body.append(document.createRange().createContextualFragment({json.dumps(thanks)}))")
    # A framework may draw the same again.
    page.wait_for_timeout(300)
    page.evaluate("document.querySelector('#order').textContent += ' '")
    page.wait_for_timeout(2200)
    told = [e for batch in batches for e in batch["events"] if e["kind"] == "ordered"]
    assert [(e["order"], e["line"], e["product"], e["value"]) for e in told] == [("SPA-1", "1", "TL-BRUSH", 680)]


@pytest.mark.parametrize("sizing", ["content-box", "border-box"])
def test_a_place_with_padding_of_its_own_keeps_its_height(demo_shop: Stack, tab: Tab, sizing: str) -> None:
    page = tab.page
    page.goto(f"{demo_shop.at.practice}{PRODUCT}?without-snippet")
    style = f"box-sizing: {sizing}; padding: 13px 0 17px; border: 2px solid; min-height: 0"
    high = page.evaluate(
        f"(p => {{ p.style.cssText = {style!r}; return p.getBoundingClientRect().height }})"
        "(document.querySelector('[data-up-place=product_page]'))"
    )
    page.evaluate(
        "src => document.head.append(Object.assign(document.createElement('script'), { src }))",
        f"{demo_shop.at.edge}/s/thornmere/up.js",
    )
    expect(page.locator(OURS)).to_be_visible()
    now = page.evaluate("document.querySelector('[data-up-place=product_page]').getBoundingClientRect().height")
    assert now == pytest.approx(high, abs=0.5)


@pytest.mark.parametrize(("shop", "path", "more"), [(demo.KEY, "/checkout", True), ("loft", "/basket", False)])
def test_a_page_without_a_place_gets_nothing_of_ours(
    demo_shop: Stack, tab: Tab, shop: str, path: str, more: bool
) -> None:
    """Only a shop with rows, or with what hangs on any page, asks for what finds those."""
    with demo_shop.wiring.open_shop(shop) as opened:
        origin = opened.store.origin
    page = tab.page
    asked: list[str] = []
    page.on("request", lambda request: asked.append(request.url))
    page.goto(origin + path)
    page.wait_for_timeout(800)
    assert page.locator("[role=status]").count() == 0
    assert page.evaluate("document.adoptedStyleSheets.length") == 0
    of_edge = [url.removeprefix(demo_shop.at.edge) for url in asked if url.startswith(demo_shop.at.edge)]
    assert of_edge[0] == f"/s/{shop}/up.js"
    assert all(url.startswith("/later/") for url in of_edge[1:])
    assert bool(of_edge[1:]) is more
    assert not any("basket.json" in url or "/api/counter" in url for url in asked)


def test_the_same_sentence_is_said_twice_and_waiting_is_said(demo_shop: Stack, tab: Tab) -> None:
    page = tab.page
    page.goto(demo_shop.at.practice + PRODUCT)
    ours = page.locator(OURS)
    expect(ours).to_be_visible()
    # It comes with what is loaded once buttons stand, before anything is said.
    expect(page.get_by_role("status")).to_be_attached()
    page.evaluate(
        """() => { window.said = []; const region = document.querySelector('[role=status]');
          new MutationObserver(() => region.textContent && window.said.push(region.textContent))
            .observe(region, { childList: true }); }"""
    )
    for _ in range(2):
        ours.click()
        expect(ours).to_have_attribute("data-moment", "added")
        expect(ours).to_have_attribute("data-moment", "in_basket")
    said = page.evaluate("window.said")
    assert len([spoken for spoken in said if spoken.startswith("In your skep")]) == 2


def test_a_page_that_is_drawn_ahead_of_its_time_asks_for_nothing_until_it_is_seen(demo_shop: Stack, tab: Tab) -> None:
    """Reference: the Prerendering specification's `document.prerendering` and its event, as a browser tells them."""
    page = tab.page
    page.add_init_script(
        "Object.defineProperty(document, 'prerendering', { configurable: true, get: () => !window.isSeen })"
    )
    batches = listen(page)
    page.goto(demo_shop.at.practice + PRODUCT)
    page.wait_for_timeout(1500)
    assert page.locator("[data-up-stands]").count() == 0
    assert batches == []
    page.evaluate("() => { window.isSeen = true; document.dispatchEvent(new Event('prerenderingchange')); }")
    expect(page.locator(OURS)).to_be_visible()


def test_a_page_that_comes_back_as_it_was_left_asks_what_is_in_the_basket_now(demo_shop: Stack, tab: Tab) -> None:
    """Reference: HTML, `pageshow` with `persisted`, by which a page learns that it was taken from the bfcache."""
    page = tab.page
    page.goto(demo_shop.at.practice + PRODUCT)
    ours = page.locator(OURS)
    expect(ours).to_have_attribute("data-moment", "ready")
    # It is put into the basket elsewhere.
    page.evaluate("fetch('/basket/add', {method: 'POST', body: new URLSearchParams({sku: 'TL-BRUSH', qty: '1'})})")
    page.wait_for_timeout(300)
    expect(ours).to_have_attribute("data-moment", "ready")
    page.evaluate("dispatchEvent(new PageTransitionEvent('pageshow', { persisted: true }))")
    expect(ours).to_have_attribute("data-moment", "in_basket")


def test_the_bar_keeps_clear_of_a_phones_own_edge(demo_shop: Stack, tab: Tab) -> None:
    """Reference: CSS Environment Variables, `safe-area-inset-bottom`, as Chromium's own emulation sets it."""
    page = tab.page
    page.set_viewport_size({"width": 390, "height": 700})
    session = tab.context.new_cdp_session(page)
    session.send("Emulation.setSafeAreaInsetsOverride", {"insets": {"bottom": 34, "bottomMax": 34}})
    page.goto(demo_shop.at.practice + PRODUCT)
    expect(page.locator(OURS)).to_be_visible()
    page.evaluate("scrollTo(0, document.body.scrollHeight)")
    bar = page.locator("[data-up-place=sticky_bar] [data-up-button] button.b")
    expect(bar).to_be_visible()
    page.wait_for_timeout(500)
    box = bar.bounding_box()
    assert box
    assert box["y"] + box["height"] <= 700 - 34
