"""How each lift is to progress."""

import sqlalchemy as sa
from alembic import op

revision = "0009"
down_revision = "0008"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "policies",
        sa.Column("lift_id", sa.String(), nullable=False),
        sa.Column("policy", sa.JSON(), nullable=False),
        sa.PrimaryKeyConstraint("lift_id", name="pk_policies"),
    )
