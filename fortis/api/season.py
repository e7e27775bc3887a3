"""Season: the weeks of a plan, what was done of it, what is to come, and its text."""

from collections.abc import Sequence
from datetime import UTC, date, datetime, time, timedelta
from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, HTTPException, Response
from pydantic import BaseModel, Field

from fortis.api import lookups
from fortis.api.problems import ProblemDetail
from fortis.api.views import Bounds, card, planned_cost
from fortis.api.weeks import SmallSession, small
from fortis.api.work import Now, Work, WritingWork, commits
from fortis.api.written import Written
from fortis.core.exercises import LoadKind
from fortis.core.season.attempts import Attempt, attempts, total
from fortis.core.season.model import Aim, Away, Block, LightSchool, LightWeek, Season
from fortis.core.season.outlook import looking_ahead
from fortis.core.season.reading import TrainedError, examine_season, past_its_day, with_away, with_week_moved
from fortis.core.season.weeks import SeasonSession, SeasonWeek, week_by_week, weeks
from fortis.core.season.writing import write_block
from fortis.core.strength.estimate import Estimate
from fortis.core.structure.model import SetUp, lift_key
from fortis.core.structure.notation import LONGEST_TEXT, Problem, read
from fortis.core.tally.small_score import small_plan
from fortis.core.tally.week import DAYS, DayDone, added_up, monday_of
from fortis.core.units import Unit
from fortis.core.value import Day, Flag, Kilograms
from fortis.store import lifter, maxes, seasons, sessions
from fortis.store.lifts import library
from fortis.store.sessions import State
from fortis.store.tables import SeasonRow, SessionRow
from fortis.store.weeks import done_within

router = APIRouter(prefix="/api/season", tags=["season"])


class WeekWork(BaseModel):
    """What sessions come to. `average_kg` is a rep's, None without loaded reps."""

    sessions: int
    seconds: int
    sets: int
    tonnage_kg: Kilograms
    average_kg: Kilograms | None


class WeekOfSeason(BaseModel):
    """A week: its `number` and that of its `block` (from 1), None where all is put off, and its sessions in order.

    `done` is what its finished sessions come to, `all` those and the ones to come. `away` is why there is no
    training, where that was told; None where there is. `light` is the school of a week the lifter made light.
    """

    monday: date
    number: int | None
    block: int | None
    round: int
    week: int
    away: str | None
    missed: bool
    light: LightSchool | None
    done: WeekWork
    all: WeekWork
    of: list[SmallSession]


class BlockView(BaseModel):
    """A block: its kind and name, how it is written, and its weeks in the plan from `first` on (from 1)."""

    kind: str
    name: str
    written: str
    first: int
    weeks: int


class LiftAttempts(BaseModel):
    """Opener, second and third of a lift, were the day today."""

    exercise: str
    setup: SetUp
    attempts: tuple[Attempt, ...]


class MaxOn(Bounds):
    """A max on a day."""

    on: date


class LiftCourse(BaseModel):
    """The max of a lift: after each session in the time of the season, and week by week from now on."""

    exercise: str
    setup: SetUp
    past: list[MaxOn]
    ahead: list[MaxOn]


class SeasonView(BaseModel):
    """The season under way, week by week.

    `attempts` are of the lifts that count on its day and whose max is known, `total` what those come to together.
    `courses` are of those lifts, or of the ones that its days begin with. `past_its_day` are the Mondays of weeks
    that build up to its day and begin only after it.
    """

    id: str
    title: str
    written: str
    aim: Aim | None
    attempts: list[LiftAttempts]
    total: tuple[Attempt, ...]
    courses: list[LiftCourse]
    blocks: list[BlockView]
    weeks: list[WeekOfSeason]
    past_its_day: tuple[date, ...]


class SeasonPage(BaseModel):
    """The season under way, None where there is none. `today` is the lifter's date."""

    today: date
    season: SeasonView | None


class SeasonRead(BaseModel):
    """A text as far as it is a season: its title, how many weeks and sessions it has, what is wrong with it."""

    title: str
    weeks: int
    sessions: int
    problems: list[Problem]


class SeasonText(Written):
    """A season's text, and the one it was changed from: where another one is there by now, that stays."""

    was: str | None = Field(default=None, max_length=2 * LONGEST_TEXT)


class SeasonSaved(BaseModel):
    """How many sessions were planned, changed and taken out."""

    id: str
    new: int
    changed: int
    taken_out: int


class Absence(BaseModel):
    """No training in a week. What was planned for it follows a week later, unless it is `missed`."""

    missed: Flag = False
    why: Annotated[str, Field(max_length=200)] = ""


class WeekMoved(BaseModel):
    """The Monday that a week goes to, with all that follows it."""

    to: Day


class LightLike(BaseModel):
    """A light week: by a school, between its neighbours or `instead` of what is planned for it."""

    school: LightSchool
    instead: Flag = False


class LightProposal(LightLike):
    """What a week would be like, made light so: its sessions as text, and the season's last Monday then."""

    sessions: list[SeasonSession]
    last: date


class OnDay(BaseModel):
    """The day a session is moved to."""

    on: Day


@router.get("")
def show(work: Work, now: Now) -> SeasonPage:
    """The season under way."""
    row = seasons.underway(work)
    return SeasonPage(today=lifter.today(work, now), season=_view(work, row, now) if row else None)


@router.post("/text/examine")
def examine(asked: Written, work: Work) -> SeasonRead:
    """Read a text that is to be a season, as far as it goes."""
    unit = asked.unit or lifter.lifter(work).unit
    season, problems = examine_season(asked.written, unit)
    planned = weeks(season, unit) if season and not problems else ()
    return SeasonRead(
        title=season.title if season else "",
        weeks=len(planned),
        sessions=sum(len(week.sessions) for week in planned),
        problems=list(problems),
    )


@router.put("/{season_id}", responses={409: {"model": ProblemDetail}, 422: {"model": ProblemDetail}})
@commits
def save(season_id: UUID, asked: SeasonText, work: WritingWork, now: Now) -> SeasonSaved:
    """Save a season under an id the client made, and plan its sessions; saved again, it is changed."""
    unit = asked.unit or lifter.lifter(work).unit
    return save_season(work, str(season_id), asked.written, unit, now, asked.was)


@router.put("/{season_id}/away/{monday}", responses={code: {"model": ProblemDetail} for code in (404, 409, 422)})
@commits
def go_away(season_id: UUID, monday: Day, absence: Absence, work: WritingWork, now: Now) -> SeasonSaved:
    """Leave a week without training: what comes after follows a week later, or the week is missed."""
    away = Away(monday=monday_of(monday), missed=absence.missed, why=" ".join(absence.why.split()))
    return _with_away(work, str(season_id), away, now)


@router.delete("/{season_id}/away/{monday}", responses={code: {"model": ProblemDetail} for code in (404, 409, 422)})
@commits
def come_back(season_id: UUID, monday: Day, work: WritingWork, now: Now) -> SeasonSaved:
    """Train in a week as planned after all."""
    return _with_away(work, str(season_id), monday_of(monday), now)


MOST_MOVED = timedelta(weeks=26)


@router.put("/{season_id}/moved/{monday}", responses={code: {"model": ProblemDetail} for code in (404, 409, 422)})
@commits
def move_week(season_id: UUID, monday: Day, moved: WeekMoved, work: WritingWork, now: Now) -> SeasonSaved:
    """Move a week and all that follows it: later, with weeks away before it, or back over such weeks."""
    row, first, to = get_season(work, str(season_id)), monday_of(monday), monday_of(moved.to)
    if abs(to - first) > MOST_MOVED:
        raise HTTPException(422, f"A week is moved by {MOST_MOVED // timedelta(weeks=1)} weeks at most.")
    try:
        written = with_week_moved(row.written, first, to)
    except TrainedError as error:
        trained = f"The week of {error.monday:%d %B} is trained"
        raise HTTPException(422, f"{trained}: a week goes back over weeks away only.") from error
    return save_season(work, str(season_id), written, Unit(row.unit), now)


@router.get("/{season_id}/light/{monday}", responses={404: {"model": ProblemDetail}})
def ways_to_lighten(season_id: UUID, monday: Day, work: Work) -> list[LightProposal]:
    """The ways in which a week can be made light; none where it cannot."""
    row = get_season(work, str(season_id))
    ways = [LightLike(school=school, instead=instead) for school in LightSchool for instead in (False, True)]
    return [found for way in ways if (found := _proposal(row, monday_of(monday), way))]


@router.put("/{season_id}/light/{monday}", responses={code: {"model": ProblemDetail} for code in (404, 409, 422)})
@commits
def lighten(season_id: UUID, monday: Day, like: LightLike, work: WritingWork, now: Now) -> SeasonSaved:
    """Make a week light: it stands between its neighbours, or in place of what was planned for it."""
    week = LightWeek(monday=monday_of(monday), school=like.school, instead=like.instead)
    return _with_away(work, str(season_id), week, now)


@router.put(
    "/sessions/{session_id}/day",
    status_code=204,
    responses={code: {"model": ProblemDetail} for code in (404, 409)},
)
@commits
def move(session_id: UUID, to: OnDay, work: WritingWork) -> Response:
    """Move a session that was not begun to another day: the season leaves it there, in its week."""
    row = sessions.get(work, str(session_id))
    if row.started_at is not None:
        raise sessions.StartedError(row.id)
    row.planned_on = to.on
    return Response(status_code=204)


@router.post("/{season_id}/end", responses={404: {"model": ProblemDetail}})
@commits
def end(season_id: UUID, work: WritingWork, now: Now) -> SeasonSaved:
    """End a season: what was not begun is put aside."""
    row = get_season(work, str(season_id))
    return SeasonSaved(id=row.id, new=0, changed=0, taken_out=seasons.end(work, row, now))


def get_season(work: Work, season_id: str) -> SeasonRow:
    """A season, or a 404."""
    row = work.get(SeasonRow, season_id)
    if row is None:
        raise HTTPException(404, "There is no such season.")
    return row


def save_season(
    work: Work, season_id: str, written: str, unit: Unit, now: datetime, was: str | None = None
) -> SeasonSaved:
    """Save a season's text, changed from what it `was` where that is told, and plan its sessions."""
    row, planned = seasons.save(work, season_id, written, unit, lifter.today(work, now), now, was)
    return SeasonSaved(id=row.id, new=planned.new, changed=planned.changed, taken_out=planned.taken_out)


def _with_away(work: Work, season_id: str, change: Away | LightWeek | date, now: datetime) -> SeasonSaved:
    """The season with a week away or light more, or without that of a Monday."""
    row = get_season(work, season_id)
    away, monday = (None, change) if isinstance(change, date) else (change, change.monday)
    return save_season(work, season_id, with_away(row.written, monday, away), Unit(row.unit), now)


def _proposal(row: SeasonRow, monday: date, way: LightLike) -> LightProposal | None:
    """What a week of a season would be like, made light; None where it cannot be."""
    unit = Unit(row.unit)
    light = LightWeek(monday=monday, school=way.school, instead=way.instead)
    season, problems = examine_season(with_away(row.written, monday, light), unit)
    if season is None or problems:
        return None
    week = next((each for each in week_by_week(season, unit) if each.monday == monday), None)
    if week is None:
        return None
    return LightProposal(**dict(way), sessions=list(week.sessions), last=season.mondays[-1])


def _view(work: Work, row: SeasonRow, now: datetime) -> SeasonView:
    season = seasons.season_of(row)
    planned = weeks(season, Unit(row.unit))
    by_monday = {week.monday: week for week in planned}
    mondays = _mondays(season)
    done = done_within(work, mondays[0], mondays[-1] + timedelta(days=DAYS - 1))
    in_order = [(small(each), each.day) for each in done]
    in_order += [_ahead(work, each, now) for each in _not_done(work, row)]
    told: dict[date, list[Told]] = {monday: [] for monday in mondays}
    for each in in_order:
        told.setdefault(monday_of(each[0].day), []).append(each)
    tried = attempts_of(work, season.aim, now) if season.aim else []
    return SeasonView(
        id=row.id,
        title=season.title,
        written=row.written,
        aim=season.aim,
        attempts=tried,
        total=total([each.attempts for each in tried]),
        courses=_courses(work, season, planned, mondays, now),
        blocks=_blocks(season.blocks),
        weeks=[_week(monday, by_monday.get(monday), season, told[monday]) for monday in mondays],
        past_its_day=past_its_day(season),
    )


def _courses(
    work: Work, season: Season, planned: Sequence[SeasonWeek], mondays: Sequence[date], now: datetime
) -> list[LiftCourse]:
    """The maxes of the lifts that matter: those that count on its day, else those that its days begin with."""
    today, known = lifter.today(work, now), library(work)
    days = {*mondays, season.aim.on} if season.aim else set(mondays)
    days_ahead = [_noon(day) for day in sorted(days) if day > today]
    course, found = maxes.course(work, now), []
    for exercise, setup in _that_matter(season, planned):
        lift = known.find(exercise)
        key = lift_key(lift, setup)
        told = [
            MaxOn(on=each.session.day, **_bounds(max_))
            for _, after, each in maxes.of_lift(course, key)
            if each.session.day >= mondays[0] and (max_ := after.max_of(key, each.session.started_at))
        ]
        if (max_ := lookups.basis(work, now).estimates.get(key)) and told:
            outlook = zip(days_ahead, looking_ahead(max_, now, days_ahead), strict=True)
            later = [MaxOn(on=day.date(), **_bounds(each)) for day, each in outlook]
            found.append(LiftCourse(exercise=lift.name, setup=setup, past=told, ahead=later))
    return found


def _bounds(max_: Estimate) -> dict[str, float]:
    return Bounds.of(max_).model_dump()


def _noon(day: date) -> datetime:
    return datetime.combine(day, time(12), UTC)


MOST_COURSES = 4


def _that_matter(season: Season, planned: Sequence[SeasonWeek]) -> list[tuple[str, SetUp]]:
    if season.aim and season.aim.lifts:
        return [(each.exercise, each.setup) for each in season.aim.lifts][:MOST_COURSES]
    first = [session.written for week in planned[:1] for session in week.sessions]
    entries = (read(written).groups[0].entries[0] for written in first)
    return list(dict.fromkeys((entry.exercise, entry.setup) for entry in entries))[:MOST_COURSES]


def attempts_of(work: Work, aim: Aim, now: datetime) -> list[LiftAttempts]:
    """What to try on the day, by the maxes as they are known now; nothing once it is over."""
    if aim.on < lifter.today(work, now):
        return []
    basis, known = lookups.basis(work, now), library(work)
    found = []
    for each in aim.lifts:
        lift = known.find(each.exercise)
        max_ = basis.estimates.get(lift_key(lift, each.setup))
        if max_ and lift.load_kind is not LoadKind.BODY:
            found.append(LiftAttempts(exercise=lift.name, setup=each.setup, attempts=attempts(max_)))
    return found


Told = tuple[SmallSession, DayDone]


def _not_done(work: Work, row: SeasonRow) -> list[SessionRow]:
    """The sessions of a season that wait or are being played, in order."""
    found = [
        each
        for each in seasons.of_season(work, row.id).values()
        if each.finished_at is None and each.discarded_at is None and each.planned_on
    ]
    return sorted(found, key=lambda each: (each.planned_on or date.max, each.id))


def _ahead(work: Work, row: SessionRow, now: datetime) -> Told:
    """A session to come, as it is planned by all that is known."""
    prescription = lookups.plan_of(work, row, now)
    costing = planned_cost(prescription, lookups.basis(work, now))
    day = sessions.day_of(row) or row.planned_on or date.max
    session = SmallSession(
        **card(row).model_dump(),
        day=day,
        minutes=round(costing.seconds / 60),
        tonnage_kg=costing.tonnage_kg,
        score=small_plan(prescription),
    )
    return session, DayDone(day=day, costing=costing)


def _mondays(season: Season) -> list[date]:
    """Every week from the first to the last, with those in which all is put off."""
    many = (season.mondays[-1] - season.starts).days // DAYS + 1
    return [season.starts + timedelta(days=DAYS * number) for number in range(many)]


def _blocks(blocks: Sequence[Block]) -> list[BlockView]:
    found, first = [], 1
    for block in blocks:
        many = block.rounds * block.weeks
        found.append(
            BlockView(kind=block.kind, name=block.name, written=write_block(block), first=first, weeks=many)
        )
        first += many
    return found


def _week(monday: date, planned: SeasonWeek | None, season: Season, of: Sequence[Told]) -> WeekOfSeason:
    away = next((each for each in season.away if each.monday == monday), None)
    return WeekOfSeason(
        monday=monday,
        number=planned.number if planned else None,
        block=planned.block if planned else None,
        round=planned.round if planned else 0,
        week=planned.week if planned else 0,
        away=away.why if away else None,
        missed=bool(away and away.missed),
        light=next((each.school for each in season.light if each.monday == monday), None),
        done=_work(monday, [day for session, day in of if session.state is State.FINISHED]),
        all=_work(monday, [day for _, day in of]),
        of=[session for session, _ in sorted(of, key=lambda told: told[0].day)],
    )


def _work(monday: date, days: Sequence[DayDone]) -> WeekWork:
    week = added_up(monday, days)
    names = ("sessions", "seconds", "sets", "tonnage_kg", "average_kg")
    return WeekWork(**{name: getattr(week, name) for name in names})
