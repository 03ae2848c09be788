import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.samples import document, kit
from uptick.core.button.lengths import Ground
from uptick.core.button.look import SideLine, SidesBorder
from uptick.core.button.merge import Json
from uptick.core.drawing.boxes import lay_out
from uptick.core.drawing.compile import compile_button, reserved_height
from uptick.core.drawing.drawing import Drawing, Edges, border_edges
from uptick.core.looks.sentences import specification

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


def test_words_that_may_wrap_break_where_unicode_allows_and_fit_their_room() -> None:
    """Source: UAX 14: after spaces and hyphens, not inside words or between a currency sign and its figure."""
    d = drawn({"look": {"wrap": "lines", "size": {"kind": "full"}}}, "Take it home, £1,299.00", 140)
    assert [line.text for line in d.lines] == ["Take it", "home,", "£1,299.00"] or len(d.lines) == 2
    assert all(line.width <= d.content.width + 1 / 64 for line in d.lines)
    assert d.outer.height == pytest.approx(24 + len(d.lines) * d.line_height_px)
    assert d.too_wide_px == 0


@given(st.text(alphabet="Take it home-", min_size=1, max_size=40), st.integers(60, 300))
def test_lines_together_say_the_whole_text(text: str, room: int) -> None:
    d = drawn({"look": {"wrap": "lines", "size": {"kind": "full"}}}, text, room)
    assert "".join(line.text.replace(" ", "") for line in d.lines) == text.replace(" ", "")


def test_an_ellipsis_leaves_out_just_what_does_not_fit() -> None:
    d = drawn({"look": {"wrap": "ellipsis", "size": {"kind": "full"}}}, "Pick your frame standard", 160)
    (line,) = d.lines
    assert line.text.endswith("…")
    assert line.text[:-1] + d.left_out == "Pick your frame standard"
    assert drawn({"look": {"wrap": "ellipsis"}}, "Buy").left_out == ""


def test_optical_centring_puts_the_capitals_in_the_middle_and_says_how_far_they_went() -> None:
    d = drawn({"look": {"centring": "caps"}})
    assert (d.cap_top_y + d.baseline_y) / 2 == pytest.approx(d.outer.height / 2)
    assert d.shift_px == pytest.approx(d.words.y + d.words.height / 2 - d.outer.height / 2)
    assert drawn({}).shift_px == 0


def test_relative_lengths_are_of_container_type_and_window() -> None:
    pad = {"top": "1em", "right": "5%", "bottom": "2vw", "left": 10}
    d = drawn({"look": {"padding": pad, "radius": "50%"}}, room=200)
    assert (d.padding.top, d.padding.right, d.padding.bottom, d.padding.left) == (16, 10, 7.5, 10)
    assert d.radius.top_left == pytest.approx(d.outer.width / 2)


def test_a_border_is_inside_the_outer_box_and_adds_to_a_natural_one() -> None:
    plain, edged = drawn({}), drawn({"look": {"border": {"kind": "line", "width_px": 3}}})
    assert edged.outer.width == pytest.approx(plain.outer.width + 6)
    assert edged.outer.height == pytest.approx(plain.outer.height + 6)
    assert edged.content.x == plain.content.x + 3


def test_a_button_keeps_between_its_least_and_its_most() -> None:
    assert drawn({"look": {"size": {"kind": "natural", "least": 250}}}, "Buy").outer.width == 250
    assert drawn({"look": {"size": {"kind": "natural", "most": 90}}}, "Take it home now").outer.width == 90
    assert drawn({"look": {"size": {"kind": "full", "most": "50%"}}}, room=300).outer.width == 150


@pytest.mark.parametrize("side", ["before", "after", "above", "alone"])
def test_an_icon_stands_where_it_is_put(side: str) -> None:
    d = drawn({"icon": {**ICON, "side": side}})
    assert d.icon is not None
    if side == "alone":
        assert (d.lines, d.words.width) == ((), 0)
        assert d.icon.x + d.icon.width / 2 == pytest.approx(d.outer.width / 2)
    elif side == "above":
        assert d.icon.y + d.icon.height + d.gap_px == pytest.approx(d.words.y)
    else:
        assert (d.icon.x < d.words.x) == (side == "before")


def test_what_stands_beside_takes_from_the_room() -> None:
    second = {
        "kind": "checkout", "wording": {"en-GB": "Now"}, "padding": {"top": 9, "right": 9, "bottom": 9, "left": 9},
        "radius": 4, "gap_px": 10, "share": True,
    }  # fmt: skip
    boxed = {"kind": "box", "layout": "sides", "width_px": 50}
    d = drawn({"look": {"size": {"kind": "full"}}, "quantity": boxed, "second": second}, "Buy", 400)
    assert d.quantity is not None
    assert d.second is not None
    assert d.quantity.width == 50 + 2 * 36
    assert d.outer.width == pytest.approx(d.second.outer.width) == pytest.approx((400 - 122 - 8 - 10) / 2)
    first = drawn({"second": {**second, "first": True}}, "Buy", 400)
    assert first.second is not None
    assert first.second.outer.x < 0
    under = drawn({"second": {**second, "side": "under"}}, "Buy", 400)
    assert under.second is not None
    assert (under.second.outer.y, under.second.outer.x) == (under.outer.height + 10, 0)


@pytest.mark.parametrize(
    ("said", "density", "drawn"), [(1.5, 1, 1), (3.5, 1, 3), (0.4, 1, 1), (1.5, 2, 1.5), (0.2, 3, 1 / 3), (0, 2, 0)]
)
def test_a_border_is_as_wide_as_whole_dots_of_the_screen(said: float, density: float, drawn: float) -> None:
    """Source: CSS Backgrounds 3, section 3.3 ("snapped as a border width")."""
    border = SidesBorder(top=SideLine(width_px=said))
    assert border_edges(border, density) == Edges(pytest.approx(drawn), 0, 0, 0)


def test_a_least_height_counts_where_words_need_less() -> None:
    for kind in ("natural", "full"):
        tall = document({"look": {"size": {"kind": kind, "least_height_px": 90}}})
        boxes = lay_out(tall, "Buy", kit(), Ground(300, 1280))
        assert boxes.outer.height == 90
        assert boxes.words.y + boxes.words.height / 2 == 45
        assert compile_button(tall, kit())["high"] == 90
        assert "min-height:90px" in compile_button(tall, kit())["css"]
        assert "at least 90 px high" in specification(tall)
    low = document({"look": {"size": {"kind": "natural", "least_height_px": 4}}})
    assert lay_out(low, "Buy", kit(), Ground(300, 1280)).outer.height > 40
