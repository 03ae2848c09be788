"""Codes to print: a link as a QR code with the button's words under it, as SVG."""

from collections.abc import Sequence
from dataclasses import dataclass
from html import escape
from itertools import groupby
from math import ceil

import segno

from uptick.core.drawing.kit import Kit
from uptick.core.errors import OutOfRange

# What readers need around a code, in modules (ISO/IEC 18004, 6.3.8).
_QUIET = 4
# A module of half a millimetre is read at arm's length (common practice).
_MODULE_MM = 0.5
_WORDS_PT, _MM_OF_PT = 10, 25.4 / 72


@dataclass(frozen=True, slots=True)
class PrintedCode:
    """A code with its words; sizes are millimetres."""

    svg: str
    width_mm: float
    height_mm: float


def printed_code(link: str, words: str, kit: Kit, family: str, weight: int, *, rtl: bool = False) -> PrintedCode:
    """Return a link as a QR code of error level M, with words under it as outlines.

    Raises:
        OutOfRange: A letter of the words is in none of the shipped fonts.

    Source:
        ISO/IEC 18004 (QR Code), by the library segno.
    """
    code = segno.make(link, error="m", micro=False)
    matrix = [list(row) for row in code.matrix]
    across = len(matrix[0])
    side = (across + 2 * _QUIET) * _MODULE_MM
    size_mm = _WORDS_PT * _MM_OF_PT
    outline = kit.fonts.outline(words, family, size_mm, weight, rtl=rtl)
    if outline.missing:
        raise OutOfRange.of(
            "the words under a code", "letters of the fonts that ship with it", f"“{outline.missing}” in “{words}”"
        )
    if outline.width_px > side:
        # Long words are made smaller rather than cut.
        size_mm *= side / outline.width_px
        outline = kit.fonts.outline(words, family, size_mm, weight, rtl=rtl)
    high = side + size_mm * 1.6
    squares = "".join(_row(row, n) for n, row in enumerate(matrix))
    x = (side - outline.width_px) / 2
    svg = (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{side:g}mm" height="{high:.4g}mm" '
        f'viewBox="0 0 {side:g} {high:.4g}" role="img"><title>{escape(words)}</title>'
        f'<path fill="#fff" d="M0 0h{side:g}v{high:.4g}h-{side:g}z"/>'
        f'<path transform="scale({_MODULE_MM:g})" d="{squares}"/>'
        f'<path transform="translate({x:.4g} {side + size_mm * 0.7:.4g})" d="{outline.path}"/></svg>'
    )
    return PrintedCode(svg, side, high)


def _row(row: Sequence[int], number: int) -> str:
    """Return the dark modules of a row as a path, those that touch as one."""
    path_data, x = [], _QUIET
    for dark, run in groupby(row, bool):
        wide = len(list(run))
        if dark:
            path_data.append(f"M{x} {number + _QUIET}h{wide}v1h-{wide}z")
        x += wide
    return "".join(path_data)


# Between two codes, in millimetres.
_APART_MM = 6.0


def printed_sheet(codes: Sequence[PrintedCode], across: int) -> PrintedCode:
    """Return codes side by side on one sheet, so many in a row."""
    wide, high = max(code.width_mm for code in codes), max(code.height_mm for code in codes)
    columns, rows = min(across, len(codes)), ceil(len(codes) / across)
    width, height = (n * size + (n - 1) * _APART_MM for n, size in ((columns, wide), (rows, high)))
    inside = "".join(
        code.svg.replace(
            "<svg ", f'<svg x="{n % across * (wide + _APART_MM):g}" y="{n // across * (high + _APART_MM):.4g}" ', 1
        ).replace("mm", "", 2)
        for n, code in enumerate(codes)
    )
    svg = (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width:g}mm" height="{height:.4g}mm" '
        f'viewBox="0 0 {width:g} {height:.4g}">{inside}</svg>'
    )
    return PrintedCode(svg, width, height)
