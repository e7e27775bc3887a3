"""Training in the boathouse, played by the simulated lifter until today, and a season with a meet ahead."""

from collections.abc import Iterator
from datetime import UTC, date, datetime, time, timedelta
from decimal import Decimal
from functools import partial
from pathlib import Path
from random import Random
from typing import NamedTuple
from uuid import UUID
from zoneinfo import ZoneInfo

from sqlalchemy.orm import Session as UnitOfWork

from fortis.core.exercises import LIBRARY, LoadKind
from fortis.core.loading.kit import Bar, Kit, Machine, read_plates
from fortis.core.loading.moved import body_part, strength_kg
from fortis.core.performance import LoadSource, PerformedBout, asked_of
from fortis.core.remembered import read_remembered
from fortis.core.season.writing import write_season
from fortis.core.structure.notation import read
from fortis.core.structure.prescription import PlannedBout, Position, Prescription
from fortis.core.structure.timeline import Step, timeline
from fortis.core.tally.week import monday_of
from fortis.core.units import Unit
from fortis.demo import before
from fortis.demo.advised import Advised
from fortis.demo.lifter import SimulatedLifter
from fortis.demo.season import season, weekday_of
from fortis.store import lifter, places, planning, recording, remembered, seasons, sessions
from fortis.store.database import Database, open_database, writing
from fortis.store.recording import Provenance
from fortis.store.tables import SeasonRow, SessionRow

DEVICE = "demo"
SEED = 1987
WEEKS = 12
LIGHT_WEEK = 8
BAD_DAY = (6, "Legs")
"""Week and session of a night without sleep: reps are missed."""

BOATHOUSE = Kit(
    place="The boathouse",
    bars=(
        Bar(name="20 kg bar", kind=LoadKind.BAR, kg=Decimal(20)),
        Bar(name="25 kg trap bar", kind=LoadKind.TRAP_BAR, kg=Decimal(25)),
    ),
    plates=read_plates("2x25 1x20 1x10 1x5 1x2.5"),
    dumbbells=tuple(Decimal(kg) for kg in ("10", "12.5", "15", "17.5", "20", "22.5", "25")),
    machines=(Machine(name="The cable tower", most_kg=Decimal(80)),),
)

MAXES = {
    "Bench press": 94.0,
    "Ring dip": 118.0,
    "Ring row": 66.0,
    "Overhead press": 58.0,
    "Trap-bar deadlift": 176.0,
    "Weighted chin-up": 114.0,
    "Seal row": 84.0,
    "Front squat": 116.0,
    "Split squat": 33.0,
    "Leg extension": 68.0,
}
"""True maxes at the start, in kg of the weight moved (one dumbbell, where it is dumbbells)."""

WEEKLY_GAIN = 0.006
"""What a week adds to every max, as a share of it."""
SESSIONS = (("Press and row", 0), ("Pull", 2), ("Legs", 4))
"""The sessions of a week, and how many days after that of today."""
PRESS = """# Press and row
Bench press: 4 x 5 at 75 kg leave 2 rest 3:00
pair, 3 rounds, rest 1:30:
  Ring dip: 6-8 at bw+5 kg leave 2
  Ring row: 8-10 leave 1
Overhead press: 3 x 6-8 at 40 kg leave 2 rest 2:00
"""
PULL = """# Pull
Trap-bar deadlift [belt, high handles]: 3 sets of (2, 2, 2) at {deadlift} leave 1 within 10s rest 4:00
Weighted chin-up: 4 x 3 at bw+20 kg leave 1 rest 3:00
Seal row: 2 sets of (3, 4, 5, 6, 7) at {row} within 15s rest 2:30
"""
LEGS = """# Legs
prep: hip drills 4 min, ankle rocks 2 min, squats with the empty bar
Front squat [belt]: 4 sets of (1 at {single}, 25s, 3 at {triple}) rest 3:00
Split squat: 3 x 8-10 at 20 kg each side leave 1 tempo 3-1-1-0 rest 1:30
Leg extension: 1 set of (12 at 45 kg to failure, drop 20% to failure, drop 20% to failure)
"""
LIGHT = {
    "Press and row": """# Press and row, light
Bench press: 2 x 5 at 60 kg leave 4 rest 2:00
pair, 2 rounds, rest 1:30:
  Ring dip: 6 at bw leave 4
  Ring row: 8 leave 4
""",
    "Pull": """# Pull, light
Trap-bar deadlift [belt, high handles]: 2 x 3 at 70% leave 4 rest 2:00
Seal row: 2 x 8 at 50% leave 4 rest 2:00
""",
    "Legs": """# Legs, light
Front squat [belt]: 2 x 3 at 65% leave 4 rest 2:00
Leg extension: 2 x 10 at 35 kg leave 4 rest 1:30
""",
}


class _Planned(NamedTuple):
    """A session of the demo: how many days from today, in which week (from 1), its title and text."""

    day: int
    week: int
    title: str
    written: str


def make_demo(path: Path, now: datetime | None = None, *, year: bool = False) -> int:
    """Write the demo into a new database at `path`. Returns how many sessions were done; the next is due today.

    It is twelve weeks, or a `year` with two seasons before them.
    """
    moment = now or datetime.now(UTC)
    making = path.with_name(path.name + ".making")
    making.unlink(missing_ok=True)
    database = open_database(making)
    with writing(database).begin() as work:
        places.save_kit(work, BOATHOUSE)
        zone = ZoneInfo(lifter.lifter(work).zone)
    simulated = SimulatedLifter(dict(MAXES), Random(SEED))
    today = moment.astimezone(zone).date()
    done = _play_year(database, simulated, today, zone) if year else 0
    plans = list(_plans())
    past = [planned for planned in plans if planned.day < 0]
    for number, planned in enumerate(past):
        on = today + timedelta(days=planned.day)
        with writing(database).begin() as work:
            row = sessions.save_plan(work, str(UUID(int=SEED << 64 | number)), planned.written, Unit.KG, on)
            if planned.title == "Press and row":
                lifter.save_body_weight(work, on, Decimal("81.5") + Decimal(planned.week) / 10)
            _play(work, row, simulated, planned.week, _evening(on, zone))
        if planned.title == "Legs":
            simulated.gain(WEEKLY_GAIN)
    ahead = {planned.title: (planned.day, _lines(planned.written)) for planned in plans if planned.day >= 0}
    with writing(database).begin() as work:
        text = write_season(season(today, ahead))
        seasons.save(work, str(UUID(int=SEED)), text, Unit.KG, today, moment)
    with database.kw["bind"].connect() as connection:
        connection.exec_driver_sql("PRAGMA wal_checkpoint(TRUNCATE)")
    database.kw["bind"].dispose()
    making.replace(path)
    return done + len(past)


def _play_year(database: Database, simulated: SimulatedLifter, today: date, zone: ZoneInfo) -> int:
    """Play the seasons before the twelve weeks. Returns how many sessions were done."""
    simulated.gain((1 + before.WEEKLY_GAIN) ** -before.WEEKS - 1)
    days = {title: weekday_of(today + timedelta(days=after)) for title, after in SESSIONS}
    starts = monday_of(today) - timedelta(weeks=WEEKS + before.WEEKS)
    with writing(database).begin() as work:
        lifter.save_body_weight(work, starts, Decimal("79.5"))
        for number, (exercise, setup, written) in enumerate(before.REMEMBERED):
            told = read_remembered(written, LIBRARY.find(exercise), setup, Unit.KG)
            remembered.save(work, str(UUID(int=SEED << 32 | number)), told, _evening(starts - A_DAY, zone))
    planned = done = 0
    for number, season_ in enumerate(before.seasons_behind(starts, days), start=1):
        season_id = str(UUID(int=SEED + number))
        with writing(database).begin() as work:
            begins = _evening(season_.starts - A_DAY, zone)
            seasons.save(work, season_id, write_season(season_), Unit.KG, season_.starts, begins)
            ids = sorted((row.planned_on, row.id) for row in seasons.of_season(work, season_id).values())
        for on, session_id in ids:
            planned += 1
            if on is None or planned in before.MISSED:
                continue
            with writing(database).begin() as work:
                row = sessions.get(work, session_id)
                if row.title == "Press and row":
                    lifter.save_body_weight(work, on, Decimal("79.5") + Decimal(planned // 3) / 20)
                _play(work, row, simulated, planned // 3 - before.WEEKS, _evening(on, zone))
            done += 1
            if row.title == "Legs":
                simulated.gain(before.WEEKLY_GAIN)
        with writing(database).begin() as work:
            seasons.end(work, work.get_one(SeasonRow, season_id), _evening(ids[-1][0] or today, zone) + A_DAY)
    return done


A_DAY = timedelta(days=1)


def _evening(on: date, zone: ZoneInfo) -> datetime:
    """When the lifter trains on a day."""
    return datetime.combine(on, time(18, 5), zone).astimezone(UTC)


def _plans() -> Iterator[_Planned]:
    """Three sessions a week; the week under way has all three still to come, the first of them today."""
    for week in range(1, WEEKS + 2):
        for title, day in SESSIONS:
            light = week == LIGHT_WEEK
            written = LIGHT[title] if light else _text(title, week)
            yield _Planned((week - WEEKS - 1) * 7 + day, week, title, written)


def _lines(written: str) -> str:
    """A session's text without its title."""
    return written.split("\n", 1)[1]


def _text(title: str, week: int) -> str:
    """The plan of a week: by weight until the maxes are known, by percentage after."""
    known = week > 2
    match title:
        case "Press and row":
            return PRESS
        case "Pull":
            return PULL.format(deadlift="82%" if known else "145 kg", row="12RM" if known else "55 kg")
    return LEGS.format(single="88% up 2%" if known else "100 kg", triple="72%" if known else "80 kg")


def _play(work: UnitOfWork, row: SessionRow, simulated: SimulatedLifter, week: int, begins: datetime) -> None:
    row.zone = lifter.lifter(work).zone
    row.place_id = places.current_place(work).id
    carried = planning.carried_to(
        planning.slot_of(work, row.slot, begins),
        read(row.written, Unit.KG),
        partial(planning.carries_of, work),
    )
    basis = planning.basis(work, begins)
    prescription = planning.settled(row, basis, carried)
    sessions.start(row, prescription, BOATHOUSE, begins)
    body_kg = lifter.body_kg(work, begins.date())
    tired = (week, row.title) == BAD_DAY
    simulated.wake_up(0.93 if tired else simulated.random.gauss(1.0, 0.008))
    advised = Advised(prescription, BOATHOUSE, body_kg, basis.estimates)
    clock = begins + timedelta(seconds=sum(each.takes for each in prescription.prep))
    for step in timeline(prescription).steps:
        seconds = step.seconds * (
            simulated.random.uniform(1.0, 1.25) if step.kind != "rest" or not step.short else 1
        )
        began, clock = clock, clock + timedelta(seconds=seconds)
        if step.kind != "work":
            simulated.rest(seconds)
        elif asked := advised.bout(_position(step)):
            bout = _bout(step, simulated, body_kg, asked)
            recording.record(work, row.id, bout, Provenance(at=clock, done_at=clock, began_at=began, device=DEVICE))
            advised.done(bout)
    prepared = _prepared(prescription, week)
    sessions.adjust(row, advised.adjustments.model_copy(update={"prepared": prepared}))
    ended = clock + timedelta(minutes=1)
    sessions.finish(row, ended, ended)


def _prepared(prescription: Prescription, week: int) -> tuple[int, ...]:
    """The preparation done, by number: the second of it is left out every other week."""
    return tuple(number for number, _ in enumerate(prescription.prep, start=1) if number != 2 or week % 2)


def _position(step: Step) -> Position:
    return Position(group=step.group, round=step.round, entry=step.entry, set=step.set, bout=step.bout)


def _bout(step: Step, simulated: SimulatedLifter, body_kg: Decimal | None, asked: PlannedBout) -> PerformedBout:
    kg = asked.settled.kg if asked.settled else None
    lift = LIBRARY.find(step.exercise)
    body = lift.load_kind is LoadKind.BODY
    moved = strength_kg(kg, body_part(lift, body, body_kg))
    assert moved is not None, step
    went = simulated.perform(step, float(moved))
    return PerformedBout(
        position=_position(step),
        exercise=step.exercise,
        lift_id=lift.id,
        setup=step.setup,
        side=step.side,
        kg=kg,
        body=body,
        reps=went.reps,
        reserve=Decimal(went.reserve),
        or_more=went.or_more,
        ended=went.ended,
        asked=asked_of(asked),
        source=LoadSource.ADVICE if asked.settled and asked.settled.advised else LoadSource.PLAN,
    )
