"""Lifters add lifts of their own and keep session texts as templates; how long they have trained is known."""

import sqlalchemy as sa
from alembic import op

revision = "0003"
down_revision = "0002"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "lift",
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("lift", sa.JSON(), nullable=False),
        sa.PrimaryKeyConstraint("name", name=op.f("pk_lift")),
    )
    op.create_table(
        "template",
        sa.Column("id", sa.String(length=36), nullable=False),
        sa.Column("title", sa.String(), nullable=False),
        sa.Column("written", sa.String(), nullable=False),
        sa.Column("unit", sa.String(), nullable=False),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_template")),
    )
    op.add_column("lifter", sa.Column("training_since", sa.Date(), nullable=True))


def downgrade() -> None:
    op.drop_column("lifter", "training_since")
    op.drop_table("template")
    op.drop_table("lift")
