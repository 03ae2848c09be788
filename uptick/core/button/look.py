"""The look of a button: every drawn value, at rest and in each state."""

from collections.abc import Callable, Hashable
from typing import Annotated, Any, Literal, TypeVar

from pydantic import BaseModel, BeforeValidator, ConfigDict, Field, StringConstraints, model_validator

from uptick.core.button.lengths import Length, Side, read_length

Family = Literal["figtree", "lora", "archivo"]
Colour = Annotated[str, StringConstraints(pattern=r"^#[0-9a-f]{6}$")]
Px = Annotated[float, Field(ge=0, le=400)]
Share = Annotated[float, Field(ge=0, le=1)]
Percent = Annotated[float, Field(ge=0, le=100)]


R = TypeVar("R")


class Part(BaseModel):
    """A piece of the settings, which never changes: what is worked out of it alone can be kept with it."""

    model_config = ConfigDict(extra="forbid", frozen=True)
    # Outside of the fields: neither compared nor written nor copied.
    __slots__ = ("_derived",)

    def derived(self, work: Callable[..., R], *by: Hashable) -> R:
        """Return `work(self, *by)`, kept as long as this value is."""
        try:
            kept: dict[Hashable, Any] = object.__getattribute__(self, "_derived")
        except AttributeError:
            kept = {}
            object.__setattr__(self, "_derived", kept)
        key = (work, *by) if by else work
        if key not in kept:
            kept[key] = work(self, *by)
        result: R = kept[key]
        return result


class NaturalSize(Part):
    """As wide as its words need, between `least` and `most`."""

    kind: Literal["natural"] = "natural"
    least: Length = 0.0
    most: Side | None = None


class FullSize(Part):
    """As wide as its container, at most `most`."""

    kind: Literal["full"] = "full"
    most: Side | None = None


class FixedSize(Part):
    kind: Literal["fixed"] = "fixed"
    width: Side
    height: Annotated[float, Field(ge=16, le=400)]


Size = Annotated[NaturalSize | FullSize | FixedSize, Field(discriminator="kind")]


class SolidFill(Part):
    kind: Literal["solid"] = "solid"
    colour: Colour


class Stop(Part):
    """A colour at a place along a gradient, in percent."""

    at: Percent
    colour: Colour


Space = Literal["oklch", "srgb"]


class _Gradient(Part):
    space: Space = "oklch"
    stops: Annotated[tuple[Stop, ...], Field(min_length=2, max_length=8)]

    @model_validator(mode="after")
    def _in_order(self) -> "_Gradient":
        places = [stop.at for stop in self.stops]
        if places != sorted(places):
            raise ValueError(f"stops must stand in order, from 0 to 100; they stand at {places}")
        return self


class LinearFill(_Gradient):
    """From stop to stop along a direction: 0 degrees is upward, 90 to the right, as CSS has it."""

    kind: Literal["linear"] = "linear"
    angle_deg: Annotated[float, Field(ge=0, le=360)] = 90


class RadialFill(_Gradient):
    """From stop to stop outward from a centre in percent, to the farthest corner."""

    kind: Literal["radial"] = "radial"
    x: Percent = 50
    y: Percent = 50


class Scrim(Part):
    """A veil of one colour over a picture, so that words can be read on it."""

    colour: Colour = "#000000"
    opacity: Share = 0.4


class PictureFill(Part):
    """A picture that covers the button around its focal point. With `instead` it stands for the words."""

    kind: Literal["picture"] = "picture"
    picture: Annotated[str, StringConstraints(pattern=r"^[0-9a-f]{16}$")]
    x: Percent = 50
    y: Percent = 50
    scrim: Scrim = Scrim()
    instead: bool = False


class NoFill(Part):
    """The page shows through."""

    kind: Literal["none"] = "none"


Fill = Annotated[SolidFill | LinearFill | RadialFill | PictureFill | NoFill, Field(discriminator="kind")]


class NoBorder(Part):
    kind: Literal["none"] = "none"


class LineBorder(Part):
    """A line inside the outer box. Without a colour of its own it is derived from the fill."""

    kind: Literal["line"] = "line"
    width_px: Annotated[float, Field(gt=0, le=24)] = 1
    colour: Colour | None = None
    style: Literal["solid", "dashed", "dotted", "double"] = "solid"


Border = Annotated[NoBorder | LineBorder, Field(discriminator="kind")]


class Shadow(Part):
    x_px: Annotated[float, Field(ge=-100, le=100)] = 0
    y_px: Annotated[float, Field(ge=-100, le=100)] = 2
    blur_px: Annotated[float, Field(ge=0, le=200)] = 6
    spread_px: Annotated[float, Field(ge=-100, le=100)] = 0
    colour: Colour = "#000000"
    opacity: Share = 0.2
    inner: bool = False


class Shadows(Part):
    """All shadows, the uppermost first; a list is replaced whole."""

    kind: Literal["cast"] = "cast"
    list: Annotated[tuple[Shadow, ...], Field(max_length=6)] = ()


class Padding(Part):
    top: Length
    right: Length
    bottom: Length
    left: Length


class Corners(Part):
    """Radius of each corner by itself; left and right are those of the direction of reading."""

    kind: Literal["corners"] = "corners"
    top_left: Length
    top_right: Length
    bottom_right: Length
    bottom_left: Length


def _radius(value: Any) -> Any:
    return Corners.model_validate(value) if isinstance(value, dict) else read_length(value)


# One radius for all corners, or each by itself; percentages are of the button's own sides.
Radius = Annotated[Corners | float | str, BeforeValidator(_radius)]


class Type(Part):
    """`line` is the line height as a multiple of the size; 0 is the typeface's own. An underline of 0 is none."""

    family: Family
    size_px: Annotated[float, Field(ge=8, le=72)]
    weight: Annotated[int, Field(ge=100, le=900)]
    line: Annotated[float, Field(ge=0, le=3)] = 0
    letter_spacing_px: Annotated[float, Field(ge=-2, le=20)] = 0
    case: Literal["as_written", "upper"] = "as_written"
    underline_px: Annotated[float, Field(ge=0, le=8)] = 0
    underline_offset_px: Annotated[float, Field(ge=0, le=24)] = 0

    @model_validator(mode="after")
    def _readable(self) -> "Type":
        if 0 < self.line < 0.8:
            raise ValueError(f"line must be 0 for the typeface's own, or from 0.8 to 3; it is {self.line:g}")
        return self


class Motion(Part):
    """How a state comes."""

    kind: Literal["motion"] = "motion"
    duration_ms: Annotated[int, Field(ge=0, le=3000)] = 150
    delay_ms: Annotated[int, Field(ge=0, le=3000)] = 0
    curve: Literal["linear", "ease", "ease-in", "ease-out", "ease-in-out"] = "ease-out"


class ByRule(Part):
    """Derived from rest again, whatever a wider layer has set by hand."""

    kind: Literal["rule"] = "rule"


AnyColour = Colour | Literal["rule"]


class StateLook(Part):
    """What differs from rest in a state. What is not said is derived from rest by rule, or is as at rest."""

    fill: (
        Annotated[SolidFill | LinearFill | RadialFill | PictureFill | NoFill | ByRule, Field(discriminator="kind")]
        | None
    ) = None
    text_colour: AnyColour | None = None
    border: Annotated[NoBorder | LineBorder | ByRule, Field(discriminator="kind")] | None = None
    shadows: Annotated[Shadows | ByRule, Field(discriminator="kind")] | None = None
    opacity: Share | None = None
    motion: Motion | None = None


class FocusLook(StateLook):
    ring_colour: Colour | None = None
    ring_width_px: Annotated[float, Field(ge=1, le=12)] = 3
    ring_offset_px: Annotated[float, Field(ge=-12, le=24)] = 2


class WorkingLook(StateLook):
    """`tell` is what moves: a tick that runs along the lower edge, the words that fade in and out, or nothing."""

    tell: Literal["tick", "breath", "none"] = "tick"


class AddedLook(StateLook):
    """`tell` is what moves once: a mark that stands up at the edge where one begins to read, a ring, or nothing."""

    tell: Literal["mark", "ring", "none"] = "mark"


class Look(Part):
    size: Size
    padding: Padding
    radius: Radius
    fill: Fill
    text_colour: AnyColour | None = None
    border: Border = NoBorder()
    shadows: Shadows = Shadows()
    opacity: Share = 1
    type: Type
    centring: Literal["line", "caps"] = "line"
    wrap: Literal["none", "lines", "ellipsis"] = "none"
    motion: Motion = Motion()
    hover: StateLook = StateLook()
    pressed: StateLook = StateLook()
    focus: FocusLook = FocusLook()
    disabled: StateLook = StateLook()
    working: WorkingLook = WorkingLook()
    added: AddedLook = AddedLook()


def corners_of(radius: Corners | float | str) -> Corners:
    if isinstance(radius, Corners):
        return radius
    return Corners(top_left=radius, top_right=radius, bottom_right=radius, bottom_left=radius)


STATES = ("hover", "pressed", "focus", "disabled", "working", "added")
