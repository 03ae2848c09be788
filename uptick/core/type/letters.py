"""Letters by the rules of their language and script: what becomes of them in capitals, and which are not set apart."""

import re
from functools import lru_cache
from unicodedata import normalize

from fontTools import unicodedata as scripts

# Scripts whose letters join: spacing would tear them apart (CSS Text 4, 8.2).
_JOINED = frozenset({"Adlm", "Arab", "Mand", "Mong", "Nkoo", "Phag", "Rohg", "Syrc"})
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

    Source:
        CSS Text 4, 8.2 (cursive scripts), as Chromium does it.
    """
    return tuple(
        not run.scripts & _JOINED or letter in " \u00a0" for letter, run in zip(text, _runs_of(text), strict=True)
    )


@lru_cache(maxsize=16_384)
def script_runs(text: str) -> tuple[int, ...]:
    """Return a number for each character, the same where it is set together with the one before it.

    Letters of two scripts are shaped apart, so that nothing is kerned between them.
    """
    numbers: list[int] = []
    before: _Run | None = None
    for run in _runs_of(text):
        numbers.append((numbers[-1] if numbers else 0) + (run is not before))
        before = run
    return tuple(numbers)


def _runs_of(text: str) -> list["_Run"]:
    """Return the run of each character.

    What belongs to every script, as figures do, goes with the letters before it, at the start with those that follow;
    what belongs to some, as the Arabic comma does, begins a run of its own where it does not belong to the one before
    it. A bracket that closes goes with the one that opened; quotes are no brackets.

    Source:
        UAX 24, 5.1 (script extensions) and 5.2 (pairs); of these Chromium takes those of UAX 9's BidiBrackets.txt.
    """
    runs: list[_Run] = [_Run()]
    of_letters: list[_Run] = []
    opened: list[tuple[str, _Run]] = []
    for letter in text:
        own = _scripts_of(letter)
        if own and runs[-1].scripts and not own & runs[-1].scripts:
            runs.append(_Run())
        if own:
            runs[-1].scripts = own & runs[-1].scripts or own
        run = runs[-1]
        if letter in _PAIRS:
            opened.append((_PAIRS[letter], run))
        elif any(closing == letter for closing, _ in opened):
            while opened[-1][0] != letter:
                opened.pop()
            # It stays open in Chromium: a second closing one goes with it, too.
            run = opened[-1][1]
            runs.append(run)
        of_letters.append(run)
    return of_letters


class _Run:
    """Letters that are set as of one script, and which it can still be; none is any."""

    def __init__(self) -> None:
        self.scripts: frozenset[str] = frozenset()


@lru_cache(maxsize=4_096)
def _scripts_of(letter: str) -> frozenset[str]:
    return frozenset(scripts.script_extension(letter)) - _NO_SCRIPT


_PAIRS = dict(zip("([{", ")]}", strict=True))
