"""Which names in a page's code will last, tried on names that neither we nor our tests have made."""

import json
import re
import subprocess

import pytest

from tests.strangers import HERE
from uptick.core.pages.names import is_for_looks, is_generated, is_lasting, is_of_tools, is_state


@pytest.fixture(scope="module")
def made_up() -> dict[str, list[str]]:
    script = HERE.parent / "names.mjs"
    done = subprocess.run(["node", str(script)], capture_output=True, text=True, timeout=120)
    assert done.returncode == 0, done.stderr
    found: dict[str, list[str]] = json.loads(done.stdout)
    return found


@pytest.mark.parametrize("tool", ["emotion", "goober", "jss", "css modules", "lightningcss", "svelte"])
def test_names_that_tools_make_up_are_not_taken_for_lasting(made_up: dict[str, list[str]], tool: str) -> None:
    """Reference: the names of emotion 11.13, goober 2.1, jss 10.10, postcss-modules 9.0, lightningcss and svelte.

    A name of four or five letters that happens to read like a word is not told from one; those are the few.
    """
    names = made_up[tool]
    assert len(names) >= 200
    lasting = [name for name in names if is_lasting(name)]
    assert len(lasting) <= 0.08 * len(names), lasting
    assert len([name for made in made_up.values() for name in made if is_lasting(name)]) <= 0.02 * sum(
        map(len, made_up.values())
    )


def test_names_that_people_gave_are_never_taken_for_made_up() -> None:
    """Reference: every class of the stylesheets of the open-source libraries in tests/strangers, over 17,000."""
    names: set[str] = set()
    for file in HERE.rglob("*.css"):
        if not file.is_file():
            continue
        text = file.read_text(errors="ignore")
        bare = re.sub(r'url\([^)]*\)|/\*.*?\*/|"[^"]*"', "", text, flags=re.DOTALL)
        names |= set(re.findall(r"\.(-?[a-zA-Z_][\w-]*)", bare))
    assert len(names) > 15_000
    assert sorted(name for name in names if is_generated(name)) == []


@pytest.mark.parametrize("name", ["is-open", "active", "lazyloaded", "has-image", "js"])
def test_a_state_comes_and_goes(name: str) -> None:
    assert is_state(name)
    assert not is_lasting(name)


@pytest.mark.parametrize("name", ["mt-4", "md:w-1/2", "text-center", "col-6", "flex", "bg-white", "w-[12px]"])
def test_what_says_how_a_thing_looks_goes_when_it_looks_otherwise(name: str) -> None:
    assert is_for_looks(name)
    assert not is_lasting(name)


@pytest.mark.parametrize("name", ["product-form__submit", "add-to-cart", "price", "card__buy", "addToCart", "btn"])
def test_what_says_what_a_thing_is_lasts(name: str) -> None:
    assert is_lasting(name)


def test_attributes_of_tools_are_nobodys_mark() -> None:
    names = ("data-v-7ba5bd90", "data-reactid", "data-up-place", "data-action")
    assert [name for name in names if not is_of_tools(name)] == ["data-action"]
