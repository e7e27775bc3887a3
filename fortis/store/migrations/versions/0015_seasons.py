"""Seasons, and the sessions that are theirs."""

import sqlalchemy as sa
from alembic import op

revision = "0015"
down_revision = "0014"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "season",
        sa.Column("id", sa.String(36), nullable=False),
        sa.Column("written", sa.String(), nullable=False),
        sa.Column("unit", sa.String(), nullable=False),
        sa.Column("at", sa.DateTime(), nullable=False),
        sa.Column("ended_at", sa.DateTime(), nullable=True),
        sa.PrimaryKeyConstraint("id", name="pk_season"),
    )
    with op.batch_alter_table("session") as table:
        table.add_column(sa.Column("season_id", sa.String(36), nullable=True))
        table.create_foreign_key("fk_session_season_id_season", "season", ["season_id"], ["id"])
    op.create_index("ix_session_season_id", "session", ["season_id"])
