"""Fills: the colours along a gradient as browsers mix them, and how a fill is written."""

from functools import lru_cache

from coloraide import Color, stop

from uptick.core.button.look import LinearFill, NoFill, PictureFill, RadialFill, SolidFill, Space, Stop
from uptick.core.colour.colour import parse_colour

AnyFill = SolidFill | LinearFill | RadialFill | PictureFill | NoFill
# Between 65 samples no pair of colours moves the contrast by more than its second decimal.
_SAMPLES = 65


@lru_cache(maxsize=1024)
def mixed(stops: tuple[Stop, ...], space: Space, samples: int = _SAMPLES) -> tuple[str, ...]:
    """Return colours along a gradient from 0 to 100 %, as hex.

    Source:
        CSS Images 4, section 3.5.1 (colour space of a gradient; hues by the shorter arc); colours that sRGB cannot show
        are clipped, as browsers do when they paint.
    """
    line = Color.interpolate([stop(parse_colour(s.colour), s.at / 100) for s in stops], space=space, hue="shorter")
    return tuple(_clipped(line(n / (samples - 1))) for n in range(samples))


def _clipped(colour: Color) -> str:
    return str(colour.convert("srgb").clip().to_string(hex=True))


def colours_in(fill: AnyFill) -> tuple[str, ...]:
    """Return the colours that words may meet on a fill; none where the page or a picture is behind them."""
    if isinstance(fill, SolidFill):
        return (fill.colour,)
    if isinstance(fill, LinearFill | RadialFill):
        return tuple(dict.fromkeys(mixed(fill.stops, fill.space)))
    return ()


# Where a picture lies is known only when it is served; whoever serves the style puts an address for this.
PICTURES = "up:pictures/"


def css_fill(fill: AnyFill) -> str:
    """Return a fill as the value of CSS `background`."""
    if isinstance(fill, SolidFill):
        return fill.colour
    if isinstance(fill, LinearFill):
        return f"linear-gradient({fill.angle_deg:g}deg in {fill.space},{_css_stops(fill.stops)})"
    if isinstance(fill, RadialFill):
        return f"radial-gradient(at {fill.x:g}% {fill.y:g}% in {fill.space},{_css_stops(fill.stops)})"
    if isinstance(fill, PictureFill):
        veil = css_colour(fill.scrim.colour, fill.scrim.opacity)
        picture = f"url({PICTURES}{fill.picture}) {fill.x:g}% {fill.y:g}%/cover no-repeat"
        return f"linear-gradient({veil},{veil}),{picture}"
    return "none"


def _css_stops(stops: tuple[Stop, ...]) -> str:
    return ",".join(f"{one.colour} {one.at:g}%" for one in stops)


def css_colour(colour: str, opacity: float) -> str:
    """Return a colour with its opacity as hex; an opaque one in six digits."""
    return colour if opacity >= 1 else f"{colour}{round(opacity * 255):02x}"
