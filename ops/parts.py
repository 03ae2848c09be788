"""The three servers as child processes, with the database that they share."""

import os
import signal
import subprocess
import sys
import time
import urllib.error
import urllib.request
from dataclasses import dataclass, field
from pathlib import Path
from typing import IO

from sqlalchemy import create_engine, text
from sqlalchemy.exc import ProgrammingError

from ops.cluster import ROOT, CannotStart, Cluster, free_port
from uptick.data.database import make_engine, migrate


@dataclass(frozen=True, slots=True)
class Addresses:
    studio: str
    edge: str
    practice: str


# The practice store first, whose catalogue the demo fetches.
FACTORIES = {
    "practice": "practice.app:from_environment",
    "edge": "uptick.main:edge",
    "studio": "uptick.main:studio",
}


@dataclass(slots=True)
class Parts:
    """Everything that runs. Each part writes its log beside the others."""

    addresses: Addresses
    environment: dict[str, str]
    logs: Path
    processes: dict[str, "subprocess.Popen[bytes]"] = field(default_factory=dict)
    _files: list[IO[bytes]] = field(default_factory=list)

    def start_all(self) -> None:
        """Start every part together and wait until all answer.

        Raises:
            CannotStart: One of them did not.
        """
        for name, factory in FACTORIES.items():
            self.start(name, factory)
        for name in FACTORIES:
            self.wait_for(name)

    def start(self, name: str, factory: str) -> None:
        origin = getattr(self.addresses, name)
        port = origin.rsplit(":", 1)[1]
        log = (self.logs / f"{name}.log").open("ab")
        self._files.append(log)
        command = [sys.executable, "-m", "uvicorn", "--factory", factory, "--host", "127.0.0.1", "--port", port]
        quiet = ["--log-level", "warning", "--no-access-log", "--no-server-header", "--no-proxy-headers"]
        self.processes[name] = subprocess.Popen(
            [*command, *quiet, "--loop", "uvloop"],
            cwd=ROOT,
            env={**os.environ, **self.environment},
            stdout=log,
            stderr=log,
            # Ctrl-C reaches the whole group; the parts are stopped by us, in order.
            start_new_session=True,
        )

    def wait_for(self, name: str, seconds: float = 40) -> None:
        """Wait until a part answers.

        Raises:
            CannotStart: It ended or did not answer in time; says the end of its log.
        """
        url = getattr(self.addresses, name) + "/health"
        ends = time.monotonic() + seconds
        while time.monotonic() < ends:
            if self.processes[name].poll() is not None:
                break
            try:
                urllib.request.urlopen(url, timeout=2).close()
                return
            except (urllib.error.URLError, OSError):
                time.sleep(0.1)
        tail = (self.logs / f"{name}.log").read_text()[-1500:]
        raise CannotStart(f"The {name} did not start. The end of {self.logs / name}.log:\n{tail}")

    def stop(self, name: str) -> None:
        process = self.processes.pop(name, None)
        if process is None:
            return
        process.send_signal(signal.SIGTERM)
        try:
            process.wait(10)
        except subprocess.TimeoutExpired:
            process.kill()
            process.wait()

    def stop_all(self) -> None:
        for name in reversed(list(self.processes)):
            self.stop(name)
        for file in self._files:
            file.close()


def prepare(cluster: Cluster, database: str, secret: str, logs: Path, first_port: int, practice_db: str) -> Parts:
    """Make and migrate the database, choose ports, and return the parts, not yet started."""
    _make_database(cluster, database)
    engine = make_engine(cluster.url(database))
    migrate(engine)
    engine.dispose()
    ports: list[int] = []
    for n in range(3):
        ports.append(free_port(max([first_port + n, *(port + 1 for port in ports)])))
    # Another host name than the studio's, since cookies know no ports.
    addresses = Addresses(
        f"http://127.0.0.1:{ports[0]}", f"http://127.0.0.1:{ports[1]}", f"http://localhost:{ports[2]}"
    )
    logs.mkdir(parents=True, exist_ok=True)
    environment = {
        "UPTICK_DATABASE_URL": cluster.url(database),
        "UPTICK_SECRET": secret,
        "UPTICK_STUDIO_ORIGIN": addresses.studio,
        "UPTICK_EDGE_ORIGIN": addresses.edge,
        "UPTICK_PRACTICE_ORIGIN": addresses.practice,
        # The practice store and the row beside it, each under a name of its own.
        "UPTICK_LOCAL_SHOPS": f"localhost:{ports[2]},*.localhost:{ports[2]}",
        "PRACTICE_EDGE": addresses.edge,
        "PRACTICE_ORIGIN": addresses.practice,
        "PRACTICE_DATABASE": practice_db,
    }
    return Parts(addresses, environment, logs)


def _make_database(cluster: Cluster, name: str) -> None:
    engine = create_engine(cluster.url("postgres"), isolation_level="AUTOCOMMIT")
    with engine.connect() as connection:
        try:
            connection.execute(text(f"CREATE DATABASE {name}"))
        except ProgrammingError as error:
            if "already exists" not in str(error):
                raise
    engine.dispose()
