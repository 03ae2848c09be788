"""An icon from somebody's SVG: only its shapes are taken, everything else is left out and told."""

import re
from collections.abc import Iterator
from dataclasses import dataclass
from math import radians
from xml.etree.ElementTree import Element, ParseError

from defusedxml import ElementTree
from defusedxml.common import DefusedXmlException
from fontTools.misc.transform import Identity, Transform
from fontTools.pens.svgPathPen import SVGPathPen
from fontTools.pens.transformPen import TransformPen
from fontTools.svgLib.path import parse_path
from fontTools.svgLib.path.shapes import PathBuilder

from uptick.core.button.document import OwnIcon, Shape
from uptick.core.errors import BadIcon

MOST_BYTES = 200_000
MOST_DEEP = 60
MOST_ELEMENTS = 2_000
MOST_PATH = 20_000
_SVG = "{http://www.w3.org/2000/svg}"
_SHAPES = {"path", "rect", "circle", "ellipse", "line", "polyline", "polygon"}
_GROUPS = {"svg", "g", "a", "switch"}
_QUIET = {"title", "desc", "metadata", "defs", "namedview"}
_DRAWN = {
    "d", "x", "y", "width", "height", "cx", "cy", "r", "rx", "ry", "x1", "y1", "x2", "y2", "points", "transform",
    "fill", "stroke", "stroke-width", "stroke-linecap", "stroke-linejoin", "fill-rule", "clip-rule", "viewBox", "style",
    "id", "class", "version", "preserveAspectRatio", "role", "focusable", "color",
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class ReadIcon:
    """The icon, and in words what was left out."""

    icon: OwnIcon
    left_out: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class _Ink:
    """How a shape is drawn, as it comes down from its groups."""

    fill: str = "black"
    stroke: str = "none"
    width: float = 1.0
    cap: str = "butt"
    join: str = "miter"
    rule: str = "nonzero"
    hidden: bool = False


def read_svg(content: bytes, name: str = "own icon") -> ReadIcon:
    """Return an icon of one colour made from an SVG file.

    Shapes, groups, transforms, fills and strokes are read; scripts, handlers, links, pictures, texts, styles and
    whatever else is there never leave this function. Document types are refused, and with them entities of all kinds.

    Raises:
        BadIcon: It is no SVG, is too large, has a document type, or nothing in it is drawn.
    """
    if len(content) > MOST_BYTES:
        raise BadIcon(f"The SVG has {len(content):,} bytes; {MOST_BYTES:,} are the most for an icon.")
    try:
        root = ElementTree.fromstring(content, forbid_dtd=True, forbid_entities=True, forbid_external=True)
    except DefusedXmlException as error:
        raise BadIcon("The SVG has a document type with it. Save it as plain SVG, without DOCTYPE.") from error
    except (ParseError, ValueError, LookupError) as error:
        raise BadIcon("That is no SVG that can be read.") from error
    _require_small(root)
    if _local(root) != "svg":
        raise BadIcon(f"That is no SVG: it begins with <{_local(root)}>.")
    left_out: list[str] = []
    left, top, width, height = _view_box(root)
    shapes = tuple(_shapes(root, Identity.translate(-left, -top), _Ink(), left_out))
    if not shapes:
        raise BadIcon("Nothing in the SVG is drawn as a path or a shape, so there is nothing to make an icon from.")
    if len(shapes) > 40 or sum(len(shape.d) for shape in shapes) > MOST_PATH:
        raise _too_much()
    name = re.sub(r"\s+", " ", name).strip()[:40] or "own icon"
    icon = OwnIcon(name=name, width=width, height=height, shapes=shapes)
    return ReadIcon(icon, tuple(dict.fromkeys(left_out)))


def _too_much() -> BadIcon:
    return BadIcon(
        f"The SVG is a picture rather than an icon: at most 40 shapes and {MOST_PATH:,} characters are taken."
    )


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


def _local(element: Element) -> str:
    tag = element.tag if isinstance(element.tag, str) else "?"
    return tag.removeprefix(_SVG).rpartition("}")[2]


_NUMBER = re.compile(r"[-+]?(?:\d+\.?\d*|\.\d+)(?:[eE][-+]?\d+)?")


def _number(text: str | None, default: float) -> float:
    found = _NUMBER.match((text or "").strip())
    return _finite(found[0]) if found else default


def _finite(text: str) -> float:
    number = float(text)
    if not abs(number) < _MOST_NUMBER:
        raise BadIcon(f"The SVG holds the number {text[:20]}, beyond all drawing.")
    return number


_MOST_NUMBER = 1e9


def _view_box(root: Element) -> tuple[float, float, float, float]:
    numbers = [_finite(one) for one in _NUMBER.findall(root.get("viewBox") or "")]
    if len(numbers) == 4 and 0 < numbers[2] <= 4096 and 0 < numbers[3] <= 4096:
        return numbers[0], numbers[1], numbers[2], numbers[3]
    width, height = _number(root.get("width"), 24), _number(root.get("height"), 24)
    if not (0 < width <= 4096 and 0 < height <= 4096):
        raise BadIcon("The SVG has no viewBox, and its width and height say nothing from 1 to 4096.")
    return 0.0, 0.0, width, height


def _shapes(element: Element, at: Transform, ink: _Ink, left_out: list[str]) -> Iterator[Shape]:
    kind = _local(element)
    if kind in _QUIET:
        return
    if kind not in _SHAPES and kind not in _GROUPS:
        left_out.append(f"<{kind}>")
        return
    _tell(element, left_out)
    ink = _inked(element, ink)
    if ink.hidden:
        return
    at = _placed(element, at)
    if kind in _GROUPS:
        for child in element:
            yield from _shapes(child, at, ink, left_out)
        return
    left_out += [f"<{_local(child)}>" for child in element if _local(child) not in _QUIET]
    drawn = _drawn(element, kind, at)
    if not drawn:
        return
    scale = abs(at[0] * at[3] - at[1] * at[2]) ** 0.5
    for colour in (ink.fill, ink.stroke):
        if colour.lower() not in ("none", "black", "currentcolor", "#000", "#000000"):
            left_out.append(f"the colour {colour}: an icon takes that of the words")
    if ink.fill != "none" and kind != "line":
        yield Shape(d=drawn, rule="evenodd" if ink.rule == "evenodd" else "nonzero")
    if ink.stroke != "none" and ink.width > 0:
        cap = ink.cap if ink.cap in ("round", "square") else "butt"
        join = ink.join if ink.join in ("round", "bevel") else "miter"
        stroke = min(400.0, ink.width * scale)
        yield Shape.model_validate({"d": drawn, "stroke": stroke, "cap": cap, "join": join})


def _tell(element: Element, left_out: list[str]) -> None:
    for name in element.attrib:
        plain = name.rpartition("}")[2]
        if plain.startswith("on"):
            left_out.append(f"the handler {plain}")
        elif plain in ("href", "src"):
            left_out.append(f"the link {element.attrib[name][:40]}")
        elif plain not in _DRAWN and not plain.startswith(("aria-", "data-")) and "}" not in name:
            left_out.append(plain)


def _style(element: Element) -> dict[str, str]:
    pairs = (piece.partition(":") for piece in (element.get("style") or "").split(";"))
    return {name.strip().lower(): value.strip() for name, _, value in pairs if value.strip()}


def _inked(element: Element, ink: _Ink) -> _Ink:
    style = _style(element)

    def said(name: str, before: str) -> str:
        return style.get(name) or element.get(name) or before

    return _Ink(
        fill=said("fill", ink.fill).strip(),
        stroke=said("stroke", ink.stroke).strip(),
        width=_number(said("stroke-width", ""), ink.width),
        cap=said("stroke-linecap", ink.cap),
        join=said("stroke-linejoin", ink.join),
        rule=said("fill-rule", ink.rule),
        hidden=ink.hidden or said("display", "") == "none" or said("visibility", "") == "hidden",
    )


def _placed(element: Element, at: Transform) -> Transform:
    text = element.get("transform") or ""
    for name, inner in re.findall(r"(\w+)\s*\(([^)]*)\)", text):
        numbers = [_finite(one) for one in _NUMBER.findall(inner)]
        at = _moved(at, name, numbers)
    return at


def _moved(at: Transform, name: str, n: list[float]) -> Transform:

    match name, n:
        case "matrix", [a, b, c, d, e, f]:
            return at.transform((a, b, c, d, e, f))
        case "translate", [x, *more]:
            return at.translate(x, more[0] if more else 0)
        case "scale", [x, *more]:
            return at.scale(x, more[0] if more else x)
        case "rotate", [angle]:
            return at.rotate(radians(angle))
        case "rotate", [angle, x, y]:
            return at.translate(x, y).rotate(radians(angle)).translate(-x, -y)
        case "skewX", [angle]:
            return at.skew(radians(angle), 0)
        case "skewY", [angle]:
            return at.skew(0, radians(angle))
    return at


def _drawn(element: Element, kind: str, at: Transform) -> str:
    """Return a shape as path data with its transforms done; an empty text where it draws nothing."""
    if kind == "line":
        x1, y1, x2, y2 = (_number(element.get(name), 0) for name in ("x1", "y1", "x2", "y2"))
        data = f"M{x1:g} {y1:g}L{x2:g} {y2:g}"
    else:
        data = _path_of(element, kind)
    if not data:
        return ""
    pen = SVGPathPen(None, ntos=lambda value: f"{round(value, 3):g}")
    try:
        parse_path(data, TransformPen(pen, at))
    except (ValueError, IndexError, TypeError, AttributeError, OverflowError, ZeroDivisionError) as error:
        raise BadIcon(f"The SVG has a <{kind}> that cannot be read: {data[:60]}") from error
    drawn = str(pen.getCommands())
    if len(drawn) > MOST_PATH:
        raise _too_much()
    if "n" in drawn:
        # Infinite and undefined numbers have the only letter n of a path.
        raise BadIcon(f"The SVG has a <{kind}> with numbers beyond all drawing: {data[:60]}")
    return drawn


def _path_of(element: Element, kind: str) -> str:
    plain = Element(kind, {k: v for k, v in element.attrib.items() if k in _DRAWN and k not in ("transform", "style")})
    if kind == "path":
        return plain.get("d") or ""
    builder = PathBuilder()
    try:
        builder.add_path_from_element(plain)
    except (ValueError, IndexError, TypeError, AssertionError) as error:
        raise BadIcon(f"The SVG has a <{kind}> that cannot be read.") from error
    return " ".join(str(path) for path in builder.paths)
