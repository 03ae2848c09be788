"""What of the machine that the service runs on may be a shop: named by whoever runs it, and by nobody else."""

import re
from dataclasses import dataclass
from fnmatch import fnmatchcase
from urllib.parse import urlsplit

from uptick.core.errors import OutOfRange

_NAMED = re.compile(r"(?P<host>[a-z0-9.*\-]+|\[[0-9a-f:]+\]):(?P<first>\d{1,5})(?:-(?P<last>\d{1,5}))?")
_EXAMPLE = "names with ports, as *.localhost:9300-9399, divided by commas"


@dataclass(frozen=True, slots=True)
class _Named:
    host: str
    first: int
    last: int


@dataclass(frozen=True, slots=True)
class LocalShops:
    """Hosts and ports on which a shop may answer from a loopback address; none where nobody has named any."""

    named: tuple[_Named, ...] = ()

    @classmethod
    def parse(cls, text: str) -> "LocalShops":
        """Read a list as a setting has it: `localhost:8802,*.localhost:9300-9399`.

        Raises:
            OutOfRange: A part is no name with a port.
        """
        return cls(tuple(_named(part.strip()) for part in text.split(",") if part.strip()))

    @classmethod
    def at(cls, origin: str) -> "LocalShops":
        """Return the one address of an origin."""
        parts = urlsplit(origin)
        port = parts.port or (443 if parts.scheme == "https" else 80)
        return cls((_Named(parts.hostname or "", port, port),))

    def allow(self, host: str, port: int) -> bool:
        """Tell whether a shop at this host and port may be looked at although it is not public."""
        return any(fnmatchcase(host.lower(), named.host) and named.first <= port <= named.last for named in self.named)


def _named(part: str) -> _Named:
    match = _NAMED.fullmatch(part.lower())
    if not match or not 0 < int(match["first"]) <= int(match["last"] or match["first"]) < 65536:
        raise OutOfRange.of("UPTICK_LOCAL_SHOPS", _EXAMPLE, part)
    return _Named(match["host"].strip("[]"), int(match["first"]), int(match["last"] or match["first"]))
