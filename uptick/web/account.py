"""Signing in and out, and what the studio needs to know before anything else."""

from dataclasses import dataclass
from typing import Annotated

from fastapi import APIRouter, Depends, Request, Response
from limits import parse as parse_limit
from limits.storage import MemoryStorage
from limits.strategies import MovingWindowRateLimiter

from uptick.core.errors import SlowDown, WrongPassword
from uptick.usecases.ports import Person
from uptick.usecases.sign_in import SESSION_LASTS, sign_in, sign_out
from uptick.web.bodies import SignIn
from uptick.web.parts import COOKIE, PartsDep, PersonDep, session_token

router = APIRouter(prefix="/api", tags=["account"])
_GUESSES = parse_limit("8/minute")
_limiter = MovingWindowRateLimiter(MemoryStorage())


@dataclass(frozen=True, slots=True)
class Session:
    name: str
    email: str
    stores: tuple[str, ...]


def _session(person: Person) -> Session:
    return Session(person.name, person.email, person.stores)


@router.post("/session")
def start(body: SignIn, request: Request, response: Response, parts: PartsDep) -> Session:
    """Sign in; the session is kept in an http-only, same-site, signed cookie."""
    caller = request.client.host if request.client else ""
    if not _limiter.test(_GUESSES, caller, body.email.lower()):
        raise SlowDown("Too many tries. Wait a minute, then try again.")
    token = parts.new_token()
    try:
        with parts.open_accounts() as accounts:
            person = sign_in(accounts, body.email, body.password, parts.clock(), token, parts.verify)
    except WrongPassword:
        _limiter.hit(_GUESSES, caller, body.email.lower())
        raise
    response.set_cookie(
        COOKIE,
        parts.signer.dumps(token),
        max_age=int(SESSION_LASTS.total_seconds()),
        httponly=True,
        samesite="strict",
        secure=request.url.scheme == "https",
    )
    return _session(person)


@router.get("/session")
def read(person: PersonDep) -> Session:
    return _session(person)


@router.delete("/session", status_code=204)
def end(response: Response, parts: PartsDep, token: Annotated[str | None, Depends(session_token)]) -> None:
    """Sign out; the session ends at once, wherever else its cookie lies."""
    if token:
        with parts.open_accounts() as accounts:
            sign_out(accounts, token)
    response.delete_cookie(COOKIE)
