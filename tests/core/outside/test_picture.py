"""Buttons as pictures: their size is the layout's, their words the font's outlines, their PNG as many dots as said."""

import io
import random
from xml.etree import ElementTree

import pytest
from PIL import Image

from tests.random_buttons import random_button
from tests.samples import document, kit
from uptick.core.button.lengths import Ground
from uptick.core.drawing.boxes import lay_out
from uptick.core.errors import OutOfRange
from uptick.core.outside.picture import alone, draw_picture
from uptick.core.type.bidi import visual_runs

GROUND = Ground(320, 600)


def test_pictures_are_well_formed_and_as_large_as_the_button() -> None:
    rng = random.Random(7)
    for _ in range(60):
        made = document(random_button(rng))
        made = made.model_copy(update={"look": made.look.model_copy(update={"shadows": type(made.look.shadows)()})})
        picture = draw_picture(made, "Buy <now> & save", kit(), GROUND)
        drawn = lay_out(alone(made), "Buy <now> & save", kit(), GROUND)
        root = ElementTree.fromstring(picture.svg)
        assert root.find("{http://www.w3.org/2000/svg}title").text == "Buy <now> & save"  # type: ignore[union-attr]
        assert (picture.width, picture.height) == pytest.approx((drawn.outer.width, drawn.outer.height), abs=0.01)
        assert "<text" not in picture.svg


def test_png_has_so_many_dots_to_a_pixel() -> None:
    fixed = document({"look": {"size": {"kind": "fixed", "width": 140, "height": 44}}})
    picture = draw_picture(fixed, "Buy", kit(), GROUND)
    for scale in (1, 2, 3):
        assert Image.open(io.BytesIO(picture.png(scale))).size == (140 * scale, 44 * scale)
    with pytest.raises(OutOfRange, match="1, 2, 3 or 4"):
        picture.png(5)


def test_a_shadow_has_its_room() -> None:
    cast = {"kind": "cast", "list": [{"x_px": 3, "y_px": 8, "blur_px": 6, "spread_px": 1}]}
    plain = draw_picture(document(), "Buy", kit(), GROUND)
    cast_one = draw_picture(document({"look": {"shadows": cast}}), "Buy", kit(), GROUND)
    # 6 + 1 on each side, moved by 3 and 8.
    assert cast_one.width == pytest.approx(plain.width + 4 + 10)
    assert cast_one.height == pytest.approx(plain.height + 0 + 15)
    alpha = Image.open(io.BytesIO(cast_one.png(1))).getchannel("A")
    assert 0 < alpha.getpixel((int(cast_one.width / 2), int(cast_one.height) - 6)) < 255


def test_letters_that_no_font_has_are_refused_with_their_name() -> None:
    with pytest.raises(OutOfRange, match="“字”"):
        draw_picture(document(), "Buy 字", kit(), GROUND)


@pytest.mark.parametrize("text", ["Add to basket", "Größe wählen, £1,299.00", "أضف إلى السلة 12", "خذه، 1,249.00 £"])
def test_outlines_are_as_wide_as_what_is_measured(text: str) -> None:
    fonts = kit().fonts
    for family in fonts.families:
        for spacing in (0, 1.5):
            outline = fonts.outline(text, family, 18, 600, spacing, rtl="أ" in text or "خ" in text)
            measured = fonts.measure(text, family, 18, 600, spacing)
            assert outline.width_px == pytest.approx(measured.width_px, abs=0.02)
            assert outline.missing == measured.missing


RUNS = [
    # From Unicode Standard Annex 9: numbers run from left to right within what does not, L2 turns whole runs about.
    ("abc", False, [("abc", False)]),
    ("سلة 12", True, [("12", False), ("سلة ", True)]),
    ("خذه 1,249.00", True, [("1,249.00", False), ("خذه ", True)]),
    ("12 في سلة", True, [(" في سلة", True), ("12", False)]),
    ("Buy سلة now", False, [("Buy ", False), ("سلة", True), (" now", False)]),
    ("£12", True, [("£12", False)]),
    ("50%", True, [("50%", False)]),
]


@pytest.mark.parametrize(("text", "rtl", "expect"), RUNS)
def test_runs_stand_in_the_order_in_which_they_are_seen(text: str, rtl: bool, expect: list[tuple[str, bool]]) -> None:
    runs = visual_runs(text, rtl=rtl)
    assert [(run.text, run.rtl) for run in runs] == expect
    assert all(text[run.begins :].startswith(run.text) for run in runs)
