"""Open formats, read back by libraries that had no part in writing them."""

import io
import json
from datetime import date
from decimal import Decimal
from typing import Any

import polib
import pytest
from babel.messages.pofile import read_po as babel_read_po
from hypothesis import given
from hypothesis import strategies as st
from rdflib import Graph, Namespace

from tests.samples import NOW, exception, product, settings
from uptick.core.errors import BadCatalogue, BadTexts
from uptick.core.formats.catalogue_file import read_catalogue, write_csv
from uptick.core.formats.jsonld import write_jsonld
from uptick.core.formats.po import patches_of, read_po, write_po
from uptick.core.shop.catalogue import Product

SCHEMA = Namespace("https://schema.org/")
GOODS = [
    product("A1", tax_percent=Decimal("20"), was_minor=1500),
    product("B2", "Jars", option_name="size", option_values=("S", "L")),
    product("C3", price_minor=None, stock=0),
    product("D4", pre_order=True, available_from=date(2027, 4, 12), tax_percent=Decimal("5.5")),
    product("E5", set_of=("A1", "B2")),
]


def read(text: str) -> tuple[Product, ...]:
    found = read_catalogue(text.encode(), {}, "GBP").reading
    assert found.refused == ()
    return found.products


@pytest.mark.parametrize("write", [write_csv, write_jsonld])
def test_a_catalogue_that_was_written_is_read_back_the_same(write: Any) -> None:
    assert read(write(GOODS)) == tuple(GOODS)


# rdflib warns about its own way of parsing.
@pytest.mark.filterwarnings("ignore:ConjunctiveGraph")
def test_our_json_ld_means_to_another_library_what_we_meant() -> None:
    """Reference: rdflib 7, its JSON-LD parser; schema.org's own terms."""
    graph = Graph().parse(data=write_jsonld(GOODS), format="json-ld")
    told = {
        str(row.sku): (str(row.name), row.price, str(row.available))
        for row in graph.query(
            """PREFIX s: <https://schema.org/>
            SELECT ?sku ?name ?price ?available WHERE {
                ?p s:sku ?sku ; s:name ?name ; s:offers ?o . ?o s:availability ?available
                OPTIONAL { ?o s:price ?price } }"""
        )
    }
    assert set(told) == {"A1", "B2", "C3", "D4", "E5"}
    assert told["A1"] == ("Thing A1", told["A1"][1], "https://schema.org/InStock")
    assert str(told["A1"][1]) == "12.50"
    assert told["C3"][1] is None
    assert told["D4"][2] == "https://schema.org/PreOrder"
    assert len(set(graph.subjects(SCHEMA.includesObject))) == 1


def test_json_ld_as_shops_write_it_is_taken() -> None:
    """Reference: the forms of schema.org's own Product and ItemList examples, as remembered."""
    page = {
        "@context": "https://schema.org",
        "@type": "ItemList",
        "itemListElement": [
            {"@type": "ListItem", "position": 1, "item": {
                "@type": ["Product"], "sku": "A", "name": "Anvil", "category": {"@type": "Thing", "name": "Tools"},
                "url": "https://shop.test/a", "image": ["https://shop.test/a.png", "b.png"],
                "offers": [{"@type": "Offer", "price": 119.99, "priceCurrency": "GBP",
                            "availability": "http://schema.org/PreOrder", "availabilityStarts": "2027-04-12T00:00Z"}]}},
            {"item": {"@type": "schema:Product", "name": "no code"}},
        ],
    }  # fmt: skip
    found = read_catalogue(json.dumps(page).encode(), {}, "GBP").reading
    (one,) = found.products
    assert (one.sku, one.price_minor, one.category, one.pre_order, one.available_from) == (
        "A", 11999, "Tools", True, date(2027, 4, 12),
    )  # fmt: skip
    assert [(r.line, r.reason) for r in found.refused] == [(2, "sku is empty")]


@pytest.mark.parametrize(
    ("text", "says"),
    [("{", "not JSON"), ('{"@type": "Article"}', "no Product"), ("[" * 50_000, "nested too deeply|not JSON")],
)
def test_json_that_holds_no_catalogue_says_why(text: str, says: str) -> None:
    with pytest.raises(BadCatalogue, match=says):
        read(text)


def test_the_price_without_tax_is_rounded_by_piece_and_a_saving_is_what_is_off() -> None:
    """Reference: HMRC VAT Notice 700, 17.5.1, from memory: by line, to the nearest penny; halves upward."""
    at = {
        minor: product("X", price=minor, tax_percent=Decimal(20)).price_without_tax for minor in (1, 3, 18_900, 4_200)
    }
    assert at == {1: Decimal("0.01"), 3: Decimal("0.03"), 18_900: Decimal("157.5"), 4_200: Decimal(35)}
    assert product("X", price=1200, was_minor=1500).saving == Decimal(3)
    assert product("X", price=1200, was_minor=1100).saving is None
    assert product("X", price_minor=None).price_without_tax is None


TEXT = {"wording": {"ready": {"en-GB": "48 jars, {price}", "de-DE": "48 Gläser"}}}


def shop() -> Any:
    return settings(exception(1, TEXT, products=("B1",)), more=("de-DE",))


def po() -> str:
    return write_po(shop(), "de-DE", {"baseline": "At most 139.5 px wide."}, "Sample", NOW)


def test_other_libraries_read_our_po_with_its_contexts_and_notes() -> None:
    """Reference: Babel 2.18, messages.pofile; polib 1.2."""
    catalog = babel_read_po(io.StringIO(po()))
    ready = catalog.get("Buy", "baseline/ready")
    assert ready is not None
    assert ready.auto_comments == ["Store baseline: ready. At most 139.5 px wide."]
    own = catalog.get("48 jars, {price}", "exception:e1/ready")
    assert own is not None
    assert own.string == "48 Gläser"
    assert "{price}" in " ".join(own.auto_comments)
    assert polib.pofile(po()).metadata["Language"] == "de_DE"


def translated(texts: dict[str, str]) -> bytes:
    file = polib.pofile(po())
    for entry in file:
        entry.msgstr = texts.get(entry.msgctxt, entry.msgstr)
    return str(file).encode()


def test_what_a_translator_changed_is_told_and_laid_on_the_layers() -> None:
    content = translated({"baseline/ready": "Kaufen", "baseline/in_basket": "{count} im Korb"})
    found = read_po(content, shop(), "de-DE")
    assert [(c.layer, c.moment, c.before, c.after) for c in found.changes] == [
        ("baseline", "ready", "", "Kaufen"), ("baseline", "in_basket", "", "{count} im Korb"),
    ]  # fmt: skip
    # The exception's text lacks the price of its source: it was so before, and is told.
    assert [r.reason for r in found.refused] == ["it lacks {price} of the source"]
    assert found.untranslated == 5
    assert patches_of(found.changes, "de-DE") == {
        "baseline": {"wording": {"ready": {"de-DE": "Kaufen"}, "in_basket": {"de-DE": "{count} im Korb"}}}
    }


def test_lines_that_cannot_be_taken_are_named_and_the_others_are() -> None:
    text = translated({"baseline/ready": "Kaufen", "baseline/added": "{cost}", "baseline/working": "x" * 201}).decode()
    text = text.replace('msgid "Reserve"\nmsgstr ""', 'msgid "Reserve"\nmsgstr "Vor\0merken"')
    text = text.replace('msgid "Choose"\nmsgstr ""', 'msgid "Pick"\nmsgstr "Wähle"')
    text += '\nmsgctxt "exception:e9/ready"\nmsgid "?"\nmsgstr "!"\n'
    text += '\n#, fuzzy\nmsgctxt "baseline/sold_out"\nmsgid "Sold out"\nmsgstr "Weg"\n'
    found = read_po(text.encode(), shop(), "de-DE")
    assert [c.after for c in found.changes] == ["Kaufen"]
    reasons = " | ".join(r.reason for r in found.refused)
    for says in (
        "no live value {cost}",
        "201 characters",
        "its source was 'Pick'",
        "'exception:e9/ready'",
        "U+0000",
    ):
        assert says in reasons
    assert all(r.line > 0 for r in found.refused)


@pytest.mark.parametrize(
    ("content", "says"),
    [
        (b"\xff\xfe", "not UTF-8: line 1"), (b"hello", "not a PO file"),
        (b'msgid ""\nmsgstr "Language: fr_FR\\n"\n', "language is fr-FR"), (b"x" * 5_000_001, "at most 5,000,000"),
        (b'msgid "a"\nmsgstr "b"\n!?\n', "Line 3 of the file is no PO"),
        (b'msgid "a"\nmsgstr b\n', "Line 2 .* in double quotes"), (b'msgid "a"\nmsgstr "b', "Line 2 .* does not end"),
        (b'msgid "a"\nmsgstr "b" c\n', "Line 2"), (b'msgid "a"\nmsgstring "b"\n', "Line 2"),
        (b'msgid ""\nmsgstr "Plural-Forms: n>1\\n"\n', "Plural-Forms are"),
        (b'msgid ""\nmsgstr "Plural-Forms: nplurals=2; plural=__import__(1);\\n"\n', "cannot be worked out"),
    ],
)  # fmt: skip
def test_a_file_of_texts_that_cannot_be_read_says_why(content: bytes, says: str) -> None:
    with pytest.raises(BadTexts, match=says):
        read_po(content, shop(), "de-DE")


words = st.text(alphabet=st.characters(blacklist_categories=("Cs", "Cc")), min_size=1, max_size=30).filter(
    lambda text: text.strip() and "{" not in text and "}" not in text
)


@given(words)
def test_any_translation_comes_back_letter_by_letter(text: str) -> None:
    found = read_po(translated({"baseline/ready": text}), shop(), "de-DE")
    assert [c.after for c in found.changes] == [text]
