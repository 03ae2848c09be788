import json
import random
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.core.formats.test_css import random_look
from tests.samples import document
from uptick.core.button.look import corners_of
from uptick.core.colour.dress import REST, dresses, ring_colour
from uptick.core.colour.ramp import Seed
from uptick.core.errors import BadTokens
from uptick.core.formats.tokens import read_tokens, write_tokens
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
    assert read.left_out == ("space.small: no value of a button has that name",)


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
    assert "no token in this file" in read_tokens(json.dumps(lost)).left_out[0]


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
