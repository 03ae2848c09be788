"""Signals accepted and committed by two edge processes, beside `\\copy` of the same rows."""

import asyncio
import json
import os
import subprocess
import sys
import tempfile
import time
from collections.abc import Sequence
from concurrent.futures import ProcessPoolExecutor
from contextlib import suppress
from datetime import UTC, datetime, timedelta
from multiprocessing import get_context
from urllib.parse import urlsplit
from uuid import UUID

import httpx2
from sqlalchemy import text

from ops import demo
from ops.bench.rows import Row, p99
from ops.bench.run import Run
from ops.cluster import ROOT, Cluster, binaries, free_port
from ops.parts import Parts
from uptick.wiring import Wiring

BATCHES, EVENTS, CONNECTIONS = 4_000, 25, 48


def measure(run: Run) -> list[Row]:
    parts, cluster, wiring = run.parts, run.cluster, run.wiring
    batches = run.times(BATCHES, 20)
    bodies, rows = _make(batches)
    copied = _copy(cluster, urlsplit(parts.environment["UPTICK_DATABASE_URL"]).path[1:], rows)
    second = _second_edge(parts)
    try:
        edges = [parts.addresses.edge, second[0]]
        before = _count(wiring)
        rate, waits = _send(edges, parts.addresses.practice, bodies)
        new = _count(wiring) - before
        assert new == batches * EVENTS, f"{new} rows of {batches * EVENTS}"
        again, _ = _send(edges, parts.addresses.practice, bodies)
        assert _count(wiring) - before == new, "a second row for an event that was sent twice"
    finally:
        second[1].terminate()
        second[1].wait()
    wait = p99(waits)
    return [
        Row("signals committed", rate, "rows/s", copied, "\\copy of the same rows", "≥ ¼", rate >= copied / 4),
        Row(
            "signals answered, p99",
            wait,
            "ms",
            250,
            "the budget",
            "≤ 250 ms",
            wait <= 250,
        ),
        Row("the same rows sent twice", again, "rows/s", rate, "sent once", "≥ ½", again >= rate / 2),
    ]


def _make(batches: int) -> tuple[list[bytes], list[str]]:
    """Return bodies of batches, and the same rows as `\\copy` reads them."""
    now = datetime.now(UTC) - timedelta(minutes=5)
    bodies, rows = [], []
    for b in range(batches):
        events = []
        for n in range(EVENTS):
            at = now + timedelta(milliseconds=b + n)
            identity = str(
                UUID(int=int(at.timestamp() * 1000) << 80 | 7 << 76 | (b & 0xFFF) << 64 | 2 << 62 | b << 8 | n)
            )
            kind = ("shown", "shown", "shown", "clicked", "added")[n % 5]
            events.append({"id": identity, "kind": kind, "at": at.isoformat(), "place": "product_page",
                           "product": "TL-BRUSH", "device": "phone", "language": "en-GB"})  # fmt: skip
            rows.append(f"1\t{identity}\t{at:%Y-%m-%d}\t{kind}\t{at.isoformat()}\tbench-{b:08d}\tv\t1\tproduct_page\tTL-BRUSH"
                        "\t\t\t1\t0\tphone\ten-GB\n")  # fmt: skip
        batch = {
            "v": 1,
            "sent": now.isoformat(),
            "shopper": f"bench-{b:08d}",
            "visit": "v",
            "release": 1,
            "events": events,
        }
        bodies.append(json.dumps(batch).encode())
    return bodies, rows


def _copy(cluster: Cluster, database: str, rows: Sequence[str]) -> float:
    """Return the rate of psql's `\\copy` into an empty table of the same columns and key."""
    environment = {**os.environ, "PGPASSWORD": cluster.password}
    psql = [str(binaries() / "psql"), "-qX", "-h", "127.0.0.1", "-p", str(cluster.port), "-U", "uptick", database]
    make = "DROP TABLE IF EXISTS copied; CREATE TABLE copied (LIKE events INCLUDING ALL)"
    subprocess.run([*psql, "-c", make], env=environment, check=True)
    with tempfile.NamedTemporaryFile("w", suffix=".tsv") as file:
        file.writelines(rows)
        file.flush()
        began = time.perf_counter()
        columns = (
            "store_id, id, day, kind, at, shopper, visit, release_n, place, product, order_no, line, quantity, "
            "value_minor, device, language"
        )
        subprocess.run([*psql, "-c", f"\\copy copied ({columns}) FROM '{file.name}'"], env=environment, check=True)
        return len(rows) / (time.perf_counter() - began)


def _second_edge(parts: Parts) -> tuple[str, "subprocess.Popen[bytes]"]:
    port = free_port(8890)
    command = [sys.executable, "-m", "uvicorn", "--factory", "uptick.main:edge", "--port", str(port), "--log-level",
               "warning", "--no-access-log", "--no-proxy-headers", "--loop", "uvloop"]  # fmt: skip
    environment = {**os.environ, **parts.environment, "UPTICK_EDGE_PART": "1"}
    with (parts.logs / "edge-2.log").open("wb") as log:
        process = subprocess.Popen(command, cwd=ROOT, env=environment, stdout=log, stderr=log)
    address = f"http://127.0.0.1:{port}"
    for _ in range(300):
        with suppress(httpx2.TransportError):
            httpx2.get(f"{address}/health")
            break
        time.sleep(0.1)
    return address, process


def _count(wiring: Wiring) -> int:
    with wiring.engine.connect() as db:
        return int(db.execute(text("SELECT count(*) FROM events WHERE shopper LIKE 'bench-%'")).scalar_one())


def _send(edges: Sequence[str], origin: str, bodies: Sequence[bytes]) -> tuple[float, list[float]]:
    """Send every body once from a process of its own; return rows a second and the waits in milliseconds."""
    with ProcessPoolExecutor(1, mp_context=get_context("spawn")) as pool:
        return pool.submit(_drive, edges, origin, bodies).result()


def _drive(edges: Sequence[str], origin: str, bodies: Sequence[bytes]) -> tuple[float, list[float]]:
    waits: list[float] = []
    left = list(bodies)

    async def worker(edge: str) -> None:
        # By hand on a socket: a client library would take more of the two cores than the edges do.
        where = urlsplit(edge)
        reader, writer = await asyncio.open_connection(where.hostname, where.port)
        while left:
            body = left.pop()
            began = time.perf_counter()
            head = (
                f"POST /s/{demo.KEY}/signals HTTP/1.1\r\nHost: {where.netloc}\r\nOrigin: {origin}\r\n"
                f"User-Agent: Mozilla/5.0 (bench)\r\nContent-Type: text/plain\r\nContent-Length: {len(body)}\r\n\r\n"
            )
            writer.write(head.encode() + body)
            answer = await reader.readuntil(b"\r\n\r\n")
            length = int(answer.lower().split(b"content-length:")[1].split(b"\r\n")[0])
            got = await reader.readexactly(length)
            assert b" 200 " in answer, (answer, got)
            waits.append((time.perf_counter() - began) * 1000)
        writer.close()

    async def run() -> float:
        began = time.perf_counter()
        await asyncio.gather(*(worker(edges[n % len(edges)]) for n in range(CONNECTIONS)))
        return time.perf_counter() - began

    seconds = asyncio.run(run())
    return len(bodies) * EVENTS / seconds, waits
