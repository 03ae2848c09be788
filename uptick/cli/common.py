"""What the commands share: how they open a store and how they print."""

import json
import sys
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Annotated, Any

import typer
from rich.console import Console
from rich.table import Table

from uptick.core.errors import OutOfRange
from uptick.usecases.ports import Person, Shop
from uptick.wiring import Wiring

AsJson = Annotated[bool, typer.Option("--json", help="Print JSON for programs.")]
StoreKey = Annotated[str, typer.Option("--store", help="The store's key.")]
HERE = Person(0, "command line", "", ())


def say(values: dict[str, Any], as_json: bool) -> None:
    if as_json:
        print(json.dumps(values, default=str))
        return
    table = Table(show_header=False, box=None, pad_edge=False)
    for name, value in values.items():
        table.add_row(
            name.replace("_", " "), f"{value:,.4f}".rstrip("0").rstrip(".") if isinstance(value, float) else str(value)
        )
    Console().print(table)


def read_file(file: Path) -> bytes:
    """Return what a file holds, or standard input for `-`.

    Raises:
        OutOfRange: It cannot be read.
    """
    try:
        return sys.stdin.buffer.read() if str(file) == "-" else file.read_bytes()
    except OSError as error:
        raise OutOfRange.of("the file", "a readable file", f"{file}: {error.strerror}") from error


@contextmanager
def open_shop(store: str) -> Iterator[Shop]:
    wiring = Wiring()
    try:
        with wiring.open_shop(store) as shop:
            yield shop
    finally:
        wiring.engine.dispose()
