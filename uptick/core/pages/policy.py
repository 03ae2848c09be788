"""Content security policies: what of ours a page's policy would stop, and the line that would let it in."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from urllib.parse import urlsplit

# Each with what is used where a policy does not name it (Content Security Policy Level 3, 6.8.3).
_FALLBACKS = {
    "script-src": ("script-src-elem", "script-src", "default-src"),
    "connect-src": ("connect-src", "default-src"),
    "font-src": ("font-src", "default-src"),
    "img-src": ("img-src", "default-src"),
}
_FOR = {
    "script-src": "our script is stopped, and no button of ours stands",
    "connect-src": "no signal reaches us, so nothing is counted",
    "font-src": "the buttons' own fonts are not loaded",
    "img-src": "pictures on buttons are not loaded",
}


@dataclass(frozen=True, slots=True)
class Missing:
    """A directive that has to name an address, and what happens as long as it does not."""

    directive: str
    source: str
    effect: str

    @property
    def line(self) -> str:
        """What has to be added, as the policy writes it."""
        return f"{self.directive} {self.source}"


def missing_in(policies: Iterable[str], edge: str, *, nonced: bool = False) -> tuple[Missing, ...]:
    """Return what policies lack for our script and what it loads; all of several policies must allow it.

    Args:
        policies: As headers or the page tell them; each may hold several, joined by commas.
        edge: Where our script is served from.
        nonced: Our line carries a nonce or a hash, so that the script's address need not be named.
    """
    missing: dict[str, Missing] = {}
    for policy in (directives for header in policies for directives in header.split(",") if directives.strip()):
        directives = _directives(policy)
        for directive, names in _FALLBACKS.items():
            allowed = next((directives[name] for name in names if name in directives), None)
            if allowed is None or _allows(allowed, edge):
                continue
            if directive == "script-src" and nonced and any(s.startswith(("'nonce-", "'sha")) for s in allowed):
                continue
            missing[directive] = Missing(directive, edge, _FOR[directive])
    return tuple(missing.values())


# Under this name the script asks a page to take its addresses.
TRUSTED_TYPE = "up-tick"


def refuses_our_type(policies: Iterable[str]) -> bool:
    """Tell whether policies ask for Trusted Types and one of them names no type of ours.

    Source:
        W3C Trusted Types, 4.2: each policy's own list of names counts; without one, or with `*`, all are allowed.
    """
    directives_of = [_directives(directives) for policy in policies for directives in policy.split(",")]
    asked = any("'script'" in directives.get("require-trusted-types-for", ()) for directives in directives_of)
    lists = [directives["trusted-types"] for directives in directives_of if "trusted-types" in directives]
    return asked and any(TRUSTED_TYPE not in names and "*" not in names for names in lists)


def _directives(policy: str) -> dict[str, Sequence[str]]:
    parts = [part.split() for part in policy.split(";") if part.strip()]
    # Of a directive that stands twice the first counts.
    return {words[0].lower(): words[1:] for words in reversed(parts)}


def _allows(sources: Sequence[str], edge: str) -> bool:
    at = urlsplit(edge)
    return any(_matches(source, at.scheme, at.hostname or "", at.port) for source in sources)


def _matches(source: str, scheme: str, host: str, port: int | None) -> bool:
    if source.startswith("'"):
        return False
    if source == "*":
        return True
    if source.endswith(":"):
        return source[:-1] == scheme
    pattern = urlsplit(source if "//" in source else f"//{source}")
    # A policy's http lets https in as well (6.7.2.8).
    if pattern.scheme and pattern.scheme != scheme and (pattern.scheme, scheme) != ("http", "https"):
        return False
    name, wanted = (pattern.hostname or ""), host
    if name.startswith("*."):
        if not wanted.endswith(name[1:]):
            return False
    elif name != wanted:
        return False
    if pattern.netloc.endswith(":*"):
        return True
    return pattern.port == port or (pattern.port is None and port in (None, 80, 443))
