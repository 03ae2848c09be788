"""Work that is done in the pauses between requests."""

import asyncio
from collections.abc import Callable

from starlette.types import ASGIApp, Receive, Scope, Send

# After an answer a person looks at it for a while; a screen that asks for several things asks sooner than this.
PAUSE_S = 0.25


class Pauses:
    """Calls `work` once after each run of requests, when none has come for a while: nobody waits for it.

    It runs on the event loop, so that no request is answered meanwhile by a thread that fights it for the interpreter.
    """

    def __init__(self, app: ASGIApp, work: Callable[[], None], after_s: float = PAUSE_S) -> None:
        self._app, self._work, self._after_s = app, work, after_s
        self._open = 0
        self._waiting: asyncio.TimerHandle | None = None

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self._app(scope, receive, send)
            return
        self._open += 1
        if self._waiting:
            self._waiting.cancel()
            self._waiting = None
        try:
            await self._app(scope, receive, send)
        finally:
            self._open -= 1
            if not self._open:
                self._waiting = asyncio.get_running_loop().call_later(self._after_s, self._work)
