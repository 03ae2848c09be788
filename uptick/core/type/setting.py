"""Words set as a look has them: capitals, letter spacing, line height, and lines where they wrap."""

import re
from dataclasses import dataclass
from functools import lru_cache
from math import floor

from uniseg.linebreak import line_break_units

from uptick.core.button.look import Type
from uptick.core.type.fontbook import FontBook
from uptick.core.type.letters import in_capitals


@dataclass(frozen=True, slots=True)
class SetLine:
    text: str
    width_px: float


@dataclass(frozen=True, slots=True)
class SetWords:
    """Words as they stand. `width_px` is that of the widest line, `ascent_px` runs from a line's top to its baseline.

    `least_px` is the widest piece that cannot be broken; `left_out` is what an ellipsis stands for.
    """

    lines: tuple[SetLine, ...]
    width_px: float
    least_px: float
    line_height_px: float
    ascent_px: float
    cap_height_px: float
    missing: str
    left_out: str = ""

    @property
    def height_px(self) -> float:
        """Height of all lines together."""
        return self.line_height_px * len(self.lines)


_SPACES = re.compile(r"[ \t\r\n]+")


def cased(text: str, kind: Type, language: str) -> str:
    """Return a text as it is shown: several spaces as one, none at its ends (CSS Text 3, 4.1), in capitals."""
    text = _SPACES.sub(" ", text).strip(" ")
    return in_capitals(text, language) if kind.case == "upper" else text


def width_of(text: str, kind: Type, fonts: FontBook, language: str = "") -> float:
    """Return how wide a text stands on one line, in pixels."""
    return fonts.measure(
        cased(text, kind, language), kind.family, kind.size_px, kind.weight, kind.letter_spacing_px
    ).width_px


def set_words(
    text: str, kind: Type, fonts: FontBook, room_px: float | None = None, wrap: str = "none", language: str = ""
) -> SetWords:
    """Return words set on one line, or where they may wrap and `room_px` is short, on lines or up to an ellipsis.

    Lines are filled one after the other and break where Unicode allows it (UAX 14); the space at a break hangs. A
    half-leading is rounded down to whole pixels above the letters, as Chromium does.
    """
    words = cased(text, kind, language)
    measured = fonts.measure(words, kind.family, kind.size_px, kind.weight, kind.letter_spacing_px)
    line = kind.line * kind.size_px if kind.line else measured.line_height_px
    ascent = measured.ascent_px + floor((line - measured.line_height_px) / 2) if kind.line else measured.ascent_px
    lines: tuple[SetLine, ...] = (SetLine(words, measured.width_px),)
    left_out = ""
    least = measured.width_px
    if wrap == "lines":
        units = _units(words)
        least = max(
            (_line(unit, kind, fonts, n + 1 == len(units)).width_px for n, unit in enumerate(units)), default=0.0
        )
    if room_px is not None and measured.width_px > room_px + 1 / 64:
        if wrap == "lines":
            lines = tuple(_filled(words, kind, fonts, room_px))
        elif wrap == "ellipsis":
            kept = _kept(words, kind, fonts, room_px)
            lines, left_out = (SetLine(kept + "…", room_px),), words[len(kept) :]
    width = max(row.width_px for row in lines)
    return SetWords(lines, width, least, line, ascent, measured.cap_height_px, measured.missing, left_out)


@lru_cache(maxsize=4096)
def _units(text: str) -> tuple[str, ...]:
    return tuple(line_break_units(text))


def _wide(text: str, kind: Type, fonts: FontBook) -> float:
    return fonts.measure(text, kind.family, kind.size_px, kind.weight, kind.letter_spacing_px).width_px


def _filled(text: str, kind: Type, fonts: FontBook, room_px: float) -> list[SetLine]:
    lines: list[SetLine] = []
    begun = ""
    units = _units(text)
    for n, unit in enumerate(units):
        longer = begun + unit
        if begun and _line(longer, kind, fonts, n + 1 == len(units)).width_px > room_px + 1 / 64:
            lines.append(_line(begun, kind, fonts))
            longer = unit
        begun = longer
    lines.append(_line(begun, kind, fonts, is_last=True))
    return lines


_SOFT_HYPHEN = "\u00ad"


def _line(text: str, kind: Type, fonts: FontBook, is_last: bool = False) -> SetLine:
    """Return a line as it stands: the space at a break hangs, a soft hyphen is seen where a line ends with it."""
    shown = text.rstrip(" \t\n\u200b")
    if shown.endswith(_SOFT_HYPHEN) and not is_last:
        shown = shown[:-1] + "‐"
    return SetLine(shown, _wide(shown, kind, fonts))


def _kept(text: str, kind: Type, fonts: FontBook, room_px: float) -> str:
    kept = text
    while kept and _wide(kept + "…", kind, fonts) > room_px:
        kept = kept[:-1]
    return kept
