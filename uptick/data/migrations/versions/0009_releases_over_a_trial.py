"""A trial keeps which releases changed its buttons while it ran."""

import sqlalchemy as sa
from alembic import op

revision = "0009"
down_revision = "0008"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("trials", sa.Column("mixed_by", sa.ARRAY(sa.Integer), nullable=False, server_default="{}"))


def downgrade() -> None:
    op.drop_column("trials", "mixed_by")
