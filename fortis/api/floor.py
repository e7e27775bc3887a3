"""Floor: a session played, every bout saved as it happens."""

from datetime import datetime
from decimal import Decimal
from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Depends, Path
from pydantic import BaseModel, Field

from fortis.api.problems import ProblemDetail
from fortis.api.views import SessionCard, card
from fortis.api.work import Now, Work, today
from fortis.core.performance import Ended, PerformedBout
from fortis.core.structure.model import SetUp, Side
from fortis.core.structure.prescription import Position
from fortis.core.structure.timeline import Timeline, timeline
from fortis.core.tally.session import tonnage
from fortis.core.units import Unit
from fortis.core.value import Kilograms, Number
from fortis.store import lifter, sessions
from fortis.store.basis import resolved
from fortis.store.lifts import library
from fortis.store.tables import SessionRow

router = APIRouter(
    prefix="/api/floor", tags=["floor"], responses={404: {"model": ProblemDetail}, 422: {"model": ProblemDetail}}
)


class Recorded(BaseModel):
    """A bout in the record."""

    bout: PerformedBout
    done_at: datetime


class FloorView(SessionCard):
    """A session to play: its timeline with loads settled, and the bouts already done."""

    unit: Unit
    timeline: Timeline
    bouts: list[Recorded]
    tonnage_kg: Kilograms


class SoFar(BaseModel):
    """What the session adds up to after a bout was saved."""

    tonnage_kg: Kilograms


class BoutDone(BaseModel):
    """A bout as it went. `kg` is the load handled, the added one for body-weight lifts (negative: assistance)."""

    exercise: str = Field(min_length=1, max_length=200)
    setup: SetUp = SetUp()
    side: Side = Side.BOTH
    kg: Annotated[Number, Field(ge=Decimal(-300), le=Decimal(2000))] | None = None
    reps: int = Field(ge=0, le=500)
    partial_reps: int = Field(default=0, ge=0, le=500)
    seconds: int = Field(default=0, ge=0, le=3600)
    reserve: int | None = Field(default=None, ge=0, le=10)
    ended: Ended | None = None
    done_at: datetime | None = None


Counted = Annotated[int, Path(ge=1, le=1000)]
WarmUpOrSet = Annotated[int, Path(ge=0, le=1000)]


def _place(group: Counted, round: Counted, entry: Counted, set: WarmUpOrSet, bout: Counted) -> Position:
    return Position(group=group, round=round, entry=entry, set=set, bout=bout)


Place = Annotated[Position, Depends(_place)]
"""The place in the session that a bout's address names."""


@router.get("/{session_id}")
def show(session_id: UUID, work: Work, now: Now) -> FloorView:
    """A session to play."""
    row = sessions.get(work, str(session_id))
    return FloorView(
        **card(row).model_dump(),
        unit=Unit(row.unit),
        timeline=timeline(resolved(work, row, now)),
        bouts=[
            Recorded(bout=bout, done_at=done.done_at)
            for bout, done in zip(sessions.performed(row), row.bouts, strict=True)
        ],
        tonnage_kg=tonnage(sessions.performed(row), row.body_kg, library(work)),
    )


@router.post("/{session_id}/start")
def start(session_id: UUID, work: Work, now: Now) -> FloorView:
    """Start a session: its loads are settled and stay so. A second start changes nothing."""
    _start(work, sessions.get(work, str(session_id)), now)
    return show(session_id, work, now)


@router.put("/{session_id}/bouts/{group}/{round}/{entry}/{set}/{bout}")
def record(session_id: UUID, place: Place, done: BoutDone, work: Work, now: Now) -> SoFar:
    """Save a bout in its place. Sent twice it is one bout; sent with other numbers it is corrected."""
    row = sessions.get(work, str(session_id))
    _start(work, row, now)
    performed = PerformedBout(position=place, **done.model_dump(exclude={"done_at"}))
    sessions.record(work, row.id, performed, done.done_at or now)
    return _so_far(work, row)


@router.delete("/{session_id}/bouts/{group}/{round}/{entry}/{set}/{bout}")
def take_back(session_id: UUID, place: Place, work: Work) -> SoFar:
    """Take a bout back out of the record."""
    row = sessions.get(work, str(session_id))
    sessions.take_back(work, row.id, place)
    return _so_far(work, row)


@router.post("/{session_id}/finish", responses={409: {"model": ProblemDetail}})
def finish(session_id: UUID, work: Work, now: Now) -> SessionCard:
    """Finish a session. A second finish changes nothing."""
    row = sessions.get(work, str(session_id))
    sessions.finish(row, now)
    return card(row)


def _so_far(work: Work, row: SessionRow) -> SoFar:
    work.flush()
    work.expire(row, ["bouts"])
    return SoFar(tonnage_kg=tonnage(sessions.performed(row), row.body_kg, library(work)))


def _start(work: Work, row: SessionRow, now: datetime) -> None:
    if row.started_at is None:
        row.body_kg = lifter.body_kg(work, today(work, now))
        row.zone = lifter.lifter(work).zone
        sessions.start(row, resolved(work, row, now), now)
