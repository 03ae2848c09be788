"""Fills: the colours along a gradient as browsers mix them, and how a fill is written."""

from collections.abc import Sequence
from functools import lru_cache
from itertools import pairwise

from coloraide import Color, stop

from uptick.core.button.look import LayersFill, LinearFill, NoFill, PictureFill, RadialFill, SolidFill, Space, Stop
from uptick.core.colour.colour import luminance, opacity_of, over, parse_see_through

AnyFill = SolidFill | LinearFill | RadialFill | LayersFill | PictureFill | NoFill
# Between 65 samples no pair of colours moves the contrast by more than its second decimal.
_SAMPLES = 65
# What a see-through fill is judged on where no page is known.
WHITE = "#ffffff"
# How long a gradient is taken to be where a stop stands at so many pixels: about a button's length.
_LENGTH_PX = 160.0


def places_of(stops: Sequence[Stop]) -> tuple[float, ...]:
    """Return where stops stand in percent, those without a place evenly between their neighbours.

    Source:
        CSS Images 4, section 3.5.3 (colour stop "fixup").
    """
    placed = [_percent(stop.at) for stop in stops]
    placed[0] = 0.0 if placed[0] is None else placed[0]
    placed[-1] = 100.0 if placed[-1] is None else placed[-1]
    reached = -1e9
    for n, place in enumerate(placed):
        if place is not None:
            reached = max(reached, place)
            placed[n] = reached
    known = [n for n, place in enumerate(placed) if place is not None]
    for first, last in pairwise(known):
        start, end = placed[first], placed[last]
        assert start is not None
        assert end is not None
        for n in range(first + 1, last):
            placed[n] = start + (end - start) * (n - first) / (last - first)
    return tuple(place or 0.0 for place in placed)


def _percent(at: float | str | None) -> float | None:
    return float(at.removesuffix("px")) / _LENGTH_PX * 100 if isinstance(at, str) else at


@lru_cache(maxsize=1024)
def mixed(stops: tuple[Stop, ...], space: Space, samples: int = _SAMPLES) -> tuple[str, ...]:
    """Return colours along a gradient from 0 to 100 %, as hex; see-through ones in eight digits.

    Source:
        CSS Images 4, section 3.5.1 (colour space of a gradient; hues by the shorter arc; premultiplied); colours that
        sRGB cannot show are clipped, as browsers do when they paint.
    """
    placed = zip(stops, places_of(stops), strict=True)
    line = Color.interpolate(
        [stop(parse_see_through(ramp_stop.colour), at / 100) for ramp_stop, at in placed], space=space, hue="shorter"
    )
    return tuple(_clipped(line(n / (samples - 1))) for n in range(samples))


def _clipped(colour: Color) -> str:
    return str(colour.convert("srgb").clip().to_string(hex=True))


@lru_cache(maxsize=2048)
def colours_in(fill: AnyFill, page: str = WHITE) -> tuple[str, ...]:
    """Return the opaque colours that words may meet on a fill; none where the page or a picture is behind them.

    Args:
        page: The colour behind the button, which see-through fills let through.
    """
    if isinstance(fill, SolidFill):
        return (over(fill.colour, page),)
    if isinstance(fill, LinearFill | RadialFill):
        return tuple(dict.fromkeys(over(colour, page) for colour in mixed(fill.stops, fill.space)))
    if isinstance(fill, LayersFill):
        return _layered(fill, page)
    return ()


def _layered(fill: LayersFill, page: str) -> tuple[str, ...]:
    """Return the colours of gradients over one another.

    Where all run alike they are laid over one another place by place. Else any colour of one is taken to meet any of
    those below: more than is seen, so that no pair is missed.
    """
    ground = over(fill.ground, page) if fill.ground else page
    lines = [mixed(fill_layer.stops, fill_layer.space) for fill_layer in reversed(fill.list)]
    if _run_alike(fill):
        seen = [ground] * _SAMPLES
        for line in lines:
            seen = [over(colour, under) for colour, under in zip(line, seen, strict=True)]
        return tuple(dict.fromkeys(seen))
    met: tuple[str, ...] = (ground,)
    for line in lines:
        met = _spread(tuple(dict.fromkeys(over(colour, under) for colour in _spread(line) for under in met)))
    return met


def _run_alike(fill: LayersFill) -> bool:
    plain = [fill_layer for fill_layer in fill.list if isinstance(fill_layer, LinearFill) and not fill_layer.repeats]
    in_percent = all(not isinstance(stop.at, str) for fill_layer in fill.list for stop in fill_layer.stops)
    return in_percent and len(plain) == len(fill.list) and len({(run.angle_deg, run.toward) for run in plain}) == 1


def _spread(colours: tuple[str, ...], most: int = 17) -> tuple[str, ...]:
    """Return some of many colours, from the darkest and thinnest to the lightest and thickest, both of them with it."""
    different = sorted(set(colours), key=lambda colour: (luminance(over(colour, WHITE)), opacity_of(colour)))
    if len(different) <= most:
        return tuple(different)
    return tuple(different[round(n * (len(different) - 1) / (most - 1))] for n in range(most))


# Where a picture lies is known only when it is served; whoever serves the style puts an address for this.
PICTURES = "up:pictures/"


def css_fill(fill: AnyFill) -> str:
    """Return a fill as the value of CSS `background`."""
    if isinstance(fill, SolidFill):
        return fill.colour
    if isinstance(fill, LinearFill | RadialFill):
        return _css_gradient(fill)
    if isinstance(fill, LayersFill):
        layers = ",".join(_css_gradient(fill_layer) for fill_layer in fill.list)
        return f"{layers} {fill.ground}" if fill.ground else layers
    if isinstance(fill, PictureFill):
        veil = css_colour(fill.scrim.colour, fill.scrim.opacity)
        picture = f"url({PICTURES}{fill.picture}) {fill.x:g}% {fill.y:g}%/cover no-repeat"
        return f"linear-gradient({veil},{veil}),{picture}"
    return "none"


def _css_gradient(fill: LinearFill | RadialFill) -> str:
    if isinstance(fill, LinearFill):
        way = f"to {fill.toward}" if fill.toward else f"{fill.angle_deg:g}deg"
    else:
        how = " ".join(
            word for word, usual in ((fill.shape, "ellipse"), (fill.extent, "farthest-corner")) if word != usual
        )
        way = f"{how + ' ' if how else ''}at {fill.x:g}% {fill.y:g}%"
    kind = f"{'repeating-' if fill.repeats else ''}{fill.kind}-gradient"
    return f"{kind}({way} in {fill.space},{_css_stops(fill.stops)})"


def _css_stops(stops: tuple[Stop, ...]) -> str:
    return ",".join(f"{ramp_stop.colour}{_css_place(ramp_stop.at)}" for ramp_stop in stops)


def _css_place(at: float | str | None) -> str:
    if at is None:
        return ""
    return f" {at}" if isinstance(at, str) else f" {at:g}%"


def css_colour(colour: str, opacity: float) -> str:
    """Return a colour with its opacity as hex; an opaque one in six digits."""
    return colour if opacity >= 1 else f"{colour}{round(opacity * 255):02x}"
