"""What a visit to a shop's own pages is: requests to its registered addresses, and what came back."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from enum import StrEnum
from typing import Protocol


class Trouble(StrEnum):
    """Why a page could not be had."""

    FOREIGN = "foreign"
    PRIVATE = "private"
    UNREACHABLE = "unreachable"
    SLOW = "slow"
    ENDLESS = "endless"
    LOOP = "loop"
    TLS = "tls"


@dataclass(frozen=True, slots=True)
class Fetched:
    """An answer, or why there is none. `url` is where it came from in the end, `hops` what led there."""

    asked: str
    url: str
    status: int = 0
    headers: Mapping[str, str] = field(default_factory=dict)
    text: str = ""
    hops: tuple[str, ...] = ()
    took_ms: int = 0
    trouble: Trouble | None = None
    says: str = ""

    @property
    def is_ok(self) -> bool:
        return self.trouble is None and 200 <= self.status < 300

    @property
    def is_html(self) -> bool:
        return "html" in self.headers.get("content-type", "")


@dataclass(frozen=True, slots=True)
class ShopRequest:
    """What one press sends: a path of the shop, and a form's fields or a body of JSON."""

    path: str
    method: str = "GET"
    fields: tuple[tuple[str, str], ...] = ()
    json: object = None
    headers: Mapping[str, str] = field(default_factory=dict)


class ShopVisit(Protocol):
    """One visitor of one store, with cookies of their own, who goes to its registered addresses and nowhere else."""

    def fetch(self, path: str, accept: str = "text/html") -> Fetched: ...
    def send(self, request: ShopRequest, accept: str = "application/json") -> Fetched: ...
    def cookie(self, name: str) -> str: ...
