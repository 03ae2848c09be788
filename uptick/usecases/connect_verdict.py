"""What came of trying a connection: said by its cause, not by its status."""

import re
from enum import StrEnum

from uptick.core.pages import FormRead, PageRead
from uptick.core.shop.connection import BasketConnection, FormPost
from uptick.usecases.visiting import Fetched

_SIGN_IN = re.compile(r"log-?in|sign-?in|account|anmelden|connexion", re.IGNORECASE)
_FORGED = re.compile(r"csrf|token|forg|expired|too old|abgelaufen|expiré", re.IGNORECASE)


class Result(StrEnum):
    ADDED = "added"
    REFUSED = "refused"
    UNKNOWN = "unknown"


def verdict(
    connection: BasketConnection, form: FormRead | None, answer: Fetched, before: int | None, after: int | None
) -> tuple[Result, str, str]:
    """Return what came of a press, why, and what to do about it."""
    if answer.trouble:
        return Result.UNKNOWN, answer.says, "Look whether the address is right, and try again."
    if before is not None and after is not None and after > before:
        return Result.ADDED, f"The basket went from {before} to {after}.", ""
    missing = _missing_fields(connection, form)
    if answer.hops and (_SIGN_IN.search(answer.url) or PageRead(answer.text).has_password_form):
        return Result.REFUSED, f"It leads to {answer.url}, where one signs in.", "Let visitors buy without an account."
    if missing:
        return Result.REFUSED, missing, "Take the names of the form's own fields."
    if answer.status in {403, 419} or (answer.status >= 400 and _FORGED.search(answer.text[:5000])):
        return Result.REFUSED, *_forged(connection, answer.status)
    if answer.status == 404:
        return Result.REFUSED, f"There is nothing at {connection.add_path}: it answered 404.", "Give the right address."
    if answer.status == 405:
        return (
            Result.REFUSED,
            f"{connection.add_path} does not take this method: it answered 405.",
            "Give another method.",
        )
    if answer.status >= 500:
        return Result.UNKNOWN, f"The shop failed: it answered {answer.status}.", "Look into the shop's own log."
    if answer.status >= 400:
        return (
            Result.REFUSED,
            f"The shop said no: it answered {answer.status}, {in_short(answer)}",
            "Look at what it says.",
        )
    if before is None or after is None:
        why = f"It answered {answer.status}, but nobody can tell how much is in the basket."
        return Result.UNKNOWN, why, "Say where the basket's count can be read."
    return (
        Result.REFUSED,
        f"It answered {answer.status}, and the basket still holds {after}.",
        "Look at what it answered.",
    )


def _missing_fields(connection: BasketConnection, form: FormRead | None) -> str:
    """Return which names are not those of the page's form, as a sentence; empty where all are."""
    if not isinstance(connection, FormPost):
        return ""
    if form is None:
        return f"No form of the page has a field “{connection.product_field}”."
    wished = [connection.product_field, connection.quantity_field, *connection.option_fields]
    wrong = [name for name in wished if name and not form.field(name)]
    if not wrong:
        return ""
    own = ", ".join(f"“{field.name}”" for field in form.fields)
    return f"{', '.join(f'“{name}”' for name in wrong)} is not a field of the form. It has {own}."


def _forged(connection: BasketConnection, status: int) -> tuple[str, str]:
    why = f"The shop takes the request for a forged one: it answered {status}."
    if connection.token is None:
        return why, "Name the word that the page carries against forged requests."
    return why, f"The page's “{connection.token.source_name}” was sent and refused: it may be too old, or another one."


def in_short(answer: Fetched) -> str:
    """Return what an answer says, in a few words."""
    if answer.is_html:
        page = PageRead(answer.text)
        return f"a page, “{page.words_at('h1') or page.title}”"
    return answer.text[:160] or "nothing"
