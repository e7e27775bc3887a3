"""Logs of other making taken into the record: examined, written whole or not at all, and taken back again."""

from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from datetime import UTC, date, datetime, timedelta
from decimal import Decimal
from itertools import islice
from typing import NamedTuple, cast
from uuid import uuid4

from sqlalchemy import Table, delete, insert, select, update
from sqlalchemy.dialects.sqlite import insert as upsert
from sqlalchemy.orm import Session as UnitOfWork

from fortis.core.exercises import Library
from fortis.core.lift_names import as_lift_name, meant
from fortis.core.logged import LoggedBout
from fortis.core.logged_session import LoggedSession, put_together
from fortis.core.structure.notation import MOST_BOUTS
from fortis.core.units import Unit
from fortis.core.value import Value
from fortis.formats.bout_row import CsvError
from fortis.formats.documents import to_document
from fortis.formats.foreign import Reader
from fortis.store import sessions
from fortis.store.database import Database, writing
from fortis.store.lifter import WEIGHED, lifter
from fortis.store.lifts import library
from fortis.store.naming import names_of
from fortis.store.recording import record_all
from fortis.store.staging import Staged
from fortis.store.tables import BodyWeightRow, BoutRow, BoutVersionRow, ImportRow, SessionRow

DEVICE = "import"
MOST_TOLD = 200
"""Rows that are passed over of which each is told, the first ones."""
SHOWN = 3
"""Sessions shown of what will be written: the latest ones."""
AT_ONCE = 50
"""Sessions that are written in one go: others get their turn between."""
Progress = Callable[[int], None]
"""Is told how many bouts, or rows, are through."""


class PassedOver(Value):
    """A row that is not taken, with the line it stands on, its column and what is wrong there."""

    line: int
    column: str
    why: str


class LiftOfLog(Value):
    """A lift as a log calls it, with how many bouts of it there are; `suggested` is the lift it seems to be.

    `sure` where it is called the same; where nothing is suggested it is a lift that is not known.
    """

    name: str
    bouts: int
    suggested: str
    sure: bool


class SessionPreview(Value):
    """A session as it will be written, in the notation."""

    day: date
    written: str


class LogPreview(Value):
    """What a log comes to, before anything of it is written.

    `there_already` are bouts that the record has; `passed_over` tells the first of the rows that are not taken, of
    which there are `rows_passed_over`. `too_long` are sessions of more bouts than one can have: they are not taken.
    """

    rows: int
    sessions: int
    bouts: int
    there_already: int
    too_long: int
    first: date | None
    last: date | None
    lifts: tuple[LiftOfLog, ...]
    rows_passed_over: int
    passed_over: tuple[PassedOver, ...]
    previews: tuple[SessionPreview, ...]


class UnknownImportError(LookupError):
    """There is no import of that id."""


class ReadLog(NamedTuple):
    """A log that was read: its rows, how many were passed over, the first of those, and its lifts."""

    rows: int
    rows_passed_over: int
    passed_over: tuple[PassedOver, ...]
    lifts: tuple[LiftOfLog, ...]

    @property
    def suggestions(self) -> dict[str, str]:
        """The lifts that its names seem to mean; those that mean none stay, as far as they can be written."""
        return {each.name: each.suggested or as_lift_name(each.name) for each in self.lifts}


def stage(reader: Reader, staged: Staged, known: Library, progress: Progress = lambda _: None) -> ReadLog:
    """Read every row and put its bouts down. Raises `TableError`."""
    rows = passed = 0
    told: list[PassedOver] = []
    for rows, row in enumerate(reader.rows(), start=1):
        try:
            staged.add(row.line, reader.bouts(row))
        except CsvError as error:
            passed += 1
            if len(told) < MOST_TOLD:
                told.append(PassedOver(line=error.line, column=error.column, why=error.message))
        if rows % AT_ONCE == 0:
            progress(rows)
    return ReadLog(rows, passed, tuple(told), tuple(_lifts(staged, known)))


def _lifts(staged: Staged, known: Library) -> Iterator[LiftOfLog]:
    """The lifts of a log, those with the most bouts first."""
    for name, many in sorted(staged.lifts.items(), key=lambda each: (-each[1], each[0])):
        likely = meant(name, known)
        suggested, sure = likely or ("", False)
        yield LiftOfLog(name=name, bouts=many, suggested=suggested, sure=sure)


class Plan(NamedTuple):
    """How a log that was put down is taken in: the lifts meant by its names, and the unit its loads are shown in.

    A name that is not there stays as it is, one that means nothing is left out.
    """

    lifts: Mapping[str, str]
    unit: Unit = Unit.KG


def examine(
    work: UnitOfWork,
    staged: Staged,
    read: ReadLog,
    plan: Plan,
    progress: Progress = lambda _: None,
) -> LogPreview:
    """Tell what a log that was put down comes to with the lifts as they are meant."""
    known, zone = library(work), lifter(work).zone
    there = _there(work, known)
    many = bouts = doubled = too_long = 0
    days: set[date] = set()
    latest: list[tuple[date, list[LoggedBout]]] = []
    for session in _renamed(staged, plan):
        new = _new(session, there)
        doubled += len(session) - len(new)
        progress(bouts + doubled)
        if len(new) > MOST_BOUTS:
            too_long += 1
        if not 0 < len(new) <= MOST_BOUTS:
            continue
        day = sessions.day_in(zone, new[0].performed_at)
        many, bouts = many + 1, bouts + len(new)
        days |= {day}
        latest = sorted([*latest, (day, new)], key=lambda each: each[0])[-SHOWN:]
    return LogPreview(
        rows=read.rows,
        sessions=many,
        bouts=bouts,
        there_already=doubled,
        too_long=too_long,
        first=min(days, default=None),
        last=max(days, default=None),
        lifts=read.lifts,
        rows_passed_over=read.rows_passed_over,
        passed_over=read.passed_over,
        previews=tuple(
            SessionPreview(day=day, written=put_together(session, plan.unit, known).written)
            for day, session in reversed(latest)
        ),
    )


def _renamed(staged: Staged, plan: Plan) -> Iterator[list[LoggedBout]]:
    """The sessions with their lifts as they are meant, without those that are left out."""
    names: dict[str, str] = {}
    for session in staged.sessions():
        kept = []
        for bout in session:
            name = names.get(bout.exercise)
            if name is None:
                name = names[bout.exercise] = plan.lifts.get(bout.exercise, as_lift_name(bout.exercise))
            if name:
                kept.append(bout if name == bout.exercise else bout.model_copy(update={"exercise": name}))
        if kept:
            yield kept


def _there(work: UnitOfWork, known: Library) -> Callable[[LoggedBout], bool]:
    """Tells whether the record has a bout already."""
    query = (
        select(BoutRow.done_at, BoutRow.lift_id, BoutRow.kg, BoutRow.reps)
        .join(SessionRow, SessionRow.id == BoutRow.session_id)
        .where(BoutRow.taken_back_at.is_(None), SessionRow.discarded_at.is_(None))
    )
    found = {hash((at, lift, kg or Decimal(0), reps)) for at, lift, kg, reps in work.execute(query)}
    ids: dict[str, str] = {}

    def is_there(bout: LoggedBout) -> bool:
        lift = ids.get(bout.exercise) or ids.setdefault(bout.exercise, known.find(bout.exercise).id)
        return hash((bout.performed_at.astimezone(UTC), lift, bout.load_kg, bout.reps)) in found

    return is_there


def _new(session: list[LoggedBout], is_there: Callable[[LoggedBout], bool]) -> list[LoggedBout]:
    return [bout for bout in session if not is_there(bout)]


def write(
    database: Database, name: str, staged: Staged, plan: Plan, now: datetime, progress: Progress = lambda _: None
) -> str:
    """Write what was put down into the record; returns the id of the import.

    It goes in by small parts, so that others can write meanwhile, and is seen only when all of it is there.
    """
    import_id = str(uuid4())
    with database() as work:
        known, zone = library(work), lifter(work).zone
        is_there = _there(work, known)
    into = writing(database)
    with into.begin() as work:
        _clear_unfinished(work, now)
        work.add(ImportRow(id=import_id, name=name, at=now, sessions=0, bouts=0, body_weights={}))
    writer = _Writer(import_id, zone, plan.unit, known, now)
    new = (bouts for session in _renamed(staged, plan) if 0 < len(bouts := _new(session, is_there)) <= MOST_BOUTS)
    while some := [writer.put_together(bouts) for bouts in islice(new, AT_ONCE)]:
        with into.begin() as work:
            writer.write(work, some)
        progress(writer.bouts)
    with into.begin() as work:
        row = work.get_one(ImportRow, import_id)
        row.sessions, row.bouts, row.written_at = writer.sessions, writer.bouts, now
        row.body_weights = {f"{day}": f"{kg:f}" for day, kg in writer.weights.items()}
        _show(work, row)
    return import_id


GIVEN_UP_AFTER = timedelta(days=1)
"""An import that is not whole by then is one that was killed."""


def _clear_unfinished(work: UnitOfWork, now: datetime) -> None:
    """Delete what imports left that were killed half way: nobody has seen any of it."""
    given_up = select(ImportRow.id).where(ImportRow.written_at.is_(None), ImportRow.at < now - GIVEN_UP_AFTER)
    for row in work.scalars(given_up).all():
        of_import = select(SessionRow.id).where(SessionRow.import_id == row)
        its_bouts = select(BoutRow.id).where(BoutRow.session_id.in_(of_import))
        work.execute(delete(BoutVersionRow).where(BoutVersionRow.bout_id.in_(its_bouts)))
        work.execute(delete(BoutRow).where(BoutRow.session_id.in_(of_import)))
        work.execute(delete(SessionRow).where(SessionRow.import_id == row))
        work.execute(delete(ImportRow).where(ImportRow.id == row))


class _Writer:
    """Writes sessions of an import, not seen yet."""

    def __init__(self, import_id: str, zone: str, unit: Unit, known: Library, now: datetime) -> None:
        self.import_id, self.zone, self.unit, self.known, self.now = import_id, zone, unit, known, now
        self.sessions = self.bouts = 0
        self.weights: dict[date, Decimal] = {}
        self._slots: dict[str, str] = {}

    def put_together(self, bouts: list[LoggedBout]) -> LoggedSession:
        """The bouts of a session as that; its body weight is kept."""
        day = sessions.day_in(self.zone, bouts[0].performed_at)
        if weighed := next((bout.body_kg for bout in bouts if bout.body_kg), None):
            self.weights.setdefault(day, weighed)
        return put_together(bouts, self.unit, self.known)

    def write(self, work: UnitOfWork, some: Iterable[LoggedSession]) -> None:
        """Write some sessions."""
        rows = [(self._row(work, session), session) for session in some]
        work.connection().execute(insert(cast(Table, SessionRow.__table__)), [row for row, _ in rows])
        done = [(str(row["id"]), each) for row, session in rows for each in session.done]
        record_all(work, done, self.now, DEVICE)
        self.sessions, self.bouts = self.sessions + len(rows), self.bouts + len(done)

    def _row(self, work: UnitOfWork, session: LoggedSession) -> dict[str, object]:
        session_id, title = str(uuid4()), session.session.title or sessions.UNTITLED
        if title not in self._slots:
            self._slots[title] = sessions.slot_of_title(work, title) or session_id
        first, last = session.done[0], session.done[-1]
        return {
            "id": session_id,
            "slot": session_id if title == sessions.UNTITLED else self._slots[title],
            "title": title,
            "written": session.written,
            "structures": names_of(session.session),
            "unit": self.unit,
            "started_at": first.began_at or first.done_at,
            "finished_at": last.done_at,
            "discarded_at": self.now,
            "zone": self.zone,
            "resolved": to_document(session.prescription),
            "import_id": self.import_id,
        }


def all_imports(work: UnitOfWork) -> Sequence[ImportRow]:
    """The imports that were written whole, the latest first."""
    query = select(ImportRow).where(ImportRow.written_at.is_not(None))
    return work.scalars(query.order_by(ImportRow.at.desc(), ImportRow.id)).all()


def take_back(work: UnitOfWork, import_id: str, now: datetime) -> ImportRow:
    """Take back all that came with an import; twice is once. Raises `UnknownImportError`.

    Nothing is deleted but body weights, which the import keeps.
    """
    row = _get(work, import_id)
    if row.taken_back_at is None:
        row.taken_back_at = now
        work.execute(
            update(SessionRow)
            .where(SessionRow.import_id == import_id, SessionRow.discarded_at.is_(None))
            .values(discarded_at=now)
        )
        work.execute(delete(BodyWeightRow).where(BodyWeightRow.import_id == import_id))
        work.info.pop(WEIGHED, None)
    return row


def bring_back(work: UnitOfWork, import_id: str) -> ImportRow:
    """Bring back an import that was taken back. Raises `UnknownImportError`."""
    row = _get(work, import_id)
    if row.taken_back_at is not None:
        _show(work, row, row.taken_back_at)
        row.taken_back_at = None
    return row


def _show(work: UnitOfWork, row: ImportRow, hidden_at: datetime | None = None) -> None:
    """Let what came with an import be seen, and count its body weights on days that have no other."""
    work.execute(
        update(SessionRow)
        .where(SessionRow.import_id == row.id, SessionRow.discarded_at == (hidden_at or row.at))
        .values(discarded_at=None)
    )
    weighed = [
        {"on": date.fromisoformat(day), "kg": Decimal(kg), "import_id": row.id}
        for day, kg in row.body_weights.items()
    ]
    if weighed:
        work.execute(upsert(BodyWeightRow).on_conflict_do_nothing(), weighed)
    work.info.pop(WEIGHED, None)


def _get(work: UnitOfWork, import_id: str) -> ImportRow:
    row = work.get(ImportRow, import_id)
    if row is None or row.written_at is None:
        raise UnknownImportError(import_id)
    return row
