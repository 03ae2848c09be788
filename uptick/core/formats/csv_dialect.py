"""How a CSV file is written: its encoding, what divides its fields, and how it writes numbers."""

import csv
import io
import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Literal, get_args

from uptick.core.errors import BadCatalogue
from uptick.core.formats.product_fields import column_of

SEPARATORS = {",": "comma", ";": "semicolon", "\t": "tab", "|": "bar"}
# As WHATWG's encoding standard calls them.
EncodingName = Literal[
    "UTF-8", "UTF-16", "windows-1250", "windows-1251", "windows-1252", "windows-1253", "windows-1254", "windows-1255",
    "windows-1256", "windows-1257", "windows-1258", "macintosh", "Shift_JIS", "EUC-KR", "gb18030", "Big5",
]  # fmt: skip
ENCODINGS: tuple[EncodingName, ...] = get_args(EncodingName)
# Where Python's codec has another name, or is what Windows writes under that one.
_CODECS = {"macintosh": "mac_roman", "Shift_JIS": "cp932", "EUC-KR": "cp949", "Big5": "cp950"}
_MARKS = ((b"\xef\xbb\xbf", "utf-8-sig"), (b"\xff\xfe", "utf-16"), (b"\xfe\xff", "utf-16"))
# Bytes that no text of Windows has (its five empty places): what has them is in yet another encoding.
_NO_WINDOWS = re.compile(rb"[\x81\x8d\x8f\x90\x9d]")


@dataclass(frozen=True, slots=True)
class Dialect:
    """What a file was taken to be written in. `guesses` are sentences that somebody should look at before it counts."""

    encoding: str
    separator: str
    decimal: str
    guesses: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class ReadAs:
    """How somebody says that a file is written; what is None is found out. `encoding` is one of `ENCODINGS`."""

    encoding: str | None = None
    decimal: str | None = None


@dataclass(frozen=True, slots=True)
class Decoded:
    text: str
    encoding: str
    guess: str = ""


def decoded(content: bytes, most: int, chosen: str | None = None) -> Decoded:
    """Return the text of a file in UTF-8 or UTF-16, or as Windows writes Western languages where it is neither.

    With `chosen`, one of `ENCODINGS`, it is read in that and nothing is guessed.

    Raises:
        BadCatalogue: It has more than `most` bytes, or is in none of these; says on which line.
    """
    if len(content) > most:
        raise BadCatalogue(f"The file has {len(content):,} bytes; at most {most:,} are taken.")
    if chosen:
        return _decoded_as(content, chosen)
    encoding = next((name for mark, name in _MARKS if content.startswith(mark)), "utf-8")
    try:
        return Decoded(content.decode(encoding), encoding.removesuffix("-sig").upper())
    except UnicodeDecodeError as error:
        line = content[: error.start].count(b"\n") + 1
        if encoding != "utf-8" or _NO_WINDOWS.search(content) or b"\0" in content:
            says = f"The file is not {encoding.removesuffix('-sig').upper()}: line {line} holds a byte that is not."
            raise BadCatalogue(f"{says} Save it as UTF-8, or say in which encoding it is.") from error
        begin = max(content.rfind(b"\n", 0, error.start) + 1, error.start - 12)
        word = content[begin : error.start + 12].decode("cp1252").split("\n")[0].strip()
        guess = f"It is not UTF-8; read as windows-1252, line {line} says “{word}”. Look at the first products."
        return Decoded(content.decode("cp1252"), "windows-1252", guess)


def _decoded_as(content: bytes, encoding: str) -> Decoded:
    if encoding not in ENCODINGS:
        raise BadCatalogue(f"{encoding} is not an encoding that is read here. Those are: {', '.join(ENCODINGS)}.")
    try:
        return Decoded(content.decode(_CODECS.get(encoding, encoding)).removeprefix("\ufeff"), encoding)
    except UnicodeDecodeError as error:
        line = content[: error.start].count(b"\n") + 1
        raise BadCatalogue(f"The file is not {encoding}: line {line} holds a byte that is not.") from error


def separator_of(first_line: str) -> str:
    """Return what divides the fields: that by which the most headings are known."""

    def known(separator: str) -> tuple[int, int]:
        headings = next(csv.reader([first_line], delimiter=separator), [])
        return sum(column_of(heading) is not None for heading in headings), len(headings)

    return max(SEPARATORS, key=known)


_POINT_LAST = re.compile(r"^-?\d[\d,' \u00a0\u202f]*\.\d{1,2}$|^-?\d{1,3}(,\d{3})+\.\d+$")
_COMMA_LAST = re.compile(r"^-?\d[\d.' \u00a0\u202f]*,\d{1,2}$|^-?\d{1,3}(\.\d{3})+,\d+$")


_SIGNS = {".": "point", ",": "comma"}


def decimal_of(numbers: Sequence[str], digits: int, chosen: str | None = None) -> tuple[str, str]:
    """Return the decimal sign of a file's numbers, and a sentence where it cannot be told; with `chosen`, that one.

    Args:
        numbers: The texts of its columns of amounts.
        digits: How many decimals the store's currency has: with three, 1.200 is as usual as 1.20 is with two.
        chosen: What somebody says that it is.

    Raises:
        BadCatalogue: Some have a point where others have a comma.
    """
    point = next((number for number in numbers if _POINT_LAST.match(number)), "")
    comma = next((number for number in numbers if _COMMA_LAST.match(number)), "")
    if point and comma:
        raise BadCatalogue(f"Its prices are written both as {point} and as {comma}. Write all of them alike.")
    if chosen:
        against = comma if chosen == "." else point
        if against:
            raise BadCatalogue(f"Its prices are written as {against}: that is not a decimal {_SIGNS[chosen]}.")
        return chosen, ""
    three = {sign: next((number for number in numbers if _three_after(sign).fullmatch(number)), "") for sign in ".,"}
    if point or comma:
        # The other sign stands between thousands; three figures after this one are no usual price.
        decimal = "." if point else ","
        unclear = three[decimal] if digits < 3 else ""
        return decimal, f"{unclear} may be a thousand or a part of one; it is read as a part of one." if unclear else ""
    if three["."] and (digits < 3 or three[","]):
        return ",", f"{three['.']} may be a thousand or a part of one; it is read as a thousand."
    if three[","]:
        return ".", f"{three[',']} may be a thousand or a part of one; it is read as a thousand."
    return ".", ""


def _three_after(sign: str) -> re.Pattern[str]:
    return re.compile(rf"-?\d{{1,3}}{re.escape(sign)}\d{{3}}")


def plain_number(text: str, decimal: str) -> str:
    """Return a number as our own files write it: a point, nothing between thousands; other texts as they are."""
    between = f"[{re.escape(',' if decimal == '.' else '.')}'\u00a0\u202f ]"
    if re.fullmatch(rf"-?\d{{1,3}}(?:{between}\d{{3}})+(?:{re.escape(decimal)}\d+)?", text):
        text = re.sub(between, "", text)
    return text.replace(decimal, ".") if re.fullmatch(rf"-?\d+{re.escape(decimal)}\d+", text) else text


def records(text: str, separator: str) -> Iterator[tuple[int, list[str]]]:
    """Yield the records that are not empty, each with the number of its last line.

    Raises:
        BadCatalogue: A line is no CSV.
    """
    reader = csv.reader(io.StringIO(text, newline=""), delimiter=separator, strict=True)
    read = 0
    try:
        for cells in reader:
            read = reader.line_num
            if cells:
                yield read, cells
    except csv.Error as error:
        if "unexpected end" in str(error):
            raise BadCatalogue(f"After line {read} a double quote opens a text, and none closes it.") from error
        raise BadCatalogue(f"Line {reader.line_num} is not CSV: {error}.") from error
