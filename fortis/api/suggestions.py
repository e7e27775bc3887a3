"""Seasons suggested for a wish, each with its reasons, its text, and what its weeks come to."""

from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, HTTPException
from pydantic import BaseModel, Field

from fortis.api import lookups
from fortis.api.problems import ProblemDetail
from fortis.api.season import SeasonSaved, save_season
from fortis.api.work import Now, Work, WritingWork, commits
from fortis.core.exercises import Library
from fortis.core.reason import Reason
from fortis.core.season.ahead import WeekAhead, weeks_ahead
from fortis.core.season.model import Aim, AimLift
from fortis.core.season.reading import LiftsError, read_lifts
from fortis.core.season.suggesting import (
    MOST_LIFTS,
    DaysAWeek,
    Experience,
    Goal,
    Minutes,
    Sore,
    Way,
    Wish,
    suggested,
)
from fortis.core.season.writing import write_season
from fortis.core.units import Unit
from fortis.core.value import Day, Flag
from fortis.store import lifter, places
from fortis.store.lifts import library

router = APIRouter(prefix="/api/suggestions", tags=["season"])


class AimWished(BaseModel):
    """What a season is to lead to: a meet or a test on a day."""

    what: Annotated[str, Field(pattern="^(meet|test)$")]
    on: Day


class Wished(BaseModel):
    """What a season should be. `lifts` are those that matter, as written: `Front squat [belt], Bench press`.

    `at_once` puts its first session on today, else it begins next Monday.
    """

    goal: Goal = Goal.BOTH
    days: DaysAWeek = 3
    minutes: Minutes = 60
    experience: Experience = Experience.SOME
    at_once: Flag = False
    aim: AimWished | None = None
    lifts: Annotated[str, Field(max_length=400)] = ""
    sore: Sore = ()


class First(BaseModel):
    """What a lifter says who begins with Fortis."""

    goal: Goal = Goal.BOTH
    days: DaysAWeek = 3
    experience: Experience = Experience.SOME


class Suggested(BaseModel):
    """A season to choose: how its week is split, how its loads rise, why, its text, and its weeks."""

    name: str
    way: Way
    reasons: tuple[Reason, ...]
    written: str
    weeks: tuple[WeekAhead, ...]


@router.post("", responses={422: {"model": ProblemDetail}})
def suggest(wished: Wished, work: Work, now: Now) -> list[Suggested]:
    """Suggest two or three seasons. Nothing is planned by it."""
    known = library(work)
    lifts = _lifts(wished.lifts, known)
    aim = wished.aim and Aim(what=wished.aim.what, on=wished.aim.on)
    told = wished.model_dump(exclude={"aim", "lifts"})
    wish = Wish(**told, aim=aim, lifts=lifts, begins=lifter.today(work, now))
    found = suggested(wish, places.kit(work), known, lookups.basis(work, now).estimates.keys())
    return [
        Suggested(
            name=each.name,
            way=each.way,
            reasons=each.reasons,
            written=write_season(each.season),
            weeks=weeks_ahead(each.season, Unit.KG, known),
        )
        for each in found
    ]


@router.put("/first/{season_id}", responses={code: {"model": ProblemDetail} for code in (409, 422)})
@commits
def begin(season_id: UUID, first: First, work: WritingWork, now: Now) -> SeasonSaved:
    """Plan the first season suggested, its first session today, under an id the client made.

    Who has trained for less than a year, and never said since when, is taken to begin today.
    """
    wish = Wish(**first.model_dump(), begins=lifter.today(work, now), at_once=True)
    told = lifter.lifter(work)
    if first.experience is Experience.NEW and told.training_since is None:
        lifter.save_lifter(work, told.unit, wish.begins, told.warm_ups, told.plate_order, told.ways)
    (season, *_) = suggested(wish, places.kit(work), library(work))
    return save_season(work, str(season_id), write_season(season.season), Unit.KG, now)


def _lifts(written: str, known: Library) -> tuple[AimLift, ...]:
    """The lifts of a text, by the names that they have."""
    try:
        read = list(read_lifts(written))
    except LiftsError as error:
        raise HTTPException(422, str(error)) from None
    if len(read) > MOST_LIFTS:
        raise HTTPException(422, f"Lifts that matter: these are {len(read)}, and {MOST_LIFTS} at most can.")
    found = []
    for each in read:
        lift = known.find(each.exercise)
        if not lift.known:
            near = known.nearest_names(each.exercise, 1)
            meant = f" Did you mean {near[0]}?" if near else ""
            raise HTTPException(422, f"Lifts that matter: {each.exercise} is not known.{meant}")
        found.append(each.model_copy(update={"exercise": lift.name}))
    return tuple(found)
