"""Gradients of CSS as SVG has them."""

from math import cos, hypot, radians, sin, sqrt

from uptick.core.button.look import Extent, LinearFill, RadialFill, Stop
from uptick.core.colour.fills import mixed, places_of
from uptick.core.drawing.drawing import Rectangle

# SVG mixes in sRGB alone, so the colours between are written out.
_STEPS = 33


def svg_gradient(fill: LinearFill | RadialFill, box: Rectangle, name: str) -> str:
    """Return a gradient over a box as an SVG element.

    Source:
        CSS Images 4, sections 3.1.1 (the gradient line, "magic corners") and 3.2.1 (ending shapes); SVG 2, 14.2.
    """
    if isinstance(fill, LinearFill):
        x, y, half_x, half_y = _line(fill, box)
        length = 2 * hypot(half_x, half_y)
        begins, ends, stops = _placed(fill.stops, length)
        at = [(x + (2 * share - 1) * half_x, y + (2 * share - 1) * half_y) for share in (begins, ends)]
        where = f'x1="{at[0][0]:.3f}" y1="{at[0][1]:.3f}" x2="{at[1][0]:.3f}" y2="{at[1][1]:.3f}"'
        return _element("linearGradient", name, where, fill, stops)
    x, y, across, down = _ellipse(fill, box)
    _, ends, stops = _placed(fill.stops, across, from_zero=True)
    turned = f'gradientTransform="translate({x:.3f} {y:.3f}) scale(1 {down / across if across else 1:.5f})"'
    return _element("radialGradient", name, f'cx="0" cy="0" r="{across * ends:.3f}" {turned}', fill, stops)


def _element(kind: str, name: str, where: str, fill: LinearFill | RadialFill, stops: tuple[Stop, ...]) -> str:
    spread = ' spreadMethod="repeat"' if fill.repeats else ""
    colours = mixed(stops, fill.space, _STEPS)
    inside = "".join(
        f'<stop offset="{n / (_STEPS - 1):.4f}" stop-color="{colour[:7]}"{_opacity(colour)}/>'
        for n, colour in enumerate(colours)
    )
    return f'<{kind} id="{name}" gradientUnits="userSpaceOnUse" {where}{spread}>{inside}</{kind}>'


def _opacity(colour: str) -> str:
    return f' stop-opacity="{int(colour[7:9], 16) / 255:.3f}"' if len(colour) == 9 else ""


def _placed(
    stops: tuple[Stop, ...], length: float, *, from_zero: bool = False
) -> tuple[float, float, tuple[Stop, ...]]:
    """Return where the first and the last stop lie as shares of the line, and all of them between 0 and 100 %."""
    in_percent = tuple(
        stop.model_copy(update={"at": float(stop.at.removesuffix("px")) / (length or 1) * 100})
        if isinstance(stop.at, str)
        else stop
        for stop in stops
    )
    places = places_of(in_percent)
    first, last = (0.0 if from_zero else places[0]), places[-1]
    span = (last - first) or 1e-6
    moved = tuple(
        Stop.model_construct(at=(at - first) / span * 100, colour=stop.colour)
        for stop, at in zip(in_percent, places, strict=True)
    )
    return first / 100, last / 100, moved


def _line(fill: LinearFill, box: Rectangle) -> tuple[float, float, float, float]:
    """Return the middle of the gradient line and half of its way."""
    middle = (box.x + box.width / 2, box.y + box.height / 2)
    if fill.toward:
        # Perpendicular to the diagonal between the two other corners.
        right = 1 if "right" in fill.toward else -1
        down = 1 if "bottom" in fill.toward else -1
        way = (box.height * right, box.width * down)
    else:
        angle = radians(fill.angle_deg)
        way = (sin(angle), -cos(angle))
    long = hypot(*way) or 1
    x, y = way[0] / long, way[1] / long
    half = (abs(box.width * x) + abs(box.height * y)) / 2
    return (*middle, x * half, y * half)


def _ellipse(fill: RadialFill, box: Rectangle) -> tuple[float, float, float, float]:
    """Return the middle of the ending shape and its half axes."""
    x, y = box.width * fill.x / 100, box.height * fill.y / 100
    sides_x, sides_y = (x, box.width - x), (y, box.height - y)
    if fill.shape == "circle":
        radius = _circle(fill.extent, sides_x, sides_y)
        return box.x + x, box.y + y, radius, radius
    pick = min if fill.extent.startswith("closest") else max
    across, down = pick(map(abs, sides_x)), pick(map(abs, sides_y))
    if fill.extent == "farthest-corner":
        # As the farthest side has them, grown until the corner lies on the ellipse.
        across, down = across * sqrt(2), down * sqrt(2)
    return box.x + x, box.y + y, across, down


def _circle(extent: Extent, across: tuple[float, float], down: tuple[float, float]) -> float:
    sides = [abs(side) for side in (*across, *down)]
    if extent == "closest-side":
        return min(sides)
    if extent == "farthest-side":
        return max(sides)
    return max(hypot(a, b) for a in across for b in down)
