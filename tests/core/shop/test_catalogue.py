import csv
import io
import re
from dataclasses import replace
from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.samples import product
from uptick.core.button.document import Situation
from uptick.core.errors import BadCatalogue
from uptick.core.formats.catalogue_file import read_catalogue, write_csv
from uptick.core.formats.product_fields import COLUMNS
from uptick.core.shop.catalogue import ImportPreview, Product, categories_of

HEAD = "sku,name,category,price,currency,url,picture,stock,option_name,option_values\n"
GOOD = "A1,Thing A1,Tools,12.50,GBP,/p/A1,,3,,\n"


def reading(text: str | bytes, known: dict[str, Product] | None = None, currency: str = "GBP") -> ImportPreview:
    content = text if isinstance(text, bytes) else text.encode()
    return read_catalogue(content, known or {}, currency).reading


def test_a_file_is_compared_line_by_line_with_what_is_known() -> None:
    known = {p.sku: p for p in (product("A1"), product("A2"), product("A3"))}
    found = reading(HEAD + GOOD + "A2,Thing A2,Tools,13.00,GBP,/p/A2,,3,,\nA4,New,Jars,1,GBP,/p/A4,,,,\n", known)
    assert [(c.line, c.sku) for c in found.new] == [(4, "A4")]
    assert [(c.line, c.sku, c.fields) for c in found.changed] == [(3, "A2", ("price_minor",))]
    assert found.unchanged == 1
    assert found.missing == ("A3",)
    assert found.refused == ()


def test_situations_follow_stock_and_options() -> None:
    rows = "P,p,T,1,GBP,/p,,2,,\nC,c,T,1,GBP,/p,,2,size,S|M | L\nS,s,T,1,GBP,/p,,0,size,S\nN,n,T,1,GBP,/p,,,,\n"
    found = reading(HEAD + rows)
    assert [p.situation for p in found.products] == [
        Situation.PLAIN, Situation.CHOICE, Situation.SOLD_OUT, Situation.PLAIN,
    ]  # fmt: skip
    assert found.products[1].option_values == ("S", "M", "L")
    assert categories_of(found.products) == ("T",)


REFUSED = [
    (",Thing,Tools,12.50,GBP,/p,,3,,", "sku is empty"),
    ("A1,Thing,Tools,twelve,GBP,/p,,3,,", "write it as 12.50"),
    ("A1,Thing,Tools,-1,GBP,/p,,3,,", "from 0 to 10,000,000"),
    ("A1,Thing,Tools,NaN,GBP,/p,,3,,", "write it as 12.50"),
    ('A1,Thing,Tools,"1,29,9.00",GBP,/p,,3,,', "write it as 12.50"),
    ("A1,Thing,Tools,1_000,GBP,/p,,3,,", "write it as 12.50"),
    ("A1,Thing,Tools,1e3,GBP,/p,,3,,", "write it as 12.50"),
    ("A1,Thi\0ng,Tools,1,GBP,/p,,3,,", r"name holds the control character U\+0000 at place 4"),
    ("A\0,Thing,Tools,1,GBP,/p,,3,,", r"sku holds the control character U\+0000"),
    ("A1,Thing,Tools,1,GBP,http://[,,3,,", "not a web address"),
    ("A1,Thing,Tools,1,GBP,/p,,99999999999,,", "below 2,147,483,648"),
    ("A1,Thing,Tools,1", "4 fields where the first line has 10"),
    ("A1,Thing,Tools,1.0052,GBP,/p,,3,,", "at most two decimals"),
    ("A1,Thing,Tools,1,EUR,/p,,3,,", "this store sells in GBP"),
    ("A1,Thing,Tools,1,GBP,javascript:alert(1),,3,,", "not a web address"),
    ("A1,Thing,Tools,1,GBP,//evil.example,,3,,", "not a web address"),
    ("A1,Thing,Tools,1,GBP,/p,,many,,", "must be a whole number"),
    ('A1,"=HYPERLINK(""x"")",Tools,1,GBP,/p,,3,,', "run as a formula"),
    ("A1,Thing,Tools,1,GBP,/p,,3,,,extra", "more fields than columns"),
    (f"A1,{'x' * 501},Tools,1,GBP,/p,,3,,", "at most 500"),
]


@pytest.mark.parametrize(("row", "says"), REFUSED)
def test_a_bad_line_is_refused_with_its_reason_and_the_others_are_taken(row: str, says: str) -> None:
    found = reading(HEAD + "OK,Fine,Tools,1,GBP,/p,,3,,\n" + row + "\n")
    assert [p.sku for p in found.products] == ["OK"]
    (refusal,) = found.refused
    assert refusal.line == 3
    assert re.search(says, refusal.reason)


def test_a_code_that_stands_twice_is_taken_once() -> None:
    found = reading(HEAD + GOOD + GOOD)
    assert len(found.products) == 1
    assert "earlier line" in found.refused[0].reason


def test_lines_are_counted_as_an_editor_counts_them() -> None:
    found = reading(HEAD + 'A1,"Two\nlines",Tools,1,GBP,/p,,3,,\nA2,Bad,Tools,x,GBP,/p,,3,,\n')
    assert found.new[0].line == 3
    assert found.refused[0].line == 4


UNREADABLE = [
    (b"sku,name\nA1,Caf\x81\n", "not UTF-8: line 2"),
    (b"name,category\nx,y\n", "lacks the column sku"),
    (b"", "lacks the column sku"),
    (b"sku,Price,unit price\nA1,1,2\n", "names price twice: Price and unit price"),
    ((HEAD + 'A1,"never closed,Tools,1,GBP,/p,,3,,\n').encode(), "After line 1 a double quote opens"),
    (b'sku,name\nA1,"x"y\nB1,z\n', "Line 2 is not CSV"),
    (b"x" * 60_000_001, "at most 60,000,000"),
]


@pytest.mark.parametrize(("content", "says"), UNREADABLE)
def test_a_file_that_cannot_be_read_at_all_says_why(content: bytes, says: str) -> None:
    with pytest.raises(BadCatalogue, match=says):
        reading(content)


def test_a_byte_order_mark_and_another_order_of_columns_are_no_harm() -> None:
    found = reading(b"\xef\xbb\xbfurl,price,name,sku,category,currency\r\n/p,1,Thing,A1,Tools,GBP\r\n")
    assert found.products[0].sku == "A1"
    assert found.products[0].stock == 1


def test_ten_thousand_bad_lines_are_each_named() -> None:
    found = reading(HEAD + "A,b,c,bad,GBP,/p,,1,,\n" * 10_000)
    assert len(found.refused) == 10_000
    assert found.products == ()


def test_headings_are_known_in_any_case_and_by_their_usual_other_names() -> None:
    """Other names of columns: common practice, from memory."""
    head = "Product Code,TITLE,Product-Group,Unit Price,Currency Code,Link,Image,Quantity\n"
    found = reading(head + "A1,Thing,Tools,12.50,GBP,/p,/a.png,7\n")
    (row,) = found.products
    assert (row.sku, row.name, row.category, row.price_minor, row.url, row.picture, row.stock) == (
        "A1", "Thing", "Tools", 1250, "/p", "/a.png", 7,
    )  # fmt: skip


def test_a_heading_that_means_nothing_here_is_told() -> None:
    file = read_catalogue(b"sku,Colour of box,price\nA1,red,2.00\n", {"A1": product("A1")}, "GBP")
    assert (file.columns, file.ignored) == (("sku", "price"), ("Colour of box",))


def test_a_column_that_is_not_there_changes_nothing() -> None:
    known = {
        "A1": product("A1", stock=9, was_minor=2000, option_name="size", option_values=("S", "L"), picture="/a.png")
    }
    (row,) = reading("SKU,Price\nA1,13.00\n", known).products
    assert row == replace(known["A1"], price_minor=1300)


def test_a_new_product_needs_what_a_known_one_has() -> None:
    found = reading("sku,price\nA1,13.00\nN9,1.00\n", {"A1": product("A1")})
    assert [p.sku for p in found.products] == ["A1"]
    assert found.refused[0].reason == "name is not told, and the product is new"


def test_a_product_that_comes_back_without_a_number_is_in_stock_again() -> None:
    gone = {"A1": product("A1", stock=0)}
    assert reading("sku,availability\nA1,in_stock\n", gone).products[0].stock == 1
    assert reading("sku,availability\nA1,sold_out\n", {"A1": product("A1")}).products[0].stock == 0
    assert reading("sku,availability,stock\nA1,in_stock,0\n", gone).products[0].stock == 0


def test_a_known_product_whose_line_is_refused_is_not_missing() -> None:
    found = reading("sku,price\nA1,twelve\n", {"A1": product("A1"), "A2": product("A2")})
    assert found.missing == ("A2",)


def test_a_file_that_leaves_no_price_standing_says_how_many_it_would_empty() -> None:
    known = {p.sku: p for p in (product("A1"), product("A2"), product("A3", price_minor=None))}
    assert reading("sku,price\nA1,\nA2,\nA3,\n", known).emptied == (("price_minor", 2),)
    assert reading("sku,price\nA1,\nA2,3.00\n", known).emptied == ()


@pytest.mark.parametrize(
    ("currency", "text", "minor"), [("JPY", "1200", 1200), ("KWD", "1.250", 1250), ("GBP", "1.25", 125)]
)
def test_a_currency_has_its_own_digits(currency: str, text: str, minor: int) -> None:
    """Reference: ISO 4217, minor units: JPY 0, KWD 3, GBP 2."""
    content = f"sku,name,category,price,url\nA1,Thing,Tools,{text},/p\n"
    (row,) = reading(content, currency=currency).products
    assert (row.price_minor, row.price, row.currency) == (minor, Decimal(text), currency)
    assert read_catalogue(write_csv([row]).encode(), {}, currency).reading.products == (row,)


def test_more_digits_than_a_currency_has_are_refused() -> None:
    content = "sku,name,category,price,url\nA1,Thing,Tools,12.50,/p\n"
    assert reading(content, currency="JPY").refused[0].reason == "price is 12.50; no decimals are taken in JPY"


names = st.text(alphabet=st.characters(blacklist_categories=("Cs", "Cc")), min_size=1, max_size=30).map(str.strip)


@given(st.lists(st.tuples(names, st.integers(0, 10**9), st.integers(0, 50)), max_size=6))
def test_what_the_csv_module_writes_is_read_back_the_same(rows: list[tuple[str, int, int]]) -> None:
    """Reference: the CSV dialect of RFC 4180, as Python's csv module writes it."""
    file = io.StringIO()
    writer = csv.DictWriter(file, COLUMNS, restval="")
    writer.writeheader()
    kept = [r for r in rows if r[0] and r[0][0] not in "=@\t"]
    for n, (name, minor, stock) in enumerate(kept):
        price = f"{minor // 100}.{minor % 100:02d}"
        writer.writerow(
            {"sku": f"S{n}", "name": name, "category": "T", "price": price, "currency": "GBP", "url": "/p",
             "stock": stock}
        )  # fmt: skip
    found = reading(file.getvalue())
    assert [(p.name, p.price_minor, p.stock) for p in found.products] == kept
