"""Group commit: what arrives within a few milliseconds is written together, and only then answered."""

import asyncio
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from datetime import datetime

from uptick.asgi import told_briefly
from uptick.usecases.serving import BatchWriter, StoreBatch, Unavailable

_GATHER_S = 0.004
_GROUP_EVENTS = 4_000
_MOST_WAITING = 40_000


class Full(Exception):
    """The queue takes no more; the sender should try again soon."""


class Unwritable(Exception):
    """A batch that cannot be kept, however often it is tried; `why` is for the log."""

    def __init__(self, why: dict[str, str]) -> None:
        super().__init__(why["says"])
        self.why = why


Group = list[tuple[StoreBatch, "asyncio.Future[None]"]]


class CommitQueue:
    def __init__(self, writer: BatchWriter, clock: Callable[[], datetime]) -> None:
        self._writer = writer
        self._clock = clock
        self._waiting: Group = []
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
            Unavailable: The database cannot be reached.
            Unwritable: Something in the batch cannot be kept.
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

    def _take(self) -> Group:
        group: Group = []
        size = 0
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

    async def _write(self, group: Group) -> None:
        """Write a group, and tell each sender what came of it.

        A group that cannot be written is divided until what is wrong with it stands alone: one sender's batch must not
        fail another's. While the database is away nothing is divided, since nothing can be written.
        """
        if not group:
            return
        batches = [batch for batch, _ in group]
        loop = asyncio.get_running_loop()
        try:
            await loop.run_in_executor(self._thread, self._writer.write, batches, self._clock().date())
        except Unavailable as error:
            _tell(group, error)
        except Exception as error:
            if len(group) == 1:
                _tell(group, Unwritable(told_briefly(error)))
                return
            middle = len(group) // 2
            await self._write(group[:middle])
            await self._write(group[middle:])
        else:
            _tell(group, None)


def _tell(group: Group, error: Exception | None) -> None:
    for _, done in group:
        if done.done():
            continue
        if error is None:
            done.set_result(None)
        else:
            done.set_exception(error)
