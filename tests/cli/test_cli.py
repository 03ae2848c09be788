"""The command line as a person or a program calls it."""

import json
import re
import subprocess
import sys
from pathlib import Path
from typing import Any

import pytest
from scipy.stats import norm

from tests.samples import NOW
from tests.usecases.fakes import ADA
from uptick.usecases.edit import change_layer, set_languages
from uptick.wiring import Wiring

CALC: list[tuple[list[str], int, dict[str, Any]]] = [
    # Reference: Newcombe (1998), method 10; Wilson as in the same paper's companion; WCAG 2.2; Fleiss (2003).
    (["compare", "56/70", "48/80"], 0, {"difference": 0.2, "low": 0.0524, "high": 0.3339}),
    (["interval", "81/263"], 0, {"low": 0.2553, "high": 0.3662}),
    (["contrast", "#767676", "white"], 0, {"ratio": 4.54, "usual_text": True}),
    (["contrast", "#777", "white"], 1, {"ratio": 4.47, "usual_text": False, "large_text": True}),
    (["plan", "--rate", "0.05", "--to", "0.06"], 0, {"per_version": 8158, "total": 16316}),
    (["split", "5000", "5300"], 0, {"p_value": 0.003118, "holds": True}),
    (["split", "5000", "5600"], 1, {"holds": False}),
    (["split", "300", "700", "--shares", "3,7"], 0, {"p_value": 1.0}),
    (["assign", "7f:version", "ps-0000000000000001"], 0, {}),
]


@pytest.mark.parametrize(("arguments", "code", "expect"), CALC, ids=lambda value: str(value)[:40])
def test_calculations_print_what_their_sources_say(run: Any, arguments: list[str], code: int, expect: Any) -> None:
    ended, out, _ = run("calc", *arguments, "--json")
    assert ended == code
    told = json.loads(out)
    for name, value in expect.items():
        assert told[name] == (pytest.approx(value, abs=5e-5) if isinstance(value, float) else value)
    assert run("calc", *arguments)[0] == code


BAD: list[tuple[list[str], str]] = [
    (["compare", "56:70", "48/80"], "56/70, hits of tries"),
    (["compare", "71/70", "48/80"], "from 0 to 70"),
    (["contrast", "beeswax", "white"], "is not a colour"),
    (["plan", "--rate", "0.05", "--to", "0.05"], "different from the rate"),
    (["plan", "--rate", "5", "--to", "6"], "between 0 and 1"),
    (["split", "5000"], "two or more counts"),
    (["split", "1", "2", "--shares", "a,b"], "numbers divided by commas"),
]


@pytest.mark.parametrize(("arguments", "says"), BAD)
def test_bad_input_ends_with_2_and_a_sentence(run: Any, arguments: list[str], says: str) -> None:
    code, out, err = run("calc", *arguments)
    assert (code, out) == (2, "")
    assert says in err
    assert "Traceback" not in err


def test_importing_and_releasing_without_screens(run: Any, database: Wiring, tmp_path: Path) -> None:
    file = tmp_path / "goods.csv"
    file.write_text("sku,name,category,price,currency,url\nA,Thing,Tools,1.00,GBP,/a\nB,Thing,Tools,x,GBP,/b\n")
    code, out, _ = run("import", str(file), "--store", "sample")
    assert code == 1
    assert "line 2: new A" in out
    assert "line 3: refused, price is 'x'; write it as 12.50" in out
    code, out, _ = run("import", str(file), "--store", "sample", "--json")
    assert json.loads(out)["counts"]["unchanged"] == 1
    code, out, _ = run("release", "--store", "sample", "--note", "first", "--json")
    assert (code, json.loads(out)["release"]) == (0, 1)
    code, _, err = run("release", "--store", "sample")
    assert (code, err) == (2, "uptick: Nothing has changed since release 1.\n")
    with database.open_shop("sample") as shop:
        pale = {"look": {"fill": {"kind": "solid", "colour": "#eeeeee"}}}
        change_layer(shop, "baseline", pale, shop.drafts.read().version, ADA, NOW)
    assert run("release", "--store", "sample")[0] == 2
    assert run("release", "--store", "sample", "--despite", "findings")[0] == 0


def test_what_is_not_there_is_said(run: Any, database: Wiring, tmp_path: Path) -> None:
    assert "no store 'nowhere'" in run("release", "--store", "nowhere")[2]
    assert "no trial 4" in run("readout", "4", "--store", "sample")[2]
    assert "readable file" in run("import", str(tmp_path / "none.csv"), "--store", "sample")[2]


def test_a_database_or_a_shop_that_does_not_answer_is_said(run: Any, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("UPTICK_DATABASE_URL", "postgresql+psycopg://nobody@127.0.0.1:1/none")
    code, _, err = run("release")
    assert (code, err) == (2, "uptick: the database does not answer. Is ./start running?\n")
    code, _, err = run("simulate", "--practice", "http://127.0.0.1:1")
    assert code == 2
    assert "the practice store does not answer" in err
    assert "three shares" in run("simulate", "--a", "0.4,0.3")[2]


def test_a_button_is_resolved_and_a_value_traced_without_screens(run: Any, told: Wiring) -> None:
    at = ("--product", "A1", "--place", "strip", "--device", "desktop", "--store", "sample")
    code, out, _ = run("resolve", *at, "--json")
    resolved = json.loads(out)
    assert (code, resolved["document"]["look"]["radius"], resolved["exceptions"]) == (0, 9, ["e1"])
    assert "exceptions: Only A1 (e1)" in run("resolve", *at)[1]
    code, out, _ = run("trace", "wording.ready.en-GB", *at, "--json")
    assert [c["value"] for c in json.loads(out)["candidates"]] == ["Just this", "Buy"]
    assert "1  Only A1: “Just this”  [wins]  asked for (Ada)" in run("trace", "wording.ready.en-GB", *at)[1]
    code, _, err = run("trace", "look.no_such_field", *at)
    assert (code, err) == (1, "uptick: no layer sets look.no_such_field there.\n")
    code, _, err = run("resolve", "--product", "Z9", "--store", "sample")
    assert (code, err) == (2, "uptick: No product has the code 'Z9'.\n")
    assert "one of en-GB" in run("resolve", *at, "--language", "de-DE")[2]


def test_the_check_is_a_gate_that_fails_when_something_must_be_fixed(run: Any, told: Wiring) -> None:
    code, out, _ = run("check", "--store", "sample")
    assert (code, out.strip().splitlines()[-1]) == (0, "0 must fix, 0 look again, 0 note")
    with told.open_shop("sample") as shop:
        pale = {"look": {"fill": {"kind": "solid", "colour": "#eeeeee"}}}
        change_layer(shop, "baseline", pale, shop.drafts.read().version, ADA, NOW)
    code, out, _ = run("check", "--store", "sample")
    assert code == 1
    assert out.startswith("must fix: Words at rest 1.16 : 1, 4.5 is needed.")
    code, out, _ = run("check", "--store", "sample", "--json")
    assert json.loads(out)[0]["rule"] == "contrast"


@pytest.mark.parametrize("form", ["csv", "jsonld"])
def test_a_catalogue_goes_out_and_in_again(run: Any, told: Wiring, tmp_path: Path, form: str) -> None:
    code, out, _ = run("export", form, "--store", "sample")
    assert code == 0
    file = tmp_path / "goods"
    file.write_text(out)
    code, out, _ = run("import", str(file), "--store", "sample", "--dry-run")
    assert code == 0
    assert out.splitlines()[-1] == "0 new, 0 changed, 7 unchanged, 0 not in the file, 0 refused (nothing applied)"


def test_a_file_that_would_empty_the_shop_exits_2_until_somebody_means_it(
    run: Any, told: Wiring, tmp_path: Path
) -> None:
    file = tmp_path / "goods.csv"
    file.write_text("sku,name,category,price,currency,url\n")
    code, out, _ = run("import", str(file), "--store", "sample", "--whole", "--dry-run")
    assert code == 0
    assert "warning: It would remove 7 of 7 products, since the file does not name them. It needs --really." in out
    code, _, err = run("import", str(file), "--store", "sample", "--whole")
    assert code == 2
    assert "It would remove 7 of 7 products" in err
    code, out, _ = run("import", str(file), "--store", "sample", "--whole", "--really", "--json")
    assert code == 0
    assert json.loads(out)["counts"]["missing"] == 7


def test_texts_and_settings_go_out_and_texts_in(run: Any, told: Wiring, tmp_path: Path) -> None:
    with told.open_shop("sample") as shop:
        set_languages(shop, ["de-DE"], shop.drafts.read().version, ADA, NOW)
    file = tmp_path / "de.po"
    po = run("export", "po", "--language", "de-DE", "--store", "sample")[1]
    file.write_text(po.replace('msgid "Buy"\nmsgstr ""', 'msgid "Buy"\nmsgstr "Kaufen"'))
    code, out, _ = run("import", str(file), "--language", "de-DE", "--store", "sample")
    assert (code, out) == (0, "Store baseline, ready: nothing → Kaufen\n1 changed, 0 unchanged, 0 refused\n")
    settings = json.loads(run("export", "settings", "--store", "sample")[1])
    assert settings["baseline"]["wording"]["ready"]["de-DE"] == "Kaufen"
    assert run("export", "po", "--language", "fr-FR", "--store", "sample")[0] == 2


ODD = [
    (("calc", "interval", "²/³"), "written as 56/70"),
    (("calc", "interval", "1/" + "9" * 400), "at most 15 figures"),
    (("calc", "interval", "0/0"), "from 1 to"),
    (("calc", "interval", "1/2", "--level", "nan"), "between 0 and 1"),
    (("calc", "plan", "--rate", "nan", "--to", "0.06"), "between 0 and 1"),
    (("calc", "plan", "--rate", "0.05", "--to", "0.06", "--alpha", "0"), "between 0 and 1"),
    (("calc", "contrast", "color(srgb 1e999 0 0)", "white"), "beyond all colours"),
    (("calc", "split", "--shares", "nan,1", "5", "5"), "from 1e-06"),
    (("calc", "split", "--shares", "1e-320,1", "5", "5"), "from 1e-06"),
    (("calc", "split", "9" * 40, "5"), "two or more counts"),
    (("calc", "split", "x", "5"), "Input should be a valid integer|not a valid"),
    (("readout", "99999999999", "--store", "sample"), "2147483647"),
    (("readout", "1", "--store", "s\udcff"), "There is no store"),
    (("resolve", "--product", "", "--store", "sample"), "--product must be the code of a product"),
    (("trace", "look.radius", "--product", " ", "--store", "sample"), "--product must be the code of a product"),
    (("import", "no\0file", "--store", "sample"), "null byte"),
    (("no-such-command",), "No such command"),
    (("import", "x" * 20_000, "--store", "sample"), "a readable file"),
    (("simulate", "--practice", "nonsense://x"), "it could not be done|does not answer"),
]


@pytest.mark.parametrize(("arguments", "says"), ODD)
def test_an_odd_value_ends_with_2_and_says_what_is_allowed(
    run: Any, told: Wiring, arguments: tuple[str, ...], says: str
) -> None:
    code, out, err = run(*arguments)
    assert (code, out) == (2, "")
    assert re.search(says, err), err
    assert "Traceback" not in err


def test_a_tiny_alpha_is_planned_with_and_what_is_printed_as_json_is_json(run: Any) -> None:
    """Reference: scipy.stats.norm, isf(5e-301)."""
    code, out, _ = run("calc", "plan", "--rate", "0.05", "--to", "0.06", "--alpha", "1e-300", "--json")
    assert code == 0
    told = json.loads(out)
    z, power = float(norm.isf(5e-301)), float(norm.ppf(0.8))
    mean = (0.05 + 0.06) / 2
    expected = (z * (2 * mean * (1 - mean)) ** 0.5 + power * (0.05 * 0.95 + 0.06 * 0.94) ** 0.5) ** 2 / 0.01**2
    assert told["per_version"] == pytest.approx(expected, rel=1e-6)
    code, out, _ = run("calc", "split", "5", "100000", "--json")
    assert (code, json.loads(out)["holds"]) == (1, False)


def test_a_fault_of_ours_ends_with_2_and_one_line(run: Any, told: Wiring, monkeypatch: pytest.MonkeyPatch) -> None:
    def broken(*_: object) -> None:
        raise RuntimeError("the shelf fell down")

    monkeypatch.setattr("uptick.cli.ask.class_for", broken)
    code, _, err = run("resolve", "--product", "A1", "--store", "sample")
    assert code == 2
    assert "a fault of ours: RuntimeError: the shelf fell down" in err
    assert len(err.splitlines()) == 1


def test_a_command_loads_only_what_it_needs() -> None:
    """What takes seconds to load must not be loaded by what computes in microseconds."""
    heavy = ("sqlalchemy", "scipy", "statsmodels", "pandas", "fastapi", "uharfbuzz", "numpy")
    code = (
        "import sys; from uptick.cli import main\n"
        "try: main(['calc', 'compare', '56/70', '48/80'])\n"
        "except SystemExit: pass\n"
        f"print([name for name in {heavy} if name in sys.modules])"
    )
    told = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=True).stdout
    assert told.splitlines()[-1] == "[]"
    needless = ("scipy", "statsmodels", "fastapi", "alembic")
    code = f"import sys, uptick.cli.ask; print([name for name in {needless} if name in sys.modules])"
    told = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=True).stdout
    assert told.splitlines()[-1] == "[]"


def test_code_for_outside_is_printed_and_its_pictures_kept(run: Any, told: Wiring, tmp_path: Path) -> None:
    code, out, err = run("outside", "--product", "A1", "--as", "mail", "--campaign", "May", "--store", "sample")
    assert code == 0
    assert "/s/sample/go/" in out
    assert ">Just this</a>" in out
    assert "the next one of the list is taken" in err
    code, out, _ = run("outside", "--product", "A1", "--as", "mail", "--campaign", "May", "--store", "sample", "--json")
    assert json.loads(out)["buttons"][0]["words"] == "Just this"
    with told.open_shop("sample") as shop:
        assert [(button.of.kind, button.of.campaign, button.author) for button in shop.outside.all()] == [
            ("mail", "May", "command line")
        ]
    code, _, err = run(
        "outside", "--product", "A1", "--as", "picture", "--out", str(tmp_path / "o"), "--store", "sample"
    )
    kept = sorted(file.name.split("-", 1)[1][10:] for file in (tmp_path / "o").iterdir())
    assert (code, kept) == (0, [".svg", "@1x.png", "@2x.png", "@3x.png"])


OUTSIDE = [
    (["--product", "Z9"], "No product has the code 'Z9'."),
    (["--product", " "], "--product must be the code of a product"),
    (["--product", "A1", "--across", "5"], "--across must be 1, 2, 3 or 4; it is 5."),
    (["--product", "A1", "--drawn", "neon"], "as_drawn, filled or outlined; it is neon."),
    (["--product", "A1", "--leads", "moon"], "page or basket; it is moon."),
    (["--product", "C1", "--as", "form"], "never reaches a basket"),
    (["--product", "A1", "--out", "x"], "--out must be used with --as picture"),
]


@pytest.mark.parametrize(("arguments", "says"), OUTSIDE)
def test_code_that_cannot_be_made_says_what_is_allowed(run: Any, told: Wiring, arguments: list[str], says: str) -> None:
    code, _, err = run("outside", *arguments, "--store", "sample")
    assert code == 2
    assert says in err
