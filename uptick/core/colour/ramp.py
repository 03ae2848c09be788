"""The brand's colours: from one to three seeds, each with a ramp of shades in OKLCH."""

from dataclasses import dataclass
from functools import lru_cache
from typing import Annotated

from pydantic import Field, StringConstraints

from uptick.core.button.look import Colour, Part
from uptick.core.colour.colour import hex_of, parse_colour


class Seed(Part):
    """A colour of the brand, by the name that the shop has for it."""

    name: Annotated[str, StringConstraints(min_length=1, max_length=30, strip_whitespace=True)]
    colour: Colour


class Brand(Part):
    seeds: Annotated[tuple[Seed, ...], Field(max_length=3)] = ()


@dataclass(frozen=True, slots=True)
class Shade:
    """One step of a ramp: 10 is nearly white, 90 nearly black; `is_seed` is the brand's own colour, unchanged."""

    name: str
    step: int
    colour: str
    is_seed: bool


_STEPS = range(10, 100, 10)
# Lightness of the first and the last step; those between them stand evenly apart, as OKLCH is even to the eye.
_LIGHTEST, _DARKEST = 0.965, 0.2


def ramp(seed: Seed) -> tuple[Shade, ...]:
    """Return nine shades of a seed colour, even in OKLCH lightness."""
    return _ramp(seed.name, seed.colour)


@lru_cache(maxsize=256)
def _ramp(name: str, colour: str) -> tuple[Shade, ...]:
    """Return nine shades of one hue, even in OKLCH lightness; the one nearest to the seed is the seed itself.

    Chroma falls toward both ends, where sRGB has no room for it, and is fitted to sRGB where it still sticks out.
    """
    base = parse_colour(colour).convert("oklch")
    own, chroma = float(base["lightness"]), float(base["chroma"])
    stride = (_LIGHTEST - _DARKEST) / (len(_STEPS) - 1)
    lightness = {step: _LIGHTEST - stride * n for n, step in enumerate(_STEPS)}
    nearest = min(_STEPS, key=lambda step: abs(lightness[step] - own))
    shades = []
    for step in _STEPS:
        if step == nearest:
            shades.append(Shade(f"{name} {step}", step, colour, True))
            continue
        goal = lightness[step]
        room = (1 - goal) / (1 - own) if goal > own else goal / own
        shade = base.clone().set({"lightness": goal, "chroma": chroma * min(1.0, max(0.15, room))})
        shades.append(Shade(f"{name} {step}", step, hex_of(shade), False))
    return tuple(shades)
