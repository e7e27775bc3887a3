"""Trials: a method in weeks drawn by lot, the usual way in the others, and what came of it.

The answer is a difference of means with a straight line for what changes anyway, by ordinary least squares with
the bounds of Student's distribution. How many reps a load allows this lifter, and what a call is worth, is never
quite known, and other sets than usual are read by just that: so every kind of lifter reads the sessions by itself,
and the bounds hold what the kinds read apart. As long as the trial runs it is only told how it stands: who looks
every week and stops when it looks good finds effects that are none.
"""

from collections.abc import Collection, Iterable, Iterator, Sequence
from datetime import date, timedelta
from enum import StrEnum
from itertools import groupby
from math import ceil, hypot
from random import Random
from statistics import fmean
from typing import NamedTuple

import numpy as np
from scipy.special import ndtri, stdtrit

from fortis.core.exercises import one_form
from fortis.core.season.changing import ChangeError, Week, in_week, weeks_in
from fortis.core.season.model import Method, Trial
from fortis.core.strength.estimate import Estimate
from fortis.core.strength.observation import Heard
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
from fortis.core.structure.notation import read_sets
from fortis.core.tally.shown import BoutShown, shown
from fortis.core.tally.week import DAYS, monday_of
from fortis.core.units import Unit
from fortis.core.value import Value

SINGLE = Percent(percent=90)
SINGLE_REST = 240
HEAVIER, FEW = 2, 8
"""Sets of so few reps are heavy themselves, and of more reps light work, that no single comes before."""
WAVES = "3|2|1 at 87|91|94% rest 4:00; 2 x 3 at top -10% rest 3:00"
"""Waves over three weeks, as suggested seasons have them: a triple, a double, a single, and triples after it."""
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
SURE = float(ndtri((1 + BOUNDS) / 2))
"""The bounds of a normal distribution, in standard deviations."""
MOST_LEFT = 4.0
DOUBT = 0.3
"""Kinds of lifter count by this power of how likely they are: a log leans to one of them before it can be known."""
UNLIKE = 0.2
"""What no kind of lifter has right: a difference may be off by this share of how much heavier or lighter the sets
that are tried are, in shares of the max."""
FEWEST = 3
"""Sessions each way from which a difference is told at all."""
MATTERS = 0.01
"""A difference of the max below this is none that matters."""
MOST_TRIED = 26
"""Weeks of a trial: nobody is told to go on for longer."""


def round_of(trial: Trial) -> int:
    """How many weeks follow each other in what is tried: one, where it is the same in all of them."""
    return 1 if trial.method else weeks_in(trial.sets)


def draw(trained: Iterable[int], random: Random, weeks: int = 1) -> tuple[int, ...]:
    """The weeks of a trial in which the method is tried, of those that are trained: every other round, by lot.

    A round has so many `weeks` in a row. What is left over beside them is as usual.
    """
    rounds = tuple(_rounds(trained, weeks))
    pairs = zip(rounds[::2], rounds[1::2], strict=False)
    return tuple(week for pair in pairs for week in random.choice(pair))


def _rounds(trained: Iterable[int], weeks: int) -> Iterator[Sequence[int]]:
    numbered = enumerate(sorted(trained))
    for _, run in groupby(numbered, lambda each: each[1] - each[0]):
        in_a_row = [number for _, number in run]
        for at in range(0, len(in_a_row) - weeks + 1, weeks):
            yield in_a_row[at : at + weeks]


def numbers_of(trained: Iterable[date], since: date, weeks: int) -> tuple[int, ...]:
    """Those of so many weeks from a Monday on that are trained, by number, by the Mondays of all that are."""
    numbers = ((monday - since).days // DAYS + 1 for monday in trained)
    return tuple(number for number in numbers if 1 <= number <= weeks)


def lengths(trained: Collection[int], weeks: int = 1) -> Iterator[int]:
    """The weeks that a trial can have: each the fewest for so many pairs of rounds, the shortest first."""
    for pair in range(1, len(trained) + 1):
        rounds = list(_rounds(trained, weeks))[: 2 * pair]
        if len(rounds) < 2 * pair:
            return
        yield rounds[-1][-1]


def sets_of(trial: Trial, number: int, unit: Unit) -> tuple[Sets, ...]:
    """The sets that are tried in a week that was drawn, by its number in the trial.

    Raises `ChangeError` and `NotationError` for sets that cannot be read.
    """
    at, weeks = trial.tried.index(number), round_of(trial)
    written = in_week(trial.sets, Week(at // weeks + 1, at % weeks + 1, weeks))
    if written is None:
        raise ChangeError("What is tried is for every week of its rounds: leave the weeks in front of it out.", 1)
    return read_sets(written, unit)


def as_tried(session: Session, trial: Trial, on: date, unit: Unit = Unit.KG) -> Session:
    """A session with the lift of a trial done as it is tried on a day of a week that was drawn."""
    sets = () if trial.method else sets_of(trial, trial.number_of(on), unit)
    groups = tuple(_group(group, trial, sets) for group in session.groups)
    return session if groups == session.groups else session.model_copy(update={"groups": groups})


def _group(group: Group, trial: Trial, sets: tuple[Sets, ...]) -> Group:
    entries = tuple(_tried(entry, trial, sets) if _is_of(entry, trial) else entry for entry in group.entries)
    return group if entries == group.entries else group.model_copy(update={"entries": entries})


def _is_of(entry: Entry, trial: Trial) -> bool:
    return one_form(entry.exercise) == one_form(trial.exercise) and entry.setup.key == trial.setup.key


def _tried(entry: Entry, trial: Trial, sets: tuple[Sets, ...]) -> Entry:
    return with_method(entry, trial.method) if trial.method else entry.model_copy(update={"sets": sets})


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


def with_waves(entry: Entry) -> str | None:
    """The sets of a lift in waves over weeks; None where those of a few reps are not what it is done for."""
    return WAVES if _opens_light(entry) else None


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


class Reading(NamedTuple):
    """The sessions of a trial as they are for one kind of lifter, and how likely this lifter is of that kind."""

    likely: float
    sessions: Sequence[SessionTried]


def readings(
    sessions: Iterable[tuple[date, Sequence[Heard | None]]],
    known: Estimate,
    kinds: Iterable[tuple[float, Estimate]],
) -> Sequence[Reading]:
    """The sessions of a lift as each kind of lifter has them, all beside the one max that it would have.

    Of sets that were to leave many, only those are told by a number that left less than was to be expected ("5 or
    more" is none): those that were to leave more than `MOST_LEFT`, by what is `known`, are not counted.
    """
    heard = [
        (on, bouts, {each.place for each in shown(bouts, known) if each.left <= MOST_LEFT})
        for on, bouts in sessions
    ]
    return [
        Reading(
            likely,
            [
                SessionTried(on, [each for each in shown(bouts, max_) if each.place in counted])
                for on, bouts, counted in heard
            ],
        )
        for likely, max_ in kinds
    ]


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


def outcome(trial: Trial, readings: Sequence[Reading], left_out: Iterable[date], today: date) -> Outcome:
    """What a trial showed until a day, by the sessions of its lift. `left_out` are Mondays of weeks without it."""
    easy = frozenset(left_out)
    told = [_told(trial, each.sessions, easy) for each in readings]
    tried = min((sum(session.tried for session in each) for each in told), default=0)
    usual = min((sum(not session.tried for session in each) for each in told), default=0)
    is_over = today > trial.last
    if min(tried, usual) < FEWEST:
        return stands(tried, usual, None, is_over=is_over)
    change, by_chance, between = _together(
        [each.likely for each in readings], [_difference(each, trial.monday) for each in told]
    )
    misread = SURE * hypot(between, UNLIKE * _heavier(told[0]))
    more_weeks = more(trial.weeks, change, by_chance, misread, of=2 * round_of(trial), most=MOST_TRIED)
    return stands(tried, usual, (change, hypot(by_chance, misread)), more_weeks, is_over=is_over)


def stands(
    tried: int, usual: int, found: tuple[float, float] | None, more_weeks: int | None = None, *, is_over: bool
) -> Outcome:
    """How a trial stands: a change with how far off it may be on either side; None where there is too little."""
    if found is None:
        return Outcome(verdict=Verdict.OPEN if is_over else Verdict.RUNNING, tried=tried, usual=usual)
    change, within = found
    low, high = change - within, change + within
    verdict = _verdict(low, high) if is_over else Verdict.RUNNING
    return Outcome(
        verdict=verdict,
        tried=tried,
        usual=usual,
        change=change,
        low=low,
        high=high,
        more_weeks=more_weeks if verdict is Verdict.OPEN else None,
    )


class _Told(NamedTuple):
    """A session that tells something: whether the method was tried, what it showed on average, with which load."""

    on: date
    tried: bool
    level: float
    share: float


def _told(trial: Trial, sessions: Iterable[SessionTried], easy: frozenset[date]) -> Sequence[_Told]:
    """The sessions that tell something; with a single first, by the sets after it, and such sets in other weeks."""
    least = BACK_OFF if trial.method is Method.SINGLE else 0
    counted = [
        (each.on, bouts)
        for each in sessions
        if trial.is_on(each.on) and monday_of(each.on) not in easy
        if (bouts := [bout for bout in each.bouts if bout.reps >= least])
    ]
    return [
        _Told(
            on,
            trial.is_tried(on),
            fmean(bout.form for bout in bouts),
            fmean(bout.share for bout in bouts),
        )
        for on, bouts in counted
    ]


def _heavier(told: Sequence[_Told]) -> float:
    """How much heavier or lighter what is tried is, in shares of the max."""
    tried, usual = ([each.share for each in told if each.tried is way] for way in (True, False))
    return abs(fmean(tried) - fmean(usual))


def _together(likely: Sequence[float], found: Sequence[tuple[float, float]]) -> tuple[float, float, float]:
    """What all kinds of lifter read, how far off that may be for one kind, and how far they lie apart."""
    counts = np.power(likely, DOUBT)
    counts /= counts.sum()
    changes, withins = np.array(found).T
    change = float(counts @ changes)
    between = float(counts @ (changes - change) ** 2) ** 0.5
    return change, float(counts @ withins), between


def _difference(told: Sequence[_Told], since: date) -> tuple[float, float]:
    """The difference that the method makes, and how far off it may be on either side."""
    design = np.array([[1.0, (each.on - since) / timedelta(weeks=1), float(each.tried)] for each in told])
    levels = np.array([each.level for each in told])
    found, *_ = np.linalg.lstsq(design, levels, rcond=None)
    free = len(told) - design.shape[1]
    off = levels - design @ found
    spread = float(off @ off) / free * float(np.linalg.pinv(design.T @ design)[2, 2])
    change, within = float(found[2]), float(stdtrit(free, (1 + BOUNDS) / 2)) * spread**0.5
    return change, within


def _verdict(low: float, high: float) -> Verdict:
    if low > 0:
        return Verdict.HELPS
    if high < 0:
        return Verdict.COSTS
    return Verdict.ALIKE if low > -MATTERS and high < MATTERS else Verdict.OPEN


def more(
    weeks: int, change: float, by_chance: float, misread: float = 0.0, *, of: int = 2, most: int
) -> int | None:
    """The weeks that would about do after so many, a multiple `of` some; None where it is more than `most` in all.

    What is chance narrows with the root of the weeks, what is misread does not.
    """
    enough = max(abs(change), MATTERS)
    if misread >= enough:
        return None
    found = max(ceil(weeks * (by_chance**2 / (enough**2 - misread**2) - 1) / of), 1) * of
    return found if weeks + found <= most else None
