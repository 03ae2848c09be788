import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.samples import document, kit
from uptick.core.boxes import Drawing, lay_out
from uptick.core.compile import reserved_height
from uptick.core.lengths import Ground
from uptick.core.merge import Json

fonts = kit().fonts
WINDOW = 375
ICON = {"kind": "shipped", "name": "basket", "side": "before", "size_px": 18, "gap_px": 8}


def drawn(patch: Json, text: str = "Take it home", room: float = 320) -> Drawing:
    return lay_out(document(patch), text, kit(), Ground(room, WINDOW))


sizes = st.one_of(
    st.just({"kind": "natural"}),
    st.just({"kind": "full"}),
    st.builds(lambda w, h: {"kind": "fixed", "width": w, "height": h}, st.integers(16, 500), st.integers(16, 120)),
)
icons = st.one_of(
    st.just({"kind": "none"}),
    st.builds(
        lambda side, size, gap: {**ICON, "side": side, "size_px": size, "gap_px": gap},
        st.sampled_from(["before", "after"]),
        st.integers(8, 48),
        st.integers(0, 24),
    ),
)
pads = st.builds(
    lambda t, r, b, left: {"top": t, "right": r, "bottom": b, "left": left},
    *[st.integers(0, 40)] * 4,
)


@given(sizes, icons, pads, st.text(alphabet="Take it home", max_size=24), st.integers(100, 500))
def test_boxes_add_up_for_any_look(size: Json, icon: Json, pad: Json, text: str, room: int) -> None:
    d = drawn({"look": {"size": size, "padding": pad}, "icon": icon}, text, room)
    run = d.words.width + (d.icon.width + d.gap_px if d.icon else 0)
    assert d.needs_width_px == pytest.approx(run + pad["left"] + pad["right"])
    assert d.content.width == pytest.approx(d.outer.width - pad["left"] - pad["right"])
    # Centred: as much over on the left of the content box as on the right.
    first = min(d.words.x, d.icon.x if d.icon else d.words.x)
    last = max(d.words.x + d.words.width, d.icon.x + d.icon.width if d.icon else 0)
    assert first - d.content.x == pytest.approx(d.content.x + d.content.width - last)
    assert d.words.y + d.words.height / 2 == pytest.approx(d.content.y + d.content.height / 2)
    assert d.words.y < d.cap_top_y < d.baseline_y < d.words.y + d.words.height
    fits = d.needs_width_px <= d.outer.width + 1 / 64 and d.outer.width <= room + 1 / 64
    assert fits == (d.too_wide_px == 0)


def test_an_icon_added_to_a_small_fixed_button_does_not_fit_and_about_130_px_does() -> None:
    """Common practice: a 110 × 39 px button under a theme's 20 px padding has no room for an icon beside two words."""
    patch: Json = {"look": {"size": {"kind": "fixed", "width": 110, "height": 39}, "type": {"size_px": 14}}}
    without = drawn(patch, "Buy now")
    assert without.too_wide_px == 0
    with_icon = drawn({**patch, "icon": ICON}, "Buy now")
    assert with_icon.too_wide_px > 0
    assert 116 <= with_icon.needs_width_px <= 140


def test_full_width_takes_the_container_and_natural_what_it_needs() -> None:
    assert drawn({"look": {"size": {"kind": "full"}}}).outer.width == 320
    natural = drawn({})
    assert natural.outer.width == natural.needs_width_px
    assert drawn({}, room=natural.outer.width - 10).too_wide_px == pytest.approx(10)


def test_padding_larger_than_a_fixed_box_stretches_it_as_css_does() -> None:
    d = drawn({"look": {"size": {"kind": "fixed", "width": 30, "height": 16}}})
    assert (d.outer.width, d.outer.height) == (40, 24)
    assert d.too_high_px > 0


def test_every_moment_stands_in_the_height_that_is_reserved() -> None:
    for patch in ({}, {"icon": {**ICON, "size_px": 40}}, {"look": {"type": {"size_px": 30}}}):
        assert drawn(patch).outer.height == pytest.approx(reserved_height(document(patch), kit()))
