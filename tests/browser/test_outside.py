"""Buttons outside, in a browser: pictures against the true button, code on strangers' pages, the studio's screen."""

import io
import random
from collections.abc import Iterator

import numpy as np
import pytest
from PIL import Image
from playwright.sync_api import Browser, Page, expect

from tests.browser.conftest import Stack, Tab, barriers, load_faces, open_tab, sign_in
from tests.random_buttons import random_button
from tests.samples import document, kit
from uptick.core.button.lengths import Ground
from uptick.core.button.merge import Json
from uptick.core.drawing.boxes import lay_out
from uptick.core.drawing.compile import BASE_CSS, compile_button
from uptick.core.outside.handed import Order, OutsideKind
from uptick.core.outside.picture import alone, draw_picture
from uptick.usecases.outside import make_outside
from uptick.usecases.ports import Person
from uptick.wiring import clock

pytestmark = pytest.mark.browser
ADA = Person(1, "Ada", "ada@example.test", ("thornmere",))
GROUND = Ground(320, 600)


@pytest.fixture(scope="module")
def blank(browser: Browser) -> Iterator[Page]:
    """An empty page with the shops' faces."""
    tab = open_tab(browser)
    tab.page.set_viewport_size({"width": 1000, "height": 800})
    tab.page.set_content("<!doctype html><body style='margin:0;background:#fff'>")
    load_faces(tab.page)
    yield tab.page
    tab.context.close()


# The button as the script stands it, in its room, with as much white around as its shadows take.
STAND = """({ css, icon, side, text, rtl, pad }) => {
  document.body.replaceChildren();
  const frame = document.createElement('div');
  frame.style.cssText = `width:320px;position:absolute;left:${pad}px;top:${pad}px`;
  const host = document.createElement('div');
  frame.append(host); document.body.append(frame);
  const root = host.attachShadow({ mode: 'open' });
  const sheet = new CSSStyleSheet(); sheet.replaceSync(css); root.adoptedStyleSheets = [sheet];
  const button = document.createElement('button'); button.className = 'b';
  const words = document.createElement('span'); words.className = 'w'; words.textContent = text;
  button.append(words); root.append(button);
  if (icon) {
    const svg = document.createElementNS('http://www.w3.org/2000/svg', 'svg');
    svg.setAttribute('viewBox', icon.box);
    for (const path of icon.paths) {
      const one = document.createElementNS('http://www.w3.org/2000/svg', 'path');
      for (const [name, value] of Object.entries(path)) one.setAttribute(name, value);
      svg.append(one);
    }
    side === 'before' ? button.prepend(svg) : button.append(svg);
  }
  host.dir = rtl ? 'rtl' : 'ltr';
  const { x, y, width, height } = button.getBoundingClientRect();
  return { x, y, width, height };
}"""
PAD = 300
STOPS = [{"colour": "#7a3e00"}, {"colour": "#e0a020"}, {"colour": "#2f5d3a"}]
FILLS: list[Json] = [
    {"kind": "linear", "angle_deg": 125, "stops": STOPS},
    {"kind": "linear", "toward": "top right", "space": "srgb", "stops": STOPS},
    {"kind": "linear", "angle_deg": 30, "repeats": True,
     "stops": [{"at": 0, "colour": "#7a3e00"}, {"at": 20, "colour": "#e0a020"}]},
    {"kind": "linear", "stops": [{"at": "10px", "colour": "#7a3e00"}, {"at": "90px", "colour": "#ffffff00"}]},
    {"kind": "radial", "x": 20, "y": 80, "stops": STOPS},
    {"kind": "radial", "shape": "circle", "extent": "closest-side", "stops": STOPS},
    {"kind": "radial", "extent": "farthest-side", "x": 10, "stops": STOPS},
    {"kind": "layers", "ground": "#123456",
     "list": [{"kind": "linear", "stops": [{"colour": "#ffffff80"}, {"colour": "#ffffff00"}]},
              {"kind": "radial", "stops": [{"colour": "#e0a020"}, {"colour": "#e0a02000"}]}]},
]  # fmt: skip
SHADOWS: list[Json] = [
    {"kind": "cast", "list": [{"inner": True, "y_px": 3, "blur_px": 8, "colour": "#ffffff", "opacity": 0.7}]},
    {"kind": "cast", "list": [{"inner": True, "spread_px": 4, "blur_px": 0, "colour": "#e0a020", "opacity": 1}]},
]
STYLES = ("solid", "double", "dashed", "dotted")
BORDERS: list[Json] = [{"kind": "line", "width_px": 6, "colour": "#e0a020", "style": style} for style in STYLES]
DRESSED: list[Json] = [
    *({"look": {"fill": fill, "radius": 14}} for fill in FILLS),
    *({"look": {"shadows": cast, "radius": 14}} for cast in SHADOWS),
    *({"look": {"border": line, "radius": 10}} for line in BORDERS),
    {"look": {"radius": {"kind": "corners", "top_left": 20, "top_right": 0, "bottom_right": "50%", "bottom_left": 4}}},
]


def seen(png: bytes) -> np.ndarray:
    return np.asarray(Image.open(io.BytesIO(png)).convert("RGB"), dtype=float)


@pytest.mark.parametrize(("text", "rtl"), [("Take it home, £1,299.00", False), ("أضف إلى السلة 12", True)])
def test_pictures_look_as_the_browser_draws_the_button(blank: Page, text: str, rtl: bool) -> None:
    """Reference: Chromium's own drawing of the same button; the mean difference of all dots is below 4.5 %,

    which thin lines and the hinting of letters take.
    """
    rng = random.Random(41)
    worst = 0.0
    for patch in [*DRESSED, *(random_button(rng) for _ in range(40))]:
        made = alone(document(patch))
        compiled = compile_button(made, kit(), GROUND)
        icon = compiled["icon"]
        box = blank.evaluate(
            STAND,
            {"css": BASE_CSS + compiled["css"], "icon": icon, "side": icon["side"] if icon else "", "text": text,
             "rtl": rtl, "pad": PAD},
        )  # fmt: skip
        picture = draw_picture(made, text, kit(), GROUND, rtl=rtl)
        true = seen(blank.screenshot(clip={"x": 0, "y": 0, "width": 1000, "height": 800}))
        ours = Image.new("RGBA", (1000, 800), "white")
        shown = Image.open(io.BytesIO(picture.png(1)))
        left = float(picture.svg.split('viewBox="')[1].split()[0])
        top = float(picture.svg.split('viewBox="')[1].split()[1])
        ours.alpha_composite(shown.convert("RGBA"), (max(0, round(box["x"] + left)), max(0, round(box["y"] + top))))
        drawn = np.asarray(ours.convert("RGB"), dtype=float)
        # Only where the button is: what stands around it would make any mistake small.
        x, y = int(box["x"]), int(box["y"])
        part = np.s_[y : min(800, y + int(box["height"])), x : min(1000, x + int(box["width"]))]
        difference = float(np.abs(true[part] - drawn[part]).mean() / 255)
        worst = max(worst, difference)
        # Where the dashes of a line begin is every browser's own.
        is_broken = getattr(made.look.border, "style", "") in {"dashed", "dotted"}
        # An ellipsis joins the Arabic letter before it to nothing; browsers leave it as it was.
        is_cut = bool(lay_out(made, text, kit(), GROUND, rtl=rtl).left_out)
        assert difference < (0.08 if is_broken or is_cut else 0.045), (difference, made.look)
    assert worst > 0


def test_a_mail_on_a_strangers_page_leads_to_the_shop_and_is_counted(demo_shop: Stack, tab: Tab) -> None:
    with demo_shop.wiring.open_shop("thornmere") as shop:
        order = Order(products=("TL-SMOKER", "HV-NUC6"), kind=OutsideKind.MAIL, across=2, campaign="story")
        made = make_outside(shop, order, demo_shop.at.edge, ADA, clock(), copied=True)
    page = tab.page
    page.set_content(f"<!doctype html><html lang=en><title>mail</title><main><h1>Letter</h1>{made.code}</main>")
    assert barriers(page) == []
    with page.context.expect_page() as opened:
        page.get_by_role("link", name=made.buttons[0].words).first.click()
    expect(opened.value.get_by_role("heading", level=1)).to_contain_text("Copper smoker")
    assert opened.value.evaluate("window.opener") is None
    with demo_shop.wiring.open_shop("thornmere") as shop:
        pressed = {button.of.id: button.presses for button in shop.outside.all() if button.of.campaign == "story"}
    assert pressed == {made.buttons[0].id: 1, made.buttons[1].id: 0}


def test_a_form_on_a_strangers_page_fills_the_shops_basket_with_the_choice(demo_shop: Stack, tab: Tab) -> None:
    with demo_shop.wiring.open_shop("thornmere") as shop:
        order = Order(products=("HV-CEDAR",), kind=OutsideKind.FORM, campaign="story")
        made = make_outside(shop, order, demo_shop.at.edge, ADA, clock(), copied=True)
    page = tab.page
    page.set_content(f"<!doctype html><html lang=en><title>partner</title><main><h1>Hives</h1>{made.code}</main>")
    assert barriers(page) == []
    # Nothing is sent while the choice is open.
    page.get_by_role("button").click()
    assert page.url == "about:blank"
    page.get_by_label("Frame standard").select_option("Langstroth")
    page.get_by_role("button").click()
    page.wait_for_url(f"{demo_shop.at.practice}/**")
    told = page.evaluate("fetch('/basket.json').then(answer => answer.json())")
    assert [(line["sku"], line["option"], line["quantity"]) for line in told["items"]] == [
        ("HV-CEDAR", "Langstroth", 1)
    ]


def test_code_is_made_seen_copied_and_listed_in_the_studio(demo_shop: Stack, tab: Tab) -> None:
    sign_in(tab, demo_shop)
    page = tab.page
    page.context.grant_permissions(["clipboard-read", "clipboard-write"], origin=demo_shop.at.studio)
    page.goto(f"{demo_shop.at.studio}/release/outside?product=TL-SMOKER")
    code = page.get_by_label("The code", exact=True)
    expect(code).to_be_visible()
    assert "/s/thornmere/go/" in code.input_value()
    shown = page.frame_locator("iframe[title='On a dark page']")
    expect(shown.get_by_role("link")).to_contain_text("Take it home")
    assert barriers(page) == []
    page.get_by_label("Kind:").click()
    page.get_by_role("option", name="a picture with a link").click()
    expect(page.get_by_role("link", name="PNG 3×")).to_be_visible()
    page.get_by_label("Campaign").fill("By hand")
    page.get_by_label("Campaign").press("Enter")
    page.get_by_role("button", name="Copy the code").click()
    handed = page.get_by_role("complementary", name="What was handed out")
    expect(handed.get_by_role("row", name="picture By hand 0")).to_be_visible()
    assert page.evaluate("navigator.clipboard.readText()") == code.input_value()
    # A basket that takes no link is told where it is met, with the way out.
    page.get_by_label("Leads to:").click()
    page.get_by_role("option", name="the basket at once").click()
    expect(page.get_by_role("alert")).to_contain_text("the shop's basket takes none")
    page.get_by_role("button", name="Lead to its page").click()
    expect(code).to_be_visible()
    # What was handed out before the corners changed is told where a release is made.
    page.goto(f"{demo_shop.at.studio}/release")
    expect(page.get_by_role("region", name="What changes")).to_contain_text(
        "otherwise than the draft: Six-frame nucleus box"
    )
    tab.told.clear()
