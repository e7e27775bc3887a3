"""Light weeks by lot: which school each has, and which of them served the lifter better."""

from collections.abc import Mapping
from datetime import date, datetime, timedelta
from random import SystemRandom
from uuid import UUID

from fastapi import APIRouter
from pydantic import BaseModel

from fortis.api.problems import ProblemDetail
from fortis.api.season import SeasonSaved, get_season, save_season
from fortis.api.views import with_bounds
from fortis.api.work import Now, Work, WritingWork, commits
from fortis.core.season.easy import EasyWeek, returns
from fortis.core.season.lot import beside, draw_schools, light_weeks
from fortis.core.season.model import LightSchool, Season
from fortis.core.season.reading import with_schools
from fortis.core.season.trial import FEWEST, MATTERS, Outcome, Verdict
from fortis.core.tally.week import DAYS
from fortis.core.units import Unit
from fortis.store import lifter, seasons
from fortis.store.cache import cached
from fortis.store.went import sessions_went

router = APIRouter(prefix="/api/season", tags=["season"])

MOST_SEASONS = 20
"""Seasons that are looked back on."""


class DrawnWeek(BaseModel):
    """A light week whose school was drawn."""

    monday: date
    school: LightSchool


class LotView(BaseModel):
    """The light weeks of a season by lot.

    `to_draw` are those to come whose school was not drawn, `drawn` those of this season that were. `text` is how it
    stands over all seasons, empty before anything was drawn.
    """

    to_draw: list[date]
    drawn: list[DrawnWeek]
    text: str
    outcome: Outcome | None


@router.get("/{season_id}/lot", responses={404: {"model": ProblemDetail}})
def show(season_id: UUID, work: Work, now: Now) -> LotView:
    """Which light weeks were drawn, which can be, and what came of it."""
    season, today = seasons.season_of(get_season(work, str(season_id))), lifter.today(work, now)
    return cached(work, ("lot", season_id, today), lambda: _view(work, season, now))


def _view(work: Work, season: Season, now: datetime) -> LotView:
    found, by_lot = light_weeks(season), _by_lot(work)
    outcome = _outcome(work, by_lot, now) if by_lot else None
    return LotView(
        to_draw=_to_draw(season, lifter.today(work, now)),
        drawn=[DrawnWeek(monday=day, school=week.school) for day, week in found.items() if week.by_lot],
        text=_told(outcome) if outcome else "",
        outcome=outcome,
    )


@router.put("/{season_id}/lot", responses={code: {"model": ProblemDetail} for code in (404, 409, 422)})
@commits
def draw(season_id: UUID, work: WritingWork, now: Now) -> SeasonSaved:
    """Draw the schools of the light weeks to come. Those that were drawn before stay as they are."""
    row = get_season(work, str(season_id))
    season = seasons.season_of(row)
    days = _to_draw(season, lifter.today(work, now))
    schools = draw_schools(len(days), _by_lot(work).values(), SystemRandom())
    written = with_schools(row.written, season, dict(zip(days, schools, strict=True)))
    return save_season(work, row.id, written, Unit(row.unit), now)


def _to_draw(season: Season, today: date) -> list[date]:
    """The Mondays of the light weeks to come whose school was not drawn."""
    return [day for day, week in light_weeks(season).items() if day > today and not week.by_lot]


def _by_lot(work: Work) -> Mapping[date, LightSchool]:
    """The schools that were drawn in all seasons, by the Mondays of their weeks."""
    return {
        day: week.school
        for row in reversed(seasons.latest(work, MOST_SEASONS))
        for day, week in light_weeks(seasons.season_of(row)).items()
        if week.by_lot and (row.ended_at is None or day < row.ended_at.date())
    }


def _outcome(work: Work, by_lot: Mapping[date, LightSchool], now: datetime) -> Outcome:
    today = lifter.today(work, now)
    weeks = [EasyWeek(monday=day, school=school, weeks=0) for day, school in by_lot.items()]
    over = [week for week in weeks if week.ends < today]
    is_over = max(by_lot) + timedelta(days=2 * DAYS) <= today
    return beside(returns(sessions_went(work, now), over), by_lot, is_over=is_over)


def _told(found: Outcome) -> str:
    """How it stands, in words."""
    counted = f"{found.tried} heavy and short, {found.usual} with half the load"
    if found.change is None or found.low is None or found.high is None:
        return f"Behind you so far: {counted}. From {FEWEST} each a difference is told."
    bounds = f"{with_bounds(found.change, found.low, found.high, '%', 100)}, {counted}"
    match found.verdict:
        case Verdict.RUNNING:
            return (
                f"After heavy and short ones you come back {bounds}, so far. The answer comes after the last one."
            )
        case Verdict.HELPS:
            return f"Heavy and short ones serve you better: you come back {bounds}."
        case Verdict.COSTS:
            return f"Ones with half the load serve you better: after heavy and short ones you come back {bounds}."
        case Verdict.ALIKE:
            return f"Neither serves you better by {MATTERS * 100:.0f} % or more: {bounds}."
    more = f"about {found.more_weeks} more would do" if found.more_weeks else "it would take too long to tell"
    return f"It cannot be told yet: after heavy and short ones you come back {bounds}; {more}."
