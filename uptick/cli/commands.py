"""All commands together, and how each way of failing ends."""

import sys
from collections.abc import Sequence

import httpx2
import typer
from sqlalchemy.exc import OperationalError

from uptick.cli import ask, calc, files, looks, outcome
from uptick.core.errors import AppError

app = typer.Typer(help="Purchase buttons without screens.", no_args_is_help=True, pretty_exceptions_enable=False)
app.add_typer(calc.app, name="calc")
app.add_typer(looks.app, name="look", help="Looks in and out: CSS, design tokens, JSON.")
for part in (ask, files, outcome):
    app.add_typer(part.app)


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
