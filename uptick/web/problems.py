"""Errors as `application/problem+json`, each class with its status."""

from collections.abc import Mapping
from typing import Any

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from pydantic import BaseModel
from starlette.exceptions import HTTPException

from uptick.asgi import problem
from uptick.core import errors

STATUS: Mapping[type[errors.AppError], int] = {
    errors.OutOfRange: 422,
    errors.BadDocument: 422,
    errors.BadColour: 422,
    errors.BadReach: 422,
    errors.BadSelector: 422,
    errors.BadWording: 422,
    errors.BadTexts: 422,
    errors.BadPicture: 422,
    errors.BadIcon: 422,
    errors.BadCss: 422,
    errors.BadTokens: 422,
    errors.Overtaken: 409,
    errors.BadCatalogue: 422,
    errors.NeedsYes: 409,
    errors.BadSignal: 400,
    errors.NotFound: 404,
    errors.Stale: 412,
    errors.NothingToUndo: 409,
    errors.NothingToRelease: 409,
    errors.FindingsLeft: 409,
    errors.TrialUnderway: 409,
    errors.WrongTrialState: 409,
    errors.TooFewData: 409,
    errors.NotSignedIn: 401,
    errors.WrongPassword: 401,
    errors.SlowDown: 429,
    errors.NotSetUp: 500,
}


_CODES = {400: "bad_request", 404: "not_found", 405: "not_allowed", 413: "too_large"}


class Problem(BaseModel):
    """RFC 9457, with a stable `code` for programs beside the standard members."""

    type: str
    title: str
    status: int
    detail: str
    code: str


_SAYS = {
    400: "The body is no JSON.",
    401: "Nobody is signed in.",
    403: "A change that another site's page sends.",
    404: "There is no such store, or nothing of that name in it.",
    409: "The state of things does not allow it; `code` says which.",
    412: "It was changed meanwhile, or the version is not told.",
    413: "The body is too large.",
    422: "Something in it is not allowed; the sentence says what is.",
    429: "Too many tries.",
}


def problems(*statuses: int) -> dict[int | str, dict[str, Any]]:
    """Return what an operation may answer besides its success, for the description of the API."""
    return {
        status: {
            "description": _SAYS[status],
            "content": {"application/problem+json": {"schema": Problem.model_json_schema()}},
        }
        for status in sorted({*statuses, 422})
    }


# What every operation of a store may answer, and every change of something that has a version.
IN_STORE = problems(401, 404, 413)
OF_VERSION = problems(401, 403, 404, 409, 412, 413)


def install(app: FastAPI) -> None:
    """Answer every error as a problem (RFC 9457)."""

    @app.exception_handler(errors.AppError)
    def ours(_: Request, error: errors.AppError) -> JSONResponse:
        return problem(STATUS[type(error)], error.code, error.says, error.facts)

    @app.exception_handler(RequestValidationError)
    def malformed(_: Request, error: RequestValidationError) -> JSONResponse:
        first = error.errors()[0]
        field = ".".join(str(step) for step in first["loc"][1:])
        says = first["msg"].removeprefix("Value error, ")
        return problem(422, "bad_request", f"{field}: {says}." if field else f"{says}.", {"field": field})

    @app.exception_handler(HTTPException)
    def plain(_: Request, error: HTTPException) -> JSONResponse:
        return problem(error.status_code, _CODES.get(error.status_code, "http"), str(error.detail))
