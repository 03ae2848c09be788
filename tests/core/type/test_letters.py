import re
from pathlib import Path
from unicodedata import normalize

import pytest

from uptick.core.type.letters import are_apart, in_capitals

UNICODE = Path("/usr/share/unicode")


def _special() -> list[tuple[str, str, str, str]]:
    """Return letter, capitals, language and condition of every mapping that goes by a language."""
    found = []
    for line in (UNICODE / "SpecialCasing.txt").read_text().splitlines():
        fields = [field.strip() for field in line.split("#")[0].split(";")]
        condition = re.match(r"(tr|az|lt)\b ?(\w*)", fields[4]) if len(fields) > 5 else None
        if condition:
            letter, upper = ("".join(chr(int(code, 16)) for code in fields[n].split()) for n in (0, 3))
            found.append((letter, upper, condition[1], condition[2]))
    return found


def test_capitals_by_language_are_unicodes() -> None:
    """Reference: Unicode 15, SpecialCasing.txt, as Debian's package unicode-data carries it."""
    tested = 0
    for letter, upper, language, condition in _special():
        if condition == "After_Soft_Dotted":
            letter, upper = "i" + letter, "I" + upper
        elif condition:
            # The others say how to write small.
            continue
        assert in_capitals(letter, language) == normalize("NFC", upper), (letter, language)
        tested += 1
    assert tested >= 8


@pytest.mark.parametrize("language", ["en-GB", "de-DE", "fr", ""])
def test_other_languages_write_capitals_alike(language: str) -> None:
    assert in_capitals("Größe: i, ı, ή", language) == "GRÖSSE: I, I, Ή"


def test_scripts_that_join_are_not_set_apart() -> None:
    assert are_apart("ab 1") == (True,) * 4
    assert are_apart("سلة") == (False,) * 3
    # A figure goes with the letters before it, or at the start with those after it; a space is always wide.
    assert are_apart("سل 1") == (False, False, True, False)
    assert are_apart("1 سل") == (False, True, False, False)
    assert are_apart("a1 سل") == (True, True, True, False, False)
