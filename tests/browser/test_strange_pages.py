"""The script on pages of shops that are not ours: their forms, their answers, their scripts that change them."""

import json

import pytest
from playwright.sync_api import Route, expect

from tests.browser.strange import Strange, form, goods, place, told

pytestmark = pytest.mark.browser


def test_a_page_for_an_answer_adds_once_and_the_basket_says_what_came_of_it(strange: Strange) -> None:
    def as_page(route: Route) -> None:
        strange.put("X1")
        route.fulfill(body="<!doctype html><h1>Thank you</h1>", content_type="text/html")

    ours = strange.opens(form(place("X1")), told(goods("X1")))
    strange.answer = as_page
    ours.click()
    expect(ours).to_have_attribute("data-moment", "added")
    strange.page.wait_for_timeout(300)
    assert [post["sku"] for post in strange.posts] == [["X1"]]
    assert "/strange" in strange.page.url


def test_a_double_click_is_one_press_and_a_second_one_adds_again(strange: Strange) -> None:
    ours = strange.opens(form(place("X1")), told(goods("X1")))
    # The first is answered before the second comes, so that only the time between them makes them one.
    ours.evaluate("async b => { b.click(); await new Promise(go => setTimeout(go, 300)); b.click() }")
    expect(ours).to_have_attribute("data-moment", "added")
    strange.page.wait_for_timeout(200)
    assert len(strange.posts) == 1
    strange.page.wait_for_timeout(600)
    ours.click()
    expect(ours).to_have_attribute("data-moment", "added")
    strange.page.wait_for_timeout(100)
    assert len(strange.posts) == 2


def test_a_press_of_which_nobody_knows_is_not_tried_again_and_says_so(strange: Strange) -> None:
    ours = strange.opens(form(place("X1")), told(goods("X1")))
    expect(ours).to_be_visible()
    strange.basket = {}
    strange.answer = lambda route: route.abort()
    ours.click()
    note = strange.page.locator("[data-up-note=unknown]")
    expect(note).to_contain_text("We cannot tell whether it was added.")
    expect(note.get_by_role("link", name="Look in your basket")).to_have_attribute("href", "/basket")
    expect(strange.page.get_by_role("button", name="Add")).to_be_focused()
    strange.page.wait_for_timeout(300)
    assert len(strange.posts) == 1


def test_all_of_the_shops_own_form_is_sent(strange: Strange) -> None:
    inner = (
        "<input type=hidden name=token value=t0ken><select name=wax required><option value=''>?</option>"
        "<option>dipped</option></select><textarea name=engraving></textarea>"
    )
    ours = strange.opens(form(inner + place("X1")), told(goods("X1")))
    ours.click()
    # The browser itself says what the form lacks; nothing has been sent.
    assert strange.page.evaluate("document.activeElement.name") == "wax"
    assert strange.posts == []
    strange.page.locator("[name=wax]").select_option("dipped")
    strange.page.locator("[name=engraving]").fill("For Ada")
    strange.page.wait_for_timeout(500)
    ours.click()
    expect(ours).to_have_attribute("data-moment", "added")
    assert strange.posts == [
        {"sku": ["X1"], "qty": ["1"], "token": ["t0ken"], "wax": ["dipped"], "engraving": ["For Ada"]}
    ]


def test_a_refusal_gives_the_shops_own_way_back_as_it_was(strange: Strange) -> None:
    inner = '<div class=wrap style="display: flex; color: red"><button>Add</button></div>'
    ours = strange.opens(form(place("X1", inner)), told(goods("X1")))
    strange.page.evaluate("document.querySelector('.wrap').addEventListener('click', () => window.pressed = true)")
    strange.answer = lambda route: route.fulfill(status=403, body="token missing")
    ours.click()
    expect(strange.page.get_by_role("button", name="Add")).to_be_focused()
    assert strange.page.locator(".wrap").get_attribute("style") == "display: flex; color: red"
    assert strange.page.evaluate("window.pressed") is None
    assert len(strange.posts) == 1
    assert strange.reads == 1


def test_a_place_that_gets_another_product_adds_that_one_and_says_its_price(strange: Strange) -> None:
    products = told(goods("X1", "11.00"), goods("X2", "22.00"))
    ours = strange.opens(place("X1"), products)
    expect(ours).to_contain_text("£11.00")
    strange.page.evaluate("document.querySelector('[data-up-place]').dataset.upProduct = 'X2'")
    expect(ours).to_contain_text("£22.00")
    ours.click()
    expect(ours).to_have_attribute("data-moment", "added")
    assert strange.posts[0]["sku"] == ["X2"]


def test_a_variant_in_the_form_is_what_is_added(strange: Strange) -> None:
    ours = strange.opens(
        form(place("X1") + "<button type=button id=swatch>L</button>"), told(goods("X1"), goods("X1-L", "19.00"))
    )
    expect(ours).to_contain_text("£12.50")
    # The shop's own script writes a property: no attribute changes and no event tells of it.
    strange.page.evaluate("document.forms[0].sku.value = 'X1-L'")
    ours.click()
    expect(ours).to_have_attribute("data-moment", "added")
    assert strange.posts[0]["sku"] == ["X1-L"]
    expect(strange.page.get_by_role("button", name="Thing X1-L")).to_be_visible()


def test_another_price_in_the_pages_data_is_said(strange: Strange) -> None:
    ours = strange.opens(place("X1"), told(goods("X1", "11.00")))
    expect(ours).to_contain_text("£11.00")
    after = json.dumps(goods("X1", "9.00"))
    strange.page.evaluate(f"document.querySelector('[type$=ld\\\\+json]').textContent = {after!r}")
    expect(ours).to_contain_text("£9.00")


def test_a_place_that_is_taken_away_or_drawn_anew_leaves_nothing_behind(strange: Strange) -> None:
    page = strange.page
    tall = "<div style='height:3000px'></div>"
    ours = strange.opens(f"<main>{place('X1')}{tall}</main>", told(goods("X1"), goods("X2")))
    expect(ours.first).to_be_visible()
    # The page's framework draws the inside of the place anew: ours comes back, and once.
    page.evaluate("document.querySelector('[data-up-place]').innerHTML = '<button>Add</button>'")
    expect(page.locator("main [data-up-button]")).to_have_count(1)
    expect(page.get_by_role("button", name="Add", exact=True)).to_be_hidden()
    page.mouse.wheel(0, 1200)
    expect(page.locator("[data-up-bar][data-in] [data-up-button]")).to_have_count(1)
    page.evaluate("document.querySelector('main').innerHTML = ''")
    expect(page.locator("main [data-up-button], [data-up-bar] [data-up-button]")).to_have_count(0)
    assert page.evaluate("document.documentElement.style.scrollPaddingBottom") == ""
    # A client-side route brings another product.
    page.evaluate(f"document.querySelector('main').innerHTML = {place('X2') + tall!r}; scrollTo(0, 0)")
    expect(page.locator("main [data-up-button]")).to_have_count(1)
    page.mouse.wheel(0, 1200)
    bar = page.locator("[data-up-bar][data-in] [data-up-button] button.b")
    expect(bar).to_be_visible()
    bar.click()
    expect(bar).to_have_attribute("data-moment", "added")
    assert [post["sku"] for post in strange.posts] == [["X2"]]


@pytest.mark.parametrize("price", ["1,299.00", "about ten", ""])
def test_a_price_that_cannot_be_read_is_not_said(strange: Strange, price: str) -> None:
    ours = strange.opens(place("X1"), told(goods("X1", price)))
    expect(ours).to_be_visible()
    words = ours.locator(".w").inner_text()
    assert "£" not in words
    assert words
    assert words.strip(" ,·") == words


def test_radio_choices_are_chosen_when_one_is(strange: Strange) -> None:
    inner = (
        "<label><input type=radio name=option value=S>S</label><label><input type=radio name=option value=L>L</label>"
    )
    ours = strange.opens(form(inner + place("X1", more="data-up-choice=yes")), told(goods("X1")))
    expect(ours).to_have_attribute("data-moment", "choose_first")
    expect(ours).to_have_attribute("aria-disabled", "true")
    ours.click(force=True)
    assert strange.page.evaluate("document.activeElement.name") == "option"
    assert strange.posts == []
    strange.page.get_by_label("L").check()
    expect(ours).to_have_attribute("data-moment", "ready")
    strange.page.wait_for_timeout(500)
    ours.click()
    expect(ours).to_have_attribute("data-moment", "added")
    assert strange.posts[0]["option"] == ["L"]


def test_the_end_of_one_press_does_not_end_the_next(strange: Strange) -> None:
    ours = strange.opens(form(place("X1")), told(goods("X1")))
    ours.click()
    expect(ours).to_have_attribute("data-moment", "added")
    held: list[Route] = []
    strange.answer = held.append
    strange.page.wait_for_timeout(700)
    ours.click()
    expect(ours).to_have_attribute("data-moment", "working")
    # The first press's word is over 1.6 s after it; the second is still on its way.
    strange.page.wait_for_timeout(1600)
    expect(ours).to_have_attribute("data-moment", "working")
    expect(ours).to_have_attribute("aria-disabled", "true")
    held[0].fulfill(json={"count": 2, "items": [{"sku": "X1", "option": "", "quantity": 2}]})
    expect(ours).to_have_attribute("data-moment", "added")


def test_to_the_basket_opens_the_page_of_the_basket(strange: Strange) -> None:
    strange.page.route(
        "**/up.js",
        lambda route: route.fulfill(
            body=route.fetch().text().replace('"after":"stay"', '"after":"basket"'), content_type="text/javascript"
        ),
    )
    ours = strange.opens(form(place("X1")), told(goods("X1")))
    ours.click()
    strange.page.wait_for_url("**/basket")
    assert strange.page.locator("h1").count() == 1


def test_a_form_around_several_products_adds_the_one_that_is_pressed(strange: Strange) -> None:
    cards = "".join(f'<input type=hidden name=sku value="{sku}">{place(sku)}' for sku in ("X1", "X2", "X3"))
    ours = strange.opens(
        form(cards, "X0").replace(' name=sku value="X0"', ""), told(goods("X1"), goods("X2"), goods("X3"))
    )
    expect(ours).to_have_count(3)
    ours.nth(1).click()
    expect(ours.nth(1)).to_have_attribute("data-moment", "added")
    assert [post["sku"] for post in strange.posts] == [["X2"]]


def test_a_number_of_the_shops_own_stays_with_its_product(strange: Strange) -> None:
    inner = place("X1").replace("<button>", '<button id="sku">')
    ours = strange.opens(form(inner, "4711"), told(goods("X1"), goods("X2")))
    expect(ours).to_be_visible()
    # The page shows another product over the number of the one before: nobody can tell what a press would add.
    strange.page.evaluate("document.querySelector('[data-up-place]').dataset.upProduct = 'X2'")
    expect(strange.page.get_by_role("button", name="Add", exact=True)).to_be_visible()
    expect(strange.page.locator("body [data-up-place]")).to_have_attribute("data-up-kept", "product")
    strange.page.evaluate("document.querySelector('[name=sku]').setAttribute('value', '4712')")
    expect(ours).to_be_visible()
    ours.click()
    expect(ours).to_have_attribute("data-moment", "added")
    assert [post["sku"] for post in strange.posts] == [["4712"]]
