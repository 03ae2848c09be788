"""Errors as `application/problem+json`, each class with its status."""

from collections.abc import Mapping
from typing import Any

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from starlette.exceptions import HTTPException

from uptick.core import errors

STATUS: Mapping[type[errors.AppError], int] = {
    errors.OutOfRange: 422,
    errors.BadDocument: 422,
    errors.BadColour: 422,
    errors.BadReach: 422,
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
    errors.TrialState: 409,
    errors.TooFewData: 409,
    errors.NotSignedIn: 401,
    errors.WrongPassword: 401,
    errors.SlowDown: 429,
}


def problem(status: int, code: str, says: str, facts: Mapping[str, Any] | None = None) -> JSONResponse:
    """Return an answer in the form of RFC 9457, with our stable `code` beside the standard members."""
    body = {"type": f"urn:uptick:problem:{code}", "title": code.replace("_", " "), "status": status, "detail": says}
    return JSONResponse(
        {**(facts or {}), **body, "code": code}, status_code=status, media_type="application/problem+json"
    )


def install(app: FastAPI) -> None:
    @app.exception_handler(errors.AppError)
    def ours(_: Request, error: errors.AppError) -> JSONResponse:
        return problem(STATUS[type(error)], error.code, error.says, error.facts)

    @app.exception_handler(RequestValidationError)
    def malformed(_: Request, error: RequestValidationError) -> JSONResponse:
        first = error.errors()[0]
        field = ".".join(str(step) for step in first["loc"][1:])
        return problem(422, "bad_request", f"{field}: {first['msg']}.", {"field": field})

    @app.exception_handler(HTTPException)
    def plain(_: Request, error: HTTPException) -> JSONResponse:
        return problem(error.status_code, "not_found" if error.status_code == 404 else "http", str(error.detail))
