"""Strength inside a set: how many reps are left now, after these bouts and these rests.

Momentary strength S is a share of the fresh one-rep max, 1 when fresh. A load of share f allows R(f) reps from
fresh, so each beyond the first costs d(f) = (1 - f) / (R(f) - 1), and at any moment 1 + (S - f) / d(f) reps are
left. A rest brings back a share of what is missing, fast at first and slowly after; a small part of every rep's
cost stays for the day.

The recovery was fitted to what lifters report of clusters, rest-pause and ascending mini-sets (common practice, no
source).
"""

from collections.abc import Iterable
from math import exp, floor
from typing import NamedTuple

from fortis.core.strength.curve import DEFAULT_CURVE, RepCurve

FAST_SHARE, FAST_SECONDS, SLOW_SECONDS = 0.45, 17.0, 150.0
LASTING = 0.05
"""The share of each rep's cost that hardly comes back within the session."""
_NEARLY = 1e-9


def recovered(seconds: float) -> float:
    """The share of what is missing that a rest brings back."""
    left = FAST_SHARE * exp(-seconds / FAST_SECONDS) + (1 - FAST_SHARE) * exp(-seconds / SLOW_SECONDS)
    return 1 - left


class Asked(NamedTuple):
    """A bout to come: its load as a share of the max, its reps (None: all there are), the rest after it.

    `keep` are the reps to be left after it, where its load is still to be found.
    """

    share: float
    reps: int | None
    rest: float
    keep: float = 0.0


class Taken(NamedTuple):
    """What another lift takes of strength, as a share of the max, and the rest after it."""

    cost: float
    rest: float


class Expected(NamedTuple):
    """What to expect of a bout: the reps that will be done, and those left after them."""

    reps: int
    left: float


class Momentary:
    """A lifter's strength in one lift as a session goes on. A rest told in pieces is one rest."""

    def __init__(self, curve: RepCurve = DEFAULT_CURVE) -> None:
        self.curve = curve
        self._missing = 0.0
        self._lasting = 0.0
        self._rested = 0.0

    @property
    def spent(self) -> float:
        """What is missing now, as a share of the max."""
        return self._missing * (1 - recovered(self._rested)) + self._lasting

    def left(self, share: float) -> float:
        """Reps that are left at a share of the max, now; under 1 it would not move."""
        return max(self.reach(share), 0.0)

    def reach(self, share: float, cost: float | None = None) -> float:
        """The same without an end: below 0 by as many reps as are missing to none. `cost` is a rep's there."""
        return 1 + (1 - self.spent - share) / (self.curve.cost(share) if cost is None else cost)

    def perform(self, share: float, reps: int | None) -> Expected:
        """Do a bout, as far as strength goes."""
        left = self.left(share)
        possible = floor(left + _NEARLY)
        done = possible if reps is None else min(reps, possible)
        self.tire(done * self.curve.cost(share))
        return Expected(done, max(left - done, 0.0))

    def tire(self, cost: float) -> None:
        """Lose a share of strength: some of it for the day."""
        self._missing = self._missing * (1 - recovered(self._rested)) + cost * (1 - LASTING)
        self._lasting += cost * LASTING
        self._rested = 0.0

    def rest(self, seconds: float) -> None:
        """Let time pass."""
        self._rested += seconds


def expect(bouts: Iterable[Asked], curve: RepCurve = DEFAULT_CURVE) -> list[Expected]:
    """What to expect of some bouts of one lift, done one after the other from fresh."""
    strength = Momentary(curve)
    expected = []
    for bout in bouts:
        expected.append(strength.perform(bout.share, bout.reps))
        strength.rest(bout.rest)
    return expected
