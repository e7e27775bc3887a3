"""Ledger: what was done, beside the last time, and what it recommends."""

from datetime import datetime
from uuid import UUID

from fastapi import APIRouter
from pydantic import BaseModel

from fortis.api.floor import Recorded, recorded
from fortis.api.problems import ProblemDetail
from fortis.api.views import SessionCard, card
from fortis.api.work import Work
from fortis.core.progression.next_loads import NextLoad
from fortis.core.structure.prescription import Position
from fortis.core.structure.timeline import asked
from fortis.core.tally.session import SessionTally
from fortis.core.units import Unit
from fortis.core.value import Kilograms
from fortis.store import sessions
from fortis.store.basis import added_up, last_of, recommended
from fortis.store.tables import SessionRow

router = APIRouter(prefix="/api/ledger", tags=["ledger"])


class LedgerRow(SessionCard):
    """A past session in a line. `minutes` is the time on the floor."""

    minutes: int
    tonnage_kg: Kilograms
    sets: int
    lifts: list[str]


class LedgerView(BaseModel):
    """Past sessions, the newest first."""

    sessions: list[LedgerRow]


class LedgerBout(Recorded):
    """A bout beside what was asked: the target in words, and the load planned."""

    asked: str
    planned_kg: Kilograms | None


class Before(BaseModel):
    """The last session of the same name, added up."""

    id: str
    started_at: datetime
    minutes: int
    tally: SessionTally


class PastSession(SessionCard):
    """A session in full."""

    written: str
    unit: Unit
    minutes: int
    bouts: list[LedgerBout]
    tally: SessionTally
    before: Before | None
    next_loads: list[NextLoad]


@router.get("")
def show(work: Work) -> LedgerView:
    """All past sessions."""
    return LedgerView(sessions=[_row(work, row) for row in sessions.finished(work)])


@router.get("/{session_id}", responses={404: {"model": ProblemDetail}})
def open_session(session_id: UUID, work: Work) -> PastSession:
    """One session to all its bouts, with its arithmetic beside last time and the next loads."""
    row = sessions.get(work, str(session_id))
    last = last_of(work, row.title, row.started_at) if row.started_at else None
    return PastSession(
        **card(row).model_dump(),
        written=row.written,
        unit=Unit(row.unit),
        minutes=_minutes(row),
        bouts=_bouts(row),
        tally=added_up(work, row),
        before=_before(work, last) if last else None,
        next_loads=list(recommended(work, row)),
    )


def _row(work: Work, row: SessionRow) -> LedgerRow:
    performed = sessions.performed(row)
    return LedgerRow(
        **card(row).model_dump(),
        minutes=_minutes(row),
        tonnage_kg=added_up(work, row).tonnage_kg,
        sets=len({(bout.position.group, bout.position.entry, bout.position.set) for bout in performed}),
        lifts=list(dict.fromkeys(bout.exercise for bout in performed)),
    )


def _before(work: Work, row: SessionRow) -> Before:
    assert row.started_at is not None
    return Before(id=row.id, started_at=row.started_at, minutes=_minutes(row), tally=added_up(work, row))


def _minutes(row: SessionRow) -> int:
    return max(round(sessions.time_on_the_floor(row).total_seconds() / 60), 0)


def _bouts(row: SessionRow) -> list[LedgerBout]:
    planned: dict[Position, tuple[str, Kilograms | None]] = {
        each.position(bout): (asked(bout), bout.settled.kg if bout.settled else None)
        for each in sessions.frozen(row).sets
        for bout in each.bouts
    }
    return [
        LedgerBout(**each.model_dump(), asked=words, planned_kg=kg)
        for each in recorded(row)
        for words, kg in [planned.get(each.bout.position, ("extra", None))]
    ]
