"""Writes the studio API's OpenAPI description to the file that the front end's types are made from."""

import json
from contextlib import nullcontext
from pathlib import Path
from typing import Any, cast

from itsdangerous import URLSafeSerializer

from uptick.core.button.fields import BY_PATH, WHOLE_FIELDS, limits_of
from uptick.core.button.look import STATES
from uptick.core.words.wording import LIVE_VALUES
from uptick.web.app import create_app
from uptick.web.parts import Parts

TARGET = Path(__file__).resolve().parent.parent / "studio" / "openapi.json"


def described() -> dict[str, Any]:
    nothing = cast(Any, nullcontext)
    parts = Parts(
        nothing,
        nothing,
        nothing,
        nothing,
        nothing,
        nothing,
        URLSafeSerializer("x"),
        nothing,
        Path("-"),
        Path("-"),
        {},
        "",
        "",
        engine=nothing,
    )
    return create_app(parts).openapi()


FACTS = TARGET.parent / "src" / "lib" / "pure" / "facts.ts"


def facts() -> str:
    """Return what the studio knows of fields besides their types, as TypeScript."""
    limits = {path: list(found) for path in BY_PATH if (found := limits_of(path))}
    told: dict[str, Any] = {
        "STATES": list(STATES),
        "WHOLE_FIELDS": list(WHOLE_FIELDS),
        "LIMITS": limits,
        "LIVE_VALUES": list(LIVE_VALUES),
    }
    head = "// Written by scripts/openapi.py from the registry of fields. Do not change it by hand."
    lines = [f"export const {name} = {json.dumps(value)} as const;" for name, value in told.items()]
    return "\n".join([head, *lines]) + "\n"


if __name__ == "__main__":
    TARGET.write_text(json.dumps(described(), indent=1, sort_keys=True) + "\n")
    FACTS.write_text(facts())
