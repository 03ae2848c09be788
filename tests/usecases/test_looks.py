import io
import json
import random
from typing import Any

import pytest
from PIL import Image

from tests.samples import NOW, PLACES, exception, settings
from tests.usecases.fakes import ADA, FakeShop, fake_shop
from uptick.core.button.document import Device, Placement, SecondButton
from uptick.core.button.fields import PARTS
from uptick.core.button.merge import Json
from uptick.core.errors import BadCss, BadDocument, BadIcon, NotFound, OutOfRange
from uptick.core.formats.css_expand import INITIAL
from uptick.core.rules.reach import Reach
from uptick.usecases import looks
from uptick.usecases.edit import change_layer, undo
from uptick.usecases.looks import Source
from uptick.usecases.views import DrawView, view_drawing
from uptick.usecases.views.drawing import DrawQuery, document_at, try_edit
from uptick.usecases.views.looks import view_carry, view_looks

PAGE, LIST, BAR = "place:product_page", "place:listing_card", "place:sticky_bar"
AT_PAGE = DrawQuery(Placement.PRODUCT_PAGE)
GREEN: Json = {"look": {"fill": {"kind": "solid", "colour": "#2f5d3a"}, "radius": 9}}


def drawn(made: FakeShop, place: Placement = Placement.PRODUCT_PAGE) -> DrawView:
    return view_drawing(made.shop, DrawQuery(place))


def change(made: FakeShop, layer: str, patch: Json) -> None:
    change_layer(made.shop, layer, patch, made.drafts.version, ADA, NOW)


def keep(made: FakeShop, name: str, used_by: str = "", place: Placement = Placement.PRODUCT_PAGE) -> None:
    layer = looks.whole_look(document_at(made.shop, DrawQuery(place)))
    looks.keep_look(made.shop, name, layer, used_by, made.drafts.version, ADA, NOW)


def test_an_edit_that_is_tried_is_drawn_and_not_kept() -> None:
    made = fake_shop()
    tried = try_edit(made.shop, AT_PAGE, PAGE, {"look": {"padding": {"left": 60}}})
    assert tried.shown.drawing.padding.left == 60
    assert drawn(made).shown.drawing.padding.left == 20
    assert made.drafts.version == 1
    with pytest.raises(BadDocument):
        try_edit(made.shop, AT_PAGE, PAGE, {"look": {"padding": {"left": -1}}})


def test_a_kept_look_is_used_by_several_placements_and_changed_in_one_place() -> None:
    made = fake_shop(settings(product_page=GREEN))
    keep(made, "Honey solid", PAGE)
    looks.use_look(made.shop, LIST, "honey-solid", made.drafts.version, ADA, NOW)
    assert drawn(made).editing.uses == "honey-solid"
    assert drawn(made, Placement.LISTING_CARD).document.look.radius == 9
    change(made, "look:honey-solid", {"look": {"radius": 17}})
    assert made.drafts.history(1)[0].label == "Look Honey solid: corner radius, 9 → 17"
    assert [drawn(made, place).document.look.radius for place in PLACES] == [17, 17, 4, 4]
    (shown,) = view_looks(made.shop).looks
    assert shown.used_by == ("Product page", "Listing card")
    undo(made.shop, ADA, NOW)
    assert drawn(made).document.look.radius == 9


def test_what_a_layer_says_itself_wins_over_the_look_that_it_uses() -> None:
    made = fake_shop(settings(product_page=GREEN))
    keep(made, "Honey", PAGE)
    change(made, PAGE, {"look": {"radius": 2}})
    assert drawn(made).document.look.radius == 2
    change(made, PAGE, {"look": {"radius": None}})
    assert drawn(made).document.look.radius == 9


def test_a_look_that_is_given_up_leaves_its_values_where_it_was_used() -> None:
    made = fake_shop(settings(exception(1, {}, products=("A1",)), product_page=GREEN))
    keep(made, "Honey", PAGE)
    looks.use_look(made.shop, "exception:e1", "honey", made.drafts.version, ADA, NOW)
    looks.drop_look(made.shop, "honey", made.drafts.version, ADA, NOW)
    now = made.drafts.read().settings
    assert now.looks == {}
    assert (now.layer(PAGE) or {})["look"]["radius"] == 9
    assert (now.layer("exception:e1") or {})["look"]["radius"] == 9
    assert "uses" not in (now.layer(PAGE) or {})


def test_looks_need_a_name_of_their_own_and_a_layer_that_can_use_them() -> None:
    made = fake_shop()
    keep(made, "Honey")
    for name in ("honey", "  "):
        with pytest.raises(BadDocument, match="name"):
            keep(made, name)
    with pytest.raises(NotFound):
        looks.use_look(made.shop, "place:roof", "honey", made.drafts.version, ADA, NOW)
    with pytest.raises(NotFound):
        looks.use_look(made.shop, PAGE, "moss", made.drafts.version, ADA, NOW)
    with pytest.raises(BadDocument, match="no look 'moss'"):
        change(made, PAGE, {"uses": "moss"})
    with pytest.raises(NotFound):
        looks.drop_look(made.shop, "moss", made.drafts.version, ADA, NOW)


def test_the_trace_names_the_look_that_a_value_comes_from() -> None:
    from uptick.usecases.views import view_trace
    from uptick.usecases.views.why import TraceQuery

    made = fake_shop(settings(product_page=GREEN))
    keep(made, "Honey", PAGE)
    lines = view_trace(made.shop, TraceQuery(Placement.PRODUCT_PAGE, "look.radius")).lines
    assert lines[0].of.title == "Product page, with the look Honey"


@pytest.mark.parametrize(
    ("kind", "value", "title"),
    [
        ("button", "listing_card/", "listing card"),
        ("start", "seam", "Seam"),
        ("look", "honey", "Honey"),
        ("css", ".buy { background: #123456; border-radius: 7px }", ".buy"),
        ("tokens", '{"button": {"rest": {"fill": {"$type": "color", "$value": "#123456"}}}}', "design tokens"),
    ],
)
def test_a_look_is_brought_from_anywhere_with_what_it_would_change(kind: str, value: str, title: str) -> None:
    made = fake_shop(settings(listing_card=GREEN))
    keep(made, "Honey", place=Placement.LISTING_CARD)
    source = Source(kind, value)  # type: ignore[arg-type]
    shown = view_carry(made.shop, AT_PAGE, PAGE, source, [])
    assert shown.title == title
    assert shown.changes
    assert shown.after is not None
    assert made.drafts.read().settings.layer(PAGE) == {}
    looks.carry(made.shop, PAGE, source, [], made.drafts.version, ADA, NOW)
    assert drawn(made).document == shown.after.document
    assert made.drafts.history(1)[0].label == f"Product page: look of {title}"


def test_chosen_parts_are_carried_alone() -> None:
    made = fake_shop(settings(listing_card=GREEN))
    source = Source("button", "listing_card/A1")
    looks.carry(made.shop, PAGE, source, ["corners"], made.drafts.version, ADA, NOW)
    assert made.drafts.read().settings.layer(PAGE) == {"look": {"radius": 9}}
    with pytest.raises(OutOfRange, match="a part"):
        looks.carry(made.shop, PAGE, source, ["colour"], made.drafts.version, ADA, NOW)
    css = Source("css", "color: red")
    with pytest.raises(OutOfRange, match="some of fill"):
        looks.carry(made.shop, PAGE, css, ["icon"], made.drafts.version, ADA, NOW)


def test_what_no_button_can_have_is_left_out_of_what_is_brought_and_told() -> None:
    made = fake_shop()
    css = "padding: 900px 12px; font: 950 16px Lora; letter-spacing: 30px; background: #123"
    brought = looks.bring(made.shop, Source("css", css))
    look = brought.layer["look"]
    assert look["padding"] == {"left": 12, "right": 12}
    assert "letter_spacing_px" not in look["type"]
    said = " ".join(brought.left_out)
    assert "padding above: 900 (must be from 0 to 400 px" in said
    assert "letter spacing: 30" in said


def test_every_start_and_every_part_can_be_brought_to_every_placement() -> None:
    made = fake_shop()
    for start in view_looks(made.shop).starts:
        looks.carry(made.shop, BAR, Source("start", start.key), list(PARTS), made.drafts.version, ADA, NOW)
        second = drawn(made, Placement.STICKY_BAR).document.second
        if isinstance(second, SecondButton):
            assert second.wording == {"en-GB": "Buy now"}


def test_unknown_sources_are_refused_by_name() -> None:
    shop = fake_shop().shop
    for source in (Source("button", "roof/A1"), Source("start", "nothing"), Source("look", "nothing")):
        with pytest.raises(NotFound):
            looks.bring(shop, source)


def test_the_brand_has_up_to_three_colours_with_names() -> None:
    made = fake_shop()
    seeds = [{"name": "honey", "colour": "#d99a2b"}, {"name": "ink", "colour": "#3a2a12"}]
    looks.set_brand(made.shop, seeds, made.drafts.version, ADA, NOW)
    assert made.drafts.history(1)[0].label == "Brand: honey #d99a2b, ink #3a2a12"
    ramps = view_looks(made.shop).ramps
    assert [ramp.name for ramp in ramps] == ["honey", "ink"]
    assert len(ramps[0].shades) == 9
    for wrong in ([{"name": "", "colour": "#d99a2b"}], [{"name": "x", "colour": "honey"}], seeds * 2):
        with pytest.raises(BadDocument, match="up to three colours"):
            looks.set_brand(made.shop, wrong, made.drafts.version, ADA, NOW)


def test_a_picture_is_kept_once_and_a_button_can_only_carry_one_that_is_there() -> None:
    out = io.BytesIO()
    Image.new("RGB", (60, 30), "#202020").save(out, "PNG")
    made = fake_shop()
    first = looks.bring_picture(made.shop, out.getvalue(), "bees.png", ADA, NOW)
    assert looks.bring_picture(made.shop, out.getvalue(), "again.png", ADA, NOW).hash == first.hash
    change(made, PAGE, {"look": {"fill": {"kind": "picture", "picture": first.hash}}})
    assert f"up:pictures/{first.hash}" in drawn(made).shown.button["css"]
    with pytest.raises(BadDocument, match="no picture"):
        change(made, PAGE, {"look": {"fill": {"kind": "picture", "picture": "f" * 16}}})


@pytest.mark.parametrize(
    ("form", "holds"),
    [("text", "A button, filled"), ("css", ".button {"), ("tokens", '"$type": "color"'), ("json", '"wording"')],
)
def test_a_look_is_written_to_take_away(form: str, holds: str) -> None:
    made = fake_shop()
    assert holds in looks.write_look(made.shop, document_at(made.shop, AT_PAGE), form)  # type: ignore[arg-type]


def reading(**changes: Any) -> str:
    """Return what a browser would say of a small stylesheet: padding that is less on a phone."""
    style = {"padding-top": "9px", "padding-right": "21px", "padding-bottom": "9px", "padding-left": "21px"}
    plain = {**INITIAL, **style}
    box = {"width": 90, "height": 40, "room": 300, "words_off_y": 0, "words_off_x": 0, "overflows": False}
    other = {"button": {"padding-left": "3px"}, "words": {}}
    widths = [
        {"window_px": px, "rest": rest, "states": {}, "box": box}
        for px, rest in ((1280, {"button": plain, "words": plain}), (390, other))
    ]
    said = {"selector": "a.y", "tag": "a", "said": list(style), "said_around": [], "said_in": {}, "told": ["line 3: x"]}
    return json.dumps({**said, "widths": widths, **changes})


def test_what_a_stylesheet_says_on_one_device_becomes_an_exception_for_it_in_the_same_step() -> None:
    made = fake_shop()
    source = Source("computed", reading())
    view = view_carry(made.shop, AT_PAGE, PAGE, source, ())
    assert (view.title, view.parts, view.left_out) == ("a.y", ("padding",), ("line 3: x",))
    (phone,) = view.by_device
    assert [(phone.device, one.field, one.after) for one in phone.changes] == [(Device.PHONE, "padding left", "3")]
    looks.carry(made.shop, PAGE, source, (), made.drafts.version, ADA, NOW, [Device.PHONE])
    now = made.drafts.read().settings
    (rule,) = now.exceptions
    assert (rule.name, rule.layer) == ("a.y on the phone", {"look": {"padding": {"left": 3}}})
    assert rule.reach == Reach(placements=(Placement.PRODUCT_PAGE,), devices=(Device.PHONE,))
    assert made.drafts.history(1)[0].label == "Product page: look of a.y, and 1 exception for its devices"
    undo(made.shop, ADA, NOW)
    assert made.drafts.read().settings.exceptions == ()


def test_a_reading_that_is_none_is_refused_with_a_sentence() -> None:
    refused = {"{}": "no reading of a stylesheet", "x" * 400_001: "400,001 characters", "[": "no reading"}
    for text, says in refused.items():
        with pytest.raises(BadCss, match=says):
            looks.bring(fake_shop().shop, Source("computed", text))


def test_an_icon_that_would_be_worked_out_for_minutes_is_refused_within_seconds() -> None:
    rng = random.Random(1)
    lines = "".join(f"L{rng.randint(0, 24)} {rng.randint(0, 24)}" for _ in range(500))
    tangle = f'<svg viewBox="0 0 24 24"><path fill-rule="evenodd" d="M0 0{lines}"/></svg>'
    with pytest.raises(BadIcon, match="could not be worked out within 5 seconds"):
        looks.bring_icon(tangle.encode(), "tangle")
    read = looks.bring_icon(b'<svg viewBox="0 0 24 24"><path d="M2 2h9v9z"/></svg>', "corner")
    assert (read.icon.name, len(read.icon.shapes), read.left_out) == ("corner", 1, ())
    with pytest.raises(BadIcon, match="That is no SVG"):
        looks.bring_icon(b"no", "no")
