"""A year of a made-up lifter who grows stronger and tired by the same sets, with loads chosen in one of three ways.

Strength is what training has built less the tiredness it has left (the shape is that of Banister et al. 1975, from
memory): both follow from how hard sets were, the tiredness more steeply, and tiredness fades sooner. For some weeks
of the year the lifter recovers badly. None of it is in what Fortis judges logs by.
"""

from collections.abc import Sequence
from datetime import UTC, date, datetime, time, timedelta
from enum import StrEnum
from math import exp
from statistics import fmean
from typing import NamedTuple

from fortis.core.exercises import LIBRARY
from fortis.core.performance import PerformedBout
from fortis.core.season.easy import easy_weeks
from fortis.core.season.watch import watched
from fortis.core.strength.estimate import Estimate
from fortis.core.strength.momentary import Asked
from fortis.core.strength.solving import share_for
from fortis.core.structure.model import SetUp, lift_key
from fortis.core.tally.evidence import by_setup, evidence
from fortis.core.tally.went import SessionWent, went
from fortis.simulation.fatigue import (
    BAD_SPELLS,
    BEGINS,
    DAYS,
    DUE,
    LEFT,
    REPS,
    REST,
    SETS,
    SPELL_TIMES,
    STEP_KG,
    WEEKS,
    Trainee,
    one_set,
    spells_of,
    trainee,
)
from fortis.simulation.lifter import MadeUpLifter

FADES = 42.0
"""Days in which what training built fades to a third (Banister et al. 1975, from memory)."""
HOLDS = 0.15
"""What usual sets twice a week build in the end, as a share of the max at the beginning of the year."""
RETESTED_EVERY = 8
SHARE = 0.77
"""The share of the max that is usually planned for fives with two left (common practice)."""
STEPS_BACK = 0.9
LIGHT_WEEK_LOAD = 0.9
PEAK = ((0.9, 3), (0.9, 2), (0.8, 1))
"""The last week before a day: shares of the usual load, and the sets, session by session (common practice)."""


class Way(StrEnum):
    """How loads and light weeks are chosen."""

    FORTIS = "Fortis, light weeks by the watch"
    ADD = "2.5 kg more when all was done"
    SHARES = "a share of the tested max"


class Year(NamedTuple):
    """What came of a year: the share of the max gained, hard sets, sets that missed a rep, weeks too tired."""

    gained: float
    sets: int
    missed: int
    tired_weeks: int


class _Body:
    """What training has built and left in one lift."""

    def __init__(self, lifter: MadeUpLifter) -> None:
        self.lifter, self.base = lifter, lifter.max_kg
        self.built = 0.0
        usual = SETS * 2 * exp(-3.5 / FADES)
        self.adds = HOLDS * (1 - exp(-7 / FADES)) / usual

    def rest(self, days: float) -> None:
        self.built *= exp(-days / FADES)

    def train(self, left: float) -> None:
        """One set with so many left: the nearer to the end, the more it builds, ever less (common practice)."""
        self.built += self.adds * max(1.15 - 0.08 * left, 0.4)
        self.lifter.max_kg = self.base * (1 + self.built)


def _tires(left: float) -> float:
    """What a set leaves of tiredness beside one with two left: to the very end half as much again."""
    return max(1.5 - 0.25 * left, 0.5)


def year_by(seed: int, way: Way) -> Year:
    """A year of training with loads chosen one way."""
    each, bodies = _lifter(seed)
    bad = spells_of(each.random, BAD_SPELLS)
    tested = _test(each)
    light, sets, missed, tired = False, 0, 0, 0
    for week in range(WEEKS):
        if week and week % RETESTED_EVERY == 0:
            tested = _test(each)
        monday = BEGINS + timedelta(weeks=week)
        times = SPELL_TIMES if week in bad else 1.0
        lefts = _week(each, bodies, monday, way, tested, light=light, times=times)
        sets, missed = sets + len(lefts), missed + sum(left < 0 for left in lefts)
        tired += each.tiring.amount > DUE
        sunday = monday + timedelta(days=6)
        due = way is Way.FORTIS and watched(each.sessions, easy_weeks(each.sessions, sunday), sunday).is_due
        light = due and not light
    return Year(fmean(body.built for body in bodies.values()), sets, missed, tired)


def day_of(seed: int, *, peaked: bool, weeks: int = 12) -> float:
    """What is lifted two days after some weeks of training by Fortis, as a share of the max when fresh.

    Training goes on as it was until then, or eases off in the last week.
    """
    each, bodies = _lifter(seed)
    for week in range(weeks):
        last = week == weeks - 1
        _week(
            each,
            bodies,
            BEGINS + timedelta(weeks=week),
            Way.FORTIS,
            {},
            light=False,
            easing=PEAK if peaked and last else None,
        )
    return 1 - each.tiring.amount


def _lifter(seed: int) -> tuple[Trainee, dict[str, _Body]]:
    each = trainee(seed)
    return each, {exercise: _Body(lifter) for exercise, lifter in each.lifts.items()}


def _test(each: Trainee) -> dict[str, float]:
    """Maxes as they are tested: tired as the lifter is, and true as far as a test is."""
    fresh = 1 - each.tiring.amount
    return {
        exercise: lifter.max_kg * fresh * exp(each.random.gauss(0, 0.02)) for exercise, lifter in each.lifts.items()
    }


def _week(
    each: Trainee,
    bodies: dict[str, _Body],
    monday: date,
    way: Way,
    tested: dict[str, float],
    *,
    light: bool,
    times: float = 1.0,
    easing: Sequence[tuple[float, int]] | None = None,
) -> list[float]:
    """Train for a week; the reps left after every set, below none where a rep was missed."""
    lefts: list[float] = []
    at = 0
    for number, (day, exercises) in enumerate(DAYS.items()):
        _rest(each, bodies, day - at, times)
        at = day
        share, sets = easing[number] if easing else (LIGHT_WEEK_LOAD, SETS // 2) if light else (1.0, SETS)
        lefts += _session(each, bodies, monday + timedelta(days=day), exercises, way, tested, share, sets, times)
    _rest(each, bodies, 7 - at, times)
    return lefts


def _rest(each: Trainee, bodies: dict[str, _Body], days: float, times: float) -> None:
    each.tiring.fade(days, times)
    for body in bodies.values():
        body.rest(days)


def _session(
    each: Trainee,
    bodies: dict[str, _Body],
    day: date,
    exercises: Sequence[str],
    way: Way,
    tested: dict[str, float],
    share: float,
    sets: int,
    times: float,
) -> list[float]:
    began = datetime.combine(day, time(18), UTC)
    lefts: list[float] = []
    lifts = []
    for exercise in exercises:
        lift, lifter = LIBRARY.find(exercise), each.lifts[exercise]
        lifter.wake_up()
        lifter.form *= 1 - each.tiring.amount
        known = each.known.max_of(lift_key(lift, SetUp()), began)
        usual = _usual(each, exercise, way, tested, known)
        kg = max(round(usual * share / STEP_KG) * STEP_KG, STEP_KG)
        done, of_lift = [], []
        for number in range(1, sets + 1):
            done.append(one_set(each, lifter, exercise, kg, number, began))
            of_lift.append(_left(lifter, kg, done[-1].bout))
        each.last_kg[exercise] = _next(each, exercise, kg, way, of_lift) if share == 1.0 else usual
        for left in of_lift:
            bodies[exercise].train(max(left, 0.0))
            each.tiring.amount += times * each.tiring.stress / (2 * SETS) * _tires(max(left, 0.0))
        lefts += of_lift
        ((key, rested),) = by_setup(done, lift)
        heard = evidence(rested, lift, None)
        each.known, foretold = each.known.learn(key, began, [bout for bout in heard if bout], lift.prime)
        told = list(zip((bout.bout for bout in rested), heard, strict=True))
        lifts.append(went(key, exercise, told, foretold, known))
    each.sessions.append(SessionWent(day, tuple(lifts)))
    return lefts


def _usual(each: Trainee, exercise: str, way: Way, tested: dict[str, float], known: Estimate | None) -> float:
    """The load that a way has for the usual sets; Fortis solves it through all of them."""
    match way:
        case Way.FORTIS:
            share = share_for(_sets, known.curve) if known else None
            return known.kg * share if known and share else each.lifts[exercise].max_kg * SHARE
        case Way.SHARES:
            return tested[exercise] * SHARE
    return each.last_kg.get(exercise, tested[exercise] * SHARE)


def _sets(share: float) -> list[Asked]:
    return [Asked(share, REPS, REST, LEFT)] * SETS


def _next(each: Trainee, exercise: str, kg: float, way: Way, lefts: Sequence[float]) -> float:
    """The load of the next time where 2.5 kg are added: a tenth down after a session that missed reps twice."""
    if way is not Way.ADD:
        return kg
    missed = any(left < 0 for left in lefts)
    again = missed and each.missed_before.get(exercise, False)
    each.missed_before[exercise] = missed and not again
    return kg * STEPS_BACK if again else kg if missed else kg + STEP_KG


def _left(lifter: MadeUpLifter, kg: float, bout: PerformedBout) -> float:
    """The reps truly left after a set; one short of none where it was not finished."""
    return -1.0 if bout.reps < REPS else max(lifter.left(kg), 0.0)
