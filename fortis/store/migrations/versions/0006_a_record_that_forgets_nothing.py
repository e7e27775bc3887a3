"""A record that forgets nothing.

Bouts keep what was asked, when they began, how a reserve was given, and every version; lifts and sessions have an
identity that survives renaming; the kit is frozen with the session, and body weight is looked up by its date.
"""

import json
import re
import unicodedata
from collections.abc import Iterator
from decimal import Decimal
from typing import Any

import sqlalchemy as sa
from alembic import op

revision = "0006"
down_revision = "0005"
branch_labels = None
depends_on = None

UNTITLED = "session"
BODY_LIFTS = frozenset(
    [
        "nordic-curl",
        "back-extension",
        "ring-dip",
        "dip",
        "push-up",
        "ring-row",
        "chin-up",
        "weighted-chin-up",
        "pull-up",
        "hollow-hold",
        "plank",
        "hanging-leg-raise",
        "ab-wheel",
    ]
)
"""The library's body-weight lifts when this was written."""
POSITION = ("group", "round", "entry", "set", "bout")


def upgrade() -> None:
    op.add_column(
        "lifter", sa.Column("plate_order", sa.String(), nullable=False, server_default="big plates inside")
    )
    _lifts()
    _cautions()
    _sessions()
    _bouts()


def _id(name: str) -> str:
    one_form = " ".join(unicodedata.normalize("NFKC", name).casefold().split())
    return re.sub(r"[^\w]+", "-", one_form).strip("-") or "lift"


def _json(value: Any) -> Any:
    return json.loads(value) if isinstance(value, str) else value


def _lifts() -> None:
    op.create_table(
        "lift_by_id",
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("lift", sa.JSON(), nullable=False),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_lift")),
    )
    old = sa.table("lift", sa.column("lift", sa.JSON))
    new = sa.table("lift_by_id", sa.column("id", sa.String), sa.column("lift", sa.JSON))
    connection = op.get_bind()
    for row in connection.execute(sa.select(old.c.lift)).all():
        lift = _json(row.lift)
        connection.execute(new.insert().values(id=_id(lift["name"]), lift=lift | {"id": _id(lift["name"])}))
    op.drop_table("lift")
    op.rename_table("lift_by_id", "lift")


def _cautions() -> None:
    aside = sa.table("set_aside", sa.column("rule", sa.String), sa.column("exercise", sa.String))
    connection = op.get_bind()
    rows = [tuple(row) for row in connection.execute(sa.select(aside.c.rule, aside.c.exercise)).all()]
    op.drop_table("set_aside")
    made = op.create_table(
        "set_aside",
        sa.Column("rule", sa.String(), nullable=False),
        sa.Column("lift_id", sa.String(), nullable=False),
        sa.PrimaryKeyConstraint("rule", "lift_id", name=op.f("pk_set_aside")),
    )
    for rule, lift_id in {(rule, _id(exercise) if exercise else "") for rule, exercise in rows}:
        connection.execute(made.insert().values(rule=rule, lift_id=lift_id))


def _sessions() -> None:
    with op.batch_alter_table("session") as session:
        session.add_column(sa.Column("slot", sa.String(length=36), nullable=True))
        session.add_column(sa.Column("kit", sa.JSON(), nullable=True))
    table = sa.table(
        "session",
        *(sa.column(name, sa.String) for name in ("id", "slot", "title", "planned_on", "started_at")),
        sa.column("place_id", sa.Integer),
        sa.column("kit", sa.JSON),
    )
    place = sa.table("place", sa.column("id", sa.Integer), sa.column("kit", sa.JSON))
    connection = op.get_bind()
    kits = {row.id: _json(row.kit) for row in connection.execute(sa.select(place)).all()}
    first = next(iter(kits.values()), None)
    slots: dict[str, str] = {}
    rows = connection.execute(
        sa.select(table).order_by(sa.func.coalesce(table.c.started_at, table.c.planned_on, "9999"), table.c.id)
    ).all()
    for row in rows:
        title = row.title.casefold()
        slot = row.id if title == UNTITLED else slots.setdefault(title, row.id)
        kit = kits.get(row.place_id, first) if row.started_at else None
        connection.execute(table.update().where(table.c.id == row.id).values(slot=slot, kit=kit or sa.null()))
    with op.batch_alter_table("session") as session:
        session.alter_column("slot", nullable=False)
        session.create_index(op.f("ix_session_slot"), ["slot"])
        session.drop_index(op.f("ix_session_title"))
        session.drop_column("body_kg")


def _bouts() -> None:
    with op.batch_alter_table("bout") as bout:
        bout.add_column(sa.Column("lift_id", sa.String(), nullable=False, server_default=""))
        bout.add_column(sa.Column("body", sa.Boolean(), nullable=False, server_default="0"))
        for name in ("bottom_kg", "top_kg", "mean_kg", "source"):
            bout.add_column(sa.Column(name, sa.String(), nullable=True))
        bout.alter_column("reserve", existing_type=sa.Integer(), type_=sa.String())
        bout.add_column(sa.Column("or_more", sa.Boolean(), nullable=False, server_default="0"))
        bout.add_column(sa.Column("began_at", sa.DateTime(), nullable=True))
        bout.add_column(sa.Column("asked", sa.JSON(), nullable=True))
        bout.add_column(sa.Column("device", sa.String(), nullable=False, server_default=""))
        bout.add_column(sa.Column("taken_back_at", sa.DateTime(), nullable=True))
        bout.create_index(op.f("ix_bout_lift_id"), ["lift_id"])
    op.create_table(
        "bout_version",
        sa.Column("bout_id", sa.String(length=36), nullable=False),
        sa.Column("version", sa.Integer(), nullable=False),
        sa.Column("at", sa.DateTime(), nullable=False),
        sa.Column("device", sa.String(), nullable=False),
        sa.Column("document", sa.JSON(), nullable=True),
        sa.ForeignKeyConstraint(["bout_id"], ["bout.id"], name=op.f("fk_bout_version_bout_id")),
        sa.PrimaryKeyConstraint("bout_id", "version", name=op.f("pk_bout_version")),
    )
    _fill_bouts()


def _fill_bouts() -> None:
    connection = op.get_bind()
    session = sa.table(
        "session", sa.column("id"), sa.column("resolved", sa.JSON), sa.column("adjustments", sa.JSON)
    )
    texts = ("id", "session_id", "exercise", "lift_id", "side", "kg", "ended", "note", "reserve", "source")
    pulls = ("bottom_kg", "top_kg", "mean_kg")
    bout = sa.table(
        "bout",
        *(sa.column(name, sa.String) for name in (*texts, *pulls)),
        *(sa.column(name, sa.Integer) for name in (*POSITION, "reps", "partial_reps", "seconds", "version")),
        *(sa.column(name, sa.JSON) for name in ("setup", "rep_seconds", "asked")),
        sa.column("body", sa.Boolean),
        sa.column("done_at", sa.String),
    )
    versions = sa.table(
        "bout_version",
        *(sa.column(name) for name in ("bout_id", "version", "at", "device")),
        sa.column("document", sa.JSON),
    )
    for row in connection.execute(sa.select(session)).all():
        plan = _Plan(_json(row.resolved) or {"sets": []}, _json(row.adjustments) or {})
        for done in connection.execute(sa.select(bout).where(bout.c.session_id == row.id)).all():
            values = {"lift_id": _id(done.exercise), **plan.known_of(done)}
            connection.execute(bout.update().where(bout.c.id == done.id).values(**values))
            document = _document(done, values)
            first = {
                "bout_id": done.id,
                "version": done.version,
                "at": done.done_at,
                "device": "",
                "document": document,
            }
            connection.execute(versions.insert().values(**first))


def _document(done: Any, values: dict[str, Any]) -> dict[str, Any]:
    """A bout as its first version: what a performed bout was when this was written."""
    numbers = {name: None if (value := values.get(name, getattr(done, name))) is None else float(value)
               for name in ("kg", "bottom_kg", "top_kg", "mean_kg", "reserve")}  # fmt: skip
    return {
        "version": 1,
        "position": {name: getattr(done, name) for name in POSITION},
        "exercise": done.exercise,
        "lift_id": values["lift_id"],
        "setup": {"items": _json(done.setup)},
        **{name: getattr(done, name) for name in ("side", "reps", "partial_reps", "seconds", "ended", "note")},
        **numbers,
        "body": values["body"],
        "rep_seconds": _json(done.rep_seconds) or [],
        "asked": values.get("asked") or None,
        "source": values.get("source"),
    }


class _Plan:
    """What the frozen plan of a session, with its changes, says of a bout."""

    def __init__(self, resolved: dict[str, Any], adjustments: dict[str, Any]) -> None:
        self.loads = adjustments.get("loads") or {}
        self.swapped = adjustments.get("swapped") or {}
        self.bouts = {
            (each["group"], each["entry"], each["number"], bout["number"]): (each, bout)
            for each in resolved["sets"]
            for bout in each["bouts"]
        }

    def known_of(self, done: Any) -> dict[str, Any]:
        lift_id = _id(done.exercise)
        found = self._planned(done)
        if found is None:
            return {"body": lift_id in BODY_LIFTS}
        each, bout = found
        lift, settled = each.get("lift") or {}, bout.get("settled") or {}
        entry = f"{done.group}.{done.entry}"
        same = _id(each["exercise"]) == lift_id and entry not in self.swapped
        kg = settled.get("kg")
        load_from = self.loads.get(entry)
        advised = bool(load_from and kg is not None and done.set >= load_from["set"])
        kg = load_from["kg"] if advised and load_from else kg
        body = lift.get("load_kind") == "body" or bool(settled.get("body")) if same else lift_id in BODY_LIFTS
        values: dict[str, Any] = {"body": body, "asked": self._asked(bout, kg if same else None, same)}
        if same and kg is not None and done.kg is not None:
            own = Decimal(done.kg) != Decimal(str(kg))
            values["source"] = "own choice" if own else "advice" if advised else "plan"
            for name in ("bottom_kg", "top_kg", "mean_kg"):
                if settled.get(name) is not None:
                    pull = Decimal(str(settled[name])) - Decimal(str(settled["kg"]))
                    values[name] = f"{Decimal(done.kg) + pull:f}"
        return values

    def _planned(self, done: Any) -> Any:
        """The bout of the plan in its place; of a set that was added, the same bout of the last set."""
        numbers = range(done.set, -1, -1) if done.set else (0,)
        keys: Iterator[Any] = ((done.group, done.entry, number, done.bout) for number in numbers)
        return next((self.bouts[key] for key in keys if key in self.bouts), None)

    @staticmethod
    def _asked(bout: dict[str, Any], kg: Any, same: bool) -> dict[str, Any]:
        terms = ("reps", "effort", "tempo", "range_of_motion", "lifting")
        asked = {name: bout[name] for name in terms if bout.get(name) is not None}
        if same and bout.get("load") is not None:
            asked["load"] = bout["load"]
        return asked if kg is None else asked | {"kg": kg}


def downgrade() -> None:
    raise NotImplementedError("The record before would forget what this one keeps.")
