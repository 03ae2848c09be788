"""Places that were chosen by pointing at a page of the shop, besides those that the shop's own code marks."""

import re
from enum import StrEnum
from typing import Annotated, Literal

from pydantic import Field, StringConstraints, field_validator, model_validator

from uptick.core.button.document import Device, Placement
from uptick.core.button.look import Part
from uptick.core.button.on_pages import OnPages
from uptick.core.button.row import Row
from uptick.core.rules.reach import Names, Reach


class Where(StrEnum):
    """Where the button stands, seen from the element that was pointed at; `inside` is at its end."""

    BEFORE = "before"
    AFTER = "after"
    INSIDE = "inside"
    INSTEAD = "instead"


PLACED = (
    Placement.PRODUCT_PAGE, Placement.LISTING_CARD, Placement.STRIP, Placement.OVER_PICTURE, Placement.TILE,
)  # fmt: skip
# Only these may bring their products themselves, and a tile always does.
BRINGS = (Placement.TILE, Placement.STRIP)


class Pages(OnPages):
    """On which pages and for which products a place is looked for; `not_…` takes some away again."""

    products: Names = ()
    categories: Names = ()
    not_products: Names = ()
    not_categories: Names = ()

    @property
    def reach(self) -> Reach:
        """The products that are meant."""
        return Reach(
            products=self.products,
            categories=self.categories,
            not_products=self.not_products,
            not_categories=self.not_categories,
        )


class ToldByPage(Part):
    """The page is about one product, or the form that is nearest holds its code."""

    kind: Literal["page"] = "page"


class ToldByAttribute(Part):
    """An attribute at the place or beside it holds the product's code."""

    kind: Literal["attribute"] = "attribute"
    name: Annotated[str, StringConstraints(pattern=r"^[a-z][a-z0-9_:.\-]*$", max_length=80)]


class ToldByLink(Part):
    """The address of a link beside the place holds the product's code, where a path has `{code}`."""

    kind: Literal["link"] = "link"
    path: Annotated[str, StringConstraints(pattern=r"^/[^\s?#]*\{code\}[^\s?#]*$", max_length=300)]

    @property
    def pattern(self) -> str:
        """Return a regular expression, the same in Python and JavaScript, whose first group is the code."""
        before, after = self.path.split("{code}", 1)
        return f"^{re.escape(before)}([^/]+){re.escape(after)}/?$"


class ToldByAddress(Part):
    """The page's own data tell which product lies at the address of a link beside the place."""

    kind: Literal["address"] = "address"


Telling = Annotated[ToldByPage | ToldByAttribute | ToldByLink | ToldByAddress, Field(discriminator="kind")]


class PointedPlace(Part):
    """One place: where it is on which pages, how its product is told, and how wide it was found to be.

    `page_path` is the page on which somebody pointed at it. With a row the place brings its own products, and its
    widths are those of the whole row.
    """

    placement: Placement
    selector: Annotated[str, StringConstraints(min_length=1, max_length=500, strip_whitespace=True)]
    where: Where
    pages: Pages = Pages()
    telling: Telling = ToldByPage()
    widths_px: dict[Device, Annotated[float, Field(gt=0, le=4000)]] = Field(default_factory=dict)
    own_height_px: Annotated[float, Field(ge=0, le=400)] = 0
    page_path: Annotated[str, StringConstraints(pattern=r"^(/\S*)?$", max_length=300)] = ""
    row: Row | None = None

    @field_validator("placement")
    @classmethod
    def _can_be_pointed_at(cls, placement: Placement) -> Placement:
        if placement not in PLACED:
            raise ValueError(
                "what hangs at the window stands by itself: one points at a page, a card, a strip or a picture"
            )
        return placement

    @model_validator(mode="after")
    def _leaves_its_picture(self) -> "PointedPlace":
        if self.placement is Placement.OVER_PICTURE and self.where is Where.INSTEAD:
            raise ValueError(
                "a button on a picture stands before, after or inside an element; instead of it, it would hide it"
            )
        return self

    @model_validator(mode="after")
    def _brings_what_it_may(self) -> "PointedPlace":
        if self.row and self.placement not in BRINGS:
            raise ValueError("only tiles and strips bring their own products: row must be empty")
        if self.placement is Placement.TILE and self.row is None:
            raise ValueError("tiles bring their own products: row must say which")
        return self

    def button_px(self, device: Device) -> float:
        """Return how wide a button may be there on a device where it was measured, in pixels."""
        wide = self.widths_px[device]
        return self.row.tile_px(wide, device) if self.row else wide

    @property
    def says(self) -> str:
        """Say where it is."""
        return f"{SAID[self.where]} {self.selector}"


SAID = {Where.BEFORE: "before", Where.AFTER: "after", Where.INSIDE: "inside", Where.INSTEAD: "instead of"}
