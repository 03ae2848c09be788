"""Code for pages and mails: read by a general-purpose parser, safe whatever a catalogue says, whole without images."""

import random
from dataclasses import replace
from typing import Any

import html5lib
import pytest
from bs4 import BeautifulSoup

from tests.random_buttons import random_button
from tests.samples import document, kit, product, store
from uptick.core.button.lengths import Ground
from uptick.core.outside.gone import gone_page
from uptick.core.outside.html import (
    Page,
    Piece,
    alone_on_page,
    form_button,
    left_out_of_mail,
    mail_button,
    mail_sheet,
    picture_button,
    web_button,
    web_sheet,
)
from uptick.core.outside.picture import draw_picture
from uptick.core.outside.variants import contrast_on, drawn_as
from uptick.core.shop.connection import BasketLink, FormPost
from uptick.core.words.gone_words import GONE_WORDS
from uptick.core.words.outcome_words import OUTCOME_WORDS

PAGE = Page(kit(), "https://edge.example", "en-GB", False)
FORM = FormPost(add_path="/add", product_field="sku", option_fields=("option[0]",), quantity_field="qty")
LINK = BasketLink(add_path="/add?p={product}&o={option}")
ODD = "Bee “A” <b>&amp; Söhne</b>\"'><script>alert(1)</script>"
BOX = {"kind": "box", "least": 2, "most": 12, "step": 2, "start": 4}


def piece(patch: Any = None, **more: Any) -> Piece:
    made = document(patch)
    of = more.pop("of", product("A1", name=ODD, option_name="size", option_values=("S", 'L"><i>')))
    usual: dict[str, Any] = {
        "product": of, "document": made, "text": "Buy", "spoken": "Buy", "link": "https://edge.example/s/x/go/abc?a=1&b",
        "price": "£12.50", "product_picture": "https://shop.example/a b.jpg?x=1&y", "ground": Ground(320, 600),
    }  # fmt: skip
    return Piece(**{**usual, **more})


def parsed(code: str) -> None:
    """Reference: html5lib 1.1, the WHATWG parsing algorithm; any parse error fails."""
    whole = code if code.startswith("<!doctype") else f"<!doctype html><title>x</title>{code}"
    html5lib.HTMLParser(strict=True).parse(whole)


def all_of(one: Piece, page: Page) -> list[str]:
    drawing = draw_picture(one.document, "Buy", kit(), one.ground)
    pictured = replace(one, drawing=drawing, picture_at=((1, "https://e/1"), (2, "https://e/2")))
    forms = [form_button(one, page, connection) for connection in (FORM, LINK)]
    buttons = [web_button(one, page), mail_button(one, page), *forms]
    return [
        *(alone_on_page(button, page) for button in buttons),
        picture_button(pictured),
        web_sheet([one, one], [buttons[0]] * 2, page, 2),
        mail_sheet([one, one, one], [buttons[1]] * 3, page, 2),
    ]


@pytest.mark.parametrize("page", [PAGE, Page(kit(), "https://edge.example", "ar", True)])
def test_all_code_is_parsed_without_an_error_and_runs_nothing(page: Page) -> None:
    rng = random.Random(14)
    for n in range(60):
        shown = piece(random_button(rng) if n else {"quantity": BOX})
        for code in all_of(shown, page):
            parsed(code)
            soup = BeautifulSoup(code, "html.parser")
            assert soup.script is None
            assert not any(name.startswith("on") for tag in soup.find_all(True) for name in tag.attrs)
            # A catalogue's words stay words.
            assert soup.b is None
            assert soup.i is None
            links = [tag["href"] for tag in soup.find_all("a")] + [tag["action"] for tag in soup.find_all("form")]
            assert links
            assert set(links) == {shown.link}


def test_styles_hold_what_the_look_says() -> None:
    soup = BeautifulSoup(web_button(piece({"look": {"radius": 9, "padding": {"left": 31}}}), PAGE), "html.parser")
    style = dict(part.split(":", 1) for part in str(soup.a["style"]).split(";"))
    assert style["border-radius"] == "9px"
    assert style["padding"] == "12px 20px 12px 31px"
    assert style["background"] == "#3a2a12"
    assert style["font-family"] == "Figtree,Vazirmatn,sans-serif"


def test_from_right_to_left_padding_is_turned() -> None:
    page = Page(kit(), "", "ar", True)
    code = web_button(piece({"look": {"padding": {"left": 31}}}), page)
    assert "padding:12px 31px 12px 20px" in code


def test_a_mail_reads_without_its_pictures() -> None:
    """Every picture has a text; name, price and words stand as text."""
    shown = piece({"icon": {"kind": "shipped", "name": "basket"}})
    soup = BeautifulSoup(mail_sheet([shown], [mail_button(shown, PAGE)], PAGE, 1), "html.parser")
    assert all(tag.get("alt") for tag in soup.find_all("img"))
    said = soup.get_text(" ")
    assert ODD in said
    assert "£12.50" in said
    assert "Buy" in said
    assert soup.svg is None
    assert {tag.get("role") for tag in soup.find_all("table")} == {"presentation"}
    # Where gradients and round corners are not known, a colour is.
    assert soup.find("td", bgcolor="#3a2a12")


def test_a_form_has_the_shops_own_field_names_and_its_bounds() -> None:
    form = BeautifulSoup(form_button(piece({"quantity": BOX}), PAGE, FORM), "html.parser").form
    assert form["method"] == "post"
    fields = {tag["name"]: tag for tag in form.find_all(["input", "select"])}
    assert list(fields) == ["sku", "option[0]", "qty"]
    assert fields["sku"]["value"] == "A1"
    assert [tag["value"] for tag in fields["option[0]"].find_all("option")] == ["", "S", 'L"><i>']
    assert {name: fields["qty"][name] for name in ("min", "max", "step", "value")} == {
        "min": "2", "max": "12", "step": "2", "value": "4",
    }  # fmt: skip
    by_link = BeautifulSoup(form_button(piece(), PAGE, LINK), "html.parser").form
    assert by_link["method"] == "get"


def test_what_mails_do_not_draw_is_told() -> None:
    plain = document()
    assert left_out_of_mail(plain) == []
    look = {"shadows": {"kind": "cast", "list": [{}]}}
    rich = document({"icon": {"kind": "shipped", "name": "basket"}, "look": look})
    assert left_out_of_mail(rich) == ["the icon", "shadows"]


def test_an_outlined_button_reads_on_white_and_is_told_on_dark() -> None:
    """Reference: WCAG 2.2, 1.4.3: 4.5 to 1."""
    outlined = drawn_as(document({"look": {"fill": {"kind": "solid", "colour": "#d99a2b"}}}), "outlined")
    assert contrast_on(outlined, "#ffffff") >= 4.5
    assert contrast_on(outlined, "#14181c") < 4.5
    assert drawn_as(outlined, "outlined") is outlined
    filled = drawn_as(outlined, "filled")
    assert contrast_on(filled, "#14181c") >= 4.5


def test_the_kind_word_that_a_product_is_gone_is_there_in_every_language() -> None:
    assert set(GONE_WORDS) == set(OUTCOME_WORDS)
    for language, (says, way) in GONE_WORDS.items():
        page = gone_page(store(), language)
        parsed(page)
        assert says in page
        assert way in page
        assert 'href="http://localhost:8802/"' in page
    assert GONE_WORDS["en"][0] in gone_page(store().model_copy(update={"language": "en-GB"}), "tlh")
