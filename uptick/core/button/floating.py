"""A floating button: in which corner of the window, how far from its edges, when it comes and goes."""

from typing import Annotated, Literal

from pydantic import Field

from uptick.core.button.bar import Hanging
from uptick.core.button.look import Part

Distance = Annotated[float, Field(ge=0, le=400)]


class Inset(Part):
    """How far from the window's side and from its upper or lower edge, in CSS pixels."""

    side_px: Distance = 16
    edge_px: Distance = 16


class Floating(Hanging):
    """A button by itself in a corner; `end` is the side where reading ends: the right one, but in Arabic or Hebrew."""

    corner: Literal["bottom_end", "bottom_start", "top_end", "top_start"] = "bottom_end"
    appear_ms: Annotated[int, Field(ge=0, le=2000)] = 200
    phone: Inset = Inset()
    tablet: Inset = Inset()
    desktop: Inset = Inset(side_px=24, edge_px=24)

    def inset(self, device: str) -> Inset:
        """Return its distances on a device."""
        inset: Inset = getattr(self, device)
        return inset

    @property
    def is_top(self) -> bool:
        return self.corner.startswith("top")
