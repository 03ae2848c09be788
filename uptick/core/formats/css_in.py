"""The look of an existing button, read from its CSS."""

import re
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, field
from typing import Any

import tinycss2
from tinycss2.ast import Declaration, Node, ParseError, QualifiedRule

from uptick.core.button.fields import WRITTEN, Field, Written
from uptick.core.button.merge import Json, merge_layer, patch_at
from uptick.core.errors import BadCss
from uptick.core.formats import css_values as values
from uptick.core.formats.css_errors import NotUnderstood

MOST_CHARACTERS = 400_000
# No hand writes brackets that deep; what reads them goes into each.
MOST_DEEP = 60
# A rule of many selectors is filed under each of them.
MOST_FILED = 200_000


@dataclass(frozen=True, slots=True)
class ReadLook:
    """What was read: a layer, the selector it was found under, others that could be meant, and what was left out."""

    layer: Json
    selector: str
    selectors: tuple[str, ...]
    left_out: tuple[str, ...]


_STATE_OF = {
    ":hover": "hover",
    ":active": "pressed",
    ":focus": "focus",
    ":focus-visible": "focus",
    ":disabled": "disabled",
    "[disabled]": "disabled",
    "[aria-disabled=true]": "disabled",
    '[aria-disabled="true"]': "disabled",
}
_STATE = re.compile("|".join(re.escape(name) + r"(?![\w-])" for name in sorted(_STATE_OF, key=len, reverse=True)))
_LIKELY = re.compile(r"btn|button|buy|cart|basket|checkout|purchase|submit|add", re.IGNORECASE)
_ROOT = {":root", "html", "body", "*", ":host"}


@dataclass
class _Found:
    """Declarations of one selector by state; "" is rest."""

    states: dict[str, list[Declaration]] = field(default_factory=dict)

    def count(self) -> int:
        return sum(len(those) for those in self.states.values())


def read_css(text: str, selector: str = "") -> ReadLook:
    """Return the look that a piece of CSS gives a button: whole rules, or bare declarations.

    Custom properties are filled in, shorthands taken apart, and states found by their pseudo-classes. Where no selector
    is asked for, the one that most looks like a button's is taken.

    Raises:
        BadCss: There is no declaration in it, or not that selector.
    """
    if len(text) > MOST_CHARACTERS:
        raise BadCss(f"The CSS has {len(text):,} characters; {MOST_CHARACTERS:,} are the most.")
    left_out: list[str] = []
    found, properties = _collect(text, left_out)
    if not found:
        raise BadCss("There is no rule with a declaration in it. Paste the button's rules, or the file's text.")
    ranked = sorted(found, key=lambda name: (not _LIKELY.search(name), -found[name].count()))
    if selector and selector not in found:
        raise BadCss(f"There is no rule for {selector!r}. There are: {', '.join(ranked[:8])}.", selector=selector)
    chosen = selector or ranked[0]
    reader = _Reader(properties, left_out)
    layer = reader.read(found[chosen])
    return ReadLook(layer, chosen, tuple(ranked[:24]), tuple(dict.fromkeys(left_out)))


def _collect(text: str, left_out: list[str]) -> tuple[dict[str, _Found], dict[str, list[Node]]]:
    found: dict[str, _Found] = {}
    properties: dict[str, list[Node]] = {}
    rules = _rules(text)
    if not any(isinstance(rule, QualifiedRule) for rule in rules):
        rules = _rules(f".button{{{text}}}")
    filed = 0
    for rule in rules:
        if not isinstance(rule, QualifiedRule):
            left_out.append(_of_rule(rule))
            continue
        declared = tinycss2.parse_blocks_contents(rule.content, skip_comments=True, skip_whitespace=True)
        whole = [one for one in declared if isinstance(one, Declaration)]
        left_out += [_of_rule(one) for one in declared if isinstance(one, ParseError)]
        names = tinycss2.serialize(rule.prelude).split(",")
        filed += len(names) * len(whole)
        if filed > MOST_FILED:
            says = f"The CSS sets more than {MOST_FILED:,} values, counted for each selector."
            raise BadCss(f"{says} Paste the button's own rules.")
        for name in names:
            _file(name.strip(), whole, found, properties, left_out)
    return {name: one for name, one in found.items() if one.count()}, properties


def _rules(text: str) -> list[Node]:
    """Return the rules of a style sheet.

    Raises:
        BadCss: Its brackets are nested too deeply.
    """
    tokens = tinycss2.parse_component_value_list(text, skip_comments=True)
    deep = [(token, 1) for token in tokens]
    while deep:
        token, depth = deep.pop()
        if depth > MOST_DEEP:
            raise BadCss(f"Line {token.source_line}: brackets are nested more than {MOST_DEEP} deep.")
        inner = getattr(token, "content", None) or getattr(token, "arguments", None) or ()
        deep += [(one, depth + 1) for one in inner]
    return list(tinycss2.parse_stylesheet(tokens, skip_comments=True, skip_whitespace=True))


def _file(
    name: str,
    declared: Sequence[Declaration],
    found: dict[str, _Found],
    properties: dict[str, list[Node]],
    left_out: list[str],
) -> None:
    for one in declared:
        if one.name.startswith("--"):
            properties[one.name] = list(one.value)
    if name in _ROOT:
        return
    states = [_STATE_OF[state] for state in _STATE.findall(name)]
    base = _STATE.sub("", name).replace(":not()", "").strip()
    if "::" in base or ":before" in base or ":after" in base:
        left_out.append(f"{name}: what stands before or after it")
        return
    plain = [one for one in declared if not one.name.startswith("--") or one.name in _READERS]
    kept = found.setdefault(base, _Found())
    kept.states.setdefault(states[0] if states else "", []).extend(plain)


def _of_rule(rule: Node) -> str:
    if isinstance(rule, ParseError):
        return f"line {rule.source_line}: {rule.message}"
    said = tinycss2.serialize([rule]).split("{")[0].strip()
    return f"{said[:80]}: rules for some windows or settings only"


class _Reader:
    """Turns declarations into a layer, telling what it could not."""

    def __init__(self, properties: dict[str, list[Node]], left_out: list[str]) -> None:
        self._properties = properties
        self._left_out = left_out

    def read(self, found: _Found) -> Json:
        box: Json = {}
        layer: Json = {}
        for declaration in _by_weight(found.states.get("", [])):
            for path, value in self._one(declaration, box):
                layer = merge_layer(layer, patch_at(path, value))
        layer = merge_layer(layer, self._size(box))
        for state in ("hover", "pressed", "focus", "disabled"):
            for declaration in _by_weight(found.states.get(state, [])):
                for path, value in self._one(declaration, {}):
                    if state == "focus" and path.startswith("look.focus."):
                        layer = merge_layer(layer, patch_at(path, value))
                    elif (part := path.removeprefix("look.")) in _OF_STATES:
                        layer = merge_layer(layer, patch_at(f"look.{state}.{part}", value))
                    else:
                        self._left_out.append(f"{declaration.name} {_WHEN[state]}: a state changes colours, not sizes")
        return layer

    def _one(self, declaration: Declaration, box: Json) -> Iterator[tuple[str, Any]]:
        name = declaration.lower_name
        said = tinycss2.serialize(declaration.value).strip()
        try:
            tokens = values.filled(declaration.value, self._properties)
            yield from _read(name, tokens, box)
        except NotUnderstood as why:
            self._left_out.append(f"{name}: {said[:80]}{f' ({why})' if str(why) else ''}")

    def _size(self, box: Json) -> Json:
        width, height = box.get("width"), box.get("height")
        if width == "100%":
            size: Json = {"kind": "full", **({"most": box["max-width"]} if "max-width" in box else {})}
        elif width is not None and isinstance(height, float | int):
            size = {"kind": "fixed", "width": width, "height": height}
        else:
            if height is not None:
                self._left_out.append("height: without a width the height comes from padding and words")
            least = width if width is not None else box.get("min-width")
            size = {"kind": "natural"}
            if least:
                size["least"] = least
            if "max-width" in box or width is not None:
                size["most"] = box.get("max-width", width)
            if len(size) == 1:
                return {}
        return {"look": {"size": size}}


_OF_STATES = {"fill", "text_colour", "border", "shadows", "opacity", "motion"}
_WHEN = {"hover": "when hovered", "pressed": "while pressed", "focus": "when focused", "disabled": "when disabled"}


def _by_weight(declared: Sequence[Declaration]) -> list[Declaration]:
    return sorted(declared, key=lambda one: one.important)


_SIDES = ("top", "right", "bottom", "left")
_CORNERS = ("top_left", "top_right", "bottom_right", "bottom_left")
Tokens = list[Node]
Pairs = Iterator[tuple[str, Any]]


def _padding(tokens: Tokens, box: Json) -> Pairs:
    yield from ((f"look.padding.{side}", one) for side, one in zip(_SIDES, values.four(tokens), strict=True))


def _two(first: str, second: str) -> Callable[[Tokens, Json], Pairs]:
    def read(tokens: Tokens, box: Json) -> Pairs:
        one, *more = values.lengths(tokens, 1, 2)
        yield f"look.padding.{first}", one
        yield f"look.padding.{second}", more[0] if more else one

    return read


def _side(side: str) -> Callable[[Tokens, Json], Pairs]:
    return lambda tokens, box: iter([(f"look.padding.{side}", values.length(tokens))])


def _radius(tokens: Tokens, box: Json) -> Pairs:
    # A pill is often written as a radius that no button has.
    each = [min(one, 400) if isinstance(one, float) else one for one in values.four(tokens)]
    yield "look.radius", each[0] if len(set(each)) == 1 else {
        "kind": "corners", **dict(zip(_CORNERS, each, strict=True)),
    }  # fmt: skip


def _corner(corner: str) -> Callable[[Tokens, Json], Pairs]:
    def read(tokens: Tokens, box: Json) -> Pairs:
        each = box.setdefault("corners", dict.fromkeys(_CORNERS, 0))
        each[corner] = values.length(tokens)
        yield "look.radius", {"kind": "corners", **each}

    return read


def _background(tokens: Tokens, box: Json) -> Pairs:
    yield "look.fill", values.fill(tokens)


def _colour(tokens: Tokens, box: Json) -> Pairs:
    yield "look.text_colour", values.colour(tokens)


def _border(tokens: Tokens, box: Json) -> Pairs:
    yield "look.border", values.border(tokens)


def _border_part(part: str, read_part: Callable[[Tokens], Any]) -> Callable[[Tokens, Json], Pairs]:
    def read(tokens: Tokens, box: Json) -> Pairs:
        kept = box.setdefault("border", {"kind": "line", "width_px": 1})
        kept[part] = read_part(tokens)
        yield "look.border", dict(kept) if kept["width_px"] and kept.get("style") != "none" else {"kind": "none"}

    return read


def _into(name: str) -> Callable[[Tokens, Json], Pairs]:
    def read(tokens: Tokens, box: Json) -> Pairs:
        if values.word(tokens) not in ("auto", "none", "fit-content", "max-content"):
            box[name] = values.length(tokens)
        return iter(())

    return read


def _font(tokens: Tokens, box: Json) -> Pairs:
    yield from ((f"look.type.{name}", value) for name, value in values.font(tokens).items())


def _typed(name: str, read_value: Callable[[Tokens], Any]) -> Callable[[Tokens, Json], Pairs]:
    def read(tokens: Tokens, box: Json) -> Pairs:
        value = read_value(tokens)
        if name == "size_px":
            box["type_px"] = value
        yield f"look.type.{name}", value

    return read


def _line(tokens: Tokens, box: Json) -> Pairs:
    yield "look.type.line", values.line_height(tokens, box.get("type_px", 16))


def _of_field(field: Field, css: Written) -> Callable[[Tokens, Json], Pairs]:
    """Return the reader of a field that is one property."""

    def read(tokens: Tokens, box: Json) -> Pairs:
        type_px = box.get("type_px", 16)
        if css.words:
            word = values.word(tokens)
            if word not in css.words:
                raise NotUnderstood(" or ".join(css.words))
            yield field.path, css.words[word]
        elif css.unit == "underline":
            yield field.path, values.underline_px(tokens, type_px)
        else:
            yield field.path, values.in_px(tokens, type_px, least=-2)

    return read


def _outline(tokens: Tokens, box: Json) -> Pairs:
    line = values.border(tokens)
    if line["kind"] == "line":
        yield "look.focus.ring_width_px", line["width_px"]
        if line.get("colour"):
            yield "look.focus.ring_colour", line["colour"]


def _wrap(tokens: Tokens, box: Json) -> Pairs:
    yield "look.wrap", {"nowrap": "none", "pre": "none"}.get(values.word(tokens), "lines")


def _ellipsis(tokens: Tokens, box: Json) -> Pairs:
    if values.word(tokens) == "ellipsis":
        yield "look.wrap", "ellipsis"


_READERS: dict[str, Callable[[Tokens, Json], Pairs]] = {
    "padding": _padding,
    "padding-block": _two("top", "bottom"),
    "padding-inline": _two("left", "right"),
    "padding-inline-start": _side("left"),
    "padding-inline-end": _side("right"),
    **{f"padding-{side}": _side(side) for side in _SIDES},
    "border-radius": _radius,
    **{f"border-{corner.replace('_', '-')}-radius": _corner(corner) for corner in _CORNERS},
    "border-start-start-radius": _corner("top_left"),
    "border-start-end-radius": _corner("top_right"),
    "border-end-end-radius": _corner("bottom_right"),
    "border-end-start-radius": _corner("bottom_left"),
    "background": _background,
    "background-color": _background,
    "background-image": _background,
    "color": _colour,
    "border": _border,
    "border-width": _border_part("width_px", lambda t: values.in_px(t, 16)),
    "border-style": _border_part("style", values.word),
    "border-color": _border_part("colour", values.colour),
    "width": _into("width"),
    "height": _into("height"),
    "min-width": _into("min-width"),
    "max-width": _into("max-width"),
    "font": _font,
    "font-size": _typed("size_px", lambda t: values.in_px(t, 16)),
    "font-weight": _typed("weight", lambda t: values.weight(t)),
    "font-family": _typed("family", values.family),
    "line-height": _line,
    **{css.name: _of_field(field, css) for field, css in WRITTEN},
    "box-shadow": lambda tokens, box: iter([("look.shadows", values.shadows(tokens))]),
    "opacity": lambda tokens, box: iter([("look.opacity", values.share(tokens))]),
    "transition": lambda tokens, box: iter([("look.motion", values.motion(tokens))]),
    "outline": _outline,
    "outline-color": lambda tokens, box: iter([("look.focus.ring_colour", values.colour(tokens))]),
    "outline-width": lambda tokens, box: iter([("look.focus.ring_width_px", values.in_px(tokens, 16))]),
    "outline-offset": lambda tokens, box: iter([("look.focus.ring_offset_px", values.in_px(tokens, 16, least=-12))]),
    "--centring": lambda tokens, box: iter([("look.centring", values.word(tokens))]),
    "white-space": _wrap,
    "text-overflow": _ellipsis,
}
# How our buttons stand inside says the same, or the page decides it.
_OURS_ANYWAY = {
    "display", "align-items", "justify-content", "cursor", "box-sizing", "text-align", "user-select", "appearance",
    "vertical-align", "position", "overflow", "outline-style", "touch-action", "flex", "min-height",
    "-webkit-appearance", "-webkit-font-smoothing", "-moz-osx-font-smoothing", "-webkit-tap-highlight-color",
    "transition-property", "font-style", "gap", "flex-direction",
}  # fmt: skip


def _read(name: str, tokens: Tokens, box: Json) -> Pairs:
    if name in _OURS_ANYWAY:
        return
    reader = _READERS.get(name)
    if reader is None:
        raise NotUnderstood
    yield from reader(tokens, box)
