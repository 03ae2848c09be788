"""Ids of exceptions and places in a draft: a letter and the number of the step that made them."""

from collections.abc import Collection
from itertools import count


def fresh_id(letter: str, taken: Collection[str], version: int) -> str:
    """Return an id that none has had, also none that was removed: undoing brings those back.

    Args:
        letter: What ids of this kind begin with.
        taken: The ids of those that are there.
        version: The draft's version, which grows with every step. What one step makes more of is counted: e7, e7-2.
    """
    numbered = (f"{letter}{version}{'' if n == 1 else f'-{n}'}" for n in count(1))
    return next(candidate for candidate in numbered if candidate not in taken)
