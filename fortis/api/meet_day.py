"""The page of the day that a season leads to: when to warm up with what, the attempts, and what to remember."""

from collections.abc import Iterable
from datetime import date

from fastapi import APIRouter
from pydantic import BaseModel

from fortis.api.season import attempts_of
from fortis.api.work import Now, Work
from fortis.core.exercises import Exercise
from fortis.core.performance import PerformedBout
from fortis.core.season.attempts import Attempt, total
from fortis.core.season.meet_day import DayStep, day_of
from fortis.core.structure.model import SetUp
from fortis.store import bouts, places, seasons, sessions
from fortis.store.lifts import library

router = APIRouter(prefix="/api/meet-day", tags=["season"])

MOST_CUES, LOOKED_BACK = 3, 20


class LiftOnDay(BaseModel):
    """A lift on the day: what to do and when, and the notes of the last sessions that had any, the latest first."""

    exercise: str
    setup: SetUp
    steps: tuple[DayStep, ...]
    cues: list[str]


class MeetDay(BaseModel):
    """The day. `place` has the plates that loads are built from; `total` is what the attempts come to together."""

    title: str
    what: str
    on: date
    place: str
    lifts: list[LiftOnDay]
    total: tuple[Attempt, ...]


class MeetDayPage(BaseModel):
    """The day that the season under way leads to; None where none is ahead, or nothing is known of its lifts."""

    day: MeetDay | None


@router.get("")
def show(work: Work, now: Now) -> MeetDayPage:
    """The day that the season under way leads to, by the maxes as they are known now."""
    row = seasons.underway(work)
    season = seasons.season_of(row) if row else None
    if season is None or season.aim is None or not (tried := attempts_of(work, season.aim, now)):
        return MeetDayPage(day=None)
    kit, known, noted = places.kit(work), library(work), _noted(work)
    lifts = [
        LiftOnDay(
            exercise=each.exercise,
            setup=each.setup,
            steps=day_of(season.aim.what, known.find(each.exercise), each.attempts, kit, first=at == 0),
            cues=_cues(noted, known.find(each.exercise)),
        )
        for at, each in enumerate(tried)
    ]
    day = MeetDay(
        title=season.title,
        what=season.aim.what,
        on=season.aim.on,
        place=kit.place,
        lifts=lifts,
        total=total([each.attempts for each in tried]),
    )
    return MeetDayPage(day=day)


def _noted(work: Work) -> list[PerformedBout]:
    """The bouts of the last sessions that have a note, the latest first."""
    rows = sessions.finished_ids(work, limit=LOOKED_BACK)
    return [each.bout for done in bouts.of_all(work, rows).values() for each in reversed(done) if each.bout.note]


def _cues(noted: Iterable[PerformedBout], lift: Exercise) -> list[str]:
    """The last notes at a lift, each wording once."""
    return list(dict.fromkeys(bout.note for bout in noted if bout.is_of(lift)))[:MOST_CUES]
