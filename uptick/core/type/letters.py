"""Letters by the rules of their language and script: what becomes of them in capitals, and which are not set apart."""

import re
from functools import lru_cache
from unicodedata import normalize

from fontTools import unicodedata as scripts

# Scripts whose letters join, as far as a shipped face has them: spacing would tear them apart.
_JOINED = {"Arab"}
_NO_SCRIPT = {"Zyyy", "Zinh"}

_TONOS = "\u0300\u0301\u0342"
_DIALYTIKA = "\u0308"
# A stressed vowel before iota or upsilon: without its accent the two would be read as one sound.
_HIATUS = re.compile(f"([ΑΕΗΟΥΩαεηουω])[{_TONOS}]([ΙΥιυ])(?!{_DIALYTIKA})")
_DOTTED = re.compile(r"([iIjJ\u012e\u012f]\u0328?[\u0316-\u0333]*)\u0307")


def in_capitals(text: str, language: str) -> str:
    """Return a text as `text-transform: uppercase` shows it in a language.

    Turkish and Azeri keep the dot of the i, Greek loses its accents, Lithuanian the dot that it writes under another
    accent.

    Source:
        Unicode SpecialCasing; CSS Text 3, 2.1; for Greek the customs of the Unicode CLDR's el-Upper, from memory.
    """
    kind = language.partition("-")[0]
    if kind in ("tr", "az"):
        return text.replace("i\u0307", "İ").replace("i", "İ").upper()
    if kind == "lt":
        return normalize("NFC", _DOTTED.sub(r"\1", normalize("NFD", text)).upper())
    return _greek(text) if kind == "el" else text.upper()


def _greek(text: str) -> str:
    return "".join(
        # "Or" keeps its accent, which alone tells it from the article.
        "Ή" if part in ("ή", "Ή") else _without_accents(part)
        for part in re.split(r"(\W+)", text)
    )


def _without_accents(word: str) -> str:
    open_ = _HIATUS.sub(rf"\1\2{_DIALYTIKA}", normalize("NFD", word))
    kept = re.sub(f"(?<=[Α-Ωα-ω{_DIALYTIKA}])[{_TONOS}\u0313\u0314]", "", open_)
    return normalize("NFC", normalize("NFC", kept).upper())


@lru_cache(maxsize=16_384)
def are_apart(text: str) -> tuple[bool, ...]:
    """Tell of each character whether letter spacing follows it: not in scripts that join, but for their spaces.

    What belongs to every script, as figures and commas do, goes with the letters before it, at the start with those
    that follow; a bracket that closes goes with the one that opened.

    Source:
        CSS Text 4, 8.2 (cursive scripts), as Chromium does it; UAX 24, 5.1 and 5.2 (characters of no script, pairs).
    """
    of_letters = [scripts.script(letter) for letter in text]
    now = next((one for one in of_letters if one not in _NO_SCRIPT), "")
    apart: list[bool] = []
    opened: list[tuple[str, str]] = []
    for letter, script in zip(text, of_letters, strict=True):
        now = now if script in _NO_SCRIPT else script
        if letter in _PAIRS:
            opened.append((_PAIRS[letter], now))
        elif any(closing == letter for closing, _ in opened):
            while opened[-1][0] != letter:
                opened.pop()
            # It stays open in Chromium: a second closing one goes with it, too.
            now = opened[-1][1]
        apart.append(now not in _JOINED or letter.isspace())
    return tuple(apart)


_PAIRS = dict(zip("([{<«‹“‘", ")]}>»›”’", strict=True))
