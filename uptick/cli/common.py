"""What the commands that open a store share."""

import sys
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Annotated

import typer

from uptick.core.errors import OutOfRange
from uptick.core.shop.store import Store
from uptick.usecases.ports import Person, Shop
from uptick.usecases.visiting import ShopVisit
from uptick.wiring import Wiring

StoreKey = Annotated[str, typer.Option("--store", help="The store's key.")]
HERE = Person(0, "command line", "", ())


def read_file(file: Path) -> bytes:
    """Return what a file holds, or standard input for `-`.

    Raises:
        OutOfRange: It cannot be read.
    """
    try:
        return sys.stdin.buffer.read() if str(file) == "-" else file.read_bytes()
    except (OSError, ValueError) as error:
        why = error.strerror if isinstance(error, OSError) else str(error)
        raise OutOfRange.of("the file", "a readable file", f"{file}: {why}") from error


def require_code(product: str) -> str:
    """Return a product's code that has been asked for.

    Raises:
        OutOfRange: It is empty.
    """
    if not product.strip():
        raise OutOfRange.of("--product", "the code of a product, as HV-CEDAR", "empty")
    return product


@contextmanager
def _wired() -> Iterator[Wiring]:
    wiring = Wiring()
    try:
        yield wiring
    finally:
        wiring.engine.dispose()


@contextmanager
def open_shop(store: str) -> Iterator[Shop]:
    """Open a store for one command; the draft and the release are those of that moment."""
    with _wired() as wiring, wiring.open_shop(store) as shop:
        yield shop


@contextmanager
def visit_shop(store: Store) -> Iterator[ShopVisit]:
    """Visit a store's own pages, on this machine only where a setting names them."""
    with _wired() as wiring, wiring.visit_shop(store) as visit:
        yield visit
