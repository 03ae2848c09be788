"""Ramps, starting points, parts that are carried, sentences, icons."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.samples import document, kit
from uptick.core.button.document import Shape
from uptick.core.button.fields import PARTS
from uptick.core.button.lengths import Ground
from uptick.core.button.merge import Json
from uptick.core.colour.colour import contrast_ratio, parse_colour
from uptick.core.colour.dress import REST, dresses
from uptick.core.colour.ramp import Brand, Seed, ramp
from uptick.core.drawing.boxes import lay_out
from uptick.core.drawing.icon_search import find_icons
from uptick.core.drawing.kit import centre_of_mass
from uptick.core.drawing.match import matched
from uptick.core.errors import OutOfRange
from uptick.core.looks.carry import completed, only_parts, part_of
from uptick.core.looks.sentences import kind_of_body, specification
from uptick.core.looks.starts import starts

hexes = st.integers(0, 0xFFFFFF).map(lambda n: f"#{n:06x}")
HONEY = Brand(seeds=(Seed(name="honey", colour="#d99a2b"), Seed(name="moss", colour="#2f5d3a")))


@given(hexes)
def test_a_ramp_goes_evenly_from_light_to_dark_and_holds_the_seed_unchanged(colour: str) -> None:
    shades = ramp(Seed(name="seed", colour=colour))
    assert [shade.step for shade in shades] == list(range(10, 100, 10))
    assert [shade.colour for shade in shades if shade.is_seed] == [colour]
    light = [float(parse_colour(shade.colour).convert("oklch")["lightness"]) for shade in shades if not shade.is_seed]
    assert light == sorted(light, reverse=True)


@given(st.floats(0.3, 0.8), st.floats(0.03, 0.12), st.floats(0, 359))
def test_a_ramp_keeps_the_hue_of_its_seed(lightness: float, chroma: float, hue: float) -> None:
    seed = parse_colour(f"oklch({lightness} {chroma} {hue})").convert("srgb").fit().to_string(hex=True)
    own = float(parse_colour(seed).convert("oklch")["hue"])
    for shade in ramp(Seed(name="seed", colour=seed)):
        found = parse_colour(shade.colour).convert("oklch")
        if found["chroma"] > 0.03:
            away = abs(float(found["hue"]) - own) % 360
            assert min(away, 360 - away) < 12


@pytest.mark.parametrize("brand", [Brand(), HONEY, Brand(seeds=(Seed(name="pale", colour="#ffffee"),))])
def test_every_starting_point_makes_a_button_that_can_be_read(brand: Brand) -> None:
    found = starts(brand)
    assert len(found) >= 8
    for start in found:
        made = document(start.layer)
        rest = dresses(made.look)[REST]
        grounds = [layer for layer in (rest.fill,) if layer.kind == "solid"]
        ground = grounds[0].colour if grounds else "#ffffff"  # type: ignore[union-attr]
        if not made.is_wordless and rest.fill.kind in ("solid", "none"):
            assert contrast_ratio(rest.text_colour, ground) >= 4.5, start.key


def test_starting_points_differ_in_how_they_are_built_not_in_colour() -> None:
    def built(layer: Json) -> tuple[object, ...]:
        made = document(layer)
        look = made.look
        return (
            look.fill.kind, look.border.kind, str(look.radius), look.size.kind, made.icon.kind,
            getattr(made.icon, "side", ""), made.quantity.kind, made.second.kind, len(look.shadows.list),
        )  # fmt: skip

    assert len({built(start.layer) for start in starts(HONEY)}) == len(starts(HONEY))


def test_parts_of_a_look_are_taken_alone_or_together() -> None:
    layer = {"look": {"fill": {"kind": "solid", "colour": "#111111"}, "radius": 3}, "icon": {"kind": "none"}}
    assert only_parts(layer, ["corners"]) == {"look": {"radius": 3}}
    assert only_parts(layer, ["fill", "icon"]) == {"look": {"fill": layer["look"]["fill"]}, "icon": {"kind": "none"}}
    assert only_parts(layer, ["second"]) == {}
    with pytest.raises(OutOfRange, match="one of size"):
        only_parts(layer, ["colour"])


def test_every_drawn_field_belongs_to_one_part() -> None:
    raw = completed(document().model_dump(mode="json"))
    for path in ("look.size", "look.padding.top", "look.hover.fill", "look.type.line", "look.border", "second", "icon"):
        assert part_of(path) in PARTS, path
    assert part_of("wording.ready.en-GB") == ""
    assert raw["look"]["pressed"]["fill"] == {"kind": "rule"}


def test_a_completed_look_takes_its_states_with_it_over_a_wider_rule() -> None:
    """The sample baseline sets its hover by hand; a look that leaves it to the rule must not show that."""
    bare = completed({"look": {"fill": {"kind": "solid", "colour": "#884422"}, "hover": {}}})
    hovered = dresses(document(bare).look)["hover"]
    assert hovered.fill.colour not in ("#000000", "#884422")  # type: ignore[union-attr]


@pytest.mark.parametrize(
    ("patch", "body"),
    [
        ({}, "filled"),
        ({"look": {"fill": {"kind": "none"}, "border": {"kind": "line"}}}, "outlined"),
        ({"look": {"fill": {"kind": "none"}}}, "words only"),
        ({"look": {"fill": {"kind": "picture", "picture": "0" * 16}}}, "picture"),
    ],
)
def test_a_body_is_called_what_a_designer_calls_it(patch: Json, body: str) -> None:
    assert kind_of_body(document(patch).look) == body


def test_the_specification_reads_as_sentences_in_a_designers_order() -> None:
    icon = {"kind": "shipped", "name": "basket", "side": "above", "size_px": 20, "gap_px": 6}
    said = specification(document({"icon": icon, "quantity": {"kind": "box"}, "look": {"wrap": "lines"}}))
    body, words, icon_said, states, beside = said.strip().split("\n\n")
    assert body == (
        "A button, filled, as wide as its words, corners 4 px, in #3a2a12. "
        "Padding 12 px above and below, 20 px at the sides."
    )
    assert words.startswith("Words in Figtree 16 px, weight 600, #ffffff, centred on their line.")
    assert words.endswith("Where they are too long they go on on another line.")
    assert icon_said == "An icon, basket, stands above them, 20 px, 6 px apart."
    assert states.startswith("When hovered: fill #000000.")
    assert "While pressed: fill #1d1000 by rule." in states
    assert beside.startswith("Before it a number of 64 px, 1 to 99 in steps of 1")


@pytest.mark.parametrize(
    ("asked", "found"),
    [("basket", "basket"), ("fast", "lightning"), ("gift", "gift"), ("reserve", "calendar"), ("buy", "basket"),
     ("delivery", "package"), ("percent", "percent"), ("ARROW", "arrow")],
)  # fmt: skip
def test_an_icon_is_found_by_what_a_shopper_understands(asked: str, found: str) -> None:
    assert found in find_icons(kit().icons, asked)[:12]


def test_what_nobody_understands_finds_nothing_and_nothing_finds_the_shops_own_first() -> None:
    assert find_icons(kit().icons, "qwertz") == ()
    assert "basket" in find_icons(kit().icons, "")[:30]
    assert len(kit().icons) > 250


def test_mass_lies_where_the_area_is() -> None:
    """Worked by hand: a triangle's mass is a third of its height from its base; of two squares it is by area."""
    triangle = Shape(d="M0 0L0 30L30 15Z")
    assert centre_of_mass((triangle,)) == pytest.approx((10, 15))
    squares = (Shape(d="M0 0h10v10h-10z"), Shape(d="M100 0h20v20h-20z"))
    x, _ = centre_of_mass(squares) or (0, 0)
    assert x == pytest.approx((100 * 5 + 400 * 110) / 500)
    line = Shape(d="M0 0L10 20", stroke=2)
    assert centre_of_mass((line,)) == pytest.approx((5, 10))
    assert centre_of_mass(()) is None
    # An open path is filled as if it were closed.
    assert centre_of_mass((Shape(d="M0 0L0 30L30 15"),)) == pytest.approx((10, 15))


second_looks = st.fixed_dictionaries(
    {
        "size_px": st.integers(8, 40),
        "weight": st.sampled_from([400, 600, 700]),
        "border": st.sampled_from([{"kind": "none"}, {"kind": "line", "width_px": 2}]),
        "radius": st.integers(0, 30),
    }
)


@given(second_looks, st.integers(4, 30), st.integers(10, 40), st.integers(0, 6))
def test_a_matched_neighbour_is_as_high_in_the_same_type_and_corners(own: Json, pad: int, size: int, line: int) -> None:
    second = {
        "kind": "checkout", "wording": {"en-GB": "Now"}, **own,
        "padding": dict.fromkeys(("top", "right", "bottom", "left"), 9),
    }  # fmt: skip
    look: Json = {
        "padding": {"top": pad, "bottom": pad}, "type": {"size_px": size}, "radius": 7,
        "border": {"kind": "line", "width_px": line} if line else {"kind": "none"},
    }  # fmt: skip
    made = document({"look": look, "second": second})
    alike = matched(made, kit())
    drawn = lay_out(made.model_copy(update={"second": alike}), "Take it", kit(), Ground(400, 1280))
    assert drawn.second is not None
    border = 2 * float(own["border"].get("width_px", 0))
    if drawn.outer.height >= drawn.second.words.height + border:
        assert drawn.second.outer.height == pytest.approx(drawn.outer.height)
    assert (alike.size_px, alike.radius) == (size, 7)
