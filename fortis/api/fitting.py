"""A week of the season made to fit another place, fewer sessions, only the main lifts: seen, then agreed to."""

from datetime import date, datetime, timedelta
from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Depends, HTTPException, Response
from pydantic import BaseModel, Field

from fortis.api.kit import PlaceNumber
from fortis.api.problems import ProblemDetail
from fortis.api.season import get_season
from fortis.api.work import Now, Work, WritingWork, commits
from fortis.core.season.fitting import Wanted, fitted
from fortis.core.season.reading import MOST_DAYS
from fortis.core.season.weeks import SeasonSession, weeks
from fortis.core.structure.notation import read
from fortis.core.structure.writing import write
from fortis.core.tally.week import DAYS, monday_of
from fortis.core.units import Unit
from fortis.core.value import Day, Flag
from fortis.store import lifter, places, seasons, sessions
from fortis.store.lifts import library
from fortis.store.tables import SeasonRow, SessionRow

router = APIRouter(
    prefix="/api/season",
    tags=["season"],
    responses={code: {"model": ProblemDetail} for code in (404, 422)},
)

Many = Annotated[int, Field(ge=1, le=MOST_DAYS)]


class Fit(BaseModel):
    """What a week is to fit: the kit of a place, so many sessions, only the main lifts; None where it does."""

    place_id: PlaceNumber | None = None
    sessions: Many | None = None
    main_only: Flag = False


class FittedSession(BaseModel):
    """A session as it would be; without a text it is done with the others."""

    id: UUID
    title: str
    on: date
    written: str | None


class FittedWeek(BaseModel):
    """A week as it would be, and what is lost by it. `is_changed` says that it is not as the season has it now."""

    sessions: list[FittedSession]
    lost: list[str]
    is_changed: bool


async def _fit(place_id: PlaceNumber | None = None, sessions: Many | None = None, main_only: bool = False) -> Fit:
    return Fit(place_id=place_id, sessions=sessions, main_only=main_only)


@router.get("/{season_id}/fit/{monday}")
def see(season_id: UUID, monday: Day, fit: Annotated[Fit, Depends(_fit)], work: Work, now: Now) -> FittedWeek:
    """What a week would be that fits."""
    return _fitted(work, get_season(work, str(season_id)), monday_of(monday), fit, now)


@router.put("/{season_id}/fit/{monday}")
@commits
def agree(season_id: UUID, monday: Day, fit: Fit, work: WritingWork, now: Now) -> FittedWeek:
    """Make a week fit. Its sessions are yours then, and stay so when the season changes."""
    row = get_season(work, str(season_id))
    found = _fitted(work, row, monday_of(monday), fit, now)
    for each in found.sessions:
        if each.written is None:
            sessions.discard(work, str(each.id), now)
        else:
            kept = sessions.save_plan(work, str(each.id), each.written, Unit(row.unit), each.on)
            kept.season_id = row.id
    return found.model_copy(update={"is_changed": True})


@router.delete("/{season_id}/fit/{monday}", status_code=204)
@commits
def as_planned(season_id: UUID, monday: Day, work: WritingWork, now: Now) -> Response:
    """Plan a week's sessions as the season has them, also those that were changed by hand."""
    row = get_season(work, str(season_id))
    for planned, there in _open(work, row, monday_of(monday), lifter.today(work, now)):
        if _differs(planned, there):
            sessions.save_plan(work, there.id, planned.written, Unit(row.unit), planned.on)
    return Response(status_code=204)


def _open(work: Work, row: SeasonRow, monday: date, today: date) -> list[tuple[SeasonSession, SessionRow]]:
    """The sessions of a week as the season plans them that were not begun, with their rows, in order."""
    planned = weeks(seasons.season_of(row), Unit(row.unit))
    week = next((each for each in planned if each.monday == monday), None)
    if week is None or monday + timedelta(days=DAYS) <= today:
        raise HTTPException(404, "The season has no such week ahead.")
    rows = seasons.of_season(work, row.id)
    told = [(each, rows.get(seasons.session_id(row.id, week, each.title))) for each in week.sessions]
    found = [(each, there) for each, there in told if there is not None and there.started_at is None]
    return sorted(found, key=lambda each: each[0].on)


def _differs(planned: SeasonSession, there: SessionRow) -> bool:
    """Whether a session is not as its season plans it."""
    return there.discarded_at is not None or (there.written, there.planned_on) != (planned.written, planned.on)


def _fitted(work: Work, row: SeasonRow, monday: date, fit: Fit, now: datetime) -> FittedWeek:
    all_of_it = _open(work, row, monday, lifter.today(work, now))
    found = [(planned, there) for planned, there in all_of_it if there.discarded_at is None]
    kit = None if fit.place_id is None else places.kit_at(work, fit.place_id)
    week = [read(each.written, Unit(row.unit)) for each, _ in found]
    fits = fitted(week, Wanted(fit.sessions, fit.main_only, kit), library(work))
    return FittedWeek(
        sessions=[
            FittedSession(
                id=UUID(there.id),
                title=planned.title,
                on=planned.on,
                written=write(each) if each else None,
            )
            for (planned, there), each in zip(found, fits.sessions, strict=True)
        ],
        lost=list(fits.lost),
        is_changed=any(_differs(*each) for each in all_of_it),
    )
