"""Recent sets and maxes that the lifter remembers."""

import sqlalchemy as sa
from alembic import op

revision = "0008"
down_revision = "0007"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "remembered",
        sa.Column("id", sa.String(36), nullable=False),
        sa.Column("at", sa.DateTime(), nullable=False),
        sa.Column("bout", sa.JSON(), nullable=False),
        sa.Column("taken_back_at", sa.DateTime(), nullable=True),
        sa.PrimaryKeyConstraint("id", name="pk_remembered"),
    )
    op.create_index("ix_remembered_at", "remembered", ["at"])
