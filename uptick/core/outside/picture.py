"""A button as a picture: SVG whose words are the outlines of the very font, and PNG made of that."""

import base64
import io
from collections.abc import Iterator
from dataclasses import dataclass, replace
from html import escape
from math import ceil

import resvg_py
from PIL import Image

from uptick.core.button.document import ButtonDocument, NoQuantity, NoSecond
from uptick.core.button.lengths import Ground
from uptick.core.button.look import (
    Corners,
    LayersFill,
    LinearFill,
    NoFill,
    PictureFill,
    RadialFill,
    Shadow,
    SideLine,
    SolidFill,
    lines_of,
)
from uptick.core.colour.dress import REST, Dress, dress_in
from uptick.core.colour.fills import AnyFill
from uptick.core.drawing.boxes import lay_out
from uptick.core.drawing.drawing import Drawing, Rectangle, radii_of
from uptick.core.drawing.kit import Kit, icon_of
from uptick.core.errors import OutOfRange
from uptick.core.outside.gradients import svg_gradient

# As Chromium slants letters that have no italics of their own: a quarter of their height.
_SLANT_DEG = -14.036
# Where a font says nothing of it; Chromium takes a tenth of the type's size (from memory).
_UNDERLINE_OFFSET = 0.1


@dataclass(frozen=True, slots=True)
class ButtonPicture:
    """A button drawn. `width` and `height` are CSS pixels with its shadow's room; `words` stand for it."""

    svg: str
    width: float
    height: float
    words: str

    def png(self, scale: int) -> bytes:
        """Return it as PNG with `scale` dots to a CSS pixel, from 1 to 4.

        Raises:
            OutOfRange: The scale is another.
        """
        if scale not in range(1, 5):
            raise OutOfRange.of("scale", "1, 2, 3 or 4", scale)
        return bytes(resvg_py.svg_to_bytes(svg_string=self.svg, zoom=scale, skip_system_fonts=True))


def alone(document: ButtonDocument) -> ButtonDocument:
    """Return a button without what only works beside it on the shop's own page."""
    return document.model_copy(update={"quantity": NoQuantity(), "second": NoSecond()})


def draw_picture(
    document: ButtonDocument, text: str, kit: Kit, ground: Ground, *, rtl: bool = False, language: str = ""
) -> ButtonPicture:
    """Return a button at rest as a picture; pixels of its container and window are the ground's.

    Raises:
        OutOfRange: A letter of its words is in none of the shipped fonts, or its picture is not there.
    """
    drawn = lay_out(alone(document), text, kit, ground, rtl=rtl, language=language)
    if drawn.missing:
        raise OutOfRange.of(
            "the words of a picture", "letters of the fonts that ship with it", f"“{drawn.missing}” in “{text}”"
        )
    return _Artist(document, drawn, kit, ground, rtl).picture(text)


def _number(value: float) -> str:
    return f"{round(value, 3):g}"


def _paint(colour: str, name: str = "fill") -> str:
    """Return a colour as attributes; SVG 1.1 has no opacity in its colours."""
    opacity = int(colour[7:9], 16) / 255 if len(colour) == 9 else 1
    return f'{name}="{colour[:7]}"' + (f' {name}-opacity="{_number(opacity)}"' if opacity < 1 else "")


# The radii of a corner across and down, of all four from the upper left one on.
Round = tuple[tuple[float, float], tuple[float, float], tuple[float, float], tuple[float, float]]
_SHARP: Round = ((0, 0), (0, 0), (0, 0), (0, 0))


def rounded(box: Rectangle, radii: Round) -> str:
    """Return a box with round corners as a path; those that meet are made smaller together (CSS Backgrounds 3, 5.5)."""
    (tl, tr, br, bl) = radii
    sums = (
        (box.width, tl[0] + tr[0]),
        (box.width, bl[0] + br[0]),
        (box.height, tl[1] + bl[1]),
        (box.height, tr[1] + br[1]),
    )
    share = min([1.0, *(side / both for side, both in sums if both > side)])
    (tl, tr, br, bl) = ((x * share, y * share) for x, y in radii)
    left, top, right, bottom = box.x, box.y, box.x + box.width, box.y + box.height
    steps = [
        f"M{_number(left + tl[0])} {_number(top)}H{_number(right - tr[0])}", _arc(tr, right, top + tr[1]),
        f"V{_number(bottom - br[1])}", _arc(br, right - br[0], bottom),
        f"H{_number(left + bl[0])}", _arc(bl, left, bottom - bl[1]),
        f"V{_number(top + tl[1])}", _arc(tl, left + tl[0], top), "Z",
    ]  # fmt: skip
    return "".join(steps)


def _arc(radii: tuple[float, float], x: float, y: float) -> str:
    if not radii[0] or not radii[1]:
        return f"L{_number(x)} {_number(y)}" if radii[0] or radii[1] else ""
    return f"A{_number(radii[0])} {_number(radii[1])} 0 0 1 {_number(x)} {_number(y)}"


def _grown(box: Rectangle, by: float) -> Rectangle:
    return Rectangle(box.x - by, box.y - by, max(0.0, box.width + 2 * by), max(0.0, box.height + 2 * by))


def _round_by(radii: Round, by: float) -> Round:
    # A sharp corner stays sharp (CSS Backgrounds 3, 7.2).
    tl, tr, br, bl = ((max(0.0, x + by), max(0.0, y + by)) if x and y else (0.0, 0.0) for x, y in radii)
    return tl, tr, br, bl


def _round_of(radius: Corners | float | str, box: Rectangle, type_px: float, ground: Ground, *, rtl: bool) -> Round:
    """Return the radii of a button: percentages are of its width across and of its height down."""
    own = replace(ground, container_px=box.width)
    tall = replace(ground, container_px=box.height)
    across, down = (radii_of(radius, side, type_px, to) for side, to in ((box.width, own), (box.height, tall)))
    names = ("top_left", "top_right", "bottom_right", "bottom_left")
    tl, tr, br, bl = ((float(getattr(across, name)), float(getattr(down, name))) for name in names)
    return (tr, tl, bl, br) if rtl else (tl, tr, br, bl)


class _Artist:
    """Draws one button; what is named in the picture is numbered."""

    def __init__(self, document: ButtonDocument, drawn: Drawing, kit: Kit, ground: Ground, rtl: bool) -> None:
        self._look, self._icon = document.look, icon_of(document.icon)
        self._drawn, self._kit, self._rtl = drawn, kit, rtl
        self._dress: Dress = dress_in(document.look, REST)
        self._radius = _round_of(document.look.radius, drawn.outer, document.look.type.size_px, ground, rtl=rtl)
        self._defs: list[str] = []

    def picture(self, text: str) -> ButtonPicture:
        cast = [shadow for shadow in self._dress.shadows.list if not shadow.inner]
        left, top, right, bottom = self._bleed(cast)
        outer = self._drawn.outer
        width, height = outer.width + left + right, outer.height + top + bottom
        inside = "".join(
            [*self._cast(cast), *self._body(), *self._inner(), *self._border(), *self._glyph(), *self._words()]
        )
        opacity = f' opacity="{self._dress.opacity:g}"' if self._dress.opacity < 1 else ""
        svg = (
            f'<svg xmlns="http://www.w3.org/2000/svg" width="{_number(width)}" height="{_number(height)}" '
            f'viewBox="{_number(-left)} {_number(-top)} {_number(width)} {_number(height)}" role="img">'
            f"<title>{escape(text)}</title>"
            + (f"<defs>{''.join(self._defs)}</defs>" if self._defs else "")
            + f"<g{opacity}>{inside}</g></svg>"
        )
        return ButtonPicture(svg, round(width, 3), round(height, 3), text)

    def _name(self, element: str) -> str:
        """Keep an element that others refer to; return its name."""
        name = f"u{len(self._defs)}"
        self._defs.append(element.replace("@", name, 1))
        return name

    @staticmethod
    def _bleed(cast: list[Shadow]) -> tuple[float, float, float, float]:
        """Return how far shadows stand out on each side: left, top, right, bottom."""

        def most(way: float, shadow: Shadow) -> float:
            return max(0.0, shadow.blur_px + shadow.spread_px + way)

        sides = (
            max((most(-shadow.x_px, shadow) for shadow in cast), default=0.0),
            max((most(-shadow.y_px, shadow) for shadow in cast), default=0.0),
            max((most(shadow.x_px, shadow) for shadow in cast), default=0.0),
            max((most(shadow.y_px, shadow) for shadow in cast), default=0.0),
        )
        left, top, right, bottom = (float(ceil(side)) for side in sides)
        return left, top, right, bottom

    def _blurred(self, blur_px: float, around: Rectangle) -> str:
        if not blur_px:
            return ""
        room = _grown(around, blur_px * 2 + 1)
        filtered = self._name(
            f'<filter id="@" filterUnits="userSpaceOnUse" x="{_number(room.x)}" y="{_number(room.y)}" '
            f'width="{_number(room.width)}" height="{_number(room.height)}" color-interpolation-filters="sRGB">'
            f'<feGaussianBlur stdDeviation="{_number(blur_px / 2)}"/></filter>'
        )
        return f' filter="url(#{filtered})"'

    def _cast(self, cast: list[Shadow]) -> Iterator[str]:
        body = rounded(self._drawn.outer, self._radius)
        for shadow in reversed(cast):
            box = _grown(self._drawn.outer, shadow.spread_px)
            box = replace(box, x=box.x + shadow.x_px, y=box.y + shadow.y_px)
            around = _grown(box, shadow.blur_px * 2 + 2)
            # Nothing of it is seen under the button, also where that lets the page through.
            room = rounded(around, _SHARP)
            outside = self._name(f'<clipPath id="@"><path clip-rule="evenodd" d="{room}{body}"/></clipPath>')
            path = rounded(box, _round_by(self._radius, shadow.spread_px))
            paint = f'fill="{shadow.colour}" fill-opacity="{_number(shadow.opacity)}"'
            yield f'<g clip-path="url(#{outside})"><path d="{path}" {paint}{self._blurred(shadow.blur_px, box)}/></g>'

    def _body(self) -> Iterator[str]:
        path = rounded(self._drawn.outer, self._radius)
        for paint in self._paints(self._dress.fill, path):
            yield paint if paint.startswith("<") else f'<path d="{path}" {paint}/>'

    def _inside_border(self) -> Rectangle:
        outer, line = self._drawn.outer, self._drawn.border
        return Rectangle(outer.x + line.left, outer.y + line.top, outer.width - line.across, outer.height - line.along)

    def _paints(self, fill: AnyFill, path: str) -> Iterator[str]:
        """Yield how the body is painted, the lowest layer first."""
        if isinstance(fill, NoFill):
            return
        if isinstance(fill, SolidFill):
            yield _paint(fill.colour)
        elif isinstance(fill, LinearFill | RadialFill):
            yield f'fill="url(#{self._name(svg_gradient(fill, self._inside_border(), "@"))})"'
        elif isinstance(fill, LayersFill):
            if fill.ground:
                yield _paint(fill.ground)
            for layer in reversed(fill.list):
                yield from self._paints(layer, path)
        else:
            yield from self._covering(fill, path)

    def _covering(self, fill: PictureFill, path: str) -> Iterator[str]:
        picture = self._kit.pictures.get(fill.picture)
        if picture is None:
            raise OutOfRange.of("the fill's picture", "one of the store's pictures", fill.picture)
        box, (wide, high) = self._inside_border(), picture.size
        scale = max(box.width / wide, box.height / high)
        x = box.x - (wide * scale - box.width) * fill.x / 100
        y = box.y - (high * scale - box.height) * fill.y / 100
        content = io.BytesIO()
        Image.fromarray(picture.pixels).save(content, "PNG")
        data = base64.b64encode(content.getvalue()).decode()
        clip = self._name(f'<clipPath id="@"><path d="{path}"/></clipPath>')
        yield (
            f'<g clip-path="url(#{clip})"><image x="{_number(x)}" y="{_number(y)}" width="{_number(wide * scale)}" '
            f'height="{_number(high * scale)}" preserveAspectRatio="none" href="data:image/png;base64,{data}"/></g>'
        )
        if fill.scrim.opacity:
            yield f'fill="{fill.scrim.colour}" fill-opacity="{_number(fill.scrim.opacity)}"'

    def _inner(self) -> Iterator[str]:
        inner = [shadow for shadow in self._dress.shadows.list if shadow.inner]
        if not inner:
            return
        box, line = self._inside_border(), max(self._drawn.border.across, self._drawn.border.along) / 2
        radius = _round_by(self._radius, -line)
        clip = self._name(f'<clipPath id="@"><path d="{rounded(box, radius)}"/></clipPath>')
        for cast in reversed(inner):
            hole = _grown(box, -cast.spread_px)
            hole = replace(hole, x=hole.x + cast.x_px, y=hole.y + cast.y_px)
            room = _grown(box, 2 * cast.blur_px + abs(cast.x_px) + abs(cast.y_px) + abs(cast.spread_px) + 2)
            path = rounded(room, _SHARP) + rounded(hole, _round_by(radius, -cast.spread_px))
            paint = f'fill="{cast.colour}" fill-opacity="{_number(cast.opacity)}" fill-rule="evenodd"'
            yield f'<g clip-path="url(#{clip})"><path d="{path}" {paint}{self._blurred(cast.blur_px, room)}/></g>'

    def _ring(self) -> str:
        """Return the border's whole area: between the outer edge and the inner one (CSS Backgrounds 3, 5.2)."""
        edges = self._drawn.border
        left, right = (edges.right, edges.left) if self._rtl else (edges.left, edges.right)
        outer = self._drawn.outer
        width, height = max(0.0, outer.width - left - right), max(0.0, outer.height - edges.along)
        inner = Rectangle(outer.x + left, outer.y + edges.top, width, height)
        by = ((left, edges.top), (right, edges.top), (right, edges.bottom), (left, edges.bottom))
        tl, tr, br, bl = (
            (max(0.0, x - wide), max(0.0, y - high)) for (x, y), (wide, high) in zip(self._radius, by, strict=True)
        )
        return rounded(outer, self._radius) + rounded(inner, (tl, tr, br, bl))

    def _border(self) -> Iterator[str]:
        lines = lines_of(self._dress.border)
        if len(set(lines)) == 1 and lines[0].style != "solid":
            if lines[0].width_px:
                yield from self._around(lines[0], self._drawn.border.top)
            return
        if len(set(lines)) == 1:
            if lines[0].width_px:
                yield f'<path fill-rule="evenodd" d="{self._ring()}" {_paint(lines[0].colour or "#000000")}/>'
            return
        clip = self._name(f'<clipPath id="@"><path clip-rule="evenodd" d="{self._ring()}"/></clipPath>')
        outer, edges = self._drawn.outer, self._drawn.border
        sides = (lines[0], lines[3], lines[2], lines[1]) if self._rtl else lines
        left, right = (edges.right, edges.left) if self._rtl else (edges.left, edges.right)
        end_x, end_y = outer.width, outer.height
        corners = (
            (0, 0, end_x, 0, end_x - right, edges.top, left, edges.top),
            (end_x, 0, end_x, end_y, end_x - right, end_y - edges.bottom, end_x - right, edges.top),
            (end_x, end_y, 0, end_y, left, end_y - edges.bottom, end_x - right, end_y - edges.bottom),
            (0, end_y, 0, 0, left, edges.top, left, end_y - edges.bottom),
        )
        for side, those in zip(sides, corners, strict=True):
            if side.width_px:
                points = " ".join(_number(value) for value in those)
                yield f'<polygon clip-path="url(#{clip})" points="{points}" {_paint(side.colour or "#000000")}/>'

    def _around(self, line: SideLine, width: float) -> Iterator[str]:
        """Yield a line of one kind around the button, inside its box."""
        colour = _paint(line.colour or "#000000", "stroke")
        strokes = [(width / 2, width)]
        dashes = ""
        if line.style == "double" and width >= 3:
            third = width / 3
            strokes = [(third / 2, third), (width - third / 2, third)]
        elif line.style == "dashed":
            # As Chromium has them; where the first one begins is every browser's own.
            dash, gap = (width * 2, width) if width > 2 else (width * 3, width * 2)
            dashes = f' stroke-dasharray="{_number(dash)} {_number(gap)}"'
        elif line.style == "dotted":
            dashes = f' stroke-dasharray="0 {_number(width * 2)}" stroke-linecap="round"'
        for inward, wide in strokes:
            path = rounded(_grown(self._drawn.outer, -inward), _round_by(self._radius, -inward))
            yield f'<path d="{path}" fill="none" {colour} stroke-width="{_number(wide)}"{dashes}/>'

    def _glyph(self) -> Iterator[str]:
        icon, box = self._icon, self._drawn.icon
        if icon is None or box is None:
            return
        glyph = self._kit.glyph(icon)
        scale = min(box.width / glyph.width, box.height / glyph.height)
        x = box.x + (box.width - glyph.width * scale) / 2
        y = box.y + (box.height - glyph.height * scale) / 2
        if icon.centring == "mass":
            x -= glyph.off_x * icon.size_px
            y -= glyph.off_y * icon.size_px
        turn = f"translate({_number(x)} {_number(y)}) scale({_number(scale)})"
        if icon.mirror and self._rtl:
            turn = f"translate({_number(x + glyph.width * scale)} {_number(y)}) scale({-scale:.4f} {scale:.4f})"
        colour = self._dress.text_colour
        shapes = []
        for shape in glyph.shapes:
            if shape.stroke:
                drawn = f'fill="none" {_paint(colour, "stroke")} stroke-width="{shape.stroke:g}"'
                shapes.append(
                    f'<path d="{shape.d}" {drawn} stroke-linecap="{shape.cap}" stroke-linejoin="{shape.join}"/>'
                )
            else:
                shapes.append(f'<path d="{shape.d}" {_paint(colour)} fill-rule="{shape.rule}"/>')
        yield f'<g transform="{turn}">{"".join(shapes)}</g>'

    def _words(self) -> Iterator[str]:
        kind, fonts = self._look.type, self._kit.fonts
        for n, line in enumerate(self._drawn.lines):
            baseline = self._drawn.baseline_y + n * self._drawn.line_height_px
            outline = fonts.outline(
                line.text, kind.family, kind.size_px, kind.weight, kind.letter_spacing_px, rtl=self._rtl
            )
            if not outline.path:
                continue
            at = f"translate({_number(line.x)} {_number(baseline)})"
            slant = f" skewX({_SLANT_DEG})" if kind.slant == "italic" else ""
            shape = f'<path transform="{at}{slant}" d="{outline.path}" '
            around = Rectangle(line.x, baseline - kind.size_px, line.width, kind.size_px * 1.3)
            for cast in reversed(self._look.text_shadows.list):
                moved = f"translate({_number(line.x + cast.x_px)} {_number(baseline + cast.y_px)}){slant}"
                blur = self._blurred(cast.blur_px, _grown(around, abs(cast.x_px) + abs(cast.y_px)))
                paint = f'fill="{cast.colour}" fill-opacity="{_number(cast.opacity)}"'
                yield f'<g{blur}><path transform="{moved}" d="{outline.path}" {paint}/></g>'
            if kind.underline_px:
                below = kind.underline_offset_px or kind.size_px * _UNDERLINE_OFFSET
                yield (
                    f'<rect x="{_number(line.x)}" y="{_number(baseline + below)}" width="{_number(line.width)}" '
                    f'height="{_number(kind.underline_px)}" {_paint(self._dress.text_colour)}/>'
                )
            yield f"{shape}{_paint(self._dress.text_colour)}/>"
