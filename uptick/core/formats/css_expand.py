"""Declarations of CSS as longhand properties, for where no browser computes them."""

from collections.abc import Callable, Iterator, Mapping, Sequence

import tinycss2
from tinycss2.ast import DimensionToken, IdentToken, Node, NumberToken, PercentageToken

from uptick.core.formats import css_values as values
from uptick.core.formats.css_errors import NotUnderstood
from uptick.core.formats.css_groups import SIDES
from uptick.core.formats.css_math import PX

Tokens = Sequence[Node]
Longhands = Iterator[tuple[str, str]]
_CORNERS = ("top-left", "top-right", "bottom-right", "bottom-left")

# What each longhand is where nothing is said, on a button's own element.
INITIAL: Mapping[str, str] = {
    **{f"padding-{side}": "0px" for side in SIDES},
    **{f"border-{side}-width": "3px" for side in SIDES},
    **{f"border-{side}-style": "none" for side in SIDES},
    **{f"border-{side}-color": "currentcolor" for side in SIDES},
    **{f"border-{corner}-radius": "0px" for corner in _CORNERS},
    "background-color": "rgb(0 0 0/0)", "background-image": "none", "box-shadow": "none", "opacity": "1",
    "color": "currentcolor", "font-family": "", "font-size": "16px", "font-weight": "400", "font-style": "normal",
    "line-height": "normal", "letter-spacing": "normal", "text-transform": "none", "text-shadow": "none",
    "text-decoration-line": "none", "text-decoration-style": "solid", "text-decoration-thickness": "auto",
    "text-decoration-color": "currentcolor", "text-underline-offset": "auto", "text-overflow": "clip",
    "text-wrap-mode": "wrap", "overflow-x": "visible", "outline-style": "none", "outline-width": "3px",
    "outline-color": "currentcolor", "outline-offset": "0px", "transition-property": "all",
    "transition-duration": "0s", "transition-delay": "0s", "transition-timing-function": "ease", "width": "auto",
    "height": "auto", "min-width": "0px", "max-width": "none", "min-height": "0px", "max-height": "none",
    "box-sizing": "border-box", "display": "inline-block",
}  # fmt: skip


def expanded(name: str, tokens: Tokens) -> dict[str, str]:
    """Return the longhands of one declaration.

    Raises:
        NotUnderstood: It is none that can be told apart without a browser.
    """
    if name in _SHORTHANDS:
        return dict(_SHORTHANDS[name](tokens))
    if name in _SAME:
        name = _SAME[name]
    if name not in INITIAL and name not in _KEPT:
        raise NotUnderstood
    if (word := values.word(tokens)) in _WIDE and len(values.bare(tokens)) == 1:
        raise NotUnderstood(f"{word} follows from other rules")
    return {name: _written(tokens)}


_WIDE = ("inherit", "initial", "unset", "revert", "revert-layer")
_KEPT = ("--centring",)
_SAME = {
    "padding-inline-start": "padding-left", "padding-inline-end": "padding-right",
    "padding-block-start": "padding-top", "padding-block-end": "padding-bottom",
    "border-start-start-radius": "border-top-left-radius", "border-start-end-radius": "border-top-right-radius",
    "border-end-end-radius": "border-bottom-right-radius", "border-end-start-radius": "border-bottom-left-radius",
    "text-decoration-skip-ink": "",
}  # fmt: skip


def _written(tokens: Tokens) -> str:
    return str(tinycss2.serialize(list(tokens))).strip()


def _length(token: Node) -> str:
    length = values.length([token])
    return length if isinstance(length, str) else f"{length:g}px"


def _four(tokens: Tokens) -> list[str]:
    return [length if isinstance(length, str) else f"{length:g}px" for length in values.four(tokens)]


def _padding(tokens: Tokens) -> Longhands:
    yield from zip((f"padding-{side}" for side in SIDES), _four(tokens), strict=True)


def _two(first: str, second: str) -> Callable[[Tokens], Longhands]:
    def read(tokens: Tokens) -> Longhands:
        first_length, *more = [_length(token) for token in values.bare(tokens)]
        yield f"padding-{first}", first_length
        yield f"padding-{second}", more[0] if more else first_length

    return read


def _radius(tokens: Tokens) -> Longhands:
    yield from zip((f"border-{corner}-radius" for corner in _CORNERS), _four(tokens), strict=True)


_STYLES = ("none", "hidden", "solid", "dashed", "dotted", "double", "groove", "ridge", "inset", "outset", "auto")
_NAMED_PX = {"thin": "1px", "medium": "3px", "thick": "5px"}


def _line(tokens: Tokens) -> dict[str, str]:
    """Return width, style and colour of a line; what is not said is as at first."""
    line = {"width": "3px", "style": "none", "color": "currentcolor"}
    for token in values.bare(tokens):
        word = token.lower_value if isinstance(token, IdentToken) else ""
        if word in _STYLES:
            line["style"] = word
        elif word in _NAMED_PX:
            line["width"] = _NAMED_PX[word]
        elif isinstance(token, DimensionToken | NumberToken):
            line["width"] = _length(token)
        else:
            line["color"] = _written([token])
    return line


def _border(*sides: str) -> Callable[[Tokens], Longhands]:
    def read(tokens: Tokens) -> Longhands:
        line = _line(tokens)
        for side in sides:
            for part, value in line.items():
                yield f"border-{side}-{part}", value

    return read


def _border_part(part: str) -> Callable[[Tokens], Longhands]:
    def read(tokens: Tokens) -> Longhands:
        tokens_said = values.bare(tokens)
        each = [_line([token])[part] for token in tokens_said]
        if not 1 <= len(each) <= 4:
            raise NotUnderstood("one to four values")
        four = [
            each[0],
            each[min(1, len(each) - 1)],
            each[2 if len(each) > 2 else 0],
            each[(0, 1, 1, 3)[len(each) - 1]],
        ]
        yield from zip((f"border-{side}-{part}" for side in SIDES), four, strict=True)

    return read


def _background(tokens: Tokens) -> Longhands:
    layers = values.parted(tokens)
    images, colour = [], "rgb(0 0 0/0)"
    for n, layer in enumerate(layers):
        image = "none"
        for token in layer:
            word = token.lower_value if isinstance(token, IdentToken) else ""
            function = token.lower_name if token.type == "function" else token.type
            if function.endswith("gradient") or function == "url":
                image = _written([token])
            elif word == "none":
                continue
            elif n == len(layers) - 1 and values.is_colour(token):
                colour = _written([token])
            else:
                raise NotUnderstood(f"{_written([token])}: how a layer lies")
        images.append(image)
    yield "background-color", colour
    yield "background-image", ",".join(images)


def _outline(tokens: Tokens) -> Longhands:
    yield from ((f"outline-{part}", value) for part, value in _line(tokens).items())


def _font(tokens: Tokens) -> Longhands:
    """Take the shorthand apart: style, weight, size, line height, family (CSS Fonts 4, section 2.8)."""
    those = values.bare(tokens)
    at = next((n for n, part in enumerate(those) if isinstance(part, DimensionToken | PercentageToken)), None)
    if at is None:
        raise NotUnderstood("no size in it")
    font = {"font-style": "normal", "font-weight": "400", "line-height": "normal"}
    for token in those[:at]:
        word = token.lower_value if isinstance(token, IdentToken) else ""
        if isinstance(token, NumberToken) or word in ("bold", "bolder", "lighter"):
            font["font-weight"] = _written([token])
        elif word in ("italic", "oblique"):
            font["font-style"] = word
        elif word != "normal":
            raise NotUnderstood(_written([token]))
    font["font-size"] = _written([those[at]])
    rest = those[at + 1 :]
    if len(rest) > 1 and rest[0].type == "literal" and rest[0].value == "/":
        font["line-height"] = _written([rest[1]])
        rest = rest[2:]
    if not rest:
        raise NotUnderstood("no family in it")
    font["font-family"] = _written(rest)
    yield from font.items()


def _decoration(tokens: Tokens) -> Longhands:
    decoration = {"line": "none", "style": "solid", "thickness": "auto", "color": "currentcolor"}
    for token in values.bare(tokens):
        word = token.lower_value if isinstance(token, IdentToken) else ""
        if word in ("none", "underline", "overline", "line-through"):
            decoration["line"] = word if decoration["line"] == "none" else f"{decoration['line']} {word}"
        elif word in ("solid", "double", "dotted", "dashed", "wavy"):
            decoration["style"] = word
        elif word in ("auto", "from-font") or isinstance(token, DimensionToken | NumberToken):
            decoration["thickness"] = _written([token])
        else:
            decoration["color"] = _written([token])
    yield from ((f"text-decoration-{part}", value) for part, value in decoration.items())


def _transition(tokens: Tokens) -> Longhands:
    each = []
    for piece in values.parted(tokens):
        transition = {"property": "all", "duration": "0s", "delay": "0s", "timing-function": "ease"}
        times = [_written([token]) for token in piece if isinstance(token, DimensionToken)]
        transition |= dict(zip(("duration", "delay"), times, strict=False))
        for token in piece:
            word = token.lower_value if isinstance(token, IdentToken) else ""
            if word in values.CURVES or token.type == "function":
                transition["timing-function"] = _written([token])
            elif word:
                transition["property"] = word
        each.append(transition)
    for part in ("property", "duration", "delay", "timing-function"):
        yield f"transition-{part}", ",".join(transition[part] for transition in each)


def _white_space(tokens: Tokens) -> Longhands:
    word = values.word(tokens)
    if word not in ("normal", "nowrap"):
        raise NotUnderstood("normal and nowrap are taken")
    yield "text-wrap-mode", "wrap" if word == "normal" else "nowrap"


_SHORTHANDS: Mapping[str, Callable[[Tokens], Longhands]] = {
    "padding": _padding,
    "padding-block": _two("top", "bottom"),
    "padding-inline": _two("left", "right"),
    "border-radius": _radius,
    "background": _background,
    "border": _border(*SIDES),
    **{f"border-{side}": _border(side) for side in SIDES},
    "border-inline-start": _border("left"),
    "border-inline-end": _border("right"),
    "border-block-start": _border("top"),
    "border-block-end": _border("bottom"),
    **{f"border-{part}": _border_part(part) for part in ("width", "style", "color")},
    "outline": _outline,
    "font": _font,
    "text-decoration": _decoration,
    "transition": _transition,
    "white-space": _white_space,
    "overflow": lambda tokens: iter([("overflow-x", _written(values.bare(tokens)[:1]))]),
}


def as_computed(declared: Mapping[str, str], root_px: float) -> tuple[dict[str, str], list[str]]:
    """Return longhands with the lengths of type in pixels, and what could not be worked out.

    What is in em of a type size that is not said is told: it follows from the page.

    Args:
        said: Longhands as they are written.
        root_px: The type size of the page's root, which rem is of.
    """
    computed, notes = dict(declared), []
    size: float | None = None
    if "font-size" in computed:
        try:
            size = _px(computed["font-size"], None, root_px)
            computed["font-size"] = f"{size:g}px"
        except NotUnderstood as why:
            notes.append(f"font-size: {computed.pop('font-size')} ({why})")
    for name in (*_OF_TYPE, "line-height"):
        if name not in computed or computed[name] in ("normal", "auto", "from-font"):
            continue
        try:
            computed[name] = (
                _line_px(computed[name], size, root_px)
                if name == "line-height"
                else (f"{_px(computed[name], size, root_px):g}px")
            )
        except NotUnderstood as why:
            notes.append(f"{name}: {computed.pop(name)} ({why})")
    return computed, notes


_OF_TYPE = (
    "letter-spacing", "text-underline-offset", "text-decoration-thickness", "outline-width", "outline-offset",
    *(f"border-{side}-width" for side in SIDES),
)  # fmt: skip


def _one(text: str) -> Node:
    those = values.bare(tinycss2.parse_component_value_list(text))
    if len(those) != 1:
        raise NotUnderstood("one length")
    return those[0]


def _px(text: str, size: float | None, root_px: float) -> float:
    token = _one(text)
    if (isinstance(token, DimensionToken) and token.lower_unit in ("em", "ex", "ch")) or isinstance(
        token, PercentageToken
    ):
        if size is None or not (isinstance(token, DimensionToken) and token.lower_unit == "em"):
            raise NotUnderstood("it is of a type size that the page says")
        return round(float(token.value) * size, 4)
    length = values.length([token], least=-1000)
    if isinstance(length, str):
        raise NotUnderstood("only pixels and em")
    return length


def _line_px(text: str, size: float | None, root_px: float) -> str:
    token = _one(text)
    if isinstance(token, NumberToken):
        return f"{float(token.value) * (size or float(INITIAL['font-size'][:-2])):.7g}px"
    if isinstance(token, PercentageToken) or (isinstance(token, DimensionToken) and token.lower_unit == "em"):
        share = float(token.value) / (100 if isinstance(token, PercentageToken) else 1)
        return f"{share * (size or 16.0):.7g}px"
    if size is None and isinstance(token, DimensionToken) and token.lower_unit in PX:
        raise NotUnderstood("pixels, of a type size that the page says")
    return f"{_px(text, size, root_px):g}px"
