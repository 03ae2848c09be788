"""The newest study of a shop along its pages is kept, with the draft's version that it is about."""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB

revision = "0007"
down_revision = "0006"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "studies",
        sa.Column("store_id", sa.Integer, sa.ForeignKey("stores.id", ondelete="CASCADE"), primary_key=True),
        sa.Column("made_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("author", sa.Text, nullable=False),
        sa.Column("study", JSONB, nullable=False),
    )


def downgrade() -> None:
    op.drop_table("studies")
