"""Sessions of the record as they were played, and under what conditions."""

from collections.abc import Sequence
from datetime import date, datetime

from sqlalchemy.orm import Session as UnitOfWork

from fortis.core.played import as_played, prepared
from fortis.core.structure.model import Preparation
from fortis.core.structure.prescription import Prescription
from fortis.core.tally.comparison import DoneBout, SessionDone
from fortis.core.tally.session import SessionTally, tally
from fortis.core.tally.work import Conditions
from fortis.store import bouts, lifter, sessions
from fortis.store.bouts import RecordedBout
from fortis.store.lifts import library
from fortis.store.tables import SessionRow

MOST_LOOKED_BACK = 30
"""Sessions with preparation that are looked back on."""


def played(work: UnitOfWork, row: SessionRow) -> Prescription:
    """A session that was started, with what was changed on the floor. Raises `NotStartedError`."""
    return as_played(sessions.frozen(row), sessions.adjustments(row), library(work))


def conditions(work: UnitOfWork, row: SessionRow) -> Conditions:
    """Body weight on the day of a session, as known now, the kit of its gym as it was, and the lifter's ways."""
    day = sessions.day_of(row)
    body_kg = lifter.body_kg(work, day) if day else None
    return Conditions(body_kg, sessions.frozen_kit(row), lifter.lifter(work).ways)


def session_done(work: UnitOfWork, row: SessionRow) -> SessionDone:
    """A session's bouts and when they were done, to be compared with another's."""
    return as_done(bouts.of(work, row.id), conditions(work, row))


def as_done(recorded: Sequence[RecordedBout], under: Conditions) -> SessionDone:
    """The bouts of a session and when they were done, as read before."""
    return SessionDone([DoneBout(each.bout, each.done_at) for each in recorded], under.body_kg)


def added_up(work: UnitOfWork, row: SessionRow) -> SessionTally:
    """A session's arithmetic."""
    return tally(played(work, row), bouts.performed(work, row.id), conditions(work, row), library(work))


def last_prepared(work: UnitOfWork, prep: Sequence[Preparation], before: datetime) -> list[date | None]:
    """The last day before a moment on which each preparation was done, by its words whatever their case."""
    found: dict[str, date] = {}
    with_prep = SessionRow.written.icontains("prep")
    rows = sessions.finished(work, before=before, limit=MOST_LOOKED_BACK, that=with_prep) if prep else ()
    for row in rows:
        day = sessions.day_of(row)
        for each in prepared(sessions.frozen(row), sessions.adjustments(row)):
            if each.done and day:
                found.setdefault(each.item.what.lower(), day)
    return [found.get(item.what.lower()) for item in prep]
