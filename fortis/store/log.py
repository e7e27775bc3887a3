"""The record as a log of bouts, the oldest first, as any other program can read it."""

from collections import Counter
from collections.abc import Iterator, Sequence
from decimal import Decimal
from zoneinfo import ZoneInfo

from sqlalchemy import select
from sqlalchemy.orm import Session as UnitOfWork

from fortis.core.exercises import Library
from fortis.core.logged import LoggedBout
from fortis.store import bouts, lifter, sessions
from fortis.store.bouts import RecordedBout
from fortis.store.lifts import library
from fortis.store.tables import SessionRow

AT_ONCE = 50
"""Sessions whose bouts are read at once: a long log is never held as a whole."""


def logged(work: UnitOfWork) -> Iterator[LoggedBout]:
    """Every bout that stands of the sessions that were started, in order. A session is named by title and day."""
    known = library(work)
    names: Counter[str] = Counter()
    began = select(SessionRow).where(SessionRow.discarded_at.is_(None), SessionRow.started_at.is_not(None))
    for rows in work.scalars(began.order_by(SessionRow.started_at, SessionRow.id)).partitions(AT_ONCE):
        done = bouts.of_all(work, [row.id for row in rows])
        for row in rows:
            name = f"{row.title} {sessions.day_of(row)}"
            names[name] += 1
            unique = f"{name} {names[name]}" if names[name] > 1 else name
            yield from _of_session(work, row, unique, done[row.id], known)


def _of_session(
    work: UnitOfWork, row: SessionRow, name: str, done: Sequence[RecordedBout], known: Library
) -> Iterator[LoggedBout]:
    day, zone, before = sessions.day_of(row), ZoneInfo(row.zone or "UTC"), None
    body_kg = lifter.body_kg(work, day) if day else None
    for each in done:
        bout = each.bout
        rested = (each.began_at - before).total_seconds() if before and each.began_at else None
        before = each.done_at
        yield LoggedBout(
            performed_at=each.done_at.astimezone(zone),
            session=name,
            exercise=known.find(bout.exercise, bout.lift_id).name,
            setup=bout.setup,
            group=bout.position.group,
            set=bout.position.set,
            bout=bout.position.bout,
            side=bout.side,
            load_kg=bout.kg or Decimal(0),
            bottom_kg=bout.bottom_kg,
            top_kg=bout.top_kg,
            body_kg=body_kg,
            reps=bout.reps,
            partial_reps=bout.partial_reps,
            seconds=bout.seconds,
            reserve=bout.reserve,
            or_more=bout.or_more,
            ended=bout.ended,
            rest_seconds=None if rested is None or rested < 0 else round(rested),
            tempo=str(bout.asked.tempo) if bout.asked and bout.asked.tempo else "",
            is_warm_up=bout.position.is_warm_up,
            note=bout.note,
        )
