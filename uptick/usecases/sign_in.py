"""Signing in and out."""

import hashlib
from collections.abc import Callable
from datetime import datetime, timedelta

from uptick.core.errors import NotSignedIn, WrongPassword
from uptick.usecases.ports import Accounts, Person

SESSION_LASTS = timedelta(days=14)


def token_name(token: str) -> str:
    """Return what is stored of a session's token; the token itself is never kept."""
    return hashlib.sha256(token.encode()).hexdigest()


def sign_in(
    accounts: Accounts, email: str, password: str, now: datetime, token: str, verify: Callable[[str, str], bool]
) -> Person:
    """Start a session under `token` for the person whose password this is.

    Raises:
        WrongPassword: Mail address and password do not belong together; which of the two is not told.
    """
    account = accounts.find(email)
    # A stored hash is always verified, so that the time taken does not tell whether the address is known.
    stored = account[1] if account else _NOBODY
    if not verify(password, stored) or account is None:
        raise WrongPassword("Mail address and password do not belong together.")
    person = account[0]
    accounts.start_session(person.id, token_name(token), now, now + SESSION_LASTS)
    return person


def who_is(accounts: Accounts, token: str | None, now: datetime) -> Person:
    """Return the person of a session.

    Raises:
        NotSignedIn: The session has ended, or there never was one.
    """
    person = accounts.session(token_name(token), now) if token else None
    if person is None:
        raise NotSignedIn("Please sign in.")
    return person


def sign_out(accounts: Accounts, token: str) -> None:
    """End one session; the person's others go on."""
    accounts.end_session(token_name(token))


# The Argon2id hash of a password that nobody has.
_NOBODY = "$argon2id$v=19$m=65536,t=3,p=4$seJWyp9V7WVWmkQWNFTZJA$aCsYTyb4CItRWCT/d3jWm8L0IySKsAjwxRDFE6jyMtU"
