import pytest
from fontTools.pens.boundsPen import BoundsPen
from fontTools.svgLib.path import parse_path

from uptick.core.errors import BadIcon
from uptick.core.formats.svg_icon import read_svg

SVG = '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 24 24"{more}>{inner}</svg>'


def svg(inner: str, more: str = "") -> bytes:
    return SVG.format(inner=inner, more=more).encode()


ATTACKS = {
    "a script": svg("<script>alert(1)</script><path d='M0 0h9v9z'/>"),
    "a handler": svg("<path d='M0 0h9v9z' onclick='alert(1)'/>", " onload='alert(1)'"),
    "a foreign object": svg(
        "<foreignObject><body xmlns='http://www.w3.org/1999/xhtml'>x</body></foreignObject><path d='M0 0h9v9z'/>"
    ),
    "an outside picture": svg("<image href='https://evil.test/x.png'/><path d='M0 0h9v9z'/>"),
    "an outside use": svg(
        "<use xmlns:xlink='http://www.w3.org/1999/xlink' xlink:href='https://evil.test/#a'/><path d='M0 0h9v9z'/>"
    ),
    "a link": svg("<a href='javascript:alert(1)'><path d='M0 0h9v9z'/></a>"),
    "a style sheet": svg("<style>@import url(https://evil.test)</style><path d='M0 0h9v9z'/>"),
    "an animation": svg("<path d='M0 0h9v9z'><animate attributeName='href' values='javascript:alert(1)'/></path>"),
    "a filter": svg("<filter id='f'><feImage href='https://evil.test'/></filter><path filter='url(#f)' d='M0 0h9v9'/>"),
    "a style with an address": svg("<path style='fill:url(https://evil.test#a)' d='M0 0h9v9z'/>"),
}  # fmt: skip


@pytest.mark.parametrize("attack", ATTACKS.values(), ids=ATTACKS.keys())
def test_only_shapes_come_through_and_what_does_not_is_told(attack: bytes) -> None:
    read = read_svg(attack)
    kept = read.icon.model_dump_json()
    for bad in ("script", "alert", "evil", "http", "url(", "on", "style", "href"):
        assert bad not in kept.replace("nonzero", "").replace('"own', "").replace("own icon", "").replace("icon", ""), (
            bad
        )
    assert read.left_out


BOMB = (
    '<!DOCTYPE svg [<!ENTITY a "ha"><!ENTITY b "&a;&a;&a;&a;&a;&a;&a;&a;"><!ENTITY c "&b;&b;&b;&b;&b;&b;&b;&b;">]>'
    '<svg xmlns="http://www.w3.org/2000/svg"><path d="M0 0h9v9z"/><title>&c;</title></svg>'
)


@pytest.mark.parametrize(
    ("content", "says"),
    [
        (BOMB.encode(), "document type"),
        (b'<!DOCTYPE svg SYSTEM "file:///etc/passwd"><svg/>', "document type"),
        (b"<html/>", "begins with <html>"),
        (b"not xml", "no SVG that can be read"),
        (b"", "no SVG that can be read"),
        (svg("<text>hi</text>"), "Nothing in the SVG is drawn"),
        (svg("<path d='M0 0h9v9z' display='none'/>"), "Nothing in the SVG is drawn"),
        (svg("<path d='M1 z zz q'/>"), "cannot be read"),
        (svg("<path d='M0 0h9v9z'/>" * 41), "picture rather than an icon"),
        (b"<svg>" + b" " * 200_001 + b"</svg>", "200,000"),
        (b"<svg width='0' height='0'><path d='M0 0h9v9z'/></svg>", "viewBox"),
    ],
)
def test_what_cannot_be_an_icon_is_refused(content: bytes, says: str) -> None:
    with pytest.raises(BadIcon, match=says):
        read_svg(content)


def bounds(d: str) -> tuple[float, float, float, float]:
    pen = BoundsPen(None)
    parse_path(d, pen)
    found: tuple[float, float, float, float] = pen.bounds
    return found


@pytest.mark.parametrize(
    ("inner", "box"),
    [
        ("<rect x='2' y='3' width='10' height='5'/>", (2, 3, 12, 8)),
        ("<circle cx='12' cy='12' r='4'/>", (8, 8, 16, 16)),
        ("<ellipse cx='10' cy='10' rx='6' ry='2'/>", (4, 8, 16, 12)),
        ("<polygon points='0,0 8,0 8 4'/>", (0, 0, 8, 4)),
        ("<g transform='translate(2 3)'><g transform='scale(2)'><rect width='3' height='3'/></g></g>", (2, 3, 8, 9)),
        ("<rect width='4' height='2' transform='rotate(90)'/>", (-2, 0, 0, 4)),
        ("<rect width='4' height='2' transform='rotate(180 5 5)'/>", (6, 8, 10, 10)),
        ("<rect width='2' height='2' transform='matrix(1 0 0 1 5 6)'/>", (5, 6, 7, 8)),
        ("<rect width='2' height='2' transform='skewX(45)'/>", (0, 0, 4, 2)),
    ],
)
def test_shapes_and_transforms_are_where_svg_puts_them(inner: str, box: tuple[float, ...]) -> None:
    """Source: SVG 1.1, sections 7.6 (transform) and 9 (basic shapes); the boxes are worked out by hand."""
    icon = read_svg(svg(inner)).icon
    (shape,) = icon.shapes
    assert [side * 24 / icon.width for side in bounds(shape.d)] == pytest.approx(box, abs=0.02)


def test_a_view_box_that_does_not_begin_at_nought_is_moved_there() -> None:
    icon = read_svg(b"<svg viewBox='10 20 8 4'><rect x='10' y='20' width='8' height='4'/></svg>").icon
    # A box is brought to a size in which rounding is not seen.
    assert (icon.width, icon.height) == (256, 128)
    assert bounds(icon.shapes[0].d) == (0, 0, 256, 128)


def test_lines_become_the_area_that_they_cover() -> None:
    """Worked by hand: a line of 2 from 4 to 20 with round ends covers 3 to 21; one of 4 with flat ends 4 to 20."""
    round_ = " stroke='currentColor' stroke-width='2' stroke-linecap='round'"
    for ends, box in ((round_, (3, 11, 21, 13)), (" stroke='#000' stroke-width='4'", (4, 10, 20, 14))):
        read = read_svg(svg("<path d='M4 12h16'/>", f" fill='none'{ends}"))
        (shape,) = read.icon.shapes
        assert [side * 24 / 256 for side in bounds(shape.d)] == pytest.approx(box, abs=0.02)
        assert (shape.stroke, read.left_out, read.is_whole) == (0, (), True)


def test_colours_give_way_to_that_of_the_words_and_this_is_told() -> None:
    read = read_svg(svg("<path d='M0 0h9v9z' fill='#ff0000'/>"))
    assert "the colour #ff0000: an icon takes that of the words" in read.left_out


HEAD = b"<svg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 9 9'>"


@pytest.mark.parametrize(
    ("content", "says"),
    [
        (HEAD + b"<g>" * 3000 + b"<path d='M0 0h9'/>" + b"</g>" * 3000 + b"</svg>", "nested more than 60 deep"),
        (HEAD + b"<path d='M0 0h9'/>" * 2500 + b"</svg>", "of over 2,000 elements"),
        (HEAD + b"<path d='M0 0" + b"h1v1h1" * 9990 + b"'/></svg>", "20,000 characters"),
        (HEAD + b"<path d='M0 0" + b"a1 1 0 0 1 1 1" * 9000 + b"'/></svg>", "20,000 characters"),
        (HEAD + b"<path d='M0 0h1e999'/></svg>", "beyond all drawing"),
        (HEAD + b"<path transform='scale(1e999)' d='M0 0h9'/></svg>", "beyond all drawing"),
        (HEAD + b"<rect width='1e999' height='9'/></svg>", "beyond all drawing|cannot be read"),
        (HEAD.replace(b"'0 0 9 9'", b"'1e999 0 9 9'") + b"<path d='M0 0h9'/></svg>", "beyond all drawing"),
    ],
)  # fmt: skip
def test_what_is_beyond_an_icon_is_refused_with_a_sentence(content: bytes, says: str) -> None:
    with pytest.raises(BadIcon, match=says):
        read_svg(content)
