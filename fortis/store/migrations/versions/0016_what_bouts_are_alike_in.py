"""What makes a bout comparable, worked out by the database of what it holds, and indexed to find the bests by."""

from alembic import op

revision = "0016"
down_revision = "0015"
branch_labels = None
depends_on = None

ALIKE = """
CASE WHEN taken_back_at IS NULL AND "set" > 0 AND reps > 0 AND kg IS NOT NULL
AND coalesce(json_extract(asked, '$.range_of_motion'), 'full') = 'full'
AND coalesce(json_extract(asked, '$.lifting'), 'alone') = 'alone'
THEN coalesce(json_extract(asked, '$.tempo'), '') END
"""


def upgrade() -> None:
    op.execute(f"ALTER TABLE bout ADD COLUMN alike VARCHAR GENERATED ALWAYS AS ({ALIKE}) VIRTUAL")
    op.create_index("ix_bout_alike", "bout", ["lift_id", "alike", "setup", "kg", "reps", "done_at", "session_id"])
