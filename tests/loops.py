"""Loops of asyncio for tests."""

import asyncio
import selectors
from collections.abc import Coroutine
from concurrent.futures import ThreadPoolExecutor
from typing import Any, TypeVar

T = TypeVar("T")


def ended(work: Coroutine[Any, Any, T]) -> T:
    """Run to the end on a loop in a thread of its own: the browser's tests keep one in this."""
    with ThreadPoolExecutor(1) as thread:
        return thread.submit(asyncio.run, work).result()


class Untimed(asyncio.SelectorEventLoop):
    """A loop whose clock jumps to whatever comes next: order by time is exact, and nobody waits.

    For work without sockets and threads alone: nothing that takes real time is waited for.
    """

    def __init__(self) -> None:
        loop = self

        class Jumping(selectors.DefaultSelector):
            def select(self, timeout: float | None = None) -> list[tuple[selectors.SelectorKey, int]]:
                loop.now_s += max(0.0, timeout or 0.0)
                return super().select(0)

        self.now_s = 0.0
        super().__init__(Jumping())

    def time(self) -> float:
        return self.now_s


def played_out(work: Coroutine[Any, Any, T]) -> T:
    """Run to the end on an untimed loop in a thread of its own."""

    def run() -> T:
        with asyncio.Runner(loop_factory=Untimed) as runner:
            return runner.run(work)

    with ThreadPoolExecutor(1) as thread:
        return thread.submit(run).result()
