"""Writes what the front end's types are made from: the studio's API, what the script is told, and facts of both."""

import json
from contextlib import nullcontext
from pathlib import Path
from typing import Any, cast

from itsdangerous import URLSafeSerializer
from pydantic import TypeAdapter

from uptick.core.button.document import DEVICE_FROM_PX, Device, Moment, Situation
from uptick.core.button.fields import BY_PATH, WHOLE_FIELDS, limits_of
from uptick.core.button.look import STATES
from uptick.core.drawing.bar import BAR_CSS
from uptick.core.release import Manifest
from uptick.core.shop.store import WINDOW_HEIGHTS_PX, WINDOWS_PX
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
        nothing,
        URLSafeSerializer("x"),
        nothing,
        Path("-"),
        Path("-"),
        {},
        "",
        "",
        engine=nothing,
        tidy=nothing,
        visit_shop=nothing,
        visit_edge=nothing,
    )
    return create_app(parts).openapi()


FRONT = TARGET.parent.parent
MANIFEST = FRONT / "storefront" / "manifest.json"
FACTS = FRONT / "studio" / "src" / "lib" / "pure" / "facts.ts"
SCRIPT_FACTS = FRONT / "storefront" / "src" / "base" / "facts.ts"
LATER_FACTS = FRONT / "storefront" / "src" / "base" / "later_facts.ts"
_HEAD = "// Written by scripts/openapi.py from the Python core. Do not change it by hand."


def told_to_the_script() -> dict[str, Any]:
    """Return the schema of what the script is told about its store, laid out as an API's description."""
    kinds_of = [(kind.__name__, "serialization", TypeAdapter[Any](kind)) for kind in (Manifest, Moment, Situation)]
    _, schema = TypeAdapter.json_schemas(kinds_of, ref_template="#/components/schemas/{model}")
    return {
        "openapi": "3.1.0",
        "info": {"title": "What the script is told", "version": "1"},
        "paths": {},
        "components": {"schemas": schema["$defs"]},
    }


def facts() -> str:
    """Return what the studio knows besides its types, as TypeScript."""
    limits = {path: list(bounds) for path in BY_PATH if (bounds := limits_of(path))}
    return _as_constants(
        STATES=list(STATES),
        WHOLE_FIELDS=list(WHOLE_FIELDS),
        LIMITS=limits,
        LIVE_VALUES=list(LIVE_VALUES),
        MOMENTS=list(Moment),
        DEVICES=list(Device),
        WINDOWS_PX=WINDOWS_PX,
        WINDOW_HEIGHTS_PX=WINDOW_HEIGHTS_PX,
    )


def script_facts() -> str:
    """Return what the script knows of every store, as TypeScript."""
    # One number each, so that the script's bundler writes the number where the name stands.
    return _as_constants(**{f"{device.upper()}_FROM_PX": px for device, px in DEVICE_FROM_PX.items() if px})


def later_facts() -> str:
    """Return what the script needs of every store once its buttons stand, as TypeScript."""
    return _as_constants(BAR_CSS=BAR_CSS)


def _as_constants(**constants: object) -> str:
    lines = [
        f"export const {name} = {json.dumps(value, ensure_ascii=False)} as const;" for name, value in constants.items()
    ]
    return "\n".join([_HEAD, *lines]) + "\n"


def _write(to: Path, described: dict[str, Any]) -> None:
    to.write_text(json.dumps(described, indent=1, sort_keys=True) + "\n")


if __name__ == "__main__":
    _write(TARGET, described())
    _write(MANIFEST, told_to_the_script())
    FACTS.write_text(facts())
    SCRIPT_FACTS.write_text(script_facts())
    LATER_FACTS.write_text(later_facts())
