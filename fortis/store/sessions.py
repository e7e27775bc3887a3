"""Sessions in the store: planned, started, finished."""

from collections.abc import Callable, Iterable, Sequence
from datetime import UTC, date, datetime, timedelta
from enum import StrEnum
from typing import Any, NamedTuple, TypeVar
from zoneinfo import ZoneInfo

from sqlalchemy import ColumnElement, Select, func, literal, or_, select, tuple_
from sqlalchemy.orm import Session as UnitOfWork
from sqlalchemy.orm import object_session

from fortis.core.adjustments import Adjustments
from fortis.core.loading.kit import Kit
from fortis.core.performance import PerformedBout
from fortis.core.structure.notation import read
from fortis.core.structure.prescription import Prescription
from fortis.core.units import Unit
from fortis.formats.documents import from_document, to_document
from fortis.store.bouts import RecordedBout
from fortis.store.cache import Kept
from fortis.store.naming import named
from fortis.store.tables import Instant, SessionRow

Frozen = TypeVar("Frozen")

UNTITLED = "Session"
"""What a session is called whose text does not say."""


class State(StrEnum):
    """Where a session is on its way."""

    PLANNED = "planned"
    STARTED = "started"
    FINISHED = "finished"


class UnknownSessionError(LookupError):
    """There is no session of that id."""


class NotStartedError(ValueError):
    """The session is not being played, so this cannot be done to it."""


class StartedError(ValueError):
    """The session has been started, so its text stays as it is."""


def state_of(row: SessionRow) -> State:
    """Where a session is on its way."""
    if row.finished_at:
        return State.FINISHED
    return State.STARTED if row.started_at else State.PLANNED


def get(work: UnitOfWork, session_id: str) -> SessionRow:
    """One session. Raises `UnknownSessionError`."""
    row = work.get(SessionRow, session_id)
    if row is None:
        raise UnknownSessionError(session_id)
    return row


def save_plan(
    work: UnitOfWork,
    session_id: str,
    written: str,
    unit: Unit,
    planned_on: date | None,
    slot: str | None = None,
) -> SessionRow:
    """Save a session as planned, new or changed. Raises `StartedError` where its text would change on the Floor.

    `written` must be good notation: `read` is called on it and its error passes through. A new session fills
    `slot`; where none is given, that of the latest session of the same title, else one of its own.
    """
    session = read(written, unit)
    title = session.title or UNTITLED
    row = work.get(SessionRow, session_id)
    if row is None:
        row = SessionRow(id=session_id, slot=slot or slot_of_title(work, title) or session_id)
        work.add(row)
    elif row.started_at is not None and (row.written, row.unit) != (written, unit):
        raise StartedError(session_id)
    row.written, row.unit, row.title = written, unit, title
    row.structures = named(written, unit)
    row.planned_on = planned_on
    row.discarded_at = None
    work.flush()
    return get(work, session_id)


def slot_of_title(work: UnitOfWork, title: str) -> str | None:
    """The slot of the latest session of a title, whatever its case; sessions without a title stand alone."""
    if title == UNTITLED:
        return None
    query = _in_use().where(func.lower(SessionRow.title) == func.lower(title))
    latest = func.coalesce(SessionRow.started_at, SessionRow.planned_on).desc()
    row = work.scalars(query.order_by(latest, SessionRow.id).limit(1)).first()
    return row.slot if row else None


def discard(work: UnitOfWork, session_id: str, now: datetime) -> None:
    """Put a session aside. Nothing is deleted: saving it again brings it back."""
    get(work, session_id).discarded_at = now


def frozen(row: SessionRow) -> Prescription:
    """The plan of a session as it was settled at its start. Raises `NotStartedError` before that."""
    if row.started_at is None:
        raise NotStartedError(row.id)
    return _once(row, "resolved", lambda: from_document(Prescription, row.resolved or {}))


def frozen_kit(row: SessionRow) -> Kit | None:
    """The kit of the gym as it was when the session started; None before that."""
    if row.started_at is None:
        return None
    return _once(row, "kit", lambda: None if row.kit is None else from_document(Kit, row.kit))


MOST_READ = 128
_frozen: Kept[Any] = Kept(MOST_READ)


def _once(row: SessionRow, what: str, read_it: Callable[[], Frozen]) -> Frozen:
    """What was frozen with a session, read once: it never changes after the start."""
    work = object_session(row)
    if work is None:
        return read_it()
    found: Frozen = _frozen.get_or(work, (row.id, what), row.started_at, read_it)
    return found


def adjustments(row: SessionRow) -> Adjustments:
    """What was changed of the plan on the floor."""
    return from_document(Adjustments, row.adjustments or {})


def adjust(row: SessionRow, changed: Adjustments) -> None:
    """Keep what was changed of the plan on the floor."""
    row.adjustments = to_document(changed)


def start(row: SessionRow, resolved: Prescription, kit: Kit, now: datetime) -> None:
    """Start a session with its loads settled from a kit. A second start changes nothing."""
    if row.started_at is None:
        row.started_at = now
        row.resolved = to_document(resolved)
        row.kit = to_document(kit)


def finish(row: SessionRow, finished_at: datetime, now: datetime) -> None:
    """Finish a session. A second finish changes nothing; one that was not started cannot be finished.

    A device whose clock is off may tell a moment before the start or one to come: it is brought in between.
    """
    if row.started_at is None:
        raise NotStartedError(row.id)
    row.finished_at = row.finished_at or max(min(finished_at, now), row.started_at)


def reopen(row: SessionRow) -> None:
    """Put a finished session under way again."""
    row.finished_at = None


def first_day(work: UnitOfWork) -> date | None:
    """The day of the first finished session; None while there is none."""
    query = _in_use().where(SessionRow.finished_at.is_not(None)).order_by(SessionRow.started_at).limit(1)
    first = work.scalars(query).first()
    return day_of(first) if first else None


def day_of(row: SessionRow) -> date | None:
    """The day a session was started on, where the lifter was; None before that."""
    return row.started_at and day_in(row.zone, row.started_at)


def time_on_the_floor(row: SessionRow, done: Iterable[RecordedBout]) -> timedelta:
    """From the start to the last of its bouts, because a session may be closed long after it."""
    if row.started_at is None:
        return timedelta()
    return max((bout.done_at for bout in done), default=row.started_at) - row.started_at


def started(work: UnitOfWork) -> SessionRow | None:
    """The session being played, the latest where there are several."""
    query = _in_use().where(SessionRow.started_at.is_not(None), SessionRow.finished_at.is_(None))
    return work.scalars(query.order_by(SessionRow.started_at.desc()).limit(1)).first()


def planned(work: UnitOfWork) -> Sequence[SessionRow]:
    """Sessions not yet started, the earliest date first, those without a date last."""
    query = _in_use().where(SessionRow.started_at.is_(None))
    return work.scalars(query.order_by(SessionRow.planned_on.is_(None), SessionRow.planned_on)).all()


def finished(
    work: UnitOfWork,
    *,
    slot: str | None = None,
    before: datetime | SessionRow | None = None,
    since: datetime | None = None,
    limit: int | None = None,
    that: ColumnElement[bool] | None = None,
) -> Sequence[SessionRow]:
    """Finished sessions, the newest first, of one slot where given, before a moment or another session.

    `that` is what else they must meet.
    """
    query = _newest_finished()
    if slot is not None:
        query = query.where(SessionRow.slot == slot)
    if isinstance(before, SessionRow):
        query = query.where(_order < tuple_(literal(before.started_at, Instant), literal(before.id)))
    elif before is not None:
        query = query.where(SessionRow.started_at < before)
    if since is not None:
        query = query.where(SessionRow.started_at >= since)
    if that is not None:
        query = query.where(that)
    return work.scalars(query.limit(limit)).all()


def finished_ids(work: UnitOfWork, *, before: datetime | None = None, limit: int) -> Sequence[str]:
    """The ids of the last so many finished sessions, the newest first, before a moment where one is given."""
    query = _newest_finished().with_only_columns(SessionRow.id)
    if before is not None:
        query = query.where(SessionRow.started_at < before)
    return work.scalars(query.limit(limit)).all()


def others(before: datetime) -> ColumnElement[bool]:
    """All but the finished sessions before a moment: those that are not over, put aside, or later."""
    return or_(
        SessionRow.finished_at.is_(None), SessionRow.discarded_at.is_not(None), SessionRow.started_at >= before
    )


def just_after(row: SessionRow) -> datetime:
    """The first moment at which a session that was started counts among what is known."""
    return (row.started_at or datetime.now(UTC)) + timedelta(microseconds=1)


class Beginning(NamedTuple):
    """A session that was finished: when it began, and on which day where the lifter was.

    One with a `remembered` bout is that by itself, told from memory.
    """

    id: str
    started_at: datetime
    day: date
    remembered: PerformedBout | None = None


def beginnings(work: UnitOfWork, *, before: datetime, since: datetime) -> Sequence[Beginning]:
    """The finished sessions that began within a time, the oldest first."""
    query = (
        select(SessionRow.id, SessionRow.started_at, SessionRow.zone)
        .where(SessionRow.discarded_at.is_(None), SessionRow.finished_at.is_not(None))
        .where(SessionRow.started_at < before, SessionRow.started_at >= since)
        .order_by(SessionRow.started_at, SessionRow.id)
    )
    return [Beginning(row, began, day_in(zone, began)) for row, began, zone in work.execute(query) if began]


def day_in(zone: str | None, moment: datetime) -> date:
    """The day of a moment where a lifter was; UTC where no zone is known."""
    return moment.astimezone(ZoneInfo(zone or "UTC")).date()


_order = tuple_(SessionRow.started_at, SessionRow.id)


def _newest_finished() -> Select[SessionRow]:
    """Finished sessions, the newest first."""
    query = _in_use().where(SessionRow.finished_at.is_not(None))
    return query.order_by(SessionRow.started_at.desc(), SessionRow.id.desc())


def _in_use() -> Select[SessionRow]:
    return select(SessionRow).where(SessionRow.discarded_at.is_(None))
