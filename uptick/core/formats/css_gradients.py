"""Gradients as CSS writes them."""

from collections.abc import Callable, Iterator, Sequence
from math import pi

import tinycss2
from coloraide import Color
from tinycss2.ast import DimensionToken, FunctionBlock, IdentToken, Node, NumberToken, PercentageToken, WhitespaceToken

from uptick.core.button.merge import Json
from uptick.core.formats.css_errors import NotUnderstood
from uptick.core.formats.css_math import PX

_DEGREES = {"deg": 1.0, "turn": 360.0, "rad": 180 / pi, "grad": 0.9}
_TOWARD = {("top",): 0, ("right",): 90, ("bottom",): 180, ("left",): 270}
_CORNERS = {
    frozenset(name.split()): name for name in ("top left", "top right", "bottom right", "bottom left")
}  # fmt: skip
_EXTENTS = ("farthest-corner", "farthest-side", "closest-corner", "closest-side")
_PLACES = {"left": 0.0, "top": 0.0, "center": 50.0, "right": 100.0, "bottom": 100.0}
# Colours that CSS had before Color 4 are mixed in sRGB where nothing is said, all others in OKLab.
_LEGACY = ("rgb", "rgba", "hsl", "hsla", "hwb")

Parse = Callable[[Node], Color | None]


def gradient(token: FunctionBlock, parse: Parse) -> Json:
    """Return a gradient of the document.

    Args:
        token: The function.
        parse: Returns the colour that a token is, or nothing.

    Raises:
        NotUnderstood: It has what no fill can have, with what that is.

    Source:
        CSS Images 3, section 3 (gradients), and CSS Images 4, section 3.1 (the space in which colours are mixed).
    """
    name = token.lower_name
    kind = name.removeprefix("repeating-").removesuffix("-gradient")
    if kind not in ("linear", "radial"):
        raise NotUnderstood("only linear and radial gradients")
    pieces = _parted(token.arguments)
    is_head = not any(parse(piece) for piece in pieces[0]) and not _is_hint(pieces[0])
    head, rest = (pieces[0], pieces[1:]) if is_head else ([], pieces)
    fill: Json = {"kind": kind, "repeats": name.startswith("repeating-"), "space": "srgb"}
    head, space = _without_space(head)
    fill["space"] = space or ("srgb" if _all_legacy(rest, parse) else "oklab")
    fill |= _way(head) if kind == "linear" else _from(head)
    fill["stops"] = list(_stops(rest, parse))
    if not 2 <= len(fill["stops"]) <= 8:
        raise NotUnderstood(f"from 2 to 8 stops are taken; it has {len(fill['stops'])}")
    return fill


def _parted(tokens: Sequence[Node]) -> list[list[Node]]:
    pieces: list[list[Node]] = [[]]
    for token in tokens:
        if token.type == "literal" and token.value == ",":
            pieces.append([])
        elif not isinstance(token, WhitespaceToken) and token.type != "comment":
            pieces[-1].append(token)
    return pieces


def _is_hint(piece: Sequence[Node]) -> bool:
    return len(piece) == 1 and (isinstance(piece[0], PercentageToken) or _px(piece[0]) is not None)


def _words(tokens: Sequence[Node]) -> list[str]:
    return [token.lower_value if isinstance(token, IdentToken) else "" for token in tokens]


def _without_space(head: list[Node]) -> tuple[list[Node], str]:
    words = _words(head)
    if "in" not in words:
        return head, ""
    at = words.index("in")
    space = words[at + 1] if at + 1 < len(words) else ""
    rest = head[:at] + head[at + 2 :]
    if space not in ("srgb", "oklch", "oklab"):
        raise NotUnderstood(f"colours mixed in {space or 'no space'}; srgb, oklab and oklch are taken")
    if "hue" in _words(rest):
        raise NotUnderstood("hues are mixed the shorter way")
    return rest, space


def _all_legacy(pieces: Sequence[Sequence[Node]], parse: Parse) -> bool:
    shades = [color for piece in pieces for color in piece if parse(color)]
    return all(not isinstance(shade, FunctionBlock) or shade.lower_name in _LEGACY for shade in shades)


def _way(head: Sequence[Node]) -> Json:
    if not head:
        return {"angle_deg": 180}
    words = _words(head)
    if words[0] == "to":
        if tuple(words[1:]) in _TOWARD:
            return {"angle_deg": _TOWARD[(words[1],)]}
        if frozenset(words[1:]) in _CORNERS:
            return {"angle_deg": 90, "toward": _CORNERS[frozenset(words[1:])]}
    elif len(head) == 1 and isinstance(head[0], DimensionToken) and head[0].lower_unit in _DEGREES:
        # Chromium paints to within a thousandth of a degree.
        return {"angle_deg": round(head[0].value * _DEGREES[head[0].lower_unit], 4) % 360}
    raise NotUnderstood(f"the direction {tinycss2.serialize(head)[:40]}")


def _from(head: Sequence[Node]) -> Json:
    fill: Json = {"shape": "ellipse", "extent": "farthest-corner", "x": 50.0, "y": 50.0}
    words = _words(head)
    at = words.index("at") if "at" in words else len(words)
    for token, word in zip(head[:at], words, strict=False):
        if word in ("circle", "ellipse"):
            fill["shape"] = word
        elif word in _EXTENTS:
            fill["extent"] = word
        else:
            raise NotUnderstood(f"a radius of {tinycss2.serialize([token])}")
    place = list(head[at + 1 :])
    if place:
        fill |= _centre(place, words[at + 1 :])
    return fill


def _centre(place: Sequence[Node], words: Sequence[str]) -> Json:
    if len(place) > 2:
        raise NotUnderstood("a centre of more than two values")
    if len(place) == 2 and (words[0] in ("top", "bottom") or words[1] in ("left", "right")):
        place, words = place[::-1], words[::-1]
    elif len(place) == 1 and words[0] in ("top", "bottom"):
        return {"x": 50.0, "y": _PLACES[words[0]]}
    shares = [_share(token, word) for token, word in zip(place, words, strict=True)]
    return {"x": shares[0], "y": shares[1] if len(shares) == 2 else 50.0}


def _share(token: Node, word: str) -> float:
    if word in _PLACES:
        return _PLACES[word]
    if isinstance(token, PercentageToken) and 0 <= token.value <= 100:
        return float(token.value)
    raise NotUnderstood(f"a centre at {tinycss2.serialize([token])}; from 0 % to 100 % is taken")


def _stops(pieces: Sequence[Sequence[Node]], parse: Parse) -> Iterator[Json]:
    reached: float | None = None
    for piece in pieces:
        shades = [shade for shade in (parse(token) for token in piece) if shade is not None]
        places = [token for token in piece if parse(token) is None]
        if len(shades) != 1 or len(places) > 2:
            raise NotUnderstood("a stop that is no colour, such as a hint between two")
        for place in places or [None]:
            at = None if place is None else _place(place)
            if isinstance(at, float):
                # A stop before the one ahead of it stands where that one stands (CSS Images 3, 3.4.3).
                at = reached = at if reached is None else max(at, reached)
            yield {"at": at, "colour": _hex(shades[0])}


def _place(token: Node) -> float | str:
    if isinstance(token, PercentageToken):
        return round(float(token.value), 4)
    if isinstance(token, NumberToken) and token.value == 0:
        return 0.0
    px = _px(token)
    if px is None:
        raise NotUnderstood(f"a stop at {tinycss2.serialize([token])}; % and px are taken")
    return f"{px:g}px"


def _px(token: Node) -> float | None:
    if isinstance(token, DimensionToken) and token.lower_unit in PX:
        return round(float(token.value) * PX[token.lower_unit], 4)
    return None


def _hex(shade: Color) -> str:
    seen = shade.convert("srgb")
    if not seen.in_gamut(tolerance=0.002):
        raise NotUnderstood("a colour that sRGB cannot show")
    return str(seen.clip().to_string(hex=True, precision=12))
