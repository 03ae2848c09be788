"""Looks on the command line: out in every form, and in again."""

import json
from pathlib import Path
from typing import Any

import pytest

from uptick.wiring import Wiring

AT = ("--place", "product_page", "--product", "A1", "--store", "sample")
THEME = ".buy { background: #123456; color: #fff; padding: calc(.5rem + 1px) 18px; filter: blur(2px) }"


def _fill(database: Wiring) -> Any:
    with database.open_shop("sample") as shop:
        layers = shop.drafts.read().settings
        return layers.placements.get("product_page", {}).get("look", {}).get("fill")  # type: ignore[call-overload]


def test_a_look_goes_out_in_every_form(run: Any, told: Wiring) -> None:
    code, text, _ = run("look", "take", "text", *AT)
    assert (code, "filled" in text) == (0, True)
    assert ".button" in run("look", "take", "css", *AT)[1]
    assert "$type" in run("look", "take", "tokens", *AT)[1]
    assert json.loads(run("look", "take", "json", *AT)[1])["look"]["fill"]["colour"] == "#3a2a12"


def test_css_comes_in_and_what_was_not_understood_is_said(run: Any, told: Wiring, tmp_path: Path) -> None:
    file = tmp_path / "theme.css"
    file.write_text(THEME)
    code, out, _ = run("look", "bring", str(file), "--dry-run", *AT)
    assert code == 1
    assert "fill: #3a2a12 → #123456" in out
    assert "padding above: 12 → 9" in out
    assert "not understood: filter: blur(2px)" in out
    assert out.strip().splitlines()[-1].startswith(".buy: ")
    assert _fill(told) is None
    code, out, _ = run("look", "bring", str(file), "--only", "padding", *AT)
    assert _fill(told) is None
    assert "fill" not in out.split("\n")[0]
    run("look", "bring", str(file), *AT)
    assert _fill(told) == {"kind": "solid", "colour": "#123456"}
    code, out, _ = run("look", "bring", str(file), "--json", *AT)
    assert json.loads(out)["changes"] == []


def test_tokens_that_were_taken_come_in_again_as_the_same_look(run: Any, told: Wiring, tmp_path: Path) -> None:
    file = tmp_path / "look.json"
    before = run("look", "take", "css", *AT)[1]
    file.write_text(run("look", "take", "tokens", *AT)[1])
    code, out, _ = run("look", "bring", str(file), *AT)
    assert (code, out.strip().splitlines()[-1].endswith("0 not understood")) == (0, True)
    assert run("look", "take", "css", *AT)[1] == before


@pytest.mark.parametrize(
    ("arguments", "says"),
    [
        (["nowhere.css"], "a readable file"),
        (["FILE", "--only", "hat"], "one of size, padding"),
        (["FILE", "--layer", "exception:e9"], "no layer"),
        (["FILE", "--selector", ".hat"], "hat"),
    ],
)
def test_what_cannot_be_brought_ends_with_2_and_a_sentence(
    run: Any,
    told: Wiring,
    tmp_path: Path,
    arguments: list[str],
    says: str,
) -> None:
    file = tmp_path / "theme.css"
    file.write_text(THEME)
    code, _, err = run("look", "bring", *[str(file) if argument == "FILE" else argument for argument in arguments], *AT)
    assert code == 2
    assert says in err
