import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.samples import document
from uptick.core.button.look import NoFill, SolidFill
from uptick.core.button.merge import Json
from uptick.core.colour.colour import contrast_ratio, parse_colour
from uptick.core.colour.dress import REST, dresses, ring_colour, shifted, words_on

hexes = st.integers(0, 0xFFFFFF).map(lambda n: f"#{n:06x}")
BARE: Json = {
    state: {part: None for part in ("fill", "text_colour", "ring_colour") if (part, state) != ("ring_colour", "hover")}
    for state in ("focus",)
} | {state: {"fill": None, "text_colour": None} for state in ("hover", "disabled")}


def derived(fill: Json, **more: object) -> Json:
    """Return a look that sets its fill only."""
    return {"look": {"fill": fill, "text_colour": None, **BARE, **more}}


@given(hexes)
def test_words_derived_from_a_fill_can_always_be_read(colour: str) -> None:
    look = document(derived({"kind": "solid", "colour": colour})).look
    worn = dresses(look)
    # Black or white passes 4.5 on every colour.
    assert contrast_ratio(worn[REST].text_colour, colour) >= 4.5
    assert "text_colour" in worn[REST].derived


@given(hexes)
def test_hover_and_pressed_differ_and_move_away_from_the_words(colour: str) -> None:
    worn = dresses(document(derived({"kind": "solid", "colour": colour})).look)
    fills = [worn[state].fill for state in (REST, "hover", "pressed")]
    assert all(isinstance(fill, SolidFill) for fill in fills)
    seen = [fill.colour for fill in fills if isinstance(fill, SolidFill)]
    assert seen[0] != seen[1]
    assert seen[1] != seen[2]
    assert worn["hover"].text_colour == worn[REST].text_colour
    assert {"fill", "text_colour", "border"} == worn["hover"].derived


def test_a_value_set_by_hand_stays_until_it_is_left_to_the_rule_again() -> None:
    by_hand: Json = {"look": {"hover": {"fill": {"kind": "solid", "colour": "#ff0000"}, "text_colour": None}}}
    worn = dresses(document(by_hand).look)["hover"]
    assert (worn.fill, "fill" in worn.derived) == (SolidFill(colour="#ff0000"), False)
    ruled = dresses(document({"look": {"hover": {"fill": {"kind": "rule"}, "text_colour": "rule"}}}).look)["hover"]
    assert "fill" in ruled.derived
    assert ruled.fill != SolidFill(colour="#ff0000")
    assert ruled.text_colour == "#ffffff"


def test_every_stop_of_a_gradient_moves_and_a_picture_gets_a_thicker_scrim() -> None:
    stops = [{"at": 0, "colour": "#302010"}, {"at": 100, "colour": "#604020"}]
    hovered = dresses(document(derived({"kind": "linear", "stops": stops})).look)["hover"].fill
    assert [stop.colour for stop in hovered.stops] != [stop["colour"] for stop in stops]  # type: ignore[union-attr]
    picture: Json = {"kind": "picture", "picture": "0" * 16, "scrim": {"colour": "#000000", "opacity": 0.4}}
    pressed = dresses(document(derived(picture)).look)["pressed"].fill
    assert pressed.scrim.opacity > 0.5  # type: ignore[union-attr]


def test_where_there_is_no_fill_the_words_answer() -> None:
    patch = derived({"kind": "none"})
    patch["look"]["text_colour"] = "#2f5d3a"
    worn = dresses(document(patch).look)
    assert worn["hover"].fill == NoFill()
    assert worn["hover"].text_colour != "#2f5d3a"
    assert worn["focus"].text_colour == "#2f5d3a"


def test_a_border_without_a_colour_is_a_shade_of_the_fill_or_of_the_words() -> None:
    line: Json = {"kind": "line", "width_px": 2}
    filled = dresses(document({"look": {"border": line}}).look)[REST]
    assert filled.border.colour == shifted("#3a2a12", -0.12)  # type: ignore[union-attr]
    bare = dresses(document({"look": {"border": line, "fill": {"kind": "none"}, "text_colour": "#2f5d3a"}}).look)[REST]
    assert bare.border.colour == "#2f5d3a"  # type: ignore[union-attr]
    assert "border" in bare.derived


@given(hexes)
def test_disabled_is_paler_and_greyer_than_rest(colour: str) -> None:
    worn = dresses(document(derived({"kind": "solid", "colour": colour})).look)["disabled"]
    assert isinstance(worn.fill, SolidFill)
    pale = parse_colour(worn.fill.colour).convert("oklch")
    assert pale["lightness"] > 0.88
    assert pale["chroma"] < 0.03


@given(hexes)
def test_a_derived_focus_ring_can_be_seen_on_white(colour: str) -> None:
    """Source: WCAG 2.2, 1.4.11: 3 : 1; the rule takes 4.5."""
    look = document(derived({"kind": "solid", "colour": colour})).look
    assert contrast_ratio(ring_colour(look), "#ffffff") >= 4.5


@pytest.mark.parametrize("colour", ["#000000", "#ffffff", "#808080", "#ffff00", "#0000ff"])
def test_words_keep_a_trace_of_the_fills_hue(colour: str) -> None:
    words = parse_colour(words_on(SolidFill(colour=colour))).convert("oklch")
    assert words["chroma"] <= 0.06
