"""Logs that were taken in from files, and what came with each."""

import sqlalchemy as sa
from alembic import op

revision = "0012"
down_revision = "0011"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "import",
        sa.Column("id", sa.String(36), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("at", sa.DateTime(), nullable=False),
        sa.Column("sessions", sa.Integer(), nullable=False),
        sa.Column("bouts", sa.Integer(), nullable=False),
        sa.Column("body_weights", sa.JSON(), nullable=False),
        sa.Column("written_at", sa.DateTime(), nullable=True),
        sa.Column("taken_back_at", sa.DateTime(), nullable=True),
        sa.PrimaryKeyConstraint("id", name="pk_import"),
    )
    for name in ("session", "body_weight"):
        with op.batch_alter_table(name) as table:
            table.add_column(sa.Column("import_id", sa.String(36), nullable=True))
            table.create_foreign_key(f"fk_{name}_import_id_import", "import", ["import_id"], ["id"])
    op.create_index("ix_session_import_id", "session", ["import_id"])
