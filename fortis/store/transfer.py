"""The whole record taken away, and brought into a new one."""

from collections.abc import Callable, Iterable, Iterator, Mapping
from typing import Any, TypeVar

from sqlalchemy import delete, exists, insert, inspect, select
from sqlalchemy.orm import Session as UnitOfWork
from sqlalchemy.orm import undefer

from fortis.core.value import Value
from fortis.formats.documents import to_document
from fortis.formats.record import (
    AboutLifter,
    BodyWeightKept,
    BoutKept,
    BoutVersion,
    ImportKept,
    LifterKept,
    LiftKept,
    PlaceKept,
    PolicyKept,
    RecordFile,
    RememberedKept,
    SeasonKept,
    SessionKept,
    SetAsideKept,
    TemplateKept,
)
from fortis.store.bouts import bout_id
from fortis.store.naming import named
from fortis.store.recording import values_of
from fortis.store.tables import (
    BodyWeightRow,
    BoutRow,
    BoutVersionRow,
    ImportRow,
    LifterRow,
    LiftRow,
    PlaceRow,
    PolicyRow,
    ReadinessRow,
    RememberedRow,
    SeasonRow,
    SessionRow,
    SetAsideRow,
    Table,
    TemplateRow,
)

Kept = TypeVar("Kept", bound=Value)
AT_ONCE = 50
"""Sessions that are read or written at once."""
_ABOUT: Mapping[str, tuple[type[Table], type[Value]]] = {
    "places": (PlaceRow, PlaceKept),
    "body_weights": (BodyWeightRow, BodyWeightKept),
    "lifts": (LiftRow, LiftKept),
    "templates": (TemplateRow, TemplateKept),
    "set_aside": (SetAsideRow, SetAsideKept),
    "remembered": (RememberedRow, RememberedKept),
    "policies": (PolicyRow, PolicyKept),
    "imports": (ImportRow, ImportKept),
    "seasons": (SeasonRow, SeasonKept),
}
"""What there is beside the lifter and the sessions."""
_IN_ORDER = (
    ImportRow,
    SeasonRow,
    PlaceRow,
    LifterRow,
    BodyWeightRow,
    LiftRow,
    TemplateRow,
    SetAsideRow,
    RememberedRow,
    PolicyRow,
)
"""Tables in the order in which rows may refer to each other."""


class NotEmptyError(ValueError):
    """The record has sessions already, so another whole one cannot be brought into it."""


def about_lifter(work: UnitOfWork) -> AboutLifter:
    """Everything in the record but its sessions."""
    (lifter,) = work.scalars(select(LifterRow))
    parts = {
        name: tuple(_kept(kind, row) for row in work.scalars(select(table).order_by(*inspect(table).primary_key)))
        for name, (table, kind) in _ABOUT.items()
    }
    return AboutLifter.model_validate({"lifter": _kept(LifterKept, lifter), **parts})


def all_sessions(work: UnitOfWork) -> Iterator[SessionKept]:
    """Every session with its bouts and their versions, planned and put aside ones too."""
    every = work.scalars(select(SessionRow.id).order_by(SessionRow.started_at, SessionRow.id)).all()
    readiness = {row.session_id: row.readiness for row in work.scalars(select(ReadinessRow))}
    for at in range(0, len(every), AT_ONCE):
        ids = every[at : at + AT_ONCE]
        some = select(SessionRow).options(undefer(SessionRow.resolved)).where(SessionRow.id.in_(ids))
        rows = work.scalars(some.order_by(SessionRow.started_at, SessionRow.id)).all()
        bouts: dict[str, list[BoutKept]] = {each: [] for each in ids}
        versions = _versions(work, ids)
        query = select(BoutRow).where(BoutRow.session_id.in_(ids)).order_by(BoutRow.done_at, BoutRow.id)
        for bout in work.scalars(query):
            bouts[bout.session_id].append(_bout(bout, versions[bout.id]))
        for row in rows:
            yield _kept(SessionKept, row, readiness=readiness.get(row.id), bouts=tuple(bouts[row.id]))
        work.expunge_all()


def _versions(work: UnitOfWork, session_ids: Iterable[str]) -> dict[str, list[BoutVersion]]:
    """The versions of the bouts of some sessions, by bout."""
    query = (
        select(BoutVersionRow)
        .join(BoutRow, BoutRow.id == BoutVersionRow.bout_id)
        .where(BoutRow.session_id.in_(session_ids))
        .order_by(BoutVersionRow.bout_id, BoutVersionRow.version)
    )
    found: dict[str, list[BoutVersion]] = {}
    for row in work.scalars(query):
        found.setdefault(row.bout_id, []).append(_kept(BoutVersion, row, bout=row.document))
    return found


def _bout(row: BoutRow, versions: Iterable[BoutVersion]) -> BoutKept:
    position = {name: getattr(row, name) for name in ("group", "round", "entry", "set", "bout")}
    own = {"setup": {"items": row.setup}, "rep_seconds": row.rep_seconds or (), "versions": tuple(versions)}
    return _kept(BoutKept, row, position=position, **own)


def _kept(kind: type[Kept], row: Table, **more: Any) -> Kept:
    """A row as it is taken away: what both call the same, and `more`."""
    told = {name: getattr(row, name) for name in kind.model_fields if name not in more and hasattr(row, name)}
    return kind.model_validate({**told, **more})


def bring_in(work: UnitOfWork, file: RecordFile, progress: Callable[[int], None] = lambda _: None) -> int:
    """Write a whole record into this one, which is new; returns how many sessions that were.

    Raises `NotEmptyError`, and `RecordFileError` where something in the file is wrong: then nothing may be kept.
    """
    if work.scalar(select(exists().where(SessionRow.id.is_not(None)))):
        raise NotEmptyError
    for table in reversed(_IN_ORDER):
        work.execute(delete(table))
    work.expunge_all()
    parts: dict[type[Table], list[dict[str, Any]]] = {
        table: [_columns(each) for each in getattr(file.about, name)] for name, (table, _) in _ABOUT.items()
    }
    parts[LifterRow] = [{"id": 1, **_columns(file.about.lifter)}]
    for table in _IN_ORDER:
        if parts[table]:
            work.execute(insert(table), parts[table])
    many = 0
    for many, session in enumerate(file.sessions, start=1):
        _bring_session(work, session)
        progress(many)
    return many


def _bring_session(work: UnitOfWork, session: SessionKept) -> None:
    columns = _columns(session)
    readiness = columns.pop("readiness")
    columns.pop("bouts")
    columns["structures"] = named(session.written, session.unit)
    work.execute(insert(SessionRow), [columns])
    if readiness:
        work.execute(insert(ReadinessRow), [{"session_id": session.id, "readiness": readiness}])
    rows, versions = [], []
    for bout in session.bouts:
        row_id = bout_id(session.id, bout.position)
        own = {name: getattr(bout, name) for name in ("began_at", "done_at", "device", "taken_back_at", "version")}
        address = {"id": row_id, "session_id": session.id, **bout.position.model_dump()}
        rows.append({**address, **own, **values_of(bout)})
        for each in bout.versions:
            told = _columns(each)
            versions.append({"bout_id": row_id, "document": told.pop("bout"), **told})
    for table, new in ((BoutRow, rows), (BoutVersionRow, versions)):
        if new:
            work.execute(insert(table), new)


def _columns(kept: Value) -> dict[str, Any]:
    """A part of a record as the columns of its row: documents as they are kept."""
    return {
        name: to_document(value) if isinstance(value, Value) else value
        for name in type(kept).model_fields
        for value in [getattr(kept, name)]
    }
