"""Message buttons on the practice store's own pages: a press opens the chat, filled in, and the shop sees it arrive."""

import re

import httpx2
import pytest
from playwright.sync_api import Locator, Page, expect

from ops import demo
from tests.browser.conftest import Stack, Tab, barriers, sign_in
from tests.usecases.fakes import ADA
from uptick.core.rules.reach import Reach
from uptick.usecases.edit import Wish, add_exception
from uptick.usecases.importing import import_catalogue
from uptick.usecases.publish import publish
from uptick.wiring import clock

pytestmark = pytest.mark.browser
TEXT = "I ask about {name} ({code}), {choice}\nfor {price}: {page}"


@pytest.fixture(scope="module")
def asking(empty_shop: Stack) -> Stack:
    """A shop whose buttons ask: about one plain product, one that needs a choice, and one that is sold out."""
    stack = empty_shop
    pattern = f"{stack.at.practice}/chat/{{number}}?text={{message}}"
    message = {
        "kind": "message", "way": "chat", "to": "+44 20 7946 0018", "pattern": pattern, "text": {"en-GB": TEXT},
    }  # fmt: skip
    # Whatever else the shop's buttons say, one that asks has these words.
    words = {"ready": {"en-GB": "Ask about it"}}
    goods = httpx2.get(f"{stack.at.practice}/catalogue.csv").content
    with stack.wiring.open_shop(demo.KEY) as shop:
        import_catalogue(shop, goods, ADA, clock())
        wish = Wish("Ask", "They want advice.", Reach(products=("TL-SMOKER", "HV-CEDAR", "HV-POLY")))
        version = shop.drafts.read().version
        add_exception(shop, wish, {"afterwards": message, "wording": words}, version, ADA, clock())
        quiet = Wish("Quiet", "A list of many small things.", Reach(products=("TL-HOOK",)))
        add_exception(shop, quiet, {"afterwards": {"kind": "count"}}, version + 1, ADA, clock())
        back = {"afterwards": {"kind": "notify", "path": "/restock"}, "wording": {"sold_out": {"en-GB": "Tell me"}}}
        wish = Wish("Back", "They ask by telephone.", Reach(products=("JV-GLOVES", "HV-ROOF")))
        add_exception(shop, wish, back, version + 2, ADA, clock())
        publish(shop, "Ask", ADA, clock(), ("findings",))
    return stack


def ours(page: Page) -> Locator:
    return page.locator("[data-up-place=product_page] [data-up-button] button.b")


def arrives(page: Page) -> str:
    """Press the button and return what the chat shows."""
    with page.context.expect_page() as opened:
        ours(page).click()
    chat = opened.value
    expect(chat.get_by_role("heading", level=1)).to_have_text("A chat with 442079460018")
    assert chat.evaluate("window.opener") is None
    told = chat.locator("pre.message").inner_text()
    chat.close()
    return told


def test_a_press_opens_the_chat_filled_in_and_nothing_goes_to_the_basket(asking: Stack, tab: Tab) -> None:
    page, at = tab.page, asking.at
    page.goto(f"{at.practice}/p/TL-SMOKER")
    expect(ours(page)).to_have_accessible_name(re.compile("^Ask about it ?, Copper smoker, opens in a new tab$"))
    assert barriers(page) == []
    told = arrives(page)
    # The choice that nobody has to make leaves no gap.
    assert told == f"I ask about Copper smoker (TL-SMOKER)\nfor £42.00: {at.practice}/p/TL-SMOKER"
    basket = page.evaluate("fetch('/basket.json').then(answer => answer.json())")
    assert basket["count"] == 0
    # What is in the basket is no affair of a button that asks.
    page.request.post(f"{at.practice}/basket/add", form={"sku": "TL-SMOKER", "qty": "1"})
    page.reload()
    expect(ours(page)).to_have_attribute("data-moment", "ready")
    expect(ours(page)).to_contain_text("Ask about it")
    page.request.post(f"{at.practice}/basket/empty")
    page.goto(f"{at.practice}/messages")
    expect(page.get_by_role("article")).to_contain_text("To 442079460018")
    expect(page.get_by_role("article")).to_contain_text("Copper smoker")


def test_the_choice_is_told_and_a_second_press_at_once_is_none(asking: Stack, tab: Tab) -> None:
    page = tab.page
    page.goto(f"{asking.at.practice}/p/HV-CEDAR")
    expect(ours(page)).not_to_have_attribute("aria-disabled", "true")
    page.locator("select[name=option]").select_option("Langstroth")
    assert "(HV-CEDAR), Langstroth" in arrives(page)
    opened: list[Page] = []
    page.context.on("page", lambda chat: opened.append(chat))
    page.wait_for_timeout(600)
    ours(page).dblclick()
    page.wait_for_timeout(800)
    assert len(opened) == 1


def test_what_is_sold_out_can_be_asked_for_by_keyboard(asking: Stack, tab: Tab) -> None:
    page = tab.page
    page.goto(f"{asking.at.practice}/p/HV-POLY")
    expect(ours(page)).to_have_attribute("data-moment", "ready")
    expect(ours(page)).to_contain_text("Ask about it")
    expect(ours(page)).not_to_have_attribute("aria-disabled", "true")
    ours(page).focus()
    with page.context.expect_page() as opened:
        page.keyboard.press("Enter")
    expect(opened.value.locator("pre.message")).to_contain_text("(HV-POLY")


def test_only_the_count_rises_where_that_is_meant_and_it_is_read_out(asking: Stack, tab: Tab) -> None:
    page = tab.page
    page.goto(f"{asking.at.practice}/p/TL-HOOK")
    expect(ours(page)).to_have_attribute("data-moment", "ready")
    page.evaluate(
        """() => {
            const host = document.querySelector('[data-up-place=product_page] [data-up-button]');
            const button = host.shadowRoot.querySelector('.b');
            window.moments = [];
            new MutationObserver(() => window.moments.push(button.dataset.moment))
                .observe(button, { attributes: true, attributeFilter: ['data-moment'] });
        }"""
    )
    ours(page).click()
    expect(ours(page)).to_have_attribute("data-moment", "in_basket")
    expect(page.get_by_role("status")).to_contain_text("Hooked hive tool")
    assert set(page.evaluate("window.moments")) <= {"working", "in_basket"}
    assert page.url.endswith("/p/TL-HOOK")


def test_who_wants_to_be_told_when_it_is_back_tells_the_shop_alone(asking: Stack, tab: Tab) -> None:
    """Reference: WAI-ARIA Authoring Practices, dialog (modal): focus in and back, Escape, the page behind inert."""
    page = tab.page
    asked: list[str] = []
    page.on("request", lambda request: asked.append(request.url) if "ada%40" in (request.post_data or "") else None)
    page.goto(f"{asking.at.practice}/p/JV-GLOVES")
    expect(ours(page)).to_have_text(re.compile("Tell me"))
    expect(ours(page)).not_to_have_attribute("aria-disabled", "true")
    ours(page).focus()
    page.keyboard.press("Enter")
    dialog = page.get_by_role("dialog", name="Tell me when it is back: Goatskin gauntlets")
    mail = dialog.get_by_label("Your mail address")
    expect(mail).to_be_focused()
    assert barriers(page) == []
    page.keyboard.press("Escape")
    expect(dialog).to_have_count(0)
    expect(ours(page)).to_be_focused()
    page.keyboard.press("Enter")
    # What is no address is not sent, and the browser says so.
    mail.fill("ada")
    page.keyboard.press("Enter")
    assert mail.evaluate("input => !input.validity.valid")
    mail.fill("ada@thornmere.example")
    page.keyboard.press("Enter")
    expect(dialog.get_by_role("status")).to_have_text("Thank you. You will be told.")
    expect(dialog.get_by_role("button", name="Close")).to_be_focused()
    page.keyboard.press("Enter")
    expect(dialog).to_have_count(0)
    expect(ours(page)).to_be_focused()
    assert asked == [f"{asking.at.practice}/restock"]
    page.goto(f"{asking.at.practice}/messages")
    expect(page.get_by_role("article").first).to_contain_text("Tell me when JV-GLOVES is back")


def test_a_shop_that_does_not_take_the_address_is_told_and_asked_again(asking: Stack, tab: Tab) -> None:
    page = tab.page
    page.route("**/restock", lambda route: route.fulfill(status=500, body="no"))
    page.goto(f"{asking.at.practice}/p/JV-GLOVES")
    ours(page).click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_label("Your mail address").fill("ada@thornmere.example")
    dialog.get_by_role("button", name="Send").click()
    expect(dialog.get_by_role("status")).to_have_text("It was not sent. Please try later.")
    expect(dialog.get_by_label("Your mail address")).to_have_value("ada@thornmere.example")
    expect(dialog.get_by_role("button", name="Send")).to_be_enabled()
    tab.told.clear()


def test_what_can_be_bought_is_bought_though_it_could_be_told_of(asking: Stack, tab: Tab) -> None:
    page = tab.page
    page.goto(f"{asking.at.practice}/p/HV-ROOF")
    ours(page).click()
    expect(ours(page)).to_have_attribute("data-moment", "in_basket")
    assert page.url.endswith("/p/HV-ROOF")


def test_a_message_is_made_in_draw_and_a_bad_number_is_told(asking: Stack, tab: Tab) -> None:
    sign_in(tab, asking)
    page = tab.page
    page.goto(f"{asking.at.studio}/draw/product_page?product=HV-NUC6")
    page.get_by_label("Afterwards:").click()
    page.get_by_role("option", name="opens a message").click()
    expect(page.get_by_text("Say to whom, and it is kept.")).to_be_visible()
    page.get_by_label("Message by:").click()
    page.get_by_role("option", name="a chat").click()
    pattern = page.get_by_label("Chat’s pattern")
    pattern.fill("https://chat.example/{number}")
    pattern.press("Tab")
    number = page.get_by_label("Telephone number")
    number.fill("+44 20 7946 0018")
    number.press("Tab")
    expect(page.get_by_role("alert")).to_contain_text("must have {message} where the text belongs")
    pattern.fill("https://chat.example/{number}{?message}")
    pattern.press("Tab")
    text = page.get_by_label("Message’s text", exact=True)
    text.fill("About {name}, {price}")
    text.press("Tab")
    opens = "https://chat.example/442079460018?message=About%20Six-frame%20nucleus%20box%2C%20%C2%A364.50"
    expect(page.get_by_text(opens)).to_be_visible()
    number.fill("020 7946 0018")
    number.press("Tab")
    expect(page.get_by_role("alert")).to_contain_text("must be a telephone number with its country")
    page.get_by_role("button", name="Dismiss").click()
    assert barriers(page) == []
    expect(page.get_by_text(opens)).to_be_visible()
    tab.told.clear()
