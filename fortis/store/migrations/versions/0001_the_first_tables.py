"""The first tables."""

import sqlalchemy as sa
from alembic import op

revision = "0001"
down_revision = None
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "body_weight",
        sa.Column("on", sa.Date(), nullable=False),
        sa.Column("kg", sa.String(), nullable=False),
        sa.PrimaryKeyConstraint("on", name=op.f("pk_body_weight")),
    )
    op.create_table(
        "lifter",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("unit", sa.String(), nullable=False),
        sa.Column("zone", sa.String(), nullable=False),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_lifter")),
    )
    op.create_table(
        "place",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("kit", sa.JSON(), nullable=False),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_place")),
    )
    op.create_table(
        "session",
        sa.Column("id", sa.String(length=36), nullable=False),
        sa.Column("title", sa.String(), nullable=False),
        sa.Column("written", sa.String(), nullable=False),
        sa.Column("unit", sa.String(), nullable=False),
        sa.Column("planned_on", sa.Date(), nullable=True),
        sa.Column("started_at", sa.DateTime(), nullable=True),
        sa.Column("finished_at", sa.DateTime(), nullable=True),
        sa.Column("discarded_at", sa.DateTime(), nullable=True),
        sa.Column("zone", sa.String(), nullable=True),
        sa.Column("body_kg", sa.String(), nullable=True),
        sa.Column("place_id", sa.Integer(), nullable=True),
        sa.Column("resolved", sa.JSON(), nullable=True),
        sa.ForeignKeyConstraint(["place_id"], ["place.id"], name=op.f("fk_session_place_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_session")),
    )
    with op.batch_alter_table("session", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_session_planned_on"), ["planned_on"], unique=False)
        batch_op.create_index(batch_op.f("ix_session_started_at"), ["started_at"], unique=False)
        batch_op.create_index(batch_op.f("ix_session_title"), ["title"], unique=False)

    op.create_table(
        "bout",
        sa.Column("id", sa.String(length=36), nullable=False),
        sa.Column("session_id", sa.String(length=36), nullable=False),
        sa.Column("group", sa.Integer(), nullable=False),
        sa.Column("round", sa.Integer(), nullable=False),
        sa.Column("entry", sa.Integer(), nullable=False),
        sa.Column("set", sa.Integer(), nullable=False),
        sa.Column("bout", sa.Integer(), nullable=False),
        sa.Column("exercise", sa.String(), nullable=False),
        sa.Column("setup", sa.JSON(), nullable=False),
        sa.Column("side", sa.String(), nullable=False),
        sa.Column("kg", sa.String(), nullable=True),
        sa.Column("reps", sa.Integer(), nullable=False),
        sa.Column("partial_reps", sa.Integer(), nullable=False),
        sa.Column("seconds", sa.Integer(), nullable=False),
        sa.Column("reserve", sa.Integer(), nullable=True),
        sa.Column("ended", sa.String(), nullable=True),
        sa.Column("done_at", sa.DateTime(), nullable=False),
        sa.ForeignKeyConstraint(["session_id"], ["session.id"], name=op.f("fk_bout_session_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_bout")),
        sa.UniqueConstraint(
            "session_id", "group", "round", "entry", "set", "bout", name=op.f("uq_bout_session_id")
        ),
    )
    with op.batch_alter_table("bout", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_bout_session_id"), ["session_id"], unique=False)


def downgrade() -> None:
    with op.batch_alter_table("bout", schema=None) as batch_op:
        batch_op.drop_index(batch_op.f("ix_bout_session_id"))

    op.drop_table("bout")
    with op.batch_alter_table("session", schema=None) as batch_op:
        batch_op.drop_index(batch_op.f("ix_session_title"))
        batch_op.drop_index(batch_op.f("ix_session_started_at"))
        batch_op.drop_index(batch_op.f("ix_session_planned_on"))

    op.drop_table("session")
    op.drop_table("place")
    op.drop_table("lifter")
    op.drop_table("body_weight")
