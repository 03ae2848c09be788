"""Contrast between colours, and the nearest colour that passes."""

from collections.abc import Sequence
from functools import lru_cache
from math import isinf, log

from coloraide import Color

from uptick.core.errors import BadColour, OutOfRange


def parse_colour(text: str) -> Color:
    """Return a colour from any CSS Color 4 text that is opaque.

    Raises:
        BadColour: It is not a colour, or it is see-through.
    """
    try:
        colour = Color(text.strip())
    except ValueError as error:
        raise BadColour(f"{text!r} is not a colour. Write it as #3a2a12, or by a CSS name.", value=text) from error
    if any(isinf(part) for part in colour.coords()):
        raise BadColour(f"{text[:60]!r} is beyond all colours. Write it as #3a2a12, or by a CSS name.", value=text[:60])
    if colour.alpha() < 1:
        raise BadColour(f"{text!r} is see-through; contrast needs an opaque colour.", value=text)
    return colour


def parse_see_through(text: str) -> Color:
    """Return a colour from hex digits, with how much of the page it lets through."""
    return Color(text)


def opacity_of(colour: str) -> float:
    """Return how much of a colour is there, from 0 to 1."""
    return int(colour[7:9], 16) / 255 if len(colour) == 9 else 1.0


def opaque(colour: str) -> str:
    """Return a colour without what it lets through."""
    return colour[:7]


def hex_of(colour: Color) -> str:
    """Return a colour as #rrggbb, brought into sRGB where it lies outside (CSS Color 4, 13)."""
    return str(colour.convert("srgb").fit().to_string(hex=True))


@lru_cache(maxsize=8192)
def contrast_ratio(one: str, other: str) -> float:
    """Return the contrast of two colours, from 1 to 21; the order does not matter.

    Source:
        WCAG 2.2, definitions of contrast ratio and relative luminance.
    """
    return float(parse_colour(one).contrast(parse_colour(other), method="wcag21"))


def needed_ratio(size_px: float, weight: int) -> float:
    """Return the contrast that words of this size must have.

    Source:
        WCAG 2.2, 1.4.3: 4.5, or 3 for large text, which is 18 pt (24 px), or 14 pt (18.66 px) and bold.
    """
    return 3.0 if size_px >= 24 or (size_px >= 14 * 96 / 72 and weight >= 700) else 4.5


@lru_cache(maxsize=8192)
def luminance(colour: str) -> float:
    """Return relative luminance, from 0 to 1 (WCAG 2.2)."""
    return float(parse_colour(colour).luminance())


def worst_contrast(colour: str, against: Sequence[str]) -> tuple[float, str]:
    """Return the least contrast of a colour with several, and the one that it has it with: the nearest in luminance.

    Of a gradient that is a colour in its middle where the words are neither lighter nor darker than all of it.
    """
    own = log(luminance(colour) + 0.05)
    nearest = min(against, key=lambda other: abs(log(luminance(other) + 0.05) - own))
    return contrast_ratio(colour, nearest), nearest


@lru_cache(maxsize=16_384)
def over(colour: str, ground: str, opacity: float = 1) -> str:
    """Return what is seen of a colour that lets through what is behind it, by its own digits and by an opacity.

    Source:
        Compositing and Blending 1, section 5.1, in sRGB as browsers paint.
    """
    opacity *= opacity_of(colour)
    if opacity >= 1:
        return opaque(colour)
    return str(parse_colour(ground).mix(opaque(colour), opacity, space="srgb").to_string(hex=True))


def worst_seen(words: str, met: Sequence[str]) -> tuple[float, str]:
    """Return the least contrast of words that may be see-through with the colours that they stand on, and with which.

    Args:
        words: Their colour, with or without digits for what it lets through.
        met: Opaque colours.
    """
    if opacity_of(words) >= 1:
        return worst_contrast(words, met)
    return min((contrast_ratio(over(words, ground), ground), ground) for ground in met)


@lru_cache(maxsize=2048)
def nearest_passing(colour: str, against: str | tuple[str, ...], ratio: float) -> str | None:
    """Return the colour of the same hue, least changed in OKLCH lightness, that reaches `ratio`; None if none does.

    Both ways, toward black and toward white, are tried by bisection; the result is rounded to hex and tested again.
    Against several colours it reaches the ratio with each of them.
    """
    if not 1 <= ratio <= 21:
        raise OutOfRange.of("ratio", "from 1 to 21", ratio)
    those = (against,) if isinstance(against, str) else against
    start = parse_colour(colour).convert("oklch")
    if worst_contrast(colour, those)[0] >= ratio:
        return hex_of(start)
    passing = []
    for end in (0.0, 1.0):
        candidate = _bisect(start, end, those, ratio)
        if candidate:
            passing.append((abs(candidate[0] - start["lightness"]), candidate[1]))
    return min(passing)[1] if passing else None


def _bisect(start: Color, end: float, against: tuple[str, ...], ratio: float) -> tuple[float, str] | None:
    def at(lightness: float) -> str:
        return hex_of(start.clone().set("lightness", lightness))

    def passes(lightness: float) -> bool:
        return worst_contrast(at(lightness), against)[0] >= ratio

    if not passes(end):
        return None
    near, far = float(start["lightness"]), end
    for _ in range(18):
        middle = (near + far) / 2
        if passes(middle):
            far = middle
        else:
            near = middle
    return far, at(far)


# Machado, Oliveira and Fernandes (2009), as coloraide has it, at full severity.
DEFICIENCIES = ("protan", "deutan", "tritan")


@lru_cache(maxsize=4096)
def seen_by(colour: str, deficiency: str) -> str:
    """Return a colour as a shopper with a deficiency of colour vision sees it."""
    return hex_of(parse_colour(colour).filter(deficiency))


@lru_cache(maxsize=4096)
def difference(one: str, other: str) -> float:
    """Return how far apart two colours look: CIEDE2000, where about 1 can just be seen and 10 is plain at a glance."""
    return float(parse_colour(one).delta_e(parse_colour(other), method="2000"))
