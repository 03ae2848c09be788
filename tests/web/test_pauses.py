"""Work in the pauses between requests."""

import asyncio

from starlette.types import Message, Receive, Scope, Send

from tests.loops import played_out
from uptick.web.pauses import Pauses

AFTER_S = 0.02


async def silent() -> Message:
    return {"type": "http.request"}


async def deaf(_: Message) -> None:
    pass


def played(script: list[tuple[float, float]]) -> list[int]:
    """Play requests, by when each begins and what it takes; return how many were open at each piece of work."""
    at_work: list[int] = []
    is_open = 0

    async def app(scope: Scope, _: Receive, __: Send) -> None:
        nonlocal is_open
        is_open += 1
        await asyncio.sleep(scope["takes"])
        is_open -= 1

    async def play() -> None:
        pauses = Pauses(app, lambda: at_work.append(is_open), AFTER_S)

        async def one(begins: float, takes: float) -> None:
            await asyncio.sleep(begins)
            await pauses({"type": "http", "takes": takes}, silent, deaf)

        await asyncio.gather(*(one(begins, takes) for begins, takes in script))
        await asyncio.sleep(4 * AFTER_S)

    played_out(play())
    return at_work


def test_one_pause_has_one_piece_of_work_and_nobody_waits_meanwhile() -> None:
    # Three requests that overlap or follow at once, then, after a pause, another.
    assert played([(0, 0.03), (0.01, 0.04), (0.055, 0.0), (0.2, 0.01)]) == [0, 0]


def test_a_request_that_comes_before_the_pause_is_over_puts_it_off() -> None:
    assert played([(0, 0.0), (AFTER_S / 2, 0.1)]) == [0]


def test_a_request_that_fails_ends_as_well() -> None:
    worked: list[bool] = []

    async def broken(_: Scope, __: Receive, ___: Send) -> None:
        raise RuntimeError("broken")

    async def play() -> None:
        pauses = Pauses(broken, lambda: worked.append(True), AFTER_S)
        try:
            await pauses({"type": "http"}, silent, deaf)
        except RuntimeError:
            await asyncio.sleep(3 * AFTER_S)

    played_out(play())
    assert worked == [True]
