"""Buttons over pictures: where they lie, what they hide, how readable words are there; by hand and by coloraide."""

from base64 import b64encode
from typing import Any

import numpy as np
import pytest
from coloraide import Color
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError

from tests.core.scroll.pages import place, survey
from tests.samples import document
from uptick.core.button.document import ButtonDocument, Device, Placement
from uptick.core.button.merge import Json, merge_layer
from uptick.core.button.over import Over
from uptick.core.colour.colour import contrast_ratio
from uptick.core.colour.pictures import oklab
from uptick.core.scroll import PageSurvey, ScrollFinding, check_pictures
from uptick.core.scroll.pictures import ANCHORS, contrast_over, hidden_share, hides_focus, laid, spot_words, subject_of
from uptick.core.scroll.survey import DOTS, Rect, SeenPicture

ON = Rect(x=100, y=200, wide=320, high=320)


def picture(*boxes: tuple[int, int, int, int, str], ground: str = "#ffffff") -> SeenPicture:
    """Return a picture of boxes on a ground, in dots: left, top, right, bottom, colour."""
    dots = np.zeros((DOTS, DOTS, 3), dtype=np.uint8)
    dots[:] = rgb(ground)
    for left, top, right, bottom, colour in boxes:
        dots[top:bottom, left:right] = rgb(colour)
    return SeenPicture(box=ON, dots=b64encode(dots.tobytes()).decode())


def rgb(colour: str) -> list[int]:
    return [int(colour[n : n + 2], 16) for n in (1, 3, 5)]


@given(st.integers(0, 0xFFFFFF))
def test_oklab_is_that_of_the_reference_library(number: int) -> None:
    """Reference: coloraide, which has OKLab by B. Ottosson's own matrices."""
    colour = f"#{number:06x}"
    made = oklab(np.array([rgb(colour)]) / 255)[0]
    assert made == pytest.approx(Color(colour).convert("oklab").coords(), abs=2e-4)


def test_what_a_picture_shows_is_what_differs_from_its_edges() -> None:
    subject = subject_of(picture((8, 16, 16, 24, "#803010"), ground="#f2ead3"))
    assert subject
    assert subject.focus == pytest.approx((12 / 32, 20 / 32))
    assert subject.weights.sum() == pytest.approx(1)


def test_where_all_is_ground_or_the_edges_are_busy_the_middle_counts() -> None:
    plain = subject_of(picture())
    noise = np.random.default_rng(3).integers(0, 256, (DOTS, DOTS, 3), dtype=np.uint8)
    busy = subject_of(SeenPicture(box=ON, dots=b64encode(noise.tobytes()).decode()))
    assert plain
    assert busy
    assert plain.focus == pytest.approx((0.5, 0.5))
    assert busy.weights == pytest.approx(plain.weights)


def test_a_share_of_what_is_shown_is_counted_by_parts_of_dots() -> None:
    # A square of 8 by 8 dots, 80 by 80 px, from 180, 360 on.
    seen = picture((8, 16, 16, 24, "#000000"))
    whole = Rect(x=180, y=360, wide=80, high=80)
    assert hidden_share(whole, seen) == pytest.approx(1)
    assert hidden_share(Rect(x=180, y=360, wide=40, high=80), seen) == pytest.approx(0.5)
    # A dot and a half of eight, across and down.
    assert hidden_share(Rect(x=180, y=360, wide=15, high=15), seen) == pytest.approx((1.5 / 8) ** 2)
    assert hidden_share(Rect(x=300, y=200, wide=100, high=100), seen) == 0
    assert hides_focus(Rect(x=210, y=390, wide=20, high=20), seen)
    assert not hides_focus(Rect(x=225, y=390, wide=20, high=20), seen)


@pytest.mark.parametrize(
    ("values", "rtl", "corner"),
    [
        ({"anchor": "bottom_end", "across": 12, "down": 10}, False, (328, 470)),
        ({"anchor": "bottom_end", "across": 12, "down": 10}, True, (112, 470)),
        ({"anchor": "top_start", "across": "5%", "down": "10%"}, False, (116, 232)),
        ({"anchor": "middle", "across": 40, "down": 40}, False, (220, 340)),
        ({"anchor": "top", "across": 40, "down": 8}, True, (220, 208)),
        ({"anchor": "end", "across": 0, "down": 40}, False, (340, 340)),
    ],
)
def test_it_lies_at_its_anchor_so_far_inside(values: Json, rtl: bool, corner: tuple[float, float]) -> None:
    box = laid(Over.model_validate(values), (80, 40), ON, rtl=rtl)
    assert (box.x, box.y, box.wide, box.high) == (*corner, 80, 40)


def test_an_anchor_is_said_as_it_is_seen() -> None:
    assert [spot_words(anchor, rtl=False) for anchor in ANCHORS] == [
        "in the upper left corner", "at the top", "in the upper right corner",
        "on the left", "in the middle", "on the right",
        "in the lower left corner", "at the bottom", "in the lower right corner",
    ]  # fmt: skip
    assert spot_words("bottom_end", rtl=True) == "in the lower left corner"


@pytest.mark.parametrize("inset", [-1, 401, "51%", "5px", "-2%", True, None])
def test_a_distance_that_cannot_be_is_refused_with_what_is_allowed(inset: object) -> None:
    with pytest.raises(ValidationError, match="from 0 to 400 px, or from 0% to 50% of the picture"):
        Over.model_validate({"across": inset})


def test_words_are_read_on_the_pixels_that_lie_under_them() -> None:
    seen = picture((0, 16, 32, 32, "#202020"), ground="#e0e0e0")
    lower = Rect(x=120, y=400, wide=80, high=40)
    ratio = contrast_over("#ffffff", lower, seen)
    assert ratio == pytest.approx(contrast_ratio("#ffffff", "#202020"), abs=0.01)
    # Half on each: the worse half counts.
    across = Rect(x=120, y=340, wide=80, high=40)
    assert contrast_over("#ffffff", across, seen) == pytest.approx(contrast_ratio("#ffffff", "#e0e0e0"), abs=0.01)
    assert contrast_over("#ffffff", Rect(x=0, y=0, wide=10, high=10), seen) is None
    assert contrast_over("#ffffff", lower, SeenPicture(box=ON)) is None


def test_dots_that_are_no_square_are_refused() -> None:
    for dots in ("AAAA", "not base64!", "é"):
        with pytest.raises(ValidationError, match="dots must be"):
            SeenPicture(box=ON, dots=dots)


def lying(document_of: Json, seen: SeenPicture, size: tuple[float, float] = (100, 40), **more: Any) -> PageSurvey:
    """Return a page with a button over a picture, laid as its document says."""
    over = Over.model_validate(document_of.get("over", {}))
    box = laid(over, size, seen.box).model_dump()
    lying_place = {**place(0, placement="over_picture"), "box": box, "product": "A1", "picture": seen.model_dump()}
    return survey(lying_place, **more)


def found_in(page: PageSurvey, drawn: Json, device: Device = Device.PHONE) -> dict[str, ScrollFinding]:
    made: ButtonDocument = document(drawn)
    return {
        finding.rule: finding
        for finding in check_pictures(page, lambda place: (made, f"Thing {place.product}"), device)
    }


LOW = ((8, 22, 30, 32, "#803010"),)


def test_a_button_on_the_middle_of_what_is_shown_must_be_moved_to_a_spot_that_is_free() -> None:
    drawn: Json = {"over": {"anchor": "bottom", "down": 20}}
    seen = picture(*LOW)
    finding = found_in(lying(drawn, seen), drawn)["hides"]
    assert finding.weight == "must_fix"
    assert finding.title == "The button hides the middle of what is shown on the picture"
    assert "Worst is Thing A1: " in finding.says
    assert [fix.label for fix in finding.fixes] == [
        "put it in the middle: 0 % at worst",
        "put it in the lower left corner: 6 % at worst",
    ]
    for fix in finding.fixes:
        moved = merge_layer(drawn, fix.patch)
        assert "hides" not in found_in(lying(moved, seen), moved), fix.label


def test_what_waits_to_be_hovered_is_looked_at_again_where_something_hovers() -> None:
    drawn: Json = {"over": {"anchor": "bottom", "down": 20, "reveal": "button"}}
    page = lying(drawn, picture(*LOW))
    assert found_in(page, drawn, Device.DESKTOP)["hides"].weight == "look_again"
    assert found_in(page, drawn, Device.PHONE)["hides"].weight == "must_fix"


def test_a_tile_is_told_with_the_spots_that_are_free_since_its_row_says_where_it_lies() -> None:
    drawn: Json = {"over": {"anchor": "bottom", "down": 20}}
    page = lying(drawn, picture(*LOW))
    tile = page.model_copy(update={"places": (page.places[0].model_copy(update={"placement": Placement.TILE}),)})
    finding = found_in(tile, drawn)["hides"]
    assert finding.lanes == ("tile",)
    assert finding.fixes == ()
    assert finding.says.endswith("Free is: in the middle: 0 % at worst or in the lower left corner: 6 % at worst.")


def test_a_button_beside_what_is_shown_is_well() -> None:
    drawn: Json = {"over": {"anchor": "top_end"}}
    assert found_in(lying(drawn, picture(*LOW)), drawn) == {}


def test_a_picture_that_the_page_may_not_read_says_nothing() -> None:
    drawn: Json = {"look": {"fill": {"kind": "none"}, "text_colour": "#ffffff"}}
    assert found_in(lying(drawn, SeenPicture(box=ON)), drawn) == {}


def test_words_without_a_fill_are_held_to_the_pictures_pixels() -> None:
    drawn: Json = {"look": {"fill": {"kind": "none"}, "text_colour": "#ffffff"}, "over": {"anchor": "top_end"}}
    page = lying(drawn, picture(*LOW))
    finding = found_in(page, drawn)["pale"]
    assert finding.weight == "must_fix"
    assert finding.title == "Words 1.00 : 1 over the picture of Thing A1, 4.5 is needed"
    mended = merge_layer(drawn, finding.fixes[0].patch)
    assert finding.fixes[0].label == "fill #000000 gives 21.00"
    assert found_in(page, mended) == {}
    # On a dark picture the same words can be read.
    assert found_in(lying(drawn, picture(ground="#202020")), drawn) == {}
