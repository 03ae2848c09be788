"""The values of design tokens, by type.

Source:
    Design Tokens Format Module 2025.10, sections 8 (types) and 9 (composite types).
"""

import re
from math import isfinite
from typing import Any

from coloraide import Color

from uptick.core.button.merge import Json
from uptick.core.colour.colour import opaque
from uptick.core.formats.tokens import CURVES


class Unfit(ValueError):
    """A value that is none of its type, with what would be."""


_SPACES = {
    "srgb": "srgb", "srgb-linear": "srgb-linear", "hsl": "hsl", "hwb": "hwb", "lab": "lab", "lch": "lch",
    "oklab": "oklab", "oklch": "oklch", "display-p3": "display-p3", "a98-rgb": "a98-rgb", "rec2020": "rec2020",
    "prophoto-rgb": "prophoto-rgb", "xyz-d65": "xyz-d65", "xyz-d50": "xyz-d50",
}  # fmt: skip
# Section 8.4: names of weights.
_WEIGHTS = {
    100: "thin hairline", 200: "extra-light ultra-light", 300: "light", 400: "normal regular book", 500: "medium",
    600: "semi-bold demi-bold", 700: "bold", 800: "extra-bold ultra-bold", 900: "black heavy",
    950: "extra-black ultra-black",
}  # fmt: skip
_WEIGHT_OF = {name: weight for weight, names in _WEIGHTS.items() for name in names.split()}


def read_colour(value: Any) -> str:
    """Return a colour as documents keep it; a bare text, as older files have it, is CSS.

    Raises:
        Unfit: It is none, or in a space that the format does not have.
    """
    try:
        if isinstance(value, str):
            color = Color(value)
        else:
            space = _SPACES.get(value["colorSpace"])
            if space is None:
                raise Unfit(f"the colour space {value['colorSpace']!r}; there are {', '.join(_SPACES)}")
            parts = [0.0 if channel == "none" else float(channel) for channel in value["components"]]
            if space in ("hsl", "hwb"):
                parts = [parts[0], parts[1] / 100, parts[2] / 100]
            color = Color(space, parts)
            color.set("alpha", float(value.get("alpha", 1)))
    except Unfit:
        raise
    except (KeyError, TypeError, ValueError, AttributeError, IndexError) as error:
        raise Unfit(f"{str(value)[:60]} is no colour; it has colorSpace, components and maybe alpha") from error
    if not all(isfinite(part) for part in color.coords(nans=False)):
        raise Unfit(f"{str(value)[:60]} is beyond all colours")
    return str(color.convert("srgb").fit().to_string(hex=True))


def read_dimension(value: Any) -> float:
    """Return a dimension in pixels; rem is 16 of them.

    Raises:
        Unfit: It is none.
    """
    if isinstance(value, dict) and value.get("unit") in ("px", "rem"):
        return read_number(value.get("value")) * (16 if value["unit"] == "rem" else 1)
    written = "" if isinstance(value, dict) else str(value).strip()
    match = re.fullmatch(r"(-?\d+(?:\.\d+)?|-?\.\d+)(px|rem)?", written)
    if not match or (match[2] is None and float(match[1]) != 0):
        raise Unfit(f"{str(value)[:60]} is no dimension; it has a value and a unit, px or rem")
    return float(match[1]) * (16 if match[2] == "rem" else 1)


def read_number(value: Any) -> float:
    """Return a finite number.

    Raises:
        Unfit: It is none.
    """
    if isinstance(value, bool) or not isinstance(value, int | float) or not isfinite(value):
        raise Unfit(f"{str(value)[:60]} is no number")
    return float(value)


def read_weight(value: Any) -> int:
    """Return a font weight, also by its name.

    Raises:
        Unfit: It is none.
    """
    if isinstance(value, str) and value.lower() in _WEIGHT_OF:
        return _WEIGHT_OF[value.lower()]
    if isinstance(value, str) and not value.isdigit():
        raise Unfit(f"{value[:40]!r} is no weight; there are 1 to 1000, and {', '.join(_WEIGHT_OF)}")
    return round(read_number(float(value) if isinstance(value, str) else value))


def read_ms(value: Any) -> int:
    """Return a duration in milliseconds.

    Raises:
        Unfit: It is none.
    """
    if isinstance(value, dict) and value.get("unit") in ("s", "ms"):
        return round(read_number(value.get("value")) * (1000 if value["unit"] == "s" else 1))
    match = re.fullmatch(r"(\d+(?:\.\d+)?)(ms|s)", str(value).strip())
    if not match:
        raise Unfit(f"{str(value)[:60]} is no duration; it has a value and a unit, ms or s")
    return round(float(match[1]) * (1000 if match[2] == "s" else 1))


def read_curve(value: Any) -> str:
    """Return the name of a cubic Bézier curve that a button can have.

    Raises:
        Unfit: It is another one.
    """
    name = next((name for name, points in CURVES.items() if isinstance(value, list) and points == list(value)), "")
    if not name:
        raise Unfit(f"the curve {str(value)[:40]}; {', '.join(CURVES)} are taken")
    return name


def read_border(value: Any) -> Json:
    """Return a border as documents keep it.

    Raises:
        Unfit: A part of it is none of its type.
    """
    width = read_dimension(value["width"])
    if not width:
        return {"kind": "none"}
    style = value.get("style", "solid")
    if style not in ("solid", "dashed", "dotted", "double"):
        raise Unfit(f"the style {str(style)[:40]}; solid, dashed, dotted and double are taken")
    return {"kind": "line", "width_px": width, "style": style, "colour": read_colour(value["color"])}


def read_shadows(value: Any) -> Json:
    """Return one shadow or several as documents keep them.

    Raises:
        Unfit: A part of one is none of its type.
    """
    those = value if isinstance(value, list) else [value]
    return {"kind": "cast", "list": [_shadow(item) for item in those]}


def _shadow(shadow_value: Json) -> Json:
    colour = read_colour(shadow_value["color"])
    opacity = int(colour[7:9], 16) / 255 if len(colour) == 9 else 1.0
    alpha = shadow_value["color"].get("alpha", 1) if isinstance(shadow_value["color"], dict) else opacity
    sizes = {"x_px": "offsetX", "y_px": "offsetY", "blur_px": "blur", "spread_px": "spread"}
    numbers = {name: read_dimension(shadow_value.get(theirs, 0)) for name, theirs in sizes.items()}
    return {
        **numbers,
        "colour": opaque(colour),
        "opacity": round(float(alpha), 4),
        "inner": bool(shadow_value.get("inset", False)),
    }


def read_gradient(value: Any) -> Json:
    """Return a gradient as documents keep it, its stops in growing order.

    Raises:
        Unfit: A part of it is none of its type.
    """
    stops = []
    reached = 0.0
    for stop in value:
        # Positions beyond the ends stand at them (section 9.6).
        reached = max(reached, min(100.0, max(0.0, round(read_number(stop["position"]) * 100, 2))))
        stops.append({"at": reached, "colour": read_colour(stop["color"])})
    return {"kind": "linear", "space": "srgb", "angle_deg": 90, "stops": stops}


def read_transition(value: Any) -> Json:
    """Return a transition as documents keep it.

    Raises:
        Unfit: A part of it is none of its type.
    """
    delay = read_ms(value["delay"]) if "delay" in value else 0
    curve = read_curve(value["timingFunction"])
    return {"kind": "motion", "duration_ms": read_ms(value["duration"]), "delay_ms": delay, "curve": curve}
