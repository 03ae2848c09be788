"""What studio and edge share as ASGI applications: problems as JSON, bodies that are bounded, faults that are told."""

import json
import secrets
import traceback
from collections.abc import Callable, Mapping
from pathlib import Path
from typing import Any

import structlog
from starlette.datastructures import Headers
from starlette.exceptions import HTTPException
from starlette.responses import JSONResponse
from starlette.types import ASGIApp, Message, Receive, Scope, Send

log = structlog.get_logger()
_HERE = str(Path(__file__).resolve().parent)
_SAYS_AT_MOST = 200


class _Problem(JSONResponse):
    media_type = "application/problem+json"

    def render(self, content: Any) -> bytes:
        # A problem may quote what was sent, half characters included; escaped, everything can be written.
        return json.dumps(content, ensure_ascii=True, default=str).encode()


def problem(
    status: int, code: str, says: str, facts: Mapping[str, Any] | None = None, headers: Mapping[str, str] | None = None
) -> JSONResponse:
    """Return an answer in the form of RFC 9457, with our stable `code` beside the standard members."""
    body = {"type": f"urn:uptick:problem:{code}", "title": code.replace("_", " "), "status": status, "detail": says}
    content = {**(facts or {}), **body, "code": code}
    return _Problem(content, status, dict(headers or {}))


def told_briefly(error: BaseException) -> dict[str, str]:
    """Return an error for a line of the log: its kind, its words, and the place in our code where it came up."""
    frames = [f for f in traceback.extract_tb(error.__traceback__) if f.filename.startswith(_HERE)]
    at = f"{frames[-1].filename.removeprefix(_HERE + '/')}:{frames[-1].lineno}" if frames else ""
    return {"error": type(error).__name__, "says": str(error)[:_SAYS_AT_MOST], "at": at}


class Faults:
    """Answers what nobody foresaw by a problem with an id; the line of the log with that id says what it was."""

    def __init__(self, app: ASGIApp, headers: Mapping[str, str] | None = None) -> None:
        self._app = app
        self._headers = headers or {}

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        begun = False

        async def watched(message: Message) -> None:
            nonlocal begun
            begun = begun or message["type"] == "http.response.start"
            await send(message)

        try:
            await self._app(scope, receive, watched)
        except Exception as error:
            if scope["type"] != "http":
                raise
            name = secrets.token_hex(6)
            log.error("fault", id=name, method=scope["method"], path=scope["path"][:120], **told_briefly(error))
            if begun:
                raise
            says = f"Something went wrong here that should not. The log has it under {name}."
            await problem(500, "fault", says, {"id": name}, self._headers)(scope, receive, send)


class Bounded:
    """Refuses a body as soon as it is larger than its path takes, whatever length it claims."""

    def __init__(self, app: ASGIApp, most: Callable[[str], int], headers: Mapping[str, str] | None = None) -> None:
        self._app = app
        self._most = most
        self._headers = headers or {}

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self._app(scope, receive, send)
            return
        most, size = self._most(scope["path"]), 0
        says = f"At most {most:,} bytes are taken here."
        claimed = Headers(scope=scope).get("content-length", "0")
        if not claimed.isascii() or not claimed.isdigit() or len(claimed) > 15 or int(claimed) > most:
            await problem(413, "too_large", says, {"most": most}, self._headers)(scope, receive, send)
            return

        async def counted() -> Message:
            nonlocal size
            message = await receive()
            size += len(message.get("body", b""))
            if size > most:
                raise HTTPException(413, says)
            return message

        await self._app(scope, counted, send)
