"""A year of a made-up lifter who tires over weeks, to see when the watch says that a light week is due.

Fatigue is the gap that training leaves: every session adds to it, and it fades by the day (the shape is that of
Banister et al. 1975, from memory). For some weeks of the year the lifter recovers badly, and it builds up. None of
that is in what Fortis judges logs by.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from datetime import UTC, date, datetime, time, timedelta
from decimal import Decimal
from math import exp
from random import Random
from typing import NamedTuple

from fortis.core.exercises import LIBRARY, Exercise
from fortis.core.performance import Asked, Ended, PerformedBout
from fortis.core.season.easy import easy_weeks
from fortis.core.season.watch import Watch, watched
from fortis.core.strength.estimate import Estimate
from fortis.core.strength.tracker import Profile
from fortis.core.structure.model import FixedReps, Leave, lift_key
from fortis.core.structure.prescription import Position
from fortis.core.tally.evidence import Timed, by_setup, evidence
from fortis.core.tally.went import LiftWent, SessionWent, went
from fortis.simulation.lifter import CURVES, RECOVERIES, MadeUpLifter, made_up

BEGINS = date(2025, 1, 6)
WEEKS = 52
DAYS = {0: ("Back squat", "Bench press"), 2: ("Deadlift", "Overhead press"), 4: ("Back squat", "Bench press")}
MAXES = {"Back squat": 140.0, "Bench press": 100.0, "Deadlift": 170.0, "Overhead press": 62.5}
SETS, REPS, LEFT, REST = 4, 5, 2, 180
STEP_KG = 2.5
BAD_SPELLS, SPELL_WEEKS = 4, 4
"""How often a year the lifter recovers badly, and for how many weeks."""
SPELL_TIMES = 2.0
"""How many times as much a session then adds, and how many times as long it takes to fade."""
DUE = 0.04
"""Strength that fatigue takes, as a share of the max, from which a light week is called for."""
FRESH = 0.025
"""Below this nobody needs one."""
LIGHT_STRESS = 0.35
"""What a session of a light week adds, beside a usual one."""


class WeekSeen(NamedTuple):
    """A week of the year: what fatigue took at its end, what the watch showed, whether it was trained light."""

    fatigue: float
    watch: Watch
    light: bool


@dataclass
class Tiring:
    """The fatigue of a lifter: what a session adds, and the days in which it fades to a third."""

    stress: float
    days: float
    amount: float = 0.0

    def fade(self, days: float, times: float) -> None:
        """Let days go by; recovering badly it takes so many times as long."""
        self.amount *= exp(-days / (self.days * times))


@dataclass
class Trainee:
    """A made-up lifter, what Fortis has learned of them, and how their sessions went."""

    random: Random
    lifts: dict[str, MadeUpLifter]
    tiring: Tiring
    stubborn: bool
    tells: bool
    known: Profile = field(default_factory=Profile)
    last_kg: dict[str, float] = field(default_factory=dict)
    sessions: list[SessionWent] = field(default_factory=list)


def trainee(seed: int) -> Trainee:
    """A lifter, the same for the same seed. A stubborn one never takes less weight than the last time."""
    random = Random(f"tiring {seed}")
    curve, recovery = random.choice(list(CURVES)), random.choice(list(RECOVERIES))
    lifts = {
        exercise: made_up(random, usual * random.uniform(0.6, 1.4), curve, recovery)
        for exercise, usual in MAXES.items()
    }
    days = random.uniform(8, 16)
    usual_fatigue = random.uniform(0.012, 0.024)
    stress = usual_fatigue * 7 / len(DAYS) / days
    return Trainee(random, lifts, Tiring(stress, days), random.random() < 0.5, random.random() < 0.5)


def year(seed: int, *, follows: bool = False, spells: int = BAD_SPELLS) -> Iterator[WeekSeen]:
    """Train for a year; with `follows` the week after the watch says so is light."""
    each = trainee(seed)
    bad = spells_of(each.random, spells)
    gain = each.random.choice([0.0, 0.001, 0.002])
    light = False
    for week in range(WEEKS):
        monday = BEGINS + timedelta(weeks=week)
        times = SPELL_TIMES if week in bad else 1.0
        at = 0
        for day, exercises in DAYS.items():
            each.tiring.fade(day - at, times)
            at = day
            _train(
                each, monday + timedelta(days=day), exercises, times * (LIGHT_STRESS if light else 1.0), light=light
            )
        each.tiring.fade(7 - at, times)
        for lifter in each.lifts.values():
            lifter.max_kg *= exp(gain + each.random.gauss(0, 0.002))
        sunday = monday + timedelta(days=6)
        watch = watched(each.sessions, easy_weeks(each.sessions, sunday), sunday)
        yield WeekSeen(each.tiring.amount, watch, light)
        light = follows and watch.is_due and not light


def spells_of(random: Random, many: int) -> set[int]:
    """The weeks of a year in which a lifter recovers badly."""
    starts = range(8, WEEKS - SPELL_WEEKS, max((WEEKS - 8) // many, 1)) if many else range(0)
    return {start + random.randrange(3) + week for start in starts for week in range(SPELL_WEEKS)}


def _train(each: Trainee, day: date, exercises: Sequence[str], stress: float, *, light: bool) -> None:
    random, tiring = each.random, each.tiring
    began = datetime.combine(day, time(18), UTC)
    lifts = []
    known = each.known
    for exercise in exercises:
        lift, lifter = LIBRARY.find(exercise), each.lifts[exercise]
        key = lift_key(lift, PerformedBout(position=_at(1), exercise=exercise).setup)
        max_ = each.known.max_of(key, began)
        lifter.wake_up()
        lifter.form *= 1 - tiring.amount
        kg = _load(each, exercise, max_.kg * max_.curve.share(REPS + LEFT) if max_ else 0.0, light=light)
        done = [
            one_set(each, lifter, exercise, kg, number, began) for number in range(1, 1 + (2 if light else SETS))
        ]
        known, lift_went = learned(known, lift, began, done, max_)
        lifts.append(lift_went)
    each.known = known
    feels = 3.6 - 14 * tiring.amount + random.gauss(0, 0.6)
    readiness = min(max(feels, 1.0), 5.0) if each.tells else None
    each.sessions.append(SessionWent(day, tuple(lifts), readiness))
    tiring.amount += tiring.stress * stress


def learned(
    known: Profile, lift: Exercise, began: datetime, done: Sequence[Timed], max_: Estimate | None
) -> tuple[Profile, LiftWent]:
    """What is known after the sets of a lift, and how it went beside the max that was known before."""
    ((key, rested),) = by_setup(done, lift)
    heard = evidence(rested, lift, None)
    after, foretold = known.learn(key, began, [bout for bout in heard if bout], lift.prime)
    told = list(zip((bout.bout for bout in rested), heard, strict=True))
    return after, went(key, lift.name, told, foretold, max_)


def to_step(kg: float) -> float:
    """The load nearest to one that plates make; the least there is at least."""
    return max(round(kg / STEP_KG) * STEP_KG, STEP_KG)


def _load(each: Trainee, exercise: str, wanted: float, *, light: bool) -> float:
    kg = wanted or each.lifts[exercise].max_kg * each.random.uniform(0.7, 0.78)
    kg = to_step(kg)
    if light:
        return kg
    if each.stubborn:
        kg = max(kg, each.last_kg.get(exercise, 0.0))
    each.last_kg[exercise] = kg
    return kg


def one_set(each: Trainee, lifter: MadeUpLifter, exercise: str, kg: float, number: int, began: datetime) -> Timed:
    """One set of a trainee's session, with the pace of its reps where they tap them."""
    done = told_set(lifter, exercise, kg, number, began)
    pace = 2.5 * (1 + 2 * each.tiring.amount + each.random.gauss(0, 0.05))
    tapped = tuple(pace * (1 + rep) for rep in range(done.bout.reps)) if each.tells else ()
    return done._replace(bout=done.bout.model_copy(update={"rep_seconds": tapped}))


def told_set(
    lifter: MadeUpLifter, exercise: str, kg: float, number: int, began: datetime, asked: int = REPS
) -> Timed:
    """One set of a session, as far as the lifter can, told as they tell it."""
    lifter.rest(REST)
    reps, left = lifter.lift(kg, asked)
    stuck = reps < asked
    told = "0" if stuck else lifter.called(left)
    bout = PerformedBout(
        position=_at(number),
        exercise=exercise,
        kg=Decimal(str(kg)),
        reps=reps,
        reserve=Decimal(told.rstrip("+")),
        or_more=told.endswith("+"),
        ended=Ended.STUCK if stuck else Ended.MET,
        asked=Asked(reps=FixedReps(count=asked), kg=Decimal(str(kg)), effort=Leave(low=LEFT, high=LEFT)),
    )
    return Timed(bout, began + timedelta(seconds=number * (REST + 15)), rest=float(REST))


def _at(number: int) -> Position:
    return Position(group=1, round=1, entry=1, set=number, bout=1)
