"""The command line: what the studio does, without screens. Exits 0, 1 (found something) or 2 (bad input)."""

from uptick.cli.commands import main

__all__ = ["main"]
