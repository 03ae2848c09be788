"""On which pages of a shop something is shown, as far as it is told by the page and its address."""

import re
from enum import StrEnum
from typing import Annotated

from pydantic import Field, StringConstraints

from uptick.core.button.look import Part


class PageKind(StrEnum):
    """What a page is about by what it tells: one product, several, or none."""

    PRODUCT = "product"
    LIST = "list"
    OTHER = "other"


# A path of the shop's, in which a star stands for anything.
PathGlob = Annotated[str, StringConstraints(pattern=r"^/[^\s?#]*$", max_length=300)]
Globs = Annotated[tuple[PathGlob, ...], Field(max_length=50)]


def path_pattern(globs: tuple[str, ...]) -> str:
    """Return a regular expression, the same in Python and JavaScript, that the paths of some globs match."""
    patterns: list[str] = []
    groups = 0
    for glob in globs:
        first, *rest = re.split(r"\*+", glob)
        pattern = f"^{re.escape(first)}"
        # Each star ends at the first place where what follows it stands, and is never tried again: a lookahead does not
        # go back. Without that the time would grow with the power of the stars.
        for part in rest[:-1]:
            groups += 1
            pattern += rf"(?=(.*?{re.escape(part)}))\{groups}"
        patterns.append(f"{pattern}.*{re.escape(rest[-1])}$" if rest else f"{pattern}$")
    return "|".join(patterns)


class OnPages(Part):
    """Pages by their kind and path. An empty list narrows nothing; `not_paths` takes some away again."""

    kinds: tuple[PageKind, ...] = ()
    paths: Globs = ()
    not_paths: Globs = ()

    def holds_page(self, kind: PageKind, path: str) -> bool:
        """Tell whether a page is meant, as far as it is a page: its path without query."""
        if self.kinds and kind not in self.kinds:
            return False
        if self.not_paths and re.search(path_pattern(self.not_paths), path):
            return False
        return not self.paths or bool(re.search(path_pattern(self.paths), path))
