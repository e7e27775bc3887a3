"""Trials: a method in weeks drawn by lot, the usual way in the others, and what came of it.

The answer is a difference of means with a straight line for what changes anyway, by ordinary least squares with
the bounds of Student's distribution, widened by how far a difference may be misread. As long as the trial runs it
is only told how it stands: who looks every week and stops when it looks good finds effects that are none.
"""

from collections.abc import Iterable, Sequence
from datetime import date, timedelta
from enum import StrEnum
from math import ceil, hypot
from random import Random
from statistics import fmean
from typing import NamedTuple

import numpy as np
from scipy.special import stdtrit

from fortis.core.exercises import one_form
from fortis.core.season.model import MOST_TRIED, Method, Trial
from fortis.core.structure.model import (
    Bout,
    Entry,
    FixedReps,
    Group,
    OfTop,
    Percent,
    RangeOfMotion,
    RepRange,
    Session,
    Set,
    Sets,
    Terms,
)
from fortis.core.tally.shown import BoutShown
from fortis.core.tally.week import monday_of
from fortis.core.value import Value

SINGLE = Percent(percent=90)
SINGLE_REST = 240
HEAVIER, FEW = 2, 8
"""Sets of so few reps are heavy themselves, and of more reps light work, that no single comes before."""
LONGER, SHORTER = 1.5, 2 / 3
USUAL_REST = 180
"""Seconds that are made longer or shorter where no rest is written."""
REST_STEP = 15
HALVES = 5
"""Half reps that follow the last set."""
BACK_OFF = 3
"""Reps from which a bout is one of those that the single comes before."""
BOUNDS = 0.9
"""Where a method does nothing, the bounds hold nothing in nine of ten trials."""
MISREAD = 0.3
"""A difference may be read so much too large or too small, as a share of it: how much a rep left is worth is an
estimate too."""
FEWEST = 3
"""Sessions each way from which a difference is told at all."""
MATTERS = 0.01
"""A difference of the max below this is none that matters."""


def draw(weeks: int, random: Random) -> tuple[int, ...]:
    """The weeks of a trial in which the method is tried, from 1: one of every two, by lot."""
    pairs = ([first, first + 1] for first in range(1, weeks, 2))
    return tuple(random.choice(pair) for pair in pairs)


def as_tried(session: Session, trial: Trial) -> Session:
    """A session with the lift of a trial done as it is tried."""
    groups = tuple(_group(group, trial) for group in session.groups)
    return session if groups == session.groups else session.model_copy(update={"groups": groups})


def _group(group: Group, trial: Trial) -> Group:
    entries = tuple(_tried(entry, trial) if _is_of(entry, trial) else entry for entry in group.entries)
    return group if entries == group.entries else group.model_copy(update={"entries": entries})


def _is_of(entry: Entry, trial: Trial) -> bool:
    return one_form(entry.exercise) == one_form(trial.exercise) and entry.setup.key == trial.setup.key


def _tried(entry: Entry, trial: Trial) -> Entry:
    if trial.method is None:
        return entry.model_copy(update={"sets": trial.sets})
    return with_method(entry, trial.method)


def with_method(entry: Entry, method: Method) -> Entry:
    """A lift with its usual sets changed by a method; as it is where that cannot be."""
    match method:
        case Method.SINGLE if _opens_light(entry):
            single = Bout(reps=FixedReps(count=1), terms=Terms(load=SINGLE))
            sets = (Sets(each=Set(bouts=(single,)), rest=SINGLE_REST), *entry.sets)
        case Method.LONGER:
            sets = tuple(_rested(run, LONGER) for run in entry.sets)
        case Method.SHORTER:
            sets = tuple(_rested(run, SHORTER) for run in entry.sets)
        case Method.HALVES:
            sets = (*entry.sets[:-1], *_with_halves(entry.sets[-1]))
        case _:
            sets = entry.sets
    return entry.model_copy(update={"sets": sets})


def _opens_light(entry: Entry) -> bool:
    """Whether a heavy single can come first: sets of a few reps, none hanging on the heaviest so far."""
    match entry.sets[0].each.bouts[0].reps:
        case FixedReps(count=reps) | RepRange(high=reps) if HEAVIER < reps <= FEW:
            bouts = [(run.each, bout) for run in entry.sets for bout in run.each.bouts]
            return not any(isinstance(bout.terms.over(each.terms).load, OfTop) for each, bout in bouts)
    return False


def _rested(run: Sets, times: float) -> Sets:
    if run.every or run.span:
        return run
    rest = round((run.rest or USUAL_REST) * times / REST_STEP) * REST_STEP
    return run.model_copy(update={"rest": max(rest, REST_STEP)})


def _with_halves(run: Sets) -> tuple[Sets, ...]:
    """A run of sets whose last one goes on with half reps; one of several bouts stays as it is."""
    if len(run.each.bouts) != 1 or run.span:
        return (run,)
    halves = Bout(reps=FixedReps(count=HALVES), terms=Terms(range_of_motion=RangeOfMotion.STRETCHED))
    last = Sets(each=Set(bouts=(run.each.bouts[0], halves)), rest=run.rest, every=run.every)
    return (run.model_copy(update={"count": run.count - 1}), last) if run.count > 1 else (last,)


class SessionTried(NamedTuple):
    """A session of a trial: its day, and what its bouts showed."""

    on: date
    bouts: Sequence[BoutShown]


class Verdict(StrEnum):
    """What can be said of a trial."""

    RUNNING = "it runs"
    HELPS = "it helps"
    COSTS = "it costs"
    ALIKE = "no difference that matters"
    OPEN = "cannot be told yet"


class Outcome(Value):
    """How a trial stands: the sessions each way, and the difference that the method makes, as a share of the max.

    `change` with its bounds is None where there are too few sessions. `more_weeks` are those that would about do
    where nothing can be told yet; None where nobody should wait for it.
    """

    verdict: Verdict
    tried: int
    usual: int
    change: float | None = None
    low: float | None = None
    high: float | None = None
    more_weeks: int | None = None


def outcome(trial: Trial, sessions: Iterable[SessionTried], left_out: Iterable[date], today: date) -> Outcome:
    """What a trial showed until a day, by the sessions of its lift. `left_out` are Mondays of weeks without it."""
    easy = set(left_out)
    told = [
        (each.on, trial.is_tried(each.on), level)
        for each in sessions
        if trial.is_on(each.on) and monday_of(each.on) not in easy
        if (level := _level(trial, each.bouts)) is not None
    ]
    tried = sum(by_method for _, by_method, _ in told)
    usual, is_over = len(told) - tried, today > trial.last
    if min(tried, usual) < FEWEST:
        return Outcome(verdict=Verdict.OPEN if is_over else Verdict.RUNNING, tried=tried, usual=usual)
    change, within = _difference(told, trial.monday)
    low, high = change - within, change + within
    verdict = _verdict(low, high) if is_over else Verdict.RUNNING
    return Outcome(
        verdict=verdict,
        tried=tried,
        usual=usual,
        change=change,
        low=low,
        high=high,
        more_weeks=_more_weeks(trial.weeks, change, within) if verdict is Verdict.OPEN else None,
    )


def _level(trial: Trial, bouts: Sequence[BoutShown]) -> float | None:
    """What a session showed on average; with a single first, by the sets after it, and such sets in other weeks."""
    if trial.method is Method.SINGLE:
        bouts = [each for each in bouts if each.reps >= BACK_OFF]
    return fmean(each.form for each in bouts) if bouts else None


def _difference(told: Sequence[tuple[date, bool, float]], since: date) -> tuple[float, float]:
    """The difference that the method makes, and how far off it may be on either side."""
    weeks = [(on - since) / timedelta(weeks=1) for on, _, _ in told]
    design = np.array([[1.0, week, float(tried)] for week, (_, tried, _) in zip(weeks, told, strict=True)])
    levels = np.array([level for _, _, level in told])
    found, *_ = np.linalg.lstsq(design, levels, rcond=None)
    free = len(told) - design.shape[1]
    off = levels - design @ found
    spread = float(off @ off) / free * float(np.linalg.pinv(design.T @ design)[2, 2])
    change, within = float(found[2]), float(stdtrit(free, (1 + BOUNDS) / 2)) * spread**0.5
    return change, hypot(within, MISREAD * change)


def _verdict(low: float, high: float) -> Verdict:
    if low > 0:
        return Verdict.HELPS
    if high < 0:
        return Verdict.COSTS
    return Verdict.ALIKE if low > -MATTERS and high < MATTERS else Verdict.OPEN


def _more_weeks(weeks: int, change: float, within: float) -> int | None:
    """The weeks that would about do: bounds narrow with the root of the sessions."""
    enough = max(abs(change), MATTERS)
    more = ceil(weeks * ((within / enough) ** 2 - 1) / 2) * 2
    return max(more, 2) if weeks + more <= MOST_TRIED else None
