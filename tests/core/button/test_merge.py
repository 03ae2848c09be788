from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from uptick.core.button.merge import at_path, leaves, merge_layer, merge_patch, patch_at, without_gaps

# Reference: RFC 7396, appendix A, its example test cases in its order.
RFC_7396 = [
    ({"a": "b"}, {"a": "c"}, {"a": "c"}),
    ({"a": "b"}, {"b": "c"}, {"a": "b", "b": "c"}),
    ({"a": "b"}, {"a": None}, {}),
    ({"a": "b", "b": "c"}, {"a": None}, {"b": "c"}),
    ({"a": ["b"]}, {"a": "c"}, {"a": "c"}),
    ({"a": "c"}, {"a": ["b"]}, {"a": ["b"]}),
    ({"a": {"b": "c"}}, {"a": {"b": "d", "c": None}}, {"a": {"b": "d"}}),
    ({"a": [{"b": "c"}]}, {"a": [1]}, {"a": [1]}),
    (["a", "b"], ["c", "d"], ["c", "d"]),
    ({"a": "b"}, ["c"], ["c"]),
    ({"a": "foo"}, None, None),
    ({"a": "foo"}, "bar", "bar"),
    ({"e": None}, {"a": 1}, {"e": None, "a": 1}),
    ([1, 2], {"a": "b", "c": None}, {"a": "b"}),
    ({}, {"a": {"bb": {"ccc": None}}}, {"a": {"bb": {}}}),
]

values = st.recursive(
    st.none() | st.booleans() | st.integers(-9, 9) | st.text(max_size=3),
    lambda inner: st.lists(inner, max_size=3) | st.dictionaries(st.sampled_from("abc"), inner, max_size=3),
    max_leaves=8,
)
layers = st.dictionaries(st.sampled_from("abc"), values, max_size=3)


@pytest.mark.parametrize(("target", "patch", "expect"), RFC_7396)
def test_the_examples_of_the_standard_hold(target: Any, patch: Any, expect: Any) -> None:
    assert merge_patch(target, patch) == expect


@pytest.mark.parametrize(("target", "patch", "expect"), RFC_7396)
def test_a_layer_without_tagged_values_is_a_plain_merge_patch(target: Any, patch: Any, expect: Any) -> None:
    assert merge_layer(target, patch) == expect


@given(values, layers)
def test_a_layer_applied_twice_changes_nothing_more(target: Any, layer: dict[str, Any]) -> None:
    once = merge_layer(target, layer)
    assert merge_layer(once, layer) == once


@given(values, layers)
def test_merging_leaves_what_it_is_given_untouched(target: Any, layer: dict[str, Any]) -> None:
    before = repr(target), repr(layer)
    merge_layer(target, layer)
    assert (repr(target), repr(layer)) == before


def test_a_tagged_value_is_replaced_whole_and_never_mixed_across_kinds() -> None:
    target = {"icon": {"kind": "shipped", "name": "basket", "size_px": 18}}
    assert merge_layer(target, {"icon": {"kind": "none"}}) == {"icon": {"kind": "none"}}


def test_empty_texts_and_nulls_say_nothing_so_that_the_wider_rule_shows() -> None:
    layer = {"wording": {"ready": {"en-GB": "  "}, "added": {"en-GB": "Done"}}, "look": {"radius": None}}
    assert without_gaps(layer) == {"wording": {"added": {"en-GB": "Done"}}}


@given(layers)
def test_what_is_left_without_gaps_has_no_gap(layer: dict[str, Any]) -> None:
    kept = without_gaps(layer)
    assert without_gaps(kept) == kept
    assert all(value is not None and value != "" for _, value in leaves(kept))


def test_a_patch_at_a_path_sets_just_that_field() -> None:
    patch = patch_at("look.padding.top", 9)
    assert patch == {"look": {"padding": {"top": 9}}}
    assert at_path(patch, "look.padding.top") == 9
    assert at_path(patch, "look.padding.left") is None
    assert list(leaves(patch)) == [("look.padding.top", 9)]
