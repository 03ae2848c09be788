import io

import pytest
from fontTools.ttLib import TTFont
from fontTools.varLib.instancer import instantiateVariableFont
from hypothesis import given
from hypothesis import strategies as st

from tests.samples import kit
from uptick.core.errors import OutOfRange
from uptick.core.type.fontbook import parse_unicode_range

FAMILIES = ["figtree", "lora", "archivo"]
book = kit().fonts


def own_advance(family: str, weight: int, characters: str) -> dict[str, float]:
    """Reference: fontTools 4.68: hmtx of the Latin file, instantiated at the weight, in em."""
    file = next(f for f in book.files if f.family == family and f.ranges[0][0] == 0)
    font = instantiateVariableFont(TTFont(io.BytesIO(file.content)), {"wght": weight})
    names, units = font.getBestCmap(), font["head"].unitsPerEm
    return {c: font["hmtx"][names[ord(c)]][0] / units for c in characters}


@pytest.mark.parametrize("family", FAMILIES)
@pytest.mark.parametrize("weight", [400, 650])
def test_single_glyphs_advance_as_the_font_itself_says(family: str, weight: int) -> None:
    characters = "AabgHo0189£,.&"
    expected = own_advance(family, weight, characters)
    for character in characters:
        # HarfBuzz takes the variation deltas unrounded, the instancer rounds them to whole units of an em.
        assert book.measure(character, family, 1, weight).width_px == pytest.approx(expected[character], abs=1.1e-3)


def test_pairs_that_the_font_kerns_are_narrower_than_their_letters() -> None:
    assert book.measure("AV", "lora", 100, 500).width_px < (
        book.measure("A", "lora", 100, 500).width_px + book.measure("V", "lora", 100, 500).width_px - 1
    )


@given(st.text(alphabet="abcdefghij ", max_size=12), st.sampled_from(FAMILIES), st.floats(8, 72))
def test_width_grows_in_proportion_to_the_size(text: str, family: str, size: float) -> None:
    one = book.measure(text, family, 1, 500).width_px
    assert book.measure(text, family, size, 500).width_px == pytest.approx(one * size)


@pytest.mark.parametrize("family", FAMILIES)
def test_the_line_is_as_high_as_the_browser_makes_it(family: str) -> None:
    metrics = book.metrics(family)
    measured = book.measure("Hx", family, 16, 500)
    whole = int(metrics.ascent * 16 + 0.5) + int(metrics.descent * 16 + 0.5)
    assert measured.line_height_px == pytest.approx(whole + metrics.line_gap * 16)
    # Halves go up: Figtree at 10 px has 9.5 above the baseline and 2.5 below.
    assert book.measure("Hx", "figtree", 10, 500).line_height_px == 13
    assert 0.6 * 16 < measured.cap_height_px < 0.8 * 16


def test_characters_that_no_file_holds_are_named() -> None:
    assert book.measure("Honig 蜂蜜", "figtree", 16, 500).missing == "蜂蜜"
    assert book.measure("Świt Ťažký", "figtree", 16, 500).missing == ""


def test_weights_beyond_the_font_are_held_at_its_ends() -> None:
    lightest, heaviest = book.weights("lora")
    beyond = book.measure("Abc", "lora", 16, heaviest + 90)
    assert beyond.width_px == book.measure("Abc", "lora", 16, heaviest).width_px
    assert lightest < heaviest


def test_a_family_that_is_not_shipped_is_refused() -> None:
    with pytest.raises(OutOfRange, match="one of figtree"):
        book.measure("x", "papyrus", 16, 400)


def test_ranges_are_read_as_css_writes_them() -> None:
    assert parse_unicode_range("U+0000-00FF, u+131,U+20AC") == ((0, 255), (0x131, 0x131), (0x20AC, 0x20AC))


@pytest.mark.parametrize(
    ("text", "plain"),
    [
        ("Gro\u0308ße", "Größe"),
        ("Donau\u00addampf", "Donaudampf"),
        ("Take\u200bit", "Takeit"),
        ("word\u2060joined\ufeff", "wordjoined"),
    ],
)
def test_what_is_not_seen_has_no_width_and_lacks_no_glyph(text: str, plain: str) -> None:
    """Source: Unicode 15, Default_Ignorable_Code_Point, and canonical composition (UAX 15)."""
    measured, seen = (kit().fonts.measure(one, "figtree", 16, 500, 0.5) for one in (text, plain))
    assert measured == seen
    assert measured.missing == ""
