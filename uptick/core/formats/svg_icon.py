"""An icon from somebody's SVG: only what it covers is taken, in one colour; everything else is left out and told."""

import re
from dataclasses import dataclass
from typing import Any
from xml.etree.ElementTree import Element, ParseError, register_namespace, tostring

from defusedxml import ElementTree
from defusedxml.common import DefusedXmlException
from picosvg.svg import SVG as PicoSvg
from picosvg.svg_transform import Affine2D
from picosvg.svg_types import SVGPath

from uptick.core.button.document import OwnIcon, Shape
from uptick.core.errors import BadIcon
from uptick.core.formats.svg_plain import SVG, Plain, plain

MOST_BYTES = 200_000
MOST_PATH = 20_000
MOST_SHAPES = 40
# Boxes are brought to about this size: so small a box would lose its curves to rounding, a larger one says no more.
_SIDE = 256.0
register_namespace("", SVG[1:-1])


@dataclass(frozen=True, slots=True)
class ReadIcon:
    """The icon, and in words what was left out.

    `is_whole` says that it had one colour, so that nothing of the drawing is lost with that.
    """

    icon: OwnIcon
    left_out: tuple[str, ...]
    is_whole: bool = True


def read_svg(content: bytes, name: str = "") -> ReadIcon:
    """Return an icon made of an SVG's shapes, in the words' colour.

    Styles, symbols, inner viewports, clip paths and lines are worked out to plain paths by picosvg and Skia.

    Raises:
        BadIcon: It is too large, no SVG, or nothing in it can be drawn as an icon.
    """
    root = _parsed(content)
    drawing = plain(root)
    shapes = tuple(_shapes(drawing))
    if not shapes:
        raise BadIcon("Nothing in the SVG is drawn as a path or a shape, so there is nothing to make an icon from.")
    if len(shapes) > MOST_SHAPES or sum(len(shape.d) for shape in shapes) > MOST_PATH:
        raise _too_much()
    name = re.sub(r"\s+", " ", name).strip()[:40] or "own icon"
    scale = _scale(drawing)
    icon = OwnIcon(name=name, width=drawing.width * scale, height=drawing.height * scale, shapes=shapes)
    notes = [
        f"the colour {colour}: an icon takes that of the words" for colour in drawing.colours if colour != "#000000"
    ]
    if len(drawing.colours) > 1:
        notes.append(
            f"it has {len(drawing.colours)} colours: what one of them sets apart from another is not seen in one"
        )
    return ReadIcon(icon, tuple(dict.fromkeys((*drawing.left_out, *notes))), is_whole=len(drawing.colours) < 2)


def _parsed(content: bytes) -> Element:
    if len(content) > MOST_BYTES:
        raise BadIcon(f"The SVG has {len(content):,} bytes; {MOST_BYTES:,} are the most for an icon.")
    # Many programs write where the rules of SVG stand; what is dangerous is only what stands between brackets.
    content = re.sub(rb"<!DOCTYPE\s+svg(?:\s+PUBLIC\s+\"[^\"\[]*\"\s+\"[^\"\[]*\")?\s*>", b"", content, count=1)
    try:
        root: Element = ElementTree.fromstring(content, forbid_dtd=True, forbid_entities=True, forbid_external=True)
    except DefusedXmlException as error:
        raise BadIcon("The SVG has a document type with it. Save it as plain SVG, without DOCTYPE.") from error
    except (ParseError, ValueError, LookupError) as error:
        raise BadIcon("That is no SVG that can be read.") from error
    kind = root.tag.rpartition("}")[2]
    if kind != "svg":
        raise BadIcon(f"That is no SVG: it begins with <{kind}>.")
    return root


def _too_much() -> BadIcon:
    most = f"{MOST_SHAPES} shapes and {MOST_PATH:,} characters"
    return BadIcon(f"The SVG is a picture rather than an icon: at most {most} are taken.")


def _scale(drawing: Plain) -> float:
    longest = max(drawing.width, drawing.height)
    return 1.0 if 128 <= longest <= 1024 else _SIDE / longest


# Skia rounds lines to about a quarter of a unit: drawn so much larger, theirs are as fine as an icon can be seen.
_FINER = 64.0


def _lines_finer(root: Element) -> Element:
    """Return the drawing with all shapes as paths, and those that have a line larger, to be made smaller again."""
    as_paths = _pico(root)
    as_paths.shapes_to_paths(inplace=True)
    root = ElementTree.fromstring(as_paths.tostring())
    _enlarge(root, 1.0)
    return root


def _enlarge(element: Element, width: float) -> None:
    width = float(element.get("stroke-width", width))
    for child in element:
        _enlarge(child, width)
    if element.tag != f"{SVG}path" or element.get("stroke", "none") == "none":
        return
    larger = SVGPath(d=element.get("d", "")).apply_transform(_LARGER)  # type: ignore[no-untyped-call]
    element.set("d", larger.d)
    element.set("transform", f"{element.get('transform', '')} scale({1 / _FINER})".strip())
    element.set("stroke-width", f"{_FINER * width:g}")
    if dashes := [
        float(length) * _FINER for length in re.split(r"[\s,]+", element.get("stroke-dasharray") or "") if length
    ]:
        element.set("stroke-dasharray", " ".join(f"{dash:g}" for dash in dashes))
        element.set("stroke-dashoffset", f"{_FINER * float(element.get('stroke-dashoffset', '0')):g}")


_LARGER = Affine2D.fromstring(f"scale({_FINER})")  # type: ignore[no-untyped-call]


def _pico(root: Element) -> Any:
    return PicoSvg.fromstring(tostring(root))  # type: ignore[no-untyped-call]


def _shapes(drawing: Plain) -> list[Shape]:
    """Return paths for what is covered, worked out by picosvg."""
    drawn = [element for element in drawing.root.iter() if element.tag not in (f"{SVG}svg", f"{SVG}g")]
    if not drawn:
        return []
    if (
        len(drawn) > 4 * MOST_SHAPES
        or sum(len(drawn_shape.get("d") or drawn_shape.get("points") or "") for drawn_shape in drawn) > 2 * MOST_PATH
    ):
        raise _too_much()
    scale = _scale(drawing)
    if scale != 1:
        body = drawing.root[0]
        body.set("transform", f"scale({scale:.9g}) {body.get('transform')}")
        drawing.root.set("viewBox", f"0 0 {drawing.width * scale:g} {drawing.height * scale:g}")
    try:
        worked_out = _pico(_lines_finer(drawing.root))
        worked_out.topicosvg(ndigits=2, inplace=True)
        paths = [shape.as_path().d for shape in worked_out.shapes()]
    except (ValueError, IndexError, TypeError, AttributeError, KeyError, ArithmeticError, RuntimeError) as error:
        raise BadIcon(f"The SVG has something that cannot be read: {str(error)[:80]}.") from error
    shapes = []
    for path in paths:
        if "n" in path:
            # Infinite and undefined numbers have the only letter n of a path.
            raise BadIcon("The SVG has numbers beyond all drawing.")
        if len(path) > MOST_PATH:
            raise _too_much()
        if path.strip():
            shapes.append(Shape(d=path.replace(", ", ",")))
    return shapes
