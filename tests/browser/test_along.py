"""Place along a page: what is worked out from one measuring is what Chromium sees, in shops of all shapes."""

import json
import os
import random
import re
import subprocess
import sys
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import Frame, Page, expect

from ops import demo
from practice.row import ROW
from practice.row.app import PASSWORD
from tests.browser.conftest import Stack, Tab, barriers, open_tab, sign_in
from uptick.core.button.document import Device
from uptick.core.button.floating import Floating
from uptick.core.scroll import PageSurvey, check_rows
from uptick.core.scroll.along import along
from uptick.core.scroll.in_reach import in_reach
from uptick.core.scroll.scene import scene_of
from uptick.core.scroll.spans import Span
from uptick.core.shop.store import WINDOW_HEIGHTS_PX, WINDOWS_PX
from uptick.usecases import edit
from uptick.usecases.pointing import pages_to_look_at
from uptick.usecases.ports import Person
from uptick.usecases.views.along import hung_for
from uptick.wiring import clock

pytestmark = pytest.mark.browser
WINDOWS = {device: (round(WINDOWS_PX[device]), round(WINDOW_HEIGHTS_PX[device])) for device in Device}
# Where a button comes or goes is where a sum goes wrong first: each page is looked at on both sides of so many edges.
EDGES, RANDOM = 12, 24
# A page in frames of the studio's, one a device side by side, and what its script measures once all buttons stand.
MEASURE = """async wanted => {
  document.body.replaceChildren();
  window.newestSurveys = {};
  let left = 0;
  const measured = wanted.map(([device, src, wide, high]) => new Promise((done, fail) => {
    const frame = Object.assign(document.createElement('iframe'), { src, width: wide, height: high, name: device });
    frame.style.cssText = `border:0;position:absolute;top:0;left:${left}px`;
    left += wide + 20;
    let quiet;
    addEventListener('message', ({ source, data }) => {
      if (source !== frame.contentWindow) return;
      if (data.up === 'ready') frame.contentWindow.postMessage({ up: 'survey' }, '*');
      if (data.up !== 'survey') return;
      const newest = window.newestSurveys[device] = data.survey;
      clearTimeout(quiet);
      // Decided of every place, and nothing new since.
      if (newest.places.every(({ stands, kept }) => stands || kept)) quiet = setTimeout(() => done(newest), 600);
    });
    setTimeout(() => fail(new Error(`the page did not answer on a ${device}`)), 30000);
    document.body.append(frame);
  }));
  return Promise.all(measured);
}"""
# How much of every button the browser sees, and whether the bar stands, at one position after the other.
WATCH = """async positions => {
  const named = ['product_page', 'listing_card', 'strip', 'over_picture'].map(name => `[data-up-place=${name}]`).join();
  const seen = one => one.checkVisibility({ opacityProperty: true, visibilityProperty: true });
  const find = () => [...document.querySelectorAll(named)].map(place => {
    const host = 'upStands' in place.dataset && place.querySelector('[data-up-button]');
    const ours = host && host.shadowRoot?.querySelector('.b');
    return ours || [...place.querySelectorAll('button,[type=submit],a')].find(seen) || place;
  }).filter(one => one.getBoundingClientRect().width && one.getBoundingClientRect().height);
  const next = () => new Promise(done => requestAnimationFrame(() => setTimeout(done)));
  const look = buttons => new Promise(done => {
    if (!buttons.length) return done([]);
    const watch = new IntersectionObserver(entries => {
      watch.disconnect();
      const by = new Map(entries.map(entry => [entry.target, entry.intersectionRatio]));
      done(buttons.map(button => by.get(button)));
    }, { root: document, threshold: [0, 0.5, 1] });
    buttons.forEach(button => watch.observe(button));
  });
  const told = [];
  // Drawn anew since the browser looked; what is cut off is nowhere at every try.
  const isStale = (button, share, tries) => {
    const { top, bottom, left, right } = button.getBoundingClientRect();
    return tries < 4 && share === 0 && bottom > 1 && top < innerHeight - 1 && right > 1 && left < innerWidth - 1;
  };
  const isOpen = () => [...document.querySelectorAll(named)]
    .some(({ dataset }) => !('upStands' in dataset) && !dataset.upKept);
  let buttons;
  for (const top of positions) {
    scrollTo({ top, behavior: 'instant' });
    let shares, tries = 0;
    // A framework may draw its page anew at any time, and what is no longer there is not seen.
    do {
      buttons = find();
      shares = await look(buttons);
      if (++tries > 40) break;
    } while (isOpen() || buttons.some((button, n) => !button.isConnected || isStale(button, shares[n], tries)));
    await next();
    const isIn = name => !!document.querySelector(`[data-up-${name}][data-in]`);
    told.push([scrollY, shares, { bar: isIn('bar'), floating: isIn('floating') }]);
  }
  return told;
}"""


@dataclass
class Measured:
    frame: Frame
    survey: PageSurvey


def measured(page: Page, stack: Stack, key: str, path: str) -> dict[Device, Measured]:
    """Return a page of a shop in frames of the studio's, measured on every device at once."""
    token = page.request.get(f"{stack.at.studio}/api/stores/{key}").json()
    origin, preview = token["store"]["origin"], token["preview"]
    # What lies outside of the window is not drawn in time.
    page.set_viewport_size({"width": sum(wide + 20 for wide, _ in WINDOWS.values()), "height": 1040})
    page.goto(stack.at.studio)
    address = f"{origin}{path}?up-draft={preview}"
    surveys = page.evaluate(MEASURE, [[device.value, address, *size] for device, size in WINDOWS.items()])
    frames = {frame.name: frame for frame in page.frames}
    return {
        device: Measured(frames[device.value], PageSurvey.model_validate(raw))
        for device, raw in zip(WINDOWS, surveys, strict=True)
    }


def at_an_edge(scroll: float, spans: Sequence[Span], way: float) -> bool:
    """Tell whether a position is within a pixel of where something comes or goes; the page's own ends are no edges."""
    return any(abs(scroll - end) <= 1 for span in spans for end in span if 0 < end < way)


def standing(survey: PageSurvey) -> tuple[object, ...]:
    """Return all of ours that a survey has; what hangs may come a moment after the buttons."""
    return survey.places, survey.bar, survey.floating


def require_alike(stack: Stack, key: str, product: str, measured_on: dict[Device, Measured]) -> None:
    """Compare what was worked out with what the browser sees, beside edges and at random positions."""
    left = measured_on
    for _ in range(3):
        seen = look_along(key, left)
        page = next(iter(left.values())).frame.page
        for device, at in left.items():
            # What hangs is told a moment after it came, on a busy machine later than it was seen.
            for name in {name for *_, is_in in seen[device] for name, came in is_in.items() if came}:
                if getattr(at.survey, name) is None:
                    page.wait_for_function("([at, name]) => newestSurveys[at][name]", arg=[device.value, name])
        now = {device: PageSurvey.model_validate(raw) for device, raw in page.evaluate("window.newestSurveys").items()}
        # What moves by itself is told again, as a font that came or a picture: that device is looked at once more.
        still = {device: at for device, at in left.items() if standing(now[device]) == standing(at.survey)}
        for device, at in still.items():
            compare(stack, key, product, device, at, seen[device])
        left = {device: Measured(at.frame, now[device]) for device, at in left.items() if device not in still}
        if not left:
            return
    raise AssertionError(f"{key} never came to rest on {list(left)}")


def positions_along(key: str, device: Device, survey: PageSurvey) -> list[int]:
    """Return positions just before and just after where something is to come or go, and some at random."""
    way = survey.way_px
    rng = random.Random(f"{key}{device}{survey.path}")
    scene = scene_of(survey)
    edges = sorted({end for place in survey.places for span in in_reach(scene, place) for end in span})
    beside = [edge + by for edge in rng.sample(edges, min(EDGES, len(edges))) for by in (-2, 2)]
    # A page that does not scroll has one position, and one that hardly does needs no more than a few.
    random_ones = [rng.uniform(0, way) for _ in range(max(1, min(RANDOM, round(way / 2))))]
    return sorted({round(min(max(position, 0), way)) for position in (*beside, *random_ones)})


def look_along(key: str, measured_on: dict[Device, Measured]) -> dict[Device, Sequence[Any]]:
    """Return what the browser sees in every window, which are scrolled at the same time."""
    for device, at in measured_on.items():
        at.frame.evaluate(f"at => {{ window.upWatching = ({WATCH})(at); }}", positions_along(key, device, at.survey))
    return {device: at.frame.evaluate("window.upWatching") for device, at in measured_on.items()}


def compare(stack: Stack, key: str, product: str, device: Device, at: Measured, seen: Sequence[Any]) -> None:
    """Compare what was worked out with what was seen."""
    survey = at.survey
    scene = scene_of(survey)
    spans = [in_reach(scene, place) for place in survey.places]
    with stack.wiring.open_shop(key) as shop:
        stored = next((each for each in shop.catalogue.all() if each.sku == product), None)
        hung = hung_for(shop.now(), stored, device, "en-GB")
    lanes = {lane.kind: lane.spans for lane in along(survey, hung).lanes}
    compared = 0
    for scroll, shares, is_in in seen:
        assert len(shares) == len(spans)
        for place, share, there in zip(survey.places, shares, spans, strict=True):
            if not at_an_edge(scroll, there, survey.way_px):
                says = any(a <= scroll <= b for a, b in there)
                assert says == (share >= 0.5), (device, scroll, place, share, there)
                compared += 1
        for name, there_now in is_in.items():
            stands = lanes.get(name, ())
            if not at_an_edge(scroll, stands, survey.way_px):
                assert there_now == any(a <= scroll <= b for a, b in stands), (name, device, scroll, stands)
    assert compared > len(seen) / 2 or not survey.places


@pytest.mark.parametrize("path", ["/p/HV-NUC6", "/c/everything", "/"])
def test_what_is_in_reach_is_what_the_browser_sees_in_the_demo_shop(demo_shop: Stack, tab: Tab, path: str) -> None:
    """Reference: Chromium's own IntersectionObserver, W3C Intersection Observer, beside edges and at random."""
    sign_in(tab, demo_shop)
    measured_on = measured(tab.page, demo_shop, demo.KEY, path)
    for at in measured_on.values():
        assert len(at.survey.places) >= (50 if path.startswith("/c") else 3)
        if path == "/":
            assert [place.picture.dots for place in at.survey.places if place.picture]
    require_alike(demo_shop, demo.KEY, "HV-NUC6" if path.startswith("/p") else "", measured_on)


# One asks for a word before it shows anything, and one serves an old copy: neither can be looked at in a frame. One
# draws its places anew every 0.7 s: which of two buttons is seen hangs on the moment.
NOT_COMPARED = {"gate", "evergreen", "latterwax"}


@pytest.mark.parametrize("key", sorted(set(ROW) - NOT_COMPARED))
def test_what_is_in_reach_is_what_the_browser_sees_in_shops_of_every_shape(
    demo_shop: Stack, tab: Tab, key: str
) -> None:
    """Reference: Chromium's own IntersectionObserver, W3C Intersection Observer, beside edges and at random."""
    sign_in(tab, demo_shop)
    product = ROW[key].goods[0].sku
    measured_on = measured(tab.page, demo_shop, key, f"/p/{product}")
    for device, at in measured_on.items():
        assert at.survey.places, device
    require_alike(demo_shop, key, product, measured_on)


def test_the_rule_that_is_said_levels_a_rows_buttons(demo_shop: Stack, tab: Tab) -> None:
    sign_in(tab, demo_shop)
    at = measured(tab.page, demo_shop, "monogram", "/")[Device.PHONE]
    (finding,) = check_rows(at.survey, Device.PHONE)
    apart = int(finding.title.split(" px")[0].rpartition(" ")[2])
    assert apart > 8
    at.frame.evaluate(
        "css => { const sheet = new CSSStyleSheet(); sheet.replaceSync(css); document.adoptedStyleSheets.push(sheet) }",
        finding.css,
    )
    tops = at.frame.evaluate(
        """() => [...document.querySelectorAll('[data-up-place=listing_card]')].map(e => [
          e.closest('.card').getBoundingClientRect().top, e.getBoundingClientRect().top])"""
    )
    rows: dict[int, set[int]] = {}
    for card, button in tops:
        rows.setdefault(round(card), set()).add(round(button))
    assert len(rows) > 2
    assert all(max(buttons) - min(buttons) <= 1 for buttons in rows.values()), rows


ROWS = """() => [...document.querySelectorAll('[data-up-place=listing_card]')].map(e => [
  e.closest('.card').getBoundingClientRect().top, e.getBoundingClientRect().top])"""


def is_level(frame: Frame | Page) -> bool:
    rows: dict[int, set[int]] = {}
    for card, button in frame.evaluate(ROWS):
        rows.setdefault(round(card), set()).add(round(button))
    return all(max(buttons) - min(buttons) <= 1 for buttons in rows.values())


def test_our_script_levels_the_rows_once_that_is_pressed_and_no_longer_once_it_is_undone(
    demo_shop: Stack, tab: Tab
) -> None:
    page = opens_store(demo_shop, tab, "monogram")
    at = Station(page).opens("front page")
    page.get_by_role("button", name="phone", exact=True).click()
    findings = page.get_by_role("region", name="Findings along the page")
    ragged = findings.locator("[data-rule=ragged]")
    expect(ragged).to_be_visible()
    assert not is_level(at.frame("phone"))
    ragged.get_by_role("button", name="Fix: Level them").press("Enter")
    expect(ragged).to_have_count(0, timeout=20_000)
    assert is_level(at.frame("phone"))
    # The shop's page has it with the draft, before anything stands.
    told = page.request.get(f"{demo_shop.at.studio}/api/stores/monogram").json()
    assert page.context.browser
    shopper = open_tab(page.context.browser, viewport={"width": 375, "height": 800})
    shopper.page.goto(f"{told['store']['origin']}/?up-draft={told['preview']}")
    shopper.page.locator("[data-up-stands]").first.wait_for(state="attached")
    assert is_level(shopper.page)
    shopper.context.close()
    page.get_by_role("button", name="undo").press("Enter")
    expect(ragged).to_be_visible(timeout=20_000)
    assert not is_level(at.frame("phone"))


# In the studio.


@dataclass
class Station:
    page: Page

    def opens(self, path: str = "") -> "Station":
        if path:
            self.page.get_by_label("Page:").click()
            self.page.get_by_role("option", name=path).click()
        expect(self.page.get_by_text("of scrolling with a button in reach")).to_be_visible()
        return self

    def frame(self, device: str) -> Frame:
        handle = self.page.locator(f"iframe[title$='on a {device}']").element_handle()
        frame = handle.content_frame() if handle else None
        assert frame
        return frame

    def figure(self, says: str) -> str:
        return self.page.get_by_role("button", name=says).inner_text().split("\n")[0]

    def scrolled(self, device: str) -> float:
        return float(self.frame(device).evaluate("scrollY"))

    def rule(self) -> Any:
        return self.page.get_by_role("slider", name="Position of the window along the page")


def opens_store(stack: Stack, tab: Tab, key: str) -> Page:
    """Open Place for a shop of the row."""
    sign_in(tab, stack)
    tab.page.goto(stack.at.studio)
    tab.page.evaluate(f"localStorage.setItem('uptick.store', '{key}')")
    tab.page.goto(f"{stack.at.studio}/place")
    return tab.page


@pytest.fixture
def station(own_demo: Stack, tab: Tab) -> Station:
    sign_in(tab, own_demo)
    tab.page.goto(f"{own_demo.at.studio}/place")
    return Station(tab.page).opens()


def bar_kept(page: Page, stack: Stack, is_so: Callable[[Any], bool]) -> Any:
    """Wait until the draft has a bar like that: an edit is seen before it is kept."""
    for _ in range(100):
        with stack.wiring.open_shop(demo.KEY) as shop:
            bar = shop.drafts.read().settings.placements["sticky_bar"]["bar"]
        if is_so(bar):
            return bar
        page.wait_for_timeout(100)
    raise AssertionError(bar)


def comes_to(frame: Frame, y: float) -> None:
    frame.wait_for_function("y => Math.abs(scrollY - y) < 2", arg=y)


def test_the_three_windows_move_together_however_one_scrolls(station: Station) -> None:
    page, rule = station.page, station.rule()
    for device in Device:
        # The page has its whole height once the bar keeps its room.
        station.frame(device.value).locator("[data-up-bar][style*=height]").wait_for(state="attached")
    ways = {
        d.value: station.frame(d.value).evaluate("document.documentElement.scrollHeight - innerHeight") for d in Device
    }
    rule.focus()
    page.keyboard.press("End")
    for device, way in ways.items():
        assert way > 200
        comes_to(station.frame(device), way)
    # Somebody scrolls within one of the windows; answers of the others that come late take nobody back.
    for share in (0, 1, 0, 1, 0.5):
        station.frame("tablet").evaluate(
            "y => scrollTo({ top: y, behavior: 'instant' })", round(ways["tablet"] * share)
        )
    comes_to(station.frame("phone"), ways["phone"] / 2)
    page.wait_for_timeout(400)
    comes_to(station.frame("tablet"), round(ways["tablet"] / 2))
    expect(rule).to_have_attribute("aria-valuetext", re.compile(r"^\d+ of [\d,]+ px$"))
    rule.evaluate("e => e.blur()")
    before = int(rule.get_attribute("aria-valuenow") or 0)
    page.keyboard.press("j")
    expect(rule).to_have_attribute("aria-valuenow", re.compile(str(before + 40)[:-1]))
    box = page.locator("section.strip svg").bounding_box()
    assert box
    page.mouse.move(box["x"] + 40, box["y"] + box["height"] - 30)
    page.mouse.down()
    page.mouse.up()
    comes_to(station.frame("desktop"), ways["desktop"])


def test_an_edit_of_the_bar_is_seen_in_lanes_and_windows_kept_and_undone(station: Station, own_demo: Stack) -> None:
    page = station.page
    bar = page.get_by_role("region", name="The bar")
    grip = page.get_by_role("slider", name="Where the bar comes")
    own_left = int(grip.get_attribute("aria-valuenow") or 0)
    bar.get_by_label("Comes:").click()
    page.get_by_role("option", name="a distance").click()
    bar.get_by_label("While the own button is seen").click()
    page.get_by_role("option", name="stays once it has come").click()
    expect(grip).to_have_attribute("aria-valuenow", "200")
    assert own_left > 500
    expect(page.get_by_text("The bar repeats the page’s own button")).to_be_visible()
    grip.focus()
    page.keyboard.press("ArrowDown")
    expect(grip).to_have_attribute("aria-valuenow", "210")
    kept = bar_kept(page, own_demo, lambda bar: bar["comes"] == {"kind": "distance", "px": 210})
    assert kept["returns"] is False
    # In the window the bar stands from there on.
    phone = station.frame("phone")
    phone.evaluate("scrollTo({ top: 240, behavior: 'instant' })")
    phone.locator("[data-up-bar][data-in]").wait_for(state="attached")
    expect(page.get_by_text("The last edit stood in the lanes after")).to_be_visible()
    for _ in range(3):
        page.keyboard.press("Control+z")
    expect(grip).to_have_attribute("aria-valuenow", str(own_left))


def test_what_a_bar_holds_is_chosen_by_device_and_ordered(station: Station, own_demo: Stack) -> None:
    page = station.page
    bar = page.get_by_role("region", name="The bar")
    bar.get_by_role("button", name="price on a phone").click()
    expect(bar.get_by_role("button", name="price on a phone")).to_have_attribute("aria-pressed", "true")
    expect(bar.get_by_role("button", name="price on a tablet")).to_have_attribute("aria-pressed", "false")
    phone, desktop = station.frame("phone"), station.frame("desktop")
    expect(phone.locator("[data-up-bar] .price")).to_have_text("£64.50")
    shown = "e => getComputedStyle(e).display"
    assert phone.locator("[data-up-bar] .price").evaluate(shown) != "none"
    assert desktop.locator("[data-up-bar] .price").evaluate(shown) == "none"
    bar.get_by_role("button", name="Move price forward").click()
    expect(desktop.locator("[data-up-bar] .w > :nth-child(2)")).to_have_class("t price")
    bar_kept(page, own_demo, lambda bar: bar["parts"] == ["picture", "price", "name", "button"])
    bar.get_by_label("Edge:").click()
    page.get_by_role("option", name="upper edge").click()
    expect(page.get_by_text("saved")).to_be_visible()
    phone.evaluate("scrollTo({ top: 1e6, behavior: 'instant' })")
    phone.locator("[data-up-bar][data-in]").wait_for(state="attached")
    assert phone.locator("[data-up-bar] .r").evaluate("e => getComputedStyle(e).top") == "0px"
    assert barriers(page) == []


def test_a_list_has_cards_in_reach_and_no_bar(station: Station) -> None:
    station.opens("listing cards")
    # Where the floating button is met, that is what opens by itself.
    station.page.get_by_role("button", name="The bar", exact=True).click()
    expect(station.page.get_by_text("No bar stands on this page")).to_be_visible()
    expect(station.page.locator("svg .lane-name").filter(has_text="cards")).to_be_visible()
    station.page.get_by_role("button", name="of scrolling with a button in reach").click()
    expect(station.page.get_by_text("in reach is what is half seen")).to_be_visible()


def test_it_is_said_for_how_many_products_the_bar_stands_and_their_pages_are_stepped_through(station: Station) -> None:
    page = station.page
    where = page.locator("[data-where]")
    expect(where).to_contain_text(
        re.compile(r"it stands for \d+ of 60 products; “No bar when sold out” takes it from \d")
    )
    before = page.get_by_label("Page:").inner_text()
    where.get_by_role("button", name="The next page where it stands").click()
    expect(page.get_by_label("Page:")).not_to_have_text(before)
    expect(page.get_by_text("of scrolling with a button in reach")).to_be_visible()
    expect(page.get_by_role("region", name="The bar")).to_be_visible()
    page.keyboard.press("[")
    expect(page.get_by_label("Page:")).to_have_text(before)


def test_a_meeting_of_bar_and_notice_is_found_looked_at_and_fixed(demo_shop: Stack, tab: Tab) -> None:
    page = opens_store(demo_shop, tab, "loft")
    station = Station(page).opens()
    meets = page.get_by_role("listitem").filter(has_text="The bar and Cookies lie over each other")
    expect(meets).to_be_visible()
    assert page.locator("svg .meets").count() == 1
    meets.get_by_role("button", name="Must fix").click()
    phone = station.frame("phone")
    phone.locator("[data-up-bar][data-in]").wait_for(state="attached")
    meets.get_by_role("button", name="put the bar at the top").click()
    expect(meets).to_have_count(0)
    expect(page.locator("svg .meets")).to_have_count(0)
    # Under the shop's own header, which sticks there.
    phone.evaluate("scrollTo({ top: 0, behavior: 'instant' })")
    phone.locator("[data-up-bar]:not([data-in])").wait_for(state="attached")
    phone.evaluate("scrollTo({ top: 1e6, behavior: 'instant' })")
    phone.locator("[data-up-bar][data-in]").wait_for(state="attached")
    edges = """() => [document.querySelector('.head').getBoundingClientRect().bottom,
      document.querySelector('[data-up-bar]').shadowRoot.querySelector('.r').offsetTop]"""
    header, bar = phone.evaluate(edges)
    assert header > 40
    assert bar == pytest.approx(header, abs=1)
    page.keyboard.press("Control+z")
    expect(meets).to_be_visible()


def test_a_page_that_does_not_answer_is_told_with_what_to_do(demo_shop: Stack, tab: Tab) -> None:
    page = opens_store(demo_shop, tab, "gate")
    expect(page.get_by_text("The page does not answer.")).to_be_visible()
    expect(page.get_by_text("frame-ancestors")).to_be_visible()


def test_the_whole_shop_is_studied_stopped_and_its_worst_page_opened(demo_shop: Stack, tab: Tab) -> None:
    page = opens_store(demo_shop, tab, "loft")
    Station(page).opens()
    page.get_by_role("button", name="Study the whole shop").click()
    study = page.get_by_role("region", name="Study of the whole shop")
    study.get_by_role("button", name="Study").click()
    expect(study.get_by_text(re.compile(r"[1-4] of 6 pages looked at"))).to_be_visible()
    study.get_by_role("button", name="Stop").click()
    expect(study.get_by_role("button", name="Study it again")).to_be_visible()
    assert 1 <= study.get_by_role("row").count() - 1 < 6
    study.get_by_role("button", name="Study it again").click()
    expect(study.get_by_text("must be fixed")).to_be_visible()
    # The worst first, by what is wrong there.
    expect(study.get_by_role("row").nth(1)).to_contain_text("The bar and Cookies lie over each other")
    expect(study.get_by_role("row").last).to_contain_text("As it should be")
    assert barriers(page) == []
    study.get_by_role("row").nth(1).get_by_role("button", name="on a tablet").click()
    expect(page.get_by_text("seen on a tablet")).to_be_visible()
    expect(study).to_have_count(0)
    # It is kept with the draft's version, for everybody.
    page.reload()
    page.get_by_role("button", name="Study the whole shop").click()
    expect(study.get_by_text(f"Studied by {demo.NAME}")).to_be_visible()
    expect(study.get_by_role("row").nth(1)).to_contain_text("The bar and Cookies lie over each other")
    expect(study.get_by_text("The draft has changed since")).to_have_count(0)
    with demo_shop.wiring.open_shop("loft") as shop:
        now = shop.drafts.read()
        person = Person(1, demo.NAME, demo.EMAIL, ("loft",))
        edit.change_layer(shop, "place:sticky_bar", {"bar": {"slide_ms": 250}}, now.version, person, clock())
    page.reload()
    page.get_by_role("button", name="Study the whole shop").click()
    expect(study.get_by_text("The draft has changed since")).to_be_visible()
    with demo_shop.wiring.open_shop("loft") as shop:
        edit.undo(shop, person, clock())


def test_the_command_line_studies_the_same_without_a_screen(demo_shop: Stack) -> None:
    """Every page that the studio would look at, on three devices; it ends with 1 since something must be fixed."""
    # Another stack may have been started since in this process.
    told = {**os.environ, **demo_shop.parts.environment}

    def run(*arguments: str) -> subprocess.CompletedProcess[str]:
        command = [str(Path(sys.executable).with_name("uptick")), "study", "--store", *arguments]
        return subprocess.run(command, capture_output=True, text=True, timeout=300, check=False, env=told)

    ended = run("loft", "--json")
    assert ended.returncode == 1, ended.stderr
    lines = json.loads(ended.stdout)["lines"]
    with demo_shop.wiring.open_shop("loft") as shop:
        pages = pages_to_look_at(shop)
        kept = shop.side.study()
    assert {(line["path"], line["device"]) for line in lines} == {(p.path, d.value) for p in pages for d in Device}
    assert all(line["findings"] is not None for line in lines)
    assert "The bar and Cookies lie over each other" in lines[0]["findings"][0]["title"]
    assert kept
    assert kept.by == "command line"
    # A page that is closed says why it was not measured, and with its password it is.
    with demo_shop.wiring.open_shop("gate") as shop:
        path = pages_to_look_at(shop)[0].path
    shut = run("gate", "--page", path, "--json")
    assert shut.returncode == 1
    for line in json.loads(shut.stdout)["lines"]:
        assert line["findings"] is None
        assert line["why"].startswith("No place of ours was there within")
    assert len(json.loads(shut.stdout)["lines"]) == len(Device)
    with demo_shop.wiring.open_shop("gate") as shop:
        assert shop.side.study() is None
    nobody_asked = run("loft", "--password", "x")
    assert nobody_asked.returncode == 2
    assert "given only where" in nobody_asked.stderr
    elsewhere = run("loft", "--page", "/nowhere")
    assert elsewhere.returncode == 2
    assert pages[0].path in elsewhere.stderr
    opened = json.loads(run("gate", "--password", PASSWORD, "--page", path, "--json").stdout)
    assert all(line["findings"] is not None for line in opened["lines"])


def floating_at(stack: Stack, device: Device) -> tuple[float, float]:
    """Return the distances of Scullion's floating button on a device, as its draft has them."""
    with stack.wiring.open_shop("scullion") as shop:
        inset = Floating.model_validate(shop.drafts.read().settings.placements["floating"]["floating"]).inset(device)
    return inset.side_px, inset.edge_px


def test_a_floating_button_is_dragged_in_a_window_moved_by_keys_and_undone(demo_shop: Stack, tab: Tab) -> None:
    page = opens_store(demo_shop, tab, "scullion")
    Station(page).opens()
    page.get_by_role("button", name="The floating button", exact=True).click()
    grip = page.get_by_label("The floating button on a desktop")
    before = floating_at(demo_shop, Device.DESKTOP)
    box, scale = grip.bounding_box(), page.locator("iframe[title$='on a desktop']").evaluate(
        "f => f.getBoundingClientRect().width / 1280"
    )  # fmt: skip
    assert box
    page.mouse.move(box["x"] + 10, box["y"] + 10)
    page.mouse.down()
    page.mouse.move(box["x"] - 20, box["y"] - 10, steps=5)
    page.mouse.up()
    wanted = (before[0] + 30 / scale, before[1] + 20 / scale)
    expect(grip).to_have_accessible_name(re.compile(rf"{round(wanted[0])} px from the side"))
    expect(page.get_by_role("button", name="undo")).to_be_enabled()
    assert floating_at(demo_shop, Device.DESKTOP) == pytest.approx(wanted, abs=1)
    # It lies there in the page itself.
    frame = Station(page).frame("desktop")
    right = "document.documentElement.clientWidth - document.querySelector('[data-up-floating]').shadowRoot"
    frame.wait_for_function(
        f"wanted => Math.abs({right}.querySelector('.r').getBoundingClientRect().right - wanted) < 1.5",
        arg=round(wanted[0]),
    )
    grip.focus()
    page.keyboard.press("ArrowRight")
    expect(grip).to_have_accessible_name(re.compile(rf"{round(wanted[0]) - 1} px from the side"))
    for _ in range(2):
        page.get_by_role("button", name="undo").press("Enter")
        page.wait_for_timeout(400)
    expect(grip).to_have_accessible_name(re.compile(f"{before[0]:g} px from the side, {before[1]:g} px from the edge"))
    assert barriers(page) == []


def test_a_finding_leads_to_its_stretch_and_to_the_window_while_it_is_looked_at(demo_shop: Stack, tab: Tab) -> None:
    page = opens_store(demo_shop, tab, "loft")
    Station(page).opens()
    meets = page.get_by_role("region", name="Findings along the page").locator("[data-rule=meets]")
    ways = page.locator(".place > svg path")
    meets.get_by_role("button").first.focus()
    expect(ways).to_have_count(2)
    ends = ways.evaluate_all("all => all.map(way => { const p = way.getPointAtLength(1e6); return [p.x, p.y] })")
    stretch = page.locator("rect.pointed").bounding_box()
    seen = page.locator(".window.chosen").bounding_box()
    assert stretch
    assert seen
    assert ends[0] == pytest.approx([stretch["x"] + stretch["width"], stretch["y"] + stretch["height"] / 2], abs=1)
    assert ends[1] == pytest.approx([seen["x"] + seen["width"] / 2, seen["y"] + seen["height"]], abs=1)
    page.get_by_role("button", name="undo").evaluate("b => b.blur()")
    meets.get_by_role("button").first.blur()
    expect(ways).to_have_count(0)
