"""Trials: what can be tried with a lift of the season, what is tried, and what came of it."""

from collections.abc import Collection, Iterator
from datetime import date, datetime, timedelta
from random import SystemRandom
from typing import Self
from uuid import UUID

from fastapi import APIRouter, HTTPException
from pydantic import BaseModel, Field, model_validator

from fortis.api import lookups
from fortis.api.problems import ProblemDetail
from fortis.api.season import SeasonSaved, get_season, save_season
from fortis.api.views import with_bounds
from fortis.api.work import Now, Work, WritingWork, commits
from fortis.core.exercises import LiftName
from fortis.core.season.easy import easy_weeks
from fortis.core.season.model import MOST_TRIED, Method, Season, Trial
from fortis.core.season.reading import SeasonError, easy_mondays, examine_season, with_trial
from fortis.core.season.trial import FEWEST, MATTERS, Outcome, Verdict, draw, outcome, with_method
from fortis.core.season.weeks import weeks
from fortis.core.structure.model import Entry, SetUp, lift_key
from fortis.core.structure.notation import read, read_sets
from fortis.core.structure.writing import write_runs
from fortis.core.tally.week import DAYS, monday_of
from fortis.core.units import Unit
from fortis.core.value import Day
from fortis.store import lifter, maxes, seasons
from fortis.store.cache import cached
from fortis.store.lifts import library
from fortis.store.shown import by_one_max
from fortis.store.went import sessions_went

router = APIRouter(tags=["season"])

FEWEST_WEEKS, USUAL_WEEKS, MOST_WEEKS = 4, 8, 16
"""Weeks of a trial: with fewer nothing shows, and with more it is begun too long ahead."""


class TrialLike(BaseModel):
    """What to try with a lift: a method, or other sets in the written notation, in half of so many weeks."""

    exercise: LiftName
    setup: SetUp = SetUp()
    method: Method | None = None
    sets: str = Field(default="", max_length=500)
    weeks: int = Field(default=USUAL_WEEKS, ge=FEWEST_WEEKS, le=MOST_TRIED, multiple_of=2)

    @model_validator(mode="after")
    def _one_of_both(self) -> Self:
        if (self.method is None) == (not self.sets.strip()):
            raise ValueError("name a method, or write the sets that are tried")
        return self


class WithMethod(BaseModel):
    """A method, and the sets of a lift as they are with it."""

    method: Method
    sets: str


class LiftToTry(BaseModel):
    """A lift of the weeks to come: its sets as they are next, and as each method has them."""

    exercise: str
    setup: SetUp
    usual: str
    methods: list[WithMethod]


class ToTry(BaseModel):
    """What can be tried from a Monday on, and for how many weeks at most; no lifts while another trial runs."""

    monday: date
    weeks: int
    lifts: list[LiftToTry]


class TrialView(BaseModel):
    """A trial, in words. `week` is the one it is in, from 1; None before and after it.

    `more_weeks` are those that it can go on for where nothing can be told yet: it has only just ended.
    """

    monday: date
    last: date
    weeks: int
    tried: tuple[int, ...]
    week: int | None
    exercise: str
    setup: SetUp
    method: Method | None
    sets: str
    text: str
    outcome: Outcome
    more_weeks: int | None


@router.get("/api/trials")
def show(work: Work, now: Now) -> list[TrialView]:
    """The trials of the season under way, the latest first."""
    row = seasons.underway(work)
    if row is None or not (season := seasons.season_of(row)).trials:
        return []
    return cached(work, ("trials", lifter.today(work, now)), lambda: _views(work, season, now))


@router.get("/api/season/{season_id}/trials", responses={404: {"model": ProblemDetail}})
def to_try(season_id: UUID, work: Work, now: Now) -> ToTry:
    """What can be tried from next Monday on."""
    row = get_season(work, str(season_id))
    season, unit = seasons.season_of(row), Unit(row.unit)
    monday = monday_of(lifter.today(work, now)) + timedelta(days=DAYS)
    left = (season.mondays[-1] - monday).days // DAYS + 1
    busy = any(each.last >= monday for each in season.trials)
    entries = [] if busy or left < FEWEST_WEEKS else _entries(season, unit, monday)
    known, estimates = library(work), lookups.basis(work, now).estimates
    lifts = [
        _to_try(entry, knows_max=lift_key(known.find(entry.exercise), entry.setup) in estimates)
        for entry in entries
    ]
    return ToTry(monday=monday, weeks=min(max(left // 2 * 2, 0), MOST_WEEKS), lifts=lifts)


@router.put(
    "/api/season/{season_id}/trials/{monday}",
    responses={code: {"model": ProblemDetail} for code in (404, 409, 422)},
)
@commits
def begin(season_id: UUID, monday: Day, like: TrialLike, work: WritingWork, now: Now) -> SeasonSaved:
    """Try something: the weeks of it are drawn by lot, one of every two.

    Sent again, it is not drawn again; for more weeks, those are drawn and it goes on.
    """
    row = get_season(work, str(season_id))
    unit, season = Unit(row.unit), seasons.season_of(row)
    trial = Trial(
        monday=monday_of(monday),
        weeks=like.weeks,
        tried=(),
        exercise=like.exercise,
        setup=like.setup,
        method=like.method,
        sets=read_sets(" ".join(like.sets.split()), unit) if like.method is None else (),
    )
    there = next((each for each in season.trials if _what(each) == _what(trial)), None)
    if there and there.weeks >= trial.weeks:
        return save_season(work, row.id, row.written, unit, now)
    if other := next((each for each in season.trials if each is not there and each.overlaps(trial)), None):
        raise HTTPException(409, f"One trial at a time: that of {other.exercise} goes on until {other.last}.")
    if there and not _has_just_ended(there, lifter.today(work, now)):
        raise HTTPException(409, f"It was over on {there.last}, and what came after was not drawn: begin another.")
    drawn, begun = (there.tried, there.weeks) if there else ((), 0)
    more = (begun + each for each in draw(trial.weeks - begun, SystemRandom()))
    trial = trial.model_copy(update={"tried": (*drawn, *more)})
    written = with_trial(row.written, trial.monday, trial)
    planned, problems = examine_season(written, unit)
    if planned is None or problems:
        raise SeasonError(problems)
    if weeks(planned, unit) == weeks(season, unit):
        raise HTTPException(422, f"From {trial.monday} on nothing of {trial.exercise} would change by it.")
    return save_season(work, row.id, written, unit, now)


@router.delete(
    "/api/season/{season_id}/trials/{monday}",
    responses={code: {"model": ProblemDetail} for code in (404, 409, 422)},
)
@commits
def end(season_id: UUID, monday: Day, work: WritingWork, now: Now) -> SeasonSaved:
    """Leave a trial: what is to come is as usual again, and nothing is told of it any more."""
    row = get_season(work, str(season_id))
    return save_season(work, row.id, with_trial(row.written, monday_of(monday), None), Unit(row.unit), now)


def _what(trial: Trial) -> Trial:
    """A trial without the weeks of it."""
    return trial.model_copy(update={"weeks": 0, "tried": ()})


def _has_just_ended(trial: Trial, today: date) -> bool:
    """Whether it was on until the week of a day, or is longer: the weeks after it can still be drawn."""
    return trial.last >= monday_of(today) - timedelta(days=1)


def _entries(season: Season, unit: Unit, monday: date) -> Iterator[Entry]:
    """The lifts of the weeks from a Monday on, each as it comes first."""
    told: set[tuple[str, str]] = set()
    for week in weeks(season, unit):
        for session in week.sessions if week.monday >= monday else ():
            for group in read(session.written, unit).groups:
                for entry in group.entries:
                    key = entry.exercise.casefold(), entry.setup.key
                    if key not in told:
                        told.add(key)
                        yield entry


def _to_try(entry: Entry, *, knows_max: bool) -> LiftToTry:
    """What can be tried with a lift: nothing by its max where none is known."""
    usual = write_runs(entry.sets)
    methods = [
        WithMethod(method=method, sets=sets)
        for method in Method
        if (knows_max or method is not Method.SINGLE)
        and (sets := write_runs(with_method(entry, method).sets)) != usual
    ]
    return LiftToTry(exercise=entry.exercise, setup=entry.setup, usual=usual, methods=methods)


def _views(work: Work, season: Season, now: datetime) -> list[TrialView]:
    today = lifter.today(work, now)
    left_out = easy_mondays(season).union(week.monday for week in easy_weeks(sessions_went(work, now), today))
    return [_view(work, each, left_out, now) for each in season.trials[::-1]]


def _view(work: Work, trial: Trial, left_out: Collection[date], now: datetime) -> TrialView:
    today, lift = lifter.today(work, now), library(work).find(trial.exercise)
    key = lift_key(lift, trial.setup)
    known = lookups.basis(work, now).estimates.get(key)
    sessions = by_one_max(maxes.course(work, now), key, known, trial.monday) if known else ()
    found = outcome(trial, sessions, left_out, today)
    return TrialView(
        monday=trial.monday,
        last=trial.last,
        weeks=trial.weeks,
        tried=trial.tried,
        week=trial.number_of(today) if trial.is_on(today) else None,
        exercise=lift.name,
        setup=trial.setup,
        method=trial.method,
        sets=write_runs(trial.sets),
        text=_told(found),
        outcome=found,
        more_weeks=found.more_weeks if _has_just_ended(trial, today) else None,
    )


def _told(found: Outcome) -> str:
    """How a trial stands, in words."""
    counted = f"{found.tried} sessions with it, {found.usual} as usual"
    if found.change is None or found.low is None or found.high is None:
        return f"{counted}: from {FEWEST} each a difference is told."
    bounds = f"{with_bounds(found.change, found.low, found.high, '%', 100)}, {counted}"
    match found.verdict:
        case Verdict.RUNNING:
            return f"So far {bounds}. The answer comes at the end: who stops when it looks good is often wrong."
        case Verdict.HELPS:
            return f"It helps: sessions with it show {bounds}."
        case Verdict.COSTS:
            return f"It costs: sessions with it show {bounds}."
        case Verdict.ALIKE:
            return f"It makes no difference of {MATTERS * 100:.0f} % or more: {bounds}."
    more = f"about {found.more_weeks} more weeks would do" if found.more_weeks else "it would take too long to tell"
    return f"It cannot be told yet: {bounds}; {more}."
