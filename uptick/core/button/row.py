"""Rows of tiles: pictures of chosen products, or of those that a browser saw last, each with a button of ours."""

from typing import Annotated, Literal

from pydantic import Field, StringConstraints, model_validator

from uptick.core.button.bar import Heading, Language
from uptick.core.button.document import Device
from uptick.core.button.look import Part
from uptick.core.button.over import Anchor

# So many a browser remembers, and so many a row shows at most.
MOST_TILES = 12
Percent = Annotated[float, Field(ge=0, le=100)]
Code = Annotated[str, StringConstraints(min_length=1, max_length=200)]
TilePath = Annotated[str, StringConstraints(pattern=r"^/([^/\s\\][^\s\\]*)?$", max_length=600)]


class Tile(Part):
    """One product of a row: its code and the path of its page, from which name, price and picture are read.

    `across` and `down` are the focal point of its picture in percent: what stays in sight when the picture is cropped.
    """

    sku: Code
    path: TilePath
    across: Percent = 50
    down: Percent = 50


class RowLine(Part):
    """How a row stands on a device: how many side by side, and the width of a picture by its height."""

    across: Annotated[int, Field(ge=1, le=4)]
    ratio: Annotated[float, Field(ge=0.4, le=2.5)] = 1


class Row(Part):
    """What a place brings where the page has no picture of its own.

    `products` are shown in their order; with `seen` those that this browser saw last, `most` of them, and the products
    only until there are any. A row shows nothing of the product whose page it is on. `anchor` is where the button lies
    on the picture; below the words where it is empty.
    """

    seen: bool = False
    most: Annotated[int, Field(ge=1, le=MOST_TILES)] = 4
    products: Annotated[tuple[Tile, ...], Field(max_length=MOST_TILES)] = ()
    phone: RowLine = RowLine(across=2)
    tablet: RowLine = RowLine(across=4)
    desktop: RowLine = RowLine(across=4)
    heading: dict[Language, Heading] = Field(default_factory=dict)
    name: bool = True
    price: Literal["with_tax", "without_tax", "none"] = "with_tax"
    anchor: Anchor | Literal[""] = ""
    inset_px: Annotated[float, Field(ge=0, le=64)] = 10
    gap_px: Annotated[float, Field(ge=0, le=64)] = 16
    radius_px: Annotated[float, Field(ge=0, le=64)] = 0
    shadow: bool = False

    @model_validator(mode="after")
    def _shows_something(self) -> "Row":
        if not self.seen and not self.products:
            raise ValueError("a row of chosen products must name one")
        codes = [tile.sku for tile in self.products]
        if twice := next((code for code in codes if codes.count(code) > 1), None):
            raise ValueError(f"a row must not show {twice} twice")
        return self

    def line(self, device: Device) -> RowLine:
        """Return how it stands on a device."""
        row: RowLine = getattr(self, device.value)
        return row

    def tile_px(self, row_px: float, device: Device) -> float:
        """Return how wide a button in a tile may be, in pixels, where the row is so wide."""
        across = self.line(device).across
        tile = (row_px - self.gap_px * (across - 1)) / across
        return max(1.0, tile - (2 * self.inset_px if self.anchor else 0))
