import json
import random
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.core.formats.test_css import random_look
from tests.samples import document
from tests.strangers import HERE
from uptick.core.button.look import corners_of
from uptick.core.colour.dress import REST, dresses, ring_colour
from uptick.core.colour.ramp import Seed
from uptick.core.errors import BadTokens
from uptick.core.formats.token_fields import proposed
from uptick.core.formats.tokens import write_tokens
from uptick.core.formats.tokens_in import read_tokens
from uptick.core.looks.carry import completed

# Written by hand after the format's own examples.
FILE: Any = {
    "brand": {
        "$type": "color",
        "honey": {"$value": {"colorSpace": "srgb", "components": [0.85, 0.6, 0.17], "hex": "#d99a2b"}},
        "ink": {"$value": "#3a2a12"},
        "deep": {"$value": {"colorSpace": "oklch", "components": [0.4, 0.1, 140]}},
    },
    "space": {"small": {"$type": "dimension", "$value": {"value": 0.5, "unit": "rem"}}},
    "button": {
        "padding": {"left": {"$type": "dimension", "$value": "{space.small}"}},
        "type": {
            "weight": {"$type": "fontWeight", "$value": 650}, "family": {"$type": "fontFamily", "$value": ["lora"]},
        },
        "rest": {
            "fill": {"$type": "color", "$value": "{brand.honey}"},
            "shadow": {
                "$type": "shadow",
                "$value": {
                    "color": {"colorSpace": "srgb", "components": [0, 0, 0], "alpha": 0.5},
                    "offsetX": {"value": 0, "unit": "px"}, "offsetY": {"value": 2, "unit": "px"},
                    "blur": {"value": 4, "unit": "px"}, "spread": {"value": 0, "unit": "px"},
                },
            },
            "transition": {
                "$type": "transition",
                "$value": {
                    "duration": {"value": 0.2, "unit": "s"}, "delay": {"value": 0, "unit": "ms"},
                    "timingFunction": [0, 0, 0.58, 1],
                },
            },
        },
    },
}  # fmt: skip


def test_a_file_of_tokens_is_read_with_aliases_inherited_types_and_units() -> None:
    """Source: Design Tokens Format Module: groups, `$type` inheritance, aliases in braces, the types' own forms."""
    read = read_tokens(json.dumps(FILE))
    look = read.layer["look"]
    assert look["padding"] == {"left": 8}
    assert look["type"] == {"weight": 650, "family": "lora"}
    assert look["fill"] == {"kind": "solid", "colour": "#d9992b"}
    (shadow,) = look["shadows"]["list"]
    assert (shadow["y_px"], shadow["blur_px"], shadow["opacity"], shadow["inner"]) == (2, 4, 0.5, False)
    assert look["motion"] == {"kind": "motion", "duration_ms": 200, "delay_ms": 0, "curve": "ease-out"}
    assert Seed(name="ink", colour="#3a2a12") in read.colours
    assert [seed.name for seed in read.colours][:3] == ["honey", "ink", "deep"]
    assert read.left_out == ()
    # What has no name of ours is there to be laid onto a field.
    (small,) = read.values
    assert (small.name, small.type, small.says, small.proposal) == ("space.small", "dimension", "8", "")


def test_tokens_that_we_write_are_read_again_as_the_same_look() -> None:
    rng = random.Random(5)
    for _ in range(60):
        look = random_look(rng)
        look["size"] = {"kind": "fixed", "width": "80%", "height": 44}
        made = document({"look": look}).look
        read = read_tokens(write_tokens(made, {"honey": "#d99a2b"}))
        assert not read.left_out, read.left_out
        again = document(completed(read.layer)).look
        assert (again.padding, again.size) == (made.padding, made.size)
        assert corners_of(again.radius) == corners_of(made.radius)
        assert again.type.model_copy(update={"case": made.type.case}) == made.type
        for state in (REST, "hover", "pressed", "focus", "disabled"):
            one, other = dresses(again)[state], dresses(made)[state]
            assert (one.fill, one.text_colour, one.opacity) == (other.fill, other.text_colour, other.opacity)
            assert one.shadows == other.shadows
            assert one.motion.duration_ms == other.motion.duration_ms
        assert ring_colour(again) == ring_colour(made)
        assert read.colours[0] == Seed(name="honey", colour="#d99a2b")


@pytest.mark.parametrize(
    ("text", "says"),
    [("", "no JSON"), ("[]", "no design token"), ("{}", "no design token"), ('{"a": {"b": 1}}', "no design token")],
)
def test_what_holds_no_token_is_refused(text: str, says: str) -> None:
    with pytest.raises(BadTokens, match=says):
        read_tokens(text)


def test_tokens_that_name_each_other_in_a_circle_or_name_nothing_are_left_out() -> None:
    circle = {"a": {"$type": "color", "$value": "{b}"}, "b": {"$type": "color", "$value": "{a}"}}
    assert len(read_tokens(json.dumps(circle)).left_out) == 2
    lost = {"button": {"rest": {"fill": {"$type": "color", "$value": "{no.such}"}}}}
    assert read_tokens(json.dumps(lost)).left_out == ("button.rest.fill: {no.such} is no token in this file",)


json_values = st.recursive(
    st.none() | st.booleans() | st.floats(allow_nan=False) | st.text(max_size=8) | st.just("{a}"),
    lambda inner: (
        st.lists(inner, max_size=3) | st.dictionaries(st.sampled_from(["$value", "$type", "a", "value"]), inner)
    ),
    max_leaves=12,
)


@given(json_values, st.sampled_from(["color", "dimension", "shadow", "gradient", "border", "transition"]))
def test_no_value_makes_the_reader_fail_otherwise_than_by_saying_so(value: object, kind: str) -> None:
    part = {"color": "words", "dimension": "fill", "gradient": "fill"}.get(kind, kind)
    raw = {"button": {"rest": {part: {"$type": kind, "$value": value}}}}
    read_tokens(json.dumps(raw))


def test_what_follows_from_rest_goes_on_doing_so() -> None:
    """The file says every state in full; read again, a state still has only what was set by hand."""
    look: Any = {
        "fill": {"kind": "solid", "colour": "#d99a2b"}, "text_colour": "#1d1000",
        "hover": {"fill": {"kind": "solid", "colour": "#ffffff"}, "text_colour": None},
    }  # fmt: skip
    made = document({"look": {**look, "focus": {"fill": None, "text_colour": None}}}).look
    text = write_tokens(made)
    assert json.loads(text)["button"]["pressed"]["fill"]["$type"] == "color"
    read = read_tokens(text).layer["look"]
    assert read["hover"] == {"fill": {"kind": "solid", "colour": "#ffffff"}}
    assert "pressed" not in read
    again = document(completed({"look": read})).look
    assert dresses(again)["pressed"].derived == dresses(made)["pressed"].derived


WHOLE: Any = {
    "text_shadows": {"kind": "words", "list": [{"x_px": 1, "y_px": 1, "colour": "#123456", "opacity": 0.5}]},
    "size": {"kind": "natural", "least": "5em", "least_height_px": 44},
    "type": {"slant": "italic", "case": "upper"},
    "wrap": "lines",
    "centring": "caps",
    "fill": {
        "kind": "layers", "ground": "#0000ff80",
        "list": [{"kind": "linear", "toward": "top left", "space": "oklab", "repeats": True,
                  "stops": [{"at": "4px", "colour": "#ffffff80"}, {"colour": "#ffffff"}]}],
    },
    "border": {"kind": "sides", "bottom": {"width_px": 2, "colour": "#ff000080", "style": "double"}},
    "hover": {"border": {"kind": "none"}, "shadows": {"kind": "cast", "list": []}, "text_colour": "#ffffffcc"},
}  # fmt: skip


def test_what_the_format_has_no_type_for_stands_beside_it_and_comes_back() -> None:
    look = {**WHOLE, "shadows": {"kind": "cast", "list": [{"y_px": 3}]}}
    made = document({"look": look}).look
    again = document(completed(read_tokens(write_tokens(made)).layer)).look
    for name in ("size", "type", "wrap", "centring", "text_shadows", "fill", "shadows"):
        assert getattr(again, name) == getattr(made, name), name
    for state in (REST, "hover"):
        one, other = dresses(again)[state], dresses(made)[state]
        assert (one.border, one.shadows, one.text_colour) == (other.border, other.shadows, other.text_colour)
    assert dresses(again)["hover"].shadows.list == ()


def test_a_value_that_somebody_changed_counts_and_not_what_stood_beside_it() -> None:
    raw = json.loads(write_tokens(document({"look": WHOLE}).look))
    raw["button"]["rest"]["fill"]["$value"][0]["color"] = {"colorSpace": "srgb", "components": [1, 0, 0]}
    raw["button"]["rest"]["border"]["$value"]["width"]["value"] = 5
    look = read_tokens(json.dumps(raw)).layer["look"]
    assert look["fill"]["kind"] == "linear"
    assert look["fill"]["stops"][0]["colour"] == "#ff0000"
    assert (look["border"]["kind"], look["border"]["width_px"]) == ("line", 5)


def token(kind: str, value: Any) -> Any:
    return {"$type": kind, "$value": value}


PX: Any = {"value": 2, "unit": "px"}
LIFT: Any = {"color": "{palette.sea}", "offsetX": PX, "offsetY": "{width}", "blur": PX, "spread": PX}
LABEL: Any = {
    "fontFamily": ["Lora", "serif"], "fontSize": {"value": 1, "unit": "rem"}, "fontWeight": "semi-bold",
    "lineHeight": 1.5, "letterSpacing": PX,
}  # fmt: skip
OTHERS: Any = {
    "palette": {"$type": "color", "sea": {"$root": {"$value": "#00447799"}, "deep": {"$value": "#001122"}}},
    "width": token("dimension", PX),
    "btn": {
        "primary-bg": token("color", "{palette.sea}"),
        "primary-bg-hover": {"$ref": "#/palette/sea/deep", "$type": "color"},
        "primary-text": token("color", "#fff"),
        "border": token("border", {"color": "{palette.sea.deep}", "width": "{width}", "style": "dashed"}),
        "radius": token("dimension", "0.5rem"),
        "label": token("typography", LABEL),
        "lift": token("shadow", [LIFT]),
        "sheen": token("gradient", [{"color": "#fff", "position": -1}, {"color": "{palette.sea}", "position": 2}]),
        "weight": token("fontWeight", "extra-bold"),
    },
}


def test_values_of_other_names_are_listed_by_type_with_what_their_name_suggests() -> None:
    read = read_tokens(json.dumps(OTHERS))
    assert read.layer == {}
    assert read.left_out == ()
    proposals = {value.name: value.proposal for value in read.values if value.proposal}
    assert proposals == {
        "btn.primary-bg": "look.fill", "btn.primary-bg-hover": "look.hover.fill", "btn.border": "look.border",
        "btn.primary-text": "look.text_colour", "btn.radius": "look.radius", "btn.label": "look.type",
        "btn.lift": "look.shadows",
        "btn.sheen": "look.fill", "btn.weight": "look.type.weight",
    }  # fmt: skip
    assert {value.name: value.says for value in read.values}["palette.sea"] == "#00447799"


@pytest.mark.parametrize(
    ("name", "kind", "field"),
    [
        ("button.primary.background.hover", "color", "look.hover.fill"),
        ("buttonTextDisabled", "color", "look.disabled.text_colour"),
        ("cta.inactive.bg", "color", "look.disabled.fill"),
        ("button.on-primary", "color", "look.text_colour"),
        ("btn-border-color", "color", ""),
        ("button.focus.outline.color", "color", "look.focus.ring_colour"),
        ("button.color", "color", "look.text_colour"),
        ("button.context", "color", "look.fill"),
        ("spring", "color", ""),
        ("button.padding.inline.start", "dimension", "look.padding.left"),
        ("button.blend", "dimension", ""),
        ("buttonFontSize", "dimension", "look.type.size_px"),
        ("button.opacity", "number", "look.opacity"),
        ("button.z-index", "number", ""),
    ],
)
def test_a_name_is_read_by_its_words_not_by_letters_within_them(name: str, kind: str, field: str) -> None:
    """Common practice: how design systems name such values."""
    assert proposed(name, kind) == field


def test_values_are_laid_onto_the_fields_that_a_designer_says() -> None:
    """Source: Design Tokens Format Module 2025.10: aliases within values, names of weights, `$root`, `$ref`, alpha."""
    laid = {value.name: value.proposal for value in read_tokens(json.dumps(OTHERS)).values if value.proposal}
    del laid["btn.sheen"]
    look = read_tokens(json.dumps(OTHERS), laid).layer["look"]
    assert look["fill"] == {"kind": "solid", "colour": "#00447799"}
    assert look["hover"]["fill"] == {"kind": "solid", "colour": "#001122"}
    assert look["border"] == {"kind": "line", "width_px": 2, "style": "dashed", "colour": "#001122"}
    assert look["type"] == {"family": "lora", "size_px": 16, "weight": 800, "line": 1.5, "letter_spacing_px": 2}
    assert look["shadows"]["list"][0]["opacity"] == pytest.approx(0.6)
    assert look["radius"] == 8
    document({"look": look})
    with pytest.raises(BadTokens, match=r"btn.radius: a token of the type dimension cannot be laid onto look.fill"):
        read_tokens(json.dumps(OTHERS), {"btn.radius": "look.fill"})
    with pytest.raises(BadTokens, match=r"palette.sea and btn.primary-bg are both laid onto fill; choose one of them"):
        read_tokens(json.dumps(OTHERS), {"palette.sea": "look.fill", "btn.primary-bg": "look.fill"})
    with pytest.raises(BadTokens, match=r"no token 'btn.none'"):
        read_tokens(json.dumps(OTHERS), {"btn.none": "look.fill"})


@pytest.mark.parametrize(
    ("kind", "value", "says"),
    [
        ("color", {"colorSpace": "ciexyz", "components": [0, 0, 0]}, "the colour space 'ciexyz'; there are srgb"),
        ("color", "reddish", "reddish is no colour"),
        ("dimension", "12em", "12em is no dimension; it has a value and a unit, px or rem"),
        ("fontWeight", "chunky", "'chunky' is no weight; there are 1 to 1000, and thin"),
        ("border", {"width": PX, "style": "groove", "color": "#000"}, "the style groove; solid, dashed"),
        ("border", {"style": "solid", "color": "#000"}, "it lacks 'width'"),
        ("transition", {"duration": "soon", "timingFunction": [0, 0, 1, 1]}, "soon is no duration"),
        ("cubicBezier", [0.1, 0.2, 0.3, 1], "the curve [0.1"),
        ("strokeStyle", "dotted", "its type is 'strokeStyle'; there are color"),
        ("", 4, "its type is 'not said'"),
        ("color", "{a.b}", "{a.b} comes back to itself"),
    ],
)
def test_a_token_that_cannot_be_taken_is_told_by_its_path(kind: str, value: Any, says: str) -> None:
    (omission,) = read_tokens(json.dumps({"a": {"b": {"$type": kind, "$value": value}}})).left_out
    assert omission.startswith(f"a.b: {says}")


def test_a_token_file_of_another_program_is_told_value_by_value() -> None:
    """Reference: open-props 1.7's own token file, whose tokens say no type: none of them is guessed."""
    text = (HERE / "open-props/open-props.tokens.json").read_text()
    names = {name for name, value in json.loads(text).items() if isinstance(value, dict) and "$value" in value}
    read = read_tokens(text)
    told = {omission.split(": ")[0] for omission in read.left_out} | {value.name for value in read.values}
    assert len(names) > 100
    assert names <= told
    assert read.layer == {}


def test_tokens_that_name_each_other_without_end_or_measure_are_told_and_take_no_time() -> None:
    shadow = {"color": "#000000", "offsetX": "1px", "offsetY": "1px", "blur": "1px", "spread": "0px"}
    many = {f"t{n}": token("shadow", [f"{{t{n + 1}}}"] * 10) for n in range(30)} | {"t30": token("shadow", shadow)}
    found = read_tokens(json.dumps(many))
    assert "t0: it comes to more than 400 values" in found.left_out
    assert [value.name for value in found.values] == ["t29", "t30"]
    chain = {f"t{n}": token("dimension", f"{{t{n + 1}}}") for n in range(100)} | {"t100": token("dimension", "4px")}
    found = read_tokens(json.dumps(chain))
    assert "t0: more than 60 tokens name one another before there is a value" in found.left_out
    assert ("t100", "4") in [(value.name, value.says) for value in found.values]
    deep: dict[str, object] = {"$type": "number", "$value": 1}
    for _ in range(30):
        deep = {"a": deep}
    with pytest.raises(BadTokens, match="lies in 24 groups; no more are read"):
        read_tokens(json.dumps(deep))
