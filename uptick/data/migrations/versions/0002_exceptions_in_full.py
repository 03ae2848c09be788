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
    raise NotImplementedError("A step back would lose what has been written since.")
