"""All commands together, each loaded when it is called, and how each way of failing ends."""

import sys
import traceback
from collections.abc import Sequence
from importlib import import_module
from typing import Any

import typer
from typer.core import TyperGroup

from uptick.core.errors import AppError

# Which module has which command: `calc` must not wait for what asks the database to be loaded.
_MODULES = {
    "calc": "calc",
    "look": "looks",
    "resolve": "ask",
    "trace": "ask",
    "check": "ask",
    "import": "files",
    "export": "files",
    "release": "outcome",
    "readout": "outcome",
    "simulate": "outcome",
    "connect": "shop",
    "pages": "shop",
    "collect": "shop",
    "study": "shop",
    "outside": "outside",
}
_GROUPS = {"calc", "look"}


class _Lazy(TyperGroup):
    """A group whose commands are loaded by name.

    Source:
        Click's documentation, "Lazily Loading Subcommands".
    """

    def list_commands(self, ctx: Any) -> list[str]:
        return list(_MODULES)

    def get_command(self, ctx: Any, cmd_name: str) -> Any:
        if cmd_name not in _MODULES:
            return None
        command: Any = typer.main.get_group(import_module(f"uptick.cli.{_MODULES[cmd_name]}").app)
        if cmd_name in _GROUPS:
            command.name = cmd_name
            return command
        return command.commands[cmd_name]


app = typer.Typer(cls=_Lazy, help="Purchase buttons without screens.", no_args_is_help=True,
                  pretty_exceptions_enable=False)  # fmt: skip


@app.callback()
def _all() -> None:
    """Purchase buttons without screens."""


def main(arguments: Sequence[str] | None = None) -> None:
    """Run one command. Exits 0, 1 where it found something, 2 where it could not run."""
    try:
        app(args=list(arguments) if arguments is not None else None)
    except AppError as error:
        _end(error.says)
    except Exception as error:
        _end(_known(error) or _told(error))


def _end(says: str) -> None:
    print(f"uptick: {says}", file=sys.stderr)
    sys.exit(2)


def _known(error: Exception) -> str:
    """Return what a failure of something outside means; nothing for one of ours. The name is looked at, not the class,
    which would have to be loaded first."""
    match f"{type(error).__module__.partition('.')[0]}.{type(error).__name__}":
        case "sqlalchemy.OperationalError":
            return "the database does not answer. Is ./start running?"
        case name if name.startswith(("httpx2.", "httpcore")):
            return f"the practice store does not answer ({error}). Is ./start running?"
    return ""


def _told(error: Exception) -> str:
    frame = traceback.extract_tb(error.__traceback__)[-1]
    where = f"{frame.filename.rpartition('/')[2]}:{frame.lineno}"
    return f"it could not be done, and that is a fault of ours: {type(error).__name__}: {str(error)[:200]} ({where})"
