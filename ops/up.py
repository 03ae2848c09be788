"""Starts everything and stops it again: what `./start` runs once all is installed."""

import argparse
import os
import secrets
import shutil
import signal
import sys
import threading

from ops import cluster, demo
from ops.cluster import ROOT, CannotStart, write_private
from ops.parts import Parts, prepare
from uptick.wiring import Environment, Wiring

FIRST_PORT = 8800
LOCAL = ROOT / ".local"


def _say(text: str) -> None:
    print(f"  {text}", flush=True)


def _secret() -> str:
    file = LOCAL / "secret"
    if not file.exists():
        write_private(file, secrets.token_hex(32))
    return file.read_text()


def _start(parts: Parts, *, empty: bool) -> None:
    parts.start_all()
    os.environ.update(parts.environment)
    wiring = Wiring(Environment())
    demo.begin(wiring, empty=empty, say=lambda what: _say(f"demo: {what}"), row=True)
    wiring.engine.dispose()


def _print_where(parts: Parts) -> None:
    where = parts.addresses
    if not where.studio.endswith(f":{FIRST_PORT}"):
        _say(f"Port {FIRST_PORT} is taken, so others are used.")
    print(
        f"\n  Studio          {where.studio}\n"
        f"                  sign in as {demo.EMAIL} with {demo.PASSWORD}\n"
        f"  Practice store  {where.practice}\n"
        f"                  its practice shoppers: {where.practice}/shoppers\n"
        f"  Edge            {where.edge}/s/{demo.KEY}/up.js\n\n"
        f"  Logs are in {parts.logs}. Ctrl-C stops everything.\n",
        flush=True,
    )


def main() -> int:
    parser = argparse.ArgumentParser(prog="./start", description="Start Up Tick with its practice store.")
    parser.add_argument("--fresh", action="store_true", help="begin again: delete the database first")
    parser.add_argument("--empty", action="store_true", help="without demo data")
    wish = parser.parse_args()
    LOCAL.mkdir(exist_ok=True)
    folder = cluster.place_for("pg")
    if wish.fresh or wish.empty:
        cluster.remove(folder)
        (LOCAL / "practice.db").unlink(missing_ok=True)
        shutil.rmtree(LOCAL / "logs", ignore_errors=True)
    stopping = threading.Event()
    for number in (signal.SIGINT, signal.SIGTERM):
        signal.signal(number, lambda *_: stopping.set())
    running = parts = None
    try:
        _say("database")
        running = cluster.start(folder, FIRST_PORT + 5)
        parts = prepare(running, "uptick", _secret(), LOCAL / "logs", FIRST_PORT, str(LOCAL / "practice.db"))
        _say("servers")
        _start(parts, empty=wish.empty)
        write_private(LOCAL / "environment", "".join(f"{k}={v}\n" for k, v in parts.environment.items()))
        _print_where(parts)
        while not stopping.wait(0.5):
            for name, process in parts.processes.items():
                if process.poll() is not None:
                    print(
                        f"\nThe {name} ended by itself (exit code {process.returncode}), so Up Tick stops. "
                        f"Its log is {parts.logs / name}.log. What was saved is kept; run ./start again.",
                        file=sys.stderr,
                    )
                    return 1
    except CannotStart as error:
        print(f"\nUp Tick could not start. {error}", file=sys.stderr)
        return 1
    finally:
        if parts:
            parts.stop_all()
        if running:
            cluster.stop(running)
        print("  Stopped.", flush=True)
    return 0


if __name__ == "__main__":
    sys.exit(main())
