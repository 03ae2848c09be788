"""A store's connection says how its basket is read; what is served tells when it has changed; looks at live pages."""

import json
from typing import Any

import sqlalchemy as sa
from alembic import op
from sqlalchemy import text
from sqlalchemy.dialects.postgresql import JSONB

revision = "0005"
down_revision = "0004"
branch_labels = None
depends_on = None

_WATCHED = ("stores", "releases", "trial_revisions", "trials")
_TELL = """
CREATE FUNCTION tell_served() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    IF TG_TABLE_NAME = 'stores' THEN
        PERFORM pg_notify('uptick_served', NEW.key);
    ELSE
        PERFORM pg_notify('uptick_served', s.key) FROM stores s WHERE s.id = NEW.store_id;
    END IF;
    RETURN NULL;
END $$
"""


def _rewrite(change: Any) -> None:
    db = op.get_bind()
    for store, raw in db.execute(text("SELECT id, profile FROM stores")).all():
        profile = json.loads(raw) if isinstance(raw, str) else raw
        profile["connection"] = change(profile["connection"])
        db.execute(
            text("UPDATE stores SET profile = CAST(:profile AS jsonb) WHERE id = :store"),
            {"profile": json.dumps(profile), "store": store},
        )


def _read_apart(told: dict[str, Any]) -> dict[str, Any]:
    read = {"kind": "json", "path": told.pop("read_path")}
    told["option_fields"] = [told.pop("option_field")]
    told["basket_path"] = told.get("basket_path") or read["path"]
    return {**told, "read": read}


def _read_with(told: dict[str, Any]) -> dict[str, Any]:
    read = told.pop("read", None) or {}
    options = told.pop("option_fields", None) or ["option"]
    told.pop("token", None)
    return {**told, "read_path": read.get("path", "/basket"), "option_field": options[0]}


def upgrade() -> None:
    _rewrite(_read_apart)
    op.create_table(
        "page_looks",
        sa.Column("id", sa.BigInteger, sa.Identity(always=True), primary_key=True),
        sa.Column("store_id", sa.Integer, sa.ForeignKey("stores.id", ondelete="CASCADE"), nullable=False),
        sa.Column("release", sa.Integer, nullable=False),
        sa.Column("moment", sa.Text, nullable=False),
        sa.Column("made_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("report", JSONB, nullable=False),
    )
    op.create_index("page_looks_newest", "page_looks", ["store_id", "release", "id"])
    op.execute(_TELL)
    for table in _WATCHED:
        op.execute(
            f"CREATE TRIGGER {table}_tell_served AFTER INSERT OR UPDATE ON {table} "
            "FOR EACH ROW EXECUTE FUNCTION tell_served()"
        )


def downgrade() -> None:
    op.drop_table("page_looks")
    for table in _WATCHED:
        op.execute(f"DROP TRIGGER {table}_tell_served ON {table}")
    op.execute("DROP FUNCTION tell_served()")
    _rewrite(_read_with)
