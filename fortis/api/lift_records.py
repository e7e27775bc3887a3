"""The records of a lift with its set-up: what a screen shows of them."""

from collections.abc import Iterable, Mapping, Sequence
from datetime import date, datetime, timedelta
from decimal import Decimal
from operator import attrgetter

from pydantic import BaseModel
from sqlalchemy.orm import Session as UnitOfWork

from fortis.api.views import Bounds
from fortis.core.exercises import Exercise, LoadKind
from fortis.core.loading.moved import body_part
from fortis.core.structure.model import LiftKey
from fortis.core.tally.records import Alike, Best, Record, best_by_reps, lately, record_days, short_of
from fortis.core.tally.relative import Moment, dots, held_while_lighter
from fortis.core.tally.week import monday_of
from fortis.core.value import Kilograms
from fortis.store import lifter
from fortis.store.records import Volume, bests, volumes


class Day(BaseModel):
    """The max as it was known after a session, or after a set was remembered: that has none.

    `body_kg` is the body weight of the day.
    """

    at: datetime
    session_id: str | None
    max: Bounds
    body_kg: Kilograms | None


class BestLoad(BaseModel):
    """The heaviest load for so many reps, and when that was first; `tempo` where one was kept to.

    `times_body` is the load, both where there are two dumbbells, as so many times the body weight of that day.
    `short_kg` is what the best of the last four weeks stays short of it, None where that is far off.
    """

    kg: Kilograms
    reps: int
    on: date
    tempo: str
    body: bool
    times_body: float | None
    short_kg: Kilograms | None


class Most(BaseModel):
    """The most of something, and when that was: of a week its Monday."""

    kg: Kilograms
    on: date


class RecordMark(Record):
    """A record on its day; `tempo` where one was kept to. With `body` loads are added to body weight."""

    on: date
    tempo: str
    body: bool


class Relative(BaseModel):
    """The max beside body weight: how many times that it is, and in points, where the lifter wants those.

    `held` is the body weight lost over the time shown, in kg, while the max stood: None where that is not so.
    """

    body_kg: Kilograms
    times_body: float
    points: float | None
    held: float | None


class LiftRecords(BaseModel):
    """The records of a lift with one set-up.

    `bests` are the heaviest loads by reps, for each tempo; `days` the records of the time shown, the best of a day;
    the others the most of all time but `best_max`, which is of the time shown.
    """

    bests: list[BestLoad]
    best_max: Most | None
    most_at_top: Most | None
    most_in_session: Most | None
    most_in_week: Most | None
    days: list[RecordMark]
    relative: Relative | None


def lift_records(
    work: UnitOfWork, lift: Exercise, max_kg: float, key: LiftKey, days: Sequence[Day], now: datetime
) -> LiftRecords:
    """The records of a lift with a set-up, whose max is known over some days and is `max_kg` now."""
    done, of_volume = _done(work, key, now), volumes(work, key, now)
    return LiftRecords(
        bests=_bests(work, done, lift, now),
        best_max=_most((lifter.today(work, day.at), _half(day.max.kg)) for day in days),
        most_at_top=_most((each.on, each.top_kg) for each in of_volume if each.top_kg),
        most_in_session=_most((each.on, each.tonnage_kg) for each in of_volume),
        most_in_week=_most(_weekly(of_volume).items()),
        days=_marks(work, done, lift, days),
        relative=_relative(work, days, max_kg * lift.implements, now),
    )


def _done(work: UnitOfWork, key: LiftKey, now: datetime) -> Mapping[Alike, Sequence[Best]]:
    """What was done of a lift with a set-up, by tempo."""
    return {alike: done for alike, done in sorted(bests(work, [key[0]], now).items()) if alike.setup_key == key[1]}


RECENT = timedelta(days=28)


def _bests(work: UnitOfWork, done: Mapping[Alike, Sequence[Best]], lift: Exercise, now: datetime) -> list[BestLoad]:
    since = lifter.today(work, now) - RECENT
    found = []
    for alike, of_tempo in done.items():
        recent = lately(of_tempo, since)
        for best in best_by_reps(of_tempo):
            body_kg = lifter.body_kg(work, best.on)
            found.append(
                BestLoad(
                    kg=best.kg,
                    reps=best.reps,
                    on=best.on,
                    tempo=alike.tempo,
                    body=lift.load_kind is LoadKind.BODY,
                    times_body=round(float(best.kg * lift.implements / body_kg), 2) if body_kg else None,
                    short_kg=short_of(best, recent),
                )
            )
    return found


def _most(of: Iterable[tuple[date, Decimal]]) -> Most | None:
    """The most, on the first day it was."""
    on, kg = max(of, key=lambda each: (each[1], -each[0].toordinal()), default=(None, None))
    return Most(kg=kg, on=on) if kg and on else None


def _weekly(of: Iterable[Volume]) -> Mapping[date, Decimal]:
    weeks: dict[date, Decimal] = {}
    for each in of:
        monday = monday_of(each.on)
        weeks[monday] = weeks.get(monday, Decimal(0)) + each.tonnage_kg
    return weeks


def _half(kg: float) -> Decimal:
    return round(Decimal(kg) * 2) / Decimal(2)


def _marks(
    work: UnitOfWork, done: Mapping[Alike, Sequence[Best]], lift: Exercise, days: Sequence[Day]
) -> list[RecordMark]:
    """The records of the days that are shown."""
    if not days:
        return []
    first = lifter.today(work, days[0].at)
    body = lift.load_kind is LoadKind.BODY
    part = body_part(lift, body, lifter.body_kg(work, first)) or Decimal(0)
    marks = [
        RecordMark(**dict(record), on=on, tempo=alike.tempo, body=body)
        for alike, of_tempo in done.items()
        for on, record in record_days(of_tempo, part)
        if on >= first
    ]
    return sorted(marks, key=attrgetter("on"))


def _relative(work: UnitOfWork, days: Sequence[Day], max_kg: float, now: datetime) -> Relative | None:
    body_kg = lifter.body_kg(work, lifter.today(work, now))
    if not body_kg:
        return None
    points = lifter.lifter(work).ways.points
    return Relative(
        body_kg=body_kg,
        times_body=round(max_kg / float(body_kg), 2),
        points=round(dots(max_kg, float(body_kg), points), 1) if points else None,
        held=held_while_lighter([Moment(day.max.kg, day.body_kg) for day in days]),
    )
