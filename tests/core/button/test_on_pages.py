"""Paths with stars: as a shell's own reader of them has it, and in time that grows with the path alone."""

import fnmatch
import re

import pytest
from hypothesis import given
from hypothesis import strategies as st

from uptick.core.button.on_pages import path_pattern

letters = st.text("ab*", max_size=8)


@given(st.lists(letters, min_size=1, max_size=3), st.text("ab", max_size=10))
def test_a_star_stands_for_anything_as_shells_have_it(globs: list[str], path: str) -> None:
    """Reference: Python 3.11's fnmatch, after POSIX.1-2017, XCU 2.13."""
    wanted = any(re.fullmatch(fnmatch.translate(f"/{glob}"), f"/{path}") for glob in globs)
    assert bool(re.search(path_pattern(tuple(f"/{glob}" for glob in globs)), f"/{path}")) is wanted


@pytest.mark.parametrize("glob", ["/*a*a*a*a*a*a*b", "/***************b", "/*" + "a*" * 100 + "b"])
def test_many_stars_take_no_longer_than_one(glob: str) -> None:
    # With backtracking this would not end in the age of the universe.
    assert not re.search(path_pattern((glob,)), "/" + "a" * 5000)
