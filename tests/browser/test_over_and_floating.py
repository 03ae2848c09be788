"""Buttons over pictures and in a corner of the window, on the shops' own pages."""

from collections.abc import Callable
from typing import Any

import pytest
from playwright.sync_api import Browser, Page, expect

from ops import demo
from practice.row import ROW
from tests.browser.conftest import ADA, Drafted, Stack, Tab, barriers, open_tab, sign_in
from uptick.core.button.merge import Json
from uptick.core.button.over import Over
from uptick.core.scroll.pictures import ANCHORS, laid
from uptick.core.scroll.survey import Rect
from uptick.wiring import clock

pytestmark = pytest.mark.browser
SMOKER = "[data-up-place=over_picture][data-up-product=TL-SMOKER]"
HOST = f"{SMOKER} [data-up-button]"
FLOATS = "[data-up-floating][data-in]"
BOXES = """place => {
  const box = e => { const { x, y, width, height } = e.getBoundingClientRect();
    return { x: x + scrollX, y: y + scrollY, wide: width, high: height } };
  return [box(place.querySelector('[data-up-button]')), box(place.closest('li').querySelector('img'))];
}"""
SEEN = "host => getComputedStyle(host).visibility + ' ' + getComputedStyle(host).opacity"
# What has moved without anybody pressing something; none of it may come late.
SHIFT = """new Promise(done => {
  let sum = 0;
  new PerformanceObserver(list => list.getEntries().forEach(one => { if (!one.hadRecentInput) sum += one.value }))
    .observe({ type: 'layout-shift', buffered: true });
  setTimeout(() => done(sum), 300);
})"""
Draws = Callable[..., Page]


@pytest.fixture
def draws(drafted: Drafted) -> Draws:
    """Return what draws a layer in a shop's draft, and opens a page with that."""

    def draw(key: str, layer: str, content: Json, path: str, **options: Any) -> Page:
        return drafted(key, lambda settings: settings.with_layer(layer, content), path, **options)

    return draw


def home(stack: Stack, tab: Tab) -> Page:
    tab.page.goto(stack.at.practice)
    tab.page.locator(SMOKER).scroll_into_view_if_needed()
    tab.page.locator(f"{HOST}[data-on]").wait_for()
    return tab.page


def boxes(page: Page) -> tuple[Rect, Rect]:
    button, picture = page.locator(SMOKER).evaluate(BOXES)
    return Rect.model_validate(button), Rect.model_validate(picture)


def rounded(box: Rect) -> list[int]:
    return [round(each) for each in (box.x, box.y, box.wide, box.high)]


def test_a_button_lies_on_its_picture_takes_no_room_and_its_words_come_by_pointer_and_by_focus(
    demo_shop: Stack, tab: Tab
) -> None:
    page = home(demo_shop, tab)
    button, picture = boxes(page)
    assert button.right == pytest.approx(picture.right - 10, abs=1)
    assert button.bottom == pytest.approx(picture.bottom - 10, abs=1)
    words = page.locator(f"{HOST} .w")
    assert words.evaluate("e => getComputedStyle(e).opacity") == "0"
    page.locator(SMOKER).locator("xpath=..").hover(position={"x": 30, "y": 30})
    expect(words).to_have_css("opacity", "1")
    # It grows inwards, and stays where it is fixed to the picture.
    grown, _ = boxes(page)
    assert grown.wide > button.wide + 20
    assert grown.right == pytest.approx(button.right, abs=1)
    # What came by hovering goes by Escape without moving the pointer (WCAG 2.2, 1.4.13).
    page.keyboard.press("Escape")
    expect(words).to_have_css("opacity", "0")
    page.mouse.move(2, 2)
    page.locator(f"{HOST} .b").focus()
    expect(words).to_have_css("opacity", "1")
    assert page.evaluate(SHIFT) == 0
    assert barriers(page) == []
    assert tab.told == []


def test_the_button_buys_and_the_picture_leads_to_the_products_page(demo_shop: Stack, tab: Tab) -> None:
    page = home(demo_shop, tab)
    page.locator(f"{HOST} .b").click()
    expect(page.locator(f"{HOST} .b")).to_have_attribute("data-moment", "in_basket", timeout=20_000)
    told = page.evaluate("fetch('/basket.json').then(a => a.json())")
    assert [line["sku"] for line in told["items"]] == ["TL-SMOKER"]
    page.locator(SMOKER).locator("xpath=..").locator("img").click(position={"x": 20, "y": 20})
    page.wait_for_url("**/p/TL-SMOKER")


def test_fingers_see_all_of_it_at_once(demo_shop: Stack, browser: Browser) -> None:
    tab = open_tab(browser, has_touch=True, is_mobile=True, viewport={"width": 375, "height": 740})
    page = home(demo_shop, tab)
    assert page.evaluate("matchMedia('(hover: hover)').matches") is False
    assert page.locator(f"{HOST} .w").evaluate("e => getComputedStyle(e).opacity") == "1"
    tab.context.close()


def test_it_lies_where_the_core_says_at_all_nine_anchors_and_follows_what_moves(draws: Draws) -> None:
    for anchor in ANCHORS:
        over = {"anchor": anchor, "across": 14, "down": "6%", "reveal": "nothing"}
        page = draws(demo.KEY, "place:over_picture", {"over": over}, "/")
        page.locator(f"{HOST}[data-on]").wait_for(state="attached")
        button, picture = boxes(page)
        wanted = laid(Over.model_validate(over), (button.wide, button.high), picture)
        assert rounded(button) == pytest.approx(rounded(wanted), abs=1), anchor
    # Something above it comes later, and the picture becomes another size.
    page.evaluate(
        "document.querySelector('main').prepend(Object.assign(document.createElement('p'), {style: 'height:90px'}))"
    )
    page.set_viewport_size({"width": 900, "height": 700})
    page.wait_for_timeout(300)
    button, picture = boxes(page)
    assert rounded(button) == pytest.approx(
        rounded(laid(Over.model_validate(over), (button.wide, button.high), picture)), abs=1
    )


def test_from_right_to_left_its_side_is_the_other_one(draws: Draws, demo_shop: Stack) -> None:
    over = {"anchor": "bottom_end", "across": 14, "down": 8}
    page = draws(demo.KEY, "place:over_picture", {"over": over}, "/")
    page.goto(page.url + "&lang=ar")
    page.locator(f"{HOST}[data-on]").wait_for(state="attached")
    button, picture = boxes(page)
    assert button.x == pytest.approx(picture.x + 14, abs=1)


def test_a_whole_button_that_waits_comes_and_goes_with_the_pointer(draws: Draws) -> None:
    over = {"anchor": "middle", "reveal": "button", "reveal_ms": 100}
    page = draws(demo.KEY, "place:over_picture", {"over": over}, "/")
    host = page.locator(HOST)
    page.locator(f"{HOST}[data-on]").wait_for(state="attached")
    page.locator(SMOKER).scroll_into_view_if_needed()
    assert host.evaluate(SEEN) == "visible 0"
    page.locator(SMOKER).locator("xpath=..").hover(position={"x": 30, "y": 30})
    expect(host).to_have_css("opacity", "1")
    page.mouse.move(2, 2)
    expect(host).to_have_css("opacity", "0")


def test_where_a_picture_is_not_there_nothing_stands_in_the_way(draws: Draws) -> None:
    page = draws(demo.KEY, "place:over_picture", {"over": {"anchor": "end"}}, "/")
    page.locator(f"{HOST}[data-on]").wait_for(state="attached")
    page.locator(SMOKER).evaluate("place => place.closest('li').querySelector('img').style.display = 'none'")
    page.locator(f"{HOST}:not([data-on])").wait_for(state="attached")
    assert page.locator(HOST).evaluate("host => getComputedStyle(host).visibility") == "hidden"


def test_another_picture_instead_of_it_and_one_that_comes_late_are_followed(draws: Draws) -> None:
    over = {"anchor": "bottom_end", "across": 14, "down": 14}
    page = draws(demo.KEY, "place:over_picture", {"over": over}, "/")
    page.locator(f"{HOST}[data-on]").wait_for(state="attached")
    page.locator(SMOKER).evaluate(
        """place => { const img = place.closest('li').querySelector('img'), other = new Image();
          other.style.cssText = 'width:70%'; img.replaceWith(other);
          setTimeout(() => (other.src = '/pictures/HV-CEDAR.svg'), 200); }"""
    )
    page.wait_for_function(
        """() => { const place = document.querySelector('[data-up-place=over_picture][data-up-product=TL-SMOKER]');
          const [a, b] = [place.querySelector('[data-up-button]'), place.closest('li').querySelector('img')]
            .map(e => e.getBoundingClientRect());
          return b.height > 100 && Math.abs(b.right - 14 - a.right) < 1 && Math.abs(b.bottom - 14 - a.bottom) < 1; }"""
    )


def test_a_second_button_stands_beside_one_that_floats_and_one_on_a_picture(draws: Draws) -> None:
    pad = {"top": 10, "right": 16, "bottom": 10, "left": 16}
    second = {"kind": "checkout", "wording": {"en-GB": "Pay now"}, "padding": pad, "radius": 2}
    page = draws(demo.KEY, "place:over_picture", {"over": {"anchor": "bottom"}, "second": second}, "/")
    page.locator(f"{HOST}[data-on]").wait_for(state="attached")
    button, picture = boxes(page)
    assert page.locator(f"{HOST} .s").inner_text() == "Pay now"
    # Both of them are laid together.
    assert button.x + button.wide / 2 == pytest.approx(picture.x + picture.wide / 2, abs=1)
    at_once = {"comes": {"kind": "distance", "px": 0}, "returns": False}
    page = draws("scullion", "place:floating", {"floating": at_once, "second": second}, "/p/HV-NUC6")
    page.evaluate("document.querySelector('main').style.paddingBottom = '2000px'")
    at(page, 20)
    page.locator(f"{FLOATS} .s").click()
    page.wait_for_url("**/checkout", timeout=20_000)


# In a corner of the window.


def floats(draws: Draws, floating: Json, path: str = "/p/HV-NUC6", key: str = "scullion", **options: Any) -> Page:
    page = draws(key, "place:floating", {"floating": floating}, path, **options)
    page.locator("[data-up-floating]").wait_for(state="attached")
    # So long a page scrolls in every window.
    page.evaluate("document.querySelector('main').style.paddingBottom = '2000px'")
    return page


def at(page: Page, y: float) -> None:
    page.evaluate("y => scrollTo({ top: y, behavior: 'instant' })", y)
    page.wait_for_timeout(150)


def corner(page: Page) -> list[int]:
    """Return how far it is from the left, the right, the top and the bottom of the window."""
    told: list[int] = page.evaluate(
        """() => { const { left, right, top, bottom } = document.querySelector('[data-up-floating]').shadowRoot
          .querySelector('.r').getBoundingClientRect();
          return [left, document.documentElement.clientWidth - right, top, innerHeight - bottom].map(Math.round) }"""
    )
    return told


@pytest.mark.parametrize(
    ("where", "distances"),
    [
        ("bottom_end", (None, 30, None, 18)),
        ("bottom_start", (30, None, None, 18)),
        ("top_start", (30, None, 18, None)),
    ],
)
def test_it_floats_in_its_corner_after_a_distance_and_buys(
    draws: Draws, where: str, distances: tuple[int | None, ...]
) -> None:
    comes = {"kind": "distance", "px": 150}
    page = floats(draws, {"corner": where, "comes": comes, "returns": False, "desktop": {"side_px": 30, "edge_px": 18}})
    at(page, 148)
    assert page.locator(FLOATS).count() == 0
    at(page, 152)
    page.locator(FLOATS).wait_for(state="attached")
    for seen, wanted in zip(corner(page), distances, strict=True):
        assert wanted is None or seen == wanted
    page.locator(f"{FLOATS} button.b").click()
    expect(page.locator(f"{FLOATS} button.b")).to_have_attribute("data-moment", "in_basket", timeout=20_000)


def test_it_goes_while_the_own_button_is_seen_and_leaves_room_at_the_end(draws: Draws) -> None:
    page = floats(draws, {"comes": {"kind": "own_left"}})
    at(page, 900)
    page.locator(FLOATS).wait_for(state="attached")
    at(page, 0)
    page.locator("[data-up-floating]:not([data-in])").wait_for(state="attached")
    at(page, 1e6)
    page.locator(FLOATS).wait_for(state="attached")
    last, top = page.evaluate(
        """() => [document.body.getBoundingClientRect().bottom, document.querySelector('[data-up-floating]').shadowRoot
          .querySelector('.r').getBoundingClientRect().top]"""
    )
    assert last <= top + 1


def test_it_gives_way_to_a_keyboard_on_the_screen(draws: Draws) -> None:
    """Such a keyboard makes the visual viewport lower and leaves the window as it is (CSSOM View, visual viewport)."""
    page = floats(draws, {"comes": {"kind": "distance", "px": 0}, "returns": False})
    at(page, 300)
    page.locator(FLOATS).wait_for(state="attached")
    types = """high => {
      Object.defineProperty(visualViewport, 'height', { configurable: true, get: () => innerHeight - high });
      visualViewport.dispatchEvent(new Event('resize'));
    }"""
    page.evaluate(types, 300)
    assert page.locator(FLOATS).count() == 0
    # The bars of a browser that come and go are no keyboard.
    page.evaluate(types, 60)
    assert page.locator(FLOATS).count() == 1


def test_what_has_the_focus_is_not_behind_it(draws: Draws) -> None:
    """WCAG 2.2, 2.4.11 Focus Not Obscured, by Tab through the page."""
    page = floats(draws, {"comes": {"kind": "distance", "px": 0}, "returns": False})
    hidden = page.evaluate(
        """async () => {
          const bad = [];
          for (const one of document.querySelectorAll('main a, main button')) {
            one.focus({ preventScroll: false });
            await new Promise(done => setTimeout(done, 30));
            const row = document.querySelector('[data-up-floating]').shadowRoot.querySelector('.r');
            const [a, b] = [one.getBoundingClientRect(), row.getBoundingClientRect()];
            const isWithin = a.left >= b.left && a.right <= b.right && a.top >= b.top && a.bottom <= b.bottom;
            if (isWithin) bad.push(one.outerHTML);
          }
          return bad;
        }"""
    )
    assert hidden == []


def test_from_right_to_left_its_corner_is_the_other_one(draws: Draws) -> None:
    at_once = {"comes": {"kind": "distance", "px": 0}, "returns": False}
    page = floats(draws, {**at_once, "corner": "bottom_end", "desktop": {"side_px": 30, "edge_px": 18}}, key="bayt")
    at(page, 5)
    page.locator(FLOATS).wait_for(state="attached")
    left, _, _, bottom = corner(page)
    assert (left, bottom) == (30, 18)


def test_it_is_added_seen_lifted_off_the_shops_notice_and_taken_away_in_place(demo_shop: Stack, tab: Tab) -> None:
    sign_in(tab, demo_shop)
    page = tab.page
    page.goto(demo_shop.at.studio)
    page.evaluate("localStorage.setItem('uptick.store', 'loft')")
    page.goto(f"{demo_shop.at.studio}/place")
    page.get_by_role("button", name="Add a floating button").click()
    section = page.get_by_role("region", name="The floating button")
    expect(section.get_by_label("Corner:")).to_be_visible()
    lane = page.locator("svg .lane-name").filter(has_text="floating")
    expect(lane).to_be_visible()
    meets = page.get_by_role("listitem").filter(has_text="The floating button and Cookies lie over each other")
    expect(meets).to_be_visible()
    # By key: just after scrolling the browser still sends what a mouse does there into one of the frames.
    meets.get_by_role("button", name="Fix: move the floating button up").press("Enter")
    expect(meets).to_have_count(0)
    # In the window it stands there.
    frame = page.locator("iframe[title$='on a phone']").element_handle().content_frame()  # type: ignore[union-attr]
    assert frame
    frame.evaluate("scrollTo({ top: 1e6, behavior: 'instant' })")
    frame.locator(FLOATS).wait_for(state="attached")
    clear = """() => { const [a, b] = [document.querySelector('.crumbs'), document.querySelector('[data-up-floating]')
      .shadowRoot.querySelector('.r')].map(e => e.getBoundingClientRect()); return a.top - b.bottom }"""
    assert frame.evaluate(clear) == pytest.approx(8, abs=1)
    assert barriers(page) == []
    section.get_by_role("button", name="Take the floating button away").press("Enter")
    expect(lane).to_have_count(0)
    expect(page.get_by_role("button", name="Add a floating button")).to_be_visible()
    with demo_shop.wiring.open_shop("loft") as shop:
        assert not shop.drafts.read().settings.placements.get("floating")
        assert shop.drafts.history(1)[0].label == "Floating: taken away"


def test_a_spot_on_a_picture_is_chosen_by_keys_and_a_bad_one_is_told_with_a_free_one(
    demo_shop: Stack, tab: Tab
) -> None:
    sign_in(tab, demo_shop)
    page = tab.page
    page.goto(f"{demo_shop.at.studio}/place")
    page.get_by_label("Page:").click()
    page.get_by_role("option", name="front page").click()
    page.get_by_role("button", name="On pictures").click()
    section = page.get_by_role("region", name="On pictures")
    section.get_by_role("radio", name="in the lower right corner").focus()
    page.keyboard.press("ArrowUp")
    expect(section.get_by_text("It lies on the right of its picture")).to_be_visible()
    page.keyboard.press("ArrowLeft")
    expect(section.get_by_text("It lies in the middle of its picture")).to_be_visible()
    hides = page.get_by_role("listitem").filter(has_text="The button hides the middle of what is shown")
    expect(hides).to_be_visible()
    expect(hides).to_contain_text("Worst is Hexagon jars, set of 48")
    hides.get_by_role("button", name="Fix: put it").first.press("Enter")
    expect(hides).to_have_count(0)
    for _ in range(3):
        page.keyboard.press("Control+z")
    expect(section.get_by_text("It lies in the lower right corner of its picture")).to_be_visible()
    assert barriers(page) == []


def test_what_hangs_stands_for_one_product_on_every_page_where_that_is_said(demo_shop: Stack, tab: Tab) -> None:
    with demo_shop.wiring.open_shop("scullion") as shop:
        was = shop.drafts.read().settings
    other = ROW["scullion"].goods[2]
    page = tab.page
    sign_in(tab, demo_shop)
    page.add_init_script("if (self === top) localStorage['uptick.store'] = 'scullion'")
    page.goto(f"{demo_shop.at.studio}/place")
    page.get_by_role("button", name="The floating button", exact=True).click()
    says = page.get_by_role("region", name="The floating button")
    says.get_by_label("Stands for").press("Enter")
    page.get_by_role("option", name="always the same product").click()
    says.get_by_label("Product:").click()
    says.get_by_label("Product:").fill(other.sku)
    # The list grows shorter under the pointer while it is asked for.
    expect(page.get_by_role("option")).to_have_count(1)
    page.get_by_role("option", name=other.name).click()
    expect(says.get_by_label(f"Product: {other.name}")).to_be_visible()
    expect(page.locator("[data-where]")).to_contain_text("stands for 1 of 1 product", timeout=15_000)
    # The windows show it as well.
    window = page.frame_locator("iframe[title$='on a desktop']")
    expect(window.locator("[data-up-floating] button.b")).to_contain_text(other.price_text, timeout=20_000)
    told = page.request.get(f"{demo_shop.at.studio}/api/stores/scullion").json()
    page.goto(f"{told['store']['origin']}/p/HV-NUC6?up-draft={told['preview']}")
    page.locator("[data-up-floating]").wait_for(state="attached")
    page.evaluate("document.querySelector('main').style.paddingBottom = '2000px'")
    at(page, 900)
    button = page.locator(f"{FLOATS} button.b")
    expect(button).to_contain_text(other.price_text)
    expect(button).to_contain_text(other.name)
    button.click()
    expect(button).to_have_attribute("data-moment", "in_basket", timeout=20_000)
    assert [
        line["code"] for line in page.evaluate("fetch('/api/counter').then(a => a.json())")["counter"]["lines"]
    ] == [other.sku]
    # The page's own button is the page's.
    assert other.name not in page.locator("[data-up-place=product_page] button.b").inner_text()
    # Where its page is gone, nothing stands: another product would be a wrong one.
    page.route(f"**/p/{other.sku}", lambda route: route.fulfill(status=404, body="gone"))
    page.reload()
    page.locator("[data-up-place=product_page] button.b").wait_for()
    page.evaluate("document.querySelector('main').style.paddingBottom = '2000px'")
    at(page, 900)
    page.wait_for_timeout(800)
    assert page.locator("[data-up-floating]").count() == 0
    with demo_shop.wiring.open_shop("scullion") as shop:
        shop.drafts.append(shop.drafts.read().version, was, "as it was", ADA, clock())


def test_it_hangs_on_just_the_pages_that_are_meant_and_buys_there(demo_shop: Stack, tab: Tab) -> None:
    page, at_shop = tab.page, demo_shop.at.practice
    bought = "document.querySelector('[data-up-floating] [data-up-stands]')?.closest('form')?.elements.sku.value"
    page.goto(f"{at_shop}/c/bees")
    page.locator("[data-up-floating] [data-up-stands]").wait_for(state="attached")
    assert page.evaluate(bought) == "SS-FIRST"
    at(page, 500)
    page.locator(f"{FLOATS} button.b").click()
    expect(page.locator("[data-basket-count]")).to_have_text("1")
    expect(page.locator(f"{FLOATS} button.b")).to_have_attribute("data-moment", "in_basket", timeout=15_000)
    # Not where a path is left out, and not on other kinds of pages: the last tells of related products too.
    for path in ("/c/starter-sets", "/p/TL-SMOKER", "/basket"):
        page.goto(at_shop + path)
        page.wait_for_load_state("networkidle")
        assert page.locator("[data-up-floating]").count() == 0, path


def test_a_bar_for_one_product_is_there_at_once_where_the_page_has_no_button_of_its_own(draws: Draws) -> None:
    page = draws(demo.KEY, "place:sticky_bar", {"placement": {"product": "TL-HOOK"}}, "/basket")
    bar = page.locator("[data-up-bar][data-in]")
    expect(bar.locator("button.b")).to_contain_text("Hooked hive tool", timeout=20_000)
    assert page.locator("body [data-up-place]").count() == 0
