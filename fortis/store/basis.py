"""What loads are settled from, gathered from the record: estimates, what last time recommends, the kit."""

from collections.abc import Mapping, Sequence
from dataclasses import replace
from datetime import UTC, datetime, timedelta
from decimal import Decimal

from sqlalchemy.orm import Session as Unit_of_work

from fortis.core.cautions.caution import Log
from fortis.core.cautions.rules import is_overloaded
from fortis.core.progression.next_loads import NextLoad, carried, next_loads
from fortis.core.resolution import Basis, LiftKey, lift_key, resolve
from fortis.core.strength.estimate import Estimate, current
from fortis.core.structure.model import Session
from fortis.core.structure.notation import read
from fortis.core.structure.prescription import Prescription, lay_out
from fortis.core.structure.timeline import timeline
from fortis.core.tally.session import SessionTally, tally
from fortis.core.tally.sides import weaker_sides
from fortis.core.units import Unit
from fortis.store import lifter, places, sessions
from fortis.store.lifts import library
from fortis.store.tables import SessionRow

MOST_TO_LEARN_FROM = 12
NOVICE_FOR = timedelta(days=365)
STILL_TELLING = timedelta(days=84)
"""Estimates older than this say little about today."""


def resolved(work: Unit_of_work, row: SessionRow, now: datetime) -> Prescription:
    """The plan of a session with its loads settled: as frozen at the start, or from the record as it stands."""
    if row.resolved is not None:
        return sessions.frozen(row)
    return settled_anew(row, basis(work, row.title, now))


def settled_anew(row: SessionRow, known: Basis) -> Prescription:
    """The plan of a session that has not been started, with its loads settled from what is known."""
    laid_out = settle(read(row.written, Unit(row.unit)), known)
    return laid_out.model_copy(update={"title": row.title})


def settle(session: Session, known: Basis) -> Prescription:
    """Lay a session out and settle its loads from what is known."""
    return resolve(lay_out(session, known.library, known.weaker), known)


def basis(work: Unit_of_work, title: str, now: datetime) -> Basis:
    """Everything the loads of a session called `title` are settled from, as known at `now`."""
    return with_carried(work, untitled_basis(work, now), title, now)


def untitled_basis(work: Unit_of_work, now: datetime) -> Basis:
    """What loads are settled from, whatever the session is called."""
    recent = _recent(work, now)
    return Basis(
        kit=places.kit(work),
        body_kg=lifter.body_kg(work, now.date()),
        estimates=estimates(work, now),
        last=_last_loads(recent),
        weaker=weaker_sides(bout for row in recent for bout in sessions.performed(row)),
        library=library(work),
        warm_ups=lifter.lifter(work).warm_ups,
    )


def with_carried(work: Unit_of_work, known: Basis, title: str, now: datetime) -> Basis:
    """What is known, with what the last session called `title` recommends."""
    last = last_of(work, title, now)
    return replace(known, carried=carried(recommended(work, last))) if last else known


def _recent(work: Unit_of_work, now: datetime) -> Sequence[SessionRow]:
    """The finished sessions that still say something, newest first."""
    return sessions.finished(work, before=now, since=now - STILL_TELLING)


def _last_loads(newest_first: Sequence[SessionRow]) -> Mapping[LiftKey, Decimal]:
    """The heaviest load of each lift and set-up in the latest session that had it."""
    last: dict[LiftKey, Decimal] = {}
    for row in newest_first:
        heaviest: dict[LiftKey, Decimal] = {}
        for bout in sessions.performed(row):
            if bout.kg is not None:
                key = lift_key(bout.exercise, bout.setup)
                heaviest[key] = max(bout.kg, heaviest.get(key, bout.kg))
        last = heaviest | last
    return last


def added_up(work: Unit_of_work, row: SessionRow) -> SessionTally:
    """A session's arithmetic."""
    return tally(sessions.performed(row), row.body_kg, library(work))


def last_of(work: Unit_of_work, title: str, before: datetime) -> SessionRow | None:
    """The last finished session of a title that started before a moment."""
    return next(iter(sessions.finished(work, title=title, before=before, limit=1)), None)


def estimates(work: Unit_of_work, now: datetime) -> Mapping[LiftKey, Estimate]:
    """The current estimated max of every lift and set-up, from sessions started before `now`."""
    by_lift: dict[LiftKey, list[Estimate]] = {}
    known = library(work)
    for row in _recent(work, now):
        for lift in tally(sessions.performed(row), row.body_kg, known).lifts:
            if lift.estimate:
                by_lift.setdefault(lift_key(lift.exercise, lift.setup), []).append(lift.estimate)
    return {key: current(newest_first) for key, newest_first in by_lift.items()}


def recommended(work: Unit_of_work, row: SessionRow) -> tuple[NextLoad, ...]:
    """The next loads that a finished session recommends, with what was known right after it."""
    after = (row.started_at or datetime.now(UTC)) + timedelta(microseconds=1)
    return next_loads(
        sessions.frozen(row),
        sessions.performed(row),
        places.kit(work, row.place_id),
        row.body_kg or Decimal(0),
        estimates(work, after),
    )


def log(work: Unit_of_work, now: datetime) -> Log:
    """What cautions look at beside a plan: the seven days before a moment, and how long the lifter has trained."""
    rows = sessions.finished(work, before=now, since=now - timedelta(days=7))
    since = lifter.lifter(work).training_since
    return Log(
        bouts=tuple(bout for row in rows for bout in sessions.performed(row)),
        overloaded_sets=sum(is_overloaded(each) for row in rows for each in sessions.frozen(row).sets),
        novice=since is not None and now.date() - since < NOVICE_FOR,
    )


def overruns(work: Unit_of_work, now: datetime) -> list[float]:
    """For each of the lifter's last sessions, the time it took as a multiple of the time planned."""
    rows = sessions.finished(work, before=now, limit=MOST_TO_LEARN_FROM)
    planned = [timeline(sessions.frozen(row)).total_seconds for row in rows]
    return [
        sessions.time_on_the_floor(row).total_seconds() / seconds
        for row, seconds in zip(rows, planned, strict=True)
        if seconds
    ]
