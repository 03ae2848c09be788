"""Values of CSS declarations as values of a look."""

import re
from collections.abc import Iterator, Sequence
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
from uptick.core.formats.css_errors import NotUnderstood
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
    said = [one for one in token.arguments if not isinstance(one, WhitespaceToken)]
    name = said[0].value if said and isinstance(said[0], IdentToken) else ""
    if name in properties:
        return name, properties[name]
    comma = next((n for n, one in enumerate(token.arguments) if _is(one, ",")), None)
    if comma is None:
        raise NotUnderstood(f"{name} is set nowhere in it")
    return name, list(token.arguments[comma + 1 :])


def _is(token: Node, literal: str) -> bool:
    return isinstance(token, LiteralToken) and token.value == literal


def bare(tokens: Sequence[Node]) -> list[Node]:
    return [one for one in tokens if not isinstance(one, WhitespaceToken) and one.type != "comment"]


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
            return round(float(token.value) * PX[unit], 3)
        if unit in ("em", "vw") and token.value >= 0:
            return f"{round(token.value, 4):g}{unit}"
        raise NotUnderstood(f"the unit {unit}")
    raise NotUnderstood("no length")


def lengths(tokens: Sequence[Node], least: int, most: int) -> list[float | str]:
    found = [_length(one) for one in bare(tokens)]
    if not least <= len(found) <= most:
        raise NotUnderstood("too many lengths")
    return found


def length(tokens: Sequence[Node]) -> float | str:
    return lengths(tokens, 1, 1)[0]


def four(tokens: Sequence[Node]) -> list[float | str]:
    """Return one to four lengths as four, as CSS repeats them."""
    found = lengths(tokens, 1, 4)
    return [
        found[0],
        found[min(1, len(found) - 1)],
        found[2 if len(found) > 2 else 0],
        found[(0, 1, 1, 3)[len(found) - 1]],
    ]


def in_px(tokens: Sequence[Node], type_px: float, least: float = 0) -> float:
    found = length(tokens)
    px = float(found[:-2]) * type_px if isinstance(found, str) and found.endswith("em") else found
    if isinstance(px, str) or px < least:
        raise NotUnderstood("only pixels and em")
    return round(px, 3)


def underline_px(tokens: Sequence[Node], type_px: float) -> float:
    """Return how thick words are underlined, 0 where they are not.

    Raises:
        NotUnderstood: Another line than one under the words, or one that is not solid.
    """
    thick: float | None = None
    underlined = False
    for token in bare(tokens):
        word = token.lower_value if isinstance(token, IdentToken) else ""
        if word in ("none", "underline"):
            underlined = word == "underline"
        elif word not in ("solid", "auto", "from-font", "currentcolor"):
            thick = in_px([token], type_px)
    # Without a thickness of its own it is the browser's, which is about this share of the type (common practice).
    return 0 if not underlined else thick if thick is not None else max(1.0, round(type_px / 14, 1))


def share(tokens: Sequence[Node]) -> float:
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


def _opaque(found: Color) -> str:
    if found.alpha() < 1:
        # What shows through is taken for white.
        found = Color("white").mix(found.clone().set("alpha", 1), found.alpha(), space="srgb")
    return str(found.convert("srgb").fit().to_string(hex=True, alpha=False))


def colour(tokens: Sequence[Node]) -> str:
    found = [one for one in (_parsed(token) for token in bare(tokens)) if one is not None]
    if len(found) != 1:
        raise NotUnderstood("no colour")
    return _opaque(found[0])


def fill(tokens: Sequence[Node]) -> Json:
    """Return a fill: one colour, one gradient, or nothing."""
    layers = parted(tokens)
    if word(tokens) in ("none", "transparent") and len(bare(tokens)) == 1:
        return {"kind": "none"}
    for layer in layers:
        for token in layer:
            if isinstance(token, FunctionBlock) and token.lower_name.endswith("gradient"):
                return _gradient(token)
            if token.type == "url" or (isinstance(token, FunctionBlock) and token.lower_name == "url"):
                raise NotUnderstood("a picture: bring it in as a file")
    found = [one for one in (_parsed(token) for token in layers[-1]) if one is not None]
    if not found:
        raise NotUnderstood("no colour")
    return {"kind": "none"} if found[0].alpha() == 0 else {"kind": "solid", "colour": _opaque(found[0])}


_TOWARD = {
    "top": 0, "right": 90, "bottom": 180, "left": 270, "right top": 45, "bottom right": 135, "bottom left": 225,
    "left top": 315,
}  # fmt: skip


def _gradient(token: FunctionBlock) -> Json:
    kind = token.lower_name.removesuffix("-gradient")
    if kind not in ("linear", "radial"):
        raise NotUnderstood("only linear and radial gradients")
    pieces = parted(token.arguments)
    first = " ".join(tinycss2.serialize([one]) for one in pieces[0])
    space = "oklch" if "oklch" in first else "srgb"
    made: Json = {"kind": kind, "space": space}
    is_head = not any(_parsed(one) for one in pieces[0])
    if kind == "linear":
        made["angle_deg"] = _angle(pieces[0]) if is_head else 180
    elif is_head and (at := re.search(r"at ([\d.]+)% ([\d.]+)%", first)):
        made |= {"x": float(at[1]), "y": float(at[2])}
    made["stops"] = list(_stops(pieces[1:] if is_head else pieces))
    return made


def _angle(tokens: Sequence[Node]) -> float:
    for token in tokens:
        if isinstance(token, DimensionToken) and token.lower_unit in ("deg", "turn"):
            return float(token.value * (360 if token.lower_unit == "turn" else 1)) % 360
    words = [one.lower_value for one in tokens if isinstance(one, IdentToken)]
    if "to" not in words:
        return 180
    toward = " ".join(sorted(words[words.index("to") + 1 :][:2]))
    return _TOWARD.get(toward, 180)


def _stops(pieces: Sequence[Sequence[Node]]) -> Iterator[Json]:
    last = max(1, len(pieces) - 1)
    reached = 0.0
    for n, piece in enumerate(pieces):
        shades = [one for one in (_parsed(token) for token in piece) if one is not None]
        places = [token.value for token in piece if isinstance(token, PercentageToken)]
        if len(shades) != 1 or len(places) > 1:
            raise NotUnderstood("stops are one colour and one place each")
        reached = max(reached, float(places[0]) if places else 100 * n / last)
        yield {"at": min(100.0, round(reached, 2)), "colour": _opaque(shades[0])}


_STYLES = ("solid", "dashed", "dotted", "double")


def border(tokens: Sequence[Node]) -> Json:
    made: Json = {"kind": "line", "width_px": 3.0}
    named = False
    for token in bare(tokens):
        shade = _parsed(token)
        if isinstance(token, IdentToken) and token.lower_value in _STYLES:
            made["style"], named = token.lower_value, True
        elif isinstance(token, IdentToken) and token.lower_value in ("none", "hidden"):
            return {"kind": "none"}
        elif isinstance(token, IdentToken) and token.lower_value == "currentcolor":
            continue
        elif shade is not None:
            if shade.alpha() > 0:
                made["colour"] = _opaque(shade)
        else:
            made["width_px"] = in_px([token], 16)
    if not made["width_px"] or not named:
        return {"kind": "none"}
    return made


def shadows(tokens: Sequence[Node]) -> Json:
    if word(tokens) == "none":
        return {"kind": "cast", "list": []}
    return {"kind": "cast", "list": [_shadow(piece) for piece in parted(tokens)]}


def _shadow(piece: Sequence[Node]) -> Json:
    made: Json = {"inner": False, "colour": "#000000", "opacity": 1.0}
    sizes: list[float] = []
    for token in piece:
        shade = _parsed(token)
        if isinstance(token, IdentToken) and token.lower_value == "inset":
            made["inner"] = True
        elif shade is not None:
            made["opacity"] = round(float(shade.alpha()), 3)
            made["colour"] = _opaque(shade.clone().set("alpha", 1))
        else:
            found = _length(token)
            if isinstance(found, str):
                raise NotUnderstood("shadows are in pixels")
            sizes.append(found)
    if not 2 <= len(sizes) <= 4:
        raise NotUnderstood("a shadow has two to four lengths")
    x, y, *more = sizes
    return {
        **made,
        "x_px": x,
        "y_px": y,
        "blur_px": more[0] if more else 0,
        "spread_px": more[1] if len(more) > 1 else 0,
    }


_CURVES = ("linear", "ease", "ease-in", "ease-out", "ease-in-out")


def motion(tokens: Sequence[Node]) -> Json:
    """Return the first transition; all parts of a look move alike."""
    if word(tokens) == "none":
        return {"kind": "motion", "duration_ms": 0}
    made: Json = {"kind": "motion", "duration_ms": 0, "curve": "ease"}
    times: list[int] = []
    for token in parted(tokens)[0]:
        if isinstance(token, DimensionToken) and token.lower_unit in ("s", "ms"):
            times.append(round(token.value * (1000 if token.lower_unit == "s" else 1)))
        elif isinstance(token, IdentToken) and token.lower_value in _CURVES:
            made["curve"] = token.lower_value
        elif isinstance(token, FunctionBlock):
            made["curve"] = "ease-in-out"
    if times:
        made["duration_ms"] = times[0]
    if len(times) > 1:
        made["delay_ms"] = times[1]
    return made


def weight(tokens: Sequence[Node]) -> int:
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
    first = " ".join(str(one.value) for one in parted(tokens)[0] if isinstance(one, IdentToken | StringToken))
    if "sans" not in first.lower() and _SERIF.search(first):
        return "lora"
    return "archivo" if _NARROW.search(first) else "figtree"


def line_height(tokens: Sequence[Node], type_px: float) -> float:
    first = bare(tokens)[0]
    if word(tokens) == "normal":
        return 0
    if isinstance(first, NumberToken):
        return round(float(first.value), 4)
    found = _length(first)
    if isinstance(found, str):
        return round(float(found.rstrip("%em")) / (100 if found.endswith("%") else 1), 4)
    return round(found / type_px, 4)


def font(tokens: Sequence[Node]) -> Json:
    """Return the parts of the `font` shorthand: weight, size, line height and family."""
    made: Json = {}
    those = bare(tokens)
    for n, token in enumerate(those):
        if isinstance(token, DimensionToken):
            made["size_px"] = in_px([token], 16)
            rest = those[n + 1 :]
            if rest and _is(rest[0], "/"):
                made["line"] = line_height([rest[1]], made["size_px"])
                rest = rest[2:]
            if rest:
                made["family"] = family(rest)
            return made
        if isinstance(token, NumberToken) or word([token]) in ("bold", "normal"):
            made["weight"] = weight([token])
    raise NotUnderstood("no size in it")
