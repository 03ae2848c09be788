"""Amounts by their currency's digits, orders by shopper, and what a trial's reach is decided by.

Amounts had two digits whatever the currency; an order line that anybody had claimed kept the real one out; signals did
not tell the situation under "in the basket" nor the kind of shopper; a trial's products changed with the catalogue.
"""

import json

from alembic import op
from babel.numbers import get_currency_precision
from sqlalchemy import text

revision = "0004"
down_revision = "0003"
branch_labels = None
depends_on = None


def _rescale(sign: int) -> None:
    """Write amounts with their currency's digits after the point instead of two, or back."""
    db = op.get_bind()
    for currency in db.execute(text("SELECT DISTINCT currency FROM products")).scalars().all():
        digits = get_currency_precision(currency)
        if digits != 2:
            values = {"factor": 10 ** abs(digits - 2), "currency": currency}
            grows = (digits > 2) == (sign > 0)
            change = "{0} = {0} * :factor" if grows else "{0} = round({0}::numeric / :factor)"
            columns = ", ".join(change.format(column) for column in ("price_minor", "was_minor"))
            db.execute(text(f"UPDATE products SET {columns} WHERE currency = :currency"), values)
            db.execute(text("UPDATE stores SET catalogue_stamp = gen_random_uuid()"))


def _freeze_running() -> None:
    """Keep the products that each trial has counted until now."""
    db = op.get_bind()
    started = db.execute(text("SELECT store_id, number, reach FROM trials WHERE started_at IS NOT NULL")).all()
    for store, number, raw in started:
        reach = json.loads(raw) if isinstance(raw, str) else raw
        wanted = [set(reach.get(name) or ()) for name in ("products", "categories", "not_products", "not_categories")]
        if not any(wanted):
            continue
        goods = db.execute(text("SELECT sku, category FROM products WHERE store_id = :store"), {"store": store}).all()
        codes, categories, no_codes, no_categories = wanted
        covered = [
            sku
            for sku, category in goods
            if (not codes or sku in codes)
            and (not categories or category in categories)
            and sku not in no_codes
            and category not in no_categories
        ]
        db.execute(
            text("UPDATE trials SET covered = :covered WHERE store_id = :store AND number = :number"),
            {"covered": covered, "store": store, "number": number},
        )


def upgrade() -> None:
    _rescale(1)
    op.execute("ALTER TABLE trials ADD COLUMN covered TEXT[], ADD COLUMN version INTEGER DEFAULT 1 NOT NULL")
    _freeze_running()
    op.execute("""
        ALTER TABLE events
            ALTER COLUMN value_minor DROP NOT NULL,
            ADD COLUMN situation TEXT DEFAULT '' NOT NULL,
            ADD COLUMN shopper_kind TEXT DEFAULT '' NOT NULL
    """)
    op.execute("UPDATE events SET situation = seen_as WHERE seen_as <> 'in_basket' AND seen_as <> ''")
    op.execute("ALTER TABLE order_lines ADD COLUMN shopper TEXT DEFAULT '' NOT NULL")
    op.execute("""
        UPDATE order_lines o SET shopper = e.shopper FROM events e
        WHERE e.store_id = o.store_id AND e.id = o.event_id AND e.kind = 'ordered'
    """)
    op.execute("ALTER TABLE order_lines DROP CONSTRAINT order_lines_pkey")
    op.execute("ALTER TABLE order_lines ADD PRIMARY KEY (store_id, order_no, line, shopper)")


def downgrade() -> None:
    # Of several claims to one order line the first stays; amounts that were not told become 0, as they were before.
    op.execute("""
        DELETE FROM order_lines o USING order_lines other
        WHERE other.store_id = o.store_id AND other.order_no = o.order_no AND other.line = o.line
            AND other.event_id < o.event_id
    """)
    op.execute("ALTER TABLE order_lines DROP CONSTRAINT order_lines_pkey")
    op.execute("ALTER TABLE order_lines DROP COLUMN shopper")
    op.execute("ALTER TABLE order_lines ADD PRIMARY KEY (store_id, order_no, line)")
    op.execute("UPDATE events SET value_minor = 0 WHERE value_minor IS NULL")
    op.execute("""
        ALTER TABLE events
            ALTER COLUMN value_minor SET NOT NULL,
            DROP COLUMN situation,
            DROP COLUMN shopper_kind
    """)
    op.execute("ALTER TABLE trials DROP COLUMN covered, DROP COLUMN version")
    _rescale(-1)
