"""The script in shops of every shape: a press fills the basket by what that shop wants to hear, once."""

import re
from collections.abc import Callable, Iterator
from dataclasses import dataclass

import pytest
from playwright.sync_api import Locator, Page, expect

from ops.demo_row import connection_of
from practice.row import ROW
from practice.row.app import PASSWORD
from tests.browser.conftest import Stack, Tab, barriers, sign_in

pytestmark = pytest.mark.browser
OURS = "[data-up-place=product_page] [data-up-button] button.b"
# What moves before is the shop's own.
SINCE = """new MutationObserver((_, watching) => {
  if (!document.querySelector('[data-up-stands]')) return;
  window.stoodAt = performance.now();
  watching.disconnect();
}).observe(document, { subtree: true, attributes: true, childList: true });"""
SHIFT = """() => new Promise(done => {
  const moved = [];
  new PerformanceObserver(list => list.getEntries().filter(e => e.startTime >= window.stoodAt)
    .forEach(e => moved.push([e.value, e.sources.map(s => s.node?.className)])))
    .observe({ type: 'layout-shift', buffered: true });
  setTimeout(() => done(moved), 200);
})"""


@dataclass
class RowPage:
    """A visitor of one shop of the row."""

    page: Page
    origin: str
    key: str

    def opens(self, path: str = "") -> Locator:
        if ROW[self.key].shape == "password":
            self.page.goto(self.origin)
            self.page.get_by_label("The keepers’ word").fill(PASSWORD)
            self.page.get_by_role("button", name="Open").click()
        self.page.goto(self.origin + (path or f"/p/{ROW[self.key].goods[0].sku}"))
        return self.page.locator(OURS)

    def basket(self) -> dict[str, int]:
        """Return the lines of the basket as its page tells them."""
        other = self.page.context.new_page()
        other.goto(f"{self.origin}/basket")
        told = {
            row.locator("td").nth(0).inner_text(): int(row.locator("td").nth(1).inner_text())
            for row in other.locator("tbody tr").all()
        }
        other.close()
        return told

    def rest(self) -> None:
        """Wait until the next press is not the second half of a double click."""
        self.page.wait_for_timeout(600)


@pytest.fixture
def visit(demo_shop: Stack, tab: Tab) -> Callable[[str], RowPage]:
    return lambda key: RowPage(tab.page, demo_shop.at.practice.replace("://", f"://{key}."), key)


def name_of(key: str, n: int = 0) -> str:
    return ROW[key].goods[n].name


PLAIN = ["tollgate", "scullion", "footpath", "driftcomb", "latterwax", "ribbon", "boxwell", "loft", "bayt", "gate"]


@pytest.mark.parametrize("key", PLAIN)
def test_a_press_puts_the_product_into_the_basket_once(visit: Callable[[str], RowPage], key: str) -> None:
    at = visit(key)
    ours = at.opens()
    expect(ours).to_be_visible()
    expect(at.page.locator("[data-up-place=product_page] .own")).to_be_hidden()
    ours.dblclick()
    # Where a framework draws the place anew in between, the next thing that is said is that it is in the basket.
    expect(ours).to_have_attribute("data-moment", re.compile("added|in_basket"))
    expect(at.page.locator(".tally")).to_have_text("1")
    assert at.basket() == {name_of(key): 1}
    at.rest()
    ours.click()
    expect(at.page.locator(".tally")).to_have_text("2")
    assert at.basket() == {name_of(key): 2}


# Boxwell's buttons are drawn too high for its cards, which is another story.
@pytest.mark.parametrize("key", [key for key in PLAIN if key != "boxwell"])
def test_nothing_of_the_page_moves_from_when_our_buttons_stand(visit: Callable[[str], RowPage], key: str) -> None:
    at = visit(key)
    at.page.add_init_script(SINCE)
    at.opens("/")
    expect(at.page.locator("[data-up-button] button.b").first).to_be_visible()
    # A list without an end moves its own foot away.
    if key != "ribbon":
        at.page.evaluate("async () => { for (let y = 0; y < document.body.scrollHeight; y += 300) {"
                         "scrollTo(0, y); await new Promise(r => setTimeout(r, 40)); } }")  # fmt: skip
    assert at.page.evaluate(SHIFT) == []


def test_a_form_sends_its_hidden_word_and_its_own_number_of_the_product(visit: Callable[[str], RowPage]) -> None:
    at = visit("tollgate")
    ours = at.opens()
    at.page.get_by_label("Pieces").fill("3")
    with at.page.expect_request("**/cart/put") as sent:
        ours.click()
    assert re.fullmatch(r"word=[0-9a-f]{24}&id=4100&pieces=3", sent.value.post_data or "")
    expect(ours).to_have_attribute("data-moment", "added")
    assert at.basket() == {name_of("tollgate"): 3}


def test_a_word_that_is_too_old_adds_nothing_and_the_shops_own_button_comes_back(
    visit: Callable[[str], RowPage],
) -> None:
    at = visit("tollgate")
    ours = at.opens()
    expect(ours).to_be_visible()
    at.page.evaluate("document.querySelector('.about [name=word]').value = 'yesterday'")
    ours.click()
    expect(at.page.locator(".about [data-up-note=refused]")).to_be_visible()
    expect(at.page.locator(".about .own")).to_be_visible()
    assert at.basket() == {}


def test_two_options_are_both_chosen_first_and_what_is_written_goes_along(visit: Callable[[str], RowPage]) -> None:
    at = visit("monogram")
    ours = at.opens()
    goods = ROW["monogram"].goods[0]
    expect(ours).to_have_attribute("data-moment", "choose_first")
    ours.click(force=True)
    assert at.page.evaluate("document.activeElement.name") == "size"
    at.page.locator("[name=size]").select_option(goods.options[0])
    expect(ours).to_have_attribute("data-moment", "choose_first")
    at.rest()
    ours.click(force=True)
    assert at.page.evaluate("document.activeElement.name") == "finish"
    at.page.locator("[name=finish]").select_option("Oiled")
    expect(ours).to_have_attribute("data-moment", "ready")
    at.page.locator("[name=engraving]").fill("Ada")
    at.rest()
    ours.click()
    expect(ours).to_have_attribute("data-moment", "added")
    assert at.basket() == {f"{goods.name}, {goods.options[0]}, Oiled, “Ada”": 1}
    expect(ours).to_have_attribute("data-moment", "in_basket")
    # The same in another finish is not in the basket.
    at.page.locator("[name=finish]").select_option("Painted")
    expect(ours).to_have_attribute("data-moment", "ready")


def test_swatches_are_options(visit: Callable[[str], RowPage]) -> None:
    at = visit("veilrow")
    ours = at.opens()
    goods = ROW["veilrow"].goods[0]
    expect(ours).to_have_attribute("data-moment", "choose_first")
    at.page.get_by_text(goods.options[1], exact=True).click()
    expect(ours).to_have_attribute("data-moment", "ready")
    at.rest()
    with at.page.expect_request("**/basket/add") as sent:
        ours.click()
    assert "multipart/form-data" in sent.value.headers["content-type"]
    expect(ours).to_have_attribute("data-moment", "added")
    assert at.basket() == {f"{goods.name}, {goods.options[1]}": 1}


def test_a_basket_of_json_gets_its_header_and_without_it_refuses(visit: Callable[[str], RowPage]) -> None:
    at = visit("scullion")
    ours = at.opens()
    with at.page.expect_request("**/api/counter/lines") as sent:
        ours.click()
    assert sent.value.post_data_json == {"lines": [{"code": ROW["scullion"].goods[0].sku, "qty": 1}]}
    assert len(sent.value.headers["x-counter-word"]) == 24
    expect(ours).to_have_attribute("data-moment", "added")
    at.page.evaluate("document.querySelector('meta[name=counter-word]').content = 'forged'")
    at.rest()
    ours.click()
    own = at.page.locator(".about .own")
    expect(own).to_be_focused()
    assert at.basket() == {name_of("scullion"): 1}


def test_nodes_that_are_used_again_add_what_they_show_now(visit: Callable[[str], RowPage]) -> None:
    at = visit("driftcomb")
    ours = at.opens()
    first, second = ROW["driftcomb"].goods[:2]
    expect(ours).to_contain_text(first.price_text)
    at.page.locator(f".cards a[href='/p/{second.sku}']").last.click()
    expect(at.page.locator("h1")).to_have_text(second.name)
    expect(ours).to_contain_text(second.price_text)
    ours.click()
    expect(ours).to_have_attribute("data-moment", "added")
    assert at.basket() == {second.name: 1}
    at.page.go_back()
    expect(ours).to_contain_text(first.price_text)
    at.rest()
    ours.click()
    expect(ours).to_have_attribute("data-moment", "added")
    assert at.basket() == {second.name: 1, first.name: 1}


def test_cards_that_are_sorted_anew_in_the_same_nodes_add_what_they_show(visit: Callable[[str], RowPage]) -> None:
    at = visit("driftcomb")
    at.opens("/")
    card = at.page.locator(".cards .card").first
    expect(card.locator("button.b")).to_be_visible()
    at.page.get_by_role("button", name="Cheapest first").click()
    cheapest = min(ROW["driftcomb"].goods, key=lambda g: g.price or 0)
    expect(card.locator("h2")).to_have_text(cheapest.name)
    card.locator("button.b").click()
    expect(card.locator("button.b")).to_have_attribute("data-moment", "added")
    assert at.basket() == {cheapest.name: 1}


def test_a_page_that_a_framework_takes_over_and_redraws_keeps_one_button(visit: Callable[[str], RowPage]) -> None:
    at = visit("latterwax")
    ours = at.opens()
    left = at.page.locator(".left")
    stock = left.inner_text()
    expect(left).not_to_have_text(stock)
    at.page.wait_for_timeout(2500)
    expect(at.page.locator("#app [data-up-button]")).to_have_count(1)
    expect(at.page.locator("#app .own")).to_be_hidden()
    ours.click()
    # The place is drawn anew while the press is on its way and after it.
    at.page.wait_for_timeout(1500)
    assert at.basket() == {name_of("latterwax"): 1}
    expect(at.page.locator(".tally")).to_have_text("1")
    expect(ours).to_have_attribute("data-moment", "in_basket")


def test_a_strip_and_a_list_without_an_end_get_their_buttons_as_they_come(visit: Callable[[str], RowPage]) -> None:
    at = visit("ribbon")
    at.opens("/")
    strip = at.page.locator("ul.ribbon .card")
    expect(strip.first.locator("button.b")).to_be_visible()
    strip.last.scroll_into_view_if_needed()
    expect(strip.last.locator("button.b")).to_be_visible()
    before = at.page.locator(".cards .card").count()
    at.page.locator(".foot").scroll_into_view_if_needed()
    expect(at.page.locator(".cards .card")).not_to_have_count(before)
    newest = at.page.locator(f".cards .card:nth-child(n+{before + 1}):not(:has(.own[disabled]))").first
    newest.scroll_into_view_if_needed()
    newest.locator("button.b").click()
    expect(newest.locator("button.b")).to_have_attribute("data-moment", "added")
    assert list(at.basket().values()) == [1]


def test_where_a_card_would_cut_our_button_off_the_shops_own_stays(visit: Callable[[str], RowPage]) -> None:
    at = visit("boxwell")
    at.opens("/")
    card = at.page.locator(".cards .card").first
    expect(card.locator("[data-up-place]")).to_have_attribute("data-up-kept", "cut")
    expect(card.locator(".own")).to_be_visible()
    expect(card.locator("[data-up-button]")).to_have_count(0)
    card.locator(".own").click()
    at.page.wait_for_url("**/basket")
    assert at.basket() == {name_of("boxwell"): 1}


def test_the_bar_stands_over_a_page_that_is_turned_and_clipped(visit: Callable[[str], RowPage]) -> None:
    at = visit("loft")
    ours = at.opens()
    expect(ours).to_be_visible()
    at.page.set_viewport_size({"width": 1000, "height": 500})
    at.page.get_by_role("button", name="All right").click()
    at.page.mouse.wheel(0, 700)
    bar = at.page.locator("[data-in] [data-up-button] button.b")
    expect(bar).to_be_visible()
    bar.click()
    expect(bar).to_have_attribute("data-moment", "added")
    assert at.basket() == {name_of("loft"): 1}


def test_an_arabic_shop_reads_from_the_right(visit: Callable[[str], RowPage]) -> None:
    at = visit("bayt")
    ours = at.opens()
    expect(ours).to_contain_text("ضعه في السلة")
    assert ours.evaluate("b => getComputedStyle(b).direction") == "rtl"


def test_an_old_copy_without_our_line_sells_as_before(visit: Callable[[str], RowPage]) -> None:
    at = visit("evergreen")
    at.opens()
    own = at.page.locator("[data-up-place=product_page] .own")
    expect(own).to_be_visible()
    own.click()
    at.page.wait_for_url("**/basket")
    assert at.basket() == {name_of("evergreen"): 1}


@pytest.fixture
def connection_kept(demo_shop: Stack) -> Iterator[None]:
    """Put back how Scullion is connected: other modules count what is in its basket."""
    yield
    with demo_shop.wiring.open_shop("scullion") as shop:
        shop.side.connect(connection_of(ROW["scullion"]))


@pytest.mark.usefixtures("connection_kept")
def test_a_shop_is_connected_from_the_studio_and_its_pages_are_looked_at(demo_shop: Stack, tab: Tab) -> None:
    page = tab.page
    sign_in(tab, demo_shop)
    page.goto(demo_shop.at.studio)
    page.get_by_label("Store: Thornmere").click()
    page.get_by_role("option", name="Scullion").click()
    expect(page.get_by_label("Store: Scullion")).to_be_visible()
    page.get_by_role("button", name="connection").click()
    sheet = page.get_by_role("dialog")
    expect(sheet.get_by_label("Address of the basket")).to_have_value("/api/counter/lines")
    # What somebody breaks by hand is told by its cause.
    sheet.get_by_label("Name under which it goes back").fill("X-Wrong")
    sheet.get_by_label("Name under which it goes back").blur()
    sheet.get_by_role("button", name="Try it").click()
    expect(sheet.get_by_text("It was not added. The shop takes the request for a forged one")).to_be_visible()
    sheet.get_by_role("button", name="Read it").click()
    expect(sheet.get_by_text("A script sends JSON to /api/counter/lines.")).to_be_visible()
    expect(sheet.get_by_label("Name under which it goes back")).to_have_value("X-Counter-Word")
    sheet.get_by_role("button", name="Try it").click()
    expect(sheet.get_by_text("It was added. The basket went from 0 to 1. It was taken out again.")).to_be_visible()
    assert barriers(page) == []
    sheet.get_by_role("button", name="Keep it").click()
    expect(sheet).to_have_count(0)
    # Shops' pages get it at once, with the release that they have.
    with demo_shop.wiring.open_shop("scullion") as shop:
        assert shop.store.connection.read is not None
        assert shop.store.connection.read.kind == "page"
    page.goto(f"{demo_shop.at.practice.replace('://', '://scullion.')}/p/{ROW['scullion'].goods[0].sku}")
    page.locator(OURS).click()
    expect(page.locator(OURS)).to_have_attribute("data-moment", "added")
    page.goto(f"{demo_shop.at.studio}/release")
    expect(page.get_by_text("is live on all 3 kinds of page")).to_be_visible()
    expect(page.get_by_text("seen live on 3 of 3 kinds of page at")).to_be_visible()
    assert barriers(page) == []
    page.get_by_label("Store: Scullion").click()
    page.get_by_role("option", name="Evergreen").click()
    expect(page.get_by_label("Store: Evergreen")).to_be_visible()
    page.goto(f"{demo_shop.at.studio}/release")
    expect(page.get_by_text("This copy is 6 days old (x-cache: HIT from larder).").first).to_be_visible()


def test_where_nothing_depends_on_who_looks_an_id_comes_with_a_yes_and_goes_with_a_no(
    visit: Callable[[str], RowPage],
) -> None:
    at = visit("footpath")
    expect(at.opens()).to_be_visible()
    known = "() => localStorage.getItem('up.shopper')"
    at.page.wait_for_function(f"({known})()?.length === 32")
    # Nothing of ours is loaded on a page without a button, and a no counts there as well.
    at.page.goto(f"{at.origin}/basket")
    at.page.wait_for_load_state("networkidle")
    assert len(at.page.evaluate(known)) == 32
    at.page.evaluate("document.documentElement.dataset.upConsent = 'no'")
    at.page.wait_for_function(f"({known})() === null")


LEFT_BEHIND = """async many => {
  const main = document.querySelector('main');
  const whole = main.innerHTML;
  const frame = () => new Promise(requestAnimationFrame);
  for (let n = 0; n < many; n++) {
    history.pushState(null, '', `${location.pathname}?view=${n}`);
    main.innerHTML = whole;
    const until = performance.now() + 5000;
    while (!main.querySelector('[data-up-stands] [data-up-button]'))
      if (performance.now() > until) return `no button in view ${n}`;
      else await frame();
  }
  return '';
}"""


def test_hundreds_of_views_without_a_load_leave_nothing_behind(visit: Callable[[str], RowPage]) -> None:
    at = visit("driftcomb")
    expect(at.opens()).to_be_visible()
    session = at.page.context.new_cdp_session(at.page)

    def kept_after(views: int) -> dict[str, float]:
        assert at.page.evaluate(LEFT_BEHIND, views) == ""
        # What follows whether a button was seen lets go of it within a second.
        at.page.wait_for_timeout(1200)
        session.send("HeapProfiler.collectGarbage")
        counted = session.send("Memory.getDOMCounters")
        heap = session.send("Runtime.getHeapUsage")
        return {"nodes": counted["nodes"], "listeners": counted["jsEventListeners"], "heap": heap["usedSize"]}

    early = kept_after(100)
    late = kept_after(500)
    assert late["nodes"] - early["nodes"] < 100
    assert late["listeners"] - early["listeners"] < 20
    assert late["heap"] - early["heap"] < 250_000
