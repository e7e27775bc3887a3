"""Cautions can be set aside for good."""

import sqlalchemy as sa
from alembic import op

revision = "0002"
down_revision = "0001"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "set_aside",
        sa.Column("rule", sa.String(), nullable=False),
        sa.Column("exercise", sa.String(), nullable=False),
        sa.PrimaryKeyConstraint("rule", "exercise", name=op.f("pk_set_aside")),
    )


def downgrade() -> None:
    op.drop_table("set_aside")
