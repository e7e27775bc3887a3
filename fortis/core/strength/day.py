"""A lift as a day goes on: what each bout says of its max, for every kind of lifter and every max at once."""

from typing import NamedTuple

import numpy as np

from fortis.core.strength.belief import Belief
from fortis.core.strength.curve import LONGEST, beyond, scale
from fortis.core.strength.kinds import CALLS, CURVES
from fortis.core.strength.momentary import LASTING, recovered
from fortis.core.strength.observation import COUNTED, SPREAD, Grid, Heard, likelihood

_BEND: Grid = np.array([[curve.bend] for curve in CURVES])
_SCALE: Grid = scale(np.array([[curve.endurance] for curve in CURVES]), _BEND)
_CALLS: Grid = CALLS[:, None, None]

SAID = 1.3
"""How much a whole session says, in bouts: its bouts share the form of the day and what the model gets wrong."""
FOUR_IN_FIVE = 1.2816
"""Four in five of a normal distribution lie within so many standard deviations."""
LOGISTIC_SPREAD = np.pi / 3**0.5
"""The standard deviation of a logistic distribution, in its scale."""


class Foretold(NamedTuple):
    """The reps to failure expected of a bout, with the bounds that four in five lie between."""

    reps: float
    low: float
    high: float


class Day:
    """A lift as a day goes on, from what was believed of it before."""

    def __init__(self, belief: Belief) -> None:
        self.belief = belief
        self.powers = belief.kgs**_BEND
        shape = len(CURVES), len(belief.kgs)
        self.missing, self.lasting = np.zeros(shape), np.zeros(shape)
        self.tired_reps = 0.0
        self.bouts, self.told = 0, False
        self.total: Grid = np.zeros((len(CALLS), *shape))
        self._fresh: dict[float, tuple[Grid, Grid]] = {}

    def take_in(self, bout: Heard, kinds: Grid | None, *, believed: bool) -> Foretold | None:
        """Take in a bout; what was expected of it before, by the kinds of lifter where they are given."""
        rest = 1 - recovered(bout.rest)
        self.missing = self.missing * rest + bout.carried
        self.lasting += bout.stays
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
        """The logarithm of how likely the day was; None where it says nothing."""
        if not self.bouts:
            return None
        return SAID / max(self.bouts, SAID) * self.total

    def _possible(self, kg: float) -> tuple[Grid, Grid]:
        """Reps to failure with a load now, and what each takes, by curve and max, shape (curves, maxes)."""
        if kg not in self._fresh:
            away = 1 - kg / self.belief.kgs
            reps = np.minimum(beyond(_SCALE, _BEND, kg**-_BEND * self.powers), LONGEST)
            at_the_max = np.repeat(1 / _SCALE, len(away), axis=1)
            self._fresh[kg] = away, np.divide(away, reps, out=at_the_max, where=reps != 0)
        away, cost = self._fresh[kg]
        return 1 + (away - self.missing - self.lasting) / cost, cost

    def _foretold(self, possible: Grid, kinds: Grid) -> Foretold:
        """What the belief says of a bout, with what the session has said of the day so far."""
        said = self.said()
        of_day = 1.0 if said is None else np.exp(said - said.max())
        by_max = np.einsum("sc,scg->cg", kinds, self.belief.shares * of_day).ravel()
        reps = possible.ravel()
        whole = by_max.sum()
        mean = float(by_max @ reps / whole)
        away = float(by_max @ (reps - mean) ** 2 / whole)
        spread = FOUR_IN_FIVE * (away + (LOGISTIC_SPREAD * SPREAD * (max(mean, 0.0) + COUNTED)) ** 2) ** 0.5
        return Foretold(max(mean, 0.0), max(mean - spread, 0.0), max(mean + spread, 0.0))
