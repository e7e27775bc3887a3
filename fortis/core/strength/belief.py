"""How likely each max of a lift is, on a grid over its logarithm, for every kind of lifter."""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from datetime import datetime, timedelta
from functools import cached_property

import numpy as np
from scipy.ndimage import gaussian_filter1d

from fortis.core.exercises import Muscle
from fortis.core.strength.kinds import CALLS, CURVES
from fortis.core.strength.observation import Grid
from fortis.core.structure.model import LiftKey

STEP = 0.01
REACH = 50
OFFSETS: Grid = np.linspace(-REACH * STEP, REACH * STEP, 2 * REACH + 1)
"""The grid of a lift, in logarithms around its middle: from about half of it to about twice."""
OFF_MIDDLE = 15
"""Once the belief has moved so many steps, the grid moves with it."""
NEAR_THE_END = 25
"""A session that moves it so far is looked at again on another grid: the max may lie beyond this one."""
LEAST_BELIEF = 1e-9
_LEAST = float(np.finfo(float).tiny)

DRIFT_A_DAY = 0.010 / 3.5**0.5
"""How far the max may drift in a day, as a share of it; in n days n ** 0.5 times as far."""


@dataclass(frozen=True, eq=False)
class Belief:
    """How likely each max of a lift is, for every kind of lifter, shape (calls, curves, maxes), as of a moment.

    `middle` is the logarithm of the max in the middle of the grid. `prime` are the muscles that give out first.
    `beside` are the maxes that other lifts had then, by kind; `lost` is what layoffs had taken by then.
    """

    middle: float
    shares: Grid
    at: datetime
    prime: frozenset[Muscle] = frozenset()
    beside: Mapping[LiftKey, Grid] = field(default_factory=dict)
    lost: float = 0.0

    @cached_property
    def kgs(self) -> Grid:
        """The maxes on the grid."""
        kgs: Grid = np.exp(self.middle + OFFSETS)
        return kgs

    @cached_property
    def means(self) -> Grid:
        """The mean of the logarithm of the max for each kind of lifter, shape (calls, curves)."""
        means: Grid = self.middle + self.shares @ OFFSETS
        return means

    def likely_kg(self, kinds: Grid) -> float:
        """The mean of the max, by its logarithm."""
        return float(np.exp((kinds * self.means).sum() / kinds.sum()))

    def moved(self, by: float) -> "Belief":
        """The same belief in a max that is so much higher, by its logarithm."""
        return replace(self, middle=self.middle + by) if by else self

    def spread(self, by: float) -> "Belief":
        """The belief made less sure by a share of the max."""
        return replace(self, shares=spread(self.shares, by)) if by else self

    def off_middle(self, kinds: Grid) -> int:
        """How many steps of the grid the belief lies above its middle."""
        return round(float(np.log(self.likely_kg(kinds)) - self.middle) / STEP)

    def centred(self, kinds: Grid) -> "Belief":
        """The same belief on a grid around it."""
        away = self.off_middle(kinds)
        return self if abs(away) <= OFF_MIDDLE else self.on_grid(away)

    def on_grid(self, away: int) -> "Belief":
        """The same belief on a grid so many steps higher. Beyond the old one it is as likely as at its end."""
        away = min(max(away, -REACH), REACH)
        shares = self.shares[..., np.clip(np.arange(len(OFFSETS)) + away, 0, len(OFFSETS) - 1)]
        return replace(self, middle=self.middle + away * STEP, shares=normal(shares))


def guessed(kg: float, off: float, at: datetime) -> Belief:
    """A first guess at a max that may be so far off, as a share of it, the same for every kind of lifter."""
    shape = np.exp(-((OFFSETS / off) ** 2) / 2) + LEAST_BELIEF
    shares = np.broadcast_to(shape, (len(CALLS), len(CURVES), len(OFFSETS)))
    return Belief(round(float(np.log(kg)) / STEP) * STEP, normal(shares), at)


def drift(since: datetime, until: datetime) -> float:
    """How far a max may have drifted, as a share of it."""
    return float(DRIFT_A_DAY * max((until - since) / timedelta(days=1), 0.0) ** 0.5)


def by_max(kinds: Grid, shares: Grid) -> Grid:
    """How likely each max is, over all kinds of lifter."""
    likely: Grid = kinds.ravel() @ shares.reshape(kinds.size, -1)
    return likely


def spread(shares: Grid, by: float) -> Grid:
    """A belief made less sure by a share of the max."""
    wider = np.empty_like(shares)
    gaussian_filter1d(shares, by / STEP, axis=-1, mode="constant", output=wider)
    return np.maximum(wider, _LEAST, out=wider)


def normal(shares: Grid) -> Grid:
    """A belief whose shares sum to one for every kind of lifter."""
    found: Grid = shares / shares.sum(axis=-1, keepdims=True)
    return found
