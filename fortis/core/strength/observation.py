"""What a bout says about the max: how likely it was for every max there could be.

Reps to failure are told by the reps done and the reps left, as far as those are called; a bout that would not move
tells them outright. "5 or more" says at least so many, and so does a bout of which nobody said how many were left.
"""

from typing import NamedTuple, TypeVar

import numpy as np
from numpy.typing import NDArray

Grid = NDArray[np.float64]

SPREAD = 0.07
"""How far off the reps to failure may be, as a share of them and of `COUNTED` more: counting, calling, and what no
curve has right. The same whatever the bout, so that more reps, or more left, can never speak for a lower max."""
COUNTED = 3.0
TIRED = 0.06
"""How much further off for each rep done before that no rest has brought back."""
AS_GOOD_AS_FRESH = 3.0
"""A bout with fewer such reps before it is as good as fresh. A tired one can be far off because nobody recovers
quite as expected, and then says little, like a vague one. What a fresh one says counts however far off it is."""
CALLING = 0.85
"""How much of that is the calling, as a share of its variance, of a called bout: none left is a call too."""
USUAL_CALLS = 1.1
"""Reps left for each one that is called: most lifters have a little more than they call (from memory of the
literature)."""
WITHIN_A_REP = 0.5
CALLED_WITHIN_A_REP = 0.2
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


Calls = TypeVar("Calls", float, Grid)


def to_failure(bout: Heard, calls: Calls) -> Calls | float:
    """The reps to failure that a bout which tells them stands for, with so many left for each that is called."""
    if bout.failed or not bout.left:
        return bout.reps + (WITHIN_A_REP if bout.failed else 0.0)
    return bout.reps + CALLED_WITHIN_A_REP + bout.left * calls


def likelihood(bout: Heard, possible: Grid, tired_reps: float, calls: Grid) -> Grid:
    """The logarithm of how likely a bout was, up to a constant.

    `possible` are the reps to failure by curve and max, shape (curves, maxes), `tired_reps` the reps done before
    that still weigh, `calls` how many reps are left for each that is called, shape (calls, 1, 1). Returns the
    shape (calls, curves, maxes), or (curves, maxes) where calls make no difference.

    What is likely or not is the number that was called. Each one called spans as many reps as are left for it, and
    most of how far off a called bout may be is the calling, which spans as many more: without both, whoever calls
    few, or many, would seem to err the least.
    """
    spread = SPREAD * (1 + TIRED * tired_reps) * bout.vague
    found = np.log(np.maximum(possible, 1 - COUNTED) + COUNTED)
    is_called = bout.tells_reps and not bout.failed
    wider = _wider(calls) if is_called else 1.0
    told = np.log(to_failure(bout, calls) + COUNTED) if bout.tells_reps else 0.0
    if bout.tells_reps:
        away = np.abs(found - told) / (spread * wider)
        likely: Grid = -away - 2 * np.log(1 + np.exp(-away))
    else:
        left = bout.left * calls if bout.left else 0.0
        short = (np.log(bout.reps + left + COUNTED) - found) / spread
        likely = -np.maximum(short, 0.0) - np.log(1 + np.exp(-np.abs(short)))
    if tired_reps < AS_GOOD_AS_FRESH and bout.vague <= 1:
        likely = _concave(likely)
    if is_called:
        likely = likely + np.log(calls / wider) - told
    return likely


def _wider(calls: Grid) -> Grid:
    """How many times as far off a called bout may be as one with the usual calls.

    The same however many are left, so that more left never speaks for a lower max.
    """
    wider: Grid = np.sqrt(1 - CALLING + CALLING * (calls / USUAL_CALLS) ** 2)
    return wider


def _concave(likely: Grid) -> Grid:
    """The same with slopes that never let up away from the likeliest max.

    Of two bouts the one of more load, reps or reps left then never speaks for a lower max, however far both lie
    from what was believed.
    """
    slopes = likely[..., 1:] - likely[..., :-1]
    down = np.minimum(slopes, 0.0)
    np.minimum.accumulate(down, axis=-1, out=down)
    up = np.maximum(slopes, 0.0, out=slopes)[..., ::-1]
    np.maximum.accumulate(up, axis=-1, out=up)
    down += up[..., ::-1]
    concave = np.empty_like(likely)
    concave[..., 0] = 0.0
    np.add.accumulate(down, axis=-1, out=concave[..., 1:])
    concave += likely.max(axis=-1, keepdims=True) - concave.max(axis=-1, keepdims=True)
    return concave
