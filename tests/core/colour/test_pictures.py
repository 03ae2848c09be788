import io

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from PIL import Image

from uptick.core.button.look import PictureFill, Scrim
from uptick.core.colour.colour import contrast_ratio
from uptick.core.colour.pictures import Picture, luminance, under, worst_contrast
from uptick.core.errors import BadPicture
from uptick.core.formats.picture_file import MOST_BYTES, pixels_of, read_picture

HASH = "0123456789abcdef"


def halves() -> Picture:
    """A picture of 200 by 100: black on the left, white on the right."""
    pixels = np.zeros((100, 200, 3), dtype=np.uint8)
    pixels[:, 100:] = 255
    return Picture(pixels)


def fill(x: float = 50, y: float = 50, opacity: float = 0.0, scrim: str = "#000000") -> PictureFill:
    return PictureFill(picture=HASH, x=x, y=y, scrim=Scrim(colour=scrim, opacity=opacity))


@given(st.integers(0, 0xFFFFFF))
def test_luminance_of_pixels_is_that_of_colours(number: int) -> None:
    """Reference: coloraide, WCAG 2.1 contrast with white, over any colour."""
    rgb = np.array([[number >> 16, number >> 8 & 255, number & 255]]) / 255
    ratio = 1.05 / (luminance(rgb)[0] + 0.05)
    assert ratio == pytest.approx(contrast_ratio(f"#{number:06x}", "#ffffff"), rel=1e-3)


def test_the_focal_point_says_what_lies_under_the_words() -> None:
    """Source: CSS Backgrounds 3, 3.6 and 3.9: a square box shows the left, middle or right of a wide picture."""
    whole = (0.0, 0.0, 100.0, 100.0)
    assert under(halves(), fill(x=0), (100, 100), whole).mean() == 0
    assert under(halves(), fill(x=100), (100, 100), whole).mean() == 1
    assert under(halves(), fill(x=50), (100, 100), whole).mean() == pytest.approx(0.5)
    left = under(halves(), fill(x=50), (100, 100), (0.0, 0.0, 50.0, 100.0))
    assert left.mean() == 0


def test_a_scrim_is_mixed_over_every_pixel() -> None:
    seen = under(halves(), fill(x=100, opacity=0.5), (100, 100), (0.0, 0.0, 100.0, 100.0))
    assert seen.mean() == pytest.approx(0.5)


def test_words_are_held_against_the_worst_pixels_under_them() -> None:
    pixels = np.ones((1000, 3))
    assert worst_contrast("#ffffff", pixels) == pytest.approx(1)
    pixels[:980] = 0
    assert worst_contrast("#ffffff", pixels) == pytest.approx(1)
    pixels[:995] = 0
    # Five lone pixels in a thousand do not make words unreadable.
    assert worst_contrast("#ffffff", pixels) == pytest.approx(21)


def file(kind: str, size: tuple[int, int] = (40, 20)) -> bytes:
    out = io.BytesIO()
    Image.new("RGB", size, "#d99a2b").save(out, kind)
    return out.getvalue()


@pytest.mark.parametrize("kind", ["PNG", "JPEG", "WEBP"])
def test_a_picture_is_read_and_named_by_its_content(kind: str) -> None:
    made = read_picture(file(kind))
    assert (made.width, made.height, made.media_type) == (40, 20, f"image/{kind.lower()}")
    assert made.hash == read_picture(file(kind)).hash
    assert pixels_of(made.content).size == (40, 20)


def test_a_large_picture_is_made_smaller_and_loses_what_cameras_put_in() -> None:
    out = io.BytesIO()
    tags = Image.Exif()
    tags[0x010E] = "a secret place"
    Image.new("RGB", (3200, 1000), "red").save(out, "JPEG", exif=tags)
    made = read_picture(out.getvalue())
    assert (made.width, made.height) == (1600, 500)
    assert b"a secret place" not in made.content


@pytest.mark.parametrize(
    "content", [b"", b"<svg/>", b"GIF89a", b"\x89PNG\r\n\x1a\nbroken", file("PNG")[:40], file("GIF")]
)
def test_what_is_no_picture_is_refused(content: bytes) -> None:
    with pytest.raises(BadPicture, match="PNG, JPEG and WebP"):
        read_picture(content)


def test_a_picture_that_is_too_large_is_refused_before_it_is_read() -> None:
    with pytest.raises(BadPicture, match="8 MB"):
        read_picture(b"x" * (MOST_BYTES + 1))
