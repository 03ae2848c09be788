"""Runs of practice shoppers: sent through the edge as any shop's pages send, with progress, and stoppable."""

import asyncio
import itertools
import ssl
from dataclasses import dataclass, field
from typing import Any

import httpx2

from practice.shoppers import Wish, count_shoppers, visits

_AT_ONCE = 32
_TRIES = 5
_TLS = ssl.create_default_context()


@dataclass(slots=True)
class Run:
    """A run as it stands. `state` is running, done, stopped or failed."""

    id: int
    wish: Wish
    state: str = "running"
    says: str = ""
    planned: int = 0
    shoppers: int = 0
    signals: int = 0
    refused: dict[str, int] = field(default_factory=dict)
    seen: set[str] = field(default_factory=set)

    def told(self) -> dict[str, object]:
        share = self.shoppers / self.planned if self.planned else 0.0
        return {
            "id": self.id,
            "state": self.state,
            "says": self.says,
            "planned": self.planned,
            "shoppers": self.shoppers,
            "signals": self.signals,
            "refused": self.refused,
            "share": 1.0 if self.state == "done" else share,
            "seed": self.wish.seed,
        }


class Runs:
    """The runs of this process; one runs at a time."""

    def __init__(self, edge: str, key: str, origin: str) -> None:
        self._edge, self._key, self._origin = edge, key, origin
        self._numbers = itertools.count(1)
        self.all: dict[int, Run] = {}
        self._tasks: set[asyncio.Task[None]] = set()

    def start(self, wish: Wish) -> Run:
        """Start a run.

        Raises:
            ValueError: Another one is still going on.
        """
        if any(run.state == "running" for run in self.all.values()):
            raise ValueError("Shoppers are walking about already. Stop them first.")
        run = Run(next(self._numbers), wish, planned=count_shoppers(wish))
        self.all[run.id] = run
        task = asyncio.get_running_loop().create_task(self._walk(run))
        self._tasks.add(task)
        task.add_done_callback(self._tasks.discard)
        return run

    def stop(self, number: int) -> Run:
        run = self.all[number]
        if run.state == "running":
            run.state, run.says = "stopped", "Stopped. What was sent stays."
        return run

    async def _walk(self, run: Run) -> None:
        headers = {
            "Origin": self._origin,
            "Content-Type": "text/plain",
            "User-Agent": "Mozilla/5.0 (practice shoppers)",
        }
        # One connection to a client: a pool of many searches through all of them at every request.
        clients = [
            httpx2.AsyncClient(base_url=self._edge, headers=headers, timeout=30, verify=_TLS) for _ in range(_AT_ONCE)
        ]
        try:
            manifest = (await clients[0].get(f"/s/{self._key}/manifest.json")).raise_for_status().json()
            queue: asyncio.Queue[dict[str, object] | None] = asyncio.Queue(maxsize=200)
            senders = [asyncio.create_task(self._send(run, client, queue)) for client in clients]
            for visit in visits(run.wish, manifest):
                if run.state != "running":
                    break
                await queue.put(visit.body)
            for _ in senders:
                await queue.put(None)
            await asyncio.gather(*senders)
            if run.state == "running":
                run.state, run.shoppers = "done", run.planned
        except (httpx2.HTTPError, OSError) as error:
            run.state, run.says = "failed", f"The edge at {self._edge} did not answer: {error}."
        finally:
            await asyncio.gather(*(client.aclose() for client in clients))

    async def _send(
        self, run: Run, client: httpx2.AsyncClient, queue: "asyncio.Queue[dict[str, object] | None]"
    ) -> None:
        while (body := await queue.get()) is not None:
            if run.state != "running":
                continue
            try:
                answer = await self._post(client, body)
            except (httpx2.HTTPError, OSError) as error:
                run.state, run.says = "failed", f"The edge at {self._edge} did not answer: {error}."
                continue
            run.signals += answer["accepted"]
            for refusal in answer["refused"]:
                run.refused[refusal["reason"]] = run.refused.get(refusal["reason"], 0) + 1
            run.seen.add(str(body["shopper"]))
            run.shoppers = len(run.seen)

    async def _post(self, client: httpx2.AsyncClient, body: dict[str, object]) -> dict[str, Any]:
        for attempt in range(_TRIES):
            answer = await client.post(f"/s/{self._key}/signals", json=body)
            if answer.status_code != 503:
                return dict(answer.raise_for_status().json())
            await asyncio.sleep(float(answer.headers.get("retry-after", "1")) * (attempt + 1) / 2)
        return dict(answer.raise_for_status().json())
