"""The max of every lift over months, from all that was done: how likely each max is, session by session.

For every lift with its set-up there is a grid over the logarithm of the max. A session's bouts are foretold for
every max on it, through the tiredness inside the session; how well each max foretold them moves the belief.
Between sessions the belief spreads, because maxes drift; it moves along with what was learned meanwhile of the lift
with another set-up and, less so, of lifts with the same muscles.

Maxes cannot be told apart from endurance by sets of ten, nor from the habit of calling too few. So all of it is
done for several kinds of lifter at once. Which kind this lifter is follows from all lifts together, slowly, by how
well each kind foretold the sessions, and for each lift a little more from its own; the max is that of all kinds,
each counting as far as it is likely. What is not known of the lifter is so in the interval.
"""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from datetime import datetime, timedelta
from itertools import product
from typing import NamedTuple

import numpy as np

from fortis.core.cache import cached_method
from fortis.core.exercises import Muscle
from fortis.core.strength.belief import (
    LEAST_BELIEF,
    NEAR_THE_END,
    Belief,
    by_max,
    drift,
    guessed,
    normal,
    spread,
)
from fortis.core.strength.curve import DEFAULT_CURVE, RepCurve
from fortis.core.strength.day import Day, Foretold
from fortis.core.strength.estimate import Estimate
from fortis.core.strength.kinds import CALLS, CURVES, calls_of, curve_of, usual_kinds
from fortis.core.strength.observation import Grid, Heard
from fortis.core.structure.model import LiftKey

DAY_FORM = 0.02
"""How far off a day may be, for no reason that lasts."""
PATIENCE = 0.25
"""How much of what a session says of the kind of lifter is taken up: max and kind are easily mistaken for each
other."""
OWN = 0.1
"""How much of it is taken to hold for that lift alone, beside what holds for all."""
ODD = 0.03
"""How likely a session is whatever the kind, beside the likeliest there could be: one that is odd for every kind
says little of which it is."""
UNKNOWN = 0.004
"""What no kind of lifter has right, as a share of the max."""
FIRST_SPREAD = 0.25
"""How far off the first guess at a lift may be."""
RELATED_SPREAD = 0.06
"""How much further off the max of another set-up of the lift may be: a belt, a higher handle (common practice)."""
SAME_LIFT, SAME_MUSCLES = 0.9, 0.5
"""How much of the drift of a max is shared with the lift in another set-up, and with one that has its muscles."""
MISTAKEN = 0.015
"""How far off a change of another max may be, as a share of it."""
NOVICE_DRIFT = 1.5
"""How many times as far the max of a novice drifts."""
KEPT_FOR, LOST_A_DAY, MOST_LOST = 7.0, 0.0015, 0.1
"""Strength keeps for so many days without any training, then so much of it goes a day (common practice)."""


MOST_CHANGED = 0.2
"""A max that changed by more is another machine's: it says nothing of other lifts."""


class Reading(NamedTuple):
    """The fresh max that one bout speaks for by itself, with the bounds that four in five lie between.

    With `at_least` it is a lower bound, and `high` says nothing.
    """

    kg: float
    low: float
    high: float
    at_least: bool


@dataclass(frozen=True, eq=False)
class Profile:
    """What is known of a lifter: how likely each kind is, shape (calls, curves), and the belief in every max.

    Maxes are told apart by the lift and the set-up. `own` is how each lift's sessions correct the kind for that
    lift, by its id. `last_at` is when any lift was done last, `lost` what layoffs had taken by then, as a share of
    every max.
    """

    kinds: Grid = field(default_factory=usual_kinds)
    beliefs: Mapping[LiftKey, Belief] = field(default_factory=dict)
    own: Mapping[str, Grid] = field(default_factory=dict)
    novice: bool = False
    last_at: datetime | None = None
    lost: float = 0.0

    @classmethod
    def of_novice(cls) -> "Profile":
        """What is known of somebody who has trained for less than a year: their calls are wild, they gain fast."""
        return cls(kinds=usual_kinds(novice=True), novice=True)

    @cached_method
    def kinds_of(self, lift: str) -> Grid:
        """How likely each kind is in one lift: as in all of them, and as far as its own sessions say otherwise."""
        own = self.own.get(lift)
        if own is None:
            return self.kinds
        kinds: Grid = self.kinds * own
        kinds /= kinds.sum()
        return kinds

    @cached_method
    def curve_of(self, lift: str) -> RepCurve:
        """The rep curve of the lifter in a lift, as far as it is known."""
        return curve_of(self.kinds_of(lift))

    @cached_method
    def calls_of(self, lift: str) -> float:
        """How many reps this lifter has left in a lift for each one that is called."""
        return calls_of(self.kinds_of(lift))

    def max_of(self, key: LiftKey, at: datetime) -> Estimate | None:
        """The fresh max of a lift on a day; None while nothing is known of it with this set-up."""
        if key not in self.beliefs:
            return None
        kinds = self.kinds_of(key[0])
        belief, drifted = self._moved(key, at)
        sums = np.cumsum(spread(by_max(kinds, belief.shares), (UNKNOWN**2 + drifted**2) ** 0.5))
        low, kg, high = np.interp([0.1, 0.5, 0.9], sums / sums[-1], belief.kgs)
        curve, calls = self.curve_of(key[0]), self.calls_of(key[0])
        return Estimate(kg=float(kg), low=float(low), high=float(high), curve=curve, calls=calls)

    def max_by_kind(self, key: LiftKey, at: datetime) -> Sequence[tuple[float, Estimate]]:
        """For every kind of lifter how likely it is in a lift, and the max on a day of who is of that kind."""
        if key not in self.beliefs:
            return ()
        belief, _ = self._moved(key, at)
        kinds, kgs = self.kinds_of(key[0]).ravel(), np.exp(belief.means).ravel()
        return tuple(
            (float(likely), Estimate(kg=kg, low=kg, high=kg, curve=curve, calls=float(calls)))
            for likely, kg, (calls, curve) in zip(kinds, map(float, kgs), product(CALLS, CURVES), strict=True)
        )

    def maxes(self, at: datetime) -> Mapping[LiftKey, Estimate]:
        """The fresh max of every lift and set-up of which one is known, on a day."""
        found = {key: self.max_of(key, at) for key in self.beliefs}
        return {key: max_ for key, max_ in found.items() if max_}

    def read_as(self, later: "Profile") -> "Profile":
        """The same maxes read by the curves and calls that were known later: to have learned them is no gain."""
        return replace(self, kinds=later.kinds, own=later.own)

    def learn(
        self, key: LiftKey, at: datetime, bouts: Sequence[Heard], prime: Iterable[Muscle] = ()
    ) -> "tuple[Profile, Sequence[Foretold | None]]":
        """Take in the bouts of a lift in a session, in the order they were done.

        `prime` are the muscles that give out first in it. Also returns what was expected of each bout before it was
        seen; None where nothing was known of the lift.
        """
        known, before, believed = self._before(key, at, bouts)
        if before is None:
            return self, [None] * len(bouts)
        kinds = self.kinds_of(key[0])
        foretold, seen = _seen(before, bouts, believed, kinds if known else None)
        if seen is None:
            return self, foretold
        if abs(away := seen.after.off_middle(kinds)) > NEAR_THE_END:
            _, again = _seen(before.on_grid(away), bouts, believed, None)
            seen = again or seen
        after = self._with(key, replace(seen.after, at=at, prime=frozenset(prime)))
        if known and seen.told:
            after = after._learned_kind(key[0], seen.evidence)
        return after, foretold

    def _with(self, key: LiftKey, belief: Belief) -> "Profile":
        """What is known with a new belief in a lift, which remembers what is known of others beside it."""
        lost = self._lost_until(belief.at)
        beside = {
            other: each.means for other, each in self.beliefs.items() if _go_together(key, belief, other, each)
        }
        beliefs = {**self.beliefs, key: replace(belief, beside=beside, lost=lost)}
        return replace(self, beliefs=beliefs, last_at=max(belief.at, self.last_at or belief.at), lost=lost)

    def _learned_kind(self, lift: str, evidence: Grid) -> "Profile":
        """What a session of a lift says of the kind: most of it of the lifter, some of it of the lift alone."""
        evidence = (evidence + ODD) / (evidence.max() + ODD)
        kinds = self.kinds * evidence**PATIENCE
        own = self.own.get(lift, 1.0) * evidence**OWN
        return replace(self, kinds=kinds / kinds.sum(), own={**self.own, lift: own / own.max()})

    def doubted(self, key: LiftKey, at: datetime, bouts: Sequence[Heard]) -> Sequence[bool]:
        """For each bout of a lift in a session whether it is taken for a slip of the finger, and left out."""
        return [not each for each in self._before(key, at, bouts)[2]]

    def readings(self, key: LiftKey, at: datetime, bouts: Sequence[Heard]) -> Sequence[Reading | None]:
        """What each bout of a lift in a session says by itself, tired as it was; None where it says nothing."""
        _, belief, believed = self._before(key, at, bouts)
        if belief is None:
            return [None] * len(bouts)
        day, kinds = Day(belief), self.kinds_of(key[0])
        readings: list[Reading | None] = []
        for bout, each in zip(bouts, believed, strict=True):
            before = day.total.copy()
            day.take_in(bout, None, believed=each)
            said = day.total - before
            readings.append(_reading(belief, kinds, bout, said) if np.ptp(said) > 0 else None)
        return readings

    def _before(
        self, key: LiftKey, at: datetime, bouts: Sequence[Heard]
    ) -> tuple[bool, Belief | None, Sequence[bool]]:
        """Whether a lift is known, what to believe of it before a session, and which of its bouts can be so.

        One bout that cannot be is a slip of the finger. Where none of a session can be, or most cannot and are not
        ten times over, it is another machine, or another way to count its load: what was known of the lift is no
        longer so.
        """
        if key not in self.beliefs:
            return False, self._first(key, at, bouts), [True] * len(bouts)
        kinds = self.kinds_of(key[0])
        moved, drifted = self._moved(key, at)
        before = moved.spread(drifted).centred(kinds)
        likely_kg, curve = before.likely_kg(kinds), self.curve_of(key[0])
        believed = [is_believable(likely_kg, curve, bout) for bout in bouts]
        strange = [bout for bout, each in zip(bouts, believed, strict=True) if not each]
        slips = sum(is_slip(likely_kg, curve, bout) for bout in strange) if any(believed) else 0
        if len(strange) - slips > max(believed.count(True), 1):
            return False, _guess(at, bouts), [True] * len(bouts)
        return True, before, believed

    def _first(self, key: LiftKey, at: datetime, bouts: Sequence[Heard]) -> Belief | None:
        """What to believe of a lift that nothing is known of: another set-up's max, else a guess from the bouts."""
        setups = [other for other in self.beliefs if other[0] == key[0]]
        if not setups:
            return _guess(at, bouts)
        latest = max(setups, key=lambda each: self.beliefs[each].at)
        moved, drifted = self._moved(latest, at)
        wider = moved.moved(self._worth(latest[1], key[1])).spread((drifted**2 + RELATED_SPREAD**2) ** 0.5)
        return replace(wider, shares=normal(wider.shares + LEAST_BELIEF))

    def _worth(self, setup: str, other: str) -> float:
        """What another set-up is worth to this lifter, by the lifts done with both: the less sure, the fewer."""
        both = [
            (self.kinds_of(lift) * (self.beliefs[lift, other].means - belief.means)).sum()
            for (lift, of), belief in self.beliefs.items()
            if of == setup and (lift, other) in self.beliefs
        ]
        return float(sum(both)) / (len(both) + 1)

    def _moved(self, key: LiftKey, at: datetime) -> tuple[Belief, float]:
        """What to believe of a known lift, as others and layoffs moved it, and how far it may have drifted."""
        belief = self.beliefs[key]
        if at <= belief.at:
            return belief, 0.0
        times = NOVICE_DRIFT if self.novice else 1.0
        lost = self._lost_until(at) - belief.lost
        kinds = self.kinds_of(key[0])
        told, weight = 0.0, 0.0
        for other, was in belief.beside.items():
            found = self.beliefs[other]
            if found.at <= belief.at:
                continue
            change = float((kinds * (found.means - was)).sum()) + found.lost - belief.lost
            if abs(change) > MOST_CHANGED:
                continue
            shared = SAME_LIFT if other[0] == key[0] else SAME_MUSCLES
            drifted = (times * drift(belief.at, found.at)) ** 2
            gain = shared * drifted / (drifted + MISTAKEN**2)
            told += gain * gain * change
            weight += gain
        by = told / weight if weight else 0.0
        return belief.moved(by - lost), times * drift(belief.at, at)

    def _lost_until(self, at: datetime) -> float:
        """What layoffs have taken by a moment, as a share of every max."""
        if self.last_at is None:
            return 0.0
        idle = (at - self.last_at) / timedelta(days=1) - KEPT_FOR
        return self.lost + min(max(idle, 0.0) * LOST_A_DAY, MOST_LOST)


class _Seen(NamedTuple):
    """What to believe after a session, how well each kind of lifter foretold it, and whether it told reps."""

    after: Belief
    evidence: Grid
    told: bool


def _seen(
    before: Belief, bouts: Sequence[Heard], believed: Sequence[bool], kinds: Grid | None
) -> tuple[Sequence[Foretold | None], _Seen | None]:
    """A session seen from a belief: what was expected of it, and what it says; None where that is nothing."""
    day = Day(before)
    foretold = [day.take_in(bout, kinds, believed=each) for bout, each in zip(bouts, believed, strict=True)]
    said = day.said()
    if said is None:
        return foretold, None
    likely = before.shares * spread(np.exp(said - said.max()), DAY_FORM)
    return foretold, _Seen(replace(before, shares=normal(likely)), likely.sum(axis=-1), day.told)


def _go_together(key: LiftKey, belief: Belief, other: LiftKey, found: Belief) -> bool:
    """Whether two lifts gain and lose together: one lift in two set-ups, or two with the same muscles."""
    return other != key and (other[0] == key[0] or bool(belief.prime & found.prime))


def _reading(belief: Belief, kinds: Grid, bout: Heard, said: Grid) -> Reading:
    likely = by_max(kinds, np.exp(said - said.max()))
    sums = np.cumsum(likely) / likely.sum() if bout.tells_reps else likely / likely.max()
    low, kg, high = np.interp([0.1, 0.5, 0.9], np.maximum.accumulate(sums), belief.kgs)
    return Reading(float(kg), float(low), float(high), at_least=not bout.tells_reps)


def _guess(at: datetime, bouts: Sequence[Heard]) -> Belief | None:
    """What some bouts say by the usual curve, within wide bounds; None where they say nothing."""
    guesses = [
        _spoken_for(bout.kg, bout.reps + (bout.left or 0), DEFAULT_CURVE)
        for bout in bouts
        if bout.vague and bout.kg > 0 and (bout.reps or bout.failed)
    ]
    return guessed(float(np.median(guesses)), FIRST_SPREAD, at) if guesses else None


MOST_REPS = 20
"""More reps than this say little about a max: they count as this many in a first guess."""


def _spoken_for(kg: float, to_failure: float, curve: RepCurve) -> float:
    """The fresh max that a load and its reps to failure speak for."""
    return kg / curve.share(min(to_failure, MOST_REPS))


def is_believable(max_kg: float, curve: RepCurve, bout: Heard) -> bool:
    """Whether a bout is none of those with a nought too many or too few: a load or its reps ten times over."""
    if bout.kg <= 0:
        return True
    expected = max(curve.reps(bout.kg / max_kg), 1.0)
    too_much = bout.kg >= 1.6 * max_kg or bout.reps >= 3 * expected + 10
    too_little = bout.tells_reps and bout.kg < max_kg / 5 and bout.reps + (bout.left or 0) < expected / 4
    return not (too_much or too_little)


TIMES = 10
"""A nought too many, or one too few."""


def is_slip(max_kg: float, curve: RepCurve, bout: Heard) -> bool:
    """Whether a strange bout would be nothing odd with its load ten times less or more, or a tenth of its reps."""
    return any(
        NOTHING_ODD < _spoken_for(kg, reps + (bout.left or 0), curve) / max_kg < 1 / NOTHING_ODD
        for kg, reps in ((bout.kg / TIMES, bout.reps), (bout.kg * TIMES, bout.reps), (bout.kg, bout.reps / TIMES))
    )


NOTHING_ODD = 0.7
"""The least that a working set speaks for, as a share of the max."""
