"""An index of when sessions were finished, put aside and started: it finds the few of a long log not yet over."""

from alembic import op

revision = "0017"
down_revision = "0016"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_index("ix_session_finished_at", "session", ["finished_at", "discarded_at", "started_at", "id"])
