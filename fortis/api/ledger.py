"""Ledger: what was done, beside the last time, and what it recommends."""

from collections.abc import Sequence
from datetime import date, datetime, timedelta
from decimal import Decimal
from itertools import pairwise
from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Query, Response
from pydantic import BaseModel, Field

from fortis.api.floor import At, Recorded, recorded
from fortis.api.problems import ProblemDetail
from fortis.api.views import Bounds, SessionCard, card
from fortis.api.work import Now, Work, WritingWork, commits
from fortis.core.loading.moved import body_part
from fortis.core.performance import PerformedBout, is_correction
from fortis.core.played import Prepared, prepared
from fortis.core.progression.next_loads import NextLoad
from fortis.core.strength.estimate import Estimate
from fortis.core.structure.model import SetUp
from fortis.core.structure.prescription import PlannedBout, PlannedSet, Position
from fortis.core.structure.timeline import Step, asked, timeline
from fortis.core.tally.comparison import LiftComparison, compare, most_alike
from fortis.core.tally.records import Alike, Record, records
from fortis.core.tally.session import SessionTally
from fortis.core.tally.work import tonnage
from fortis.core.units import Unit
from fortis.core.value import Kilograms
from fortis.store import bouts, lifter, maxes, sessions
from fortis.store.bouts import RecordedBout
from fortis.store.finding import found_by
from fortis.store.lifts import library
from fortis.store.planning import recommended
from fortis.store.played import added_up, conditions, played, session_done
from fortis.store.records import alike, bests
from fortis.store.tables import SessionRow

router = APIRouter(prefix="/api/ledger", tags=["ledger"])


class LedgerRow(SessionCard):
    """A past session in a line. `minutes` is the time on the floor; warm-ups are no sets."""

    minutes: int
    tonnage_kg: Kilograms
    sets: int
    lifts: list[str]


class LedgerView(BaseModel):
    """Past sessions, the newest first. `more` says that there are earlier ones."""

    sessions: list[LedgerRow]
    more: bool


class LedgerBout(Recorded):
    """A bout beside what was asked as played: the target in words, and the load planned.

    `corrected` says that an earlier version of it was contradicted.
    """

    asked: str
    planned_kg: Kilograms | None
    corrected: bool


class TakenBack(BaseModel):
    """A bout that was taken back and not done again."""

    position: Position
    exercise: str


class BoutVersion(BaseModel):
    """A bout as it was recorded at some time on some device; None where it was taken back."""

    version: int
    at: datetime
    device: str
    bout: PerformedBout | None


class Before(BaseModel):
    """An earlier session of the same slot: added up, as it was played, and how the lifts of both compare.

    It is the last one, unless an earlier one has more lifts that are fair to compare: then so many came `between`.
    """

    id: str
    started_at: datetime
    minutes: int
    tally: SessionTally
    steps: tuple[Step, ...]
    bouts: list[Recorded]
    compared: tuple[LiftComparison, ...]
    between: int


class Learned(BaseModel):
    """The max of a lift with a set-up, of the whole weight moved, as it was known before a session and after it.

    None where nothing is known.
    """

    before: Bounds | None
    after: Bounds | None


class SessionRecord(Record):
    """A record of a session, and what it is one for: the lift, its set-up, its tempo."""

    exercise: str
    setup: SetUp
    tempo: str
    body: bool


class Calls(BaseModel):
    """Calls of reps left in a lift: of so many bouts, and how many more than expected were called on average."""

    exercise: str
    setup: SetUp
    bouts: int
    off: float


Felt = Annotated[int, Field(strict=True, ge=0, le=10)]
"""How hard a session was as a whole: 0 nothing at all, 10 as hard as can be (the scale of Foster 2001)."""


class HowHard(BaseModel):
    """How hard a session was as a whole; None takes back what was said."""

    felt: Felt | None


class PastSession(SessionCard):
    """A session in full. `learned` goes with the lifts of its tally, in their order.

    `calls` are beside what was to be expected by all that was known. `again_on` is when it comes again, a week on
    from today.
    """

    written: str
    unit: Unit
    minutes: int
    felt: Felt | None
    prepared: tuple[Prepared, ...]
    steps: tuple[Step, ...]
    bouts: list[LedgerBout]
    taken_back: list[TakenBack]
    tally: SessionTally
    before: Before | None
    learned: list[Learned]
    records: list[SessionRecord]
    calls: list[Calls]
    next_loads: list[NextLoad]
    again_on: date


A_WEEK = timedelta(days=7)
FURTHEST_BACK = 12
"""Sessions of a slot that are looked through for one that is fair to compare: a season, trained once a week."""
USUAL_PAGE, LONGEST_PAGE = 30, 100


@router.get("", responses={404: {"model": ProblemDetail}})
def show(
    work: Work,
    before: UUID | None = None,
    limit: Annotated[int, Query(ge=1, le=LONGEST_PAGE)] = USUAL_PAGE,
    find: Annotated[str, Query(max_length=200)] = "",
) -> LedgerView:
    """A page of past sessions: the newest, or those that came `before` one of them.

    `find` are words that each must stand in their plan, their bouts (lifts, set-ups, notes) or their date.
    """
    rows = sessions.finished(
        work,
        before=sessions.get(work, str(before)) if before else None,
        limit=limit + 1,
        that=found_by(find, library(work)) if find.strip() else None,
    )
    done = bouts.of_all(work, [row.id for row in rows[:limit]])
    return LedgerView(sessions=[_row(work, row, done[row.id]) for row in rows[:limit]], more=len(rows) > limit)


@router.get("/{session_id}", responses={404: {"model": ProblemDetail}})
def open_session(session_id: UUID, work: Work, now: Now) -> PastSession:
    """One session to all its bouts, with its arithmetic beside last time and the next loads."""
    row = sessions.get(work, str(session_id))
    added = added_up(work, row)
    return PastSession(
        **card(row).model_dump(),
        written=row.written,
        unit=Unit(row.unit),
        minutes=_minutes(row, bouts.of(work, row.id)),
        felt=row.felt,
        prepared=prepared(sessions.frozen(row), sessions.adjustments(row)),
        steps=timeline(played(work, row)).steps,
        bouts=_bouts(work, row),
        taken_back=[
            TakenBack(position=bout.position, exercise=bout.exercise) for bout in bouts.taken_back(work, row.id)
        ],
        tally=added,
        learned=_learned(work, row, added),
        records=_records(work, row),
        calls=[
            Calls(exercise=each.lift.name, setup=each.setup, bouts=each.bouts, off=each.off)
            for each in maxes.calls_beside(work, row)
        ],
        before=_before(work, row) if row.started_at else None,
        next_loads=[each.load for each in recommended(work, row)],
        again_on=lifter.today(work, now) + A_WEEK,
    )


@router.put(
    "/{session_id}/felt", status_code=204, responses={404: {"model": ProblemDetail}, 409: {"model": ProblemDetail}}
)
@commits
def tell_how_hard(session_id: UUID, how_hard: HowHard, work: WritingWork) -> Response:
    """Tell how hard a session was as a whole; told again, it is changed."""
    row = sessions.get(work, str(session_id))
    if row.started_at is None:
        raise sessions.NotStartedError(row.id)
    row.felt = how_hard.felt
    return Response(status_code=204)


@router.get("/{session_id}/bouts/{group}/{round}/{entry}/{set}/{bout}", responses={404: {"model": ProblemDetail}})
def history(session_id: UUID, at: At, work: Work) -> list[BoutVersion]:
    """The versions of a bout that contradict each other, the first first: what only completed it is part of it."""
    row = sessions.get(work, str(session_id))
    found = bouts.versions(work, row.id, at)
    contradicted = [before for before, after in pairwise(found) if is_correction(before.bout, after.bout)]
    return [
        BoutVersion(version=each.version, at=each.at, device=each.device, bout=each.bout)
        for each in (*contradicted, *found[-1:])
    ]


def _row(work: Work, row: SessionRow, done: Sequence[RecordedBout]) -> LedgerRow:
    performed = [each.bout for each in done if not each.bout.position.is_warm_up]
    known = library(work)
    return LedgerRow(
        **card(row).model_dump(),
        minutes=_minutes(row, done),
        tonnage_kg=tonnage(performed, conditions(work, row), known),
        sets=len({(bout.position.group, bout.position.entry, bout.position.set) for bout in performed}),
        lifts=list(dict.fromkeys(known.find(bout.exercise, bout.lift_id).name for bout in performed)),
    )


def _learned(work: Work, row: SessionRow, added: SessionTally) -> list[Learned]:
    if row.started_at is None:
        return [Learned(before=None, after=None) for _ in added.lifts]
    before, after = maxes.estimates(work, row.started_at), maxes.estimates(work, sessions.just_after(row))
    return [
        Learned(before=_bounds(before.get(each.key)), after=_bounds(after.get(each.key))) for each in added.lifts
    ]


def _records(work: Work, row: SessionRow) -> list[SessionRecord]:
    """What was never done before, for the same lift, set-up and tempo."""
    if row.started_at is None:
        return []
    by_kind: dict[Alike, list[PerformedBout]] = {}
    for bout in bouts.performed(work, row.id):
        if key := alike(bout):
            by_kind.setdefault(key, []).append(bout)
    before = bests(work, {key.lift_id for key in by_kind}, row.started_at)
    body_kg, known = conditions(work, row).body_kg, library(work)
    found = []
    for key, done in by_kind.items():
        (first, *_) = done
        lift = known.find(first.exercise, first.lift_id)
        part = body_part(lift, first.body, body_kg) or Decimal(0)
        told = [(bout.kg, bout.reps) for bout in done if bout.kg is not None]
        found += [
            SessionRecord(**dict(each), exercise=lift.name, setup=first.setup, tempo=key.tempo, body=first.body)
            for each in records(told, before.get(key, ()), part)
        ]
    return found


def _bounds(max_: Estimate | None) -> Bounds | None:
    return Bounds.of(max_) if max_ else None


def _before(work: Work, of: SessionRow) -> Before | None:
    """The session of the same slot that is best laid beside this one; None where it is the first."""
    earlier = sessions.finished(work, slot=of.slot, before=of, limit=FURTHEST_BACK)
    now, known = session_done(work, of), library(work)
    between = most_alike(now, (session_done(work, row) for row in earlier), known)
    if between is None:
        return None
    row = earlier[between]
    assert row.started_at is not None
    return Before(
        id=row.id,
        started_at=row.started_at,
        minutes=_minutes(row, bouts.of(work, row.id)),
        tally=added_up(work, row),
        steps=timeline(played(work, row)).steps,
        bouts=recorded(work, row),
        compared=compare(now, session_done(work, row), known),
        between=between,
    )


def _minutes(row: SessionRow, done: Sequence[RecordedBout]) -> int:
    return max(round(sessions.time_on_the_floor(row, done).total_seconds() / 60), 0)


def _bouts(work: Work, row: SessionRow) -> list[LedgerBout]:
    planned: dict[Position, tuple[PlannedSet, PlannedBout]] = {
        each.position(bout): (each, bout) for each in played(work, row).sets for bout in each.bouts
    }
    found = []
    corrected = bouts.corrected(work, row.id)
    for each in recorded(work, row):
        of, bout = planned.get(each.bout.position, (None, None))
        same = of is not None and each.bout.is_of(of.lift)
        words = asked(bout) if bout and same else f"instead of {of.exercise.lower()}" if of else "extra"
        settled = bout.settled if bout and same else None
        found.append(
            LedgerBout(
                **each.model_dump(),
                asked=words,
                planned_kg=settled.kg if settled else None,
                corrected=bouts.bout_id(row.id, each.bout.position) in corrected,
            )
        )
    return found
