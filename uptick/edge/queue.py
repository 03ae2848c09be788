"""Group commit: what arrives within a few milliseconds is written together, and only then answered."""

import asyncio
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from datetime import datetime

from uptick.usecases.serving import StoreBatch, Writer

_GATHER_S = 0.004
_GROUP_EVENTS = 4_000
_MOST_WAITING = 40_000


class Full(Exception):
    """The queue takes no more; the sender should try again soon."""


class CommitQueue:
    def __init__(self, writer: Writer, clock: Callable[[], datetime]) -> None:
        self._writer = writer
        self._clock = clock
        self._waiting: list[tuple[StoreBatch, asyncio.Future[None]]] = []
        self._size = 0
        self._arrived = asyncio.Event()
        self._thread = ThreadPoolExecutor(1, thread_name_prefix="signals")
        self._task: asyncio.Task[None] | None = None

    def start(self) -> None:
        self._task = asyncio.create_task(self._run())

    async def stop(self) -> None:
        """Write what is still waiting, then end."""
        if self._task:
            self._task.cancel()
            await asyncio.gather(self._task, return_exceptions=True)
        while self._waiting:
            await self._write(self._take())
        self._thread.shutdown()

    async def commit(self, batch: StoreBatch) -> None:
        """Return when the batch is committed.

        Raises:
            Full: Too much is waiting.
        """
        size = len(batch.signals) + 1
        if self._size + size > _MOST_WAITING:
            raise Full
        done: asyncio.Future[None] = asyncio.get_running_loop().create_future()
        self._waiting.append((batch, done))
        self._size += size
        self._arrived.set()
        await done

    async def _run(self) -> None:
        while True:
            await self._arrived.wait()
            if self._size < _GROUP_EVENTS:
                await asyncio.sleep(_GATHER_S)
            # Shielded, so that stopping never cuts a group in half.
            await asyncio.shield(self._write(self._take()))

    def _take(self) -> list[tuple[StoreBatch, asyncio.Future[None]]]:
        group, size = [], 0
        for item in self._waiting:
            group.append(item)
            size += len(item[0].signals) + 1
            if size >= _GROUP_EVENTS:
                break
        del self._waiting[: len(group)]
        self._size -= size
        if not self._waiting:
            self._arrived.clear()
        return group

    async def _write(self, group: list[tuple[StoreBatch, asyncio.Future[None]]]) -> None:
        if not group:
            return
        batches = [batch for batch, _ in group]
        loop = asyncio.get_running_loop()
        try:
            await loop.run_in_executor(self._thread, self._writer.write, batches, self._clock().date())
        except Exception as error:
            for _, done in group:
                if not done.done():
                    done.set_exception(error)
            return
        for _, done in group:
            if not done.done():
                done.set_result(None)
