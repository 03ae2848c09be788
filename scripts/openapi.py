"""Writes the studio API's OpenAPI description to the file that the front end's types are made from."""

import json
from contextlib import nullcontext
from pathlib import Path
from typing import Any, cast

from itsdangerous import URLSafeSerializer

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


if __name__ == "__main__":
    TARGET.write_text(json.dumps(described(), indent=1, sort_keys=True) + "\n")
