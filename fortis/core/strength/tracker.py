"""The max of every lift over months, from all that was done: how likely each max is, session by session.

For every lift with its set-up there is a grid over the logarithm of the max. A session's bouts are foretold for
every max on it, through the tiredness inside the session; how well each max foretold them moves the belief.
Between sessions the belief spreads, because maxes drift.

Maxes cannot be told apart from endurance by sets of ten, nor from the habit of calling too few. So all of it is
done for several kinds of lifter at once: three endurances, three bends of the rep curve, three habits of calling
reps left. Which kind this lifter is follows from all lifts together, slowly, by how well each kind foretold the
sessions; the max is that of all kinds, each counting as far as it is likely. What is not known of the lifter is so
in the interval.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from datetime import datetime, timedelta
from functools import cached_property
from typing import NamedTuple

import numpy as np
from scipy.ndimage import gaussian_filter1d

from fortis.core.strength.curve import DEFAULT_CURVE, RepCurve, beyond, scale
from fortis.core.strength.estimate import Estimate
from fortis.core.strength.momentary import LASTING, recovered
from fortis.core.strength.observation import COUNTED, SPREAD, Grid, Heard, likelihood
from fortis.core.structure.model import LiftKey

STEP = 0.01
REACH = 50
OFFSETS: Grid = np.linspace(-REACH * STEP, REACH * STEP, 2 * REACH + 1)
"""The grid of a lift, in logarithms around its middle: from about half of it to about twice."""
OFF_MIDDLE = 15
"""Once the belief has moved so many steps, the grid moves with it."""

ENDURANCES: Grid = np.array([DEFAULT_CURVE.endurance * times for times in (0.75, 1.0, 4 / 3)])
BENDS: Grid = np.array([-1.0, 1.0, 5.0])
CALLS: Grid = np.array([0.7, 1.1, 1.7])
"""Reps left for each one that is called: most lifters have a little more than they call (from memory of the
literature)."""
USUAL_CALLS = 1.1
CURVES = tuple(RepCurve(endurance=float(each), bend=float(bend)) for each in ENDURANCES for bend in BENDS)
_BEND = np.array([[curve.bend] for curve in CURVES])
_SCALE = scale(np.array([[curve.endurance] for curve in CURVES]), _BEND)
_CALLS = CALLS[:, None, None]

DRIFT_A_DAY = 0.008 / 3.5**0.5
"""How far the max may drift in a day, as a share of it; in n days n ** 0.5 times as far."""
DAY_FORM = 0.02
"""How far off a day may be, for no reason that lasts."""
SAID = 1.3
"""How much a whole session says, in bouts: its bouts share the form of the day and what the model gets wrong."""
PATIENCE = 0.25
"""How much of what a session says of the kind of lifter is taken up: max and kind are easily mistaken for each
other."""
LEAST_EVIDENCE = np.exp(-8)
"""One session never makes a kind of lifter less likely than this share of the likeliest."""
UNKNOWN = 0.015
"""What no kind of lifter has right, as a share of the max."""
FIRST_SPREAD = 0.25
"""How far off the first guess at a lift may be."""
RELATED_SPREAD = 0.06
"""How much further off the max of another set-up of the lift may be: a belt, a higher handle (common practice)."""
LEAST_BELIEF = 1e-9
FOUR_IN_FIVE = 1.2816
"""Four in five of a normal distribution lie within so many standard deviations."""
LOGISTIC_SPREAD = np.pi / 3**0.5
"""The standard deviation of a logistic distribution, in its scale."""


def _usual_kinds() -> Grid:
    """How likely each kind of lifter is before anything is known, shape (calls, curves)."""
    endurance = (np.log(ENDURANCES / DEFAULT_CURVE.endurance) / 0.2) ** 2
    bend = np.array([1.0, 0.0, 2.0])
    calls = (np.log(CALLS / USUAL_CALLS) / 0.45) ** 2
    curves = (endurance[:, None] + bend[None, :]).ravel()
    kinds: Grid = np.exp(-(calls[:, None] + curves[None, :]) / 2)
    kinds /= kinds.sum()
    return kinds


class Foretold(NamedTuple):
    """The reps to failure expected of a bout, with the bounds that four in five lie between."""

    reps: float
    low: float
    high: float


class Reading(NamedTuple):
    """The fresh max that one bout speaks for by itself, with the bounds that four in five lie between.

    With `at_least` it is a lower bound, and `high` says nothing.
    """

    kg: float
    low: float
    high: float
    at_least: bool


@dataclass(frozen=True, eq=False)
class Belief:
    """How likely each max of a lift is, for every kind of lifter, shape (calls, curves, maxes), as of a moment.

    `middle` is the logarithm of the max in the middle of the grid, in steps.
    """

    middle: int
    shares: Grid
    at: datetime

    @cached_property
    def kgs(self) -> Grid:
        """The maxes on the grid."""
        return np.exp(self.middle * STEP + OFFSETS)

    def likely_kg(self, kinds: Grid) -> float:
        """The mean of the max, by its logarithm."""
        return float(np.exp(self.middle * STEP + _by_max(kinds, self.shares) @ OFFSETS))

    def later(self, at: datetime) -> "Belief":
        """The same belief at a later moment: the max may have drifted."""
        drift = _drift(self.at, at)
        return Belief(self.middle, _spread(self.shares, drift), at) if drift else self

    def centred(self, kinds: Grid) -> "Belief":
        """The same belief on a grid around it."""
        away = round(float(np.log(self.likely_kg(kinds))) / STEP) - self.middle
        if abs(away) <= OFF_MIDDLE:
            return self
        away = min(max(away, -REACH), REACH)
        shares = np.full_like(self.shares, LEAST_BELIEF)
        if away > 0:
            shares[..., :-away] = self.shares[..., away:]
        else:
            shares[..., -away:] = self.shares[..., :away]
        return Belief(self.middle + away, _normal(shares), self.at)


@dataclass(frozen=True, eq=False)
class Profile:
    """What is known of a lifter: how likely each kind is, shape (calls, curves), and the belief in every max.

    Maxes are told apart by the lift and the set-up.
    """

    kinds: Grid = field(default_factory=_usual_kinds)
    beliefs: Mapping[LiftKey, Belief] = field(default_factory=dict)

    def max_of(self, key: LiftKey, at: datetime) -> Estimate | None:
        """The fresh max of a lift on a day; None while nothing is known of it with this set-up."""
        belief = self.beliefs.get(key)
        if belief is None:
            return None
        unsure = (UNKNOWN**2 + _drift(belief.at, at) ** 2) ** 0.5
        sums = np.cumsum(_spread(_by_max(self.kinds, belief.shares), unsure))
        low, kg, high = np.interp([0.1, 0.5, 0.9], sums / sums[-1], belief.kgs)
        return Estimate(kg=float(kg), low=float(low), high=float(high), curve=self.curve)

    @cached_property
    def curve(self) -> RepCurve:
        """The rep curve of the lifter, as far as it is known."""
        likely = self.kinds.sum(axis=0)
        endurance = float(np.exp(likely @ np.log([curve.endurance for curve in CURVES])))
        bend = float(likely @ [curve.bend for curve in CURVES])
        return RepCurve(endurance=endurance, bend=bend or np.finfo(float).eps)

    @cached_property
    def calls(self) -> float:
        """How many reps this lifter has left for each one that is called."""
        return float(np.exp(self.kinds.sum(axis=1) @ np.log(CALLS)))

    def learn(
        self, key: LiftKey, at: datetime, bouts: Sequence[Heard]
    ) -> "tuple[Profile, Sequence[Foretold | None]]":
        """Take in the bouts of a lift in a session, in the order they were done.

        Also returns what was expected of each before it was seen; None where nothing was known of the lift.
        """
        known, before, believed = self._before(key, at, bouts)
        if before is None:
            return self, [None] * len(bouts)
        session = _Session(before)
        kinds = self.kinds if known else None
        foretold = [session.take_in(bout, kinds, believed=each) for bout, each in zip(bouts, believed, strict=True)]
        said = session.said()
        if said is None:
            return self, foretold
        likely = before.shares * _spread(np.exp(said - said.max()), DAY_FORM)
        evidence = likely.sum(axis=-1)
        evidence = np.maximum(evidence, LEAST_EVIDENCE * evidence.max())
        learned = self.kinds * evidence**PATIENCE if known and session.told else self.kinds
        after = Belief(before.middle, _normal(likely), at)
        return Profile(learned / learned.sum(), {**self.beliefs, key: after}), foretold

    def readings(self, key: LiftKey, at: datetime, bouts: Sequence[Heard]) -> Sequence[Reading | None]:
        """What each bout of a lift in a session says by itself, tired as it was; None where it says nothing."""
        _, belief, believed = self._before(key, at, bouts)
        if belief is None:
            return [None] * len(bouts)
        session = _Session(belief)
        readings: list[Reading | None] = []
        for bout, each in zip(bouts, believed, strict=True):
            before = session.total.copy()
            session.take_in(bout, None, believed=each)
            said = session.total - before
            readings.append(self._reading(belief, bout, said) if np.ptp(said) > 0 else None)
        return readings

    def _reading(self, belief: Belief, bout: Heard, said: Grid) -> Reading:
        likely = _by_max(self.kinds, np.exp(said - said.max()))
        sums = np.cumsum(likely) / likely.sum() if bout.tells_reps else likely / likely.max()
        low, kg, high = np.interp([0.1, 0.5, 0.9], np.maximum.accumulate(sums), belief.kgs)
        return Reading(float(kg), float(low), float(high), at_least=not bout.tells_reps)

    def _before(
        self, key: LiftKey, at: datetime, bouts: Sequence[Heard]
    ) -> tuple[bool, Belief | None, Sequence[bool]]:
        """Whether a lift is known, what to believe of it before a session, and which of its bouts can be so.

        One bout that cannot be is a slip of the finger. Where most cannot, it is another machine, or another way to
        count its load: what was known of the lift is no longer so.
        """
        known = self.beliefs.get(key)
        if known is None:
            return False, self._first(key, at, bouts), [True] * len(bouts)
        before = known.later(at).centred(self.kinds)
        likely_kg = before.likely_kg(self.kinds)
        believed = [is_believable(likely_kg, self.curve, bout) for bout in bouts]
        if believed.count(False) > max(believed.count(True), 1):
            return False, _guess(at, bouts), [True] * len(bouts)
        return True, before, believed

    def _first(self, key: LiftKey, at: datetime, bouts: Sequence[Heard]) -> Belief | None:
        """What to believe of a lift that nothing is known of: another set-up's max, else a guess from the bouts."""
        related = [belief for (lift, _), belief in self.beliefs.items() if lift == key[0]]
        if related:
            latest = max(related, key=lambda each: each.at).later(at)
            shares = _spread(latest.shares, RELATED_SPREAD) + LEAST_BELIEF
            return Belief(latest.middle, _normal(shares), at)
        return _guess(at, bouts)


def _guess(at: datetime, bouts: Sequence[Heard]) -> Belief | None:
    """What some bouts say by the usual curve, within wide bounds; None where they say nothing."""
    guesses = [
        bout.kg / DEFAULT_CURVE.share(min(bout.reps + (bout.left or 0), MOST_REPS))
        for bout in bouts
        if bout.vague and bout.kg > 0 and (bout.reps or bout.failed)
    ]
    if not guesses:
        return None
    shape = np.exp(-((OFFSETS / FIRST_SPREAD) ** 2) / 2) + LEAST_BELIEF
    shares = np.broadcast_to(shape, (len(CALLS), len(CURVES), len(OFFSETS)))
    return Belief(round(float(np.log(np.median(guesses))) / STEP), _normal(shares), at)


MOST_REPS = 20
"""More reps than this say little about a max: they count as this many in a first guess."""


def is_believable(max_kg: float, curve: RepCurve, bout: Heard) -> bool:
    """Whether a bout is none of those with a nought too many or too few: a load or its reps ten times over."""
    if bout.kg <= 0:
        return True
    expected = max(curve.reps(bout.kg / max_kg), 1.0)
    too_much = bout.kg >= 1.6 * max_kg or bout.reps >= 3 * expected + 10
    too_little = bout.tells_reps and bout.kg < max_kg / 5 and bout.reps + (bout.left or 0) < expected / 4
    return not (too_much or too_little)


class _Session:
    """A lift as a session goes on, for every curve and max at once."""

    def __init__(self, belief: Belief) -> None:
        self.belief = belief
        self.powers = belief.kgs**_BEND
        shape = len(CURVES), len(OFFSETS)
        self.missing, self.lasting = np.zeros(shape), np.zeros(shape)
        self.tired_reps = 0.0
        self.bouts, self.told = 0, False
        self.total: Grid = np.zeros((len(CALLS), *shape))

    def take_in(self, bout: Heard, kinds: Grid | None, *, believed: bool) -> Foretold | None:
        """Take in a bout; what was expected of it before, by the kinds of lifter where they are given."""
        rest = 1 - recovered(bout.rest)
        self.missing *= rest
        self.tired_reps *= rest
        if bout.kg <= 0:
            return None
        possible, cost = self._possible(bout.kg)
        foretold = None if kinds is None else self._foretold(possible, kinds)
        if not believed:
            return foretold
        if bout.vague and (bout.reps or bout.failed):
            self.total += likelihood(bout, possible, self.tired_reps, _CALLS)
            self.bouts += 1
            self.told |= bout.tells_reps
        spent = np.clip(possible, 0, bout.reps) * cost
        self.missing += spent * (1 - LASTING)
        self.lasting += spent * LASTING
        self.tired_reps += bout.reps
        return foretold

    def said(self) -> Grid | None:
        """The logarithm of how likely the session was; None where it says nothing."""
        if not self.bouts:
            return None
        return SAID / max(self.bouts, SAID) * self.total

    def _possible(self, kg: float) -> tuple[Grid, Grid]:
        """Reps to failure with a load now, and what each takes, by curve and max, shape (curves, maxes)."""
        away = 1 - kg / self.belief.kgs
        reps = beyond(_SCALE, _BEND, kg**-_BEND * self.powers)
        cost = np.divide(away, reps, out=np.broadcast_to(1 / _SCALE, reps.shape).copy(), where=reps != 0)
        return 1 + (away - self.missing - self.lasting) / cost, cost

    def _foretold(self, possible: Grid, kinds: Grid) -> Foretold:
        """What the belief says of a bout, with what the session has said of the day so far."""
        likely = kinds[..., None] * self.belief.shares
        if (said := self.said()) is not None:
            likely = likely * np.exp(said - said.max())
        by_max = likely.sum(axis=0).ravel()
        reps = possible.ravel()
        whole = by_max.sum()
        mean = float(by_max @ reps / whole)
        away = float(by_max @ (reps - mean) ** 2 / whole)
        spread = FOUR_IN_FIVE * (away + (LOGISTIC_SPREAD * SPREAD * (max(mean, 0.0) + COUNTED)) ** 2) ** 0.5
        return Foretold(max(mean, 0.0), max(mean - spread, 0.0), max(mean + spread, 0.0))


def _drift(since: datetime, until: datetime) -> float:
    """How far a max may have drifted, as a share of it."""
    days = (until - since) / timedelta(days=1)
    return float(DRIFT_A_DAY * max(days, 0.0) ** 0.5)


def _by_max(kinds: Grid, shares: Grid) -> Grid:
    """How likely each max is, over all kinds of lifter."""
    likely: Grid = np.einsum("sc,scg->g", kinds, shares)
    return likely


def _spread(belief: Grid, by: float) -> Grid:
    """A belief made less sure by a share of the max."""
    spread: Grid = gaussian_filter1d(belief, by / STEP, axis=-1, mode="constant")
    return np.maximum(spread, np.finfo(float).tiny)


def _normal(shares: Grid) -> Grid:
    normal: Grid = shares / shares.sum(axis=-1, keepdims=True)
    return normal
