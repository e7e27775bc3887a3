"""How hard a session was as a whole, as the lifter felt it."""

import sqlalchemy as sa
from alembic import op

revision = "0011"
down_revision = "0010"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("session", sa.Column("felt", sa.Integer(), nullable=True))
