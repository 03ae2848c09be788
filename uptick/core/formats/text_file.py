"""The text of a file that somebody gives us."""

from uptick.core.errors import AppError


def text_of(content: bytes, most: int, refusal: type[AppError]) -> str:
    """Return the text of a UTF-8 file, with or without a byte order mark.

    Raises:
        refusal: It has more than `most` bytes, or one that is not UTF-8; says on which line.
    """
    if len(content) > most:
        raise refusal(f"The file has {len(content):,} bytes; at most {most:,} are taken.")
    try:
        return content.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        line = content[: error.start].count(b"\n") + 1
        raise refusal(f"The file is not UTF-8: line {line} holds a byte that is not. Save it as UTF-8.") from error
