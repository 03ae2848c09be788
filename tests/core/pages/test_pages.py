"""Pages as shops send them: what is read, what is proposed, and what a policy would stop."""

import pytest

from uptick.core.pages import PageRead, missing_in, propose, refuses_our_type
from uptick.core.shop.connection import BasketLink, BasketPage, FormPost, JsonCall

EDGE = "https://edge.example"
BASKET = PageRead('<a href="/cart">Cart <span class="cart-count">0</span></a>')


def page(body: str) -> PageRead:
    return PageRead(f'<html><body><a href="/cart">Cart</a>{body}</body></html>')


def test_a_form_is_proposed_by_what_its_fields_hold() -> None:
    """Sample: fields as shops commonly have them, with a number of the shop's own instead of the code."""
    found = propose(
        page(
            '<form action="/search"><input name="q"></form>'
            '<form action="/newsletter" method="post"><input type="email" name="mail"></form>'
            '<form action="/cart/add" method="post"><input type="hidden" name="csrf_token" value="abc">'
            '<input type="hidden" name="product_id" value="4711"><input type="number" name="qty" value="1">'
            '<select name="size"><option value="">?</option><option>S</option><option>L</option></select>'
            "<button>Add</button></form>"
        ),
        ["A-1"],
        basket=BASKET,
    )
    assert found.connection == FormPost(
        add_path="/cart/add", product_field="product_id", quantity_field="qty", option_fields=("size",),
        read=BasketPage(path="/cart", selector=".cart-count"), basket_path="/cart",
    )  # fmt: skip
    assert found.unsure == ()
    assert "Its field “product_id” holds the shop's own number, 4711." in [said.sentence for said in found.said]
    assert any("csrf_token" in said.sentence for said in found.said)


def test_a_field_that_holds_the_code_goes_before_one_that_is_only_called_so() -> None:
    fields = "<input type=hidden name=item_set value=9><input type=hidden name=x value=A-1>"
    form = f'<form action="/put" method="post">{fields}</form>'
    found = propose(page(form), ["A-1"])
    assert isinstance(found.connection, FormPost)
    assert found.connection.product_field == "x"
    assert found.unsure == (
        "No page tells how much is in the basket. Without that nobody can see whether a press came through.",
    )


def test_a_link_with_the_code_is_proposed_with_holes() -> None:
    found = propose(page('<a href="/p/A-1">A</a><a href="/take/A-1?n=1&lang=en">Add to basket</a>'), ["A-1"])
    assert isinstance(found.connection, BasketLink)
    assert found.connection.add_path == "/take/{product}?n={quantity}&lang=en"


def test_a_call_in_a_script_is_proposed_with_its_body_and_its_header() -> None:
    script = (
        "const t = document.querySelector('meta[name=csrf]').content;"
        "fetch('/api/lines', {method: 'PUT', headers: {'Content-Type': 'a', 'X-Shop-Word': t},"
        "body: JSON.stringify({lines: [{code: el.dataset.code, amount: 1}], keep: true})})"
    )
    shown = PageRead('<meta name="csrf" content="w0rd"><button data-code="A-1">Add</button>')
    found = propose(shown, ["A-1"], [script])
    assert isinstance(found.connection, JsonCall)
    assert found.connection.method == "PUT"
    assert found.connection.body["lines"] == [{"code": "{product}", "amount": "{quantity}"}]
    assert found.connection.token is not None
    assert found.connection.token.sent_name == "X-Shop-Word"


@pytest.mark.parametrize(
    "body",
    [
        "",
        "<form><input name=q type=search></form>",
        "<form action=/login method=post><input type=password name=p><button>Buy an account</button></form>",
        "<form action='/add' method=post><button>Add</button><input name=note></form>",
    ],
)
def test_a_page_that_shows_no_way_to_buy_says_so(body: str) -> None:
    found = propose(page(body), ["A-1"])
    assert found.connection is None
    assert found.unsure


def test_a_page_tells_its_products_whatever_list_they_stand_in_and_how_many_scripts_are_broken() -> None:
    read = PageRead(
        '<script type="application/ld+json">{"@graph":[{"@type":["Product","Thing"],"sku":"A","name":"Thing",'
        '"offers":[{"price":12.5,"priceCurrency":"EUR","availability":"http://schema.org/SoldOut"}]},'
        '{"@type":"http://schema.org/ProductGroup","productGroupID":"G"}]}</script>'
        '<script type="application/ld+json">{"@type": oops</script>'
    )
    assert [(p.sku, p.price, p.currency, p.availability) for p in read.products] == [
        ("A", "12.5", "EUR", "SoldOut"),
        ("G", "", "", ""),
    ]
    assert read.broken_schema == 1


def test_a_selector_that_cannot_be_read_is_refused_with_it() -> None:
    with pytest.raises(ValueError, match=r"The selector '\.a\[' cannot be read"):
        page("").count(".a[")


@pytest.mark.parametrize(
    ("policy", "lacks"),
    [
        ("", []),
        ("default-src 'self'", ["script-src", "connect-src", "font-src", "img-src"]),
        (f"default-src 'self'; script-src 'self' {EDGE}", ["connect-src", "font-src", "img-src"]),
        (f"default-src {EDGE}", []),
        ("default-src https:", []),
        ("default-src *.example", []),
        ("default-src *.other.example", ["script-src", "connect-src", "font-src", "img-src"]),
        (f"script-src-elem 'self'; script-src {EDGE}", ["script-src"]),
        ("img-src http:", ["img-src"]),
        (f"default-src {EDGE}, script-src 'none'", ["script-src"]),
        ("default-src *; default-src 'none'", []),
    ],
)
def test_a_policy_names_the_lines_that_it_lacks(policy: str, lacks: list[str]) -> None:
    """Reference: Content Security Policy Level 3 (W3C), 6.7.2.8 for matching and 6.8.3 for what stands in."""
    assert [missing.directive for missing in missing_in([policy], EDGE)] == lacks


def test_a_line_with_a_nonce_needs_no_address_and_trusted_types_are_told() -> None:
    nonced = ["script-src 'nonce-abc' 'strict-dynamic'"]
    assert missing_in(nonced, EDGE, nonced=True) == ()
    (missing,) = missing_in(nonced, EDGE)
    assert missing.line == f"script-src {EDGE}"
    asks = "require-trusted-types-for 'script'"
    assert refuses_our_type([f"default-src *; {asks}; trusted-types theme"])
    assert refuses_our_type([f"{asks}; trusted-types up-tick", "trusted-types 'none'"])
    assert not refuses_our_type([asks])
    assert not refuses_our_type([f"{asks}; trusted-types theme up-tick"])
    assert not refuses_our_type(["trusted-types theme"])
    assert not refuses_our_type(nonced)
