"""A trial of a made-up lifter: a method that adds so much to the strength of a session, in weeks drawn by lot.

How good the day is, how the reps left are called and how strength grows are the lifter's own.
"""

from collections.abc import Iterator
from datetime import UTC, date, datetime, time, timedelta
from math import exp
from random import Random

from fortis.core.exercises import LIBRARY
from fortis.core.season.model import Method, Trial
from fortis.core.season.trial import Outcome, SessionTried, draw, outcome
from fortis.core.strength.observation import Heard
from fortis.core.strength.tracker import Profile
from fortis.core.structure.model import SetUp, lift_key
from fortis.core.tally.evidence import by_setup, evidence
from fortis.core.tally.shown import shown
from fortis.simulation.fatigue import BEGINS, LEFT, REPS, SETS, to_step, told_set
from fortis.simulation.lifter import CURVES, RECOVERIES, MadeUpLifter, made_up

WEEKS_BEFORE = 8
"""Weeks of training from which the lifter is known when the trial begins."""
DAYS = (0, 3)
LIFT = LIBRARY.find("Back squat")
KEY = lift_key(LIFT, SetUp())


def trial_of(seed: int, effect: float, weeks: int = 8) -> Outcome:
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
    trial = Trial(monday=begins, weeks=weeks, tried=draw(weeks, random), exercise=LIFT.name, method=Method.LONGER)
    known, done = Profile(), []
    for day in _days(WEEKS_BEFORE + weeks):
        began = datetime.combine(day, time(18), UTC)
        max_ = known.max_of(KEY, began)
        lifter.wake_up()
        lifter.form *= 1 + (effect if trial.is_tried(day) else 0.0)
        wanted = max_.kg * max_.curve.share(REPS + LEFT) if max_ else lifter.max_kg * random.uniform(0.7, 0.78)
        heard = _session(lifter, to_step(wanted), began)
        known, _ = known.learn(KEY, began, [bout for bout in heard if bout], LIFT.prime)
        done.append((day, heard))
        lifter.max_kg *= exp(gain + random.gauss(0, 0.002))
    last = known.max_of(KEY, datetime.combine(trial.last, time(23), UTC))
    assert last
    sessions = [SessionTried(day, tuple(shown(heard, last))) for day, heard in done]
    return outcome(trial, sessions, (), trial.last + timedelta(days=1))


def _days(weeks: int) -> Iterator[date]:
    for week in range(weeks):
        for day in DAYS:
            yield BEGINS + timedelta(weeks=week, days=day)


def _session(lifter: MadeUpLifter, kg: float, began: datetime) -> list[Heard | None]:
    """The sets of a session as the model hears them."""
    done = [told_set(lifter, LIFT.name, kg, number, began) for number in range(1, SETS + 1)]
    ((_, rested),) = by_setup(done, LIFT)
    return list(evidence(rested, LIFT, None))
