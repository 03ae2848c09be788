import colorsys

import pytest
from hypothesis import given
from hypothesis import strategies as st

from uptick.core.colour.colour import contrast_ratio, nearest_passing, needed_ratio, parse_colour
from uptick.core.errors import BadColour, OutOfRange

hexes = st.tuples(*[st.integers(0, 255)] * 3).map(lambda rgb: "#{:02x}{:02x}{:02x}".format(*rgb))

# Reference: WCAG 2.2, definition of contrast ratio; #767676 on white is the lightest grey that passes 4.5 (4.54), and
# #777777 the first that does not (4.48): Understanding SC 1.4.3.
PAIRS = [("#000000", "#ffffff", 21.0), ("#767676", "white", 4.54), ("#777777", "#ffffff", 4.48), ("#f00", "#fff", 4.0)]


@pytest.mark.parametrize(("one", "other", "ratio"), PAIRS)
def test_known_pairs_have_their_published_contrast(one: str, other: str, ratio: float) -> None:
    assert contrast_ratio(one, other) == pytest.approx(ratio, abs=0.005)


def by_the_definition(one: str, other: str) -> float:
    """Reference: WCAG 2.2, relative luminance, written out from its text."""

    def luminance(text: str) -> float:
        channels = [int(text[i : i + 2], 16) / 255 for i in (1, 3, 5)]
        linear = [c / 12.92 if c <= 0.04045 else ((c + 0.055) / 1.055) ** 2.4 for c in channels]
        return 0.2126 * linear[0] + 0.7152 * linear[1] + 0.0722 * linear[2]

    light, dark = sorted((luminance(one), luminance(other)), reverse=True)
    return (light + 0.05) / (dark + 0.05)


@given(hexes, hexes)
def test_contrast_is_what_the_definition_says_in_either_order(one: str, other: str) -> None:
    assert contrast_ratio(one, other) == pytest.approx(by_the_definition(one, other), rel=2e-3)
    assert contrast_ratio(one, other) == contrast_ratio(other, one)


@given(hexes, hexes)
def test_the_nearest_passing_colour_passes_and_keeps_its_hue(colour: str, against: str) -> None:
    better = nearest_passing(colour, against, 4.5)
    # Black or white reaches 4.5 on every colour (common knowledge: their contrasts multiply to 21).
    assert better is not None
    assert contrast_ratio(better, against) >= 4.5
    if contrast_ratio(colour, against) >= 4.5:
        assert better == colour
    hue, _, saturation = colorsys.rgb_to_hls(*(int(colour[i : i + 2], 16) / 255 for i in (1, 3, 5)))
    new_hue, lightness, new_saturation = colorsys.rgb_to_hls(*(int(better[i : i + 2], 16) / 255 for i in (1, 3, 5)))
    if saturation > 0.5 and new_saturation > 0.5 and 0.15 < lightness < 0.85:
        apart = abs(hue - new_hue)
        assert min(apart, 1 - apart) < 0.13


def test_a_ratio_that_nothing_reaches_gives_none() -> None:
    assert nearest_passing("#777777", "#777777", 20) is None


def test_large_words_need_less() -> None:
    assert needed_ratio(16, 400) == 4.5
    assert needed_ratio(24, 400) == 3.0
    assert needed_ratio(18.67, 700) == 3.0
    assert needed_ratio(18.67, 600) == 4.5


def test_text_that_is_no_colour_is_refused() -> None:
    with pytest.raises(BadColour, match="is not a colour"):
        parse_colour("beeswax")
    with pytest.raises(BadColour, match="see-through"):
        parse_colour("#00000080")
    with pytest.raises(OutOfRange, match="from 1 to 21"):
        nearest_passing("#000000", "#ffffff", 30)
