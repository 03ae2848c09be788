from itertools import pairwise

import pytest
from coloraide import Color
from hypothesis import given
from hypothesis import strategies as st

from tests.samples import document
from uptick.core.button.look import LayersFill, LinearFill, PictureFill, RadialFill, Scrim, SolidFill, Stop
from uptick.core.colour.colour import contrast_ratio, nearest_passing, over, parse_colour, worst_contrast, worst_seen
from uptick.core.colour.fills import colours_in, css_fill, mixed, places_of
from uptick.core.errors import BadDocument

hexes = st.integers(0, 0xFFFFFF).map(lambda n: f"#{n:06x}")


def test_css_colours_are_read_as_the_standard_samples_have_them() -> None:
    """Source: CSS Color 4, section 9.2 and its examples: hsl(120deg 100% 25%) is green, oklch, hex."""
    assert parse_colour("hsl(120deg 100% 25.1%)").convert("srgb").to_string(hex=True) == "#008000"
    assert parse_colour("rebeccapurple").convert("srgb").to_string(hex=True) == "#663399"
    assert parse_colour("#f0f").convert("srgb").to_string(hex=True) == "#ff00ff"
    # CSS Color 4, example of oklch: oklch(40.101% 0.12332 21.555) is lab(29.69% 44.888% -29.04%)'s neighbour #7d2329.
    assert Color("oklch(40.101% 0.12332 21.555)").convert("srgb").to_string(hex=True) == "#7d2329"


def test_white_on_black_is_21_and_known_greys_are_as_the_standard_says() -> None:
    """Source: WCAG 2.2, contrast ratio; #767676 on white is the lightest grey that passes 4.5 (common practice)."""
    assert contrast_ratio("#ffffff", "#000000") == pytest.approx(21)
    assert contrast_ratio("#767676", "#ffffff") >= 4.5 > contrast_ratio("#777777", "#ffffff")


def test_a_gradient_in_srgb_is_even_in_every_channel() -> None:
    """Source: CSS Images 4, section 3.4.2: halfway between red and blue in sRGB is rgb(127.5 0 127.5)."""
    stops = (Stop(at=0, colour="#ff0000"), Stop(at=100, colour="#0000ff"))
    assert mixed(stops, "srgb", 3)[1] in ("#800080", "#7f007f")
    assert mixed(stops, "srgb", 5)[1] in ("#bf0040", "#c00040", "#bf003f")


def test_a_gradient_in_oklch_keeps_its_lightness_even() -> None:
    """Source: CSS Color 4, section 12 (interpolation); lightness of OKLCH is linear between the stops."""
    stops = (Stop(at=0, colour="#102030"), Stop(at=100, colour="#d0d8e0"))
    light = [
        float(parse_colour(mixed_colour).convert("oklch")["lightness"]) for mixed_colour in mixed(stops, "oklch", 5)
    ]
    steps = [b - a for a, b in pairwise(light)]
    assert max(steps) - min(steps) < 0.01


def test_before_the_first_stop_and_after_the_last_a_gradient_stays() -> None:
    stops = (Stop(at=25, colour="#111111"), Stop(at=75, colour="#eeeeee"))
    line = mixed(stops, "srgb", 5)
    assert line[0] == line[1] == "#111111"
    assert line[3] == line[4] == "#eeeeee"


def test_fills_are_written_as_css_has_them() -> None:
    stops = (Stop(at=0, colour="#111111"), Stop(at=100, colour="#eeeeee"))
    assert css_fill(SolidFill(colour="#3a2a12")) == "#3a2a12"
    assert css_fill(LinearFill(stops=stops, angle_deg=45)) == "linear-gradient(45deg in oklch,#111111 0%,#eeeeee 100%)"
    assert css_fill(RadialFill(stops=stops, x=10, space="srgb")).startswith("radial-gradient(at 10% 50% in srgb,")
    picture = css_fill(PictureFill(picture="0" * 16, scrim=Scrim(colour="#000000", opacity=0.5)))
    assert picture == ("linear-gradient(#00000080,#00000080),url(up:pictures/0000000000000000) 50% 50%/cover no-repeat")


def test_stops_out_of_order_are_refused() -> None:
    stops = [{"at": 80, "colour": "#111111"}, {"at": 20, "colour": "#eeeeee"}]
    with pytest.raises(BadDocument, match="in order"):
        document({"look": {"fill": {"kind": "linear", "stops": stops}}})


@given(hexes, st.lists(hexes, min_size=1, max_size=8))
def test_the_worst_contrast_is_the_least_of_all(words: str, met: list[str]) -> None:
    assert worst_contrast(words, met)[0] == pytest.approx(min(contrast_ratio(words, ground) for ground in met))


def test_grey_words_on_a_gradient_from_black_to_white_are_lost_in_its_middle() -> None:
    stops = (Stop(at=0, colour="#000000"), Stop(at=100, colour="#ffffff"))
    ratio, met = worst_contrast("#808080", colours_in(LinearFill(stops=stops)))
    assert ratio < 1.1
    assert met not in ("#000000", "#ffffff")


@given(hexes, st.lists(hexes, min_size=1, max_size=4).map(tuple))
def test_the_nearest_passing_colour_passes_with_all_and_keeps_its_hue(words: str, met: tuple[str, ...]) -> None:
    better = nearest_passing(words, met, 4.5)
    if better is not None:
        assert worst_contrast(better, met)[0] >= 4.5


def test_what_is_seen_through_is_mixed_as_browsers_paint_it() -> None:
    """Source: Compositing and Blending 1, section 5.1: half of black over white is #808080 (or #7f7f7f)."""
    assert over("#000000", "#ffffff", 0.5) in ("#808080", "#7f7f7f")
    assert over("#123456", "#ffffff", 1) == "#123456"


def test_the_colours_of_a_gradient_are_all_that_words_may_meet() -> None:
    stops = (Stop(at=0, colour="#000000"), Stop(at=100, colour="#ffffff"))
    met = colours_in(LinearFill(stops=stops))
    assert {"#000000", "#ffffff"} <= set(met)
    assert len(met) > 20


def test_a_see_through_fill_is_met_over_the_page_behind_it() -> None:
    """Source: Compositing 1, section 5.1: 0x80 is 128/255; over white 255 - 128 = 127, over black 0."""
    half = SolidFill(colour="#00000080")
    assert colours_in(half, "#ffffff") == ("#7f7f7f",)
    assert colours_in(half, "#000000") == ("#000000",)
    assert worst_seen("#ffffff80", ["#000000"])[0] == pytest.approx(contrast_ratio("#808080", "#000000"))
    assert css_fill(half) == "#00000080"


def test_a_sheen_over_a_colour_is_met_place_by_place() -> None:
    """Worked by hand: white at a half over blue is #8080ff, at nothing it is blue itself."""
    sheen = LinearFill(space="srgb", stops=(Stop(at=0, colour="#ffffff80"), Stop(at=100, colour="#ffffff00")))
    fill = LayersFill(list=(sheen,), ground="#0000ff")
    met = colours_in(fill)
    assert met[0] == "#8080ff"
    assert met[-1] == "#0000ff"
    assert css_fill(fill) == "linear-gradient(90deg in srgb,#ffffff80 0%,#ffffff00 100%) #0000ff"
    # Where they run otherwise any colour of one may lie on any of the other: darkest and lightest are among them.
    across = sheen.model_copy(update={"angle_deg": 0, "stops": (Stop(at=0, colour="#000000"), Stop(colour="#ffffff"))})
    crossed = colours_in(LayersFill(list=(sheen, across)))
    assert {"#000000", "#ffffff"} <= set(crossed)


def test_stops_without_a_place_stand_evenly_between_their_neighbours() -> None:
    """Source: CSS Images 4, section 3.5.3, its own example: red, white 20 %, blue is red 0, white 20, blue 100."""
    stops = [Stop(colour="#ff0000"), Stop(at=20, colour="#ffffff"), Stop(colour="#00ff00"), Stop(colour="#0000ff")]
    assert places_of(stops) == (0, 20, 60, 100)
    assert places_of([Stop(at=40, colour="#ff0000"), Stop(at="-8px", colour="#ffffff")])[1] == 40
