"""A lifter goes from place to place; plates are counted singly, and machines have their own steps."""

import json
from decimal import Decimal
from typing import Any

import sqlalchemy as sa
from alembic import op

revision = "0004"
down_revision = "0003"
branch_labels = None
depends_on = None


def upgrade() -> None:
    with op.batch_alter_table("lifter") as lifter:
        lifter.add_column(sa.Column("place_id", sa.Integer(), nullable=True))
        lifter.add_column(sa.Column("warm_ups", sa.String(), nullable=True))
        lifter.create_foreign_key(op.f("fk_lifter_place_id"), "place", ["place_id"], ["id"])
    place = sa.table("place", sa.column("id", sa.Integer), sa.column("kit", sa.JSON))
    connection = op.get_bind()
    for row in connection.execute(sa.select(place.c.id, place.c.kit)).all():
        kit = json.loads(row.kit) if isinstance(row.kit, str) else row.kit
        connection.execute(place.update().where(place.c.id == row.id).values(kit=_counted_singly(kit)))


def _counted_singly(kit: dict[str, Any]) -> dict[str, Any]:
    first = step = kit.pop("stack_step", 5)
    most = kit.pop("stack_most", 120)
    kit["plates"] = [
        {"amount": plate["kg"], "unit": "kg", "count": int(Decimal(plate["pairs"]) * 2)} for plate in kit["plates"]
    ]
    kit["machines"] = [{"name": "Machines and cables", "first_kg": first, "step_kg": step, "most_kg": most}]
    return kit


def downgrade() -> None:
    with op.batch_alter_table("lifter") as lifter:
        lifter.drop_constraint(op.f("fk_lifter_place_id"), type_="foreignkey")
        lifter.drop_column("place_id")
        lifter.drop_column("warm_ups")
