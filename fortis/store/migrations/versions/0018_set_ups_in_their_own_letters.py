"""Set-ups are kept in their own letters: they are searched as they stand, and one with an umlaut was not found.

All of them are written as new ones are, without spaces between, so that the same one is the same text.
"""

import json

import sqlalchemy as sa
from alembic import op

revision = "0018"
down_revision = "0017"
branch_labels = None
depends_on = None

bout = sa.table("bout", sa.column("setup", sa.String()))


def upgrade() -> None:
    work = op.get_bind()
    for setup in work.execute(sa.select(bout.c.setup).distinct()).scalars().all():
        plain = json.dumps(json.loads(setup), ensure_ascii=False, separators=(",", ":"))
        if plain != setup:
            work.execute(sa.update(bout).where(bout.c.setup == setup).values(setup=plain))
