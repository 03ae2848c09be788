"""Rows of tiles: what they may hold, how wide a button in one may be, and their compiled form."""

from typing import Any

import pytest
from pydantic import ValidationError

from uptick.core.button.document import Device, Placement
from uptick.core.button.row import Row, RowLine, Tile
from uptick.core.drawing.row import compile_row
from uptick.core.rules.pointed import PointedPlace, Where

FIRST, SECOND = Tile(sku="A-1", path="/p/A-1"), Tile(sku="A-2", path="/p/A-2", across=20, down=62.5)


def place(**changes: Any) -> PointedPlace:
    told = {"placement": Placement.TILE, "selector": "main", "where": Where.INSIDE, "row": Row(products=(FIRST,))}
    return PointedPlace.model_validate(told | changes)


@pytest.mark.parametrize(
    ("wrong", "says"),
    [
        ({}, "must name one"),
        ({"products": (FIRST, FIRST)}, "must not show A-1 twice"),
        ({"seen": True, "most": 13}, "less than or equal to 12"),
        ({"products": (FIRST,), "phone": {"across": 5}}, "less than or equal to 4"),
        ({"products": (FIRST,), "anchor": "corner"}, "Input should be"),
    ],
)
def test_a_row_that_would_show_nothing_or_twice_the_same_is_refused(wrong: dict[str, Any], says: str) -> None:
    with pytest.raises(ValidationError, match=says):
        Row.model_validate(wrong)


@pytest.mark.parametrize("path", ["//elsewhere.test/p", "https://elsewhere.test", "p/A", "/\\elsewhere", "/p A"])
def test_a_tile_leads_to_the_shops_own_pages_only(path: str) -> None:
    with pytest.raises(ValidationError, match="String should match"):
        Tile(sku="A", path=path)


def test_a_tile_is_what_gaps_leave_of_the_row_and_less_on_the_picture() -> None:
    row = Row(products=(FIRST,), phone=RowLine(across=2), desktop=RowLine(across=1), gap_px=16)
    assert row.tile_px(343, Device.PHONE) == pytest.approx((343 - 16) / 2)
    assert row.tile_px(960, Device.DESKTOP) == 960
    on_picture = row.model_copy(update={"anchor": "bottom", "inset_px": 10})
    assert on_picture.tile_px(343, Device.PHONE) == pytest.approx((343 - 16) / 2 - 20)
    # A row that is narrower than its gaps has still a button that can be checked.
    assert row.tile_px(8, Device.PHONE) == 1


def test_only_tiles_and_strips_bring_their_products_and_tiles_always_do() -> None:
    assert place(widths_px={Device.PHONE: 343}).button_px(Device.PHONE) == pytest.approx(163.5)
    assert place(placement=Placement.STRIP, row=None, widths_px={Device.PHONE: 343}).button_px(Device.PHONE) == 343
    with pytest.raises(ValidationError, match="row must say which"):
        place(row=None)
    with pytest.raises(ValidationError, match="row must be empty"):
        place(placement=Placement.LISTING_CARD)


def test_the_compiled_row_tells_what_is_not_as_usual() -> None:
    assert set(compile_row(Row(products=(FIRST,), price="none"))) == {"css", "tiles"}
    made = compile_row(
        Row(seen=True, most=6, products=(SECOND,), price="without_tax", name=False, anchor="top_end",
            heading={"de-DE": "Zuletzt"})
    )  # fmt: skip
    assert made["tiles"] == [{"sku": "A-2", "path": "/p/A-2", "focus": "20% 62.5%"}]
    assert (made["seen"], made["price"], made["bare"], made["over"]) == (6, "price without tax", True, True)
    assert made["heading"] == {"de-DE": "Zuletzt"}
    assert "align-items:start;justify-items:end" in made["css"]


def test_every_device_has_its_columns_and_its_shape() -> None:
    css = compile_row(Row(products=(FIRST,), phone=RowLine(across=1, ratio=1.5), desktop=RowLine(across=3)))["css"]
    assert "@media(max-width:599px){ul{grid-template-columns:repeat(1,minmax(0,1fr))}.p a{aspect-ratio:1.5}}" in css
    assert "@media(min-width:1024px){ul{grid-template-columns:repeat(3,minmax(0,1fr))}.p a{aspect-ratio:1}}" in css
