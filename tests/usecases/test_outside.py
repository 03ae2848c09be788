"""Buttons outside: what their code says, what is told about it, and what differs later."""

from typing import Any

import pytest

from tests.samples import NOW, PRODUCTS, exception, product, settings
from tests.usecases.fakes import ADA, FakeShop, fake_shop
from uptick.core.errors import NotFound, OutOfRange
from uptick.core.outside.handed import Order, OutsideKind
from uptick.usecases.edit import change_layer
from uptick.usecases.outside import OutsideCode, make_outside, view_outside

EDGE = "https://edge.example"
OUTSIDE = {"wording": {"ready": {"en-GB": "Buy for {price}"}, "choose_first": {"en-GB": "See the sizes"}}}


def make(shop: FakeShop, *skus: str, copied: bool = False, **more: Any) -> OutsideCode:
    return make_outside(shop.shop, Order(products=skus, **more), EDGE, ADA, NOW, copied=copied)


def test_a_button_is_what_its_layer_and_exceptions_make_of_it() -> None:
    green = exception(1, {"look": {"radius": 17}}, placements=("outside",), products=("B1",))
    shop = fake_shop(settings(green, outside=OUTSIDE))
    for sku, words, radius in (
        ("A1", "Buy for £12.50", "4px"),
        ("B1", "Buy for £12.50", "17px"),
        ("B2", "See the sizes", "4px"),
    ):
        made = make(shop, sku)
        assert made.buttons[0].words == words
        assert f"border-radius:{radius}" in made.code
    # A form asks for the choice itself.
    assert make(shop, "B2", kind=OutsideKind.FORM).buttons[0].words == "Buy for £12.50"


def test_every_link_leads_from_the_moment_its_code_is_seen() -> None:
    shop = fake_shop()
    made = make(shop, "A1", "B1", kind=OutsideKind.MAIL, across=2)
    assert {button.id for button in made.buttons} == set(shop.outside.made)
    assert all(f"{EDGE}/s/sample/go/{button.id}" in made.code for button in made.buttons)
    assert all(button.copied_at is None for button in shop.outside.made.values())
    make(shop, "A1", "B1", kind=OutsideKind.MAIL, across=2, copied=True)
    assert [button.copied_at for button in shop.outside.made.values()] == [NOW, NOW]


def test_a_picture_is_kept_where_the_edge_serves_it() -> None:
    shop = fake_shop()
    made = make(shop, "A1", kind=OutsideKind.PICTURE)
    assert len(shop.outside.pictures) == 3
    assert all(f"{EDGE}/pictures/{digest}" in made.code for digest in shop.outside.pictures)
    assert 'alt="Buy"' in made.code
    # What is looked at in the studio loads nothing from elsewhere.
    assert EDGE not in made.shown.replace(made.buttons[0].link, "")


NOTES: list[tuple[list[str], dict[str, Any], str]] = [
    (["A1"], {"drawn": "outlined"}, "On a dark page its words have"),
    (["A1"], {"kind": OutsideKind.MAIL}, "the next one of the list is taken"),
    (["A1"], {}, "hovering and pressing"),
    (["C1"], {}, "Thing C1 is sold out: the button says so."),
    (["A1", "B1"], {"across": 4, "kind": OutsideKind.MAIL}, "The code holds the price as it is today"),
]


@pytest.mark.parametrize(("skus", "order", "says"), NOTES)
def test_what_differs_from_the_shops_own_button_is_told(skus: list[str], order: dict[str, Any], says: str) -> None:
    assert any(says in note for note in make(fake_shop(), *skus, **order).notes)


def test_words_too_wide_for_their_column_are_told_with_what_would_fit() -> None:
    long = {"wording": {"ready": {"en-GB": "A text that is far too long for a narrow column"}}}
    made = make(fake_shop(settings(outside=long)), "A1", "A2", "B1", kind=OutsideKind.MAIL, across=4)
    (said,) = [note for note in made.notes if "too wide" in note]
    assert "for a column of 128. With 1 in a row it fits. So are 2 more." in said
    assert not any("too wide" in note for note in make(fake_shop(), "A1", across=1).notes)


def test_what_cannot_be_made_says_why() -> None:
    shop = fake_shop(products=[*PRODUCTS, product("X1", url="https://elsewhere.example/x")])
    with pytest.raises(NotFound, match="'Z9'"):
        make(shop, "Z9")
    with pytest.raises(OutOfRange, match="own origins"):
        make(shop, "X1")
    with pytest.raises(OutOfRange, match="sold out"):
        make(shop, "C1", kind=OutsideKind.FORM)
    with pytest.raises(OutOfRange, match="language"):
        make(shop, "A1", language="de-DE")
    assert shop.outside.made == {}


def test_what_was_handed_out_and_looks_otherwise_now_is_told() -> None:
    shop = fake_shop(settings(outside=OUTSIDE))
    make(shop, "A1", kind=OutsideKind.MAIL, copied=True)
    make(shop, "B2", kind=OutsideKind.WEB, copied=True)
    make(shop, "A1", kind=OutsideKind.LINK, copied=True)
    assert view_outside(shop.shop, EDGE).differing == 0

    version = shop.shop.drafts.read().version
    change_layer(shop.shop, "place:outside", {"wording": {"ready": {"en-GB": "Buy it"}}}, version, ADA, NOW)
    view = view_outside(shop.shop, EDGE)
    assert [button.differs for button in view.handed_out] == [
        "It says “Buy for £12.50”, the shop says “Buy it”.",
        "",
        "",
    ]

    change_layer(shop.shop, "baseline", {"look": {"radius": 12}}, version + 1, ADA, NOW)
    differs = {button.sku: button.differs for button in view_outside(shop.shop, EDGE).handed_out if button.differs}
    assert differs["B2"] == "It is drawn otherwise than the shop’s."
    # What hovering shows is not outside at all.
    make(shop, "B2", kind=OutsideKind.WEB, copied=True)
    hover = {"look": {"hover": {"fill": {"kind": "solid", "colour": "#111111"}}}}
    change_layer(shop.shop, "baseline", hover, version + 2, ADA, NOW)
    assert "B2" not in {button.sku for button in view_outside(shop.shop, EDGE).handed_out if button.differs}

    shop.catalogue.remove(["A1"])
    gone = [button for button in view_outside(shop.shop, EDGE).handed_out if button.sku == "A1"]
    assert {outside.differs for outside in gone} == {"The product is gone: its link says so."}
