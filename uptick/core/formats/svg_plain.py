"""An SVG made plain: styles as attributes, uses and symbols in place, lengths as numbers, and only what can be drawn.

What is left is what picosvg makes paths of.
"""

import re
from collections.abc import Callable, Mapping
from copy import deepcopy
from dataclasses import dataclass, field
from math import pi
from xml.etree.ElementTree import Element, SubElement

import cssselect2
import tinycss2
from coloraide import Color

from uptick.core.errors import BadIcon

SVG = "{http://www.w3.org/2000/svg}"
XLINK = "{http://www.w3.org/1999/xlink}"
MOST_ELEMENTS = 2_000
MOST_DEEP = 60
MOST_NUMBER = 1e9
_SHAPES = {"path", "rect", "circle", "ellipse", "line", "polyline", "polygon"}
_GROUPS = {"svg", "g", "a", "switch", "defs", "symbol", "clipPath", "use"}
_QUIET = {"title", "desc", "metadata", "namedview", "style", "linearGradient", "radialGradient"}
# Presentation attributes that change what a shape covers, and what they are of (SVG 2, section 6.6).
_PAINT = {
    "fill", "stroke", "stroke-width", "stroke-linecap", "stroke-linejoin", "stroke-miterlimit", "stroke-dasharray",
    "stroke-dashoffset", "fill-rule", "clip-rule", "clip-path", "opacity", "fill-opacity", "stroke-opacity", "display",
    "visibility", "transform", "color",
}  # fmt: skip
_GEOMETRY = {
    "d", "x", "y", "width", "height", "cx", "cy", "r", "rx", "ry", "x1", "y1", "x2", "y2", "points", "viewBox",
    "preserveAspectRatio",
}  # fmt: skip
_KEPT = _PAINT | _GEOMETRY | {"id", "class", "style", "version", "role", "focusable", "href", "baseProfile"}
_ACROSS = {"x", "width", "cx", "rx", "x1", "x2"}
_ALONG = {"y", "height", "cy", "ry", "y1", "y2"}


@dataclass
class Plain:
    """A plain SVG in a box of `width` by `height` from nought, the colours that it had, and what was left out."""

    root: Element
    width: float
    height: float
    colours: list[str] = field(default_factory=list)
    left_out: list[str] = field(default_factory=list)


@dataclass(frozen=True)
class _Seen:
    """What comes down from the groups around an element."""

    width: float
    height: float
    fill: str = "black"
    stroke: str = "none"
    color: str = "black"
    hidden: bool = False
    uses: tuple[str, ...] = ()


def plain(root: Element) -> Plain:
    """Return an SVG made plain; the root is changed.

    Raises:
        BadIcon: It is nested or used beyond all bounds, or its box is none.

    Source:
        SVG 2: 5.5 (`use`), 5.6 (`symbol`), 6 (styling), 8.2 (`viewBox`), 8.9 (percentages).
    """
    return _Maker(root).made()


class _Maker:
    def __init__(self, root: Element) -> None:
        self._root = root
        self._left_out: list[str] = []
        self._colours: dict[str, None] = {}
        self._count = 0
        self._by_id: dict[str, Element] = {}

    def made(self) -> Plain:
        _require_small(self._root)
        self._style()
        for element in self._root.iter():
            if (name := element.get("id")) and name not in self._by_id:
                self._by_id[name] = element
        left, top, width, height = _view_box(self._root)
        target = Element(f"{SVG}svg", {"viewBox": f"0 0 {width:g} {height:g}"})
        seen = self._seen(self._root, _Seen(width, height))
        own = self._attributes(self._root, target, seen)
        inherited = {name: own[name] for name in _INHERITED if name in own}
        body = SubElement(target, f"{SVG}g", {"transform": f"translate({-left:g} {-top:g})", **inherited})
        self._tell(self._root)
        self._children(self._root, body, seen, 1)
        return Plain(target, width, height, list(self._colours), list(dict.fromkeys(self._left_out)))

    def _style(self) -> None:
        """Write what style sheets and `style` say as attributes, by the cascade (Selectors 4; CSS Cascade 4)."""
        matcher = cssselect2.Matcher()
        for sheet in [node for node in self._root.iter() if _local(node) == "style"]:
            for rule in tinycss2.parse_stylesheet(sheet.text or "", skip_comments=True, skip_whitespace=True):
                self._add_rule(rule, matcher)
        for wrapped in cssselect2.ElementWrapper.from_xml_root(self._root).iter_subtree():
            element = wrapped.etree_element
            strongest: dict[str, tuple[bool, int, str]] = {}
            matches = [
                (specificity, order, declarations) for specificity, order, _, declarations in matcher.match(wrapped)
            ]
            own = tinycss2.parse_blocks_contents(element.get("style") or "", skip_comments=True, skip_whitespace=True)
            for level, (_, _, declarations) in enumerate(
                [*sorted(matches, key=lambda rule_match: rule_match[:2]), ((), 0, own)]
            ):
                for declaration in declarations:
                    if declaration.type != "declaration":
                        continue
                    weight = (declaration.important, level)
                    if declaration.lower_name not in strongest or strongest[declaration.lower_name][:2] <= weight:
                        strongest[declaration.lower_name] = (*weight, tinycss2.serialize(declaration.value).strip())
            element.attrib.pop("style", None)
            for name, (_, _, value) in strongest.items():
                if name == "transform":
                    element.set(name, self._transform(value))
                elif name in _PAINT or name in _GEOMETRY - {"points", "viewBox"}:
                    element.set(name, value)
                elif not name.startswith(("-inkscape", "-", "enable-background", "font", "shape-rendering")):
                    self._left_out.append(f"{name}: {value[:40]}")

    def _add_rule(self, rule: tinycss2.ast.Node, matcher: cssselect2.Matcher) -> None:
        if rule.type != "qualified-rule":
            if rule.type == "at-rule":
                self._left_out.append(f"@{rule.at_keyword}: rules for some windows or settings only")
            return
        declarations = tinycss2.parse_blocks_contents(rule.content, skip_comments=True, skip_whitespace=True)
        try:
            for selector in cssselect2.compile_selector_list(rule.prelude):
                matcher.add_selector(selector, declarations)
        except cssselect2.SelectorError:
            self._left_out.append(f"the rule for {tinycss2.serialize(rule.prelude).strip()[:40]}")

    def _transform(self, value: str) -> str:
        """Return a transform of CSS as SVG writes it: pixels without a unit, angles in degrees."""

        def number(match: re.Match[str]) -> str:
            unit = match[2].lower()
            if unit not in _UNITS:
                self._left_out.append(f"transform: {value[:40]}")
                return "0"
            return f"{float(match[1]) * _UNITS[unit]:g}"

        plain = re.sub(r"translateX\(", "translate(", value, flags=re.IGNORECASE)
        plain = re.sub(r"translateY\(", "translate(0 ", plain, flags=re.IGNORECASE)
        return re.sub(r"([-+]?(?:\d+\.?\d*|\.\d+)(?:e[-+]?\d+)?)([a-z%]+)", number, plain, flags=re.IGNORECASE)

    def _children(self, element: Element, into: Element, seen: _Seen, depth: int) -> None:
        for child in element:
            self._take(child, into, seen, depth + 1)

    def _take(self, element: Element, into: Element, seen: _Seen, depth: int) -> None:
        self._count += 1
        if self._count > MOST_ELEMENTS or depth > 2 * MOST_DEEP:
            raise BadIcon("The SVG uses its parts over and over: that is a picture rather than an icon.")
        kind = _local(element)
        if kind in _QUIET:
            return
        if kind not in _SHAPES | _GROUPS:
            self._left_out.append(f"<{kind}>")
            return
        self._tell(element)
        if kind in ("defs", "symbol", "clipPath") or element.get("display") == "none":
            return
        seen = self._seen(element, seen)
        if kind == "use":
            self._use(element, into, seen, depth)
        elif kind == "svg":
            self._nested(element, into, seen, depth, element)
        elif kind in _SHAPES:
            self._left_out += [f"<{_local(child)}>" for child in element if _local(child) not in _QUIET]
            if not seen.hidden:
                self._draw(element, into, kind, seen)
        elif self._is_there(element):
            group = SubElement(into, f"{SVG}g", self._attributes(element, into, seen))
            self._children(element, group, seen, depth)

    def _is_there(self, element: Element) -> bool:
        """Tell whether a group is seen at all; one that is half seen is told."""
        there = _number(element.get("opacity"), 1)
        if 0 < there < 1:
            self._left_out.append(f"opacity: {there:g}: an icon is all there or not")
        return there > 0

    def _seen(self, element: Element, seen: _Seen) -> _Seen:
        color = element.get("color", seen.color)
        fill, stroke = (
            seen_ if (value := (element.get(name) or "").strip()) in ("", "inherit") else value
            for name, seen_ in (("fill", seen.fill), ("stroke", seen.stroke))
        )
        visibility = element.get("visibility")
        hidden = seen.hidden if visibility is None else visibility in ("hidden", "collapse")
        return _Seen(seen.width, seen.height, fill, stroke, color, hidden, seen.uses)

    def _draw(self, element: Element, into: Element, kind: str, seen: _Seen) -> None:
        attributes = self._attributes(element, into, seen)
        # A line by itself has no inside.
        attributes["fill"] = "none" if kind == "line" else self._paint(seen.fill, seen.color)
        attributes["stroke"] = self._paint(seen.stroke, seen.color)
        if attributes["fill"] == attributes["stroke"] == "none":
            return
        for name in ("opacity", "fill-opacity", "stroke-opacity"):
            opacity = _number(element.get(name), 1) if element.get(name) else 1.0
            if opacity == 0 and (name == "opacity" or attributes[name.split("-")[0]] != "none"):
                if name == "opacity":
                    return
                attributes[name.split("-")[0]] = "none"
            elif opacity < 1:
                self._left_out.append(f"{name}: {opacity:g}: an icon is all there or not")
        SubElement(into, f"{SVG}{kind}", attributes)

    def _paint(self, paint: str, color: str) -> str:
        """Return whether something is painted; its colour is that of the words."""
        shade = color if paint.lower() == "currentcolor" else paint
        if shade.lower() in ("none", "transparent"):
            return "none"
        if shade.startswith("url"):
            self._left_out.append("a gradient or pattern: an icon has one colour")
        else:
            self._colours[_in_hex(shade)] = None
        return "black"

    def _attributes(self, element: Element, into: Element, seen: _Seen) -> dict[str, str]:
        """Return what of an element changes what it covers, with lengths as numbers."""
        attributes: dict[str, str] = {}
        for name in (*_GEOMETRY, *_PAINT):
            value = element.get(name)
            if value is None or name in ("viewBox", "preserveAspectRatio", "display", "visibility", "color", *_INKS):
                continue
            if name in _ACROSS | _ALONG | {"r", "stroke-width", "stroke-dashoffset"}:
                value = f"{self._length(value, name, seen):g}"
            elif name == "stroke-dasharray":
                value = self._dashes(value, seen)
            elif name == "clip-path":
                value = self._clip(value, into, seen)
            elif name in ("d", "points", "transform"):
                # A number beyond all bounds is told as such, before somebody draws with it.
                _numbers(value)
            if value:
                attributes[name] = value
        return attributes

    def _length(self, text: str, name: str, seen: _Seen) -> float:
        whole = seen.width if name in _ACROSS else seen.height
        if name not in _ACROSS | _ALONG:
            # Of what has no direction the viewport's diagonal counts (SVG 2, 8.9).
            whole = ((seen.width**2 + seen.height**2) / 2) ** 0.5
        return length(text, whole)

    def _dashes(self, text: str, seen: _Seen) -> str:
        if text.strip() in ("", "none"):
            return ""
        each = [self._length(dash, "", seen) for dash in re.split(r"[\s,]+", text.strip())]
        if sum(each) < max(seen.width, seen.height) / 200:
            self._left_out.append(f"stroke-dasharray: {text[:40]}: dashes finer than an icon shows")
            return ""
        return " ".join(f"{dash:g}" for dash in each)

    def _clip(self, value: str, into: Element, seen: _Seen) -> str:
        match = re.fullmatch(r"url\(\s*['\"]?#([^'\")]+)['\"]?\s*\)", value.strip())
        clip = self._by_id.get(match[1]) if match else None
        if value.strip() == "none":
            return ""
        if clip is None or _local(clip) != "clipPath" or clip.get("clipPathUnits") == "objectBoundingBox":
            self._left_out.append(f"clip-path: {value[:40]}")
            return ""
        self._count += 1
        name = f"clip{self._count}"
        clip_path = Element(f"{SVG}clipPath", {"id": name})
        plain_ = _Seen(seen.width, seen.height, uses=seen.uses)
        for child in clip:
            if _local(child) in _SHAPES:
                attributes = self._attributes(child, into, plain_)
                if rule := child.get("clip-rule"):
                    attributes["clip-rule"] = rule
                SubElement(clip_path, child.tag, attributes)
            elif _local(child) not in _QUIET:
                self._left_out.append(f"<{_local(child)}> in a clip path")
        into.append(clip_path)
        return f"url(#{name})"

    def _window(self, into: Element, wide: float, high: float) -> str:
        self._count += 1
        clip = SubElement(into, f"{SVG}clipPath", {"id": f"clip{self._count}"})
        SubElement(clip, f"{SVG}rect", {"x": "0", "y": "0", "width": f"{wide:g}", "height": f"{high:g}"})
        return f"url(#clip{self._count})"

    def _use(self, element: Element, into: Element, seen: _Seen, depth: int) -> None:
        link = element.get("href") or element.get(f"{XLINK}href") or ""
        name = link.removeprefix("#")
        target = self._by_id.get(name) if link.startswith("#") else None
        if target is None or name in seen.uses:
            self._left_out.append(f"<use> of {link[:40] or 'nothing'}")
            return
        x, y = (self._length(element.get(axis) or "0", axis, seen) for axis in ("x", "y"))
        attributes = self._attributes(element, into, seen)
        group = SubElement(into, f"{SVG}g", {n: v for n, v in attributes.items() if n in ("transform", "clip-path")})
        moved = SubElement(group, f"{SVG}g", {"transform": f"translate({x:g} {y:g})"})
        seen = _Seen(seen.width, seen.height, seen.fill, seen.stroke, seen.color, seen.hidden, (*seen.uses, name))
        inherited = {n: v for n in _INHERITED if (v := element.get(n)) is not None}
        if _local(target) in ("symbol", "svg"):
            self._nested(target, moved, self._seen(target, seen), depth, element)
            return
        copy = deepcopy(target)
        for attribute, value in inherited.items():
            if copy.get(attribute) is None:
                copy.set(attribute, value)
        self._take(copy, moved, seen, depth + 1)

    def _nested(self, element: Element, into: Element, seen: _Seen, depth: int, sized: Element) -> None:
        """Lay an inner viewport out; a `use` says how large that of a symbol is (SVG 2, 5.5 and 8.2)."""
        own_x, own_y = (
            (self._length(element.get(axis) or "0", axis, seen) for axis in ("x", "y"))
            if sized is element
            else (0.0, 0.0)
        )
        wide, high = (
            self._length(sized.get(side) or element.get(side) or "100%", side, seen) for side in ("width", "height")
        )
        if not self._is_there(element):
            return
        box = _numbers(element.get("viewBox") or "")
        # What it says of lines holds for all that is in it, as with any group.
        paints = {name: value for name, value in self._attributes(element, into, seen).items() if name in _PAINT}
        moved = paints.pop("transform", "") if sized is element else ""
        group = SubElement(into, f"{SVG}g", {**paints, "transform": f"{moved} translate({own_x:g} {own_y:g})".strip()})
        if element.get("overflow", "hidden") not in ("visible", "auto"):
            # CSS Overflow 3 and SVG 2, 3.9: a viewport within another one cuts off what lies outside of it.
            group = SubElement(group, f"{SVG}g", {"clip-path": self._window(into, wide, high)})
        inner = _Seen(wide, high, seen.fill, seen.stroke, seen.color, seen.hidden, seen.uses)
        if len(box) == 4 and box[2] > 0 and box[3] > 0:
            group = SubElement(
                group, f"{SVG}g", {"transform": _fit(box, wide, high, element.get("preserveAspectRatio"))}
            )
            inner = _Seen(box[2], box[3], seen.fill, seen.stroke, seen.color, seen.hidden, seen.uses)
        self._children(element, group, inner, depth)

    def _tell(self, element: Element) -> None:
        for name, value in element.attrib.items():
            bare = name.rpartition("}")[2]
            if bare.startswith("on"):
                self._left_out.append(f"the handler {bare}")
            elif bare in ("href", "src") and _local(element) != "use":
                self._left_out.append(f"the link {value[:40]}")
            elif bare not in _KEPT | _HARMLESS and not bare.startswith(_NO_SHAPES) and "}" not in name:
                self._left_out.append(bare)


# What is said of screen readers, of a page's scripts, and of words.
_NO_SHAPES = ("aria-", "data-", "font", "text-")


def _in_hex(shade: str) -> str:
    try:
        return str(Color(shade.strip()).set("alpha", 1).convert("srgb").fit().to_string(hex=True))
    except ValueError:
        return shade.strip().lower()


_INKS = ("fill", "stroke", "opacity", "fill-opacity", "stroke-opacity")
_INHERITED = ("stroke-width", "stroke-linecap", "stroke-linejoin", "stroke-miterlimit", "stroke-dasharray", "fill-rule")
_HARMLESS = {
    "shape-rendering", "enable-background", "letter-spacing", "word-spacing", "overflow", "paint-order",
    "vector-effect", "clipPathUnits", "tabindex", "lang", "image-rendering", "color-interpolation", "mix-blend-mode",
    "isolation",
    "pointer-events", "cursor", "fill-color", "xmlns", "space", "name", "title", "writing-mode", "direction", "type",
}  # fmt: skip
_UNITS: Mapping[str, float] = {
    "px": 1, "deg": 1, "turn": 360, "rad": 180 / pi, "grad": 0.9, "em": 16, "rem": 16, "pt": 4 / 3,
    "mm": 96 / 25.4, "cm": 96 / 2.54, "in": 96, "pc": 16,
}  # fmt: skip
_NUMBER = re.compile(r"[-+]?(?:\d+\.?\d*|\.\d+)(?:[eE][-+]?\d+)?")


def _local(element: Element) -> str:
    tag = element.tag if isinstance(element.tag, str) else "?"
    return tag.removeprefix(SVG).rpartition("}")[2]


def _require_small(root: Element) -> None:
    """Refuse what would be gone into more deeply, or counted longer, than any icon needs.

    Raises:
        BadIcon: It is nested too deeply or has too many elements.
    """
    waiting, count = [(root, 1)], 0
    while waiting:
        element, depth = waiting.pop()
        count += 1
        if depth > MOST_DEEP or count > MOST_ELEMENTS:
            what = f"nested more than {MOST_DEEP} deep" if depth > MOST_DEEP else f"of over {MOST_ELEMENTS:,} elements"
            raise BadIcon(f"The SVG is {what}: that is a picture rather than an icon.")
        waiting += [(child, depth + 1) for child in element]


def finite(text: str) -> float:
    """Return a number.

    Raises:
        BadIcon: It is beyond all drawing.
    """
    number = float(text)
    if not abs(number) < MOST_NUMBER:
        raise BadIcon(f"The SVG holds the number {text[:20]}, beyond all drawing.")
    return number


def _numbers(text: str) -> list[float]:
    return [finite(number) for number in _NUMBER.findall(text)]


def _number(text: str | None, default: float) -> float:
    match = _NUMBER.match((text or "").strip())
    share = 0.01 if match and (text or "").strip().endswith("%") else 1
    return finite(match[0]) * share if match else default


def length(text: str, whole: float) -> float:
    """Return a length in user units; a percentage is of `whole`.

    Raises:
        BadIcon: It is none, or beyond all drawing.
    """
    match = re.fullmatch(r"([-+]?(?:\d+\.?\d*|\.\d+)(?:[eE][-+]?\d+)?)\s*([a-zA-Z%]*)", text.strip())
    if not match or match[2].lower() not in {"", "%", *_UNITS}:
        raise BadIcon(f"The SVG has {text[:40]!r} where a length belongs.")
    number = finite(match[1])
    return number * whole / 100 if match[2] == "%" else number * _UNITS.get(match[2].lower(), 1)


def _view_box(root: Element) -> tuple[float, float, float, float]:
    numbers = _numbers(root.get("viewBox") or "")
    if len(numbers) == 4 and numbers[2] > 0 and numbers[3] > 0:
        return numbers[0], numbers[1], numbers[2], numbers[3]
    width, height = (length(root.get(side) or "24", 24) for side in ("width", "height"))
    if not (width > 0 and height > 0):
        raise BadIcon("The SVG has no viewBox, and its width and height say nothing from 1 on.")
    return 0.0, 0.0, width, height


_ALIGNED: Callable[[str], float] = lambda word: {"Min": 0.0, "Mid": 0.5, "Max": 1.0}[word]  # noqa: E731


def _fit(box: list[float], wide: float, high: float, ratio: str | None) -> str:
    """Return the transform by which a view box fills its viewport (SVG 2, 8.2: `preserveAspectRatio`)."""
    across, along = wide / box[2], high / box[3]
    match = re.match(r"x(Min|Mid|Max)Y(Min|Mid|Max)(?:\s+(meet|slice))?", (ratio or "").strip())
    if (ratio or "").strip().startswith("none"):
        return f"scale({across:.9g} {along:.9g}) translate({-box[0]:.9g} {-box[1]:.9g})"
    scale = max(across, along) if match and match[3] == "slice" else min(across, along)
    x_, y_ = (_ALIGNED(match[1]), _ALIGNED(match[2])) if match else (0.5, 0.5)
    free_x, free_y = (wide - box[2] * scale) * x_, (high - box[3] * scale) * y_
    return f"translate({free_x:.9g} {free_y:.9g}) scale({scale:.9g}) translate({-box[0]:.9g} {-box[1]:.9g})"
