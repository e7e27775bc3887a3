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
from fortis.core.season.changing import ChangeError, weeks_in
from fortis.core.season.easy import easy_weeks
from fortis.core.season.model import Method, Season, Trial
from fortis.core.season.reading import (
    SeasonError,
    easy_mondays,
    examine_season,
    trained_mondays,
    with_trial,
)
from fortis.core.season.trial import (
    FEWEST,
    MATTERS,
    MOST_TRIED,
    Outcome,
    Verdict,
    draw,
    lengths,
    numbers_of,
    outcome,
    round_of,
    sets_of,
    with_method,
    with_waves,
)
from fortis.core.season.weeks import weeks
from fortis.core.structure.model import Entry, SetUp, lift_key
from fortis.core.structure.notation import read
from fortis.core.structure.writing import write_runs
from fortis.core.tally.week import DAYS, monday_of
from fortis.core.units import Unit
from fortis.core.value import Day
from fortis.store import lifter, maxes, seasons
from fortis.store.cache import cached
from fortis.store.lifts import library
from fortis.store.shown import by_kinds
from fortis.store.went import sessions_went

router = APIRouter(tags=["season"])

FEWEST_WEEKS, MOST_WEEKS = 4, 18
"""Weeks of a trial: with fewer nothing shows, and with more it is begun too long ahead."""
USUAL_WEEKS = 8
WAVES = "waves over weeks"
OTHER = "other sets"


class TrialLike(BaseModel):
    """What to try with a lift in half of so many weeks: a method, or other sets in the written notation.

    Sets may change from week to week as those of a season do.
    """

    exercise: LiftName
    setup: SetUp = SetUp()
    method: Method | None = None
    sets: str = Field(default="", max_length=500)
    weeks: int = Field(default=USUAL_WEEKS, ge=FEWEST_WEEKS, le=MOST_TRIED)

    @model_validator(mode="after")
    def _one_of_both(self) -> Self:
        if (self.method is None) == (not self.sets.strip()):
            raise ValueError("name a method, or write the sets that are tried")
        return self


class WayToTry(BaseModel):
    """Something to try with a lift: its sets as they are with it, and the weeks that a trial of it can have.

    Without a `method` it is begun by its `sets`; where there are none either, the lifter writes them. They go over
    `round_weeks`. `is_heavy` says that they have singles that want care.
    """

    name: str
    method: Method | None
    sets: str
    round_weeks: int
    weeks: list[int]
    usual_weeks: int
    is_heavy: bool


class LiftToTry(BaseModel):
    """A lift of the weeks to come: its sets as they are next, and what can be tried instead."""

    exercise: str
    setup: SetUp
    usual: str
    ways: list[WayToTry]


class ToTry(BaseModel):
    """What can be tried from a Monday on; no lifts while another trial runs."""

    monday: date
    lifts: list[LiftToTry]


class TrialView(BaseModel):
    """A trial, in words. `week` is the one it is in, from 1; None before and after it.

    `tried` are its weeks with what is tried, `left_out` those that count for neither side: light, free, or away.
    `more_weeks` are those that it can go on for where nothing can be told yet: it has only just ended.
    """

    monday: date
    last: date
    weeks: int
    tried: tuple[int, ...]
    left_out: tuple[int, ...]
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
    trained = numbers_of(trained_mondays(season), monday, MOST_WEEKS)
    busy = any(each.last >= monday for each in season.trials)
    entries = [] if busy or not _weeks(trained) else _entries(season, unit, monday)
    known, estimates = library(work), lookups.basis(work, now).estimates
    lifts = [
        _to_try(entry, trained, knows_max=lift_key(known.find(entry.exercise), entry.setup) in estimates)
        for entry in entries
    ]
    return ToTry(monday=monday, lifts=lifts)


@router.put(
    "/api/season/{season_id}/trials/{monday}",
    responses={code: {"model": ProblemDetail} for code in (404, 409, 422)},
)
@commits
def begin(season_id: UUID, monday: Day, like: TrialLike, work: WritingWork, now: Now) -> SeasonSaved:
    """Try something: the weeks of it are drawn by lot, every other one, or every other round of them.

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
        sets=" ".join(like.sets.split()),
    )
    _read_sets(trial, unit)
    there = next((each for each in season.trials if _what(each) == _what(trial)), None)
    if there and there.weeks >= trial.weeks:
        return save_season(work, row.id, row.written, unit, now)
    if other := next((each for each in season.trials if each is not there and each.overlaps(trial)), None):
        raise HTTPException(409, f"One trial at a time: that of {other.exercise} goes on until {other.last}.")
    if there and not _has_just_ended(there, lifter.today(work, now)):
        raise HTTPException(409, f"It was over on {there.last}, and what came after was not drawn: begin another.")
    drawn, begun = (there.tried, there.weeks) if there else ((), 0)
    numbers = numbers_of(trained_mondays(season), trial.monday, trial.weeks)
    trained = [number for number in numbers if number > begun]
    more = draw(trained, SystemRandom(), round_of(trial))
    if not more:
        raise HTTPException(422, _too_short(trial, len(trained)))
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


def _read_sets(trial: Trial, unit: Unit) -> None:
    """Read the sets of every week of a round. Raises `NotationError`."""
    weeks = range(1, round_of(trial) + 1) if trial.method is None else ()
    whole = trial.model_copy(update={"tried": tuple(weeks)})
    try:
        for week in weeks:
            sets_of(whole, week, unit)
    except ChangeError as error:
        raise HTTPException(422, str(error)) from None


def _too_short(trial: Trial, trained: int) -> str:
    """Why there is nothing to draw."""
    weeks = round_of(trial)
    rounds = "weeks of training" if weeks == 1 else f"rounds of {weeks} weeks of training in a row"
    return (
        f"A trial needs two {rounds}, one with it and one as usual; in its {trial.weeks} weeks the season has "
        f"{trained} of training: try it for longer, or make the season longer."
    )


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


def _to_try(entry: Entry, trained: Collection[int], *, knows_max: bool) -> LiftToTry:
    """What can be tried with a lift: nothing by its max where none is known."""
    usual = write_runs(entry.sets)
    ways = [
        _way(method, sets, trained, method=method, is_heavy=method is Method.SINGLE)
        for method in Method
        if (knows_max or method is not Method.SINGLE)
        and (sets := write_runs(with_method(entry, method).sets)) != usual
    ]
    if knows_max and (waves := with_waves(entry)) and _weeks(trained, weeks_in(waves)):
        ways.append(_way(WAVES, waves, trained, is_heavy=True))
    ways.append(_way(OTHER, "", trained))
    return LiftToTry(exercise=entry.exercise, setup=entry.setup, usual=usual, ways=ways)


def _way(
    name: str, sets: str, trained: Collection[int], *, method: Method | None = None, is_heavy: bool = False
) -> WayToTry:
    round_weeks = 1 if method else weeks_in(sets)
    weeks = _weeks(trained, round_weeks)
    return WayToTry(
        name=name,
        method=method,
        sets=sets,
        round_weeks=round_weeks,
        weeks=weeks,
        usual_weeks=next((each for each in weeks if each >= USUAL_WEEKS), weeks[-1]),
        is_heavy=is_heavy,
    )


def _weeks(trained: Collection[int], weeks: int = 1) -> list[int]:
    """The weeks that a trial of rounds of so many weeks can have."""
    return [each for each in lengths(trained, weeks) if each >= FEWEST_WEEKS]


def _views(work: Work, season: Season, now: datetime) -> list[TrialView]:
    today = lifter.today(work, now)
    left_out = easy_mondays(season).union(week.monday for week in easy_weeks(sessions_went(work, now), today))
    return [_view(work, each, left_out, now) for each in season.trials[::-1]]


def _view(work: Work, trial: Trial, left_out: Collection[date], now: datetime) -> TrialView:
    today, lift = lifter.today(work, now), library(work).find(trial.exercise)
    key = lift_key(lift, trial.setup)
    read = by_kinds(maxes.course(work, now), key, maxes.profile(work, now), trial.monday, now)
    found = outcome(trial, read, left_out, today)
    return TrialView(
        monday=trial.monday,
        last=trial.last,
        weeks=trial.weeks,
        tried=trial.tried,
        left_out=tuple(sorted(trial.number_of(monday) for monday in left_out if trial.is_on(monday))),
        week=trial.number_of(today) if trial.is_on(today) else None,
        exercise=lift.name,
        setup=trial.setup,
        method=trial.method,
        sets=trial.sets,
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
