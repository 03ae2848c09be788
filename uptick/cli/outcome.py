"""Releases, readouts and practice shoppers."""

import json
from dataclasses import asdict
from typing import Annotated, Any

import httpx2
import typer
from rich.console import Console
from rich.progress import BarColumn, Progress, TextColumn, TimeRemainingColumn
from rich.table import Table

from uptick.cli.common import HERE, StoreKey, open_shop
from uptick.cli.say import AsJson, say
from uptick.core.errors import OutOfRange
from uptick.usecases import publish, trials
from uptick.wiring import Environment, clock

app = typer.Typer()
Number = Annotated[int, typer.Argument(min=1, max=2**31 - 1, help="The trial's number.")]


@app.command()
def release(
    store: StoreKey = "thornmere",
    note: str = "",
    despite: Annotated[list[str] | None, typer.Option(help="findings or trial: go on in spite of them.")] = None,
    password: Annotated[str, typer.Option(help="The password that closes the shop, where one does.")] = "",
    no_look: Annotated[bool, typer.Option("--no-look", help="Do not look at the live pages before and after.")] = False,
    as_json: AsJson = False,
) -> None:
    """Release the draft under the next number, and look whether the live pages show it."""
    # What visits pages takes a while to load, and no other command here needs it.
    from uptick.cli.shop import look

    with open_shop(store) as shop:
        is_first = shop.releases.newest() is None
    if not no_look and not is_first:
        look(store, password, "before")
    with open_shop(store) as shop:
        published = publish.publish(shop, note, HERE, clock(), despite or ())
    answer = {"release": published.n, "hash": published.hash, "note": published.note}
    say(answer if no_look else {**answer, "seen": look(store, password, "after").sentence}, as_json)


@app.command()
def readout(trial: Number, store: StoreKey = "thornmere", as_json: AsJson = False) -> None:
    """The verdict of a trial, and its numbers once they may be read."""
    with open_shop(store) as shop:
        numbers, counted = trials.read_numbers(shop, trial, clock())
    if as_json:
        print(json.dumps({**asdict(numbers), "counted": counted}, default=str))
        return
    print(numbers.verdict.sentence)
    progress = numbers.progress
    print(f"{progress.timed_up:,} of {progress.planned:,} shoppers, {progress.inside:,} still inside.")
    if numbers.reading:
        table = Table("measure", "A", "B", "difference, points")
        for name, gap in numbers.reading.differences.items():
            rates = [f"{numbers.reading.rates[name][letter].estimate:.2%}" for letter in ("A", "B")]
            table.add_row(name, *rates, f"{gap.estimate * 100:+.2f} ({gap.low * 100:+.2f} to {gap.high * 100:+.2f})")
        Console().print(table)


@app.command()
def simulate(
    days: Annotated[int, typer.Option(help="How many past days, up to now.")] = 14,
    shoppers: Annotated[int, typer.Option(help="Shoppers a day.")] = 160,
    a: Annotated[str, typer.Option(help="A's true rates: clicked,added,ordered.")] = "0.40,0.30,0.10",
    b: Annotated[str, typer.Option(help="B's true rates.")] = "0.46,0.36,0.12",
    seed: int = 1,
    practice: Annotated[str, typer.Option(help="The practice store's address.")] = "",
    as_json: AsJson = False,
) -> None:
    """Send practice shoppers through the edge; Ctrl-C stops them."""
    from datetime import timedelta

    now = clock()
    origin = practice or Environment().practice_origin
    wish = {
        "start": (now - timedelta(days=days)).isoformat(),
        "end": now.isoformat(),
        "shoppers_per_day": shoppers,
        "seed": seed,
        "rates": {"A": _rates(a), "B": _rates(b)},
    }
    with httpx2.Client(base_url=origin, timeout=30) as client:
        run = follow_run(client, wish, quiet=as_json)
    say({k: run[k] for k in ("state", "shoppers", "signals", "refused")}, as_json)
    if run["state"] != "done":
        raise typer.Exit(1)


def _rates(text: str) -> dict[str, float]:
    try:
        clicked, added, ordered = (float(part) for part in text.split(","))
    except ValueError:
        raise OutOfRange.of("rates", "three shares as 0.40,0.30,0.10", repr(text)) from None
    return {"clicked": clicked, "added": added, "ordered": ordered}


def follow_run(client: Any, wish: dict[str, Any], *, quiet: bool = False) -> dict[str, Any]:
    """Start a run of practice shoppers and follow it to its end; an interruption stops it."""
    from time import sleep

    answer = client.post("/shoppers/runs", json=wish)
    if answer.status_code != 201:
        raise OutOfRange(f"The practice store refused: {answer.text}")
    run: dict[str, Any] = answer.json()
    bar = Progress(
        TextColumn("practice shoppers"),
        BarColumn(),
        TextColumn("{task.completed:.0f} %"),
        TimeRemainingColumn(),
        console=Console(stderr=True),
    )
    with bar if not quiet else Progress(disable=True) as progress:
        task = progress.add_task("", total=100)
        try:
            while run["state"] == "running":
                sleep(0.25)
                run = client.get(f"/shoppers/runs/{run['id']}").json()
                progress.update(task, completed=run["share"] * 100)
        except KeyboardInterrupt:
            run = client.delete(f"/shoppers/runs/{run['id']}").json()
    return run
