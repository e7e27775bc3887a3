"""Floor: a session played, every bout saved as it happens."""

from datetime import datetime
from decimal import Decimal
from functools import reduce
from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Depends, Path, Response
from pydantic import AwareDatetime, BaseModel, Field

from fortis.api.problems import ProblemDetail
from fortis.api.views import SessionCard, card
from fortis.api.work import Now, Work, today
from fortis.core.adjustments import Adjustments, Change, with_change
from fortis.core.performance import Ended, PerformedBout
from fortis.core.progression.advice import AdviceTable, all_advice
from fortis.core.strength.slowing import SLOWING, Slowing
from fortis.core.structure.model import SetUp, Side
from fortis.core.structure.prescription import Position, Prescription
from fortis.core.structure.timeline import Timeline, timeline
from fortis.core.tally.session import tonnage
from fortis.core.units import Unit
from fortis.core.value import Kilograms, Number
from fortis.store import lifter, places, sessions
from fortis.store.basis import resolved
from fortis.store.lifts import library
from fortis.store.tables import SessionRow

router = APIRouter(
    prefix="/api/floor", tags=["floor"], responses={404: {"model": ProblemDetail}, 422: {"model": ProblemDetail}}
)


MOST_LOOKED_BACK = 30
"""Sessions looked back on for cues."""


class Recorded(BaseModel):
    """A bout in the record. `version` counts how often it was written."""

    bout: PerformedBout
    done_at: datetime
    version: int


class Cue(BaseModel):
    """What the lifter noted at a lift the last time there was anything to note."""

    exercise: str
    text: str
    on: datetime


class Changes(BaseModel):
    """What a device changed of the plan, one change after the other."""

    changes: list[Change] = Field(min_length=1, max_length=1000)


class FloorView(SessionCard):
    """A session to play, with everything that playing it without a connection needs."""

    unit: Unit
    timeline: Timeline
    bouts: list[Recorded]
    tonnage_kg: Kilograms
    adjustments: Adjustments
    advice: AdviceTable
    slowing: list[Slowing]
    cues: list[Cue]


class SoFar(BaseModel):
    """What the session adds up to after a bout was saved, and that bout's version."""

    tonnage_kg: Kilograms
    version: int | None = None


class Finished(BaseModel):
    """When a session was finished, where that was before it could be said."""

    finished_at: AwareDatetime | None = None


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
    note: str = Field(default="", max_length=500)
    rep_seconds: list[Annotated[float, Field(ge=0, le=3600)]] = Field(default=[], max_length=500)
    done_at: AwareDatetime | None = None
    seen: int | None = None


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
    prescription = resolved(work, row, now)
    return FloorView(
        **card(row).model_dump(),
        unit=Unit(row.unit),
        timeline=timeline(prescription),
        bouts=recorded(row),
        adjustments=_adjustments(row),
        advice=all_advice(prescription, places.kit(work, row.place_id)),
        slowing=list(SLOWING),
        cues=_cues(work, row, prescription, now),
        tonnage_kg=tonnage(sessions.performed(row), row.body_kg, library(work)),
    )


def recorded(row: SessionRow) -> list[Recorded]:
    """The bouts of a session in the record."""
    return [
        Recorded(bout=bout, done_at=done.done_at, version=done.version)
        for bout, done in zip(sessions.performed(row), row.bouts, strict=True)
    ]


def _cues(work: Work, row: SessionRow, prescription: Prescription, now: datetime) -> list[Cue]:
    """For each lift of the plan the notes of the last session that has any for it."""
    wanted = {each.exercise.casefold(): each.exercise for each in prescription.sets}
    cues: list[Cue] = []
    for before in sessions.finished(work, before=row.started_at or now, limit=MOST_LOOKED_BACK):
        found = [bout for bout in before.bouts if bout.note and bout.exercise.casefold() in wanted]
        cues += [Cue(exercise=wanted[bout.exercise.casefold()], text=bout.note, on=bout.done_at) for bout in found]
        for bout in found:
            wanted.pop(bout.exercise.casefold(), None)
    return cues


@router.patch("/{session_id}/adjustments")
def adjust(session_id: UUID, changed: Changes, work: Work, now: Now) -> Adjustments:
    """Change the plan on the floor. What another device changed meanwhile stays; sent twice is sent once."""
    row = sessions.get(work, str(session_id))
    _start(work, row, now)
    adjustments = reduce(with_change, changed.changes, _adjustments(row))
    row.adjustments = adjustments.model_dump(mode="json")
    return adjustments


def _adjustments(row: SessionRow) -> Adjustments:
    return Adjustments.model_validate(row.adjustments or {})


@router.post("/{session_id}/start")
def start(session_id: UUID, work: Work, now: Now) -> FloorView:
    """Start a session: its loads are settled and stay so. A second start changes nothing."""
    _start(work, sessions.get(work, str(session_id)), now)
    return show(session_id, work, now)


@router.put("/{session_id}/bouts/{group}/{round}/{entry}/{set}/{bout}", responses={409: {"model": ProblemDetail}})
def record(session_id: UUID, place: Place, done: BoutDone, work: Work, now: Now) -> SoFar:
    """Save a bout in its place. Sent twice it is one bout; sent with other numbers it is corrected."""
    row = sessions.get(work, str(session_id))
    _start(work, row, now)
    performed = PerformedBout(position=place, **done.model_dump(exclude={"done_at", "seen"}))
    version = sessions.record(work, row.id, performed, done.done_at or now, done.seen)
    return _so_far(work, row).model_copy(update={"version": version})


@router.delete("/{session_id}/bouts/{group}/{round}/{entry}/{set}/{bout}")
def take_back(session_id: UUID, place: Place, work: Work) -> SoFar:
    """Take a bout back out of the record."""
    row = sessions.get(work, str(session_id))
    sessions.take_back(work, row.id, place)
    return _so_far(work, row)


@router.post("/{session_id}/finish", responses={409: {"model": ProblemDetail}})
def finish(session_id: UUID, work: Work, now: Now, finished: Finished | None = None) -> SessionCard:
    """Finish a session. A second finish changes nothing."""
    row = sessions.get(work, str(session_id))
    sessions.finish(row, (finished and finished.finished_at) or now, now)
    return card(row)


@router.delete("/{session_id}/finish", status_code=204)
def reopen(session_id: UUID, work: Work) -> Response:
    """Open a finished session again: it is under way as it was."""
    sessions.reopen(sessions.get(work, str(session_id)))
    return Response(status_code=204)


def _so_far(work: Work, row: SessionRow) -> SoFar:
    work.flush()
    work.expire(row, ["bouts"])
    return SoFar(tonnage_kg=tonnage(sessions.performed(row), row.body_kg, library(work)))


def _start(work: Work, row: SessionRow, now: datetime) -> None:
    if row.started_at is None:
        row.body_kg = lifter.body_kg(work, today(work, now))
        row.zone = lifter.lifter(work).zone
        row.place_id = places.current_place(work).id
        sessions.start(row, resolved(work, row, now), now)
