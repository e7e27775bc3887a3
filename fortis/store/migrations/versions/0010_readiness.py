"""How ready the lifter was before a session."""

import sqlalchemy as sa
from alembic import op

revision = "0010"
down_revision = "0009"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "readiness",
        sa.Column("session_id", sa.String(36), nullable=False),
        sa.Column("readiness", sa.JSON(), nullable=False),
        sa.ForeignKeyConstraint(["session_id"], ["session.id"], name="fk_readiness_session_id_session"),
        sa.PrimaryKeyConstraint("session_id", name="pk_readiness"),
    )
