"""What the studio's API is built from, and what each request may ask for."""

from collections.abc import Callable, Iterator
from contextlib import AbstractContextManager, contextmanager
from dataclasses import dataclass
from datetime import datetime
from pathlib import Path as FilePath
from typing import Annotated, Any

from fastapi import Depends, Header, Path, Request, Response
from itsdangerous import BadSignature, URLSafeSerializer
from pydantic import TypeAdapter

from uptick.core.errors import NotFound, Stale
from uptick.core.shop.store import Store
from uptick.usecases.ports import Accounts, Person, Shop
from uptick.usecases.sign_in import who_is
from uptick.usecases.visiting import ShopVisit

COOKIE = "uptick_session"
OpenVisit = Callable[[str], AbstractContextManager[tuple[Accounts, Callable[[int], Shop]]]]


@dataclass(frozen=True, slots=True)
class Parts:
    """Everything that wiring hands to the studio's API."""

    open_accounts: Callable[[], AbstractContextManager[Accounts]]
    change_accounts: Callable[[], AbstractContextManager[Accounts]]
    open_visit: "OpenVisit"
    open_step: "OpenVisit"
    clock: Callable[[], datetime]
    new_token: Callable[[], str]
    verify: Callable[[str, str], bool]
    signer: URLSafeSerializer
    preview_token: Callable[[str], str]
    studio_dir: FilePath
    font_dir: FilePath
    font_files: dict[str, str]
    edge_origin: str
    practice_origin: str
    engine: Callable[[], dict[str, int]]
    tidy: Callable[[], None]
    visit_shop: Callable[[Store], AbstractContextManager[ShopVisit]]
    visit_edge: Callable[[Store], AbstractContextManager[ShopVisit]]
    studio_origin: str = ""


# What only looks at the request is async, so that it does not go through a thread and back.
async def parts_of(request: Request) -> Parts:
    """Return what the studio was made with."""
    parts: Parts = request.app.state.parts
    return parts


PartsDep = Annotated[Parts, Depends(parts_of)]


async def session_token(request: Request, parts: PartsDep) -> str | None:
    """Return the session's token that the signed cookie holds; None without one or with another's signature."""
    signed = request.cookies.get(COOKIE)
    try:
        return str(parts.signer.loads(signed)) if signed else None
    except BadSignature:
        return None


def signed_in(parts: PartsDep, token: Annotated[str | None, Depends(session_token)]) -> Person:
    """Return who asks.

    Raises:
        NotSignedIn: Nobody is signed in, or the session has ended.
    """
    with parts.open_accounts() as accounts:
        return who_is(accounts, token, parts.clock())


PersonDep = Annotated[Person, Depends(signed_in)]


@dataclass(frozen=True, slots=True)
class Visit:
    """Somebody in a store of theirs."""

    person: Person
    shop: Shop


@dataclass(frozen=True, slots=True)
class Door:
    """Lets the person of a request into the store of its path; a stranger cannot tell that it exists."""

    store: str
    token: str | None
    parts: Parts

    @contextmanager
    def opened(self, how: OpenVisit) -> Iterator[Visit]:
        with how(self.store) as (accounts, open_shop):
            person = who_is(accounts, self.token, self.parts.clock())
            if self.store not in person.stores:
                raise NotFound(f"There is no store {self.store!r}.", store=self.store)
            yield Visit(person, open_shop(person.id))

    def for_a_step(self) -> AbstractContextManager[Visit]:
        """Open the store for looking or for one step of the draft, in the thread that does it.

        What must answer while somebody drags does so: dependencies that open it cost three changes of thread.
        """
        return self.opened(self.parts.open_step)


async def door(store: str, parts: PartsDep, token: Annotated[str | None, Depends(session_token)]) -> Door:
    """Return the way into a store, which is opened by whoever needs it."""
    return Door(store, token, parts)


DoorDep = Annotated[Door, Depends(door)]


def visit(at: DoorDep) -> Iterator[Visit]:
    """Yield a store that is open for one request."""
    with at.opened(at.parts.open_visit) as opened:
        yield opened


# The transaction must be over before the answer leaves: a client that reads next must find what it wrote.
VisitDep = Annotated[Visit, Depends(visit, scope="function")]


async def _shop(of: VisitDep) -> Shop:
    return of.shop


async def _visitor(of: VisitDep) -> Person:
    return of.person


ShopDep = Annotated[Shop, Depends(_shop)]
VisitorDep = Annotated[Person, Depends(_visitor)]


_adapters: dict[type, TypeAdapter[Any]] = {}


def as_json(view: object) -> Response:
    """Return a large view as JSON, written straight from its dataclasses.

    FastAPI's own way copies and checks every part of an answer again, which takes longer than computing the drawing.
    """
    kind = type(view)
    if kind not in _adapters:
        _adapters[kind] = TypeAdapter(kind)
    return Response(_adapters[kind].dump_json(view), media_type="application/json")


async def body_of(request: Request) -> bytes:
    """Return the whole body; how large it may be is bounded before it comes here."""
    return await request.body()


async def base_version(
    if_match: Annotated[str, Header(description="The version that was seen, in quotes.")] = "",
) -> int:
    """Return the version that a change was made on."""
    text = if_match.strip().strip('"')
    if not (text.isascii() and text.isdigit() and len(text) < 10):
        raise Stale("A change needs If-Match with the version that was seen, so that nothing is changed unseen.")
    return int(text)


VersionDep = Annotated[int, Depends(base_version)]
# Numbers of trials and releases, as the database counts them.
Number = Annotated[int, Path(ge=1, le=2**31 - 1)]
