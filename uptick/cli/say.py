"""How the commands print, for people and for programs. Nothing here takes long to load."""

import json
from typing import Annotated, Any

import typer

AsJson = Annotated[bool, typer.Option("--json", help="Print JSON for programs.")]


def say(values: dict[str, Any], as_json: bool) -> None:
    """Print values as lines of name and value, or as one line of JSON."""
    if as_json:
        print(json.dumps(values, default=str, allow_nan=False))
        return
    wide = max(len(name) for name in values)
    for name, value in values.items():
        shown = _figure(value) if isinstance(value, float) else str(value)
        print(f"{name.replace('_', ' '):<{wide}}  {shown}")


def _figure(value: float) -> str:
    plain = f"{value:,.4f}".rstrip("0").rstrip(".")
    return f"{value:.4g}" if value and plain in ("0", "-0") else plain
