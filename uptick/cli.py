"""The command line: what the studio does, without screens. Exits 0, 1 (found something) or 2 (bad input)."""

import json
import sys
from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from dataclasses import asdict
from pathlib import Path
from typing import Annotated, Any

import httpx2
import typer
from rich.console import Console
from rich.progress import BarColumn, Progress, TextColumn, TimeRemainingColumn
from rich.table import Table
from sqlalchemy.exc import OperationalError

from uptick.core import colour
from uptick.core.errors import AppError, OutOfRange
from uptick.core.trial import assign as assigning
from uptick.usecases import importing, publish, trials
from uptick.usecases.ports import Person, Shop
from uptick.wiring import Environment, Wiring, clock

app = typer.Typer(help="Purchase buttons without screens.", no_args_is_help=True, pretty_exceptions_enable=False)
calc = typer.Typer(help="Compute on plain numbers.", no_args_is_help=True)
app.add_typer(calc, name="calc")

AsJson = Annotated[bool, typer.Option("--json", help="Print JSON for programs.")]
StoreKey = Annotated[str, typer.Option("--store", help="The store's key.")]
_HERE = Person(0, "command line", "", ())


def _say(values: dict[str, Any], as_json: bool) -> None:
    if as_json:
        print(json.dumps(values, default=str))
        return
    table = Table(show_header=False, box=None, pad_edge=False)
    for name, value in values.items():
        table.add_row(
            name.replace("_", " "), f"{value:,.4f}".rstrip("0").rstrip(".") if isinstance(value, float) else str(value)
        )
    Console().print(table)


@contextmanager
def _shop(store: str) -> Iterator[Shop]:
    wiring = Wiring()
    try:
        with wiring.open_shop(store) as shop:
            yield shop
    finally:
        wiring.engine.dispose()


def _ratio(text: str) -> tuple[int, int]:
    hits, _, tries = text.partition("/")
    if not hits.isdigit() or not tries.isdigit():
        raise OutOfRange.of("a count", "written as 56/70, hits of tries", repr(text))
    return int(hits), int(tries)


@calc.command()
def contrast(one: str, other: str, as_json: AsJson = False) -> None:
    """Contrast of two colours (WCAG 2.2). Exits 1 when words of usual size could not be read."""
    ratio = colour.contrast_ratio(one, other)
    shown = int(ratio * 100) / 100
    _say({"ratio": shown, "usual_text": ratio >= 4.5, "large_text": ratio >= 3}, as_json)
    if ratio < 4.5:
        raise typer.Exit(1)


@calc.command()
def interval(
    rate: Annotated[str, typer.Argument(help="As 81/263.")], level: float = 0.95, as_json: AsJson = False
) -> None:
    """A rate with its Wilson interval."""
    from uptick.core.trial.proportion import wilson_interval

    _say(_rounded(asdict(wilson_interval(*_ratio(rate), level=level))), as_json)


@calc.command()
def compare(one: str, other: str, level: float = 0.95, as_json: AsJson = False) -> None:
    """The difference of two rates, the first less the second, with Newcombe's interval."""
    from uptick.core.trial.proportion import newcombe_difference

    found = newcombe_difference(*_ratio(one), *_ratio(other), level=level)
    values = {"difference": found.estimate, "low": found.low, "high": found.high, "level": level}
    _say(_rounded(values), as_json)


@calc.command()
def plan(
    rate: Annotated[float, typer.Option(help="What A converts now, as a share.")],
    to: Annotated[float, typer.Option(help="The rate that would be worth having.")],
    alpha: float = 0.05,
    power: float = 0.8,
    as_json: AsJson = False,
) -> None:
    """Shoppers that each of two versions needs, looked at once."""
    from uptick.core.trial.plan import shoppers_per_version

    each = shoppers_per_version(rate, to, alpha=alpha, power=power)
    _say({"per_version": each, "total": 2 * each, "alpha": alpha, "power": power}, as_json)


@calc.command()
def split(
    observed: list[int], shares: Annotated[str, typer.Option(help="As 50,50.")] = "", as_json: AsJson = False
) -> None:
    """The split check. Exits 1 when the split is broken."""
    from uptick.core.trial.split import check_split

    try:
        weights = [float(part) for part in shares.split(",")] if shares else None
    except ValueError:
        raise OutOfRange.of("--shares", "numbers divided by commas", repr(shares)) from None
    found = check_split(observed, weights)
    _say({"p_value": found.p_value, "statistic": found.statistic, "holds": found.holds}, as_json)
    if not found.holds:
        raise typer.Exit(1)


@calc.command()
def assign(salt: str, shopper: str, as_json: AsJson = False) -> None:
    """The version that a shopper gets under a salt, half and half."""
    letter = assigning.assign_version(salt, shopper, {"A": 5000, "B": 5000})
    _say({"version": letter, "hash": f"{assigning.hash_share(salt, shopper):08x}"}, as_json)


def _rounded(values: dict[str, float]) -> dict[str, float]:
    return {name: round(value, 10) for name, value in values.items()}


@app.command("import")
def import_(
    file: Annotated[Path, typer.Argument(help="A CSV file, or - for standard input.")],
    store: StoreKey = "thornmere",
    dry_run: bool = False,
    as_json: AsJson = False,
) -> None:
    """Take a catalogue in and say what was new, changed and refused. Exits 1 when a line was refused."""
    try:
        content = sys.stdin.buffer.read() if str(file) == "-" else file.read_bytes()
    except OSError as error:
        raise OutOfRange.of("the file", "a readable file", f"{file}: {error.strerror}") from error
    with _shop(store) as shop:
        report = importing.import_catalogue(shop, content, _HERE, clock(), dry_run=dry_run)
    if as_json:
        print(json.dumps(asdict(report)))
    else:
        for change in report.new:
            print(f"line {change.line}: new {change.sku}")
        for change in report.changed:
            print(f"line {change.line}: changed {change.sku} ({', '.join(change.fields)})")
        for refusal in report.refused:
            print(f"line {refusal.line}: refused, {refusal.reason}")
        print(
            f"{report.counts.new} new, {report.counts.changed} changed, {report.counts.unchanged} unchanged, "
            f"{report.counts.missing} not in the file, {report.counts.refused} refused"
            + (" (nothing applied)" if dry_run else "")
        )
    if report.refused:
        raise typer.Exit(1)


@app.command()
def release(
    store: StoreKey = "thornmere",
    note: str = "",
    despite: Annotated[list[str] | None, typer.Option(help="findings or trial: go on in spite of them.")] = None,
    as_json: AsJson = False,
) -> None:
    """Release the draft under the next number."""
    with _shop(store) as shop:
        made = publish.publish(shop, note, _HERE, clock(), despite or ())
    _say({"release": made.n, "hash": made.hash, "note": made.note}, as_json)


@app.command()
def readout(trial: int, store: StoreKey = "thornmere", as_json: AsJson = False) -> None:
    """The verdict of a trial, and its numbers once they may be read."""
    with _shop(store) as shop:
        found, counted = trials.read_numbers(shop, trial, clock())
    if as_json:
        print(json.dumps({**asdict(found), "counted": counted}, default=str))
        return
    print(found.verdict.sentence)
    print(
        f"{found.progress.timed_up:,} of {found.progress.planned:,} shoppers, {found.progress.inside:,} still inside."
    )
    if found.reading:
        table = Table("measure", "A", "B", "difference, points")
        for name, gap in found.reading.differences.items():
            rates = [f"{found.reading.rates[name][letter].estimate:.2%}" for letter in ("A", "B")]
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
        found = follow_run(client, wish, quiet=as_json)
    _say({k: found[k] for k in ("state", "shoppers", "signals", "refused")}, as_json)
    if found["state"] != "done":
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
    found: dict[str, Any] = answer.json()
    bar = Progress(
        TextColumn("practice shoppers"), BarColumn(), TextColumn("{task.completed:.0f} %"), TimeRemainingColumn()
    )
    with bar if not quiet else Progress(disable=True) as progress:
        task = progress.add_task("", total=100)
        try:
            while found["state"] == "running":
                sleep(0.25)
                found = client.get(f"/shoppers/runs/{found['id']}").json()
                progress.update(task, completed=found["share"] * 100)
        except KeyboardInterrupt:
            found = client.delete(f"/shoppers/runs/{found['id']}").json()
    return found


def main(arguments: Sequence[str] | None = None) -> None:
    try:
        app(args=list(arguments) if arguments is not None else None)
    except AppError as error:
        print(f"uptick: {error.says}", file=sys.stderr)
        sys.exit(2)
    except OperationalError:
        print("uptick: the database does not answer. Is ./start running?", file=sys.stderr)
        sys.exit(2)
    except httpx2.TransportError as error:
        print(f"uptick: the practice store does not answer ({error}). Is ./start running?", file=sys.stderr)
        sys.exit(2)


if __name__ == "__main__":
    main()
