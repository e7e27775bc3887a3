"""A long log: sessions played once as planned, then repeated back through the years."""

import sqlite3
from collections.abc import Callable
from datetime import UTC, datetime, timedelta
from decimal import Decimal
from pathlib import Path
from uuid import UUID

from sqlalchemy.orm import Session as UnitOfWork

from fortis.core.performance import Ended, LoadSource, PerformedBout, asked_of
from fortis.core.structure.counting import as_planned
from fortis.core.structure.prescription import PlannedBout, PlannedSet
from fortis.core.units import Unit
from fortis.store import places, planning, recording, sessions
from fortis.store.database import Database, open_database, writing
from fortis.store.recording import Provenance

WEEKS_A_YEAR = 50
PLANNED = str(UUID(int=10**6))
TEXTS = (
    """# Squat day
Back squat: 5 x 5 at 100 kg leave 2 rest 3:00
Bench press: 5 sets of (3, 2, 1) at 80 kg leave 1 within 15s rest 3:00
Seal row: 4 x 8 at 60 kg leave 2 rest 2:00
pair, 5 rounds, rest 1:30:
  Leg extension: 12 at 40 kg leave 1
  Hanging leg raise: 10 leave 2
""",
    """# Press day
Overhead press: 5 x 5 at 50 kg leave 2 rest 3:00
Weighted chin-up: 5 sets of (2, 2, 2) at bw+10 kg leave 1 within 15s rest 3:00
Leg press: 4 x 10 at 160 kg leave 2 rest 2:00
pair, 5 rounds, rest 1:30:
  Lateral raise: 12 at 10 kg leave 1
  Push-up: 15 leave 2
""",
    """# Pull day
Deadlift: 4 x 4 at 140 kg leave 2 rest 4:00
Bench press: 6 x 6 at 75 kg leave 2 rest 2:30
Seal row: 4 sets of (3, 4, 5, 6) at 50 kg leave 1 within 15s rest 2:30
pair, 5 rounds, rest 1:30:
  Split squat: 8 at 16 kg each side leave 2
  Leg extension: 12 at 40 kg leave 1
""",
)
"""Three sessions of forty bouts between them and their sides."""


def make_log(path: Path, years: int) -> Database:
    """Write a log of so many years into a new record, with body weights, and one more session planned for today."""
    database = open_database(path)
    now = datetime.now(UTC)
    with writing(database).begin() as work:
        for number, text in enumerate(TEXTS):
            _play(work, number, text, now - timedelta(days=5 - 2 * number))
        sessions.save_plan(work, PLANNED, TEXTS[0], Unit.KG, now.date())
    connection = sqlite3.connect(path)
    with connection:
        _repeat(connection, years)
        days = [(now.date() - timedelta(days=day), 80 + day % 7 / 10) for day in range(years * 364)]
        connection.executemany(
            'insert into body_weight ("on", kg) values (?, ?)', [(str(on), str(kg)) for on, kg in days]
        )
    connection.execute("PRAGMA wal_checkpoint(TRUNCATE)")
    connection.close()
    return database


def _play(work: UnitOfWork, number: int, text: str, began: datetime) -> None:
    row = sessions.save_plan(work, str(UUID(int=number)), text, Unit.KG, began.date())
    prescription = planning.settled(row, planning.basis(work, began), ())
    row.zone, row.place_id = "UTC", places.FIRST
    sessions.start(row, prescription, places.USUAL_KIT, began)
    clock = began
    for each in prescription.sets:
        for planned in each.bouts:
            clock += timedelta(seconds=90)
            by = Provenance(at=clock, done_at=clock, began_at=clock - timedelta(seconds=30), device="bench")
            recording.record(work, row.id, _done(each, planned), by)
    sessions.finish(row, clock, clock)
    work.flush()


def _done(each: PlannedSet, planned: PlannedBout) -> PerformedBout:
    count = as_planned(planned)
    return PerformedBout(
        position=each.position(planned),
        exercise=each.exercise,
        lift_id=each.lift.id,
        setup=each.setup,
        side=planned.side,
        kg=planned.settled.kg if planned.settled else None,
        body=bool(planned.settled and planned.settled.body),
        reps=count.reps if count else 5,
        reserve=Decimal(2),
        ended=Ended.MET,
        asked=asked_of(planned),
        source=LoadSource.PLAN,
    )


def _repeat(connection: sqlite3.Connection, years: int) -> None:
    """Copy the week that was played into every week before it, each session and bout under an id of its own."""
    copies = []
    for table in ("session", "bout", "bout_version"):
        played = " where finished_at is not null" if table == "session" else ""
        connection.execute(f"create temp table week_{table} as select * from {table}{played}")
        columns = [name for _, name, *_ in connection.execute(f"pragma table_info({table})")]
        into, copied = (", ".join(each) for each in (map('"{}"'.format, columns), map(_copied(table), columns)))
        copies.append(f"insert into {table} ({into}) select {copied} from week_{table}")
    for back in range(1, years * WEEKS_A_YEAR):
        for copy in copies:
            connection.execute(copy, {"back": back})


def _copied(table: str) -> Callable[[str], str]:
    """What stands in each column so many weeks before."""
    session_id = "id" if table == "session" else "session_id"

    def copied(column: str) -> str:
        if column == session_id:
            return f"printf('00000000-0000-0000-0000-%012d', 10 * :back + substr({column}, -1))"
        if column in ("id", "bout_id"):
            return f"{column} || '~' || :back"
        if column == "planned_on":
            return "date(planned_on, printf('-%d days', 7 * :back))"
        if column == "at" or column.endswith("_at"):
            return f"strftime('%Y-%m-%d %H:%M:%f000', {column}, printf('-%d days', 7 * :back))"
        return f'"{column}"'

    return copied
