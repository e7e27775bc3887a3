"""Today: what is on, with which loads and why."""

from datetime import date, datetime, timedelta
from decimal import Decimal
from statistics import median
from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, BackgroundTasks, HTTPException, Query, Response
from pydantic import BaseModel

from fortis.api import lookups
from fortis.api.floor import Cue, cues_of
from fortis.api.problems import ProblemDetail
from fortis.api.views import SessionCard, SessionPlan, card, plan, under
from fortis.api.work import Now, Work, WritingWork, commits
from fortis.core.adjustments import Adjustments
from fortis.core.basis import Basis
from fortis.core.loading.moved import body_part, body_share
from fortis.core.played import as_played
from fortis.core.progression.advice import Bar
from fortis.core.progression.advice_table import all_advice
from fortis.core.season.model import Aim, Kind, Trial
from fortis.core.season.weeks import weeks
from fortis.core.shortening import Shortened, shortened
from fortis.core.strength.readiness import FEWEST, Meaning, Readiness
from fortis.core.structure.model import BodyPlus
from fortis.core.structure.prescription import Prescription
from fortis.core.tally.costing import Costing, cost_of_plan
from fortis.core.tally.records import Alike, Record, tempo_key, within_reach
from fortis.core.tally.week import monday_of
from fortis.core.units import Unit
from fortis.store import lifter, readiness, seasons, sessions
from fortis.store.tables import SessionRow

router = APIRouter(prefix="/api/today", tags=["today"])

MOST_MADE_READY = 3
"""Due sessions that can be started from Today without a wait."""


SOON, LET_GO = timedelta(days=14), timedelta(days=7)
"""What is planned for later, and what a season planned longer ago, stands in Season."""


class ReadinessView(Readiness):
    """How ready the lifter is as told, and what that means by their own log, in words."""

    words: str


class DueSession(SessionPlan):
    """A session that is due, how ready the lifter is for it, and what was noted at its lifts the last time."""

    readiness: ReadinessView
    cues: list[Cue]


class SeasonNow(BaseModel):
    """Where in its season the lifter is: in which week of how many, and in what kind of block.

    `number` and `kind` are None before it, after it, and in a week away. `begins` is its first day, while that is
    to come. `trial` says what this week has of one.
    """

    title: str
    begins: date | None
    number: int | None
    weeks: int
    kind: Kind | None
    aim: Aim | None
    trial: str | None


class TodayView(BaseModel):
    """What is on.

    `started` is a session being played; `due` are planned for today or overdue, the latest date first; `coming`
    are planned for the next two weeks or without a date; `last` is the newest finished one. `body_weight_missing`
    says that what is due moves body weight, and none is known. `is_new` says that nothing was ever planned or done.
    """

    on: date
    started: SessionCard | None
    due: list[DueSession]
    coming: list[SessionCard]
    last: SessionCard | None
    season: SeasonNow | None
    body_weight_missing: bool
    is_new: bool


@router.get("")
def show(work: Work, now: Now, afterwards: BackgroundTasks) -> TodayView:
    """What is on today. The advice of what is due is worked out after it was sent, ready to start."""
    on = lifter.today(work, now)
    started = sessions.started(work)
    planned = sessions.planned(work)
    due = sorted((row for row in planned if _is_due(row, on)), key=_date, reverse=True)
    bases = [lookups.basis_of(work, row, now) for row in due]
    prescriptions = [lookups.plan_of(work, row, now) for row in due]
    for prescription, basis in list(zip(prescriptions, bases, strict=True))[:MOST_MADE_READY]:
        done = lookups.bests(work, prescription, now)
        afterwards.add_task(all_advice, prescription, Bar(basis.kit, basis.body_kg), basis.estimates, done)
    last = next(iter(sessions.finished(work, limit=1)), None)
    return TodayView(
        on=on,
        started=card(started) if started else None,
        due=[
            _due(work, row, prescription, basis, now)
            for row, prescription, basis in zip(due, prescriptions, bases, strict=True)
        ],
        coming=[card(row) for row in planned if _is_soon(row, on)],
        last=card(last) if last else None,
        season=_season(work, on),
        is_new=not (started or planned or last) and seasons.underway(work) is None,
        body_weight_missing=lookups.basis(work, now).body_kg is None and any(map(_moves_body, prescriptions)),
    )


def _season(work: Work, on: date) -> SeasonNow | None:
    row = seasons.underway(work)
    if row is None:
        return None
    season = seasons.season_of(row)
    week = next((each for each in weeks(season, Unit(row.unit)) if each.monday == monday_of(on)), None)
    return SeasonNow(
        title=season.title,
        begins=season.starts if season.starts > on else None,
        number=week.number if week else None,
        weeks=season.weeks,
        kind=season.blocks[week.block - 1].kind if week else None,
        aim=season.aim,
        trial=next((_trial(each, on) for each in season.trials if each.is_on(on)), None),
    )


def _trial(trial: Trial, on: date) -> str:
    """What of a trial the week of a day has, in words."""
    what = trial.method or "the other sets"
    week = f"week {trial.number_of(on)} of {trial.weeks} of the trial"
    return f"{trial.exercise} {f'with {what}' if trial.is_tried(on) else 'as usual'}: {week}"


def _due(work: Work, row: SessionRow, prescription: Prescription, basis: Basis, now: datetime) -> DueSession:
    planned = _with_reach(work, plan(row, prescription, basis), prescription, basis, now)
    said = readiness.told(work, row.id)
    words = _readiness_words(said, lookups.readiness_meant(work, now))
    return DueSession(
        **dict(planned),
        readiness=ReadinessView(**dict(said), words=words),
        cues=cues_of(work, row, prescription, now),
    )


def _readiness_words(said: Readiness, meant: Meaning) -> str:
    if said.score is None:
        return ""
    if meant.sessions < FEWEST:
        return f"Kept. Whether it matters shows after {FEWEST} sessions; {meant.sessions} so far."
    shift = meant.shift(said)
    if abs(shift) < LEAST_SHIFT:
        return f"By your last {meant.sessions} sessions it says little: nothing changes."
    way = "more" if shift > 0 else "less"
    return f"By your last {meant.sessions} sessions expect about {abs(shift) * 100:.1f} % {way}."


LEAST_SHIFT = 0.0025
"""A shift of less is not worth a word."""


@router.put("/{session_id}/readiness", status_code=204, responses={404: {"model": ProblemDetail}})
@commits
def tell_readiness(session_id: UUID, said: Readiness, work: WritingWork) -> Response:
    """Tell how ready you are for a session; told again, it is changed."""
    row = sessions.get(work, str(session_id))
    readiness.tell(work, row.id, said)
    return Response(status_code=204)


def _with_reach(
    work: Work, due: SessionPlan, prescription: Prescription, basis: Basis, now: datetime
) -> SessionPlan:
    """A plan with the records that are likely at hand, by what is foretold of it."""
    sets = [each for each in prescription.work_sets if each.bouts[0].settled]
    before = lookups.bests(work, prescription, now)
    steps = {(step.group, step.entry, step.set, step.bout): step for step in due.timeline.steps if step.foretold}
    reach: dict[tuple[int, str], Record] = {}
    for each in sets:
        for bout in each.bouts:
            step, settled = steps.get((each.group, each.entry, each.number, bout.number)), bout.settled
            if step is None or step.foretold is None or settled is None:
                continue
            part = body_part(each.lift, settled.body, basis.body_kg) or Decimal(0)
            likely = step.foretold.reps + int(step.foretold.left)
            key = Alike(each.lift.id, each.setup.key, tempo_key(bout.tempo))
            found = within_reach(settled.kg, likely, before.get(key, ()), part)
            if found:
                reach.setdefault((each.group, each.exercise), found)
    return due.model_copy(
        update={
            "lifts": [
                lift.model_copy(update={"reach": reach.get((lift.group, lift.exercise))}) for lift in due.lifts
            ]
        }
    )


class InTime(Shortened):
    """A session that fits a time. `likely_seconds` is what it takes as the lifter's own past ones ran.

    `before` is what the whole of it comes to, `after` what is left.
    """

    likely_seconds: int
    before: Costing
    after: Costing


@router.get("/{session_id}/shortened", responses={404: {"model": ProblemDetail}, 409: {"model": ProblemDetail}})
def shorten(session_id: UUID, minutes: Annotated[int, Query(ge=5, le=300)], work: Work, now: Now) -> InTime:
    """What to leave out of a session that has not been started so that it fits so many minutes."""
    row = sessions.get(work, str(session_id))
    if row.started_at is not None:
        raise HTTPException(409, "This session has been started: leave sets out on the Floor.")
    plan_, basis = lookups.plan_of(work, row, now), lookups.basis_of(work, row, now)
    pace = median(lookups.overruns(work, now) or [1.0])
    found = shortened(plan_, round(minutes * 60 / pace))
    conditions = under(basis)
    left = as_played(plan_, Adjustments(skipped=found.skipped))
    return InTime(
        **dict(found),
        likely_seconds=round(found.seconds * pace),
        before=cost_of_plan(plan_, 0, conditions),
        after=cost_of_plan(left, found.seconds, conditions),
    )


def _moves_body(prescription: Prescription) -> bool:
    """Whether body weight counts in any lift of a plan."""
    return any(
        body_share(each.lift, isinstance(bout.load, BodyPlus)) for each in prescription.sets for bout in each.bouts
    )


def _is_due(row: SessionRow, today: date) -> bool:
    """Whether a session is planned for today or overdue; one of a season is let go after a week."""
    if row.planned_on is None or row.planned_on > today:
        return False
    return row.season_id is None or row.planned_on > today - LET_GO


def _is_soon(row: SessionRow, today: date) -> bool:
    """Whether a session is planned for the next days, or for none in particular."""
    return row.planned_on is None or today < row.planned_on <= today + SOON


def _date(row: SessionRow) -> date:
    return row.planned_on or date.max
