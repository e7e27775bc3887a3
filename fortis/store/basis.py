"""What loads are settled from, gathered from the record: estimates, what last time recommends, the kit."""

from collections.abc import Mapping
from datetime import UTC, datetime, timedelta
from decimal import Decimal

from sqlalchemy.orm import Session as Unit_of_work

from fortis.core.cautions.caution import Week
from fortis.core.progression.next_loads import NextLoad, carried, next_loads
from fortis.core.resolution import Basis, LiftKey, lift_key, resolve
from fortis.core.strength.estimate import Estimate, current
from fortis.core.structure.prescription import Prescription
from fortis.core.structure.timeline import timeline
from fortis.core.tally.session import tally
from fortis.store import lifter, sessions
from fortis.store.tables import SessionRow

MOST_TO_LEARN_FROM = 12
STILL_TELLING = timedelta(days=84)
"""Estimates older than this say little about today."""


def resolved(work: Unit_of_work, row: SessionRow, now: datetime) -> Prescription:
    """The plan of a session with its loads settled: as frozen at the start, or from the record as it stands."""
    prescription = sessions.prescription_of(row)
    if row.resolved is not None:
        return prescription
    return resolve(prescription, basis(work, prescription.title, now))


def basis(work: Unit_of_work, title: str, now: datetime) -> Basis:
    """Everything the loads of a session called `title` are settled from, as known at `now`."""
    last = last_of(work, title, now)
    return Basis(
        kit=lifter.kit(work),
        body_kg=lifter.body_kg(work, now.date()),
        estimates=estimates(work, now),
        carried=carried(recommended(work, last)) if last else {},
    )


def last_of(work: Unit_of_work, title: str, before: datetime) -> SessionRow | None:
    """The last finished session of a title that started before a moment."""
    return next(iter(sessions.finished(work, title=title, before=before, limit=1)), None)


def estimates(work: Unit_of_work, now: datetime) -> Mapping[LiftKey, Estimate]:
    """The current estimated max of every lift and set-up, from sessions started before `now`."""
    by_lift: dict[LiftKey, list[Estimate]] = {}
    for row in sessions.finished(work, before=now, since=now - STILL_TELLING):
        for lift in tally(sessions.performed(row), row.body_kg).lifts:
            if lift.estimate:
                by_lift.setdefault(lift_key(lift.exercise, lift.setup), []).append(lift.estimate)
    return {key: current(newest_first) for key, newest_first in by_lift.items()}


def recommended(work: Unit_of_work, row: SessionRow) -> tuple[NextLoad, ...]:
    """The next loads that a finished session recommends, with what was known right after it."""
    after = (row.started_at or datetime.now(UTC)) + timedelta(microseconds=1)
    return next_loads(
        sessions.prescription_of(row),
        sessions.performed(row),
        lifter.kit(work),
        row.body_kg or Decimal(0),
        estimates(work, after),
    )


def last_week(work: Unit_of_work, now: datetime) -> Week:
    """What was done in the seven days before a moment."""
    rows = sessions.finished(work, before=now, since=now - timedelta(days=7))
    return Week(bouts=tuple(bout for row in rows for bout in sessions.performed(row)))


def overruns(work: Unit_of_work, now: datetime) -> list[float]:
    """For each of the lifter's last sessions, the time it took as a multiple of the time planned."""
    rows = sessions.finished(work, before=now, limit=MOST_TO_LEARN_FROM)
    planned = [timeline(sessions.prescription_of(row)).total_seconds for row in rows]
    return [
        sessions.time_on_the_floor(row).total_seconds() / seconds
        for row, seconds in zip(rows, planned, strict=True)
        if seconds
    ]
