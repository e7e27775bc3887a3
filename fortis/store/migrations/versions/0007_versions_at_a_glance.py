"""How often the bouts of a session were changed is read from an index alone."""

from alembic import op

revision = "0007"
down_revision = "0006"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.drop_index("ix_bout_session_id", "bout")
    op.create_index("ix_bout_session_id", "bout", ["session_id", "version"])
