"""Text measured by shaping it with the very font files that shoppers are served."""

import io
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cache, lru_cache
from itertools import repeat
from math import floor
from unicodedata import category, normalize

import uharfbuzz as hb
from fontTools.pens.svgPathPen import SVGPathPen
from fontTools.pens.transformPen import TransformPen
from fontTools.ttLib import TTFont

from uptick.core.errors import OutOfRange
from uptick.core.type.bidi import visual_runs
from uptick.core.type.letters import are_apart, script_runs


@dataclass(frozen=True, slots=True)
class FontFile:
    """One subset of a variable font as it is served; `ranges` are inclusive code points.

    A family that `stands_in` is not chosen: it sets the letters that the chosen one has not, as Arabic ones.
    """

    family: str
    name: str
    file: str
    content: bytes
    ranges: tuple[tuple[int, int], ...]
    lightest: int
    heaviest: int
    fallback: str
    stands_in: bool = False


@dataclass(frozen=True, slots=True)
class FontMetrics:
    """Vertical metrics of a family in units of one em."""

    ascent: float
    descent: float
    line_gap: float
    cap_height: float


@dataclass(frozen=True, slots=True)
class Measured:
    """A text at its size: pixels, and the characters that no shipped file holds."""

    width_px: float
    line_height_px: float
    ascent_px: float
    cap_height_px: float
    missing: str


@dataclass(frozen=True, slots=True)
class Outline:
    """The outlines of a text as SVG path data, how wide it is in pixels, and the characters that no file holds."""

    path: str
    width_px: float
    missing: str


@dataclass(frozen=True, slots=True, eq=False)
class _Face:
    face: hb.Face
    units: int
    ranges: tuple[tuple[int, int], ...]
    characters: frozenset[int]
    lightest: int
    heaviest: int

    def has(self, code: int) -> bool:
        return code in self.characters and any(first <= code <= last for first, last in self.ranges)


def parse_unicode_range(text: str) -> tuple[tuple[int, int], ...]:
    """Return CSS `unicode-range` text as inclusive pairs."""
    pairs = []
    for part in text.split(","):
        first, _, last = part.strip().upper().removeprefix("U+").partition("-")
        pairs.append((int(first, 16), int(last or first, 16)))
    return tuple(pairs)


# What has no width in any browser and joins nothing (Unicode, Default_Ignorable_Code_Point): marks of direction, soft
# hyphens where no line ends, places where lines may or must not break, and choices of a form.
_UNSEEN = dict.fromkeys((
    0xAD, 0x61C, 0x180E, 0x200B, 0x200E, 0x200F, *range(0x202A, 0x202F), *range(0x2060, 0x206A), *range(0xFE00, 0xFE10),
    0xFEFF,
))  # fmt: skip
# These are not seen either, but letters beside them join otherwise.
_JOINERS = "\u200c\u200d"


# Letters that are set apart are not joined: what is optional of that is off then.
_APART = {"liga": False, "clig": False, "calt": False}


class FontBook:
    """The shipped families, opened when they are first measured. Shaping is cached per text, family and weight."""

    def __init__(self, files: Sequence[FontFile]) -> None:
        self.files = tuple(files)
        self._weights: dict[str, tuple[int, int]] = {}
        for file in files:
            self._weights.setdefault(file.family, (file.lightest, file.heaviest))
        self.stand_ins = tuple(dict.fromkeys(file.family for file in files if file.stands_in))
        self._open = cache(self._opened)
        self._advance = lru_cache(maxsize=65_536)(self._shape)
        self._letter = lru_cache(maxsize=16_384)(lambda text, family, weight: self._shape(text, family, weight)[0])

    @property
    def families(self) -> tuple[str, ...]:
        """Return the families that can be chosen."""
        return tuple(family for family in self._weights if family not in self.stand_ins)

    def open_all(self) -> None:
        """Open every family now: a server must not do so while somebody waits."""
        for family in self._weights:
            self._open(family)

    def _opened(self, family: str) -> tuple[tuple[_Face, ...], FontMetrics]:
        own = [_open_file(file) for file in self.files if file.family == family]
        others = self.stand_ins if family not in self.stand_ins else ()
        extra = [face for other in others for face in self._open(other)[0]]
        return (*(face for face, _ in own), *extra), own[0][1]

    def metrics(self, family: str) -> FontMetrics:
        """Return ascent, descent, line gap and height of capitals of a family, in ems."""
        return self._open(family)[1]

    def weights(self, family: str) -> tuple[int, int]:
        """Return the least and the greatest weight of a family."""
        return self._weights[family]

    def measure(self, text: str, family: str, size_px: float, weight: int, letter_spacing_px: float = 0) -> Measured:
        """Return how large a text stands on one line, with `line-height: normal`.

        Letter spacing follows every letter, the last one too, and keeps letters from being joined (CSS Text 3, 8.2);
        scripts whose letters always join take none.

        Raises:
            OutOfRange: The family is not shipped.
        """
        if family not in self._weights:
            raise OutOfRange.of("family", f"one of {', '.join(self.families)}", family)
        metrics = self.metrics(family)
        em, missing, letters = self._advance(seen_of(text), family, weight, letter_spacing_px != 0)
        # Chromium rounds ascent and descent to whole pixels before it adds them up, halves upward.
        ascent, descent = floor(metrics.ascent * size_px + 0.5), floor(metrics.descent * size_px + 0.5)
        return Measured(
            width_px=em * size_px + letters * letter_spacing_px,
            line_height_px=ascent + descent + metrics.line_gap * size_px,
            ascent_px=ascent,
            cap_height_px=metrics.cap_height * size_px,
            missing=missing,
        )

    def outline(
        self, text: str, family: str, size_px: float, weight: int, letter_spacing_px: float = 0, *, rtl: bool = False
    ) -> Outline:
        """Return the outlines of a text on one line: SVG path data in pixels from the left end of its baseline.

        What `measure` calls missing is left out, as wide as there.

        Raises:
            OutOfRange: The family is not shipped.
        """
        if family not in self._weights:
            raise OutOfRange.of("family", f"one of {', '.join(self.families)}", family)
        paths, x, missing = [], 0.0, ""
        seen = seen_of(text)
        spaced = are_apart(seen) if letter_spacing_px else ()
        for piece, is_rtl, start in visual_runs(seen, rtl=rtl):
            runs = []
            for face, run in self._runs(piece, family):
                runs.append((face, run, spaced[start : start + len(run)]))
                start += len(run)
            for face, run, apart in reversed(runs) if is_rtl else runs:
                if face is None:
                    missing += run
                    x += len(run) * size_px / 2 + sum(apart) * letter_spacing_px
                    continue
                path, wide = _outlined(face, run, weight, size_px, x, apart, letter_spacing_px, is_rtl)
                paths.append(path)
                x += wide
        return Outline("".join(paths), x, missing)

    def rough_em(self, text: str, family: str, weight: int) -> float:
        """Return about how wide a text is, in em, letter by letter: quick, for finding the widest of thousands."""
        return sum(self._letter(letter, family, weight) for letter in text)

    def _shape(self, text: str, family: str, weight: int, apart: bool = False) -> tuple[float, str, int]:
        """Return the advance in em, the missing characters, and how many letters there are to set apart."""
        total, missing, letters, start = 0.0, "", 0, 0
        spaced = are_apart(text) if apart else ()
        for face, run in self._runs(text, family):
            here = spaced[start : start + len(run)]
            start += len(run)
            if face is None:
                missing += run
                # The browser takes another font here; half an em is its usual width.
                total += 0.5 * len(run)
                letters += sum(here)
                continue
            buffer = hb.Buffer()
            buffer.add_str(run)
            buffer.guess_segment_properties()
            hb.shape(_font(face, min(max(weight, face.lightest), face.heaviest)), buffer, _APART if apart else {})
            total += sum(p.x_advance for p in buffer.glyph_positions) / face.units
            letters += sum(here[cluster] for cluster in {glyph.cluster for glyph in buffer.glyph_infos}) if here else 0
        return total, missing, letters

    def _runs(self, text: str, family: str) -> list[tuple[_Face | None, str]]:
        runs: list[tuple[_Face | None, str]] = []
        faces = self._open(family)[0]
        # Most texts are of one script.
        numbers = script_runs(text) if not text.isascii() else repeat(0)
        last = -1
        for character, number in zip(text, numbers, strict=False):
            face = next((f for f in faces if f.has(ord(character))), None)
            if runs and (character in _JOINERS or (face is None and category(character).startswith("M"))):
                # A mark or a joiner is set with the letter before it, whichever file that is in.
                face = runs[-1][0]
            elif character in _JOINERS:
                face = faces[0]
            if face is None and category(character) == "Zs":
                # HarfBuzz makes the spaces that a font lacks out of its usual one, and so does the browser with it.
                face = faces[0]
            if runs and runs[-1][0] is face and number == last:
                runs[-1] = (face, runs[-1][1] + character)
            else:
                runs.append((face, character))
            last = number
        return runs


def _outlined(
    face: _Face, run: str, weight: int, size_px: float, x: float, apart: Sequence[bool], spacing: float, rtl: bool
) -> tuple[str, float]:
    """Return the path of a run that begins at `x`, and how wide it is."""
    font = _font(face, min(max(weight, face.lightest), face.heaviest))
    buffer = hb.Buffer()
    buffer.add_str(run)
    buffer.guess_segment_properties()
    buffer.direction = "rtl" if rtl else "ltr"
    hb.shape(font, buffer, _APART if apart else {})
    pen = SVGPathPen(None, ntos=lambda number: f"{round(number, 2):g}")
    scale, begin, seen = size_px / face.units, x, set()
    for glyph, at in zip(buffer.glyph_infos, buffer.glyph_positions, strict=True):
        placed = (scale, 0, 0, -scale, x + at.x_offset * scale, -at.y_offset * scale)
        font.draw_glyph_with_pen(glyph.codepoint, TransformPen(pen, placed))
        x += at.x_advance * scale
        if apart and glyph.cluster not in seen and apart[glyph.cluster]:
            x += spacing
        seen.add(glyph.cluster)
    return pen.getCommands(), x - begin


def seen_of(text: str) -> str:
    """Return what of a text is set: letters and their marks as one where there is such a letter, as HarfBuzz does."""
    return normalize("NFC", text.translate(_UNSEEN))


def _open_file(file: FontFile) -> tuple[_Face, FontMetrics]:
    opened = TTFont(io.BytesIO(file.content))
    metrics = _metrics(opened)
    # HarfBuzz reads plain sfnt tables, so the woff2 wrapping is taken off.
    opened.flavor = None
    plain = io.BytesIO()
    opened.save(plain)
    face = hb.Face(plain.getvalue())
    characters = frozenset(opened.getBestCmap())
    return _Face(face, face.upem, file.ranges, characters, file.lightest, file.heaviest), metrics


@lru_cache(maxsize=256)
def _font(face: _Face, weight: int) -> hb.Font:
    font = hb.Font(face.face)
    font.set_variations({"wght": weight})
    return font


def _metrics(opened: TTFont) -> FontMetrics:
    units, os2, hhea = opened["head"].unitsPerEm, opened["OS/2"], opened["hhea"]
    typo = bool(os2.fsSelection & 1 << 7)
    ascent, descent, gap = (
        (os2.sTypoAscender, os2.sTypoDescender, os2.sTypoLineGap) if typo else (hhea.ascent, hhea.descent, hhea.lineGap)
    )
    return FontMetrics(ascent / units, -descent / units, gap / units, os2.sCapHeight / units)
