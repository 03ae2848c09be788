"""Text that can be stored and shown: no NUL, no other control characters, no halves of characters."""

import re
from math import isfinite
from typing import Annotated, Any

from pydantic import AfterValidator

# The C0 and C1 controls without tab, line ends and page feed, and surrogates, which JSON can write by halves and UTF-8
# cannot.
_UNFIT = re.compile("[\x00-\x08\x0b\x0e-\x1f\x7f-\x9f\ud800-\udfff]")


def unfit_in(text: str) -> str:
    """Return which character of a text cannot be stored, in words; nothing where all can."""
    match = _UNFIT.search(text)
    return f"the control character U+{ord(match[0]):04X} at place {match.start() + 1}" if match else ""


def _fit(text: str) -> str:
    if unfit := unfit_in(text):
        raise ValueError(f"it holds {unfit}; such characters cannot be stored")
    return text


Fit = AfterValidator(_fit)
# For texts that have no other rule.
PlainText = Annotated[str, Fit]


# Settings are seven levels deep; what is far deeper was not written by hand.
_DEEPEST = 40


def unfit_value(value: Any, path: str = "", depth: int = 0) -> str:
    """Return which text or number of a JSON value cannot be stored, and where; nothing where all can."""
    if isinstance(value, str):
        unfit = unfit_in(value)
        return f"{path or 'it'} holds {unfit}" if unfit else ""
    if isinstance(value, float) and not isfinite(value):
        return f"{path or 'it'} is no finite number"
    if isinstance(value, int) and abs(value) > 2**63:
        return f"{path or 'it'} is beyond all limits"
    if isinstance(value, dict | list) and depth >= _DEEPEST:
        return f"{path[:60]}… is nested more than {_DEEPEST} levels deep"
    if isinstance(value, dict):
        for key, inner in value.items():
            if unfit := unfit_in(str(key)):
                return f"a name in {path or 'it'} holds {unfit}"
            if trouble := unfit_value(inner, f"{path}.{key}" if path else str(key), depth + 1):
                return trouble
    if isinstance(value, list):
        for n, inner in enumerate(value):
            if trouble := unfit_value(inner, f"{path}.{n}" if path else str(n), depth + 1):
                return trouble
    return ""
