"""What hangs at the window: when it comes and goes, and the sticky bar with what it holds and how that is spread."""

from enum import StrEnum
from typing import Annotated, Literal

from pydantic import Field, StringConstraints, model_validator

from uptick.core.button.look import Colour, Part


class BarPart(StrEnum):
    """What a bar may hold; a quantity box stands with the button."""

    PICTURE = "picture"
    HEADING = "heading"
    NAME = "name"
    PRICE = "price"
    BUTTON = "button"


class AfterOwn(Part):
    """It comes once the page's own button has been scrolled past."""

    kind: Literal["own_left"] = "own_left"


class AfterShare(Part):
    """It comes after a share of the way that the page can be scrolled."""

    kind: Literal["share"] = "share"
    share: Annotated[float, Field(ge=0, le=0.95)] = 0.12


class AfterDistance(Part):
    """It comes after so many pixels of scrolling."""

    kind: Literal["distance"] = "distance"
    px: Annotated[float, Field(ge=0, le=20_000)] = 200


Comes = Annotated[AfterOwn | AfterShare | AfterDistance, Field(discriminator="kind")]
Parts = Annotated[tuple[BarPart, ...], Field(min_length=1, max_length=5)]
Without = Annotated[tuple[BarPart, ...], Field(max_length=4)]
Heading = Annotated[str, StringConstraints(max_length=80)]
Language = Annotated[str, StringConstraints(pattern=r"^[a-z]{2}(-[A-Z]{2})?$")]


class Hanging(Part):
    """When something that is fixed to the window comes and goes.

    `returns` says that it goes while the page's own button is in the window; `foot_px` that it goes so far before the
    end of the page, 0 that it stays.
    """

    comes: Comes = AfterOwn()
    only_up: bool = False
    returns: bool = True
    foot_px: Annotated[float, Field(ge=0, le=4000)] = 0


class Bar(Hanging):
    """A bar at an edge of the window.

    `parts` stand in the order of reading, and `…_without` leaves some out on a device. `taxed` is whether its price is
    with tax.
    `close_hours` is how long a shopper who closes it is left alone; 0 means that it cannot be closed.
    """

    edge: Literal["bottom", "top"] = "bottom"
    slide_ms: Annotated[int, Field(ge=0, le=2000)] = 300
    parts: Parts = (BarPart.NAME, BarPart.PRICE, BarPart.BUTTON)
    phone_without: Without = (BarPart.NAME,)
    tablet_without: Without = ()
    desktop_without: Without = ()
    spread: Literal["apart", "together", "middle"] = "apart"
    taxed: bool = True
    heading: dict[Language, Heading] = Field(default_factory=dict)
    ground: Colour = "#ffffff"
    ink: Colour = "#111111"
    shadow: bool = True
    close_hours: Annotated[int, Field(ge=0, le=8760)] = 0

    @model_validator(mode="after")
    def _holds_the_button(self) -> "Bar":
        if self.parts.count(BarPart.BUTTON) != 1:
            raise ValueError("parts must hold the button, and once")
        if len(set(self.parts)) != len(self.parts):
            raise ValueError("parts must not hold the same thing twice")
        for name in ("phone", "tablet", "desktop"):
            if BarPart.BUTTON in getattr(self, f"{name}_without"):
                raise ValueError(f"{name}_without must not hold the button: an exception for the device hides the bar")
        return self

    def without(self, device: str) -> tuple[BarPart, ...]:
        """Return what is left out on a device."""
        parts: tuple[BarPart, ...] = getattr(self, f"{device}_without")
        return parts

    def holds(self, device: str) -> tuple[BarPart, ...]:
        """Return what it holds on a device, in order."""
        without = self.without(device)
        return tuple(part for part in self.parts if part not in without)
