import json
from decimal import Decimal
from pathlib import Path
from typing import Any

import pytest
from babel.numbers import format_currency
from hypothesis import given
from hypothesis import strategies as st

from tests.samples import document, product
from uptick.core.document import Moment
from uptick.core.errors import BadWording, OutOfRange
from uptick.core.fill import template_of, text_for
from uptick.core.wording import Live, MoneyRule, fill_text, money_rule, money_text, parse_text

LANGUAGES = ["en-GB", "de-DE", "fr-FR", "en-IN", "pl-PL", "ja-JP"]
GOLDEN = json.loads((Path(__file__).parents[2] / "golden" / "words.json").read_text())


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
