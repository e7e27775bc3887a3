"""Compose: text examined as it is typed, sessions saved as planned."""

from datetime import date
from uuid import UUID

from fastapi import APIRouter, Response
from pydantic import BaseModel, Field

from fortis.api.problems import ProblemDetail
from fortis.api.views import SessionCard, card
from fortis.api.work import Now, Work
from fortis.core.exercises import LIBRARY, find, nearest_names
from fortis.core.resolution import resolve
from fortis.core.structure.notation import LONGEST_TEXT, Problem, examine
from fortis.core.structure.prescription import lay_out
from fortis.core.structure.timeline import Timeline, timeline
from fortis.core.tally.plan import PlanTally, plan_tally
from fortis.core.units import Unit
from fortis.store import lifter, sessions
from fortis.store.basis import basis
from fortis.store.tables import SessionRow

router = APIRouter(prefix="/api/compose", tags=["compose"])


class Written(BaseModel):
    """A text in the written notation; loads without a unit are in `unit`, the lifter's own where not given."""

    written: str = Field(max_length=2 * LONGEST_TEXT)
    unit: Unit | None = None


class UnknownLift(BaseModel):
    """A lift the library does not have, and those it might be."""

    name: str
    nearest: list[str]


class Examined(BaseModel):
    """What a text comes to: the timeline of what could be read, its cost, and what is wrong with the rest."""

    title: str
    timeline: Timeline
    tally: PlanTally
    problems: list[Problem]
    unknown: list[UnknownLift]


class ToPlan(Written):
    """A session to save as planned; without a date it waits."""

    planned_on: date | None = None


class Composed(SessionCard):
    """A saved session with its text."""

    written: str
    unit: Unit


@router.post("/examine")
def examine_text(asked: Written, work: Work, now: Now) -> Examined:
    """Read a text as far as it goes. Faults are part of the answer, never an error."""
    reading = examine(asked.written, asked.unit or lifter.lifter(work).unit)
    title = reading.session.title or sessions.UNTITLED
    prescription = resolve(lay_out(reading.session), basis(work, title, now))
    laid_out = timeline(prescription)
    names = dict.fromkeys(each.exercise for each in prescription.sets)
    return Examined(
        title=title,
        timeline=laid_out,
        tally=plan_tally(laid_out, lifter.body_kg(work, now.date())),
        problems=list(reading.problems),
        unknown=[
            UnknownLift(name=name, nearest=list(nearest_names(name))) for name in names if not find(name).known
        ],
    )


@router.get("/lifts")
def lifts() -> list[str]:
    """The names of all lifts of the library, for completion."""
    return sorted(lift.name for lift in LIBRARY)


@router.get("/sessions/{session_id}", responses={404: {"model": ProblemDetail}})
def show(session_id: UUID, work: Work) -> Composed:
    """A session's text, to be changed."""
    return _composed(sessions.get(work, str(session_id)))


@router.put("/sessions/{session_id}", responses={422: {"model": ProblemDetail}})
def save(session_id: UUID, asked: ToPlan, work: Work) -> Composed:
    """Save a session as planned under an id the client made; saved again, it is changed."""
    unit = asked.unit or lifter.lifter(work).unit
    return _composed(sessions.save_plan(work, str(session_id), asked.written, unit, asked.planned_on))


@router.delete("/sessions/{session_id}", status_code=204, responses={404: {"model": ProblemDetail}})
def discard(session_id: UUID, work: Work, now: Now) -> Response:
    """Put a session aside; saving it again brings it back."""
    sessions.discard(work, str(session_id), now)
    return Response(status_code=204)


def _composed(row: SessionRow) -> Composed:
    return Composed(**card(row).model_dump(), written=row.written, unit=Unit(row.unit))
