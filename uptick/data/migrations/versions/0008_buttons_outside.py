"""Buttons that are handed out for pages and mails that are not the shop's, their pictures, and presses by day."""

import sqlalchemy as sa
from alembic import op

revision = "0008"
down_revision = "0007"
branch_labels = None
depends_on = None


def _store_key() -> sa.Column[int]:
    return sa.Column("store_id", sa.Integer, sa.ForeignKey("stores.id", ondelete="CASCADE"), primary_key=True)


def upgrade() -> None:
    op.create_table(
        "outside_buttons",
        _store_key(),
        sa.Column("id", sa.Text, primary_key=True),
        sa.Column("sku", sa.Text, nullable=False),
        sa.Column("kind", sa.Text, nullable=False),
        sa.Column("drawn", sa.Text, nullable=False),
        sa.Column("campaign", sa.Text, nullable=False),
        sa.Column("language", sa.Text, nullable=False),
        sa.Column("leads", sa.Text, nullable=False),
        sa.Column("across", sa.SmallInteger, nullable=False),
        sa.Column("words", sa.Text, nullable=False),
        sa.Column("looks", sa.Text, nullable=False),
        sa.Column("author", sa.Text, nullable=False),
        sa.Column("made_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("copied_at", sa.DateTime(timezone=True)),
    )
    op.create_table(
        "outside_presses",
        _store_key(),
        sa.Column("id", sa.Text, primary_key=True),
        sa.Column("day", sa.Date, primary_key=True),
        sa.Column("presses", sa.Integer, nullable=False),
    )
    op.create_table(
        "outside_pictures",
        sa.Column("hash", sa.Text, primary_key=True),
        sa.Column("media_type", sa.Text, nullable=False),
        sa.Column("content", sa.LargeBinary, nullable=False),
    )


def downgrade() -> None:
    op.drop_table("outside_pictures")
    op.drop_table("outside_presses")
    op.drop_table("outside_buttons")
