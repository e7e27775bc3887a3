"""Bouts have notes, rep times and versions; sessions keep what was changed on the floor."""

import sqlalchemy as sa
from alembic import op

revision = "0005"
down_revision = "0004"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("bout", sa.Column("note", sa.String(), nullable=False, server_default=""))
    op.add_column("bout", sa.Column("rep_seconds", sa.JSON(), nullable=True))
    op.add_column("bout", sa.Column("version", sa.Integer(), nullable=False, server_default="1"))
    op.add_column("session", sa.Column("adjustments", sa.JSON(), nullable=True))


def downgrade() -> None:
    op.drop_column("session", "adjustments")
    op.drop_column("bout", "version")
    op.drop_column("bout", "rep_seconds")
    op.drop_column("bout", "note")
