"""What Up Tick knows of a shop: who it is, where its buttons stand, and how its basket is told."""

from typing import Annotated

from pydantic import Field, StringConstraints

from uptick.core.button.document import Device, Language, Placement
from uptick.core.button.lengths import Ground
from uptick.core.button.look import Colour, Part
from uptick.core.shop.connection import BasketConnection

Origin = Annotated[str, StringConstraints(pattern=r"^https?://[a-z0-9.\-]+(:\d+)?$")]


class Surface(Part):
    """Where a placement stands: container widths by device, the height of the shop's own button, the colour behind.

    `page_path` is a page where it can be looked at; empty where that is the product's own.
    """

    widths_px: dict[Device, Annotated[float, Field(gt=0, le=4000)]]
    own_height_px: Annotated[float, Field(ge=0, le=400)]
    page_colour: Colour = "#ffffff"
    page_path: Annotated[str, StringConstraints(pattern=r"^(/\S*)?$", max_length=300)] = ""

    def width_px(self, device: Device) -> float:
        """Return the container's width on a device; where none was measured there, the narrowest stands in."""
        return self.widths_px.get(device, self.narrowest()[1])

    def narrowest(self) -> tuple[Device, float]:
        """Return the device on which its container is the narrowest, and that width in pixels."""
        device = min(self.widths_px, key=lambda d: self.widths_px[d])
        return device, self.widths_px[device]


# Windows in which the containers were measured; common sizes of a phone, a tablet and a small desktop.
WINDOWS_PX = {Device.PHONE: 375.0, Device.TABLET: 768.0, Device.DESKTOP: 1280.0}
# How much of a page such a window shows, without what a phone's browser has of its own (common practice).
WINDOW_HEIGHTS_PX = {Device.PHONE: 740.0, Device.TABLET: 1024.0, Device.DESKTOP: 800.0}


class Store(Part):
    key: str
    name: str
    language: Language
    currency: str
    origin: Origin
    more_origins: tuple[Origin, ...] = ()
    timezone: str
    is_practice: bool
    connection: BasketConnection
    surfaces: dict[Placement, Surface]
    windows_px: dict[Device, float] = WINDOWS_PX

    def ground(self, placement: Placement, device: Device) -> Ground:
        """Return what relative lengths are relative to; where a device has no container, the narrowest stands in."""
        surface = self.surfaces[placement]
        return Ground(surface.width_px(device), self.windows_px.get(device, WINDOWS_PX[device]))

    @property
    def origins(self) -> tuple[str, ...]:
        """Return every address at which the shop has pages."""
        return (self.origin, *self.more_origins)

    def path_of(self, url: str) -> str:
        """Return the path of a page of the shop's; empty where an address is not one of its own."""
        path = next((url[len(origin) :] for origin in self.origins if url.startswith(f"{origin}/")), url)
        return path if path.startswith("/") and not path.startswith("//") else ""

    @property
    def places(self) -> tuple[Placement, ...]:
        """Return the placements that the shop's pages have, in the order of the plan."""
        return tuple(placement for placement in Placement if placement in self.surfaces)
