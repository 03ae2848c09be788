"""Products with tax, former prices, pre-orders and sets; steps of a history that only grows; signals by situation."""

from alembic import op

revision = "0002"
down_revision = "0001"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.execute("""
        ALTER TABLE products
            ALTER COLUMN price_minor DROP NOT NULL,
            ADD COLUMN tax_percent NUMERIC DEFAULT 0 NOT NULL,
            ADD COLUMN was_minor BIGINT,
            ADD COLUMN pre_order BOOLEAN DEFAULT false NOT NULL,
            ADD COLUMN available_from DATE,
            ADD COLUMN set_of TEXT[] DEFAULT '{}' NOT NULL
    """)
    # What had been undone stays in the old history's tail and would look done: it is taken away.
    op.execute("DELETE FROM draft_steps s USING drafts d WHERE d.store_id = s.store_id AND s.n > d.head")
    op.execute("ALTER TABLE drafts DROP COLUMN newest")
    op.execute("""
        ALTER TABLE draft_steps
            ADD COLUMN person_id INTEGER DEFAULT 0 NOT NULL,
            ADD COLUMN reverts INTEGER
    """)
    op.execute("ALTER TABLE events ADD COLUMN seen_as TEXT DEFAULT '' NOT NULL")
    op.execute("ALTER TABLE day_tallies ADD COLUMN seen_as TEXT DEFAULT '' NOT NULL")
    op.execute("ALTER TABLE day_tallies DROP CONSTRAINT day_tallies_pkey")
    op.execute("ALTER TABLE day_tallies ADD PRIMARY KEY (store_id, day, place, seen_as, kind, part)")
    # Settings that older releases and steps hold lack what has been added since, which has its defaults.


def downgrade() -> None:
    # What the older form cannot hold goes: who made a step, situations of signals, and what products have gained. A
    # product without a price gets 0, since the older form asks for one.
    op.execute("CREATE TEMP TABLE summed ON COMMIT DROP AS SELECT store_id, day, place, kind, part, sum(count) AS count "
               "FROM day_tallies GROUP BY 1, 2, 3, 4, 5")
    op.execute("DELETE FROM day_tallies")
    op.execute("ALTER TABLE day_tallies DROP CONSTRAINT day_tallies_pkey")
    op.execute("ALTER TABLE day_tallies DROP COLUMN seen_as")
    op.execute("ALTER TABLE day_tallies ADD PRIMARY KEY (store_id, day, place, kind, part)")
    op.execute("INSERT INTO day_tallies (store_id, day, place, kind, part, count) SELECT * FROM summed")
    op.execute("ALTER TABLE events DROP COLUMN seen_as")
    op.execute("ALTER TABLE draft_steps DROP COLUMN person_id, DROP COLUMN reverts")
    op.execute("ALTER TABLE drafts ADD COLUMN newest INTEGER")
    op.execute("UPDATE drafts SET newest = head")
    op.execute("ALTER TABLE drafts ALTER COLUMN newest SET NOT NULL")
    op.execute("UPDATE products SET price_minor = 0 WHERE price_minor IS NULL")
    op.execute("""
        ALTER TABLE products
            ALTER COLUMN price_minor SET NOT NULL,
            DROP COLUMN tax_percent,
            DROP COLUMN was_minor,
            DROP COLUMN pre_order,
            DROP COLUMN available_from,
            DROP COLUMN set_of
    """)
