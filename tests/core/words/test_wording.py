import json
from decimal import Decimal
from pathlib import Path
from typing import Any

import pytest
from babel.numbers import format_currency
from hypothesis import given
from hypothesis import strategies as st

from tests.samples import document, exception, product, settings, snapshot
from uptick.core.button.document import Moment, Placement
from uptick.core.errors import BadWording, OutOfRange
from uptick.core.fitting.fill import template_of, text_for
from uptick.core.resolved.classes import class_for, context_of
from uptick.core.resolved.resolve import resolve
from uptick.core.words.wording import (
    CATEGORIES,
    Live,
    MoneyRule,
    fill_text,
    live_names,
    money_rule,
    money_text,
    parse_text,
    plural_category,
    plural_table,
)

LANGUAGES = ["en-GB", "de-DE", "fr-FR", "en-IN", "pl-PL", "ja-JP"]
GOLDEN = json.loads((Path(__file__).parents[3] / "golden" / "words.json").read_text())


@given(
    st.sampled_from(LANGUAGES),
    st.sampled_from(["GBP", "EUR", "JPY", "INR"]),
    st.decimals(min_value=0, max_value=10**9, places=2),
)
def test_money_is_written_as_cldr_writes_it(language: str, currency: str, amount: Decimal) -> None:
    """Reference: Babel 2.18 (CLDR), format_currency; halves are compared apart, since Babel rounds them to even."""
    rule = money_rule(language, currency)
    if rule.digits == 0:
        amount = Decimal(int(amount))
    assert money_text(amount, rule) == format_currency(amount, currency, locale=language.replace("-", "_"))


@pytest.mark.parametrize("case", GOLDEN["money"], ids=lambda case: case["why"])
def test_the_golden_amounts_hold(case: dict[str, Any]) -> None:
    assert money_text(Decimal(case["given"]["amount"]), MoneyRule(**case["given"]["rule"])) == case["expect"]


@pytest.mark.parametrize("case", GOLDEN["texts"], ids=lambda case: case["why"])
def test_the_golden_texts_hold(case: dict[str, Any]) -> None:
    given = case["given"]
    assert fill_text(parse_text(given["text"]), given["values"], given.get("language", "en-GB")) == case["expect"]


def test_halves_go_away_from_zero_as_on_a_price_tag() -> None:
    yen = money_rule("ja-JP", "JPY")
    assert money_text(Decimal("2.5"), yen) == yen.prefix + "3"


def test_a_text_is_read_as_words_and_live_values() -> None:
    assert parse_text("Take {count}, {price}!") == ("Take ", Live("count"), ", ", Live("price"), "!")
    assert parse_text("") == ()


@pytest.mark.parametrize(
    ("text", "says"), [("{cost}", r"no live value \{cost\}"), ("Take {price", "no partner"), ("a } b", "no partner")]
)
def test_a_text_with_an_unknown_live_value_or_half_a_brace_is_refused(text: str, says: str) -> None:
    with pytest.raises(BadWording, match=says):
        parse_text(text)


@given(st.text(alphabet="ab {}pricename", max_size=20))
def test_reading_a_text_either_refuses_it_or_keeps_every_word(text: str) -> None:
    try:
        pattern = parse_text(text)
    except BadWording:
        return
    values = {n: f"{{{n}}}" for n in ("price", "name", "code")}
    kept = text.replace("{ ", "{").replace(" }", "}")
    assert fill_text(pattern, values, "en-GB") == kept or any(isinstance(part, Live) for part in pattern)


def test_an_unknown_language_is_refused() -> None:
    with pytest.raises(OutOfRange, match="language"):
        money_rule("xx-QQ", "GBP")


def test_a_moment_without_words_says_what_ready_says() -> None:
    bare = document({"wording": {"added": None}})
    assert template_of(bare, Moment.ADDED, "en-GB") == "Buy"


def test_live_values_are_filled_for_the_product() -> None:
    made = document({"wording": {"ready": {"en-GB": "{name}: {price}"}}})
    assert text_for(made, Moment.READY, "en-GB", product("A1")) == "Thing A1: £12.50"
    assert text_for(made, Moment.IN_BASKET, "en-GB", product("A1"), 3) == "3 in basket"


CLDR_SAMPLES = {
    "en-GB": {1: "one", 0: "other", 2: "other", 21: "other"},
    "fr-FR": {0: "one", 1: "one", 2: "other", 1_000_000: "many"},
    "pl-PL": {1: "one", 2: "few", 5: "many", 12: "many", 22: "few", 112: "many"},
    "ar": {0: "zero", 1: "one", 2: "two", 3: "few", 10: "few", 11: "many", 99: "many", 100: "other", 103: "few"},
    "ru-RU": {1: "one", 21: "one", 2: "few", 11: "many", 25: "many"},
    "ja-JP": {0: "other", 1: "other"},
}


@pytest.mark.parametrize("language", CLDR_SAMPLES)
def test_plural_categories_are_those_of_the_samples(language: str) -> None:
    """Reference: CLDR, plurals.xml, the @integer samples of its cardinal rules, from memory."""
    for number, category in CLDR_SAMPLES[language].items():
        assert plural_category(language, number) == category


@pytest.mark.parametrize("language", ["en-GB", "fr-FR", "pl-PL", "ar", "ru-RU", "ja-JP", "lt-LT", "cy-GB", "ga-IE"])
def test_the_scripts_table_holds_for_every_number_below_a_million(language: str) -> None:
    """Reference: Babel 2.18, its own CLDR plural rules, number by number."""
    table = plural_table(language)
    for number in (*range(1_200), 9_999, 10_001, 10_011, 99_921, 999_999):
        told = CATEGORIES[int(table[number if number < 200 else 100 + number % 100])]
        assert told == plural_category(language, number), number


def test_a_plural_is_read_with_its_exact_numbers_and_its_count() -> None:
    pattern = parse_text("{count, plural, =0 {none} one {one of {name}} other {# in the skep}}!")
    filled = [fill_text(pattern, {"count": str(n), "name": "it"}, "en-GB") for n in (0, 1, 12)]
    assert filled == ["none!", "one of it!", "12 in the skep!"]
    assert live_names(pattern) == {"count", "name"}


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("{count, plural, one {x}}", "lacks the form “other”"),
        ("{count, plural, some {x} other {y}}", "no plural form 'some'"),
        ("{name, plural, other {x}}", "nothing that is known"),
        ("{count, select, other {x}}", "nothing that is known"),
        ("{count, plural, other {x}", "no partner"),
        ("{count, plural, other {x", "no partner"),
        ("{count", "no partner"),
    ],
)
def test_a_plural_that_is_none_is_refused(text: str, says: str) -> None:
    with pytest.raises(BadWording, match=says):
        parse_text(text)


def test_a_live_value_stays_apart_where_directions_meet() -> None:
    assert fill_text(("x ", Live("code")), {"code": "A1"}, "ar") == "x \u2068A1\u2069"
    assert fill_text(("x ", Live("name")), {"name": "خلية"}, "en-GB") == "x \u2068خلية\u2069"
    assert fill_text(("x ", Live("name")), {"name": "Hive"}, "en-GB") == "x Hive"


def test_plurals_within_plurals_end() -> None:
    with pytest.raises(BadWording, match="nested more than 4 deep"):
        parse_text("{count, plural, other {" * 3000)


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("Add · {price}", "Add"),
        ("Take it home, {price}", "Take it home"),
        ("{price} · Add", "Add"),
        ("Save {saving} now", "Save now"),
        ("Buy ({price})", "Buy"),
        ("{price}", "Thing A2"),
    ],
)
def test_a_text_without_its_value_loses_what_joined_it(text: str, says: str) -> None:
    made = document({"wording": {"ready": {"en-GB": text}}})
    assert text_for(made, Moment.READY, "en-GB", product("A2", price_minor=None)) == says


def test_a_product_without_a_price_says_the_next_wider_text_that_needs_none() -> None:
    narrow = exception(1, {"wording": {"ready": {"en-GB": "Mine for {price}"}}}, products=("A1",))
    of = settings(narrow, product_page={"wording": {"ready": {"en-GB": "Here for {price}"}}})
    unpriced = product("A1", price_minor=None)
    context = context_of(Placement.PRODUCT_PAGE, unpriced)
    for made in (resolve(of, context), class_for(snapshot(of, [unpriced]), context).document):
        assert text_for(made, Moment.READY, "en-GB", product("A1")) == "Mine for £12.50"
        assert text_for(made, Moment.READY, "en-GB", unpriced) == "Buy"
        assert made.texts(Moment.READY, "en-GB") == ("Mine for {price}", "Here for {price}", "Buy")
