"""Values of CSS declarations as values of a look."""

import re
from collections.abc import Sequence
from math import isfinite

import tinycss2
from coloraide import Color
from tinycss2.ast import (
    DimensionToken,
    FunctionBlock,
    HashToken,
    IdentToken,
    LiteralToken,
    Node,
    NumberToken,
    PercentageToken,
    StringToken,
    WhitespaceToken,
)

from uptick.core.button.merge import Json
from uptick.core.colour.colour import opacity_of
from uptick.core.formats.css_errors import NotUnderstood
from uptick.core.formats.css_gradients import gradient
from uptick.core.formats.css_math import PX, computed, is_math

# Properties that name others twice each double with every step; no value of a button is that long.
MOST_TOKENS = 4_000
_MOST_STEPS = 100


def filled(tokens: Sequence[Node], properties: dict[str, list[Node]]) -> list[Node]:
    """Return tokens with custom properties filled in.

    Raises:
        NotUnderstood: Properties name each other in a circle or come to too much, or a number is beyond all bounds.

    Source:
        CSS Custom Properties 1, section 3 (`var()` with its fallback, and cycles).
    """
    return _Filling(properties).filled(tokens, ())


class _Filling:
    """Counts what comes of filling one value, so that it ends."""

    def __init__(self, properties: dict[str, list[Node]]) -> None:
        self._properties = properties
        self._count = 0

    def filled(self, tokens: Sequence[Node], inside: tuple[str, ...]) -> list[Node]:
        out: list[Node] = []
        for token in tokens:
            self._count += 1
            if self._count > MOST_TOKENS:
                raise NotUnderstood("its custom properties come to too much")
            if isinstance(token, FunctionBlock) and token.lower_name == "var":
                name, those = _of_var(token, self._properties)
                if name in inside or len(inside) > _MOST_STEPS:
                    raise NotUnderstood("its custom properties name each other")
                out += self.filled(those, (*inside, name))
            elif isinstance(token, FunctionBlock):
                inner = self.filled(token.arguments, inside)
                out.append(FunctionBlock(token.source_line, token.source_column, token.name, inner))
            elif isinstance(token, _NUMERIC) and not isfinite(token.value):
                raise NotUnderstood("a number beyond all bounds")
            else:
                out.append(token)
        return out


_NUMERIC = (NumberToken, DimensionToken, PercentageToken)


def _of_var(token: FunctionBlock, properties: dict[str, list[Node]]) -> tuple[str, list[Node]]:
    """Return what a `var()` names, and the tokens that stand for it."""
    arguments = [argument for argument in token.arguments if not isinstance(argument, WhitespaceToken)]
    name = arguments[0].value if arguments and isinstance(arguments[0], IdentToken) else ""
    if name in properties:
        return name, properties[name]
    comma = next((n for n, part in enumerate(token.arguments) if _is(part, ",")), None)
    if comma is None:
        raise NotUnderstood(f"{name} is set nowhere in it")
    return name, list(token.arguments[comma + 1 :])


def _is(token: Node, literal: str) -> bool:
    return isinstance(token, LiteralToken) and token.value == literal


def bare(tokens: Sequence[Node]) -> list[Node]:
    """Return tokens without white space and comments."""
    return [token for token in tokens if not isinstance(token, WhitespaceToken) and token.type != "comment"]


def parted(tokens: Sequence[Node]) -> list[list[Node]]:
    """Return the pieces between commas."""
    pieces: list[list[Node]] = [[]]
    for token in tokens:
        if _is(token, ","):
            pieces.append([])
        elif not isinstance(token, WhitespaceToken):
            pieces[-1].append(token)
    return pieces


def word(tokens: Sequence[Node]) -> str:
    """Return the keyword with which tokens begin, in lower case; empty where they begin otherwise."""
    first = next(iter(bare(tokens)), None)
    return str(first.lower_value) if isinstance(first, IdentToken) else ""


def _length(token: Node) -> float | str:
    if isinstance(token, FunctionBlock) and is_math(token):
        amount, unit = computed(token)
        if unit == "" and amount:
            raise NotUnderstood("a number without a unit")
        if unit in ("", "px"):
            return round(amount, 3)
        if amount < 0:
            raise NotUnderstood("less than nothing")
        return f"{amount:g}{unit}"
    if isinstance(token, NumberToken) and token.value == 0:
        return 0.0
    if isinstance(token, PercentageToken) and token.value >= 0:
        return f"{token.value:g}%"
    if isinstance(token, DimensionToken):
        unit = token.lower_unit
        if unit in PX:
            return round(float(token.value) * PX[unit], 4)
        if unit in ("em", "vw") and token.value >= 0:
            return f"{round(token.value, 4):g}{unit}"
        raise NotUnderstood(f"the unit {unit}")
    raise NotUnderstood("no length")


def lengths(tokens: Sequence[Node], least: int, most: int) -> list[float | str]:
    """Return from `least` to `most` lengths: numbers in pixels, texts with their unit.

    Raises:
        NotUnderstood: There are more or fewer, or something else.
    """
    px_each = [_length(token) for token in bare(tokens)]
    if not least <= len(px_each) <= most:
        raise NotUnderstood("too many lengths")
    return px_each


def length(tokens: Sequence[Node], least: float = 0) -> float | str:
    """Return one length: pixels, or a share as it is written.

    Raises:
        NotUnderstood: It is none, or less than `least` pixels.
    """
    px = lengths(tokens, 1, 1)[0]
    if not isinstance(px, str) and px < least:
        raise NotUnderstood("less than nothing")
    return px


def four(tokens: Sequence[Node]) -> list[float | str]:
    """Return one to four lengths as four, as CSS repeats them."""
    sides = lengths(tokens, 1, 4)
    return [
        sides[0],
        sides[min(1, len(sides) - 1)],
        sides[2 if len(sides) > 2 else 0],
        sides[(0, 1, 1, 3)[len(sides) - 1]],
    ]


def in_px(tokens: Sequence[Node], type_px: float, least: float = 0) -> float:
    """Return a length in pixels, of which an em is `type_px`.

    Raises:
        NotUnderstood: It is none, not absolute, or under `least`.
    """
    least_length = length(tokens, least)
    px = (
        float(least_length[:-2]) * type_px
        if isinstance(least_length, str) and least_length.endswith("em")
        else least_length
    )
    if isinstance(px, str) or px < least:
        raise NotUnderstood("only pixels and em")
    return round(px, 4)


def share(tokens: Sequence[Node]) -> float:
    """Return a percentage or a number as a share of one.

    Raises:
        NotUnderstood: It is neither.
    """
    first = bare(tokens)[0]
    if isinstance(first, PercentageToken):
        return float(first.value) / 100
    if isinstance(first, NumberToken) and 0 <= first.value <= 1:
        return float(first.value)
    raise NotUnderstood


def _parsed(token: Node) -> Color | None:
    if isinstance(token, HashToken | FunctionBlock | IdentToken):
        try:
            return Color(tinycss2.serialize([token]).strip())
        except ValueError:
            return None
    return None


def is_colour(token: Node) -> bool:
    """Tell whether a token is a colour."""
    return _parsed(token) is not None


def hex_of(color: Color) -> str:
    """Return a colour as documents keep it: with two digits more where it lets something through.

    Raises:
        NotUnderstood: No screen of sRGB can show it.
    """
    seen = color.convert("srgb")
    if not seen.in_gamut(tolerance=0.002):
        raise NotUnderstood("a colour that sRGB cannot show")
    return str(seen.clip().to_string(hex=True, precision=12))


def colour(tokens: Sequence[Node]) -> str:
    """Return the one colour among tokens.

    Raises:
        NotUnderstood: There is none, or there are several.
    """
    colors = [color for color in (_parsed(token) for token in bare(tokens)) if color is not None]
    if len(colors) != 1:
        raise NotUnderstood("no colour")
    return hex_of(colors[0])


def fill(tokens: Sequence[Node]) -> Json:
    """Return a fill: one colour, gradients over it, or nothing."""
    layers = parted(tokens)
    if word(tokens) in ("none", "transparent") and len(bare(tokens)) == 1:
        return {"kind": "none"}
    gradients: list[Json] = []
    ground: str | None = None
    for n, layer in enumerate(layers):
        for token in layer:
            if isinstance(token, FunctionBlock) and token.lower_name.endswith("gradient"):
                gradients.append(gradient(token, _parsed))
            elif token.type == "url" or (isinstance(token, FunctionBlock) and token.lower_name == "url"):
                raise NotUnderstood("a picture: bring it in as a file")
            elif n == len(layers) - 1 and (shade := _parsed(token)) is not None:
                ground = hex_of(shade)
            else:
                raise NotUnderstood("how a layer lies")
    return filled_with(gradients, ground)


def filled_with(gradients: Sequence[Json], ground: str | None) -> Json:
    """Return the fill that gradients over a colour make."""
    if ground and opacity_of(ground) == 0:
        ground = None
    if not gradients:
        return {"kind": "solid", "colour": ground} if ground else {"kind": "none"}
    if len(gradients) == 1 and ground is None:
        return dict(gradients[0])
    return {"kind": "layers", "list": list(gradients), **({"ground": ground} if ground else {})}


def shadows(tokens: Sequence[Node]) -> Json:
    """Return `box-shadow` as documents keep it.

    Raises:
        NotUnderstood: It is none.
    """
    if word(tokens) == "none":
        return {"kind": "cast", "list": []}
    return {"kind": "cast", "list": [_shadow(piece, 4) for piece in parted(tokens)]}


def text_shadows(tokens: Sequence[Node]) -> Json:
    """Return `text-shadow` as documents keep it.

    Raises:
        NotUnderstood: It is none.
    """
    if word(tokens) == "none":
        return {"kind": "words", "list": []}
    cast = [_shadow(piece, 3) for piece in parted(tokens)]
    plain = ("x_px", "y_px", "blur_px", "colour", "opacity")
    return {"kind": "words", "list": [{name: shadow[name] for name in plain} for shadow in cast]}


def _shadow(piece: Sequence[Node], most: int) -> Json:
    inner, shade, sizes = False, None, []
    for token in piece:
        if isinstance(token, IdentToken) and token.lower_value == "inset" and most == 4:
            inner = True
        elif (color := _parsed(token)) is not None:
            shade = color
        else:
            length = _length(token)
            if isinstance(length, str):
                raise NotUnderstood("shadows are in pixels")
            sizes.append(length)
    if shade is None:
        raise NotUnderstood("a shadow in the words' colour")
    if not 2 <= len(sizes) <= most:
        raise NotUnderstood(f"a shadow has two to {'four' if most == 4 else 'three'} lengths")
    x, y, *more = sizes
    return {
        "inner": inner,
        "colour": hex_of(shade.clone().set("alpha", 1)),
        "opacity": round(float(shade.alpha()), 3),
        "x_px": x,
        "y_px": y,
        "blur_px": more[0] if more else 0,
        "spread_px": more[1] if len(more) > 1 else 0,
    }


CURVES = ("linear", "ease", "ease-in", "ease-out", "ease-in-out")


def milliseconds(text: str) -> int:
    """Return a time of CSS in whole milliseconds.

    Raises:
        NotUnderstood: It is none.
    """
    token = next(iter(bare(tinycss2.parse_component_value_list(text))), None)
    if not isinstance(token, DimensionToken) or token.lower_unit not in ("s", "ms"):
        raise NotUnderstood(f"{text} is no time")
    return round(float(token.value) * (1000 if token.lower_unit == "s" else 1))


def curve(text: str) -> str:
    """Return a curve by name.

    Raises:
        NotUnderstood: It is none of those that have a name.
    """
    if text not in CURVES:
        raise NotUnderstood(f"{', '.join(CURVES)} are taken")
    return text


def weight(tokens: Sequence[Node]) -> int:
    """Return a font weight; lighter and bolder are taken as 300 and 700.

    Raises:
        NotUnderstood: It is none.
    """
    first = bare(tokens)[0]
    if isinstance(first, NumberToken):
        return round(float(first.value))
    named = {"normal": 400, "bold": 700, "lighter": 300, "bolder": 700}
    if word(tokens) not in named:
        raise NotUnderstood
    return named[word(tokens)]


_SERIF = re.compile(r"lora|serif|georgia|times|garamond|playfair|merriweather", re.IGNORECASE)
_NARROW = re.compile(r"archivo|oswald|condensed|narrow|impact", re.IGNORECASE)


def family(tokens: Sequence[Node]) -> str:
    """Return the shipped family that is nearest to the first one named."""
    return _family_of(first_family(tokens))


def first_family(tokens: Sequence[Node]) -> str:
    """Return the first family of a list."""
    return " ".join(str(token.value) for token in parted(tokens)[0] if isinstance(token, IdentToken | StringToken))


def _family_of(first: str) -> str:
    if "sans" not in first.lower() and _SERIF.search(first):
        return "lora"
    return "archivo" if _NARROW.search(first) else "figtree"
