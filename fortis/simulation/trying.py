"""A trial of a made-up lifter: a method that adds so much to the strength of a session, in weeks drawn by lot.

How good the day is, how the reps left are called and how strength grows are the lifter's own.
"""

from collections.abc import Iterable, Iterator, Sequence
from datetime import UTC, date, datetime, time, timedelta
from math import exp
from random import Random
from typing import NamedTuple

from fortis.core.exercises import LIBRARY
from fortis.core.season.model import Method, Trial
from fortis.core.season.trial import Outcome, draw, outcome, readings
from fortis.core.strength.estimate import Estimate
from fortis.core.strength.observation import Heard
from fortis.core.strength.tracker import Profile
from fortis.core.structure.model import SetUp, lift_key
from fortis.core.tally.evidence import by_setup, evidence
from fortis.simulation.fatigue import BEGINS, LEFT, REPS, SETS, to_step, told_set
from fortis.simulation.lifter import CURVES, RECOVERIES, MadeUpLifter, made_up

WEEKS_BEFORE = 8
"""Weeks of training from which the lifter is known when the trial begins."""
DAYS = (0, 3)
LIFT = LIBRARY.find("Back squat")
KEY = lift_key(LIFT, SetUp())


class Way(NamedTuple):
    """What a trial changes: the sets of each week of its rounds, each of so many reps at a share of the max.

    Without any they are as usual, and loaded so that the usual reps are left.
    """

    name: str
    rounds: tuple[tuple[tuple[int, float], ...], ...] = ()

    @property
    def sets(self) -> str:
        """Its weeks in the notation of a trial, as far as they say how long a round is."""
        return "|".join(str(week[0][0]) for week in self.rounds)


SAME = Way("longer rests")
FEWER = Way("5 x 3 for 4 x 5", (((3, 0.0),) * 5,))
WAVES = Way(
    "waves",
    tuple(((reps, share), (3, share * 0.9), (3, share * 0.9)) for reps, share in ((3, 0.87), (2, 0.91), (1, 0.94))),
)


def trial_of(seed: int, effect: float, weeks: int = 8, way: Way = SAME) -> Outcome:
    """What a trial tells after so many weeks of a method that adds `effect` to strength, as a share."""
    random = Random(f"trying {seed}")
    lifter = made_up(
        random,
        140.0 * random.uniform(0.6, 1.4),
        random.choice(list(CURVES)),
        random.choice(list(RECOVERIES)),
    )
    gain = random.choice([0.0, 0.001, 0.003])
    begins = BEGINS + timedelta(weeks=WEEKS_BEFORE)
    length = max(len(way.rounds), 1)
    trial = Trial(
        monday=begins,
        weeks=weeks,
        tried=draw(range(1, weeks + 1), random, length),
        exercise=LIFT.name,
        method=None if way.rounds else Method.LONGER,
        sets=way.sets,
    )
    known, done = Profile(), []
    for day in _days(WEEKS_BEFORE + weeks):
        began = datetime.combine(day, time(18), UTC)
        max_ = known.max_of(KEY, began)
        lifter.wake_up()
        lifter.form *= 1 + (effect if trial.is_tried(day) else 0.0)
        sets: Sequence[tuple[int, float]] = ((REPS, 0.0),) * SETS
        if way.rounds and trial.is_tried(day):
            sets = way.rounds[trial.tried.index(trial.number_of(day)) % length]
        heard = _session(lifter, _loads(sets, max_, lifter, random), began)
        known, _ = known.learn(KEY, began, [bout for bout in heard if bout], LIFT.prime)
        done.append((day, heard))
        lifter.max_kg *= exp(gain + random.gauss(0, 0.002))
    ended = datetime.combine(trial.last, time(23), UTC)
    last = known.max_of(KEY, ended)
    assert last
    read = readings(done, last, known.max_by_kind(KEY, ended))
    return outcome(trial, read, (), trial.last + timedelta(days=1))


def _days(weeks: int) -> Iterator[date]:
    for week in range(weeks):
        for day in DAYS:
            yield BEGINS + timedelta(weeks=week, days=day)


def _loads(
    sets: Iterable[tuple[int, float]], max_: Estimate | None, lifter: MadeUpLifter, random: Random
) -> Iterator[tuple[int, float]]:
    """The sets with their loads in kg: shares of the max where it is known, else by how much they leave."""
    begins_at = 0.0 if max_ else lifter.max_kg * random.uniform(0.7, 0.78)
    for reps, share in sets:
        wanted = max_.kg * (share or max_.curve.share(reps + LEFT)) if max_ else begins_at
        yield reps, to_step(wanted)


def _session(lifter: MadeUpLifter, sets: Iterable[tuple[int, float]], began: datetime) -> list[Heard | None]:
    """The sets of a session as the model hears them."""
    done = [told_set(lifter, LIFT.name, kg, number, began, reps) for number, (reps, kg) in enumerate(sets, 1)]
    ((_, rested),) = by_setup(done, LIFT)
    return list(evidence(rested, LIFT, None))
