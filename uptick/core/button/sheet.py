"""What opens after a press: the basket shown, a choice in a list, a closer look, or a question."""

from typing import Annotated

from pydantic import Field

from uptick.core.button.look import Colour, Part, SeeThrough


class Sheet(Part):
    """How a sheet is drawn; its type family and its main button are the button's own. Lengths are CSS pixels.

    `shade` is what lies over the page behind it. On phones it comes from the lower edge, as wide as the window.
    """

    width_px: Annotated[float, Field(ge=280, le=720)] = 420
    padding_px: Annotated[float, Field(ge=8, le=64)] = 24
    radius_px: Annotated[float, Field(ge=0, le=48)] = 0
    edge_px: Annotated[float, Field(ge=0, le=8)] = 0
    edge_colour: Colour = "#1b1b1b"
    ground: Colour = "#ffffff"
    ink: Colour = "#1b1b1b"
    size_px: Annotated[float, Field(ge=12, le=24)] = 16
    shade: SeeThrough = "#00000080"
    motion_ms: Annotated[int, Field(ge=0, le=800)] = 200
