"""Lengths as a designer types them: pixels, or a share of the container, the type size or the window."""

import re
from collections.abc import Callable
from dataclasses import dataclass
from typing import Annotated, Any

from pydantic import BeforeValidator, WithJsonSchema

_WRITTEN = re.compile(r"^(\d{1,4}(?:\.\d{1,4})?)\s*(px|%|em|vw)?$")
# Most that makes sense in a button: twice its container, ten times its type, the whole window.
_MOST = {"%": 200.0, "em": 40.0, "vw": 100.0}


@dataclass(frozen=True, slots=True)
class Ground:
    """What relative lengths are relative to: the container's width and the window's, in pixels.

    `density` is how many dots of the screen a CSS pixel has; lines are as wide as whole dots.
    """

    container_px: float
    window_px: float
    density: float = 1


def _reader(least: float, most: float) -> Callable[[Any], float | str]:
    def read(value: Any) -> float | str:
        if isinstance(value, str):
            match = _WRITTEN.match(value.strip())
            if match and match[2] not in (None, "px"):
                if float(match[1]) <= _MOST[match[2]]:
                    return f"{float(match[1]):g}{match[2]}"
            elif match:
                value = float(match[1])
        if isinstance(value, bool) or not isinstance(value, int | float) or not least <= value <= most:
            raise ValueError(
                f"must be from {least:g} to {most:g} px, or to 200%, 40em or 100vw, such as 5% or 1.2em or 3vw"
            )
        return value

    return read


def _length(least: float, most: float) -> Any:
    schema = {
        "anyOf": [
            {"type": "number", "minimum": least, "maximum": most},
            {"type": "string", "pattern": r"^\d{1,4}(\.\d{1,4})?(%|em|vw)$"},
        ]
    }
    return Annotated[float | str, BeforeValidator(_reader(least, most)), WithJsonSchema(schema)]


Length = _length(0, 400)
Side = _length(16, 1200)
read_length = _reader(0, 400)


def to_px(length: float | str, ground: Ground, type_px: float) -> float:
    """Return a length in pixels.

    Source:
        CSS Values 4, section 6.1 (em, vw); percentages are of the container's width, as CSS Box 3 has them for padding.
    """
    if not isinstance(length, str):
        return length
    match = _WRITTEN.match(length)
    assert match, length
    number = float(match[1])
    return number * {"%": ground.container_px / 100, "em": type_px, "vw": ground.window_px / 100}[match[2]]


def css_length(length: float | str) -> str:
    """Return a length as CSS: a text as it is, a number as pixels, and nothing as a bare 0."""
    if isinstance(length, str):
        return length
    return f"{length:g}px" if length else "0"
