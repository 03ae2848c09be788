"""Padding, corners and sizes may be relative to container, type or window: their names no longer say pixels. Pictures."""

import json
from collections.abc import Callable
from typing import Any

from alembic import op
from sqlalchemy import text

revision = "0003"
down_revision = "0002"
branch_labels = None
depends_on = None

_SIDES = ("top", "right", "bottom", "left")


def _renamed(layer: dict[str, Any], back: bool) -> dict[str, Any]:
    """Return a layer with its lengths under their other names."""
    look = dict(layer.get("look") or {})
    if not look:
        return layer
    _move(look, "radius", back)
    if isinstance(look.get("padding"), dict):
        look["padding"] = dict(look["padding"])
        for side in _SIDES:
            _move(look["padding"], side, back)
    if isinstance(look.get("size"), dict):
        look["size"] = dict(look["size"])
        for side in ("width", "height"):
            _move(look["size"], side, back)
    return {**layer, "look": look}


def _move(inside: dict[str, Any], name: str, back: bool) -> None:
    old, new = (name, f"{name}_px") if back else (f"{name}_px", name)
    if old in inside:
        inside[new] = inside.pop(old)


def _settings(settings: dict[str, Any], back: bool) -> dict[str, Any]:
    return {
        **settings,
        "baseline": _renamed(settings["baseline"], back),
        "placements": {place: _renamed(layer, back) for place, layer in settings["placements"].items()},
        "exceptions": [{**rule, "layer": _renamed(rule.get("layer") or {}, back)} for rule in settings["exceptions"]],
    }


def _rewrite(back: bool) -> None:
    db = op.get_bind()
    changes: tuple[tuple[str, str, str, Callable[[dict[str, Any], bool], dict[str, Any]]], ...] = (
        ("draft_steps", "n", "settings", _settings),
        ("releases", "n", "settings", _settings),
        ("trials", "number", "layer", _renamed),
    )
    for table, key, column, change in changes:
        rows = db.execute(text(f"SELECT store_id, {key}, {column} FROM {table}")).all()
        for store, number, content in rows:
            db.execute(
                text(f"UPDATE {table} SET {column} = CAST(:made AS jsonb) WHERE store_id = :store AND {key} = :n"),
                {"made": json.dumps(change(content, back)), "store": store, "n": number},
            )


def upgrade() -> None:
    op.execute("""
        CREATE TABLE pictures (
            store_id INTEGER NOT NULL REFERENCES stores (id) ON DELETE CASCADE,
            hash TEXT NOT NULL,
            name TEXT NOT NULL,
            media_type TEXT NOT NULL,
            width INTEGER NOT NULL,
            height INTEGER NOT NULL,
            content BYTEA NOT NULL,
            author TEXT NOT NULL,
            made_at TIMESTAMPTZ NOT NULL,
            PRIMARY KEY (store_id, hash)
        )
    """)
    _rewrite(back=False)


def downgrade() -> None:
    # Looks that the older form has no words for stay as they are: it refuses them by name until they are changed.
    _rewrite(back=True)
    op.execute("DROP TABLE pictures")
