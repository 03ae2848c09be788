"""Catalogues as other programs write them: what is taken of them, what was chosen, and how CSV was read."""

import json
from typing import Any

import pytest
from rdflib.namespace import SDO

from uptick.core.button.document import Situation
from uptick.core.errors import BadCatalogue
from uptick.core.formats.catalogue_file import CatalogueFile, read_catalogue
from uptick.core.formats.csv_dialect import EncodingName, ReadAs
from uptick.core.formats.offers import AVAILABILITY
from uptick.core.shop.catalogue import Product

HEAD = {"@type": "Product", "sku": "A", "name": "Jar", "category": "Honey", "url": "/a"}


def read(*nodes: Any, context: str = "https://schema.org") -> CatalogueFile:
    return read_catalogue(json.dumps({"@context": context, "@graph": list(nodes)}).encode(), {}, "GBP")


def only(*nodes: Any) -> tuple[Product, list[str]]:
    found = read(*nodes).reading
    assert found.refused == ()
    (product,) = found.products
    return product, [note.reason for note in found.notes]


def test_every_availability_is_one_of_schema_orgs() -> None:
    """Reference: rdflib 7, its namespace of schema.org's terms."""
    # These two came into the vocabulary after rdflib's copy.
    for name in set(AVAILABILITY) - {"MadeToOrder", "Reserved"}:
        assert SDO[name] in SDO


@pytest.mark.parametrize(("said", "means"), AVAILABILITY.items())
def test_an_availability_means_what_it_says(said: str, means: str) -> None:
    """Source: schema.org, ItemAvailability: what is discontinued, reserved or only in the shop cannot be had here."""
    for term in (said, f"https://schema.org/{said}", f"http://schema.org/{said}", {"@id": f"schema:{said}"}):
        product, notes = only({**HEAD, "offers": {"@type": "Offer", "price": "4", "availability": term}})
        situation = {"sold_out": Situation.SOLD_OUT, "pre_order": Situation.PRE_ORDER}.get(means, Situation.PLAIN)
        assert product.situation is situation
        assert bool(notes) is (said not in ("InStock", "OnlineOnly", "OutOfStock", "SoldOut", "PreOrder", "PreSale"))


def test_an_availability_that_there_is_not_is_refused_by_name() -> None:
    (refusal,) = read({**HEAD, "offers": {"price": "4", "availability": "Plenty"}}).reading.refused
    assert "availability is 'Plenty'; schema.org has BackOrder" in refusal.reason


def offer(price: str, **more: str) -> dict[str, Any]:
    return {"@type": "Offer", "price": price, "priceCurrency": "GBP", "availability": "InStock", **more}


@pytest.mark.parametrize(
    ("offers", "price", "note"),
    [
        ([offer("5"), offer("4")], 400, "of 2 offers the cheapest that can be had was taken: 4"),
        ([offer("3", availability="SoldOut"), offer("4")], 400, "the cheapest that can be had was taken: 4"),
        ([offer("1", priceCurrency="EUR"), offer("4")], 400, "of 2 offers"),
        ({"@type": "AggregateOffer", "lowPrice": "4", "highPrice": "9", "priceCurrency": "GBP"}, 400, "from 4 to 9"),
        ({"@type": "AggregateOffer", "lowPrice": "4", "highPrice": "4", "priceCurrency": "GBP"}, 400, ""),
        ({"@type": "AggregateOffer", "lowPrice": "1", "offers": [offer("6"), offer("5")]}, 500, "of 2 offers"),
        ({"priceSpecification": {"price": "4", "priceCurrency": "GBP"}}, 400, ""),
        ({"priceSpecification": [{"price": "9", "priceType": "ListPrice"}, {"price": "4"}]}, 400, ""),
        ({"priceSpecification": [{"price": "9"}, {"price": "4", "priceType": "schema:SalePrice"}]}, 400, ""),
        ({"price": "4", "priceSpecification": {"valueAddedTaxIncluded": False}}, 400, "is without tax"),
    ],
)  # fmt: skip
def test_of_several_offers_one_is_taken_and_this_is_told(offers: Any, price: int, note: str) -> None:
    """Source: schema.org, Offer, AggregateOffer, UnitPriceSpecification; the choice is ours."""
    product, notes = only({**HEAD, "offers": offers})
    assert product.price_minor == price
    assert bool(notes) is bool(note)
    assert note in " ".join(notes)


def test_a_former_price_is_taken_beside_the_one_to_pay() -> None:
    specification = {"@type": "UnitPriceSpecification", "priceType": "StrikethroughPrice", "price": "9"}
    product, _ = only({**HEAD, "offers": offer("4", **{"priceSpecification": specification})})  # type: ignore[arg-type]
    assert (product.price_minor, product.was_minor) == (400, 900)


GROUP: dict[str, Any] = {
    "@type": "ProductGroup", "@id": "#g", "productGroupID": "G", "name": "Hive", "category": "Hives", "url": "/g",
    "variesBy": "https://schema.org/size",
}  # fmt: skip
SMALL: dict[str, Any] = {
    "@type": "Product",
    "@id": "#s",
    "sku": "G-S",
    "name": "Hive, small",
    "size": "small",
    "offers": offer("40"),
}
LARGE: dict[str, Any] = {
    "@type": "Product", "@id": "#l", "sku": "G-L", "name": "Hive, large", "size": "large", "offers": offer("60"),
}  # fmt: skip


@pytest.mark.parametrize(
    "nodes",
    [
        [{**GROUP, "hasVariant": [SMALL, LARGE]}],
        [{**GROUP, "hasVariant": [{"@id": "#s"}, {"@id": "#l"}]}, SMALL, LARGE],
        [GROUP, {**SMALL, "isVariantOf": {"@id": "#g"}}, {**LARGE, "isVariantOf": [{"@id": "#g"}]}],
        [{**SMALL, "inProductGroupWithID": "G"}, GROUP, {**LARGE, "inProductGroupWithID": "G"}],
    ],
    ids=["inside", "by id", "of a group by id", "of a group by code"],
)
def test_a_group_is_one_product_with_its_choices_however_they_are_linked(nodes: list[Any]) -> None:
    """Source: schema.org, ProductGroup (hasVariant, variesBy), isVariantOf, inProductGroupWithID."""
    product, notes = only(*nodes)
    assert (product.sku, product.option_name, product.option_values) == ("G", "size", ("small", "large"))
    assert (product.price_minor, product.situation) == (4000, Situation.CHOICE)
    assert notes == ["G: its choices cost from 40 to 60; the lowest was taken"]


def test_choices_that_are_sold_out_count_for_the_group_only_together() -> None:
    gone = {**SMALL, "offers": offer("40", availability="Discontinued")}
    product, notes = only({**GROUP, "hasVariant": [gone, LARGE]})
    assert (product.price_minor, product.situation) == (6000, Situation.CHOICE)
    assert any("1 of its 2 choices are sold out" in note for note in notes)
    product, _ = only({**GROUP, "hasVariant": [gone]})
    assert product.situation is Situation.SOLD_OUT


def test_offers_and_pictures_that_are_only_named_are_followed() -> None:
    product, _ = only(
        {**HEAD, "@id": "#p", "offers": {"@id": "#o"}, "image": {"@type": "ImageObject", "contentUrl": "/p.jpg"}},
        {"@id": "#o", **offer("7")},
    )
    assert (product.price_minor, product.picture) == (700, "/p.jpg")


def test_groups_that_name_themselves_or_each_other_are_groups_all_the_same() -> None:
    def group(own: str, other: str) -> dict[str, object]:
        return {**SMALL, "@type": "ProductGroup", "@id": own, "sku": own, "hasVariant": [{"@id": own}, {"@id": other}]}

    found = read(group("#a", "#b"), group("#b", "#a")).reading
    assert len(found.products) + len(found.refused) == 2, found


PLAIN = "sku{0}name{0}category{0}url{0}price{0}tax\nA{0}Honey{0}Jars{0}/a{0}{1}{0}{2}\n"


@pytest.mark.parametrize(
    ("content", "encoding", "separator", "decimal"),
    [
        (PLAIN.format(",", "12.50", "20").encode(), "UTF-8", ",", "."),
        (b"\xef\xbb\xbf" + PLAIN.format(";", "12,50", "20").encode(), "UTF-8", ";", ","),
        (PLAIN.format("\t", "12,50", "7,5").encode("utf-16"), "UTF-16", "\t", ","),
        (PLAIN.format("|", "12.5", "20").encode(), "UTF-8", "|", "."),
        (PLAIN.replace("Honey", "Grüße").format(";", "12,50", "20").encode("cp1252"), "windows-1252", ";", ","),
    ],
)
def test_usual_dialects_of_csv_are_found_out_and_told(
    content: bytes, encoding: str, separator: str, decimal: str
) -> None:
    """Common practice: how spreadsheets of different countries save CSV."""
    found = read_catalogue(content, {}, "GBP")
    assert found.dialect is not None
    assert (found.dialect.encoding, found.dialect.separator, found.dialect.decimal) == (encoding, separator, decimal)
    assert found.reading.products[0].price_minor == 1250
    assert found.sample[0]["price"] == "12.50"
    assert ["“A;Grüße;Jars;/" in guess for guess in found.dialect.guesses] == [True] * (encoding == "windows-1252")
    assert [heading.column for heading in found.headings] == ["sku", "name", "category", "url", "price", "tax"]


@pytest.mark.parametrize(
    ("prices", "minor"),
    [
        (["1,234.50", "3.00"], [123450, 300]),
        (["1.234,50", "3,00"], [123450, 300]),
        (["1 234,50", "3,5"], [123450, 350]),
        (["1'234.50", "3"], [123450, 300]),
        (["1.234", "3,00"], [123400, 300]),
        (["1,234", "5.00"], [123400, 500]),
    ],
)
def test_a_decimal_comma_is_one_where_the_file_has_one(prices: list[str], minor: list[int]) -> None:
    rows = "\n".join(f"A{n};n;c;/u;{price}" for n, price in enumerate(prices))
    found = read_catalogue(f"sku;name;category;url;price\n{rows}".encode(), {}, "GBP")
    assert [product.price_minor for product in found.reading.products] == minor


def test_what_cannot_be_told_is_asked_and_what_contradicts_is_refused() -> None:
    head = "sku;name;category;url;price\n"
    found = read_catalogue(f"{head}A;n;c;/u;1,234".encode(), {}, "GBP")
    assert found.dialect is not None
    assert found.dialect.guesses == ("1,234 may be a thousand or a part of one; it is read as a thousand.",)
    for prices, currency, minor, guesses in (
        # Thousands without decimals, as German and Polish shops write them, and what may be either beside plain ones.
        (
            ("1.200", "2.500", "3.000"),
            "EUR",
            [120_000, 250_000, 300_000],
            "1.200 may be a thousand or a part of one; it is read as a thousand.",
        ),
        (
            ("1.200", "12.50"),
            "EUR",
            [120, 1250],
            "1.200 may be a thousand or a part of one; it is read as a part of one.",
        ),
        (
            ("1,200", "12,50"),
            "EUR",
            [120, 1250],
            "1,200 may be a thousand or a part of one; it is read as a part of one.",
        ),
        (("1.200", "12,50"), "EUR", [120_000, 1250], ""),
        (("1,200", "12.50"), "EUR", [120_000, 1250], ""),
        # A dinar has a thousand fils.
        (("1.200", "2.500"), "KWD", [1200, 2500], ""),
        (("1,200", "2,500.250"), "KWD", [1_200_000, 2_500_250], ""),
    ):
        rows = "\n".join(f"A{n};n;c;/u;{price}" for n, price in enumerate(prices))
        found = read_catalogue(f"{head}{rows}".encode(), {}, currency)
        assert found.dialect is not None
        assert [product.price_minor for product in found.reading.products] == minor, prices
        assert "".join(found.dialect.guesses) == guesses
    with pytest.raises(BadCatalogue, match=r"both as 3.50 and as 4,20"):
        read_catalogue(f"{head}A;n;c;/u;3.50\nB;n;c;/u;4,20".encode(), {}, "GBP")
    for content in (b"\xff\xfes\0k\0u", b"sku;name\nA;\x81", b"sku;n\0ame\xe9"):
        with pytest.raises(BadCatalogue, match=r"not UTF|lacks the column sku|is not CSV"):
            read_catalogue(content, {}, "GBP")


@pytest.mark.parametrize(
    ("encoding", "name", "byte"),
    [
        ("windows-1250", "Łódzki miód", 0xA3),
        ("windows-1251", "Липовый мёд", 0xCB),
        ("windows-1253", "Μέλι θυμαριού", 0xCC),
        ("windows-1254", "Kestane balı ışık", 0x4B),
        ("macintosh", "Grüße Honig", 0x47),
        ("Shift_JIS", "蜂蜜①", 0x96),
    ],
)
def test_an_encoding_that_somebody_says_is_read_and_nothing_is_guessed(
    encoding: EncodingName, name: str, byte: int
) -> None:
    """The first bytes are those of the code charts of Unicode's mapping tables (from memory)."""
    word = name.encode({"macintosh": "mac_roman", "Shift_JIS": "cp932"}.get(encoding, encoding))
    assert word[0] == byte
    content = PLAIN.format(";", "12,50", "20").encode().replace(b"Honey", word)
    found = read_catalogue(content, {}, "GBP", ReadAs(encoding))
    assert found.dialect is not None
    assert (found.reading.products[0].name, found.dialect.encoding, found.dialect.guesses) == (name, encoding, ())


def test_an_encoding_or_decimal_sign_that_the_file_contradicts_is_refused() -> None:
    with pytest.raises(BadCatalogue, match=r"not UTF-8: line 2"):
        read_catalogue(b"sku;name;category;url;price\nA;Gr\xfc\xdfe;c;/u;3", {}, "GBP", ReadAs("UTF-8"))
    head = "sku;name;category;url;price\n"
    with pytest.raises(BadCatalogue, match=r"written as 3,50: that is not a decimal point"):
        read_catalogue(f"{head}A;n;c;/u;3,50".encode(), {}, "GBP", ReadAs(decimal="."))
    for decimal, currency, minor in ((",", "KWD", 1234), (".", "KWD", 1_234_000)):
        found = read_catalogue(f"{head}A;n;c;/u;1,234".encode(), {}, currency, ReadAs(decimal=decimal))
        assert found.dialect is not None
        assert (found.reading.products[0].price_minor, found.dialect.guesses) == (minor, ())


def test_fifty_thousand_products_with_choices_are_read_without_going_through_all_for_each() -> None:
    groups = [
        {**GROUP, "@id": f"#g{n}", "productGroupID": f"G{n}", "hasVariant": [{"@id": f"#v{n}"}]} for n in range(10_000)
    ]
    variants = [{**SMALL, "@id": f"#v{n}", "isVariantOf": {"@id": f"#g{n}"}} for n in range(10_000)]
    assert len(read(*groups, *variants).reading.products) == 10_000
