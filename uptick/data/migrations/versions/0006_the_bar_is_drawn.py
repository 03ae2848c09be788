"""A bar says itself what it holds: whether a name and a price stand beside its button was said of the placement."""

import json
from typing import Any

from alembic import op
from sqlalchemy import text

revision = "0006"
down_revision = "0005"
branch_labels = None
depends_on = None

_HELD = ("name", "price")


def _forward(layer: dict[str, Any]) -> dict[str, Any]:
    """Say by the bar's parts what a layer said by `placement.name` and `placement.price`."""
    told = dict(layer.get("placement") or {})
    said = {name: told.pop(name) for name in _HELD if name in told}
    if not said:
        return layer
    made = {key: value for key, value in layer.items() if key != "placement"}
    if told:
        made["placement"] = told
    parts = [name for name in _HELD if said.get(name) is not False]
    return {**made, "bar": {"parts": [*parts, "button"]}}


def _backward(layer: dict[str, Any]) -> dict[str, Any]:
    bar = layer.get("bar")
    if bar is None:
        return layer
    made = {key: value for key, value in layer.items() if key != "bar"}
    if "parts" in bar:
        held = {name: name in bar["parts"] for name in _HELD}
        made["placement"] = {**(layer.get("placement") or {}), **held}
    return made


def _layers(settings: dict[str, Any], change: Any) -> dict[str, Any]:
    return {
        **settings,
        "baseline": change(settings["baseline"]),
        "placements": {place: change(layer) for place, layer in settings.get("placements", {}).items()},
        "exceptions": [{**rule, "layer": change(rule.get("layer", {}))} for rule in settings.get("exceptions", [])],
        "looks": {
            key: {**look, "layer": change(look.get("layer", {}))} for key, look in settings.get("looks", {}).items()
        },
    }


def _rewrite(change: Any) -> None:
    db = op.get_bind()
    for table in ("draft_steps", "releases"):
        for store, n, raw in db.execute(text(f"SELECT store_id, n, settings FROM {table}")).all():
            before = json.loads(raw) if isinstance(raw, str) else raw
            after = _layers(before, change)
            if after != before:
                db.execute(
                    text(f"UPDATE {table} SET settings = CAST(:settings AS jsonb) WHERE store_id = :store AND n = :n"),
                    {"settings": json.dumps(after), "store": store, "n": n},
                )
    for store, number, raw in db.execute(text("SELECT store_id, number, layer FROM trials")).all():
        before = json.loads(raw) if isinstance(raw, str) else raw
        if (after := change(before)) != before:
            db.execute(
                text("UPDATE trials SET layer = CAST(:layer AS jsonb) WHERE store_id = :store AND number = :number"),
                {"layer": json.dumps(after), "store": store, "number": number},
            )


def upgrade() -> None:
    _rewrite(_forward)


def downgrade() -> None:
    _rewrite(_backward)
