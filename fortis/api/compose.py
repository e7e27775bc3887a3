"""Compose: text examined as it is typed, sessions saved as planned."""

from datetime import datetime
from statistics import quantiles
from uuid import UUID

from fastapi import APIRouter, Response
from pydantic import BaseModel, Field

from fortis.api import lookups
from fortis.api.problems import ProblemDetail
from fortis.api.views import LiftLine, SessionCard, card, lift_lines
from fortis.api.work import Now, Work, WritingWork, commits
from fortis.api.written import Written
from fortis.core.cautions.caution import Caution, Serious
from fortis.core.cautions.rules import cautions
from fortis.core.foretelling import foretell
from fortis.core.structure.notation import (
    Problem,
    Reading,
    examine,
)
from fortis.core.structure.timeline import Timeline, timeline
from fortis.core.structure.writing import write_entry
from fortis.core.tally.costing import Costing, cost_of_performance, cost_of_plan
from fortis.core.tally.work import Conditions
from fortis.core.units import Unit
from fortis.core.value import Day
from fortis.store import bouts, lifter, policies, sessions
from fortis.store.cache import cached
from fortis.store.lifts import library
from fortis.store.planning import last_of, settle
from fortis.store.played import conditions, played
from fortis.store.sessions import time_on_the_floor
from fortis.store.set_aside import EVERY_LIFT, all_set_aside, bring_back, heard, set_aside
from fortis.store.tables import SessionRow

router = APIRouter(prefix="/api/compose", tags=["compose"])

FEWEST_TO_LEARN_FROM = 4
"""Past sessions it takes to say anything about the lifter's own pace."""


MOST_RECENT = 20
"""Sessions looked back on for one to plan again."""
USUAL_OVERRUN = (1.0, 1.25)
"""How sessions run against their plans while nothing is known of the lifter (common practice: rests drift long)."""


class UnknownLift(BaseModel):
    """A lift the library does not have, and those it might be."""

    name: str
    nearest: list[str]


class Mend(BaseModel):
    """A remedy in one click: line `line` (from 1) becomes `written`."""

    label: str
    line: int
    written: str


class Warned(BaseModel):
    """A caution at its line, with its remedy where there is one."""

    rule: str
    serious: Serious
    exercise: str
    text: str
    reason: str
    disputed: str
    line: int
    mend: Mend | None


class CostBefore(BaseModel):
    """What the last session of the same slot cost."""

    id: str
    started_at: datetime
    costing: Costing


class Likely(BaseModel):
    """How long the session is likely to take: the middle half of how the lifter's own past ones ran.

    `sessions` is how many those are; 0 where too few are known and the range is the usual one.
    """

    low_seconds: int
    high_seconds: int
    sessions: int


class Examined(BaseModel):
    """What a text comes to: the timeline of what could be read, its cost, and what is wrong with the rest.

    `lines` has for each group the lines of its entries, `lifts` the loads of each entry in order.
    """

    title: str
    timeline: Timeline
    lines: list[list[int]]
    lifts: list[LiftLine]
    costing: Costing
    before: CostBefore | None
    likely: Likely
    cautions: list[Warned]
    problems: list[Problem]
    unknown: list[UnknownLift]


class SetAside(BaseModel):
    """A caution set aside, for one lift or, where that is empty, for all."""

    rule: str
    exercise: str


class ToExamine(Written):
    """A text being written. `slot` is what the session fills; where none is given, that of the title."""

    slot: str | None = Field(default=None, max_length=36)


class ToPlan(ToExamine):
    """A session to save as planned; without a date it waits."""

    planned_on: Day | None = None


class Composed(SessionCard):
    """A saved session with its text."""

    written: str
    unit: Unit


@router.post("/examine")
def examine_text(asked: ToExamine, work: Work, now: Now) -> Examined:
    """Read a text as far as it goes. Faults are part of the answer, never an error."""
    reading = examine(asked.written, asked.unit or lifter.lifter(work).unit)
    title = reading.session.title or sessions.UNTITLED
    slot = asked.slot or sessions.slot_of_title(work, title)
    known = lookups.basis(work, now)
    prescription = settle(
        reading.session, known, lookups.carried_to(work, slot, reading.session, now) if slot else ()
    )
    laid_out = foretell(timeline(prescription), prescription, known)
    names = dict.fromkeys(each.exercise for each in prescription.sets)
    warned = heard(work, cautions(reading.session, prescription, lookups.log(work, now)))
    return Examined(
        title=title,
        timeline=laid_out,
        lines=[list(lines) for lines in reading.lines],
        lifts=lift_lines(reading.session, prescription, known, policies.all_of(work)),
        costing=cost_of_plan(
            prescription, laid_out.total_seconds, Conditions(known.body_kg, known.kit, known.ways)
        ),
        before=cached(work, ("before", slot), lambda: _before(work, slot, now)) if slot else None,
        likely=_likely(lookups.overruns(work, now), laid_out.total_seconds),
        cautions=[_warned(caution, reading, asked.written) for caution in warned],
        problems=list(reading.problems),
        unknown=[
            UnknownLift(name=name, nearest=list(known.library.nearest_names(name)))
            for name in names
            if not known.library.find(name).known
        ],
    )


def _warned(caution: Caution, reading: Reading, written: str) -> Warned:
    line = reading.lines[caution.group - 1][caution.entry - 1]
    mend = None
    if caution.remedy:
        before = written.splitlines()[line - 1]
        indent = before[: len(before) - len(before.lstrip())]
        remark = f"  # {caution.remedy.entry.remark}" if caution.remedy.entry.remark else ""
        mend = Mend(
            label=caution.remedy.label, line=line, written=f"{indent}{write_entry(caution.remedy.entry)}{remark}"
        )
    return Warned(**caution.model_dump(exclude={"remedy", "group", "entry", "lift_id"}), line=line, mend=mend)


def _before(work: Work, slot: str, now: datetime) -> CostBefore | None:
    last = last_of(work, slot, now)
    if last is None or last.started_at is None:
        return None
    done = bouts.of(work, last.id)
    seconds = int(time_on_the_floor(last, done).total_seconds())
    costing = cost_of_performance(
        played(work, last), [each.bout for each in done], seconds, conditions(work, last), library(work)
    )
    return CostBefore(id=last.id, started_at=last.started_at, costing=costing)


def _likely(ratios: list[float], seconds: int) -> Likely:
    """The middle half of how past sessions ran against their plans, put on this one."""
    if len(ratios) < FEWEST_TO_LEARN_FROM:
        low, high = USUAL_OVERRUN
        return Likely(low_seconds=round(seconds * low), high_seconds=round(seconds * high), sessions=0)
    low, _, high = quantiles(ratios, n=4)
    return Likely(low_seconds=round(seconds * low), high_seconds=round(seconds * high), sessions=len(ratios))


@router.get("/set-aside")
def show_set_aside(work: Work) -> list[SetAside]:
    """Every caution that was set aside, with the lift as it is called now."""
    names = {lift.id: lift.name for lift in library(work)} | {EVERY_LIFT: EVERY_LIFT}
    return [SetAside(rule=rule, exercise=names.get(lift, lift)) for rule, lift in sorted(all_set_aside(work))]


@router.put("/set-aside/{rule}", status_code=204)
@commits
def put_aside(rule: str, work: WritingWork, exercise: str = EVERY_LIFT) -> Response:
    """Set a caution aside for good, for one lift or for all."""
    set_aside(work, rule, library(work).find(exercise).id if exercise else EVERY_LIFT)
    return Response(status_code=204)


@router.delete("/set-aside/{rule}", status_code=204)
@commits
def hear_again(rule: str, work: WritingWork, exercise: str = EVERY_LIFT) -> Response:
    """Let a caution speak again."""
    bring_back(work, rule, library(work).find(exercise).id if exercise else EVERY_LIFT)
    return Response(status_code=204)


@router.get("/sessions/{session_id}", responses={404: {"model": ProblemDetail}})
def show(session_id: UUID, work: Work) -> Composed:
    """A session's text, to be changed."""
    return _composed(sessions.get(work, str(session_id)))


@router.get("/recent")
def recent(work: Work) -> list[Composed]:
    """The latest session of each slot that was done in the last weeks, the newest first, to plan it again."""
    newest: dict[str, SessionRow] = {}
    for row in sessions.finished(work, limit=MOST_RECENT):
        newest.setdefault(row.slot, row)
    return [_composed(row) for row in newest.values()]


@router.put("/sessions/{session_id}", responses={409: {"model": ProblemDetail}, 422: {"model": ProblemDetail}})
@commits
def save(session_id: UUID, asked: ToPlan, work: WritingWork) -> Composed:
    """Save a session as planned under an id the client made; saved again, it is changed until it is started."""
    unit = asked.unit or lifter.lifter(work).unit
    row = sessions.save_plan(work, str(session_id), asked.written, unit, asked.planned_on, asked.slot)
    return _composed(row)


@router.delete("/sessions/{session_id}", status_code=204, responses={404: {"model": ProblemDetail}})
@commits
def discard(session_id: UUID, work: WritingWork, now: Now) -> Response:
    """Put a session aside; saving it again brings it back."""
    sessions.discard(work, str(session_id), now)
    return Response(status_code=204)


def _composed(row: SessionRow) -> Composed:
    return Composed(**card(row).model_dump(), written=row.written, unit=Unit(row.unit))
