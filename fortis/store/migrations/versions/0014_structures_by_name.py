"""The names of the structures of a session, to find it by; they follow from its text."""

import sqlalchemy as sa
from alembic import op

from fortis.core.units import Unit
from fortis.store.naming import named

revision = "0014"
down_revision = "0013"
branch_labels = None
depends_on = None

AT_ONCE = 500

session = sa.table("session", *(sa.column(name) for name in ("id", "written", "unit", "structures")))


def upgrade() -> None:
    op.add_column("session", sa.Column("structures", sa.String(), nullable=False, server_default=""))
    work = op.get_bind()
    texts = work.execute(sa.select(session.c.id, session.c.written, session.c.unit)).all()
    change = sa.update(session).where(session.c.id == sa.bindparam("of"))
    for at in range(0, len(texts), AT_ONCE):
        names = [
            {"of": id_, "structures": named(written, Unit(unit))} for id_, written, unit in texts[at : at + AT_ONCE]
        ]
        work.execute(change.values(structures=sa.bindparam("structures")), names)
