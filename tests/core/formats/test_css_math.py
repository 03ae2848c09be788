from fractions import Fraction
from typing import Any

import pytest
import tinycss2
from hypothesis import given
from hypothesis import strategies as st

from uptick.core.formats.css_errors import NotUnderstood
from uptick.core.formats.css_math import computed
from uptick.core.formats.css_values import length


def read(text: str) -> Any:
    return length(tinycss2.parse_component_value_list(text))


@pytest.mark.parametrize(
    ("text", "comes_to"),
    [
        ("calc(1.5rem + 1px)", 25),
        ("calc(2 * 8px)", 16),
        ("calc(8px * 2 - 10px / 4)", 13.5),
        ("calc((1rem + 4px) * 1.5)", 30),
        ("calc(1em + .25em)", "1.25em"),
        ("calc(50% - 0px)", "50%"),
        ("calc(1in)", 96),
        ("calc(12px - 12px)", 0),
        ("min(12px, 1rem)", 12),
        ("max(12px, 1rem, 0px)", 16),
        # The specification's example: clamp(MIN, VAL, MAX) is max(MIN, min(VAL, MAX)); the smallest wins over the most.
        ("clamp(10px, 4px, 30px)", 10),
        ("clamp(30px, 100px, 20px)", 30),
        ("calc(max(1rem, 10px) + min(1px, 2px))", 17),
    ],
)
def test_sums_come_to_one_length(text: str, comes_to: float | str) -> None:
    """Source: CSS Values 4, 10.1 and 10.2; a rem is 16 px, an inch 96 px (5.2)."""
    assert read(text) == comes_to


@pytest.mark.parametrize(
    ("text", "why"),
    [
        ("calc(100% - 3px)", "a sum of % and px"),
        ("calc(1px+2px)", "no sum"),
        ("calc(1px * 2px)", "no product"),
        ("calc(4 / 2px)", "no product"),
        ("calc(1px / 0)", "no product"),
        ("calc(3)", "without a unit"),
        ("calc(1em - 2em)", "less than nothing"),
        ("calc(1lh + 1px)", "the unit lh"),
        ("min(1px, 50%)", "a choice between"),
        ("clamp(1px, 2px)", "three"),
        ("calc()", "no sum"),
    ],
)
def test_what_only_a_page_could_add_up_is_said(text: str, why: str) -> None:
    with pytest.raises(NotUnderstood, match=why):
        read(text)


Sum = tuple[str, Fraction]
numbers = st.integers(-50, 50).map(lambda n: (str(n), Fraction(n)))


def _plus(pair: tuple[Sum, Sum]) -> Sum:
    (a, x), (b, y) = pair
    return f"({a} + {b})", x + y


def _minus(pair: tuple[Sum, Sum]) -> Sum:
    (a, x), (b, y) = pair
    return f"({a} - {b})", x - y


def _times(pair: tuple[Sum, Sum]) -> Sum:
    (a, x), (b, y) = pair
    return f"({a} * {b})", x * y


def _deeper(inner: st.SearchStrategy[Sum]) -> st.SearchStrategy[Sum]:
    pairs = st.tuples(inner, inner)
    return pairs.map(_plus) | pairs.map(_minus) | pairs.map(_times)


@given(st.recursive(numbers, _deeper, max_leaves=8))
def test_nested_sums_are_exact_arithmetic(made: Sum) -> None:
    """Reference: Python's fractions."""
    text, exact = made
    token = tinycss2.parse_one_component_value(f"calc({text} * 1px)")
    amount, unit = computed(token)
    assert unit == "px"
    assert amount == pytest.approx(float(exact), abs=1e-3)
