"""What a bout says about the max: how likely it was for every max there could be.

Reps to failure are told by the reps done and the reps left, as far as those are called; a bout that would not move
tells them outright. "5 or more" says at least so many, and so does a bout of which nobody said how many were left.
"""

from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

Grid = NDArray[np.float64]

SPREAD = 0.07
"""How far off the reps to failure may be, as a share of them and of `COUNTED` more: counting, calling, and what no
curve has right. The same whatever the bout, so that more reps, or more left, can never speak for a lower max."""
COUNTED = 3.0
TIRED = 0.06
"""How much further off for each rep done before that no rest has brought back."""
WITHIN_A_REP = 0.5
CALLED_WITHIN_A_REP = 0.4
"""Whole reps stand for the middle of what they leave over; none left, where nothing was tried, for none at all: a
true single is the max (common practice)."""


class Heard(NamedTuple):
    """A bout as it went: the weight moved in kg, seconds of rest before it, full reps, and reps left as called.

    `left` is None where nothing was said; with `or_more` it is a lower bound. `failed` says that the next rep
    would not move. `vague` makes it count less: its errors are so many times as large; 0 says that it only tires.
    `carried` is the share of strength that other lifts have taken since the bout before, and rests bring back;
    `stays` what they have taken for the day.
    """

    kg: float
    rest: float
    reps: int
    left: float | None = None
    or_more: bool = False
    failed: bool = False
    vague: float = 1.0
    carried: float = 0.0
    stays: float = 0.0

    @property
    def tells_reps(self) -> bool:
        """Whether it tells the reps to failure, and not only that there were at least so many."""
        return self.failed or not (self.left is None or self.or_more)


def likelihood(bout: Heard, possible: Grid, tired_reps: float, calls: Grid) -> Grid:
    """The logarithm of how likely a bout was, up to a constant.

    `possible` are the reps to failure by curve and max, shape (curves, maxes), `tired_reps` the reps done before
    that still weigh, `calls` how many reps are left for each that is called, shape (calls, 1, 1). Returns the
    shape (calls, curves, maxes), or (curves, maxes) where calls make no difference.
    """
    spread = SPREAD * (1 + TIRED * tired_reps) * bout.vague
    found = np.log(np.maximum(possible, 1 - COUNTED) + COUNTED)
    if bout.left is None and not bout.failed:
        return _at_least(found, np.log(bout.reps + COUNTED), spread)
    left = 0.0 if bout.failed or not bout.left else bout.left * calls
    if bout.or_more and not bout.failed:
        return _at_least(found, np.log(bout.reps + left + COUNTED), spread)
    within = WITHIN_A_REP if bout.failed else CALLED_WITHIN_A_REP if bout.left else 0.0
    counted = bout.reps + left + within + COUNTED
    away = np.abs(found - np.log(counted)) / spread
    likely: Grid = -away - 2 * np.log(1 + np.exp(-away))
    return likely


def _at_least(found: Grid, least: Grid | float, spread: float) -> Grid:
    """The logarithm of how likely at least so many reps are."""
    short = (least - found) / spread
    likely: Grid = -np.maximum(short, 0.0) - np.log(1 + np.exp(-np.abs(short)))
    return likely
