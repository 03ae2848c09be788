"""Text that can be stored and shown: no NUL, no other control characters, no halves of characters."""

import re
from typing import Annotated

from pydantic import AfterValidator

# The C0 and C1 controls without tab and line ends, and surrogates, which JSON can write by halves and UTF-8 cannot.
_UNFIT = re.compile("[\x00-\x08\x0b\x0c\x0e-\x1f\x7f-\x9f\ud800-\udfff]")


def unfit_in(text: str) -> str:
    """Return which character of a text cannot be stored, in words; nothing where all can."""
    found = _UNFIT.search(text)
    return f"the control character U+{ord(found[0]):04X} at place {found.start() + 1}" if found else ""


def _fit(text: str) -> str:
    if unfit := unfit_in(text):
        raise ValueError(f"it holds {unfit}; such characters cannot be stored")
    return text


Fit = AfterValidator(_fit)
# For texts that have no other rule.
PlainText = Annotated[str, Fit]
