import random
import tracemalloc
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.samples import document, kit
from uptick.core.button.look import Look
from uptick.core.button.merge import Json, at_path
from uptick.core.colour.dress import REST, dresses, ring_colour
from uptick.core.drawing.css import border
from uptick.core.errors import BadCss
from uptick.core.formats.css_in import read_css
from uptick.core.formats.css_out import write_css
from uptick.core.looks.carry import completed

THEME = """
:root { --brand: #3a2a12; --round: 8px; --shadow: 0 2px 4px rgb(0 0 0 / .3), inset 0 0 2px #fff }
.nav a { color: blue }
.shop .add-to-cart, .shop .other {
  background: var(--brand); color: var(--words, #fff); padding: 12px 1.5em; border-radius: var(--round) 0;
  border: 2px dashed rgba(0, 0, 0, .5); font: 600 16px/1.2 Georgia, serif; box-shadow: var(--shadow);
  transition: background .2s ease-in .1s; filter: blur(2px); letter-spacing: .05em; text-transform: uppercase;
  width: calc(100% - 3px); opacity: .9 !important; opacity: .5; cursor: pointer
}
.shop .add-to-cart:hover { background: linear-gradient(to right, red 0%, blue 80%); padding: 3px }
.shop .add-to-cart:focus-visible { outline: 3px solid #00f; outline-offset: 2px }
.shop .add-to-cart:active { box-shadow: none }
.shop .add-to-cart[disabled] { background: #eee; color: gray }
.shop .add-to-cart::before { content: "x" }
@media (max-width: 600px) { .shop .add-to-cart { padding: 4px } }
"""


def test_a_themes_button_is_read_with_its_properties_shorthands_and_states() -> None:
    """Source: the CSS specifications of each property; the values are worked out by hand."""
    read = read_css(THEME)
    look = read.layer["look"]
    assert read.selector == ".shop .add-to-cart"
    assert look["fill"] == {"kind": "solid", "colour": "#3a2a12"}
    assert look["text_colour"] == "#ffffff"
    assert look["padding"] == {"top": 12, "right": "1.5em", "bottom": 12, "left": "1.5em"}
    assert look["radius"] == {
        "kind": "corners", "top_left": 8, "top_right": 0, "bottom_right": 8, "bottom_left": 0,
    }  # fmt: skip
    assert look["border"] == {"kind": "line", "width_px": 2, "style": "dashed", "colour": "#00000080"}
    assert look["type"] == {
        "weight": 600, "size_px": 16, "line": 1.2, "family": "lora", "letter_spacing_px": 0.8, "case": "upper",
        "slant": "upright",
    }  # fmt: skip
    assert [(shadow["y_px"], shadow["blur_px"], shadow["inner"]) for shadow in look["shadows"]["list"]] == [
        (2, 4, False), (0, 2, True),
    ]  # fmt: skip
    assert look["motion"] == {"kind": "motion", "duration_ms": 200, "delay_ms": 100, "curve": "ease-in"}
    assert look["opacity"] == 0.9
    assert look["hover"]["fill"] == {
        "kind": "linear", "space": "srgb", "angle_deg": 90, "repeats": False,
        "stops": [{"at": 0, "colour": "#ff0000"}, {"at": 80, "colour": "#0000ff"}],
    }  # fmt: skip
    ring = {"ring_width_px": 3, "ring_colour": "#0000ff", "ring_offset_px": 2}
    assert {name: look["focus"][name] for name in ring} == ring
    # A state that rules speak of is said in full: what they leave as at rest is not derived either.
    assert look["pressed"] == {
        **{name: look[name] for name in ("fill", "text_colour", "border", "opacity", "motion")},
        "shadows": {"kind": "cast", "list": []},
    }
    assert look["disabled"]["fill"] == {"kind": "solid", "colour": "#eeeeee"}
    assert look["disabled"]["text_colour"] == "#808080"


def test_what_was_not_understood_is_listed() -> None:
    left_out = "\n".join(read_css(THEME).left_out)
    for said in ("filter: blur(2px)", "width: calc(100% - 3px)", "@media (max-width: 600px)", "when hovered: padding"):
        assert said in left_out
    assert "::before" in left_out
    assert "cursor" not in left_out


def test_another_selector_can_be_read_and_bare_declarations_too() -> None:
    assert read_css(THEME, ".nav a").layer == {"look": {"text_colour": "#0000ff"}}
    with pytest.raises(BadCss, match=r"no rule for '\.no'"):
        read_css(THEME, ".no")
    bare = read_css("background: #123; padding: 1px 2px 3px; width: 100%").layer["look"]
    assert bare["fill"] == {"kind": "solid", "colour": "#112233"}
    assert bare["padding"] == {"top": 1, "right": 2, "bottom": 3, "left": 2}
    assert bare["size"] == {"kind": "full"}


@pytest.mark.parametrize("text", ["", "   ", "/* nothing */", ".a {}", "}}}}", "@import url(x);"])
def test_css_without_a_button_in_it_is_refused(text: str) -> None:
    with pytest.raises(BadCss, match="no rule with a declaration"):
        read_css(text)


@pytest.mark.parametrize(
    ("declared", "path", "value"),
    [
        ("border-radius: 9999px", "radius", 400),
        ("border-radius: 50%", "radius", "50%"),
        ("width: 130px; height: 39px", "size", {"kind": "fixed", "width": 130, "height": 39}),
        ("min-width: 8em; max-width: 60%", "size", {"kind": "natural", "least": "8em", "most": "60%"}),
        ("border: none", "border", {"kind": "none"}),
        ("border: 0", "border", {"kind": "none"}),
        ("background: transparent", "fill", {"kind": "none"}),
        ("background-color: hsl(120deg 100% 25.1%)", "fill", {"kind": "solid", "colour": "#008000"}),
        ("white-space: normal", "wrap", "lines"),
        ("white-space: nowrap; overflow: hidden; text-overflow: ellipsis", "wrap", "ellipsis"),
        ("transition: none", "motion", {"kind": "motion", "duration_ms": 0}),
    ],
)
def test_single_declarations(declared: str, path: str, value: Any) -> None:
    assert read_css(declared).layer["look"][path] == value


@given(st.text(max_size=300))
def test_no_text_makes_the_reader_fail_otherwise_than_by_saying_so(text: str) -> None:
    try:
        read_css(text)
    except BadCss:
        return


@given(st.text(alphabet="{}:;()#.,%/!*-\"' abcpx0129", max_size=120))
def test_no_nearly_css_makes_the_reader_fail_either(text: str) -> None:
    try:
        read_css(f".button {{{text}}}")
    except BadCss:
        return


def random_look(rng: random.Random) -> Json:
    colour = lambda: f"#{rng.randrange(1 << 24):06x}"  # noqa: E731
    stops = [{"at": at, "colour": colour()} for at in sorted(rng.sample(range(0, 101), 3))]
    fills: list[Json] = [
        {"kind": "solid", "colour": colour()},
        {"kind": "linear", "angle_deg": rng.randrange(360), "space": rng.choice(["oklch", "srgb"]), "stops": stops},
        {"kind": "radial", "x": rng.randrange(100), "y": rng.randrange(100), "space": "oklch", "stops": stops},
        {"kind": "none"},
        {"kind": "solid", "colour": colour() + "80"},
        {
            "kind": "linear",
            "toward": "top right",
            "space": "oklab",
            "repeats": True,
            "stops": [{"at": 0, "colour": colour()}, {"at": "12px", "colour": colour() + "40"}, {"colour": colour()}],
        },
        {
            "kind": "layers",
            "ground": colour(),
            "list": [
                {"kind": "radial", "shape": "circle", "extent": "closest-side", "space": "srgb", "stops": stops},
                {"kind": "linear", "space": "srgb", "stops": stops},
            ],
        },
    ]
    shadow = lambda: {  # noqa: E731
        "x_px": rng.randint(-9, 9), "y_px": rng.randint(-9, 9), "blur_px": rng.randint(0, 20),
        "spread_px": rng.randint(-5, 5), "colour": colour(), "opacity": rng.choice([1, 0.2, 0.6]),
        "inner": rng.random() < 0.3,
    }  # fmt: skip
    corner = lambda: rng.choice([rng.randint(0, 40), f"{rng.randint(0, 50)}%", "0.5em"])  # noqa: E731
    names = ("top_left", "top_right", "bottom_right", "bottom_left")
    line: Json = {"kind": "line", "width_px": rng.choice([1, 2.5, 6]), "colour": colour(), "style": "dotted"}
    sides: Json = {"kind": "sides", **{
        side: {"width_px": rng.choice([1, 3.5]), "colour": colour(), "style": "double"} for side in ("top", "left")
    }}  # fmt: skip
    return {
        "size": rng.choice([{"kind": "natural", "least": "5em", "most": 300},
                            {"kind": "full", "most": None, "least_height_px": 52},
                            {"kind": "fixed", "width": "80%", "height": 44}]),
        "padding": {side: rng.choice([rng.randint(0, 30), "2%", "1.25em", "1vw"])
                    for side in ("top", "right", "bottom", "left")},
        "radius": rng.choice([corner(), {"kind": "corners", **{name: corner() for name in names}}]),
        "fill": rng.choice(fills), "text_colour": colour(), "border": rng.choice([{"kind": "none"}, line, sides]),
        "text_shadows": {"kind": "words", "list": [
            {"x_px": 1, "y_px": -1, "blur_px": rng.randint(0, 4), "colour": colour(), "opacity": 0.4}
            for _ in range(rng.randrange(3))]},
        "shadows": {"kind": "cast", "list": [shadow() for _ in range(rng.randrange(3))]},
        "opacity": rng.choice([1, 0.75]),
        "type": {"family": rng.choice(["figtree", "lora", "archivo"]), "size_px": rng.choice([13, 16, 22.5]),
                 "weight": rng.choice([400, 600, 700]), "line": rng.choice([0, 1.35]),
                 "letter_spacing_px": rng.choice([0, 0.5]), "case": rng.choice(["as_written", "upper"]),
                 "slant": rng.choice(["upright", "italic"])},
        "centring": rng.choice(["line", "caps"]), "wrap": rng.choice(["none", "lines", "ellipsis"]),
        "motion": {"kind": "motion", "duration_ms": rng.choice([0, 200]), "curve": "ease-in", "delay_ms": 0},
        "hover": {"fill": rng.choice(fills), "text_colour": colour(), "opacity": 0.5},
        "pressed": {"fill": None, "shadows": {"kind": "cast", "list": [shadow()]}},
        "focus": {"fill": None, "text_colour": None, "ring_colour": colour(), "ring_width_px": 4, "ring_offset_px": 1},
        "disabled": {"fill": rng.choice(fills), "text_colour": colour()},
    }  # fmt: skip


def as_drawn(look: Look) -> Json:
    """Return what of a look CSS can say: its values at rest, and how it is dressed in each state."""
    worn = dresses(look)
    rest = look.model_dump(
        mode="json", include={"size", "padding", "radius", "type", "centring", "wrap", "text_shadows"}
    )
    seen = {
        name: (
            dress.fill.model_dump(),
            dress.text_colour,
            border(dress.border),
            dress.shadows.model_dump(),
            dress.opacity,
        )
        for name, dress in worn.items()
        if name in (REST, "hover", "pressed", "focus", "disabled")
    }
    ring = (ring_colour(look), look.focus.ring_width_px, look.focus.ring_offset_px)
    return {**rest, "seen": seen, "ring": ring, "motion": (look.motion.duration_ms, look.motion.delay_ms)}


def test_css_that_we_write_is_read_again_as_the_same_look() -> None:
    rng = random.Random(11)
    for n in range(120):
        patch = {"look": random_look(rng)}
        made = document(patch).look
        written = write_css(made, kit())
        read = read_css(written)
        again = document(completed(read.layer)).look
        assert as_drawn(again) == as_drawn(made), f"case {n}:\n{written}"
        assert not read.left_out, read.left_out


def doubling(times: int) -> str:
    """Return custom properties of which each names the one before four times; the last comes to 4 ** times words."""
    rules = "".join(f"--a{n + 1}:{f'var(--a{n}) ' * 4};" for n in range(times))
    return f":root{{--a0:1px;{rules}}}.btn{{color:red;padding:var(--a{times})}}"


BOMBS = [
    (doubling(12), "its custom properties come to too much"),
    (doubling(60), "its custom properties come to too much"),
    (":root{--a:var(--b);--b:var(--a)}.btn{color:red;padding:var(--a)}", "name each other"),
    (".btn{color:red;padding:1e999px}", "beyond all bounds"),
    (".btn{color:red;transition:all 1e999s}", "beyond all bounds"),
    (".btn{color:red;font-weight:1e999}", "beyond all bounds"),
]


@pytest.mark.parametrize(("text", "says"), BOMBS)
def test_a_value_that_would_never_end_is_left_out_and_the_rest_is_read(text: str, says: str) -> None:
    tracemalloc.start()
    found = read_css(text)
    _, most = tracemalloc.get_traced_memory()
    tracemalloc.stop()
    assert found.layer["look"]["text_colour"] == "#ff0000"
    assert "padding" not in found.layer["look"]
    assert any(says in omission for omission in found.left_out)
    # The smallest of these took hundreds of megabytes.
    assert most < 20_000_000


@pytest.mark.parametrize("bracket", ["(", "[", "{", "calc("])
def test_brackets_that_are_nested_beyond_reason_are_refused(bracket: str) -> None:
    with pytest.raises(BadCss, match="nested more than 60 deep"):
        read_css(".btn{padding:" + bracket * 5000 + "1px")


def test_rules_of_very_many_selectors_are_refused() -> None:
    selectors = ",".join(f".b{n}" for n in range(3000))
    with pytest.raises(BadCss, match=r"more than 200,000 values"):
        read_css(f"{selectors}{{{'color:red;' * 2000}}}")


WITHOUT_A_BROWSER = [
    (".b{border:3px dashed red;border-color:blue}", "border",
     {"kind": "line", "width_px": 3, "style": "dashed", "colour": "#0000ff"}),
    (".b{border-radius:8px;border-bottom-left-radius:0}", "radius",
     {"kind": "corners", "top_left": 8, "top_right": 8, "bottom_right": 8, "bottom_left": 0}),
    (".b{line-height:40px;font-size:14px}", "type.line", 40 / 14),
    ("html{font-size:62.5%}.b{font-size:1.6rem}", "type.size_px", 16),
    (".b{min-height:44px}", "size", {"kind": "natural", "least_height_px": 44}),
    (".b{font-style:italic}", "type.slant", "italic"),
    (".b{border:1px solid transparent}", "border",
     {"kind": "line", "width_px": 1, "style": "solid", "colour": "#00000000"}),
    (".b{background:rgb(255 255 255/.2)}", "fill", {"kind": "solid", "colour": "#ffffff33"}),
    (".b{text-shadow:0 1px 2px rgb(0 0 0/.4)}", "text_shadows.list",
     [{"x_px": 0, "y_px": 1, "blur_px": 2, "colour": "#000000", "opacity": 0.4}]),
    (".b{border-bottom:2px solid red}", "border.bottom.width_px", 2),
    (".b{color:#123;border:2px solid}", "border.colour", "#112233"),
    (".b{background:linear-gradient(to top right,#fff 10px,#000 .5turn)}", "fill", None),
    (".b{background:linear-gradient(to top right,#fff 10px,#000)}", "fill.toward", "top right"),
    (".b{background:linear-gradient(#fff8,#fff0) #00f}", "fill.ground", "#0000ff"),
    (":root{--a:red}.dark{--a:blue}.b{background:var(--a);color:#fff}", "fill", None),
]  # fmt: skip


@pytest.mark.parametrize(("css", "path", "value"), WITHOUT_A_BROWSER)
def test_without_a_browser_a_value_is_right_or_told(css: str, path: str, value: Any) -> None:
    """Source: the CSS specifications of each property; the values are worked out by hand."""
    read = read_css(css, ".b")
    found = at_path(read.layer, f"look.{path}")
    assert found == (pytest.approx(value) if isinstance(value, float) else value)
    assert bool(read.left_out) is (value is None)


@pytest.mark.parametrize(
    "selector",
    [
        ".b:not(:disabled):hover",
        ".b:is(:hover,:focus)",
        ".b:enabled:hover",
        ".b::before",
        ".b:where(.c)",
        ".b:nth-child(2)",
    ],
)
def test_without_a_browser_a_selector_that_only_one_can_tell_is_told(selector: str) -> None:
    read = read_css(f".b{{color:red}} {selector}{{color:blue}}", ".b")
    assert read.layer == {"look": {"text_colour": "#ff0000"}}
    assert any(selector in omission for omission in read.left_out)


def test_without_a_browser_nested_rules_and_rules_of_elements_are_told() -> None:
    read = read_css("button{border:0} .b{color:red; &:hover{color:blue} @media print{color:#000}}", ".b")
    assert read.layer == {"look": {"text_colour": "#ff0000"}}
    assert [omission.split(":")[0] for omission in read.left_out] == ["line 1", "@media print", "rules for button"]
