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
from fortis.core.tally.went import LiftWent, SessionWent
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
    learned,
    one_set,
    spells_of,
    to_step,
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
USUAL = ((1.0, SETS),) * len(DAYS)
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
    """What training has built in one lift, and what is on the bar."""

    def __init__(self, lifter: MadeUpLifter) -> None:
        self.lifter, self.base = lifter, lifter.max_kg
        self.built = 0.0
        usual = SETS * 2 * exp(-3.5 / FADES)
        self.adds = HOLDS * (1 - exp(-7 / FADES)) / usual
        self.tested = lifter.max_kg
        self.next_kg: float | None = None
        self.missed_before = False

    def rest(self, days: float) -> None:
        self.built *= exp(-days / FADES)

    def train(self, left: float) -> None:
        """One set with so many left: the nearer to the end, the more it builds, ever less (common practice)."""
        self.built += self.adds * max(1.15 - 0.08 * left, 0.4)
        self.lifter.max_kg = self.base * (1 + self.built)

    def usual(self, way: Way, known: Estimate | None) -> float:
        """The load that a way has for the usual sets; Fortis solves it through all of them."""
        if way is Way.FORTIS:
            share = share_for(_sets, known.curve) if known else None
            return known.kg * share if known and share else self.lifter.max_kg * SHARE
        by_share = self.tested * SHARE
        return by_share if way is Way.SHARES or self.next_kg is None else self.next_kg

    def add(self, kg: float, lefts: Sequence[float]) -> None:
        """The load of the next time, 2.5 kg more: a tenth less after a session that missed reps twice."""
        missed = any(left < 0 for left in lefts)
        again = missed and self.missed_before
        self.missed_before = missed and not again
        self.next_kg = kg * STEPS_BACK if again else kg if missed else kg + STEP_KG


def _sets(share: float) -> list[Asked]:
    return [Asked(share, REPS, REST, LEFT)] * SETS


def _tires(left: float) -> float:
    """What a set leaves of tiredness beside one with two left: to the very end half as much again."""
    return max(1.5 - 0.25 * left, 0.5)


def year_by(seed: int, way: Way) -> Year:
    """A year of training with loads chosen one way."""
    training = _Training(seed, way)
    each = training.trainee
    bad = spells_of(each.random, BAD_SPELLS)
    training.test()
    light, sets, missed, tired = False, 0, 0, 0
    for week in range(WEEKS):
        if week and week % RETESTED_EVERY == 0:
            training.test()
        training.times = SPELL_TIMES if week in bad else 1.0
        lefts = training.week(week, [(LIGHT_WEEK_LOAD, SETS // 2)] * len(DAYS) if light else USUAL)
        sets, missed = sets + len(lefts), missed + sum(left < 0 for left in lefts)
        tired += each.tiring.amount > DUE
        sunday = BEGINS + timedelta(weeks=week, days=6)
        due = way is Way.FORTIS and watched(each.sessions, easy_weeks(each.sessions, sunday), sunday).is_due
        light = due and not light
    return Year(fmean(body.built for body in training.bodies.values()), sets, missed, tired)


def day_of(seed: int, *, peaked: bool, weeks: int = 12) -> float:
    """What is lifted two days after some weeks of training by Fortis, as a share of the max when fresh.

    Training goes on as it was until then, or eases off in the last week.
    """
    training = _Training(seed, Way.FORTIS)
    for week in range(weeks):
        training.week(week, PEAK if peaked and week == weeks - 1 else USUAL)
    return 1 - training.trainee.tiring.amount


class _Training:
    """A lifter who trains with loads chosen one way; tiredness builds and stays so many `times` as much."""

    def __init__(self, seed: int, way: Way) -> None:
        self.trainee, self.way, self.times = trainee(seed), way, 1.0
        self.bodies = {exercise: _Body(lifter) for exercise, lifter in self.trainee.lifts.items()}

    def test(self) -> None:
        """Test the maxes, tired as the lifter is, and as far as a test is true."""
        fresh = 1 - self.trainee.tiring.amount
        for body in self.bodies.values():
            body.tested = body.lifter.max_kg * fresh * exp(self.trainee.random.gauss(0, 0.02))

    def week(self, number: int, plan: Sequence[tuple[float, int]]) -> list[float]:
        """Train for a week by shares of the usual load and sets, session by session.

        Returns the reps left after every set, below none where a rep was missed.
        """
        lefts: list[float] = []
        at = 0
        for (day, exercises), (share, sets) in zip(DAYS.items(), plan, strict=True):
            self._rest(day - at)
            at = day
            lefts += self._session(BEGINS + timedelta(weeks=number, days=day), exercises, share, sets)
        self._rest(7 - at)
        return lefts

    def _rest(self, days: float) -> None:
        self.trainee.tiring.fade(days, self.times)
        for body in self.bodies.values():
            body.rest(days)

    def _session(self, day: date, exercises: Sequence[str], share: float, sets: int) -> list[float]:
        began, lefts, lifts = datetime.combine(day, time(18), UTC), [], []
        for exercise in exercises:
            of_lift, lift_went = self._lift(exercise, began, share, sets)
            lefts += of_lift
            lifts.append(lift_went)
        self.trainee.sessions.append(SessionWent(day, tuple(lifts)))
        return lefts

    def _lift(self, exercise: str, began: datetime, share: float, sets: int) -> tuple[list[float], LiftWent]:
        each, body, lift = self.trainee, self.bodies[exercise], LIBRARY.find(exercise)
        lifter, tiring = body.lifter, each.tiring
        lifter.wake_up()
        lifter.form *= 1 - tiring.amount
        known = each.known.max_of(lift_key(lift, SetUp()), began)
        kg = to_step(body.usual(self.way, known) * share)
        done, lefts = [], []
        for number in range(1, sets + 1):
            done.append(one_set(each, lifter, exercise, kg, number, began))
            lefts.append(_left(lifter, kg, done[-1].bout))
        if share == 1.0:
            body.add(kg, lefts)
        for left in lefts:
            body.train(max(left, 0.0))
            tiring.amount += self.times * tiring.stress / (2 * SETS) * _tires(max(left, 0.0))
        each.known, lift_went = learned(each.known, lift, began, done, known)
        return lefts, lift_went


def _left(lifter: MadeUpLifter, kg: float, bout: PerformedBout) -> float:
    """The reps truly left after a set; one short of none where it was not finished."""
    return -1.0 if bout.reps < REPS else max(lifter.left(kg), 0.0)
