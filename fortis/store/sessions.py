"""Sessions in the store: planned, started, performed bout by bout, finished."""

from collections.abc import Sequence
from datetime import date, datetime, timedelta
from enum import StrEnum
from uuid import NAMESPACE_URL, UUID, uuid5

from sqlalchemy import Select, func, select
from sqlalchemy.dialects.sqlite import insert
from sqlalchemy.orm import Session as Unit_of_work
from sqlalchemy.orm import selectinload

from fortis.core.performance import Ended, PerformedBout
from fortis.core.structure.model import SetUp, Side
from fortis.core.structure.notation import read
from fortis.core.structure.prescription import Position, Prescription
from fortis.core.units import Unit
from fortis.store.tables import BoutRow, SessionRow

UNTITLED = "Session"
"""What a session is called whose text does not say."""


class State(StrEnum):
    """Where a session is on its way."""

    PLANNED = "planned"
    STARTED = "started"
    FINISHED = "finished"


class UnknownSessionError(LookupError):
    """There is no session of that id."""


class ChangedElsewhereError(ValueError):
    """A bout was written on another device, or in another tab, since this one last saw it."""

    def __init__(self, bout: PerformedBout, version: int) -> None:
        self.bout, self.version = bout, version
        super().__init__(str(bout.position))


class NotStartedError(ValueError):
    """The session is not being played, so this cannot be done to it."""


def state_of(row: SessionRow) -> State:
    """Where a session is on its way."""
    if row.finished_at:
        return State.FINISHED
    return State.STARTED if row.started_at else State.PLANNED


def bout_id(session_id: str, position: Position) -> UUID:
    """The id of the bout at a place in a session: the same on every device, so that two are one."""
    return uuid5(NAMESPACE_URL, f"fortis:{session_id}:{position}")


def get(work: Unit_of_work, session_id: str) -> SessionRow:
    """One session with its bouts. Raises `UnknownSessionError`."""
    row = work.get(SessionRow, session_id, options=[selectinload(SessionRow.bouts)])
    if row is None:
        raise UnknownSessionError(session_id)
    return row


def save_plan(work: Unit_of_work, session_id: str, written: str, unit: Unit, planned_on: date | None) -> SessionRow:
    """Save a session as planned, new or changed. What has been started keeps the loads it was started with.

    `written` must be good notation: `read` is called on it and its error passes through.
    """
    session = read(written, unit)
    row = work.get(SessionRow, session_id)
    if row is None:
        row = SessionRow(id=session_id)
        work.add(row)
    if row.started_at is None:
        row.written, row.unit = written, unit
        row.title = session.title or UNTITLED
    row.planned_on = planned_on
    row.discarded_at = None
    work.flush()
    return get(work, session_id)


def discard(work: Unit_of_work, session_id: str, now: datetime) -> None:
    """Put a session aside. Nothing is deleted: saving it again brings it back."""
    get(work, session_id).discarded_at = now


def frozen(row: SessionRow) -> Prescription:
    """The plan of a session as it was settled at its start. Raises `NotStartedError` before that."""
    if row.resolved is None:
        raise NotStartedError(row.id)
    return Prescription.model_validate(row.resolved)


def start(row: SessionRow, resolved: Prescription, now: datetime) -> None:
    """Start a session with its loads settled. A second start changes nothing."""
    if row.started_at is None:
        row.started_at = now
        row.resolved = resolved.model_dump(mode="json", exclude_none=True)


def finish(row: SessionRow, finished_at: datetime, now: datetime) -> None:
    """Finish a session. A second finish changes nothing; one that was not started cannot be finished.

    A device whose clock is off may tell a moment before the start or one to come: it is brought in between.
    """
    if row.started_at is None:
        raise NotStartedError(row.id)
    row.finished_at = row.finished_at or min(max(finished_at, row.started_at), now)


def reopen(row: SessionRow) -> None:
    """Put a finished session under way again."""
    row.finished_at = None


def record(
    work: Unit_of_work, session_id: str, bout: PerformedBout, done_at: datetime, seen: int | None = None
) -> int:
    """Write a bout into its place, or over what was there: sent twice, it is there once. Returns its version.

    When it was first done is kept through corrections. `seen` is the version that the correction was made from;
    where another one has been written since, with other numbers, `ChangedElsewhereError` is raised.
    """
    place = bout.position.model_dump()
    values = {
        "exercise": bout.exercise,
        "setup": list(bout.setup.items),
        "side": bout.side,
        "kg": bout.kg,
        "reps": bout.reps,
        "partial_reps": bout.partial_reps,
        "seconds": bout.seconds,
        "reserve": bout.reserve,
        "ended": bout.ended,
        "note": bout.note,
        "rep_seconds": list(bout.rep_seconds) or None,
    }
    identity = {"id": str(bout_id(session_id, bout.position)), "session_id": session_id}
    there = work.get(BoutRow, identity["id"], populate_existing=True)
    if there is not None:
        if performed_bout(there) == bout:
            return there.version
        if seen is None or seen < there.version:
            raise ChangedElsewhereError(performed_bout(there), there.version)
    statement = insert(BoutRow).values(**identity, **place, **values, done_at=done_at, version=1)
    newer = {**values, "version": BoutRow.version + 1}
    work.execute(statement.on_conflict_do_update(index_elements=[BoutRow.id], set_=newer))
    return 1 if there is None else there.version + 1


def take_back(work: Unit_of_work, session_id: str, position: Position) -> None:
    """Take a bout back out of the record, where the lifter undid it."""
    row = work.get(BoutRow, str(bout_id(session_id, position)))
    if row is not None:
        work.delete(row)


def performed(row: SessionRow) -> tuple[PerformedBout, ...]:
    """The bouts of a session in the order they were done."""
    return tuple(map(performed_bout, row.bouts))


def performed_bout(row: BoutRow) -> PerformedBout:
    """A row as a bout."""
    position = Position(group=row.group, round=row.round, entry=row.entry, set=row.set, bout=row.bout)
    return PerformedBout(
        position=position,
        exercise=row.exercise,
        setup=SetUp(items=tuple(row.setup)),
        side=Side(row.side),
        kg=row.kg,
        reps=row.reps,
        partial_reps=row.partial_reps,
        seconds=row.seconds,
        reserve=row.reserve,
        ended=Ended(row.ended) if row.ended else None,
        note=row.note,
        rep_seconds=tuple(row.rep_seconds or ()),
    )


def time_on_the_floor(row: SessionRow) -> timedelta:
    """From the start to the last bout, because a session may be closed long after it."""
    if row.started_at is None:
        return timedelta()
    return max((bout.done_at for bout in row.bouts), default=row.started_at) - row.started_at


def started(work: Unit_of_work) -> SessionRow | None:
    """The session being played, the latest where there are several."""
    query = _kept().where(SessionRow.started_at.is_not(None), SessionRow.finished_at.is_(None))
    return work.scalars(query.order_by(SessionRow.started_at.desc()).limit(1)).first()


def planned(work: Unit_of_work) -> Sequence[SessionRow]:
    """Sessions not yet started, the earliest date first, those without a date last."""
    query = _kept().where(SessionRow.started_at.is_(None))
    return work.scalars(query.order_by(SessionRow.planned_on.is_(None), SessionRow.planned_on)).all()


def finished(
    work: Unit_of_work,
    *,
    title: str | None = None,
    before: datetime | None = None,
    since: datetime | None = None,
    limit: int | None = None,
) -> Sequence[SessionRow]:
    """Finished sessions with their bouts, the newest first, of one title where given (whatever its case)."""
    query = _kept().where(SessionRow.finished_at.is_not(None)).options(selectinload(SessionRow.bouts))
    if title is not None:
        query = query.where(func.lower(SessionRow.title) == func.lower(title))
    if before is not None:
        query = query.where(SessionRow.started_at < before)
    if since is not None:
        query = query.where(SessionRow.started_at >= since)
    return work.scalars(query.order_by(SessionRow.started_at.desc()).limit(limit)).all()


def _kept() -> Select[SessionRow]:
    return select(SessionRow).where(SessionRow.discarded_at.is_(None))
