"""How the lifter counts, where they chose."""

import sqlalchemy as sa
from alembic import op

revision = "0013"
down_revision = "0012"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("lifter", sa.Column("ways", sa.JSON(), nullable=True))
