"""Design tokens read: our own names in full, any others as values that a designer lays onto fields.

Source:
    Design Tokens Format Module (W3C Design Tokens Community Group, 2025.10): `$value`, `$type`, `$root`, groups,
    aliases in braces, also within values; types color, dimension, fontFamily, fontWeight, number, duration,
    cubicBezier, shadow, border, gradient, typography and transition.
"""

import json
import re
from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass, replace
from typing import Any

from pydantic import TypeAdapter, ValidationError

from uptick.core.button.field_words import value_text
from uptick.core.button.fields import FIELDS, field_title
from uptick.core.button.look import Border, Fill, Shadows
from uptick.core.button.merge import Json, at_path, merge_layer, patch_at
from uptick.core.colour.colour import opacity_of
from uptick.core.colour.ramp import Seed
from uptick.core.errors import BadTokens
from uptick.core.formats.token_fields import FIELDS_OF, laid_on, proposed
from uptick.core.formats.token_values import (
    Unfit,
    read_border,
    read_colour,
    read_dimension,
    read_gradient,
    read_number,
    read_shadows,
    read_transition,
    read_weight,
)
from uptick.core.formats.tokens import border_token, fill_token, shadows_token

MOST_CHARACTERS = 400_000
_MOST_TOKENS = 5_000
_MOST_DEEP = 24
# So many tokens may name one another in a row, and so many values may one of them come to.
_MOST_NAMES = 60
_MOST_PARTS = 400
_SIDES = ("top", "right", "bottom", "left")
_CORNERS = ("top_left", "top_right", "bottom_right", "bottom_left")
_STATES = ("hover", "pressed", "focus", "disabled")
_BY_RULE = "uptick.rule"


@dataclass(frozen=True, slots=True)
class FieldName:
    path: str
    title: str


@dataclass(frozen=True, slots=True)
class TokenValue:
    """A value under a name that is not ours: what it is, what could take it, and what its name suggests."""

    name: str
    type: str
    says: str
    fields: tuple[FieldName, ...]
    proposal: str


@dataclass(frozen=True, slots=True)
class ReadTokens:
    """A look's values as a layer, colours by their names, values of other names, and what was left out."""

    layer: Json
    colours: tuple[Seed, ...]
    left_out: tuple[str, ...]
    values: tuple[TokenValue, ...] = ()


@dataclass(frozen=True, slots=True)
class _Token:
    """`parts` is how many values it has in it, once what it names is put in place."""

    type: str
    value: Any
    own: Any
    by_rule: bool
    parts: int = 0


def read_tokens(text: str, laid: Mapping[str, str] | None = None) -> ReadTokens:
    """Return what a Design Tokens file has for a button.

    Args:
        text: The file.
        laid: Which field each token of another name is laid onto; where none is said, none is.

    Raises:
        BadTokens: It is no JSON, has no token in it, or a token is laid onto a field that cannot take it, or that
            another one is laid onto.
    """
    if len(text) > MOST_CHARACTERS:
        raise BadTokens(f"The file has {len(text):,} characters; {MOST_CHARACTERS:,} are the most.")
    try:
        raw = json.loads(text)
    except (ValueError, RecursionError) as error:
        raise BadTokens(f"The file is no JSON: {str(error)[:80]}.") from error
    tokens: dict[str, _Token] = {}
    for name, token in _tokens(raw, "", "", 0) if isinstance(raw, dict) else ():
        tokens[name] = token
        if len(tokens) > _MOST_TOKENS:
            raise BadTokens(f"The file has more than {_MOST_TOKENS:,} tokens.")
    if not tokens:
        raise BadTokens('The file has no design token in it: none has a "$value".')
    if unknown := sorted(set(laid or {}) - set(tokens)):
        raise BadTokens(f"There is no token {unknown[0]!r} in the file.")
    return _Reader(tokens, laid or {}).read(raw)


class _Reader:
    def __init__(self, tokens: Mapping[str, _Token], laid: Mapping[str, str]) -> None:
        self._tokens = tokens
        self._laid = laid
        # Each is worked out once, however many name it.
        self._known: dict[str, _Token | Unfit] = {}

    def read(self, raw: Json) -> ReadTokens:
        left_out: list[str] = []
        layer: Json = {}
        colours: list[Seed] = []
        values: list[TokenValue] = []
        for name, token in self._tokens.items():
            if token.by_rule:
                continue
            try:
                resolved = self._resolved(name)
                if resolved.type == "color":
                    shade = read_colour(resolved.value)[:7]
                    colours.append(Seed(name=name.rpartition(".")[2][:30] or "colour", colour=shade))
                if name.startswith("button.") and (pairs := list(_fields(name, resolved))):
                    for path, value in pairs:
                        layer = merge_layer(layer, patch_at(path, value))
                elif not name.startswith("brand."):
                    values.append(_value(name, resolved))
            except Unfit as why:
                left_out.append(f"{name}: {why}")
            except (KeyError, TypeError, ValueError, AttributeError, IndexError) as error:
                left_out.append(f"{name}: {_said(error)}")
        layer = _whole(merge_layer(layer, _own_of(raw)))
        taken: dict[tuple[str, str], str] = {}
        for name, field in self._laid.items():
            token = self._resolved(name)
            # Length and curve of a motion come from two tokens; else a field has one.
            if other := taken.get((field, token.type)):
                raise BadTokens(f"{other} and {name} are both laid onto {_title(field)}; choose one of them.")
            taken[field, token.type] = name
            for path, value in laid_on(field, token.type, token.value, name):
                layer = merge_layer(layer, patch_at(path, value))
        return ReadTokens(layer, tuple(dict.fromkeys(colours)), tuple(dict.fromkeys(left_out)), tuple(values))

    def _resolved(self, name: str, through: tuple[str, ...] = ()) -> _Token:
        """Return a token with what it names put in place, also within its value.

        Raises:
            Unfit: It names no token of the file, itself, or too many.
        """
        if name not in self._known:
            try:
                self._known[name] = self._resolve(self._tokens[name], (*through, name))
            except Unfit as why:
                self._known[name] = why
        known = self._known[name]
        if isinstance(known, Unfit):
            raise known
        return known

    def _resolve(self, token: _Token, through: tuple[str, ...]) -> _Token:
        if name := _alias(token.value):
            target = self._named(name, through)
            return replace(target, type=token.type or target.type, own=token.own or target.own, by_rule=token.by_rule)
        value, parts = self._filled(token.value, through)
        return replace(token, value=value, parts=parts)

    def _named(self, name: str, through: tuple[str, ...]) -> _Token:
        if name in through:
            raise Unfit(f"{{{name}}} comes back to itself")
        if len(through) > _MOST_NAMES:
            raise Unfit(f"more than {_MOST_NAMES} tokens name one another before there is a value")
        if name not in self._tokens:
            raise Unfit(f"{{{name}}} is no token in this file")
        return self._resolved(name, through)

    def _filled(self, value: Any, through: tuple[str, ...]) -> tuple[Any, int]:
        """Return a value with what it names put in place, and how many values that are."""
        if name := _alias(value):
            target = self._named(name, through)
            return target.value, target.parts
        if not isinstance(value, list | dict):
            return value, 1
        inner = value if isinstance(value, list) else value.values()
        filled: list[Any] = []
        parts = 1
        for part in inner:
            whole, more = self._filled(part, through)
            filled.append(whole)
            parts += more
            if parts > _MOST_PARTS:
                raise Unfit(f"it comes to more than {_MOST_PARTS} values")
        return (filled if isinstance(value, list) else dict(zip(value, filled, strict=True))), parts


def _said(error: Exception) -> str:
    return f"it lacks {error}" if isinstance(error, KeyError) else str(error)[:80] or "cannot be read"


def _alias(value: Any) -> str:
    """Return what a value names: by braces, or by a JSON pointer to a token or its value."""
    if isinstance(value, str):
        match = re.fullmatch(r"\{([^{}]+)\}", value.strip())
        return match[1] if match else ""
    if isinstance(value, dict) and set(value) == {"$ref"} and isinstance(value["$ref"], str):
        steps = [step.replace("~1", "/").replace("~0", "~") for step in value["$ref"].removeprefix("#/").split("/")]
        return ".".join(step for step in steps if step != "$value")
    return ""


def _tokens(group: Json, path: str, kind: str, depth: int) -> Iterator[tuple[str, _Token]]:
    kind = group["$type"] if isinstance(group.get("$type"), str) else kind
    if "$value" in group or (set(group) - {"$type", "$description"} == {"$ref"}):
        more = group["$extensions"] if isinstance(group.get("$extensions"), dict) else {}
        value = group["$value"] if "$value" in group else {"$ref": group["$ref"]}
        yield path, _Token(kind, value, more.get("uptick"), _BY_RULE in more)
        return
    for name, inner in group.items():
        if isinstance(inner, dict) and (name == "$root" or not name.startswith("$")):
            if depth == _MOST_DEEP:
                raise BadTokens(f"{path[:60]} lies in {_MOST_DEEP} groups; no more are read.")
            step = path if name == "$root" else f"{path}.{name}" if path else name
            yield from _tokens(inner, step, kind, depth + 1)


def _value(name: str, token: _Token) -> TokenValue:
    """Return a value of another name for a designer to lay onto a field.

    Raises:
        Unfit: It is of a type that the format does not have, or is none of its type.
    """
    if token.type not in FIELDS_OF:
        raise Unfit(f"its type is {token.type or 'not said'!r}; there are {', '.join(FIELDS_OF)}")
    # Laying it onto the first field that could take it says whether it is a value of its type at all.
    first = next(iter(laid_on(FIELDS_OF[token.type][0], token.type, token.value, name)))
    names = tuple(FieldName(path, _title(path)) for path in FIELDS_OF[token.type])
    return TokenValue(name, token.type, value_text(first[1]), names, proposed(name, token.type))


def _title(path: str) -> str:
    return "type" if path == "look.type" else field_title(path)


_OF_FIELDS = {field.token: field.path for field in FIELDS if field.token}


def _fields(name: str, token: _Token) -> Iterator[tuple[str, Any]]:
    """Yield the values of a look that a token of our own names sets."""
    match name.split("."):
        case ["button", "padding", side] if side in _SIDES:
            yield f"look.padding.{side}", _length(token)
        case ["button", "radius", corner] if corner in _CORNERS:
            yield f"corners.{corner}", _length(token)
        case ["button", "size", side] if side in ("width", "height"):
            yield f"size.{side}", _length(token)
        case ["button", "type", "family"]:
            yield "look.type.family", token.value if isinstance(token.value, str) else token.value[0]
        case ["button", "type", "size"]:
            yield "look.type.size_px", read_dimension(token.value)
        case ["button", "type", "weight"]:
            yield "look.type.weight", read_weight(token.value)
        case ["button", "type", "line"]:
            yield "look.type.line", read_number(token.value)
        case ["button", "type", part] if part in _OF_FIELDS:
            yield _OF_FIELDS[part], read_dimension(token.value)
        case ["button", "focus", "ring", "colour"]:
            yield "look.focus.ring_colour", read_colour(token.value)
        case ["button", "focus", "ring", ("width" | "offset") as part]:
            yield f"look.focus.ring_{part}_px", read_dimension(token.value)
        case ["button", state, part] if state in ("rest", *_STATES):
            before = "look" if state == "rest" else f"look.{state}"
            yield from _of_state(before, part, token)


def _length(token: _Token) -> float | str:
    return token.own if isinstance(token.own, str) else read_dimension(token.value)


def _of_state(before: str, part: str, token: _Token) -> Iterator[tuple[str, Any]]:
    value = token.value
    match part:
        case "words":
            yield f"{before}.text_colour", read_colour(value)
        case "opacity":
            yield f"{before}.opacity", read_number(value)
        case "fill":
            yield f"{before}.fill", _own(_FILL, fill_token, token) or _fill(token)
        case "border":
            yield f"{before}.border", _own(_BORDER, border_token, token) or read_border(value)
        case "shadow":
            yield f"{before}.shadows", _own(_SHADOWS, shadows_token, token) or read_shadows(value)
        case "transition":
            yield f"{before}.motion", read_transition(value)


def _fill(token: _Token) -> Json:
    if token.type == "gradient":
        return read_gradient(token.value)
    colour = read_colour(token.value)
    return {"kind": "none"} if opacity_of(colour) == 0 else {"kind": "solid", "colour": colour}


_FILL: TypeAdapter[Any] = TypeAdapter(Fill)
_BORDER: TypeAdapter[Any] = TypeAdapter(Border)
_SHADOWS: TypeAdapter[Any] = TypeAdapter(Shadows)


def _own(kind: TypeAdapter[Any], write: Callable[[Any], Json], token: _Token) -> Json | None:
    """Return what stands beside a value of ours, unless somebody has changed the value since it was written."""
    if not isinstance(token.own, dict):
        return None
    try:
        meant = kind.validate_python(token.own)
    except ValidationError:
        return None
    return token.own if write(meant)["$value"] == token.value else None


def _own_of(raw: Json) -> Json:
    """Return what our own files say beside the format: what it has no type for."""
    own = at_path(raw, "button.$extensions.uptick") if isinstance(raw.get("button"), dict) else None
    if not isinstance(own, dict):
        return {}
    known = {name: own[name] for name in ("size", "type", "wrap", "centring", "text_shadows") if name in own}
    return {"look": known} if known else {}


def _whole(layer: Json) -> Json:
    """Put values together that a look replaces whole."""
    corners, size = layer.pop("corners", None), layer.pop("size", None)
    if corners and len(corners) == 4:
        alike = len({str(corner) for corner in corners.values()}) == 1
        radius = next(iter(corners.values())) if alike else {"kind": "corners", **corners}
        layer = merge_layer(layer, patch_at("look.radius", radius))
    if size and set(size) == {"width", "height"}:
        layer = merge_layer(layer, patch_at("look.size", {"kind": "fixed", **size}))
    return layer
