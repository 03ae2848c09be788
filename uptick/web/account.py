"""Signing in and out, and what the studio needs to know before anything else."""

from collections import Counter
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from threading import Lock
from typing import Annotated

from fastapi import APIRouter, Depends, Request, Response
from limits import RateLimitItem
from limits import parse as parse_limit
from limits.storage import MemoryStorage
from limits.strategies import MovingWindowRateLimiter

from uptick.core.errors import SlowDown, WrongPassword
from uptick.usecases.ports import Person, StoreLine
from uptick.usecases.sign_in import SESSION_LASTS, sign_in, sign_out
from uptick.usecases.stores import NewStore, make_store
from uptick.web.bodies import OfNewStore, SignIn
from uptick.web.parts import COOKIE, PartsDep, PersonDep, session_token
from uptick.web.problems import problems

router = APIRouter(prefix="/api", tags=["account"])
_limiter = MovingWindowRateLimiter(MemoryStorage())
# Wrong guesses: of one caller at one person's password, of all callers at that, and of one caller at everybody's.
_PAIR, _PERSON, _CALLER = parse_limit("8/minute"), parse_limit("60/hour"), parse_limit("40/10 minutes")


def _guesses(caller: str, email: str) -> tuple[tuple[RateLimitItem, tuple[str, ...]], ...]:
    return (_PAIR, ("pair", caller, email)), (_PERSON, ("person", email)), (_CALLER, ("caller", caller))


# Guesses that are being looked at now: each may turn out wrong, so it has its place among the wrong ones until then.
_under_way: Counter[tuple[str, ...]] = Counter()
_counting = Lock()


@contextmanager
def _guessing(guesses: tuple[tuple[RateLimitItem, tuple[str, ...]], ...]) -> Iterator[None]:
    """Let a guess be looked at where there is room for it, and count it where it is wrong.

    Raises:
        SlowDown: There were too many, or so many are being looked at.
    """
    with _counting:
        if any(_limiter.get_window_stats(limit, *names).remaining <= _under_way[names] for limit, names in guesses):
            raise SlowDown("Too many wrong tries. Wait a few minutes, then try again.")
        _under_way.update(names for _, names in guesses)
    try:
        yield
    except WrongPassword:
        for limit, names in guesses:
            _limiter.hit(limit, *names)
        raise
    finally:
        with _counting:
            _under_way.subtract(names for _, names in guesses)
            for _, names in guesses:
                if not _under_way[names]:
                    del _under_way[names]


@dataclass(frozen=True, slots=True)
class Session:
    name: str
    email: str
    stores: tuple[str, ...]


def _session(person: Person) -> Session:
    return Session(person.name, person.email, person.stores)


@router.post("/session", responses=problems(401, 403, 413, 429))
def start(body: SignIn, request: Request, response: Response, parts: PartsDep) -> Session:
    """Sign in; the session is kept in an http-only, same-site, signed cookie."""
    guesses = _guesses(request.client.host if request.client else "", body.email.strip().lower())
    token = parts.new_token()
    with _guessing(guesses), parts.open_accounts() as accounts:
        person = sign_in(accounts, body.email, body.password, parts.clock(), token, parts.verify)
    response.set_cookie(
        COOKIE,
        parts.signer.dumps(token),
        max_age=int(SESSION_LASTS.total_seconds()),
        httponly=True,
        samesite="strict",
        # Behind a proxy that ends TLS the page's own address tells the scheme.
        secure="https" in (request.url.scheme, request.headers.get("origin", "").partition("://")[0]),
    )
    return _session(person)


@router.get("/session", responses=problems(401))
def read(person: PersonDep) -> Session:
    """Return who is signed in."""
    return _session(person)


@router.get("/stores", responses=problems(401))
def stores(person: PersonDep, parts: PartsDep) -> tuple[StoreLine, ...]:
    """Return the stores of whoever is signed in."""
    with parts.open_accounts() as accounts:
        return accounts.stores_of(person)


@router.post("/stores", status_code=201, responses=problems(401, 403, 422))
def add_store(body: OfNewStore, person: PersonDep, parts: PartsDep) -> StoreLine:
    """Make a store of one's own, with a plain button and nothing released."""
    with parts.change_accounts() as accounts:
        store = make_store(accounts, person, NewStore(**body.model_dump()), parts.clock())
    return StoreLine(store.key, store.name, store.origin)


@router.delete("/session", status_code=204, responses=problems(403))
def end(response: Response, parts: PartsDep, token: Annotated[str | None, Depends(session_token)]) -> None:
    """Sign out; the session ends at once, wherever else its cookie lies."""
    if token:
        with parts.open_accounts() as accounts:
            sign_out(accounts, token)
    response.delete_cookie(COOKIE)
