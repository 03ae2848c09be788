"""The look of a button: every drawn value, at rest and in each state."""

import re
from collections.abc import Callable, Hashable
from typing import Annotated, Any, Literal, TypeVar

from pydantic import BaseModel, BeforeValidator, ConfigDict, Field, StringConstraints, model_validator

from uptick.core.button.lengths import Length, Side, read_length

Family = Literal["figtree", "lora", "archivo"]
Colour = Annotated[str, StringConstraints(pattern=r"^#[0-9a-f]{6}$")]
# What lets the page show through has two digits more, as CSS writes it: 00 is nothing, ff is all.
SeeThrough = Annotated[str, StringConstraints(pattern=r"^#[0-9a-f]{6}([0-9a-f]{2})?$")]
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


LeastHeight = Annotated[float, Field(ge=0, le=400)]


class NaturalSize(Part):
    """As wide as its words need, between `least` and `most`."""

    kind: Literal["natural"] = "natural"
    least: Length = 0.0
    most: Side | None = None
    least_height_px: LeastHeight = 0


class FullSize(Part):
    """As wide as its container, at most `most`."""

    kind: Literal["full"] = "full"
    most: Side | None = None
    least_height_px: LeastHeight = 0


class FixedSize(Part):
    kind: Literal["fixed"] = "fixed"
    width: Side
    height: Annotated[float, Field(ge=16, le=400)]


Size = Annotated[NaturalSize | FullSize | FixedSize, Field(discriminator="kind")]


class SolidFill(Part):
    kind: Literal["solid"] = "solid"
    colour: SeeThrough


def _place(value: Any) -> Any:
    if isinstance(value, str):
        written = _PLACE_PX.match(value.strip())
        if written is None or not -2000 <= float(written[1]) <= 2000:
            raise ValueError("must be a percentage from -200 to 300 as a number, pixels from -2000 to 2000 as 12px")
        return f"{float(written[1]):g}px"
    return value


_PLACE_PX = re.compile(r"^(-?\d{1,4}(?:\.\d{1,4})?)px$")
Place = Annotated[Annotated[float, Field(ge=-200, le=300)] | str, BeforeValidator(_place)]


class Stop(Part):
    """A colour at a place along a gradient: in percent, in pixels as `12px`, or evenly between its neighbours."""

    at: Place | None = None
    colour: SeeThrough


Space = Literal["oklch", "srgb", "oklab"]


class _Gradient(Part):
    space: Space = "oklch"
    stops: Annotated[tuple[Stop, ...], Field(min_length=2, max_length=8)]
    repeats: bool = False

    @model_validator(mode="after")
    def _in_order(self) -> "_Gradient":
        places = [stop.at for stop in self.stops if isinstance(stop.at, float | int)]
        if places != sorted(places):
            raise ValueError(f"stops must stand in order, from 0 to 100; they stand at {places}")
        return self


Corner = Literal["top left", "top right", "bottom right", "bottom left"]


class LinearFill(_Gradient):
    """From stop to stop along a direction: 0 degrees is upward, 90 to the right, as CSS has it.

    With `toward` it runs into that corner of the button, whatever the button's shape is.
    """

    kind: Literal["linear"] = "linear"
    angle_deg: Annotated[float, Field(ge=0, le=360)] = 90
    toward: Corner | None = None


Extent = Literal["farthest-corner", "farthest-side", "closest-corner", "closest-side"]


class RadialFill(_Gradient):
    """From stop to stop outward from a centre in percent, as far as `extent` says."""

    kind: Literal["radial"] = "radial"
    x: Percent = 50
    y: Percent = 50
    shape: Literal["ellipse", "circle"] = "ellipse"
    extent: Extent = "farthest-corner"


class LayersFill(Part):
    """Gradients over one another, the uppermost first, over a colour or over the page."""

    kind: Literal["layers"] = "layers"
    list: Annotated[
        tuple[Annotated[LinearFill | RadialFill, Field(discriminator="kind")], ...], Field(min_length=1, max_length=6)
    ]
    ground: SeeThrough | None = None


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


Fill = Annotated[SolidFill | LinearFill | RadialFill | LayersFill | PictureFill | NoFill, Field(discriminator="kind")]


LineStyle = Literal["solid", "dashed", "dotted", "double"]


class NoBorder(Part):
    kind: Literal["none"] = "none"


class LineBorder(Part):
    """A line inside the outer box. Without a colour of its own it is derived from the fill."""

    kind: Literal["line"] = "line"
    width_px: Annotated[float, Field(gt=0, le=24)] = 1
    colour: SeeThrough | None = None
    style: LineStyle = "solid"


class SideLine(Part):
    """One side of a border; a width of 0 is none."""

    width_px: Annotated[float, Field(ge=0, le=24)] = 0
    colour: SeeThrough | None = None
    style: LineStyle = "solid"


class SidesBorder(Part):
    """A border whose sides differ; left and right are those of the direction of reading."""

    kind: Literal["sides"] = "sides"
    top: SideLine = SideLine()
    right: SideLine = SideLine()
    bottom: SideLine = SideLine()
    left: SideLine = SideLine()

    @property
    def lines(self) -> tuple[SideLine, SideLine, SideLine, SideLine]:
        """Return them as CSS has them: top, right, bottom, left."""
        return self.top, self.right, self.bottom, self.left


AnyBorder = NoBorder | LineBorder | SidesBorder
Border = Annotated[AnyBorder, Field(discriminator="kind")]


def lines_of(border: AnyBorder) -> tuple[SideLine, SideLine, SideLine, SideLine]:
    """Return the four sides of any border: top, right, bottom, left."""
    if isinstance(border, SidesBorder):
        return border.lines
    line = SideLine()
    if isinstance(border, LineBorder):
        line = SideLine(width_px=border.width_px, colour=border.colour, style=border.style)
    return line, line, line, line


def border_widths(border: AnyBorder) -> tuple[float, float, float, float]:
    """Return the widths that a border says, in pixels: top, right, bottom, left."""
    if isinstance(border, SidesBorder):
        top, right, bottom, left = (line.width_px for line in border.lines)
        return top, right, bottom, left
    width = border.width_px if isinstance(border, LineBorder) else 0.0
    return width, width, width, width


class Shadow(Part):
    x_px: Annotated[float, Field(ge=-400, le=400)] = 0
    y_px: Annotated[float, Field(ge=-400, le=400)] = 2
    blur_px: Annotated[float, Field(ge=0, le=400)] = 6
    # An inner one that is spread over the whole button is a veil (common practice).
    spread_px: Annotated[float, Field(ge=-400, le=2000)] = 0
    colour: Colour = "#000000"
    opacity: Share = 0.2
    inner: bool = False


class Shadows(Part):
    """All shadows, the uppermost first; a list is replaced whole."""

    kind: Literal["cast"] = "cast"
    list: Annotated[tuple[Shadow, ...], Field(max_length=6)] = ()


class TextShadow(Part):
    """A shadow of the words; it has no spread and lies behind them."""

    x_px: Annotated[float, Field(ge=-100, le=100)] = 0
    y_px: Annotated[float, Field(ge=-100, le=100)] = 1
    blur_px: Annotated[float, Field(ge=0, le=200)] = 0
    colour: Colour = "#000000"
    opacity: Share = 0.4


class TextShadows(Part):
    """All shadows of the words, the uppermost first; a list is replaced whole."""

    kind: Literal["words"] = "words"
    list: Annotated[tuple[TextShadow, ...], Field(max_length=6)] = ()


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
    line: Annotated[float, Field(ge=0, le=6)] = 0
    letter_spacing_px: Annotated[float, Field(ge=-2, le=20)] = 0
    case: Literal["as_written", "upper"] = "as_written"
    slant: Literal["upright", "italic"] = "upright"
    underline_px: Annotated[float, Field(ge=0, le=8)] = 0
    underline_offset_px: Annotated[float, Field(ge=0, le=24)] = 0

    @model_validator(mode="after")
    def _readable(self) -> "Type":
        if 0 < self.line < 0.8:
            raise ValueError(f"line must be 0 for the typeface's own, or from 0.8 to 6; it is {self.line:g}")
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


AnyColour = SeeThrough | Literal["rule"]


class StateLook(Part):
    """What differs from rest in a state. What is not said is derived from rest by rule, or is as at rest."""

    fill: (
        Annotated[
            SolidFill | LinearFill | RadialFill | LayersFill | PictureFill | NoFill | ByRule,
            Field(discriminator="kind"),
        ]
        | None
    ) = None
    text_colour: AnyColour | None = None
    border: Annotated[NoBorder | LineBorder | SidesBorder | ByRule, Field(discriminator="kind")] | None = None
    shadows: Annotated[Shadows | ByRule, Field(discriminator="kind")] | None = None
    opacity: Share | None = None
    motion: Motion | None = None


class FocusLook(StateLook):
    ring_colour: SeeThrough | None = None
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
    text_shadows: TextShadows = TextShadows()
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
    """Return four corners, also of one radius for all: numbers in pixels, texts with their unit."""
    if isinstance(radius, Corners):
        return radius
    return Corners(top_left=radius, top_right=radius, bottom_right=radius, bottom_left=radius)


STATES = ("hover", "pressed", "focus", "disabled", "working", "added")
